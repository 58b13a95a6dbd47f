#include "job/wish_commands.h"

#include <algorithm>
#include <set>

namespace skarvel {
namespace {

constexpr Length same_place = Length::nanometres(2 * grid_nm);

std::int64_t low_edge(const ColourPlan& plan, Axis axis) { return along(axis, plan.face->blank->face.low); }

// Where a seam's ends are, from the edge of the face; both zero where it runs from edge to edge.
std::pair<Length, Length> ends_of(const ColourPlan& plan, const Seam& seam) {
    const Box& face = plan.face->blank->face;
    const Axis across = other(seam.axis);
    if (seam.from <= along(across, face.low) && seam.to >= along(across, face.high)) return {};
    return {from_grid(seam.from - along(across, face.low)), from_grid(seam.to - along(across, face.low))};
}

// A seam and those that it ends on, and those that they end on.
void keep(Job& job, const ColourAt& at, const ColourPlan& plan, std::size_t seam, const Measure& where,
          std::set<std::size_t>& kept) {
    if (!kept.insert(seam).second) return;
    const Seam& s = plan.cut.loads->seams[seam];
    Wishes& wishes = wishes_of(job, at);
    const auto [from, to] = ends_of(plan, s);
    if (const auto known = wish_for(job, at, plan, s)) {
        wishes.seams[*known].at = where;
    } else {
        wishes.seams.push_back({false, s.axis, where, {}, from, to});
    }
    const std::int64_t near = to_grid(s.lap) + to_grid(plan.cut.making.lap) + to_grid(0.125_in);
    for (std::size_t i = 0; i < plan.cut.loads->seams.size(); ++i) {
        const Seam& end = plan.cut.loads->seams[i];
        if (end.axis == s.axis || end.from > s.where || end.to < s.where) continue;
        if (std::abs(end.where - s.from) > near && std::abs(end.where - s.to) > near) continue;
        keep(job, at, plan, i, measure_of(place_of(plan, end), {}), kept);
    }
}

Seam across_face(const ColourPlan& plan, Axis axis, std::int64_t where) {
    Seam seam;
    seam.axis = axis;
    seam.where = where;
    seam.from = along(other(axis), plan.face->blank->face.low);
    seam.to = along(other(axis), plan.face->blank->face.high);
    return seam;
}

void forbid_near(Wishes& wishes, const ColourPlan& plan, const Seam& s, const Display& display) {
    const auto [from, to] = gap_around(s, *plan.cut.pieces);
    const auto [cross_from, cross_to] = ends_of(plan, s);
    const Length middle = from_grid((from + to) / 2 - low_edge(plan, s.axis));
    wishes.seams.push_back(
        {true, s.axis, measure_of(middle, display), from_grid((to - from + 1) / 2), cross_from, cross_to});
}

bool holds(const std::vector<PieceName>& some, const PieceName& name) {
    return std::find(some.begin(), some.end(), name) != some.end();
}

}  // namespace

Wishes& wishes_of(Job& job, const ColourAt& at) {
    return job.signs.at(at.face.sign).faces.at(at.face.face).colours.at(at.colour).making.wishes;
}

const Wishes& wishes_of(const Job& job, const ColourAt& at) {
    return job.signs.at(at.face.sign).faces.at(at.face.face).colours.at(at.colour).making.wishes;
}

std::optional<std::size_t> wish_for(const Job& job, const ColourAt& at, const ColourPlan& plan, const Seam& seam) {
    const Wishes& wishes = wishes_of(job, at);
    for (std::size_t i = 0; i < wishes.seams.size(); ++i) {
        const SeamWish& w = wishes.seams[i];
        const Length off = w.at.value - place_of(plan, seam);
        if (w.never || w.axis != seam.axis || off > same_place || Length{} - off > same_place) continue;
        return i;
    }
    return std::nullopt;
}

Length place_of(const ColourPlan& plan, const Seam& seam) { return from_grid(seam.where - low_edge(plan, seam.axis)); }

TriedSeam try_seam(const ColourPlan& plan, const Seam& seam, std::int64_t where, const Display& display) {
    const std::int64_t step =
        to_grid(display.unit == Unit::Inch ? Length::inches(1) / display.denominator : Length::from_mm(1));
    const std::int64_t edge = low_edge(plan, seam.axis);
    const std::int64_t off = where - edge;
    TriedSeam out;
    out.where = edge + (off + step / 2) / step * step;
    out.at = measure_of(from_grid(out.where - edge), display);
    for (const Piece& p : *plan.cut.pieces) {
        const Box box = p.shape.bounds();
        const Axis across = other(seam.axis);
        if (along(across, box.high) > seam.from && along(across, box.low) < seam.to)
            out.crossed += crossed(p.shape, seam.axis, out.where);
    }
    return out;
}

Job move_seam(const Job& job, const ColourAt& at, const ColourPlan& plan, std::size_t seam, const Measure& to) {
    if (seam >= plan.cut.loads->seams.size()) return job;
    Job out = job;
    std::set<std::size_t> kept;
    keep(out, at, plan, seam, to, kept);
    return out;
}

Job forbid_seam(const Job& job, const ColourAt& at, const ColourPlan& plan, std::size_t seam, const Display& display) {
    if (seam >= plan.cut.loads->seams.size()) return job;
    const Seam& s = plan.cut.loads->seams[seam];
    Job out = job;
    Wishes& wishes = wishes_of(out, at);
    if (const auto known = wish_for(job, at, plan, s))
        wishes.seams.erase(wishes.seams.begin() + static_cast<long>(*known));
    forbid_near(wishes, plan, s, display);
    return out;
}

Job want_seam(const Job& job, const ColourAt& at, const ColourPlan& plan, Axis axis, std::int64_t where,
              const Display& display) {
    const Measure place = try_seam(plan, across_face(plan, axis, where), where, display).at;
    Job out = job;
    std::vector<SeamWish>& seams = wishes_of(out, at).seams;
    const bool known = std::any_of(seams.begin(), seams.end(), [&](const SeamWish& w) {
        return !w.never && w.axis == axis && w.at.value == place.value;
    });
    if (!known) seams.push_back({false, axis, place, {}, {}, {}});
    return out;
}

Job forbid_seams_at(const Job& job, const ColourAt& at, const ColourPlan& plan, Axis axis, std::int64_t where,
                    const Display& display) {
    Seam seam = across_face(plan, axis, where);
    for (const Piece& p : *plan.cut.pieces) seam.crossed += crossed(p.shape, axis, where);
    Job out = job;
    forbid_near(wishes_of(out, at), plan, seam, display);
    return out;
}

Job free_seam(const Job& job, const ColourAt& at, std::size_t wish) {
    Job out = job;
    Wishes& wishes = wishes_of(out, at);
    if (wish < wishes.seams.size()) wishes.seams.erase(wishes.seams.begin() + static_cast<long>(wish));
    return out;
}

Job bind_pieces(const Job& job, const ColourAt& at, const std::vector<PieceName>& pieces) {
    std::set<PieceName> all(pieces.begin(), pieces.end());
    if (all.size() < 2) return job;
    Job out = free_pieces(job, at, {});
    Wishes& wishes = wishes_of(out, at);
    std::erase_if(wishes.bound, [&](const std::vector<PieceName>& group) {
        const bool shares =
            std::any_of(group.begin(), group.end(), [&](const PieceName& n) { return all.contains(n); });
        if (shares) all.insert(group.begin(), group.end());
        return shares;
    });
    std::erase_if(wishes.apart, [&](const PieceName& n) { return all.contains(n); });
    wishes.bound.emplace_back(all.begin(), all.end());
    return out;
}

Job set_apart(const Job& job, const ColourAt& at, const std::vector<PieceName>& pieces) {
    Job out = free_pieces(job, at, pieces);
    Wishes& wishes = wishes_of(out, at);
    for (const PieceName& n : pieces) {
        if (!holds(wishes.apart, n)) wishes.apart.push_back(n);
    }
    return out;
}

Job free_pieces(const Job& job, const ColourAt& at, const std::vector<PieceName>& pieces) {
    Job out = job;
    Wishes& wishes = wishes_of(out, at);
    std::erase_if(wishes.apart, [&](const PieceName& n) { return holds(pieces, n); });
    for (auto& group : wishes.bound) std::erase_if(group, [&](const PieceName& n) { return holds(pieces, n); });
    std::erase_if(wishes.bound, [](const std::vector<PieceName>& group) { return group.size() < 2; });
    return out;
}

Job masks_again(const Job& job, const Plan& plan, bool wanted) {
    Job out = job;
    for (const ColourPlan& colour : plan.colours) {
        const auto at = place_of(out, colour.id);
        if (at && (colour.cut.loads->had_before > 0 || !wanted)) wishes_of(out, *at).masks_again = wanted;
    }
    return out;
}

Job forget_wishes(const Job& job, const ColourAt& at) {
    Job out = job;
    wishes_of(out, at) = {};
    return out;
}

}  // namespace skarvel
