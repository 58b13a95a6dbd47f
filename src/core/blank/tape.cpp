#include "blank/tape.h"

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>

namespace skarvel {
namespace {

using Vector = Eigen::VectorXd;

// Lower left corner at 0, lower side level; millimetres. The last unknown is the bow.
enum Unknown { BottomX, TopRightX, TopRightY, TopLeftX, TopLeftY, Bow, unknowns };

constexpr double inch = 25.4;
constexpr double anywhere = 50;  // mm: says next to nothing

struct Likely {
    double taper, ends, diagonals, bow;  // mm, one standard deviation
};
// Boards as they come from the yard: common practice.
constexpr Likely usual_board{inch / 8, inch / 8, inch / 8, inch / 16};

double distance(double x0, double y0, double x1, double y1) { return std::hypot(x1 - x0, y1 - y0); }

double reading_of(const Vector& v, Reading reading) {
    switch (reading) {
        case Reading::Bottom:
            return v[BottomX];
        case Reading::Top:
            return distance(v[TopLeftX], v[TopLeftY], v[TopRightX], v[TopRightY]);
        case Reading::Left:
            return std::hypot(v[TopLeftX], v[TopLeftY]);
        case Reading::Right:
            return distance(v[BottomX], 0, v[TopRightX], v[TopRightY]);
        case Reading::Rising:
            return std::hypot(v[TopRightX], v[TopRightY]);
        case Reading::Falling:
            return distance(v[BottomX], 0, v[TopLeftX], v[TopLeftY]);
        case Reading::Middle:
            return distance(v[TopLeftX] / 2, v[TopLeftY] / 2, (v[BottomX] + v[TopRightX]) / 2, v[TopRightY] / 2) +
                   v[Bow];
    }
    return 0;
}

struct Given {
    std::array<std::optional<double>, reading_count> mm;
    double length = 0, width = 0, spread = 1;
    [[nodiscard]] bool has(Reading r) const { return mm.at(static_cast<std::size_t>(r)).has_value(); }
};

// Differences to what is given and to what is likely, each over its spread.
Vector residuals(const Vector& v, const Given& given, const Likely& likely) {
    std::vector<double> rows;
    for (std::size_t i = 0; i < reading_count; ++i) {
        if (given.mm[i]) rows.push_back((reading_of(v, static_cast<Reading>(i)) - *given.mm[i]) / given.spread);
    }
    const double top = reading_of(v, Reading::Top);
    const double left = reading_of(v, Reading::Left);
    const double right = reading_of(v, Reading::Right);
    rows.push_back((top - v[BottomX]) / likely.taper);
    rows.push_back((right - left) / likely.ends);
    rows.push_back((reading_of(v, Reading::Rising) - reading_of(v, Reading::Falling)) / 2 / likely.diagonals);
    rows.push_back(v[Bow] / likely.bow);
    if (!given.has(Reading::Bottom) && !given.has(Reading::Top) && !given.has(Reading::Middle))
        rows.push_back((top + v[BottomX] - 2 * given.width) / given.spread);
    if (!given.has(Reading::Left) && !given.has(Reading::Right))
        rows.push_back((left + right - 2 * given.length) / given.spread);
    return Eigen::Map<Vector>(rows.data(), static_cast<Eigen::Index>(rows.size()));
}

struct FittedBoard {
    Vector at;
    double cost = 0;  // sum of squared residuals
};

FittedBoard fit(const Given& given, const Likely& likely) {
    const auto either = [&](Reading a, Reading b, double otherwise) {
        const auto& first = given.mm.at(static_cast<std::size_t>(a));
        return first ? *first : given.mm.at(static_cast<std::size_t>(b)).value_or(otherwise);
    };
    const double width = either(Reading::Bottom, Reading::Top, given.width);
    const double length = either(Reading::Left, Reading::Right, given.length);
    Vector v(unknowns);
    v << width, width, length, 0, length, 0;
    constexpr int rounds = 40;
    constexpr double step = 1e-4;
    Vector r = residuals(v, given, likely);
    for (int round = 0; round < rounds; ++round) {
        Eigen::MatrixXd slope(r.size(), unknowns);
        for (int k = 0; k < unknowns; ++k) {
            Vector more = v, less = v;
            more[k] += step;
            less[k] -= step;
            slope.col(k) = (residuals(more, given, likely) - residuals(less, given, likely)) / (2 * step);
        }
        Vector change = slope.colPivHouseholderQr().solve(-r);
        // Readings that cannot be lead far away: halved until it helps.
        bool better = false;
        for (int half = 0; half < 20 && !better; ++half, change *= 0.5) {
            const Vector next = v + change;
            const Vector after = residuals(next, given, likely);
            if (after.squaredNorm() <= r.squaredNorm()) {
                v = next;
                r = after;
                better = true;
            }
        }
        if (!better || change.norm() < 1e-9) break;
    }
    return {v, r.squaredNorm()};
}

// What the readings alone say; the bow is free where all three widths were taken.
Likely open_minded(const Given& given) {
    const bool three = given.has(Reading::Bottom) && given.has(Reading::Top) && given.has(Reading::Middle);
    return {anywhere, anywhere, anywhere, three ? anywhere : 1e-3};
}

struct Suspect {
    Reading reading;
    double cost;
    double should_be;
};

std::vector<Suspect> suspects(const Given& given) {
    std::vector<Suspect> found;
    for (std::size_t i = 0; i < reading_count; ++i) {
        if (!given.mm[i]) continue;
        Given others = given;
        others.mm[i].reset();
        const FittedBoard without = fit(others, usual_board);
        found.push_back({static_cast<Reading>(i), without.cost, reading_of(without.at, static_cast<Reading>(i))});
    }
    std::stable_sort(found.begin(), found.end(), [](const Suspect& a, const Suspect& b) { return a.cost < b.cost; });
    return found;
}

constexpr double three_spreads = 9;

void accuse(const Given& given, TapePlan& plan) {
    constexpr double nearly_as_well = 4;
    const FittedBoard open = fit(given, open_minded(given));
    const double whole = fit(given, usual_board).cost;
    std::vector<Suspect> found = suspects(given);
    if (found.size() < 3) return;
    const bool disagree = open.cost > three_spreads;
    // Three widths that only a strangely tapered and bowed board explains; an even taper is a board like any other.
    const bool strange = given.has(Reading::Middle) && std::abs(open.at[Bow]) > 2 * given.spread && whole > 16 &&
                         found.front().cost + three_spreads < whole;
    if (!disagree && !strange) return;
    for (const Suspect& s : found) {
        if (s.cost <= found.front().cost + nearly_as_well && plan.cannot_be.size() < 3)
            plan.cannot_be.push_back(s.reading);
    }
    plan.should_be = Length::from_mm(found.front().should_be);
}

// How far off a size that was found may be from the one that the board goes by, as a share of it.
constexpr double most_off = 0.25;
constexpr double least_off = 12.7;  // mm

bool no_board(const Given& given, const FittedBoard& found) {
    const Vector& v = found.at;
    const auto wild = [](double mm, double named) {
        return mm <= 0 || (named > 0 && std::abs(mm - named) > std::max(least_off, most_off * named));
    };
    return found.cost > three_spreads || wild((v[BottomX] + v[TopRightX] - v[TopLeftX]) / 2, given.width) ||
           wild((v[TopLeftY] + v[TopRightY]) / 2, given.length);
}

// What four sides and one diagonal cannot decide.
bool one_diagonal(const Given& given) {
    return given.has(Reading::Rising) != given.has(Reading::Falling) && given.has(Reading::Left) &&
           given.has(Reading::Right) && given.has(Reading::Bottom) && given.has(Reading::Top);
}

}  // namespace

bool Readings::any() const {
    return std::any_of(taken.begin(), taken.end(), [](const auto& reading) { return reading.has_value(); });
}

TapePlan reconstruct(const Readings& readings, Length length, Length width) {
    TapePlan plan;
    Given given;
    given.length = length.in_mm();
    given.width = width.in_mm();
    given.spread = std::max(0.05, readings.tolerance.value.in_mm() / 2);
    for (std::size_t i = 0; i < reading_count; ++i) {
        if (readings.taken.at(i)) given.mm.at(i) = readings.taken.at(i)->value.in_mm();
    }
    accuse(given, plan);
    if (!plan.cannot_be.empty()) given.mm.at(static_cast<std::size_t>(plan.cannot_be.front())).reset();
    FittedBoard found = fit(given, open_minded(given));
    if (no_board(given, found) && length > Length{} && width > Length{}) {
        plan.refused = true;
        plan.problems.push_back({{"tape.no-board", {{"length", length}, {"width", width}}},
                                 Station::Blank,
                                 {"tape.measure-again", {}},
                                 Mark::Stop});
        given.mm = {};
        found = fit(given, open_minded(given));
    }
    const Vector& v = found.at;
    plan.corners = {Point{0, 0}, Point{mm_to_grid(v[BottomX]), 0},
                    Point{mm_to_grid(v[TopRightX]), mm_to_grid(v[TopRightY])},
                    Point{mm_to_grid(v[TopLeftX]), mm_to_grid(v[TopLeftY])}};
    plan.bow = Length::from_mm(v[Bow]);
    for (std::size_t i = 0; i < reading_count; ++i) {
        if (given.mm.at(i)) {
            const double off = std::abs(reading_of(v, static_cast<Reading>(i)) - *given.mm.at(i));
            plan.worst = std::max(plan.worst, Length::from_mm(off));
        }
    }
    const double left = reading_of(v, Reading::Left);
    const double right = reading_of(v, Reading::Right);
    plan.taper = Length::from_mm(reading_of(v, Reading::Top) - v[BottomX]);
    plan.out_of_square = Length::from_mm(right - left);
    plan.skew = Length::from_mm((v[TopLeftX] + v[TopRightX] - v[BottomX]) / 2);
    const auto size = [](Length l) { return l < Length{} ? -l : l; };
    const Length least = readings.tolerance.value;
    plan.bows = size(plan.bow) > least;
    plan.from_centre = size(plan.taper) > least || size(plan.bow) > least;
    if (size(plan.taper) > least)
        plan.words.push_back(
            {plan.taper > Length{} ? "tape.wider-top" : "tape.wider-bottom", {{"by", size(plan.taper)}}});
    if (size(plan.out_of_square) > least)
        plan.words.push_back({plan.out_of_square > Length{} ? "tape.longer-right" : "tape.longer-left",
                              {{"by", size(plan.out_of_square)}}});
    if (given.has(Reading::Rising) || given.has(Reading::Falling)) {
        // What a square laid on the lower end shows across the board's width.
        const Length lean = Length::from_mm(plan.skew.in_mm() * v[BottomX] / std::max(1.0, std::max(left, right)));
        if (size(lean) > least && one_diagonal(given))
            plan.problems.push_back(
                {{"tape.one-diagonal", {{"by", size(lean)}}}, Station::Blank, {"tape.other-diagonal", {}}, Mark::Look});
        if (size(lean) > least)
            plan.words.push_back({plan.skew > Length{} ? "tape.leans-right" : "tape.leans-left", {{"by", size(lean)}}});
    }
    if (plan.bows)
        plan.words.push_back({plan.bow > Length{} ? "tape.bows-out" : "tape.bows-in", {{"by", size(plan.bow)}}});
    if (plan.refused) return plan;
    if (plan.words.empty()) plan.words.push_back({"tape.true", {{"by", least}}});
    plan.words.push_back({plan.from_centre ? "tape.from-centre" : "tape.from-edge", {}});
    return plan;
}

std::string name_of(Reading reading) {
    static constexpr std::array names{"tape.bottom", "tape.middle", "tape.top",    "tape.left",
                                      "tape.right",  "tape.rising", "tape.falling"};
    return names.at(static_cast<std::size_t>(reading));
}

}  // namespace skarvel
