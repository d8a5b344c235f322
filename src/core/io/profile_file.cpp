#include "io/profile_file.h"

#include <fstream>
#include <iterator>

#include "base/files.h"

namespace bp {

Result<Profile> read_profile(const fs::path& file) {
    constexpr std::uintmax_t largest = 16U << 20U;
    std::error_code error;
    const std::uintmax_t bytes = fs::file_size(file, error);
    const auto refused = [&] {
        return Failure{Fault::input,
                       file.string(),
                       {"%1 is not a colour profile for pictures in colour: choose an ICC file of an RGB space.",
                        {file.filename().string()}}};
    };
    if (error || bytes == 0 || bytes > largest) return refused();
    std::ifstream in(file, std::ios::binary);
    std::vector<std::uint8_t> icc((std::istreambuf_iterator<char>(in)), std::istreambuf_iterator<char>());
    if (!in || icc.empty()) return refused();
    Profile made(std::move(icc));
    // A space that nothing can be brought to, as of a scanner alone, is none either.
    if (!made.fits(3) || !Conversion::make(Profile::srgb(), 3, made, 3).ok()) return refused();
    return made;
}

}  // namespace bp
