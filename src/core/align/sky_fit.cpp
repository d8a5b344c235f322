#include <ceres/ceres.h>

#include <memory>

#include "align/sky_model.h"

namespace bp {
namespace {

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

}  // namespace

void fit_sky(SkyModel& model, std::vector<Vec3>& stars, const std::vector<Sighted>& sightings, std::size_t fixed,
             double loss_px, Free free) {
    ceres::Problem problem;
    std::array<double, 3> camera{model.camera.focal, model.camera.k1, model.camera.k2};
    std::vector<char> used(model.poses.size(), 0);
    for (const Sighted& s : sightings) {
        SkyPose& pose = model.poses[s.frame];
        used[s.frame] = 1;
        problem.AddResidualBlock(
            new ceres::AutoDiffCostFunction<Distance, 2, 3, 3, 3, 2, 3>(new Distance{s.at, pose.angle}),
            new ceres::CauchyLoss(loss_px), camera.data(), model.axis.data(), pose.turn.data(), pose.shift.data(),
            stars[s.star].data());
    }
    constexpr double usual_turn = 0.002;  // radians
    constexpr double usual_shift = 1;     // pixels
    for (std::size_t i = 0; i < used.size(); ++i) {
        if (!used[i]) continue;
        SkyPose& pose = model.poses[i];
        problem.AddResidualBlock(new ceres::AutoDiffCostFunction<Rest<3>, 3, 3>(new Rest<3>{usual_turn}),
                                 new ceres::CauchyLoss(1), pose.turn.data());
        problem.AddResidualBlock(new ceres::AutoDiffCostFunction<Rest<2>, 2, 2>(new Rest<2>{usual_shift}),
                                 new ceres::CauchyLoss(1), pose.shift.data());
        if (i != fixed) continue;
        problem.SetParameterBlockConstant(pose.turn.data());
        problem.SetParameterBlockConstant(pose.shift.data());
    }
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
    for (std::size_t i = 0; i < used.size(); ++i)
        if (used[i]) {
            order->AddElementToGroup(model.poses[i].turn.data(), 1);
            order->AddElementToGroup(model.poses[i].shift.data(), 1);
        }
    if (free == Free::poses) {
        problem.SetParameterBlockConstant(camera.data());
        problem.SetParameterBlockConstant(model.axis.data());
        for (Vec3& star : stars)
            if (problem.HasParameterBlock(star.data())) problem.SetParameterBlockConstant(star.data());
    }
    ceres::Solver::Options options;
    options.linear_solver_type = free == Free::all ? ceres::DENSE_SCHUR : ceres::DENSE_QR;
    if (free == Free::all) options.linear_solver_ordering = order;
    options.max_num_iterations = 25;
    options.function_tolerance = 1e-7;
    options.num_threads = 2;
    options.logging_type = ceres::SILENT;
    ceres::Solver::Summary summary;
    ceres::Solve(options, &problem, &summary);
    model.camera = {camera[0], camera[1], camera[2]};
}

}  // namespace bp
