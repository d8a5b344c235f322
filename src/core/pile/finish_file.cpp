#include "pile/finish_file.h"

#include <algorithm>

#include "base/files.h"
#include "base/guarded.h"
#include "pile/archive.h"
#include "pile/finish_edits.h"
#include "pile/zip.h"

namespace bp {
namespace {

constexpr std::uint64_t largest_finish = 1ULL << 30;

Failure not_a_finish(const fs::path& file, const Saying& why) {
    return {Fault::input,
            file.string(),
            {"%1 is not a finish file that can be opened: %2. Choose another one.", {file.filename().string(), why}}};
}

}  // namespace

Status save_finish(const Finish& finish, Size size, const fs::path& file) {
    return guarded([&]() -> Status {
        Result<Pieces> pieces = pile::pieces_of(finish, size);
        if (!pieces.ok()) return pieces.failure();
        const Result<pile::UnpackedFinish> back = pile::unpacked_finish(pieces.value());
        if (!back.ok() || !back.value().remarks.empty() || !(back.value().finish == finish))
            return Failure{Fault::output,
                           file.string(),
                           {"%1 was not written, because it could not be opened again. What was there before is "
                            "unchanged.",
                            {file.string()}}};
        Result<Bytes> bytes = zipped(pieces.value());
        if (!bytes.ok()) return bytes.failure();
        return write_bytes(file, {reinterpret_cast<const char*>(bytes.value().data()), bytes.value().size()});
    });
}

namespace {

// Frames of another pile are not here: what was mended from one is mended from what surrounds it.
LoadedFinish without_frames(LoadedFinish loaded) {
    const auto from_frame = [](const Mended& one) { return one.source == MendFrom::frame; };
    auto& mended = loaded.finish.mended;
    if (std::none_of(mended.begin(), mended.end(), from_frame)) return loaded;
    for (Mended& one : mended)
        if (from_frame(one)) {
            one.source = MendFrom::around;
            one.frame = 0;
        }
    loaded.remarks.emplace_back("What was mended from a frame is mended from what surrounds it: look at it.");
    return loaded;
}

}  // namespace

LoadedFinish finish_for(const Finish& finish, Size from, Size to) {
    return without_frames({fitted(finish, from, to), {}});
}

Result<LoadedFinish> load_finish(const fs::path& file, Size size) {
    return guarded([&]() -> Result<LoadedFinish> {
        Result<Pieces> pieces = read_zip(file, largest_finish);
        if (!pieces.ok()) return not_a_finish(file, pieces.failure().sentence);
        if (pieces.value().contains("pile.json")) {
            Result<pile::Unpacked> pile = pile::unpacked(pieces.value(), fs::absolute(file).parent_path());
            if (!pile.ok()) return not_a_finish(file, pile.failure().sentence);
            return finish_for(pile.value().pile.finish, pile.value().pile.size, size);
        }
        Result<pile::UnpackedFinish> read = pile::unpacked_finish(pieces.value());
        if (!read.ok()) return not_a_finish(file, read.failure().sentence);
        return without_frames({fitted(read.value().finish, read.value().size, size), std::move(read.value().remarks)});
    });
}

}  // namespace bp
