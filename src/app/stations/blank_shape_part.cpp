// What a blank is: its kind, its sizes, what it is made of.
#include "blank/kinds.h"
#include "job/blank_commands.h"
#include "stations/blank_parts.h"
#include "theme/words.h"

namespace skarvel {
namespace {

BlankForm::When is(Kind kind) {
    return [kind](const Blank& b) { return b.kind == kind; };
}

const BlankPlan* planned(const BlankForm& form) {
    const ColourPlan* plan = form.desk().face_plan();
    return plan == nullptr ? nullptr : plan->face->blank.get();
}

QString shown_length(const BlankForm& form, Length length) { return shown(show(length, form.desk().shop().display)); }

// The shop's own sizes and the standard ones; the shop's may change while the tray is there.
void stock_size(BlankForm& form) {
    auto* stock = new Choice(in_words("blank-tray.stock-size"), form.parent());
    form.show_if(form.row(in_words("blank-tray.stock-size"), stock), is(Kind::Board));
    QObject::connect(stock, &QComboBox::activated, &form.tray(), [&form, stock] {
        const BlankPlan* plan = planned(form);
        form.change([&](Blank& b) {
            sell_as(b, stock->currentData().toString().toStdString(), plan == nullptr ? Length{} : plan->width,
                    form.desk().shop().display);
        });
    });
    auto own_shown = std::make_shared<std::optional<std::vector<StockSize>>>();
    form.on_refresh([&form, stock, own_shown](const Blank& b) {
        const auto& own = form.desk().shop().stock;
        if (*own_shown != own) {
            *own_shown = own;
            stock->clear();
            stock->addItem(in_words("blank-tray.measured-no-stock-size"), "");
            for (const StockSize& s : own)
                stock->addItem(in_words("blank-tray.ours", {{"name", shown_name(s.name)}}), text_of(s.name));
            for (const StockSize& s : form.desk().library().trade.stock)
                stock->addItem(text_of(shown_name(s.name)), text_of(s.name));
        }
        stock->show_data(text_of(b.stock));
    });
}

void arrow_head(BlankForm& form) {
    form.measure(in_words("blank-tray.head-length"), lens(&Blank::head, &ArrowHead::length));
    form.measure(in_words("blank-tray.head-height"), lens(&Blank::head, &ArrowHead::height));
    form.measure(in_words("blank-tray.head-overlaps-the-body"), lens(&Blank::head, &ArrowHead::overlap));
    form.choice(in_words("blank-tray.it-points"), {in_words("word.left"), in_words("blank-tray.right")},
                lens(&Blank::head, &ArrowHead::right));
}

void arch_top(BlankForm& form) {
    form.nth_choice(
        in_words("blank-tray.top-of-the-arch"),
        {in_words("blank-tray.half-round"), in_words("blank-tray.segmental"), in_words("word.pointed")},
        [](const Blank& b) { return static_cast<int>(b.arch.style); },
        [](Blank& b, int i) { b = with_top(b, static_cast<ArchStyle>(i)); });
    form.measure(in_words("blank-tray.rise"), lens(&Blank::arch, &ArchTop::rise),
                 [](const Blank& b) { return b.arch.style != ArchStyle::HalfRound; });
}

void drawn_outline(BlankForm& form, const std::function<void()>& read_outline) {
    form.offer(in_words("blank-tray.read-an-outline"), read_outline);
    form.measure(in_words("blank-tray.its-one-known-dimension"), lens(&Blank::outline, &DrawnOutline::known));
    form.choice(in_words("blank-tray.that-dimension-is"),
                {in_words("blank-tray.the-height-over-all"), in_words("blank-tray.the-width-over-all")},
                lens(&Blank::outline, &DrawnOutline::by_width));
}

void sizes(BlankForm& form, const std::function<void()>& read_outline) {
    const auto long_side = [&form](const char* name) { form.measure(in_words(name), lens(&Blank::length)); };
    // Left out, it is that of the stock size.
    const auto short_side = [&form](const char* name) {
        form.measure(in_words(name), lens(&Blank::width), [&form] {
            const BlankPlan* plan = planned(form);
            return plan != nullptr && plan->stock
                       ? in_words("blank-tray.from-the-table", {{"width", shown_length(form, plan->width)}})
                       : QString();
        });
    };
    form.part(is_four_sided, [long_side, short_side] {
        long_side("word.length");
        short_side("blank-tray.width-as-the-tape");
    });
    form.part(is(Kind::Round), [long_side] { long_side("blank-tray.diameter"); });
    form.part(is(Kind::Arrow), [&form, long_side, short_side] {
        long_side("blank-tray.body-length");
        short_side("blank-tray.body-height");
        arrow_head(form);
    });
    form.part(is(Kind::Arch), [&form, long_side, short_side] {
        long_side("blank-tray.height-of-the-arch");
        short_side("blank-tray.span");
        arch_top(form);
    });
    form.part(is(Kind::Drawn), [&form, read_outline] { drawn_outline(form, read_outline); });
    form.part([](const Blank& b) { return b.kind != Kind::Canvas && b.kind != Kind::Field; },
              [&form] {
                  form.measure(in_words("word.thickness"), lens(&Blank::thickness), [&form] {
                      const BlankPlan* plan = planned(form);
                      return plan == nullptr ? QString() : shown_length(form, plan->thickness);
                  });
              });
    form.part(is(Kind::Canvas), [&form] {
        form.measure(in_words("blank-tray.depth-of-its-bars"), lens(&Blank::bars),
                     [] { return in_words("blank-tray.flat-no-bars"); });
    });
    form.part(is(Kind::Field), [&form] {
        form.measure(in_words("blank-tray.width-of-the-mouldings"), lens(&Blank::moulding),
                     [] { return in_words("blank-tray.none-drawn"); });
    });
    form.segmented(
        in_words("blank-tray.it-will-be-read"), {in_words("blank-tray.upright"), in_words("blank-tray.level")},
        [](const Blank& b) { return static_cast<int>(b.stands); },
        [](Blank& b, int i) { turn(b, static_cast<Stands>(i)); }, is_four_sided);
}

void matter(BlankForm& form) {
    BlankForm::Ids materials;
    for (const Material& m : form.desk().library().trade.materials) materials.emplace_back(m.id, text_of(m.name));
    form.choice_of(
        in_words("blank-tray.material"), materials, [](const Blank& b) { return b.material; }, make_of);
    form.choice(in_words("blank-tray.surface"),
                {in_words("blank-tray.rough"), in_words("blank-tray.open-grain"), in_words("blank-tray.sanded"),
                 in_words("blank-tray.smooth"), in_words("blank-tray.glossy")},
                lens(&Blank::surface));
    form.number(in_words("blank-tray.sanded-to-grit"), {0, 5000, {}, in_words("blank-tray.not-said")},
                lens(&Blank::grit), [](const Blank& b) { return b.surface == Surface::Sanded; });
    form.tick(in_words("blank-tray.lettered-from-behind"), lens(&Blank::from_behind),
              [](const Blank& b) { return b.material == "acrylic"; });
    form.group(in_words("blank-tray.more-about-it"), [&form] {
        form.choice(
            in_words("blank-tray.grain-runs"),
            {in_words("blank-tray.along-its-length"), in_words("word.across"), in_words("blank-tray.it-has-none")},
            lens(&Blank::grain));
        form.choice(
            in_words("blank-tray.finished"),
            {in_words("blank-tray.the-face"), in_words("blank-tray.face-and-edges"), in_words("blank-tray.all-round")},
            lens(&Blank::finished));
        form.choice(in_words("blank-tray.what-is-on-it"),
                    {in_words("blank-tray.nothing-it-is-bare"), in_words("blank-tray.oil-stain"),
                     in_words("blank-tray.water-based-stain"), in_words("blank-tray.paint"),
                     in_words("blank-tray.a-sealer"), in_words("blank-tray.old-lettering-to-hide")},
                    lens(&Blank::already));
        form.tick(in_words("blank-tray.sawn-already"), lens(&Blank::sawn), [](const Blank& b) {
            Blank whole = b;
            whole.sawn = false;
            return is_sawn_here(whole);
        });
        form.number(in_words("blank-tray.since"), {0, 100'000, in_words("blank-tray.hours")},
                    lens(&Blank::already_hours), [](const Blank& b) { return b.already != Already::Bare; });
    });
}

}  // namespace

bool is_four_sided(const Blank& b) {
    return b.kind == Kind::Board || b.kind == Kind::Panel || b.kind == Kind::Canvas || b.kind == Kind::Field;
}

void what_it_is(BlankForm& form, const std::function<void()>& read_outline) {
    form.nth_choice(
        in_words("blank-tray.kind-of-blank"),
        {in_words("blank-tray.board"), in_words("blank-tray.panel"), in_words("blank-tray.canvas"),
         in_words("word.round"), in_words("blank-tray.arrow"), in_words("blank-tray.arch"),
         in_words("blank-tray.field-in-mouldings"), in_words("blank-tray.outline-from-a-file")},
        [](const Blank& b) { return static_cast<int>(b.kind); },
        [](Blank& b, int i) { b = as_kind(b, static_cast<Kind>(i)); });
    stock_size(form);
    sizes(form, read_outline);
    matter(form);
}

}  // namespace skarvel
