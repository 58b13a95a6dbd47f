#include "theme/style.h"

#include <QAbstractItemView>
#include <QAbstractScrollArea>
#include <QButtonGroup>
#include <QComboBox>
#include <QPainter>
#include <QPainterPath>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QStyleFactory>
#include <QStyleOption>
#include <QTime>
#include <algorithm>

#include "theme/roles.h"
#include "theme/theme.h"

namespace skarvel {
namespace {

// Pixels; what grows with the type goes by Theme::px.
constexpr double corner = 3;
constexpr int bar_wide = 10;  // of a scroll bar
constexpr int least_handle = 32;
constexpr int beside_icon = 4;
constexpr int menu_edge = 4, menu_left = 12, menu_right = 24, menu_high = 6, beside_tick = 8;

int icon_side() { return Theme::px(16); }

bool has(const QStyleOption* option, QStyle::StateFlag flag) { return option->state.testFlag(flag); }

void draw_box(QPainter* painter, const QRect& where, const QColor& fill, const QColor& edge, int wide = 1,
              double round = corner) {
    painter->save();
    painter->setRenderHint(QPainter::Antialiasing, round > 0);
    painter->setPen(Qt::NoPen);
    painter->setBrush(edge.isValid() ? edge : fill);
    // The edge as a ring, so that both sides of it are sharp.
    if (edge.isValid()) {
        QPainterPath ring;
        ring.addRoundedRect(where, round, round);
        QPainterPath hole;
        const double inner = std::max(0.0, round - wide);
        hole.addRoundedRect(where.adjusted(wide, wide, -wide, -wide), inner, inner);
        painter->drawPath(ring - hole);
        if (fill.isValid()) {
            painter->setBrush(fill);
            painter->drawPath(hole);
        }
    } else if (fill.isValid()) {
        painter->drawRoundedRect(where, round, round);
    }
    painter->restore();
}

// ---- buttons

struct Padding {
    int side, above, least;  // beside and above the words; the least height of what is between
};

Padding padding_of(Role role) {
    switch (role) {
        case Role::Main:
            return {12, 4, 34};
        case Role::Text:
            return {6, 2, 24};
        case Role::Group:
            return {4, 3, 24};
        case Role::Bar:
        case Role::Job:
            return {8, 3, 24};
        case Role::Segment:
            return {6, 3, 24};
        default:
            return {12, 4, 24};
    }
}

struct Painted {
    QColor fill, edge, words;
    int wide = 1;
};

Painted look_of(Role role, const QStyleOption* option) {
    const Tokens& t = Theme::tokens();
    const bool usable = has(option, QStyle::State_Enabled);
    const bool pressed = usable && has(option, QStyle::State_Sunken);
    const bool pointed = usable && has(option, QStyle::State_MouseOver);
    Painted look;
    switch (role) {
        case Role::Done:
        case Role::Alarm:
            return {role == Role::Alarm ? t.brick : t.moss, {}, t.sheet, 0};
        case Role::Main:
            look = usable ? Painted{t.chalk, t.chalk, t.sheet} : Painted{t.paper, t.line, t.pencil};
            if (pressed) look.fill = t.graphite;
            break;
        case Role::Text:
            look = {{}, {}, usable ? t.chalk : t.pencil};
            if (pressed) look.fill = t.line;
            break;
        case Role::Group:
        case Role::Bar:
        case Role::Job:
            look = {{}, {}, usable ? t.graphite : t.pencil};
            if (pointed) look.edge = t.pencil;
            if (pressed) look.fill = t.line;
            break;
        default:
            look = {t.sheet, usable ? t.pencil : t.line, usable ? t.graphite : t.pencil};
            if (pointed && role != Role::Segment) look.edge = t.graphite;
            if (pressed) look.fill = t.line;
            break;
    }
    if (has(option, QStyle::State_On) && role != Role::Group)
        look = {usable ? t.graphite : t.pencil, usable ? t.graphite : t.pencil, t.sheet};
    if (has(option, QStyle::State_HasFocus)) {
        look.edge = role == Role::Main ? t.graphite : t.chalk;
        look.wide = 2;
    }
    return look;
}

void draw_button(const QStyleOptionButton& option, QPainter* painter, const QWidget* widget) {
    const Role role = role_of(widget);
    const Painted look = look_of(role, &option);
    QRect where = option.rect;
    if (role == Role::Segment) {
        // Neighbours share the line between them.
        const auto* button = qobject_cast<const QAbstractButton*>(widget);
        const QButtonGroup* group = button == nullptr ? nullptr : button->group();
        if (group != nullptr && group->buttons().constFirst() != button && look.wide == 1) where.adjust(-1, 0, 0, 0);
        draw_box(painter, where, look.fill, look.edge, look.wide, 0);
        return;
    }
    draw_box(painter, where, look.fill, look.edge, look.wide, role == Role::Done || role == Role::Alarm ? 0 : corner);
}

// The icon in the colour of the words, whatever it was drawn in.
QPixmap icon_of(const QStyleOptionButton& option, const QColor& colour, const QPainter* painter) {
    QPixmap made = option.icon.pixmap(option.iconSize, painter->device()->devicePixelRatio(), QIcon::Normal,
                                      has(&option, QStyle::State_On) ? QIcon::On : QIcon::Off);
    QPainter tint(&made);
    tint.setCompositionMode(QPainter::CompositionMode_SourceIn);
    tint.fillRect(made.rect(), colour);
    return made;
}

void draw_button_words(const QStyleOptionButton& option, QPainter* painter, const QWidget* widget,
                       const QStyle* style) {
    const Role role = role_of(widget);
    const QColor colour = look_of(role, &option).words;
    painter->save();
    QFont font = painter->font();
    if (role == Role::Segment && has(&option, QStyle::State_On)) font.setWeight(QFont::DemiBold);
    if (role == Role::Text && has(&option, QStyle::State_MouseOver) && has(&option, QStyle::State_Enabled))
        font.setUnderline(true);
    painter->setFont(font);
    painter->setPen(colour);
    const int flags = Qt::TextShowMnemonic | (style->styleHint(QStyle::SH_UnderlineShortcut, &option, widget) != 0
                                                  ? 0
                                                  : static_cast<int>(Qt::TextHideMnemonic));
    QRect room = option.rect;
    const int words = option.text.isEmpty() ? 0 : QFontMetrics(font).size(Qt::TextShowMnemonic, option.text).width();
    if (!option.icon.isNull()) {
        const QPixmap icon = icon_of(option, colour, painter);
        const QSize side = icon.deviceIndependentSize().toSize();
        const int both = side.width() + (words > 0 ? beside_icon + words : 0);
        const bool centred = role != Role::Group;
        QRect run(0, room.top(), std::min(both, room.width()), room.height());
        run.moveLeft(centred ? room.left() + (room.width() - run.width()) / 2 : room.left());
        const QRect first(run.left(), room.top() + (room.height() - side.height()) / 2, side.width(), side.height());
        painter->drawPixmap(QStyle::visualRect(option.direction, run, first), icon);
        run.adjust(side.width() + beside_icon, 0, 0, 0);
        QRect whole = run;
        whole.adjust(-side.width() - beside_icon, 0, 0, 0);
        room = QStyle::visualRect(option.direction, whole, run);
        painter->drawText(room, flags | Qt::AlignLeft | Qt::AlignVCenter, option.text);
    } else {
        const Qt::Alignment side = role == Role::Group ? Qt::AlignLeft : Qt::AlignHCenter;
        painter->drawText(room, flags | static_cast<int>(side | Qt::AlignVCenter), option.text);
    }
    painter->restore();
}

// ---- fields

void draw_field(const QStyleOption* option, QPainter* painter, const QWidget* widget) {
    const Tokens& t = Theme::tokens();
    const bool wrong = is_wrong(widget);
    const bool focus = has(option, QStyle::State_HasFocus);
    draw_box(painter, option->rect, has(option, QStyle::State_Enabled) ? t.sheet : t.paper,
             wrong   ? t.brick
             : focus ? t.chalk
                     : t.pencil,
             wrong || focus ? 2 : 1);
}

QRect inside_field(const QRect& rect, const QWidget* widget) {
    return role_of(widget) == Role::Callout ? rect.adjusted(5, 1, -5, -1) : rect.adjusted(9, 4, -9, -4);
}

QSize around_field(const QSize& contents, const QWidget* widget) {
    if (role_of(widget) == Role::Callout) return contents + QSize(10, 2);
    return {contents.width() + 18, std::max(contents.height(), Theme::px(24)) + 8};
}

int chevron_room() { return icon_side() + 8; }

void draw_tick(QPainter* painter, const QRect& where, const QColor& colour) {
    Theme::icon("check", colour).paint(painter, where);
}

// ---- menus

int tick_room(const QStyleOptionMenuItem& item) { return item.menuHasCheckableItems ? icon_side() + beside_tick : 0; }
int icon_room(const QStyleOptionMenuItem& item) { return item.maxIconWidth > 0 ? icon_side() + beside_tick : 0; }

void draw_menu_item(const QStyleOptionMenuItem& item, QPainter* painter) {
    const Tokens& t = Theme::tokens();
    painter->fillRect(item.rect, t.sheet);
    if (item.menuItemType == QStyleOptionMenuItem::Separator) {
        painter->fillRect(QRect(item.rect.left() + 8, item.rect.center().y(), item.rect.width() - 16, 1), t.line);
        return;
    }
    const bool usable = has(&item, QStyle::State_Enabled);
    const bool chosen = usable && has(&item, QStyle::State_Selected);
    if (chosen) draw_box(painter, item.rect, t.chalk, {});
    const QColor colour = chosen ? t.sheet : usable ? t.graphite : t.pencil;
    const auto place = [&](QRect r) { return QStyle::visualRect(item.direction, item.rect, r); };
    QRect row = item.rect.adjusted(menu_left, 0, -menu_left, 0);
    const auto square = [&] {
        return place(QRect(row.left(), row.top() + (row.height() - icon_side()) / 2, icon_side(), icon_side()));
    };
    if (item.menuHasCheckableItems) {
        if (item.checkType != QStyleOptionMenuItem::NotCheckable && item.checked) draw_tick(painter, square(), colour);
        row.adjust(tick_room(item), 0, 0, 0);
    }
    if (icon_room(item) > 0) {
        if (!item.icon.isNull())
            item.icon.paint(painter, square(), Qt::AlignCenter, usable ? QIcon::Normal : QIcon::Disabled);
        row.adjust(icon_room(item), 0, 0, 0);
    }
    painter->save();
    painter->setFont(item.font);
    painter->setPen(colour);
    const QStringList parts = item.text.split('\t');
    constexpr int flags = Qt::AlignVCenter | Qt::TextShowMnemonic | Qt::TextSingleLine;
    painter->drawText(place(row), flags | static_cast<int>(QStyle::visualAlignment(item.direction, Qt::AlignLeft)),
                      parts.constFirst());
    if (parts.size() > 1) {
        if (!chosen) painter->setPen(t.pencil);
        painter->drawText(place(row), flags | static_cast<int>(QStyle::visualAlignment(item.direction, Qt::AlignRight)),
                          parts.at(1));
    }
    painter->restore();
}

// ---- bars

void draw_scroll_bar(const QStyleOptionSlider& bar, QPainter* painter, const QStyle* style, const QWidget* widget) {
    const QRect handle = style->subControlRect(QStyle::CC_ScrollBar, &bar, QStyle::SC_ScrollBarSlider, widget);
    const bool upright = bar.orientation == Qt::Vertical;
    draw_box(painter, upright ? handle.adjusted(3, 2, -3, -2) : handle.adjusted(2, 3, -2, -3), Theme::tokens().pencil,
             {}, 0, 2);
}

QRect scroll_bar_part(const QStyleOptionSlider& bar, QStyle::SubControl part) {
    const bool upright = bar.orientation == Qt::Vertical;
    const int whole = upright ? bar.rect.height() : bar.rect.width();
    const int range = bar.maximum - bar.minimum;
    int handle = whole;
    if (range > 0) {
        const auto share =
            static_cast<qint64>(bar.pageStep) * whole / std::max<qint64>(1, qint64{range} + bar.pageStep);
        handle = std::clamp(static_cast<int>(share), std::min(least_handle, whole), whole);
    }
    const int from =
        QStyle::sliderPositionFromValue(bar.minimum, bar.maximum, bar.sliderPosition, whole - handle, bar.upsideDown);
    const auto stretch = [&](int begin, int end) {
        const QRect made = upright ? QRect(bar.rect.left(), bar.rect.top() + begin, bar.rect.width(), end - begin)
                                   : QRect(bar.rect.left() + begin, bar.rect.top(), end - begin, bar.rect.height());
        return QStyle::visualRect(bar.direction, bar.rect, made);
    };
    switch (part) {
        case QStyle::SC_ScrollBarGroove:
            return bar.rect;
        case QStyle::SC_ScrollBarSlider:
            return stretch(from, from + handle);
        case QStyle::SC_ScrollBarSubPage:
            return stretch(0, from);
        case QStyle::SC_ScrollBarAddPage:
            return stretch(from + handle, whole);
        default:
            return {};
    }
}

void draw_slider(const QStyleOptionSlider& slider, QPainter* painter, const QStyle* style, const QWidget* widget) {
    const Tokens& t = Theme::tokens();
    const QRect handle = style->subControlRect(QStyle::CC_Slider, &slider, QStyle::SC_SliderHandle, widget);
    const bool upright = slider.orientation == Qt::Vertical;
    QRect groove = slider.rect;
    if (upright)
        groove = QRect(slider.rect.center().x() - 1, slider.rect.top(), 3, slider.rect.height());
    else
        groove = QRect(slider.rect.left(), slider.rect.center().y() - 1, slider.rect.width(), 3);
    // As far as the knob has come it is drawn in ink.
    const bool enabled = has(&slider, QStyle::State_Enabled);
    draw_box(painter, groove, enabled ? t.pencil : t.line, {}, 0, 1);
    if (QRect done = groove; enabled && !upright) {
        if (slider.upsideDown)
            done.setLeft(handle.center().x());
        else
            done.setRight(handle.center().x());
        draw_box(painter, done, t.chalk, {}, 0, 1);
    }
    const int side = std::min(handle.width(), handle.height());
    QRect knob(0, 0, side, side);
    knob.moveCenter(handle.center());
    const bool focus = has(&slider, QStyle::State_HasFocus);
    draw_box(painter, knob, t.sheet, focus ? t.chalk : t.pencil, focus ? 2 : 1);
}

// ---- grounds

void draw_ground(const QStyleOption* option, QPainter* painter, const QWidget* widget) {
    const Tokens& t = Theme::tokens();
    const QRect& r = option->rect;
    switch (role_of(widget)) {
        case Role::Sheet:
            painter->fillRect(r, t.sheet);
            break;
        case Role::Line:
            painter->fillRect(r, t.line);
            break;
        case Role::TopBar:
            painter->fillRect(r, t.paper);
            painter->fillRect(QRect(r.left(), r.bottom(), r.width(), 1), t.line);
            break;
        case Role::Edge:
            painter->fillRect(r, t.paper);
            painter->fillRect(QRect(r.left(), r.top(), 1, r.height()), t.line);
            break;
        case Role::Notice:
            draw_box(painter, r, t.sheet, t.pencil);
            break;
        case Role::Card:
            draw_box(painter, r, t.paper, t.line);
            break;
        default:
            break;
    }
}

}  // namespace

Style::Style() : QProxyStyle(QStyleFactory::create("Fusion")) {}

void Style::polish(QWidget* widget) {
    QProxyStyle::polish(widget);
    // What is scrolled brings its own ground.
    if (auto* area = qobject_cast<QScrollArea*>(widget)) {
        area->setFrameShape(QFrame::NoFrame);
        area->viewport()->setAutoFillBackground(false);
    }
}

void Style::drawPrimitive(PrimitiveElement element, const QStyleOption* option, QPainter* painter,
                          const QWidget* widget) const {
    const Tokens& t = Theme::tokens();
    switch (element) {
        case PE_Widget:
            return draw_ground(option, painter, widget);
        case PE_PanelLineEdit: {
            const auto* frame = qstyleoption_cast<const QStyleOptionFrame*>(option);
            if (frame != nullptr && frame->lineWidth <= 0)
                painter->fillRect(option->rect, has(option, State_Enabled) ? t.sheet : t.paper);
            else
                draw_field(option, painter, widget);
            return;
        }
        case PE_FrameLineEdit:
            return;
        case PE_Frame:
            if (qobject_cast<const QPlainTextEdit*>(widget) != nullptr) return draw_field(option, painter, widget);
            return draw_box(painter, option->rect, {}, t.pencil);
        case PE_IndicatorCheckBox: {
            const bool on = has(option, State_On);
            const bool usable = has(option, State_Enabled);
            const bool focus = has(option, State_HasFocus);
            const QColor ink = usable ? t.chalk : t.pencil;
            draw_box(painter, option->rect, on ? ink : t.sheet,
                     focus && on   ? t.graphite
                     : focus || on ? ink
                                   : t.pencil,
                     focus ? 2 : 1);
            if (on) draw_tick(painter, option->rect.adjusted(1, 1, -1, -1), t.sheet);
            return;
        }
        case PE_PanelMenu:
            painter->fillRect(option->rect, t.sheet);
            return;
        case PE_FrameMenu:
            return draw_box(painter, option->rect, {}, t.pencil, 1, 0);
        case PE_PanelTipLabel:
            return draw_box(painter, option->rect, t.sheet, t.pencil, 1, 0);
        case PE_FrameFocusRect:
            // Drawn with what has the focus.
            return;
        default:
            QProxyStyle::drawPrimitive(element, option, painter, widget);
    }
}

void Style::drawControl(ControlElement element, const QStyleOption* option, QPainter* painter,
                        const QWidget* widget) const {
    const Tokens& t = Theme::tokens();
    switch (element) {
        case CE_PushButtonBevel:
            if (const auto* button = qstyleoption_cast<const QStyleOptionButton*>(option))
                draw_button(*button, painter, widget);
            return;
        case CE_PushButtonLabel:
            if (const auto* button = qstyleoption_cast<const QStyleOptionButton*>(option))
                draw_button_words(*button, painter, widget, this);
            return;
        case CE_ShapedFrame: {
            const auto* frame = qstyleoption_cast<const QStyleOptionFrame*>(option);
            if (frame != nullptr && frame->frameShape == QFrame::StyledPanel)
                return drawPrimitive(PE_Frame, option, painter, widget);
            break;
        }
        case CE_ComboBoxLabel:
            if (const auto* box = qstyleoption_cast<const QStyleOptionComboBox*>(option)) {
                const QRect room = subControlRect(CC_ComboBox, box, SC_ComboBoxEditField, widget);
                painter->setPen(has(option, State_Enabled) ? t.graphite : t.pencil);
                painter->drawText(
                    room, static_cast<int>(visualAlignment(option->direction, Qt::AlignLeft) | Qt::AlignVCenter),
                    painter->fontMetrics().elidedText(box->currentText, Qt::ElideRight, room.width()));
            }
            return;
        case CE_MenuItem:
            if (const auto* item = qstyleoption_cast<const QStyleOptionMenuItem*>(option))
                draw_menu_item(*item, painter);
            return;
        case CE_ProgressBarLabel:
            return;  // what it shows is said in words beside it
        case CE_ProgressBarGroove:
            return draw_box(painter, option->rect, t.sheet, t.pencil);
        case CE_ProgressBarContents: {
            const auto* bar = qstyleoption_cast<const QStyleOptionProgressBar*>(option);
            if (bar == nullptr) break;
            QRect done = option->rect.adjusted(1, 1, -1, -1);
            if (bar->maximum > bar->minimum) {
                const double share = static_cast<double>(bar->progress - bar->minimum) / (bar->maximum - bar->minimum);
                done.setWidth(static_cast<int>(done.width() * std::clamp(share, 0.0, 1.0)));
            } else {
                // How much there is to do is not known: a piece goes there and back.
                constexpr int there_and_back_ms = 2400;
                const double way = std::abs(
                    QTime::currentTime().msecsSinceStartOfDay() % there_and_back_ms * 2.0 / there_and_back_ms - 1);
                const int piece = done.width() / 4;
                done = QRect(done.left() + static_cast<int>((done.width() - piece) * way), done.top(), piece,
                             done.height());
            }
            painter->fillRect(visualRect(option->direction, option->rect, done), t.chalk);
            return;
        }
        default:
            break;
    }
    QProxyStyle::drawControl(element, option, painter, widget);
}

void Style::drawComplexControl(ComplexControl control, const QStyleOptionComplex* option, QPainter* painter,
                               const QWidget* widget) const {
    switch (control) {
        case CC_ComboBox: {
            draw_field(option, painter, widget);
            const QRect arrow = subControlRect(control, option, SC_ComboBoxArrow, widget);
            const Tokens& t = Theme::tokens();
            Theme::icon("chevron-down", has(option, State_Enabled) ? t.graphite : t.pencil).paint(painter, arrow);
            return;
        }
        case CC_SpinBox:
            return draw_field(option, painter, widget);
        case CC_ScrollBar:
            if (const auto* bar = qstyleoption_cast<const QStyleOptionSlider*>(option))
                draw_scroll_bar(*bar, painter, this, widget);
            return;
        case CC_Slider:
            if (const auto* slider = qstyleoption_cast<const QStyleOptionSlider*>(option))
                draw_slider(*slider, painter, this, widget);
            return;
        default:
            QProxyStyle::drawComplexControl(control, option, painter, widget);
    }
}

int Style::pixelMetric(PixelMetric metric, const QStyleOption* option, const QWidget* widget) const {
    switch (metric) {
        case PM_IndicatorWidth:
        case PM_IndicatorHeight:
        case PM_ButtonIconSize:
            return icon_side();
        case PM_CheckBoxLabelSpacing:
            return 8;
        case PM_ButtonShiftHorizontal:
        case PM_ButtonShiftVertical:
            return 0;
        case PM_ScrollBarExtent:
            return bar_wide;
        case PM_ScrollBarSliderMin:
            return least_handle;
        case PM_ScrollView_ScrollBarSpacing:
        case PM_ScrollView_ScrollBarOverlap:
            return 0;
        case PM_DefaultFrameWidth:
            return qobject_cast<const QPlainTextEdit*>(widget) != nullptr ? 4 : 1;
        case PM_MenuPanelWidth:
            return 1;
        case PM_MenuHMargin:
        case PM_MenuVMargin:
            return menu_edge;
        case PM_ToolTipLabelFrameWidth:
            return 5;
        case PM_SliderThickness:
        case PM_SliderControlThickness:
        case PM_SliderLength:
            return icon_side();
        default:
            return QProxyStyle::pixelMetric(metric, option, widget);
    }
}

int Style::styleHint(StyleHint hint, const QStyleOption* option, const QWidget* widget, QStyleHintReturn* data) const {
    switch (hint) {
        // A drop-down is a list below its field, and leaves that to be seen.
        case SH_ComboBox_Popup:
        case SH_EtchDisabledText:
        case SH_ScrollBar_Transient:
            return 0;
        case SH_ToolTipLabel_Opacity:
            return 255;
        default:
            return QProxyStyle::styleHint(hint, option, widget, data);
    }
}

QSize Style::sizeFromContents(ContentsType type, const QStyleOption* option, const QSize& contents,
                              const QWidget* widget) const {
    switch (type) {
        case CT_PushButton: {
            const Role role = role_of(widget);
            const Padding pad = padding_of(role);
            return {contents.width() + 2 * (pad.side + 1),
                    std::max(contents.height(), Theme::px(pad.least)) + 2 * (pad.above + 1)};
        }
        case CT_LineEdit: {
            const auto* frame = qstyleoption_cast<const QStyleOptionFrame*>(option);
            return frame != nullptr && frame->lineWidth <= 0 ? contents : around_field(contents, widget);
        }
        case CT_SpinBox:
            return around_field(contents, widget);
        case CT_ComboBox:
            return around_field(contents, widget) + QSize(chevron_room(), 0);
        case CT_CheckBox:
            return {contents.width() + icon_side() + 8, std::max(contents.height(), Theme::px(24))};
        case CT_ItemViewItem: {
            const QSize item = QProxyStyle::sizeFromContents(type, option, contents, widget);
            const QWidget* around = widget == nullptr ? nullptr : widget->parentWidget();
            const bool drops = around != nullptr && qobject_cast<const QComboBox*>(around->parentWidget()) != nullptr;
            return drops ? QSize(item.width(), std::max(item.height(), Theme::px(28))) : item;
        }
        case CT_ProgressBar:
            return {contents.width(), 16};
        case CT_MenuItem: {
            const auto* item = qstyleoption_cast<const QStyleOptionMenuItem*>(option);
            if (item == nullptr) break;
            if (item->menuItemType == QStyleOptionMenuItem::Separator) return {contents.width(), 9};
            return {contents.width() + menu_left + menu_right + tick_room(*item) + icon_room(*item),
                    std::max(contents.height(), item->fontMetrics.height()) + 2 * menu_high};
        }
        default:
            break;
    }
    return QProxyStyle::sizeFromContents(type, option, contents, widget);
}

QRect Style::subElementRect(SubElement element, const QStyleOption* option, const QWidget* widget) const {
    switch (element) {
        case SE_PushButtonContents: {
            const Padding pad = padding_of(role_of(widget));
            return option->rect.adjusted(pad.side + 1, pad.above + 1, -pad.side - 1, -pad.above - 1);
        }
        case SE_LineEditContents: {
            const auto* frame = qstyleoption_cast<const QStyleOptionFrame*>(option);
            return frame != nullptr && frame->lineWidth <= 0 ? option->rect : inside_field(option->rect, widget);
        }
        case SE_ProgressBarGroove:
        case SE_ProgressBarContents:
            return option->rect;
        default:
            return QProxyStyle::subElementRect(element, option, widget);
    }
}

QRect Style::subControlRect(ComplexControl control, const QStyleOptionComplex* option, SubControl sub,
                            const QWidget* widget) const {
    if (control == CC_ScrollBar) {
        if (const auto* bar = qstyleoption_cast<const QStyleOptionSlider*>(option)) return scroll_bar_part(*bar, sub);
    }
    if (control == CC_ComboBox) {
        const QRect& r = option->rect;
        const QRect arrow(r.right() - 8 - icon_side() + 1, r.top() + (r.height() - icon_side()) / 2, icon_side(),
                          icon_side());
        if (sub == SC_ComboBoxEditField)
            return visualRect(option->direction, r, inside_field(r, widget).adjusted(0, 0, -chevron_room(), 0));
        if (sub == SC_ComboBoxArrow) return visualRect(option->direction, r, arrow);
    }
    if (control == CC_SpinBox) {
        if (sub == SC_SpinBoxEditField) return inside_field(option->rect, widget);
        if (sub == SC_SpinBoxUp || sub == SC_SpinBoxDown) return {};
    }
    return QProxyStyle::subControlRect(control, option, sub, widget);
}

}  // namespace skarvel
