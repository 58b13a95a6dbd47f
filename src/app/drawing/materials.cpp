#include "drawing/materials.h"

#include <QPainterPath>
#include <algorithm>
#include <cmath>
#include <map>

namespace skarvel {

Look look_of(const std::string& material) {
    static const std::map<std::string, Look> looks{
        {"pine", {"#d8b886", "#bd9560"}},       {"white-pine", {"#e3cb9f", "#c9a873"}},
        {"cedar", {"#bf8258", "#9a6440"}},      {"poplar", {"#cdbd8c", "#a99a66"}},
        {"oak", {"#c49c66", "#97723f"}},        {"maple", {"#e4cda2", "#c6a877"}},
        {"plywood", {"#dcc394", "#c2a26c"}},    {"hardboard", {"#8d6746", "#7a5839"}},
        {"fibreboard", {"#b4926b", "#a58460"}}, {"canvas", {"#efe9dc", "#d5ccb9"}},
        {"acrylic", {"#dbe7e8", "#f6fbfb"}},    {"foam", {"#f1f1ee", "#e2e2dd"}},
    };
    const auto at = looks.find(material);
    return at == looks.end() ? looks.at("pine") : at->second;
}

bool is_wood(const std::string& material) {
    return material != "canvas" && material != "acrylic" && material != "foam" && material != "fibreboard" &&
           material != "hardboard";
}

void paint_grain(QPainter& p, const QRectF& where, const QColor& line_colour, bool turned) {
    p.save();
    p.setClipRect(where, Qt::IntersectClip);
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(QPen(line_colour, 1));
    p.setBrush(Qt::NoBrush);  // whatever was painted before
    const bool across = (where.width() >= where.height()) != turned;
    const double length = across ? where.width() : where.height();
    const double wide = across ? where.height() : where.width();
    // The same board has the same grain on every screen: lines follow from their number alone.
    for (int i = 0; i * 6.0 < wide; ++i) {
        const double base = i * 6.0 + ((i * 37) % 5) - 2;
        QPainterPath line;
        for (double s = 0; s < length + 24; s += 24) {
            const double wave = 2.2 * std::sin(s / (70.0 + (i * 53) % 60) + i * 1.7) + 1.2 * std::sin(s / 31.0 + i);
            const QPointF at = across ? QPointF(where.left() + s, where.top() + base + wave)
                                      : QPointF(where.left() + base + wave, where.top() + s);
            s == 0 ? line.moveTo(at) : line.lineTo(at);
        }
        p.drawPath(line);
    }
    p.restore();
}

void paint_weave(QPainter& p, const QRectF& where, const QColor& line) {
    p.setPen(QPen(line, 0.7));
    for (double x = where.left(); x < where.right(); x += 4)
        p.drawLine(QPointF(x, where.top()), QPointF(x, where.bottom()));
    for (double y = where.top(); y < where.bottom(); y += 4)
        p.drawLine(QPointF(where.left(), y), QPointF(where.right(), y));
}

void paint_gleams(QPainter& p, const QRectF& where, const QColor& line) {
    p.setPen(QPen(line, 5));
    const double step = std::max(40.0, where.height() / 2);
    for (double x = where.left() - where.height(); x < where.right(); x += step) {
        p.drawLine(QPointF(x, where.bottom()), QPointF(x + where.height() * 0.5, where.top()));
        p.drawLine(QPointF(x + 12, where.bottom()), QPointF(x + 12 + where.height() * 0.5, where.top()));
    }
}

void paint_bare(QPainter& p, const QRectF& where, const std::string& material) {
    const Look look = look_of(material);
    p.fillRect(where, look.base);
    p.save();
    p.setClipRect(where, Qt::IntersectClip);
    if (material == "canvas") {
        paint_weave(p, where, look.line);
    } else if (material == "acrylic") {
        paint_gleams(p, where, look.line);
    } else if (is_wood(material)) {
        paint_grain(p, where, look.line);
    } else {
        // Pressed and foamed: specks, the same on every screen.
        p.setPen(Qt::NoPen);
        p.setBrush(look.line);
        const int across = static_cast<int>(where.width() / 9);
        for (int i = 0; i < across * static_cast<int>(where.height() / 9); ++i) {
            const double x = where.left() + (i % across) * 9.0 + (i * 37) % 7;
            const double y = where.top() + (i / across) * 9.0 + (i * 53) % 7;
            p.drawEllipse(QPointF(x, y), 1.0 + (i * 29) % 3 * 0.4, 0.9);
        }
    }
    p.restore();
}

}  // namespace skarvel
