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
constexpr int wide = 5, near = 3;
constexpr float begins = 5, most_of_one = 4, edge = most_of_one / 2;
// What a border between two pixels costs beside their own shares, which are held to `most`.
constexpr float border = 0.20F, most = 2;
// Things lie within a piece of picture that is grown by so many pixels around where they begin.
constexpr int around = 24;

constexpr float unit = 16;  // of a Differing, for the root of one deviation

cv::Mat squares_of(const Differing& by) {
    std::array<float, 256> squares;
    for (std::size_t v = 0; v < squares.size(); ++v) squares[v] = float(std::pow(deviations_of(std::uint8_t(v)), 2));
    cv::Mat out(by.height(), by.width(), CV_32F);
    for (int y = 0; y < by.height(); ++y)
        for (int x = 0; x < by.width(); ++x) out.at<float>(y, x) = squares[by.at(x, y, 0)];
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
// about half of what stands beside them is seen.
void peel(cv::Mat& mask, const cv::Mat& squares) {
    constexpr int layers = 6, beside = 7;
    // Of the mean square over the nearest pixels, which just beside an edge is that of its own less than half covered
    // pixels and of none inside; where that is told by more than noise.
    constexpr float share = 0.20F, clear = 60;
    cv::Mat around_it;
    cv::dilate(squares, around_it, cv::getStructuringElement(cv::MORPH_RECT, {beside, beside}));
    const cv::Mat faint = (squares < share * around_it) & (around_it > clear);
    for (int i = 0; i < layers; ++i) {
        cv::Mat inner;
        cv::erode(mask, inner, cv::getStructuringElement(cv::MORPH_CROSS, {3, 3}), {-1, -1}, 1, cv::BORDER_REPLICATE);
        mask.setTo(0, mask & ~inner & faint);
    }
}

}  // namespace

std::uint8_t differing(const std::uint16_t* pixel, const std::uint16_t* usual, const float* deviation, int channels) {
    float sum = 0;
    for (int c = 0; c < channels; ++c) {
        const float d = float(int(pixel[c]) - int(usual[c])) / deviation[c];
        sum += d * d;
    }
    return std::uint8_t(std::min(255.0F, unit * std::sqrt(std::sqrt(sum / float(channels))) + 0.5F));
}

double deviations_of(std::uint8_t differing) {
    const double root = differing / double(unit);
    return root * root;
}

std::vector<Thing> things_in(const Differing& by, std::size_t least) {
    const cv::Mat squares = squares_of(by);
    cv::Mat over_wide, over_near;
    cv::blur(squares, over_wide, {wide, wide}, {-1, -1}, cv::BORDER_REFLECT_101);
    cv::blur(cv::min(squares, most_of_one), over_near, {near, near}, {-1, -1}, cv::BORDER_REFLECT_101);
    cv::Mat over_near_whole;
    cv::blur(squares, over_near_whole, {near, near}, {-1, -1}, cv::BORDER_REFLECT_101);
    const cv::Mat seeds = over_wide > begins;
    cv::Mat share = cv::min(cv::max(over_near - edge, -most), most);
    // Pieces of picture around where things begin are cut one by one.
    cv::Mat pieces, joined;
    cv::dilate(seeds, joined, cv::getStructuringElement(cv::MORPH_RECT, {2 * around + 1, 2 * around + 1}));
    cv::Mat labels, statistics, middles;
    const int count = cv::connectedComponentsWithStats(joined, labels, statistics, middles);
    cv::Mat mask = cv::Mat::zeros(squares.size(), CV_8U);
    for (int i = 1; i < count; ++i) {
        const cv::Rect box(statistics.at<int>(i, cv::CC_STAT_LEFT), statistics.at<int>(i, cv::CC_STAT_TOP),
                           statistics.at<int>(i, cv::CC_STAT_WIDTH), statistics.at<int>(i, cv::CC_STAT_HEIGHT));
        cv::Mat own = share(box).clone();
        own.setTo(-most, labels(box) != i);
        cv::Mat found = cut(own);
        found.copyTo(mask(box), found);
    }
    peel(mask, over_near_whole);
    const int things = cv::connectedComponentsWithStats(mask, labels, statistics, middles);
    std::vector<Thing> out;
    for (int i = 1; i < things; ++i) {
        const auto area = std::size_t(statistics.at<int>(i, cv::CC_STAT_AREA));
        if (area < least) continue;
        Thing thing;
        thing.box = {statistics.at<int>(i, cv::CC_STAT_LEFT), statistics.at<int>(i, cv::CC_STAT_TOP),
                     statistics.at<int>(i, cv::CC_STAT_WIDTH), statistics.at<int>(i, cv::CC_STAT_HEIGHT)};
        thing.area = area;
        thing.middle = {middles.at<double>(i, 0), middles.at<double>(i, 1)};
        thing.mask = Raster8(thing.box.size(), 1);
        bool begins_here = false;
        double sum = 0;
        for (int y = 0; y < thing.box.height; ++y)
            for (int x = 0; x < thing.box.width; ++x) {
                const int u = thing.box.left + x, v = thing.box.top + y;
                if (labels.at<int>(v, u) != i) continue;
                thing.mask.at(x, y, 0) = 255;
                sum += std::sqrt(double(squares.at<float>(v, u)));
                begins_here = begins_here || seeds.at<std::uint8_t>(v, u) != 0;
            }
        thing.strength = sum / double(area);
        if (begins_here) out.push_back(std::move(thing));
    }
    std::stable_sort(out.begin(), out.end(), [](const Thing& a, const Thing& b) { return a.area > b.area; });
    return out;
}

}  // namespace bp
