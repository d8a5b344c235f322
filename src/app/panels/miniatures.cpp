#include "app/panels/miniatures.h"

#include <QKeyEvent>
#include <QPainter>
#include <algorithm>

#include "app/looks/theme.h"

namespace bp::app {

Miniature::Miniature(const QString& label, const QString& tip, QSize picture, QWidget* parent)
    : QAbstractButton(parent), picture_size_(picture) {
    setText(label);
    setToolTip(tip);
    setAccessibleName(label);
    setAccessibleDescription(tip);
    setCheckable(true);
    setFocusPolicy(Qt::TabFocus);
    // Beside one with two lines its picture stays at the top.
    setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Preferred);
}

void Miniature::set_picture(const QImage& image) {
    picture_ = image;
    update();
}

// Its words stand in one line or in two, never cut.
QSize Miniature::sizeHint() const {
    constexpr int line = 14;
    const QFontMetrics metrics(face(type::small, QFont::Medium));
    int width = picture_size_.width() + 4;
    for (const QString& word : text().split(QLatin1Char(' '))) width = std::max(width, metrics.horizontalAdvance(word));
    const bool one_line = metrics.horizontalAdvance(text()) <= width;
    return {width, picture_size_.height() + 24 + (one_line ? 0 : line)};
}

void Miniature::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const QRectF place((width() - picture_size_.width()) / 2.0, 2, picture_size_.width(), picture_size_.height());
    painter.fillRect(place, theme().raised);
    if (!picture_.isNull()) {
        const double aspect = place.width() / place.height();
        const QSizeF whole = picture_.size();
        const double w = std::min(whole.width(), whole.height() * aspect);
        const double h = w / aspect;
        painter.setRenderHint(QPainter::SmoothPixmapTransform);
        painter.setOpacity(isEnabled() ? 1 : 0.4);
        painter.drawImage(place, picture_, QRectF((whole.width() - w) / 2, (whole.height() - h) / 2, w, h));
        painter.setOpacity(1);
    }
    if (isChecked() || hasFocus() || underMouse()) {
        painter.setPen(QPen(isChecked() || hasFocus() ? theme().amber : theme().line, isChecked() ? 2 : 1.2));
        painter.setBrush(Qt::NoBrush);
        painter.drawRoundedRect(place.adjusted(-1, -1, 1, 1), 2, 2);
    }
    painter.setFont(face(type::small, isChecked() ? QFont::Medium : QFont::Normal));
    painter.setPen(isChecked() ? theme().text : theme().quiet);
    painter.drawText(QRectF(0, place.bottom() + 3, width(), height() - place.bottom() - 3),
                     Qt::AlignHCenter | Qt::AlignTop | Qt::TextWordWrap, text());
}

MiniatureGrid::MiniatureGrid(int columns, QSize picture, QWidget* parent)
    : QWidget(parent), columns_(columns), picture_(picture), grid_(new QGridLayout(this)) {
    grid_->setContentsMargins(0, 0, 0, 0);
    grid_->setSpacing(space::hair / 2);  // three stand beside a scroll bar
}

void MiniatureGrid::add(int value, const QString& label, const QString& tip) {
    auto* button = new Miniature(label, tip, picture_, this);
    button->installEventFilter(this);
    const int n = int(entries_.size());
    grid_->addWidget(button, n / columns_, n % columns_);
    entries_.push_back({value, button});
    connect(button, &QAbstractButton::clicked, this, [this, value] {
        // Until what is chosen has come to be, another may be the one that is.
        set_chosen(value);
        emit chosen(value);
    });
}

void MiniatureGrid::set_picture(int value, const QImage& image) {
    if (Miniature* b = button(value)) b->set_picture(image);
}

void MiniatureGrid::set_chosen(int value) {
    for (const Entry& entry : entries_) entry.button->setChecked(entry.value == value);
}

bool MiniatureGrid::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() != QEvent::KeyPress) return false;
    const auto here =
        std::find_if(entries_.begin(), entries_.end(), [&](const Entry& e) { return e.button == watched; });
    if (here == entries_.end()) return false;
    const auto* key = static_cast<QKeyEvent*>(event);
    if (key->modifiers() != Qt::NoModifier && key->modifiers() != Qt::KeypadModifier) return false;
    const int step = key->key() == Qt::Key_Left    ? -1
                     : key->key() == Qt::Key_Right ? 1
                     : key->key() == Qt::Key_Up    ? -columns_
                     : key->key() == Qt::Key_Down  ? columns_
                                                   : 0;
    if (key->key() == Qt::Key_Return || key->key() == Qt::Key_Enter) {
        here->button->click();
        return true;
    }
    if (step == 0) return false;
    const auto to = (here - entries_.begin()) + step;
    if (to >= 0 && to < std::ptrdiff_t(entries_.size())) entries_[std::size_t(to)].button->setFocus(Qt::TabFocusReason);
    return true;
}

Miniature* MiniatureGrid::button(int value) const {
    const auto found =
        std::find_if(entries_.begin(), entries_.end(), [value](const Entry& e) { return e.value == value; });
    return found == entries_.end() ? nullptr : found->button;
}

}  // namespace bp::app
