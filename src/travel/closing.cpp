// Which facts may close something when they come true.
//
// Idea. Around all that a fact decides about, the area that a mover cannot enter is merged with and without it, in
// every state of the other facts that decide about something there, and compared. Less of it lets a mover seen from
// above get wherever it got before. One seen from the side also needs what it stood on and climbed in: each
// of its stands must be part of one. Where solids move that carry it, ground decides at which of their stops one gets
// on and off, so that facts of ground count there as ones that may close something.

#include "closing_internal.hpp"

#include <algorithm>
#include <map>

#include "../geometry/bounds_internal.hpp"
#include "../ground/ground_internal.hpp"
#include "../merge/chunks/chunk_facts_internal.hpp"
#include "stands_internal.hpp"

namespace dryground::travel {

namespace {

constexpr int block_cells = 4;                          // so that few other facts decide about something in one
constexpr std::int64_t most_cells_compared = 1 << 16;   // for one fact, in sum over blocks and states
constexpr std::size_t most_other_facts = 4;             // of one block

bool does_something(const Tile& tile) {
    return tile.leads != StoreyId::none || !tile.gives.empty() || !tile.reacts.empty() ||
           tile.stands_for != KindId::none ||
           std::any_of(tile.shapes.begin(), tile.shapes.end(), [](const Shape& s) { return !s.trigger.empty(); });
}

// Returns whether it limits ways by more than area: lines, shut sides.
bool has_edges(const Tile& tile) {
    return tile.sides.has_value() ||
           std::any_of(tile.shapes.begin(), tile.shapes.end(), [](const Shape& s) { return !s.line.empty(); });
}

// Returns whether an object is ground and nothing else.
bool is_mere_ground(const Object& object) {
    return object.role == Role::solid && !ground::moves(object) && object.line.empty() && object.gives.empty() &&
           object.runs == EventId::none && object.link.map == MapId::none;
}

bool has_moving_solids(const Map& map) { return std::any_of(map.objects.begin(), map.objects.end(), ground::moves); }

// Returns whether edges that lie along another one cover all of it.
bool is_covered(Point a, Point b, const Ring& by) {
    // Where each begins and ends, along the axis in which the edge is longer.
    const bool level = std::abs(std::int64_t{b.x} - a.x) >= std::abs(std::int64_t{b.y} - a.y);
    const auto along = [&](Point p) { return level ? p.x : p.y; };
    std::vector<std::pair<std::int32_t, std::int32_t>> parts;
    for (std::size_t i = 0; i + 1 < by.size(); ++i)
        if (turn(a, b, by[i]) == Turn::straight && turn(a, b, by[i + 1]) == Turn::straight)
            parts.push_back(std::minmax({along(by[i]), along(by[i + 1])}));
    std::sort(parts.begin(), parts.end());
    const auto [least, most] = std::minmax({along(a), along(b)});
    std::int32_t to = least;
    for (const auto& [from, until] : parts)
        if (from <= to) to = std::max(to, until);
    return to >= most;
}

bool is_part_of(const Stand& part, const Stand& whole) {
    if (part.slides != whole.slides) return false;
    for (std::size_t i = 0; i + 1 < part.points.size(); ++i)
        if (!is_covered(part.points[i], part.points[i + 1], whole.points)) return false;
    return true;
}

class ClosingFacts {
public:
    ClosingFacts(const World& world, const Map& map, MoverId mover, bool turns, std::vector<char>& closing)
        : world_(world),
          map_(map),
          mover_(mover),
          shaping_(facts_of_ground(world, map)),
          layout_(map, block_cells),
          is_side_(world.mover(mover).moves == Moves::side),
          is_compared_(!turns && !(is_side_ && has_moving_solids(map))),
          closing_(closing) {
        const Bounds body = *bounds(world.mover(mover).body);
        const std::int64_t size = std::max(
                               {std::int64_t{body.most.x} - body.least.x, std::int64_t{body.most.y} - body.least.y,
                                std::int64_t{std::abs(body.least.x)}, std::int64_t{std::abs(body.least.y)}}),
                           least = std::min(map.cell_width, map.cell_height) * steps_per_px,
                           cell = map.grid == GridSort::isometric ? least / 2 : least;   // from row to row
        around_ = 2 + static_cast<int>(2 * size / cell);
    }

    void find() {
        for (const LayerId id : ids<LayerId>(map_.layers)) look_at(id);
        for (const Object& object : map_.objects)
            if (is_mere_ground(object)) {
                compare(object.when), compare(object.unless);
            } else {
                close(object.unless);
                if (object.role == Role::solid) close(object.when);
            }
        // Tiles that open: the ground that goes may have been stood on.
        for (const Placed& placed : map_.palette) {
            if (placed.tile < 0) continue;
            const Tile& tile = world_.tile(placed);
            is_side_&& has_edges(tile) ? close(tile.needs) : compare(tile.needs);
        }
        std::sort(compared_.begin(), compared_.end());
        compared_.erase(std::unique(compared_.begin(), compared_.end()), compared_.end());
        for (const FactId fact : compared_)
            if (closing_[index(fact)] == 0 && may_close(fact)) close({fact});
    }

private:
    void close(const std::vector<FactId>& facts) {
        for (const FactId fact : facts) closing_[index(fact)] = 1;
    }
    void compare(const std::vector<FactId>& facts) {
        is_compared_ ? static_cast<void>(compared_.insert(compared_.end(), facts.begin(), facts.end())) : close(facts);
    }

    void look_at(LayerId id) {
        const Layer& layer = map_.layer(id);
        if (!ground::may_count(layer) || (layer.when.empty() && layer.unless.empty())) return;
        bool does = !layer.trigger.empty() || layer.reaction.has_value(), edges = false;
        for (std::size_t n = 0; n < layer.counts.size(); ++n) {
            if (layer.counts[n] == 0 || map_.palette[n].tile < 0) continue;
            const Tile& tile = world_.tile(map_.palette[n]);
            does = does || does_something(tile), edges = edges || has_edges(tile);
        }
        for (const Object& object : map_.objects)
            if (object.layer == id) does = does || !is_mere_ground(object);
        does || edges ? close(layer.unless) : compare(layer.unless);
        // Objects that come with a layer close nothing by being touched.
        edges || (does && layer.holds_objects) ? close(layer.when) : compare(layer.when);
    }

    // Returns whether a mover cannot be somewhere with the fact where it could be without it.
    [[nodiscard]] bool may_close(FactId fact) {
        std::int64_t cells = 0;
        for (const std::size_t chunk : chunks_of(fact)) {
            detail::Block block = layout_.block_of(chunk);   // with all that a body there may touch
            block.column -= around_, block.row -= around_;
            block.columns += 2 * around_, block.rows += 2 * around_;
            Facts others = shaping_;
            std::erase_if(others, [&](FactId other) { return other == fact || !decides_in(other, block); });
            if (others.size() > most_other_facts) return true;
            const std::size_t states = std::size_t{1} << others.size();
            cells += std::int64_t{block.columns} * block.rows * static_cast<std::int64_t>(states);
            if (cells > most_cells_compared) return true;
            for (std::size_t state = 0; state < states; ++state) {
                Facts without;
                for (std::size_t i = 0; i < others.size(); ++i)
                    if ((state >> i & 1) != 0) without.push_back(others[i]);
                Facts with = without;
                with.insert(std::upper_bound(with.begin(), with.end(), fact), fact);
                if (closes_in(block, without, with)) return true;
            }
        }
        return false;
    }
    [[nodiscard]] const std::vector<std::size_t>& chunks_of(FactId fact) {
        const auto [known, is_new] = chunks_.try_emplace(fact);
        if (is_new) known->second = detail::chunks_of_fact(world_, layout_, fact);
        return known->second;
    }
    // Returns whether a fact decides about anything in a block.
    [[nodiscard]] bool decides_in(FactId fact, const detail::Block& block) {
        const std::vector<std::size_t>& chunks = chunks_of(fact);
        return std::any_of(chunks.begin(), chunks.end(), [&](std::size_t chunk) {
            const detail::Block other = layout_.block_of(chunk);
            return other.column < block.column + block.columns && block.column < other.column + other.columns &&
                   other.row < block.row + block.rows && block.row < other.row + other.rows;
        });
    }

    [[nodiscard]] bool closes_in(const detail::Block& block, const Facts& without, const Facts& with) const {
        const Mover& mover = world_.mover(mover_);
        const detail::Stacking before = detail::stack_up(world_, map_, without),
                               after = detail::stack_up(world_, map_, with);
        for (const StoreyId storey : ground::storeys_of(map_)) {
            const Regions closed = detail::MoverGround(world_, map_, before, mover, storey, without).block(block),
                          now = detail::MoverGround(world_, map_, after, mover, storey, with).block(block);
            if (mover.climbs != 0 && !keeps_climbing(block, storey, without, with)) return true;
            if (closed == now) continue;
            if (!subtract(now, closed).empty()) return true;
            if (is_side_ && !keeps_stands(storey, closed, now)) return true;
        }
        return false;
    }
    [[nodiscard]] bool keeps_climbing(const detail::Block& block, StoreyId storey, const Facts& without,
                                      const Facts& with) const {
        const FlagSet climbs = world_.mover(mover_).climbs;
        const int last_row = std::min(map_.rows, block.row + block.rows),
                  last_column = std::min(map_.columns, block.column + block.columns);
        for (int r = std::max(0, block.row); r < last_row; ++r)
            for (int c = std::max(0, block.column); c < last_column; ++c)
                if ((passability(world_, map_, {c, r}, storey, without).flags & climbs) != 0 &&
                    (passability(world_, map_, {c, r}, storey, with).flags & climbs) == 0)
                    return false;
        return true;
    }
    [[nodiscard]] bool keeps_stands(StoreyId storey, const Regions& closed, const Regions& now) const {
        const Mover& mover = world_.mover(mover_);
        const auto stands = [&](const Regions& ground) {
            Group group;
            group.storey_id = storey;
            group.regions = ground;
            return stands_of(Obstacles({&group, 1}, storey, mover), footing_of(mover));
        };
        const std::vector<Stand> after = stands(now);
        for (const Stand& stand : stands(closed))
            if (std::none_of(after.begin(), after.end(), [&](const Stand& one) { return is_part_of(stand, one); }))
                return false;
        return true;
    }

    const World& world_;
    const Map& map_;
    MoverId mover_;
    Facts shaping_, compared_;
    detail::ChunkLayout layout_;
    std::map<FactId, std::vector<std::size_t>> chunks_;
    bool is_side_, is_compared_;
    int around_ = 0;   // cells around a block that a body in it may touch, and what that may touch
    std::vector<char>& closing_;
};

}   // namespace

void add_closing_facts(const World& world, const Map& map, MoverId mover, bool turns, std::vector<char>& closing) {
    ClosingFacts(world, map, mover, turns, closing).find();
}

}   // namespace dryground::travel
