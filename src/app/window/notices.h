// window/notices.h
//
// Notices: what the window has to say, as slips of paper over the ribbon, the newest below. A plain one goes after
// eight seconds, trouble and questions stay until they are answered; more than three wait their turn. What is said
// again while it still stands is not said twice.
#pragma once

#include <QTimer>
#include <QWidget>
#include <deque>
#include <functional>
#include <utility>
#include <vector>

namespace skarvel {

class Notices : public QWidget {
    Q_OBJECT

  public:
    using Answer = std::pair<QString, std::function<void()>>;

    explicit Notices(QWidget* parent);
    void say(const QString& message, bool trouble, const std::vector<Answer>& answers);
    /// Stands in the middle, its lower edge there.
    void stand(int middle, int bottom, int widest);
    /// What stands there, from the top.
    [[nodiscard]] QStringList standing() const;

  private:
    struct Waiting {
        QString message;
        bool trouble;
        std::vector<Answer> answers;
    };
    void show_next();
    void take_off(QWidget* slip);
    void place();
    std::deque<Waiting> waiting_;
    std::vector<QWidget*> slips_;
    int middle_ = 0, bottom_ = 0, widest_ = 600;
};

}  // namespace skarvel
