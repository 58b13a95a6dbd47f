// The shop's file: machines, films and hands as they come back, and what is refused.
#include <nlohmann/json.hpp>

#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;
using nlohmann::json;

namespace {

Length any_length(int least, int most) { return Length::sixtyfourths(*rc::gen::inRange(least, most)); }
std::string any_of(std::vector<std::string> words) { return *rc::gen::elementOf(words); }

Mat any_mat() {
    Mat mat{
        any_of({"12 × 24", "roll", "löng \"mat\"\n", "4 1/2 × 12"}), any_length(64, 6000), any_length(64, 60'000), {}};
    mat.usable = {mat.width - any_length(0, 64), mat.length - any_length(0, 64)};
    mat.roll = *rc::gen::arbitrary<bool>();
    mat.count = *rc::gen::inRange(1, 9);
    mat.grip = *rc::gen::element(Grip::Light, Grip::Standard, Grip::Strong);
    mat.tack = *rc::gen::element(Tack::Fresh, Tack::Good, Tack::Worn);
    return mat;
}

Shop any_shop() {
    Shop shop = usual_shop();
    shop.machines.clear();
    for (int n = *rc::gen::inRange(0, 4); n > 0; --n) {
        Machine m{any_of({"long one", "shed", "é"}), {}, {}, 0, {}, 0, {}};
        for (int k = *rc::gen::inRange(0, 4); k > 0; --k) m.beds.push_back(any_mat());
        m.knife = {*rc::gen::inRange(1, 900), *rc::gen::inRange(1, 900), *rc::gen::inRange(0, 900), any_length(0, 4),
                   any_length(0, 4)};
        m.longest_units = *rc::gen::inRange(0, 100'000);
        m.address = any_of({"", "127.0.0.1:9100"});
        m.force = *rc::gen::inRange(0, 500);
        if (*rc::gen::arbitrary<bool>())
            m.prints = PrintArea{{any_length(640, 4000), any_length(640, 4000)}, any_length(1, 64), any_length(1, 64)};
        shop.machines.push_back(std::move(m));
    }
    for (int n = *rc::gen::inRange(0, 5); n > 0; --n) {
        FilmStock f{any_of({"removable-matt", "printable", "gone"}), any_of({"", "#1d3f5e"}),
                    any_of({"end of the blue", "\\ / {}"}), any_length(1, 2000), any_length(0, 20'000)};
        f.roll = *rc::gen::arbitrary<bool>();
        f.patterned = *rc::gen::arbitrary<bool>();
        f.price_cents = *rc::gen::inRange(0, 100'000);
        f.sold_by = any_length(1, 4000);
        f.repeat_across = any_length(0, 900);
        f.repeat_along = any_length(0, 900);
        shop.drawer.push_back(std::move(f));
    }
    shop.hands = {any_length(0, 20), *rc::gen::inRange(0, 1000), *rc::gen::inRange(0, 1000), any_length(0, 40)};
    return shop;
}

// Places of all values in a file.
void places_in(const json& at, const json::json_pointer& here, std::vector<json::json_pointer>& out) {
    if (!here.empty()) out.push_back(here);
    if (at.is_object()) {
        for (const auto& [key, value] : at.items()) places_in(value, here / key, out);
    } else if (at.is_array()) {
        for (std::size_t i = 0; i < at.size(); ++i) places_in(at[i], here / i, out);
    }
}

}  // namespace

TEST_CASE("any shop comes back from its file as it was") {
    CHECK(rc::check([] {
        const Shop shop = any_shop();
        const auto back = read_shop(write_shop(shop));
        RC_ASSERT(back.has_value());
        RC_ASSERT(write_shop(*back) == write_shop(shop));
        RC_ASSERT(*back == shop);
    }));
}

TEST_CASE("a shop's file spoiled anywhere is refused with words and its place, or read and planned with") {
    const std::string whole = [] {
        auto file = read_file(std::filesystem::path(SKARVEL_SOURCE) / "demo/shop.json");
        return file.value();
    }();
    CHECK(rc::check([&] {
        json file = json::parse(whole);
        std::vector<json::json_pointer> places;
        places_in(file, json::json_pointer(), places);
        const auto place = *rc::gen::elementOf(places);
        file[place] = *rc::gen::element<json>(nullptr, -1, 1e300, "", "12 trees", "0 in", "-5 in", true, json::array(),
                                              json::object(), "1000000000 in");
        const auto read = read_shop(file.dump());
        if (!read) {
            RC_ASSERT(library().catalogue.has(read.error().what.id));
            RC_ASSERT(!read.error().where.place.empty());
            return;
        }
        const Plan made = plan(porch_board(), *read, library(), moment("2026-05-04T18:00"));
        RC_ASSERT(made.colours.size() == 1);
    }));
}
