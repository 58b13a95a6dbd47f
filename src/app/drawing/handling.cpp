#include "drawing/handling.h"

#include <algorithm>
#include <cmath>

#include "lettering/setting.h"
#include "theme/theme.h"
#include "theme/words.h"

namespace skarvel {
namespace {

constexpr double snap_pixels = 7;

Point face_point(const FaceView& view, QPointF where) {
    const QPointF p = view.transform().inverted().map(where);
    return {std::llround(p.x()), std::llround(p.y())};
}

}  // namespace

std::optional<PlacedThing> Handling::at_hand() const {
    if (plan() == nullptr) return std::nullopt;
    const ThingId id = desk_.thing_at();
    for (const PlacedThing& t : things_on(desk_.face(), *plan())) {
        if (t.id == id) return t;
    }
    return std::nullopt;
}

bool Handling::point_at_part(const FaceView& view, QPointF where, Qt::KeyboardModifiers keys) {
    const auto at = desk_.art_at();
    if (!at || *at >= plan()->face->art->parts.size()) return false;
    const auto* drawing = std::get_if<PlacedDrawing>(&desk_.face().art[*at].kind);
    if (drawing == nullptr) return false;
    const Point point = face_point(view, where);
    const Region spot = Region::rectangle({{point.x - 8, point.y - 8}, {point.x + 8, point.y + 8}});
    const auto& parts = plan()->face->art->parts[*at];
    for (std::size_t i = parts.size(); i-- > 0;) {
        if (!touch(parts[i].shape, spot)) continue;
        const bool drops = (keys & Qt::ControlModifier) != 0;
        desk_.apply(drops ? drop_part(desk_.job(), desk_.at(), *at, parts[i].of_drawing)
                          : recolour_part(desk_.job(), desk_.at(), *at, parts[i].of_drawing, parts[i].colour));
        return true;
    }
    return false;
}

bool Handling::press(const FaceView& view, QPointF where, Qt::KeyboardModifiers keys, bool letter) {
    cancel();
    if (plan() == nullptr) return false;
    if ((keys & (Qt::ControlModifier | Qt::ShiftModifier)) != 0 && point_at_part(view, where, keys)) return true;
    const auto things = things_on(desk_.face(), *plan());
    // The smallest thing under the pointer is meant: a border lies around everything.
    const PlacedThing* found = nullptr;
    for (const PlacedThing& t : things) {
        if (!view.rect(t.box).adjusted(-4, -4, 4, 4).contains(where)) continue;
        const auto size = [](const Box& b) { return static_cast<double>(b.width()) * static_cast<double>(b.height()); };
        if (found == nullptr || size(t.box) < size(found->box)) found = &t;
    }
    if (found == nullptr) return false;
    const auto& texts = desk_.face().lettering.texts;
    for (std::size_t i = 0; i < texts.size(); ++i) {
        if (texts[i].id == found->id) desk_.select_text(i);
    }
    const auto& art = desk_.face().art;
    for (std::size_t i = 0; i < art.size(); ++i) {
        if (art[i].id == found->id) desk_.select_art(i);
    }
    letter_.reset();
    if (letter && !desk_.art_at()) {
        for (const PlacedLetter& l : plan()->face->lettering->letters) {
            if (static_cast<std::size_t>(l.of) == desk_.text_at() && view.rect(l.ink.bounds()).contains(where))
                letter_ = l.in_text;
        }
    }
    pressed_ = where;
    return true;
}

bool Handling::move(const FaceView& view, QPointF where) {
    if (!pressed_ || plan() == nullptr) return false;
    if (!snap_ && std::hypot(where.x() - pressed_->x(), where.y() - pressed_->y()) < drag_pixels) return true;
    const auto thing = at_hand();
    if (!thing || is_locked(desk_.face(), thing->id) || letter_) return true;
    // Lines that follow an edge or go round the face keep their place.
    if (const auto at = desk_.art_at()) {
        const std::size_t kind = desk_.face().art[*at].kind.index();
        if (kind == 0 || kind == 1 || kind == 5 || kind == 6) return true;
    } else if (follows_edge(desk_.face().lettering.texts[desk_.text_at()],
                            desk_.sign().blank.kind == Kind::Round ? 1 : 0)) {
        return true;
    }
    SnapInput in;
    in.thing = *thing;
    for (const PlacedThing& t : things_on(desk_.face(), *plan())) {
        if (t.id == thing->id) continue;
        // What hangs on the dragged thing moves with it.
        bool follows = false;
        for (const Text& text : desk_.face().lettering.texts) {
            if (text.id == t.id)
                follows = (text.across && text.across->on == thing->id) || (text.up && text.up->on == thing->id);
        }
        if (!follows) in.others.push_back(t);
    }
    in.face = plan()->face->blank->face;
    in.usable = plan()->face->blank->usable;
    in.by = face_point(view, where) - face_point(view, *pressed_);
    in.reach = std::llround(snap_pixels / view.scale);
    in.display = desk_.shop().display;
    snap_ = snap(in);
    return true;
}

void Handling::release() {
    if (snap_) desk_.apply(hang_thing(desk_.job(), desk_.at(), desk_.thing_at(), snap_->across, snap_->up));
    pressed_.reset();
    snap_.reset();
}

void Handling::cancel() {
    pressed_.reset();
    snap_.reset();
}

bool Handling::key(const QKeyEvent& event) {
    int x = 0;
    int y = 0;
    switch (event.key()) {
        case Qt::Key_Left:
            x = -1;
            break;
        case Qt::Key_Right:
            x = 1;
            break;
        case Qt::Key_Up:
            y = 1;
            break;
        case Qt::Key_Down:
            y = -1;
            break;
        default:
            return false;
    }
    if (plan() == nullptr) return true;
    const bool inches = desk_.shop().display.unit == Unit::Inch;
    const Length step = (event.modifiers() & Qt::ShiftModifier) != 0 ? (inches ? 0.5_in : Length::from_mm(10))
                        : (event.modifiers() & Qt::AltModifier) != 0
                            ? (inches ? Length::sixtyfourths(1) : Length::from_mm(0.25))
                            : (inches ? 0.0625_in : Length::from_mm(1));
    if (letter_ && !desk_.art_at()) {
        desk_.apply(nudge_letter(desk_.job(), desk_.at(), desk_.text_at(), *letter_, step * x, step * y),
                    "nudge-letter");
    } else {
        desk_.apply(
            nudge_thing(desk_.job(), desk_.at(), *plan(), desk_.thing_at(), step * x, step * y, desk_.shop().display),
            "nudge");
    }
    return true;
}

void Handling::paint(QPainter& p, const FaceView& view) const {
    const auto thing = at_hand();
    const auto count = desk_.face().lettering.texts.size() + desk_.face().art.size();
    if (!thing || (count < 2 && !snap_ && !letter_)) return;
    const Tokens& t = Theme::tokens();
    Box box{thing->box.low + offset(), thing->box.high + offset()};
    if (letter_ && !desk_.art_at()) {
        for (const PlacedLetter& l : plan()->face->lettering->letters) {
            if (static_cast<std::size_t>(l.of) == desk_.text_at() && l.in_text == *letter_) box = l.ink.bounds();
        }
    }
    const QRectF r = view.rect(box).adjusted(-3, -3, 3, 3);
    // Between two lines as they are snapped for lettering, running past its ends; in pencil where it is locked.
    const bool locked = is_locked(desk_.face(), thing->id);
    const double past = Theme::px(14), tick = Theme::px(7);
    QPainterPath snapped;
    for (const double y : {r.top(), r.bottom()}) {
        snapped.moveTo(r.left() - past, y);
        snapped.lineTo(r.right() + past, y);
        for (const double x : {r.left(), r.right()}) {
            snapped.moveTo(x, y - tick);
            snapped.lineTo(x, y + tick);
        }
    }
    cased(p, snapped, locked ? QPen(t.pencil, 1.5, Qt::DashLine) : QPen(t.chalk, 2));
    if (!snap_) return;
    const Box& face = view.face;
    QPainterPath lines;
    if (snap_->on_x) {
        lines.moveTo(view.at({snap_->line_x, face.low.y}));
        lines.lineTo(view.at({snap_->line_x, face.high.y}));
    }
    if (snap_->on_y) {
        lines.moveTo(view.at({face.low.x, snap_->line_y}));
        lines.lineTo(view.at({face.high.x, snap_->line_y}));
    }
    cased(p, lines, QPen(t.chalk, 1, Qt::DashLine));
    const auto touched = touched_by(*plan()->face->lettering, thing->id, offset());
    if (touched.empty()) return;
    // Said at once, beside what is dragged.
    QStringList names;
    for (const std::size_t i : touched)
        names << QString::fromStdString(desk_.face().lettering.texts[i].words).section('\n', 0, 0);
    p.setFont(Theme::font(15, QFont::DemiBold));
    const QString words = in_words("on-drawing.touches", {{"others", names.join(", ")}});
    QRectF tag(r.topLeft() - QPointF(0, Theme::px(30)),
               QSizeF(p.fontMetrics().horizontalAdvance(words) + 16, Theme::px(26)));
    if (tag.top() < 0) tag.moveTop(r.bottom() + 4);
    p.fillRect(tag, t.sheet);
    p.setPen(QPen(t.ochre, 1));
    p.drawRect(tag);
    p.drawText(tag, Qt::AlignCenter, words);
}

}  // namespace skarvel
