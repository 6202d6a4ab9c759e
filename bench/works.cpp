#include "works.hpp"

namespace bench {

bool wanted(const Settings& settings, const std::string& work, const std::string& input) {
    return work.find(settings.only) != std::string::npos || input.find(settings.only) != std::string::npos;
}

void run_all(const Settings& settings, const Tell& tell) {
    measure_maps(settings, tell);
    measure_booleans(settings, tell);
    measure_forms(settings, tell);
    measure_growth(settings, tell);
    measure_checks(settings, tell);
    measure_play(settings, tell);
    measure_walking(settings, tell);
#ifdef DRYGROUND_HAS_CHIPMUNK
    measure_physics(settings, tell);
#endif
    measure_files(settings, tell);
    measure_worlds(settings, tell);
}

}   // namespace bench
