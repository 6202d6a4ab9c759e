// Timing several ways to do a thing beside each other.
#pragma once

#include <algorithm>
#include <chrono>
#include <functional>
#include <numeric>
#include <vector>

namespace bench {

// Keeps a result from being optimised away.
template <class T>
inline void keep(const T& value) {
    asm volatile("" : : "r,m"(value) : "memory");
}

// Seconds of each, run in turn, so that what slows the machine slows all: the mean of the faster half of the runs. All
// are run at least `rounds` times, and on until `seconds` have passed; those that take over 3 seconds once only.
inline std::vector<double> alternate(const std::vector<std::function<void()>>& ways, int rounds = 5,
                                     double seconds = 0.5) {
    using Clock = std::chrono::steady_clock;
    std::vector<std::vector<double>> times(ways.size());
    const auto start = Clock::now();
    const auto since = [](Clock::time_point t) { return std::chrono::duration<double>(Clock::now() - t).count(); };
    for (int round = 0; round < rounds || (since(start) < seconds && round < 1000); ++round)
        for (std::size_t i = 0; i < ways.size(); ++i) {
            if (!times[i].empty() && times[i].front() > 3) continue;
            const auto begin = Clock::now();
            ways[i]();
            times[i].push_back(since(begin));
        }
    std::vector<double> result;
    for (std::vector<double>& t : times) {
        std::sort(t.begin(), t.end());
        const auto half = static_cast<std::ptrdiff_t>((t.size() + 1) / 2);
        result.push_back(std::accumulate(t.begin(), t.begin() + half, 0.0) / static_cast<double>(half));
    }
    return result;
}

}   // namespace bench
