// A word that fits a load whole is never parted, unless the maker asks.
#include <rapidcheck.h>

#include <map>
#include <set>

#include "job/alternatives.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

Job lines(const std::string& words, Length cap, Length wide, Way way) {
    Job job = porch_board();
    Blank& blank = job.signs.front().blank;
    blank.kind = Kind::Panel;
    blank.stock.clear();
    blank.stands = Stands::Level;
    blank.clear.clear();
    blank.length = measure_of(wide, {});
    blank.width = measure_of(60_in, {});
    Text& text = lettering(job);
    text.words = words;
    text.arrangement = Arrangement::Level;
    text.letter_gap = measure("0");
    text.line_gap = measure("2");
    text.sizing = Sizing::CapHeight;
    text.size = measure_of(cap, {});
    make_as(making(job), way, library().trade);
    return job;
}

std::vector<std::string> sections_of_first(const Plan& plan) {
    std::vector<std::string> letters;
    for (const Section& s : plan.colours.front().cut.loads->sections) letters.push_back(s.letters);
    return letters;
}

// The words of a plan: the pieces of each, as far as they are no art.
std::vector<std::vector<Piece>> words_of(const ColourPlan& colour) {
    std::vector<std::vector<Piece>> words;
    std::map<int, std::vector<Piece>> by_line;
    for (const Piece& p : *colour.cut.pieces) by_line[p.line].push_back(p);
    for (auto& [line, pieces] : by_line) {
        std::sort(pieces.begin(), pieces.end(), [](const Piece& a, const Piece& b) { return a.first < b.first; });
        for (const Piece& p : pieces) {
            if (p.starts_word || words.empty() || words.back().back().line != line) words.emplace_back();
            words.back().push_back(p);
        }
    }
    return words;
}

bool fits_whole(const std::vector<Piece>& word, const ColourPlan& colour) {
    Box box;
    for (const Piece& p : word) box = around(box, p.shape.bounds());
    box = grown(box, colour.cut.making.margin);
    const std::int64_t across = to_grid(colour.cut.bed.usable.across);
    const std::int64_t along = to_grid(colour.cut.bed.usable.along);
    return (box.width() <= across && box.height() <= along) || (box.height() <= across && box.width() <= along);
}

int in_how_many(const std::vector<Piece>& word, const LoadsPlan& loads) {
    std::set<std::size_t> sections;
    for (const Piece& p : word) {
        for (std::size_t s = 0; s < loads.sections.size(); ++s) {
            for (const Piece& held : loads.sections[s].pieces) {
                if (held.first == p.first && !intersect(held.shape, p.shape).empty()) sections.insert(s);
            }
        }
    }
    return static_cast<int>(sections.size());
}

}  // namespace

TEST_CASE("words that fit a load whole are cut whole, as decal and as mask") {
    for (const Way way : {Way::Decal, Way::PaintThrough}) {
        const Plan welcome = plan_of(lines("WELCOME ABOARD", 3_in, 40_in, way));
        CHECK(sections_of_first(welcome) == std::vector<std::string>{"WELCOME", "ABOARD"});
        CHECK(welcome.colours.front().cut.loads->words_parted == 0);
        const Plan ferry = plan_of(lines("THE FERRY LANDS HERE\nAT HALF PAST FOUR", 2.5_in, 60_in, way));
        for (const auto& word : words_of(ferry.colours.front()))
            CHECK(in_how_many(word, *ferry.colours.front().cut.loads) == 1);
    }
}

TEST_CASE("a word longer than the mat is parted, its neighbours are not") {
    const Plan plan = plan_of(lines("THE BOATHOUSE INN", 5_in, 90_in, Way::Decal));
    const ColourPlan& colour = plan.colours.front();
    const auto words = words_of(colour);
    REQUIRE(words.size() == 3);
    CHECK(in_how_many(words[0], *colour.cut.loads) == 1);
    CHECK(in_how_many(words[1], *colour.cut.loads) > 1);
    CHECK(in_how_many(words[2], *colour.cut.loads) == 1);
    CHECK(colour.cut.loads->words_parted > 0);
}

TEST_CASE("letters of a stack stand alone: no word is parted between them") {
    const Plan plan = plan_of(porch_board());
    CHECK(plan.colours.front().cut.loads->sections.size() > 1);
    CHECK(plan.colours.front().cut.loads->words_parted == 0);
}

TEST_CASE("whoever asks has words parted where that saves a load or film, and other ways offer both") {
    const Job whole = lines("WELCOME ABOARD", 2.75_in, 60_in, Way::Decal);
    Job parted = whole;
    making(parted).wishes.part_words = true;
    const LoadsPlan a = *plan_of(whole).colours.front().cut.loads;
    const LoadsPlan b = *plan_of(parted).colours.front().cut.loads;
    CHECK(std::pair(b.loads.size(), b.film_total) < std::pair(a.loads.size(), a.film_total));
    CHECK(b.words_parted > a.words_parted);
    Shop habit = usual_shop();
    habit.part_words = true;
    CHECK(plan(whole, habit, library(), moment("2026-05-04T18:00")).colours.front().cut.loads->words_parted ==
          b.words_parted);
    const auto offered = [](const Job& job, const char* id) {
        const auto all = alternatives(job, first_colour, usual_shop(), library(), moment("2026-05-04T18:00"), {});
        return std::any_of(all.begin(), all.end(), [&](const Alternative& x) { return x.what.id == id; });
    };
    CHECK(offered(whole, "alternative.words-parted"));
    CHECK(offered(parted, "alternative.words-whole"));
    CHECK_FALSE(offered(lines("WELCOME ABOARD", 1_in, 40_in, Way::Decal), "alternative.words-parted"));
}

TEST_CASE("of any words on any lines, none that fits a load is in two sections") {
    CHECK(rc::check([] {
        std::string words;
        const int rows = *rc::gen::inRange(1, 4);
        for (int row = 0; row < rows; ++row) {
            const int count = *rc::gen::inRange(1, 5);
            words += row > 0 ? "\n" : "";
            for (int i = 0; i < count; ++i) {
                words += (i > 0 ? " " : "") + *rc::gen::element<std::string>("THE", "FERRY", "TEA", "HARBOUR", "OARS",
                                                                             "AT", "SLIPWAY", "INN", "BOATHOUSE");
            }
        }
        const Length cap = Length::inches(*rc::gen::inRange(1, 6));
        const Way way = *rc::gen::element(Way::Decal, Way::PaintThrough);
        const Plan plan = plan_of(lines(words, cap, 200_in, way));
        const ColourPlan& colour = plan.colours.front();
        RC_PRE(!colour.cut.loads->sections.empty());
        for (const auto& word : words_of(colour)) {
            if (fits_whole(word, colour)) RC_ASSERT(in_how_many(word, *colour.cut.loads) == 1);
        }
    }));
}
