// The order of findings in a report: by file, line, column, rule, then arguments.
#pragma once

#include "dryground/report.hpp"

namespace dryground::detail {

[[nodiscard]] bool comes_first(const Finding& a, const Finding& b);

}   // namespace dryground::detail
