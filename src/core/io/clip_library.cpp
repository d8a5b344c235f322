// Decodes clips by OpenCV's FFmpeg backend. Built as a library that is loaded when a clip is opened.
#include <opencv2/videoio.hpp>

#include "io/clip_decoder.h"

namespace bp::io {
namespace {

class FfmpegClip final : public ClipDecoder {
  public:
    explicit FfmpegClip(const char* file) : capture_(file, cv::CAP_FFMPEG) {}
    bool open() const { return capture_.isOpened(); }
    double width() const override { return capture_.get(cv::CAP_PROP_FRAME_WIDTH); }
    double height() const override { return capture_.get(cv::CAP_PROP_FRAME_HEIGHT); }
    double rate() const override { return capture_.get(cv::CAP_PROP_FPS); }
    double frames() const override { return capture_.get(cv::CAP_PROP_FRAME_COUNT); }
    bool next() override { return capture_.grab(); }
    bool read(int frame_width, int frame_height, std::uint8_t* rgb) override {
        if (!capture_.retrieve(picture_) || picture_.type() != CV_8UC3) return false;
        if (picture_.cols != frame_width || picture_.rows != frame_height) return false;
        for (int y = 0; y < picture_.rows; ++y) {
            const auto* bgr = picture_.ptr<std::uint8_t>(y);
            for (int x = 0; x < picture_.cols; ++x, bgr += 3, rgb += 3)
                for (int c = 0; c < 3; ++c) rgb[c] = bgr[2 - c];
        }
        return true;
    }

  private:
    cv::VideoCapture capture_;
    cv::Mat picture_;
};

}  // namespace
}  // namespace bp::io

extern "C" __attribute__((visibility("default"))) bp::io::ClipDecoder* bright_pile_open_clip(const char* file) {
    // Nothing may be thrown out of a library.
    try {
        auto clip = std::make_unique<bp::io::FfmpegClip>(file);
        return clip->open() ? clip.release() : nullptr;
    } catch (const std::exception&) {
        return nullptr;
    }
}
