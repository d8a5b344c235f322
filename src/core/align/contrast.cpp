#include "align/contrast.h"

#include <algorithm>
#include <opencv2/imgproc.hpp>

namespace bp {

cv::Mat local_contrast(const cv::Mat& brightness) {
    constexpr int around = 31;
    constexpr double faint = 0.012;  // of full scale
    cv::Mat smooth, mean, square, spread;
    cv::GaussianBlur(brightness, smooth, cv::Size(5, 5), 0);
    cv::blur(smooth, mean, cv::Size(around, around));
    smooth -= mean;
    cv::multiply(smooth, smooth, square);
    cv::blur(square, spread, cv::Size(around, around));
    spread += faint * faint;
    cv::sqrt(spread, spread);
    cv::divide(smooth, spread, smooth);
    return smooth;
}

std::vector<cv::Mat> halves(const cv::Mat& picture, int coarsest) {
    std::vector<cv::Mat> out{picture};
    while (std::min(out.back().cols, out.back().rows) / 2 >= coarsest) {
        const cv::Mat& last = out.back();
        const cv::Mat even = last(cv::Rect(0, 0, last.cols & ~1, last.rows & ~1));
        cv::Mat half;
        cv::resize(even, half, cv::Size(even.cols / 2, even.rows / 2), 0, 0, cv::INTER_AREA);
        out.push_back(half);
    }
    return out;
}

}  // namespace bp
