// A pack's tile sets and maps to drafts.

#include <fmt/format.h>

#include "../model/grid_internal.hpp"
#include "number_rows_internal.hpp"
#include "pack_internal.hpp"

namespace dryground::files {

namespace {

Orientation read_orientation(const Node& node) {
    Orientation way;
    way.flip_x = node.at("flip_x").yes_no();
    way.flip_y = node.at("flip_y").yes_no();
    const std::int64_t turn = node.at("turn").whole();
    if (turn == 0 || turn == 90 || turn == 180 || turn == 270)
        way.turn = static_cast<std::int16_t>(turn);
    else
        node.at("turn").wrong("one of 0, 90, 180, 270");
    return way;
}

LinePx line_px(const Ring& ring) {
    LinePx line;
    for (const Point p : ring) line.points.push_back({to_px(p.x), to_px(p.y)});
    return line;
}

ShapeDraft read_shape(const Node& node) {
    ShapeDraft shape;
    shape.place = node.where();
    const Ring line = node.at("line").ring();
    if (node.at("cell").yes_no())
        shape.form = WholeCell{};
    else if (!line.empty())
        shape.form = line_px(line);
    else
        shape.form = node.at("area").area();
    shape.barrier = node.at("barrier").name_or_none();
    if (Name trigger = node.at("trigger").name(); !trigger.value.empty()) shape.trigger = std::move(trigger);
    shape.surface = read_packed_surface(node.at("surface"));
    if (Name one_way = node.at("one_way").name(); !one_way.value.empty()) shape.one_way = std::move(one_way);
    return shape;
}

ReactionDraft read_reaction(const Node& node) {
    ReactionDraft reaction;
    reaction.place = node.where();
    reaction.fires = node.at("fires").name();
    reaction.from = node.at("from").names();
    reaction.by = node.at("by").names();
    reaction.once = node.at("once").yes_no();
    reaction.every_s = node.at("every_s").number();
    reaction.needs = node.at("needs").names();
    reaction.gives = node.at("gives").names();
    reaction.runs = node.at("runs").name_or_none();
    reaction.turns_into = node.at("turns_into").name_or_none();
    return reaction;
}

TileDraft read_tile(const Node& node) {
    TileDraft tile;
    tile.name = node.at("name").name();
    if (const Node art = node.at("art"); !art.is_null())
        tile.art = Located<std::array<int, 2>>(art.pair(), art.where());
    if (const Node at = node.at("art_at"); !at.is_null()) tile.at = at.place();
    tile.picture = read_packed_picture(node.at("picture"));
    if (auto band = node.at("band").name_or_none()) tile.band = std::move(*band);
    tile.unseen = node.at("unseen").yes_no();
    tile.overhang = node.at("overhang").yes_no();
    tile.tags = node.at("tags").texts();
    if (node.at("decided").yes_no()) tile.shapes.emplace();
    for (const Node& shape : node.at("shapes").items()) {
        if (!tile.shapes) tile.shapes.emplace();
        tile.shapes->push_back(read_shape(shape));
    }
    tile.carves.emplace();
    for (const Node& carve : node.at("carves").items()) {
        CarveDraft draft;
        draft.barrier = carve.at("barrier").name();
        draft.shape.place = carve.where();
        if (carve.at("cell").yes_no())
            draft.shape.form = WholeCell{};
        else
            draft.shape.form = carve.at("area").area();
        tile.carves->push_back(std::move(draft));
    }
    if (const Node flags = node.at("flags"); !flags.is_null()) tile.flags = flags.names();
    if (const Node sides = node.at("sides"); !sides.is_null())
        for (const auto& [side, passage] : sides.entries()) tile.sides[side] = passage.name();
    tile.stands_for = node.at("stands_for").name_or_none();
    tile.leads = node.at("leads").name_or_none();
    tile.needs = node.at("needs").names();
    tile.gives = node.at("gives").names();
    tile.reacts.emplace();
    for (const Node& reaction : node.at("reacts").items()) tile.reacts->push_back(read_reaction(reaction));
    tile.props = node.at("props").properties();
    return tile;
}

// What a layer's cells can hold: the numbers of the palette, each a name of the layer's legend. A number without a
// place in the palette is a name that no legend has.
CellTable cells_of(const Node& rows, std::array<int, 2> size, std::size_t palette) {
    CellTable table;
    table.sort = CellTable::Sort::csv;
    const auto columns = static_cast<std::size_t>(size[0]);
    for (const Node& row : rows.items()) {
        std::uint64_t more = 0;
        if (!read_row(row.text(), columns, table.numbers, more)) row.wrong("numbers, as in \"0*12 3 7*2\"");
        if (more > 0) table.numbers.push_back(0);   // so that it is seen to be too long
        table.row_ends.push_back(table.numbers.size());
        if (table.row_ends.size() > static_cast<std::size_t>(size[1])) break;
    }
    table.rows.resize(table.row_ends.size());
    for (std::size_t i = 0; i < palette; ++i) table.keys.push_back(i == 0 ? "" : fmt::format("#{}", i));
    bool beyond = false;
    for (std::uint32_t& number : table.numbers)
        if (number >= palette) number = static_cast<std::uint32_t>(palette), beyond = true;
    if (beyond) table.keys.emplace_back("a number beyond the palette");
    return table;
}

LayerDraft read_layer(const Node& node, std::array<int, 2> size, const std::vector<LegendEntry>& palette) {
    LayerDraft layer;
    layer.place = node.where();
    layer.name = node.at("name").name();
    layer.holds_objects = node.at("holds").text() == "objects";
    layer.decor = node.at("decor").yes_no();
    layer.shown = node.at("shown").yes_no();
    layer.storey = node.at("storey").name_or_none();
    layer.band = node.at("band").name();
    layer.order = node.at("order").integer();
    layer.opacity = node.at("opacity").number();
    layer.barrier = node.at("barrier").name_or_none();
    if (Name trigger = node.at("trigger").name(); !trigger.value.empty()) layer.trigger = std::move(trigger);
    if (const Node node_of = node.at("reaction"); !node_of.is_null()) {
        const ReactionDraft reaction = read_reaction(node_of);
        layer.fires = reaction.fires, layer.by = reaction.by, layer.needs = reaction.needs;
        layer.gives = reaction.gives, layer.once = reaction.once, layer.every_s = reaction.every_s;
        layer.runs = reaction.runs;
    }
    layer.surface = read_packed_surface(node.at("surface"));
    if (Name one_way = node.at("one_way").name(); !one_way.value.empty()) layer.one_way = std::move(one_way);
    if (const Node flags = node.at("flags"); !flags.is_null()) layer.flags = flags.names();
    layer.offset = node.at("offset").place();
    layer.shape_offset = node.at("shape_offset").place();
    const std::vector<Node> sink = node.at("sink").items();
    for (std::size_t i = 0; i < 4 && i < sink.size(); ++i) layer.sink[i] = sink[i].number();
    if (const double fill = node.at("fill_holes").number(); fill > 0) layer.fill_holes = Located<Value>(Value{fill});
    if (const Node grow = node.at("grow"); !grow.is_null()) {
        GrowthDraft& draft = layer.grow.emplace();
        draft.place = node.where();
        draft.px = grow.at("px").number();
        draft.corners = grow.at("corners").name();
        draft.within_px = grow.at("within_px").number();
    }
    layer.when = node.at("when").names();
    layer.unless = node.at("unless").names();
    layer.tags = node.at("tags").texts();
    layer.props = node.at("props").properties();
    if (const Node rows = node.at("rows"); !layer.holds_objects) {
        layer.unread = !detail::can_hold_cells(size[0], size[1]);   // the size is what is wrong
        if (!layer.unread) layer.cells = cells_of(rows, size, palette.size());
        layer.legend = palette;
    }
    return layer;
}

// Moves back by a layer's offset, which the builder adds again.
struct Back {
    Point by;
    [[nodiscard]] Ring operator()(Ring ring) const {
        for (Point& p : ring) p = moved(p, by);
        return ring;
    }
    [[nodiscard]] Regions operator()(Regions area) const { return moved(std::move(area), by); }
};

void read_form(const Node& node, const Back& back, ObjectDraft& object) {
    const Ring line = node.at("line").ring();
    Regions area = node.at("area").area();
    const bool drawn = node.at("drawn").yes_no();
    object.turn = node.at("turn").number();
    if (object.turn != 0 && (drawn || !line.empty())) {
        const auto [x, y] = node.at("middle_px").place();
        const auto [width, height] = node.at("size_px").place();
        object.turned_from = BoxPx{x - width / 2 + to_px(back.by.x), y - height / 2 + to_px(back.by.y), width, height};
    }
    if (const Node cell = node.at("cell"); !cell.is_null()) {
        const auto [column, row] = cell.pair();
        object.form = AtCells{column, row, 1, 1, false};
        object.cell = {column, row};
    }
    if (!line.empty())
        object.form = line_px(back(line));
    else if (drawn && !area.empty())
        object.form = back(std::move(area));
    else if (!object.cell) {
        const auto [x, y] = node.at("at_px").place();
        object.form = PointPx{x + to_px(back.by.x), y + to_px(back.by.y)};
    }
}

ObjectDraft read_object(const Node& node, const Back& back) {
    ObjectDraft object;
    object.place = object.place_of_form = node.where();
    object.name = node.at("name").name();
    object.kind = node.at("kind").name();
    read_form(node, back, object);
    object.hollow = node.at("hollow").yes_no();
    for (const Node& carve : node.at("carves").items()) {
        ObjectCarve one{carve.at("barrier").name(), ShapeDraft{}};
        one.shape->form = back(carve.at("area").area());
        object.carves.push_back(std::move(one));
    }
    object.storey = node.at("storey").name_or_none();
    object.barrier = node.at("barrier").name_or_none();
    object.surface = read_packed_surface(node.at_if_there("surface"));
    object.tags = node.at("tags").texts();
    object.fires = node.at("fires").name();
    object.by = node.at("by").names();
    object.once = node.at("once").yes_no();
    object.every_s = node.at("every_s").number();
    object.needs = node.at("needs").names();
    object.gives = node.at("gives").names();
    object.when = node.at("when").names();
    object.unless = node.at("unless").names();
    object.runs = node.at("runs").name_or_none();
    if (const Node link = node.at("link"); !link.is_null()) {
        object.to = link.at("to").name();
        object.one_way = link.at("one_way").yes_no();
        object.arrival_runs = link.at("arrival_runs").name_or_none();
    }
    object.props = node.at("props").properties();
    return object;
}

std::vector<LegendEntry> read_palette(const Node& node) {
    std::vector<LegendEntry> entries;
    for (const Node& item : node.items()) {
        LegendEntry& entry = entries.emplace_back();
        entry.key = Name(fmt::format("#{}", entries.size() - 1), item.where());
        if (entries.size() == 1) {   // no tile
            entry.key.value.clear();
            if (!item.is_null()) item.wrong("null: the first of a palette is no tile");
            continue;
        }
        entry.tile = item.at("tile").name();
        entry.orientation = read_orientation(item);
    }
    return entries;
}

}   // namespace

TileSetDraft read_packed_tileset(const Node& node) {
    TileSetDraft set;
    set.place = node.where();
    set.name = node.at("name").name();
    set.cell = Located<std::array<int, 2>>(node.at("cell").pair(), node.at("cell").where());
    if (const Node sheet = node.at("sheet"); !sheet.is_null()) {
        set.sheet.emplace();
        set.sheet->file = sheet.at("file").text();
        set.sheet->width = sheet.at("size").pair()[0], set.sheet->height = sheet.at("size").pair()[1];
        set.sheet->margin = sheet.at("margin").pair();
        set.sheet->gap = sheet.at("gap").pair();
        if (const Node cut = sheet.at("cut"); !cut.is_null()) set.sheet->cut = cut.pair();
        set.sheet->at = sheet.at("at").place();
        set.sheet->clear = read_packed_colour(sheet.at("clear"));
        set.sheet->place = sheet.where();
    }
    set.fields = read_packed_fields(node.at("fields"));
    for (const Node& tile : node.at("tiles").items()) set.tiles.push_back(read_tile(tile));
    return set;
}

MapDraft read_packed_map(const Node& node) {
    MapDraft map;
    map.place = node.where();
    map.name = node.at("name").name();
    map.title = node.at("title").text();
    map.grid = node.at("grid").name();
    map.cell = Located<std::array<int, 2>>(node.at("cell").pair(), node.at("cell").where());
    map.size = Located<std::array<int, 2>>(node.at("size").pair(), node.at("size").where());
    map.first = node.at("first").pair();
    map.rim = node.at("rim").name_or_none();
    map.player = node.at("player").name_or_none();
    map.tilesets = node.at("tilesets").names();
    map.seed = static_cast<std::uint64_t>(node.at("seed").whole(INT64_MIN, INT64_MAX));
    map.cell_parts = Located<int>(node.at("cell_parts").integer(), node.at("cell_parts").where());
    map.props = node.at("props").properties();
    const std::vector<LegendEntry> palette = read_palette(node.at("palette"));
    for (const Node& layer : node.at("layers").items())
        map.layers.push_back(read_layer(layer, map.size.value, palette));
    for (const Node& object : node.at("objects").items()) {
        const std::string name = object.at("layer").text();
        const auto layer = std::find_if(map.layers.begin(), map.layers.end(),
                                        [&](const LayerDraft& one) { return one.name.value == name; });
        if (layer == map.layers.end()) {
            object.at("layer").wrong("the name of one of the map's layers");
            continue;
        }
        const Back back{{-to_steps(layer->offset[0]), -to_steps(layer->offset[1])}};
        layer->objects.push_back(read_object(object, back));
    }
    return map;
}

}   // namespace dryground::files
