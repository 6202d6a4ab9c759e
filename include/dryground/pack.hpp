// What a game holds once it has loaded a pack: a world, and what tells it from any other. Packs come from `load_pack`
// (files.hpp). Threads: immutable; copies share their content.
#pragma once

#include <string>
#include <utility>

#include "dryground/world.hpp"

namespace dryground {

class Pack {
public:
    Pack(World world, std::string hash) : world_(std::move(world)), hash_(std::move(hash)) {}
    [[nodiscard]] const World& world() const { return world_; }
    [[nodiscard]] const std::string& hash() const { return hash_; }   // of all that is in it

private:
    World world_;
    std::string hash_;
};

}   // namespace dryground
