// Whole signs as makers build them, written down by hand from the facts of the trade: what is wrong and what is
// doubtful in each, and in which order its work is done. All of it is common practice, without a source unless it is
// named.
#include <set>

#include "job/method_reads.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

struct WholeSign {
    const char* name;
    std::function<void(Job&)> build;
    std::set<std::string> wrong, doubtful;
    std::vector<std::string> order;  // of the work on the blank itself
};

struct Builder {
    Job& job;
    Face& face = face_of(job);
    Blank& blank = job.signs.front().blank;
    void bare() const { face.layers.clear(); }
    const Builder& on_top(LayerKind kind, const char* coat = "", int coats = 1, const char* colour = "#2f4558") const {
        Layer layer = new_layer(job, kind, coat, library().trade);
        layer.coat.coats = coats;
        if (is_coat(layer)) layer.coat.colour = colour;
        face.layers.push_back(layer);
        return *this;
    }
    const Builder& letter() const {
        Layer layer = new_layer(job, LayerKind::Lettering, "", library().trade);
        layer.colour = face.colours.front().id;
        face.layers.push_back(layer);
        return *this;
    }
    void decal(const char* film = "permanent-gloss", const char* colour = "#f7f4ec") const {
        make_as(face.colours.front().making, Way::Decal, library().trade);
        face.colours.front().making.film = film;
        face.colours.front().paint.colour = colour;
    }
    void seal(Seal seal) const { face.finish.seal = seal; }
    void place(Place place) const { face.finish.place = place; }
};

constexpr const char* white = "#f7f4ec";
constexpr const char* dark = "#1f2022";

std::vector<WholeSign> signs() {
    using K = LayerKind;
    return {
        {"porch board, painted through a mask on chalk-type paint",
         [](Job& j) {
             Builder b{j};
             b.bare();
             b.on_top(K::Sand).on_top(K::Coat, "chalk-paint", 2).letter().on_top(K::Coat, "water-clear", 3);
         },
         {},
         {},
         {"saw", "sand", "ground", "lay", "seal", "colour", "lift", "clear", "final", "hang"}},
        {"the same with permanent film as a mask, laid four hours after the paint",
         [](Job& j) {
             Builder b{j};
             b.bare();
             b.on_top(K::Sand).on_top(K::Coat, "chalk-paint", 2).letter().on_top(K::Coat, "water-clear", 3);
             making(j).film = "permanent-gloss";
             b.face.finish.rest_hours = 4;
         },
         {"permanent-mask-on-paint", "film-on-uncured-ground"},
         {},
         {"saw", "sand", "ground", "lay", "seal", "colour", "lift", "clear", "final", "hang"}},
        {"oil stain and a decal straight on it",
         [](Job& j) {
             Builder b{j};
             b.bare();
             b.on_top(K::Sand).on_top(K::Coat, "oil-stain", 1, "#6b4a33").letter();
             b.decal();
             b.place(Place::Indoors);
         },
         {"decal-on-oil-stain"},
         {"film-on-young-ground"},
         {"saw", "sand", "stain", "lay", "final", "hang"}},
        {"water-based stain, two clear coats, and the decal on those",
         [](Job& j) {
             Builder b{j};
             b.bare();
             b.on_top(K::Sand).on_top(K::Coat, "gel-stain", 1, "#6b4a33").on_top(K::Coat, "water-clear", 2).letter();
             b.decal();
             b.place(Place::Indoors);
         },
         {},
         {},
         {"saw", "sand", "stain", "clear-under", "lay", "final", "hang"}},
        {"stain brushed over a painted board",
         [](Job& j) {
             Builder b{j};
             b.bare();
             b.on_top(K::Sand)
                 .on_top(K::Coat, "chalk-paint", 2, white)
                 .on_top(K::Coat, "gel-stain", 1, "#6b4a33")
                 .letter();
             b.seal(Seal::Clear);
             b.place(Place::Indoors);
         },
         {"stain-over-coat"},
         {"film-on-young-ground"},
         {"saw", "sand", "ground", "stain", "lay", "seal", "colour", "lift", "final", "hang"}},
        {"chalkboard of three coats, chalked before use",
         [](Job& j) {
             Builder b{j};
             b.bare();
             b.on_top(K::Sand).on_top(K::Coat, "chalkboard-paint", 3, "#2e3331").letter().on_top(K::Chalk);
             b.face.finish.safe_waits = true;
             b.place(Place::Indoors);
         },
         {},
         {},
         {"saw", "sand", "ground", "lay", "seal", "colour", "lift", "chalk", "final", "hang"}},
        {"chalkboard of one coat, sealed",
         [](Job& j) {
             Builder b{j};
             b.bare();
             b.on_top(K::Sand)
                 .on_top(K::Coat, "chalkboard-paint", 1, "#2e3331")
                 .letter()
                 .on_top(K::Coat, "water-clear", 2);
             b.place(Place::Indoors);
         },
         {"chalkboard-sealed"},
         {"chalkboard-few-coats", "chalkboard-not-chalked"},
         {"saw", "sand", "ground", "lay", "seal", "colour", "lift", "clear", "final", "hang"}},
        {"canvas, stencilled, left as it is stretched",
         [](Job& j) {
             Builder b{j};
             b.bare();
             b.blank.kind = Kind::Canvas;
             b.blank.width = measure("16");
             b.on_top(K::Coat, "craft-acrylic", 2, "#c98a2b").letter().on_top(K::Coat, "water-clear", 2);
             b.place(Place::Indoors);
             b.face.colours.front().paint.colour = dark;
         },
         {},
         {},
         {"ground", "lay", "seal", "colour", "lift", "clear", "final", "hang"}},
        {"acrylic, sanded before its decal",
         [](Job& j) {
             Builder b{j};
             b.bare();
             b.blank.material = "acrylic";
             b.on_top(K::Sand).letter();
             b.decal("permanent-gloss", dark);
         },
         {"sheet-sanded"},
         {"sheet-not-wiped"},
         {"sand", "lay", "final", "hang"}},
        {"acrylic from behind, wiped, the ground painted last",
         [](Job& j) {
             Builder b{j};
             b.bare();
             b.blank.material = "acrylic";
             b.blank.from_behind = true;
             b.on_top(K::Wipe).on_top(K::Coat, "craft-acrylic", 2, dark).letter();
             b.decal();
         },
         {},
         {},
         {"wipe", "lay", "ground", "final", "hang"}},
        {"foam sheet, primed, painted, out of a can of solvent",
         [](Job& j) {
             Builder b{j};
             b.bare();
             b.blank.material = "foam";
             b.on_top(K::Wipe).on_top(K::Coat, "spray-clear", 1, "").on_top(K::Coat, "primer", 1, white);
             b.on_top(K::Coat, "craft-acrylic", 2).letter().on_top(K::Coat, "water-clear", 2);
             b.place(Place::Indoors);
         },
         {"solvent-on-foam"},
         {"paint-over-clear"},
         {"wipe", "clear-under", "primer", "ground", "lay", "seal", "colour", "lift", "clear", "final", "hang"}},
        {"a weathered board: stain, wash, painted letters, rubbed through, then sealed",
         [](Job& j) {
             Builder b{j};
             b.bare();
             b.on_top(K::Trial).on_top(K::Sand).on_top(K::Coat, "gel-stain", 1, "#6b4a33");
             b.on_top(K::Coat, "paint-wash", 1, white).letter().on_top(K::Distress).on_top(K::Coat, "water-clear", 2);
             b.seal(Seal::Clear);
             b.place(Place::Indoors);
             b.face.colours.front().paint.colour = dark;
         },
         {},
         {},
         {"saw", "trial", "sand", "stain", "ground", "lay", "seal", "colour", "lift", "distress", "clear", "final",
          "hang"}},
        {"the same, rubbed after it was sealed",
         [](Job& j) {
             Builder b{j};
             b.bare();
             b.on_top(K::Sand).on_top(K::Coat, "chalk-paint", 2).letter().on_top(K::Coat, "water-clear", 2);
             b.on_top(K::Distress);
             b.place(Place::Indoors);
         },
         {},
         {"rubbed-over-clear"},
         {"saw", "sand", "ground", "lay", "seal", "colour", "lift", "clear", "distress", "final", "hang"}},
        {"white cedar sign in the weather, one coat on bare edges",
         [](Job& j) {
             Builder b{j};
             b.bare();
             b.blank.material = "cedar";
             b.on_top(K::Sand).on_top(K::Coat, "exterior-acrylic", 1, white).letter();
             b.place(Place::Weather);
             b.face.colours.front().paint = {"exterior-acrylic", dark, "black", 1};
         },
         {},
         {"colour-bleeds-through", "weather-edges-bare", "weather-few-clear", "dark-through-light"},
         {"saw", "sand", "ground", "lay", "seal", "colour", "lift", "final", "hang"}},
        {"a hardboard panel for the kitchen, antique glaze left as it was brushed on",
         [](Job& j) {
             Builder b{j};
             b.bare();
             b.blank.material = "hardboard";
             b.on_top(K::Sand).on_top(K::Coat, "primer", 1, white).on_top(K::Coat, "chalk-paint", 2, white).letter();
             b.on_top(K::Coat, "antique-glaze", 1, "#6b4a33");
             b.face.layers.back().wiped_after = 0;
             b.place(Place::Kitchen);
             b.face.colours.front().paint.colour = dark;
         },
         {},
         {"glaze-not-wiped", "kitchen-without-clear"},
         {"saw", "sand", "primer", "ground", "lay", "seal", "colour", "lift", "glaze", "final", "hang"}},
        {"a board that was painted before 1980, sanded for a new ground",
         [](Job& j) {
             Builder b{j};
             b.bare();
             b.blank.already = Already::Painted;
             b.on_top(K::Sand).on_top(K::Coat, "chalk-paint", 2).letter().on_top(K::Coat, "water-clear", 2);
             b.place(Place::Indoors);
         },
         {},
         {"old-paint-dust"},
         {"sand", "ground", "lay", "seal", "colour", "lift", "clear", "final", "hang"}},
    };
}

}  // namespace

TEST_CASE("whole signs: what is wrong, what is doubtful, and the order of the work, as makers have it") {
    for (const WholeSign& sign : signs()) {
        INFO(sign.name);
        Job job = porch_board();
        sign.build(job);
        const Plan plan = plan_of(job);
        std::set<std::string> wrong;
        std::set<std::string> doubtful;
        for (const Finding& f : plan.colours.front().method->findings) {
            if (f.mark == Mark::Stop) wrong.insert(f.rule);
            if (f.mark == Mark::Look) doubtful.insert(f.rule);
        }
        CHECK(wrong == sign.wrong);
        CHECK(doubtful == sign.doubtful);
        std::vector<std::string> order;
        for (const Task& t : *plan.tasks) {
            if (is_beside_blank(t.work) || (!order.empty() && order.back() == t.saying)) continue;
            order.push_back(t.saying);
        }
        CHECK(order == sign.order);
        // Each step is told in full, with its check.
        for (const Step& s : plan.bench->steps) {
            CHECK(library().catalogue.has(s.instruction.id));
            CHECK(library().catalogue.has(s.check.id));
        }
    }
}

TEST_CASE("three coats of clear two hours apart, after film has bonded for three days, and a day before the porch") {
    // Common practice: 72 h, then 2 + 2 h, then 24 h: 100 hours and more from laying to the porch.
    Job job = long_board();
    coat_in(job, clear_coat).coats = 3;
    const Plan plan = plan_of(job);
    Moment laid{};
    for (const Slot& slot : plan.clock->slots) {
        if ((*plan.tasks)[slot.task].work == Work::Lay) laid = std::max(laid, slot.end);
    }
    CHECK(plan.clock->ready - laid >= Minutes(100 * 60));
}
