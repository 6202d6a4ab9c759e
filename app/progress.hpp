// How far something is, for who waits at a terminal.
#pragma once

#include <cstddef>
#include <functional>
#include <string>

#include "dryground/files.hpp"

namespace app {

// On a terminal (standard error): one line, "checking: 40 %", once it has taken a second; gone when all is done, or the
// last copy of the function is. Elsewhere nothing. `all` = 0: not known; the line counts then.
using Progress = std::function<void(std::size_t done, std::size_t all)>;
[[nodiscard]] Progress progress_of(const std::string& what);

// A reader that reads as another one does, and shows how many files it has read.
[[nodiscard]] dryground::FileReader counting(dryground::FileReader reader);

}   // namespace app
