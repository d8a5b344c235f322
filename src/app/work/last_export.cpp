#include "app/work/last_export.h"

#include <QSettings>
#include <algorithm>
#include <array>

#include "pile/limits.h"

namespace bp::app {
namespace {

QString key(const char* name) {
    return QStringLiteral("export/") + QLatin1String(name);
}

}  // namespace

void remember_export(const Pile& pile) {
    const ExportSettings& used = pile.exporting;
    QSettings store;
    store.setValue(key("ending"), QString::fromStdString(used.ending));
    store.setValue(key("bits"), used.bits);
    store.setValue(key("quality"), used.quality);
    store.setValue(key("profile"), int(used.profile == ExportProfile::file ? ExportProfile::own : used.profile));
    store.setValue(key("long_edge_px"), used.long_edge_px);
    store.setValue(key("sharpen"), used.sharpen);
    store.setValue(key("whereabouts"), used.whereabouts);
    store.setValue(key("name"), QString::fromStdString(used.name));
    const GrowthSettings& growth = pile.growth;
    store.setValue(key("growth_ending"), QString::fromStdString(growth.ending));
    store.setValue(key("growth_rate"), growth.rate);
    store.setValue(key("growth_seconds"), growth.seconds);
    store.setValue(key("growth_hold"), growth.hold_s);
    store.setValue(key("growth_lines"), growth.lines);
}

Pile with_last_export(Pile pile) {
    const QSettings store;
    if (!store.contains(key("ending"))) return pile;
    ExportSettings& to = pile.exporting;
    // A file that anybody may have written to: what is none of the choices is left as it is.
    const std::string ending = store.value(key("ending")).toString().toStdString();
    constexpr std::array known{".tif", ".png", ".jpg", ".webp", ".jxl", ".exr", ".ora"};
    if (std::find(known.begin(), known.end(), ending) == known.end()) return pile;
    to.ending = ending;
    const int bits = store.value(key("bits"), to.bits).toInt();
    if (bits == 8 || bits == 16 || bits == 32) to.bits = bits;
    to.quality = std::clamp(store.value(key("quality"), to.quality).toInt(), 1, 100);
    const int profile = store.value(key("profile"), 0).toInt();
    if (profile >= 0 && profile < int(ExportProfile::file)) to.profile = ExportProfile(profile);
    to.long_edge_px = std::clamp(store.value(key("long_edge_px"), 0).toInt(), 0, pile::largest_side_px);
    to.sharpen = std::clamp(store.value(key("sharpen"), 0).toDouble(), 0.0, 300.0);
    to.whereabouts = store.value(key("whereabouts"), true).toBool();
    to.name = store.value(key("name")).toString().toStdString();
    GrowthSettings& growth = pile.growth;
    const std::string clip = store.value(key("growth_ending"), QStringLiteral(".mp4")).toString().toStdString();
    if (clip == ".mp4" || clip == ".webm" || clip.empty()) growth.ending = clip;
    growth.rate =
        std::clamp(store.value(key("growth_rate"), growth.rate).toDouble(), pile::lowest_rate, pile::highest_rate);
    growth.seconds = std::clamp(store.value(key("growth_seconds"), 0).toDouble(), 0.0, pile::longest_growth_s);
    growth.hold_s = std::clamp(store.value(key("growth_hold"), growth.hold_s).toDouble(), 0.0, pile::longest_hold_s);
    growth.lines =
        std::clamp(store.value(key("growth_lines"), growth.lines).toInt(), pile::fewest_lines, pile::most_lines);
    return pile;
}

}  // namespace bp::app
