#include "base/guarded.h"

#include <exception>
#include <new>

namespace bp {

Failure caught_failure() {
    try {
        throw;
    } catch (const std::bad_alloc&) {
        return {
            Fault::memory, "",
            "There is not enough memory for this. Close other programs, allow less under Room, or set frames aside."};
    } catch (const std::exception& error) {
        return {Fault::input, "", {"This could not be done: %1.", {std::string(error.what())}}};
    } catch (...) {
        return {Fault::input, "", "This could not be done, and nothing says why."};
    }
}

}  // namespace bp
