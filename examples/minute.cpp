// A minute with the library: what the README shows.
#include <dryground/dryground.hpp>

#include <cstdio>
namespace dg = dryground;

int main() {
    const dg::Result<dg::World> loaded = dg::load_world("demo/world.toml");
    if (!loaded) {
        std::fputs(dg::text(loaded.report()).c_str(), stderr);
        return 1;
    }
    const dg::World& world = *loaded;
    std::fputs(dg::text(dg::check(world)).c_str(), stdout);   // findings are data, not exceptions

    const dg::Merge merged = dg::merge(world, world.map("slipway"));
    for (const dg::Region& region : merged.group("earth").regions)   // exact outlines and holes
        std::printf("earth: %zu vertices around\n", region.outline.size());

    dg::Play play(world, "slipway");   // a game: *dg::load_pack("station.pack.cbor"), without any TOML reader
    for (const dg::Touch& touch : play.touched({.point = {328, 128}, .normal = {0, -1}})) {
        const std::string tile = play.find_tile(touch.layer, touch.cell)->name;
        const dg::EditResult changed = play.clear(touch.layer, touch.cell);
        std::printf("hit and removed %s; chunks with other ground: %zu\n", tile.c_str(), changed.chunks.size());
    }
}
