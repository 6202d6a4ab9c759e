// What a page knows: that it is all there, and harms nobody. What it does is tested in a browser (tests/npm/page.mjs).
// Also tests src/draw: page_data page_ground page_states
#include <catch2/catch.hpp>

#include <cstring>
#include <map>
#include <nlohmann/json.hpp>
#include <numeric>
#include <set>

#include "clean_worlds.hpp"
#include "dryground/probe.hpp"
#include "pictures.hpp"
#include "rambles.hpp"
#include "random_worlds.hpp"

using namespace dryground;
using namespace pictures;
using Json = nlohmann::json;

namespace {

std::string page_of(const World& world, const DrawOptions& options = {}, bool reloads = false) {
    std::vector<std::string> maps;
    for (const Map& map : world.maps()) maps.push_back(map.name);
    return draw_page(world, maps, check(world), no_art, options, reloads);
}

Json data_of(const std::string& page) {
    const std::string mark = "<script type=\"application/json\" id=\"data\">";
    const std::size_t from = page.find(mark) + mark.size(), to = page.find("</script>", from);
    REQUIRE(to != std::string::npos);
    return Json::parse(page.substr(from, to - from));
}

std::string bytes_of(const std::string& base64) {
    static const std::string digits = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/";
    std::string out;
    unsigned held = 0;
    int bits = 0;
    for (const char c : base64) {
        if (c == '=') break;
        held = held << 6 | static_cast<unsigned>(digits.find(c));
        if ((bits += 6) >= 8) out += static_cast<char>(held >> (bits -= 8) & 255);
    }
    return out;
}

// 16 bits each where the length says so.
std::vector<std::uint32_t> counts_of(const std::string& base64, std::size_t count) {
    const std::string bytes = bytes_of(base64);
    const std::size_t wide = bytes.size() / count;
    REQUIRE((wide == 2 || wide == 4));
    std::vector<std::uint32_t> list;
    for (std::size_t i = 0; i < count; ++i) {
        std::uint32_t n = 0;
        for (std::size_t k = wide; k-- > 0;) n = n << 8 | static_cast<unsigned char>(bytes[i * wide + k]);
        list.push_back(n);
    }
    return list;
}

}   // namespace

TEST_CASE("a page holds every cell, object and finding of its maps, and says of each cell what probe says") {
    for (std::uint64_t round = 0; round < 6; ++round) {
        const World world = world_of(worlds::clean_world(round));
        const Json data = data_of(page_of(world));
        REQUIRE(data["maps"].size() == world.maps().size());
        for (std::size_t m = 0; m < world.maps().size(); ++m) {
            const Map& map = world.maps()[m];
            const Json& told = data["maps"][m];
            CHECK(told["name"] == map.name);
            CHECK(told["objects"].size() == map.objects.size());
            const auto cells = static_cast<std::size_t>(map.columns) * static_cast<std::size_t>(map.rows);
            for (std::size_t l = 0; l < map.layers.size(); ++l)
                if (!map.layers[l].holds_objects)
                    CHECK(counts_of(told["layers"][l]["cells"], cells) == map.layers[l].cells);
            const std::vector<std::uint32_t> stacks = counts_of(told["stacks"], cells);
            const Prober prober(world, map);
            for (std::size_t i = 0; i < cells; ++i) {
                const Cell cell = map.cell({static_cast<int>(i) % map.columns, static_cast<int>(i) / map.columns});
                const Json& words = told["words"][stacks[i]];
                CHECK(words["tiles"] == Json(prober.tiles_of(cell)));
                CHECK(words["flags"] == Json(prober.flags_of(cell)));
            }
        }
    }
}

TEST_CASE("a page holds where solids move to", "[page]") {
    std::size_t paths = 0;
    for (std::uint64_t round = 0; round < 3; ++round) {
        const World world = worlds::world_of(rambles::random_lifts(round));
        const Json objects = data_of(page_of(world))["maps"][0]["objects"];
        for (std::size_t o = 0; o < objects.size(); ++o) {
            Json path = Json::array();
            for (const PointPx place : path_of(world, world.maps()[0].objects[o])) path.push_back({place.x, place.y});
            CHECK(objects[o].value("path", Json::array()) == path);
            paths += !path.empty();
        }
    }
    CHECK(paths > 0);
}

namespace {

Json patched(Json all, const Json& changes) {
    for (const Json& change : changes) all[change[0].get<std::size_t>()] = change[1];
    return all;
}

// The ground of a map, with its groups in place of their numbers.
std::vector<Json> ground_of(const Json& map, const std::vector<std::size_t>& numbers) {
    std::vector<Json> all;
    for (const std::size_t number : numbers) {
        Json ground = map["chunks"][number];
        ground[0] = map["groups"][ground[0].get<std::size_t>()];
        all.push_back(std::move(ground));
    }
    return all;
}
std::vector<std::size_t> first_numbers(const Json& map) {
    std::vector<std::size_t> numbers(map["at_first"].get<std::size_t>());
    std::iota(numbers.begin(), numbers.end(), std::size_t{0});
    return numbers;
}

// Twice the area of rings as a page holds them: each with the number of its points first.
std::int64_t area_of_rings(const std::string& base64) {
    const std::string bytes = bytes_of(base64);
    std::vector<std::int32_t> list(bytes.size() / 4);
    std::memcpy(list.data(), bytes.data(), list.size() * 4);
    std::int64_t sum = 0;
    for (std::size_t at = 0; at < list.size();) {
        const auto count = static_cast<std::size_t>(list[at]);
        const std::int32_t* points = &list[at + 1];
        for (std::size_t i = 0; i < count; ++i) {
            const std::size_t j = (i + 1) % count;
            sum += std::int64_t{points[2 * i]} * points[2 * j + 1] - std::int64_t{points[2 * j]} * points[2 * i + 1];
        }
        at += 1 + 2 * count;
    }
    return sum;
}

// What of a map depends on facts, as one looks at it in a page that was made with them.
Json there_in(const Json& map) {
    Json all = Json::array();
    for (const Json& thing : map) all.push_back(thing["there"]);
    return all;
}

}   // namespace

TEST_CASE("a page in another state of the facts is the page that is made with them", "[page]") {
    int states = 0, other_ground = 0;
    for (int round = 0; round < chance::rounds(30); ++round) {
        DRYGROUND_ROUND(round);
        const Result<World> loaded = random_worlds::make(static_cast<std::uint64_t>(round)).build();
        if (!loaded) continue;
        const World& world = *loaded;
        const Json first = data_of(page_of(world));
        for (std::size_t m = 0; m < world.maps().size(); ++m)
            for (const Json& state : first["maps"][m]["states"]) {
                DrawOptions options;
                for (const Json& fact : state["facts"]) options.merging.facts.push_back(FactId{fact.get<int>()});
                const Json& map = first["maps"][m];
                const Json data = data_of(page_of(world, options)), &made = data["maps"][m];
                CHECK(patched(map["words"], state["words"]) == made["words"]);
                CHECK(patched(map["reach"], state["reach"]) == made["reach"]);
                CHECK(patched(there_in(map["layers"]), state["layers"]) == there_in(made["layers"]));
                Json objects = Json::array();
                for (const Json& object : made["objects"])
                    objects.push_back({{"there", object["there"]}, {"words", object["words"]}});
                Json own = Json::array();
                for (const Json& object : map["objects"])
                    own.push_back({{"there", object["there"]}, {"words", object["words"]}});
                CHECK(patched(own, state["objects"]) == objects);
                const std::vector<std::size_t> numbers =
                    state.contains("ground") ? state["ground"].get<std::vector<std::size_t>>() : first_numbers(map);
                CHECK(ground_of(map, numbers) == ground_of(made, first_numbers(made)));
                ++states, other_ground += state.contains("ground");
            }
    }
    CHECK(states > chance::rounds(30));
    CHECK(other_ground > chance::rounds(8));
}

namespace {

// The same world, some layers of one map decor.
Result<World> with_decor(const WorldBuilder& made, std::size_t map, const std::set<std::size_t>& layers) {
    WorldBuilder other;
    other.world(made.world_draft());
    for (const TileSetDraft& tileset : made.tileset_drafts()) other.tileset(tileset);
    for (std::size_t m = 0; m < made.map_drafts().size(); ++m) {
        MapDraft draft = made.map_drafts()[m];
        for (const std::size_t layer : layers)
            if (m == map) draft.layers[layer].decor = true;
        other.map(std::move(draft));
    }
    return other.build();
}

// Twice the area of each group.
std::map<std::string, std::int64_t> areas_of(const Json& map, const std::vector<std::size_t>& ground) {
    std::map<std::string, std::int64_t> areas;
    for (const Json& one : ground_of(map, ground))
        if (const std::int64_t area = area_of_rings(one[1].get<std::string>()); area != 0)
            areas[one[0]["name"].get<std::string>() + " on " + one[0]["storey"].get<std::string>()] += area;
    return areas;
}

}   // namespace

TEST_CASE("a page without a set of layers is that of a world in which they are decor", "[page]") {
    int sets = 0, with_facts = 0, other_ground = 0, other_flags = 0, other_reach = 0;
    for (int round = 0; round < chance::rounds(30); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(560'000 + static_cast<std::uint64_t>(round));
        const WorldBuilder made = random_worlds::make(static_cast<std::uint64_t>(round));
        const Result<World> loaded = made.build();
        if (!loaded) continue;
        const Json page = data_of(page_of(*loaded));
        for (std::size_t m = 0; m < loaded->maps().size(); ++m) {
            const Json& told = page["maps"][m];
            Json first{{"facts", Json::array()}, {"words", Json::array()}, {"reach", Json::array()}};
            first["less"] = told["less"];
            std::vector<Json> states{first};
            for (const Json& state : told["states"]) states.push_back(state);
            for (const Json& state : states)
                for (const Json& less : state["less"]) {
                    if (!dice.once_in(told["counting"].size() > 2 ? 16 : 4)) continue;   // a page for each
                    std::set<std::size_t> layers;
                    for (std::size_t i = 0; i < told["counting"].size(); ++i)
                        if ((less["set"].get<unsigned>() >> i & 1) != 0)
                            layers.insert(told["counting"][i].get<std::size_t>());
                    DrawOptions options;
                    for (const Json& fact : state["facts"]) options.merging.facts.push_back(FactId{fact.get<int>()});
                    const Result<World> other = with_decor(made, m, layers);
                    REQUIRE(other);
                    const Json wanted = data_of(page_of(*other, options))["maps"][m];
                    INFO("map " << told["name"] << ", set " << less["set"]);
                    if (less.contains("ground"))
                        CHECK(areas_of(told, less["ground"].get<std::vector<std::size_t>>()) ==
                              areas_of(wanted, first_numbers(wanted)));
                    const Json before = patched(told["words"], state["words"]), words = patched(before, less["words"]);
                    for (std::size_t i = 0; i < words.size(); ++i) {
                        CHECK(words[i]["flags"] == wanted["words"][i]["flags"]);
                        for (std::size_t on = 0; on < wanted["storeys"].size(); ++on) {
                            const auto& storeys = told["storeys"];
                            const auto at = std::find(storeys.begin(), storeys.end(), wanted["storeys"][on]);
                            CHECK(words[i]["on"][static_cast<std::size_t>(at - storeys.begin())] ==
                                  wanted["words"][i]["on"][on]);
                        }
                        CHECK(words[i]["tiles"] == before[i]["tiles"]);
                    }
                    const Json reach = patched(patched(told["reach"], state["reach"]), less["reach"]);
                    for (const Json& one : wanted["reach"])
                        CHECK(std::find(reach.begin(), reach.end(), one) != reach.end());
                    ++sets, with_facts += !state["facts"].empty(), other_ground += less.contains("ground");
                    other_flags += !less["words"].empty(), other_reach += !less["reach"].empty();
                }
        }
    }
    CHECK(std::min({sets, with_facts, other_ground, other_flags, other_reach}) > chance::rounds(5));
}

TEST_CASE("a page tells where the position of each mover cannot be", "[page]") {
    const World world = world_of(worlds::small_world());
    const Json data = data_of(page_of(world));
    const Json& map = data["maps"][0];
    std::set<int> movers;
    for (const Json& reach : map["reach"]) movers.insert(reach[0].get<int>());
    CHECK(movers.size() == world.movers().size());
    CHECK(map["mover"] == static_cast<int>(world.player()));
    REQUIRE(data["movers"].size() == world.movers().size());
    CHECK(data["movers"][0] == world.movers()[0].name);
}

TEST_CASE("findings stand in the page with their rule, place and hint; those of no map apart") {
    const Json data =
        data_of(page_of(world_of(worlds::with(worlds::small_world(), "flat.toml", "at = [24, 48]", "at = [24, 50]"))));
    REQUIRE(data["maps"][0]["findings"].size() == 1);
    const Json& finding = data["maps"][0]["findings"][0];
    CHECK(finding["rule"] == "spawn-blocked");
    CHECK(finding["at"] == Json({24.0, 50.0}));
    CHECK(finding["hint"] == "nearest free place: at = [24, 48]");
    CHECK(data["general"].empty());
}

TEST_CASE("a page is one file: it names no address of a network") {
    const std::string page = page_of(world_of(worlds::small_world()));
    CHECK(page.find("http:") == std::string::npos);
    CHECK(page.find("https:") == std::string::npos);
    CHECK(page.find("src=\"") == std::string::npos);
    CHECK(page.find("<!--") == std::string::npos);   // no mark was left
}

TEST_CASE("text that would end the script does not") {
    const std::string page =
        page_of(world_of(worlds::with(worlds::small_world(), "flat.toml", "cell = [16, 16]",
                                      "title = \"</script><script>alert(1)</script><!--data-->\"\ncell = [16, 16]")));
    CHECK(page.find("<script>alert") == std::string::npos);
    CHECK(page.find("</script><script>alert") == std::string::npos);
    CHECK(data_of(page)["maps"][0]["title"] == "</script><script>alert(1)</script><!--data-->");
}

TEST_CASE("the stamp is another when the world is, and only then") {
    const auto stamp = [](const std::string& page) {
        const std::size_t at = page.find("stamp: \"");
        return page.substr(at, 26);
    };
    const World world = world_of(worlds::small_world());
    CHECK(stamp(page_of(world)) == stamp(page_of(world)));
    CHECK(stamp(page_of(world)) !=
          stamp(page_of(world_of(worlds::with(worlds::small_world(), "flat.toml", "at = [40, 48]", "at = [42, 48]")))));
    CHECK(page_of(world).find("reloads: false") != std::string::npos);
    CHECK(page_of(world, {}, true).find("reloads: true") != std::string::npos);
}

TEST_CASE("a page whose world cannot be read says so at its head, in a text that nothing ends") {
    const World world = world_of(worlds::small_world());
    const std::string page = page_of(world, {}, true);
    const std::string told = page_with_trouble(page, "flat.toml:3:1: error: </script> \"x\" [syntax]");
    CHECK(told != page);
    CHECK(told.find("\\u003c/script> \\\"x\\\" [syntax]") != std::string::npos);
    const auto stamp = [](const std::string& text) { return text.substr(text.find("stamp: \"") + 8, 16); };
    CHECK(stamp(told) != stamp(page));
    // Another text takes its place.
    const std::string again = page_with_trouble(told, "b");
    CHECK(again.find("[syntax]") == std::string::npos);
    CHECK(again.size() < told.size());
    CHECK(page_with_trouble("no page", "a") == "no page");
}

TEST_CASE("a page of an area holds just that area, its objects and its findings") {
    const World world = world_of(worlds::small_world());
    const Map& map = world.maps()[0];
    DrawOptions options;
    options.area = CellArea{2, 1, 3, 3};
    const Json data = data_of(page_of(world, options)), &part = data["maps"][0];
    CHECK(part["size"] == Json({3, 3}));
    CHECK(part["first"] == Json({2, 1}));
    CHECK(part["objects"].size() == map.objects.size());   // near enough

    std::size_t dropped = 0, kept = 0;
    for (std::uint64_t round = 0; round < 20; ++round) {
        const Result<World> loaded = random_worlds::make(round).build();
        if (!loaded) continue;
        for (std::size_t m = 0; m < loaded->maps().size(); ++m) {
            const Map& whole = loaded->maps()[m];
            options.area = CellArea{whole.first_column, whole.first_row, 1, 1};
            const Json all = data_of(page_of(*loaded))["maps"][m], some = data_of(page_of(*loaded, options))["maps"][m];
            const Point corner = whole.cell_ring(0, 0)[0];
            const double room = 3.0 * std::max(whole.cell_width, whole.cell_height);
            std::set<Json> left;
            for (const Json& object : some["objects"]) left.insert(object["name"]);
            for (const Json& object : all["objects"]) {
                const double x = object["at"][0].get<double>() - to_px(corner.x),
                             y = object["at"][1].get<double>() - to_px(corner.y);
                const bool is_near = std::max(std::abs(x), std::abs(y)) <= room / 3;
                if (is_near) CHECK(left.count(object["name"]) == 1);
                left.count(object["name"]) == 1 ? ++kept : ++dropped;
            }
            for (const Json& finding : some["findings"])
                if (finding.contains("at")) CHECK(std::abs(finding["at"][0].get<double>() - to_px(corner.x)) <= room);
            for (const Json& finding : some["findings"])
                CHECK(std::find(all["findings"].begin(), all["findings"].end(), finding) != all["findings"].end());
        }
    }
    CHECK(std::min(dropped, kept) > 5);
}

// Each chunk's first list: rings, each its number of points and then their steps.
TEST_CASE("a page's ground is the merged ground, grown where that was asked for") {
    for (const std::int32_t grow : {0, 2 * steps_per_px})
        for (std::uint64_t round = 0; round < 6; ++round) {
            const World world = world_of(worlds::clean_world(round));
            DrawOptions options;
            options.merging.grow = grow;
            const Json data = data_of(page_of(world, options));
            for (std::size_t m = 0; m < world.maps().size(); ++m) {
                const Json& told = data["maps"][m];
                std::int64_t area = 0, merged = 0;
                for (const std::size_t chunk : first_numbers(told)) area += area_of_rings(told["chunks"][chunk][1]);
                MergeOptions merging;
                merging.grow = grow;
                for (const Group& group : merge(world, world.maps()[m], merging).groups)
                    merged += twice_area(group.regions);
                CHECK(area == merged);
            }
        }
}

TEST_CASE("facts beyond those that have room for a switch are named") {
    const World world =
        world_of(worlds::with(worlds::with(worlds::small_world(), "world.toml", "[facts]\n",
                                           "[facts]\na = \"\"\nb = \"\"\nc = \"\"\nd = \"\"\ne = \"\"\n"),
                              "flat.toml", "kind = \"spawn\", at",
                              "kind = \"spawn\", when = [], unless = [\"a\", \"b\", \"c\", \"d\", \"e\"], at"));
    const Json map = data_of(page_of(world))["maps"][0];
    CHECK(map["switches"].size() == 4);
    CHECK(map["states"].size() == 15);
    REQUIRE(map.contains("fixed"));
    CHECK(map["fixed"].size() >= 1);
}
