#include "io/vips.h"

#include <algorithm>
#include <mutex>

namespace bp::io {

void start_vips() {
    static std::once_flag once;
    std::call_once(once, [] {
        if (VIPS_INIT("bright-pile") != 0) vips_error_exit("libvips does not start");
        // A file may change on disk between two reads; the operation cache would not notice.
        vips_cache_set_max(0);
        g_log_set_handler(
            "VIPS", G_LOG_LEVEL_WARNING, [](const char*, GLogLevelFlags, const char*, void*) {}, nullptr);
    });
}

std::string vips_words() {
    std::string words = vips_error_buffer();
    vips_error_clear();
    std::replace(words.begin(), words.end(), '\n', ' ');
    while (!words.empty() && words.back() == ' ') words.pop_back();
    return words;
}

}  // namespace bp::io
