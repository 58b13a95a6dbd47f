// What else can be put on a face, and from where it is read.
#include <QGridLayout>

#include "stations/lettering_parts.h"
#include "theme/words.h"
#include "window/file_chooser.h"

namespace skarvel {
namespace {

void read_drawing(Desk& desk, QWidget* parent) {
    const QString path =
        FileChooser::file(parent, in_words("lettering-tray.a-drawing"), {"*.svg", "*.dxf", "*.png", "*.jpg", "*.jpeg"});
    if (path.isEmpty()) return;
    if (desk.read_drawing(path.toStdString())) desk.select_art(desk.face().art.size() - 1);
}

}  // namespace

void add_to_the_face(Desk& desk, FaceForm& form) {
    auto* holder = new QWidget(form.parent());
    auto* grid = new QGridLayout(holder);
    grid->setContentsMargins(0, 0, 0, 0);
    grid->setSpacing(4);
    int n = 0;
    const auto kind = [&](const QString& name, const ArtKind& made) {
        QPushButton* b = button(name, Role::Plain, holder);
        b->setObjectName("add " + name);
        grid->addWidget(b, n / 2, n % 2);
        ++n;
        QObject::connect(b, &QPushButton::clicked, &form.tray(), [&desk, made] {
            desk.apply(skarvel::add_art(desk.job(), desk.at(), made, desk.library().typefaces));
            desk.select_art(desk.face().art.size() - 1);
        });
    };
    kind(in_words("lettering-tray.border"), Border{});
    kind(in_words("lettering-tray.corner-pieces"), Corners{});
    kind(in_words("lettering-tray.ruled-line"), RuledLine{});
    kind(in_words("lettering-tray.ribbon"), Banner{});
    kind(in_words("lettering-tray.shape"), Figure{});
    kind(in_words("lettering-tray.height-ruler"), HeightRuler{});
    kind(in_words("lettering-tray.month-board"), MonthBoard{});
    QPushButton* from_file = button(in_words("lettering-tray.drawing-from-a-file"), Role::Plain, holder);
    from_file->setObjectName("add drawing");
    grid->addWidget(from_file, n / 2, n % 2);
    QObject::connect(from_file, &QPushButton::clicked, &form.tray(),
                     [&desk, &form] { read_drawing(desk, form.parent()); });
    form.tray().add_decision(holder);
    form.tick(in_words("lettering-tray.cut-at-the-edge"), lens(&Face::cut_at_edge));
}

void read_from_where(FaceForm& form) {
    form.measure(in_words("lettering-tray.read-from-a-distance"), lens(&Face::seen, &Seen::distance));
    form.measure(in_words("lettering-tray.its-base-line-above"), lens(&Face::seen, &Seen::above_floor));
    QWidget* reading = form.column();
    Desk& desk = form.desk();
    form.on_refresh([&desk, reading](const Face&) {
        const ColourPlan* plan = desk.face_plan();
        if (plan == nullptr || !plan->face->reading) return;
        FaceForm::empty(reading);
        for (const Verdict& v : plan->face->reading->verdicts) {
            const Role role = v.says == Verdict::Says::Good   ? Role::Good
                              : v.says == Verdict::Says::Fair ? Role::Look
                                                              : Role::Stop;
            QLabel* words = label(shown(desk.say(v.why)), role, reading);
            words->setToolTip(text_of(v.basis));
            reading->layout()->addWidget(words);
        }
    });
}

}  // namespace skarvel
