#include "app/panels/tones_panel.h"

#include <QLinearGradient>
#include <QPainterPath>
#include <QSignalBlocker>
#include <cmath>

#include "app/looks/controls.h"
#include "app/looks/words.h"
#include "app/panels/side_panel.h"

namespace bp::app {
namespace {

constexpr int beat_ms = 40;
constexpr double one_high = 62, words_wide = 46, thinnest = 1, thickest = 26;

QString channel_word(std::size_t n, std::size_t count) {
    if (n == 0) return count == 1 ? ToneRibbons::tr("Grey") : ToneRibbons::tr("All");
    return n == 1 ? ToneRibbons::tr("Red") : n == 2 ? ToneRibbons::tr("Green") : ToneRibbons::tr("Blue");
}

}  // namespace

ToneRibbons::ToneRibbons(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("tone_ribbons"));
    setAccessibleName(tr("Tones from dark to bright"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

void ToneRibbons::set_counts(ToneCounts counts) {
    counts_ = std::move(counts);
    setFixedHeight(int(one_high * double(std::max<std::size_t>(1, counts_.shares.size()))));
    update();
}

void ToneRibbons::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setFont(face(type::small));
    const double left = words_wide, wide = width() - words_wide - 4;
    for (std::size_t n = 0; n < counts_.shares.size(); ++n) {
        const auto& shares = counts_.shares[n];
        const double middle = one_high * (double(n) + 0.5);
        painter.setPen(theme().quiet);
        painter.drawText(QRectF(0, middle - 10, words_wide, 20), Qt::AlignLeft | Qt::AlignVCenter,
                         channel_word(n, counts_.shares.size()));
        QPolygonF above, below;
        for (std::size_t i = 0; i < shares.size(); ++i) {
            const double x = left + wide * double(i) / double(shares.size() - 1);
            const double half = thinnest + (thickest - thinnest) * std::sqrt(double(shares[i]));
            above << QPointF(x, middle - half);
            below.prepend(QPointF(x, middle + half));
        }
        QPainterPath ribbon;
        ribbon.addPolygon(above + below);
        ribbon.closeSubpath();
        QLinearGradient tones(left, 0, left + wide, 0);
        tones.setColorAt(0, QColor(0x10, 0x10, 0x10));
        tones.setColorAt(1, QColor(0xf4, 0xf4, 0xf0));
        painter.setPen(QPen(theme().line, 1));
        painter.setBrush(tones);
        painter.drawPath(ribbon);
    }
}

TonesPanel::TonesPanel(Studio& studio, Viewer& viewer, Canvas& canvas, QWidget* parent)
    : QFrame(parent), studio_(studio), viewer_(viewer), canvas_(canvas), tool_(canvas, [this](const QRectF& shown) {
          const QRect pixels = shown.toAlignedRect();
          area_ = Rect{pixels.left(), pixels.top(), pixels.width(), pixels.height()};
          tool_.set_area(shown);
          refresh();
      }) {
    QVBoxLayout* column = side_column(*this, QStringLiteral("tones_panel"), tr("Tones"));
    QWidget* inside = column->parentWidget();
    auto* title = new QLabel(tr("Tones"), inside);
    title->setFont(face(type::step, QFont::DemiBold));
    column->addWidget(title);
    of_ = quiet_label({}, inside);
    of_->setObjectName(QStringLiteral("tones_of"));
    column->addWidget(of_);
    ribbons_ = new ToneRibbons(inside);
    column->addWidget(ribbons_);
    clipped_ = new QLabel(inside);
    clipped_->setObjectName(QStringLiteral("tones_clipped"));
    clipped_->setWordWrap(true);
    column->addWidget(clipped_);
    choose_ = push(tr("Choose an area"), QStringLiteral("tones_area"),
                   tr("Drag over the picture: the tones of that area alone. Once more: of all that is seen"), inside);
    choose_->setCheckable(true);
    column->addWidget(choose_);
    column->addStretch();
    later_.setSingleShot(true);
    later_.setInterval(beat_ms);
    connect(&later_, &QTimer::timeout, this, &TonesPanel::refresh);
    const auto soon = [this] {
        if (isVisible() && !later_.isActive()) later_.start();
    };
    connect(&viewer, &Viewer::updated, this, soon);
    connect(&viewer, &Viewer::patched, this, soon);
    connect(&canvas, &Canvas::zoom_changed, this, soon);
    connect(choose_, &QPushButton::toggled, this, &TonesPanel::choose);
    connect(&canvas, &Canvas::tool_left, this, [this] { choose_->setChecked(false); });
    connect(&studio.document(), &Document::opened, this, [this] { choose_->setChecked(false); });
}

void TonesPanel::showEvent(QShowEvent*) {
    refresh();
}

void TonesPanel::hideEvent(QHideEvent*) {
    choose_->setChecked(false);
}

void TonesPanel::choose(bool on) {
    area_.reset();
    tool_.set_area({});
    canvas_.set_tool(on ? &tool_ : nullptr);
    refresh();
}

void TonesPanel::refresh() {
    if (!isVisible() || !studio_.document().open()) return;
    const Pile& pile = studio_.pile();
    const auto [samples, area] = viewer_.samples_of(area_ ? *area_ : viewer_.visible());
    if (!samples) return;
    const auto luminance = pile.channels == 3 ? luminance_weights(pile.profile) : std::array<double, 3>{0, 1, 0};
    ToneCounts counts = tone_counts(*samples, area, LightCurve::of(pile.profile, pile.channels), luminance);
    of_->setText(area_ ? tr("Of the area that is chosen, %1 x %2 px").arg(area_->width).arg(area_->height)
                       : tr("Of what is seen"));
    const auto percent = [](const std::vector<double>& of) {
        QStringList out;
        for (const double share : of) out << tr("%1%").arg(number_in_words(100 * share, 1));
        return out.join(QStringLiteral("  "));
    };
    clipped_->setText(tr("Black: %1\nWhite: %2").arg(percent(counts.black), percent(counts.white)));
    ribbons_->set_counts(std::move(counts));
}

}  // namespace bp::app
