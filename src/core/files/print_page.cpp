#include "files/print_page.h"

#include <cairo-pdf.h>
#include <turbojpeg.h>

#include <array>
#include <cmath>
#include <cstring>
#include <memory>
#include <numbers>
#include <tuple>

#include "files/onto_pdf.h"

namespace skarvel {
namespace {

using Dots = std::unique_ptr<cairo_surface_t, decltype(&cairo_surface_destroy)>;

cairo_status_t take(void* closure, unsigned char* data, unsigned length) {
    auto& left = *static_cast<std::string_view*>(closure);
    if (left.size() < length) return CAIRO_STATUS_READ_ERROR;
    std::memcpy(data, left.data(), length);
    left.remove_prefix(length);
    return CAIRO_STATUS_SUCCESS;
}

// The dots of a picture. A JPEG goes to the page as it came; its surface only says how large it is.
Dots surface_of(const std::shared_ptr<const std::string>& bytes) {
    std::string_view left = *bytes;
    if (left.starts_with("\x89PNG"))
        return {cairo_image_surface_create_from_png_stream(take, &left), cairo_surface_destroy};
    int width = 0;
    int height = 0;
    int subsampling = 0;
    int colours = 0;
    const std::unique_ptr<void, decltype(&tjDestroy)> reader(tjInitDecompress(), tjDestroy);
    if (!reader || tjDecompressHeader3(reader.get(), reinterpret_cast<const unsigned char*>(bytes->data()),
                                       bytes->size(), &width, &height, &subsampling, &colours) != 0)
        return {nullptr, cairo_surface_destroy};
    Dots surface(cairo_image_surface_create(CAIRO_FORMAT_RGB24, width, height), cairo_surface_destroy);
    auto* kept = new std::shared_ptr<const std::string>(bytes);  // as long as the surface
    cairo_surface_set_mime_data(
        surface.get(), CAIRO_MIME_TYPE_JPEG, reinterpret_cast<const unsigned char*>((*kept)->data()), (*kept)->size(),
        [](void* p) { delete static_cast<std::shared_ptr<const std::string>*>(p); }, kept);
    return surface;
}

// From the face to the mat: mirrored on the back of a clear blank, then turned as its section lies, then moved.
struct OntoMat {
    bool mirrored = false;
    std::int64_t twice_middle = 0;
    const OnMat& section;
    [[nodiscard]] Region operator()(Region shape) const {
        if (mirrored) shape = shape.mirrored(twice_middle);
        const Placement& lies = section.placement;
        shape = lies.slant != 0 ? shape.rotated(lies.slant) : lies.turned ? shape.turned() : shape;
        return shape.moved(section.moved);
    }
    [[nodiscard]] std::pair<double, double> operator()(double x, double y) const {
        if (mirrored) x = static_cast<double>(twice_middle) - x;
        const Placement& lies = section.placement;
        if (lies.slant != 0) {
            const double angle = lies.slant * (std::numbers::pi / 180'000);
            std::tie(x, y) =
                std::pair(x * std::cos(angle) - y * std::sin(angle), x * std::sin(angle) + y * std::cos(angle));
        } else if (lies.turned) {
            std::tie(x, y) = std::pair(-y, x);
        }
        return {x + static_cast<double>(section.moved.x), y + static_cast<double>(section.moved.y)};
    }
};

struct Rgb {
    double red = 0, green = 0, blue = 0;
};

Rgb rgb_of(const std::string& colour) {
    if (colour.size() != 7 || colour.front() != '#') return {};
    const auto part = [&](std::size_t at) { return std::stoi(colour.substr(at, 2), nullptr, 16) / 255.0; };
    try {
        return {part(1), part(3), part(5)};
    } catch (const std::exception&) {
        return {};
    }
}

}  // namespace

std::vector<PrintedPicture> pictures_on(const Job& job, const Plan& plan, const ColourPlan& carrier, const OnMat& s) {
    std::vector<PrintedPicture> all;
    const FacePlan& face = *carrier.face;
    const Face& of = job.signs[face.at.sign].faces[face.at.face];
    const OntoMat onto{face.mirrored, face.blank->face.low.x + face.blank->face.high.x, s};
    for (std::size_t i = 0; i < of.art.size() && i < face.art->pictures.size(); ++i) {
        const auto* drawing = std::get_if<PlacedDrawing>(&of.art[i].kind);
        const Box& box = face.art->pictures[i];
        if (drawing == nullptr || !drawing->drawing->picture.bytes || box.empty()) continue;
        const ColourPlan* lane = plan.of(of.art[i].colour);
        if (lane == nullptr || (lane->id != carrier.id && lane->cut.printed_with != carrier.id)) continue;
        std::vector<Region> shapes;
        for (const ArtPart& part : face.art->parts[i]) shapes.push_back(part.shape);
        PrintedPicture picture{drawing->drawing->picture.bytes, {}, intersect(onto(merge(shapes)), s.laid.cut)};
        if (picture.cut.empty()) continue;
        const auto left = static_cast<double>(drawing->mirrored ? box.high.x : box.low.x);
        const auto right = static_cast<double>(drawing->mirrored ? box.low.x : box.high.x);
        const auto [x0, y0] = onto(left, static_cast<double>(box.high.y));
        const auto [x1, y1] = onto(right, static_cast<double>(box.high.y));
        const auto [x2, y2] = onto(left, static_cast<double>(box.low.y));
        picture.corners = {{{x0, y0}, {x1, y1}, {x2, y2}}};
        all.push_back(std::move(picture));
    }
    return all;
}

std::vector<Printed> printed_on(const Job& job, const Plan& plan, const ColourPlan& carrier, const OnMat& s) {
    std::vector<Printed> all;
    for (const ColourPlan& f : plan.colours) {
        if (f.id != carrier.id && f.cut.printed_with != carrier.id) continue;
        std::vector<Region> shapes;
        for (const Piece& p : *f.ink) shapes.push_back(p.shape);
        Region ink = merge(shapes);
        ink = s.placement.slant != 0 ? ink.rotated(s.placement.slant) : s.placement.turned ? ink.turned() : ink;
        all.push_back({f.id, intersect(ink.moved(s.moved), s.laid.cut)});
    }
    // A picture has colours of its own; letters that touch it lie over it.
    std::vector<Region> pictures;
    for (const PrintedPicture& picture : pictures_on(job, plan, carrier, s)) pictures.push_back(picture.cut);
    if (pictures.empty()) return all;
    const FacePlan& face = *carrier.face;
    const OntoMat onto{face.mirrored, face.blank->face.low.x + face.blank->face.high.x, s};
    std::vector<Region> letters;
    for (const PlacedLetter& letter : face.lettering->letters) letters.push_back(onto(letter.ink));
    const Region own = subtract(merge(pictures), merge(letters));
    for (Printed& printed : all) printed.ink = subtract(printed.ink, own);
    return all;
}

Expected<PrintPage> print_page(const Job& job, const Plan& plan, const LoadToCut& load) {
    if (!load.bed.print) {
        return refused({"print.no-marks", {{"load", load.load->name}, {"bed", load.bed.name}}}, Station::Sections,
                       {"print.on-page", {}});
    }
    const PrintArea& area = *load.bed.print;
    Box reach;
    for (const OnMat& s : load.sections) reach = around(reach, s.laid.film.bounds());
    const Room between = between_marks(area);
    if (from_grid(reach.high.x) > between.across || from_grid(reach.high.y) > between.along) {
        return refused({"print.marks-leave-page",
                        {{"load", load.load->name},
                         {"across", from_grid(reach.high.x)},
                         {"along", from_grid(reach.high.y)},
                         {"room_across", between.across},
                         {"room_along", between.along}}},
                       Station::Sections, {"print.on-page", {}});
    }
    const Length border = area.margin + area.mark;
    PrintPage page;
    page.name = load.word + ".print.pdf";
    page.width = area.page.across;
    // Of a longer page only as much as is needed.
    page.height = page_for(from_grid(reach.high.y), area);
    page.zero = at(border, border);
    const double high = page.height.in_mm();
    cairo_surface_t* surface = cairo_pdf_surface_create_for_stream(
        onto_pdf::collect, &page.pdf, page.width.in_mm() * onto_pdf::points_per_mm, high * onto_pdf::points_per_mm);
    cairo_pdf_surface_set_metadata(surface, CAIRO_PDF_METADATA_TITLE, load.load->name.c_str());
    cairo_t* cr = cairo_create(surface);
    cairo_scale(cr, onto_pdf::points_per_mm, onto_pdf::points_per_mm);
    // Millimetres from the cut path's zero, y upwards, to the page.
    const auto x_of = [&](double x) { return border.in_mm() + x; };
    const auto y_of = [&](double y) { return high - border.in_mm() - y; };
    bool unread = false;
    for (const OnMat& s : load.sections) {
        const ColourPlan* carrier = plan.of(s.of);
        if (carrier == nullptr) continue;
        const std::vector<Printed> colours = printed_on(job, plan, *carrier, s);
        const auto draw = [&](const Region& shape) {
            for (const Ring& ring : shape.rings()) {
                bool first = true;
                for (const Point& p : ring) {
                    const double x = x_of(grid_to_mm(p.x));
                    const double y = y_of(grid_to_mm(p.y));
                    first ? cairo_move_to(cr, x, y) : cairo_line_to(cr, x, y);
                    first = false;
                }
                cairo_close_path(cr);
            }
            cairo_set_fill_rule(cr, CAIRO_FILL_RULE_EVEN_ODD);
        };
        for (const PrintedPicture& picture : pictures_on(job, plan, *carrier, s)) {
            const Dots dots = surface_of(picture.bytes);
            if (!dots || cairo_surface_status(dots.get()) != CAIRO_STATUS_SUCCESS) {
                unread = true;
                continue;
            }
            cairo_save(cr);
            draw(intersect(grow(picture.cut, print_bleed), s.laid.film));
            cairo_clip(cr);
            const auto corner = [&](std::size_t i) {
                constexpr double mm = grid_nm * 1e-6;
                return std::pair(x_of(picture.corners[i].first * mm), y_of(picture.corners[i].second * mm));
            };
            const auto [x0, y0] = corner(0);
            const auto [x1, y1] = corner(1);
            const auto [x2, y2] = corner(2);
            const double wide = cairo_image_surface_get_width(dots.get());
            const double high = cairo_image_surface_get_height(dots.get());
            cairo_matrix_t to_page;
            cairo_matrix_init(&to_page, (x1 - x0) / wide, (y1 - y0) / wide, (x2 - x0) / high, (y2 - y0) / high, x0, y0);
            cairo_transform(cr, &to_page);
            cairo_set_source_surface(cr, dots.get(), 0, 0);
            cairo_paint(cr);
            cairo_restore(cr);
        }
        // What goes past the cut lies under all colours.
        for (const bool past : {true, false}) {
            for (const auto& [colour, ink] : colours) {
                const auto at = place_of(job, colour);
                const Rgb rgb = at ? rgb_of(colour_at(job, *at).paint.colour) : Rgb{};
                cairo_set_source_rgb(cr, rgb.red, rgb.green, rgb.blue);
                const Region shape = past ? intersect(grow(ink, print_bleed), s.laid.film) : ink;
                draw(shape);
                cairo_fill(cr);
            }
        }
    }
    // Corners around what is between the marks, black, 1 mm thick; their inner edges are what the path counts from.
    constexpr double thick = 1;
    const double right = between.across.in_mm();
    const double top = (page.height - border * 2).in_mm();
    const double arm = area.mark.in_mm();
    cairo_set_source_rgb(cr, 0, 0, 0);
    for (const auto& [x, y, dx, dy] : {std::tuple(0.0, 0.0, -1, -1), std::tuple(right, 0.0, 1, -1),
                                       std::tuple(0.0, top, -1, 1), std::tuple(right, top, 1, 1)}) {
        const double px = x_of(x);
        const double py = y_of(y);
        cairo_rectangle(cr, dx < 0 ? px - thick : px, dy < 0 ? py - arm : py, thick, arm);
        cairo_rectangle(cr, dx < 0 ? px - thick : px - arm, dy < 0 ? py : py - thick, arm + thick, thick);
        cairo_fill(cr);
    }
    cairo_show_page(cr);
    cairo_destroy(cr);
    cairo_surface_finish(surface);
    const bool good = cairo_surface_status(surface) == CAIRO_STATUS_SUCCESS;
    cairo_surface_destroy(surface);
    if (unread)
        return refused({"print.picture-unread", {{"load", load.load->name}}}, Station::Sections,
                       {"print.picture-again", {}});
    if (!good) return refused({"file.no-pages", {}}, Station::Sections);
    return page;
}

std::vector<PrintPage> print_pages(const Job& job, const Plan& plan, const Shop& shop, std::vector<Problem>* refused) {
    std::vector<PrintPage> pages;
    for (const LoadToCut& load : loads_to_cut(plan, shop)) {
        if (!is_printed(load.colour->cut.making)) continue;
        auto page = print_page(job, plan, load);
        if (page) {
            pages.push_back(std::move(*page));
        } else if (refused != nullptr) {
            refused->push_back(page.error());
        }
    }
    return pages;
}

}  // namespace skarvel
