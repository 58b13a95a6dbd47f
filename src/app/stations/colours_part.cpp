// The colours of a face in the order of laying, which of them the thing at hand has, and the rim of a text.
#include "stations/lettering_parts.h"
#include "theme/words.h"

namespace skarvel {
namespace {

// A choice among the colours of the face.
Choice* colour_choice(TextForm& form, const QString& name, const QString& called,
                      const std::function<void(const ColourId&)>& picked) {
    auto* made = new Choice(called, form.parent());
    form.row(name, made);
    Desk& desk = form.desk();
    QObject::connect(made, &QComboBox::activated, &form.tray(), [&desk, picked](int i) {
        picked(ColourId(desk.face().colours.at(static_cast<std::size_t>(i)).id));
    });
    return made;
}

void list_colours(Choice* choice, const Face& face, const ColourId& at) {
    const QSignalBlocker quiet(choice);
    choice->clear();
    for (const Colour& colour : face.colours) choice->addItem(name_of(colour));
    choice->setCurrentIndex(static_cast<int>(place_of(face, at)));
}

void rim(TextForm& form) {
    Desk& desk = form.desk();
    auto* is = new Segmented(
        in_words("lettering-tray.rim"),
        {in_words("word.none"), in_words("lettering-tray.behind"), in_words("lettering-tray.inside")}, form.parent());
    form.row(in_words("lettering-tray.rim"), is);
    QObject::connect(is, &Segmented::chosen, &form.tray(), [&desk](int i) {
        desk.apply(set_rim(desk.job(), desk.at(), desk.text_at(), static_cast<RimIs>(i)));
    });
    QWidget* part = form.column();
    form.inside(part, [&form, &desk] {
        form.measure(in_words("lettering-tray.width-of-the-rim"), lens(&Text::rim, &Rim::width));
        Choice* colour = colour_choice(
            form, in_words("lettering-tray.colour-of-the-rim"), in_words("lettering-tray.colour-of-the-rim"),
            [&desk](const ColourId& id) { desk.apply(put_rim_in_colour(desk.job(), desk.at(), desk.text_at(), id)); });
        form.on_refresh([&desk, colour](const Text& t) {
            if (t.rim) list_colours(colour, desk.face(), t.rim->colour);
        });
        form.tick(in_words("lettering-tray.runs-on-under-the"), lens(&Text::rim, &Rim::under));
        form.measure(in_words("lettering-tray.overlap-where-it-is"), lens(&Text::rim, &Rim::overlap));
    });
    form.on_refresh([&desk, is, part](const Text& t) {
        const bool text_at_hand = !desk.art_at();
        is->setEnabled(text_at_hand);
        is->show_choice(!text_at_hand || !t.rim ? 0 : t.rim->inner ? 2 : 1);
        part->setVisible(text_at_hand && t.rim.has_value());
    });
}

void colour_row(FaceForm& form, std::size_t i) {
    Desk& desk = form.desk();
    auto* row = new QWidget(form.parent());
    auto* layout = new QHBoxLayout(row);
    layout->setContentsMargins(0, 0, 0, 0);
    auto* swatch = new ColourButton(in_words("lettering-tray.colour", {{"number", i + 1}}), row);
    layout->addWidget(swatch, 1);
    const auto shade = lens(&Face::colours, Nth{i}, &Colour::paint, &CoatChoice::colour);
    const auto called = lens(&Face::colours, Nth{i}, &Colour::paint, &CoatChoice::colour_name);
    QObject::connect(swatch, &ColourButton::decided, &form.tray(),
                     [&form, shade, called](const QString& colour, const QString& name) {
                         form.change([&](Face& f) {
                             shade.put(f, colour.toStdString());
                             called.put(f, name.toStdString());
                         });
                     });
    form.on_refresh([swatch, shade, called](const Face& f) {
        if (const std::string* now = shade.in(f)) swatch->show_colour(*now, *called.in(f));
    });
    QPushButton* earlier = button(in_words("lettering-tray.earlier"), Role::Plain, row);
    earlier->setEnabled(i > 0);
    layout->addWidget(earlier);
    QObject::connect(earlier, &QPushButton::clicked, &form.tray(),
                     [&desk, i] { desk.apply(lay_earlier(desk.job(), desk.at(), i)); });
    QPushButton* gone = button(in_words("lettering-tray.remove"), Role::Plain, row);
    gone->setEnabled(form.at_hand()->colours.size() > 1);
    layout->addWidget(gone);
    QObject::connect(gone, &QPushButton::clicked, &form.tray(),
                     [&desk, i] { desk.apply(remove_colour(desk.job(), desk.at(), i)); });
    form.tray().add_decision(row);
}

}  // namespace

QString name_of(const Colour& colour) {
    return text_of(colour.paint.colour_name.empty() ? colour.paint.colour : colour.paint.colour_name);
}

void colours_and_rims(TextForm& text, FaceForm& face) {
    Desk& desk = text.desk();
    Choice* own = colour_choice(
        text, in_words("lettering-tray.this-text-or-drawing"), in_words("lettering-tray.colour-of-this"),
        [&desk](const ColourId& id) { desk.apply(put_in_colour(desk.job(), desk.at(), desk.thing_at(), id)); });
    text.on_refresh([&desk, own](const Text& t) {
        const auto art = desk.art_at();
        list_colours(own, desk.face(), art ? desk.face().art[*art].colour : t.colour);
    });
    rim(text);
    text.tray().add_decision(label(in_words("lettering-tray.colours-in-the-order"), Role::Small, text.parent()));
    face.rows([](const Face&) { return std::string(); }, [](const Face& f) { return f.colours.size(); },
              [&face](std::size_t i) { colour_row(face, i); });
    text.offer(in_words("lettering-tray.another-colour"),
               [&desk] { desk.apply(add_colour(desk.job(), desk.at(), desk.colours_at_hand())); })
        ->setObjectName("add colour");
}

}  // namespace skarvel
