#include "io/clip.h"

#include <algorithm>
#include <atomic>
#include <charconv>
#include <chrono>
#include <cmath>
#include <map>
#include <mutex>
#include <set>

#include "base/files.h"
#include "base/scratch.h"
#include "io/clip_decoder.h"
#include "io/kinds.h"
#include "io/readers.h"
#include "io/writer.h"
#include "kernels/extremes.h"

namespace bp {
namespace {

constexpr int largest_side = 20000;
constexpr double most_frames = 1e6;

Failure broken(const fs::path& clip) {
    return io::refuse(clip, "%1 is not a clip that can be read. Copy it again, or save it as MP4.");
}

Result<std::unique_ptr<io::ClipDecoder>> open_there(const fs::path& clip) {
    std::error_code error;
    if (!fs::exists(clip, error)) return io::refuse(clip, "%1 is not there. Was it moved or renamed?");
    auto decoder = io::open_clip(clip);
    if (decoder.ok() && !decoder.value()) return broken(clip);
    return decoder;
}

// Seconds since 1970.
double changed_at(const fs::path& file) {
    std::error_code error;
    const auto time = fs::last_write_time(file, error);
    if (error) return 0;
    const auto system = std::chrono::file_clock::to_sys(time).time_since_epoch();
    return std::chrono::duration<double>(system).count();
}

// What is known of a clip as it is now: probing and hashing a long one takes time, and every frame asks.
struct KnownClip {
    double changed = 0;
    std::uintmax_t bytes = 0;
    std::string hash;
    std::optional<ClipFacts> facts;
    std::optional<long> end;  // the first frame that is not there, when a header promised more
};

class KnownClips {
  public:
    static KnownClips& all() {
        static KnownClips clips;
        return clips;
    }
    Result<std::string> hash(const fs::path& clip) {
        const std::lock_guard lock(mutex_);
        KnownClip& known = entry(clip);
        if (known.hash.empty()) {
            Result<std::string> made = content_hash(clip);
            if (!made.ok()) return made;
            known.hash = made.value();
        }
        return known.hash;
    }
    Result<ClipFacts> facts(const fs::path& clip) {
        const std::lock_guard lock(mutex_);
        KnownClip& known = entry(clip);
        if (!known.facts) {
            Result<ClipFacts> made = look(clip);
            if (!made.ok()) return made;
            known.facts = made.value();
        }
        return *known.facts;
    }
    std::optional<long> end(const fs::path& clip) {
        const std::lock_guard lock(mutex_);
        return entry(clip).end;
    }
    void set_end(const fs::path& clip, long number) {
        const std::lock_guard lock(mutex_);
        entry(clip).end = number;
    }
    std::set<std::string> hashes() {
        const std::lock_guard lock(mutex_);
        std::set<std::string> out;
        for (const auto& [clip, known] : clips_) out.insert(known.hash);
        return out;
    }

  private:
    KnownClip& entry(const fs::path& clip) {
        std::error_code error;
        KnownClip& known = clips_[clip.string()];
        const double changed = changed_at(clip);
        const std::uintmax_t bytes = fs::file_size(clip, error);
        if (known.changed != changed || known.bytes != bytes) known = {changed, bytes, {}, {}, {}};
        return known;
    }
    static Result<ClipFacts> look(const fs::path& clip) {
        auto opened = open_there(clip);
        if (!opened.ok()) return opened.failure();
        const io::ClipDecoder& decoder = *opened.value();
        ClipFacts out;
        out.size = {int(decoder.width()), int(decoder.height())};
        out.rate = decoder.rate();
        const double frames = decoder.frames();
        if (out.size.width < 1 || out.size.height < 1 || out.size.width > largest_side ||
            out.size.height > largest_side || !(out.rate > 0.01 && out.rate < 10000) ||
            !(frames >= 1 && frames <= most_frames))
            return broken(clip);
        out.frames = long(frames);
        out.begin = std::floor(changed_at(clip) - double(out.frames) / out.rate);
        return out;
    }

    std::mutex mutex_;
    std::map<std::string, KnownClip> clips_;
};

fs::path folder_of_all() {
    return Scratch::cache_folder() / "clips";
}

std::atomic<std::uint64_t>& most_bytes() {
    static std::atomic<std::uint64_t> bytes{std::uint64_t(2) << 30};
    return bytes;
}

Result<fs::path> folder_of(const fs::path& clip) {
    Result<std::string> hash = KnownClips::all().hash(clip);
    if (!hash.ok()) return hash.failure();
    const fs::path folder = folder_of_all() / hash.value();
    std::error_code error;
    fs::create_directories(folder, error);
    if (error)
        return Failure{Fault::output,
                       folder.string(),
                       {"The folder %1 cannot be made: %2. Choose another place.", {folder.string(), error.message()}}};
    return folder;
}

fs::path file_of(const fs::path& folder, long number) {
    return folder / (std::to_string(number) + ".png");
}

Failure ends_at(const fs::path& clip, long number) {
    return io::refuse(clip, "%1 ends at frame %2. Choose an earlier end.", {std::to_string(number)});
}

Raster16 widened(const Raster8& picture) {
    Raster16 out(picture.size(), picture.channels());
    kernels::widen(picture.data().data(), picture.data().size(), out.data().data());
    return out;
}

}  // namespace

Result<ClipFacts> probe_clip(const fs::path& clip) {
    return KnownClips::all().facts(clip);
}

fs::path name_of_clip_frame(const ClipFrame& frame) {
    return frame.clip.string() + "#" + std::to_string(frame.number);
}

std::optional<ClipFrame> clip_frame_of(const fs::path& name) {
    const std::string text = name.string();
    const std::size_t mark = text.rfind('#');
    if (mark == std::string::npos || mark + 1 == text.size()) return std::nullopt;
    ClipFrame out{text.substr(0, mark), 0};
    const char* end = text.data() + text.size();
    const auto [stop, error] = std::from_chars(text.data() + mark + 1, end, out.number);
    if (error != std::errc() || stop != end || out.number < 0) return std::nullopt;
    const Kind* kind = kind_of(out.clip);
    if (!kind || kind->way != ReadBy::clip) return std::nullopt;
    return out;
}

std::vector<long> pick_frames(const ClipFacts& facts, double from_s, double to_s, double rate) {
    std::vector<long> out;
    if (!(rate > 0)) return out;
    for (long i = 0;; ++i) {
        const double at = from_s + double(i) / rate;
        const long number = std::lround(at * facts.rate);
        if (at > to_s + 1e-9 || number >= facts.frames) return out;
        if (number >= 0 && (out.empty() || number > out.back())) out.push_back(number);
    }
}

Status unroll_clip(const fs::path& clip, const std::vector<long>& numbers, Job& job) {
    Result<fs::path> folder = folder_of(clip);
    if (!folder.ok()) return folder.failure();
    std::vector<long> missing;
    std::copy_if(numbers.begin(), numbers.end(), std::back_inserter(missing), [&](long n) {
        std::error_code error;
        return !fs::exists(file_of(folder.value(), n), error);
    });
    // Tells a sweep when it was used last.
    std::error_code untold;
    fs::last_write_time(folder.value(), fs::file_time_type::clock::now(), untold);
    if (missing.empty()) return Done{};
    // Once found out, not again for every frame that is not there.
    if (const auto end = KnownClips::all().end(clip); end && missing.front() >= *end) return ends_at(clip, *end);
    const Result<ClipFacts> facts = probe_clip(clip);
    if (!facts.ok()) return facts.failure();
    auto opened = open_there(clip);
    if (!opened.ok()) return opened.failure();
    io::ClipDecoder& decoder = *opened.value();
    job.begin({"Reading frames of %1", {clip.filename().string()}}, missing.back() + 1);
    auto next = missing.begin();
    const Size size = facts.value().size;
    Raster8 picture(size, 3);
    // Frame by frame from the begin: to jump to a number is not exact in many kinds of clips.
    for (long n = 0; next != missing.end(); ++n) {
        if (job.stopped()) return stopped_failure();
        if (!decoder.next()) {
            KnownClips::all().set_end(clip, n);
            return ends_at(clip, n);
        }
        job.advance();
        if (n != *next) continue;
        ++next;
        if (!decoder.read(size.width, size.height, picture.data().data())) return broken(clip);
        Status kept =
            write_picture(file_of(folder.value(), n), widened(picture), Profile::srgb(), {8, 92, Sync::no}, {});
        if (!kept.ok()) return kept;
    }
    sweep_clip_frames();
    return Done{};
}

void limit_clip_frames(std::uint64_t bytes) {
    most_bytes() = bytes;
}

void sweep_clip_frames() {
    struct Kept {
        fs::path folder;
        std::uint64_t bytes;
        fs::file_time_type used;
    };
    std::vector<Kept> all;
    std::uint64_t together = 0;
    std::error_code error;
    for (fs::directory_iterator at(folder_of_all(), error), end; !error && at != end; at.increment(error)) {
        std::error_code gone;
        Kept one{at->path(), 0, at->last_write_time(gone)};
        for (fs::directory_iterator frame(one.folder, gone), none; !gone && frame != none; frame.increment(gone)) {
            std::error_code untold;
            const std::uintmax_t bytes = frame->file_size(untold);
            if (!untold) one.bytes += bytes;
        }
        together += one.bytes;
        all.push_back(std::move(one));
    }
    std::sort(all.begin(), all.end(), [](const Kept& a, const Kept& b) { return a.used < b.used; });
    const std::set<std::string> in_use = KnownClips::all().hashes();
    for (const Kept& one : all) {
        if (together <= most_bytes()) break;
        if (in_use.contains(one.folder.filename().string())) continue;
        std::error_code failed;
        fs::remove_all(one.folder, failed);
        if (!failed) together -= one.bytes;
    }
}

Result<fs::path> pixels_of_clip_frame(const ClipFrame& frame) {
    Result<fs::path> folder = folder_of(frame.clip);
    if (!folder.ok()) return folder.failure();
    fs::path file = file_of(folder.value(), frame.number);
    std::error_code error;
    if (fs::exists(file, error)) return file;
    // One pass at a time.
    static std::mutex one_at_a_time;
    const std::lock_guard lock(one_at_a_time);
    Job job;
    Status unrolled = unroll_clip(frame.clip, {frame.number}, job);
    if (!unrolled.ok()) return unrolled.failure();
    return file;
}

Result<std::string> hash_of_clip_frame(const ClipFrame& frame) {
    Result<std::string> hash = KnownClips::all().hash(frame.clip);
    if (!hash.ok()) return hash;
    return hash.value() + "#" + std::to_string(frame.number);
}

CaptureData capture_of_clip_frame(const ClipFrame& frame) {
    CaptureData out;
    const Result<ClipFacts> facts = probe_clip(frame.clip);
    if (facts.ok()) out.captured = facts.value().begin + double(frame.number) / facts.value().rate;
    return out;
}

}  // namespace bp
