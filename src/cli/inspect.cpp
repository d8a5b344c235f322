#include "engine/inspect.h"

#include <cmath>
#include <cstdio>
#include <iostream>
#include <nlohmann/json.hpp>

#include "cli/commands.h"

namespace bp::cli {
namespace {

using nlohmann::json;

template <class T>
json maybe(const std::optional<T>& value) {
    return value ? json(*value) : json(nullptr);
}

json row_json(const Frame& frame, const std::string& path, const FrameMeasures& m) {
    json out{{"file", path}};
    if (!usable(frame)) {
        out["problem"] = frame.problem;
        return out;
    }
    const PictureFacts& facts = frame.file->facts;
    const CaptureData& capture = frame.file->capture;
    out["width_px"] = facts.size.width;
    out["height_px"] = facts.size.height;
    out["channels"] = facts.channels;
    out["depth_bits"] = facts.bits;
    out["profile"] = facts.profile.name();
    out["captured"] = capture.captured ? json(time_text(*capture.captured)) : json(nullptr);
    out["exposure_s"] = maybe(capture.exposure_s);
    out["iso"] = maybe(capture.iso);
    out["aperture"] = maybe(capture.aperture);
    out["gap_s"] = maybe(m.gap_s);
    out["brightness"] = maybe(m.brightness);
    return out;
}

std::string cell(const std::optional<double>& value, const char* format) {
    if (!value) return "-";
    std::array<char, 32> text{};
    std::snprintf(text.data(), text.size(), format, *value);
    return text.data();
}

void print_table(const Pile& pile, const GivenPaths& paths, const std::vector<FrameMeasures>& measures) {
    std::printf("%-32s %-11s %-23s %10s %6s %8s %10s\n", "frame", "size", "captured", "exposure s", "ISO", "gap s",
                "brightness");
    for (std::size_t i = 0; i < pile.frames.size(); ++i) {
        const Frame& frame = pile.frames[i];
        if (!usable(frame)) {
            std::printf("%-32s %s\n", paths.of(frame).c_str(), frame.problem.c_str());
            continue;
        }
        const CaptureData& c = frame.file->capture;
        const Size size = frame.file->facts.size;
        std::printf("%-32s %-11s %-23s %10s %6s %8s %10s\n", paths.of(frame).c_str(),
                    (std::to_string(size.width) + "x" + std::to_string(size.height)).c_str(),
                    c.captured ? time_text(*c.captured).c_str() : "-", cell(c.exposure_s, "%.4g").c_str(),
                    cell(c.iso, "%.0f").c_str(), cell(measures[i].gap_s, "%.3f").c_str(),
                    cell(measures[i].brightness, "%.4f").c_str());
    }
}

}  // namespace

Run add_inspect(CLI::App& app) {
    struct Options {
        FrameChoice frames;
        bool json = false;
    };
    auto options = std::make_shared<Options>();
    options->frames.add_to(app, false);
    app.add_flag("--json", options->json, "Print JSON");
    return [options](Context& context) {
        Result<Chosen> opened = open_choice(options->frames, context.job);
        if (!opened.ok()) return fail(opened.failure());
        Pile& pile = opened.value().pile;
        const GivenPaths& paths = opened.value().paths;
        Result<std::vector<FrameMeasures>> measured = measure_frames(pile, context.job);
        if (!measured.ok()) return fail(measured.failure());
        const std::vector<FrameMeasures>& measures = measured.value();
        if (options->json) {
            json out{{"frames", json::array()}};
            for (std::size_t i = 0; i < pile.frames.size(); ++i)
                out["frames"].push_back(row_json(pile.frames[i], paths.of(pile.frames[i]), measures[i]));
            std::cout << out.dump(1) << '\n';
        } else {
            print_table(pile, paths, measures);
        }
        return tell_problems(pile) ? Exit::some_frames_unused : Exit::done;
    };
}

}  // namespace bp::cli
