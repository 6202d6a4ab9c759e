#include <catch2/catch.hpp>

#include <random>

#include "chance.hpp"
#include "clean_worlds.hpp"
#include "dryground/probe.hpp"

using namespace dryground;

namespace {

World world_of(const worlds::Files& files) {
    const Loaded loaded = worlds::load(files);
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    return loaded.world();
}

bool says(const std::vector<std::string>& lines, const std::string& part) {
    return std::any_of(lines.begin(), lines.end(),
                       [&](const std::string& line) { return line.find(part) != std::string::npos; });
}

worlds::Files with_water() {   // a boardwalk over the water's middle
    worlds::Files files =
        worlds::with(worlds::small_world(), "flat.toml", "......\n......\n..../#", "......\n~~....\n..../#");
    files = worlds::with(files, "flat.toml", "\"#\" = \"peat\"",
                         "\"#\" = \"peat\", \"~\" = \"brine\", \"=\" = \"boardwalk\"");
    return worlds::with(files, "flat.toml", "[[layers]]\nname = \"people\"",
                        "[[layers]]\nname = \"deck\"\nrows = "
                        "'''\n......\n=.....\n......\n......\n'''\n\n[[layers]]\nname = \"people\"");
}

}   // namespace

TEST_CASE("probe tells the place, the tiles from the top, who decides flags, and what is solid") {
    const World world = world_of(worlds::small_world());
    const Prober prober(world, world.map("flat"));
    const Probe bank = prober.at({76, 46});   // in the lower right of the bank
    CHECK(bank.place == "flat at (76, 46) px, cell (4, 2)");
    CHECK(bank.tiles == std::vector<std::string>{"ground: marsh/bank; polygon [[0, 16], [16, 0], [16, 16]] of earth"});
    CHECK(bank.solids == std::vector<std::string>{"earth, of marsh/bank in layer ground"});
    CHECK(prober.at({66, 34}).solids.empty());   // in its upper left
    CHECK(text(bank).find("solid here\n  earth, of marsh/bank in layer ground\n") != std::string::npos);
}

TEST_CASE("probe tells what is carved away, and by what") {
    const World world = world_of(with_water());
    const Prober prober(world, world.map("flat"));
    const Probe on = prober.at({8, 24}), beside = prober.at({8, 17}), off = prober.at({24, 24});
    CHECK(on.solids ==
          std::vector<std::string>{"no brine of layer ground here: marsh/boardwalk in layer deck carves it away"});
    CHECK(beside.solids == std::vector<std::string>{"brine, of marsh/brine in layer ground"});
    CHECK(off.solids == std::vector<std::string>{"brine, of marsh/brine in layer ground"});
    CHECK(says(on.tiles, "carves brine: box [0, 4, 16, 8]"));
    CHECK(says(on.flags, "grants walk (says marsh/boardwalk in layer deck)"));
}

TEST_CASE("probe tells objects here and near, and what is said of them") {
    const World world = world_of(worlds::small_world());
    const Prober prober(world, world.map("flat"));
    CHECK(says(prober.at({44, 48}).objects, "crab_a: crab, entity, at [40, 48] in layer people"));
    CHECK(says(prober.at({44, 48}).objects, "patrol_px = 32"));
    CHECK(says(prober.at({44, 48}).objects, "4 px from here"));
    CHECK(prober.at({60, 20}).objects.empty());
}

TEST_CASE("probe tells which tile a contact means") {
    const World world = world_of(worlds::small_world());
    const Prober prober(world, world.map("flat"));
    ProbeQuestion down;
    down.normal = PointPx{0, -1};
    CHECK(prober.at({20, 48}, down).contact ==
          std::vector<std::string>{"earth, of marsh/peat in layer ground at cell (1, 3), its top side"});
    CHECK(prober.at({20, 20}, down).contact == std::vector<std::string>{"nothing lies within 1 px on that side"});
    down.normal = PointPx{1, 0};
    CHECK(says(prober.at({0, 20}, down).contact, "of the map's rim"));
}

TEST_CASE("probe tells what a mover would meet") {
    const World world = world_of(worlds::small_world());
    const Prober prober(world, world.map("flat"));
    ProbeQuestion warden;
    warden.mover = 0;
    CHECK(prober.at({24, 48}, warden).mover == std::vector<std::string>{"its body fits here"});
    CHECK(prober.at({24, 52}, warden).mover ==
          std::vector<std::string>{"overlaps earth of marsh/peat in layer ground"});
}

TEST_CASE("probe says of a place outside that it is outside") {
    const World world = world_of(worlds::small_world());
    const Prober prober(world, world.map("flat"));
    const Probe out = prober.at({-100, 20});
    CHECK(out.place == "flat at (-100, 20) px, cell (-7, 1), outside of the map");
    CHECK(out.tiles.empty());
    CHECK(says(prober.at({-4, 20}).solids, "earth, of the map's rim"));
}

// What is solid at a point, as the merged ground has it.
TEST_CASE("at any point probe tells just the barriers that are merged there") {
    std::mt19937_64 dice(chance::seed());
    for (std::uint64_t round = 0; round < static_cast<std::uint64_t>(chance::rounds(24)); ++round) {
        const World world = world_of(worlds::clean_world(round));
        for (const Map& map : world.maps()) {
            const Prober prober(world, map);
            const Merge merged = merge(world, map);
            std::uniform_int_distribution<std::int32_t> across(map.least().x - 2048, map.most().x + 2048),
                down(map.least().y - 2048, map.most().y + 2048);
            for (int i = 0; i < 200; ++i) {
                const Point p{across(dice), down(dice)};
                const std::vector<std::string> solids = prober.at({to_px(p.x), to_px(p.y)}).solids;
                for (const Group& group : merged.groups) {
                    if (!group.trigger.empty() || group.regions.empty()) continue;
                    const Side side = locate(group.regions, p);
                    if (side == Side::edge) continue;
                    CAPTURE(round, map.name, p.x, p.y, group.barrier, group.storey,
                            text(prober.at({to_px(p.x), to_px(p.y)})));
                    const bool told = std::any_of(solids.begin(), solids.end(), [&](const std::string& line) {
                        return line.rfind(group.barrier + ",", 0) == 0 ||
                               line.rfind(group.storey + ": " + group.barrier + ",", 0) == 0;
                    });
                    CHECK(told == (side == Side::inside));
                }
            }
        }
    }
}
