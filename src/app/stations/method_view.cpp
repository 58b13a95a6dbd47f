#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "drawing/face_painter.h"
#include "drawing/materials.h"
#include "job/layer_commands.h"
#include "stations/views.h"
#include "theme/theme.h"
#include "theme/words.h"
#include "ticket/ticket.h"

namespace skarvel {
namespace {

constexpr double share_of_bar = 0.56;

void check_mark(QPainter& p, QPointF at, const QColor& colour) {
    QPainterPath path(at + QPointF(0, 6));
    path.lineTo(at + QPointF(5, 11));
    path.lineTo(at + QPointF(15, 0));
    p.setPen(QPen(colour, 2.4, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
    p.setBrush(Qt::NoBrush);
    p.drawPath(path);
}

// Where the ink lies in the cut: a made-up row of letters, the same for every layer.
std::vector<std::pair<double, double>> openings() { return {{0.13, 0.31}, {0.39, 0.53}, {0.66, 0.84}}; }

// What is done to a surface, and leaves nothing on it.
bool is_handling(ShownKind kind) {
    return kind == ShownKind::Wiped || kind == ShownKind::Sanded || kind == ShownKind::Distressed ||
           kind == ShownKind::Chalked || kind == ShownKind::Hardware || kind == ShownKind::Decorated ||
           kind == ShownKind::Tried;
}

double height_of(const ShownLayer& layer) {
    if (layer.kind == ShownKind::Bare) return Theme::px(66);
    if (is_handling(layer.kind) || layer.kind == ShownKind::Seal) return Theme::px(12);
    return Theme::px(18 + 3 * std::clamp(layer.coats, 1, 4));
}

std::vector<std::pair<double, double>> parts_of(const ShownLayer& layer) {
    std::vector<std::pair<double, double>> parts;
    double from = 0;
    for (const auto& [a, c] : openings()) {
        if (layer.in_openings) parts.emplace_back(a, c);
        if (layer.lifted) parts.emplace_back(from, a);
        from = c;
    }
    if (layer.lifted) parts.emplace_back(from, 1.0);
    if (parts.empty()) parts.emplace_back(0.0, 1.0);
    return parts;
}

// What a layer is made of, drawn as itself.
void paint_substance(QPainter& p, const ShownLayer& layer, const QRectF& bar, const std::string& material) {
    const Tokens& t = Theme::tokens();
    QColor colour(QString::fromStdString(layer.colour));
    if (!colour.isValid()) colour = t.line;
    if (is_handling(layer.kind)) {
        p.setPen(QPen(t.pencil, 1.2));
        const double step = layer.kind == ShownKind::Sanded || layer.kind == ShownKind::Distressed ? 7 : 14;
        for (double x = bar.left() + 2; x < bar.right() - 6; x += step) {
            if (layer.kind == ShownKind::Wiped || layer.kind == ShownKind::Chalked)
                p.drawArc(QRectF(x, bar.center().y() - 3, step - 3, 6), 0, 180 * 16);
            else if (layer.kind == ShownKind::Hardware || layer.kind == ShownKind::Decorated ||
                     layer.kind == ShownKind::Tried)
                p.drawEllipse(QPointF(x + 6, bar.center().y()), 2.5, 2.5);
            else
                p.drawLine(QPointF(x, bar.bottom() - 2), QPointF(x + 4, bar.top() + 2));
        }
        return;
    }
    if (layer.on == On::Edges || layer.on == On::Back) {
        // At the edges and the back: beside the cut, not in it.
        p.setPen(QPen(t.graphite, 1));
        p.setBrush(colour);
        const double wide = Theme::px(10);
        p.drawRect(QRectF(bar.left(), bar.top(), wide, bar.height()));
        p.drawRect(QRectF(bar.right() - wide, bar.top(), wide, bar.height()));
        if (layer.on == On::Back) p.drawRect(QRectF(bar.left(), bar.bottom() - 4, bar.width(), 4));
        return;
    }
    for (const auto& [a, c] : parts_of(layer)) {
        const QRectF part(bar.left() + a * bar.width(), bar.top(), (c - a) * bar.width(), bar.height());
        p.setPen(layer.lifted ? QPen(t.pencil, 1, Qt::DashLine) : QPen(t.graphite, 1));
        p.setBrush(colour);
        if (layer.kind == ShownKind::Stain || layer.kind == ShownKind::Glaze) {
            // Soaked in, or thin: the grain shows through.
            p.setBrush(Qt::NoBrush);
            paint_bare(p, part, material);
            colour.setAlphaF(layer.kind == ShownKind::Stain ? 0.62F : 0.4F);
            p.fillRect(part, colour);
            p.drawRect(part);
        } else if (layer.kind == ShownKind::DryBrush) {
            p.setBrush(Qt::NoBrush);
            p.setPen(QPen(colour, 1.6));
            for (int i = 0; i * 3 < static_cast<int>(part.height()) - 2; ++i) {
                for (double x = part.left() + (i * 41) % 30; x < part.right() - 30; x += 46 + (i * 17) % 30)
                    p.drawLine(QPointF(x, part.top() + 2 + i * 3), QPointF(x + 24, part.top() + 2 + i * 3));
            }
            p.setPen(QPen(t.line, 1));
            p.drawRect(part);
        } else if (layer.kind == ShownKind::Clear || layer.kind == ShownKind::ClearUnder) {
            colour.setAlphaF(0.45F);
            p.setBrush(colour);
            p.drawRect(part);
            p.setPen(QPen(t.sheet, 1.4));
            for (double x = part.left() + 16; x < part.right() - 14; x += 54)
                p.drawLine(QPointF(x, part.bottom() - 3), QPointF(x + 10, part.top() + 3));
        } else {
            p.drawRect(part);
        }
    }
}

}  // namespace

void take_remedy(Desk& desk, const Remedy& remedy) {
    const ColourPlan* plan = desk.face_plan();
    if (plan == nullptr) return;
    Job job = desk.job();
    Face& face = job.signs[desk.sign_at()].faces[desk.face_at()];
    mend(face, desk.colour_at(), *plan->method, remedy.finding, remedy.fix, desk.library().trade);
    desk.apply(std::move(job));
}

QString says(const Remedy& remedy) {
    const std::string key = std::string("fix.") + word_of(remedy.fix);
    const QString what = in_words(key.c_str());
    const QString timed = remedy.hands_on == Minutes(0) ? what
                          : remedy.hands_on > Minutes(0)
                              ? in_words("fix.costs", {{"what", what}, {"more", remedy.hands_on}})
                              : in_words("fix.saves", {{"what", what}, {"less", -remedy.hands_on}});
    if (remedy.cents.value_or(0) == 0) return timed;
    return *remedy.cents > 0 ? in_words("fix.costs-money", {{"what", timed}, {"cost", money(*remedy.cents)}})
                             : in_words("fix.saves-money", {{"what", timed}, {"cost", money(-*remedy.cents)}});
}

MethodView::MethodView(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
    setAccessibleName(in_words("method-view.the-build-up"));
    setObjectName("build-up");
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
}

void MethodView::refresh() {
    remedies_.clear();
    lowering_ = {};
    if (desk_.face_plan() != nullptr && desk_.current()) {
        remedies_ = remedies(desk_.job(), desk_.shop(), desk_.plan(), desk_.colour().id, desk_.library().trade);
        lowering_ = what_lowers(desk_.job(), desk_.shop(), desk_.plan(), desk_.colour().id, desk_.library().trade);
    }
    needed_ = static_cast<int>(draw(nullptr));
    QString spoken;
    if (desk_.face_plan() != nullptr) {
        for (const ShownLayer& l : desk_.face_plan()->method->layers) {
            spoken += shown(desk_.say(l.name)) + ": " + shown(desk_.say(l.detail)) + ". ";
        }
    }
    setAccessibleDescription(spoken);
    updateGeometry();
    update();
}

void MethodView::resizeEvent(QResizeEvent*) { refresh(); }
void MethodView::focusInEvent(QFocusEvent*) { update(); }
void MethodView::focusOutEvent(QFocusEvent*) { update(); }

void MethodView::mousePressEvent(QMouseEvent* event) {
    for (const Spot& spot : spots_) {
        if (!spot.where.contains(event->position())) continue;
        if (spot.remedy) {
            const Remedy remedy = *spot.remedy;
            return take_remedy(desk_, remedy);
        }
        if (!spot.overrules.empty()) {
            Job job = desk_.job();
            overrule(job.overruled, std::string(spot.overrules), {});
            return desk_.apply(std::move(job));
        }
        pressed_ = event->position();
        dragged_ = spot.layer;
        return desk_.select_layer(LayerId(spot.layer));
    }
}

const MethodView::Spot* MethodView::layer_at(QPointF where) const {
    const auto at = std::find_if(spots_.begin(), spots_.end(), [&](const Spot& s) {
        return !s.remedy && s.overrules.empty() && !s.layer.empty() && s.where.contains(where);
    });
    return at == spots_.end() ? nullptr : &*at;
}

// As far as its neighbours are passed it goes, in one step of undo.
void MethodView::mouseReleaseEvent(QMouseEvent* event) {
    const LayerId moved = std::exchange(dragged_, {});
    const bool dropped = drop_y_.has_value();
    drop_y_.reset();
    update();
    const Spot* on = layer_at(event->position());
    if (!dropped || moved.empty() || on == nullptr || on->layer == moved) return;
    const std::vector<Layer> layers = desk_.layers();
    const std::size_t from = place_of(layers, moved), to = place_of(layers, on->layer);
    if (from >= layers.size() || to >= layers.size()) return;
    Job job = desk_.job();
    Face& face = job.signs[desk_.sign_at()].faces[desk_.face_at()];
    for (std::size_t i = std::min(from, to); i < std::max(from, to); ++i)
        move_layer(face, moved, to > from, desk_.library().trade);
    desk_.apply(std::move(job));
    desk_.select_layer(moved);
}

void MethodView::mouseMoveEvent(QMouseEvent* event) {
    constexpr double far_enough = 10;
    if ((event->buttons() & Qt::LeftButton) != 0 && !dragged_.empty() &&
        (drop_y_ || std::abs(event->position().y() - pressed_.y()) > far_enough)) {
        const Spot* on = layer_at(event->position());
        if (on != nullptr) drop_y_ = event->position().y() < pressed_.y() ? on->where.top() : on->where.bottom();
        setCursor(Qt::ClosedHandCursor);
        return update();
    }
    const bool any =
        std::any_of(spots_.begin(), spots_.end(), [&](const Spot& s) { return s.where.contains(event->position()); });
    setCursor(any ? Qt::PointingHandCursor : Qt::ArrowCursor);
}

void MethodView::keyPressEvent(QKeyEvent* event) {
    const bool up = event->key() == Qt::Key_Up;
    const LayerId now = desk_.layer_at();
    const Trade& trade = desk_.library().trade;
    const auto change = [&](const std::function<void(Face&)>& how) {
        Job job = desk_.job();
        how(job.signs[desk_.sign_at()].faces[desk_.face_at()]);
        desk_.apply(std::move(job));
    };
    if ((up || event->key() == Qt::Key_Down) && (event->modifiers() & Qt::AltModifier) != 0)
        return change([&](Face& f) { move_layer(f, now, up, trade); });
    if (up || event->key() == Qt::Key_Down) {
        const std::vector<Layer> layers = desk_.layers();
        const std::size_t at = place_of(layers, now);
        if (up ? at + 1 < layers.size() : at > 0) desk_.select_layer(layers[up ? at + 1 : at - 1].id);
        return;
    }
    if (event->key() == Qt::Key_Delete) return change([&](Face& f) { take_out(f, now, trade); });
    QWidget::keyPressEvent(event);
}

void MethodView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(rect(), Theme::tokens().sheet);
    draw(&p);
    if (drop_y_) {
        p.setPen(QPen(Theme::tokens().chalk, 4, Qt::SolidLine, Qt::RoundCap));
        p.drawLine(QPointF(view_side - 12, *drop_y_), QPointF(width() - view_side, *drop_y_));
    }
}

// A layer with its name beside it; returns where the next thing begins.
double MethodView::layer(QPainter* p, const ShownLayer& layer, double y) {
    const Tokens& t = Theme::tokens();
    const double bar_wide = (width() - 2 * view_side) * share_of_bar;
    const double text_x = view_side + bar_wide + 20;
    const double text_wide = width() - view_side - text_x;
    const double high = height_of(layer);
    const QString name = shown(desk_.say(layer.name));
    const QString detail =
        shown(desk_.say(layer.detail)) + (layer.lifted ? in_words("method-view.lifted-in-the-end") : QString());
    const bool thin = is_handling(layer.kind) || layer.kind == ShownKind::Seal;
    const double row = std::max<double>(high, Theme::px(thin ? 22 : 40));
    const QRectF bar(view_side, y + (row - high) / 2, bar_wide, high);
    const QRectF whole(view_side - 12, y - 2, width() - 2 * view_side + 24, row + 4);
    if (!layer.of.empty()) spots_.push_back({whole, layer.of, std::nullopt, name, {}});
    if (p == nullptr) return y + row + 4;
    const bool at_hand = !layer.of.empty() && layer.of == desk_.layer_at();
    if (at_hand) {
        // A strip of chalk down the side marks it.
        QColor wash = t.chalk;
        wash.setAlphaF(hasFocus() ? 0.14F : 0.08F);
        p->fillRect(whole, wash);
        p->setPen(QPen(t.chalk, 4, Qt::SolidLine, Qt::RoundCap));
        p->drawLine(QPointF(view_side - 12, y), QPointF(view_side - 12, y + row));
    }
    if (layer.kind == ShownKind::Bare) {
        const Blank& blank = desk_.sign().blank;
        paint_bare(*p, bar, blank.kind == Kind::Canvas ? "canvas" : blank.material);
        p->setPen(QPen(t.graphite, 1));
        p->setBrush(Qt::NoBrush);
        p->drawRect(bar);
    } else {
        paint_substance(*p, layer, bar, desk_.sign().blank.material);
    }
    p->setPen(t.graphite);
    p->setFont(Theme::font(thin ? 13 : 15, QFont::DemiBold));
    const QFontMetrics bold(p->font());
    const double centre = y + row / 2;
    if (thin) {
        // One line: what it is, and how.
        const double name_wide = std::min<double>(text_wide, bold.horizontalAdvance(name) + 10);
        p->drawText(QRectF(text_x, centre - Theme::px(11), name_wide, Theme::px(22)), Qt::AlignLeft | Qt::AlignVCenter,
                    bold.elidedText(name, Qt::ElideRight, static_cast<int>(name_wide)));
        p->setFont(Theme::font(13));
        p->setPen(t.pencil);
        const double left = text_wide - name_wide;
        p->drawText(QRectF(text_x + name_wide, centre - Theme::px(11), left, Theme::px(22)),
                    Qt::AlignLeft | Qt::AlignVCenter,
                    QFontMetrics(p->font()).elidedText(detail, Qt::ElideRight, static_cast<int>(left)));
        return y + row + 4;
    }
    p->drawText(QRectF(text_x, centre - Theme::px(20), text_wide, Theme::px(20)), Qt::AlignLeft | Qt::AlignVCenter,
                bold.elidedText(name, Qt::ElideRight, static_cast<int>(text_wide)));
    p->setFont(Theme::font(13));
    p->setPen(t.pencil);
    p->drawText(QRectF(text_x, centre, text_wide, Theme::px(20)), Qt::AlignLeft | Qt::AlignVCenter,
                QFontMetrics(p->font()).elidedText(detail, Qt::ElideRight, static_cast<int>(text_wide)));
    return y + row + 4;
}

// Remedies side by side, as far as there is room; returns where the next thing begins.
double MethodView::offers(QPainter* p, const std::vector<const Remedy*>& offered, double x, double y) {
    const Tokens& t = Theme::tokens();
    const QFont pressed = Theme::font(13, QFont::DemiBold);
    for (const Remedy* r : offered) {
        const QString words = says(*r);
        const QRectF where(x, y, QFontMetricsF(pressed).horizontalAdvance(words) + 24, Theme::px(26));
        if (where.right() > width() - view_side) break;
        spots_.insert(spots_.begin(), {where, {}, *r, words, {}});
        if (p != nullptr) {
            p->setPen(QPen(t.chalk, 1.4));
            p->setBrush(t.sheet);
            p->drawRoundedRect(where, 3, 3);
            p->setPen(t.chalk);
            p->setFont(pressed);
            p->drawText(where, Qt::AlignCenter, words);
        }
        x = where.right() + 8;
    }
    return y + (offered.empty() ? 0 : Theme::px(26) + 6);
}

// How likely paint bleeds and a coat lifts: a band on a scale, what weighs most, and what would lower it most.
double MethodView::risks(QPainter* p, double y) {
    const Tokens& t = Theme::tokens();
    const ColourPlan& colour = *desk_.face_plan();
    constexpr double most = 0.6;  // where the scale ends
    const double label_wide = Theme::px(104);
    const double scale_wide = Theme::px(170);
    const double words_x = view_side + label_wide + scale_wide + 18;
    const double words_wide = width() - view_side - words_x;
    const auto row = [&](const Risk& risk, const char* name, const std::vector<Remedy>& lower) {
        const QColor tone = risk.level == RiskLevel::High ? t.brick : risk.level == RiskLevel::Fair ? t.ochre : t.moss;
        const std::string level = std::string("risk-level.") + word_of(risk.level);
        QStringList why;
        for (const RiskFactor& f : risk.most) {
            if (f.weight > 0 && why.size() < 3) why << in_words(("risk." + f.id).c_str());
        }
        const QString band =
            in_words("method-view.risk-band", {{"level", in_words(level.c_str())},
                                               {"from", static_cast<int>(std::lround(risk.from * 100))},
                                               {"to", static_cast<int>(std::lround(risk.to * 100))}});
        const QString because = why.isEmpty() ? QString() : in_words("method-view.risk-why", {{"why", why.join(", ")}});
        const double because_high = because.isEmpty()
                                        ? 0
                                        : QFontMetricsF(Theme::font(13))
                                              .boundingRect(QRectF(0, 0, words_wide, 1000), Qt::TextWordWrap, because)
                                              .height();
        if (p != nullptr) {
            p->setFont(Theme::font(15, QFont::DemiBold));
            p->setPen(t.graphite);
            p->drawText(QRectF(view_side, y, label_wide, Theme::px(22)), Qt::AlignLeft | Qt::AlignVCenter,
                        in_words(name));
            const double line_y = y + Theme::px(12);
            const double x = view_side + label_wide;
            p->setPen(QPen(t.pencil, 1));
            p->drawLine(QPointF(x, line_y), QPointF(x + scale_wide, line_y));
            for (int tick = 0; tick <= 6; ++tick) {
                const double at = x + scale_wide * tick / 6;
                p->drawLine(QPointF(at, line_y - (tick % 3 == 0 ? 6 : 3)), QPointF(at, line_y));
                if (tick % 3 != 0) continue;
                p->setFont(Theme::font(11));
                p->drawText(QRectF(at - 20, line_y + 9, 40, Theme::px(14)), Qt::AlignHCenter | Qt::AlignTop,
                            QString::number(tick * 10));
            }
            const auto at = [&](double value) { return x + scale_wide * std::min(value, most) / most; };
            QColor wash = tone;
            wash.setAlphaF(0.35F);
            p->fillRect(QRectF(at(risk.from), line_y - 5, std::max(4.0, at(risk.to) - at(risk.from)), 10), wash);
            p->setPen(QPen(tone, 3));
            p->drawLine(QPointF(at(risk.likely), line_y - 8), QPointF(at(risk.likely), line_y + 8));
            p->setPen(tone);
            p->setFont(Theme::font(14, QFont::DemiBold));
            p->drawText(QRectF(words_x, y, words_wide, Theme::px(22)), Qt::AlignLeft | Qt::AlignVCenter, band);
            p->setFont(Theme::font(13));
            p->setPen(t.pencil);
            p->drawText(QRectF(words_x, y + Theme::px(22), words_wide, because_high),
                        Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, because);
        }
        y += std::max<double>(Theme::px(24) + because_high, Theme::px(38)) + 4;
        std::vector<const Remedy*> offered;
        for (const Remedy& r : lower) {
            if (offered.size() < 2) offered.push_back(&r);
        }
        y = offers(p, offered, words_x, y) + 4;
    };
    if (p != nullptr) {
        p->setPen(t.line);
        p->drawLine(QPointF(view_side, y), QPointF(width() - view_side, y));
    }
    y += 12;
    if (colour.cut.making.way == Way::PaintThrough) row(colour.risks.bleed, "method-view.may-bleed", lowering_.bleed);
    row(colour.risks.lift, "method-view.may-lift", lowering_.lift);
    return y;
}

// What a rule found at a joint, and what can be done about it.
double MethodView::finding(QPainter* p, const Finding& f, double y) {
    const Tokens& t = Theme::tokens();
    const double wide = width() - 2 * view_side;
    const QColor colour = f.mark == Mark::Stop ? t.brick : f.mark == Mark::Look ? t.ochre : t.pencil;
    const QString why = shown(desk_.say(f.why));
    const QString remedy =
        f.overruled
            ? in_words("method-view.overruled",
                       {{"note", f.overruled->empty() ? in_words("method-view.without-a-note") : shown(*f.overruled)}})
            : shown(desk_.say(f.remedy));
    const QFont plain = Theme::font(13);
    std::vector<const Remedy*> offered;
    for (const Remedy& r : remedies_) {
        if (r.finding == f) offered.push_back(&r);
    }
    // What is only worth knowing takes one line.
    const bool note = f.mark == Mark::None;
    const QFont font = Theme::font(13, note ? QFont::Normal : QFont::DemiBold);
    const double room = wide - 44;
    const auto high = [&](const QFont& of, const QString& words) {
        return QFontMetricsF(of).boundingRect(QRectF(0, 0, room, 1000), Qt::TextWordWrap, words).height();
    };
    const QString line = note ? in_words("method-view.note", {{"why", why}, {"remedy", remedy}}) : why;
    const double line_high = high(font, line);
    const double remedy_high = note ? 0 : high(plain, remedy);
    const double button_high = offered.empty() ? 0 : Theme::px(28) + 6;
    const QRectF box(view_side, y, wide, line_high + remedy_high + button_high + 12);
    if (p != nullptr) {
        if (!note) {
            QColor wash = colour;
            wash.setAlphaF(0.09F);
            p->setBrush(wash);
            p->setPen(QPen(colour, 1.5));
            p->drawRoundedRect(box.adjusted(0, 1, 0, -1), 3, 3);
            paint_mark(*p, f.mark, QRectF(view_side + 10, y + 8, 16, 16));
        } else {
            p->setPen(QPen(t.line, 1));
            p->drawLine(QPointF(view_side, y + 14), QPointF(view_side + 26, y + 14));
        }
        p->setPen(colour);
        p->setFont(font);
        p->drawText(QRectF(view_side + 36, y + 6, room, line_high), Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap,
                    line);
        p->setPen(t.graphite);
        p->setFont(plain);
        if (!note)
            p->drawText(QRectF(view_side + 36, y + 6 + line_high, room, remedy_high),
                        Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, remedy);
    }
    offers(p, offered, view_side + 36, y + 6 + line_high + remedy_high + 4);
    if (!note) {
        // The maker's last word, where there is room beside what was found.
        const QString words = in_words("method-view.does-not-hold");
        const double words_wide = QFontMetricsF(plain).horizontalAdvance(words) + 4;
        const QRectF where(view_side + wide - words_wide - 10, y + 5, words_wide, Theme::px(20));
        const double said = QFontMetricsF(font).horizontalAdvance(line);
        if (view_side + 36 + said + 24 < where.left()) {
            spots_.insert(spots_.begin(), {where, {}, std::nullopt, words, f.rule});
            if (p != nullptr) {
                QFont quiet = plain;
                quiet.setUnderline(true);
                p->setFont(quiet);
                p->setPen(t.pencil);
                p->drawText(where, Qt::AlignRight | Qt::AlignVCenter, words);
            }
        }
    }
    return y + box.height() + 4;
}

void MethodView::order(QPainter* p, double y, double& bottom) {
    const Tokens& t = Theme::tokens();
    const ColourPlan& colour = *desk_.face_plan();
    if (p != nullptr) {
        p->setPen(t.line);
        p->drawLine(QPointF(view_side, y), QPointF(width() - view_side, y));
    }
    const auto n = colour.cut.loads->sections.size();
    QString order = n == 0   ? QString()
                    : n == 1 ? in_words("method-view.order-one-section")
                             : in_words("method-view.order-lay-1-to", {{"sections", n}});
    if (n > 1 && colour.cut.making.way == Way::PaintThrough)
        order += in_words("method-view.one-pass-masks-lap", {{"sections", n}});
    const QRectF needed = QFontMetricsF(Theme::font(15))
                              .boundingRect(QRectF(0, 0, width() - 2 * view_side, 1000), Qt::TextWordWrap, order);
    if (p != nullptr) {
        p->setPen(t.graphite);
        p->setFont(Theme::font(15));
        p->drawText(QRectF(view_side, y + 8, width() - 2 * view_side, needed.height()),
                    Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, order);
    }
    bottom = y + needed.height() + 24;
}

double MethodView::draw(QPainter* p) {
    const Tokens& t = Theme::tokens();
    spots_.clear();
    if (desk_.face_plan() == nullptr) return 300;
    const BuildUp& b = *desk_.face_plan()->method;
    if (p != nullptr) {
        paint_heading(*p, width(), in_words("method-view.the-build-up-from"),
                      in_words("method-view.a-cut-through-the"));
    }
    // How it will look in the end, where the heading leaves room for it.
    const BlankPlan& blank = *desk_.face_plan()->face->blank;
    if (p != nullptr && width() > Theme::px(700) && !blank.face.empty()) {
        const double wide = std::min<double>(Theme::px(190), width() * 0.24);
        const QRectF picture(width() - view_side - wide, 8, wide, Theme::px(56));
        const FaceView view = FaceView::within(picture, blank.face, blank.built.whole);
        p->save();
        p->setClipRect(picture.adjusted(-6, -6, 6, 6));
        const FacePainter painter(desk_.sign(), desk_.face(), *desk_.face_plan(), view, &desk_.plan());
        painter.board(*p, false);
        painter.all_ink(*p);
        p->restore();
    }
    double y = Theme::px(72);
    // From the top coat downwards; below each layer the joint with what it lies on.
    for (std::size_t n = b.layers.size(); n-- > 0;) {
        const ShownLayer& shown_layer = b.layers[n];
        y = layer(p, shown_layer, y);
        bool any = false;
        for (std::size_t f = 0; f < b.findings.size(); ++f) {
            if (b.findings[f].at != n) continue;
            any = any || b.findings[f].mark != Mark::None;
            y = finding(p, b.findings[f], y);
        }
        if (any || !shown_layer.sound) continue;
        if (p != nullptr) {
            const double bar_wide = (width() - 2 * view_side) * share_of_bar;
            p->setPen(QPen(t.line, 1));
            p->drawLine(QPointF(view_side, y + Theme::px(9)), QPointF(view_side + bar_wide, y + Theme::px(9)));
            p->setFont(Theme::font(13, QFont::Medium));
            const QString words = shown(desk_.say(*shown_layer.sound));
            const QRectF plate(view_side + 4, y, QFontMetrics(p->font()).horizontalAdvance(words) + 36, Theme::px(18));
            p->fillRect(plate, t.sheet);
            check_mark(*p, QPointF(view_side + 8, y + Theme::px(3)), t.moss);
            p->setPen(t.moss);
            p->drawText(plate.adjusted(30, 0, 0, 0), Qt::AlignLeft | Qt::AlignVCenter, words);
        }
        y += Theme::px(18) + 4;
    }
    double bottom = risks(p, y + 10);
    order(p, bottom, bottom);
    return bottom;
}

}  // namespace skarvel
