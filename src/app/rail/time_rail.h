// The strip along the bottom: every frame a slat at its capture time, as wide as its exposure, and over it the traces
// of what was measured.
#pragma once

#include <QPixmap>
#include <QPointer>
#include <QWidget>
#include <array>
#include <map>
#include <vector>

#include "app/rail/rail_layout.h"
#include "app/rail/rail_traces.h"
#include "app/rail/taper_wedge.h"
#include "app/work/studio.h"
#include "app/work/surveyor.h"

class QToolButton;

namespace bp::app {

class TimeRail : public QWidget {
    Q_OBJECT

  public:
    TimeRail(Studio& studio, Surveyor& surveyor, QWidget* parent = nullptr);

    // Where a frame's slat stands now; for keyboard, tests and tooltips alike.
    QRectF slat_of(int id) const;
    // Frames by their place in the run, from 1: for people who do not see them.
    int frame_count() const;
    QString words_of(int number) const;
    QRectF place_of_number(int number) const;
    bool is_selected(int number) const;
    bool is_current(int number) const;
    // As a click on it does.
    void press(int number);
    // Names of the traces that are drawn, from the top.
    const QStringList& shown_traces() const { return shown_; }
    void show_trace(const QString& key, bool on);
    // Shows these too, until others are brought.
    void bring_traces(const QStringList& keys);
    // Shows the taper of the zone that is worked on, where one is set.
    void show_taper(bool on);
    std::optional<TaperWedge> wedge() const;
    // Another taper than the pile's, while it is tried out elsewhere; none: the pile's.
    void try_method(const std::optional<Method>& method);
    // In place of whole frames: what every frame has around a place of the canvas.
    struct PatchPlace {
        QPointF at;        // in pixels of the canvas
        double side = 80;  // the same
        QImage shown;      // what the picture has there; null where it is not known
    };
    void show_patches(bool on);
    bool shows_patches() const { return patches_on_; }
    // The place moves there, unless it is held.
    void set_patch_place(const PatchPlace& place);
    const std::optional<PatchPlace>& patch_place() const { return patch_; }
    // While it is held a click takes the place from a frame.
    void hold_patches(bool on);
    bool holds_patches() const { return patches_held_; }
    // Whether a frame has something else there than the picture.
    bool differs(int id) const;
    // Marks a frame that is pointed at elsewhere; 0 for none.
    void point_at(int id);
    int pointed_at() const { return pointed_; }
    // Whether a click on a tag is one on the tag, and not on the frame.
    void set_tags_clickable(bool on) { tags_clickable_ = on; }
    // Gives up the drag of the taper; false when there is none.
    bool leave_drag();
    double zoom() const { return zoom_; }
    // About a place on the widget, which stays where it is.
    void zoom_to(double zoom, double at);
    // About the current frame.
    void zoom_by(double factor);
    // To the frame of this place in the run, or the nearest that there is.
    void go_to(int number, bool extend);
    // What stands in the head line, beside the words: on the left and on the right.
    void set_head(QWidget* left, QWidget* right);
    // Moves the selected frames so many places in the run.
    void move_selected(int by);

  signals:
    // The list of what can be done with the selected frames.
    void menu_wanted(QPoint global);
    // A frame was chosen by the person, not by the program.
    void frame_chosen();
    void tag_clicked(int frame);                 // that of a frame of which parts lie over the base
    void slat_pointed(int frame);                // the pointer has come to a slat; 0 for none
    void taper_tried(const bp::Taper& taper);    // while a handle is pulled
    void taper_settled(const bp::Taper& taper);  // when it is let go
    void taper_left();                           // the drag was given up
    // The held place is taken from a frame, or given back.
    void patch_clicked(int frame, bool take);
    void patches_held(bool on);

  protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent*) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;
    bool event(QEvent* event) override;

  private:
    void lay_out();
    void fit_height();
    QStringList drawn_traces() const;
    void follow_current();
    double room() const;
    double slat_top() const;
    double wedge_height() const;
    QRectF place_of(const Slat& slat) const;
    int frame_at(QPointF p) const;
    // What stands below a slat, from its middle to the right.
    struct Below {
        bool role = false, reference = false, base = false, tag = false;
        int before_tag() const { return int(role) + int(reference) + int(base); }
    };
    Below below(const Frame& frame) const;
    QPointF below_at(const QRectF& slat, int number) const;
    // The frame whose tag is there; 0 for none.
    int tag_at(QPointF p) const;
    void choose(int id, Qt::KeyboardModifiers modifiers);
    QPixmap miniature(int id, QSize size) const;
    // So many times as wide as it is high.
    QImage patch_of(int id, double aspect = 1) const;
    void draw_slat(QPainter& painter, std::size_t i, bool selected) const;
    void draw_picture(QPainter& painter, int id, const QRectF& place) const;
    void draw_role(QPainter& painter, const Frame& frame, const QRectF& place) const;
    void draw_marks(QPainter& painter, const Frame& frame, const QRectF& place) const;
    void draw_times(QPainter& painter) const;
    void draw_trace(QPainter& painter, const Trace& trace, double top) const;
    void draw_breaks(QPainter& painter) const;
    void draw_stitches(QPainter& painter) const;
    void draw_extent(QPainter& painter) const;
    void draw_carried(QPainter& painter) const;
    QRectF words_place() const;
    void place_heads();
    // Below the slats, where frames are taken to be carried to another place.
    bool on_foot(QPointF p) const;
    // Before which frame of the run what is carried would come to lie.
    std::size_t place_for(double x) const;
    QString tip_for(int id) const;
    void fill_menu();

    Studio& studio_;
    Surveyor& surveyor_;
    QToolButton* choose_;
    QStringList shown_;
    QStringList brought_;
    RailLayout layout_;
    double zoom_ = 1;
    double scroll_ = 0;
    bool scrubbing_ = false;
    bool grips_ = false;                  // the foot of a slat is held
    std::optional<std::size_t> carried_;  // before this place of the run, while frames are carried
    std::array<QPointer<QWidget>, 2> heads_;
    bool taper_wanted_ = false;
    int pointed_ = 0;
    bool tags_clickable_ = false;
    bool patches_on_ = false, patches_held_ = false;
    std::optional<PatchPlace> patch_;
    std::vector<double> patch_shown_;  // of the picture, for comparing
    std::optional<TaperWedge::Handle> held_, near_;
    std::optional<Taper> pulled_;  // while a handle is held
    std::optional<Method> tried_;  // while it is pulled elsewhere
    // Thumbnails cut to their slats: cutting hundreds anew for every paint would show when frames are flipped.
    mutable std::map<int, QPixmap> miniatures_;
};

}  // namespace bp::app
