#include "sections/keepers.h"

#include <algorithm>

namespace skarvel {

std::vector<Reason> keepers_told(const std::vector<Section>& sections) {
    struct Row {
        std::string letters;
        std::int64_t count = 0;
        Box smallest;
    };
    std::vector<Row> rows;
    const auto size = [](const Box& box) { return std::min(box.width(), box.height()); };
    for (const Section& section : sections) {
        for (const Keeper& keeper : section.keepers) {
            const Box box = keeper.shape.bounds();
            const auto known =
                std::find_if(rows.begin(), rows.end(), [&](const Row& r) { return r.letters == keeper.letters; });
            if (known == rows.end()) {
                rows.push_back({keeper.letters, 1, box});
                continue;
            }
            ++known->count;
            if (size(box) < size(known->smallest)) known->smallest = box;
        }
    }
    std::vector<Reason> told;
    for (const Row& row : rows) {
        told.push_back({row.count == 1 ? "keepers.one" : "keepers.several",
                        {{"letters", row.letters},
                         {"count", row.count},
                         {"width", from_grid(row.smallest.width())},
                         {"height", from_grid(row.smallest.height())}}});
    }
    return told;
}

}  // namespace skarvel
