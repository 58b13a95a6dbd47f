#include "drawing/drawing.h"

#include <QPainter>
#include <cmath>

#include "theme/theme.h"
#include "theme/words.h"

namespace skarvel {

QPointF Drawing::snapped(QPointF where) const {
    constexpr double reach = 10;
    const FaceView& view = under(where);
    QPointF best = where;
    double least = reach;
    const auto try_point = [&](QPointF q, double favour) {
        const double d = std::hypot(q.x() - where.x(), q.y() - where.y()) - favour;
        if (d < least) {
            least = d;
            best = q;
        }
    };
    std::vector<const Region*> shapes{&face()->face->blank->outline};
    for (const Region& zone : face()->face->blank->zones) shapes.push_back(&zone);
    for (const Piece& piece : *face()->cut.pieces) shapes.push_back(&piece.shape);
    for (const Region* shape : shapes) {
        if (shape->empty()) continue;
        const Box b = shape->bounds();
        const Point middle{(b.low.x + b.high.x) / 2, (b.low.y + b.high.y) / 2};
        for (const Point q : {middle, Point{middle.x, b.low.y}, Point{middle.x, b.high.y}, Point{b.low.x, middle.y},
                              Point{b.high.x, middle.y}})
            try_point(view.at(q), 2);
        for (const Ring& ring : shape->rings()) {
            for (std::size_t i = 0; i < ring.size(); ++i) {
                const QPointF a = view.at(ring[i]);
                const QPointF c = view.at(ring[(i + 1) % ring.size()]);
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
    return in_words("on-drawing.across-up", {{"straight", shown(skarvel::show(straight, display))},
                                             {"across", shown(skarvel::show(across, display))},
                                             {"up", shown(skarvel::show(up, display))}});
}

void Drawing::paint_tape_measure(QPainter& p) {
    if (!measuring_ || measured_.empty()) return;
    p.save();
    if (!closer_area_.isEmpty()) {
        p.setClipRect(closer_area_);
        paint_measured(p, closer_);
        p.restore();
        p.save();
        p.setClipRegion(QRegion(rect()) - QRegion(closer_area_.toAlignedRect()));
    }
    paint_measured(p, view_);
    p.restore();
}

void Drawing::paint_measured(QPainter& p, const FaceView& view) {
    const Tokens& t = Theme::tokens();
    p.setRenderHint(QPainter::Antialiasing);
    QPainterPath path;
    for (const Point& q : measured_) path.addEllipse(view.at(q), 4, 4);
    if (measured_.size() == 2) {
        path.moveTo(view.at(measured_[0]));
        path.lineTo(view.at(measured_[1]));
    }
    cased(p, path, QPen(t.ochre, 2));
    if (measured_.size() < 2) return;
    p.setFont(Theme::font(18, QFont::DemiBold));
    const QString text = measured_text();
    const QFontMetrics m(p.font());
    QRectF tag(0, 0, m.horizontalAdvance(text) + 16, m.height() + 6);
    tag.moveCenter((view.at(measured_[0]) + view.at(measured_[1])) / 2 + QPointF(0, Theme::px(26)));
    tag.moveLeft(std::clamp(tag.left(), 4.0, std::max(4.0, width() - tag.width() - 4)));
    p.fillRect(tag, t.sheet);
    p.setPen(QPen(t.ochre, 1));
    p.drawRect(tag);
    p.setPen(t.graphite);
    p.drawText(tag, Qt::AlignCenter, text);
}

}  // namespace skarvel
