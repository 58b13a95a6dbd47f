// window/trace_dialog.h
//
// Tracing a picture: what counts as dark, which speckles go, how sharp corners stay, with the outlines as they come.
#pragma once

#include <QDialog>

#include "drawing/drawing_file.h"

namespace skarvel {

class TraceDialog : public QDialog {
    Q_OBJECT

  public:
    TraceDialog(GreyPicture picture, const std::string& name);
    [[nodiscard]] const Expected<FileDrawing>& traced() const { return traced_; }
    /// The picture itself is kept, to be printed and cut round; otherwise only its outlines.
    [[nodiscard]] bool keeps_picture() const { return keep_; }

  private:
    void again();

    GreyPicture picture_;
    TraceWish wish_;
    Expected<FileDrawing> traced_;
    QWidget* preview_;
    bool keep_ = false;
};

}  // namespace skarvel
