#include "app/looks/pictures.h"

#include <algorithm>

#include "app/looks/display.h"
#include "base/parallel.h"

namespace bp::app {
namespace {

constexpr int stripe = 7, bright = 2;  // pixels, across and of them

// From one profile to the next; one that cannot be used passes samples on as they are.
class Way {
  public:
    Way(const Profile& from, int channels, const Profile& to) : channels_(channels) {
        if (from == to && channels == 3) return;
        Result<Conversion> made = Conversion::make(from, channels, to, 3);
        if (made.ok()) conversion_.emplace(std::move(made).value());
    }
    // Pixels of three channels; `room` keeps them where they are made.
    const std::uint16_t* run(const std::uint16_t* in, int pixels, std::vector<std::uint16_t>& room) const {
        if (!conversion_ && channels_ == 3) return in;
        room.resize(std::size_t(pixels) * 3);
        if (conversion_)
            conversion_->run(in, room.data(), pixels);
        else
            for (std::size_t i = 0; i < room.size(); ++i) room[i] = in[i / 3];
        return room.data();
    }

  private:
    int channels_;
    std::optional<Conversion> conversion_;
};

}  // namespace

QImage to_image(const Raster16& raster, const Profile& profile, const std::optional<Proof>& proof) {
    QImage out(raster.width(), raster.height(), QImage::Format_RGB32);
    uchar* const first = out.bits();
    const Profile display = display_profile();
    const int channels = raster.channels();
    const bool proves = proof && channels == 3;
    const Way straight(profile, channels, display);
    std::optional<Way> in_proof, from_proof;
    Result<GamutCheck> check = Failure{};
    if (proves) {
        in_proof.emplace(profile, 3, proof->profile);
        from_proof.emplace(proof->profile, 3, display);
        check = GamutCheck::make(profile, proof->profile);
    }
    parallel_for(0, raster.height(), [&](int y) {
        std::vector<std::uint16_t> room, more;
        std::vector<std::uint8_t> outside;
        const std::uint16_t* in = raster.row(y);
        if (proves && check.ok()) {
            outside.resize(std::size_t(raster.width()));
            check.value().run(in, outside.data(), raster.width());
        }
        in = proves ? from_proof->run(in_proof->run(in, raster.width(), room), raster.width(), more)
                    : straight.run(in, raster.width(), room);
        auto* to = reinterpret_cast<QRgb*>(first + qsizetype(y) * out.bytesPerLine());
        const auto narrow = [](std::uint16_t v) { return (v + 128) / 257; };
        for (int x = 0; x < raster.width(); ++x, in += 3) {
            to[x] = qRgb(narrow(in[0]), narrow(in[1]), narrow(in[2]));
            if (!outside.empty() && outside[std::size_t(x)] != 0 && (x + y) % stripe < bright)
                to[x] = proof->hatch.rgb();
        }
    });
    return out;
}

}  // namespace bp::app
