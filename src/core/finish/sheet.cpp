#include "finish/sheet.h"

#include <algorithm>

namespace bp {

int reach_of(const FinishTools& tools) {
    int out = 0;
    for (const auto& tool : tools) out += tool->reach();
    return out;
}

Rect around(const Rect& wanted, int reach, const Rect& canvas) {
    return intersect({wanted.left - reach, wanted.top - reach, wanted.width + 2 * reach, wanted.height + 2 * reach},
                     unite(canvas, wanted));
}

void run_tools(const FinishTools& tools, Sheet& sheet, const Rect& wanted, const Rect& canvas) {
    int left = reach_of(tools);
    for (const auto& tool : tools) {
        left -= tool->reach();
        tool->run(sheet, around(wanted, left, canvas));
    }
}

Sheet cut_out(const Sheet& sheet, const Rect& area) {
    Sheet out{area, sheet.channels, {}};
    out.light.resize(out.row_samples() * std::size_t(area.height));
    for (int y = area.top; y < area.bottom(); ++y)
        std::copy_n(sheet.row(y) + std::ptrdiff_t(area.left - sheet.area.left) * sheet.channels, out.row_samples(),
                    out.row(y));
    return out;
}

}  // namespace bp
