#include "job/stages.h"

#include "job/job.h"

namespace skarvel {

BlankPlan blank_stage(const BlankReads& in, const Trade& trade) {
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

std::vector<Piece> ink_stage(const InkReads& in) {
    std::vector<Piece> pieces = ink_of(in.lettering, *in.placed, in.art, *in.made, in.colour);
    if (!in.within.empty()) {
        for (Piece& p : pieces) p.shape = intersect(p.shape, in.within);
        std::erase_if(pieces, [](const Piece& p) { return p.shape.empty(); });
    }
    if (in.mirror) {
        for (Piece& p : pieces) p.shape = p.shape.mirrored(in.mirror->low.x + in.mirror->high.x);
    }
    return pieces;
}

std::vector<Piece> print_stage(const PrintReads& in) {
    std::vector<const std::vector<Piece>*> inks;
    for (const auto& ink : in.inks) inks.push_back(ink.get());
    return cut_together(inks);
}

}  // namespace skarvel
