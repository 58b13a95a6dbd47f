// Wrong and hostile input at every door of the core: nothing crashes, and the reason is said.
#include <nlohmann/json.hpp>

#include "files/cut_file.h"
#include "files/job_file.h"
#include "files/pdf.h"
#include "files/plan_json.h"
#include "job/commands.h"
#include "proof/reading.h"
#include "sheets/sheets.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

// One place of a JSON document changed at random to something else.
void spoil(nlohmann::json& json) {
    nlohmann::json* at = &json;
    for (int depth = 0; depth < 12 && !at->empty() && (at->is_object() || at->is_array()); ++depth) {
        auto next = at->begin();
        std::advance(next, *rc::gen::inRange<std::size_t>(0, at->size()));
        at = &*next;
        if (*rc::gen::inRange(0, 6) == 0) break;
    }
    const nlohmann::json others[] = {nullptr,
                                     true,
                                     -1,
                                     4.5,
                                     "",
                                     "x",
                                     "1e9 m",
                                     nlohmann::json::array(),
                                     nlohmann::json::object(),
                                     1'000'000'000'000LL};
    *at = others[*rc::gen::inRange(0, 10)];
}

// Whatever a plan holds can be said, printed, exported and written.
void use(const Job& job) {
    const Shop shop = usual_shop();
    const Plan p = plan(job, shop, library(), moment("2026-05-04T18:00"));
    (void)write_plan(job, p, shop, library());
    (void)cut_files(p, shop);
    RC_ASSERT(write_pdf(sheets(job, p, shop, library()), library(), job.title).has_value());
    for (const Problem& problem : p.problems) RC_ASSERT(!library().catalogue.say(problem.what, {}).empty());
}

}  // namespace

TEST_CASE("a job file spoiled anywhere is read or refused with words, and what was read can be planned") {
    Job job = porch_board();
    job = tick(job, plan_of(job), StepId{"1/cut/BOAT+HOUS"}, moment("2026-05-04T19:00"));
    const nlohmann::json good = nlohmann::json::parse(write_job(job));
    CHECK(rc::check([&] {
        nlohmann::json json = good;
        const auto times = *rc::gen::inRange(1, 4);
        for (int i = 0; i < times; ++i) spoil(json);
        const auto read = read_job(json.dump());
        if (!read) {
            RC_ASSERT(library().catalogue.has(read.error().what.id));
            return;
        }
        use(*read);
        RC_ASSERT(*read_job(write_job(*read)) == *read);
    }));
}

TEST_CASE("a job file cut off or with bytes changed is never half read") {
    const std::string good = write_job(porch_board());
    CHECK(rc::check([&] {
        std::string text = good.substr(0, *rc::gen::inRange<std::size_t>(0, good.size() - 2));
        RC_ASSERT(!read_job(text).has_value());
        text = good;
        text[*rc::gen::inRange<std::size_t>(0, text.size())] = static_cast<char>(*rc::gen::inRange(0, 256) - 128);
        const auto read = read_job(text);
        if (read) RC_ASSERT(!read->signs.empty());
    }));
}

TEST_CASE("extreme blanks and letterings plan to something or to a reason") {
    CHECK(rc::check([] {
        Job job = *rc::gen::arbitrary<bool>() ? porch_board() : long_board();
        Blank& blank = job.signs.front().blank;
        const auto extreme = [] {
            return measure_of(Length::sixtyfourths(*rc::gen::element(0, 1, 3, 64, 700, 4000)), {});
        };
        blank.length = *rc::gen::arbitrary<bool>() ? extreme() : measure("470");
        blank.margin = extreme();
        for (ClearZone& zone : blank.clear) zone.depth = extreme();
        if (*rc::gen::arbitrary<bool>()) blank.width = extreme();
        lettering(job).letter_gap = extreme();
        lettering(job).line_gap = extreme();
        lettering(job).size = measure_of(Length::sixtyfourths(*rc::gen::element(0, 1, 64, 700, 4000)), {});
        lettering(job).sizing = *rc::gen::arbitrary<bool>() ? Sizing::Snug : Sizing::CapHeight;
        making(job).lap = extreme();
        if (*rc::gen::arbitrary<bool>()) making(job).margin = extreme();
        use(job);
    }));
}

TEST_CASE("extreme mats and hours plan to something or to a reason") {
    CHECK(rc::check([] {
        Shop shop = usual_shop();
        const auto size = [] { return Length::sixtyfourths(*rc::gen::element(0, 1, 150, 300, 1000, 50'000)); };
        shop.mat.usable = {size(), size()};
        shop.mat.width = size();
        shop.mat.length = size();
        if (*rc::gen::arbitrary<bool>()) shop.hours = {};
        const Plan p = plan(porch_board(), shop, library(), moment("2026-05-04T18:00"));
        (void)write_plan(porch_board(), p, shop, library());
        (void)cut_files(p, shop);
        RC_ASSERT(write_pdf(sheets(porch_board(), p, shop, library()), library(), "x").has_value());
    }));
}

TEST_CASE("words of any script and length plan to something or to a reason") {
    for (const char* words :
         {"שלום", "مرحبا", "日本", "e\u0301\u0301\u0301", "\u200d\u200d", "A\tB", "\n\n\nA\n\n", "𝔘𝔫𝔦", "a\u0000b"}) {
        Job job = porch_board();
        lettering(job).words = words;
        for (const Arrangement arrangement : {Arrangement::Stack, Arrangement::Level}) {
            lettering(job).arrangement = arrangement;
            const Plan plan = plan_of(job);
            INFO(words);
            CHECK((!plan.colours.front().face->lettering->letters.empty() ||
                   plan.mark_of(Station::Lettering) == Mark::Stop));
        }
    }
    Job essay = porch_board();
    for (int i = 0; i < 60; ++i) lettering(essay).words += "MESSING ABOUT IN BOATS ";
    CHECK(plan_of(essay).mark_of(Station::Lettering) == Mark::Stop);  // the gaps alone fill the room
    lettering(essay).arrangement = Arrangement::Level;
    lettering(essay).letter_gap = measure("0");
    CHECK_FALSE(plan_of(essay).colours.front().cut.loads->sections.empty());
}

TEST_CASE("a cut file whose numbers are as long as a book is read or refused with words") {
    const std::string digits(300'000, '1');
    const auto drawing = [](const std::string& width, const std::string& box) {
        return "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"" + width + "\" height=\"10mm\" viewBox=\"" + box +
               "\"><path d=\"M0 0 L5 0 L5 5 Z\"/></svg>";
    };
    const auto read = [](const std::string& svg) { return read_cut_file(svg, "load-1.svg", CutFormat::Svg); };
    REQUIRE(read(drawing("10mm", "0 0 10 10")));
    CHECK(read(drawing("10mm", "0 0 10 10"))->front().points[1].x == to_grid(5_mm));
    CHECK(read(drawing("1cm", "0 0 10 10"))->front().points[1].x == to_grid(5_mm));
    for (const std::string& svg :
         {drawing(digits + "mm", "0 0 10 10"), drawing("10mm", "0 0 " + digits + " 10"),
          drawing("10mm", digits + " 0 10 10"), drawing("10" + std::string(300'000, 'm'), "0 0 10 10"),
          drawing("10mm", "0 0 10"), drawing("10mm", "0 0 0 10"), drawing("-10mm", "0 0 10 10"),
          drawing("10mm", "0 0 nan 10")}) {
        const auto none = read(svg);
        REQUIRE_FALSE(none);
        CHECK_FALSE(library().catalogue.say(none.error().what, {}).empty());
    }
}
