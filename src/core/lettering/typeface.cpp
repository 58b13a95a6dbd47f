#include "lettering/typeface.h"

#include <ft2build.h>
#include FT_FREETYPE_H
#include FT_OUTLINE_H
#include <fribidi.h>
#include <hb-ot.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <mutex>
#include <optional>

#include "values/checksum.h"

namespace skarvel {

struct Typeface::Found {
    std::once_flag once;
    bool script = false;
};

namespace {

using Library = std::unique_ptr<std::remove_pointer_t<FT_Library>, decltype(&FT_Done_FreeType)>;
using Face = std::unique_ptr<std::remove_pointer_t<FT_Face>, decltype(&FT_Done_Face)>;

Library open_library() {
    FT_Library library = nullptr;
    FT_Init_FreeType(&library);
    return {library, FT_Done_FreeType};
}

Face open_face(const Library& library, const std::string& bytes) {
    FT_Face face = nullptr;
    const auto size = static_cast<FT_Long>(bytes.size());
    if (FT_New_Memory_Face(library.get(), reinterpret_cast<const FT_Byte*>(bytes.data()), size, 0, &face) != 0) {
        return {nullptr, FT_Done_Face};
    }
    return {face, FT_Done_Face};
}

struct Pen {
    Outline* outline;
    double dx, dy;
    [[nodiscard]] Outline::Node node(const FT_Vector* v) const {
        return {static_cast<double>(v->x) + dx, static_cast<double>(v->y) + dy};
    }
};

int move_to(const FT_Vector* to, void* pen) {
    const auto* p = static_cast<Pen*>(pen);
    p->outline->contours.push_back({p->node(to), {}});
    return 0;
}
int line_to(const FT_Vector* to, void* pen) {
    const auto* p = static_cast<Pen*>(pen);
    p->outline->contours.back().curves.push_back({p->node(to)});
    return 0;
}
int quadratic_to(const FT_Vector* control, const FT_Vector* to, void* pen) {
    const auto* p = static_cast<Pen*>(pen);
    p->outline->contours.back().curves.push_back({p->node(control), p->node(to)});
    return 0;
}
int cubic_to(const FT_Vector* first, const FT_Vector* second, const FT_Vector* to, void* pen) {
    const auto* p = static_cast<Pen*>(pen);
    p->outline->contours.back().curves.push_back({p->node(first), p->node(second), p->node(to)});
    return 0;
}

void add_glyph(FT_Face face, hb_codepoint_t glyph, double dx, double dy, Outline& outline) {
    if (FT_Load_Glyph(face, glyph, FT_LOAD_NO_SCALE | FT_LOAD_NO_BITMAP) != 0) return;
    if (face->glyph->format != FT_GLYPH_FORMAT_OUTLINE) return;
    static const FT_Outline_Funcs funcs{move_to, line_to, quadratic_to, cubic_to, 0, 0};
    Pen pen{&outline, dx, dy};
    FT_Outline_Decompose(&face->glyph->outline, &funcs, &pen);
}

bool is_mark(hb_codepoint_t c) {
    const auto category = hb_unicode_general_category(hb_unicode_funcs_get_default(), c);
    return category == HB_UNICODE_GENERAL_CATEGORY_NON_SPACING_MARK ||
           category == HB_UNICODE_GENERAL_CATEGORY_SPACING_MARK ||
           category == HB_UNICODE_GENERAL_CATEGORY_ENCLOSING_MARK || c == 0x200D || (c >= 0xFE00 && c <= 0xFE0F);
}

hb_codepoint_t decode(std::string_view text, std::size_t& i) {
    const auto byte = [&](std::size_t k) { return static_cast<unsigned char>(k < text.size() ? text[k] : 0); };
    const unsigned char first = byte(i);
    const int extra = first >= 0xF0 ? 3 : first >= 0xE0 ? 2 : first >= 0xC0 ? 1 : 0;
    hb_codepoint_t c = extra == 0 ? first : first & (0x3FU >> extra);
    for (int k = 1; k <= extra; ++k) c = (c << 6U) | (byte(i + static_cast<std::size_t>(k)) & 0x3FU);
    i = std::min(text.size(), i + static_cast<std::size_t>(extra) + 1);
    return c;
}

// Letters of plain feet that stand apart in every typeface that is not drawn to be joined.
bool is_script(const Typeface& typeface) {
    const std::vector<ShapedLetter> line = shape(typeface, "noumea");
    constexpr double small = 10;  // mm of cap height: whether letters touch shows at that size with far fewer corners
    const double mm = small / typeface.cap_height;
    // Most typefaces leave room between their letters, which their boxes tell.
    std::vector<std::size_t> may_touch;  // the letter before them
    double before = 0;
    for (std::size_t i = 0; i < line.size(); ++i) {
        constexpr double rounding = 0.01;  // mm
        const Extent box = extent_of(line[i].outline);
        if (i > 0 && (line[i].x + box.x0 - before) * mm <= rounding) may_touch.push_back(i);
        before = line[i].x + box.x1;
    }
    if (may_touch.size() * 2 < line.size()) return false;
    const auto region_of = [&](const ShapedLetter& letter) {
        return flatten(letter.outline, mm, mm).moved({std::llround(letter.x * mm * (1e6 / grid_nm)), 0});
    };
    const auto touching = std::count_if(may_touch.begin(), may_touch.end(), [&](std::size_t i) {
        return touch(region_of(line[i - 1]), region_of(line[i]));
    });
    return static_cast<std::size_t>(touching) * 2 >= line.size();
}

bool is_blank(std::string_view text) {
    return std::all_of(text.begin(), text.end(), [](char c) { return c == ' ' || c == '\t'; }) || text == "\u00a0";
}

using Font = std::unique_ptr<hb_font_t, decltype(&hb_font_destroy)>;
using Buffer = std::unique_ptr<hb_buffer_t, decltype(&hb_buffer_destroy)>;

Font open_font(const Typeface& typeface) {
    const std::unique_ptr<hb_blob_t, decltype(&hb_blob_destroy)> blob(
        hb_blob_create(typeface.bytes->data(), static_cast<unsigned>(typeface.bytes->size()), HB_MEMORY_MODE_READONLY,
                       nullptr, nullptr),
        hb_blob_destroy);
    const std::unique_ptr<hb_face_t, decltype(&hb_face_destroy)> face(hb_face_create(blob.get(), 0), hb_face_destroy);
    Font font(hb_font_create(face.get()), hb_font_destroy);
    const auto upem = static_cast<int>(typeface.units_per_em);
    hb_font_set_scale(font.get(), upem, upem);
    return font;
}

// A stretch of a line that reads one way.
struct OneWay {
    std::size_t from = 0, to = 0;  // bytes
    bool leftwards = false;
};

// In the order in which they stand from the left.
std::vector<OneWay> runs_of(std::string_view text) {
    std::vector<FriBidiChar> characters;
    std::vector<std::size_t> starts;
    for (std::size_t i = 0; i < text.size();) {
        starts.push_back(i);
        characters.push_back(decode(text, i));
    }
    starts.push_back(text.size());
    const auto count = static_cast<FriBidiStrIndex>(characters.size());
    if (count == 0) return {};
    std::vector<FriBidiCharType> types(characters.size());
    std::vector<FriBidiBracketType> brackets(characters.size());
    std::vector<FriBidiLevel> levels(characters.size());
    std::vector<FriBidiStrIndex> places(characters.size());
    for (std::size_t i = 0; i < places.size(); ++i) places[i] = static_cast<FriBidiStrIndex>(i);
    fribidi_get_bidi_types(characters.data(), count, types.data());
    fribidi_get_bracket_types(characters.data(), count, types.data(), brackets.data());
    FriBidiParType base = FRIBIDI_PAR_ON;
    if (fribidi_get_par_embedding_levels_ex(types.data(), brackets.data(), count, &base, levels.data()) == 0 ||
        fribidi_reorder_line(FRIBIDI_FLAGS_DEFAULT, types.data(), count, 0, base, levels.data(), nullptr,
                             places.data()) == 0)
        return {{0, text.size(), false}};
    std::vector<OneWay> runs;
    int level = -1;
    for (const FriBidiStrIndex place : places) {
        const auto at = static_cast<std::size_t>(place);
        const bool leftwards = levels[at] % 2 != 0;
        const bool goes_on = !runs.empty() && levels[at] == level &&
                             (leftwards ? starts[at + 1] == runs.back().from : starts[at] == runs.back().to);
        if (!goes_on) {
            runs.push_back({starts[at], starts[at + 1], leftwards});
        } else if (leftwards) {
            runs.back().from = starts[at];
        } else {
            runs.back().to = starts[at + 1];
        }
        level = levels[at];
    }
    return runs;
}

std::vector<hb_feature_t> features_of(const std::vector<std::string>& alternates) {
    std::vector<hb_feature_t> features;
    for (const std::string& name : alternates) {
        hb_feature_t feature{};
        if (hb_feature_from_string(name.data(), static_cast<int>(name.size()), &feature) != 0)
            features.push_back(feature);
    }
    return features;
}

Buffer shaped_run(const Font& font, std::string_view text, const OneWay& run,
                  const std::vector<hb_feature_t>& features) {
    Buffer buffer(hb_buffer_create(), hb_buffer_destroy);
    hb_buffer_add_utf8(buffer.get(), text.data(), static_cast<int>(text.size()), static_cast<unsigned>(run.from),
                       static_cast<int>(run.to - run.from));
    hb_buffer_set_direction(buffer.get(), run.leftwards ? HB_DIRECTION_RTL : HB_DIRECTION_LTR);
    hb_buffer_guess_segment_properties(buffer.get());
    hb_shape(font.get(), buffer.get(), features.data(), static_cast<unsigned>(features.size()));
    return buffer;
}

std::vector<hb_codepoint_t> glyphs_of(const Font& font, std::string_view text,
                                      const std::vector<std::string>& alternates) {
    std::vector<hb_codepoint_t> glyphs;
    for (const OneWay& run : runs_of(text)) {
        const Buffer buffer = shaped_run(font, text, run, features_of(alternates));
        unsigned count = 0;
        const hb_glyph_info_t* info = hb_buffer_get_glyph_infos(buffer.get(), &count);
        for (unsigned i = 0; i < count; ++i) glyphs.push_back(info[i].codepoint);
    }
    return glyphs;
}

// What the typeface itself calls a set of alternates.
std::string name_of(hb_face_t* face, unsigned feature) {
    hb_ot_name_id_t label = HB_OT_NAME_ID_INVALID;
    if (hb_ot_layout_feature_get_name_ids(face, HB_OT_TAG_GSUB, feature, &label, nullptr, nullptr, nullptr, nullptr) ==
        0)
        return {};
    std::array<char, 80> name{};
    unsigned size = name.size();
    hb_ot_name_get_utf8(face, label, hb_language_from_string("en", -1), &size, name.data());
    return name.data();
}

}  // namespace

namespace {

// Letters that the typeface says it has, but whose outlines cannot be read, hold no numbers that can be drawn, or are
// nothing at all.
std::string hollow_letters(FT_Face face) {
    std::string hollow;
    int there = 0;
    int empty = 0;
    const auto look = [&](FT_ULong letter, FT_UInt glyph) {
        ++there;
        Outline outline;
        add_glyph(face, glyph, 0, 0, outline);
        const Extent box = extent_of(outline);
        // Ten times its own square and more is no letter.
        const double most = 10.0 * face->units_per_EM;
        const bool wild =
            !box.empty() && std::max({std::abs(box.x0), std::abs(box.x1), std::abs(box.y0), std::abs(box.y1)}) > most;
        if (!box.empty() && !wild) return;
        ++empty;
        if (letter < 128) hollow += static_cast<char>(letter);
    };
    for (FT_ULong letter = '0'; letter <= 'z'; ++letter) {
        const bool basic = letter <= '9' || (letter >= 'A' && letter <= 'Z') || letter >= 'a';
        if (const FT_UInt glyph = FT_Get_Char_Index(face, letter); basic && glyph != 0) look(letter, glyph);
    }
    if (there == 0) {
        // Of another script: the first letters that it has.
        FT_UInt glyph = 0;
        constexpr int enough = 60;
        for (FT_ULong c = FT_Get_First_Char(face, &glyph); glyph != 0 && there < enough;
             c = FT_Get_Next_Char(face, c, &glyph))
            look(c, glyph);
        return empty * 2 > there || there == 0 ? "?" : "";
    }
    return hollow;
}

}  // namespace

Expected<Typeface> read_typeface(std::shared_ptr<const std::string> bytes, Trust trust) {
    const Library library = open_library();
    const Face face = open_face(library, *bytes);
    if (!face || !FT_IS_SCALABLE(face.get())) return refused({"typeface.damaged", {}}, "typeface");
    Typeface typeface;
    typeface.name = {face->family_name == nullptr ? "" : face->family_name,
                     face->style_name == nullptr ? "Regular" : face->style_name, checksum_of(*bytes)};
    typeface.units_per_em = face->units_per_EM;
    if (const std::string hollow = trust == Trust::Shipped ? std::string() : hollow_letters(face.get());
        !hollow.empty())
        return refused(
            {"typeface.hollow", {{"typeface", typeface.name.family + " " + typeface.name.style}, {"letters", hollow}}},
            "typeface");
    const auto height_of = [&](FT_ULong letter, double& height) {
        Outline outline;
        add_glyph(face.get(), FT_Get_Char_Index(face.get(), letter), 0, 0, outline);
        const Extent box = extent_of(outline);
        if (!box.empty()) height = box.y1 - box.y0;
    };
    height_of('H', typeface.cap_height);
    height_of('x', typeface.x_height);
    typeface.bytes = std::move(bytes);
    typeface.found = std::make_shared<Typeface::Found>();
    return typeface;
}

bool Typeface::script() const {
    if (found == nullptr || bytes == nullptr) return false;
    std::call_once(found->once, [&] { found->script = is_script(*this); });
    return found->script;
}

std::vector<std::string> letters_of(std::string_view text) {
    std::vector<std::string> letters;
    for (std::size_t i = 0; i < text.size();) {
        const std::size_t from = i;
        const hb_codepoint_t c = decode(text, i);
        const std::string_view bytes = text.substr(from, i - from);
        if (is_mark(c) && !letters.empty()) {
            letters.back() += bytes;
        } else {
            letters.emplace_back(bytes);
        }
    }
    return letters;
}

std::vector<ShapedLetter> shape(const Typeface& typeface, std::string_view text,
                                const std::vector<std::string>& alternates) {
    const Library library = open_library();
    const Face face = open_face(library, *typeface.bytes);
    if (!face) return {};
    const Font font = open_font(typeface);
    std::vector<ShapedLetter> letters;
    std::vector<std::size_t> starts;
    double pen = 0;
    for (const OneWay& run : runs_of(text)) {
        const Buffer buffer = shaped_run(font, text, run, features_of(alternates));
        unsigned count = 0;
        const hb_glyph_info_t* info = hb_buffer_get_glyph_infos(buffer.get(), &count);
        const hb_glyph_position_t* place = hb_buffer_get_glyph_positions(buffer.get(), &count);
        for (unsigned i = 0; i < count; ++i) {
            if (i == 0 || info[i].cluster != info[i - 1].cluster) {
                letters.push_back({});
                letters.back().x = pen;
                starts.push_back(info[i].cluster);
            }
            ShapedLetter& letter = letters.back();
            letter.missing = letter.missing || info[i].codepoint == 0;
            add_glyph(face.get(), info[i].codepoint, pen - letter.x + place[i].x_offset, place[i].y_offset,
                      letter.outline);
            letter.advance += place[i].x_advance;
            pen += place[i].x_advance;
        }
    }
    // A letter's text runs from its cluster's byte to the next one in reading order.
    std::vector<std::size_t> order = starts;
    std::sort(order.begin(), order.end());
    for (std::size_t i = 0; i < letters.size(); ++i) {
        const auto next = std::upper_bound(order.begin(), order.end(), starts[i]);
        const std::size_t end = next == order.end() ? text.size() : *next;
        letters[i].text = std::string(text.substr(starts[i], end - starts[i]));
        letters[i].blank = is_blank(letters[i].text);
    }
    return letters;
}

std::vector<Alternate> alternates_of(const Typeface& typeface, std::string_view text) {
    const Font font = open_font(typeface);
    hb_face_t* face = hb_font_get_face(font.get());
    // What shaping needs to be right, and what spaces or places letters in other ways than this program does.
    static constexpr std::array<std::string_view, 26> needed{
        "ccmp", "locl", "rlig", "rclt", "calt", "clig", "init", "medi", "fina", "isol", "mark", "mkmk", "kern",
        "abvm", "blwm", "curs", "nukt", "akhn", "rphf", "pres", "psts", "aalt", "ordn", "mset", "rvrn", "size"};
    std::vector<Alternate> found;
    const auto usual = glyphs_of(font, text, {});
    unsigned total = hb_ot_layout_table_get_feature_tags(face, HB_OT_TAG_GSUB, 0, nullptr, nullptr);
    std::vector<hb_tag_t> tags(total);
    hb_ot_layout_table_get_feature_tags(face, HB_OT_TAG_GSUB, 0, &total, tags.data());
    for (unsigned i = 0; i < total; ++i) {
        std::array<char, 5> tag{};
        hb_tag_to_string(tags[i], tag.data());
        const std::string name = tag.data();
        if (std::find(needed.begin(), needed.end(), name) != needed.end()) continue;
        const std::string feature = name == "liga" ? "-liga" : name;
        const bool known =
            std::any_of(found.begin(), found.end(), [&](const Alternate& a) { return a.feature == feature; });
        if (!known && glyphs_of(font, text, {feature}) != usual) found.push_back({feature, name_of(face, i)});
    }
    std::sort(found.begin(), found.end(), [](const Alternate& a, const Alternate& b) { return a.feature < b.feature; });
    return found;
}

const Typeface* find_typeface(const std::vector<Typeface>& typefaces, const TypefaceName& name) {
    const auto at = std::find_if(typefaces.begin(), typefaces.end(), [&](const Typeface& t) {
        return t.name.family == name.family && t.name.style == name.style;
    });
    return at == typefaces.end() ? nullptr : &*at;
}

}  // namespace skarvel
