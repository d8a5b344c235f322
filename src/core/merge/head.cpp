#include "merge/head.h"

namespace bp {

OfTrail part_of_trail(const Head& head, TaperEnd fades, std::size_t number, std::size_t count) {
    if (!head.on) return OfTrail::tail;
    const std::size_t from_end = fades == TaperEnd::new_one ? number : count - 1 - number;
    if (from_end < std::size_t(head.frames)) return OfTrail::head;
    return from_end < std::size_t(head.frames) + std::size_t(head.apart) ? OfTrail::apart : OfTrail::tail;
}

}  // namespace bp
