// The things that the world's own file declares: barriers, flags, storeys, movers, facts, events, kinds; and the keys
// of the file itself.

#include <fmt/format.h>

#include <algorithm>

#include "edit_world_internal.hpp"
#include "keys/listing_internal.hpp"
#include "text_keys_internal.hpp"
#include "text_tables_internal.hpp"

namespace dryground::files {

using toml_text::in_quotes;

namespace {

// Returns the table that holds things of a kind: "kinds". Throws EditFault if it is unknown.
std::string table_of_things(const std::string& thing) {
    constexpr std::string_view sorts[] = {"barrier", "flag", "storey", "mover", "fact", "event", "kind"};
    if (std::find(std::begin(sorts), std::end(sorts), thing) == std::end(sorts))
        throw EditFault(fmt::format("a world has no things called '{}': it has {}s", thing, fmt::join(sorts, "s, ")));
    return thing + "s";
}

// Flags, facts and events are names with a note.
bool is_noted(std::string_view thing) { return thing == "flag" || thing == "fact" || thing == "event"; }

std::string note_in(const std::string& thing, const std::string& name, const GivenKeys& values) {
    std::string note;
    for (const auto& [key, value] : values) {
        if (key != "note")
            throw EditFault(fmt::format("{} '{}' has no key '{}': its one key is 'note'", thing, name, key));
        note = value;
    }
    return in_quotes(note);
}

PropertyTypes types_of(const OpenWorld& world, const std::string& thing, const GivenKeys& values,
                       const std::string& name) {
    if (thing != "kind") return {};
    PropertyTypes types = properties_of(world.builder.world_draft(), name);
    for (const auto& [key, value] : values)   // a new kind has the properties of the one that it starts from
        if (key == "like") types.merge(properties_of(world.builder.world_draft(), value));
    return types;
}

const toml::table* table_in(const toml::table& tree, const std::string& key) { return tree[key].as_table(); }

const toml::node& thing_in(const toml::table& tree, const std::string& thing, const std::string& name) {
    const std::string key = table_of_things(thing);
    std::vector<std::string> names;
    if (const toml::table* things = table_in(tree, key))
        for (const auto& [one, node] : *things) {
            if (one.str() == name) return node;
            names.emplace_back(one.str());
        }
    unknown_name("the world", thing, name, names);
}

std::string what_is(const std::string& thing, const std::string& name) { return fmt::format("{} '{}'", thing, name); }

// The keys of a new thing, or its note.
struct NewThing {
    std::string entry;   // in its table's lines
    std::string lines;   // below a header of its own
};

NewThing said_of(const OpenWorld& world, const AddThing& add) {
    NewThing said;
    const std::string name = toml_text::key(add.name);
    if (is_noted(add.thing)) {
        said.entry = fmt::format("{} = {}", name, note_in(add.thing, add.name, add.values));
        return said;
    }
    const std::string what = what_is(add.thing, add.name);
    const PropertyTypes types = types_of(world, add.thing, add.values, add.name);
    said.entry = fmt::format("{} = {}", name, new_keys(add.thing, what, types, add.values, true).table());
    said.lines =
        fmt::format("[{}s.{}]\n{}", add.thing, name, new_keys(add.thing, what, types, add.values, false).lines());
    said.lines.pop_back();
    return said;
}

void put_in(TextEdits& text, const toml::table& tree, const std::string& key, const NewThing& said) {
    const TextTables tables(text, tree);
    const toml::table* things = table_in(tree, key);
    const std::vector<TextSpan> parts = tables.parts({key});
    const bool by_lines = tables.has_header({key}) || (things != nullptr && parts.empty());
    if (by_lines && things != nullptr && (tables.has_header({key}) || things->is_inline())) {
        append_entry(text, *things, said.entry);
    } else if (by_lines) {   // facts.this = "…" in the file's first lines
        append_entry(text, *things, fmt::format("{}.{}", key, said.entry));
    } else {
        const std::string part =
            with_line_breaks(text, said.lines.empty() ? fmt::format("[{}]\n{}", key, said.entry) : said.lines);
        insert_part(text, parts.empty() ? text.text().size() : parts.back().end, part);
    }
}

}   // namespace

void edit(OpenWorld& world, const AddThing& add) {
    const std::string key = table_of_things(add.thing);
    change_file(world, world.file, [&](TextEdits& text, const toml::table& tree) -> std::size_t {
        if (const toml::table* things = table_in(tree, key); things != nullptr && things->contains(add.name))
            throw EditFault(fmt::format("the world has a {} '{}' already", add.thing, add.name));
        put_in(text, tree, key, said_of(world, add));
        return 1;
    });
}

void edit(OpenWorld& world, const GiveThing& give) {
    change_file(world, world.file, [&](TextEdits& text, const toml::table& tree) -> std::size_t {
        const toml::node& node = thing_in(tree, give.thing, give.name);
        if (is_noted(give.thing)) {
            text.replace(node, note_in(give.thing, give.name, give.values));
            return 1;
        }
        const toml::table* table = node.as_table();
        if (table == nullptr) throw EditFault(fmt::format("{} is not a table", what_is(give.thing, give.name)));
        return set_keys(text, *table, give.thing, what_is(give.thing, give.name),
                        types_of(world, give.thing, give.values, give.name), give.values);
    });
}

void edit(OpenWorld& world, const DropThing& drop) {
    change_file(world, world.file, [&](TextEdits& text, const toml::table& tree) -> std::size_t {
        (void)thing_in(tree, drop.thing, drop.name);
        if (!drop_named(text, tree, table_of_things(drop.thing), drop.name))
            throw EditFault(fmt::format("{} is written in lines among those of other things: remove it by hand",
                                        what_is(drop.thing, drop.name)));
        return 1;
    });
}

namespace {

// Returns a value in one of the world's own tables, as TOML.
std::string inner_toml(const std::string& table, const std::string& key, const std::string& value) {
    if (table == "merging") return typed_key(table, "[merging]", {}, key, value);
    if (table == "goals") {
        std::vector<std::string> items;
        for (const std::string& word : words_in(value)) items.push_back(in_quotes(word));
        return toml_text::list(items);
    }
    if (table == "check") return in_quotes(value);
    if (table == "limits" || table == "map_props" || table == "layer_props") return value;
    throw EditFault(
        fmt::format("the world has no key '{}.{}': keys of its tables are check.RULE, goals.…, limits.…, merging.…, "
                    "map_props.… and layer_props.…",
                    table, key));
}

std::size_t set_inner(TextEdits& text, const toml::table& tree, const std::string& table, const GivenKeys& values) {
    std::string lines;
    const toml::table* inner = table_in(tree, table);
    for (const auto& [key, value] : values) {
        const std::string toml = inner_toml(table, key, value);
        if (const toml::node* old = inner != nullptr ? inner->get(key) : nullptr)
            text.replace(*old, toml);
        else
            lines += fmt::format("{} = {}\n", toml_text::key(key), toml);
    }
    if (lines.empty()) return values.size();
    lines.pop_back();
    put_in(text, tree, table, {lines, {}});
    return values.size();
}

}   // namespace

void edit(OpenWorld& world, const GiveWorld& give) {
    change_file(world, world.file, [&](TextEdits& text, const toml::table& tree) -> std::size_t {
        std::vector<std::pair<std::string, GivenKeys>> inner;   // by table: merging, check, limits
        GivenKeys own;
        for (const auto& [key, value] : give.values) {
            const std::size_t dot = key.find('.');
            if (dot == std::string::npos) {
                own.emplace_back(key, value);
                continue;
            }
            const std::string table = key.substr(0, dot);
            if (inner.empty() || inner.back().first != table) inner.emplace_back(table, GivenKeys{});
            inner.back().second.emplace_back(key.substr(dot + 1), value);
        }
        std::size_t count = set_keys(text, tree, "world", "the world", {}, own);
        for (const auto& [table, values] : inner) count += set_inner(text, tree, table, values);
        return count;
    });
}

}   // namespace dryground::files
