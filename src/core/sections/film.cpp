#include "sections/sections.h"

#include "sections/lines.h"
#include "sections/ties.h"

#include <algorithm>
#include <iterator>
#include <set>

namespace skarvel {
namespace {

Section section_of(const Part& part, const std::vector<Piece>& pieces, bool mask, Region film) {
    Section section;
    section.film = std::move(film);
    std::vector<std::size_t> order = part.pieces;
    std::sort(order.begin(), order.end(),
              [&](std::size_t a, std::size_t b) { return pieces[a].first < pieces[b].first; });
    std::vector<Region> openings;
    for (const std::size_t i : order) {
        Piece piece = pieces[i];
        if (part.cell) piece.shape = intersect(intersect(piece.shape, Region::rectangle(*part.cell)), section.film);
        const Region opening = part.cell ? intersect(pieces[i].shape, section.film) : piece.shape;
        // A lap may reach over ink that is all another part's: there, too, the mask is open.
        if (piece.shape.empty()) {
            if (!opening.empty()) openings.push_back(opening);
            continue;
        }
        if (mask) {
            for (Region& hole : holes(opening)) section.keepers.push_back({piece.letters, std::move(hole)});
        }
        // Marks without a name (of a ruler, a grid) are not spelt out one by one.
        if (!section.letters.empty() && !piece.letters.empty()) {
            section.letters += piece.line != section.pieces.back().line ? " / " : piece.starts_word ? " " : "";
        }
        section.letters += piece.letters;
        section.letter_count += static_cast<int>(letters_of(piece.letters).size());
        openings.push_back(opening);
        section.pieces.push_back(std::move(piece));
    }
    // Film that only covers, where a margin is larger than the bed, is laid as well.
    if (section.letters.empty()) section.letters = section.pieces.empty() ? "cover" : "marks";
    section.cut = merge(openings);
    return section;
}

// Where seams are stepped, or one part lies within another, films reach past their neighbours' outlines and are cut
// back around them. A neighbour's eyes are waste here: film inside them would hang loose. But for stepped seams, only
// what lies within or around counts.
Region neighbours_of(const Part& part, const std::vector<Piece>& pieces, const std::vector<Box>& boxes, bool stepped) {
    std::vector<Region> own;
    for (const std::size_t i : part.pieces) {
        if (boxes[i].meets(part.film)) own.push_back(pieces[i].shape);
    }
    const auto holds_own = [&](const Region& eye) {
        return std::any_of(own.begin(), own.end(), [&](const Region& ink) {
            return eye.bounds().meets(ink.bounds()) && !intersect(eye, ink).empty();
        });
    };
    std::vector<Region> inks;
    std::vector<Region> near;
    std::vector<Region> beside;  // own ink so close to a neighbour's that between the two no film would be left
    const Region around_film = Region::rectangle(grown(part.film, off_neighbour + off_neighbour));
    for (std::size_t i = 0; i < pieces.size(); ++i) {
        if (!boxes[i].meets(part.film)) continue;
        if (std::find(part.pieces.begin(), part.pieces.end(), i) != part.pieces.end()) continue;
        const bool inside = std::find(part.around.begin(), part.around.end(), i) != part.around.end();
        if (!stepped && !inside) continue;
        // Beyond a straight seam in a narrow gap the neighbour's film begins at its ink: what is left here covers up to
        // it.
        if (!inside && intersect(pieces[i].shape, Region::rectangle(part.film)).empty()) continue;
        inks.push_back(intersect(pieces[i].shape, around_film));
        near.push_back(grow(inks.back(), off_neighbour));
        const Region reach = Region::rectangle(grown(near.back().bounds(), off_neighbour));
        for (const Region& ink : own) {
            if (ink.bounds().meets(reach.bounds())) beside.push_back(grow(intersect(ink, reach), off_neighbour));
        }
        std::vector<Region> eyes = holes(near.back());
        std::erase_if(eyes, holds_own);
        std::copy(eyes.begin(), eyes.end(), std::back_inserter(inks));
        std::move(eyes.begin(), eyes.end(), std::back_inserter(near));
    }
    const Region out = subtract(merge(near), merge(beside));
    return subtract(merge(out, merge(inks)), merge(own));
}

}  // namespace

std::vector<Section> sections_of(const Division& division, const std::vector<Piece>& pieces, const MakingPlan& making) {
    const bool stepped = !making.wishes.whole_margins && std::any_of(division.seams.begin(), division.seams.end(),
                                                                     [](const Seam& s) { return s.stepped; });
    std::vector<Section> sections;
    std::vector<Box> boxes;
    for (const Piece& piece : pieces) boxes.push_back(piece.shape.bounds());
    const bool mask = making.way == Way::PaintThrough;
    for (const Part& part : division.parts) {
        const bool interlocked = stepped || !part.around.empty();
        Region film = Region::rectangle(part.film);
        for (const Box& other : part.without) film = subtract(film, Region::rectangle(other));
        if (!interlocked && part.without.empty()) {
            sections.push_back(section_of(part, pieces, mask, film));
            continue;
        }
        // Cut back around a neighbour's outlines, film may fall apart. What holds none of its own ink is no part of it,
        // and what does is a section by itself.
        std::set<std::size_t> left(part.pieces.begin(), part.pieces.end());
        const bool margin_alone = part.cell && std::all_of(part.pieces.begin(), part.pieces.end(), [&](std::size_t i) {
                                      return intersect(pieces[i].shape, Region::rectangle(*part.cell)).empty();
                                  });
        const Region kept = interlocked ? subtract(film, neighbours_of(part, pieces, boxes, stepped)) : film;
        if (margin_alone && !stepped) {
            if (!kept.empty()) sections.push_back(section_of(part, pieces, mask, kept));
            continue;
        }
        for (Region& own : islands(kept)) {
            Part here = part;
            std::erase_if(here.pieces, [&](std::size_t i) {
                // A piece that is itself divided may lie in several; any other in the first that it touches.
                const bool in =
                    (part.cell || left.contains(i)) && own.bounds().meets(boxes[i]) && touch(own, pieces[i].shape);
                return !in;
            });
            for (const std::size_t i : here.pieces) left.erase(i);
            if (!here.pieces.empty()) sections.push_back(section_of(here, pieces, mask, std::move(own)));
        }
        // A strip of a divided piece may be all margin, and then nothing that its neighbours do not cover.
        if (part.cell) {
            std::erase_if(left, [&](std::size_t i) {
                return intersect(pieces[i].shape, Region::rectangle(common(*part.cell, part.film))).empty();
            });
        }
        if (left.empty()) continue;
        Part off = part;  // ink that no film lies under: Lettering says that it is off the board
        off.pieces.assign(left.begin(), left.end());
        sections.push_back(section_of(off, pieces, mask, film));
    }
    for (Section& section : sections) {
        section.lines = weeding_lines(section, making.way, weeding_apart);
        if (making.way != Way::PaintThrough || making.tie <= Length{} || section.keepers.empty()) continue;
        Tied tied = tie_keepers(section.cut, section.keepers, making.tie);
        section.cut = std::move(tied.cut);
        section.ties = std::move(tied.ties);
        section.keepers = std::move(tied.loose);
    }
    const auto marks = match_marks(sections, division.seams, pieces);
    for (std::size_t i = 0; i < sections.size(); ++i)
        sections[i].lines.insert(sections[i].lines.end(), marks[i].begin(), marks[i].end());
    return sections;
}

}  // namespace skarvel
