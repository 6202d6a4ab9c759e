// The map file.

#include <fmt/format.h>

#include <algorithm>
#include <array>

#include "../model/utf8_internal.hpp"
#include "reading_internal.hpp"

namespace dryground::files {

// The rows of a multi-line text, each with the place of its first character. The parser tells where the text opens; its
// first line stands there, or on the next line when a line break follows the opening quotes.
std::vector<Said<std::string>> read_rows(const Source& source, const Said<std::string>& text) {
    std::vector<Said<std::string>> rows;
    Place place = text.place;
    const auto line = static_cast<std::size_t>(place.line);
    const std::string_view opening =
        line >= 1 && line <= source.lines.size() ? source.lines[line - 1] : std::string_view();
    const std::string_view trimmed = opening.substr(0, opening.find_last_not_of(" \t\r") + 1);
    const bool multi_line =
        trimmed.find("'''") != std::string_view::npos || trimmed.find("\"\"\"") != std::string_view::npos;
    if (trimmed.size() >= 3 &&
        (trimmed.substr(trimmed.size() - 3) == "'''" || trimmed.substr(trimmed.size() - 3) == "\"\"\"")) {
        ++place.line;
        place.column = 1;
    } else {
        place.column += multi_line ? 3 : 1;
    }
    std::string_view rest = text.value;
    while (!rest.empty()) {
        std::string_view row = rest.substr(0, rest.find('\n'));
        rest.remove_prefix(std::min(row.size() + 1, rest.size()));
        if (!row.empty() && row.back() == '\r') row.remove_suffix(1);
        rows.emplace_back(std::string(row), place);
        ++place.line;
        place.column = 1;
    }
    return rows;
}

namespace {

// The cells of a layer from the file that `key` names.
std::optional<CellTable> read_cells(const Reading& reading, Table& table, const char* key) {
    const auto path = table.text(key);
    if (!path) return std::nullopt;
    const auto found = reading.file(*path);
    if (!found) return std::nullopt;
    if (key == std::string_view("csv")) {
        const Source source{found->file, {}, reading.source.report};
        if (!is_text(source, found->bytes)) return std::nullopt;
        return cells_of_csv(found->bytes, found->file, reading.source.report);
    }
    std::string fault;
    const auto image = decode_png(found->bytes, fault);
    if (image) return cells_of_picture(*image, found->file);
    reading.source.add(Rule::bad_picture, path->place, {path->value, fault});
    return std::nullopt;
}

ExceptDraft read_except(Table table) {
    ExceptDraft draft;
    draft.place = table.place();
    if (const auto cell = table.wholes("cell", 2))
        draft.cell = {cell->value[0], cell->value[1]};
    else if (!table.has("cell"))
        table.missing("cell", "cell = [2, 1]");
    if (auto name = table.text("name")) draft.name = std::move(*name);
    draft.tags = table.texts("tags").value_or(std::vector<std::string>{});
    draft.gives = table.names("gives").value_or(Names{});
    draft.needs = table.names("needs").value_or(Names{});
    draft.when = table.names("when").value_or(Names{});
    draft.unless = table.names("unless").value_or(Names{});
    draft.props = read_properties(table);
    table.finish();
    return draft;
}

// What a layer holds: said in exactly one way.
void read_content(const Reading& reading, Table& table, LayerDraft& draft) {
    static constexpr std::array ways{"rows", "csv", "png", "objects", "svg"};
    std::vector<std::string> said;
    for (const char* way : ways)
        if (table.has(way)) said.emplace_back(way);
    if (said.size() > 1)
        reading.source.add(Rule::out_of_range, draft.place,
                           {table.what(), fmt::format("{} at once", fmt::join(said, " and ")), "one of them"});
    if (said.empty())
        table.missing("rows", "rows = '''…''', csv = \"….csv\", png = \"….png\", svg = \"….svg\", or objects = […]");
    if (said.size() != 1) {
        for (const std::string& way : said) (void)table.node(way.c_str());
        draft.unread = true;
        return;
    }
    if (const auto rows = table.text("rows")) draft.rows = read_rows(reading.source, *rows);
    for (const char* key : {"csv", "png"})
        if (table.has(key)) {
            draft.cells = read_cells(reading, table, key);
            draft.unread = !draft.cells;
        }
    draft.holds_objects = table.has("objects") || table.has("svg");
    if (const auto path = table.text("svg")) {
        const auto found = reading.file(*path);
        draft.unread = !found;
        const auto* kind = table.node("kind");   // of objects that name none
        const std::string layer_kind = kind != nullptr ? kind->value_or(std::string()) : std::string();
        const Source source{found ? found->file : "", {}, reading.source.report};
        if (found && is_text(source, found->bytes))
            draft.objects = objects_of_svg(found->bytes, found->file, reading.world, layer_kind, reading.source.report);
    }
    if (const toml::array* objects = table.tree()["objects"].as_array()) draft.objects.reserve(objects->size());
    table.each("objects", fmt::format("an object of {}", table.what()), "{ kind = \"…\", at = [x, y] }",
               [&](Table object) { draft.objects.push_back(read_object(std::move(object))); });
}

LayerDraft read_layer(const Reading& reading, Table table) {
    table.call_by_name("layer");
    LayerDraft draft;
    draft.place = table.place();
    draft.name = table.required_text("name", "name = \"ground\"");
    read_content(reading, table, draft);
    table.each("except", "an 'except'", "{ cell = [c, r], … }",
               [&](Table except) { draft.except.push_back(read_except(std::move(except))); });
    draft.legend = read_legend(table);
    set(draft.decor, table.yes_no("decor"));
    set(draft.shown, table.yes_no("shown"));
    set(draft.storey, table.text("storey"));
    set(draft.barrier, table.text("barrier"));
    set(draft.trigger, table.text("trigger"));
    set(draft.kind, table.text("kind"));
    draft.surface = read_surface(table);
    draft.flags = table.names("flags");
    draft.tags = table.texts("tags").value_or(std::vector<std::string>{});
    draft.one_way = table.text("one_way");
    if (const auto n = table.numbers("offset", 2)) draft.offset = {n->value[0], n->value[1]};
    if (const auto n = table.numbers("shape_offset", 2)) draft.shape_offset = {n->value[0], n->value[1]};
    if (const auto n = table.numbers("sink", 4)) draft.sink = {n->value[0], n->value[1], n->value[2], n->value[3]};
    if (auto band = table.text("band")) draft.band = std::move(*band);
    if (auto opacity = table.number("opacity")) draft.opacity = std::move(*opacity);
    draft.when = table.names("when").value_or(Names{});
    draft.unless = table.names("unless").value_or(Names{});
    draft.props = read_properties(table);
    draft.waive = read_waivers(table);
    table.finish();
    return draft;
}

}   // namespace

std::vector<LegendEntry> read_legend(Table& table) {
    std::vector<LegendEntry> result;
    const auto legend = table.table("legend", "a legend");
    if (!legend) return result;
    const Source& source = table.source();
    for (const Entry& entry : legend->entries()) {
        LegendEntry one;
        one.key = entry.key;
        if (const auto* tile = entry.node->as_string()) {
            one.tile = Name(tile->get(), source.of(*tile));
        } else if (const auto* inner = entry.node->as_table()) {
            Table meaning(source, *inner, fmt::format("the legend's '{}'", entry.key.value));
            if (auto name = meaning.text("tile")) one.tile = std::move(*name);
            set(one.kind, meaning.text("kind"));
            one.kinds = meaning.names("kinds").value_or(Names{});
            if (const toml::array* weights = meaning.list("weights", "a list of numbers"))
                one.weights = meaning.numbers("weights", weights->size());
            read_orientation(meaning, one.orientation);
            set(one.family, meaning.text("family"));
            set(one.block, meaning.text("block"));
            if (meaning.has("tile") + meaning.has("kind") + meaning.has("kinds") + meaning.has("family") +
                    meaning.has("block") !=
                1)
                source.add(Rule::missing_key, entry.key.place, {meaning.what(), "tile"},
                           Hint{"say one of 'tile', 'kind', 'kinds', 'family' and 'block'",
                                "{ tile = \"bank\", flip = \"x\" }"});
            meaning.finish();
        } else {
            add_wrong_type(source, *entry.node, fmt::format("the legend's '{}'", entry.key.value),
                           "the name of a tile, or a table { tile = \"…\" }");
            continue;
        }
        result.push_back(std::move(one));
    }
    return result;
}

MapDraft read_map(const Reading& reading, const toml::table& node) {
    const Source& source = reading.source;
    Table root(source, node, "a map");
    MapDraft draft;
    draft.place = {source.file, 1, 1, {}};
    (void)root.text("format");
    draft.name = root.required_text("name", "name = \"slipway\"");
    set(draft.title, root.text("title"));
    if (auto grid = root.text("grid")) draft.grid = std::move(*grid);
    if (const auto cell = root.wholes("cell", 2))
        draft.cell = Said<std::array<int, 2>>({cell->value[0], cell->value[1]}, cell->place);
    else if (!root.has("cell"))
        root.missing("cell", "cell = [16, 16]");
    if (const auto size = root.wholes("size", 2))
        draft.size = Said<std::array<int, 2>>({size->value[0], size->value[1]}, size->place);
    else if (!root.has("size"))
        root.missing("size", "size = [columns, rows]");
    draft.size.place = draft.size.place.line > 0 ? draft.size.place : draft.place;
    if (const auto first = root.wholes("first", 2)) draft.first = {first->value[0], first->value[1]};
    set(draft.rim, root.text("rim"));
    set(draft.player, root.text("player"));
    draft.tilesets = root.names("tilesets").value_or(Names{});
    draft.props = read_properties(root);
    draft.legend = read_legend(root);
    root.each("layers", "a layer", "[[layers]]",
              [&](Table layer) { draft.layers.push_back(read_layer(reading, std::move(layer))); });
    if (const auto seed = root.whole("seed")) draft.seed = static_cast<std::uint64_t>(seed->value);
    if (const auto parts = root.whole("cell_parts"))
        draft.cell_parts =
            Said<int>(static_cast<int>(std::clamp<std::int64_t>(parts->value, -1, 1'000'000)), parts->place);
    draft.waive = read_waivers(root);
    root.finish();
    // A size that could not be read has been told; for the rest of the findings the first rows stand in for it.
    if (draft.size.value == std::array<int, 2>{0, 0} && draft.size.place == draft.place)
        for (const LayerDraft& layer : draft.layers) {
            if (layer.cells && !layer.cells->row_ends.empty())
                draft.size.value = {static_cast<int>(layer.cells->row_ends[0]),
                                    static_cast<int>(layer.cells->row_ends.size())};
            else if (!layer.rows.empty())
                draft.size.value = {static_cast<int>(utf8::count(layer.rows[0].value)),
                                    static_cast<int>(layer.rows.size())};
            if (draft.size.value[0] > 0) break;
        }
    return draft;
}

}   // namespace dryground::files
