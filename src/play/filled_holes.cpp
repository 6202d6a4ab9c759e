// Small holes that a layer fills: found in the union of its solids, once for the whole map, and again near changes.

#include <algorithm>
#include <set>

#include "../geometry/boolean_internal.hpp"
#include "solids_internal.hpp"

namespace dryground::play {

// Returns the union of a layer's solids, shrunk and grown, before anything above carves them: all of it, or what is
// near.
Regions Solids::shaped_near(LayerId l, const std::optional<Bounds>& box) {
    const LayerSolids& layer = layers_[index(l)];
    const Layer& of = map_.layer(l);
    Regions all;
    if (!box) {
        for (int r = 0; layer.counts && r < map_.rows; ++r)
            for (int c = 0; c < map_.columns; ++c)
                for (const Piece& piece : layer.meanings[map_.number(of, c, r)].pieces)
                    if (!piece.is_line())
                        all.push_back({moved(Regions{{piece.points, {}}}, map_.corner(c, r)).front()});
        for (const std::size_t i : layer.objects)
            for (const ground::Part& part : objects_[i].parts)
                all.insert(all.end(), part.area.begin(), part.area.end());
    } else
        all = solids_near(l, detail::grown(*box, ground::reshaping_reach(of, false)));
    all = detail::unite_proper(all);
    return ground::drawn_and_grown(of, all, all, true);
}

void Solids::fill_holes(LayerId l, const std::optional<Bounds>& changed) {
    LayerSolids& layer = layers_[index(l)];
    const Layer& of = map_.layer(l);
    if (!ground::fills_holes(of) || !ground::counts(of, facts_)) return;
    // A hole that appears or disappears touches what has changed, and is no longer than the layer's longest.
    const auto near = changed ? std::optional(detail::grown(*changed, ground::reshaping_reach(of, false) + 1))
                              : std::optional<Bounds>();
    const auto is_near = [&](const Bounds& box) { return !near || detail::meet(box, *near); };
    const auto kept = std::stable_partition(layer.filled.begin(), layer.filled.end(),
                                            [&](const Filled& hole) { return !is_near(hole.box); });
    layer.filled.erase(kept, layer.filled.end());
    const std::int32_t longest = ground::growth_reach(of) - ground::growth_reach(of, false);
    const Regions shaped = shaped_near(l, near ? std::optional(detail::grown(*near, longest)) : near);
    for (const Region& hole : ground::small_holes(of, shaped))
        if (is_near(detail::box_around(hole.outline))) add_filled(l, hole);
    std::vector<Bounds> boxes;
    for (const Filled& hole : layer.filled) boxes.push_back(hole.box);
    layer.filled_near = detail::BoxIndex(std::move(boxes));
}

// For each barrier that stands around it; credited to the first tile or object found that is made of it.
void Solids::add_filled(LayerId l, const Region& hole) {
    LayerSolids& layer = layers_[index(l)];
    const Layer& of = map_.layer(l);
    const Bounds box = detail::box_around(hole.outline), around = detail::grown(box, 2);
    std::set<std::pair<StoreyId, BarrierId>> known;
    const auto add = [&](const Pieces& pieces, Point at, StoreyId storey, ObjectId object, int column, int row) {
        for (const Piece& piece : pieces) {
            if (piece.is_line() || known.count({storey, piece.barrier}) > 0 ||
                !detail::meet(detail::moved(piece.box, at), around) ||
                !ground::stands_around(moved(Regions{{piece.points, {}}}, at).front().outline, hole))
                continue;
            known.emplace(storey, piece.barrier);
            layer.filled.push_back({hole, box, storey, piece.barrier, object, column, row, {}});
            cut_filled(l, layer.filled.back());
        }
    };
    if (layer.counts) {
        const auto [c0, r0, c1, r1] = cells_reaching(l, around);
        for (int r = r0; r <= r1; ++r)
            for (int c = c0; c <= c1; ++c)
                if (const Pieces& own = layer.meanings[map_.number(of, c, r)].pieces; !own.empty())
                    add(layer.reshapes ? reshaped_pieces(l, c, r, own) : own, map_.corner(c, r), of.storey,
                        ObjectId::none, c, r);
    }
    for (const std::size_t i : layer.objects) {
        const ObjectSolids& object = objects_[i];
        if (!detail::meet(object.box, around)) continue;
        Pieces pieces;
        for (const ground::Part& part : object.parts) add_pieces(pieces, part);
        const Bounds reached = detail::grown(object.box, ground::reshaping_reach(of, false));
        add(drawn_and_grown(l, pieces, solids_near(l, reached), {0, 0}), {0, 0}, object.storey, object.object, 0, 0);
    }
}

void Solids::cut_filled(LayerId l, Filled& hole) const {
    hole.pieces.clear();
    add_pieces(hole.pieces, {true, hole.barrier, {}, OneWay::none, {}, {hole.hole}, {}});
    static_cast<void>(cut_by_carves(hole.pieces, {0, 0}, l, hole.storey));
}

}   // namespace dryground::play
