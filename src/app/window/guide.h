// The guide of docs/guide, read inside the program: chapters, search, pictures. It needs no network.
#pragma once

#include <QDialog>
#include <QTextBrowser>
#include <vector>

class QLabel;
class QLineEdit;
class QListWidget;

namespace bp::app {

// A chapter as its file has it.
struct Chapter {
    QString file;   // its name in the folder of the guide
    QString title;  // its first heading
    QString text;   // Markdown
};
// In the language that is spoken, those that it lacks in English, in the order in which the contents name them, the
// contents first. Empty where the guide is not installed.
const std::vector<Chapter>& chapters();
// The file of a picture that a chapter names from the folder of the guide: in a folder of the language beside it, where
// there is one that shows the window so.
QString file_of_picture(const QString& guide, const QString& language, const QString& named);
// The chapter of a step, by its number on the step line; the contents where none is open.
QString chapter_of_step(int step);

class GuidePage : public QTextBrowser {
    Q_OBJECT

  public:
    using QTextBrowser::QTextBrowser;

  protected:
    // Pictures are made as wide as the page.
    QVariant loadResource(int type, const QUrl& name) override;
};

// Stays beside the window, which can be worked in.
class Guide : public QDialog {
    Q_OBJECT

  public:
    explicit Guide(QWidget* parent);
    void open_chapter(const QString& file);
    QString chapter() const;

  private:
    // Chapters that hold the words, and the first place of them in the one that is open.
    void find(const QString& words);
    void find_next();
    void show_chapter(int row);

    QListWidget* contents_;
    GuidePage* page_;
    QLineEdit* words_;
    QLabel* none_;
};

}  // namespace bp::app
