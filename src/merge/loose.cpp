#include "loose_internal.hpp"

namespace dryground::detail {

std::optional<LooseArea> loose_area(const Map&, const Grid&, const Plan& plan) {
    LooseArea result;
    result.margin = plan.rim ? 1 : 0;
    for (const Step& step : plan.steps)
        if (step.layer == nullptr) return std::nullopt;
    return result;
}

}   // namespace dryground::detail
