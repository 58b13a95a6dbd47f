#include "window/file_chooser.h"

#include <QAbstractFileIconProvider>
#include <QDir>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QPainter>
#include <QPainterPath>
#include <QStandardPaths>
#include <QVBoxLayout>
#include <map>

#include "theme/theme.h"
#include "theme/words.h"
#include "window/fields.h"

namespace skarvel {
namespace {

// What lies in a drawer, as it looks there: another drawer, a job's ticket, a picture, a sheet. The model asks for it
// from a thread of its own: all of it is drawn before.
class Things : public QAbstractFileIconProvider {
  public:
    void draw() {
        drawer_ = drawer();
        ticket_ = ticket();
        picture_ = picture();
        sheet_ = sheet();
    }
    QIcon icon(IconType type) const override { return type == Folder || type == Drive ? drawer_ : sheet_; }
    QIcon icon(const QFileInfo& info) const override {
        if (info.isDir()) return drawer_;
        const QString ending = info.suffix().toLower();
        if (ending == "skarvel") return ticket_;
        if (ending == "png" || ending == "jpg" || ending == "jpeg" || ending == "svg" || ending == "dxf")
            return picture_;
        return sheet_;
    }

  private:
    template <class Draw>
    static QIcon drawn(Draw draw) {
        constexpr int side = 40;
        QPixmap map(side, side);
        map.fill(Qt::transparent);
        QPainter p(&map);
        p.setRenderHint(QPainter::Antialiasing);
        p.setPen(QPen(Theme::tokens().graphite, 2));
        draw(p);
        return map;
    }
    static QIcon drawer() {
        return drawn([](QPainter& p) {
            p.setBrush(Theme::tokens().paper);
            p.drawRect(QRectF(4, 8, 32, 24));
            p.drawLine(QPointF(4, 20), QPointF(36, 20));
            p.setBrush(Theme::tokens().graphite);
            for (const double y : {14.0, 26.0}) p.drawEllipse(QPointF(20, y), 1.6, 1.6);
        });
    }
    static QIcon ticket() {
        return drawn([](QPainter& p) {
            p.setBrush(Theme::tokens().sheet);
            p.drawRect(QRectF(10, 5, 20, 30));
            p.setPen(QPen(Theme::tokens().chalk, 3));
            p.drawLine(QPointF(14, 14), QPointF(26, 14));
            p.setPen(QPen(Theme::tokens().pencil, 2));
            for (const double y : {21.0, 27.0}) p.drawLine(QPointF(14, y), QPointF(26, y));
        });
    }
    static QIcon picture() {
        return drawn([](QPainter& p) {
            p.setBrush(Theme::tokens().sheet);
            p.drawRect(QRectF(5, 8, 30, 24));
            QPainterPath hill(QPointF(8, 29));
            hill.lineTo(17, 17);
            hill.lineTo(24, 25);
            hill.lineTo(28, 21);
            hill.lineTo(33, 29);
            p.drawPath(hill);
        });
    }
    static QIcon sheet() {
        return drawn([](QPainter& p) {
            p.setBrush(Theme::tokens().sheet);
            p.drawRect(QRectF(9, 5, 22, 30));
            p.setPen(QPen(Theme::tokens().pencil, 2));
            for (const double y : {14.0, 20.0, 26.0}) p.drawLine(QPointF(14, y), QPointF(26, y));
        });
    }
    QIcon drawer_, ticket_, picture_, sheet_;
};

// Where each thing was asked for the last time.
std::map<QString, QString>& last_places() {
    static std::map<QString, QString> places;
    return places;
}

}  // namespace

FileChooser::FileChooser(For what, const QString& title, const QStringList& endings, const QString& at, QWidget* parent)
    : QDialog(parent), for_(what) {
    setWindowTitle(title);
    setObjectName("file chooser");
    resize(Theme::px(680), Theme::px(500));
    auto* all = new QVBoxLayout(this);
    all->setContentsMargins(20, 16, 20, 16);
    all->setSpacing(8);
    all->addWidget(label(title, Role::Title, this));
    auto* top = new QHBoxLayout;
    up_ = button(in_words("files.out-of-this-drawer"), Role::Plain, this);
    up_->setIcon(Theme::icon("arrow-left"));
    up_->setObjectName("folder above");
    top->addWidget(up_);
    folder_ = new QLineEdit(this);
    folder_->setAccessibleName(in_words("files.folder"));
    folder_->setObjectName("folder");
    top->addWidget(folder_, 1);
    all->addLayout(top);
    auto* middle = new QHBoxLayout;
    auto* places = new QVBoxLayout;
    places->setSpacing(4);
    for (const auto& [name, where] : {std::pair("files.home", QStandardPaths::HomeLocation),
                                      std::pair("files.documents", QStandardPaths::DocumentsLocation),
                                      std::pair("files.pictures", QStandardPaths::PicturesLocation),
                                      std::pair("files.downloads", QStandardPaths::DownloadLocation)}) {
        const QString path = QStandardPaths::writableLocation(where);
        if (path.isEmpty() || !QFileInfo(path).isDir()) continue;
        auto* go_there = button(in_words(name), Role::Text, this);
        places->addWidget(go_there);
        connect(go_there, &QPushButton::clicked, this, [this, path] { go(path); });
    }
    places->addStretch(1);
    middle->addLayout(places);
    model_ = new QFileSystemModel(this);
    static Things things;  // outlives every model
    things.draw();
    model_->setIconProvider(&things);
    model_->setFilter(what == For::Folder ? QDir::AllDirs | QDir::NoDotAndDotDot
                                          : QDir::AllDirs | QDir::Files | QDir::NoDotAndDotDot);
    model_->setNameFilters(endings);
    model_->setNameFilterDisables(false);
    list_ = new QListView(this);
    list_->setModel(model_);
    list_->setIconSize({Theme::px(22), Theme::px(22)});
    list_->setUniformItemSizes(true);
    list_->setSpacing(1);
    list_->setSelectionMode(what == For::Files ? QAbstractItemView::ExtendedSelection
                                               : QAbstractItemView::SingleSelection);
    list_->setAccessibleName(in_words("files.what-lies-here"));
    list_->setObjectName("what lies here");
    middle->addWidget(list_, 1);
    all->addLayout(middle, 1);
    auto* bottom = new QHBoxLayout;
    name_ = new QLineEdit(this);
    name_->setPlaceholderText(in_words(what == For::Folder ? "files.this-folder" : "files.name"));
    name_->setAccessibleName(in_words("files.name"));
    name_->setObjectName("name");
    bottom->addWidget(name_, 1);
    auto* leave = button(in_words("files.leave"), Role::Plain, this);
    leave->setAutoDefault(false);
    bottom->addWidget(leave);
    take_ = button({}, Role::Main, this);
    take_->setObjectName("take");
    take_->setDefault(true);
    bottom->addWidget(take_);
    all->addLayout(bottom);
    up_->setAutoDefault(false);

    connect(leave, &QPushButton::clicked, this, &QDialog::reject);
    connect(take_, &QPushButton::clicked, this, &FileChooser::take);
    connect(up_, &QPushButton::clicked, this, [this] {
        QDir dir(folder_->text());
        if (dir.cdUp()) go(dir.absolutePath());
    });
    connect(folder_, &QLineEdit::editingFinished, this, [this] {
        if (folder_->isModified()) go(folder_->text());
    });
    connect(name_, &QLineEdit::textChanged, this, [this] {
        replacing_.clear();
        show_what();
    });
    connect(list_, &QListView::activated, this, &FileChooser::pick);
    connect(list_->selectionModel(), &QItemSelectionModel::selectionChanged, this, [this] {
        QStringList names;
        for (const QModelIndex& i : list_->selectionModel()->selectedIndexes()) {
            if (for_ == For::Folder || !model_->isDir(i)) names << model_->fileName(i);
        }
        if (!names.isEmpty()) name_->setText(names.join("; "));
    });
    const QFileInfo there(at.isEmpty() ? QDir::homePath() : at);
    if (what == For::Saving) {
        go(there.absolutePath());
        name_->setText(there.fileName());
        name_->setSelection(0, static_cast<int>(there.completeBaseName().size()));
    } else {
        go(there.isDir() ? there.absoluteFilePath() : there.absolutePath());
    }
    name_->setFocus();
    show_what();
}

void FileChooser::go(const QString& folder) {
    const QFileInfo there(folder);
    if (!there.isDir()) {
        folder_->setText(QDir::toNativeSeparators(model_->rootPath()));
        return;
    }
    const QString path = there.absoluteFilePath();
    list_->setRootIndex(model_->setRootPath(path));
    folder_->setText(path);
    folder_->setModified(false);
    if (for_ != For::Saving) name_->clear();
    show_what();
}

// A drawer is opened; what is looked for is taken.
void FileChooser::pick(const QModelIndex& index) {
    if (model_->isDir(index)) return go(model_->filePath(index));
    name_->setText(model_->fileName(index));
    take();
}

QString FileChooser::full(const QString& typed) const {
    const QString name = typed.trimmed();
    if (name == "~" || name.startsWith("~/")) return QDir::homePath() + name.mid(1);
    return QDir::isAbsolutePath(name) ? name : QDir(model_->rootPath()).absoluteFilePath(name);
}

void FileChooser::show_what() {
    take_->setText(in_words(!replacing_.isEmpty() ? "files.replace-it"
                            : for_ == For::Saving ? "files.save-here"
                            : for_ == For::Folder ? "files.take-this-folder"
                                                  : "files.open"));
    take_->setEnabled(for_ == For::Folder || !name_->text().trimmed().isEmpty());
}

void FileChooser::take() {
    const QString typed = name_->text().trimmed();
    if (for_ == For::Folder) {
        chosen_ = {typed.isEmpty() ? model_->rootPath() : full(typed)};
        return accept();
    }
    if (typed.isEmpty()) return;
    const QString one = full(typed);
    if (QFileInfo(one).isDir()) return go(one);
    if (for_ == For::Saving) {
        const QString with_ending = QFileInfo(one).suffix().isEmpty() && !model_->nameFilters().isEmpty()
                                        ? one + model_->nameFilters().front().mid(1)
                                        : one;
        // What is there already is replaced by a second press alone.
        if (QFileInfo::exists(with_ending) && replacing_ != with_ending) {
            replacing_ = with_ending;
            return show_what();
        }
        chosen_ = {with_ending};
        return accept();
    }
    QStringList names;
    const bool one_by_one = for_ == For::Files && !QFileInfo(one).isFile();
    for (const QString& name : one_by_one ? typed.split(';') : QStringList{typed}) {
        if (QFileInfo(full(name)).isFile()) names << full(name);
    }
    if (names.isEmpty()) {
        name_->selectAll();
        return;
    }
    chosen_ = names;
    accept();
}

QStringList FileChooser::ask(For what, QWidget* parent, const QString& title, const QStringList& endings,
                             const QString& at) {
    FileChooser chooser(what, title, endings, at.isEmpty() ? last_places()[title] : at, parent);
    if (chooser.exec() != Accepted) return {};
    const QFileInfo first(chooser.chosen().value(0));
    last_places()[title] = first.isDir() ? first.absoluteFilePath() : first.absolutePath();
    return chooser.chosen();
}

QString FileChooser::file(QWidget* parent, const QString& title, const QStringList& endings, const QString& at) {
    return ask(For::File, parent, title, endings, at).value(0);
}
QStringList FileChooser::files(QWidget* parent, const QString& title, const QStringList& endings) {
    return ask(For::Files, parent, title, endings, {});
}
QString FileChooser::folder(QWidget* parent, const QString& title, const QString& at) {
    return ask(For::Folder, parent, title, {}, at).value(0);
}
QString FileChooser::saving(QWidget* parent, const QString& title, const QStringList& endings, const QString& at) {
    return ask(For::Saving, parent, title, endings, at).value(0);
}

}  // namespace skarvel
