// From an edit to the files' new bytes.

#include "dryground/edit.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <filesystem>

#include "dryground/text.hpp"
#include "edit_internal.hpp"

namespace dryground {

namespace fs = std::filesystem;

namespace {

using files::EditFault;
using files::OpenMap;

const MapDraft& find_map(const WorldBuilder& builder, const std::string& name) {
    std::vector<std::string> names;
    for (const MapDraft& map : builder.map_drafts()) {
        if (map.name.value == name) return map;
        names.push_back(map.name.value);
    }
    const auto nearest = nearest_name(name, names);
    throw EditFault(
        fmt::format("the world has no map '{}'{}", name, nearest ? fmt::format("; did you mean '{}'?", *nearest) : ""));
}

// What the files will be: as on disk, but for those that changed.
FileReader overlaid(const FileReader& reader, const fs::path& folder, const std::vector<NamedBytes>& files) {
    return [&reader, folder, &files](const std::string& name) {
        const fs::path path = name;
        for (const NamedBytes& file : files)
            if (path == folder / file.file) return FileBytes{file.bytes, {}};
        return reader(path);
    };
}

std::size_t errors_of(const Report& report) { return report.counts().error; }

Report read_again(const std::string& world_file, const FileReader& reader) {
    const LoadedDrafts drafts = load_drafts(world_file, reader);
    return drafts.builder ? drafts.builder->build().report() : drafts.report;
}

}   // namespace

namespace {

std::string read_or_throw(const FileReader& reader, const fs::path& folder, const std::string& file) {
    FileBytes bytes = reader(folder / fs::path(file).lexically_normal());
    if (!bytes.bytes) throw EditFault(fmt::format("cannot read '{}': {}", file, bytes.fault));
    return std::move(*bytes.bytes);
}
toml::table parse_or_throw(const std::string& text, const std::string& file) {
    toml::parse_result parsed = toml::parse(text);
    if (!parsed) throw EditFault(fmt::format("'{}' changed while it was read", file));
    return std::move(parsed).table();
}

// Reads a world's drafts, lets `change(builder, result)` say what becomes of its files, and reads them again.
template <class Change>
Edited change_files(const std::string& world_file, const FileReader& reader, Change change) {
    Edited result;
    const LoadedDrafts drafts = load_drafts(world_file, reader);
    if (!drafts.builder) {
        result.fault = "the world cannot be read";
        result.report = drafts.report;
        return result;
    }
    try {
        change(*drafts.builder, result);
    } catch (const EditFault& fault) {
        result.fault = fault.what();
        result.files.clear();
        return result;
    }
    const Report before = drafts.builder->build().report(),
                 after = read_again(world_file, overlaid(reader, fs::path(world_file).parent_path(), result.files));
    if (errors_of(after) > errors_of(before)) {
        result.fault = "the world could not be read any more";
        result.report = after;
        result.files.clear();
    }
    return result;
}

// Of one file, by what `change(text, tree)` does to it; gives how much it changed.
template <class Change>
void change_text(const FileReader& reader, const fs::path& folder, const std::string& file, Edited& result,
                 Change change) {
    const std::string text = read_or_throw(reader, folder, file);
    files::TextEdits edits(text);
    result.changed = change(edits, parse_or_throw(text, file));
    if (std::string after = edits.result(); after != text) result.files.push_back({file, std::move(after)});
}

}   // namespace

Edited edit_map(const std::string& world_file, const std::string& name, const MapEdit& change,
                const FileReader& reader) {
    const fs::path folder = fs::path(world_file).parent_path();
    return change_files(world_file, reader, [&](const WorldBuilder& builder, Edited& result) {
        const auto read = [&](const std::string& file) { return read_or_throw(reader, folder, file); };
        const MapDraft& draft = find_map(builder, name);
        const std::string file = draft.place.file, text = read(file);
        const fs::path beside = fs::path(file).parent_path();
        OpenMap map{draft,
                    builder.tileset_drafts(),
                    builder.world_draft(),
                    files::TextEdits(text),
                    parse_or_throw(text, file),
                    beside.empty() ? "" : beside.generic_string() + "/",
                    read,
                    {}};
        std::visit([&](const auto& one) { files::edit(map, one); }, change);
        if (std::string after = map.text.result(); after != text) result.files.push_back({file, std::move(after)});
        for (auto& [other, bytes] : map.changed)
            if (bytes != read(other))
                result.files.push_back({fs::path(other).lexically_normal().generic_string(), std::move(bytes)});
        result.changed = map.count;
    });
}

Edited edit_kind(const std::string& world_file, const std::string& kind, const GivenKeys& values,
                 const FileReader& reader) {
    const fs::path path = world_file;
    return change_files(world_file, reader, [&](const WorldBuilder& builder, Edited& result) {
        change_text(reader, path.parent_path(), path.filename().generic_string(), result,
                    [&](files::TextEdits& text, const toml::table& tree) {
                        const toml::table* table = tree["kinds"][kind].as_table();
                        if (table == nullptr) {
                            std::vector<std::string> names;
                            for (const KindDraft& one : builder.world_draft().kinds) names.push_back(one.name.value);
                            const auto nearest = nearest_name(kind, names);
                            throw EditFault(fmt::format("the world has no kind '{}'{}", kind,
                                                        nearest ? fmt::format("; did you mean '{}'?", *nearest) : ""));
                        }
                        return files::set_keys(text, *table, "kind", fmt::format("kind '{}'", kind),
                                               files::properties_of(builder.world_draft(), kind), values);
                    });
    });
}

Edited edit_tiles(const std::string& world_file, const std::string& tileset, const std::string& pattern,
                  const GivenKeys& values, const FileReader& reader) {
    return change_files(world_file, reader, [&](const WorldBuilder& builder, Edited& result) {
        const auto& sets = builder.tileset_drafts();
        const auto set =
            std::find_if(sets.begin(), sets.end(), [&](const TileSetDraft& one) { return one.name.value == tileset; });
        if (set == sets.end()) throw EditFault(fmt::format("the world has no tile set '{}'", tileset));
        change_text(
            reader, fs::path(world_file).parent_path(), set->place.file, result,
            [&](files::TextEdits& text, const toml::table& tree) {
                std::size_t count = 0;
                if (const toml::table* tiles = tree["tiles"].as_table())
                    for (const auto& [name, node] : *tiles)
                        if (const std::string tile(name.str()); node.is_table() && matches_pattern(pattern, tile))
                            count += files::set_keys(text, *node.as_table(), "tile", fmt::format("tile '{}'", tile),
                                                     files::properties_of(set->fields), values);
                if (count == 0)
                    throw EditFault(fmt::format("tile set '{}' has no tile that matches '{}'", tileset, pattern));
                return count;
            });
    });
}

std::vector<CellAt> cells_of_line(CellAt from, CellAt to) {
    std::vector<CellAt> cells;
    const int across = std::abs(to[0] - from[0]), down = -std::abs(to[1] - from[1]);
    const int step_x = from[0] < to[0] ? 1 : -1, step_y = from[1] < to[1] ? 1 : -1;
    for (int error = across + down;;) {
        cells.push_back(from);
        if (from == to) return cells;
        const int twice = 2 * error;
        if (twice >= down) error += down, from[0] += step_x;
        if (twice <= across) error += across, from[1] += step_y;
    }
}

std::vector<CellAt> cells_of_box(const CellArea& box) {
    std::vector<CellAt> cells;
    for (int r = 0; r < box[3]; ++r)
        for (int c = 0; c < box[2]; ++c) cells.push_back({box[0] + c, box[1] + r});
    return cells;
}

std::vector<CellAt> cells_of_ring(const CellArea& box) {
    std::vector<CellAt> cells = cells_of_box(box);
    const auto inside = [&](const CellAt& cell) {
        return cell[0] > box[0] && cell[1] > box[1] && cell[0] < box[0] + box[2] - 1 && cell[1] < box[1] + box[3] - 1;
    };
    cells.erase(std::remove_if(cells.begin(), cells.end(), inside), cells.end());
    return cells;
}

namespace {

std::vector<std::string_view> lines_of(std::string_view text) {
    std::vector<std::string_view> lines;
    while (!text.empty()) {
        const std::size_t end = std::min(text.find('\n'), text.size() - 1) + 1;
        lines.push_back(text.substr(0, end));
        text.remove_prefix(end);
    }
    return lines;
}

// Pairs of lines that both texts have, in order: the longest common subsequence of what is between the lines that they
// begin and end with alike. Where that is long it is taken as one change: people do not read it line by line.
std::vector<std::pair<std::size_t, std::size_t>> common_lines(const std::vector<std::string_view>& a,
                                                              const std::vector<std::string_view>& b) {
    std::vector<std::pair<std::size_t, std::size_t>> pairs;
    std::size_t begin = 0, ends = 0;
    while (begin < std::min(a.size(), b.size()) && a[begin] == b[begin]) pairs.emplace_back(begin, begin), ++begin;
    while (ends < std::min(a.size(), b.size()) - begin && a[a.size() - 1 - ends] == b[b.size() - 1 - ends]) ++ends;
    const std::size_t n = a.size() - begin - ends, m = b.size() - begin - ends;
    if (n > 0 && m > 0 && n * m <= 4'000'000) {
        std::vector<std::vector<std::uint32_t>> longest(n + 1, std::vector<std::uint32_t>(m + 1));
        for (std::size_t i = n; i-- > 0;)
            for (std::size_t j = m; j-- > 0;)
                longest[i][j] = a[begin + i] == b[begin + j] ? longest[i + 1][j + 1] + 1
                                                             : std::max(longest[i + 1][j], longest[i][j + 1]);
        for (std::size_t i = 0, j = 0; i < n && j < m;) {
            if (a[begin + i] == b[begin + j])
                pairs.emplace_back(begin + i++, begin + j++);
            else
                longest[i + 1][j] >= longest[i][j + 1] ? ++i : ++j;
        }
    }
    for (std::size_t i = 0; i < ends; ++i) pairs.emplace_back(a.size() - ends + i, b.size() - ends + i);
    return pairs;
}

}   // namespace

std::string line_differences(std::string_view before, std::string_view after) {
    constexpr std::size_t around = 3;
    const std::vector<std::string_view> old_lines = lines_of(before), new_lines = lines_of(after);
    struct Line {
        char sign;
        std::string_view text;
        std::size_t number;   // in the new text
    };
    std::vector<Line> all;
    std::size_t i = 0, j = 0;
    const auto up_to = [&](std::size_t a, std::size_t b) {
        while (i < a) all.push_back({'-', old_lines[i++], j + 1});
        while (j < b) all.push_back({'+', new_lines[j], j + 1}), ++j;
    };
    for (const auto& [a, b] : common_lines(old_lines, new_lines)) {
        up_to(a, b);
        all.push_back({' ', new_lines[j], j + 1});
        ++i, ++j;
    }
    up_to(old_lines.size(), new_lines.size());
    std::string out;
    std::size_t told = 0;
    for (std::size_t line = 0; line < all.size(); ++line) {
        bool near = false;
        for (std::size_t k = line < around ? 0 : line - around; k <= std::min(line + around, all.size() - 1); ++k)
            near = near || all[k].sign != ' ';
        if (!near) continue;
        if (told != line || line == 0) out += fmt::format("line {}\n", all[line].number);
        told = line + 1;
        const std::string_view text = all[line].text.substr(0, all[line].text.find_last_not_of("\r\n") + 1);
        out += fmt::format("{} {}\n", all[line].sign, text);
    }
    return out;
}

}   // namespace dryground
