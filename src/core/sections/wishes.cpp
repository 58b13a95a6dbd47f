#include "sections/wishes.h"

#include <algorithm>
#include <map>

#include "sections/draft.h"

namespace skarvel {
namespace {

using dividing::high;
using dividing::low;

constexpr Length meets_within = 0.125_in;  // a seam ends on another where they come this close, beside the lap

void set_low(Axis axis, Box& box, std::int64_t to) { (axis == Axis::X ? box.low.x : box.low.y) = to; }
void set_high(Axis axis, Box& box, std::int64_t to) { (axis == Axis::X ? box.high.x : box.high.y) = to; }

Piece bound(const std::vector<Piece>& pieces, const std::vector<std::size_t>& of) {
    Piece one = pieces[of.front()];
    std::vector<Region> shapes;
    one.letters.clear();
    for (const std::size_t i : of) {
        shapes.push_back(pieces[i].shape);
        one.letters += (!one.letters.empty() && pieces[i].starts_word ? " " : "") + pieces[i].letters;
    }
    one.shape = merge(shapes);
    return one;
}

class Wishing {
  public:
    Wishing(const std::vector<Piece>& pieces, const Box& face, const Box& available, const Room& room,
            const MakingPlan& making)
        : pieces_(pieces), face_(face), available_(available), room_(room), making_(making) {}

    Wished run() {
        const std::vector<PieceName> names = names_of(pieces_);
        for (std::size_t i = 0; i < names.size(); ++i) place_[names[i]] = i;
        set_apart();
        WishedCell whole{available_, std::nullopt, {}, {}};
        bind(whole);
        for (const SeamWish& w : making_.wishes.seams) {
            if (w.never) {
                forbid(w);
            } else {
                wanted_.push_back(&w);
            }
        }
        split(std::move(whole));
        for (const SeamWish* w : wanted_) tell({"wish.seam-unused", {{"at", w->at.value}}}, {"wish.seam-remedy", {}});
        return std::move(out_);
    }

  private:
    void tell(Reason what, Reason remedy) {
        out_.problems.push_back({std::move(what), Station::Sections, std::move(remedy), Mark::Look});
    }

    std::optional<std::size_t> find(const PieceName& name) {
        const auto at = place_.find(name);
        if (at != place_.end()) return at->second;
        tell({"wish.no-piece", {{"letters", name.letters}}}, {"wish.forget", {}});
        return std::nullopt;
    }

    void set_apart() {
        for (const PieceName& name : making_.wishes.apart) {
            if (const auto at = find(name)) out_.apart.push_back(*at);
        }
        std::sort(out_.apart.begin(), out_.apart.end());
        out_.apart.erase(std::unique(out_.apart.begin(), out_.apart.end()), out_.apart.end());
    }

    [[nodiscard]] bool fits(const Region& shape) const {
        const Box film = common(grown(shape.bounds(), making_.margin), available_);
        const std::int64_t a = to_grid(room_.across);
        const std::int64_t b = to_grid(room_.along);
        return (film.width() <= a && film.height() <= b) || (room_.turns && film.width() <= b && film.height() <= a) ||
               slant_for(film.width(), film.height(), room_).has_value();
    }

    void bind(WishedCell& cell) {
        std::vector<bool> taken(pieces_.size());
        for (const std::size_t i : out_.apart) taken[i] = true;
        for (const auto& wish : making_.wishes.bound) {
            std::vector<std::size_t> of;
            for (const PieceName& name : wish) {
                const auto at = find(name);
                if (at && !taken[*at]) of.push_back(*at);
            }
            std::sort(of.begin(), of.end());
            of.erase(std::unique(of.begin(), of.end()), of.end());
            if (of.size() < 2) continue;
            Piece one = bound(pieces_, of);
            if (!fits(one.shape)) {
                const Box box = one.shape.bounds();
                tell({"wish.bound-too-large",
                      {{"letters", one.letters},
                       {"long", from_grid(std::max(box.width(), box.height())) + making_.margin * 2},
                       {"along", std::max(room_.along, room_.across)}}},
                     {"wish.bound-remedy", {}});
                continue;
            }
            for (const std::size_t i : of) taken[i] = true;
            cell.pieces.push_back(std::move(one));
            cell.of.push_back(std::move(of));
        }
        for (std::size_t i = 0; i < pieces_.size(); ++i) {
            if (taken[i]) continue;
            cell.pieces.push_back(pieces_[i]);
            cell.of.push_back({i});
        }
    }

    [[nodiscard]] std::int64_t place_of(const SeamWish& w) const { return low(w.axis, face_) + to_grid(w.at.value); }

    void forbid(const SeamWish& w) {
        const std::int64_t at = place_of(w);
        const bool everywhere = w.from == w.to;
        const std::int64_t base = low(other(w.axis), face_);
        out_.never.push_back({w.axis, at - to_grid(w.around), at + to_grid(w.around),
                              everywhere ? low(other(w.axis), face_) : base + to_grid(w.from),
                              everywhere ? high(other(w.axis), face_) : base + to_grid(w.to)});
    }

    // A wanted seam that spans the cell divides it, and what it leaves is looked at again.
    void split(WishedCell cell) {
        const std::int64_t near = to_grid(meets_within) + to_grid(making_.lap);
        for (auto w = wanted_.begin(); w != wanted_.end(); ++w) {
            const SeamWish& wish = **w;
            const Axis across = other(wish.axis);
            const std::int64_t base = low(across, face_);
            const bool everywhere = wish.from == wish.to;
            const bool spans = everywhere || (base + to_grid(wish.from) <= low(across, cell.available) + near &&
                                              base + to_grid(wish.to) >= high(across, cell.available) - near);
            const std::int64_t at = place_of(wish);
            if (!spans || at <= low(wish.axis, cell.available) || at >= high(wish.axis, cell.available)) continue;
            std::optional<std::pair<WishedCell, WishedCell>> sides = divided(cell, wish.axis, at);
            if (!sides) continue;
            // One that spans the whole face may divide several cells.
            if (!everywhere || cell.available == available_) wanted_.erase(w);
            split(std::move(sides->first));
            split(std::move(sides->second));
            return;
        }
        out_.cells.push_back(std::move(cell));
    }

    std::optional<std::pair<WishedCell, WishedCell>> divided(const WishedCell& cell, Axis axis, std::int64_t at) {
        std::int64_t last = low(axis, cell.available);
        std::int64_t next = high(axis, cell.available);
        Length ink;
        int below = 0;
        int above = 0;
        for (const Piece& p : cell.pieces) {
            const Box box = p.shape.bounds();
            if (high(axis, box) <= at) {
                last = std::max(last, high(axis, box));
                ++below;
            } else if (low(axis, box) >= at) {
                next = std::min(next, low(axis, box));
                ++above;
            } else {
                ink += crossed(p.shape, axis, at);
                ++below;
                ++above;
            }
        }
        if (below == 0 || above == 0) return std::nullopt;
        const bool crosses = ink > Length{};
        const bool mask = making_.way == Way::PaintThrough;
        const std::int64_t half = to_grid(making_.lap) / 2;
        const bool room = at - last >= half + to_grid(off_neighbour) && next - at >= half + to_grid(off_neighbour);
        const bool laps = half > 0 && (crosses || (mask && room));
        WishedCell lower{cell.available, cell.available, {}, {}};
        WishedCell upper = lower;
        if (cell.own) lower.own = upper.own = cell.own;
        set_high(axis, *lower.own, at);
        set_low(axis, *upper.own, at);
        set_high(axis, lower.available, at + (laps ? half : 0));
        set_low(axis, upper.available, at - (laps ? half : 0));
        for (std::size_t i = 0; i < cell.pieces.size(); ++i) {
            const Box box = cell.pieces[i].shape.bounds();
            const bool straddles = low(axis, box) < at && high(axis, box) > at;
            for (WishedCell* side : {&lower, &upper}) {
                if (!straddles) {
                    if ((high(axis, box) <= at) != (side == &lower)) continue;
                    side->pieces.push_back(cell.pieces[i]);
                } else {
                    Piece part = cell.pieces[i];
                    part.shape = intersect(part.shape, Region::rectangle(*side->own));
                    if (part.shape.empty()) continue;
                    side->pieces.push_back(std::move(part));
                }
                side->of.push_back(cell.of[i]);
            }
        }
        if (lower.pieces.empty() || upper.pieces.empty()) return std::nullopt;
        const Length lap = laps ? making_.lap : Length{};
        out_.seams.push_back({axis,
                              at,
                              low(other(axis), cell.available),
                              high(other(axis), cell.available),
                              false,
                              lap,
                              ink,
                              {crosses ? "seam.wished-crosses"
                               : laps  ? "seam.wished"
                                       : "seam.wished-butt",
                               {{"lap", lap}, {"ink", ink}}}});
        return std::pair(std::move(lower), std::move(upper));
    }

    const std::vector<Piece>& pieces_;
    Box face_, available_;
    Room room_;
    const MakingPlan& making_;
    std::map<PieceName, std::size_t> place_;
    std::vector<const SeamWish*> wanted_;
    Wished out_;
};

}  // namespace

std::vector<PieceName> names_of(const std::vector<Piece>& pieces) {
    std::map<std::pair<std::string, int>, int> seen;
    std::vector<PieceName> names;
    for (const Piece& p : pieces) names.push_back({p.letters, p.first, seen[{p.letters, p.first}]++});
    return names;
}

std::pair<std::int64_t, std::int64_t> gap_around(const Seam& seam, const std::vector<Piece>& pieces) {
    const std::int64_t half_inch = to_grid(0.5_in);
    std::int64_t from = seam.where - half_inch;
    std::int64_t to = seam.where + half_inch;
    if (seam.stepped || seam.crossed > Length{}) return {from, to};
    from = std::numeric_limits<std::int64_t>::min();
    to = std::numeric_limits<std::int64_t>::max();
    for (const Piece& p : pieces) {
        const Box box = p.shape.bounds();
        if (high(other(seam.axis), box) <= seam.from || low(other(seam.axis), box) >= seam.to) continue;
        if (high(seam.axis, box) <= seam.where) from = std::max(from, high(seam.axis, box));
        if (low(seam.axis, box) >= seam.where) to = std::min(to, low(seam.axis, box));
    }
    if (from == std::numeric_limits<std::int64_t>::min()) from = seam.where - half_inch;
    if (to == std::numeric_limits<std::int64_t>::max()) to = seam.where + half_inch;
    return {from, to};
}

Wished with_wishes(const std::vector<Piece>& pieces, const Box& face, const Box& available, const Room& room,
                   const MakingPlan& making) {
    return Wishing(pieces, face, available, room, making).run();
}

}  // namespace skarvel
