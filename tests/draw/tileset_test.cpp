// Also tests src/draw: sheet tileset_page
#include <catch2/catch.hpp>

#include "pictures.hpp"

using namespace dryground;
using namespace pictures;

namespace {

std::string picture(const worlds::Files& files, const DrawOptions& options = {}, const ArtSource& art = no_art) {
    const World world = world_of(files);
    return draw_svg(world, world.tilesets().front(), art, options);
}

}   // namespace

TEST_CASE("a tile set's picture has a card for each tile, with what is said of it") {
    const Document document(picture(worlds::small_world()));
    CHECK(document.count("//g[@class='tile']") == 4);
    CHECK(document.count("//g[@data-name='bank']/path[@class='shape']") == 1);
    CHECK(document.count("//g[@data-name='boardwalk']/path[@class='carve']") == 1);
    CHECK(document.has_text("carves brine: box"));
    CHECK(document.has_text("grants: walk"));
    CHECK(document.has_text("no shapes"));
}

TEST_CASE("vertices are reported in px, those of curves by their words alone") {
    const Document polygon(picture(worlds::small_world()));
    for (const char* place : {"0,16", "16,0", "16,16"})
        CHECK(polygon.count(std::string("//g[@data-name='bank']/text[.='") + place + "']") == 1);
    const Document circle(picture(worlds::with(worlds::small_world(), "marsh.toml",
                                               "shapes = [{ polygon = [[0, 16], [16, 0], [16, 16]] }]",
                                               "shapes = [{ circle = [8, 8, 7] }]")));
    CHECK(circle.has_text("circle [8, 8, 7]"));
    CHECK(circle.count("//g[@data-name='bank']/text[contains(., ',1')]") <= 1);   // the words alone
}

TEST_CASE("undecided tiles bear a sign and say so") {
    const Document document(picture(worlds::with(worlds::small_world(), "marsh.toml", "shapes = []\n", "")));
    CHECK(document.count("//g[@data-name='boardwalk']/text[.='?']") == 1);
    CHECK(document.has_text("undecided"));
    CHECK(Document(picture(worlds::small_world())).count("//text[.='?']") == 0);
}

TEST_CASE("sides that are shut are drawn and reported") {
    const Document document(picture(worlds::with(worlds::small_world(), "marsh.toml", "flags = [\"walk\"]",
                                                 "flags = [\"walk\"]\nsides = { left = \"in\", top = \"shut\" }")));
    CHECK(document.count("//g[@data-name='boardwalk']/path[@class='side']") == 2);
    CHECK(document.has_text("sides: top shut, left in"));
}

TEST_CASE("art is cut from its sheet, enlarged px by px, half faded") {
    Image sheet{32, 16, std::vector<unsigned char>(32 * 16 * 4, 255)};
    for (int y = 0; y < 16; ++y)
        for (int x = 16; x < 32; ++x) sheet.rgba[static_cast<std::size_t>(y * 32 + x) * 4] = 0;   // the second cell
    const std::string bytes = encode_png(sheet);
    const ArtSource art{"", [&](const auto&) { return Result<std::string>(bytes); }};
    worlds::Files files = worlds::with(worlds::small_world(), "marsh.toml", "cell = [16, 16]",
                                       "cell = [16, 16]\nsheet = { file = \"a.png\" }");
    files = worlds::with(files, "marsh.toml", "unseen = true", "art = [1, 0]");
    files["a.png"] = bytes;
    const std::string svg = picture(files, {}, art);
    const Document document(svg);
    CHECK(document.attribute("//g[@data-name='peat']/image", "width") == "128");
    CHECK(document.attribute("//g[@data-name='peat']/image", "opacity") == "0.5");
    const Image image = image_of(*png_from_svg(svg));
    // between two lines of the hatching: paper, cyan and what shows through, so no red
    const Colour inside = colour_at(image, 16 + 24 + 60, 48 + 24 + 66);
    CHECK(inside.red < inside.green);
}

TEST_CASE("a tile set's page has an article for each tile, with its words, place and cells") {
    worlds::Files files = worlds::small_world();
    files = worlds::with(files, "marsh.toml", "[tiles.brine]",
                         "[tiles.maybe]\nunseen = true\ntags = [\"<b>&\"]\n\n[tiles.brine]");
    const World world = world_of(files);
    const std::string page = draw_page(world, world.tilesets()[0], no_art);
    const auto article = [&](const std::string& name) {
        const std::size_t from = page.find("data-name=\"" + name + "\"");
        REQUIRE(from != std::string::npos);
        return page.substr(from, page.find("</article>", from) - from);
    };
    CHECK_THAT(article("peat"), Catch::Contains("data-barriers=\"earth\"") && Catch::Contains("data-cells=\"7\"") &&
                                    Catch::Contains("<li>flat: 7 cells</li>") && Catch::Contains("marsh.toml:5:8") &&
                                    Catch::Contains("url(#hatch0)"));
    CHECK_THAT(article("boardwalk"), Catch::Contains("data-flags=\"walk\"") && Catch::Contains("in no map") &&
                                         Catch::Contains("carves brine"));
    CHECK_THAT(article("maybe"), Catch::Contains("data-undecided=\"true\"") && Catch::Contains("&lt;b&gt;&amp;"));
    CHECK_THAT(article("bank"), Catch::Contains("polygon [[0, 16], [16, 0], [16, 16]]"));
    CHECK_THAT(page, Catch::Contains("<pattern id=\"hatch0\"") && Catch::Contains("<option>walk</option>"));
    CHECK(page.find("<!--") == std::string::npos);   // every mark is filled in
    CHECK(page.find("http://") == std::string::npos);
}
