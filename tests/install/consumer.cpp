// Loads a world, checks and merges it, and puts it into a physics space: what the README shows.
#include <chipmunk/chipmunk.h>

#include <cstdio>
#include <dryground/chipmunk.hpp>
#include <dryground/dryground.hpp>

int main(int, char** argv) {
    const dryground::Result<dryground::World> loaded = dryground::load_world(argv[1]);
    if (!loaded) return 1;
    const dryground::World& world = *loaded;
    if (!dryground::check(world).empty()) return 2;
    const dryground::Merge merged = dryground::merge(world, world.map("slipway"));
    cpSpace* space = cpSpaceNew();
    std::size_t shapes = 0;
    {
        const dryground::chipmunk::Ground ground(space, world, merged);
        shapes = ground.shapes().size();
    }
    cpSpaceFree(space);
    std::printf("%s: %zu shapes\n", dryground::version, shapes);
    return shapes > 0 ? 0 : 3;
}
