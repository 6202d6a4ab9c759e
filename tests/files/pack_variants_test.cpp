// Packs in chunks, and with the ground for each state of the facts that shape it.
// Also tests src/files: merge_json
#include <catch2/catch.hpp>

#include <map>
#include <nlohmann/json.hpp>
#include <set>
#include <sstream>

#include "chance.hpp"
#include "dryground/merge.hpp"
#include "dryground/pack_parts.hpp"
#include "random_worlds.hpp"
#include "shore.hpp"

using namespace dryground;
using Json = nlohmann::json;

namespace {

Json pack_json(const World& world, const PackOutput& output) { return Json::parse(pack_bytes(world, output)); }

// The numbers of a row's text, as docs/packs.md says how to read them.
std::vector<std::uint64_t> row_of(const Json& text) {
    std::vector<std::uint64_t> numbers;
    std::istringstream runs(text.get<std::string>());
    for (std::string run; std::getline(runs, run, ' ');) {
        const std::size_t star = run.find('*');
        numbers.insert(numbers.end(), star == std::string::npos ? 1 : std::stoul(run.substr(star + 1)),
                       std::stoull(run.substr(0, star), nullptr, 0));
    }
    return numbers;
}

// The area of each barrier's group and mover's group, by name, from a merge that a pack holds.
std::map<std::string, double> areas_of(const Json& groups) {
    std::map<std::string, double> areas;
    for (const Json& group : groups)
        areas[group["storey"].get<std::string>() + "/" + group["barrier"].get<std::string>() + "/" +
              group["trigger"].get<std::string>() + "/" + group["mover"].get<std::string>()] +=
            group["area"].get<double>();
    return areas;
}

std::map<std::string, double> areas_of(const World& world, const Map& map, const Facts& facts) {
    std::map<std::string, double> areas;
    std::vector<MoverId> movers{MoverId::none};
    for (const MoverId mover : ids<MoverId>(world.movers())) movers.push_back(mover);
    for (const MoverId mover : movers)
        for (const Group& group : merge(world, map, {.mover = mover, .facts = facts}).groups)
            areas[group.storey + "/" + group.barrier + "/" + group.trigger + "/" + group.mover] +=
                static_cast<double>(twice_area(group.regions)) / 2 / (256.0 * 256.0);
    return areas;
}

worlds::Files with_gate() {
    return worlds::with(worlds::shore(), "flat.toml", "[[layers]]\nname = \"people\"",
                        "[[layers]]\nname = \"gate\"\nunless = [\"lamp_lit\"]\nrows = "
                        "'''\n............\n............\n....#.......\n....#.......\n............\n...."
                        "........\n'''\n[[layers]]\nname = \"people\"");
}

}   // namespace

TEST_CASE("a pack holds the ground for each state of the facts that shape it", "[pack]") {
    int states = 0;
    for (int round = 0; round < chance::rounds(40); ++round) {
        DRYGROUND_ROUND(round);
        const Result<World> loaded = random_worlds::make(static_cast<std::uint64_t>(round)).build();
        if (!loaded) continue;
        const World& world = *loaded;
        const Json pack = pack_json(world, {.variants = 3});
        for (std::size_t m = 0; m < world.maps().size(); ++m) {
            const Map& map = world.maps()[m];
            const Facts shaping = facts_of_ground(world, map);
            const Json& packed = pack["maps"][m];
            REQUIRE(packed["variants"].size() == (shaping.size() > 3 ? 0u : (1u << shaping.size()) - 1));
            std::set<std::vector<std::string>> told;
            for (const Json& variant : packed["variants"]) {
                const auto names = variant["facts"].get<std::vector<std::string>>();
                CHECK(told.insert(names).second);
                Facts facts;
                for (const std::string& name : names) facts.push_back(world.find_fact(name));
                const auto wanted = areas_of(world, map, facts);
                for (const auto& [group, area] : areas_of(variant["merge"]["groups"]))
                    CHECK(area == Approx(wanted.at(group)));
                for (const Json& of_storey : variant["passability"]) {
                    const StoreyId storey = world.find_storey(of_storey["storey"].get<std::string>());
                    for (int r = 0; r < map.rows; ++r) {
                        const auto flags = row_of(of_storey["flags"][static_cast<std::size_t>(r)]);
                        REQUIRE(flags.size() == static_cast<std::size_t>(map.columns));
                        for (int c = 0; c < map.columns; ++c)
                            REQUIRE(flags[static_cast<std::size_t>(c)] ==
                                    passability(world, map, {c, r}, storey, facts).flags);
                    }
                }
                ++states;
            }
        }
    }
    CHECK(states > 20 * (chance::sanitized ? 1 : 4));
}

TEST_CASE("a mover's ground that is a barrier's is held once, whole and in chunks", "[pack]") {
    int shared = 0, own = 0;
    for (int round = 0; round < chance::rounds(40); ++round) {
        DRYGROUND_ROUND(round);
        const Result<World> loaded = random_worlds::make(static_cast<std::uint64_t>(round)).build();
        if (!loaded) continue;
        const World& world = *loaded;
        for (const int chunk_cells : {0, 3}) {
            const Json pack = pack_json(world, {.chunk_cells = chunk_cells});
            for (const Map& map : world.maps()) {
                const Json& packed = pack["maps"][static_cast<std::size_t>(&map - world.maps().data())]["merge"];
                Json lists = Json::array();
                if (chunk_cells == 0) lists.push_back(packed["groups"]);
                if (chunk_cells > 0)
                    for (const Json& chunk : packed["chunks"]) lists.push_back(chunk["groups"]);
                for (const Json& groups : lists)
                    for (const Json& group : groups) {
                        if (!group.contains("same_as")) {
                            REQUIRE(group.contains("chains"));
                            own += group["mover"] == "" ? 0 : 1;
                            continue;
                        }
                        ++shared;
                        const Json& other = groups[group["same_as"].get<std::size_t>()];
                        REQUIRE(group["mover"] != "");
                        REQUIRE(other["mover"] == "");
                        REQUIRE(other.contains("chains"));
                        REQUIRE(other["storey"] == group["storey"]);
                        REQUIRE(other["one_way"] == group["one_way"]);
                        REQUIRE(other["area"] == group["area"]);
                    }
            }
        }
    }
    CHECK(shared > (chance::sanitized ? 0 : 8));
    CHECK(own > (chance::sanitized ? 0 : 20));
}

TEST_CASE("of a chunked pack a variant holds just the chunks that differ", "[pack]") {
    const World world = worlds::world_of(with_gate());
    const Json pack = pack_json(world, {.chunk_cells = 4, .variants = 6});
    const Json& flat = pack["maps"][0];
    CHECK(flat["merge"]["chunk_cells"] == 4);
    CHECK(flat["merge"]["chunks"].size() == 6);
    REQUIRE(flat["variants"].size() == 1);
    const Json& open = flat["variants"][0];
    CHECK(open["facts"] == Json{"lamp_lit"});
    REQUIRE(open["merge"]["chunks"].size() == 1);   // the gate lies in column 4, rows 2 and 3
    CHECK(open["merge"]["chunks"][0]["chunk"] == Json{1, 0});
    // With them in the place of the others it is the ground when the fact holds.
    Json chunks = flat["merge"]["chunks"];
    for (Json& chunk : chunks)
        for (const Json& other : open["merge"]["chunks"])
            if (other["chunk"] == chunk["chunk"]) chunk = other;
    std::map<std::string, double> areas;
    for (const Json& chunk : chunks)
        for (const auto& [group, area] : areas_of(chunk["groups"])) areas[group] += area;
    for (const auto& [group, area] : areas_of(world, world.maps()[0], {world.find_fact("lamp_lit")}))
        CHECK(areas[group] == Approx(area));
    CHECK(pack["maps"][1]["variants"].empty());   // no fact shapes the cave
}

TEST_CASE("a pack with chunks and variants is read like any other", "[pack]") {
    const World world = worlds::world_of(with_gate());
    for (const PackFormat format : {PackFormat::json, PackFormat::cbor}) {
        const PackOutput output{.format = format, .chunk_cells = 4, .variants = 6};
        const Result<Pack> read = read_pack(pack_bytes(world, output));
        INFO(text(read.report()));
        REQUIRE(read);
        CHECK(pack_bytes(read->world(), output) == pack_bytes(world, output));
    }
    CHECK_THROWS_AS(pack_bytes(world, {.variants = 7}), std::out_of_range);
    CHECK_THROWS_AS(pack_bytes(world, {.chunk_cells = -1}), std::out_of_range);
}

TEST_CASE("more flags than a number of JSON keeps whole are hexadecimal text", "[pack]") {
    for (const int count : {53, 54, 64}) {
        WorldDraft draft{.title = "Flags"};
        Names all;
        for (int f = 0; f < count; ++f) {
            draft.flags.push_back({.name = fmt::format("flag_{}", f)});
            all.emplace_back(fmt::format("flag_{}", f));
        }
        WorldBuilder builder;
        builder.world(draft);
        builder.tileset({.name = "marsh", .tiles = {{.name = "floor", .unseen = true, .flags = all}}});
        builder.map({.name = "flat",
                     .size = std::array{1, 1},
                     .tilesets = {"marsh"},
                     .legend = {{.key = "#", .tile = "floor"}},
                     .layers = {{.name = "ground", .rows = {"#"}}}});
        const Json pack = pack_json(*builder.build(), {});
        const Json &flags = pack["maps"][0]["passability"][0]["flags"][0],
                   &bit = pack["bits"]["flags"][fmt::format("flag_{}", count - 1)];
        if (count == 53) {
            CHECK(flags == fmt::format("{}", (std::uint64_t{1} << 53) - 1));
            CHECK(bit == std::uint64_t{1} << 52);
        } else {
            CHECK(flags == fmt::format("0x{:x}", ~std::uint64_t{0} >> (64 - count)));
            CHECK(bit == fmt::format("0x{:x}", std::uint64_t{1} << (count - 1)));
        }
    }
}
