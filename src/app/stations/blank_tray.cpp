// The tray of Blank: what lies on the bench, and what must stay clear.
#include <QPlainTextEdit>

#include "job/sign_commands.h"
#include "stations/blank_parts.h"
#include "theme/theme.h"
#include "theme/words.h"
#include "window/file_chooser.h"

namespace skarvel {
namespace {

class BlankTray : public Tray {
  public:
    BlankTray(Desk& desk, QWidget* parent)
        : Tray(Station::Blank, desk, parent),
          form_(
              *this, [this] { return &sign().blank; },
              [this](const BlankForm::Change& change, const QString& merge) {
                  edit_sign([&](Sign& s) { change(s.blank); }, merge);
              }) {
        title(in_words("blank-tray.what-is-it"));
        what_it_is(form_, [this] { read_outline(); });
        gap();
        title(in_words("blank-tray.keep-clear"));
        keep_clear(form_);
        part("blank-tray.margin-side-by-side", side_margins);
        part("blank-tray.what-the-tape-says", tape_readings);
        part("blank-tray.painted-fields", painted_fields);
        part("blank-tray.frame-and-backing", frame_and_backing);
        part("blank-tray.hang-or-stand", hang_or_stand);
        part("blank-tray.guides", guides);
        group(in_words("word.signs-of-this-job"), [this] { build_signs(); });
    }

    void refresh() override {
        form_.refresh();
        say_groups();
        begin_follows(in_words("word.what-follows"));
        if (plan() != nullptr) say_what_follows(*this, *plan());
        problems();
        end_follows();
    }

  private:
    void part(const char* name, void (*build)(BlankForm&)) {
        group(in_words(name), [this, build] { build(form_); });
    }

    void read_outline() {
        const QString name = FileChooser::file(this, in_words("blank-tray.outline-dialog"), {"*.svg", "*.dxf"});
        if (name.isEmpty()) return;
        const auto problem = desk_.read_outline(name.toStdString());
        if (!problem.empty()) Q_EMIT desk_.said(text_of(problem), true);
    }

    void build_signs() {
        auto* name = new QLineEdit(widget());
        name->setAccessibleName(in_words("blank-tray.name-of-the-sign"));
        name->setPlaceholderText(in_words("blank-tray.its-words-name-it"));
        form_.row(in_words("blank-tray.this-sign-is-called"), name);
        connect(name, &QLineEdit::editingFinished, this,
                [this, name] { desk_.apply(name_sign(desk_.job(), desk_.sign_at(), name->text().toStdString())); });
        form_.on_refresh([this, name](const Blank&) {
            if (!name->hasFocus()) name->setText(text_of(sign().name));
        });
        form_.offer(in_words("blank-tray.another-like-it"), [this] {
            const std::size_t at = desk_.sign_at();
            desk_.apply(copy_sign(desk_.job(), at, face().lettering.main().words));
            desk_.select(at + 1);
        });
        auto* lines = new QPlainTextEdit(widget());
        lines->setObjectName("sign lines");
        lines->setAccessibleName(in_words("blank-tray.one-for-each-line"));
        lines->setPlaceholderText(in_words("blank-tray.one-for-each-line"));
        lines->setTabChangesFocus(true);
        lines->setFixedHeight(Theme::px(76));
        form_.row(in_words("blank-tray.one-for-each-line"), lines);
        QPushButton* make = form_.offer(in_words("blank-tray.make-signs-of-lines"), [this, lines] {
            std::vector<std::string> words;
            for (const QString& line : lines->toPlainText().split('\n')) words.push_back(line.toStdString());
            const Job made = signs_for_lines(desk_.job(), desk_.sign_at(), words);
            if (made == desk_.job()) return;
            // One step to take back: the signs, and that all are lettered alike.
            const QString one_step = "signs-for-lines";
            desk_.apply(made, one_step);
            desk_.wait_for_plan();
            desk_.apply(at_one_cap_height(desk_.job(), desk_.plan(), desk_.shop().display), one_step);
            desk_.settle();
            lines->clear();
        });
        make->setObjectName("make signs of lines");
        QPushButton* alike = form_.offer(in_words("blank-tray.same-cap-height"), [this] {
            desk_.wait_for_plan();
            desk_.apply(at_one_cap_height(desk_.job(), desk_.plan(), desk_.shop().display));
        });
        alike->setObjectName("same cap height");
        form_.show_if(alike, [this](const Blank&) { return desk_.job().signs.size() > 1; });
        QPushButton* back = form_.offer(in_words("blank-tray.letter-its-back"), [this] {
            desk_.apply(letter_back(desk_.job(), desk_.sign_at()));
            desk_.select(desk_.sign_at(), 1);
        });
        form_.show_if(back, [this](const Blank&) { return sign().faces.size() < 2; });
        QPushButton* bare = form_.offer(in_words("blank-tray.leave-its-back-bare"), [this] {
            desk_.apply(bare_back(desk_.job(), desk_.sign_at()));
            desk_.select(desk_.sign_at());
        });
        form_.show_if(bare, [this](const Blank&) { return sign().faces.size() > 1; });
        QPushButton* remove = form_.offer(in_words("blank-tray.take-this-sign-out"), [this] {
            desk_.apply(remove_sign(desk_.job(), desk_.sign_at()));
            desk_.select(desk_.sign_at());
        });
        form_.show_if(remove, [this](const Blank&) { return desk_.job().signs.size() > 1; });
        QPushButton* post = form_.offer(in_words("blank-tray.set-them-on-a"), [this] {
            desk_.apply(set_on_post(desk_.job()));
            desk_.show_together(true);
        });
        form_.show_if(post, [this](const Blank&) { return !desk_.job().post; });
        QPushButton* off =
            form_.offer(in_words("blank-tray.take-them-off-the"), [this] { desk_.apply(off_post(desk_.job())); });
        form_.show_if(off, [this](const Blank&) { return desk_.job().post.has_value(); });
        for (const auto& [called, which] : {std::pair{in_words("blank-tray.post-above-the-ground"), &Post::height},
                                            {in_words("blank-tray.post-in-the-ground"), &Post::buried},
                                            {in_words("blank-tray.width-of-the-post"), &Post::width}}) {
            auto* made = new MeasureField(desk_, called, widget());
            QWidget* holder = form_.row(called, made);
            connect(made, &MeasureField::decided, this, [this, which = which](const Measure& m) {
                Job job = desk_.job();
                if (lens(&Job::post, which).put(job, m)) desk_.apply(std::move(job));
            });
            form_.on_refresh([this, made, which = which](const Blank&) {
                if (desk_.job().post) made->show_value(*desk_.job().post.*which);
            });
            form_.show_if(holder, [this](const Blank&) { return desk_.job().post.has_value(); });
        }
    }

    void say_groups() {
        const Blank& b = sign().blank;
        const auto count = [](std::size_t n) { return n == 0 ? in_words("word.none") : QString::number(n); };
        std::size_t readings = 0;
        for (const auto& taken : b.tape.taken) readings += taken ? 1 : 0;
        std::size_t sides = 0;
        for (const auto& m : b.side_margin) sides += m ? 1 : 0;
        static const QStringList frames{in_words("word.none"),          in_words("blank-tray.butt"),
                                        in_words("blank-tray.mitred"),  in_words("blank-tray.trim"),
                                        in_words("blank-tray.battens"), in_words("blank-tray.edging")};
        static const QStringList holds{in_words("blank-tray.hung"), in_words("blank-tray.on-legs"),
                                       in_words("blank-tray.leaning"), in_words("blank-tray.on-a-stake"),
                                       in_words("blank-tray.in-place")};
        group_says(in_words("blank-tray.more-about-it"),
                   b.already == Already::Bare ? in_words("blank-tray.bare") : in_words("blank-tray.not-bare"));
        group_says(in_words("blank-tray.margin-side-by-side"), count(sides));
        group_says(in_words("blank-tray.what-the-tape-says"),
                   readings == 0 ? in_words("blank-tray.not-measured")
                                 : in_words("blank-tray.readings", {{"readings", readings}}));
        group_says(in_words("blank-tray.painted-fields"), count(b.fields.size()));
        group_says(in_words("blank-tray.frame-and-backing"),
                   frames[static_cast<int>(b.frame.kind)] + (b.backing ? in_words("blank-tray.backed") : QString()));
        group_says(in_words("blank-tray.hang-or-stand"), holds[static_cast<int>(b.holding.way)]);
        group_says(in_words("blank-tray.guides"), count(b.guides.size()));
        group_says(in_words("word.signs-of-this-job"), QString::number(desk_.job().signs.size()));
    }

    BlankForm form_;
};

}  // namespace

Tray* make_blank_tray(Desk& desk, QWidget* parent) { return new BlankTray(desk, parent); }

}  // namespace skarvel
