// theme/theme.h
//
// Theme: the colours, sizes and typefaces of the window, by token. Day and night; text at 100, 125 or 150 %. The sign's
// own colours are never themed.
#pragma once

#include <QColor>
#include <QFont>
#include <QIcon>
#include <QString>
#include <filesystem>

class QPainter;

namespace skarvel {

struct Tokens {
    QColor paper, sheet, graphite, pencil, line, chalk, ochre, brick, moss;
};

/// What a finger hits, and how far a pressed pointer moves before it drags: pixels, whatever the size of type.
inline constexpr int least_target = 64;
inline constexpr double drag_pixels = 4;

class Theme {
  public:
    static Tokens tokens_for(bool night);
    /// Loads the shipped typefaces; call once, with the folder of assets, before any window.
    static void load(const std::filesystem::path& assets);
    /// Restyles the whole application.
    static void set(bool night, int text_percent);
    static bool night();
    static int text_percent();

    static const Tokens& tokens();
    /// Type sizes of the design: 13, 15, 18, 24, 32, 56, 72, scaled by the text size.
    static QFont font(int size, int weight = QFont::Normal, bool condensed = false);
    static int px(int size);
    static QIcon icon(const QString& name, const QColor& colour);
    static QIcon icon(const QString& name) { return icon(name, tokens().graphite); }
};

/// The two lines at the top of a middle view: what it shows, and how to read it. Too long ones are shortened.
void paint_heading(QPainter& painter, int width, const QString& title, const QString& under);

/// Fractions with U+2044, so that the typeface sets them.
QString shown(const std::string& text);

}  // namespace skarvel
