// Drives the real window, and takes pictures of it.
#pragma once

#include <QApplication>
#include <QDialog>
#include <QDir>
#include <QElapsedTimer>
#include <QMouseEvent>
#include <QPainter>
#include <QThread>
#include <algorithm>
#include <cstdio>
#include <functional>
#include <vector>

#include "app/window/main_window.h"

namespace bp::app {

inline bool wait_for(const std::function<bool()>& ready, int ms = 120000) {
    QElapsedTimer clock;
    clock.start();
    while (!ready()) {
        if (clock.elapsed() > ms) return false;
        QCoreApplication::processEvents(QEventLoop::AllEvents, 20);
        QThread::msleep(2);
    }
    return true;
}

inline void rest(int ms) {
    QElapsedTimer clock;
    clock.start();
    while (clock.elapsed() < ms) QCoreApplication::processEvents(QEventLoop::AllEvents, 20);
}

class Photographer {
  public:
    Photographer(MainWindow& window, const QDir& out, QString only, bool german)
        : window_(window), out_(out), only_(std::move(only)), german_(german) {}

    // What the photographer types into the window.
    const char* typed(const char* english, const char* german) const { return german_ ? german : english; }

    bool wants(std::initializer_list<const char*> names) const {
        return only_.isEmpty() ||
               std::any_of(names.begin(), names.end(), [this](const char* n) { return only_ == QLatin1String(n); });
    }

    bool open(const QString& scene) {
        window_.studio().open_demo(scene);
        const bool opened = wait_for([&] {
            return !window_.studio().busy() && window_.studio().document().open() &&
                   window_.studio().thumbnails().complete() && window_.studio().document().name() == scene;
        });
        settle();
        return opened;
    }
    void settle() {
        wait_for([&] { return !window_.studio().busy() && !window_.studio().previews().lane().busy(); });
        rest(250);
        wait_for([&] { return !window_.studio().document().open() || window_.surveyor().complete(); });
        wait_for([&] { return !window_.steps().rendering(); });
        wait_for([&] { return !window_.viewer().busy(); });
        rest(450);
        wait_for([&] { return !window_.viewer().busy(); });
    }
    bool take(const char* plain) {
        if (!wants({plain})) return true;
        const QString name = QLatin1String(plain);
        settle();
        // Sharpness is another one once the frames have been looked at closely.
        wait_for([&] { return !window_.studio().document().open() || window_.surveyor().complete_finely(); });
        // What was said on the way lies over the picture for a while.
        wait_for([&] { return window_.notices().sentences().isEmpty(); });
        settle();
        const QString file = out_.filePath(name + QStringLiteral(".png"));
        QPixmap shot = window_.grab();
        // What has opened over the window.
        const QWidget* panel = QApplication::activePopupWidget();
        const auto* dialog = window_.findChild<QDialog*>();
        if (!panel && dialog && dialog->isVisible()) panel = dialog;
        if (panel) {
            QPainter painter(&shot);
            painter.drawPixmap(window_.mapFromGlobal(panel->pos()), const_cast<QWidget*>(panel)->grab());
        }
        const bool ok = shot.save(file);
        std::printf("%s\n", qPrintable(file));
        return ok;
    }
    void stroke(const std::vector<QPointF>& canvas_points) {
        Canvas& canvas = window_.canvas();
        const auto send = [&](QEvent::Type type, QPointF p, Qt::MouseButtons buttons) {
            const QPointF at = canvas.to_screen(p);
            QMouseEvent event(type, at, canvas.mapToGlobal(at),
                              type == QEvent::MouseMove ? Qt::NoButton : Qt::LeftButton, buttons, Qt::NoModifier);
            QApplication::sendEvent(&canvas, &event);
        };
        send(QEvent::MouseButtonPress, canvas_points.front(), Qt::LeftButton);
        for (const QPointF& p : canvas_points) send(QEvent::MouseMove, p, Qt::LeftButton);
        send(QEvent::MouseButtonRelease, canvas_points.back(), Qt::NoButton);
    }

  private:
    MainWindow& window_;
    QDir out_;
    QString only_;
    bool german_;
};

// The cats that look, each painted from the frame in which it does.
void paint_cats(MainWindow& window, Photographer& p);
// The finished pictures of Skerrow, one of each outcome, as files in a folder.
bool finished_pictures(MainWindow& window, Photographer& p, const QDir& to);

}  // namespace bp::app
