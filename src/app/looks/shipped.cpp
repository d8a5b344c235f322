#include "app/looks/shipped.h"

#include <QCoreApplication>
#include <QDir>

namespace bp::app {

QString shipped_folder(const QString& installed, const QString& built, const QString& inside) {
    constexpr int furthest = 5;
    QDir at(QCoreApplication::applicationDirPath());
    for (int up = 0; up < furthest; ++up) {
        for (const QString& folder : {QStringLiteral("share/bright-pile/") + installed, built})
            if (at.exists(folder + QLatin1Char('/') + inside)) return at.absoluteFilePath(folder);
        if (!at.cdUp()) break;
    }
    return {};
}

}  // namespace bp::app
