// What a person works on: the open pile, which frame is looked at, and the long jobs that open, align, save and export.
#pragma once

#include <QImage>
#include <QStringList>
#include <functional>
#include <map>
#include <vector>

#include "app/document.h"
#include "app/jobs.h"
#include "engine/base_tiles.h"
#include "engine/export.h"
#include "engine/open.h"
#include "engine/store.h"

namespace bp::app {

// How much of the machine the program may take.
struct Room {
    std::size_t memory_bytes = 0;
    std::uint64_t scratch_bytes = 0;
};
struct RoomLimits {
    std::size_t least_memory, most_memory;
    std::uint64_t least_scratch, most_scratch;
};

class Studio : public QObject {
    Q_OBJECT

  public:
    explicit Studio(QObject* parent = nullptr);

    Document& document() { return document_; }
    const Pile& pile() const { return document_.pile(); }
    std::shared_ptr<FrameStore> store() const { return store_; }
    std::shared_ptr<BaseTiles> bases() const { return bases_; }
    // Kept from one run of the program to the next; holds at once.
    const Room& room() const { return room_; }
    void set_room(const Room& room);
    static RoomLimits room_limits();
    const Scratch& scratch() const { return *scratch_; }
    // Opening, aligning, saving, exporting: one at a time.
    Lane& work() { return work_; }
    bool previewing() const { return preview_lane_.busy(); }

    // Files, folders or one pile; a pile is opened as a pile.
    void open(const QStringList& names, Outcome outcome);
    // A pile that was never on disk.
    void begin(Pile pile, const QString& name) { document_.start_unsaved(std::move(pile), name); }
    // Adds to the open pile, or opens when there is none.
    // `inner`: also what is in the folders of a folder.
    void add(const QStringList& names, bool inner = false);
    void open_demo(const QString& scene);
    // A pile that a crash left behind (recovery.h).
    void open_left_over(const QString& path);
    void save(const QString& path);
    void export_to(const QString& path);
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
    // Measures a spot of the sensor and mends it in all frames.
    void mend_spot(Point sensor, double radius_px);
    void guess_spots();
    const std::vector<SpotGuess>& spot_guesses() const { return spot_guesses_; }
    void choose_outcome(Outcome outcome);
    void look_in(const QString& folder);  // for missing frames

    // The frame that Frame and Difference show, and what edits of frames work on.
    int current() const { return current_; }
    const std::vector<int>& selected() const { return selected_; }
    void select(int id, bool extend = false, bool toggle = false);
    void step_current(int by, bool extend = false);
    void select_these(std::vector<int> ids);  // the first of them becomes the current one
    void toggle_aside();
    void remove_selected();

    // Null until it is decoded.
    QImage thumbnail(int id) const;
    int thumbnail_level() const;
    bool thumbnails_complete() const { return thumbnails_done_; }
    const std::map<int, Alignment>* model_preview(Model model) const;
    void preview_models();
    // Of frames that have none yet.
    void load_thumbnails();

    // A file turned out to be broken while it was read.
    void report_broken(const Failure& failure);
    void say(const QString& text, bool trouble = false);

  signals:
    void said(const QString& text, bool trouble);
    void selection_changed();
    void thumbnail_arrived(int id);
    void thumbnails_finished();
    void models_previewed();
    void zone_changed();
    void spots_guessed();
    void exported(const QString& path, const bp::Exported& result);

  private:
    void fresh_stores();
    bool tell(const Failure& failure);
    void take_zones(std::function<Result<Mask>(Job&)> find, const QString& what);
    // In a sentence, when frames that have just come are not all alike.
    void say_what_was_sorted_out(const std::vector<Frame>& frames);

    MemoryBudget budget() const;

    Document document_;
    Room room_;
    std::shared_ptr<Scratch> scratch_;
    std::shared_ptr<FrameStore> store_;
    std::shared_ptr<BaseTiles> bases_;
    Lane work_;
    Lane thumbnail_lane_;
    Lane preview_lane_;
    Zone zone_ = Zone::sky;
    std::vector<SpotGuess> spot_guesses_;
    int current_ = 0;
    int extended_from_ = 0;
    std::vector<int> selected_;
    std::map<int, QImage> thumbnails_;
    std::map<int, std::shared_ptr<const FrameFile>> pictured_;  // the files that they are of
    bool thumbnails_done_ = false;
    std::map<Model, std::map<int, Alignment>> previews_;
};

}  // namespace bp::app
