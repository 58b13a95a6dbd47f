#include "window/sheets_view.h"

#include <QCoreApplication>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QPageSize>
#include <QPainter>
#include <QPainterPath>
#include <QPrintDialog>
#include <QPrinter>
#include <QScrollBar>
#include <QVBoxLayout>

#include "sheets/sheets.h"
#include "theme/roles.h"
#include "theme/theme.h"
#include "theme/words.h"
#include "window/fields.h"

namespace skarvel {
namespace {

QColor grey(double level) {
    return QColor::fromRgbF(static_cast<float>(level), static_cast<float>(level), static_cast<float>(level));
}

struct PagePainter {
    QPainter& p;
    double scale;

    [[nodiscard]] QPainterPath path(const std::vector<PagePoint>& points, bool closed) const {
        QPainterPath path;
        for (std::size_t i = 0; i < points.size(); ++i) {
            const QPointF at(points[i].x * scale, points[i].y * scale);
            i == 0 ? path.moveTo(at) : path.lineTo(at);
        }
        if (closed) path.closeSubpath();
        return path;
    }
    void operator()(const Fill& fill) const {
        QPainterPath all;
        all.setFillRule(Qt::WindingFill);
        for (const auto& ring : fill.rings) all.addPath(path(ring, true));
        p.fillPath(all, grey(fill.grey));
    }
    void operator()(const PageLine& stroke) const {
        p.setPen(
            QPen(grey(stroke.grey), std::max(0.6, stroke.width * scale), stroke.dashed ? Qt::DashLine : Qt::SolidLine));
        p.setBrush(Qt::NoBrush);
        p.drawPath(path(stroke.points, stroke.closed));
    }
    void operator()(const TextRun& run) const {
        QFont font = Theme::font(15, run.bold ? QFont::DemiBold : QFont::Normal);
        font.setPixelSize(std::max(1, static_cast<int>(run.size_mm * scale + 0.5)));
        p.setFont(font);
        p.setPen(grey(run.grey));
        const QString text = QString::fromStdString(run.text);
        const double wide = QFontMetricsF(font).horizontalAdvance(text);
        const double shift = run.align == Align::Left ? 0 : run.align == Align::Centre ? wide / 2 : wide;
        p.drawText(QPointF(run.at.x * scale - shift, run.at.y * scale), text);
    }
};

// A sheet is paper in day and night.
class PageWidget : public QWidget {
  public:
    PageWidget(Page page, QWidget* parent) : QWidget(parent), page_(std::move(page)) {
        setFixedSize(static_cast<int>(page_.width_mm * scale), static_cast<int>(page_.height_mm * scale));
        setAccessibleName(QString::fromStdString(page_.title));
    }

  protected:
    void paintEvent(QPaintEvent*) override {
        QPainter p(this);
        p.setRenderHint(QPainter::Antialiasing);
        p.fillRect(rect(), Qt::white);
        for (const auto& mark : page_.marks) std::visit(PagePainter{p, scale}, mark);
        p.setPen(QPen(Theme::tokens().pencil, 1));
        p.setBrush(Qt::NoBrush);
        p.drawRect(rect().adjusted(0, 0, -1, -1));
    }

  private:
    static constexpr double scale = 3.4;  // pixels for a millimetre
    Page page_;
};

}  // namespace

SheetsView::SheetsView(Desk& desk, QWidget* parent) : QScrollArea(parent), desk_(desk) {
    setWidgetResizable(true);
    setObjectName("sheets");
    setAccessibleName(in_words("word.sheets"));
    auto* body = new QWidget;
    dress(body, Role::Sheet);
    auto* layout = new QVBoxLayout(body);
    layout->setContentsMargins(24, 10, 24, 24);
    layout->setSpacing(14);
    // Above the pages, which run below it.
    bar_ = new QWidget(this);
    dress(bar_, Role::Sheet);
    auto* top = new QHBoxLayout(bar_);
    top->setContentsMargins(24, 10, 24, 10);
    const auto turning = [&](const char* icon, const char* words, int by) {
        QPushButton* made = button({}, Role::Plain, bar_);
        made->setIcon(Theme::icon(icon));
        made->setObjectName(by < 0 ? "page back" : "page on");
        made->setAccessibleName(in_words(words));
        made->setToolTip(in_words(words));
        connect(made, &QPushButton::clicked, this, [this, by] { turn(by); });
        top->addWidget(made);
        return made;
    };
    back_ = turning("chevron-left", "sheets-view.page-back", -1);
    on_ = turning("chevron-right", "sheets-view.page-on", 1);
    top->addSpacing(8);
    says_ = label({}, Role::Title, bar_);
    says_->setWordWrap(false);
    top->addWidget(says_, 1);
    QPushButton* save = button(in_words("sheets-view.save-cut-files-and"), Role::Main, bar_);
    connect(save, &QPushButton::clicked, this, &SheetsView::save_wanted);
    print_ = button(in_words("sheets-view.print"), Role::Plain, bar_);
    print_->setObjectName("print");
    connect(print_, &QPushButton::clicked, this, [this] {
        QPrinter printer(QPrinter::HighResolution);
        printer.setDocName(QString::fromStdString(desk_.job().title));
        QPrintDialog dialog(&printer, this);
        dialog.setOption(QAbstractPrintDialog::PrintPageRange);
        dialog.setMinMax(1, static_cast<int>(drawn_.size()));
        if (dialog.exec() == QDialog::Accepted) print_on(printer);
    });
    top->addWidget(print_);
    top->addWidget(save);
    setWidget(body);
    connect(verticalScrollBar(), &QScrollBar::valueChanged, this, &SheetsView::say_page);
    connect(verticalScrollBar(), &QScrollBar::rangeChanged, this, &SheetsView::say_page);
    connect(&desk, &Desk::plan_changed, this, [this] {
        if (isVisible()) refresh();
    });
}

void SheetsView::refresh() {
    pages_.stop();
    show_pages(nullptr);
    if (!desk_.current() || desk_.plan().colours.empty()) return;
    pages_.run([job = desk_.job(), plan = desk_.plan(), shop = desk_.shop(),
                library = desk_.shared_library()](const std::stop_token&) { return sheets(job, plan, shop, *library); },
               [this](const std::vector<Page>& pages) { show_pages(&pages); });
}

// At their own size: a millimetre on the sheet is one on the paper.
void SheetsView::print_on(QPrinter& printer) const {
    const int first = std::max(1, printer.fromPage());
    const int last = printer.toPage() > 0 ? printer.toPage() : static_cast<int>(drawn_.size());
    QPainter p;
    for (int i = first; i <= std::min(last, static_cast<int>(drawn_.size())); ++i) {
        const Page& page = drawn_[static_cast<std::size_t>(i - 1)];
        printer.setPageSize(QPageSize(QSizeF(page.width_mm, page.height_mm), QPageSize::Millimeter));
        printer.setPageMargins(QMarginsF(0, 0, 0, 0));
        printer.setFullPage(true);
        if (!p.isActive() ? !p.begin(&printer) : !printer.newPage()) {
            Q_EMIT desk_.said(in_words("sheets-view.not-printed"), true);
            return;
        }
        p.setRenderHint(QPainter::Antialiasing);
        for (const auto& mark : page.marks) std::visit(PagePainter{p, printer.resolution() / 25.4}, mark);
    }
}

// nullptr: they are still being drawn.
void SheetsView::show_pages(const std::vector<Page>* pages) {
    // The button stays, with the focus that it may have; only what is below it is made anew.
    auto* layout = static_cast<QVBoxLayout*>(widget()->layout());
    drawn_ = pages == nullptr ? std::vector<Page>{} : *pages;
    print_->setEnabled(!drawn_.empty());
    shown_.clear();
    delete below_;
    below_ = new QWidget(widget());
    auto* below = new QVBoxLayout(below_);
    below->setContentsMargins(0, 0, 0, 0);
    below->setSpacing(14);
    if (pages == nullptr) {
        below->addWidget(label(in_words("sheets-view.being-drawn"), Role::Plain, below_));
    } else {
        // On paper the cautions lie on top; here what is looked for comes first, and they come last.
        for (std::size_t i = 0; i < pages->size(); ++i) {
            shown_.push_back(new PageWidget((*pages)[(i + 1) % pages->size()], below_));
            below->addWidget(shown_.back(), 0, Qt::AlignHCenter);
        }
    }
    below->addStretch(1);
    layout->addWidget(below_, 1);
    // Laid out at once, so that a page is turned from the first moment it is seen.
    below_->show();
    below->activate();
    layout->activate();
    QEvent laid(QEvent::LayoutRequest);
    QCoreApplication::sendEvent(this, &laid);
    say_page();
}

void SheetsView::resizeEvent(QResizeEvent* event) {
    QScrollArea::resizeEvent(event);
    const int high = bar_->sizeHint().height();
    setViewportMargins(0, high, 0, 0);
    bar_->setGeometry(0, 0, width(), high);
    say_page();
}

// The one that takes the upper part of what is seen.
int SheetsView::page_at() const {
    const int from = verticalScrollBar()->value() + viewport()->height() / 4;
    int at = 0;
    for (std::size_t i = 0; i < shown_.size(); ++i) {
        if (shown_[i]->mapTo(widget(), QPoint()).y() <= from) at = static_cast<int>(i);
    }
    return at;
}

void SheetsView::turn(int by) {
    if (shown_.empty()) return;
    const int to = std::clamp(page_at() + by, 0, static_cast<int>(shown_.size()) - 1);
    verticalScrollBar()->setValue(shown_[static_cast<std::size_t>(to)]->mapTo(widget(), QPoint()).y() - 10);
}

void SheetsView::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_PageUp) return turn(-1);
    if (event->key() == Qt::Key_PageDown) return turn(1);
    QScrollArea::keyPressEvent(event);
}

// Which page it is, by the name that stands on it.
void SheetsView::say_page() {
    const int at = page_at();
    const auto all = static_cast<int>(shown_.size());
    back_->setEnabled(at > 0);
    on_->setEnabled(at + 1 < all && verticalScrollBar()->value() < verticalScrollBar()->maximum());
    const QString words =
        all == 0 ? in_words("sheets-view.sheets-to-hold-at")
                 : in_words("sheets-view.page-of", {{"title", shown_[static_cast<std::size_t>(at)]->accessibleName()},
                                                    {"page", at + 1},
                                                    {"pages", all}});
    says_->setText(says_->fontMetrics().elidedText(words, Qt::ElideRight, std::max(says_->width(), Theme::px(80))));
    says_->setToolTip(words);
}

}  // namespace skarvel
