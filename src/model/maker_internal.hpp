// Inside the model room: turns drafts into a world, or into findings. One class, implemented in several files:
// maker.cpp (names, findings, order of work), make_vocabulary.cpp, make_values.cpp, make_shapes.cpp, make_tiles.cpp,
// make_maps.cpp, make_objects.cpp.
#pragma once

#include <span>
#include <string>
#include <unordered_map>
#include <vector>

#include "dryground/builder.hpp"
#include "words_internal.hpp"

namespace dryground {

// The names of one kind of thing, in order of declaration.
struct NameIndex {
    std::string sort;   // "barrier", "tile": as used in messages
    std::vector<std::string> names;
    std::vector<Place> places;
    std::unordered_map<std::string, int> ids;

    [[nodiscard]] int find(const std::string& name) const {
        const auto found = ids.find(name);
        return found == ids.end() ? -1 : found->second;
    }
};

// The same where separate ids refer to the things.
template <IsId Id>
struct IdIndex : NameIndex {
    [[nodiscard]] Id find(const std::string& name) const { return static_cast<Id>(NameIndex::find(name)); }
};

class WorldMaker {
public:
    WorldMaker(const WorldDraft& world, std::span<const TileSetDraft> tilesets, std::span<const MapDraft> maps,
               const WorldBuilder::Look& look, Report notes);
    [[nodiscard]] Result<World> make();

private:
    // -- findings and names (maker.cpp)
    class Within {   // what is being made, for findings
    public:
        Within(WorldMaker& maker, std::string thing) : maker_(maker) { maker_.things_.push_back(std::move(thing)); }
        ~Within() { maker_.things_.pop_back(); }
        Within(const Within&) = delete;
        Within& operator=(const Within&) = delete;

    private:
        WorldMaker& maker_;
    };
    void add(Rule rule, const Place& place, std::vector<std::string> arguments, std::optional<Hint> hint = {},
             std::vector<Related> related = {});
    void add_unknown(const NameIndex& index, const Name& name);
    bool declare(NameIndex& index, const Name& name);                       // false and a finding if it is not valid
    int look_up(const NameIndex& index, const Name& name);                  // -1 and a finding if it is unknown
    std::vector<int> look_up(const NameIndex& index, const Names& names);   // existing ones
    template <IsId Id>
    Id look_up(const IdIndex<Id>& index, const Name& name) {
        return static_cast<Id>(look_up(static_cast<const NameIndex&>(index), name));
    }
    template <IsId Id>
    std::vector<Id> look_up(const IdIndex<Id>& index, const Names& names) {
        std::vector<Id> ids;
        for (const int id : look_up(static_cast<const NameIndex&>(index), names)) ids.push_back(static_cast<Id>(id));
        return ids;
    }
    FlagSet flag_set(const Names& names);
    template <class Choice>
    Choice choose(const Located<std::string>& said, const std::string& what);

    // What the objects of a kind do unless they declare something themselves; by kind.
    struct Behaviour {
        std::optional<BarrierId> barrier;
        std::optional<EventId> runs, arrival_runs;
        std::optional<Surface> surface;
        std::optional<Fires> fires;
        std::optional<std::vector<MoverId>> by;
        std::optional<std::vector<FactId>> gives, needs, when, unless;
        std::optional<bool> once;
        std::optional<double> every_s;
    };
    // -- the world's vocabulary (make_vocabulary.cpp)
    void make_vocabulary();
    void make_storeys();
    void make_movers();
    Mover make_mover(const MoverDraft& draft);
    Regions make_body(const BodyDraft& body);
    void make_kinds();
    void resolve_kind(std::size_t draft);
    void make_behaviour(const KindDraft& draft, Behaviour& into);
    void check_path(const Name& path, const Kind& kind);
    void give_defaults(const KindDraft& draft, Fields& fields);
    void add_standard_kinds();
    void make_severities();
    void make_waivers(const Waivers& drafts, const std::string& about, const std::string& layer = {},
                      const std::string& object = {});
    void make_limits();

    // -- fields and properties (make_values.cpp)
    Fields make_fields(const std::vector<FieldDraft>& drafts);
    Properties make_properties(const Fields& fields, const SaidProperties& said, const std::string& owner,
                               const Place& place);
    std::optional<Value> fit(const Field& field, FieldType type, const Located<Value>& said, std::string& why);
    std::string misfit_name(FieldType type, const std::string& text, const Place& place);
    void check_references();

    // -- shapes (make_shapes.cpp)
    struct Drawn {   // a form as an area, or why there is no area
        Regions area;
        Ring line;   // of an open line, in place of an area
        ShapeFault fault = ShapeFault::none;
        Point fault_at;
        std::string fault_words, words;
    };
    Drawn draw(const Form& form, std::int32_t cell_width, std::int32_t cell_height, const Place& place);
    Drawn draw_polygon(const PolygonPx& polygon, const Place& place);
    Drawn draw_box(const BoxPx& box, const Place& place);
    Drawn draw_ellipse(const EllipsePx& round, const Place& place);
    Drawn draw_capsule(const CapsuleBetween& capsule, const Place& place);
    Drawn draw_line(const LinePx& line, const Place& place);
    // While it lives, curves use what is set here, else what held before: the layer's or the world's setting.
    class Curves {
    public:
        Curves(WorldMaker& maker, const std::optional<Located<double>>& set);
        ~Curves() { maker_.within_px_ = before_; }
        Curves(const Curves&) = delete;
        Curves& operator=(const Curves&) = delete;

    private:
        WorldMaker& maker_;
        std::optional<double> before_;
    };
    [[nodiscard]] double within_px() const { return within_px_.value_or(parts_.merging.within_px); }
    OneWay make_one_way(const std::optional<Located<std::string>>& said);
    bool numbers_fit(std::initializer_list<double> numbers, const std::string& what, const Place& place);

    // -- tile sets (make_tiles.cpp)
    void make_tileset(const TileSetDraft& draft);
    void check_sheet(const Sheet& sheet);
    TileDraft settled(const TileSetDraft& set, const TileDraft& own, const NameIndex& index);
    Tile make_tile(const TileSetDraft& set, const TileDraft& draft, const NameIndex& tiles, const Fields& fields);
    Shape make_shape(const TileSetDraft& set, const TileDraft& tile, const ShapeDraft& draft, BarrierId tile_barrier);
    Drawn trace(const TileSetDraft& set, const TileDraft& tile, const Traced& traced, const Place& place);
    Fires make_fires(const Located<std::string>& said);
    Reaction make_reaction(const ReactionDraft& draft, const NameIndex& tiles, const std::string& tile);
    void make_next(const Names& row, const Place& place, const NameIndex& tiles, const std::string& tile,
                   Reaction& reaction);
    int side_of(const Name& side, const char* where);   // -1 and a finding if it is unknown
    // -- families and blocks (make_patterns.cpp)
    // Bits of where neighbours are of the family too: top, right, bottom, left, top_left, top_right, bottom_right,
    // bottom_left.
    struct Family {
        std::string name;
        Joins joins = Joins::sides;
        struct Member {
            int tile = -1;
            unsigned joined = 0, any = 0;   // where neighbours must be, and where they may be
        };
        std::vector<Member> members;
    };
    struct Block {
        std::string name;
        struct Part {
            int column = 0, row = 0;   // from the anchor
            Placed placed;
        };
        std::vector<Part> parts;
    };
    static const std::array<const char*, 8> neighbour_names;
    void make_patterns(const TileSetDraft& draft);
    Family make_family(const FamilyDraft& draft, const NameIndex& tiles);
    Block make_block(const BlockDraft& draft, int set);
    void check_patterns(const TileSetDraft& set, const NameIndex& index);

    // -- maps (make_maps.cpp)
    struct Legend;
    void make_map(const MapDraft& draft);
    Layer make_layer(const LayerDraft& draft, Map& map, LayerId layer_id, Legend& map_legend);
    void make_layer_reaction(const LayerDraft& draft, const Map& map, Layer& layer);
    void set_offsets(const LayerDraft& draft, Layer& layer);
    [[nodiscard]] Growth make_growth(const GrowthDraft& draft);
    [[nodiscard]] double make_fill(const Located<Value>& said, const Map& map);

    // -- whether a map keeps to the range of coordinates (map_range.cpp)
    bool fits(const MapDraft& draft);                                 // its cells; before it is made
    void keep_in_range(const Map& map, const Place& place_of_size);   // what its tiles reach to
    void keep_in_range(const Map& map, const Object& object, const Place& place);

    // -- what stands in cells (make_legend.cpp, make_cells.cpp)
    class CellFiller;
    void read_legend(const std::vector<LegendEntry>& entries, const Map& map, bool only_characters, Legend& legend);
    Placed find_tile(const Name& name, const Map& map);
    // Returns a tile, family or block by name: its tile set and number there; -1 and a finding if it is unknown.
    std::array<int, 2> find_in_sets(const std::vector<NameIndex>& by_set, const char* sort, const Name& name,
                                    const Map& map);
    std::optional<Hint> hint_of_other_set(const std::vector<NameIndex>& by_set, const std::string& bare,
                                          const Map& map) const;
    void check_turn(const Name& tile, const Orientation& orientation, const Map& map);
    bool are_weights(const Located<std::vector<double>>& weights, std::size_t kinds);
    void fill_cells(const LayerDraft& draft, Layer& layer, Map& map, LayerId layer_id, Legend& own, Legend& shared);
    void report_unused(const Legend& legend);

    // -- objects (make_objects.cpp)
    void make_object(const ObjectDraft& draft, const LayerDraft& layer_draft, const Layer& layer, Map& map,
                     LayerId layer_id);
    void place_object(const ObjectDraft& draft, const Kind& kind, const Map& map, Point offset, Object& object);
    void set_box(const ObjectDraft& draft, const std::optional<Bounds>& box, Object& object) const;
    void turn_object(double degrees, const Place& place, Object& object);
    void make_hollow(const ObjectDraft& draft, Object& object);
    void make_carves(const ObjectDraft& draft, Object& object);
    void make_link(const ObjectDraft& draft, Object& object);
    void make_behaviour(const ObjectDraft& draft, const Layer& layer, const Map& map, Object& object);
    void resolve_links();
    void resolve_start();
    void resolve_goals();

    World::Parts parts_;
    const WorldDraft& world_;
    std::span<const TileSetDraft> tileset_drafts_;
    std::span<const MapDraft> map_drafts_;
    const WorldBuilder::Look& look_;
    Report report_;
    std::vector<std::string> things_;
    std::optional<double> within_px_;                   // for curves, where a shape or layer has one of its own
    std::string map_name_, layer_name_, object_name_;   // of what is being made

    IdIndex<BarrierId> barriers_{{"barrier", {}, {}, {}}};
    IdIndex<StoreyId> storeys_{{"storey", {}, {}, {}}};
    IdIndex<MoverId> movers_{{"mover", {}, {}, {}}};
    IdIndex<FactId> facts_{{"fact", {}, {}, {}}};
    IdIndex<EventId> events_{{"event", {}, {}, {}}};
    IdIndex<KindId> kinds_{{"kind", {}, {}, {}}};
    NameIndex flags_{"flag", {}, {}, {}}, objects_{"object", {}, {}, {}};
    IdIndex<TileSetId> tilesets_{{"tile set", {}, {}, {}}};
    IdIndex<MapId> maps_{{"map", {}, {}, {}}};
    // objects_: of the map that is being made
    std::vector<NameIndex> tiles_, families_, blocks_;   // by tile set
    std::vector<std::vector<Family>> family_list_;
    std::vector<std::vector<Block>> block_list_;
    std::vector<int> kind_states_;   // by draft: 0 not yet, 1 under way, 2 done
    std::vector<Behaviour> behaviours_;
    struct Reference {   // a property that names something made later
        FieldType type;
        std::string name, owner, property;
        Place place;
        std::string map;
    };
    std::vector<Reference> references_;
};

}   // namespace dryground
