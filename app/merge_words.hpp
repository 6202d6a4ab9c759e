// The options for merging, which all commands that show or write merged ground have.
#pragma once

#include <string>
#include <vector>

#include "command.hpp"

namespace app {

struct MergeWords {
    std::vector<std::string> facts;
    std::string mover, corners = "round";
    int most_vertices = 0;
    double grow_px = 0, within_px = 0;

    void add_to(CLI::App& command);
    // Copies them into options; ends the command if a name is unknown.
    void apply(dryground::MergeOptions& merging, const dryground::World& world) const;
    // Prints to standard error where they differ from the world's files.
    void say_what_is_other(const dryground::World& world) const;
};

}   // namespace app
