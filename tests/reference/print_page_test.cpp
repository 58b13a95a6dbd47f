// Pages that are printed before they are cut, read back by poppler: size, marks where the cutter will look for them,
// ink in its colours where the cut path runs.
#include <fstream>

#include "files/print_page.h"
#include "job/face_commands.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

Job printed_job(const char* colour) {
    Job job = panel_job("TEA", "9", "6");
    making(job).way = Way::Decal;
    making(job).film = "printable";
    job.signs.front().faces.front().colours.front().paint.colour = colour;
    return job;
}

struct Picture {
    int width = 0, height = 0;
    std::string pixels;  // three bytes each
    double dots_per_mm = 0;

    // As millimetres from the lower left corner.
    [[nodiscard]] std::array<int, 3> at(double x, double y) const {
        const int px = std::clamp(static_cast<int>(x * dots_per_mm), 0, width - 1);
        const int py = std::clamp(static_cast<int>(height - y * dots_per_mm), 0, height - 1);
        const std::size_t i =
            3 * (static_cast<std::size_t>(py) * static_cast<std::size_t>(width) + static_cast<std::size_t>(px));
        return {static_cast<unsigned char>(pixels[i]), static_cast<unsigned char>(pixels[i + 1]),
                static_cast<unsigned char>(pixels[i + 2])};
    }
};

Picture rendered(const Folder& folder, const std::string& pdf) {
    std::ofstream(folder / "page.pdf", std::ios::binary) << pdf;
    const Ran ran = run("pdftoppm -r 200 " + (folder / "page.pdf").string() + " " + (folder / "page").string() +
                        " && mv " + (folder / "page").string() + "-*.ppm " + (folder / "page.ppm").string());
    INFO(ran.out);
    REQUIRE(ran.code == 0);
    std::ifstream in(folder / "page.ppm", std::ios::binary);
    Picture p;
    std::string magic;
    int most = 0;
    in >> magic >> p.width >> p.height >> most;
    in.get();
    p.pixels.resize(3 * static_cast<std::size_t>(p.width) * static_cast<std::size_t>(p.height));
    in.read(p.pixels.data(), static_cast<std::streamsize>(p.pixels.size()));
    p.dots_per_mm = 200 / 25.4;
    return p;
}

}  // namespace

TEST_CASE("a printed page has the printer's size, its marks, and ink under the cut path") {
    const Folder folder;
    const Job job = printed_job("#c03020");
    const Shop shop = usual_shop();
    const Plan plan = plan_of(job);
    const ColourPlan& face = plan.colours.front();
    REQUIRE(face.cut.bed.print);
    // Common practice: about 6 3/4 x 9 1/4 in on a letter page.
    CHECK(face.cut.bed.usable.across == 6.75_in);
    CHECK(face.cut.bed.usable.along == 9.25_in);
    CHECK(plan.mark_of(Station::Sections) == Mark::None);
    const auto loads = loads_to_cut(plan, shop);
    REQUIRE(loads.size() == 1);
    const auto page = print_page(job, plan, loads.front());
    REQUIRE(page);
    const Picture picture = rendered(folder, page->pdf);
    const Ran info = run("pdfinfo " + (folder / "page.pdf").string());
    CHECK(info.out.find("Page size:       612 x 792 pts") != std::string::npos);
    const double x0 = grid_to_mm(page->zero.x);
    const double y0 = grid_to_mm(page->zero.y);
    // Lower left mark: black just outside its corner, white just inside.
    CHECK(picture.at(x0 - 0.5, y0 + 4) == std::array{0, 0, 0});
    CHECK(picture.at(x0 + 4, y0 - 0.5) == std::array{0, 0, 0});
    CHECK(picture.at(x0 + 0.6, y0 + 0.6) == std::array{255, 255, 255});
    // Upper right mark.
    const double x1 = page->width.in_mm() - x0;
    const double y1 = page->height.in_mm() - y0;
    CHECK(picture.at(x1 + 0.5, y1 - 4) == std::array{0, 0, 0});
    CHECK(picture.at(x1 - 4, y1 + 0.5) == std::array{0, 0, 0});
    // Nothing is printed where the rollers grip.
    for (double y = 1; y < page->height.in_mm(); y += 3) CHECK(picture.at(4, y) == std::array{255, 255, 255});
    // The knife's paths are at the edge of the ink, less the bleed: red inside, red a hair outside, white farther off.
    for (const KnifePath& path : loads.front().way.paths) {
        if (path.of != CutOf::Ink) continue;
        for (std::size_t i = 0; i + 1 < path.points.size(); i += 5) {
            const auto here = picture.at(x0 + grid_to_mm(path.points[i].x), y0 + grid_to_mm(path.points[i].y));
            CHECK(here[0] > here[2] + 60);
        }
    }
    const Box ink = loads.front().sections.front().laid.cut.bounds();
    const double bleed = print_bleed.in_mm();
    CHECK(picture.at(x0 + grid_to_mm(ink.low.x) - bleed - 0.5, y0 + grid_to_mm(ink.low.y + ink.high.y) / 2) ==
          std::array{255, 255, 255});
}

TEST_CASE("what the marks or the machine cannot hold is refused with the reason") {
    Job job = printed_job("#202020");
    Shop shop = usual_shop();
    making(job).bed = bed_name(beds_of(shop.machines).front());  // a mat: no marks there
    const Plan on_mat = plan(job, shop, library(), moment("2026-05-04T18:00"));
    CHECK(on_mat.mark_of(Station::Sections) == Mark::Stop);
    const auto loads = loads_to_cut(on_mat, shop);
    const auto page = print_page(job, on_mat, loads.front());
    REQUIRE_FALSE(page);
    CHECK(page.error().what.id == "print.no-marks");
    std::vector<Problem> why;
    CHECK(print_pages(job, on_mat, shop, &why).empty());
    CHECK(why.size() == 1);
    // A page so short that the marks leave no room for what lies on it.
    LoadToCut load = loads.front();
    load.bed.print = PrintArea{{8.5_in, 4_in}};
    const auto short_page = print_page(job, on_mat, load);
    REQUIRE_FALSE(short_page);
    CHECK(short_page.error().what.id == "print.marks-leave-page");
    // No machine of the shop looks for marks.
    for (Machine& m : shop.machines) m.prints.reset();
    making(job).bed.clear();
    CHECK(plan(job, shop, library(), moment("2026-05-04T18:00")).mark_of(Station::Sections) == Mark::Stop);
}

TEST_CASE("a sticker of letters and their rim is printed and cut in one") {
    const Folder folder;
    Job job = printed_job("#1030c0");
    job = add_colour(job, {});
    Face& face = job.signs.front().faces.front();
    face.colours.back().paint.colour = "#e0b020";
    lettering(job).rim = Rim{};
    lettering(job).rim->width = measure("1/8");
    lettering(job).rim->colour = first_colour;
    lettering(job).rim->under = true;
    lettering(job).colour = face.colours.back().id;
    const Shop shop = usual_shop();
    const Plan plan = plan_of(job);
    REQUIRE(plan.colours.size() == 2);
    CHECK(plan.colours[1].cut.printed_with == first_colour);
    CHECK(plan.colours[1].cut.loads->sections.empty());
    // The letters are named once, and the knife goes round the rim alone.
    CHECK(plan.colours[0].cut.loads->sections.front().letters == "TEA");
    const auto loads = loads_to_cut(plan, shop);
    REQUIRE(loads.size() == 1);
    std::size_t cuts = 0;
    for (const KnifePath& p : loads.front().way.paths) cuts += p.of == CutOf::Ink ? 1 : 0;
    CHECK(cuts == islands(loads.front().sections.front().laid.cut).size() +
                      holes(loads.front().sections.front().laid.cut).size());
    // One thing to lay, and nothing is laid or weeded for the colour that comes with it.
    CHECK(std::none_of(plan.tasks->begin(), plan.tasks->end(),
                       [](const Task& t) { return t.id.name.starts_with("1.2/"); }));
    CHECK(std::any_of(plan.tasks->begin(), plan.tasks->end(), [](const Task& t) { return t.work == Work::Final; }));
    const auto page = print_page(job, plan, loads.front());
    REQUIRE(page);
    const Picture picture = rendered(folder, page->pdf);
    const double x0 = grid_to_mm(page->zero.x);
    const double y0 = grid_to_mm(page->zero.y);
    // In the middle of the stem of T: letters; beside it, within the rim: its colour; past the cut, still its colour.
    const OnMat& on = loads.front().sections.front();
    const auto seen = [&](Point face_point, double dx, double dy) {
        Point p = face_point;
        if (on.placement.turned) {
            p = {-p.y, p.x};
            const double across = -dy;
            dy = dx;
            dx = across;
        }
        p = p + on.moved;
        return picture.at(x0 + grid_to_mm(p.x) + dx, y0 + grid_to_mm(p.y) + dy);
    };
    const Box t = plan.colours[1].ink->front().shape.bounds();
    const Point stem{(t.low.x + t.high.x) / 2, t.low.y + t.height() / 4};
    const auto inside = seen(stem, 0, 0);
    CHECK(inside[0] > inside[2] + 60);
    const auto below = seen({stem.x, t.low.y}, 0, -1.5);
    CHECK(below[2] > below[0] + 60);
    // Otherwise made, each is cut by itself.
    job.signs.front().faces.front().colours.back().making.film = "permanent-gloss";
    const Plan apart = plan_of(job);
    CHECK_FALSE(apart.colours[1].cut.printed_with);
    CHECK_FALSE(apart.colours[1].cut.loads->sections.empty());
    CHECK(*read_job(write_job(job)) == job);
}

TEST_CASE("a kept picture is printed itself, at its place and turned with its section, and cropped where it is cut") {
    // A picture whose colours tell where on it one is: red grows to the right, blue downwards.
    for (const std::string kind : {"png", "jpg"}) {
        const Folder folder;
        const std::string file = (folder / ("sky." + kind)).string();
        const Ran made =
            run("convert -size 240x160 xc:black -channel R -fx 'i/w' -channel B -fx 'j/h' -channel G -fx '0.5' "
                "-quality 100 " +
                file);
        INFO(made.out);
        REQUIRE(made.code == 0);
        PlacedDrawing placed;
        FileDrawing drawing;
        // It shows an ellipse; the whole picture reaches beyond.
        Ring ring;
        for (int i = 0; i < 120; ++i) {
            const double a = i * 3 * std::acos(-1.0) / 180;
            ring.push_back(at(Length::from_mm(60 + 50 * std::cos(a)), Length::from_mm(40 + 30 * std::sin(a))));
        }
        drawing.parts.push_back({Region::from_rings({ring}), "#000000", {}});
        std::ifstream in(file, std::ios::binary);
        drawing.picture.bytes =
            std::make_shared<const std::string>(std::istreambuf_iterator<char>(in), std::istreambuf_iterator<char>());
        drawing.picture.frame = {{0, 0}, at(Length::from_mm(120), Length::from_mm(80))};
        const Point low = drawing.parts.front().shape.bounds().low;
        drawing.parts.front().shape = drawing.parts.front().shape.moved(Point{} - low);
        drawing.picture.frame = {Point{} - low, drawing.picture.frame.high - low};
        placed.drawing = drawing;
        placed.size = measure_of(Length::from_mm(100), {});
        placed.around = measure("1/8");
        placed.mirrored = kind == "jpg";
        Job job = printed_job("#ff8000");
        lettering(job).words.clear();
        job = add_art(job, {0, 0}, placed, library().typefaces);
        const Plan plan = plan_of(job);
        const auto loads = loads_to_cut(plan, usual_shop());
        REQUIRE(loads.size() == 1);
        const auto page = print_page(job, plan, loads.front());
        REQUIRE(page);
        const Picture print = rendered(folder, page->pdf);
        const OnMat& lies = loads.front().sections.front();
        const double x0 = grid_to_mm(page->zero.x);
        const double y0 = grid_to_mm(page->zero.y);
        const Box cut = lies.laid.cut.bounds();
        const Box box = plan.colours.front().face->art->pictures.front();
        int inside = 0;
        for (double u = 0.1; u < 1; u += 0.1) {
            for (double v = 0.1; v < 1; v += 0.1) {
                const double x = grid_to_mm(cut.low.x) + u * grid_to_mm(cut.width());
                const double y = grid_to_mm(cut.low.y) + v * grid_to_mm(cut.height());
                const auto here = print.at(x0 + x, y0 + y);
                const Box dot{at(Length::from_mm(x - 0.05), Length::from_mm(y - 0.05)),
                              at(Length::from_mm(x + 0.05), Length::from_mm(y + 0.05))};
                if (intersect(grow(lies.laid.cut, print_bleed + 0.02_in), Region::rectangle(dot)).empty()) {
                    CHECK(here == std::array{255, 255, 255});
                    continue;
                }
                if (!subtract(Region::rectangle(dot), lies.laid.cut).empty()) continue;
                // Back from the mat to the face, and to where that is on the picture.
                Point p = at(Length::from_mm(x), Length::from_mm(y)) - lies.moved;
                if (lies.placement.turned) p = {p.y, -p.x};
                double across = static_cast<double>(p.x - box.low.x) / static_cast<double>(box.width());
                if (placed.mirrored) across = 1 - across;
                const double down = static_cast<double>(box.high.y - p.y) / static_cast<double>(box.height());
                ++inside;
                CHECK(std::abs(here[0] - 255 * across) < 10);
                CHECK(std::abs(here[2] - 255 * down) < 10);
                CHECK(std::abs(here[1] - 128) < 10);
            }
        }
        CHECK(inside > 40);
        // With every dot that it has.
        const Ran images = run("pdfimages -list " + (folder / "page.pdf").string());
        CHECK(images.out.find(" 240 ") != std::string::npos);
        // What cannot be read is told, and no page is written without it.
        std::get<PlacedDrawing>(job.signs.front().faces.front().art.front().kind).drawing = [&] {
            FileDrawing broken = drawing;
            broken.picture.bytes = std::make_shared<const std::string>("no picture at all");
            return broken;
        }();
        const Plan again = plan_of(job);
        const auto refused = print_page(job, again, loads_to_cut(again, usual_shop()).front());
        REQUIRE_FALSE(refused);
        CHECK(refused.error().what.id == "print.picture-unread");
    }
}
