#include <rapidcheck.h>

#include "job/method_reads.h"
#include "method/risk.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

Risks of(const Job& job) { return risks_of(*plan_of(job).colours.front().method, library().trade); }

Job with(const std::function<void(Job&)>& change, Job job = porch_board()) {
    change(job);
    return job;
}

}  // namespace

TEST_CASE("bleeding and lifting go up and down as makers say they do") {  // common practice
    const Risks usual = of(porch_board());
    CHECK(usual.bleed.level == RiskLevel::Low);
    CHECK(usual.lift.level == RiskLevel::Low);
    CHECK(usual.bleed.from < usual.bleed.likely);
    CHECK(usual.bleed.likely < usual.bleed.to);
    const auto bleeds_more = [&](const std::function<void(Job&)>& change) {
        CHECK(of(with(change)).bleed.likely > usual.bleed.likely);
    };
    bleeds_more([](Job& j) { finish_of(j).seal = Seal::None; });
    bleeds_more([](Job& j) { j.signs[0].blank.surface = Surface::Rough; });
    bleeds_more([](Job& j) { without(j, sanding); });
    bleeds_more([](Job& j) { making(j).film = "stencil-smooth"; });
    const auto lifts_more = [&](const std::function<void(Job&)>& change) {
        CHECK(of(with(change)).lift.likely > usual.lift.likely);
    };
    lifts_more([](Job& j) { making(j).film = "permanent-gloss"; });
    lifts_more([](Job& j) { finish_of(j).rest_hours = 2; });
    lifts_more([](Job& j) { without(j, sanding); });
    lifts_more([](Job& j) { coat_in(j, ground_coat).coat = "paint-wash"; });
    const Risks waited = of(with([](Job& j) { finish_of(j).safe_waits = true; }));
    CHECK(waited.lift.likely < usual.lift.likely);
    CHECK(of(long_board()).bleed.likely == 0);
    // The worst that can be: both are said to be high.
    const Risks worst = of(with([](Job& j) {
        j.signs[0].blank.surface = Surface::Rough;
        without(j, sanding);
        finish_of(j).seal = Seal::None;
        finish_of(j).rest_hours = 2;
        making(j).film = "permanent-gloss";
        making(j).tool = "brush";
    }));
    CHECK(worst.bleed.level == RiskLevel::High);
    CHECK(worst.lift.level == RiskLevel::High);
    CHECK(worst.bleed.most.front().weight >= worst.bleed.most.back().weight);
}

TEST_CASE("one factor more that adds never lowers a risk, and each can be reached") {
    const RiskTable& table = library().trade.risk;
    for (const RiskModel* model : {&table.bleed, &table.lift}) {
        CHECK_FALSE(model->basis.empty());
        for (const WeighedFactor& f : model->factors) {
            INFO(f.id);
            CHECK(f.weight != 0);
            CHECK(library().catalogue.has("risk." + f.id));
        }
    }
    REQUIRE(rc::check([&] {
        const auto random = [] {
            return with([](Job& j) {
                j.signs[0].blank.surface = *rc::gen::element(Surface::Smooth, Surface::OpenGrain, Surface::Glossy);
                finish_of(j).seal = *rc::gen::element(Seal::Ground, Seal::Clear, Seal::None);
                finish_of(j).lift = *rc::gen::element(Lift::Wet, Lift::Soft, Lift::Dry);
                making(j).tool = *rc::gen::element<std::string>("brush", "sponge", "spray");
                coat_in(j, ground_coat).coat =
                    *rc::gen::element<std::string>("chalk-paint", "craft-acrylic", "paint-wash", "gel-stain");
            });
        };
        const Job job = random();
        const Risks now = of(job);
        const Risks rough = of(with([](Job& j) { j.signs[0].blank.surface = Surface::Rough; }, job));
        const Risks unsanded = of(with([](Job& j) { without(j, sanding); }, job));
        const Risks early = of(with([](Job& j) { finish_of(j).rest_hours = 1; }, job));
        RC_ASSERT(rough.bleed.likely >= now.bleed.likely);
        RC_ASSERT(unsanded.bleed.likely >= now.bleed.likely);
        RC_ASSERT(unsanded.lift.likely >= now.lift.likely);
        RC_ASSERT(early.lift.likely >= now.lift.likely);
        for (const Risk& r : {now.bleed, now.lift}) RC_ASSERT(r.from >= 0 && r.to <= 1 && r.from <= r.to);
    }));
}
