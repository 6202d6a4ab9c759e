// Reads a pack to drafts: what several keys define together; the rest is read by the lists of keys.

#include <fmt/format.h>

#include "../model/grid_internal.hpp"
#include "number_rows_internal.hpp"
#include "read_pack_internal.hpp"

namespace dryground::files {

namespace {

LinePx line_px(const Ring& ring) {
    LinePx line;
    for (const Point p : ring) line.points.push_back({to_px(p.x), to_px(p.y)});
    return line;
}

// Returns what a layer's cells hold: the numbers of the palette, each a name of the layer's legend. A number outside
// the palette becomes a name that no legend has.
CellTable cells_of(const Node& rows, std::array<int, 2> size, std::size_t palette) {
    CellTable table;
    table.sort = CellTable::Sort::csv;
    const auto columns = static_cast<std::size_t>(size[0]);
    for (const Node& row : rows.items()) {
        std::uint64_t more = 0;
        if (!read_row(row.text(), columns, table.numbers, more)) row.wrong("numbers, as in \"0*12 3 7*2\"");
        if (more > 0) table.numbers.push_back(0);   // so that it is reported as too long
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

void read_cells(const Node& layer, std::array<int, 2> size, const std::vector<LegendEntry>& palette,
                LayerDraft& draft) {
    if (draft.holds_objects) return;
    draft.unread = !detail::can_hold_cells(size[0], size[1]);   // the size is what is wrong
    if (!draft.unread) draft.cells = cells_of(layer.at("rows"), size, palette.size());
    draft.legend = palette;
}

std::vector<LegendEntry> read_palette(const Node& node) {
    std::vector<LegendEntry> entries;
    for (const Node& item : node.items()) {
        LegendEntry& entry = entries.emplace_back();
        entry.key = Name(fmt::format("#{}", entries.size() - 1), item.where());
        if (entries.size() > 1) {
            packed::Reader().table<Placed>(item, entry);
            continue;
        }
        entry.key.value.clear();   // no tile
        if (!item.is_null()) item.wrong("null: the first of a palette is no tile");
    }
    return entries;
}

}   // namespace

}   // namespace dryground::files

namespace dryground::packed {

void Reader::read_by_hand(const Node& node, ShapeDraft& shape) {
    // All are read, whichever counts: what is wrong with any of them is reported.
    const Ring line = node.at("line").ring();
    Regions area = node.at("area").area();
    if (node.at("cell").yes_no())
        shape.form = WholeCell{};
    else if (!line.empty())
        shape.form = files::line_px(line);
    else
        shape.form = std::move(area);
}

void Reader::read_by_hand(const Node& node, CarveDraft& carve) {
    carve.shape.place = node.where();
    Regions area = node.at("area").area();
    if (node.at("cell").yes_no())
        carve.shape.form = WholeCell{};
    else
        carve.shape.form = std::move(area);
}

void Reader::read_by_hand(const Node& node, ObjectDraft& object) const {
    object.place_of_form = node.where();
    Ring line = node.at("line").ring();
    Regions area = node.at("area").area();
    const bool drawn = node.at("drawn").yes_no();
    const auto [x, y] = node.at("at_px").place();
    const auto [middle_x, middle_y] = node.at("middle_px").place();
    const auto [width, height] = node.at("size_px").place();
    const double back_x = to_px(back_.x), back_y = to_px(back_.y);
    if (object.turn != 0 && (drawn || !line.empty()))
        object.turned_from = BoxPx{middle_x - width / 2 + back_x, middle_y - height / 2 + back_y, width, height};
    if (const Node cell = node.at("cell"); !cell.is_null()) {
        const auto [column, row] = cell.pair();
        object.form = AtCells{column, row, 1, 1, false};
        object.cell = {column, row};
    }
    if (!line.empty()) {
        for (Point& p : line) p = moved(p, back_);
        object.form = files::line_px(line);
    } else if (drawn && !area.empty()) {
        object.form = moved(std::move(area), back_);
    } else if (!object.cell) {
        object.form = PointPx{x + back_x, y + back_y};
    }
}

void Reader::read_by_hand(const Node& node, MapDraft& map) {
    const std::vector<LegendEntry> palette = files::read_palette(node.at("palette"));
    for (const Node& layer : node.at("layers").items()) {
        LayerDraft& draft = map.layers.emplace_back();
        Reader().table<Layer>(layer, draft);
        files::read_cells(layer, map.size.value, palette, draft);
    }
    for (const Node& object : node.at("objects").items()) {
        const std::string name = object.at("layer").text();
        const auto layer = std::find_if(map.layers.begin(), map.layers.end(),
                                        [&](const LayerDraft& one) { return one.name.value == name; });
        if (layer == map.layers.end()) {
            object.at("layer").wrong("the name of one of the map's layers");
            continue;
        }
        const Reader reader({-to_steps(layer->offset[0]), -to_steps(layer->offset[1])});
        reader.table<Object>(object, layer->objects.emplace_back());
    }
}

}   // namespace dryground::packed

namespace dryground::files {

void read_packed(const Node& root, WorldBuilder& builder) {
    const packed::Reader reader;
    WorldDraft world;
    reader.keys<World>(root, world);
    builder.world(std::move(world));
    for (const Node& node : root.at("tilesets").items()) {
        TileSetDraft set;
        reader.table<TileSet>(node, set);
        builder.tileset(std::move(set));
    }
    for (const Node& node : root.at("maps").items()) {
        MapDraft map;
        reader.table<Map>(node, map);
        builder.map(std::move(map));
    }
}

}   // namespace dryground::files
