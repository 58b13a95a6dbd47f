// window/first_start.h
//
// The very first start: two questions, and something to begin with.
#pragma once

#include <QWidget>
#include <filesystem>

#include "window/desk.h"

namespace skarvel {

class FirstStart : public QWidget {
    Q_OBJECT

  public:
    /// `samples`: a folder of jobs to look at.
    FirstStart(Desk& desk, const std::filesystem::path& samples, QWidget* parent);

  Q_SIGNALS:
    void board_wanted();
    void sample_wanted(const QString& path);
};

}  // namespace skarvel
