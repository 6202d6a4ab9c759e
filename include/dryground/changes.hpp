// Saved games: the differences from a pack, as a file holds them. `dryground/changes/1` (schema/changes.schema.json).
//
//     const dg::Result<void> written = dg::write_file("game.save", dg::changes_bytes(play.world(), play.changes()));
//     …
//     const dg::Result<dg::LoadedChanges> saved = dg::read_changes(play.world(), *dg::read_file("game.save"));
//     if (saved) play.apply(saved->changes);
//
// Where something could not be done, `fault()` of either says why. Threads: free functions without shared state.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "dryground/files.hpp"
#include "dryground/play.hpp"

namespace dryground {

// Things are named as in the world's files, objects without a name by their kind and position: what is inserted or
// moved elsewhere in the world changes nothing. The same changes give the same bytes. Requires that they are of this
// world.
[[nodiscard]] std::string changes_bytes(const World& world, const SavedChanges& changes,
                                        PackFormat format = PackFormat::json);

struct LoadedChanges {
    SavedChanges changes;            // by the ids of the world that they were read for
    std::vector<std::string> lost;   // what this world has no place for, in words
};
// Reads either format, for a world that need not be the one that was played. The fault says the way to it in the tree,
// and what is wrong there.
[[nodiscard]] Result<LoadedChanges> read_changes(const World& world, std::string_view bytes);

}   // namespace dryground
