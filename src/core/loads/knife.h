// loads/knife.h
//
// Knife: the way of the knife over one load. Sections are cut one after the other. Within a section what lies inside
// comes before what lies around it, so that nothing moves that is still to be cut; then the outline of the film, then
// the lines that part no ink. Short travel: the nearest path that may come next, begun at its nearest corner, then
// improved by putting paths elsewhere in the order and by turning stretches of it round, within a bound of counted
// steps.
#pragma once

#include "loads/machines.h"

namespace skarvel {

enum class CutOf { Ink, Film, Line };

struct KnifePath {
    std::vector<Point>
        points;  ///< on the mat, lower left corner of the usable area at 0, 0; a closed path ends where it began
    CutOf of = CutOf::Ink;
    std::size_t section = 0;  ///< counts the sections of the load: its own first, then guests
    [[nodiscard]] bool closed() const { return points.size() > 2 && points.front() == points.back(); }
    friend bool operator==(const KnifePath&, const KnifePath&) = default;
};

struct KnifeWay {
    std::vector<KnifePath> paths;  ///< in cutting order
    Length cut, travel;            ///< lengths, down and lifted
    int seconds = 0;
    friend bool operator==(const KnifeWay&, const KnifeWay&) = default;
};

/// A section as it lies on the mat.
struct OnMat {
    std::string name;
    ColourId of;
    std::size_t section;  ///< its place in the plan of `of`
    LaidSection laid;
    Placement placement;
    Point moved;  ///< from the face, after turning, to the mat
    friend bool operator==(const OnMat&, const OnMat&) = default;
};
/// `of`: of the load's own sections.
std::vector<OnMat> on_mat(const Load& load, const std::vector<Section>& sections, const ColourId& of);

KnifeWay knife_way(const std::vector<OnMat>& load, const Knife& knife);

/// The way of the pivot of a trailing knife, so that its edge follows `path`: it swings about each corner by `offset`,
/// and runs on by `overcut` where the path closes. Unchanged where both are zero.
std::vector<Point> pivot_way(const KnifePath& path, Length offset, Length overcut);

}  // namespace skarvel
