// How the frames of the open pile would lie under every model, found in small pictures.
#pragma once

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
    // Finds them, if the pile is not the one that they are of.
    void find();
    // Nobody looks at them any more: what is not found yet is left until it is asked for again.
    void give_up();
    void clear();
    Lane& lane() { return lane_; }

  signals:
    void found();

  private:
    struct Setting;

    Studio& studio_;
    Lane lane_;
    std::map<Model, std::map<int, Alignment>> places_;
    std::shared_ptr<const Setting> setting_;
};

}  // namespace bp::app
