#include <array>
#include <cmath>
#include <cstdio>
#include <iostream>
#include <nlohmann/json.hpp>

#include "cli/commands.h"
#include "cli/report.h"
#include "cli/words.h"
#include "engine/render.h"
#include "engine/survey.h"

namespace bp::cli {
namespace {

using nlohmann::json;

template <class T>
json maybe(const std::optional<T>& value) {
    return value ? json(*value) : json(nullptr);
}

std::string with(const char* format, double value) {
    std::array<char, 64> text{};
    std::snprintf(text.data(), text.size(), format, value);
    return text.data();
}

std::string reason(const Mark& mark) {
    switch (mark.why) {
        case Oddity::moved:
            return with("moved %.1f px", mark.amount);
        case Oddity::moved_on:
            return with("moved %.1f px from here on", mark.amount);
        case Oddity::turned:
            return with("turned %.2f degrees", mark.amount);
        case Oddity::soft:
            return with("softer than its neighbours (%.0f %% of their fine contrast)", 100 * mark.amount);
        case Oddity::veiled:
            return with("thin cloud over %.0f %% of the picture", 100 * mark.amount);
        case Oddity::changed:
            return with("light changed over %.0f %% of the picture", 100 * mark.amount);
        case Oddity::brighter:
            return with("%.2f EV brighter", mark.amount);
        case Oddity::darker:
            return with("%.2f EV darker", mark.amount);
        case Oddity::warmer:
            return with("%.2f EV warmer", mark.amount);
        case Oddity::cooler:
            return with("%.2f EV cooler", mark.amount);
        case Oddity::late:
            return with("%.1f s late", mark.amount);
    }
    return {};
}

json row_json(const Frame& frame, const std::string& path, const Findings& known) {
    json out{{"file", path}};
    if (!usable(frame)) {
        out["problem"] = frame.problem.english();
        return out;
    }
    const PictureFacts& facts = frame.file->facts;
    const CaptureData& capture = frame.file->capture;
    const FrameMeasures& m = known.measures;
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
    out["gain_ev"] = maybe(m.gain_ev);
    out["warmth_ev"] = maybe(m.warmth_ev);
    out["sharpness"] = maybe(m.sharpness);
    out["shift_px"] = m.shift_px ? json(std::hypot(m.shift_px->x, m.shift_px->y)) : json(nullptr);
    out["shift_x_px"] = m.shift_px ? json(m.shift_px->x) : json(nullptr);
    out["shift_y_px"] = m.shift_px ? json(m.shift_px->y) : json(nullptr);
    out["turn_degrees"] = maybe(m.turn_degrees);
    out["noise_percent"] = maybe(m.noise);
    out["clipped_share"] = maybe(m.clipped);
    out["veil_share"] = maybe(m.veil);
    out["odd"] = json::array();
    for (const Mark& mark : known.marks) out["odd"].push_back(reason(mark));
    return out;
}

std::string cell(const std::optional<double>& value, const char* format) {
    return value ? with(format, *value) : "-";
}

std::string length(const std::optional<Point>& shift) {
    return shift ? with("%.1f", std::hypot(shift->x, shift->y)) : "-";
}

void print_table(const Pile& pile, const GivenPaths& paths, const std::vector<Findings>& known) {
    std::printf("%-32s %-11s %-23s %10s %6s %8s %6s %8s %10s  %s\n", "frame", "size", "captured", "exposure s", "ISO",
                "gap s", "sharp", "shift px", "brightness", "odd");
    for (std::size_t i = 0; i < pile.frames.size(); ++i) {
        const Frame& frame = pile.frames[i];
        if (!usable(frame)) {
            std::printf("%-32s %s\n", paths.of(frame).c_str(), said(frame.problem).c_str());
            continue;
        }
        const CaptureData& c = frame.file->capture;
        const FrameMeasures& m = known[i].measures;
        const Size size = frame.file->facts.size;
        std::string odd;
        for (const Mark& mark : known[i].marks) odd += (odd.empty() ? "" : "; ") + reason(mark);
        std::printf("%-32s %-11s %-23s %10s %6s %8s %6s %8s %10s  %s\n", paths.of(frame).c_str(),
                    (std::to_string(size.width) + "x" + std::to_string(size.height)).c_str(),
                    c.captured ? time_text(*c.captured).c_str() : "-", cell(c.exposure_s, "%.4g").c_str(),
                    cell(c.iso, "%.0f").c_str(), cell(m.gap_s, "%.3f").c_str(), cell(m.sharpness, "%.2f").c_str(),
                    length(m.shift_px).c_str(), cell(m.brightness, "%.4f").c_str(), odd.c_str());
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
        // Every frame is looked at once: none is worth keeping.
        FrameStore store(working_space(pile), {0, MemoryBudget::of_machine().work_bytes});
        Result<std::vector<Findings>> surveyed = survey(pile, store, context.job);
        if (!surveyed.ok()) return fail(surveyed.failure());
        const std::vector<Findings>& known = surveyed.value();
        if (options->json) {
            json out{{"frames", json::array()}};
            for (std::size_t i = 0; i < pile.frames.size(); ++i)
                out["frames"].push_back(row_json(pile.frames[i], paths.of(pile.frames[i]), known[i]));
            std::cout << json_text(out) << '\n';
        } else {
            print_table(pile, paths, known);
        }
        return tell_problems(pile) ? Exit::some_frames_unused : Exit::done;
    };
}

}  // namespace bp::cli
