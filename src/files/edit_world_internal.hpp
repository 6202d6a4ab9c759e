// Inside the files room: a world's files, open for changes.
#pragma once

#include <filesystem>

#include "edit_internal.hpp"

namespace dryground::files {

// The content of a world's files, and how it changes.
struct OpenWorld {
    const WorldBuilder& builder;
    const FileReader& reader;
    std::filesystem::path folder;   // of the world's file
    std::string file;               // the world's own, from there
    Edited& result;

    [[nodiscard]] std::string read(const std::string& file) const;   // throws EditFault
};

// Returns the world with the maps that an edit needs (edit_reads.cpp).
[[nodiscard]] Result<WorldDrafts> drafts_for(const WorldEdit& edit, const std::string& world_file,
                                             const FileReader& reader);

[[nodiscard]] toml::table parsed(const std::string& text, const std::string& file);   // throws EditFault

[[noreturn]] void unknown_name(const std::string& where, std::string_view sort, const std::string& name,
                               const std::vector<std::string>& names);

// Returns the draft of a name; throws EditFault with the nearest one.
template <class Draft>
const Draft& find_draft(const std::vector<Draft>& drafts, std::string_view sort, const std::string& name) {
    std::vector<std::string> names;
    for (const Draft& draft : drafts) {
        if (draft.name.value == name) return draft;
        names.push_back(draft.name.value);
    }
    unknown_name("the world", sort, name, names);
}

// Changes one file by what `change(text, tree)` does to it, which returns how much it changed.
template <class Change>
void change_file(OpenWorld& world, const std::string& file, Change change) {
    const std::string text = world.read(file);
    TextEdits edits(text);
    world.result.changed = change(edits, parsed(text, file));
    if (std::string after = edits.result(); after != text) world.result.files.push_back({file, std::move(after)});
}

void edit(OpenWorld& world, const EditMap& change);

// ---- what the world names (edit_things.cpp)
void edit(OpenWorld& world, const AddThing& add);
void edit(OpenWorld& world, const GiveThing& give);
void edit(OpenWorld& world, const DropThing& drop);
void edit(OpenWorld& world, const GiveWorld& give);

// ---- the world's lists of files (edit_lists.cpp)
void edit(OpenWorld& world, const AddMap& add);
void edit(OpenWorld& world, const DropMap& drop);
void edit(OpenWorld& world, const AddFile& add);
void edit(OpenWorld& world, const DropTileSet& drop);

// ---- tiles (edit_tiles.cpp)
void edit(OpenWorld& world, const AddTile& add);
void edit(OpenWorld& world, const GiveTiles& give);
void edit(OpenWorld& world, const DropTiles& drop);

}   // namespace dryground::files
