// Lookups in worlds and maps: by name, by place, by cell.
//
// Grids are only read here and in grid_internal.hpp.

#include "dryground/world.hpp"

#include "set_cell_internal.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <stdexcept>

#include "words_internal.hpp"

namespace dryground {

std::optional<TileImage> image_of(const TileSet& set, const Tile& tile) {
    if (tile.picture) {
        const Picture& own = *tile.picture;
        return TileImage{own.file, 0, 0, own.width, own.height, own.x, own.y, std::nullopt};
    }
    if (!tile.art || !set.sheet) return std::nullopt;
    const Sheet& sheet = *set.sheet;
    const std::array<int, 2> cell{set.cell_width, set.cell_height}, size = sheet.cut.value_or(cell);
    const auto [x, y] = detail::standing_corner(cell, size);
    const std::array<double, 2> by = tile.at.value_or(sheet.at);
    return TileImage{sheet.file,
                     sheet.margin[0] + (*tile.art)[0] * (size[0] + sheet.gap[0]),
                     sheet.margin[1] + (*tile.art)[1] * (size[1] + sheet.gap[1]),
                     size[0],
                     size[1],
                     x + by[0],
                     y + by[1],
                     sheet.clear};
}

int TileSet::find(std::string_view tile) const {
    const auto found = std::find_if(tiles.begin(), tiles.end(), [tile](const Tile& t) { return t.name == tile; });
    return found == tiles.end() ? -1 : static_cast<int>(found - tiles.begin());
}

DataCell Map::data_cell_at(Point p) const {
    const auto floored = [](std::int64_t a, std::int64_t b) { return static_cast<int>(a / b - (a % b < 0 ? 1 : 0)); };
    const Point zero = corner(-first_column, -first_row);
    const std::int64_t x = std::int64_t{p.x} - zero.x, y = std::int64_t{p.y} - zero.y;
    const std::int64_t width = std::int64_t{cell_width} * steps_per_px,
                       height = std::int64_t{cell_height} * steps_per_px;
    if (grid == GridSort::square) return {floored(x, width) - first_column, floored(y, height) - first_row};
    // along columns: x / width + y / height, along rows: y / height - x / width
    const std::int64_t across = x * height, down = y * width, whole = width * height;
    return {floored(down + across, whole) - first_column, floored(down - across, whole) - first_row};
}

DataCells Map::cells_near(const Bounds& box) const {
    DataCells near{columns, rows, -1, -1};
    const auto take = [&](std::int64_t x, std::int64_t y) {
        const auto within = [](std::int64_t step) {
            return static_cast<std::int32_t>(
                std::clamp<std::int64_t>(step, -coordinate_limit - 1, coordinate_limit + 1));
        };
        const auto [c, r] = data_cell_at({within(x), within(y)});
        near = {std::min(near.first_column, c), std::min(near.first_row, r), std::max(near.last_column, c),
                std::max(near.last_row, r)};
    };
    // Cells hold two of their sides; what touches the others counts too. The box around a diamond reaches half of it
    // beyond: then its middle is as near.
    const bool diamonds = grid == GridSort::isometric;
    const std::int64_t x = diamonds ? cell_width * (steps_per_px / 2) : 1,
                       y = diamonds ? cell_height * (steps_per_px / 2) : 1;
    take(box.least.x - x, box.least.y - y);
    take(box.most.x + x, box.most.y + y);
    if (diamonds) {
        take(box.most.x + x, box.least.y - y);
        take(box.least.x - x, box.most.y + y);
    }
    return {std::max(near.first_column, 0), std::max(near.first_row, 0), std::min(near.last_column, columns - 1),
            std::min(near.last_row, rows - 1)};
}

std::uint32_t Map::put(LayerId id, DataCell at, const Placed& tile) {
    Layer& layer = layers[index(id)];
    const auto found = std::find(palette.begin(), palette.end(), tile);
    const auto number = static_cast<std::uint32_t>(found - palette.begin());
    if (found == palette.end()) palette.push_back(tile);
    if (layer.counts.size() <= number) layer.counts.resize(number + std::size_t{1}, 0);
    std::uint32_t& cell = layer.cells[static_cast<std::size_t>(at.row) * static_cast<std::size_t>(columns) +
                                      static_cast<std::size_t>(at.column)];
    const std::uint32_t before = cell;
    if (before < layer.counts.size() && layer.counts[before] > 0) --layer.counts[before];
    ++layer.counts[number];
    cell = number;
    return before;
}

Place Map::place_of(const Layer& layer, DataCell at) const {
    const auto [column, row] = at;
    if (static_cast<std::size_t>(row) >= layer.rows.size()) return layer.place;
    Place where = layer.rows[static_cast<std::size_t>(row)];
    const std::size_t cell =
        static_cast<std::size_t>(row) * static_cast<std::size_t>(columns) + static_cast<std::size_t>(column);
    if (where.line > 0)
        where.column += cell < layer.characters.size() ? static_cast<int>(layer.characters[cell]) : column;
    else if (!where.file.empty())
        where.thing = fmt::format("px ({}, {})", column, row);
    return where;
}

namespace {

template <IsId Id, class Things>
Id position_of(const Things& things, std::string_view name) {
    const auto found =
        std::find_if(things.begin(), things.end(), [name](const auto& thing) { return thing.name == name; });
    return found == things.end() ? Id::none : id_of<Id>(static_cast<std::size_t>(found - things.begin()));
}

}   // namespace

LayerId Map::find_layer(std::string_view layer) const {
    return layer.empty() ? LayerId::none : position_of<LayerId>(layers, layer);
}
ObjectId Map::find_object(std::string_view object) const {
    return object.empty() ? ObjectId::none : position_of<ObjectId>(objects, object);
}
MoverId World::find_mover(std::string_view name) const { return position_of<MoverId>(movers(), name); }
BarrierId World::find_barrier(std::string_view name) const { return position_of<BarrierId>(barriers(), name); }
FactId World::find_fact(std::string_view name) const { return position_of<FactId>(facts(), name); }
EventId World::find_event(std::string_view name) const { return position_of<EventId>(events(), name); }
KindId World::find_kind(std::string_view name) const { return position_of<KindId>(kinds(), name); }
StoreyId World::find_storey(std::string_view name) const { return position_of<StoreyId>(storeys(), name); }

MapId World::find_map(std::string_view name) const { return position_of<MapId>(maps(), name); }
TileSetId World::find_tileset(std::string_view name) const { return position_of<TileSetId>(tilesets(), name); }

const Map& World::map(std::string_view name) const {
    if (const MapId found = find_map(name); found != MapId::none) return map(found);
    std::vector<std::string> names;
    for (const Map& m : maps()) names.push_back(m.name);
    const auto nearest = nearest_name(name, names);
    throw std::out_of_range(fmt::format("the world has no map '{}'{}; World::map asks for a name of World::maps", name,
                                        nearest ? fmt::format(" (nearest: '{}')", *nearest) : ""));
}

Severity World::severity(Rule rule) const {
    const auto said = parts_->severities.find(rule);
    return said == parts_->severities.end() ? rule_text(rule).severity : said->second;
}

std::string_view name_of(OneWay one_way) { return word_of(one_way); }

std::string_view name_of(Role role) { return word_of(role); }

std::string_view name_of(FieldType type) { return word_of(type); }

std::string_view name_of(Fires fires) { return word_of(fires); }

std::span<const std::string_view> form_names() { return words_of<MergeForm>(); }

std::vector<std::string> names_of(MergeForms forms) {
    std::vector<std::string> names;
    for (std::size_t i = 0; i < form_names().size(); ++i)
        if (forms.has(static_cast<MergeForm>(i))) names.emplace_back(form_names()[i]);
    return names;
}

MergeForms forms_named(std::span<const std::string> names) {
    MergeForms forms;
    for (const std::string& name : names)
        if (const auto form = choice_of<MergeForm>(name)) forms.set(*form);
    return forms;
}

std::span<const std::string_view> limit_names() {
    static constexpr std::array<std::string_view, 13> names{
        "maps",          "layers", "columns", "rows",         "tiles_per_set",  "sheet_px",    "objects_per_map",
        "kinds_per_map", "facts",  "events",  "contact_bits", "piece_vertices", "chain_points"};
    return names;
}

std::vector<std::string> flag_names(const World& world, FlagSet flags) {
    std::vector<std::string> names;
    for (std::size_t f = 0; f < world.flags().size(); ++f)
        if ((flags >> f & 1) != 0) names.push_back(world.flags()[f].name);
    return names;
}

MoverId body_of(const World& world, const Map& map, const Object& object) {
    const MoverId mover = world.kind(object.kind).mover;
    const bool is_player =
        object.role == Role::spawn && mover != MoverId::none && mover == world.player() && map.player != MoverId::none;
    return is_player ? map.player : mover;
}

std::string_view name_of(Passage passage) { return word_of(passage); }

std::string text(const Value& value) {
    struct Writer {
        std::string operator()(bool b) const { return b ? "true" : "false"; }
        std::string operator()(std::int64_t n) const { return fmt::format("{}", n); }
        std::string operator()(double n) const { return fmt::format("{}", n); }
        std::string operator()(const std::string& s) const { return fmt::format("\"{}\"", s); }
        std::string operator()(const std::array<double, 2>& p) const { return fmt::format("[{}, {}]", p[0], p[1]); }
        std::string operator()(const Value::List& list) const {
            std::string all;
            for (const Value& v : list) all += (all.empty() ? "" : ", ") + text(v);
            return "[" + all + "]";
        }
    };
    return std::visit(Writer{}, value.is);
}

}   // namespace dryground
