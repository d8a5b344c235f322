#include "parts/differing.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <opencv2/imgproc.hpp>
#include <opencv2/imgproc/detail/gcgraph.hpp>

namespace bp {
namespace {

// A thing begins where the mean square over `wide` pixels each way is so large, which chance does not make. It goes on
// to where that over the nearest ones, each of which counts for `most_of_one` at most, is half as much: whatever stands
// out clearly ends at its edge, not beside it.
constexpr int wide = 5, near = 3, beside = 7;
constexpr float begins = 5, most_of_one = 4, edge = most_of_one / 2;
// What a border between two pixels costs beside their own shares, which are held to `most`.
constexpr float border = 0.20F, most = 2;
// Things lie within a piece of picture that is grown by so many pixels around where they begin.
constexpr int around = 24;

constexpr int unit = 16;  // of a Differing, for the root of one deviation

// The mean squares that go with the values of a Differing.
const std::array<float, 256>& squares() {
    static const std::array<float, 256> table = [] {
        std::array<float, 256> out;
        for (std::size_t v = 0; v < out.size(); ++v) out[v] = float(std::pow(deviations_of(std::uint8_t(v)), 2));
        return out;
    }();
    return table;
}

cv::Rect grown_in(const Differing& by, const cv::Rect& box, int more) {
    const cv::Rect grown(box.x - more, box.y - more, box.width + 2 * more, box.height + 2 * more);
    return grown & cv::Rect(0, 0, by.width(), by.height());
}

cv::Mat squares_in(const Differing& by, const cv::Rect& box) {
    cv::Mat out(box.height, box.width, CV_32F);
    for (int y = 0; y < box.height; ++y)
        std::transform(by.row(box.y + y) + box.x, by.row(box.y + y) + box.x + box.width, out.ptr<float>(y),
                       [&table = squares()](std::uint8_t v) { return table[v]; });
    return out;
}

// 1 where the mean square over `wide` pixels each way is more than `begins`; it goes on beyond the edges as in a
// mirror. In whole numbers: a square is the fourth power of a value.
cv::Mat seeds_of(const Differing& by) {
    constexpr std::uint32_t one = unit * unit * unit * unit, enough = std::uint32_t(begins) * wide * wide * one;
    constexpr int reach = wide / 2;
    std::array<std::uint32_t, 256> power;
    for (std::uint32_t v = 0; v < power.size(); ++v) power[v] = std::min(v * v * v * v, enough + 1);
    const int width = by.width(), height = by.height();
    cv::Mat out(height, width, CV_8U);
    // The columns beside the edges are there twice, so that all sums are alike.
    const auto across = std::size_t(width) + 2 * reach;
    std::vector<std::uint32_t> rows(across * std::size_t(height)), sums(across);
    for (int y = 0; y < height; ++y) {
        std::uint32_t* row = rows.data() + std::size_t(y) * across;
        for (int x = -reach; x < width + reach; ++x)
            row[x + reach] = power[by.at(cv::borderInterpolate(x, width, cv::BORDER_REFLECT_101), y, 0)];
    }
    for (int y = 0; y < height; ++y) {
        std::fill(sums.begin(), sums.end(), 0);
        for (int d = -reach; d <= reach; ++d) {
            const int v = cv::borderInterpolate(y + d, height, cv::BORDER_REFLECT_101);
            const std::uint32_t* row = rows.data() + std::size_t(v) * across;
            for (std::size_t x = 0; x < across; ++x) sums[x] += row[x];
        }
        std::uint8_t* to = out.ptr<std::uint8_t>(y);
        for (std::size_t x = 0; x < std::size_t(width); ++x)
            to[x] = sums[x] + sums[x + 1] + sums[x + 2] + sums[x + 3] + sums[x + 4] > enough ? 1 : 0;
    }
    return out;
}

// 255 where the cut has a thing; `share` is what each pixel speaks for it.
cv::Mat cut(const cv::Mat& share) {
    const int width = share.cols, height = share.rows;
    cv::detail::GCGraph<float> graph(unsigned(width * height), unsigned(4 * width * height));
    for (int y = 0; y < height; ++y)
        for (int x = 0; x < width; ++x) {
            const int v = graph.addVtx();
            const float s = share.at<float>(y, x);
            graph.addTermWeights(v, std::max(0.0F, s), std::max(0.0F, -s));
            constexpr float across = 0.70710678F * border;
            if (x > 0) graph.addEdges(v, v - 1, border, border);
            if (y > 0) graph.addEdges(v, v - width, border, border);
            if (x > 0 && y > 0) graph.addEdges(v, v - width - 1, across, across);
            if (x + 1 < width && y > 0) graph.addEdges(v, v - width + 1, across, across);
        }
    graph.maxFlow();
    cv::Mat out(height, width, CV_8U);
    for (int y = 0; y < height; ++y)
        for (int x = 0; x < width; ++x) out.at<std::uint8_t>(y, x) = graph.inSourceSegment(y * width + x) ? 255 : 0;
    return out;
}

// Lenses and compression smear an edge over some pixels: takes off those at the border of the mask in which less than
// about half of what stands beside them is seen. `near_squares` is the mean over the nearest pixels.
void peel(cv::Mat& mask, const cv::Mat& near_squares) {
    constexpr int layers = 6;
    // Of the mean square over the nearest pixels, which just beside an edge is that of its own less than half covered
    // pixels and of none inside; where that is told by more than noise.
    constexpr float share = 0.20F, clear = 60;
    cv::Mat around_it;
    cv::dilate(near_squares, around_it, cv::getStructuringElement(cv::MORPH_RECT, {beside, beside}));
    const cv::Mat faint = (near_squares < share * around_it) & (around_it > clear);
    for (int i = 0; i < layers; ++i) {
        cv::Mat inner;
        cv::erode(mask, inner, cv::getStructuringElement(cv::MORPH_CROSS, {3, 3}), {-1, -1}, 1, cv::BORDER_REPLICATE);
        mask.setTo(0, mask & ~inner & faint);
    }
}

// 255 where a piece of the picture shows a thing; `inside` is 255 where the box is the piece's own. What lies around
// the box counts as it does in the whole picture.
cv::Mat thing_in(const Differing& by, const cv::Rect& box, const cv::Mat& inside) {
    constexpr int margin = beside / 2 + near / 2;
    const cv::Rect wider = grown_in(by, box, margin);
    const cv::Rect inner(box.tl() - wider.tl(), box.size());
    const cv::Mat squares = squares_in(by, wider);
    cv::Mat near_squares, over_near;
    cv::blur(squares, near_squares, {near, near}, {-1, -1}, cv::BORDER_REFLECT_101);
    cv::blur(cv::min(squares, most_of_one), over_near, {near, near}, {-1, -1}, cv::BORDER_REFLECT_101);
    cv::Mat share = cv::min(cv::max(over_near(inner) - edge, -most), most);
    share.setTo(-most, ~inside);
    cv::Mat mask = cv::Mat::zeros(wider.size(), CV_8U);
    cut(share).copyTo(mask(inner));
    peel(mask, near_squares);
    return mask(inner);
}

}  // namespace

double deviations_of(std::uint8_t differing) {
    const double root = differing / double(unit);
    return root * root;
}

std::vector<Thing> things_in(const Differing& by, std::size_t least) {
    const cv::Mat all_seeds = seeds_of(by);
    const cv::Rect seeded = cv::boundingRect(all_seeds);
    if (seeded.empty()) return {};
    // Nothing lies further out; from here on places are those in it.
    const cv::Rect looked = grown_in(by, seeded, around);
    const cv::Mat seeds = all_seeds(looked);
    // Pieces of picture around where things begin are cut one by one.
    cv::Mat near_seeds, labels, statistics, middles;
    constexpr int side = 2 * around + 1;
    cv::boxFilter(seeds, near_seeds, CV_16U, {side, side}, {-1, -1}, false, cv::BORDER_CONSTANT);
    const int count = cv::connectedComponentsWithStats(near_seeds > 0, labels, statistics, middles);
    cv::Mat mask = cv::Mat::zeros(seeds.size(), CV_8U);
    for (int i = 1; i < count; ++i) {
        const cv::Rect box(statistics.at<int>(i, cv::CC_STAT_LEFT), statistics.at<int>(i, cv::CC_STAT_TOP),
                           statistics.at<int>(i, cv::CC_STAT_WIDTH), statistics.at<int>(i, cv::CC_STAT_HEIGHT));
        const cv::Mat found = thing_in(by, box + looked.tl(), labels(box) == i);
        found.copyTo(mask(box), found);
    }
    const int things = cv::connectedComponentsWithStats(mask, labels, statistics, middles);
    std::vector<Thing> out;
    for (int i = 1; i < things; ++i) {
        const auto area = std::size_t(statistics.at<int>(i, cv::CC_STAT_AREA));
        if (area < least) continue;
        Thing thing;
        thing.box = {looked.x + statistics.at<int>(i, cv::CC_STAT_LEFT),
                     looked.y + statistics.at<int>(i, cv::CC_STAT_TOP), statistics.at<int>(i, cv::CC_STAT_WIDTH),
                     statistics.at<int>(i, cv::CC_STAT_HEIGHT)};
        thing.area = area;
        thing.middle = {looked.x + middles.at<double>(i, 0), looked.y + middles.at<double>(i, 1)};
        thing.mask = Raster8(thing.box.size(), 1);
        bool begins_here = false;
        double sum = 0;
        for (int y = 0; y < thing.box.height; ++y)
            for (int x = 0; x < thing.box.width; ++x) {
                const int u = thing.box.left + x, v = thing.box.top + y;
                if (labels.at<int>(v - looked.y, u - looked.x) != i) continue;
                thing.mask.at(x, y, 0) = 255;
                sum += std::sqrt(double(squares()[by.at(u, v, 0)]));
                begins_here = begins_here || all_seeds.at<std::uint8_t>(v, u) != 0;
            }
        thing.strength = sum / double(area);
        if (begins_here) out.push_back(std::move(thing));
    }
    std::stable_sort(out.begin(), out.end(), [](const Thing& a, const Thing& b) { return a.area > b.area; });
    return out;
}

}  // namespace bp
