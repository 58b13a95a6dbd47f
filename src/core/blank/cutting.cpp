#include "blank/cutting.h"

#include <glpk.h>

#include "values/searches.h"
#include "values/stop.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <memory>
#include <numeric>

namespace skarvel {
namespace {

constexpr std::size_t most_patterns = searches::patterns_of_sawing.most;
constexpr int most_boards = searches::boards_sawn.most;

struct Pattern {
    std::size_t board;  // place in the stock
    std::vector<int> times;
};

Length used_by(const std::vector<int>& times, const std::vector<Wanted>& wanted, Length kerf) {
    Length used;
    for (std::size_t i = 0; i < times.size(); ++i) used += (wanted[i].length + kerf) * times[i];
    return used;
}

// Fullest patterns only: one to which another piece could be added saws nothing that a fuller one does not.
std::optional<std::vector<Pattern>> patterns_of(const std::vector<Wanted>& wanted, const std::vector<Length>& stock,
                                                Length kerf) {
    std::vector<Pattern> all;
    Length shortest = wanted.front().length;
    for (const Wanted& w : wanted) shortest = std::min(shortest, w.length);
    for (std::size_t board = 0; board < stock.size(); ++board) {
        std::vector<int> times(wanted.size());
        // The last piece needs no cut behind it: one kerf is given back.
        const std::function<bool(std::size_t, Length)> fill = [&](std::size_t i, Length left) {
            if (all.size() > most_patterns) return false;
            if (i == wanted.size()) {
                bool full = true;
                for (std::size_t k = 0; k < wanted.size() && full; ++k)
                    full = times[k] >= wanted[k].count || wanted[k].length + kerf > left;
                if (full && std::any_of(times.begin(), times.end(), [](int n) { return n > 0; }))
                    all.push_back({board, times});
                return true;
            }
            const Length each = wanted[i].length + kerf;
            const auto most = static_cast<int>(std::min<std::int64_t>(wanted[i].count, left.nm() / each.nm()));
            for (int n = most; n >= 0; --n) {
                times[i] = n;
                if (!fill(i + 1, left - each * n)) return false;
            }
            times[i] = 0;
            return true;
        };
        if (!fill(0, stock[board] + kerf)) return std::nullopt;
    }
    return all;
}

// The package keeps memory for each thread that it works on. It is given back: threads come and go.
struct Environment {
    Environment() { glp_term_out(GLP_OFF); }
    Environment(const Environment&) = delete;
    Environment& operator=(const Environment&) = delete;
    ~Environment() { glp_free_env(); }
};

struct Program {
    Environment environment;  // goes last
    std::unique_ptr<glp_prob, decltype(&glp_delete_prob)> lp{glp_create_prob(), glp_delete_prob};
};

struct Bound {
    double least = 0;
    bool reached = false;
    int steps = 0;
};
constexpr int most_steps = searches::sawing_branches.most;

// Ends the search when a plan meets what no plan can beat, or after a counted number of steps.
void stop_when_met(glp_tree* tree, void* info) {
    auto& bound = *static_cast<Bound*>(info);
    // Nothing may be thrown through the library: it is ended, and the work after it looks again.
    if (stop_asked()) return glp_ios_terminate(tree);
    if (glp_ios_reason(tree) == GLP_ISELECT && ++bound.steps > most_steps) return glp_ios_terminate(tree);
    if (glp_ios_reason(tree) != GLP_IBINGO) return;
    if (glp_mip_obj_val(glp_ios_get_prob(tree)) <= bound.least + 1e-6) {
        bound.reached = true;
        glp_ios_terminate(tree);
    }
}

// How often each pattern is sawn; `boards` fixes how many there are, and the cost is then their length.
std::optional<std::vector<int>> solve(const std::vector<Pattern>& patterns, const std::vector<Wanted>& wanted,
                                      const std::vector<Length>& stock, std::optional<int> boards, double& bound) {
    const Program program;
    glp_prob* lp = program.lp.get();
    glp_set_obj_dir(lp, GLP_MIN);
    const int rows = static_cast<int>(wanted.size()) + (boards ? 1 : 0);
    glp_add_rows(lp, rows);
    for (std::size_t i = 0; i < wanted.size(); ++i)
        glp_set_row_bnds(lp, static_cast<int>(i) + 1, GLP_LO, wanted[i].count, 0);
    if (boards) glp_set_row_bnds(lp, rows, GLP_FX, *boards, *boards);
    glp_add_cols(lp, static_cast<int>(patterns.size()));
    for (std::size_t j = 0; j < patterns.size(); ++j) {
        const int column = static_cast<int>(j) + 1;
        glp_set_col_kind(lp, column, GLP_IV);
        glp_set_col_bnds(lp, column, GLP_LO, 0, 0);
        glp_set_obj_coef(lp, column, boards ? stock[patterns[j].board].in_inches() : 1);
        std::vector<int> at{0};
        std::vector<double> value{0};
        for (std::size_t i = 0; i < wanted.size(); ++i) {
            if (patterns[j].times[i] == 0) continue;
            at.push_back(static_cast<int>(i) + 1);
            value.push_back(patterns[j].times[i]);
        }
        if (boards) {
            at.push_back(rows);
            value.push_back(1);
        }
        glp_set_mat_col(lp, column, static_cast<int>(at.size()) - 1, at.data(), value.data());
    }
    glp_smcp simplex;
    glp_init_smcp(&simplex);
    simplex.msg_lev = GLP_MSG_OFF;
    if (glp_simplex(lp, &simplex) != 0 || glp_get_status(lp) != GLP_OPT) return std::nullopt;
    Bound met{boards ? glp_get_obj_val(lp) : std::ceil(glp_get_obj_val(lp) - 1e-6), false, 0};
    bound = met.least;
    glp_iocp integer;
    glp_init_iocp(&integer);
    integer.msg_lev = GLP_MSG_OFF;
    integer.fp_heur = GLP_ON;
    integer.cb_func = stop_when_met;
    integer.cb_info = &met;
    glp_intopt(lp, &integer);
    look_for_stop();
    const int status = glp_mip_status(lp);
    if (status != GLP_OPT && status != GLP_FEAS) return std::nullopt;
    std::vector<int> times;
    times.reserve(patterns.size());
    for (std::size_t j = 0; j < patterns.size(); ++j)
        times.push_back(static_cast<int>(std::lround(glp_mip_col_val(lp, static_cast<int>(j) + 1))));
    if (status == GLP_OPT && !met.reached) bound = std::ceil(glp_mip_obj_val(lp) - 1e-6);
    return times;
}

// Patterns may saw more than is wanted: what is too much is left on the board.
void write_down(CuttingPlan& plan, const std::vector<Pattern>& patterns, const std::vector<int>& times,
                const std::vector<Wanted>& wanted, const std::vector<Length>& stock, Length kerf) {
    std::vector<int> left;
    for (const Wanted& w : wanted) left.push_back(w.count);
    for (std::size_t j = 0; j < patterns.size(); ++j) {
        for (int n = 0; n < times[j]; ++n) {
            std::vector<int> sawn(wanted.size());
            SawnBoard board{stock[patterns[j].board], 1, {}, {}};
            for (std::size_t i = 0; i < wanted.size(); ++i) {
                sawn[i] = std::min(patterns[j].times[i], left[i]);
                left[i] -= sawn[i];
                board.pieces.insert(board.pieces.end(), static_cast<std::size_t>(sawn[i]), i);
            }
            if (board.pieces.empty()) continue;
            board.offcut = std::max(Length{}, board.from - used_by(sawn, wanted, kerf));
            // A shorter board of the stock may do for what is left to saw.
            for (const Length& shorter : stock) {
                if (shorter < board.from && used_by(sawn, wanted, kerf) <= shorter + kerf) {
                    board.from = shorter;
                    board.offcut = std::max(Length{}, shorter - used_by(sawn, wanted, kerf));
                }
            }
            ++plan.used;
            if (!plan.boards.empty() && plan.boards.back().from == board.from &&
                plan.boards.back().pieces == board.pieces) {
                ++plan.boards.back().boards;
            } else {
                plan.boards.push_back(board);
            }
        }
    }
}

// Longest first, each where it fits: for more ways than can be listed.
void longest_first(CuttingPlan& plan, const std::vector<Wanted>& wanted, Length longest, Length kerf) {
    std::vector<std::size_t> order(wanted.size());
    std::iota(order.begin(), order.end(), 0);
    std::stable_sort(order.begin(), order.end(),
                     [&](std::size_t a, std::size_t b) { return wanted[a].length > wanted[b].length; });
    Length total;
    for (const std::size_t i : order) {
        for (int n = 0; n < wanted[i].count; ++n) {
            const Length need = wanted[i].length + kerf;
            total += need;
            const auto room = std::find_if(plan.boards.begin(), plan.boards.end(),
                                           [&](const SawnBoard& b) { return b.offcut + kerf >= need; });
            if (room != plan.boards.end()) {
                room->pieces.push_back(i);
                room->offcut = std::max(Length{}, room->offcut - need);
            } else {
                plan.boards.push_back({longest, 1, {i}, std::max(Length{}, longest - need)});
            }
        }
    }
    plan.used = static_cast<int>(plan.boards.size());
    plan.least = static_cast<int>(std::ceil(total.in_mm() / (longest + kerf).in_mm() - 1e-9));
    plan.proved = plan.used == plan.least;
}

}  // namespace

CuttingPlan cutting_plan(const std::vector<Wanted>& asked, std::vector<Length> stock, Length kerf) {
    CuttingPlan plan;
    std::erase_if(stock, [](Length l) { return l <= Length{}; });
    std::sort(stock.begin(), stock.end());
    stock.erase(std::unique(stock.begin(), stock.end()), stock.end());
    std::vector<Wanted> wanted;
    std::vector<std::size_t> place;  // in what was asked
    std::int64_t count = 0;
    for (std::size_t i = 0; i < asked.size(); ++i) {
        if (asked[i].count <= 0 || asked[i].length <= Length{}) continue;
        if (stock.empty() || asked[i].length > stock.back()) {
            plan.problems.push_back({{"cutting.too-long", {{"length", asked[i].length}}},
                                     Station::Blank,
                                     {"cutting.join-or-longer", {}},
                                     Mark::Look});
            continue;
        }
        wanted.push_back(asked[i]);
        place.push_back(i);
        count += asked[i].count;
    }
    if (wanted.empty()) {
        plan.proved = plan.problems.empty();
        return plan;
    }
    const auto patterns = count <= most_boards ? patterns_of(wanted, stock, kerf) : std::nullopt;
    double bound = 0;
    const auto fewest = patterns ? solve(*patterns, wanted, stock, std::nullopt, bound) : std::nullopt;
    if (!fewest) {
        longest_first(plan, wanted, stock.back(), kerf);
    } else {
        const int boards = std::accumulate(fewest->begin(), fewest->end(), 0);
        plan.least = static_cast<int>(bound);
        double length_bound = 0;
        const auto shortest = stock.size() > 1 ? solve(*patterns, wanted, stock, boards, length_bound) : std::nullopt;
        write_down(plan, *patterns, shortest ? *shortest : *fewest, wanted, stock, kerf);
        plan.proved = plan.used == plan.least;
    }
    for (SawnBoard& board : plan.boards) {
        for (std::size_t& piece : board.pieces) piece = place[piece];
    }
    return plan;
}

}  // namespace skarvel
