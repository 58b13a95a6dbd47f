// What is read, written and promised of the job file follows from one description: here they are held against one
// another, and against files that somebody else changed.
#include <rapidcheck.h>

#include <nlohmann/json.hpp>

#include "job/face_commands.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

using Json = nlohmann::ordered_json;

// Every value of a file, by the way to it.
void each_place(Json& json, const std::string& pointer, std::vector<std::string>& places) {
    places.push_back(pointer);
    if (json.is_object()) {
        for (auto& [key, value] : json.items()) {
            std::string escaped = key;
            for (std::size_t at = 0; (at = escaped.find('/', at)) != std::string::npos; at += 2)
                escaped.replace(at, 1, "~1");
            each_place(value, pointer + "/" + escaped, places);
        }
    } else if (json.is_array()) {
        for (std::size_t i = 0; i < json.size(); ++i) each_place(json[i], pointer + "/" + std::to_string(i), places);
    }
}

Job full_job() {
    Job job = long_board();
    job.signs.front().blank.tape.taken[2] = measure("5 1/2");
    job.signs.front().blank.side_margin[1] = measure("1");
    job.signs.front().blank.fields.emplace_back();
    job = add_art(job, {}, HeightRuler{}, library().typefaces);
    job = add_art(job, {}, Border{}, library().typefaces);
    job.deadline = moment("2026-05-09T12:00");
    job.post = Post{};
    job.signs.front().faces.front().lettering.main().rim = Rim{measure("1/8"), first_colour};
    return job;
}

}  // namespace

TEST_CASE("whatever one value of a file becomes, it is read or refused with its place") {
    const Json good = Json::parse(write_job(full_job()));
    Json copy = good;
    std::vector<std::string> places;
    each_place(copy, "", places);
    REQUIRE(places.size() > 100);
    const std::vector<Json> others{nullptr,
                                   true,
                                   -1,
                                   1'000'000'000'000'000'000,
                                   1.5,
                                   "",
                                   "nonsense",
                                   "-3 in",
                                   "#12345g",
                                   Json::array(),
                                   Json::object(),
                                   Json::array({Json::array()})};
    for (const std::string& place : places) {
        for (const Json& other : others) {
            Json bad = good;
            bad[Json::json_pointer(place)] = other;
            INFO(place << " = " << other.dump());
            const auto read = read_job(bad.dump());
            if (read) {
                // What was taken for good is the same once more.
                const auto again = read_job(write_job(*read));
                REQUIRE(again.has_value());
                CHECK(*again == *read);
            } else {
                CHECK(read.error().what.id.starts_with("file."));
                CHECK(library().catalogue.has(read.error().what.id));
                CHECK_FALSE(read.error().where.place.empty());
            }
        }
    }
}

TEST_CASE("a key that nobody knows is refused wherever it stands, a missing one where it must be there") {
    const Json good = Json::parse(write_job(full_job()));
    Json copy = good;
    std::vector<std::string> places;
    each_place(copy, "", places);
    int refused_keys = 0;
    for (const std::string& place : places) {
        Json bad = good;
        Json& at = bad[Json::json_pointer(place)];
        if (!at.is_object()) continue;
        const bool free_keys = place == "/bench/ticks" || place == "/bench/held";
        at["surprise"] = 1;
        INFO(place);
        const auto read = read_job(bad.dump());
        REQUIRE_FALSE(read.has_value());
        CHECK(read.error().what.id == (free_keys ? "file.not-text" : "file.unknown-key"));
        ++refused_keys;
    }
    CHECK(refused_keys > 15);
    for (const char* must : {"/title", "/made", "/signs/0/id", "/signs/0/blank/margin", "/signs/0/faces/0/finish/seal",
                             "/signs/0/faces/0/art/0/is/longMark", "/signs/0/faces/0/lettering/texts/0/colour"}) {
        Json bad = good;
        const Json::json_pointer at(must);
        REQUIRE(bad.contains(at));
        bad[at.parent_pointer()].erase(at.back());
        const auto read = read_job(bad.dump());
        INFO(must);
        REQUIRE_FALSE(read.has_value());
        CHECK(read.error().what.id == "file.missing-key");
    }
}

TEST_CASE("what is as it comes is not written, and is read as it comes") {
    const Json plain = Json::parse(write_job(porch_board()));
    const Json& blank = plain["signs"][0]["blank"];
    for (const char* left_out : {"head", "tape", "frame", "holding", "fields", "grit", "fromBehind", "margins"})
        CHECK_FALSE(blank.contains(left_out));
    CHECK_FALSE(plain["signs"][0]["faces"][0].contains("art"));
    CHECK(plain.contains("bench"));
    CHECK(read_job(plain.dump()).value() == porch_board());
}

TEST_CASE("the schemas name every key that is written") {
    const Json schema = Json::parse(job_schema());
    const auto& definitions = schema["definitions"];
    const Json written = Json::parse(write_job(full_job()));
    const auto names = [&](const Json& object, const char* definition) {
        for (const auto& [key, value] : object.items()) {
            INFO(definition << "/" << key);
            CHECK(definitions[definition]["properties"].contains(key));
        }
    };
    names(written, "job");
    names(written["signs"][0]["blank"], "blank");
    names(written["signs"][0]["faces"][0], "face");
    names(written["signs"][0]["faces"][0]["lettering"]["texts"][0], "text");
    names(written["signs"][0]["faces"][0]["art"][0]["is"], "height-ruler");
    CHECK(definitions["height-ruler"]["required"].size() == 10);
    CHECK(Json::parse(shop_schema())["definitions"]["machine"]["properties"].contains("knifeOffset"));
}
