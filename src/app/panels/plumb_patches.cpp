#include "app/panels/plumb_patches.h"

#include <QMouseEvent>
#include <QPainter>
#include <algorithm>

#include "app/looks/theme.h"

namespace bp::app {
namespace {

constexpr int side = 44;
constexpr int gap = 5;
constexpr int label = 13;

}  // namespace

PlumbPatches::PlumbPatches(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("plumb_patches"));
    setAccessibleName(tr("The place in every frame"));
    setToolTip(tr("The place in every frame. Framed in amber: the one that shows. A click chooses a frame"));
    QSizePolicy policy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    policy.setHeightForWidth(true);
    setSizePolicy(policy);
}

void PlumbPatches::set_patches(std::vector<Patch> patches) {
    const bool grown = patches.size() != patches_.size();
    patches_ = std::move(patches);
    if (grown) updateGeometry();
    update();
}

void PlumbPatches::set_chosen(int frame) {
    chosen_ = frame;
    update();
}

int PlumbPatches::columns(int width) const {
    return std::max(1, (width + gap) / (side + gap));
}

int PlumbPatches::heightForWidth(int width) const {
    const int across = columns(width);
    return (int(patches_.size()) + across - 1) / across * (side + label + gap);
}

QSize PlumbPatches::sizeHint() const {
    const int wide = 5 * (side + gap);
    return {wide, heightForWidth(wide)};
}

QRect PlumbPatches::cell(std::size_t at) const {
    const int across = columns(width());
    return {int(at) % across * (side + gap), int(at) / across * (side + label + gap), side, side};
}

QRect PlumbPatches::place_of(int frame) const {
    for (std::size_t i = 0; i < patches_.size(); ++i)
        if (patches_[i].frame == frame) return cell(i);
    return {};
}

void PlumbPatches::paintEvent(QPaintEvent* event) {
    QPainter painter(this);
    painter.setFont(face(type::small));
    for (std::size_t i = 0; i < patches_.size(); ++i) {
        const QRect place = cell(i);
        if (!place.adjusted(0, 0, gap, label + gap).intersects(event->rect())) continue;
        const Patch& patch = patches_[i];
        painter.drawImage(place, patch.image);
        const bool chosen = patch.frame == chosen_;
        painter.setPen(QPen(patch.shows ? theme().amber
                            : chosen    ? theme().text
                                        : theme().line,
                            patch.shows || chosen ? 2 : 1));
        painter.drawRect(place);
        painter.setPen(chosen ? theme().text : theme().quiet);
        const QString number = QString::number(patch.number);
        painter.drawText(QRect(place.left(), place.bottom() + 1, side, label), Qt::AlignHCenter | Qt::AlignTop,
                         patch.silent ? tr("%1 out").arg(number) : number);
    }
}

void PlumbPatches::mousePressEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton) return;
    for (std::size_t i = 0; i < patches_.size(); ++i)
        if (cell(i).adjusted(0, 0, 0, label).contains(event->position().toPoint()))
            emit frame_chosen(patches_[i].frame);
}

}  // namespace bp::app
