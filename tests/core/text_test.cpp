#include <fstream>
#include <regex>
#include <set>
#include <sstream>

#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

std::string whole(const std::filesystem::path& path) {
    std::ifstream in(path);
    std::ostringstream out;
    out << in.rdbuf();
    return out.str();
}

// Ids of sentences that the sources name, as {"station.word", ...}.
std::set<std::string> ids_in_sources() {
    std::set<std::string> ids;
    const std::regex quoted(
        R"re("((?:measure|moment|blank|lettering|seam|sections|loads|layer|sound|proof|wait|clock|bench|buy|file|typeface|logbook|export|ticket|dimension|cut|alternate|proof)\.[a-z-]+)")re");
    for (const auto& entry :
         std::filesystem::recursive_directory_iterator(std::filesystem::path(SKARVEL_SOURCE) / "src/core")) {
        if (entry.path().extension() != ".cpp") continue;
        const std::string text = whole(entry.path());
        for (std::sregex_iterator it(text.begin(), text.end(), quoted), end; it != end; ++it) ids.insert((*it)[1]);
    }
    return ids;
}

}  // namespace

TEST_CASE("every sentence that the core can say is in the catalogue") {
    const std::set<std::string> ids = ids_in_sources();
    CHECK(ids.size() > 100);
    for (const std::string& id : ids) {
        if (id.ends_with('-')) continue;  // the first half of an id that is put together
        INFO(id);
        CHECK(library().catalogue.has(id));
    }
    for (const Rule& rule : library().trade.rules) {
        INFO(rule.id);
        CHECK(library().catalogue.has("rule." + rule.id));
        CHECK(library().catalogue.has("remedy." + rule.id));
    }
    for (const auto& [step, cautions] : library().trade.step_cautions) {
        for (const std::string& id : cautions) CHECK(library().catalogue.has(id));
    }
}

TEST_CASE("whatever a plan says, it says in whole words") {
    Job broken = porch_board();
    lettering(broken).words = "BOÅT→HOUSE";
    making(broken).film = "something from the drawer";
    coat_in(broken, ground_coat).coat = "grandfather's paint";
    Job decal = long_board();
    turn_clear(decal);
    put_in(face_of(decal), new_layer(decal, LayerKind::Coat, "antique-glaze", library().trade), 9, library().trade);
    for (const Job& job : {porch_board(), long_board(), broken, decal}) {
        const Plan plan = plan_of(job);
        std::vector<Reason> said;
        for (const Problem& p : plan.problems) said.insert(said.end(), {p.what, p.remedy});
        for (const ColourPlan& f : plan.colours) {
            said.insert(said.end(), f.cut.loads->why.begin(), f.cut.loads->why.end());
            for (const Seam& s : f.cut.loads->seams) said.push_back(s.why);
            for (const Finding& x : f.method->findings) said.insert(said.end(), {x.why, x.remedy});
            for (const ShownLayer& l : f.method->layers) {
                said.insert(said.end(), {l.name, l.detail});
                if (l.sound) said.push_back(*l.sound);
            }
            for (const ShoppingItem& i : f.shopping) said.insert(said.end(), {i.what, i.how_much});
        }
        for (const Step& s : plan.bench->steps) said.insert(said.end(), {s.name, s.instruction, s.check, s.wait_why});
        for (const Reason& reason : said) {
            if (reason.id.empty()) continue;
            const std::string words = library().catalogue.say(reason, {});
            INFO(reason.id << ": " << words);
            CHECK(words != reason.id);
            CHECK(words.find('?') == std::string::npos);
            CHECK(words.find('{') == std::string::npos);
        }
    }
}

TEST_CASE("sentences carry lengths in the unit that is shown, and counts with their noun") {
    const Catalogue& c = library().catalogue;
    const Reason one{"ticket.sections", {{"sections", std::int64_t{1}}, {"loads", std::int64_t{1}}}};
    const Reason two{"ticket.sections", {{"sections", std::int64_t{3}}, {"loads", std::int64_t{2}}}};
    CHECK(c.say(one, {}) == "1 in 1 load");
    CHECK(c.say(two, {}) == "3 in 2 loads");
    const Reason cap{"lettering.largest-cap", {{"cap", 5.5_in}}};
    CHECK(c.say(cap, {}) == "caps of 5 1/2 in would fit");
    CHECK(c.say(cap, {Unit::Millimetre, 16}) == "caps of 139.7 mm would fit");
    CHECK(c.say(Reason{"no.such", {}}, {}) == "no.such");
}

TEST_CASE("every sentence can be said: its pattern is whole, and what it lacks is a question mark") {
    const Catalogue& c = library().catalogue;
    CHECK(c.patterns().size() > 1500);
    for (const auto& [id, pattern] : c.patterns()) {
        const std::string said = c.say({id, {}}, {});
        INFO(id << ": " << pattern);
        CHECK((said != id || pattern == id));  // a pattern that cannot be read is said as its id
        CHECK(said.find('{') == std::string::npos);
        CHECK(said.find('}') == std::string::npos);
    }
}

TEST_CASE("plurals, sentences in sentences, and marks that a pattern could take for its own") {
    const auto c = read_catalogue(R"json({
        "loads": "{loads, plural, one {# load} other {# loads}}",
        "quote": "the board's own {what}",
        "list": "{all}",
        "far": "{there} is {there_far}",
        "broken": "{loads, plural, one {"
    })json");
    REQUIRE(c.has_value());
    const auto say = [&](const Reason& reason) { return c->say(reason, {}); };
    CHECK(say({"loads", {{"loads", std::int64_t{1}}}}) == "1 load");
    CHECK(say({"loads", {{"loads", std::int64_t{0}}}}) == "0 loads");
    CHECK(say({"loads", {{"loads", std::int64_t{1234}}}}) == "1,234 loads");
    CHECK(say({"quote", {{"what", std::string("{edge} # 'as is'")}}}) == "the board's own {edge} # 'as is'");
    const Reason one{"loads", {{"loads", std::int64_t{1}}}};
    const Reason two{"loads", {{"loads", std::int64_t{2}}}};
    CHECK(say({"list", {{"all", std::vector<Reason>{one, two}}}}) == "1 load, 2 loads");
    CHECK(say({"far", {{"there", 120_in}}}) == "120 in is 10 ft");
    CHECK(say({"broken", {}}) == "broken");
    CHECK(show_moment(moment("2026-05-09T07:05"), true) == "Sat 9 May 07:05");
    CHECK(show_moment(moment("2026-12-31T23:59"), false) == "Thu 23:59");
}

TEST_CASE("waits, weights, forces and distances are said as a maker says them") {
    const Display inches{Unit::Inch, 16};
    const Display metric{Unit::Millimetre, 1};
    const std::vector<std::pair<int, const char*>> waits{{0, "0 min"},        {25, "25 min"},    {60, "1 h"},
                                                         {320, "5 h 20 min"}, {71 * 60, "71 h"}, {72 * 60, "3 d"},
                                                         {76 * 60, "3 d 4 h"}};
    for (const auto& [minutes, said] : waits) CHECK(show_minutes(Minutes(minutes)) == said);
    // 1 lb is 0.45359237 kg, 1 lbf 4.4482216 N (1959 agreement; standard gravity).
    CHECK(show_weight(1500, metric) == "1.5 kg");
    CHECK(show_weight(1500, inches) == "3.3 lb");
    CHECK(show_force(20, metric) == "20 N");
    CHECK(show_force(44.482216, inches) == "10.0 lbf");
    CHECK(show_far(Length::inches(120), inches) == "10 ft");
    CHECK(show_far(Length::inches(120), metric) == "3.05 m");
}

TEST_CASE("a damaged catalogue is refused") {
    CHECK_FALSE(read_catalogue("{ \"a\": "));
    CHECK_FALSE(read_catalogue("[1]"));
    CHECK_FALSE(read_catalogue(R"({"a": 1})"));
}

TEST_CASE("a folder of the core includes only earlier ones, and none includes Qt") {
    static const std::vector<std::string> order = {"values",    "measure", "text",   "geometry", "drawing", "blank",
                                                   "lettering", "artwork", "making", "sections", "loads",   "method",
                                                   "laying",    "clock",   "cost",   "bench",    "job",     "picture",
                                                   "sheets",    "files",   "proof",  "logbook"};
    const auto place = [](const std::string& folder) {
        return std::find(order.begin(), order.end(), folder) - order.begin();
    };
    const std::filesystem::path core = std::filesystem::path(SKARVEL_SOURCE) / "src/core";
    const std::regex include(R"(#include\s*[<"]([^">]+)[">])");
    int seen = 0;
    for (const auto& entry : std::filesystem::recursive_directory_iterator(core)) {
        if (!entry.is_regular_file()) continue;
        const std::string folder = std::filesystem::relative(entry.path(), core).begin()->string();
        INFO(entry.path().string());
        REQUIRE(place(folder) < static_cast<long>(order.size()));
        const std::string text = whole(entry.path());
        for (std::sregex_iterator it(text.begin(), text.end(), include), end; it != end; ++it) {
            const std::string what = (*it)[1];
            INFO(what);
            CHECK_FALSE(std::regex_search(what, std::regex("^Q[A-Z]|^Qt")));
            const std::string first = what.substr(0, what.find('/'));
            if (what.find('/') == std::string::npos || place(first) == static_cast<long>(order.size())) continue;
            CHECK(place(first) <= place(folder));
            ++seen;
        }
    }
    CHECK(seen > 50);
    const Ran linked = run(std::string("ldd ") + SKARVEL_CLI);
    CHECK(linked.out.find("libharfbuzz") != std::string::npos);
    CHECK(linked.out.find("Qt") == std::string::npos);
}
