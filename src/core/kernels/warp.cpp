#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "kernels/warp.cpp"
#include "kernels/warp.h"

#include <hwy/foreach_target.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <type_traits>
#include <vector>

#include "base/line_vector.h"
#include "kernels/lanczos.h"
#include "kernels/lanes.h"
#include "kernels/warp_lanes.h"

HWY_BEFORE_NAMESPACE();
namespace bp::kernels::HWY_NAMESPACE {
namespace {

// Canvas pixels that go down and then across together, so that what lies between stays in the nearest cache.
constexpr int strip = 512;
// The shortest piece of a row that is taken as one place.
constexpr int shortest_piece = 16;
static_assert(most_lanes <= shortest_piece);
constexpr int most_alike = 8;

// The first n after `from` at which floor(start + change * n) is another one, or `end`.
int run_end(double start, double change, int from, int end) {
    const double floor = std::floor(start + change * from);
    if (std::floor(start + change * (end - 1)) == floor) return end;
    int low = from;
    int high = end - 1;
    while (high - low > 1) {
        const int middle = (low + high) / 2;
        (std::floor(start + change * middle) == floor ? low : high) = middle;
    }
    return high;
}

// Calls body(first n, end n, whole part, slide) for the runs of n in [from, to) on which the whole part of start +
// change * n stays the same. Where that hardly changes, the runs are pieces of `length`, or of a half, a quarter, ...
// of it, that count as one place each.
template <class Body>
void each_run(double start, double change, int length, int from, int to, Body body) {
    const auto too_far = [change](int piece) { return std::abs(change) * piece / 2 > same_place; };
    int piece = length;
    while (piece >= 2 * shortest_piece && too_far(piece)) piece /= 2;
    if (!too_far(piece)) {
        for (int n = from; n < to;) {
            const int begin = floor_div(n, piece) * piece;
            const int end = std::min(to, begin + piece);
            const double middle = start + change * (begin + piece / 2.0);
            const double floor = std::floor(middle);
            body(n, end, int(floor), Slide{middle - floor, 0});
            n = end;
        }
        return;
    }
    for (int n = from; n < to;) {
        const int end = run_end(start, change, n, to);
        const double floor = std::floor(start + change * n);
        body(n, end, int(floor), Slide{start - floor, change});
        n = end;
    }
}

// Places along a piece of row that bends with every knot, one by one.
struct Track {
    std::vector<int> whole;
    std::vector<float> part;

    // Room for `length` places, and for what groups read beyond.
    void make_room(int length) {
        const auto room = std::size_t(length) + most_lanes;
        if (whole.size() < room) whole.resize(room);
        if (part.size() < room) part.resize(room);
    }
    // Places [from, to) are start + change * n and what follows, from left to right: those after may change, too.
    void fill(int from, int to, double start, double change, int n) {
        const Wide d;
        const hn::RebindToSigned<Wide> di;
        const double floor = std::floor(start);
        const auto first_whole = hn::Set(di, int(floor));
        const auto first_part = hn::Set(d, float(start - floor));
        for (; from < to; from += group_pixels(), n += group_pixels()) {
            const auto place = hn::MulAdd(hn::Iota(d, float(n)), hn::Set(d, float(change)), first_part);
            const auto below = hn::Floor(place);
            hn::StoreU(hn::Add(hn::ConvertTo(di, below), first_whole), di, whole.data() + from);
            hn::StoreU(hn::Sub(place, below), d, part.data() + from);
        }
    }
    // Calls body(begin, end, whole part) for the runs of [0, length) that share their whole part.
    template <class Body>
    void each_run(int length, Body body) const {
        const hn::RebindToSigned<Wide> di;
        for (int begin = 0; begin < length;) {
            const int shared = whole[std::size_t(begin)];
            int end = begin + 1;
            while (end + group_pixels() <= length &&
                   hn::AllTrue(di, hn::Eq(hn::LoadU(di, whole.data() + end), hn::Set(di, shared))))
                end += group_pixels();
            while (end < length && whole[std::size_t(end)] == shared) ++end;
            body(begin, end, shared);
            begin = end;
        }
    }
};

// Kept by each thread from call to call, because calls are many and small.
struct Workspace {
    LineVector<float> between;  // rows of source columns, of the strip that is being made
    std::array<KnotRow, most_alike> across;
    Track track;
};

template <int channels, class T>
class Warp {
  public:
    Warp(const RowsAtHand<T>& source, RowPlaces& places, int y, std::span<const Span> spans, const WarpTarget& out,
         Workspace& workspace)
        : source_(source),
          places_(places),
          size_(places.map().source()),
          first_(y),
          spans_(spans),
          out_(out),
          between_(workspace.between),
          across_(workspace.across),
          track_(workspace.track) {}

    void run() {
        const int alike = places_.map().rows_alike();
        const int last = first_ + int(spans_.size());
        for (int y = first_; y < last;) {
            if (!places_.map().gentle()) {
                at_once(y++);
                continue;
            }
            const int block = floor_div(y, alike) * alike;
            const int end = std::min(last, block + alike);
            in_two_passes(y, end, block + alike / 2);
            y = end;
        }
    }

  private:
    static constexpr float unit = sizeof(T) == 1 ? 257 : 1;

    Span span_of(int y) const { return spans_[std::size_t(y - first_)]; }
    std::uint16_t* out_at(int x, int y) const {
        return out_.samples + std::size_t(y - first_) * out_.stride + std::ptrdiff_t(x - out_.left) * channels;
    }
    int column_in(int u) const { return std::clamp(u, 0, size_.width - 1) - source_.area.left; }
    // Rows that are not there are not needed: they are made beside what is asked for.
    const T* row_at(int v) const {
        const int held = std::clamp(v, 0, size_.height - 1) - source_.area.top;
        return source_.rows[std::clamp(held, 0, source_.area.height - 1)];
    }

    // Rows [y, end), which lie like row `middle` among those of the source: down first, into rows of source columns;
    // then across.
    void in_two_passes(int y, int end, int middle) {
        const bool together = places_.map().columns_alike();
        Span all{0, 0};
        for (int row = y; row < end; ++row) {
            const Span span = span_of(row);
            if (span.empty()) continue;
            all = all.empty() ? span : Span{std::min(all.begin, span.begin), std::max(all.end, span.end)};
            if (together) continue;
            places_.go_to(row);
            across_[std::size_t(row - y)] = places_.here();
        }
        if (all.empty()) return;
        places_.go_to(middle);
        for (int left = floor_div(all.begin, strip) * strip; left < all.end; left += strip) {
            std::array<Span, most_alike> pieces;
            Reach reach{size_.width + strip, -strip};
            const auto widen = [&reach](const Reach& own) {
                reach = {std::min(reach.first, own.first), std::max(reach.last, own.last)};
            };
            for (int row = y; row < end; ++row) {
                const Span span = span_of(row);
                Span& piece = pieces[std::size_t(row - y)];
                piece = {std::max(span.begin, left), std::min(span.end, left + strip)};
                if (!together && !piece.empty()) widen(across_[std::size_t(row - y)].columns(piece));
            }
            const Span whole{std::max(all.begin, left), std::min(all.end, left + strip)};
            if (together) widen(places_.columns(whole));
            if (reach.last < reach.first) continue;
            // Groups may go on beyond what is asked for.
            stride_ = in_whole_lines<float>((std::size_t(reach.last - reach.first + 1) + 2 * most_lanes) * channels);
            if (between_.size() < std::size_t(end - y) * stride_) between_.resize(std::size_t(end - y) * stride_);
            first_column_ = reach.first;
            if (places_.map().bends()) track_.make_room(std::max(reach.last + 1 - reach.first, strip));
            down(reach, left, y - middle, end - y);
            if (together) {
                across(places_.here(), whole, y, {pieces.data(), std::size_t(end - y)}, 0);
                continue;
            }
            for (int r = 0; r < end - y; ++r) {
                const Span piece = pieces[std::size_t(r)];
                if (piece.empty()) continue;
                if (places_.map().bends())
                    bent_across(y + r, piece, r);
                else
                    across(across_[std::size_t(r)], piece, y + r, {&piece, 1}, r);
            }
        }
    }

    // Source columns, for `rows` rows the first of which lies `below` rows under the one where the places stand.
    void down(const Reach& reach, int left, int below, int rows) {
        const KnotRow& knots = places_.here();
        int k = std::clamp(floor_div(left, knots.step), knots.first, knots.last() - 1);
        while (k > knots.first && std::ceil(knots.knot(k).x) > reach.first) --k;
        for (; k < knots.last() && (k == knots.first || std::ceil(knots.knot(k).x) <= reach.last); ++k) {
            const Point& a = knots.knot(k);
            const Point& b = knots.knot(k + 1);
            const int begin = int(std::ceil(a.x));
            const int end = int(std::ceil(b.x));
            // The outermost pieces go on to where columns are still read.
            const int from = k == knots.first ? reach.first : std::max(begin, reach.first);
            const int to = k + 1 == knots.last() ? reach.last + 1 : std::min(end, reach.last + 1);
            if (from >= to) continue;
            const double slope = (b.y - a.y) / (b.x - a.x);
            const double start = a.y + (begin - a.x) * slope;
            if (places_.map().bends()) {
                track_.fill(from - reach.first, to - reach.first, start, slope, from - begin);
                continue;
            }
            each_run(start, slope, end - begin, from - begin, to - begin,
                     [&](int n, int run_end, int whole, const Slide& slide) {
                         if (slide.change == 0) weights_.set_alike(lanczos_weights(float(slide.part)), unit);
                         run_down(begin + n, begin + run_end, whole + below - before, rows, [&](int u) {
                             if (slide.change != 0) weights_.set(slide, u - begin, unit);
                         });
                     });
        }
        if (!places_.map().bends()) return;
        track_.each_run(reach.last + 1 - reach.first, [&](int from, int end, int whole) {
            run_down(reach.first + from, reach.first + end, whole + below - before, rows,
                     [&](int u) { weights_.set(track_.part.data() + (u - reach.first), unit); });
        });
    }

    // Columns [u, end), the uppermost sample of the first row being in source row `top`. weigh(u) sets the weights of
    // the group that begins at column u.
    template <class Weigh>
    void run_down(int u, int end, int top, int rows, Weigh weigh) {
        const Rect& area = source_.area;
        const int group = group_pixels();
        constexpr int most_rows = most_alike + int(taps) - 1;
        const T* from[most_rows];
        for (int k = 0; k < most_rows; ++k) from[k] = row_at(top + k);
        for (; u < end; u += group) {
            weigh(u);
            float* out = between_.data() + std::ptrdiff_t(u - first_column_) * channels;
            if (u >= area.left && u + group <= area.right()) {
                rows_down(from, std::ptrdiff_t(u - area.left) * channels, rows, out);
                continue;
            }
            // The outermost samples go on beyond the edge of the picture.
            T copies[most_rows][channels * most_lanes];
            const T* pointers[most_rows];
            for (int k = 0; k < most_rows; ++k) {
                for (int i = 0; i < group; ++i) {
                    const int column = std::clamp(column_in(u + i), 0, area.width - 1);
                    std::copy_n(from[k] + std::ptrdiff_t(column) * channels, channels, copies[k] + i * channels);
                }
                pointers[k] = copies[k];
            }
            rows_down(pointers, 0, rows, out);
        }
    }

    void rows_down(const T* const* from, std::ptrdiff_t at, int rows, float* out) const {
        int r = 0;
        const auto next = [&](auto count) HWY_ATTR {
            for (; rows - r >= count; r += count)
                group_down<channels, decltype(count)::value>(from + r, at, weights_, out + std::size_t(r) * stride_,
                                                             stride_);
        };
        next(std::integral_constant<int, 8>());
        next(std::integral_constant<int, 4>());
        next(std::integral_constant<int, 2>());
        next(std::integral_constant<int, 1>());
    }

    // Rows y, y + 1, ..., of each the pixels that `pieces` names, all within `whole`, from rows r, r + 1, ... of
    // between_; `knots` says where they lie.
    void across(const KnotRow& knots, Span whole, int y, std::span<const Span> pieces, int r) {
        for (int k = floor_div(whole.begin, knots.step); k * knots.step < whole.end; ++k) {
            const Point& a = knots.knot(k);
            const int origin = k * knots.step;
            const double drift = (knots.knot(k + 1).x - a.x) / knots.step - 1;
            each_run(a.x - origin, drift, knots.step, std::max(whole.begin - origin, 0),
                     std::min(whole.end - origin, knots.step), [&](int n, int end, int shift, const Slide& slide) {
                         const float* from = between_.data() + std::size_t(r) * stride_ +
                                             std::ptrdiff_t(origin + shift - before - first_column_) * channels;
                         std::array<float, taps> weights{};
                         if (slide.change == 0) weights = lanczos_weights(float(slide.part));
                         for (std::size_t i = 0; i < pieces.size(); ++i) {
                             const int begin = std::max(n, pieces[i].begin - origin);
                             const int stop = std::min(end, pieces[i].end - origin);
                             const float* row = from + i * stride_;
                             const int at = y + int(i);
                             if (slide.change == 0)
                                 run_along(row, begin, stop, weights, at, origin);
                             else
                                 groups_along(row, begin, stop, at, origin, [&](int x) { weights_.set(slide, x, 1); });
                         }
                     });
        }
    }

    // Pixels origin + n to origin + end.
    void run_along(const float* from, int n, int end, const std::array<float, taps>& weights, int y, int origin) {
        if (n >= end) return;
        const int group = group_pixels();
        const int inside = std::min(end - n, (span_of(y).end - origin - n) / group * group);
        if (inside > 0) {
            run_across<channels>(from + std::ptrdiff_t(n) * channels, weights, inside, out_at(origin + n, y));
            n += inside;
        }
        if (n >= end) return;
        const int rest = std::min(end - n, group);
        std::uint16_t made[channels * shortest_piece];
        run_across<channels>(from + std::ptrdiff_t(n) * channels, weights, rest, made);
        std::copy_n(made, std::ptrdiff_t(rest) * channels, out_at(origin + n, y));
    }

    // The same, group by group; weigh(n) sets the weights of the one that begins at pixel origin + n. What a group
    // makes beyond `end` is made anew later; beyond the span everything stays as it is.
    template <class Weigh>
    void groups_along(const float* from, int n, int end, int y, int origin, Weigh weigh) {
        const int group = group_pixels();
        const int free = span_of(y).end - origin;
        for (; n < end; n += group) {
            weigh(n);
            const float* first = from + std::ptrdiff_t(n) * channels;
            if (n + group <= free) {
                group_across<channels>(first, weights_, out_at(origin + n, y));
                continue;
            }
            std::uint16_t made[channels * shortest_piece];
            group_across<channels>(first, weights_, made);
            std::copy_n(made, std::ptrdiff_t(std::min(end - n, group)) * channels, out_at(origin + n, y));
        }
    }

    // Where places bend with every knot: all of them first, then runs that may go over many knots.
    void bent_across(int y, Span piece, int r) {
        const KnotRow& knots = across_[std::size_t(r)];
        for (int k = floor_div(piece.begin, knots.step); k * knots.step < piece.end; ++k) {
            const Point& a = knots.knot(k);
            const int origin = k * knots.step;
            const double drift = (knots.knot(k + 1).x - a.x) / knots.step - 1;
            const int from = std::max(piece.begin, origin);
            const int to = std::min(piece.end, origin + knots.step);
            track_.fill(from - piece.begin, to - piece.begin, a.x - origin, drift, from - origin);
        }
        track_.each_run(piece.end - piece.begin, [&](int n, int end, int whole) {
            const float* from = between_.data() + std::size_t(r) * stride_ +
                                std::ptrdiff_t(piece.begin + whole - before - first_column_) * channels;
            groups_along(from, n, end, y, piece.begin, [&](int at) { weights_.set(track_.part.data() + at, 1); });
        });
    }

    // All samples around a place at once.
    void at_once(int y) {
        places_.go_to(y);
        const Span span = span_of(y);
        if (span.empty()) return;
        std::uint16_t* out = out_at(span.begin, y);
        for (int x = span.begin; x < span.end; ++x, out += channels) {
            const Point p = places_.at(x);
            const int u = int(std::floor(p.x));
            const int v = int(std::floor(p.y));
            const std::array<float, taps> along = lanczos_weights(float(p.x - u));
            const std::array<float, taps> down = lanczos_weights(float(p.y - v));
            const bool inside = u >= before && u - before + int(taps) <= size_.width;
            float sums[taps * channels] = {};
            for (int j = 0; j < int(taps); ++j) {
                const T* row = row_at(v - before + j);
                T copy[taps * channels];
                const T* samples = row + std::ptrdiff_t(u - before - source_.area.left) * channels;
                if (!inside) {
                    for (int i = 0; i < int(taps); ++i)
                        std::copy_n(row + std::ptrdiff_t(column_in(u - before + i)) * channels, channels,
                                    copy + i * channels);
                    samples = copy;
                }
                const float weight = down[std::size_t(j)];
                for (std::size_t i = 0; i < taps * channels; ++i) sums[i] += weight * float(samples[i]);
            }
            for (int c = 0; c < channels; ++c) {
                float sum = 0;
                for (std::size_t i = 0; i < taps; ++i) sum += along[i] * sums[i * channels + std::size_t(c)];
                if constexpr (sizeof(T) == 1) sum *= 257.0F;
                out[c] = std::uint16_t(std::min(std::max(sum + 0.5F, 0.0F), 65535.0F));
            }
        }
    }

    RowsAtHand<T> source_;
    RowPlaces& places_;
    Size size_;
    int first_;
    std::span<const Span> spans_;
    WarpTarget out_;
    LineVector<float>& between_;
    std::size_t stride_ = 0;
    int first_column_ = 0;  // of a row in between_
    std::array<KnotRow, most_alike>& across_;
    Track& track_;
    GroupWeights<channels> weights_;
};

template <class T>
void warp(const RowsAtHand<T>& source, int channels, RowPlaces& places, int y, std::span<const Span> spans,
          const WarpTarget& out) {
    static thread_local Workspace workspace;
    if (channels == 3)
        Warp<3, T>(source, places, y, spans, out, workspace).run();
    else
        Warp<1, T>(source, places, y, spans, out, workspace).run();
}

void warp_8(const RowsAtHand<std::uint8_t>& source, int channels, RowPlaces& places, int y, std::span<const Span> spans,
            const WarpTarget& out) {
    warp(source, channels, places, y, spans, out);
}
void warp_16(const RowsAtHand<std::uint16_t>& source, int channels, RowPlaces& places, int y,
             std::span<const Span> spans, const WarpTarget& out) {
    warp(source, channels, places, y, spans, out);
}

}  // namespace
}  // namespace bp::kernels::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace bp::kernels {

HWY_EXPORT(warp_8);
HWY_EXPORT(warp_16);

void warp_rows(const RowsAtHand<std::uint8_t>& source, int channels, RowPlaces& places, int y,
               std::span<const Span> spans, const WarpTarget& out) {
    HWY_DYNAMIC_DISPATCH(warp_8)(source, channels, places, y, spans, out);
}
void warp_rows(const RowsAtHand<std::uint16_t>& source, int channels, RowPlaces& places, int y,
               std::span<const Span> spans, const WarpTarget& out) {
    HWY_DYNAMIC_DISPATCH(warp_16)(source, channels, places, y, spans, out);
}

}  // namespace bp::kernels
#endif
