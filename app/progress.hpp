// Progress of long work, for people at a terminal.
#pragma once

#include <cstddef>
#include <functional>
#include <string>

#include "dryground/files.hpp"

namespace app {

// Returns a function that reports progress. On a terminal (standard error): one line, "checking: 40 %", once it has
// taken a second; removed when all is done, or with the last copy of the function. Elsewhere it prints nothing. `all` =
// 0: unknown; the line counts then.
using Progress = std::function<void(std::size_t done, std::size_t all)>;
[[nodiscard]] Progress progress_of(const std::string& what);

// Returns a reader that reads like another, and shows how many files it has read.
[[nodiscard]] dryground::FileReader counting(dryground::FileReader reader);

}   // namespace app
