#include <QApplication>
#include <QCommandLineParser>
#include <QSettings>
#include <algorithm>
#include <string_view>

#include "app/looks/controls.h"
#include "app/looks/theme.h"
#include "app/looks/words.h"
#include "app/window/accessible.h"
#include "app/window/main_window.h"
#include "app/window/preferences.h"
#include "base/memory.h"

namespace {

// What is only told, and needs no display.
bool only_tells(int argc, char** argv) {
    return std::any_of(argv + 1, argv + argc, [](const char* word) {
        const std::string_view w = word;
        return w == "-h" || w == "--help" || w == "-v" || w == "--version";
    });
}

}  // namespace

int main(int argc, char** argv) {
    bp::keep_freed_memory();
    if (only_tells(argc, argv)) qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication::setApplicationName(QStringLiteral("bright-pile"));
    QApplication::setOrganizationName(QStringLiteral("bright-pile"));
    QApplication::setDesktopFileName(QStringLiteral("bright-pile"));
    QApplication::setApplicationVersion(QStringLiteral(BRIGHT_PILE_VERSION));
    bp::app::Preferences::hold_size();
    QApplication application(argc, argv);
    QCommandLineParser parser;
    parser.setApplicationDescription(
        QApplication::translate("main", "Aligns and merges a run of frames of one scene."));
    parser.addHelpOption();
    parser.addVersionOption();
    const QCommandLineOption demo(QStringLiteral("demo"),
                                  QApplication::translate("main", "Open a scene of Skerrow harbour."),
                                  QStringLiteral("scene"));
    parser.addOption(demo);
    parser.addPositionalArgument(QStringLiteral("files"), QApplication::translate("main", "Frames, folders or a pile"));
    parser.process(application);
    bp::app::speak(application, QLocale());
    bp::app::guard_wheel(application);
    bp::app::install_accessibility();
    bp::app::load_fonts();
    const int saved = QSettings().value(QStringLiteral("theme"), 0).toInt();
    bp::app::apply_theme(application, saved == 1 ? bp::app::ThemeName::noon : bp::app::ThemeName::dusk);
    bp::app::MainWindow window;
    window.show();
    if (parser.isSet(demo))
        window.studio().open_demo(parser.value(demo));
    else if (!parser.positionalArguments().isEmpty())
        window.studio().add(parser.positionalArguments());
    return QApplication::exec();
}
