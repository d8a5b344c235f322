#include "app/rail/rail_traces.h"

#include <QCoreApplication>
#include <QStringList>
#include <algorithm>
#include <cmath>

#include "align/moved.h"
#include "app/looks/words.h"

namespace bp::app {
namespace {

struct Traces {
    Q_DECLARE_TR_FUNCTIONS(Traces)
};

std::function<QString(double)> with_unit(const QString& pattern, int digits, double scale = 1) {
    return [=](double v) {
        // What rounds to nothing has no sign.
        const double shown = v * scale;
        const double least = 0.5 * std::pow(10.0, -digits);
        return pattern.arg(number_in_words(std::abs(shown) < least ? 0.0 : shown, digits));
    };
}

std::vector<Trace> make_traces() {
    using M = FrameMeasures;
    return {
        {QStringLiteral("sharpness"),
         Traces::tr("Sharp"),
         Traces::tr("Fine contrast against the reference: soft and shaken frames dip"),
         0.3,
         [](const Frame&, const M& m) { return m.sharpness; },
         with_unit(Traces::tr("%1%"), 0, 100),
         {Oddity::soft}},
        {QStringLiteral("shift"),
         Traces::tr("Moved"),
         Traces::tr("How far the picture's middle lies from where the reference has it"),
         2,
         [](const Frame&, const M& m) -> std::optional<double> {
             if (!m.shift_px) return std::nullopt;
             return std::hypot(m.shift_px->x, m.shift_px->y);
         },
         with_unit(Traces::tr("%1 px"), 1),
         {Oddity::moved, Oddity::moved_on}},
        {QStringLiteral("light"),
         Traces::tr("Light"),
         Traces::tr("Light against the reference, unmoved by what moves"),
         0.3,
         [](const Frame&, const M& m) { return m.gain_ev; },
         with_unit(Traces::tr("%1 EV"), 2),
         {Oddity::brighter, Oddity::darker}},
        {QStringLiteral("cloud"),
         Traces::tr("Cloud"),
         Traces::tr("Share of the picture whose light changed smoothly: thin cloud, haze"),
         0.2,
         [](const Frame&, const M& m) { return m.veil; },
         with_unit(Traces::tr("%1%"), 0, 100),
         {Oddity::veiled, Oddity::changed}},
        {QStringLiteral("turn"),
         Traces::tr("Turned"),
         Traces::tr("Degrees against the reference"),
         0.2,
         [](const Frame&, const M& m) { return m.turn_degrees; },
         with_unit(Traces::tr("%1°"), 2),
         {Oddity::turned}},
        {QStringLiteral("warmth"),
         Traces::tr("Warmth"),
         Traces::tr("Red over blue against the reference"),
         0.3,
         [](const Frame&, const M& m) { return m.warmth_ev; },
         with_unit(Traces::tr("%1 EV"), 2),
         {Oddity::warmer, Oddity::cooler}},
        {QStringLiteral("noise"),
         Traces::tr("Noise"),
         Traces::tr("Deviation in the flat places of the small picture"),
         0.3,
         [](const Frame&, const M& m) { return m.noise; },
         with_unit(Traces::tr("%1%"), 2),
         {}},
        {QStringLiteral("clipped"),
         Traces::tr("White"),
         Traces::tr("Share of pixels that are clipped at white"),
         0.01,
         [](const Frame&, const M& m) { return m.clipped; },
         with_unit(Traces::tr("%1%"), 1, 100),
         {}},
        {QStringLiteral("pause"),
         Traces::tr("Pause"),
         Traces::tr("Time without light since the frame before"),
         1,
         [](const Frame&, const M& m) { return m.gap_s; },
         with_unit(Traces::tr("%1 s"), 1),
         {Oddity::late}},
        {QStringLiteral("left_over"),
         Traces::tr("Left over"),
         Traces::tr("What is left between the frame and the reference after aligning"),
         0.2,
         [](const Frame& f, const M&) -> std::optional<double> {
             if (!f.places.sky || !f.places.sky->aligned) return std::nullopt;
             return f.places.sky->residual_px;
         },
         with_unit(Traces::tr("%1 px"), 2),
         {}},
        {QStringLiteral("sure"),
         Traces::tr("Sure"),
         Traces::tr("Share of the textured places, or of the stars, that agree after aligning"),
         0.3,
         [](const Frame& f, const M&) -> std::optional<double> {
             if (!f.places.sky) return std::nullopt;
             return f.places.sky->confidence;
         },
         with_unit(Traces::tr("%1%"), 0, 100),
         {}},
        {QStringLiteral("scale"),
         Traces::tr("Scale"),
         Traces::tr("How much larger or smaller aligning makes the frame"),
         0.002,
         [](const Frame& f, const M&) -> std::optional<double> {
             if (!f.places.sky || !f.places.sky->aligned) return std::nullopt;
             return moved_by(*f.places.sky, f.file->facts.size).scale - 1;
         },
         with_unit(Traces::tr("%1%"), 2, 100),
         {}},
        {QStringLiteral("level"),
         Traces::tr("Level"),
         Traces::tr("How much brighter or darker levelling makes the frame"),
         0.3,
         [](const Frame& f, const M&) -> std::optional<double> {
             if (!f.gains) return std::nullopt;
             return std::log2(f.gains->gain[1]);
         },
         with_unit(Traces::tr("%1 EV"), 2),
         {}},
    };
}

}  // namespace

const std::vector<Trace>& traces() {
    static const std::vector<Trace> all = make_traces();
    return all;
}

const Trace* trace_named(const QString& key) {
    const auto found = std::find_if(traces().begin(), traces().end(), [&](const Trace& t) { return t.key == key; });
    return found == traces().end() ? nullptr : &*found;
}

QString reason_in_words(const Mark& mark) {
    const auto number = [&](int digits) { return number_in_words(mark.amount, digits); };
    switch (mark.why) {
        case Oddity::moved:
            return Traces::tr("moved %1 px").arg(number(1));
        case Oddity::moved_on:
            return Traces::tr("moved %1 px from here on").arg(number(1));
        case Oddity::turned:
            return Traces::tr("turned by %1°").arg(number(2));
        case Oddity::soft:
            return Traces::tr("softer than its neighbours");
        case Oddity::veiled:
            return Traces::tr("thin cloud");
        case Oddity::changed:
            return Traces::tr("light changed over %1% of the picture").arg(std::lround(100 * mark.amount));
        case Oddity::brighter:
            return Traces::tr("%1 EV brighter").arg(number(2));
        case Oddity::darker:
            return Traces::tr("%1 EV darker").arg(number(2));
        case Oddity::warmer:
            return Traces::tr("%1 EV warmer").arg(number(2));
        case Oddity::cooler:
            return Traces::tr("%1 EV cooler").arg(number(2));
        case Oddity::late:
            break;
    }
    constexpr double a_while_s = 600;
    if (mark.amount >= a_while_s) return Traces::tr("%1 late").arg(duration_in_words(mark.amount));
    return Traces::tr("%1 s late").arg(number(mark.amount < 10 ? 1 : 0));
}

QString reasons_in_words(const std::vector<Mark>& marks) {
    QStringList words;
    for (const Mark& mark : marks) words << reason_in_words(mark);
    return words.join(QStringLiteral(", "));
}

}  // namespace bp::app
