#include "align/bend.h"

#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>

#include "base/median.h"

namespace bp {
namespace {

constexpr int node_px = 32;          // from node to node, in pixels of the level at work
constexpr double window_px = 14;     // deviation of the window around a node
constexpr double stiffness = 0.01;   // of the ties, beside the usual texture around a node
constexpr int rounds = 5;            // at each level
constexpr int sweeps = 80;           // over the grid, a round
constexpr double bound = 1.0 / 30;   // of the longer side
constexpr double no_crossing = 0.3;  // of a step, that neighbours may come closer
constexpr double cut_off = 4.685;    // deviations (Tukey)

// A grid of shifts while it is worked on.
struct Nodes {
    Flex::Grid grid;
    std::vector<float> across, down;

    Nodes(cv::Size size, const Flex* before) {
        grid.step = node_px;
        grid.columns = std::max(2, (size.width + node_px - 1) / node_px + 1);
        grid.rows = std::max(2, (size.height + node_px - 1) / node_px + 1);
        const auto count = std::size_t(grid.columns) * std::size_t(grid.rows);
        across.assign(count, 0);
        down.assign(count, 0);
        if (!before) return;
        for (int j = 0; j < grid.rows; ++j)
            for (int i = 0; i < grid.columns; ++i) {
                const Point d = before->at({double(i) * node_px, double(j) * node_px});
                across[index(i, j)] = float(d.x);
                down[index(i, j)] = float(d.y);
            }
    }
    std::size_t index(int i, int j) const { return std::size_t(j) * std::size_t(grid.columns) + std::size_t(i); }
    Flex flex() const { return {grid, across, down}; }
};

// What the pixels around every node say: the sums of least squares.
struct Pull {
    std::vector<double> xx, xy, yy, xt, yt;
};

Pull pull_at(const Nodes& nodes, const cv::Mat& still, const cv::Mat& moved, const cv::Mat& inside) {
    cv::Mat dx, dy, off;
    cv::Mat mean = (still + moved) * 0.5;
    cv::Sobel(mean, dx, CV_32F, 1, 0, 3, 0.125);
    cv::Sobel(mean, dy, CV_32F, 0, 1, 3, 0.125);
    off = moved - still;
    std::vector<float> sizes;
    for (int y = 0; y < off.rows; y += 3)
        for (int x = 0; x < off.cols; x += 3)
            if (inside.at<std::uint8_t>(y, x) == 255) sizes.push_back(std::abs(off.at<float>(y, x)));
    const double reach = cut_off * std::max(1e-3, 1.4826 * double(sizes.empty() ? 0.0F : middle_of(sizes)));
    cv::Mat weight(off.size(), CV_32F);
    for (int y = 0; y < off.rows; ++y)
        for (int x = 0; x < off.cols; ++x) {
            const double r = off.at<float>(y, x) / reach;
            const bool counts = inside.at<std::uint8_t>(y, x) == 255 && std::abs(r) < 1;
            weight.at<float>(y, x) = counts ? float((1 - r * r) * (1 - r * r)) : 0;
        }
    const cv::Mat wx = dx.mul(weight);
    const cv::Mat wy = dy.mul(weight);
    const auto sum = [&](const cv::Mat& a, const cv::Mat& b) {
        cv::Mat out;
        cv::GaussianBlur(a.mul(b), out, cv::Size(0, 0), window_px);
        std::vector<double> at_nodes;
        at_nodes.reserve(nodes.across.size());
        for (int j = 0; j < nodes.grid.rows; ++j)
            for (int i = 0; i < nodes.grid.columns; ++i)
                at_nodes.push_back(
                    out.at<float>(std::min(j * node_px, out.rows - 1), std::min(i * node_px, out.cols - 1)));
        return at_nodes;
    };
    return {sum(wx, dx), sum(wx, dy), sum(wy, dy), sum(wx, off), sum(wy, off)};
}

// Moves every node to where its pixels and its neighbours want it.
void settle(Nodes& nodes, const Pull& pull) {
    std::vector<float> texture;
    for (std::size_t k = 0; k < pull.xx.size(); ++k) texture.push_back(float(pull.xx[k] + pull.yy[k]));
    const double tie = stiffness * std::max(1e-9, double(middle_of(texture)));
    const std::vector<float> across = nodes.across;
    const std::vector<float> down = nodes.down;
    const auto& grid = nodes.grid;
    for (int sweep = 0; sweep < sweeps; ++sweep)
        for (int j = 0; j < grid.rows; ++j)
            for (int i = 0; i < grid.columns; ++i) {
                const std::size_t k = nodes.index(i, j);
                double x = 0, y = 0, n = 0;
                const auto take = [&](int u, int v) {
                    if (u < 0 || v < 0 || u >= grid.columns || v >= grid.rows) return;
                    x += double(nodes.across[nodes.index(u, v)]);
                    y += double(nodes.down[nodes.index(u, v)]);
                    ++n;
                };
                take(i - 1, j);
                take(i + 1, j);
                take(i, j - 1);
                take(i, j + 1);
                // (J + n tie) d = J d0 - b + tie (sum of neighbours)
                const double a = pull.xx[k] + n * tie;
                const double b = pull.xy[k];
                const double c = pull.yy[k] + n * tie;
                const double p = pull.xx[k] * across[k] + pull.xy[k] * down[k] - pull.xt[k] + tie * x;
                const double q = pull.xy[k] * across[k] + pull.yy[k] * down[k] - pull.yt[k] + tie * y;
                const double det = a * c - b * b;
                nodes.across[k] = float((c * p - b * q) / det);
                nodes.down[k] = float((a * q - b * p) / det);
            }
}

// No shift beyond the bound, no neighbours that cross.
void hold_back(Nodes& nodes, double furthest) {
    for (std::size_t k = 0; k < nodes.across.size(); ++k) {
        const double length = std::hypot(double(nodes.across[k]), double(nodes.down[k]));
        if (length <= furthest) continue;
        nodes.across[k] = float(nodes.across[k] * furthest / length);
        nodes.down[k] = float(nodes.down[k] * furthest / length);
    }
    const auto least = float(-no_crossing * node_px);
    for (int j = 0; j < nodes.grid.rows; ++j)
        for (int i = 0; i < nodes.grid.columns; ++i) {
            const std::size_t k = nodes.index(i, j);
            if (i > 0) {
                const std::size_t left = nodes.index(i - 1, j);
                nodes.across[k] = std::max(nodes.across[k], nodes.across[left] + least);
            }
            if (j > 0) {
                const std::size_t above = nodes.index(i, j - 1);
                nodes.down[k] = std::max(nodes.down[k], nodes.down[above] + least);
            }
        }
}

Flex doubled(const Flex& flex) {
    Flex::Grid grid = flex.grid();
    grid.first = {(grid.first.x + 0.5) * 2 - 0.5, (grid.first.y + 0.5) * 2 - 0.5};
    grid.step *= 2;
    std::vector<float> across = flex.across();
    std::vector<float> down = flex.down();
    for (std::vector<float>* values : {&across, &down})
        for (float& v : *values) v *= 2;
    return {grid, std::move(across), std::move(down)};
}

// The frame as the reference sees it: at to_frame(p + flex(p)). `inside` becomes 255 where it reaches.
cv::Mat seen_through(const cv::Mat& frame, cv::Size size, const Matrix& to_frame, const Flex& flex, cv::Mat& inside) {
    cv::Mat across(size, CV_32F), down(size, CV_32F);
    inside.create(size, CV_8U);
    const auto& m = to_frame.m();
    const double right = frame.cols - 1;
    const double bottom = frame.rows - 1;
    for (int y = 0; y < size.height; ++y) {
        auto* u = across.ptr<float>(y);
        auto* v = down.ptr<float>(y);
        auto* in = inside.ptr<std::uint8_t>(y);
        for (int x = 0; x < size.width; ++x) {
            Point p{double(x), double(y)};
            const Point d = flex.at(p);
            p = {p.x + d.x, p.y + d.y};
            const double w = m[6] * p.x + m[7] * p.y + m[8];
            p = {(m[0] * p.x + m[1] * p.y + m[2]) / w, (m[3] * p.x + m[4] * p.y + m[5]) / w};
            u[x] = float(p.x);
            v[x] = float(p.y);
            in[x] = p.x >= 0 && p.y >= 0 && p.x <= right && p.y <= bottom ? 255 : 0;
        }
    }
    cv::Mat out;
    cv::remap(frame, out, across, down, cv::INTER_CUBIC, cv::BORDER_REPLICATE);
    return out;
}

}  // namespace

SharedFlex bend_onto(const std::vector<cv::Mat>& reference, const std::vector<cv::Mat>& frame, const Matrix& to_frame) {
    std::shared_ptr<const Flex> found;
    for (int level = int(reference.size()) - 1; level >= 0; --level) {
        const cv::Mat& still = reference[std::size_t(level)];
        Nodes nodes(still.size(), found.get());
        const double furthest = bound * std::max(still.cols, still.rows);
        for (int round = 0; round < rounds; ++round) {
            const Flex now = nodes.flex();
            cv::Mat inside;
            const cv::Mat moved =
                seen_through(frame[std::size_t(level)], still.size(), at_level(to_frame, level), now, inside);
            settle(nodes, pull_at(nodes, still, moved, inside));
            hold_back(nodes, furthest);
        }
        found = std::make_shared<const Flex>(level > 0 ? doubled(nodes.flex()) : nodes.flex());
    }
    return found;
}

}  // namespace bp
