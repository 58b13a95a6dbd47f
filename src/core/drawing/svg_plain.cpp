#include "drawing/svg_plain.h"

#include "drawing/css_names.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdlib>
#include <cstring>
#include <map>
#include <set>
#include <sstream>

namespace skarvel {
namespace {

constexpr int deepest_tree = 1'000;  // no drawing nests like that, and every level takes room on the stack

using Style = std::map<std::string, std::string>;

std::string trimmed(const std::string& s) {
    const auto a = s.find_first_not_of(" \t\r\n");
    if (a == std::string::npos) return {};
    return s.substr(a, s.find_last_not_of(" \t\r\n") - a + 1);
}

std::string attribute(const xmlNode* node, const char* name) {
    for (const xmlAttr* a = node->properties; a != nullptr; a = a->next) {
        if (std::strcmp(reinterpret_cast<const char*>(a->name), name) != 0) continue;
        xmlChar* value = xmlNodeListGetString(node->doc, a->children, 1);
        std::string out = value == nullptr ? "" : reinterpret_cast<const char*>(value);
        xmlFree(value);
        return out;
    }
    return {};
}

void set(xmlNode* node, const char* name, const std::string& value) {
    xmlSetProp(node, reinterpret_cast<const xmlChar*>(name), reinterpret_cast<const xmlChar*>(value.c_str()));
}

Style declarations(const std::string& text) {
    Style style;
    std::size_t from = 0;
    while (from < text.size()) {
        const auto end = std::min(text.find(';', from), text.size());
        const std::string one = text.substr(from, end - from);
        const auto colon = one.find(':');
        if (colon != std::string::npos) {
            std::string value = trimmed(one.substr(colon + 1));
            if (const auto important = value.find('!'); important != std::string::npos)
                value = trimmed(value.substr(0, important));
            style[trimmed(one.substr(0, colon))] = value;
        }
        from = end + 1;
    }
    return style;
}

struct StyleRule {
    std::string element, cls, id;
    int weight = 0;
    Style style;
};

class Plainer {
  public:
    explicit Plainer(std::size_t most) : most_(most) {}
    ~Plainer() {
        for (xmlNode* node : dropped_) xmlFreeNode(node);
    }
    Plainer(const Plainer&) = delete;
    Plainer& operator=(const Plainer&) = delete;

    PlainSvg run(xmlDoc* document) {
        xmlNode* root = xmlDocGetRootElement(document);
        if (root == nullptr) return out_;
        size_of(root);
        gather(root, 0);
        std::stable_sort(rules_.begin(), rules_.end(),
                         [](const StyleRule& a, const StyleRule& b) { return a.weight < b.weight; });
        // Copies of copies are counted before any is made.
        if (out_.too_many || unfolded(root, 0) > most_) {
            out_.too_many = true;
            return std::move(out_);
        }
        const View view{view_.width > 0 ? view_.width : in_pixels(out_.width),
                        view_.height > 0 ? view_.height : in_pixels(out_.height)};
        walk(root,
             {{"fill", "black"},
              {"stroke", "none"},
              {"stroke-width", "1"},
              {"stroke-linecap", "butt"},
              {"stroke-linejoin", "miter"},
              {"stroke-miterlimit", "4"},
              {"stroke-dasharray", "none"},
              {"stroke-dashoffset", "0"},
              {"fill-rule", "nonzero"},
              {"color", "black"},
              {"font-family", ""}},
             view, 0, 1);
        return std::move(out_);
    }

  private:
    // What lengths in per cent are of, in the units of the drawing.
    struct View {
        double width = 0, height = 0;
    };
    static double in_pixels(double mm) { return mm * (96 / 25.4); }

    // How many elements there are once every `use` stands for what it points at; one that would hold itself counts as
    // none. Beyond what is allowed it no longer matters by how much.
    std::size_t unfolded(xmlNode* node, int depth) {
        if (depth > 2 * deepest_tree) return most_ + 1;
        if (const auto known = unfolded_.find(node); known != unfolded_.end()) return known->second;
        unfolded_[node] = 0;
        std::size_t count = 1;
        for (xmlNode* child = node->children; child != nullptr && count <= most_; child = child->next) {
            if (child->type == XML_ELEMENT_NODE) count += unfolded(child, depth + 1);
        }
        if (name_of(node) == "use") {
            const std::string href = attribute(node, "href");
            if (const auto at = href.empty() ? ids_.end() : ids_.find(href.substr(1)); at != ids_.end())
                count += unfolded(at->second, depth + 1);
        }
        return unfolded_[node] = std::min(count, most_ + 1);
    }

    // Out of the tree, but kept till the end: something may still point at it.
    void drop(xmlNode* node) {
        xmlUnlinkNode(node);
        dropped_.push_back(node);
    }

    static std::string name_of(const xmlNode* node) { return reinterpret_cast<const char*>(node->name); }

    // A length in millimetres; a bare number in pixels of 1/96 in.
    static double length_mm(const std::string& text) {
        char* end = nullptr;
        const double value = std::strtod(text.c_str(), &end);
        const std::string unit = trimmed(end == nullptr ? "" : end);
        if (unit == "mm") return value;
        if (unit == "cm") return value * 10;
        if (unit == "in") return value * 25.4;
        if (unit == "pt") return value * 25.4 / 72;
        if (unit == "pc") return value * 25.4 / 6;
        if (unit == "%") return 0;
        return value * 25.4 / 96;
    }

    static bool view_box(const xmlNode* node, double (&box)[4]) {
        std::string view = attribute(node, "viewBox");
        std::replace(view.begin(), view.end(), ',', ' ');
        const char* at = view.c_str();
        for (double& side : box) {
            char* end = nullptr;
            side = std::strtod(at, &end);
            if (end == at) return false;
            at = end;
        }
        return box[2] > 0 && box[3] > 0;
    }

    void size_of(const xmlNode* root) {
        out_.width = length_mm(attribute(root, "width"));
        out_.height = length_mm(attribute(root, "height"));
        double box[4] = {0, 0, 0, 0};
        if (!view_box(root, box)) return;
        view_ = {box[2], box[3]};
        if (out_.width > 0 && out_.height > 0) {
            out_.mm = std::min(out_.width / box[2], out_.height / box[3]);
        } else if (out_.width > 0) {
            out_.mm = out_.width / box[2];
        } else if (out_.height > 0) {
            out_.mm = out_.height / box[3];
        }
    }

    void gather(xmlNode* node, int depth) {
        if (depth > deepest_tree) {
            out_.too_many = true;
            return;
        }
        for (xmlNode* child = node->children; child != nullptr; child = child->next) {
            if (child->type != XML_ELEMENT_NODE) continue;
            if (const std::string id = attribute(child, "id"); !id.empty()) ids_.emplace(id, child);
            if (name_of(child) == "style") read_sheet(child);
            gather(child, depth + 1);
        }
    }

    void read_sheet(const xmlNode* node) {
        xmlChar* content = xmlNodeGetContent(node);
        std::string text = content == nullptr ? "" : reinterpret_cast<const char*>(content);
        xmlFree(content);
        for (auto a = text.find("/*"); a != std::string::npos; a = text.find("/*")) {
            const auto b = text.find("*/", a);
            text.erase(a, b == std::string::npos ? std::string::npos : b + 2 - a);
        }
        std::size_t from = 0;
        while (true) {
            const auto open = text.find('{', from);
            if (open == std::string::npos) return;
            const auto close = text.find('}', open);
            if (close == std::string::npos) return;
            const Style style = declarations(text.substr(open + 1, close - open - 1));
            std::string selectors = text.substr(from, open - from);
            std::size_t at = 0;
            while (at <= selectors.size()) {
                const auto comma = std::min(selectors.find(',', at), selectors.size());
                add_rule(trimmed(selectors.substr(at, comma - at)), style);
                at = comma + 1;
            }
            from = close + 1;
        }
    }

    void add_rule(const std::string& selector, const Style& style) {
        if (selector.empty()) return;
        if (selector.find_first_of(" >+~:[*@") != std::string::npos) {
            if (selector != "*") {
                out_.rules.push_back(selector);
                return;
            }
        }
        StyleRule rule;
        rule.style = style;
        std::string part;
        char kind = 'e';
        const auto end = [&] {
            if (part.empty() || part == "*") return;
            (kind == '.' ? rule.cls : kind == '#' ? rule.id : rule.element) = part;
            rule.weight += kind == '#' ? 100 : kind == '.' ? 10 : 1;
            part.clear();
        };
        for (const char c : selector) {
            if (c == '.' || c == '#') {
                end();
                kind = c;
            } else {
                part += c;
            }
        }
        end();
        rules_.push_back(std::move(rule));
    }

    static bool has_class(const std::string& classes, const std::string& cls) {
        std::size_t at = 0;
        while ((at = classes.find(cls, at)) != std::string::npos) {
            const bool starts = at == 0 || std::isspace(static_cast<unsigned char>(classes[at - 1])) != 0;
            const std::size_t end = at + cls.size();
            const bool ends = end == classes.size() || std::isspace(static_cast<unsigned char>(classes[end])) != 0;
            if (starts && ends) return true;
            at = end;
        }
        return false;
    }

    Style style_of(const xmlNode* node, Style inherited) {
        for (const char* own : {"display", "opacity", "clip-path", "mask", "filter", "overflow"}) inherited.erase(own);
        for (const char* key : {"fill",
                                "stroke",
                                "stroke-width",
                                "stroke-linecap",
                                "stroke-linejoin",
                                "stroke-miterlimit",
                                "stroke-dasharray",
                                "stroke-dashoffset",
                                "fill-rule",
                                "display",
                                "visibility",
                                "font-family",
                                "opacity",
                                "fill-opacity",
                                "stroke-opacity",
                                "color",
                                "clip-path",
                                "mask",
                                "filter",
                                "marker-start",
                                "marker-mid",
                                "marker-end",
                                "overflow"}) {
            if (std::string v = attribute(node, key); !v.empty() && v != "inherit") inherited[key] = std::move(v);
        }
        if (!rules_.empty()) {
            const std::string element = name_of(node);
            const std::string classes = attribute(node, "class");
            const std::string id = attribute(node, "id");
            for (const StyleRule& rule : rules_) {
                if (!rule.element.empty() && rule.element != element) continue;
                if (!rule.id.empty() && rule.id != id) continue;
                if (!rule.cls.empty() && !has_class(classes, rule.cls)) continue;
                for (const auto& [key, value] : rule.style) inherited[key] = value;
            }
        }
        if (const std::string own = attribute(node, "style"); !own.empty()) {
            for (const auto& [key, value] : declarations(own)) inherited[key] = value;
        }
        return inherited;
    }

    static double scale_of(const std::string& transform) {
        // Enough for the width of strokes: the size of a uniform scale or matrix.
        double scale = 1;
        for (const char* word : {"scale(", "matrix("}) {
            if (const auto at = transform.find(word); at != std::string::npos) {
                char* end = nullptr;
                const double a = std::strtod(transform.c_str() + at + std::strlen(word), &end);
                double b = 0;
                if (word[0] == 'm' && end != nullptr) b = std::strtod(end + std::strspn(end, ", \t"), nullptr);
                scale *= std::hypot(a, b);
            }
        }
        return scale > 0 ? scale : 1;
    }

    // A length of a shape in the units of the drawing; in per cent of `whole`.
    static double in_units(const std::string& text, double whole) {
        const std::string one = trimmed(text);
        if (one.ends_with("%")) return std::strtod(one.c_str(), nullptr) / 100 * whole;
        if (one.find_first_of("acnptm") == std::string::npos) return std::strtod(one.c_str(), nullptr);
        return in_pixels(length_mm(one));
    }

    // What the package has no use for it may refuse.
    void strip(xmlNode* node) {
        static const std::set<std::string> used{"d",  "x",  "y",  "width", "height", "cx", "cy",     "r",
                                                "rx", "ry", "x1", "y1",    "x2",     "y2", "points", "transform"};
        for (xmlAttr* a = node->properties; a != nullptr;) {
            xmlAttr* next = a->next;
            if (!used.contains(reinterpret_cast<const char*>(a->name))) xmlRemoveProp(a);
            a = next;
        }
    }

    static double diagonal(const View& view) { return std::hypot(view.width, view.height) / std::sqrt(2.0); }

    // Lengths as plain numbers, so that nobody after this has to know units or what a per cent is of.
    static void in_plain_numbers(xmlNode* node, const View& view) {
        for (const auto& [keys, whole] : {std::pair{std::array{"x", "width", "cx", "rx", "x1", "x2"}, view.width},
                                          std::pair{std::array{"y", "height", "cy", "ry", "y1", "y2"}, view.height},
                                          std::pair{std::array{"r", "r", "r", "r", "r", "r"}, diagonal(view)}}) {
            for (const char* key : keys) {
                const std::string value = attribute(node, key);
                if (value.find_first_of("%acnptm") == std::string::npos || value.find("auto") != std::string::npos)
                    continue;
                set(node, key, fmt::format("{:.12g}", in_units(value, whole)));
            }
        }
    }

    // A drawing within the drawing, or a symbol: a group that is moved and scaled to where it is shown.
    View as_group(xmlNode* node, const View& view, const std::string& width, const std::string& height) {
        const auto shown = [&](const char* key, const std::string& instead, double whole) {
            std::string value = instead.empty() ? attribute(node, key) : instead;
            return value.empty() || value == "auto" ? whole : in_units(value, whole);
        };
        const double wide = shown("width", width, view.width);
        const double high = shown("height", height, view.height);
        std::string move = fmt::format("translate({:.12g},{:.12g})", in_units(attribute(node, "x"), view.width),
                                       in_units(attribute(node, "y"), view.height));
        View inside{wide, high};
        double box[4] = {0, 0, 0, 0};
        if (view_box(node, box)) {
            double sx = wide / box[2];
            double sy = high / box[3];
            double left = 0;
            double top = 0;
            const std::string ratio = attribute(node, "preserveAspectRatio");
            if (ratio.find("none") == std::string::npos) {
                const bool slice = ratio.find("slice") != std::string::npos;
                sx = sy = slice ? std::max(sx, sy) : std::min(sx, sy);
                const auto share = [&](const char* least, const char* most) {
                    return ratio.find(least) != std::string::npos  ? 0.0
                           : ratio.find(most) != std::string::npos ? 1
                                                                   : 0.5;
                };
                left = (wide - box[2] * sx) * share("xMin", "xMax");
                top = (high - box[3] * sy) * share("YMin", "YMax");
            }
            move += fmt::format(" translate({:.12g},{:.12g}) scale({:.12g},{:.12g}) translate({:.12g},{:.12g})", left,
                                top, sx, sy, -box[0], -box[1]);
            inside = {box[2], box[3]};
        }
        const std::string own = attribute(node, "transform");
        for (const char* key : {"x", "y", "width", "height", "viewBox", "preserveAspectRatio"})
            xmlUnsetProp(node, reinterpret_cast<const xmlChar*>(key));
        xmlNodeSetName(node, reinterpret_cast<const xmlChar*>("g"));
        set(node, "transform", own.empty() ? move : own + " " + move);
        return inside;
    }

    void note_left_out(const Style& style) {
        for (const char* key : {"clip-path", "mask", "filter", "marker-start", "marker-mid", "marker-end"}) {
            const auto at = style.find(key);
            if (at == style.end() || at->second.empty() || at->second == "none") continue;
            out_.left_out.insert(std::string(key).starts_with("marker") ? "marker" : key);
        }
    }

    static bool unseen(const Style& style, const char* key) {
        const auto at = style.find(key);
        return at != style.end() && !at->second.empty() && std::strtod(at->second.c_str(), nullptr) <= 0;
    }

    void walk(xmlNode* node, const Style& inherited, const View& view, int depth, double scale) {
        static const std::set<std::string> shapes{"path", "rect", "circle", "ellipse", "line", "polyline", "polygon"};
        static const std::set<std::string> groups{"svg", "g", "a", "switch"};
        constexpr int deepest = 200;
        for (xmlNode* child = node->children; child != nullptr;) {
            xmlNode* next = child->next;
            if (child->type != XML_ELEMENT_NODE) {
                child = next;
                continue;
            }
            const std::string name = name_of(child);
            const Style style = style_of(child, inherited);
            const auto is = [&](const char* key, const char* value) {
                const auto at = style.find(key);
                return at != style.end() && at->second == value;
            };
            const bool drawn = groups.contains(name) || shapes.contains(name) || name == "use";
            if (drawn) note_left_out(style);
            if (is("display", "none") || unseen(style, "opacity") || depth > deepest) {
                drop(child);
            } else if (name == "use") {
                if (xmlNode* copy = expanded(child, view)) walk_one(copy, inherited, view, depth, scale);
            } else if (groups.contains(name)) {
                View inside = view;
                if (name == "a" || name == "switch") xmlNodeSetName(child, reinterpret_cast<const xmlChar*>("g"));
                if (name == "svg") {
                    inside = as_group(child, view, sizes_[child].first, sizes_[child].second);
                    if (!is("overflow", "visible")) out_.left_out.insert("crop");
                }
                strip(child);
                walk(child, style, inside, depth + 1, scale * scale_of(attribute(child, "transform")));
            } else if (shapes.contains(name)) {
                in_plain_numbers(child, view);
                shape(child, name, style, view, scale * scale_of(attribute(child, "transform")));
            } else {
                if (name == "text") out_.texts.push_back(style.at("font-family"));
                out_.pictures += name == "image" ? 1 : 0;
                drop(child);
            }
            child = next;
        }
    }

    void walk_one(xmlNode* group, const Style& inherited, const View& view, int depth, double scale) {
        walk(group, style_of(group, inherited), view, depth + 1, scale * scale_of(attribute(group, "transform")));
    }

    // A group with a copy of what `use` points at, in its place.
    xmlNode* expanded(xmlNode* use, const View& view) {
        std::string href = attribute(use, "href");
        const auto at = !href.empty() && href[0] == '#' ? ids_.find(href.substr(1)) : ids_.end();
        const bool inside = at != ids_.end() && contains(at->second, use);
        if (at == ids_.end() || inside || ++expansions_ > most_) {
            drop(use);
            return nullptr;
        }
        xmlNode* group = xmlNewNode(use->ns, reinterpret_cast<const xmlChar*>("g"));
        std::string transform = attribute(use, "transform");
        const std::string x = attribute(use, "x");
        const std::string y = attribute(use, "y");
        if (!x.empty() || !y.empty())
            transform += fmt::format(" translate({:.12g},{:.12g})", in_units(x, view.width), in_units(y, view.height));
        if (!transform.empty()) set(group, "transform", transform);
        for (const xmlAttr* a = use->properties; a != nullptr; a = a->next) {
            const std::string key = reinterpret_cast<const char*>(a->name);
            static const std::set<std::string> placing{"x", "y", "width", "height", "href", "id", "transform"};
            if (!placing.contains(key)) set(group, key.c_str(), attribute(use, key.c_str()));
        }
        xmlNode* copy = xmlDocCopyNode(at->second, use->doc, 1);
        // A symbol is shown as a drawing within the drawing.
        if (name_of(copy) == "symbol") xmlNodeSetName(copy, reinterpret_cast<const xmlChar*>("svg"));
        if (name_of(copy) == "svg") sizes_[copy] = {attribute(use, "width"), attribute(use, "height")};
        xmlAddChild(group, copy);
        xmlReplaceNode(use, group);
        dropped_.push_back(use);
        return group;
    }

    static bool contains(const xmlNode* outer, const xmlNode* inner) {
        for (const xmlNode* n = inner; n != nullptr; n = n->parent) {
            if (n == outer) return true;
        }
        return false;
    }

    void shape(xmlNode* node, const std::string& name, const Style& style, const View& view, double scale) {
        if (style.contains("visibility") && style.at("visibility") != "visible") return drop(node);
        if (out_.shapes.size() >= most_) {
            out_.too_many = true;
            return drop(node);
        }
        PlainShape s;
        s.name = attribute(node, "id");
        s.even_odd = style.at("fill-rule") == "evenodd";
        const auto colour = [&](const char* key, const char* opacity) -> std::string {
            if (unseen(style, opacity)) return {};
            const std::string& said = style.at(key);
            if (said.starts_with("url(")) out_.left_out.insert("gradient");
            return css_colour(said == "currentColor" || said == "currentcolor" ? style.at("color") : said);
        };
        s.fill = name == "line" ? std::string() : colour("fill", "fill-opacity");
        PlainShape edge = s;
        edge.fill = colour("stroke", "stroke-opacity");
        edge.even_odd = false;
        edge.stroke = edge.fill.empty() ? 0 : std::max(0.0, in_units(style.at("stroke-width"), diagonal(view))) * scale;
        edge.cap = style.at("stroke-linecap");
        edge.join = style.at("stroke-linejoin");
        edge.miter = std::strtod(style.at("stroke-miterlimit").c_str(), nullptr);
        dashes_of(edge, style, view, scale);
        if (s.fill.empty() && edge.stroke <= 0) return drop(node);
        strip(node);
        if (edge.stroke > 0 && !s.fill.empty()) {
            edge.edge_again = true;
            xmlNode* copy = xmlDocCopyNode(node, node->doc, 1);
            xmlAddNextSibling(node, copy);
        }
        if (!s.fill.empty()) out_.shapes.push_back(std::move(s));
        if (edge.stroke > 0) out_.shapes.push_back(std::move(edge));
    }

    static void dashes_of(PlainShape& edge, const Style& style, const View& view, double scale) {
        std::string text = style.at("stroke-dasharray");
        if (text == "none") return;
        std::replace(text.begin(), text.end(), ',', ' ');
        std::istringstream in(text);
        double whole = 0;
        for (std::string one; in >> one;) {
            edge.dashes.push_back(std::max(0.0, in_units(one, diagonal(view))) * scale);
            whole += edge.dashes.back();
        }
        if (whole <= 0) edge.dashes.clear();
        edge.dash_from = in_units(style.at("stroke-dashoffset"), diagonal(view)) * scale;
    }

    std::vector<xmlNode*> dropped_;
    std::size_t most_, expansions_ = 0;
    View view_;
    std::map<const xmlNode*, std::size_t> unfolded_;
    std::map<const xmlNode*, std::pair<std::string, std::string>> sizes_;  // that a `use` gives to what it shows
    PlainSvg out_;
    std::map<std::string, xmlNode*> ids_;
    std::vector<StyleRule> rules_;
};

}  // namespace

namespace {

// The formula of CSS Color 4, 7.1.
std::string from_hsl(const std::string& word) {
    double v[3] = {0, 0, 0};
    const char* at = word.c_str() + std::min(word.size(), word.find('(') + 1);
    for (double& part : v) {
        char* end = nullptr;
        part = std::strtod(at, &end);
        at = end + std::strspn(end, ", %degturnrad");
    }
    const double light = std::clamp(v[2] / 100, 0.0, 1.0);
    const double a = std::clamp(v[1] / 100, 0.0, 1.0) * std::min(light, 1 - light);
    const auto part = [&](double n) {
        double k = std::fmod(n + v[0] / 30, 12);
        if (k < 0) k += 12;
        return static_cast<int>(std::lround(255 * (light - a * std::max(-1.0, std::min({k - 3, 9 - k, 1.0})))));
    };
    return fmt::format("#{:02x}{:02x}{:02x}", part(0), part(8), part(4));
}

}  // namespace

std::string css_colour(std::string word) {
    word = trimmed(word);
    for (char& c : word) c = static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    if (word == "none" || word == "transparent") return {};
    if (const auto at = css_names().find(word); at != css_names().end()) return at->second;
    if (word.size() == 7 && word[0] == '#') return word;
    if (word.size() == 4 && word[0] == '#') return {'#', word[1], word[1], word[2], word[2], word[3], word[3]};
    if (word.size() == 9 && word[0] == '#') return word.ends_with("00") ? std::string() : word.substr(0, 7);
    if (word.starts_with("hsl")) return from_hsl(word);
    if (word.starts_with("rgb")) {
        int v[3] = {0, 0, 0};
        const char* at = word.c_str() + std::min(word.size(), word.find('(') + 1);
        for (int& part : v) {
            char* end = nullptr;
            double value = std::strtod(at, &end);
            if (end != nullptr && *end == '%') {
                value *= 2.55;
                ++end;
            }
            part = std::clamp(static_cast<int>(std::lround(value)), 0, 255);
            at = end == nullptr ? at : end + std::strspn(end, ", ");
        }
        return fmt::format("#{:02x}{:02x}{:02x}", v[0], v[1], v[2]);
    }
    return "#000000";  // a gradient, a name of no colour: it is drawn, so it is ink
}

PlainSvg make_plain(xmlDoc* document, std::size_t most_shapes) { return Plainer(most_shapes).run(document); }

}  // namespace skarvel
