// Converts an edit to the files' new bytes.

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

// The files as they will be: as on disk, except those that changed.
FileReader overlaid(const FileReader& reader, const fs::path& folder, const std::vector<NamedBytes>& files) {
    return [&reader, folder, &files](const std::string& name) {
        const fs::path path = name;
        for (const NamedBytes& file : files)
            if (path == folder / file.file) return Result<std::string>(file.bytes);
        return reader(path);
    };
}

std::size_t errors_of(const Report& report) { return report.counts().error; }

}   // namespace

std::string OpenWorld::read(const std::string& name) const {
    Result<std::string> bytes = reader(folder / fs::path(name).lexically_normal());
    if (!bytes) throw EditFault(fmt::format("cannot read '{}': {}", name, bytes.fault()));
    return *std::move(bytes);
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

Result<Edited> make_edit(const std::string& world_file, const WorldEdit& edit, const FileReader& reader,
                         EditReads reads) {
    const auto load = [&](const FileReader& from) {
        return reads == EditReads::all ? load_drafts(world_file, from) : files::drafts_for(edit, world_file, from);
    };
    const auto built = [](const Result<WorldDrafts>& drafts) {
        return drafts ? drafts->builder.build() : drafts.failure();
    };
    const Result<WorldDrafts> drafts = load(reader);
    if (!drafts) return Failure{"the world cannot be read", drafts.report()};
    const fs::path path = world_file;
    Edited result;
    files::OpenWorld world{drafts->builder, reader, path.parent_path(), path.filename().generic_string(), result};
    try {
        std::visit([&](const auto& one) { files::edit(world, one); }, edit);
    } catch (const files::EditFault& fault) {
        return Failure{fault.what()};
    }
    result.before = built(drafts);
    result.after = built(load(files::overlaid(reader, path.parent_path(), result.files)));
    const Report &before = result.before.report(), &after = result.after.report();
    if (files::errors_of(after) > files::errors_of(before))   // earlier faults do not prevent an edit
        return Failure{"after this edit the world could not be read", findings_only_in(after, before)};
    return result;
}

}   // namespace dryground
