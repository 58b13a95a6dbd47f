// How long a new plan takes after one keystroke, beside the base line: shaping and flattening the same outlines once.
#include <benchmark/benchmark.h>
#include <fmt/format.h>
#include <sys/resource.h>

#include <cmath>

#include <array>
#include <chrono>
#include <fstream>
#include <stdexcept>

#include "drawing/drawing_file.h"
#include "files/job_file.h"
#include "job/commands.h"
#include "job/face_commands.h"
#include "job/layer_commands.h"
#include "job/method_reads.h"
#include "job/on_the_rack.h"
#include "job/plan.h"
#include "job/what_helps.h"
#include "proof/proof.h"

namespace {

using namespace skarvel;

const Library& library() {
    static const Library shared = [] {
        auto read = read_library(std::filesystem::path(SKARVEL_SOURCE) / "assets");
        if (!read) throw std::runtime_error("assets");
        return std::move(*read);
    }();
    return shared;
}

Moment monday() { return *read_moment("2026-05-04T18:00"); }

Job porch_board() {
    Job job = new_job(library());
    job.signs.front().faces.front().lettering.main().words = "BOATHOUSE";
    job.deadline = read_moment("2026-05-09T12:00").value();
    return job;
}

// A board of 72 x 11 in with 60 letters in a script.
Job script_board() {
    Job job = porch_board();
    Sign& sign = job.signs.front();
    sign.blank.stock.clear();
    sign.blank.length = measure("72");
    sign.blank.width = measure("11");
    sign.blank.stands = Stands::Level;
    sign.blank.clear = {{Edge::Left, measure("2"), ""}, {Edge::Right, measure("2"), ""}};
    Text& l = sign.faces.front().lettering.main();
    l.words = "Messing about in boats is worth\ndoing slowly and on a long afternoon";
    l.typeface = find_typeface(library().typefaces, {"Dancing Script", "Bold", ""})->name;
    l.arrangement = Arrangement::Level;
    l.letter_gap = measure("0");
    l.line_gap = measure("1/2");
    return job;
}

void outlines_once(benchmark::State& state, const Job& job) {
    const Text& l = job.signs.front().faces.front().lettering.main();
    const Typeface& t = *find_typeface(library().typefaces, l.typeface);
    for (auto _ : state) {
        for (const ShapedLetter& letter : shape(t, l.words))
            benchmark::DoNotOptimize(flatten(letter.outline, 0.1, 0.1));
    }
}

// One keystroke: the last letter comes and goes.
void keystroke(benchmark::State& state, Job job) {
    Planner planner;
    const Shop shop = usual_shop();
    const std::string whole = job.signs.front().faces.front().lettering.main().words;
    bool shorter = false;
    benchmark::DoNotOptimize(planner.plan(job, shop, library(), monday()));
    for (auto _ : state) {
        shorter = !shorter;
        job.signs.front().faces.front().lettering.main().words = shorter ? whole.substr(0, whole.size() - 1) : whole;
        benchmark::DoNotOptimize(planner.plan(job, shop, library(), monday()));
    }
}

// An edit of the blank: its length goes up and down by a sixteenth.
void blank_edit(benchmark::State& state, Job job) {
    Planner planner;
    const Shop shop = usual_shop();
    const Length length = job.signs.front().blank.length.value;
    bool longer = false;
    benchmark::DoNotOptimize(planner.plan(job, shop, library(), monday()));
    for (auto _ : state) {
        longer = !longer;
        job.signs.front().blank.length = measure_of(length + (longer ? 0.0625_in : 0_in), {});
        benchmark::DoNotOptimize(planner.plan(job, shop, library(), monday()));
    }
}

Job kind(Kind kind, const char* length, const char* width) {
    Job job = porch_board();
    Blank& b = job.signs.front().blank;
    b.kind = kind;
    b.length = measure(length);
    b.width = measure(width);
    b.stock.clear();
    b.clear.clear();
    return job;
}

Job round_with_band() {
    Job job = kind(Kind::Round, "18", "18");
    PaintedField band;
    band.middle = measure("9");
    band.depth = measure("5");
    job.signs.front().blank.fields.push_back(band);
    ClearZone knot;
    knot.name = "knot";
    knot.shape = ZoneShape::Circle;
    knot.x = knot.y = measure("4");
    knot.width = measure("1");
    knot.mirrored = true;
    job.signs.front().blank.clear.push_back(knot);
    return job;
}

Job measured_board() {
    Job job = porch_board();
    const std::array taken{"5 1/2", "5 7/16", "5 3/8", "60", "60 1/16", "60 1/4", "60 1/4"};
    for (std::size_t i = 0; i < taken.size(); ++i) job.signs.front().blank.tape.taken.at(i) = measure(taken.at(i));
    return job;
}

Job framed_panel() {
    Job job = kind(Kind::Panel, "42", "16");
    job.signs.front().blank.frame.kind = FrameKind::Butt;
    return job;
}

Job forty_signs() {
    Job job = porch_board();
    for (int i = 2; i <= 40; ++i) job = copy_sign(job, job.signs.size() - 1, "SIGN " + std::to_string(i));
    return job;
}

// 300 letters: lettering and ink alone, without what is cut from them.
Job long_saying() {
    Job job = kind(Kind::Panel, "96", "48");
    job.signs.front().blank.stands = Stands::Level;
    Text& l = job.signs.front().faces.front().lettering.main();
    l.words.clear();
    for (int i = 0; i < 12; ++i) l.words += (i > 0 ? "\n" : "") + std::string("HERE THE RIVER TURNS ROUND");
    l.arrangement = Arrangement::Level;
    l.letter_gap = measure("0");
    l.line_gap = measure("1/2");
    l.even = true;
    return job;
}

void lettering_keystroke(benchmark::State& state, Job job) {
    const Sign& sign = job.signs.front();
    const LetteringRoom room =
        room_of(sign.blank, measure_up(sign.blank, library().trade.stock, library().trade.densities));
    Lettering lettering = sign.faces.front().lettering;
    const std::string whole = lettering.main().words;
    bool shorter = false;
    for (auto _ : state) {
        shorter = !shorter;
        lettering.main().words = shorter ? whole.substr(0, whole.size() - 1) : whole;
        const LetteringPlan placed = place(lettering, room, library().typefaces);
        benchmark::DoNotOptimize(ink_of(lettering, placed, {}, {}, first_colour));
    }
}

void compose_twelve(benchmark::State& state) {
    const Box box{{0, 0}, at(30_in, 20_in)};
    const ComposeWish wish{"when the evening tide runs out we row home slowly together past lanterns",
                           {2, 9},
                           find_typeface(library().typefaces, {"Bebas Neue", "Regular", ""})->name,
                           find_typeface(library().typefaces, {"Lobster Two", "Bold", ""})->name,
                           measure("3/8"),
                           false,
                           {}};
    for (auto _ : state) benchmark::DoNotOptimize(compose(wish, {box, {}, box, false, {}, {}}, library().typefaces));
}

void read_svg(benchmark::State& state) {
    std::string svg = "<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 1000 1000'>";
    for (int i = 0; i < 1000; ++i) {
        svg += "<path d='M" + std::to_string(i % 32 * 30) + " " + std::to_string(i / 32 * 30);
        for (int k = 0; k < 100; ++k)
            svg += " l" + std::to_string(k % 2 == 0 ? 0.2 : -0.1) + " " + std::to_string(k < 50 ? 0.3 : -0.3);
        svg += "z'/>";
    }
    svg += "</svg>";
    for (auto _ : state) benchmark::DoNotOptimize(read_drawing_file(svg, "large.svg"));
}

// What one step of a drag asks of the core.
void drag_step(benchmark::State& state, Job job) {
    job = add_text(job, {0, 0});
    job.signs.front().faces.front().lettering.texts[1].words = "QUAY";
    const Plan p = plan(job, usual_shop(), library(), monday());
    const auto things = things_on(job.signs.front().faces.front(), p.colours.front());
    SnapInput in{things[0], {things[1]}, p.colours.front().face->blank->face, p.colours.front().face->blank->usable, {},
                 10'000,    {}};
    std::int64_t by = 0;
    for (auto _ : state) {
        in.by = {++by * 100 % 100'000, by * 70 % 50'000};
        benchmark::DoNotOptimize(snap(in));
    }
}

// Sections and loads alone: the ink and all before it are there.
void sections_and_loads(benchmark::State& state, const Job& job) {
    const Shop shop = usual_shop();
    const Plan p = plan(job, shop, library(), monday());
    for (auto _ : state) {
        for (const ColourPlan& f : p.colours)
            benchmark::DoNotOptimize(plan_loads(*f.cut.pieces, f.face->blank->face, f.cut.bed, f.cut.making, {}));
    }
}

// Two colours: a rim behind the letters.
Job script_board_with_rim() {
    Job job = add_colour(script_board(), {});
    Face& face = job.signs.front().faces.front();
    face.lettering.main().rim = Rim{measure("1/8"), face.colours[1].id, true, measure("1/16"), false};
    return job;
}

Job twelve_signs() {
    Job job = script_board();
    for (int i = 0; i < 11; ++i) job = copy_sign(job, 0, "Messing about in boats is\nworth doing slowly");
    return job;
}

// Twelve signs, whose sections are packed on shared loads.
void share_twelve(benchmark::State& state) {
    Job job = twelve_signs();
    const Plan p = plan(job, usual_shop(), library(), monday());
    std::vector<Sharer> sharers;
    std::size_t sections = 0;
    for (const ColourPlan& f : p.colours) {
        LoadsPlan own = plan_loads(*f.cut.pieces, f.face->blank->face, f.cut.bed, f.cut.making, {});
        sections += own.sections.size();
        sharers.push_back(
            {f.id, f.cut.making.film.id, "", true, f.cut.bed, f.cut.making.gap, Shared<LoadsPlan>(std::move(own))});
    }
    state.counters["sections"] = static_cast<double>(sections);
    for (auto _ : state) benchmark::DoNotOptimize(share_loads(sharers, {}));
}

// The squared square of order 21 (Duijvestijn, 1978; sizes from memory) fills one room of 112 without any waste. More
// than can be searched in full: it shows how near a bounded search comes.
void squared_square(benchmark::State& state) {
    std::vector<Box> squares;
    for (const int size : {50, 42, 37, 35, 33, 29, 27, 25, 24, 19, 18, 17, 16, 15, 11, 9, 8, 7, 6, 4, 2})
        squares.push_back({{0, 0}, {to_grid(Length::inches(size)), to_grid(Length::inches(size))}});
    const Room room{Length::inches(112), Length::inches(112)};
    Packed packed;
    for (auto _ : state) packed = pack(squares, room, {});
    std::int64_t top = 0;
    for (const Placement& p : packed.loads.back()) top = std::max(top, box_on_mat(squares[p.section], p).high.y);
    state.counters["loads"] = static_cast<double>(packed.loads.size());
    state.counters["last_load_inches"] = from_grid(top).in_inches();
}

// A batch of twelve signs from nothing, all of it, with its sections counted.
void batch_of_twelve(benchmark::State& state) {
    Job job = twelve_signs();
    // Cut on the short mat, so that there are many sections.
    for (Sign& s : job.signs) s.faces.front().colours.front().making.bed = "12-inch cutter / 12 × 12";
    std::size_t sections = 0;
    for (auto _ : state) {
        const Plan p = plan(job, usual_shop(), library(), monday());
        sections = 0;
        for (const ColourPlan& f : p.colours) sections += f.cut.loads->sections.size();
    }
    state.counters["sections"] = static_cast<double>(sections);
}

// Between two looks at whether to stop: how long a newer edit waits at worst, over a whole plan.
void longest_wait(benchmark::State& state) {
    const Job job = twelve_signs();
    double longest = 0;
    for (auto _ : state) {
        auto last = std::chrono::steady_clock::now();
        const WhileStoppable watch([&] {
            const auto now = std::chrono::steady_clock::now();
            longest = std::max(longest, std::chrono::duration<double, std::milli>(now - last).count());
            last = now;
            return false;
        });
        benchmark::DoNotOptimize(plan(job, usual_shop(), library(), monday()));
    }
    state.counters["longest_ms"] = longest;
}

double resident_mib() {
    std::ifstream status("/proc/self/status");
    for (std::string line; std::getline(status, line);) {
        if (line.starts_with("VmRSS:")) return std::stod(line.substr(6)) / 1024;
    }
    return 0;
}

// 500 edits of a job with a drawing of 100 000 nodes, every step kept, as a window does.
void undo_of_a_large_drawing(benchmark::State& state) {
    std::string svg = "<svg xmlns='http://www.w3.org/2000/svg' width='400mm' height='400mm' viewBox='0 0 4000 4000'>";
    for (int shape = 0; shape < 1000; ++shape) {
        svg += "<path d='M";
        for (int i = 0; i < 100; ++i) {
            const double r = 40 + 10 * (i % 2);
            const double turn = i * 0.0628;
            svg += fmt::format("{}{:.2f} {:.2f}", i == 0 ? "" : "L", shape % 32 * 120 + 60 + r * std::cos(turn),
                               shape / 32 * 120 + 60 + r * std::sin(turn));
        }
        svg += "Z'/>";
    }
    auto read = read_drawing_file(svg + "</svg>", "large.svg");
    PlacedDrawing drawing;
    drawing.drawing = std::move(read->drawing);
    Job job = add_art(porch_board(), {}, drawing, library().typefaces);
    double grown = 0;
    for (auto _ : state) {
        const double before = resident_mib();
        std::vector<Job> undo;
        for (int i = 0; i < 500; ++i) {
            undo.push_back(job);
            job.signs.front().faces.front().lettering.main().words = "STEP " + std::to_string(i);
        }
        grown = std::max(grown, resident_mib() - before);
    }
    state.counters["grown_mib"] = grown;
}

double perimeter_mm(const std::vector<Piece>& pieces) {
    double sum = 0;
    for (const Piece& p : pieces) {
        for (const Ring& ring : p.shape.rings()) {
            for (std::size_t i = 0, j = ring.size() - 1; i < ring.size(); j = i++)
                sum += std::hypot(grid_to_mm(ring[i].x - ring[j].x), grid_to_mm(ring[i].y - ring[j].y));
        }
    }
    return sum;
}

// Rows of the same ink one above the other: how sections and loads grow with the length of the ink.
void growing_ink(benchmark::State& state) {
    const Plan p = plan(script_board(), usual_shop(), library(), monday());
    const ColourPlan& f = p.colours.front();
    std::vector<Piece> pieces;
    const auto rows = state.range(0);
    const std::int64_t high = f.face->blank->face.height();
    for (std::int64_t row = 0; row < rows; ++row) {
        for (Piece piece : *f.cut.pieces) {
            piece.shape = piece.shape.moved({0, row * high});
            piece.first += static_cast<int>(row) * 100;
            piece.line += static_cast<int>(row) * 10;
            pieces.push_back(std::move(piece));
        }
    }
    const Box face{f.face->blank->face.low, {f.face->blank->face.high.x, high * rows}};
    for (auto _ : state) benchmark::DoNotOptimize(plan_loads(pieces, face, f.cut.bed, f.cut.making, {}));
    const double length = perimeter_mm(pieces);
    state.counters["ink_mm"] = length;
    state.SetComplexityN(static_cast<std::int64_t>(length));
    rusage used{};
    getrusage(RUSAGE_SELF, &used);
    state.counters["memory_mib"] = static_cast<double>(used.ru_maxrss) / 1024;
}

void knife(benchmark::State& state, const Job& job) {
    const Shop shop = usual_shop();
    const Plan p = plan(job, shop, library(), monday());
    for (auto _ : state) benchmark::DoNotOptimize(loads_to_cut(p, shop));
}

void proving(benchmark::State& state, const Job& job) {
    const Shop shop = usual_shop();
    const Plan p = plan(job, shop, library(), monday());
    const FileSet files = files_of(job, p, shop);
    for (auto _ : state) benchmark::DoNotOptimize(prove(p, shop, files, CutFormat::Svg));
}

void new_moment(benchmark::State& state) {
    Planner planner;
    const Job job = porch_board();
    const Shop shop = usual_shop();
    int minute = 0;
    for (auto _ : state)
        benchmark::DoNotOptimize(planner.plan(job, shop, library(), monday() + Minutes(++minute % 600)));
}

// A layer gets another number of coats: Method, the tasks, the clock and the bench follow, nothing before them.
void edit_of_a_layer(benchmark::State& state) {
    Planner planner;
    Job job = porch_board();
    const Shop shop = usual_shop();
    benchmark::DoNotOptimize(planner.plan(job, shop, library(), monday()));
    int coats = 0;
    for (auto _ : state) {
        change_layer(
            job.signs.front().faces.front(), ground_coat, [&](Layer& l) { l.coat.coats = 1 + ++coats % 3; },
            library().trade);
        benchmark::DoNotOptimize(planner.plan(job, shop, library(), monday()));
    }
}

// What the window asks when Method is shown: each remedy tried, and what would lower the risks.
void trying_remedies(benchmark::State& state) {
    const Job job = porch_board();
    const Shop shop = usual_shop();
    const Plan now = plan(job, shop, library(), monday());
    const ColourId colour = job.signs.front().faces.front().colours.front().id;
    for (auto _ : state) {
        benchmark::DoNotOptimize(remedies(job, shop, now, colour, library().trade));
        benchmark::DoNotOptimize(what_lowers(job, shop, now, colour, library().trade));
    }
}

// Twelve signs on one clock: from finished tasks to a schedule with its latest start, rounds and all.
void clock_of_twelve(benchmark::State& state) {
    const Job job = twelve_signs();
    const Shop shop = usual_shop();
    const Plan now = plan(job, shop, library(), monday());
    ClockInput in{now.tasks, shop.hours, monday() + std::chrono::days(60), {}, {}, monday()};
    for (auto _ : state) benchmark::DoNotOptimize(schedule(in));
    state.counters["tasks"] = static_cast<double>(now.tasks->size());
}

// Everything that may gain time, each planned in full.
void looking_for_time(benchmark::State& state) {
    Job job = porch_board();
    job.deadline = monday() + std::chrono::days(3);
    const Shop shop = usual_shop();
    for (auto _ : state) benchmark::DoNotOptimize(what_helps(job, shop, library(), monday()));
}

// Twenty jobs in work, on the same hours.
void week_of_twenty(benchmark::State& state) {
    const Job job = porch_board();
    const Shop shop = usual_shop();
    const Plan now = plan(job, shop, library(), monday());
    std::vector<RackJob> jobs;
    for (int i = 0; i < 20; ++i) {
        jobs.push_back(on_the_rack(job, now, monday()));
        jobs.back().clock.deadline = monday() + std::chrono::days(5 + 2 * i);
    }
    for (auto _ : state) benchmark::DoNotOptimize(rack_week(jobs));
}

}  // namespace

int main(int argc, char** argv) {
    benchmark::RegisterBenchmark("base line: outlines of the porch board", outlines_once, porch_board())
        ->Unit(benchmark::kMillisecond);
    benchmark::RegisterBenchmark("keystroke: the porch board", keystroke, porch_board())->Unit(benchmark::kMillisecond);
    benchmark::RegisterBenchmark("base line: outlines of 60 letters in a script", outlines_once, script_board())
        ->Unit(benchmark::kMillisecond);
    benchmark::RegisterBenchmark("keystroke: 60 letters in a script, 72 x 11 in", keystroke, script_board())
        ->Unit(benchmark::kMillisecond);
    benchmark::RegisterBenchmark("an edit of the blank: the porch board", blank_edit, porch_board())
        ->Unit(benchmark::kMillisecond);
    benchmark::RegisterBenchmark("an edit of the blank: a round with band and knots", blank_edit, round_with_band())
        ->Unit(benchmark::kMillisecond);
    benchmark::RegisterBenchmark("an edit of the blank: a board with seven readings", blank_edit, measured_board())
        ->Unit(benchmark::kMillisecond);
    benchmark::RegisterBenchmark("an edit of the blank: a framed panel", blank_edit, framed_panel())
        ->Unit(benchmark::kMillisecond);
    benchmark::RegisterBenchmark("keystroke in one of 40 signs", keystroke, forty_signs())
        ->Unit(benchmark::kMillisecond);
    benchmark::RegisterBenchmark("an edit of one blank of 40 signs", blank_edit, forty_signs())
        ->Unit(benchmark::kMillisecond);
    benchmark::RegisterBenchmark("base line: outlines of 300 letters", outlines_once, long_saying())
        ->Unit(benchmark::kMillisecond);
    benchmark::RegisterBenchmark("keystroke in a saying of 300 letters, gaps evened: lettering and ink",
                                 lettering_keystroke, long_saying())
        ->Unit(benchmark::kMillisecond);
    benchmark::RegisterBenchmark("composing twelve words", compose_twelve)->Unit(benchmark::kMillisecond);
    benchmark::RegisterBenchmark("an SVG of 100 000 nodes", read_svg)->Unit(benchmark::kMillisecond);
    benchmark::RegisterBenchmark("a step of a drag: 60 letters", drag_step, script_board())
        ->Unit(benchmark::kMicrosecond);
    benchmark::RegisterBenchmark("sections and loads: the porch board", sections_and_loads, porch_board())
        ->Unit(benchmark::kMillisecond);
    benchmark::RegisterBenchmark("sections and loads: 60 letters in two colours, 72 x 11 in", sections_and_loads,
                                 script_board_with_rim())
        ->Unit(benchmark::kMillisecond);
    benchmark::RegisterBenchmark("loads shared by twelve signs", share_twelve)->Unit(benchmark::kMillisecond);
    benchmark::RegisterBenchmark("packing the squared square of order 21", squared_square)
        ->Unit(benchmark::kMillisecond);
    benchmark::RegisterBenchmark("longest wait for a stop, twelve signs in a script", longest_wait)
        ->Unit(benchmark::kMillisecond);
    benchmark::RegisterBenchmark("500 steps of undo with a drawing of 100 000 nodes", undo_of_a_large_drawing)
        ->Unit(benchmark::kMillisecond)
        ->Iterations(1);
    benchmark::RegisterBenchmark("a batch of twelve signs from nothing", batch_of_twelve)
        ->Unit(benchmark::kMillisecond);
    auto* growing = benchmark::RegisterBenchmark("sections and loads by length of ink", growing_ink);
    for (const int rows : {1, 2, 3, 5, 7, 10}) growing->Arg(rows);
    growing->Unit(benchmark::kMillisecond)->Complexity(benchmark::oNLogN);
    benchmark::RegisterBenchmark("the knife's way: 60 letters", knife, script_board())->Unit(benchmark::kMillisecond);
    benchmark::RegisterBenchmark("the proof from SVG: the porch board", proving, porch_board())
        ->Unit(benchmark::kMillisecond);
    benchmark::RegisterBenchmark("a minute passes: the porch board", new_moment)->Unit(benchmark::kMillisecond);
    benchmark::RegisterBenchmark("an edit of a layer: the porch board", edit_of_a_layer)->Unit(benchmark::kMillisecond);
    benchmark::RegisterBenchmark("remedies tried: the porch board", trying_remedies)->Unit(benchmark::kMillisecond);
    benchmark::RegisterBenchmark("the clock of twelve signs, in rounds, with its latest start", clock_of_twelve)
        ->Unit(benchmark::kMillisecond);
    benchmark::RegisterBenchmark("looking for time: the porch board", looking_for_time)->Unit(benchmark::kMillisecond);
    benchmark::RegisterBenchmark("the week of twenty jobs", week_of_twenty)->Unit(benchmark::kMillisecond);
    benchmark::Initialize(&argc, argv);
    benchmark::RunSpecifiedBenchmarks();
}
