#include "values/stop.h"

namespace skarvel {
namespace {

thread_local const WhileStoppable* at_hand = nullptr;

}  // namespace

WhileStoppable::WhileStoppable(const std::stop_token& token) : token_(token), before_(at_hand) { at_hand = this; }
WhileStoppable::WhileStoppable(std::function<bool()> asked) : asked_(std::move(asked)), before_(at_hand) {
    at_hand = this;
}
WhileStoppable::~WhileStoppable() { at_hand = before_; }

bool stop_asked() {
    for (const WhileStoppable* at = at_hand; at != nullptr; at = at->before_) {
        if (at->token_.stop_requested() || (at->asked_ && at->asked_())) return true;
    }
    return false;
}

void look_for_stop() {
    if (at_hand != nullptr && stop_asked()) throw Stopped();
}

}  // namespace skarvel
