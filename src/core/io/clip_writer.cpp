#include "io/clip_writer.h"

#include <algorithm>
#include <array>
#include <string>
#include <vector>

#include "base/files.h"
#include "base/parallel.h"
#include "io/clip_maker.h"
#include "io/file_target.h"
#include "io/libraries.h"
#include "kernels/clip_rows.h"

namespace bp {
namespace {

std::string ending_of(const fs::path& file) {
    std::string ending = file.extension().string();
    std::transform(ending.begin(), ending.end(), ending.begin(), [](unsigned char c) { return char(std::tolower(c)); });
    return ending;
}

const std::uint16_t* three_alike(const std::uint16_t* grey, std::size_t pixels, std::vector<std::uint16_t>& room) {
    room.clear();
    for (std::size_t x = 0; x < pixels; ++x) room.insert(room.end(), 3, grey[x]);
    return room.data();
}

class Writer final : public ClipWriter {
  public:
    Writer(const fs::path& named, const fs::path& file) : named_(named), output_(file), target_(output_) {}

    Status start(const ClipHead& head) {
        if (output_.fd < 0) return broken();
        const Result<void*> open = io::function_of_library(io::clip_maker_library, io::open_clip_maker_name, named_);
        if (!open.ok()) return open.failure();
        const io::ClipMakerHead told{head.size.width, head.size.height, head.rate, head.quality,
                                     ending_of(named_) == ".webm"};
        maker_.reset(reinterpret_cast<io::OpenClipMaker>(open.value())(&target_, &told));
        return maker_ ? Status(Done{}) : Status(broken());
    }
    Status add(const Raster16& picture, int times) override {
        io::ClipPicture room{};
        if (!maker_->begin(room)) return broken();
        parallel_for(0, picture.height() / 2, [&](int pair) {
            static thread_local std::array<std::vector<std::uint16_t>, 2> grey;
            static thread_local std::vector<float> sums;
            std::array<const std::uint16_t*, 2> rows{};
            const auto pixels = std::size_t(picture.width());
            for (std::size_t i = 0; i < 2; ++i) {
                const int y = 2 * pair + int(i);
                rows[i] = picture.channels() == 1 ? three_alike(picture.row(y), pixels, grey[i]) : picture.row(y);
                kernels::clip_brightness(rows[i], pixels, y,
                                         room.brightness + std::ptrdiff_t(y) * room.brightness_stride);
            }
            kernels::clip_colour(rows[0], rows[1], pixels, pair, sums,
                                 room.blue + std::ptrdiff_t(pair) * room.blue_stride,
                                 room.red + std::ptrdiff_t(pair) * room.red_stride);
        });
        return maker_->add(times) && output_.error == 0 ? Status(Done{}) : Status(broken());
    }
    Status finish() {
        const bool well = maker_->finish() && target_.flush();
        return well && output_.error == 0 ? Status(Done{}) : Status(broken());
    }

  private:
    Failure broken() const { return output_.failure(named_, "the encoder of clips refuses it"); }

    fs::path named_;
    Output output_;
    io::FileTarget target_;
    std::unique_ptr<io::ClipMaker> maker_;
};

}  // namespace

bool writes_as_clip(const fs::path& file) {
    return ending_of(file) == ".mp4" || ending_of(file) == ".webm";
}

Status write_clip(const fs::path& file, const ClipHead& head, const std::function<Status(ClipWriter&)>& fill) {
    return write_whole(file, [&](const fs::path& beside) -> Status {
        Writer writer(file, beside);
        if (Status started = writer.start(head); !started.ok()) return started;
        if (Status filled = fill(writer); !filled.ok()) return filled;
        return writer.finish();
    });
}

}  // namespace bp
