#include "engine/changed_rows.h"

#include <algorithm>
#include <vector>

namespace bp {
namespace {

class ChangedRows final : public FrameRows {
  public:
    ChangedRows(std::unique_ptr<FrameRows> rows, ChangeRow change, int channels, kernels::Span columns, int height)
        : rows_(std::move(rows)),
          change_(std::move(change)),
          channels_(channels),
          left_(columns.begin),
          columns_(std::max(0, columns.end - columns.begin)),
          height_(std::max(1, height)),
          memory_(std::size_t(height_) * stride()) {}

    Size size() const override { return rows_->size(); }
    int bits() const override { return 16; }
    int left() const override { return left_; }

    Status require(int first, int last) override {
        const int end = std::min(last, size().height);
        next_ = std::max(next_, first);
        // Rows that are there already are not asked for again: those below may have been let go.
        Status got = rows_->require(std::min(next_, end), end);
        if (!got.ok()) return got;
        const std::ptrdiff_t skipped = std::ptrdiff_t(left_ - rows_->left()) * channels_;
        for (; next_ < end; ++next_) {
            const SourceRow row = rows_->row(next_);
            const SourceRow from{row.narrow ? row.narrow + skipped : nullptr, row.wide ? row.wide + skipped : nullptr};
            change_(next_, from, slot(next_));
        }
        return Done{};
    }

    SourceRow row(int y) const override { return {nullptr, memory_.data() + std::size_t(y % height_) * stride()}; }

  private:
    std::size_t stride() const { return std::size_t(columns_) * std::size_t(channels_); }
    std::uint16_t* slot(int y) { return memory_.data() + std::size_t(y % height_) * stride(); }

    std::unique_ptr<FrameRows> rows_;
    ChangeRow change_;
    int channels_;
    int left_, columns_;
    int height_;
    int next_ = 0;
    std::vector<std::uint16_t> memory_;
};

}  // namespace

std::unique_ptr<FrameRows> changed_rows(std::unique_ptr<FrameRows> rows, ChangeRow change, int channels,
                                        kernels::Span columns, int height) {
    return std::make_unique<ChangedRows>(std::move(rows), std::move(change), channels, columns, height);
}

}  // namespace bp
