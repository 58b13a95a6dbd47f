// window/file_chooser.h
//
// Choosing a file, several, a folder, or where to save: the drawers of this computer as a list, with what is looked for
// in them, a name that can be typed, and the folder where each kind of thing was found the last time.
#pragma once

#include <QDialog>
#include <QFileSystemModel>
#include <QLineEdit>
#include <QListView>
#include <QPushButton>
#include <QStringList>

namespace skarvel {

class FileChooser : public QDialog {
    Q_OBJECT

  public:
    enum class For { File, Files, Folder, Saving };
    /// `endings`: patterns like "*.skarvel"; none: every file. `at`: a folder, or a file that is to be saved.
    FileChooser(For what, const QString& title, const QStringList& endings, const QString& at, QWidget* parent);
    /// In full; empty until it was accepted.
    [[nodiscard]] QStringList chosen() const { return chosen_; }

    /// Each asks and gives what was chosen, empty where nothing was. Without `at` it begins where the same was asked
    /// for the last time.
    static QString file(QWidget* parent, const QString& title, const QStringList& endings, const QString& at = {});
    static QStringList files(QWidget* parent, const QString& title, const QStringList& endings);
    static QString folder(QWidget* parent, const QString& title, const QString& at = {});
    static QString saving(QWidget* parent, const QString& title, const QStringList& endings, const QString& at);

  private:
    static QStringList ask(For what, QWidget* parent, const QString& title, const QStringList& endings,
                           const QString& at);
    void go(const QString& folder);
    void pick(const QModelIndex& index);
    void take();
    void show_what();
    [[nodiscard]] QString full(const QString& typed) const;
    For for_;
    QFileSystemModel* model_;
    QListView* list_;
    QLineEdit *folder_, *name_;
    QPushButton *up_, *take_;
    QStringList chosen_;
    QString replacing_;  // a file that is there already, once that was said
};

}  // namespace skarvel
