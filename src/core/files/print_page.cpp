#include "files/print_page.h"

#include <cairo-pdf.h>

namespace skarvel {
namespace {

constexpr double points_per_mm = 72 / 25.4;

cairo_status_t collect(void* closure, const unsigned char* data, unsigned length) {
    static_cast<std::string*>(closure)->append(reinterpret_cast<const char*>(data), length);
    return CAIRO_STATUS_SUCCESS;
}

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

std::vector<Printed> printed_on(const Plan& plan, const ColourPlan& carrier, const OnMat& s) {
    std::vector<Printed> all;
    for (const ColourPlan& f : plan.colours) {
        if (f.id != carrier.id && f.cut.printed_with != carrier.id) continue;
        std::vector<Region> shapes;
        for (const Piece& p : *f.ink) shapes.push_back(p.shape);
        Region ink = merge(shapes);
        ink = s.placement.slant != 0 ? ink.rotated(s.placement.slant) : s.placement.turned ? ink.turned() : ink;
        all.push_back({f.id, intersect(ink.moved(s.moved), s.laid.cut)});
    }
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
        collect, &page.pdf, page.width.in_mm() * points_per_mm, high * points_per_mm);
    cairo_pdf_surface_set_metadata(surface, CAIRO_PDF_METADATA_TITLE, load.load->name.c_str());
    cairo_t* cr = cairo_create(surface);
    cairo_scale(cr, points_per_mm, points_per_mm);
    // Millimetres from the cut path's zero, y upwards, to the page.
    const auto x_of = [&](double x) { return border.in_mm() + x; };
    const auto y_of = [&](double y) { return high - border.in_mm() - y; };
    for (const OnMat& s : load.sections) {
        const ColourPlan* carrier = plan.of(s.of);
        if (carrier == nullptr) continue;
        const std::vector<Printed> colours = printed_on(plan, *carrier, s);
        // What goes past the cut lies under all colours.
        for (const bool past : {true, false}) {
            for (const auto& [colour, ink] : colours) {
                const auto at = place_of(job, colour);
                const Rgb rgb = at ? rgb_of(colour_at(job, *at).paint.colour) : Rgb{};
                cairo_set_source_rgb(cr, rgb.red, rgb.green, rgb.blue);
                const Region shape = past ? intersect(grow(ink, print_bleed), s.laid.film) : ink;
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
