// What can be done where the drawing was pointed at with the other button, or with the menu key.
#include <QContextMenuEvent>
#include <QMenu>

#include "drawing/drawing.h"
#include "job/face_commands.h"
#include "theme/words.h"

namespace skarvel {

void Drawing::contextMenuEvent(QContextMenuEvent* event) {
    QMenu menu(this);
    menu.setObjectName("drawing menu");
    const auto add = [&](const char* words, auto act) {
        connect(menu.addAction(in_words(words)), &QAction::triggered, this, act);
    };
    const auto tick = [&](const char* words, bool on, auto act) {
        QAction* action = menu.addAction(in_words(words));
        action->setCheckable(true);
        action->setChecked(on);
        connect(action, &QAction::triggered, this, act);
    };
    const bool by_mouse = event->reason() == QContextMenuEvent::Mouse;
    if (station_ == Station::Lettering && face() != nullptr && !measuring_) {
        // What lies there is taken in hand first.
        bool on_thing = !by_mouse;
        if (by_mouse) {
            on_thing = handling_.press(under(event->pos()), event->pos(), Qt::NoModifier, false);
            handling_.release();
        }
        if (on_thing) {
            const ThingId id = desk_.thing_at();
            const bool locked = is_locked(desk_.face(), id);
            tick("word.locked-in-place", locked, [this, locked] {
                Job job = desk_.job();
                Face& face = job.signs[desk_.sign_at()].faces[desk_.face_at()];
                if (const auto art = desk_.art_at())
                    face.art[*art].locked = !locked;
                else
                    face.lettering.texts[desk_.text_at()].locked = !locked;
                desk_.apply(std::move(job));
            });
            add("drawing-menu.where-it-stands-by-itself",
                [this, id] { desk_.apply(unhang_thing(desk_.job(), desk_.at(), id)); });
            if (desk_.art_at()) {
                add("drawing-menu.to-the-front",
                    [this] { desk_.apply(raise_art(desk_.job(), desk_.at(), *desk_.art_at(), true)); });
                add("drawing-menu.to-the-back",
                    [this] { desk_.apply(raise_art(desk_.job(), desk_.at(), *desk_.art_at(), false)); });
            }
            if (desk_.art_at() || desk_.face().lettering.texts.size() > 1) {
                add("drawing-menu.take-it-off", [this] {
                    desk_.apply(desk_.art_at() ? remove_art(desk_.job(), desk_.at(), *desk_.art_at(), face())
                                               : remove_text(desk_.job(), desk_.at(), desk_.text_at(), face()));
                });
            }
            menu.addSeparator();
        }
        add("drawing-menu.another-text", [this] {
            desk_.apply(add_text(desk_.job(), desk_.at()));
            desk_.select_text(desk_.face().lettering.texts.size() - 1);
        });
        add("drawing-menu.equal-gaps-up", [this] {
            if (face() != nullptr)
                desk_.apply(spread_things(desk_.job(), desk_.at(), *face(), Axis::Y, desk_.shop().display));
        });
        tick("drawing-menu.step-back", step_back_, [this] { set_step_back(!step_back_); });
        menu.addSeparator();
    }
    tick("window.measure", measuring_, [this] { set_measuring(!measuring_); });
    tick("window.close-up", close_up_, [this] { set_close_up(!close_up_); });
    tick("window.laid-down", laid_down(), [this] { set_laid_down(!laid_down()); });
    menu.addSeparator();
    QAction* undo = menu.addAction(in_words("window.undo"));
    undo->setEnabled(desk_.can_undo());
    connect(undo, &QAction::triggered, this, [this] { desk_.undo(); });
    menu.exec(event->globalPos());
}

}  // namespace skarvel
