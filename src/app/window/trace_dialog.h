// window/trace_dialog.h
//
// Tracing a picture: what counts as dark, which speckles go, how sharp corners stay, with the outlines as they come.
// A worker traces beside the window; the latest wish wins, and outlines that are behind it are dimmed.
#pragma once

#include <QDialog>

#include <condition_variable>
#include <mutex>
#include <optional>
#include <thread>

#include "drawing/drawing_file.h"

namespace skarvel {

class TraceDialog : public QDialog {
    Q_OBJECT

  public:
    TraceDialog(GreyPicture picture, const std::string& name);
    /// What was last traced; both ways of taking it wait until it is of the latest wish.
    [[nodiscard]] const Expected<FileDrawing>& traced() const { return traced_; }
    /// The picture itself is kept, to be printed and cut round; otherwise only its outlines.
    [[nodiscard]] bool keeps_picture() const { return keep_; }

  private:
    void again();
    void work(const std::stop_token& stop);
    void show_traced(const TraceWish& of, Expected<FileDrawing> traced);

    GreyPicture picture_;
    TraceWish wish_;
    Expected<FileDrawing> traced_;
    bool behind_ = true;
    QWidget* preview_;
    QList<QWidget*> takers_;
    bool keep_ = false;

    std::mutex mutex_;
    std::condition_variable_any waiting_;
    std::optional<TraceWish> next_;
    std::jthread worker_;  // last, so that it ends before what it reads
};

}  // namespace skarvel
