// theme/drawn_icon.h
//
// Icons from the shipped drawings, in a colour of the theme: drawn when they are first shown, at the size that is
// wanted.
#pragma once

#include <QColor>
#include <QIcon>
#include <QString>

namespace skarvel {

/// `file`: an SVG whose strokes are `currentColor`. Where it cannot be read, the icon shows nothing.
QIcon drawn_icon(const QString& file, const QColor& colour);

}  // namespace skarvel
