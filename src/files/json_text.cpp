// JSON as we write it: indented for people, with points and short lists on one line.

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <cstdint>

#include "json_internal.hpp"

namespace dryground::files {

namespace {

// Returns how many levels of lists and tables are in a value; plain values have none.
int depth(const Json& value) {
    if (!value.is_structured()) return 0;
    int deepest = 0;
    for (const Json& item : value) deepest = std::max(deepest, depth(item));
    return deepest + 1;
}

void write_plain(std::string& out, const Json& value) {
    if (value.is_number_float())
        fmt::format_to(std::back_inserter(out), "{}", value.get<double>() + 0.0);   // no minus zero
    else
        out += value.dump();
}

void write(std::string& out, const Json& value, int indent) {
    if (!value.is_structured() || value.empty()) {
        write_plain(out, value);
        return;
    }
    // Points, rings and small tables stay on one line.
    const int deep = depth(value);
    const bool on_one_line = value.is_array() ? deep <= 2 : deep <= 1 && value.size() <= 4;
    const std::string line_break =
        on_one_line ? (value.is_array() ? "" : " ") : "\n" + std::string(static_cast<std::size_t>(indent) + 2, ' ');
    out += value.is_array() ? '[' : '{';
    bool first = true;
    for (auto item = value.begin(); item != value.end(); ++item) {
        if (!first) out += on_one_line ? ", " : ",";
        if (first || !on_one_line) out += line_break;
        first = false;
        if (value.is_object()) out += Json(item.key()).dump() + ": ";
        write(out, *item, indent + 2);
    }
    if (!on_one_line)
        out += "\n" + std::string(static_cast<std::size_t>(indent), ' ');
    else if (value.is_object())
        out += " ";
    out += value.is_array() ? ']' : '}';
}

// Without a space.
void write(std::string& out, const Json& value) {
    if (!value.is_structured()) {
        write_plain(out, value);
        return;
    }
    out += value.is_array() ? '[' : '{';
    bool first = true;
    for (auto item = value.begin(); item != value.end(); ++item) {
        if (!first) out += ',';
        first = false;
        if (value.is_object()) out += Json(item.key()).dump() + ":";
        write(out, *item);
    }
    out += value.is_array() ? ']' : '}';
}

}   // namespace

void add_json(std::string& text, const Json& value, int indent, Spaces spaces) {
    if (spaces == Spaces::some)
        write(text, value, indent);
    else
        write(text, value);
}

Json number_json(double number) {
    constexpr double most = 9007199254740992.0;   // 2^53: all whole numbers up to it are exact
    const bool is_whole = number == std::floor(number) && std::abs(number) <= most;
    return is_whole ? Json(static_cast<std::int64_t>(number)) : Json(number);
}

std::string json_text(const Json& value) {
    std::string out;
    write(out, value, 0);
    return out + "\n";
}

}   // namespace dryground::files
