#include "app/recovery.h"

#include <QDir>
#include <QFile>
#include <QPushButton>
#include <catch2/catch.hpp>

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

QString own_file() {
    return QDir(app::Recovery::folder())
        .filePath(QStringLiteral("unsaved-%1.pile").arg(QCoreApplication::applicationPid()));
}

}  // namespace

TEST_CASE("edits are kept on disk until they are saved or let go", "[window]") {
    const Folder folder;
    two_frames(folder);
    Window w;
    REQUIRE(w.open(folder));
    CHECK_FALSE(QFile::exists(own_file()));
    w.studio().document().edit(with_mode(w.pile(), Mode::median), QStringLiteral("median"));
    REQUIRE(wait_for([] { return QFile::exists(own_file()); }, 10000));
    const Result<LoadedPile> kept = load_pile(own_file().toStdString());
    REQUIRE(kept.ok());
    CHECK(kept.value().pile.merge.mode == Mode::median);
    CHECK(kept.value().missing.empty());
    // A process that runs is not taken for one that crashed.
    CHECK(app::Recovery::left_over() != own_file());
    w.studio().save(QString::fromStdString((folder / "a.pile").string()));
    REQUIRE(w.quiet());
    CHECK_FALSE(QFile::exists(own_file()));
}

TEST_CASE("what a crash left behind is offered at the start and opens as unsaved", "[window]") {
    const Folder folder;
    two_frames(folder);
    Pile pile;
    {
        Window w;
        REQUIRE(w.open(folder));
        pile = with_mode(w.pile(), Mode::minimum);
    }
    QDir().mkpath(app::Recovery::folder());
    // No process has this number: it is above the kernel's own limit.
    const QString left = QDir(app::Recovery::folder()).filePath(QStringLiteral("unsaved-99999999.pile"));
    REQUIRE(save_pile(pile, left.toStdString()).ok());
    {
        Window w;
        auto* button = w.find<QPushButton>("left_over");
        REQUIRE(button->isVisible());
        QTest::mouseClick(button, Qt::LeftButton);
        REQUIRE(wait_for([&] { return w.studio().document().open(); }));
        REQUIRE(w.settle());
        CHECK(w.pile().merge.mode == Mode::minimum);
        CHECK(w.studio().document().edited());
        REQUIRE(wait_for([] { return QFile::exists(own_file()); }, 10000));
        REQUIRE(wait_for([&] { return !QFile::exists(left); }, 10000));
    }
    Window w;
    CHECK_FALSE(w.find<QPushButton>("left_over")->isVisible());
}
