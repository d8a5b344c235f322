// What a merge is measured against: libjpeg-turbo alone decoding the same files on all cores, rows thrown away.
#include <cstdio>
// after <cstdio>, which it needs
#include <jpeglib.h>

#include <atomic>
#include <chrono>
#include <cstdlib>
#include <thread>
#include <vector>

namespace {

void decode(const char* name, unsigned shrink) {
    std::FILE* file = std::fopen(name, "rb");
    if (!file) return;
    jpeg_decompress_struct info;
    jpeg_error_mgr errors;
    info.err = jpeg_std_error(&errors);
    jpeg_create_decompress(&info);
    jpeg_stdio_src(&info, file);
    jpeg_read_header(&info, TRUE);
    info.scale_num = 1;
    info.scale_denom = shrink;
    jpeg_start_decompress(&info);
    std::vector<JSAMPLE> memory(std::size_t(info.output_width) * std::size_t(info.output_components));
    JSAMPROW row = memory.data();
    while (info.output_scanline < info.output_height) jpeg_read_scanlines(&info, &row, 1);
    jpeg_finish_decompress(&info);
    jpeg_destroy_decompress(&info);
    std::fclose(file);
}

}  // namespace

// Prints seconds. The first argument is by how much to scale down: 1, 2, 4 or 8.
int main(int argc, char** argv) {
    if (argc < 3) return 2;
    const auto shrink = unsigned(std::atoi(argv[1]));
    const auto begin = std::chrono::steady_clock::now();
    std::atomic<int> next{2};
    std::vector<std::thread> threads;
    for (unsigned t = 0; t < std::max(1U, std::thread::hardware_concurrency()); ++t)
        threads.emplace_back([&] {
            for (int i = next++; i < argc; i = next++) decode(argv[i], shrink);
        });
    for (std::thread& thread : threads) thread.join();
    std::printf("%.4f\n", std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count());
    return 0;
}
