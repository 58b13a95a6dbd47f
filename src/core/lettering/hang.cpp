#include "lettering/hang.h"

#include <algorithm>

namespace skarvel {
namespace {

class Tree {
  public:
    Tree(const std::vector<Hanging>& things, const Box& face, const Box& usable, Axis axis, Hung& out)
        : things_(things), face_(face), usable_(usable), axis_(axis), out_(out), state_(things.size()) {}

    void place(std::size_t i) {
        if (state_[i] != State::New) return;
        state_[i] = State::Under;
        const Hanging& thing = things_[i];
        const auto& hang = axis_ == Axis::X ? thing.across : thing.up;
        if (hang) {
            if (const auto line = line_of(i, *hang)) {
                const std::int64_t move = *line + to_grid(hang->by.value) - side_of(thing.box, axis_, hang->mine);
                (axis_ == Axis::X ? out_.moves[i].x : out_.moves[i].y) = move;
            }
        }
        state_[i] = State::Done;
    }

  private:
    enum class State { New, Under, Done };

    std::optional<std::int64_t> line_of(std::size_t i, const Hang& hang) {
        if (hang.on == on_face) return side_of(face_, axis_, hang.its);
        if (hang.on == on_usable) return side_of(usable_, axis_, hang.its);
        const auto at = std::find_if(things_.begin(), things_.end(), [&](const Hanging& t) { return t.id == hang.on; });
        if (at == things_.end()) {
            out_.lost.push_back(things_[i].id);
            return std::nullopt;
        }
        const auto other = static_cast<std::size_t>(at - things_.begin());
        if (state_[other] == State::Under) {
            out_.circles.push_back(things_[i].id);
            return std::nullopt;
        }
        place(other);
        return side_of(at->box, axis_, hang.its) + along(axis_, out_.moves[other]);
    }

    const std::vector<Hanging>& things_;
    const Box &face_, &usable_;
    Axis axis_;
    Hung& out_;
    std::vector<State> state_;
};

}  // namespace

std::int64_t side_of(const Box& box, Axis axis, Side side) {
    const std::int64_t low = along(axis, box.low);
    const std::int64_t high = along(axis, box.high);
    return side == Side::Low ? low : side == Side::High ? high : low + (high - low) / 2;
}

Hung hang(const std::vector<Hanging>& things, const Box& face, const Box& usable) {
    Hung out;
    out.moves.resize(things.size());
    for (const Axis axis : {Axis::X, Axis::Y}) {
        Tree tree(things, face, usable, axis, out);
        for (std::size_t i = 0; i < things.size(); ++i) tree.place(i);
    }
    return out;
}

}  // namespace skarvel
