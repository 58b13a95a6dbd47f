#include "drawing/parting.h"

#include <algorithm>
#include <cmath>

#include "theme/theme.h"
#include "theme/words.h"
#include "window/fields.h"

namespace skarvel {
namespace {

constexpr double seam_reach = 6;
constexpr double flag_reach = 26;  // a seam's flag stands outside the board

QLineF line_of(const FaceView& view, const Seam& seam, std::int64_t where) {
    const bool level = seam.axis == Axis::Y;
    return {view.at(level ? Point{seam.from, where} : Point{where, seam.from}),
            view.at(level ? Point{seam.to, where} : Point{where, seam.to})};
}

std::int64_t along_axis(const FaceView& view, QPointF where, Axis axis) {
    const QPointF p = view.transform().inverted().map(where);
    return std::llround(axis == Axis::X ? p.x() : p.y());
}

}  // namespace

std::optional<std::size_t> Parting::seam_at(const FaceView& view, QPointF where) const {
    if (plan() == nullptr) return std::nullopt;
    const auto& seams = plan()->cut.loads->seams;
    for (std::size_t i = 0; i < seams.size(); ++i) {
        const QLineF line = line_of(view, seams[i], seams[i].where);
        const bool upright = std::abs(line.x1() - line.x2()) < 1;
        const QRectF reach = QRectF(line.p1(), line.p2()).normalized();
        const QRectF near = upright ? reach.adjusted(-seam_reach, 0, seam_reach, flag_reach)
                                    : reach.adjusted(0, -seam_reach, flag_reach, seam_reach);
        if (near.contains(where)) return i;
    }
    return std::nullopt;
}

std::optional<Axis> Parting::seam_under(const FaceView& view, QPointF where) const {
    const auto at = seam_at(view, where);
    return at ? std::optional(plan()->cut.loads->seams[*at].axis) : std::nullopt;
}

bool Parting::press(const FaceView& view, QPointF where, Qt::KeyboardModifiers keys) {
    pressed_.reset();
    tried_.reset();
    if (plan() == nullptr) return false;
    if (const auto seam = seam_at(view, where)) {
        desk_.pick({{}, plan()->cut.loads->seams[*seam]});
        pressed_ = where;
        return true;
    }
    const auto names = names_of(*plan()->cut.pieces);
    const QPointF at = view.transform().inverted().map(where);
    const Point point{std::llround(at.x()), std::llround(at.y())};
    const std::int64_t near = std::llround(3 / view.scale);
    const Region spot = Region::rectangle({{point.x - near, point.y - near}, {point.x + near, point.y + near}});
    for (std::size_t i = 0; i < names.size(); ++i) {
        const Region& shape = (*plan()->cut.pieces)[i].shape;
        if (!shape.bounds().meets(spot.bounds()) || !touch(shape, spot)) continue;
        std::vector<PieceName> picked = desk_.picked().pieces;
        const auto known = std::find(picked.begin(), picked.end(), names[i]);
        if ((keys & (Qt::ShiftModifier | Qt::ControlModifier)) == 0) {
            picked = {names[i]};
        } else if (known != picked.end()) {
            picked.erase(known);
        } else {
            picked.push_back(names[i]);
        }
        desk_.pick({std::move(picked)});
        return true;
    }
    // A free place on the face: a seam may be wanted there, or none.
    const Box& face = plan()->face->blank->face;
    const bool on_face = face.holds({point, point});
    desk_.pick(on_face ? Desk::Picked{{}, {}, point} : Desk::Picked{});
    return on_face;
}

bool Parting::move(const FaceView& view, QPointF where) {
    const auto seam = desk_.seam_at();
    if (!pressed_ || !seam || plan() == nullptr) return false;
    if (!tried_ && std::hypot(where.x() - pressed_->x(), where.y() - pressed_->y()) < drag_pixels) return true;
    const Seam& s = plan()->cut.loads->seams[*seam];
    tried_ = try_seam(*plan(), s, along_axis(view, where, s.axis), desk_.shop().display);
    return true;
}

void Parting::release() {
    const auto seam = desk_.seam_at();
    const bool moved = tried_ && seam && plan() != nullptr;
    if (moved) {
        Seam there = plan()->cut.loads->seams[*seam];
        there.where = tried_->where;
        Job job = move_seam(desk_.job(), at(), *plan(), *seam, tried_->at);
        desk_.apply(std::move(job));
        desk_.pick({{}, there});
    }
    pressed_.reset();
    tried_.reset();
}

bool Parting::key(const QKeyEvent& event) {
    const auto& picked = desk_.picked();
    if (event.key() == Qt::Key_Escape && (picked.seam || picked.place || !picked.pieces.empty())) {
        pressed_.reset();
        tried_.reset();
        desk_.pick({});
        return true;
    }
    const auto seam = desk_.seam_at();
    if (!seam || plan() == nullptr) return false;
    const Display& display = desk_.shop().display;
    if (event.key() == Qt::Key_Delete || event.key() == Qt::Key_Backspace) {
        desk_.apply(forbid_seam(desk_.job(), at(), *plan(), *seam, display));
        desk_.pick({});
        return true;
    }
    const Seam& s = plan()->cut.loads->seams[*seam];
    int steps = 0;
    // Laid down, an upright face has its top to the left.
    if (event.key() == Qt::Key_Up || (event.key() == Qt::Key_Right && s.axis == Axis::X)) steps = 1;
    if (event.key() == Qt::Key_Down || (event.key() == Qt::Key_Left && s.axis == Axis::X)) steps = -1;
    if (event.key() == Qt::Key_Left && s.axis == Axis::Y) steps = 1;
    if (event.key() == Qt::Key_Right && s.axis == Axis::Y) steps = -1;
    if (steps == 0) return false;
    if ((event.modifiers() & Qt::ShiftModifier) != 0) steps *= 8;
    const std::int64_t step =
        to_grid(display.unit == Unit::Inch ? Length::inches(1) / display.denominator : Length::from_mm(1));
    const TriedSeam there = try_seam(*plan(), s, s.where + steps * step, display);
    Seam moved = s;
    moved.where = there.where;
    desk_.apply(move_seam(desk_.job(), at(), *plan(), *seam, there.at), "seam");
    desk_.pick({{}, moved});
    return true;
}

void Parting::paint(QPainter& p, const FaceView& view) const {
    const ColourPlan* here = desk_.face_plan();
    if (here == nullptr) return;
    const Tokens& t = Theme::tokens();
    p.setRenderHint(QPainter::Antialiasing);
    const auto names = names_of(*here->cut.pieces);
    const auto& picked = desk_.picked().pieces;
    for (std::size_t i = 0; i < names.size(); ++i) {
        if (std::find(picked.begin(), picked.end(), names[i]) == picked.end()) continue;
        QPainterPath path = view.transform().map(path_of((*here->cut.pieces)[i].shape));
        cased(p, path, QPen(t.chalk, 2.5));
    }
    if (const auto& place = desk_.picked().place) {
        const QPointF at = view.at(*place);
        const double arm = Theme::px(14);
        QPainterPath cross(at - QPointF(arm, 0));
        cross.lineTo(at + QPointF(arm, 0));
        cross.moveTo(at - QPointF(0, arm));
        cross.lineTo(at + QPointF(0, arm));
        cased(p, cross, QPen(t.chalk, 2));
    }
    const auto seam = desk_.seam_at();
    if (!seam) return;
    const Seam& s = here->cut.loads->seams[*seam];
    const auto stroke = [&](const QLineF& line, const QPen& pen) {
        QPainterPath path(line.p1());
        path.lineTo(line.p2());
        cased(p, path, pen);
    };
    stroke(line_of(view, s, s.where), QPen(t.chalk, 3.5));
    if (!tried_) return;
    const QLineF ghost = line_of(view, s, tried_->where);
    stroke(ghost, QPen(tried_->crossed > Length{} ? t.ochre : t.chalk, 2, Qt::DashLine));
    const Display& display = desk_.shop().display;
    QString words = shown(skarvel::show(tried_->at.value, display));
    words += tried_->crossed > Length{}
                 ? in_words("on-drawing.crosses-of-ink", {{"crossed", shown(skarvel::show(tried_->crossed, display))}})
                 : in_words("on-drawing.crosses-no-ink");
    p.setFont(Theme::font(15, QFont::Medium));
    const QRectF text = p.fontMetrics().boundingRect(words).adjusted(-8, -4, 8, 4);
    QRectF chip(QPointF(), text.size());
    chip.moveCenter(ghost.center());
    p.setPen(QPen(t.pencil, 1));
    p.setBrush(t.sheet);
    p.drawRoundedRect(chip, 3, 3);
    p.setPen(t.graphite);
    p.drawText(chip, Qt::AlignCenter, words);
}

}  // namespace skarvel
