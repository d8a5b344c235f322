// The pile: the document. A value; an edit is a function from one pile to the next (edits.h).
#pragma once

#include <array>
#include <cstdint>
#include <filesystem>
#include <map>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "align/align.h"
#include "base/shared.h"
#include "even/hot_pixels.h"
#include "even/light_gains.h"
#include "even/look.h"
#include "even/spots.h"
#include "image/mask.h"
#include "io/capture.h"
#include "io/reader.h"
#include "lights/streaks.h"
#include "merge/head.h"
#include "merge/knit.h"
#include "merge/modes.h"
#include "merge/taper.h"
#include "parts/edges.h"
#include "parts/joins.h"
#include "parts/place.h"
#include "pile/finish.h"
#include "pile/measures.h"

namespace bp {

enum class Role { scene, dark, foreground };
// Where a role comes from: nobody said anything yet, the program guessed, or a person (or the name of a folder) said
// so.
enum class RoleFrom { nobody, guess, person };
enum class Outcome { trails, clear, quiet, sequence, best_of, shower };
enum class Cover { full, any };
// Whether the mean of the dark frames is subtracted; `scaled`: from frames of another exposure, too, in proportion.
enum class Darks { off, on, scaled };
// The two areas of a picture that may be aligned and merged each in its own way.
enum class Zone { sky, land };
inline constexpr std::array<Zone, 2> both_zones{Zone::sky, Zone::land};

// Something that both have. What has no zones goes by the sky's.
template <class T>
struct PerZone {
    T sky{}, land{};
    T& operator[](Zone zone) { return zone == Zone::land ? land : sky; }
    const T& operator[](Zone zone) const { return zone == Zone::land ? land : sky; }
    friend bool operator==(const PerZone&, const PerZone&) = default;
};

// How frames become one picture.
struct Method {
    Model model = Model::none;
    Mode mode = Mode::lighten;
    By by = By::channel;      // for modes that choose among frames
    Taper taper = {};         // for modes in which strengths count
    Head head = {};           // for the same
    bool soft_white = false;  // added light nears white softly
    friend bool operator==(const Method&, const Method&) = default;
};

// A file of the run, as it was when it was opened or saved. Never changes; shared by all piles of a history.
struct FrameFile {
    std::filesystem::path path;
    std::uintmax_t bytes = 0;
    std::string hash;  // content_hash(); empty when the file is known by its path alone
    PictureFacts facts;
    CaptureData capture;
    // When the file was last written to as its hash was taken, in the system's own count; 0 when it has no hash of its
    // own.
    std::int64_t modified = 0;
    friend bool operator==(const FrameFile&, const FrameFile&) = default;
};
using SharedFrameFile = Shared<FrameFile>;

// A streak in a frame.
struct FrameStreak {
    StreakKind kind = StreakKind::meteor;
    int thing = 0;  // streaks of one thing in several frames have the same
    Line line;      // in pixels of the frame, level 0
    bool left_out = false;
    bool by_hand = false;  // a person drew or changed it: looking for streaks again keeps it as it is
    friend bool operator==(const FrameStreak&, const FrameStreak&) = default;
};

struct Frame {
    int id = 0;  // stays with the frame for ever; unique in the pile
    SharedFrameFile file;
    Role role = Role::scene;
    RoleFrom role_from = RoleFrom::nobody;
    std::string note;  // the person's own words
    bool aside = false;
    Saying problem;        // why the frame cannot be used; empty for a good one
    bool changed = false;  // the problem is that its file is not the one that was saved; `file` has that one's hash
    double strength = 1;   // 0 to 1, of its light: lighten, add and the means
    PerZone<std::optional<Alignment>> places;
    Look look;                        // its own, on top of the pile's
    std::optional<LightGains> gains;  // against the reference
    Mask left_out;                    // kept: takes no part in the base. In pixels of the frame, level 0
    std::vector<FrameStreak> streaks;
    Mask silence;  // what merging goes by: `left_out` with the streaks that are left out. Always silence_of(frame)
    friend bool operator==(const Frame&, const Frame&) = default;
};

// What a part is: painted by a person, or found.
enum class PartOf { painted, subject, meteor, foreground };
// Which parts of a sequence lie over the others.
enum class OnTop { early, late };

struct Part {
    int id = 0;
    std::string name;
    int frame = 0;  // id of the frame that is laid over the base
    Mask mask;      // in pixels of the reference, level 0
    Edge edge = Edge::painted;
    double band_px = 0;              // in which a solved edge may run, about the border of the mask; 0: see band_of()
    std::optional<PartPlace> place;  // where it lies, with its mask, when not where its frame has it
    Look look;                       // of the part alone, after its frame's
    Join join = Join::replace;
    bool on = true;
    double strength = 1;  // 0 to 1
    // Light that is taken off the frame before it joins, by channel as a share of white: its sky's own, so that only
    // what is brighter than the sky counts.
    std::array<double, 3> lowered{};
    PartOf of = PartOf::painted;
    int subject = 0;       // of a sequence: parts of one subject have the same; 0 for none
    bool by_hand = false;  // a person changed what was found: looking again keeps it as it is
    friend bool operator==(const Part&, const Part&) = default;
};

// Where is sky and where is land.
struct Zones {
    Mask sky;               // kept: sky. In pixels of the reference; beyond it goes on as at its edges
    double feather_px = 4;  // width of the border in which one goes over into the other
    Mask soft;              // `sky` with that border: what pictures are made with. Always sky.softened(feather_px)
    friend bool operator==(const Zones&, const Zones&) = default;
};

// What the picture lies on.
struct CanvasSettings {
    // In pixels of the reference, level 0: it may be larger than any frame, and smaller. None: where the reference is.
    std::optional<Rect> area;
    // Where no frame reaches: shares of the pile's profile, 0 to 1, encoded. The first alone counts in a grey pile.
    std::array<double, 3> background{};
    // What its size is told in, and how many of its pixels go on an inch of paper.
    Measure measure = Measure::px;
    double dpi = 300;
    friend bool operator==(const CanvasSettings&, const CanvasSettings&) = default;
};

// How a sequence was laid out last; the parts themselves are what counts.
struct SequenceSettings {
    double spacing = 0.1;  // between two places of a subject, in lengths of it
    OnTop on_top = OnTop::late;
    friend bool operator==(const SequenceSettings&, const SequenceSettings&) = default;
};

// The profile that a picture is written in: the pile's own, a known one, or one from a file.
enum class ExportProfile { own, srgb, display_p3, rec2020, file };

struct ExportSettings {
    std::string ending = ".tif";
    int bits = 16;  // 16 or 32 of floats
    int quality = 92;
    ExportProfile profile = ExportProfile::own;
    Profile from_file;                       // counts when `profile` says so
    int long_edge_px = 0;                    // the longer side of what is written; 0: as it is
    double sharpen = 0;                      // of what was made smaller, as Detail has it
    bool whereabouts = true;                 // where it was taken, and by which camera of its kind, are told
    std::string name;                        // by which a file is named (engine/export_names.h); empty: as the pile
    static constexpr std::size_t most = 12;  // that are written together
    friend bool operator==(const ExportSettings&, const ExportSettings&) = default;
};

// The picture as it comes into being.
struct GrowthSettings {
    std::string ending = ".mp4";  // or .webm; none: numbered PNG files in a folder
    double rate = 24;             // pictures a second
    double seconds = 0;           // until the picture is whole; 0: one frame a picture
    double hold_s = 2;            // that the whole picture stays
    int lines = 1080;             // that it is high at most; as wide as 16 : 9 at most
    int quality = 80;             // of a clip, 1 to 100
    friend bool operator==(const GrowthSettings&, const GrowthSettings&) = default;
};

struct Pile {
    Outcome outcome = Outcome::trails;
    Size size;                            // of every usable frame
    int channels = 3;                     // 1 or 3, of the picture
    Profile profile;                      // working profile
    std::optional<WhiteBalance> balance;  // of the raw frames, all alike: the first usable one's
    std::vector<Frame> frames;            // in the order of the run
    int reference = 0;                    // id of the frame that the others are aligned to
    int base = 0;                         // id of the frame that mode one shows
    PerZone<Method> methods;              // the land's counts while there are zones
    // Kept: where aligning may look, in pixels of the reference, for stars of every frame; nothing kept: everywhere.
    Mask trust;
    Look look;  // of all frames
    Levelling levelling = Levelling::off;
    Darks darks = Darks::off;
    SharedHotPixels hot;          // mended in all frames, in sensor place; null: none
    SharedSpots spots;            // the same
    Knit knit;                    // of trails in the sky, for modes in which the brightest shows
    Light light = Light::linear;  // that is merged, for the means, added light and strengths
    std::optional<Zones> zones;
    CanvasSettings canvas;
    Cover cover = Cover::full;
    std::optional<Rect> crop;  // as a person set it, inside the canvas; goes before `cover`
    // By which all is turned about the middle of the reference, clockwise, in degrees: so that a horizon is level.
    double turn_deg = 0;
    std::vector<Part> parts;  // from the lowest to the highest
    SequenceSettings sequence;
    Finish finish;
    ExportSettings exporting;
    std::vector<ExportSettings> also;  // that the picture is written as in the same order
    GrowthSettings growth;
    friend bool operator==(const Pile&, const Pile&) = default;
};

// Null when there is none of that id.
const Frame* find_frame(const Pile& pile, int id);
// The usable scene frame before this one in the run, or this one when there is none.
int frame_before(const Pile& pile, int id);
const Part* find_part(const Pile& pile, int id);
// Place in the run, counted from 1 as shown to people; 0 when there is none.
int number_of(const Pile& pile, int id);

// True when the frame's pixels can be read and laid on the canvas.
bool usable(const Frame& frame);
// Whether a frame can be the reference or the base: a dark one shows nothing to hold to.
bool shows_something(const Frame& frame);
// How a zone is aligned and merged. A pile without zones is sky everywhere.
const Method& method_of(const Pile& pile, Zone zone);
// True when the frame was to be aligned and could not be.
bool lost(const Pile& pile, const Frame& frame, Zone zone = Zone::sky);
// True when the frame takes part in the base under the pile's settings: of a zone, or of any.
bool merged(const Pile& pile, const Frame& frame, Zone zone);
bool merged(const Pile& pile, const Frame& frame);
std::vector<int> merged_ids(const Pile& pile, Zone zone);
// The strength of each of them, 0 to 1: its own, and what the taper leaves of it in the tail of trails, nothing between
// tail and head. All whole where strengths do not count.
std::vector<double> strengths_of(const Pile& pile, Zone zone);
// How each of them is softened: those of the head are, where strengths count.
std::vector<Softening> softenings_of(const Pile& pile, Zone zone);
std::vector<int> merged_ids(const Pile& pile);
// The pile as if one of its zones were all of the picture; aligning looks only where that zone is.
Pile only_zone(const Pile& pile, Zone zone);
// The dark frames that are subtracted from a frame: of its kind and ISO, and of its exposure or, when that is asked
// for, of the exposure nearest to it.
struct DarkChoice {
    std::vector<int> ids;
    double scale = 1;  // exposure of the frame over that of the darks
    friend bool operator==(const DarkChoice&, const DarkChoice&) = default;
};
DarkChoice darks_of(const Pile& pile, const Frame& frame);
// Dark frames that serve no scene frame, each with a sentence that says why.
std::map<int, Saying> useless_darks(const Pile& pile);

// The look that the frame is seen and merged in.
Look look_of(const Pile& pile, const Frame& frame);
// Gains of the frame's light under the pile's levelling.
std::array<double, 3> gains_of(const Pile& pile, const Frame& frame);
// The canvas, in pixels of the reference.
Rect canvas_of(const Pile& pile);
// Frame pixel to canvas pixel: identity while nothing is aligned.
Placement placement(const Pile& pile, const Frame& frame, Zone zone = Zone::sky);
// Where a part's own pixels lie: its frame's placement, and its own after it. A part that has a place of its own is
// all of the zone that the middle of its mask lies in.
Placement placement(const Pile& pile, const Part& part);
Zone zone_of(const Pile& pile, const Part& part);
// How wide the band is in which a part's solved edge may run, in pixels of the reference.
double band_of(const Pile& pile, const Part& part);

// Where the pole of the turning sky is seen on the canvas, when the pile is aligned by its stars.
std::optional<Point> pole_in(const Pile& pile);

// Capture data of the merged picture: the first frame's time and lens, the total exposure.
CaptureData merged_capture(const Pile& pile);

}  // namespace bp
