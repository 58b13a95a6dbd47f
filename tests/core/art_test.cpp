// Art made by number, drawings from files, colours and rims, and what is too thin.
#include "artwork/art.h"

#include <numbers>

#include "artwork/figures.h"
#include "artwork/thin.h"
#include "drawing/css_names.h"
#include "drawing/drawing_file.h"
#include "job/face_commands.h"
#include "rapidcheck.h"
#include "support.h"
#include "support_blank.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

LetteringRoom room_in(double wide, double high, double margin = 1) {
    return {box_in(margin, margin, wide - margin, high - margin), {}, box_in(0, 0, wide, high), false, {}, {}};
}

ArtPlan made(const ArtKind& kind, const LetteringRoom& room) {
    Art art;
    art.kind = kind;
    return make_art({art}, room, Region::rectangle(room.face), library().typefaces);
}

Region whole(const ArtPlan& plan) {
    std::vector<Region> all;
    for (const ArtPart& p : plan.parts.front()) all.push_back(p.shape);
    return merge(all);
}

std::string svg(const std::string& inside,
                const std::string& attributes = "width='100mm' height='50mm' viewBox='0 0 200 100'") {
    return "<?xml version='1.0'?><svg xmlns='http://www.w3.org/2000/svg' xmlns:xlink='http://www.w3.org/1999/xlink' " +
           attributes + ">" + inside + "</svg>";
}

double area_of(const ReadDrawing& read) {
    // At the file's own size.
    const double scale = read.width.in_mm() / grid_to_mm(bounds_of(read.drawing).width());
    double area = 0;
    for (const DrawingPart& p : read.drawing.parts) area += p.shape.area_mm2() * scale * scale;
    return area;
}

std::string refusal(const std::string& bytes) {
    const auto read = read_drawing_file(bytes, "gull.svg");
    return read ? "read" : read.error().what.id;
}

}  // namespace

TEST_CASE("a border lies its inset inside the edge, as thick as asked, and follows a round") {
    const LetteringRoom room = room_in(20, 10);
    Border b;
    b.inset = measure("1/2");
    b.thickness = measure("1/4");
    CHECK(whole(made(b, room)).area_mm2() / 645.16 == Approx(2 * 19 * 0.25 + 2 * 8.5 * 0.25));
    b.corner = Corner::Round;
    b.corner_size = measure("1");
    CHECK(whole(made(b, room)).bounds() == box_in(0.5, 0.5, 19.5, 9.5));
    Art art;
    art.kind = b;
    const Region round = circle(at(9_in, 9_in), 9_in);
    const LetteringRoom in_round{box_in(3, 3, 15, 15), {}, box_in(0, 0, 18, 18), false, 9_in, {}};
    const Region ring = make_art({art}, in_round, round, library().typefaces).parts[0][0].shape;
    CHECK(ring.area_mm2() / 645.16 == Approx(std::numbers::pi * (8.5 * 8.5 - 8.25 * 8.25)).epsilon(1e-3));
    b.thickness = measure("9");
    CHECK(made(b, room).problems.front().what.id == "art.border-fills");
}

TEST_CASE("corner pieces are mirrored into all four corners") {
    for (const CornerStyle style : {CornerStyle::Angle, CornerStyle::Steps, CornerStyle::Fan}) {
        Corners c;
        c.style = style;
        const Region all = whole(made(c, room_in(20, 10)));
        CHECK(all.mirrored(to_grid(20_in)) == all);
        CHECK(islands(all).size() % 4 == 0);
    }
}

TEST_CASE("figures are exactly as wide and high as asked") {
    CHECK(rc::check([] {
        const Length w = Length::sixtyfourths(*rc::gen::inRange(16, 2000));
        const Length h = Length::sixtyfourths(*rc::gen::inRange(16, 2000));
        for (std::size_t shape = 0; shape < words_of(FigureShape{}).size(); ++shape) {
            const Box box = figure(static_cast<FigureShape>(shape), w, h).bounds();
            RC_ASSERT(std::abs(box.width() - to_grid(w)) <= 1);
            RC_ASSERT(std::abs(box.height() - to_grid(h)) <= 1);
        }
        RC_ASSERT(ribbon(w * 3, h, w / 2).bounds().width() <= to_grid(w * 3));
    }));
}

TEST_CASE("a part dropped or recoloured, mirrored and sized, is still the same drawing") {
    const auto read = read_drawing_file(
        svg("<rect width='50' height='20' fill='#f00'/><circle cx='150' cy='50' r='40' fill='blue'/>"), "a.svg");
    REQUIRE(read);
    REQUIRE(read->drawing.parts.size() == 2);
    CHECK(read->drawing.parts[0].colour == "#ff0000");
    PlacedDrawing d;
    d.drawing = read->drawing;
    d.size = measure("6");
    const LetteringRoom room = room_in(20, 20);
    CHECK(inches(whole(made(d, room)).bounds().width()) == Approx(6).margin(1e-4));
    d.by_width = false;
    CHECK(inches(whole(made(d, room)).bounds().height()) == Approx(6).margin(1e-4));
    d.dropped = {0};
    d.colours[1] = ColourId{"1.3"};
    const ArtPlan plan = made(d, room);
    REQUIRE(plan.parts[0].size() == 1);
    CHECK(plan.parts[0][0].colour == ColourId{"1.3"});
}

TEST_CASE("groups, transforms, use, styles and units of an SVG are followed") {
    const auto area = [](const std::string& inside) {
        const auto read = read_drawing_file(svg(inside), "a.svg");
        REQUIRE(read);
        return area_of(*read);
    };
    // A user unit is half a millimetre here.
    CHECK(area("<rect width='40' height='20'/>") == Approx(200).epsilon(1e-4));
    CHECK(area("<g transform='scale(2)'><rect width='10' height='10'/></g>") == Approx(100).epsilon(1e-4));
    CHECK(
        area("<defs><rect id='r' width='10' height='10'/></defs><use xlink:href='#r'/><use href='#r' x='30' y='5'/>") ==
        Approx(50).epsilon(1e-4));
    CHECK(area("<style>.no{display:none} rect.b{fill:none;stroke:none}</style><rect width='10' height='10'/>"
               "<rect class='no' width='90' height='90'/><rect class='b' width='90' height='90'/>") ==
          Approx(25).epsilon(1e-4));
    CHECK(area("<path d='M0 0H40V40H0z M10 10H30V30H10z' fill-rule='evenodd'/>") == Approx(300).epsilon(1e-4));
    CHECK(area("<path d='M0 0H40V40H0z M10 10H30V30H10z'/>") == Approx(400).epsilon(1e-4));
    CHECK(area("<path d='M0 0H40' fill='none' stroke='black' stroke-width='4'/>") == Approx(40).epsilon(1e-3));
    const auto inch = read_drawing_file(svg("<rect width='96' height='48'/>", ""), "a.svg");
    REQUIRE(inch);
    CHECK(inch->width.in_inches() == Approx(1));  // 96 pixels to the inch: CSS Values 4
    const auto css =
        read_drawing_file(svg("<style>#x{fill:#abc}.y{fill:rgb(1,2,3)}</style><rect id='x' width='5' height='5'/><rect "
                              "class='y' x='9' width='5' height='5' style='fill:white'/>"),
                          "a.svg");
    REQUIRE(css);
    CHECK(css->drawing.parts[0].colour == "#aabbcc");
    CHECK(css->drawing.parts[1].colour == "#ffffff");
}

TEST_CASE("text in a drawing is told apart, with its typeface named; what cannot be cut is refused") {
    const auto read = read_drawing_file(
        svg("<rect width='5' height='5'/><text font-family='Harbour Sans' x='3'>TEA</text><image href='x.png'/>"),
        "a.svg");
    REQUIRE(read);
    REQUIRE(read->notes.size() == 2);
    CHECK(library().catalogue.say(read->notes[0].what, {}).find("Harbour Sans") != std::string::npos);
    CHECK(refusal("") == "outline.empty-file");
    CHECK(refusal("just words") == "outline.neither");
    CHECK(refusal(svg("<text>TEA</text>")) == "drawing.nothing");
    CHECK(refusal("<!DOCTYPE svg [<!ENTITY a 'b'>]>" + svg("<rect width='1' height='1'/>")) == "outline.document-type");
    CHECK(refusal(svg("<rect width='5' height='5'").substr(0, 80)) == "outline.not-svg");
    CHECK(refusal(svg("<g id='a'><use href='#a'/></g>")) == "drawing.nothing");  // a use of itself ends
    std::string deep;
    for (int i = 0; i < 5000; ++i) deep += "<g>";
    CHECK(refusal(svg(deep)) != "read");
    std::stop_source stopped;
    stopped.request_stop();
    CHECK(read_drawing_file(svg("<rect width='1' height='1'/>"), "a.svg", stopped.get_token()).error().what.id ==
          "drawing.stopped");
}

TEST_CASE("coordinates that no grid holds, and drawings that unfold without end, are refused at once") {
    for (const std::string far : {"1e15", "1e300", "-1e308", "1e999"}) {
        CAPTURE(far);
        CHECK(refusal(svg("<rect width='" + far + "' height='5'/><rect width='1' height='1'/>")) != "read");
        CHECK(refusal(svg("<path d='M0 0 L" + far + " 0 L0 9 z'/>")) != "read");
        CHECK(refusal(svg("<path d='M0 0 A" + far + " 5 0 1 0 9 9 z M0 0L9 0L9 9z'/>")) != "");
        CHECK(refusal(svg("<g transform='scale(" + far + ",1)'><rect width='5' height='5'/></g><circle r='1'/>")) !=
              "read");
        CHECK(refusal(svg("<path d='M0 0H9V9' fill='none' stroke='red' stroke-width='" + far + "'/>")) != "read");
        // A width below none says nothing: it is read at the usual size.
        const bool below = far.front() == '-';
        CHECK((refusal("<svg xmlns='http://www.w3.org/2000/svg' width='" + far +
                       "mm' viewBox='0 0 9 9'><rect width='9' height='5'/></svg>") == "read") == below);
        const std::string line = "0\nSECTION\n2\nENTITIES\n0\nCIRCLE\n8\n0\n10\n" + far +
                                 "\n20\n4\n40\n2\n0\nCIRCLE\n8\n0\n10\n1\n20\n4\n40\n2\n0\nENDSEC\n0\nEOF\n";
        CHECK(refusal(line) != "read");
        CHECK(refusal("0\nSECTION\n2\nENTITIES\n0\nARC\n8\n0\n10\n0\n20\n0\n40\n2\n50\n0\n51\n" + far +
                      "\n0\nENDSEC\n0\nEOF\n") != "read");
    }
    // Ten copies of ten copies, twelve times over: counted before any is made.
    std::string bomb = "<defs><g id='a0'><rect width='1' height='1'/></g>";
    for (int i = 1; i <= 12; ++i) {
        bomb += "<g id='a" + std::to_string(i) + "'>";
        for (int k = 0; k < 10; ++k) bomb += "<use href='#a" + std::to_string(i - 1) + "'/>";
        bomb += "</g>";
    }
    CHECK(refusal(svg(bomb + "</defs><use href='#a12'/>")) == "outline.huge");
    std::string nested;
    for (int i = 0; i < 200'000; ++i) nested += "<g>";
    for (int i = 0; i < 200'000; ++i) nested += "</g>";
    CHECK(refusal(svg(nested)) == "outline.huge");
    CHECK(refusal(std::string("0\nSECTION\n2\n\0\0\0", 15)) == "outline.binary-dxf");
    CHECK(refusal("0\nSECTION\n2\nENTITIES\n999\n" + std::string(5'000, 'x') + "\n0\nEOF\n") == "outline.not-dxf");
    // Blocks within blocks that draw nothing.
    std::string blocks = "0\nSECTION\n2\nBLOCKS\n";
    for (int i = 0; i < 8; ++i) {
        const auto name = [](int n) { return "B" + std::to_string(n); };
        blocks += "0\nBLOCK\n8\n0\n2\n" + name(i) + "\n70\n0\n10\n0\n20\n0\n0\nINSERT\n8\n0\n2\n" + name(i + 1) +
                  "\n10\n0\n20\n0\n70\n90\n71\n90\n0\nENDBLK\n8\n0\n";
    }
    CHECK(refusal(blocks +
                  "0\nENDSEC\n0\nSECTION\n2\nENTITIES\n0\nINSERT\n8\n0\n2\nB0\n10\n0\n20\n0\n0\nENDSEC\n0\nEOF\n") ==
          "outline.huge");
}

TEST_CASE("what of a drawing is not followed is said in words") {
    const auto notes = [](const std::string& inside) -> std::string {
        const auto read = read_drawing_file(svg(inside + "<rect width='5' height='5'/>"), "a.svg");
        if (!read) return read.error().what.id;
        std::string ids;
        for (const Problem& p : read->notes) ids.append(p.what.id).append(" ");
        return ids;
    };
    CHECK(notes("").empty());
    CHECK(notes("<rect width='9' height='9' clip-path='url(#c)'/>") == "drawing.left-out-clip-path ");
    CHECK(notes("<rect width='9' height='9' mask='url(#c)'/>") == "drawing.left-out-mask ");
    CHECK(notes("<rect width='9' height='9' filter='url(#c)'/>") == "drawing.left-out-filter ");
    CHECK(notes("<rect width='9' height='9' fill='url(#g)'/>") == "drawing.left-out-gradient ");
    CHECK(notes("<svg width='9' height='9'><rect width='99' height='9'/></svg>") == "drawing.left-out-crop ");
    CHECK(notes("<path d='M0 0H9' stroke='red' style='marker-end:url(#m)'/>") == "drawing.left-out-marker ");
    CHECK(css_colour("hsl(120, 100%, 25%)") == "#008000");
    CHECK(css_colour("hsla(210deg 50% 50% / 1)") == "#4080bf");
    CHECK(css_colour("RebeccaPurple") == "#663399");
    CHECK(css_colour("#12345600").empty());
}

TEST_CASE("tracing a picture gives back the shape that was drawn") {
    GreyPicture disc{400, 300, std::vector<unsigned char>(400 * 300, 255)};
    for (int y = 0; y < 300; ++y) {
        for (int x = 0; x < 400; ++x) {
            if (std::hypot(x - 199.5, y - 149.5) < 100) disc.pixels[static_cast<std::size_t>(y * 400 + x)] = 20;
        }
    }
    disc.pixels[5] = 0;  // a speckle
    const auto traced = trace(disc, {}, 100_in);
    REQUIRE(traced);
    REQUIRE(traced->parts.size() == 1);
    const Box box = traced->parts[0].shape.bounds();
    const double side = grid_to_mm(box.width());
    CHECK(traced->parts[0].shape.area_mm2() / (side * side) == Approx(std::numbers::pi / 4).epsilon(0.01));
    TraceWish all;
    all.speckles = 0;
    CHECK(trace(disc, all, 100_in)->parts.size() == 2);
    all.inverted = true;
    CHECK(trace(disc, all, 100_in)->parts.size() == 1);
    all = {};
    all.threshold = 10;
    CHECK(trace(disc, all, 100_in).error().what.id == "drawing.nothing-dark");
}

TEST_CASE("a picture that is kept is cut round at its distance, and lies whole where it belongs") {
    GreyPicture ring{200, 100, std::vector<unsigned char>(200 * 100, 255)};
    for (int y = 0; y < 100; ++y) {
        for (int x = 0; x < 200; ++x) {
            const double r = std::hypot(x - 59.5, y - 49.5);
            if (r < 40 && r > 20) ring.pixels[static_cast<std::size_t>(y * 200 + x)] = 0;
        }
    }
    PlacedDrawing d;
    FileDrawing traced = *trace(ring, {}, 10_in);
    traced.picture.bytes = std::make_shared<const std::string>("picture");
    d.drawing = traced;
    d.size = measure("4");
    d.around = measure("1/4");
    const ArtPlan plan = made(d, room_in(20, 20));
    REQUIRE(plan.parts[0].size() == 1);
    const Region& cut = plan.parts[0][0].shape;
    CHECK(holes(cut).empty());
    CHECK(inches(cut.bounds().width()) == Approx(4.5).margin(0.05));  // 4 in of disc and 1/4 in on either side
    const Box& whole_picture = plan.pictures[0];
    CHECK(inches(whole_picture.width()) == Approx(10).margin(0.2));  // 200 dots, of which the disc takes 80
    CHECK(inches(whole_picture.height()) == Approx(5).margin(0.1));
    CHECK(inches(cut.bounds().low.x - whole_picture.low.x) == Approx(0.75).margin(0.05));  // the disc begins at dot 20
}

TEST_CASE("a rim lies behind its ink: an overlay all of it, a knock-out all but the overlap") {
    Job job = porch_board();
    job = add_colour(job, {0, 0});
    Text& t = lettering(job);
    const ColourId second = job.signs[0].faces[0].colours[1].id;
    t.colour = second;
    t.rim = Rim{measure("1/8"), first_colour, true, measure("1/32"), false};
    const auto region = [&](const ColourId& colour) {
        const Plan p = plan_of(job);
        std::vector<Region> all;
        for (const Piece& piece : *p.of(colour)->cut.pieces) all.push_back(piece.shape);
        return merge(all);
    };
    const Region ink = region(second);
    const Region over = region(first_colour);
    CHECK(subtract(ink, over).empty());
    CHECK(over.bounds().width() == Approx(ink.bounds().width() + 2 * to_grid(0.125_in)).margin(4));
    t.rim->under = false;
    const Region cut_out = region(first_colour);
    const Region both = intersect(ink, cut_out);
    CHECK(both.area_mm2() > 0);
    CHECK(subtract(both, subtract(ink, grow(ink, Length::sixtyfourths(-2)))).area_mm2() < 1);
    const Plan plan = plan_of(job);
    REQUIRE(plan.colours.size() == 2);
    CHECK(plan.colours[0].id == first_colour);  // what lies behind is laid first
    std::set<StepId> names;
    int proofs = 0;
    int finals = 0;
    for (const Task& task : *plan.tasks) {
        CHECK(names.insert(task.id).second);
        proofs += task.work == Work::Proof ? 1 : 0;
        finals += task.work == Work::Final ? 1 : 0;
    }
    CHECK(proofs == 1);
    CHECK(finals == 1);
    // Seen through from behind, the ink in front is laid first.
    job.signs.front().blank.from_behind = true;
    CHECK(plan_of(job).colours[0].colour == 1);
    const Job fewer = remove_colour(job, {0, 0}, 0);
    CHECK_FALSE(fewer.signs[0].faces[0].lettering.main().rim);
    CHECK(read_job(write_job(job)).value() == job);
}

TEST_CASE("strokes, gaps and keepers too thin to trust are found where they are") {
    const auto piece = [](const Region& r) { return Piece{r, "I", 0, true, 0, false}; };
    const Region bar = Region::rectangle(box_in(0, 0, 3, 0.05));
    ThinPlan plan = thin_places({piece(bar)}, {});
    REQUIRE(plan.strokes >= 1);
    CHECK(plan.places[0].width.in_inches() == Approx(0.05).margin(0.002));
    CHECK(plan.bolder.in_inches() >= (0.0625 - 0.05) / 2);
    CHECK(thin_places({piece(grow(bar, plan.bolder))}, {}).strokes == 0);
    CHECK(thin_places({piece(Region::rectangle(box_in(0, 0, 3, 0.1)))}, {}).places.empty());
    plan = thin_places({piece(square_in(0, 0, 1)), piece(square_in(1.03, 0, 1))}, {});
    REQUIRE(plan.gaps == 1);
    CHECK(plan.places[0].width.in_inches() == Approx(0.03).margin(0.001));
    const Region eye = subtract(square_in(0, 0, 1), circle(at(0.5_in, 0.5_in), 0.05_in));
    plan = thin_places({piece(eye)}, {});
    REQUIRE(plan.keepers == 1);
    CHECK(plan.places.back().width.in_inches() == Approx(0.1).margin(0.002));
    // A sharp corner is no thin stroke.
    CHECK(thin_places({piece(Region::from_rings({{{0, 0}, {800'000, 0}, {400'000, 1'600'000}}}))}, {}).places.empty());
}

TEST_CASE("art and texts come back from the file as they were written") {
    Job job = porch_board();
    const FaceAt here{0, 0};
    for (const ArtKind& kind :
         std::vector<ArtKind>{Border{}, Corners{}, RuledLine{}, Banner{}, Figure{}, HeightRuler{}, MonthBoard{}})
        job = add_art(job, here, kind, library().typefaces);
    const auto read = read_drawing_file(svg("<rect width='5' height='5'/>"), "gull.svg");
    PlacedDrawing d;
    FileDrawing drawing = read->drawing;
    drawing.licence = "drawn by hand";
    d.drawing = drawing;
    d.dropped = {0};
    job = add_art(job, here, d, library().typefaces);
    drawing.picture = {std::make_shared<const std::string>(std::string("\x89PNG\0\xff kept", 11)),
                       Box{{-5, -5}, {9, 9}}};
    d.drawing = drawing;
    job = add_art(job, here, d, library().typefaces);
    Face& face = job.signs[0].faces[0];
    face.art[2].across = Hang{"face", Side::Low, Side::Low, measure("-1/2 in")};
    face.seen.distance = measure("25 ft");
    Text& t = lettering(job);
    t.nudges = {{1, Length::from_mm(0.25), -0.5_in}};
    t.arc.below = true;
    t.slope_tenths = -45;
    t.bolder = measure("1/32");
    t.up = Hang{"usable", Side::High, Side::High, measure("0")};
    const auto back = read_job(write_job(job));
    REQUIRE(back);
    CHECK(*back == job);
}
