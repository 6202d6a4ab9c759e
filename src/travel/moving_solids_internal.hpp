// Inside the travel room: solids that move along a path, and where they may stand.
#pragma once

#include <cstddef>
#include <vector>

#include "ways_internal.hpp"

namespace dryground::travel {

// A solid that moves along the places of its kind's `path`, beginning where it is drawn, and that stops a mover.
struct MovingSolid {
    ObjectId object = ObjectId::none;
    StoreyId storey = StoreyId::ground;
    std::vector<Group> groups;   // what is in the mover's way, where it is drawn
    // Some of the positions where it may stand: by how much it is moved then, and on which leg of its path that is.
    // Every place of the path is one of them, and they follow each other closely.
    struct Stop {
        Point by;
        std::size_t leg = 0;       // the one that leads here
        bool is_of_path = false;   // or lies between two that are
    };
    std::vector<Stop> stops;
};

// Returns those of a map that are present while its facts hold.
[[nodiscard]] std::vector<MovingSolid> moving_solids(const WaysOf& of);

// Returns what is in the way after it has been moved.
[[nodiscard]] std::vector<Group> moved(const std::vector<Group>& groups, Point by);
// Returns a convex ring with all positions in which the body may touch it on its way from one stop to the next, and
// perhaps some more.
[[nodiscard]] Ring swept(const MovingSolid& solid, std::size_t stop, const Ring& body);

}   // namespace dryground::travel
