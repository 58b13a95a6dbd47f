#include "job/method_reads.h"

#include <algorithm>
#include <numeric>

#include "job/layer_commands.h"

namespace skarvel {
namespace {

Minutes hands_on_of(const FaceWork& work, const Trade& trade) {
    const std::vector<Task> tasks = tasks_of({work}, trade, trade.hands_on);
    return std::accumulate(tasks.begin(), tasks.end(), Minutes(0),
                           [](Minutes sum, const Task& t) { return sum + t.hands_on; });
}

bool found(const BuildUp& build_up, const std::string& rule, Mark at_least) {
    return std::any_of(build_up.findings.begin(), build_up.findings.end(),
                       [&](const Finding& f) { return f.rule == rule && f.mark >= at_least; });
}

// Which painted fields the ink really lies on, and whether some of it lies on none.
void lies_on(MethodInput& in, const Blank& blank, const std::vector<FieldPlan>& fields, const ColourPlan& colour) {
    if (fields.empty() || colour.cut.pieces->empty()) return;
    std::vector<Region> shapes;
    for (const Piece& p : *colour.cut.pieces) shapes.push_back(p.shape);
    const Region ink = merge(shapes);
    const double speck = 0.005 * ink.area_mm2();
    Region rest = ink;
    // What was painted last lies on top.
    for (std::size_t i = std::min(fields.size(), blank.fields.size()); i-- > 0;) {
        if (intersect(rest, fields[i].region).area_mm2() <= speck) continue;
        in.seen_on.push_back({blank.fields[i].colour, blank.fields[i].colour_name});
        rest = subtract(rest, fields[i].region);
    }
    in.on_ground = rest.area_mm2() > speck;
}

}  // namespace

MethodInput method_reads(const Blank& blank, const BlankPlan& measured, const Face& face, const ColourPlan& colour,
                         std::map<ColourId, std::vector<ShownLayer>> earlier, MakersRules rules, const Trade& trade) {
    const auto colour_of = [&](const ColourId& id) {
        const Colour* known = find_colour(face, id);
        return known == nullptr ? std::string() : known->paint.colour;
    };
    MethodInput in;
    in.making = colour.cut.making;
    in.finish = face.finish;
    in.layers = in_order(face.layers, colours_of(face), false, trade);
    // Lettering that comes later, or in which nothing is, lies on nothing of this colour.
    std::erase_if(in.layers, [&](const Layer& l) {
        return l.kind == LayerKind::Lettering && l.colour != colour.id && !earlier.contains(l.colour);
    });
    in.id = colour.id;
    in.colour = face.colours[colour.colour].paint;
    in.material = blank.kind == Kind::Canvas ? "canvas" : blank.material;
    in.surface = blank.surface;
    in.keepers = colour.cut.loads->keepers;
    in.seams = static_cast<int>(colour.cut.loads->seams.size());
    in.thin = colour.cut.thin->strokes + colour.cut.thin->gaps;
    in.spans_face = colour.cut.loads->spans_face;
    in.already = blank.already;
    in.already_hours = blank.already_hours;
    in.raised_frame = blank.frame.kind != FrameKind::None && blank.frame.before && blank.frame.raised;
    in.in_place = blank.kind == Kind::Field;
    in.from_behind = blank.from_behind;
    in.grain = blank.grain;
    in.grit = blank.grit;
    in.bare = shown_material(blank);
    in.under = seen_under(face.lettering, colour.id, colour_of);
    lies_on(in, blank, measured.fields, colour);
    in.coated_edges = blank.finished != Coated::Face;
    in.earlier = std::move(earlier);
    in.overruled = std::move(rules.overruled);
    in.own_rules = std::move(rules.own);
    return in;
}

HandsOn hands_on_in(const Shop& shop, const Trade& trade) {
    HandsOn hands_on = trade.hands_on;
    if (shop.hands.hinge_from > Length{}) hands_on.hinged_from = shop.hands.hinge_from;
    return hands_on;
}

LayingInput laying_reads(const Blank& blank, const Shared<BlankPlan>& measured, const ColourPlan& colour,
                         const Display& display) {
    LayingInput in;
    in.blank = measured;
    in.loads = colour.cut.loads;
    in.way = colour.cut.making.way;
    in.start = colour.cut.making.lay_from;
    in.hinged_from = colour.cut.making.laying.hinged_from;
    in.grain = blank.grain;
    const BuildUp& m = *colour.method;
    in.tender = m.top.kind != "none" && (m.top.glossy || m.rest < m.top.film_safe);
    in.fraction = display.unit == Unit::Inch ? Length::inches(0, 1, display.denominator) : 1_mm;
    return in;
}

FaceWork work_reads(const Sign& sign, const Face& face, const FacePlan& plan, std::span<const ColourPlan> colours,
                    const std::string& name, const Trade& trade) {
    FaceWork w;
    w.id = plan.id;
    // The back first, so that the front is never lain upon, unless its maker wants it otherwise.
    if (sign.front_first && plan.at.face > 0)
        w.after_face = sign.faces[plan.at.face - 1].id;
    else if (!sign.front_first && plan.at.face + 1 < sign.faces.size())
        w.after_face = sign.faces[plan.at.face + 1].id;
    w.sign = name;
    for (const ColourPlan& c : colours) {
        const Colour& decided = face.colours[c.colour];
        w.colours.push_back(
            {c.id, decided.paint.colour_name, c.method, decided.making, c.cut.loads, c.cut.printed_with.has_value()});
    }
    w.layers = in_order(face.layers, colours_of(face), sign.blank.from_behind, trade);
    std::erase_if(w.layers, [&](const Layer& l) {
        return l.kind == LayerKind::Lettering &&
               std::none_of(colours.begin(), colours.end(), [&](const ColourPlan& c) { return c.id == l.colour; });
    });
    w.stacked = face.finish.stacked;
    w.outdoors = is_outdoors(face.finish.place);
    w.area_sqft = plan.blank->coat_sqft;
    w.letter_height = plan.lettering->cap_height;
    w.fields = static_cast<int>(sign.blank.fields.size());
    for (const FieldPlan& field : plan.blank->fields) w.fields_sqft += field.region.area_mm2() / (304.8 * 304.8);
    for (const Cut& cut : plan.blank->cuts) w.frame_pieces += cut.what.id.starts_with("frame.") ? cut.count : 0;
    w.frame_before = sign.blank.frame.before;
    if (is_sawn_here(sign.blank)) {
        for (const Cut& cut : plan.blank->cuts) w.saw_pieces += cut.what.id.starts_with("frame.") ? 0 : cut.count;
        w.saw_length = from_grid(std::max(plan.blank->face.width(), plan.blank->face.height()));
        w.saw_head = sign.blank.kind == Kind::Arrow;
    }
    w.holds = sign.blank.holding.way;
    w.heavy = plan.blank->weight.total() > trade.hands_on.alone_to_grams;
    return w;
}

namespace {

// The colours of a face as they were planned, and what one change to the face would make of one of them.
class Trials {
  public:
    Trials(const Job& job, const Shop& shop, const Plan& plan, const ColourId& colour, const Trade& trade)
        : trade_(trade), shop_(shop), rules_(rules_of_maker(job, shop)) {
        const auto at = place_of(job, colour);
        now_ = plan.of(colour);
        if (!at || now_ == nullptr || now_->id != colour) {
            now_ = nullptr;
            return;
        }
        sign_ = &job.signs[at->face.sign];
        face_ = &face_at(job, at->face);
        for (const ColourPlan& c : plan.colours) {
            if (c.face->id != face_->id) continue;
            if (c.id == colour) own_ = of_face_.size();
            if (c.colour < now_->colour && !c.cut.printed_with && !c.cut.pieces->empty())
                earlier_[c.id] = left_on_face(*c.method);
            of_face_.push_back(c);
        }
        // A plan of the job as it was: the next one will say.
        const bool as_planned = std::all_of(of_face_.begin(), of_face_.end(), [&](const ColourPlan& c) {
            return c.colour < face_->colours.size() && face_->colours[c.colour].id == c.id;
        });
        if (as_planned)
            before_ = hands_on_of(work_reads(*sign_, *face_, *now_->face, of_face_, {}, trade), trade);
        else
            now_ = nullptr;
    }

    [[nodiscard]] const ColourPlan* now() const { return now_; }

    struct Came {
        BuildUp build;
        Remedy remedy;
    };
    // Nothing where the fix changes nothing, or brings something at least so grave that was not there.
    [[nodiscard]] std::optional<Came> of(const Finding& finding, Fix fix, Mark grave) const {
        Face mended = *face_;
        mend(mended, now_->colour, *now_->method, finding, fix, trade_);
        if (mended == *face_) return std::nullopt;
        ColourPlan then = *now_;
        then.cut.making = resolve(mended.colours[now_->colour].making, trade_.films, trade_.tools);
        Came came{
            build_up(method_reads(sign_->blank, *now_->face->blank, mended, then, earlier_, rules_, trade_), trade_),
            {finding, fix, {}, {}, {}}};
        const auto brought = [&](const Finding& g) { return g.mark >= grave && !found(*now_->method, g.rule, g.mark); };
        if (std::any_of(came.build.findings.begin(), came.build.findings.end(), brought)) return std::nullopt;
        then.method = Shared<BuildUp>(came.build);
        std::vector<ColourPlan> changed = of_face_;
        changed[own_] = then;
        came.remedy.hands_on =
            hands_on_of(work_reads(*sign_, mended, *now_->face, changed, {}, trade_), trade_) - before_;
        const auto was = worth(*now_), is = worth(then);
        if (was && is) came.remedy.cents = *is - *was;
        came.remedy.then = risks_of(came.build, trade_);
        return came;
    }

  private:
    // Of the film that is cut for it, by itself.
    [[nodiscard]] std::optional<std::int64_t> worth(const ColourPlan& colour) const {
        const bool decal = colour.cut.making.way == Way::Decal;
        const FilmUser user{colour.cut.making.film.id,
                            colour.cut.making.film.name,
                            decal ? face_->colours[colour.colour].paint.colour : std::string(),
                            colour.cut.loads,
                            {}};
        return worth_of(film_costs(uses_of({user}), shop_.drawer), user);
    }

    const Trade& trade_;
    const Shop& shop_;
    const MakersRules rules_;
    const Sign* sign_ = nullptr;
    const Face* face_ = nullptr;
    const ColourPlan* now_ = nullptr;
    std::vector<ColourPlan> of_face_;
    std::map<ColourId, std::vector<ShownLayer>> earlier_;
    std::size_t own_ = 0;
    Minutes before_{0};
};

}  // namespace

std::vector<Remedy> remedies(const Job& job, const Shop& shop, const Plan& plan, const ColourId& colour,
                             const Trade& trade) {
    std::vector<Remedy> all;
    const Trials trials(job, shop, plan, colour, trade);
    if (trials.now() == nullptr) return all;
    for (const Finding& finding : trials.now()->method->findings) {
        for (const Fix fix : finding.fixes) {
            const auto came = trials.of(finding, fix, Mark::Stop);
            if (came && !found(came->build, finding.rule, Mark::None)) all.push_back(came->remedy);
        }
    }
    return all;
}

MakersRules rules_of_maker(const Job& job, const Shop& shop) {
    MakersRules rules{job.overruled, shop.own_rules};
    rules.overruled.insert(rules.overruled.end(), shop.overruled.begin(), shop.overruled.end());
    return rules;
}

Lowering what_lowers(const Job& job, const Shop& shop, const Plan& plan, const ColourId& colour, const Trade& trade) {
    constexpr double worth_it = 0.01;
    Lowering lowering;
    const Trials trials(job, shop, plan, colour, trade);
    if (trials.now() == nullptr) return lowering;
    Finding at_film;
    at_film.joint = Joint::Film;
    const std::vector<ShownLayer>& layers = trials.now()->method->layers;
    while (at_film.at + 1 < layers.size() && layers[at_film.at].of != trials.now()->method->own) ++at_film.at;
    const Risks& now = trials.now()->risks;
    for (const Fix fix :
         {Fix::SandFirst, Fix::SandBetween, Fix::SealGround, Fix::SealClear, Fix::TexturedFilm, Fix::RemovableFilm,
          Fix::LeastRest, Fix::SafeRest, Fix::ClearUnder, Fix::PrimeFirst, Fix::MoreColour, Fix::LiftSoft}) {
        const auto came = trials.of(at_film, fix, Mark::Look);
        if (!came) continue;
        if (came->remedy.then.bleed.likely < now.bleed.likely - worth_it) lowering.bleed.push_back(came->remedy);
        if (came->remedy.then.lift.likely < now.lift.likely - worth_it) lowering.lift.push_back(came->remedy);
    }
    std::stable_sort(lowering.bleed.begin(), lowering.bleed.end(),
                     [](const Remedy& a, const Remedy& b) { return a.then.bleed.likely < b.then.bleed.likely; });
    std::stable_sort(lowering.lift.begin(), lowering.lift.end(),
                     [](const Remedy& a, const Remedy& b) { return a.then.lift.likely < b.then.lift.likely; });
    return lowering;
}

}  // namespace skarvel
