#include "app/work/recovery.h"

#include <QDir>
#include <QElapsedTimer>
#include <QFile>
#include <QProcess>
#include <QProcessEnvironment>
#include <QPushButton>
#include <catch2/catch.hpp>
#include <cstdio>
#include <random>

#include "pile/edits.h"
#include "pile/file.h"
#include "support/window.h"

using namespace bp;
using namespace bp::test;

namespace {

void two_frames(const Folder& folder) {
    for (int i = 1; i <= 2; ++i)
        write(folder / ("f" + std::to_string(i) + ".png"), speckle_8({40, 30}, 3, unsigned(i)), 8);
}

bool kept(Window& w) {
    return wait_for([&] { return QFile::exists(w.window.recovery().file()) && !w.window.recovery().busy(); }, 10000);
}

// What is kept of the work is what is open.
bool kept_whole(Window& w) {
    if (!kept(w)) return false;
    const Result<LoadedPile> loaded = load_pile(w.window.recovery().file().toStdString());
    return loaded.ok() && loaded.value().pile == w.pile();
}

// The files of a run that goes on, laid beside as they are found when it has ended without a word.
QString as_after_a_crash(Window& w, const QString& name) {
    const QString left = QDir(app::Recovery::folder()).filePath(QStringLiteral("unsaved-%1.pile").arg(name));
    for (const QString& ending : {QString(), QStringLiteral(".json")}) {
        QFile::remove(left + ending);
        QFile::copy(w.window.recovery().file() + ending, left + ending);
    }
    return left;
}

void sweep() {
    for (const app::LeftOver& left : app::Recovery::left_over()) app::Recovery::throw_away(left.file);
}

// Begun by the test below, in a process of its own that is killed: takes up what was left behind, or else opens frames,
// and edits and keeps without end.
constexpr auto frames_of_child = "BRIGHT_PILE_TEST_FRAMES";

}  // namespace

TEST_CASE("child: work that goes on until it is killed", "[.child]") {
    Window w;
    w.window.recovery().set_pause(0);
    if (w.seen<QPushButton>("left_over_take_0"))
        w.click("left_over_take_0");
    else
        w.drop({fs::path(qEnvironmentVariable(frames_of_child).toStdString())});
    REQUIRE(wait_for([&] { return w.studio().document().open(); }));
    std::puts("at work");
    std::fflush(stdout);
    for (;;) {
        w.key(Qt::Key_A);
        wait_for([&] { return !w.window.recovery().busy(); });
    }
}

TEST_CASE("child: a home in which nothing can be written", "[.child]") {
    const Folder folder;
    two_frames(folder);
    Window w;
    w.window.recovery().set_pause(0);
    REQUIRE(w.open(folder));
    w.key(Qt::Key_A);
    REQUIRE(wait_for([&] { return w.told().contains(QStringLiteral("not kept for the case of a crash")); }));
    // Said once, not at every edit.
    w.click(w.seen<QPushButton>("sentence_read"));
    w.key(Qt::Key_A);
    REQUIRE(wait_for([&] { return !w.window.recovery().busy(); }));
    CHECK_FALSE(w.told().contains(QStringLiteral("not kept for the case of a crash")));
    w.key(Qt::Key_L, Qt::ControlModifier);
    w.key(Qt::Key_A);
    {
        const Answering dialog(choose({folder / "evening.pile"}));
        w.key(Qt::Key_S, Qt::ControlModifier);
        CHECK(dialog.came());
    }
    REQUIRE(w.quiet());
    CHECK(load_pile(folder / "evening.pile").value().pile == w.pile());
}

TEST_CASE("without a place for settings, caches and left-overs the window does its work and says what is missing",
          "[window][forks]") {
    QProcessEnvironment around = QProcessEnvironment::systemEnvironment();
    around.insert(QStringLiteral("BRIGHT_PILE_TEST_HOME"), QStringLiteral("/proc/none"));
    QProcess child;
    child.setProcessEnvironment(around);
    child.setProcessChannelMode(QProcess::MergedChannels);
    child.start(QCoreApplication::applicationFilePath(), {QStringLiteral("child: a home*")});
    REQUIRE(child.waitForFinished(120000));
    INFO(child.readAll().toStdString());
    CHECK(child.exitStatus() == QProcess::NormalExit);
    CHECK(child.exitCode() == 0);
}

TEST_CASE("killed at random moments of keeping and taking up, work is there, whole, and nothing lies beside it",
          "[window][forks]") {
    sweep();
    const Folder folder;
    two_frames(folder);
    QProcessEnvironment around = QProcessEnvironment::systemEnvironment();
    around.insert(QStringLiteral("BRIGHT_PILE_TEST_HOME"), qEnvironmentVariable("HOME"));
    around.insert(QLatin1String(frames_of_child), QString::fromStdString(folder.path().string()));
    const int kills = qEnvironmentVariable("BRIGHT_PILE_KILLS", QStringLiteral("24")).toInt();
    std::mt19937 dice(11);
    const auto begin = [&](QProcess& child) {
        child.setProcessEnvironment(around);
        child.start(QCoreApplication::applicationFilePath(), {QStringLiteral("child: work*")});
        return child.waitForStarted();
    };
    // How long one takes to come to work, on this machine.
    int to_work_ms = 0;
    {
        QProcess child;
        REQUIRE(begin(child));
        QElapsedTimer clock;
        clock.start();
        while (!child.readAllStandardOutput().contains("at work")) REQUIRE(child.waitForReadyRead(60000));
        to_work_ms = int(clock.elapsed());
        child.kill();
        REQUIRE(child.waitForFinished());
        sweep();
    }
    bool was_there = false;
    int kept = 0;
    for (int i = 0; i < kills; ++i) {
        INFO("kill " << i);
        QProcess child;
        REQUIRE(begin(child));
        // From before its window stands to when it has kept its work many times.
        const int moment = to_work_ms / 2 + int(dice() % unsigned(to_work_ms)) + 100;
        REQUIRE_FALSE(child.waitForFinished(moment));
        child.kill();
        REQUIRE(child.waitForFinished());
        {
            const Window next;  // clears up as every start does
        }
        const std::vector<app::LeftOver> left = app::Recovery::left_over();
        REQUIRE(left.size() <= 1);
        // What was kept once is never gone.
        if (was_there) REQUIRE(left.size() == 1);
        was_there = !left.empty();
        kept += was_there ? 1 : 0;
        for (const app::LeftOver& one : left) {
            const Result<LoadedPile> loaded = load_pile(one.file.toStdString());
            REQUIRE(loaded.ok());
            CHECK(loaded.value().pile.frames.size() == 2);
            CHECK(loaded.value().missing.empty());
        }
        for (const QString& name : QDir(app::Recovery::folder()).entryList(QDir::Files | QDir::Hidden))
            CHECK((was_there && name.startsWith(QFileInfo(left.front().file).fileName())));
        // Each way is gone several times: begun anew, and taken up again and again.
        if (i % 8 == 7) {
            sweep();
            was_there = false;
        }
    }
    CHECK(kept > kills / 4);
    sweep();
}

TEST_CASE("edits are kept on disk until they are saved or let go", "[window]") {
    sweep();
    const Folder folder;
    two_frames(folder);
    Window w;
    REQUIRE(w.open(folder));
    CHECK_FALSE(QFile::exists(w.window.recovery().file()));
    w.key(Qt::Key_A);
    CHECK(kept_whole(w));
    // A run that goes on is not taken for one that crashed.
    CHECK(app::Recovery::left_over().empty());
    const Answering dialog(choose({folder / "a.pile"}));
    w.key(Qt::Key_S, Qt::ControlModifier);
    CHECK(dialog.came());
    REQUIRE(w.quiet());
    CHECK(wait_for([&] { return !QFile::exists(w.window.recovery().file()); }, 5000));
}

TEST_CASE("who edits on without a rest is kept, too", "[window]") {
    sweep();
    const Folder folder;
    two_frames(folder);
    Window w;
    REQUIRE(w.open(folder));
    constexpr int pause_ms = 400;
    w.window.recovery().set_pause(pause_ms);
    int edits = 0;
    while (edits < 60 && !QFile::exists(w.window.recovery().file())) {
        w.key(Qt::Key_A);
        ++edits;
        wait_for([] { return false; }, pause_ms / 4);
    }
    INFO(edits);
    CHECK(QFile::exists(w.window.recovery().file()));
    // The last edit is kept as well.
    CHECK(kept_whole(w));
}

TEST_CASE("what crashes left behind is listed with name and picture, taken up or thrown away", "[window]") {
    sweep();
    const Folder folder;
    two_frames(folder);
    Pile first;
    QString saved = QString::fromStdString((folder / "evening.pile").string());
    {
        Window w;
        REQUIRE(w.open(folder));
        w.key(Qt::Key_A);
        REQUIRE(kept(w));
        as_after_a_crash(w, QStringLiteral("never-saved"));
        {
            const Answering dialog(choose({folder / "evening.pile"}));
            w.key(Qt::Key_S, Qt::ControlModifier);
        }
        REQUIRE(w.quiet());
        w.click("knot_3");
        w.click("mode_minimum");
        first = w.pile();
        REQUIRE(kept(w));
        as_after_a_crash(w, QStringLiteral("was-saved"));
    }
    REQUIRE(app::Recovery::left_over().size() == 2);
    {
        Window w;
        REQUIRE(w.find<QPushButton>("left_over_take_0")->isVisible());
        REQUIRE(w.find<QPushButton>("left_over_take_1")->isVisible());
        const std::vector<app::LeftOver> left = app::Recovery::left_over();
        const auto evening = std::find_if(left.begin(), left.end(), [&](const auto& l) { return l.path == saved; });
        REQUIRE(evening != left.end());
        CHECK(evening->name == QStringLiteral("evening.pile"));
        CHECK_FALSE(evening->picture.isNull());
        w.click(("left_over_take_" + std::to_string(evening - left.begin())).c_str());
        REQUIRE(wait_for([&] { return w.studio().document().open(); }));
        REQUIRE(w.settle());
        CHECK(w.pile() == first);
        CHECK(w.studio().document().edited());
        // Its place came back: it is saved there without a question.
        CHECK(w.studio().document().path() == saved);
        // The other is still offered elsewhere; the one in work is not.
        CHECK(app::Recovery::left_over().size() == 1);
        w.key(Qt::Key_S, Qt::ControlModifier);
        REQUIRE(w.quiet());
        CHECK(load_pile(saved.toStdString()).value().pile == first);
    }
    {
        Window w;
        {
            const Answering stays(answer(0, QStringLiteral("Throw away")));
            w.click("left_over_away_0");
            CHECK(stays.came());
        }
        CHECK(app::Recovery::left_over().size() == 1);
        let_pass();
        const Answering goes(answer(1, QStringLiteral("Throw away")));
        w.click("left_over_away_0");
        CHECK(goes.came());
        CHECK(app::Recovery::left_over().empty());
        CHECK(wait_for([&] { return !w.find<QWidget>("left_overs")->isVisible(); }, 2000));
    }
    const Window w;
    CHECK(app::Recovery::left_over().empty());
}

TEST_CASE("a left-over that is damaged is not deleted, and says why it cannot be opened", "[window]") {
    sweep();
    QDir().mkpath(app::Recovery::folder());
    const QString left = QDir(app::Recovery::folder()).filePath(QStringLiteral("unsaved-damaged.pile"));
    {
        QFile file(left);
        REQUIRE(file.open(QIODevice::WriteOnly));
        file.write("half of it");
    }
    Window w;
    w.click("left_over_take_0");
    REQUIRE(wait_for([&] { return w.told().contains(QStringLiteral("not a pile")); }, 5000));
    CHECK(QFile::exists(left));
    CHECK_FALSE(w.studio().document().open());
    REQUIRE(app::Recovery::throw_away(left));
}
