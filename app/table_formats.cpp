// A table as text in columns, as CSV and as JSON.

#include <fmt/format.h>

#include <algorithm>

#include "dryground/text.hpp"
#include "tables.hpp"

namespace app {

namespace dg = dryground;

namespace {

std::string plain(const Json& cell) {
    return cell.is_string()    ? cell.get<std::string>()
           : cell.is_boolean() ? (cell.get<bool>() ? "yes" : "no")
                               : cell.dump();
}

}   // namespace

std::string as_text(const Table& table) {
    const auto width = [](const std::string& text) { return dg::count_characters(text); };
    std::vector<std::size_t> widths;
    for (const std::string& column : table.columns) widths.push_back(width(column));
    for (const auto& row : table.rows)
        for (std::size_t c = 0; c < row.size(); ++c) widths[c] = std::max(widths[c], width(plain(row[c])));
    std::string text;
    const auto put = [&](std::size_t c, const std::string& cell, bool right) {
        const std::string space(widths[c] - width(cell), ' ');
        text += (c > 0 ? "  " : "") + (right ? space + cell : cell + space);
    };
    const auto end_line = [&] {
        while (!text.empty() && text.back() == ' ') text.pop_back();
        text += '\n';
    };
    for (std::size_t c = 0; c < table.columns.size(); ++c)
        put(c, table.columns[c], !table.rows.empty() && table.rows[0][c].is_number());
    end_line();
    for (const auto& row : table.rows) {
        for (std::size_t c = 0; c < row.size(); ++c) put(c, plain(row[c]), row[c].is_number());
        end_line();
    }
    if (table.rows.empty()) text += "(none)\n";
    return text;
}

std::string as_csv(const Table& table) {
    const auto quoted = [](const std::string& text) {
        if (text.find_first_of(",\"\r\n") == std::string::npos) return text;
        std::string result = "\"";
        for (const char c : text) result += c == '"' ? "\"\"" : std::string(1, c);
        return result + "\"";
    };
    std::string text;
    for (std::size_t c = 0; c < table.columns.size(); ++c) text += (c > 0 ? "," : "") + quoted(table.columns[c]);
    text += "\r\n";
    for (const auto& row : table.rows) {
        for (std::size_t c = 0; c < row.size(); ++c) text += (c > 0 ? "," : "") + quoted(plain(row[c]));
        text += "\r\n";
    }
    return text;
}

std::string as_json(const Table& table, const std::string& what) {
    Json rows = Json::array();
    for (const auto& row : table.rows) {
        Json one = Json::object();
        for (std::size_t c = 0; c < row.size(); ++c) {
            std::string key = table.columns[c];
            std::replace(key.begin(), key.end(), ' ', '_');
            one[key] = row[c];
        }
        rows.push_back(std::move(one));
    }
    return Json{{"format", "dryground/list/1"}, {"what", what}, {"rows", std::move(rows)}}.dump(2) + "\n";
}

}   // namespace app
