#include "app/panels/camera_panel.h"

#include <QFormLayout>
#include <QVBoxLayout>

#include "app/looks/controls.h"
#include "app/looks/theme.h"
#include "app/looks/words.h"

namespace bp::app {
namespace {

constexpr int camera_width = 340;

}  // namespace

CameraPanel::CameraPanel(Arriving& arriving, QWidget* parent) : QFrame(parent, Qt::Popup), arriving_(arriving) {
    setObjectName(QStringLiteral("camera_panel"));
    setAccessibleName(tr("Practice camera"));
    setFixedWidth(camera_width);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(space::large, space::medium, space::large, space::large);
    column->setSpacing(space::medium);
    auto* title = new QLabel(tr("Practice camera"), this);
    title->setFont(face(type::step, QFont::DemiBold));
    column->addWidget(title);
    column->addWidget(quiet_label(tr("A simulated camera in Skerrow harbour. Its frames come one by one, and the "
                                     "picture grows with them."),
                                  this));
    auto* form = new QFormLayout;
    scene_ = new QComboBox(this);
    scene_->setObjectName(QStringLiteral("camera_scene"));
    scene_->setAccessibleName(tr("Scene"));
    for (const practice::SceneEntry& entry : practice::scenes())
        scene_->addItem(QString::fromUtf8(entry.name.data(), qsizetype(entry.name.size())));
    exposure_ = new SecondsBox(QStringLiteral("camera_exposure"), tr("Exposure"), 600, this);
    pause_ = new SecondsBox(QStringLiteral("camera_pause"), tr("Pause"), 3600, this);
    frames_ = new QSpinBox(this);
    frames_->setObjectName(QStringLiteral("camera_frames"));
    frames_->setAccessibleName(tr("Number of frames"));
    frames_->setRange(1, 1000);
    pace_ = new QComboBox(this);
    pace_->setObjectName(QStringLiteral("camera_pace"));
    pace_->setAccessibleName(tr("Pace"));
    pace_->addItem(tr("As in life"), 1.0);
    pace_->addItem(tr("10 times faster"), 10.0);
    pace_->addItem(tr("60 times faster"), 60.0);
    pace_->addItem(tr("As fast as it can"), 1e6);
    pace_->setCurrentIndex(2);
    form->addRow(tr("Scene"), scene_);
    form->addRow(tr("Exposure"), exposure_);
    form->addRow(tr("Pause"), pause_);
    form->addRow(tr("Frames"), frames_);
    form->addRow(tr("Pace"), pace_);
    column->addLayout(form);
    time_ = quiet_label({}, this);
    column->addWidget(time_);
    start_ = lamp_push(tr("Start"), QStringLiteral("camera_start"), tr("Begins a new pile with what the camera takes"),
                       this);
    column->addWidget(start_);
    connect(scene_, &QComboBox::currentIndexChanged, this, &CameraPanel::take_scene);
    connect(pace_, &QComboBox::currentIndexChanged, this, &CameraPanel::refresh);
    for (QDoubleSpinBox* box : {exposure_, pause_})
        connect(box, &QDoubleSpinBox::valueChanged, this, &CameraPanel::refresh);
    connect(frames_, &QSpinBox::valueChanged, this, &CameraPanel::refresh);
    connect(start_, &QPushButton::clicked, this, [this] {
        if (arriving_.photographing()) {
            arriving_.stop();
        } else {
            emit start_wanted(settings());
            close();
        }
    });
    connect(&arriving, &Arriving::changed, this, &CameraPanel::refresh);
    take_scene();
}

// The scene's own exposure, pause and number.
void CameraPanel::take_scene() {
    const practice::SceneEntry* entry = practice::scene_named(scene_->currentText().toStdString());
    if (!entry) return;
    const auto shots = entry->make(entry->frames, 1)->shots();
    exposure_->setValue(shots.front().exposure_s);
    pause_->setValue(shots.size() > 1 ? shots[1].begin_s - shots[0].begin_s - shots[0].exposure_s : 1);
    frames_->setValue(entry->frames);
    refresh();
}

CameraSettings CameraPanel::settings() const {
    return {scene_->currentText(), exposure_->value(), pause_->value(), frames_->value(),
            pace_->currentData().toDouble()};
}

void CameraPanel::refresh() {
    const CameraSettings s = settings();
    time_->setText(tr("Takes about %1.").arg(duration_in_words(s.frames * (s.exposure_s + s.pause_s) / s.pace)));
    start_->setText(arriving_.photographing() ? tr("Stop") : tr("Start"));
}

void CameraPanel::open_over(const QWidget& window) {
    adjustSize();
    const QPoint middle = window.mapToGlobal(QPoint((window.width() - width()) / 2, space::bar_height + space::large));
    move(middle);
    show();
    scene_->setFocus();
}

}  // namespace bp::app
