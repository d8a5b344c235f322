#include "pile/file.h"

#include <algorithm>
#include <cmath>
#include <nlohmann/json.hpp>
#include <set>

#include "base/files.h"
#include "base/parallel.h"
#include "io/clip.h"
#include "io/writer.h"
#include "pile/edits.h"
#include "pile/names.h"
#include "pile/outcomes.h"
#include "pile/place_json.h"
#include "pile/zip.h"

namespace bp {
namespace {

using nlohmann::json;

constexpr int format_version = 1;
constexpr std::uint64_t largest_pile = 4ULL << 30;
constexpr int largest_side = 200000;

// Values that are not zero.
json look_json(const Look& look) {
    json out = json::object();
    for (const LookValue& v : look_values())
        if (look.*v.value != 0) out[std::string(v.name)] = look.*v.value;
    return out;
}

Look look_from(const json& in) {
    Look out;
    for (const LookValue& v : look_values())
        if (const auto found = in.find(v.name); found != in.end()) out.*v.value = found->get<double>();
    return limited(out);
}

json frame_json(const Frame& frame, const fs::path& folder) {
    std::error_code error;
    const fs::path relative = fs::relative(frame.file->path, folder, error);
    json out{{"id", frame.id},
             {"path", (error || relative.empty() ? frame.file->path : relative).generic_string()},
             {"bytes", frame.file->bytes},
             {"hash", frame.file->hash},
             {"role", name_of(frame.role)},
             {"aside", frame.aside},
             {"strength", frame.strength}};
    if (frame.role_from != RoleFrom::nobody) out["role_from"] = frame.role_from == RoleFrom::guess ? "guess" : "person";
    if (!frame.note.empty()) out["note"] = frame.note;
    if (frame.alignment) out["alignment"] = alignment_json(*frame.alignment);
    if (frame.on_land) out["on_land"] = alignment_json(*frame.on_land);
    if (frame.look != Look{}) out["look"] = look_json(frame.look);
    if (frame.level) out["level"] = {{"gain", frame.level->gain}, {"by_person", frame.level->by_person}};
    return out;
}

// Puts a mask that keeps something into the archive under a name, and says where it lies.
Result<json> mask_json(const Mask& mask, const std::string& name, Pieces& pieces) {
    const Rect area = mask.bounds();
    Result<std::vector<std::uint8_t>> png = encode_mask(mask.to_raster(area));
    if (!png.ok()) return png.failure();
    pieces[name] = std::move(png).value();
    return json{{"file", name}, {"left", area.left}, {"top", area.top}};
}

Result<json> part_json(const Part& part, Pieces& pieces) {
    json out{{"id", part.id},     {"name", part.name}, {"frame", part.frame},
             {"join", "replace"}, {"on", part.on},     {"strength", part.strength}};
    if (part.mask.empty()) return out;
    Result<json> mask = mask_json(part.mask, "masks/part-" + std::to_string(part.id) + ".png", pieces);
    if (!mask.ok()) return mask;
    out["mask"] = std::move(mask).value();
    return out;
}

bool sound(const Level& level) {
    constexpr double most = 1000;
    return std::all_of(level.gain.begin(), level.gain.end(), [](double g) { return g > 1 / most && g < most; });
}

Frame frame_from(const json& in, const fs::path& folder, FrameFile& expected) {
    Frame frame;
    frame.id = in.at("id").get<int>();
    expected.path = (folder / fs::path(in.at("path").get<std::string>())).lexically_normal();
    expected.bytes = in.at("bytes").get<std::uintmax_t>();
    expected.hash = in.at("hash").get<std::string>();
    frame.role = role_named(in.at("role").get<std::string>()).value_or(Role::scene);
    if (in.contains("role_from"))
        frame.role_from = in.at("role_from").get<std::string>() == "guess" ? RoleFrom::guess : RoleFrom::person;
    if (in.contains("note")) frame.note = in.at("note").get<std::string>();
    frame.aside = in.at("aside").get<bool>();
    frame.strength = std::clamp(in.at("strength").get<double>(), 0.0, 1.0);
    if (in.contains("alignment")) frame.alignment = alignment_from(in.at("alignment"));
    if (in.contains("on_land")) frame.on_land = alignment_from(in.at("on_land"));
    if (in.contains("look")) frame.look = look_from(in.at("look"));
    if (in.contains("level"))
        frame.level =
            Level{in.at("level").at("gain").get<std::array<double, 3>>(), in.at("level").at("by_person").get<bool>()};
    return frame;
}

Result<Mask> mask_from(const json& in, const Pieces& pieces, Size size) {
    const std::string name = in.at("file").get<std::string>();
    const auto found = pieces.find(name);
    if (found == pieces.end()) return Failure{Fault::input, name, "the mask " + name + " is missing from it"};
    Result<Raster8> mask = decode_mask(found->second.data(), found->second.size(), name);
    if (!mask.ok()) return mask.failure();
    const Point corner{in.at("left").get<double>(), in.at("top").get<double>()};
    if (!(corner.x >= 0 && corner.y >= 0 && corner.x < size.width && corner.y < size.height))
        return Failure{Fault::input, name, "the mask " + name + " lies outside the picture"};
    return Mask::from_raster(size, corner, mask.value());
}

Result<Part> part_from(const json& in, const Pieces& pieces, Size size) {
    Part part;
    part.id = in.at("id").get<int>();
    part.name = in.at("name").get<std::string>();
    part.frame = in.at("frame").get<int>();
    part.on = in.at("on").get<bool>();
    part.strength = std::clamp(in.at("strength").get<double>(), 0.0, 1.0);
    part.mask = Mask(size);
    if (!in.contains("mask")) return part;
    Result<Mask> mask = mask_from(in.at("mask"), pieces, size);
    if (!mask.ok()) return mask.failure();
    part.mask = std::move(mask).value();
    return part;
}

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

Result<SensorSpot> spot_from(const json& in, const Pieces& pieces, Size size) {
    SensorSpot out;
    out.at = {in.at("x").get<double>(), in.at("y").get<double>()};
    out.radius_px = in.at("radius_px").get<double>();
    const auto area = in.at("area_px").get<std::array<int, 4>>();
    out.area = {area[0], area[1], area[2], area[3]};
    const auto name = in.at("passes").get<std::string>();
    const auto piece = pieces.find(name);
    if (piece == pieces.end()) return Failure{Fault::input, name, "a sensor spot is missing from it"};
    const bool inside = !out.area.empty() && intersect(out.area, whole(size)) == out.area;
    if (!inside || !(out.radius_px >= smallest_spot_px && out.radius_px <= largest_spot_px) ||
        piece->second.size() != std::size_t(out.area.width) * std::size_t(out.area.height) * 2)
        return Failure{Fault::input, name, "a sensor spot in it cannot be true"};
    auto passes = std::make_shared<Raster16>(out.area.size(), 1);
    for (std::size_t i = 0; i < passes->data().size(); ++i)
        passes->data()[i] =
            std::max<std::uint16_t>(1, std::uint16_t(piece->second[2 * i] | unsigned(piece->second[2 * i + 1]) << 8U));
    out.passes = std::move(passes);
    return out;
}

// Looks at the file that a frame names and sorts the frame into good, missing or changed.
void attach_file(Frame& frame, const FrameFile& expected, bool& missing, bool& changed) {
    Result<FrameFile> found = read_frame_file(expected.path);
    if (!found.ok()) {
        missing = true;
        frame.problem = found.failure().sentence + " Point to it in the Frames step.";
        frame.file = std::make_shared<FrameFile>(expected);
        return;
    }
    changed = found.value().hash != expected.hash;
    if (changed)
        frame.problem = expected.path.filename().string() +
                        " is not the file it was when the pile was saved. Point to the right one in the Frames step.";
    frame.file = std::make_shared<FrameFile>(std::move(found).value());
}

// Frames of clips in one pass a clip. What goes wrong shows when the frames are looked at.
void unroll_clips(const std::vector<FrameFile>& files) {
    std::map<fs::path, std::vector<long>> numbers;
    for (const FrameFile& file : files)
        if (const auto frame = clip_frame_of(file.path)) numbers[frame->clip].push_back(frame->number);
    for (auto& [clip, wanted] : numbers) {
        std::sort(wanted.begin(), wanted.end());
        Job job;
        (void)unroll_clip(clip, wanted, job).ok();
    }
}

Failure not_a_pile(const fs::path& file, const std::string& why) {
    return {Fault::input, file.string(), file.filename().string() + " is not a pile that can be opened: " + why + "."};
}

Result<LoadedPile> pile_from(const json& in, const Pieces& pieces, const fs::path& file) {
    if (in.at("format").get<std::string>() != "bright-pile") return not_a_pile(file, "it was made by another program");
    if (in.at("version").get<int>() > format_version)
        return not_a_pile(file, "it was saved by a newer Bright Pile; install that one");
    LoadedPile out;
    Pile& pile = out.pile;
    pile.size = {in.at("width").get<int>(), in.at("height").get<int>()};
    if (pile.size.width < 1 || pile.size.height < 1 || pile.size.width > largest_side ||
        pile.size.height > largest_side)
        return not_a_pile(file, "its picture size cannot be true");
    pile.channels = in.at("channels").get<int>() == 1 ? 1 : 3;
    if (const auto icc = pieces.find("profile.icc"); icc != pieces.end()) pile.profile = Profile(icc->second);
    if (!pile.profile.fits(pile.channels)) return not_a_pile(file, "its colour profile is damaged");
    if (in.contains("balance")) {
        const auto balance = in.at("balance").get<WhiteBalance>();
        const bool sound = std::all_of(balance.begin(), balance.end(), [](float v) { return v > 0.01F && v < 100; });
        if (!sound) return not_a_pile(file, "its white balance cannot be true");
        pile.balance = balance;
    }
    pile.outcome = outcome_named(in.at("outcome").get<std::string>()).value_or(Outcome::trails);
    pile.reference = in.at("reference").get<int>();
    pile.base = in.at("base").get<int>();
    pile.model = model_named(in.at("align").at("model").get<std::string>()).value_or(Model::none);
    if (in.contains("hot_pixels")) {
        auto pixels = std::make_shared<HotPixels>();
        for (const json& p : in.at("hot_pixels")) {
            const HotPixel pixel{p.at(0).get<int>(), p.at(1).get<int>()};
            if (pixel.x < 0 || pixel.y < 0 || pixel.x >= pile.size.width || pixel.y >= pile.size.height)
                return not_a_pile(file, "a hot pixel in it lies outside the picture");
            pixels->push_back(pixel);
        }
        *pixels = at_level(*pixels, 0);
        pile.hot = std::move(pixels);
    }
    if (in.contains("darks")) pile.darks = in.at("darks").get<std::string>() == "scaled" ? Darks::scaled : Darks::on;
    if (in.contains("spots"))
        for (const json& one : in.at("spots")) {
            Result<SensorSpot> spot = spot_from(one, pieces, pile.size);
            if (!spot.ok()) return not_a_pile(file, spot.failure().sentence);
            pile = with_spot(std::move(pile), spot.value());
        }
    if (in.contains("look")) pile.look = look_from(in.at("look"));
    if (in.contains("levelling"))
        pile.levelling = levelling_named(in.at("levelling").get<std::string>()).value_or(Levelling::off);
    if (in.at("align").contains("trust")) {
        Result<Mask> trust = mask_from(in.at("align").at("trust"), pieces, pile.size);
        if (!trust.ok()) return not_a_pile(file, trust.failure().sentence);
        pile.trust = std::move(trust).value();
    }
    pile.merge.mode = mode_named(in.at("merge").at("mode").get<std::string>()).value_or(Mode::lighten);
    pile.merge.light = in.at("merge").at("light").get<std::string>() == "encoded" ? Light::encoded : Light::linear;
    if (in.contains("zones")) {
        const json& zones = in.at("zones");
        Mask sky(pile.size);
        if (zones.contains("sky")) {
            Result<Mask> read = mask_from(zones.at("sky"), pieces, pile.size);
            if (!read.ok()) return not_a_pile(file, read.failure().sentence);
            sky = std::move(read).value();
        }
        pile = with_feather(with_zones(std::move(pile), sky), zones.at("feather_px").get<double>());
        pile.zones->land_model = model_named(zones.at("land_model").get<std::string>()).value_or(Model::none);
        pile.zones->land_mode = mode_named(zones.at("land_mode").get<std::string>()).value_or(Mode::median);
    }
    pile.cover = in.at("cover").get<std::string>() == "any" ? Cover::any : Cover::full;
    if (in.contains("crop"))
        pile = with_crop(std::move(pile), Rect{in.at("crop").at(0).get<int>(), in.at("crop").at(1).get<int>(),
                                               in.at("crop").at(2).get<int>(), in.at("crop").at(3).get<int>()});
    pile.exporting.ending = in.at("export").at("ending").get<std::string>();
    if (!format_of("picture" + pile.exporting.ending)) pile.exporting.ending = ExportSettings{}.ending;
    pile.exporting.bits = in.at("export").at("bits").get<int>() == 8 ? 8 : 16;
    pile.exporting.quality = std::clamp(in.at("export").at("quality").get<int>(), 1, 100);
    std::vector<FrameFile> expected(in.at("frames").size());
    for (std::size_t i = 0; i < expected.size(); ++i)
        pile.frames.push_back(frame_from(in.at("frames")[i], fs::absolute(file).parent_path(), expected[i]));
    std::set<int> ids;
    for (const Frame& frame : pile.frames) {
        if (!ids.insert(frame.id).second) return not_a_pile(file, "two of its frames share a number");
        if ((frame.alignment && !sound(*frame.alignment, pile.size)) ||
            (frame.on_land && !sound(*frame.on_land, pile.size)))
            return not_a_pile(file, "the place of a frame in it cannot be true");
        if (frame.level && !sound(*frame.level)) return not_a_pile(file, "the level of a frame in it cannot be true");
    }
    unroll_clips(expected);
    std::vector<char> missing(expected.size(), 0);
    std::vector<char> changed(expected.size(), 0);
    parallel_for(0, int(expected.size()), [&](int n) {
        const auto i = std::size_t(n);
        bool gone = false;
        bool other = false;
        attach_file(pile.frames[i], expected[i], gone, other);
        missing[i] = gone ? 1 : 0;
        changed[i] = other ? 1 : 0;
    });
    for (std::size_t i = 0; i < expected.size(); ++i) {
        Frame& frame = pile.frames[i];
        if (missing[i]) out.missing.push_back(frame.id);
        if (changed[i]) out.changed.push_back(frame.id);
        if (frame.problem.empty() && frame.file->facts.size != pile.size)
            frame.problem = frame.file->path.filename().string() + " is of another size than the rest.";
    }
    for (const json& p : in.at("parts")) {
        Result<Part> part = part_from(p, pieces, pile.size);
        if (!part.ok()) return not_a_pile(file, part.failure().sentence);
        pile.parts.push_back(std::move(part).value());
    }
    return out;
}

}  // namespace

Status save_pile(const Pile& pile, const fs::path& file) {
    const fs::path folder = fs::absolute(file).parent_path();
    Pieces pieces;
    json out{{"format", "bright-pile"},
             {"version", format_version},
             {"outcome", entry_of(pile.outcome).name},
             {"width", pile.size.width},
             {"height", pile.size.height},
             {"channels", pile.channels},
             {"reference", pile.reference},
             {"base", pile.base},
             {"align", {{"model", name_of(pile.model)}}},
             {"merge",
              {{"mode", entry_of(pile.merge.mode).name},
               {"light", pile.merge.light == Light::linear ? "linear" : "encoded"}}},
             {"cover", pile.cover == Cover::full ? "full" : "any"},
             {"export",
              {{"ending", pile.exporting.ending}, {"bits", pile.exporting.bits}, {"quality", pile.exporting.quality}}},
             {"frames", json::array()},
             {"parts", json::array()}};
    if (pile.zones) {
        out["zones"] = {{"feather_px", pile.zones->feather_px},
                        {"land_model", name_of(pile.zones->land_model)},
                        {"land_mode", entry_of(pile.zones->land_mode).name}};
        if (!pile.zones->sky.empty()) {
            Result<json> sky = mask_json(pile.zones->sky, "masks/sky.png", pieces);
            if (!sky.ok()) return sky.failure();
            out["zones"]["sky"] = std::move(sky).value();
        }
    }
    if (pile.crop) out["crop"] = {pile.crop->left, pile.crop->top, pile.crop->width, pile.crop->height};
    if (!pile.trust.empty()) {
        Result<json> trust = mask_json(pile.trust, "masks/trust.png", pieces);
        if (!trust.ok()) return trust.failure();
        out["align"]["trust"] = std::move(trust).value();
    }
    if (pile.hot) {
        out["hot_pixels"] = json::array();
        for (const HotPixel& p : *pile.hot) out["hot_pixels"].push_back({p.x, p.y});
    }
    if (pile.darks != Darks::off) out["darks"] = pile.darks == Darks::scaled ? "scaled" : "on";
    if (pile.spots)
        for (const SensorSpot& spot : *pile.spots) {
            const std::string name = "spots/" + std::to_string(out["spots"].size() + 1) + ".bin";
            pieces[name] = bytes_of(*spot.passes);
            out["spots"].push_back({{"x", spot.at.x},
                                    {"y", spot.at.y},
                                    {"radius_px", spot.radius_px},
                                    {"area_px", {spot.area.left, spot.area.top, spot.area.width, spot.area.height}},
                                    {"passes", name}});
        }
    if (pile.look != Look{}) out["look"] = look_json(pile.look);
    if (pile.levelling != Levelling::off) out["levelling"] = name_of(pile.levelling);
    if (pile.balance) out["balance"] = *pile.balance;
    for (const Frame& frame : pile.frames) out["frames"].push_back(frame_json(frame, folder));
    for (const Part& part : pile.parts) {
        Result<json> p = part_json(part, pieces);
        if (!p.ok()) return p.failure();
        out["parts"].push_back(std::move(p).value());
    }
    if (!pile.profile.is_srgb()) pieces["profile.icc"] = pile.profile.bytes();
    // A name that is not UTF-8 cannot stand in JSON: its frame is found again by its content, not by its name.
    const std::string text = out.dump(1, ' ', false, json::error_handler_t::replace) + "\n";
    pieces["pile.json"] = Bytes(text.begin(), text.end());
    return write_whole(file, [&](const fs::path& beside) { return write_zip(beside, pieces); });
}

Result<LoadedPile> load_pile(const fs::path& file) {
    Result<Pieces> pieces = read_zip(file, largest_pile);
    if (!pieces.ok()) return pieces.failure();
    const auto text = pieces.value().find("pile.json");
    if (text == pieces.value().end()) return not_a_pile(file, "it holds no pile.json");
    try {
        return pile_from(json::parse(text->second), pieces.value(), file);
    } catch (const json::exception&) {
        return not_a_pile(file, "its pile.json is damaged");
    }
}

Result<FrameFile> read_frame_file(const fs::path& path, KnownBy known) {
    Result<PictureFacts> facts = probe_picture(path);
    if (!facts.ok()) return facts.failure();
    FrameFile out;
    if (known == KnownBy::content) {
        const auto frame = clip_frame_of(path);
        Result<std::string> hash = frame ? hash_of_clip_frame(*frame) : content_hash(path);
        if (!hash.ok()) return hash.failure();
        out.hash = std::move(hash).value();
    }
    out.path = fs::absolute(path).lexically_normal();
    std::error_code error;
    const auto of_clip = clip_frame_of(path);
    out.bytes = fs::file_size(of_clip ? of_clip->clip : path, error);
    out.facts = std::move(facts).value();
    out.capture = read_capture(path);
    return out;
}

}  // namespace bp
