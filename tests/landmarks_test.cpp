#include "kernels/landmarks.h"

#include <algorithm>
#include <array>
#include <catch2/catch.hpp>
#include <cmath>
#include <limits>
#include <opencv2/imgproc.hpp>
#include <random>
#include <vector>

#include "align/descent.h"
#include "kernels/change.h"
#include "kernels/contrast.h"
#include "support/fixtures.h"
#include "support/targets.h"
using namespace bp;

namespace {

constexpr float nowhere = std::numeric_limits<float>::quiet_NaN();

std::vector<kernels::Landmark> scattered(std::size_t count, Size size) {
    std::mt19937 random(7);
    std::uniform_real_distribution<float> share(0, 1);
    std::vector<kernels::Landmark> out;
    for (std::size_t i = 0; i < count; ++i)
        out.push_back({std::floor(share(random) * float(size.width)), std::floor(share(random) * float(size.height)),
                       share(random) * 2 - 1, share(random) - 0.5F, share(random) - 0.5F});
    return out;
}

// What is seen at landmarks and how it weighs: some are not seen, some weigh nothing.
struct Seen {
    std::vector<float> seen, weights;
    explicit Seen(const kernels::Landmarks& landmarks)
        : seen(landmarks.padded(), nowhere), weights(landmarks.padded()) {
        std::mt19937 random(11);
        std::uniform_real_distribution<float> share(0, 1);
        for (std::size_t i = 0; i < landmarks.size(); ++i) {
            if (i % 11 != 3) seen[i] = share(random) - 0.3F;
            weights[i] = i % 5 == 2 ? 0 : share(random);
        }
    }
};

const std::vector<std::size_t> counts{0, 1, 7, 8, 9, 203};

}  // namespace

TEST_CASE("local contrast is what differs from the surroundings, in deviations of these, up to every edge") {
    constexpr float faint = 0.01F;
    for (const Size size : {Size{100, 70}, Size{33, 90}, Size{5, 3}, Size{257, 33}, Size{1, 1}, Size{4, 50}}) {
        INFO(size.width << " x " << size.height);
        const Raster16 picture = test::landscape(size, {}, 3, 0.02);
        RasterF in(size, 1);
        for (int y = 0; y < size.height; ++y)
            for (int x = 0; x < size.width; ++x) in.at(x, y, 0) = float(picture.at(x, y, 1)) / 65535;
        const auto mirrored = [](int i, int count) {
            if (count == 1) return 0;
            while (i < 0 || i >= count) i = i < 0 ? -i : 2 * (count - 1) - i;
            return i;
        };
        const std::array<double, 5> weights{1 / 16.0, 4 / 16.0, 6 / 16.0, 4 / 16.0, 1 / 16.0};
        std::vector<double> smooth;
        for (int y = 0; y < size.height; ++y)
            for (int x = 0; x < size.width; ++x) {
                double sum = 0;
                for (std::size_t j = 0; j < 5; ++j)
                    for (std::size_t i = 0; i < 5; ++i)
                        sum += weights[j] * weights[i] *
                               double(in.at(mirrored(x + int(i) - 2, size.width), mirrored(y + int(j) - 2, size.height),
                                            0));
                smooth.push_back(sum);
            }
        const auto smooth_at = [&](int x, int y) {
            return smooth[std::size_t(y) * std::size_t(size.width) + std::size_t(x)];
        };
        const Size blocks{(size.width + 1) / 2, (size.height + 1) / 2};
        std::vector<double> mean, scale;
        for (int j = 0; j < blocks.height; ++j)
            for (int i = 0; i < blocks.width; ++i) {
                double n = 0, sum = 0, squares = 0;
                for (int v = std::max(0, 2 * (j - 7)); v <= std::min(size.height - 1, 2 * (j + 7) + 1); ++v)
                    for (int u = std::max(0, 2 * (i - 7)); u <= std::min(size.width - 1, 2 * (i + 7) + 1); ++u) {
                        const double s = smooth_at(u, v);
                        n += 1;
                        sum += s;
                        squares += s * s;
                    }
                mean.push_back(sum / n);
                scale.push_back(
                    1 / std::sqrt(std::max(0.0, squares / n - sum * sum / (n * n)) + double(faint) * double(faint)));
            }
        // A pixel lies a quarter of a block from the middle of its own.
        const auto between = [&](const std::vector<double>& of, int x, int y) {
            const auto at = [&](int i, int j) {
                return of[std::size_t(std::clamp(j, 0, blocks.height - 1)) * std::size_t(blocks.width) +
                          std::size_t(std::clamp(i, 0, blocks.width - 1))];
            };
            const int i = x / 2;
            const int j = y / 2;
            const int beside = i + (x % 2 == 0 ? -1 : 1);
            const int over = j + (y % 2 == 0 ? -1 : 1);
            return 0.75 * (0.75 * at(i, j) + 0.25 * at(beside, j)) +
                   0.25 * (0.75 * at(i, over) + 0.25 * at(beside, over));
        };
        test::on_every_target([&] {
            // What lies after the picture is not written to.
            constexpr float untouched = 1e9F;
            std::vector<float> out(std::size_t(size.width) * std::size_t(size.height) + 64, untouched);
            kernels::local_contrast(in.row(0), size.width, size.height, faint, out.data());
            double worst = 0;
            const float* at = out.data();
            for (int y = 0; y < size.height; ++y)
                for (int x = 0; x < size.width; ++x) {
                    const double right = (smooth_at(x, y) - between(mean, x, y)) * between(scale, x, y);
                    worst = std::max(worst, std::abs(right - double(*at++)));
                }
            CHECK(worst < 2e-3);
            CHECK(std::all_of(out.end() - 64, out.end(), [](float v) { return v == untouched; }));
        });
    }
}

TEST_CASE("a picture is looked up straight between pixels, and not beside it, on every instruction set") {
    const Size size{61, 40};
    constexpr std::size_t stride = 64;
    std::vector<float> picture(stride * std::size_t(size.height), 1e9F);  // beyond its edge is nothing to be seen
    for (int y = 0; y < size.height; ++y)
        for (int x = 0; x < size.width; ++x)
            picture[std::size_t(y) * stride + std::size_t(x)] = float(std::sin(x * 0.7) + std::cos(y * 1.1) * x / 50);
    const kernels::Sight sight{picture.data(), size.width, size.height, stride};
    std::array<double, 9> flat = Matrix::rigid(0.2, {30, 20}, 1.3, -2.6).m();
    flat[6] = 1e-4;
    flat[7] = -2e-4;
    const Matrix tilted(flat);
    for (const Matrix& matrix : {Matrix{}, Matrix::shift(3.25, -1.5), Matrix::rigid(0.1, {30, 20}, 0.4, 0.7), tilted})
        for (const std::size_t count : counts) {
            const std::vector<kernels::Landmark> list = scattered(count, size);
            const kernels::Landmarks landmarks(list);
            REQUIRE(landmarks.size() == count);
            test::on_every_target([&] {
                std::vector<float> seen(landmarks.padded(), 5);
                kernels::look_up(landmarks, sight, matrix, seen.data());
                for (std::size_t i = 0; i < landmarks.padded(); ++i) {
                    const Point p = i < count ? matrix({list[i].x, list[i].y}) : Point{-1, -1};
                    const bool inside = p.x >= 0 && p.y >= 0 && p.x < size.width - 1 && p.y < size.height - 1;
                    REQUIRE(std::isnan(seen[i]) == !inside);
                    if (!inside) continue;
                    const int x = int(p.x);
                    const int y = int(p.y);
                    const auto at = [&](int dx, int dy) {
                        return double(picture[std::size_t(y + dy) * stride + std::size_t(x + dx)]);
                    };
                    const double u = p.x - x;
                    const double v = p.y - y;
                    const double right =
                        (at(0, 0) * (1 - u) + at(1, 0) * u) * (1 - v) + (at(0, 1) * (1 - u) + at(1, 1) * u) * v;
                    REQUIRE(double(seen[i]) == Approx(right).margin(1e-6));
                }
            });
        }
}

TEST_CASE("sums over landmarks leave out what is not seen, on every instruction set") {
    for (const std::size_t count : counts) {
        const std::vector<kernels::Landmark> list = scattered(count, {900, 700});
        const kernels::Landmarks landmarks(list);
        const Seen at(landmarks);
        kernels::TieSums right;
        for (std::size_t i = 0; i < count; ++i) {
            if (std::isnan(at.seen[i])) continue;
            const double w = at.weights[i];
            const double t = list[i].value;
            const double s = at.seen[i];
            right.n += 1;
            right.w += w;
            right.t += w * t;
            right.i += w * s;
            right.tt += w * t * t;
            right.ii += w * s * s;
            right.ti += w * t * s;
        }
        test::on_every_target([&] {
            const kernels::TieSums sums = kernels::tie_sums(landmarks, at.seen.data(), at.weights.data());
            CHECK(sums.n == right.n);
            CHECK(sums.w == Approx(right.w));
            CHECK(sums.t == Approx(right.t));
            CHECK(sums.i == Approx(right.i));
            CHECK(sums.tt == Approx(right.tt));
            CHECK(sums.ii == Approx(right.ii));
            CHECK(sums.ti == Approx(right.ti));
            std::vector<float> weights(landmarks.padded(), 9);
            constexpr double gain = 1.2, offset = 0.1, reach = 0.8;
            kernels::biweights(landmarks, at.seen.data(), gain, offset, reach, weights.data());
            for (std::size_t i = 0; i < landmarks.padded(); ++i) {
                const double u = i < count ? (double(list[i].value) - gain * double(at.seen[i]) - offset) / reach : 2;
                const double weight = std::abs(u) < 1 ? (1 - u * u) * (1 - u * u) : 0;  // also where nothing is seen
                REQUIRE(double(weights[i]) == Approx(weight).margin(1e-6));
            }
        });
    }
}

TEST_CASE("normal equations are those of shift, turn, scale and tilt, on every instruction set") {
    const Point middle{450, 350};
    constexpr double radius = 450;
    for (const std::size_t count : counts)
        for (const std::size_t parameters : {2U, 3U, 4U, 8U}) {
            const std::vector<kernels::Landmark> list = scattered(count, {900, 700});
            const kernels::Landmarks landmarks(list);
            const Seen at(landmarks);
            const std::size_t unknowns = parameters + 2;
            kernels::NormalSums right;
            for (std::size_t i = 0; i < count; ++i) {
                if (std::isnan(at.seen[i])) continue;
                const double u = (double(list[i].x) - middle.x) / radius;
                const double v = (double(list[i].y) - middle.y) / radius;
                const double dx = list[i].dx;
                const double dy = list[i].dy;
                std::vector<double> row{dx,
                                        dy,
                                        dy * u - dx * v,
                                        dx * u + dy * v,
                                        dx * u - dy * v,
                                        dx * v + dy * u,
                                        (dx * u + dy * v) * u,
                                        (dx * u + dy * v) * v};
                row.resize(parameters);
                row.push_back(-double(at.seen[i]));
                row.push_back(-1);
                for (std::size_t a = 0; a < unknowns; ++a) {
                    right.right[a] -= double(at.weights[i]) * row[a] * double(list[i].value);
                    for (std::size_t b = a; b < unknowns; ++b)
                        right.square[a][b] += double(at.weights[i]) * row[a] * row[b];
                }
            }
            test::on_every_target([&] {
                const kernels::NormalSums sums =
                    kernels::normal_sums(parameters, landmarks, at.seen.data(), at.weights.data(), middle, radius);
                for (std::size_t a = 0; a < unknowns; ++a) {
                    CHECK(sums.right[a] == Approx(right.right[a]).margin(1e-9));
                    for (std::size_t b = a; b < unknowns; ++b)
                        CHECK(sums.square[a][b] == Approx(right.square[a][b]).margin(1e-9));
                }
            });
        }
}

TEST_CASE("change from pixel to pixel is that of the smoothed picture, up to every edge, on every instruction set") {
    for (const cv::Size size : {cv::Size(100, 70), cv::Size(33, 90), cv::Size(5, 3), cv::Size(257, 33), cv::Size(1, 1),
                                cv::Size(2, 2), cv::Size(4, 50), cv::Size(50, 1)}) {
        INFO(size.width << " x " << size.height);
        cv::Mat picture(size, CV_32F);
        std::mt19937 random(5);
        std::uniform_real_distribution<float> share(0, 1);
        for (float& v : cv::Mat_<float>(picture)) v = share(random);
        cv::Mat smooth, dx, dy;
        cv::GaussianBlur(picture, smooth, cv::Size(5, 5), 0);
        cv::Sobel(smooth, dx, CV_64F, 1, 0, 3, 0.125);
        cv::Sobel(smooth, dy, CV_64F, 0, 1, 3, 0.125);
        const double right = dx.dot(dx) + dy.dot(dy);
        test::on_every_target([&] {
            CHECK(kernels::squared_change(picture.ptr<float>(), size.width, size.height) ==
                  Approx(right).epsilon(1e-5).margin(1e-12));
        });
    }
}

TEST_CASE("landmarks are the places of every block of the picture that change most, up to a share of their number") {
    constexpr std::size_t most = 16 * 12 * 40;
    const cv::Size size(408, 308);
    cv::Mat contrast(size, CV_32F);
    std::mt19937 random(3);
    std::normal_distribution<float> noise(0, 1);
    for (int y = 0; y < size.height; ++y)
        for (int x = 0; x < size.width; ++x)
            // Loud, faint, and too faint to tell anything, from left to right.
            contrast.at<float>(y, x) = noise(random) * (x < 150 ? 1.0F : x < 300 ? 0.05F : 1e-4F);
    cv::Mat dx, dy;
    cv::Sobel(contrast, dx, CV_32F, 1, 0, 3, 0.125);
    cv::Sobel(contrast, dy, CV_32F, 0, 1, 3, 0.125);
    cv::Mat trust(size, CV_32F, cv::Scalar(1));
    trust(cv::Rect(0, 0, size.width, 29)).setTo(0);

    const kernels::Landmarks landmarks = landmarks_of(contrast, trust, most);
    cv::Mat chosen = cv::Mat::zeros(size, CV_8U);
    for (std::size_t i = 0; i < landmarks.size(); ++i) {
        const int x = int(landmarks.x()[i]);
        const int y = int(landmarks.y()[i]);
        chosen.at<std::uint8_t>(y, x) = 1;
        CHECK(landmarks.value()[i] == contrast.at<float>(y, x));
        CHECK(landmarks.dx()[i] == dx.at<float>(y, x));
        CHECK(landmarks.dy()[i] == dy.at<float>(y, x));
    }
    constexpr int border = 4;
    constexpr int block = 25;
    for (int top = border; top < size.height - border; top += block)
        for (int left = border; left < size.width - border; left += block) {
            INFO("block at " << left << ", " << top);
            std::vector<float> taken, left_out;
            for (int y = top; y < top + block; ++y)
                for (int x = left; x < left + block; ++x) {
                    const float change = std::hypot(dx.at<float>(y, x), dy.at<float>(y, x));
                    (chosen.at<std::uint8_t>(y, x) != 0 ? taken : left_out).push_back(change);
                }
            if (top == border || left + block > 310) {
                CHECK(taken.empty());
                continue;
            }
            if (left + block <= 150) CHECK(taken.size() == 40);
            CHECK(taken.size() <= 40);
            if (taken.size() == 40)
                CHECK(*std::min_element(taken.begin(), taken.end()) >
                      *std::max_element(left_out.begin(), left_out.end()));
        }
}
