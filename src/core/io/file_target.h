// A file that a library writes in many small pieces: they go to the disk together.
#pragma once

#include <vector>

#include "base/output.h"
#include "io/byte_target.h"

namespace bp::io {

class FileTarget final : public ByteTarget {
  public:
    // It must live as long.
    explicit FileTarget(Output& output) : output_(output) {}
    bool write(const char* bytes, int count) override {
        waiting_.insert(waiting_.end(), bytes, bytes + count);
        constexpr std::size_t enough = std::size_t(1) << 20;
        return waiting_.size() < enough || flush();
    }
    bool seek(std::uint64_t to) override { return flush() && ::lseek(output_.fd, off_t(to), SEEK_SET) >= 0; }
    std::uint64_t place() override { return std::uint64_t(::lseek(output_.fd, 0, SEEK_CUR)) + waiting_.size(); }
    bool flush() {
        const auto count = std::int64_t(waiting_.size());
        const bool well = count == 0 || output_.write(waiting_.data(), count) == count;
        waiting_.clear();
        return well;
    }

  private:
    Output& output_;
    std::vector<char> waiting_;
};

}  // namespace bp::io
