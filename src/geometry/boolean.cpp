// The doors to the boolean: each says what counts as covered, the rest is arrange, sweep, link.

#include "arrangement_internal.hpp"

namespace dryground {

namespace {

Stacked cover(std::vector<detail::Edge> edges, int operands, const detail::Classify& classify) {
    const std::vector<detail::Edge> arranged = detail::arrange(std::move(edges));
    return detail::link(detail::sweep(arranged, operands, classify));
}

Regions combine(std::span<const Region> a, std::span<const Region> b, bool (*covered)(bool in_a, bool in_b)) {
    std::vector<detail::Edge> edges;
    detail::add_regions(edges, a, 0);
    detail::add_regions(edges, b, 1);
    return cover(std::move(edges), 2,
                 [covered](std::span<const int> w) { return covered(w[0] != 0, w[1] != 0) ? 0 : detail::nothing; })
        .regions;
}

}   // namespace

Regions unite(std::span<const Region> regions) { return unite(regions, {}); }

Regions unite(std::span<const Region> a, std::span<const Region> b) {
    return combine(a, b, [](bool in_a, bool in_b) { return in_a || in_b; });
}

Regions subtract(std::span<const Region> a, std::span<const Region> b) {
    return combine(a, b, [](bool in_a, bool in_b) { return in_a && !in_b; });
}

Regions intersect(std::span<const Region> a, std::span<const Region> b) {
    return combine(a, b, [](bool in_a, bool in_b) { return in_a && in_b; });
}

Stacked stack(std::span<const Coat> coats) {
    std::vector<detail::Edge> edges;
    for (std::size_t i = 0; i < coats.size(); ++i) detail::add_regions(edges, coats[i].area, static_cast<int>(i));
    return cover(std::move(edges), static_cast<int>(coats.size()), [coats](std::span<const int> windings) {
        for (std::size_t i = windings.size(); i-- > 0;)
            if (windings[i] != 0) return coats[i].adds ? coats[i].label : detail::nothing;
        return detail::nothing;
    });
}

}   // namespace dryground
