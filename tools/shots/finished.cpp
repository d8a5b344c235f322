// The finished pictures of Skerrow: each as a photographer would make it, from the frames to the file.
#include <QAbstractButton>

#include "photographer.h"
#include "pile/edits.h"
#include "pile/finish_edits.h"
#include "pile/part_edits.h"
#include "pile/streak_edits.h"

namespace bp::app {
namespace {

class Maker {
  public:
    Maker(MainWindow& window, Photographer& p, const QDir& to) : window_(window), p_(p), to_(to) {}

    bool begin(const char* scene, Outcome outcome) {
        if (!p_.open(QLatin1String(scene))) return false;
        studio().choose_outcome(outcome);
        p_.settle();
        return true;
    }
    void edit(Pile pile) {
        studio().document().edit(std::move(pile), QStringLiteral("Finish"));
        p_.settle();
    }
    void press(const char* name) {
        window_.findChild<QAbstractButton*>(QLatin1String(name))->click();
        p_.settle();
    }
    void finish(const Look& look, double edges_ev) {
        edit(with_edge_shade(with_finish_look(studio().pile(), look), {edges_ev, 35, 100}));
    }
    bool write(const char* name) {
        constexpr int long_edge_px = 1200, quality = 86;
        ExportSettings settings;
        settings.ending = ".jpg";
        settings.bits = 8;
        settings.quality = quality;
        settings.long_edge_px = long_edge_px;
        settings.sharpen = 40;
        settings.profile = ExportProfile::srgb;
        const QString file = to_.filePath(QLatin1String(name) + QStringLiteral(".jpg"));
        studio().export_to(file, settings);
        const bool done = wait_for([this] { return !studio().exporting().busy(); });
        std::printf("%s\n", qPrintable(file));
        return done && QFile::exists(file);
    }
    Studio& studio() { return window_.studio(); }
    MainWindow& window() { return window_; }

  private:
    MainWindow& window_;
    Photographer& p_;
    QDir to_;
};

Look look_of(double exposure_ev, double deep, double bright, double strength, double warmth) {
    Look out;
    out.exposure_ev = exposure_ev;
    out.deep = deep;
    out.bright = bright;
    out.colour_strength = strength;
    out.warmth = warmth;
    return out;
}

bool make_trails(Maker& m) {
    if (!m.begin("lighthouse", Outcome::trails)) return false;
    m.studio().find_streaks();
    wait_for([&] { return !m.studio().busy(); });
    Pile next = m.studio().pile();
    for (const StreakKind kind : {StreakKind::aircraft, StreakKind::satellite})
        next = with_streaks_left_out(std::move(next), streaks_of(next, kind), true);
    m.edit(std::move(next));
    m.studio().knit(true);
    wait_for([&] { return !m.studio().busy(); });
    m.finish(look_of(0.35, 8, 14, 18, -4), -0.5);
    return m.write("trails");
}

bool make_still(Maker& m, const char* scene, Outcome outcome, const char* name, const Look& look) {
    if (!m.begin(scene, outcome)) return false;
    wait_for([&] { return !m.studio().busy(); });
    m.finish(look, -0.35);
    return m.write(name);
}

// A man stands there in more frames than not: his place is taken from one of the others.
bool make_clear(Maker& m) {
    if (!m.begin("quay", Outcome::clear)) return false;
    constexpr std::size_t without_him = 3;
    m.studio().take_place(m.studio().pile().frames[without_him].id, {598, 760}, 1, true);
    wait_for([&] { return !m.studio().busy(); });
    m.finish(look_of(0.1, 6, 8, 12, 6), -0.35);
    return m.write("clear");
}

struct Found {
    const char *page, *find;
};
bool make_found(Maker& m, const char* scene, Outcome outcome, const Found& found, const char* name, const Look& look) {
    if (!m.begin(scene, outcome)) return false;
    m.window().steps().open(4);
    m.press(found.page);
    m.press(found.find);
    wait_for([&] { return !m.studio().busy(); });
    m.finish(look, -0.35);
    return m.write(name);
}

}  // namespace

void paint_cats(MainWindow& window, Photographer& p) {
    Studio& studio = window.studio();
    const std::pair<int, double> cats[] = {{3, 520}, {1, 795}, {2, 1345}, {4, 1075}};
    for (const auto& [frame, x] : cats) {
        studio.select(studio.pile().frames[std::size_t(frame)].id);
        window.viewer().set_view(View::frame);
        p.settle();
        Brush brush;
        brush.size = 210;
        brush.softness = 0.3;
        window.canvas().set_brush(brush);
        p.stroke({{x - 10, 520}, {x + 10, 540}, {x - 6, 620}, {x + 4, 700}});
        p.settle();
    }
}

bool finished_pictures(MainWindow& window, Photographer& p, const QDir& to) {
    Maker m(window, p, to);
    bool ok = make_trails(m);
    ok = make_clear(m) && ok;
    ok = make_still(m, "shelf", Outcome::quiet, "quiet", look_of(0.25, 6, 10, 8, 4)) && ok;
    ok = make_found(m, "heron", Outcome::sequence, {"page_sequence", "subjects_find"}, "sequence",
                    look_of(0.1, 4, 8, 12, 5)) &&
         ok;
    ok = make_found(m, "night-watch", Outcome::shower, {"page_shower", "meteors_find"}, "shower",
                    look_of(0.6, 10, 16, 20, -4)) &&
         ok;
    if (!m.begin("harbour-cats", Outcome::best_of)) return false;
    window.steps().open(4);
    m.press("page_paint");
    paint_cats(window, p);
    window.viewer().set_view(View::result);
    m.press("level_light");
    const std::vector<Part> parts = m.studio().pile().parts;
    for (const Part& part : parts) m.edit(with_part_edge(m.studio().pile(), part.id, Edge::seam));
    m.finish(look_of(0.15, 6, 8, 12, 6), -0.3);
    return m.write("best-of") && ok;
}

}  // namespace bp::app
