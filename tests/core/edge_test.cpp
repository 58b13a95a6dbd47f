// Ink that reaches over the edge of the blank: told with by how much, or cut off there when asked.
#include <rapidcheck.h>

#include "job/face_commands.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

std::optional<Problem> said(const Plan& plan, const std::string& id) {
    for (const Problem& p : plan.problems) {
        if (p.what.id == id) return p;
    }
    return std::nullopt;
}

Length by_of(const Problem& p) {
    for (const auto& [name, value] : p.what.arguments) {
        if (name == "by") return std::get<Length>(value);
    }
    return {};
}

Region ink_of_first(const Plan& plan) {
    std::vector<Region> shapes;
    for (const Piece& p : *plan.colours.front().cut.pieces) shapes.push_back(p.shape);
    return merge(shapes);
}

// A panel of 20 x 12 in with a bar of 4 x 1 in that hangs so far from the left and the bottom.
Job with_bar(Length left, Length bottom) {
    Job job = panel_job("", "20", "12");
    FileDrawing bar;
    bar.parts.push_back({Region::rectangle(box_in(0, 0, 4, 1)), "#000000", {}});
    PlacedDrawing placed;
    placed.drawing = bar;
    placed.size = measure_of(4_in, {});
    job = add_art(job, {0, 0}, placed, library().typefaces);
    Art& art = job.signs.front().faces.front().art.front();
    art.across = Hang{on_face, Side::Low, Side::Low, measure_of(left, {})};
    art.up = Hang{on_face, Side::Low, Side::Low, measure_of(bottom, {})};
    return job;
}

}  // namespace

TEST_CASE("art that hangs over the edge stops the job, with by how much, and is cut off there when asked") {
    CHECK(rc::check([] {
        const Length left = Length::sixtyfourths(*rc::gen::inRange(-3 * 64, 18 * 64));
        const Length bottom = Length::sixtyfourths(*rc::gen::inRange(-40, 12 * 64));
        Job job = with_bar(left, bottom);
        const Plan plan = plan_of(job);
        // By arithmetic: the farthest that it reaches beyond one of the four sides.
        const Length over = std::max({Length{} - left, Length{} - bottom, left + 4_in - 20_in, bottom + 1_in - 12_in});
        const auto stop = said(plan, "art.off-face");
        if (over <= Length{}) {
            RC_ASSERT(!stop);
            return;
        }
        RC_ASSERT(stop.has_value());
        RC_ASSERT(stop->mark == Mark::Stop);
        const bool corner = std::max(Length{} - left, left + 4_in - 20_in) > Length{} &&
                            std::max(Length{} - bottom, bottom + 1_in - 12_in) > Length{};
        if (!corner) RC_ASSERT(std::abs((by_of(*stop) - over).in_mm()) < 0.001);
        job.signs.front().faces.front().cut_at_edge = true;
        const Plan cut = plan_of(job);
        RC_ASSERT(!said(cut, "art.off-face"));
        RC_ASSERT(said(cut, "art.cut-at-edge").has_value());
        const Box face = cut.colours.front().face->blank->face;
        const Region inside = intersect(ink_of_first(plan), Region::rectangle(face));
        RC_ASSERT(ink_of_first(cut) == inside);
    }));
}

TEST_CASE("letters beside a round board's edge are off it, though its box would hold them") {
    Job job = panel_job("OAR", "16", "16");
    Blank& blank = job.signs.front().blank;
    blank.kind = Kind::Round;
    Text& text = lettering(job);
    text.sizing = Sizing::CapHeight;
    text.size = measure("3");
    text.across = Hang{on_face, Side::Low, Side::Low, measure("1/4")};
    text.up = text.across;
    const auto stop = said(plan_of(job), "lettering.off-face");
    REQUIRE(stop);
    CHECK(stop->mark == Mark::Stop);
    CHECK(by_of(*stop) > 1_in);
    job.signs.front().faces.front().cut_at_edge = true;
    const Plan cut = plan_of(job);
    CHECK(said(cut, "lettering.cut-at-edge"));
    CHECK(subtract(ink_of_first(cut), cut.colours.front().face->blank->outline).area_mm2() < 0.01);
}

TEST_CASE("what a mat is like is told where its film minds") {
    const auto told = [](Tack tack, Grip grip) {
        Shop shop = usual_shop();
        shop.mat.tack = tack;
        shop.mat.grip = grip;
        const Plan p = plan(panel_job("OAR"), shop, library(), moment("2026-05-04T18:00"));
        std::string ids;
        for (const char* id : {"loads.mat-worn", "loads.mat-fresh", "loads.mat-light", "loads.mat-strong"}) {
            if (said(p, id)) ids.append(id + 10).append(" ");
        }
        return ids;
    };
    CHECK(told(Tack::Good, Grip::Standard).empty());
    CHECK(told(Tack::Worn, Grip::Standard) == "worn ");
    CHECK(told(Tack::Fresh, Grip::Strong) == "fresh strong ");
    CHECK(told(Tack::Good, Grip::Light).empty());
}

TEST_CASE("a bed far too small for its margin is refused at once") {
    Job job = panel_job("OAR", "30", "20");
    making(job).way = Way::PaintThrough;
    making(job).margin = measure("20");
    Shop shop = usual_shop();
    shop.mat.usable = {0.25_in, 0.25_in};
    const Plan p = plan(job, shop, library(), moment("2026-05-04T18:00"));
    CHECK(said(p, "sections.too-many"));
}
