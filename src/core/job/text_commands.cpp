#include "job/text_commands.h"

#include <algorithm>
#include <sstream>

#include "lettering/placing.h"

namespace skarvel {
namespace {

constexpr std::size_t days_in_week = 7;

std::string full_name(const TypefaceName& typeface) { return typeface.family + " " + typeface.style; }

std::string first_line(const Text& text) { return text.words.substr(0, text.words.find('\n')); }

}  // namespace

void size_by(Text& text, Sizing sizing, const PlacedText* now) {
    if (text.sizing == sizing) return;
    text.sizing = sizing;
    if (sizing == Sizing::Snug || now == nullptr || now->ink.empty()) return;
    const Length is = sizing == Sizing::CapHeight ? now->cap_height
                      : sizing == Sizing::XHeight ? now->x_height
                      : sizing == Sizing::Overall ? from_grid(now->ink.height())
                                                  : from_grid(now->ink.width());
    constexpr Length sixteenth = 0.0625_in;
    text.size = measure_of(std::max(sixteenth, sixteenth * (is.nm() / sixteenth.nm())), {});
}

void type_size(Text& text, const Measure& size) {
    if (text.sizing == Sizing::Snug) text.sizing = Sizing::CapHeight;
    text.size = size;
}

void arrange(Text& text, Arrangement arrangement, bool on_round) {
    if (text.arrangement == arrangement) return;
    const bool was_stack = text.arrangement == Arrangement::Stack;
    const bool is_stack = arrangement == Arrangement::Stack;
    text.arrangement = arrangement;
    if (was_stack != is_stack) text.letter_gap = measure(is_stack ? "9/16" : "0");
    if (arrangement == Arrangement::Arc) {
        text.arc.follow = on_round;
        text.slope_tenths = 0;
    }
}

Job arranged_for_blank(const Job& before, Job after) {
    for (Sign& sign : after.signs) {
        const auto was =
            std::find_if(before.signs.begin(), before.signs.end(), [&](const Sign& s) { return s.id == sign.id; });
        if (was == before.signs.end() || was->blank == sign.blank) continue;
        const Blank& b = sign.blank;
        const bool upright = b.kind == Kind::Board && b.stands == Stands::Upright;
        for (Face& face : sign.faces) {
            const bool bare = std::all_of(face.lettering.texts.begin(), face.lettering.texts.end(),
                                          [](const Text& t) { return t.words.empty(); });
            if (!bare || face.lettering.texts.size() != 1) continue;
            Text& text = face.lettering.main();
            if (text.arrangement == Arrangement::Arc) continue;
            arrange(text, upright ? Arrangement::Stack : Arrangement::Level, false);
        }
    }
    return after;
}

void make_bolder(Text& text, Length by) {
    text.bolder = measure_of((text.bolder ? text.bolder->value : Length{}) + by, {Unit::Inch, 64});
}

void take_form(Text& text, const std::string& feature, bool on) {
    std::erase(text.alternates, feature);
    if (on) text.alternates.push_back(feature);
}

std::vector<HangWay> ways_to_hang(const Face& face, const ThingId& text, Axis axis) {
    const bool x = axis == Axis::X;
    std::vector<HangWay> all{{{x ? "stands.middle" : "stands.column", {}}, std::nullopt},
                             {{x ? "stands.left-edge" : "stands.bottom-edge", {}}, lined_up(on_face, Side::Low)},
                             {{x ? "stands.right-edge" : "stands.top-edge", {}}, lined_up(on_face, Side::High)},
                             {{"stands.centre-line", {}}, lined_up(on_face, Side::Middle)},
                             {{x ? "stands.left-margin" : "stands.bottom-margin", {}}, lined_up(on_usable, Side::Low)},
                             {{x ? "stands.right-margin" : "stands.top-margin", {}}, lined_up(on_usable, Side::High)}};
    for (const Text& other : face.lettering.texts) {
        if (other.id == text) continue;
        const auto named = [&](const char* key) { return Reason{key, {{"name", first_line(other)}}}; };
        if (x) {
            all.push_back({named("stands.flush-left"), lined_up(other.id, Side::Low)});
            all.push_back({named("stands.flush-right"), lined_up(other.id, Side::High)});
        } else {
            all.push_back({named("stands.under"),
                           Hang{other.id, Side::Low, Side::High, Measure{"-1/2 in", Length::sixtyfourths(-32)}}});
            all.push_back({named("stands.over"),
                           Hang{other.id, Side::High, Side::Low, Measure{"1/2 in", Length::sixtyfourths(32)}}});
        }
    }
    return all;
}

std::optional<std::size_t> way_of(const std::optional<Hang>& now, const std::vector<HangWay>& ways) {
    const auto found = std::find_if(ways.begin(), ways.end(), [&](const HangWay& way) {
        if (!now || !way.hang) return !now && !way.hang;
        return now->on == way.hang->on && now->its == way.hang->its && now->mine == way.hang->mine;
    });
    return found == ways.end() ? std::nullopt : std::optional<std::size_t>(found - ways.begin());
}

void name_days(MonthBoard& board, const std::string& names) {
    board.days.clear();
    std::istringstream words(names);
    for (std::string day; board.days.size() < days_in_week && words >> day;) board.days.push_back(day);
}

void bring_back_parts(PlacedDrawing& drawing) {
    drawing.dropped.clear();
    drawing.colours.clear();
}

void say_licence(PlacedDrawing& drawing, const std::string& licence) {
    FileDrawing changed = *drawing.drawing;
    changed.licence = licence;
    drawing.drawing = std::move(changed);
}

void like(Shop& shop, const TypefaceName& typeface, bool liked) {
    std::erase(shop.favourites, full_name(typeface));
    if (liked) shop.favourites.push_back(full_name(typeface));
}

bool is_liked(const Shop& shop, const TypefaceName& typeface) {
    return std::find(shop.favourites.begin(), shop.favourites.end(), full_name(typeface)) != shop.favourites.end();
}

}  // namespace skarvel
