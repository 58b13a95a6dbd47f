#include "theme/theme.h"

#include <QApplication>
#include <QFontDatabase>
#include <QPainter>
#include <QPalette>
#include <QStyleFactory>
#include <QWidget>

#include "measure/reading.h"
#include "theme/drawn_icon.h"

namespace skarvel {
namespace {

struct State {
    std::filesystem::path assets;
    QString family = "sans-serif", condensed = "sans-serif";
    bool night = false;
    int percent = 100;
    Tokens tokens = Theme::tokens_for(false);
};

State& state() {
    static State s;
    return s;
}

QString style_sheet() {
    const Tokens& t = state().tokens;
    QString css = R"(
* { font-size: %15px; color: %graphite; }
QMainWindow, QDialog, #paper { background: %paper; }
QToolTip { background: %sheet; color: %graphite; border: 1px solid %pencil; padding: 4px 8px; }
QLabel { background: transparent; }
QLabel[role="title"] { font-size: %18px; font-weight: 600; }
QLabel[role="small"] { font-size: %13px; color: %pencil; }
QLabel[role="hint"] { font-size: %13px; color: %pencil; }
QLabel[role="wrong"] { font-size: %13px; color: %brick; }
QLabel[role="value"] { font-size: %18px; font-weight: 500; }
QLabel[role="good"] { font-size: %15px; color: %moss; font-weight: 600; }
QLabel[role="look"] { color: %ochre; font-weight: 600; }
QLabel[role="stop"] { color: %brick; font-weight: 600; }
QLineEdit, QPlainTextEdit, QSpinBox, QDateTimeEdit, QComboBox {
  background: %sheet; border: 1px solid %pencil; border-radius: 3px; padding: 3px 8px; min-height: %24px;
  selection-background-color: %chalk; selection-color: %sheet; }
QLineEdit:focus, QPlainTextEdit:focus, QSpinBox:focus, QDateTimeEdit:focus, QComboBox:focus { border: 2px solid %chalk; padding: 2px 7px; }
QLineEdit[wrong="true"] { border: 2px solid %brick; padding: 2px 7px; }
QLineEdit:disabled, QComboBox:disabled { color: %pencil; background: %paper; }
QComboBox::drop-down { border: none; width: 24px; }
QComboBox QAbstractItemView { background: %sheet; border: 1px solid %pencil; selection-background-color: %chalk; selection-color: %sheet; outline: none; }
QSpinBox::up-button, QSpinBox::down-button, QDateTimeEdit::up-button, QDateTimeEdit::down-button { width: 0; border: none; }
QPushButton { icon-size: %16px; background: %sheet; border: 1px solid %pencil; border-radius: 3px; padding: 4px 12px; min-height: %24px; font-weight: 500; }
QPushButton:hover { border-color: %graphite; }
QPushButton:focus { border: 2px solid %chalk; padding: 3px 11px; }
QPushButton:disabled { color: %pencil; border-color: %line; }
QPushButton[role="main"] { background: %chalk; color: %sheet; border: 1px solid %chalk; font-weight: 600; min-height: %34px; }
QPushButton[role="main"]:focus { border: 2px solid %graphite; }
QPushButton[role="main"]:disabled { background: %paper; color: %pencil; border-color: %pencil; }
QPushButton[role="text"] { background: transparent; border: 1px solid transparent; color: %chalk; font-weight: 600; padding: 2px 6px; }
QPushButton[role="text"]:hover { text-decoration: underline; }
QPushButton[role="text"]:focus { border: 2px solid %chalk; padding: 1px 5px; }
QPushButton[role="group"] { background: transparent; border: 1px solid transparent; font-weight: 600; text-align: left; padding: 3px 4px; }
QPushButton[role="group"]:hover { border-color: %pencil; }
QPushButton[role="group"]:focus { border: 2px solid %chalk; padding: 2px 3px; }
QPushButton[role="bar"] { background: transparent; border: 1px solid transparent; font-weight: 500; padding: 3px 8px; }
QPushButton[role="bar"]:hover { border-color: %pencil; }
QPushButton[role="bar"]:checked { background: %graphite; color: %sheet; border-color: %graphite; }
QPushButton[role="bar"]:focus { border: 2px solid %chalk; padding: 2px 7px; }
QPushButton[role="bar"]:disabled { color: %pencil; }
QPushButton[segment="true"] { border-radius: 0; border: 1px solid %pencil; margin-left: -1px; padding: 3px 6px; }
QPushButton[segment="true"]:checked { background: %graphite; color: %sheet; border-color: %graphite; font-weight: 600; }
QPushButton[segment="true"]:focus { border: 2px solid %chalk; }
QCheckBox { spacing: 8px; min-height: %24px; }
QCheckBox::indicator { width: 16px; height: 16px; border: 1px solid %pencil; border-radius: 3px; background: %sheet; }
QCheckBox::indicator:checked { background: %chalk; border-color: %chalk; }
QCheckBox:focus { outline: none; }
QCheckBox::indicator:focus { border: 2px solid %chalk; }
QScrollArea { border: none; background: transparent; }
QScrollBar:vertical { background: transparent; width: 10px; margin: 0; }
QScrollBar::handle:vertical { background: %pencil; border-radius: 3px; min-height: 32px; margin: 2px 3px; }
QScrollBar::add-line, QScrollBar::sub-line { height: 0; width: 0; }
QScrollBar::add-page, QScrollBar::sub-page { background: transparent; }
QScrollBar:horizontal { background: transparent; height: 10px; }
QScrollBar::handle:horizontal { background: %pencil; border-radius: 3px; min-width: 32px; margin: 3px 2px; }
QMenu { background: %sheet; border: 1px solid %pencil; padding: 4px; }
QMenu::item { padding: 6px 24px 6px 12px; border-radius: 3px; }
QMenu::item:selected { background: %chalk; color: %sheet; }
QMenu::item:disabled { color: %pencil; }
QMenu::separator { height: 1px; background: %line; margin: 4px 8px; }
#tray { background: %paper; border-left: 1px solid %line; }
QProgressBar { background: %sheet; border: 1px solid %pencil; border-radius: 3px; min-height: 14px; max-height: 14px; }
QProgressBar::chunk { background: %chalk; }
#tray-body { background: %paper; }
#top-bar { background: %paper; border-bottom: 1px solid %line; }
#middle { background: %sheet; }
#callout { background: %sheet; border: 1px solid %pencil; border-radius: 3px; padding: 0 4px; min-height: 0; font-size: %15px; font-weight: 500; }
#callout:focus { border: 2px solid %chalk; padding: 0 3px; }
#notice { background: %sheet; border: 1px solid %pencil; border-radius: 3px; }
)";
    const std::pair<const char*, QColor> colours[] = {
        {"%paper", t.paper}, {"%sheet", t.sheet}, {"%graphite", t.graphite}, {"%pencil", t.pencil}, {"%line", t.line},
        {"%chalk", t.chalk}, {"%ochre", t.ochre}, {"%brick", t.brick},       {"%moss", t.moss}};
    for (const auto& [name, colour] : colours) css.replace(name, colour.name());
    for (const int size : {13, 15, 16, 18, 24, 34})
        css.replace(QString("%%1px").arg(size), QString("%1px").arg(Theme::px(size)));
    return css;
}

}  // namespace

Tokens Theme::tokens_for(bool night) {
    if (night) {
        return {"#23211E", "#2D2A26", "#EDE7DB", "#A79F92", "#47423B", "#6FB6D1", "#E0A94A", "#E5806F", "#93B97F"};
    }
    return {"#F5F0E6", "#FDFBF6", "#2B2925", "#6B655B", "#D8CFBE", "#1D5F7A", "#8E5C0F", "#A33A2A", "#4B6B3C"};
}

void Theme::load(const std::filesystem::path& assets) {
    state().assets = assets;
    const QString folder = QString::fromStdString((assets / "fonts/interface").string()) + "/";
    const auto load_family = [&](const QString& name, const QStringList& weights) {
        QString family = "sans-serif";
        for (const QString& weight : weights) {
            const int id = QFontDatabase::addApplicationFont(folder + name + "-" + weight + ".ttf");
            const QStringList families = QFontDatabase::applicationFontFamilies(id);
            if (weight == "Regular" && !families.isEmpty()) family = families.front();
        }
        return family;
    };
    state().family = load_family("PlexSans", {"Regular", "Medium", "SemiBold", "Bold"});
    state().condensed = load_family("PlexSansCondensed", {"Regular", "Medium", "SemiBold"});
    QApplication::setStyle(QStyleFactory::create("Fusion"));
}

void Theme::set(bool night, int text_percent) {
    // Styling every widget again takes long; nothing to do where nothing changes.
    if (night == state().night && text_percent == state().percent && !qApp->styleSheet().isEmpty()) return;
    state().night = night;
    state().percent = text_percent;
    state().tokens = tokens_for(night);
    const Tokens& t = state().tokens;
    QPalette palette;
    palette.setColor(QPalette::Window, t.paper);
    palette.setColor(QPalette::WindowText, t.graphite);
    palette.setColor(QPalette::Base, t.sheet);
    palette.setColor(QPalette::AlternateBase, t.paper);
    palette.setColor(QPalette::Text, t.graphite);
    palette.setColor(QPalette::Button, t.sheet);
    palette.setColor(QPalette::ButtonText, t.graphite);
    palette.setColor(QPalette::Highlight, t.chalk);
    palette.setColor(QPalette::HighlightedText, t.sheet);
    palette.setColor(QPalette::PlaceholderText, t.pencil);
    palette.setColor(QPalette::ToolTipBase, t.sheet);
    palette.setColor(QPalette::ToolTipText, t.graphite);
    QApplication::setPalette(palette);
    QApplication::setFont(font(15));
    qApp->setStyleSheet(style_sheet());
    for (QWidget* widget : QApplication::allWidgets()) widget->update();
}

bool Theme::night() { return state().night; }
int Theme::text_percent() { return state().percent; }
const Tokens& Theme::tokens() { return state().tokens; }
int Theme::px(int size) { return (size * state().percent + 50) / 100; }

QFont Theme::font(int size, int weight, bool condensed) {
    QFont font(condensed ? state().condensed : state().family);
    font.setPixelSize(px(size));
    font.setWeight(static_cast<QFont::Weight>(weight));
    return font;
}

QIcon Theme::icon(const QString& name, const QColor& colour) {
    return drawn_icon(QString::fromStdString((state().assets / "icons" / (name.toStdString() + ".svg")).string()),
                      colour);
}

void paint_heading(QPainter& painter, int width, const QString& title, const QString& under) {
    constexpr int side = 24;
    const int room = width - 2 * side;
    const auto line = [&](int y, int height, const QFont& font, const QColor& colour, const QString& text) {
        painter.setFont(font);
        painter.setPen(colour);
        painter.drawText(QRect(side, y, room, height), Qt::AlignLeft | Qt::AlignVCenter,
                         QFontMetrics(font).elidedText(text, Qt::ElideRight, room));
    };
    line(Theme::px(8), Theme::px(26), Theme::font(18, QFont::DemiBold), Theme::tokens().graphite, title);
    line(Theme::px(33), Theme::px(22), Theme::font(15), Theme::tokens().pencil, under);
}

QString shown(const std::string& text) { return QString::fromStdString(with_fraction_slash(text)); }

}  // namespace skarvel
