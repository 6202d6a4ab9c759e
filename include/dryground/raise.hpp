// Merged ground raised to closed meshes, for viewers and physics engines in three dimensions.
//
//     const dg::Merge merged = dg::merge(world, map, {.plane = dg::plane_of(dg::Pose::flat)});
//     const dg::Frame frame = dg::frame_of(world, map, dg::Pose::flat);
//     const dg::Group& group = merged.group("earth");
//     const dg::Solid solid = dg::raised(group.regions, frame, dg::heights_of(world, group.storey_id));
//
// Units: metres. Axes: right-handed, x to the right, y up, z toward the viewer. Threads: free functions without shared
// state.
#pragma once

#include <array>
#include <cstdint>
#include <optional>
#include <span>
#include <vector>

#include "dryground/merge.hpp"

namespace dryground {

// How a map stands in space. `upright`, as maps seen from the side: the map's y points down along -y, and ground is
// raised along z. `flat`, as maps seen from above: the map's y runs along z, and ground is raised along y.
enum class Pose { upright, flat };

// The plane on which a map is as it stands. Of square grids either plane gives the same numbers.
[[nodiscard]] constexpr Plane plane_of(Pose pose) { return pose == Pose::flat ? Plane::ground : Plane::screen; }

// From the coordinates of merged ground to metres, and from metres to px of the map.
struct Frame {
    Pose pose = Pose::flat;
    std::array<std::int64_t, 4> laid{1, 0, 0, 1};   // coordinates of the plane that the map stands on: two rows
    double across = 1, down = 1;                    // how many of those make a metre
    std::array<double, 4> px{1, 0, 0, 1};           // from metres on that plane to px of the map: two rows

    // A place of merged ground, so many metres above the plane.
    [[nodiscard]] std::array<double, 3> place(Point p, double height_m) const {
        const double u = static_cast<double>(laid[0] * p.x + laid[1] * p.y) / across,
                     v = static_cast<double>(laid[2] * p.x + laid[3] * p.y) / down;
        return in_space(u, v, height_m);
    }
    // The place on the map below, or behind, a place in space; of a direction the part that lies in the map's plane.
    [[nodiscard]] PointPx px_of(const std::array<double, 3>& place) const {
        const double u = place[0], v = pose == Pose::flat ? place[2] : -place[1];
        return {px[0] * u + px[1] * v, px[2] * u + px[3] * v};
    }
    // The other way round: a place of the map, so many metres above its plane.
    [[nodiscard]] std::array<double, 3> place_of(PointPx p, double height_m) const {
        const double determinant = px[0] * px[3] - px[1] * px[2];
        return in_space((px[3] * p.x - px[1] * p.y) / determinant, (px[0] * p.y - px[2] * p.x) / determinant, height_m);
    }

private:
    [[nodiscard]] std::array<double, 3> in_space(double u, double v, double height_m) const {
        return pose == Pose::flat ? std::array<double, 3>{u, height_m, v} : std::array<double, 3>{u, -v, height_m};
    }
};

// Of a map whose ground was merged on a plane: the screen's, as in a running game, or the ground's. Metres come from
// the world's `per_metre`; of an isometric map that lies flat a cell is a square with the diamond's width as its
// diagonal, one that stands upright is taken as it is drawn. Throws std::invalid_argument for an upright map merged on
// the ground plane.
[[nodiscard]] Frame frame_of(const World& world, const Map& map, Pose pose, Plane merged_on);
[[nodiscard]] inline Frame frame_of(const World& world, const Map& map, Pose pose) {
    return frame_of(world, map, pose, plane_of(pose));
}

// From where to where ground is raised, metres.
struct Heights {
    double base = 0, height = 2;
};
// Those of a storey, or from its base by another height, px.
[[nodiscard]] Heights heights_of(const World& world, StoreyId storey, std::optional<double> height_px = {});

// A closed mesh: each edge belongs to two triangles, which run through it in opposite directions (to four where a
// region touches itself at a corner). Triangles run counter-clockwise seen from outside.
struct Solid {
    std::vector<std::array<double, 3>> points{};
    std::vector<std::array<std::uint32_t, 3>> triangles{};
};

// Regions raised to a floor, a cap and walls. Requires regions as booleans return them and a height above 0. Points are
// the regions' own, at the base and at the top. O(n log n).
[[nodiscard]] Solid raised(std::span<const Region> regions, const Frame& frame, const Heights& heights);

// The same with its inside out: what is seen, or collided with, from within.
[[nodiscard]] Solid turned_inward(Solid solid);

}   // namespace dryground
