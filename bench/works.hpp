// What is measured.
#pragma once

#include <functional>

#include "results.hpp"

namespace bench {

struct Settings {
    int most_side = 2048;   // of maps, in cells
    bool peers = true;      // whether general libraries are timed too
    std::string only;       // works whose name or input holds this word; empty: all
};
using Tell = std::function<void(Timing)>;

void run_all(const Settings& settings, const Tell& tell);

// The parts of it.
void measure_maps(const Settings& settings, const Tell& tell);
void measure_booleans(const Settings& settings, const Tell& tell);
void measure_growth(const Settings& settings, const Tell& tell);
void measure_forms(const Settings& settings, const Tell& tell);
void measure_checks(const Settings& settings, const Tell& tell);
void measure_walking(const Settings& settings, const Tell& tell);
void measure_physics(const Settings& settings, const Tell& tell);   // where there is an engine
void measure_play(const Settings& settings, const Tell& tell);
void measure_files(const Settings& settings, const Tell& tell);
void measure_worlds(const Settings& settings, const Tell& tell);   // of many maps, many objects

[[nodiscard]] bool wanted(const Settings& settings, const std::string& work, const std::string& input);

}   // namespace bench
