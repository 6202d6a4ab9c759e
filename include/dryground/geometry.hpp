// Exact plane geometry on an integer lattice. Knows nothing of tiles; could be lifted out and used alone.
//
// Unit: one lattice step, 1/256 px. Range: every coordinate lies within ±coordinate_limit (2^29 steps, over two
// million px). Differences then fit 31 bits and cross products 62, so that every decision here is made in exact
// integer arithmetic. Callers check their numbers with `in_range` before they make points of them; what happens
// outside the range is not specified.
//
// Directions are told by the numbers alone, whichever way y points on a screen: "left" of the way from a to b is
// where turn(a, b, p) is Turn::left. Solids lie to the left of their rings: an outline's area is positive, a
// hole's negative.
//
// Threads: all functions are free of shared state and may run at the same time on any threads.
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

// A place on the lattice. Points are ordered by y, then x: the topmost first (y down), then the leftmost.
struct Point {
    std::int32_t x = 0;
    std::int32_t y = 0;

    friend constexpr bool operator==(const Point&, const Point&) = default;
    friend constexpr std::strong_ordering operator<=>(const Point& a, const Point& b) {
        return a.y != b.y ? a.y <=> b.y : a.x <=> b.x;
    }
};

// Whether a number of px can be a coordinate. False for NaN and the infinities.
[[nodiscard]] bool in_range(double px);

// The nearest lattice step of a number of px; halves round away from zero. Requires in_range(px).
[[nodiscard]] std::int32_t to_steps(double px);

// The last lattice step at or before a place: what holds it, as cells do. Places out of range come to its end, and so
// does what is no number.
[[nodiscard]] std::int32_t step_at(double px);

// Exact: every lattice number is a double and a finite decimal fraction.
[[nodiscard]] constexpr double to_px(std::int64_t steps) { return static_cast<double>(steps) / steps_per_px; }

[[nodiscard]] constexpr Point moved(Point p, Point by) { return {p.x + by.x, p.y + by.y}; }

// On which side of the way from a to b the point p lies.
// Laws, for all points of the range:
//   1. turn(a, b, c) == turn(b, c, a) == turn(c, a, b)
//   2. turn(a, b, c) == opposite(turn(b, a, c))
//   3. turn(a, a, c) == Turn::straight
enum class Turn { right = -1, straight = 0, left = 1 };

// Twice the signed area of the triangle a, b, c: positive when c is on the left.
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

// Twice the signed area inside a ring, exact. Requires a ring that does not cross itself. O(n).
[[nodiscard]] std::int64_t twice_area(std::span<const Point> ring);

// One polygon with holes. Regions that come out of this library are valid as the OGC simple features standard says
// and least: rings are simple, meet in single points at most, and have no vertex in the middle of a straight run.
struct Region {
    Ring outline;
    std::vector<Ring> holes;

    friend bool operator==(const Region&, const Region&) = default;
};
using Regions = std::vector<Region>;

// Twice the area covered by regions that do not overlap, exact. O(n).
[[nodiscard]] std::int64_t twice_area(std::span<const Region> regions);

struct Bounds {
    Point least, most;   // both inclusive

    friend bool operator==(const Bounds&, const Bounds&) = default;
};
[[nodiscard]] std::optional<Bounds> bounds(std::span<const Region> regions);   // nothing when there is no point

[[nodiscard]] Ring box_ring(Point least, Point most);   // requires least.x < most.x and least.y < most.y
[[nodiscard]] Region box_region(Point least, Point most);
[[nodiscard]] Regions moved(Regions regions, Point by);

// What is wrong with a ring that somebody drew. `where` is a point at which it shows.
enum class RingFault { none, too_few_points, repeated_point, no_area, crosses_itself };
struct RingVerdict {
    RingFault fault = RingFault::none;
    Point where;
};
// A ring that touches itself counts as crossing itself. O(n^2) at worst, for drawn outlines of up to some thousand
// points.
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

// One step of a stack, worked from the first to the last: a layer adds its area or takes it away. The label says
// what the added area is made of, where later somebody asks which layer shows at an edge.
struct PaintLayer {
    bool adds = true;
    int label = 0;   // 0 or more
    Regions area;
};

// A ring whose every edge knows the label of the topmost layer on its solid side: labels[i] belongs to the edge from
// points[i] to the next. Vertices in straight runs are kept only where the label changes.
struct LabelledRing {
    Ring points;
    std::vector<int> labels;

    friend bool operator==(const LabelledRing&, const LabelledRing&) = default;
};

struct Stacked {
    Regions regions;
    std::vector<LabelledRing> rings;   // all outlines and holes of the regions, sorted by their points
};
// All layers in one pass, so that rounding happens once however many layers there are. Cost as above.
[[nodiscard]] Stacked stack(std::span<const PaintLayer> layers);

// Whether a lattice point lies inside, on the edge of, or outside of regions, which may overlap: inside of one is
// inside; on the edge is what lies on a ring and inside of none. O(n).
enum class Side { inside, edge, outside };
[[nodiscard]] Side locate(std::span<const Region> regions, Point p);

// ---- cutting up -----------------------------------------------------------------------------------------------

using Triangle = std::array<Point, 3>;   // a ring with the solid on its left

// Triangles that cover the regions exactly, edge to edge, corners only at the regions' own vertices. Those of each
// region after those of the last; each starts at its least point; sorted. Requires regions as booleans return them.
// O(n log n).
[[nodiscard]] std::vector<Triangle> triangles(std::span<const Region> regions);

// Convex polygons of at most `most_vertices` (3 or more) that cover the regions exactly and do not overlap; corners
// only at the regions' own vertices. Each starts at its least point; sorted. Requires regions as booleans return
// them. O(n log n).
[[nodiscard]] std::vector<Ring> convex_pieces(std::span<const Region> regions, int most_vertices);

struct Boxes {
    std::vector<Bounds> boxes{};   // axis-parallel, sorted
    std::vector<Ring> rests{};     // convex pieces where edges slant, sorted

    friend bool operator==(const Boxes&, const Boxes&) = default;
};
// Cover the regions exactly without overlap. Of regions whose edges are all upright or level: the least possible number
// of boxes, and no rests. Requires regions as booleans return them.
// Cost: O(n log n + c^1.5 log^2 c) for c chords between corners, however often they cross (Ohtsuki 1982; Ferrari,
// Sankar and Sklansky 1984).
[[nodiscard]] Boxes least_boxes(std::span<const Region> regions, int most_vertices = 8);

// Triangles by indices into points, each with the solid on its left.
struct Mesh {
    std::vector<Point> points{};
    std::vector<std::array<std::uint32_t, 3>> triangles{};

    friend bool operator==(const Mesh&, const Mesh&) = default;
};
// The constrained Delaunay triangulation: edge to edge, exact cover, no further points; no point lies inside the circle
// around a triangle as far as it can be seen from there. Requires regions as booleans return them. O(n log n).
[[nodiscard]] Mesh delaunay_triangles(std::span<const Region> regions);

// ---- growing --------------------------------------------------------------------------------------------------

// How corners that stick out are grown: as in the SVG standard (a mitre longer than 4 times the distance becomes a
// bevel), or `box`: the sum with an axis-parallel square, which is exact.
enum class Corners { round, bevel, mitre, box };

// Regions grown by a distance in steps, or shrunk by a negative one. Narrow gaps close, thin walls vanish. Round
// corners stay within `within_px` (above 0) of the circle. Throws std::out_of_range when the result leaves the range of
// coordinates, std::invalid_argument for round corners with another `within_px`. Requires regions as booleans return
// them. Cost as of booleans; with round corners, edges far shorter than the distance cost O(n log n) together.
[[nodiscard]] Regions grown(std::span<const Region> regions, std::int32_t by, Corners corners, double within_px = 0.25);

// Where the position of a convex body cannot be without overlapping the regions: inside of the result (on its edge the
// body touches). The sum of the regions and the mirrored body, exact on the lattice (Lozano-Perez 1983). Throws
// std::out_of_range when it leaves the range of coordinates. Requires regions as booleans return them, and a body ring
// as `convex_hull` makes it. Cost as of booleans.
[[nodiscard]] Regions reach(std::span<const Region> regions, std::span<const Point> body);

// ---- curves ---------------------------------------------------------------------------------------------------

// The ring of fewest vertices within `within_px` (above 0) of an ellipse, inside or outside, that is symmetric in both
// axes and has the four extreme points among its vertices. Convex, least vertex first. Radii in steps, above 0.
[[nodiscard]] Ring ellipse_ring(Point centre, std::int32_t radius_x, std::int32_t radius_y, double within_px);

// An upright or lying capsule that fills the box from `least` to `most`: round ends of half the shorter side.
[[nodiscard]] Ring capsule_ring(Point least, Point most, double within_px);
// All within a radius (above 0) of the way between two points.
[[nodiscard]] Ring capsule_ring(Point from, Point to, std::int32_t radius, double within_px);

// The outline of pixels that are set (not 0; row by row from the top), holes too, in steps from the top-left corner of
// the first. Few vertices: every vertex of the pixels' own outline lies within `within_px` of the result, which never
// crosses or newly touches itself. 0: the pixels' edges themselves. Requires width * height pixels.
[[nodiscard]] Regions trace_pixels(int width, int height, std::span<const char> set, double within_px);

// The least convex ring around points, its least vertex first. O(n log n).
[[nodiscard]] Ring convex_hull(std::vector<Point> points);

// ---- notation -------------------------------------------------------------------------------------------------

// Text for tests and messages, lossless, in steps: a ring is `(x,y x,y x,y)`, a region is its outline and holes
// `[(…) (…)]`, regions follow each other after a space. Parsing gives nothing when the text is not such.
[[nodiscard]] std::string to_text(std::span<const Point> ring);
[[nodiscard]] std::string to_text(std::span<const Region> regions);
[[nodiscard]] std::optional<Regions> regions_from_text(std::string_view text);

}   // namespace dryground
