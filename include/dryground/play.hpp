// A map in a running game: cells, touches, steps, edits, facts.
//
//     dg::Play play(*dg::load_pack("station.pack.cbor"), "slipway");
//     for (const dg::Touch& touch : play.touched({.point = p, .normal = n})) …   // touch.cell, touch.tile, touch.side
//     for (const std::size_t chunk : play.set_tile(touch.layer, touch.cell, "").chunks) …   // changed chunks
//
// Places are in px, y down. Cells are counted from cell (0, 0) and may be negative; maps, layers, objects, storeys,
// facts and movers are given by ids (ids.hpp). If a precondition is violated (a map or layer that does not exist),
// std::out_of_range names it. Threads: const functions may be called concurrently while nothing is changed.
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
    int chunk_cells = 0;   // of the merged geometry; 0: as in the world's merging settings
    bool pieces = false;   // whether chunks have convex pieces in addition to regions and chains
};

// A change to the running game, with what is needed to undo it. `fired`: something that fires only once has fired.
// `removed`: an object was removed.
struct Edit {
    enum class Sort { tile, fact, fired, removed } sort = Sort::tile;
    MapId map = MapId::none;
    LayerId layer = LayerId::none;
    Cell cell{};
    Placed before{}, after{};           // of a tile
    FactId fact = FactId::none;         // of a fact
    ObjectId object = ObjectId::none;   // that fired or was removed; none: a tile fired, at layer and cell
    bool whole_layer = false;           // the trigger of the layer fired
    bool holds = false, held = false;   // after the change, and before

    friend bool operator==(const Edit&, const Edit&) = default;
};
struct EditResult {
    std::vector<Edit> edits;           // empty if nothing changed; for undo
    std::vector<std::size_t> chunks;   // of the current map whose geometry changed: positions in merge().chunks
};

// What a saved game stores of a world: the differences from its pack. `changes_bytes` (changes.hpp) writes them by
// name, so that they remain valid for a new pack.
struct SavedChanges {
    std::string pack;          // hash of the pack that was played; empty: a world without a pack
    std::string map;           // the current map
    std::vector<Edit> edits;   // one for each changed thing, sorted
};

// What blocks the way of a mover.
struct Blocked {
    enum class By { nothing, tile, object, rim, flags, side, outside } by = By::nothing;
    Touch touch{};     // of tiles, objects and the rim
    Cell cell{};       // of flags and sides
    double at = 1;     // the free part of the way: 0 to 1
    PointPx place{};   // where the mover stops

    explicit operator bool() const { return by != By::nothing; }
};

// A body of the game, as it is now.
struct BodyNow {
    std::uint64_t id = 0;
    MoverId mover = MoverId::none;
    PointPx position{};   // the mover's position, to which its body is relative
    StoreyId storey = StoreyId::ground;
    bool uses = false;   // in this frame it tries to use what it stands in or next to
};

// A thing that a shape overlaps.
struct Overlap {
    enum class Sort { tile, object, rim, body } sort = Sort::tile;
    BarrierId barrier = BarrierId::none;   // of solid things
    std::string trigger{};                 // name of a sensing shape of a tile
    LayerId layer = LayerId::none;         // of tiles and objects
    Cell cell{};                           // of tiles
    Placed tile{};                         // of that cell
    ObjectId object = ObjectId::none;      // of objects
    std::uint64_t body = 0;                // id of a body, and its mover
    MoverId mover = MoverId::none;

    friend bool operator==(const Overlap&, const Overlap&) = default;
};

enum class Diagonal { never, if_both_free, if_one_free, always };   // whether diagonal steps pass corners

class Play {
public:
    // Throws std::out_of_range if the map does not exist. Cost: merging the map.
    Play(World world, std::string_view map, const PlayOptions& options = {});
    Play(const Pack& pack, std::string_view map, const PlayOptions& options = {});
    ~Play();
    Play(Play&&) noexcept;
    Play& operator=(Play&&) noexcept;

    [[nodiscard]] const World& world() const;
    [[nodiscard]] MapId map_id() const;
    [[nodiscard]] const Map& map() const { return *now_; }   // the current state
    [[nodiscard]] const ChunkedMerge& merge() const;         // likewise its merged ground

    // Changes to another map, in the state in which it was left. Cost: merging it.
    void go_to(std::string_view map);
    void go_to(MapId map);

    // ---- find things by name; none if not found ----

    [[nodiscard]] LayerId find_layer(std::string_view name) const;     // of the current map; O(layers)
    [[nodiscard]] ObjectId find_object(std::string_view name) const;   // likewise; O(objects)
    [[nodiscard]] std::vector<LayerId> layers_tagged(std::string_view tag) const;
    [[nodiscard]] PointPx place_of(ObjectId object) const;   // its position; for an area the middle, or the feet

    // ---- places and cells ----

    // Convert from and to metres, y up.
    [[nodiscard]] PointPx from_metres(double x, double y) const;
    [[nodiscard]] std::array<double, 2> to_metres(PointPx p) const;
    [[nodiscard]] Cell cell_at(PointPx p) const;   // on any grid; may lie outside the map; far outside for NaN
    // Returns the cell a body stands in, by the place of its feet: on a border the upper cell.
    [[nodiscard]] Cell standing_cell(PointPx feet) const;
    [[nodiscard]] PointPx corner_of(Cell cell) const;   // the top-left corner; of a diamond the top one
    [[nodiscard]] PointPx middle_of(Cell cell) const;
    [[nodiscard]] bool has(Cell cell) const;

    // Returns the content of a cell; empty outside the map. Throws std::out_of_range for a layer of objects.
    [[nodiscard]] const Placed& tile_at(LayerId layer, Cell cell) const {
        const std::size_t l = index(layer);
        if (l >= now_->layers.size() || now_->layers[l].holds_objects) refuse_layer(layer);
        const DataCell at = now_->data_cell(cell);
        return now_->has(at) ? now_->placed(now_->layers[l], at.column, at.row) : now_->palette.front();
    }
    [[nodiscard]] const Tile* find_tile(LayerId layer, Cell cell) const;   // null if the cell is empty
    // Returns flags and sides of a cell, and which layers decide them. Nothing is granted outside the map.
    [[nodiscard]] Passability says(Cell cell, StoreyId storey = StoreyId::ground) const;
    [[nodiscard]] bool grants(Cell cell, std::string_view flag, StoreyId storey = StoreyId::ground) const;
    // Returns a property of the topmost tile of a storey that has it; null if none has.
    [[nodiscard]] const Value* property_at(Cell cell, std::string_view name, StoreyId storey = StoreyId::ground) const;

    // Drawing order, for grids whose nearer cells hide those behind: less is further away. Bodies are sorted by their
    // feet, tiles by the middle of their cell.
    [[nodiscard]] double depth(PointPx feet) const { return feet.y; }
    [[nodiscard]] double depth(Cell cell) const { return middle_of(cell).y; }

    // ---- contacts ----

    // Returns the tiles, solid objects and rim that a contact touches; empty if none is near enough. Only those behind
    // the contact, along the normal, count: a wall beside a floor is not part of a contact with the floor. With a
    // body: all along its side. Carved parts do not count. Does not allocate.
    [[nodiscard]] Touches touched(const Contact& contact) const;
    [[nodiscard]] Touches touched(std::span<const Contact> contacts) const;   // of all contacts together

    // ---- movement ----

    // Returns whether a mover may go from a cell to one of its eight neighbours: that cell grants what the mover needs
    // and has no ground that stops it, and no side between them is shut in that direction.
    [[nodiscard]] bool may_step(MoverId mover, Cell from, Cell to, StoreyId storey = StoreyId::ground,
                                Diagonal corners = Diagonal::if_both_free) const;
    // Returns the first thing that blocks a mover's body on a straight way between two places. A one-way line counts if
    // the body touches it first from the side that it blocks.
    [[nodiscard]] Blocked blocked(MoverId mover, PointPx from, PointPx to, StoreyId storey = StoreyId::ground) const;

    // Returns a route of a mover to another place of the current map in its current state: steps, walks, drops and
    // jumps by its figures (travel.hpp), free all along. Nothing if none is found. Cost: the first call for a mover
    // after a change of ground merges the map for it; seen from the side, jumps are searched for once, where the
    // search gets to.
    [[nodiscard]] std::optional<Route> route(MoverId mover, PointPx from, PointPx to,
                                             StoreyId storey = StoreyId::ground) const;

    // ---- overlaps ----

    // Returns all that overlaps a shape at a place: solid and sensing shapes of tiles, areas and positions of objects,
    // the rim, and those of `bodies` on the storey. Touching is not overlapping. Sorted by kind, layer, row, column,
    // object, body; each thing once for each barrier and trigger. Cost: proportional to what is near.
    [[nodiscard]] std::vector<Overlap> overlaps(const Regions& shape, PointPx at, StoreyId storey = StoreyId::ground,
                                                std::span<const BodyNow> bodies = {}) const;
    [[nodiscard]] std::vector<Overlap> overlaps(MoverId mover, PointPx at, StoreyId storey = StoreyId::ground,
                                                std::span<const BodyNow> bodies = {}) const;   // the mover's body
    // Returns what a feeler of a mover senses: the barriers and movers it names.
    [[nodiscard]] std::vector<Overlap> senses(MoverId mover, std::string_view feeler, PointPx at,
                                              StoreyId storey = StoreyId::ground,
                                              std::span<const BodyNow> bodies = {}) const;

    // ---- changes ----

    // Puts a tile on a cell, or removes it ({}). Cost: as for LiveMap::set_tile.
    EditResult set_tile(LayerId layer, Cell cell, const Placed& tile);
    EditResult set_tile(LayerId layer, Cell cell, std::string_view tile);   // by name, or set/tile; "" removes
    EditResult clear(LayerId layer, Cell cell) { return set_tile(layer, cell, Placed{}); }
    EditResult swap(LayerId layer, Cell a, Cell b);
    // Sets a fact: layers, objects and tiles that depend on it appear, disappear, open or close. Cost: proportional to
    // the chunks whose ground depends on it.
    EditResult set_fact(FactId fact, bool holds);
    EditResult set_fact(std::string_view fact, bool holds = true);
    [[nodiscard]] bool holds(FactId fact) const;
    [[nodiscard]] bool holds(std::string_view fact) const;
    [[nodiscard]] const Facts& facts() const;
    [[nodiscard]] bool is_there(ObjectId object) const;   // of the current map: present by the facts, and not removed

    // Removes an object of the current map for good: eaten, beaten, taken. It no longer spawns, fires or blocks. Cost:
    // proportional to the chunks it lies in, if it shapes ground.
    EditResult remove(ObjectId object);

    // Undoes the result of a call.
    EditResult undo(const EditResult& changed);

    // Returns the differences from the pack, independent of the order in which they were made. Cost: proportional to
    // them.
    [[nodiscard]] SavedChanges changes() const;
    // Replaces all differences by these, on the map they name. Returns, in words, those that do not fit the world and
    // were ignored. Cost: proportional to what changes, and merging the map if it is another or much of it changes.
    std::vector<std::string> apply(const SavedChanges& changes);

    // Whether something with `once` has fired: an object of the current map, a tile, or the trigger of a layer.
    [[nodiscard]] bool has_fired(ObjectId object) const;
    [[nodiscard]] bool has_fired(LayerId layer, Cell cell) const;
    [[nodiscard]] bool has_fired(LayerId layer) const;
    EditResult set_fired(ObjectId object);
    EditResult set_fired(LayerId layer, Cell cell);
    EditResult set_fired(LayerId layer);

    // Replaces the world by a newer one while running, keeping map (or going to the first, if it no longer exists),
    // facts and changed cells as far as they exist. Returns, in words, what differs: maps, tiles and facts that are
    // new or gone, changes that were lost.
    std::vector<std::string> refresh(World world);

    // ---- debug drawing ----

    struct Line {
        PointPx from, to;
        std::string_view group;   // name of a barrier or trigger
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
    // Returns lines and labels inside a box of px, for a game to draw over its picture. Names live as long as the Play.
    [[nodiscard]] Overlay overlay(const BoxPx& area, const Show& show) const;
    [[nodiscard]] Overlay overlay(const BoxPx& area) const { return overlay(area, Show{}); }

private:
    friend class TriggerTracker;
    struct Parts;
    [[noreturn]] void refuse_layer(LayerId layer) const;
    void load(MapId map);
    std::unique_ptr<Parts> parts_;
    const Map* now_ = nullptr;   // the current map, owned by the parts
};

}   // namespace dryground
