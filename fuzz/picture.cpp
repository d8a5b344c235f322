// Pictures: header, orientation, profile and all rows, at any level. Built twice: for pictures, and for raw files
// files, which are told by their ending.
#include <vector>

#include "file_of.h"
#include "io/reader.h"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* bytes, std::size_t size) {
    using namespace bp;
    constexpr double largest_area = 4e6;  // larger ones only cost time
    if (size == 0) return 0;
    const auto file = fuzz::file_of(bytes, size, BRIGHT_PILE_ENDING);
    const int level = bytes[size - 1] % 5;
    const Result<PictureFacts> facts = probe_picture(file);
    if (!facts.ok() || double(facts.value().size.width) * facts.value().size.height > largest_area) return 0;
    const auto reader = RowReader::open(file, level);
    if (!reader.ok()) return 0;
    RowReader& rows = *reader.value();
    std::vector<std::uint16_t> memory(rows.row_bytes() * 8 / 2 + 1);
    while (rows.rows_read() < rows.size().height) {
        std::vector<std::uint8_t*> pointers;
        for (int y = rows.rows_read(); y < rows.size().height && pointers.size() < 8; ++y)
            pointers.push_back(reinterpret_cast<std::uint8_t*>(memory.data()) + pointers.size() * rows.row_bytes());
        if (!rows.read(pointers).ok()) return 0;
    }
    return 0;
}
