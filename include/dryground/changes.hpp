// Saved games: files with the differences from a pack. `dryground/changes/1` (schema/changes.schema.json).
//
//     const dg::Result<void> written = dg::write_file("game.save", dg::changes_bytes(play.world(), play.changes()));
//     …
//     const dg::Result<dg::LoadedChanges> saved = dg::read_changes(play.world(), *dg::read_file("game.save"));
//     if (saved) play.apply(saved->changes);
//
// On failure, `fault()` gives the reason. Threads: free functions without shared state.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "dryground/files.hpp"
#include "dryground/play.hpp"

namespace dryground {

// Writes changes. Things are written by their names, objects without one by kind and position, so the file stays valid
// if other things are added to the world or moved. The same changes give the same bytes. Requires changes of this
// world.
[[nodiscard]] std::string changes_bytes(const World& world, const SavedChanges& changes,
                                        PackFormat format = PackFormat::json);

struct LoadedChanges {
    SavedChanges changes;            // with the ids of the world they were read for
    std::vector<std::string> lost;   // changes that do not fit this world, in words
};
// Reads either format, for a world that may differ from the one that was played. A fault has a line for everything that
// is wrong, with its path in the tree; `report()` has the same as findings.
[[nodiscard]] Result<LoadedChanges> read_changes(const World& world, std::string_view bytes);

}   // namespace dryground
