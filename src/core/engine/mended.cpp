#include "engine/mended.h"

#include <algorithm>

namespace bp {
namespace {

class MendedRows final : public FrameRows {
  public:
    MendedRows(std::unique_ptr<FrameRows> rows, SharedHotPixels pixels, int channels, kernels::Span columns, int height)
        : rows_(std::move(rows)),
          pixels_(std::move(pixels)),
          channels_(channels),
          left_(columns.begin),
          columns_(std::max(0, columns.end - columns.begin)),
          height_(std::max(1, height)),
          narrow_(rows_->bits() == 8 ? std::size_t(height_) * stride() : 0),
          wide_(rows_->bits() == 8 ? 0 : std::size_t(height_) * stride()) {}

    Size size() const override { return rows_->size(); }
    int bits() const override { return rows_->bits(); }
    int left() const override { return left_; }

    Status require(int first, int last) override {
        const int end = std::min(last, size().height);
        next_ = std::max(next_, first);
        if (next_ >= end) return Done{};
        Status got = rows_->require(std::max(0, next_ - 1), std::min(end + 1, size().height));
        if (!got.ok()) return got;
        for (; next_ < end; ++next_) {
            if (bits() == 8)
                mend<std::uint8_t>([this](int v) { return rows_->row(v).narrow + skipped(); }, slot(narrow_, next_));
            else
                mend<std::uint16_t>([this](int v) { return rows_->row(v).wide + skipped(); }, slot(wide_, next_));
        }
        return Done{};
    }

    SourceRow row(int y) const override {
        if (bits() == 8) return {narrow_.data() + offset(y), nullptr};
        return {nullptr, wide_.data() + offset(y)};
    }

  private:
    std::size_t stride() const { return std::size_t(columns_) * std::size_t(channels_); }
    std::size_t offset(int y) const { return std::size_t(y % height_) * stride(); }
    std::ptrdiff_t skipped() const { return std::ptrdiff_t(left_ - rows_->left()) * channels_; }
    template <class T>
    T* slot(std::vector<T>& memory, int y) {
        return memory.data() + offset(y);
    }
    template <class T, class Row>
    void mend(const Row& row, T* out) {
        std::copy_n(row(next_), stride(), out);
        mend_row(*pixels_, next_, left_, columns_, size().height, channels_, row, out);
    }

    std::unique_ptr<FrameRows> rows_;
    SharedHotPixels pixels_;
    int channels_;
    int left_, columns_;
    int height_;
    int next_ = 0;
    std::vector<std::uint8_t> narrow_;
    std::vector<std::uint16_t> wide_;
};

}  // namespace

std::unique_ptr<FrameRows> mended_rows(std::unique_ptr<FrameRows> rows, SharedHotPixels pixels, int channels,
                                       kernels::Span columns, int height) {
    return std::make_unique<MendedRows>(std::move(rows), std::move(pixels), channels, columns, height);
}

}  // namespace bp
