// What is drawn over the time rail: one measure of all frames over their time.
#pragma once

#include <QString>
#include <functional>
#include <optional>
#include <vector>

#include "engine/survey.h"

namespace bp::app {

struct Trace {
    QString key;  // in the settings and in object names
    QString name;
    QString tip;
    double least_span;  // a smaller range than this is not drawn any larger: it would show noise
    // What is not measured yet has no value.
    std::function<std::optional<double>(const Frame&, const FrameMeasures&)> value;
    std::function<QString(double)> words;
    std::vector<Oddity> marks;  // reasons that this trace shows
};

const std::vector<Trace>& traces();
const Trace* trace_named(const QString& key);

// "moved 6.2 px", "thin cloud", "14 s late"
QString reason_in_words(const Mark& mark);
// All reasons of a frame; empty when it is like the others.
QString reasons_in_words(const std::vector<Mark>& marks);

}  // namespace bp::app
