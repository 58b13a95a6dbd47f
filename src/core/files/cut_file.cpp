#include "files/cut_file.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
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

std::string path_of(const KnifePath& path, std::int64_t height) {
    std::string d;
    const std::size_t count = path.closed() ? path.points.size() - 1 : path.points.size();
    for (std::size_t i = 0; i < count; ++i) {
        d += fmt::format("{}{} {}", i == 0 ? "M" : " L", millimetres(path.points[i].x),
                         millimetres(height - path.points[i].y));
    }
    return d + (path.closed() ? " Z" : "");
}

// A colour's name in a layer's: the oldest readers take letters, digits and dashes, and few of them.
std::string layer_word(const std::string& name) {
    constexpr std::size_t longest = 12;
    std::string word;
    for (const char c : name) {
        if (word.size() == longest) break;
        if (std::isalnum(static_cast<unsigned char>(c)) != 0)
            word += c;
        else if (!word.empty() && word.back() != '-')
            word += '-';
    }
    while (!word.empty() && word.back() == '-') word.pop_back();
    return word;
}

// Names of groups and layers: the section's number in its own colour, whose it is where it is a guest, and the colour.
std::string layer_name(const Plan& plan, const ColourId& own, const OnMat& section) {
    std::string id = section.of == own ? fmt::format("section-{}", section.section + 1)
                                       : fmt::format("section-{}-{}", section.of.name, section.section + 1);
    std::replace(id.begin(), id.end(), '.', '-');
    const ColourPlan* colour = plan.of(section.of);
    const std::string word = colour == nullptr ? std::string() : layer_word(colour->name);
    return word.empty() ? id : id + "-" + word;
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

std::vector<LoadToCut> loads_to_cut(const Plan& plan, const Shop& shop) {
    std::vector<LoadToCut> all;
    int number = 0;
    for (const ColourPlan& colour : plan.colours) {
        for (const Load& load : colour.cut.loads->loads) {
            if (!load.carried_by.empty()) continue;
            ++number;
            if (load.cut) continue;
            std::string letters = load.name;
            for (const Guest& g : load.guests) letters += "+" + g.section.letters;
            LoadToCut out{number,
                          fmt::format("{:02}-{}", number, file_word(letters)),
                          step_id(colour.id, Work::Cut, load.key),
                          &colour,
                          &load,
                          colour.cut.bed,
                          machine_of(shop, colour.cut.bed),
                          on_mat(load, colour.cut.loads->sections, colour.id),
                          {},
                          {}};
            for (const OnMat& section : out.sections) out.layers.push_back(layer_name(plan, colour.id, section));
            out.way = knife_way(out.sections, out.machine.knife);
            all.push_back(std::move(out));
        }
    }
    return all;
}

std::string svg_of(const LoadToCut& load, const MakingPlan& making) {
    const std::int64_t width = to_grid(load.bed.usable.across);
    const std::int64_t height = to_grid(load.bed.usable.along);
    std::string out = fmt::format(
        "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n"
        "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{0}mm\" height=\"{1}mm\" viewBox=\"0 0 {0} {1}\">\n"
        "<title>{2}</title>\n"
        "<desc>{3}, {4}; {5} {6}; knife lines at true size in millimetres</desc>\n"
        "<g fill=\"none\" stroke=\"#000000\" stroke-width=\"0.1\">\n",
        millimetres(width), millimetres(height), escaped(load.load->name), escaped(making.film.name),
        making.way == Way::Decal ? "decal" : "paint-through", load.bed.roll ? "from the" : "mat",
        escaped(load.bed.name));
    // The way goes section by section: a group ends where the next section begins.
    const auto& paths = load.way.paths;
    for (std::size_t i = 0; i < paths.size(); ++i) {
        const KnifePath& path = paths[i];
        const bool begins = i == 0 || paths[i - 1].section != path.section;
        const bool ends = i + 1 == paths.size() || paths[i + 1].section != path.section;
        if (begins) {
            const OnMat& section = load.sections[path.section];
            out += fmt::format("<g id=\"{}\"><title>{}</title>\n", escaped(load.layers[path.section]),
                               escaped(section.name));
        }
        if (path.of == CutOf::Line) {
            out += fmt::format("<line class=\"line\" x1=\"{}\" y1=\"{}\" x2=\"{}\" y2=\"{}\"/>\n",
                               millimetres(path.points.front().x), millimetres(height - path.points.front().y),
                               millimetres(path.points.back().x), millimetres(height - path.points.back().y));
        } else {
            const bool goes_on = !begins && paths[i - 1].of == path.of;
            out += goes_on ? std::string(" ")
                           : fmt::format("<path class=\"{}\" d=\"", path.of == CutOf::Ink ? "ink" : "film");
            out += path_of(path, height);
            if (ends || paths[i + 1].of != path.of) out += "\"/>\n";
        }
        if (ends) out += "</g>\n";
    }
    return out + "</g>\n</svg>\n";
}

std::string dxf_of(const LoadToCut& load) {
    std::string out;
    const auto pair = [&](int code, const std::string& value) { out += fmt::format("{:>3}\n{}\n", code, value); };
    static constexpr std::array<const char*, 3> kinds{"ink", "film", "lines"};
    const auto layer = [&](std::size_t section, CutOf of) {
        return load.layers[section] + "-" + kinds.at(static_cast<std::size_t>(of));
    };
    const auto layers = [&] {
        std::vector<std::pair<std::string, int>> all;
        for (std::size_t section = 0; section < load.sections.size(); ++section) {
            for (const CutOf of : {CutOf::Ink, CutOf::Film, CutOf::Line})
                all.emplace_back(layer(section, of), of == CutOf::Ink ? 7 : of == CutOf::Film ? 5 : 8);
        }
        return all;
    }();
    pair(0, "SECTION");
    pair(2, "HEADER");
    pair(9, "$ACADVER");
    pair(1, "AC1009");
    pair(9, "$INSUNITS");
    pair(70, "4");
    pair(0, "ENDSEC");
    pair(0, "SECTION");
    pair(2, "TABLES");
    pair(0, "TABLE");
    pair(2, "LAYER");
    pair(70, std::to_string(layers.size()));
    for (const auto& [name, colour] : layers) {
        pair(0, "LAYER");
        pair(2, name);
        pair(70, "0");
        pair(62, std::to_string(colour));
        pair(6, "CONTINUOUS");
    }
    pair(0, "ENDTAB");
    pair(0, "ENDSEC");
    pair(0, "SECTION");
    pair(2, "ENTITIES");
    for (const KnifePath& path : load.way.paths) {
        const std::string on = layer(path.section, path.of);
        if (path.of == CutOf::Line) {
            pair(0, "LINE");
            pair(8, on);
            pair(10, millimetres(path.points.front().x));
            pair(20, millimetres(path.points.front().y));
            pair(11, millimetres(path.points.back().x));
            pair(21, millimetres(path.points.back().y));
            continue;
        }
        pair(0, "POLYLINE");
        pair(8, on);
        pair(66, "1");
        pair(70, path.closed() ? "1" : "0");
        const std::size_t count = path.closed() ? path.points.size() - 1 : path.points.size();
        for (std::size_t i = 0; i < count; ++i) {
            pair(0, "VERTEX");
            pair(8, on);
            pair(10, millimetres(path.points[i].x));
            pair(20, millimetres(path.points[i].y));
        }
        pair(0, "SEQEND");
    }
    pair(0, "ENDSEC");
    pair(0, "EOF");
    return out;
}

Expected<std::string> hpgl_of(const LoadToCut& load) {
    constexpr std::int64_t unit = 25'000 / grid_nm;  // 1/40 mm
    const auto units = [](std::int64_t grid) { return (grid >= 0 ? grid + unit / 2 : grid - unit / 2) / unit; };
    std::string out = "IN;\n";
    std::int64_t farthest = 0;
    int pen = 0;
    for (const KnifePath& path : load.way.paths) {
        const int wanted = path.of == CutOf::Ink ? 1 : path.of == CutOf::Film ? 2 : 3;
        if (wanted != pen) out += fmt::format("SP{};\n", wanted);
        pen = wanted;
        const std::vector<Point> way = pivot_way(path, load.machine.knife.offset, load.machine.knife.overcut);
        std::string down;
        Point last{};
        for (std::size_t i = 0; i < way.size(); ++i) {
            const Point p{units(way[i].x), units(way[i].y)};
            farthest = std::max({farthest, p.x, p.y});
            if (i == 0) {
                out += fmt::format("PU{},{};", p.x, p.y);
            } else if (p != last || i + 1 == way.size()) {
                down += fmt::format("{}{},{}", down.empty() ? "" : ",", p.x, p.y);
            }
            last = p;
        }
        out += fmt::format("PD{};\n", down);
    }
    if (load.machine.longest_units > 0 && farthest > load.machine.longest_units) {
        return refused({"cut.beyond-machine",
                        {{"load", load.load->name},
                         {"reach", Length::nanometres(farthest * 25'000)},
                         {"longest", Length::nanometres(std::int64_t{load.machine.longest_units} * 25'000)},
                         {"machine", load.machine.name}}},
                       Station::Sections, {"cut.shorter-bed", {}});
    }
    return out + "PU0,0;SP0;\n";
}

constexpr int test_step = 880;  // 22 mm in 1/40 mm

std::string test_cut(int which) {
    // 19 mm, 5 mm off the corner.
    const int x = which * test_step;
    return fmt::format(
        "IN;\nSP1;\nPU{0},400;PD{1},400,{2},700,{0},400;\nSP2;\nPU{3},200;PD{4},200,{4},960,{3},960,{3},200;\n"
        "PU0,0;SP0;\n",
        x + 400, x + 760, x + 580, x + 200, x + 960);
}

int test_cuts_on(const Mat& bed) {
    return std::max(1, static_cast<int>(bed.usable.across.in_mm() * 40 - 1000) / test_step + 1);
}

std::vector<CutFile> cut_files(const Plan& plan, const Shop& shop, CutFormat format, std::vector<Problem>* left_out) {
    std::vector<CutFile> files;
    for (const LoadToCut& load : loads_to_cut(plan, shop)) {
        switch (format) {
            case CutFormat::Svg:
                files.push_back({load.word + ".svg", svg_of(load, load.colour->cut.making)});
                break;
            case CutFormat::Dxf:
                files.push_back({load.word + ".dxf", dxf_of(load)});
                break;
            case CutFormat::Hpgl:
                if (auto bytes = hpgl_of(load)) {
                    files.push_back({load.word + ".plt", std::move(*bytes)});
                } else if (left_out != nullptr) {
                    left_out->push_back(bytes.error());
                }
                break;
        }
    }
    return files;
}

}  // namespace skarvel
