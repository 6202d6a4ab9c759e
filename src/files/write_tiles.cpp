// The tile set file.

#include <fmt/format.h>

#include "writing_internal.hpp"

namespace dryground::files {

using toml_text::in_quotes;
using toml_text::list;
using toml_text::numbers;
using toml_text::Pairs;

namespace {

std::string carve_toml(const CarveDraft& carve) {
    Pairs pairs;
    pairs.add("barrier", in_quotes(carve.barrier.value));
    if (!std::holds_alternative<WholeCell>(carve.shape.form) || !(carve.shape.orientation == Orientation{})) {
        add_form(pairs, carve.shape.form);
        add_orientation(pairs, carve.shape.orientation);
    }
    return pairs.table();
}

std::string carves_toml(const std::vector<CarveDraft>& carves) {
    std::vector<std::string> items;
    for (const CarveDraft& carve : carves) items.push_back(carve_toml(carve));
    return list(items);
}

std::string reactions_toml(const std::vector<ReactionDraft>& reactions) {
    std::vector<std::string> items;
    for (const ReactionDraft& reaction : reactions) {
        Pairs pairs;
        pairs.add("fires", in_quotes(reaction.fires.value));
        if (reaction.from) pairs.add("from", toml_text::names(*reaction.from));
        pairs.add_names("by", reaction.by);
        pairs.add_yes_no("once", reaction.once);
        pairs.add_number("every_s", reaction.every_s, 0);
        pairs.add_names("needs", reaction.needs);
        pairs.add_names("gives", reaction.gives);
        pairs.add("turns_into", reaction.turns_into);
        pairs.add("runs", reaction.runs);
        items.push_back(pairs.table());
    }
    return list(items);
}

Pairs tile_pairs(const TileDraft& tile, const std::string& folder) {
    Pairs pairs;
    pairs.add("like", tile.like);
    if (tile.art) pairs.add("art", numbers({0.0 + tile.art->value[0], 0.0 + tile.art->value[1]}));
    if (tile.picture) pairs.add("picture", picture_toml(*tile.picture, folder));
    if (tile.unseen) pairs.add("unseen", std::string(*tile.unseen ? "true" : "false"));
    if (tile.overhang) pairs.add("overhang", std::string(*tile.overhang ? "true" : "false"));
    if (tile.tags) pairs.add("tags", toml_text::texts(*tile.tags));
    pairs.add("barrier", tile.barrier);
    if (tile.shapes) pairs.add("shapes", shapes_toml(*tile.shapes));
    if (tile.carves) pairs.add("carves", carves_toml(*tile.carves));
    if (tile.flags) pairs.add("flags", toml_text::names(*tile.flags));
    if (!tile.sides.empty()) {
        Pairs sides;
        for (const auto& [side, passage] : tile.sides) sides.add(side, in_quotes(passage.value));
        pairs.add("sides", sides.table());
    }
    pairs.add("stands_for", tile.stands_for);
    pairs.add("leads", tile.leads);
    if (tile.needs) pairs.add("needs", toml_text::names(*tile.needs));
    if (tile.gives) pairs.add("gives", toml_text::names(*tile.gives));
    if (tile.reacts) pairs.add("reacts", reactions_toml(*tile.reacts));
    pairs.add_properties(tile.props);
    pairs.add_waivers(tile.waive);
    return pairs;
}

std::string sheet_toml(const Sheet& sheet, const std::string& folder) {
    Pairs pairs;
    pairs.add("file", path_toml(sheet.file, folder));
    if (sheet.margin != std::array<int, 2>{})
        pairs.add("margin", numbers({0.0 + sheet.margin[0], 0.0 + sheet.margin[1]}));
    if (sheet.gap != std::array<int, 2>{}) pairs.add("gap", numbers({0.0 + sheet.gap[0], 0.0 + sheet.gap[1]}));
    if (sheet.clear) pairs.add("clear", colour_toml(*sheet.clear));
    return pairs.table();
}

std::string family_text(const FamilyDraft& family) {
    std::string out =
        fmt::format("\n[families.{}]\njoins = {}\nmembers = [\n", family.name.value, in_quotes(family.joins.value));
    for (const MemberDraft& member : family.members)
        out += fmt::format("  {{ tile = {}, joined = {} }},\n", in_quotes(member.tile.value),
                           toml_text::names(member.joined));
    return out + "]\n";
}

std::string block_text(const BlockDraft& block) {
    std::vector<std::string_view> rows;
    for (const Said<std::string>& row : block.rows) rows.push_back(row.value);
    const std::string table = "blocks." + block.name.value;
    return fmt::format("\n[{}]\nrows = {}\nanchor = {}\n{}", table, toml_text::rows(rows),
                       in_quotes(block.anchor.value), legend_toml(table + ".legend", block.legend));
}

}   // namespace

std::string tileset_toml(const TileSetDraft& draft, const std::string& folder) {
    Pairs head;
    head.add("format", in_quotes("dryground/tiles/1"));
    head.add("name", in_quotes(draft.name.value));
    head.add("cell", numbers({0.0 + draft.cell.value[0], 0.0 + draft.cell.value[1]}));
    if (draft.sheet) head.add("sheet", sheet_toml(*draft.sheet, folder));
    add_fields(head, "fields", draft.fields);
    head.add_waivers(draft.waive);
    std::string out = head.lines();
    Pairs shapes;
    for (const auto& [name, shape] : draft.shapes) shapes.add(name.value, shapes_toml(shape).front());
    if (!shapes.empty()) out += "\n[shapes]\n" + shapes.lines();
    for (const TileRule& rule : draft.rules) {
        Pairs pairs;
        pairs.add_texts("tiles", rule.tiles);
        pairs.add_texts("tagged", rule.tagged);
        pairs.add("set", tile_pairs(rule.set, folder).table());
        out += "\n[[for]]\n" + pairs.lines();
    }
    for (const TileDraft& tile : draft.tiles)
        out += fmt::format("\n[tiles.{}]\n{}", tile.name.value, tile_pairs(tile, folder).lines());
    for (const FamilyDraft& family : draft.families) out += family_text(family);
    for (const BlockDraft& block : draft.blocks) out += block_text(block);
    return out;
}

}   // namespace dryground::files
