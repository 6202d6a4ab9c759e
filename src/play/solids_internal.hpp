// Inside the play room: the shapes that stop movers, by cell and by object, ready for queries that do not allocate.
#pragma once

#include <algorithm>
#include <array>
#include <map>
#include <optional>
#include <unordered_map>
#include <vector>

#include "../geometry/box_index_internal.hpp"
#include "../ground/ground_internal.hpp"
#include "dryground/merge.hpp"
#include "dryground/touch.hpp"

namespace dryground::play {

// A convex polygon, or a line's segment (two points), from the corner of its cell or in map steps.
struct Piece {
    Ring points;
    Bounds box;
    BarrierId barrier = BarrierId::none;
    OneWay one_way = OneWay::none;
    bool is_box = false;   // its points are its box's corners
    [[nodiscard]] bool is_line() const { return points.size() == 2; }
};
using Pieces = std::vector<Piece>;

// A piece where it stands: its points are the piece's, moved by `at`.
struct StandingPiece {
    const Piece* piece;
    Point at;
    Touched sort;
    LayerId layer;
    ObjectId object;
    int column, row;   // counted from the data's top-left; of tiles
    BarrierId barrier;
};

// What is solid on a map while certain facts hold. Refers to world and map.
class Solids {
public:
    Solids(const World& world, const Map& map, const Facts& facts);

    // Updates a cell of a layer that holds something else now; the map's palette may have grown.
    void renew(LayerId layer, int column, int row);

    // Calls action(const StandingPiece&) for each piece whose box meets one, of a storey; in the order of layers,
    // cells.
    template <class Action>
    void each_near(const Bounds& box, StoreyId storey, Action action) const {
        for (const LayerId l : ids<LayerId>(map_.layers)) {
            const LayerSolids& layer = layers_[index(l)];
            if (layer.counts && map_.layer(l).storey == storey) each_of_layer(l, box, action);
            if (!layer.filled.empty()) each_filled(l, box, storey, action);
        }
        if (!objects_.empty()) each_object(box, storey, action);
        if (rim_.empty() || !std::binary_search(storeys_.begin(), storeys_.end(), storey)) return;
        for (const Piece& piece : rim_)
            if (detail::meet(piece.box, box))
                action(StandingPiece{&piece, {0, 0}, Touched::rim, LayerId::none, ObjectId::none, 0, 0, piece.barrier});
    }

    // Does the same for tiles' shapes that sense, with the names of their triggers.
    template <class Action>
    void each_sensing(const Bounds& box, StoreyId storey, Action action) const {
        for (const LayerId l : ids<LayerId>(map_.layers)) {
            const LayerSolids& layer = layers_[index(l)];
            if (!layer.senses || map_.layer(l).storey != storey) continue;
            each_cell(l, box, [&](int c, int r, std::uint32_t number) {
                const Point at = map_.corner(c, r);
                for (const Sensing& sensing : layer.meanings[number].sensing)
                    for (const Piece& piece : sensing.pieces)
                        if (detail::meet(detail::moved(piece.box, at), box))
                            action(StandingPiece{&piece, at, Touched::tile, l, ObjectId::none, c, r, BarrierId::none},
                                   sensing.trigger);
            });
        }
    }

private:
    // What a number of the palette means in a layer: steps from the cell's corner.
    struct Sensing {
        std::string trigger;
        Pieces pieces;
    };
    struct Meaning {
        Pieces pieces;
        std::vector<ground::Part> cuts;
        std::vector<Sensing> sensing;
    };
    // A small hole of a layer's solids that is ground, of one barrier: part of a tile or object that stands around it.
    struct Filled {
        Region hole;
        Bounds box;
        StoreyId storey;
        BarrierId barrier;
        ObjectId object;   // none: a tile
        int column, row;   // of that tile
        Pieces pieces;     // what carves leave of it, in map steps
    };
    struct LayerSolids {
        bool counts = false;     // it is present and holds cells that may stop somebody, or carve
        bool reshapes = false;   // it shrinks or grows its solids
        bool has_cuts = false;
        Bounds reach{{0, 0}, {0, 0}};   // how far all of it reaches out of its cell's box
        bool senses = false;
        std::vector<Meaning> meanings;
        std::vector<std::size_t> objects;   // numbers of its solids
        // What becomes of a tile that is shrunk or grown, by the numbers around it.
        std::map<std::vector<std::int32_t>, Pieces> reshaped;
        std::vector<Filled> filled;
        detail::BoxIndex filled_near;
    };
    struct ObjectSolids {
        ObjectId object;
        LayerId layer;
        StoreyId storey;
        Bounds box;   // of all parts, as far as they may grow, before anything is cut away
        std::vector<ground::Part> parts;
        Pieces pieces;
    };
    template <class Action>
    void each_object(const Bounds& box, StoreyId storey, Action& action) const {
        objects_near_.each_near(box, [&](std::size_t i) {
            const ObjectSolids& object = objects_[i];
            if (object.storey != storey) return;
            for (const Piece& piece : object.pieces)
                if (detail::meet(piece.box, box))
                    action(StandingPiece{
                        &piece, {0, 0}, Touched::object, object.layer, object.object, 0, 0, piece.barrier});
        });
    }

    template <class Action>
    void each_cell(LayerId l, const Bounds& box, Action action) const {   // that holds a tile
        const auto [c0, r0, c1, r1] = cells_reaching(l, box);
        for (int r = r0; r <= r1; ++r)
            for (int c = c0; c <= c1; ++c)
                if (const std::uint32_t number = map_.number(map_.layer(l), c, r); number != 0) action(c, r, number);
    }
    template <class Action>
    void each_of_layer(LayerId l, const Bounds& box, Action& action) const {
        each_cell(l, box, [&](int c, int r, std::uint32_t number) {
            const Pieces& pieces = pieces_at(l, c, r, number);
            const Point at = map_.corner(c, r);
            for (const Piece& piece : pieces)
                if (detail::meet(detail::moved(piece.box, at), box))
                    action(StandingPiece{&piece, at, Touched::tile, l, ObjectId::none, c, r, piece.barrier});
        });
    }
    template <class Action>
    void each_filled(LayerId l, const Bounds& box, StoreyId storey, Action& action) const {
        const LayerSolids& layer = layers_[index(l)];
        layer.filled_near.each_near(box, [&](std::size_t i) {
            const Filled& hole = layer.filled[i];
            if (hole.storey != storey) return;
            for (const Piece& piece : hole.pieces)
                if (detail::meet(piece.box, box))
                    action(StandingPiece{&piece,
                                         {0, 0},
                                         hole.object == ObjectId::none ? Touched::tile : Touched::object,
                                         l,
                                         hole.object,
                                         hole.column,
                                         hole.row,
                                         piece.barrier});
        });
    }
    // Returns the cells of a layer whose pieces or carves may come near a box.
    [[nodiscard]] DataCells cells_reaching(LayerId layer, const Bounds& box) const {
        return ground::cells_reaching(map_, layers_[index(layer)].reach, box);
    }
    [[nodiscard]] const Pieces& pieces_at(LayerId layer, int column, int row, std::uint32_t number) const {
        if (!cut_.empty())
            if (const auto found = cut_.find(key(layer, column, row)); found != cut_.end()) return found->second;
        return layers_[index(layer)].meanings[number].pieces;
    }
    [[nodiscard]] std::uint64_t key(LayerId layer, int column, int row) const {
        return (static_cast<std::uint64_t>(layer) * static_cast<std::uint64_t>(map_.rows) +
                static_cast<std::uint64_t>(row)) *
                   static_cast<std::uint64_t>(map_.columns) +
               static_cast<std::uint64_t>(column);
    }

    void learn_numbers();
    void learn(LayerSolids& layer, const Placed& placed, const Layer& of);
    void make_objects();
    void cut_all();
    [[nodiscard]] Bounds reach_of(LayerId layer, int column, int row) const;

    // Computes what becomes of them: shrunk or grown by their own layer, cut by carves above.
    void cut_cell(LayerId layer, int column, int row);
    void cut_object(ObjectSolids& object);
    void cut_around(LayerId layer, const Bounds& box);
    // Finds the small holes of a layer, or those near a box that has changed (filled_holes.cpp).
    void fill_holes(LayerId layer, const std::optional<Bounds>& changed);
    void add_filled(LayerId layer, const Region& hole);
    void cut_filled(LayerId layer, Filled& hole) const;
    [[nodiscard]] Regions shaped_near(LayerId layer, const std::optional<Bounds>& box);
    [[nodiscard]] const Pieces& reshaped_pieces(LayerId layer, int column, int row, const Pieces& own);
    [[nodiscard]] Regions solids_near(LayerId layer, const Bounds& box) const;
    [[nodiscard]] Regions carves_near(const Bounds& box, LayerId layer, StoreyId storey, BarrierId barrier) const;
    [[nodiscard]] bool cut_by_carves(Pieces& pieces, Point at, LayerId layer, StoreyId storey) const;
    // Returns what a layer makes of some of its pieces, given all its solids near; relative to `at`.
    [[nodiscard]] Pieces drawn_and_grown(LayerId layer, const Pieces& pieces, const Regions& near, Point at) const;

    const World& world_;
    const Map& map_;
    const Facts& facts_;
    std::vector<StoreyId> storeys_;
    std::vector<LayerSolids> layers_;
    std::unordered_map<std::uint64_t, Pieces> cut_;   // cells of which something is cut away
    std::vector<ObjectSolids> objects_;
    detail::BoxIndex objects_near_;
    struct Carver {
        LayerId layer;
        StoreyId storey;
        ground::Part part;
        Bounds box;
    };
    std::vector<Carver> carvers_;   // objects that carve
    Pieces rim_;
};

// Adds convex pieces of an area, or the segments of a line.
void add_pieces(Pieces& pieces, const ground::Part& part);

}   // namespace dryground::play
