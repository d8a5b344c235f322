#include <algorithm>
#include <charconv>
#include <filesystem>
#include <iostream>

#include "base/files.h"
#include "cli/commands.h"
#include "cli/words.h"
#include "engine/export.h"
#include "engine/open.h"
#include "io/gather.h"
#include "io/layered_writer.h"
#include "io/writer.h"
#include "pile/file.h"

namespace bp::cli {
namespace {

Order order_named(const std::string& name) {
    return name == "name" ? Order::name : name == "given" ? Order::given : Order::captured;
}

// A frame by its number in the run, from 1, or by its file.
const Frame* frame_named(const Pile& pile, const std::string& name) {
    int number = 0;
    const auto [end, error] = std::from_chars(name.data(), name.data() + name.size(), number);
    if (error == std::errc() && end == name.data() + name.size())
        return number >= 1 && number <= int(pile.frames.size()) ? &pile.frames[std::size_t(number) - 1] : nullptr;
    const auto found = std::find_if(pile.frames.begin(), pile.frames.end(), [&](const Frame& f) {
        return same_file(f.file->path, name) || f.file->path.filename() == name;
    });
    return found == pile.frames.end() ? nullptr : &*found;
}

}  // namespace

void FrameChoice::add_to(CLI::App& app, bool with_reference) {
    app.add_option("FRAME", names, "Files, folders or globs")->required();
    app.add_option("--order", order, "captured (time, then name), name, or given")
        ->check(CLI::IsMember({"captured", "name", "given"}));
    if (with_reference)
        app.add_option("--reference", reference, "Number in the run, from 1, or file; default the first frame");
}

void GivenPaths::add(const fs::path& given) {
    given_[fs::absolute(given).lexically_normal()] = given.generic_string();
}

std::string GivenPaths::of(const Frame& frame) const {
    const auto found = given_.find(frame.file->path);
    return found == given_.end() ? frame.file->path.generic_string() : found->second;
}

Result<Chosen> open_choice(const FrameChoice& choice, Job& job) {
    Result<std::vector<fs::path>> files = gather_files(choice.names);
    if (!files.ok()) return files.failure();
    Chosen out;
    std::vector<NamedFile> named;
    for (fs::path& file : files.value()) {
        out.paths.add(file);
        named.push_back({std::move(file), Role::scene});
    }
    Result<Pile> opened = open_frames(named, Outcome::trails, order_named(choice.order), job, KnownBy::path);
    if (!opened.ok()) return opened.failure();
    out.pile = std::move(opened).value();
    if (choice.reference.empty()) return out;
    const Frame* frame = frame_named(out.pile, choice.reference);
    if (!frame)
        return Failure{Fault::wrong_call,
                       choice.reference,
                       {"--reference %1 is none of the frames: give a number from 1 to %2 or one of the files.",
                        {choice.reference, std::to_string(out.pile.frames.size())}}};
    if (!usable(*frame))
        return Failure{Fault::input, choice.reference, {"The reference frame cannot be used: %1", {frame->problem}}};
    out.pile.reference = frame->id;
    out.pile.base = frame->id;
    return out;
}

Status write_pile(Pile pile, const fs::path& file) {
    if (file.extension() != ".pile")
        return Failure{
            Fault::wrong_call, file.string(), {"The name %1 must end in .pile.", {file.filename().string()}}};
    Result<Pile> known = known_by_content(std::move(pile));
    if (!known.ok()) return known.failure();
    return save_pile(known.value(), file);
}

void tell(const Saying& saying) {
    std::cerr << said(saying) << '\n';
}

Exit fail(const Failure& failure) {
    tell(failure.sentence);
    switch (failure.fault) {
        case Fault::wrong_call:
            return Exit::wrong_call;
        case Fault::output:
            return Exit::cannot_write;
        case Fault::stopped:
            return Exit::stopped;
        case Fault::memory:
        case Fault::input:
            break;
    }
    return Exit::unusable_input;
}

bool tell_problems(const Pile& pile) {
    bool any = false;
    const auto useless_ones = pile.darks == Darks::off ? std::map<int, Saying>() : useless_darks(pile);
    for (const Frame& frame : pile.frames) {
        const bool unaligned = usable(frame) && (lost(pile, frame) || (pile.zones && lost(pile, frame, Zone::land)));
        if (!usable(frame)) tell({"Set aside: %1", {frame.problem}});
        if (unaligned)
            tell({"Set aside: %1 could not be aligned to the reference.", {frame.file->path.filename().string()}});
        const auto useless = useless_ones.find(frame.id);
        if (useless != useless_ones.end()) tell({"Set aside: %1", {useless->second}});
        any = any || useless != useless_ones.end() || unaligned || !usable(frame);
    }
    return any;
}

void set_ending(Pile& pile, const fs::path& out) {
    if (const auto format = format_of(out)) pile.exporting.ending = standard_ending(format->format);
    if (writes_in_layers(out)) pile.exporting.ending = ".ora";
}

void PartsOut::add_to(CLI::App& app, const Saying& told) {
    app.add_option("-o,--out", picture, "The picture to write: .tif, .png, .exr, .jxl, .webp, .jpg or .ora")
        ->required();
    app.add_option("--pile", pile, "Also write the pile; render of it gives the picture");
    app.add_flag("--json", as_json, said({"Print one JSON object: %1", {told}}));
}

Result<Pile> write_parts(Pile pile, const PartsOut& out, FrameStore& store, Job& job) {
    ExportOptions writing{{pile.exporting.bits, pile.exporting.quality}};
    writing.known = &store;
    set_ending(pile, out.picture);
    Result<Exported> exported = export_picture(pile, out.picture, writing, job);
    if (!exported.ok()) return exported.failure();
    if (!out.pile.empty()) {
        Status written = write_pile(exported.value().pile, out.pile);
        if (!written.ok()) return written.failure();
    }
    return std::move(exported).value().pile;
}

}  // namespace bp::cli
