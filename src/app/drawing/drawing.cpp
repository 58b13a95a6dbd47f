#include "drawing/drawing.h"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QScreen>
#include <QToolTip>
#include <QWheelEvent>
#include <cmath>

#include "files/print_page.h"
#include "job/naming.h"
#include "sheets/sheets.h"
#include "theme/theme.h"
#include "window/ribbon.h"

namespace skarvel {
namespace {

constexpr double side = 24;            // paper left and right of the board
constexpr double least_close_up = 24;  // pixels for an inch
constexpr double units_per_inch = 25'400'000.0 / grid_nm;
constexpr double units_per_mm = 1'000'000.0 / grid_nm;

}  // namespace

Drawing::Drawing(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk), handling_(desk), parting_(desk) {
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    setAccessibleName(tr("Scale drawing"));
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
const FacePlan* Drawing::face() const { return plan().of(desk_.sign_at(), desk_.face_at(), desk_.colour_at()); }

void Drawing::set_station(Station station) {
    station_ = station;
    chosen_zone_.reset();
    lit_.reset();
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
    pan_ = pan_across_ = 0;
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

// Typing into the box sets a dimension of the text at hand, if that can be.
void Drawing::decides(Callout& box, const Measure& was, std::function<void(Text&, const Measure&)> set) {
    box.decide = [this, was, set = std::move(set)](const Measure& m) { desk_.type_dimension(set, was, m); };
}

// ---- layout

void Drawing::resizeEvent(QResizeEvent*) { lay_out(); }

void Drawing::lay_out() {
    dimensions_.clear();
    loads_.clear();
    table_ = {};
    used_callouts_.clear();
    if (face() != nullptr && !face()->blank->face.empty()) {
        lay_out_board();
        lay_out_dimensions();
        if (station_ == Station::Sections) lay_out_loads();
    }
    for (auto& [id, box] : callouts_) {
        if (std::find(used_callouts_.begin(), used_callouts_.end(), id) == used_callouts_.end() && !box->hasFocus())
            box->hide();
    }
    updateGeometry();
    update();
}

void Drawing::lay_out_board() {
    view_.face = face()->blank->face;
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
    const Box whole = FacePainter::around_face(sign().blank, *face()->blank);
    const double extra_x = static_cast<double>(view_.lengthwise() && view_.face.height() > view_.face.width()
                                                   ? whole.high.y - view_.face.high.y
                                                   : whole.high.x - view_.face.high.x);
    const double extra_y = static_cast<double>(view_.lengthwise() && view_.face.height() > view_.face.width()
                                                   ? whole.high.x - view_.face.high.x
                                                   : whole.high.y - view_.face.high.y);
    const double room_x = width() - 2 * side -
                          Theme::px(!view_.lengthwise()             ? 120
                                    : station_ == Station::Sections ? 8
                                                                    : 112);
    const double below = Theme::px(station_ == Station::Sections ? 60 : 140);
    const double room_y = std::max(80.0, height() - top - Theme::px(30) - below);
    overview_ = {};
    double board_top = top + Theme::px(26);
    if (close_up_) {
        overview_ = QRectF(side, top, width() - 2 * side, Theme::px(72));
        board_top = overview_.bottom() + Theme::px(36);
        const double inch = real_size_ && screen() != nullptr ? screen()->physicalDotsPerInch()
                            : zoom_ > 0                       ? zoom_
                                                              : least_close_up;
        view_.scale = std::max(inch, 4.0) / units_per_inch;
    } else {
        double room = station_ == Station::Sections && view_.lengthwise() ? std::min(room_y, 220.0) : room_y;
        view_.scale = std::min(room_x / (length + 2 * extra_x), room / (across + 2 * extra_y));
        if (station_ == Station::Sections && !face()->loads->loads.empty()) {
            // Board and loads share one scale: two mats fit side by side.
            const double mat = std::max(to_grid(shown_along()), to_grid(face()->bed.usable.across));
            view_.scale = std::min(view_.scale, (width() - 3 * side) / (2 * mat));
        }
        pan_ = pan_across_ = 0;
    }
    const QSizeF size = view_.size();
    around_ = QSizeF(extra_x * view_.scale, extra_y * view_.scale);
    if (!close_up_) board_top += around_.height();
    const double shown_height =
        close_up_ ? std::max(60.0, std::min(size.height(), height() - board_top - below)) : size.height();
    board_area_ = QRectF(side + (close_up_ ? 0 : around_.width()), board_top,
                         close_up_ ? width() - 2 * side : size.width(), shown_height);
    pan_ = std::clamp(pan_, 0.0, std::max(0.0, size.width() - board_area_.width()));
    pan_across_ = std::clamp(pan_across_, 0.0, std::max(0.0, size.height() - board_area_.height()));
    view_.origin = board_area_.topLeft() - QPointF(pan_, pan_across_);
    if (!view_.lengthwise() && !close_up_) {
        board_area_.moveLeft(side + Theme::px(44) + around_.width());
        view_.origin = board_area_.topLeft();
    }
    needed_height_ = static_cast<int>(board_top + shown_height + around_.height() + below);
}

Callout& Drawing::callout(const QString& id, const QString& does, const Measure& value, const QString& prefix) {
    Callout*& box = callouts_[id];
    if (box == nullptr) box = new Callout(desk_, id, does, this);
    box->show_value(value, prefix);
    used_callouts_.push_back(id);
    return *box;
}

void Drawing::place(Callout& box, QPointF centre) {
    if (box.hasFocus()) return;
    QRect at(QPoint(static_cast<int>(centre.x()) - box.width() / 2, static_cast<int>(centre.y()) - box.height() / 2),
             box.size());
    at.moveLeft(std::clamp(at.left(), 4, std::max(4, width() - at.width() - 4)));
    // Boxes never overlap: the later one moves down.
    for (bool moved = true; moved;) {
        moved = false;
        for (const QString& id : used_callouts_) {
            const Callout* other = callouts_.at(id);
            if (other == &box || !other->isVisible() || !other->property("placed").toBool()) continue;
            if (other->geometry().adjusted(-3, -3, 3, 3).intersects(at)) {
                at.moveTop(other->geometry().bottom() + 5);
                moved = true;
            }
        }
    }
    box.move(at.topLeft());
    box.setProperty("placed", true);
    box.show();
    needed_height_ = std::max(needed_height_, at.bottom() + 12);
}

// A dimension along the long side of a lengthwise board, or up the side of an upright one; `row` counts outwards.
void Drawing::length_dimension(std::int64_t from, std::int64_t to, double row, Callout* box, const QString& text,
                               Station opens) {
    const bool level = view_.lengthwise();
    const bool y_axis = view_.face.height() > view_.face.width();
    const QPointF a = view_.at(y_axis ? Point{0, from} : Point{from, 0});
    const QPointF b = view_.at(y_axis ? Point{0, to} : Point{to, 0});
    QPointF p, q;
    if (level) {
        const double y = board_area_.bottom() + around_.height() + Theme::px(24) + row * Theme::px(34);
        p = {std::min(a.x(), b.x()), y};
        q = {std::max(a.x(), b.x()), y};
    } else {
        // What has no box is written to the right of its line, outside all others.
        if (box == nullptr)
            row = sign().blank.kind == Kind::Arch && sign().blank.arch.style != ArchStyle::HalfRound ? 3 : 2;
        const double x = board_area_.right() + around_.width() + Theme::px(34) + row * Theme::px(64);
        p = {x, std::min(a.y(), b.y())};
        q = {x, std::max(a.y(), b.y())};
    }
    // In the close-up only what is seen is dimensioned.
    if (level && (q.x() < board_area_.left() || p.x() > board_area_.right())) {
        if (box != nullptr) used_callouts_.pop_back();
        return;
    }
    if (level && close_up_) {
        p.setX(std::max(p.x(), board_area_.left()));
        q.setX(std::min(q.x(), board_area_.right()));
    }
    Dimension d{p, q, box, text, opens, {}};
    const QPointF centre = (p + q) / 2;
    if (box != nullptr) {
        place(*box, centre);
        needed_height_ = std::max(needed_height_, static_cast<int>(centre.y()) + 30);
    } else {
        const QFontMetrics m(Theme::font(15, QFont::Medium));
        d.text_rect = QRectF(centre.x() - m.horizontalAdvance(text) / 2.0 - 6, centre.y() - m.height() / 2.0,
                             m.horizontalAdvance(text) + 12, m.height());
        if (!level) {
            // Beside its line, in as many lines as it needs there.
            const double wide = std::max(60.0, std::min(m.horizontalAdvance(text) + 8.0, width() - centre.x() - 12));
            const QRect fit = m.boundingRect(QRect(0, 0, static_cast<int>(wide), 400), Qt::TextWordWrap, text);
            d.text_rect = QRectF(centre.x() + 6, centre.y() - fit.height() / 2.0, wide, fit.height());
        }
    }
    dimensions_.push_back(d);
}

void Drawing::lay_out_dimensions() {
    for (auto& [id, box] : callouts_) box->setProperty("placed", box->hasFocus());
    const FacePlan& plan = *face();
    const Blank& blank = sign().blank;
    const bool y_axis = view_.face.height() > view_.face.width();
    const std::int64_t length = y_axis ? view_.face.height() : view_.face.width();
    const Display& display = desk_.shop().display;
    if (station_ == Station::Sections || (step_back_ && station_ == Station::Lettering)) return;

    // First row: clear zones, and what lies between them; zones anywhere else stand by themselves.
    for (std::size_t i = 0; i < blank.clear.size(); ++i) {
        const ClearZone& zone = blank.clear[i];
        const bool low = zone.edge == (y_axis ? Edge::Bottom : Edge::Left);
        const bool high = zone.edge == (y_axis ? Edge::Top : Edge::Right);
        if (zone.shape != ZoneShape::Band || (!low && !high)) {
            zone_callouts(i, zone, plan);
            continue;
        }
        Callout& box =
            zone.turns > 0
                ? callout("clear-" + QString::number(i), tr("changes how thick the rope is"), zone.girth,
                          tr("%1 × ").arg(zone.turns))
                : callout("clear-" + QString::number(i),
                          tr("moves the clear zone \"%1\"").arg(QString::fromStdString(zone.name)), zone.depth);
        box.decide = [this, i](const Measure& m) {
            change_blank([&](Blank& b) {
                if (i < b.clear.size()) (b.clear[i].turns > 0 ? b.clear[i].girth : b.clear[i].depth) = m;
            });
        };
        const std::int64_t depth = to_grid(zone.turns > 0 ? zone.girth.value * zone.turns : zone.depth.value);
        length_dimension(low ? 0 : length - depth, low ? depth : length, 0, &box);
    }
    const Box usable = plan.blank->usable;
    const std::int64_t from = y_axis ? usable.low.y : usable.low.x;
    const std::int64_t to = y_axis ? usable.high.y : usable.high.x;
    if (station_ == Station::Blank) {
        size_callouts(plan, blank);
        if (!usable.empty())
            length_dimension(from, to, 0, nullptr,
                             tr("%1 for lettering").arg(shown(skarvel::show(from_grid(to - from), display))),
                             Station::Blank);
    } else if (station_ == Station::Lettering && !plan.lettering->letters.empty()) {
        lettering_callouts(plan, display, from, to, y_axis);
    }
    lay_out_sides(plan, blank, display);
}

// Of the text at hand: its gaps and size, and where it hangs.
void Drawing::lettering_callouts(const FacePlan& plan, const Display& display, std::int64_t from, std::int64_t to,
                                 bool y_axis) {
    if (step_back_ || desk_.art_at()) return;
    const Text& text = desk_.face().lettering.texts[desk_.text_at()];
    if (desk_.text_at() >= plan.lettering->texts.size()) return;
    const PlacedText& placed = plan.lettering->texts[desk_.text_at()];
    std::vector<const PlacedLetter*> letters;
    for (const PlacedLetter& l : plan.lettering->letters) {
        if (static_cast<std::size_t>(l.of) == desk_.text_at()) letters.push_back(&l);
    }
    if (letters.empty()) return;
    const bool alone = plan.lettering->texts.size() == 1 && desk_.face().art.empty();
    const bool stack = text.arrangement == Arrangement::Stack;
    if (alone && stack == y_axis && letters.size() > 1 && text.arrangement != Arrangement::Arc) {
        const QString prefix = letters.size() > 2 ? QString("%1 × ").arg(letters.size() - 1) : QString();
        Callout& box = callout("letter-gap", tr("changes the letter gap"), text.letter_gap, prefix);
        decides(box, text.letter_gap, [](Text& l, const Measure& m) { l.letter_gap = m; });
        length_dimension(from, to, 0, &box);
    }
    if (text.arrangement == Arrangement::Arc) {
        const bool follows = text.arc.follow && sign().blank.kind == Kind::Round;
        Callout& box = follows
                           ? callout("arc-distance", tr("changes the arc's distance from the edge"), text.arc.distance,
                                     tr("from the edge "))
                           : callout("arc-radius", tr("changes the radius of the arc"), text.arc.radius, tr("radius "));
        decides(box, follows ? text.arc.distance : text.arc.radius,
                [follows](Text& l, const Measure& m) { (follows ? l.arc.distance : l.arc.radius) = m; });
        place(box, {view_.rect(placed.ink).center().x(), board_area_.bottom() + Theme::px(96)});
    }
    const Box first = letters.front()->ink.bounds();
    const std::int64_t low = y_axis ? first.low.y : first.low.x;
    const std::int64_t high = y_axis ? first.high.y : first.high.x;
    if (text.sizing != Sizing::Snug) {
        const QString name = text.sizing == Sizing::CapHeight ? tr("cap ")
                             : text.sizing == Sizing::XHeight ? tr("x ")
                             : text.sizing == Sizing::Overall ? tr("high ")
                                                              : tr("wide ");
        Callout& box = callout("cap-height", tr("changes the size of the lettering"), text.size, name);
        decides(box, text.size, [](Text& l, const Measure& m) { l.size = m; });
        length_dimension(low, high, 1, &box);
    } else {
        length_dimension(low, high, 1, nullptr, tr("caps %1").arg(shown(skarvel::show(placed.cap_height, display))),
                         Station::Lettering);
    }
    const bool second = desk_.text_at() > 0 && placed.in_column;
    if ((!stack && letters.back()->line > letters.front()->line) || second) {
        Callout& box =
            callout("line-gap", tr("changes the line gap"), text.line_gap, second ? tr("gap above ") : tr("lines "));
        decides(box, text.line_gap, [](Text& l, const Measure& m) { l.line_gap = m; });
        place(box, {board_area_.center().x() + Theme::px(120), board_area_.bottom() + Theme::px(58)});
    }
    hang_callouts(plan, text);
}

// Arrows from what the text at hand hangs on to the text itself, each with the distance that was typed.
void Drawing::hang_callouts(const FacePlan& plan, const Text& text) {
    const auto things = things_on(desk_.face(), plan);
    const auto thing_named = [&](const std::string& id) -> std::optional<Box> {
        if (id == "face") return plan.blank->face;
        if (id == "usable") return plan.blank->usable;
        const auto at = std::find_if(things.begin(), things.end(), [&](const PlacedThing& t) { return t.id == id; });
        return at == things.end() ? std::nullopt : std::optional(at->box);
    };
    const auto here = thing_named(text.id);
    for (const Axis axis : {Axis::X, Axis::Y}) {
        const auto& hang = axis == Axis::X ? text.across : text.up;
        const auto other = hang ? thing_named(hang->on) : std::nullopt;
        if (!here || !other) continue;
        const bool x = axis == Axis::X;
        Callout& box =
            callout(x ? "hang-across" : "hang-up", x ? tr("moves the text across") : tr("moves the text up or down"),
                    hang->by, x ? tr("across ") : tr("up "));
        decides(box, hang->by, [axis](Text& l, const Measure& m) {
            if (auto& h = axis == Axis::X ? l.across : l.up) h->by = m;
        });
        const std::int64_t from = side_of(*other, axis, hang->its);
        const std::int64_t to = side_of(*here, axis, hang->mine);
        // Beside the text on the side where the view has room: under it, or to the right of it.
        const Point low = here->low;
        const Point high = here->high;
        QPointF a = view_.at(x ? Point{from, low.y} : Point{high.x, from});
        QPointF b = view_.at(x ? Point{to, low.y} : Point{high.x, to});
        const bool level = x != view_.laid_down;
        const QPointF aside = level ? QPointF(0, Theme::px(16)) : QPointF(Theme::px(16), 0);
        a += aside;
        b += aside;
        dimensions_.push_back({a, b, &box, {}, Station::Lettering, {}});
        const double room = level ? std::abs(a.x() - b.x()) - box.width() : std::abs(a.y() - b.y()) - box.height();
        const QPointF clear = level ? QPointF(0, Theme::px(22)) : QPointF(box.width() / 2.0 + 10, 0);
        place(box, (a + b) / 2 + (room > Theme::px(24) ? QPointF() : clear));
    }
}

// The sizes that make the blank, by its kind, along its length.
void Drawing::size_callouts(const FacePlan& plan, const Blank& blank) {
    const bool y_axis = view_.face.height() > view_.face.width();
    const std::int64_t length = y_axis ? view_.face.height() : view_.face.width();
    const auto sized = [&](const QString& id, const QString& does, const Measure& value, const QString& prefix,
                           std::int64_t from, std::int64_t to, double row,
                           std::function<void(Blank&, const Measure&)> set) {
        Callout& box = callout(id, does, value, prefix);
        box.decide = [this, set = std::move(set)](const Measure& m) { change_blank([&](Blank& b) { set(b, m); }); };
        length_dimension(from, to, row, &box);
    };
    const auto set_length = [](Blank& b, const Measure& m) { b.length = m; };
    switch (blank.kind) {
        case Kind::Round:
            return sized("length", tr("changes the diameter"), blank.length, tr("across "), 0, length, 1, set_length);
        case Kind::Arrow: {
            const std::int64_t body = to_grid(plan.blank->length);
            const std::int64_t head = to_grid(blank.head.length.value);
            const bool right = plan.face == 0 ? blank.head.right : !blank.head.right;
            sized("length", tr("changes the length of the arrow's body"), blank.length, tr("body "),
                  right ? 0 : length - body, right ? body : length, 1, set_length);
            return sized("head-length", tr("changes the length of the arrow's head"), blank.head.length, tr("head "),
                         right ? length - head : 0, right ? length : head, 2,
                         [](Blank& b, const Measure& m) { b.head.length = m; });
        }
        case Kind::Arch:
            sized("length", tr("changes the height of the arch"), blank.length, tr("tall "), 0, length, 1, set_length);
            if (blank.arch.style != ArchStyle::HalfRound) {
                sized("rise", tr("changes the rise of the arch"), blank.arch.rise, tr("rise "),
                      view_.face.high.y - to_grid(blank.arch.rise.value), view_.face.high.y, 2,
                      [](Blank& b, const Measure& m) { b.arch.rise = m; });
            }
            return;
        case Kind::Drawn:
            if (!blank.outline) return;
            return sized("length", tr("changes the one known dimension"), blank.outline->known,
                         blank.outline->by_width ? tr("wide ") : tr("high "), 0, length, 1,
                         [](Blank& b, const Measure& m) {
                             if (b.outline) b.outline->known = m;
                         });
        default: {
            const FramePlan& frame = plan.blank->frame;
            const std::int64_t over = (to_grid(y_axis ? frame.over_up : frame.over_across) - length) / 2;
            const std::int64_t cover = to_grid(y_axis ? frame.cover_up : frame.cover_across);
            const bool framed = blank.frame.kind != FrameKind::None;
            const std::int64_t out = !framed                                  ? 0
                                     : blank.frame.size_is == SizeIs::OverAll ? over
                                     : blank.frame.size_is == SizeIs::Free    ? -cover
                                                                              : 0;
            return sized("length", tr("changes the length of the board"), blank.length, size_prefix(blank), -out,
                         length + out, 1, set_length);
        }
    }
}

QString Drawing::size_prefix(const Blank& blank) {
    if (blank.frame.kind == FrameKind::None) return {};
    return blank.frame.size_is == SizeIs::OverAll ? tr("over all ")
           : blank.frame.size_is == SizeIs::Free  ? tr("free ")
                                                  : tr("bare ");
}

// A zone that is no band at an end: its size beside it; where it lies once it is chosen.
void Drawing::zone_callouts(std::size_t i, const ClearZone& zone, const FacePlan& plan) {
    if (i >= plan.blank->zones.size() || plan.blank->zones[i].empty()) return;
    const QString name = QString::fromStdString(zone.name);
    const QRectF where = view_.rect(plan.blank->zones[i].bounds());
    const auto add = [&](const QString& part, const QString& does, const Measure& value, const QString& prefix,
                         QPointF at, Measure ClearZone::*which) {
        Callout& box = callout("clear-" + QString::number(i) + part, does, value, prefix);
        box.decide = [this, i, which](const Measure& m) {
            change_blank([&](Blank& b) {
                if (i < b.clear.size()) b.clear[i].*which = m;
            });
        };
        place(box, at);
    };
    if (zone.shape == ZoneShape::Band) {
        add({}, tr("moves the clear zone \"%1\"").arg(name), zone.turns > 0 ? zone.girth : zone.depth,
            zone.turns > 0 ? tr("%1 × ").arg(zone.turns) : QString(),
            {where.left() + Theme::px(60), where.center().y()}, zone.turns > 0 ? &ClearZone::girth : &ClearZone::depth);
        return;
    }
    if (chosen_zone_ != i) return;
    const double y = where.bottom() + Theme::px(16);
    add({}, tr("changes the width of \"%1\"").arg(name), zone.width,
        zone.shape == ZoneShape::Circle ? tr("⌀ ") : tr("wide "), {where.center().x(), y}, &ClearZone::width);
    if (zone.shape == ZoneShape::Rectangle) {
        add("-height", tr("changes the height of \"%1\"").arg(name), zone.height, tr("high "),
            {where.center().x(), y + Theme::px(28)}, &ClearZone::height);
    }
    add("-x", tr("moves \"%1\" from the left").arg(name), zone.x, tr("left "),
        {where.center().x() - Theme::px(70), y + Theme::px(56)}, &ClearZone::x);
    add("-y", tr("moves \"%1\" from the bottom").arg(name), zone.y, tr("up "),
        {where.center().x() + Theme::px(70), y + Theme::px(56)}, &ClearZone::y);
}

// Across the board: the measured width on Blank, the margin on both.
void Drawing::lay_out_sides(const FacePlan& plan, const Blank& blank, const Display& display) {
    const bool board = blank.kind == Kind::Board;
    Callout& margin =
        callout("margin", board ? tr("changes the margin at both long sides") : tr("changes the margin all round"),
                blank.margin, tr("margin "));
    margin.decide = [this](const Measure& m) { change_blank([&](Blank& b) { b.margin = m; }); };
    Callout* width_box = nullptr;
    Callout* head_box = nullptr;
    if (station_ == Station::Blank && blank.kind != Kind::Round && blank.kind != Kind::Drawn) {
        const QString prefix = blank.kind == Kind::Arrow  ? tr("body ")
                               : blank.kind == Kind::Arch ? tr("span ")
                                                          : size_prefix(blank);
        width_box = &callout("width",
                             blank.kind == Kind::Arrow  ? tr("changes the height of the arrow's body")
                             : blank.kind == Kind::Arch ? tr("changes the span of the arch")
                                                        : tr("changes the measured width"),
                             blank.width.value_or(measure_of(plan.blank->width, display)), prefix);
        width_box->decide = [this](const Measure& m) { change_blank([&](Blank& b) { b.width = m; }); };
    }
    if (station_ == Station::Blank && blank.kind == Kind::Arrow) {
        head_box =
            &callout("head-height", tr("changes the height of the arrow's head"), blank.head.height, tr("head "));
        head_box->decide = [this](const Measure& m) { change_blank([&](Blank& b) { b.head.height = m; }); };
    }
    const QRectF board_rect = view_.rect(view_.face);
    if (view_.lengthwise()) {
        const double x = std::min(board_area_.right(), board_rect.right()) + around_.width() + Theme::px(18);
        if (width_box != nullptr && close_up_) {
            place(*width_box,
                  {board_area_.right() - margin.width() - width_box->width(), board_area_.bottom() + Theme::px(60)});
        } else if (width_box != nullptr) {
            // An arrow's body is lower than its head.
            const double half =
                blank.kind == Kind::Arrow
                    ? std::min(board_rect.height(), static_cast<double>(to_grid(plan.blank->width)) * view_.scale) / 2
                    : board_rect.height() / 2;
            dimensions_.push_back(
                {{x, board_rect.center().y() - half}, {x, board_rect.center().y() + half}, width_box, {}, {}, {}});
            place(*width_box, {x + Theme::px(8) + width_box->width() / 2.0, board_area_.center().y() + Theme::px(12)});
        }
        place(margin, close_up_
                          ? QPointF(board_area_.right() - margin.width() / 2.0, board_area_.bottom() + Theme::px(60))
                          : QPointF(x + Theme::px(8) + margin.width() / 2.0, board_area_.top() - Theme::px(6)));
        if (head_box != nullptr)
            place(*head_box, {x + Theme::px(8) + head_box->width() / 2.0, board_area_.bottom() + Theme::px(4)});
    } else {
        place(margin,
              {board_area_.left() + margin.width() / 2.0, board_area_.bottom() + around_.height() + Theme::px(48)});
        if (width_box != nullptr)
            place(*width_box, {board_area_.center().x(), board_area_.bottom() + around_.height() + Theme::px(18)});
    }
    if (station_ == Station::Blank) field_callouts(plan, blank);
    if (station_ == Station::Blank && plan.blank->tape) reading_callouts(plan, blank);
}

// Bands of another ground colour: how deep, and where their middle lies.
void Drawing::field_callouts(const FacePlan& plan, const Blank& blank) {
    for (std::size_t i = 0; i < blank.fields.size() && i < plan.blank->fields.size(); ++i) {
        if (plan.blank->fields[i].region.empty()) continue;
        const QRectF where = view_.rect(plan.blank->fields[i].region.bounds());
        const QString id = "field-" + QString::number(i);
        Callout& depth =
            callout(id, tr("changes the depth of painted field %1").arg(i + 1), blank.fields[i].depth, tr("band "));
        depth.decide = [this, i](const Measure& m) {
            change_blank([&](Blank& b) {
                if (i < b.fields.size()) b.fields[i].depth = m;
            });
        };
        // Beside the board, where they cover no lettering; a tall view has its other dimensions there.
        const bool beside = view_.lengthwise() && !close_up_;
        const double x = beside ? board_area_.right() + around_.width() + Theme::px(26) + depth.width() / 2.0
                                : where.left() + depth.width() / 2.0 + 6;
        const double y = beside ? where.center().y() - Theme::px(16) : where.top() + Theme::px(16);
        place(depth, {x, y});
        if (blank.fields[i].border) continue;
        Callout& middle = callout(id + "-middle", tr("moves the middle of painted field %1").arg(i + 1),
                                  blank.fields[i].middle, blank.fields[i].along == Axis::X ? tr("up ") : tr("left "));
        middle.decide = [this, i](const Measure& m) {
            change_blank([&](Blank& b) {
                if (i < b.fields.size()) b.fields[i].middle = m;
            });
        };
        place(middle, {x, y + Theme::px(30)});
    }
}

// What the tape says, where it was held.
void Drawing::reading_callouts(const FacePlan& plan, const Blank& blank) {
    // Corners as the tape counts them: lower left, lower right, upper right, upper left of an upright board.
    const bool level = blank.stands == Stands::Level;
    const Box f = plan.blank->face;
    const std::array<Point, 4> corner =
        level ? std::array<Point, 4>{Point{f.low.x, f.high.y}, f.low, Point{f.high.x, f.low.y}, f.high}
              : std::array<Point, 4>{f.low, Point{f.high.x, f.low.y}, f.high, Point{f.low.x, f.high.y}};
    const auto middle = [](Point a, Point b) { return Point{(a.x + b.x) / 2, (a.y + b.y) / 2}; };
    const auto part = [](Point a, Point b, double share) {
        return Point{a.x + static_cast<std::int64_t>(static_cast<double>(b.x - a.x) * share),
                     a.y + static_cast<std::int64_t>(static_cast<double>(b.y - a.y) * share)};
    };
    const std::array<Point, reading_count> where{
        middle(corner[0], corner[1]),    middle(middle(corner[0], corner[3]), middle(corner[1], corner[2])),
        middle(corner[3], corner[2]),    middle(corner[0], corner[3]),
        middle(corner[1], corner[2]),    part(corner[0], corner[2], 0.72),
        part(corner[1], corner[3], 0.72)};
    for (std::size_t i = 0; i < reading_count; ++i) {
        const auto& taken = blank.tape.taken.at(i);
        if (!taken) continue;
        const Reason name{name_of(static_cast<Reading>(i)) + (level ? "-level" : ""), {}};
        Callout& box = callout("tape-" + QString::number(i), tr("changes %1").arg(shown(desk_.say(name))), *taken);
        box.decide = [this, i](const Measure& m) { change_blank([&](Blank& b) { b.tape.taken.at(i) = m; }); };
        // Beside the edge that was measured, inside it.
        QPointF in = view_.at(where.at(i));
        const QPointF centre = view_.rect(f).center();
        const double off = Theme::px(i == static_cast<std::size_t>(Reading::Middle) ? 0 : 18);
        if (std::abs(in.y() - centre.y()) > 2 * off) in.ry() += in.y() < centre.y() ? off : -off;
        place(box, in);
    }
}

void Drawing::lay_out_loads() {
    const LoadsPlan& plan = *face()->loads;
    const double along = static_cast<double>(to_grid(shown_along())) * view_.scale;
    const double across = static_cast<double>(to_grid(face()->bed.usable.across)) * view_.scale;
    const double head = Theme::px(30);
    const bool rests =
        std::any_of(plan.loads.begin(), plan.loads.end(), [](const Load& l) { return l.rest.has_value(); });
    const double foot = Theme::px(rests ? 50 : 28);
    double x = side;
    double y = board_area_.bottom() + Theme::px(44);
    if (!view_.lengthwise()) {
        x = board_area_.right() + Theme::px(60);
        y = board_area_.top() - Theme::px(26);
    }
    const double left = x;
    for (std::size_t i = 0; i < plan.loads.size(); ++i) {
        if (x > left && x + along > width() - side + 1) {
            x = left;
            y += head + across + foot;
        }
        loads_.push_back({i, QRectF(x, y + head, along, across)});
        x += std::max(along, static_cast<double>(Theme::px(220))) + side;
    }
    if (plan.loads.empty()) return;
    double below = y + head + across + foot;
    if (!view_.lengthwise()) below = std::max(below, board_area_.bottom());
    table_ = QRectF(side, below + Theme::px(16), width() - 2 * side,
                    Theme::px(54) + static_cast<double>(lays_of(plan.sections).size()) * Theme::px(28));
    needed_height_ = static_cast<int>(table_.bottom() + 12);
}

std::optional<std::size_t> Drawing::zone_at(QPointF where) const {
    for (std::size_t i = face()->blank->zones.size(); i-- > 0;) {
        const Region& zone = face()->blank->zones[i];
        if (!zone.empty() && view_.transform().map(path_of(zone)).contains(where)) return i;
    }
    return std::nullopt;
}

// ---- painting

void Drawing::paintEvent(QPaintEvent*) {
    const Tokens& t = Theme::tokens();
    QPainter p(this);
    p.fillRect(rect(), t.sheet);
    paint_header(p);
    if (face() == nullptr || face()->blank->face.empty()) return;
    if (behind_) p.setOpacity(0.55);
    if (!overview_.isEmpty()) paint_overview(p);
    p.save();
    const QRectF ruler_room = board_area_.adjusted(0, -Theme::px(26), 0, 0);
    p.setClipRect(close_up_ ? ruler_room.adjusted(-1, 0, 1, Theme::px(24)) : QRectF(rect()));
    if (step_back_ && station_ == Station::Lettering) {
        p.restore();
        return paint_step_back(p);
    }
    const FacePainter painter(sign(), sign().faces[desk_.face_at()], *face(), view_, &plan());
    painter.board(p, station_ == Station::Blank);
    if (station_ == Station::Sections) painter.sections(p, lit_);
    painter.clear_zones(p, station_ == Station::Blank ? chosen_zone_ : std::nullopt);
    if (station_ == Station::Lettering || station_ == Station::Blank) {
        painter.guides(p);
        painter.usable(p);
    }
    if (station_ == Station::Lettering) {
        painter.all_ink(p, as_cut_, desk_.thing_at(), handling_.offset());
        painter.thin(p);
        handling_.paint(p, view_);
    } else if (station_ == Station::Sections) {
        painter.ink(p, true);
    } else {
        painter.all_ink(p);
    }
    if (station_ == Station::Blank) paint_blank_marks(p);
    if (station_ == Station::Sections) painter.seams(p);
    if (station_ == Station::Sections) {
        if (!desk_.looked_at()) {
            parting_.paint(p, view_);
            paint_evidence(p);
        }
        paint_section_numbers(p);
    }
    p.restore();
    paint_ruler(p);
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

QString Drawing::kind_title(Kind kind) {
    switch (kind) {
        case Kind::Panel:
            return tr("The panel as it really measures");
        case Kind::Canvas:
            return tr("The canvas as it really measures");
        case Kind::Round:
            return tr("The round as it really measures");
        case Kind::Arrow:
            return tr("The arrow as it really measures");
        case Kind::Arch:
            return tr("The arch as it really measures");
        case Kind::Field:
            return tr("The field inside its mouldings");
        case Kind::Drawn:
            return tr("The outline at its real size");
        case Kind::Board:
            break;
    }
    return tr("The board as it really measures");
}

void Drawing::paint_header(QPainter& p) {
    QString title, under;
    const auto lines = summary(job(), plan(), desk_.records().size(), desk_.sign_at(), desk_.face_at());
    const StationLine& line = lines.at(static_cast<std::size_t>(station_));
    switch (station_) {
        case Station::Blank:
            title = kind_title(sign().blank.kind);
            under = measuring_ ? tr("Tape measure: click two points. Esc ends it.")
                               : tr("Type what the tape says. Clear zones keep lettering out, never film.");
            break;
        case Station::Lettering:
            title = shown(desk_.say(line.first));
            under = shown(desk_.say(line.second));
            break;
        default:
            title = shown(desk_.say(line.first));
            under = tr(
                "Numbered in laying order. Point at a section to see its place on the mat, at a seam for its reason.");
            if (desk_.looked_at()) under = tr("Only looked at: %1").arg(shown(desk_.say(desk_.looked_at()->what)));
    }
    if (behind_ && desk_.planning().second > 1)
        under = tr("Planning: %1 of %2 faces. Any change, and undo, stops it.")
                    .arg(desk_.planning().first)
                    .arg(desk_.planning().second);
    paint_heading(p, width(), title,
                  real_size_ && close_up_ ? tr("Real size, if the screen tells the truth: it is not matched.") : under);
}

// Rooms by name, where it hangs, its centre of gravity, and the diagonals that were measured.
void Drawing::paint_blank_marks(QPainter& p) {
    const Tokens& t = Theme::tokens();
    const BlankPlan& plan = *face()->blank;
    const Blank& blank = sign().blank;
    const Display& display = desk_.shop().display;
    p.setFont(Theme::font(13, QFont::Medium));
    for (const NamedRoom& room : plan.rooms) {
        const QRectF where = view_.rect(room.box);
        QPainterPath path;
        path.addRect(where);
        cased(p, path, QPen(t.chalk, 1, Qt::DotLine));
        const QString text =
            tr("%1 %2 × %3")
                .arg(shown(desk_.say(room.what)), shown(show_number(from_grid(room.box.width()), display)),
                     shown(skarvel::show(from_grid(room.box.height()), display)));
        const QFontMetrics m(p.font());
        if (plan.tape || m.horizontalAdvance(text) + 12 > where.width() || m.height() + 4 > where.height()) continue;
        const QRectF tag(where.left() + 3, where.bottom() - m.height() - 5, m.horizontalAdvance(text) + 10,
                         m.height() + 2);
        p.fillRect(tag, t.sheet);
        p.setPen(t.chalk);
        p.drawText(tag, Qt::AlignCenter, text);
    }
    if (plan.tape) {
        p.setPen(QPen(t.pencil, 1, Qt::DotLine));
        const Box f = plan.face;
        const auto taken = [&](Reading r) { return blank.tape.taken.at(static_cast<std::size_t>(r)).has_value(); };
        if (taken(Reading::Rising) || taken(Reading::Falling)) {
            p.drawLine(view_.at(f.low), view_.at(f.high));
            p.drawLine(view_.at({f.low.x, f.high.y}), view_.at({f.high.x, f.low.y}));
        }
    }
    const auto cross = [&](Point at, const QColor& colour) {
        const QPointF c = view_.at(at);
        QPainterPath mark;
        mark.addEllipse(c, 5, 5);
        mark.moveTo(c - QPointF(8, 0));
        mark.lineTo(c + QPointF(8, 0));
        mark.moveTo(c - QPointF(0, 8));
        mark.lineTo(c + QPointF(0, 8));
        cased(p, mark, QPen(colour, 1.5));
    };
    for (const HangPoint& point : plan.weight.points) cross(point.at, t.graphite);
    // The centre of gravity, as it is drawn everywhere: two quarters of a disc filled.
    if (plan.weight.total() > 0) {
        const QRectF disc(view_.at(plan.weight.centre) - QPointF(7, 7), QSizeF(14, 14));
        p.setPen(QPen(t.sheet, 3));
        p.setBrush(t.sheet);
        p.drawEllipse(disc);
        p.setPen(QPen(t.graphite, 1.2));
        p.drawEllipse(disc);
        p.setBrush(t.graphite);
        p.drawPie(disc, 0, 90 * 16);
        p.drawPie(disc, 180 * 16, 90 * 16);
        p.setBrush(Qt::NoBrush);
    }
    for (const Pin& pin : face()->marking.pins) {
        cross(pin.at, t.chalk);
        const QPointF c = view_.at(pin.at);
        const QString text =
            tr("%1, string %2").arg(shown(desk_.say(pin.what)), shown(skarvel::show(pin.string, display)));
        const QFontMetrics m(p.font());
        const QRectF tag(c.x() + 10, c.y() + 8, m.horizontalAdvance(text) + 10, m.height() + 2);
        p.fillRect(tag, t.sheet);
        p.setPen(t.chalk);
        p.drawText(tag, Qt::AlignCenter, text);
    }
    for (const MarkLine& line : face()->marking.lines) {
        const QPointF a = view_.at(line.from);
        const QPointF b = view_.at(line.to);
        QPainterPath path(a);
        if (line.what.id == "marking.springing") {
            path.lineTo(b);
        } else {
            // Centre lines would run through the lettering: their ends are what is marked.
            const QPointF way = (b - a) / std::max(1.0, std::hypot(b.x() - a.x(), b.y() - a.y())) * 14;
            path.lineTo(a + way);
            path.moveTo(b);
            path.lineTo(b - way);
        }
        cased(p, path, QPen(t.chalk, 1.5));
    }
}

// ---- the tape measure

QPointF Drawing::snapped(QPointF where) const {
    constexpr double reach = 10;
    QPointF best = where;
    double least = reach;
    const auto try_point = [&](QPointF q, double favour) {
        const double d = std::hypot(q.x() - where.x(), q.y() - where.y()) - favour;
        if (d < least) {
            least = d;
            best = q;
        }
    };
    std::vector<const Region*> shapes{&face()->blank->outline};
    for (const Region& zone : face()->blank->zones) shapes.push_back(&zone);
    for (const Piece& piece : *face()->pieces) shapes.push_back(&piece.shape);
    for (const Region* shape : shapes) {
        if (shape->empty()) continue;
        const Box b = shape->bounds();
        const Point middle{(b.low.x + b.high.x) / 2, (b.low.y + b.high.y) / 2};
        for (const Point q : {middle, Point{middle.x, b.low.y}, Point{middle.x, b.high.y}, Point{b.low.x, middle.y},
                              Point{b.high.x, middle.y}})
            try_point(view_.at(q), 2);
        for (const Ring& ring : shape->rings()) {
            for (std::size_t i = 0; i < ring.size(); ++i) {
                const QPointF a = view_.at(ring[i]);
                const QPointF c = view_.at(ring[(i + 1) % ring.size()]);
                try_point(a, ring.size() <= 12 ? 3 : 0);
                const QPointF along = c - a;
                const double length2 = along.x() * along.x() + along.y() * along.y();
                if (length2 <= 0) continue;
                const double share = std::clamp(QPointF::dotProduct(where - a, along) / length2, 0.0, 1.0);
                try_point(a + along * share, -2);
            }
        }
    }
    return best;
}

void Drawing::set_measuring(bool on) {
    measuring_ = on;
    measured_.clear();
    setCursor(on ? Qt::CrossCursor : Qt::ArrowCursor);
    Q_EMIT view_changed();
    update();
}

QString Drawing::measured_text() const {
    if (measured_.size() < 2) return {};
    const Point by = measured_[1] - measured_[0];
    const Length across = from_grid(std::abs(by.x));
    const Length up = from_grid(std::abs(by.y));
    const Length straight = Length::from_mm(std::hypot(across.in_mm(), up.in_mm()));
    const Display& display = desk_.shop().display;
    return tr("%1   across %2, up %3")
        .arg(shown(skarvel::show(straight, display)), shown(skarvel::show(across, display)),
             shown(skarvel::show(up, display)));
}

void Drawing::paint_tape_measure(QPainter& p) {
    if (!measuring_ || measured_.empty()) return;
    const Tokens& t = Theme::tokens();
    p.setRenderHint(QPainter::Antialiasing);
    QPainterPath path;
    for (const Point& q : measured_) path.addEllipse(view_.at(q), 4, 4);
    if (measured_.size() == 2) {
        path.moveTo(view_.at(measured_[0]));
        path.lineTo(view_.at(measured_[1]));
    }
    cased(p, path, QPen(t.ochre, 2));
    if (measured_.size() < 2) return;
    p.setFont(Theme::font(18, QFont::DemiBold));
    const QString text = measured_text();
    const QFontMetrics m(p.font());
    QRectF tag(0, 0, m.horizontalAdvance(text) + 16, m.height() + 6);
    tag.moveCenter((view_.at(measured_[0]) + view_.at(measured_[1])) / 2 + QPointF(0, Theme::px(26)));
    tag.moveLeft(std::clamp(tag.left(), 4.0, std::max(4.0, width() - tag.width() - 4)));
    p.fillRect(tag, t.sheet);
    p.setPen(QPen(t.ochre, 1));
    p.drawRect(tag);
    p.setPen(t.graphite);
    p.drawText(tag, Qt::AlignCenter, text);
}

void Drawing::paint_ruler(QPainter& p) {
    const Tokens& t = Theme::tokens();
    p.setPen(QPen(t.pencil, 1));
    p.setFont(Theme::font(13));
    const bool metric = desk_.shop().display.unit == Unit::Millimetre;
    const double unit = metric ? units_per_mm * 10 : units_per_inch;  // a centimetre or an inch
    const double pixels = unit * view_.scale;
    const bool y_axis = view_.face.height() > view_.face.width();
    const std::int64_t length = y_axis ? view_.face.height() : view_.face.width();
    const int tick = pixels >= 5 ? 1 : metric ? 5 : 6;
    int number = metric ? 10 : 6;
    while (number * pixels < Theme::px(48)) number *= 2;
    if (!metric && pixels > 60) number = 1;
    for (int i = 0; i * unit <= static_cast<double>(length) + 1; i += tick) {
        const auto at = static_cast<std::int64_t>(i * unit);
        const bool numbered = i % number == 0;
        const bool middle = i % (metric ? 5 : 3) == 0;
        const double size = numbered ? 8 : middle ? 6 : 4;
        const QPointF q = view_.at(y_axis ? Point{0, at} : Point{at, 0});
        if (view_.lengthwise()) {
            const double y = board_area_.top() - (close_up_ ? 0 : around_.height());
            if (q.x() < board_area_.left() - 1 || q.x() > board_area_.right() + 1) continue;
            p.drawLine(QPointF(q.x(), y - size), QPointF(q.x(), y));
            if (numbered)
                p.drawText(QRectF(q.x() - 30, y - Theme::px(26), 60, Theme::px(18)), Qt::AlignCenter,
                           QString::number(metric ? i * 10 : i));
        } else {
            const double x = board_area_.left() - (close_up_ ? 0 : around_.width());
            p.drawLine(QPointF(x - size, q.y()), QPointF(x, q.y()));
            if (numbered)
                p.drawText(QRectF(x - 50, q.y() - 10, 38, 20), Qt::AlignRight | Qt::AlignVCenter,
                           QString::number(metric ? i * 10 : i));
        }
    }
}

void Drawing::paint_overview(QPainter& p) {
    const Tokens& t = Theme::tokens();
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
    // The part that is seen below.
    const QRectF seen(view_.transform().inverted().mapRect(board_area_));
    const QRectF frame = overview_view_.transform().mapRect(seen).intersected(
        QRectF(overview_view_.origin, size).adjusted(-2, -2, 2, 2));
    QPainterPath path;
    path.addRect(frame);
    cased(p, path, QPen(t.chalk, 2));
}

void Drawing::paint_dimensions(QPainter& p) {
    const Tokens& t = Theme::tokens();
    p.setRenderHint(QPainter::Antialiasing);
    for (const Dimension& d : dimensions_) {
        QPainterPath line(d.from);
        line.lineTo(d.to);
        const bool level = std::abs(d.from.y() - d.to.y()) < 1;
        for (const QPointF& end : {d.from, d.to}) {
            line.moveTo(end + (level ? QPointF(0, -6) : QPointF(-6, 0)));
            line.lineTo(end + (level ? QPointF(0, 6) : QPointF(6, 0)));
        }
        cased(p, line, QPen(t.graphite, 1));
        p.setPen(QPen(t.graphite, 1));
        if (d.box == nullptr) {
            p.fillRect(d.text_rect, t.sheet);
            p.setFont(Theme::font(15, QFont::Medium));
            p.drawText(d.text_rect, (level ? Qt::AlignCenter : Qt::AlignLeft | Qt::AlignVCenter) | Qt::TextWordWrap,
                       d.text);
        }
    }
}

void Drawing::paint_section_numbers(QPainter& p) {
    const LoadsPlan& plan = *face()->loads;
    // On the edge of the film, where it hides no ink: from the usual place outwards.
    std::vector<QRectF> ink;
    for (const Piece& piece : *face()->pieces) ink.push_back(view_.rect(piece.shape.bounds()));
    const double reach = Theme::px(12);
    for (const Lay& lay : lays_of(plan.sections)) {
        const QRectF film = view_.rect(lay.move(plan.sections[lay.section].film.bounds()));
        const auto at = [&](double share) {
            return view_.lengthwise() ? QPointF(film.left() + share * film.width(), film.top())
                                      : QPointF(film.left(), film.top() + share * film.height());
        };
        QPointF best = at(0.5);
        for (const double share : {0.5, 0.35, 0.65, 0.2, 0.8, 0.08, 0.92}) {
            const QPointF q = at(share);
            const QRectF disc(q.x() - reach, q.y() - reach, 2 * reach, 2 * reach);
            if (std::any_of(ink.begin(), ink.end(), [&](const QRectF& r) { return r.intersects(disc); })) continue;
            best = q;
            break;
        }
        number_disc(p, best, static_cast<int>(lay.section) + 1, lit_ == lay.section);
    }
}

// What the hands do at each seam, and one try of them eight times as far off as it came out.
void Drawing::paint_evidence(QPainter& p) {
    const auto& evidence = desk_.evidence();
    if (!evidence) return;
    const Tokens& t = Theme::tokens();
    const std::string of = face_id(sign(), desk_.face_at(), face()->colour);
    const LoadsPlan& plan = *face()->loads;
    p.setRenderHint(QPainter::Antialiasing);
    constexpr double enlarged = 8;
    const double dots_per_mm = view_.scale / grid_to_mm(1);
    for (const LaidByHand& l : evidence->one_try) {
        if (l.of != of || l.section >= plan.sections.size()) continue;
        const QPainterPath film = view_.transform().map(path_of(plan.sections[l.section].film));
        const QPointF zero = view_.transform().map(QPointF(0, 0));
        const QPointF unit_x = view_.transform().map(QPointF(1, 0)) - zero;
        const QPointF unit_y = view_.transform().map(QPointF(0, 1)) - zero;
        const QPointF off = (unit_x * l.dx_mm + unit_y * l.dy_mm) / view_.scale * dots_per_mm * enlarged;
        const QPointF middle = film.boundingRect().center();
        // A turn goes the other way round on a screen, whose y runs down; laying the board down keeps it.
        const double degrees = -l.turn * 180 / 3.14159265358979 * enlarged;
        const QTransform laid = QTransform::fromTranslate(-middle.x(), -middle.y()) * QTransform().rotate(degrees) *
                                QTransform::fromTranslate(middle.x() + off.x(), middle.y() + off.y());
        cased(p, laid.map(film), QPen(t.ochre, 1.5, Qt::DashLine));
    }
    for (const ColourProof& c : evidence->as_cut) {
        if (c.of != of) continue;
        p.setPen(QPen(t.brick, 1));
        p.setBrush(t.brick);
        p.drawPath(view_.transform().map(path_of(c.missing)));
        p.setBrush(Qt::NoBrush);
        p.drawPath(view_.transform().map(path_of(c.surplus)));
    }
    p.setFont(Theme::font(13, QFont::Medium));
    for (const SeamByHand& s : evidence->by_hand) {
        if (s.of != of || s.seam >= plan.seams.size()) continue;
        const Seam& seam = plan.seams[s.seam];
        const bool level = seam.axis == Axis::Y;
        const QPointF middle = view_.at(level ? Point{(seam.from + seam.to) / 2, seam.where}
                                              : Point{seam.where, (seam.from + seam.to) / 2});
        const bool safe = s.share_open <= 0.05;
        const QString words = safe ? tr("holds") : tr("opens %1 in 100").arg(std::lround(s.share_open * 100));
        QRectF chip = p.fontMetrics().boundingRect(words).adjusted(-6, -3, 6, 3);
        chip.moveCenter(middle);
        p.setPen(QPen(safe ? t.moss : t.ochre, 1.5));
        p.setBrush(t.sheet);
        p.drawRoundedRect(chip, 3, 3);
        p.setPen(safe ? t.moss : t.ochre);
        p.drawText(chip, Qt::AlignCenter, words);
    }
}

void Drawing::paint_board_end(QPainter& p) {
    const Tokens& t = Theme::tokens();
    const BlankPlan& blank = *face()->blank;
    if (sign().blank.kind != Kind::Board || blank.tape) return;
    const double room = height() - board_area_.bottom() - around_.height() - Theme::px(130);
    if (!view_.lengthwise() || room < Theme::px(90)) return;
    const Display& display = desk_.shop().display;
    const double inch = std::min({Theme::px(30) * 1.0, (width() - 2 * side) / 14.0, room / 3.0});
    const double w = blank.width.in_inches() * inch;
    const double h = blank.thickness.in_inches() * inch;
    const QRectF real(side + inch * 0.3, board_area_.bottom() + around_.height() + Theme::px(150), w, h);
    p.setPen(t.graphite);
    p.setFont(Theme::font(15, QFont::DemiBold));
    p.drawText(QRectF(side, real.top() - Theme::px(44), 300, Theme::px(22)), Qt::AlignLeft | Qt::AlignVCenter,
               tr("The end of the board"));
    p.fillRect(real, QColor("#d8b886"));
    p.save();
    p.setClipRect(real);
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(QPen(QColor("#b08850"), 1.2));
    for (int i = 1; i < 14; ++i)
        p.drawEllipse(QPointF(real.center().x(), real.bottom() + inch * 1.4), i * inch * 0.42, i * inch * 0.34);
    p.restore();
    p.setPen(QPen(t.graphite, 1.2));
    p.setBrush(Qt::NoBrush);
    p.drawRect(real);
    double text_x = real.right() + Theme::px(20);
    if (blank.stock) {
        const double nw = blank.stock->nominal_width.in_inches() * inch;
        const double nh = blank.stock->nominal_thickness.in_inches() * inch;
        QRectF nominal(0, 0, nw, nh);
        nominal.moveCenter(real.center());
        p.setPen(QPen(t.pencil, 1.2, Qt::DotLine));
        p.drawRect(nominal);
        text_x = nominal.right() + Theme::px(20);
    }
    const double wide = width() - text_x - side;
    p.setPen(t.graphite);
    p.setFont(Theme::font(18, QFont::Medium));
    p.drawText(QRectF(text_x, real.top() - Theme::px(8), wide, Theme::px(26)), Qt::AlignLeft | Qt::AlignVCenter,
               tr("%1 × %2 real")
                   .arg(shown(show_number(blank.width, display)), shown(skarvel::show(blank.thickness, display))));
    if (blank.stock) {
        p.setPen(t.pencil);
        p.setFont(Theme::font(15));
        p.drawText(QRectF(text_x, real.top() + Theme::px(20), wide, Theme::px(72)),
                   Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap,
                   tr("%1 × %2 by name, a %3, dotted")
                       .arg(shown(show_number(blank.stock->nominal_width, display)),
                            shown(skarvel::show(blank.stock->nominal_thickness, display)),
                            QString::fromStdString(shown_name(blank.stock->name))));
    }
}

// What is sawn from which board of the stock, for frames.
void Drawing::paint_cut_diagram(QPainter& p) {
    const Tokens& t = Theme::tokens();
    const Display& display = desk_.shop().display;
    if (sign().blank.frame.kind == FrameKind::None || !view_.lengthwise()) return;
    double y = board_area_.bottom() + around_.height() + Theme::px(100);
    const double bar = Theme::px(26);
    for (const SawPlan& saw : desk_.plan().saw) {
        const bool frames =
            std::any_of(saw.cuts.begin(), saw.cuts.end(), [](const Cut& c) { return c.what.id.starts_with("frame."); });
        if (!frames || saw.cutting.boards.empty() || y + Theme::px(70) > height()) continue;
        Length longest;
        for (const SawnBoard& board : saw.cutting.boards) longest = std::max(longest, board.from);
        const double scale = (width() - 2 * side - Theme::px(60)) / longest.in_mm();
        p.setPen(t.graphite);
        p.setFont(Theme::font(15, QFont::DemiBold));
        p.drawText(QRectF(side, y, width() - 2 * side, Theme::px(22)), Qt::AlignLeft | Qt::AlignVCenter,
                   (saw.cutting.used == 1 ? tr("Sawn from one board of %2%3") : tr("Sawn from %1 boards of %2%3"))
                       .replace("%1", QString::number(saw.cutting.used))
                       .replace("%2", QString::fromStdString(shown_name(saw.stock)))
                       .replace("%3", saw.cutting.proved ? tr(": no plan uses fewer") : QString()));
        y += Theme::px(28);
        for (const SawnBoard& board : saw.cutting.boards) {
            if (y + bar > height()) break;
            double x = side;
            const QRectF whole(x, y, board.from.in_mm() * scale, bar);
            hatch(p, whole, t.pencil);
            for (const std::size_t i : board.pieces) {
                const Cut& cut = saw.cuts[i];
                const QRectF piece(x, y, cut.length.in_mm() * scale, bar);
                const double slant = cut.angle == 45 ? std::min(bar, piece.width() / 3) : 0;
                QPainterPath shape;
                shape.addPolygon(QPolygonF({piece.topLeft() + QPointF(slant, 0), piece.topRight() - QPointF(slant, 0),
                                            piece.bottomRight(), piece.bottomLeft()}));
                shape.closeSubpath();
                p.fillPath(shape, QColor("#d8b886"));
                p.setPen(QPen(t.graphite, 1));
                p.setBrush(Qt::NoBrush);
                p.drawPath(shape);
                p.setPen(QColor("#2b2925"));
                p.setFont(Theme::font(15, QFont::Medium));
                p.drawText(piece, Qt::AlignCenter, shown(show_number(cut.length, display)));
                x += (cut.length + desk_.shop().kerf).in_mm() * scale;
            }
            p.setPen(QPen(t.graphite, 1));
            p.drawRect(whole);
            p.setFont(Theme::font(13));
            const QString over =
                (board.boards > 1 ? tr("%1 × ").arg(board.boards) : QString()) +
                tr("%1; %2 over")
                    .arg(shown(skarvel::show(board.from, display)), shown(skarvel::show(board.offcut, display)));
            y += bar + 2;
            p.setPen(t.pencil);
            p.drawText(QRectF(side, y, width() - 2 * side, Theme::px(18)), Qt::AlignLeft | Qt::AlignVCenter, over);
            y += Theme::px(26);
        }
        y += Theme::px(8);
    }
}

// What the tape found, drawn large: the true rectangle dotted, the board's own corners moved twelve times as far.
void Drawing::paint_out_of_true(QPainter& p) {
    const BlankPlan& blank = *face()->blank;
    if (!blank.tape || !view_.lengthwise()) return;
    const Tokens& t = Theme::tokens();
    const double top = board_area_.bottom() + around_.height() + Theme::px(130);
    const double room = height() - top - Theme::px(24);
    if (room < Theme::px(80)) return;
    constexpr double larger = 12;
    const bool level = sign().blank.stands == Stands::Level;
    const auto& c = blank.tape->corners;
    const double length = static_cast<double>(c[3].y + c[2].y) / 2;
    const double across = static_cast<double>(c[1].x);
    const double scale =
        std::min((width() - 2 * side - Theme::px(40)) / length, (room - Theme::px(60)) / (across * 1.6));
    const QPointF low(side + Theme::px(20), top + Theme::px(40) + across * 1.3 * scale);
    // Laid down: the bottom of an upright board, the left end of a level one, to the left.
    const std::array<QPointF, 4> square{QPointF(0, 0), QPointF(across, 0), QPointF(across, length), QPointF(0, length)};
    const auto place = [&](QPointF q) {
        // As the board lies above: an upright one with its top to the left, its right side up.
        return level ? QPointF(low.x() + q.y() * scale, low.y() - (across - q.x()) * scale)
                     : QPointF(low.x() + (length - q.y()) * scale, low.y() - q.x() * scale);
    };
    QPolygonF ideal, real;
    for (std::size_t i = 0; i < 4; ++i) {
        const QPointF at(static_cast<double>(c[i].x), static_cast<double>(c[i].y));
        ideal << place(square.at(i));
        real << place(square.at(i) + (at - square.at(i)) * larger);
    }
    p.setPen(t.graphite);
    p.setFont(Theme::font(15, QFont::DemiBold));
    p.drawText(QRectF(side, top, width() - 2 * side, Theme::px(22)), Qt::AlignLeft | Qt::AlignVCenter,
               tr("How far it is out of true, twelve times as large"));
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(QPen(t.ochre, 2));
    QColor wash("#d8b886");
    wash.setAlphaF(0.5F);
    p.setBrush(wash);
    p.drawPolygon(real);
    p.setPen(QPen(t.pencil, 1.2, Qt::DotLine));
    p.setBrush(Qt::NoBrush);
    p.drawPolygon(ideal);
}

void Drawing::paint_loads(QPainter& p) {
    const Tokens& t = Theme::tokens();
    const LoadsPlan& plan = *face()->loads;
    const Display& display = desk_.shop().display;
    p.setRenderHint(QPainter::Antialiasing);
    for (const LoadView& lv : loads_) {
        if (lv.load >= plan.loads.size()) continue;  // laid out for a plan that is gone
        const Load& load = plan.loads[lv.load];
        const QRectF mat = lv.mat;
        p.setPen(t.graphite);
        p.setFont(Theme::font(15, QFont::DemiBold));
        const Mat& bed = face()->bed;
        const QString name = (bed.roll || bed.print ? tr("Load %1 · %2%3") : tr("Load %1 · mat %2%3"))
                                 .arg(lv.load + 1)
                                 .arg(QString::fromStdString(bed.name), load.cut ? tr(" · cut") : QString());
        p.drawText(QRectF(mat.left(), mat.top() - Theme::px(28), std::max(mat.width(), 200.0), Theme::px(22)),
                   Qt::AlignLeft | Qt::AlignVCenter, name);
        QColor cloth = t.moss;
        cloth.setAlphaF(0.10F);
        p.fillRect(mat, cloth);
        p.setPen(QPen(t.line, 0.6));
        const double inch = units_per_inch * view_.scale;
        for (double x = mat.left() + inch; x < mat.right(); x += inch)
            p.drawLine(QPointF(x, mat.top()), QPointF(x, mat.bottom()));
        for (double y = mat.top() + inch; y < mat.bottom(); y += inch)
            p.drawLine(QPointF(mat.left(), y), QPointF(mat.right(), y));
        p.setPen(QPen(t.moss, 1, Qt::DashLine));
        p.setBrush(Qt::NoBrush);
        p.drawRect(mat);
        // The mat lies as the board does, turned a quarter: what goes in last is on the left.
        const QTransform lie(0, -view_.scale, -view_.scale, 0, mat.right(), mat.bottom());
        const std::vector<OnMat> lying =
            is_printed(face()->making) ? on_mat(load, plan.sections, {}) : std::vector<OnMat>{};
        for (const Placement& placement : load.placements) {
            const LaidSection laid = lay_on_mat(plan.sections[placement.section], placement);
            const bool lit = lit_ == placement.section;
            const QPainterPath film = lie.map(path_of(laid.film));
            p.setPen(QPen(lit ? t.chalk : t.graphite, lit ? 2 : 1));
            p.setBrush(section_tint(placement.section));
            p.drawPath(film);
            p.setPen(QPen(t.graphite, 0.8));
            p.setBrush(face()->making.way == Way::PaintThrough
                           ? t.sheet
                           : QColor(QString::fromStdString(
                                 sign().faces[desk_.face_at()].colours.at(face()->colour).paint.colour)));
            p.drawPath(lie.map(path_of(laid.cut)));
            if (is_printed(face()->making)) {
                const auto which = static_cast<std::size_t>(&placement - load.placements.data());
                p.setPen(Qt::NoPen);
                for (const Printed& printed : printed_on(this->plan(), *face(), lying[which])) {
                    p.setBrush(QColor(
                        QString::fromStdString(sign().faces[desk_.face_at()].colours.at(printed.colour).paint.colour)));
                    p.drawPath(lie.map(path_of(printed.ink)));
                }
            }
            p.setPen(QPen(t.pencil, 1));
            for (const KnifeLine& line : laid.lines) {
                p.drawLine(lie.map(QPointF(static_cast<double>(line.from.x), static_cast<double>(line.from.y))),
                           lie.map(QPointF(static_cast<double>(line.to.x), static_cast<double>(line.to.y))));
            }
        }
        // What other colours and signs have on the same load.
        for (const Guest& guest : load.guests) {
            const LaidSection laid = lay_on_mat(guest.section, guest.placement);
            p.setPen(QPen(t.pencil, 1, Qt::DashLine));
            p.setBrush(Qt::NoBrush);
            const QPainterPath film = lie.map(path_of(laid.film));
            p.drawPath(film);
            p.setPen(QPen(t.pencil, 0.6));
            p.drawPath(lie.map(path_of(laid.cut)));
            const QRectF room = film.boundingRect().adjusted(4, 2, -4, -2);
            p.setFont(Theme::font(13));
            const QString letters = QString::fromStdString(guest.section.letters);
            const QString whose = QString::fromStdString(name_of_face(job(), guest.of));
            const QString words = whose.isEmpty() || whose == letters ? letters : tr("%1, %2").arg(letters, whose);
            p.drawText(room, Qt::AlignLeft | Qt::AlignTop,
                       QFontMetrics(p.font()).elidedText(words, Qt::ElideRight, static_cast<int>(room.width())));
        }
        for (const Placement& placement : load.placements) {
            const LaidSection laid = lay_on_mat(plan.sections[placement.section], placement);
            number_disc(p, lie.mapRect(path_of(laid.film).boundingRect()).topLeft() + QPointF(4, 4),
                        static_cast<int>(placement.section) + 1, lit_ == placement.section);
        }
        if (const auto piece = leftover_on_bed(desk_.shop().drawer, load, plan.sections, bed)) {
            QPainterPath outline;
            outline.addRect(
                lie.mapRect(QRectF(QPointF(static_cast<double>(piece->low.x), static_cast<double>(piece->low.y)),
                                   QPointF(static_cast<double>(piece->high.x), static_cast<double>(piece->high.y)))));
            cased(p, outline, QPen(t.moss, 2));
        }
        p.setPen(t.pencil);
        p.setFont(Theme::font(13));
        p.save();
        p.translate(mat.right() + 4, mat.center().y());
        p.rotate(90);
        p.drawText(QRectF(-mat.height() / 2, -Theme::px(18), mat.height(), Theme::px(18)), Qt::AlignCenter,
                   p.fontMetrics().elidedText(tr("in first"), Qt::ElideRight, static_cast<int>(mat.height())));
        p.restore();
        p.setFont(Theme::font(15));
        p.drawText(QRectF(mat.left(), mat.bottom() + 4, std::max(mat.width(), 200.0), Theme::px(44)),
                   Qt::AlignLeft | Qt::AlignTop, load_says(load, face()->bed, display));
    }
}

// Where its film comes from, and what it leaves.
QString Drawing::load_says(const Load& load, const Mat& bed, const Display& display) {
    if (!load.carried_by.empty()) return tr("cut in one go with another colour");
    if (!load.from.empty()) return tr("from the drawer: %1").arg(QString::fromStdString(load.from));
    QString words = (bed.print ? tr("a page %1 long · %2 % used") : tr("%1 off the roll · %2 % used"))
                        .arg(shown(skarvel::show(load.film_length, display)))
                        .arg(static_cast<int>(std::lround(load.share * 100)));
    if (load.rest) {
        words +=
            tr("\nkeep what is left, %1 × %2")
                .arg(shown(show_number(load.rest->across, display)), shown(show_number(load.rest->along, display)));
    }
    return words;
}

// How much of the bed's length is drawn: of a roll what the longest load takes.
Length Drawing::shown_along() const {
    if (!face()->bed.roll) return face()->bed.usable.along;
    Length longest = 12_in;
    for (const Load& load : face()->loads->loads) longest = std::max(longest, load.film_length);
    return std::min(longest, face()->bed.usable.along);
}

// Where each section goes: the distances that the placement sheet prints.
void Drawing::paint_table(QPainter& p) {
    if (table_.isEmpty()) return;
    const Tokens& t = Theme::tokens();
    const LoadsPlan& plan = *face()->loads;
    const Display& display = desk_.shop().display;
    const bool upright = view_.face.height() > view_.face.width();
    const double w = table_.width();
    const std::array<double, 6> columns = {0, w * 0.30, w * 0.46, w * 0.62, w * 0.78, w * 0.90};
    const auto cell = [&](int column, double y, const QString& text, bool right) {
        const double end = column == 5 ? w : columns.at(static_cast<std::size_t>(column) + 1) - 10;
        const double begin = columns.at(static_cast<std::size_t>(column));
        p.drawText(QRectF(table_.left() + begin, y, end - begin, Theme::px(26)),
                   (right ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter,
                   QFontMetrics(p.font()).elidedText(text, Qt::ElideRight, static_cast<int>(end - begin)));
    };
    double y = table_.top();
    p.setPen(t.graphite);
    p.setFont(Theme::font(15, QFont::DemiBold));
    p.drawText(QRectF(table_.left(), y, w, Theme::px(26)), Qt::AlignLeft | Qt::AlignVCenter,
               tr("Where each section goes"));
    y += Theme::px(24);
    p.setFont(Theme::font(13));
    p.setPen(t.pencil);
    const QStringList heads = upright ? QStringList{tr("section"),   tr("from bottom"), tr("from top"),
                                                    tr("from left"), tr("load"),        tr("keepers")}
                                      : QStringList{tr("section"),     tr("from left"), tr("from right"),
                                                    tr("from bottom"), tr("load"),      tr("keepers")};
    for (int c = 0; c < 6; ++c) cell(c, y, heads[c], c > 0);
    y += Theme::px(26);
    for (const Lay& lay : lays_of(plan.sections)) {
        const std::size_t i = lay.section;
        const auto [low, high] = corners(plan.sections[i], view_.face, lay.move);
        p.setPen(QPen(t.line, 1));
        p.drawLine(QPointF(table_.left(), y), QPointF(table_.right(), y));
        if (lit_ == i) {
            QColor wash = t.chalk;
            wash.setAlphaF(0.1F);
            p.fillRect(QRectF(table_.left(), y + 1, w, Theme::px(27)), wash);
        }
        p.setPen(t.graphite);
        p.setFont(Theme::font(15));
        QString load = "–";
        for (std::size_t l = 0; l < plan.loads.size(); ++l) {
            for (const Placement& placement : plan.loads[l].placements) {
                if (placement.section == i)
                    load = QString::number(l + 1) + (plan.loads[l].cut ? tr(", cut") : QString());
            }
        }
        QString name = QString("%1   %2").arg(i + 1).arg(QString::fromStdString(plan.sections[i].letters));
        if (plan.passes > 1) name += tr(", pass %1").arg(lay.pass);
        if (const std::string turned = turned_words(lay.move); !turned.empty())
            name += ", " + QString::fromStdString(turned);
        cell(0, y, name, false);
        cell(1, y, shown(show_number(upright ? low.from_bottom : low.from_left, display)), true);
        cell(2, y, shown(show_number(upright ? high.from_top : high.from_right, display)), true);
        cell(3, y, shown(show_number(upright ? low.from_left : low.from_bottom, display)), true);
        cell(4, y, load, true);
        cell(5, y, QString::number(plan.sections[i].keepers.size()), true);
        y += Theme::px(28);
    }
}

// ---- hands

std::optional<std::size_t> Drawing::section_at(QPointF where) const {
    if (station_ != Station::Sections || face() == nullptr) return std::nullopt;
    const LoadsPlan& plan = *face()->loads;
    for (std::size_t i = 0; i < plan.sections.size(); ++i) {
        if (view_.rect(plan.sections[i].film.bounds()).contains(where)) return i;
    }
    for (const LoadView& lv : loads_) {
        const QTransform lie(0, -view_.scale, -view_.scale, 0, lv.mat.right(), lv.mat.bottom());
        for (const Placement& placement : plan.loads[lv.load].placements) {
            const LaidSection laid = lay_on_mat(plan.sections[placement.section], placement);
            if (lie.mapRect(path_of(laid.film).boundingRect()).contains(where)) return placement.section;
        }
    }
    return std::nullopt;
}

void Drawing::wheelEvent(QWheelEvent* event) {
    if (face() == nullptr || (event->modifiers() & Qt::ShiftModifier) != 0) return event->ignore();
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
    if (measuring_ && face() != nullptr && event->button() == Qt::LeftButton) {
        const QPointF q = view_.transform().inverted().map(snapped(event->position()));
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
        handling_.press(view_, event->position(), event->modifiers(), false)) {
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
    const bool pans =
        event->button() == Qt::MiddleButton || (event->button() == Qt::LeftButton && (space_down_ || close_up_));
    if (event->button() == Qt::LeftButton && overview_.contains(event->position())) {
        const QPointF point = overview_view_.transform().inverted().map(event->position());
        const QPointF to = view_.transform().map(point);
        pan_ += to.x() - board_area_.center().x();
        pan_across_ += to.y() - board_area_.center().y();
        return lay_out();
    }
    if (pans) dragged_from_ = event->position();
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
        pan_ -= by.x();
        pan_across_ -= by.y();
        return lay_out();
    }
    if (handling_.move(view_, event->position())) return update();
    if (measuring_ && !measuring_fixed_ && !measured_.empty() && face() != nullptr) {
        const QPointF q = view_.transform().inverted().map(snapped(event->position()));
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
    handling_.press(view_, event->position(), event->modifiers(), true);
    handling_.cancel();
    update();
}

void Drawing::set_step_back(bool on) {
    step_back_ = on;
    lay_out();
    Q_EMIT view_changed();
}

// The sign as it is seen from where it is read, beside somebody who stands there: all at one scale, so that equal
// angles of sight stay equal; and how large that is on this screen.
void Drawing::paint_step_back(QPainter& p) {
    const Tokens& t = Theme::tokens();
    const Length distance = desk_.face().seen.distance.value;
    const Length eye = eye_distance_;
    const double dots_per_mm = matched_dots_per_mm_ > 0 ? matched_dots_per_mm_
                               : screen() != nullptr    ? screen()->physicalDotsPerInch() / 25.4
                                                        : 96 / 25.4;
    // Pixels for a millimetre of the sign.
    const double scale = dots_per_mm * on_screen(Length::from_mm(1000), distance, eye).in_mm() / 1000;
    const double floor = height() - Theme::px(90);
    const double base = desk_.face().seen.above_floor.value.in_mm();
    p.setRenderHint(QPainter::Antialiasing);
    FaceView view;
    view.face = face()->blank->face;
    view.scale = scale * grid_nm * 1e-6;
    const QSizeF size = view.size();
    const double figure = 1700 * scale;  // somebody of 5 ft 7 in
    const double middle = width() / 2.0 + std::min(figure * 0.2, width() * 0.1);
    // The lettering's base line stands where it will hang; what the window cannot hold is cut off, not shrunk.
    const double foot =
        face()->lettering->ink.empty() ? 0 : static_cast<double>(face()->lettering->ink.low.y) * view.scale;
    const double above = base * scale - foot;  // the lower edge of the sign above the floor
    double top = floor - above - size.height();
    double ground = floor;
    if (top < Theme::px(70)) {
        top = std::max(Theme::px(70) * 1.0, (floor - size.height()) / 2);
        ground = top + size.height() + above;
    }
    view.origin = QPointF(middle - size.width() / 2, top);
    // The figure: head, body and legs, no more than a shape.
    const double x = std::max(Theme::px(24) * 1.0, view.origin.x() - figure * 0.16);
    QPainterPath body;
    body.addEllipse(QPointF(x, ground - figure * 0.925), figure * 0.062, figure * 0.075);
    body.addRoundedRect(QRectF(x - figure * 0.12, ground - figure * 0.835, figure * 0.24, figure * 0.40), figure * 0.07,
                        figure * 0.07);
    body.addRoundedRect(QRectF(x - figure * 0.105, ground - figure * 0.47, figure * 0.095, figure * 0.47),
                        figure * 0.03, figure * 0.03);
    body.addRoundedRect(QRectF(x + figure * 0.01, ground - figure * 0.47, figure * 0.095, figure * 0.47), figure * 0.03,
                        figure * 0.03);
    body.setFillRule(Qt::WindingFill);
    p.setPen(Qt::NoPen);
    p.setBrush(t.pencil);
    p.save();
    p.setClipRect(QRectF(0, Theme::px(56), width(), floor - Theme::px(56)));
    p.drawPath(body);
    p.restore();
    p.fillRect(QRectF(0, floor, width(), height() - floor), t.paper);
    p.setPen(QPen(ground <= floor + 1 ? t.graphite : t.line, 1));
    p.drawLine(QPointF(0, floor), QPointF(width(), floor));
    const FacePainter painter(sign(), desk_.face(), *face(), view, &desk_.plan());
    p.save();
    p.setClipRect(QRectF(0, Theme::px(56), width(), floor - Theme::px(56)));
    painter.board(p, false);
    painter.all_ink(p);
    p.restore();
    p.setPen(t.graphite);
    p.setFont(Theme::font(15, QFont::DemiBold));
    const Display& display = desk_.shop().display;
    p.drawText(QRectF(side, floor + 8, width() - 2 * side, Theme::px(24)), Qt::AlignLeft | Qt::AlignVCenter,
               tr("Seen from %1, with the eye %2 from the screen%3")
                   .arg(QString::fromStdString(show_far(distance, display)), shown(skarvel::show(eye, display)),
                        matched_dots_per_mm_ > 0 ? QString() : tr(" (screen not matched)")));
    p.setPen(t.pencil);
    p.setFont(Theme::font(15));
    p.drawText(QRectF(side, floor + Theme::px(32), width() - 2 * side, Theme::px(50)),
               Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap,
               matching_ ? tr("Lay a rule on the screen: drag the end of the line, or press + and −, until it is 4 in "
                              "(101.6 mm) long; Enter keeps it.")
                         : tr("S goes back. M matches the screen. , and . move the eye. The distance is in the tray, "
                              "under Read from where."));
    if (matching_) {
        const double length = dots_per_mm * 101.6;
        const QPointF a(side, Theme::px(80));
        QPainterPath line(a);
        line.lineTo(a + QPointF(length, 0));
        for (int i = 0; i <= 4; ++i) {
            line.moveTo(a + QPointF(length * i / 4, -10));
            line.lineTo(a + QPointF(length * i / 4, 10));
        }
        cased(p, line, QPen(t.chalk, 2));
    }
}

bool Drawing::step_back_key(QKeyEvent* event) {
    const double now = matched_dots_per_mm_ > 0 ? matched_dots_per_mm_
                       : screen() != nullptr    ? screen()->physicalDotsPerInch() / 25.4
                                                : 96 / 25.4;
    switch (event->key()) {
        case Qt::Key_M:
            matching_ = !matching_;
            if (matching_) matched_dots_per_mm_ = now;
            break;
        case Qt::Key_Plus:
        case Qt::Key_Minus:
            if (!matching_) return false;
            matched_dots_per_mm_ = std::clamp(now * (event->key() == Qt::Key_Plus ? 1.005 : 1 / 1.005), 1.0, 40.0);
            break;
        case Qt::Key_Return:
        case Qt::Key_Enter:
            if (!matching_) return false;
            matching_ = false;
            Q_EMIT screen_matched(matched_dots_per_mm_);
            break;
        case Qt::Key_Comma:
        case Qt::Key_Period:
            eye_distance_ = std::clamp(eye_distance_ + (event->key() == Qt::Key_Comma ? -2_in : 2_in), 8_in, 120_in);
            break;
        case Qt::Key_Escape:
            matching_ = false;
            set_step_back(false);
            break;
        default:
            return false;
    }
    update();
    return true;
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
            if (!measuring_ && !chosen_zone_) return QWidget::keyPressEvent(event);
            chosen_zone_.reset();
            if (measuring_) set_measuring(false);
            return lay_out();
        case Qt::Key_Space:
            space_down_ = true;
            return;
        case Qt::Key_Left:
            pan_ -= 40;
            return lay_out();
        case Qt::Key_Right:
            pan_ += 40;
            return lay_out();
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
    if (event->type() == QEvent::ToolTip && station_ == Station::Sections && face() != nullptr) {
        auto* help = static_cast<QHelpEvent*>(event);
        for (const Seam& seam : face()->loads->seams) {
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
            QToolTip::showText(
                help->globalPos(),
                tr("Section %1: %2").arg(*i + 1).arg(QString::fromStdString(face()->loads->sections[*i].letters)),
                this);
            return true;
        }
        QToolTip::hideText();
    }
    return QWidget::event(event);
}

}  // namespace skarvel
