// Worlds said in code, at random, in most of the words that files have. They build; what they make is no place to play.
#pragma once

#include <fmt/format.h>

#include <map>

#include "chance.hpp"
#include "dryground/builder.hpp"

namespace random_worlds {

using namespace dryground;

class Maker {
public:
    Maker(std::uint64_t round, bool with_areas) : dice_(round), with_areas_(with_areas) {}

    WorldBuilder operator()() {
        WorldBuilder builder;
        builder.world(world());
        builder.tileset(tileset("marsh"));
        if (dice_.once_in(2)) builder.tileset(tileset("shore"));
        builder.map(map("flat", {"marsh"}, "slope"));
        builder.map(map("slope", {"marsh"}, "flat"));
        return builder;
    }

private:
    double px() { return dice_.in(-640, 1280) / (dice_.once_in(2) ? 16.0 : 64.0); }
    double size() { return dice_.in(64, 512) / (dice_.once_in(2) ? 16.0 : 64.0); }
    std::string word() {   // of any text: letters, quotes, line breaks, signs from elsewhere
        static const std::array<const char*, 9> parts{"tide", " ", "\"", "\\", "\n", "'", "é", "#", "潮"};
        std::string text;
        for (int i = dice_.in(0, 4); i > 0; --i) text += parts[static_cast<std::size_t>(dice_.in(0, 8))];
        return text;
    }
    Names some(std::initializer_list<const char*> of) {
        Names names;
        for (const char* name : of)
            if (dice_.once_in(2)) names.emplace_back(name);
        return names;
    }
    Name one(std::initializer_list<const char*> of) {
        return Name(of.begin()[dice_.in(0, static_cast<int>(of.size()) - 1)]);
    }
    template <class T>
    std::optional<T> maybe(T value) {
        return dice_.once_in(2) ? std::optional<T>(std::move(value)) : std::nullopt;
    }
    std::optional<Surface> surface() {
        if (dice_.once_in(2)) return std::nullopt;
        return Surface{maybe(dice_.in(0, 20) / 10.0), maybe(dice_.in(0, 10) / 10.0)};
    }
    Orientation orientation() {
        return {dice_.once_in(2), dice_.once_in(2), static_cast<std::int16_t>(90 * dice_.in(0, 3))};
    }

    WorldDraft world() {
        WorldDraft draft;
        draft.title = word();
        draft.per_metre = dice_.in(1, 640) / 10.0;
        draft.player = maybe(Name("warden"));
        draft.start = maybe(Name("flat/a"));
        if (dice_.once_in(2)) draft.goal_facts = some({"open", "wet"});
        draft.barriers = {{"earth", word(), maybe(Colour{1, 2, static_cast<std::uint8_t>(dice_.in(0, 255))})},
                          {"brine", "", {}}};
        draft.flags = {{"walk", word()}, {"climb", ""}};
        draft.facts = {{"open", word()}, {"wet", ""}};
        draft.events = {{"ring", ""}};
        has_loft_ = dice_.once_in(2);
        if (has_loft_) draft.storeys = {{"ground", 0, 24}, {"loft", 24, 32.5}};
        draft.movers = {mover("warden"), mover("crab")};
        draft.map_fields = {field("tune", "text", Value{word()})};
        draft.layer_fields = {field("deep", "yes_no", Value{dice_.once_in(2)})};
        KindDraft crab;
        crab.name = "silt_crab";
        crab.role = Located<std::string>("entity");
        crab.mover = maybe(Name("crab"));
        crab.tags = maybe(std::vector<std::string>{"foe"});
        crab.stands = maybe(Located<std::string>("feet"));
        if (dice_.once_in(2)) crab.area = shape(true);
        crab.fields = {field("patrol", "number", Value{2.0}), field("mood", "choice", Value{std::string("calm")}),
                       field("spot", "place", Value{Value::List{{1.5}, {std::int64_t{2}}}})};
        KindDraft hermit;
        hermit.name = "hermit";
        hermit.like = Name("silt_crab");
        hermit.props["patrol"] = Located<Value>(Value{dice_.in(0, 9) / 2.0});
        hermit.runs = maybe(Name("ring"));
        hermit.once = maybe(true);
        hermit.every_s = maybe(1.5);
        hermit.fires = maybe(one({"enter", "inside", "use"}));
        if (dice_.once_in(2))
            hermit.gives = some({"open", "wet"}), hermit.unless = some({"wet"}), hermit.by = some({"crab"});
        KindDraft groyne;
        groyne.name = "groyne";
        groyne.role = Located<std::string>("solid");
        groyne.barrier = one({"earth", "brine"});
        groyne.surface = surface();
        groyne.when = some({"open"});
        draft.kinds = {crab, hermit, groyne};
        draft.merging.most_vertices = dice_.in(3, 12);
        draft.merging.chunk_cells = dice_.in(1, 40);
        if (dice_.once_in(2)) draft.limits = {{Name("maps"), std::int64_t{64}}};
        if (dice_.once_in(2)) draft.severities = {{Name("link-without-return"), Located<std::string>("off")}};
        return draft;
    }
    FieldDraft field(const char* name, const char* type, Value standard) {
        FieldDraft field;
        field.name = Name(name);
        field.type = Located<std::string>(type);
        field.standard = Located<Value>(std::move(standard));
        if (type == std::string("choice")) field.of = {Name("calm"), Name("cross")};
        if (type == std::string("number")) field.least = maybe(-1.5);
        field.note = word();
        return field;
    }
    MoverDraft mover(const char* name) {
        MoverDraft mover;
        mover.name = Name(name);
        mover.body = body();
        mover.stopped_by = some({"earth", "brine"});
        mover.meets = some({"warden", "crab"});
        mover.needs = some({"walk", "climb"});
        mover.climbs = some({"walk", "climb"});
        mover.moves = one({"free", "steps", "side"});
        mover.jump_px = maybe(size());
        mover.leap_px = maybe(size());
        mover.drop_px = maybe(4 * size());
        mover.kerb_px = maybe(2.5);
        mover.slope_degrees = maybe(45.5);
        if (dice_.once_in(2)) mover.feelers.push_back({Name("ahead"), body(), some({"brine"})});
        return mover;
    }
    BodyDraft body() {
        BodyDraft body;
        const double wide = size(), high = size();
        switch (dice_.in(0, 2)) {
            case 0:
                body.form = BoxPx{0, 0, wide, high};
                break;
            case 1:
                body.form = EllipsePx{0, 0, wide, wide};
                break;
            default:
                body.form = CapsulePx{wide, high};
                break;
        }
        body.x = px();
        return body;
    }

    // An area, drawn in one of the ways that tiles, kinds and objects share.
    Form area_form() {
        const double x = px(), y = px(), wide = size(), high = size();
        switch (dice_.in(0, 3)) {
            case 0:
                return BoxPx{x, y, wide, high};
            case 1:
                return EllipsePx{x, y, wide, dice_.once_in(2) ? wide : high};
            case 2:
                return CapsuleBetween{x, y, px(), px(), high};
            default:
                return PolygonPx{{{x, y}, {x + wide, y}, {x + wide, y + high}}, {}};
        }
    }
    ShapeDraft shape(bool plain = false) {
        ShapeDraft shape;
        shape.form = area_form();
        if (plain) return shape;
        switch (dice_.in(0, 5)) {
            case 0:
                shape.form = WholeCell{};
                break;
            case 1:
                shape.form = SharedShape{Name("low"), dice_.once_in(2) ? 0 : px(), 0};
                break;
            case 2:
                shape.form = LinePx{{{0, px()}, {16, px()}}};
                shape.one_way = maybe(Located<std::string>("up"));
                break;
            case 3: {
                if (!with_areas_) break;   // in two parts, one with a hole: made in code
                const Region ring{box_region({0, 0}, {512, 512}).outline,
                                  {{{128, 128}, {128, 256}, {256, 256}, {256, 128}}}};
                shape.form = Regions{ring, box_region({640, 0}, {900, 300})};
                break;
            }
            default:
                break;
        }
        if (dice_.once_in(3)) shape.barrier = one({"earth", "brine"});
        if (!shape.barrier && dice_.once_in(4)) shape.trigger = Name("steam");
        shape.surface = surface();
        if (dice_.once_in(3)) shape.orientation = orientation();
        return shape;
    }
    TileDraft tile(const std::string& name) {
        TileDraft tile;
        tile.name = Name(name);
        tile.unseen = true;
        tile.overhang = true;
        tile.barrier = one({"earth", "brine"});
        tile.tags = maybe(std::vector<std::string>{"soil", word()});
        if (!dice_.once_in(5)) tile.shapes.emplace();
        for (int i = dice_.in(0, 2); tile.shapes && i > 0; --i) tile.shapes->push_back(shape());
        if (dice_.once_in(3)) {
            CarveDraft carve{one({"earth", "brine"}), {}};
            if (dice_.once_in(2)) carve.shape.form = area_form();
            tile.carves = {carve};
        }
        if (dice_.once_in(2)) tile.flags = some({"walk", "climb"});
        if (dice_.once_in(3))
            tile.sides = {{"top", Located<std::string>("shut")}, {"left", Located<std::string>("in")}};
        if (dice_.once_in(3)) tile.needs = some({"open"});
        if (dice_.once_in(4)) {
            ReactionDraft reaction;
            reaction.fires = Located<std::string>("bump");
            if (dice_.once_in(2)) reaction.from = some({"top", "bottom"});
            if (reaction.from && reaction.from->empty()) reaction.from = Names{Name("left")};
            reaction.once = dice_.once_in(2);
            reaction.gives = some({"wet"});
            reaction.runs = maybe(Name("ring"));
            if (dice_.once_in(2)) reaction.turns_into = one({"peat", ""});
            tile.reacts = {reaction};
        }
        if (dice_.once_in(2)) tile.props["harm"] = Located<Value>(Value{std::int64_t{dice_.in(0, 9)}});
        return tile;
    }
    TileSetDraft tileset(const char* name) {
        TileSetDraft set;
        set.name = Name(name);
        set.fields = {field("harm", "whole", Value{std::int64_t{1}})};
        ShapeDraft low = shape(true);
        set.shapes = {{Name("low"), low}};
        for (const char* tile_name : {"peat", "bank", "reeds"}) set.tiles.push_back(tile(tile_name));
        TileDraft copy;
        copy.name = Name("kerb");
        copy.unseen = true;
        copy.like = Name("peat");
        set.tiles.push_back(copy);
        if (dice_.once_in(2)) {
            TileRule rule;
            rule.tiles = {"*e*"};
            rule.set.flags = some({"walk"});
            set.rules.push_back(rule);
        }
        set.families = {
            {Name("dyke"), Located<std::string>("sides"), {{Name("peat"), {}}, {Name("bank"), {Name("left")}}}}};
        BlockDraft block;
        block.name = Name("post");
        block.rows = {"B", "A"};
        block.legend = {entry("A", "peat"), entry("B", "bank")};
        block.anchor = Located<std::string>("A");
        set.blocks = {block};
        return set;
    }

    static LegendEntry entry(const char* key, const char* tile) {
        LegendEntry entry;
        entry.key = Located<std::string>(key);
        entry.tile = Name(tile);
        return entry;
    }
    std::vector<LegendEntry> legend(bool colours) {
        std::vector<LegendEntry> all;
        const std::array<const char*, 4> keys =
            colours ? std::array{"#6e8e46", "#000000", "#ff00ff", "#12345680"} : std::array{"#", "'", "\\", "é"};
        all.push_back(entry(keys[0], "marsh/peat"));
        all.push_back(entry(keys[1], "marsh/bank"));
        all.back().orientation = orientation();
        all.push_back({});
        all.back().key = Located<std::string>(keys[2]);
        all.back().kinds = {Name("silt_crab"), Name("hermit")};
        all.back().weights = maybe(Located<std::vector<double>>({3, 0.5}));
        all.push_back({});
        all.back().key = Located<std::string>(keys[3]);
        all.back().family = Name("marsh/dyke");
        return all;
    }
    LayerDraft cell_layer(const char* name, int columns, int rows) {
        LayerDraft layer;
        layer.name = Name(name);
        settings(layer);
        const int sort = dice_.in(0, 2);
        layer.legend = legend(sort == 2);
        std::vector<std::string> keys;
        for (const LegendEntry& one : layer.legend) keys.push_back(one.key.value);
        keys.emplace_back(sort == 0 ? "." : sort == 1 ? "" : "#00000000");
        CellTable table;
        table.sort = sort == 1 ? CellTable::Sort::csv : CellTable::Sort::png;
        std::map<std::size_t, std::uint32_t> numbers;   // by their first appearance
        for (int r = 0; r < rows; ++r) {
            std::string row;
            for (int c = 0; c < columns; ++c) {
                const auto key = static_cast<std::size_t>(dice_.in(0, 4));
                const auto [number, is_new] = numbers.emplace(key, static_cast<std::uint32_t>(numbers.size()));
                if (is_new) table.keys.push_back(keys[key]);
                table.numbers.push_back(number->second);
                row += keys[key];
            }
            layer.rows.emplace_back(row);
            table.row_ends.push_back(table.numbers.size());
        }
        table.rows.resize(table.row_ends.size());
        if (sort != 0) layer.rows.clear(), layer.cells = table;
        return layer;
    }
    void settings(LayerDraft& layer) {
        layer.decor = dice_.once_in(4);
        layer.shown = !dice_.once_in(4);
        if (dice_.once_in(3)) layer.barrier = Name("earth");
        if (dice_.once_in(4)) layer.offset = {px(), px()};
        if (dice_.once_in(4)) layer.shape_offset = {0, px()};
        if (dice_.once_in(4)) layer.sink = {1, 2.5, 0, 0.25};
        if (dice_.once_in(4)) layer.flags = some({"walk"});
        if (dice_.once_in(4)) layer.trigger = Name("fog");
        if (dice_.once_in(3)) layer.one_way = one({"up", "down", "left", "right"});
        if (has_loft_ && dice_.once_in(2)) layer.storey = Name("loft");
        layer.surface = surface();
        layer.band = one({"behind", "with", "front"});
        layer.opacity = dice_.in(0, 4) / 4.0;
        layer.when = some({"open"});
        layer.unless = some({"wet"});
        if (dice_.once_in(3)) layer.tags = {word()};
        if (dice_.once_in(3)) layer.props["deep"] = Located<Value>(Value{true});
    }
    ObjectDraft object(const std::string& name, const char* other_map) {
        ObjectDraft object;
        object.name = Name(name);
        object.kind = one({"silt_crab", "hermit", "trigger", "solid", "groyne", "link", "spawn"});
        switch (dice_.in(0, 4)) {
            case 0:
                object.form = PointPx{px(), px()};
                break;
            case 1:
                object.form = AtCells{dice_.in(0, 3), dice_.in(0, 3), 1, 1, false};
                break;
            case 2:
                object.form = AtCells{0, 1, dice_.in(1, 3), dice_.in(1, 2), true};
                break;
            case 3:
                object.form = PolygonPx{{{0, 0}, {64, 0}, {64, 64}, {0, 64}}, {{{8, 8}, {40, 8}, {8, 40}}}};
                break;
            default:
                std::visit(
                    [&](const auto& form) {
                        if constexpr (std::is_constructible_v<decltype(object.form), decltype(form)>)
                            object.form = form;
                    },
                    area_form());
        }
        if (dice_.once_in(3)) object.turn = dice_.in(0, 359);
        const bool is_solid = object.kind.value == "solid" || object.kind.value == "groyne";
        object.hollow = is_solid && object.form.index() > 2 && dice_.once_in(4);
        object.tags = {word()};
        if (is_solid) {
            if (object.kind.value == "solid" || dice_.once_in(2)) object.barrier = one({"earth", "brine"});
            object.surface = surface();
            if (!object.hollow && dice_.once_in(4)) object.form = LinePx{{{px(), px()}, {px(), px()}, {px(), px()}}};
        }
        if (has_loft_ && dice_.once_in(3)) object.storey = Name("loft");
        if (dice_.once_in(3)) object.when = some({"open", "wet"});
        if (dice_.once_in(3)) object.unless = some({"wet"});
        if (object.kind.value == "link") object.to = Name(fmt::format("{}/a", other_map));
        if (object.kind.value == "link") object.arrival_runs = maybe(Name("ring"));
        object.fires = maybe(one({"enter", "inside", "leave", "use", "bump", "defeat"}));
        object.by = maybe(some({"crab"}));
        object.once = maybe(dice_.once_in(2));
        object.every_s = maybe(dice_.in(0, 3) / 2.0);
        object.needs = maybe(some({"open"}));
        object.gives = maybe(some({"wet", "open"}));
        object.runs = maybe(Name("ring"));
        if (object.kind.value == "silt_crab" && dice_.once_in(2))
            object.props["patrol"] = Located<Value>(Value{static_cast<double>(dice_.in(0, 5))});
        if (object.form.index() > 2 && dice_.once_in(4)) {
            ObjectCarve carve{Name("brine"), {}};
            const bool is_line = std::holds_alternative<LinePx>(object.form);   // which has no area of its own
            if (is_line || dice_.once_in(2)) carve.shape = shape(true);
            object.carves = {carve};
        }
        return object;
    }
    MapDraft map(const char* name, std::initializer_list<const char*> sets, const char* other_map) {
        MapDraft map;
        map.name = Name(name);
        map.title = word();
        if (dice_.once_in(3)) map.grid = Located<std::string>("isometric");
        map.size = Located<std::array<int, 2>>({dice_.in(3, 9), dice_.in(3, 7)});
        map.first = {dice_.in(-3, 3), dice_.in(-3, 3)};
        if (dice_.once_in(2)) map.rim = one({"earth", "open"});
        map.player = maybe(Name("warden"));
        for (const char* set : sets) map.tilesets.emplace_back(set);
        map.seed = static_cast<std::uint64_t>(dice_.in(0, 99));
        map.cell_parts = dice_.in(1, 4);
        if (dice_.once_in(2)) map.props["tune"] = Located<Value>(Value{word()});
        map.layers.push_back(cell_layer("ground", map.size.value[0], map.size.value[1]));
        map.layers.push_back(cell_layer("deck", map.size.value[0], map.size.value[1]));
        LayerDraft people;
        people.name = Name("people");
        people.holds_objects = true;
        settings(people);
        for (const char* object_name : {"a", "b", "c"}) people.objects.push_back(object(object_name, other_map));
        map.layers.push_back(people);
        return map;
    }

    chance::Dice dice_;
    bool with_areas_, has_loft_ = false;
};

// `with_areas`: shapes too that are areas made in code, for which files have several words or none.
inline WorldBuilder make(std::uint64_t round, bool with_areas = false) { return Maker(round, with_areas)(); }

}   // namespace random_worlds
