#include "app/work/recovery.h"

#include <fcntl.h>
#include <sys/file.h>
#include <sys/stat.h>
#include <unistd.h>

#include <QBuffer>
#include <QDir>
#include <QFileInfo>
#include <QJsonDocument>
#include <QJsonObject>
#include <QStandardPaths>
#include <QUuid>
#include <algorithm>
#include <utility>

#include "app/looks/words.h"
#include "base/files.h"
#include "pile/file.h"

namespace bp::app {
namespace {

constexpr int keep_pause_ms = 1500;

// Beside the pile: who is at work on it, and what a person knows it by.
QString lock_of(const QString& file) {
    return file + QStringLiteral(".lock");
}
QString facts_of(const QString& file) {
    return file + QStringLiteral(".json");
}

// Held until it is closed, or the program ends; -1 when another holds it, or it cannot be had.
int lock_on(const QString& file) {
    const QByteArray name = QFile::encodeName(lock_of(file));
    for (;;) {
        const int fd = ::open(name.constData(), O_CREAT | O_RDWR | O_CLOEXEC, 0600);
        if (fd < 0) return -1;
        if (::flock(fd, LOCK_EX | LOCK_NB) != 0) {
            ::close(fd);
            return -1;
        }
        // Whoever held it may have removed it meanwhile: what is locked then is no longer what others see.
        struct stat mine {
        }, there{};
        if (::fstat(fd, &mine) == 0 && ::stat(name.constData(), &there) == 0 && mine.st_ino == there.st_ino) return fd;
        ::close(fd);
    }
}

void remove_all_of(const QString& file) {
    for (const QString& name : {file, facts_of(file), lock_of(file)}) QFile::remove(name);
}

QByteArray facts_in_json(const QString& name, const QString& path, const QImage& picture) {
    QByteArray png;
    QBuffer buffer(&png);
    buffer.open(QIODevice::WriteOnly);
    constexpr int side = 240;
    if (!picture.isNull())
        picture.scaled(side, side, Qt::KeepAspectRatio, Qt::SmoothTransformation).save(&buffer, "PNG");
    return QJsonDocument(QJsonObject{{QStringLiteral("name"), name},
                                     {QStringLiteral("path"), path},
                                     {QStringLiteral("picture"), QString::fromLatin1(png.toBase64())}})
        .toJson();
}

Status write_facts(const QString& file, const QByteArray& facts) {
    return write_bytes(facts_of(file).toStdString(), {facts.constData(), std::size_t(facts.size())}, Sync::no);
}

}  // namespace

Recovery::Recovery(Studio& studio, std::function<QImage()> picture, QObject* parent)
    : QObject(parent),
      studio_(studio),
      picture_(std::move(picture)),
      lane_(std::make_unique<Lane>(nullptr, Lane::Turns::queue)) {
    begin_anew();
    sweep();
    later_.setSingleShot(true);
    later_.setInterval(keep_pause_ms);
    connect(&later_, &QTimer::timeout, this, &Recovery::write);
    connect(&studio.document(), &Document::changed, this, [this] {
        if (!studio_.document().open() || !studio_.document().edited())
            forget();
        else if (!later_.isActive())
            // Not put off by further edits: who works on without a rest is kept, too.
            later_.start();
    });
}

Recovery::~Recovery() {
    later_.stop();
    lane_.reset();  // what is being written has come to its end then
    remove_all_of(file_);
    if (lock_ >= 0) ::close(lock_);
}

void Recovery::begin_anew() {
    file_ = QDir(folder()).filePath(
        QStringLiteral("unsaved-%1.pile").arg(QUuid::createUuid().toString(QUuid::WithoutBraces)));
}

QString Recovery::folder() {
    return QStandardPaths::writableLocation(QStandardPaths::GenericDataLocation) +
           QStringLiteral("/bright-pile/unsaved");
}

// A run that was killed while it cleared up leaves what stands beside a pile, without the pile.
void Recovery::sweep() {
    for (const QString& ending : {lock_of({}), facts_of({})})
        for (const QFileInfo& beside :
             QDir(folder()).entryInfoList({QStringLiteral("unsaved-*.pile") + ending}, QDir::Files)) {
            const QString file = beside.filePath().chopped(ending.size());
            const int lock = QFile::exists(file) ? -1 : lock_on(file);
            if (lock < 0) continue;
            // It may have come between the two looks.
            if (!QFile::exists(file)) remove_all_of(file);
            ::close(lock);
        }
    clear_unseen(folder().toStdString());
}

std::vector<LeftOver> Recovery::left_over() {
    std::vector<LeftOver> out;
    const QFileInfoList files =
        QDir(folder()).entryInfoList({QStringLiteral("unsaved-*.pile")}, QDir::Files, QDir::Time);
    for (const QFileInfo& file : files) {
        const int lock = lock_on(file.filePath());
        if (lock < 0) continue;  // a run that goes on
        ::close(lock);
        LeftOver left{file.filePath(), {}, {}, file.lastModified(), {}};
        QFile facts(facts_of(file.filePath()));
        if (facts.open(QIODevice::ReadOnly)) {
            const QJsonObject in = QJsonDocument::fromJson(facts.readAll()).object();
            left.name = in.value(QStringLiteral("name")).toString();
            left.path = in.value(QStringLiteral("path")).toString();
            left.picture.loadFromData(QByteArray::fromBase64(in.value(QStringLiteral("picture")).toString().toLatin1()),
                                      "PNG");
        }
        if (left.name.isEmpty()) left.name = tr("unsaved work");
        out.push_back(std::move(left));
    }
    return out;
}

bool Recovery::throw_away(const QString& file) {
    const int lock = lock_on(file);
    if (lock < 0) return false;
    remove_all_of(file);
    ::close(lock);
    return true;
}

void Recovery::take_up(const LeftOver& left) {
    const int lock = lock_on(left.file);
    if (lock < 0 || !QFile::exists(left.file)) {
        if (lock >= 0) ::close(lock);
        studio_.say(tr("%1 has been taken up elsewhere meanwhile.").arg(left.name), true);
        return;
    }
    // Let go when it cannot be opened, or something else is opened instead.
    const std::shared_ptr<int> held(new int(lock), [](const int* fd) {
        if (*fd >= 0) ::close(*fd);
        delete fd;
    });
    studio_.open_left_over(left.file, left.path, left.name, [this, left, held] {
        // It is written over when the work is kept anew, and not before.
        if (lock_ >= 0) {
            remove_all_of(file_);
            ::close(lock_);
        }
        file_ = left.file;
        lock_ = std::exchange(*held, -1);
    });
}

void Recovery::forget() {
    later_.stop();
    // After what is being written now.
    lane_->run<bool>(
        [file = file_](Job&) {
            for (const QString& name : {file, facts_of(file)}) QFile::remove(name);
            return true;
        },
        [](bool) {});
}

void Recovery::write() {
    if (lane_->busy()) {
        later_.start();
        return;
    }
    const auto cannot = [this](const Saying& why) {
        if (!std::exchange(told_, true))
            studio_.say(tr("Unsaved work is not kept for the case of a crash: %1 Save often.").arg(said(why)), true);
    };
    if (!QDir().mkpath(folder())) {
        cannot({"The folder %1 cannot be made.", {folder().toStdString()}});
        return;
    }
    if (lock_ < 0) lock_ = lock_on(file_);
    const Document& document = studio_.document();
    lane_->run<Status>(
        [pile = document.pile(), file = file_,
         facts = facts_in_json(document.name(), document.path(), picture_())](Job& job) -> Status {
            if (job.stopped()) return stopped_failure();
            Status kept = save_pile(pile, file.toStdString());
            return kept.ok() ? write_facts(file, facts) : kept;
        },
        [this, cannot](const Status& kept) {
            if (kept.ok())
                told_ = false;
            else if (kept.failure().fault != Fault::stopped)
                cannot(kept.failure().sentence);
        });
}

}  // namespace bp::app
