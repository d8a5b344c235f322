// Small controls that steps share.
#pragma once

#include <QComboBox>
#include <QDoubleSpinBox>
#include <QLabel>
#include <QPushButton>
#include <QSlider>
#include <QVBoxLayout>
#include <functional>

namespace bp::app {

// Tab goes through what is inside as the eye does: by the layouts, from the top and the left.
void order_tabs(QWidget& root);
// The wheel changes no value unless the control has the focus: it scrolls what the control lies in.
void guard_wheel(QObject& application);

// For what no layout places, where words may run from right to left: the rectangle as a person reads it, and the side
// at which lines begin.
QRectF as_read(const QWidget& of, const QRectF& place);
Qt::Alignment beginning(const QWidget& of);

// Takes a widget away. It may be what is just being clicked: it goes when that is over.
void let_go(QWidget* widget);

QLabel* heading(const QString& text, QWidget* parent);
QLabel* quiet_label(const QString& text, QWidget* parent);
QPushButton* push(const QString& text, const QString& name, const QString& tip, QWidget* parent);
// A box to choose from, which Tab reaches.
QComboBox* choice(const QString& name, const QString& words, const QString& tip, QWidget* parent);
QPushButton* lamp_push(const QString& text, const QString& name, const QString& tip, QWidget* parent);

// Seconds from the shortest exposure to hours, without needless zeros.
class SecondsBox : public QDoubleSpinBox {
    Q_OBJECT

  public:
    SecondsBox(const QString& object, const QString& words, double most, QWidget* parent);
    QString textFromValue(double value) const override;
};

// A slider under its name and value. `changed` comes while it is dragged; `settled` when it is let go or stepped by
// key.
class NamedSlider : public QWidget {
    Q_OBJECT

  public:
    NamedSlider(const QString& name, const QString& tip, int low, int high, std::function<QString(int)> words,
                QWidget* parent);
    int value() const { return slider_->value(); }
    void set_value(int value);  // without a signal
    QSlider* slider() const { return slider_; }
    // Gives up the drag of whichever slider is in the hand; false when none is.
    static bool leave_drag();

  signals:
    void changed(int value);
    void settled(int value);
    void left();  // a drag was given up, and the value is as before

  private:
    void show_value();

    QSlider* slider_;
    QLabel* value_;
    std::function<QString(int)> words_;
    int before_ = 0;  // the drag
};

}  // namespace bp::app
