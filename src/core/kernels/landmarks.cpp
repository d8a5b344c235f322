#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "kernels/landmarks.cpp"
#include "kernels/landmarks.h"

#include <hwy/foreach_target.h>

#include <algorithm>
#include <limits>

#include "kernels/lanes.h"

HWY_BEFORE_NAMESPACE();
namespace bp::kernels::HWY_NAMESPACE {
namespace {

// Groups of eight, whatever a vector holds: so sums do not depend on it.
using Wide = hn::CappedTag<double, Landmarks::group>;
using Narrow = hn::Rebind<float, Wide>;
using Index = hn::Rebind<std::int32_t, Wide>;
using Lanes = hn::Vec<Wide>;

HWY_INLINE Lanes load(const float* from) {
    return hn::PromoteTo(Wide(), hn::LoadU(Narrow(), from));
}

HWY_INLINE void store(Lanes v, float* to) {
    hn::StoreU(hn::DemoteTo(Narrow(), v), Narrow(), to);
}

// Eight sums, one for each place in a group.
struct Sum {
    HWY_ALIGN std::array<double, Landmarks::group> of{};

    HWY_INLINE void add(std::size_t place, Lanes v) {
        hn::StoreU(hn::Add(hn::LoadU(Wide(), of.data() + place), v), Wide(), of.data() + place);
    }
    double total() const { return ((of[0] + of[4]) + (of[2] + of[6])) + ((of[1] + of[5]) + (of[3] + of[7])); }
};

// body(i, place) for every vector; `place` is where in its group it begins.
template <class Body>
HWY_INLINE void each_vector(const Landmarks& landmarks, const Body& body) {
    const std::size_t lanes = hn::Lanes(Wide());
    for (std::size_t i = 0; i < landmarks.padded(); i += Landmarks::group)
        for (std::size_t place = 0; place < Landmarks::group; place += lanes) body(i + place, place);
}

template <bool tilted>
void look_up_at(const Landmarks& landmarks, const Sight& picture, const Matrix& to_picture, float* seen) {
    const Wide d;
    const auto& m = to_picture.m();
    const auto nothing = hn::Set(d, std::numeric_limits<double>::quiet_NaN());
    const auto last_x = hn::Set(d, double(picture.width - 1));
    const auto last_y = hn::Set(d, double(picture.height - 1));
    const auto stride = hn::Set(Index(), std::int32_t(picture.stride));
    each_vector(landmarks, [&](std::size_t i, std::size_t) {
        const auto x = load(landmarks.x() + i);
        const auto y = load(landmarks.y() + i);
        const auto along = [&](std::size_t k) {
            return hn::MulAdd(hn::Set(d, m[k]), x, hn::MulAdd(hn::Set(d, m[k + 1]), y, hn::Set(d, m[k + 2])));
        };
        auto u = along(0);
        auto v = along(3);
        if constexpr (tilted) {
            const auto w = hn::Div(hn::Set(d, 1.0), along(6));
            u = hn::Mul(u, w);
            v = hn::Mul(v, w);
        }
        const auto inside = hn::And(hn::And(hn::Ge(u, hn::Zero(d)), hn::Ge(v, hn::Zero(d))),
                                    hn::And(hn::Lt(u, last_x), hn::Lt(v, last_y)));
        u = hn::IfThenElseZero(inside, u);
        v = hn::IfThenElseZero(inside, v);
        const auto left = hn::DemoteTo(Index(), u);
        const auto top = hn::DemoteTo(Index(), v);
        u = hn::Sub(u, hn::PromoteTo(d, left));
        v = hn::Sub(v, hn::PromoteTo(d, top));
        const auto at = hn::Add(hn::Mul(top, stride), left);
        const auto pixel = [&](std::size_t offset) {
            return hn::PromoteTo(d, hn::GatherIndex(Narrow(), picture.first + offset, at));
        };
        const auto between = [](auto a, auto b, auto share) { return hn::MulAdd(hn::Sub(b, a), share, a); };
        const auto above = between(pixel(0), pixel(1), u);
        const auto below = between(pixel(picture.stride), pixel(picture.stride + 1), u);
        store(hn::IfThenElse(inside, between(above, below, v), nothing), seen + i);
    });
}

void look(const Landmarks& landmarks, const Sight& picture, const Matrix& to_picture, float* seen) {
    if (to_picture.m()[6] != 0 || to_picture.m()[7] != 0 || to_picture.m()[8] != 1)
        look_up_at<true>(landmarks, picture, to_picture, seen);
    else
        look_up_at<false>(landmarks, picture, to_picture, seen);
}

void tie(const Landmarks& landmarks, const float* seen, const float* weights, TieSums& out) {
    const Wide d;
    Sum n, w, t, i, tt, ii, ti;
    each_vector(landmarks, [&](std::size_t at, std::size_t place) {
        auto b = load(seen + at);
        const auto is_seen = hn::Eq(b, b);
        b = hn::IfThenElseZero(is_seen, b);
        const auto a = load(landmarks.value() + at);
        const auto weight = hn::IfThenElseZero(is_seen, load(weights + at));
        const auto wa = hn::Mul(weight, a);
        const auto wb = hn::Mul(weight, b);
        n.add(place, hn::IfThenElseZero(is_seen, hn::Set(d, 1.0)));
        w.add(place, weight);
        t.add(place, wa);
        i.add(place, wb);
        tt.add(place, hn::Mul(wa, a));
        ii.add(place, hn::Mul(wb, b));
        ti.add(place, hn::Mul(wa, b));
    });
    out = {n.total(), w.total(), t.total(), i.total(), tt.total(), ii.total(), ti.total()};
}

void weigh(const Landmarks& landmarks, const float* seen, double gain, double offset, double reach, float* weights) {
    const Wide d;
    const auto share = hn::Set(d, 1 / reach);
    each_vector(landmarks, [&](std::size_t at, std::size_t) {
        const auto b = load(seen + at);
        const auto rest = hn::Sub(hn::NegMulAdd(hn::Set(d, gain), b, load(landmarks.value() + at)), hn::Set(d, offset));
        const auto u = hn::Mul(rest, share);
        const auto v = hn::NegMulAdd(u, u, hn::Set(d, 1.0));
        // Not so where nothing is seen, because no comparison with what is not a number is true.
        store(hn::IfThenElseZero(hn::Gt(v, hn::Zero(d)), hn::Mul(v, v)), weights + at);
    });
}

template <std::size_t parameters>
void sum_up(const Landmarks& landmarks, const float* seen, const float* weights, Point middle, double radius,
            NormalSums& out) {
    constexpr std::size_t unknowns = parameters + 2;
    const Wide d;
    const auto share = hn::Set(d, 1 / radius);
    const auto middle_x = hn::Set(d, middle.x);
    const auto middle_y = hn::Set(d, middle.y);
    std::array<std::array<Sum, unknowns>, unknowns> square{};
    std::array<Sum, unknowns> right{};
    each_vector(landmarks, [&](std::size_t at, std::size_t place) {
        const auto dx = load(landmarks.dx() + at);
        const auto dy = load(landmarks.dy() + at);
        auto b = load(seen + at);
        const auto is_seen = hn::Eq(b, b);
        b = hn::IfThenElseZero(is_seen, b);
        const auto weight = hn::IfThenElseZero(is_seen, load(weights + at));
        const auto u = hn::IfThenElseZero(is_seen, hn::Mul(hn::Sub(load(landmarks.x() + at), middle_x), share));
        const auto v = hn::IfThenElseZero(is_seen, hn::Mul(hn::Sub(load(landmarks.y() + at), middle_y), share));
        const auto along = hn::MulAdd(dx, u, hn::Mul(dy, v));
        const std::array<Lanes, most_parameters> all{dx,
                                                     dy,
                                                     hn::MulSub(dy, u, hn::Mul(dx, v)),
                                                     along,
                                                     hn::MulSub(dx, u, hn::Mul(dy, v)),
                                                     hn::MulAdd(dx, v, hn::Mul(dy, u)),
                                                     hn::Mul(along, u),
                                                     hn::Mul(along, v)};
        std::array<Lanes, unknowns> factors;
        std::copy_n(all.begin(), parameters, factors.begin());
        factors[parameters] = hn::Neg(b);
        factors[parameters + 1] = hn::Set(d, -1.0);
        const auto value = load(landmarks.value() + at);
        for (std::size_t a = 0; a < unknowns; ++a) {
            const auto weighted = hn::Mul(weight, factors[a]);
            right[a].add(place, hn::Neg(hn::Mul(weighted, value)));
            for (std::size_t k = a; k < unknowns; ++k) square[a][k].add(place, hn::Mul(weighted, factors[k]));
        }
    });
    for (std::size_t a = 0; a < unknowns; ++a) {
        out.right[a] = right[a].total();
        for (std::size_t k = a; k < unknowns; ++k) out.square[a][k] = square[a][k].total();
    }
}

void sum_all(std::size_t parameters, const Landmarks& landmarks, const float* seen, const float* weights, Point middle,
             double radius, NormalSums& out) {
    switch (parameters) {
        case 2:
            return sum_up<2>(landmarks, seen, weights, middle, radius, out);
        case 3:
            return sum_up<3>(landmarks, seen, weights, middle, radius, out);
        case 4:
            return sum_up<4>(landmarks, seen, weights, middle, radius, out);
        default:
            return sum_up<most_parameters>(landmarks, seen, weights, middle, radius, out);
    }
}

}  // namespace
}  // namespace bp::kernels::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace bp::kernels {

HWY_EXPORT(look);
HWY_EXPORT(tie);
HWY_EXPORT(weigh);
HWY_EXPORT(sum_all);

Landmarks::Landmarks(std::span<const Landmark> list) : size_(list.size()) {
    const std::size_t padded = (size_ + group - 1) / group * group;
    const float nowhere = std::numeric_limits<float>::quiet_NaN();
    x_.assign(padded, nowhere);
    y_.assign(padded, nowhere);
    for (std::vector<float>* column : {&value_, &dx_, &dy_}) column->assign(padded, 0.0F);
    for (std::size_t i = 0; i < size_; ++i) {
        x_[i] = list[i].x;
        y_[i] = list[i].y;
        value_[i] = list[i].value;
        dx_[i] = list[i].dx;
        dy_[i] = list[i].dy;
    }
}

void look_up(const Landmarks& landmarks, const Sight& picture, const Matrix& to_picture, float* seen) {
    HWY_DYNAMIC_DISPATCH(look)(landmarks, picture, to_picture, seen);
}

TieSums tie_sums(const Landmarks& landmarks, const float* seen, const float* weights) {
    TieSums out;
    HWY_DYNAMIC_DISPATCH(tie)(landmarks, seen, weights, out);
    return out;
}

void biweights(const Landmarks& landmarks, const float* seen, double gain, double offset, double reach,
               float* weights) {
    HWY_DYNAMIC_DISPATCH(weigh)(landmarks, seen, gain, offset, reach, weights);
}

NormalSums normal_sums(std::size_t parameters, const Landmarks& landmarks, const float* seen, const float* weights,
                       Point middle, double radius) {
    NormalSums out;
    HWY_DYNAMIC_DISPATCH(sum_all)(parameters, landmarks, seen, weights, middle, radius, out);
    return out;
}

}  // namespace bp::kernels
#endif
