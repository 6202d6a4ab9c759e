// Inside the play room: the shapes that stop movers, by cell and by object, ready to be asked about without allocating.
#pragma once

#include <algorithm>
#include <array>
#include <unordered_map>
#include <vector>

#include "dryground/merge.hpp"
#include "dryground/touch.hpp"

namespace dryground::play {

// A convex polygon, or a line's segment (two points), from the corner of its cell's box or in map steps.
struct Piece {
    Ring points;
    Bounds box;
    int barrier = -1;
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
    int layer, object;
    int column, row;   // counted from the data's top-left; of tiles
    int barrier;
};

// What is solid on a map while certain facts hold. Refers to world and map.
class Solids {
public:
    Solids(const World& world, const Map& map, const Facts& facts);

    // A cell of a layer holds something else now; the map's palette may have grown.
    void renew(int layer, int column, int row);

    // Calls action(const StandingPiece&) for each piece whose box meets one, of a storey; in the order of layers,
    // cells.
    template <class Action>
    void each_near(const Bounds& box, int storey, Action action) const {
        for (std::size_t l = 0; l < map_.layers.size(); ++l)
            if (is_solid_[l] && map_.layers[l].storey == storey) each_of_layer(static_cast<int>(l), box, action);
        if (!objects_.empty()) each_object(box, storey, action);
        for (const Piece& piece : rim_)
            if (meets(piece.box, box)) action(StandingPiece{&piece, {0, 0}, Touched::rim, -1, -1, 0, 0, piece.barrier});
    }

    // The columns and rows, first and last, of the cells whose boxes come near a box; inside the map.
    [[nodiscard]] std::array<int, 4> cells_near(const Bounds& box) const;

private:
    struct ObjectPieces {
        int object, layer, storey;
        Bounds box;
        Pieces pieces;
    };
    static bool meets(const Bounds& a, const Bounds& b) {
        return a.least.x <= b.most.x && b.least.x <= a.most.x && a.least.y <= b.most.y && b.least.y <= a.most.y;
    }
    static Bounds moved_box(const Bounds& box, Point by) { return {moved(box.least, by), moved(box.most, by)}; }

    // Objects by blocks of the map; each is taken from the first block that it shares with the box.
    template <class Action>
    void each_object(const Bounds& box, int storey, Action& action) const {
        const auto [c0, r0] = block_of(box.least);
        const auto [c1, r1] = block_of(box.most);
        for (int r = r0; r <= r1; ++r)
            for (int c = c0; c <= c1; ++c)
                for (const std::size_t i :
                     blocks_[static_cast<std::size_t>(r) * static_cast<std::size_t>(block_columns_) +
                             static_cast<std::size_t>(c)]) {
                    const ObjectPieces& object = objects_[i];
                    if (object.storey != storey || !meets(object.box, box)) continue;
                    const auto [own_c, own_r] = block_of(object.box.least);
                    if (c != std::max(c0, own_c) || r != std::max(r0, own_r)) continue;
                    for (const Piece& piece : object.pieces)
                        if (meets(piece.box, box))
                            action(StandingPiece{
                                &piece, {0, 0}, Touched::object, object.layer, object.object, 0, 0, piece.barrier});
                }
    }
    [[nodiscard]] std::array<int, 2> block_of(Point p) const {
        const auto number = [](std::int32_t value, std::int32_t least, int size, int count) {
            return static_cast<int>(std::clamp<std::int64_t>((std::int64_t{value} - least) / size, 0, count - 1));
        };
        const Point least = map_.least();
        return {number(p.x, least.x, 8 * map_.cell_width * steps_per_px, block_columns_),
                number(p.y, least.y, 8 * map_.cell_height * steps_per_px, block_rows_)};
    }

    template <class Action>
    void each_of_layer(int l, const Bounds& box, Action& action) const {
        const Layer& layer = map_.layers[static_cast<std::size_t>(l)];
        const Point shift = moved(layer.offset, layer.shape_offset);
        const Bounds near{{box.least.x - shift.x - reach_.most.x, box.least.y - shift.y - reach_.most.y},
                          {box.most.x - shift.x - reach_.least.x, box.most.y - shift.y - reach_.least.y}};
        const auto [c0, r0, c1, r1] = cells_near(near);
        for (int r = r0; r <= r1; ++r)
            for (int c = c0; c <= c1; ++c) {
                const std::uint32_t number = map_.number(layer, c, r);
                if (number == 0) continue;
                const Pieces& pieces = pieces_at(l, c, r, number);
                if (pieces.empty()) continue;
                const Point at = moved(map_.box_corner(c, r), shift);
                for (const Piece& piece : pieces)
                    if (meets(moved_box(piece.box, at), box))
                        action(StandingPiece{&piece, at, Touched::tile, l, -1, c, r,
                                             piece.barrier >= 0 ? piece.barrier : layer.barrier});
            }
    }
    [[nodiscard]] const Pieces& pieces_at(int layer, int column, int row, std::uint32_t number) const {
        if (!carved_.empty())
            if (const auto found = carved_.find(key(layer, column, row)); found != carved_.end()) return found->second;
        return by_number_[number];
    }
    [[nodiscard]] std::uint64_t key(int layer, int column, int row) const {
        return (static_cast<std::uint64_t>(layer) * static_cast<std::uint64_t>(map_.rows) +
                static_cast<std::uint64_t>(row)) *
                   static_cast<std::uint64_t>(map_.columns) +
               static_cast<std::uint64_t>(column);
    }

    void make_numbers();
    [[nodiscard]] Pieces pieces_of(const Placed& placed) const;
    void carve_cell(int layer, int column, int row);
    void carve_around(int layer, int column, int row);
    [[nodiscard]] Regions carved(Regions area, int layer, int storey, int barrier) const;
    void make_objects();
    void make_rim();

    const World& world_;
    const Map& map_;
    const Facts& facts_;
    std::vector<bool> is_solid_;                         // by layer: it is there and holds cells that may stop somebody
    std::vector<Pieces> by_number_;                      // of the palette, from the corner of the cell's box
    std::vector<bool> carves_;                           // by number: it carves something
    Bounds reach_{{0, 0}, {0, 0}};                       // how far pieces and carves reach out of their cell's box
    std::unordered_map<std::uint64_t, Pieces> carved_;   // cells of which layers above carve something away
    std::vector<ObjectPieces> objects_;
    std::vector<std::vector<std::size_t>> blocks_;
    int block_columns_ = 1, block_rows_ = 1;
    std::vector<std::pair<int, const Object*>> carvers_;   // by layer: objects that carve
    Pieces rim_;
};

}   // namespace dryground::play
