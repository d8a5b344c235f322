#include "engine/open.h"

#include <algorithm>
#include <map>

#include "base/files.h"
#include "base/parallel.h"
#include "base/text.h"
#include "io/clip.h"
#include "io/gather.h"
#include "pile/edits.h"
#include "pile/file.h"
#include "pile/outcomes.h"

namespace bp {
namespace {

std::string size_text(Size size) {
    return std::to_string(size.width) + " x " + std::to_string(size.height);
}

Frame read_frame(const NamedFile& named, KnownBy known) {
    Frame frame;
    frame.role = named.role;
    if (named.role != Role::scene) frame.role_from = RoleFrom::person;
    Result<FrameFile> file = read_frame_file(named.path, known);
    if (file.ok()) {
        frame.file = std::make_shared<FrameFile>(std::move(file).value());
    } else {
        FrameFile broken;
        broken.path = fs::absolute(named.path).lexically_normal();
        frame.file = std::make_shared<FrameFile>(std::move(broken));
        frame.problem = file.failure().sentence;
    }
    return frame;
}

Size commonest_size(const std::vector<Frame>& frames) {
    std::map<std::pair<int, int>, int> counts;
    Size best;
    int most = 0;
    for (const Frame& frame : frames) {
        if (!usable(frame)) continue;
        const Size size = frame.file->facts.size;
        // Scene frames decide; the others only when there is nothing else.
        const int votes = counts[{size.width, size.height}] += frame.role == Role::scene ? 1000 : 1;
        if (votes > most) {
            most = votes;
            best = size;
        }
    }
    return best;
}

void check_size(Frame& frame, Size canvas) {
    if (!usable(frame) || frame.file->facts.size == canvas) return;
    const Size size = frame.file->facts.size;
    const bool turned = size.width == canvas.height && size.height == canvas.width;
    std::vector<Saying> values{frame.file->path.filename().string(), size_text(size), size_text(canvas)};
    frame.problem =
        turned ? Saying("%1 is %2 pixels, the rest are %3: the camera was turned. Turn it like the others.", values)
               : Saying("%1 is %2 pixels, the rest are %3. Frames of one pile must have one size.", values);
}

Role role_of_folder(const std::string& name) {
    return name == "darks" ? Role::dark : name == "foreground" ? Role::foreground : Role::scene;
}

const Frame* first_usable(const Pile& pile) {
    const auto scene = std::find_if(pile.frames.begin(), pile.frames.end(),
                                    [](const Frame& f) { return usable(f) && f.role == Role::scene; });
    if (scene != pile.frames.end()) return &*scene;
    const auto any = std::find_if(pile.frames.begin(), pile.frames.end(), usable);
    return any == pile.frames.end() ? nullptr : &*any;
}

// The second of two files with the same content says nothing new, and would count twice in a mean.
void mark_copies(const std::vector<Frame>& known, std::vector<Frame>& frames) {
    std::map<std::string, std::string> names;  // by hash
    for (const Frame& frame : known) names.emplace(frame.file->hash, frame.file->path.filename().string());
    for (Frame& frame : frames) {
        if (!usable(frame) || frame.file->hash.empty()) continue;
        const auto [first, fresh] = names.emplace(frame.file->hash, frame.file->path.filename().string());
        if (fresh) continue;
        frame.aside = true;
        frame.note = valid_utf8(copy_note(first->second).english());
    }
}

}  // namespace

Saying copy_note(const std::string& name) {
    return {"a copy of %1", {name}};
}

Result<std::vector<Frame>> read_frames(const std::vector<NamedFile>& files, KnownBy known, Job& job) {
    std::map<fs::path, std::vector<long>> clips;
    for (const NamedFile& named : files)
        if (const auto frame = clip_frame_of(named.path)) clips[frame->clip].push_back(frame->number);
    for (auto& [clip, numbers] : clips) {
        std::sort(numbers.begin(), numbers.end());
        Status unrolled = unroll_clip(clip, numbers, job);
        // What else goes wrong shows at the frames that it hits.
        if (!unrolled.ok() && unrolled.failure().fault == Fault::stopped) return unrolled.failure();
    }
    std::vector<Frame> out(files.size());
    job.begin({"Reading %1", {frames_counted(files.size())}}, long(files.size()));
    parallel_for(0, int(files.size()), [&](int i) {
        if (job.stopped()) return;
        out[std::size_t(i)] = read_frame(files[std::size_t(i)], known);
        job.advance();
    });
    if (job.stopped()) return stopped_failure();
    return out;
}

Result<std::vector<NamedFile>> gather_run(const std::vector<std::string>& names, Inner inner) {
    std::vector<NamedFile> out;
    for (const std::string& name : names) {
        Result<std::vector<fs::path>> files = gather_files({name}, inner);
        if (!files.ok()) return files.failure();
        std::error_code error;
        const bool folder = fs::is_directory(name, error);
        for (fs::path& file : files.value()) {
            const Role role = folder ? role_of_folder(file.parent_path().filename().string()) : Role::scene;
            out.push_back({std::move(file), role});
        }
        if (!folder || inner == Inner::yes) continue;
        for (const char* inside : {"darks", "foreground"}) {
            Result<std::vector<fs::path>> more = gather_files({(fs::path(name) / inside).string()});
            if (!more.ok()) continue;
            for (fs::path& file : more.value()) out.push_back({std::move(file), role_of_folder(inside)});
        }
    }
    return out;
}

Result<Pile> open_frames(const std::vector<NamedFile>& files, Outcome outcome, Order order, Job& job, KnownBy known) {
    Result<std::vector<Frame>> read = read_frames(files, known, job);
    if (!read.ok()) return read.failure();
    return pile_of(std::move(read).value(), outcome, order);
}

Result<Pile> pile_of(std::vector<Frame> frames, Outcome outcome, Order order) {
    const Size canvas = commonest_size(frames);
    for (Frame& frame : frames) check_size(frame, canvas);
    if (order == Order::captured)
        order_frames(frames);
    else if (order == Order::name)
        std::stable_sort(frames.begin(), frames.end(), [](const Frame& a, const Frame& b) {
            return natural_less(a.file->path.filename().string(), b.file->path.filename().string());
        });
    mark_copies({}, frames);
    Pile pile;
    int id = 1;
    for (Frame& frame : frames) frame.id = id++;
    pile.frames = std::move(frames);
    pile.size = canvas;
    const Frame* first = first_usable(pile);
    if (pile.frames.empty())
        return Failure{Fault::input, "", "No frames were given. Choose pictures, or a folder of them."};
    if (!first) return Failure{Fault::input, "", {"None of the frames can be used. %1", {pile.frames.front().problem}}};
    pile.reference = first->id;
    pile.base = first->id;
    pile.profile = first->file->facts.profile;
    pile.balance = first->file->facts.balance;
    pile.channels = 1;
    for (const Frame& frame : pile.frames)
        if (usable(frame)) pile.channels = std::max(pile.channels, frame.file->facts.channels);
    // A grey profile cannot describe the colour of the others.
    if (pile.channels == 3 && first->file->facts.channels == 1) pile.profile = Profile::srgb();
    return with_outcome(std::move(pile), outcome);
}

Result<std::vector<Frame>> fresh_frames(const Pile& pile, const std::vector<NamedFile>& files, Job& job) {
    std::vector<NamedFile> fresh;
    for (const NamedFile& named : files) {
        const bool known = std::any_of(pile.frames.begin(), pile.frames.end(),
                                       [&](const Frame& f) { return same_file(f.file->path, named.path); });
        if (!known) fresh.push_back(named);
    }
    Result<std::vector<Frame>> read = read_frames(fresh, KnownBy::content, job);
    if (!read.ok()) return read.failure();
    return beside(pile, std::move(read).value());
}

Result<Pile> add_frames(const Pile& pile, const std::vector<NamedFile>& files, Job& job) {
    Result<std::vector<Frame>> fresh = fresh_frames(pile, files, job);
    if (!fresh.ok()) return fresh.failure();
    return with_frames(pile, std::move(fresh).value());
}

std::vector<Frame> beside(const Pile& pile, std::vector<Frame> frames) {
    for (Frame& frame : frames) check_size(frame, pile.size);
    mark_copies(pile.frames, frames);
    return frames;
}

}  // namespace bp
