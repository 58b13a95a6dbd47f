// drawing/drawing.h
//
// The drawing: the face at true scale with rulers, and callouts that can be typed into. Serves Blank, Lettering and
// Sections, each with its overlay. Whole, with a closer look in the room that it leaves, or close-up; a tall board may
// be laid down, its top to the left. Rulers count from the face's own lower left corner.
#pragma once

#include <QWidget>
#include <map>
#include <optional>

#include "drawing/callout.h"
#include "drawing/face_painter.h"
#include "drawing/handling.h"
#include "drawing/parting.h"
#include "window/desk.h"

namespace skarvel {

class Drawing : public QWidget {
    Q_OBJECT

  public:
    Drawing(Desk& desk, QWidget* parent);
    /// What the mark there says of itself; empty where there is none. In marks.cpp.
    [[nodiscard]] QString mark_told(QPointF where) const;
    void set_station(Station station);
    void set_close_up(bool close_up);
    void set_laid_down(bool laid_down);
    [[nodiscard]] bool close_up() const { return close_up_; }
    [[nodiscard]] bool laid_down() const { return laid_down_; }
    /// The tape measure: two clicks, snapped to corners, edges and middles.
    void set_measuring(bool on);
    [[nodiscard]] bool measuring() const { return measuring_; }
    /// What the tape measure reads; empty before its second point.
    [[nodiscard]] QString measured_text() const;
    /// The sign as seen from where it is read.
    void set_step_back(bool on);
    [[nodiscard]] bool step_back() const { return step_back_; }
    /// Dots of the screen for a millimetre, as the maker measured them; 0 until then.
    void match_screen(double dots_per_mm) { matched_dots_per_mm_ = dots_per_mm; }
    /// Where a point of the face lies in this widget.
    [[nodiscard]] QPointF where(Point point) const { return view_.at(point); }
    /// The closer look beside the whole: where it is, empty where there is none, and where a point lies in it.
    [[nodiscard]] QRectF closer_area() const { return closer_area_; }
    [[nodiscard]] QPointF where_closer(Point point) const { return closer_.at(point); }
    void refresh(bool behind);
    /// Another sign is at hand: nothing chosen, nothing measured, callouts anew.
    void start_over();
    [[nodiscard]] QSize minimumSizeHint() const override { return {400, needed_height_}; }

  Q_SIGNALS:
    void view_changed();
    /// A field of the tray, by its name, decides what was pointed at.
    void decider_wanted(const QString& field);
    void screen_matched(double dots_per_mm);

  protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;
    bool event(QEvent* event) override;

  private:
    // A dimension line with what stands on it: a callout or a text that only follows.
    struct Dimension {
        QPointF from, to;
        Callout* box = nullptr;
        QString text;
        Station opens = Station::Lettering;  // the station that decides a dimension without a box
        QRectF text_rect;
    };

    void lay_out();
    void lay_out_board();
    void lay_out_dimensions();
    void lay_out_sides(const ColourPlan& plan, const Blank& blank, const Display& display);
    void size_callouts(const ColourPlan& plan, const Blank& blank);
    void lettering_callouts(const ColourPlan& plan, const Display& display, std::int64_t from, std::int64_t to,
                            bool y_axis);
    void paint_step_back(QPainter& p);
    bool step_back_key(QKeyEvent* event);
    static QString size_prefix(const Blank& blank);
    void zone_callouts(std::size_t i, const ClearZone& zone, const ColourPlan& plan);
    void field_callouts(const ColourPlan& plan, const Blank& blank);
    void reading_callouts(const ColourPlan& plan, const Blank& blank);
    void lay_out_loads();
    void open_decider(Station opens);
    Callout& callout(const QString& id, const QString& does, const Measure& value, const QString& prefix = {});
    void place(Callout& box, QPointF centre);
    void length_dimension(std::int64_t from, std::int64_t to, double row, Callout* box, const QString& text = {},
                          Station opens = Station::Lettering);
    static QString kind_title(Kind kind);
    void paint_header(QPainter& p);
    void lay_out_closer();
    [[nodiscard]] double closer_scale(const QRectF& room) const;
    [[nodiscard]] QRectF taken_room() const;
    [[nodiscard]] Point centre_of_interest() const;
    void paint_closer(QPainter& p);
    void paint_seen(QPainter& p, const FaceView& whole, const FaceView& near, const QRectF& area) const;
    void zoom_closer(QPointF where, double by);
    void pan_closer(QPointF by);
    /// Its middle comes to what is seen there of the whole.
    void look_closer_at(QPointF where);
    /// The view that is seen there.
    [[nodiscard]] const FaceView& under(QPointF where) const { return closer_area_.contains(where) ? closer_ : view_; }
    void paint_face(QPainter& p, const FaceView& view);
    void paint_blank_marks(QPainter& p, const FaceView& view);
    void paint_tape_measure(QPainter& p);
    void paint_measured(QPainter& p, const FaceView& view);
    [[nodiscard]] QPointF snapped(QPointF where) const;
    [[nodiscard]] std::optional<std::size_t> zone_at(QPointF where) const;
    void paint_ruler(QPainter& p, const FaceView& view, const QRectF& area, QSizeF outside);
    void paint_overview(QPainter& p);
    void paint_dimensions(QPainter& p);
    [[nodiscard]] QRectF board_end() const;
    void paint_board_end(QPainter& p);
    void paint_cut_diagram(QPainter& p);
    void paint_out_of_true(QPainter& p);
    void paint_loads(QPainter& p);
    static QString load_says(const Load& load, const Mat& bed, const Display& display);
    [[nodiscard]] Length shown_along() const;
    void paint_table(QPainter& p);
    /// Clear of what is `said` already: flags of seams, and what the hands do there.
    void paint_section_numbers(QPainter& p, const std::vector<QRectF>& said);
    /// `said`: the flags of the seams, in their order; what is told of the seams is added.
    void paint_evidence(QPainter& p, std::vector<QRectF>& said);
    void paint_bench_marks(QPainter& p, const FaceView& view);
    [[nodiscard]] const Job& job() const;
    [[nodiscard]] const Plan& plan() const;
    [[nodiscard]] const Sign& sign() const;
    [[nodiscard]] const ColourPlan* face() const;
    [[nodiscard]] std::optional<std::size_t> section_at(QPointF where) const;
    [[nodiscard]] QString mark_of_blank(QPointF where) const;
    [[nodiscard]] QString mark_of_cut(QPointF where) const;
    void change_blank(const std::function<void(Blank&)>& change);
    void decides(Callout& box, const Measure& was, std::function<void(Text&, const Measure&)> set);
    void hang_callouts(const ColourPlan& plan, const Text& text);

    Desk& desk_;
    Station station_ = Station::Blank;
    bool close_up_ = false, laid_down_ = true, behind_ = false;
    std::optional<bool> laid_down_chosen_;
    double zoom_ = 0;  // pixels for an inch in the close-up, 0: as it comes
    double pan_ = 0, pan_across_ = 0;
    std::optional<QPointF> dragged_from_;
    bool measuring_ = false, measuring_fixed_ = false;
    std::vector<Point> measured_;  // face frame
    std::optional<std::size_t> chosen_zone_;
    Handling handling_;
    Parting parting_;
    bool step_back_ = false, as_cut_ = false, matching_ = false;
    double matched_dots_per_mm_ = 0;
    Length eye_distance_ = 24_in;
    QSizeF around_;  // pixels that frame, backing or mouldings stand out by
    bool real_size_ = false, space_down_ = false, by_keyboard_ = false;
    FaceView view_;
    QRectF board_area_, overview_, table_, closer_area_;
    FaceView overview_view_, closer_;
    std::optional<Point> closer_at_;  // face frame: the middle of the closer look, where it was moved
    ThingId closer_of_;               // what was at hand then
    double closer_zoom_ = 0;          // pixels for an inch there, 0: as it comes
    bool held_closer_ = false;        // what is held or dragged was taken hold of there
    std::vector<Dimension> dimensions_;
    std::map<QString, Callout*> callouts_;
    std::vector<QString> used_callouts_;
    struct LoadView {
        std::size_t load = 0;
        QRectF mat;
    };
    std::vector<LoadView> loads_;
    bool loads_beside_ = false;  // of a board that stands upright, where there is room
    std::optional<std::size_t> lit_;
    int needed_height_ = 300;
};

}  // namespace skarvel
