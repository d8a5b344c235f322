#include "align/contrast.h"

#include <algorithm>
#include <opencv2/imgproc.hpp>

#include "kernels/contrast.h"

namespace bp {

cv::Mat local_contrast(const cv::Mat& brightness) {
    constexpr float faint = 0.012F;  // of full scale
    const cv::Mat in = brightness.isContinuous() ? brightness : brightness.clone();
    cv::Mat out(in.size(), CV_32F);
    kernels::local_contrast(in.ptr<float>(), in.cols, in.rows, faint, out.ptr<float>());
    return out;
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

kernels::Sight sight_of(const cv::Mat& picture) {
    return {picture.ptr<float>(), picture.cols, picture.rows, picture.step1()};
}

}  // namespace bp
