// Raises merged ground to closed meshes, for viewers and physics engines in three dimensions.
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

// The pose of a map in space. `upright`, for maps seen from the side: y of the map runs along -y, and ground is raised
// along z. `flat`, for maps seen from above: y of the map runs along z, and ground is raised along y.
enum class Pose { upright, flat };

// Returns the plane to merge on for a pose. For square grids both planes give the same numbers.
[[nodiscard]] constexpr Plane plane_of(Pose pose) { return pose == Pose::flat ? Plane::ground : Plane::screen; }

// Converts coordinates of merged ground to metres, and metres to px of the map.
struct Frame {
    Pose pose = Pose::flat;
    std::array<std::int64_t, 4> laid{1, 0, 0, 1};   // matrix to coordinates of the pose's plane: two rows
    double across = 1, down = 1;                    // these coordinates per metre
    std::array<double, 4> px{1, 0, 0, 1};           // matrix from metres on that plane to px of the map: two rows

    // Returns the place of a point of merged ground, at a height above the plane.
    [[nodiscard]] std::array<double, 3> place(Point p, double height_m) const {
        const double u = static_cast<double>(laid[0] * p.x + laid[1] * p.y) / across,
                     v = static_cast<double>(laid[2] * p.x + laid[3] * p.y) / down;
        return in_space(u, v, height_m);
    }
    // Returns the place on the map below or behind a place in space; for a direction, its part in the plane of the map.
    [[nodiscard]] PointPx px_of(const std::array<double, 3>& place) const {
        const double u = place[0], v = pose == Pose::flat ? place[2] : -place[1];
        return {px[0] * u + px[1] * v, px[2] * u + px[3] * v};
    }
    // Returns the place in space of a place of the map, at a height above its plane.
    [[nodiscard]] std::array<double, 3> place_of(PointPx p, double height_m) const {
        const double determinant = px[0] * px[3] - px[1] * px[2];
        return in_space((px[3] * p.x - px[1] * p.y) / determinant, (px[0] * p.y - px[2] * p.x) / determinant, height_m);
    }

private:
    [[nodiscard]] std::array<double, 3> in_space(double u, double v, double height_m) const {
        return pose == Pose::flat ? std::array<double, 3>{u, height_m, v} : std::array<double, 3>{u, -v, height_m};
    }
};

// Returns the frame of a map whose ground was merged on a plane: the screen, as in a running game, or the ground.
// Metres are defined by the world's `per_metre`; in a flat isometric map a cell is a square with the width of the
// diamond as its diagonal, in an upright one it is as drawn. Throws std::invalid_argument for an upright map merged on
// the ground plane.
[[nodiscard]] Frame frame_of(const World& world, const Map& map, Pose pose, Plane merged_on);
[[nodiscard]] inline Frame frame_of(const World& world, const Map& map, Pose pose) {
    return frame_of(world, map, pose, plane_of(pose));
}

// The base and height of raised ground, metres.
struct Heights {
    double base = 0, height = 2;
};
// Returns those of a storey, or its base with another height, px.
[[nodiscard]] Heights heights_of(const World& world, StoreyId storey, std::optional<double> height_px = {});

// A closed mesh: each edge belongs to two triangles with opposite directions (to four where a region touches itself at
// a corner). Triangles run counter-clockwise seen from outside.
struct Solid {
    std::vector<std::array<double, 3>> points{};
    std::vector<std::array<std::uint32_t, 3>> triangles{};
};

// Raises regions to meshes with floor, cap and walls. Requires regions as returned by booleans and a height above 0.
// Points are those of the regions, at the base and at the top. O(n log n).
[[nodiscard]] Solid raised(std::span<const Region> regions, const Frame& frame, const Heights& heights);

// Turns a mesh inside out, to be seen or collided with from within.
[[nodiscard]] Solid turned_inward(Solid solid);

}   // namespace dryground
