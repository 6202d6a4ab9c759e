// Inside the play room: what a Play holds.
#pragma once

#include <map>
#include <mutex>
#include <set>
#include <string>

#include "../travel/renewed_ways_internal.hpp"
#include "convex_internal.hpp"
#include "dryground/play.hpp"
#include "solids_internal.hpp"

namespace dryground {

struct Play::Parts {
    Parts(World w, std::string hash, const PlayOptions& o) : world(std::move(w)), pack(std::move(hash)), options(o) {}

    struct TileKey {
        MapId map;
        LayerId layer;
        int row, column;
        friend auto operator<=>(const TileKey&, const TileKey&) = default;
    };
    struct FiredKey {
        enum class Of { layer, tile, object };
        MapId map;
        Of of;
        ObjectId object;
        LayerId layer;
        int row = 0, column = 0;
        friend auto operator<=>(const FiredKey&, const FiredKey&) = default;
    };

    World world;
    std::string pack;   // its hash; empty when there is none
    PlayOptions options;
    MapId map_id = MapId::none;
    int arrival = 0;   // grows whenever a map is entered, or a newer world
    struct Done {      // since the pack
        Facts facts;
        std::map<TileKey, Edit> tiles;   // from the tile in the world to the present one
        std::set<FiredKey> fired;
        [[nodiscard]] static FiredKey key_of(const Edit& fired) {
            const FiredKey::Of of = fired.whole_layer                ? FiredKey::Of::layer
                                    : fired.object == ObjectId::none ? FiredKey::Of::tile
                                                                     : FiredKey::Of::object;
            return {fired.map, of, fired.object, fired.layer, fired.cell.row, fired.cell.column};
        }
        std::set<std::pair<MapId, ObjectId>> removed;

        // Requires an edit that fits the world.
        void add(const World& of, const Edit& edit);
    };
    Done done;
    std::unique_ptr<LiveMap> live;
    const Map* now = nullptr;               // the live map's
    std::unique_ptr<play::Solids> solids;   // refers to the live map and to the facts
    detail::BoxIndex objects;               // of the live map: around area and position

    // The ways of movers on the present map, made when somebody asks: any number may ask at once. They follow edits
    // when somebody asks again.
    struct AskedWays {
        std::unique_ptr<travel::Ways> ways;
        std::vector<Bounds> changed{};   // since then
    };
    std::mutex ways_asked;
    std::map<MoverId, AskedWays> ways;
    void forget_ways() {
        const std::lock_guard lock(ways_asked);
        ways.clear();
    }
    void change_ways(LayerId layer, DataCell cell, const Placed& before, const Placed& after) {
        const std::lock_guard lock(ways_asked);
        if (ways.empty()) return;
        const Bounds changed = travel::changed_box(world, map(), layer, cell, before, after);
        for (auto& [mover, asked] : ways) asked.changed.push_back(changed);
    }

    [[nodiscard]] const Map& map() const { return *now; }
    [[nodiscard]] MergeOptions merge_options() const {
        MergeOptions merging;
        merging.forms.set(MergeForm::pieces, options.pieces);
        merging.facts = done.facts;
        return merging;
    }
    // Merges the present map: that of the world with the changes of its cells.
    void load(MapId id);
    void renew_solids() {
        forget_ways();
        solids = std::make_unique<play::Solids>(world, map(), done.facts);
    }
    void renew_solids_of(LayerId layer, DataCell cell, const Placed& before,
                         const Placed& after) {   // the tile of a cell
        change_ways(layer, cell, before, after);
        solids->renew(layer, cell.column, cell.row);
    }
    // Returns the chunks whose ground changes with the facts.
    std::vector<std::size_t> follow_facts();
    void note(const Edit& edit);
    [[nodiscard]] bool has_fired(const Edit& edit) const;
    EditResult set_fired(const Edit& edit);
    EditResult set_removed(ObjectId object, bool removed);
    // Makes exactly these changes hold, on a map.
    void turn_to(Done wanted, MapId id);
};

namespace play {

// Returns from which side a one-way line stops, as a direction of length 1; (0, 0) for other lines.
[[nodiscard]] Vec stopped_side(const Piece& piece);
// Returns which side of a cell something is on, seen from a direction: as in Sides.
[[nodiscard]] int side_of(const Map& map, Vec out);

// Throws std::out_of_range for an id that the world does not have.
[[nodiscard]] const Mover& mover_of(const World& world, MoverId mover);

// Adds what a contact is with, unsorted.
void add_touched(const World& world, const Map& map, const Solids& solids, const Contact& contact, Touches& into);

}   // namespace play

}   // namespace dryground
