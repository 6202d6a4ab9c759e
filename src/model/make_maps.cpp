// Makes maps and their layers.
//
// A map is made after all tile sets and before the targets of links are looked up; names that layers and objects share
// are indexed once for each map.

#include <fmt/format.h>

#include <algorithm>

#include "choose_internal.hpp"
#include "legend_internal.hpp"

namespace dryground {

namespace {

constexpr double most_offset_px = 65'536, most_growth_px = 1'024, most_filled_px2 = 65'536;

}   // namespace

void WorldMaker::make_map(const MapDraft& draft) {
    const Within within(*this, fmt::format("map '{}'", draft.name.value));
    map_name_ = draft.name.value;
    objects_ = {"object", {}, {}, {}};   // named once in all layers of the map
    if (declare(maps_, draft.name)) {
        Map map;
        map.name = draft.name.value;
        map.title = draft.title;
        map.place = draft.name.place;
        map.player = draft.player ? look_up(movers_, *draft.player) : parts_.player;
        if (draft.rim && draft.rim->value == "open")
            map.rim = RimSort::open;
        else if (draft.rim) {
            map.rim = RimSort::barrier;
            map.rim_barrier = look_up(barriers_, *draft.rim);
        }
        for (const Name& set : draft.tilesets)
            if (const TileSetId id = look_up(tilesets_, set); id != TileSetId::none) map.tilesets.push_back(id);
        map.props = make_properties(parts_.map_fields, draft.props, fmt::format("map '{}'", map.name), map.place);
        if (fits(draft)) {
            map.cell_width = draft.cell.value[0], map.cell_height = draft.cell.value[1];
            map.place_of_cell = draft.cell.place;
            map.columns = draft.size.value[0], map.rows = draft.size.value[1];
            map.first_column = draft.first.column, map.first_row = draft.first.row;
            map.grid = choose<GridSort>(draft.grid, "'grid'");
            map.seed = draft.seed;
            map.cell_parts = draft.cell_parts.value;
            if (map.cell_parts < 1 || map.cell_parts > 256)
                add(Rule::out_of_range, draft.cell_parts.place,
                    {"'cell_parts'", fmt::format("{}", map.cell_parts), "from 1 to 256 parts of a cell"});
            Legend legend;
            const bool only_characters = std::none_of(draft.layers.begin(), draft.layers.end(),
                                                      [](const LayerDraft& layer) { return layer.cells.has_value(); });
            read_legend(draft.legend, map, only_characters, legend);
            NameIndex layers{"layer", {}, {}, {}};
            for (const LayerDraft& layer : draft.layers) {
                const Within in_layer(*this, fmt::format("layer '{}'", layer.name.value));
                layer_name_ = layer.name.value;
                declare(layers, layer.name);
                map.layers.push_back(make_layer(layer, map, id_of<LayerId>(map.layers.size()), legend));
                layer_name_.clear();
            }
            if (std::none_of(draft.layers.begin(), draft.layers.end(), [](const LayerDraft& l) { return l.unread; }))
                report_unused(legend);
            keep_in_range(map, draft.size.place);
        }
        make_waivers(draft.waive, "");
        parts_.maps.push_back(std::move(map));
    }
    map_name_.clear();
}

void WorldMaker::set_offsets(const LayerDraft& draft, Layer& layer) {
    const auto fit = [&](const auto& numbers, const char* key) {
        for (const double number : numbers)
            if (std::abs(number) > most_offset_px) {
                add(Rule::out_of_range, draft.place,
                    {fmt::format("'{}'", key), fmt::format("{} px", number),
                     fmt::format("from {} to {} px", -most_offset_px, most_offset_px)});
                return false;
            }
        return true;
    };
    if (fit(draft.offset, "offset")) layer.offset = {to_steps(draft.offset[0]), to_steps(draft.offset[1])};
    if (fit(draft.shape_offset, "shape_offset"))
        layer.shape_offset = {to_steps(draft.shape_offset[0]), to_steps(draft.shape_offset[1])};
    if (!fit(draft.sink, "sink")) return;
    for (std::size_t i = 0; i < 4; ++i) {
        if (draft.sink[i] < 0)
            add(Rule::out_of_range, draft.place, {"'sink'", fmt::format("{} px", draft.sink[i]), "0 px or more"});
        layer.sink[i] = std::max(0, to_steps(draft.sink[i]));
    }
}

Growth WorldMaker::make_growth(const GrowthDraft& draft) {
    Growth grow;
    grow.corners = choose<Growth::Corner>(draft.corners, "'corners' of 'grow'");
    const Curves curves(*this, draft.within_px);
    grow.within_px = within_px();
    if (draft.px.value > 0 && draft.px.value <= most_growth_px)
        grow.by = std::max(1, to_steps(draft.px.value));
    else
        add(Rule::out_of_range, draft.px.place.line > 0 ? draft.px.place : draft.place,
            {"'px' of 'grow'", fmt::format("{} px", draft.px.value),
             fmt::format("above 0, at most {} px", most_growth_px)});
    return grow;
}

double WorldMaker::make_fill(const Located<Value>& said, const Map& map) {
    double px2 = -1;
    if (const auto* yes = std::get_if<bool>(&said.value.is))
        px2 = *yes ? double{1} * map.cell_width * map.cell_height : 0;
    else if (const auto* whole = std::get_if<std::int64_t>(&said.value.is))
        px2 = static_cast<double>(*whole);
    else if (const auto* number = std::get_if<double>(&said.value.is))
        px2 = *number;
    if (px2 >= 0 && px2 <= most_filled_px2) return px2;
    add(Rule::out_of_range, said.place,
        {"'fill_holes'", text(said.value), fmt::format("true, false, or from 0 to {} px²", most_filled_px2)});
    return 0;
}

void WorldMaker::make_layer_reaction(const LayerDraft& draft, const Map& map, Layer& layer) {
    if (!draft.fires && draft.by.empty() && draft.gives.empty() && draft.needs.empty() && !draft.once &&
        draft.every_s == 0 && !draft.runs)
        return;
    ReactionDraft reaction;
    reaction.fires = draft.fires.value_or(Located<std::string>("enter"));
    reaction.by = draft.by, reaction.gives = draft.gives, reaction.needs = draft.needs;
    reaction.once = draft.once, reaction.every_s = draft.every_s, reaction.runs = draft.runs;
    reaction.place = draft.name.place;
    layer.reaction = make_reaction(reaction, {}, {});
    if (layer.reaction->by.empty() && map.player != MoverId::none) layer.reaction->by = {map.player};
    const Fires fires = layer.reaction->fires;
    if (fires != Fires::enter && fires != Fires::inside && fires != Fires::leave && fires != Fires::use)
        add(Rule::out_of_range, reaction.fires.place,
            {"'fires' of a layer", fmt::format("'{}'", reaction.fires.value), "one of enter, inside, leave, use"});
    if (layer.trigger.empty() || layer.holds_objects)
        add(Rule::out_of_range, draft.name.place,
            {fmt::format("what layer '{}' fires", layer.name), "set without a trigger",
             "set on a layer of cells with 'trigger'"});
}

Layer WorldMaker::make_layer(const LayerDraft& draft, Map& map, LayerId layer_id, Legend& map_legend) {
    Layer layer;
    layer.name = draft.name.value;
    layer.place = draft.name.place;
    layer.holds_objects = draft.holds_objects || draft.unread;
    layer.decor = draft.decor;
    layer.shown = draft.shown;
    if (draft.storey) layer.storey = std::max(StoreyId::ground, look_up(storeys_, *draft.storey));
    if (draft.barrier) layer.barrier = look_up(barriers_, *draft.barrier);
    layer.surface = draft.surface;
    if (draft.flags) layer.flags = flag_set(*draft.flags);
    if (draft.trigger) layer.trigger = draft.trigger->value;
    make_layer_reaction(draft, map, layer);
    layer.tags = draft.tags;
    layer.one_way = make_one_way(draft.one_way);
    layer.band = choose<Band>(draft.band, "'band'");
    layer.order = draft.order;
    layer.opacity = draft.opacity.value;
    if (!(layer.opacity >= 0 && layer.opacity <= 1)) {
        add(Rule::out_of_range, draft.opacity.place, {"'opacity'", fmt::format("{}", layer.opacity), "from 0 to 1"});
        layer.opacity = 1;
    }
    layer.when = look_up(facts_, draft.when);
    layer.unless = look_up(facts_, draft.unless);
    layer.props = make_properties(parts_.layer_fields, draft.props, fmt::format("layer '{}'", layer.name), layer.place);
    set_offsets(draft, layer);
    make_waivers(draft.waive, "", layer.name);
    if (!layer.holds_objects) {
        Legend own;
        read_legend(draft.legend, map, !draft.cells, own);
        fill_cells(draft, layer, map, layer_id, own, map_legend);
        report_unused(own);
    }
    const Curves curves(*this, draft.within_px);
    if (draft.grow) layer.grow = make_growth(*draft.grow);
    if (draft.fill_holes) layer.fill_px2 = make_fill(*draft.fill_holes, map);
    map.objects.reserve(map.objects.size() + draft.objects.size());
    for (const ObjectDraft& object : draft.objects) make_object(object, draft, layer, map, layer_id);
    return layer;
}

}   // namespace dryground
