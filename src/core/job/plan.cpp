#include "job/plan.h"

#include <algorithm>

#include "job/method_reads.h"
#include "job/remarks.h"

namespace skarvel {
namespace {

void add(std::vector<Problem>& all, const std::vector<Problem>& some) {
    all.insert(all.end(), some.begin(), some.end());
}

// The colour of the film itself, where it is seen: masks and what is printed take any.
std::string seen_colour(const MakingPlan& making, const CoatChoice& paint) {
    return making.way == Way::PaintThrough || is_printed(making) ? std::string() : paint.colour;
}

// The proof is done for the words that were signed, however it was ticked; a layer that is there already, since then.
std::map<StepId, Moment> done_tasks(const Job& job, const std::vector<Task>& tasks, bool proof_signed, Moment now) {
    std::map<StepId, Moment> done = job.bench.ticks;
    for (const Task& task : tasks) {
        const auto at = task.layer.empty() ? std::nullopt : place_of(job, task.face);
        if (!at) continue;
        for (const Layer& layer : face_at(job, *at).layers) {
            if (layer.id == task.layer && layer.done && *layer.done <= now) done.try_emplace(task.id, *layer.done);
        }
    }
    for (const Sign& sign : job.signs) {
        for (const Face& face : sign.faces) {
            const StepId proof = step_id(face.id, Work::Proof);
            if (proof_signed) {
                done[proof] = job.proof->at;
            } else {
                done.erase(proof);
            }
        }
    }
    return done;
}

std::vector<CutLoad> cut_for(const std::vector<CutLoad>& all, const ColourId& of) {
    std::vector<CutLoad> some;
    std::copy_if(all.begin(), all.end(), std::back_inserter(some), [&](const CutLoad& c) { return c.of == of; });
    return some;
}

// A face and its colours, while what follows from them is worked out.
struct Drawn {
    const Sign& sign;
    const Face& face;
    FacePlan plan;
    std::vector<ColourPlan> colours;

    [[nodiscard]] const Colour& decided(const ColourPlan& c) const { return face.colours[c.colour]; }
    [[nodiscard]] std::string seen(const ColourPlan& c) const { return seen_colour(c.cut.making, decided(c).paint); }
};

// One run through the table.
class Run {
  public:
    Run(StageTable& table, std::vector<WorkedOut>& ran, const Job& job, const Shop& shop, const Library& library,
        const Present& present, bool tries)
        : table_(table),
          ran_(ran),
          job_(job),
          shop_(shop),
          library_(library),
          trade_(library.trade),
          moment_(present.now),
          present_(present),
          tries_(tries) {}

    Plan plan(const std::function<void(std::size_t, std::size_t)>& on_face) {
        std::size_t faces = 0;
        for (const Sign& sign : job_.signs) faces += sign.faces.size();
        for (std::size_t s = 0; s < job_.signs.size(); ++s) {
            for (std::size_t f = 0; f < job_.signs[s].faces.size(); ++f) {
                if (!job_.signs[s].faces[f].colours.empty()) draw({s, f});
                if (on_face) on_face(drawn_.size(), faces);
            }
        }
        say_gone(out_.problems, job_);
        share();
        for (Drawn& d : drawn_) {
            make(d);
            read(d);
        }
        saw();
        stand();
        prove();
        put_together();
        work();
        return std::move(out_);
    }

  private:
    void draw(const FaceAt& at) {
        const Sign& sign = job_.signs[at.sign];
        Drawn d{sign, sign.faces[at.face], {}, {}};
        FacePlan& p = d.plan;
        p.id = d.face.id;
        p.at = at;
        p.mirrored = sign.blank.from_behind;
        p.blank = table_.blank(p.id, {sign.blank, shop_.stock, at.face > 0}, ran_,
                               [&](const BlankReads& in) { return blank_stage(in, trade_); });
        p.marking = marking_out(sign.blank, *p.blank);
        LetteringRoom room = room_of(sign.blank, *p.blank);
        room.cut_at_edge = d.face.cut_at_edge;
        p.lettering = table_.lettering(p.id, {d.face.lettering, room}, ran_, [&](const LetteringReads& in) {
            return place(in.lettering, in.room, library_.typefaces);
        });
        p.art = table_.art(p.id, {d.face.art, room, p.blank->outline}, ran_, [&](const ArtReads& in) {
            return make_art(in.art, in.room, in.outline, library_.typefaces);
        });
        add(out_.problems, p.blank->problems);
        std::vector<Problem> of_lettering = p.lettering->problems;
        // A face may carry art alone.
        if (!d.face.art.empty())
            std::erase_if(of_lettering, [](const Problem& x) { return x.what.id == "lettering.no-words"; });
        add(out_.problems, of_lettering);
        add(out_.problems, p.art->problems);
        say_covered(out_.problems, d.face, *p.art, *p.lettering);

        std::vector<ColourId> used = colours_used(d.face.lettering, d.face.art, colours_of(d.face));
        // Seen through the blank, what is in front is laid first.
        if (p.mirrored) std::reverse(used.begin(), used.end());
        for (const ColourId& id : used) {
            ColourPlan& c = d.colours.emplace_back();
            c.id = id;
            c.colour = place_of(d.face, id);
            c.name = d.decided(c).paint.colour_name;
            c.first = id == used.front();
            c.last = id == used.back();
            c.ink = table_.ink(id,
                               {d.face.lettering, p.lettering, d.face.art, p.art, id,
                                p.mirrored ? std::optional(p.blank->face) : std::nullopt,
                                d.face.cut_at_edge ? p.blank->outline : Region()},
                               ran_, ink_stage);
            c.cut.pieces = c.ink;
            c.cut.making = resolve(d.decided(c).making, trade_.films, trade_.tools);
            c.cut.making.gap = trade_.section_gap;
            c.cut.making.laying = laying_takes(hands_on_in(shop_, trade_), c.cut.making.way);
            c.cut.making.wishes.part_words = c.cut.making.wishes.part_words || shop_.part_words;
            c.cut.making.edges_place = p.blank->straight_sides;
            c.cut.bed = bed_for(shop_, d.decided(c).making, is_printed(c.cut.making), d.seen(c));
        }
        for (const ColourPlan& c : d.colours) {
            say_less_than_none(out_.problems, d.decided(c).making);
            say_no_bed(out_.problems, shop_, d.decided(c).making, c.cut.bed);
            say_hold(out_.problems, c.cut.making, c.cut.bed);
        }
        print_together(d.colours);
        for (ColourPlan& c : d.colours) divide(d, c);
        say_thin(out_.problems, d.colours);
        drawn_.push_back(std::move(d));
    }

    // Colours of a face that are printed on one film and bed come out of the printer together.
    void print_together(std::vector<ColourPlan>& colours) {
        static const Shared<std::vector<Piece>> none(std::vector<Piece>{});
        for (std::size_t first = 0; first < colours.size(); ++first) {
            ColourPlan& carrier = colours[first];
            if (!is_printed(carrier.cut.making) || carrier.cut.printed_with) continue;
            PrintReads all{{carrier.ink}};
            for (std::size_t i = first + 1; i < colours.size(); ++i) {
                CutPlan& other = colours[i].cut;
                if (!is_printed(other.making) || other.printed_with ||
                    other.making.film.id != carrier.cut.making.film.id || other.bed != carrier.cut.bed)
                    continue;
                all.inks.push_back(colours[i].ink);
                other.printed_with = carrier.id;
                other.pieces = none;
            }
            if (all.inks.size() > 1) carrier.cut.pieces = table_.printed(carrier.id, all, ran_, print_stage);
        }
    }

    // From its pieces to loads of its own.
    void divide(const Drawn& d, ColourPlan& c) {
        c.cut.thin = table_.thin(c.id, {c.cut.pieces, trade_.thin}, ran_,
                                 [](const ThinReads& in) { return thin_places(*in.pieces, in.limits); });
        const auto planned = [](const LoadsReads& in) {
            return plan_loads(*in.pieces, in.face, in.bed, in.making, in.cut);
        };
        LoadsReads reads{c.cut.pieces, d.plan.blank->face, c.cut.bed, c.cut.making, cut_for(job_.bench.cut, c.id)};
        c.cut.loads = table_.loads(c.id, reads, ran_, planned);
        if (reads.making.wishes.any() && !tries_) {
            reads.making.wishes = {};
            c.cut.without_wishes = *table_.as_found(
                c.id, std::move(reads), ran_, [&](const LoadsReads& in) { return skarvel::as_found(planned(in)); });
        }
        say_too_large(out_.problems, shop_, d.decided(c).making, d.seen(c), d.plan.blank->face, c.cut);
    }

    // Loads over the whole job, and what film they then take.
    void share() {
        SharingReads reads{{}, shop_.drawer};
        for (const Drawn& d : drawn_) {
            for (const ColourPlan& c : d.colours) {
                const std::string seen = d.seen(c);
                reads.sharers.push_back({c.id, c.cut.making.film.id, seen, seen.empty(), c.cut.bed, c.cut.making.gap,
                                         c.cut.loads, d.sign.id, c.cut.making.wishes.masks_again});
            }
        }
        const auto shared = table_.sharing({}, std::move(reads), ran_,
                                           [](const SharingReads& in) { return share_loads(in.sharers, in.drawer); });
        out_.loads_saved = shared->loads_saved;
        FilmReads film{{}, shop_.drawer};
        std::size_t i = 0;
        for (Drawn& d : drawn_) {
            for (ColourPlan& c : d.colours) {
                c.cut.loads = shared->plans[i++];
                film.users.push_back({c.cut.making.film.id, c.cut.making.film.name, d.seen(c), c.cut.loads,
                                      c.cut.bed.width - c.cut.bed.usable.across});
            }
        }
        const auto film_plan =
            table_.film({}, std::move(film), ran_, [](const FilmReads& in) { return plan_film(in.users, in.drawer); });
        out_.film = film_plan->costs;
        i = 0;
        for (Drawn& d : drawn_) {
            for (ColourPlan& c : d.colours) c.cut.film = film_plan->from[i++];
        }
        say_short(out_.problems, out_.film);
    }

    // How each colour is built up, and what has to be bought for it.
    void make(Drawn& d) {
        const Blank& blank = d.sign.blank;
        std::map<ColourId, std::vector<ShownLayer>> earlier;
        for (ColourPlan& c : d.colours) {
            MethodInput reads =
                method_reads(blank, *d.plan.blank, d.face, c, earlier, rules_of_maker(job_, shop_), trade_);
            c.method = table_.method(c.id, std::move(reads), ran_,
                                     [&](const MethodInput& in) { return build_up(in, trade_); });
            c.risks = risks_of(*c.method, trade_);
            c.laying = table_.laying(c.id, laying_reads(blank, d.plan.blank, c, shop_.display), ran_,
                                     [&](const LayingInput& in) { return lay_out(in, trade_.laying); });
            if (c.cut.printed_with) continue;  // done with the colour that carries it
            if (!c.cut.pieces->empty()) earlier[c.id] = left_on_face(*c.method);
            c.shopping = shopping(
                {blank.kind == Kind::Board && !d.plan.blank->stock ? std::string() : blank.stock, d.plan.blank->length,
                 d.plan.blank->width, d.plan.blank->coat_sqft, c.cut.loads, c.cut.making, c.method, d.face.layers,
                 c.cut.bed.width, d.plan.at.face == 0 && c.first ? d.plan.blank->rope : Length{}, c.first,
                 worth_of(out_.film, {c.cut.making.film.id, {}, d.seen(c), c.cut.loads, {}})},
                trade_);
            add(out_.problems, c.cut.loads->problems);
            if (is_printed(c.cut.making) && !c.cut.bed.print && !c.cut.loads->loads.empty()) {
                out_.problems.push_back(
                    {{"print.no-marks", {{"load", c.cut.loads->loads.front().name}, {"bed", c.cut.bed.name}}},
                     Station::Sections,
                     {"print.on-page", {}},
                     Mark::Stop});
            }
            for (const Finding& f : c.method->findings) {
                if (f.mark != Mark::None) out_.problems.push_back({f.why, Station::Method, f.remedy, f.mark});
            }
        }
    }

    // How well the face can be read, in the lettered colour that stands out least.
    void read(Drawn& d) {
        double least = 0;
        for (const ColourPlan& c : d.colours) {
            const bool lettered = std::any_of(d.face.lettering.texts.begin(), d.face.lettering.texts.end(),
                                              [&](const Text& t) { return t.colour == c.id; });
            const double ratio = std::get<double>(c.method->facts.at("contrast"));
            if (lettered) least = least == 0 ? ratio : std::min(least, ratio);
        }
        d.plan.reading = table_.reading(
            d.plan.id, {d.face.lettering, d.plan.lettering, d.face.seen, least}, ran_, [&](const ReadingReads& in) {
                return judge_reading(in.lettering, *in.placed, in.seen, in.contrast, library_.typefaces);
            });
    }

    // Rows of all cut lists that come from the same stock of boards; sheet goods are not sawn from lengths.
    void saw() {
        for (const Drawn& d : drawn_) {
            for (const Cut& cut : d.plan.blank->cuts) {
                if (cut.width) {
                    take_sheet_good(d, cut);
                    continue;
                }
                auto at = std::find_if(out_.saw.begin(), out_.saw.end(),
                                       [&](const SawPlan& s) { return s.stock == cut.stock; });
                if (at == out_.saw.end()) at = out_.saw.insert(out_.saw.end(), SawPlan{cut.stock, {}, {}, {}});
                at->cuts.push_back(cut);
                at->of.push_back(job_.signs.size() > 1 ? label_of(d.sign) : std::string());
            }
        }
        for (SawPlan& s : out_.saw) {
            SawReads reads{{}, shop_.board_lengths, shop_.kerf};
            for (const Cut& cut : s.cuts) reads.wanted.push_back({cut.length, cut.count});
            s.cutting = *table_.saw({s.stock}, std::move(reads), ran_,
                                    [](const SawReads& in) { return cutting_plan(in.wanted, in.lengths, in.kerf); });
            add(out_.problems, s.cutting.problems);
            const auto boards = boards_to_buy(s.stock, s.cuts, s.cutting);
            if (boards && !drawn_.empty()) drawn_.front().colours.front().shopping.push_back(*boards);
        }
    }

    void take_sheet_good(const Drawn& d, const Cut& cut) {
        const bool built = d.sign.blank.backing || d.sign.blank.frame.kind != FrameKind::None;
        if (!built) return;
        const auto known = std::find_if(trade_.materials.begin(), trade_.materials.end(),
                                        [&](const Material& m) { return m.id == cut.stock; });
        const std::string material = known == trade_.materials.end() ? cut.stock : known->name;
        out_.sheet_goods.push_back({cut, material, job_.signs.size() > 1 ? label_of(d.sign) : std::string()});
        if (cut.what.id != "cuts.backing" || d.plan.at.face != 0) return;
        drawn_.front().colours.front().shopping.push_back(
            {{"buy.backing", {{"material", material}}}, {"buy.size", {{"length", cut.length}, {"width", *cut.width}}}});
    }

    void stand() {
        if (!job_.post) return;
        std::vector<PostSign> signs;
        for (const Drawn& d : drawn_) {
            if (d.plan.at.face == 0)
                signs.push_back({d.sign.id, label_of(d.sign), from_grid(d.plan.blank->face.height())});
        }
        out_.post = set_on_post(*job_.post, signs);
        add(out_.problems, out_.post->problems);
    }

    void prove() {
        out_.proof_signed = job_.proof && job_.proof->wording == wording(job_);
        if (job_.proof && !out_.proof_signed)
            out_.problems.push_back({{"proof.lapsed", {}}, Station::Method, {"proof.sign-again", {}}, Mark::Look});
    }

    void put_together() {
        for (Drawn& d : drawn_) {
            const Shared<FacePlan> face(std::move(d.plan));
            for (ColourPlan& c : d.colours) {
                c.face = face;
                out_.colours.push_back(c);
            }
        }
    }

    [[nodiscard]] FaceWork work_of(const Drawn& d) const {
        FaceWork work = work_reads(d.sign, d.face, *d.colours.front().face, d.colours,
                                   job_.signs.size() > 1 ? label_of(d.sign) : std::string(), trade_);
        work.slowed = usual_slowing();
        work.fan = shop_.fan ? trade_.fan : 1;
        for (std::size_t i = 0; i < d.colours.size(); ++i) {
            const Machine machine = machine_of(shop_, d.colours[i].cut.bed);
            work.colours[i].machine = machine.name;
            work.colours[i].knife = machine.knife;
        }
        return work;
    }

    [[nodiscard]] double usual_slowing() const {
        return slowed_by(trade_.slowing, shop_.room_celsius, shop_.room_humidity);
    }

    // Days that are not as the room usually is.
    [[nodiscard]] std::vector<SlowDay> slow_days() const {
        std::vector<SlowDay> days;
        for (const DayRoom& d : shop_.weather) {
            const double slower = slowed_by(trade_.slowing, d.celsius, d.humidity) / usual_slowing();
            if (slower != 1) days.push_back({std::chrono::floor<std::chrono::days>(d.day), slower});
        }
        return days;
    }

    // A layer cannot be there since a moment that is still to come: it is planned as one to put on.
    void say_not_yet() {
        for (const Sign& sign : job_.signs) {
            for (const Face& face : sign.faces) {
                for (const Layer& layer : face.layers) {
                    if (!layer.done || *layer.done <= moment_) continue;
                    out_.problems.push_back({{"layer.not-yet", {{"at", *layer.done}, {"sign", label_of(sign)}}},
                                             Station::Method,
                                             {"layer.not-yet-remedy", {}},
                                             Mark::Look});
                }
            }
        }
    }

    // A mishap of a kind that is not known here, or at a step that is not planned, is kept and mends nothing.
    void say_not_mended() {
        for (const Mishap& m : job_.bench.mishaps) {
            const bool planned = std::any_of(out_.tasks->begin(), out_.tasks->end(), [&](const Task& t) {
                return t.work == Work::Mend && t.number == m.number;
            });
            if (planned) continue;
            out_.problems.push_back({{"bench.not-mended", {{"kind", m.kind}, {"step", m.at.name}}},
                                     Station::Bench,
                                     {"bench.not-mended-remedy", {}},
                                     Mark::Look});
        }
    }

    // What is to be done, when, and step by step.
    void work() {
        TasksReads reads;
        // Without placed ink there is nothing to schedule: later stations say which one stops them.
        const bool any = std::any_of(out_.colours.begin(), out_.colours.end(),
                                     [](const ColourPlan& c) { return !c.cut.pieces->empty(); });
        if (any) {
            for (const Drawn& d : drawn_) {
                // The face that comes first stands before the one that comes after it.
                const auto front = std::find_if(reads.faces.begin(), reads.faces.end(),
                                                [&](const FaceWork& w) { return w.after_face == d.face.id; });
                reads.faces.insert(front, work_of(d));
            }
            for (const FaceWork& face : reads.faces) {
                if (face.stacked && face.colours.size() > 1 && stack_of(face).empty())
                    out_.problems.push_back(
                        {{"stack.cannot", {}}, Station::Method, {"stack.cannot-remedy", {}}, Mark::Look});
            }
        }
        reads.mishaps = job_.bench.mishaps;
        reads.hands_on = paced(hands_on_in(shop_, trade_), shop_.paces);
        out_.tasks = table_.tasks({}, std::move(reads), ran_, [&](const TasksReads& in) {
            std::vector<Task> tasks = tasks_of(in.faces, trade_, in.hands_on);
            mend(tasks, in.mishaps, trade_);
            return tasks;
        });
        out_.clock_reads = {out_.tasks,           shop_.hours,
                            job_.deadline,        done_tasks(job_, *out_.tasks, out_.proof_signed, moment_),
                            job_.bench.held,      moment_,
                            shop_.changed_days,   job_.begin_on,
                            job_.bench.dry,       Minutes(shop_.margin_hours * 60),
                            job_.pinned,          present_.taken,
                            shop_.pairs_of_hands, present_.changes,
                            slow_days()};
        out_.clock =
            table_.clock({}, ClockInput(out_.clock_reads), ran_, [](const ClockInput& in) { return schedule(in); });
        say_not_yet();
        say_not_mended();
        add(out_.problems, out_.clock->problems);
        BenchInput at_bench{out_.tasks,
                            out_.clock,
                            job_.bench.ticks,
                            job_.bench.held,
                            job_.bench.dry,
                            {},
                            job_.bench.took,
                            job_.bench.trials,
                            job_.bench.perhaps_cut,
                            present_.changes,
                            out_.clock_reads.slow_days};
        for (const ColourPlan& c : out_.colours) {
            LaidBy& by = at_bench.laying[c.id] = {c.laying, c.method->lift.id, {}};
            for (const Lent& l : c.cut.loads->lent) {
                const ColourPlan* lender = out_.of(l.of);
                if (lender == nullptr) continue;
                by.lent[l.section] = {label_of(job_.signs[lender->face->at.sign]),
                                      lender->cut.loads->sections[l.mask].letters};
            }
        }
        out_.bench =
            table_.bench({}, std::move(at_bench), ran_, [&](const BenchInput& in) { return bench(in, trade_); });
        if (!out_.bench->orphans.empty()) {
            out_.problems.push_back(
                {{"bench.orphans", {{"steps", static_cast<std::int64_t>(out_.bench->orphans.size())}}},
                 Station::Bench,
                 {"bench.orphans-kept", {}},
                 Mark::Look});
        }
    }

    StageTable& table_;
    std::vector<WorkedOut>& ran_;
    const Job& job_;
    const Shop& shop_;
    const Library& library_;
    const Trade& trade_;
    Moment moment_;
    const Present& present_;
    bool tries_;
    std::vector<Drawn> drawn_;
    Plan out_;
};

}  // namespace

Planner::Planner() : table_(std::make_unique<StageTable>()) {}
Planner::~Planner() = default;
Planner::Planner(Planner&&) noexcept = default;
Planner& Planner::operator=(Planner&&) noexcept = default;

std::optional<Plan> Planner::plan(const Job& job, const Shop& shop, const Library& library, const Present& present,
                                  const std::stop_token& stop,
                                  const std::function<void(std::size_t, std::size_t)>& on_face) {
    const WhileStoppable stoppable(stop);
    ran_.clear();
    try {
        Plan out = Run(*table_, ran_, job, shop, library, present, tries_).plan(on_face);
        table_->forget();
        return out;
    } catch (const Stopped&) {
        return std::nullopt;
    }
}

const ColourPlan* Plan::of(const FaceId& face) const {
    const auto at =
        std::find_if(colours.begin(), colours.end(), [&](const ColourPlan& c) { return c.face->id == face; });
    return at == colours.end() ? nullptr : &*at;
}

const ColourPlan* Plan::of(const ColourId& colour) const {
    const auto at = std::find_if(colours.begin(), colours.end(), [&](const ColourPlan& c) { return c.id == colour; });
    return at == colours.end() ? nullptr : &*at;
}

const ColourPlan* Plan::of(const FaceId& face, const ColourId& colour) const {
    const ColourPlan* exact = of(colour);
    return exact != nullptr && exact->face->id == face ? exact : of(face);
}

const ColourPlan* Plan::of(const StepId& step) const {
    const auto at = std::find_if(tasks->begin(), tasks->end(), [&](const Task& t) { return t.id == step; });
    if (at == tasks->end()) return nullptr;
    return at->colour.empty() ? of(at->face) : of(at->face, at->colour);
}

Mark Plan::mark_of(Station station) const {
    Mark worst = Mark::None;
    for (const Problem& problem : problems) {
        if (problem.where == station) worst = std::max(worst, problem.mark);
    }
    return worst;
}

Plan plan(const Job& job, const Shop& shop, const Library& library, const Present& present) {
    return *Planner().plan(job, shop, library, present);
}

}  // namespace skarvel
