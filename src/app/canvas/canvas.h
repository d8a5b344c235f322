// The picture: pan, zoom from fit to 800 %, and painting of parts. What the left button does works from the keyboard,
// too: Ctrl and the arrows move a mark over the picture (with Shift pixel by pixel), and Enter is the button.
#pragma once

#include <QTimer>
#include <QToolButton>
#include <QTransform>
#include <QWidget>
#include <map>
#include <optional>
#include <utility>
#include <vector>

#include "app/canvas/canvas_tool.h"
#include "app/canvas/comparison.h"
#include "app/canvas/paint_tool.h"
#include "app/canvas/viewer.h"

namespace bp::app {

// A line that is marked on the picture, in canvas pixels: drawn around, so that it stays to be seen.
struct MarkedLine {
    QPointF from, to;
    double width = 1;
    Qt::PenStyle style = Qt::SolidLine;
    bool strong = false;
    friend bool operator==(const MarkedLine&, const MarkedLine&) = default;
};

class Canvas : public QWidget {
    Q_OBJECT

  public:
    Canvas(Studio& studio, Viewer& viewer, Comparison& comparison, QWidget* parent = nullptr);

    double zoom() const { return zoom_; }
    // The zoom at which a pixel of the picture is one of the screen.
    double pixel_by_pixel() const { return 1 / devicePixelRatioF(); }
    // Zoom, and what lies under the pointer, in words.
    QString readout() const;
    void fit();
    void zoom_to(double zoom, QPointF anchor);
    void zoom_by(double factor);
    // A place of the picture in the middle, at full size at least.
    void look_at(QPointF place);

    // Takes up the brush, which comes before any tool, or puts it down for null. Target and tool must outlive their use
    // here.
    void set_painting(MaskTarget* on);
    bool painting() const { return paint_.target() != nullptr; }
    const MaskTarget* paints_on() const { return paint_.target(); }
    void set_tool(CanvasTool* tool);
    bool has_tool() const { return tool_ != nullptr; }
    // Gives up the stroke or the drag that goes on; false when there is none.
    bool leave_drag();
    // Gives up painting, or the tool that was taken up; false when there is none.
    bool leave_tool();
    // By keys: `way` is one of the four directions. Moves the picture, and the mark that stands for the pointer.
    void pan(QPointF way);
    void step_mark(QPointF way);
    // Shows the second of two pictures in turn with the first, both whole.
    void set_flicker(bool on);
    bool flickers() const { return flicker_.isActive(); }
    const Brush& brush() const { return paint_.brush(); }
    void set_brush(const Brush& brush);
    void set_show_mask(bool on);
    bool shows_clipping() const { return show_clipping_; }
    void set_show_clipping(bool on);
    void set_marked(std::vector<MarkedLine> lines);
    const std::vector<MarkedLine>& marked() const { return marked_lines_; }
    // The point that is seen through all frames.
    void set_plumb(std::optional<QPointF> at);
    // Closed lines over the picture, in canvas pixels: around a part, and around places of it that are hatched.
    void set_outlined(std::vector<QPolygonF> lines, std::vector<QPolygonF> hatched = {});
    const std::vector<QPolygonF>& outlined() const { return outlined_; }
    const std::vector<QPolygonF>& hatched() const { return hatched_; }
    std::optional<QPointF> plumb() const { return plumb_; }
    // The pole of the turning sky, where the pile has one.
    void set_show_pole(bool on);

    // Where the divider between two pictures stands, from 0 (left) to 1.
    double divider() const { return divider_; }
    void set_divider(double at);
    // While held, the second picture is seen alone.
    void set_flipped(bool on);

    // The picture may be turned: what is seen are places of the turned one.
    QPointF to_screen(QPointF canvas) const { return shown_to_screen(turned().map(canvas)); }
    QPointF to_canvas(QPointF screen) const { return turned().inverted().map(screen_to_shown(screen)); }
    QTransform screen_to_canvas() const;
    QPointF shown_to_screen(QPointF shown) const;
    QPointF screen_to_shown(QPointF screen) const;
    // The screen's part of what an area of the canvas touches.
    QRect on_screen(const Rect& area) const;
    // Where the pointer is on the widget; left of it when it is elsewhere.
    QPointF pointer() const { return pointer_; }
    // How hard the pen is pressed that is at work, 0 to 1, and whether by its other end; 1 of a mouse.
    double pen_pressure() const { return pen_pressure_; }
    bool pen_erases() const { return pen_erases_; }
    QToolButton* zoom_button() const { return zoom_button_; }

  signals:
    void zoom_changed();
    void brush_changed();
    void painting_changed();
    // A point of the canvas was clicked on, or Enter pressed over it, and no tool was at hand.
    void clicked(QPointF canvas);
    // The pointer, or the mark of the keyboard, has come to a place of the canvas.
    void pointed(QPointF canvas);
    // The frame under the pointer where origins are seen; 0 for none.
    void origin_pointed(int frame);
    // The list of what can be done with the picture.
    void menu_wanted(QPoint global);
    // A person left the tool: who gave it takes it back.
    void tool_left();

  protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override;
    void wheelEvent(QWheelEvent* event) override;
    void tabletEvent(QTabletEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void leaveEvent(QEvent*) override;
    void contextMenuEvent(QContextMenuEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void keyReleaseEvent(QKeyEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;

  private:
    // From places of the canvas to those of the turned picture, both counted from edges of pixels.
    QTransform turned() const;
    QRect shown_on_screen(const Rect& shown) const;
    double fit_zoom() const;
    // The left button, or Enter. False when nothing here takes it.
    bool put_down(QPointF at);
    // What a click does that no tool has taken: it tells the point, and where origins are seen it chooses the frame
    // that shows there.
    void click(QPointF at);
    void move_to(QPointF at);
    void lift();
    // The one that has the left button; null for none.
    CanvasTool* at_hand() { return painting() ? &paint_ : tool_; }
    const CanvasTool* at_hand() const { return painting() ? &paint_ : tool_; }
    void move_mark(QPointF by);
    void draw_mark(QPainter& painter) const;
    void keep_inside();
    void ask();
    void settle_cursor(QPointF at);
    void moved_from(QPointF before);
    bool on_divider(QPointF at) const;
    double divider_x() const { return width() * divider_; }
    void draw_picture(QPainter& painter, const Viewer& viewer, const QRectF& frame, const QRectF& clip) const;
    void draw_divider(QPainter& painter) const;
    void draw_pole(QPainter& painter) const;
    void draw_marked(QPainter& painter) const;
    void draw_plumb(QPainter& painter) const;
    void draw_outlined(QPainter& painter) const;
    QString origin_in_words(int x, int y) const;
    QString samples_in_words(const std::array<int, 3>& samples) const;
    void draw_layer(QPainter& painter, const Layer& layer) const;
    void draw_readout(QPainter& painter) const;
    QRect readout_place(const QString& text) const;

    Studio& studio_;
    Viewer& viewer_;
    Comparison& comparison_;
    double divider_ = 0.5;
    bool dividing_ = false;
    bool flipped_ = false;
    double zoom_ = 1;
    bool fitted_ = true;
    QPointF centre_;  // canvas point (edges) in the middle of the widget
    QPointF pointer_{-1, -1};
    double pen_pressure_ = 1;
    bool pen_erases_ = false;
    bool marked_ = false;  // the pointer stands where the keys have put it
    bool down_by_key_ = false;
    bool panning_ = false;
    QPointF grabbed_;
    QPointF pressed_;
    int pointed_origin_ = 0;
    mutable QRect readout_drawn_;
    QToolButton* zoom_button_;
    PaintTool paint_{*this};
    CanvasTool* tool_ = nullptr;
    bool tool_works_ = false;
    QTimer flicker_;
    bool second_in_turn_ = false;
    bool show_clipping_ = false;
    bool show_pole_ = false;
    std::vector<MarkedLine> marked_lines_;
    std::optional<QPointF> plumb_;
    std::vector<QPolygonF> outlined_, hatched_;
    mutable std::map<const Layer*, std::pair<qint64, QImage>> clipping_;  // of a layer's image, by its key
};

}  // namespace bp::app
