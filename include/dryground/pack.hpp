// A loaded pack: a world, and a hash that identifies it. Packs come from `load_pack` (files.hpp). Threads: immutable;
// copies share their content.
#pragma once

#include <string>
#include <utility>

#include "dryground/world.hpp"

namespace dryground {

class Pack {
public:
    Pack(World world, std::string hash) : world_(std::move(world)), hash_(std::move(hash)) {}
    [[nodiscard]] const World& world() const { return world_; }
    [[nodiscard]] const std::string& hash() const { return hash_; }   // of its content

private:
    World world_;
    std::string hash_;
};

}   // namespace dryground
