#include "window/help_page.h"

#include <QImage>
#include <QPointer>
#include <QResizeEvent>
#include <QScrollBar>
#include <QTextDocument>
#include <algorithm>

#include "job/library.h"
#include "theme/theme.h"
#include "theme/words.h"
#include "values/words.h"

namespace skarvel {

HelpPage::HelpPage(std::filesystem::path assets, QWidget* parent)
    : QTextBrowser(parent), folder_(std::move(assets) / "help") {
    setObjectName("help page");
    setAccessibleName(in_words("window.help-for-this-station"));
    setOpenLinks(false);
    setFrameShape(QFrame::NoFrame);
    setViewportMargins(Theme::px(40), Theme::px(16), Theme::px(40), Theme::px(16));
    setSearchPaths({QString::fromStdString(folder_.string())});
}

QString HelpPage::page_of(Station station) const {
    const auto text = read_file(folder_ / "en" / (std::string(word_of(station)) + ".md"));
    return text ? QString::fromStdString(*text) : in_words("window.no-help");
}

QVariant HelpPage::loadResource(int type, const QUrl& name) {
    if (type != QTextDocument::ImageResource) return QTextBrowser::loadResource(type, name);
    const QImage picture(QString::fromStdString((folder_ / name.toString().toStdString()).string()));
    // The bar that a long page brings takes some of it as well.
    const int bar = verticalScrollBar()->isVisible() ? 0 : verticalScrollBar()->sizeHint().width();
    const int room = std::max(200, viewport()->width() - bar - 2 * static_cast<int>(document()->documentMargin()) - 2);
    return picture.width() > room ? picture.scaledToWidth(room, Qt::SmoothTransformation) : picture;
}

// Its pictures follow the width of the page.
void HelpPage::resizeEvent(QResizeEvent* event) {
    QTextBrowser::resizeEvent(event);
    if (event->size().width() == event->oldSize().width() || following_) return;
    following_ = true;
    const int at = verticalScrollBar()->value();
    show_station(shown_);
    verticalScrollBar()->setValue(at);
    following_ = false;
}

void HelpPage::show_station(Station station) {
    shown_ = station;
    // A sheet of its own for each: words that are read in over others take on the type of the heading that was there.
    // It is put in when it is whole, so that the bar beside it does not go and come back.
    const QPointer<QTextDocument> before = document();
    auto* page = new QTextDocument(this);
    page->setDefaultFont(Theme::font(18));
    page->setMarkdown(page_of(station));
    setDocument(page);
    if (before != nullptr) before->deleteLater();  // the toolkit has taken away its own
    moveCursor(QTextCursor::Start);
}

std::vector<std::pair<Station, QString>> HelpPage::headings() const {
    std::vector<std::pair<Station, QString>> all;
    for (std::size_t i = 0; i < words_of(Station{}).size(); ++i) {
        const auto station = static_cast<Station>(i);
        for (const QString& line : page_of(station).split('\n')) {
            if (line.startsWith("## ")) all.emplace_back(station, line.mid(3).trimmed());
        }
    }
    return all;
}

void HelpPage::show_heading(Station station, const QString& heading) {
    show_station(station);
    find(heading);
    QTextCursor at = textCursor();
    at.clearSelection();
    setTextCursor(at);
    ensureCursorVisible();
}

}  // namespace skarvel
