#include "cli/merge_options.h"

#include <charconv>
#include <chrono>
#include <map>
#include <set>

#include "base/gate.h"
#include "base/parallel.h"
#include "engine/aligning.h"
#include "engine/hot_search.h"
#include "engine/knitting.h"
#include "engine/levelling.h"
#include "engine/render.h"
#include "engine/source.h"
#include "io/gather.h"
#include "io/profile_file.h"
#include "pile/edits.h"
#include "pile/file.h"
#include "pile/finish_edits.h"
#include "pile/finish_file.h"
#include "pile/like.h"
#include "pile/limits.h"
#include "pile/streak_edits.h"

namespace bp::cli {
namespace {

Result<Mask> read_mask(const std::filesystem::path& file, Size size) {
    FrameFile picture;
    Result<PictureFacts> facts = probe_picture(file);
    if (!facts.ok()) return facts.failure();
    picture.path = file;
    picture.facts = facts.value();
    if (picture.facts.size != size)
        return Failure{Fault::input,
                       file.string(),
                       {"%1 is not of the size of the frames. A mask must be.", {file.filename().string()}}};
    Job job;
    Result<Raster16> grey = read_frame(picture, 0, {Profile::srgb(), 1, {}}, job);
    if (!grey.ok()) return grey.failure();
    Raster8 narrow(size, 1);
    for (std::size_t i = 0; i < narrow.data().size(); ++i)
        narrow.data()[i] = std::uint8_t(grey.value().data()[i] / 257);
    return Mask::from_raster(size, {0, 0}, narrow);
}

// Sets how the zones are to be aligned and merged: one, or two under a mask of the sky.
Status divide(const MergeOptions& options, Pile& pile) {
    const auto or_else = [](const std::string& own, const std::string& of_all) { return own.empty() ? of_all : own; };
    if (options.sky.empty()) {
        for (const auto& [text, name] :
             {std::pair{options.align_of[0], "--sky-align"}, std::pair{options.align_of[1], "--land-align"},
              std::pair{options.mode_of[0], "--sky-mode"}, std::pair{options.mode_of[1], "--land-mode"}})
            if (!text.empty())
                return Failure{Fault::wrong_call,
                               "",
                               {"%1 needs --sky with a mask that is white where the sky is.", {std::string(name)}}};
    } else {
        Result<Mask> sky = read_mask(options.sky, pile.size);
        if (!sky.ok()) return sky.failure();
        pile = with_zones(std::move(pile), sky.value());
    }
    for (const Zone zone : both_zones) {
        if (zone == Zone::land && !pile.zones) continue;
        const std::size_t of = zone == Zone::sky ? 0 : 1;
        if (options.says("--align") || !options.align_of[of].empty())
            pile.methods[zone].model = *model_named(or_else(options.align_of[of], options.align));
        if (options.says("--mode") || !options.mode_of[of].empty())
            pile.methods[zone].mode = *mode_named(or_else(options.mode_of[of], options.mode));
    }
    if (options.taper_percent > 0) {
        if (!entry_of(pile.methods.sky.mode).uses_strength)
            return Failure{Fault::wrong_call, "",
                           "--taper is for modes in which the strength of frames counts: lighten, add, mean and "
                           "clipped-mean."};
        Taper taper;
        taper.end = *taper_end_named(or_else(options.taper_end, "old"));
        taper.over = options.taper_percent / 100;
        pile = with_taper(std::move(pile), taper);
    } else if (!options.taper_end.empty()) {
        return Failure{Fault::wrong_call, "", "--taper-end says at which end --taper fades, and no --taper is given."};
    }
    if (options.head_frames > 0) {
        if (!entry_of(pile.methods.sky.mode).uses_strength)
            return Failure{Fault::wrong_call, "",
                           "--head is for modes in which the strength of frames counts: lighten, add, mean and "
                           "clipped-mean."};
        pile = with_head(std::move(pile),
                         {true,
                          options.head_frames,
                          options.head_apart.value_or(0),
                          {options.head_radius_px.value_or(0), or_else(options.head_light, "kept") == "kept"}});
    } else if (options.head_apart || options.head_radius_px || !options.head_light.empty()) {
        return Failure{Fault::wrong_call, "",
                       "--head-apart, --head-radius and --head-light tell more of --head, and no --head is given."};
    }
    if (options.white == "soft" && pile.methods.sky.mode != Mode::add)
        return Failure{Fault::wrong_call, "", "--white is for --mode add, in which light can be more than white."};
    if (options.says("--white")) pile = with_soft_white(std::move(pile), options.white == "soft");
    if (options.says("--knit") && options.knit == "off") {
        pile = with_knit(std::move(pile), {false, pile.knit.longest_s});
    }
    if (options.knit == "auto") {
        pile = with_knit(std::move(pile), {true, options.knit_longest_s.value_or(pile.knit.longest_s)});
        if (!knits(pile))
            return Failure{
                Fault::wrong_call, "",
                "--knit closes the breaks in trails of frames that are not aligned, in the modes lighten and "
                "maximum of the sky."};
    } else if (options.knit_longest_s) {
        return Failure{Fault::wrong_call, "",
                       "--knit-longest says which pauses --knit auto closes, and --knit auto is not given."};
    }
    if (!options.says("--by")) return Done{};
    if (options.by == "channel") {
        pile.methods.sky.by = pile.methods.land.by = By::channel;
        return Done{};
    }
    if (!entry_of(pile.methods.sky.mode).chooses_pixels() &&
        !(pile.zones && entry_of(pile.methods.land.mode).chooses_pixels()))
        return Failure{Fault::wrong_call, "", "--by pixel says how lighten, maximum and minimum choose among frames."};
    pile.methods.sky.by = pile.methods.land.by = By::pixel;
    return Done{};
}

// Leaves areas of frames out, each named as N:MASK.
Status leave_out(const MergeOptions& options, Pile& pile) {
    for (const std::string& named : options.left_out) {
        const std::size_t colon = named.find(':');
        std::size_t number = 0;
        const auto [end, error] = std::from_chars(named.data(), named.data() + std::min(colon, named.size()), number);
        if (colon == std::string::npos || colon + 1 == named.size() || error != std::errc() ||
            end != named.data() + colon || number < 1 || number > pile.frames.size())
            return Failure{Fault::wrong_call,
                           "",
                           {"--leave-out %1 does not say what to leave out: give the number of a frame from 1 to %2, a "
                            "colon, and a mask that is white there.",
                            {named, std::to_string(pile.frames.size())}}};
        Result<Mask> mask = read_mask(named.substr(colon + 1), pile.size);
        if (!mask.ok()) return mask.failure();
        const Frame& frame = pile.frames[number - 1];
        Mask all = frame.left_out.empty() ? Mask(pile.size) : frame.left_out;
        all.edit(mask.value().bounds(),
                 [&](int x, int y, std::uint8_t old) { return std::max(old, mask.value().at(x, y)); });
        const int ids[] = {frame.id};
        pile = with_left_out(std::move(pile), ids, all);
    }
    return Done{};
}

// Takes the dark frames into the pile.
Status take_darks(const MergeOptions& options, Pile& pile, Job& job) {
    if (options.darks.empty()) {
        if (!options.scale_darks) return Done{};
        return Failure{Fault::wrong_call, "", "--scale-darks says how --dark is subtracted, and no dark is given."};
    }
    Result<std::vector<std::filesystem::path>> files = gather_files(options.darks);
    if (!files.ok()) return files.failure();
    std::vector<NamedFile> named;
    for (const auto& file : files.value()) named.push_back({file, Role::dark});
    Result<std::vector<Frame>> read = read_frames(named, KnownBy::path, job);
    if (!read.ok()) return read.failure();
    std::vector<Frame> darks = beside(pile, std::move(read).value());
    pile = with_frames(std::move(pile), std::move(darks));
    pile = with_darks(std::move(pile), options.scale_darks ? Darks::scaled : Darks::on);
    return Done{};
}

// The profile that the picture is written in: known by name, or from a file.
Status choose_profile(const std::string& name, Pile& pile) {
    static const std::map<std::string, ExportProfile> known{{"", ExportProfile::own},
                                                            {"srgb", ExportProfile::srgb},
                                                            {"p3", ExportProfile::display_p3},
                                                            {"rec2020", ExportProfile::rec2020}};
    if (const auto found = known.find(name); found != known.end()) {
        pile.exporting.profile = found->second;
        return Done{};
    }
    Result<Profile> read = read_profile(name);
    if (!read.ok()) return read.failure();
    pile.exporting.profile = ExportProfile::file;
    pile.exporting.from_file = std::move(read).value();
    return Done{};
}

template <class Entries>
std::vector<std::string> names_of(const Entries& entries) {
    std::vector<std::string> out;
    for (const auto& entry : entries) out.emplace_back(entry.name);
    return out;
}

}  // namespace

double seconds_since(std::chrono::steady_clock::time_point begin) {
    return std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count();
}

Result<Asked> pile_asked_for(const MergeOptions& options, const std::filesystem::path& out, Job& job) {
    Stages stages;
    stages.memory_bytes = options.memory;
    const auto begin = std::chrono::steady_clock::now();
    Result<Chosen> opened = open_choice(options.frames, job);
    if (!opened.ok()) return opened.failure();
    Pile pile = opened.value().pile;
    stages.open_s = seconds_since(begin);
    Like pattern;
    if (!options.like.empty()) {
        Result<LoadedPile> loaded = load_pile(options.like);
        if (!loaded.ok()) return loaded.failure();
        pattern = like(std::move(pile), loaded.value().pile);
        pile = pattern.pile;
        for (const auto* remarks : {&loaded.value().remarks, &pattern.left})
            for (const Saying& remark : *remarks) tell(remark);
    }
    if (options.says("--light")) pile.light = options.light == "encoded" ? Light::encoded : Light::linear;
    if (options.says("--cover")) pile.cover = options.cover == "any" ? Cover::any : Cover::full;
    Status divided = divide(options, pile);
    if (!divided.ok()) return divided.failure();
    if (!options.trust.empty()) {
        if (method_of(pile, Zone::sky).model == Model::none && method_of(pile, Zone::land).model == Model::none)
            return Failure{Fault::wrong_call, options.trust,
                           "--trust says where --align may look, and nothing is aligned."};
        Result<Mask> trust = read_mask(options.trust, pile.size);
        if (!trust.ok()) return trust.failure();
        pile = with_trust(std::move(pile), trust.value());
    }
    Status without_areas = leave_out(options, pile);
    if (!without_areas.ok()) return without_areas.failure();
    Status less_darks = take_darks(options, pile, job);
    if (!less_darks.ok()) return less_darks.failure();
    for (const Zone zone : both_zones) {
        const Model model = method_of(pile, zone).model;
        if (model == Model::none || (zone == Zone::land && !pile.zones)) continue;
        const auto aligning = std::chrono::steady_clock::now();
        auto alignments = align_frames(only_zone(pile, zone), model, pile.reference, job);
        if (!alignments.ok()) return alignments.failure();
        pile = with_alignments(pile, model, pile.reference, alignments.value(), zone);
        stages.align_s += seconds_since(aligning);
    }
    auto kept = std::make_unique<FrameStore>(working_space(pile), MemoryBudget{0, options.memory});
    FrameStore& store = *kept;
    const Levelling kind = options.says("--even") ? *levelling_named(options.even) : pile.levelling;
    if (kind == Levelling::off) pile.levelling = kind;
    if (kind != Levelling::off) {
        const auto levelling = std::chrono::steady_clock::now();
        auto levels = measure_gains(pile, kind, store, job);
        if (!levels.ok()) return levels.failure();
        pile = with_gains(pile, kind, levels.value());
        stages.even_s = seconds_since(levelling);
    }
    std::set<StreakKind> streaks_out = pattern.streaks_out;
    if (options.says("--streaks")) {
        streaks_out.clear();
        for (const StreakKindEntry& entry : streak_kinds())
            if (options.streaks == "drop-all" || options.streaks == "drop-" + std::string(entry.plural))
                streaks_out.insert(entry.kind);
    }
    if (!streaks_out.empty() || knits(pile)) {
        const auto looking = std::chrono::steady_clock::now();
        Result<std::shared_ptr<const MovingLights>> lights = moving_lights(pile, store, job);
        if (!lights.ok()) return lights.failure();
        stages.lights_s = seconds_since(looking);
        if (!lights.value()->sky && !streaks_out.empty())
            tell(
                {"No streaks were looked for: how the stars moved could not be found. That needs four frames or more "
                 "with their times, and stars in the reference."});
        if (!lights.value()->sky && lights.value()->own.empty() && knits(pile))
            tell(
                {"Nothing was knitted: how the stars moved could not be found. That needs four frames or more with "
                 "their times, and stars in the reference. Nor does any other light go on through three frames."});
        if (!streaks_out.empty()) pile = with_found_streaks(std::move(pile), lights.value()->streaks);
        for (const StreakKind kind_out : streaks_out)
            pile = with_streaks_left_out(pile, streaks_of(pile, kind_out), true);
    }
    if (options.says("--hot-pixels") ? options.hot == "auto" : pattern.hot) {
        const auto searching = std::chrono::steady_clock::now();
        Result<HotPixels> hot = search_hot_pixels(pile, store, job);
        if (!hot.ok()) return hot.failure();
        pile = with_hot_pixels(std::move(pile), std::make_shared<const HotPixels>(std::move(hot).value()));
        stages.even_s += seconds_since(searching);
    }
    if (!options.finish.empty()) {
        Result<LoadedFinish> finish = load_finish(options.finish, pile.size);
        if (!finish.ok()) return finish.failure();
        for (const Saying& remark : finish.value().remarks) tell(remark);
        pile = with_finish(std::move(pile), std::move(finish).value().finish);
    }
    if (options.says("--depth")) pile.exporting.bits = options.depth;
    if (options.says("--quality")) pile.exporting.quality = options.quality;
    if (options.says("--long-edge")) pile.exporting.long_edge_px = options.long_edge_px;
    if (options.says("--sharpen")) pile.exporting.sharpen = options.sharpen;
    if (options.says("--without-place")) pile.exporting.whereabouts = !options.without_place;
    if (options.says("--profile"))
        if (Status chosen = choose_profile(options.profile, pile); !chosen.ok()) return chosen.failure();
    set_ending(pile, out);
    // The depth of another format means nothing in this one.
    if (pile.exporting.ending != pattern.pile.exporting.ending && !options.like.empty() &&
        options.parser->count("--depth") == 0)
        pile.exporting.bits = options.depth;
    return Asked{std::move(pile), std::move(opened).value().paths, std::move(stages), std::move(kept)};
}

void MergeOptions::add_to(CLI::App& app) {
    parser = &app;
    frames.add_to(app, true);
    app.add_option("--like", like, "A pile whose settings these frames get, before all others that are given here");
    app.add_option("--mode", mode, "How frames become one picture")->check(CLI::IsMember(names_of(modes())));
    app.add_option("--by", by, "Choose each channel for itself, or whole pixels by brightness")
        ->check(CLI::IsMember({"channel", "pixel"}));
    app.add_option("--taper", taper_percent,
                   "Trails fade: the strength of frames rises over so many per cent of the run")
        ->check(CLI::Range(100 * Taper::shortest, 100.0));
    app.add_option("--taper-end", taper_end, "Where they fade; default old")
        ->check(CLI::IsMember({"old", "new", "both"}));
    app.add_option("--head", head_frames, "So many frames at the end that does not fade stand out")
        ->check(CLI::Range(1, Head::most_frames));
    app.add_option("--head-apart", head_apart, "So many frames between head and tail are left out")
        ->check(CLI::Range(0, Head::most_apart));
    app.add_option("--head-radius", head_radius_px, "Lights of the head are grown and softened, in pixels")
        ->check(CLI::Range(0.0, Softening::widest_px));
    app.add_option("--head-light", head_light,
                   "kept: lights that grow stay bright; spread: they grow dimmer. Default kept")
        ->check(CLI::IsMember({"kept", "spread"}));
    app.add_option("--white", white, "Added light beyond white is white, or pressed below it; default hard")
        ->check(CLI::IsMember({"hard", "soft"}));
    app.add_option("--knit", knit, "auto closes the breaks that pauses leave in trails")
        ->check(CLI::IsMember({"off", "auto"}));
    app.add_option("--knit-longest", knit_longest_s, "The longest pause that is closed, in seconds; default 120")
        ->check(CLI::Range(0.0, Knit::longest_pause_s));
    app.add_option("--streaks", streaks, "Leaves what is found out of the frames that have it")
        ->check(CLI::IsMember({"keep", "drop-aircraft", "drop-satellites", "drop-all"}));
    app.add_option("--leave-out", left_out,
                   "N:MASK, repeatable: what is white in a mask takes no part in frame N, counted from 1")
        ->allow_extra_args(false);
    app.add_option("--light", light, "linear or encoded values, for means, added light and strengths")
        ->check(CLI::IsMember({"linear", "encoded"}));
    app.add_option("--align", align, "How frames may have moved")->check(CLI::IsMember(names_of(models())));
    app.add_option("--hot-pixels", hot, "auto finds pixels that glow in all frames, and mends them")
        ->check(CLI::IsMember({"off", "auto"}));
    app.add_option("--dark", darks, "A frame taken with the lens covered, subtracted from the others; repeatable")
        ->allow_extra_args(false);
    app.add_flag("--scale-darks", scale_darks, "Subtract darks of another exposure, too, in proportion");
    app.add_option("--trust", trust, "A picture that is white where aligning may look");
    app.add_option("--sky", sky, "A picture that is white where the sky is: it and the land are merged apart");
    const auto add_zone = [&](int zone, const std::string& name, const char* moved, const char* merged) {
        app.add_option("--" + name + "-align", align_of[zone], moved)->check(CLI::IsMember(names_of(models())));
        app.add_option("--" + name + "-mode", mode_of[zone], merged)->check(CLI::IsMember(names_of(modes())));
    };
    add_zone(0, "sky", "How the sky may have moved", "How the sky becomes one picture");
    add_zone(1, "land", "How the land may have moved", "How the land becomes one picture");
    app.add_option("--even", even, "Level the light, or light and colour, of all frames to the reference")
        ->check(CLI::IsMember({"off", "light", "colour"}));
    app.add_option("--finish", finish,
                   "A finish file, or a pile whose finish is taken: tone, colour, detail and places of the picture");
    app.add_option("--cover", cover, "full crops to the area that all frames reach; any does not")
        ->check(CLI::IsMember({"full", "any"}));
    app.add_option("--depth", depth, "Bits a sample: 8, 16, or 32 in .exr, where 16 are half floats")
        ->check(CLI::IsMember({8, 16, 32}));
    app.add_option("--quality", quality, "Of .jpg, .webp and .jxl; in the last two 100 loses nothing")
        ->check(CLI::Range(1, 100));
    app.add_option("--profile", profile, "srgb, p3, rec2020 or an ICC file; default the profile of the frames");
    app.add_option("--long-edge", long_edge_px, "Pixels of the longer side; the picture is never enlarged")
        ->check(CLI::Range(1, pile::largest_side_px));
    app.add_option("--sharpen", sharpen, "Sharpens what was made smaller, in per cent; default 0")
        ->check(CLI::Range(0.0, 300.0));
    app.add_flag("--without-place", without_place,
                 "Leave out of the capture data where the frames were taken, and the camera's serial number");
    app.add_option("--memory", memory, "Memory that may be used, e.g. 1G; default a quarter of the machine's")
        ->transform(CLI::AsSizeValue(false));
    app.add_option("--threads", threads, "Threads to use; default all cores")->check(CLI::Range(1, 1024));
}

}  // namespace bp::cli
