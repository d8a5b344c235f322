// Kernels on every instruction set.
#pragma once

#include <hwy/highway.h>
#include <hwy/targets.h>

#include <catch2/catch.hpp>

namespace bp::test {

// Runs `body` on every instruction set that this machine has and the program was built for.
template <class Body>
void on_every_target(const Body& body) {
    int targets = 0;
    for (const std::int64_t target : hwy::SupportedAndGeneratedTargets()) {
        hwy::SetSupportedTargetsForTest(target);
        INFO(hwy::TargetName(target));
        body();
        ++targets;
    }
    hwy::SetSupportedTargetsForTest(0);
    CHECK(targets >= 2);
}

}  // namespace bp::test
