// What the canvas shows: the picture of the pile, one frame, or a difference, as images of the needed level and area.
#pragma once

#include <QImage>
#include <QTimer>
#include <optional>

#include "app/studio.h"

namespace bp::app {

enum class View { result, frame, difference };

struct Layer {
    QImage image;
    Rect area;  // canvas pixels of level 0 that the image covers
    long serial = 0;
};

class Viewer : public QObject {
    Q_OBJECT

  public:
    explicit Viewer(Studio& studio);

    View view() const { return view_; }
    void set_view(View view);
    // What the canvas needs: the visible area in canvas pixels and screen pixels a canvas pixel.
    void demand(const Rect& visible, double zoom);
    // While a stroke is drawn, the part's mask is this one.
    void set_live_mask(int part, const Mask& mask);
    void drop_live_mask();

    // The area of the canvas that is shown at all.
    Rect area() const { return area_; }
    // A coarse picture of the whole and a fine one of what is visible; the fine one may be older while it is made anew.
    const Layer& overview() const { return overview_; }
    const Layer& detail() const { return detail_; }
    // Samples (0 to 65535) and the place's frame value under a canvas pixel, when they are at hand.
    std::optional<QColor> colour_at(int x, int y) const;
    bool busy() const { return detail_lane_.busy(); }
    Lane& lane() { return detail_lane_; }

  signals:
    void updated();
    void view_changed();
    void area_changed();
    void settled();  // the fine picture is as asked for

  private:
    struct Order;
    void pile_changed();
    void refresh();
    void render_overview();
    void render_detail();
    Order order(const Rect& area, int level) const;
    void arrive(Layer& layer, Result<QImage> image, const Rect& area, long serial);

    Studio& studio_;
    Lane overview_lane_;
    Lane detail_lane_;
    QTimer later_;
    View view_ = View::result;
    Rect area_;
    Rect visible_;
    double zoom_ = 1;
    std::optional<std::pair<int, Mask>> live_;
    Layer overview_;
    Layer detail_;
    long serial_ = 0;
};

}  // namespace bp::app
