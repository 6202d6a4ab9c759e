// Where the mover gets to, in pictures and pages.
// Also tests src/draw: walk page_walk
#include <catch2/catch.hpp>

#include "pictures.hpp"
#include "rambles.hpp"

using namespace dryground;
using namespace pictures;

namespace {

World with_shell(const char* figures) {
    rambles::Figures of;
    of.more = figures;
    worlds::Files files = rambles::one_map({"........", "........", "........", "....####", "........", "########"},
                                           "{ name = \"landing\", kind = \"spawn\", at = [16, 80] },\n"
                                           "{ name = \"shell\", kind = \"thing\", at = [104, 48] },\n",
                                           of);
    return worlds::world_of(
        worlds::with(files, "world.toml", "start = ", "goals = { objects = [\"flat/shell\"] }\nstart = "));
}

}   // namespace

TEST_CASE("places are drawn by whether they are reached, and the way with its numbers", "[draw]") {
    const std::string svg = svg_of(with_shell("jump_px = 40\nleap_px = 56\n"), only({Thing::walk}));
    const Document document(svg);
    CHECK_THAT(svg, Catch::Contains("<g id=\"walk\">"));
    CHECK_THAT(svg, Catch::Contains("stroke-dasharray=\"none\"") && !Catch::Contains("stroke-dasharray=\"1.5 3\""));
    CHECK_THAT(svg, Catch::Contains(">1</text>") && Catch::Contains(">2</text>"));
    CHECK_THAT(svg, Catch::Contains("the way to all goals"));
    const std::string low = svg_of(with_shell("jump_px = 30\nleap_px = 56\n"), only({Thing::walk}));
    CHECK_THAT(low, Catch::Contains("stroke-dasharray=\"1.5 3\"") && !Catch::Contains("the way to all goals"));
}

TEST_CASE("a page knows where the mover gets to", "[draw]") {
    const World world = with_shell("jump_px = 40\nleap_px = 56\n");
    const std::vector<std::string> maps{"flat"};
    const std::string page = draw_page(world, maps, check(world), no_art);
    CHECK_THAT(page, Catch::Contains("\"walk\":{\"yes\":[") && Catch::Contains("\"marks\":[[1,"));
}

TEST_CASE("a picture of walking says where there is no start", "[draw]") {
    worlds::Files files = rambles::one_map({"....", "....", "####"}, "");
    files = worlds::with(files, "world.toml", "start = \"flat/landing\"\n", "");
    CHECK_THAT(svg_of(worlds::world_of(files), only({Thing::walk})), Catch::Contains("the world has no start"));
}
