// What can be reached in whole worlds: locks and keys beside a search through all states, figures that are missed by a
// px, what is in the way.
// Also tests src/travel: air reach search stages reasons route ways_from_side side_ground side_jumps side_walks
#include "dryground/travel.hpp"

#include <fmt/ranges.h>
#include <catch2/catch.hpp>

#include <deque>
#include <set>

#include "rambles.hpp"

using namespace dryground;

namespace {

World side(const std::vector<std::string>& rows, const std::string& objects, rambles::Figures figures = {},
           const std::string& facts = "", const std::string& layers = "") {
    return worlds::world_of(rambles::one_map(rows, objects, figures, facts, layers));
}

constexpr const char* landing = "{ name = \"landing\", kind = \"spawn\", at = [16, 80] },\n";

std::string why(const World& world, const char* object, const ReachOptions& options = {}) {
    const Reach found = reach(world, options);
    const ObjectId o = world.maps()[0].find_object(object);
    REQUIRE(o != ObjectId::none);
    return fmt::format("{}: {}", name_of(found.reached(MapId{0}, o)), text(world, found.in_the_way(MapId{0}, o)));
}

// ---- locks and keys ----

// Rooms, each a map of its own, with things to touch on purpose: links that may need facts, triggers that give them,
// both there only while others do or do not hold.
struct Rooms {
    struct Thing {
        int room = 0, leads = -1, gives = -1;
        std::vector<int> needs, when, unless;
        bool one_way = false;
    };
    int rooms = 0, facts = 0;
    std::vector<Thing> things;
};

Rooms random_rooms(chance::Dice& dice) {
    Rooms rooms;
    rooms.rooms = dice.in(2, 5);
    rooms.facts = dice.in(1, 5);
    const auto some = [&](int of) {
        std::vector<int> facts;
        if (dice.once_in(of)) facts.push_back(dice.in(0, rooms.facts - 1));
        return facts;
    };
    const int links = dice.in(rooms.rooms, 2 * rooms.rooms);
    for (int i = 0; i < links; ++i) {
        Rooms::Thing link;
        link.room = dice.in(0, rooms.rooms - 1), link.leads = dice.in(0, rooms.rooms - 1);
        link.needs = some(2), link.unless = some(5), link.when = some(8);
        rooms.things.push_back(link);
        if (dice.once_in(2)) {
            std::swap(link.room, link.leads);
            rooms.things.push_back(link);
        }
    }
    for (int fact = 0; fact < rooms.facts; ++fact) {
        Rooms::Thing trigger;
        trigger.room = dice.in(0, rooms.rooms - 1), trigger.gives = fact;
        trigger.needs = some(3), trigger.unless = some(6);
        rooms.things.push_back(trigger);
    }
    return rooms;
}

World world_of(const Rooms& rooms) {
    const auto names = [](const std::vector<int>& facts) {
        std::vector<std::string> list;
        for (const int fact : facts) list.push_back(fmt::format("\"f{}\"", fact));
        return fmt::format("[{}]", fmt::join(list, ", "));
    };
    worlds::Files files;
    std::string maps, facts;
    for (int fact = 0; fact < rooms.facts; ++fact) facts += fmt::format("f{} = \"\"\n", fact);
    for (int room = 0; room < rooms.rooms; ++room) {
        maps += fmt::format("\"r{}.toml\", ", room);
        std::string objects;
        for (std::size_t t = 0; t < rooms.things.size(); ++t) {
            const Rooms::Thing& thing = rooms.things[t];
            if (thing.room != room) continue;
            const std::size_t x = 8 + t % 8 * 24, y = 40 + t / 8 * 24;
            objects += fmt::format(
                "  {{ name = \"t{}\", kind = \"{}\", box = [{}, {}, 8, 8], needs = {}, when = {}, unless = {}, {} "
                "}},\n",
                t, thing.leads >= 0 ? "link" : "trigger", x, y, names(thing.needs), names(thing.when),
                names(thing.unless),
                thing.leads >= 0 ? fmt::format("to = \"r{}/mat\"", thing.leads)
                                 : fmt::format("gives = [\"f{}\"]", thing.gives));
        }
        files[fmt::format("r{}.toml", room)] = fmt::format(R"(format = "dryground/map/1"
name = "r{}"
cell = [16, 16]
size = [14, 10]
rim = "earth"
tilesets = []
[[layers]]
name = "people"
objects = [
  {{ name = "mat", kind = "entity", at = [8, 16] }},
{}]
)",
                                                           room, objects);
    }
    files["world.toml"] = fmt::format(R"(format = "dryground/world/1"
title = "Rooms"
player = "warden"
start = "r0/mat"
tilesets = []
maps = [{}]
[barriers]
earth = {{}}
[movers.warden]
body = {{ box = [6, 6] }}
stopped_by = ["earth"]
moves = "free"
[facts]
{})",
                                      maps, facts);
    return worlds::world_of(files);
}

// All rooms and facts that there are, in any order: the plainest search.
struct Truth {
    std::set<int> rooms, facts;
};
Truth search(const Rooms& rooms) {
    Truth truth;
    std::set<std::pair<int, unsigned>> known{{0, 0}};
    std::deque<std::pair<int, unsigned>> open{{0, 0u}};
    const auto all = [](const std::vector<int>& facts, unsigned held) {
        return std::all_of(facts.begin(), facts.end(), [&](int f) { return (held >> f & 1u) != 0; });
    };
    const auto any = [](const std::vector<int>& facts, unsigned held) {
        return std::any_of(facts.begin(), facts.end(), [&](int f) { return (held >> f & 1u) != 0; });
    };
    while (!open.empty()) {
        const auto [room, held] = open.front();
        open.pop_front();
        truth.rooms.insert(room);
        for (int fact = 0; fact < rooms.facts; ++fact)
            if ((held >> fact & 1u) != 0) truth.facts.insert(fact);
        for (const Rooms::Thing& thing : rooms.things) {
            if (thing.room != room || !all(thing.needs, held) || !all(thing.when, held) || any(thing.unless, held))
                continue;
            const std::pair<int, unsigned> next{thing.leads >= 0 ? thing.leads : room,
                                                thing.gives >= 0 ? held | 1u << thing.gives : held};
            if (known.insert(next).second) open.push_back(next);
        }
    }
    return truth;
}

}   // namespace

TEST_CASE("rooms and facts are reached as a search through all states says", "[travel]") {
    int reached = 0, missed = 0, undecided = 0;
    for (std::uint64_t round = 0; round < static_cast<std::uint64_t>(chance::rounds(400)); ++round) {
        chance::Dice dice(round);
        const Rooms rooms = random_rooms(dice);
        const World world = world_of(rooms);
        const Truth truth = search(rooms);
        const Reach found = reach(world);
        INFO("round " << round);
        REQUIRE(found.begins());
        const auto compare = [&](Reached is, bool should) {
            if (should) CHECK(is == Reached::yes);
            if (!should) CHECK(is != Reached::yes);
            ++(should ? reached : is == Reached::no ? missed : undecided);
        };
        for (int room = 0; room < rooms.rooms; ++room)
            compare(found.map_reached(MapId{room}), truth.rooms.count(room) != 0);
        for (int fact = 0; fact < rooms.facts; ++fact) {
            compare(found.gained(FactId{fact}), truth.facts.count(fact) != 0);
            const auto route = found.route_to_fact(FactId{fact});
            CHECK(route.has_value() == (truth.facts.count(fact) != 0));
            if (!route) continue;
            // Followed step by step, everything that is needed holds.
            std::set<FactId> held;
            for (const RouteStep& step : *route) {
                for (const FactId needed : step.needs) CHECK(held.count(needed) == 1);
                held.insert(step.gained.begin(), step.gained.end());
            }
            CHECK(held.count(FactId{fact}) == 1);
        }
    }
    CHECK(reached > chance::rounds(500));
    CHECK(missed > chance::rounds(200));
    CHECK(undecided < missed);
}

TEST_CASE("a ledge is reached to the px, and what is missed is reported to the px", "[travel]") {
    // the thing lies 48 px above the floor
    const std::vector<std::string> rows{"......", "......", "..__..", "......", "......", "######"};
    const std::string thing = "{ name = \"shell\", kind = \"thing\", at = [48, 32], gives = [\"found\"] },\n";
    const auto with_jump = [&](int jump) {
        rambles::Figures figures;
        figures.more = fmt::format("jump_px = {}\nleap_px = 56\nkerb_px = 0\nslope_degrees = 46\n", jump);
        return side(rows, landing + thing, figures, "found = \"\"");
    };
    CHECK(why(with_jump(48), "shell") == "yes: nothing is in the way");
    // the body is 14 px high: with its feet 34 px above the floor its head touches the thing, and more is to overlap it
    CHECK(why(with_jump(35), "shell").substr(0, 3) == "yes");
    CHECK(why(with_jump(34), "shell").find(": 1 px above the highest jump from (") != std::string::npos);
    CHECK(why(with_jump(20), "shell").find("no: 15 px above the highest jump from (") == 0);
}

TEST_CASE("a gap is leapt over to the px", "[travel]") {
    const std::vector<std::string> rows{"........", "........", "........", "........",
                                        "........", "##....##", "##....##", "##....##"};
    const std::string thing = "{ name = \"shell\", kind = \"thing\", at = [120, 80], gives = [\"found\"] },\n";
    const auto with_leap = [&](int leap) {
        rambles::Figures figures;
        figures.more = fmt::format("jump_px = 20\nleap_px = {}\nkerb_px = 0\nslope_degrees = 46\n", leap);
        return side(rows, landing + thing, figures, "found = \"\"");
    };
    // 64 px wide; the body hangs over by 5 px on either side
    CHECK(why(with_leap(54), "shell") == "yes: nothing is in the way");
    CHECK(why(with_leap(52), "shell") == "no: 2 px further than the longest jump from (37, 80) on flat");
}

TEST_CASE("a passage is passed to the px", "[travel]") {
    rambles::Figures figures;
    figures.moves = "free", figures.more = "";
    const std::vector<std::string> rows{"########", "#..##..#", "#......#", "#..##..#", "########"};
    const auto with_body = [&](int high) {
        figures.body = fmt::format("{{ box = [10, {}] }}", high);
        return side(rows,
                    "{ name = \"landing\", kind = \"spawn\", at = [32, 40] },\n"
                    "{ name = \"shell\", kind = \"thing\", at = [96, 40], gives = [\"found\"] },\n",
                    figures, "found = \"\"");
    };
    CHECK(why(with_body(16), "shell") == "yes: nothing is in the way");
    CHECK(why(with_body(19), "shell").find("no: the passage at") == 0);
    CHECK(why(with_body(19), "shell").find("is 3 px too tight") != std::string::npos);
}

TEST_CASE("planks are jumped through from below; boards are not", "[travel]") {
    const std::string thing = "{ name = \"shell\", kind = \"thing\", at = [48, 32], gives = [\"found\"] },\n";
    const auto through = [&](const std::string& row) {
        return why(side({"######", "#....#", "#" + row + "#", "#....#", "#....#", "######"},
                        "{ name = \"landing\", kind = \"spawn\", at = [32, 80] },\n" + thing, {}, "found = \"\""),
                   "shell");
    };
    CHECK(through("____").substr(0, 3) == "yes");
    CHECK(through("====").substr(0, 3) == "no:");
    CHECK(through("==__").substr(0, 3) == "yes");
}

TEST_CASE("water is in the way of who is stopped by it", "[travel]") {
    const std::string thing = "{ name = \"shell\", kind = \"thing\", at = [120, 80], gives = [\"found\"] },\n";
    rambles::Figures low;
    low.more = "jump_px = 4\nleap_px = 8\nkerb_px = 2\nslope_degrees = 46\n";
    CHECK(why(side({"........", "........", "........", "........", "........", "##~~~~##", "########"},
                   landing + thing, low, "found = \"\""),
              "shell") == "yes: nothing is in the way");   // it walks over what stops it
    CHECK(why(side({"........", "........", "........", "........", "..~~~~..", "########"}, landing + thing, low,
                   "found = \"\""),
              "shell")
              .substr(0, 3) == "no:");
}

TEST_CASE("a key behind its own lock is reported as such", "[travel]") {
    const auto with_key_at = [&](int x) {
        worlds::Files files = rambles::one_map(
            {"########", "#..D...#", "#..D...#", "########"},
            fmt::format("{{ name = \"landing\", kind = \"spawn\", at = [32, 48] }},\n"
                        "{{ name = \"key\", kind = \"thing\", at = [{}, 48], gives = [\"has_key\"] }},\n"
                        "{{ name = \"shell\", kind = \"thing\", at = [104, 48], gives = [\"found\"] }},\n",
                        x),
            {}, "found = \"\"\nhas_key = \"\"\n");
        files = worlds::with(files, "marsh.toml", "[tiles.peat]",
                             "[tiles.door]\nshapes = [\"cell\"]\nneeds = [\"has_key\"]\n\n[tiles.peat]");
        files = worlds::with(files, "flat.toml", "\"#\" = \"peat\"", "\"D\" = \"door\", \"#\" = \"peat\"");
        return worlds::world_of(files);
    };
    CHECK(why(with_key_at(24), "shell") == "yes: nothing is in the way");
    const World world = with_key_at(80);
    CHECK(why(world, "shell") == "no: flat/door on cell (3, 1) needs has_key, which is given only behind it");
    const Reach found = reach(world);
    CHECK(found.in_the_way_of_fact(world.find_fact("has_key")).sort == InTheWay::Sort::behind_itself);
    ReachOptions given;
    given.given = {world.find_fact("has_key")};
    CHECK(why(world, "shell", given) == "yes: nothing is in the way");
}

TEST_CASE("a pit is a dead end where one cannot jump out of it", "[travel]") {
    const auto ends = [&](int deep) {
        std::vector<std::string> rows{"........", "........", "........", "........", "........"};
        for (int r = 0; r < deep; ++r) rows.push_back("###..###");
        rows.push_back("########");
        const World world = side(rows, landing);
        return reach(world).dead_ends().size();
    };
    CHECK(ends(2) == 0);   // 32 px
    CHECK(ends(3) == 1);   // 48 px: jump_px is 40
}

TEST_CASE("a map without a floor is fallen out of", "[travel]") {
    worlds::Files files =
        rambles::one_map({"........", "........", "........", "........", "........", "###..###"}, landing);
    const World closed = worlds::world_of(files);
    CHECK(reach(closed).bottomless().empty());   // the rim is below
    const World open = worlds::world_of(worlds::with(files, "flat.toml", "rim = \"earth\"", "rim = \"open\""));
    CHECK(reach(open).bottomless().size() >= 2);
}

TEST_CASE("without figures of a jump nothing is called out of reach on that map", "[travel]") {
    rambles::Figures figures;
    figures.more = "";
    const World world =
        side({"......", "......", "..__..", "......", "......", "######"},
             landing + std::string("{ name = \"shell\", kind = \"thing\", at = [48, 32] },\n"), figures);
    CHECK(reach(world).reached(MapId{0}, ObjectId{1}) == Reached::not_decided);
}

TEST_CASE("a request for what is not there is reported", "[travel]") {
    const World world = side({"......", "......", "......", "......", "......", "######"}, landing);
    const Reach found = reach(world);
    CHECK_THROWS_AS(found.reached(MapId{1}, ObjectId{0}), std::out_of_range);
    CHECK_THROWS_AS(found.reached(MapId{0}, ObjectId{9}), std::out_of_range);
    CHECK_THROWS_AS(found.gained(FactId{3}), std::out_of_range);
    ReachOptions options;
    options.mover = MoverId{7};
    CHECK_THROWS_AS(reach(world, options), std::out_of_range);
    options.mover = MoverId::none;
    options.from = Spot{MapId{0}, StoreyId::ground, {40, 90}};   // in the ground
    CHECK_FALSE(reach(world, options).begins());
}

// ---- climbing ----

namespace {

World with_net(const std::vector<std::string>& rows, const std::string& figures, bool climbs = true) {
    rambles::Figures mover;
    mover.more = figures + "kerb_px = 2\n" + (climbs ? "climbs = [\"climb\"]\n" : "");
    return side(rows,
                fmt::format("{{ name = \"landing\", kind = \"spawn\", at = [16, {}] }},\n"
                            "{{ name = \"hook\", kind = \"thing\", at = [56, 60] }},\n"
                            "{{ name = \"shell\", kind = \"thing\", at = [104, {}] }},\n",
                            rows[1][0] == '#' ? 16 : 96, rows[1][0] == '#' ? 96 : 32),
                mover);
}
Reached reached(const World& world, const char* object) {
    return reach(world).reached(MapId{0}, world.maps()[0].find_object(object));
}

}   // namespace

TEST_CASE("who climbs gets up a net, and from its top onto a ledge; others do not", "[travel]") {
    const std::vector<std::string> rows{"........", "........", "...n####", "...n....",
                                        "...n....", "...n....", "########"};
    const std::string figures = "jump_px = 20\nleap_px = 20\n";
    const World world = with_net(rows, figures);
    const auto route = reach(world).route_to(MapId{0}, world.maps()[0].find_object("shell"));
    REQUIRE(route.has_value());
    CHECK(text(world, *route) ==
          "warden starts on flat at (16, 96)\n"
          "  1  flat  walks 40 px to (56, 96)\n"
          "  2  flat  climbs 64 px to (59, 32)\n"
          "  3  flat  walks 45 px to 'shell'\n");
    CHECK(why(with_net(rows, figures, false), "shell") == "no: 44 px above the highest jump from (59, 96) on flat");
}

TEST_CASE("a net that ends too high is jumped to, or not", "[travel]") {
    const std::vector<std::string> rows{"........", "........", "...n####", "...n....",
                                        "........", "........", "########"};
    for (const int jump : {20, 31, 33, 40}) {
        INFO(jump);
        const World world = with_net(rows, fmt::format("jump_px = {}\nleap_px = 20\n", jump));
        CHECK((reached(world, "shell") == Reached::yes) == (jump > 32));
    }
}

TEST_CASE("who falls past a net can hold on to it; who lets go falls", "[travel]") {
    // From the ledge on the left over the pit's net to the room below: 80 px are too deep.
    const std::vector<std::string> rows{"........", "##......", ".#nn....", ".#nn....",
                                        ".#......", ".#......", ".#######"};
    const std::string figures = "jump_px = 0\nleap_px = 0\ndrop_px = 45\n";
    for (const char* object : {"hook", "shell"}) {
        INFO(object);
        CHECK(reached(with_net(rows, figures), object) == Reached::yes);
    }
    // The hook is passed by whoever falls to death.
    CHECK(reached(with_net(rows, figures, false), "hook") == Reached::not_decided);
    CHECK(reached(with_net(rows, figures, false), "shell") == Reached::no);
}
