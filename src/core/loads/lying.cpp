#include "loads/lying.h"

#include <algorithm>

namespace skarvel {
namespace {

struct Lying {
    const Section* section = nullptr;
    Placement placement;
    Box box;
    [[nodiscard]] Region film() const { return lay_on_mat(*section, placement).film; }
};

std::vector<Lying> on(const Load& load, const LoadsPlan& plan) {
    std::vector<Lying> all;
    const auto add = [&](const Section& section, const Placement& p) {
        all.push_back({&section, p, box_on_mat(section.film.bounds(), p)});
    };
    for (const Placement& p : load.placements) add(plan.sections[p.section], p);
    for (const Guest& g : load.guests) add(g.section, g.placement);
    return all;
}

}  // namespace

void check_lying(LoadsPlan& plan, const Mat& mat) {
    const Box usable{{0, 0}, {to_grid(mat.usable.across), to_grid(mat.usable.along)}};
    const Region bed = Region::rectangle(usable);
    std::vector<Problem> wrong;
    const auto say = [&](const Lying& a, const Lying& b) {
        wrong.push_back({{"loads.lies-wrong", {{"letters", a.section->letters}, {"other", b.section->letters}}},
                         Station::Sections,
                         {"loads.lies-wrong-remedy", {}},
                         Mark::Stop});
    };
    for (const Load& load : plan.loads) {
        if (load.cut || !load.carried_by.empty()) continue;
        const std::vector<Lying> lying = on(load, plan);
        for (std::size_t i = 0; i < lying.size(); ++i) {
            const Lying& a = lying[i];
            if (!usable.holds(a.box) && !subtract(a.film(), bed).empty()) say(a, a);
            for (std::size_t k = 0; k < i; ++k) {
                const Lying& b = lying[k];
                if (!common(a.box, b.box).empty() && !intersect(a.film(), b.film()).empty()) say(a, b);
            }
        }
    }
    for (Problem& p : wrong) {
        if (std::find(plan.problems.begin(), plan.problems.end(), p) == plan.problems.end())
            plan.problems.push_back(std::move(p));
    }
}

}  // namespace skarvel
