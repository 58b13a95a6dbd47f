#include "sheets/page_text.h"

#include <hb.h>
#include <unicode/brkiter.h>

namespace skarvel {

struct PageText::Typeface {
    explicit Typeface(std::shared_ptr<const std::string> file) : bytes(std::move(file)) {
        if (!bytes) return;
        hb_blob_t* blob = hb_blob_create(bytes->data(), static_cast<unsigned>(bytes->size()), HB_MEMORY_MODE_READONLY,
                                         nullptr, nullptr);
        hb_face_t* face = hb_face_create(blob, 0);
        font = hb_font_create(face);
        units = hb_face_get_upem(face);
        hb_face_destroy(face);
        hb_blob_destroy(blob);
    }
    ~Typeface() { hb_font_destroy(font); }
    Typeface(const Typeface&) = delete;
    Typeface& operator=(const Typeface&) = delete;

    std::shared_ptr<const std::string> bytes;  // the font reads from it
    hb_font_t* font = nullptr;
    unsigned units = 1000;
};

PageText::PageText(const Library& library)
    : regular_(std::make_unique<Typeface>(library.page_typeface)),
      bold_(std::make_unique<Typeface>(library.page_typeface_bold)) {}
PageText::~PageText() = default;

double PageText::width(const std::string& words, double size_mm, bool bold) const {
    const Typeface& typeface = bold ? *bold_ : *regular_;
    if (typeface.font == nullptr) return 0;
    hb_buffer_t* buffer = hb_buffer_create();
    hb_buffer_add_utf8(buffer, words.data(), static_cast<int>(words.size()), 0, static_cast<int>(words.size()));
    hb_buffer_guess_segment_properties(buffer);
    hb_shape(typeface.font, buffer, nullptr, 0);
    unsigned count = 0;
    const hb_glyph_position_t* places = hb_buffer_get_glyph_positions(buffer, &count);
    double units = 0;
    for (unsigned i = 0; i < count; ++i) units += places[i].x_advance;
    hb_buffer_destroy(buffer);
    return units * size_mm / typeface.units;
}

std::vector<std::string> PageText::lines(const std::string& words, double width_mm, double size_mm, bool bold) const {
    const auto utf8 = [](const icu::UnicodeString& text) {
        std::string out;
        return text.toUTF8String(out);
    };
    UErrorCode status = U_ZERO_ERROR;
    const icu::UnicodeString text = icu::UnicodeString::fromUTF8(words);
    const std::unique_ptr<icu::BreakIterator> breaks(icu::BreakIterator::createLineInstance("en", status));
    const std::unique_ptr<icu::BreakIterator> letters(icu::BreakIterator::createCharacterInstance("en", status));
    if (U_FAILURE(status)) return {words};
    breaks->setText(text);
    letters->setText(text);
    std::vector<std::string> out;
    int32_t from = 0;
    int32_t good = 0;  // the line may end here
    const auto piece = [&](int32_t to) { return utf8(text.tempSubStringBetween(from, to).trim()); };
    const auto fits = [&](int32_t to) { return width(piece(to), size_mm, bold) <= width_mm; };
    for (int32_t at = breaks->next(); at != icu::BreakIterator::DONE; at = breaks->next()) {
        if (!fits(at) && good > from) {
            out.push_back(piece(good));
            from = good;
        }
        // One word that is wider than the line.
        while (!fits(at)) {
            int32_t end = letters->following(from);
            for (int32_t next = letters->next(); next != icu::BreakIterator::DONE && next < at && fits(next);
                 next = letters->next())
                end = next;
            if (end == icu::BreakIterator::DONE || end >= at) break;
            out.push_back(piece(end));
            from = end;
        }
        good = at;
        const bool ends = at > 0 && text.charAt(at - 1) == u'\n';
        if (!ends) continue;
        out.push_back(piece(at));
        from = at;
    }
    if (from < text.length() || out.empty()) out.push_back(piece(text.length()));
    return out;
}

}  // namespace skarvel
