// From an edit to the files' new bytes.

#include "dryground/edit.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <filesystem>

#include "dryground/text.hpp"
#include "edit_internal.hpp"
#include "edit_world_internal.hpp"

namespace dryground {

namespace fs = std::filesystem;

namespace files {

namespace {

// What the files will be: as on disk, apart from those that changed.
FileReader overlaid(const FileReader& reader, const fs::path& folder, const std::vector<NamedBytes>& files) {
    return [&reader, folder, &files](const std::string& name) {
        const fs::path path = name;
        for (const NamedBytes& file : files)
            if (path == folder / file.file) return FileBytes{file.bytes, {}};
        return reader(path);
    };
}

std::size_t errors_of(const Report& report) { return report.counts().error; }

}   // namespace

std::string OpenWorld::read(const std::string& name) const {
    FileBytes bytes = reader(folder / fs::path(name).lexically_normal());
    if (!bytes.bytes) throw EditFault(fmt::format("cannot read '{}': {}", name, bytes.fault));
    return std::move(*bytes.bytes);
}

toml::table parsed(const std::string& text, const std::string& file) {
    toml::parse_result result = toml::parse(text);
    if (!result) throw EditFault(fmt::format("'{}' changed while it was read", file));
    return std::move(result).table();
}

void unknown_name(const std::string& where, std::string_view sort, const std::string& name,
                  const std::vector<std::string>& names) {
    const auto nearest = nearest_name(name, names);
    throw EditFault(fmt::format("{} has no {} '{}'{}", where, sort, name,
                                nearest ? fmt::format("; did you mean '{}'?", *nearest) : ""));
}

void edit(OpenWorld& world, const EditMap& change) {
    const auto read = [&](const std::string& name) { return world.read(name); };
    const MapDraft& draft = find_draft(world.builder.map_drafts(), "map", change.map);
    const std::string own = draft.place.file, text = read(own);
    const fs::path beside = fs::path(own).parent_path();
    OpenMap map{draft,
                world.builder.tileset_drafts(),
                world.builder.world_draft(),
                TextEdits(text),
                parsed(text, own),
                beside.empty() ? "" : beside.generic_string() + "/",
                read,
                {}};
    std::visit([&](const auto& one) { files::edit(map, one); }, change.edit);
    if (std::string after = map.text.result(); after != text) world.result.files.push_back({own, std::move(after)});
    for (auto& [other, bytes] : map.changed)
        if (bytes != read(other))
            world.result.files.push_back({fs::path(other).lexically_normal().generic_string(), std::move(bytes)});
    world.result.changed = map.count;
    world.result.lost = std::move(map.lost);
}

}   // namespace files

Edited make_edit(const std::string& world_file, const WorldEdit& edit, const FileReader& reader, EditReads reads) {
    const auto load = [&](const FileReader& from) {
        return reads == EditReads::all ? load_drafts(world_file, from) : files::drafts_for(edit, world_file, from);
    };
    const auto built = [](LoadedDrafts drafts) {
        return drafts.builder ? drafts.builder->build() : Loaded(std::move(drafts.report));
    };
    Edited result;
    LoadedDrafts drafts = load(reader);
    if (!drafts.builder) {
        result.fault = "the world cannot be read";
        result.report = drafts.report;
        return result;
    }
    const fs::path path = world_file;
    files::OpenWorld world{*drafts.builder, reader, path.parent_path(), path.filename().generic_string(), result};
    try {
        std::visit([&](const auto& one) { files::edit(world, one); }, edit);
    } catch (const files::EditFault& fault) {
        result.fault = fault.what();
        result.files.clear();
        return result;
    }
    result.before = built(std::move(drafts));
    result.after = built(load(files::overlaid(reader, path.parent_path(), result.files)));
    const Report &before = result.before->report(), &after = result.after->report();
    if (files::errors_of(after) > files::errors_of(before)) {
        result.fault = "after this edit the world could not be read";
        result.report = findings_only_in(after, before);   // what was wrong before stands in nobody's way
        result.files.clear();
    }
    return result;
}

}   // namespace dryground
