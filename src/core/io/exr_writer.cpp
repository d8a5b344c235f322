#include <algorithm>

#include "image/known_profiles.h"
#include "io/exr_library.h"
#include "io/file_target.h"
#include "io/libraries.h"
#include "io/writers.h"

namespace bp::io {
namespace {

// The primaries that a picture of this profile is told by: its own where they are known, else those of Rec. 2020, to
// which it is brought.
KnownProfile told_by(const Profile& profile) {
    if (profile == Profile::linear_srgb()) return KnownProfile::srgb;
    for (const KnownProfile known : {KnownProfile::srgb, KnownProfile::display_p3})
        if (profile == known_profile(known)) return known;
    return KnownProfile::rec2020;
}

class ExrWriter final : public RowWriter {
  public:
    ExrWriter(const std::filesystem::path& file, const PictureHead& head)
        : file_(file), output_(file), target_(output_), head_(head) {}

    Status start(int bits) {
        if (output_.fd < 0) return broken();
        const Result<void*> open = function_of_library(exr_library, open_exr_name, file_);
        if (!open.ok()) return open.failure();
        const KnownProfile known = head_.channels == 1 ? KnownProfile::srgb : told_by(head_.profile);
        Profile light_of = head_.profile;
        const Profile wide = known_profile(KnownProfile::rec2020);
        if (head_.channels == 3 && known == KnownProfile::rec2020 && !(head_.profile == wide)) {
            Result<Conversion> made = Conversion::make(head_.profile, 3, wide, 3);
            if (!made.ok()) return made.failure();
            conversion_.emplace(std::move(made).value());
            light_of = wide;
        }
        const LightCurve curve = LightCurve::of(light_of, head_.channels);
        light_.resize(65536);
        for (std::size_t v = 0; v < light_.size(); ++v)
            light_[v] = float(double(curve.light(std::uint16_t(v))) / LightCurve::full);
        ExrHead head{head_.size.width, head_.size.height, head_.channels, bits == 16, {}, head_.dpi};
        for (std::size_t i = 0; i < 8; ++i) head.primaries[i] = float(primaries_of(known).xy[i / 2][i % 2]);
        rows_.reset(reinterpret_cast<OpenExr>(open.value())(&target_, &head));
        return rows_ ? Status(Done{}) : Status(broken());
    }
    Status write(std::span<const std::uint16_t* const> rows) override {
        const std::size_t samples = std::size_t(head_.size.width) * std::size_t(head_.channels);
        converted_.resize(samples);
        made_.resize(samples);
        for (const std::uint16_t* row : rows) {
            if (conversion_) {
                conversion_->run(row, converted_.data(), head_.size.width);
                row = converted_.data();
            }
            std::transform(row, row + samples, made_.begin(), [&](std::uint16_t v) { return light_[v]; });
            if (!rows_->write(made_.data())) return broken();
        }
        return Done{};
    }
    Status finish() override {
        const bool well = rows_->finish() && target_.flush();
        if (!well || output_.error != 0) return broken();
        return Done{};
    }

  private:
    Failure broken() const { return output_.failure(file_, "the OpenEXR library refuses it"); }

    std::filesystem::path file_;
    Output output_;
    FileTarget target_;
    PictureHead head_;
    std::optional<Conversion> conversion_;
    std::vector<float> light_, made_;
    std::vector<std::uint16_t> converted_;
    std::unique_ptr<ExrRows> rows_;
};

}  // namespace

Result<std::unique_ptr<RowWriter>> exr_writer(const std::filesystem::path& file, const PictureHead& head, int bits) {
    auto writer = std::make_unique<ExrWriter>(file, head);
    Status started = writer->start(bits);
    if (!started.ok()) return started.failure();
    std::unique_ptr<RowWriter> out = std::move(writer);
    return out;
}

}  // namespace bp::io
