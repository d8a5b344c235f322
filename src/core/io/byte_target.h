// Where a library of ours puts the bytes of a file.
#pragma once

#include <cstdint>

namespace bp::io {

// write() and seek() give false when that fails.
class ByteTarget {
  public:
    virtual ~ByteTarget() = default;
    virtual bool write(const char* bytes, int count) = 0;
    virtual bool seek(std::uint64_t to) = 0;
    virtual std::uint64_t place() = 0;
};

}  // namespace bp::io
