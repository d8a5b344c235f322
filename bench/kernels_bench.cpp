// Kernels on rows in memory, beside the machine's own copy speed.
#include <benchmark/benchmark.h>

#include <algorithm>
#include <cstring>
#include <random>
#include <vector>

#include "kernels/extremes.h"
#include "kernels/mean.h"
#include "kernels/median.h"
#include "merge/row.h"

namespace {

using namespace bp;
constexpr std::size_t samples = 6000 * 3;

struct Rows {
    std::vector<std::vector<std::uint16_t>> data;
    std::vector<const std::uint16_t*> pointers;
    explicit Rows(int count) {
        std::mt19937 random(1);
        for (int i = 0; i < count; ++i) {
            data.emplace_back(samples);
            for (auto& v : data.back()) v = std::uint16_t(random());
        }
        for (const auto& row : data) pointers.push_back(row.data());
    }
};

void count_bytes(benchmark::State& state, int rows) {
    state.SetBytesProcessed(std::int64_t(state.iterations()) * rows * std::int64_t(samples * sizeof(std::uint16_t)));
}

void copy(benchmark::State& state) {
    const Rows rows(16);
    std::vector<std::uint16_t> out(samples);
    for (auto _ : state)
        for (const auto* row : rows.pointers) {
            std::memcpy(out.data(), row, samples * sizeof(std::uint16_t));
            benchmark::ClobberMemory();
        }
    count_bytes(state, 16);
}

void maximum(benchmark::State& state) {
    const Rows rows(int(state.range(0)));
    std::vector<std::uint16_t> out(samples);
    for (auto _ : state) {
        kernels::maximum(kernels::Rows<std::uint16_t>(rows.pointers), samples, out.data());
        benchmark::DoNotOptimize(out.data());
    }
    count_bytes(state, int(state.range(0)));
}

void median(benchmark::State& state) {
    const Rows rows(int(state.range(0)));
    std::vector<std::uint16_t> out(samples);
    for (auto _ : state) {
        kernels::median(kernels::Rows<std::uint16_t>(rows.pointers), samples, out.data());
        benchmark::DoNotOptimize(out.data());
    }
    count_bytes(state, int(state.range(0)));
}

// Rows of a merge come from memory, where the decoders have left them, not from the nearest caches: many lines of 16
// frames, together far beyond any cache, one after the other.
template <class Kernel>
void over_lines(benchmark::State& state, const Kernel& kernel) {
    static constexpr int frames = 16;
    static constexpr int lines = 400;
    static const std::vector<Rows> all = [] {
        std::vector<Rows> out;
        out.reserve(lines);
        for (int i = 0; i < lines; ++i) out.emplace_back(frames);
        return out;
    }();
    std::vector<std::uint16_t> out(samples);
    std::size_t line = 0;
    for (auto _ : state) {
        kernel(kernels::Rows<std::uint16_t>(all[line++ % all.size()].pointers), samples, out.data());
        benchmark::DoNotOptimize(out.data());
    }
    count_bytes(state, frames);
}

void maximum_from_memory(benchmark::State& state) {
    over_lines(state, [](auto rows, std::size_t n, std::uint16_t* out) { kernels::maximum(rows, n, out); });
}

void median_from_memory(benchmark::State& state) {
    over_lines(state, [](auto rows, std::size_t n, std::uint16_t* out) { kernels::median(rows, n, out); });
}

void mean(benchmark::State& state) {
    const Rows rows(int(state.range(0)));
    const LightCurve curve = LightCurve::of(Profile::srgb(), 3);
    std::vector<std::uint16_t> out(samples);
    for (auto _ : state) {
        kernels::mean(kernels::Rows<std::uint16_t>(rows.pointers), samples, curve, out.data());
        benchmark::DoNotOptimize(out.data());
    }
    count_bytes(state, int(state.range(0)));
}

// A row of 16 frames as a merge has it, one channel; every frame may leave out a twentieth of it, each somewhere else.
void merged_row(benchmark::State& state, Mode mode, bool votes) {
    MergeTools tools{LightCurve::of(Profile::srgb(), 3)};
    tools.strengths.resize(16);
    std::vector<kernels::Span> silent;
    for (int k = 0; k < 16; ++k) {
        const int begin = k * 997 % int(samples - samples / 20);
        silent.push_back({begin, begin + int(samples / 20)});
    }
    std::vector<FrameRow> rows(16);
    over_lines(state, [&](auto lines, std::size_t n, std::uint16_t* out) {
        for (std::size_t k = 0; k < rows.size(); ++k)
            rows[k] = {
                nullptr, lines[k], {0, int(n)}, votes ? std::span(&silent[k], 1) : std::span<const kernels::Span>()};
        merge_row(mode, rows, int(n), 1, tools, out);
    });
}

BENCHMARK(copy);
BENCHMARK(maximum)->Arg(16)->Arg(90);
BENCHMARK(median)->Arg(5)->Arg(16)->Arg(48)->Arg(90);
BENCHMARK(maximum_from_memory)->MinTime(2);
BENCHMARK(median_from_memory)->MinTime(2);
BENCHMARK(mean)->Arg(16)->Arg(90);
BENCHMARK_CAPTURE(merged_row, maximum, Mode::maximum, false)->MinTime(1);
BENCHMARK_CAPTURE(merged_row, maximum_voted, Mode::maximum, true)->MinTime(1);
BENCHMARK_CAPTURE(merged_row, median, Mode::median, false)->MinTime(1);
BENCHMARK_CAPTURE(merged_row, median_voted, Mode::median, true)->MinTime(1);
BENCHMARK_CAPTURE(merged_row, mean, Mode::mean, false)->MinTime(1);
BENCHMARK_CAPTURE(merged_row, mean_voted, Mode::mean, true)->MinTime(1);
BENCHMARK_CAPTURE(merged_row, clipped_mean, Mode::clipped_mean, false)->MinTime(1);
BENCHMARK_CAPTURE(merged_row, clipped_mean_voted, Mode::clipped_mean, true)->MinTime(1);

}  // namespace
