#include "job/alternatives.h"

#include "job/wish_commands.h"
#include "sections/showing.h"

#include <algorithm>
#include <functional>
#include <map>
#include <set>
#include <sstream>
#include <tuple>

namespace skarvel {
namespace {

constexpr int most_smaller_percent = 12;  // beyond, it shows

class Search {
  public:
    Search(const Job& job, const ColourAt& at, const Shop& shop, const Library& library, const Present& present,
           const std::stop_token& stop, const ToldWays& told)
        : job_(job),
          at_(at),
          colour_(colour_at(job, at).id),
          shop_(shop),
          library_(library),
          present_(present),
          stop_(stop),
          told_(told) {}

    std::vector<Alternative> run() {
        planner_.only_tries();
        const auto now = planner_.plan(job_, shop_, library_, present_, stop_);
        if (!now || now->of(colour_) == nullptr) return {};
        stops_ = stops(*now);
        base_ = figures_of(*now, colour_);
        lettering_ = now->of(colour_)->face->lettering;
        const ColourPlan& here = *now->of(colour_);
        room_ = room_on(here.cut.bed);
        for (const ColourPlan& f : now->colours) {
            if (f.cut.printed_with == colour_) printed_with_.push_back(f.colour);
        }
        other_beds(bed_name(here.cut.bed), is_printed(here.cut.making));
        tell();
        at_a_slant();
        tell();
        through_words();
        tell();
        same_film(*now);
        tell();
        film_at_hand(here, *now);
        tell();
        laid_sooner(here.cut);  // before laps, of which one may come to the same
        tell();
        other_laps();
        tell();
        again(*now);
        tell();
        masks_of_signs(*now);
        tell();
        crossing(*now->of(colour_));
        tell();
        smaller();
        return stop_.stop_requested() ? std::vector<Alternative>{} : best_first();
    }

  private:
    // After each kind: some are taken back once they are looked at.
    void tell() {
        if (told_ && found_.size() > told_of_) told_(best_first());
        told_of_ = found_.size();
    }

    [[nodiscard]] std::vector<Alternative> best_first() const {
        std::vector<Alternative> all = found_;
        std::stable_sort(all.begin(), all.end(), [](const Alternative& a, const Alternative& b) {
            const auto rank = [](const CutFigures& f) {
                return std::tuple(f.crossings, f.words, f.loads, f.sections, f.hands_on, f.film, f.to_buy);
            };
            return rank(a.figures) < rank(b.figures);
        });
        return all;
    }

    static int stops(const Plan& plan) {
        return static_cast<int>(std::count_if(plan.problems.begin(), plan.problems.end(),
                                              [](const Problem& p) { return p.mark == Mark::Stop; }));
    }

    // Planned; nothing where it stops the job in a way that was not there before.
    std::optional<CutFigures> tried(const Job& job) {
        auto plan = planner_.plan(job, shop_, library_, present_, stop_);
        if (!plan || stops(*plan) > stops_) return std::nullopt;
        last_ = Shared<Plan>(std::move(*plan));
        return figures_of(*last_, colour_);
    }

    bool keep(Reason what, Job job, bool only_fewer_loads = false) {
        const auto figures = tried(job);
        if (!figures || *figures == base_ || (only_fewer_loads && figures->loads >= base_.loads)) return false;
        const bool same =
            std::any_of(found_.begin(), found_.end(), [&](const Alternative& a) { return a.figures == *figures; });
        if (same) return false;
        found_.push_back({std::move(what), *figures, std::move(job), last_});
        return true;
    }

    Face& face_of(Job& job) const { return job.signs[at_.face.sign].faces[at_.face.face]; }
    Making& making(Job& job) const { return face_of(job).colours[at_.colour].making; }

    void other_beds(const std::string& now, bool printed) {
        for (const Mat& bed : beds_of(shop_.machines)) {
            if (stop_.stop_requested()) return;
            if (bed_name(bed) == now || bed.print.has_value() != printed) continue;
            Job other = job_;
            making(other).bed = bed_name(bed);
            for (const std::size_t with : printed_with_) face_of(other).colours[with].making.bed = bed_name(bed);
            keep({bed.roll    ? "alternative.roll"
                  : bed.print ? "alternative.page"
                  : bed.taped ? "alternative.taped"
                              : "alternative.mat",
                  {{"bed", bed.name}, {"machine", bed.machine}}},
                 std::move(other));
        }
    }

    void at_a_slant() {
        Job other = job_;
        making(other).wishes.any_angle = !making_now().wishes.any_angle;
        keep({making_now().wishes.any_angle ? "alternative.straight" : "alternative.slant", {}}, std::move(other));
    }

    // A word parted, for a load or for film: what it saves, or what it would cost to keep all of them whole.
    void through_words() {
        if (shop_.part_words) return;
        Job other = job_;
        const bool now = making_now().wishes.part_words;
        making(other).wishes.part_words = !now;
        // Only where words are parted by it, or no longer: letters of a stack stand alone.
        const auto worth = [&](const CutFigures& f) {
            return now ? f.words < base_.words
                       : f.words > base_.words && (f.loads < base_.loads || f.film < base_.film);
        };
        if (keep({now ? "alternative.words-whole" : "alternative.words-parted", {}}, std::move(other)) &&
            !worth(found_.back().figures))
            found_.pop_back();
    }

    // In the film of other masks, where that lets them share loads and nothing speaks against it.
    void same_film(const Plan& now) {
        if (making_now().way == Way::Decal) return;
        std::set<std::string> films;
        for (const ColourPlan& f : now.colours) {
            if (f.cut.making.way == Way::PaintThrough && !f.cut.loads->loads.empty())
                films.insert(f.cut.making.film.id);
        }
        films.erase(making_now().film);
        const auto objections = [](const Plan& plan) {
            return std::count_if(plan.problems.begin(), plan.problems.end(),
                                 [](const Problem& p) { return p.where == Station::Method && p.mark != Mark::None; });
        };
        for (const std::string& film : films) {
            if (stop_.stop_requested()) return;
            Job other = job_;
            making(other).film = film;
            const auto& all = library_.trade.films;
            const auto known = std::find_if(all.begin(), all.end(), [&](const Film& f) { return f.id == film; });
            if (!keep({"alternative.same-film", {{"film", known == all.end() ? film : known->name}}}, std::move(other),
                      true))
                continue;
            if (objections(*found_.back().plan) > objections(now)) found_.pop_back();
        }
    }

    // A film that lies in the drawer, where this one has to be bought; what the rules say of it goes with it.
    void film_at_hand(const ColourPlan& here, const Plan& now) {
        if (std::none_of(here.cut.film.begin(), here.cut.film.end(), [](const FilmFrom& f) { return f.bought; }))
            return;
        std::set<std::string> films;
        for (const FilmStock& stock : shop_.drawer) films.insert(stock.film);
        films.erase(making_now().film);
        const auto said = [](const Plan& plan) {
            std::vector<Reason> all;
            for (const Problem& p : plan.problems) {
                if (p.where == Station::Method && p.mark != Mark::None) all.push_back(p.what);
            }
            return all;
        };
        const std::vector<Reason> before = said(now);
        for (const std::string& film : films) {
            if (stop_.stop_requested()) return;
            const auto& all = library_.trade.films;
            const auto known = std::find_if(all.begin(), all.end(), [&](const Film& f) { return f.id == film; });
            if (known == all.end()) continue;
            Job other = job_;
            making(other).film = film;
            const auto figures = tried(other);
            if (!figures || figures->to_buy >= base_.to_buy) continue;
            std::vector<Reason> against;
            for (const Reason& what : said(*last_)) {
                const bool known_before = std::find(before.begin(), before.end(), what) != before.end();
                if (!known_before) against.push_back(what);
            }
            keep(against.empty()
                     ? Reason{"alternative.film-at-hand", {{"film", known->name}}}
                     : Reason{"alternative.film-at-hand-but", {{"film", known->name}, {"against", against}}},
                 std::move(other));
        }
    }

    void other_laps() {
        for (const char* lap : {"0", "1/16", "1/8", "1/4"}) {
            if (stop_.stop_requested()) return;
            Job other = job_;
            if (making(other).lap.value == measure(lap).value) continue;
            making(other).lap = measure(lap);
            keep({"alternative.lap", {{"lap", measure(lap).value}}}, std::move(other));
        }
    }

    // One mask laid again and again, or a few of them: film against passes of paint.
    void again(const Plan& now) {
        const int lays = now.of(colour_)->cut.loads->repeats;
        int last_each = 0;
        for (int copies = 1; copies < lays && !stop_.stop_requested(); ++copies) {
            // As many copies as do the same number of passes with less film.
            const int each = (lays + copies - 1) / copies;
            if (each == last_each) continue;
            last_each = each;
            Job other = job_;
            if (making(other).wishes.copies == copies) continue;
            making(other).wishes.copies = copies;
            keep({"alternative.again", {{"copies", std::int64_t{copies}}, {"lays", std::int64_t{lays}}}},
                 std::move(other));
        }
        if (making_now().wishes.copies > 0) {
            Job other = job_;
            making(other).wishes.copies = 0;
            keep({"alternative.as-drawn", {}}, std::move(other));
        }
    }

    // Shorter films, none of which takes a hinge, or longer ones and fewer inches: minutes at hand against film.
    void laid_sooner(const CutPlan& now) {
        const bool hinged = std::any_of(now.loads->sections.begin(), now.loads->sections.end(), [&](const Section& s) {
            const Box film = s.film.bounds();
            return from_grid(std::max(film.width(), film.height())) >= now.making.laying.hinged_from;
        });
        const Length longest_side = std::max(room_.along, room_.across);
        const bool may_be_hinged = now.loads->sections.size() > 1 && longest_side >= now.making.laying.hinged_from;
        if (making_now().wishes.laid_soonest ? !may_be_hinged : !hinged) return;
        Job other = job_;
        bool& soonest = making(other).wishes.laid_soonest;
        soonest = !soonest;
        keep({soonest ? "alternative.laid-sooner" : "alternative.less-film", {}}, std::move(other));
    }

    // Masks that signs have alike, cut once for all: film and weeding against waiting for one another.
    void masks_of_signs(const Plan& now) {
        std::int64_t masks = 0;
        bool laid_again = false;
        for (const ColourPlan& f : now.colours) {
            masks += f.cut.loads->had_before;
            laid_again = laid_again || !f.cut.loads->lent.empty();
        }
        if (masks == 0) return;
        keep({laid_again ? "alternative.masks-of-their-own" : "alternative.masks-again", {{"masks", masks}}},
             masks_again(job_, now, !laid_again));
    }

    [[nodiscard]] const Making& making_now() const { return colour_at(job_, at_).making; }

    // Fewer sections than the gaps let: seams where least ink is crossed, on lines that can be measured to.
    void crossing(const ColourPlan& now) {
        if (base_.loads < 2 || base_.crossings > 0 || now.cut.loads->sections.size() < 2) return;
        std::vector<Region> shapes;
        for (const Piece& p : *now.cut.pieces) shapes.push_back(p.shape);
        const Region all = merge(shapes);
        const Box ink = all.bounds();
        const Axis axis = ink.width() >= ink.height() ? Axis::X : Axis::Y;
        const std::int64_t margin = to_grid(now.cut.making.margin);
        const Box film = common(grown(ink, now.cut.making.margin), now.face->blank->face);
        const std::int64_t from = along(axis, film.low);
        const std::int64_t to = along(axis, film.high);
        const std::int64_t most = to_grid(std::max(room_.along, room_.across)) - to_grid(now.cut.making.lap);
        const std::int64_t line = to_grid(Length::sixtyfourths(4));
        const auto sections = static_cast<std::int64_t>(now.cut.loads->sections.size());
        for (std::int64_t n = (to - from + most - 1) / most; n > 1 && n < sections; ++n) {
            if (stop_.stop_requested()) return;
            Job other = job_;
            std::vector<SeamWish>& seams = making(other).wishes.seams;
            seams.clear();
            std::int64_t last = from;
            for (std::int64_t i = 1; i < n; ++i) {
                // As far as this section reaches, and the others still do.
                const std::int64_t first = std::max(last + margin, to - (n - i) * most);
                std::vector<std::int64_t> lines;
                for (std::int64_t at = (first + line - 1) / line * line; at <= last + most; at += line)
                    lines.push_back(at);
                if (lines.empty()) return;
                const std::vector<CutAcross> cuts =
                    cuts_across(all, axis, lines, now.cut.making.way == Way::PaintThrough);
                last = lines[static_cast<std::size_t>(
                    std::min_element(cuts.begin(), cuts.end(),
                                     [](const CutAcross& a, const CutAcross& b) { return a.shows < b.shows; }) -
                    cuts.begin())];
                const Length place = from_grid(last - along(axis, now.face->blank->face.low));
                seams.push_back({false, axis, measure_of(place, shop_.display), {}, {}, {}});
            }
            if (keep({"alternative.cross", {}}, std::move(other), true)) return;
        }
    }

    // Texts of this colour by so much smaller, on the sixteenth below.
    Job shrunk(int percent, std::optional<std::size_t> only) const {
        Job other = job_;
        auto& texts = face_of(other).lettering.texts;
        for (std::size_t i = 0; i < texts.size() && i < lettering_->texts.size(); ++i) {
            if (texts[i].colour != colour_ || texts[i].locked || (only && *only != i)) continue;
            if (lettering_->texts[i].ink.empty()) continue;
            const Length sixteenth = Length::sixtyfourths(4);
            const Length now = lettering_->texts[i].cap_height;
            const Length smaller = now * (100 - percent) / 100;
            texts[i].sizing = Sizing::CapHeight;
            texts[i].size = measure_of(sixteenth * (smaller.nm() / sixteenth.nm()), {Unit::Inch, 16});
        }
        return other;
    }

    struct Line {
        std::size_t text = 0, line = 0;
        std::string words;
    };

    // Of several level lines in one text the longest; nothing where none is longer than the others.
    [[nodiscard]] std::optional<Line> longest_line() const {
        std::optional<Line> best;
        std::int64_t longest = 0;
        const auto& texts = face_at(job_, at_.face).lettering.texts;
        for (std::size_t i = 0; i < texts.size(); ++i) {
            if (texts[i].colour != colour_ || texts[i].words.find('\n') == std::string::npos) continue;
            std::map<int, Box> lines;
            for (const PlacedLetter& l : lettering_->letters) {
                if (static_cast<std::size_t>(l.of) == i) lines[l.line] = around(lines[l.line], l.ink.bounds());
            }
            for (const auto& [line, ink] : lines) {
                if (ink.width() == longest) best.reset();
                if (ink.width() <= longest) continue;
                longest = ink.width();
                best = Line{i, static_cast<std::size_t>(line - lines.begin()->first), {}};
            }
        }
        if (!best) return std::nullopt;
        std::istringstream words(texts[best->text].words);
        for (std::size_t i = 0; i <= best->line; ++i) std::getline(words, best->words);
        return best;
    }

    // The line a text of its own and so much smaller, the others as they are.
    [[nodiscard]] Job line_shrunk(int percent, const Line& line) const {
        Job other = split_off_line(job_, at_.face, line.text, line.line);
        const Length now = lettering_->texts[line.text].cap_height;
        auto& texts = face_of(other).lettering.texts;
        const std::size_t parts = texts.size() - face_at(job_, at_.face).lettering.texts.size();
        for (std::size_t i = line.text; parts > 0 && i <= line.text + parts; ++i) {
            const bool it = texts[i].words == line.words;
            const Length unit = Length::sixtyfourths(it ? 4 : 1);
            const Length size = it ? now * (100 - percent) / 100 : now;
            texts[i].sizing = Sizing::CapHeight;
            texts[i].size = measure_of(unit * (size.nm() / unit.nm()), {Unit::Inch, it ? 16 : 64});
        }
        return other;
    }

    void smaller() {
        // A seam less across ink, else a word less parted, else a load less, and never a load more. What the smallest
        // size does not save no larger one does, and between the two the least is looked for by halves.
        const auto first_that = [&](const std::function<Job(int)>& made) -> std::optional<std::pair<int, Job>> {
            const auto saves = [&](const Job& other) {
                if (other == job_) return false;
                const auto figures = tried(other);
                return figures && figures->loads <= base_.loads &&
                       std::tuple(figures->crossings, figures->words, figures->loads) <
                           std::tuple(base_.crossings, base_.words, base_.loads);
            };
            int most = most_smaller_percent;
            Job best = made(most);
            if (!saves(best)) return std::nullopt;
            for (int least = 1; least < most && !stop_.stop_requested();) {
                const int middle = (least + most) / 2;
                if (Job other = made(middle); saves(other)) {
                    best = std::move(other);
                    most = middle;
                } else {
                    least = middle + 1;
                }
            }
            return std::pair(most, std::move(best));
        };
        const auto first_that_saves = [&](std::optional<std::size_t> only) {
            return first_that([&](int percent) { return shrunk(percent, only); });
        };
        if (base_.loads < 2 && base_.crossings == 0 && base_.words == 0) return;
        // The gentler change first: of two that come to the same, the first one is told.
        if (const auto line = longest_line()) {
            if (auto one = first_that([&](int percent) { return line_shrunk(percent, *line); }))
                keep({"alternative.smaller-line", {{"percent", std::int64_t{one->first}}, {"words", line->words}}},
                     std::move(one->second));
        }
        const auto& texts = face_at(job_, at_.face).lettering.texts;
        std::optional<std::size_t> longest;
        for (std::size_t i = 0; i < texts.size() && i < lettering_->texts.size(); ++i) {
            const Box& ink = lettering_->texts[i].ink;
            const bool long_one = std::max(ink.width(), ink.height()) > to_grid(std::max(room_.along, room_.across));
            const auto span = [&](std::size_t k) {
                return std::max(lettering_->texts[k].ink.width(), lettering_->texts[k].ink.height());
            };
            if (long_one && texts[i].colour == colour_ && (!longest || span(i) > span(*longest))) longest = i;
        }
        if (longest && texts.size() > 1) {
            if (auto one = first_that_saves(longest)) {
                const std::string& words = texts[*longest].words;
                keep({"alternative.smaller-line",
                      {{"percent", std::int64_t{one->first}}, {"words", words.substr(0, words.find('\n'))}}},
                     std::move(one->second));
            }
        }
        if (auto all = first_that_saves(std::nullopt))
            keep({"alternative.smaller", {{"percent", std::int64_t{all->first}}}}, std::move(all->second));
    }

    const Job& job_;
    ColourAt at_;
    ColourId colour_;
    const Shop& shop_;
    const Library& library_;
    Present present_;
    const std::stop_token& stop_;
    const ToldWays& told_;
    Planner planner_;
    Shared<Plan> last_;  // of what was tried last
    int stops_ = 0;
    CutFigures base_;
    Shared<LetteringPlan> lettering_;
    Room room_;
    std::vector<std::size_t> printed_with_;  // colours that are cut with this one
    std::vector<Alternative> found_;
    std::size_t told_of_ = 0;
};

}  // namespace

CutFigures figures_of(const Plan& plan, const ColourId& colour) {
    CutFigures out;
    for (const ColourPlan& f : plan.colours) {
        for (const Load& load : f.cut.loads->loads) {
            if (load.carried_by.empty()) ++out.loads;
            if (load.from.empty()) out.film += load.film_length;
        }
        for (std::size_t i = 0; i < f.cut.film.size() && i < f.cut.loads->loads.size(); ++i) {
            if (f.cut.film[i].bought) out.to_buy += f.cut.loads->loads[i].film_length;
        }
    }
    if (const ColourPlan* f = plan.of(colour)) {
        out.sections = static_cast<int>(f->cut.loads->sections.size());
        out.crossings = f->cut.loads->crossings;
        out.words = f->cut.loads->words_parted;
        for (const Seam& s : f->cut.loads->seams) out.crossed += s.crossed;
    }
    if (plan.clock) out.hands_on = plan.clock->hands_on;
    return out;
}

std::vector<Alternative> alternatives(const Job& job, const ColourId& colour, const Shop& shop, const Library& library,
                                      const Present& present, const std::stop_token& stop, const ToldWays& told) {
    const auto at = place_of(job, colour);
    if (!at) return {};
    const WhileStoppable stoppable(stop);
    try {
        return Search(job, *at, shop, library, present, stop, told).run();
    } catch (const Stopped&) {
        return {};
    }
}

}  // namespace skarvel
