#include "clock/tasks.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace skarvel {
namespace {

constexpr double mm_per_ft = 304.8;

// Which load each machine cuts last, and how long its knife is at it.
using Cutters = std::map<std::string, std::pair<std::size_t, Minutes>>;

double length_mm(const Ring& path, bool closed) {
    double length = 0;
    for (std::size_t i = closed ? 0 : 1; i < path.size(); ++i) {
        const Point& a = path[i == 0 ? path.size() - 1 : i - 1];
        length += std::hypot(static_cast<double>(path[i].x - a.x), static_cast<double>(path[i].y - a.y));
    }
    return length * grid_nm * 1e-6;
}

double around_mm(const Region& region) {
    double length = 0;
    for (const Ring& ring : region.rings()) length += length_mm(ring, true);
    return length;
}

// The work of one face.
class Builder {
  public:
    Builder(const FaceWork& in, const Trade& trade, const HandsOn& hands_on, std::vector<Task>& tasks, Cutters& cutters)
        : in_(in), trade_(trade), h_(hands_on), tasks_(tasks), cutters_(cutters) {}

    // What was left drying when the work on a face was over.
    struct Left {
        std::optional<std::size_t> last;
        Minutes wait{0};
        Reason why;
        std::optional<std::size_t> from;
    };

    /// `other_face`: of the other face of its blank, which is then turned over. `goes_on`: this one is turned over
    /// after.
    Left build(const Left* other_face, bool goes_on) {
        at_ = first_at_work();
        stack_ = stack_of(in_);
        if (other_face != nullptr && other_face->last) {
            last_ = other_face->last;
            then_wait(other_face->wait, other_face->why);
            wait_from_ = other_face->from;
            follow(add(Work::Turn, "", {{"turn", 1}}, {}));
        } else {
            saw();
        }
        if (in_.frame_before) frame();
        const ColourWork* before = nullptr;
        for (const Layer& layer : in_.layers) {
            if (layer.kind != LayerKind::Lettering) {
                if (layer.kind == LayerKind::Coat && layer.on == On::Openings) continue;  // with its lettering
                if (layer.kind == LayerKind::Coat && layer.on == On::Field) fields();
                put_on(layer, before != nullptr);
                continue;
            }
            const auto colour = std::find_if(in_.colours.begin(), in_.colours.end(),
                                             [&](const ColourWork& c) { return c.id == layer.colour; });
            if (colour == in_.colours.end() || colour->printed_with_another) continue;
            at_ = &*colour;
            fields();
            const std::vector<std::size_t> films = cut_weed_and_tape();
            const auto place = std::find(stack_.begin(), stack_.end(), at_->id);
            if (place != stack_.end()) {
                stacked_.push_back({at_, films});
                if (place + 1 == stack_.end()) lay_stack();
                before = at_;
                continue;
            }
            if (!colour->loads->sections.empty()) wait_before(Next::Film);
            through_ = through_mask(in_.layers, colour->id);
            lay_and_paint(films);
            before = at_;
        }
        pass_ = 0;
        if (!goes_on) finish();
        wait_before(Next::Handling);
        return {last_, wait_, wait_why_, wait_from_};
    }

  private:
    [[nodiscard]] const BuildUp& method() const { return *at_->method; }
    [[nodiscard]] const LoadsPlan& loads() const { return *at_->loads; }

    // What is printed with an earlier colour is done with that one.
    [[nodiscard]] const ColourWork* first_at_work() const {
        const auto first = std::find_if(in_.colours.begin(), in_.colours.end(),
                                        [](const ColourWork& c) { return !c.printed_with_another; });
        return first == in_.colours.end() ? &in_.colours.front() : &*first;
    }
    [[nodiscard]] bool several() const {
        return std::count_if(in_.colours.begin(), in_.colours.end(),
                             [](const ColourWork& c) { return !c.printed_with_another; }) > 1;
    }

    std::size_t add(Work work, const std::string& which, std::vector<WorkPart> parts,
                    std::vector<std::pair<std::string, Argument>> arguments, int number = 0, int time = 1,
                    const char* saying = nullptr) {
        Task task;
        const bool of_face = is_of_face(work);
        task.id = of_face ? step_id(in_.id, work, which) : step_id(at_->id, work, which, time);
        task.work = work;
        task.face = in_.id;
        if (!of_face) task.colour = at_->id;
        task.decal = !of_face && at_->making.way == Way::Decal;
        task.of = in_.sign;
        task.saying = saying != nullptr ? saying : word_of(work);
        task.name = {"task." + task.saying, arguments};
        const auto within = [&](const char* id, std::pair<std::string, Argument> more) {
            task.name = {id, {{"task", std::vector<Reason>{task.name}}, std::move(more)}};
            task.name.arguments.insert(task.name.arguments.end(), arguments.begin(), arguments.end());
        };
        if (pass_ > 0) within("task.in-pass", {"pass", std::int64_t{pass_}});
        if (several() && !of_face) within("task.in-colour", {"colour", at_->name});
        double minutes = 0;
        for (const WorkPart& part : parts) minutes += part.amount * pace_of(h_, part.pace).value_or(1);
        std::erase_if(parts, [](const WorkPart& part) { return part.amount == 0; });
        task.hands_on = Minutes(static_cast<int>(std::ceil(minutes)));
        task.parts = std::move(parts);
        task.number = number;
        tasks_.push_back(std::move(task));
        return tasks_.size() - 1;
    }

    // A coat that is brushed, sprayed or sponged: what is in its tin wants care.
    std::size_t with(std::size_t task, const Coat& coat) {
        if (!coat.base.empty()) tasks_[task].products.push_back(coat.base);
        return task;
    }

    // With work of its kind on other signs one setting up will do.
    void in_round(std::size_t task, const std::string& with, double setup) {
        tasks_[task].round = std::string(word_of(tasks_[task].work)) + with;
        tasks_[task].setup = std::min(tasks_[task].hands_on, Minutes(static_cast<int>(setup)));
    }

    void after(std::size_t task, std::size_t earlier, Minutes at_least = Minutes(0), Reason why = {},
               bool dries = false) {
        tasks_[task].waits.push_back({earlier, at_least, std::nullopt, std::move(why), Minutes(0), dries});
    }

    void after_knife(std::size_t task, const std::pair<std::size_t, Minutes>& load) {
        after(task, load.first, load.second, {"wait.knife", {}});
        tasks_[task].waits.back().by_machine = true;
    }

    // Adds to the chain of work on the blank itself, with the wait that was asked for: after the last task, or after
    // the one that put on what has to dry.
    void follow(std::size_t task) {
        if (last_) {
            const std::size_t from = wait_from_.value_or(*last_);
            after(task, from, wait_, wait_why_, wait_dries_);
            if (from != *last_) after(task, *last_);
        }
        last_ = task;
        then_wait(Minutes(0), {});
    }

    void then_wait(Minutes wait, Reason why) {
        wait_ = wait;
        wait_why_ = std::move(why);
        wait_from_.reset();
        wait_dries_ = false;
    }

    // ---- what has to dry before what

    enum class Next { SameCoat, Coat, Clear, Film, Tape, Handling, Final };
    enum class Dries { Nothing, Coat, Vinyl, Paint };

    void dries(Dries what, const Coat& coat = {}) {
        drying_ = what;
        coat_ = coat;
        drying_task_ = last_;
    }

    // How long what was put on last must hold before what comes next, by the table.
    void wait_before(Next next, const Coat& coming = {}) {
        const auto wait_for = [&](Minutes m, Reason why) {
            const bool dries = coat_.base == "water" && drying_ != Dries::Vinyl;
            if (dries) m = slowed(m, next != Next::Film && next != Next::Final);
            then_wait(m, std::move(why));
            wait_from_ = drying_task_;
            wait_dries_ = dries;
        };
        const auto wait = [&](Minutes m, const char* why) { wait_for(m, {why, {{"paint", coat_.name}}}); };
        switch (drying_) {
            case Dries::Nothing:
                return;
            case Dries::Vinyl:
                if (next == Next::Clear || next == Next::Coat)
                    return wait_for(trade_.clear_over_vinyl, {"wait.vinyl", {}});
                return;
            case Dries::Paint:
                if (next == Next::Film) return wait(coat_.film_least, "wait.film-on-colour");
                return wait(coat_.paint_over, next == Next::Clear ? "wait.clear-over" : "wait.paint-over");
            case Dries::Coat:
                break;
        }
        const bool clear = coat_.kind == "clear";
        switch (next) {
            case Next::Film:
                return wait(coat_.id == method().top.id ? method().rest : coat_.film_least, "wait.film-on-ground");
            case Next::Tape:
                return wait(coat_.paint_over, "wait.tape-on-ground");
            case Next::Final:
                if (clear && in_.outdoors) return wait(coat_.before_use, "wait.before-outdoors");
                return wait(clear ? coat_.next_coat : coat_.paint_over, clear ? "wait.next-coat" : "wait.paint-over");
            case Next::SameCoat:
                return wait(coat_.next_coat, "wait.next-coat");
            case Next::Handling:
                return wait(clear ? coat_.next_coat : coat_.paint_over, "wait.paint-over");
            default:
                return wait(coming.id == coat_.id ? coat_.next_coat : coat_.paint_over,
                            coming.id == coat_.id ? "wait.next-coat"
                            : next == Next::Clear ? "wait.clear-over"
                                                  : "wait.paint-over");
        }
    }

    // ---- layers that are put on or taken back on the whole face

    // The first layers of a job are called by their number alone, those that its maker added by their id as well.
    static std::string which(const Layer& layer, const LayerId& usual, int coat = 0) {
        const std::string number = coat > 0 ? std::to_string(coat) : std::string();
        if (layer.id == usual) return number;
        return coat > 0 ? layer.id.name + "." + number : layer.id.name;
    }

    void put_on(const Layer& layer, bool lettered) {
        const auto handle = [&](Work work, const LayerId& usual, std::vector<WorkPart> parts) {
            wait_before(Next::Handling);
            const std::size_t task = add(work, which(layer, usual), std::move(parts), {});
            tasks_[task].layer = layer.id;
            if (work == Work::Sand || work == Work::Distress)
                in_round(task, "/" + std::to_string(layer.grit), h_.setup / 2);
            follow(task);  // what was put on last goes on drying
        };
        const double all = in_.area_sqft;
        switch (layer.kind) {
            case LayerKind::Wipe:
                return handle(Work::Wipe, wiping, {{"wipe", 1}});
            case LayerKind::Sand:
                // Bare wood twice over, a coat lightly.
                return handle(Work::Sand, sanding,
                              {{"setup", 0.5}, {"sand", all * (drying_ == Dries::Nothing ? 1 : 0.5)}});
            case LayerKind::Distress:
                return handle(Work::Distress, {}, {{"setup", 0.5}, {"sand", all}});
            case LayerKind::Chalk:
                return handle(Work::Chalk, chalking, {{"chalk", 1}});
            case LayerKind::Trial:
                return handle(Work::Trial, {}, {{"trial", 1}});
            case LayerKind::Hardware:
                return handle(Work::Hardware, {}, {{"hardware", 1}});
            case LayerKind::Decorate:
                return handle(Work::Decorate, {}, {{"decorate", 1}});
            default:
                return coats(layer, lettered);
        }
    }

    // What a coat is called in the sentences that tell of it, by what is in its tin.
    static const char* saying_of(const Coat& coat) {
        for (const char* own : {"stain", "primer", "filler", "glaze"}) {
            if (coat.kind == own) return own;
        }
        return nullptr;
    }

    void coats(const Layer& layer, bool lettered) {
        const Coat coat = coat_of(trade_, layer);
        const bool clear = coat.kind == "clear";
        const bool dry = layer.kind == LayerKind::DryBrush;
        const Work work = dry ? Work::DryBrush : !clear ? Work::Ground : lettered ? Work::Clear : Work::ClearUnder;
        const LayerId& usual = clear ? clear_coat : ground_coat;
        const double sqft = layer.on == On::Edges   ? 0
                            : layer.on == On::Field ? in_.fields_sqft / std::max(1, in_.fields)
                                                    : in_.area_sqft;
        for (int n = 1; n <= layer.coat.coats; ++n) {
            wait_before(n > 1 ? Next::SameCoat : clear ? Next::Clear : Next::Coat, coat);
            const char* said = dry ? nullptr : saying_of(coat);
            const std::size_t task = with(
                add(work, which(layer, usual, n),
                    {{"setup", 1}, {dry ? "dry-brush" : "brush", sqft}, {"", static_cast<double>(layer.wiped_after)}},
                    {{"coat", std::int64_t{n}}, {"coats", std::int64_t{layer.coat.coats}}, {"paint", coat.name}}, n, 1,
                    said),
                coat);
            if (layer.how == PutOn::Spray) tasks_[task].products.emplace_back("spray");
            tasks_[task].layer = layer.id;
            in_round(task, "/" + coat.id + "/" + layer.coat.colour + "/" + std::to_string(n), h_.setup);
            if (layer.on != On::Face) {
                tasks_[task].name = {std::string("task.on-") + word_of(layer.on),
                                     {{"task", std::vector<Reason>{tasks_[task].name}},
                                      {"field", std::int64_t{layer.field}},
                                      {"coat", std::int64_t{n}},
                                      {"coats", std::int64_t{layer.coat.coats}},
                                      {"paint", coat.name}}};
            }
            follow(task);
            dries(Dries::Coat, coat);
        }
    }

    // Bands and borders: tape on the dry ground, a thin coat, the tape off while it is soft.
    void fields() {
        if (std::exchange(fields_done_, true)) return;
        const BuildUp& m = method();
        const double each = in_.fields > 0 ? in_.fields_sqft / in_.fields : 0;
        for (int i = 1; i <= in_.fields; ++i) {
            wait_before(Next::Tape);
            follow(with(add(Work::Field, std::to_string(i), {{"setup", 1.5}, {"brush", each * 2}},
                            {{"field", std::int64_t{i}}}, i),
                        m.field));
            dries(Dries::Nothing);
            then_wait(std::max(m.rest, m.field.film_least), {"wait.film-on-field", {}});
        }
    }

    void saw() {
        if (in_.saw_pieces == 0) return;
        const std::size_t task =
            add(Work::Saw, "", {{"setup", 1}, {"saw-piece", in_.saw_pieces + (in_.saw_head ? 1.0 : 0.0)}},
                {{"pieces", std::int64_t{in_.saw_pieces}}, {"length", in_.saw_length}}, 0, 1,
                in_.saw_head         ? "saw-arrow"
                : in_.saw_pieces > 1 ? "saw-list"
                                     : nullptr);
        in_round(task, "", h_.setup);
        follow(task);
    }

    void frame() {
        if (in_.frame_pieces == 0) return;
        follow(add(Work::Frame, "", {{"setup", 1}, {"frame-piece", static_cast<double>(in_.frame_pieces)}},
                   {{"pieces", std::int64_t{in_.frame_pieces}}}));
    }

    static std::string letters_on(const Load& load) {
        std::string letters = load.name;
        for (const Guest& g : load.guests) letters += "+" + g.section.letters;
        return letters;
    }

    // What has to be done before films of the colour at hand can be laid.
    std::vector<std::size_t> cut_weed_and_tape() {
        if (!proof_) proof_ = add(Work::Proof, "", {{"proof", 1}}, {});
        std::vector<std::size_t> ready;
        for (std::size_t i = 0; i < loads().loads.size(); ++i) {
            const Load& load = loads().loads[i];
            const auto number = static_cast<std::int64_t>(i + 1);
            std::optional<std::size_t> cut;
            if (load.carried_by.empty()) {
                cut = add(Work::Cut, load.key, {{"load", 1}}, {{"load", number}, {"letters", letters_on(load)}},
                          static_cast<int>(number));
                after(*cut, *proof_);
                const Minutes knife = knife_time(load, loads().sections, at_->knife);
                if (const auto busy = cutters_.find(at_->machine); busy != cutters_.end())
                    after_knife(*cut, busy->second);
                cutters_[at_->machine] = {*cut, knife};
            }
            double letters = 0, keepers = 0, feet = 0;
            for (const Placement& p : load.placements) {
                const Section& section = loads().sections[p.section];
                letters += section.letter_count;
                keepers += static_cast<double>(section.keepers.size());
                for (const Piece& piece : section.pieces) feet += around_mm(piece.shape) / mm_per_ft;
            }
            const char* each = in_.letter_height >= h_.weed_large_from ? "weed-large" : "weed-small";
            const std::size_t weed =
                add(Work::Weed, load.key, {{each, letters}, {"keeper", keepers}, {"weed-ft", feet}},
                    {{"load", number}, {"letters", load.name}}, static_cast<int>(number));
            if (cut) after_knife(weed, cutters_[at_->machine]);
            // What another colour's load carries is weeded after that load was cut.
            const auto carrier =
                std::find_if(tasks_.begin(), tasks_.end(), [&](const Task& t) { return t.id == load.carried_by; });
            if (!load.carried_by.empty() && carrier != tasks_.end())
                after(weed, static_cast<std::size_t>(carrier - tasks_.begin()));
            // What is taken up by the tape of a colour above it gets none of its own.
            const bool taken_up = !stack_.empty() && at_->id != stack_.back() &&
                                  std::find(stack_.begin(), stack_.end(), at_->id) != stack_.end();
            if (taken_up) {
                ready.push_back(weed);
                continue;
            }
            const std::size_t tape = add(Work::Tape, load.key, {{"tape", static_cast<double>(load.placements.size())}},
                                         {{"load", number}, {"letters", load.name}}, static_cast<int>(number));
            after(tape, weed);
            ready.push_back(tape);
        }
        return ready;
    }

    void lay_and_paint(const std::vector<std::size_t>& films) {
        const std::vector<Lay> lays = lays_of(loads().sections);
        const int passes = lays.empty() ? 0 : lays.back().pass;
        for (int pass = 1; pass <= std::max(1, passes); ++pass) {
            std::vector<Lay> here;
            std::copy_if(lays.begin(), lays.end(), std::back_inserter(here),
                         [&](const Lay& l) { return l.pass == pass; });
            pass_ = passes > 1 ? pass : 0;
            if (pass > 1)
                then_wait(std::max(method().colour.film_least, method().colour.paint_over),
                          {"wait.film-on-colour", {{"paint", method().colour.name}}});
            lay(here, pass == 1 ? films : std::vector<std::size_t>{});
            if (at_->making.way == Way::PaintThrough)
                paint(here);
            else
                dries(Dries::Vinyl);
        }
        pass_ = 0;
    }

    // From the top one down each film takes up the next below it, match marks on match marks; then all are laid as one,
    // where the lowest goes.
    void lay_stack() {
        std::vector<std::size_t> ready = stacked_.back().second;
        for (std::size_t i = stacked_.size() - 1; i-- > 0;) {
            at_ = stacked_[i].first;
            const Section& section = loads().sections.front();
            const std::size_t task = add(Work::Stack, section.letters, {{"lay", 1}}, {{"letters", section.letters}}, 1);
            for (const std::size_t film : ready) after(task, film);
            for (const std::size_t film : stacked_[i].second) after(task, film);
            ready = {task};
        }
        wait_before(Next::Film);
        lay(lays_of(loads().sections), ready);
        dries(Dries::Vinyl);
        stacked_.clear();
    }

    void lay(const std::vector<Lay>& lays, const std::vector<std::size_t>& films) {
        for (const Lay& l : lays) {
            const Section& section = loads().sections[l.section];
            const Box film = section.film.bounds();
            const bool hinged = std::max(film.width(), film.height()) >= to_grid(h_.hinged_from);
            const auto number = static_cast<std::int64_t>(l.section + 1);
            const std::size_t lay =
                add(Work::Lay, section.letters, {{hinged ? "lay-hinged" : "lay", 1}},
                    {{"section", number}, {"letters", section.letters}}, static_cast<int>(number), lay_time(l));
            if (std::max(film.width(), film.height()) >= to_grid(trade_.laying.helper_from)) tasks_[lay].people = 2;
            if (&l == &lays.front()) {
                for (const std::size_t film_task : films) after(lay, film_task);
            }
            // A mask of another sign comes when it is lifted there.
            for (const Lent& lent : loads().lent) {
                if (lent.section != l.section || l.time > 0) continue;
                const auto lifted =
                    std::find_if(tasks_.begin(), tasks_.end(), [&](const Task& t) { return t.id == lent.lifted; });
                if (lifted != tasks_.end()) after(lay, static_cast<std::size_t>(lifted - tasks_.begin()));
            }
            follow(lay);
        }
    }

    // A fan helps between coats; what has to cure takes its time.
    [[nodiscard]] Minutes slowed(Minutes m, bool between_coats = true) const {
        const double factor = in_.slowed * (between_coats ? in_.fan : 1);
        return Minutes(static_cast<int>(std::ceil(static_cast<double>(m.count()) * factor)));
    }

    static int lay_time(const Lay& l) { return static_cast<int>(l.time) + 1; }

    void paint(const std::vector<Lay>& lays) {
        const BuildUp& m = method();
        const int pass = std::max(1, pass_);
        int letters = 0;
        for (const Lay& l : lays) letters += loads().sections[l.section].letter_count;
        const bool sealed = std::any_of(m.layers.begin(), m.layers.end(),
                                        [](const ShownLayer& l) { return l.kind == ShownKind::Seal; });
        if (sealed) {
            follow(add(Work::Seal, "", {{"setup", 1}, {"colour", letters / 2.0}}, {}, 0, pass));
            then_wait(slowed(trade_.seal_dry), {"wait.seal-dry", {}});
            wait_dries_ = true;
        }
        const bool apart = at_->making.mask_by_mask && lays.size() > 1 && through_.empty();
        for (int coat = 1; coat <= m.colour_coats; ++coat) {
            if (apart && coat == m.colour_coats) return paint_and_lift(lays, coat);
            follow(colour_coat(coat, true, letters));
            then_wait(slowed(trade_.colour_through_mask), {"wait.colour-coat", {}});
            wait_dries_ = true;
        }
        for (const Layer& layer : through_) {
            for (int coat = 1; coat <= layer.coat.coats; ++coat) {
                follow(through(layer, coat, letters));
                then_wait(slowed(trade_.colour_through_mask), {"wait.colour-coat", {}});
                wait_dries_ = true;
            }
        }
        // Masks come off in the reverse order of laying, and are painted in the order in which they come off: each
        // inside the window that its own first letter opened.
        const std::size_t coat = *last_;
        Minutes opened = tasks_[coat].hands_on - tasks_[coat].setup;
        const double each = letters > 0 ? static_cast<double>(opened.count()) / letters : 0;
        for (std::size_t i = lays.size(); i-- > 0;) {
            if (i + 1 == lays.size()) {
                // Where painting took long, the first letters have waited already.
                then_wait(std::clamp(m.lift.to - opened, Minutes(0), m.lift.from), lift_wait());
                follow(lift(lays[i]));
                Wait& w = tasks_[*last_].waits.back();
                w.at_most = m.lift.to;
                w.opened = opened;
            } else {
                follow(lift(lays[i]));
                tasks_[*last_].waits.push_back({coat, Minutes(0), m.lift.to, lift_wait(), opened});
            }
            opened -= Minutes(static_cast<int>(each * loads().sections[lays[i].section].letter_count));
        }
        dries(Dries::Paint, m.colour);
    }

    /// `alone`: on that section's mask only.
    std::size_t colour_coat(int coat, bool setup, int letters, std::optional<std::size_t> alone = std::nullopt) {
        const BuildUp& m = method();
        std::vector<std::pair<std::string, Argument>> arguments{
            {"coat", std::int64_t{coat}}, {"coats", std::int64_t{m.colour_coats}}, {"paint", m.colour.name}};
        std::string which = std::to_string(coat);
        if (alone) {
            arguments.emplace_back("section", static_cast<std::int64_t>(*alone + 1));
            arguments.emplace_back("letters", loads().sections[*alone].letters);
            which += "." + loads().sections[*alone].letters;
        }
        const std::size_t task =
            with(add(Work::Colour, which, {{"setup", setup ? 1.0 : 0.0}, {"colour", static_cast<double>(letters)}},
                     arguments, coat, std::max(1, pass_), alone ? "colour-mask" : nullptr),
                 m.colour);
        if (alone) tasks_[task].section = static_cast<int>(*alone) + 1;
        if (setup) tasks_[task].setup = std::min(tasks_[task].hands_on, Minutes(static_cast<int>(h_.setup)));
        if (m.sprayed) tasks_[task].products.emplace_back("spray");
        return task;
    }

    // One coat more through the same openings, out of another tin.
    std::size_t through(const Layer& layer, int coat, int letters) {
        const Coat tin = coat_of(trade_, layer);
        const std::size_t task =
            with(add(Work::Colour, layer.id.name + "." + std::to_string(coat),
                     {{"setup", 1}, {"colour", static_cast<double>(letters)}},
                     {{"coat", std::int64_t{coat}}, {"coats", std::int64_t{layer.coat.coats}}, {"paint", tin.name}},
                     coat, std::max(1, pass_), "colour-through"),
                 tin);
        tasks_[task].layer = layer.id;
        tasks_[task].setup = std::min(tasks_[task].hands_on, Minutes(static_cast<int>(h_.setup)));
        if (layer.how == PutOn::Spray) tasks_[task].products.emplace_back("spray");
        return task;
    }

    [[nodiscard]] Reason lift_wait() const {
        const BuildUp& m = method();
        return {std::string("wait.lift-") + word_of(m.lift.id), {{"from", m.lift.from}, {"to", m.lift.to}}};
    }

    std::size_t lift(const Lay& l) {
        const auto number = static_cast<std::int64_t>(l.section + 1);
        const std::string& letters = loads().sections[l.section].letters;
        return add(Work::Lift, letters, {{"lift", 1}}, {{"section", number}, {"letters", letters}},
                   static_cast<int>(number), lay_time(l));
    }

    // The last coat, one mask after the other: each comes off before the next is painted.
    void paint_and_lift(const std::vector<Lay>& lays, int coat) {
        const BuildUp& m = method();
        for (std::size_t i = lays.size(); i-- > 0;) {
            const bool first = i + 1 == lays.size();
            const std::size_t task =
                colour_coat(coat, first, loads().sections[lays[i].section].letter_count, lays[i].section);
            follow(task);
            const Minutes opened = tasks_[task].hands_on - tasks_[task].setup;
            then_wait(std::clamp(m.lift.to - opened, Minutes(0), m.lift.from), lift_wait());
            follow(lift(lays[i]));
            Wait& w = tasks_[*last_].waits.back();
            w.at_most = m.lift.to;
            w.opened = opened;
        }
        dries(Dries::Paint, m.colour);
    }

    void finish() {
        if (!in_.frame_before) {
            wait_before(Next::Final);
            frame();
        }
        wait_before(Next::Final);
        follow(add(Work::Final, "", {{"final", 1}}, {}));
        if (in_.holds == Holds::InPlace) return;
        follow(add(Work::Hang, "", {{"hang", 1}}, {}, 0, 1,
                   in_.holds == Holds::Hung      ? nullptr
                   : in_.holds == Holds::Leaning ? "lean"
                   : in_.holds == Holds::Stake   ? "stake"
                                                 : "stand"));
        if (in_.heavy) {
            tasks_[*last_].people = 2;
            tasks_[*last_].products.emplace_back("heavy");
        }
    }

    const FaceWork& in_;
    const Trade& trade_;
    const HandsOn& h_;
    std::vector<Task>& tasks_;  // of the whole job
    Cutters& cutters_;
    const ColourWork* at_ = nullptr;
    std::optional<std::size_t> proof_;
    std::vector<ColourId> stack_;                                                  // what is laid as one
    std::vector<std::pair<const ColourWork*, std::vector<std::size_t>>> stacked_;  // of it, weeded already
    std::vector<Layer> through_;                                                   // coats through the mask at hand
    bool fields_done_ = false;
    std::optional<std::size_t> last_;  // the last task on the blank itself
    Minutes wait_{0};                  // after it
    bool wait_dries_ = false;
    Reason wait_why_;
    Dries drying_ = Dries::Nothing;  // what was put on last
    Coat coat_;                      // and out of which tin
    std::optional<std::size_t> drying_task_, wait_from_;
    int pass_ = 0;  // 0 where there is only one
};

}  // namespace

void mend(std::vector<Task>& tasks, const std::vector<Mishap>& mishaps, const Trade& trade) {
    for (const Mishap& mishap : mishaps) {
        const auto kind = std::find_if(trade.mishaps.begin(), trade.mishaps.end(),
                                       [&](const MishapKind& k) { return k.id == mishap.kind; });
        const auto happened =
            std::find_if(tasks.begin(), tasks.end(), [&](const Task& t) { return t.id == mishap.at; });
        if (kind == trade.mishaps.end() || happened == tasks.end()) continue;
        auto at = static_cast<std::size_t>(happened - tasks.begin());
        if (!kind->at_once && !happened->colour.empty()) {
            for (std::size_t i = at; i < tasks.size(); ++i) {
                if (tasks[i].work == Work::Lift && tasks[i].colour == happened->colour) at = i;
            }
        }
        Task task;
        task.id = step_id(tasks[at].face, Work::Mend, std::to_string(mishap.number));
        task.work = Work::Mend;
        task.saying = "mend-" + kind->id;
        task.face = tasks[at].face;
        task.of = tasks[at].of;
        task.name = {"task." + task.saying, {{"step", std::vector<Reason>{tasks[at].name}}}};
        task.hands_on = kind->hands_on;
        task.parts = {{"", static_cast<double>(kind->hands_on.count())}};
        task.number = mishap.number;
        task.waits.push_back({at, Minutes(0), std::nullopt, {}});
        const std::size_t place = at + 1;
        for (std::size_t i = place; i < tasks.size(); ++i) {
            bool waits = false;
            for (Wait& w : tasks[i].waits) {
                waits = waits || w.after == at;
                if (w.after > at) ++w.after;
            }
            // Masks come off inside their window, whatever is to be mended.
            if (waits && tasks[i].work != Work::Lift)
                tasks[i].waits.push_back(
                    {place, kind->wait, std::nullopt, kind->wait.count() > 0 ? Reason{"wait.mended", {}} : Reason{}});
        }
        tasks.insert(tasks.begin() + static_cast<long>(place), std::move(task));
    }
}

double slowed_by(const std::vector<Slowing>& table, int celsius, int humidity) {
    double factor = 1;
    for (const Slowing& row : table) {
        if (celsius <= row.celsius || humidity >= row.humidity) factor = std::max(factor, row.factor);
    }
    return factor;
}

std::vector<ColourId> stack_of(const FaceWork& face) {
    std::vector<ColourId> stack;
    if (!face.stacked) return stack;
    bool parted = false;
    for (const Layer& layer : face.layers) {
        if (layer.kind != LayerKind::Lettering) {
            parted = parted || !stack.empty();
            continue;
        }
        const auto colour = std::find_if(face.colours.begin(), face.colours.end(),
                                         [&](const ColourWork& c) { return c.id == layer.colour; });
        if (colour == face.colours.end() || colour->printed_with_another) continue;
        const bool can = colour->making.way == Way::Decal && colour->loads->sections.size() == 1 && !parted;
        if (!can) {
            // What begins lower may still be a stack.
            if (stack.size() > 1) break;
            stack.clear();
            parted = false;
            if (colour->making.way != Way::Decal || colour->loads->sections.size() != 1) continue;
        }
        stack.push_back(colour->id);
    }
    return stack.size() > 1 ? stack : std::vector<ColourId>{};
}

Reason full_name(const Task& task) {
    if (task.of.empty()) return task.name;
    return {"task.of-sign", {{"sign", task.of}, {"task", std::vector<Reason>{task.name}}}};
}

Minutes knife_time(const Load& load, const std::vector<Section>& sections, const Knife& knife) {
    double cut = 0, area = 0;
    std::size_t paths = 0;
    const auto take = [&](const Section& section) {
        for (const Region* shape : {&section.film, &section.cut}) {
            cut += around_mm(*shape);
            paths += shape->rings().size();
        }
        for (const KnifeLine& line : section.lines) {
            cut += length_mm({line.from, line.to}, false);
            ++paths;
        }
        area += section.film.area_mm2();
    };
    for (const Placement& p : load.placements) take(sections[p.section]);
    for (const Guest& g : load.guests) take(g.section);
    // From one path to the next it is about as far as paths lie apart on the film.
    const double travel = std::sqrt(area * static_cast<double>(paths));
    const double seconds = cut / std::max(1, knife.speed_mm_s) + travel / std::max(1, knife.travel_mm_s) +
                           static_cast<double>(paths) * knife.lift_ms / 1000.0;
    return Minutes(static_cast<int>(std::ceil(seconds / 60)));
}

std::vector<Task> tasks_of(const std::vector<FaceWork>& faces, const Trade& trade, const HandsOn& hands_on) {
    std::vector<Task> tasks;
    Cutters cutters;
    std::map<FaceId, Builder::Left> left;
    for (const FaceWork& face : faces) {
        const auto before = left.find(face.after_face);
        const bool goes_on =
            std::any_of(faces.begin(), faces.end(), [&](const FaceWork& f) { return f.after_face == face.id; });
        left[face.id] = Builder(face, trade, hands_on, tasks, cutters)
                            .build(before == left.end() ? nullptr : &before->second, goes_on);
    }
    return tasks;
}

}  // namespace skarvel
