#include "base/memory.h"

#include <cstdlib>

#ifdef __GLIBC__
#include <malloc.h>
#endif

namespace bp {

void keep_freed_memory() {
#ifdef __GLIBC__
    constexpr int largest_kept = 32 << 20;  // more is not allowed
    constexpr int most_kept = 64 << 20;     // at the end of what is in use
    mallopt(M_MMAP_THRESHOLD, largest_kept);
    mallopt(M_TRIM_THRESHOLD, most_kept);
#endif
}

}  // namespace bp
