// What the parts of `dryground edit` share: its arguments, and how an edit is made.
#pragma once

#include <functional>
#include <memory>

#include "../command.hpp"

namespace app {

struct EditOptions {
    WorldArguments world;
    std::string layer, to_layer, size, tile, from, to, name, kind, set, above, below, keep = "top_left";
    std::vector<std::string> places, values;
    std::string at, cell, cells, by, by_cells, area, barrier, trigger, one_way;
    std::string check;   // all, map, none; empty: by the size of the world
    bool dry_run = false, cut = false, objects = false;
};
using SharedOptions = std::shared_ptr<EditOptions>;

// Convert arguments to the library's types; each throws Stop if that is not possible.
[[nodiscard]] dryground::Cell cell_at(const std::string& text);
[[nodiscard]] dryground::CellArea cell_area(const std::string& text);
[[nodiscard]] dryground::PointPx point(const std::string& text);
[[nodiscard]] dryground::GivenKeys keys(const std::vector<std::string>& values);

// Opens the world of FILE; throws Stop if it cannot be read.
[[nodiscard]] dryground::FoundWorld find_world(const EditOptions& options);
// Return the map, or the tile set, that is meant: the given one, whose file was given, or the only one.
[[nodiscard]] std::string map_meant(const EditOptions& options, const dryground::FoundWorld& found);
[[nodiscard]] std::string tileset_meant(const EditOptions& options, const dryground::FoundWorld& found);

// An edit, and the words of its report: "cells" "changed in" "slipway".
struct Wanted {
    dryground::WorldEdit edit;
    std::string things, done, where;
};
inline constexpr const char *changed_in = "changed in", *added_to = "added to", *removed_from = "removed from";
using EditMaker = std::function<Wanted(const EditOptions&, const dryground::FoundWorld&)>;
using MapEditMaker = std::function<dryground::MapEdit(const EditOptions&)>;

// A verb, with the edit that it makes.
CLI::App* add_verb(CLI::App& app, const SharedOptions& options, const char* name, const char* help, EditMaker edit);
CLI::App* add_map_verb(CLI::App& app, const SharedOptions& options, const char* name, const char* help,
                       const char* things, MapEditMaker edit, const char* done = changed_in);
// A word with verbs below it.
CLI::App* add_group(CLI::App& app, const char* name, const char* help);
CLI::Option* with_values(CLI::App* verb, const SharedOptions& options);
void with_name(CLI::App* verb, const SharedOptions& options, const char* help);

void add_cell_verbs(CLI::App& app, const SharedOptions& options);      // edit_cells.cpp
void add_object_verbs(CLI::App& app, const SharedOptions& options);    // edit_objects.cpp
void add_map_verbs(CLI::App& app, const SharedOptions& options);       // edit_maps.cpp
void add_thing_verbs(CLI::App& app, const SharedOptions& options);     // edit_things.cpp
void add_history_verbs(CLI::App& app, const SharedOptions& options);   // edit_history.cpp

// What is checked before and after an edit: as requested, else all of the world unless it has very many maps.
[[nodiscard]] dryground::Checking checking_of(const EditOptions& options, const dryground::FoundWorld& found);
// Prints what was done, and what `check` reports that it did not report before.
void say_made(const EditOptions& options, const dryground::FoundWorld& found,
              const dryground::Result<dryground::Made>& made, const std::string& counted);
[[nodiscard]] std::string counted(std::size_t count, const std::string& things);

}   // namespace app
