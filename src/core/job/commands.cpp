#include "job/commands.h"

#include <algorithm>
#include <cstdlib>

namespace skarvel {
namespace {

bool is_proof(const std::string& step) { return step.ends_with("/proof"); }

// The load that a step "<sign>/cut/<letters>" cuts, and what other colours have on it.
void keep_as_cut(Job& job, const Plan& plan, const std::string& step, Moment at) {
    for (const FacePlan& face : plan.faces) {
        const std::string of = face_id(job.signs.at(face.sign), face.face, face.colour);
        for (const Load& load : face.loads->loads) {
            const bool own = load.carried_by.empty() && step == of + "/cut/" + load.name;
            if (load.cut || (!own && load.carried_by != step)) continue;
            CutLoad cut{face.making.film.id, bed_name(face.bed), {}, load.placements, load.film_length, false, at, of,
                        load.carried_by};
            const bool mask = face.making.way == Way::PaintThrough || is_printed(face.making);
            if (!mask) cut.colour = job.signs[face.sign].faces[face.face].colours[face.colour].paint.colour;
            cut.from = load.from;
            cut.rest = load.rest;
            for (Placement& p : cut.placements) {
                cut.sections.push_back(face.loads->sections[p.section]);
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

}  // namespace

Job tick(const Job& job, const Plan& plan, const std::string& step, Moment at) {
    const bool known = std::any_of(plan.tasks.begin(), plan.tasks.end(), [&](const Task& t) { return t.id == step; });
    if (!known || job.bench.ticks.contains(step)) return job;
    Job out = job;
    if (is_proof(step)) {
        out.proof = Proof{wording(job), at};
        return out;
    }
    out.bench.ticks[step] = at;
    keep_as_cut(out, plan, step, at);
    return out;
}

Job untick(const Job& job, const std::string& step) {
    Job out = job;
    if (is_proof(step)) out.proof.reset();
    out.bench.ticks.erase(step);
    out.bench.held.erase(step);
    std::erase_if(out.bench.cut, [&](const CutLoad& cut) {
        return step == cut.carried_by || (cut.carried_by.empty() && step == cut.of + "/cut/" + letters_of_load(cut));
    });
    return out;
}

Job hold(const Job& job, const std::string& step, Moment until) {
    Job out = job;
    out.bench.held[step] = until;
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
    const std::string name = letters_of_load(*at);
    // What was done with the spoilt film does not count for the new one.
    out.bench.ticks.erase(at->of + "/cut/" + name);
    out.bench.ticks.erase(at->of + "/weed/" + name);
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
    const std::string before = letters_of_load(kept);
    kept.sections.erase(kept.sections.begin() + static_cast<long>(section));
    std::erase_if(kept.placements, [&](const Placement& p) { return p.section == section; });
    for (Placement& p : kept.placements) p.section -= p.section > section ? 1 : 0;
    // Steps are named after what is on a load: what is left of this one keeps what was ticked.
    const std::string after = letters_of_load(kept);
    for (const char* kind : {"/cut/", "/weed/"}) {
        const auto at = out.bench.ticks.find(kept.of + kind + before);
        if (at == out.bench.ticks.end()) continue;
        out.bench.ticks[kept.of + kind + after] = at->second;
        out.bench.ticks.erase(kept.of + kind + before);
    }
    for (CutLoad& other : out.bench.cut) {
        if (other.carried_by == kept.of + "/cut/" + before) other.carried_by = kept.of + "/cut/" + after;
    }
    out.bench.ticks.erase(kept.of + "/lay/" + spoilt.sections.front().letters);
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

namespace {

// Never used before: steps that were ticked for a sign that is gone stay told apart.
std::string unused_id(const Job& job) {
    int highest = 0;
    const auto look = [&](const std::string& id) { highest = std::max(highest, std::atoi(id.c_str())); };
    for (const Sign& sign : job.signs) look(sign.id);
    for (const auto& [step, at] : job.bench.ticks) look(step);
    for (const CutLoad& cut : job.bench.cut) look(cut.of);
    return std::to_string(highest + 1);
}

}  // namespace

Job copy_sign(const Job& job, std::size_t sign, const std::string& words) {
    if (sign >= job.signs.size()) return job;
    Job out = job;
    Sign copy = job.signs[sign];
    copy.id = unused_id(job);
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
    out.signs[sign].faces.push_back(job.signs[sign].faces.front());
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
        const auto at = std::find_if(drawer.begin(), drawer.end(),
                                     [&](const FilmStock& f) { return !f.roll && f.name == load.from; });
        if (at != drawer.end()) drawer.erase(at);
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

Job finish(const Job& job, const std::string& outcome, const std::string& note, Moment at) {
    Job out = job;
    out.finished = Finished{outcome, note, at};
    return out;
}

}  // namespace skarvel
