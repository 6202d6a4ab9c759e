// The code of documents and of the heads of headers, compiled: scripts/check_house.py looks for each of their lines
// here and in the examples. What needs a running game is compiled alone; a world in code is built.
#include <catch2/catch.hpp>

#include <dryground/chipmunk.hpp>
#include <dryground/chipmunk_play.hpp>
#include <dryground/dryground.hpp>

#include <fmt/format.h>

namespace dg = dryground;

namespace {

[[maybe_unused]] void playing(dg::PointPx p, dg::PointPx n) {
    dg::Play play(*dg::load_pack("station.pack.cbor"), "slipway");
    for (const dg::Touch& touch : play.touched({.point = p, .normal = n}))
        for (const std::size_t chunk : play.set_tile(touch.layer, touch.cell, "").chunks)
            (void)chunk, (void)touch.tile, (void)touch.side, (void)touch.object;
}

[[maybe_unused]] void triggers(dg::Play& play, dg::Events& events, dg::chipmunk::LiveGround& ground, double seconds,
                               const std::vector<dg::BodyNow>& bodies) {
    dg::TriggerTracker tracker(play);
    for (const dg::Firing& firing : tracker.update(seconds, bodies)) {
        events.run(play.world(), firing);
        if (firing.link != nullptr) { /* firing.link->to: map/object */
        }
        ground.replace(play, firing.changed.chunks);
    }
}

[[maybe_unused]] std::string saved(dg::Play& play) {
    const dg::Result<void> written = dg::write_file("game.save", dg::changes_bytes(play.world(), play.changes()));
    const dg::Result<dg::LoadedChanges> saved = dg::read_changes(play.world(), *dg::read_file("game.save"));
    if (saved) play.apply(saved->changes);
    return written.fault();
}

[[maybe_unused]] void spawning(dg::Play& play, bool (*make_crab)(std::array<double, 2> metres, double patrol_px)) {
    dg::Spawners spawners;
    spawners.on("silt_crab", [&](const dg::Spawned& crab) { return make_crab(crab.at_m(), crab.number("patrol_px")); });
    const dg::SpawnReport report = spawners.spawn(play);
}

[[maybe_unused]] void engine(cpSpace* space, cpShape* warden, cpShape* shape, cpArbiter* arbiter,
                             const dg::World& world, const dg::Merge& merged, dg::Play& play, const dg::Touch& crate) {
    {
        dg::chipmunk::Ground ground(space, world, merged);
        cpShapeSetFilter(warden, dg::chipmunk::filter_of(world, "warden_side"));
        if (const auto* touched = dg::chipmunk::group_of(shape)) (void)touched->group->barrier;
    }
    dg::chipmunk::LiveGround ground(space, play);
    ground.replace(play, play.set_tile(crate.layer, crate.cell, "").chunks);
    for (const dg::Touch& touch : dg::chipmunk::touched(play, arbiter)) (void)touch;
}

[[maybe_unused]] void editing(const std::string& cache_folder) {
    dg::EditSession session("station/world.toml", {.history = cache_folder});
    const dg::Result<dg::Made> made = session.make(dg::AddThing{"fact", "lamp_lit"}, "fact add lamp_lit");
    if (!made) fmt::print("{}", made.fault());
    const dg::Result<dg::Made> undone = session.undo();
    if (undone) fmt::print("{}", undone->name);
}

[[maybe_unused]] void loading() {
    const dg::Result<dg::World> loaded = dg::load_world("demo/world.toml");
    if (!loaded) fmt::print("{}", dg::text(loaded.report()));
    const dg::World& world = *loaded;
    fmt::print("{}", world.title());
}

[[maybe_unused]] void comparing() {
    const auto before = dg::load_version("old/world.toml"), after = dg::load_version("new/world.toml");
    if (before && after) fmt::print("{}", dg::text(dg::compare(*before, *after)));
}

[[maybe_unused]] void pictures(const dg::World& world) {
    const dg::ArtSource art{"demo"};
    const std::string svg = dg::draw_svg(world, world.map("slipway"), dg::check(world), art);
    const dg::Prober prober(world, world.map("slipway"));
    fmt::print("{}", dg::text(prober.at({100, 150})));
}

}   // namespace

TEST_CASE("the world in code that a header shows can be built, and has its ground") {
    dg::WorldBuilder builder;
    builder.world({.title = "Sedge Point", .barriers = {{.name = "earth"}}});
    builder.tileset({.name = "marsh",
                     .tiles = {{.name = "peat", .unseen = true, .barrier = "earth", .shapes = {{{dg::WholeCell{}}}}}}});
    builder.map({.name = "slipway",
                 .size = std::array{3, 2},
                 .tilesets = {"marsh"},
                 .legend = {{.key = "#", .tile = "peat"}},
                 .layers = {{.name = "ground", .rows = {"...", "###"}}}});
    const dg::Result<dg::World> built = builder.build();
    INFO(dg::text(built.report()));
    REQUIRE(built);
    CHECK(dg::merge(*built, built->map("slipway")).group("earth").regions.size() == 1);
}
