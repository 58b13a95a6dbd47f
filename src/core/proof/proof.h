// proof/proof.h
//
// Proof: evidence that what was written goes together again. The files themselves are read back, with none of the code
// that wrote them: closed paths are cut through the film on the mat, what lies inside them is weeded by the rule for
// decals or for masks, each section is found where the manifest says that it lies, laid on the face, and what is then
// ink is compared with the design.
//
// Three results. As cut: every section laid exactly. As measured: laid by the rounded distances of the placement sheet.
// By hand: laid with a random shift, turn and stretch as the shop's hands have it, many times over with a fixed seed:
// how wide each seam opens, how often, how far off the halves of crossed ink stand, from how far an eye sees that, and
// which lap would be safer. An eye tells a minute of arc (the 20/20 line of Snellen's chart, 1862).
#pragma once

#include <map>
#include <string>
#include <vector>

#include "files/cut_file.h"

namespace skarvel {

/// What one colour of a face came to.
struct ColourProof {
    ColourId of;
    Length deviation;  ///< the farthest that an edge lies from where it should be
    double missing_mm2 = 0, surplus_mm2 = 0;
    Region missing, surplus;  ///< ink that is not there, and ink that should not be, face frame
    int keepers_lost = 0;
    double overlap_mm2 = 0;  ///< films over one another
    double overlap_planned_mm2 = 0;
    double bare_mm2 = 0;        ///< beside ink, within its margin, where no film lies (masks)
    std::vector<Reason> wrong;  ///< what does not hold, in words; empty when all is well
    [[nodiscard]] bool good() const { return wrong.empty(); }
    friend bool operator==(const ColourProof&, const ColourProof&) = default;
};

/// Where the sheets' distances put the sections of a colour.
struct MeasuredProof {
    ColourId of;
    Length largest_shift;       ///< by which the sheet's rounding moves a section
    std::vector<Reason> wrong;  ///< as in ColourProof
    [[nodiscard]] bool good() const { return wrong.empty(); }
    friend bool operator==(const MeasuredProof&, const MeasuredProof&) = default;
};

struct SeamByHand {
    ColourId of;
    std::size_t seam = 0;
    std::string lower, upper;  ///< what lies on either side
    Length median, often;      ///< how wide it opens: half the time at least, and once in twenty
    double share_open = 0;     ///< of all tries in which it opens at all
    Length lap, safer_lap;     ///< as planned, and with which it would open less than once in twenty
    Length step;               ///< how far the two halves of crossed ink stand out of line, once in twenty
    bool stepped = false;      ///< runs around outlines: it opens where film comes over a neighbour's ink
    Length seen_from;          ///< as far off as that an eye sees the worse of gap and step
    friend bool operator==(const SeamByHand&, const SeamByHand&) = default;
};

/// A section as one try laid it by hand, off its place.
struct LaidByHand {
    ColourId of;
    std::size_t section = 0;
    double dx_mm = 0, dy_mm = 0, turn = 0;  ///< turn about the middle of its film, radians
    friend bool operator==(const LaidByHand&, const LaidByHand&) = default;
};

struct Evidence {
    std::vector<ColourProof> as_cut;
    std::vector<MeasuredProof> as_measured;
    std::vector<SeamByHand> by_hand;
    std::vector<LaidByHand> one_try;  ///< one that came out worse than nineteen in twenty
    std::vector<Problem> problems;    ///< files that could not be read, sections that were not found
    [[nodiscard]] bool good() const;
    friend bool operator==(const Evidence&, const Evidence&) = default;
};

/// Files by name, as they were written.
using FileSet = std::map<std::string, std::string>;

/// The files of every load that is not yet cut, and their manifest, as they would be written.
FileSet files_of(const Job& job, const Plan& plan, const Shop& shop);

/// `files` are read as `format`; loads already cut are taken as they lie in the job.
Evidence prove(const Plan& plan, const Shop& shop, const FileSet& files, CutFormat format);

constexpr int hand_tries = 400;

}  // namespace skarvel
