#include "app/window/preferences.h"

#include <QApplication>
#include <QDir>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QSettings>
#include <QSignalBlocker>

#include "app/looks/controls.h"
#include "app/looks/display.h"
#include "app/looks/theme.h"
#include "app/looks/words.h"
#include "app/panels/allowance_panel.h"
#include "app/panels/questions.h"

namespace bp::app {
namespace {

constexpr auto size_key = "size_percent";
constexpr auto scale_name = "QT_SCALE_FACTOR";
constexpr int wide = 460;

// What the surroundings said of the scale before hold_size(); none when it added nothing.
struct Told {
    bool kept = false, set = false;
    QString scale;
};
Told& told() {
    static Told of_start;
    return of_start;
}

}  // namespace

int Preferences::size_percent() {
    constexpr int least = 100, most = 200;
    return std::clamp(QSettings().value(QLatin1String(size_key), least).toInt(), least, most);
}

void Preferences::hold_size() {
    constexpr int as_it_is = 100;
    if (size_percent() == as_it_is) return;
    told() = {true, qEnvironmentVariableIsSet(scale_name), qEnvironmentVariable(scale_name)};
    const double scale = told().scale.toDouble();
    qputenv(scale_name, QByteArray::number((scale > 0 ? scale : 1) * size_percent() / as_it_is));
}

QProcessEnvironment Preferences::surroundings() {
    QProcessEnvironment out = QProcessEnvironment::systemEnvironment();
    if (!told().kept) return out;
    if (told().set)
        out.insert(QLatin1String(scale_name), told().scale);
    else
        out.remove(QLatin1String(scale_name));
    return out;
}

Preferences::Preferences(Studio& studio, QWidget* parent) : QDialog(parent), studio_(studio) {
    setObjectName(QStringLiteral("preferences"));
    setWindowTitle(tr("Preferences"));
    setFixedWidth(wide);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(space::large, space::large, space::large, space::large);
    column->setSpacing(space::medium);
    build_looks(*column);
    build_display(*column);
    column->addWidget(heading(tr("Room"), this));
    column->addWidget(new AllowancePanel(studio_, this));
    build_folders(*column);
    auto* row = new QHBoxLayout;
    row->addStretch();
    auto* done = lamp_push(tr("Done"), QStringLiteral("preferences_done"), tr("Everything holds already"), this);
    row->addWidget(done);
    column->addLayout(row);
    connect(done, &QPushButton::clicked, this, &QDialog::accept);
    done->setDefault(true);
}

void Preferences::build_looks(QVBoxLayout& column) {
    column.addWidget(heading(tr("Looks"), this));
    auto* form = new QFormLayout;
    auto* themes = choice(QStringLiteral("preferences_theme"), tr("Theme"), tr("A dark or a light window"), this);
    themes->addItem(tr("Dusk: dark"), int(ThemeName::dusk));
    themes->addItem(tr("Noon: light"), int(ThemeName::noon));
    themes->setCurrentIndex(themes->findData(int(theme_name())));
    form->addRow(tr("Theme"), themes);
    auto* sizes = choice(QStringLiteral("preferences_size"), tr("Size of type"),
                         tr("How large words and controls are. The picture keeps its pixels."), this);
    for (const int percent : {100, 110, 125, 150, 175, 200}) sizes->addItem(tr("%1%").arg(percent), percent);
    sizes->setCurrentIndex(std::max(0, sizes->findData(size_percent())));
    form->addRow(tr("Size of type"), sizes);
    column.addLayout(form);
    auto* later = new QWidget(this);
    later->setObjectName(QStringLiteral("preferences_size_later"));
    auto* row = new QHBoxLayout(later);
    row->setContentsMargins(0, 0, 0, 0);
    row->addWidget(quiet_label(tr("The size holds from the next start of the program on."), later), 1);
    auto* again =
        push(tr("Start again now"), QStringLiteral("preferences_start_again"),
             tr("Ends the program and starts it anew with what is open; unsaved edits are asked about first"), later);
    row->addWidget(again);
    connect(again, &QPushButton::clicked, this, [this] {
        accept();
        emit start_again_wanted();
    });
    later->hide();
    column.addWidget(later);
    connect(themes, &QComboBox::activated, this, [themes](int) {
        apply_theme(*qApp, ThemeName(themes->currentData().toInt()));
        QSettings().setValue(QStringLiteral("theme"), themes->currentData());
    });
    connect(sizes, &QComboBox::activated, this, [sizes, later, now = size_percent()](int) {
        QSettings().setValue(QLatin1String(size_key), sizes->currentData());
        later->setVisible(sizes->currentData().toInt() != now);
    });
}

void Preferences::build_display(QVBoxLayout& column) {
    column.addWidget(heading(tr("Display"), this));
    display_ =
        choice(QStringLiteral("preferences_display"), tr("Profile of the display"),
               tr("What the screen's colours are: pictures are brought to them. Exports stay as they are."), this);
    display_->addItem(tr("As the system tells of this screen"), int(DisplayFrom::screen));
    display_->addItem(tr("As sRGB"), int(DisplayFrom::srgb));
    display_->addItem(tr("A profile from a file…"), int(DisplayFrom::file));
    column.addWidget(display_);
    display_is_ = quiet_label({}, this);
    display_is_->setObjectName(QStringLiteral("preferences_display_is"));
    column.addWidget(display_is_);
    connect(display_, &QComboBox::activated, this, &Preferences::choose_display);
    show_display();
}

void Preferences::choose_display(int index) {
    const auto from = DisplayFrom(display_->itemData(index).toInt());
    QString file;
    if (from == DisplayFrom::file) {
        const QStringList names =
            ask_for_files(this, Places::profiles, tr("Profile of the display"), tr("Profiles (*.icc *.icm)"));
        if (names.isEmpty()) return show_display();
        file = names.first();
    }
    const Profile before = display_profile();
    const Status used = use_display(from, file, screen());
    if (!used.ok()) studio_.say(said(used.failure()), true);
    show_display();
    if (!used.ok()) display_is_->setText(said(used.failure()));
    if (!(display_profile() == before)) emit display_changed();
}

void Preferences::show_display() {
    const QSignalBlocker quiet(display_);
    display_->setCurrentIndex(display_->findData(int(display_from())));
    const Profile profile = display_profile();
    const bool untold = display_from() == DisplayFrom::screen && profile.is_srgb();
    display_is_->setText(untold ? tr("The system tells no profile of this screen: sRGB")
                                : QString::fromStdString(profile.name()));
}

void Preferences::build_folders(QVBoxLayout& column) {
    column.addWidget(heading(tr("Where dialogs begin"), this));
    auto* form = new QFormLayout;
    struct Kind {
        Places places;
        const char* object;
        QString words;
    };
    for (const Kind& kind : {Kind{Places::frames, "frames", tr("Frames")}, Kind{Places::piles, "piles", tr("Piles")},
                             Kind{Places::pictures, "pictures", tr("Pictures")}}) {
        auto* button = push({}, QStringLiteral("preferences_folder_%1").arg(QLatin1String(kind.object)),
                            tr("The folder that was used last. Choose another"), this);
        button->setAccessibleName(tr("Folder for %1").arg(kind.words));
        const auto show = [button, places = kind.places] {
            const QString folder = place_of(places);
            button->setText(button->fontMetrics().elidedText(folder, Qt::ElideMiddle, wide / 2));
        };
        show();
        form->addRow(kind.words, button);
        connect(button, &QPushButton::clicked, this, [this, kind, show] {
            if (!ask_for_folder(this, kind.places, tr("Where dialogs begin")).isEmpty()) show();
        });
    }
    column.addLayout(form);
}

}  // namespace bp::app
