#include "loads/scraps.h"

#include <algorithm>

#include "values/searches.h"

namespace skarvel {
namespace {

constexpr std::size_t most_scraps = searches::scraps_joined.most;

Box size_of(const FilmStock& piece) { return {{0, 0}, {to_grid(piece.width), to_grid(piece.left)}}; }

// Those films on that scrap alone; nothing where they do not lie on it.
std::optional<std::vector<Placement>> all_on(const std::vector<Box>& films, const FilmStock& piece, bool turns,
                                             Length gap) {
    Room room{piece.width, piece.left};
    room.turns = turns;
    const Packed packed = pack(films, room, gap, Effort::Quick);
    if (packed.loads.size() != 1 || !packed.left_over.empty()) return std::nullopt;
    return packed.loads.front();
}

// A film on a scrap that is itself turned by a quarter: the scrap's upper left corner becomes its lower left one.
Placement with_scrap(Placement film, const Box& bounds, const Box& scrap, const Placement& lies) {
    if (lies.turned) {
        const Box on = box_on_mat(bounds, film);
        film.at = {scrap.height() - on.high.y, on.low.x};
        film.turned = !film.turned;
    }
    film.at = film.at + lies.at;
    return film;
}

}  // namespace

std::optional<OnScraps> on_scraps(const std::vector<Box>& films, const std::vector<FilmStock>& drawer,
                                  const std::string& film, const std::string& colour, const Room& bed, Length gap) {
    std::vector<std::size_t> left(films.size());
    for (std::size_t i = 0; i < left.size(); ++i) left[i] = i;
    const auto area = [&](std::size_t i) {
        return static_cast<double>(films[i].width()) * static_cast<double>(films[i].height());
    };
    std::stable_sort(left.begin(), left.end(), [&](std::size_t a, std::size_t b) { return area(a) > area(b); });

    OnScraps out;
    out.placements.resize(films.size());
    std::vector<FilmStock> still = drawer;
    std::vector<std::size_t> place(drawer.size());
    for (std::size_t i = 0; i < place.size(); ++i) place[i] = i;
    std::vector<std::vector<Placement>> lying;  // on each scrap
    std::vector<Box> scraps;
    while (!left.empty()) {
        const Box& largest = films[left.front()];
        const auto at = leftover_for(still, film, colour, from_grid(largest.width()), from_grid(largest.height()));
        if (!at || lying.size() == most_scraps) return std::nullopt;
        const FilmStock piece = still[*at];
        // The pattern of a decal is seen.
        const bool turns = colour.empty() || !piece.patterned;
        std::vector<std::size_t> on;
        std::vector<Placement> placed;
        for (const std::size_t i : left) {
            std::vector<Box> with;
            with.reserve(on.size() + 1);
            for (const std::size_t k : on) with.push_back(films[k]);
            with.push_back(films[i]);
            if (const auto lies = all_on(with, piece, turns, gap)) {
                on.push_back(i);
                placed = *lies;
            }
        }
        if (on.empty()) return std::nullopt;
        for (Placement& p : placed) p.section = on[p.section];
        lying.push_back(std::move(placed));
        scraps.push_back(size_of(piece));
        out.scraps.push_back({piece.name, {}});
        out.taken.push_back(place[*at]);
        still.erase(still.begin() + static_cast<long>(*at));
        place.erase(place.begin() + static_cast<long>(*at));
        std::erase_if(left, [&](std::size_t i) { return std::find(on.begin(), on.end(), i) != on.end(); });
    }
    Room room = bed;
    room.slants = false;
    room.repeat_across = room.repeat_along = {};
    if (std::any_of(out.taken.begin(), out.taken.end(),
                    [&](std::size_t i) { return drawer[i].patterned && !colour.empty(); }))
        room.turns = false;
    const Packed side_by_side = pack(scraps, room, {}, Effort::Quick);
    if (side_by_side.loads.size() != 1 || !side_by_side.left_over.empty()) return std::nullopt;
    for (const Placement& lies : side_by_side.loads.front()) {
        out.scraps[lies.section].at = box_on_mat(scraps[lies.section], lies);
        for (const Placement& p : lying[lies.section])
            out.placements[p.section] = with_scrap(p, films[p.section], scraps[lies.section], lies);
    }
    return out;
}

}  // namespace skarvel
