// Capture data in a picture's file.
#include "io/capture.h"

#include "file_of.h"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* bytes, std::size_t size) {
    using namespace bp;
    const CaptureData data = read_capture(fuzz::file_of(bytes, size, ".picture"));
    (void)encode_capture(data);
    if (data.captured) (void)time_text(*data.captured);
    return 0;
}
