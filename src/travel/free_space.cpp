// The areas that ground leaves free, found without a boolean.
//
// Idea: see FreeSpace in free_space_internal.hpp.

#include "../geometry/ring_internal.hpp"
#include "free_space_internal.hpp"
#include "left_of_internal.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>
#include <numeric>
#include <utility>

namespace dryground::travel {

FreeSpace::FreeSpace(std::span<const Ring> ground) {
    for (const Ring& ring : ground) add(ring);
    if (edges_.empty()) return;
    put_in_index();
    if (split()) put_in_index();
    link();
    nest();
}

void FreeSpace::add(const Ring& ring) {
    for (std::size_t i = 0; i < ring.size(); ++i)
        edges_.push_back({ring[i], ring[(i + 1) % ring.size()], i + 1 == ring.size()});
}

// Splits edges at corners that touch their middle. Returns whether there were any.
bool FreeSpace::split() {
    std::vector<std::pair<std::size_t, Point>> cuts;
    for (const Edge& edge : edges_) {
        const Point p = edge.from;
        near_.each_near({p, p}, [&](std::size_t i) {
            const Edge& other = edges_[i];
            if (p != other.from && p != other.to && cross(other.from, other.to, p) == 0) cuts.emplace_back(i, p);
        });
    }
    if (cuts.empty()) return false;
    std::sort(cuts.begin(), cuts.end(), [this](const auto& a, const auto& b) {
        if (a.first != b.first) return a.first < b.first;
        const Point from = edges_[a.first].from;
        const auto far = [&](Point p) {
            return std::abs(std::int64_t{p.x} - from.x) + std::abs(std::int64_t{p.y} - from.y);
        };
        return far(a.second) < far(b.second);
    });
    cuts.erase(std::unique(cuts.begin(), cuts.end()), cuts.end());
    std::vector<Edge> parted;
    parted.reserve(edges_.size() + cuts.size());
    std::size_t cut = 0;
    for (std::size_t i = 0; i < edges_.size(); ++i) {
        Edge rest = edges_[i];
        for (; cut < cuts.size() && cuts[cut].first == i; ++cut) {
            parted.push_back({rest.from, cuts[cut].second, false});
            rest.from = cuts[cut].second;
        }
        parted.push_back(rest);
    }
    edges_ = std::move(parted);
    return true;
}

// Edges follow each other as their rings say, but where several begin at a point: there the next one is the first that
// is met by turning from the way back over what is free.
void FreeSpace::link() {
    std::vector<std::uint32_t> next(edges_.size());
    for (std::uint32_t i = 0, first = 0; i < next.size(); ++i) {
        next[i] = edges_[i].ends_ring ? first : i + 1;
        if (edges_[i].ends_ring) first = i + 1;
    }
    std::vector<std::pair<Point, std::uint32_t>> starts;   // what is compared lies side by side
    starts.reserve(edges_.size());
    for (const Edge& edge : edges_) starts.emplace_back(edge.from, static_cast<std::uint32_t>(starts.size()));
    std::sort(starts.begin(), starts.end());
    std::vector<std::uint32_t> previous(next.size());
    for (std::uint32_t i = 0; i < next.size(); ++i) previous[next[i]] = i;
    for (std::size_t i = 0; i < starts.size();) {
        std::size_t end = i + 1;
        while (end < starts.size() && starts[end].first == starts[i].first) ++end;
        for (std::size_t in = i; end - i > 1 && in < end; ++in) {
            const std::uint32_t incoming = previous[starts[in].second];
            const Point at = edges_[incoming].to, back = edges_[incoming].from;
            const auto angle = [&](const std::pair<Point, std::uint32_t>& start) {   // from the way back, to its left
                const auto way = [&](Point p) {
                    return std::atan2(static_cast<double>(p.y) - at.y, static_cast<double>(p.x) - at.x);
                };
                const double by = way(edges_[start.second].to) - way(back);
                return by > 0 ? by : by + 2 * std::numbers::pi;
            };
            next[incoming] = std::min_element(starts.begin() + static_cast<std::ptrdiff_t>(i),
                                              starts.begin() + static_cast<std::ptrdiff_t>(end),
                                              [&](const auto& a, const auto& b) { return angle(a) < angle(b); })
                                 ->second;
        }
        i = end;
    }
    std::vector<bool> done(edges_.size());
    for (std::size_t i = 0; i < edges_.size(); ++i) {
        if (done[i]) continue;
        for (std::size_t e = i; !done[e]; e = next[e]) done[e] = true;
        trace(i, next);
    }
}

void FreeSpace::trace(std::size_t first, const std::vector<std::uint32_t>& next) {
    Ring ring;
    for (std::size_t e = first; ring.empty() || e != first; e = next[e]) ring.push_back(edges_[e].from);
    const bool is_area = twice_area(ring) < 0;
    std::vector<Ring>& rings = is_area ? areas_ : solids_;
    const int number = is_area ? static_cast<int>(areas_.size()) : -1 - static_cast<int>(solids_.size());
    edges_[first].ring = number;
    for (std::size_t e = next[first]; e != first; e = next[e]) edges_[e].ring = number;
    detail::start_at_least(ring);
    rings.push_back(std::move(ring));
}

// What lies left of a solid's first point begins above it, or left of it: it is known if solids are handled in order.
void FreeSpace::nest() {
    solids_in_.resize(areas_.size());
    around_.resize(solids_.size(), outside);
    std::vector<std::size_t> order(solids_.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::sort(order.begin(), order.end(),
              [this](std::size_t a, std::size_t b) { return solids_[a].front() < solids_[b].front(); });
    for (const std::size_t solid : order) {
        const Ring& ring = solids_[solid];
        double before = std::numeric_limits<double>::infinity();   // its own edges, of which several may begin there
        for (std::size_t i = 0; i < ring.size(); ++i)
            if (ring[i] == ring.front())
                before = std::min({before, lean(ring.front(), ring[(i + 1) % ring.size()]),
                                   lean(ring.front(), ring[(i + ring.size() - 1) % ring.size()])});
        const Edge* edge = left_of(ring.front(), before);
        around_[solid] = edge == nullptr ? outside : area_beside(*edge);
        if (around_[solid] >= 0)
            solids_in_[static_cast<std::size_t>(around_[solid])].push_back(static_cast<int>(solid));
    }
}

void FreeSpace::put_in_index() {
    std::vector<Bounds> boxes;
    boxes.reserve(edges_.size());
    for (const Edge& edge : edges_) boxes.push_back(detail::box_around(std::array{edge.from, edge.to}));
    near_ = detail::BoxIndex(std::move(boxes));
}

const FreeSpace::Edge* FreeSpace::left_of(Point p, double before) const {
    const auto found = travel::left_of(near_, {0, 0}, p, before, [this](std::size_t i) {
        return std::optional(SolidEdge{edges_[i].from, edges_[i].to});
    });
    return found ? &edges_[found->edge] : nullptr;
}

int FreeSpace::area_at(Point p) const {
    const Edge* edge = left_of(p, std::numeric_limits<double>::infinity());
    if (edge == nullptr) return outside;
    return turn(edge->from, edge->to, p) == Turn::left ? in_ground : area_beside(*edge);
}

Region FreeSpace::area(int number) const {
    const auto turned = [](const Ring& ring) { return Ring(ring.rbegin(), ring.rend()); };
    Region region{turned(areas_[static_cast<std::size_t>(number)]), {}};
    for (const int solid : solids_in_[static_cast<std::size_t>(number)])
        region.holes.push_back(turned(solids_[static_cast<std::size_t>(solid)]));
    return region;
}

std::int64_t FreeSpace::twice_size(int number) const {
    std::int64_t size = -twice_area(areas_[static_cast<std::size_t>(number)]);
    for (const int solid : solids_in_[static_cast<std::size_t>(number)])
        size -= twice_area(solids_[static_cast<std::size_t>(solid)]);
    return size;
}

}   // namespace dryground::travel
