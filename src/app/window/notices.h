// What the program says, and the long work that goes on: laid over the window, so that nothing moves when it comes and
// goes. Work stands on a line of its own and never takes the place of a sentence.
#pragma once

#include <QElapsedTimer>
#include <QFrame>
#include <QLabel>
#include <QProgressBar>
#include <QPushButton>
#include <QTimer>
#include <QVBoxLayout>
#include <deque>
#include <vector>

#include "app/work/jobs.h"

namespace bp::app {

class Notices : public QFrame {
    Q_OBJECT

  public:
    // Lies over `ground`, at its upper edge.
    explicit Notices(QWidget* ground);
    // Earlier lanes are shown before later ones. Work shorter than a moment is not shown.
    void watch(Lane& lane);
    // A sentence that stays until it is clicked away, or some seconds have gone by in which it could be read.
    void say(const QString& text, bool trouble);
    // Sentences that are shown, the oldest first.
    QStringList sentences() const;
    // Whether a label is the words of one of them: aids read it out when it comes.
    static bool is_sentence(const QLabel& words);
    // Beneath this, in pixels of the ground, nothing is to be covered.
    void keep_below(int top);

  protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

  private:
    class Sentence;
    class Work;
    void tick();
    void lay_out();

    QVBoxLayout* column_;
    std::deque<Sentence*> sentences_;
    std::vector<Work*> work_;
    QTimer clock_;
    int top_ = 0;
};

}  // namespace bp::app
