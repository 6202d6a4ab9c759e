// From a linked outline to regions.
//
// Idea. Vertices are already linked around their own solid, so that every walk bounds one region. A walk that comes
// back to a place (a solid that closes around a gap and touches itself there, or two gaps that touch) is split there;
// its parts belong to one region. A walk of gaps alone belongs where the outline to the left of its least vertex does.
//
// Guarantee: as in geometry/rings.cpp, whose result this equals. Cost: O(n), and sorting of what is not yet in order.

#include <algorithm>
#include <utility>

#include "../../geometry/arrangement_internal.hpp"
#include "../../geometry/ring_internal.hpp"
#include "../../model/grid_internal.hpp"
#include "outline_internal.hpp"
#include "rings_before_internal.hpp"

namespace dryground::detail {

namespace {

class RingMaker {
public:
    RingMaker(Outline& outline, const Grid& grid, bool labelled, RingsBefore& before)
        : outline_(outline), grid_(grid), labelled_(labelled), before_(before) {}

    Stacked run() {
        Vertices& vertices = outline_.vertices;
        walks_.clear();
        result_.regions.reserve(outline_.memory.regions);
        if (labelled_) result_.rings.reserve(outline_.memory.rings);
        for (std::int32_t v = 0; v < vertices.size(); ++v)
            if (vertices[v].next >= 0) take_walk(v);
        for (Hole& hole : holes_)
            result_.regions[static_cast<std::size_t>(region_of(hole.walk))].holes.push_back(std::move(hole.ring));
        sort();
        outline_.memory.regions = result_.regions.size(), outline_.memory.rings = result_.rings.size();
        return std::move(result_);
    }

private:
    struct Hole {
        Ring ring;
        std::size_t walk;
    };

    void take_walk(std::int32_t start) {
        Vertices& vertices = outline_.vertices;
        walk_.clear();
        points_.clear(), labels_.clear();
        int pinches = 0;
        bool relabelled = false;   // somewhere along a straight edge
        std::uint32_t label = vertices[start].label;
        std::int32_t least = start;
        Point least_place = vertices[start].at;
        const auto mark = static_cast<std::int32_t>(-2 - static_cast<std::int64_t>(walks_.size()));
        for (std::int32_t v = start; vertices[v].next >= 0;) {
            Vertex& vertex = vertices[v];
            walk_.push_back(v);
            pinches += vertex.pinched;
            if (vertex.at < least_place || (vertex.at == least_place && vertex.starts_gap)) {
                least = v;
                least_place = vertex.at;
            }
            if (!vertex.straight) {
                points_.push_back(grid_.steps(vertex.at));
                labels_.push_back(static_cast<int>(vertex.label));
            } else {
                relabelled = relabelled || v == start || vertex.label != label;
            }
            label = vertex.label;
            v = std::exchange(vertex.next, mark);
        }
        walks_.push_back({least});
        if (pinches > 1 && split()) return;
        const bool outline = !vertices[least].starts_gap;
        if (labelled_ && relabelled) {
            keep_ring(outline);
            take_labels(walk_, false);
            return;
        }
        const auto first = std::min_element(points_.begin(), points_.end()) - points_.begin();
        if (!labelled_) return keep(before_.ring(points_, first), outline);
        RingsBefore::Both made = before_.both(points_, labels_, first);
        result_.rings.push_back(std::move(made.labelled));
        keep(std::move(made.ring), outline);
    }

    // Cuts the walk where it comes back to a place; returns false if it does not.
    bool split() {
        Vertices& vertices = outline_.vertices;
        places_.clear();
        for (std::size_t i = 0; i < walk_.size(); ++i)
            if (vertices[walk_[i]].pinched) places_.emplace_back(vertices[walk_[i]].at, i);
        std::sort(places_.begin(), places_.end());
        numbers_.assign(walk_.size(), -1);   // of the places that the walk comes back to
        std::int32_t number = 0;
        for (std::size_t i = 0; i + 1 < places_.size(); ++i)
            if (places_[i].first == places_[i + 1].first) {
                if (numbers_[places_[i].second] < 0) numbers_[places_[i].second] = number++;
                numbers_[places_[i + 1].second] = numbers_[places_[i].second];
            }
        if (number == 0) return false;
        open_.assign(static_cast<std::size_t>(number), -1);   // where a place stands in the rest
        rest_.clear();
        for (std::size_t i = 0; i < walk_.size(); ++i) {
            if (numbers_[i] >= 0) close(static_cast<std::size_t>(numbers_[i]));
            rest_.push_back(i);
        }
        take_loop(0);
        return true;
    }
    // The walk is about to reach a place: if it was there before, what came since is a ring.
    void close(std::size_t number) {
        if (open_[number] >= 0) take_loop(static_cast<std::size_t>(open_[number]));
        open_[number] = static_cast<std::int32_t>(rest_.size());
    }
    void take_loop(std::size_t from) {
        ring_.clear();
        for (std::size_t k = from; k < rest_.size(); ++k) {
            ring_.push_back(walk_[rest_[k]]);
            if (const std::int32_t number = numbers_[rest_[k]]; number >= 0)
                open_[static_cast<std::size_t>(number)] = -1;
        }
        rest_.resize(from);
        take_ring();
    }

    // Returns whether the ring bends at its i-th vertex. Where walks were split, the turn differs from before.
    [[nodiscard]] bool bends(const std::vector<std::int32_t>& ring, std::size_t i, bool was_split) {
        Vertices& vertices = outline_.vertices;
        const Vertex& vertex = vertices[ring[i]];
        if (!was_split || !vertex.pinched) return !vertex.straight;
        const Point before = vertices[ring[i > 0 ? i - 1 : ring.size() - 1]].at,
                    after = vertices[ring[i + 1 < ring.size() ? i + 1 : 0]].at;
        return turn(before, vertex.at, after) != Turn::straight;
    }

    void take_ring() {
        points_.clear();
        for (std::size_t i = 0; i < ring_.size(); ++i)
            if (bends(ring_, i, true)) points_.push_back(grid_.steps(outline_.vertices[ring_[i]].at));
        keep_ring(twice_area(points_) > 0);
        if (labelled_) take_labels(ring_, true);
    }

    void keep_ring(bool outline) {
        keep(before_.ring(points_, std::min_element(points_.begin(), points_.end()) - points_.begin()), outline);
    }
    void keep(Ring made, bool outline) {
        const std::size_t walk = walks_.size() - 1;
        if (outline) {
            walks_[walk].region = static_cast<std::int32_t>(result_.regions.size());
            result_.regions.push_back({std::move(made), {}});
        } else {
            holes_.push_back({std::move(made), walk});
        }
    }

    void take_labels(const std::vector<std::int32_t>& ring, bool was_split) {
        Vertices& vertices = outline_.vertices;
        points_.clear(), labels_.clear();
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Vertex& vertex = vertices[ring[i]];
            const std::uint32_t label_before = vertices[ring[i > 0 ? i - 1 : ring.size() - 1]].label;
            if (!bends(ring, i, was_split) && label_before == vertex.label) continue;
            points_.push_back(grid_.steps(vertex.at));
            labels_.push_back(static_cast<int>(vertex.label));
        }
        const auto least = std::min_element(points_.begin(), points_.end()) - points_.begin();
        result_.rings.push_back(before_.ring(points_, labels_, least));
    }

    // Returns the region that a walk bounds: that of its own outline, or of the outline to the left of its least
    // vertex, and so on. Each of these is further left, so the search ends.
    std::int32_t region_of(std::size_t walk) {
        std::size_t last = walk;
        while (walks_[last].region < 0) last = walk_to_the_left(last);
        const std::int32_t region = walks_[last].region;
        for (; walks_[walk].region < 0; walk = walk_to_the_left(walk)) walks_[walk].region = region;
        return region;
    }
    std::size_t walk_to_the_left(std::size_t walk) {
        const auto gap = std::lower_bound(outline_.gaps.begin(), outline_.gaps.end(), walks_[walk].least,
                                          [](const GapStart& g, std::int32_t v) { return g.vertex < v; });
        return static_cast<std::size_t>(-2 - static_cast<std::int64_t>(outline_.vertices[gap->left].next));
    }

    void sort() {
        const auto by_outline = [](const Region& a, const Region& b) { return begins_before(a.outline, b.outline); };
        if (!std::is_sorted(result_.regions.begin(), result_.regions.end(), by_outline))
            std::sort(result_.regions.begin(), result_.regions.end(), by_outline);
        for (Region& region : result_.regions)
            if (!std::is_sorted(region.holes.begin(), region.holes.end(), begins_before))
                std::sort(region.holes.begin(), region.holes.end(), begins_before);
        std::sort(result_.rings.begin(), result_.rings.end(),
                  [](const LabelledRing& a, const LabelledRing& b) { return begins_before(a.points, b.points); });
    }

    Outline& outline_;
    const Grid& grid_;
    bool labelled_;
    RingsBefore& before_;
    std::vector<RingMemory::Walk>& walks_ = outline_.memory.walks;
    std::vector<std::int32_t>&walk_ = outline_.memory.walk, &ring_ = outline_.memory.ring;
    std::vector<std::int32_t>&numbers_ = outline_.memory.numbers, &open_ = outline_.memory.open;
    std::vector<std::size_t>& rest_ = outline_.memory.rest;
    std::vector<std::pair<Point, std::size_t>>& places_ = outline_.memory.places;
    Ring& points_ = outline_.memory.points;
    std::vector<int>& labels_ = outline_.memory.labels;
    std::vector<Hole> holes_;
    Stacked result_;
};

}   // namespace

Stacked rings_of(Outline& outline, const Grid& grid, bool labelled, RingsBefore& before) {
    return RingMaker(outline, grid, labelled, before).run();
}

}   // namespace dryground::detail
