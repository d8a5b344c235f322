// Sorting frames in the real window: odd ones, roles, notes, thinning, playing, comparing, frames that arrive.
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QDropEvent>
#include <QLineEdit>
#include <QListWidget>
#include <QMimeData>
#include <QPointer>
#include <QPushButton>
#include <QSpinBox>
#include <catch2/catch.hpp>
#include <cmath>
#include <fstream>
#include <opencv2/videoio.hpp>

#include "app/panels/clip_dialog.h"
#include "app/rail/rail_traces.h"
#include "app/rail/time_rail.h"
#include "pile/edits.h"
#include "support/window.h"

using namespace bp;
using namespace bp::test;

namespace {

// A still scene with noise; one frame is knocked, one is brighter.
void run_into(const Folder& folder, int frames, int knocked = 0, int bright = 0) {
    for (int i = 1; i <= frames; ++i) {
        const Matrix place = i == knocked ? Matrix::shift(7, -3) : Matrix{};
        Raster16 picture = landscape({320, 240}, place, unsigned(i), 0.01);
        if (i == bright)
            for (std::uint16_t& v : picture.data()) v = std::uint16_t(std::min(65535.0, v * 1.25));
        CaptureData capture;
        capture.captured = 1789251245.0 + 30 * i;
        capture.exposure_s = 25;
        write(folder / ("f" + std::to_string(100 + i) + ".png"), picture, 16, {}, capture);
    }
}

void film(const fs::path& file, int frames) {
    cv::VideoWriter writer(file.string(), cv::VideoWriter::fourcc('M', 'J', 'P', 'G'), 10, cv::Size(64, 48));
    REQUIRE(writer.isOpened());
    for (int n = 0; n < frames; ++n) writer.write(cv::Mat(48, 64, CV_8UC3, cv::Scalar(8 * n, 60, 200 - 8 * n)));
}

bool known(Window& w) {
    return w.settle() && wait_for([&] { return w.window.surveyor().complete(); });
}

}  // namespace

TEST_CASE("odd frames are listed with their reason, shown by a click, and set aside together", "[window]") {
    const Folder folder;
    run_into(folder, 12, 5, 9);
    Window w;
    REQUIRE(w.open(folder));
    REQUIRE(known(w));
    auto* list = w.find<QListWidget>("odd_frames");
    REQUIRE(list->count() == 2);
    CHECK(list->item(0)->text().startsWith("5  moved 7."));
    CHECK(list->item(1)->text().contains("EV brighter"));
    QTest::mouseClick(list->viewport(), Qt::LeftButton, {}, list->visualItemRect(list->item(1)).center());
    CHECK(w.studio().current() == w.pile().frames[8].id);
    CHECK(w.window.viewer().view() == app::View::frame);
    // From elsewhere the same row leads there again.
    w.window.canvas().setFocus();
    w.key(Qt::Key_Left);
    REQUIRE(w.studio().current() != w.pile().frames[8].id);
    QTest::mouseClick(list->viewport(), Qt::LeftButton, {}, list->visualItemRect(list->item(1)).center());
    CHECK(w.studio().current() == w.pile().frames[8].id);
    w.click("take_all_odd_frames");
    CHECK(merged_ids(w.pile()).size() == 10);
    CHECK(list->count() == 2);
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(merged_ids(w.pile()).size() == 12);
}

TEST_CASE("each odd frame is ticked and left again, by the mouse and by keys", "[window]") {
    const Folder folder;
    run_into(folder, 12, 5, 9);
    Window w;
    REQUIRE(w.open(folder));
    REQUIRE(known(w));
    const auto aside = [&](std::size_t at) { return w.pile().frames[at].aside; };
    auto* list = w.find<QListWidget>("odd_frames");
    const auto tick = [&](int row) {
        QTest::mouseClick(list->viewport(), Qt::LeftButton, {},
                          list->visualItemRect(list->item(row)).topLeft() + QPoint(10, 12));
    };
    tick(1);
    CHECK((aside(8) && !aside(4)));
    CHECK(list->item(1)->checkState() == Qt::Checked);
    tick(1);
    CHECK_FALSE(aside(8));
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(aside(8));
    CHECK(list->item(1)->checkState() == Qt::Checked);
    // An arrow shows the one above; the space bar ticks it.
    list->setFocus();
    QTest::keyClick(list, Qt::Key_Up);
    CHECK(w.studio().current() == w.pile().frames[4].id);
    QTest::keyClick(list, Qt::Key_Space);
    CHECK((aside(4) && aside(8)));
    CHECK_FALSE(w.find<QPushButton>("take_all_odd_frames")->isEnabled());
    while (w.studio().document().can_undo()) w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK_FALSE((aside(4) || aside(8)));
    CHECK(w.find<QPushButton>("take_all_odd_frames")->isEnabled());
}

TEST_CASE("a note stays with its frame and is found again", "[window]") {
    const Folder folder;
    run_into(folder, 4);
    Window w;
    REQUIRE(w.open(folder));
    w.studio().select(w.pile().frames[2].id);
    auto* note = w.find<QLineEdit>("note");
    note->setFocus();
    QTest::keyClicks(note, "Gull on the mole");
    QTest::keyClick(note, Qt::Key_Return);
    CHECK(w.pile().frames[2].note == "Gull on the mole");
    w.studio().select(w.pile().frames[0].id);
    w.window.canvas().setFocus();
    CHECK(note->text().isEmpty());
    auto* search = w.find<QLineEdit>("find_frames");
    QTest::keyClicks(search, "gull");
    QTest::keyClick(search, Qt::Key_Return);
    CHECK(w.studio().selected() == std::vector<int>{w.pile().frames[2].id});
    CHECK(note->text() == "Gull on the mole");
}

TEST_CASE("a run is thinned to one in three, frames are removed, and all of it is undone", "[window]") {
    const Folder folder;
    run_into(folder, 9);
    Window w;
    REQUIRE(w.open(folder));
    w.enter("every", 3);
    w.click("thin");
    std::vector<bool> in;
    for (const Frame& frame : w.pile().frames) in.push_back(!frame.aside);
    CHECK(in == std::vector<bool>{true, false, false, true, false, false, true, false, false});
    w.key(Qt::Key_Z, Qt::ControlModifier);
    w.studio().select(w.pile().frames[0].id);
    w.key(Qt::Key_Delete);
    CHECK(w.pile().frames.size() == 8);
    CHECK(w.studio().current() == w.pile().frames[0].id);
    CHECK(find_frame(w.pile(), w.pile().reference));
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(w.pile().frames.size() == 9);
}

TEST_CASE("what is not alike is told in a sentence when it is opened", "[window]") {
    const Folder folder;
    run_into(folder, 3);
    fs::copy_file(folder / "f101.png", folder / "twin.png");
    write(folder / "odd.png", speckle_8({320, 200}, 3, 1), 8);
    write(folder / "linear.png", landscape({320, 240}, {}, 77, 0.01), 16, Profile::linear_srgb());
    Window w;
    QString said;
    QObject::connect(&w.studio(), &app::Studio::said, &w.window, [&](const QString& text) { said = text; });
    REQUIRE(w.open(folder));
    CHECK(said ==
          "1 of the frames cannot be used: see the Frames step; 1 are copies of others and set aside; 1 have "
          "another colour profile and are converted to sRGB.");
    CHECK(merged_ids(w.pile()).size() == 4);
    w.key(Qt::Key_A, Qt::ControlModifier);
    CHECK(w.studio().selected().size() == 6);
}

TEST_CASE("reference and base are chosen here", "[window]") {
    const Folder folder;
    run_into(folder, 3);
    Window w;
    REQUIRE(w.open(folder));
    w.studio().select(w.pile().frames[1].id);
    w.click("as_reference");
    CHECK(w.pile().reference == w.pile().frames[1].id);
    w.click("as_base");
    CHECK(w.pile().base == w.pile().frames[1].id);
    CHECK(w.find<QPushButton>("as_base")->isChecked());
}

TEST_CASE("a guessed role is shown as a guess and changed by one click", "[window]") {
    const Folder folder;
    run_into(folder, 7);
    CaptureData capture;
    capture.captured = 1789252245.0;
    capture.exposure_s = 25;
    write(folder / "f200.png", Raster16(Size{320, 240}, 3), 16, {}, capture);
    Window w;
    REQUIRE(w.open(folder));
    REQUIRE(known(w));
    REQUIRE(wait_for([&] { return w.pile().frames[7].role == Role::dark; }));
    CHECK(w.pile().frames[7].role_from == RoleFrom::guess);
    w.studio().select(w.pile().frames[7].id);
    w.click("guess_wrong");
    CHECK(w.pile().frames[7].role == Role::scene);
    CHECK(w.pile().frames[7].role_from == RoleFrom::person);
    // Nor is it guessed again when another frame comes and all are looked at anew.
    const Folder apart;
    run_into(apart, 8);
    w.drop({apart / "f108.png"});
    REQUIRE(wait_for([&] { return w.pile().frames.size() == 9; }));
    REQUIRE(w.settle());
    REQUIRE(known(w));
    CHECK(w.pile().frames.back().file->path.filename() == "f200.png");
    CHECK(w.pile().frames.back().role == Role::scene);
}

TEST_CASE("frames play round and round and skip those set aside", "[window]") {
    const Folder folder;
    run_into(folder, 4);
    std::vector<int> seen;  // outlives the window, which tells of frames to its end
    Window w;
    REQUIRE(w.open(folder));
    const int out[] = {w.pile().frames[1].id};
    w.studio().document().edit(with_aside(w.pile(), out, true), "aside");
    w.pick("rate", 5);
    QObject::connect(&w.studio(), &app::Studio::selection_changed, [&] { seen.push_back(w.studio().current()); });
    w.key(Qt::Key_R);
    REQUIRE(wait_for([&] { return seen.size() >= 4; }));
    w.key(Qt::Key_R);
    const auto id = [&](std::size_t i) { return w.pile().frames[i].id; };
    CHECK(std::vector<int>(seen.begin(), seen.begin() + 4) == std::vector<int>{id(2), id(3), id(0), id(2)});
    CHECK_FALSE(w.window.play_bar().playing());
    const auto count = seen.size();
    CHECK_FALSE(wait_for([&] { return seen.size() != count; }, 200));
}

TEST_CASE("two frames stand side by side at 1:1; the divider is dragged, and Space flips", "[window]") {
    const Folder folder;
    run_into(folder, 3, 0, 2);
    Window w;
    REQUIRE(w.open(folder));
    app::Canvas& canvas = w.window.canvas();
    w.key(Qt::Key_2);
    w.key(Qt::Key_H);
    w.key(Qt::Key_Right);
    CHECK(w.studio().current() == w.pile().frames[1].id);
    REQUIRE(w.settle());
    REQUIRE(wait_for([&] { return !w.window.comparison().viewer().busy() && w.window.comparison().viewer().seen(); }));
    CHECK(w.window.comparison().name() == "frame 1");
    const auto brightness = [&](double x) {
        const QImage shot = canvas.grab().toImage();
        double sum = 0;
        for (int y = canvas.height() / 2 - 40; y < canvas.height() / 2 + 40; ++y)
            sum += shot.pixelColor(int(x), y).lightness();
        return sum;
    };
    const double left = canvas.width() / 2.0 - 60;
    const double bright = brightness(left);
    const QPoint bar(canvas.width() / 2, canvas.height() / 2);
    QTest::mousePress(&canvas, Qt::LeftButton, {}, bar);
    const QPointF to(canvas.width() * 0.3, bar.y());
    QMouseEvent move(QEvent::MouseMove, to, canvas.mapToGlobal(to), Qt::NoButton, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(&canvas, &move);
    QTest::mouseRelease(&canvas, Qt::LeftButton, {}, to.toPoint());
    CHECK(canvas.divider() == Approx(0.3).margin(0.01));
    CHECK(brightness(left) < 0.95 * bright);
    w.key(Qt::Key_BracketRight);
    CHECK(canvas.divider() == Approx(0.35).margin(0.01));
    // Flipped, the second picture fills the canvas.
    canvas.set_divider(0.9);
    CHECK(brightness(left) == Approx(bright).epsilon(0.02));
    QTest::keyPress(&canvas, Qt::Key_Space);
    CHECK(brightness(left) < 0.95 * bright);
    QTest::keyRelease(&canvas, Qt::Key_Space);
    CHECK(brightness(left) == Approx(bright).epsilon(0.02));
    w.key(Qt::Key_D);
    CHECK_FALSE(w.window.comparison().on());
}

TEST_CASE("the difference is taken against the reference or the frame before, with a gain", "[window]") {
    const Folder folder;
    run_into(folder, 4, 0, 2);
    Window w;
    REQUIRE(w.open(folder));
    w.studio().select(w.pile().frames[2].id);
    w.key(Qt::Key_3);
    REQUIRE(w.settle());
    const auto middle = [&] { return w.window.viewer().colour_at(160, 120)->lightness(); };
    const int quiet = middle();
    w.pick("against", 1);
    REQUIRE(w.settle());
    const int loud = middle();
    CHECK(loud > quiet + 20);
    w.pick("gain", 1);
    REQUIRE(w.settle());
    CHECK(middle() < loud);
}

TEST_CASE("the wheel flips frames with Shift, and the view stays put", "[window]") {
    const Folder folder;
    run_into(folder, 3);
    Window w;
    REQUIRE(w.open(folder));
    app::Canvas& canvas = w.window.canvas();
    w.key(Qt::Key_2);
    canvas.zoom_to(2, QPointF(100, 100));
    const QPointF before = canvas.to_screen({50, 50});
    const QPointF at(canvas.width() / 2.0, canvas.height() / 2.0);
    QWheelEvent wheel(at, canvas.mapToGlobal(at), {}, {0, -120}, Qt::NoButton, Qt::ShiftModifier, Qt::NoScrollPhase,
                      false);
    QApplication::sendEvent(&canvas, &wheel);
    CHECK(w.studio().current() == w.pile().frames[1].id);
    CHECK(canvas.to_screen({50, 50}) == before);
    CHECK(canvas.zoom() == 2);
}

TEST_CASE("traces are chosen, and the rail grows and shrinks with them", "[window]") {
    const Folder folder;
    run_into(folder, 5);
    Window w;
    REQUIRE(w.open(folder));
    auto* rail = w.find<app::TimeRail>("time_rail");
    const int before = rail->height();
    const bool shown = rail->shown_traces().contains("noise");
    rail->show_trace("noise", !shown);
    CHECK(rail->height() != before);
    rail->show_trace("noise", shown);
    CHECK(rail->height() == before);
    REQUIRE(known(w));
    CHECK(w.window.surveyor().of(w.pile().reference) != nullptr);
}

TEST_CASE("traces tell how a frame was aligned and levelled, and nothing of what was not", "[window]") {
    const Folder folder;
    const Matrix larger{{1.01, 0, -1.6, 0, 1.01, -1.2, 0, 0, 1}};
    for (unsigned i = 0; i < 3; ++i)
        write(folder / ("f" + std::to_string(i + 1) + ".tif"),
              lit(landscape({320, 240}, i == 2 ? larger : Matrix{}, i, 0.005), i == 1 ? 0.4 : 0.5));
    write(folder / "f4.tif", landscape({320, 240}, Matrix::shift(4000, 3000), 9));
    Window w;
    REQUIRE(w.open(folder));
    const auto value = [&](const char* key, std::size_t frame) {
        const app::Trace* trace = app::trace_named(QLatin1String(key));
        REQUIRE(trace);
        return trace->value(w.pile().frames[frame], {});
    };
    const auto words = [&](const char* key, std::size_t frame) {
        return app::trace_named(QLatin1String(key))->words(*value(key, frame));
    };
    for (const char* key : {"scale", "left_over", "sure", "level"}) {
        INFO(key);
        CHECK_FALSE(value(key, 1));
    }
    w.studio().document().edit(with_reference(w.pile(), w.pile().frames[0].id), "reference");
    w.click("knot_2");
    w.click("align_similarity");
    REQUIRE(w.settle());
    w.click("knot_1");
    w.click("level_light");
    REQUIRE(w.settle());
    CHECK(*value("scale", 0) == Approx(0).margin(1e-9));
    CHECK(*value("scale", 2) == Approx(0.01).margin(0.0005));
    CHECK(words("scale", 2).chopped(1).toDouble() == Approx(1).margin(0.05));
    CHECK(words("scale", 2).endsWith(QLatin1Char('%')));
    CHECK(words("scale", 0) == QLatin1String("0.00%"));
    CHECK(*value("left_over", 2) < 0.3);
    CHECK(*value("sure", 2) > 0.8);
    // Lost: how sure is known, how it lies is not.
    CHECK_FALSE(value("scale", 3));
    CHECK_FALSE(value("left_over", 3));
    CHECK(*value("sure", 3) < 0.5);
    CHECK(*value("level", 1) == Approx(std::log2(1.25)).margin(0.01));
    CHECK(words("level", 1) == QLatin1String("0.32 EV"));
    // Each can be drawn over the rail, in steps that do not bring it anyway.
    w.click("knot_3");
    auto* rail = w.find<app::TimeRail>("time_rail");
    for (const char* key : {"scale", "level"}) {
        INFO(key);
        const bool shown = rail->shown_traces().contains(QLatin1String(key));
        rail->show_trace(QLatin1String(key), true);
        REQUIRE(rail->shown_traces().contains(QLatin1String(key)));
        const QImage with = rail->grab().toImage();
        rail->show_trace(QLatin1String(key), false);
        CHECK(rail->grab().toImage() != with);
        rail->show_trace(QLatin1String(key), shown);
    }
}

TEST_CASE("frames that come into a watched folder join the pile, and no undo takes them away", "[window]") {
    const Folder folder;
    run_into(folder, 3);
    Window w;
    REQUIRE(w.open(folder));
    const int out[] = {w.pile().frames[0].id};
    w.studio().document().edit(with_aside(w.pile(), out, true), "aside");
    w.window.arriving().watch(QString::fromStdString(folder.path().string()), Outcome::trails);
    const Folder apart;
    run_into(apart, 7);
    fs::copy_file(apart / "f104.png", folder / "f104.png");
    fs::copy_file(apart / "f102.png", folder / "twin.png");
    REQUIRE(wait_for([&] { return w.pile().frames.size() == 5; }));
    CHECK(w.window.arriving().arrived() == 2);
    // The twin is noticed.
    const auto twin = std::find_if(w.pile().frames.begin(), w.pile().frames.end(),
                                   [](const Frame& f) { return f.file->path.filename() == "twin.png"; });
    CHECK(twin->aside);
    CHECK(twin->note == "a copy of f102.png");
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(w.pile().frames.size() == 5);
    CHECK_FALSE(w.pile().frames[0].aside);
    w.click("stop_coming");
    CHECK_FALSE(w.window.arriving().watching());
    fs::copy_file(apart / "f105.png", folder / "f105.png");
    // Watching goes on one after the other: what comes elsewhere now comes after all that the first could bring.
    const Folder elsewhere;
    w.window.arriving().watch(QString::fromStdString(elsewhere.path().string()), Outcome::trails);
    fs::copy_file(apart / "f106.png", elsewhere / "f106.png");
    REQUIRE(wait_for([&] { return w.pile().frames.size() > 5; }));
    CHECK(w.pile().frames.size() == 6);
    CHECK(std::none_of(w.pile().frames.begin(), w.pile().frames.end(),
                       [](const Frame& f) { return f.file->path.filename() == "f105.png"; }));
    REQUIRE(w.settle());
}

TEST_CASE("a pile that began with frames that came is aligned when no more come, where opening would align",
          "[window]") {
    for (const auto& [outcome, model] : {std::pair(Outcome::quiet, Model::rigid), {Outcome::clear, Model::none}}) {
        const Folder folder;
        write_moving(folder, 4, {320, 240}, {2, -1});
        Window w;
        w.window.arriving().watch(QString::fromStdString(folder.path().string()), outcome);
        REQUIRE(wait_for([&] { return w.pile().frames.size() == 4; }));
        CHECK(w.pile().methods.sky.model == Model::none);
        w.click("stop_coming");
        REQUIRE(w.settle());
        CHECK(w.pile().methods.sky.model == model);
        if (model == Model::none) continue;
        CHECK(w.pile().frames[3].places.sky->aligned);
        w.key(Qt::Key_Z, Qt::ControlModifier);
        CHECK(w.pile().methods.sky.model == Model::none);
    }
}

TEST_CASE("the practice camera begins a pile that grows, and can be stopped", "[window]") {
    const Folder home;
    const QByteArray before = qgetenv("BRIGHT_PILE_DEMO");
    qputenv("BRIGHT_PILE_DEMO", QByteArray::fromStdString(home.path().string()));
    {
        Window w;
        app::CameraSettings settings;
        settings.scene = "harbour-cats";
        settings.exposure_s = 0.01;
        settings.pause_s = 1;
        settings.frames = 40;
        settings.pace = 1;
        w.window.arriving().photograph(settings);
        REQUIRE(wait_for([&] { return w.pile().frames.size() >= 2; }));
        CHECK(w.studio().document().open());
        CHECK(w.pile().outcome == Outcome::best_of);
        CHECK(*w.pile().frames[1].file->capture.captured - *w.pile().frames[0].file->capture.captured ==
              Approx(1.01).margin(0.002));
        CHECK(w.window.arriving().photographing());
        w.click("stop_coming");
        CHECK_FALSE(w.window.arriving().photographing());
        CHECK(w.pile().frames.size() < 40);
        REQUIRE(w.settle());
    }
    qputenv("BRIGHT_PILE_DEMO", before);
}

TEST_CASE("the practice camera is set in its panel", "[window]") {
    const Folder home;
    const QByteArray before = qgetenv("BRIGHT_PILE_DEMO");
    qputenv("BRIGHT_PILE_DEMO", QByteArray::fromStdString(home.path().string()));
    {
        Window w;
        w.click("start_camera");
        auto* panel = w.find<app::CameraPanel>("camera_panel");
        REQUIRE(panel->isVisible());
        w.pick("camera_scene", QStringLiteral("shelf"));
        // The scene brings its own first values.
        CHECK(panel->settings().exposure_s == Approx(1.0 / 60).margin(0.001));
        CHECK(panel->settings().frames == 16);
        w.enter("camera_frames", 2);
        w.pick("camera_pace", 3);
        w.click("camera_start");
        CHECK_FALSE(panel->isVisible());
        REQUIRE(wait_for([&] { return w.pile().frames.size() == 2; }, 60000));
        REQUIRE(wait_for([&] { return !w.window.arriving().photographing(); }));
        CHECK(w.pile().outcome == Outcome::quiet);
        // Opening something else ends the watching, and nothing is aligned in its place.
        const Folder other;
        run_into(other, 3);
        const Answering thrown(answer(1, QStringLiteral("not saved")));
        w.click("home");
        CHECK(thrown.came());
        REQUIRE(w.open(other));
        CHECK_FALSE(w.window.arriving().watching());
        CHECK(w.pile().methods.sky.model == Model::none);
        CHECK(w.pile().frames.size() == 3);
    }
    qputenv("BRIGHT_PILE_DEMO", before);
}

TEST_CASE("frames of a clip are chosen by range and rate", "[window]") {
    const Folder cache;
    const QByteArray before = qgetenv("XDG_CACHE_HOME");
    qputenv("XDG_CACHE_HOME", QByteArray::fromStdString(cache.path().string()));
    const Folder folder;
    film(folder / "run.avi", 20);
    {
        Window w;
        int counted = 0;
        const Answering taking([&](QWidget& widget) {
            auto* dialog = qobject_cast<app::ClipDialog*>(&widget);
            if (!dialog) return false;
            w.enter("clip_from", 0.5);
            w.enter("clip_to", 1.5);
            w.enter("clip_rate", 5);
            counted = int(dialog->names().size());
            w.click("clip_take");
            return true;
        });
        w.drop({folder / "run.avi"});
        CHECK(taking.came());
        CHECK(counted == 6);
        REQUIRE(wait_for([&] { return w.studio().document().open(); }));
        REQUIRE(w.settle());
        std::vector<long> numbers;
        for (const Frame& frame : w.pile().frames) numbers.push_back(clip_frame_of(frame.file->path)->number);
        CHECK(numbers == std::vector<long>{5, 7, 9, 11, 13, 15});
        // What is no clip is told.
        std::ofstream(folder / "no.mp4") << "no clip";
        w.drop({folder / "no.mp4"});
        CHECK(w.told().contains(QStringLiteral("no.mp4 is not a clip")));
        CHECK(w.pile().frames.size() == 6);
    }
    qputenv("XDG_CACHE_HOME", before);
}

TEST_CASE("capture data shows the chosen frame and what differs across the run", "[window]") {
    const Folder folder;
    CaptureData capture;
    for (int i = 0; i < 3; ++i) {
        capture.captured = 1789251245.0 + 30 * i;
        capture.exposure_s = i == 2 ? 50 : 25;
        capture.iso = 1600;
        write(folder / ("f" + std::to_string(i) + ".png"), speckle_8({64, 48}, 3, unsigned(i)), 8, {}, capture);
    }
    Window w;
    REQUIRE(w.open(folder));
    w.key(Qt::Key_I);
    auto* panel = w.find<QWidget>("capture_panel");
    REQUIRE(panel->isVisible());
    const auto texts = [&] {
        QStringList out;
        for (const QLabel* label : panel->findChildren<QLabel*>()) out << label->text();
        return out;
    };
    CHECK(texts().contains("25 s"));
    CHECK(texts().contains("25 s to 50 s"));
    CHECK(texts().contains("1600"));
    CHECK(texts().filter("1600 to").isEmpty());
    // A line that is just being clicked does not go before the click is over.
    const auto lines = panel->findChildren<QLabel*>();
    const QPointer<QLabel> clicked =
        *std::find_if(lines.begin(), lines.end(), [](const QLabel* l) { return l->text() == QStringLiteral("25 s"); });
    w.studio().select(w.pile().frames[2].id);
    CHECK(clicked);
    CHECK(texts().contains("50 s"));
    QCoreApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
    CHECK_FALSE(clicked);
    w.key(Qt::Key_I);
    CHECK_FALSE(panel->isVisible());
}
