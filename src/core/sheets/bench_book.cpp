// The bench book: every step on paper, with its picture, its figures, a box to tick and room for the time.
#include <fmt/format.h>

#include <cmath>
#include <numbers>

#include "picture/step_picture.h"
#include "sheets/sheet_parts.h"

namespace skarvel {
namespace {

using namespace sheet_parts;

// A picture of a step on paper: what is to be seen of it, as large as the room allows.
class OnPaper {
  public:
    OnPaper(Sheet& sheet, const Printing& on, const StepPicture& picture, PagePoint corner, double width, double height)
        : sheet_(sheet), on_(on), picture_(picture) {
        const Box& w = picture.window;
        const double across = grid_to_mm(picture.laid_down ? w.height() : w.width());
        const double up = grid_to_mm(picture.laid_down ? w.width() : w.height());
        per_mm_ = std::min(width / across, height / up);
        left_ = corner.x + (width - across * per_mm_) / 2;
        bottom_ = corner.y + up * per_mm_;
    }

    void draw() {
        for (const PictureMark& m : picture_.marks) {
            if (!m.area.empty())
                area(m);
            else
                line(m);
        }
    }

  private:
    [[nodiscard]] PagePoint at(Point p) const {
        const Box& w = picture_.window;
        const double x = grid_to_mm(picture_.laid_down ? w.high.y - p.y : p.x - w.low.x);
        const double up = grid_to_mm(picture_.laid_down ? p.x - w.low.x : p.y - w.low.y);
        return {left_ + x * per_mm_, bottom_ - up * per_mm_};
    }
    [[nodiscard]] std::vector<std::vector<PagePoint>> rings(const Region& region) const {
        return rings_on_page(region, [this](Point p) { return at(p); });
    }
    [[nodiscard]] PagePoint middle(const Region& region) const {
        const Box b = region.bounds();
        return at({(b.low.x + b.high.x) / 2, (b.low.y + b.high.y) / 2});
    }

    void outlined(const PictureMark& m, double width, bool dashed = false) {
        for (const auto& ring : rings(m.area)) sheet_.line(ring, width, true, dashed);
    }

    void area(const PictureMark& m) {
        switch (m.shows) {
            case Shows::Board:
                return outlined(m, 0.4);
            case Shows::Bed:
            case Shows::Guest:
            case Shows::Tape:
            case Shows::Patch:
            case Shows::Cover:
                outlined(m, 0.3, true);
                if (!m.says.id.empty()) words(middle(m.area), on_.say(m.says));
                return;
            case Shows::Leftover:
                return outlined(m, 0.6);
            case Shows::Coated:
                sheet_.fill(rings(m.area), 0.93);
                return outlined(m, 0.2);
            case Shows::Edge:
            case Shows::FirstHalf:
                return sheet_.fill(rings(m.area), 0.72);
            case Shows::Frame:
            case Shows::Waste:
                sheet_.fill(rings(m.area), 0.8);
                return outlined(m, 0.15);
            case Shows::Neighbour:
                sheet_.fill(rings(m.area), 0.95);
                return outlined(m, 0.2);
            case Shows::Film:
                sheet_.fill(rings(m.area), 0.88);
                return outlined(m, 0.45);
            case Shows::Keeper: {
                sheet_.fill(rings(m.area), 0.3);
                const Box b = m.area.bounds();
                return ring(middle(m.area), grid_to_mm(std::max(b.width(), b.height())) * per_mm_ / 2 + 1.5);
            }
            default:  // ink, openings
                return sheet_.fill(rings(m.area), m.shows == Shows::Ink ? 0.3 : 0.55);
        }
    }

    void line(const PictureMark& m) {
        const PagePoint a = at(m.from), b = at(m.to);
        switch (m.shows) {
            case Shows::TapeLine:
                return sheet_.line({a, b}, 0.9);
            case Shows::Hinge:
                return sheet_.line({a, b}, 0.7, false, true);
            case Shows::Middle:
                return sheet_.line({a, b}, 0.15, false, true);
            case Shows::FilmEnd:
                sheet_.line({a, b}, 0.5);
                return words({(a.x + b.x) / 2, a.y - 1}, on_.say(m.says));
            case Shows::Distance: {
                // Short ones have no room for their measure; it stands beside the picture.
                constexpr double room = 9;
                const double long_mm = std::hypot(a.x - b.x, a.y - b.y);
                if (long_mm > 1)
                    dimension(sheet_, a, b, long_mm > room ? with_fraction_slash(on_.say(m.says)) : std::string());
                return;
            }
            case Shows::Order:
            case Shows::Fixing:
                ring(a, 2);
                return words({a.x, a.y + 1.1}, std::to_string(m.number));
            case Shows::Corner:
                sheet_.line({{a.x - 1.6, a.y}, {a.x + 1.6, a.y}}, 0.4);
                return sheet_.line({{a.x, a.y - 1.6}, {a.x, a.y + 1.6}}, 0.4);
            case Shows::Stroke:
            case Shows::Burnish:
            case Shows::Pull:
            case Shows::Feed:
            case Shows::Over:
                arrow(a, b, m.shows == Shows::Pull ? 0.8 : 0.35);
                if (m.shows == Shows::Feed) words({a.x + 2, a.y}, on_.say(m.says), Align::Left);
                return;
            default:
                return sheet_.line({a, b}, 0.25);
        }
    }

    void arrow(PagePoint a, PagePoint b, double width) {
        sheet_.line({a, b}, width);
        const double angle = std::atan2(b.y - a.y, b.x - a.x);
        constexpr double head = 2.2, spread = 0.5;
        sheet_.line({{b.x - head * std::cos(angle - spread), b.y - head * std::sin(angle - spread)},
                     b,
                     {b.x - head * std::cos(angle + spread), b.y - head * std::sin(angle + spread)}},
                    width);
    }
    void ring(PagePoint centre, double radius) {
        std::vector<PagePoint> points;
        constexpr int corners = 24;
        for (int i = 0; i < corners; ++i) {
            const double angle = 2 * std::numbers::pi * i / corners;
            points.push_back({centre.x + radius * std::cos(angle), centre.y + radius * std::sin(angle)});
        }
        sheet_.line(points, 0.3, true);
    }
    void words(PagePoint where, const std::string& say, Align align = Align::Centre) {
        sheet_.text(where.x, where.y, with_fraction_slash(say), small, false, align);
    }

    Sheet& sheet_;
    const Printing& on_;
    const StepPicture& picture_;
    double per_mm_ = 1, left_ = 0, bottom_ = 0;
};

void tick_box(Sheet& sheet, double x, double y, double side, bool ticked) {
    sheet.line({{x, y}, {x + side, y}, {x + side, y + side}, {x, y + side}}, 0.35, true);
    if (ticked)
        sheet.line(
            {{x + side * 0.2, y + side * 0.55}, {x + side * 0.42, y + side * 0.8}, {x + side * 0.85, y + side * 0.2}},
            0.6);
}

// One line for each step, day by day, with what must then dry.
void list_of_steps(Sheet& sheet, const Printing& on) {
    using std::chrono::days;
    using std::chrono::floor;
    const std::vector<Step>& steps = on.plan.bench->steps;
    for (std::size_t i = 0; i < steps.size(); ++i) {
        const auto day = floor<days>(steps[i].start);
        if (i == 0 || floor<days>(steps[i - 1].start) != day) {
            Minutes work{0};
            for (const Step& s : steps) {
                if (floor<days>(s.start) == day) work += s.hands_on;
            }
            sheet.room(18);
            if (i > 0) sheet.y += 3;
            const std::string date = show_moment(steps[i].start, true);
            sheet.text(margin_mm, sheet.y,
                       on.say("book.day", {{"day", date.substr(0, date.rfind(' '))}, {"work", work}}), body + 0.6,
                       true);
            sheet.y += 6.5;
        }
        sheet.room(6);
        tick_box(sheet, margin_mm, sheet.y - 3.4, 3.8, steps[i].done);
        sheet.text(margin_mm + 6, sheet.y, fmt::format("{}", i + 1), body, true);
        const std::string moment = show_moment(steps[i].start);
        sheet.text(margin_mm + 14, sheet.y, moment.substr(moment.rfind(' ') + 1));
        sheet.text(margin_mm + 28, sheet.y, on.say(steps[i].name));
        const std::string hands = show_minutes(steps[i].hands_on);
        sheet.text(sheet.right(), sheet.y,
                   steps[i].wait_after > Minutes(0)
                       ? on.say("book.then-dries", {{"hands", hands}, {"wait", steps[i].wait_after}})
                       : hands,
                   body, false, Align::Right);
        sheet.y += 6;
    }
}

}  // namespace

std::vector<Page> bench_book(const Job& job, const Plan& plan, const Shop& shop, const Library& library, Paper paper) {
    const Printing on{job, plan, shop, library, paper};
    if (plan.bench->steps.empty()) return {};
    Sheet list(on, on.say("book.list"));
    list_of_steps(list, on);
    std::vector<Page> pages = list.take();

    Sheet sheet(on, on.say("book.title"));
    constexpr double picture_wide = 88, picture_high = 58, block = picture_high + 14;
    int number = 0;
    for (const Step& step : plan.bench->steps) {
        sheet.room(block);
        const double top = sheet.y;
        tick_box(sheet, margin_mm, top - 4.6, 6, step.done);
        sheet.text(margin_mm + 9, top, fmt::format("{}  {}", ++number, with_fraction_slash(on.say(step.name))), large,
                   true);
        sheet.text(sheet.right(), top, show_moment(step.start, true), body, false, Align::Right);
        const StepPicture picture = picture_of(step, job, plan, shop, library.trade);
        if (!picture.window.empty())
            OnPaper(sheet, on, picture, {margin_mm, top + 4}, picture_wide, picture_high).draw();
        const double x = margin_mm + picture_wide + 6;
        const double wide = sheet.right() - x;
        double y = top + 8;
        const auto write = [&](const std::string& words, double size, bool bold = false) {
            for (const std::string& line : on.text.lines(with_fraction_slash(words), wide, size, bold)) {
                if (y > top + block - 8) return;
                sheet.text(x, y, line, size, bold);
                y += size * 1.3;
            }
        };
        write(on.say(step.instruction), 4.2, true);
        y += 1;
        for (const Reason& figure : picture.figures) write(on.say(figure), 4.2);
        y += 1;
        write(on.say(Reason{"book.check", {{"check", std::vector<Reason>{step.check}}}}), body);
        write(on.say(Reason{"book.at-hand", {{"things", std::vector<Reason>{step.at_hand}}}}), body);
        for (const Reason& caution : step.cautions) write(on.say(caution), small);
        sheet.text(x, top + block - 4, on.say("book.from-to"), small, false, Align::Left, 0.4);
        sheet.line({{x, top + block - 2.5}, {sheet.right(), top + block - 2.5}}, 0.15);
        sheet.y = top + block + 5;
    }
    for (Page& page : sheet.take()) pages.push_back(std::move(page));
    return pages;
}

}  // namespace skarvel
