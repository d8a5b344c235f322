// Plain loops compiled for wider vectors, too, and chosen at run time: for code that the compiler makes vectors of by
// itself. Products and sums are rounded one by one everywhere (-ffp-contract=off), so that every machine gives the
// same. Not under the sanitizers, which are not ready yet when such functions are chosen.
#pragma once

#if defined(__x86_64__) && defined(__GNUC__) && !defined(__clang__) && !defined(__SANITIZE_ADDRESS__) && \
    !defined(__SANITIZE_THREAD__)
#define BP_WIDE __attribute__((target_clones("default", "arch=x86-64-v3")))
#else
#define BP_WIDE
#endif
// Rows of which none overlaps another: without it the compiler often settles for one sample at a time.
#define BP_APART __restrict
// What is part of such loops, compiled into each of them.
#define BP_WITHIN inline __attribute__((always_inline))
