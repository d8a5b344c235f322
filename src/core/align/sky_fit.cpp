#include <ceres/ceres.h>

#include <memory>

#include "align/sky_model.h"

namespace bp {
namespace {

// From where a star is seen to where it should be. All is sought.
struct Distance {
    Point at;
    double angle;

    template <class T>
    bool operator()(const T* camera, const T* axis, const T* turn, const T* shift, const T* star, T* out) const {
        const auto seen = seen_at<T>({star[0], star[1], star[2]}, camera, {axis[0], axis[1], axis[2]}, T(angle),
                                     {turn[0], turn[1], turn[2]}, shift);
        out[0] = seen[0] - T(at.x);
        out[1] = seen[1] - T(at.y);
        return true;
    }
};

// The same with a pose that is known.
struct UnderSky {
    Point at;
    SkyPose pose;

    template <class T>
    bool operator()(const T* camera, const T* axis, const T* star, T* out) const {
        const std::array<T, 3> turn{T(pose.turn[0]), T(pose.turn[1]), T(pose.turn[2])};
        const std::array<T, 2> shift{T(pose.shift[0]), T(pose.shift[1])};
        return Distance{at, pose.angle}(camera, axis, turn.data(), shift.data(), star, out);
    }
};

// The same of the pose alone. `star` is turned to where it stands when the frame is taken.
struct OfPose {
    Point at;
    Vec3 star;
    SkyCamera camera;

    template <class T>
    bool operator()(const T* turn, const T* shift, T* out) const {
        const std::array<T, 3> lens{T(camera.focal), T(camera.k1), T(camera.k2)};
        const std::array<T, 3> any_axis{T(0), T(0), T(1)};
        const std::array<T, 3> there{T(star[0]), T(star[1]), T(star[2])};
        return Distance{at, 0}(lens.data(), any_axis.data(), turn, shift, there.data(), out);
    }
};

// Tripods stand still unless the stars say otherwise.
template <int n>
struct Rest {
    double usual;
    template <class T>
    bool operator()(const T* value, T* out) const {
        for (int i = 0; i < n; ++i) out[i] = value[i] / T(usual);
        return true;
    }
};

// Lenses bend little unless the stars say otherwise.
struct Mild {
    template <class T>
    bool operator()(const T* camera, T* out) const {
        out[0] = camera[1] / T(0.3);
        out[1] = camera[2] / T(0.05);
        return true;
    }
};

void hold_still(ceres::Problem& problem, SkyPose& pose) {
    constexpr double usual_turn = 0.002;  // radians
    constexpr double usual_shift = 1;     // pixels
    problem.AddResidualBlock(new ceres::AutoDiffCostFunction<Rest<3>, 3, 3>(new Rest<3>{usual_turn}),
                             new ceres::CauchyLoss(1), pose.turn.data());
    problem.AddResidualBlock(new ceres::AutoDiffCostFunction<Rest<2>, 2, 2>(new Rest<2>{usual_shift}),
                             new ceres::CauchyLoss(1), pose.shift.data());
}

void solve(const ceres::Solver::Options& wanted, ceres::Problem& problem) {
    ceres::Solver::Options options = wanted;
    options.max_num_iterations = 25;
    options.function_tolerance = 1e-6;
    options.logging_type = ceres::SILENT;
    ceres::Solver::Summary summary;
    ceres::Solve(options, &problem, &summary);
}

}  // namespace

void fit_sky(SkyModel& model, std::vector<Vec3>& stars, const std::vector<Sighted>& sightings, std::size_t fixed,
             double loss_px, Free free) {
    ceres::Problem problem;
    std::array<double, 3> camera{model.camera.focal, model.camera.k1, model.camera.k2};
    std::vector<char> used(model.poses.size(), 0);
    for (const Sighted& s : sightings) {
        SkyPose& pose = model.poses[s.frame];
        used[s.frame] = 1;
        auto* loss = new ceres::CauchyLoss(loss_px);
        if (free == Free::all)
            problem.AddResidualBlock(
                new ceres::AutoDiffCostFunction<Distance, 2, 3, 3, 3, 2, 3>(new Distance{s.at, pose.angle}), loss,
                camera.data(), model.axis.data(), pose.turn.data(), pose.shift.data(), stars[s.star].data());
        else
            problem.AddResidualBlock(new ceres::AutoDiffCostFunction<UnderSky, 2, 3, 3, 3>(new UnderSky{s.at, pose}),
                                     loss, camera.data(), model.axis.data(), stars[s.star].data());
    }
    if (sightings.empty()) return;
    problem.AddResidualBlock(new ceres::AutoDiffCostFunction<Mild, 2, 3>(new Mild), nullptr, camera.data());
    problem.SetManifold(model.axis.data(), new ceres::SphereManifold<3>());
    auto order = std::make_shared<ceres::ParameterBlockOrdering>();
    for (Vec3& star : stars)
        if (problem.HasParameterBlock(star.data())) {
            problem.SetManifold(star.data(), new ceres::SphereManifold<3>());
            order->AddElementToGroup(star.data(), 0);
        }
    order->AddElementToGroup(camera.data(), 1);
    order->AddElementToGroup(model.axis.data(), 1);
    for (std::size_t i = 0; i < used.size() && free == Free::all; ++i) {
        if (!used[i]) continue;
        SkyPose& pose = model.poses[i];
        hold_still(problem, pose);
        order->AddElementToGroup(pose.turn.data(), 1);
        order->AddElementToGroup(pose.shift.data(), 1);
        if (i != fixed) continue;
        problem.SetParameterBlockConstant(pose.turn.data());
        problem.SetParameterBlockConstant(pose.shift.data());
    }
    ceres::Solver::Options options;
    options.linear_solver_type = ceres::DENSE_SCHUR;
    options.linear_solver_ordering = order;
    // Several threads add up in an order of their own, and what is found would differ in its last digits.
    options.num_threads = 1;
    solve(options, problem);
    model.camera = {camera[0], camera[1], camera[2]};
}

void fit_pose(SkyModel& model, const std::vector<Vec3>& stars, const std::vector<Sighted>& sightings, std::size_t frame,
              double loss_px) {
    if (sightings.empty()) return;
    SkyPose& pose = model.poses[frame];
    ceres::Problem problem;
    for (const Sighted& s : sightings)
        problem.AddResidualBlock(new ceres::AutoDiffCostFunction<OfPose, 2, 3, 2>(new OfPose{
                                     s.at, turned<double>(stars[s.star], model.axis, pose.angle), model.camera}),
                                 new ceres::CauchyLoss(loss_px), pose.turn.data(), pose.shift.data());
    hold_still(problem, pose);
    ceres::Solver::Options options;
    options.linear_solver_type = ceres::DENSE_QR;
    solve(options, problem);
}

}  // namespace bp
