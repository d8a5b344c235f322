#include "io/clip_writer.h"

#include <algorithm>
#include <string>
#include <vector>

#include "base/files.h"
#include "io/clip_maker.h"
#include "io/file_target.h"
#include "io/libraries.h"

namespace bp {
namespace {

std::string ending_of(const fs::path& file) {
    std::string ending = file.extension().string();
    std::transform(ending.begin(), ending.end(), ending.begin(), [](unsigned char c) { return char(std::tolower(c)); });
    return ending;
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
        const std::uint16_t* from = picture.data().data();
        if (picture.channels() == 1) {
            grey_.clear();
            grey_.reserve(3 * picture.data().size());
            for (const std::uint16_t v : picture.data()) grey_.insert(grey_.end(), 3, v);
            from = grey_.data();
        }
        return maker_->add(from, times) && output_.error == 0 ? Status(Done{}) : Status(broken());
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
    std::vector<std::uint16_t> grey_;
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
