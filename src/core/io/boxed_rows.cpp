#include <algorithm>
#include <vector>

#include "io/readers.h"
#include "kernels/rows.h"

namespace bp::io {
namespace {

class BoxedRows final : public RowReader {
  public:
    BoxedRows(std::unique_ptr<RowReader> rows, int level) : rows_(std::move(rows)), unit_(1 << level) {
        facts_ = rows_->facts();
        size_ = at_level(rows_->size(), level);
        bits_ = 16;
        held_.resize(std::size_t(unit_) * rows_->row_bytes() / 2 + 1);
    }

    Status read(std::span<std::uint8_t* const> rows) override {
        auto* bytes = reinterpret_cast<std::uint8_t*>(held_.data());
        for (std::uint8_t* row : rows) {
            const int here = std::min(unit_, rows_->size().height - next_ * unit_);
            std::vector<std::uint8_t*> pointers;
            pointers.reserve(std::size_t(here));
            for (int i = 0; i < here; ++i) pointers.push_back(bytes + std::size_t(i) * rows_->row_bytes());
            Status got = rows_->read(pointers);
            if (!got.ok()) return got;
            auto* out = reinterpret_cast<std::uint16_t*>(row);
            if (rows_->bits() == 8)
                average(bytes, here, out);
            else
                average(held_.data(), here, out);
            ++next_;
        }
        return Done{};
    }

    std::size_t memory_bytes() const override { return rows_->memory_bytes() + held_.size() * sizeof(held_[0]); }

  private:
    template <class T>
    void average(const T* rows, int here, std::uint16_t* out) const {
        const int channels = facts_.channels;
        const int width = rows_->size().width;
        const std::size_t stride = std::size_t(width) * std::size_t(channels);
        for (int x = 0; x < size_.width; ++x)
            for (int c = 0; c < channels; ++c) {
                const int end = std::min((x + 1) * unit_, width);
                std::uint64_t sum = 0;
                for (int y = 0; y < here; ++y)
                    for (int u = x * unit_; u < end; ++u)
                        sum += kernels::to_16(
                            rows[std::size_t(y) * stride + std::size_t(u) * std::size_t(channels) + std::size_t(c)]);
                const auto n = std::uint64_t(here) * std::uint64_t(end - x * unit_);
                out[x * channels + c] = std::uint16_t((sum + n / 2) / n);
            }
    }

    std::unique_ptr<RowReader> rows_;
    int unit_;
    std::vector<std::uint16_t> held_;  // unit_ rows, aligned for either kind of sample
};

}  // namespace

std::unique_ptr<RowReader> boxed_rows(std::unique_ptr<RowReader> rows, int level) {
    return std::make_unique<BoxedRows>(std::move(rows), level);
}

}  // namespace bp::io
