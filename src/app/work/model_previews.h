// How the frames of the open pile would lie under every model, found in small pictures.
//
// Whoever works has the cores to himself: it rests while frames are chosen and edits are made, and goes on where it was
// when nothing has changed for a while.
#pragma once

#include <QTimer>
#include <map>
#include <memory>

#include "app/work/jobs.h"
#include "pile/pile.h"

namespace bp::app {

class Studio;

class ModelPreviews : public QObject {
    Q_OBJECT

  public:
    explicit ModelPreviews(Studio& studio);

    // Null while it is not known.
    const std::map<int, Alignment>* of(Model model) const;
    // Finds those that are not known, of the pile as it is now.
    void find();
    // Nobody looks at them any more: what is not found yet is left until it is asked for again.
    void give_up();
    void clear();
    void make_way();
    Lane& lane() { return lane_; }

  signals:
    void found();  // all of them

  private:
    struct Setting;
    void go_on();

    Studio& studio_;
    Lane lane_;
    QTimer rest_;
    bool wanted_ = false;
    std::map<Model, std::map<int, Alignment>> places_;
    std::shared_ptr<const Setting> setting_;
};

}  // namespace bp::app
