#include "app/work/recents.h"

#include <QCryptographicHash>
#include <QDir>
#include <QFileInfo>
#include <QSettings>
#include <QStandardPaths>
#include <algorithm>

namespace bp::app {
namespace {

constexpr auto recent_key = "recent/piles";
constexpr qsizetype most_recent = 12;
constexpr int recent_side = 320;

QString recent_picture(const QString& path) {
    const QByteArray name = QCryptographicHash::hash(path.toUtf8(), QCryptographicHash::Sha1).toHex();
    return QStandardPaths::writableLocation(QStandardPaths::GenericCacheLocation) +
           QStringLiteral("/bright-pile/recent/%1.png").arg(QLatin1String(name));
}

}  // namespace

std::vector<RecentPile> recent_piles() {
    std::vector<RecentPile> out;
    for (const QString& path : QSettings().value(recent_key).toStringList())
        if (QFileInfo::exists(path)) out.push_back({path, QImage(recent_picture(path))});
    return out;
}

void note_recent(const QString& path, const QImage& picture) {
    const QString whole = QFileInfo(path).absoluteFilePath();
    QStringList paths = QSettings().value(recent_key).toStringList();
    paths.removeAll(whole);
    paths.prepend(whole);
    while (paths.size() > most_recent) QFile::remove(recent_picture(paths.takeLast()));
    QSettings().setValue(recent_key, paths);
    if (picture.isNull()) return;
    const QString file = recent_picture(whole);
    // What a list shows: where it cannot be kept there is none.
    if (QDir().mkpath(QFileInfo(file).path()))
        picture.scaled(recent_side, recent_side, Qt::KeepAspectRatio, Qt::SmoothTransformation).save(file, "PNG");
}

void forget_recent(const QString& path) {
    QStringList paths = QSettings().value(recent_key).toStringList();
    paths.removeAll(path);
    QSettings().setValue(recent_key, paths);
    QFile::remove(recent_picture(path));
}

}  // namespace bp::app
