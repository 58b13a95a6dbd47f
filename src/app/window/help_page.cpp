#include "window/help_page.h"

#include <QImage>
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
    setSearchPaths({QString::fromStdString(folder_.string())});
}

QString HelpPage::page_of(Station station) const {
    const auto text = read_file(folder_ / "en" / (std::string(word_of(station)) + ".md"));
    return text ? QString::fromStdString(*text) : in_words("window.no-help");
}

QVariant HelpPage::loadResource(int type, const QUrl& name) {
    if (type != QTextDocument::ImageResource) return QTextBrowser::loadResource(type, name);
    const QImage picture(QString::fromStdString((folder_ / name.toString().toStdString()).string()));
    const int room = std::max(200, viewport()->width() - 2 * static_cast<int>(document()->documentMargin()));
    return picture.width() > room ? picture.scaledToWidth(room, Qt::SmoothTransformation) : picture;
}

void HelpPage::show_station(Station station) {
    document()->setDefaultFont(Theme::font(18));
    setViewportMargins(Theme::px(40), Theme::px(16), Theme::px(40), Theme::px(16));
    setMarkdown(page_of(station));
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
