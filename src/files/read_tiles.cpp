// The tile set file.

#include <fmt/format.h>

#include "read_keys_internal.hpp"

namespace dryground::files {

void KeyReader::read_key(Table& table, const Key& key, std::optional<std::vector<CarveDraft>>& into) const {
    const std::string what = fmt::format("{} of {}", key.item, table.what());
    std::vector<CarveDraft> result;
    const bool said = table.each(name(key), what, std::string(key.example).c_str(), [&](Table carve) {
        CarveDraft draft;
        draft.barrier = carve.required_text("barrier", "barrier = \"…\"");
        if (carve.tree().size() == 1) {   // nothing but the barrier: the whole cell
            draft.shape.form = WholeCell{};
            draft.shape.place = carve.place();
        } else if (auto shape = read_carve_shape(carve)) {
            draft.shape = std::move(*shape);
        } else {
            return;
        }
        result.push_back(std::move(draft));
    });
    if (said) into = std::move(result);
}

void KeyReader::read_key(Table& table, const Key& key, std::map<std::string, Located<std::string>>& into) const {
    const auto inner = table.table(name(key), fmt::format("'{}'", key.name));
    if (!inner) return;
    const Source& source = table.source();
    for (const Entry& entry : inner->entries()) {
        if (const auto* word = entry.node->as_string())
            into[entry.key.value] = Located<std::string>(word->get(), source.of(*word));
        else
            add_wrong_type(source, *entry.node, fmt::format("side '{}'", entry.key.value),
                           fmt::format("one of {}", fmt::join(key.words, ", ")));
    }
}

void KeyReader::read_key(Table& table, const Key& key, std::optional<Sheet>& into) const {
    auto inner = table.table(name(key), fmt::format("'{}'", key.name));
    if (!inner) return;
    Sheet sheet;
    sheet.place = inner->place();
    read(*inner, sheet);
    inner->finish();
    if (const toml::node* file = inner->tree().get("file"); file != nullptr && !sheet.file.empty()) {
        const PictureSize found = reading_->picture({sheet.file, inner->source().of(*file)});
        sheet.file = found.file;
        sheet.width = found.width;
        sheet.height = found.height;
    }
    into = std::move(sheet);
}

void KeyReader::read_key(Table& table, const Key& key, std::vector<std::pair<Name, ShapeDraft>>& into) const {
    const auto inner = table.table(name(key), fmt::format("'{}'", key.name));
    if (!inner) return;
    for (const Entry& entry : inner->entries())
        if (auto shape = read_shape(table.source(), *entry.node, fmt::format("shared shape '{}'", entry.key.value)))
            into.emplace_back(entry.key, std::move(*shape));
}

// Reads what many tiles are to be. `like` is not allowed: it stands in a tile's own table.
void KeyReader::read_key(Table& table, const Key& key, TileDraft& set_of_rule) const {
    if (!table.has("tiles") && !table.has("tagged"))
        table.missing("tiles", "tiles = [\"peat_*\"], or tagged = [\"stone\"]");
    const toml::node* patterns = table.tree().get("tiles");
    set_of_rule.name.place = patterns != nullptr ? table.source().of(*patterns) : table.place();
    miss(table, key);
    auto inner = table.table(name(key), "the 'set' of a [[for]]");
    if (!inner) return;
    keys::each_key(keys::Of<TileDraft>{}, [&](const Key& one, auto member) {
        if (one.name != "like") read_key(*inner, one, set_of_rule.*member);
    });
    inner->finish();
}

TileSetDraft read_tileset(const Reading& reading, const toml::table& node) {
    Table root(reading.source, node, "a tile set");
    TileSetDraft draft;
    draft.place = {reading.source.file, 1, 1, {}};
    (void)root.text("format");
    KeyReader(reading).read(root, draft);
    root.finish();
    return draft;
}

}   // namespace dryground::files
