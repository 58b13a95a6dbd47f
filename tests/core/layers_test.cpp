#include <rapidcheck.h>

#include <nlohmann/json.hpp>
#include <set>

#include "job/face_commands.h"
#include "job/method_reads.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

const Trade& trade() { return library().trade; }

std::vector<std::string> ids_of(const std::vector<Layer>& layers) {
    std::vector<std::string> ids;
    for (const Layer& l : layers) ids.push_back(l.kind == LayerKind::Lettering ? "in " + l.colour.name : l.id.name);
    return ids;
}

std::vector<std::string> works_of(const Plan& plan) {
    std::vector<std::string> works;
    for (const Task& t : *plan.tasks) {
        if (works.empty() || works.back() != t.saying) works.push_back(t.saying);
    }
    return works;
}

const Task& task(const Plan& plan, const std::string& id) {
    const auto at =
        std::find_if(plan.tasks->begin(), plan.tasks->end(), [&](const Task& t) { return t.id.name == id; });
    REQUIRE(at != plan.tasks->end());
    return *at;
}

// A layer of any kind, with the ids that `next` counts.
Layer any_layer(Job& job) {
    const auto kind =
        *rc::gen::element(LayerKind::Wipe, LayerKind::Sand, LayerKind::Coat, LayerKind::DryBrush, LayerKind::Distress,
                          LayerKind::Chalk, LayerKind::Hardware, LayerKind::Decorate, LayerKind::Trial);
    const auto& coats = trade().coats;
    return new_layer(job, kind, coats[*rc::gen::inRange<std::size_t>(0, coats.size())].id, trade());
}

}  // namespace

TEST_CASE("any series of edits of the layers keeps each colour once, reads back equal and goes back by undo") {
    REQUIRE(rc::check([] {
        Job job = porch_board();
        Face& face = face_of(job);
        const int more = *rc::gen::inRange(0, 3);
        for (int i = 0; i < more; ++i) {
            face.colours.push_back(face.colours.front());
            face.colours.back().id = new_colour_id(job, face.id);
        }
        for (int step = 0; step < 8; ++step) {
            const std::vector<Layer> now = in_order(face.layers, colours_of(face), false, trade());
            const LayerId any = now[*rc::gen::inRange<std::size_t>(0, now.size())].id;
            const std::vector<ColourId> before = colours_of(face);
            switch (*rc::gen::inRange(0, 7)) {
                case 0:
                    put_in(face, any_layer(job), *rc::gen::inRange<std::size_t>(0, 12), trade());
                    break;
                case 1:
                    take_out(face, any, trade());
                    break;
                case 2:
                    move_layer(face, any, true, trade());
                    move_layer(face, any, false, trade());
                    RC_ASSERT(colours_of(face) == before);
                    break;
                case 3:
                    move_layer(face, any, *rc::gen::arbitrary<bool>(), trade());
                    break;
                case 4:
                    change_layer(
                        face, any, [](Layer& l) { l.coat.coats = 3; }, trade());
                    break;
                case 5:
                    lay_clear(face, *rc::gen::arbitrary<bool>(), trade());
                    break;
                default:
                    suggest_layers(face, job.signs.front().blank, trade());
            }
            for (const bool behind : {false, true}) {
                const std::vector<Layer> order = in_order(face.layers, colours_of(face), behind, trade());
                std::vector<ColourId> lettered;
                std::set<LayerId> ids;
                for (const Layer& l : order) {
                    if (l.kind == LayerKind::Lettering) lettered.push_back(l.colour);
                    RC_ASSERT(ids.insert(l.id).second);
                }
                RC_ASSERT(lettered == colours_of(face));  // each once, in the order of laying
                if (!behind) RC_ASSERT(in_order(order, colours_of(face), false, trade()) == order);
            }
            RC_ASSERT(*read_job(write_job(job)) == job);
        }
    }));
}

TEST_CASE("what is suggested has no wrong joint, for any material, place, way and what is on it") {
    int tried = 0;
    for (const Material& material : trade().materials) {
        for (int place = 0; place < 7; ++place) {
            for (const Way way : {Way::PaintThrough, Way::Decal}) {
                for (const Already already : {Already::Bare, Already::StainedOil, Already::StainedWater,
                                              Already::Painted, Already::Sealed, Already::OldLettering}) {
                    Job job = new_job(library());
                    Blank& blank = job.signs.front().blank;
                    blank.material = material.id;
                    blank.already = already;
                    blank.from_behind = material.id == "acrylic" && place == 0;
                    Face& face = face_of(job);
                    face.finish.place = static_cast<Place>(place);
                    make_as(face.colours.front().making, way, trade());
                    suggest_layers(face, blank, trade());
                    ColourPlan colour;
                    colour.id = face.colours.front().id;
                    colour.cut.making = resolve(face.colours.front().making, trade().films, trade().tools);
                    colour.cut.loads = Shared<LoadsPlan>(LoadsPlan{});
                    colour.cut.thin = Shared<ThinPlan>(ThinPlan{});
                    const BuildUp build =
                        build_up(method_reads(blank, BlankPlan{}, face, colour, {}, {}, trade()), trade());
                    INFO(material.id << " " << place << " " << static_cast<int>(already));
                    for (const Finding& f : build.findings) {
                        INFO(f.rule);
                        // Whether paint could seal a mask on bare sheet is the maker's: nothing was suggested there.
                        CHECK(f.mark != Mark::Stop);
                    }
                    ++tried;
                }
            }
        }
    }
    CHECK(tried > 900);
}

TEST_CASE("suggesting again keeps what was set by hand, and leaves out what was taken out") {
    Job job = porch_board();
    Face& face = face_of(job);
    Blank& blank = job.signs.front().blank;
    change_layer(
        face, ground_coat, [](Layer& l) { l.coat.coat = "gel-stain"; }, trade());
    const Layer glaze = new_layer(job, LayerKind::Coat, "antique-glaze", trade());
    put_in(face, glaze, 3, trade());
    take_out(face, clear_coat, trade());
    blank.material = "acrylic";
    suggest_layers(face, blank, trade());
    CHECK(ids_of(face.layers) == std::vector<std::string>{"wipe", "ground", "in 1", glaze.id.name});
    CHECK(layer_of(job, ground_coat).coat.coat == "gel-stain");
    blank.material = "foam";
    suggest_layers(face, blank, trade());
    CHECK(ids_of(face.layers) == std::vector<std::string>{"wipe", "primer", "ground", "in 1", glaze.id.name});
}

TEST_CASE("coats hide what lies below: white over dark wants more than black over anything") {  // common practice
    CHECK(coats_to_hide("#2f4558", "#f7f4ec") == 3);
    CHECK(coats_to_hide("#d8b886", "#f7f4ec") == 2);
    CHECK(coats_to_hide("#f7f4ec", "#1f2022") == 1);
}

TEST_CASE("a weathered sign is done in the order of its layers, each after the wait that the table asks for") {
    Job job = porch_board();
    Face& face = face_of(job);
    const auto put = [&](std::size_t before, LayerKind kind, const char* coat = "") {
        const Layer made = new_layer(job, kind, coat, trade());
        put_in(face, made, before, trade());
        return made.id;
    };
    const LayerId stain = put(1, LayerKind::Coat, "gel-stain");
    const LayerId streaks = put(3, LayerKind::DryBrush, "chalk-paint");
    const LayerId rubbed = put(5, LayerKind::Distress);
    const LayerId hooks = put(0, LayerKind::Hardware);
    const Plan plan = plan_of(job);
    CHECK(works_of(plan) == std::vector<std::string>{"saw",   "hardware", "sand", "stain",  "ground", "dry-brush",
                                                     "proof", "cut",      "weed", "tape",   "cut",    "weed",
                                                     "tape",  "lay",      "seal", "colour", "lift",   "distress",
                                                     "clear", "final",    "hang"});
    const auto longest = [&](const std::string& id) {
        Minutes most{0};
        for (const Wait& w : task(plan, id).waits) most = std::max(most, w.at_least);
        return most;
    };
    // Common practice, the table of waits: stain 1 h, ground 4 h to another coat, colour 4 h before it is rubbed.
    CHECK(longest("1/ground/1") == Minutes(60));
    CHECK(longest("1/dry-brush/" + streaks.name + ".1") == coat_of(trade(), "chalk-paint").next_coat);  // of one tin
    CHECK(longest("1/distress/" + rubbed.name) == coat_of(trade(), "craft-acrylic").paint_over);
    CHECK(longest("1/ground/" + stain.name + ".1") == Minutes(0));
    CHECK(plan.bench->orphans.empty());
    CHECK(task(plan, "1/hardware/" + hooks.name).layer == hooks);
    // Paper between two coats does not start the wait for film anew.
    Job scuffed = porch_board();
    put_in(face_of(scuffed), new_layer(scuffed, LayerKind::Sand, "", trade()), 2, trade());
    const Plan with = plan_of(scuffed);
    const Plan without_it = plan_of(porch_board());
    const auto film = [](const Plan& p) {
        for (const Task& t : *p.tasks) {
            if (t.work == Work::Lay) return t.waits;
        }
        return std::vector<Wait>{};
    };
    const auto rest = [&](const Plan& p) {
        for (const Wait& w : film(p)) {
            if (w.at_least > Minutes(0)) return std::pair((*p.tasks)[w.after].id.name, w.at_least);
        }
        return std::pair(std::string(), Minutes(0));
    };
    CHECK(rest(with) == rest(without_it));
    CHECK(rest(with).first == "1/ground/2");
}

TEST_CASE("a layer that is there already is done since then, and what follows waits from that moment") {
    Job job = porch_board();
    const Plan fresh = plan_of(job, "2026-05-06T18:00");
    for (const LayerId& id : {sanding, ground_coat}) layer_of(job, id).done = moment("2026-05-05T12:00");
    const Plan there = plan_of(job, "2026-05-06T18:00");
    CHECK(there.bench->done() == 3);  // sanded, and two coats
    const auto laid = [](const Plan& p) {
        for (const Slot& slot : p.clock->slots) {
            if ((*p.tasks)[slot.task].work == Work::Lay) return slot.start;
        }
        return Moment{};
    };
    CHECK(laid(there) < laid(fresh));
    CHECK(there.bench->orphans.empty());
    // What is there is not bought.
    const auto buys = [](const Plan& p, const std::string& what) {
        return std::any_of(p.colours[0].shopping.begin(), p.colours[0].shopping.end(),
                           [&](const ShoppingItem& i) { return i.what.id == what; });
    };
    CHECK(buys(fresh, "buy.ground"));
    CHECK_FALSE(buys(there, "buy.ground"));
    const auto grits = [](const Plan& p) {
        return std::count_if(p.colours[0].shopping.begin(), p.colours[0].shopping.end(),
                             [](const ShoppingItem& i) { return i.what.id == "buy.paper"; });
    };
    CHECK(grits(fresh) == 3);  // 120, 220, and 600 between the clear coats
    CHECK(grits(there) == 1);
    CHECK(buys(there, "buy.clear"));
}

TEST_CASE("jobs that were written with one place for each coat mean the same as a list") {
    const auto folder = std::filesystem::path(SKARVEL_SOURCE) / "tests/fixtures/slots";
    int read = 0;
    for (const auto& entry : std::filesystem::directory_iterator(folder)) {
        INFO(entry.path().filename().string());
        const std::string text = *read_file(entry.path());
        const auto was = nlohmann::json::parse(text);
        const auto job = read_job(text);
        REQUIRE(job);
        ++read;
        CHECK(*read_job(write_job(*job)) == *job);
        const Plan plan = plan_of(*job);
        CHECK(plan.bench->orphans.empty());
        std::set<std::string> steps;
        for (const Task& t : *plan.tasks) steps.insert(t.id.name);
        for (std::size_t s = 0; s < job->signs.size(); ++s) {
            const auto& finish = was["signs"][s]["faces"][0]["finish"];
            const std::string face = job->signs[s].faces[0].id.name;
            CHECK(steps.contains(face + "/sand") == finish["sanded"].get<bool>());
            const int ground = finish.contains("ground") ? finish["ground"]["coats"].get<int>() : 0;
            const int clear = finish.contains("clear") ? finish["clear"]["coats"].get<int>() : 0;
            const std::string kind = finish["clearOver"].get<bool>() ? "/clear/" : "/clear-under/";
            for (int n = 1; n < 6; ++n) {
                CHECK(steps.contains(face + "/ground/" + std::to_string(n)) == (n <= ground));
                CHECK(steps.contains(face + kind + std::to_string(n)) == (n <= clear));
            }
            CHECK(is_outdoors(job->signs[s].faces[0].finish.place) == finish["outdoors"].get<bool>());
        }
    }
    CHECK(read == 9);
}

TEST_CASE("coats on edges and back are work and paint of their own, and hide nothing of the face") {
    Job job = porch_board();
    const Plan before = plan_of(job);
    Layer edges = new_layer(job, LayerKind::Coat, "exterior-acrylic", trade());
    edges.on = On::Edges;
    put_in(face_of(job), edges, 2, trade());
    Layer back = new_layer(job, LayerKind::Coat, "spray-clear", trade());
    back.on = On::Back;
    back.how = PutOn::Spray;
    back.coat.coats = 1;
    put_in(face_of(job), back, 9, trade());
    const Plan plan = plan_of(job);
    const BuildUp& build = *plan.colours.front().method;
    CHECK(build.ground.id == before.colours.front().method->ground.id);
    CHECK(build.top.id == before.colours.front().method->top.id);
    CHECK(build.clear.id == "water-clear");
    const Task& on_edges = task(plan, "1/ground/" + edges.id.name + ".1");
    const Task& on_back = task(plan, "1/clear/" + back.id.name + ".1");
    CHECK(library().catalogue.say(full_name(on_edges), {}).starts_with("edges: "));
    CHECK(library().catalogue.say(full_name(on_back), {}).starts_with("back: "));
    CHECK(on_edges.hands_on < on_back.hands_on);
    CHECK(std::find(on_back.products.begin(), on_back.products.end(), "spray") != on_back.products.end());
    const auto& items = plan.colours.front().shopping;
    for (const char* coat : {"exterior acrylic", "spray clear"}) {
        CHECK(std::any_of(items.begin(), items.end(), [&](const ShoppingItem& i) {
            return library().catalogue.say(i.what, {}).find(coat) != std::string::npos;
        }));
    }
}

TEST_CASE("paint is bought by what it covers") {
    // Common practice, from memory: 45 sq ft to the pint and coat, 473 ml and 16 fl oz in it.
    const Plan plan = plan_of(porch_board());
    const double sqft = 60 * 5.5 / 144;
    for (const ShoppingItem& item : plan.colours.front().shopping) {
        if (item.what.id != "buy.ground") continue;
        const auto argument = [&](const char* name) {
            return std::find_if(item.how_much.arguments.begin(), item.how_much.arguments.end(),
                                [&](const auto& a) { return a.first == name; })
                ->second;
        };
        CHECK(std::get<double>(argument("area")) == Approx(sqft * 2));
        CHECK(std::get<std::int64_t>(argument("ml")) == std::llround(sqft * 2 / 45 * 473.176));
        CHECK(std::get<double>(argument("ounces")) == Approx(sqft * 2 / 45 * 16));
    }
}

TEST_CASE("layers of a job from elsewhere that cannot be are told, kept, and planned as far as they go") {
    const auto told = [](const Job& job, const char* what) {
        const Plan plan = plan_of(job, "2026-05-06T18:00");
        CHECK(*read_job(write_job(job)) == job);
        std::set<StepId> ids;
        for (const Task& t : *plan.tasks) CHECK(ids.insert(t.id).second);
        return std::any_of(plan.problems.begin(), plan.problems.end(),
                           [&](const Problem& p) { return p.what.id == what; });
    };
    Job twice = porch_board();
    face_of(twice).layers.push_back(layer_of(twice, ground_coat));
    face_of(twice).layers.push_back(layer_of(twice, ground_coat));
    face_of(twice).layers.back().id = {};
    CHECK_FALSE(told(twice, "gone.layer"));
    Job gone = porch_board();
    face_of(gone).layers.push_back(face_of(gone).layers.at(2));
    face_of(gone).layers.back().colour = ColourId{"77"};
    CHECK(told(gone, "gone.layer"));
    Job later = porch_board();
    layer_of(later, ground_coat).done = moment("2031-01-01T00:00");
    CHECK(told(later, "layer.not-yet"));
    CHECK(plan_of(later).clock->ready == plan_of(porch_board()).clock->ready);
    // Taking a colour out at Lettering takes its layer along.
    Job two = add_colour(porch_board(), {});
    Face& face = face_of(two);
    face.layers = in_order(face.layers, colours_of(face), false, trade());
    CHECK_FALSE(told(remove_colour(two, {}, 1), "gone.layer"));
}
