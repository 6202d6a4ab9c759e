// What a running game asks of a map: cells, touches, steps, edits, facts.
//
//     dg::Play play(*dg::load_pack("station.pack.cbor"), "slipway");
//     for (const dg::Touch& touch : play.touched({.point = p, .normal = n})) …   // touch.cell, touch.tile, touch.side
//     for (const std::size_t chunk : play.set_tile(touch.layer, touch.cell, "").chunks) …   // it is another now
//
// Places are in px, y down. Cells are counted as maps count them, which may be negative; maps, layers, objects,
// storeys, facts and movers are told by ids (ids.hpp). Where a caller's promise is broken (a map or layer that is not
// there) std::out_of_range says which. Threads: any number may ask at once, as long as nobody edits.
#pragma once

#include <array>
#include <cstdint>
#include <memory>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "dryground/merge.hpp"
#include "dryground/pack.hpp"
#include "dryground/touch.hpp"
#include "dryground/travel.hpp"

namespace dryground {

struct PlayOptions {
    int chunk_cells = 0;   // of the geometry that is kept; 0: as the world's merging settings say
    bool pieces = false;   // whether chunks hold convex pieces besides regions and chains
};

// One thing that was done to the running game, with what undoes it. `fired`: something that fires only once has.
// `removed`: an object is gone.
struct Edit {
    enum class Sort { tile, fact, fired, removed } sort = Sort::tile;
    MapId map = MapId::none;
    LayerId layer = LayerId::none;
    Cell cell{};
    Placed before{}, after{};     // of a tile
    FactId fact = FactId::none;   // of a fact
    ObjectId object =
        ObjectId::none;         // that fired or is gone; of a tile that fired none, and layer and cell say which
    bool whole_layer = false;   // what fired is the trigger of the layer
    bool holds = false, held = false;   // after it, and before

    friend bool operator==(const Edit&, const Edit&) = default;
};
struct EditResult {
    std::vector<Edit> edits;           // none when nothing changed; undo takes them
    std::vector<std::size_t> chunks;   // of the present map, whose geometry changed: positions in merge().chunks
};

// All that a saved game holds of a world: the differences from its pack. `changes_bytes` (changes.hpp) writes them by
// names, so that they survive a new pack.
struct SavedChanges {
    std::string pack;          // the hash of the pack that was played; empty: a world without one
    std::string map;           // the present map
    std::vector<Edit> edits;   // each thing once, sorted
};

// What a mover's way is barred by.
struct Blocked {
    enum class By { nothing, tile, object, rim, flags, side, outside } by = By::nothing;
    Touch touch{};     // of tiles, objects and the rim
    Cell cell{};       // of flags and sides
    double at = 1;     // how much of the way is free: 0 to 1
    PointPx place{};   // where the mover stops

    explicit operator bool() const { return by != By::nothing; }
};

// A body of the game's, as it is now.
struct BodyNow {
    std::uint64_t id = 0;
    MoverId mover = MoverId::none;
    PointPx position{};   // the mover's: what its body counts from
    StoreyId storey = StoreyId::ground;
    bool uses = false;   // it asks, this frame, to use what it stands in or next to
};

// Something that a shape overlaps.
struct Overlap {
    enum class Sort { tile, object, rim, body } sort = Sort::tile;
    BarrierId barrier = BarrierId::none;   // of what is solid
    std::string trigger{};                 // of tiles' shapes that sense: their name
    LayerId layer = LayerId::none;         // of tiles and objects
    Cell cell{};                           // of tiles
    Placed tile{};                         // what stands there
    ObjectId object = ObjectId::none;      // a position in the map's objects
    std::uint64_t body = 0;                // its id, and its mover's
    MoverId mover = MoverId::none;

    friend bool operator==(const Overlap&, const Overlap&) = default;
};

enum class Diagonal { never, if_both_free, if_one_free, always };   // past corners

class Play {
public:
    // Throws std::out_of_range for a map that is not there. Cost: merging the map.
    Play(World world, std::string_view map, const PlayOptions& options = {});
    Play(const Pack& pack, std::string_view map, const PlayOptions& options = {});
    ~Play();
    Play(Play&&) noexcept;
    Play& operator=(Play&&) noexcept;

    [[nodiscard]] const World& world() const;
    [[nodiscard]] MapId map_id() const;
    [[nodiscard]] const Map& map() const { return *now_; }   // as it is now
    [[nodiscard]] const ChunkedMerge& merge() const;         // its ground, likewise

    // Goes to another map, whose changes are as they were when it was left. Cost: merging it.
    void go_to(std::string_view map);
    void go_to(MapId map);   // by its id

    // ---- finding things by their names; none: not found ----

    [[nodiscard]] LayerId find_layer(std::string_view name) const;     // of the present map; O(layers)
    [[nodiscard]] ObjectId find_object(std::string_view name) const;   // likewise; O(objects)
    [[nodiscard]] std::vector<LayerId> layers_tagged(std::string_view tag) const;
    [[nodiscard]] PointPx place_of(
        ObjectId object) const;   // its position; of one with an area the middle, or its feet

    // ---- places and cells ----

    // An engine's metres, y up.
    [[nodiscard]] PointPx from_metres(double x, double y) const;
    [[nodiscard]] std::array<double, 2> to_metres(PointPx p) const;
    [[nodiscard]] Cell cell_at(PointPx p) const;   // on any grid; need not be one of the map's; NaN is far out
    // The cell that a body stands in whose feet are at a place: on the border of two the upper one.
    [[nodiscard]] Cell standing_cell(PointPx feet) const;
    [[nodiscard]] PointPx corner_of(Cell cell) const;   // the top-left one; of a diamond the top one
    [[nodiscard]] PointPx middle_of(Cell cell) const;
    [[nodiscard]] bool has(Cell cell) const;

    // What stands there; no tile outside of the map. Throws for a layer of objects.
    [[nodiscard]] const Placed& tile_at(LayerId layer, Cell cell) const {
        const std::size_t l = index(layer);
        if (l >= now_->layers.size() || now_->layers[l].holds_objects) refuse_layer(layer);
        const DataCell at = now_->data_cell(cell);
        return now_->has(at) ? now_->placed(now_->layers[l], at.column, at.row) : now_->palette.front();
    }
    [[nodiscard]] const Tile* find_tile(LayerId layer, Cell cell) const;   // null where no tile stands
    // Flags and sides of a cell, and which layers decide them. Outside of the map nothing is granted.
    [[nodiscard]] Passability says(Cell cell, StoreyId storey = StoreyId::ground) const;
    [[nodiscard]] bool grants(Cell cell, std::string_view flag,
                              StoreyId storey = StoreyId::ground) const;   // by its name
    // A property of the topmost tile of a storey that has it; null where none has.
    [[nodiscard]] const Value* property_at(Cell cell, std::string_view name, StoreyId storey = StoreyId::ground) const;

    // The order in which to draw, on grids whose nearer cells hide those behind: less is further away. Bodies are drawn
    // by where they stand, tiles by the middle of their cell.
    [[nodiscard]] double depth(PointPx feet) const { return feet.y; }
    [[nodiscard]] double depth(Cell cell) const { return middle_of(cell).y; }

    // ---- what did it hit ----

    // The tiles, solid objects and rim that a contact is with; nothing where none lies near enough. Behind the contact,
    // as seen along the normal: a wall beside a floor is not told of a contact with the floor. With a body: whatever
    // lies along its side. What is carved away is not there. Allocates nothing.
    [[nodiscard]] Touches touched(const Contact& contact) const;
    [[nodiscard]] Touches touched(std::span<const Contact> contacts) const;   // of all of them together

    // ---- ways ----

    // Whether a mover may go from a cell to one of the eight around it: the other cell grants what it needs and is not
    // barred by ground it is stopped by, and neither cell's side is shut that way.
    [[nodiscard]] bool may_step(MoverId mover, Cell from, Cell to, StoreyId storey = StoreyId::ground,
                                Diagonal corners = Diagonal::if_both_free) const;
    // The first thing in the way of a mover's body that moves straight from one place to another. One-way lines count
    // from the side that they block.
    [[nodiscard]] Blocked blocked(MoverId mover, PointPx from, PointPx to, StoreyId storey = StoreyId::ground) const;

    // A way of a mover to another place of the present map, as that is now: steps, walks, drops and jumps as its
    // figures say (travel.hpp), all of it free. Nothing where none is found. Cost: after each change of ground the
    // first question of a mover merges the map for it; seen from the side jumps are looked for where the search comes,
    // once.
    [[nodiscard]] std::optional<Route> route(MoverId mover, PointPx from, PointPx to,
                                             StoreyId storey = StoreyId::ground) const;

    // ---- what is there ----

    // All that overlaps a shape that is moved to a place: tiles' solid and sensing shapes, objects' areas and
    // positions, the rim, and those of `bodies` that are on the storey. Touching is not overlapping. Sorted by sort,
    // layer, row, column, object, body; each thing once for each barrier and trigger. Cost: in proportion to what is
    // near.
    [[nodiscard]] std::vector<Overlap> overlaps(const Regions& shape, PointPx at, StoreyId storey = StoreyId::ground,
                                                std::span<const BodyNow> bodies = {}) const;
    [[nodiscard]] std::vector<Overlap> overlaps(MoverId mover, PointPx at, StoreyId storey = StoreyId::ground,
                                                std::span<const BodyNow> bodies = {}) const;   // the mover's body
    // What of that a feeler of a mover senses: the barriers and movers that it names.
    [[nodiscard]] std::vector<Overlap> senses(MoverId mover, std::string_view feeler, PointPx at,
                                              StoreyId storey = StoreyId::ground,
                                              std::span<const BodyNow> bodies = {}) const;

    // ---- changes ----

    // Puts a tile on a cell, or takes it away ({}). Cost: that of its chunk, where tiles keep to their cells.
    EditResult set_tile(LayerId layer, Cell cell, const Placed& tile);
    EditResult set_tile(LayerId layer, Cell cell, std::string_view tile);   // by name, or set/tile; "": none
    EditResult clear(LayerId layer, Cell cell) { return set_tile(layer, cell, Placed{}); }
    EditResult swap(LayerId layer, Cell a, Cell b);
    // What comes or goes with a fact: layers, objects, tiles that need it. Cost: none where no ground depends on it,
    // else in proportion to the chunks whose ground does.
    EditResult set_fact(FactId fact, bool holds);
    EditResult set_fact(std::string_view fact, bool holds = true);
    [[nodiscard]] bool holds(FactId fact) const;
    [[nodiscard]] bool holds(std::string_view fact) const;
    [[nodiscard]] const Facts& facts() const;
    [[nodiscard]] bool is_there(ObjectId object) const;   // of the present map: as facts say, and not removed

    // An object of the present map is gone for good: eaten, beaten, taken. Spawners, triggers and ground heed it.
    // Cost: none where it shapes no ground, else in proportion to the chunks that it lies in.
    EditResult remove(ObjectId object);

    // Undoes what a call gave back.
    EditResult undo(const EditResult& changed);

    // The differences from the pack; the same ones made in any order are the same. Cost: in proportion to them.
    [[nodiscard]] SavedChanges changes() const;
    // From now on just these differences hold, on the map that they name. Gives in words what of them does not fit the
    // world and was left out. Cost: in proportion to what changes, and merging the map where it is another or much of
    // it changes.
    std::vector<std::string> apply(const SavedChanges& changes);

    // Whether something that fires once has fired: an object of the present map, a tile, or the trigger of a layer.
    [[nodiscard]] bool has_fired(ObjectId object) const;
    [[nodiscard]] bool has_fired(LayerId layer, Cell cell) const;
    [[nodiscard]] bool has_fired(LayerId layer) const;   // its own trigger
    EditResult set_fired(ObjectId object);
    EditResult set_fired(LayerId layer, Cell cell);
    EditResult set_fired(LayerId layer);

    // Takes a newer world while running: the same map (or its first, when that is gone), facts and changed cells as far
    // as they are there. Tells in words what is other: maps, tiles, facts that came and went, changes that were lost.
    std::vector<std::string> refresh(World world);

    // ---- to look at ----

    struct Line {
        PointPx from, to;
        std::string_view group;   // a barrier's or trigger's name
    };
    struct Label {
        PointPx at;
        std::string text;
    };
    struct Overlay {
        std::vector<Line> lines;
        std::vector<Label> labels;
    };
    struct Show {
        bool chains = true, flags = false, objects = true, grid = false;
    };
    // Lines and labels inside a box of px, for a game to draw over its picture. The names live as long as the Play
    // does.
    [[nodiscard]] Overlay overlay(const BoxPx& area, const Show& show) const;
    [[nodiscard]] Overlay overlay(const BoxPx& area) const { return overlay(area, Show{}); }

private:
    friend class TriggerTracker;
    struct Parts;
    [[noreturn]] void refuse_layer(LayerId layer) const;
    void load(MapId map);
    std::unique_ptr<Parts> parts_;
    const Map* now_ = nullptr;   // the present map, which the parts own
};

}   // namespace dryground
