// What the program found and a person decides about: each shown, taken or left, or all taken at once.
#pragma once

#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QWidget>
#include <vector>

namespace bp::app {

struct FoundThing {
    int key = 0;  // its own among those of the list
    QString words;
    QString tip;
    bool taken = false;
    bool shown = false;  // it is what is looked at
};

class FoundList : public QWidget {
    Q_OBJECT

  public:
    struct Words {
        QString object;  // the list's; that of the button is take_all_<object>
        QString name, tip;
        QString take_all, take_all_tip;  // empty: they are not taken all at once
    };
    FoundList(const Words& words, QWidget* parent);

    // A tick stands for what is taken. While there is nothing only the title shows, if there is one.
    void set_things(const std::vector<FoundThing>& things, const QString& title);

  signals:
    // A person has chosen one, by click or arrow key.
    void chosen(int key);
    void decided(const std::vector<int>& keys, bool take);

  private:
    static int key_of(const QListWidgetItem& item) { return item.data(Qt::UserRole).toInt(); }
    bool holds_these(const std::vector<FoundThing>& things) const;

    QLabel* title_;
    QListWidget* list_;
    QPushButton* all_;
};

}  // namespace bp::app
