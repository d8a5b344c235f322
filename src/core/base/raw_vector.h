// Vectors of numbers that are not set to 0 before something is written to them.
#pragma once

#include <memory>
#include <new>
#include <utility>
#include <vector>

namespace bp {

template <class T>
struct RawAllocator : std::allocator<T> {
    template <class U>
    struct rebind {
        using other = RawAllocator<U>;
    };
    template <class U>
    void construct(U* at) {
        ::new (static_cast<void*>(at)) U;
    }
    template <class U, class... Values>
    void construct(U* at, Values&&... values) {
        ::new (static_cast<void*>(at)) U(std::forward<Values>(values)...);
    }
};

// What resize() adds is undefined until it is written.
template <class T>
using RawVector = std::vector<T, RawAllocator<T>>;

}  // namespace bp
