// The map file.

#include <fmt/format.h>

#include <algorithm>
#include <array>

#include "../model/utf8_internal.hpp"
#include "read_keys_internal.hpp"

namespace dryground::files {

// Returns the rows of a multi-line text, each with the place of its first character. The parser gives the place where
// the text opens; its first line stands there, or on the next line if a line break follows the opening quotes.
std::vector<Located<std::string>> read_rows(const Source& source, const Located<std::string>& text) {
    std::vector<Located<std::string>> rows;
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

// Reads the cells of a layer from the file that `key` names.
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
    const Result<Image> image = decode_png(found->bytes);
    if (image) return cells_of_picture(*image, found->file);
    reading.source.add(Rule::bad_picture, path->place, {path->value, image.fault()});
    return std::nullopt;
}

}   // namespace

// Reads the content of a layer: given in exactly one way.
void KeyReader::read_key(Table& table, const Key& key, std::optional<GrowthDraft>& into) const {
    auto inner = table.table(name(key), fmt::format("'{}'", key.name));
    if (!inner) return;
    read(*inner, into.emplace());
    into->place = inner->place();
    inner->finish();
}

void KeyReader::read_group(Table& table, LayerDraft& draft, std::vector<Located<std::string>>& rows) const {
    const std::vector<std::string> said = said_of(table, keys::content);
    const Source& source = reading_->source;
    if (said.size() > 1)
        source.add(Rule::out_of_range, draft.place,
                   {table.what(), fmt::format("{} at once", fmt::join(said, " and ")), "one of them"});
    if (said.empty())
        table.missing("rows", "rows = '''…''', csv = \"….csv\", png = \"….png\", svg = \"….svg\", or objects = […]");
    draft.unread = said.size() != 1;
    if (draft.unread) return;
    if (const auto text = table.text("rows")) rows = read_rows(source, *text);
    for (const char* key : {"csv", "png"})
        if (table.has(key)) {
            draft.cells = read_cells(*reading_, table, key);
            draft.unread = !draft.cells;
        }
    draft.holds_objects = table.has("objects") || table.has("svg");
    if (const auto path = table.text("svg")) {
        const auto found = reading_->file(*path);
        draft.unread = !found;
        const Source drawing{found ? found->file : "", {}, source.report};
        if (found && is_text(drawing, found->bytes))
            draft.objects = objects_of_svg(found->bytes, found->file, {reading_->world, *map_, draft}, source.report);
    }
    if (table.has("objects")) read_list(table, keys::contents[3].key, draft.objects);
}

void KeyReader::read_key(Table& table, const Key&, std::vector<LegendEntry>& into) const { into = read_legend(table); }

void KeyReader::read_group(Table& table, BlockDraft&, std::vector<Located<std::string>>& rows) const {
    miss(table, keys::block_rows[0].key);
    if (const auto text = table.text("rows")) rows = read_rows(table.source(), *text);
}

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
            KeyReader().read(meaning, one);
            if (meaning.has("tile") + meaning.has("kind") + meaning.has("kinds") + meaning.has("family") +
                    meaning.has("block") !=
                1)
                source.add(Rule::missing_key, entry.key.place, {meaning.what(), "tile"},
                           Hint{"set one of 'tile', 'kind', 'kinds', 'family' and 'block'",
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
    Table root(reading.source, node, "a map");
    MapDraft draft;
    draft.place = {reading.source.file, 1, 1, {}};
    (void)root.text("format");
    KeyReader(reading, &draft).read(root, draft);
    draft.size.place = draft.size.place.line > 0 ? draft.size.place : draft.place;
    root.finish();
    // A size that could not be read has been reported; for the rest of the findings the first rows are used instead.
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
