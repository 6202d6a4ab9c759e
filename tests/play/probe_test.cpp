// Also tests src/play: probe_firings probe_words
#include <catch2/catch.hpp>

#include <random>

#include "chance.hpp"
#include "clean_worlds.hpp"
#include "dryground/play.hpp"
#include "dryground/probe.hpp"

using namespace dryground;

namespace {

World world_of(const worlds::Files& files) {
    const Result<World> loaded = worlds::load(files);
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    return *loaded;
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

TEST_CASE("probe reports the place, the tiles from the top, who decides flags, and what is solid") {
    const World world = world_of(worlds::small_world());
    const Prober prober(world, world.map("flat"));
    const Probe bank = prober.at({76, 46});   // in the lower right of the bank
    CHECK(bank.place == "flat at (76, 46) px, cell (4, 2)");
    CHECK(bank.tiles == std::vector<std::string>{"ground: marsh/bank; polygon [[0, 16], [16, 0], [16, 16]] of earth"});
    CHECK(bank.solids == std::vector<std::string>{"earth, of marsh/bank in layer ground"});
    CHECK(prober.at({66, 34}).solids.empty());   // in its upper left
    CHECK(text(bank).find("solid here\n  earth, of marsh/bank in layer ground\n") != std::string::npos);
}

TEST_CASE("probe reports what is carved away, and by what") {
    const World world = world_of(with_water());
    const Prober prober(world, world.map("flat"));
    const Probe on = prober.at({8, 24}), beside = prober.at({8, 17}), off = prober.at({24, 24});
    CHECK(on.solids ==
          std::vector<std::string>{"no brine of layer ground here: marsh/boardwalk in layer deck carves it away"});
    CHECK(beside.solids == std::vector<std::string>{"brine, of marsh/brine in layer ground"});
    CHECK(off.solids == std::vector<std::string>{"brine, of marsh/brine in layer ground"});
    CHECK(says(on.tiles, "carves brine: box [0, 4, 16, 8]"));
    CHECK(says(on.flags, "grants walk (set by marsh/boardwalk in layer deck)"));
}

TEST_CASE("probe reports objects here and near, and what is said of them") {
    const World world = world_of(worlds::small_world());
    const Prober prober(world, world.map("flat"));
    CHECK(says(prober.at({44, 48}).objects, "crab_a: crab, entity, at [40, 48] in layer people"));
    CHECK(says(prober.at({44, 48}).objects, "patrol_px = 32"));
    CHECK(says(prober.at({44, 48}).objects, "4 px from here"));
    CHECK(prober.at({60, 20}).objects.empty());
}

TEST_CASE("probe reports which tile a contact means") {
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

TEST_CASE("probe reports what a mover would meet") {
    const World world = world_of(worlds::small_world());
    const Prober prober(world, world.map("flat"));
    ProbeQuestion warden;
    warden.mover = MoverId{0};
    CHECK(prober.at({24, 48}, warden).mover == std::vector<std::string>{"warden fits here"});
    CHECK(prober.at({24, 52}, warden).mover ==
          std::vector<std::string>{"warden overlaps earth of marsh/peat in layer ground"});
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
TEST_CASE("at any point probe reports just the barriers that are merged there") {
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

TEST_CASE("probe reports what comes and goes with facts, and what is never more than decor") {
    worlds::Files files = worlds::with(worlds::small_world(), "flat.toml", "name = \"ground\"",
                                       "name = \"ground\"\nwhen = [\"has_key\"]");
    files =
        worlds::with(files, "flat.toml", "[[layers]]\nname = \"people\"",
                     "[[layers]]\nname = \"weeds\"\ndecor = true\nrows = '''\n......\n......\n......\n#.....\n'''\n\n"
                     "[[layers]]\nname = \"people\"");
    const World world = world_of(files);
    const Prober without(world, world.map("flat")), with_key(world, world.map("flat"), {FactId{0}});
    const Probe gone = without.at({8, 56}), there = with_key.at({8, 56});
    CHECK(gone.tiles == std::vector<std::string>{"weeds: marsh/peat; decor, which neither stops nor grants",
                                                 "ground: marsh/peat; the layer is not there with these facts"});
    CHECK(gone.solids.empty());
    CHECK(there.solids == std::vector<std::string>{"earth, of marsh/peat in layer ground"});
}

TEST_CASE("probe reports flips and turns, reactions, and what a tile needs and gives") {
    worlds::Files files = worlds::with(worlds::small_world(), "flat.toml", "\"/\" = \"bank\"",
                                       "\"/\" = { tile = \"bank\", flip = \"x\" }");
    files = worlds::with(files, "marsh.toml", "[tiles.bank]",
                         "[tiles.bank]\nneeds = [\"has_key\"]\nreacts = [{ fires = \"bump\", runs = \"ring\" }]");
    const World world = world_of(files);
    const std::string line = Prober(world, world.map("flat")).at({66, 46}).tiles.front();
    CHECK(line.find("marsh/bank flipped left to right") != std::string::npos);
    CHECK(line.find("solid until has_key") != std::string::npos);
    CHECK(line.find("reacts to bump, runs ring") != std::string::npos);
}

TEST_CASE("probe reports a line's direction as it lies on the map, turned with its tile") {
    worlds::Files files = worlds::with(
        worlds::small_world(), "marsh.toml", "[tiles.bank]",
        "[tiles.plank]\nunseen = true\nbarrier = \"earth\"\nshapes = [{ line = [[0, 8], [16, 8]], one_way = \"up\" }]\n"
        "[tiles.bank]");
    files = worlds::with(files, "flat.toml", "\"/\" = \"bank\"", "\"/\" = { tile = \"plank\", turn = 90 }");
    const auto line = [](const worlds::Files& of) {
        const World world = world_of(of);
        return Prober(world, world.map("flat")).at({66, 46}).tiles.front();
    };
    CHECK_THAT(line(files), Catch::Contains("of earth, passed going right"));
    files = worlds::with(files, "flat.toml", "turn = 90", "flip = \"y\"");
    CHECK_THAT(line(files), Catch::Contains("of earth, passed going down"));
}

TEST_CASE("probe reports sides that are shut, and who shuts them") {
    worlds::Files files = worlds::with(worlds::small_world(), "marsh.toml", "flags = [\"walk\"]",
                                       "flags = [\"walk\"]\nsides = { left = \"in\", top = \"shut\" }");
    files = worlds::with(files, "flat.toml", "\"/\" = \"bank\"", "\"/\" = \"boardwalk\"");
    const World world = world_of(files);
    CHECK(Prober(world, world.map("flat")).at({72, 40}).flags ==
          std::vector<std::string>{
              "grants walk (set by marsh/boardwalk in layer ground); sides: top shut, left in (set by "
              "marsh/boardwalk in layer ground)"});
}

TEST_CASE("probe reports triggers and links, what they need, give and lead to, and which a mover stands in") {
    const World world = world_of(worlds::with(
        worlds::small_world(), "flat.toml", "objects = [",
        "objects = [\n  { name = \"bell\", kind = \"trigger\", box = [16, 34, 16, 14], once = true, needs = "
        "[\"has_key\"], runs = \"ring\" },\n  { name = \"gate\", kind = \"link\", box = [60, 16, 8, 8], to = "
        "\"flat/landing\", one_way = true },"));
    const Prober prober(world, world.map("flat"));
    const std::vector<std::string> bell = prober.at({20, 40}).objects, gate = prober.at({64, 20}).objects;
    for (const char* part : {"bell: trigger", "fires on enter, once, by warden", "needs has_key", "runs ring"})
        CHECK(says(bell, part));
    CHECK(says(gate, "leads to flat/landing"));
    ProbeQuestion warden;
    warden.mover = MoverId{0};
    CHECK(says(prober.at({24, 48}, warden).mover, "is inside trigger 'bell', which needs has_key"));
    CHECK_FALSE(says(prober.at({24, 48}, warden).mover, "enter: "));
    CHECK_FALSE(says(prober.at({50, 48}, warden).mover, "bell"));
    const FactId has_key = world.find_fact("has_key");
    REQUIRE(has_key != FactId::none);
    const Prober later(world, world.map("flat"), {has_key});
    CHECK(says(later.at({24, 48}, warden).mover, "enter: trigger 'bell', once, runs ring"));
    CHECK(says(later.at({64, 24}, warden).mover, "enter: link 'gate' leads to flat/landing"));
}

TEST_CASE("probe reports all that a mover sets off where it stands, as the tracker does") {
    worlds::Files files =
        worlds::with(worlds::small_world(), "marsh.toml", "[tiles.bank]",
                     "[tiles.steam]\nunseen = true\nshapes = [{ cell = true, trigger = \"steam\" }]\nreacts = [{ fires "
                     "= \"inside\", "
                     "every_s = 0.5, runs = \"ring\" }]\n[tiles.crate]\nunseen = true\nbarrier = \"earth\"\nshapes = "
                     "[\"cell\"]\nreacts = [{ fires = \"bump\", from = [\"left\"], turns_into = \"\" }]\n[tiles.bank]");
    files =
        worlds::with(files, "flat.toml", "\"/\" = \"bank\"", "\"/\" = \"bank\", \"s\" = \"steam\", \"c\" = \"crate\"");
    files = worlds::with(files, "flat.toml", "......\n......\n..../#", "......\n......\n.sc./#");
    files =
        worlds::with(files, "flat.toml", "objects = [",
                     "objects = [\n  { name = \"lever\", kind = \"trigger\", box = [4, 34, 8, 12], fires = \"use\", "
                     "gives = [\"has_key\"] },\n  { name = \"tile_of_bell\", kind = \"solid\", box = [8, 36, 6, 4], "
                     "barrier = \"earth\", fires = \"bump\", runs = \"ring\" },");
    const World world = world_of(files);
    const Prober prober(world, world.map("flat"));
    ProbeQuestion warden;
    warden.mover = MoverId{0};
    // In the steam, beside the crate.
    const std::vector<std::string> in_steam = prober.at({27, 48}, warden).mover;
    CAPTURE(in_steam);
    CHECK(says(in_steam, "inside: marsh/steam in layer ground at cell (1, 2), every 0.5 s, runs ring"));
    CHECK(says(in_steam, "bump: marsh/crate in layer ground at cell (2, 2) is gone then"));
    CHECK(says(in_steam, "use: trigger 'lever' gives has_key"));   // from the next cell
    CHECK_FALSE(says(in_steam, "tile_of_bell"));
    // Beside the solid that rings.
    CHECK(says(prober.at({19, 48}, warden).mover, "bump: solid 'tile_of_bell' runs ring"));
    // Nothing of it changes what is told next.
    CHECK(prober.at({27, 48}, warden).mover == in_steam);
}

TEST_CASE("probe reports of one storey what is on it") {
    worlds::Files files = with_water();
    files = worlds::with(files, "world.toml", "[facts]", "[storeys]\nloft = { base_px = 32 }\n[facts]");
    files = worlds::with(files, "flat.toml", "name = \"deck\"", "name = \"deck\"\nstorey = \"loft\"");
    const World world = world_of(files);
    const Prober prober(world, world.map("flat"));
    ProbeQuestion below, above;
    below.storey = StoreyId::ground, above.storey = world.find_storey("loft");
    REQUIRE(above.storey > StoreyId::ground);
    const PointPx at{8, 24};
    CHECK(prober.at(at).tiles.size() == 2);
    CHECK(prober.at(at, below).tiles.size() == 1);
    CHECK(says(prober.at(at, above).tiles, "deck: marsh/boardwalk"));
    CHECK(says(prober.at(at, below).solids, "brine"));
    CHECK_FALSE(says(prober.at(at, above).solids, "brine"));
    CHECK(prober.at(at, above).flags.size() == 1);
}

TEST_CASE("probe never reports a barrier that is there as carved away") {
    worlds::Files files = with_water();
    files = worlds::with(files, "flat.toml", "[[layers]]\nname = \"people\"",
                         "[[layers]]\nname = \"flood\"\nrows = "
                         "'''\n......\n~.....\n......\n......\n'''\n\n[[layers]]\nname = \"people\"");
    const World world = world_of(files);
    const std::vector<std::string> solids = Prober(world, world.map("flat")).at({8, 24}).solids;
    CHECK(says(solids, "brine, of marsh/brine in layer flood"));
    CHECK_FALSE(says(solids, "no brine"));
}

// What a contact means, as a running game is told it.
TEST_CASE("a probe's contact is what Play reports of it") {
    std::mt19937_64 dice(chance::seed());
    for (std::uint64_t round = 0; round < 6; ++round) {
        const World world = world_of(worlds::clean_world(round));
        const Map& map = world.maps().front();
        const Play play(world, map.name);
        const Prober prober(world, map);
        std::uniform_int_distribution<int> across(map.least().x / steps_per_px, map.most().x / steps_per_px),
            down(map.least().y / steps_per_px, map.most().y / steps_per_px), way(0, 3);
        for (int i = 0; i < 200; ++i) {
            const PointPx at{static_cast<double>(across(dice)), static_cast<double>(down(dice))};
            const PointPx normal =
                std::array<PointPx, 4>{{{0, -1}, {1, 0}, {0, 1}, {-1, 0}}}[static_cast<std::size_t>(way(dice))];
            ProbeQuestion question;
            question.normal = normal;
            const Touches touches = play.touched(Contact{.point = at, .normal = normal});
            const std::vector<std::string> told = prober.at(at, question).contact;
            CAPTURE(round, at.x, at.y, normal.x, normal.y);
            if (touches.empty()) {
                CHECK(says(told, "nothing lies within 1 px"));
                continue;
            }
            REQUIRE(told.size() == touches.size());
            for (std::size_t k = 0; k < told.size(); ++k)
                CHECK(told[k].find(touches[k].sort == Touched::rim
                                       ? std::string("the map's rim")
                                       : fmt::format("at cell ({}, {})", touches[k].cell.column,
                                                     touches[k].cell.row)) != std::string::npos);
        }
    }
}
