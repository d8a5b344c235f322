#include "base/saying.h"

#include <sstream>

#include "base/text.h"

namespace bp {

Saying::Saying(const std::string& as_it_is) : text_(one_line(as_it_is)) {}

Saying Saying::number(double value) {
    std::ostringstream text;
    text << value;
    Saying out(text.str());
    out.number_ = value;
    return out;
}

std::string Saying::english() const {
    return in([](const std::string& key) { return key; });
}

std::string Saying::in(const std::function<std::string(const std::string& key)>& words,
                       const std::function<std::string(double)>& written) const {
    if (number_ && written) return written(*number_);
    if (!translated_) return text_;
    const std::string text = words(text_);
    std::string out;
    for (std::size_t i = 0; i < text.size(); ++i) {
        const char next = i + 1 < text.size() ? text[i + 1] : '\0';
        const auto n = std::size_t(next - '1');
        if (text[i] == '%' && n < values_.size()) {
            out += values_[n].in(words, written);
            ++i;
        } else {
            out += text[i];
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
