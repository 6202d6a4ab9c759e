// Sets keys where they are written: the type of a value follows from the lists of keys.

#include <fmt/format.h>

#include <algorithm>

#include "edit_internal.hpp"
#include "keys/listing_internal.hpp"
#include "text_keys_internal.hpp"
#include "text_tables_internal.hpp"
#include "toml_text_internal.hpp"

namespace dryground::files {

namespace {

using keys::Sort;
using toml_text::in_quotes;

const keys::Entry* find_key(std::string_view thing, std::string_view name) {
    for (const keys::Entry& entry : keys::thing(thing).entries)
        if (entry.key.name == name) return &entry;
    return nullptr;
}

[[noreturn]] void refuse(const std::string& key, const std::string& value, const std::string& should_be) {
    throw EditFault(fmt::format("'{}' is '{}', but should be {}", key, value, should_be));
}

// Returns a value that is TOML already; its meaning is checked when the file is read again.
std::string as_toml(const std::string& key, const std::string& value, const char* should_be) {
    const toml::parse_result parsed = toml::parse("v = " + value);
    if (!parsed || parsed.table().size() != 1 || value.find('\n') != std::string::npos) refuse(key, value, should_be);
    return value;
}

std::string one_of(const keys::Entry& entry, const std::string& value) {
    const auto& words = entry.key.words;
    if (std::find(words.begin(), words.end(), value) != words.end())
        return entry.sort == Sort::whole ? value : in_quotes(value);
    const auto nearest = nearest_name(value, std::vector<std::string>(words.begin(), words.end()));
    refuse(std::string(entry.key.name), value,
           fmt::format("one of {}{}", fmt::join(words, ", "),
                       nearest ? fmt::format("; did you mean '{}'?", *nearest) : ""));
}

std::string number_text(const keys::Entry& entry, const std::string& value, bool whole) {
    const std::string key(entry.key.name);
    const auto number = number_of(value);
    if (!number || (whole && (*number != std::floor(*number) || std::abs(*number) > 1e9)))
        refuse(key, value, whole ? "a whole number" : "a number");
    if (*number < entry.key.least) refuse(key, value, fmt::format("{} or more", entry.key.least));
    if (*number > entry.key.most) refuse(key, value, fmt::format("{} at most", entry.key.most));
    return whole ? fmt::format("{}", static_cast<std::int64_t>(*number)) : toml_text::number(*number);
}

std::string numbers_text(const keys::Entry& entry, const std::string& value, bool whole) {
    std::string bare = value;
    std::erase_if(bare, [](char c) { return c == '[' || c == ']'; });
    std::vector<std::string> items;
    for (const std::string& word : words_in(bare)) items.push_back(number_text(entry, word, whole));
    if (entry.sort != Sort::weights && items.size() != static_cast<std::size_t>(entry.count))
        refuse(std::string(entry.key.name), value,
               fmt::format("{} {}, as in {}", entry.count, whole ? "whole numbers" : "numbers",
                           entry.count == 2 ? "8,16" : "0,8,16,8"));
    return toml_text::list(items);
}

std::string typed(const keys::Entry& entry, const std::string& value) {
    const std::string key(entry.key.name);
    switch (entry.sort) {
        case Sort::yes_no:
            if (value != "true" && value != "false") refuse(key, value, "true or false");
            return value;
        case Sort::whole:
            return entry.key.words.empty() ? number_text(entry, value, true) : one_of(entry, value);
        case Sort::number:
            return number_text(entry, value, false);
        case Sort::text:
            return entry.key.words.empty() ? in_quotes(value) : one_of(entry, value);
        case Sort::colour:
            if (!colour_from(value)) refuse(key, value, "like #7a5c3a");
            return in_quotes(value);
        case Sort::texts: {
            if (!value.empty() && value.front() == '[') return as_toml(key, value, "a list of texts");
            std::vector<std::string> items;
            for (const std::string& word : words_in(value)) items.push_back(in_quotes(word));
            return toml_text::list(items);
        }
        case Sort::wholes:
            return numbers_text(entry, value, true);
        case Sort::numbers:
        case Sort::weights:
            return numbers_text(entry, value, false);
        case Sort::shapes:   // one word, or a list as TOML
            return !value.empty() && value.front() != '[' ? toml_text::list({in_quotes(value)})
                                                          : as_toml(key, value, "a list of shapes");
        case Sort::shape:
            return !value.empty() && value.front() != '{' ? in_quotes(value) : as_toml(key, value, "a shape");
        case Sort::rows:
        case Sort::tables:
        case Sort::named_tables:
            throw EditFault(fmt::format("'{}' cannot be set from the command line: edit it in the file", key));
        default:
            return as_toml(key, value, "a TOML value, for example { friction = 0.5 }");
    }
}

// Returns a value of a property: texts need no quotes.
std::string typed(const FieldDraft& field, const std::string& value) {
    const std::string& type = field.type.value;
    const bool bare = type == "yes_no" || type == "whole" || type == "number" || type == "place" || type == "list";
    if (!bare) return in_quotes(value);
    const bool brackets = (type == "place" || type == "list") && !value.empty() && value.front() != '[';
    std::string toml = brackets ? fmt::format("[{}]", value) : value;
    const toml::parse_result parsed = toml::parse("v = " + toml);
    if (!parsed || parsed.table().size() != 1 || value.find('\n') != std::string::npos ||
        value.find('#') != std::string::npos)
        throw EditFault(
            fmt::format("'{}' cannot be the value of property '{}', whose type is {}", value, field.name.value, type));
    return toml;
}

// Returns the name of a property, if a key is not one of the thing's own.
std::string property_name(std::string_view thing, const std::string& key) {
    if (key.rfind("props.", 0) == 0) return key.substr(6);
    return find_key(thing, key) == nullptr ? key : std::string();
}

// Returns whether a value declares a kind's property: its type and what goes with it.
bool declares(std::string_view thing, const std::string& key, const std::string& value) {
    return thing == "kind" && key.rfind("props.", 0) == 0 && !value.empty() && value.front() == '{';
}

[[noreturn]] void no_such_key(std::string_view thing, const std::string& what, const PropertyTypes& types,
                              const std::string& key) {
    std::vector<std::string> names, properties;
    for (const keys::Entry& entry : keys::thing(thing).entries) names.emplace_back(entry.key.name);
    for (const auto& [name, type] : types) properties.push_back(name);
    names.insert(names.end(), properties.begin(), properties.end());
    const auto nearest = nearest_name(key, names);
    throw EditFault(fmt::format(
        "{} has no key and no property '{}'; {}", what, key,
        nearest ? fmt::format("did you mean '{}'?", *nearest)
                : fmt::format("`dryground keys {}` lists its keys{}", thing,
                              properties.empty() ? std::string()
                                                 : fmt::format("; its properties: {}", fmt::join(properties, ", ")))));
}

// Returns another key of the same group in the table, which this one replaces.
const toml::key* rival_of(const toml::table& table, std::string_view thing, const keys::Entry& entry) {
    if (entry.group < 0) return nullptr;
    for (const auto& [key, node] : table)
        if (const keys::Entry* other = find_key(thing, key.str()); other != nullptr && other->group == entry.group)
            return &key;
    return nullptr;
}

}   // namespace

std::string typed_key(std::string_view thing, const std::string& what, const PropertyTypes& types,
                      const std::string& key, const std::string& value) {
    const std::string property = property_name(thing, key);
    if (property.empty()) return typed(*find_key(thing, key), value);
    if (declares(thing, key, value))
        return as_toml(key, value, "a declaration, as in { type = 'number', default = 32 }");
    const auto type = types.find(property);
    if (type == types.end()) no_such_key(thing, what, types, property);
    return typed(*type->second, value);
}

std::size_t set_keys(TextEdits& text, const toml::table& table, std::string_view thing, const std::string& what,
                     const PropertyTypes& types, const GivenKeys& values) {
    const toml::table* props = table["props"].as_table();
    toml_text::Pairs more;
    for (const auto& [key, value] : values) {
        const std::string toml = typed_key(thing, what, types, key, value), property = property_name(thing, key);
        if (property.empty()) {
            const keys::Entry& entry = *find_key(thing, key);
            if (entry.key.names_it)
                throw EditFault(
                    fmt::format("other places may refer to {} by its name: rename it in all files by hand", what));
            const toml::node* old = table.get(key);
            const toml::key* rival = old != nullptr ? nullptr : rival_of(table, thing, entry);
            if (old != nullptr) {
                text.replace(*old, toml);
            } else if (rival != nullptr) {
                text.replace(text.offset(rival->source().begin), text.offset(rival->source().end), key);
                text.replace(*table.get(rival->str()), toml);
            } else {
                append_entry(text, table, fmt::format("{} = {}", key, toml));
            }
        } else if (const toml::node* old = props != nullptr ? props->get(property) : nullptr) {
            const toml::table* declared = old->as_table();   // of a kind: its default is what changes
            if (declared == nullptr || declares(thing, key, value))
                text.replace(*old, toml);
            else if (const toml::node* standard = declared->get("default"))
                text.replace(*standard, toml);
            else
                append_entry(text, *declared, fmt::format("default = {}", toml));
        } else if (props != nullptr && (props->is_inline() || text.text()[text.offset(props->source().begin)] == '[')) {
            append_entry(text, *props, fmt::format("{} = {}", toml_text::key(property), toml));
        } else if (props != nullptr || !table.is_inline()) {   // props.this = that
            append_entry(text, table, fmt::format("props.{} = {}", toml_text::key(property), toml));
        } else {
            more.add(property, toml);
        }
    }
    if (!more.empty()) append_entry(text, table, fmt::format("props = {}", more.table()));
    return values.size();
}

toml_text::Pairs new_keys(std::string_view thing, const std::string& what, const PropertyTypes& types,
                          const GivenKeys& values, bool inline_table) {
    toml_text::Pairs pairs, props;
    for (const auto& [key, value] : values) {
        const std::string toml = typed_key(thing, what, types, key, value), property = property_name(thing, key);
        if (property.empty())
            pairs.add(key, toml);
        else if (inline_table)
            props.add(property, toml);
        else
            pairs.add_path("props", property, toml);
    }
    if (!props.empty()) pairs.add("props", props.table());
    return pairs;
}

bool holds_places(const FieldDraft& field) {
    const std::string& type = field.type.value;
    return type == "place" || (type == "list" && !field.of.empty() && field.of.front().value == "place");
}

PropertyTypes properties_of(const std::vector<FieldDraft>& fields) {
    PropertyTypes types;
    for (const FieldDraft& field : fields) types.emplace(field.name.value, &field);
    return types;
}

PropertyTypes properties_of(const WorldDraft& world, const std::string& kind_name) {
    PropertyTypes types;
    std::string name = kind_name;
    for (int depth = 0; depth < 64; ++depth) {
        const auto kind = std::find_if(world.kinds.begin(), world.kinds.end(),
                                       [&](const KindDraft& one) { return one.name.value == name; });
        if (kind == world.kinds.end()) break;
        for (const auto& [property, type] : properties_of(kind->fields)) types.emplace(property, type);
        if (!kind->like) break;
        name = kind->like->value;
    }
    return types;
}

void edit(OpenMap& map, const GiveLayer& give) {
    std::vector<std::string> names;
    for (const LayerDraft& layer : map.draft.layers) names.push_back(layer.name.value);
    const auto found = std::find(names.begin(), names.end(), give.layer);
    const bool only_one = give.layer.empty() && names.size() == 1;
    if (found == names.end() && !only_one) {
        const auto nearest = nearest_name(give.layer, names);
        throw EditFault(give.layer.empty() ? fmt::format("which layer? the map has {}", fmt::join(names, ", "))
                                           : fmt::format("the map has no layer '{}'{}", give.layer,
                                                         nearest ? fmt::format("; did you mean '{}'?", *nearest) : ""));
    }
    const auto layer = only_one ? std::size_t{0} : static_cast<std::size_t>(found - names.begin());
    map.count += set_keys(map.text, map.layer_tree(layer), "layer", fmt::format("layer '{}'", names[layer]),
                          properties_of(map.world.layer_fields), give.values);
}

void edit(OpenMap& map, const GiveMap& give) {
    map.count += set_keys(map.text, map.tree, "map", fmt::format("map '{}'", map.draft.name.value),
                          properties_of(map.world.map_fields), give.values);
}

}   // namespace dryground::files
