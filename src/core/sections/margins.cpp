#include "sections/margins.h"

#include <algorithm>
#include <limits>

namespace skarvel::dividing {
namespace {

constexpr std::int64_t speck = to_grid(0.005_in);  // narrower than that, nothing is told from an edge
constexpr std::int64_t hold = to_grid(0.125_in);   // film hangs together over an edge as long as that

double area_of(const Box& box) { return box.empty() ? 0 : grid_to_mm(box.width()) * grid_to_mm(box.height()); }

// `from` without `what`, in boxes that do not overlap.
void without(const Box& from, const Box& what, std::vector<Box>& out) {
    const Box shared = common(from, what);
    if (shared.empty()) {
        out.push_back(from);
        return;
    }
    const auto add = [&](const Box& box) {
        if (!box.empty()) out.push_back(box);
    };
    add({from.low, {from.high.x, shared.low.y}});
    add({{from.low.x, shared.high.y}, from.high});
    add({{from.low.x, shared.low.y}, {shared.low.x, shared.high.y}});
    add({{shared.high.x, shared.low.y}, {from.high.x, shared.high.y}});
}

bool hang_together(const Box& a, const Box& b) {
    const Box shared = common(a, b);
    return std::min(shared.width(), shared.height()) >= 0 && std::max(shared.width(), shared.height()) >= hold;
}

class Margins {
  public:
    Margins(Division& division, const std::vector<Box>& boxes, const Context& context)
        : division_(division), boxes_(boxes), context_(context) {
        for (std::size_t p = 0; p < division.parts.size(); ++p) {
            const Part& part = division.parts[p];
            Box ink;
            for (const std::size_t piece : part.pieces) ink = around(ink, ink_of(p, piece));
            // Less than its lap remains beside ink where the gap is narrow.
            const Box inner = grown(part.film, Length{} - context.making.lap);
            cores_.push_back(common(part.film, around(inner, grown(ink, off_neighbour))));
            solid_.push_back({part.film});
        }
    }

    void run() {
        for (std::size_t p = 0; p < division_.parts.size(); ++p) {
            for (const std::size_t piece : division_.parts[p].pieces) {
                for (const Box& spot : bare_around(p, piece)) give(spot);
            }
        }
        for (std::size_t p = 0; p < division_.parts.size(); ++p) {
            const std::vector<Box> out = cut_out_of(p, division_.parts[p].film);
            division_.parts[p].without.insert(division_.parts[p].without.end(), out.begin(), out.end());
        }
    }

  private:
    [[nodiscard]] Box ink_of(std::size_t part, std::size_t piece) const {
        const std::optional<Box>& cell = division_.parts[part].cell;
        return cell ? common(boxes_[piece], *cell) : boxes_[piece];
    }

    // What of a piece's margin no film reaches.
    [[nodiscard]] std::vector<Box> bare_around(std::size_t part, std::size_t piece) const {
        const Box ink = ink_of(part, piece);
        if (ink.empty()) return {};
        std::vector<Box> bare{common(grown(ink, context_.making.margin), context_.available)};
        for (const Part& other : division_.parts) {
            std::vector<Box> left;
            for (const Box& box : bare) without(box, other.film, left);
            bare = std::move(left);
            if (bare.empty()) break;
        }
        std::erase_if(bare, [](const Box& box) { return std::min(box.width(), box.height()) < speck; });
        return bare;
    }

    // To the film beside it that grows the least; around a neighbour's film it grows at twice the price.
    void give(const Box& spot) {
        std::size_t taker = division_.parts.size();
        double least = std::numeric_limits<double>::max();
        for (std::size_t p = 0; p < division_.parts.size(); ++p) {
            const Box& film = division_.parts[p].film;
            if (!film.meets(spot)) continue;
            const Box longer = around(film, spot);
            if (!context_.fits(longer.width(), longer.height())) continue;
            const bool cut_out = !cut_out_of(p, longer).empty();
            const bool holds = std::any_of(solid_[p].begin(), solid_[p].end(),
                                           [&](const Box& solid) { return hang_together(solid, spot); });
            if (cut_out && !holds) continue;
            const double cost = (area_of(longer) - area_of(film)) * (cut_out ? 2 : 1);
            if (cost >= least) continue;
            least = cost;
            taker = p;
        }
        if (taker == division_.parts.size()) {
            division_.bare_mm2 += area_of(spot);
            return;
        }
        Box& film = division_.parts[taker].film;
        film = around(film, spot);
        solid_[taker].push_back(cut_out_of(taker, film).empty() ? film : spot);
    }

    // A film that grows over another's is cut out there, but for the lap; never within what it was at first.
    [[nodiscard]] std::vector<Box> cut_out_of(std::size_t part, const Box& film) const {
        std::vector<Box> out;
        for (std::size_t p = 0; p < cores_.size(); ++p) {
            const Box over = common(cores_[p], film);
            if (p != part && !over.empty()) without(over, solid_[part].front(), out);
        }
        return out;
    }

    Division& division_;
    const std::vector<Box>& boxes_;
    const Context& context_;
    std::vector<Box> cores_;               ///< of each film as it was divided, what no other may lie over
    std::vector<std::vector<Box>> solid_;  ///< of each film, what no neighbour is cut out of; first as it was divided
};

}  // namespace

void meet_margins(Division& division, const std::vector<Box>& boxes, const Context& context) {
    if (!context.mask || context.whole_margins()) return;
    Margins(division, boxes, context).run();
}

}  // namespace skarvel::dividing
