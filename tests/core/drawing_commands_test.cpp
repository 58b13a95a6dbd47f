// job/drawing_commands: what is done with a drawing from a file once it is on a face.
#include "job/drawing_commands.h"

#include "drawing/drawing_file.h"
#include "job/face_commands.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

constexpr const char* three_colours =
    "<svg xmlns='http://www.w3.org/2000/svg' width='80mm' height='40mm' viewBox='0 0 80 40'>"
    "<rect x='0' y='0' width='40' height='40' fill='#112233'/><rect x='45' y='0' width='20' height='20' "
    "fill='#aa3311'/>"
    "<rect x='70' y='0' width='10' height='10' fill='#22aa44'/><rect x='45' y='30' width='5' height='5' "
    "fill='#aa3311'/>"
    "</svg>";

PlacedDrawing boat() {
    PlacedDrawing placed;
    placed.drawing = read_drawing_file(three_colours, "boat.svg", {}, {})->drawing;
    placed.size = measure("6");
    return placed;
}

bool says(const Plan& plan, const char* id) {
    return std::any_of(plan.problems.begin(), plan.problems.end(), [&](const Problem& p) { return p.what.id == id; });
}

}  // namespace

TEST_CASE("a drawing's colours are found, the largest first, taken over as colours of the face, and made one again") {
    const PlacedDrawing placed = boat();
    const std::vector<FoundColour> found = colours_found(*placed.drawing);
    REQUIRE(found.size() == 3);
    CHECK(found[0].colour == "#112233");
    CHECK(found[1].colour == "#aa3311");
    CHECK(found[1].parts.size() == 2);
    CHECK(found[0].mm2 == Approx(found[1].mm2 * 1600 / 425).epsilon(1e-6));
    Job job = panel_job("OAR", "30", "12");
    face_of(job).colours.front().paint.colour = "#22aa44";  // one of them is there already
    job = add_art(job, {}, placed, library().typefaces);
    const Job own = take_over_colours(job, {}, 0, {{"#aa3311", "barn red"}});
    const Face& face = own.signs.front().faces.front();
    REQUIRE(face.colours.size() == 3);
    CHECK(face.colours[2].paint.colour_name == "barn red");
    const auto& drawing = std::get<PlacedDrawing>(face.art.front().kind);
    CHECK(drawing.colours.at(2) == face.colours[0].id);
    CHECK(drawing.colours.at(1) == drawing.colours.at(3));
    CHECK(plan_of(own).colours.size() == 3);
    const Job one = make_one_colour(own, {}, 0);
    CHECK(std::get<PlacedDrawing>(one.signs.front().faces.front().art.front().kind).colours.empty());
    // Nothing is there: nothing changes.
    CHECK(take_over_colours(job, {0, 0}, 7) == job);
    CHECK(take_over_colours(job, {3, 0}, 0) == job);
}

TEST_CASE("parts are left out, brought back and recoloured without hidden keys") {
    Job job = add_art(add_colour(panel_job("OAR", "30", "12"), {}), {}, boat(), library().typefaces);
    const auto drawing = [](const Job& j) {
        return std::get<PlacedDrawing>(j.signs.front().faces.front().art.front().kind);
    };
    const Job out = leave_out_parts(job, {}, 0, {1, 3}, true);
    CHECK(drawing(out).dropped == std::vector<std::size_t>{1, 3});
    CHECK(drawing(leave_out_parts(out, {}, 0, {3}, false)).dropped == std::vector<std::size_t>{1});
    CHECK(leave_out_parts(out, {}, 0, {1, 3}, false) == job);
    const ColourId second = face_of(job).colours[1].id;
    const Job coloured = colour_parts(job, {}, 0, {0}, second);
    CHECK(drawing(coloured).colours.at(0) == second);
    CHECK(colour_parts(coloured, {}, 0, {0}, face_of(job).art.front().colour) == job);
    CHECK(colour_parts(job, {}, 0, {0}, ColourId{"9.9"}) == job);
}

TEST_CASE("property: a drawing is put where it covers no words, or lies where it came and says so") {
    CHECK(rc::check([] {
        Job job = panel_job(*rc::gen::element<std::string>("OAR", "TERN QUAY", "LOW TIDE\nSLIPWAY"),
                            std::to_string(*rc::gen::inRange(12, 60)).c_str(),
                            std::to_string(*rc::gen::inRange(6, 24)).c_str());
        lettering(job).sizing = Sizing::CapHeight;
        lettering(job).size = measure(*rc::gen::element("1", "2", "3"));
        const Plan before = plan_of(job);
        const Job with = add_art(job, {}, boat(), library().typefaces);
        const Job placed = place_clear(with, {}, 0, before.colours.front(), {});
        const Plan after = plan_of(placed);
        if (placed == with) return;
        RC_ASSERT_FALSE(says(after, "art.covers-words"));
        const Box box = after.colours.front().face->art->boxes.front();
        RC_ASSERT(after.colours.front().face->blank->face.holds(box));
        RC_ASSERT(from_grid(std::max(box.width(), box.height())) >= 0.85_in);
    }));
    Job covered = add_art(panel_job("OAR", "20", "8"), {}, boat(), library().typefaces);
    CHECK(says(plan_of(covered), "art.covers-words"));
}
