// The tray of Lettering: the texts and the art of a face, one at hand at a time.
#include <QHBoxLayout>

#include "stations/art_fields.h"
#include "stations/compose_part.h"
#include "stations/lettering_parts.h"
#include "theme/theme.h"
#include "theme/words.h"

namespace skarvel {
namespace {

class LetteringTray : public Tray {
  public:
    LetteringTray(Desk& desk, QWidget* parent)
        : Tray(Station::Lettering, desk, parent),
          text_form_(
              *this, [this] { return &text(); },
              [this](const TextForm::Change& change, const QString& merge) {
                  edit_face([&](Face& f) { change(f.lettering.texts[desk_.text_at()]); }, merge);
              }),
          face_form_(
              *this, [this] { return &face(); },
              [this](const FaceForm::Change& change, const QString& merge) { edit_face(change, merge); }),
          art_form_(
              *this, [this] { return desk_.art_at() ? &face().art[*desk_.art_at()] : nullptr; },
              [this](const ArtForm::Change& change, const QString& merge) {
                  if (const auto at = desk_.art_at()) edit_face([&](Face& f) { change(f.art[*at]); }, merge);
              }) {
        // A dimension of a text is tried first: what cannot be is not taken.
        text_form_.type_by([this](const TextForm::SetMeasure& set, const Measure& was, const Measure& typed) {
            desk_.type_dimension(set, was, typed);
        });
        title(in_words("lettering-tray.on-this-face"));
        things_ = face_form_.column();
        add_and_remove();
        text_part_ = text_form_.column();
        text_form_.inside(text_part_, [this] {
            words_ = words_box(text_form_);
            typeface_and_samples(text_form_);
            how_it_is_set(text_form_);
            group(in_words("lettering-tray.where-it-stands"), [this] { where_it_stands(text_form_, face_form_); });
        });
        art_ = art_form_.column();
        art_form_.inside(art_, [this] { art_fields(art_form_); });
        group(in_words("lettering-tray.compose-a-saying"), [this] {
            auto* part = new ComposePart(desk_, widget());
            add_decision(part);
            face_form_.on_refresh([part](const Face&) { part->refresh(); });
        });
        group(in_words("lettering-tray.colours-and-rims"), [this] { colours_and_rims(text_form_, face_form_); });
        group(in_words("lettering-tray.add-to-the-face"), [this] { add_to_the_face(desk_, face_form_); });
        group(in_words("lettering-tray.read-from-where"), [this] { read_from_where(face_form_); });
    }

    void refresh() override {
        refresh_things();
        text_part_->setVisible(!desk_.art_at());
        art_->setVisible(desk_.art_at().has_value());
        text_form_.refresh();
        art_form_.refresh();
        face_form_.refresh();
        say_groups();
        begin_follows(in_words("word.what-follows"));
        say_what_follows(*this, text_form_, plan());
        problems();
        end_follows();
    }

  private:
    const Text& text() const { return face().lettering.texts[desk_.text_at()]; }

    void add_and_remove() {
        auto* row = new QWidget(widget());
        auto* across = new QHBoxLayout(row);
        across->setContentsMargins(0, 0, 0, 0);
        QPushButton* add = button(in_words("lettering-tray.another-text"), Role::Plain, row);
        add->setObjectName("add text");
        remove_ = button(in_words("lettering-tray.remove"), Role::Plain, row);
        remove_->setObjectName("remove thing");
        across->addWidget(add);
        across->addWidget(remove_);
        across->addStretch(1);
        add_decision(row);
        connect(add, &QPushButton::clicked, this, [this] {
            desk_.apply(skarvel::add_text(desk_.job(), desk_.at()));
            desk_.select_text(face().lettering.texts.size() - 1);
            words_->setFocus();
        });
        connect(remove_, &QPushButton::clicked, this, [this] { remove(); });
    }

    // ---- what is on the face

    void remove() {
        if (const auto art = desk_.art_at()) {
            desk_.apply(remove_art(desk_.job(), desk_.at(), *art));
            desk_.select_text(0);
        } else {
            desk_.apply(remove_text(desk_.job(), desk_.at(), desk_.text_at(), plan()));
        }
    }

    void refresh_things() {
        QStringList names;
        for (const Text& t : face().lettering.texts) {
            QString words = text_of(t.words).replace('\n', " / ");
            names << (words.isEmpty() ? in_words("lettering-tray.no-words-yet") : words);
        }
        for (const Art& a : face().art) names << say({std::string("art.") + kind_of(a), {}});
        things_->setVisible(names.size() > 1);
        remove_->setVisible(desk_.art_at() || face().lettering.texts.size() > 1);
        if (names.size() != static_cast<int>(buttons_.size())) {
            for (QPushButton* b : buttons_) b->deleteLater();
            buttons_.clear();
            for (int i = 0; i < names.size(); ++i) {
                QPushButton* b = button({}, Role::Plain, things_);
                b->setCheckable(true);
                b->setObjectName(QString("thing %1").arg(i + 1));
                things_->layout()->addWidget(b);
                connect(b, &QPushButton::clicked, this, [this, i] {
                    const auto at = static_cast<std::size_t>(i);
                    const std::size_t texts = face().lettering.texts.size();
                    if (at < texts) {
                        desk_.select_text(at);
                    } else {
                        desk_.select_art(at - texts);
                    }
                    refresh();
                });
                buttons_.push_back(b);
            }
        }
        const std::size_t at = desk_.art_at() ? face().lettering.texts.size() + *desk_.art_at() : desk_.text_at();
        const QFontMetrics m(things_->font());
        for (int i = 0; i < names.size(); ++i) {
            QPushButton* b = buttons_[static_cast<std::size_t>(i)];
            b->setText(m.elidedText(names[i], Qt::ElideRight, std::max(120, width() - 90)));
            b->setAccessibleName(names[i]);
            b->setChecked(static_cast<std::size_t>(i) == at);
        }
    }

    void say_groups() {
        const Text& t = text();
        group_says(in_words("lettering-tray.shape-of-the-letters"),
                   t.bolder                 ? in_words("lettering-tray.bolder")
                   : t.width_percent != 100 ? in_words("lettering-tray.wide", {{"width_percent", t.width_percent}})
                                            : QString());
        group_says(in_words("lettering-tray.where-it-stands"), t.locked ? in_words("lettering-tray.locked")
                                                               : t.across || t.up
                                                                   ? in_words("lettering-tray.placed-by-hand")
                                                                   : in_words("lettering-tray.in-the-column"));
        group_says(in_words("lettering-tray.compose-a-saying"), QString());
        group_says(in_words("lettering-tray.colours-and-rims"),
                   face().colours.size() == 1
                       ? name_of(face().colours.front())
                       : in_words("lettering-tray.colours", {{"colours", face().colours.size()}}));
        group_says(in_words("lettering-tray.add-to-the-face"),
                   face().art.empty() ? QString() : QString::number(face().art.size()));
        group_says(in_words("lettering-tray.read-from-where"), length(face().seen.distance.value));
        group_says(in_words("lettering-tray.your-words-in-each"), QString());
        group_says(in_words("lettering-tray.the-arc"),
                   t.arc.below ? in_words("lettering-tray.below") : in_words("lettering-tray.above"));
    }

    TextForm text_form_;
    FaceForm face_form_;
    ArtForm art_form_;
    QWidget *things_ = nullptr, *text_part_ = nullptr, *art_ = nullptr, *words_ = nullptr;
    std::vector<QPushButton*> buttons_;
    QPushButton* remove_ = nullptr;
};

}  // namespace

Tray* make_lettering_tray(Desk& desk, QWidget* parent) { return new LetteringTray(desk, parent); }

}  // namespace skarvel
