// sheets/sheet_parts.h
//
// What the printed pages are made of: a sheet with its head, drawings to scale, dimensions. Only sheets/ includes it.
#pragma once

#include <algorithm>
#include <string>
#include <utility>
#include <vector>

#include "sheets/page_text.h"
#include "sheets/sheets.h"
#include "text/named.h"

namespace skarvel::sheet_parts {

constexpr double margin_mm = 14;
constexpr double small = 3.1;
constexpr double body = 3.6;
constexpr double large = 5.2;
constexpr double headed = 3.9;  // 11 points, as all words of the placement sheet

/// What is printed, on which paper, and in which words. All but the last two outlive it.
struct Printing {
    const Job& job;
    const Plan& plan;
    const Shop& shop;
    const Library& library;
    Paper paper;
    Speaker say{library.catalogue, shop.display};
    PageText text{library};

    [[nodiscard]] std::string length(Length l) const { return show(l, shop.display); }
};

// One sheet on as many pages as it takes: what no longer fits on a page goes on on the next.
class Sheet {
  public:
    Sheet(const Printing& on, const std::string& title) : on_(&on), title_(title) { begin(title); }

    double y = 0;

    [[nodiscard]] double right() const { return page_.width_mm - margin_mm; }
    [[nodiscard]] double bottom() const { return page_.height_mm - margin_mm; }
    /// A new page where less than that is left on this one. True when it is one.
    bool room(double need) {
        if (y + need <= bottom() || y <= top_mm) return false;
        pages_.push_back(std::exchange(page_, Page{}));
        begin(on_->say("sheet.continued", {{"sheet", title_}}));
        return true;
    }

  private:
    static constexpr double top_mm = 37;

    void begin(const std::string& title) {
        const Printing& on = *on_;
        const Job& job = on.job;
        page_.title = title;
        if (on.paper == Paper::Letter) {
            page_.width_mm = 215.9;
            page_.height_mm = 279.4;
        }
        text(margin_mm, 20, title, 7, true);
        std::string who = job.title;
        if (!job.number.empty()) who += ", " + on.say("sheet.number", {{"number", job.number}});
        if (!job.customer.empty()) who += ", " + on.say("sheet.customer", {{"customer", job.customer}});
        text(margin_mm, 26, who, headed);
        if (job.deadline)
            text(right(), 20, on.say("sheet.wanted", {{"deadline", *job.deadline}}), headed, false, Align::Right);
        rule(29);
        y = top_mm;
    }

  public:
    void text(double x, double at, const std::string& words, double size = body, bool bold = false,
              Align align = Align::Left, double grey = 0.1) {
        page_.marks.emplace_back(TextRun{{x, at}, with_fraction_slash(words), size, bold, align, grey});
    }
    void rule(double at) { line({{margin_mm, at}, {right(), at}}, 0.2); }
    void line(std::vector<PagePoint> points, double width = 0.25, bool closed = false, bool dashed = false,
              double grey = 0.15) {
        page_.marks.emplace_back(PageLine{std::move(points), width, closed, dashed, grey});
    }
    void fill(std::vector<std::vector<PagePoint>> rings, double grey) {
        page_.marks.emplace_back(Fill{std::move(rings), grey});
    }

    /// Broken where its words end.
    void paragraph(double x, const std::string& words, double size = body, double width = 0) {
        for (const std::string& line :
             on_->text.lines(with_fraction_slash(words), width > 0 ? width : right() - x, size)) {
            room(size * 1.35);
            text(x, y, line, size);
            y += size * 1.35;
        }
    }

    std::vector<Page> take() {
        pages_.push_back(std::move(page_));
        return std::move(pages_);
    }

  private:
    const Printing* on_;
    std::string title_;
    std::vector<Page> pages_;
    Page page_;
};

// The rings of a shape on the page, each corner put there by `at`.
template <class At>
std::vector<std::vector<PagePoint>> rings_on_page(const Region& region, const At& at) {
    std::vector<std::vector<PagePoint>> out;
    for (const Ring& ring : region.rings()) {
        auto& points = out.emplace_back();
        for (const Point& p : ring) points.push_back(at(p));
    }
    return out;
}

// A drawing to scale: face or mat frame to page.
struct Drawn {
    double left, bottom;
    double per_unit;  // page millimetres for a grid unit
    [[nodiscard]] PagePoint at(Point p) const {
        return {left + static_cast<double>(p.x) * per_unit, bottom - static_cast<double>(p.y) * per_unit};
    }
    [[nodiscard]] std::vector<std::vector<PagePoint>> rings(const Region& region) const {
        return rings_on_page(region, [this](Point p) { return at(p); });
    }
    [[nodiscard]] std::vector<PagePoint> box(const Box& b) const {
        return {at(b.low), at({b.high.x, b.low.y}), at(b.high), at({b.low.x, b.high.y})};
    }
};

inline Drawn frame_for(int scale, double left, double bottom) { return {left, bottom, grid_nm * 1e-6 / scale}; }

inline void dimension(Sheet& sheet, PagePoint from, PagePoint to, const std::string& words, double size = small) {
    sheet.line({from, to}, 0.15);
    constexpr double tick = 1.2;
    const bool level = std::abs(from.y - to.y) < 0.01;
    for (const PagePoint& p : {from, to}) {
        sheet.line(level ? std::vector<PagePoint>{{p.x, p.y - tick}, {p.x, p.y + tick}}
                         : std::vector<PagePoint>{{p.x - tick, p.y}, {p.x + tick, p.y}},
                   0.15);
    }
    if (level) {
        sheet.text((from.x + to.x) / 2, from.y - 1, words, size, false, Align::Centre);
    } else {
        sheet.text(from.x + 1.6, (from.y + to.y) / 2 + size / 3, words, size);
    }
}

}  // namespace skarvel::sheet_parts

namespace skarvel {

/// How the blank is built: its outline with pins, springing line and centre marks, where it hangs, the cut list with a
/// diagram of what is sawn from what, and the marks on a post. None for a plain board with nothing to build.
std::vector<Page> building_sheets(const sheet_parts::Printing& on);

}  // namespace skarvel
