// Writes small good files of every kind to begin from, into FOLDER/pictures and FOLDER/piles.
#include <cstdio>
#include <filesystem>
#include <string>

#include "engine/open.h"
#include "io/writer.h"
#include "pile/edits.h"
#include "pile/file.h"

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

}  // namespace

int main(int argc, char** argv) {
    if (argc != 2) return 2;
    const std::filesystem::path folder = argv[1];
    std::filesystem::create_directories(folder / "pictures");
    std::filesystem::create_directories(folder / "piles");
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
