// What the canvas shows: the picture of the pile, one frame, or a difference, as images of the needed level and area.
#pragma once

#include <QImage>
#include <QTimer>
#include <array>
#include <functional>
#include <memory>
#include <optional>
#include <utility>

#include "app/work/studio.h"
#include "engine/origins.h"
#include "engine/turning.h"

namespace bp::app {

enum class View { result, frame, difference, cover, origins };
constexpr int view_count = 5;
enum class Against { reference, before };

struct Layer {
    QImage image;
    Rect area;  // canvas pixels of level 0 that the image covers
    int level = 0;
    long serial = 0;
    std::shared_ptr<Raster16> samples = nullptr;       // in the profile of the pile, as they are before they are shown
    bool of_few = false;                               // of some frames: the rest is on its way
    std::shared_ptr<const Origins> origins = nullptr;  // of the pixels of the image, where it shows them
};

class Viewer : public QObject {
    Q_OBJECT

  public:
    // `parent` is the studio when none is given.
    explicit Viewer(Studio& studio, QObject* parent = nullptr);

    // Which frame is shown; the current one when nothing is said.
    void follow(std::function<int()> frame) { frame_ = std::move(frame); }
    // One that is not active makes no pictures.
    void set_active(bool active);
    void show_again() { refresh(); }
    void set_difference(Against against, int gain);
    Against against() const { return against_; }
    int gain() const { return gain_; }

    // Hatches what knitting adds to the result.
    void set_show_added(bool on);
    View view() const { return view_; }
    void set_view(View view);
    // What is shown is made of all frames, not of the one that is looked at.
    bool of_all() const { return view_ == View::result || view_ == View::cover || view_ == View::origins; }
    // Another frame is chosen, and nothing of it would be seen.
    bool hides_choice() const { return view_ == View::result || view_ == View::cover; }
    // What the canvas needs: the visible area in canvas pixels and screen pixels a canvas pixel.
    void demand(const Rect& visible, double zoom);
    // Shows another pile than the document's, while a slider is dragged.
    void try_out(Pile pile);
    // The same while a stroke is drawn: only the mask of a part has changed, and only in `changed`.
    void try_out_mask(int part, const Mask& mask, const Rect& changed);
    // The same for another pile that makes another picture only in `changed`.
    void try_out_in(Pile pile, const Rect& changed);
    // Shows the picture before it is finished.
    void set_finished(bool on);
    // The glow of the sky in place of the picture.
    void set_glow_alone(bool on);
    // Another pile than the document's is shown.
    bool trying() const { return trial_.has_value(); }
    // That pile, or the document's.
    const Pile& shown() const;
    // How it is turned as it is seen.
    Turn turn() const { return Turn(shown()); }
    // Back to the document, because the person gave up what was tried.
    void leave_trial();

    // The area of the canvas that is shown at all.
    Rect area() const { return area_; }
    // A coarse picture of the whole and a fine one of what is visible; the fine one may be older while it is made anew.
    const Layer& overview() const { return overview_; }
    const Layer& detail() const { return detail_; }
    // What the screen shows at a canvas pixel.
    std::optional<QColor> colour_at(int x, int y) const;
    // Samples of 16 bits in the profile of the pile, of the finest picture that is at hand there.
    std::optional<std::array<int, 3>> samples_at(int x, int y) const;
    // What the frame that is looked at has at a place of the canvas, as it was recorded; of the finest size that is at
    // hand.
    std::optional<std::array<int, 3>> recorded_at(Point canvas) const;
    // The finest picture of an area that is at hand, and where the area lies in it, in its pixels; null for none.
    std::pair<std::shared_ptr<const Raster16>, Rect> samples_of(const Rect& area) const;
    // What of the picture is to be seen, as it was demanded.
    const Rect& visible() const { return visible_; }
    // Shows the picture as the profile of the export has it, with what that cannot hold hatched.
    void set_proof(bool on);
    bool proof() const { return proof_; }
    // The two frames that a canvas pixel comes from, by their ids, mostly the same twice; none when they are not shown.
    std::optional<std::pair<int, int>> origin_at(int x, int y) const;
    // A picture is being made, or will be in a moment.
    bool busy() const {
        return overview_lane_.busy() || detail_lane_.busy() || patch_lane_.busy() || later_.isActive();
    }
    // True when the coarse picture, or the fine one too, is of the pile as it is.
    bool seen() const { return overview_.serial == serial_ && !overview_.image.isNull(); }
    bool seen_finely() const { return seen() && detail_.serial == serial_ && !detail_.of_few; }
    Lane& lane() { return detail_lane_; }
    // Where frames are brought nearer, once the picture is there.
    Lane& bringing() { return bringing_lane_; }

  signals:
    void updated();
    void patched(const bp::Rect& area);  // updated, but only in this area of the canvas
    void view_changed();
    void area_changed();
    void settled();  // the fine picture is as asked for
    void tried();    // another pile is tried out, or none any more

  private:
    void end_trial();
    struct Order;
    struct Patches;
    void pile_changed();
    void refresh();
    void grow();
    void render_overview();
    void render_detail();
    void begin_detail(const Rect& area, int level);
    void bring_nearer();
    void patch();
    void paste(const Patches& patches);
    int overview_level() const;
    Order order(const Rect& area, int level) const;
    // Of the pile in this view: its edges are seen in the cover.
    Rect area_shown() const;
    void patch_again();
    bool arrive(Layer& layer, Result<QImage> image, std::shared_ptr<Raster16> samples, const Rect& area, int level,
                long serial, std::shared_ptr<const Origins> origins = nullptr, bool of_few = false);

    Studio& studio_;
    Lane overview_lane_;
    Lane detail_lane_;
    Lane patch_lane_;
    Lane bringing_lane_;
    std::pair<long, std::size_t> brought_{};  // the pile whose frames were brought nearer, and how many they were
    QTimer later_;
    std::function<int()> frame_;
    int ordered_frame_ = 0;
    bool brings_;  // frames nearer: of two that show the same pile one does
    bool active_ = true;
    View view_ = View::result;
    Against against_ = Against::reference;
    int gain_ = 4;
    bool show_added_ = false;
    bool finished_ = true;
    bool glow_alone_ = false;
    bool proof_ = false;
    Rect area_;
    Rect visible_;
    double zoom_ = 1;
    std::optional<Pile> trial_;
    bool trial_waits_ = false;    // for the overview of an earlier one
    Rect tried_mask_;             // where the trial's mask has changed
    Rect unpatched_;              // where it has since the last patch was ordered
    std::size_t grown_from_ = 0;  // frames in the growing picture that was ordered last
    Layer overview_;
    Layer detail_;
    long serial_ = 0;
};

}  // namespace bp::app
