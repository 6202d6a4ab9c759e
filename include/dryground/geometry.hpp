// Exact plane geometry on an integer lattice. Independent of tiles and maps; can be used alone.
//
// Unit: one lattice step, 1/256 px. Range: every coordinate lies within ±coordinate_limit (2^29 steps, over two million
// px). Differences then fit into 31 bits and cross products into 62, so all decisions are made in exact integer
// arithmetic. Callers test numbers with `in_range` before they make points of them; results for coordinates outside the
// range are unspecified.
//
// Directions are defined by the numbers, whichever way y points on a screen: "left" of the way from a to b is where
// turn(a, b, p) is Turn::left. Solids lie to the left of their rings: the area of an outline is positive, that of a
// hole negative.
//
// Threads: all functions are free of shared state and may run concurrently.
#pragma once

#include <array>
#include <compare>
#include <cstddef>
#include <cstdint>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace dryground {

inline constexpr int steps_per_px = 256;
inline constexpr std::int32_t coordinate_limit = std::int32_t{1} << 29;

// A point of the lattice. Points are ordered by y, then x: topmost first (y down), then leftmost.
struct Point {
    std::int32_t x = 0;
    std::int32_t y = 0;

    friend constexpr bool operator==(const Point&, const Point&) = default;
    friend constexpr std::strong_ordering operator<=>(const Point& a, const Point& b) {
        return a.y != b.y ? a.y <=> b.y : a.x <=> b.x;
    }
};

// Returns whether a number of px can be a coordinate. False for NaN and infinities.
[[nodiscard]] bool in_range(double px);

// Returns the lattice step nearest to a number of px; halves are rounded away from zero. Requires in_range(px).
[[nodiscard]] std::int32_t to_steps(double px);

// Returns the last lattice step at or before a place, as cells contain places. Places out of range are clamped to its
// end, and so is NaN.
[[nodiscard]] std::int32_t step_at(double px);

// Converts steps to px. Exact: every lattice number is a double and a finite decimal fraction.
[[nodiscard]] constexpr double to_px(std::int64_t steps) { return static_cast<double>(steps) / steps_per_px; }

[[nodiscard]] constexpr Point moved(Point p, Point by) { return {p.x + by.x, p.y + by.y}; }

// The side of the way from a to b on which a point lies.
// Laws, for all points of the range:
//     1. turn(a, b, c) == turn(b, c, a) == turn(c, a, b)
//     2. turn(a, b, c) == opposite(turn(b, a, c))
//     3. turn(a, a, c) == Turn::straight
enum class Turn { right = -1, straight = 0, left = 1 };

// Returns twice the signed area of the triangle a, b, c: positive if c is on the left.
[[nodiscard]] constexpr std::int64_t cross(Point a, Point b, Point c) {
    // differences: 31 bits with sign, |d| <= 2^30; products <= 2^60; their difference <= 2^61
    static_assert(coordinate_limit <= std::int32_t{1} << 29);
    const std::int64_t abx = std::int64_t{b.x} - a.x, aby = std::int64_t{b.y} - a.y;
    const std::int64_t acx = std::int64_t{c.x} - a.x, acy = std::int64_t{c.y} - a.y;
    return abx * acy - aby * acx;
}

[[nodiscard]] constexpr Turn turn(Point a, Point b, Point c) {
    const std::int64_t area = cross(a, b, c);
    return area > 0 ? Turn::left : area < 0 ? Turn::right : Turn::straight;
}

[[nodiscard]] constexpr Turn opposite(Turn t) { return static_cast<Turn>(-static_cast<int>(t)); }

// A closed ring; the last point joins the first, which is not repeated.
using Ring = std::vector<Point>;

// Returns twice the signed area of a ring, exact. Requires a ring that does not cross itself. O(n).
[[nodiscard]] std::int64_t twice_area(std::span<const Point> ring);

// A polygon with holes. Regions returned by this library are valid by the OGC simple features standard and minimal:
// rings are simple, touch each other in single points at most, and have no vertex in the middle of a straight run.
struct Region {
    Ring outline;
    std::vector<Ring> holes;

    friend bool operator==(const Region&, const Region&) = default;
};
using Regions = std::vector<Region>;

// Returns twice the area covered by regions that do not overlap, exact. O(n).
[[nodiscard]] std::int64_t twice_area(std::span<const Region> regions);

struct Bounds {
    Point least, most;   // both inclusive

    friend bool operator==(const Bounds&, const Bounds&) = default;
};
[[nodiscard]] std::optional<Bounds> bounds(std::span<const Region> regions);   // empty if there are no points

[[nodiscard]] Ring box_ring(Point least, Point most);   // requires least.x < most.x and least.y < most.y
[[nodiscard]] Region box_region(Point least, Point most);
[[nodiscard]] Regions moved(Regions regions, Point by);

// What is wrong with a ring. `where` is a point at which the fault shows.
enum class RingFault { none, too_few_points, repeated_point, no_area, crosses_itself };
struct RingVerdict {
    RingFault fault = RingFault::none;
    Point where;
};
// Tests a ring. One that touches itself counts as crossing itself. O(n^2) at worst: meant for drawn outlines of up to
// some thousand points.
[[nodiscard]] RingVerdict inspect(std::span<const Point> ring);

// ---- booleans -------------------------------------------------------------------------------------------------
//
// Input: any regions. Each covers the area of its outline less that of its holes, whatever the directions of its rings,
// and wherever the holes lie; a ring that crosses itself covers what it winds around (non-zero). The regions of one
// operand are united. So every way of writing an area gives the same result: reversed, repeated, overlapping, in one
// operand or in several. `inspect` finds rings that cross themselves. Output: valid, least, directed, sorted (each
// ring starts at its least point; rings and regions are sorted by their points). Where every crossing of edges lies
// on the lattice the result is exact; elsewhere vertices move by at most half a step on each axis, and rounding
// never makes edges cross. O((n + k) log n) for n edges with k crossings on maps and drawings.
[[nodiscard]] Regions unite(std::span<const Region> regions);
[[nodiscard]] Regions unite(std::span<const Region> a, std::span<const Region> b);
[[nodiscard]] Regions subtract(std::span<const Region> a, std::span<const Region> b);
[[nodiscard]] Regions intersect(std::span<const Region> a, std::span<const Region> b);

// One step of a stack, applied from the first to the last: a layer adds its area or removes it. The label identifies
// what the added area is made of.
struct PaintLayer {
    bool adds = true;
    int label = 0;   // 0 or more
    Regions area;
};

// A ring in which each edge has the label of the topmost layer on its solid side: labels[i] belongs to the edge from
// points[i] to the next point. Vertices within straight runs are kept only where the label changes.
struct LabelledRing {
    Ring points;
    std::vector<int> labels;

    friend bool operator==(const LabelledRing&, const LabelledRing&) = default;
};

struct Stacked {
    Regions regions;
    std::vector<LabelledRing> rings;   // all outlines and holes of the regions, sorted by their points
};
// Stacks all layers in one pass, so that rounding happens once however many layers there are. Cost as for booleans.
[[nodiscard]] Stacked stack(std::span<const PaintLayer> layers);

// Where a point lies relative to regions, which may overlap: a point inside any of them is inside; one that lies on a
// ring and inside none is on the edge. O(n).
enum class Side { inside, edge, outside };
[[nodiscard]] Side locate(std::span<const Region> regions, Point p);

// ---- cutting up -----------------------------------------------------------------------------------------------

using Triangle = std::array<Point, 3>;   // a ring with the solid on its left

// Cuts regions into triangles that cover them exactly, edge to edge, with the vertices of the regions only. Triangles
// are grouped by region; each starts at its least point; sorted. Requires regions as returned by booleans. O(n log n).
[[nodiscard]] std::vector<Triangle> triangles(std::span<const Region> regions);

// Cuts regions into convex polygons of at most `most_vertices` (3 or more) that cover them exactly and do not overlap,
// with the vertices of the regions only. Each starts at its least point; sorted. Requires regions as returned by
// booleans. O(n log n).
[[nodiscard]] std::vector<Ring> convex_pieces(std::span<const Region> regions, int most_vertices);

struct Boxes {
    std::vector<Bounds> boxes{};   // axis-parallel, sorted
    std::vector<Ring> rests{};     // convex pieces where edges slant, sorted

    friend bool operator==(const Boxes&, const Boxes&) = default;
};
// Cuts regions into boxes and, where edges are slanted, convex pieces, exactly and without overlap. For regions whose
// edges are all horizontal or vertical: the fewest boxes possible, and no other pieces. Requires regions as returned by
// booleans.
// Cost: O(n log n + c^1.5 log^2 c) for c chords between corners, however often they cross (Ohtsuki, "Minimum dissection
// of rectilinear regions", ISCAS 1982; Ferrari, Sankar and Sklansky, "Minimal rectangular partitions of digitized
// blobs", Computer Vision, Graphics, and Image Processing 28, 1984).
[[nodiscard]] Boxes least_boxes(std::span<const Region> regions, int most_vertices = 8);

// Triangles as indices into points, each with the solid on its left.
struct Mesh {
    std::vector<Point> points{};
    std::vector<std::array<std::uint32_t, 3>> triangles{};

    friend bool operator==(const Mesh&, const Mesh&) = default;
};
// Returns the constrained Delaunay triangulation: edge to edge, an exact cover without new points; no point that is
// visible from a triangle lies inside its circumcircle. Requires regions as returned by booleans. O(n log n).
[[nodiscard]] Mesh delaunay_triangles(std::span<const Region> regions);

// ---- growing --------------------------------------------------------------------------------------------------

// How convex corners are grown: as in the SVG standard (a mitre longer than 4 times the distance becomes a bevel), or
// `box`: the sum with an axis-parallel square, which is exact.
enum class Corners { round, bevel, mitre, box };

// Grows regions by a distance in steps, or shrinks them if it is negative. Narrow gaps close, thin walls vanish. Round
// corners stay within `within_px` (above 0) of the circle. Throws std::out_of_range if the result leaves the range of
// coordinates, std::invalid_argument for round corners with any other `within_px`. Requires regions as returned by
// booleans. Cost as for booleans; with round corners, edges far shorter than the distance cost O(n log n) together.
[[nodiscard]] Regions grown(std::span<const Region> regions, std::int32_t by, Corners corners, double within_px = 0.25);

// Returns where the position of a convex body cannot be without overlapping the regions: the inside of the result (on
// its edge the body touches). This is the Minkowski sum of the regions and the mirrored body, exact on the lattice
// (Lozano-Perez, "Spatial planning: a configuration space approach", IEEE Transactions on Computers C-32, 1983). Throws
// std::out_of_range if it leaves the range of coordinates. Requires regions as returned by booleans, and a body as
// returned by `convex_hull`. Cost as for booleans.
[[nodiscard]] Regions reach(std::span<const Region> regions, std::span<const Point> body);

// ---- curves ---------------------------------------------------------------------------------------------------

// Returns the ring of fewest vertices within `within_px` (above 0) of an ellipse, inside or outside, that is symmetric
// about both axes and contains the four extreme points. Convex, least vertex first. Radii in steps, above 0.
[[nodiscard]] Ring ellipse_ring(Point centre, std::int32_t radius_x, std::int32_t radius_y, double within_px);

// Returns an upright or lying capsule that fills the box from `least` to `most`: its ends are round, with half the
// shorter side as radius.
[[nodiscard]] Ring capsule_ring(Point least, Point most, double within_px);
// Returns all points within a radius (above 0) of the segment between two points.
[[nodiscard]] Ring capsule_ring(Point from, Point to, std::int32_t radius, double within_px);

// Returns the outline of the pixels that are set (not 0; row by row from the top), with holes, in steps from the
// top-left corner of the first pixel. Few vertices: every vertex of the exact pixel outline lies within `within_px` of
// the result, which never crosses itself or touches itself where the pixels do not. 0: the exact pixel outline.
// Requires width * height pixels.
[[nodiscard]] Regions trace_pixels(int width, int height, std::span<const char> set, double within_px);

// Returns the convex hull of points, its least vertex first. O(n log n).
[[nodiscard]] Ring convex_hull(std::vector<Point> points);

// ---- notation -------------------------------------------------------------------------------------------------

// Converts to and from text for tests and messages, lossless, in steps: a ring is `(x,y x,y x,y)`, a region is its
// outline and holes `[(…) (…)]`, regions are separated by spaces. Parsing returns nothing for any other text.
[[nodiscard]] std::string to_text(std::span<const Point> ring);
[[nodiscard]] std::string to_text(std::span<const Region> regions);
[[nodiscard]] std::optional<Regions> regions_from_text(std::string_view text);

}   // namespace dryground
