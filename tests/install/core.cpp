// The core alone: a world in code, checked and merged, without any file.
#include <cstdio>
#include <dryground/builder.hpp>
#include <dryground/check.hpp>
#include <dryground/merge.hpp>

int main() {
    dryground::WorldBuilder builder;
    dryground::WorldDraft world;
    world.title = "Sedge Point";
    builder.world(world);
    const dryground::Result<dryground::World> built = builder.build();
    if (!built) return 1;
    std::printf("%s: %zu findings\n", built->title().c_str(), dryground::check(*built).findings().size());
}
