// What becomes of the shapes that stand on a map: their own layer shrinks and grows them, then carves of the layers
// above cut them. The same as the merge does for a whole map, for one cell or object at a time.

#include <algorithm>

#include "../geometry/boolean_internal.hpp"
#include "../merge/lines/lines_internal.hpp"
#include "solids_internal.hpp"

namespace dryground::play {

namespace {

Point negated(Point p) { return {-p.x, -p.y}; }

Bounds box_of(const Pieces& pieces) {
    Bounds all = pieces.front().box;
    for (const Piece& piece : pieces) all = detail::both(all, piece.box);
    return all;
}

Regions standing(const Piece& piece, Point at) { return moved(Regions{{piece.points, {}}}, at); }

// Adds what is left of a piece's area, which lies where `at` moves the piece to.
void add_rest(Pieces& into, const Piece& piece, Point at, Regions rest) {
    if (twice_area(rest) == twice_area(piece.points))
        into.push_back(piece);
    else
        add_pieces(into, {true, piece.barrier, {}, OneWay::none, {}, moved(std::move(rest), negated(at)), {}});
}

}   // namespace

// Returns the solids of a layer, of any barrier, that come near a box.
Regions Solids::solids_near(LayerId l, const Bounds& box) const {
    Regions all;
    const auto add = [&](const Pieces& pieces, Point at) {
        for (const Piece& piece : pieces)
            if (!piece.is_line() && detail::meet(detail::moved(piece.box, at), box))
                all.push_back(std::move(standing(piece, at).front()));
    };
    const LayerSolids& layer = layers_[index(l)];
    if (layer.counts) {
        const auto [c0, r0, c1, r1] = cells_reaching(l, box);
        for (int r = r0; r <= r1; ++r)
            for (int c = c0; c <= c1; ++c)
                add(layer.meanings[map_.number(map_.layer(l), c, r)].pieces, map_.corner(c, r));
    }
    for (const std::size_t i : layer.objects)
        if (detail::meet(objects_[i].box, box))
            for (const ground::Part& part : objects_[i].parts)
                all.insert(all.end(), part.area.begin(), part.area.end());
    return all;
}

Pieces Solids::drawn_and_grown(LayerId l, const Pieces& pieces, const Regions& near, Point at) const {
    const Regions all = detail::unite_proper(near);
    Pieces left;
    for (const Piece& piece : pieces) {
        if (piece.is_line())
            left.push_back(piece);
        else
            add_rest(left, piece, at, ground::drawn_and_grown(map_.layer(l), standing(piece, at), all));
    }
    return left;
}

// Remembered by what stands around: maps have the same few surroundings over and over. Not if an object of the layer is
// near, since it may lie anywhere.
const Pieces& Solids::reshaped_pieces(LayerId l, int column, int row, const Pieces& own) {
    LayerSolids& layer = layers_[index(l)];
    const Layer& of = map_.layer(l);
    const Point at = map_.corner(column, row);
    const Bounds box = detail::grown(detail::moved(box_of(own), at), ground::reshaping_reach(of, false));
    const auto [c0, r0, c1, r1] = cells_reaching(l, box);
    std::vector<std::int32_t> around{c0 - column, r0 - row, c1 - column, r1 - row};
    for (int r = r0; r <= r1; ++r)
        for (int c = c0; c <= c1; ++c) around.push_back(static_cast<std::int32_t>(map_.number(of, c, r)));
    const bool by_object = std::any_of(layer.objects.begin(), layer.objects.end(),
                                       [&](std::size_t i) { return detail::meet(objects_[i].box, box); });
    if (by_object) around.assign({-1});
    const auto [known, is_new] = layer.reshaped.try_emplace(std::move(around));
    if (is_new || by_object) known->second = drawn_and_grown(l, own, solids_near(l, box), at);
    return known->second;
}

// Returns what the layers above a layer carve from a barrier near a box.
Regions Solids::carves_near(const Bounds& box, LayerId below, StoreyId storey, BarrierId barrier) const {
    Regions all;
    for (const LayerId above : ids<LayerId>(map_.layers)) {
        const LayerSolids& layer = layers_[index(above)];
        const Layer& of = map_.layer(above);
        if (above <= below || !layer.counts || !layer.has_cuts || of.storey != storey) continue;
        const auto [c0, r0, c1, r1] = cells_reaching(above, box);
        for (int r = r0; r <= r1; ++r)
            for (int c = c0; c <= c1; ++c)
                for (const ground::Part& part : layer.meanings[map_.number(of, c, r)].cuts)
                    if (part.barrier == barrier)
                        for (const Region& region : moved(part.area, map_.corner(c, r))) all.push_back(region);
    }
    for (const Carver& carver : carvers_)
        if (carver.layer > below && carver.storey == storey && carver.part.barrier == barrier &&
            detail::meet(carver.box, box))
            all.insert(all.end(), carver.part.area.begin(), carver.part.area.end());
    return detail::unite_proper(all);
}

// Returns whether anything was cut away.
bool Solids::cut_by_carves(Pieces& pieces, Point at, LayerId layer, StoreyId storey) const {
    Pieces left;
    bool is_cut = false;
    for (const Piece& piece : pieces) {
        const Regions away = carves_near(detail::moved(piece.box, at), layer, storey, piece.barrier);
        if (away.empty()) {
            left.push_back(piece);
            continue;
        }
        is_cut = true;
        if (!piece.is_line()) {
            add_rest(left, piece, at, detail::subtract_proper(standing(piece, at), away));
            continue;
        }
        for (const detail::LinePiece& rest :
             detail::cut_lines({{moved(piece.points[0], at), moved(piece.points[1], at), 0}}, away))
            add_pieces(left, {true,
                              piece.barrier,
                              {},
                              piece.one_way,
                              {},
                              {},
                              {moved(rest.from, negated(at)), moved(rest.to, negated(at))}});
    }
    pieces = std::move(left);
    return is_cut;
}

void Solids::cut_cell(LayerId l, int column, int row) {
    const LayerSolids& layer = layers_[index(l)];
    const Pieces& own = layer.meanings[map_.number(map_.layer(l), column, row)].pieces;
    cut_.erase(key(l, column, row));
    if (own.empty()) return;
    const Point at = map_.corner(column, row);
    Pieces pieces = layer.reshapes ? reshaped_pieces(l, column, row, own) : own;
    const bool is_cut = cut_by_carves(pieces, at, l, map_.layer(l).storey);
    const auto same = [](const Piece& a, const Piece& b) { return a.points == b.points; };
    if (is_cut || !std::equal(pieces.begin(), pieces.end(), own.begin(), own.end(), same))
        cut_[key(l, column, row)] = std::move(pieces);
}

void Solids::cut_object(ObjectSolids& object) {
    object.pieces.clear();
    for (const ground::Part& part : object.parts) add_pieces(object.pieces, part);
    if (const LayerSolids& layer = layers_[index(object.layer)]; layer.reshapes) {
        const Bounds box = detail::grown(object.box, ground::reshaping_reach(map_.layer(object.layer), false));
        object.pieces = drawn_and_grown(object.layer, object.pieces, solids_near(object.layer, box), {0, 0});
    }
    static_cast<void>(cut_by_carves(object.pieces, {0, 0}, object.layer, object.storey));
}

void Solids::cut_all() {
    for (std::size_t l = 0; l < layers_.size(); ++l) {
        const LayerSolids& layer = layers_[l];
        if (!layer.counts) continue;
        if (layer.reshapes)
            for (int r = 0; r < map_.rows; ++r)
                for (int c = 0; c < map_.columns; ++c) cut_cell(id_of<LayerId>(l), c, r);
        if (!layer.has_cuts) continue;
        for (int r = 0; r < map_.rows; ++r)
            for (int c = 0; c < map_.columns; ++c)
                if (!layer.meanings[map_.number(map_.layers[l], c, r)].cuts.empty())
                    cut_around(id_of<LayerId>(l), reach_of(id_of<LayerId>(l), c, r));
    }
    for (const Carver& carver : carvers_) cut_around(carver.layer, carver.box);
    for (ObjectSolids& object : objects_) cut_object(object);
    for (std::size_t l = 0; l < layers_.size(); ++l) fill_holes(id_of<LayerId>(l), std::nullopt);
}

// Returns the box of the pieces and carves of a layer's cell.
Bounds Solids::reach_of(LayerId layer, int column, int row) const {
    const Bounds box = map_.cell_box(column, row), &reach = layers_[index(layer)].reach;
    return {moved(box.least, reach.least), moved(box.most, reach.most)};
}

// Cuts all cells of the layers below that carves in a box may reach.
void Solids::cut_around(LayerId above, const Bounds& box) {
    for (const LayerId below : ids<LayerId>(map_.layers)) {
        if (below >= above) break;
        LayerSolids& layer = layers_[index(below)];
        if (!layer.counts) continue;
        const auto [c0, r0, c1, r1] = cells_reaching(below, box);
        for (int r = r0; r <= r1; ++r)
            for (int c = c0; c <= c1; ++c) cut_cell(below, c, r);
        for (Filled& hole : layer.filled)
            if (detail::meet(hole.box, box)) cut_filled(below, hole);
    }
}

void Solids::renew(LayerId l, int column, int row) {
    learn_numbers();
    const LayerSolids& layer = layers_[index(l)];
    if (!layer.counts) return;
    const Bounds box = reach_of(l, column, row);
    cut_cell(l, column, row);
    if (layer.reshapes) {   // its neighbours change
        const auto [c0, r0, c1, r1] =
            cells_reaching(l, detail::grown(box, ground::reshaping_reach(map_.layer(l), false)));
        for (int r = r0; r <= r1; ++r)
            for (int c = c0; c <= c1; ++c) cut_cell(l, c, r);
    }
    fill_holes(l, box);
    if (layer.has_cuts) cut_around(l, box);
    if (!layer.reshapes && !layer.has_cuts) return;
    for (ObjectSolids& object : objects_)
        if (object.layer <= l &&
            detail::meet(object.box, detail::grown(box, ground::reshaping_reach(map_.layer(l), false))))
            cut_object(object);
}

}   // namespace dryground::play
