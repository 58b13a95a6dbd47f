#include "files/plan_json.h"

#include <nlohmann/json.hpp>

#include "files/job_file.h"
#include "sheets/sheets.h"

namespace skarvel {
namespace {

using Json = nlohmann::ordered_json;

class Writer {
  public:
    Writer(const Shop& shop, const Library& library) : shop_(shop), library_(library) {}

    [[nodiscard]] std::string say(const Reason& r) const { return library_.catalogue.say(r, shop_.display); }

    [[nodiscard]] Json says(const std::vector<Reason>& reasons) const {
        Json list = Json::array();
        for (const Reason& r : reasons) list.push_back(say(r));
        return list;
    }

    static Json box(const Box& b) {
        return {{"left", grid_to_mm(b.low.x)},
                {"bottom", grid_to_mm(b.low.y)},
                {"right", grid_to_mm(b.high.x)},
                {"top", grid_to_mm(b.high.y)}};
    }

    [[nodiscard]] Json problem(const Problem& p) const {
        return {{"station", p.where.station ? word_of(*p.where.station) : p.where.place},
                {"mark", mark(p.mark)},
                {"what", say(p.what)},
                {"remedy", say(p.remedy)}};
    }

    static const char* mark(Mark m) { return m == Mark::Stop ? "stop" : m == Mark::Look ? "look" : "none"; }

    static Json point(Point p) { return {{"x", grid_to_mm(p.x)}, {"y", grid_to_mm(p.y)}}; }

    [[nodiscard]] Json weight(const Weighed& w) const {
        Json points = Json::array();
        for (const HangPoint& p : w.points) points.push_back({{"what", say(p.what)}, {"at", point(p.at)}});
        Json j{{"grams", w.total()},
               {"frameGrams", w.frame_grams},
               {"backingGrams", w.backing_grams},
               {"basis", w.basis},
               {"centreOfGravity", point(w.centre)},
               {"hardware", w.hardware ? say(*w.hardware) : std::string()},
               {"hangingPoints", points},
               {"cautions", says(w.cautions)}};
        if (w.tipping) {
            j["tipping"] = {{"angleDegrees", w.tipping->angle_degrees},
                            {"pushNewton", w.tipping->push_newton},
                            {"neededGrams", w.tipping->needed_grams},
                            {"slides", w.tipping->slides}};
        }
        return j;
    }

    [[nodiscard]] Json marking(const Marking& m) const {
        Json pins = Json::array();
        for (const Pin& p : m.pins)
            pins.push_back({{"what", say(p.what)}, {"at", point(p.at)}, {"string", p.string.in_mm()}});
        return {{"pins", pins}, {"steps", says(m.steps)}};
    }

    [[nodiscard]] Json saw(const SawPlan& s) const {
        Json cuts = Json::array();
        for (std::size_t i = 0; i < s.cuts.size(); ++i) {
            cuts.push_back({{"what", say(s.cuts[i].what)},
                            {"of", s.of[i]},
                            {"count", s.cuts[i].count},
                            {"length", s.cuts[i].length.in_mm()},
                            {"angle", s.cuts[i].angle}});
        }
        Json boards = Json::array();
        for (const SawnBoard& b : s.cutting.boards) {
            boards.push_back(
                {{"from", b.from.in_mm()}, {"boards", b.boards}, {"pieces", b.pieces}, {"offcut", b.offcut.in_mm()}});
        }
        return {{"stock", s.stock},         {"cuts", cuts},
                {"boards", boards},         {"used", s.cutting.used},
                {"least", s.cutting.least}, {"proved", s.cutting.proved}};
    }

    [[nodiscard]] Json blank(const BlankPlan& b) const {
        Json rooms = Json::array();
        for (const NamedRoom& room : b.rooms) rooms.push_back({{"what", say(room.what)}, {"box", box(room.box)}});
        Json fields = Json::array();
        for (const FieldPlan& field : b.fields) {
            Json tape = Json::array();
            for (const auto& [from, to] : field.tape) tape.push_back({{"from", point(from)}, {"to", point(to)}});
            fields.push_back({{"areaMm2", field.region.area_mm2()}, {"tape", tape}});
        }
        Json tape = nullptr;
        if (b.tape) {
            Json corners = Json::array();
            for (const Point& p : b.tape->corners) corners.push_back(point(p));
            tape = {{"corners", corners}, {"says", says(b.tape->words)}, {"worst", b.tape->worst.in_mm()}};
        }
        Json j{{"face", box(b.face)},
               {"areaMm2", b.outline.area_mm2()},
               {"freeMm2", b.free.area_mm2()},
               {"rooms", rooms},
               {"fields", fields},
               {"tape", tape},
               {"order", says(b.order)},
               {"weight", weight(b.weight)},
               {"length", b.length.in_mm()},
               {"width", b.width.in_mm()},
               {"thickness", b.thickness.in_mm()},
               {"usable", box(b.usable)}};
        if (b.stock) {
            j["nominal"] = {{"name", b.stock->name},
                            {"width", b.stock->nominal_width.in_mm()},
                            {"thickness", b.stock->nominal_thickness.in_mm()}};
        }
        return j;
    }

    [[nodiscard]] Json lettering(const LetteringPlan& l) const {
        Json letters = Json::array();
        for (const PlacedLetter& letter : l.letters) {
            letters.push_back({{"text", letter.text}, {"line", letter.line}, {"ink", box(letter.ink.bounds())}});
        }
        Json offers = Json::array();
        for (const TypefaceName& t : l.offers) offers.push_back(t.family + " " + t.style);
        return {{"capHeight", l.cap_height.in_mm()},
                {"stretch", l.stretch},
                {"freeAcross", l.free_across.in_mm()},
                {"freeUp", l.free_up.in_mm()},
                {"notes", says(l.notes)},
                {"offers", offers},
                {"letters", letters}};
    }

    [[nodiscard]] Json laying(const LayingPlan& plan) const {
        const auto point = [](Point p) { return Json{{"x", grid_to_mm(p.x)}, {"y", grid_to_mm(p.y)}}; };
        const auto distance = [](const Distance& d) {
            return Json{{"from", word_of(d.from)}, {"exact", d.exact.in_mm()}, {"marked", d.marked.in_mm()}};
        };
        const auto corner = [&](const MeasuredCorner& c) {
            return Json{{"at", point(c.at)}, {"across", distance(c.across)}, {"up", distance(c.up)}};
        };
        Json lays = Json::array();
        for (const PlacedLay& l : plan.lays) {
            Json row{{"section", l.lay.section + 1},
                     {"time", l.lay.time + 1},
                     {"pass", l.lay.pass},
                     {"goesBy", word_of(l.on)},
                     {"lowerLeft", corner(l.low)},
                     {"upperRight", corner(l.high)},
                     {"roundingMoves", l.off.in_mm()},
                     {"roundingTurnsDegrees", l.turn_hundredths / 100.0},
                     {"tape", box(l.tape)},
                     {"pulledFrom", point(l.pull_from)},
                     {"pulledTo", point(l.pull_to)},
                     {"lifted", l.lifted},
                     {"says", says(distances_told(l))}};
            if (l.against) row["marksOnSection"] = plan.lays[*l.against].lay.section + 1;
            if (l.hinge)
                row["hinge"] = {
                    {"from", point(l.hinge->from)}, {"to", point(l.hinge->to)}, {"first", word_of(l.hinge->half)}};
            lays.push_back(std::move(row));
        }
        return {{"lays", lays}, {"why", says(plan.why)}};
    }

    [[nodiscard]] Json loads(const CutPlan& cut, const Box& face) const {
        const LoadsPlan& plan = *cut.loads;
        Json sections = Json::array();
        for (const Section& s : plan.sections) {
            const auto [low, high] = corners(s, face);
            Json keepers = Json::array();
            for (const Keeper& k : s.keepers)
                keepers.push_back({{"letter", k.letters}, {"box", box(k.shape.bounds())}});
            sections.push_back(
                {{"letters", s.letters},
                 {"film", box(s.film.bounds())},
                 {"lowerLeft", {{"fromLeft", low.from_left.in_mm()}, {"fromBottom", low.from_bottom.in_mm()}}},
                 {"upperRight", {{"fromRight", high.from_right.in_mm()}, {"fromTop", high.from_top.in_mm()}}},
                 {"pass", s.pass},
                 {"again", Json::array()},
                 {"keepers", keepers}});
            for (const Motion& move : s.again) {
                const auto corner = corners(s, face, move).first;
                sections.back()["again"].push_back({{"fromLeft", corner.from_left.in_mm()},
                                                    {"fromBottom", corner.from_bottom.in_mm()},
                                                    {"quarters", move.quarters},
                                                    {"over", move.over}});
            }
        }
        Json seams = Json::array();
        for (const Seam& s : plan.seams) {
            seams.push_back({{"axis", s.axis == Axis::Y ? "level" : "upright"},
                             {"at", grid_to_mm(s.where)},
                             {"lap", s.lap.in_mm()},
                             {"crossed", s.crossed.in_mm()},
                             {"stepped", s.stepped},
                             {"why", say(s.why)}});
        }
        Json loads = Json::array();
        for (std::size_t i = 0; i < plan.loads.size(); ++i) {
            const Load& l = plan.loads[i];
            const FilmFrom from = i < cut.film.size() ? cut.film[i] : FilmFrom{};
            Json placements = Json::array();
            for (const Placement& p : l.placements) {
                placements.push_back({{"section", p.section + 1},
                                      {"turned", p.turned},
                                      {"slant", p.slant / 1000.0},
                                      {"x", grid_to_mm(p.at.x)},
                                      {"y", grid_to_mm(p.at.y)}});
            }
            loads.push_back({{"name", l.name},
                             {"film", l.film_length.in_mm()},
                             {"share", l.share},
                             {"cut", l.cut},
                             {"roll", l.from.empty() ? from.roll : leftovers_of(l)},
                             {"toBuy", from.bought},
                             {"sections", placements}});
        }
        Json lent = Json::array();
        for (const Lent& l : plan.lent)
            lent.push_back({{"section", l.section + 1}, {"of", l.of.name}, {"mask", l.mask + 1}});
        return {{"sections", sections},
                {"seams", seams},
                {"loads", loads},
                {"masksLaidAgain", lent},
                {"crossings", plan.crossings},
                {"keepers", plan.keepers},
                {"passes", plan.passes},
                {"film", plan.film_total.in_mm()},
                {"share", plan.share},
                {"leastLoads", plan.least_loads},
                {"proved", plan.proved},
                {"why", says(plan.why)}};
    }

    [[nodiscard]] Json method(const BuildUp& b, const Risks& risks) const {
        Json layers = Json::array();
        for (const ShownLayer& l : b.layers)
            layers.push_back(
                {{"kind", word_of(l.kind)}, {"name", say(l.name)}, {"detail", say(l.detail)}, {"coats", l.coats}});
        Json findings = Json::array();
        for (const Finding& f : b.findings) {
            findings.push_back({{"rule", f.rule},
                                {"mark", mark(f.mark)},
                                {"joint", word_of(f.joint)},
                                {"layer", f.at},
                                {"why", say(f.why)},
                                {"remedy", say(f.remedy)},
                                {"basis", f.basis}});
        }
        const auto risk = [](const Risk& r) {
            return Json{{"level", word_of(r.level)}, {"likely", r.likely}, {"from", r.from}, {"to", r.to}};
        };
        return {{"layers", layers},
                {"findings", findings},
                {"risks", {{"bleed", risk(risks.bleed)}, {"lift", risk(risks.lift)}}}};
    }

    [[nodiscard]] Json clock(const Plan& plan) const {
        Json j;
        const Schedule& c = *plan.clock;
        if (c.start_by) j["startBy"] = write_moment(*c.start_by);
        if (!c.slots.empty()) j["ready"] = write_moment(c.ready);
        j["late"] = c.late;
        j["handsOnMinutes"] = c.hands_on.count();
        j["savedByRoundsMinutes"] = c.setup_saved.count();
        j["waitsOnDecidingChainMinutes"] = c.chain_waits.count();
        Json waits = Json::array();
        for (const Wait& w : c.chain) waits.push_back({{"minutes", w.at_least.count()}, {"why", say(w.why)}});
        j["decidingChain"] = waits;
        Json steps = Json::array();
        for (const Step& s : plan.bench->steps) {
            steps.push_back({{"id", s.id.name},
                             {"name", say(s.name)},
                             {"start", write_moment(s.start)},
                             {"minutes", s.hands_on.count()},
                             {"instruction", say(s.instruction)},
                             {"check", say(s.check)},
                             {"cautions", says(s.cautions)},
                             {"done", s.done},
                             {"waitAfterMinutes", s.wait_after.count()}});
        }
        j["steps"] = steps;
        j["ticksWithoutStep"] = Json::array();
        j["timers"] = Json::array();
        for (const Timer& t : plan.bench->timers) {
            Json timer{{"after", t.after.name},
                       {"before", t.before.name},
                       {"what", say(t.what)},
                       {"since", write_moment(t.since)},
                       {"from", write_moment(t.from)}};
            if (t.until) timer["until"] = write_moment(*t.until);
            j["timers"].push_back(std::move(timer));
        }
        for (const StepId& id : plan.bench->orphans) j["ticksWithoutStep"].push_back(id.name);
        return j;
    }

  private:
    const Shop& shop_;
    const Library& library_;
};

}  // namespace

std::string write_plan(const Job& job, const Plan& plan, const Shop& shop, const Library& library) {
    const Writer w(shop, library);
    Json j{{"format", 1}, {"title", job.title}, {"proofSigned", plan.proof_signed}, {"faces", Json::array()}};
    for (const ColourPlan& f : plan.colours) {
        Json items = Json::array();
        for (const ShoppingItem& i : f.shopping)
            items.push_back({{"what", w.say(i.what)}, {"howMuch", w.say(i.how_much)}});
        j["faces"].push_back({{"sign", f.face->at.sign + 1},
                              {"face", f.face->at.face + 1},
                              {"colour", f.colour + 1},
                              {"blank", w.blank(*f.face->blank)},
                              {"marking", w.marking(f.face->marking)},
                              {"lettering", w.lettering(*f.face->lettering)},
                              {"making",
                               {{"way", f.cut.making.way == Way::Decal ? "decal" : "paint-through"},
                                {"film", f.cut.making.film.name},
                                {"tool", f.cut.making.tool.name},
                                {"margin", f.cut.making.margin.in_mm()},
                                {"lap", f.cut.making.lap.in_mm()}}},
                              {"loads", w.loads(f.cut, f.face->blank->face)},
                              {"laying", w.laying(*f.laying)},
                              {"method", w.method(*f.method, f.risks)},
                              {"shopping", items}});
    }
    j["saw"] = Json::array();
    for (const SheetGood& g : plan.sheet_goods)
        j["sheetGoods"].push_back({{"what", w.say(g.cut.what)},
                                   {"of", g.of},
                                   {"material", g.material},
                                   {"length", g.cut.length.in_mm()},
                                   {"width", g.cut.width->in_mm()}});
    for (const SawPlan& s : plan.saw) j["saw"].push_back(w.saw(s));
    if (plan.post) {
        j["post"] = {{"sawn", plan.post->sawn.in_mm()}, {"arms", Json::array()}, {"steps", w.says(plan.post->steps)}};
        for (const ArmPlan& a : plan.post->arms) {
            j["post"]["arms"].push_back({{"sign", a.sign.name},
                                         {"fromTop", a.from_top.in_mm()},
                                         {"top", a.top.in_mm()},
                                         {"bottom", a.bottom.in_mm()}});
        }
    }
    j["clock"] = w.clock(plan);
    j["problems"] = Json::array();
    for (const Problem& p : plan.problems) j["problems"].push_back(w.problem(p));
    return j.dump(2, ' ', false, Json::error_handler_t::replace) + "\n";
}

}  // namespace skarvel
