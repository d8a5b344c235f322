#define CATCH_CONFIG_RUNNER
#include <QApplication>
#include <QStandardPaths>
#include <catch2/catch.hpp>

#include "app/theme.h"
#include "app/words.h"

int main(int argc, char** argv) {
    QApplication application(argc, argv);
    QApplication::setApplicationName(QStringLiteral("bright-pile-tests"));
    QStandardPaths::setTestModeEnabled(true);
    bp::app::install_plurals(application);
    bp::app::load_fonts();
    bp::app::apply_theme(application, bp::app::ThemeName::dusk);
    return Catch::Session().run(argc, argv);
}
