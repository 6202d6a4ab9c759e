// Changed cells into the texts and pictures that they stand in: where each cell of the old data stands is known; what
// comes, goes or differs is put there.

#include <fmt/format.h>

#include <algorithm>

#include "../model/utf8_internal.hpp"
#include "edit_internal.hpp"
#include "writing_internal.hpp"

namespace dryground::files {

namespace {

// Returns where the field ends that begins at a byte of a CSV text.
std::size_t field_end(const std::string& text, std::size_t at) {
    if (at < text.size() && text[at] == '"') {
        for (++at; at < text.size() && text[at] != '\n'; ++at)
            if (text[at] == '"' && (at + 1 >= text.size() || text[at + 1] != '"'))
                return at + 1;
            else if (text[at] == '"')
                ++at;
        return at;
    }
    std::size_t end = at;
    while (end < text.size() && text[end] != ',' && text[end] != '\n') ++end;
    while (end > at && (text[end - 1] == ' ' || text[end - 1] == '\t' || text[end - 1] == '\r')) --end;
    return end;
}

}   // namespace

void CellGrid::write() {
    switch (table_.sort) {
        case CellTable::Sort::rows:
            return write_rows();
        case CellTable::Sort::csv:
            return write_csv();
        case CellTable::Sort::png:
            return write_png();
    }
}

namespace {

// What happens to an old row: how many cells are removed or added before and behind it.
struct Ends {
    int cut_before, cut_behind, add_before, add_behind;
};
Ends ends_of(int old_count, int count, int old_first) {
    const int last = old_first + old_count;
    return {std::max(0, -old_first), std::max(0, last - count), std::max(0, old_first), std::max(0, count - last)};
}

}   // namespace

std::string CellGrid::row_of_keys(std::size_t row) const {
    std::string text;
    const auto fields = table_.sort == CellTable::Sort::csv;
    for (std::size_t c = 0; c < static_cast<std::size_t>(columns_); ++c) {
        if (fields && c > 0) text += ',';
        const std::string& key = table_.keys[numbers_[row * static_cast<std::size_t>(columns_) + c]];
        text += fields ? csv_field(key) : key;
    }
    return text;
}

void CellGrid::write_rows() {
    TextEdits& text = map_.text;
    const toml::node& node = *map_.layer_tree(layer_).get("rows");
    const std::size_t begin = text.offset(node.source().begin), end = text.offset(node.source().end);
    const std::string_view written = std::string_view(text.text()).substr(begin, end - begin);
    const bool plain = written.substr(0, 1) == "'" || written.find('\\') == std::string_view::npos;
    const bool one_line = written.substr(0, 3) != "'''" && written.substr(0, 3) != "\"\"\"";
    if (!plain || (one_line && rows_ > 1) || draft_.rows.empty()) {   // its characters are not those of the cells
        std::vector<std::string> rows;
        for (std::size_t r = 0; r < static_cast<std::size_t>(rows_); ++r) rows.push_back(row_of_keys(r));
        text.replace(begin, end, toml_text::rows(std::vector<std::string_view>(rows.begin(), rows.end())));
        return;
    }
    const auto old_columns = map_.draft.size.value[0], old_rows = map_.draft.size.value[1];
    const Ends across = ends_of(old_columns, columns_, old_column_), down = ends_of(old_rows, rows_, old_row_);
    const auto key = [&](int c, int r) -> const std::string& {
        return table_.keys[numbers_[static_cast<std::size_t>(r) * static_cast<std::size_t>(columns_) +
                                    static_cast<std::size_t>(c)]];
    };
    const auto start_of = [&](int old_row) {
        const Place& place = draft_.rows[static_cast<std::size_t>(old_row)].place;
        return text.offset(static_cast<std::size_t>(place.line), static_cast<std::size_t>(place.column));
    };
    for (int r = 0; r < down.add_before; ++r)
        text.insert(start_of(0), row_of_keys(static_cast<std::size_t>(r)) + text.line_break());
    for (int old_row = 0; old_row < old_rows; ++old_row) {
        std::size_t at = start_of(old_row);
        const int row = old_row + old_row_;
        if (row < 0 || row >= rows_) {   // with its line break
            const std::size_t row_end = at + draft_.rows[static_cast<std::size_t>(old_row)].value.size();
            const bool last_kept_is_before = row >= rows_;
            const std::size_t line_break = text.text().compare(row_end, 2, "\r\n") == 0 ? 2 : 1;
            if (last_kept_is_before && old_row > 0)
                text.replace(at - text.line_break().size(), row_end, "");
            else
                text.replace(at, std::min(row_end + line_break, text.text().size()), "");
            continue;
        }
        for (int c = 0; c < across.add_before; ++c) text.insert(at, key(c, row));
        const std::string& characters = draft_.rows[static_cast<std::size_t>(old_row)].value;
        std::size_t byte = 0;
        for (int old_column = 0; old_column < old_columns; ++old_column) {
            const std::size_t length = utf8::length(characters[byte]);
            const int column = old_column + old_column_;
            if (column < 0 || column >= columns_)
                text.replace(at + byte, at + byte + length, "");
            else if (characters.compare(byte, length, key(column, row)) != 0)
                text.replace(at + byte, at + byte + length, key(column, row));
            byte += length;
        }
        for (int c = columns_ - across.add_behind; c < columns_; ++c) text.insert(at + byte, key(c, row));
    }
    const std::size_t last = start_of(old_rows - 1) + draft_.rows.back().value.size();
    for (int r = rows_ - down.add_behind; r < rows_; ++r)
        text.insert(last, text.line_break() + row_of_keys(static_cast<std::size_t>(r)));
}

void CellGrid::write_csv() {
    const std::string file = map_.folder + map_.layer_tree(layer_)["csv"].value_or(std::string());
    TextEdits text(map_.read(file));
    const auto old_columns = map_.draft.size.value[0], old_rows = map_.draft.size.value[1];
    const Ends across = ends_of(old_columns, columns_, old_column_), down = ends_of(old_rows, rows_, old_row_);
    const auto field = [&](int c, int r) {
        return csv_field(table_.keys[numbers_[static_cast<std::size_t>(r) * static_cast<std::size_t>(columns_) +
                                              static_cast<std::size_t>(c)]]);
    };
    for (int r = 0; r < down.add_before; ++r)
        text.insert(text.offset(1, 1), row_of_keys(static_cast<std::size_t>(r)) + text.line_break());
    std::size_t line_end = 0;
    for (int old_row = 0; old_row < old_rows; ++old_row) {
        const std::size_t line = text.offset(static_cast<std::size_t>(old_row) + 1, 1);
        line_end = text.line_end(line);
        const int row = old_row + old_row_;
        if (row < 0 || row >= rows_) {
            text.replace(line, std::min(text.text().find('\n', line_end), text.text().size() - 1) + 1, "");
            continue;
        }
        for (int c = 0; c < across.add_before; ++c) text.insert(line, field(c, row) + ",");
        for (int old_column = 0; old_column < old_columns; ++old_column) {
            const std::size_t cell = static_cast<std::size_t>(old_row) * static_cast<std::size_t>(old_columns) +
                                     static_cast<std::size_t>(old_column);
            const std::size_t begin = text.offset(static_cast<std::size_t>(old_row) + 1, table_.characters[cell] + 1);
            const std::size_t end = field_end(text.text(), begin);
            const int column = old_column + old_column_;
            if (column < 0)   // with the comma behind it
                text.replace(begin, std::min(text.text().find(',', end), text.text().size() - 1) + 1, "");
            else if (column >= columns_)   // with the comma before it
                text.replace(text.text().rfind(',', begin - 1), end, "");
            else if (table_.keys[table_.numbers[cell]] !=
                     table_.keys[numbers_[static_cast<std::size_t>(row) * static_cast<std::size_t>(columns_) +
                                          static_cast<std::size_t>(column)]])
                text.replace(begin, end, field(column, row));
        }
        for (int c = columns_ - across.add_behind; c < columns_; ++c) text.insert(line_end, "," + field(c, row));
    }
    for (int r = rows_ - down.add_behind; r < rows_; ++r)
        text.insert(line_end, text.line_break() + row_of_keys(static_cast<std::size_t>(r)));
    map_.changed[file] = text.result();
}

void CellGrid::write_png() {
    CellTable table = table_;
    table.numbers = numbers_;
    table.row_ends.clear();
    for (int r = 1; r <= rows_; ++r)
        table.row_ends.push_back(static_cast<std::size_t>(r) * static_cast<std::size_t>(columns_));
    map_.changed[map_.folder + map_.layer_tree(layer_)["png"].value_or(std::string())] = encode_png(picture_of(table));
}

}   // namespace dryground::files
