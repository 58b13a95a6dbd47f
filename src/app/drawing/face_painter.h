// drawing/face_painter.h
//
// Paints one face at true proportions: the same regions that are cut, nothing redrawn. Overlay strokes get a casing of
// sheet colour, so that they can be seen on any ground.
#pragma once

#include <QPainter>
#include <QPainterPath>
#include <QTransform>
#include <optional>
#include <vector>

#include "job/plan.h"

namespace skarvel {

/// How the face lies on the screen.
struct FaceView {
    double scale = 0.001;    ///< pixels for a grid unit
    QPointF origin;          ///< where the upper left corner of the drawn board is
    bool laid_down = false;  ///< an upright board turned a quarter, its top to the left
    Box face;

    /// As large as `whole`, the face with what is built round it, fits into a picture; laid down where that shows it
    /// larger.
    static FaceView within(const QRectF& picture, const Box& face, const Box& whole);
    [[nodiscard]] QTransform transform() const;
    [[nodiscard]] QPointF at(Point p) const {
        return transform().map(QPointF(static_cast<double>(p.x), static_cast<double>(p.y)));
    }
    [[nodiscard]] QRectF rect(const Box& box) const;
    [[nodiscard]] QSizeF size() const;
    [[nodiscard]] bool lengthwise() const { return laid_down || face.width() >= face.height(); }
};

QPainterPath path_of(const Region& region);
/// A kept picture, read once.
QImage image_of(const std::shared_ptr<const std::string>& bytes);
/// What names a seam: a flag at its end, and its letter beside it.
struct SeamFlag {
    QPointF foot;  ///< on the screen, where the seam ends
    QPointF out;   ///< of length 1, away from the seam
    [[nodiscard]] QPainterPath path() const;
    /// Of flag and letter together; the letter stands at its right, or at its left where it points there.
    [[nodiscard]] QRectF room() const;
};
/// A stroke with its casing.
void cased(QPainter& painter, const QPainterPath& path, const QPen& pen);
/// Tint of a section, by its number.
QColor section_tint(std::size_t section);
void number_disc(QPainter& painter, QPointF centre, int number, bool strong = false);

class FacePainter {
  public:
    /// `all`: the plan that holds the other colours of the face; without it this one is all there is.
    FacePainter(const Sign& sign, const Face& face, const ColourPlan& plan, FaceView view, const Plan* all = nullptr)
        : sign_(sign), face_(face), plan_(plan), view_(view), all_(all) {}

    /// With its coats as they will look, or `bare`: the material itself.
    void board(QPainter& p, bool bare) const;
    void clear_zones(QPainter& p, std::optional<std::size_t> chosen = {}, bool names = true) const;
    void usable(QPainter& p) const;
    void guides(QPainter& p) const;
    /// `as_laid`: in mirror writing where it goes on the back of a clear blank.
    void ink(QPainter& p, bool as_laid = false) const;
    /// All colours as they will be seen, the first one laid at the back. `as_cut`: outlines only, where the knife goes.
    /// `moved` is the thing that is being dragged, by `by`.
    void all_ink(QPainter& p, bool as_cut = false, const ThingId& moved = {}, Point by = {}) const;
    /// Strokes, gaps and keepers that are too thin, where they are.
    void thin(QPainter& p) const;
    void sections(QPainter& p, std::optional<std::size_t> lit) const;
    /// Gives where the flags of the seams stand.
    std::vector<QRectF> seams(QPainter& p) const;

  private:
    [[nodiscard]] ThingId thing_of(const ColourPlan& lane, const Piece& piece) const;
    [[nodiscard]] SeamFlag free_flag(QPointF a, QPointF b, const std::vector<QRectF>& taken) const;
    [[nodiscard]] bool is_picture(const Piece& piece) const;
    void pictures(QPainter& p, const ThingId& moved, Point by) const;
    void frame(QPainter& p) const;
    void mouldings(QPainter& p, const QRectF& outer) const;
    void coats(QPainter& p, const QPainterPath& shape) const;
    const Sign& sign_;
    const Face& face_;
    const ColourPlan& plan_;
    FaceView view_;
    const Plan* all_;
};

}  // namespace skarvel
