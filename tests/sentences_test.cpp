// Every sentence of trouble that the core has, with what causes it. A sentence that is new, or was reworded, belongs
// here: then it is read once more for which file it is, what is wrong and what to do.
#include <catch2/catch.hpp>
#include <cctype>
#include <fstream>
#include <set>

#include "engine/aligning.h"
#include "engine/export.h"
#include "engine/growth.h"
#include "engine/hot_search.h"
#include "engine/levelling.h"
#include "engine/open.h"
#include "engine/origins.h"
#include "engine/render.h"
#include "engine/spots.h"
#include "engine/subjects.h"
#include "engine/survey.h"
#include "engine/zoning.h"
#include "io/clip.h"
#include "io/gather.h"
#include "io/profile_file.h"
#include "io/reader.h"
#include "io/writer.h"
#include "pile/edits.h"
#include "pile/file.h"
#include "pile/finish_file.h"
#include "practice/practice.h"
#include "support/fixtures.h"

using namespace bp;
using bp::test::Folder;

namespace {

// What a cause works with: three frames of a scene, f1.tif to f3.tif, and an empty folder.
struct Ground {
    Folder frames, folder;
    Pile pile;
    Job job;
    FrameStore store{{}, MemoryBudget{0, std::size_t(1) << 30}};

    Ground() : pile(test::speckle_pile(frames, 3, {80, 60}, 8)) {}
    std::string first() const { return pile.frames.front().file->path.string(); }
    std::vector<int> all() const {
        std::vector<int> out;
        for (const Frame& frame : pile.frames) out.push_back(frame.id);
        return out;
    }
    fs::path put(const std::string& name, const std::string& bytes) const {
        std::ofstream(folder / name, std::ios::binary) << bytes;
        return folder / name;
    }
    // All frames are broken.
    Pile broken() const {
        Pile out = pile;
        for (const int id : all()) out = with_problem(std::move(out), id, Saying(std::string("gone")));
        return out;
    }
    Pile darks() const { return with_role(pile, all(), Role::dark); }
    fs::path saved() const {
        const fs::path file = folder / "a.pile";
        const Status written = save_pile(pile, file);
        if (!written.ok()) throw std::runtime_error(written.failure().english());
        return file;
    }
};

template <class T>
std::string said(const Result<T>& result) {
    return result.ok() ? "nothing went wrong" : result.failure().english();
}

using Cause = std::function<std::string(Ground&)>;

struct Told {
    const char* sentence;
    const char* cause;
    Cause made;  // none: what a test cannot make here, or what another one makes
};

std::string opened(const fs::path& file) {
    return said(RowReader::open(file, 0));
}

// A tag of a dark that differs from the frames'.
std::string useless(Ground& g, const std::function<void(FrameFile&)>& change) {
    Pile pile = g.pile;
    for (Frame& frame : pile.frames) {
        FrameFile file = *frame.file;
        file.capture.iso = 800;
        file.capture.exposure_s = 10;
        frame.file = std::make_shared<const FrameFile>(file);
    }
    pile = with_role(pile, std::vector<int>{g.all().back()}, Role::dark);
    Frame& dark = pile.frames.back();
    FrameFile file = *dark.file;
    change(file);
    dark.file = std::make_shared<const FrameFile>(file);
    const auto found = useless_darks(pile);
    return found.empty() ? "it is of use" : found.begin()->second.english();
}

std::string aligned(const Pile& pile, Model model, Job& job) {
    return said(align_frames(pile, model, pile.reference, job));
}

// What is said of one that is opened with two of the frames.
std::string odd_one(Ground& g, const fs::path& file) {
    const Result<Pile> pile =
        open_frames({{g.first(), Role::scene}, {g.pile.frames.back().file->path, Role::scene}, {file, Role::scene}},
                    Outcome::trails, Order::given, g.job);
    return pile.ok() ? pile.value().frames.back().problem.english() : said(pile);
}

std::string exported(const Pile& pile, const fs::path& file, Job& job) {
    return said(export_picture(pile, file, {}, job));
}

const std::vector<Told>& table() {
    static const std::vector<Told> all{
        // Writing
        {"Cannot write %1: %2. Choose another place or free some space.", "the folder is not there",
         [](Ground& g) { return exported(g.pile, g.folder / "none/a.tif", g.job); }},
        {"%1 is protected from writing, and stays as it is. Choose another name.",
         "the file that is there may not be written (faults_test; root may)",
         {}},
        {"%1 is one of the frames. Originals are never written over: choose another name.", "a frame's own name",
         [](Ground& g) { return exported(g.pile, g.first(), g.job); }},
        {"The name %1 ends in no format that can be written: use .tif, .png, .exr, .jxl, .webp, .jpg or .ora.",
         "an ending that is none", [](Ground& g) { return exported(g.pile, g.folder / "a.bmp", g.job); }},
        {"%1 was not written: its format holds %2 pixels a side at most. Write it smaller, or as .tif.",
         "a WebP of more than 16383 pixels",
         [](Ground& g) {
             return said(write_picture(g.folder / "a.webp", Raster16({16400, 2}, 3), Profile::srgb(), {8, 90}, {}));
         }},
        {"A mask cannot be made into a picture.", "a mask without pixels",
         [](Ground&) { return said(encode_mask(Raster8())); }},
        {"%1 holds something already. Numbered pictures go into a new or an empty folder.",
         "a folder with a file in it",
         [](Ground& g) {
             g.put("x.txt", "x");
             return said(export_growth(g.pile, g.folder.path(), {}, g.job));
         }},
        {"The name %1 ends in no format of clips: use .mp4 or .webm, or a folder's name without an ending for numbered "
         "pictures.",
         "a clip that is to be .gif",
         [](Ground& g) { return said(export_growth(g.pile, g.folder / "a.gif", {}, g.job)); }},
        {"No frame is left to merge: all are set aside, broken or not aligned.", "all frames are set aside",
         [](Ground& g) { return exported(with_aside(g.pile, g.all(), true), g.folder / "a.tif", g.job); }},
        {"Merging %1 of this size needs at least %2 of memory, and %3 are allowed. Allow more, or set frames aside.",
         "1 MB for three frames",
         [](Ground& g) {
             FrameStore small({}, MemoryBudget{0, 1 << 20});
             return said(render(g.pile, small, whole(g.pile.size), 0, g.job));
         }},
        {"There is no room for layers in %1. Make room on that disk, or choose another place.",
         "a full disk while an .ora is written (faults_test)",
         {}},
        {"%1 are needed for working files in %2, and %3. Make room on that disk, or allow more.",
         "a scratch disk that is full (scratch_test)",
         {}},
        {"There is not enough memory for this. Close other programs, allow less under Room, or set frames aside.",
         "std::bad_alloc (faults_test)",
         {}},
        {"This could not be done: %1.", "an exception of a library (faults_test)", {}},
        {"This could not be done, and nothing says why.", "something else is thrown", {}},
        {"%1 was not written, because it could not be opened again: %2 What was there before is unchanged.",
         "a pile that a disk did not keep (faults_test)",
         {}},
        {"%1 was not written, because it could not be opened again. What was there before is unchanged.",
         "a finish that a disk did not keep",
         {}},

        // Opening
        {"No frames were given. Choose pictures, or a folder of them.", "an empty list",
         [](Ground& g) { return said(open_frames({}, Outcome::trails, Order::name, g.job)); }},
        {"The folder %1 holds no pictures of a kind that can be read: %2.", "an empty folder",
         [](Ground& g) { return said(gather_files({g.folder.path().string()})); }},
        {"%1 is not there. Was it moved or renamed?", "a name that is none",
         [](Ground& g) { return opened(g.folder / "none.jpg"); }},
        {"%1 is not a picture that can be read here. Use %2.", "a text by the name of a picture",
         [](Ground& g) { return opened(g.put("a.tif", "this is no picture")); }},
        {"%1 is broken or cut short. Copy it again from the camera.", "half a PNG",
         [](Ground& g) {
             test::write(g.folder / "a.png", test::speckle_8({200, 160}, 3, 1), 8);
             const std::string bytes = test::bytes_of(g.folder / "a.png");
             return said(read_picture(g.put("b.png", bytes.substr(0, bytes.size() / 2))));
         }},
        {"%1 is broken or cut short: %2. Copy it again from the camera.", "half a JPEG",
         [](Ground& g) {
             test::write(g.folder / "a.jpg", test::speckle_8({200, 160}, 3, 1), 8);
             const std::string bytes = test::bytes_of(g.folder / "a.jpg");
             return said(read_picture(g.put("b.jpg", bytes.substr(0, bytes.size() / 2))));
         }},
        {"%1 cannot be opened: %2. Was it moved, or may it not be read?", "a frame that is not there",
         [](Ground& g) { return said(content_hash(g.folder / "none.bin")); }},
        {"%1 cannot be read to its end. Copy it again.", "a folder by the name of a frame",
         [](Ground& g) { return said(content_hash(g.folder.path())); }},
        {"%1 cannot be read: %2. Copy it again, or allow it to be read.", "a file that may not be read (root may)", {}},
        {"%1 changed while it was read. Open the frames again.", "a file cut while it is open (reader_test)", {}},
        {"%1 has changed since it was opened. Open the frames again.", "a frame of another size under its name",
         [](Ground& g) {
             test::write(g.first(), test::speckle_8({40, 30}, 3, 9), 8);
             return said(render_frame(g.pile, g.store, g.all().front(), whole(g.pile.size), 0, g.job));
         }},
        {"%1 is %2 pixels, the rest are %3: the camera was turned. Turn it like the others.",
         "one upright among others",
         [](Ground& g) {
             test::write(g.frames / "turned.tif", test::speckle_8({60, 80}, 3, 9), 8);
             return odd_one(g, g.frames / "turned.tif");
         }},
        {"%1 is %2 pixels, the rest are %3. Frames of one pile must have one size.", "one that is smaller",
         [](Ground& g) {
             test::write(g.frames / "small.tif", test::speckle_8({40, 44}, 3, 9), 8);
             return odd_one(g, g.frames / "small.tif");
         }},
        {"%1 is not a clip that can be read. Copy it again, or save it as MP4.", "a text by the name of a clip",
         [](Ground& g) { return said(probe_clip(g.put("a.mp4", "this is no clip"))); }},
        {"The folder %1 cannot be made: %2. Choose another place.", "a folder for frames of a clip in a file", {}},
        {"%1 ends at frame %2. Choose an earlier end.", "frames behind the end of a clip (clip_test)", {}},
        {"%1 is not a colour profile for pictures in colour: choose an ICC file of an RGB space.",
         "a text as a profile", [](Ground& g) { return said(read_profile(g.put("a.icc", "no profile"))); }},
        {"%1 holds floats of 16 bits in a way that cannot be read here. Save it as 16-bit TIFF.",
         "halves of three greys (reader_test)",
         {}},
        {"%1 is neither grey nor RGB. Save it as RGB.", "a picture of two channels and no profile", {}},
        {"%1 does not hold 8 or 16 bit samples. Save it as 16-bit TIFF.", "samples of 32-bit whole numbers", {}},
        {"%1 claims to be %2 x %3 pixels, which cannot be true. Copy it again from the camera.",
         "a JPEG of 65278 pixels a side",
         [](Ground& g) {
             test::write(g.folder / "a.jpg", test::speckle_8({20, 10}, 3, 1), 8);
             std::string bytes = test::bytes_of(g.folder / "a.jpg");
             // The frame header: marker, length, depth, height, width (ITU T.81, B.2.2).
             const std::size_t head = bytes.find("\xFF\xC0");
             bytes.replace(head + 5, 4, "\xFE\xFE\xFE\xFE");
             return opened(g.put("b.jpg", bytes));
         }},
        {"%1: %2 is missing beside the program. Install Bright Pile again.", "a library that is not there", {}},
        {"This kind of picture needs %1, which does not start. Install Bright Pile again.", "the same of pictures", {}},
        {"There is not enough memory to develop %1. Close other programs, or set frames aside.",
         "LibRaw finds no memory",
         {}},
        {"%1 is not a raw file that can be read: %2. Copy it again from the camera, or use its JPEG.",
         "half a raw file", [](Ground& g) { return opened(g.put("a.dng", "this is no raw file")); }},
        {"%1 claims a size that cannot be true. Copy it again from the camera.",
         "a raw header of a million pixels a side",
         {}},
        {"%1 comes from a sensor without red, green and blue. Develop it to a 16-bit TIFF.",
         "a sensor of four inks",
         {}},
        {"%1 is not of the sensor size of the dark frames. Set them aside.",
         "darks of another camera (sensor_test)",
         {}},
        {"%1 holds no mosaic, so dark frames cannot be subtracted from it. Set them aside.",
         "a raw file that is developed already",
         {}},
        {"%1 develops to another size than its header says. Use its JPEG, or develop it to a 16-bit TIFF.",
         "a raw file with a wrong header",
         {}},
        {"%1 is not of the sensor size of the other darks. Set it aside.", "two kinds of darks (sensor_test)", {}},
        {"%1 holds no mosaic and is of no use as a dark. Set it aside.", "a dark that is developed already", {}},

        // Piles and finish files
        {"%1 is not a pile that can be opened: %2. Open a copy of it, or its frames.", "a text by the name of a pile",
         [](Ground& g) { return said(load_pile(g.put("a.pile", "no pile"))); }},
        {"%1 is not a finish file that can be opened: %2. Choose another one.", "a text by the name of a finish",
         [](Ground& g) {
             return said(load_finish(g.put("a.finish", "no finish"), {80, 60}));
         }},
        {"it would be another pile.", "what is written does not read back as it was", {}},
        {"%1 Point to it in the Frames step.", "a frame was moved",
         [](Ground& g) {
             const fs::path file = g.saved();
             fs::remove(g.first());
             return load_pile(file).value().pile.frames.front().problem.english();
         }},
        {"%1 is not the file it was when the pile was saved. Point to the right one, or take it as it is.",
         "a frame was changed",
         [](Ground& g) {
             const fs::path file = g.saved();
             test::write(g.first(), test::speckle_8({80, 60}, 3, 99), 8);
             return load_pile(file).value().pile.frames.front().problem.english();
         }},
        {"%1 is of another size than the rest. Point to the file that it was.", "a pile that says so itself", {}},
        {"%1 is broken.", "a mask in a pile that is no picture",
         [](Ground&) { return said(decode_mask("no mask", 7, "masks/1.png")); }},
        {"%1 is not an 8-bit grey mask. Save it as grey with 8 bits.", "a mask in colour",
         [](Ground& g) {
             test::write(g.folder / "m.png", test::speckle_8({20, 10}, 3, 1), 8);
             const std::string bytes = test::bytes_of(g.folder / "m.png");
             return said(decode_mask(bytes.data(), bytes.size(), "masks/1.png"));
         }},
        {"The reference frame is not in the pile: the first one takes its place. Align again.",
         "a number that no frame has (pile_file_test)",
         {}},
        {"The base frame is not in the pile: the first one takes its place.",
         "the same of the base (pile_file_test)",
         {}},
        {"The colour profile does not fit the picture: sRGB takes its place.", "a grey profile (pile_file_test)", {}},
        {"A sensor spot could not be read and is left out.", "a spot without a place (pile_file_test)", {}},
        {"The frame %1 could not be read and is left out.", "a frame without a file (pile_file_test)", {}},
        {"A streak of the frame %1 could not be read and is left out.", "a streak of one point (pile_file_test)", {}},
        {"The part %1 could not be read and is left out.", "a part without a mask (pile_file_test)", {}},
        {"A range of colours could not be read and is left out.", "a number for one (pile_file_test)", {}},
        {"A picture of the export could not be read and is left out.", "a number for one (pile_file_test)", {}},
        {"A mended place could not be read and is left out.", "a line of no points (pile_file_test)", {}},
        {"The place %1 could not be read and is left out.", "a place without a shape (pile_file_test)", {}},
        {"Where the frame %1 lies could not be read: it counts as not aligned. Align again.",
         "a matrix of letters (pile_file_test)",
         {}},
        {"The value “%1” could not be read and is as in a new pile.", "a word where a number is (pile_file_test)", {}},
        {"The value “%1” of %2 could not be read and is as in a new pile.",
         "the same inside another (pile_file_test)",
         {}},
        {"What was mended from a frame is mended from what surrounds it: look at it.",
         "a finish with mended places for another pile (made_like, finish_test)",
         {}},
        {"Parts of its frames are not taken.", "like a pile with parts (made_like)", {}},
        {"Where its sky and land are is not taken: all is aligned and merged as its sky.", "like a pile of zones", {}},
        {"Where aligning may look is not taken.", "like a pile with a painted trust", {}},
        {"Its crop and its level horizon are not taken.", "like a pile that is cropped", {}},
        {"Dust on the sensor is not taken: the frames are of another size.", "like a pile of another camera", {}},
        {"Which frames were set aside is not taken.", "like a pile with frames aside", {}},
        {"Looks, levels, strengths and left out areas of single frames are not taken.",
         "like a pile with looks of single frames",
         {}},

        // Aligning, evening, finding
        {"Aligning by the stars needs capture times, and the reference frame has none.", "no times",
         [](Ground& g) {
             Pile pile = g.pile;
             for (Frame& frame : pile.frames) {
                 FrameFile file = *frame.file;
                 file.capture.captured = {};
                 frame.file = std::make_shared<const FrameFile>(file);
             }
             return aligned(pile, Model::stars, g.job);
         }},
        {"The stars of the reference frame were not found again in other frames. Choose a clear frame as reference, or "
         "another model.",
         "frames without stars, with their times (skies_test)",
         {}},
        {"The reference frame cannot be used. Choose another one.", "a reference that is broken",
         [](Ground& g) { return aligned(g.broken(), Model::shift, g.job); }},
        {"The reference frame is not one of the scene. Choose a frame of the scene as reference.",
         "a dark as reference", [](Ground& g) { return aligned(g.darks(), Model::shift, g.job); }},
        {"The frames are too small to be aligned.", "frames of 20 pixels",
         [](Ground& g) {
             const Folder small;
             return aligned(test::speckle_pile(small, 2, {20, 20}, 8), Model::shift, g.job);
         }},
        {"This frame cannot be aligned to the reference. Place it by hand.", "one that is broken, refined",
         [](Ground& g) { return said(refine_frame(g.broken(), g.all().back(), g.job)); }},
        {"From here the frame does not come to lie on the reference. It was left where it is.",
         "a frame of another scene, refined",
         [](Ground& g) {
             test::write(g.pile.frames.back().file->path, test::landscape({80, 60}, Matrix::shift(9000, 4000), 4, 0.2),
                         8);
             const Result<Pile> again =
                 open_frames({{g.first(), Role::scene}, {g.pile.frames.back().file->path, Role::scene}},
                             Outcome::trails, Order::given, g.job);
             return said(refine_frame(again.value(), again.value().frames.back().id, g.job));
         }},
        {"Hot pixels are found in four frames or more of one run.", "three frames",
         [](Ground& g) { return said(search_hot_pixels(g.pile, g.store, g.job)); }},
        {"This frame is not in the pile any more.", "a frame that was removed meanwhile",
         [](Ground& g) { return said(render_frame(g.pile, g.store, 999, whole(g.pile.size), 0, g.job)); }},
        {"Means and added light come from all frames together: there is no frame to tell.", "origins of a mean",
         [](Ground& g) {
             return said(origins_of(with_mode(g.pile, Mode::mean), g.store, whole(g.pile.size), 0, g.job));
         }},
        {"No frame can be read to measure the spot in. The Frames step says of each why.", "all frames are broken",
         [](Ground& g) {
             return said(measure_spot(g.broken(), {40, 30}, 5, g.store, g.job));
         }},
        {"The spot lies outside the picture.", "a spot at -500",
         [](Ground& g) {
             return said(measure_spot(g.pile, {-500, -500}, 5, g.store, g.job));
         }},
        {"Subjects are found in three frames or more that are in.", "two frames",
         [](Ground& g) {
             return said(find_subjects(with_aside(g.pile, std::vector<int>{g.all().back()}, true), g.store, g.job));
         }},
        {"None of the frames can be used. The Frames step says of each why.", "all frames are broken",
         [](Ground& g) { return said(anchor_of(g.broken(), g.all().front())); }},
        {"It is not seen what turns and what stands still. Paint roughly what is sky instead.",
         "aligned frames without stars (zones_test)",
         {}},
        {"Paint roughly what is sky first: then its border can be found.", "no sky was painted",
         [](Ground& g) { return said(snap_zones(g.pile, 20, g.store, g.job)); }},
        {"Align by the stars first: what turns with them is sky.", "frames that are not aligned",
         [](Ground& g) { return said(suggest_sky(g.pile, g.store, g.job)); }},
        {"%1 is not of the size and kind of the frames. Darks must come from the same camera.",
         "a dark of another size", [](Ground& g) { return useless(g, [](FrameFile& f) {
                                                       f.facts.size = {10, 10};
                                                   }); }},
        {"%1 was taken at ISO %2, the frames at %3. Take darks at the ISO of the frames.", "a dark at ISO 1600",
         [](Ground& g) { return useless(g, [](FrameFile& f) { f.capture.iso = 1600; }); }},
        {"%1 was exposed for %2 s, the frames for %3 s. Take darks as long as the frames, or have them scaled.",
         "a dark of 5 s", [](Ground& g) { return useless(g, [](FrameFile& f) { f.capture.exposure_s = 5; }); }},
    };
    return all;
}

// Whether words are a sentence with its gaps filled, each with something.
bool fills(const std::string& words, const std::string& sentence) {
    std::vector<std::string> pieces{{}};
    for (std::size_t i = 0; i < sentence.size(); ++i) {
        const bool gap = sentence[i] == '%' && i + 1 < sentence.size() &&
                         std::isdigit(static_cast<unsigned char>(sentence[i + 1])) != 0;
        if (gap) {
            pieces.emplace_back();
            ++i;
        } else {
            pieces.back() += sentence[i];
        }
    }
    if (words.rfind(pieces.front(), 0) != 0) return false;
    if (pieces.size() == 1) return words == sentence;
    std::size_t at = pieces.front().size();
    for (std::size_t i = 1; i + 1 < pieces.size(); ++i) {
        at = words.find(pieces[i], at + 1);
        if (at == std::string::npos) return false;
        at += pieces[i].size();
    }
    const std::string& last = pieces.back();
    return words.size() > at + last.size() && words.compare(words.size() - last.size(), last.size(), last) == 0;
}

// What the list for translators has of the core that ends like a sentence.
std::set<std::string> sentences_of_the_core() {
    std::ifstream file(std::string(SOURCE_DIR) + "/translations/core.cpp");
    std::set<std::string> out;
    const std::string begin = "QT_TRANSLATE_NOOP(\"core\", \"", end = "\");";
    for (std::string text; std::getline(file, text);) {
        if (text.rfind(begin, 0) != 0) continue;
        const std::string words = text.substr(begin.size(), text.size() - begin.size() - end.size());
        if (std::string(".?").find(words.back()) != std::string::npos) out.insert(words);
    }
    return out;
}

}  // namespace

TEST_CASE("every sentence of trouble is told here with its cause") {
    std::set<std::string> told;
    for (const Told& one : table()) {
        INFO(one.sentence);
        CHECK(told.insert(one.sentence).second);
        CHECK(std::string(one.cause).size() > 5);
    }
    CHECK(told == sentences_of_the_core());
}

TEST_CASE("what causes a sentence of trouble makes it said") {
    CHECK(fills("a.jpg is broken.", "%1 is broken."));
    CHECK_FALSE(fills(" is broken.", "%1 is broken."));
    CHECK_FALSE(fills("a.jpg is broken. Really", "%1 is broken."));
    int made = 0;
    for (const Told& one : table()) {
        if (!one.made) continue;
        Ground ground;
        const std::string words = one.made(ground);
        INFO(one.cause << ": " << words);
        CHECK(fills(words, one.sentence));
        // Paths of the machine stand in no sentence where the file's name is enough, and no gap stays open.
        CHECK(words.find('%') == std::string::npos);
        ++made;
    }
    CHECK(made >= 45);
}
