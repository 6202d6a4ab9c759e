// What becomes of a group's lines: carves of the layers above cut them, then whatever solid ground of their barrier
// they run through.

#include <algorithm>

#include "../ground/ground_internal.hpp"
#include "stacking_internal.hpp"

namespace dryground::detail {

namespace {

// What the carves of a layer take away from a barrier on a storey.
class Carved {
public:
    Carved(const World& world, const Map& map, const Facts& facts, int storey, int barrier)
        : world_(world), map_(map), facts_(facts), storey_(storey), barrier_(barrier) {}

    void add(std::size_t number_of_layer, Regions& into) const {
        const Layer& layer = map_.layers[number_of_layer];
        if (!ground::counts(layer, facts_)) return;
        for (const Object& object : map_.objects)
            if (object.layer == static_cast<int>(number_of_layer) && object.storey == storey_ &&
                ground::counts(map_, object, facts_))
                append(into, carved_by(ground::parts_of(map_, object)));
        if (!layer.holds_objects && layer.storey == storey_) add_cells(layer, into);
    }

private:
    [[nodiscard]] Regions carved_by(const ground::Parts& parts) const {
        Regions area;
        for (const ground::Part& part : parts.parts)
            if (!part.adds && part.barrier == barrier_) append(area, part.area);
        return area;
    }
    void add_cells(const Layer& layer, Regions& into) const {
        std::vector<Regions> areas(map_.palette.size());
        bool any = false;
        for (std::size_t number = 1; number < std::min(layer.counts.size(), areas.size()); ++number)
            if (layer.counts[number] > 0) {
                areas[number] = carved_by(ground::parts_of(world_, map_, layer, map_.palette[number], facts_));
                any = any || !areas[number].empty();
            }
        if (!any) return;
        for (int r = 0; r < map_.rows; ++r)
            for (int c = 0; c < map_.columns; ++c)
                if (const Regions& area = areas[map_.number(layer, c, r)]; !area.empty())
                    append(into, moved(area, map_.corner(c, r)));
    }

    const World& world_;
    const Map& map_;
    const Facts& facts_;
    int storey_, barrier_;
};

}   // namespace

std::vector<JoinedLine> lines_of(const World& world, const Map& map, const GroupKey& key, const Plan& plan,
                                 const Regions& solid, const Facts& facts) {
    const Carved carved(world, map, facts, key.storey, key.barrier);
    std::vector<LinePiece> pieces;
    for (const LineStep& step : plan.lines) {
        Regions above;
        if (key.trigger.empty())
            for (std::size_t l = static_cast<std::size_t>(step.order) + 1; l < map.layers.size(); ++l)
                carved.add(l, above);
        for (const LinePiece& piece : cut_lines(step.pieces, unite(above))) pieces.push_back(piece);
    }
    return join_lines(cut_lines(std::move(pieces), solid), key.one_way);
}

}   // namespace dryground::detail
