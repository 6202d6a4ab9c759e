// Which facts may close something when they come true.
//
// Idea. For movers seen from above, the area that they cannot enter is merged with and without each fact, in every
// state of a few others, and compared. Cost: see closing_internal.hpp.

#include "closing_internal.hpp"

#include <algorithm>

#include "../ground/ground_internal.hpp"
#include "dryground/merge.hpp"

namespace dryground::travel {

namespace {

constexpr std::int64_t most_cells_compared = 1 << 16;   // in sum over states
constexpr std::size_t most_other_facts = 3;

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

class ClosingFacts {
public:
    ClosingFacts(const World& world, const Map& map, MoverId mover, bool turns, std::vector<char>& closing)
        : world_(world),
          map_(map),
          mover_(mover),
          shaping_(facts_of_ground(world, map)),
          is_compared_(world.mover(mover).moves != Moves::side && !turns),
          closing_(closing) {}

    void find() {
        for (const LayerId id : ids<LayerId>(map_.layers)) look_at(id);
        for (const Object& object : map_.objects)
            if (is_mere_ground(object)) {
                compare(object.when), compare(object.unless);
            } else {
                close(object.unless);
                if (object.role == Role::solid) close(object.when);
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
    [[nodiscard]] bool may_close(FactId fact) const {
        Facts others = shaping_;
        std::erase(others, fact);
        const std::size_t states = std::size_t{1} << std::min(others.size(), most_other_facts);
        const std::int64_t cells = std::int64_t{map_.columns} * map_.rows * static_cast<std::int64_t>(states);
        if (others.size() > most_other_facts || cells > most_cells_compared) return true;
        for (std::size_t state = 0; state < states; ++state) {
            Facts without;
            for (std::size_t i = 0; i < others.size(); ++i)
                if ((state >> i & 1) != 0) without.push_back(others[i]);
            Facts with = without;
            with.insert(std::upper_bound(with.begin(), with.end(), fact), fact);
            for (const StoreyId storey : ground::storeys_of(map_))
                if (!subtract(blocked_area(world_, map_, mover_, storey, with),
                              blocked_area(world_, map_, mover_, storey, without))
                         .empty())
                    return true;
        }
        return false;
    }

    const World& world_;
    const Map& map_;
    MoverId mover_;
    Facts shaping_, compared_;
    bool is_compared_;
    std::vector<char>& closing_;
};

}   // namespace

void add_closing_facts(const World& world, const Map& map, MoverId mover, bool turns, std::vector<char>& closing) {
    ClosingFacts(world, map, mover, turns, closing).find();
}

}   // namespace dryground::travel
