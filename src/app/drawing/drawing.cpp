#include "drawing/drawing.h"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QScreen>
#include <QToolTip>
#include <QWheelEvent>
#include <cmath>

#include "drawing/scale.h"
#include "theme/theme.h"
#include "theme/words.h"

namespace skarvel {
namespace {

constexpr double least_close_up = 24;  // pixels for an inch

}  // namespace

Drawing::Drawing(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk), handling_(desk), parting_(desk) {
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    setAccessibleName(in_words("on-drawing.scale-drawing"));
    setObjectName("drawing");
}

// Another way to cut is shown in place of the job while it is pointed at.
const Job& Drawing::job() const {
    return desk_.looked_at() && station_ == Station::Sections ? desk_.looked_at()->job : desk_.job();
}

const Plan& Drawing::plan() const {
    return desk_.looked_at() && station_ == Station::Sections ? *desk_.looked_at()->plan : desk_.plan();
}

const Sign& Drawing::sign() const { return job().signs[desk_.sign_at()]; }

const ColourPlan* Drawing::face() const { return desk_.face_plan(); }

void Drawing::set_station(Station station) {
    station_ = station;
    chosen_zone_.reset();
    lit_.reset();
    closer_at_.reset();
    lay_out();
}

void Drawing::set_close_up(bool close_up) {
    close_up_ = close_up;
    real_size_ = false;
    zoom_ = 0;
    pan_ = pan_across_ = 0;
    lay_out();
    Q_EMIT view_changed();
}

void Drawing::set_laid_down(bool laid_down) {
    laid_down_chosen_ = laid_down;
    pan_ = pan_across_ = 0;
    lay_out();
    Q_EMIT view_changed();
}

void Drawing::start_over() {
    chosen_zone_.reset();
    measured_.clear();
    pan_ = pan_across_ = closer_zoom_ = 0;
    closer_at_.reset();
    lay_out();
}

void Drawing::refresh(bool behind) {
    behind_ = behind;
    lay_out();
}

void Drawing::change_blank(const std::function<void(Blank&)>& change) {
    Job job = desk_.job();
    change(job.signs[desk_.sign_at()].blank);
    desk_.apply(std::move(job));
}

void Drawing::resizeEvent(QResizeEvent*) { lay_out(); }

void Drawing::lay_out() {
    dimensions_.clear();
    loads_.clear();
    table_ = closer_area_ = {};
    used_callouts_.clear();
    if (face() != nullptr && !face()->face->blank->face.empty()) {
        lay_out_board();
        lay_out_dimensions();
        if (station_ == Station::Sections) lay_out_loads();
    }
    lay_out_closer();
    for (auto& [id, box] : callouts_) {
        if (std::find(used_callouts_.begin(), used_callouts_.end(), id) == used_callouts_.end() && !box->hasFocus())
            box->hide();
    }
    updateGeometry();
    update();
}

void Drawing::lay_out_board() {
    view_.face = face()->face->blank->face;
    const bool upright = view_.face.height() > view_.face.width();
    // Long boards come laid down, others as they will be read, until the maker says otherwise.
    constexpr double long_board = 2.5;
    const bool is_long =
        static_cast<double>(view_.face.height()) > long_board * static_cast<double>(view_.face.width());
    laid_down_ = laid_down_chosen_.value_or(is_long);
    view_.laid_down = upright && laid_down_;
    const double top = Theme::px(60);
    const double length = static_cast<double>(view_.lengthwise() ? std::max(view_.face.width(), view_.face.height())
                                                                 : view_.face.width());
    const double across = static_cast<double>(view_.lengthwise() ? std::min(view_.face.width(), view_.face.height())
                                                                 : view_.face.height());
    // What lies round the face, in grid units: frame, backing, mouldings.
    const Box whole = face()->face->blank->built.whole;
    const double extra_x = static_cast<double>(view_.lengthwise() && view_.face.height() > view_.face.width()
                                                   ? whole.high.y - view_.face.high.y
                                                   : whole.high.x - view_.face.high.x);
    const double extra_y = static_cast<double>(view_.lengthwise() && view_.face.height() > view_.face.width()
                                                   ? whole.high.x - view_.face.high.x
                                                   : whole.high.y - view_.face.high.y);
    const double room_x = width() - 2 * paper_side -
                          Theme::px(!view_.lengthwise()             ? 120
                                    : station_ == Station::Sections ? 8
                                                                    : 112);
    const double below = Theme::px(station_ == Station::Sections ? 60 : 140);
    // What is seen at once counts: loads under a board make the drawing itself higher.
    const int seen = parentWidget() != nullptr ? std::min(height(), parentWidget()->height()) : height();
    const double room_y = std::max(80.0, seen - top - Theme::px(30) - below);
    overview_ = {};
    double board_top = top + Theme::px(26);
    if (close_up_) {
        overview_ = QRectF(paper_side, top, width() - 2 * paper_side, Theme::px(72));
        board_top = overview_.bottom() + Theme::px(36);
        const double inch = real_size_ && screen() != nullptr ? screen()->physicalDotsPerInch()
                            : zoom_ > 0                       ? zoom_
                                                              : least_close_up;
        view_.scale = std::max(inch, 4.0) / units_per_inch;
    } else {
        double room = station_ == Station::Sections && view_.lengthwise() ? std::min(room_y, 220.0) : room_y;
        view_.scale = std::min(room_x / (length + 2 * extra_x), room / (across + 2 * extra_y));
        loads_beside_ = false;
        if (station_ == Station::Sections && !face()->cut.loads->loads.empty()) {
            // Board and loads share one scale: two mats fit side by side.
            const double mat = std::max(to_grid(shown_along()), to_grid(face()->cut.bed.usable.across));
            // Beside the last one stands which end goes in first.
            const double end = std::max(0.0, Theme::px(18) + 8 - paper_side);
            view_.scale = std::min(view_.scale, (width() - 3 * paper_side - end) / (2 * mat));
            if (!view_.lengthwise()) {
                // They stand beside the board, each with its words, unless that leaves hardly any of it.
                constexpr double hardly = 0.6;
                const double taken = 2 * paper_side + Theme::px(44) + beside_board;
                const double board = length + 2 * extra_x;
                const double beside =
                    std::min((width() - taken) / (board + mat), (width() - taken - Theme::px(load_words)) / board);
                loads_beside_ = beside >= hardly * view_.scale;
                if (loads_beside_) view_.scale = std::min(view_.scale, beside);
            }
        }
        pan_ = pan_across_ = 0;
    }
    const QSizeF size = view_.size();
    around_ = QSizeF(extra_x * view_.scale, extra_y * view_.scale);
    if (!close_up_) board_top += around_.height();
    const double shown_height =
        close_up_ ? std::max(60.0, std::min(size.height(), height() - board_top - below)) : size.height();
    board_area_ = QRectF(paper_side + (close_up_ ? 0 : around_.width()), board_top,
                         close_up_ ? width() - 2 * paper_side : size.width(), shown_height);
    pan_ = std::clamp(pan_, 0.0, std::max(0.0, size.width() - board_area_.width()));
    pan_across_ = std::clamp(pan_across_, 0.0, std::max(0.0, size.height() - board_area_.height()));
    view_.origin = board_area_.topLeft() - QPointF(pan_, pan_across_);
    if (!view_.lengthwise() && !close_up_) {
        board_area_.moveLeft(paper_side + Theme::px(44) + around_.width());
        view_.origin = board_area_.topLeft();
    }
    needed_height_ = static_cast<int>(board_top + shown_height + around_.height() + below);
}

void Drawing::paintEvent(QPaintEvent*) {
    const Tokens& t = Theme::tokens();
    QPainter p(this);
    p.fillRect(rect(), t.sheet);
    paint_header(p);
    if (face() == nullptr || face()->face->blank->face.empty()) return;
    if (behind_) p.setOpacity(0.55);
    if (!overview_.isEmpty()) paint_overview(p);
    p.save();
    const QRectF ruler_room = board_area_.adjusted(0, -Theme::px(26), 0, 0);
    p.setClipRect(close_up_ ? ruler_room.adjusted(-1, 0, 1, Theme::px(24)) : QRectF(rect()));
    if (step_back_ && station_ == Station::Lettering) {
        p.restore();
        return paint_step_back(p);
    }
    paint_face(p, view_);
    p.restore();
    paint_ruler(p, view_, board_area_, close_up_ ? QSizeF() : around_);
    if (!closer_area_.isEmpty()) paint_closer(p);
    paint_dimensions(p);
    if (station_ == Station::Blank) {
        paint_board_end(p);
        paint_cut_diagram(p);
        paint_out_of_true(p);
    }
    paint_tape_measure(p);
    if (station_ == Station::Sections) {
        paint_loads(p);
        paint_table(p);
    }
    if (hasFocus() && by_keyboard_) {
        p.setPen(QPen(t.chalk, 2));
        p.setBrush(Qt::NoBrush);
        p.drawRect(rect().adjusted(1, 1, -1, -1));
    }
}

void Drawing::paint_face(QPainter& p, const FaceView& view) {
    const FacePainter painter(sign(), sign().faces[desk_.face_at()], *face(), view, &plan());
    painter.board(p, station_ == Station::Blank);
    if (station_ == Station::Sections) painter.sections(p, lit_);
    // What the hands did is drawn across them.
    const bool by_hand = station_ == Station::Sections && desk_.evidence() && !desk_.looked_at();
    painter.clear_zones(p, station_ == Station::Blank ? chosen_zone_ : std::nullopt, !by_hand);
    if (station_ == Station::Lettering || station_ == Station::Blank) {
        painter.guides(p);
        painter.usable(p);
    }
    if (station_ == Station::Lettering) {
        painter.all_ink(p, as_cut_, desk_.thing_at(), handling_.offset());
        painter.thin(p);
        handling_.paint(p, view);
    } else if (station_ == Station::Sections) {
        painter.ink(p, true);
    } else {
        painter.all_ink(p);
    }
    if (station_ == Station::Blank) paint_blank_marks(p, view);
    if (station_ != Station::Sections) return paint_bench_marks(p, view);
    std::vector<QRectF> said = painter.seams(p);
    if (!desk_.looked_at()) {
        parting_.paint(p, view);
        paint_evidence(p, said);
    }
    paint_section_numbers(p, said);
}

QString Drawing::kind_title(Kind kind) {
    switch (kind) {
        case Kind::Panel:
            return in_words("on-drawing.the-panel-as-it");
        case Kind::Canvas:
            return in_words("on-drawing.the-canvas-as-it");
        case Kind::Round:
            return in_words("on-drawing.the-round-as-it");
        case Kind::Arrow:
            return in_words("on-drawing.the-arrow-as-it");
        case Kind::Arch:
            return in_words("on-drawing.the-arch-as-it");
        case Kind::Field:
            return in_words("on-drawing.the-field-inside-its");
        case Kind::Drawn:
            return in_words("on-drawing.the-outline-at-its");
        case Kind::Board:
            break;
    }
    return in_words("on-drawing.the-board-as-it");
}

void Drawing::paint_header(QPainter& p) {
    QString title, under;
    const auto lines = summary(job(), plan(), desk_.records().size(), desk_.at());
    const StationLine& line = lines.at(static_cast<std::size_t>(station_));
    switch (station_) {
        case Station::Blank:
            title = kind_title(sign().blank.kind);
            under =
                measuring_ ? in_words("on-drawing.tape-measure-click-two") : in_words("on-drawing.type-what-the-tape");
            break;
        case Station::Lettering:
            title = shown(desk_.say(line.first));
            under = shown(desk_.say(line.second));
            break;
        default:
            title = shown(desk_.say(line.first));
            under = in_words("on-drawing.numbered-in-laying-order");
            if (desk_.looked_at())
                under = in_words("on-drawing.only-looked-at", {{"what", shown(desk_.say(desk_.looked_at()->what))}});
    }
    if (behind_ && desk_.planning().second > 1)
        under = in_words("on-drawing.planning-of-faces-any",
                         {{"done", desk_.planning().first}, {"faces", desk_.planning().second}});
    paint_heading(p, width(), title, real_size_ && close_up_ ? in_words("on-drawing.real-size-if-the") : under);
}

void Drawing::paint_ruler(QPainter& p, const FaceView& view, const QRectF& area, QSizeF outside) {
    const Tokens& t = Theme::tokens();
    p.setPen(QPen(t.pencil, 1));
    p.setFont(Theme::font(13));
    const bool metric = desk_.shop().display.unit == Unit::Millimetre;
    const double unit = metric ? units_per_mm * 10 : units_per_inch;  // a centimetre or an inch
    const double pixels = unit * view.scale;
    const bool y_axis = view.face.height() > view.face.width();
    const std::int64_t length = y_axis ? view.face.height() : view.face.width();
    const int tick = pixels >= 5 ? 1 : metric ? 5 : 6;
    int number = metric ? 10 : 6;
    while (number * pixels < Theme::px(48)) number *= 2;
    if (!metric && pixels > 60) number = 1;
    for (int i = 0; i * unit <= static_cast<double>(length) + 1; i += tick) {
        const auto at = static_cast<std::int64_t>(i * unit);
        const bool numbered = i % number == 0;
        const bool middle = i % (metric ? 5 : 3) == 0;
        const double size = numbered ? 8 : middle ? 6 : 4;
        const QPointF q = view.at(y_axis ? Point{0, at} : Point{at, 0});
        if (view.lengthwise()) {
            const double y = area.top() - outside.height();
            if (q.x() < area.left() - 1 || q.x() > area.right() + 1) continue;
            p.drawLine(QPointF(q.x(), y - size), QPointF(q.x(), y));
            if (numbered)
                p.drawText(QRectF(q.x() - 30, y - Theme::px(26), 60, Theme::px(18)), Qt::AlignCenter,
                           QString::number(metric ? i * 10 : i));
        } else {
            const double x = area.left() - outside.width();
            if (q.y() < area.top() - 1 || q.y() > area.bottom() + 1) continue;
            p.drawLine(QPointF(x - size, q.y()), QPointF(x, q.y()));
            if (numbered)
                p.drawText(QRectF(x - 50, q.y() - 10, 38, 20), Qt::AlignRight | Qt::AlignVCenter,
                           QString::number(metric ? i * 10 : i));
        }
    }
}

void Drawing::paint_overview(QPainter& p) {
    overview_view_ = view_;
    overview_view_.laid_down = view_.face.height() > view_.face.width();
    const double length = static_cast<double>(std::max(view_.face.width(), view_.face.height()));
    const double across = static_cast<double>(std::min(view_.face.width(), view_.face.height()));
    overview_view_.scale = std::min(overview_.width() / length, overview_.height() / across);
    const QSizeF size = overview_view_.size();
    overview_view_.origin = QPointF(overview_.left(), overview_.center().y() - size.height() / 2);
    const FacePainter painter(sign(), sign().faces[desk_.face_at()], *face(), overview_view_, &plan());
    painter.board(p, station_ == Station::Blank);
    painter.clear_zones(p);
    painter.all_ink(p);
    paint_seen(p, overview_view_, view_, board_area_);
}

void Drawing::wheelEvent(QWheelEvent* event) {
    if (face() == nullptr || (event->modifiers() & Qt::ShiftModifier) != 0) return event->ignore();
    if (closer_area_.contains(event->position())) {
        zoom_closer(event->position(), std::pow(1.2, event->angleDelta().y() / 120.0));
        return event->accept();
    }
    if (!board_area_.adjusted(-40, -40, 40, 40).contains(event->position())) return event->ignore();
    const QPointF face_point = view_.transform().inverted().map(event->position());
    const double now = view_.scale * units_per_inch;
    const double next = std::clamp(now * std::pow(1.2, event->angleDelta().y() / 120.0), 4.0, 400.0);
    if (!close_up_) {
        close_up_ = true;
        Q_EMIT view_changed();
    }
    real_size_ = false;
    zoom_ = next;
    lay_out();
    // What was under the pointer stays under it.
    const QPointF moved = view_.transform().map(face_point) - event->position();
    pan_ += moved.x();
    pan_across_ += moved.y();
    lay_out();
    event->accept();
}

void Drawing::mousePressEvent(QMouseEvent* event) {
    setFocus(Qt::MouseFocusReason);
    held_closer_ = closer_area_.contains(event->position());
    if (measuring_ && face() != nullptr && event->button() == Qt::LeftButton) {
        const QPointF q = under(event->position()).transform().inverted().map(snapped(event->position()));
        if (measured_.size() != 1) measured_.clear();
        measured_.push_back({std::llround(q.x()), std::llround(q.y())});
        measuring_fixed_ = measured_.size() == 2;
        return update();
    }
    if (station_ == Station::Blank && face() != nullptr && event->button() == Qt::LeftButton) {
        const auto zone = zone_at(event->position());
        if (zone != chosen_zone_) {
            chosen_zone_ = zone;
            lay_out();
        }
        if (zone) return;
    }
    if (station_ == Station::Lettering && !step_back_ && face() != nullptr && event->button() == Qt::LeftButton &&
        !space_down_ && !overview_.contains(event->position()) &&
        handling_.press(under(event->position()), event->position(), event->modifiers(), false)) {
        if (!held_closer_) look_closer_at(event->position());
        return lay_out();
    }
    if (station_ == Station::Sections && !desk_.looked_at() && face() != nullptr && event->button() == Qt::LeftButton &&
        !space_down_ && !overview_.contains(event->position()) &&
        parting_.press(view_, event->position(), event->modifiers())) {
        return update();
    }
    for (const Dimension& d : dimensions_) {
        if (d.box == nullptr && event->button() == Qt::LeftButton && d.text_rect.contains(event->position())) {
            return open_decider(d.opens);
        }
    }
    const bool pans = event->button() == Qt::MiddleButton ||
                      (event->button() == Qt::LeftButton && (space_down_ || close_up_ || held_closer_));
    if (event->button() == Qt::LeftButton && overview_.contains(event->position())) {
        const QPointF point = overview_view_.transform().inverted().map(event->position());
        const QPointF to = view_.transform().map(point);
        pan_ += to.x() - board_area_.center().x();
        pan_across_ += to.y() - board_area_.center().y();
        return lay_out();
    }
    if (pans) {
        dragged_from_ = event->position();
    } else if (event->button() == Qt::LeftButton) {
        look_closer_at(event->position());
        lay_out();
    }
}

// A dimension that only follows opens what decides it.
void Drawing::open_decider(Station opens) {
    if (opens == Station::Blank) {
        const auto zone = callouts_.find("clear-0");
        if (zone != callouts_.end() && zone->second->isVisible()) zone->second->setFocus();
        return;
    }
    Q_EMIT decider_wanted("size");
}

void Drawing::mouseMoveEvent(QMouseEvent* event) {
    if (dragged_from_) {
        const QPointF by = event->position() - *dragged_from_;
        dragged_from_ = event->position();
        if (held_closer_) return pan_closer(by);
        pan_ -= by.x();
        pan_across_ -= by.y();
        return lay_out();
    }
    if (handling_.move(held_closer_ ? closer_ : view_, event->position())) return update();
    if (measuring_ && !measuring_fixed_ && !measured_.empty() && face() != nullptr) {
        const QPointF q = under(event->position()).transform().inverted().map(snapped(event->position()));
        measured_.resize(1);
        measured_.push_back({std::llround(q.x()), std::llround(q.y())});
        return update();
    }
    if (station_ == Station::Sections && parting_.move(view_, event->position())) return update();
    if (station_ == Station::Sections) {
        // Which way a seam can be dragged, as the face lies.
        const auto seam = parting_.seam_under(view_, event->position());
        if (seam) {
            setCursor((*seam == Axis::Y) != view_.laid_down ? Qt::SizeVerCursor : Qt::SizeHorCursor);
        } else {
            unsetCursor();
        }
    }
    const auto lit = section_at(event->position());
    if (lit == lit_) return;
    lit_ = lit;
    update();
}

void Drawing::mouseReleaseEvent(QMouseEvent*) {
    dragged_from_.reset();
    handling_.release();
    parting_.release();
    update();
}

// A double click takes hold of one letter; arrow keys then move it.
void Drawing::mouseDoubleClickEvent(QMouseEvent* event) {
    if (station_ != Station::Lettering || face() == nullptr) return QWidget::mouseDoubleClickEvent(event);
    handling_.press(under(event->position()), event->position(), event->modifiers(), true);
    handling_.cancel();
    update();
}

void Drawing::keyPressEvent(QKeyEvent* event) {
    if (station_ == Station::Lettering) {
        if (step_back_ && step_back_key(event)) return;
        if (event->key() == Qt::Key_S && event->modifiers() == Qt::NoModifier) return set_step_back(!step_back_);
        if (event->key() == Qt::Key_V && event->modifiers() == Qt::NoModifier) {
            as_cut_ = !as_cut_;
            return update();
        }
        if (!step_back_ && handling_.key(*event)) return;
    }
    if (station_ == Station::Sections && parting_.key(*event)) return update();
    switch (event->key()) {
        case Qt::Key_0:
            return set_close_up(false);
        case Qt::Key_1:
            set_close_up(true);
            real_size_ = true;
            return lay_out();
        case Qt::Key_L:
            return set_laid_down(!laid_down_);
        case Qt::Key_T:
            return set_measuring(!measuring_);
        case Qt::Key_Escape:
            if (measuring_) {
                set_measuring(false);
            } else if (chosen_zone_) {
                chosen_zone_.reset();
            } else if (close_up_) {
                return set_close_up(false);
            } else {
                return QWidget::keyPressEvent(event);
            }
            return lay_out();
        case Qt::Key_Space:
            space_down_ = true;
            return;
        case Qt::Key_Left:
        case Qt::Key_Right: {
            const double by = event->key() == Qt::Key_Left ? 40 : -40;
            if (!closer_area_.isEmpty()) return pan_closer({by, 0});
            pan_ -= by;
            return lay_out();
        }
        default:
            space_down_ = false;
            QWidget::keyPressEvent(event);
    }
}

bool Drawing::event(QEvent* event) {
    if (event->type() == QEvent::FocusIn) {
        // The ring is for those who come by keyboard; a click says itself where it went.
        const Qt::FocusReason reason = static_cast<QFocusEvent*>(event)->reason();
        by_keyboard_ =
            reason == Qt::TabFocusReason || reason == Qt::BacktabFocusReason || reason == Qt::ShortcutFocusReason;
    }
    if (event->type() == QEvent::KeyRelease && static_cast<QKeyEvent*>(event)->key() == Qt::Key_Space)
        space_down_ = false;
    if (event->type() == QEvent::ToolTip && face() != nullptr) {
        auto* help = static_cast<QHelpEvent*>(event);
        if (const QString told = mark_told(help->pos()); !told.isEmpty()) {
            QToolTip::showText(help->globalPos(), told, this);
            return true;
        }
    }
    if (event->type() == QEvent::ToolTip && station_ == Station::Sections && face() != nullptr) {
        auto* help = static_cast<QHelpEvent*>(event);
        for (const Seam& seam : face()->cut.loads->seams) {
            const bool level = seam.axis == Axis::Y;
            const QRectF line = QRectF(view_.at(level ? Point{seam.from, seam.where} : Point{seam.where, seam.from}),
                                       view_.at(level ? Point{seam.to, seam.where} : Point{seam.where, seam.to}))
                                    .normalized();
            if (line.adjusted(-8, -8, 8, 24).contains(help->pos())) {
                QToolTip::showText(help->globalPos(), shown(desk_.say(seam.why)), this);
                return true;
            }
        }
        if (const auto i = section_at(help->pos())) {
            QToolTip::showText(help->globalPos(),
                               in_words("on-drawing.section",
                                        {{"number", *i + 1},
                                         {"letters", QString::fromStdString(face()->cut.loads->sections[*i].letters)}}),
                               this);
            return true;
        }
        QToolTip::hideText();
    }
    return QWidget::event(event);
}

}  // namespace skarvel
