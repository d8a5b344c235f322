// Loaders take files, fuzzers give bytes.
#pragma once

#include <unistd.h>

#include <cstdint>
#include <cstdio>
#include <filesystem>
#include <string>

namespace bp::fuzz {

// A file in memory with these bytes; the same name every time.
inline std::filesystem::path file_of(const std::uint8_t* bytes, std::size_t size, const char* ending) {
    const std::filesystem::path path = "/dev/shm/bright-pile-fuzz-" + std::to_string(::getpid()) + ending;
    std::FILE* file = std::fopen(path.c_str(), "wb");
    if (!file) return path;
    std::fwrite(bytes, 1, size, file);
    std::fclose(file);
    return path;
}

}  // namespace bp::fuzz
