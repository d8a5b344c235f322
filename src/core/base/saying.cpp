#include "base/saying.h"

#include "base/text.h"

namespace bp {

Saying::Saying(const std::string& as_it_is) : text_(one_line(as_it_is)) {}

std::string Saying::english() const {
    std::string out;
    for (std::size_t i = 0; i < text_.size(); ++i) {
        const char next = i + 1 < text_.size() ? text_[i + 1] : '\0';
        const auto n = std::size_t(next - '1');
        if (translated_ && text_[i] == '%' && n < values_.size()) {
            out += values_[n].english();
            ++i;
        } else {
            out += text_[i];
        }
    }
    return out;
}

Saying frames_counted(std::size_t count) {
    return counted(count, "1 frame", "%1 frames");
}

std::string megabytes(std::size_t bytes) {
    return std::to_string((bytes + (1U << 20) - 1) >> 20) + " MB";
}

}  // namespace bp
