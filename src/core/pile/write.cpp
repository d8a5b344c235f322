#include <cmath>
#include <nlohmann/json.hpp>

#include "base/text.h"
#include "io/writer.h"
#include "pile/archive.h"
#include "pile/fields.h"
#include "pile/format.h"

namespace bp::pile {
namespace {

using nlohmann::json;

// 16-bit samples, the lower byte first.
Bytes bytes_of(const Raster16& raster) {
    Bytes out;
    out.reserve(raster.bytes());
    for (const std::uint16_t v : raster.data()) {
        out.push_back(std::uint8_t(v & 255U));
        out.push_back(std::uint8_t(v >> 8U));
    }
    return out;
}

// Inside the pile's folder as it is named there, else by way of the folder that links lead to.
fs::path relative_to(const fs::path& folder, const fs::path& file) {
    const fs::path inside = file.lexically_relative(folder);
    if (!inside.empty() && *inside.begin() != "..") return inside;
    std::error_code error;
    const fs::path beside = fs::relative(file, folder, error);
    return error || beside.empty() ? file : beside;
}

class Writer {
  public:
    explicit Writer(const fs::path& folder) : folder_(folder) {}

    template <HasFields T>
    json of(const T& value) {
        json out = json::object();
        const T defaults{};
        fields(value, [&]<class M, class L>(std::string_view name, const M& member, const L&) {
            if constexpr (!std::same_as<L, FoundAnew>) {
                json written = of(member);
                // What is as in a new pile is left out, unless a reader cannot do without it.
                if (written.is_null()) return;
                if (std::same_as<L, Needed> || written != standard(defaults, name))
                    out[std::string(name)] = std::move(written);
            }
        });
        return out;
    }
    json of(bool v) { return v; }
    json of(int v) { return v; }
    json of(float v) { return v; }
    json of(double v) { return v; }
    json of(std::uintmax_t v) { return v; }
    json of(const std::string& v) { return v; }
    json of(const fs::path& v) { return path_to_text(v); }
    template <class E>
    requires std::is_enum_v<E> json of(E v) {
        for (const auto& [value, word] : words_of(v))
            if (value == v) return word;
        return nullptr;
    }
    template <class T, std::size_t n>
    json of(const std::array<T, n>& v) {
        return v;
    }
    json of(const Matrix& v) { return v.m(); }
    json of(Point v) { return {v.x, v.y}; }
    json of(Size v) { return {v.width, v.height}; }
    json of(const Rect& v) { return {v.left, v.top, v.width, v.height}; }
    template <class T>
    json of(const std::optional<T>& v) {
        return v ? of(*v) : json();
    }
    template <class T>
    json of(const std::vector<T>& v) {
        json out = json::array();
        for (const T& one : v) out.push_back(of(one));
        return out;
    }
    json of(const SharedFlex& v) {
        if (!v) return nullptr;
        const Flex::Grid& grid = v->grid();
        return {{"first", {grid.first.x, grid.first.y}},
                {"step_px", grid.step},
                {"columns", grid.columns},
                {"rows", grid.rows},
                {"across_px", v->across()},
                {"down_px", v->down()}};
    }
    json of(const SharedHotPixels& v) {
        if (!v) return nullptr;
        json out = json::array();
        for (const HotPixel& p : *v) out.push_back({p.x, p.y});
        return out;
    }
    json of(const SharedSpots& v) { return v ? of(*v) : json(); }
    json of(const SharedFrameFile& v) {
        json out = of(*v);
        out["path"] = path_to_text(relative_to(folder_, v->path));
        out["from_root"] = path_to_text(v->path);
        return out;
    }
    json of(const std::shared_ptr<const Raster16>& v) {
        const std::string name = "spots/" + std::to_string(++spots_) + ".bin";
        pieces_[name] = bytes_of(*v);
        return name;
    }
    json of(const Mask& v) {
        if (v.empty()) return nullptr;
        const std::string name = "masks/" + std::to_string(++masks_) + ".png";
        const Rect area = v.bounds();
        Result<Bytes> png = encode_mask(v.to_raster(area));
        if (!png.ok()) {
            failure_ = png.failure();
            return nullptr;
        }
        pieces_[name] = std::move(png).value();
        return {{"file", name}, {"left", area.left}, {"top", area.top}};
    }
    json of(const Profile& v) {
        if (v.is_srgb()) return nullptr;
        // One that is there already is not written twice; that of the pile comes first.
        Bytes bytes = v.bytes();
        for (int number = 0;; ++number) {
            const std::string name = number == 0   ? "profile.icc"
                                     : number == 1 ? "export.icc"
                                                   : "export-" + std::to_string(number) + ".icc";
            const auto known = pieces_.find(name);
            if (known != pieces_.end() && known->second != bytes) continue;
            pieces_[name] = std::move(bytes);
            return name;
        }
    }

    Result<Pieces> done(const json& out, const char* name) {
        if (failure_) return *failure_;
        const std::string text = out.dump(1, ' ', false, json::error_handler_t::replace) + "\n";
        pieces_[name] = Bytes(text.begin(), text.end());
        return std::move(pieces_);
    }

  private:
    // The same field of a new value, as it would be written; masks and other pieces are never standard.
    template <class T>
    json standard(const T& defaults, std::string_view wanted) {
        json out;
        Writer apart(folder_);
        fields(defaults, [&]<class M, class L>(std::string_view name, const M& member, const L&) {
            if constexpr (!std::same_as<L, FoundAnew> && !std::same_as<L, Needed>)
                if (name == wanted) out = apart.of(member);
        });
        return out;
    }

    fs::path folder_;
    Pieces pieces_;
    int masks_ = 0;
    int spots_ = 0;
    std::optional<Failure> failure_;
};

}  // namespace

Result<Pieces> pieces_of(const Pile& pile, const fs::path& folder) {
    Writer writer(folder);
    json out = writer.of(pile);
    out["format"] = format_name;
    out["version"] = format_version;
    return writer.done(out, "pile.json");
}

Result<Pieces> pieces_of(const Finish& finish, Size size) {
    Writer writer({});
    json out = json::object();
    out["finish"] = writer.of(finish);
    out["size"] = writer.of(size);
    out["format"] = finish_format_name;
    out["version"] = format_version;
    return writer.done(out, "finish.json");
}

}  // namespace bp::pile
