// Tables of keys for people, in Markdown.

#include <fmt/format.h>

#include "dryground/keys.hpp"
#include "listing_internal.hpp"

namespace dryground {

namespace {

using keys::Entry;
using keys::Sort;

std::string with_unit(const Entry& entry, std::string words) {
    return entry.key.unit.empty() ? words : fmt::format("{} {}", words, entry.key.unit);
}

std::string words_of_sort(const Entry& entry) {
    const keys::Key& key = entry.key;
    if (!key.words.empty() && entry.sort != Sort::sides && entry.sort != Sort::severities)
        return fmt::format("`{}`", fmt::join(key.words, " "));
    switch (entry.sort) {
        case Sort::yes_no:
            return "true or false";
        case Sort::whole:
            return with_unit(entry, "whole number");
        case Sort::number:
            return with_unit(entry, "number");
        case Sort::text:
            return key.names_it          ? "name of its own"
                   : key.is_path         ? "path"
                   : !key.refers.empty() ? fmt::format("name: {}", key.refers)
                                         : "text";
        case Sort::texts:
            return key.is_path ? "paths" : !key.refers.empty() ? fmt::format("names: {}", key.refers) : "texts";
        case Sort::wholes:
            return with_unit(entry, fmt::format("{} whole numbers", entry.count));
        case Sort::numbers:
            return with_unit(entry, fmt::format("{} numbers", entry.count));
        case Sort::weights:
            return "list of numbers";
        case Sort::points:
            return with_unit(entry, "points,");
        case Sort::holes:
            return with_unit(entry, "lists of points,");
        case Sort::rows:
            return "lines of text";
        case Sort::colour:
            return "colour";
        case Sort::value:
            return "value";
        case Sort::legend:
            return "legend";
        case Sort::shape:
            return "shape";
        case Sort::shapes:
            return "list of shapes";
        case Sort::named_shapes:
            return "shapes by name";
        case Sort::properties:
            return "values by name";
        case Sort::property_types:
        case Sort::kind_properties:
            return "properties by name";
        case Sort::notes:
            return "notes by name";
        case Sort::numbers_by_name:
            return "whole numbers by name";
        case Sort::severities:
            return fmt::format("`{}` by rule", fmt::join(key.words, " "));
        case Sort::sides:
            return fmt::format("`{}` by side", fmt::join(key.words, " "));
        case Sort::tables:
            return "list of tables";
        case Sort::named_tables:
            return "tables by name";
        case Sort::picture:
        case Sort::surface:
        case Sort::trace:
        case Sort::goals:
        case Sort::table:
            return "table";
    }
    return {};
}

std::string range_of(const keys::Key& key) {
    const bool from = key.least > -1e300, to = key.most < 1e300;
    if (from && to) return fmt::format("; {} to {}", key.least, key.most);
    if (from) return fmt::format("; {} or more", key.least);
    return {};
}

std::string in_cell(std::string text) {   // a bar would end the cell
    for (std::size_t at = 0; (at = text.find('|', at)) != std::string::npos; at += 2) text.insert(at, "\\");
    return text;
}

}   // namespace

std::vector<std::string_view> things_with_keys() {
    std::vector<std::string_view> names;
    for (const keys::Thing& thing : keys::all_things()) names.push_back(thing.name);
    return names;
}

std::string key_page(std::string_view name) {
    const keys::Thing& thing = keys::thing(name);
    std::string out = fmt::format("## {}\n\nKeys of {}.\n\n| key | type | default | meaning |\n|---|---|---|---|\n",
                                  thing.name, thing.says);
    for (const Entry& entry : thing.entries) {
        const keys::Key& key = entry.key;
        const std::string standard = key.required             ? "required"
                                     : entry.group >= 0       ? "one of these"
                                     : entry.standard.empty() ? ""
                                                              : fmt::format("`{}`", entry.standard);
        std::string says(key.says);
        if (!key.example.empty() && key.example.find("…") == std::string_view::npos && key.example.rfind("[[", 0) != 0)
            says += entry.sort == Sort::tables ? fmt::format(": `{} = [{}]`", key.name, key.example)
                                               : fmt::format(": `{} = {}`", key.name, key.example);
        out += fmt::format("| `{}` | {}{} | {} | {} |\n", key.name, words_of_sort(entry), range_of(key), standard,
                           in_cell(std::move(says)));
    }
    return out;
}

}   // namespace dryground
