// The cells of a layer from a file beside its map: CSV (RFC 4180, with or without quotes) and PNG.
//
// Cost: a few steps a byte or pixel; each different field or colour is kept once.

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cstring>
#include <memory>
#include <unordered_map>
#include <utility>

#include "../model/utf8_internal.hpp"
#include "reading_internal.hpp"

namespace dryground::files {

namespace {

// Numbers things by their first appearance. Recent ones are found without the table.
template <class Key, class Hash>
class Numbering {
public:
    template <class Make>
    std::uint32_t operator()(const Key& key, std::uint64_t short_hash, Make make) {
        Recent& recent = recent_[short_hash * 0x9E3779B97F4A7C15u >> 56];
        if (recent.filled && recent.key == key) return recent.number;
        auto found = numbers_.find(key);
        if (found == numbers_.end()) {
            found = numbers_.emplace(key, static_cast<std::uint32_t>(numbers_.size())).first;
            make();
        }
        recent = {key, found->second, true};
        return found->second;
    }

private:
    struct Recent {
        Key key{};
        std::uint32_t number = 0;
        bool filled = false;
    };
    std::unordered_map<Key, std::uint32_t, Hash> numbers_;
    std::array<Recent, 256> recent_{};
};

class CsvReader {
public:
    CsvReader(std::string_view text, std::string file, Report& report)
        : text_(text), file_(std::move(file)), report_(report) {
        table_.sort = CellTable::Sort::csv;
        if (text_.substr(0, 3) == "\xEF\xBB\xBF") text_.remove_prefix(3);
        is_ascii_ = std::none_of(text_.begin(), text_.end(), [](char c) { return static_cast<signed char>(c) < 0; });
        const auto fields = static_cast<std::size_t>(std::count(text_.begin(), text_.end(), ',') +
                                                     std::count(text_.begin(), text_.end(), '\n') + 1);
        table_.numbers.reserve(fields);
        table_.characters.reserve(fields);
    }

    CellTable run() {
        while (at_ < text_.size()) row();
        return std::move(table_);
    }

private:
    void row() {
        ++line_;
        table_.rows.push_back({file_, line_, 1, {}});
        characters_before_ = 0;
        counted_ = row_start_ = at_;
        do field();
        while (at_ < text_.size() && text_[at_++] == ',');
        table_.row_ends.push_back(table_.numbers.size());
    }

    // Reads from its first character to the comma or line end behind it, which `row` consumes.
    void field() {
        while (at_ < text_.size() && is_blank(text_[at_])) ++at_;
        table_.characters.push_back(characters_to(at_));
        if (at_ < text_.size() && text_[at_] == '"') {
            quoted();
            return;
        }
        const std::size_t start = at_;
        while (at_ < text_.size() && text_[at_] != ',' && text_[at_] != '\n') ++at_;
        std::size_t end = at_;
        while (end > start && (is_blank(text_[end - 1]) || text_[end - 1] == '\r')) --end;
        add(text_.substr(start, end - start));
    }

    void quoted() {
        const Place place{file_, line_, static_cast<int>(1 + table_.characters.back()), {}};
        unquoted_.clear();
        for (++at_;; ++at_) {
            if (at_ >= text_.size() || text_[at_] == '\n') {
                complain(place, "a quoted field that does not end in its line", "ended by a second quote");
                break;
            }
            if (text_[at_] != '"') {
                unquoted_ += text_[at_];
            } else if (at_ + 1 < text_.size() && text_[at_ + 1] == '"') {
                unquoted_ += text_[at_++];
            } else {
                ++at_;
                break;
            }
        }
        bool whole = at_ > 0 && text_[at_ - 1] == '"';
        const std::size_t rest = at_;
        while (at_ < text_.size() && text_[at_] != ',' && text_[at_] != '\n') ++at_;
        for (std::size_t i = rest; i < at_; ++i)
            if (!is_blank(text_[i]) && text_[i] != '\r') {
                complain(place, "followed by more than a comma", "alone between its commas");
                whole = false;
                break;
            }
        if (!whole) unquoted_.clear();   // its mistake is reported; it stands for nothing
        owned_.push_back(std::make_unique<std::string>(unquoted_));
        add(*owned_.back());
    }

    void add(std::string_view field) {
        if (field.size() > 8) {
            table_.numbers.push_back(number_(field, field.size(), [&] { table_.keys.emplace_back(field); }));
            return;
        }
        // Short fields are distinguished by their bytes as one number. Zero bytes behind them do not count.
        std::uint64_t bytes = 0;
        for (std::size_t i = 0; i < field.size(); ++i)
            bytes |= std::uint64_t{static_cast<unsigned char>(field[i])} << 8 * i;
        Short& recent = short_[((bytes * 0x9E3779B97F4A7C15u >> 58) + field.size()) % short_.size()];
        if (recent.bytes != bytes || recent.size != field.size())
            recent = {bytes, field.size(),
                      number_(field, bytes + field.size(), [&] { table_.keys.emplace_back(field); })};
        table_.numbers.push_back(recent.number);
    }

    struct Short {
        std::uint64_t bytes = 0;
        std::size_t size = SIZE_MAX;
        std::uint32_t number = 0;
    };

    void complain(const Place& place, const std::string& is, const std::string& should_be) {
        if (std::exchange(complained_, true)) return;   // one cause: what follows is likely to be out of step
        Finding finding;
        finding.rule = Rule::out_of_range;
        finding.place = place;
        finding.arguments = {"the field", is, should_be};
        report_.add(std::move(finding));
    }

    [[nodiscard]] static bool is_blank(char c) { return c == ' ' || c == '\t'; }

    // Returns how many characters of the row come before a byte. Called with increasing bytes.
    std::uint32_t characters_to(std::size_t byte) {
        if (is_ascii_) return static_cast<std::uint32_t>(byte - row_start_);
        for (; counted_ < byte; ++counted_)
            if ((static_cast<unsigned char>(text_[counted_]) & 0xC0u) != 0x80u) ++characters_before_;
        return characters_before_;
    }

    std::string_view text_;
    std::string file_;
    Report& report_;
    CellTable table_;
    Numbering<std::string_view, std::hash<std::string_view>> number_;
    std::array<Short, 64> short_{};
    std::vector<std::unique_ptr<std::string>> owned_;
    std::string unquoted_;
    std::size_t at_ = 0, counted_ = 0, row_start_ = 0;
    bool is_ascii_ = false;
    std::uint32_t characters_before_ = 0;
    int line_ = 0;
    bool complained_ = false;
};

std::string colour_key(std::uint32_t rgba) {
    const unsigned red = rgba & 0xFF, green = rgba >> 8 & 0xFF, blue = rgba >> 16 & 0xFF, alpha = rgba >> 24;
    return alpha == 255 ? fmt::format("#{:02x}{:02x}{:02x}", red, green, blue)
                        : fmt::format("#{:02x}{:02x}{:02x}{:02x}", red, green, blue, alpha);
}

}   // namespace

CellTable cells_of_csv(std::string_view text, const std::string& file, Report& report) {
    return CsvReader(text, file, report).run();
}

CellTable cells_of_picture(const Image& image, const std::string& file) {
    CellTable table;
    table.sort = CellTable::Sort::png;
    const std::size_t pixels = image.rgba.size() / 4;
    table.numbers.resize(pixels);
    Numbering<std::uint32_t, std::hash<std::uint32_t>> number;
    std::uint32_t last = 0, last_number = 0;
    for (std::size_t i = 0; i < pixels; ++i) {
        const unsigned char* p = image.rgba.data() + 4 * i;
        const std::uint32_t rgba =
            p[0] | std::uint32_t{p[1]} << 8 | std::uint32_t{p[2]} << 16 | std::uint32_t{p[3]} << 24;
        if (i == 0 || rgba != last) {
            last_number = number(rgba, rgba, [&] { table.keys.push_back(colour_key(rgba)); });
            last = rgba;
        }
        table.numbers[i] = last_number;
    }
    for (int r = 0; r < image.height; ++r) {
        table.row_ends.push_back(static_cast<std::size_t>(r + 1) * static_cast<std::size_t>(image.width));
        table.rows.push_back({file, 0, 0, {}});
    }
    return table;
}

}   // namespace dryground::files
