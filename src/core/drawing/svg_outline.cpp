// Shapes of an SVG document, by way of the packages for XML and SVG. Kept apart: it is slow to compile.
#include <libxml/parser.h>

#include <array>
#include <boost/array.hpp>
#include <boost/mpl/insert.hpp>
#include <boost/mpl/set.hpp>
#include <memory>
#include <optional>
#include <svgpp/policy/xml/libxml2.hpp>
#include <svgpp/svgpp.hpp>
#include <type_traits>

#include "drawing/outline_file.h"
#include "drawing/svg_tree.h"

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
    }
    void path_line_to(double x, double y, Absolute) { add({at(x, y)}); }
    void path_cubic_bezier_to(double x1, double y1, double x2, double y2, double x, double y, Absolute) {
        add({at(x1, y1), at(x2, y2), at(x, y)});
    }
    void path_quadratic_bezier_to(double x1, double y1, double x, double y, Absolute) { add({at(x1, y1), at(x, y)}); }
    void path_close_subpath() {
        if (now_) now_->closed = true;
        end();
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
    svgpp::path_policy<svgpp::policy::path::minimal>,
    svgpp::transform_events_policy<svgpp::policy::transform_events::forward_to_method<Collector>>>;

}  // namespace

Expected<std::vector<DrawnPath>> paths_of_tree(xmlNode* root, const std::string& name) {
    Collector collector;
    try {
        Traversal::load_document(root, collector);
    } catch (const std::exception& e) {
        return refused({"outline.not-svg", {{"file", name}, {"detail", std::string(e.what())}}}, Station::Blank);
    }
    return std::move(collector.paths);
}

Expected<std::vector<DrawnPath>> paths_of_svg(const std::string& bytes, const std::string& name) {
    const auto no = [&](const char* id, const std::string& detail = {}) {
        return refused({id, {{"file", name}, {"detail", detail}}}, Station::Blank);
    };
    // Entities and document types are where files reach out of themselves; drawings of outlines need neither.
    if (bytes.find("<!DOCTYPE") != std::string::npos || bytes.find("<!ENTITY") != std::string::npos)
        return no("outline.document-type");
    const std::unique_ptr<xmlDoc, decltype(&xmlFreeDoc)> document(
        xmlReadMemory(bytes.data(), static_cast<int>(bytes.size()), "outline.svg", nullptr,
                      XML_PARSE_NONET | XML_PARSE_NOERROR | XML_PARSE_NOWARNING),
        xmlFreeDoc);
    if (!document) return no("outline.not-svg");
    xmlNode* root = xmlDocGetRootElement(document.get());
    if (root == nullptr) return no("outline.not-svg");
    return paths_of_tree(root, name);
}

}  // namespace skarvel
