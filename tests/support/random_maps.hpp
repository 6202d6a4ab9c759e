// Random maps, with most keys that layers and objects have.
#pragma once

#include <fmt/format.h>

#include <map>

#include "random_tiles.hpp"

namespace random_worlds {

class Maps : public Tiles {
protected:
    using Tiles::Tiles;
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
        if (dice_.once_in(4)) {
            GrowthDraft& grow = layer.grow.emplace();
            grow.px = dice_.in(1, 20) / 8.0;
            grow.corners = one({"round", "box"});
            if (dice_.once_in(2)) grow.within_px = Located<double>(dice_.in(1, 20) / 16.0);
        }
        if (dice_.once_in(4))
            layer.fill_holes = Located<Value>(dice_.once_in(2) ? Value{true} : Value{std::int64_t{dice_.in(1, 300)}});
        if (dice_.once_in(4)) layer.flags = some({"walk"});
        if (dice_.once_in(4)) layer.trigger = Name("fog");
        if (layer.trigger && !layer.holds_objects && dice_.once_in(2)) {
            layer.fires = one({"enter", "inside", "leave", "use"});
            layer.once = dice_.once_in(2);
            layer.every_s = dice_.in(0, 3) / 2.0;
            layer.gives = some({"wet", "open"}), layer.needs = some({"open"}), layer.by = some({"crab", "warden"});
            layer.runs = maybe(Name("ring"));
        }
        if (dice_.once_in(4)) layer.within_px = Located<double>(dice_.in(1, 80) / 16.0);
        if (dice_.once_in(4)) layer.order = dice_.in(-2, 2);
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

    bool has_loft_ = false;
};

}   // namespace random_worlds
