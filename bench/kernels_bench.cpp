// Kernels on rows in memory, beside the machine's own copy speed.
#include <benchmark/benchmark.h>

#include <algorithm>
#include <cstring>
#include <random>
#include <vector>

#include "kernels/extremes.h"
#include "kernels/mean.h"
#include "kernels/median.h"

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

BENCHMARK(copy);
BENCHMARK(maximum)->Arg(16)->Arg(90);
BENCHMARK(median)->Arg(5)->Arg(16)->Arg(48)->Arg(90);
BENCHMARK(mean)->Arg(16)->Arg(90);

}  // namespace
