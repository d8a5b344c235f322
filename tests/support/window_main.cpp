#define CATCH_CONFIG_RUNNER
#include <QApplication>
#include <QElapsedTimer>
#include <QPointer>
#include <QTemporaryDir>
#include <QTimer>
#include <QWidget>
#include <catch2/catch.hpp>

#include "app/looks/controls.h"
#include "app/looks/theme.h"
#include "app/looks/words.h"
#include "app/window/accessible.h"

int main(int argc, char** argv) {
    // Settings, caches and left-overs of its own, from nothing, and gone with it; those of another run when a test
    // begins this one to kill it.
    const QTemporaryDir own;
    const QByteArray home = qEnvironmentVariable("BRIGHT_PILE_TEST_HOME", own.path()).toLocal8Bit();
    for (const char* name : {"HOME", "XDG_CONFIG_HOME", "XDG_CACHE_HOME", "XDG_DATA_HOME", "XDG_STATE_HOME"})
        qputenv(name, home);
    QApplication application(argc, argv);
    QApplication::setApplicationName(QStringLiteral("bright-pile-tests"));
    bp::app::speak(application, QLocale::c());
    bp::app::load_fonts();
    bp::app::apply_theme(application, bp::app::ThemeName::dusk);
    bp::app::guard_wheel(application);
    bp::app::install_accessibility();
    // A question that a test did not reckon with would wait for ever.
    QElapsedTimer stands;
    QPointer<QWidget> standing;
    QTimer guard;
    QObject::connect(&guard, &QTimer::timeout, [&] {
        constexpr qint64 longest_ms = 15000;
        QWidget* dialog = QApplication::activeModalWidget();
        if (dialog != standing) stands.start();
        standing = dialog;
        if (!dialog || stands.elapsed() < longest_ms) return;
        qWarning("A dialog was not answered: %s", qPrintable(dialog->windowTitle()));
        dialog->close();
    });
    guard.start(500);
    return Catch::Session().run(argc, argv);
}
