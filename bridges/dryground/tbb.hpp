// Merging on all cores, by oneTBB: for MergeOptions::parallel_for.
//
//     dg::merge(world, map, {.parallel_for = dg::tbb_parallel_for()});
//
// Groups are merged in parallel, in oneTBB's arena or that of the caller; results are the same bytes as on one thread.
// Exceptions of work come out of the merge. CMake: DryGround::tbb.
#pragma once

#include <tbb/parallel_for.h>

#include <cstddef>
#include <functional>

namespace dryground {

[[nodiscard]] inline std::function<void(std::size_t, const std::function<void(std::size_t)>&)> tbb_parallel_for() {
    return [](std::size_t count, const std::function<void(std::size_t)>& work) {
        tbb::parallel_for(std::size_t{0}, count, work);
    };
}

}   // namespace dryground
