// What is known of a place of the picture that is shown.
#include <algorithm>
#include <cmath>

#include "app/canvas/viewer.h"
#include "engine/frame_stages.h"

namespace bp::app {

std::optional<std::pair<int, int>> Viewer::origin_at(int x, int y) const {
    if (view_ != View::origins) return std::nullopt;
    for (const Layer* layer : {&detail_, &overview_}) {
        if (!layer->origins || layer->origins->first.width() == 0 || intersect(layer->area, {x, y, 1, 1}).empty())
            continue;
        const Origins& of = *layer->origins;
        const int u =
            std::clamp((x - layer->area.left) * of.first.width() / layer->area.width, 0, of.first.width() - 1);
        const int v =
            std::clamp((y - layer->area.top) * of.first.height() / layer->area.height, 0, of.first.height() - 1);
        return std::pair(of.first_at(u, v), of.second_at(u, v));
    }
    return std::nullopt;
}

std::optional<std::array<int, 3>> Viewer::samples_at(int x, int y) const {
    for (const Layer* layer : {&detail_, &overview_}) {
        if (layer->image.isNull() || layer->samples->empty() || intersect(layer->area, {x, y, 1, 1}).empty()) continue;
        const Raster16& of = *layer->samples;
        const int u = std::clamp((x - layer->area.left) * of.width() / layer->area.width, 0, of.width() - 1);
        const int v = std::clamp((y - layer->area.top) * of.height() / layer->area.height, 0, of.height() - 1);
        const auto at = [&](int c) { return int(of.at(u, v, std::min(c, of.channels() - 1))); };
        return std::array{at(0), at(1), at(2)};
    }
    return std::nullopt;
}

std::optional<std::array<int, 3>> Viewer::recorded_at(Point canvas) const {
    const Pile& pile = studio_.pile();
    const Frame* frame = find_frame(pile, frame_());
    if (!frame || !usable(*frame)) return std::nullopt;
    const Point at = placement(pile, *frame).to_frame(canvas);
    const auto store = studio_.stores().frames();
    const Developing how = developing_of(pile, *frame);
    const LightCurve curve = LightCurve::of(pile.profile, pile.channels);
    for (int level = 0; level <= scaled_levels; ++level) {
        const double unit = double(1 << level);
        const Rect pixel{int(std::floor((at.x + 0.5) / unit)), int(std::floor((at.y + 0.5) / unit)), 1, 1};
        const SharedTiles tiles = store->held_tiles(*frame->file, level, how);
        const SharedPixels pixels = tiles ? nullptr : store->held(*frame->file, level, how);
        if (!tiles && !pixels) continue;
        if (intersect(pixel, whole(tiles ? tiles->size() : pixels->size())).empty()) return std::nullopt;
        std::array<std::uint16_t, 4> read{};
        SourceRow row;
        if (tiles) {
            auto* bytes = reinterpret_cast<std::uint8_t*>(read.data());
            tiles->read(pixel, bytes, tiles->pixel_bytes());
            row = tiles->bits() == 8 ? SourceRow{bytes, nullptr} : SourceRow{nullptr, read.data()};
        } else {
            row = pixels->row(pixel.top);
            const std::ptrdiff_t from = std::ptrdiff_t(pixel.left) * pixels->channels();
            row = row.narrow ? SourceRow{row.narrow + from, nullptr} : SourceRow{nullptr, row.wide + from};
        }
        const int channels = store->space().channels;
        const auto sample = [&](int c) {
            const int n = std::min(c, channels - 1);
            if (how.stops == 0) return row.narrow ? 257 * row.narrow[n] : int(row.wide[n]);
            return int(curve.sample(std::ldexp(double(curve.light(row.wide[n])), how.stops)));
        };
        return std::array{sample(0), sample(1), sample(2)};
    }
    return std::nullopt;
}

std::pair<std::shared_ptr<const Raster16>, Rect> Viewer::samples_of(const Rect& area) const {
    for (const Layer* layer : {&detail_, &overview_}) {
        const Rect wanted = intersect(area, layer->area);
        if (layer->image.isNull() || layer->samples->empty() || wanted.empty()) continue;
        // A piece of it would say nothing of the rest.
        if (layer == &detail_ && (detail_.serial != serial_ || intersect(area, area_) != wanted)) continue;
        const Raster16& of = *layer->samples;
        const double x = double(of.width()) / layer->area.width, y = double(of.height()) / layer->area.height;
        const int left = int((wanted.left - layer->area.left) * x), top = int((wanted.top - layer->area.top) * y);
        const int right = int(std::ceil((wanted.right() - layer->area.left) * x));
        const int bottom = int(std::ceil((wanted.bottom() - layer->area.top) * y));
        return {layer->samples,
                intersect({left, top, std::max(1, right - left), std::max(1, bottom - top)}, whole(of.size()))};
    }
    return {};
}

std::optional<QColor> Viewer::colour_at(int x, int y) const {
    for (const Layer* layer : {&detail_, &overview_}) {
        if (layer->image.isNull() || intersect(layer->area, {x, y, 1, 1}).empty()) continue;
        const int u = (x - layer->area.left) * layer->image.width() / layer->area.width;
        const int v = (y - layer->area.top) * layer->image.height() / layer->area.height;
        return layer->image.pixelColor(std::clamp(u, 0, layer->image.width() - 1),
                                       std::clamp(v, 0, layer->image.height() - 1));
    }
    return std::nullopt;
}

}  // namespace bp::app
