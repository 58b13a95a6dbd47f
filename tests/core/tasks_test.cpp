// clock/tasks: what stands first and last, what is put together on the tape, what goes through a mask, and which face
// is worked first.
#include "job/commands.h"
#include "sheets/sheets.h"
#include "support_jobs.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

std::vector<const Task*> of_work(const Plan& plan, Work work) {
    std::vector<const Task*> found;
    for (const Task& t : *plan.tasks) {
        if (t.work == work) found.push_back(&t);
    }
    return found;
}

std::size_t place(const Plan& plan, const std::string& id) {
    for (std::size_t i = 0; i < plan.tasks->size(); ++i) {
        if ((*plan.tasks)[i].id.name == id) return i;
    }
    FAIL("no task " << id);
    return 0;
}

Moment start(const Plan& plan, const std::string& id) {
    const std::size_t task = place(plan, id);
    for (const Slot& s : plan.clock->slots) {
        if (s.task == task) return s.start;
    }
    return {};
}

// Gold right above the lettering where it goes through its mask, else right below it.
void coat_beside_lettering(Job& job, const LayerId& id, On on, int coats) {
    Layer coat;
    coat.id = id;
    coat.kind = LayerKind::Coat;
    coat.on = on;
    coat.coat = {"craft-acrylic", "#c9a227", "gold", coats};
    auto& layers = face_of(job).layers;
    const auto lettered =
        std::find_if(layers.begin(), layers.end(), [](const Layer& l) { return l.kind == LayerKind::Lettering; });
    REQUIRE(lettered != layers.end());
    layers.insert(on == On::Openings ? lettered + 1 : lettered, coat);
}

}  // namespace

TEST_CASE("a bare board of a stock size is sawn before anything else and put up when it is done") {
    Job job = porch_board();
    const Plan plan = plan_of(job);
    const Task& saw = (*plan.tasks)[place(plan, "1/saw")];
    CHECK(saw.hands_on == Minutes(14));  // set up once, one piece
    CHECK(plan.bench->steps.front().work == Work::Saw);
    CHECK(plan.bench->steps.back().work == Work::Hang);
    for (const Task& t : *plan.tasks) {
        if (t.work == Work::Sand) CHECK(t.waits.front().after == place(plan, "1/saw"));
    }
    const auto sawn = [](Job changed) { return of_work(plan_of(changed), Work::Saw).size(); };
    Blank& blank = job.signs.front().blank;
    for (const auto& there :
         {+[](Blank& b) { b.sawn = true; }, +[](Blank& b) { b.already = Already::Painted; },
          +[](Blank& b) { b.stock.clear(), b.width = measure("5 1/2"), b.thickness = measure("3/4"); }}) {
        Job changed = job;
        there(changed.signs.front().blank);
        CHECK(sawn(changed) == 0);
    }
    blank.backing = Backing{measure("62"), measure("8"), measure("3/4"), "pine"};
    CHECK(of_work(plan_of(job), Work::Saw).front()->saying == "saw-list");
    blank.holding.way = Holds::InPlace;
    CHECK(of_work(plan_of(job), Work::Hang).empty());
    blank.holding.way = Holds::Stake;
    CHECK(of_work(plan_of(job), Work::Hang).front()->saying == "stake");
}

TEST_CASE("a sign that is too heavy for one is put up by two, and says so") {
    Job job = panel_job("OAR", "72", "40");
    job.signs.front().blank.material = "oak";
    job.signs.front().blank.thickness = measure("1");
    const Plan plan = plan_of(job);
    REQUIRE(plan.colours.front().face->blank->weight.total() > library().trade.hands_on.alone_to_grams);
    CHECK(of_work(plan, Work::Hang).front()->people == 2);
    const auto& cautions = plan.bench->steps.back().cautions;
    CHECK(std::any_of(cautions.begin(), cautions.end(), [](const Reason& r) { return r.id == "care.heavy"; }));
}

TEST_CASE("decals of several colours are put together on the tape and laid once, where each is one section") {
    Job job = rimmed_decal();
    const Plan apart = plan_of(job);
    CHECK(of_work(apart, Work::Lay).size() == 2);
    CHECK(of_work(apart, Work::Stack).empty());
    face_of(job).finish.stacked = true;
    const Plan plan = plan_of(job);
    REQUIRE(of_work(plan, Work::Lay).size() == 1);
    REQUIRE(of_work(plan, Work::Stack).size() == 1);
    const Task& stack = *of_work(plan, Work::Stack).front();
    const Task& lay = *of_work(plan, Work::Lay).front();
    // Both films are weeded before; the whole is laid where the lower one goes.
    CHECK(stack.waits.size() == 2);
    CHECK(stack.colour == lay.colour);
    CHECK(lay.colour == face_of(job).colours.front().id);
    CHECK(plan.clock->hands_on == apart.clock->hands_on - Minutes(2));  // one piece of tape less
    // The sheets say which of them is measured to its place.
    std::string sheet;
    for (const Page& page : sheets(job, plan, usual_shop(), library())) {
        for (const auto& mark : page.marks) {
            if (const auto* run = std::get_if<TextRun>(&mark)) sheet += run->text + " ";
        }
    }
    CHECK(sheet.find("all colours go down with it") != std::string::npos);
    CHECK(sheet.find("is taken up by the tape") != std::string::npos);
    // Longer than the bed it falls into sections, and cannot be put together: that is said.
    job.signs.front().blank.length = measure("60");
    lettering(job).words = "BOATHOUSE SLIP";
    const Plan longer = plan_of(job);
    REQUIRE(longer.colours.front().cut.loads->sections.size() > 1);
    CHECK(of_work(longer, Work::Stack).empty());
    CHECK(std::any_of(longer.problems.begin(), longer.problems.end(),
                      [](const Problem& p) { return p.what.id == "stack.cannot"; }));
}

TEST_CASE("a coat through the mask follows the colour, opens the lift window, and is what is seen") {
    Job job = porch_board();
    coat_beside_lettering(job, {"gold"}, On::Openings, 2);
    const Plan plan = plan_of(job);
    CHECK(plan.colours.front().method->ink == "#c9a227");
    CHECK(start(plan, "1/colour/gold.1") > start(plan, "1/colour/2"));
    const std::size_t last = place(plan, "1/colour/gold.2");
    int lifts = 0;
    for (const Task& t : *plan.tasks) {
        if (t.work != Work::Lift) continue;
        ++lifts;
        CHECK(std::any_of(t.waits.begin(), t.waits.end(),
                          [&](const Wait& w) { return w.after == last && w.at_most.has_value(); }));
    }
    CHECK(lifts > 0);
    // A decal has no mask; nor has what stands apart from the lettering.
    const auto stopped = [](const Job& changed) {
        const Plan plan = plan_of(changed);
        const auto& found = plan.colours.front().method->findings;
        return std::any_of(found.begin(), found.end(),
                           [](const Finding& f) { return f.rule == "no-mask-to-paint-through"; });
    };
    CHECK_FALSE(stopped(job));
    Job decal = job;
    make_as(making(decal), Way::Decal, library().trade);
    CHECK(stopped(decal));
    std::swap(face_of(job).layers.front(), *std::find_if(face_of(job).layers.begin(), face_of(job).layers.end(),
                                                         [](const Layer& l) { return l.id.name == "gold"; }));
    CHECK(stopped(job));
}

TEST_CASE("a coat on one painted field comes once the field is painted, and covers that alone") {
    Job job = panel_job("OAR", "30", "12");
    PaintedField band;
    band.middle = measure("2");
    band.depth = measure("1");
    job.signs.front().blank.fields = {band};
    coat_beside_lettering(job, {"glow"}, On::Field, 1);
    const Plan plan = plan_of(job);
    CHECK(start(plan, "1/field/1") < start(plan, "1/ground/glow.1"));
    CHECK(of_work(plan, Work::Field).size() == 1);
    const Task& task = (*plan.tasks)[place(plan, "1/ground/glow.1")];
    for (const WorkPart& part : task.parts) {
        if (part.pace == "brush") CHECK(part.amount == Approx(30.0 / 144).epsilon(0.02));
    }
    CHECK(plan.colours.front().method->ground_colour != "#c9a227");
    // Without the field it is kept, and told.
    job.signs.front().blank.fields.clear();
    const Plan gone = plan_of(job);
    CHECK(std::any_of(gone.problems.begin(), gone.problems.end(),
                      [](const Problem& p) { return p.what.id == "gone.field"; }));
}

TEST_CASE("which of two faces is worked first is the maker's: the other one is hung from") {
    Job job = panel_job("OAR", "20", "8");
    making(job).margin = measure("1/4");
    job = letter_back(job, 0);
    job.signs.front().faces.back().lettering.main().words = "ROW";
    const FaceId front = job.signs.front().faces[0].id, back = job.signs.front().faces[1].id;
    const auto turned = [&](bool front_first) {
        job.signs.front().front_first = front_first;
        const Plan plan = plan_of(job);
        REQUIRE(of_work(plan, Work::Turn).size() == 1);
        REQUIRE(of_work(plan, Work::Final).size() == 1);
        CHECK(of_work(plan, Work::Turn).front()->face == of_work(plan, Work::Final).front()->face);
        return of_work(plan, Work::Turn).front()->face;
    };
    CHECK(turned(false) == front);
    CHECK(turned(true) == back);
}
