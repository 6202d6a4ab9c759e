// Completion for bash and a man page, made from what the commands declare about their words.
#pragma once

#include <CLI/CLI.hpp>
#include <string>

namespace app {

[[nodiscard]] std::string bash_completion(const CLI::App& cli);
[[nodiscard]] std::string man_page(const CLI::App& cli);

}   // namespace app
