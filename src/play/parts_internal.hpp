// Inside the play room: what a Play holds.
#pragma once

#include <map>
#include <mutex>
#include <set>
#include <string>

#include "../travel/ways_internal.hpp"
#include "convex_internal.hpp"
#include "dryground/play.hpp"
#include "solids_internal.hpp"

namespace dryground {

struct Play::Parts {
    Parts(World w, std::string hash, const PlayOptions& o) : world(std::move(w)), pack(std::move(hash)), options(o) {}

    // By map, layer, row, column: from the tile that the world has there to the one that is there now.
    using TileKey = std::array<int, 4>;
    // By map, then an object, or -1 with layer, row and column.
    using FiredKey = std::array<int, 5>;

    World world;
    std::string pack;   // its hash; empty when there is none
    PlayOptions options;
    int map_id = -1;
    int arrival = 0;   // grows whenever a map is come to, or a newer world
    struct Done {      // since the pack
        Facts facts;
        std::map<TileKey, Edit> tiles;
        std::set<FiredKey> fired;
        // Map, object, layer, row, column; -1 for the object of a tile, -2 for a layer's own trigger.
        [[nodiscard]] static FiredKey of_layer(int map, int layer) { return {map, -2, layer, 0, 0}; }
        [[nodiscard]] static FiredKey key_of(const Edit& fired) {
            if (fired.whole_layer) return of_layer(fired.map, fired.layer);
            return fired.object < 0 ? FiredKey{fired.map, -1, fired.layer, fired.cell[1], fired.cell[0]}
                                    : FiredKey{fired.map, fired.object, 0, 0, 0};
        }
        std::set<std::pair<int, int>> removed;   // map, object

        // Requires an edit that fits the world.
        void add(const World& of, const Edit& edit);
    };
    Done done;
    std::unique_ptr<LiveMap> live;
    const Map* now = nullptr;               // the live map's
    std::unique_ptr<play::Solids> solids;   // refers to the live map and to the facts
    detail::BoxIndex objects;               // of the live map: around area and position

    // The ways of movers on the map as it is now, made when somebody asks: any number may ask at once.
    std::mutex ways_asked;
    std::map<MoverId, std::unique_ptr<travel::Ways>> ways;
    void forget_ways() {
        const std::lock_guard lock(ways_asked);
        ways.clear();
    }

    [[nodiscard]] const Map& map() const { return *now; }
    [[nodiscard]] MergeOptions merge_options() const {
        MergeOptions merging;
        merging.pieces = options.pieces, merging.facts = done.facts;
        return merging;
    }
    // Merges a map as it is now: the world's with the changes of its cells.
    void load(int id);
    void renew_solids() {
        forget_ways();
        solids = std::make_unique<play::Solids>(world, map(), done.facts);
    }
    void renew_solids_of(int layer, int column, int row) {   // of a cell whose tile is another
        forget_ways();
        solids->renew(layer, column, row);
    }
    // The chunks whose ground is another when the facts are.
    std::vector<std::size_t> follow_facts();
    void note(const Edit& edit);
    EditResult set_removed(int object, bool removed);
    // From now on just these changes hold, on a map.
    void turn_to(Done wanted, int id);
    [[nodiscard]] std::array<int, 2> data_cell(const Cell& cell) const {
        return {cell[0] - map().first_column, cell[1] - map().first_row};
    }
};

namespace play {

[[nodiscard]] Vec direction(OneWay one_way);   // (0, 0) for none
// Which side of a cell something is on, seen from a direction: as in Sides.
[[nodiscard]] int side_of(const Map& map, Vec out);

// Throws std::out_of_range for an id that the world does not have.
[[nodiscard]] const Mover& mover_of(const World& world, MoverId mover);

// Adds what a contact is with, unsorted.
void add_touched(const World& world, const Map& map, const Solids& solids, const Contact& contact, Touches& into);

}   // namespace play

}   // namespace dryground
