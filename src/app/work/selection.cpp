#include "app/work/selection.h"

#include <algorithm>

namespace bp::app {
namespace {

// The frame itself, or the next of the run that stayed, or the last before it.
int nearest(int id, const Pile& before, const Pile& now) {
    if (find_frame(now, id) || now.frames.empty()) return now.frames.empty() ? 0 : id;
    const int number = number_of(before, id);
    const auto& run = before.frames;
    for (std::size_t i = std::size_t(number); i < run.size(); ++i)
        if (find_frame(now, run[i].id)) return run[i].id;
    for (std::size_t i = std::size_t(std::max(0, number - 1)); i-- > 0;)
        if (find_frame(now, run[i].id)) return run[i].id;
    return find_frame(now, now.reference) ? now.reference : now.frames.front().id;
}

}  // namespace

Selection only(int id) {
    return {id, id, id == 0 ? std::vector<int>{} : std::vector<int>{id}};
}

Selection extended(const Selection& before, const Pile& pile, int id) {
    int a = number_of(pile, before.from);
    int b = number_of(pile, id);
    if (a == 0 || b == 0) return b == 0 ? before : only(id);
    if (a > b) std::swap(a, b);
    Selection out{id, before.from, {}};
    for (int n = a; n <= b; ++n) out.ids.push_back(pile.frames[std::size_t(n) - 1].id);
    return out;
}

Selection toggled(const Selection& before, int id) {
    Selection out{id, id, before.ids};
    const auto found = std::find(out.ids.begin(), out.ids.end(), id);
    if (found == out.ids.end())
        out.ids.push_back(id);
    else if (out.ids.size() > 1)
        out.ids.erase(found);
    return out;
}

Selection held_to(const Selection& selection, const Pile& before, const Pile& now) {
    Selection out = selection;
    std::erase_if(out.ids, [&](int id) { return !find_frame(now, id); });
    out.current = nearest(out.current, before, now);
    if (!find_frame(now, out.from)) out.from = out.current;
    if (out.ids.empty() && out.current != 0) out.ids = {out.current};
    return out;
}

}  // namespace bp::app
