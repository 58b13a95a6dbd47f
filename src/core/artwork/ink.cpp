#include "artwork/ink.h"

#include <algorithm>
#include <numeric>

namespace skarvel {

std::vector<Piece> pieces_of(const LetteringPlan& lettering) {
    const auto& letters = lettering.letters;
    std::vector<std::size_t> group(letters.size());
    std::iota(group.begin(), group.end(), 0);
    const auto root = [&](std::size_t i) {
        while (group[i] != i) i = group[i];
        return i;
    };
    std::vector<Box> boxes;
    for (const PlacedLetter& letter : letters) boxes.push_back(letter.ink.bounds());
    for (std::size_t i = 0; i < letters.size(); ++i) {
        for (std::size_t j = i + 1; j < letters.size(); ++j) {
            if (!boxes[i].meets(boxes[j]) || root(i) == root(j)) continue;
            if (touch(letters[i].ink, letters[j].ink)) group[std::max(root(i), root(j))] = std::min(root(i), root(j));
        }
    }
    std::vector<Piece> pieces;
    for (std::size_t i = 0; i < letters.size(); ++i) {
        if (root(i) != i) continue;
        std::vector<Region> shapes;
        Piece piece{{}, {}, letters[i].index, letters[i].starts_word, letters[i].line};
        for (std::size_t j = i; j < letters.size(); ++j) {
            if (root(j) != i) continue;
            shapes.push_back(letters[j].ink);
            piece.letters += letters[j].text;
        }
        piece.shape = shapes.size() == 1 ? shapes.front() : merge(shapes);
        pieces.push_back(std::move(piece));
    }
    return pieces;
}

}  // namespace skarvel
