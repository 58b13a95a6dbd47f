// What follows from the lettering: sizes as set, what is too thin, what would fit better, whether it can be read.
#include "job/text_commands.h"
#include "stations/lettering_parts.h"
#include "theme/words.h"

namespace skarvel {

void say_what_follows(Tray& tray, TextForm& form, const ColourPlan* plan) {
    Desk& desk = tray.desk();
    if (const auto& denied = desk.denied()) {
        tray.problem({desk.denied_reason(), Station::Lettering, {}, Mark::Look});
        tray.offer(in_words("lettering-tray.take", {{"nearest", tray.length(denied->tried.nearest.value)}}),
                   [&desk] { desk.apply(Job(desk.denied()->nearest)); })
            ->setObjectName("take nearest");
        tray.offer(in_words("lettering-tray.use-all-the-same", {{"typed", tray.length(denied->typed.value)}}),
                   [&desk] { desk.apply(Job(desk.denied()->all_the_same)); })
            ->setObjectName("use all the same");
    }
    if (plan != nullptr) {
        const LetteringPlan& p = *plan->face->lettering;
        const PlacedText* now = placed_at_hand(desk);
        if (!p.letters.empty() && now != nullptr && !now->ink.empty() && !desk.art_at()) {
            tray.fact(in_words("lettering-tray.letters"), QString::number(p.letters.size()));
            tray.fact(in_words("lettering-tray.cap-height"), tray.length(now->cap_height));
            if (p.texts.size() == 1) {
                if (p.free_across > 0.03125_in)
                    tray.fact(in_words("lettering-tray.free-across"), tray.length(p.free_across));
                if (p.free_up > 0.03125_in) tray.fact(in_words("lettering-tray.free-up"), tray.length(p.free_up));
            }
        }
        // A stack that does not fit may do so as lines.
        const bool stop = std::any_of(p.problems.begin(), p.problems.end(), [](const Problem& x) {
            return x.mark == Mark::Stop && x.what.id != "lettering.no-words";
        });
        if (p.letters.empty() && stop && desk.face().lettering.texts[desk.text_at()].arrangement == Arrangement::Stack)
            tray.offer(in_words("lettering-tray.set-level"),
                       [&form] { form.change([](Text& t) { arrange(t, Arrangement::Level, false); }); })
                ->setObjectName("set level");
        if (plan->cut.thin && plan->cut.thin->thinnest_stroke > Length{})
            tray.fact(in_words("lettering-tray.thinnest-stroke"), tray.length(plan->cut.thin->thinnest_stroke));
        for (const Reason& note : p.notes) tray.why(tray.say(note));
        for (const Reason& note : plan->face->art->notes) tray.why(tray.say(note));
        for (const TypefaceName& t : p.offers) {
            tray.offer(in_words("lettering-tray.use", {{"family", text_of(t.family)}, {"style", text_of(t.style)}}),
                       [&form, t] { form.change([&](Text& x) { x.typeface = t; }); });
        }
        if (plan->cut.thin && plan->cut.thin->bolder > Length{} && !desk.art_at()) {
            const Length by = plan->cut.thin->bolder;
            tray.offer(in_words("lettering-tray.make-the-letters-bolder", {{"by", tray.length(by)}}),
                       [&form, by] { form.change([&](Text& t) { make_bolder(t, by); }); });
        }
        if (plan->face->reading && !plan->face->reading->verdicts.empty()) {
            tray.heading(in_words("lettering-tray.can-it-be-read"));
            for (const Verdict& v : plan->face->reading->verdicts) {
                if (v.basis == "from memory" || v.says != Verdict::Says::Good) {
                    if (v.says == Verdict::Says::Good) {
                        tray.good(tray.say(v.why));
                    } else {
                        tray.problem(
                            {v.why, Station::Lettering, {}, v.says == Verdict::Says::Poor ? Mark::Look : Mark::None});
                    }
                }
            }
        }
    }
}

}  // namespace skarvel
