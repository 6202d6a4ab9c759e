// What a page knows: that it is complete and harmless. What it does is tested in a browser (tests/npm/page.mjs).
// Also tests src/draw: page_data page_ground
#include <catch2/catch.hpp>

#include <set>

#include "clean_worlds.hpp"
#include "dryground/probe.hpp"
#include "pages.hpp"
#include "rambles.hpp"
#include "random_worlds.hpp"

using namespace dryground;
using namespace pages;

namespace {

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

TEST_CASE("a page reports where the position of each mover cannot be", "[page]") {
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
    for (std::uint64_t round = 0; round < 8; ++round) {
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
TEST_CASE("a page's ground is the merged ground, grown on request") {
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
