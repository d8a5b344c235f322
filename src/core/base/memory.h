// How memory that is freed is treated.
#pragma once

namespace bp {

// From now on pictures of a few megabytes that are freed stay with the process, within bounds: the next one of their
// kind finds pages that are there already, where else the system would have to clear new ones for every frame. Called
// once, when a program starts. Does nothing where the C library offers no such choice.
void keep_freed_memory();

}  // namespace bp
