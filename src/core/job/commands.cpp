#include "job/commands.h"

#include <algorithm>

namespace skarvel {
namespace {

constexpr int most_minutes_taken = 24 * 60;

bool is_proof(const StepId& step) {
    const auto name = name_of(step);
    return name && name->work == Work::Proof;
}

StepId step_of(const CutLoad& cut, Work work) { return step_id(cut.of, work, cut.id.name); }

// The loads that a step cuts: its own, and what other colours have on them.
void keep_as_cut(Job& job, const Plan& plan, const StepId& step, Moment at) {
    for (const ColourPlan& colour : plan.colours) {
        const auto decided = place_of(job, colour.id);
        for (const Load& load : colour.cut.loads->loads) {
            const bool own = load.carried_by.empty() && step == step_id(colour.id, Work::Cut, load.key);
            if (load.cut || !decided || (!own && load.carried_by != step)) continue;
            CutLoad cut;
            cut.film = colour.cut.making.film.id;
            cut.mat = bed_name(colour.cut.bed);
            cut.placements = load.placements;
            cut.film_length = load.film_length;
            cut.at = at;
            cut.id = {load.key};
            cut.of = colour.id;
            cut.carried_by = load.carried_by;
            const bool mask = colour.cut.making.way == Way::PaintThrough || is_printed(colour.cut.making);
            if (!mask) cut.colour = colour_at(job, *decided).paint.colour;
            cut.from = load.from;
            for (std::size_t i = 1; i < load.scraps.size(); ++i) cut.also_from.push_back(load.scraps[i].name);
            cut.rest = load.rest;
            for (Placement& p : cut.placements) {
                cut.sections.push_back(colour.cut.loads->sections[p.section]);
                p.section = cut.sections.size() - 1;
            }
            job.bench.cut.push_back(std::move(cut));
        }
    }
}

std::string letters_of_load(const CutLoad& cut) {
    std::string name;
    for (const Placement& p : cut.placements) name += (name.empty() ? "" : "+") + cut.sections[p.section].letters;
    return name;
}

// However often it was laid, and lifted again.
void forget_lays(BenchRecord& bench, const ColourId& of, const Section& section) {
    for (int time = 1; time <= static_cast<int>(section.again.size()) + 1; ++time) {
        for (const Work work : {Work::Lay, Work::Lift}) bench.ticks.erase(step_id(of, work, section.letters, time));
    }
}

}  // namespace

namespace {

// Minutes at hand between when the step could begin and its tick, where that is the work and no break in it.
std::optional<int> measured(const Job& job, const Plan& plan, const Task& task, Moment at, Moment began) {
    constexpr int most_times = 4;  // longer or shorter than planned
    for (const auto& [step, ticked] : job.bench.ticks) {
        if (ticked <= at) began = std::max(began, ticked);
    }
    for (const Timer& timer : plan.bench->timers) {
        if (timer.before == task.id && timer.from <= at) began = std::max(began, timer.from);
    }
    const auto minutes = (at - began).count();
    const auto planned = task.hands_on.count();
    if (planned == 0 || minutes <= 0 || minutes > planned * most_times || minutes * most_times < planned)
        return std::nullopt;
    return static_cast<int>(minutes);
}

}  // namespace

Job tick(const Job& job, const Plan& plan, const StepId& step, Moment at, std::optional<Moment> began) {
    const auto task = std::find_if(plan.tasks->begin(), plan.tasks->end(), [&](const Task& t) { return t.id == step; });
    if (task == plan.tasks->end() || job.bench.ticks.contains(step)) return job;
    Job out = job;
    std::erase(out.bench.perhaps_cut, step);
    if (const auto minutes = began ? measured(job, plan, *task, at, *began) : std::nullopt)
        out.bench.took.push_back({step, *minutes});
    if (is_proof(step)) {
        out.proof = Proof{wording(job), at};
        return out;
    }
    out.bench.ticks[step] = at;
    keep_as_cut(out, plan, step, at);
    return out;
}

Job untick(const Job& job, const StepId& step) {
    Job out = job;
    if (is_proof(step)) out.proof.reset();
    std::erase(out.bench.perhaps_cut, step);
    out.bench.ticks.erase(step);
    out.bench.held.erase(step);
    out.bench.dry.erase(step);
    std::erase_if(out.bench.skipped, [&](const Skipped& s) { return s.step == step; });
    std::erase_if(out.bench.took, [&](const Took& t) { return t.step == step; });
    std::erase_if(out.bench.cut, [&](const CutLoad& cut) {
        return step == cut.carried_by || (cut.carried_by.empty() && step == step_of(cut, Work::Cut));
    });
    return out;
}

Job took(const Job& job, const StepId& step, int minutes) {
    Job out = job;
    std::erase_if(out.bench.took, [&](const Took& t) { return t.step == step; });
    if (minutes > 0) out.bench.took.push_back({step, std::min(minutes, most_minutes_taken)});
    return out;
}

Job said_yes(const Job& job, const std::string& who) {
    Job out = job;
    if (out.proof) out.proof->by = who;
    return out;
}

Job try_two_ways(const Job& job, const Plan& plan, const SplitTrial& trial) {
    const bool known =
        std::any_of(plan.tasks->begin(), plan.tasks->end(), [&](const Task& t) { return t.id == trial.step; });
    if (!known) return job;
    Job out = job;
    std::erase_if(out.bench.trials, [&](const SplitTrial& t) { return t.step == trial.step; });
    if (!trial.first.empty() || !trial.second.empty()) out.bench.trials.push_back(trial);
    return out;
}

Job judge_trial(const Job& job, const StepId& step, Better better) {
    Job out = job;
    for (SplitTrial& t : out.bench.trials) {
        if (t.step == step) t.better = better;
    }
    return out;
}

Job place_mishap(const Job& job, const Plan& plan, int number, Point place) {
    Job out = job;
    for (Mishap& m : out.bench.mishaps) {
        if (m.number != number) continue;
        m.place = place;
        m.letter.clear();
        const auto of = name_of(m.at);
        const Region here = Region::rectangle({place, place + Point{1, 1}});
        std::optional<Length> near;
        for (const ColourPlan& colour : plan.colours) {
            const bool same = of && (of->of == colour.id.name || of->of == colour.face->id.name);
            if (!same) continue;
            for (const Piece& piece : *colour.ink) {
                const Length far = apart(piece.shape, here);
                if (near && far >= *near) continue;
                near = far;
                m.letter = piece.letters;
            }
        }
    }
    return out;
}

Job hold(const Job& job, const StepId& step, Moment until) {
    Job out = job;
    out.bench.held[step] = until;
    return out;
}

Job dry_already(const Job& job, const StepId& step, Moment now) {
    Job out = job;
    out.bench.dry[step] = now;
    out.bench.held.erase(step);
    return out;
}

Job happened(const Job& job, const Plan& plan, const StepId& at, const std::string& kind, Moment when,
             const Trade& trade, const std::string& note) {
    const bool known_kind =
        std::any_of(trade.mishaps.begin(), trade.mishaps.end(), [&](const MishapKind& k) { return k.id == kind; });
    const bool known_step =
        std::any_of(plan.tasks->begin(), plan.tasks->end(), [&](const Task& t) { return t.id == at; });
    if (!known_kind || !known_step) return job;
    Job out = job;
    int number = 1;
    for (const Mishap& m : job.bench.mishaps) number = std::max(number, m.number + 1);
    out.bench.mishaps.push_back({number, kind, at, when, note, std::nullopt, {}});
    if (kind == "wrong-word") out.proof.reset();
    return out;
}

Job another_coat(const Job& job, const Step& step) {
    static constexpr int most_coats = 20;  // that a job file holds
    const auto one_more = [](int coats) { return std::min(coats + 1, most_coats); };
    Job out = job;
    const auto at = place_of(job, step.face);
    if (!at) return job;
    Face& face = out.signs[at->sign].faces[at->face];
    if (step.work == Work::Colour) {
        for (Colour& c : face.colours) {
            if (c.id == step.colour) c.paint.coats = one_more(c.paint.coats);
        }
        return out;
    }
    for (Layer& l : face.layers) {
        if (l.id != step.layer || !is_coat(l)) continue;
        l.coat.coats = one_more(l.coat.coats);
        l.by_hand = true;
    }
    return out;
}

Job skip(const Job& job, const Plan& plan, const StepId& step, const std::string& reason, Moment at) {
    const bool known = std::any_of(plan.tasks->begin(), plan.tasks->end(), [&](const Task& t) { return t.id == step; });
    // Nobody signs by leaving out; and what is not cut is no load that was cut.
    if (!known || is_proof(step) || job.bench.ticks.contains(step)) return job;
    Job out = job;
    out.bench.ticks[step] = at;
    out.bench.skipped.push_back({step, reason});
    return out;
}

Job perhaps_cut(const Job& job, const StepId& step) {
    Job out = job;
    std::erase(out.bench.perhaps_cut, step);
    out.bench.perhaps_cut.push_back(step);
    return out;
}

Shop force_after(const Shop& shop, const Plan& plan, const StepId& at, const std::string& kind) {
    constexpr int grams = 10;
    const int change = kind == "not-through" ? grams : kind == "into-backing" ? -grams : 0;
    const ColourPlan* colour = plan.of(at);
    Shop out = shop;
    if (colour == nullptr || change == 0) return out;
    for (Machine& m : out.machines) {
        if (m.name == colour->cut.bed.machine && m.force > 0) m.force = std::max(grams, m.force + change);
    }
    return out;
}

std::vector<StepId> not_done_before(const Plan& plan, const StepId& step) {
    std::vector<StepId> open;
    const auto done = [&](std::size_t task) {
        return std::any_of(plan.clock->slots.begin(), plan.clock->slots.end(),
                           [&](const Slot& s) { return s.task == task && s.done; });
    };
    for (const Task& task : *plan.tasks) {
        if (task.id != step) continue;
        for (const Wait& w : task.waits) {
            if (!done(w.after)) open.push_back((*plan.tasks)[w.after].id);
        }
    }
    return open;
}

Shop stop_for_today(const Shop& shop, Moment now) {
    using std::chrono::days;
    const auto day = std::chrono::floor<days>(now);
    const int minute = static_cast<int>((now - day).count());
    const auto today = sittings_on(shop.hours, shop.changed_days, day);
    Shop out = shop;
    std::erase_if(out.changed_days, [&](const ChangedDay& c) { return std::chrono::floor<days>(c.day) == day; });
    bool any = false;
    for (const Hours::Sitting& s : today) {
        if (s.from >= minute) continue;
        out.changed_days.push_back({day, s.from, std::min(s.to, minute)});
        any = true;
    }
    if (!any) out.changed_days.push_back({day, 0, 0});
    return out;
}

Job keep_cut(const Job& job, std::size_t cut_load) {
    Job out = job;
    if (cut_load < out.bench.cut.size()) out.bench.cut[cut_load].keep = true;
    return out;
}

Job cut_again(const Job& job, std::size_t cut_load) {
    if (cut_load >= job.bench.cut.size()) return job;
    Job out = job;
    const auto at = out.bench.cut.begin() + static_cast<long>(cut_load);
    // What was done with the spoilt film does not count for the new one.
    for (const Work work : {Work::Cut, Work::Weed, Work::Tape}) out.bench.ticks.erase(step_of(*at, work));
    for (const Section& section : at->sections) forget_lays(out.bench, at->of, section);
    out.bench.spoilt.push_back(*at);
    out.bench.cut.erase(at);
    return out;
}

Job cut_section_again(const Job& job, std::size_t cut_load, std::size_t section) {
    if (cut_load >= job.bench.cut.size()) return job;
    const CutLoad& load = job.bench.cut[cut_load];
    if (section >= load.sections.size()) return job;
    if (load.sections.size() == 1) return cut_again(job, cut_load);
    Job out = job;
    CutLoad& kept = out.bench.cut[cut_load];
    CutLoad spoilt = kept;
    spoilt.sections = {kept.sections[section]};
    std::erase_if(spoilt.placements, [&](const Placement& p) { return p.section != section; });
    for (Placement& p : spoilt.placements) p.section = 0;
    // Its film is booked with the load it was cut in.
    spoilt.film_length = {};
    spoilt.booked = true;
    kept.sections.erase(kept.sections.begin() + static_cast<long>(section));
    std::erase_if(kept.placements, [&](const Placement& p) { return p.section == section; });
    for (Placement& p : kept.placements) p.section -= p.section > section ? 1 : 0;
    // The load keeps its name, and with it what was ticked; the section that is spoilt is laid anew.
    forget_lays(out.bench, kept.of, spoilt.sections.front());
    out.bench.spoilt.push_back(std::move(spoilt));
    return out;
}

Job cut_letter_again(const Job& job, std::size_t cut_load, std::size_t section, std::size_t piece) {
    if (cut_load >= job.bench.cut.size() || section >= job.bench.cut[cut_load].sections.size()) return job;
    const CutLoad& load = job.bench.cut[cut_load];
    const Section& whole = load.sections[section];
    if (piece >= whole.pieces.size()) return job;
    const bool decal = !load.colour.empty();  // only these name one
    if (!decal || whole.pieces.size() == 1 || !whole.again.empty()) return cut_section_again(job, cut_load, section);
    Job out = job;
    Section& left = out.bench.cut[cut_load].sections[section];
    const Piece gone = whole.pieces[piece];
    left.pieces.erase(left.pieces.begin() + static_cast<long>(piece));
    left.cut = subtract(whole.cut, gone.shape);
    // Where it lay, in the film that is booked with its load.
    CutLoad spoilt = load;
    const Box all = whole.film.bounds();
    const Box ink = gone.shape.bounds();
    spoilt.sections = {{gone.letters, {gone}, Region::rectangle(ink), gone.shape, {}, 1}};
    std::erase_if(spoilt.placements, [&](const Placement& p) { return p.section != section; });
    for (Placement& p : spoilt.placements) {
        p.section = 0;
        p.at = p.at + (p.turned ? Point{all.high.y - ink.high.y, ink.low.x - all.low.x} : ink.low - all.low);
    }
    spoilt.film_length = {};
    spoilt.booked = true;
    out.bench.spoilt.push_back(std::move(spoilt));
    return out;
}

Job copy_sign(const Job& job, std::size_t sign, const std::string& words) {
    if (sign >= job.signs.size()) return job;
    Job out = job;
    Sign copy = job.signs[sign];
    make_new(out, copy);
    copy.name.clear();
    copy.faces.front().lettering.main().words = words;
    out.signs.insert(out.signs.begin() + static_cast<long>(sign) + 1, copy);
    if (out.post) {
        const auto arm = std::find_if(out.post->arms.begin(), out.post->arms.end(),
                                      [&](const PostArm& a) { return a.sign == job.signs[sign].id; });
        if (arm != out.post->arms.end()) out.post->arms.insert(arm + 1, {copy.id, arm->gap});
    }
    return out;
}

Job remove_sign(const Job& job, std::size_t sign) {
    if (job.signs.size() < 2 || sign >= job.signs.size()) return job;
    Job out = job;
    if (out.post) std::erase_if(out.post->arms, [&](const PostArm& a) { return a.sign == job.signs[sign].id; });
    out.signs.erase(out.signs.begin() + static_cast<long>(sign));
    return out;
}

Job letter_back(const Job& job, std::size_t sign) {
    if (sign >= job.signs.size() || job.signs[sign].faces.size() > 1) return job;
    Job out = job;
    Face back = job.signs[sign].faces.front();
    make_new(out, back, new_face_id(out, job.signs[sign].id));
    out.signs[sign].faces.push_back(std::move(back));
    return out;
}

Job bare_back(const Job& job, std::size_t sign) {
    if (sign >= job.signs.size() || job.signs[sign].faces.size() < 2) return job;
    Job out = job;
    out.signs[sign].faces.pop_back();
    return out;
}

Job set_on_post(const Job& job) {
    Job out = job;
    if (!out.post) out.post.emplace();
    std::erase_if(out.post->arms, [&](const PostArm& a) {
        return std::none_of(job.signs.begin(), job.signs.end(), [&](const Sign& s) { return s.id == a.sign; });
    });
    for (const Sign& sign : job.signs) {
        const bool there = std::any_of(out.post->arms.begin(), out.post->arms.end(),
                                       [&](const PostArm& a) { return a.sign == sign.id; });
        if (!there) out.post->arms.push_back({sign.id, PostArm{}.gap});
    }
    return out;
}

namespace {

// Takes the load's film from the drawer, and puts there what it leaves.
void book(CutLoad& load, const Job& job, std::vector<FilmStock>& drawer) {
    if (load.booked || !load.carried_by.empty()) return;
    load.booked = true;
    const auto fits = [&](const FilmStock& f) {
        return f.film == load.film && (load.colour.empty() || f.colour.empty() || f.colour == load.colour);
    };
    FilmStock rest{load.film, load.colour, {}, {}, {}, false, false, 0};
    if (!load.from.empty()) {
        const auto take = [&](const std::string& name) {
            const auto at = std::find_if(drawer.begin(), drawer.end(),
                                         [&](const FilmStock& f) { return !f.roll && f.name == name; });
            if (at != drawer.end()) drawer.erase(at);
        };
        take(load.from);
        for (const std::string& also : load.also_from) take(also);
    } else {
        // The roll that is nearest to its end and still holds it.
        auto best = drawer.end();
        for (auto f = drawer.begin(); f != drawer.end(); ++f) {
            if (f->roll && fits(*f) && f->left >= load.film_length && (best == drawer.end() || f->left < best->left))
                best = f;
        }
        if (best != drawer.end()) {
            best->left -= load.film_length;
            rest.patterned = best->patterned;
            rest.price_cents = best->price_cents;
            rest.sold_by = best->sold_by;
            rest.repeat_across = best->repeat_across;
            rest.repeat_along = best->repeat_along;
            if (rest.colour.empty()) rest.colour = best->colour;
            if (best->left <= Length{}) drawer.erase(best);
        }
    }
    if (load.rest) {
        rest.width = load.rest->across;
        rest.left = load.rest->along;
        rest.name = "left of " + job.title + ", " + letters_of_load(load);
        drawer.push_back(std::move(rest));
    }
}

}  // namespace

Booked book_film(const Job& job, const Shop& shop, std::size_t cut_load) {
    Booked out{job, shop};
    book(out.job.bench.cut.at(cut_load), job, out.shop.drawer);
    return out;
}

Booked book_spoilt(const Job& job, const Shop& shop, std::size_t spoilt_load) {
    Booked out{job, shop};
    book(out.job.bench.spoilt.at(spoilt_load), job, out.shop.drawer);
    return out;
}

Length spoilt_film(const BenchRecord& bench) {
    Length lost;
    for (const CutLoad& load : bench.spoilt) {
        lost += load.film_length;
        if (load.film_length > Length{}) continue;
        for (const Placement& p : load.placements)
            lost += from_grid(box_on_mat(load.sections.at(p.section).film.bounds(), p).height());
    }
    return lost;
}

void want(Job& job, bool wanted, Moment now) {
    if (!wanted) {
        job.deadline.reset();
    } else if (!job.deadline) {
        job.deadline = std::chrono::floor<std::chrono::days>(now) + std::chrono::days(7) + std::chrono::hours(12);
    }
}

void begin_later(Job& job, bool later, Moment now) {
    if (!later)
        job.begin_on.reset();
    else if (!job.begin_on)
        job.begin_on = std::chrono::floor<std::chrono::days>(now) + std::chrono::days(1);
}

void pin(Job& job, const StepId& step, std::optional<Moment> at) {
    if (at)
        job.pinned[step] = *at;
    else
        job.pinned.erase(step);
}

Job off_post(const Job& job) {
    Job out = job;
    out.post.reset();
    return out;
}

Job name_sign(const Job& job, std::size_t sign, const std::string& name) {
    Job out = job;
    if (sign < out.signs.size()) out.signs[sign].name = name;
    return out;
}

Job finish(const Job& job, Outcome outcome, const std::string& note, Moment at) {
    Job out = job;
    out.finished = Finished{outcome, note, at};
    return out;
}

}  // namespace skarvel
