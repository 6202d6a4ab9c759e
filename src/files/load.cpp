// Loads a world: reads its file and all files it names, then the builder does the rest.

#include <fmt/format.h>

#include <algorithm>
#include <filesystem>
#include <set>

#include "../model/utf8_internal.hpp"
#include "dryground/pack_parts.hpp"
#include "folder_internal.hpp"
#include "format_key_internal.hpp"
#include "reading_internal.hpp"
#include "toml_words_internal.hpp"

namespace dryground {

namespace fs = std::filesystem;

namespace files {

namespace {

std::vector<std::string_view> lines_of(std::string_view text) {
    std::vector<std::string_view> lines;
    while (true) {
        const std::size_t end = text.find('\n');
        std::string_view line = text.substr(0, end);
        if (!line.empty() && line.back() == '\r') line.remove_suffix(1);
        lines.push_back(line);
        if (end == std::string_view::npos) return lines;
        text.remove_prefix(end + 1);
    }
}

// Returns the line and character of a byte.
Place place_in(const std::string& file, std::string_view text, std::size_t byte) {
    const std::string_view before = text.substr(0, byte);
    const auto line = 1 + std::count(before.begin(), before.end(), '\n');
    const std::size_t start = before.rfind('\n') == std::string_view::npos ? 0 : before.rfind('\n') + 1;
    return {file, static_cast<int>(line), static_cast<int>(1 + utf8::count(before.substr(start))), {}};
}

}   // namespace

bool is_text(const Source& source, std::string_view text) {
    const std::size_t bad = utf8::first_bad_byte(text);
    if (bad == std::string_view::npos) return true;
    source.add(Rule::bad_text, place_in(source.file, text, bad),
               {fmt::format("byte 0x{:02X}", static_cast<unsigned char>(text[bad]))},
               Hint{"save the file as UTF-8", ""});
    return false;
}

namespace {

// Returns the parsed file, if it is TOML of the wanted format and version.
std::optional<toml::table> parse(Source& source, std::string_view text, const Format& wanted) {
    if (!is_text(source, text)) return std::nullopt;
    Lightened light = lighten(text);
    source.rows = std::move(light.rows);
    toml::parse_result parsed = toml::parse(light.text, std::string_view(source.file));
    if (!parsed) {
        report_syntax(source, parsed.error(), text);
        return std::nullopt;
    }
    const std::string example = fmt::format("format = \"dryground/{}/1\"", wanted.sort);
    const toml::node* node = parsed.table().get("format");
    const auto* format = node != nullptr ? node->as_string() : nullptr;
    if (format == nullptr) {
        const Place place = node != nullptr ? source.of(*node) : Place{source.file, 1, 1, {}};
        source.add(Rule::missing_key, place, {"the file", "format"},
                   Hint{"the first line declares what a file is", example});
        return std::nullopt;
    }
    int version = 0;
    const std::string sort = sort_of_format(format->get(), version);
    if (sort.empty() || (sort == wanted.sort && version != 1)) {
        source.add(Rule::format_version, source.of(*node), {format->get(), fmt::format("dryground/{}/1", wanted.sort)},
                   version > 1 ? std::optional(Hint{"it was made for a newer version of Dry Ground", ""})
                               : Hint{"write", example});
        return std::nullopt;
    }
    if (sort != wanted.sort) {
        const auto is =
            std::find_if(std::begin(formats), std::end(formats), [&](const Format& f) { return f.sort == sort; });
        source.add(Rule::wrong_file, source.of(*node), {source.file, is->words, wanted.words});
        return std::nullopt;
    }
    return std::move(parsed).table();
}

// Pictures by their files, each decoded once.
class Look {
public:
    explicit Look(Folder folder) : folder_(std::move(folder)) {}

    std::optional<Image> operator()(const std::string& file) {
        auto [known, is_new] = images_.try_emplace(file);
        if (is_new)
            if (const Result<std::string> bytes = folder_.read(file))
                if (Result<Image> image = decode_png(*bytes)) known->second = *std::move(image);
        return known->second;
    }

private:
    Folder folder_;
    std::map<std::string, std::optional<Image>> images_;
};

class Loader {
public:
    Loader(const fs::path& world_file, const FileReader& reader)
        : folder_(world_file.parent_path(), reader), name_(world_file.filename().generic_string()) {}

    // `only`: the names of maps, to read none of the others; empty: all maps.
    Result<WorldDrafts> load(const std::vector<std::string>& only = {}) {
        WorldBuilder builder;
        bool complete = read(name_, formats[0], {}, [&](const Reading& reading, const toml::table& root) {
            file_ = read_world(reading, root);
        });
        bool maps_complete = true;
        std::set<std::string> seen;
        for (const Name& path : file_.tilesets)
            complete &= read_named(path, formats[1], seen, [&](const Reading& reading, const toml::table& root) {
                builder.tileset(read_tileset(reading, root));
            });
        if (!only.empty()) {
            std::vector<Name> paths;
            for (const std::string& map : only) {
                const auto path = complete ? file_of_map(map) : std::nullopt;
                if (!path) return Failure{{}, std::move(report_)};
                paths.push_back(*path);
            }
            maps_complete = paths.size() == file_.maps.size();
            file_.maps = std::move(paths);
        }
        for (const Name& path : file_.maps)
            maps_complete &= read_named(path, formats[2], seen, [&](const Reading& reading, const toml::table& root) {
                builder.map(read_map(reading, root));
            });
        // Without the world or a tile set, the names that they declare are unknown: their own findings are enough.
        if (!complete) return Failure{{}, std::move(report_)};
        file_.draft.lacks_maps = !maps_complete;
        builder.world(std::move(file_.draft));
        builder.pictures(Look(folder_));
        for (const Finding& finding : report_.findings()) builder.note(finding);
        std::sort(files_.begin(), files_.end());
        files_.erase(std::unique(files_.begin(), files_.end()), files_.end());
        return {{std::move(builder), std::move(files_)}, std::move(report_)};
    }

    std::vector<std::string> names_of_maps() {
        read(name_, formats[0], {},
             [&](const Reading& reading, const toml::table& root) { file_ = read_world(reading, root); });
        std::vector<std::string> names;
        for (const Name& path : file_.maps) names.push_back(name_in(path));
        return names;
    }

private:
    // Returns the name of the map in a file; if that cannot be determined, the file's own up to its first point.
    std::string name_in(const Name& path) {
        const std::string file_name = fs::path(path.value).filename().generic_string();
        const auto resolved = folder_.resolve(name_, path.value);
        const Result<std::string> file = resolved ? folder_.read(*resolved) : Failure{};
        std::optional<std::string> name;
        if (file)
            if (const toml::parse_result parsed = toml::parse(lighten(*file).text))
                name = parsed.table()["name"].value<std::string>();
        return name ? *name : file_name.substr(0, file_name.find('.'));
    }

    // Returns the path of the map of a name, as the world's file has it. Files named after it are tried first.
    std::optional<Name> file_of_map(const std::string& map) {
        std::vector<Name> paths = file_.maps;
        std::stable_partition(paths.begin(), paths.end(), [&](const Name& path) {
            return fs::path(path.value).filename().generic_string().rfind(map + ".", 0) == 0;
        });
        std::vector<std::string> others;
        for (const Name& path : paths) {
            others.push_back(name_in(path));
            if (others.back() == map) return path;
        }
        const auto nearest = nearest_name(map, others);
        add(Rule::unknown_name, {name_, 0, 0, {}}, {"map", map},
            nearest ? std::optional(Hint{"did you mean", *nearest}) : std::nullopt);
        return std::nullopt;
    }

    template <class Action>
    bool read_named(const Name& written, const Format& wanted, std::set<std::string>& seen, Action action) {
        const auto path = find(written, name_);
        if (!path) return false;
        if (!seen.insert(*path).second) {
            add(Rule::duplicate_name, written.place, {"file", written.value}, Hint{"list it once", ""});
            return true;
        }
        return read(*path, wanted, written, action);
    }

    void add(Rule rule, const Place& place, std::vector<std::string> arguments, std::optional<Hint> hint = {}) {
        Source{place.file, {}, report_}.add(rule, place, std::move(arguments), std::move(hint));
    }

    std::optional<std::string> find(const Name& written, const std::string& from) {
        auto path = folder_.resolve(from, written.value);
        if (written.value.empty()) {
            add(Rule::file_missing, written.place, {"", "its name is empty"}, Hint{"name a file, or remove it", ""});
            return std::nullopt;
        }
        if (!path)
            add(Rule::path_outside, written.place, {written.value},
                Hint{"move the file into the world's folder, and name it relative to this file", ""});
        return path;
    }

    std::optional<std::string> bytes(const std::string& path, const Name& written) {
        Result<std::string> result = folder_.read(path);
        if (result) {
            files_.push_back(path);
            return *std::move(result);
        }
        const Place place = written.place.file.empty() ? Place{name_, 0, 0, {}} : written.place;
        const auto nearest = folder_.nearest(path);
        add(Rule::file_missing, place, {written.value.empty() ? path : written.value, result.fault()},
            nearest && *nearest != path ? std::optional(Hint{"nearest file", *nearest}) : std::nullopt);
        return std::nullopt;
    }

    template <class Action>
    bool read(const std::string& path, const Format& wanted, const Name& written, Action action) {
        const auto text = bytes(path, written);
        if (!text) return false;
        Source source{path, lines_of(*text), report_};
        const auto root = parse(source, *text, wanted);
        if (!root) return false;
        const FindPicture picture = [&](const Name& file) { return find_picture(file, path); };
        const FindFile file = [&](const Name& wanted_file) { return find_file(wanted_file, path); };
        action(Reading{source, picture, file, file_.draft}, *root);
        return true;
    }

    std::optional<FoundFile> find_file(const Name& written, const std::string& from) {
        const auto path = find(written, from);
        if (!path) return std::nullopt;
        auto data = bytes(*path, written);
        return data ? std::optional(FoundFile{*path, std::move(*data)}) : std::nullopt;
    }

    PictureSize find_picture(const Name& written, const std::string& from) {
        const auto path = find(written, from);
        if (!path) return {};
        if (const auto known = pictures_.find(*path); known != pictures_.end()) return known->second;
        PictureSize& size = pictures_[*path];
        const auto data = bytes(*path, written);
        if (!data) return {};
        const Result<Image> image = decode_png(*data);
        if (!image)
            add(Rule::bad_picture, written.place, {written.value, image.fault()});
        else
            size = {*path, image->width, image->height};
        return size;
    }

    Folder folder_;
    std::string name_;   // of the world's file, in its folder
    Report report_;
    WorldFile file_;
    std::vector<std::string> files_;   // that were read
    std::map<std::string, PictureSize> pictures_;
};

}   // namespace

}   // namespace files

std::function<std::optional<Image>(const std::string& file)> pictures_of(const std::string& world_file,
                                                                         const FileReader& reader) {
    return files::Look(files::Folder(fs::path(world_file).parent_path(), reader));
}

Result<WorldDrafts> load_drafts(const std::string& world_file, const FileReader& reader) {
    return files::Loader(world_file, reader).load();
}

Result<WorldDrafts> load_map_drafts(const std::string& world_file, const std::vector<std::string>& maps,
                                    const FileReader& reader) {
    return files::Loader(world_file, reader).load(maps);
}

std::vector<std::string> map_names(const std::string& world_file, const FileReader& reader) {
    return files::Loader(world_file, reader).names_of_maps();
}

Result<World> load_world(const std::string& world_file, const FileReader& reader) {
    const Result<WorldDrafts> drafts = load_drafts(world_file, reader);
    return drafts ? drafts->builder.build() : drafts.failure();
}

}   // namespace dryground
