#include "job/remarks.h"

#include <algorithm>

#include "sections/too_large.h"

namespace skarvel {
namespace {

void say_once(Plan& plan, Problem problem) {
    if (std::find(plan.problems.begin(), plan.problems.end(), problem) == plan.problems.end())
        plan.problems.push_back(std::move(problem));
}

}  // namespace

void say_thin(Plan& plan, std::size_t first) {
    ThinPlan all;
    for (std::size_t i = first; i < plan.faces.size(); ++i) {
        const ThinPlan& thin = *plan.faces[i].thin;
        all.strokes += thin.strokes;
        all.gaps += thin.gaps;
        all.keepers += thin.keepers;
        all.bolder = std::max(all.bolder, thin.bolder);
        all.places.insert(all.places.end(), thin.places.begin(), thin.places.end());
    }
    const auto least = [&](Thin what) {
        Length width;
        for (const ThinPlace& p : all.places) {
            if (p.what == what && (width == Length{} || p.width < width)) width = p.width;
        }
        return width;
    };
    const auto say = [&](int count, Thin what, const char* id, Reason remedy) {
        if (count == 0) return;
        plan.problems.push_back({{id, {{"places", std::int64_t{count}}, {"least", least(what)}}},
                                 "lettering",
                                 std::move(remedy),
                                 Mark::Look});
    };
    say(all.strokes, Thin::Stroke, "thin.strokes", {"thin.grow", {{"by", all.bolder}}});
    say(all.gaps, Thin::Gap, "thin.gaps", {"thin.wider-gaps", {}});
    say(all.keepers, Thin::Keeper, "thin.keepers", {"thin.larger", {}});
}

void say_no_bed(Plan& plan, const Shop& shop, const Making& making, const Mat& bed) {
    const bool unknown = !making.bed.empty() && bed_name(bed) != making.bed;
    if (!shop.machines.empty() && !unknown) return;
    Problem problem{{"loads.no-machine", {{"bed", bed.name}}}, "sections", {"loads.no-machine-remedy", {}}, Mark::Look};
    if (!shop.machines.empty()) problem.what = {"loads.no-bed", {{"asked", making.bed}, {"bed", bed.name}}};
    say_once(plan, std::move(problem));
}

void say_too_large(Plan& plan, const Shop& shop, const Making& making, const std::string& colour, const FacePlan& fp) {
    if (fp.loads->seams.empty()) return;
    const bool printed = is_printed(fp.making);
    std::vector<OtherBed> others;
    for (const Mat& bed : beds_of(shop.machines)) {
        if (bed.print.has_value() != printed) continue;
        Making there = making;
        there.bed = bed_name(bed);
        others.push_back({bed.name, bed.machine, bed_for(shop, there, printed, colour).usable, bed.roll});
    }
    Room room = fp.bed.usable;
    room.slants = making.wishes.any_angle;
    std::vector<Problem> found = too_large(fp.loads->seams, *fp.pieces, fp.blank->face, room, fp.making, others);
    for (Problem& problem : found) say_once(plan, std::move(problem));
}

void say_short(Plan& plan) {
    for (const FilmCost& film : plan.film) {
        if (film.left <= Length{} || film.left >= film.needed || film.to_buy == 0) continue;
        std::vector<std::pair<std::string, Argument>> buy{{"buy", film.sold_by * film.to_buy}};
        if (film.buy_cents) buy.emplace_back("cost", money(*film.buy_cents));
        plan.problems.push_back({{"film.short", {{"film", film.name}, {"needed", film.needed}, {"left", film.left}}},
                                 "sections",
                                 {film.buy_cents ? "film.short-priced" : "film.short-remedy", std::move(buy)},
                                 Mark::Look});
    }
}

}  // namespace skarvel
