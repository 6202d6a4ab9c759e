// Worlds: plain values that are always valid. Nothing here can be changed from outside; worlds come from `WorldBuilder`
// (builder.hpp) or `load_world` (files.hpp), which return findings instead if something is wrong.
//
// References between things are ids (ids.hpp): positions in the lists of the world; files and messages use names.
// Geometry is in lattice steps (geometry.hpp): of tiles from the top-left corner of their cell, of maps from the
// top-left corner of cell (0, 0). Threads: a World is immutable and may be read from any number of threads.
#pragma once

#include <array>
#include <cstdint>
#include <map>
#include <memory>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "dryground/map.hpp"
#include "dryground/result.hpp"

namespace dryground {

// The forms of merged ground.
enum class MergeForm { regions, lines, chains, pieces, boxes, triangles };
class MergeForms {
public:
    constexpr MergeForms() = default;
    constexpr MergeForms(std::initializer_list<MergeForm> forms) {
        for (const MergeForm form : forms) set(form);
    }
    [[nodiscard]] constexpr bool has(MergeForm form) const { return (bits_ >> static_cast<unsigned>(form) & 1u) != 0; }
    constexpr void set(MergeForm form, bool on = true) {
        const unsigned bit = 1u << static_cast<unsigned>(form);
        bits_ = on ? bits_ | bit : bits_ & ~bit;
    }
    friend constexpr bool operator==(const MergeForms&, const MergeForms&) = default;

private:
    unsigned bits_ = 0;
};

struct MergeSettings {
    double within_px = 0.25;
    int most_vertices = 8;
    int chunk_cells = 32;
    double least_edge_px = 0;
    MergeForms forms{MergeForm::chains, MergeForm::pieces};
};

struct Start {
    std::string words;   // as written: map/object; empty if the world declares none
    MapId map = MapId::none;
    ObjectId object = ObjectId::none;
    Place place;
};

// A goal of the game, which must be reachable: an object, or a fact.
struct Goal {
    std::string words;   // as written: map/object, or the fact's name
    MapId map = MapId::none;
    ObjectId object = ObjectId::none;
    FactId fact = FactId::none;
    Place place;
};

// Silences the findings of a rule for the thing it is written on, or within a block of a map's cells.
struct Waiver {
    Rule rule = Rule::syntax;
    std::string why;
    std::string about;                // as Finding::about; empty: the whole world
    std::string map, layer, object;   // or of these
    std::optional<CellArea> cells;
    Place place;
};

// ---- the world -----------------------------------------------------------------------------------------------------

// Copies share their content, so it is cheap to pass by value.
class World {
public:
    [[nodiscard]] const std::string& title() const { return parts_->title; }
    [[nodiscard]] double per_metre() const { return parts_->per_metre; }
    [[nodiscard]] MoverId player() const { return parts_->player; }   // none if the world declares none
    [[nodiscard]] const Start& start() const { return parts_->start; }
    [[nodiscard]] const std::vector<Barrier>& barriers() const { return parts_->barriers; }
    [[nodiscard]] const std::vector<NamedThing>& flags() const { return parts_->flags; }
    [[nodiscard]] const std::vector<Storey>& storeys() const { return parts_->storeys; }   // "ground" is the first
    [[nodiscard]] const std::vector<Mover>& movers() const { return parts_->movers; }
    [[nodiscard]] const std::vector<NamedThing>& facts() const { return parts_->facts; }
    [[nodiscard]] const std::vector<NamedThing>& events() const { return parts_->events; }
    [[nodiscard]] const std::vector<Kind>& kinds() const { return parts_->kinds; }
    [[nodiscard]] const std::vector<TileSet>& tilesets() const { return parts_->tilesets; }
    [[nodiscard]] const std::vector<Map>& maps() const { return parts_->maps; }
    [[nodiscard]] const MergeSettings& merging() const { return parts_->merging; }
    // What every map and layer may carry.
    [[nodiscard]] const Fields& map_fields() const { return parts_->map_fields; }
    [[nodiscard]] const Fields& layer_fields() const { return parts_->layer_fields; }
    // What the target game can take at most, by the names of [limits]: those that the world says.
    [[nodiscard]] const std::map<std::string, std::int64_t>& limits() const { return parts_->limits; }
    // Where one of them is set; the world's place where it is not.
    [[nodiscard]] Place place_of_limit(const std::string& limit) const {
        const auto found = parts_->places_of_limits.find(limit);
        return found == parts_->places_of_limits.end() ? parts_->place : found->second;
    }
    [[nodiscard]] const std::vector<Waiver>& waivers() const { return parts_->waivers; }
    [[nodiscard]] const std::vector<Goal>& goals() const { return parts_->goals; }   // objects, then facts
    [[nodiscard]] Severity severity(Rule rule) const;   // as the world's [check] says, else the rule's own

    // What an id is of: requires one of this world, not none.
    [[nodiscard]] const Barrier& barrier(BarrierId id) const { return parts_->barriers[index(id)]; }
    [[nodiscard]] const Storey& storey(StoreyId id) const { return parts_->storeys[index(id)]; }
    [[nodiscard]] const Mover& mover(MoverId id) const { return parts_->movers[index(id)]; }
    [[nodiscard]] const NamedThing& fact(FactId id) const { return parts_->facts[index(id)]; }
    [[nodiscard]] const NamedThing& event(EventId id) const { return parts_->events[index(id)]; }
    [[nodiscard]] const Kind& kind(KindId id) const { return parts_->kinds[index(id)]; }
    [[nodiscard]] const TileSet& tileset(TileSetId id) const { return parts_->tilesets[index(id)]; }
    [[nodiscard]] const Map& map(MapId id) const { return parts_->maps[index(id)]; }

    // Look up ids by name; none if not found. O(things).
    [[nodiscard]] MoverId find_mover(std::string_view name) const;
    [[nodiscard]] BarrierId find_barrier(std::string_view name) const;
    [[nodiscard]] FactId find_fact(std::string_view name) const;
    [[nodiscard]] EventId find_event(std::string_view name) const;
    [[nodiscard]] KindId find_kind(std::string_view name) const;
    [[nodiscard]] StoreyId find_storey(std::string_view name) const;
    [[nodiscard]] MapId find_map(std::string_view name) const;
    [[nodiscard]] TileSetId find_tileset(std::string_view name) const;

    // Returns the map of a name. Throws std::out_of_range, naming the nearest, if it does not exist.
    [[nodiscard]] const Map& map(std::string_view name) const;

    // Returns the tile on a cell. Requires placed.tile >= 0.
    [[nodiscard]] const Tile& tile(const Placed& placed) const {
        return parts_->tilesets[static_cast<std::size_t>(placed.tileset)].tiles[static_cast<std::size_t>(placed.tile)];
    }
    [[nodiscard]] Place world_place() const { return parts_->place; }

private:
    friend class WorldBuilder;
    friend class WorldMaker;
    struct Parts {
        std::string title;
        double per_metre = 16;
        MoverId player = MoverId::none;
        Start start;
        std::vector<Goal> goals;
        std::vector<Barrier> barriers;
        std::vector<NamedThing> flags, facts, events;
        std::vector<Storey> storeys;
        std::vector<Mover> movers;
        std::vector<Kind> kinds;
        Fields map_fields, layer_fields;
        std::vector<TileSet> tilesets;
        std::vector<Map> maps;
        MergeSettings merging;
        std::vector<Waiver> waivers;
        std::map<std::string, std::int64_t> limits;
        std::map<std::string, Place> places_of_limits;
        std::map<Rule, Severity> severities;
        Place place;
    };
    std::shared_ptr<const Parts> parts_;
};

// Returns the mover whose body an object has: that of its kind; for spawns whose kind has the world's player, the
// player of the map. MoverId::none: it has no body.
[[nodiscard]] MoverId body_of(const World& world, const Map& map, const Object& object);

// The names of forms in files and on the command line: regions, lines, chains and so on, in the order of MergeForm.
[[nodiscard]] std::span<const std::string_view> form_names();
[[nodiscard]] std::vector<std::string> names_of(MergeForms forms);
[[nodiscard]] MergeForms forms_named(std::span<const std::string> names);               // unknown ones are ignored
[[nodiscard]] std::span<const std::string_view> limit_names();                          // the keys of [limits]
[[nodiscard]] std::vector<std::string> flag_names(const World& world, FlagSet flags);   // in the world's order
[[nodiscard]] std::string_view name_of(OneWay one_way);                                 // "" for none
[[nodiscard]] std::string_view name_of(Role role);
[[nodiscard]] std::string_view name_of(FieldType type);
[[nodiscard]] std::string_view name_of(Fires fires);
[[nodiscard]] std::string_view name_of(Passage passage);
[[nodiscard]] std::string text(const Value& value);   // as written in a file

}   // namespace dryground
