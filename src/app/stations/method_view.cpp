#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "stations/views.h"
#include "theme/theme.h"
#include "theme/words.h"
#include "ticket/ticket.h"

namespace skarvel {
namespace {

constexpr double side = 24;

void check_mark(QPainter& p, QPointF at, const QColor& colour) {
    QPainterPath path(at + QPointF(0, 6));
    path.lineTo(at + QPointF(5, 11));
    path.lineTo(at + QPointF(15, 0));
    p.setPen(QPen(colour, 2.4, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
    p.setBrush(Qt::NoBrush);
    p.drawPath(path);
}

void wood(QPainter& p, const QRectF& where) {
    p.fillRect(where, QColor("#d8b886"));
    p.save();
    p.setClipRect(where);
    p.setPen(QPen(QColor("#bd9560"), 1.2));
    for (int i = 0; i < 18; ++i) {
        QPainterPath line;
        const double y = where.top() + i * 5.5;
        for (double x = 0; x <= where.width(); x += 20) {
            const QPointF at(where.left() + x, y + 2 * std::sin(x / (60.0 + i * 7 % 40) + i));
            x == 0 ? line.moveTo(at) : line.lineTo(at);
        }
        p.drawPath(line);
    }
    p.restore();
}

// Where the ink lies in the cut: a made-up row of letters, the same for every layer.
std::vector<std::pair<double, double>> openings() { return {{0.13, 0.31}, {0.39, 0.53}, {0.66, 0.84}}; }

}  // namespace

MethodView::MethodView(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
    setAccessibleName(in_words("method-view.the-build-up"));
}

void MethodView::refresh() {
    needed_ = static_cast<int>(draw(nullptr));
    QString spoken;
    if (desk_.face_plan() != nullptr) {
        for (const Layer& l : desk_.face_plan()->method->layers) {
            spoken += shown(desk_.say(l.name)) + ": " + shown(desk_.say(l.detail)) + ". ";
        }
    }
    setAccessibleDescription(spoken);
    updateGeometry();
    update();
}

void MethodView::resizeEvent(QResizeEvent*) { refresh(); }

void MethodView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(rect(), Theme::tokens().sheet);
    draw(&p);
}

double MethodView::draw(QPainter* p) const {
    const Tokens& t = Theme::tokens();
    if (desk_.face_plan() == nullptr) return 300;
    const ColourPlan& colour = *desk_.face_plan();
    const BuildUp& b = *colour.method;
    if (p != nullptr) {
        paint_heading(*p, width(), in_words("method-view.the-build-up-from"),
                      in_words("method-view.a-cut-through-the"));
    }
    const double bar_wide = (width() - 2 * side) * 0.60;
    const double text_x = side + bar_wide + 20;
    const double text_wide = width() - side - text_x;
    double y = Theme::px(72);
    // From the top coat downwards; below each layer the joint with what it lies on.
    for (std::size_t n = b.layers.size(); n-- > 0;) {
        const Layer& layer = b.layers[n];
        const double high = layer.kind == LayerKind::Bare   ? Theme::px(74)
                            : layer.kind == LayerKind::Seal ? Theme::px(12)
                                                            : Theme::px(22 + 2 * std::min(layer.coats, 4));
        const QRectF bar(side, y, bar_wide, high);
        const double text_high = Theme::px(40);
        if (p != nullptr) {
            if (layer.kind == LayerKind::Bare) {
                wood(*p, bar);
                p->setPen(QPen(t.graphite, 1));
                p->setBrush(Qt::NoBrush);
                p->drawRect(bar);
            } else {
                QColor colour(QString::fromStdString(layer.colour));
                p->setPen(QPen(t.graphite, 1));
                p->setBrush(colour.isValid() ? colour : t.line);
                const bool film_mask = layer.lifted;
                if (layer.in_openings || film_mask) {
                    double from = 0;
                    std::vector<std::pair<double, double>> parts;
                    for (const auto& [a, c] : openings()) {
                        if (layer.in_openings) parts.emplace_back(a, c);
                        if (film_mask) parts.emplace_back(from, a);
                        from = c;
                    }
                    if (film_mask) parts.emplace_back(from, 1.0);
                    if (film_mask) p->setPen(QPen(t.pencil, 1, Qt::DashLine));
                    for (const auto& [a, c] : parts)
                        p->drawRect(
                            QRectF(bar.left() + a * bar.width(), bar.top(), (c - a) * bar.width(), bar.height()));
                } else {
                    p->drawRect(bar);
                }
            }
            p->setPen(t.graphite);
            p->setFont(Theme::font(15, QFont::DemiBold));
            const double text_y =
                layer.kind == LayerKind::Bare ? bar.top() + Theme::px(8) : bar.center().y() - Theme::px(20);
            p->drawText(QRectF(text_x, text_y, text_wide, Theme::px(20)), Qt::AlignLeft | Qt::AlignVCenter,
                        QFontMetrics(p->font()).elidedText(shown(desk_.say(layer.name)), Qt::ElideRight,
                                                           static_cast<int>(text_wide)));
            p->setFont(Theme::font(13));
            p->setPen(t.pencil);
            const QString detail =
                shown(desk_.say(layer.detail)) + (layer.lifted ? in_words("method-view.lifted-in-the-end") : QString());
            p->drawText(QRectF(text_x, text_y + Theme::px(19), text_wide, Theme::px(36)),
                        Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, detail);
        }
        y += std::max(high, layer.kind == LayerKind::Bare ? high : text_high * 0.55) + 6;
        if (!layer.joint) continue;
        // The joint: what troubles it, or that it is sound.
        bool any = false;
        for (const Finding& f : b.findings) {
            const bool here = f.joint == layer.joint || (layer.kind == LayerKind::Colour && f.joint == Joint::Lift);
            if (!here) continue;
            any = any || f.mark != Mark::None;
            const QColor colour = f.mark == Mark::Stop ? t.brick : f.mark == Mark::Look ? t.ochre : t.pencil;
            const QString words = shown(desk_.say(f.why));
            const QString remedy = shown(desk_.say(f.remedy));
            const QFont font = Theme::font(13, f.mark == Mark::None ? QFont::Normal : QFont::DemiBold);
            const double room = bar_wide - 44;
            const QRectF needed = QFontMetricsF(font).boundingRect(QRectF(0, 0, room, 1000), Qt::TextWordWrap, words);
            const QRectF more =
                QFontMetricsF(Theme::font(13)).boundingRect(QRectF(0, 0, room, 1000), Qt::TextWordWrap, remedy);
            const QRectF box(side, y, bar_wide, needed.height() + more.height() + 12);
            if (p != nullptr) {
                if (f.mark != Mark::None) {
                    QColor wash = colour;
                    wash.setAlphaF(0.09F);
                    p->setBrush(wash);
                    p->setPen(QPen(colour, 1.5));
                    p->drawRoundedRect(box.adjusted(0, 1, 0, -1), 3, 3);
                    paint_mark(*p, f.mark, QRectF(side + 10, y + 8, 16, 16));
                } else {
                    p->setPen(QPen(t.line, 1));
                    p->drawLine(QPointF(side, y + 12), QPointF(side + 26, y + 12));
                }
                p->setPen(colour);
                p->setFont(font);
                p->drawText(QRectF(side + 36, y + 6, room, needed.height()),
                            Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, words);
                p->setPen(t.graphite);
                p->setFont(Theme::font(13));
                p->drawText(QRectF(side + 36, y + 6 + needed.height(), room, more.height()),
                            Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, remedy);
            }
            y += box.height() + 4;
        }
        if (!any) {
            for (std::size_t i = 0; i < b.sound_joints.size(); ++i) {
                if (b.sound_joints[i] != layer.joint) continue;
                if (p != nullptr) {
                    p->setPen(QPen(t.line, 1));
                    p->drawLine(QPointF(side, y + Theme::px(11)), QPointF(side + bar_wide, y + Theme::px(11)));
                    p->setFont(Theme::font(13, QFont::Medium));
                    const QString words = shown(desk_.say(b.sound[i]));
                    const QRectF plate(side + 4, y, QFontMetrics(p->font()).horizontalAdvance(words) + 36,
                                       Theme::px(22));
                    p->fillRect(plate, t.sheet);
                    check_mark(*p, QPointF(side + 8, y + Theme::px(5)), t.moss);
                    p->setPen(t.moss);
                    p->drawText(plate.adjusted(30, 0, 0, 0), Qt::AlignLeft | Qt::AlignVCenter, words);
                }
                y += Theme::px(22) + 6;
                break;
            }
        }
    }
    y += 10;
    if (p != nullptr) {
        p->setPen(t.line);
        p->drawLine(QPointF(side, y), QPointF(width() - side, y));
    }
    const auto n = colour.cut.loads->sections.size();
    QString order = n == 0   ? QString()
                    : n == 1 ? in_words("method-view.order-one-section")
                             : in_words("method-view.order-lay-1-to", {{"sections", n}});
    if (n > 1 && colour.cut.making.way == Way::PaintThrough)
        order += in_words("method-view.one-pass-masks-lap", {{"sections", n}});
    const QRectF needed =
        QFontMetricsF(Theme::font(15)).boundingRect(QRectF(0, 0, width() - 2 * side, 1000), Qt::TextWordWrap, order);
    if (p != nullptr) {
        p->setPen(t.graphite);
        p->setFont(Theme::font(15));
        p->drawText(QRectF(side, y + 8, width() - 2 * side, needed.height()),
                    Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, order);
    }
    return y + needed.height() + 24;
}

}  // namespace skarvel
