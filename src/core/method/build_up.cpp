#include "method/build_up.h"

#include "method/own_rules.h"

#include <algorithm>
#include <cmath>

#include "method/contrast.h"

namespace skarvel {
namespace {

std::string colour_or(const std::string& colour, const char* otherwise) { return colour.empty() ? otherwise : colour; }

constexpr const char* unknown_bare = "#d8b886";  // as pine, where the job names a material that the tables do not
constexpr const char* unknown_coat = "#7a8288";
constexpr const char* clear_sheen = "#dbe4e4";

double hours(Minutes m) { return static_cast<double>(m.count()) / 60; }

// The coat of a face that hides what lies below it.
bool hides(const Trade& trade, const Layer& layer) {
    const std::string kind = coat_of(trade, layer).kind;
    return layer.kind == LayerKind::Coat && layer.on == On::Face && kind != "clear" && kind != "glaze" &&
           kind != "filler" && layer.coat.coats > 0;
}

std::vector<ColourId> colours_in(const std::vector<Layer>& layers) {
    std::vector<ColourId> colours;
    for (const Layer& l : layers) {
        if (l.kind == LayerKind::Lettering) colours.push_back(l.colour);
    }
    return colours;
}

// What lies below and over the lettering of a colour, bottom first.
struct Around {
    std::vector<Layer> below, over;
};

Around around(const MethodInput& in) {
    const std::vector<Layer>& order = in.layers;
    const auto own = std::find_if(order.begin(), order.end(),
                                  [&](const Layer& l) { return l.kind == LayerKind::Lettering && l.colour == in.id; });
    Around out;
    out.below.assign(order.begin(), own);
    if (own != order.end()) out.over.assign(own + 1, order.end());
    return out;
}

bool any_of_kind(const std::vector<Layer>& layers, LayerKind kind) {
    return std::any_of(layers.begin(), layers.end(), [&](const Layer& l) { return l.kind == kind; });
}

template <class Is>
const Layer* last_that(const std::vector<Layer>& layers, const Is& is) {
    const auto at = std::find_if(layers.rbegin(), layers.rend(), is);
    return at == layers.rend() ? nullptr : &*at;
}

class Building {
  public:
    Building(const MethodInput& in, const Trade& trade) : in_(in), trade_(trade), around_(around(in)) {}

    BuildUp build() {
        resolve();
        b_.facts = facts();
        show();
        judge();
        say_sound();
        return std::move(b_);
    }

  private:
    [[nodiscard]] bool mask() const { return in_.making.way == Way::PaintThrough; }

    void resolve() {
        const auto on_face = [&](const Layer& l) { return l.on == On::Face && l.coat.coats > 0; };
        const auto is_ground = [&](const Layer& l) { return hides(trade_, l); };
        const auto clear = [&](const Layer& l) { return is_clear(trade_, l) && on_face(l); };
        if (const Layer* ground = last_that(around_.below, is_ground)) {
            b_.ground = coat_of(trade_, *ground);
            b_.ground_coats = ground->coat.coats;
            b_.ground_colour = colour_or(ground->coat.colour, unknown_coat);
        }
        const Layer* over = last_that(around_.over, clear);
        const Layer* under = last_that(around_.below, clear);
        if (const Layer* last = over != nullptr ? over : under) {
            b_.clear = coat_of(trade_, *last);
            b_.clear_coats = last->coat.coats;
        }
        top_ = last_that(around_.below, [&](const Layer& l) { return is_coat(l) && on_face(l); });
        if (top_ != nullptr) b_.top = coat_of(trade_, *top_);
        if (mask()) {
            b_.colour = coat_of(trade_, in_.colour.coat);
            b_.colour_coats = std::max(1, in_.colour.coats);
        }
        b_.field = b_.ground_coats > 0 ? b_.ground : mask() ? b_.colour : coat_of(trade_, trade_.field_paint);
        b_.ink = in_.colour.colour;
        if (mask()) b_.through = through_mask(in_.layers, in_.id);
        for (const Layer& l : b_.through) {
            const std::string kind = coat_of(trade_, l).kind;
            if (kind != "clear" && kind != "glaze" && !l.coat.colour.empty()) b_.ink = l.coat.colour;
        }
        b_.sprayed = mask() && in_.making.tool.id == "spray";
        const auto lift = std::find_if(trade_.lifts.begin(), trade_.lifts.end(),
                                       [&](const LiftWindow& l) { return l.id == in_.finish.lift; });
        b_.lift = lift != trade_.lifts.end() ? *lift : LiftWindow{Lift::Soft, Minutes(15), Minutes(60)};
        if (top_ != nullptr) {
            b_.rest = in_.finish.rest_hours   ? Minutes(*in_.finish.rest_hours * 60)
                      : in_.finish.safe_waits ? b_.top.film_safe
                                              : b_.top.film_least;
        }
    }

    [[nodiscard]] Facts facts() const {
        const Material* material = material_of(trade_, in_.material);
        const Material* seen = material_of(trade_, in_.bare);
        const std::string bare = seen == nullptr ? unknown_bare : seen->colour;
        const std::string& ink = b_.ink;
        const std::string ground = !b_.ground_colour.empty() ? b_.ground_colour : bare;
        // Where it lies on several, on the one that it stands out from least.
        std::string below = !in_.under.empty()                     ? in_.under
                            : in_.on_ground || in_.seen_on.empty() ? ground
                                                                   : std::string();
        if (in_.under.empty()) {
            for (const SeenOn& field : in_.seen_on) {
                if (below.empty() || contrast(ink, field.colour) < contrast(ink, below)) below = field.colour;
            }
        }
        Facts f;
        f["way"] = std::string(mask() ? "paint-through" : "decal");
        f["film.kind"] = in_.making.film.kind;
        f["film.known"] = in_.making.film.known;
        f["tool"] = in_.making.tool.id;
        f["tool.known"] = in_.making.tool.known;
        f["margin.in"] = in_.making.margin.in_inches();
        f["tool.margin.in"] = in_.making.tool.margin.in_inches();
        f["mask.spans"] = in_.spans_face;
        f["material"] = in_.material;
        f["material.known"] = material != nullptr;
        f["surface"] = std::string(word_of(in_.surface));
        f["already"] = std::string(word_of(in_.already));
        f["already.hours"] = static_cast<double>(in_.already_hours);
        f["frame.raised"] = in_.raised_frame;
        f["in-place"] = in_.in_place;
        f["from-behind"] = in_.from_behind;
        f["grain"] = std::string(word_of(in_.grain));
        f["place"] = std::string(word_of(in_.finish.place));
        f["outdoors"] = is_outdoors(in_.finish.place);
        f["seal"] = std::string(word_of(in_.finish.seal));
        f["lift"] = std::string(word_of(in_.finish.lift));
        f["keepers"] = static_cast<double>(in_.keepers);
        f["seams"] = static_cast<double>(in_.seams);
        f["thin"] = static_cast<double>(in_.thin);
        f["earlier.any"] = !in_.earlier.empty();
        f["material.slick"] = in_.material == "acrylic" || in_.material == "foam" || in_.material == "canvas";
        f["contrast"] = contrast(ink, below);
        f["lightening"] = luminance(in_.colour.colour) > luminance(below) + 0.2;
        f["colour.coats"] = static_cast<double>(b_.colour_coats);
        f["colour.exterior"] = mask() ? b_.colour.exterior : true;
        f["colour.base"] = b_.colour.base;
        f["earlier.decal"] = std::any_of(in_.earlier.begin(), in_.earlier.end(), [](const auto& colour) {
            return std::any_of(colour.second.begin(), colour.second.end(),
                               [](const ShownLayer& l) { return l.kind == ShownKind::Film; });
        });
        constexpr double light = 0.4;
        f["ground.light"] = b_.ground.kind == "paint" && luminance(b_.ground_colour) > light;
        f["ground.hides"] =
            b_.ground.kind != "paint" || b_.ground_coats >= coats_to_hide(below_ground(bare), b_.ground_colour);
        add_coats(f);
        add_handling(f);
        return f;
    }

    // What the ground has to hide: the coat that hides below it, else the bare material; what is on the blank already
    // is not known by its colour.
    [[nodiscard]] std::string below_ground(const std::string& bare) const {
        const Layer* below = nullptr;
        const Layer* ground = nullptr;
        for (const Layer& l : around_.below) {
            if (hides(trade_, l)) below = std::exchange(ground, &l);
        }
        if (below != nullptr && !below->coat.colour.empty()) return below->coat.colour;
        return in_.already == Already::Bare ? bare : b_.ground_colour;
    }

    void add_coats(Facts& f) const {
        f["ground.kind"] = b_.ground.kind;
        f["ground.base"] = b_.ground.base;
        f["ground.glossy"] = b_.ground.glossy;
        f["ground.coats"] = static_cast<double>(b_.ground_coats);
        f["top.kind"] = top_ == nullptr                     ? std::string("bare")
                        : top_->kind == LayerKind::DryBrush ? std::string("dry-brush")
                                                            : b_.top.kind;
        f["top.base"] = b_.top.base;
        f["top.glossy"] = b_.top.glossy;
        f["top.how"] = std::string(top_ == nullptr ? "" : word_of(top_->how));
        f["top.film_least"] = hours(b_.top.film_least);
        f["top.film_safe"] = hours(b_.top.film_safe);
        f["rest.hours"] = hours(b_.rest);
        f["clear.coats"] = static_cast<double>(b_.clear_coats);
        f["clear.base"] = b_.clear.base;
        const bool over = std::any_of(around_.over.begin(), around_.over.end(),
                                      [&](const Layer& l) { return is_clear(trade_, l) && l.coat.coats > 0; });
        f["clear.over"] = over;
        const std::string& below = mask() && over ? b_.colour.base : b_.ground.base;
        f["bases.cross"] = b_.clear_coats > 0 && !below.empty() && b_.clear.base != below;
        int coats = 0;
        for (const Layer& l : around_.below) coats += is_coat(l) && l.on == On::Face ? l.coat.coats : 0;
        f["below.all-coats"] = static_cast<double>(coats);
        const auto has = [&](const char* kind) {
            return std::any_of(around_.below.begin(), around_.below.end(), [&](const Layer& l) {
                return is_coat(l) && l.on == On::Face && coat_of(trade_, l).kind == kind;
            });
        };
        f["primed"] = has("primer");
        f["stained"] = has("stain");
        f["edges.coated"] = in_.coated_edges || std::any_of(in_.layers.begin(), in_.layers.end(), [](const Layer& l) {
                                return is_coat(l) && l.on == On::Edges;
                            });
        f["back.coated"] = std::any_of(in_.layers.begin(), in_.layers.end(),
                                       [](const Layer& l) { return is_coat(l) && l.on == On::Back; });
    }

    void add_handling(Facts& f) const {
        f["sanded"] = any_of_kind(around_.below, LayerKind::Sand);
        f["wiped"] = any_of_kind(around_.below, LayerKind::Wipe);
        f["tried"] = any_of_kind(around_.below, LayerKind::Trial);
        f["dry-brushed"] = any_of_kind(around_.below, LayerKind::DryBrush);
        f["chalked"] = any_of_kind(around_.over, LayerKind::Chalk);
        const bool worn_over = any_of_kind(around_.over, LayerKind::Distress);
        f["distressed"] = std::string(worn_over                                         ? "after"
                                      : any_of_kind(around_.below, LayerKind::Distress) ? "before"
                                                                                        : "no");
        f["hardware"] = std::string(any_of_kind(around_.below, LayerKind::Hardware)  ? "before"
                                    : any_of_kind(around_.over, LayerKind::Hardware) ? "after"
                                                                                     : "no");
        // The top coat is scuffed by sanding that follows it.
        bool scuffed = false;
        for (const Layer& l : around_.below) {
            if (is_coat(l) && l.on == On::Face) scuffed = false;
            if (l.kind == LayerKind::Sand) scuffed = true;
        }
        f["top.scuffed"] = scuffed;
    }

    [[nodiscard]] std::vector<std::pair<std::string, Argument>> arguments() const {
        return {{"material", in_.material},
                {"film", in_.making.film.name},
                {"tool", in_.making.tool.name},
                {"margin", in_.making.margin},
                {"tool_margin", in_.making.tool.margin},
                {"ground", b_.ground.name},
                {"top", b_.top.name},
                {"colour", b_.colour.name},
                {"clear", b_.clear.name},
                {"rest", b_.rest},
                {"least", b_.top.film_least},
                {"safe", b_.top.film_safe},
                {"keepers", std::int64_t{in_.keepers}},
                {"contrast", std::get<double>(b_.facts.at("contrast"))},
                {"seen_on", std::vector<Reason>{seen_on()}},
                {"coats", std::int64_t{b_.clear_coats}},
                {"from", b_.lift.from},
                {"to", b_.lift.to}};
    }

    // What the lettering stands out from least.
    [[nodiscard]] Reason seen_on() const {
        const double least = std::get<double>(b_.facts.at("contrast"));
        for (const SeenOn& field : in_.seen_on) {
            if (!in_.under.empty() || contrast(b_.ink, field.colour) > least) continue;
            return field.name.empty() ? Reason{"seen-on.field", {}} : Reason{"seen-on.named", {{"name", field.name}}};
        }
        return {in_.under.empty() ? "seen-on.ground" : "seen-on.below", {}};
    }

    // ---- what is seen in the cut

    void show() {
        const Material* bare = material_of(trade_, in_.material);
        b_.layers.push_back({ShownKind::Bare,
                             {},
                             {"layer.wood", {{"material", bare == nullptr ? in_.material : bare->name}}},
                             {"layer.wood-bare", {}},
                             {},
                             0,
                             false,
                             false,
                             {},
                             On::Face,
                             {}});
        bool lettered = false;
        bool coated = false;
        for (const Layer& layer : in_order(in_.layers, colours_in(in_.layers), in_.from_behind, trade_)) {
            if (layer.kind == LayerKind::Lettering) {
                if (layer.colour == in_.id) {
                    show_lettering(layer);
                    lettered = true;
                } else if (const auto at = in_.earlier.find(layer.colour); at != in_.earlier.end()) {
                    b_.layers.insert(b_.layers.end(), at->second.begin(), at->second.end());
                }
                continue;
            }
            if (is_coat(layer) && layer.coat.coats <= 0) continue;
            ShownLayer shown = shown_as(layer, coated || lettered, lettered);
            shown.field = layer.field;
            if (is_coat(layer) && layer.on == On::Openings) {
                shown.joint = Joint::Pair;
                shown.in_openings = true;
            }
            if (is_coat(layer) && layer.on == On::Face) {
                shown.joint = coated || lettered || shown.kind == ShownKind::ClearUnder ? Joint::Pair : Joint::Ground;
                if (is_clear(trade_, layer)) shown.joint = Joint::Clear;
                coated = true;
            }
            b_.layers.push_back(std::move(shown));
        }
        // On the back of a clear blank the ground comes last; it is the ground all the same.
        if (in_.from_behind) {
            for (ShownLayer& l : b_.layers) {
                if (l.kind == ShownKind::Ground) l.joint = Joint::Ground;
            }
        }
    }

    // What leaves nothing on the face is told by what was done.
    static std::optional<ShownKind> done_to_face(LayerKind kind) {
        static constexpr std::array<std::pair<LayerKind, ShownKind>, 7> done{
            {{LayerKind::Wipe, ShownKind::Wiped},
             {LayerKind::Sand, ShownKind::Sanded},
             {LayerKind::Distress, ShownKind::Distressed},
             {LayerKind::Chalk, ShownKind::Chalked},
             {LayerKind::Hardware, ShownKind::Hardware},
             {LayerKind::Decorate, ShownKind::Decorated},
             {LayerKind::Trial, ShownKind::Tried}}};
        const auto at = std::find_if(done.begin(), done.end(), [&](const auto& pair) { return pair.first == kind; });
        return at == done.end() ? std::nullopt : std::optional(at->second);
    }

    // The usual paper: 220 on what is bare, 400 over a coat, 320 to rub through (common practice).
    [[nodiscard]] std::int64_t grit_of(const Layer& layer, bool coated) const {
        constexpr std::int64_t over_coat = 400, rubbing = 320, bare = 220;
        if (layer.grit > 0) return layer.grit;
        if (layer.kind == LayerKind::Distress) return rubbing;
        return coated ? over_coat : in_.grit > 0 ? in_.grit : bare;
    }

    [[nodiscard]] ShownLayer shown_as(const Layer& layer, bool coated, bool lettered) const {
        ShownLayer s;
        s.of = layer.id;
        s.on = layer.on;
        if (const auto done = done_to_face(layer.kind)) {
            s.kind = *done;
            const std::string key = std::string("layer.") + word_of(*done);
            s.name = {key, {}};
            s.detail = {key + "-how", {{"grit", grit_of(layer, coated)}}};
            return s;
        }
        const Coat coat = coat_of(trade_, layer);
        s.coats = layer.coat.coats;
        s.colour = colour_or(layer.coat.colour, coat.kind == "clear" ? clear_sheen : unknown_coat);
        const std::string what = layer.kind == LayerKind::DryBrush ? "dry-brush" : coat.kind;
        s.kind = what == "dry-brush" ? ShownKind::DryBrush
                 : what == "clear"   ? (lettered ? ShownKind::Clear : ShownKind::ClearUnder)
                 : what == "stain"   ? ShownKind::Stain
                 : what == "filler"  ? ShownKind::Filler
                 : what == "primer"  ? ShownKind::Primer
                 : what == "glaze"   ? ShownKind::Glaze
                                     : ShownKind::Ground;
        const bool through = layer.on == On::Openings && s.kind == ShownKind::Ground;
        const std::string named = through                           ? "colour"
                                  : s.kind == ShownKind::Ground     ? "ground"
                                  : s.kind == ShownKind::ClearUnder ? "clear"
                                                                    : std::string(word_of(s.kind));
        s.name = {"layer." + named, {{"colour", layer.coat.colour_name}}};
        s.detail = {
            layer.wiped_after > 0 ? "layer.coats-wiped" : "layer.coats",
            {{"coat", coat.name}, {"coats", std::int64_t{layer.coat.coats}}, {"after", Minutes(layer.wiped_after)}}};
        if (layer.on != On::Face)
            s.name = {std::string("layer.on-") + word_of(layer.on),
                      {{"layer", std::vector<Reason>{s.name}}, {"field", std::int64_t{layer.field}}}};
        return s;
    }

    void show_lettering(const Layer& layer) {
        const auto add = [&](ShownKind kind, Joint joint, Reason name, Reason detail, std::string colour, int coats,
                             bool in_openings, bool lifted) {
            b_.layers.push_back({kind,
                                 joint,
                                 std::move(name),
                                 std::move(detail),
                                 std::move(colour),
                                 coats,
                                 in_openings,
                                 lifted,
                                 layer.id,
                                 On::Face,
                                 {}});
        };
        const Reason film{"layer.film", {{"film", in_.making.film.name}}};
        own_film_ = b_.layers.size();
        b_.own = layer.id;
        if (!mask()) {
            add(ShownKind::Film, Joint::Film, {"layer.decal", {{"colour", in_.colour.colour_name}}}, film,
                colour_or(in_.colour.colour, "#ffffff"), 0, true, false);
            return;
        }
        add(ShownKind::Film, Joint::Film, {"layer.mask", {}}, film, "#b4bab4", 0, false, true);
        if (in_.finish.seal != Seal::None) {
            const bool by_ground = in_.finish.seal == Seal::Ground;
            add(ShownKind::Seal, Joint::Seal, {"layer.seal", {}},
                {by_ground ? "layer.seal-ground" : "layer.seal-clear", {}},
                by_ground ? colour_or(b_.ground_colour, clear_sheen) : clear_sheen, 1, true, false);
        }
        add(ShownKind::Colour, Joint::Colour, {"layer.colour", {{"colour", in_.colour.colour_name}}},
            {"layer.thin-coats", {{"coat", b_.colour.name}, {"coats", std::int64_t{b_.colour_coats}}}},
            colour_or(in_.colour.colour, "#ffffff"), b_.colour_coats, true, false);
    }

    // ---- judging

    // The layer at whose lower side something of that joint shows.
    [[nodiscard]] std::size_t place_of(Joint joint) const {
        const auto last = [&](const auto& is, std::size_t otherwise) {
            for (std::size_t i = b_.layers.size(); i-- > 0;) {
                if (is(b_.layers[i])) return i;
            }
            return otherwise;
        };
        const auto own = [&](Joint wanted) {
            for (std::size_t i = own_film_; i < b_.layers.size() && i < own_film_ + 3; ++i) {
                if (b_.layers[i].joint == wanted) return i;
            }
            return std::min(own_film_, b_.layers.size() - 1);
        };
        switch (joint) {
            case Joint::Ground: {
                const auto at = std::find_if(b_.layers.begin(), b_.layers.end(),
                                             [](const ShownLayer& l) { return l.joint == Joint::Ground; });
                return at == b_.layers.end() ? 0 : static_cast<std::size_t>(at - b_.layers.begin());
            }
            case Joint::Clear:
                return last([](const ShownLayer& l) { return l.joint == Joint::Clear; }, b_.layers.size() - 1);
            case Joint::Lift:
                return own(Joint::Colour);
            default:
                return own(joint);
        }
    }

    static Finding found_by(const OwnRule& own, const Rule& rule, std::size_t at) {
        return {rule.id,
                rule.mark,
                rule.joint,
                rule.basis,
                {"own-rule.says", {{"says", own.says}}},
                {own.instead.empty() ? "own-rule.nothing-instead" : "own-rule.instead", {{"instead", own.instead}}},
                at,
                {}};
    }

    void judge() {
        const auto args = arguments();
        for (const Rule& rule : trade_.rules) {
            if (rule.joint == Joint::Pair || !fires(rule.when, b_.facts)) continue;
            b_.findings.push_back({rule.id,
                                   rule.mark,
                                   rule.joint,
                                   rule.basis,
                                   {"rule." + rule.id, args},
                                   {"remedy." + rule.id, args},
                                   place_of(rule.joint),
                                   rule.fixes});
        }
        for (const OwnRule& own : in_.own_rules) {
            const Rule rule = as_rule(own);
            if (rule.when.empty() || rule.joint == Joint::Pair || !fires(rule.when, b_.facts)) continue;
            b_.findings.push_back(found_by(own, rule, place_of(rule.joint)));
        }
        judge_pairs();
        for (std::size_t i = 0; i < b_.layers.size(); ++i) note_unknown(i);
        note_without_mask();
        for (Finding& f : b_.findings) {
            const auto at = std::find_if(in_.overruled.begin(), in_.overruled.end(),
                                         [&](const Overruled& o) { return o.rule == f.rule; });
            if (at == in_.overruled.end() || f.mark == Mark::None) continue;
            f.overruled = at->note;
            f.mark = Mark::None;
            f.fixes.clear();
        }
        std::stable_sort(b_.findings.begin(), b_.findings.end(),
                         [](const Finding& a, const Finding& c) { return a.mark > c.mark; });
    }

    // What a shown layer is made of; nothing where it is no substance that another can lie on.
    [[nodiscard]] std::optional<Coat> substance(const ShownLayer& l) const {
        if (l.on != On::Face && l.on != On::Openings) return std::nullopt;
        switch (l.kind) {
            case ShownKind::Wiped:
            case ShownKind::Sanded:
            case ShownKind::Hardware:
            case ShownKind::Decorated:
            case ShownKind::Seal:
            case ShownKind::Tried:
                return std::nullopt;
            case ShownKind::Bare:
                return Coat{"", in_.material, "bare", "", {}, {}, {}, {}, {}, false, false, true};
            case ShownKind::Film: {
                Coat film;
                film.name = in_.making.film.name;
                film.kind = l.lifted ? "mask" : "decal";
                return film;
            }
            case ShownKind::Distressed:
            case ShownKind::Chalked: {
                Coat handled;
                handled.kind = word_of(l.kind);
                return handled;
            }
            case ShownKind::Colour:
                return l.of == b_.own ? b_.colour : Coat{"", "", "paint", "", {}, {}, {}, {}, {}, false, false, true};
            default:
                break;
        }
        const auto at =
            std::find_if(in_.layers.begin(), in_.layers.end(), [&](const Layer& m) { return m.id == l.of; });
        if (at == in_.layers.end()) return std::nullopt;
        Coat coat = coat_of(trade_, *at);
        if (l.kind == ShownKind::DryBrush) coat.kind = "dry-brush";
        return coat;
    }

    void judge_pairs() {
        std::optional<std::size_t> below;
        Coat lower;
        bool sanded = false;
        bool wiped = false;
        for (std::size_t i = 0; i < b_.layers.size(); ++i) {
            const ShownLayer& layer = b_.layers[i];
            if (layer.kind == ShownKind::Sanded) sanded = true;
            if (layer.kind == ShownKind::Wiped) wiped = true;
            // A mask is gone when the next layer comes.
            if (below && b_.layers[*below].lifted && i > own_film_) {
                lower = b_.top;
                if (top_ == nullptr) lower.kind = "bare";
                below = own_film_;
            }
            const std::optional<Coat> upper = substance(layer);
            if (!upper) continue;
            if (below) judge_pair(lower, *upper, i, sanded, wiped);
            if (layer.kind == ShownKind::Distressed || layer.kind == ShownKind::Chalked) continue;
            below = i;
            lower = *upper;
            sanded = wiped = false;
        }
    }

    void judge_pair(const Coat& lower, const Coat& upper, std::size_t at, bool sanded, bool wiped) {
        Facts f = b_.facts;
        const ShownLayer& layer = b_.layers[at];
        f["below.kind"] = lower.kind;
        f["below.base"] = lower.base;
        f["below.glossy"] = lower.glossy;
        f["above.kind"] = upper.kind;
        f["above.base"] = upper.base;
        f["above.coats"] = static_cast<double>(layer.coats);
        f["between.sanded"] = sanded;
        f["between.wiped"] = wiped;
        f["above.lettering"] = layer.in_openings || layer.lifted;
        const auto maker =
            std::find_if(in_.layers.begin(), in_.layers.end(), [&](const Layer& m) { return m.id == layer.of; });
        if (maker != in_.layers.end()) {
            f["above.how"] = std::string(word_of(maker->how));
            f["above.wiped"] = maker->wiped_after > 0;
        }
        auto args = arguments();
        args.emplace_back("below", lower.name);
        args.emplace_back("above", upper.name);
        for (const Rule& rule : trade_.rules) {
            if (rule.joint != Joint::Pair || !fires(rule.when, f)) continue;
            b_.findings.push_back({rule.id,
                                   rule.mark,
                                   rule.joint,
                                   rule.basis,
                                   {"rule." + rule.id, args},
                                   {"remedy." + rule.id, args},
                                   at,
                                   rule.fixes});
        }
        for (const OwnRule& own : in_.own_rules) {
            const Rule rule = as_rule(own);
            if (rule.joint == Joint::Pair && fires(rule.when, f)) b_.findings.push_back(found_by(own, rule, at));
        }
        pairs_.emplace_back(at, std::pair(lower.name, upper.name));
    }

    // What is to go through a mask finds none where the lettering before it is a decal, or where there is none.
    void note_without_mask() {
        const Layer* lettering = nullptr;
        bool follows = false;
        for (const Layer& layer : in_.layers) {
            if (layer.kind == LayerKind::Lettering) lettering = &layer;
            const bool through = layer.kind == LayerKind::Coat && layer.on == On::Openings;
            follows = layer.kind == LayerKind::Lettering || (through && follows);
            const bool none = lettering == nullptr || !follows;
            if (!through || (!none && (lettering->colour != in_.id || mask()))) continue;
            const auto at =
                std::find_if(b_.layers.begin(), b_.layers.end(), [&](const ShownLayer& l) { return l.of == layer.id; });
            if (at == b_.layers.end()) continue;
            b_.findings.push_back({"no-mask-to-paint-through",
                                   Mark::Stop,
                                   Joint::Pair,
                                   "common practice",
                                   {none ? "rule.no-mask-before" : "rule.no-mask-on-decal", {}},
                                   {"remedy.no-mask", {}},
                                   static_cast<std::size_t>(at - b_.layers.begin()),
                                   {}});
        }
    }

    // A coat that only the job names is kept, and said.
    void note_unknown(std::size_t at) {
        const ShownLayer& layer = b_.layers[at];
        const std::optional<Coat> coat = substance(layer);
        if (!coat || coat->known) return;
        if (layer.kind == ShownKind::Colour && layer.of != b_.own) return;
        b_.findings.push_back({"coat-unknown",
                               Mark::Look,
                               layer.joint.value_or(Joint::Ground),
                               "from memory",
                               {"rule.coat-unknown", {{"coat", coat->name}, {"wait", trade_.unknown_coat}}},
                               {"remedy.coat-unknown", {}},
                               at,
                               {}});
    }

    void say_sound() {
        const auto args = arguments();
        for (std::size_t i = 0; i < b_.layers.size(); ++i) {
            ShownLayer& layer = b_.layers[i];
            if (!layer.joint) continue;
            const bool troubled = std::any_of(b_.findings.begin(), b_.findings.end(),
                                              [&](const Finding& f) { return f.at == i && f.mark != Mark::None; });
            if (troubled) {
                layer.sound.reset();
                continue;
            }
            if (layer.sound) continue;  // of an earlier colour: judged with that one
            std::string id = std::string("sound.") + word_of(*layer.joint);
            if (layer.joint == Joint::Film && top_ == nullptr) id = "sound.film-bare";
            if (layer.joint == Joint::Seal && in_.finish.seal == Seal::Clear) id = "sound.seal-clear";
            if (layer.joint == Joint::Clear && !mask()) id = "sound.clear-decal";
            if (layer.joint == Joint::Clear && layer.kind == ShownKind::ClearUnder) id = "sound.clear-under";
            if (layer.joint == Joint::Ground && !std::get<bool>(b_.facts.at("sanded"))) id = "sound.ground-as-it-is";
            auto said = args;
            const auto pair = std::find_if(pairs_.begin(), pairs_.end(), [&](const auto& p) { return p.first == i; });
            if (layer.joint == Joint::Pair && pair != pairs_.end()) {
                said.emplace_back("below", pair->second.first);
                said.emplace_back("above", pair->second.second);
            }
            layer.sound = Reason{id, said};
        }
    }

    const MethodInput& in_;
    const Trade& trade_;
    const Around around_;
    BuildUp b_;
    const Layer* top_ = nullptr;  // the coat that the lettering lies on
    std::size_t own_film_ = 0;    // of the colour at hand, in what is shown
    std::vector<std::pair<std::size_t, std::pair<std::string, std::string>>>
        pairs_;  // what each layer lies on, by name
};

}  // namespace

Mark BuildUp::worst() const {
    Mark worst = Mark::None;
    for (const Finding& f : findings) worst = std::max(worst, f.mark);
    return worst;
}

BuildUp build_up(const MethodInput& in, const Trade& trade) { return Building(in, trade).build(); }

std::vector<ShownLayer> left_on_face(const BuildUp& build_up) {
    std::vector<ShownLayer> left;
    for (const ShownLayer& layer : build_up.layers) {
        if (layer.of == build_up.own && !layer.lifted && layer.kind != ShownKind::Seal) left.push_back(layer);
    }
    return left;
}

std::string ground_of(const std::vector<Layer>& layers, const Trade& trade) {
    const auto at = std::find_if(layers.rbegin(), layers.rend(), [&](const Layer& l) { return hides(trade, l); });
    return at == layers.rend() ? std::string() : at->coat.colour;
}

std::string seen_under(const Lettering& lettering, const ColourId& colour,
                       const std::function<std::string(const ColourId&)>& colour_of) {
    for (const Text& text : lettering.texts) {
        if (text.colour != colour || !text.rim || text.rim->inner || text.rim->colour == colour) continue;
        const std::string rim = colour_of(text.rim->colour);
        if (!rim.empty()) return rim;
    }
    return {};
}

}  // namespace skarvel
