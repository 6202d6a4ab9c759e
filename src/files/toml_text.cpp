// Writes TOML: texts, numbers, lists, inline tables.

#include "toml_text_internal.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace dryground::files::toml_text {

namespace {

bool is_control(char c) { return (static_cast<unsigned char>(c) < 0x20 && c != '\t') || c == 0x7f; }

std::string escaped(std::string_view text, bool keep_quotes) {
    std::string out;
    for (const char c : text) {
        if (c == '\\' || (c == '"' && !keep_quotes))
            out += {'\\', c};
        else if (c == '\n')
            out += "\\n";
        else if (c == '\r')
            out += "\\r";
        else if (is_control(c))
            out += fmt::format("\\u{:04X}", static_cast<unsigned char>(c));
        else
            out += c;
    }
    return out;
}

}   // namespace

std::string in_quotes(std::string_view text) { return "\"" + escaped(text, false) + "\""; }

std::string key(std::string_view name) {
    const bool bare = !name.empty() && std::all_of(name.begin(), name.end(), [](char c) {
        return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') || c == '_' || c == '-';
    });
    return bare ? std::string(name) : in_quotes(name);
}

std::string number(double value) {
    if (std::isnan(value)) return "nan";
    if (std::isinf(value)) return value > 0 ? "inf" : "-inf";
    if (value == std::floor(value) && std::abs(value) < 1e15)
        return fmt::format("{}", static_cast<std::int64_t>(value));
    return fmt::format("{}", value);
}

std::string value(const Value& value) {
    if (const auto* yes = std::get_if<bool>(&value.is)) return *yes ? "true" : "false";
    if (const auto* whole = std::get_if<std::int64_t>(&value.is)) return fmt::format("{}", *whole);
    if (const auto* real = std::get_if<double>(&value.is)) {
        std::string digits = number(*real);
        if (digits.find_first_not_of("-0123456789") == std::string::npos) digits += ".0";
        return digits;
    }
    if (const auto* text = std::get_if<std::string>(&value.is)) return in_quotes(*text);
    if (const auto* place = std::get_if<std::array<double, 2>>(&value.is)) return numbers({(*place)[0], (*place)[1]});
    std::vector<std::string> items;
    for (const Value& item : std::get<Value::List>(value.is)) items.push_back(toml_text::value(item));
    return list(items);
}

std::string list(const std::vector<std::string>& items) { return fmt::format("[{}]", fmt::join(items, ", ")); }

std::string list_by_line(const std::vector<std::string>& items) {
    std::string out = "[\n";
    for (const std::string& item : items) out += fmt::format("  {},\n", item);
    return out + "]";
}

std::string names(const Names& names) {
    std::vector<std::string> items;
    for (const Name& name : names) items.push_back(in_quotes(name.value));
    return list(items);
}

std::string texts(const std::vector<std::string>& texts) {
    std::vector<std::string> items;
    for (const std::string& text : texts) items.push_back(in_quotes(text));
    return list(items);
}

std::string numbers(std::initializer_list<double> numbers) {
    std::vector<std::string> items;
    for (const double one : numbers) items.push_back(number(one));
    return list(items);
}

std::string points(const std::vector<std::array<double, 2>>& points) {
    std::vector<std::string> items;
    for (const auto& [x, y] : points) items.push_back(numbers({x, y}));
    return list(items);
}

// Writes a literal text if possible, so that it looks like the map.
std::string rows(const std::vector<std::string_view>& rows) {
    const bool literal = std::none_of(rows.begin(), rows.end(), [](std::string_view row) {
        return row.find("'''") != std::string_view::npos || std::any_of(row.begin(), row.end(), is_control);
    });
    std::string out = literal ? "'''\n" : "\"\"\"\n";
    for (const std::string_view row : rows) {
        out += literal ? std::string(row) : escaped(row, false);
        out += '\n';
    }
    return out + (literal ? "'''" : "\"\"\"");
}

void Pairs::add_properties(const SaidProperties& props) {
    if (props.empty()) return;
    Pairs inner;
    for (const auto& [name, said] : props) inner.add(name, value(said.value));
    add("props", inner.table());
}

std::string Pairs::lines() const {
    std::string out;
    for (const auto& [name, toml] : pairs_) out += fmt::format("{} = {}\n", name, toml);
    return out;
}

std::string Pairs::table() const {
    if (pairs_.empty()) return "{}";
    std::vector<std::string> items;
    for (const auto& [name, toml] : pairs_) items.push_back(fmt::format("{} = {}", name, toml));
    return fmt::format("{{ {} }}", fmt::join(items, ", "));
}

}   // namespace dryground::files::toml_text
