#include "job/plan.h"

#include "job/remarks.h"

#include <algorithm>
#include <cmath>

namespace skarvel {
namespace {

// The last input and result of one stage.
template <class In, class Out>
class Stage {
  public:
    template <class Work>
    std::shared_ptr<const Out> operator()(In in, int& runs, const std::stop_token& stop, Work work) {
        if (out_ && in_ == in) return out_;
        ++runs;
        auto out = std::make_shared<const Out>(work(in));
        if (stop.stop_requested()) return out;  // may be half done: not kept
        in_ = std::move(in);
        out_ = std::move(out);
        return out_;
    }

  private:
    In in_{};
    std::shared_ptr<const Out> out_;
};

struct LetteringInput {
    Lettering lettering;
    LetteringRoom room;
    friend bool operator==(const LetteringInput&, const LetteringInput&) = default;
};

struct ArtInput {
    std::vector<Art> art;
    LetteringRoom room;
    Region outline;
    friend bool operator==(const ArtInput&, const ArtInput&) = default;
};

template <class T>
bool same(const std::shared_ptr<const T>& a, const std::shared_ptr<const T>& b) {
    return a == b || (a && b && *a == *b);
}

struct InkInput {
    Lettering lettering;
    std::shared_ptr<const LetteringPlan> placed;
    std::vector<Art> art;
    std::shared_ptr<const ArtPlan> made;
    std::size_t colour = 0;
    std::optional<Box> mirror;  // across the middle of this face
    friend bool operator==(const InkInput& a, const InkInput& b) {
        return a.mirror == b.mirror && a.colour == b.colour && a.lettering == b.lettering && a.art == b.art &&
               same(a.placed, b.placed) && same(a.made, b.made);
    }
};

struct LoadsInput {
    std::vector<Piece> pieces;
    Box face;
    Mat mat;
    MakingPlan making;
    std::vector<CutLoad> cut;
    friend bool operator==(const LoadsInput&, const LoadsInput&) = default;
};

struct PrintInput {
    std::vector<std::shared_ptr<const std::vector<Piece>>> inks;
    friend bool operator==(const PrintInput& a, const PrintInput& b) {
        return std::equal(a.inks.begin(), a.inks.end(), b.inks.begin(), b.inks.end(),
                          [](const auto& x, const auto& y) { return same(x, y); });
    }
};

struct ThinInput {
    std::shared_ptr<const std::vector<Piece>> pieces;
    CutLimits limits;
    friend bool operator==(const ThinInput& a, const ThinInput& b) {
        return a.limits == b.limits && same(a.pieces, b.pieces);
    }
};

struct ReadingInput {
    Lettering lettering;
    std::shared_ptr<const LetteringPlan> placed;
    Seen seen;
    double contrast = 0;
    friend bool operator==(const ReadingInput& a, const ReadingInput& b) {
        return a.lettering == b.lettering && a.seen == b.seen && a.contrast == b.contrast && same(a.placed, b.placed);
    }
};

struct BlankInput {
    Blank blank;
    std::vector<StockSize> own;  // the shop's
    bool back = false;
    friend bool operator==(const BlankInput&, const BlankInput&) = default;
};

struct SawInput {
    std::vector<Wanted> wanted;
    std::vector<Length> lengths;
    Length kerf;
    friend bool operator==(const SawInput&, const SawInput&) = default;
};

struct SharingInput {
    std::vector<Sharer> sharers;
    std::vector<FilmStock> drawer;
    friend bool operator==(const SharingInput&, const SharingInput&) = default;
};

// The colour of the film itself, where it is seen: masks and what is printed take any.
std::string seen_colour(const MakingPlan& making, const CoatChoice& paint) {
    return making.way == Way::PaintThrough || is_printed(making) ? std::string() : paint.colour;
}

Sharer sharer_of(const Job& job, const FacePlan& f) {
    const Sign& sign = job.signs[f.sign];
    const std::string colour = seen_colour(f.making, sign.faces[f.face].colours[f.colour].paint);
    return {face_id(sign, f.face, f.colour), f.making.film.id, colour, colour.empty(), f.bed, f.loads};
}

// What another colour's load carries is weeded after that load was cut.
void wait_for_carrier(const LoadsPlan& loads, Task& weed, const std::vector<Task>& before) {
    for (const Load& load : loads.loads) {
        if (load.carried_by.empty() || !weed.id.ends_with("/weed/" + load.name)) continue;
        const auto at =
            std::find_if(before.begin(), before.end(), [&](const Task& t) { return t.id == load.carried_by; });
        if (at != before.end())
            weed.waits.push_back({static_cast<std::size_t>(at - before.begin()), Minutes(0), std::nullopt, {}});
    }
}

void add(std::vector<Problem>& all, const std::vector<Problem>& some) {
    all.insert(all.end(), some.begin(), some.end());
}

std::map<std::string, Moment> done_tasks(const Job& job, bool proof_signed) {
    std::map<std::string, Moment> done = job.bench.ticks;
    for (const Sign& sign : job.signs) {
        for (std::size_t f = 0; f < sign.faces.size(); ++f) {
            const std::string id = face_id(sign, f) + "/proof";
            if (proof_signed) {
                done[id] = job.proof->at;
            } else {
                done.erase(id);
            }
        }
    }
    return done;
}

BlankPlan measured(const BlankInput& in, const Trade& trade) {
    std::vector<StockSize> sizes = in.own;
    sizes.insert(sizes.end(), trade.stock.begin(), trade.stock.end());
    const auto measure = [&](const Blank& b) { return measure_up(b, sizes, trade.densities, trade.hanging); };
    if (!in.back) return measure(in.blank);
    const BlankPlan front = measure(in.blank);
    BlankPlan back = measure(seen_from_behind(in.blank, from_grid(front.face.width())));
    // Sawn and weighed once.
    back.cuts.clear();
    back.problems.clear();
    return back;
}

std::vector<CutLoad> cut_for(const std::vector<CutLoad>& all, const std::string& of) {
    std::vector<CutLoad> some;
    std::copy_if(all.begin(), all.end(), std::back_inserter(some), [&](const CutLoad& c) { return c.of == of; });
    return some;
}

// Rows of all cut lists that come from the same stock of boards; sheet goods are not sawn from lengths.
std::vector<SawPlan> rows_to_saw(const Job& job, const Plan& plan) {
    std::vector<SawPlan> all;
    for (const FacePlan& face : plan.faces) {
        if (!face.first) continue;
        for (const Cut& cut : face.blank->cuts) {
            if (cut.width) continue;
            auto at = std::find_if(all.begin(), all.end(), [&](const SawPlan& s) { return s.stock == cut.stock; });
            if (at == all.end()) at = all.insert(all.end(), SawPlan{cut.stock, {}, {}, {}});
            at->cuts.push_back(cut);
            at->of.push_back(job.signs.size() > 1 ? label_of(job.signs[face.sign]) : std::string());
        }
    }
    return all;
}

// What this colour is seen against: a rim behind its ink, a painted field, or else the ground (empty).
std::string seen_under(const Blank& blank, const Face& face, const FacePlan& fp) {
    for (const Text& text : face.lettering.texts) {
        if (text.colour == fp.colour && text.rim && !text.rim->inner && text.rim->colour < face.colours.size() &&
            text.rim->colour != fp.colour)
            return face.colours[text.rim->colour].paint.colour;
    }
    const auto at =
        std::find_if(blank.fields.begin(), blank.fields.end(), [](const PaintedField& f) { return f.lettered; });
    return at == blank.fields.end() ? std::string() : at->colour;
}

// What every film is still needed for.
std::vector<FilmUse> film_uses(const Job& job, const Plan& plan) {
    std::vector<FilmUse> uses;
    for (const FacePlan& f : plan.faces) {
        const std::string colour = seen_colour(f.making, job.signs[f.sign].faces[f.face].colours[f.colour].paint);
        auto use = std::find_if(uses.begin(), uses.end(),
                                [&](const FilmUse& u) { return u.film == f.making.film.id && u.colour == colour; });
        if (use == uses.end()) use = uses.insert(uses.end(), {f.making.film.id, f.making.film.name, colour, {}});
        for (const Load& load : f.loads->loads) {
            if (!load.cut && load.carried_by.empty() && load.from.empty()) use->loads.push_back(load.film_length);
        }
    }
    return uses;
}

// What the film of one colour is worth, of all that comes from the same.
std::optional<std::int64_t> worth_of_film(const Plan& plan, const FacePlan& fp, const std::string& colour) {
    Length own;
    for (const Load& load : fp.loads->loads) {
        if (!load.cut && load.carried_by.empty() && load.from.empty()) own += load.film_length;
    }
    for (const FilmCost& film : plan.film) {
        if (film.film != fp.making.film.id || film.colour != colour || !film.worth_cents) continue;
        return std::llround(static_cast<double>(*film.worth_cents) * own.in_mm() / film.needed.in_mm());
    }
    return std::nullopt;
}

// Boards for frames and the like; the board of a blank is on its own list already.
void buy_boards(const SawPlan& saw, std::vector<FacePlan>& faces) {
    const bool only_blanks =
        std::all_of(saw.cuts.begin(), saw.cuts.end(), [](const Cut& c) { return c.what.id == "cuts.blank"; });
    if (only_blanks || saw.cutting.used == 0 || faces.empty()) return;
    std::vector<Reason> lengths;
    for (const SawnBoard& board : saw.cutting.boards) {
        for (int n = 0; n < board.boards; ++n) lengths.push_back({"buy.one-length", {{"length", board.from}}});
    }
    faces.front().shopping.push_back(
        {{"buy.frame", {{"stock", shown_name(saw.stock)}}},
         {"buy.boards", {{"boards", std::int64_t{saw.cutting.used}}, {"lengths", lengths}}}});
}

}  // namespace

struct Planner::ColourMemory {
    Stage<InkInput, std::vector<Piece>> ink;
    Stage<PrintInput, std::vector<Piece>> printed;
    Stage<ThinInput, ThinPlan> thin;
    Stage<LoadsInput, LoadsPlan> loads;
    Stage<MethodInput, BuildUp> method;
    Stage<TaskInput, std::vector<Task>> tasks;
};

struct Planner::Memory {
    struct FaceMemory {
        Stage<BlankInput, BlankPlan> blank;
        Stage<LetteringInput, LetteringPlan> lettering;
        Stage<ArtInput, ArtPlan> art;
        Stage<ReadingInput, Legibility> reading;
        std::vector<ColourMemory> colours;
    };
    std::vector<FaceMemory> faces;
    Stage<SharingInput, Shared> sharing;
    std::vector<Stage<SawInput, CuttingPlan>> saw;
    Stage<ClockInput, Schedule> clock;
    Stage<BenchInput, BenchPlan> bench;
    int runs = 0;
};

Planner::Planner() : memory_(std::make_unique<Memory>()) {}
Planner::~Planner() = default;
Planner::Planner(Planner&&) noexcept = default;
Planner& Planner::operator=(Planner&&) noexcept = default;
int Planner::stages_run() const { return memory_->runs; }

// What an earlier colour of the same face leaves for the next one.
struct Planner::LaidBefore {
    std::vector<Layer> layers;
    std::optional<std::size_t> proof;  // place of its task
    std::optional<std::size_t> last;   // the last task on the blank
    Minutes wait{0};                   // after it, before film goes on
    Reason why;
};

// The ink of one colour of a face, and how it is made.
void Planner::draw_colour(const Job& job, const Library& library, ColourMemory& memory, FacePlan& fp,
                          const std::stop_token& stop) {
    Memory& m = *memory_;
    const Face& face = job.signs[fp.sign].faces[fp.face];
    fp.ink = memory.ink({face.lettering, fp.lettering, face.art, fp.art, fp.colour,
                         fp.mirrored ? std::optional(fp.blank->face) : std::nullopt},
                        m.runs, stop, [](const InkInput& in) {
                            std::vector<Piece> pieces = ink_of(in.lettering, *in.placed, in.art, *in.made, in.colour);
                            if (in.mirror) {
                                for (Piece& p : pieces)
                                    p.shape = p.shape.mirrored(in.mirror->low.x + in.mirror->high.x);
                            }
                            return pieces;
                        });
    fp.pieces = fp.ink;
    fp.making = resolve(face.colours[fp.colour].making, library.trade.films, library.trade.tools);
    fp.making.edges_place = fp.blank->straight_sides;
}

// Colours of a face that are printed on one film and bed come out of the printer together.
void Planner::print_together(std::vector<ColourMemory>& memory, std::vector<FacePlan>& lanes,
                             const std::stop_token& stop) {
    static const auto none = std::make_shared<const std::vector<Piece>>();
    for (std::size_t first = 0; first < lanes.size(); ++first) {
        FacePlan& carrier = lanes[first];
        if (!is_printed(carrier.making) || carrier.printed_with) continue;
        PrintInput all{{carrier.ink}};
        for (std::size_t i = first + 1; i < lanes.size(); ++i) {
            FacePlan& other = lanes[i];
            if (!is_printed(other.making) || other.printed_with || other.making.film.id != carrier.making.film.id ||
                other.bed != carrier.bed)
                continue;
            all.inks.push_back(other.ink);
            other.printed_with = carrier.colour;
            other.pieces = none;
        }
        if (all.inks.size() == 1) continue;
        carrier.pieces = memory[first].printed(all, memory_->runs, stop, [](const PrintInput& in) {
            std::vector<const std::vector<Piece>*> inks;
            for (const auto& ink : in.inks) inks.push_back(ink.get());
            return cut_together(inks);
        });
    }
}

// One colour of a face, from its pieces to its own loads. False when `stop` was requested.
bool Planner::cut_colour(const Job& job, const Library& library, ColourMemory& memory, FacePlan& fp,
                         const std::stop_token& stop) {
    Memory& m = *memory_;
    const Sign& sign = job.signs[fp.sign];
    fp.thin = memory.thin({fp.pieces, library.trade.thin}, m.runs, stop,
                          [](const ThinInput& in) { return thin_places(*in.pieces, in.limits); });
    const std::string id = face_id(sign, fp.face, fp.colour);
    fp.loads = memory.loads(
        {*fp.pieces, fp.blank->face, fp.bed, fp.making, cut_for(job.bench.cut, id)}, m.runs, stop,
        [&](const LoadsInput& in) { return plan_loads(in.pieces, in.face, in.mat, in.making, in.cut, stop); });
    return !stop.stop_requested();
}

// From its loads, which may be shared by now, to its tasks.
void Planner::make_colour(const Job& job, const Library& library, ColourMemory& memory, FacePlan& fp,
                          LaidBefore& before, const std::stop_token& stop, Plan& out) {
    Memory& m = *memory_;
    const Sign& sign = job.signs[fp.sign];
    const Face& face = sign.faces[fp.face];
    const Colour& colour = face.colours[fp.colour];
    const std::string id = face_id(sign, fp.face, fp.colour);
    const Frame& frame = sign.blank.frame;
    const bool raised = frame.kind != FrameKind::None && frame.before && frame.raised;
    fp.method = memory.method(
        {fp.making, face.finish, colour.paint, sign.blank.material, sign.blank.surface, fp.loads->keepers,
         fp.loads->spans_face, sign.blank.already, sign.blank.already_hours, raised, sign.blank.kind == Kind::Field,
         sign.blank.from_behind, sign.blank.grain, sign.blank.grit, seen_under(sign.blank, face, fp), before.layers},
        m.runs, stop, [&](const MethodInput& in) { return build_up(in, library.trade); });
    if (fp.printed_with) return;  // done with the colour that carries it
    const bool upright = sign.blank.stands == Stands::Upright;
    double fields_sqft = 0;
    for (const FieldPlan& field : fp.blank->fields) fields_sqft += field.region.area_mm2() / (304.8 * 304.8);
    int frame_pieces = 0;
    for (const Cut& cut : fp.blank->cuts) frame_pieces += cut.what.id.starts_with("frame.") ? cut.count : 0;
    // Colours printed with an earlier one bring no work of their own.
    const bool ends = std::none_of(out.faces.begin(), out.faces.end(), [&](const FacePlan& f) {
        return f.sign == fp.sign && f.face == fp.face && !f.printed_with && &f > &fp;
    });
    const TaskInput task_input{id,
                               *fp.method,
                               colour.making,
                               *fp.loads,
                               face.finish.clear_over,
                               face.finish.outdoors,
                               face.finish.sanded,
                               upright,
                               fp.blank->coat_sqft,
                               fp.lettering->cap_height,
                               static_cast<int>(sign.blank.fields.size()),
                               fields_sqft,
                               frame_pieces,
                               frame.before,
                               fp.first,
                               ends,
                               !(fp.first && ends) ? colour.paint.colour_name : std::string()};
    const auto tasks =
        memory.tasks(task_input, m.runs, stop, [&](const TaskInput& in) { return tasks_of(in, library.trade); });
    const std::size_t base = out.tasks.size();
    bool joined = fp.first;
    for (Task task : *tasks) {
        if (job.signs.size() > 1) task.of = label_of(sign);
        for (Wait& w : task.waits) w.after += base;
        if (task.kind == "weed") wait_for_carrier(*fp.loads, task, out.tasks);
        if (task.kind == "proof") before.proof = out.tasks.size();
        if (!fp.first && task.kind == "cut" && before.proof) task.waits.push_back({*before.proof, Minutes(0), {}, {}});
        const bool on_blank = task.kind != "proof" && task.kind != "cut" && task.kind != "weed";
        if (!joined && on_blank && before.last) {
            task.waits.push_back({*before.last, before.wait, {}, before.why});
            joined = true;
        }
        if (on_blank) before.last = out.tasks.size();
        out.tasks.push_back(std::move(task));
    }
    // Tape and masks go on a coat that is dry enough for them; film goes on film at once.
    const bool painted = fp.making.way == Way::PaintThrough;
    before.wait = painted ? fp.method->colour.film_least : Minutes(0);
    before.why = painted ? Reason{"wait.film-on-colour", {{"paint", fp.method->colour.name}}} : Reason{};
    for (const Layer& layer : fp.method->layers) {
        if ((layer.kind == "film" || layer.kind == "colour") && !layer.lifted) before.layers.push_back(layer);
    }
    fp.shopping =
        shopping({sign.blank.stock, fp.blank->length, fp.blank->width, fp.blank->coat_sqft, *fp.loads, fp.making,
                  *fp.method, fp.bed.width, face.finish.seal, fp.face == 0 && fp.first ? fp.blank->rope : Length{},
                  fp.first, worth_of_film(out, fp, seen_colour(fp.making, colour.paint))});
    add(out.problems, fp.loads->problems);
    if (is_printed(fp.making) && !fp.bed.print && !fp.loads->loads.empty()) {
        out.problems.push_back({{"print.no-marks", {{"load", fp.loads->loads.front().name}, {"bed", fp.bed.name}}},
                                "sections",
                                {"print.on-page", {}},
                                Mark::Stop});
    }
    for (const Finding& finding : fp.method->findings) {
        if (finding.mark != Mark::None) out.problems.push_back({finding.why, "method", finding.remedy, finding.mark});
    }
}

std::optional<Plan> Planner::plan(const Job& job, const Shop& shop, const Library& library, Moment moment,
                                  const std::stop_token& stop, const std::function<void(const Plan&)>& on_stage) {
    Memory& m = *memory_;
    m.runs = 0;
    Plan out;
    const auto tell = [&] {
        if (on_stage) on_stage(out);
        return stop.stop_requested();
    };
    std::vector<BuildUp> methods;
    bool decal = false;
    std::vector<std::pair<std::size_t, std::size_t>> lanes;  // of memory, for each face of the plan
    std::size_t index = 0;
    for (std::size_t s = 0; s < job.signs.size(); ++s) {
        const Sign& sign = job.signs[s];
        for (std::size_t f = 0; f < sign.faces.size(); ++f, ++index) {
            const Face& face = sign.faces[f];
            if (face.colours.empty()) continue;
            if (m.faces.size() <= index) m.faces.resize(index + 1);
            Memory::FaceMemory& memory = m.faces[index];
            FacePlan of_face;
            of_face.sign = s;
            of_face.face = f;
            of_face.blank = memory.blank({sign.blank, shop.stock, f > 0}, m.runs, stop,
                                         [&](const BlankInput& in) { return measured(in, library.trade); });
            of_face.marking = marking_out(sign.blank, *of_face.blank);
            const LetteringRoom room = room_of(sign.blank, *of_face.blank);
            of_face.lettering = memory.lettering({face.lettering, room}, m.runs, stop, [&](const LetteringInput& in) {
                return place(in.lettering, in.room, library.typefaces);
            });
            of_face.art = memory.art({face.art, room, of_face.blank->outline}, m.runs, stop, [&](const ArtInput& in) {
                return make_art(in.art, in.room, in.outline, library.typefaces);
            });
            of_face.mirrored = sign.blank.from_behind;
            add(out.problems, of_face.blank->problems);
            std::vector<Problem> lettering_problems = of_face.lettering->problems;
            // A face may carry art alone.
            if (!face.art.empty()) {
                std::erase_if(lettering_problems, [](const Problem& p) { return p.what.id == "lettering.no-words"; });
            }
            add(out.problems, lettering_problems);
            add(out.problems, of_face.art->problems);
            std::vector<std::size_t> colours = colours_used(face.lettering, face.art, face.colours.size());
            // Seen through the blank, what is in front is laid first.
            if (of_face.mirrored) std::reverse(colours.begin(), colours.end());
            memory.colours.resize(std::max(memory.colours.size(), colours.size()));
            std::vector<FacePlan> of_colours;
            for (std::size_t lane = 0; lane < colours.size(); ++lane) {
                FacePlan& fp = of_colours.emplace_back(of_face);
                fp.colour = colours[lane];
                fp.first = lane == 0;
                fp.last = lane + 1 == colours.size();
                draw_colour(job, library, memory.colours[lane], fp, stop);
                const Colour& colour = face.colours[fp.colour];
                fp.bed = bed_for(shop, colour.making, is_printed(fp.making), seen_colour(fp.making, colour.paint));
            }
            for (const FacePlan& fp : of_colours) say_no_bed(out, shop, face.colours[fp.colour].making, fp.bed);
            print_together(memory.colours, of_colours, stop);
            for (std::size_t lane = 0; lane < colours.size(); ++lane) {
                FacePlan& fp = of_colours[lane];
                if (!cut_colour(job, library, memory.colours[lane], fp, stop)) return std::nullopt;
                const Colour& colour = face.colours[fp.colour];
                say_too_large(out, shop, colour.making, seen_colour(fp.making, colour.paint), fp);
                lanes.emplace_back(index, lane);
                out.faces.push_back(std::move(fp));
            }
            say_thin(out, out.faces.size() - colours.size());
            if (tell()) return std::nullopt;
        }
    }
    std::vector<Sharer> sharers;
    for (const FacePlan& f : out.faces) sharers.push_back(sharer_of(job, f));
    const auto shared = m.sharing({std::move(sharers), shop.drawer}, m.runs, stop,
                                  [](const SharingInput& in) { return share_loads(in.sharers, in.drawer); });
    out.loads_saved = shared->loads_saved;
    out.film = film_costs(film_uses(job, out), shop.drawer);
    say_short(out);
    LaidBefore before;
    for (std::size_t i = 0; i < out.faces.size(); ++i) {
        FacePlan& fp = out.faces[i];
        fp.loads = shared->plans[i];
        if (fp.first) before = {};
        Memory::FaceMemory& memory = m.faces[lanes[i].first];
        make_colour(job, library, memory.colours[lanes[i].second], fp, before, stop, out);
        methods.push_back(*fp.method);
        decal = decal || fp.making.way == Way::Decal;
        if (fp.last) {
            const Face& face = job.signs[fp.sign].faces[fp.face];
            std::size_t first = i;
            while (!out.faces[first].first) --first;
            double least = 0;
            for (std::size_t k = first; k <= i; ++k) {
                const bool lettered = std::any_of(face.lettering.texts.begin(), face.lettering.texts.end(),
                                                  [&](const Text& t) { return t.colour == out.faces[k].colour; });
                const double ratio = std::get<double>(out.faces[k].method->facts.at("contrast"));
                if (lettered) least = least == 0 ? ratio : std::min(least, ratio);
            }
            const auto reading = memory.reading(
                {face.lettering, fp.lettering, face.seen, least}, m.runs, stop, [&](const ReadingInput& in) {
                    return judge_reading(in.lettering, *in.placed, in.seen, in.contrast, library.typefaces);
                });
            for (std::size_t k = first; k <= i; ++k) out.faces[k].reading = reading;
        }
    }
    if (tell()) return std::nullopt;
    out.saw = rows_to_saw(job, out);
    m.saw.resize(std::max(m.saw.size(), out.saw.size()));
    for (std::size_t i = 0; i < out.saw.size(); ++i) {
        SawInput saw{{}, shop.board_lengths, shop.kerf};
        for (const Cut& cut : out.saw[i].cuts) saw.wanted.push_back({cut.length, cut.count});
        out.saw[i].cutting = *m.saw[i](std::move(saw), m.runs, stop,
                                       [](const SawInput& in) { return cutting_plan(in.wanted, in.lengths, in.kerf); });
        add(out.problems, out.saw[i].cutting.problems);
        buy_boards(out.saw[i], out.faces);
    }
    if (job.post) {
        std::vector<PostSign> signs;
        for (const FacePlan& face : out.faces) {
            if (face.face == 0 && face.first)
                signs.push_back(
                    {job.signs[face.sign].id, label_of(job.signs[face.sign]), from_grid(face.blank->face.height())});
        }
        out.post = set_on_post(*job.post, signs);
        add(out.problems, out.post->problems);
    }
    out.proof_signed = job.proof && job.proof->wording == wording(job);
    if (job.proof && !out.proof_signed) {
        out.problems.push_back({{"proof.lapsed", {}}, "method", {"proof.sign-again", {}}, Mark::Look});
    }
    // Without placed ink there is nothing to schedule: later stations say which one stops them.
    if (std::all_of(out.faces.begin(), out.faces.end(), [](const FacePlan& f) { return f.pieces->empty(); })) {
        out.tasks.clear();
    }
    out.clock =
        m.clock({out.tasks, shop.hours, job.deadline, done_tasks(job, out.proof_signed), job.bench.held, moment},
                m.runs, stop, [](const ClockInput& in) { return schedule(in); });
    add(out.problems, out.clock->problems);
    if (tell()) return std::nullopt;
    out.bench = m.bench({out.tasks, *out.clock, job.bench, methods, decal}, m.runs, stop,
                        [&](const BenchInput& in) { return bench(in, library.trade); });
    if (!out.bench->orphans.empty()) {
        out.problems.push_back({{"bench.orphans", {{"steps", static_cast<std::int64_t>(out.bench->orphans.size())}}},
                                "bench",
                                {"bench.orphans-kept", {}},
                                Mark::Look});
    }
    if (tell()) return std::nullopt;
    return out;
}

const FacePlan* Plan::of(std::size_t sign, std::size_t face) const {
    const auto at =
        std::find_if(faces.begin(), faces.end(), [&](const FacePlan& f) { return f.sign == sign && f.face == face; });
    return at == faces.end() ? nullptr : &*at;
}

const FacePlan* Plan::of(std::size_t sign, std::size_t face, std::size_t colour) const {
    const auto at = std::find_if(faces.begin(), faces.end(), [&](const FacePlan& f) {
        return f.sign == sign && f.face == face && f.colour == colour;
    });
    return at == faces.end() ? of(sign, face) : &*at;
}

const FacePlan* Plan::of_step(const Job& job, const std::string& step) const {
    const std::string named = step.substr(0, step.find('/'));
    for (const FacePlan& f : faces) {
        if (f.sign < job.signs.size() && face_id(job.signs[f.sign], f.face, f.colour) == named) return &f;
    }
    const auto at = face_of_step(job, step);
    return at ? of(at->first, at->second) : nullptr;
}

Mark Plan::mark_of(const std::string& station) const {
    Mark worst = Mark::None;
    for (const Problem& problem : problems) {
        if (problem.where == station) worst = std::max(worst, problem.mark);
    }
    return worst;
}

bool operator==(const Plan& a, const Plan& b) {
    const bool faces = std::equal(
        a.faces.begin(), a.faces.end(), b.faces.begin(), b.faces.end(), [](const FacePlan& p, const FacePlan& q) {
            return p.sign == q.sign && p.mirrored == q.mirrored && p.face == q.face && p.marking == q.marking &&
                   same(p.blank, q.blank) && same(p.lettering, q.lettering) && same(p.art, q.art) &&
                   same(p.thin, q.thin) && same(p.reading, q.reading) && p.colour == q.colour && p.first == q.first &&
                   p.last == q.last && same(p.ink, q.ink) && same(p.pieces, q.pieces) &&
                   p.printed_with == q.printed_with && p.making == q.making && p.bed == q.bed &&
                   same(p.loads, q.loads) && same(p.method, q.method) && p.shopping == q.shopping;
        });
    return faces && a.saw == b.saw && a.post == b.post && a.tasks == b.tasks && same(a.clock, b.clock) &&
           same(a.bench, b.bench) && a.film == b.film && a.proof_signed == b.proof_signed && a.problems == b.problems;
}

Plan plan(const Job& job, const Shop& shop, const Library& library, Moment moment) {
    return *Planner().plan(job, shop, library, moment);
}

}  // namespace skarvel
