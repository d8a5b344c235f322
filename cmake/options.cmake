option(BRIGHT_PILE_BENCH "Build the benchmarks" OFF)
option(BRIGHT_PILE_FUZZ "Build the fuzzers of the loaders; needs clang" OFF)
set(BRIGHT_PILE_SANITIZE "" CACHE STRING "Sanitizers for the whole build, as -fsanitize takes them")

add_library(bp_flags INTERFACE)
# Contraction into fused multiply-adds would make a pixel depend on the machine it was computed on.
# GCC 12 takes joined strings for overlapping copies (its bug 105329): -Wno-restrict.
target_compile_options(bp_flags INTERFACE -Wall -Wextra -Wpedantic -Wshadow -Wnon-virtual-dtor -Werror
                                          $<$<CXX_COMPILER_ID:GNU>:-Wno-restrict> -ffp-contract=off)
target_compile_definitions(bp_flags INTERFACE BRIGHT_PILE_VERSION="${PROJECT_VERSION}")
if(BRIGHT_PILE_SANITIZE)
  target_compile_options(bp_flags INTERFACE -fsanitize=${BRIGHT_PILE_SANITIZE} -fno-omit-frame-pointer)
  target_link_options(bp_flags INTERFACE -fsanitize=${BRIGHT_PILE_SANITIZE})
  # Kernels take minutes to compile with sanitizers, once for every instruction set: the narrow ones between scalar code
  # and AVX2 are left out.
  target_compile_definitions(bp_flags INTERFACE "HWY_DISABLED_TARGETS=(HWY_SSSE3|HWY_SSE4)")
endif()

# Most of a compiler's time goes into headers that all files of a target read: they are compiled `files` at a time. A
# linter, which looks at one file, turns it off.
option(BRIGHT_PILE_TOGETHER "Compile several files at once" ON)
function(bp_together target files)
  set_target_properties(${target} PROPERTIES UNITY_BUILD ${BRIGHT_PILE_TOGETHER} UNITY_BUILD_BATCH_SIZE ${files})
endfunction()

# A room of the core: one static library named bp_<room>, seen from outside as "room/header.h".
function(bp_room room)
  cmake_parse_arguments(ARG "" "" "SOURCES;USES;PACKAGES" ${ARGN})
  add_library(bp_${room} STATIC ${ARG_SOURCES})
  target_include_directories(bp_${room} PUBLIC ${PROJECT_SOURCE_DIR}/src/core)
  target_link_libraries(bp_${room} PUBLIC ${ARG_USES} PRIVATE bp_flags ${ARG_PACKAGES})
endfunction()
