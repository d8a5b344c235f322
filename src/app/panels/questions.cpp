#include "app/panels/questions.h"

#include <QCoreApplication>
#include <QDialogButtonBox>
#include <QDir>
#include <QFileDialog>
#include <QFileInfo>
#include <QFileSystemModel>
#include <QHeaderView>
#include <QKeyEvent>
#include <QLineEdit>
#include <QMessageBox>
#include <QPushButton>
#include <QSettings>
#include <QTreeView>

namespace bp::app {
namespace {

struct Asked {
    Q_DECLARE_TR_FUNCTIONS(Asked)
};

QString key_of(Places kind) {
    switch (kind) {
        case Places::frames:
            return QStringLiteral("places/frames");
        case Places::piles:
            return QStringLiteral("places/piles");
        case Places::finishes:
            return QStringLiteral("places/finishes");
        case Places::profiles:
            return QStringLiteral("places/profiles");
        case Places::pictures:
            break;
    }
    return QStringLiteral("places/pictures");
}

QString folder_of(const QString& path) {
    const QFileInfo facts(path);
    return facts.isDir() ? facts.absoluteFilePath() : facts.absolutePath();
}

QString beginning(Places kind, const QString& near) {
    const QString last = QSettings().value(key_of(kind)).toString();
    if (!near.isEmpty() && QFileInfo::exists(folder_of(near))) return folder_of(near);
    return QFileInfo::exists(last) ? last : QDir::homePath();
}

void remember(Places kind, const QString& path) {
    QSettings().setValue(key_of(kind), folder_of(path));
}

// Of the size that such dialogs had before.
bool accepted(QFileDialog& dialog) {
    constexpr QSize first(860, 540);
    // As wide as what is in it, and the name as wide as there is room.
    if (auto* list = dialog.findChild<QTreeView*>(QStringLiteral("treeView"))) {
        list->header()->setStretchLastSection(false);
        list->header()->setSectionResizeMode(QHeaderView::ResizeToContents);
        list->header()->setSectionResizeMode(0, QHeaderView::Stretch);
    }
    const QString key = QStringLiteral("places/dialog_size");
    dialog.resize(QSettings().value(key, first).toSize());
    const bool yes = dialog.exec() == QDialog::Accepted;
    QSettings().setValue(key, dialog.size());
    return yes && !dialog.selectedFiles().isEmpty();
}

// The list of the toolkit takes Enter for its present line alone, and for nothing where there is none: what is marked
// is meant then.
class EnterIsMeant : public QObject {
  public:
    EnterIsMeant(QFileDialog& dialog, QTreeView& list) : QObject(&dialog), dialog_(dialog), list_(list) {
        list.installEventFilter(this);
    }

  protected:
    bool eventFilter(QObject* watched, QEvent* event) override {
        const auto* key = event->type() == QEvent::KeyPress ? static_cast<QKeyEvent*>(event) : nullptr;
        if (!key || (key->key() != Qt::Key_Return && key->key() != Qt::Key_Enter) || list_.currentIndex().isValid() ||
            !list_.selectionModel()->hasSelection())
            return QObject::eventFilter(watched, event);
        if (const auto* box = dialog_.findChild<QDialogButtonBox*>())
            for (QAbstractButton* button : box->buttons())
                if (box->buttonRole(button) == QDialogButtonBox::AcceptRole) button->click();
        return true;
    }

  private:
    QFileDialog& dialog_;
    QTreeView& list_;
};

// Whoever marks all means the pictures: a folder among them would be gone into instead.
void mark_files_alone(QFileDialog& dialog) {
    auto* list = dialog.findChild<QTreeView*>(QStringLiteral("treeView"));
    if (!list) return;
    new EnterIsMeant(dialog, *list);
    QItemSelectionModel* marked = list->selectionModel();
    QObject::connect(marked, &QItemSelectionModel::selectionChanged, &dialog, [marked] {
        QItemSelection folders;
        bool files = false;
        for (const QModelIndex& index : marked->selectedRows()) {
            const bool folder = QFileInfo(index.data(QFileSystemModel::FilePathRole).toString()).isDir();
            if (folder) folders.select(index, index);
            files = files || !folder;
        }
        if (files && !folders.isEmpty())
            marked->select(folders, QItemSelectionModel::Deselect | QItemSelectionModel::Rows);
    });
}

// Empty when nothing was chosen. Whether something is there already is asked by who asks for the name.
QString ask_for_name(QWidget* parent, const QString& title, const QString& folder, const QString& filter,
                     const QString& proposed) {
    QFileDialog dialog(parent, title, folder, filter);
    dialog.setAcceptMode(QFileDialog::AcceptSave);
    dialog.setFileMode(QFileDialog::AnyFile);
    dialog.setOption(QFileDialog::DontConfirmOverwrite);
    dialog.selectFile(proposed);
    const auto* field = dialog.findChild<QLineEdit*>(QStringLiteral("fileNameEdit"));
    if (!accepted(dialog)) return {};
    // What stands in the field counts, whatever is marked in the list beside it.
    return field ? dialog.directory().absoluteFilePath(field->text()) : dialog.selectedFiles().first();
}

}  // namespace

QString place_of(Places kind) {
    return beginning(kind, {});
}

QStringList ask_for_files(QWidget* parent, Places kind, const QString& title, const QString& filter,
                          const QString& near) {
    QFileDialog dialog(parent, title, beginning(kind, near), filter);
    dialog.setFileMode(QFileDialog::ExistingFiles);
    mark_files_alone(dialog);
    if (!accepted(dialog)) return {};
    remember(kind, dialog.selectedFiles().first());
    return dialog.selectedFiles();
}

QString ask_for_folder(QWidget* parent, Places kind, const QString& title, const QString& near) {
    QFileDialog dialog(parent, title, beginning(kind, near));
    dialog.setFileMode(QFileDialog::Directory);
    dialog.setOption(QFileDialog::ShowDirsOnly);
    if (!accepted(dialog)) return {};
    remember(kind, dialog.selectedFiles().first());
    return dialog.selectedFiles().first();
}

QString ask_where_to_write(QWidget* parent, Places kind, const QString& title, const QString& filter,
                           const QString& ending, const QString& name, const QString& near) {
    QString folder = beginning(kind, near);
    QString proposed = name;
    while (true) {
        QString path = ask_for_name(parent, title, folder, filter, proposed);
        if (path.isEmpty()) return {};
        if (!path.endsWith(ending, Qt::CaseInsensitive)) path += ending;
        folder = QFileInfo(path).absolutePath();
        proposed = QFileInfo(path).fileName();
        if (QFileInfo::exists(path)) {
            const auto answer = ask(parent, Asked::tr("%1 is there already.").arg(proposed),
                                    Asked::tr("In %1. What is in it now would be lost.").arg(folder),
                                    {{Asked::tr("Choose another name"), Asked::tr("Goes back to the dialog")},
                                     {Asked::tr("Replace it"), Asked::tr("Writes over the file")}});
            if (!answer) return {};
            if (*answer == 0) continue;
        }
        remember(kind, path);
        return path;
    }
}

QString ask_for_new_folder(QWidget* parent, Places kind, const QString& title, const QString& name) {
    QString folder = beginning(kind, {});
    QString proposed = name;
    while (true) {
        const QString path = ask_for_name(parent, title, folder, {}, proposed);
        if (path.isEmpty()) return {};
        const QFileInfo there(path);
        if (!there.exists() || (there.isDir() && QDir(path).isEmpty())) {
            remember(kind, path);
            return path;
        }
        folder = there.absolutePath();
        proposed = there.fileName();
        const auto answer = ask(parent, Asked::tr("%1 is there already.").arg(proposed),
                                Asked::tr("In %1. Pictures go into a new folder, or one that is empty.").arg(folder),
                                {{Asked::tr("Choose another name"), Asked::tr("Goes back to the dialog")}});
        if (!answer) return {};
    }
}

std::optional<int> ask(QWidget* parent, const QString& question, const QString& more,
                       const std::vector<Answer>& answers) {
    QMessageBox box(parent);
    box.setObjectName(QStringLiteral("question"));
    box.setWindowTitle(Asked::tr("Bright Pile"));
    box.setText(question);
    box.setInformativeText(more);
    std::vector<QAbstractButton*> buttons;
    for (const Answer& answer : answers) {
        QPushButton* button = box.addButton(answer.words, QMessageBox::ActionRole);
        button->setObjectName(QStringLiteral("answer_%1").arg(buttons.size()));
        button->setToolTip(answer.tip);
        button->setAccessibleDescription(answer.tip);
        if (buttons.empty()) {
            button->setProperty("lamp", true);
            box.setDefaultButton(button);
        }
        buttons.push_back(button);
    }
    // Escape and the cross answer nothing: a button that is not shown stands for them.
    QPushButton* nothing = box.addButton(QMessageBox::Cancel);
    nothing->hide();
    box.setEscapeButton(nothing);
    box.exec();
    for (std::size_t i = 0; i < buttons.size(); ++i)
        if (box.clickedButton() == buttons[i]) return int(i);
    return std::nullopt;
}

}  // namespace bp::app
