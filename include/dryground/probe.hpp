// Describes a place of a map in words: what is there, and why.
//
//     const dg::Prober prober(world, world.map("slipway"));
//     fmt::print("{}", dg::text(prober.at({100, 150})));
//
// Places are in px, y down; cells are counted from cell (0, 0). Games use `Play` (play.hpp), which returns data.
// Threads: a Prober may be used from any number of threads.
#pragma once

#include <array>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "dryground/merge.hpp"

namespace dryground {

struct ProbeQuestion {
    std::optional<PointPx> normal{};    // of a contact: out of the ground, toward the body; any length
    MoverId mover = MoverId::none;      // describes what it would meet and trigger there
    StoreyId storey = StoreyId::none;   // this storey only; none: all, with the mover on the first
};

// Each list contains lines; it is empty if there is nothing.
struct Probe {
    std::string place;                  // "slipway at (100, 150) px, cell (6, 9)"
    std::vector<std::string> tiles{};   // in this cell, from the top layer down: shapes, flags, carves
    std::vector<std::string> flags{};   // by storey: granted flags, shut sides, and what decides them
    std::vector<std::string>
        solids{};   // at exactly this point: barriers and their sources, and what is carved by what
    std::vector<std::string> objects{};   // that cover the point or are within 8 px of it
    std::vector<std::string> contact{};   // the tiles or objects of a contact with the normal
    std::vector<std::string> mover{};     // what the mover overlaps, needs, senses and triggers there
};
[[nodiscard]] std::string text(const Probe& probe);

class Prober {
public:
    // World and map must outlive it and stay unchanged. Cost: small; the first call of `at` costs in proportion to the
    // palette, objects and carved cells of the map.
    Prober(const World& world, const Map& map, const Facts& facts = {});
    ~Prober();
    Prober(Prober&&) noexcept;
    Prober& operator=(Prober&&) noexcept;

    // Describes any place, also outside the map. Cost: proportional to what is near, and to the objects.
    [[nodiscard]] Probe at(PointPx place, const ProbeQuestion& question = {}) const;

    // Parts of the description: for a whole cell of the map, and for an object (the first line names it). Require a
    // cell of the map, a position in its objects.
    [[nodiscard]] std::vector<std::string> tiles_of(Cell cell) const;
    [[nodiscard]] std::vector<std::string> flags_of(Cell cell) const;
    [[nodiscard]] std::vector<std::string> object(std::size_t object) const;

private:
    struct Parts;
    std::unique_ptr<Parts> parts_;
};

}   // namespace dryground
