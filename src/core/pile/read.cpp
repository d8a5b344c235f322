#include "base/files.h"
#include "pile/format.h"
#include "pile/older.h"
#include "pile/reader.h"

namespace bp::pile {
namespace {

// What refers to what is there.
void settle(Pile& pile, Reader& reader) {
    const auto there = [&](int id) { return find_frame(pile, id) != nullptr; };
    const int first = pile.frames.empty() ? 0 : pile.frames.front().id;
    if (!there(pile.reference)) {
        pile.reference = first;
        reader.remark("The reference frame is not in the pile: the first one takes its place. Align again.");
    }
    if (!there(pile.base)) {
        pile.base = first;
        reader.remark("The base frame is not in the pile: the first one takes its place.");
    }
    if (!pile.profile.fits(pile.channels)) {
        pile.profile = Profile();
        reader.remark("The colour profile does not fit the picture: sRGB takes its place.");
    }
}

}  // namespace

Result<UnpackedFinish> unpacked_finish(const Pieces& pieces) {
    const auto refused = [](const Saying& why) { return Failure{Fault::input, "", why}; };
    const auto text = pieces.find("finish.json");
    if (text == pieces.end()) return refused("it holds no finish.json");
    const json in = json::parse(text->second, nullptr, false);
    if (!in.is_object()) return refused("its finish.json is damaged");
    if (in.value("format", json()) != json(finish_format_name)) return refused("it was made by another program");
    const json version = in.value("version", json());
    if (!version.is_number_integer()) return refused("its finish.json is damaged");
    if (version.get<std::int64_t>() > format_version)
        return refused("it was saved by a newer Bright Pile; install that one");
    Reader reader(pieces, {});
    UnpackedFinish out;
    if (!in.contains("size") || !reader.read(in["size"], out.size, Any{}) || !in.contains("finish"))
        return refused("its finish.json is damaged");
    reader.set_size(out.size);
    if (!reader.read(in["finish"], out.finish, Any{})) return refused("its finish.json is damaged");
    out.remarks = std::move(reader).remarks();
    return out;
}

Result<Unpacked> unpacked(const Pieces& pieces, const fs::path& folder) {
    const auto refused = [](const Saying& why) { return Failure{Fault::input, "", why}; };
    const auto text = pieces.find("pile.json");
    if (text == pieces.end()) return refused("it holds no pile.json");
    json in = json::parse(text->second, nullptr, false);
    if (!in.is_object()) return refused("its pile.json is damaged");
    if (in.value("format", json()) != json(format_name)) return refused("it was made by another program");
    const json version = in.value("version", json());
    if (!version.is_number_integer()) return refused("its pile.json is damaged");
    if (version.get<std::int64_t>() > format_version)
        return refused("it was saved by a newer Bright Pile; install that one");
    in = as_of_now(std::move(in), version.get<std::int64_t>());
    Reader reader(pieces, folder);
    Unpacked out;
    Size size;
    if (!in.contains("size") || !reader.read(in["size"], size, Any{}))
        return refused("its picture size cannot be true");
    reader.set_size(size);
    if (!reader.read(in, out.pile, Any{}) || out.pile.frames.empty()) return refused("none of its frames can be read");
    settle(out.pile, reader);
    std::error_code error;
    const fs::path real = fs::weakly_canonical(folder, error);
    for (const auto& [id, names] : reader.places()) {
        const auto& [named, from_root] = names;
        std::vector<fs::path>& places = out.places[id];
        places.push_back((folder / named).lexically_normal());
        if (!error) places.push_back((real / named).lexically_normal());
        if (!from_root.empty()) places.push_back(from_root);
    }
    out.remarks = std::move(reader).remarks();
    return out;
}

}  // namespace bp::pile
