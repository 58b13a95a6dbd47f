#include "job/what_helps.h"

#include <algorithm>

#include "job/layer_commands.h"

namespace skarvel {
namespace {

using std::chrono::days;
using std::chrono::floor;

constexpr int days_looked_at = 10;
constexpr int extra_minutes = 120;
constexpr int evening = 18 * 60;  // where a day has no hours yet

class Trying {
  public:
    Trying(const Job& job, const Shop& shop, const Library& library, const Present& present,
           const std::stop_token& stop)
        : job_(job), shop_(shop), library_(library), present_(present), stop_(stop) {}

    std::vector<Help> run() {
        const auto now = planner_.plan(job_, shop_, library_, present_, stop_);
        const bool open = now && std::any_of(now->clock->slots.begin(), now->clock->slots.end(),
                                             [](const Slot& s) { return !s.done; });
        if (!open) return {};
        ready_ = now->clock->ready;
        hands_on_ = now->clock->hands_on;
        cents_ = worth(*now);
        stops_ = stops(*now);
        windows_ = windows(*now);
        waits();
        coats();
        ways();
        hours(*now);
        if (stop_.stop_requested()) return {};
        std::stable_sort(found_.begin(), found_.end(), [](const Help& a, const Help& b) {
            if (a.in_window != b.in_window) return a.in_window;
            if (a.in_time != b.in_time) return a.in_time;
            if (a.hands_on != b.hands_on) return a.hands_on < b.hands_on;
            if (a.cents.value_or(0) != b.cents.value_or(0)) return a.cents.value_or(0) < b.cents.value_or(0);
            return a.gained > b.gained;
        });
        return std::move(found_);
    }

  private:
    // Those that have to do with more than being late.
    static std::size_t stops(const Plan& plan) {
        return static_cast<std::size_t>(std::count_if(plan.problems.begin(), plan.problems.end(), [](const Problem& p) {
            return p.mark == Mark::Stop && p.what.id != "clock.late" && p.what.id != "clock.passed";
        }));
    }

    // Of the film, where every price is known.
    static std::optional<std::int64_t> worth(const Plan& plan) {
        std::int64_t all = 0;
        for (const FilmCost& f : plan.film) {
            if (!f.worth_cents) return std::nullopt;
            all += *f.worth_cents;
        }
        return all;
    }

    // Those that cannot be kept.
    static std::size_t windows(const Plan& plan) {
        return static_cast<std::size_t>(std::count_if(plan.problems.begin(), plan.problems.end(), [](const Problem& p) {
            return p.what.id.starts_with("clock.window-too-short");
        }));
    }

    void keep(Reason what, Job job, Shop shop, bool of_shop) {
        if (job == job_ && shop == shop_) return;
        const auto then = planner_.plan(job, shop, library_, present_, stop_);
        if (!then || then->clock->slots.empty() || stops(*then) > stops_) return;
        const bool in_window = windows(*then) < windows_;
        if (windows(*then) > windows_ || (then->clock->ready >= ready_ && !in_window)) return;
        found_.push_back({std::move(what), std::move(job), std::move(shop), of_shop, then->clock->ready,
                          std::chrono::duration_cast<Minutes>(ready_ - then->clock->ready),
                          then->clock->hands_on - hands_on_,
                          cents_ && worth(*then) ? std::optional(*worth(*then) - *cents_) : std::nullopt,
                          job_.deadline && then->clock->ready <= *job_.deadline, in_window});
    }

    template <class Change>
    void on_faces(Reason what, const Change& change) {
        Job job = job_;
        for (Sign& sign : job.signs) {
            for (Face& face : sign.faces) change(sign, face);
        }
        keep(std::move(what), std::move(job), shop_, false);
    }

    void waits() {
        on_faces({"help.least-waits", {}}, [](Sign&, Face& face) {
            face.finish.safe_waits = false;
            face.finish.rest_hours.reset();
        });
    }

    // The coat of its own kind that film may lie on soonest, and a clear coat less.
    void coats() {
        const Trade& trade = library_.trade;
        const auto takes = [](const Coat& c, int coats) { return c.next_coat * (coats - 1) + c.film_least; };
        std::vector<std::string> tins;
        for (const Sign& sign : job_.signs) {
            for (const Face& face : sign.faces) {
                for (const Layer& l : face.layers) {
                    if (is_coat(l) && !is_clear(trade, l)) tins.push_back(l.coat.coat);
                }
            }
        }
        std::sort(tins.begin(), tins.end());
        tins.erase(std::unique(tins.begin(), tins.end()), tins.end());
        for (const std::string& tin : tins) {
            const Coat now = coat_of(trade, tin);
            const Coat* best = nullptr;
            for (const Coat& c : trade.coats) {
                if (c.kind != now.kind || c.base != now.base || takes(c, 2) >= takes(now, 2)) continue;
                if (best == nullptr || takes(c, 2) < takes(*best, 2)) best = &c;
            }
            if (best == nullptr) continue;
            on_faces({"help.other-coat", {{"coat", best->name}, {"instead", now.name}}}, [&](Sign&, Face& face) {
                for (Layer& l : face.layers) {
                    if (is_coat(l) && l.coat.coat == tin) l.coat.coat = best->id;
                }
            });
        }
        on_faces({"help.clear-less", {}}, [&](Sign&, Face& face) {
            for (Layer& l : face.layers) {
                if (is_clear(trade, l) && l.coat.coats > 1) --l.coat.coats;
            }
        });
        on_faces({"help.clear-under", {}}, [&](Sign&, Face& face) {
            const bool decals = std::any_of(face.colours.begin(), face.colours.end(),
                                            [](const Colour& c) { return c.making.way == Way::Decal; });
            if (decals && clear_lies_over(face, trade)) lay_clear(face, false, trade);
        });
    }

    void ways() {
        on_faces({"help.decal", {}}, [&](Sign&, Face& face) {
            for (Colour& c : face.colours) make_as(c.making, Way::Decal, library_.trade);
        });
        for (const Lift lift : {Lift::Wet, Lift::Soft, Lift::Dry}) {
            on_faces({std::string("help.lift-") + word_of(lift), {}},
                     [&](Sign&, Face& face) { face.finish.lift = lift; });
        }
        on_faces({"help.mask-by-mask", {}}, [&](Sign&, Face& face) {
            for (Colour& c : face.colours) c.making.mask_by_mask = c.making.way == Way::PaintThrough;
        });
        Shop helped = shop_;
        ++helped.pairs_of_hands;
        keep({"help.hands", {}}, job_, std::move(helped), true);
        Shop aired = shop_;
        aired.fan = true;
        keep({"help.fan", {}}, job_, std::move(aired), true);
    }

    // Two hours more on the one day on which they gain the most.
    void hours(const Plan& now) {
        const std::size_t before = found_.size();
        const auto first = floor<days>(present_.now);
        const auto last = std::min(first + days(days_looked_at), floor<days>(now.clock->ready));
        for (auto day = first; day <= last; day += days(1)) {
            const auto sittings = sittings_on(shop_.hours, shop_.changed_days, day);
            const int from = sittings.empty() ? evening : sittings.back().to;
            const int to = std::min(from + extra_minutes, 22 * 60 + 30);
            if (to - from < extra_minutes / 2) continue;
            Shop shop = shop_;
            std::erase_if(shop.changed_days, [&](const ChangedDay& c) { return floor<days>(c.day) == day; });
            for (const auto& s : sittings) {
                const bool goes_on = !sittings.empty() && s.to == from;
                shop.changed_days.push_back({day, s.from, goes_on ? to : s.to});
            }
            if (sittings.empty()) shop.changed_days.push_back({day, from, to});
            keep({"help.hours", {{"time", Minutes(to - from)}, {"day", Moment(day) + Minutes(from)}}}, job_,
                 std::move(shop), true);
        }
        // Only the best of them: later days come to the same.
        if (found_.size() <= before + 1) return;
        const auto best = std::max_element(found_.begin() + static_cast<long>(before), found_.end(),
                                           [](const Help& a, const Help& b) { return a.gained < b.gained; });
        Help kept = std::move(*best);
        found_.resize(before);
        found_.push_back(std::move(kept));
    }

    const Job& job_;
    const Shop& shop_;
    const Library& library_;
    Present present_;
    std::stop_token stop_;
    Planner planner_;
    Moment ready_{};
    Minutes hands_on_{0};
    std::optional<std::int64_t> cents_;
    std::size_t stops_ = 0, windows_ = 0;
    std::vector<Help> found_;
};

}  // namespace

std::vector<Help> what_helps(const Job& job, const Shop& shop, const Library& library, const Present& present,
                             const std::stop_token& stop) {
    return Trying(job, shop, library, present, stop).run();
}

}  // namespace skarvel
