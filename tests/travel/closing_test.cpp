// Which facts may close something: doors that open do not, walls that come do.
#include "travel/closing_internal.hpp"

#include <catch2/catch.hpp>

#include <set>

#include "rambles.hpp"
#include "random_worlds.hpp"
#include "travel/ways_internal.hpp"
#include "worlds.hpp"

using namespace dryground;

namespace {

// A room in two halves seen from above, the warden on the left; layers and objects besides.
World room(const std::string& layers, const std::string& objects = "", const std::string& moves = "free") {
    worlds::Files files;
    files["world.toml"] = R"(format = "dryground/world/1"
title = "Sedge Point"
tilesets = ["a.toml"]
maps = ["m.toml"]
start = "m/here"
player = "warden"
barriers.earth = {}
barriers.brine = {}
facts.wet = ""
facts.lit = ""
kinds.spawn = { role = "spawn", mover = "warden" }
kinds.gate = { role = "solid", barrier = "earth" }
kinds.lever = { role = "trigger" }
kinds.shell = { role = "entity" }
[movers.warden]
body = { box = [8, 8] }
stopped_by = ["earth", "brine"]
moves = ")" + moves + "\"\n";
    files["a.toml"] = R"(format = "dryground/tiles/1"
name = "a"
cell = [16, 16]
[tiles.wall]
unseen = true
barrier = "earth"
shapes = ["cell"]
[tiles.pool]
unseen = true
barrier = "brine"
shapes = ["cell"]
[tiles.boardwalk]
unseen = true
carves = [{ barrier = "brine" }]
shapes = []
[tiles.shut]
unseen = true
sides = { left = "shut" }
shapes = []
)";
    files["m.toml"] = R"(format = "dryground/map/1"
name = "m"
cell = [16, 16]
size = [7, 3]
rim = "earth"
tilesets = ["a"]
legend = { "#" = "wall", "o" = "pool", "=" = "boardwalk", "|" = "shut" }
)" + layers + R"(
[[layers]]
name = "things"
objects = [
  { name = "here", kind = "spawn", cell = [0, 1] },
)" + objects + "]\n";
    const Result<World> loaded = worlds::load(files);
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    return *loaded;
}

std::string layer(const std::string& name, const std::string& keys, const std::string& column) {
    std::string rows;
    for (int r = 0; r < 3; ++r) rows += "..." + column + "...\n";
    return fmt::format("[[layers]]\nname = \"{}\"\n{}\nrows = '''\n{}'''\n", name, keys, rows);
}

bool closes(const World& world, bool turns = false) {
    std::vector<char> closing(world.facts().size());
    travel::add_closing_facts(world, world.maps()[0], MoverId{0}, turns, closing);
    return closing[index(world.find_fact("wet"))] != 0;
}

// A place that a mover may be in: seen from the side these are lines, which a random point would miss.
std::pair<StoreyId, Point> somewhere(const travel::Ways& ways, const Map& map, chance::Dice& dice) {
    if (ways.places() > 0) {
        const TravelPlace place = ways.shape(dice.in(0, ways.places() - 1));
        if (place.line.size() > 1) {
            const auto i = static_cast<std::size_t>(dice.in(0, static_cast<int>(place.line.size()) - 2));
            const PointPx p = place.line[i], q = place.line[i + 1];
            return {place.storey, travel::steps_of({(p.x + q.x) / 2, (p.y + q.y) / 2})};
        }
    }
    const Point least = map.least(), most = map.most();
    return {StoreyId::ground, {dice.in(least.x, most.x), dice.in(least.y, most.y)}};
}

}   // namespace

TEST_CASE("a fact closes where ground comes with it, not where ground goes", "[travel]") {
    const std::string when = "when = [\"wet\"]", unless = "unless = [\"wet\"]";
    CHECK_FALSE(closes(room(layer("door", unless, "#"))));
    CHECK(closes(room(layer("door", when, "#"))));
    const std::string pool = layer("pool", "", "o");
    CHECK_FALSE(closes(room(pool + layer("bridge", when, "="))));
    CHECK(closes(room(pool + layer("bridge", unless, "="))));
    CHECK_FALSE(closes(room(layer("wall", "", "#") + layer("door", when, "#"))));   // nothing comes of it
    CHECK_FALSE(closes(room(layer("door", unless, "#"), "", "side")));
    CHECK(closes(room(layer("door", when, "#"), "", "side")));
    const std::string crate =
        "[[layers]]\nname = \"crate\"\nunless = [\"wet\"]\nrows = '''\n.......\n.......\n...#...\n'''\n";
    CHECK_FALSE(closes(room(crate)));
    CHECK(closes(room(crate, "", "side")));   // it may be stood on
    CHECK(closes(room(layer("door", unless, "#")), true));
    CHECK(closes(room(layer("sides", unless, "|"))));   // more than area

    const std::string gate = "{ kind = \"gate\", box = [48, 0, 16, 48], KEY = [\"wet\"] },\n";
    const auto with = [&](std::string text, const std::string& key) { return text.replace(text.find("KEY"), 3, key); };
    CHECK_FALSE(closes(room("", with(gate, "unless"))));
    CHECK(closes(room("", with(gate, "when"))));
    const std::string shell = "{ kind = \"shell\", cell = [5, 1], KEY = [\"wet\"] },\n";
    CHECK(closes(room("", with(shell, "unless"))));
    CHECK_FALSE(closes(room("", with(shell, "when"))));

    // With another fact the bridge is in the way of a wall that would be there without it.
    CHECK(closes(room(layer("pool", "when = [\"lit\"]", "o") + layer("bridge", unless, "="))));
}

TEST_CASE("who waits for a door of a fact that never comes is out of reach, not undecided", "[travel]") {
    const std::string door = layer("door", "unless = [\"wet\"]", "#");
    const std::string lever = "{ kind = \"lever\", cell = [1, 0], gives = [\"wet\"] },\n",
                      shell =
                          "{ name = \"shell\", kind = \"shell\", cell = [6, 1], area = { box = [-4, -4, 8, 8] } },\n";
    const Spot behind{MapId{0}, StoreyId::ground, {88, 24}};
    const World shut = room(door), opened = room(door, lever);
    CHECK(reach(shut).reached(behind) == Reached::no);
    CHECK(reach(opened).reached(behind) == Reached::yes);
    const std::string wall = layer("wall", "", "#");
    CHECK(reach(room(wall + layer("lock", "unless = [\"wet\"]", "#"), lever)).reached(behind) == Reached::no);
}

TEST_CASE("seen from the side, a door of a fact that nothing gives stays shut; one that is given is walked through") {
    const std::string layers =
        "[[layers]]\nname = \"door\"\nunless = [\"open\"]\nrows = '''\n...#....\n...#....\n...#....\n........\n'''\n";
    const auto with = [&](const std::string& lever) {
        return worlds::world_of(
            rambles::one_map({"........", "........", "........", "########"},
                             "{ name = \"landing\", kind = \"spawn\", at = [16, 48] },\n"
                             "{ name = \"shell\", kind = \"thing\", at = [104, 48], gives = [\"found\"] },\n" +
                                 lever,
                             {}, "open = \"\"\nfound = \"\"\n", layers));
    };
    const World shut = with(""),
                opened = with("{ name = \"lever\", kind = \"thing\", at = [32, 48], gives = [\"open\"] },\n"),
                behind = with("{ name = \"lever\", kind = \"thing\", at = [80, 48], gives = [\"open\"] },\n");
    const auto shell = [](const World& world, const ReachOptions& options = {}) {
        return reach(world, options).reached(MapId{0}, world.maps()[0].find_object("shell"));
    };
    CHECK(shell(shut) == Reached::no);
    CHECK(shell(opened) == Reached::yes);
    CHECK(shell(behind) == Reached::no);
    ReachOptions given;
    given.given = {shut.find_fact("open")};
    CHECK(shell(shut, given) == Reached::yes);
}

TEST_CASE("seen from the side, doors that nobody stands on open one by one in a single state", "[travel]") {
    constexpr int doors = 12;
    std::vector<std::string> rows(6, std::string(8 + 4 * doors, '.'));
    rows.back() = std::string(rows[0].size(), '#');
    std::string objects = fmt::format(
        "{{ name = \"landing\", kind = \"spawn\", at = [16, 72] }},\n"
        "{{ name = \"shell\", kind = \"thing\", at = [{}, 72], gives = [\"found\"] }},\n",
        16 * (8 + 4 * doors) - 24);
    std::string facts = "found = \"\"\n";
    for (int door = 0; door < doors; ++door) {   // below a lintel of two cells; all keys lie in the first room
        const int column = 6 + 4 * door;
        for (std::size_t r = 0; r < 2; ++r) rows[r][static_cast<std::size_t>(column)] = '#';
        facts += fmt::format("k{} = \"\"\n", door);
        objects +=
            fmt::format("{{ kind = \"solid\", barrier = \"earth\", box = [{}, 32, 16, 48], unless = [\"k{}\"] }},\n",
                        16 * column, door);
        objects += fmt::format("{{ kind = \"thing\", at = [{}, 72], gives = [\"k{}\"] }},\n", 24 + 4 * door, door);
    }
    const World world = worlds::world_of(rambles::one_map(rows, objects, {}, facts));
    const Reach found = reach(world, {.states = 2});
    CHECK(found.gained(world.find_fact("found")) == Reached::yes);
}

TEST_CASE("with a fact that closes nothing one gets wherever one got without it", "[travel]") {
    std::size_t facts = 0, of_side = 0, places = 0;
    for (std::uint64_t round = 0; round < static_cast<std::uint64_t>(chance::rounds(300)); ++round) {
        const Result<World> loaded = random_worlds::make(round).build();
        if (!loaded) continue;
        const World& world = *loaded;
        chance::Dice dice(570'000 + round);
        for (const MoverId mover : ids<MoverId>(world.movers()))
            for (const Map& map : world.maps()) {
                std::vector<char> closing(world.facts().size());
                travel::add_closing_facts(world, map, mover, false, closing);
                for (const FactId fact : facts_of_ground(world, map)) {
                    if (closing[index(fact)] != 0) continue;
                    Facts without;
                    for (const FactId other : ids<FactId>(world.facts()))
                        if (other != fact && dice.once_in(2)) without.push_back(other);
                    Facts with = without;
                    with.insert(std::upper_bound(with.begin(), with.end(), fact), fact);
                    const std::vector<travel::Target> none;
                    const auto before = travel::ways_of({world, map, mover, without, none}),
                               after = travel::ways_of({world, map, mover, with, none});
                    ++facts;
                    const auto from = [](travel::Ways& ways, int place) {
                        std::set<int> found{place};
                        std::vector<int> open{place};
                        while (!open.empty()) {
                            const int now = open.back();
                            open.pop_back();
                            for (const travel::Move& move : ways.moves(now))
                                if (found.insert(move.to).second) open.push_back(move.to);
                        }
                        return found;
                    };
                    of_side += world.mover(mover).moves == Moves::side;
                    for (int k = 0; k < 12; ++k) {
                        const auto [storey, a] = somewhere(*before, map, dice);
                        const int here = before->find_place(storey, a);
                        if (here < 0) continue;
                        INFO("round " << round << " map " << map.name << " fact " << index(fact) << " from "
                                      << to_px(a.x) << "," << to_px(a.y));
                        const int there = after->find_place(storey, a);
                        REQUIRE(there >= 0);
                        const std::set<int> got = from(*before, here), gets = from(*after, there);
                        for (int j = 0; j < 12; ++j) {
                            const auto [other, b] = somewhere(*before, map, dice);
                            if (got.count(before->find_place(other, b)) == 0) continue;
                            ++places;
                            INFO("to " << to_px(b.x) << "," << to_px(b.y));
                            CHECK(gets.count(after->find_place(other, b)) == 1);
                        }
                    }
                }
            }
    }
    CHECK(of_side > static_cast<std::size_t>(chance::rounds(40)) / 4);
    CHECK(facts > static_cast<std::size_t>(chance::rounds(40)));
    CHECK(places > static_cast<std::size_t>(chance::rounds(1000)));
}
