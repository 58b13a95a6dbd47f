#include "stations/photograph_strip.h"

#include <QBuffer>
#include <QHBoxLayout>
#include <QImageReader>
#include <QLabel>

#include "files/photographs.h"
#include "theme/theme.h"
#include "theme/words.h"
#include "window/fields.h"

namespace skarvel {
namespace {

constexpr int high = 84;
constexpr std::size_t most = 6;

QImage small(const std::string& bytes) {
    QByteArray data = QByteArray::fromRawData(bytes.data(), static_cast<qsizetype>(bytes.size()));
    QBuffer buffer(&data);
    QImageReader reader(&buffer);
    reader.setAutoTransform(true);
    // Read no larger than it is shown.
    const QSize size = reader.size();
    if (size.isValid()) reader.setScaledSize(size.scaled(QSize(high * 2, high * 2), Qt::KeepAspectRatio));
    return reader.read().scaledToHeight(high, Qt::SmoothTransformation);
}

}  // namespace

PhotographStrip::PhotographStrip(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
    setObjectName("photographs");
    setAccessibleName(in_words("photographs.title"));
    auto* line = new QHBoxLayout(this);
    line->setContentsMargins(0, 0, 0, 0);
    line->setSpacing(6);
    hide();
}

void PhotographStrip::show_step(const StepId& step) {
    std::vector<Photograph> wanted;
    for (const Photograph& p : desk_.job().bench.photographs) {
        if ((step.name.empty() || p.step == step) && wanted.size() < most) wanted.push_back(p);
    }
    if (wanted == shown_) return;
    shown_ = wanted;
    reading_.run(
        [wanted, path = desk_.path(), library = desk_.shared_library(),
         display = desk_.shop().display](const std::stop_token&) {
            std::vector<Small> all;
            for (const Photograph& p : wanted) {
                const auto bytes = photograph_bytes(path, p);
                Small one{p.file, {}, {}, show_moment(p.taken, true)};
                if (bytes)
                    one.picture = small(*bytes);
                else
                    one.trouble = library->catalogue.say(bytes.error().what, display);
                all.push_back(std::move(one));
            }
            return all;
        },
        [this](const std::vector<Small>& all) {
            while (QLayoutItem* item = layout()->takeAt(0)) {
                if (item->widget() != nullptr) item->widget()->deleteLater();
                delete item;
            }
            for (const Small& one : all) {
                auto* l = label({}, one.trouble.empty() ? Role::Small : Role::Stop, this);
                if (one.picture.isNull())
                    l->setText(text_of(one.trouble.empty() ? one.file : one.trouble));
                else
                    l->setPixmap(QPixmap::fromImage(one.picture));
                l->setToolTip(text_of(one.taken));
                l->setAccessibleName(in_words("photographs.taken", {{"taken", text_of(one.taken)}}));
                layout()->addWidget(l);
            }
            static_cast<QHBoxLayout*>(layout())->addStretch(1);
            setVisible(!all.empty());
            Q_EMIT changed();
        });
    if (wanted.empty()) hide();
}

}  // namespace skarvel
