// Reading any bytes as a saved game's changes: no crash, no hang; refused with a reason, or applied to a map, saved
// again and read again, the same.
#include <cstdint>
#include <cstdlib>

#include "dryground/builder.hpp"
#include "dryground/changes.hpp"
#include "dryground/play.hpp"

using namespace dryground;

namespace {

// Two tiles, a fact, a thing to pick up: enough for each sort of change.
World small_world() {
    WorldBuilder builder;
    builder.world({.title = "Flat",
                   .barriers = {{.name = "earth"}},
                   .facts = {{.name = "lit"}},
                   .kinds = {{.name = "shell", .role = Name("entity")}}});
    builder.tileset({.name = "marsh",
                     .tiles = {{.name = "peat", .unseen = true, .barrier = "earth", .shapes = {{{WholeCell{}}}}},
                               {.name = "reeds", .unseen = true, .shapes = std::vector<ShapeDraft>{}}}});
    builder.map({.name = "flat",
                 .size = std::array{4, 3},
                 .tilesets = {"marsh"},
                 .legend = {{.key = "#", .tile = "peat"}, {.key = "o", .kind = Name("shell")}},
                 .layers = {{.name = "ground", .rows = {"....", "..o.", "####"}}}});
    const Result<World> built = builder.build();
    if (!built) std::abort();
    return *built;
}

}   // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    if (size > 1 << 16) return 0;
    static const World world = small_world();
    const Result<LoadedChanges> read = read_changes(world, {reinterpret_cast<const char*>(data), size});
    if (static_cast<bool>(read) == !read.fault().empty()) std::abort();
    if (!read) return 0;
    Play play(world, "flat");
    (void)play.apply(read->changes);
    for (const PackFormat format : {PackFormat::json, PackFormat::cbor}) {
        const std::string bytes = changes_bytes(world, play.changes(), format);
        const Result<LoadedChanges> again = read_changes(world, bytes);
        if (!again || changes_bytes(world, again->changes, format) != bytes) std::abort();
    }
    return 0;
}
