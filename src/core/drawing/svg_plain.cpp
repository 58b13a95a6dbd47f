#include "drawing/svg_plain.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <cstdlib>
#include <cstring>
#include <map>
#include <set>

namespace skarvel {
namespace {

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

struct Rule {
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
        gather(root);
        std::stable_sort(rules_.begin(), rules_.end(),
                         [](const Rule& a, const Rule& b) { return a.weight < b.weight; });
        walk(root,
             {{"fill", "black"},
              {"stroke", "none"},
              {"stroke-width", "1"},
              {"fill-rule", "nonzero"},
              {"font-family", ""}},
             0, 1);
        return std::move(out_);
    }

  private:
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

    void size_of(const xmlNode* root) {
        out_.width = length_mm(attribute(root, "width"));
        out_.height = length_mm(attribute(root, "height"));
        double box[4] = {0, 0, 0, 0};
        std::string view = attribute(root, "viewBox");
        std::replace(view.begin(), view.end(), ',', ' ');
        const char* at = view.c_str();
        int n = 0;
        for (; n < 4; ++n) {
            char* end = nullptr;
            box[n] = std::strtod(at, &end);
            if (end == at) break;
            at = end;
        }
        if (n < 4 || box[2] <= 0 || box[3] <= 0) return;
        if (out_.width > 0 && out_.height > 0) {
            out_.mm = std::min(out_.width / box[2], out_.height / box[3]);
        } else if (out_.width > 0) {
            out_.mm = out_.width / box[2];
        } else if (out_.height > 0) {
            out_.mm = out_.height / box[3];
        }
    }

    void gather(xmlNode* node) {
        for (xmlNode* child = node->children; child != nullptr; child = child->next) {
            if (child->type != XML_ELEMENT_NODE) continue;
            if (const std::string id = attribute(child, "id"); !id.empty()) ids_.emplace(id, child);
            if (name_of(child) == "style") read_sheet(child);
            gather(child);
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
        Rule rule;
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
        inherited.erase("display");
        for (const char* key :
             {"fill", "stroke", "stroke-width", "fill-rule", "display", "visibility", "font-family", "opacity"}) {
            if (std::string v = attribute(node, key); !v.empty()) inherited[key] = std::move(v);
        }
        if (!rules_.empty()) {
            const std::string element = name_of(node);
            const std::string classes = attribute(node, "class");
            const std::string id = attribute(node, "id");
            for (const Rule& rule : rules_) {
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

    void walk(xmlNode* node, const Style& inherited, int depth, double scale) {
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
            const double here = scale * scale_of(attribute(child, "transform"));
            if (is("display", "none") || is("visibility", "hidden") || depth > deepest) {
                drop(child);
            } else if (name == "use") {
                if (xmlNode* copy = expanded(child)) {
                    if (expansions_ < most_) walk_one(copy, inherited, depth, scale);
                }
            } else if (groups.contains(name)) {
                if (name == "a" || name == "switch") xmlNodeSetName(child, reinterpret_cast<const xmlChar*>("g"));
                walk(child, style, depth + 1, here);
            } else if (shapes.contains(name)) {
                shape(child, name, style, here);
            } else {
                if (name == "text") out_.texts.push_back(style.at("font-family"));
                out_.pictures += name == "image" ? 1 : 0;
                drop(child);
            }
            child = next;
        }
    }

    void walk_one(xmlNode* group, const Style& inherited, int depth, double scale) {
        walk(group, style_of(group, inherited), depth + 1, scale * scale_of(attribute(group, "transform")));
    }

    // A group with a copy of what `use` points at, in its place.
    xmlNode* expanded(xmlNode* use) {
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
            transform += fmt::format(" translate({},{})", x.empty() ? "0" : x, y.empty() ? "0" : y);
        if (!transform.empty()) set(group, "transform", transform);
        for (const char* key : {"style", "class", "fill", "stroke", "stroke-width"}) {
            if (const std::string v = attribute(use, key); !v.empty()) set(group, key, v);
        }
        xmlNode* copy = xmlDocCopyNode(at->second, use->doc, 1);
        if (name_of(copy) == "symbol") xmlNodeSetName(copy, reinterpret_cast<const xmlChar*>("g"));
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

    void shape(xmlNode* node, const std::string& name, const Style& style, double scale) {
        if (out_.shapes.size() >= most_) {
            out_.too_many = true;
            return drop(node);
        }
        PlainShape s;
        s.name = attribute(node, "id");
        s.fill = css_colour(style.at("fill"));
        s.even_odd = style.at("fill-rule") == "evenodd";
        const std::string stroke = css_colour(style.at("stroke"));
        const bool filled = !s.fill.empty() && name != "line";
        if (!filled) {
            if (stroke.empty()) return drop(node);
            s.stroke = std::max(0.0, std::strtod(style.at("stroke-width").c_str(), nullptr)) * scale;
            s.fill = stroke;
            if (s.stroke <= 0) return drop(node);
        }
        // What the package need not look at.
        for (const char* key : {"style", "class"}) xmlUnsetProp(node, reinterpret_cast<const xmlChar*>(key));
        out_.shapes.push_back(std::move(s));
    }

    std::vector<xmlNode*> dropped_;
    std::size_t most_, expansions_ = 0;
    PlainSvg out_;
    std::map<std::string, xmlNode*> ids_;
    std::vector<Rule> rules_;
};

}  // namespace

std::string css_colour(std::string word) {
    word = trimmed(word);
    for (char& c : word) c = static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    if (word == "none" || word == "transparent") return {};
    static const std::map<std::string, std::string> names{
        {"black", "#000000"},  {"white", "#ffffff"},  {"red", "#ff0000"},   {"green", "#008000"}, {"blue", "#0000ff"},
        {"yellow", "#ffff00"}, {"orange", "#ffa500"}, {"grey", "#808080"},  {"gray", "#808080"},  {"silver", "#c0c0c0"},
        {"maroon", "#800000"}, {"navy", "#000080"},   {"teal", "#008080"},  {"olive", "#808000"}, {"lime", "#00ff00"},
        {"aqua", "#00ffff"},   {"purple", "#800080"}, {"brown", "#a52a2a"}, {"gold", "#ffd700"},  {"pink", "#ffc0cb"}};
    if (const auto at = names.find(word); at != names.end()) return at->second;
    if (word.size() == 7 && word[0] == '#') return word;
    if (word.size() == 4 && word[0] == '#') return {'#', word[1], word[1], word[2], word[2], word[3], word[3]};
    if (word.starts_with("rgb(")) {
        int v[3] = {0, 0, 0};
        const char* at = word.c_str() + 4;
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
