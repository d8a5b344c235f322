// Clips: header and the first frames.
#include "io/clip.h"

#include "file_of.h"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* bytes, std::size_t size) {
    using namespace bp;
    constexpr double largest_area = 4e6;  // larger ones only cost time
    const auto file = fuzz::file_of(bytes, size, ".avi");
    const Result<ClipFacts> facts = probe_clip(file);
    if (!facts.ok() || double(facts.value().size.width) * facts.value().size.height > largest_area) return 0;
    Job job;
    (void)unroll_clip(file, {0, 2}, job);
    return 0;
}
