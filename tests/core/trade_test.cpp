// The tables of the trade: what is damaged in them is refused when the program starts, not met at the bench.
#include "method/trade.h"

#include <fstream>
#include <nlohmann/json.hpp>
#include <sstream>

#include "job/commands.h"
#include "job/face_commands.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

using Json = nlohmann::json;

std::string table(const std::string& name) {
    std::ifstream in(std::filesystem::path(SKARVEL_SOURCE) / "assets/trade" / (name + ".json"));
    std::ostringstream out;
    out << in.rdbuf();
    return out.str();
}

Expected<Trade> with_materials(const Json& materials) {
    return read_trade(table("stock"), materials.dump(), table("rules"), table("cautions"));
}

void refuses(const Expected<Trade>& read) {
    REQUIRE_FALSE(read.has_value());
    CHECK(read.error().what.id == "file.trade-damaged");
    CHECK(library().catalogue.say(read.error().what, {}).find('?') == std::string::npos);
}

}  // namespace

TEST_CASE("every table that is missing something is refused") {
    const Json good = Json::parse(table("materials"));
    REQUIRE(with_materials(good).has_value());
    for (const auto& [key, value] : good.items()) {
        if (key == "about") continue;
        INFO(key);
        Json bad = good;
        bad.erase(key);
        refuses(with_materials(bad));
        bad[key] = 7;
        refuses(with_materials(bad));
    }
    for (const auto& [key, value] : good["new_job"].items()) {
        if (key == "basis") continue;
        INFO("new_job/" << key);
        Json bad = good;
        bad["new_job"].erase(key);
        refuses(with_materials(bad));
    }
    refuses(read_trade("{", table("materials"), table("rules"), table("cautions")));
    refuses(read_trade(table("stock"), table("materials"), "[]", table("cautions")));
    refuses(read_trade(table("stock"), table("materials"), table("rules"), "{}"));
}

TEST_CASE("a word that no table has is refused, with the word") {
    const auto says = [](const Expected<Trade>& read, const std::string& word) {
        refuses(read);
        CHECK(library().catalogue.say(read.error().what, {}).find(word) != std::string::npos);
    };
    Json materials = Json::parse(table("materials"));
    materials["lift"][0]["id"] = "damp";
    says(with_materials(materials), "damp");
    materials = Json::parse(table("materials"));
    materials["new_job"]["clear_zones"][0]["edge"] = "north";
    says(with_materials(materials), "north");
    materials = Json::parse(table("materials"));
    materials["new_job"]["length"] = "five feet";
    says(with_materials(materials), "length");
    Json rules = Json::parse(table("rules"));
    rules["rules"][0]["joint"] = "elbow";
    says(read_trade(table("stock"), table("materials"), rules.dump(), table("cautions")), "elbow");
    rules = Json::parse(table("rules"));
    rules["rules"][0]["mark"] = "beware";
    says(read_trade(table("stock"), table("materials"), rules.dump(), table("cautions")), "beware");
}

TEST_CASE("every row of the tables has its basis") {
    const Json materials = Json::parse(table("materials"));
    for (const char* list : {"materials", "hanging", "films", "tools", "coats", "lift"}) {
        for (const Json& row : materials[list]) {
            INFO(list << "/" << row["id"]);
            CHECK_FALSE(row["basis"].get<std::string>().empty());
        }
    }
    for (const char* one : {"film_for", "between_sections", "field_paint", "new_job", "thin", "hands_on"}) {
        INFO(one);
        CHECK_FALSE(materials[one]["basis"].get<std::string>().empty());
    }
    // What is named elsewhere in the tables is there.
    const Trade& trade = library().trade;
    for (const std::string& film : {trade.decal_film, trade.mask_film}) {
        CHECK(std::any_of(trade.films.begin(), trade.films.end(), [&](const Film& f) { return f.id == film; }));
    }
    for (const CoatChoice* coat : {&trade.new_job.ground, &trade.new_job.paint, &trade.new_job.clear})
        CHECK(coat_of(trade, coat->coat).known);
    CHECK(find_stock(trade.stock, trade.new_job.stock) != nullptr);
}

TEST_CASE("a new job is what the tables say, and keeps its film through a change of mind") {
    const Job job = new_job(library());
    const Face& face = job.signs.front().faces.front();
    const NewJob& usual = library().trade.new_job;
    CHECK(job.signs.front().blank.clear == usual.clear_zones);
    CHECK(face.layers.at(place_of(face.layers, ground_coat)).coat == usual.ground);
    CHECK(face.layers.at(place_of(face.layers, clear_coat)).coat == usual.clear);
    CHECK(face.colours.front().making.film == film_for(library().trade, Way::PaintThrough));
    Making making = face.colours.front().making;
    make_as(making, Way::PaintThrough, library().trade);
    CHECK(making == face.colours.front().making);
    making.film = "stencil-smooth";
    make_as(making, Way::PaintThrough, library().trade);
    CHECK(making.film == "stencil-smooth");  // it was made so already
    make_as(making, Way::Decal, library().trade);
    CHECK(making.film == "permanent-gloss");
    Library bare = library();
    bare.typefaces.resize(1);
    Job one_typeface = new_job(bare);
    CHECK(lettering(one_typeface).typeface == bare.typefaces[0].name);
}

TEST_CASE("a coat is taken, changed and left out") {
    std::optional<CoatChoice> coat;
    const CoatChoice usual{"water-clear", "", "satin", 2};
    coat_with(coat, "spray-clear", usual);
    CHECK(coat->coat == "spray-clear");
    CHECK(coat->coats == 2);
    coat->coats = 4;
    coat_with(coat, "oil-clear", usual);
    CHECK(coat->coats == 4);
    coat_with(coat, "", usual);
    CHECK_FALSE(coat);
}

TEST_CASE("a job is wanted in a week at noon, until it is wanted no more") {
    Job job = porch_board();
    job.deadline.reset();
    want(job, true, moment("2026-05-04T17:40"));
    CHECK(job.deadline == moment("2026-05-11T12:00"));
    want(job, true, moment("2026-06-04T17:40"));
    CHECK(job.deadline == moment("2026-05-11T12:00"));  // it is wanted already
    want(job, false, moment("2026-05-04T17:40"));
    CHECK_FALSE(job.deadline);
}

TEST_CASE("signs are named, set on a post and taken off, and lettered in another typeface") {
    const Job two = copy_sign(porch_board(), 0, "OARS");
    const Job on = set_on_post(two);
    CHECK(on.post->arms.size() == 2);
    CHECK(off_post(on) == two);
    CHECK(off_post(two) == two);
    CHECK(label_of(name_sign(two, 1, "the lower one").signs[1]) == "the lower one");
    CHECK(label_of(name_sign(two, 1, "").signs[1]) == "OARS");
    CHECK(name_sign(two, 2, "nobody") == two);
    const TypefaceName other = typeface("Bebas Neue");
    const Job set = set_in(two, {1, 0}, other);
    CHECK(set.signs[1].faces[0].lettering.main().typeface == other);
    CHECK(set.signs[0] == two.signs[0]);
    CHECK(set_in(two, {9, 0}, other) == two);
}
