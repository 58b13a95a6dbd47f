// stations/tray.h
//
// The tray: what the station lets the maker decide, then what follows, each with a "why". Trays share this frame; each
// station adds its own fields.
#pragma once

#include <QPointer>
#include <QScrollArea>
#include <QVBoxLayout>
#include <functional>
#include <map>
#include <vector>

#include "stations/pinned.h"
#include "stations/tray_part.h"
#include "window/desk.h"
#include "window/fields.h"

namespace skarvel {

class Tray : public QScrollArea {
    Q_OBJECT

  public:
    Tray(Station station, Desk& desk, QWidget* parent);
    /// Shows the job and its plan; called whenever either has changed.
    virtual void refresh() = 0;
    [[nodiscard]] QSize sizeHint() const override;

    [[nodiscard]] Desk& desk() const { return desk_; }

    // What parts of a tray put on it.
    void add_decision(QWidget* widget) { decisions_->addWidget(widget); }
    /// A part that opens and closes; `build` fills it when it is first opened, with the functions above.
    void group(const QString& name, const std::function<void()>& build);
    /// Lets `build` add its fields to that layout.
    void inside(QVBoxLayout* layout, const std::function<void()>& build);
    // What follows is built anew each time.
    void fact(const QString& name, const QString& value);
    void why(const QString& text);
    void good(const QString& text);
    void problem(const Problem& problem);
    QPushButton* offer(const QString& text, const std::function<void()>& take);
    void heading(const QString& text);
    [[nodiscard]] QString say(const Reason& reason) const;
    [[nodiscard]] QString length(Length l) const;

  protected:
    /// A part that does one thing of its own.
    template <class Part>
    void add_part() {
        auto* part = new Part(desk_, widget());
        parts_.push_back(part);
        add_decision(part);
    }
    void refresh_parts() {
        for (TrayPart* part : parts_) part->refresh();
    }
    void resizeEvent(QResizeEvent* event) override;
    void title(const QString& text);
    /// A field under its name.
    template <class T>
    T* field(const QString& name, T* widget) {
        add_caption(name);
        decisions_->addWidget(widget);
        return widget;
    }
    void gap();
    /// Which colour of the face is at hand; out of the way where there is one.
    void add_colour_choice();
    void show_colour_choice();
    /// What a closed part says of itself.
    void group_says(const QString& name, const QString& words);

  public:
    /// The names of all its fields and groups, folded away or not.
    QStringList fields();
    /// Opened, in sight and in hand.
    void show_field(const QString& name);

  protected:
    // What follows is built anew each time.
    void begin_follows(const QString& heading);
    /// What the plan finds at this station.
    void problems() { problems(station_); }
    void problems(Station station);
    void end_follows();

    void edit(const std::function<void(Job&)>& change, const QString& merge = {});
    void edit_sign(const std::function<void(Sign&)>& change, const QString& merge = {});
    void edit_face(const std::function<void(Face&)>& change, const QString& merge = {});
    [[nodiscard]] const Sign& sign() const { return desk_.sign(); }
    [[nodiscard]] const Face& face() const { return desk_.face(); }
    [[nodiscard]] const ColourPlan* plan() const { return desk_.face_plan(); }

    Desk& desk_;

  private:
    std::vector<TrayPart*> parts_;
    Choice* colour_choice_ = nullptr;
    void add_caption(const QString& name);
    void pin_result();
    void place_pinned();
    struct Found {
        QPointer<QWidget> row;
        Mark mark = Mark::None;
        QString what;
    };
    struct Group {
        QPushButton* head = nullptr;
        QLabel* says = nullptr;
        QWidget* body = nullptr;
        std::function<void()> build{};
    };
    void build_all();
    std::map<QString, Group> groups_;
    QVBoxLayout* decisions_;
    QVBoxLayout* body_;
    QWidget* follows_ = nullptr;
    QVBoxLayout* follows_layout_ = nullptr;
    std::vector<Found> found_;
    Station station_;
    Pinned* pinned_ = nullptr;
    QWidget* beside_pinned_ = nullptr;
};

/// The trays of the stations that have one.
Tray* make_blank_tray(Desk& desk, QWidget* parent);
Tray* make_lettering_tray(Desk& desk, QWidget* parent);
Tray* make_sections_tray(Desk& desk, QWidget* parent);
Tray* make_method_tray(Desk& desk, QWidget* parent);
Tray* make_clock_tray(Desk& desk, QWidget* parent);
Tray* make_logbook_tray(Desk& desk, QWidget* parent);
/// The tray of a station, or nullptr for those that use the whole middle.
Tray* make_tray(Station station, Desk& desk, QWidget* parent);

}  // namespace skarvel
