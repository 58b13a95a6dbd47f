// What follows from a blank: its real size, how it holds, what to saw, how to mark it out.
#include <algorithm>
#include <cmath>

#include "stations/blank_parts.h"
#include "theme/words.h"

namespace skarvel {
namespace {

QString size(const Tray& tray, const skarvel::Box& box) {
    return QString("%1 × %2").arg(shown(show_number(from_grid(box.width()), tray.desk().shop().display)),
                                  tray.length(from_grid(box.height())));
}

void follow_weight(Tray& tray, const Weighed& w) {
    if (!w.hardware && !w.tipping && w.cautions.empty()) return;
    tray.heading(in_words("blank-tray.how-it-holds"));
    if (w.hardware) tray.why(tray.say(*w.hardware));
    for (const HangPoint& point : w.points)
        tray.fact(tray.say(point.what), in_words("blank-tray.in-up", {{"in", tray.length(from_grid(point.at.x))},
                                                                      {"up", tray.length(from_grid(point.at.y))}}));
    if (w.tipping) {
        const Display& display = tray.desk().shop().display;
        tray.fact(
            in_words("blank-tray.goes-over-at"),
            in_words("blank-tray.degrees", {{"degrees", static_cast<int>(std::lround(w.tipping->angle_degrees))}}));
        tray.fact(in_words("blank-tray.or-by-a-push"), text_of(show_force(w.tipping->push_newton, display)));
        if (w.tipping->needed_grams > tray.desk().sign().blank.holding.ballast_grams)
            tray.fact(in_words("blank-tray.low-down-it-wants"), text_of(show_weight(w.tipping->needed_grams, display)));
    }
    for (const Reason& caution : w.cautions) tray.why(tray.say(caution));
}

void follow_saw(Tray& tray) {
    const auto& all = tray.desk().plan().saw;
    const bool frames = std::any_of(all.begin(), all.end(), [](const SawPlan& s) {
        return std::any_of(s.cuts.begin(), s.cuts.end(), [](const Cut& c) { return c.what.id.starts_with("frame."); });
    });
    const auto& goods = tray.desk().plan().sheet_goods;
    if (!frames && goods.empty()) return;
    tray.heading(in_words("blank-tray.cut-list"));
    for (const SheetGood& g : goods)
        tray.fact(
            (g.of.empty() ? QString() : text_of(g.of) + ": ") + tray.say(g.cut.what),
            in_words("blank-tray.sheet-good", {{"length", shown(show_number(g.cut.length, tray.desk().shop().display))},
                                               {"width", tray.length(*g.cut.width)},
                                               {"material", g.material}}));
    for (const SawPlan& s : all) {
        if (!frames) break;
        for (std::size_t i = 0; i < s.cuts.size(); ++i) {
            const Cut& cut = s.cuts[i];
            const QString what = (s.of[i].empty() ? QString() : text_of(s.of[i]) + ": ") + tray.say(cut.what);
            tray.fact(in_words("blank-tray.times", {{"count", cut.count}, {"what", what}}),
                      tray.length(cut.length) +
                          (cut.angle == 90 ? QString() : in_words("blank-tray.cut-angle", {{"degrees", cut.angle}})));
        }
        tray.why(s.cutting.proved
                     ? in_words("blank-tray.of-no-plan-uses",
                                {{"used", s.cutting.used}, {"stock", text_of(shown_name(s.stock))}})
                     : in_words("blank-tray.of", {{"used", s.cutting.used}, {"stock", text_of(shown_name(s.stock))}}));
        for (const SawnBoard& board : s.cutting.boards) {
            QStringList pieces;
            for (const std::size_t i : board.pieces) pieces << tray.length(s.cuts[i].length);
            tray.why(in_words("blank-tray.from-over", {{"from", tray.length(board.from)},
                                                       {"pieces", pieces.join(" + ")},
                                                       {"offcut", tray.length(board.offcut)}}));
        }
    }
}

void follow_leftovers(Tray& tray, const BlankPlan& p) {
    const auto found = leftovers_that_do(tray.desk().sign().blank, p, tray.desk().shop().leftovers);
    if (found.empty()) return;
    tray.heading(in_words("blank-tray.leftover-wood-that-would"));
    for (const std::size_t i : found) {
        const LeftoverWood& l = tray.desk().shop().leftovers[i];
        tray.fact(text_of(l.name), in_words("blank-tray.times",
                                            {{"count", shown(show_number(l.length.value, tray.desk().shop().display))},
                                             {"what", tray.length(l.width.value)}}));
    }
}

}  // namespace

void say_what_follows(Tray& tray, const ColourPlan& face_plan) {
    const BlankPlan& p = *face_plan.face->blank;
    if (p.face.empty()) return;
    const Display& display = tray.desk().shop().display;
    tray.fact(in_words("blank-tray.real-size"),
              QString("%1 × %2").arg(shown(show_number(p.length, display)), tray.length(p.width)));
    if (p.stock) tray.fact(in_words("blank-tray.sold-as"), text_of(shown_name(p.stock->name)));
    if (!p.usable.empty()) tray.fact(in_words("blank-tray.for-lettering"), size(tray, p.usable));
    for (const NamedRoom& room : p.rooms) tray.fact(tray.say(room.what), size(tray, room.box));
    if (tray.desk().sign().blank.frame.kind != FrameKind::None)
        tray.fact(
            in_words("blank-tray.with-its-frame"),
            QString("%1 × %2").arg(shown(show_number(p.frame.over_across, display)), tray.length(p.frame.over_up)));
    if (!p.built.backing.where.empty() && !p.frame.on_backing)
        tray.fact(in_words("blank-tray.with-its-backing"), size(tray, p.built.backing.where.bounds()));
    if (p.weight.total() > 0) tray.fact(in_words("blank-tray.weighs"), text_of(show_weight(p.weight.total(), display)));
    if (p.rope > Length{}) tray.fact(in_words("blank-tray.rope"), tray.length(p.rope));
    if (p.tape) {
        tray.heading(in_words("blank-tray.what-the-tape-tells"));
        for (const Reason& words : p.tape->words) tray.why(tray.say(words));
    }
    for (const Reason& note : p.notes) tray.why(tray.say(note));
    follow_weight(tray, p.weight);
    follow_saw(tray);
    if (!face_plan.face->marking.steps.empty()) {
        tray.heading(in_words("blank-tray.marking-out"));
        for (const Reason& step : face_plan.face->marking.steps) tray.why(tray.say(step));
    }
    for (const Reason& order : p.order) tray.why(tray.say(order));
    if (tray.desk().plan().post && tray.desk().job().post) {
        tray.heading(in_words("blank-tray.on-the-post"));
        for (const Reason& step : tray.desk().plan().post->steps) tray.why(tray.say(step));
    }
    follow_leftovers(tray, p);
}

}  // namespace skarvel
