// Edits: functions from one pile to the next. Ids that are not in the pile change nothing.
#pragma once

#include <map>
#include <span>

#include "pile/pile.h"

namespace bp {

Pile with_aside(Pile pile, std::span<const int> ids, bool aside);
// No more than so many of the frames that are merged, spread over the run, and nothing knitted between them: for what a
// few can tell of all.
Pile with_spread(Pile pile, std::size_t most);
// As a person says it.
Pile with_role(Pile pile, std::span<const int> ids, Role role);
// Roles by frame id that were guessed. Only for frames of which nobody said anything.
Pile with_guesses(Pile pile, const std::map<int, Role>& roles);
Pile with_note(Pile pile, int id, const std::string& note);
// Makes another frame the reference. Alignments and levels that are there are carried over to it.
Pile with_reference(Pile pile, int id);
// Leaves these pixels of frames out of the base; an empty mask takes them in again.
Pile with_left_out(Pile pile, std::span<const int> ids, const Mask& area);
// Takes frames out of the pile altogether, with the parts that show them. The last usable frame stays.
Pile without_frames(Pile pile, std::span<const int> ids);
Pile with_strength(Pile pile, std::span<const int> ids, double strength);
// Of all frames, and of some on top of it.
Pile with_look(Pile pile, const Look& look);
Pile with_own_look(Pile pile, std::span<const int> ids, const Look& look);
// Mends these in all frames; null mends none.
Pile with_hot_pixels(Pile pile, SharedHotPixels pixels);
Pile with_darks(Pile pile, Darks darks);
// Mends a spot in all frames, in place of any that it overlaps; takes away the spots that hold a place of the sensor.
Pile with_spot(Pile pile, const SensorSpot& spot);
Pile without_spot(Pile pile, Point sensor);
// Sets the levelling together with what was measured for each frame id. What a person said stays.
Pile with_gains(Pile pile, Levelling kind, const std::map<int, LightGains>& levels);
// Says of one frame how much brighter it is to be, in EV, whatever was measured.
Pile with_gain_by_person(Pile pile, int id, double ev);
Pile with_mode(Pile pile, Mode mode, Zone zone = Zone::sky);
// How the frames are merged, but not how they are aligned.
struct MergeSettings {
    PerZone<Method> methods;
    Knit knit;
    Light light = Light::linear;
    friend bool operator==(const MergeSettings&, const MergeSettings&) = default;
};
MergeSettings merge_settings_of(const Pile& pile);
// The models of the pile stay.
Pile with_merge_settings(Pile pile, const MergeSettings& settings);
// Whether lighten, maximum and minimum choose channels or whole pixels.
Pile with_choice_by(Pile pile, By by, Zone zone = Zone::sky);
Pile with_taper(Pile pile, const Taper& taper, Zone zone = Zone::sky);
// Whether added light nears white softly.
Pile with_soft_white(Pile pile, bool soft, Zone zone = Zone::sky);
Pile with_head(Pile pile, const Head& head, Zone zone = Zone::sky);
Pile with_knit(Pile pile, const Knit& knit);
// Divides the picture: `sky` is what a person painted or the program found. What the zones were before stays where it
// was set; a land that is new is merged by the median of frames as they lie.
Pile with_zones(Pile pile, const Mask& sky);
Pile with_feather(Pile pile, double feather_px);
// One zone again: the sky's way and places count everywhere.
Pile without_zones(Pile pile);
// Lays the picture on another canvas. An area that cannot be is none; a crop keeps what lies on it.
Pile with_canvas(Pile pile, const CanvasSettings& canvas);
// Shows and exports this area of the canvas; none: what `cover` says.
Pile with_crop(Pile pile, std::optional<Rect> crop);
// Turned so far, clockwise, held within the limits.
Pile with_turn(Pile pile, double degrees);
Pile with_base(Pile pile, int id);
// Marks a frame as unusable, with the reason.
Pile with_problem(Pile pile, int id, const Saying& problem);
// Sets the model together with what it gave for each frame id. Frames that a person placed stay there.
Pile with_alignments(Pile pile, Model model, int reference, const std::map<int, Alignment>& alignments,
                     Zone zone = Zone::sky);
// Where aligning may look, in pixels of the reference.
Pile with_trust(Pile pile, const Mask& trust);
// Merges frames that could not be aligned, or leaves them out again.
Pile with_insisted(Pile pile, std::span<const int> ids, bool insisted, Zone zone = Zone::sky);
// A frame moved on from where it lies by a person: `change` leads from canvas to canvas. Under a lens only its shift
// counts. While nothing is aligned, all other frames count as aligned where they are.
Pile with_moved_by_hand(Pile pile, int id, const Matrix& change, Zone zone = Zone::sky);
// One frame's place; whoever found it.
Pile with_alignment(Pile pile, int id, const Alignment& alignment, Zone zone = Zone::sky);
// First values of an outcome. Frames and parts stay as they are.
Pile with_outcome(Pile pile, Outcome outcome);
// Adds frames and gives them ids. They join a run that is in the order of order_frames() where they belong; one that
// was given another order keeps it, and they come after it.
Pile with_frames(Pile pile, std::vector<Frame> frames);
// The same for frames that have ids already.
Pile with_numbered_frames(Pile pile, const std::vector<Frame>& frames);
// Takes another file for a frame whose own is gone.
Pile with_file(Pile pile, int id, const SharedFrameFile& file);

// By capture time, then by natural file name; frames without a time come after those with one.
void order_frames(std::vector<Frame>& frames);
Pile with_order_by_time(Pile pile);
Pile with_order_by_name(Pile pile);
// These frames, in the order that they have, before the one that is at place `before` now; `before` may be one beyond
// the last.
Pile with_moved_frames(Pile pile, std::span<const int> ids, std::size_t before);
// Whether the frames lie in the order of their times.
bool in_order_of_time(const Pile& pile);

}  // namespace bp
