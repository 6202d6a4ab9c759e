// What becomes of a group's lines: carves of the layers above cut them, then whatever solid ground of their barrier
// they run through.

#include "stacking_internal.hpp"

namespace dryground::detail {

namespace {

// What the carves of a layer take away from a barrier.
void add_carved(const World& world, const Map& map, const Layer& layer, int barrier, const Facts& facts,
                Regions& into) {
    for (const Object& object : map.objects)
        if (&map.layers[static_cast<std::size_t>(object.layer)] == &layer && is_there(map, object, facts))
            for (const auto& [carved, area] : object.carves)
                if (carved == barrier) into.insert(into.end(), area.begin(), area.end());
    for (std::size_t number = 1; number < layer.counts.size(); ++number) {
        if (layer.counts[number] == 0) continue;
        for (const Carve& carve : world.tile(map.palette[number]).carves) {
            if (carve.barrier != barrier || carve.shape.fault != ShapeFault::none) continue;
            for (int r = 0; r < map.rows; ++r)
                for (int c = 0; c < map.columns; ++c)
                    if (map.number(layer, c, r) == number)
                        for (Region& region : placed_area(map, layer, carve.shape, c, r))
                            into.push_back(std::move(region));
        }
    }
}

}   // namespace

std::vector<JoinedLine> lines_of(const World& world, const Map& map, const GroupKey& key, const Plan& plan,
                                 const Regions& solid, const Facts& facts) {
    std::vector<LinePiece> pieces;
    for (const LineStep& step : plan.lines) {
        Regions carved;
        if (key.trigger.empty())
            for (std::size_t l = static_cast<std::size_t>(step.order) + 1; l < map.layers.size(); ++l)
                if (!map.layers[l].decor && map.layers[l].storey == key.storey && is_there(map.layers[l], facts))
                    add_carved(world, map, map.layers[l], key.barrier, facts, carved);
        for (const LinePiece& piece : cut_lines(step.pieces, unite(carved))) pieces.push_back(piece);
    }
    return join_lines(cut_lines(std::move(pieces), solid), key.one_way);
}

}   // namespace dryground::detail
