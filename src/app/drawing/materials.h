// drawing/materials.h
//
// What bare materials look like: wood by its grain, canvas by its weave, clear sheet by its gleams. The same wherever a
// sign is drawn; never themed.
#pragma once

#include <QColor>
#include <QPainter>
#include <string>

namespace skarvel {

struct Look {
    QColor base, line;
};
/// As pine where the material is not known.
Look look_of(const std::string& material);
/// Whether a material is drawn with grain.
bool is_wood(const std::string& material);

/// Along the longer side, or across it where the grain is `turned`.
void paint_grain(QPainter& painter, const QRectF& where, const QColor& line, bool turned = false);
void paint_weave(QPainter& painter, const QRectF& where, const QColor& line);
void paint_gleams(QPainter& painter, const QRectF& where, const QColor& line);
/// A cut through the bare material.
void paint_bare(QPainter& painter, const QRectF& where, const std::string& material);

}  // namespace skarvel
