// Values of a pile from JSON, by the tables of their fields. Internal to the room.
#pragma once

#include <algorithm>
#include <cmath>
#include <map>
#include <nlohmann/json.hpp>
#include <set>

#include "base/text.h"
#include "io/reader.h"
#include "pile/archive.h"
#include "pile/check.h"
#include "pile/fields.h"
#include "pile/streak_edits.h"

namespace bp::pile {

using nlohmann::json;

template <class T>
bool within(const T& v, const Between<T>& limits) {
    return v >= limits.least && v <= limits.most;
}
template <class T>
bool within(const T& v, const OneOf<T>& limits) {
    return std::find(limits.values.begin(), limits.values.end(), v) != limits.values.end();
}
template <class T>
bool within(const T&, const Any&) {
    return true;
}
template <class T>
bool within(const T&, const Needed&) {
    return true;
}

// Each read() gives false for what cannot be read or cannot be true, and leaves its target as it was.
class Reader {
  public:
    Reader(const Pieces& pieces, fs::path folder) : pieces_(pieces), folder_(std::move(folder)) {}

    // Whose fields are read, for remarks.
    void speak_of(const std::string& whose) { whose_ = whose; }
    void set_size(Size size) {
        size_ = size;
        canvas_ = whole(size);
    }
    void remark(const Saying& words) { remarks_.push_back(words); }
    std::vector<Saying> remarks() && { return std::move(remarks_); }

    // False when something that is needed is not there.
    template <HasFields T, class L>
    bool read(const json& in, T& out, const L&) {
        if (!in.is_object()) return false;
        bool complete = true;
        T made = out;
        fields(made, [&]<class M, class F>(std::string_view name, M& member, const F& limits) {
            if constexpr (!std::same_as<F, FoundAnew>) {
                const auto found = in.find(name);
                if (found == in.end()) {
                    if (std::same_as<F, Needed>) complete = false;
                } else if (!read(*found, member, limits)) {
                    if (std::same_as<F, Needed>)
                        complete = false;
                    else
                        lost(name, member);
                }
            }
        });
        if (complete) out = std::move(made);
        return complete;
    }

    template <class L>
    bool read(const json& in, bool& out, const L&) {
        if (!in.is_boolean()) return false;
        out = in.get<bool>();
        return true;
    }
    template <class L>
    bool read(const json& in, int& out, const L& limits) {
        return number(in, out, limits, in.is_number_integer());
    }
    template <class L>
    bool read(const json& in, std::uintmax_t& out, const L& limits) {
        return number(in, out, limits, in.is_number_unsigned());
    }
    template <class L>
    bool read(const json& in, double& out, const L& limits) {
        return number(in, out, limits, in.is_number());
    }
    template <class L>
    bool read(const json& in, float& out, const L& limits) {
        return number(in, out, limits, in.is_number());
    }
    template <class L>
    bool read(const json& in, std::string& out, const L& limits) {
        if (!in.is_string() || !within(in.get<std::string>(), limits)) return false;
        out = in.get<std::string>();
        return true;
    }
    template <class L>
    bool read(const json& in, fs::path& out, const L&) {
        if (!in.is_string() || in.get<std::string>().empty()) return false;
        out = path_from_text(in.get<std::string>());
        return true;
    }
    template <class E, class L>
    requires std::is_enum_v<E>
    bool read(const json& in, E& out, const L&) {
        if (!in.is_string()) return false;
        for (const auto& [value, word] : words_of(E{}))
            if (word == in.get<std::string>()) {
                out = value;
                return true;
            }
        return false;
    }
    template <class T, std::size_t n, class L>
    bool read(const json& in, std::array<T, n>& out, const L& limits) {
        if (!in.is_array() || in.size() != n) return false;
        std::array<T, n> made{};
        for (std::size_t i = 0; i < n; ++i)
            if (!read(in[i], made[i], limits)) return false;
        out = made;
        return true;
    }
    template <class L>
    bool read(const json& in, Matrix& out, const L&) {
        std::array<double, 9> m{};
        if (!read(in, m, Between<double>{-largest_entry, largest_entry})) return false;
        const Matrix made(m);
        if (m[8] != 1) return false;
        out = made;
        return true;
    }
    template <class L>
    bool read(const json& in, Point& out, const L& limits) {
        std::array<double, 2> at{};
        if (!read(in, at, limits)) return false;
        out = {at[0], at[1]};
        return true;
    }
    template <class L>
    bool read(const json& in, Size& out, const L&) {
        std::array<int, 2> sides{};
        if (!read(in, sides, Between<int>{1, largest_side_px})) return false;
        out = {sides[0], sides[1]};
        return true;
    }
    template <class L>
    bool read(const json& in, Rect& out, const L&) {
        std::array<int, 4> r{};
        if (!read(in, r, Between<int>{-largest_side_px, largest_side_px})) return false;
        const Rect made{r[0], r[1], r[2], r[3]};
        if (!sound(made)) return false;
        const Rect& within = std::same_as<L, OnCanvas> ? canvas_ : whole(size_);
        if (!std::same_as<L, AroundTheReference> && intersect(made, within) != made) return false;
        out = made;
        return true;
    }
    template <class T, class L>
    bool read(const json& in, std::optional<T>& out, const L& limits) {
        T made{};
        if (!read(in, made, limits)) return false;
        out = std::move(made);
        return true;
    }
    // A place of which a part is lost would be another place.
    template <class L>
    bool read(const json& in, Alignment& out, const L& limits) {
        const std::size_t before = remarks_.size();
        Alignment made;
        const bool whole_place = read<Alignment>(in, made, limits) && remarks_.size() == before && sound(made, size_);
        remarks_.resize(before);
        if (whole_place) out = std::move(made);
        return whole_place;
    }
    template <class L>
    bool read(const json& in, SharedFlex& out, const L&) {
        if (!in.is_object()) return false;
        Flex::Grid grid;
        std::vector<float> across, down;
        const auto get = [&](const char* name, auto& to, const auto& limits) {
            const auto found = in.find(name);
            return found != in.end() && read(*found, to, limits);
        };
        const Between<double> far{-furthest_px, furthest_px};
        const Between<float> shift{float(-furthest_px), float(furthest_px)};
        if (!get("first", grid.first, far) || !get("step_px", grid.step, Between<double>{1, furthest_px}) ||
            !get("columns", grid.columns, Between<int>{1, most_nodes}) ||
            !get("rows", grid.rows, Between<int>{1, most_nodes}) || !get("across_px", across, shift) ||
            !get("down_px", down, shift))
            return false;
        // More is not looked up anywhere before the place is found sound.
        out = std::make_shared<const Flex>(grid, std::move(across), std::move(down));
        return true;
    }
    template <class L>
    bool read(const json& in, std::vector<float>& out, const L& limits) {
        if (!in.is_array()) return false;
        std::vector<float> made(in.size());
        for (std::size_t i = 0; i < made.size(); ++i)
            if (!read(in[i], made[i], limits)) return false;
        out = std::move(made);
        return true;
    }
    template <class L>
    bool read(const json& in, SharedHotPixels& out, const L&) {
        if (!in.is_array()) return false;
        HotPixels made;
        for (const json& one : in) {
            std::array<int, 2> at{};
            if (!read(one, at, Between<int>{0, largest_side_px}) || at[0] >= size_.width || at[1] >= size_.height)
                return false;
            made.push_back({at[0], at[1]});
        }
        out = std::make_shared<const HotPixels>(at_level(made, 0));
        return true;
    }
    template <class L>
    bool read(const json& in, SharedSpots& out, const L&) {
        if (!in.is_array()) return false;
        std::vector<SensorSpot> made;
        for (const json& one : in) {
            SensorSpot spot;
            if (read(one, spot, Any{}))
                made.push_back(std::move(spot));
            else
                remark("A sensor spot could not be read and is left out.");
        }
        if (!made.empty()) out = std::make_shared<const std::vector<SensorSpot>>(std::move(made));
        return true;
    }
    template <class L>
    bool read(const json& in, SensorSpot& out, const L& limits) {
        SensorSpot made;
        if (!read<SensorSpot>(in, made, limits)) return false;
        const Bytes* piece = piece_named(in.at("passes"));
        if (!piece || piece->size() != std::size_t(made.area.width) * std::size_t(made.area.height) * 2) return false;
        auto passes = std::make_shared<Raster16>(made.area.size(), 1);
        for (std::size_t i = 0; i < passes->data().size(); ++i) {
            const unsigned share = (*piece)[2 * i] | unsigned((*piece)[2 * i + 1]) << 8U;
            passes->data()[i] = std::uint16_t(std::max(1U, share));
        }
        made.passes = std::move(passes);
        out = std::move(made);
        return true;
    }
    // Its size is known with its area: made there.
    template <class L>
    bool read(const json& in, std::shared_ptr<const Raster16>&, const L&) {
        return in.is_string();
    }
    template <class L>
    bool read(const json& in, Mask& out, const L&) {
        if (!in.is_object() || !in.contains("file")) return false;
        const Bytes* piece = piece_named(in.at("file"));
        int left = 0, top = 0;
        if (!piece || !in.contains("left") || !in.contains("top") ||
            !read(in.at("left"), left, Between<int>{0, size_.width - 1}) ||
            !read(in.at("top"), top, Between<int>{0, size_.height - 1}))
            return false;
        const Result<Raster8> raster = decode_mask(piece->data(), piece->size(), in.at("file").get<std::string>());
        if (!raster.ok()) return false;
        out = Mask::from_raster(size_, {double(left), double(top)}, raster.value());
        return true;
    }
    template <class L>
    bool read(const json& in, Profile& out, const L&) {
        const Bytes* piece = piece_named(in);
        if (!piece) return false;
        const Profile made(*piece);
        if (!made.fits(1) && !made.fits(3)) return false;
        out = made;
        return true;
    }
    template <class L>
    bool read(const json& in, SharedFrameFile& out, const L&) {
        FrameFile made;
        if (!read<FrameFile>(in, made, Any{})) return false;
        named_ = made.path;
        from_root_.clear();
        if (const auto root = in.find("from_root"); root != in.end()) (void)read(*root, from_root_, Any{});
        made.path = (folder_ / made.path).lexically_normal();
        out = std::make_shared<const FrameFile>(std::move(made));
        return true;
    }
    template <class L>
    bool read(const json& in, std::vector<Frame>& out, const L&) {
        if (!in.is_array()) return false;
        for (const json& one : in) {
            Frame frame;
            whose_ = file_in(one);
            if (!read<Frame>(one, frame, Any{}) || !ids_.insert(frame.id).second) {
                remark({"The frame %1 could not be read and is left out.", {whose_}});
                continue;
            }
            frame.silence = silence_of(frame, size_);
            places_[frame.id] = {named_, from_root_};
            out.push_back(std::move(frame));
        }
        whose_.clear();
        return true;
    }
    template <class L>
    bool read(const json& in, std::vector<FrameStreak>& out, const L&) {
        if (!in.is_array()) return false;
        for (const json& one : in) {
            FrameStreak streak;
            if (read<FrameStreak>(one, streak, Any{}))
                out.push_back(streak);
            else
                remark({"A streak of the frame %1 could not be read and is left out.", {whose_}});
        }
        return true;
    }
    template <class L>
    bool read(const json& in, std::vector<Part>& out, const L&) {
        if (!in.is_array()) return false;
        std::set<int> ids;
        for (const json& one : in) {
            Part part;
            part.mask = Mask(size_);
            whose_ = one.is_object() && one.contains("name") && one["name"].is_string() ? one["name"].get<std::string>()
                                                                                        : std::string("?");
            if (read<Part>(one, part, Any{}) && ids.insert(part.id).second && ids_.contains(part.frame))
                out.push_back(std::move(part));
            else
                remark({"The part %1 could not be read and is left out.", {whose_}});
        }
        whose_.clear();
        return true;
    }
    // Points of a curve are all there or the curve is none.
    template <class L>
    bool read(const json& in, Curve& out, const L& limits) {
        const std::size_t before = remarks_.size();
        Curve made;
        const bool whole_curve = read<Curve>(in, made, limits) && remarks_.size() == before && tidied(made) == made;
        remarks_.resize(before);
        if (whole_curve) out = std::move(made);
        return whole_curve;
    }
    template <class L>
    bool read(const json& in, std::vector<Point>& out, const L& limits) {
        if (!in.is_array()) return false;
        std::vector<Point> made(in.size());
        for (std::size_t i = 0; i < made.size(); ++i)
            if (!read(in[i], made[i], limits)) return false;
        out = std::move(made);
        return true;
    }
    template <class L>
    bool read(const json& in, std::vector<ColourRange>& out, const L&) {
        if (!in.is_array() || in.size() > ColourRange::most) return false;
        for (const json& one : in) {
            ColourRange range;
            if (read<ColourRange>(one, range, Any{}))
                out.push_back(range);
            else
                remark("A range of colours could not be read and is left out.");
        }
        return true;
    }
    template <class L>
    bool read(const json& in, std::vector<ExportSettings>& out, const L&) {
        if (!in.is_array() || in.size() > ExportSettings::most) return false;
        for (const json& one : in) {
            ExportSettings settings;
            if (read<ExportSettings>(one, settings, Any{}))
                out.push_back(std::move(settings));
            else
                remark("A picture of the export could not be read and is left out.");
        }
        return true;
    }
    template <class L>
    bool read(const json& in, std::vector<Mended>& out, const L&) {
        if (!in.is_array()) return false;
        std::set<int> ids;
        for (const json& one : in) {
            Mended mended;
            if (read<Mended>(one, mended, Any{}) && ids.insert(mended.id).second && !mended.way.empty() &&
                mended.way.size() <= Mended::most_points)
                out.push_back(std::move(mended));
            else
                remark("A mended place could not be read and is left out.");
        }
        return true;
    }
    template <class L>
    bool read(const json& in, std::vector<FinishPlace>& out, const L&) {
        if (!in.is_array()) return false;
        std::set<int> ids;
        for (const json& one : in) {
            FinishPlace place;
            place.mask = Mask(size_);
            whose_ = one.is_object() && one.contains("name") && one["name"].is_string() ? one["name"].get<std::string>()
                                                                                        : std::string("?");
            if (read<FinishPlace>(one, place, Any{}) && ids.insert(place.id).second)
                out.push_back(std::move(place));
            else
                remark({"The place %1 could not be read and is left out.", {whose_}});
        }
        whose_.clear();
        return true;
    }
    template <class L>
    bool read(const json& in, CanvasSettings& out, const L& limits) {
        if (!read<CanvasSettings>(in, out, limits)) return false;
        canvas_ = out.area.value_or(canvas_);
        return true;
    }
    template <class L>
    bool read(const json& in, Zones& out, const L& limits) {
        Zones made;
        made.sky = Mask(size_);
        if (!read<Zones>(in, made, limits)) return false;
        made.soft = made.sky.softened(made.feather_px);
        out = std::move(made);
        return true;
    }

    // By frame id: the path as it is named, and from the root.
    const std::map<int, std::pair<fs::path, fs::path>>& places() const { return places_; }

  private:
    template <class T>
    void lost(std::string_view name, T& member) {
        const std::string field(name);
        [[maybe_unused]] const Saying words{
            "Where the frame %1 lies could not be read: it counts as not aligned. Align again.", {whose_}};
        if constexpr (std::same_as<T, std::optional<Alignment>>) {
            member = not_aligned();
            remark(words);
        } else if constexpr (std::same_as<T, PerZone<std::optional<Alignment>>>) {
            member = {not_aligned(), not_aligned()};
            remark(words);
        } else if (whose_.empty()) {
            remark({"The value “%1” could not be read and is as in a new pile.", {field}});
        } else {
            remark({"The value “%1” of %2 could not be read and is as in a new pile.", {field, whose_}});
        }
    }
    template <class T, class L>
    static bool number(const json& in, T& out, const L& limits, bool is_one) {
        if (!is_one) return false;
        if constexpr (std::same_as<T, int>) {
            const auto wide = in.get<std::int64_t>();
            if (wide < std::numeric_limits<int>::min() || wide > std::numeric_limits<int>::max()) return false;
        }
        const T made = in.get<T>();
        if constexpr (std::floating_point<T>)
            if (!std::isfinite(made)) return false;
        if (!within(made, limits)) return false;
        out = made;
        return true;
    }
    const Bytes* piece_named(const json& name) const {
        if (!name.is_string()) return nullptr;
        const auto found = pieces_.find(name.get<std::string>());
        return found == pieces_.end() ? nullptr : &found->second;
    }
    static std::string file_in(const json& frame) {
        if (frame.is_object() && frame.contains("file") && frame["file"].is_object() &&
            frame["file"].contains("path") && frame["file"]["path"].is_string())
            return fs::path(frame["file"]["path"].get<std::string>()).filename().string();
        return "?";
    }
    const Pieces& pieces_;
    fs::path folder_;
    Size size_;
    Rect canvas_;
    std::string whose_;
    std::set<int> ids_;
    fs::path named_, from_root_;
    std::map<int, std::pair<fs::path, fs::path>> places_;
    std::vector<Saying> remarks_;
};

}  // namespace bp::pile
