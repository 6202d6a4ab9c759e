// Saved games: what is other than in the pack, as a file holds it. `dryground/changes/1` (schema/changes.schema.json).
//
//     std::string fault = dg::write_file("game.save", dg::changes_bytes(play.world(), play.changes()));
//     …
//     const dg::LoadedChanges saved = dg::read_changes(play.world(), *dg::read_file("game.save").bytes);
//     fault = saved.changes ? play.apply(*saved.changes) : saved.fault;
//
// Threads: free functions without shared state.
#pragma once

#include <optional>
#include <string>
#include <string_view>

#include "dryground/files.hpp"
#include "dryground/play.hpp"

namespace dryground {

// Things are named as in the world's files, objects by their position in the map. The same changes give the same bytes.
// Requires that they are of this world.
[[nodiscard]] std::string changes_bytes(const World& world, const Changes& changes,
                                        PackFormat format = PackFormat::json);

struct LoadedChanges {
    std::optional<Changes> changes;
    std::string fault;   // why there are none: the way to it in the tree, what is wrong
};
// Reads either format. Whether they fit the world `Play::apply` tells; the names in them must be there.
[[nodiscard]] LoadedChanges read_changes(const World& world, std::string_view bytes);

}   // namespace dryground
