#include "artwork/ink.h"

#include <algorithm>
#include <numeric>
#include <set>

namespace skarvel {
namespace {

// Pieces that touch become one; the first one names its place.
std::vector<Piece> joined(std::vector<Piece> parts) {
    std::vector<std::size_t> group(parts.size());
    std::iota(group.begin(), group.end(), 0);
    const auto root = [&](std::size_t i) {
        while (group[i] != i) i = group[i];
        return i;
    };
    std::vector<Box> boxes;
    for (const Piece& part : parts) boxes.push_back(part.shape.bounds());
    // By left edge, so that only neighbours are compared.
    std::vector<std::size_t> order(parts.size());
    std::iota(order.begin(), order.end(), 0);
    std::stable_sort(order.begin(), order.end(),
                     [&](std::size_t a, std::size_t b) { return boxes[a].low.x < boxes[b].low.x; });
    for (std::size_t a = 0; a < order.size(); ++a) {
        const std::size_t i = order[a];
        for (std::size_t b = a + 1; b < order.size() && boxes[order[b]].low.x <= boxes[i].high.x; ++b) {
            const std::size_t j = order[b];
            if (!boxes[i].meets(boxes[j]) || root(i) == root(j)) continue;
            if (touch(parts[i].shape, parts[j].shape)) group[std::max(root(i), root(j))] = std::min(root(i), root(j));
        }
    }
    std::vector<Piece> pieces;
    for (std::size_t i = 0; i < parts.size(); ++i) {
        if (root(i) != i) continue;
        std::vector<Region> shapes;
        Piece piece = parts[i];
        piece.letters.clear();
        std::set<int> named;  // letters of the face
        for (std::size_t j = i; j < parts.size(); ++j) {
            if (root(j) != i) continue;
            shapes.push_back(parts[j].shape);
            bool fresh = parts[j].art ? piece.letters != parts[j].letters : false;
            for (std::size_t k = 0; !parts[j].art && k < letters_of(parts[j].letters).size(); ++k)
                fresh = named.insert(parts[j].first + static_cast<int>(k)).second || fresh;
            if (fresh) piece.letters += parts[j].letters;
            piece.art = piece.art && parts[j].art;
        }
        if (shapes.size() > 1) piece.shape = merge(shapes);
        pieces.push_back(std::move(piece));
    }
    return pieces;
}

Piece letter_piece(const PlacedLetter& letter, Region shape) {
    return {std::move(shape), letter.text, letter.index, letter.starts_word, letter.line, false, letter.alone};
}

Region rim_of(const Region& ink, const Rim& rim) {
    if (rim.inner) {
        const Region inside = grow(ink, Length{} - rim.width.value);
        return inside.empty() ? ink : subtract(ink, inside);
    }
    const Region outer = grow(ink, rim.width.value);
    if (rim.under) return outer;
    const Region cut = grow(ink, Length{} - rim.overlap.value);
    return cut.empty() ? outer : subtract(outer, cut);
}

// The rim of a whole text: letters that stand close share one, and a knock-out leaves room for all of them.
void add_rim(const LetteringPlan& placed, int text, const Rim& rim, std::vector<Piece>& parts) {
    std::vector<Region> shapes;
    for (const PlacedLetter& letter : placed.letters) {
        if (letter.of == text) shapes.push_back(letter.ink);
    }
    if (shapes.empty()) return;
    for (const Region& part : islands(rim_of(merge(shapes), rim))) {
        const Box box = part.bounds();
        Piece piece{part, {}, -1, false, 0, false};
        for (const PlacedLetter& letter : placed.letters) {
            if (letter.of != text || !box.holds(letter.ink.bounds())) continue;
            if (piece.first < 0) piece = {part, {}, letter.index, letter.starts_word, letter.line, false, letter.alone};
            piece.letters += letter.text;
        }
        if (piece.first < 0) {
            // A part of one letter: an eye of an O, a piece of an inner rim.
            for (const PlacedLetter& letter : placed.letters) {
                if (letter.of != text || !letter.ink.bounds().meets(box)) continue;
                piece = {part, letter.text, letter.index, letter.starts_word, letter.line, false, letter.alone};
                break;
            }
        }
        if (piece.first < 0) piece.first = 0;
        parts.push_back(std::move(piece));
    }
}

}  // namespace

std::vector<Piece> pieces_of(const LetteringPlan& lettering) {
    std::vector<Piece> parts;
    for (const PlacedLetter& letter : lettering.letters) parts.push_back(letter_piece(letter, letter.ink));
    return joined(std::move(parts));
}

std::vector<Piece> ink_of(const Lettering& lettering, const LetteringPlan& placed, const std::vector<Art>& art,
                          const ArtPlan& made, const ColourId& colour) {
    std::vector<Piece> parts;
    int next = 0;
    for (const PlacedLetter& letter : placed.letters) {
        const Text& text = lettering.texts[static_cast<std::size_t>(letter.of)];
        next = std::max(next, letter.index + 1);
        if (text.colour == colour) {
            Region shape = letter.ink;
            // An inner rim in another colour that is not laid over the ink leaves a gap for it.
            if (text.rim && text.rim->inner && text.rim->colour != colour && !text.rim->under) {
                const Region inside = grow(shape, Length{} - (text.rim->width.value - text.rim->overlap.value));
                if (!inside.empty()) shape = inside;
            }
            parts.push_back(letter_piece(letter, std::move(shape)));
        }
    }
    for (std::size_t t = 0; t < lettering.texts.size(); ++t) {
        const auto& rim = lettering.texts[t].rim;
        if (rim && rim->colour == colour && rim->width.value > Length{})
            add_rim(placed, static_cast<int>(t), *rim, parts);
    }
    int line = 1'000;
    for (std::size_t i = 0; i < art.size() && i < made.parts.size(); ++i, ++line) {
        for (const ArtPart& part : made.parts[i]) {
            if (part.colour == colour) parts.push_back({part.shape, part.name, next++, true, line, true});
        }
    }
    return joined(std::move(parts));
}

std::vector<Piece> cut_together(const std::vector<const std::vector<Piece>*>& inks) {
    std::vector<Piece> parts;
    for (const auto* ink : inks) parts.insert(parts.end(), ink->begin(), ink->end());
    std::stable_sort(parts.begin(), parts.end(), [](const Piece& a, const Piece& b) {
        return a.first != b.first ? a.first < b.first : a.letters.size() > b.letters.size();
    });
    return joined(std::move(parts));
}

namespace {

// Everything on the face that is to be made, by what it is in.
template <class See>
void each_colour(const Lettering& lettering, const std::vector<Art>& art, See see) {
    for (const Text& text : lettering.texts) {
        if (text.words.empty()) continue;
        see(text.id, text.colour);
        if (text.rim) see(text.id, text.rim->colour);
    }
    for (const Art& a : art) {
        see(a.id, a.colour);
        if (const auto* drawing = std::get_if<PlacedDrawing>(&a.kind)) {
            for (const auto& [part, colour] : drawing->colours) see(a.id, colour);
        }
    }
}

}  // namespace

std::vector<ColourId> colours_used(const Lettering& lettering, const std::vector<Art>& art,
                                   const std::vector<ColourId>& colours) {
    std::set<ColourId> used;
    each_colour(lettering, art, [&](const ThingId&, const ColourId& colour) { used.insert(colour); });
    std::vector<ColourId> in_order;
    std::copy_if(colours.begin(), colours.end(), std::back_inserter(in_order),
                 [&](const ColourId& c) { return used.contains(c); });
    if (in_order.empty() && !colours.empty()) in_order.push_back(colours.front());
    return in_order;
}

std::vector<ThingId> without_colour(const Lettering& lettering, const std::vector<Art>& art,
                                    const std::vector<ColourId>& colours) {
    std::vector<ThingId> lost;
    each_colour(lettering, art, [&](const ThingId& thing, const ColourId& colour) {
        const bool known = std::find(colours.begin(), colours.end(), colour) != colours.end();
        if (!known && std::find(lost.begin(), lost.end(), thing) == lost.end()) lost.push_back(thing);
    });
    return lost;
}

}  // namespace skarvel
