#include "image/profile.h"

#include <lcms2.h>

#include <algorithm>
#include <array>
#include <bit>
#include <cmath>
#include <limits>
#include <list>
#include <mutex>

#include "image/known_profiles.h"

namespace bp {
namespace {

using Handle = std::unique_ptr<void, cmsBool (*)(void*)>;

Handle open_profile(const Profile& profile, int channels) {
    if (!profile.is_srgb()) {
        const std::vector<std::uint8_t> bytes = profile.bytes();
        return {cmsOpenProfileFromMem(bytes.data(), cmsUInt32Number(bytes.size())), &cmsCloseProfile};
    }
    if (channels == 3) return {cmsCreate_sRGBProfile(), &cmsCloseProfile};
    // Grey without a profile has the curve of sRGB (IEC 61966-2-1).
    const std::array<double, 5> srgb{2.4, 1.0 / 1.055, 0.055 / 1.055, 1.0 / 12.92, 0.04045};
    cmsToneCurve* curve = cmsBuildParametricToneCurve(nullptr, 4, srgb.data());
    Handle grey(cmsCreateGrayProfile(cmsD50_xyY(), curve), &cmsCloseProfile);
    cmsFreeToneCurve(curve);
    return grey;
}

// Without the moment of making, which would make two exports of one pile differ, and two raw frames of one run.
std::vector<std::uint8_t> timeless_bytes(const Handle& profile) {
    cmsUInt32Number size = 0;
    cmsSaveProfileToMem(profile.get(), nullptr, &size);
    std::vector<std::uint8_t> out(size);
    cmsSaveProfileToMem(profile.get(), out.data(), &size);
    constexpr std::size_t date_begin = 24;
    constexpr std::size_t date_end = 36;
    if (out.size() < date_end) return {};
    std::fill(out.begin() + date_begin, out.begin() + date_end, std::uint8_t{0});
    out[date_begin] = 0x07;  // year 2000 as a big-endian 16-bit number, then month 1, day 1
    out[date_begin + 1] = 0xd0;
    out[date_begin + 3] = 1;
    out[date_begin + 5] = 1;
    return out;
}

double srgb_light(double v) {
    return v <= 0.04045 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4);
}

// From samples of a profile, 0 to 1, to luminance. Samples as they stand when the profile cannot be used.
class Luminance {
  public:
    Luminance(const Profile& profile, int channels) : from_(open_profile(profile, channels)) {
        const Handle xyz(cmsCreateXYZProfile(), &cmsCloseProfile);
        transform_ =
            cmsCreateTransform(from_.get(), channels == 3 ? TYPE_RGB_DBL : TYPE_GRAY_DBL, xyz.get(), TYPE_XYZ_DBL,
                               INTENT_RELATIVE_COLORIMETRIC, cmsFLAGS_NOOPTIMIZE | cmsFLAGS_NOCACHE);
    }
    ~Luminance() {
        if (transform_) cmsDeleteTransform(transform_);
    }
    Luminance(const Luminance&) = delete;
    Luminance& operator=(const Luminance&) = delete;

    double operator()(const std::array<double, 3>& samples) const {
        if (!transform_) return samples[1];
        std::array<double, 3> result{};
        cmsDoTransform(transform_, samples.data(), result.data(), 1);
        return result[1];
    }

  private:
    Handle from_;
    cmsHTRANSFORM transform_ = nullptr;
};

// Luminance of grey ramp positions (0 to 1), white = 1.
std::vector<double> grey_axis(const Profile& profile, int channels, const std::vector<double>& ramp) {
    std::vector<double> out(ramp.size());
    if (profile.is_srgb()) {
        std::transform(ramp.begin(), ramp.end(), out.begin(), srgb_light);
        return out;
    }
    const Luminance luminance(profile, channels);
    const double white = luminance({1, 1, 1});
    for (std::size_t i = 0; i < ramp.size(); ++i)
        out[i] = luminance({ramp[i], ramp[i], ramp[i]}) / (white > 0 ? white : 1.0);
    return out;
}

}  // namespace

Profile Profile::linear_srgb() {
    static const Profile made = [] {
        const cmsCIExyY white{0.3127, 0.3290, 1};
        const cmsCIExyYTRIPLE primaries{{0.64, 0.33, 1}, {0.30, 0.60, 1}, {0.15, 0.06, 1}};
        cmsToneCurve* curve = cmsBuildGamma(nullptr, 1);
        const std::array<cmsToneCurve*, 3> curves{curve, curve, curve};
        const Handle handle(cmsCreateRGBProfile(&white, &primaries, curves.data()), &cmsCloseProfile);
        cmsFreeToneCurve(curve);
        cmsMLU* name = cmsMLUalloc(nullptr, 1);
        cmsMLUsetASCII(name, "en", "US", "Linear sRGB");
        cmsWriteTag(handle.get(), cmsSigProfileDescriptionTag, name);
        cmsMLUfree(name);
        return Profile(timeless_bytes(handle));
    }();
    return made;
}

const Primaries& primaries_of(KnownProfile which) {
    static const std::array<Primaries, 3> all{{
        {{{{0.64, 0.33}, {0.30, 0.60}, {0.15, 0.06}, {0.3127, 0.3290}}}},
        {{{{0.680, 0.320}, {0.265, 0.690}, {0.150, 0.060}, {0.3127, 0.3290}}}},
        {{{{0.708, 0.292}, {0.170, 0.797}, {0.131, 0.046}, {0.3127, 0.3290}}}},
    }};
    return all[std::size_t(which)];
}

Profile known_profile(KnownProfile which) {
    if (which == KnownProfile::srgb) return Profile::srgb();
    const auto made = [](KnownProfile of) {
        const auto& xy = primaries_of(of).xy;
        const cmsCIExyY white{xy[3][0], xy[3][1], 1};
        const cmsCIExyYTRIPLE primaries{{xy[0][0], xy[0][1], 1}, {xy[1][0], xy[1][1], 1}, {xy[2][0], xy[2][1], 1}};
        // As the library has them: ((a v + b) to the power g, above d; c v below.
        const std::array<cmsFloat64Number, 5> of_srgb{2.4, 1 / 1.055, 0.055 / 1.055, 1 / 12.92, 0.04045};
        constexpr double alpha = 1.09929682680944, beta = 0.018053968510807;
        const std::array<cmsFloat64Number, 5> of_2020{1 / 0.45, 1 / alpha, (alpha - 1) / alpha, 1 / 4.5, 4.5 * beta};
        const bool p3 = of == KnownProfile::display_p3;
        cmsToneCurve* curve = cmsBuildParametricToneCurve(nullptr, 4, (p3 ? of_srgb : of_2020).data());
        const std::array<cmsToneCurve*, 3> curves{curve, curve, curve};
        const Handle handle(cmsCreateRGBProfile(&white, &primaries, curves.data()), &cmsCloseProfile);
        cmsFreeToneCurve(curve);
        cmsMLU* name = cmsMLUalloc(nullptr, 1);
        cmsMLUsetASCII(name, "en", "US", p3 ? "Display P3" : "Rec. 2020");
        cmsWriteTag(handle.get(), cmsSigProfileDescriptionTag, name);
        cmsMLUfree(name);
        return Profile(timeless_bytes(handle));
    };
    static const Profile p3 = made(KnownProfile::display_p3), rec2020 = made(KnownProfile::rec2020);
    return which == KnownProfile::display_p3 ? p3 : rec2020;
}

Profile::Profile(std::vector<std::uint8_t> icc) {
    // Our own exports say sRGB by this profile: read back, they are sRGB again.
    static const std::vector<std::uint8_t> own_srgb = srgb().bytes();
    if (!icc.empty() && icc != own_srgb) icc_ = std::make_shared<const std::vector<std::uint8_t>>(std::move(icc));
}

std::vector<std::uint8_t> Profile::bytes() const {
    if (icc_) return *icc_;
    return timeless_bytes(Handle(cmsCreate_sRGBProfile(), &cmsCloseProfile));
}

std::string Profile::name() const {
    if (!icc_) return "sRGB";
    const Handle handle = open_profile(*this, 3);
    if (!handle) return "unknown";
    std::array<char, 256> text{};
    cmsGetProfileInfoASCII(handle.get(), cmsInfoDescription, "en", "US", text.data(), text.size());
    return text.data();
}

bool Profile::fits(int channels) const {
    if (!icc_) return true;
    const Handle handle = open_profile(*this, channels);
    if (!handle) return false;
    return cmsGetColorSpace(handle.get()) == (channels == 3 ? cmsSigRgbData : cmsSigGrayData);
}

bool operator==(const Profile& a, const Profile& b) {
    if (a.icc_ == b.icc_) return true;
    return a.icc_ && b.icc_ && *a.icc_ == *b.icc_;
}

Result<Conversion> Conversion::make(const Profile& from, int from_channels, const Profile& to, int to_channels) {
    const Handle a = open_profile(from, from_channels);
    const Handle b = open_profile(to, to_channels);
    cmsHTRANSFORM transform = nullptr;
    if (a && b)
        transform = cmsCreateTransform(a.get(), from_channels == 3 ? TYPE_RGB_16 : TYPE_GRAY_16, b.get(),
                                       to_channels == 3 ? TYPE_RGB_16 : TYPE_GRAY_16, INTENT_RELATIVE_COLORIMETRIC,
                                       cmsFLAGS_NOCACHE | cmsFLAGS_BLACKPOINTCOMPENSATION);
    if (!transform) return Failure{Fault::input, "", {"the colour profile \"%1\" cannot be used", {from.name()}}};
    Conversion out;
    out.transform_ = std::shared_ptr<void>(transform, [](void* t) { cmsDeleteTransform(t); });
    return out;
}

void Conversion::run(const std::uint16_t* in, std::uint16_t* out, int pixels) const {
    cmsDoTransform(transform_.get(), in, out, cmsUInt32Number(pixels));
}

Result<GamutCheck> GamutCheck::make(const Profile& from, const Profile& to) {
    const Handle a = open_profile(from, 3), b = open_profile(to, 3);
    const Handle lab(cmsCreateLab4Profile(nullptr), &cmsCloseProfile);
    // Without black point compensation and optimisation, which would hold values to their bounds.
    const auto way = [](const Handle& in, const Handle& out, cmsUInt32Number format) -> std::shared_ptr<void> {
        if (!in || !out) return nullptr;
        return {cmsCreateTransform(in.get(), TYPE_RGB_FLT, out.get(), format, INTENT_RELATIVE_COLORIMETRIC,
                                   cmsFLAGS_NOCACHE | cmsFLAGS_NOOPTIMIZE),
                [](void* t) {
                    if (t) cmsDeleteTransform(t);
                }};
    };
    GamutCheck out;
    out.transform_ = way(a, b, TYPE_RGB_FLT);
    // A profile may have one table for all intents, under the perceptual one.
    const bool tables = b && (cmsIsCLUT(b.get(), INTENT_RELATIVE_COLORIMETRIC, LCMS_USED_AS_OUTPUT) ||
                              cmsIsCLUT(b.get(), INTENT_PERCEPTUAL, LCMS_USED_AS_OUTPUT));
    if (tables) {
        out.meant_ = way(a, lab, TYPE_Lab_FLT);
        out.comes_back_ = way(b, lab, TYPE_Lab_FLT);
    }
    if (!out.transform_ || (tables && (!out.meant_ || !out.comes_back_)))
        return Failure{Fault::input, "", {"the colour profile \"%1\" cannot be used", {to.name()}}};
    return out;
}

void GamutCheck::run(const std::uint16_t* in, std::uint8_t* outside, int pixels) const {
    constexpr float beyond = 0.01F / 255;
    constexpr float far_off = 5;
    const auto count = cmsUInt32Number(pixels);
    std::vector<float> from(std::size_t(pixels) * 3), to(from.size());
    for (std::size_t i = 0; i < from.size(); ++i) from[i] = float(in[i]) / 65535;
    cmsDoTransform(transform_.get(), from.data(), to.data(), count);
    if (!meant_) {
        for (std::size_t i = 0; i < std::size_t(pixels); ++i) {
            const auto [least, most] = std::minmax({to[3 * i], to[3 * i + 1], to[3 * i + 2]});
            outside[i] = least < -beyond || most > 1 + beyond ? 255 : 0;
        }
        return;
    }
    std::vector<float> meant(from.size());
    cmsDoTransform(meant_.get(), from.data(), meant.data(), count);
    cmsDoTransform(comes_back_.get(), to.data(), from.data(), count);
    for (std::size_t i = 0; i < std::size_t(pixels); ++i) {
        float squares = 0;
        for (std::size_t c = 0; c < 3; ++c)
            squares += (meant[3 * i + c] - from[3 * i + c]) * (meant[3 * i + c] - from[3 * i + c]);
        outside[i] = squares > far_off * far_off ? 255 : 0;
    }
}

std::array<double, 3> luminance_weights(const Profile& profile) {
    constexpr std::array<double, 3> bt709{0.2126, 0.7152, 0.0722};  // Rec. ITU-R BT.709, which sRGB shares
    if (profile.is_srgb()) return bt709;
    const Luminance luminance(profile, 3);
    std::array<double, 3> out{luminance({1, 0, 0}), luminance({0, 1, 0}), luminance({0, 0, 1})};
    // A primary that lies so far out that it takes light away (blue of ACES 2065-1) counts for nothing.
    for (double& weight : out) weight = std::max(0.0, weight);
    const double sum = out[0] + out[1] + out[2];
    if (!(sum > 0)) return bt709;
    for (double& weight : out) weight /= sum;
    return out;
}

LightCurve LightCurve::of(const Profile& profile, int channels) {
    // Asked for at every render; made of some hundred thousand conversions.
    struct Known {
        Profile profile;
        int channels;
        LightCurve curve;
    };
    static std::mutex mutex;
    static std::list<Known> latest;
    constexpr std::size_t kept = 4;
    const std::lock_guard lock(mutex);
    const auto found = std::find_if(latest.begin(), latest.end(),
                                    [&](const Known& k) { return k.channels == channels && k.profile == profile; });
    if (found != latest.end()) return found->curve;
    latest.push_front({profile, channels, made_for(profile, channels)});
    if (latest.size() > kept) latest.pop_back();
    return latest.front().curve;
}

LightCurve LightCurve::made_for(const Profile& profile, int channels) {
    std::vector<double> ramp(65536 * 2 - 1);
    for (std::size_t i = 0; i < ramp.size(); ++i) ramp[i] = double(i) / 2.0 / 65535.0;
    std::vector<double> light = grey_axis(profile, channels, ramp);
    for (std::size_t i = 1; i < light.size(); ++i) light[i] = std::max(light[i], light[i - 1]);
    auto out = std::make_shared<Tables>();
    out->light.resize(65536);
    out->border.resize(65536, std::numeric_limits<double>::infinity());
    for (std::size_t v = 0; v < 65536; ++v)
        out->light[v] = std::uint32_t(std::llround(std::clamp(light[2 * v], 0.0, 1.0) * full));
    for (std::size_t v = 0; v < 65535; ++v) out->border[v] = std::clamp(light[2 * v + 1], 0.0, 1.0) * full;
    return LightCurve(std::move(out));
}

LightCurve LightCurve::encoded() {
    static const LightCurve curve = [] {
        auto out = std::make_shared<Tables>();
        out->light.resize(65536);
        out->border.resize(65536, std::numeric_limits<double>::infinity());
        for (std::size_t v = 0; v < 65536; ++v) out->light[v] = std::uint32_t(v * 65537);
        for (std::size_t v = 0; v < 65535; ++v) out->border[v] = (double(v) + 0.5) * 65537.0;
        return LightCurve(std::move(out));
    }();
    return curve;
}

// Between borders the share of the way from one to the next counts. A segment is straight between what is true at its
// two ends, so it is furthest off at a border, where that is measured.
void LightCurve::draw_segments(const Tables& tables, MeansTables& out) {
    constexpr float furthest = 0.2F;    // a segment that is further off tells nothing
    constexpr float rounding = 0.012F;  // of all that is done with a segment, in samples
    const auto begin_of = [](std::size_t k) {
        return std::bit_cast<float>((first_segment + std::int32_t(k)) << segment_shift);
    };
    const auto exact = [&](double light) {
        const auto above = std::upper_bound(tables.border.begin(), tables.border.end(), light);
        const auto v = std::size_t(above - tables.border.begin());
        const double low = v > 0 ? tables.border[v - 1] : 0;
        const double high = v < 65535 ? *above : full + 1;
        return double(v) + (light - low) / (high - low);
    };
    constexpr std::size_t count = (std::size_t(16) << (23 - segment_shift)) + 1;  // to `full`, which as a float is 2^32
    out.segments.push_back({});
    for (std::size_t k = 0; k < count; ++k) {
        const double begin = begin_of(k), end = begin_of(k + 1);
        const double at = exact(begin);
        out.segments.push_back({float(at), float((exact(std::min(end, full)) - at) / (end - begin))});
    }
    std::vector<float> off(count, 0);
    for (std::size_t v = 0; v < 65535; ++v) {
        const auto light = float(tables.border[v]);
        const std::int32_t k = (std::bit_cast<std::int32_t>(light) >> segment_shift) - first_segment;
        if (k < 0) continue;
        const Segment& segment = out.segments[std::size_t(k) + 1];
        const float found = segment.at + segment.slope * (light - begin_of(std::size_t(k)));
        off[std::size_t(k)] = std::max(off[std::size_t(k)], std::abs(found - float(v + 1)));
    }
    for (std::size_t k = 0; k < count; ++k) {
        if (off[k] > furthest)
            out.segments[k + 1] = {};
        else
            out.doubt = std::max(out.doubt, off[k] + rounding);
    }
}

// The polynomial of the fourth degree through five neighbouring values tells slope and bends (Newton's divided
// differences); how far it is off is then measured at every value and every border within reach.
LightCurve::Bend LightCurve::bend_at(const Tables& tables, int value) {
    constexpr int values = 256;
    constexpr int nodes = 5;
    constexpr int in_16 = 257;        // samples between two values
    constexpr double steepest = 1.5;  // of the way back
    const double here = double(tables.of_8_bit[std::size_t(value)]);
    const auto rise = [&](int d) { return double(tables.of_8_bit[std::size_t(value) + std::size_t(d)]) - here; };
    const int first = std::clamp(value - nodes / 2, 0, values - nodes) - value;
    std::array<double, nodes> differences{};
    for (int i = 0; i < nodes; ++i) differences[std::size_t(i)] = rise(first + i);
    for (int order = 1; order < nodes; ++order)
        for (int i = nodes - 1; i >= order; --i)
            differences[std::size_t(i)] =
                (differences[std::size_t(i)] - differences[std::size_t(i - 1)]) / double(order);
    std::array<double, nodes> powers{};  // coefficients of d^0, d^1 ...
    for (int i = nodes - 1; i >= 0; --i) {
        for (int power = nodes - 1; power > 0; --power)
            powers[std::size_t(power)] =
                powers[std::size_t(power - 1)] - double(first + i) * powers[std::size_t(power)];
        powers[0] = differences[std::size_t(i)] - double(first + i) * powers[0];
    }
    const double slope = powers[1];
    constexpr Bend nothing{0, 0, 0, 1};
    if (!(slope > 0)) return nothing;
    const double square = powers[2] / slope, cube = powers[3] / slope;
    const double back = 2 * square * square - cube;
    const auto way_back = [&](double up) { return up - square * up * up + back * up * up * up; };
    if (2 * std::abs(square) + 3 * std::abs(back) > steepest - 1) return nothing;
    Bend out{float(square), float(cube), 0, 0};
    double fourth = 0, off = 0;
    for (int d = std::max(-bend_reach, -value); d <= std::min(bend_reach, values - 1 - value); ++d) {
        if (d == 0) continue;
        const double told = d * (1 + d * (square + d * cube));
        fourth = std::max(fourth, std::abs(rise(d) / slope - told) / (double(d) * d * d * d));
    }
    const int sample = in_16 * value;
    for (int v = std::max(0, sample - in_16 * 5 / 4); v <= std::min(65534, sample + in_16 * 5 / 4); ++v) {
        const double up = (tables.border[std::size_t(v)] - here) / slope;
        if (std::abs(up) <= 1.1) off = std::max(off, std::abs(in_16 * way_back(up) + 0.5 + sample - (v + 1)));
    }
    constexpr double rounding = 0.001;  // of floats, in samples
    out.fourth = float(fourth * in_16 * steepest);
    out.off = float(off + rounding);
    return out;
}

// Fills in what follows from light and border.
LightCurve::LightCurve(std::shared_ptr<Tables> tables) {
    tables->guess.resize((std::size_t(1) << guess_bits) + 1);
    std::size_t v = 0;
    for (std::size_t g = 0; g < tables->guess.size(); ++g) {
        const double floor = double(g) * double(1U << guess_shift);
        while (tables->border[v] <= floor) ++v;
        tables->guess[g] = std::uint16_t(v);
    }
    constexpr std::size_t values = 256;
    for (std::size_t b = 0; b < values; ++b) tables->narrow.push_back(tables->light[b * 257]);
    tables->of_8_bit.assign(tables->narrow.begin(), tables->narrow.end());
    tables_ = std::move(tables);
}

const LightCurve::MeansTables& LightCurve::for_means() const {
    const Tables& tables = *tables_;
    std::call_once(tables.means_once, [&] {
        const std::vector<std::uint64_t>& light = tables.of_8_bit;
        for (const std::uint64_t b : light)
            for (const std::uint64_t a : light) tables.means.of_pairs.push_back(a + b);
        draw_segments(tables, tables.means);
        for (std::size_t value = 0; value < light.size(); ++value)
            tables.means.bends.push_back(bend_at(tables, int(value)));
    });
    return tables.means;
}

const float* LightCurve::eye() const {
    const Tables& tables = *tables_;
    std::call_once(tables.eye_once, [&] {
        for (const std::uint32_t light : tables.light)
            tables.eye.push_back(float(std::pow(light / full, 1 / eye_power)));
    });
    return tables.eye.data();
}

}  // namespace bp
