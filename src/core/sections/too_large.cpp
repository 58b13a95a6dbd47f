#include "sections/too_large.h"

#include "sections/draft.h"

#include <algorithm>
#include <optional>

namespace skarvel {

using namespace dividing;

namespace {

constexpr std::size_t most_named = 6;

// The face without seams.
Context whole(const Room& room, const Length margin) {
    Context context;
    context.room = room;
    context.making.margin = margin;
    return context;
}

bool holds(const Room& room, const std::vector<Box>& inks, const Length margin, const Box& face) {
    const Context context = whole(room, margin);
    return std::all_of(inks.begin(), inks.end(), [&](const Box& ink) {
        const Box film = context.film_for(ink, face);
        return context.fits(film.width(), film.height());
    });
}

// The widest margin in eighths with which none need be divided; none below what the tool asks for.
std::optional<Length> widest_margin(const Room& room, const std::vector<Box>& inks, const MakingPlan& making,
                                    const Box& face) {
    constexpr Length step = 0.125_in;
    const Length least = making.way == Way::PaintThrough ? making.tool.margin : Length{};
    Length margin = step * ((making.margin.nm() - 1) / step.nm());
    for (; margin >= least && margin > Length{}; margin = margin - step) {
        if (holds(room, inks, margin, face)) return margin;
    }
    return std::nullopt;
}

// The largest share of their size, in whole percents, at which none need be divided.
std::optional<Percent> largest_share(const Room& room, const std::vector<Box>& inks, const MakingPlan& making,
                                     const Box& face) {
    constexpr int least = 10;  // below, it is another sign
    for (int percent = 99; percent >= least; --percent) {
        std::vector<Box> smaller;
        for (const Box& ink : inks) {
            const Point half{ink.width() * percent / 200, ink.height() * percent / 200};
            const Point middle{(ink.low.x + ink.high.x) / 2, (ink.low.y + ink.high.y) / 2};
            smaller.push_back({middle - half, middle + half});
        }
        if (holds(room, smaller, making.margin, face)) return Percent{percent / 100.0};
    }
    return std::nullopt;
}

const OtherBed* smallest_that_holds(const std::vector<OtherBed>& others, const std::vector<Box>& inks,
                                    const MakingPlan& making, const Box& face) {
    const OtherBed* best = nullptr;
    const auto area = [](const OtherBed& b) { return b.room.across.in_mm() * b.room.along.in_mm(); };
    for (const OtherBed& other : others) {
        Room room = other.room;
        room.slants = making.wishes.any_angle;
        if (holds(room, inks, making.margin, face) && (best == nullptr || area(other) < area(*best))) best = &other;
    }
    return best;
}

std::vector<Reason> named(const std::vector<const Piece*>& pieces) {
    std::vector<Reason> names;
    for (const Piece* piece : pieces) {
        const Reason name{"sections.named", {{"letters", piece->letters}}};
        if (piece->letters.empty() || std::find(names.begin(), names.end(), name) != names.end()) continue;
        names.push_back(name);
    }
    if (names.empty()) names.push_back({"sections.a-drawing", {}});
    if (names.size() > most_named) {
        const auto more = static_cast<std::int64_t>(names.size() - most_named);
        names.resize(most_named);
        names.push_back({"sections.and-more", {{"more", more}}});
    }
    return names;
}

}  // namespace

std::vector<Problem> too_large(const std::vector<Seam>& seams, const std::vector<Piece>& pieces, const Box& face,
                               const Room& room, const MakingPlan& making, const std::vector<OtherBed>& others) {
    struct Found {
        std::vector<const Piece*> pieces;
        std::vector<Box> inks;
        std::int64_t crossings = 0;
    };
    const Context context = whole(room, making.margin);
    Found by_itself;
    Found by_margin;
    const auto parts = [](const Seam& seam, const Box& film) {
        return (seam.why.id == "seam.crosses" || seam.why.id == "seam.within") && low(seam.axis, film) < seam.where &&
               seam.where < high(seam.axis, film) && seam.from < high(other(seam.axis), film) &&
               low(other(seam.axis), film) < seam.to;
    };
    for (const Piece& piece : pieces) {
        const std::vector<Box> ink{piece.shape.bounds()};
        const Box film = context.film_for(ink.front(), face);
        const auto parting = [&](const Seam& s) { return parts(s, film); };
        if (holds(room, ink, making.margin, face) || std::none_of(seams.begin(), seams.end(), parting)) continue;
        Found& found = widest_margin(room, ink, making, face) ? by_margin : by_itself;
        found.pieces.push_back(&piece);
        found.inks.push_back(ink.front());
    }
    std::vector<Problem> problems;
    const auto say = [&](const Found& found, Reason what, std::optional<Length> margin) {
        what.arguments.insert(what.arguments.begin(), {"letters", named(found.pieces)});
        what.arguments.emplace_back("across", room.across);
        what.arguments.emplace_back("along", room.along);
        Reason remedy{margin ? "sections.smaller-margin" : "sections.whole-nowhere", {}};
        if (margin) remedy.arguments.emplace_back("most", *margin);
        if (const OtherBed* bed = smallest_that_holds(others, found.inks, making, face)) {
            remedy.id = margin ? "sections.smaller-margin-or-bed" : "sections.whole-on";
            Reason where{"sections.on-roll", {{"machine", bed->machine}}};
            if (!bed->roll) where = {"sections.on-bed", {{"bed", bed->bed}, {"machine", bed->machine}}};
            remedy.arguments.emplace_back("where", std::vector<Reason>{std::move(where)});
        } else if (!margin) {
            Length across;
            Length along;
            for (const Box& ink : found.inks) {
                const Box film = context.film_for(ink, face);
                across = std::max(across, from_grid(film.width()));
                along = std::max(along, from_grid(film.height()));
            }
            remedy.arguments = {{"across", across}, {"along", along}};
            if (const auto share = largest_share(room, found.inks, making, face)) {
                remedy.id = "sections.whole-smaller";
                remedy.arguments.emplace_back("share", *share);
            }
        }
        problems.push_back({std::move(what), Station::Sections, std::move(remedy), Mark::Look});
    };
    if (!by_itself.pieces.empty()) {
        const auto crossings =
            std::count_if(seams.begin(), seams.end(), [](const Seam& s) { return s.why.id == "seam.crosses"; });
        Reason what{crossings > 0 ? "sections.too-large" : "sections.too-large-parted", {}};
        if (crossings > 0) what.arguments.emplace_back("seams", std::int64_t{crossings});
        say(by_itself, std::move(what), std::nullopt);
    }
    if (!by_margin.pieces.empty()) {
        say(by_margin, {"sections.margin-too-wide", {{"margin", making.margin}}},
            widest_margin(room, by_margin.inks, making, face));
    }
    return problems;
}

}  // namespace skarvel
