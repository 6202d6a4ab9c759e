#include <catch2/catch.hpp>

#include <set>

#include "dryground/draw.hpp"
#include "worlds.hpp"

using namespace dryground;

namespace {

struct Drawn {
    std::string svg;
    Image image;
};

Drawn draw(const worlds::Files& files, const DrawOptions& options = {}) {
    const Loaded loaded = worlds::load(files);
    REQUIRE(loaded);
    Drawn result;
    result.svg = draw_svg(loaded.world(), loaded.world().map("flat"), check(loaded.world()),
                          {"",
                           [](const auto&) {
                               return FileBytes{{}, "none"};
                           }},
                          options);
    std::string fault;
    const std::string png = png_from_svg(result.svg, fault);
    INFO(fault);
    REQUIRE_FALSE(png.empty());
    result.image = *decode_png(png, fault);
    return result;
}

std::size_t count(const std::string& text, const std::string& part) {
    std::size_t n = 0;
    for (std::size_t at = text.find(part); at != std::string::npos; at = text.find(part, at + 1)) ++n;
    return n;
}

std::array<int, 3> colour_at(const Image& image, int x, int y) {
    const auto at = static_cast<std::size_t>(y * image.width + x) * 4;
    return {image.rgba[at], image.rgba[at + 1], image.rgba[at + 2]};
}

}   // namespace

TEST_CASE("a picture shows outlines where the ground is, names, and a key in words") {
    const Drawn drawn = draw(worlds::small_world(), {.scale = 4});
    CHECK(count(drawn.svg, ">landing<") == 1);
    CHECK(count(drawn.svg, ">crab_a<") == 1);
    CHECK(count(drawn.svg, "earth, ground: 1 region") == 1);
    // the ground's upper edge runs at y = 48 px: its colour there, the map's pale ground above
    const int left = 16 + 16 * 4, top = 56 + 16 * 4;
    std::set<std::array<int, 3>> on_edge, above;
    for (int x = left + 40; x < left + 200; ++x) {
        on_edge.insert(colour_at(drawn.image, x, top + 48 * 4));
        above.insert(colour_at(drawn.image, x, top + 8 * 4 + 2));
    }
    CHECK(on_edge.count({0x7a, 0x3f, 0x6d}) == 1);   // the first spare colour: the barrier names none
    CHECK(above.count({0x7a, 0x3f, 0x6d}) == 0);
}

TEST_CASE("findings are marked, numbered and told in words") {
    const Drawn drawn = draw(worlds::with(worlds::small_world(), "flat.toml", "at = [24, 48]", "at = [24, 50]"));
    CHECK(count(drawn.svg, "error: &apos;landing&apos;") +
              count(drawn.svg, "error: 'landing' stands 2 px inside solid ground [spawn-blocked]") ==
          1);
    CHECK(count(drawn.svg, "nearest free place: at = [24, 48]") == 1);
}

TEST_CASE("only what is asked for is drawn") {
    std::string unknown;
    const auto only_grid = show_from({"grid"}, unknown);
    REQUIRE(only_grid);
    const Drawn drawn = draw(worlds::small_world(), {.show = *only_grid});
    CHECK(count(drawn.svg, ">landing<") == 0);
    CHECK(count(drawn.svg, "url(#hatch") == 0);
    CHECK_FALSE(show_from({"grid", "gird"}, unknown));
    CHECK(unknown == "gird");
    for (const std::string& name : show_names()) CHECK(show_from({name}, unknown));
}

TEST_CASE("flags are letters that the key explains") {
    std::string unknown;
    worlds::Files files = worlds::with(worlds::small_world(), "flat.toml", "\"/\" = \"bank\"", "\"/\" = \"boardwalk\"");
    const Drawn drawn = draw(files, {.show = *show_from({"flags"}, unknown)});
    CHECK(count(drawn.svg, ">w<") == 1);
    CHECK(count(drawn.svg, "w = walk") == 1);
}

TEST_CASE("titles may hold any text") {
    const Drawn drawn = draw(worlds::with(worlds::small_world(), "flat.toml", "cell = [16, 16]",
                                          "title = \"<&> \\\"Mud\\\" \\u0001\"\ncell = [16, 16]"));
    CHECK(count(drawn.svg, "&lt;&amp;&gt; &quot;Mud&quot;") >= 1);
}

TEST_CASE("what is no SVG gives a reason, not a picture") {
    std::string fault;
    CHECK(png_from_svg("no svg", fault).empty());
    CHECK_FALSE(fault.empty());
}
