// Pictures as PNG, block by block.
#include <catch2/catch.hpp>

#include <random>

#include "chance.hpp"
#include "clean_worlds.hpp"
#include "pictures.hpp"
#include "rambles.hpp"

using namespace dryground;
using namespace pictures;

namespace {

std::string png_of(const World& world, const DrawOptions& options, const std::string& map = "flat") {
    std::string bytes;
    const Result<void> drawn =
        draw_png(world, world.map(map), check(world), no_art, options, [&](std::string_view more) {
            bytes += more;
            return true;
        });
    INFO(drawn.fault());
    REQUIRE(drawn);
    return bytes;
}

}   // namespace

TEST_CASE("a picture in blocks is the whole picture, px for px") {
    // A raft far above its path's last place, too.
    const World world =
        world_of(GENERATE(worlds::clean_world(0),
                          rambles::one_map(std::vector<std::string>(12, "............"),
                                           "{ name = \"landing\", kind = \"spawn\", at = [16, 80] },\n"
                                           "{ name = \"raft\", kind = \"lift\", box = [8, 8, 24, 8], props = { stops = "
                                           "[[100, 90], [100, 170]] } },\n")));
    DrawOptions options;
    options.scale = 8;
    const std::string map = world.maps().front().name;
    const Image whole = image_of(*png_from_svg(svg_of(world, options, map))),
                blocks = image_of(png_of(world, options, map));
    REQUIRE(whole.width == blocks.width);
    REQUIRE(whole.height == blocks.height);
    REQUIRE((whole.width > 2048 || whole.height > 512));   // more than one block
    std::size_t differ = 0;
    for (int y = 0; y < whole.height; ++y)
        for (int x = 0; x < whole.width; ++x) {
            const Colour a = colour_at(whole, x, y), b = colour_at(blocks, x, y);
            differ += std::abs(a.red - b.red) + std::abs(a.green - b.green) + std::abs(a.blue - b.blue) > 24;
        }
    CHECK(differ == 0);
}

// Large maps are cut into blocks that are merged by themselves.
TEST_CASE("a large map in blocks is the map drawn at once, except for a few px") {
    std::mt19937_64 dice(chance::seed());
    const int side = chance::sanitized ? 300 : 1030;   // two blocks at least
    std::string rows;
    for (int r = 0; r < side; ++r) {
        for (int c = 0; c < side; ++c) rows += dice() % 3 == 0 ? '#' : '.';
        rows += '\n';
    }
    worlds::Files files =
        worlds::with(worlds::small_world(), "flat.toml", "size = [6, 4]", fmt::format("size = [{0}, {0}]", side));
    files = worlds::with(files, "flat.toml", "......\n......\n..../#\n######\n", rows);
    files = worlds::with(files, "flat.toml", ", \"/\" = \"bank\"", "");
    const World world = world_of(files);
    DrawOptions options = only({Thing::merged, Thing::grid});
    options.scale = 1.0 / 8;
    std::string bytes;
    const Image whole = image_of(*png_from_svg(draw_svg(world, world.map("flat"), {}, no_art, options)));
    REQUIRE(draw_png(world, world.map("flat"), {}, no_art, options, [&](std::string_view more) {
        bytes += more;
        return true;
    }));
    const Image blocks = image_of(bytes);
    REQUIRE(whole.width == blocks.width);
    REQUIRE(whole.height == blocks.height);
    std::size_t differ = 0;
    for (int y = 0; y < whole.height; ++y)
        for (int x = 0; x < whole.width; ++x) {
            const Colour a = colour_at(whole, x, y), b = colour_at(blocks, x, y);
            differ += std::abs(a.red - b.red) + std::abs(a.green - b.green) + std::abs(a.blue - b.blue) > 60;
        }
    CHECK(differ < static_cast<std::size_t>(whole.width));
}

TEST_CASE("progress is reported, up to the end; a sink that takes no more ends it") {
    const World world = world_of(worlds::small_world());
    DrawOptions options;
    std::size_t last = 0, blocks = 0;
    options.progress = [&](std::size_t done, std::size_t of) { last = done, blocks = of; };
    (void)png_of(world, options);
    CHECK(last == blocks);
    CHECK(blocks >= 1);
    CHECK_FALSE(draw_png(world, world.map("flat"), {}, no_art, options, [](std::string_view) { return false; }));
}

TEST_CASE("a picture that would be too large says so") {
    const std::string row(60'000, '.');
    worlds::Files files = worlds::with(worlds::small_world(), "flat.toml", "size = [6, 4]", "size = [60000, 1]");
    files = worlds::with(files, "flat.toml", "......\n......\n..../#\n######\n", row + "\n");
    files = worlds::with(files, "flat.toml", "legend = { \"#\" = \"peat\", \"/\" = \"bank\" }\n", "");
    const World world = world_of(files);
    DrawOptions options = only({Thing::grid});
    options.scale = 2;
    CHECK_THAT(draw_png(world, world.map("flat"), {}, no_art, options, [](std::string_view) { return true; }).fault(),
               Catch::Contains("2^20"));
}

TEST_CASE("what is no SVG gives a reason, not a picture") { CHECK_FALSE(png_from_svg("no svg").fault().empty()); }
