// What the tests share: the shipped library, the slice's two jobs, and small makers.
#pragma once

#include <algorithm>
#include <catch2/catch.hpp>
#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <string>

#include "files/job_file.h"
#include "job/layer_commands.h"
#include "job/plan.h"

namespace skarvel::testing {

inline const Library& library() {
    static const Library shared = [] {
        auto read = read_library(std::filesystem::path(SKARVEL_SOURCE) / "assets");
        if (!read) throw std::runtime_error("assets: " + read.error().what.id + " " + read.error().where.place);
        return std::move(*read);
    }();
    return shared;
}

inline TypefaceName typeface(const std::string& family, const std::string& style = "Regular") {
    const Typeface* found = find_typeface(library().typefaces, {family, style, ""});
    if (found == nullptr) throw std::runtime_error("no typeface " + family + " " + style);
    return found->name;
}

/// What the trade data leave between sections on a mat.
inline const Length section_gap = library().trade.section_gap;

inline Moment moment(const std::string& text) { return read_moment(text).value(); }

/// The porch board of the slice: BOATHOUSE stacked on a 1x6 of 60 in, white over deep blue, wanted Saturday noon.
inline Job porch_board() {
    Job job = new_job(library());
    job.title = "Porch board";
    job.signs.front().faces.front().lettering.main().words = "BOATHOUSE";
    job.deadline = moment("2026-05-09T12:00");
    return job;
}

/// A second job that nobody tuned anything for: a 1x10 of 72 in, two level lines, decal.
inline Job long_board() {
    Job job = new_job(library());
    job.title = "Landing stage";
    Sign& sign = job.signs.front();
    sign.blank.stock = "1x10";
    sign.blank.length = measure("72");
    sign.blank.stands = Stands::Level;
    sign.blank.margin = measure("1/2");
    sign.blank.clear = {{Edge::Left, measure("6"), "rope"}, {Edge::Right, measure("6"), "rope"}};
    Face& face = sign.faces.front();
    face.lettering.main().words = "PLEASE RING THE BELL\nFOR THE LAST FERRY HOME";
    face.lettering.main().typeface = typeface("League Spartan", "Bold");
    face.lettering.main().arrangement = Arrangement::Level;
    face.lettering.main().letter_gap = measure("0");
    face.lettering.main().line_gap = measure("3/4");
    face.colours.front().making.way = Way::Decal;
    face.colours.front().making.film = "permanent-gloss";
    return job;
}

inline Plan plan_of(const Job& job, const std::string& at = "2026-05-04T18:00") {
    return plan(job, usual_shop(), library(), moment(at));
}

inline Text& lettering(Job& job) { return job.signs.front().faces.front().lettering.main(); }
/// A level panel with one line of words in League Spartan Bold, 1 in off the edges.
inline Job panel_job(const std::string& words, const char* length = "30", const char* width = "20") {
    Job job = porch_board();
    Blank& b = job.signs.front().blank;
    b.kind = Kind::Panel;
    b.stock.clear();
    b.length = measure(length);
    b.width = measure(width);
    b.stands = Stands::Level;
    b.margin = measure("1");
    b.clear.clear();
    Text& t = lettering(job);
    t.words = words;
    t.arrangement = Arrangement::Level;
    t.letter_gap = measure("0");
    return job;
}
inline Making& making(Job& job) { return job.signs.front().faces.front().colours.front().making; }
inline Face& face_of(Job& job) { return job.signs.front().faces.front(); }
inline Finish& finish_of(Job& job) { return face_of(job).finish; }
inline Layer& layer_of(Job& job, const LayerId& id) {
    return face_of(job).layers.at(place_of(face_of(job).layers, id));
}
inline CoatChoice& coat_in(Job& job, const LayerId& id) { return layer_of(job, id).coat; }
/// The clear coat over all lies below the lettering, or the other way round.
inline void turn_clear(Job& job) {
    auto& layers = face_of(job).layers;
    const auto clear = layers.begin() + static_cast<long>(place_of(layers, clear_coat));
    const auto lettered =
        std::find_if(layers.begin(), layers.end(), [](const Layer& l) { return l.kind == LayerKind::Lettering; });
    if (clear > lettered)
        std::rotate(lettered, clear, clear + 1);
    else
        std::rotate(clear, clear + 1, layers.end());
}
inline void without(Job& job, const LayerId& id) { take_out(face_of(job), id, library().trade); }

inline Box box_in(double left, double bottom, double right, double top) {
    const auto g = [](double inches) { return to_grid(Length::from_mm(inches * 25.4)); };
    return {{g(left), g(bottom)}, {g(right), g(top)}};
}

inline Region square_in(double left, double bottom, double size) {
    return Region::rectangle(box_in(left, bottom, left + size, bottom + size));
}

inline double inches(std::int64_t units) { return from_grid(units).in_inches(); }

/// A folder of its own that goes away.
class Folder {
  public:
    Folder() {
        std::string name = (std::filesystem::temp_directory_path() / "skarvel-test-XXXXXX").string();
        path_ = mkdtemp(name.data());
    }
    ~Folder() {
        std::error_code error;
        std::filesystem::permissions(path_, std::filesystem::perms::owner_all, error);
        std::filesystem::remove_all(path_, error);
    }
    Folder(const Folder&) = delete;
    Folder& operator=(const Folder&) = delete;
    [[nodiscard]] const std::filesystem::path& path() const { return path_; }
    std::filesystem::path operator/(const std::string& name) const { return path_ / name; }

  private:
    std::filesystem::path path_;
};

struct Ran {
    int code = 0;
    std::string out;
};

/// Runs a shell command; output and errors together.
inline Ran run(const std::string& command) {
    Ran ran;
    FILE* pipe = popen((command + " 2>&1").c_str(), "r");
    if (pipe == nullptr) return {-1, ""};
    char buffer[4096];
    while (const std::size_t n = fread(buffer, 1, sizeof buffer, pipe)) ran.out.append(buffer, n);
    ran.code = WEXITSTATUS(pclose(pipe));
    return ran;
}

}  // namespace skarvel::testing
