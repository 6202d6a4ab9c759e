// Inside the model room: what the keys of a map's cells stand for.
#pragma once

#include <array>
#include <map>
#include <string>

#include "maker_internal.hpp"

namespace dryground {

struct WorldMaker::Legend {
    struct Meaning {
        const LegendEntry* entry = nullptr;   // none: a tile by its name alone
        Placed placed{};
        std::vector<Name> kinds{};   // of painted objects: one, or several to choose from
        std::vector<double> weights{};
        std::array<int, 2> family{-1, -1}, block{-1, -1};   // tile set, and number there
        bool known = true;                                  // the tile or kind it names is there
        bool used = false;
        std::uint32_t number = 0;   // in the map's palette
    };
    std::map<std::string, Meaning, std::less<>> meanings;
};

// Returns a random number from 0 to just under 1 that depends only on a seed, a layer's name and a cell, so that it is
// the same whatever else is in the map.
[[nodiscard]] double chance_at(std::uint64_t seed, std::string_view layer, int column, int row);

}   // namespace dryground
