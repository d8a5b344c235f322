#include "app/recovery.h"

#include <signal.h>

#include <QCoreApplication>
#include <QDir>
#include <QFileInfo>
#include <QStandardPaths>
#include <cerrno>
#include <utility>

#include "pile/file.h"

namespace bp::app {
namespace {

constexpr int pause_ms = 1500;

bool runs(qint64 process) {
    return ::kill(pid_t(process), 0) == 0 || errno == EPERM;
}

}  // namespace

Recovery::Recovery(Studio& studio, QObject* parent)
    : QObject(parent),
      studio_(studio),
      lane_(this),
      file_(QDir(folder()).filePath(QStringLiteral("unsaved-%1.pile").arg(QCoreApplication::applicationPid()))) {
    later_.setSingleShot(true);
    later_.setInterval(pause_ms);
    connect(&later_, &QTimer::timeout, this, &Recovery::write);
    connect(&studio.document(), &Document::changed, this, [this] {
        if (studio_.document().open() && studio_.document().edited())
            later_.start();
        else
            forget();
    });
}

Recovery::~Recovery() {
    forget();
}

void Recovery::take_up(const QString& file) {
    taken_up_ = file;
    studio_.open_left_over(file);
}

QString Recovery::folder() {
    return QStandardPaths::writableLocation(QStandardPaths::GenericDataLocation) +
           QStringLiteral("/bright-pile/unsaved");
}

QString Recovery::left_over() {
    const QFileInfoList files =
        QDir(folder()).entryInfoList({QStringLiteral("unsaved-*.pile")}, QDir::Files, QDir::Time);
    for (const QFileInfo& file : files) {
        const qint64 process = file.completeBaseName().section(QLatin1Char('-'), 1).toLongLong();
        if (process > 0 && !runs(process)) return file.filePath();
    }
    return {};
}

void Recovery::forget() {
    later_.stop();
    lane_.stop();
    QFile::remove(file_);
}

void Recovery::write() {
    if (!QDir().mkpath(folder())) return;
    const Pile pile = studio_.pile();
    const QString file = file_;
    // A failure here is not told: the work itself is not in danger, and saving will tell.
    lane_.run<Status>([pile, file](Job&) { return save_pile(pile, file.toStdString()); },
                      [this](const Status& kept) {
                          // What was taken up from a crash is kept under this process now.
                          if (kept.ok() && !taken_up_.isEmpty()) QFile::remove(std::exchange(taken_up_, {}));
                      });
}

}  // namespace bp::app
