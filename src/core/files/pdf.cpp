#include "files/pdf.h"

#include <cairo-ft.h>
#include <cairo-pdf.h>
#include <hb-ft.h>

#include <memory>

#include "files/onto_pdf.h"

namespace skarvel {
namespace {

// cairo may hold a face in its caches after the last page: the FreeType face and its bytes go when cairo lets go.
struct Held {
    FT_Face face;
    std::shared_ptr<const std::string> bytes;
};

FT_Library shared_library() {
    static FT_Library library = [] {
        FT_Library made = nullptr;
        FT_Init_FreeType(&made);
        return made;
    }();
    return library;
}

class PageTypeface {
  public:
    explicit PageTypeface(std::shared_ptr<const std::string> bytes) {
        FT_Face ft = nullptr;
        const auto size = static_cast<FT_Long>(bytes->size());
        if (FT_New_Memory_Face(shared_library(), reinterpret_cast<const FT_Byte*>(bytes->data()), size, 0, &ft) != 0)
            return;
        ft_ = ft;
        face_ = cairo_ft_font_face_create_for_ft_face(ft, FT_LOAD_NO_HINTING);
        static const cairo_user_data_key_t key{};
        auto held = std::make_unique<Held>(Held{ft, std::move(bytes)});
        const auto release = [](void* data) {
            const std::unique_ptr<Held> last(static_cast<Held*>(data));
            FT_Done_Face(last->face);
        };
        if (cairo_font_face_set_user_data(face_, &key, held.get(), release) == CAIRO_STATUS_SUCCESS)
            (void)held.release();
    }
    ~PageTypeface() {
        if (face_ != nullptr) cairo_font_face_destroy(face_);
    }
    PageTypeface(const PageTypeface&) = delete;
    PageTypeface& operator=(const PageTypeface&) = delete;
    [[nodiscard]] cairo_font_face_t* get() const { return face_; }
    [[nodiscard]] FT_Face ft() const { return ft_; }

  private:
    cairo_font_face_t* face_ = nullptr;
    FT_Face ft_ = nullptr;
};

// A run as glyphs, shaped so that fractions are set as fractions, with the bytes that each cluster stands for.
struct SetText {
    std::vector<cairo_glyph_t> glyphs;
    std::vector<cairo_text_cluster_t> clusters;
    double width = 0;
};

SetText set_text(const PageTypeface& typeface, const std::string& text, double size) {
    SetText out;
    FT_Set_Char_Size(typeface.ft(), 0, 1000 * 64, 72, 72);
    hb_font_t* font = hb_ft_font_create_referenced(typeface.ft());
    hb_ft_font_set_load_flags(font, FT_LOAD_NO_HINTING);
    hb_buffer_t* buffer = hb_buffer_create();
    hb_buffer_add_utf8(buffer, text.data(), static_cast<int>(text.size()), 0, static_cast<int>(text.size()));
    hb_buffer_guess_segment_properties(buffer);
    hb_buffer_set_direction(buffer, HB_DIRECTION_LTR);
    hb_shape(font, buffer, nullptr, 0);
    unsigned count = 0;
    const hb_glyph_info_t* info = hb_buffer_get_glyph_infos(buffer, &count);
    const hb_glyph_position_t* place = hb_buffer_get_glyph_positions(buffer, &count);
    const double scale = size / 64000;
    for (unsigned i = 0; i < count; ++i) {
        out.glyphs.push_back({info[i].codepoint, out.width + place[i].x_offset * scale, -place[i].y_offset * scale});
        out.width += place[i].x_advance * scale;
        if (i == 0 || info[i].cluster != info[i - 1].cluster) out.clusters.push_back({0, 0});
        out.clusters.back().num_glyphs += 1;
        unsigned next = static_cast<unsigned>(text.size());
        for (unsigned k = i + 1; k < count; ++k) {
            if (info[k].cluster != info[i].cluster) {
                next = info[k].cluster;
                break;
            }
        }
        out.clusters.back().num_bytes = static_cast<int>(next - info[i].cluster);
    }
    hb_buffer_destroy(buffer);
    hb_font_destroy(font);
    return out;
}

class Drawer {
  public:
    Drawer(cairo_t* cr, const PageTypeface& regular, const PageTypeface& bold)
        : cr_(cr), regular_(regular), bold_(bold) {}

    void operator()(const Fill& fill) const {
        for (const auto& ring : fill.rings) trace(ring, true);
        cairo_set_source_rgb(cr_, fill.grey, fill.grey, fill.grey);
        cairo_fill(cr_);
    }
    void operator()(const PageLine& stroke) const {
        trace(stroke.points, stroke.closed);
        cairo_set_source_rgb(cr_, stroke.grey, stroke.grey, stroke.grey);
        cairo_set_line_width(cr_, stroke.width);
        const double dash[] = {2.2, 1.2};
        cairo_set_dash(cr_, dash, stroke.dashed ? 2 : 0, 0);
        cairo_stroke(cr_);
    }
    void operator()(const TextRun& run) const {
        const PageTypeface& typeface = run.bold ? bold_ : regular_;
        SetText set = set_text(typeface, run.text, run.size_mm);
        cairo_set_font_face(cr_, typeface.get());
        cairo_set_font_size(cr_, run.size_mm);
        const double shift = run.align == Align::Left ? 0 : run.align == Align::Centre ? set.width / 2 : set.width;
        for (cairo_glyph_t& g : set.glyphs) {
            g.x += run.at.x - shift;
            g.y += run.at.y;
        }
        cairo_set_source_rgb(cr_, run.grey, run.grey, run.grey);
        cairo_show_text_glyphs(cr_, run.text.data(), static_cast<int>(run.text.size()), set.glyphs.data(),
                               static_cast<int>(set.glyphs.size()), set.clusters.data(),
                               static_cast<int>(set.clusters.size()), static_cast<cairo_text_cluster_flags_t>(0));
    }

  private:
    void trace(const std::vector<PagePoint>& points, bool closed) const {
        bool first = true;
        for (const PagePoint& p : points) {
            first ? cairo_move_to(cr_, p.x, p.y) : cairo_line_to(cr_, p.x, p.y);
            first = false;
        }
        if (closed) cairo_close_path(cr_);
    }
    cairo_t* cr_;
    const PageTypeface& regular_;
    const PageTypeface& bold_;
};

}  // namespace

Expected<std::string> write_pdf(const std::vector<Page>& pages, const Library& library, const std::string& title) {
    std::string bytes;
    const PageTypeface regular(library.page_typeface);
    const PageTypeface bold(library.page_typeface_bold);
    if (regular.get() == nullptr || bold.get() == nullptr) return refused({"typeface.damaged", {}}, "sheets");
    cairo_surface_t* surface = cairo_pdf_surface_create_for_stream(onto_pdf::collect, &bytes, 612, 792);
    cairo_pdf_surface_set_metadata(surface, CAIRO_PDF_METADATA_TITLE, title.c_str());
    cairo_t* cr = cairo_create(surface);
    for (const Page& page : pages) {
        cairo_pdf_surface_set_size(surface, page.width_mm * onto_pdf::points_per_mm,
                                   page.height_mm * onto_pdf::points_per_mm);
        cairo_save(cr);
        cairo_scale(cr, onto_pdf::points_per_mm, onto_pdf::points_per_mm);
        const Drawer drawer(cr, regular, bold);
        for (const auto& mark : page.marks) std::visit(drawer, mark);
        cairo_restore(cr);
        cairo_show_page(cr);
    }
    cairo_destroy(cr);
    cairo_surface_finish(surface);
    const bool good = cairo_surface_status(surface) == CAIRO_STATUS_SUCCESS;
    cairo_surface_destroy(surface);
    if (!good) return refused({"file.no-pages", {}}, "sheets");
    return bytes;
}

}  // namespace skarvel
