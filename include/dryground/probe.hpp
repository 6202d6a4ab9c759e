// What is here, and why: in words, for people who look at a place of a map.
//
//     const dg::Prober prober(world, world.map("slipway"));
//     fmt::print("{}", dg::text(prober.at({100, 150})));
//
// Places are in px, y down, cells as maps count them. Games ask `Play` (play.hpp), which answers in numbers.
// Threads: a Prober may be asked from any number of threads.
#pragma once

#include <array>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "dryground/merge.hpp"

namespace dryground {

struct ProbeQuestion {
    std::optional<PointPx> normal{};    // of a contact: out of the ground, toward the body, of any length
    MoverId mover = MoverId::none;      // an id: what it would meet and set off, standing there
    StoreyId storey = StoreyId::none;   // only what is on it; none: on all of them, the mover on the first
};

// Each list holds lines, empty where there is nothing to tell.
struct Probe {
    std::string place;                   // "slipway at (100, 150) px, cell (6, 9)"
    std::vector<std::string> tiles{};    // of each layer that has one in this cell, from the top: shapes, flags, carves
    std::vector<std::string> flags{};    // by storey: what is granted, which sides are shut, and who decides it
    std::vector<std::string> solids{};   // at this very point: barriers, of what, and what is carved away by what
    std::vector<std::string> objects{};   // that cover the point, or stand within 8 px of it
    std::vector<std::string> contact{};   // which tiles or objects a contact with the normal means
    std::vector<std::string> mover{};     // what the mover overlaps, needs, senses and sets off there
};
[[nodiscard]] std::string text(const Probe& probe);

class Prober {
public:
    // World and map must outlive it, and stay as they are. Cost: little; the first place that is asked about costs in
    // proportion to the map's palette, objects and carved cells.
    Prober(const World& world, const Map& map, const Facts& facts = {});
    ~Prober();
    Prober(Prober&&) noexcept;
    Prober& operator=(Prober&&) noexcept;

    // Any place; of one outside of the map it says so. Cost: in proportion to what lies near, and to the objects.
    [[nodiscard]] Probe at(PointPx place, const ProbeQuestion& question = {}) const;

    // Parts of it: what holds for all of a cell of the map, and what there is to say of an object (its first line says
    // what it is). Requires a cell of the map, a position in its objects.
    [[nodiscard]] std::vector<std::string> tiles_of(Cell cell) const;
    [[nodiscard]] std::vector<std::string> flags_of(Cell cell) const;
    [[nodiscard]] std::vector<std::string> object(std::size_t object) const;

private:
    struct Parts;
    std::unique_ptr<Parts> parts_;
};

}   // namespace dryground
