// Drives the real window through its main views and takes a picture of each, or of one by its name.
#include <QAbstractButton>
#include <QCommandLineParser>
#include <QListWidget>
#include <QScrollArea>

#include "app/canvas/spot_tool.h"
#include "app/looks/theme.h"
#include "app/looks/words.h"
#include "app/panels/plumb_panel.h"
#include "parts/shapes.h"
#include "photographer.h"
#include "pile/edits.h"
#include "pile/finish_edits.h"
#include "pile/part_edits.h"
#include "pile/streak_edits.h"

namespace {

using namespace bp;
using namespace bp::app;

bool trails(MainWindow& window, Photographer& p) {
    Studio& studio = window.studio();
    bool ok = p.open(QStringLiteral("lighthouse"));
    const int ids[] = {studio.pile().frames[10].id, studio.pile().frames[11].id};
    Pile sorted = with_aside(studio.pile(), ids, true);
    sorted = with_note(std::move(sorted), studio.pile().frames[6].id,
                       p.typed("meteor over the sea", "Meteor über dem Meer"));
    studio.document().edit(std::move(sorted), QStringLiteral("Set aside"));
    studio.select(studio.pile().frames[18].id);
    window.viewer().set_view(View::frame);
    ok = p.take("frames") && ok;
    window.comparison().set_second(Second::before);
    window.comparison().set_on(true);
    window.canvas().zoom_to(1, window.canvas().to_screen({440, 610}));
    ok = p.take("side-by-side") && ok;
    window.comparison().set_on(false);
    window.canvas().fit();
    window.viewer().set_view(View::result);
    window.steps().open(3);
    const auto press = [&](const char* name) { window.findChild<QAbstractButton*>(QLatin1String(name))->click(); };
    press("page_trails");
    press("taper_old");
    Taper taper = studio.pile().methods.sky.taper;
    taper.over = 0.6;
    taper.knot = {0.55, 0.3};
    studio.document().edit(with_taper(studio.pile(), taper), QStringLiteral("Taper"));
    Head head;
    head.on = true;
    head.frames = 2;
    head.apart = 3;
    head.softening.radius_px = 3.5;
    studio.document().edit(with_head(studio.pile(), head), QStringLiteral("Head"));
    press("knit");
    wait_for([&] { return studio.pile().knit.on; });
    ok = p.take("merge-trails") && ok;
    press("page_leave_out");
    press("streaks_find");
    wait_for([&] { return !all_streaks(studio.pile()).empty(); });
    press("streaks_satellite");
    window.findChild<QListWidget*>(QStringLiteral("streaks"))->setCurrentRow(1);
    wait_for([&] { return window.viewer().seen_finely(); });
    ok = p.take("streaks") && ok;
    press("page_mode");
    window.viewer().set_view(View::origins);
    press("plumb");
    window.canvas().zoom_to(1, window.canvas().to_screen({1150, 150}));
    auto* plumb = window.findChild<PlumbPanel*>();
    wait_for([&] { return window.viewer().seen_finely(); });
    p.stroke({{1312, 364}});
    press("plumb_with_patches");
    wait_for([&] { return plumb->plumb().has_value(); });
    ok = p.take("origins") && ok;
    press("plumb");
    window.canvas().fit();
    window.viewer().set_view(View::result);
    return ok;
}

bool even(MainWindow& window, Photographer& p) {
    Studio& studio = window.studio();
    const bool ok = p.open(QStringLiteral("quay"));
    studio.level(Levelling::light);
    p.settle();
    Look look;
    look.exposure_ev = 0.35;
    look.contrast = 18;
    look.deep = 25;
    look.warmth = 12;
    look.pale_colours = 20;
    studio.document().edit(with_look(studio.pile(), look), QStringLiteral("Look"));
    studio.select(studio.pile().frames[5].id);
    window.steps().open(1);
    return p.take("even") && ok;
}

bool aligned(MainWindow& window, Photographer& p) {
    Studio& studio = window.studio();
    bool ok = true;
    const auto press = [&](const char* name) { window.findChild<QAbstractButton*>(QLatin1String(name))->click(); };
    if (p.wants({"align"})) {
        ok = p.open(QStringLiteral("shelf"));
        window.steps().open(2);
        studio.select(studio.pile().frames[7].id);
        press("align_table_shown");
        studio.align(Model::rigid, studio.pile().frames[0].id);
        p.settle();
        // The small pictures rest for a while after every edit. By night alone one looks for stars.
        wait_for([&] {
            return std::all_of(models().begin(), models().end(), [&](const ModelEntry& entry) {
                return entry.model == Model::stars || studio.previews().of(entry.model);
            });
        });
        ok = p.take("align") && ok;
        press("align_table_shown");
    }
    if (p.wants({"zones"})) {
        ok = p.open(QStringLiteral("lighthouse")) && ok;
        window.steps().open(2);
        studio.align(Model::stars, studio.pile().frames[24].id);
        p.settle();
        Pile pile = with_mode(studio.pile(), Mode::median);
        pile.cover = Cover::any;
        studio.document().edit(std::move(pile), QStringLiteral("Median"));
        studio.select(studio.pile().frames[32].id);
        press("page_zones");
        studio.suggest_zones();
        p.settle();
        window.viewer().set_view(View::result);
        ok = p.take("zones") && ok;
        press("page_place");
    }
    return ok;
}

void scroll_to(MainWindow& window, const char* name) {
    auto* widget = window.findChild<QWidget*>(QLatin1String(name));
    for (auto* area : window.findChildren<QScrollArea*>())
        if (widget && area->isAncestorOf(widget)) area->ensureWidgetVisible(widget);
}

bool best_of(MainWindow& window, Photographer& p) {
    Studio& studio = window.studio();
    bool ok = p.open(QStringLiteral("harbour-cats"));
    window.steps().open(4);
    if (p.wants({"patches"})) {
        // The place of one cat in every frame, held; it is taken from the one in which it looks.
        const QPointF cat(520, 540);
        Brush wide;
        wide.size = 240;
        window.canvas().set_brush(wide);
        p.settle();
        const auto point = [&] {
            const QPointF at = window.canvas().to_screen(cat);
            QMouseEvent move(QEvent::MouseMove, at, window.canvas().mapToGlobal(at), Qt::NoButton, Qt::NoButton,
                             Qt::NoModifier);
            QApplication::sendEvent(&window.canvas(), &move);
        };
        point();
        window.findChild<QAbstractButton*>(QStringLiteral("patches_hold"))->click();
        ok = p.take("patches") && ok;
        window.findChild<QAbstractButton*>(QStringLiteral("patches_hold"))->click();
    }
    paint_cats(window, p);
    window.viewer().set_view(View::result);
    window.findChild<QAbstractButton*>(QStringLiteral("level_light"))->click();
    p.settle();
    const std::vector<Part> parts = studio.pile().parts;
    for (const Part& part : parts)
        studio.document().edit(with_part_edge(studio.pile(), part.id, Edge::seam), QStringLiteral("Least seam"));
    p.settle();
    scroll_to(window, "part_down");
    ok = p.take("parts") && ok;
    window.steps().open(6);
    return p.take("export") && ok;
}

bool found_parts(MainWindow& window, Photographer& p) {
    const auto press = [&](const char* name) {
        window.findChild<QAbstractButton*>(QLatin1String(name))->click();
        p.settle();
    };
    bool ok = true;
    if (p.wants({"shower"})) {
        ok = p.open(QStringLiteral("night-watch"));
        window.steps().open(4);
        press("page_shower");
        press("meteors_find");
        ok = p.take("shower") && ok;
    }
    if (p.wants({"sequence"})) {
        // In the light theme, which one picture shows.
        apply_theme(*qApp, ThemeName::noon);
        ok = p.open(QStringLiteral("heron")) && ok;
        window.steps().open(4);
        press("page_sequence");
        press("subjects_find");
        ok = p.take("sequence") && ok;
    }
    return ok;
}

// Four fountains on a sheet of paper, black where there is nothing.
bool on_paper(MainWindow& window, Photographer& p) {
    Studio& studio = window.studio();
    bool ok = p.open(QStringLiteral("sparks"));
    const Size size = studio.pile().size;
    CanvasSettings sheet;
    sheet.measure = Measure::inch;
    sheet.area = Rect{(size.width - 6000) / 2, (size.height - 4800) / 2, 6000, 4800};
    Pile next = with_canvas(studio.pile(), sheet);
    next.cover = Cover::any;
    std::vector<int> all;
    for (const Frame& frame : next.frames) all.push_back(frame.id);
    next = with_aside(with_mode(std::move(next), Mode::lighten), all, true);
    struct Fountain {
        std::size_t frame;
        Point from, to;
        MovedBy by;
    };
    const Fountain fountains[] = {{0, {180, 250}, {900, 1000}, {-1250, -1000, 0, 2.2}},
                                  {1, {480, 150}, {1150, 1000}, {1150, -950, 12, 2.0}},
                                  {2, {560, 250}, {1300, 1000}, {-1300, 1050, -6, 2.3}},
                                  {5, {120, 200}, {1000, 980}, {1450, 1000, 0, 2.2}}};
    for (const Fountain& f : fountains) {
        int part = 0;
        std::tie(next, part) = with_new_part(std::move(next), next.frames[f.frame].id);
        const Mask around = with_shape(Mask(size), {ShapeKind::ellipse, f.from, f.to, 1}, true);
        next = with_part_mask(std::move(next), part, around.softened(120));
        next = with_part_join(std::move(next), part, Join::add);
        next = with_part_moved_to(std::move(next), part, f.by, f.frame == 5);
        Look on_black;
        on_black.floor = 6;
        next = with_part_look(std::move(next), part, on_black);
    }
    studio.document().edit(std::move(next), QStringLiteral("Place parts"));
    window.steps().open(4);
    window.findChild<QAbstractButton*>(QStringLiteral("page_part_place"))->click();
    p.settle();
    if (auto* list = window.findChild<QListWidget*>(QStringLiteral("parts_list"))) list->setCurrentRow(2);
    ok = p.take("place") && ok;
    return ok;
}

// A boat in the lights of all frames but the one with the torch.
bool lit(MainWindow& window, Photographer& p) {
    Studio& studio = window.studio();
    const bool ok = p.open(QStringLiteral("hull"));
    window.steps().open(4);
    Pile next = studio.pile();
    int number = 0;
    for (const Frame& frame : studio.pile().frames)
        if (frame.role == Role::foreground && ++number != 4) next = with_foreground(std::move(next), frame.id, true);
    studio.document().edit(std::move(next), QStringLiteral("Lights"));
    p.settle();
    scroll_to(window, "lit_frames");
    return p.take("lights") && ok;
}

// The quay as it is finished: a darker sky, the house and its quay warmer.
bool finished(MainWindow& window, Photographer& p) {
    Studio& studio = window.studio();
    bool ok = p.open(QStringLiteral("quay"));
    Pile next = studio.pile();
    Look look;
    look.deep = 18;
    look.middle = -6;
    look.bright = 22;
    look.colour_strength = 12;
    look.warmth = 10;
    next = with_finish_look(std::move(next), look);
    const double width = next.size.width, height = next.size.height;
    const auto placed = [&](const DrawnShape& shape, const char* name, double ev, double warmth) {
        auto [made, id] = with_new_place(std::move(next), shape);
        FinishPlace place = *find_place(made, id);
        place.name = name;
        place.look.exposure_ev = ev;
        place.look.warmth = warmth;
        next = with_place(std::move(made), place);
    };
    placed({ShapeKind::ramp, {0.5 * width, 0.05 * height}, {0.53 * width, 0.5 * height}, 1}, p.typed("Sky", "Himmel"),
           -0.7, -15);
    placed({ShapeKind::ellipse, {0.55 * width, 0.3 * height}, {1.05 * width, 1.0 * height}, 1},
           p.typed("House", "Haus"), 0.35, 25);
    studio.document().edit(std::move(next), QStringLiteral("Finish"));
    window.steps().open(5);
    p.settle();
    ok = p.take("finish") && ok;
    window.findChild<QAbstractButton*>(QStringLiteral("page_finish_places"))->click();
    p.settle();
    if (auto* list = window.findChild<QListWidget*>(QStringLiteral("places_list"))) list->setCurrentRow(0);
    ok = p.take("places") && ok;
    // The lamp's bracket and the line of a crack are mended away.
    Mended line;
    line.way = {{0.611 * width, 0.308 * height}, {0.64 * width, 0.325 * height}};
    line.width_px = 16;
    Mended spot;
    spot.way = {{0.617 * width, 0.368 * height}};
    spot.width_px = 34;
    spot.from = {-44, 0};
    next = studio.pile();
    next = with_mended(std::move(next), line).first;
    next = with_mended(std::move(next), spot).first;
    studio.document().edit(std::move(next), QStringLiteral("Mend"));
    window.findChild<QAbstractButton*>(QStringLiteral("page_finish_mend"))->click();
    p.settle();
    if (auto* list = window.findChild<QListWidget*>(QStringLiteral("mended_list"))) list->setCurrentRow(1);
    ok = p.take("mend") && ok;
    return ok;
}

bool take_all(MainWindow& window, Photographer& p) {
    bool ok = p.take("start");
    if (p.wants({"frames", "side-by-side", "merge-trails", "streaks", "origins"})) ok = trails(window, p) && ok;
    if (p.wants({"even"})) ok = even(window, p) && ok;
    if (p.wants({"align", "zones"})) ok = aligned(window, p) && ok;
    if (p.wants({"parts", "patches", "export"})) ok = best_of(window, p) && ok;
    if (p.wants({"sequence", "shower"})) ok = found_parts(window, p) && ok;
    if (p.wants({"finish", "places", "mend"})) ok = finished(window, p) && ok;
    if (p.wants({"lights"})) ok = lit(window, p) && ok;
    if (p.wants({"place"})) ok = on_paper(window, p) && ok;
    return ok;
}

}  // namespace

int main(int argc, char** argv) {
    QApplication application(argc, argv);
    QApplication::setApplicationName(QStringLiteral("bright-pile-shots"));
    QCommandLineParser parser;
    parser.addOption({QStringLiteral("language"), QStringLiteral("Of the window"), QStringLiteral("code")});
    parser.process(application);
    const QStringList asked = parser.positionalArguments();
    if (asked.isEmpty() || asked.size() > 2) {
        std::fprintf(stderr, "Give the folder for the pictures and, if only one is wanted, its name.\n");
        return 2;
    }
    QDir out(asked.first());
    if (!out.mkpath(QStringLiteral("."))) return 4;
    const QString language = parser.value(QStringLiteral("language")), name = asked.value(1);
    const QLocale locale = language.isEmpty() ? QLocale::c() : QLocale(language);
    QLocale::setDefault(locale);
    speak(application, locale);
    load_fonts();
    apply_theme(application, ThemeName::dusk);
    MainWindow window;
    window.resize(1280, 800);
    window.show();
    Photographer photographer(window, out, name, locale.language() == QLocale::German);
    const bool pictures = name == QStringLiteral("pictures");
    const bool ok = pictures ? finished_pictures(window, photographer, out) : take_all(window, photographer);
    window.hide();
    return ok ? 0 : 1;
}
