// What of a page depends on facts, and on the layers that are shown.
#include <catch2/catch.hpp>

#include <map>
#include <set>

#include "pages.hpp"
#include "random_worlds.hpp"

using namespace dryground;
using namespace pages;

namespace {

// What depends on facts in a map, as seen in a page made with them.
Json there_in(const Json& map) {
    Json all = Json::array();
    for (const Json& thing : map) all.push_back(thing["there"]);
    return all;
}

}   // namespace

namespace {

// Each page gives its triggers colours in the order in which it meets them.
Json without_looks(Json ground) {
    for (Json& one : ground)
        for (const char* key : {"colour", "dash", "hatch"}) one[0].erase(key);
    return ground;
}

}   // namespace

TEST_CASE("a page in another state of the facts is the page that is made with them", "[page]") {
    int states = 0, other_ground = 0;
    for (int round = 0; round < chance::rounds(15); ++round) {
        DRYGROUND_ROUND(round);
        const Result<World> loaded = random_worlds::make(static_cast<std::uint64_t>(round)).build();
        if (!loaded) continue;
        const World& world = *loaded;
        const Json first = data_of(page_of(world));
        chance::Dice dice(550'000 + static_cast<std::uint64_t>(round));
        for (std::size_t m = 0; m < world.maps().size(); ++m)
            for (const Json& state : first["maps"][m]["states"]) {
                if (first["maps"][m]["states"].size() > 4 && !dice.once_in(4)) continue;   // a page for each
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
                CHECK(without_looks(ground_of(map, numbers)) == without_looks(ground_of(made, first_numbers(made))));
                ++states, other_ground += state.contains("ground");
            }
    }
    CHECK(states > chance::rounds(15));
    CHECK(other_ground > chance::rounds(4));
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
