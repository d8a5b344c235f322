#include "engine/growth.h"

#include <algorithm>
#include <chrono>
#include <cmath>
#include <mutex>
#include <thread>
#include <utility>

#include "base/files.h"
#include "base/guarded.h"
#include "base/parallel.h"
#include "engine/cover.h"
#include "engine/grown_rows.h"
#include "engine/knitting.h"
#include "engine/render.h"
#include "engine/resizing.h"
#include "engine/turning.h"
#include "engine/way_out.h"
#include "engine/writing_out.h"
#include "image/known_profiles.h"
#include "io/clip_writer.h"
#include "pile/part_edits.h"

namespace bp {
namespace {

constexpr double widest = 16.0 / 9;

// What encoders of clips ask for; never larger.
int even(double length) {
    return std::max(2, 2 * int(length / 2 + 1e-9));
}

Size size_of(const Pile& pile) {
    const Size full = output_area(pile).size();
    if (full.width == 0 || full.height == 0) return {};
    const Size asked = reduced_size(full, pile.exporting.long_edge_px);
    const double high = pile.growth.lines, wide = widest * pile.growth.lines;
    const double scale = std::min({1.0, high / asked.height, wide / asked.width});
    return {even(asked.width * scale), even(asked.height * scale)};
}

// The smallest level that is no smaller.
int level_for(Size full, Size wanted) {
    int level = 0;
    while (at_level(full, level + 1).width >= wanted.width && at_level(full, level + 1).height >= wanted.height)
        ++level;
    return level;
}

// Where the pictures go.
using Take = std::function<Status(Raster16 picture, int times)>;

// Hands pictures on, one after the other, while the next are made.
class InTurn {
  public:
    explicit InTurn(std::function<Status(const Raster16&, int)> take) : take_(std::move(take)) {}
    ~InTurn() {
        if (thread_.joinable()) thread_.join();
    }
    InTurn(const InTurn&) = delete;
    InTurn& operator=(const InTurn&) = delete;

    // The failure of those before, if one failed.
    Status add(Raster16 picture, int times) {
        Status before = finish();
        if (!before.ok()) return before;
        now_ = std::move(picture);
        thread_ = std::thread([this, times] { done_ = guarded([&] { return take_(now_, times); }); });
        return Done{};
    }
    Status finish() {
        if (thread_.joinable()) thread_.join();
        return done_;
    }

  private:
    std::function<Status(const Raster16&, int)> take_;
    std::thread thread_;
    Raster16 now_;
    Status done_ = Done{};
};

// Work on pictures that goes on beside what makes the next ones.
class Beside {
  public:
    ~Beside() {
        if (thread_.joinable()) thread_.join();
    }
    void begin(std::vector<Raster16> pictures, std::function<Status(Raster16&)> work) {
        pictures_ = std::move(pictures);
        thread_ = std::thread([this, work = std::move(work)] {
            done_ = guarded([&]() -> Status {
                for (Raster16& picture : pictures_)
                    if (Status one = work(picture); !one.ok()) return one;
                return Done{};
            });
        });
    }
    // Waits for it, and gives how it went.
    Status finish() {
        if (thread_.joinable()) thread_.join();
        return done_;
    }
    // After finish(), once.
    std::vector<Raster16> pictures() { return std::exchange(pictures_, {}); }

  private:
    std::thread thread_;
    std::vector<Raster16> pictures_;
    Status done_ = Done{};
};

// Makes the pictures of a growth, one after the other.
class Growing {
  public:
    Growing(const Pile& pile, const GrowthPlan& plan, const Profile& profile, FrameStore& store, Job& job)
        : pile_(pile),
          plan_(plan),
          profile_(profile),
          store_(store),
          job_(job),
          level_(level_for(output_area(pile).size(), plan.size)),
          region_(at_level(output_area(pile), level_)),
          on_canvas_(Turn(pile, level_).made_from(region_)),
          frames_(int(growing_ids(pile).size())) {}

    Status run(const Take& take) {
        job_.begin({"Growing %1 pictures", {std::to_string(plan_.pictures.size())}},
                   long(plan_.pictures.size()) * parts_of_a_picture);
        Result<FinishTools> tools = finish_tools(pile_, level_, store_, job_);
        if (!tools.ok()) return tools.failure();
        finish_.emplace(std::move(tools).value(), pile_.profile, pile_.channels, at_level(canvas_of(pile_), level_));
        if (!(profile_ == pile_.profile)) {
            Result<Conversion> made = Conversion::make(pile_.profile, pile_.channels, profile_, pile_.channels);
            if (!made.ok()) return made.failure();
            conversion_.emplace(std::move(made).value());
        }
        area_ = finish_->around(on_canvas_);
        job_.begin({"Growing %1 pictures", {std::to_string(plan_.pictures.size())}},
                   long(plan_.pictures.size()) * parts_of_a_picture);
        if (Status based = grow_base(take); !based.ok()) return based;
        return lay_parts(take);
    }

  private:
    static constexpr long parts_of_a_picture = 1000;

    Status grow_base(const Take& take) {
        const Result<std::shared_ptr<const Knitting>> knitting = knitting_for(pile_, store_, job_);
        if (!knitting.ok()) return knitting.failure();
        Grown grown(pile_, area_, level_, knitting.value().get());
        // As many together as take a sixth of the memory: as many more are finished beside them, and rows of frames and
        // finishing need some.
        const std::size_t one = std::max<std::size_t>(1, grown.bytes(1));
        const auto together =
            std::size_t(std::clamp<std::size_t>(store_.budget().work_bytes / 6 / one, 1, most_together));
        Beside beside;
        const auto take_back = [&] {
            for (Raster16& base : beside.pictures()) grown.give_back(std::exchange(last_, std::move(base)));
        };
        int done = 0;  // frames
        for (std::size_t planned = 0; planned < plan_.pictures.size() && done < frames_;) {
            std::vector<int> until;
            for (std::size_t i = planned; i < plan_.pictures.size() && until.size() < together; ++i) {
                until.push_back(std::min(plan_.pictures[i].until, frames_));
                if (until.back() == frames_) break;
            }
            Result<std::vector<Raster16>> made = [&] {
                Job inner =
                    Job([&](const Progress& p) { follow(double(planned) + p.fraction * double(until.size())); });
                inner_ = &inner;
                Result<std::vector<Raster16>> out = grown.next(until, store_, inner);
                inner_ = nullptr;
                return out;
            }();
            if (!made.ok()) return made.failure();
            if (job_.stopped()) return stopped_failure();
            done = until.back();
            planned += until.size();
            if (Status before = beside.finish(); !before.ok()) return before;
            take_back();
            beside.begin(std::move(made).value(), [this, &take](Raster16& base) -> Status {
                // One that shows parts, too, is not there yet.
                return plan_.pictures[next_].until <= frames_ ? hand_on(base, take) : Status(Done{});
            });
        }
        if (Status handed = beside.finish(); !handed.ok()) return handed;
        take_back();
        if (last_.size() == Size{}) {
            last_ = Raster16(area_.size(), pile_.channels);
            const auto background = background_of(pile_);
            for (std::size_t i = 0; i < last_.data().size(); ++i)
                last_.data()[i] = background[i % std::size_t(pile_.channels)];
        }
        return Done{};
    }
    Status lay_parts(const Take& take) {
        const Picture picture(pile_, level_, {});
        const std::vector<const Part*> parts = showing_parts(pile_);
        const auto index = [&](int shown) {
            return shown == 0 ? 0 : std::size_t(parts[std::size_t(shown - 1)] - pile_.parts.data()) + 1;
        };
        std::optional<SolvedEdges> edges;
        std::size_t laid = 0;
        while (next_ < plan_.pictures.size()) {
            if (!edges) {
                Result<SolvedEdges> solved = picture.edges(store_, area_, job_, nullptr);
                if (!solved.ok()) return solved.failure();
                edges.emplace(std::move(solved).value());
            }
            const std::size_t to = index(plan_.pictures[next_].until - frames_);
            Result<Raster16> over = picture.over(last_, *edges, laid, to, store_, area_, job_);
            if (!over.ok()) return over.failure();
            laid = to;
            last_ = std::move(over).value();
            if (Status taken = hand_on(last_, take); !taken.ok()) return taken;
        }
        return Done{};
    }
    Status hand_on(const Raster16& picture, const Take& take) {
        if (job_.stopped()) return stopped_failure();
        Raster16 finished;
        const Raster16* now = &picture;
        if (!finish_->empty()) {
            finished = Raster16(on_canvas_.size(), pile_.channels);
            finish_->make(
                on_canvas_, [&](int y) { return picture.row(y - area_.top); },
                [&](int y) { return finished.row(y - on_canvas_.top); });
            now = &finished;
        }
        Result<Raster16> level_turned = Raster16();
        if (pile_.turn_deg != 0) {
            level_turned =
                turned(pile_, region_, level_, [&](const Rect&) -> Result<Raster16> { return now->clone(); });
            if (!level_turned.ok()) return level_turned.failure();
            now = &level_turned.value();
        }
        if (!reduction_ && now->size() != plan_.size)
            reduction_.emplace(now->size(), plan_.size, pile_.profile, pile_.channels);
        Raster16 out = reduction_ ? reduction_->all(*now) : now->clone();
        if (conversion_)
            parallel_for(0, out.height(), [&](int y) { conversion_->run(out.row(y), out.row(y), out.width()); });
        const int times = plan_.pictures[next_++].times;
        Status taken = take(std::move(out), times);
        const std::lock_guard lock(telling_);
        handed_ = double(next_);
        tell();
        return taken;
    }
    // How many pictures are merged.
    void follow(double pictures) {
        if (job_.stopped() && inner_) inner_->stop();
        const std::lock_guard lock(telling_);
        merged_ = pictures;
        tell();
    }
    // Merging is half of what a picture takes; those of parts have been merged with the base.
    void tell() {
        const long now = std::lround((std::max(merged_, handed_) + handed_) / 2 * parts_of_a_picture);
        if (now > told_) job_.advance(now - told_);
        told_ = std::max(told_, now);
    }

    static constexpr std::size_t most_together = 8;

    const Pile& pile_;
    const GrowthPlan& plan_;
    const Profile& profile_;
    FrameStore& store_;
    Job& job_;
    int level_;
    Rect region_;     // of the turned picture
    Rect on_canvas_;  // what it is made from
    Rect area_;       // with what finishing reads around it
    int frames_;
    std::size_t next_ = 0;
    std::mutex telling_;
    double merged_ = 0, handed_ = 0;  // pictures
    long told_ = 0;
    Job* inner_ = nullptr;
    Raster16 last_;
    std::optional<Finishing> finish_;
    std::optional<Reduction> reduction_;
    std::optional<Conversion> conversion_;
};

Status write_numbered(const fs::path& folder, const Profile& profile, const Pile& pile, const GrowthPlan& plan,
                      const ExportOptions& options, const std::function<Status(const Take&)>& grow) {
    std::error_code error;
    if (fs::exists(folder, error) && (!fs::is_directory(folder, error) || !fs::is_empty(folder, error)))
        return Failure{Fault::output,
                       folder.string(),
                       {"%1 holds something already. Numbered pictures go into a new or an empty folder.",
                        {folder.filename().string()}}};
    const bool made = fs::create_directories(folder, error);
    if (error) return Failure{Fault::output, folder.string(), Saying(error.message())};
    std::vector<fs::path> written;
    Status done = grow([&](const Raster16& picture, int times) -> Status {
        for (int i = 0; i < times; ++i) {
            const std::string number = std::to_string(written.size() + 1);
            const auto digits = std::max<std::size_t>(4, std::to_string(plan.count()).size());
            const fs::path file = folder / (std::string(digits - number.size(), '0') + number + ".png");
            WriteOptions write = options.write;
            write.sync = Sync::no;
            Status one = write_picture(file, picture, profile, write, merged_capture(pile));
            if (!one.ok()) return one;
            written.push_back(file);
        }
        return Done{};
    });
    if (done.ok()) return done;
    // Half of a growth is of no use to anybody.
    for (const fs::path& file : written) fs::remove(file, error);
    if (made) fs::remove(folder, error);
    return done;
}

Result<GrownFile> grown(const Pile& pile, const fs::path& file, const ExportOptions& options, Job& job) {
    GrownFile out;
    const auto begin = std::chrono::steady_clock::now();
    const auto write = [&](const Pile& now) -> Status {
        out.plan = growth_plan(now);
        FrameStore store(working_space(now), {0, options.memory_bytes}, options.scratch);
        if (options.known)
            if (Status shared = share_what_is_known(now, *options.known, store, job); !shared.ok()) return shared;
        const bool clip = writes_as_clip(file);
        // A clip has the colours that every player takes it to have.
        const Profile profile = now.channels == 1 ? now.profile
                                : clip            ? known_profile(KnownProfile::srgb)
                                                  : exported_profile(now);
        Growing growing(now, out.plan, profile, store, job);
        const auto grow = [&](const Take& take) { return growing.run(take); };
        if (!clip) return write_numbered(file, profile, now, out.plan, options, grow);
        return write_clip(file, {out.plan.size, now.growth.rate, now.growth.quality}, [&](ClipWriter& writer) {
            InTurn turn([&](const Raster16& picture, int times) { return writer.add(picture, times); });
            const Status grown_all =
                grow([&](Raster16 picture, int times) { return turn.add(std::move(picture), times); });
            Status added = turn.finish();
            return grown_all.ok() ? added : grown_all;
        });
    };
    if (!writes_as_clip(file) && file.has_extension() && !fs::is_directory(file))
        return Failure{Fault::wrong_call,
                       file.string(),
                       {"The name %1 ends in no format of clips: use .mp4 or .webm, or a folder's name without an "
                        "ending for numbered pictures.",
                        {file.filename().string()}}};
    Result<Pile> written = write_without_broken(pile, file, write);
    if (!written.ok()) return written.failure();
    out.pile = std::move(written).value();
    out.grow_s = std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count();
    return out;
}

}  // namespace

long GrowthPlan::count() const {
    long out = 0;
    for (const Shown& one : pictures) out += one.times;
    return out;
}

GrowthPlan growth_plan(const Pile& pile) {
    GrowthPlan out;
    const long steps = long(growing_ids(pile).size()) + long(showing_parts(pile).size());
    out.size = size_of(pile);
    if (steps == 0) return out;
    const GrowthSettings& growth = pile.growth;
    const long wanted = growth.seconds > 0 ? std::max(1L, std::lround(growth.seconds * growth.rate)) : steps;
    for (long i = 0; i < wanted; ++i) {
        const auto until = int(((i + 1) * steps + wanted - 1) / wanted);
        if (!out.pictures.empty() && out.pictures.back().until == until)
            ++out.pictures.back().times;
        else
            out.pictures.push_back({until, 1});
    }
    out.pictures.back().times += int(std::lround(growth.hold_s * growth.rate));
    out.seconds = double(out.count()) / growth.rate;
    return out;
}

Result<GrownFile> export_growth(const Pile& pile, const fs::path& file, const ExportOptions& options, Job& job) {
    return guarded([&] { return grown(pile, file, options, job); });
}

}  // namespace bp
