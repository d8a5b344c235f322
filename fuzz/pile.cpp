// Pile files: the archive, its words and its masks.
#include "file_of.h"
#include "pile/edits.h"
#include "pile/file.h"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* bytes, std::size_t size) {
    using namespace bp;
    const auto file = fuzz::file_of(bytes, size, ".pile");
    const auto loaded = load_pile(file);
    if (!loaded.ok()) return 0;
    const Pile& pile = loaded.value().pile;
    for (const Frame& frame : pile.frames) (void)placement(pile, frame);
    // What was taken in can be written.
    (void)save_pile(pile, file);
    return 0;
}
