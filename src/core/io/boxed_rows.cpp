#include <algorithm>
#include <vector>

#include "io/readers.h"
#include "kernels/box.h"

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
        for (std::uint8_t* row : rows) {
            const int here = std::min(unit_, rows_->size().height - next_ * unit_);
            pointers_.clear();
            for (int i = 0; i < here; ++i)
                pointers_.push_back(reinterpret_cast<std::uint8_t*>(held_.data()) +
                                    std::size_t(i) * rows_->row_bytes());
            Status got = rows_->read(pointers_);
            if (!got.ok()) return got;
            average(reinterpret_cast<std::uint16_t*>(row));
            ++next_;
        }
        return Done{};
    }

    bool whole() const override { return rows_->whole(); }
    std::size_t memory_bytes() const override { return rows_->memory_bytes() + held_.size() * sizeof(held_[0]); }

  private:
    void average(std::uint16_t* out) const {
        const int width = rows_->size().width;
        if (rows_->bits() == 8) {
            const std::vector<const std::uint8_t*> rows(pointers_.begin(), pointers_.end());
            kernels::box_row(rows, width, facts_.channels, unit_, out);
            return;
        }
        std::vector<const std::uint16_t*> rows;
        for (const std::uint8_t* row : pointers_) rows.push_back(reinterpret_cast<const std::uint16_t*>(row));
        kernels::box_row(rows, width, facts_.channels, unit_, out);
    }

    std::unique_ptr<RowReader> rows_;
    int unit_;
    std::vector<std::uint16_t> held_;  // unit_ rows, aligned for either kind of sample
    std::vector<std::uint8_t*> pointers_;
};

}  // namespace

std::unique_ptr<RowReader> boxed_rows(std::unique_ptr<RowReader> rows, int level) {
    return std::make_unique<BoxedRows>(std::move(rows), level);
}

}  // namespace bp::io
