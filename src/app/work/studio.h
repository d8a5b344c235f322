// What a person works on: the open pile, which frame is looked at, and the long jobs that open, align, save and export.
#pragma once

#include <QStringList>
#include <functional>
#include <map>
#include <vector>

#include "app/work/document.h"
#include "app/work/jobs.h"
#include "app/work/model_previews.h"
#include "app/work/stores.h"
#include "app/work/thumbnails.h"
#include "engine/checking.h"
#include "engine/export.h"
#include "engine/growth.h"
#include "engine/open.h"
#include "engine/relink.h"
#include "engine/spots.h"
#include "pile/outcome_guess.h"

namespace bp::app {

class Studio : public QObject {
    Q_OBJECT

  public:
    explicit Studio(QObject* parent = nullptr);

    Document& document() { return document_; }
    const Pile& pile() const { return document_.pile(); }
    Stores& stores() { return stores_; }
    Thumbnails& thumbnails() { return thumbnails_; }
    ModelPreviews& previews() { return previews_; }
    // Each kind of work has a lane of its own, so that none stops another.
    Lane& opening() { return opening_; }      // opening, adding, looking for missing frames
    Lane& placing() { return placing_; }      // aligning what was opened, as its outcome asks for
    Lane& saving() { return saving_; }        // piles, one after the other
    Lane& exporting() { return exporting_; }  // pictures, one after the other
    Lane& finding() { return finding_; }      // aligning, levels, suspected spots, zones
    Lane& measuring() { return measuring_; }  // spots to be mended, one after the other
    bool busy() const {
        return opening_.busy() || placing_.busy() || finding_.busy() || measuring_.busy() || writing();
    }
    // False, with a sentence, while what was opened is being aligned: what would be found or written is for frames that
    // do not lie where they will.
    bool placed();
    // Something is on its way to the disk.
    bool writing() const { return saving_.busy() || exporting_.busy(); }

    // Who lets what was opened take the place of the open pile, or does not: asked when the work is done, because
    // people work on meanwhile. `edited` is told whether they did, since they asked for it.
    using Gate = std::function<void(std::function<bool()> edited, std::function<void()> take_up)>;
    void set_gate(Gate gate) { gate_ = std::move(gate); }

    // Files, folders or one pile; a pile is opened as a pile. Without an outcome one is guessed.
    // `then`: once a pile is open.
    void open(const QStringList& names, std::optional<Outcome> outcome, std::function<void()> then = {});
    // Frames with the settings of a saved pile, as far as they are not about its own frames.
    void open_like(const QStringList& names, const QString& pattern);
    // What the open pile was taken for, until the person says what it is.
    const std::optional<OutcomeGuess>& outcome_guess() const { return outcome_guess_; }
    void take_guess();
    // A pile that was never on disk.
    void begin(Pile pile, const QString& name) { document_.start_unsaved(std::move(pile), {}, name); }
    // Adds to the open pile, or opens when there is none.
    // `inner`: also what is in the folders of a folder.
    void add(const QStringList& names, bool inner = false);
    void open_demo(const QString& scene);
    // A pile that a crash left behind (recovery.h): it counts as edited, and is saved to `path` where it was open from
    // there. `then`: once it is open.
    void open_left_over(const QString& file, const QString& path, const QString& name, std::function<void()> then);
    // `done` is told whether the pile is on disk now.
    void save(const QString& path, std::function<void(bool)> done = {});
    // Looks where a spot of the picture is best mended from.
    void mend_picture(Point at, double width_px, std::function<void(const Mended&)> then);
    // Turns the picture so that its horizon is level.
    void find_horizon();
    // The values of Finish alone, to a file of theirs and from one, or from a pile.
    void save_finish(const QString& path);
    void take_finish(const QString& path);
    // The picture, in one of the versions that the pile asks for.
    void export_to(const QString& path, const ExportSettings& version);
    void grow_to(const QString& path);
    void align(Model model, int reference);
    // The zone that the Align and Merge steps work on; sky while the picture is not divided.
    Zone zone() const { return pile().zones ? zone_ : Zone::sky; }
    void set_zone(Zone zone);
    void suggest_zones();
    // Brings the border of the zones to edges within so many pixels of the picture.
    void snap_zones(double reach_px);
    // One frame, from where it lies.
    void refine(int id);
    void level(Levelling kind);
    void mend_hot_pixels(bool on);
    // Looks for aircraft, satellites and meteors in all frames.
    void find_streaks();
    // Makes parts of what moves against the cleared scene, or of the meteors of all frames: those are aligned by their
    // stars first where they are not.
    void find_subjects();
    void find_shower();
    // Takes what belongs to a place of the canvas from a frame, or gives it back; `more` of it from 0 on.
    void take_place(int frame, Point at, int more, bool take);
    // What of a frame is like a place of the canvas in it (like_at()), as a mask.
    void find_alike(int frame, Point at, double reach, bool everywhere, std::function<void(const Mask&)> then);
    // Looks for what may have been overlooked in the picture.
    void check(std::function<void(const std::vector<Flawed>&)> then);
    // Finds how the lights moved, and closes the breaks in their trails; or opens them again.
    void knit(bool on);
    // Measures spots of the sensor and mends them in all frames: places in its pixels, with their radii.
    struct SpotPlace {
        Point at;
        double radius_px;
    };
    void mend_spots(std::vector<SpotPlace> places);
    void guess_spots();
    // Those that are not mended.
    std::vector<SpotGuess> spot_guesses() const { return suspected(pile(), spot_guesses_); }
    void choose_outcome(Outcome outcome);
    void look_in(const QString& folder);  // for missing frames
    // Changed frames are used as they are now.
    void take_changed();

    // The frame that Frame and Difference show, and what edits of frames work on.
    int current() const { return document_.selection().current; }
    const std::vector<int>& selected() const { return document_.selection().ids; }
    void select(int id, bool extend = false, bool toggle = false);
    void step_current(int by, bool extend = false);
    void select_these(std::vector<int> ids);  // the first of them becomes the current one
    void toggle_aside();
    void remove_selected();

    // A file turned out to be broken while it was read.
    void report_broken(const Failure& failure);
    void say(const QString& text, bool trouble = false);

  signals:
    void said(const QString& text, bool trouble);
    void selection_changed();
    void zone_changed();
    void outcome_guessed();  // or it is a guess no more
    void spots_guessed();
    // A place was taken from a frame, into this part.
    void place_taken(int part);
    void saved(const QString& path);
    void exported(const QString& path, const bp::Exported& result);
    void grown(const QString& path, const bp::GrownFile& result);

  private:
    void tell(const Failure& failure);
    // Writes on the lane of exports, and takes over which frames turned out to be broken.
    template <class T>
    void write_on_lane(const QString& path, std::function<Result<T>(Job&)> write, std::function<void(const T&)> done);
    void take_problems(const Pile& written);
    void watch(Lane& lane);
    // Runs `work` on a lane and hands what it found to `take`, if the pile that it was found for is still open.
    template <class T>
    void find_on(Lane& lane, const QString& name, std::function<Result<T>(Job&)> work, std::function<void(T)> take) {
        if ((&lane == &finding_ || &lane == &measuring_) && !placed()) return;
        lane.run<Result<T>>(
            std::move(work),
            [this, name, take = std::move(take), of = document_.identity()](Result<T> found) {
                if (!found.ok())
                    tell(found.failure());
                else if (of != document_.identity())
                    say(tr("%1: this was for a pile that is no longer open, and is left out.").arg(name));
                else
                    take(std::move(found).value());
            },
            name);
    }
    // Opens on the lane and hands what came of it to `take`, once it may take the place of the open pile.
    template <class T>
    void open_on_lane(const QString& name, std::function<Result<T>(Job&)> work, std::function<void(T)> take);
    void take_zones(std::function<Result<Mask>(Job&)> find, const QString& what);
    void take_files(std::function<Result<Relinked>(Job&)> find, const QString& what);
    // The pile is open while its frames are aligned, so that they can be looked at.
    void place_what_was_opened();
    void align(Model model, int reference, Zone of);
    void say_moved(double px);
    void say_unaligned(const std::map<int, Alignment>& found);
    // Frames that are not in `before` and lie nowhere yet, while the others are aligned.
    void align_what_came(const Pile& before);
    // In a sentence, when frames that have just come are not all alike.
    void say_what_was_lost(const LoadedPile& loaded);
    void say_what_was_sorted_out(const std::vector<Frame>& frames);

    Document document_;
    Stores stores_;
    Lane opening_;
    Lane placing_;
    Lane saving_;
    Lane exporting_;
    Lane finding_;
    Lane measuring_;
    Thumbnails thumbnails_;
    ModelPreviews previews_;
    Zone zone_ = Zone::sky;
    std::vector<SpotGuess> spot_guesses_;
    std::optional<OutcomeGuess> outcome_guess_;
    Gate gate_;
    long opened_ = 0;  // how often something was to be opened
};

}  // namespace bp::app
