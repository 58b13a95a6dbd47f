#include "theme/theme.h"

#include <QApplication>
#include <QFontDatabase>
#include <QPainter>
#include <QPalette>
#include <QToolTip>
#include <QWidget>

#include "measure/reading.h"
#include "theme/drawn_icon.h"
#include "theme/roles.h"
#include "theme/style.h"

namespace skarvel {
namespace {

struct State {
    std::filesystem::path assets;
    QString family = "sans-serif", condensed = "sans-serif";
    bool set = false;  // none before the first
    bool night = false;
    int percent = 100;
    Tokens tokens = Theme::tokens_for(false);
};

State& state() {
    static State s;
    return s;
}

QPalette palette_of(const Tokens& t) {
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
    palette.setColor(QPalette::Link, t.chalk);
    palette.setColor(QPalette::LinkVisited, t.chalk);
    palette.setColor(QPalette::PlaceholderText, t.pencil);
    palette.setColor(QPalette::ToolTipBase, t.sheet);
    palette.setColor(QPalette::ToolTipText, t.graphite);
    for (const QPalette::ColorRole role : {QPalette::WindowText, QPalette::Text, QPalette::ButtonText})
        palette.setColor(QPalette::Disabled, role, t.pencil);
    return palette;
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
    QApplication::setStyle(new Style);
}

void Theme::set(bool night, int text_percent) {
    State& now = state();
    if (now.set && night == now.night && text_percent == now.percent) return;
    now.set = true;
    now.night = night;
    now.percent = text_percent;
    now.tokens = tokens_for(night);
    const QPalette palette = palette_of(now.tokens);
    QApplication::setPalette(palette);
    QToolTip::setPalette(palette);
    QApplication::setFont(font(15));
    QApplication::setFont(font(15, QFont::Medium), "QPushButton");
    QToolTip::setFont(font(15));
    // Told by the toolkit only while its loop of events runs.
    for (QWidget* window : QApplication::topLevelWidgets()) {
        const auto tell = [&](QEvent::Type what) {
            QEvent event(what);
            QApplication::sendEvent(window, &event);
        };
        if (window->font() != QApplication::font(window)) tell(QEvent::ApplicationFontChange);
        if (window->palette().color(QPalette::WindowText) != now.tokens.graphite)
            tell(QEvent::ApplicationPaletteChange);
    }
    dress_all();
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
