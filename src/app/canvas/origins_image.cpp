#include "app/canvas/origins_image.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace bp::app {
namespace {

// Steps of this share of the range lie far apart, however many follow each other.
constexpr double golden = 0.61803398875;

// Lines over the ground, by turns none, across, down and slanted.
bool on_pattern(int number, int x, int y) {
    constexpr int period = 5;
    switch (number % 4) {
        case 1:
            return y % period == 0;
        case 2:
            return x % period == 0;
        case 3:
            return (x + y) % period == 0;
        default:
            return false;
    }
}

}  // namespace

QImage image_of(const Origins& origins, const Raster16& picture, const Pile& pile, int current, QColor own) {
    constexpr int darkest = 40, range = 170, line = 42;
    constexpr double least_seen = 0.3, bright = 1.7;
    const auto hue = own.hslHueF();
    std::map<int, int> numbers;
    for (const Frame& frame : pile.frames) numbers[frame.id] = number_of(pile, frame.id);
    QImage out(origins.first.width(), origins.first.height(), QImage::Format_RGB32);
    for (int y = 0; y < out.height(); ++y) {
        auto* to = reinterpret_cast<QRgb*>(out.scanLine(y));
        for (int x = 0; x < out.width(); ++x) {
            const int id = origins.first_at(x, y);
            if (id == 0) {
                to[x] = qRgb(0, 0, 0);
                continue;
            }
            const int number = numbers[id];
            const double part = std::fmod(number * golden, 1.0);
            const double light = picture.at(x, y, picture.channels() / 2) / 65535.0;
            const double seen = std::min(1.0, least_seen + (1 - least_seen) * bright * light);
            const int grey = int(seen * (darkest + int(range * part) + (on_pattern(number, x, y) ? line : 0)));
            if (id == current || origins.second_at(x, y) == current)
                to[x] = QColor::fromHslF(hue, 0.8F, float(0.35 + 0.25 * grey / 255)).rgb();
            else
                to[x] = qRgb(grey, grey, grey);
        }
    }
    return out;
}

}  // namespace bp::app
