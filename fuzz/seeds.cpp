// Writes small good files of every kind to begin from, into FOLDER/pictures, raws, clips and piles.
#include <cstdio>
#include <filesystem>
#include <opencv2/videoio.hpp>
#include <string>

#include "engine/open.h"
#include "io/writer.h"
#include "pile/edits.h"
#include "pile/file.h"
#include "practice/dng.h"

namespace {

using namespace bp;

Status write_seed(const std::filesystem::path& file, Size size, int channels, int bits) {
    CaptureData capture;
    capture.captured = 1789251245.25;
    capture.exposure_s = 25;
    capture.iso = 1600;
    const PictureHead head{size, channels, Profile(Profile::srgb().bytes()), capture};
    return write_picture(file, head, {bits, 90, Sync::no}, [&](RowWriter& writer) -> Status {
        std::vector<std::uint16_t> row(std::size_t(size.width) * std::size_t(channels));
        const std::uint16_t* pointer = row.data();
        for (int y = 0; y < size.height; ++y) {
            for (std::size_t i = 0; i < row.size(); ++i) row[i] = std::uint16_t(i * 1201 + std::size_t(y) * 977);
            Status written = writer.write({&pointer, 1});
            if (!written.ok()) return written;
        }
        return Done{};
    });
}

bool write_clip(const std::filesystem::path& file) {
    const cv::Size size(32, 24);
    cv::VideoWriter writer(file.string(), cv::VideoWriter::fourcc('M', 'J', 'P', 'G'), 10, size);
    for (int n = 0; n < 3; ++n) writer.write(cv::Mat(size, CV_8UC3, cv::Scalar(40 * n, 90, 200 - 40 * n)));
    return writer.isOpened();
}

Status write_raw(const std::filesystem::path& file) {
    Raster16 mosaic(Size{24, 16}, 1);
    for (int y = 0; y < 16; ++y)
        for (int x = 0; x < 24; ++x) mosaic.row(y)[x] = std::uint16_t(practice::Sensor::black + 300 * x + 70 * y);
    return practice::write_dng(file, mosaic, {});
}

}  // namespace

int main(int argc, char** argv) {
    if (argc != 2) return 2;
    const std::filesystem::path folder = argv[1];
    for (const char* kind : {"pictures", "raws", "clips", "piles"}) std::filesystem::create_directories(folder / kind);
    if (!write_raw(folder / "raws" / "seed.dng").ok() || !write_clip(folder / "clips" / "seed.avi")) return 4;
    std::vector<NamedFile> files;
    for (const char* ending : {".jpg", ".png", ".tif"})
        for (const int channels : {1, 3})
            for (const int bits : {8, 16}) {
                const auto file =
                    folder / "pictures" / ("seed-" + std::to_string(channels) + "-" + std::to_string(bits) + ending);
                if (!write_seed(file, {19, 13}, channels, bits).ok()) return 4;
                if (channels == 3) files.push_back({file});
            }
    Job job;
    Result<Pile> opened = open_frames(files, Outcome::trails, Order::name, job);
    if (!opened.ok()) return 3;
    auto [pile, part] = with_new_part(opened.value(), opened.value().frames[1].id);
    Mask mask(pile.size);
    mask.edit({2, 3, 9, 7}, [](int x, int, std::uint8_t) { return std::uint8_t(x * 20); });
    return save_pile(with_part_mask(pile, part, mask), folder / "piles" / "seed.pile").ok() ? 0 : 4;
}
