#include "files/cut_file.h"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>

namespace skarvel {
namespace {

std::string escaped(const std::string& text) {
    std::string out;
    for (const char c : text) {
        switch (c) {
            case '&':
                out += "&amp;";
                break;
            case '<':
                out += "&lt;";
                break;
            case '>':
                out += "&gt;";
                break;
            case '"':
                out += "&quot;";
                break;
            default:
                out += static_cast<unsigned char>(c) < 0x20 ? ' ' : c;
        }
    }
    return out;
}

// Grid steps are 0.000125 mm: six decimals hold them exactly.
std::string millimetres(std::int64_t units) {
    std::string s = fmt::format("{:.6f}", grid_to_mm(units));
    s.erase(s.find_last_not_of('0') + 1);
    if (s.back() == '.') s.pop_back();
    return s == "-0" ? "0" : s;
}

std::string path_data(const Region& region, std::int64_t height) {
    std::string d;
    for (const Ring& ring : region.rings()) {
        for (std::size_t i = 0; i < ring.size(); ++i) {
            d += fmt::format("{}{} {}", i == 0 ? (d.empty() ? "M" : " M") : " L", millimetres(ring[i].x),
                             millimetres(height - ring[i].y));
        }
        d += " Z";
    }
    return d;
}

std::string svg_of(const Load& load, const LoadsPlan& loads, const Mat& mat, const MakingPlan& making) {
    const std::int64_t width = to_grid(mat.usable.across);
    const std::int64_t height = to_grid(mat.usable.along);
    std::string out = fmt::format(
        "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n"
        "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{0}mm\" height=\"{1}mm\" viewBox=\"0 0 {0} {1}\">\n"
        "<title>{2}</title>\n"
        "<desc>{3}, {4}; mat {5}; knife lines at true size in millimetres</desc>\n"
        "<g fill=\"none\" stroke=\"#000000\" stroke-width=\"0.1\">\n",
        millimetres(width), millimetres(height), escaped(load.name), escaped(making.film.name),
        making.way == Way::Decal ? "decal" : "paint-through", escaped(mat.name));
    for (const Placement& p : load.placements) {
        const Section& section = loads.sections[p.section];
        const LaidSection laid = lay_on_mat(section, p);
        out += fmt::format("<g id=\"section-{}\"><title>{}</title>\n", p.section + 1, escaped(section.letters));
        out += fmt::format("<path class=\"ink\" d=\"{}\"/>\n", path_data(laid.cut, height));
        out += fmt::format("<path class=\"film\" d=\"{}\"/>\n</g>\n", path_data(laid.film, height));
    }
    return out + "</g>\n</svg>\n";
}

}  // namespace

std::string file_word(const std::string& text) {
    std::string word;
    for (const char c : text) {
        const bool plain =
            std::isalnum(static_cast<unsigned char>(c)) != 0 || c == '+' || static_cast<unsigned char>(c) >= 0x80;
        if (plain) {
            word += c;
        } else if (!word.empty() && word.back() != '-') {
            word += '-';
        }
    }
    while (!word.empty() && word.back() == '-') word.pop_back();
    constexpr std::size_t longest = 60;
    if (word.size() > longest) {
        word.resize(longest);
        while (!word.empty() && static_cast<unsigned char>(word.back()) >= 0x80) word.pop_back();
    }
    return word.empty() ? "job" : word;
}

std::vector<CutFile> cut_files(const Plan& plan, const Shop& shop) {
    std::vector<CutFile> files;
    int number = 0;
    for (const FacePlan& face : plan.faces) {
        for (const Load& load : face.loads->loads) {
            ++number;
            if (load.cut) continue;
            files.push_back({fmt::format("{:02}-{}.svg", number, file_word(load.name)),
                             svg_of(load, *face.loads, shop.mat, face.making)});
        }
    }
    return files;
}

}  // namespace skarvel
