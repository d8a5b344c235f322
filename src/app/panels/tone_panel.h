// Tone and colour of a look: the one control for it, wherever a look is set.
#pragma once

#include <QSpinBox>
#include <QWidget>
#include <vector>

#include "app/looks/controls.h"
#include "app/panels/colour_pads.h"
#include "app/panels/tone_ribbon.h"

namespace bp::app {

class TonePanel : public QWidget {
    Q_OBJECT

  public:
    // Its controls are called `object` and the name of their value.
    explicit TonePanel(QWidget* parent, QString object = QStringLiteral("look"));
    // Shown without a signal; what is being dragged stays in the hand.
    void set_look(const Look& look);
    void set_distribution(std::vector<float> shares) { ribbon_->set_distribution(std::move(shares)); }
    // A grey picture has no colour part.
    void set_coloured(bool coloured);
    bool leave_drag();
    ToneRibbon& ribbon() { return *ribbon_; }
    // Takes up what points at a place that was grey.
    QPushButton* neutral_button() const { return neutral_; }
    const Look& look() const { return look_; }

  signals:
    void tried(const bp::Look& look);
    // `value` is the name of what was set, in words.
    void settled(const bp::Look& look, const QString& value);
    void left();
    // A knot is in the hand: what is clipped wants to be seen.
    void knot_held(bool held);

  private:
    QSpinBox* number(const LookValue& value, QWidget* parent);
    NamedSlider* slider(const LookValue& value);
    void set(const LookValue& value, double amount, bool settles);
    void show_numbers();

    QString object_name(const LookValue& value) const;

    QString object_;
    ToneRibbon* ribbon_;
    QWidget* colour_;
    CastPad* cast_;
    HueRing* hue_;
    QPushButton* neutral_;
    std::vector<std::pair<const LookValue*, QSpinBox*>> numbers_;
    std::vector<std::pair<const LookValue*, NamedSlider*>> sliders_;
    Look look_;
};

}  // namespace bp::app
