#include "pile/file.h"

#include <algorithm>
#include <map>
#include <mutex>

#include "base/files.h"
#include "base/guarded.h"
#include "base/parallel.h"
#include "io/clip.h"
#include "pile/archive.h"
#include "pile/edits.h"
#include "pile/zip.h"

namespace bp {
namespace {

constexpr std::uint64_t largest_pile = 4ULL << 30;

Failure not_a_pile(const fs::path& file, const Saying& why) {
    return {Fault::input,
            file.string(),
            {"%1 is not a pile that can be opened: %2. Open a copy of it, or its frames.",
             {file.filename().string(), why}}};
}

// What of a frame is not saved is taken from the other.
bool same_when_read(pile::Unpacked& read, const Pile& saved) {
    if (read.pile.frames.size() != saved.frames.size()) return false;
    for (std::size_t i = 0; i < saved.frames.size(); ++i) {
        Frame& mine = read.pile.frames[i];
        const Frame& other = saved.frames[i];
        const std::vector<fs::path>& places = read.places[mine.id];
        const fs::path wanted = other.file->path.lexically_normal();
        const bool named = std::find(places.begin(), places.end(), wanted) != places.end();
        if (!named || mine.file->bytes != other.file->bytes || mine.file->hash != other.file->hash) return false;
        mine.file = other.file;
        mine.problem = other.problem;
        mine.changed = other.changed;
    }
    return read.pile == saved;
}

Status check(const Pieces& pieces, const Pile& pile, const fs::path& file) {
    Result<pile::Unpacked> back = pile::unpacked(pieces, fs::absolute(file).parent_path());
    const auto refused = [&](const Saying& why) {
        return Failure{
            Fault::output,
            file.string(),
            {"%1 was not written, because it could not be opened again: %2 What was there before is unchanged.",
             {file.string(), why}}};
    };
    if (!back.ok()) return refused({"%1.", {back.failure().sentence}});
    if (!back.value().remarks.empty()) return refused(back.value().remarks.front());
    if (!same_when_read(back.value(), pile)) return refused("it would be another pile.");
    return Done{};
}

// Where a frame's file is now: the first place where the one that was saved lies, else the first where one lies at all.
std::optional<FrameFile> found_at(const std::vector<fs::path>& places, const std::string& hash, Failure& why) {
    std::optional<FrameFile> other;
    bool first = true;
    for (const fs::path& place : places) {
        Result<FrameFile> found = read_frame_file(place);
        if (!found.ok()) {
            if (first) why = found.failure();
        } else if (found.value().hash == hash) {
            return std::move(found).value();
        } else if (!other) {
            other = std::move(found).value();
        }
        first = false;
    }
    return other;
}

enum class Found { same, changed, missing };

// Looks for the file that a frame names.
Found attach_file(Frame& frame, const std::vector<fs::path>& places) {
    Failure why;
    std::optional<FrameFile> found = found_at(places, frame.file->hash, why);
    if (!found) {
        frame.problem = {"%1 Point to it in the Frames step.", {why.sentence}};
        return Found::missing;
    }
    if (found->hash == frame.file->hash) {
        frame.file = std::make_shared<const FrameFile>(std::move(*found));
        return Found::same;
    }
    frame.problem = {"%1 is not the file it was when the pile was saved. Point to the right one, or take it as it is.",
                     {found->path.filename().string()}};
    frame.changed = true;
    // It is known by what it was, so that it stays changed when the pile is saved.
    found->hash = frame.file->hash;
    found->bytes = frame.file->bytes;
    found->modified = 0;
    frame.file = std::make_shared<const FrameFile>(std::move(*found));
    return Found::changed;
}

// Frames of clips in one pass a clip. What goes wrong shows when the frames are looked at.
void unroll_clips(const std::map<int, std::vector<fs::path>>& places) {
    std::map<fs::path, std::vector<long>> numbers;
    for (const auto& [id, of_frame] : places)
        for (const fs::path& place : of_frame)
            if (const auto frame = clip_frame_of(place)) numbers[frame->clip].push_back(frame->number);
    for (auto& [clip, wanted] : numbers) {
        std::sort(wanted.begin(), wanted.end());
        Job job;
        (void)unroll_clip(clip, wanted, job).ok();
    }
}

LoadedPile with_files(pile::Unpacked unpacked) {
    unroll_clips(unpacked.places);
    LoadedPile out{std::move(unpacked.pile), {}, {}, std::move(unpacked.remarks)};
    std::vector<Found> found(out.pile.frames.size());
    parallel_for(0, int(found.size()), [&](int i) {
        Frame& frame = out.pile.frames[std::size_t(i)];
        found[std::size_t(i)] = attach_file(frame, unpacked.places.at(frame.id));
    });
    for (std::size_t i = 0; i < found.size(); ++i) {
        Frame& frame = out.pile.frames[i];
        if (found[i] == Found::missing) out.missing.push_back(frame.id);
        if (found[i] == Found::changed) out.changed.push_back(frame.id);
        if (frame.problem.empty() && frame.file->facts.size != out.pile.size)
            frame.problem = {"%1 is of another size than the rest. Point to the file that it was.",
                             {frame.file->path.filename().string()}};
    }
    return out;
}

}  // namespace

Status keeps_originals(const Pile& pile, const fs::path& file) {
    for (const Frame& frame : pile.frames) {
        const std::optional<ClipFrame> in_clip = clip_frame_of(frame.file->path);
        if (same_file(in_clip ? in_clip->clip : frame.file->path, file))
            return Failure{Fault::output,
                           file.string(),
                           {"%1 is one of the frames. Originals are never written over: choose another name.",
                            {file.filename().string()}}};
    }
    return Done{};
}

Status save_pile(const Pile& pile, const fs::path& file) {
    return guarded([&]() -> Status {
        if (Status kept = keeps_originals(pile, file); !kept.ok()) return kept;
        Result<Pieces> pieces = pile::pieces_of(pile, fs::absolute(file).parent_path());
        if (!pieces.ok()) return pieces.failure();
        Status checked = check(pieces.value(), pile, file);
        if (!checked.ok()) return checked;
        Result<Bytes> bytes = zipped(pieces.value());
        if (!bytes.ok()) return bytes.failure();
        return write_bytes(file, {reinterpret_cast<const char*>(bytes.value().data()), bytes.value().size()});
    });
}

Result<LoadedPile> load_pile(const fs::path& file) {
    return guarded([&]() -> Result<LoadedPile> {
        Result<Pieces> pieces = read_zip(file, largest_pile);
        if (!pieces.ok()) return not_a_pile(file, pieces.failure().sentence);
        Result<pile::Unpacked> read = pile::unpacked(pieces.value(), fs::absolute(file).parent_path());
        if (!read.ok()) return not_a_pile(file, read.failure().sentence);
        return with_files(std::move(read).value());
    });
}

Result<FrameFile> read_frame_file(const fs::path& path, KnownBy known) {
    Result<PictureFacts> facts = probe_picture(path);
    if (!facts.ok()) return facts.failure();
    FrameFile out;
    const auto of_clip = clip_frame_of(path);
    if (known == KnownBy::content) {
        out.modified = modified_at(path);
        Result<std::string> hash = of_clip ? hash_of_clip_frame(*of_clip) : content_hash(path);
        if (!hash.ok()) return hash.failure();
        out.hash = std::move(hash).value();
    }
    out.path = fs::absolute(path).lexically_normal();
    std::error_code error;
    out.bytes = fs::file_size(of_clip ? of_clip->clip : path, error);
    out.facts = std::move(facts).value();
    out.capture = read_capture(path);
    return out;
}

Result<Pile> known_by_content(Pile pile) {
    std::vector<std::optional<Failure>> failures(pile.frames.size());
    parallel_for(0, int(pile.frames.size()), [&](int i) {
        Frame& frame = pile.frames[std::size_t(i)];
        if (!usable(frame) || !frame.file->hash.empty()) return;
        FrameFile file = *frame.file;
        const auto of_clip = clip_frame_of(file.path);
        file.modified = modified_at(file.path);
        Result<std::string> hash = of_clip ? hash_of_clip_frame(*of_clip) : content_hash(file.path);
        if (!hash.ok()) {
            failures[std::size_t(i)] = hash.failure();
            return;
        }
        file.hash = hash.value();
        frame.file = std::make_shared<const FrameFile>(std::move(file));
    });
    for (const auto& failure : failures)
        if (failure) return *failure;
    return pile;
}

}  // namespace bp
