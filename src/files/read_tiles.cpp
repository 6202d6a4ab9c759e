// The tile set file.

#include <fmt/format.h>

#include "reading_internal.hpp"

namespace dryground::files {

namespace {

std::optional<std::vector<CarveDraft>> read_carves(Table& table) {
    const std::string what = fmt::format("a carve of {}", table.what());
    std::vector<CarveDraft> result;
    const bool said = table.each("carves", what, "{ barrier = \"…\", box = […] }", [&](Table carve) {
        CarveDraft draft;
        draft.barrier = carve.required_text("barrier", "barrier = \"…\"");
        if (carve.tree().size() == 1) {   // nothing but the barrier: the whole cell
            draft.shape.form = WholeCell{};
            draft.shape.place = carve.place();
        } else if (auto shape = read_shape(table.source(), carve.tree(), what)) {
            draft.shape = std::move(*shape);
        } else {
            return;
        }
        draft.shape.barrier.reset();
        result.push_back(std::move(draft));
    });
    return said ? std::optional(std::move(result)) : std::nullopt;
}

std::optional<std::vector<ReactionDraft>> read_reactions(Table& table) {
    std::vector<ReactionDraft> result;
    const std::string what = fmt::format("a reaction of {}", table.what());
    const bool said = table.each("reacts", what, "{ fires = \"bump\", … }", [&](Table one) {
        ReactionDraft draft;
        draft.place = one.place();
        draft.fires = one.required_text("fires", "fires = \"bump\"");
        draft.from = one.names("from");
        draft.by = one.names("by").value_or(Names{});
        draft.needs = one.names("needs").value_or(Names{});
        draft.gives = one.names("gives").value_or(Names{});
        set(draft.once, one.yes_no("once"));
        set(draft.every_s, one.number("every_s"));
        set(draft.runs, one.text("runs"));
        set(draft.turns_into, one.text("turns_into"));
        one.finish();
        if (!draft.fires.value.empty()) result.push_back(std::move(draft));
    });
    return said ? std::optional(std::move(result)) : std::nullopt;
}

// What a tile's table or the `set` of a [[for]] may say.
void read_tile_keys(const Reading& reading, Table& table, TileDraft& draft) {
    if (const auto art = table.wholes("art", 2))
        draft.art = Said<std::array<int, 2>>({art->value[0], art->value[1]}, art->place);
    draft.picture = read_picture(reading, table);
    if (const auto unseen = table.yes_no("unseen")) draft.unseen = unseen->value;
    if (const auto overhang = table.yes_no("overhang")) draft.overhang = overhang->value;
    draft.tags = table.texts("tags");
    set(draft.barrier, table.text("barrier"));
    draft.shapes = read_shapes(table, "shapes");
    draft.carves = read_carves(table);
    draft.flags = table.names("flags");
    if (const auto sides = table.table("sides", "'sides'"))
        for (const Entry& entry : sides->entries()) {
            if (const auto* passage = entry.node->as_string())
                draft.sides[entry.key.value] = Said<std::string>(passage->get(), reading.source.of(*passage));
            else
                add_wrong_type(reading.source, *entry.node, fmt::format("side '{}'", entry.key.value),
                               "one of open, shut, in, out");
        }
    set(draft.stands_for, table.text("stands_for"));
    set(draft.leads, table.text("leads"));
    draft.needs = table.names("needs");
    draft.gives = table.names("gives");
    draft.reacts = read_reactions(table);
    draft.props = read_properties(table);
    draft.waive = read_waivers(table);
}

std::optional<Sheet> read_sheet(const Reading& reading, Table& root) {
    auto table = root.table("sheet", "'sheet'");
    if (!table) return std::nullopt;
    Sheet sheet;
    sheet.place = table->place();
    const Name file = table->required_text("file", "file = \"….png\"");
    if (const auto margin = table->wholes("margin", 2)) sheet.margin = {margin->value[0], margin->value[1]};
    if (const auto gap = table->wholes("gap", 2)) sheet.gap = {gap->value[0], gap->value[1]};
    sheet.clear = read_colour(*table, "clear");
    table->finish();
    if (!file.value.empty()) {
        const PictureSize found = reading.picture(file);
        sheet.file = found.file;
        sheet.width = found.width;
        sheet.height = found.height;
    }
    return sheet;
}

TileRule read_rule(const Reading& reading, Table table) {
    TileRule rule;
    rule.tiles = table.texts("tiles").value_or(std::vector<std::string>{});
    rule.tagged = table.texts("tagged").value_or(std::vector<std::string>{});
    if (rule.tiles.empty() && rule.tagged.empty())
        table.missing("tiles", "tiles = [\"peat_*\"], or tagged = [\"stone\"]");
    if (auto keys = table.table("set", "the 'set' of a [[for]]")) {
        read_tile_keys(reading, *keys, rule.set);
        keys->finish();
    } else if (!table.has("set")) {
        table.missing("set", "set = { shapes = [\"cell\"] }");
    }
    const toml::node* patterns = table.node("tiles");
    rule.set.name.place = patterns != nullptr ? reading.source.of(*patterns) : table.place();
    table.finish();
    return rule;
}

FamilyDraft read_family(const Name& name, Table& table) {
    FamilyDraft family;
    family.name = name;
    if (auto joins = table.text("joins")) family.joins = std::move(*joins);
    table.each("members", fmt::format("a member of {}", table.what()), "{ tile = \"…\", joined = […] }",
               [&](Table member) {
                   MemberDraft draft;
                   draft.tile = member.required_text("tile", "tile = \"…\"");
                   draft.joined = member.names("joined").value_or(Names{});
                   member.finish();
                   if (!draft.tile.value.empty()) family.members.push_back(std::move(draft));
               });
    table.finish();
    return family;
}

BlockDraft read_block(const Name& name, Table& table) {
    BlockDraft block;
    block.name = name;
    if (const auto rows = table.text("rows"))
        block.rows = read_rows(table.source(), *rows);
    else if (!table.has("rows"))
        table.missing("rows", "rows = '''…'''");
    block.legend = read_legend(table);
    block.anchor = table.required_text("anchor", "anchor = \"A\"");
    table.finish();
    return block;
}

}   // namespace

TileSetDraft read_tileset(const Reading& reading, const toml::table& node) {
    Table root(reading.source, node, "a tile set");
    TileSetDraft draft;
    draft.place = {reading.source.file, 1, 1, {}};
    (void)root.text("format");
    draft.name = root.required_text("name", "name = \"marsh\"");
    if (const auto cell = root.wholes("cell", 2))
        draft.cell = Said<std::array<int, 2>>({cell->value[0], cell->value[1]}, cell->place);
    else if (!root.has("cell"))
        root.missing("cell", "cell = [16, 16]");
    draft.sheet = read_sheet(reading, root);
    draft.fields = read_fields(root, "fields");
    if (const auto shapes = root.table("shapes", "'shapes'"))
        for (const Entry& entry : shapes->entries())
            if (auto shape = read_shape(reading.source, *entry.node, fmt::format("shared shape '{}'", entry.key.value)))
                draft.shapes.emplace_back(entry.key, std::move(*shape));
    root.each("for", "a [[for]]", "[[for]]",
              [&](Table table) { draft.rules.push_back(read_rule(reading, std::move(table))); });
    each_table(root, "tiles", "tile", [&](const Name& name, Table& table) {
        TileDraft tile;
        tile.name = name;
        set(tile.like, table.text("like"));
        read_tile_keys(reading, table, tile);
        table.finish();
        draft.tiles.push_back(std::move(tile));
    });
    each_table(root, "families", "family",
               [&](const Name& name, Table& table) { draft.families.push_back(read_family(name, table)); });
    each_table(root, "blocks", "block",
               [&](const Name& name, Table& table) { draft.blocks.push_back(read_block(name, table)); });
    draft.waive = read_waivers(root);
    root.finish();
    return draft;
}

}   // namespace dryground::files
