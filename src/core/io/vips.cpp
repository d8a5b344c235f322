#include "io/vips.h"

#include <dlfcn.h>

#include <algorithm>
#include <cstdio>
#include <cstring>
#include <vector>

namespace bp::io {

// NOLINTNEXTLINE(bugprone-macro-parentheses)
#define BP_VIPS_DEFINE(name) decltype(&::name) name = nullptr;
BP_VIPS_FUNCTIONS(BP_VIPS_DEFINE)
#undef BP_VIPS_DEFINE

namespace {

constexpr std::size_t buffer_bytes = std::size_t(64) << 10;

// Where a source of the library stands in its file, with the bytes around.
struct Cursor {
    FileBytes bytes;
    std::uint64_t at = 0;
    std::uint64_t held_from = 0;
    std::vector<std::uint8_t> held;
};

// False when the file cannot be read.
bool hold_around(Cursor& cursor) {
    if (cursor.at >= cursor.held_from && cursor.at < cursor.held_from + cursor.held.size()) return true;
    cursor.held.resize(buffer_bytes);
    const Result<std::size_t> got = cursor.bytes.read(cursor.at, cursor.held);
    cursor.held.resize(got.ok() ? got.value() : 0);
    cursor.held_from = cursor.at;
    return got.ok();
}

// Gives all that is asked for unless the file ends: some readers behind the library take less for the end. A file that
// cannot be read any more ends here, and FileBytes knows why: libtiff 4.5 takes a -1 for a count of bytes and clears
// memory from one before its buffer on.
gint64 on_read(VipsSourceCustom*, void* out, gint64 count, Cursor* cursor) {
    std::size_t done = 0;
    while (done < std::size_t(count)) {
        if (!hold_around(*cursor)) break;
        const std::size_t from = std::size_t(cursor->at - cursor->held_from);
        if (from >= cursor->held.size()) break;
        const std::size_t here = std::min(std::size_t(count) - done, cursor->held.size() - from);
        std::memcpy(static_cast<std::uint8_t*>(out) + done, cursor->held.data() + from, here);
        cursor->at += here;
        done += here;
    }
    return gint64(done);
}

gint64 on_seek(VipsSourceCustom*, gint64 offset, int whence, Cursor* cursor) {
    gint64 base = 0;
    if (whence == SEEK_CUR) base = gint64(cursor->at);
    if (whence == SEEK_END) base = gint64(cursor->bytes.size());
    if (base + offset < 0) return -1;
    cursor->at = std::uint64_t(base + offset);
    return gint64(cursor->at);
}

}  // namespace

Source vips_source(const FileBytes& bytes) {
    VipsSourceCustom* source = vips_source_custom_new();
    auto* cursor = new Cursor{bytes, 0, 0, {}};
    g_signal_connect(source, "read", G_CALLBACK(on_read), cursor);
    g_signal_connect(source, "seek", G_CALLBACK(on_seek), cursor);
    g_object_weak_ref(
        G_OBJECT(source), [](gpointer data, GObject*) { delete static_cast<Cursor*>(data); }, cursor);
    return Source(VIPS_SOURCE(source));
}

namespace {

// False when the library, or one of the functions, is not there.
bool load_vips() {
    void* library = ::dlopen(BRIGHT_PILE_VIPS, RTLD_NOW | RTLD_LOCAL);
    if (!library) return false;
    bool all = true;
#define BP_VIPS_FIND(name)                                                 \
    (name) = reinterpret_cast<decltype(&::name)>(::dlsym(library, #name)); \
    all = all && (name);
    BP_VIPS_FUNCTIONS(BP_VIPS_FIND)
#undef BP_VIPS_FIND
    return all;
}

}  // namespace

Status start_vips() {
    static const bool started = [] {
        if (!load_vips() || vips_init("bright-pile") != 0) return false;
        // A file may change on disk between two reads; the operation cache would not notice.
        vips_cache_set_max(0);
        g_log_set_handler(
            "VIPS", G_LOG_LEVEL_WARNING, [](const char*, GLogLevelFlags, const char*, void*) {}, nullptr);
        return true;
    }();
    if (started) return Done{};
    return Failure{Fault::input,
                   "",
                   {"This kind of picture needs %1, which does not start. Install Bright Pile again.",
                    {std::string(BRIGHT_PILE_VIPS)}}};
}

}  // namespace bp::io
