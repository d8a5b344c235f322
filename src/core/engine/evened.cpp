#include "engine/evened.h"

#include <algorithm>

namespace bp {
namespace {

class EvenedRows final : public FrameRows {
  public:
    EvenedRows(std::unique_ptr<FrameRows> rows, SharedEvener evener, int channels, kernels::Span columns, int height)
        : rows_(std::move(rows)),
          evener_(std::move(evener)),
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
            if (row.narrow)
                evener_->run(row.narrow + skipped, std::size_t(columns_), slot(next_));
            else
                evener_->run(row.wide + skipped, std::size_t(columns_), slot(next_));
        }
        return Done{};
    }

    SourceRow row(int y) const override { return {nullptr, memory_.data() + std::size_t(y % height_) * stride()}; }

  private:
    std::size_t stride() const { return std::size_t(columns_) * std::size_t(channels_); }
    std::uint16_t* slot(int y) { return memory_.data() + std::size_t(y % height_) * stride(); }

    std::unique_ptr<FrameRows> rows_;
    SharedEvener evener_;
    int channels_;
    int left_, columns_;
    int height_;
    int next_ = 0;
    std::vector<std::uint16_t> memory_;
};

}  // namespace

SharedEvener Eveners::of(const Frame& frame, int bits) {
    const Look look = look_of(pile_, frame);
    const std::array<double, 3> gains = gains_of(pile_, frame);
    if (look == Look{} && gains == std::array<double, 3>{1, 1, 1}) return nullptr;
    auto tone = std::find_if(tones_.begin(), tones_.end(), [&](const SharedTone& t) { return t.look() == look; });
    if (tone == tones_.end()) tone = tones_.insert(tones_.end(), SharedTone(look, pile_.profile, pile_.channels));
    return std::make_shared<const Evener>(*tone, gains, pile_.channels, bits);
}

std::unique_ptr<FrameRows> evened_rows(std::unique_ptr<FrameRows> rows, SharedEvener evener, int channels,
                                       kernels::Span columns, int height) {
    return std::make_unique<EvenedRows>(std::move(rows), std::move(evener), channels, columns, height);
}

}  // namespace bp
