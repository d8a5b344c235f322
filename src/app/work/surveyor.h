// Knows the frames of the open pile: looks at each in the background and holds them against each other.
#pragma once

#include <QTimer>
#include <vector>

#include "app/work/studio.h"
#include "engine/survey.h"

namespace bp::app {

class Surveyor : public QObject {
    Q_OBJECT

  public:
    explicit Surveyor(Studio& studio);

    // Null while nothing is known of the frame.
    const Findings* of(int id) const;
    // Frames with marks, in the order of the run.
    std::vector<int> odd_ids() const;
    // True when every frame has been looked at; and when all have been looked at closely.
    bool complete() const;
    bool complete_finely() const;
    bool busy() const { return looking_.busy() || knowing_.busy() || soon_.isActive(); }

  signals:
    void changed();

  private:
    // What the answer depends on, apart from what was seen.
    struct Setting {
        int reference = 0;
        std::vector<std::pair<int, int>> roles;  // frame id, role or -1 when it cannot be used
        friend bool operator==(const Setting&, const Setting&) = default;
    };
    static Setting setting_of(const Pile& pile);

    void start_anew();
    void look();
    // At full size, when nothing else is wanted: for blur that the small pictures do not show.
    void look_closely();
    void make_way();
    std::vector<int> unseen_closely() const;
    void pile_changed();
    void guess();
    void hold_against_each_other();

    Studio& studio_;
    Lane looking_;
    Lane closer_;
    Lane knowing_;
    QTimer soon_;
    QTimer rest_;
    int anchor_ = 0;  // frame id; 0 while none is chosen
    Sightings seen_;
    std::map<int, Findings> known_;
    Setting setting_;
};

}  // namespace bp::app
