#include "drawing/drawing.h"

#include <QPainter>
#include <cmath>

#include "theme/theme.h"
#include "theme/words.h"

namespace skarvel {

// Typing into the box sets a dimension of the text at hand, if that can be.
void Drawing::decides(Callout& box, const Measure& was, std::function<void(Text&, const Measure&)> set) {
    box.decide = [this, was, set = std::move(set)](const Measure& m) { desk_.type_dimension(set, was, m); };
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
        double x = board_area_.right() + around_.width() + Theme::px(34) + row * Theme::px(64);
        if (box == nullptr) {
            // Its longest word stays on the paper.
            const QFontMetrics m(Theme::font(15, QFont::Medium));
            int longest = 0;
            for (const QString& word : text.split(' ')) longest = std::max(longest, m.horizontalAdvance(word));
            x = std::min(x, static_cast<double>(width() - longest - 22));
        }
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
            const double wide = std::min(m.horizontalAdvance(text) + 8.0, width() - centre.x() - 12);
            const QRect fit = m.boundingRect(QRect(0, 0, static_cast<int>(wide), 400), Qt::TextWordWrap, text);
            d.text_rect = QRectF(centre.x() + 6, centre.y() - fit.height() / 2.0, wide, fit.height());
        }
    }
    dimensions_.push_back(d);
}

void Drawing::lay_out_dimensions() {
    for (auto& [id, box] : callouts_) box->setProperty("placed", box->hasFocus());
    const ColourPlan& plan = *face();
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
                ? callout("clear-" + QString::number(i), in_words("on-drawing.changes-how-thick-the"), zone.girth,
                          in_words("on-drawing.turns", {{"turns", zone.turns}}))
                : callout("clear-" + QString::number(i),
                          in_words("on-drawing.moves-the-clear-zone", {{"name", QString::fromStdString(zone.name)}}),
                          zone.depth);
        box.decide = [this, i](const Measure& m) {
            change_blank([&](Blank& b) {
                if (i < b.clear.size()) (b.clear[i].turns > 0 ? b.clear[i].girth : b.clear[i].depth) = m;
            });
        };
        const std::int64_t depth = to_grid(zone.turns > 0 ? zone.girth.value * zone.turns : zone.depth.value);
        length_dimension(low ? 0 : length - depth, low ? depth : length, 0, &box);
    }
    const Box usable = plan.face->blank->usable;
    const std::int64_t from = y_axis ? usable.low.y : usable.low.x;
    const std::int64_t to = y_axis ? usable.high.y : usable.high.x;
    if (station_ == Station::Blank) {
        size_callouts(plan, blank);
        if (!usable.empty())
            length_dimension(
                from, to, 0, nullptr,
                in_words("on-drawing.for-lettering", {{"room", shown(skarvel::show(from_grid(to - from), display))}}),
                Station::Blank);
    } else if (station_ == Station::Lettering && !plan.face->lettering->letters.empty()) {
        lettering_callouts(plan, display, from, to, y_axis);
    }
    lay_out_sides(plan, blank, display);
}

// Of the text at hand: its gaps and size, and where it hangs.
void Drawing::lettering_callouts(const ColourPlan& plan, const Display& display, std::int64_t from, std::int64_t to,
                                 bool y_axis) {
    if (step_back_ || desk_.art_at()) return;
    const Text& text = desk_.face().lettering.texts[desk_.text_at()];
    if (desk_.text_at() >= plan.face->lettering->texts.size()) return;
    const PlacedText& placed = plan.face->lettering->texts[desk_.text_at()];
    std::vector<const PlacedLetter*> letters;
    for (const PlacedLetter& l : plan.face->lettering->letters) {
        if (static_cast<std::size_t>(l.of) == desk_.text_at()) letters.push_back(&l);
    }
    if (letters.empty()) return;
    const bool alone = plan.face->lettering->texts.size() == 1 && desk_.face().art.empty();
    const bool stack = text.arrangement == Arrangement::Stack;
    if (alone && stack == y_axis && letters.size() > 1 && text.arrangement != Arrangement::Arc) {
        const QString prefix = letters.size() > 2 ? QString("%1 × ").arg(letters.size() - 1) : QString();
        Callout& box = callout("letter-gap", in_words("on-drawing.changes-the-letter-gap"), text.letter_gap, prefix);
        decides(box, text.letter_gap, [](Text& l, const Measure& m) { l.letter_gap = m; });
        length_dimension(from, to, 0, &box);
    }
    if (text.arrangement == Arrangement::Arc) {
        const bool follows = text.arc.follow && sign().blank.kind == Kind::Round;
        Callout& box = follows ? callout("arc-distance", in_words("on-drawing.changes-the-arcs-distance"),
                                         text.arc.distance, in_words("on-drawing.from-the-edge"))
                               : callout("arc-radius", in_words("on-drawing.changes-the-radius-of"), text.arc.radius,
                                         in_words("on-drawing.radius"));
        decides(box, follows ? text.arc.distance : text.arc.radius,
                [follows](Text& l, const Measure& m) { (follows ? l.arc.distance : l.arc.radius) = m; });
        place(box, {view_.rect(placed.ink).center().x(), board_area_.bottom() + Theme::px(96)});
    }
    const Box first = letters.front()->ink.bounds();
    const std::int64_t low = y_axis ? first.low.y : first.low.x;
    const std::int64_t high = y_axis ? first.high.y : first.high.x;
    if (text.sizing != Sizing::Snug) {
        const QString name = text.sizing == Sizing::CapHeight ? in_words("on-drawing.cap")
                             : text.sizing == Sizing::XHeight ? in_words("on-drawing.x")
                             : text.sizing == Sizing::Overall ? in_words("on-drawing.high")
                                                              : in_words("on-drawing.wide");
        Callout& box = callout("cap-height", in_words("on-drawing.changes-the-size-of"), text.size, name);
        decides(box, text.size, [](Text& l, const Measure& m) { l.size = m; });
        length_dimension(low, high, 1, &box);
    } else {
        length_dimension(low, high, 1, nullptr,
                         in_words("on-drawing.caps", {{"height", shown(skarvel::show(placed.cap_height, display))}}),
                         Station::Lettering);
    }
    const bool second = desk_.text_at() > 0 && placed.in_column;
    if ((!stack && letters.back()->line > letters.front()->line) || second) {
        Callout& box = callout("line-gap", in_words("on-drawing.changes-the-line-gap"), text.line_gap,
                               second ? in_words("on-drawing.gap-above") : in_words("on-drawing.lines"));
        decides(box, text.line_gap, [](Text& l, const Measure& m) { l.line_gap = m; });
        place(box, {board_area_.center().x() + Theme::px(120), board_area_.bottom() + Theme::px(58)});
    }
    hang_callouts(plan, text);
}

// Arrows from what the text at hand hangs on to the text itself, each with the distance that was typed.
void Drawing::hang_callouts(const ColourPlan& plan, const Text& text) {
    const auto things = things_on(desk_.face(), plan);
    const auto thing_named = [&](const ThingId& id) -> std::optional<Box> {
        if (id == on_face) return plan.face->blank->face;
        if (id == on_usable) return plan.face->blank->usable;
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
            callout(x ? "hang-across" : "hang-up",
                    x ? in_words("on-drawing.moves-the-text-across") : in_words("on-drawing.moves-the-text-up"),
                    hang->by, x ? in_words("on-drawing.across") : in_words("on-drawing.up"));
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
void Drawing::size_callouts(const ColourPlan& plan, const Blank& blank) {
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
            return sized("length", in_words("on-drawing.changes-the-diameter"), blank.length,
                         in_words("on-drawing.across"), 0, length, 1, set_length);
        case Kind::Arrow: {
            const std::int64_t body = to_grid(plan.face->blank->length);
            const std::int64_t head = to_grid(blank.head.length.value);
            const bool right = plan.face->at.face == 0 ? blank.head.right : !blank.head.right;
            sized("length", in_words("on-drawing.changes-the-length-of"), blank.length, in_words("on-drawing.body"),
                  right ? 0 : length - body, right ? body : length, 1, set_length);
            return sized("head-length", in_words("on-drawing.changes-the-length-of-the"), blank.head.length,
                         in_words("on-drawing.head"), right ? length - head : 0, right ? length : head, 2,
                         [](Blank& b, const Measure& m) { b.head.length = m; });
        }
        case Kind::Arch:
            sized("length", in_words("on-drawing.changes-the-height-of"), blank.length, in_words("on-drawing.tall"), 0,
                  length, 1, set_length);
            if (blank.arch.style != ArchStyle::HalfRound) {
                sized("rise", in_words("on-drawing.changes-the-rise-of"), blank.arch.rise, in_words("on-drawing.rise"),
                      view_.face.high.y - to_grid(blank.arch.rise.value), view_.face.high.y, 2,
                      [](Blank& b, const Measure& m) { b.arch.rise = m; });
            }
            return;
        case Kind::Drawn:
            if (!blank.outline) return;
            return sized("length", in_words("on-drawing.changes-the-one-known"), blank.outline->known,
                         blank.outline->by_width ? in_words("on-drawing.wide") : in_words("on-drawing.high"), 0, length,
                         1, [](Blank& b, const Measure& m) {
                             if (b.outline) b.outline->known = m;
                         });
        default: {
            const FramePlan& frame = plan.face->blank->frame;
            const std::int64_t over = (to_grid(y_axis ? frame.over_up : frame.over_across) - length) / 2;
            const std::int64_t cover = to_grid(y_axis ? frame.cover_up : frame.cover_across);
            const bool framed = blank.frame.kind != FrameKind::None && !frame.on_backing;
            const std::int64_t out = !framed                                  ? 0
                                     : blank.frame.size_is == SizeIs::OverAll ? over
                                     : blank.frame.size_is == SizeIs::Free    ? -cover
                                                                              : 0;
            return sized("length", in_words("on-drawing.changes-the-length-of-the-board"), blank.length,
                         size_prefix(blank), -out, length + out, 1, set_length);
        }
    }
}

QString Drawing::size_prefix(const Blank& blank) {
    if (blank.frame.kind == FrameKind::None || (blank.backing && goes_round(blank.frame.kind))) return {};
    return blank.frame.size_is == SizeIs::OverAll ? in_words("on-drawing.over-all")
           : blank.frame.size_is == SizeIs::Free  ? in_words("on-drawing.free")
                                                  : in_words("on-drawing.bare");
}

// A zone that is no band at an end: its size beside it; where it lies once it is chosen.
void Drawing::zone_callouts(std::size_t i, const ClearZone& zone, const ColourPlan& plan) {
    if (i >= plan.face->blank->zones.size() || plan.face->blank->zones[i].empty()) return;
    const QString name = QString::fromStdString(zone.name);
    const QRectF where = view_.rect(plan.face->blank->zones[i].bounds());
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
        add({}, in_words("on-drawing.moves-the-clear-zone", {{"name", name}}), zone.turns > 0 ? zone.girth : zone.depth,
            zone.turns > 0 ? in_words("on-drawing.turns", {{"turns", zone.turns}}) : QString(),
            {where.left() + Theme::px(60), where.center().y()}, zone.turns > 0 ? &ClearZone::girth : &ClearZone::depth);
        return;
    }
    if (chosen_zone_ != i) return;
    const double y = where.bottom() + Theme::px(16);
    add({}, in_words("on-drawing.changes-the-width-of", {{"name", name}}), zone.width,
        zone.shape == ZoneShape::Circle ? in_words("on-drawing.diameter") : in_words("on-drawing.wide"),
        {where.center().x(), y}, &ClearZone::width);
    if (zone.shape == ZoneShape::Rectangle) {
        add("-height", in_words("on-drawing.changes-the-height-of-with-name", {{"name", name}}), zone.height,
            in_words("on-drawing.high"), {where.center().x(), y + Theme::px(28)}, &ClearZone::height);
    }
    add("-x", in_words("on-drawing.moves-from-the-left", {{"name", name}}), zone.x, in_words("on-drawing.left"),
        {where.center().x() - Theme::px(70), y + Theme::px(56)}, &ClearZone::x);
    add("-y", in_words("on-drawing.moves-from-the-bottom", {{"name", name}}), zone.y, in_words("on-drawing.up"),
        {where.center().x() + Theme::px(70), y + Theme::px(56)}, &ClearZone::y);
}

// Across the board: the measured width on Blank, the margin on both.
void Drawing::lay_out_sides(const ColourPlan& plan, const Blank& blank, const Display& display) {
    const bool board = blank.kind == Kind::Board;
    Callout& margin = callout(
        "margin", board ? in_words("on-drawing.changes-the-margin-at") : in_words("on-drawing.changes-the-margin-all"),
        blank.margin, in_words("on-drawing.margin"));
    margin.decide = [this](const Measure& m) { change_blank([&](Blank& b) { b.margin = m; }); };
    Callout* width_box = nullptr;
    Callout* head_box = nullptr;
    if (station_ == Station::Blank && blank.kind != Kind::Round && blank.kind != Kind::Drawn) {
        const QString prefix = blank.kind == Kind::Arrow  ? in_words("on-drawing.body")
                               : blank.kind == Kind::Arch ? in_words("on-drawing.span")
                                                          : size_prefix(blank);
        width_box = &callout("width",
                             blank.kind == Kind::Arrow  ? in_words("on-drawing.changes-the-height-of-the")
                             : blank.kind == Kind::Arch ? in_words("on-drawing.changes-the-span-of")
                                                        : in_words("on-drawing.changes-the-measured-width"),
                             blank.width.value_or(measure_of(plan.face->blank->width, display)), prefix);
        width_box->decide = [this](const Measure& m) { change_blank([&](Blank& b) { b.width = m; }); };
    }
    if (station_ == Station::Blank && blank.kind == Kind::Arrow) {
        head_box = &callout("head-height", in_words("on-drawing.changes-the-height-of-the-arrows"), blank.head.height,
                            in_words("on-drawing.head"));
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
            const double half = blank.kind == Kind::Arrow
                                    ? std::min(board_rect.height(),
                                               static_cast<double>(to_grid(plan.face->blank->width)) * view_.scale) /
                                          2
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
    if (station_ == Station::Blank && plan.face->blank->tape) reading_callouts(plan, blank);
}

// Bands of another ground colour: how deep, and where their middle lies.
void Drawing::field_callouts(const ColourPlan& plan, const Blank& blank) {
    for (std::size_t i = 0; i < blank.fields.size() && i < plan.face->blank->fields.size(); ++i) {
        if (plan.face->blank->fields[i].region.empty()) continue;
        const QRectF where = view_.rect(plan.face->blank->fields[i].region.bounds());
        const QString id = "field-" + QString::number(i);
        Callout& depth = callout(id, in_words("on-drawing.changes-the-depth-of", {{"number", i + 1}}),
                                 blank.fields[i].depth, in_words("on-drawing.band"));
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
        Callout& middle = callout(
            id + "-middle", in_words("on-drawing.moves-the-middle-of", {{"number", i + 1}}), blank.fields[i].middle,
            blank.fields[i].along == Axis::X ? in_words("on-drawing.up") : in_words("on-drawing.left"));
        middle.decide = [this, i](const Measure& m) {
            change_blank([&](Blank& b) {
                if (i < b.fields.size()) b.fields[i].middle = m;
            });
        };
        place(middle, {x, y + Theme::px(30)});
    }
}

// What the tape says, where it was held.
void Drawing::reading_callouts(const ColourPlan& plan, const Blank& blank) {
    // Corners as the tape counts them: lower left, lower right, upper right, upper left of an upright board.
    const bool level = blank.stands == Stands::Level;
    const Box f = plan.face->blank->face;
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
        Callout& box = callout("tape-" + QString::number(i),
                               in_words("on-drawing.changes", {{"what", shown(desk_.say(name))}}), *taken);
        box.decide = [this, i](const Measure& m) { change_blank([&](Blank& b) { b.tape.taken.at(i) = m; }); };
        // Beside the edge that was measured, inside it.
        QPointF in = view_.at(where.at(i));
        const QPointF centre = view_.rect(f).center();
        const double off = Theme::px(i == static_cast<std::size_t>(Reading::Middle) ? 0 : 18);
        if (std::abs(in.y() - centre.y()) > 2 * off) in.ry() += in.y() < centre.y() ? off : -off;
        place(box, in);
    }
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

}  // namespace skarvel
