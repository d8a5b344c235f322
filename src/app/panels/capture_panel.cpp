#include "app/panels/capture_panel.h"

#include <QGridLayout>
#include <QRegularExpression>
#include <algorithm>
#include <functional>

#include "app/looks/controls.h"
#include "app/looks/theme.h"
#include "app/looks/words.h"
#include "app/panels/side_panel.h"
#include "app/rail/rail_traces.h"

namespace bp::app {
namespace {

// The lowest and highest of a number over the run; empty when there is only one.
QString range_of(const std::vector<std::optional<double>>& values, const std::function<QString(double)>& words) {
    std::optional<double> low, high;
    std::size_t known = 0;
    for (const auto& v : values) {
        if (!v) continue;
        ++known;
        low = std::min(low.value_or(*v), *v);
        high = std::max(high.value_or(*v), *v);
    }
    if (!low || (*low == *high && known == values.size())) return {};
    if (*low == *high) return CapturePanel::tr("%1 of %2 have it").arg(known).arg(values.size());
    const QString a = words(*low);
    const QString b = words(*high);
    return a == b ? QString() : CapturePanel::tr("%1 to %2").arg(a, b);
}

QString range_of(const std::vector<QString>& values) {
    QStringList kinds;
    for (const QString& v : values)
        if (!kinds.contains(v)) kinds << v;
    if (kinds.size() < 2) return {};
    kinds.replaceInStrings(QRegularExpression(QStringLiteral("^$")), QStringLiteral("-"));
    return kinds.join(QStringLiteral(", "));
}

}  // namespace

CapturePanel::CapturePanel(Studio& studio, Surveyor& surveyor, QWidget* parent)
    : QFrame(parent), studio_(studio), surveyor_(surveyor) {
    QVBoxLayout* column = side_column(*this, QStringLiteral("capture_panel"), tr("Capture data"));
    QWidget* inside = column->parentWidget();
    title_ = new QLabel(inside);
    title_->setFont(face(type::step, QFont::DemiBold));
    title_->setWordWrap(true);
    column->addWidget(title_);
    grid_ = new QGridLayout;
    grid_->setHorizontalSpacing(space::medium);
    grid_->setVerticalSpacing(space::small);
    grid_->setColumnStretch(1, 1);
    column->addLayout(grid_);
    column->addStretch();
    differs_ = quiet_label(tr("Amber: what differs across the run."), inside);
    column->addWidget(differs_);
    connect(&studio.document(), &Document::changed, this, &CapturePanel::refresh);
    connect(&studio, &Studio::selection_changed, this, &CapturePanel::refresh);
    connect(&surveyor, &Surveyor::changed, this, &CapturePanel::refresh);
}

std::vector<CapturePanel::Line> CapturePanel::lines() const {
    const Pile& pile = studio_.pile();
    const Frame* frame = find_frame(pile, studio_.current());
    if (!frame) return {};
    std::vector<const Frame*> run;
    for (const Frame& f : pile.frames)
        if (usable(f) && f.role == frame->role) run.push_back(&f);
    std::vector<Line> out;
    const auto number = [&](const QString& name, std::optional<double> CaptureData::*field,
                            const std::function<QString(double)>& words) {
        std::vector<std::optional<double>> values;
        for (const Frame* f : run) values.push_back(f->file->capture.*field);
        const auto& here = frame->file->capture.*field;
        out.push_back({name, here ? words(*here) : QStringLiteral("-"), range_of(values, words)});
    };
    const auto text = [&](const QString& name, const std::function<QString(const Frame&)>& value) {
        std::vector<QString> values;
        for (const Frame* f : run) values.push_back(value(*f));
        const QString here = value(*frame);
        out.push_back({name, here.isEmpty() ? QStringLiteral("-") : here, range_of(values)});
    };
    number(tr("Taken"), &CaptureData::captured, time_in_words);
    number(tr("Exposure"), &CaptureData::exposure_s, exposure_in_words);
    number(tr("ISO"), &CaptureData::iso, [](double v) { return number_in_words(v, 0); });
    number(tr("Aperture"), &CaptureData::aperture, [](double v) { return tr("f/%1").arg(figures_in_words(v, 3)); });
    number(tr("Focal length"), &CaptureData::focal_mm,
           [](double v) { return tr("%1 mm").arg(figures_in_words(v, 4)); });
    text(tr("Camera"), [](const Frame& f) { return QString::fromStdString(f.file->capture.camera); });
    text(tr("Size"),
         [](const Frame& f) { return tr("%1 x %2").arg(f.file->facts.size.width).arg(f.file->facts.size.height); });
    text(tr("Depth"), [](const Frame& f) { return tr("%1 bit").arg(f.file->facts.bits); });
    text(tr("Profile"), [](const Frame& f) { return QString::fromStdString(f.file->facts.profile.name()); });
    out.push_back({tr("File"), bytes_in_words(double(frame->file->bytes)), {}});
    // What was measured differs always: how, the traces show.
    const Findings* known = surveyor_.of(frame->id);
    for (const Trace& trace : traces())
        if (const auto here = trace.value(*frame, known ? known->measures : FrameMeasures{}))
            out.push_back({trace.name, trace.words(*here), {}});
    return out;
}

void CapturePanel::refresh() {
    if (!isVisible()) return;
    while (QLayoutItem* item = grid_->takeAt(0)) {
        let_go(item->widget());
        delete item;
    }
    const Frame* frame = find_frame(studio_.pile(), studio_.current());
    title_->setText(frame ? name_of_frame(*frame) : QString());
    int row = 0;
    bool any = false;
    for (const Line& line : lines()) {
        auto* name = quiet_label(line.name, title_->parentWidget());
        name->setWordWrap(false);
        auto* value = new QLabel(line.here, title_->parentWidget());
        value->setWordWrap(true);
        value->setTextInteractionFlags(Qt::TextSelectableByMouse);
        value->setFocusPolicy(Qt::NoFocus);
        grid_->addWidget(name, row, 0, Qt::AlignTop);
        grid_->addWidget(value, row++, 1);
        if (line.range.isEmpty()) continue;
        any = true;
        auto* range = new QLabel(line.range, title_->parentWidget());
        range->setFont(face(type::small));
        range->setProperty("differs", true);
        range->setWordWrap(true);
        grid_->addWidget(range, row++, 1);
    }
    differs_->setVisible(any);
}

void CapturePanel::showEvent(QShowEvent*) {
    refresh();
}

}  // namespace bp::app
