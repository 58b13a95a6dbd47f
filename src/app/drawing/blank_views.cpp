#include "drawing/drawing.h"

#include <QPainter>
#include <cmath>

#include "drawing/scale.h"
#include "theme/theme.h"
#include "theme/words.h"
#include "window/ribbon.h"

namespace skarvel {

std::optional<std::size_t> Drawing::zone_at(QPointF where) const {
    for (std::size_t i = face()->face->blank->zones.size(); i-- > 0;) {
        const Region& zone = face()->face->blank->zones[i];
        if (!zone.empty() && under(where).transform().map(path_of(zone)).contains(where)) return i;
    }
    return std::nullopt;
}

// Rooms by name, where it hangs, its centre of gravity, and the diagonals that were measured.
void Drawing::paint_blank_marks(QPainter& p, const FaceView& view) {
    const Tokens& t = Theme::tokens();
    const BlankPlan& plan = *face()->face->blank;
    const Blank& blank = sign().blank;
    const Display& display = desk_.shop().display;
    p.setFont(Theme::font(13, QFont::Medium));
    for (const NamedRoom& room : plan.rooms) {
        const QRectF where = view.rect(room.box);
        QPainterPath path;
        path.addRect(where);
        cased(p, path, QPen(t.chalk, 1, Qt::DotLine));
        const QString text =
            in_words("on-drawing.room-size", {{"room", shown(desk_.say(room.what))},
                                              {"across", shown(show_number(from_grid(room.box.width()), display))},
                                              {"up", shown(skarvel::show(from_grid(room.box.height()), display))}});
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
            p.drawLine(view.at(f.low), view.at(f.high));
            p.drawLine(view.at({f.low.x, f.high.y}), view.at({f.high.x, f.low.y}));
        }
    }
    const auto cross = [&](Point at, const QColor& colour) {
        const QPointF c = view.at(at);
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
        const QRectF disc(view.at(plan.weight.centre) - QPointF(7, 7), QSizeF(14, 14));
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
    for (const Pin& pin : face()->face->marking.pins) {
        cross(pin.at, t.chalk);
        const QPointF c = view.at(pin.at);
        const QString text = in_words("on-drawing.pin-string", {{"pin", shown(desk_.say(pin.what))},
                                                                {"string", shown(skarvel::show(pin.string, display))}});
        const QFontMetrics m(p.font());
        const QRectF tag(c.x() + 10, c.y() + 8, m.horizontalAdvance(text) + 10, m.height() + 2);
        p.fillRect(tag, t.sheet);
        p.setPen(t.chalk);
        p.drawText(tag, Qt::AlignCenter, text);
    }
    for (const MarkLine& line : face()->face->marking.lines) {
        const QPointF a = view.at(line.from);
        const QPointF b = view.at(line.to);
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

// Where the end of the board is drawn; empty where it is not.
QRectF Drawing::board_end() const {
    const BlankPlan& blank = *face()->face->blank;
    if (station_ != Station::Blank || sign().blank.kind != Kind::Board || blank.tape) return {};
    const double room = height() - board_area_.bottom() - around_.height() - Theme::px(130);
    if (!view_.lengthwise() || room < Theme::px(90)) return {};
    const double inch = std::min({Theme::px(30) * 1.0, (width() - 2 * paper_side) / 14.0, room / 3.0});
    return {paper_side + inch * 0.3, board_area_.bottom() + around_.height() + Theme::px(150),
            blank.width.in_inches() * inch, blank.thickness.in_inches() * inch};
}

void Drawing::paint_board_end(QPainter& p) {
    const QRectF real = board_end();
    if (real.isEmpty()) return;
    const Tokens& t = Theme::tokens();
    const BlankPlan& blank = *face()->face->blank;
    const Display& display = desk_.shop().display;
    const double inch = real.width() / blank.width.in_inches();
    p.setPen(t.graphite);
    p.setFont(Theme::font(15, QFont::DemiBold));
    p.drawText(QRectF(paper_side, real.top() - Theme::px(44), 300, Theme::px(22)), Qt::AlignLeft | Qt::AlignVCenter,
               in_words("on-drawing.the-end-of-the"));
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
    const double wide = width() - text_x - paper_side;
    p.setPen(t.graphite);
    p.setFont(Theme::font(18, QFont::Medium));
    p.drawText(QRectF(text_x, real.top() - Theme::px(8), wide, Theme::px(26)), Qt::AlignLeft | Qt::AlignVCenter,
               in_words("on-drawing.real", {{"width", shown(show_number(blank.width, display))},
                                            {"thickness", shown(skarvel::show(blank.thickness, display))}}));
    if (blank.stock) {
        p.setPen(t.pencil);
        p.setFont(Theme::font(15));
        p.drawText(QRectF(text_x, real.top() + Theme::px(20), wide, Theme::px(72)),
                   Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap,
                   in_words("on-drawing.by-name-a-dotted",
                            {{"width", shown(show_number(blank.stock->nominal_width, display))},
                             {"thickness", shown(skarvel::show(blank.stock->nominal_thickness, display))},
                             {"stock", QString::fromStdString(shown_name(blank.stock->name))}}));
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
        const double scale = (width() - 2 * paper_side - Theme::px(60)) / longest.in_mm();
        p.setPen(t.graphite);
        p.setFont(Theme::font(15, QFont::DemiBold));
        p.drawText(QRectF(paper_side, y, width() - 2 * paper_side, Theme::px(22)), Qt::AlignLeft | Qt::AlignVCenter,
                   in_words("on-drawing.sawn-from",
                            {{"boards", saw.cutting.used},
                             {"stock", shown_name(saw.stock)},
                             {"proved", saw.cutting.proved ? in_words("on-drawing.no-plan-uses-fewer") : QString()}}));
        y += Theme::px(28);
        for (const SawnBoard& board : saw.cutting.boards) {
            if (y + bar > height()) break;
            double x = paper_side;
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
                (board.boards > 1 ? in_words("on-drawing.times", {{"boards", board.boards}}) : QString()) +
                in_words("on-drawing.board-over", {{"board", shown(skarvel::show(board.from, display))},
                                                   {"over", shown(skarvel::show(board.offcut, display))}});
            y += bar + 2;
            p.setPen(t.pencil);
            p.drawText(QRectF(paper_side, y, width() - 2 * paper_side, Theme::px(18)), Qt::AlignLeft | Qt::AlignVCenter,
                       over);
            y += Theme::px(26);
        }
        y += Theme::px(8);
    }
}

// What the tape found, drawn large: the true rectangle dotted, the board's own corners moved twelve times as far.
void Drawing::paint_out_of_true(QPainter& p) {
    const BlankPlan& blank = *face()->face->blank;
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
        std::min((width() - 2 * paper_side - Theme::px(40)) / length, (room - Theme::px(60)) / (across * 1.6));
    const QPointF low(paper_side + Theme::px(20), top + Theme::px(40) + across * 1.3 * scale);
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
    p.drawText(QRectF(paper_side, top, width() - 2 * paper_side, Theme::px(22)), Qt::AlignLeft | Qt::AlignVCenter,
               in_words("on-drawing.how-far-it-is"));
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

}  // namespace skarvel
