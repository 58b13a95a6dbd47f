#include "sheets/page_text.h"

#include <rapidcheck.h>

#include <algorithm>
#include <cctype>

#include "sheets/sheets.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

std::string without_spaces(const std::string& text) {
    std::string out;
    std::copy_if(text.begin(), text.end(), std::back_inserter(out),
                 [](char c) { return std::isspace(static_cast<unsigned char>(c)) == 0; });
    return out;
}

}  // namespace

TEST_CASE("lines are no wider than the room, and lose no letter") {
    const PageText text(library());
    CHECK(text.width("", 4) == 0);
    CHECK(text.width("WWWW", 4) > 2 * text.width("iiii", 4));  // measured, not counted
    CHECK(text.width("wide", 8) == Approx(2 * text.width("wide", 4)));
    CHECK(text.lines("short", 100, 4) == std::vector<std::string>{"short"});
    CHECK(text.lines("", 100, 4) == std::vector<std::string>{""});
    CHECK(text.lines("one\ntwo", 100, 4) == std::vector<std::string>{"one", "two"});
    CHECK(rc::check([&] {
        std::string words;
        const int count = *rc::gen::inRange(1, 30);
        for (int i = 0; i < count; ++i) {
            const auto letters = *rc::gen::container<std::string>(static_cast<std::size_t>(*rc::gen::inRange(1, 14)),
                                                                  rc::gen::elementOf(std::string("abcMWil-,./é")));
            words += (i == 0 ? "" : *rc::gen::element<std::string>(" ", "  ", "\n")) + letters;
        }
        // Half of a letter of two bytes is no letter.
        for (std::size_t at = 0; (at = words.find_first_of("\xc3\xa9", at)) != std::string::npos;) {
            words.replace(at, 1, "e");
        }
        const double room = *rc::gen::inRange(12, 120);
        std::string all;
        for (const std::string& line : text.lines(words, room, 4)) {
            RC_ASSERT(text.width(line, 4) <= room);
            all += line;
        }
        RC_ASSERT(without_spaces(all) == without_spaces(words));
    }));
}

TEST_CASE("a name that is wider than the page is parted, never dropped or printed over the edge") {
    const PageText text(library());
    const std::string name(80, 'M');
    const auto lines = text.lines("For " + name + " with love", 60, 5, true);
    CHECK(lines.size() > 3);
    std::string all;
    for (const std::string& line : lines) {
        CHECK(text.width(line, 5, true) <= 60);
        all += line;
    }
    CHECK(without_spaces(all) == "For" + name + "withlove");
}

TEST_CASE("the proof holds every name of a long list, counts them, and is signed on its last page") {
    Job job = long_board();
    std::string names;
    for (int i = 1; i <= 120; ++i) names += (i > 1 ? "\n" : "") + std::string("Crew member no. ") + std::to_string(i);
    job.signs.front().faces.front().lettering.main().words = names;
    const std::vector<Page> pages = sheets(job, plan_of(job), usual_shop(), library());
    std::vector<std::string> printed;
    std::size_t signed_on = 0;
    std::size_t proofs = 0;
    std::size_t last_proof = 0;
    for (std::size_t i = 0; i < pages.size(); ++i) {
        if (!pages[i].title.starts_with("Proof")) continue;
        ++proofs;
        last_proof = i;
        for (const auto& mark : pages[i].marks) {
            if (const auto* run = std::get_if<TextRun>(&mark)) {
                printed.push_back(run->text);
                CHECK(run->at.y <= pages[i].height_mm);
                if (run->text == "read and right") signed_on = i;
            }
        }
    }
    CHECK(proofs > 1);
    CHECK(signed_on == last_proof);
    for (int i = 1; i <= 120; ++i) {
        const std::string name = "Crew member no. " + std::to_string(i);
        CHECK(std::count(printed.begin(), printed.end(), name) == 1);
    }
    CHECK(std::count(printed.begin(), printed.end(), "480 words in 120 lines") == 1);
}
