#include "sections/draft.h"

#include <algorithm>
#include <cmath>

namespace skarvel::dividing {

bool Context::forbidden(Axis axis, std::int64_t where, const Box& cell) const {
    return std::any_of(never.begin(), never.end(), [&](const NoSeam& n) {
        return n.at(axis, where, low(other(axis), cell), high(other(axis), cell));
    });
}

bool Context::fits(std::int64_t width, std::int64_t height) const {
    const std::int64_t a = to_grid(room.across);
    const std::int64_t b = to_grid(room.along);
    return (width <= a && height <= b) || (room.turns && width <= b && height <= a) ||
           slant_for(width, height, room).has_value();
}

std::int64_t Context::longest() const {
    const std::int64_t a = to_grid(room.across);
    const std::int64_t b = to_grid(room.along);
    return room.slants ? std::llround(std::hypot(static_cast<double>(a), static_cast<double>(b))) : std::max(a, b);
}

Box Context::film_for(const Box& ink, const Box& cell) const {
    Box film = common(grown(ink, making.margin), whole_margins() ? available : cell);
    if (film.empty()) return ink;  // ink off the board: Lettering says so, and there is still something to show
    if (span_x && cell.low.x == face.low.x && cell.high.x == face.high.x) {
        set_range(Axis::X, film, cell.low.x, cell.high.x);
    }
    if (span_y && cell.low.y == face.low.y && cell.high.y == face.high.y) {
        set_range(Axis::Y, film, cell.low.y, cell.high.y);
    }
    return film;
}

Score score_of(const Box& film) {
    Score score;
    score.sections = 1;
    score.film = static_cast<double>(film.width()) * static_cast<double>(film.height());
    return score;
}

}  // namespace skarvel::dividing
