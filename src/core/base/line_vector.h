// Vectors whose memory begins at a line of the cache: what is read and written in whole lines then touches each once.
#pragma once

#include <cstddef>
#include <new>
#include <vector>

namespace bp {

constexpr std::size_t cache_line = 64;  // bytes

// The least number of values that is `count` or more and fills whole lines.
template <class T>
constexpr std::size_t in_whole_lines(std::size_t count) {
    constexpr std::size_t line = cache_line / sizeof(T);
    return (count + line - 1) / line * line;
}

template <class T>
struct LineAllocator {
    using value_type = T;

    LineAllocator() = default;
    template <class U>
    // NOLINTNEXTLINE(google-explicit-constructor): containers convert it to allocators of their own parts
    LineAllocator(const LineAllocator<U>&) {}

    T* allocate(std::size_t count) {
        return static_cast<T*>(::operator new(count * sizeof(T), std::align_val_t(cache_line)));
    }
    void deallocate(T* memory, std::size_t) { ::operator delete(memory, std::align_val_t(cache_line)); }

    friend bool operator==(const LineAllocator&, const LineAllocator&) { return true; }
};

template <class T>
using LineVector = std::vector<T, LineAllocator<T>>;

}  // namespace bp
