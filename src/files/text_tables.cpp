// Whole tables and list items of a TOML text: found, added and removed.
//
// Comments directly above a table belong to it; indentation and line ends follow what is there.

#include "text_tables_internal.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <filesystem>

#include "toml_text_internal.hpp"

namespace dryground::files {

namespace {

bool is_header(const TextEdits& text, std::size_t at) { return at < text.text().size() && text.text()[at] == '['; }

// Returns where the comments begin that stand directly above a line.
std::size_t with_notes(const TextEdits& text, std::size_t line) {
    for (std::size_t start = text.line_start(line);;) {
        if (start == 0) return start;
        const std::size_t above = text.line_start(start - 1);
        const std::size_t first = text.text().find_first_not_of(" \t", above);
        if (first >= start || text.text()[first] != '#') return start;
        const std::string_view over = std::string_view(text.text()).substr(above, start - above);
        if (over.find("'''") != std::string_view::npos || over.find("\"\"\"") != std::string_view::npos)
            return start;   // the last row of some layer's cells
        start = above;
    }
}

struct Found {
    TablePath path;
    std::size_t at;
};

void find_headers(const TextEdits& text, const toml::table& table, const TablePath& path, std::vector<Found>& found) {
    const auto into = [&](const toml::table& inner, const TablePath& way) {
        if (inner.is_inline()) return;
        const std::size_t at = text.offset(inner.source().begin);
        if (is_header(text, at)) found.push_back({way, at});
        find_headers(text, inner, way, found);
    };
    for (const auto& [key, node] : table) {
        TablePath way = path;
        way.emplace_back(key.str());
        if (const toml::table* inner = node.as_table()) into(*inner, way);
        const toml::array* list = node.as_array();
        if (list == nullptr || !node.is_array_of_tables()) continue;
        for (std::size_t i = 0; i < list->size(); ++i) {
            TablePath item = way;
            item.push_back(std::to_string(i));
            into(*(*list)[i].as_table(), item);
        }
    }
}

bool begins_with(const TablePath& path, const TablePath& with) {
    return path.size() >= with.size() && std::equal(with.begin(), with.end(), path.begin());
}

std::size_t end_of(const TextEdits& text, const toml::table& table) {
    std::size_t end = text.offset(table.source().begin);
    if (is_header(text, end)) end = text.offset(table.source().end);
    for (const auto& [key, node] : table)
        if (!node.is_array_of_tables() && (!node.is_table() || node.as_table()->is_inline()))
            end = std::max(end, text.offset(node.source().end));
    return end;
}

}   // namespace

TextTables::TextTables(const TextEdits& text, const toml::table& root) {
    std::vector<Found> found;
    find_headers(text, root, {}, found);
    // A table that only exists for what is inside it has the place of that: the innermost is the one with the header.
    std::stable_sort(found.begin(), found.end(), [](const Found& a, const Found& b) {
        return a.at != b.at ? a.at < b.at : a.path.size() > b.path.size();
    });
    for (std::size_t i = 0; i < found.size(); ++i) {
        if (i > 0 && found[i].at == found[i - 1].at) continue;
        const std::size_t begin = with_notes(text, found[i].at);
        if (!parts_.empty()) parts_.back().span.end = begin;
        parts_.push_back({found[i].path, {begin, text.text().size()}});
    }
}

std::vector<TextSpan> TextTables::parts(const TablePath& path) const {
    std::vector<TextSpan> spans;
    for (const Part& part : parts_)
        if (begins_with(part.path, path)) spans.push_back(part.span);
    return spans;
}

bool TextTables::has_header(const TablePath& path) const {
    return std::any_of(parts_.begin(), parts_.end(), [&](const Part& part) { return part.path == path; });
}

void append_entry(TextEdits& text, const toml::table& table, const std::string& entry) {
    if (table.is_inline()) {
        const std::size_t end = text.offset(table.source().end) - 1;
        const bool spaced = text.text()[end - 1] == ' ';
        text.insert(spaced ? end - 1 : end, fmt::format("{} {}", table.empty() ? "" : ",", entry));
        return;
    }
    text.insert(text.line_end(end_of(text, table)), text.line_break() + entry);
}

void append_item(TextEdits& text, const toml::table& table, const std::string& list, const std::string& item,
                 const std::string& after) {
    const toml::node* node = table.get(list);
    const toml::array* items = node != nullptr ? node->as_array() : nullptr;
    if (items == nullptr) {
        const toml::node* before = table.get(after);
        const std::size_t at = before != nullptr ? text.line_end(text.offset(before->source().end)) : 0;
        const std::string entry = fmt::format("{} = [{}]", list, item);
        text.insert(at, before != nullptr ? text.line_break() + entry : entry + text.line_break());
        return;
    }
    if (items->empty()) {
        text.replace(*items, fmt::format("[{}]", item));
        return;
    }
    // Indented as the last one is; after its comma and any comment on its line.
    const toml::node& last = items->back();
    const std::size_t begin = text.offset(last.source().begin), end = text.offset(last.source().end);
    const std::size_t start = text.line_start(begin);
    const std::string indent = text.text().substr(start, begin - start);
    if (indent.find_first_not_of(" \t") != std::string::npos) {
        text.insert(end, ", " + item);
        return;
    }
    const std::size_t next = text.text().find_first_not_of(" \t", end);
    if (next == std::string::npos || text.text()[next] != ',') text.insert(end, ",");
    text.insert(text.line_end(end), fmt::format("{}{}{},", text.line_break(), indent, item));
}

bool enter_in_list(TextEdits& text, const toml::table& world, const std::string& list, const std::string& file) {
    const toml::node* node = world.get(list);
    if (node != nullptr && !node->is_array()) return false;
    if (node != nullptr)
        for (const toml::node& item : *node->as_array())
            if (std::filesystem::path(item.value_or(std::string())).lexically_normal() == std::filesystem::path(file))
                return false;
    append_item(text, world, list, toml_text::in_quotes(file), "format");
    return true;
}

void drop_item(TextEdits& text, const toml::node& item) {
    const std::string& all = text.text();
    std::size_t begin = text.offset(item.source().begin), end = text.offset(item.source().end);
    std::size_t after = all.find_first_not_of(" \t", end);
    const bool comma = after != std::string::npos && all[after] == ',';
    if (comma) end = after + 1;
    const std::size_t start = text.line_start(begin);
    after = all.find_first_not_of(" \t\r", end);
    const bool alone = all.find_first_not_of(" \t", start) == begin &&
                       (after == std::string::npos || all[after] == '\n' || all[after] == '#');
    if (alone) {
        text.replace(start, std::min(all.find('\n', end), all.size() - 1) + 1, "");
    } else if (comma) {
        text.replace(begin, std::min(after, all.size()), "");
    } else {   // the last of its line: the comma before it is removed
        const std::size_t before = all.find_last_not_of(" \t\r\n", begin - 1);
        text.replace(before != std::string::npos && all[before] == ',' ? before : begin, end, "");
    }
}

void drop_parts(TextEdits& text, const std::vector<TextSpan>& parts) {
    for (const TextSpan& part : parts) {
        std::size_t begin = part.begin;
        if (part.end == text.text().size()) {   // what was last leaves no empty lines
            const std::size_t last =
                begin == 0 ? std::string::npos : text.text().find_last_not_of(" \t\r\n", begin - 1);
            begin = last == std::string::npos ? 0 : text.line_end(last) + text.line_break().size();
        }
        text.replace(begin, part.end, "");
    }
}

namespace {

// Removes it with its key and its comma, from a table on one line.
void drop_inline(TextEdits& text, const toml::key& name, const toml::node& item) {
    const std::string& all = text.text();
    const std::size_t begin = text.offset(name.source().begin), end = text.offset(item.source().end);
    const std::size_t next = all.find_first_not_of(" \t", end), before = all.find_last_not_of(" \t", begin - 1);
    if (all[next] == ',')
        text.replace(begin, all.find_first_not_of(" \t", next + 1), "");
    else
        text.replace(all[before] == ',' ? before : begin, end, "");
}

}   // namespace

bool drop_named(TextEdits& text, const toml::table& tree, const std::string& table, const std::string& name) {
    const toml::table* things = tree[table].as_table();
    const toml::node* node = things != nullptr ? things->get(name) : nullptr;
    if (node == nullptr) return false;
    const auto entry =
        std::find_if(things->begin(), things->end(), [&](const auto& one) { return one.first.str() == name; });
    if (things->is_inline()) {
        drop_inline(text, entry->first, *node);
        return true;
    }
    if (const std::vector<TextSpan> parts = TextTables(text, tree).parts({table, name}); !parts.empty()) {
        drop_parts(text, parts);
        return true;
    }
    if (node->is_table() && !node->as_table()->is_inline()) return false;   // its keys are lines among others
    const std::size_t begin = text.line_start(text.offset(entry->first.source().begin));
    const std::size_t end = text.line_end(text.offset(node->source().end));
    text.replace(begin, std::min(end + text.line_break().size(), text.text().size()), "");
    return true;
}

void insert_part(TextEdits& text, std::size_t at, const std::string& part) {
    const std::string& all = text.text();
    const std::string line_break = text.line_break();
    if (at < all.size()) {
        text.insert(at, part + line_break + line_break);
        return;
    }
    const bool ends_its_line = all.empty() || all.back() == '\n';
    text.insert(at, (ends_its_line ? "" : line_break) + line_break + part + line_break);
}

std::string part_text(const TextEdits& text, const TextSpan& part) {
    const std::string all = text.text().substr(part.begin, part.end - part.begin);
    return all.substr(0, all.find_last_not_of(" \t\r\n") + 1);
}

std::string with_line_breaks(const TextEdits& text, std::string lines) {
    for (std::size_t at = 0; text.line_break() != "\n" && (at = lines.find('\n', at)) != std::string::npos; at += 2)
        lines.insert(at, "\r");
    return lines;
}

}   // namespace dryground::files
