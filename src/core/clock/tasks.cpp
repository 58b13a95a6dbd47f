#include "clock/tasks.h"

#include <algorithm>
#include <cmath>
#include <set>

namespace skarvel {
namespace {

class Builder {
  public:
    Builder(const TaskInput& in, const Trade& trade) : in_(in), trade_(trade), h_(trade.hands_on) {}

    std::vector<Task> build() {
        if (in_.first) prepare();
        const std::vector<std::size_t> films = cut_and_weed();
        const std::vector<Lay> lays = lays_of(in_.loads.sections);
        const int passes = lays.empty() ? 0 : lays.back().pass;
        for (int pass = 1; pass <= std::max(1, passes); ++pass) {
            std::vector<Lay> here;
            std::copy_if(lays.begin(), lays.end(), std::back_inserter(here),
                         [&](const Lay& l) { return l.pass == pass; });
            pass_ = passes > 1 ? pass : 0;
            if (pass > 1)
                then_wait(std::max(in_.method.colour.film_least, in_.method.colour.paint_over),
                          {"wait.film-on-colour", {{"paint", in_.method.colour.name}}});
            lay(here, pass == 1 ? films : std::vector<std::size_t>{});
            if (in_.making.way == Way::PaintThrough) paint(here);
        }
        pass_ = 0;
        if (in_.last) {
            if (behind()) {
                const bool decal = in_.making.way == Way::Decal;
                then_wait(
                    decal ? trade_.clear_over_vinyl : in_.method.colour.paint_over,
                    decal ? Reason{"wait.vinyl", {}} : Reason{"wait.clear-over", {{"paint", in_.method.colour.name}}});
                ground();
            }
            if (in_.method.clear_coats > 0 && in_.clear_over) clear("clear");
            finish();
        }
        return std::move(tasks_);
    }

  private:
    std::size_t add(const std::string& kind, const std::string& which, double minutes,
                    std::vector<std::pair<std::string, Argument>> arguments, int number = 0) {
        Task task;
        // What is done once for the whole face is named after the face.
        static const std::set<std::string> once{"proof", "sand",  "ground",      "field",
                                                "frame", "clear", "clear-under", "final"};
        const std::string of = once.contains(kind) ? in_.sign.substr(0, in_.sign.find('.')) : in_.sign;
        task.id = of + "/" + kind + (which.empty() ? "" : "/" + which);
        task.kind = kind;
        task_arguments_ = arguments;
        task.name = {"task." + kind, std::move(arguments)};
        if (pass_ > 0) {
            task.name = {"task.in-pass", {{"task", std::vector<Reason>{task.name}}, {"pass", std::int64_t{pass_}}}};
            task.name.arguments.insert(task.name.arguments.end(), task_arguments_.begin(), task_arguments_.end());
        }
        if (!in_.colour.empty() && !once.contains(kind)) {
            task.name = {"task.in-colour", {{"task", std::vector<Reason>{task.name}}, {"colour", in_.colour}}};
            task.name.arguments.insert(task.name.arguments.end(), task_arguments_.begin(), task_arguments_.end());
        }
        task.hands_on = Minutes(static_cast<int>(std::ceil(minutes)));
        task.number = number;
        tasks_.push_back(std::move(task));
        return tasks_.size() - 1;
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
        const BuildUp& m = in_.method;
        if (in_.frame_before) frame();
        if (in_.sanded) follow(add("sand", "", h_.setup / 2 + h_.sand_per_sqft * in_.area_sqft, {}));
        if (!behind()) ground();
        if (behind()) return fields();
        if (m.clear_coats > 0 && !in_.clear_over) {
            if (m.ground_coats > 0) then_wait(m.ground.paint_over, {"wait.clear-over", {{"paint", m.ground.name}}});
            clear("clear-under");
            then_wait(m.clear.film_least, {"wait.film-on-ground", {{"paint", m.clear.name}}});
        } else if (m.ground_coats > 0) {
            then_wait(m.rest, {"wait.film-on-ground", {{"paint", m.ground.name}}});
        }
        fields();
    }

    // On the back of a clear blank the ground comes after everything that is seen in front of it.
    [[nodiscard]] bool behind() const {
        const auto at = in_.method.facts.find("from-behind");
        return at != in_.method.facts.end() && at->second == Fact{true};
    }

    void ground() {
        const BuildUp& m = in_.method;
        for (int coat = 1; coat <= m.ground_coats; ++coat) {
            follow(
                add("ground", std::to_string(coat), brushing(),
                    {{"coat", std::int64_t{coat}}, {"coats", std::int64_t{m.ground_coats}}, {"paint", m.ground.name}},
                    coat));
            then_wait(m.ground.next_coat, {"wait.next-coat", {{"paint", m.ground.name}}});
        }
    }

    // Bands and borders: tape on the dry ground, a thin coat, the tape off while it is soft.
    void fields() {
        const BuildUp& m = in_.method;
        const double each = in_.fields > 0 ? in_.fields_sqft / in_.fields : 0;
        for (int i = 1; i <= in_.fields; ++i) {
            if (m.ground_coats > 0) then_wait(m.ground.paint_over, {"wait.tape-on-ground", {{"paint", m.ground.name}}});
            follow(add("field", std::to_string(i), h_.setup * 1.5 + h_.brush_per_sqft * each * 2,
                       {{"field", std::int64_t{i}}}, i));
            then_wait(std::max(m.rest, m.ground.film_least), {"wait.film-on-field", {}});
        }
    }

    void frame() {
        if (in_.frame_pieces == 0) return;
        follow(add("frame", "", h_.setup + h_.frame_piece * in_.frame_pieces,
                   {{"pieces", std::int64_t{in_.frame_pieces}}}));
    }

    static std::string letters_on(const Load& load) {
        std::string letters = load.name;
        for (const Guest& g : load.guests) letters += "+" + g.section.letters;
        return letters;
    }

    std::vector<std::size_t> cut_and_weed() {
        std::optional<std::size_t> proof;
        if (in_.first) proof = add("proof", "", h_.proof, {});
        std::vector<std::size_t> weeded;
        for (std::size_t i = 0; i < in_.loads.loads.size(); ++i) {
            const Load& load = in_.loads.loads[i];
            const auto number = static_cast<std::int64_t>(i + 1);
            std::optional<std::size_t> cut;
            if (load.carried_by.empty()) {
                cut = add("cut", load.name, h_.load, {{"load", number}, {"letters", letters_on(load)}},
                          static_cast<int>(number));
                if (proof) after(*cut, *proof);
            }
            double minutes = 0;
            for (const Placement& p : load.placements) {
                const Section& section = in_.loads.sections[p.section];
                const double each = in_.letter_height >= h_.weed_large_from ? h_.weed_large : h_.weed_small;
                minutes += each * section.letter_count + h_.keeper * static_cast<double>(section.keepers.size());
            }
            const std::size_t weed =
                add("weed", load.name, minutes, {{"load", number}, {"letters", load.name}}, static_cast<int>(number));
            if (cut) after(weed, *cut);
            weeded.push_back(weed);
        }
        return weeded;
    }

    // What a lay is called in the names of its steps: the second and later ones of a section are told apart.
    [[nodiscard]] std::string lay_name(const Lay& l) const {
        const std::string& letters = in_.loads.sections[l.section].letters;
        return l.time == 0 ? letters : letters + " again " + std::to_string(l.time);
    }
    // Steps of later passes are named after them.
    [[nodiscard]] std::string in_pass(const std::string& which) const {
        return pass_ > 1 ? (which.empty() ? "" : which + " ") + "pass " + std::to_string(pass_) : which;
    }

    void lay(const std::vector<Lay>& lays, const std::vector<std::size_t>& films) {
        for (const Lay& l : lays) {
            const Section& section = in_.loads.sections[l.section];
            const Box film = section.film.bounds();
            const bool hinged = std::max(film.width(), film.height()) >= to_grid(h_.hinged_from);
            const auto number = static_cast<std::int64_t>(l.section + 1);
            const std::size_t lay = add("lay", lay_name(l), hinged ? h_.lay_hinged : h_.lay,
                                        {{"section", number}, {"letters", section.letters}}, static_cast<int>(number));
            if (&l == &lays.front()) {
                for (const std::size_t film_task : films) after(lay, film_task);
            }
            follow(lay);
        }
    }

    void paint(const std::vector<Lay>& lays) {
        const BuildUp& m = in_.method;
        int letters = 0;
        for (const Lay& l : lays) letters += in_.loads.sections[l.section].letter_count;
        const bool sealed =
            std::any_of(m.layers.begin(), m.layers.end(), [](const Layer& l) { return l.kind == "seal"; });
        if (sealed) {
            follow(add("seal", in_pass(""), h_.setup + h_.colour_per_letter * letters / 2, {}));
            then_wait(trade_.seal_dry, {"wait.seal-dry", {}});
        }
        std::size_t coloured = 0;
        for (int coat = 1; coat <= m.colour_coats; ++coat) {
            coloured =
                add("colour", in_pass(std::to_string(coat)), h_.setup + h_.colour_per_letter * letters,
                    {{"coat", std::int64_t{coat}}, {"coats", std::int64_t{m.colour_coats}}, {"paint", m.colour.name}},
                    coat);
            follow(coloured);
            then_wait(trade_.colour_through_mask, {"wait.colour-coat", {}});
        }
        // Masks come off in the reverse order of laying, inside the window after the last stroke.
        then_wait(m.lift.from, {"wait.lift-" + m.lift.id, {{"from", m.lift.from}, {"to", m.lift.to}}});
        for (std::size_t i = lays.size(); i-- > 0;) {
            const auto number = static_cast<std::int64_t>(lays[i].section + 1);
            const std::size_t lift =
                add("lift", lay_name(lays[i]), h_.lift,
                    {{"section", number}, {"letters", in_.loads.sections[lays[i].section].letters}},
                    static_cast<int>(number));
            follow(lift);
            if (i + 1 == lays.size()) tasks_[lift].waits.back().at_most = m.lift.to;
        }
        then_wait(m.colour.paint_over, {"wait.clear-over", {{"paint", m.colour.name}}});
    }

    void clear(const std::string& kind) {
        const BuildUp& m = in_.method;
        if (kind == "clear" && in_.making.way == Way::Decal) then_wait(trade_.clear_over_vinyl, {"wait.vinyl", {}});
        for (int coat = 1; coat <= m.clear_coats; ++coat) {
            follow(add(kind, std::to_string(coat), brushing(),
                       {{"coat", std::int64_t{coat}}, {"coats", std::int64_t{m.clear_coats}}, {"paint", m.clear.name}},
                       coat));
            then_wait(m.clear.next_coat, {"wait.next-coat", {{"paint", m.clear.name}}});
        }
        if (kind == "clear") {
            then_wait(in_.outdoors ? m.clear.before_use : m.clear.next_coat,
                      {in_.outdoors ? "wait.before-outdoors" : "wait.next-coat", {{"paint", m.clear.name}}});
        }
    }

    void finish() {
        if (!in_.frame_before) frame();
        follow(add("final", "", h_.final, {}));
    }

    const TaskInput& in_;
    const Trade& trade_;
    const HandsOn& h_;
    std::vector<Task> tasks_;
    std::vector<std::pair<std::string, Argument>> task_arguments_;
    std::optional<std::size_t> last_;
    Minutes wait_{0};
    Reason wait_why_;
    int pass_ = 0;  // 0 where there is only one
};

}  // namespace

Reason full_name(const Task& task) {
    if (task.of.empty()) return task.name;
    return {"task.of-sign", {{"sign", task.of}, {"task", std::vector<Reason>{task.name}}}};
}

std::vector<Task> tasks_of(const TaskInput& input, const Trade& trade) { return Builder(input, trade).build(); }

}  // namespace skarvel
