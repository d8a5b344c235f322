#include "parts/seam.h"

#include <algorithm>
#include <array>
#include <opencv2/imgproc.hpp>
#include <opencv2/imgproc/detail/gcgraph.hpp>

namespace bp {
namespace {

struct Neighbour {
    int right, down;
    float weight;
};
// Of every pair of neighbours the later one, by rows.
constexpr std::array<Neighbour, 4> later{
    {{1, 0, straight_seam}, {-1, 1, diagonal_seam}, {0, 1, straight_seam}, {1, 1, diagonal_seam}}};

// How far every pixel with `of` lies from the nearest one without.
cv::Mat distance_within(const cv::Mat& of) {
    cv::Mat out;
    cv::distanceTransform(of, out, cv::DIST_L2, cv::DIST_MASK_PRECISE);
    return out;
}

Side side_at(const Raster8& sides, int x, int y) {
    return Side(sides.at(x, y, 0));
}

}  // namespace

Raster8 open_about(const Raster8& mask, double half, const Raster8& covered) {
    const Size size = mask.size();
    cv::Mat kept(size.height, size.width, CV_8U);
    for (int y = 0; y < size.height; ++y)
        for (int x = 0; x < size.width; ++x)
            kept.at<std::uint8_t>(y, x) = mask.at(x, y, 0) >= 128 && covered.at(x, y, 0) ? 255 : 0;
    cv::Mat labels;
    const int pieces = cv::connectedComponents(kept, labels);
    const cv::Mat inside = distance_within(kept), outside = distance_within(~kept);
    std::vector<float> deepest(std::size_t(pieces), 0);
    for (int y = 0; y < size.height; ++y)
        for (int x = 0; x < size.width; ++x) {
            float& depth = deepest[std::size_t(labels.at<int>(y, x))];
            depth = std::max(depth, inside.at<float>(y, x));
        }
    constexpr float core = 0.7F;  // of the depth of a piece
    Raster8 out(size, 1);
    for (int y = 0; y < size.height; ++y)
        for (int x = 0; x < size.width; ++x) {
            Side side = Side::open;
            if (kept.at<std::uint8_t>(y, x)) {
                const float depth = deepest[std::size_t(labels.at<int>(y, x))];
                if (inside.at<float>(y, x) > std::min(float(half), core * depth)) side = Side::over;
            } else if (!covered.at(x, y, 0) || outside.at<float>(y, x) > half) {
                side = Side::below;
            }
            out.at(x, y, 0) = std::uint8_t(side);
        }
    return out;
}

Raster8 least_seam(const RasterF& apart, const Raster8& sides) {
    const Size size = sides.size();
    std::vector<int> node(std::size_t(size.width) * std::size_t(size.height), -1);
    int open = 0;
    for (int y = 0; y < size.height; ++y)
        for (int x = 0; x < size.width; ++x)
            if (side_at(sides, x, y) == Side::open)
                node[std::size_t(y) * std::size_t(size.width) + std::size_t(x)] = open++;
    std::vector<float> to_over(std::size_t(open), 0), to_below(std::size_t(open), 0);
    cv::detail::GCGraph<float> graph(unsigned(open), unsigned(later.size()) * unsigned(open));
    for (int i = 0; i < open; ++i) graph.addVtx();
    const auto at = [&](int x, int y) { return node[std::size_t(y) * std::size_t(size.width) + std::size_t(x)]; };
    const auto fix = [&](int open_node, Side other, float cost) {
        (other == Side::over ? to_over : to_below)[std::size_t(open_node)] += cost;
    };
    for (int y = 0; y < size.height; ++y)
        for (int x = 0; x < size.width; ++x)
            for (const Neighbour& n : later) {
                const int u = x + n.right, v = y + n.down;
                if (u < 0 || u >= size.width || v >= size.height) continue;
                const int here = at(x, y), there = at(u, v);
                if (here < 0 && there < 0) continue;
                const float cost = n.weight * (apart.at(x, y, 0) + apart.at(u, v, 0));
                if (here >= 0 && there >= 0)
                    graph.addEdges(here, there, cost, cost);
                else if (here >= 0)
                    fix(here, side_at(sides, u, v), cost);
                else
                    fix(there, side_at(sides, x, y), cost);
            }
    for (int i = 0; i < open; ++i) graph.addTermWeights(i, to_over[std::size_t(i)], to_below[std::size_t(i)]);
    if (open > 0) graph.maxFlow();
    Raster8 out(size, 1);
    for (int y = 0; y < size.height; ++y)
        for (int x = 0; x < size.width; ++x) {
            const int here = at(x, y);
            const bool over = here >= 0 ? graph.inSourceSegment(here) : side_at(sides, x, y) == Side::over;
            out.at(x, y, 0) = over ? 255 : 0;
        }
    return out;
}

}  // namespace bp
