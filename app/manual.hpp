// The tool describes itself: completion for bash and a man page, from what its commands say of their words.
#pragma once

#include <CLI/CLI.hpp>
#include <string>

namespace app {

[[nodiscard]] std::string bash_completion(const CLI::App& cli);
[[nodiscard]] std::string man_page(const CLI::App& cli);

}   // namespace app
