// Packs rectangles with libnest2d, for a test that compares. Reads "across along count" and as many "width height" from
// its input, whole numbers; writes for each bin how far its pile reaches. A program of its own, since the library is
// written for C++17.
#include <libnest2d/libnest2d.hpp>

#include <iostream>
#include <map>

int main() {
    long across = 0;
    long along = 0;
    std::size_t count = 0;
    std::cin >> across >> along >> count;
    std::vector<libnest2d::Item> items;
    for (std::size_t i = 0; i < count; ++i) {
        long width = 0;
        long height = 0;
        std::cin >> width >> height;
        items.emplace_back(libnest2d::Rectangle(width, height));
    }
    using Config = libnest2d::NfpPlacer::Config;
    Config config;
    config.alignment = Config::Alignment::BOTTOM_LEFT;
    config.starting_point = Config::Alignment::BOTTOM_LEFT;
    config.parallel = false;
    libnest2d::nest<libnest2d::NfpPlacer, libnest2d::FirstFitSelection>(items, libnest2d::Box(across, along), 0,
                                                                        {config});
    std::map<int, std::pair<long, long>> reach;  // of each bin: its lowest and highest
    for (const libnest2d::Item& item : items) {
        if (item.binId() < 0) return 1;
        const auto box = item.boundingBox();
        const long low = libnest2d::getY(box.minCorner());
        const long high = libnest2d::getY(box.maxCorner());
        const auto at = reach.emplace(item.binId(), std::pair(low, high)).first;
        at->second = {std::min(at->second.first, low), std::max(at->second.second, high)};
    }
    for (const auto& [bin, r] : reach) std::cout << r.second - r.first << '\n';
}
