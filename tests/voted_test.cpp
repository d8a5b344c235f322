// Merging where some frames do not vote.
#include "kernels/voted.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <cstdlib>

#include "engine/in_step.h"
#include "engine/render.h"
#include "kernels/mean.h"
#include "merge/row.h"
#include "pile/edits.h"
#include "support/fixtures.h"
#include "support/targets.h"

using namespace bp;
using test::Folder;
using test::on_every_target;

namespace {

constexpr std::size_t samples = 1200;

// Rows of noise, of which a third votes everywhere, a third in most places and a third in few.
template <class T>
struct Ballot {
    std::vector<std::vector<T>> rows;
    std::vector<std::vector<std::uint8_t>> masks;
    std::vector<const T*> row_pointers;
    std::vector<const std::uint8_t*> votes;

    explicit Ballot(int count) {
        for (int k = 0; k < count; ++k) {
            const Raster16 noise = test::speckle({int(samples), 2}, 1, unsigned(k) * 31 + 5);
            rows.emplace_back();
            masks.emplace_back();
            for (std::size_t i = 0; i < samples; ++i) {
                // Few values, so that many are equal.
                rows.back().push_back(T((noise.at(int(i), 0, 0) >> (16 - 8 * sizeof(T))) & (i % 2 ? ~T(0) : T(0xF0))));
                const unsigned out_of_ten = noise.at(int(i), 1, 0) % 10;
                masks.back().push_back(k % 3 == 1 ? (out_of_ten < 8 ? 255 : 0) : (out_of_ten < 2 ? 255 : 0));
            }
        }
        for (int k = 0; k < count; ++k) {
            row_pointers.push_back(rows[std::size_t(k)].data());
            votes.push_back(k % 3 == 0 ? nullptr : masks[std::size_t(k)].data());
        }
    }
    std::vector<std::uint16_t> voters(std::size_t i) const {
        std::vector<std::uint16_t> out;
        for (std::size_t k = 0; k < rows.size(); ++k)
            if (!votes[k] || votes[k][i]) out.push_back(kernels::to_16(rows[k][i]));
        return out;
    }
    // Leaves out the row that votes everywhere, so that somewhere nobody does.
    void without_first() {
        row_pointers.erase(row_pointers.begin());
        votes.erase(votes.begin());
        rows.erase(rows.begin());
        masks.erase(masks.begin());
    }
};

std::uint16_t middle_of(std::vector<std::uint16_t> v) {
    std::sort(v.begin(), v.end());
    return std::uint16_t((unsigned(v[(v.size() - 1) / 2]) + v[v.size() / 2] + 1) / 2);
}

std::uint16_t mean_light(const std::vector<std::uint16_t>& v, const LightCurve& curve) {
    double sum = 0;
    for (const std::uint16_t x : v) sum += curve.light(x);
    return curve.sample(sum / double(v.size()));
}

std::uint16_t clipped_light(const std::vector<std::uint16_t>& v, const LightCurve& curve, int step) {
    std::vector<std::uint16_t> sorted = v, apart, near;
    std::sort(sorted.begin(), sorted.end());
    const int middle = sorted[(sorted.size() - 1) / 2];
    for (const int x : v) apart.push_back(std::uint16_t(std::abs(x - middle)));
    const int reach = kernels::clip_reach(middle_of(apart), step);
    for (const std::uint16_t x : v)
        if (std::abs(int(x) - middle) <= reach) near.push_back(x);
    return mean_light(near, curve);
}

template <class T, class Kernel, class Twin>
void holds(const Ballot<T>& ballot, const Kernel& kernel, const Twin& twin) {
    std::vector<std::uint16_t> out(samples);
    kernel(kernels::Rows<T>(ballot.row_pointers), kernels::Votes(ballot.votes), out.data());
    std::size_t wrong = 0, voted = 0;
    for (std::size_t i = 0; i < samples; ++i) {
        const std::vector<std::uint16_t> voters = ballot.voters(i);
        if (voters.empty()) continue;
        ++voted;
        wrong += out[i] != twin(voters);
    }
    INFO(ballot.rows.size() << " rows of " << 8 * sizeof(T) << " bits");
    CHECK(voted > samples / 8);
    REQUIRE(wrong == 0);
}

template <class T>
void every_kernel_holds(const Ballot<T>& ballot) {
    const LightCurve curve = LightCurve::of(Profile::srgb(), 3);
    const auto most = [](const auto& v) { return *std::max_element(v.begin(), v.end()); };
    const auto least = [](const auto& v) { return *std::min_element(v.begin(), v.end()); };
    holds(
        ballot, [](auto r, auto v, auto* out) { kernels::maximum(r, v, samples, out); }, most);
    holds(
        ballot, [](auto r, auto v, auto* out) { kernels::minimum(r, v, samples, out); }, least);
    holds(
        ballot, [](auto r, auto v, auto* out) { kernels::median(r, v, samples, out); },
        [](const auto& v) { return middle_of(v); });
    holds(
        ballot, [&](auto r, auto v, auto* out) { kernels::mean(r, v, samples, curve, out); },
        [&](const auto& v) { return mean_light(v, curve); });
    for (const int step : {1, 257})
        holds(
            ballot, [&](auto r, auto v, auto* out) { kernels::clipped_mean(r, v, samples, curve, step, out); },
            [&](const auto& v) { return clipped_light(v, curve, step); });
}

// The mean light of values of which the last may count by half.
std::uint16_t weighed_mean(const std::vector<std::uint16_t>& values, bool last_by_half, const LightCurve& curve) {
    double sum = 0, weight = 0;
    for (std::size_t k = 0; k < values.size(); ++k) {
        const bool half = last_by_half && k + 1 == values.size();
        sum += half ? std::floor((curve.light(values[k]) * 32768.0 + 32768) / 65536) : curve.light(values[k]);
        weight += half ? 0.5 : 1;
    }
    return curve.sample(sum / weight);
}

std::vector<kernels::Span> silence(const std::vector<std::uint8_t>& votes) {
    std::vector<kernels::Span> out;
    for (int x = 0; x < int(votes.size()); ++x) {
        if (votes[std::size_t(x)]) continue;
        if (out.empty() || out.back().end != x) out.push_back({x, x});
        out.back().end = x + 1;
    }
    return out;
}

// A mask of a value within an area.
std::shared_ptr<const Mask> only(Size size, const Rect& area, std::uint8_t within) {
    Mask out(size);
    out.edit(area, [&](int, int, std::uint8_t) { return within; });
    return std::make_shared<const Mask>(std::move(out));
}

// Merges a piece of the canvas from takes.
struct Merging final : StepWork {
    Merging(const Pile& of, Mode by, const Rect& area, std::size_t takes)
        : pile(of), mode(by), region(area), out(area.size(), of.channels) {
        tools.strengths.resize(takes);
    }
    void row(int y, kernels::Span columns, const std::vector<FrameRow>& rows) override {
        merge_row(mode, rows, columns.end - columns.begin, pile.channels, tools,
                  out.row(y - region.top) + (columns.begin - region.left) * pile.channels);
    }
    const Pile& pile;
    Mode mode;
    Rect region;
    MergeTools tools{LightCurve::of(Profile::srgb(), 3), {}, 0, {}, kernels::White::hard, 257};
    Raster16 out;
};

}  // namespace

TEST_CASE("what votes is merged as if the rest were not there, by every kernel, on every instruction set") {
    on_every_target([] {
        for (const int count : {1, 2, 3, 4, 5, 8, 15, 16, 17, 33, 64, 65, 100}) {
            Ballot<std::uint8_t> narrow(count);
            Ballot<std::uint16_t> wide(count);
            every_kernel_holds(narrow);
            every_kernel_holds(wide);
            if (count < 3) continue;
            narrow.without_first();
            wide.without_first();
            every_kernel_holds(narrow);
            every_kernel_holds(wide);
        }
    });
    every_kernel_holds(Ballot<std::uint16_t>(301));
    every_kernel_holds(Ballot<std::uint8_t>(301));
}

TEST_CASE("rows merge by their votes wherever they are covered, and the reference shows where nobody votes") {
    constexpr int width = 400;
    constexpr int channels = 3;
    const Raster16 a = test::speckle_8({width, 1}, channels, 1), b = test::speckle({width, 1}, channels, 2),
                   c = test::speckle({width, 1}, channels, 3);
    std::vector<std::uint8_t> narrow;
    for (const std::uint16_t v : a.data()) narrow.push_back(std::uint8_t(v / 257));
    // Longer than a block without a vote, shorter, and a single pixel; all of them where nobody votes.
    std::vector<std::uint8_t> votes_a(width, 255), votes_b(width, 255), votes_c(width, 255);
    for (auto* votes : {&votes_a, &votes_b, &votes_c}) std::fill(votes->begin() + 20, votes->begin() + 190, 0);
    std::fill(votes_a.begin() + 230, votes_a.begin() + 260, 0);
    votes_b[240] = votes_c[241] = votes_a[399] = votes_c[399] = 0;
    // Votes that come and go from pixel to pixel.
    for (int x = 280; x < 330; ++x) votes_a[std::size_t(x)] = x % 2 ? 255 : 0;
    for (int x = 300; x < 340; ++x) votes_b[std::size_t(x)] = x % 3 ? 0 : 255;
    for (int x = 310; x < 320; ++x) votes_c[std::size_t(x)] = 0;
    const auto silent_a = silence(votes_a), silent_b = silence(votes_b), silent_c = silence(votes_c);
    const std::vector<FrameRow> rows{{narrow.data(), nullptr, {0, width}, silent_a},
                                     {nullptr, b.row(0), {10, 350}, silent_b},
                                     {nullptr, c.row(0), {0, width}, silent_c}};
    MergeTools tools{LightCurve::of(Profile::srgb(), 3), {}, 1, {}, kernels::White::hard, 1};
    tools.strengths.resize(3);
    tools.strengths[2] = Strength(0.5, tools.curve);
    for (const Mode mode : {Mode::lighten, Mode::maximum, Mode::minimum, Mode::median, Mode::mean}) {
        INFO(entry_of(mode).name);
        std::vector<std::uint16_t> out(std::size_t(width) * channels, 7);
        merge_row(mode, rows, width, channels, tools, out.data());
        std::size_t wrong = 0;
        for (int x = 0; x < width; ++x)
            for (int ch = 0; ch < channels; ++ch) {
                const auto i = std::size_t(x * channels + ch);
                const std::uint16_t third =
                    mode == Mode::lighten ? tools.strengths[2].samples<std::uint16_t>()[c.data()[i]] : c.data()[i];
                std::vector<std::uint16_t> voters;
                if (votes_a[std::size_t(x)]) voters.push_back(a.data()[i]);
                if (votes_b[std::size_t(x)] && x >= 10 && x < 350) voters.push_back(b.data()[i]);
                if (votes_c[std::size_t(x)]) voters.push_back(third);
                std::uint16_t expected = x >= 10 && x < 350 ? b.data()[i] : a.data()[i];
                if (!voters.empty() && mode == Mode::median)
                    expected = middle_of(voters);
                else if (!voters.empty() && mode == Mode::mean)
                    expected = weighed_mean(voters, votes_c[std::size_t(x)] != 0, tools.curve);
                else if (!voters.empty() && mode == Mode::minimum)
                    expected = *std::min_element(voters.begin(), voters.end());
                else if (!voters.empty())
                    expected = *std::max_element(voters.begin(), voters.end());
                wrong += out[i] != expected;
            }
        CHECK(wrong == 0);
    }
}

TEST_CASE("a take that does not vote in an area is not seen there, and the others are") {
    const Folder folder;
    const Size size{310, 120};
    const Pile pile = test::speckle_pile(folder, 4, size, 8);
    const Rect all = whole(size), hole{40, 20, 150, 60};
    FrameStore store(working_space(pile), {0, std::size_t(1) << 28});
    Job job;
    std::vector<int> ids;
    for (const Frame& frame : pile.frames) ids.push_back(frame.id);
    const auto merged = [&](std::vector<Take> takes, const Rect& region) {
        Merging work(pile, Mode::maximum, region, takes.size());
        REQUIRE(bring_in_step({pile, store, std::move(takes), region, 0}, job, work).ok());
        return std::move(work.out);
    };
    std::vector<Take> takes = takes_of(ids);
    const Raster16 with_all = merged(takes, all);
    const Raster16 without_last = merged(takes_of({ids[0], ids[1], ids[2]}), all);
    takes[3].left_out = only(size, hole, 128);  // half does not vote
    const Raster16 out = merged(takes, all);
    CHECK(out.at(hole.left, hole.top, 0) == without_last.at(hole.left, hole.top, 0));
    std::size_t wrong = 0, changed = 0;
    for (int y = 0; y < size.height; ++y)
        for (int x = 0; x < size.width; ++x)
            for (int c = 0; c < 3; ++c) {
                const bool inside = x >= hole.left && x < hole.right() && y >= hole.top && y < hole.bottom();
                wrong += out.at(x, y, c) != (inside ? without_last : with_all).at(x, y, c);
                changed += out.at(x, y, c) != with_all.at(x, y, c);
            }
    CHECK(wrong == 0);
    CHECK(changed > 1000);
    const Rect piece{100, 41, 120, 33};
    const Raster16 part = merged(takes, piece);
    for (int y = 0; y < piece.height; ++y)
        REQUIRE(std::equal(part.row(y), part.row(y) + piece.width * 3, out.row(piece.top + y) + piece.left * 3));
    takes[3].left_out = only(size, hole, 127);  // less than half is not left out
    CHECK(test::difference(merged(takes, all), with_all).empty());
}
