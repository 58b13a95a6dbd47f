#include "theme/drawn_icon.h"

#include <QApplication>
#include <QFile>
#include <QIconEngine>
#include <QPainter>
#include <QPixmapCache>
#include <QStyle>
#include <QStyleOption>
#include <QSvgRenderer>

namespace skarvel {
namespace {

class DrawnIcon : public QIconEngine {
  public:
    DrawnIcon(QString file, const QColor& colour) : file_(std::move(file)), colour_(colour) {}

    void paint(QPainter* painter, const QRect& where, QIcon::Mode mode, QIcon::State state) override {
        const qreal dots = painter->device()->devicePixelRatio();
        painter->drawPixmap(where, pixmap((QSizeF(where.size()) * dots).toSize(), mode, state));
    }

    QPixmap pixmap(const QSize& size, QIcon::Mode mode, QIcon::State) override {
        const QString key =
            QString("%1 %2 %3x%4 %5").arg(file_, colour_.name()).arg(size.width()).arg(size.height()).arg(mode);
        QPixmap made;
        if (QPixmapCache::find(key, &made)) return made;
        made = QPixmap(size);
        made.fill(Qt::transparent);
        QFile file(file_);
        if (file.open(QIODevice::ReadOnly)) {
            QPainter painter(&made);
            QSvgRenderer drawing(file.readAll().replace("currentColor", colour_.name().toLatin1()));
            drawing.setAspectRatioMode(Qt::KeepAspectRatio);
            drawing.render(&painter);
        }
        if (mode == QIcon::Disabled) {
            QStyleOption option;
            option.palette = QApplication::palette();
            made = QApplication::style()->generatedIconPixmap(mode, made, &option);
        }
        QPixmapCache::insert(key, made);
        return made;
    }

    [[nodiscard]] QIconEngine* clone() const override { return new DrawnIcon(*this); }

  private:
    QString file_;
    QColor colour_;
};

}  // namespace

QIcon drawn_icon(const QString& file, const QColor& colour) { return QIcon(new DrawnIcon(file, colour)); }

}  // namespace skarvel
