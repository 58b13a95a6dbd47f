#include "lettering/compose.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "lettering/column.h"
#include "lettering/setting.h"

namespace skarvel {
namespace {

// What one run of words asks for, in its own style.
struct Run {
    double width = 0, height = 0;  // units of its typeface
    double cap = 0;
    bool stressed = false;
    bool lone_short = false;  // a single word of three letters or fewer, not stressed
    bool clings = false;      // ends on a word that belongs to the next line
    bool lacks = false;
};

// Words that lean on what follows: a line does not end on them gladly.
const std::set<std::string>& leaning() {
    static const std::set<std::string> words{"a",   "an",  "the", "of", "to", "in",  "on",   "at",   "by",
                                             "for", "and", "or",  "is", "my", "our", "your", "with", "no"};
    return words;
}

std::string lower(std::string word) {
    for (char& c : word) {
        if (c >= 'A' && c <= 'Z') c = static_cast<char>(c - 'A' + 'a');
    }
    return word;
}

class Composer {
  public:
    Composer(const ComposeWish& wish, const LetteringRoom& room, const std::vector<Typeface>& typefaces)
        : wish_(wish),
          room_(room),
          plain_(find_typeface(typefaces, wish.plain)),
          strong_(find_typeface(typefaces, wish.stressed)),
          words_(words_of(wish.saying)) {
        if (plain_ == nullptr && !typefaces.empty()) plain_ = &typefaces.front();
        if (strong_ == nullptr) strong_ = plain_;
        group();
    }

    [[nodiscard]] std::size_t units() const { return groups_.size(); }
    [[nodiscard]] bool ready() const { return plain_ != nullptr && !words_.empty() && !room_.usable.empty(); }
    [[nodiscard]] const std::vector<std::size_t>& groups() const { return groups_; }

    // `mask` has a bit for each place between two groups where a line ends.
    std::optional<Proposal> with(unsigned long mask) {
        std::vector<Run*> runs;
        std::vector<std::pair<std::size_t, std::size_t>> spans;
        std::size_t from = 0;
        for (std::size_t i = 0; i < groups_.size(); ++i) {
            const bool ends = i + 1 == groups_.size() || ((mask >> i) & 1U) != 0;
            if (!ends) continue;
            Run& run = run_of(from, i);
            if (run.lone_short || run.lacks || run.width <= 0) return std::nullopt;
            runs.push_back(&run);
            spans.emplace_back(from, i);
            from = i + 1;
        }
        return judge(runs, spans);
    }

    [[nodiscard]] std::string text_of(std::size_t from, std::size_t to) const {
        std::string all;
        for (std::size_t w = first_word(from); w < first_word(to + 1); ++w) all += (all.empty() ? "" : " ") + words_[w];
        return all;
    }

  private:
    // Groups of neighbouring words, where there are more words than can all be tried: the shortest neighbours join.
    void group() {
        std::vector<std::size_t> sizes(words_.size(), 1);
        std::vector<std::size_t> lengths;
        for (const std::string& w : words_) lengths.push_back(w.size());
        while (sizes.size() > most_words) {
            std::size_t best = 0;
            for (std::size_t i = 1; i + 1 < sizes.size(); ++i) {
                if (lengths[i] + lengths[i + 1] < lengths[best] + lengths[best + 1]) best = i;
            }
            sizes[best] += sizes[best + 1];
            lengths[best] += lengths[best + 1] + 1;
            sizes.erase(sizes.begin() + static_cast<long>(best) + 1);
            lengths.erase(lengths.begin() + static_cast<long>(best) + 1);
        }
        groups_ = sizes;
    }

    [[nodiscard]] std::size_t first_word(std::size_t group) const {
        std::size_t n = 0;
        for (std::size_t i = 0; i < group && i < groups_.size(); ++i) n += groups_[i];
        return n;
    }

    Run& run_of(std::size_t from, std::size_t to) {
        Run& run = runs_[{from, to}];
        if (run.height > 0) return run;
        const std::size_t w0 = first_word(from);
        const std::size_t w1 = first_word(to + 1);
        run.stressed =
            std::any_of(wish_.stress.begin(), wish_.stress.end(), [&](std::size_t s) { return s >= w0 && s < w1; });
        run.lone_short = w1 - w0 == 1 && !run.stressed && letters_of(words_[w0]).size() <= 3 && words_.size() > 1;
        run.clings = w1 < words_.size() && leaning().contains(lower(words_[w1 - 1]));
        const Typeface& typeface = run.stressed ? *strong_ : *plain_;
        Text text;
        text.words = text_of(from, to);
        text.arrangement = Arrangement::Level;
        const SetText set = shape_text(text, typeface);
        const Demand d = demand(text, set);
        run.lacks = set.lacks();
        run.width = d.widest;
        // Breaks of a script are closed within words alone, so each word is joined once for all runs it stands in.
        for (std::size_t w = w0; typeface.script && w < w1; ++w) run.width -= joined_shorter(w, typeface);
        run.height = std::max(1e-9, d.tall);
        run.cap = typeface.cap_height;
        return run;
    }

    // Units by which a word grows shorter where the breaks of a script are closed.
    double joined_shorter(std::size_t word, const Typeface& typeface) {
        const auto key = std::pair(word, &typeface);
        if (const auto at = joined_.find(key); at != joined_.end()) return at->second;
        const Joined joined = join_line(shape(typeface, words_[word]), typeface, 0);
        return joined_[key] = joined.shift.empty() ? 0 : -joined.shift.back();
    }

    std::optional<Proposal> judge(const std::vector<Run*>& runs,
                                  const std::vector<std::pair<std::size_t, std::size_t>>& spans) {
        const double gap = wish_.line_gap.value.in_mm();
        const double width = grid_to_mm(room_.usable.width());
        const double height = grid_to_mm(room_.usable.height());
        const std::size_t n = runs.size();
        const double left = height - gap * static_cast<double>(n - 1);
        if (left <= 0) return std::nullopt;
        std::vector<double> widths(n, width);
        std::vector<double> scale(n);
        bool shaped = false;
        if (wish_.to_shape && !room_.free.empty()) {
            Column column;
            for (std::size_t i = 0; i < n; ++i)
                column.lines.push_back({0, runs[i]->width, runs[i]->height, 0, 0, gap, true});
            const auto slots = fit_column(column, room_.usable, room_.free);
            for (std::size_t i = 0; i < n; ++i) {
                scale[i] = slots[i].scale;
                widths[i] = slots[i].scale * runs[i]->width;
            }
            shaped = true;
        } else {
            for (std::size_t i = 0; i < n; ++i) scale[i] = width / runs[i]->width;
        }
        double least_stressed = 0;
        for (std::size_t i = 0; i < n; ++i) {
            const double cap = scale[i] * runs[i]->cap;
            if (runs[i]->stressed) least_stressed = least_stressed == 0 ? cap : std::min(least_stressed, cap);
        }
        std::vector<bool> snug(n, true);
        if (least_stressed > 0) {
            for (std::size_t i = 0; i < n; ++i) {
                const double cap = scale[i] * runs[i]->cap;
                if (runs[i]->stressed || cap <= held_share * least_stressed) continue;
                scale[i] *= held_share * least_stressed / cap;
                snug[i] = false;
            }
        }
        double tall = 0;
        for (std::size_t i = 0; i < n; ++i) tall += scale[i] * runs[i]->height;
        double shrink = 1;
        if (!shaped && tall > left) shrink = left / tall;
        if (scale.front() * shrink <= 0) return std::nullopt;
        Proposal p;
        double widest = 0;
        double smallest_plain = 0;
        double largest_plain = 0;
        double smallest_strong = 0;
        double largest_strong = 0;
        double covered = 0;
        int clings = 0;
        for (std::size_t i = 0; i < n; ++i) {
            scale[i] *= shrink;
            const double cap = scale[i] * runs[i]->cap;
            const double wide = scale[i] * runs[i]->width;
            covered += wide * scale[i] * runs[i]->height;
            widest = std::max(widest, wide / (shaped ? widths[i] : width));
            p.lines.push_back({text_of(spans[i].first, spans[i].second), runs[i]->stressed, snug[i] && shrink > 0.9999,
                               !snug[i], Length::from_mm(cap), Length::from_mm(wide)});
            clings += runs[i]->clings ? 1 : 0;
            double& low = runs[i]->stressed ? smallest_strong : smallest_plain;
            double& high = runs[i]->stressed ? largest_strong : largest_plain;
            low = low == 0 ? cap : std::min(low, cap);
            high = std::max(high, cap);
        }
        p.fill_across = widest;
        p.fill_up = std::min(1.0, (tall * shrink + gap * static_cast<double>(n - 1)) / height);
        const double area = covered / (width * height);
        // Each part counts in the same coin: a tenth of the room is worth a tenth.
        double score = 1 - area;
        if (smallest_plain > 0) score += 0.12 * std::log(largest_plain / smallest_plain);
        if (smallest_strong > 0) score += 0.08 * std::log(largest_strong / smallest_strong);
        if (smallest_plain > 0 && largest_strong > 0) {
            // Stressed words stand out best at about twice the size of the others.
            const double ratio = smallest_strong / largest_plain;
            score += 0.1 * std::abs(std::log(ratio / 1.8));
        }
        score += 0.08 * clings;
        p.score = score;
        say_why(p, largest_strong, largest_plain, clings);
        return p;
    }

    void say_why(Proposal& p, double strong, double plain, int clings) const {
        const auto snug = std::count_if(p.lines.begin(), p.lines.end(), [](const ComposedLine& l) { return l.snug; });
        p.why.push_back(
            {"compose.lines",
             {{"lines", static_cast<std::int64_t>(p.lines.size())}, {"snug", static_cast<std::int64_t>(snug)}}});
        p.why.push_back({"compose.fills", {{"across", Percent{p.fill_across}}, {"up", Percent{p.fill_up}}}});
        if (strong > 0 && plain > 0)
            p.why.push_back({"compose.stress", {{"times", std::round(strong / plain * 10) / 10}}});
        if (clings > 0) p.why.push_back({"compose.clings", {{"lines", std::int64_t{clings}}}});
    }

    const ComposeWish& wish_;
    const LetteringRoom& room_;
    const Typeface *plain_, *strong_;
    std::vector<std::string> words_;
    std::vector<std::size_t> groups_;  // how many words each takes
    std::map<std::pair<std::size_t, std::size_t>, Run> runs_;
    std::map<std::pair<std::size_t, const Typeface*>, double> joined_;
};

}  // namespace

std::vector<std::string> words_of(const std::string& saying) {
    std::vector<std::string> words;
    std::string word;
    for (const char c : saying + " ") {
        if (c != ' ' && c != '\n' && c != '\t' && c != '\r') {
            word += c;
        } else if (!word.empty()) {
            words.push_back(std::move(word));
            word.clear();
        }
    }
    return words;
}

std::optional<Proposal> compose_as(const ComposeWish& wish, const std::vector<bool>& ends, const LetteringRoom& room,
                                   const std::vector<Typeface>& typefaces) {
    Composer composer(wish, room, typefaces);
    if (!composer.ready() || composer.units() > most_words) return std::nullopt;
    unsigned long mask = 0;
    for (std::size_t i = 0; i + 1 < composer.units() && i < ends.size(); ++i) mask |= ends[i] ? 1UL << i : 0UL;
    return composer.with(mask);
}

Proposals compose(const ComposeWish& wish, const LetteringRoom& room, const std::vector<Typeface>& typefaces,
                  std::size_t how_many) {
    Proposals out;
    Composer composer(wish, room, typefaces);
    if (!composer.ready()) {
        out.problems.push_back(
            {{"lettering.no-words", {}}, Station::Lettering, {"lettering.type-words", {}}, Mark::Look});
        return out;
    }
    // Following a shape costs more for each way, so fewer are kept in play there: the rectangle picks them.
    std::vector<std::pair<Proposal, unsigned long>> all;
    const unsigned long ways = 1UL << (composer.units() - 1);
    ComposeWish level = wish;
    level.to_shape = false;
    Composer quick(level, room, typefaces);
    for (unsigned long mask = 0; mask < ways; ++mask) {
        ++out.tried;
        if (auto p = quick.with(mask)) all.emplace_back(std::move(*p), mask);
    }
    const auto better = [](const auto& a, const auto& b) {
        return a.first.score != b.first.score ? a.first.score < b.first.score : a.second < b.second;
    };
    std::sort(all.begin(), all.end(), better);
    if (wish.to_shape) {
        constexpr std::size_t shaped = 40;
        if (all.size() > shaped) all.resize(shaped);
        std::vector<std::pair<Proposal, unsigned long>> fitted;
        for (const auto& [p, mask] : all) {
            if (auto q = composer.with(mask)) fitted.emplace_back(std::move(*q), mask);
        }
        std::sort(fitted.begin(), fitted.end(), better);
        all = std::move(fitted);
    }
    // The best first, then the best of every other number of lines, then what comes next.
    std::set<std::size_t> counts;
    std::vector<bool> taken(all.size());
    for (int round = 0; round < 2 && out.best.size() < how_many; ++round) {
        for (std::size_t i = 0; i < all.size() && out.best.size() < how_many; ++i) {
            if (taken[i]) continue;
            const bool fresh = counts.insert(all[i].first.lines.size()).second;
            if (!fresh && round == 0) continue;
            taken[i] = true;
            out.best.push_back(all[i].first);
        }
    }
    std::stable_sort(out.best.begin(), out.best.end(),
                     [](const Proposal& a, const Proposal& b) { return a.score < b.score; });
    if (out.best.empty())
        out.problems.push_back({{"compose.none", {}}, Station::Lettering, {"compose.none-remedy", {}}, Mark::Look});
    return out;
}

std::vector<Text> texts_of(const Proposal& proposal, const ComposeWish& wish, const Text& like) {
    std::vector<Text> texts;
    for (const ComposedLine& line : proposal.lines) {
        Text t = like;
        t.id = texts.empty() ? like.id : unused_text_id({texts, false});
        t.words = line.words;
        t.arrangement = Arrangement::Level;
        t.typeface = line.stressed ? wish.stressed : wish.plain;
        t.letter_gap = Measure{"0 in", {}};
        t.line_gap = wish.line_gap;
        t.slope_tenths = 0;
        t.nudges.clear();
        t.across.reset();
        t.up.reset();
        t.width_percent = 100;
        t.alternates.clear();
        t.to_shape = wish.to_shape;
        // What is snug goes on filling the room; beside held lines, which keep their size, only lines as wide as the
        // room can stay so.
        const bool any_held =
            std::any_of(proposal.lines.begin(), proposal.lines.end(), [](const ComposedLine& l) { return l.held; });
        t.sizing = !any_held || line.snug ? Sizing::Snug : Sizing::CapHeight;
        if (t.sizing == Sizing::CapHeight) {
            const Length step = Length::sixtyfourths(1);
            t.size = measure_of(step * (line.cap_height.nm() / step.nm()), {Unit::Inch, 64});
        }
        texts.push_back(std::move(t));
    }
    return texts;
}

}  // namespace skarvel
