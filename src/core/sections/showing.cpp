#include "sections/showing.h"

#include <algorithm>
#include <cmath>

namespace skarvel {
namespace {

// Judged by eye on drawn examples, as lengths of a cut that would show as much (memory).
constexpr double thin_counts = 3;        // times what it lacks to `thin_stroke`
constexpr Length curve_counts = 0.5_in;  // where an outline begins, ends or forks beside the cut
constexpr Length keeper_counts = 4_in;   // for the first
constexpr Length further_keeper = 1_in;  // once one is parted anyway
constexpr Length beside = 0.0625_in;     // how far to either side an outline is looked at

double slant(const std::vector<double>& before, const std::vector<double>& here, const std::vector<double>& after) {
    if (before.size() != here.size() || after.size() != here.size()) return static_cast<double>(to_grid(curve_counts));
    double sum = 0;
    for (std::size_t i = 0; i < here.size(); ++i)
        sum += std::max(std::abs(after[i] - here[i]), std::abs(here[i] - before[i]));
    return 2 * sum;
}

}  // namespace

std::vector<CutAcross> cuts_across(const Region& ink, Axis axis, const std::vector<std::int64_t>& where, bool keepers) {
    std::vector<std::int64_t> lines;
    for (const std::int64_t at : where) lines.insert(lines.end(), {at - to_grid(beside), at, at + to_grid(beside)});
    std::sort(lines.begin(), lines.end());
    lines.erase(std::unique(lines.begin(), lines.end()), lines.end());
    const std::vector<std::vector<double>> edges = edges_on(ink, axis, lines);
    const auto on = [&](std::int64_t at) -> const std::vector<double>& {
        return edges[static_cast<std::size_t>(std::lower_bound(lines.begin(), lines.end(), at) - lines.begin())];
    };
    std::vector<Box> eyes;
    if (keepers) {
        for (const Region& hole : holes(ink)) eyes.push_back(hole.bounds());
    }
    std::vector<CutAcross> cuts;
    cuts.reserve(where.size());
    for (const std::int64_t at : where) {
        const std::vector<double>& here = on(at);
        double length = 0;
        double more = 0;
        for (std::size_t i = 0; i + 1 < here.size(); i += 2) {
            const double stroke = here[i + 1] - here[i];
            length += stroke;
            more += thin_counts * std::max(0.0, static_cast<double>(to_grid(thin_stroke)) - stroke);
        }
        if (!here.empty()) more += slant(on(at - to_grid(beside)), here, on(at + to_grid(beside)));
        const auto parted = std::count_if(eyes.begin(), eyes.end(), [&](const Box& eye) {
            return along(axis, eye.low) < at && at < along(axis, eye.high);
        });
        if (parted > 0) more += static_cast<double>(to_grid(keeper_counts + further_keeper * (parted - 1)));
        cuts.push_back({from_grid(std::llround(length)), from_grid(std::llround(length + more))});
    }
    return cuts;
}

}  // namespace skarvel
