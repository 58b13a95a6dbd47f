#include "lettering/compose.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>
#include <tuple>

#include "lettering/column.h"
#include "lettering/setting.h"
#include "values/searches.h"

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

using Span = std::pair<std::size_t, std::size_t>;  // first and last group of a line

constexpr double least_fill = 0.9;    // of the side of the room that is reached first
constexpr double half = 0.5;          // of its fellows: a smaller line looks like a mistake
constexpr double out_of_bounds = 10;  // far above all that a proposal can gain otherwise
constexpr double near_best = 0.03;    // so much worse than the best of as many lines may take its place
constexpr double far_best = 0.25;     // so much worse than the best of all is of no use
constexpr long most_steps = searches::composing_steps.most;

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
        runs_.resize(groups_.size() * groups_.size());
    }

    [[nodiscard]] std::size_t units() const { return groups_.size(); }
    [[nodiscard]] bool ready() const { return plain_ != nullptr && !words_.empty() && !room_.usable.empty(); }
    [[nodiscard]] double width() const { return grid_to_mm(room_.usable.width()); }
    [[nodiscard]] double height() const { return grid_to_mm(room_.usable.height()); }
    [[nodiscard]] double gap() const { return wish_.line_gap.value.in_mm(); }
    // What an outline that is grown adds to a line, which does not scale.
    [[nodiscard]] double grown() const {
        return wish_.like.bolder ? 2 * std::max(0.0, wish_.like.bolder->value.in_mm()) : 0;
    }

    // `mask` has a bit for each place between two groups where a line ends.
    std::optional<Proposal> with(unsigned long mask) {
        std::vector<const Run*> runs;
        std::vector<Span> spans;
        std::size_t from = 0;
        for (std::size_t i = 0; i < groups_.size(); ++i) {
            const bool ends = i + 1 == groups_.size() || ((mask >> i) & 1U) != 0;
            if (!ends) continue;
            const Run& run = run_of(from, i);
            if (!allowed(run)) return std::nullopt;
            runs.push_back(&run);
            spans.emplace_back(from, i);
            from = i + 1;
        }
        const auto judged = judge(runs, wish_.to_shape && !room_.free.empty());
        return judged ? std::optional(proposed(*judged, runs, spans)) : std::nullopt;
    }

    [[nodiscard]] static bool allowed(const Run& run) { return !run.lone_short && !run.lacks && run.width > 0; }

    // A line as wide as the room.
    [[nodiscard]] double widest_cap(const Run& run) const { return (width() - grown()) / run.width * run.cap; }

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

  public:
    const Run& run_of(std::size_t from, std::size_t to) {
        Run& run = runs_[from * groups_.size() + to];
        if (run.height > 0) return run;
        const std::size_t w0 = first_word(from);
        const std::size_t w1 = first_word(to + 1);
        run.stressed =
            std::any_of(wish_.stress.begin(), wish_.stress.end(), [&](std::size_t s) { return s >= w0 && s < w1; });
        run.lone_short = w1 - w0 == 1 && !run.stressed && letters_of(words_[w0]).size() <= 3 && words_.size() > 1;
        run.clings = w1 < words_.size() && leaning().contains(lower(words_[w1 - 1]));
        const Typeface& typeface = run.stressed ? *strong_ : *plain_;
        const std::vector<Word>& inked = words_in(typeface);
        Word all;
        for (std::size_t w = w0; w < w1; ++w) {
            all.ink = around(all.ink, inked[w].ink);
            run.lacks = run.lacks || inked[w].lacks;
        }
        run.width = all.ink.x1 - all.ink.x0;
        // Breaks of a script are closed within words alone, so each word is joined once for all runs it stands in.
        for (std::size_t w = w0; typeface.script() && w < w1; ++w) run.width -= joined_shorter(w, typeface);
        run.height = std::max(1e-9, all.ink.y1 - all.ink.y0);
        run.cap = typeface.cap_height;
        return run;
    }

    struct Word {
        Extent ink;  // on the line that holds the whole saying, units
        bool lacks = false;
    };
    static Extent around(const Extent& a, const Extent& b) {
        if (a.empty()) return b;
        if (b.empty()) return a;
        return {std::min(a.x0, b.x0), std::min(a.y0, b.y0), std::max(a.x1, b.x1), std::max(a.y1, b.y1)};
    }

    // The saying is set once on one line: a run of its words is as wide there as by itself.
    const std::vector<Word>& words_in(const Typeface& typeface) {
        std::vector<Word>& words = inked_[&typeface];
        if (!words.empty()) return words;
        words.resize(words_.size());
        double x = 0;
        for (std::size_t w = 0; w < words_.size(); ++w) {
            double end = x;
            for (const ShapedLetter& letter : shape(typeface, words_[w] + " ", wish_.like.alternates)) {
                words[w].lacks = words[w].lacks || letter.missing;
                end = x + letter.x + letter.advance;
                if (letter.missing || letter.blank) continue;
                Extent e = extent_of(letter.outline);
                if (e.empty()) continue;
                e.x0 += x + letter.x;
                e.x1 += x + letter.x;
                words[w].ink = around(words[w].ink, e);
            }
            x = end;
        }
        return words;
    }

    // Units by which a word grows shorter where the breaks of a script are closed.
    double joined_shorter(std::size_t word, const Typeface& typeface) {
        const auto key = std::pair(word, &typeface);
        if (const auto at = joined_.find(key); at != joined_.end()) return at->second;
        const Joined joined = join_line(shape(typeface, words_[word]), typeface, 0);
        return joined_[key] = joined.shift.empty() ? 0 : -joined.shift.back();
    }

    struct Judged {
        std::vector<double> scale, widths;  // mm for one unit; mm that a line could be wide
        std::vector<bool> held, small;
        double tall = 0;  // mm, without gaps
        bool shrunk = false;
        double score = 0;
        double strong = 0, plain = 0;  // the largest caps, mm
        int clings = 0;
    };

    std::optional<Judged> judge(const std::vector<const Run*>& runs, bool shaped) const {
        const std::size_t n = runs.size();
        const double left = height() - gap() * static_cast<double>(n - 1) - grown() * static_cast<double>(n);
        if (left <= 0 || width() <= grown()) return std::nullopt;
        Judged j;
        j.widths.assign(n, width());
        j.scale.resize(n);
        j.held.assign(n, false);
        j.small.assign(n, false);
        if (shaped) {
            Column column;
            for (std::size_t i = 0; i < n; ++i)
                column.lines.push_back({0, runs[i]->width, runs[i]->height, grown(), grown(), gap(), true});
            const auto slots = fit_column(column, room_.usable, room_.free);
            for (std::size_t i = 0; i < n; ++i) {
                j.scale[i] = slots[i].scale;
                j.widths[i] = slots[i].scale * runs[i]->width + grown();
            }
        } else {
            for (std::size_t i = 0; i < n; ++i) j.scale[i] = (width() - grown()) / runs[i]->width;
        }
        double least_stressed = 0;
        for (std::size_t i = 0; i < n; ++i) {
            const double cap = j.scale[i] * runs[i]->cap;
            if (cap <= 0) return std::nullopt;
            if (runs[i]->stressed) least_stressed = least_stressed == 0 ? cap : std::min(least_stressed, cap);
        }
        for (std::size_t i = 0; i < n && least_stressed > 0; ++i) {
            const double cap = j.scale[i] * runs[i]->cap;
            if (runs[i]->stressed || cap <= held_share * least_stressed) continue;
            j.scale[i] *= held_share * least_stressed / cap;
            j.held[i] = true;
        }
        for (std::size_t i = 0; i < n; ++i) j.tall += j.scale[i] * runs[i]->height;
        if (!shaped && j.tall > left) {
            for (double& scale : j.scale) scale *= left / j.tall;
            j.tall = left;
            j.shrunk = true;
        }
        mark(j, runs);
        return j;
    }

    // Each part counts in the same coin: a tenth of the room is worth a tenth.
    void mark(Judged& j, const std::vector<const Run*>& runs) const {
        double covered = 0, least_plain = 0, least_strong = 0;
        for (std::size_t i = 0; i < runs.size(); ++i) {
            const double cap = j.scale[i] * runs[i]->cap;
            covered += (j.scale[i] * runs[i]->width + grown()) * (j.scale[i] * runs[i]->height + grown());
            j.clings += runs[i]->clings ? 1 : 0;
            double& low = runs[i]->stressed ? least_strong : least_plain;
            double& high = runs[i]->stressed ? j.strong : j.plain;
            low = low == 0 ? cap : std::min(low, cap);
            high = std::max(high, cap);
        }
        j.score = 1 - covered / (width() * height());
        if (least_plain > 0) j.score += 0.12 * std::log(j.plain / least_plain);
        if (least_strong > 0) j.score += 0.08 * std::log(j.strong / least_strong);
        // Stressed words stand out best at about twice the size of the others.
        if (least_plain > 0 && j.strong > 0) j.score += 0.1 * std::abs(std::log(least_strong / j.plain / 1.8));
        j.score += 0.08 * j.clings;
        for (std::size_t i = 0; i < runs.size(); ++i) {
            const double cap = j.scale[i] * runs[i]->cap;
            const double fellows = runs[i]->stressed ? j.strong : j.plain;
            if (cap >= half * fellows && cap >= least_cap.in_mm()) continue;
            j.small[i] = true;
            j.score += out_of_bounds;
        }
    }

    Proposal proposed(const Judged& j, const std::vector<const Run*>& runs, const std::vector<Span>& spans) const {
        Proposal p;
        for (std::size_t i = 0; i < runs.size(); ++i) {
            const double wide = j.scale[i] * runs[i]->width + grown();
            p.fill_across = std::max(p.fill_across, wide / j.widths[i]);
            p.lines.push_back({text_of(spans[i].first, spans[i].second), runs[i]->stressed, !j.held[i] && !j.shrunk,
                               j.held[i], j.small[i], Length::from_mm(j.scale[i] * runs[i]->cap),
                               Length::from_mm(wide)});
        }
        const auto n = static_cast<double>(runs.size());
        p.fill_up = std::min(1.0, (j.tall + grown() * n + gap() * (n - 1)) / height());
        p.score = j.score;
        say_why(p, j.strong, j.plain, j.clings);
        return p;
    }

  private:
    void say_why(Proposal& p, double strong, double plain, int clings) const {
        const auto snug = std::count_if(p.lines.begin(), p.lines.end(), [](const ComposedLine& l) { return l.snug; });
        p.why.push_back(
            {"compose.lines",
             {{"lines", static_cast<std::int64_t>(p.lines.size())}, {"snug", static_cast<std::int64_t>(snug)}}});
        p.why.push_back({"compose.fills", {{"across", Percent{p.fill_across}}, {"up", Percent{p.fill_up}}}});
        if (strong > 0 && plain > 0)
            p.why.push_back({"compose.stress", {{"times", std::round(strong / plain * 10) / 10}}});
        if (clings > 0) p.why.push_back({"compose.clings", {{"lines", std::int64_t{clings}}}});
        for (const ComposedLine& l : p.lines) {
            if (l.small) p.why.push_back({"compose.small", {{"line", l.words}, {"cap", l.cap_height}}});
        }
    }

    const ComposeWish& wish_;
    const LetteringRoom& room_;
    const Typeface *plain_, *strong_;
    std::vector<std::string> words_;
    std::vector<std::size_t> groups_;  // how many words each takes
    std::vector<Run> runs_;            // by first group and last
    std::map<std::pair<std::size_t, const Typeface*>, double> joined_;
    std::map<const Typeface*, std::vector<Word>> inked_;
};

// The best ways to break a saying into each number of lines.
class Breaks {
  public:
    // With `bounds`, only lines that keep them; otherwise all.
    Breaks(Composer& composer, bool bounds) : composer_(composer), bounds_(bounds), n_(composer.units()) {}

    struct Found {
        double score = 0;
        unsigned long mask = 0;
        bool operator<(const Found& other) const { return std::tie(score, mask) < std::tie(other.score, other.mask); }
    };

    std::vector<Found> all() {
        kept_.resize(n_ + 1);
        best_.assign(n_ + 1, std::nullopt);
        if (bounds_) find_good_ones();
        bool any_stressed = false;
        std::vector<Span> stressed;
        for (std::size_t a = 0; a < n_; ++a) {
            for (std::size_t b = a; b < n_; ++b) {
                const Run& run = composer_.run_of(a, b);
                any_stressed = any_stressed || run.stressed;
                if (run.stressed && Composer::allowed(run)) stressed.emplace_back(a, b);
            }
        }
        if (!any_stressed) begin();
        // The shortest first: good proposals come early, and those that cannot come near them are not followed.
        std::stable_sort(stressed.begin(), stressed.end(), [&](const Span& a, const Span& b) {
            return composer_.run_of(a.first, a.second).width < composer_.run_of(b.first, b.second).width;
        });
        for (const Span& span : stressed) {
            smallest_ = span;
            strong_cap_ = composer_.widest_cap(composer_.run_of(span.first, span.second));
            begin();
        }
        std::vector<Found> out;
        for (const auto& found : kept_) out.insert(out.end(), found.begin(), found.end());
        std::sort(out.begin(), out.end());
        return out;
    }
    [[nodiscard]] long tried() const { return tried_; }
    [[nodiscard]] bool whole() const { return steps_ < most_steps; }

  private:
    struct Seen {
        double least_plain = 0, most_plain = 0, most_strong = 0, tall = 0, least = 0;
        double beside = 0, covers = 0;  // sq mm beside lines and on them
        int clings = 0;
    };
    struct Rest {
        double tall = 1e30, beside = 1e30;  // at least
        double tallest = 0, covers = 0;     // at most; sq mm before all are shrunk
    };

    // The score of a way and how many lines it has; nothing where it is not allowed.
    std::optional<std::pair<double, std::size_t>> score_of(unsigned long mask) {
        runs_.clear();
        std::size_t from = 0;
        for (std::size_t i = 0; i < n_; ++i) {
            if (i + 1 < n_ && ((mask >> i) & 1U) == 0) continue;
            const Run& run = composer_.run_of(from, i);
            if (!Composer::allowed(run)) return std::nullopt;
            runs_.push_back(&run);
            from = i + 1;
        }
        const auto judged = composer_.judge(runs_, false);
        return judged ? std::optional(std::pair(judged->score, runs_.size())) : std::nullopt;
    }

    // From lines of much the same length, one break moved on or back as long as that helps: what the search has to
    // beat.
    void find_good_ones() {
        for (std::size_t lines = 1; lines <= n_; ++lines) {
            const double each = composer_.run_of(0, n_ - 1).width / static_cast<double>(lines);
            unsigned long mask = 0;
            for (std::size_t from = 0, to = 0; to + 1 < n_; ++to) {
                if (composer_.run_of(from, to).width < each * 0.9) continue;
                mask |= 1UL << to;
                from = to + 1;
            }
            auto score = score_of(mask);
            for (bool better = true; better;) {
                better = false;
                for (std::size_t i = 0; i + 2 < n_; ++i) {
                    const unsigned long pair = 3UL << i;
                    if ((mask & pair) == pair || (mask & pair) == 0) continue;
                    const auto other = score_of(mask ^ pair);
                    if (!other || (score && other->first >= score->first)) continue;
                    mask ^= pair;
                    score = other;
                    better = true;
                }
            }
            if (score && score->first < out_of_bounds) lower(score->second, score->first);
        }
    }
    void lower(std::size_t lines, double score) {
        for (const std::size_t i : {std::size_t{0}, lines}) best_[i] = std::min(best_[i].value_or(score), score);
    }

    void begin() {
        least_rest();
        for (lines_ = 1; lines_ <= n_; ++lines_) {
            if (rest_[lines_][0].tall > 1e29) continue;
            runs_.clear();
            step(0, 0, {});
        }
    }

    // The lines that may begin at a group: up to the smallest stressed one, and then that.
    [[nodiscard]] Span ends_of(std::size_t from) const {
        if (smallest_ && from == smallest_->first) return {smallest_->second, smallest_->second};
        if (smallest_ && from < smallest_->first) return {from, smallest_->first - 1};
        return {from, n_ - 1};
    }

    // What so many lines from each group on take at least, in height and in what stays free beside them.
    void least_rest() {
        rest_.assign(n_ + 1, std::vector<Rest>(n_ + 1));
        rest_[0][n_] = {0, 0, 0, 0};
        for (std::size_t from = n_; from-- > 0;) {
            const auto [first, last] = ends_of(from);
            for (std::size_t to = first; to <= last; ++to) {
                const Run& run = composer_.run_of(from, to);
                Seen one;
                if (!Composer::allowed(run) || !take(run, from, one)) continue;
                for (std::size_t lines = 1; lines + from <= n_; ++lines) {
                    const Rest& after = rest_[lines - 1][to + 1];
                    Rest& here = rest_[lines][from];
                    here.tall = std::min(here.tall, one.tall + after.tall);
                    here.beside = std::min(here.beside, one.beside + after.beside);
                    if (after.tall < 1e29) {
                        here.tallest = std::max(here.tallest, one.tall + after.tallest);
                        here.covers = std::max(here.covers, one.covers + after.covers);
                    }
                }
            }
        }
    }

    // A line from group `from` on, after what was `seen`.
    void step(std::size_t from, unsigned long mask, const Seen& seen) {
        if (++steps_ >= most_steps) return;
        if (from == n_) return leaf(mask);
        const auto [first, last] = ends_of(from);
        for (std::size_t to = first; to <= last; ++to) {
            const Run& run = composer_.run_of(from, to);
            Seen now = seen;
            if (!Composer::allowed(run) || !take(run, from, now)) continue;
            runs_.push_back(&run);
            if (fits(now, to + 1)) step(to + 1, to + 1 < n_ ? mask | (1UL << to) : mask, now);
            runs_.pop_back();
        }
    }

    // False where no way goes on from here.
    bool take(const Run& run, std::size_t from, Seen& seen) const {
        double cap = composer_.widest_cap(run);
        if (run.stressed) {
            // The first of several that are equally small is the smallest one.
            if (cap < strong_cap_ || (cap == strong_cap_ && from < smallest_->first)) return false;
            seen.most_strong = std::max(seen.most_strong, cap);
        } else {
            if (smallest_) cap = std::min(cap, held_share * strong_cap_);
            seen.least_plain = seen.least_plain == 0 ? cap : std::min(seen.least_plain, cap);
            seen.most_plain = std::max(seen.most_plain, cap);
        }
        const double scale = cap / run.cap;
        seen.tall += scale * run.height;
        seen.beside += scale * run.height * (composer_.width() - composer_.grown() - scale * run.width);
        seen.covers += scale * run.height * scale * run.width;
        seen.clings += run.clings ? 1 : 0;
        seen.least = seen.least == 0 ? cap : std::min(seen.least, cap);
        return true;
    }

    [[nodiscard]] bool fits(const Seen& seen, std::size_t next) const {
        const Rest& rest = rest_[lines_ - runs_.size()][next];
        if (runs_.size() > lines_ || rest.tall > 1e29) return false;
        const auto n = static_cast<double>(lines_);
        const double left = composer_.height() - composer_.gap() * (n - 1) - composer_.grown() * n;
        if (left <= 0) return false;
        if (!bounds_) return true;
        if (seen.least_plain < half * seen.most_plain ||
            (seen.most_strong > 0 && strong_cap_ < half * seen.most_strong))
            return false;
        const double tall = seen.tall + rest.tall;
        return seen.least * std::min(1.0, left / tall) >= least_cap.in_mm() &&
               !hopeless(seen, {tall, seen.beside + rest.beside, seen.tall + rest.tallest, seen.covers + rest.covers},
                         left);
    }

    // Whether no way that goes on from here comes near the best of so many lines: what lies beside them stays free,
    // unless all are shrunk, which frees no less.
    [[nodiscard]] bool hopeless(const Seen& seen, const Rest& all, double left) const {
        if (!best_[0]) return false;
        const double wide = composer_.width();
        const auto covered = [&](double high) {
            const double shrink = std::min(1.0, left / high);
            return shrink * shrink * std::max(0.0, wide * high - all.beside);
        };
        const auto within = [&](double high) { return std::clamp(high, all.tall, std::max(all.tall, all.tallest)); };
        const double most = std::min(
            all.covers, std::max(covered(within(left)), covered(within(std::max(left, 2 * all.beside / wide)))));
        // What an outline that is grown covers beside and between lines is taken as covered.
        const double outline = composer_.grown() * static_cast<double>(lines_) * (wide + composer_.height());
        double score = 1 - std::min(1.0, (most + outline) / (wide * composer_.height())) + 0.08 * seen.clings;
        if (seen.least_plain > 0) score += 0.12 * std::log(seen.most_plain / seen.least_plain);
        if (seen.most_strong > 0) score += 0.08 * std::log(seen.most_strong / strong_cap_);
        if (smallest_ && seen.most_plain > 0)
            score += 0.1 * std::max(0.0, std::log(1.8 * seen.most_plain / strong_cap_));
        return score > std::min(*best_[0] + far_best, best_[lines_].value_or(out_of_bounds) + near_best);
    }

    void leaf(unsigned long mask) {
        ++tried_;
        const auto judged = composer_.judge(runs_, false);
        if (!judged) return;
        lower(lines_, judged->score);
        constexpr std::size_t of_each = 24;
        std::set<Found>& found = kept_[lines_];
        found.insert({judged->score, mask});
        if (found.size() > of_each) found.erase(std::prev(found.end()));
    }

    Composer& composer_;
    bool bounds_;
    std::size_t n_, lines_ = 0;
    std::optional<Span> smallest_;  // of the stressed lines
    double strong_cap_ = 0;
    std::vector<const Run*> runs_;
    std::vector<std::vector<Rest>> rest_;      // by number of lines and first group
    std::vector<std::set<Found>> kept_;        // by number of lines
    std::vector<std::optional<double>> best_;  // likewise; that of all at 0
    long steps_ = 0, tried_ = 0;
};

// What becomes of a proposal when it is taken: it fits, fills the room, and its stressed words are the largest.
bool comes_out(const Proposal& p, const ComposeWish& wish, const LetteringRoom& room,
               const std::vector<Typeface>& typefaces) {
    const LetteringPlan placed = place(Lettering{texts_of(p, wish), false}, room, typefaces);
    if (placed.letters.empty() || placed.texts.size() != p.lines.size()) return false;
    for (const Problem& problem : placed.problems) {
        if (problem.mark == Mark::Stop || problem.what.id == "lettering.in-margin" ||
            problem.what.id == "lettering.enters-zone")
            return false;
    }
    Length least_strong, most_strong, plain;
    for (std::size_t i = 0; i < p.lines.size(); ++i) {
        const Length cap = placed.texts[i].cap_height;
        if (p.lines[i].stressed) {
            least_strong = least_strong == Length{} ? cap : std::min(least_strong, cap);
            most_strong = std::max(most_strong, cap);
        } else {
            plain = std::max(plain, cap);
        }
    }
    for (std::size_t i = 0; i < p.lines.size(); ++i) {
        constexpr double rounding = 0.99;
        const double cap = placed.texts[i].cap_height.in_mm();
        const double fellows = (p.lines[i].stressed ? most_strong : plain).in_mm();
        if (!p.lines[i].small && cap < rounding * std::max(half * fellows, least_cap.in_mm())) return false;
    }
    const double across = static_cast<double>(placed.ink.width()) / static_cast<double>(room.usable.width());
    const double up = static_cast<double>(placed.ink.height()) / static_cast<double>(room.usable.height());
    return std::max(across, up) >= least_fill && (least_strong == Length{} || plain <= least_strong);
}

// Of what was found, the best first, then the best of every other number of lines, then what comes next.
void pick(Proposals& out, const std::vector<Breaks::Found>& found, Composer& composer, const ComposeWish& wish,
          const LetteringRoom& room, const std::vector<Typeface>& typefaces, std::size_t how_many) {
    // Following a shape costs more for each way, so fewer are kept in play there: the rectangle picks them.
    constexpr std::size_t shaped = 60;
    std::vector<std::pair<Proposal, unsigned long>> all;
    for (const Breaks::Found& f : found) {
        if (auto p = composer.with(f.mask)) all.emplace_back(std::move(*p), f.mask);
        if (wish.to_shape && all.size() == shaped) break;
    }
    std::sort(all.begin(), all.end(), [](const auto& a, const auto& b) {
        return a.first.score != b.first.score ? a.first.score < b.first.score : a.second < b.second;
    });
    std::set<std::size_t> counts;
    std::set<std::string> there;
    const auto broken = [](const Proposal& p) {
        std::string all_lines;
        for (const ComposedLine& l : p.lines) all_lines += l.words + "\n";
        return all_lines;
    };
    for (const Proposal& p : out.best) {
        counts.insert(p.lines.size());
        there.insert(broken(p));
    }
    std::vector<bool> looked_at(all.size());
    constexpr int most_set = searches::proposals_set.most;
    int set = 0;
    for (int round = 0; round < 2 && out.best.size() < how_many; ++round) {
        for (std::size_t i = 0; i < all.size() && out.best.size() < how_many && set < most_set; ++i) {
            if (looked_at[i] || (round == 0 && counts.contains(all[i].first.lines.size()))) continue;
            looked_at[i] = true;
            if (there.contains(broken(all[i].first))) continue;
            ++set;
            if (!comes_out(all[i].first, wish, room, typefaces)) continue;
            counts.insert(all[i].first.lines.size());
            out.best.push_back(all[i].first);
        }
    }
}

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
    ComposeWish level = wish;
    level.to_shape = false;
    Composer quick(level, room, typefaces);
    // Where too few ways keep the bounds, the others are offered after them, and say what is small.
    constexpr std::size_t enough = searches::proposals_enough.most;
    for (const bool bounds : {true, false}) {
        if (out.best.size() >= enough) break;
        Breaks breaks(quick, bounds);
        const bool first = out.best.empty();
        pick(out, breaks.all(), composer, wish, room, typefaces, how_many);
        out.tried += breaks.tried();
        if (first) out.all_tried = breaks.whole();
    }
    std::stable_sort(out.best.begin(), out.best.end(),
                     [](const Proposal& a, const Proposal& b) { return a.score < b.score; });
    if (out.best.empty())
        out.problems.push_back({{"compose.none", {}}, Station::Lettering, {"compose.none-remedy", {}}, Mark::Look});
    return out;
}

std::vector<Text> texts_of(const Proposal& proposal, const ComposeWish& wish) {
    std::vector<Text> texts;
    for (const ComposedLine& line : proposal.lines) {
        Text t = wish.like;
        t.id = texts.empty() ? t.id : unused_text_id({texts, false});
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
