#include "app/work/demo.h"

#include <QDir>
#include <QFileInfo>
#include <QStandardPaths>

namespace bp::app {

QString demo_root() {
    QString given = qEnvironmentVariable("BRIGHT_PILE_DEMO");
    if (!given.isEmpty()) return given;
    return QStandardPaths::writableLocation(QStandardPaths::GenericDataLocation) +
           QStringLiteral("/bright-pile/skerrow");
}

// The truth is written last, so a run that was broken off is made anew.
bool demo_ready(const QString& scene) {
    return QFileInfo::exists(QDir(demo_root()).filePath(scene + QStringLiteral("/truth/truth.json")));
}

}  // namespace bp::app
