#include "clock/tasks.h"

#include <algorithm>
#include <cmath>

namespace skarvel {
namespace {

// The work of one face.
class Builder {
  public:
    Builder(const FaceWork& in, const Trade& trade, std::vector<Task>& tasks)
        : in_(in), trade_(trade), h_(trade.hands_on), tasks_(tasks) {}

    void build() {
        const ColourWork* before = nullptr;
        for (const ColourWork& colour : in_.colours) {
            if (colour.printed_with_another) continue;
            at_ = &colour;
            if (before == nullptr) prepare();
            const std::vector<std::size_t> films = cut_and_weed();
            if (before != nullptr && !before->loads->sections.empty()) wait_on(*before);
            lay_and_paint(films);
            before = &colour;
        }
        at_ = last_at_work();
        pass_ = 0;
        if (behind()) {
            const bool decal = at_->making.way == Way::Decal;
            then_wait(decal ? trade_.clear_over_vinyl : method().colour.paint_over,
                      decal ? Reason{"wait.vinyl", {}} : Reason{"wait.clear-over", {{"paint", method().colour.name}}});
            ground();
        }
        if (method().clear_coats > 0 && in_.clear_over) clear(Work::Clear);
        finish();
    }

  private:
    [[nodiscard]] const BuildUp& method() const { return *at_->method; }
    [[nodiscard]] const LoadsPlan& loads() const { return *at_->loads; }

    // What is printed with an earlier colour is done with that one.
    [[nodiscard]] const ColourWork* last_at_work() const {
        const auto last = std::find_if(in_.colours.rbegin(), in_.colours.rend(),
                                       [](const ColourWork& c) { return !c.printed_with_another; });
        return last == in_.colours.rend() ? &in_.colours.front() : &*last;
    }
    [[nodiscard]] bool several() const {
        return std::count_if(in_.colours.begin(), in_.colours.end(),
                             [](const ColourWork& c) { return !c.printed_with_another; }) > 1;
    }

    std::size_t add(Work work, const std::string& which, double minutes,
                    std::vector<std::pair<std::string, Argument>> arguments, int number = 0, int time = 1) {
        Task task;
        const bool of_face = is_of_face(work);
        task.id = of_face ? step_id(in_.id, work, which) : step_id(at_->id, work, which, time);
        task.work = work;
        task.face = in_.id;
        if (!of_face) task.colour = at_->id;
        task.decal = !of_face && at_->making.way == Way::Decal;
        task.of = in_.sign;
        task.name = {std::string("task.") + word_of(work), arguments};
        const auto within = [&](const char* id, std::pair<std::string, Argument> more) {
            task.name = {id, {{"task", std::vector<Reason>{task.name}}, std::move(more)}};
            task.name.arguments.insert(task.name.arguments.end(), arguments.begin(), arguments.end());
        };
        if (pass_ > 0) within("task.in-pass", {"pass", std::int64_t{pass_}});
        if (several() && !of_face) within("task.in-colour", {"colour", at_->name});
        task.hands_on = Minutes(static_cast<int>(std::ceil(minutes)));
        task.number = number;
        tasks_.push_back(std::move(task));
        return tasks_.size() - 1;
    }

    // A coat that is brushed, sprayed or sponged: what is in its tin wants care.
    std::size_t with(std::size_t task, const Coat& coat) {
        if (!coat.base.empty()) tasks_[task].products.push_back(coat.base);
        return task;
    }

    void after(std::size_t task, std::size_t earlier, Minutes at_least = Minutes(0), Reason why = {}) {
        tasks_[task].waits.push_back({earlier, at_least, std::nullopt, std::move(why)});
    }

    // Adds to the chain of work on the blank itself, with the wait that the last coat asks for.
    void follow(std::size_t task) {
        if (last_) after(task, *last_, wait_, wait_why_);
        last_ = task;
        wait_ = Minutes(0);
        wait_why_ = {};
    }

    void then_wait(Minutes wait, Reason why) {
        wait_ = wait;
        wait_why_ = std::move(why);
    }

    [[nodiscard]] double brushing() const { return h_.setup + h_.brush_per_sqft * in_.area_sqft; }

    void prepare() {
        const BuildUp& m = method();
        if (in_.frame_before) frame();
        if (in_.sanded) follow(add(Work::Sand, "", h_.setup / 2 + h_.sand_per_sqft * in_.area_sqft, {}));
        if (behind()) return fields();
        ground();
        if (m.clear_coats > 0 && !in_.clear_over) {
            if (m.ground_coats > 0) then_wait(m.ground.paint_over, {"wait.clear-over", {{"paint", m.ground.name}}});
            clear(Work::ClearUnder);
            then_wait(m.clear.film_least, {"wait.film-on-ground", {{"paint", m.clear.name}}});
        } else if (m.ground_coats > 0) {
            then_wait(m.rest, {"wait.film-on-ground", {{"paint", m.ground.name}}});
        }
        fields();
    }

    // On the back of a clear blank the ground comes after everything that is seen in front of it.
    [[nodiscard]] bool behind() const {
        const auto at = method().facts.find("from-behind");
        return at != method().facts.end() && at->second == Fact{true};
    }

    void ground() {
        const BuildUp& m = method();
        for (int coat = 1; coat <= m.ground_coats; ++coat) {
            follow(with(
                add(Work::Ground, std::to_string(coat), brushing(),
                    {{"coat", std::int64_t{coat}}, {"coats", std::int64_t{m.ground_coats}}, {"paint", m.ground.name}},
                    coat),
                m.ground));
            then_wait(m.ground.next_coat, {"wait.next-coat", {{"paint", m.ground.name}}});
        }
    }

    // Bands and borders: tape on the dry ground, a thin coat, the tape off while it is soft.
    void fields() {
        const BuildUp& m = method();
        const double each = in_.fields > 0 ? in_.fields_sqft / in_.fields : 0;
        for (int i = 1; i <= in_.fields; ++i) {
            if (m.ground_coats > 0) then_wait(m.ground.paint_over, {"wait.tape-on-ground", {{"paint", m.ground.name}}});
            follow(with(add(Work::Field, std::to_string(i), h_.setup * 1.5 + h_.brush_per_sqft * each * 2,
                            {{"field", std::int64_t{i}}}, i),
                        m.field));
            then_wait(std::max(m.rest, m.field.film_least), {"wait.film-on-field", {}});
        }
    }

    void frame() {
        if (in_.frame_pieces == 0) return;
        follow(add(Work::Frame, "", h_.setup + h_.frame_piece * in_.frame_pieces,
                   {{"pieces", std::int64_t{in_.frame_pieces}}}));
    }

    static std::string letters_on(const Load& load) {
        std::string letters = load.name;
        for (const Guest& g : load.guests) letters += "+" + g.section.letters;
        return letters;
    }

    std::vector<std::size_t> cut_and_weed() {
        if (!proof_) proof_ = add(Work::Proof, "", h_.proof, {});
        std::vector<std::size_t> weeded;
        for (std::size_t i = 0; i < loads().loads.size(); ++i) {
            const Load& load = loads().loads[i];
            const auto number = static_cast<std::int64_t>(i + 1);
            std::optional<std::size_t> cut;
            if (load.carried_by.empty()) {
                cut = add(Work::Cut, load.key, h_.load, {{"load", number}, {"letters", letters_on(load)}},
                          static_cast<int>(number));
                after(*cut, *proof_);
            }
            double minutes = 0;
            for (const Placement& p : load.placements) {
                const Section& section = loads().sections[p.section];
                const double each = in_.letter_height >= h_.weed_large_from ? h_.weed_large : h_.weed_small;
                minutes += each * section.letter_count + h_.keeper * static_cast<double>(section.keepers.size());
            }
            const std::size_t weed = add(Work::Weed, load.key, minutes, {{"load", number}, {"letters", load.name}},
                                         static_cast<int>(number));
            if (cut) after(weed, *cut);
            // What another colour's load carries is weeded after that load was cut.
            const auto carrier =
                std::find_if(tasks_.begin(), tasks_.end(), [&](const Task& t) { return t.id == load.carried_by; });
            if (!load.carried_by.empty() && carrier != tasks_.end())
                after(weed, static_cast<std::size_t>(carrier - tasks_.begin()));
            weeded.push_back(weed);
        }
        return weeded;
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
            if (at_->making.way == Way::PaintThrough) paint(here);
        }
        pass_ = 0;
    }

    // Tape and masks go on a coat that is dry enough for them; film goes on film at once.
    void wait_on(const ColourWork& before) {
        const Coat& coat = before.method->colour;
        if (before.making.way == Way::PaintThrough)
            then_wait(coat.film_least, {"wait.film-on-colour", {{"paint", coat.name}}});
        else
            then_wait(Minutes(0), {});
    }

    void lay(const std::vector<Lay>& lays, const std::vector<std::size_t>& films) {
        for (const Lay& l : lays) {
            const Section& section = loads().sections[l.section];
            const Box film = section.film.bounds();
            const bool hinged = std::max(film.width(), film.height()) >= to_grid(h_.hinged_from);
            const auto number = static_cast<std::int64_t>(l.section + 1);
            const std::size_t lay =
                add(Work::Lay, section.letters, hinged ? h_.lay_hinged : h_.lay,
                    {{"section", number}, {"letters", section.letters}}, static_cast<int>(number), lay_time(l));
            if (&l == &lays.front()) {
                for (const std::size_t film_task : films) after(lay, film_task);
            }
            follow(lay);
        }
    }

    static int lay_time(const Lay& l) { return static_cast<int>(l.time) + 1; }

    void paint(const std::vector<Lay>& lays) {
        const BuildUp& m = method();
        const int pass = std::max(1, pass_);
        int letters = 0;
        for (const Lay& l : lays) letters += loads().sections[l.section].letter_count;
        const bool sealed =
            std::any_of(m.layers.begin(), m.layers.end(), [](const Layer& l) { return l.kind == LayerKind::Seal; });
        if (sealed) {
            follow(add(Work::Seal, "", h_.setup + h_.colour_per_letter * letters / 2, {}, 0, pass));
            then_wait(trade_.seal_dry, {"wait.seal-dry", {}});
        }
        for (int coat = 1; coat <= m.colour_coats; ++coat) {
            const std::size_t coloured = with(
                add(Work::Colour, std::to_string(coat), h_.setup + h_.colour_per_letter * letters,
                    {{"coat", std::int64_t{coat}}, {"coats", std::int64_t{m.colour_coats}}, {"paint", m.colour.name}},
                    coat, pass),
                m.colour);
            if (m.sprayed) tasks_[coloured].products.emplace_back("spray");
            follow(coloured);
            then_wait(trade_.colour_through_mask, {"wait.colour-coat", {}});
        }
        // Masks come off in the reverse order of laying, inside the window after the last stroke.
        then_wait(m.lift.from,
                  {std::string("wait.lift-") + word_of(m.lift.id), {{"from", m.lift.from}, {"to", m.lift.to}}});
        for (std::size_t i = lays.size(); i-- > 0;) {
            const auto number = static_cast<std::int64_t>(lays[i].section + 1);
            const std::string& letters_of_it = loads().sections[lays[i].section].letters;
            const std::size_t lift =
                add(Work::Lift, letters_of_it, h_.lift, {{"section", number}, {"letters", letters_of_it}},
                    static_cast<int>(number), lay_time(lays[i]));
            follow(lift);
            if (i + 1 == lays.size()) tasks_[lift].waits.back().at_most = m.lift.to;
        }
        then_wait(m.colour.paint_over, {"wait.clear-over", {{"paint", m.colour.name}}});
    }

    void clear(Work work) {
        const BuildUp& m = method();
        if (work == Work::Clear && at_->making.way == Way::Decal)
            then_wait(trade_.clear_over_vinyl, {"wait.vinyl", {}});
        for (int coat = 1; coat <= m.clear_coats; ++coat) {
            follow(with(
                add(work, std::to_string(coat), brushing(),
                    {{"coat", std::int64_t{coat}}, {"coats", std::int64_t{m.clear_coats}}, {"paint", m.clear.name}},
                    coat),
                m.clear));
            then_wait(m.clear.next_coat, {"wait.next-coat", {{"paint", m.clear.name}}});
        }
        if (work == Work::Clear) {
            then_wait(in_.outdoors ? m.clear.before_use : m.clear.next_coat,
                      {in_.outdoors ? "wait.before-outdoors" : "wait.next-coat", {{"paint", m.clear.name}}});
        }
    }

    void finish() {
        if (!in_.frame_before) frame();
        follow(add(Work::Final, "", h_.final, {}));
    }

    const FaceWork& in_;
    const Trade& trade_;
    const HandsOn& h_;
    std::vector<Task>& tasks_;  // of the whole job
    const ColourWork* at_ = nullptr;
    std::optional<std::size_t> proof_;
    std::optional<std::size_t> last_;  // the last task on the blank itself
    Minutes wait_{0};                  // after it
    Reason wait_why_;
    int pass_ = 0;  // 0 where there is only one
};

}  // namespace

Reason full_name(const Task& task) {
    if (task.of.empty()) return task.name;
    return {"task.of-sign", {{"sign", task.of}, {"task", std::vector<Reason>{task.name}}}};
}

std::vector<Task> tasks_of(const std::vector<FaceWork>& faces, const Trade& trade) {
    std::vector<Task> tasks;
    for (const FaceWork& face : faces) Builder(face, trade, tasks).build();
    return tasks;
}

}  // namespace skarvel
