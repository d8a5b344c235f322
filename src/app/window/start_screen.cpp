#include "app/window/start_screen.h"

#include <QAbstractButton>
#include <QCoreApplication>
#include <QDateTime>
#include <QFile>
#include <QFileInfo>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLocale>
#include <QPainter>
#include <QPainterPath>
#include <QScrollArea>
#include <algorithm>

#include "app/looks/controls.h"
#include "app/looks/theme.h"
#include "app/looks/words.h"
#include "app/panels/questions.h"
#include "app/work/commands.h"
#include "app/work/recents.h"
#include "pile/outcomes.h"
#include "practice/scene.h"

namespace bp::app {
namespace {

// A scene's own where it has one, else that of what it is for.
QString scene_picture(const practice::SceneEntry& scene) {
    const QString own =
        QStringLiteral(":/pictures/%1.jpg").arg(QString::fromUtf8(scene.name.data(), qsizetype(scene.name.size())));
    return QFile::exists(own) ? own : picture_of(scene.outcome);
}

// The sentences of the core have those of the scenes among them.
QString summary_of(const practice::SceneEntry& scene) {
    return QCoreApplication::translate("core", std::string(scene.summary).c_str());
}

// A picture with a title and a line below it.
class Card : public QAbstractButton {
  public:
    Card(const QString& title, const QString& line, const QImage& picture, bool large, QWidget* parent)
        : QAbstractButton(parent), line_(line), picture_(picture), large_(large) {
        setText(title);
        setAccessibleName(title);
        setAccessibleDescription(line);
        setFocusPolicy(Qt::StrongFocus);
        setCursor(Qt::PointingHandCursor);
        setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
        setMinimumSize(150, large ? 150 : 78);
    }
    QSize sizeHint() const override { return large_ ? QSize(300, 216) : QSize(190, 120); }

  protected:
    void paintEvent(QPaintEvent*) override {
        QPainter painter(this);
        painter.setRenderHint(QPainter::Antialiasing);
        painter.setRenderHint(QPainter::SmoothPixmapTransform);
        const QRectF place = QRectF(rect()).adjusted(1.5, 1.5, -1.5, -1.5);
        QPainterPath shape;
        shape.addRoundedRect(place, space::rounding, space::rounding);
        painter.setClipPath(shape);
        if (picture_.isNull()) {
            painter.fillRect(place, theme().raised);
        } else {
            const double scale = std::max(place.width() / picture_.width(), place.height() / picture_.height());
            const QSizeF from(place.width() / scale, place.height() / scale);
            painter.drawImage(
                place, picture_,
                QRectF(QPointF((picture_.width() - from.width()) / 2, (picture_.height() - from.height()) / 2), from));
        }
        const double inset = large_ ? 16 : 10;
        const double width = place.width() - 2 * inset;
        // A line that is longer than the card is wide goes on in a second one.
        const QFont line_face = face(large_ ? type::body : type::small);
        const QFontMetrics metrics(line_face);
        const int rise = metrics.horizontalAdvance(line_) > width ? metrics.lineSpacing() : 0;
        QLinearGradient shade(0, place.bottom() - rise - (large_ ? 96 : 88), 0, place.bottom());
        shade.setColorAt(0, QColor(0, 0, 0, 0));
        shade.setColorAt(1, QColor(0, 0, 0, 215));
        painter.fillRect(place, shade);
        painter.setPen(Qt::white);
        painter.setFont(face(large_ ? 18 : type::body, QFont::DemiBold));
        const auto write = [&](const QRectF& where, const QString& words) {
            painter.drawText(as_read(*this, where),
                             int(Qt::TextWordWrap | Qt::AlignVCenter | Qt::AlignAbsolute | beginning(*this)), words);
        };
        write(QRectF(inset, place.bottom() - rise - (large_ ? 58 : 44), width, 26), text());
        painter.setFont(line_face);
        painter.setPen(QColor(255, 255, 255, 205));
        write(QRectF(inset, place.bottom() - rise - (large_ ? 34 : 24), width, 20 + rise), line_);
        painter.setClipping(false);
        if (underMouse() || hasFocus()) {
            painter.setPen(QPen(theme().amber, 2));
            painter.setBrush(Qt::NoBrush);
            painter.drawPath(shape);
        }
    }
    void enterEvent(QEnterEvent*) override { update(); }
    void leaveEvent(QEvent*) override { update(); }

  private:
    QString line_;
    QImage picture_;
    bool large_;
};

}  // namespace

StartScreen::StartScreen(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("start_screen"));
    setFocusPolicy(Qt::ClickFocus);
    // What does not fit into a low window is scrolled to.
    auto* all = new QVBoxLayout(this);
    all->setContentsMargins(0, 0, 0, 0);
    auto* scroll = new QScrollArea(this);
    scroll->setWidgetResizable(true);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->setFocusPolicy(Qt::NoFocus);
    auto* inside = new QWidget(scroll);
    scroll->setWidget(inside);
    all->addWidget(scroll);
    auto* column = new QVBoxLayout(inside);
    column->setContentsMargins(56, 30, 56, 26);
    column->setSpacing(space::medium);
    auto* head = new QHBoxLayout;
    auto* words = new QVBoxLayout;
    auto* title = new QLabel(tr("What shall the pile become?"), this);
    title->setFont(face(type::title, QFont::DemiBold));
    title->setWordWrap(true);
    words->addWidget(title);
    words->addWidget(quiet_label(
        tr("Choose an outcome, then your frames. It only sets first values and can be changed at any time."), this));
    head->addLayout(words, 1);
    // In two rows, which leaves the words beside them their room in any language.
    auto* ways = new QGridLayout;
    ways->setSpacing(space::small);
    head->addLayout(ways);
    auto* preferences =
        push(command("preferences").name(), QStringLiteral("start_preferences"), tip_of("preferences"), this);
    preferences->setProperty("flat", true);
    auto* guide = push(command("guide").name(), QStringLiteral("start_guide"), tip_of("guide"), this);
    guide->setProperty("flat", true);
    auto* open = push(tr("Open a pile or frames…"), QStringLiteral("start_open"),
                      tr("Opens a saved pile, or frames as Trails"), this);
    auto* folder = push(tr("Open a folder…"), QStringLiteral("start_folder"),
                        tr("Opens all pictures in a folder as Trails (Ctrl+Shift+O)"), this);
    auto* like = push(tr("Like a pile…"), QStringLiteral("start_like"), tip_of("open_like"), this);
    ways->addWidget(like, 0, 0);
    ways->addWidget(folder, 0, 1);
    ways->addWidget(open, 0, 2);
    auto* beside = new QHBoxLayout;
    beside->addStretch();
    beside->addWidget(guide);
    beside->addWidget(preferences);
    ways->addLayout(beside, 1, 0, 1, 3);
    column->addLayout(head);
    left_overs_ = new QWidget(this);
    left_overs_->setObjectName(QStringLiteral("left_overs"));
    new QVBoxLayout(left_overs_);
    left_overs_->layout()->setContentsMargins(0, 0, 0, 0);
    column->addWidget(left_overs_);
    recent_ = new QWidget(this);
    recent_->setObjectName(QStringLiteral("recent"));
    auto* recent = new QHBoxLayout(recent_);
    recent->setContentsMargins(0, 0, 0, 0);
    recent->setSpacing(space::small);
    recent_words_ = new QLabel(tr("Go on with"), this);
    recent_words_->setFont(face(type::step, QFont::DemiBold));
    column->addWidget(recent_words_);
    column->addWidget(recent_, 2);
    auto* grid = new QGridLayout;
    grid->setSpacing(space::medium);
    int n = 0;
    for (const OutcomeEntry& entry : outcomes()) {
        auto* card =
            new Card(word(entry.outcome), what_it_does(entry.outcome), QImage(picture_of(entry.outcome)), true, this);
        card->setObjectName(QStringLiteral("outcome_%1").arg(n));
        connect(card, &QAbstractButton::clicked, this,
                [this, outcome = entry.outcome] { emit outcome_chosen(outcome); });
        grid->addWidget(card, n / 3, n % 3);
        ++n;
    }
    column->addLayout(grid, 5);
    auto* demo = new QLabel(tr("Or try it in Skerrow harbour"), this);
    demo->setFont(face(type::step, QFont::DemiBold));
    column->addSpacing(space::hair);
    auto* demo_row = new QHBoxLayout;
    demo_row->addWidget(demo);
    auto* camera = push(tr("Take it with the practice camera…"), QStringLiteral("start_camera"),
                        tr("Frames come one by one, as from a camera, and the picture grows"), this);
    camera->setProperty("flat", true);
    demo_row->addWidget(camera);
    demo_row->addStretch();
    column->addLayout(demo_row);
    connect(camera, &QPushButton::clicked, this, &StartScreen::camera_wanted);
    connect(folder, &QPushButton::clicked, this, &StartScreen::folder_wanted);
    connect(like, &QPushButton::clicked, this, &StartScreen::like_wanted);
    auto* scenes = new QGridLayout;
    scenes->setSpacing(space::small);
    constexpr int across = 5;
    int place = 0;
    for (const practice::SceneEntry& scene : practice::scenes()) {
        const QString name = QString::fromUtf8(scene.name.data(), qsizetype(scene.name.size()));
        auto* card = new Card(tr("%1, %2 frames").arg(name).arg(scene.frames), summary_of(scene),
                              QImage(scene_picture(scene)), false, this);
        card->setObjectName(QStringLiteral("demo_%1").arg(name));
        connect(card, &QAbstractButton::clicked, this, [this, name] { emit demo_chosen(name); });
        scenes->addWidget(card, place / across, place % across);
        ++place;
    }
    column->addLayout(scenes, 2);
    auto* drop = quiet_label(tr("Or drop files and folders anywhere in the window."), this);
    drop->setAlignment(Qt::AlignHCenter);
    column->addWidget(drop);
    connect(open, &QPushButton::clicked, this, &StartScreen::open_wanted);
    connect(preferences, &QPushButton::clicked, this, &StartScreen::preferences_wanted);
    connect(guide, &QPushButton::clicked, this, &StartScreen::guide_wanted);
}

void StartScreen::showEvent(QShowEvent*) {
    list_left_overs();
    list_recent();
}

// A card each for the piles that were open last.
void StartScreen::list_recent() {
    constexpr std::size_t most = 5;
    for (QWidget* card : recent_->findChildren<QWidget*>(QString(), Qt::FindDirectChildrenOnly)) let_go(card);
    auto* row = static_cast<QHBoxLayout*>(recent_->layout());
    const std::vector<RecentPile> piles = recent_piles();
    for (std::size_t i = 0; i < most; ++i) {
        if (i >= piles.size()) {
            // Cards are as wide as a row of them, however few there are.
            if (!piles.empty()) row->addWidget(new QWidget(recent_), 1);
            continue;
        }
        const QFileInfo file(piles[i].path);
        auto* card =
            new Card(file.completeBaseName(), file.lastModified().toString(QLocale().dateFormat(QLocale::ShortFormat)),
                     piles[i].picture, false, recent_);
        card->setObjectName(QStringLiteral("recent_%1").arg(i));
        card->setToolTip(piles[i].path);
        connect(card, &QAbstractButton::clicked, this, [this, path = piles[i].path] { emit recent_wanted(path); });
        row->addWidget(card, 1);
    }
    recent_->setVisible(!piles.empty());
    recent_words_->setVisible(!piles.empty());
}

// What was not saved when the program ended: a line each, with what it looked like, its name and its time.
void StartScreen::list_left_overs() {
    constexpr std::size_t most = 4;
    constexpr QSize picture(66, 44);
    for (QWidget* line : left_overs_->findChildren<QWidget*>(QString(), Qt::FindDirectChildrenOnly)) let_go(line);
    const std::vector<LeftOver> left = Recovery::left_over();
    for (std::size_t i = 0; i < std::min(most, left.size()); ++i) {
        const LeftOver& one = left[i];
        auto* line = new QWidget(left_overs_);
        auto* row = new QHBoxLayout(line);
        row->setContentsMargins(0, 0, 0, 0);
        auto* image = new QLabel(line);
        image->setFixedSize(picture);
        image->setAlignment(Qt::AlignCenter);
        if (!one.picture.isNull())
            image->setPixmap(QPixmap::fromImage(
                one.picture.scaled(picture, Qt::KeepAspectRatioByExpanding, Qt::SmoothTransformation)));
        auto* words = new QLabel(tr("%1 was not saved when the program ended: kept %2")
                                     .arg(one.name, QLocale().toString(one.kept, QLocale::ShortFormat)),
                                 line);
        words->setTextFormat(Qt::PlainText);
        words->setToolTip(one.path);
        auto* take = lamp_push(tr("Take it up"), QStringLiteral("left_over_take_%1").arg(i),
                               tr("Opens it as it was, with the edits that were not saved"), line);
        auto* away = push(tr("Throw it away"), QStringLiteral("left_over_away_%1").arg(i),
                          tr("These edits are lost then; a pile that was saved before stays as it is"), line);
        row->addWidget(image);
        row->addWidget(words, 1);
        row->addWidget(away);
        row->addWidget(take);
        left_overs_->layout()->addWidget(line);
        connect(take, &QPushButton::clicked, this, [this, one] { emit left_over_wanted(one); });
        connect(away, &QPushButton::clicked, this, [this, one] {
            const auto answer =
                ask(window(), tr("Throw away the unsaved edits of %1?").arg(one.name), {},
                    {{tr("Keep them"), tr("They are offered again")}, {tr("Throw them away"), tr("They are lost")}});
            if (answer == 1) Recovery::throw_away(one.file);
            QMetaObject::invokeMethod(this, &StartScreen::list_left_overs, Qt::QueuedConnection);
        });
    }
    left_overs_->setVisible(!left.empty());
}

void StartScreen::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(rect(), theme().ground);
}

}  // namespace bp::app
