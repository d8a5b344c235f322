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

Rect read_by(const FinishTools& tools, const Rect& wanted, const Rect& canvas) {
    Rect out = wanted;
    for (auto it = tools.rbegin(); it != tools.rend(); ++it) out = around(out, (*it)->reach_in(out), canvas);
    return out;
}

void run_tools(const FinishTools& tools, Sheet& sheet, const Rect& wanted, const Rect& canvas) {
    // What each is to leave: what those after it read.
    std::vector<Rect> left(tools.size(), wanted);
    for (std::size_t i = tools.size(); i-- > 1;) left[i - 1] = around(left[i], tools[i]->reach_in(left[i]), canvas);
    for (std::size_t i = 0; i < tools.size(); ++i) tools[i]->run(sheet, left[i]);
}

Sheet cut_out(const Sheet& sheet, const Rect& area) {
    Sheet out(area, sheet.channels);
    for (int y = area.top; y < area.bottom(); ++y)
        std::copy_n(sheet.row(y) + std::ptrdiff_t(area.left - sheet.area.left) * sheet.channels, out.row_samples(),
                    out.row(y));
    return out;
}

}  // namespace bp
