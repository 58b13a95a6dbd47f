#include "job/remarks.h"

#include <algorithm>

#include "sections/too_large.h"

namespace skarvel {
namespace {

void say_once(std::vector<Problem>& problems, Problem problem) {
    if (std::find(problems.begin(), problems.end(), problem) == problems.end()) problems.push_back(std::move(problem));
}

// A text by the words it begins with, art by what it is.
std::string called(const Face& face, const ThingId& thing) {
    for (const Text& t : face.lettering.texts) {
        if (t.id == thing) return t.words.substr(0, t.words.find('\n'));
    }
    for (const Art& a : face.art) {
        if (a.id == thing) return kind_of(a);
    }
    return thing.name;
}

}  // namespace

void say_thin(std::vector<Problem>& problems, const std::vector<ColourPlan>& colours) {
    ThinPlan all;
    for (const ColourPlan& colour : colours) {
        const ThinPlan& thin = *colour.cut.thin;
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
        problems.push_back({{id, {{"places", std::int64_t{count}}, {"least", least(what)}}},
                            Station::Lettering,
                            std::move(remedy),
                            Mark::Look});
    };
    say(all.strokes, Thin::Stroke, "thin.strokes", {"thin.grow", {{"by", all.bolder}}});
    say(all.gaps, Thin::Gap, "thin.gaps", {"thin.wider-gaps", {}});
    say(all.keepers, Thin::Keeper, "thin.keepers", {"thin.larger", {}});
}

void say_covered(std::vector<Problem>& problems, const Face& face, const ArtPlan& art, const LetteringPlan& lettering) {
    constexpr double speck_mm2 = 1;
    for (std::size_t i = 0; i < face.art.size() && i < art.parts.size(); ++i) {
        if (!std::holds_alternative<PlacedDrawing>(face.art[i].kind)) continue;
        std::optional<std::string> covered;
        for (const PlacedLetter& letter : lettering.letters) {
            if (covered || common(art.boxes[i], letter.ink.bounds()).empty()) continue;
            for (const ArtPart& part : art.parts[i]) {
                if (intersect(part.shape, letter.ink).area_mm2() > speck_mm2) {
                    const auto of = static_cast<std::size_t>(letter.of);
                    covered =
                        of < face.lettering.texts.size() ? called(face, face.lettering.texts[of].id) : std::string();
                    break;
                }
            }
        }
        if (covered)
            say_once(problems, {{"art.covers-words", {{"words", *covered}}},
                                Station::Lettering,
                                {"art.covers-words-remedy", {}},
                                Mark::Look});
    }
}

void say_less_than_none(std::vector<Problem>& problems, const Making& making) {
    const auto say = [&](const char* what, const std::optional<Measure>& says) {
        if (says && says->value < Length{})
            say_once(problems, {{what, {{"length", says->value}}},
                                Station::Sections,
                                {"making.less-than-none-remedy", {}},
                                Mark::Look});
    };
    if (making.way == Way::PaintThrough) say("making.margin-less-than-none", making.margin);
    say("making.lap-less-than-none", making.lap);
    if (making.way == Way::PaintThrough) say("making.tie-less-than-none", making.tie);
}

void say_no_bed(std::vector<Problem>& problems, const Shop& shop, const Making& making, const Mat& bed) {
    const bool unknown = !making.bed.empty() && bed_name(bed) != making.bed;
    if (!shop.machines.empty() && !unknown) return;
    Problem problem{
        {"loads.no-machine", {{"bed", bed.name}}}, Station::Sections, {"loads.no-machine-remedy", {}}, Mark::Look};
    if (!shop.machines.empty()) problem.what = {"loads.no-bed", {{"asked", making.bed}, {"bed", bed.name}}};
    say_once(problems, std::move(problem));
}

void say_hold(std::vector<Problem>& problems, const MakingPlan& making, const Mat& bed) {
    if (bed.roll || bed.print) return;
    const auto say = [&](const char* what, const char* remedy) {
        say_once(
            problems,
            {{what, {{"bed", bed.name}, {"film", making.film.name}}}, Station::Sections, {remedy, {}}, Mark::Look});
    };
    const bool thick = making.film.kind == "reusable" || making.film.kind == "metallic";
    if (bed.tack == Tack::Worn) say("loads.mat-worn", "loads.mat-worn-remedy");
    if (bed.tack == Tack::Fresh) say("loads.mat-fresh", "loads.mat-fresh-remedy");
    if (bed.grip == Grip::Light && thick) say("loads.mat-light", "loads.mat-worn-remedy");
    if (bed.grip == Grip::Strong && !thick) say("loads.mat-strong", "loads.mat-fresh-remedy");
}

void say_too_large(std::vector<Problem>& problems, const Shop& shop, const Making& making, const std::string& colour,
                   const Box& face, const CutPlan& cut) {
    if (cut.loads->seams.empty()) return;
    const bool printed = is_printed(cut.making);
    std::vector<OtherBed> others;
    for (const Mat& bed : beds_of(shop.machines)) {
        if (bed.print.has_value() != printed) continue;
        Making there = making;
        there.bed = bed_name(bed);
        others.push_back({bed.name, bed.machine, room_on(bed_for(shop, there, printed, colour)), bed.roll});
    }
    Room room = room_on(cut.bed);
    room.slants = making.wishes.any_angle;
    std::vector<Problem> found = too_large(cut.loads->seams, *cut.pieces, face, room, cut.making, others);
    for (Problem& problem : found) say_once(problems, std::move(problem));
}

void say_short(std::vector<Problem>& problems, const std::vector<FilmCost>& films) {
    for (const FilmCost& film : films) {
        if (film.left <= Length{} || film.to_buy == 0) continue;
        std::vector<std::pair<std::string, Argument>> buy{{"buy", film.sold_by * film.to_buy}};
        if (film.buy_cents) buy.emplace_back("cost", money(*film.buy_cents));
        // There may be enough, but not in one length or not wide enough.
        const bool in_one = film.left >= film.needed;
        problems.push_back(
            {{in_one ? "film.no-one-length" : "film.short",
              {{"film", film.name}, {"needed", film.needed}, {"left", film.left}, {"longest", film.longest_lacking}}},
             Station::Sections,
             {film.buy_cents ? "film.short-priced" : "film.short-remedy", std::move(buy)},
             Mark::Look});
    }
}

void say_gone(std::vector<Problem>& problems, const Job& job) {
    for (const Sign& sign : job.signs) {
        for (const Face& face : sign.faces) {
            for (const ThingId& thing : without_colour(face.lettering, face.art, colours_of(face)))
                problems.push_back({{"gone.colour", {{"thing", called(face, thing)}, {"sign", label_of(sign)}}},
                                    Station::Lettering,
                                    {"gone.colour-remedy", {}},
                                    Mark::Look});
            for (const Layer& layer : face.layers) {
                const bool on_field = layer.kind == LayerKind::Coat && layer.on == On::Field;
                if (on_field && static_cast<std::size_t>(layer.field) > sign.blank.fields.size())
                    problems.push_back(
                        {{"gone.field", {{"field", std::int64_t{layer.field}}, {"sign", label_of(sign)}}},
                         Station::Method,
                         {"gone.field-remedy", {}},
                         Mark::Look});
                if (layer.kind != LayerKind::Lettering || find_colour(face, layer.colour) != nullptr) continue;
                problems.push_back({{"gone.layer", {{"colour", layer.colour.name}, {"sign", label_of(sign)}}},
                                    Station::Method,
                                    {"gone.layer-remedy", {}},
                                    Mark::Look});
            }
        }
    }
    for (const CutLoad& cut : job.bench.cut) {
        if (place_of(job, cut.of)) continue;
        problems.push_back(
            {{"gone.cut", {{"load", cut.id.name}}}, Station::Sections, {"gone.cut-remedy", {}}, Mark::Look});
    }
    if (!job.post) return;
    for (const PostArm& arm : job.post->arms) {
        const bool there =
            std::any_of(job.signs.begin(), job.signs.end(), [&](const Sign& s) { return s.id == arm.sign; });
        if (!there)
            problems.push_back(
                {{"gone.arm", {{"sign", arm.sign.name}}}, Station::Blank, {"gone.arm-remedy", {}}, Mark::Look});
    }
}

}  // namespace skarvel
