// The tile set file.

#include <fmt/format.h>

#include "write_keys_internal.hpp"

namespace dryground::files {

using toml_text::in_quotes;
using toml_text::Pairs;

std::string carve_toml(const CarveDraft& carve) {
    Pairs pairs;
    pairs.add("barrier", in_quotes(carve.barrier.value));
    if (!std::holds_alternative<WholeCell>(carve.shape.form) || !(carve.shape.orientation == Orientation{})) {
        add_form(pairs, carve.shape.form);
        add_orientation(pairs, carve.shape.orientation);
    }
    return pairs.table();
}

namespace {

std::string block_text(const BlockDraft& block) {
    std::vector<std::string_view> rows;
    for (const Located<std::string>& row : block.rows) rows.push_back(row.value);
    const std::string table = "blocks." + block.name.value;
    return fmt::format("\n[{}]\nrows = {}\n{}{}", table, toml_text::rows(rows), KeyWriter().pairs(block).lines(),
                       legend_toml(table + ".legend", block.legend));
}

}   // namespace

std::string tileset_toml(const TileSetDraft& draft, const std::string& folder) {
    const KeyWriter keys(folder);
    Pairs head;
    head.add("format", in_quotes("dryground/tiles/1"));
    keys.write(head, draft);
    std::string out = head.lines();
    Pairs shapes;
    for (const auto& [name, shape] : draft.shapes) shapes.add(name.value, shapes_toml(shape).front());
    if (!shapes.empty()) out += "\n[shapes]\n" + shapes.lines();
    for (const TileRule& rule : draft.rules) out += "\n[[for]]\n" + keys.pairs(rule).lines();
    for (const TileDraft& tile : draft.tiles)
        out += fmt::format("\n[tiles.{}]\n{}", tile.name.value, keys.pairs(tile).lines());
    for (const FamilyDraft& family : draft.families)
        out += fmt::format("\n[families.{}]\n{}", family.name.value, keys.pairs(family).lines());
    for (const BlockDraft& block : draft.blocks) out += block_text(block);
    return out;
}

}   // namespace dryground::files
