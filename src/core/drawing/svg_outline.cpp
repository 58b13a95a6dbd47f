// Shapes of an SVG document, by way of the packages for XML and SVG. Kept apart: it is slow to compile.
#include <libxml/parser.h>

#include <array>
#include <boost/array.hpp>
#include <boost/mpl/insert.hpp>
#include <boost/mpl/set.hpp>
#include <cmath>
#include <memory>
#include <numbers>
#include <optional>
#include <svgpp/policy/xml/libxml2.hpp>
#include <svgpp/svgpp.hpp>
#include <type_traits>

#include "drawing/outline_file.h"
#include "drawing/svg_plain.h"
#include "drawing/svg_tree.h"
#include "drawing/too_much.h"

namespace skarvel {
namespace {

// a c e / b d f, as SVG writes them.
struct Matrix {
    std::array<double, 6> m{1, 0, 0, 1, 0, 0};
    [[nodiscard]] Outline::Node of(double x, double y) const {
        // SVG counts y downwards.
        return {m[0] * x + m[2] * y + m[4], -(m[1] * x + m[3] * y + m[5])};
    }
    [[nodiscard]] Matrix then(const Matrix& inner) const {
        const auto& b = inner.m;
        return {{m[0] * b[0] + m[2] * b[1], m[1] * b[0] + m[3] * b[1], m[0] * b[2] + m[2] * b[3],
                 m[1] * b[2] + m[3] * b[3], m[0] * b[4] + m[2] * b[5] + m[4], m[1] * b[4] + m[3] * b[5] + m[5]}};
    }
};

using Absolute = svgpp::tag::coordinate::absolute;

class Collector {
  public:
    std::vector<DrawnPath> paths;

    template <class Element>
    void on_enter_element(Element) {
        matrices_.push_back(matrices_.back());
        constexpr bool group =
            std::is_same_v<Element, svgpp::tag::element::svg> || std::is_same_v<Element, svgpp::tag::element::g>;
        if (!group) ++shape_;
    }
    void on_exit_element() { matrices_.pop_back(); }
    void transform_matrix(const boost::array<double, 6>& matrix) {
        Matrix inner;
        std::copy(matrix.begin(), matrix.end(), inner.m.begin());
        matrices_.back() = matrices_.back().then(inner);
    }
    void path_move_to(double x, double y, Absolute) {
        end();
        now_ = DrawnPath{{at(x, y), {}}, false};
        first_ = last_ = {x, y};
    }
    void path_line_to(double x, double y, Absolute) {
        add({at(x, y)});
        last_ = {x, y};
    }
    void path_cubic_bezier_to(double x1, double y1, double x2, double y2, double x, double y, Absolute) {
        add({at(x1, y1), at(x2, y2), at(x, y)});
        last_ = {x, y};
    }
    void path_quadratic_bezier_to(double x1, double y1, double x, double y, Absolute) {
        add({at(x1, y1), at(x, y)});
        last_ = {x, y};
    }
    // SVG's own way from end points to the middle (its notes on implementation, F.6.5); turns of an eleventh of a
    // circle as cubics, which keep within a millionth of the radius.
    void path_elliptical_arc_to(double rx, double ry, double turn_degrees, bool large, bool sweep, double x, double y,
                                Absolute) {
        const double turn = turn_degrees * std::numbers::pi / 180;
        const double c = std::cos(turn);
        const double s = std::sin(turn);
        rx = std::abs(rx);
        ry = std::abs(ry);
        const auto [x0, y0] = last_;
        if (rx == 0 || ry == 0 || (x == x0 && y == y0)) return path_line_to(x, y, {});
        const double px = (c * (x0 - x) + s * (y0 - y)) / 2;
        const double py = (-s * (x0 - x) + c * (y0 - y)) / 2;
        if (const double reach = std::hypot(px / rx, py / ry); reach > 1) {
            rx *= reach;
            ry *= reach;
        }
        const double over = rx * rx * py * py + ry * ry * px * px;
        const double root = std::sqrt(std::max(0.0, rx * rx * ry * ry - over) / over) * (large == sweep ? -1 : 1);
        const double mx = root * rx * py / ry;
        const double my = -root * ry * px / rx;
        const double from = std::atan2((py - my) / ry, (px - mx) / rx);
        double by = std::atan2((-py - my) / ry, (-px - mx) / rx) - from;
        if (sweep && by < 0) by += 2 * std::numbers::pi;
        if (!sweep && by > 0) by -= 2 * std::numbers::pi;
        if (!std::isfinite(by)) throw OffGrid();
        const double cx = c * mx - s * my + (x0 + x) / 2;
        const double cy = s * mx + c * my + (y0 + y) / 2;
        const auto on = [&](double ux, double uy) {
            return at(cx + c * rx * ux - s * ry * uy, cy + s * rx * ux + c * ry * uy);
        };
        const int parts = std::max(1, static_cast<int>(std::ceil(std::abs(by) / (2 * std::numbers::pi / 11))));
        const double step = by / parts;
        const double k = 4.0 / 3 * std::tan(step / 4);
        for (int i = 0; i < parts; ++i) {
            const double a = from + step * i;
            const double b = i + 1 == parts ? from + by : a + step;
            add({on(std::cos(a) - k * std::sin(a), std::sin(a) + k * std::cos(a)),
                 on(std::cos(b) + k * std::sin(b), std::sin(b) - k * std::cos(b)),
                 i + 1 == parts ? at(x, y) : on(std::cos(b), std::sin(b))});
        }
        last_ = {x, y};
    }
    void path_close_subpath() {
        const bool more = now_.has_value();
        if (now_) now_->closed = true;
        end();
        // What goes on without a new start begins where the closed path did.
        if (more) {
            now_ = DrawnPath{{at(first_.first, first_.second), {}}, false};
            last_ = first_;
        }
    }
    void path_exit() { end(); }

  private:
    [[nodiscard]] Outline::Node at(double x, double y) const { return matrices_.back().of(x, y); }
    void add(std::vector<Outline::Node> curve) {
        if (now_) now_->contour.curves.push_back(std::move(curve));
    }
    void end() {
        if (!now_) return;
        if (!now_->contour.curves.empty()) {
            const Outline::Node first = now_->contour.start;
            const Outline::Node last = now_->contour.curves.back().back();
            const double size = std::abs(first.x) + std::abs(first.y) + 1;
            const double gap = std::abs(first.x - last.x) + std::abs(first.y - last.y);
            now_->closed = now_->closed || gap < 1e-6 * size;
            now_->shape = shape_ - 1;
            paths.push_back(std::move(*now_));
        }
        now_.reset();
    }

    std::vector<Matrix> matrices_{Matrix{}};
    std::optional<DrawnPath> now_;
    std::pair<double, double> first_, last_;  // in the shape's own units
    std::size_t shape_ = 0;
};

using Elements =
    boost::mpl::set<svgpp::tag::element::svg, svgpp::tag::element::g, svgpp::tag::element::circle,
                    svgpp::tag::element::ellipse, svgpp::tag::element::path, svgpp::tag::element::polygon,
                    svgpp::tag::element::polyline, svgpp::tag::element::line, svgpp::tag::element::rect>::type;
using Attributes =
    boost::mpl::insert<svgpp::traits::shapes_attributes_by_element, svgpp::tag::attribute::transform>::type;
using Traversal = svgpp::document_traversal<
    svgpp::processed_elements<Elements>, svgpp::processed_attributes<Attributes>,
    svgpp::path_policy<svgpp::policy::path::no_shorthands>,
    svgpp::transform_events_policy<svgpp::policy::transform_events::forward_to_method<Collector>>>;

}  // namespace

Expected<std::vector<DrawnPath>> paths_of_tree(xmlNode* root, const std::string& name) {
    Collector collector;
    try {
        Traversal::load_document(root, collector);
    } catch (const OffGrid&) {
        return refused({"outline.off-grid", {{"file", name}}}, Station::Blank, {"outline.nearer", {}});
    } catch (const std::exception& e) {
        return refused({"outline.not-svg", {{"file", name}, {"detail", std::string(e.what())}}}, Station::Blank);
    }
    return std::move(collector.paths);
}

Expected<SvgDocument> svg_document(const std::string& bytes, const std::string& name) {
    const auto no = [&](const char* id) {
        return refused({id, {{"file", name}, {"detail", std::string()}}}, Station::Blank);
    };
    // A plain document type is harmless; one with declarations of its own may pull in other files or grow without end.
    const auto type = bytes.find("<!DOCTYPE");
    if (bytes.find("<!ENTITY") != std::string::npos ||
        (type != std::string::npos && bytes.find('[', type) < bytes.find('>', type)))
        return no("outline.document-type");
    SvgDocument document(xmlReadMemory(bytes.data(), static_cast<int>(bytes.size()), "drawing.svg", nullptr,
                                       XML_PARSE_NONET | XML_PARSE_NOERROR | XML_PARSE_NOWARNING | XML_PARSE_HUGE),
                         xmlFreeDoc);
    if (!document || xmlDocGetRootElement(document.get()) == nullptr) return no("outline.not-svg");
    return document;
}

Expected<std::vector<DrawnPath>> paths_of_svg(const std::string& bytes, const std::string& name,
                                              std::size_t most_shapes) {
    const auto document = svg_document(bytes, name);
    if (!document) return tl::unexpected(document.error());
    const PlainSvg plain = make_plain(document->get(), most_shapes);
    if (plain.too_many) return too_much(name, Station::Blank);
    auto paths = paths_of_tree(xmlDocGetRootElement(document->get()), name);
    // Of a shape that is filled and has a stroke, the edge counts once.
    if (paths) std::erase_if(*paths, [&](const DrawnPath& p) { return plain.shapes.at(p.shape).edge_again; });
    return paths;
}

}  // namespace skarvel
