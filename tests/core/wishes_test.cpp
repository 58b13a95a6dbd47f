// What the maker wishes about the division: seams that are moved or not wanted, pieces bound or set apart, what
// repeats. The proof reads the files of each: whatever is wished, the laid sections give the design back.
#include <algorithm>

#include "clock/tasks.h"
#include "job/alternatives.h"
#include "job/wish_commands.h"
#include "loads/repeats.h"
#include "support_panel.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

const ColourAt first{};

bool says(const Plan& plan, const std::string& id) {
    return std::any_of(plan.problems.begin(), plan.problems.end(), [&](const Problem& p) { return p.what.id == id; });
}

std::vector<PieceName> named(const Plan& plan, const std::string& letters) {
    std::vector<PieceName> out;
    for (const PieceName& n : names_of(*plan.colours.front().cut.pieces)) {
        if (letters.find(n.letters) != std::string::npos) out.push_back(n);
    }
    return out;
}

bool proven(const Job& job, const Plan& plan) {
    const Shop shop = usual_shop();
    const FileSet files = files_of(job, plan, shop);
    const Evidence svg = prove(plan, shop, files, CutFormat::Svg);
    for (const Problem& p : svg.problems) UNSCOPED_INFO(p.what.id);
    for (const ColourProof& c : svg.as_cut) {
        for (const Reason& why : c.wrong) UNSCOPED_INFO(why.id << " " << c.deviation.in_mm());
    }
    return svg.good() && prove(plan, shop, files, CutFormat::Hpgl).good();
}

const LoadsPlan& loads(const Plan& plan) { return *plan.colours.front().cut.loads; }

const Section& section_with(const Plan& plan, const std::string& letters) {
    const auto& all = loads(plan).sections;
    const auto at = std::find_if(all.begin(), all.end(), [&](const Section& s) { return s.letters == letters; });
    REQUIRE(at != all.end());
    return *at;
}

}  // namespace

TEST_CASE("a seam goes where the maker puts it, and says what it costs") {
    const Job job = porch_board();
    const Plan found = plan_of(job);
    REQUIRE(loads(found).seams.size() == 2);
    const Seam& seam = loads(found).seams.back();
    SECTION("into the next gap") {
        const Box h = named(found, "H").empty() ? Box{} : [&] {
            for (const Piece& p : *found.colours.front().cut.pieces) {
                if (p.letters == "H") return p.shape.bounds();
            }
            return Box{};
        }();
        const TriedSeam tried = try_seam(found.colours.front(), seam, h.high.y + to_grid(0.25_in), {});
        CHECK(tried.crossed == Length{});
        const Job moved = move_seam(job, first, found.colours.front(), loads(found).seams.size() - 1, tried.at);
        const Plan plan = plan_of(moved);
        const bool there = std::any_of(loads(plan).seams.begin(), loads(plan).seams.end(), [&](const Seam& s) {
            return place_of(plan.colours.front(), s) == tried.at.value && s.crossed == Length{};
        });
        CHECK(there);
        REQUIRE(plan.colours.front().cut.without_wishes);
        CHECK(*plan.colours.front().cut.without_wishes == as_found(loads(found)));
        CHECK(proven(moved, plan));
        CHECK(*read_job(write_job(moved)) == moved);
        // Taken back, it is as it was.
        CHECK(plan_of(forget_wishes(moved, first)) == found);
    }
    SECTION("across a letter, whose opening both masks carry") {
        Box a;
        for (const Piece& p : *found.colours.front().cut.pieces) {
            if (p.letters == "A") a = p.shape.bounds();
        }
        const TriedSeam tried = try_seam(found.colours.front(), seam, (a.low.y + a.high.y) / 2, {});
        CHECK(tried.crossed > Length{});
        const Job moved = move_seam(job, first, found.colours.front(), loads(found).seams.size() - 1, tried.at);
        const Plan plan = plan_of(moved);
        CHECK(loads(plan).crossings == 1);
        CHECK(as_found(loads(plan)).crossed == tried.crossed);
        // No piece is too large: the reason is the maker's own.
        const auto gives = [&](const char* id) {
            return std::any_of(loads(plan).why.begin(), loads(plan).why.end(),
                               [&](const Reason& r) { return r.id == id; });
        };
        CHECK(gives("sections.why-wished-across"));
        CHECK_FALSE(gives("sections.why-crossed"));
        CHECK(proven(moved, plan));
    }
    SECTION("off the ink it parts nothing, and that is said") {
        const Job moved = move_seam(job, first, found.colours.front(), loads(found).seams.size() - 1, measure("1/4"));
        const Plan plan = plan_of(moved);
        CHECK(says(plan, "wish.seam-unused"));
        CHECK(proven(moved, plan));
    }
}

TEST_CASE("no seam lies where none is wanted, unless nothing else can be") {
    const Job job = porch_board();
    const Plan found = plan_of(job);
    const Job without = forbid_seam(job, first, found.colours.front(), 0, {});
    const Plan plan = plan_of(without);
    const auto [from, to] = gap_around(loads(found).seams.front(), *found.colours.front().cut.pieces);
    for (const Seam& s : loads(plan).seams) CHECK((s.where <= from || s.where >= to));
    CHECK(!says(plan, "wish.never-impossible"));
    CHECK(proven(without, plan));
    // A seam nowhere at all: what cannot be is told, and the sign is divided as found.
    Job never = job;
    wishes_of(never, first).seams.push_back({true, Axis::Y, measure("30"), 30_in, {}, {}});
    const Plan impossible = plan_of(never);
    CHECK(says(impossible, "wish.never-impossible"));
    CHECK(loads(impossible).seams == loads(found).seams);
}

TEST_CASE("pieces bound together share a section, and pieces set apart have their own") {
    const Job job = porch_board();
    const Plan found = plan_of(job);
    // The letters on both sides of the first seam, as one.
    std::vector<PieceName> pair;
    const auto names = names_of(*found.colours.front().cut.pieces);
    const auto& lower = loads(found).sections[1].pieces.front();
    const auto& upper = loads(found).sections[0].pieces.back();
    for (std::size_t i = 0; i < names.size(); ++i) {
        const Piece& p = (*found.colours.front().cut.pieces)[i];
        if (p == lower || p == upper) pair.push_back(names[i]);
    }
    REQUIRE(pair.size() == 2);
    const Job bound = bind_pieces(job, first, pair);
    const Plan plan = plan_of(bound);
    const bool together = std::any_of(loads(plan).sections.begin(), loads(plan).sections.end(), [&](const Section& s) {
        return std::count(s.pieces.begin(), s.pieces.end(), lower) +
                   std::count(s.pieces.begin(), s.pieces.end(), upper) ==
               2;
    });
    CHECK(together);
    CHECK(proven(bound, plan));
    CHECK(*read_job(write_job(bound)) == bound);
    CHECK(free_pieces(bound, first, pair) == job);

    const Plan too_long = plan_of(bind_pieces(job, first, names));
    CHECK(says(too_long, "wish.bound-too-large"));
    CHECK(loads(too_long).sections == loads(found).sections);

    // A mask by itself has its whole margin, over its neighbours' ink: it is painted in a later pass.
    const Job apart = set_apart(job, first, named(found, "A"));
    const Plan by_itself = plan_of(apart);
    const Section& a = section_with(by_itself, "A");
    CHECK(a.pieces.size() == 1);
    CHECK(loads(by_itself).passes == 2);
    CHECK(proven(apart, by_itself));
    const auto pass_of = [&](const std::string& id) {
        const auto& tasks = by_itself.tasks;
        return std::find_if(tasks->begin(), tasks->end(), [&](const Task& t) { return t.id.name == id; }) -
               tasks->begin();
    };
    // Laid, painted and lifted before the other goes down.
    CHECK(pass_of("1/lift/" + loads(by_itself).sections.front().letters) <
          pass_of("1/lay/" + loads(by_itself).sections.back().letters));
    CHECK(pass_of("1/colour.2/1") < static_cast<long>(by_itself.tasks->size()));

    Job gone = apart;
    lettering(gone).words = "BOTHOUSE";
    CHECK(says(plan_of(gone), "wish.no-piece"));
}

TEST_CASE("with whole margins every mask has its margin around, pass by pass") {
    CHECK(rc::check("film lies wherever a tool reaches, on no ink of the same pass", [] {
        Job job = porch_board();
        lettering(job).words = *rc::gen::element<std::string>("BOATHOUSE", "TEA ROOM", "LOST OARS", "QUAY");
        making(job).tool = *rc::gen::element<std::string>("brush", "sponge", "spray");
        wishes_of(job, first).whole_margins = true;
        const Plan plan = plan_of(job);
        const ColourPlan& face = plan.colours.front();
        std::map<int, std::vector<Region>> films;
        std::map<int, std::vector<Region>> open;
        for (const Section& s : face.cut.loads->sections) {
            films[s.pass].push_back(s.film);
            open[s.pass].push_back(s.cut);
        }
        for (const auto& [pass, cut] : open) {
            const Region reach =
                intersect(grow(merge(cut), face.cut.making.margin), Region::rectangle(face.face->blank->face));
            RC_ASSERT(subtract(reach, merge(films[pass])).area_mm2() < 1);
            for (const Section& s : face.cut.loads->sections) {
                if (s.pass == pass) RC_ASSERT(intersect(subtract(s.film, s.cut), merge(cut)).area_mm2() < 0.5);
            }
        }
        const Shop shop = usual_shop();
        RC_ASSERT(prove(plan, shop, files_of(job, plan, shop), CutFormat::Svg).good());
    }));
}

TEST_CASE("what repeats is cut once and laid again") {
    // Common practice: the one-foot strip of a height ruler is cut once and used again.
    std::vector<Piece> marks;
    for (int foot = 0; foot < 6; ++foot) {
        for (int inch = 0; inch < 12; ++inch) {
            const double y = foot * 12 + inch;
            marks.push_back({square_in(1, y, inch == 0 ? 0.25 : 0.125), "ruler", 0, false, 1000, true});
        }
        // A figure that every foot has its own of.
        marks.push_back({square_in(3, foot * 12 + 5, 0.5 + foot * 0.07), std::to_string(foot), foot, true, 0, false});
    }
    const auto repeat = repeat_in(marks, {11.5_in, 23.5_in}, 1_in);
    REQUIRE(repeat);
    CHECK(repeat->lays.at(1) == Motion{{0, to_grid(12_in)}, 0, false});
    CHECK(repeat->units.size() == 6);
    CHECK(repeat->units.front().size() == 12);
    CHECK(repeat->rest.size() == 6);
    // Nothing comes again in a word without a letter twice.
    CHECK_FALSE(repeat_in(*plan_of(porch_board()).colours.front().cut.pieces, {11.5_in, 23.5_in}, 1_in));

    auto job = read_job(*read_file(std::filesystem::path(SKARVEL_SOURCE) / "demo/crew-height-ruler.skarvel"));
    REQUIRE(job);
    CHECK(wishes_of(*job, first).copies == 1);
    wishes_of(*job, first).copies = 0;
    const Plan drawn = plan_of(*job);
    const int lays = loads(drawn).repeats;
    CAPTURE(lays);
    REQUIRE(lays >= 3);
    wishes_of(*job, first).copies = 1;
    const Plan once = plan_of(*job);
    CHECK(loads(once).film_total < loads(drawn).film_total);
    CHECK(loads(once).passes >= lays);
    CHECK(proven(*job, once));
    CHECK(*read_job(write_job(*job)) == *job);
    wishes_of(*job, first).copies = 2;
    const Plan twice = plan_of(*job);
    CHECK(loads(twice).passes < loads(once).passes);
    CHECK(proven(*job, twice));
}

TEST_CASE("ink that lies far apart is cut apart where that saves film, and words stay together") {
    const auto word = [](const char* letters, double left, int first) {
        return Piece{square_in(left, 2, 2), letters, first, true, 0, false};
    };
    MakingPlan mask;
    mask.margin = 1_in;
    mask.lap = 0.125_in;
    const Mat mat = usual_shop().mat;
    const Box face = box_in(0, 0, 22, 14);
    const LoadsPlan far = plan_loads({word("A", 2, 0), word("B", 18, 1)}, face, mat, mask, {});
    CHECK(far.sections.size() == 2);
    REQUIRE_FALSE(far.why.empty());
    CHECK(far.why.front().id == "sections.why-apart");  // and not the length of the mat
    CHECK(far.loads.size() == 1);
    CHECK(far.film_total == 5_in);  // two squares of 4 in beside one another, and 1/2 in over
    const LoadsPlan near = plan_loads({word("A", 2, 0), word("B", 7, 1)}, face, mat, mask, {});
    CHECK(near.sections.size() == 1);
}

TEST_CASE("a seam is wanted, or not, at any place of the face") {
    const Job job = porch_board();
    const Plan found = plan_of(job);
    const ColourPlan& face = found.colours.front();
    const Box board = face.face->blank->face;
    // Between the first two letters, where none was found.
    const auto names = names_of(*face.cut.pieces);
    const Box b = face.cut.pieces->at(0).shape.bounds();
    const Box o = face.cut.pieces->at(1).shape.bounds();
    const std::int64_t gap = (b.low.y + o.high.y) / 2;
    REQUIRE(o.high.y < b.low.y);
    const Display display = usual_shop().display;
    const Job wanted = want_seam(job, first, face, Axis::Y, gap, display);
    const Plan parted = plan_of(wanted);
    CHECK(std::any_of(loads(parted).seams.begin(), loads(parted).seams.end(), [&](const Seam& s) {
        return s.axis == Axis::Y && s.where > o.high.y && s.where < b.low.y && s.crossed == Length{};
    }));
    CHECK(proven(wanted, parted));
    // Wanted twice, it is one wish.
    CHECK(want_seam(wanted, first, face, Axis::Y, gap, display) == wanted);
    // Not wanted there either: told apart from what is, by asking for it after.
    const Job never = forbid_seams_at(job, first, face, Axis::Y, loads(found).seams.front().where, display);
    const Plan other = plan_of(never);
    const auto [from, to] = gap_around(loads(found).seams.front(), *face.cut.pieces);
    for (const Seam& s : loads(other).seams) CHECK((s.axis != Axis::Y || s.where < from || s.where > to));
    CHECK(proven(never, other));
    // Where there is no ink on one side a seam parts nothing, and that is said.
    const Job useless = want_seam(job, first, face, Axis::Y, board.high.y - to_grid(0.25_in), display);
    CHECK(says(plan_of(useless), "wish.seam-unused"));
    CHECK(loads(plan_of(useless)).sections == loads(found).sections);
    // Every gap forbidden, one by one: then a letter is crossed or the nearest thing is done, and it is told.
    Job none = job;
    for (std::size_t i = 1; i < face.cut.pieces->size(); ++i) {
        const Box above = face.cut.pieces->at(i - 1).shape.bounds();
        const Box below = face.cut.pieces->at(i).shape.bounds();
        none = forbid_seams_at(none, first, face, Axis::Y, (above.low.y + below.high.y) / 2, display);
    }
    const Plan impossible = plan_of(none);
    CHECK(says(impossible, "wish.never-impossible"));
    CHECK_FALSE(loads(impossible).sections.empty());
    CHECK(proven(none, impossible));
}

TEST_CASE("whatever is wished, it is had or told, and the laid sections give the design back") {
    CHECK(rc::check([] {
        Job job = any_panel();
        const Shop shop = usual_shop();
        Plan p = plan_of(job);
        RC_PRE(p.mark_of(Station::Sections) != Mark::Stop && p.mark_of(Station::Lettering) != Mark::Stop);
        RC_PRE(p.colours.front().face->lettering->cap_height > 0.5_in &&
               p.colours.front().cut.loads->sections.size() < 30);
        const std::vector<PieceName> names = names_of(*p.colours.front().cut.pieces);
        const auto some = [&] {
            std::vector<PieceName> out;
            for (const PieceName& n : names) {
                if (*rc::gen::inRange(0, 3) == 0) out.push_back(n);
            }
            return out;
        };
        for (int n = *rc::gen::inRange(1, 4); n > 0; --n) {
            const ColourPlan& face = p.colours.front();
            const Axis axis = *rc::gen::element(Axis::X, Axis::Y);
            const Box board = face.face->blank->face;
            const std::int64_t at = along(axis, board.low) +
                                    (along(axis, board.high) - along(axis, board.low)) * *rc::gen::inRange(5, 96) / 100;
            const std::size_t seams = face.cut.loads->seams.size();
            const auto seam = seams == 0 ? 0 : *rc::gen::inRange<std::size_t>(0, seams);
            switch (*rc::gen::inRange(0, 6)) {
                case 0:
                    job = want_seam(job, first, face, axis, at, shop.display);
                    break;
                case 1:
                    job = forbid_seams_at(job, first, face, axis, at, shop.display);
                    break;
                case 2:
                    if (seams > 0) job = forbid_seam(job, first, face, seam, shop.display);
                    break;
                case 3:
                    if (seams > 0) {
                        const std::int64_t to = face.cut.loads->seams[seam].where + *rc::gen::inRange(-16'000, 16'000);
                        job = move_seam(job, first, face, seam,
                                        try_seam(face, face.cut.loads->seams[seam], to, shop.display).at);
                    }
                    break;
                case 4:
                    job = bind_pieces(job, first, some());
                    break;
                default:
                    job = set_apart(job, first, some());
            }
            p = plan_of(job);
        }
        RC_LOG() << write_job(job) << "\n";
        const LoadsPlan& loads = *p.colours.front().cut.loads;
        const bool stopped = std::any_of(loads.problems.begin(), loads.problems.end(),
                                         [](const Problem& q) { return q.mark == Mark::Stop; });
        if (stopped) return;  // pieces bound to what no bed holds: told, and nothing to lay
        std::size_t laid = 0;
        for (const Load& load : loads.loads) laid += load.placements.size();
        RC_ASSERT(laid == loads.sections.size());
        const Evidence e = prove(p, shop, files_of(job, p, shop), CutFormat::Svg);
        log_wrong(e);
        RC_ASSERT(e.good());
    }));
}

TEST_CASE("every wish about a seam can be let go where it lies, and with the last one the plan is as it was") {
    CHECK(rc::check([] {
        Job job = *rc::gen::arbitrary<bool>() ? porch_board() : long_board();
        const Job before = job;
        const Plan found = plan_of(job);
        for (int n = *rc::gen::inRange(1, 4); n > 0; --n) {
            const Plan now = plan_of(job);
            const auto& seams = loads(now).seams;
            RC_PRE(!seams.empty());
            const auto i = *rc::gen::inRange<std::size_t>(0, seams.size());
            const Length place = place_of(now.colours.front(), seams[i]);
            const Length by = Length::sixtyfourths(*rc::gen::inRange(-64, 64));
            job = *rc::gen::arbitrary<bool>()
                      ? move_seam(job, first, now.colours.front(), i, measure_of(place + by, {}))
                      : forbid_seam(job, first, now.colours.front(), i, {});
        }
        // Those that the plan follows are found at their seam; the others by their place in the list.
        std::size_t last = wishes_of(job, first).seams.size() + 1;
        while (!wishes_of(job, first).seams.empty()) {
            RC_ASSERT(wishes_of(job, first).seams.size() < last);
            last = wishes_of(job, first).seams.size();
            const Plan now = plan_of(job);
            std::size_t wish = last - 1;
            for (const Seam& s : loads(now).seams) {
                const auto known = wish_for(job, first, now.colours.front(), s);
                if (!known) continue;
                const SeamWish& w = wishes_of(job, first).seams[*known];
                RC_ASSERT(!w.never && w.axis == s.axis);
                wish = *known;
                break;
            }
            job = free_seam(job, first, wish);
        }
        RC_ASSERT(job == before);
        RC_ASSERT(plan_of(job) == found);
    }));
}

TEST_CASE("lengths of a making that are less than nothing count as none, and are told; none itself is not") {
    Job job = porch_board();
    const Measure less{"-1/2", Length{} - 0.5_in};
    making(job).margin = Measure{};
    making(job).lap = Measure{};
    making(job).tie = Measure{};
    const Plan none = plan_of(job);
    making(job).margin = less;
    making(job).lap = less;
    making(job).tie = less;
    const Plan plan = plan_of(read_job(write_job(job)).value());
    for (const char* id : {"making.margin-less-than-none", "making.lap-less-than-none", "making.tie-less-than-none"}) {
        CHECK(says(plan, id));
        CHECK_FALSE(says(none, id));
    }
    CHECK(loads(plan) == loads(none));
    // A decal has neither a mask nor ties: what a file says of them changes nothing.
    making(job).way = Way::Decal;
    const Plan decal = plan_of(job);
    CHECK(says(decal, "making.lap-less-than-none"));
    CHECK_FALSE(says(decal, "making.margin-less-than-none"));
    CHECK_FALSE(says(decal, "making.tie-less-than-none"));
}
