// Words of the core that people read. The core cannot know in which language: it gives English with gaps and what goes
// into them, and whoever stands before people (the window, the command line) makes a sentence of it.
#pragma once

#include <array>
#include <cstddef>
#include <functional>
#include <optional>
#include <string>
#include <vector>

namespace bp {

class Saying {
  public:
    Saying() = default;
    // A literal: the key that translators know. %1 to %9 stand for `values`.
    template <std::size_t length>
    Saying(const char (&text)[length], std::vector<Saying> values = {})
        : text_(text), translated_(true), values_(std::move(values)) {}
    // The same in every language: a name, a number, what the system or a library says. As one_line() makes it.
    Saying(const std::string& as_it_is);
    // A number of six figures at most, written as the language of the sentence does.
    static Saying number(double value);

    bool empty() const { return text_.empty(); }
    const std::string& text() const { return text_; }
    bool translated() const { return translated_; }
    const std::vector<Saying>& values() const { return values_; }
    std::string english() const;
    // In the language of `words`, which gives what a translator made of a key; numbers as `written`, or with a point.
    std::string in(const std::function<std::string(const std::string& key)>& words,
                   const std::function<std::string(double)>& written = {}) const;
    friend bool operator==(const Saying&, const Saying&) = default;

  private:
    std::string text_;
    bool translated_ = false;
    std::optional<double> number_;
    std::vector<Saying> values_;
};

// A count of things, as "1 frame" or "12 frames": two literals, of which the second has %1 for the number.
template <std::size_t one, std::size_t many>
Saying counted(std::size_t count, const char (&single)[one], const char (&several)[many]) {
    return count == 1 ? Saying(single) : Saying(several, {std::to_string(count)});
}
Saying frames_counted(std::size_t count);
// Rounded up, so that what is said to be needed is enough: "64 MB".
std::string megabytes(std::size_t bytes);

}  // namespace bp
