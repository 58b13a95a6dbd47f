#include "job/summary.h"

#include <algorithm>

namespace skarvel {
namespace {

std::int64_t count(std::size_t n) { return static_cast<std::int64_t>(n); }

Reason size_of(const Blank& blank, const BlankPlan& b) {
    const auto named = [&](const char* kind) {
        return Reason{"ticket.kind",
                      {{"kind", std::vector<Reason>{{kind, {}}}}, {"length", b.length}, {"width", b.width}}};
    };
    switch (blank.kind) {
        case Kind::Round:
            return {"ticket.round", {{"length", b.length}}};
        case Kind::Arrow:
            return {"ticket.arrow", {{"length", from_grid(b.face.width())}, {"width", from_grid(b.face.height())}}};
        case Kind::Arch:
            return {"ticket.arch", {{"length", b.length}, {"width", b.width}}};
        case Kind::Panel:
            return named("ticket.panel");
        case Kind::Canvas:
            return named("ticket.canvas");
        case Kind::Field:
            return named("ticket.field");
        case Kind::Drawn:
            return {"ticket.kind",
                    {{"kind", std::vector<Reason>{{"ticket.drawn", {}}}},
                     {"length", from_grid(b.face.height())},
                     {"width", from_grid(b.face.width())}}};
        case Kind::Board:
            break;
    }
    return b.stock ? Reason{"ticket.blank-stock",
                            {{"length", b.length}, {"width", b.width}, {"stock", shown_name(b.stock->name)}}}
                   : Reason{"ticket.blank", {{"length", b.length}, {"width", b.width}}};
}

StationLine blank_line(const Job& job, const ColourPlan& colour) {
    StationLine line;
    const Blank& blank = job.signs.at(std::min(colour.face->at.sign, job.signs.size() - 1)).blank;
    line.first = size_of(blank, *colour.face->blank);
    std::vector<Reason> depths;
    for (const ClearZone& zone : blank.clear) {
        const Length size = zone.turns > 0                  ? zone.girth.value * zone.turns
                            : zone.shape == ZoneShape::Band ? zone.depth.value
                                                            : zone.width.value;
        depths.push_back({"ticket.length", {{"length", size}}});
    }
    line.second = depths.empty() ? Reason{"ticket.nothing-clear", {}} : Reason{"ticket.clear", {{"depths", depths}}};
    return line;
}

StationLine lettering_line(const ColourPlan& colour) {
    const LetteringPlan& l = *colour.face->lettering;
    if (l.letters.empty()) {
        const auto parts = std::count_if(colour.face->art->boxes.begin(), colour.face->art->boxes.end(),
                                         [](const Box& b) { return !b.empty(); });
        if (parts > 0) return {{"ticket.art", {{"pieces", count(colour.cut.pieces->size())}}}, {}};
        // Words that are there and have no place: what is wrong with them.
        for (const Problem& p : l.problems) {
            if (p.mark == Mark::Stop && p.what.id != "lettering.no-words")
                return {{"ticket.words-do-not-fit", {}}, p.what};
        }
        return {{"ticket.no-words", {}}, {}};
    }
    StationLine line{{"ticket.lettering", {{"letters", count(l.letters.size())}, {"cap", l.cap_height}}},
                     {"ticket.as-drawn", {}}};
    if (!l.offers.empty() || l.free_up > 0.25_in || l.free_across > 0.25_in) {
        line.second = {"ticket.room-free", {{"free", std::max(l.free_up, l.free_across)}}};
    }
    for (const Reason& note : l.notes) {
        if (note.id == "lettering.wider" || note.id == "lettering.narrower") line.second = note;
    }
    return line;
}

StationLine sections_line(const ColourPlan& colour) {
    const LoadsPlan& l = *colour.cut.loads;
    if (l.sections.empty()) {
        for (const Problem& p : l.problems) {
            if (p.mark == Mark::Stop) return {{"ticket.cannot-be-cut", {}}, p.what};
        }
        return {{"ticket.nothing-to-cut", {}}, {}};
    }
    if (l.loads.empty() && !l.lent.empty())
        return {{"ticket.sections-alone", {{"sections", count(l.sections.size())}}}, {"ticket.laid-again", {}}};
    const bool carried =
        std::all_of(l.loads.begin(), l.loads.end(), [](const Load& load) { return !load.carried_by.empty(); });
    if (carried) {
        return {{"ticket.sections", {{"sections", count(l.sections.size())}, {"loads", count(l.loads.size())}}},
                {"ticket.carried", {}}};
    }
    return {{"ticket.sections", {{"sections", count(l.sections.size())}, {"loads", count(l.loads.size())}}},
            l.crossings == 0
                ? Reason{"ticket.no-ink-cut", {{"film", l.film_total}}}
                : Reason{"ticket.ink-cut", {{"crossings", std::int64_t{l.crossings}}, {"film", l.film_total}}}};
}

StationLine method_line(const ColourPlan& colour) {
    const auto joints = std::count_if(colour.method->findings.begin(), colour.method->findings.end(),
                                      [](const Finding& f) { return f.mark != Mark::None; });
    StationLine line;
    line.first = {colour.cut.making.way == Way::Decal ? "ticket.decal" : "ticket.paint-through",
                  {{"film", colour.cut.making.film.name}}};
    line.second = joints > 0
                      ? Reason{"ticket.joints",
                               {{"keepers", std::int64_t{colour.cut.loads->keepers}}, {"joints", std::int64_t{joints}}}}
                      : Reason{"ticket.sound", {{"keepers", std::int64_t{colour.cut.loads->keepers}}}};
    return line;
}

StationLine clock_line(const Job& job, const Plan& plan) {
    const Schedule& c = *plan.clock;
    if (c.slots.empty()) return {{"ticket.nothing-planned", {}}, {}};
    // Which of the two plans it is, and how much it leaves.
    const bool then = job.begin_on.has_value();
    StationLine line;
    // Once all is done it is ready, and no plan any more.
    if (plan.bench->next() == nullptr) return {{"ticket.was-ready", {{"ready", c.ready}}}, {"ticket.all-done", {}}};
    line.first = {"ticket.ready-at", {{"ready", c.ready}}};
    if (c.late && job.deadline)
        line.second = {then ? "ticket.late-then" : "ticket.late-now",
                       {{"by", std::chrono::duration_cast<Minutes>(c.ready - *job.deadline)}}};
    else if (c.slack)
        line.second = {then ? "ticket.spare-then" : "ticket.spare-now", {{"slack", *c.slack}}};
    else
        line.second = {then ? "ticket.begun-then" : "ticket.begun-now", {{"time", c.hands_on}}};
    return line;
}

StationLine bench_line(const Plan& plan) {
    const std::size_t done = plan.bench->done();
    return {{"ticket.steps", {{"steps", count(plan.bench->steps.size())}}},
            done == 0 ? Reason{"ticket.none-done", {}} : Reason{"ticket.done", {{"done", count(done)}}}};
}

}  // namespace

std::array<StationLine, station_count> summary(const Job& job, const Plan& plan, std::size_t records,
                                               const FaceAt& at) {
    std::array<StationLine, station_count> lines;
    if (plan.colours.empty()) return lines;
    const ColourPlan* at_hand = plan.of(face_at(job, at).id);
    const ColourPlan& colour = at_hand != nullptr ? *at_hand : plan.colours.front();
    lines = {blank_line(job, colour),
             lettering_line(colour),
             sections_line(colour),
             method_line(colour),
             clock_line(job, plan),
             bench_line(plan),
             StationLine{{job.finished ? "ticket.finished" : "ticket.open", {}},
                         {"ticket.records", {{"records", count(records)}}}}};
    for (std::size_t i = 0; i < station_count; ++i) lines.at(i).mark = plan.mark_of(static_cast<Station>(i));
    return lines;
}

StationLine what_follows(Station station, const Job& job, const Plan& plan, std::size_t records, const FaceAt& at) {
    StationLine line = summary(job, plan, records, at).at(static_cast<std::size_t>(station));
    const ColourPlan* colour = plan.colours.empty() ? nullptr : plan.of(face_at(job, at).id);
    if (station != Station::Blank || colour == nullptr) return line;
    const Box room = colour->face->blank->usable;
    line.second = line.first;
    line.first = room.empty()
                     ? Reason{"ticket.no-room", {}}
                     : Reason{"ticket.room", {{"across", from_grid(room.width())}, {"up", from_grid(room.height())}}};
    return line;
}

}  // namespace skarvel
