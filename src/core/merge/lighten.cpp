#include "merge/lighten.h"

#include <algorithm>

#include "kernels/extremes.h"

namespace bp {

void merge_lighten(const MergeInput& in, const MergeTools& tools, std::uint16_t* out) {
    std::fill_n(out, in.samples, std::uint16_t{0});
    for (std::size_t k = 0; k < in.rows.size(); ++k) {
        const auto& table = tools.strength_tables[std::size_t(in.numbers[k])];
        if (table)
            kernels::raise_to_mapped(in.rows[k], table->data(), in.samples, out);
        else
            kernels::raise_to(in.rows[k], in.samples, out);
    }
}

std::shared_ptr<const std::vector<std::uint16_t>> strength_table(double strength, const LightCurve& curve) {
    if (strength >= 1.0) return {};
    auto out = std::make_shared<std::vector<std::uint16_t>>(65536);
    for (std::size_t v = 0; v < out->size(); ++v)
        (*out)[v] = curve.sample(strength * double(curve.light(std::uint16_t(v))));
    return out;
}

}  // namespace bp
