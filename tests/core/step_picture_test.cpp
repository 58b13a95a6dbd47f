// Every step that is planned has its words and its picture: what belongs on it is there, where the plan has it.
#include "picture/step_picture.h"

#include <map>
#include <set>

#include "files/save.h"
#include "job/commands.h"
#include "job/face_commands.h"
#include "sheets/sheets.h"
#include "support_jobs.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

Job demo(const std::string& name) {
    return *read_job(*read_file(std::filesystem::path(SKARVEL_SOURCE) / "demo" / (name + ".skarvel")));
}

Layer layer(const char* id, LayerKind kind) {
    Layer l;
    l.id = {id};
    l.kind = kind;
    return l;
}

// One job with every kind of layer, a frame, a band and a back.
Job everything() {
    Job job = panel_job("OAR", "30", "12");
    Blank& blank = job.signs.front().blank;
    blank.frame.kind = FrameKind::Battens;
    blank.frame.stock = "1x2";
    blank.holding.way = Holds::Hung;
    blank.clear = {{Edge::Left, measure("1"), "rope"}};
    PaintedField band;
    band.middle = measure("2");
    band.depth = measure("1");
    blank.fields = {band};
    turn_clear(job);
    auto& layers = face_of(job).layers;
    layers.insert(layers.begin(), layer("trial-1", LayerKind::Trial));
    Layer dry = layer("dry-1", LayerKind::DryBrush);
    dry.coat = {"chalk-paint", "#b9b2a3", "driftwood", 1};
    layers.push_back(dry);
    for (const auto& [id, kind] : {std::pair("rub-1", LayerKind::Distress), std::pair("hooks-1", LayerKind::Hardware),
                                   std::pair("star-1", LayerKind::Decorate)})
        layers.push_back(layer(id, kind));
    return job;
}

std::set<Shows> shown(const StepPicture& picture) {
    std::set<Shows> all;
    for (const PictureMark& m : picture.marks) all.insert(m.shows);
    return all;
}

// What a picture of each kind of work has to show.
std::set<Shows> needed(Work work) {
    switch (work) {
        case Work::Proof:
        case Work::Final:
        case Work::Hang:
            return {Shows::Board, Shows::Ink};
        case Work::Saw:
            return {Shows::Board, Shows::SawLine, Shows::Distance};
        case Work::Sand:
        case Work::Wipe:
        case Work::Ground:
        case Work::ClearUnder:
        case Work::Clear:
        case Work::DryBrush:
        case Work::Chalk:
            return {Shows::Board, Shows::Coated, Shows::Stroke};
        case Work::Frame:
            return {Shows::Board, Shows::Frame};
        case Work::Field:
            return {Shows::Coated, Shows::TapeLine, Shows::Distance, Shows::Stroke};
        case Work::Cut:
            return {Shows::Bed, Shows::Film, Shows::Opening, Shows::Feed, Shows::Order};
        case Work::Weed:
            return {Shows::Film, Shows::Waste};
        case Work::Tape:
            return {Shows::Film, Shows::Tape};
        case Work::Stack:
            return {Shows::Film, Shows::Ink};
        case Work::Lay:
            return {Shows::Board, Shows::Film, Shows::Corner, Shows::Distance, Shows::Burnish};
        case Work::Seal:
        case Work::Colour:
            return {Shows::Film, Shows::Opening, Shows::Stroke, Shows::Order};
        case Work::Lift:
            return {Shows::Film, Shows::Ink, Shows::Pull, Shows::Corner};
        case Work::Distress:
            return {Shows::Edge, Shows::Stroke};
        case Work::Decorate:
            return {Shows::Board, Shows::Ink, Shows::Patch};
        case Work::Hardware:
            return {Shows::Board, Shows::Fixing, Shows::Distance};
        case Work::Trial:
            return {Shows::Patch};
        case Work::Turn:
            return {Shows::Over};
        case Work::Mend:
            return {Shows::Board, Shows::Ink};
    }
    return {};
}

int sentences(const std::string& words) {
    int count = 0;
    for (std::size_t i = 0; i < words.size(); ++i) {
        const bool ends = words[i] == '.' || words[i] == '!' || words[i] == '?';
        if (ends && (i + 1 == words.size() || words[i + 1] == ' ')) ++count;
    }
    return count;
}

// Everything that can go wrong, each at a step where it can.
Job unlucky() {
    Job job = porch_board();
    const Plan plan = plan_of(job);
    for (const MishapKind& kind : library().trade.mishaps) {
        for (const Step& s : plan.bench->steps) {
            if (std::find(s.may_happen.begin(), s.may_happen.end(), kind.id) == s.may_happen.end()) continue;
            job = happened(job, plan, s.id, kind.id, moment("2026-05-04T18:00"), library().trade);
            break;
        }
    }
    return job;
}

Job stacked() {
    Job job = rimmed_decal();
    face_of(job).finish.stacked = true;
    return job;
}

Job two_faced() {
    Job job = panel_job("OAR", "20", "8");
    making(job).margin = measure("1/4");
    job = letter_back(job, 0);
    job.signs.front().faces.back().lettering.main().words = "ROW";
    return job;
}

}  // namespace

TEST_CASE("every kind of step has an instruction of at most two sentences, a check, things at hand, and its picture") {
    const Shop shop = usual_shop();
    std::set<Work> reached;
    for (const Job& job :
         {porch_board(), long_board(), everything(), two_faced(), stacked(), unlucky(), demo("mess-room-saying"),
          demo("boathouse-door-round"), demo("mooring-rules"), demo("rota-door"), demo("four-arrows"),
          demo("tea-room-canvas"), demo("crew-height-ruler")}) {
        const Plan plan = plan_of(job);
        for (const Step& step : plan.bench->steps) {
            INFO(job.title << ": " << step.id.name);
            reached.insert(step.work);
            for (const Reason& said : {step.instruction, step.check, step.at_hand}) {
                const std::string words = library().catalogue.say(said, {});
                CHECK(words.find(said.id) == std::string::npos);  // an id that has no sentence
                CHECK(sentences(words) <= 2);
                CHECK_FALSE(words.empty());
            }
            const StepPicture picture = picture_of(step, job, plan, shop, library().trade);
            REQUIRE_FALSE(picture.window.empty());
            const std::set<Shows> there = shown(picture);
            for (const Shows part : needed(step.work)) {
                INFO("wants " << word_of(part));
                CHECK(there.contains(part));
            }
            for (const PictureMark& m : picture.marks) {
                if (m.area.empty()) {
                    for (const Point& p : {m.from, m.to}) {
                        CHECK(p.x >= picture.window.low.x - 1);
                        CHECK(p.x <= picture.window.high.x + 1);
                        CHECK(p.y >= picture.window.low.y - 1);
                        CHECK(p.y <= picture.window.high.y + 1);
                    }
                } else {
                    CHECK(picture.window.holds(m.area.bounds()));
                }
                if (!m.says.id.empty()) CHECK(library().catalogue.say(m.says, {}).find(m.says.id) == std::string::npos);
            }
            for (const Reason& f : picture.figures)
                CHECK(library().catalogue.say(f, {}).find(f.id) == std::string::npos);
        }
    }
    for (std::size_t i = 0; i < words_of(Work{}).size(); ++i) {
        INFO(words_of(Work{}).at(i));
        CHECK(reached.contains(static_cast<Work>(i)));
    }
}

TEST_CASE("weeding a mask pulls the ink and rings every keeper; weeding a decal pulls the rest, insides first") {
    const Shop shop = usual_shop();
    const auto weeding = [&](const Job& job) {
        const Plan plan = plan_of(job);
        double waste = 0, ink = 0;
        int keepers = 0, insides = 0;
        for (const Step& step : plan.bench->steps) {
            if (step.work != Work::Weed) continue;
            for (const PictureMark& m : picture_of(step, job, plan, shop, library().trade).marks) {
                if (m.shows == Shows::Waste) waste += m.area.area_mm2();
                if (m.shows == Shows::Keeper) ++keepers;
                if (m.shows == Shows::Order && m.number == 1) ++insides;
            }
        }
        for (const Piece& p : *plan.colours.front().cut.pieces) ink += p.shape.area_mm2();
        double film = 0;
        for (const Section& s : plan.colours.front().cut.loads->sections) film += s.film.area_mm2();
        return std::tuple(waste, ink, film, keepers, insides);
    };
    const auto [mask_waste, mask_ink, mask_film, mask_keepers, first] = weeding(porch_board());
    CHECK(mask_waste == Approx(mask_ink).epsilon(1e-4));
    CHECK(mask_keepers == 5);
    const auto [waste, ink, film, keepers, insides] = weeding(long_board());
    CHECK(waste == Approx(film - ink).epsilon(1e-4));
    CHECK(keepers == 0);
    CHECK(insides > 5);  // eyes of P, A, R, B, O and others
}

TEST_CASE("a laying picture has its corners where the plan has them, and its figures are the placement sheet's") {
    const Job job = long_board();
    const Plan plan = plan_of(job);
    std::string sheet;
    for (const Page& page : sheets(job, plan, usual_shop(), library())) {
        for (const auto& mark : page.marks) {
            if (const auto* run = std::get_if<TextRun>(&mark)) sheet += run->text + " ";
        }
    }
    int laid = 0;
    for (const Step& step : plan.bench->steps) {
        if (step.work != Work::Lay) continue;
        const PlacedLay& lay = plan.colours.front().laying->lays.at(static_cast<std::size_t>(laid++));
        CHECK(step.number == static_cast<int>(lay.lay.section) + 1);
        const StepPicture picture = picture_of(step, job, plan, usual_shop(), library().trade);
        std::vector<Point> corners;
        for (const PictureMark& m : picture.marks) {
            if (m.shows == Shows::Corner) corners.push_back(m.from);
        }
        CHECK(corners == std::vector<Point>{lay.low.at, lay.high.at});
        for (const Reason& told : distances_told(lay)) {
            CHECK(std::find(picture.figures.begin(), picture.figures.end(), told) != picture.figures.end());
            CHECK(sheet.find(with_fraction_slash(library().catalogue.say(told, {}))) != std::string::npos);
        }
        const auto halves = std::count_if(picture.marks.begin(), picture.marks.end(),
                                          [](const PictureMark& m) { return m.shows == Shows::FirstHalf; });
        CHECK(halves == (lay.hinge ? 1 : 0));
    }
    CHECK(laid > 1);
}

TEST_CASE("the back is done first, then the sign is turned over once it can be handled, and hung once") {
    const Job job = two_faced();
    const Plan plan = plan_of(job);
    std::map<FaceId, int> finals;
    Moment turned{}, last_of_back{}, first_of_front{Minutes(1'000'000'000)};
    Minutes wait{0};
    const FaceId front = job.signs.front().faces[0].id, back = job.signs.front().faces[1].id;
    for (const Step& s : plan.bench->steps) {
        if (s.work == Work::Final) ++finals[s.face];
        if (s.work == Work::Turn) {
            CHECK(s.face == front);
            turned = s.start;
        } else if (!is_beside_blank(s.work) && s.face == back) {
            last_of_back = std::max(last_of_back, s.start + s.hands_on);
            if (s.start + s.hands_on == last_of_back) wait = s.wait_after;
        } else if (!is_beside_blank(s.work) && s.face == front) {
            first_of_front = std::min(first_of_front, s.start);
        }
    }
    CHECK(finals == std::map<FaceId, int>{{front, 1}});
    CHECK(wait > Minutes(0));
    CHECK(turned >= last_of_back + wait);
    CHECK(first_of_front >= turned);
}

TEST_CASE("a timer runs for what was done and still holds something up; not dry yet and a window move it") {
    Job job = porch_board();
    const auto timers = [&] { return plan_of(job, "2026-05-04T20:00").bench->timers; };
    CHECK(timers().empty());
    job = tick(job, plan_of(job), StepId{"1/sand"}, moment("2026-05-04T19:00"));
    job = tick(job, plan_of(job), StepId{"1/ground/1"}, moment("2026-05-04T19:30"));
    REQUIRE(timers().size() == 1);
    CHECK(timers()[0].after == StepId{"1/ground/1"});
    CHECK(timers()[0].before == StepId{"1/ground/2"});
    CHECK(timers()[0].from == moment("2026-05-04T21:30"));  // two hours between coats of chalk-type paint
    CHECK_FALSE(timers()[0].until);
    job = hold(job, StepId{"1/ground/1"}, moment("2026-05-04T22:15"));
    CHECK(timers()[0].from == moment("2026-05-04T22:15"));
    const Plan now = plan_of(job);
    for (const Step& s : now.bench->steps) {
        if (s.work == Work::Lift) break;
        if (!s.done) job = tick(job, plan_of(job), s.id, moment("2026-05-06T20:00"));
    }
    const auto window = timers();
    const auto lift = std::find_if(window.begin(), window.end(), [](const Timer& t) { return t.until.has_value(); });
    REQUIRE(lift != window.end());
    CHECK(lift->from == moment("2026-05-06T20:15"));
    // Soft: 15 min to an hour after the first letter, which was painted eighteen minutes before the last.
    CHECK(*lift->until == moment("2026-05-06T20:42"));
}

TEST_CASE("the bench book has every step with a box to tick, in the order of the clock") {
    Job job = porch_board();
    job = tick(job, plan_of(job), StepId{"1/sand"}, moment("2026-05-04T18:00"));
    const Plan plan = plan_of(job);
    const std::vector<Page> pages = bench_book(job, plan, usual_shop(), library());
    std::string all;
    for (const Page& page : pages) {
        for (const auto& mark : page.marks) {
            if (const auto* run = std::get_if<TextRun>(&mark)) {
                all += run->text + "\n";
                CHECK(run->at.y < page.height_mm);
            }
        }
    }
    std::size_t at = all.find("Bench book");
    int number = 0;
    for (const Step& s : plan.bench->steps) {
        const std::string named = std::to_string(++number) + "  " + library().catalogue.say(s.name, {});
        const std::size_t here = all.find(named, at);
        REQUIRE(here != std::string::npos);
        at = here;
    }
    CHECK(bench_book(new_job(library()), plan_of(new_job(library())), usual_shop(), library()).empty());
}
