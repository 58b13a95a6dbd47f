// window/help_page.h
//
// Help for the station at hand: a page of assets/help, written for makers, with pictures of the program itself.
#pragma once

#include <QTextBrowser>
#include <filesystem>
#include <vector>

#include "values/station.h"

namespace skarvel {

class HelpPage : public QTextBrowser {
    Q_OBJECT

  public:
    HelpPage(std::filesystem::path assets, QWidget* parent);
    void show_station(Station station);
    /// The headings of all pages, each with its station: what Find finds.
    [[nodiscard]] std::vector<std::pair<Station, QString>> headings() const;
    void show_heading(Station station, const QString& heading);

  protected:
    /// Pictures no wider than the page.
    QVariant loadResource(int type, const QUrl& name) override;
    void resizeEvent(QResizeEvent* event) override;

  private:
    [[nodiscard]] QString page_of(Station station) const;
    std::filesystem::path folder_;
    Station shown_ = Station::Blank;
    bool following_ = false;  // its own width, which what it shows can change
};

}  // namespace skarvel
