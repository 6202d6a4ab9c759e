// The public booleans: each defines what counts as covered; the rest is arrange, sweep, link.
//
// A face is covered by an operand if the windings of its rings do not add up to 0. That holds as long as no ring winds
// around anything in the wrong direction: so rings that cross themselves are first filled on their own, and holes that
// are not separate and inside their outline are subtracted from it on their own. Rings that are in order, almost all,
// are only inspected.

#include "boolean_internal.hpp"

#include <limits>

#include "arrangement_internal.hpp"

namespace dryground {

namespace {

using Windings = std::span<const detail::Winding>;

constexpr std::int32_t all_rows = std::numeric_limits<std::int32_t>::min();

Stacked cover(std::vector<detail::Edge> edges, const detail::Classify& classify, std::int32_t first_row = all_rows) {
    const std::vector<detail::Edge> arranged = detail::arrange(std::move(edges));
    return detail::link(detail::sweep(arranged, classify, first_row));
}

using Covered = bool (*)(bool in_a, bool in_b);

// Of operands 0 and 1.
Regions combine(std::vector<detail::Edge> edges, Covered covered, std::int32_t first_row = all_rows) {
    const auto label = [covered](Windings windings) {
        const bool in_a = !windings.empty() && windings.front().operand == 0,
                   in_b = !windings.empty() && windings.back().operand == 1;
        return covered(in_a, in_b) ? 0 : detail::nothing;
    };
    return cover(std::move(edges), label, first_row).regions;
}

Regions combine(std::span<const Region> a, std::span<const Region> b, Covered covered) {
    std::vector<detail::Edge> edges;
    detail::add_regions(edges, a, 0);
    detail::add_regions(edges, b, 1);
    return combine(std::move(edges), covered);
}

constexpr Covered in_any = [](bool in_a, bool in_b) { return in_a || in_b; };
constexpr Covered in_first = [](bool in_a, bool in_b) { return in_a && !in_b; };
constexpr Covered in_both = [](bool in_a, bool in_b) { return in_a && in_b; };

bool is_convex(std::span<const Point> ring) {   // goes once around, turning left everywhere or right everywhere
    const std::size_t n = ring.size();
    if (n < 3) return false;
    const Turn first = turn(ring[0], ring[1], ring[2]);
    int falls = 0;   // how often it begins to go down
    for (std::size_t i = 0; i < n; ++i) {
        const Point a = ring[i], b = ring[(i + 1) % n], c = ring[(i + 2) % n];
        if (turn(a, b, c) != first || first == Turn::straight) return false;
        falls += b < a && b < c;
    }
    return falls == 1;
}

// Returns whether the windings of a region are 0 or 1 everywhere, given that its rings are apart.
bool is_nested(const Region& region) {
    std::vector<detail::Edge> edges;
    detail::add_regions(edges, {&region, 1}, 0);
    detail::normalise(edges);
    bool nested = true;
    (void)detail::sweep(edges, [&](Windings windings) {
        nested = nested && (windings.empty() || windings[0].number == 1);
        return windings.empty() ? detail::nothing : 0;
    });
    return nested;
}

bool is_proper(const Region& region) {
    constexpr std::size_t few = 16;
    if (region.holes.empty()) {
        if (is_convex(region.outline)) return true;
        if (region.outline.size() <= few) return inspect(region.outline).fault == RingFault::none;
    }
    return !detail::meets_itself(region) && (region.holes.empty() || is_nested(region));
}

Regions filled(const Ring& ring) { return detail::unite_proper(Regions{{ring, {}}}); }

void append(Regions& all, Regions more) {
    all.insert(all.end(), std::make_move_iterator(more.begin()), std::make_move_iterator(more.end()));
}

}   // namespace

namespace detail {

Regions proper(std::span<const Region> regions) {
    Regions result;
    result.reserve(regions.size());
    for (const Region& region : regions) {
        if (is_proper(region)) {
            result.push_back(region);
            continue;
        }
        Regions outline = filled(region.outline), holes;
        for (const Ring& hole : region.holes) append(holes, filled(hole));
        append(result, holes.empty() ? std::move(outline) : subtract_proper(outline, holes));
    }
    return result;
}

Regions unite_proper(std::span<const Region> regions) { return combine(regions, {}, in_any); }
Regions wound_around(std::span<const Ring> ways) {
    std::vector<Edge> edges;
    for (const Ring& way : ways) add_way(edges, way, 0, false);
    return cover(std::move(edges), [](Windings windings) { return windings.empty() ? nothing : 0; }).regions;
}
Regions wound_around_in(std::span<const Ring> ways, std::span<const Region> regions) {
    const std::optional<Bounds> box = bounds(regions);
    if (!box) return {};
    std::vector<Edge> edges;
    for (const Ring& way : ways) add_way(edges, way, 0, false);
    // What passes by above or below them decides nothing.
    std::erase_if(edges, [&](const Edge& edge) { return edge.b.y < box->least.y || edge.a.y > box->most.y; });
    add_regions(edges, regions, 1);
    return combine(std::move(edges), in_both, box->least.y);
}
Regions not_under(std::span<const Region> regions, std::span<const Region> pieces) {
    std::vector<Edge> edges;
    add_regions(edges, pieces, 0);
    for (Edge& edge : edges) edge.delta = -edge.delta;
    add_regions(edges, regions, 0);
    return cover(std::move(edges),
                 [](Windings windings) { return !windings.empty() && windings.front().number > 0 ? 0 : nothing; })
        .regions;
}
Regions subtract_proper(std::span<const Region> a, std::span<const Region> b) { return combine(a, b, in_first); }
Regions intersect_proper(std::span<const Region> a, std::span<const Region> b) { return combine(a, b, in_both); }

}   // namespace detail

Regions unite(std::span<const Region> regions) { return detail::unite_proper(detail::proper(regions)); }
Regions unite(std::span<const Region> a, std::span<const Region> b) {
    return combine(detail::proper(a), detail::proper(b), in_any);
}
Regions subtract(std::span<const Region> a, std::span<const Region> b) {
    return combine(detail::proper(a), detail::proper(b), in_first);
}
Regions intersect(std::span<const Region> a, std::span<const Region> b) {
    return combine(detail::proper(a), detail::proper(b), in_both);
}

Stacked stack(std::span<const PaintLayer> layers) {
    std::vector<detail::Edge> edges;
    for (std::size_t i = 0; i < layers.size(); ++i)
        detail::add_regions(edges, detail::proper(layers[i].area), static_cast<int>(i));
    return cover(std::move(edges), [layers](Windings windings) {
        if (windings.empty()) return detail::nothing;
        const PaintLayer& top = layers[static_cast<std::size_t>(windings.back().operand)];
        return top.adds ? top.label : detail::nothing;
    });
}

}   // namespace dryground
