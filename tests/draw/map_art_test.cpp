// Art px by px: cut from its sheet, enlarged and made smaller, flipped and turned, layer over layer.
// Also tests src/draw: art standing_art
#include <catch2/catch.hpp>

#include "draw/art_internal.hpp"
#include "pictures.hpp"

using namespace dryground;
using namespace pictures;

namespace {

// A tile whose four quarters are red, green, blue and white; of another sheet cell all black.
Image four_quarters() {
    Image sheet{32, 16, std::vector<unsigned char>(std::size_t{32} * 16 * 4, 0)};
    for (int y = 0; y < 16; ++y)
        for (int x = 0; x < 32; ++x) {
            unsigned char* px = &sheet.rgba[static_cast<std::size_t>(y * 32 + x) * 4];
            px[3] = 255;
            if (x >= 16) continue;
            const int quarter = (x >= 8) + 2 * (y >= 8);
            px[0] = quarter == 0 || quarter == 3 ? 255 : 0;
            px[1] = quarter == 1 || quarter == 3 ? 255 : 0;
            px[2] = quarter == 2 || quarter == 3 ? 255 : 0;
        }
    return sheet;
}

worlds::Files with_art(const std::string& legend) {
    worlds::Files files = worlds::with(worlds::small_world(), "marsh.toml", "cell = [16, 16]",
                                       "cell = [16, 16]\nsheet = { file = \"a.png\" }");
    files = worlds::with(files, "marsh.toml", "unseen = true", "art = [0, 0]");   // of peat
    files = worlds::with(files, "flat.toml", "......\n......\n..../#\n######\n", "#.....\n......\n......\n......\n");
    files = worlds::with(files, "flat.toml", "\"#\" = \"peat\", \"/\" = \"bank\"", legend);
    files["a.png"] = encode_png(four_quarters());
    return files;
}

ArtSource source_of(const worlds::Files& files) { return {"", worlds::reader_of(files)}; }

// The colours in the middles of the quarters of the first cell: "rgbw" from the top left, row by row.
std::string quarters(const worlds::Files& files, double scale, const DrawOptions& more = only({Thing::art})) {
    const World world = world_of(files);
    DrawOptions options = more;
    options.scale = scale;
    const Image image = image_of(*png_from_svg(draw_svg(world, world.map("flat"), {}, source_of(files), options)));
    const double left = 16 + 16 * scale, top = 40 + 16 * scale;   // a cell of surroundings
    std::string all;
    for (const double v : {4.0, 12.0})
        for (const double u : {4.0, 12.0}) {
            const Colour c = colour_at(image, static_cast<int>(left + u * scale), static_cast<int>(top + v * scale));
            const bool r = c.red > 200, g = c.green > 200, b = c.blue > 200;
            all += r && g && b ? 'w' : r ? 'r' : g ? 'g' : b ? 'b' : '.';
        }
    return all;
}

}   // namespace

TEST_CASE("art is drawn at every scale as it is") {
    const worlds::Files files = with_art("\"#\" = \"peat\"");
    for (const double scale : {0.25, 0.5, 1.0, 1.5, 2.0, 3.0, 7.0}) {
        CAPTURE(scale);
        CHECK(quarters(files, scale) == "rgbw");
    }
}

TEST_CASE("art is flipped first, then turned clockwise") {
    for (const auto& [words, expected] : std::map<std::string, std::string>{
             {"flip = \"x\"", "grwb"},
             {"flip = \"y\"", "bwrg"},
             {"flip = \"xy\"", "wbgr"},
             {"turn = 90", "brwg"},
             {"turn = 180", "wbgr"},
             {"turn = 270", "gwrb"},
             {"flip = \"x\", turn = 90", "wgbr"},
         }) {
        CAPTURE(words);
        CHECK(quarters(with_art("\"#\" = { tile = \"peat\", " + words + " }"), 4) == expected);
    }
}

TEST_CASE("what a sheet calls clear shows what lies below") {
    worlds::Files files = with_art("\"#\" = \"peat\"");
    files = worlds::with(files, "marsh.toml", "sheet = { file = \"a.png\" }",
                         "sheet = { file = \"a.png\", clear = \"#ff0000\" }");
    CHECK(quarters(files, 4) == "wgbw");   // the map's pale ground
}

TEST_CASE("a layer's opacity lets what is below shine through; a layer that is not there is not drawn") {
    worlds::Files files = with_art("\"#\" = \"peat\"");
    const worlds::Files faint =
        worlds::with(files, "flat.toml", "name = \"ground\"", "name = \"ground\"\nopacity = 0.1");
    CHECK(quarters(faint, 4) == "wwww");
    const worlds::Files gone =
        worlds::with(files, "flat.toml", "name = \"ground\"", "name = \"ground\"\nwhen = [\"has_key\"]");
    CHECK(quarters(gone, 4) == "wwww");
    DrawOptions options = only({Thing::art});
    options.merging.facts = {FactId{0}};
    CHECK(quarters(gone, 4, options) == "rgbw");
}

// The first cell has a tile of four quarters in a layer below, and one that is all black above it.
worlds::Files two_layers(const std::string& below, const std::string& above, const std::string& black = "") {
    worlds::Files files = with_art("\"#\" = \"peat\", \"b\" = \"black\"");
    files = worlds::with(files, "marsh.toml", "[tiles.bank]",
                         "[tiles.black]\nart = [1, 0]\nshapes = []\n" + black + "[tiles.bank]");
    files = worlds::with(files, "flat.toml", "name = \"ground\"", "name = \"ground\"\n" + below);
    return worlds::with(files, "flat.toml", "[[layers]]\nname = \"people\"",
                        "[[layers]]\nname = \"cover\"\n" + above +
                            "rows = '''\nb.....\n......\n......\n......\n'''\n[[layers]]\nname = \"people\"");
}

TEST_CASE("order and bands decide what is drawn over what; a tile's own band wins") {
    CHECK(quarters(two_layers("", ""), 4) == "....");
    CHECK(quarters(two_layers("order = 2\n", ""), 4) == "rgbw");
    CHECK(quarters(two_layers("order = 2\n", "order = 3\n"), 4) == "....");
    CHECK(quarters(two_layers("band = \"front\"\n", ""), 4) == "rgbw");
    CHECK(quarters(two_layers("band = \"front\"\n", "", "band = \"front\"\n"), 4) == "....");
    CHECK(quarters(two_layers("band = \"with\"\n", "band = \"with\"\n"), 4) == "....");   // as deep: layer by layer
    CHECK(quarters(two_layers("band = \"with\"\norder = 1\n", "band = \"with\"\n"), 4) == "rgbw");
}

TEST_CASE("art that is cut larger than a cell stands on its cell, moved as its sheet or the tile says") {
    worlds::Files files = with_art("\"#\" = \"peat\"");
    // The whole sheet is one tile's art: 32 px wide it reaches 8 px out to the left, so that the cell shows its middle.
    files = worlds::with(files, "marsh.toml", "{ file = \"a.png\" }", "{ file = \"a.png\", cut = [32, 16] }");
    CHECK(quarters(files, 4) == "g.w.");
    CHECK(quarters(worlds::with(files, "marsh.toml", "cut = [32, 16]", "cut = [32, 16], at = [8, 0]"), 4) == "rgbw");
    CHECK(quarters(worlds::with(files, "marsh.toml", "art = [0, 0]", "art = [0, 0]\nat = [8, 8]"), 4) == "wwrg");
    // A picture of its own without a place stands likewise.
    const worlds::Files own = worlds::with(files, "marsh.toml", "art = [0, 0]", "picture = { file = \"a.png\" }");
    CHECK(quarters(own, 4) == "g.w.");
}

TEST_CASE("a picture has room for art that stands over its map's edges") {
    const worlds::Files files = with_art("\"#\" = \"peat\"");
    const auto size = [](const worlds::Files& of, DrawOptions options = only({Thing::art})) {
        options.scale = 2;
        const World world = world_of(of);
        const Image image = image_of(*png_from_svg(draw_svg(world, world.map("flat"), {}, source_of(of), options)));
        return std::pair(image.width, image.height);
    };
    const auto tall = [&](const char* at) {
        return worlds::with(files, "marsh.toml", "{ file = \"a.png\" }",
                            std::string("{ file = \"a.png\", cut = [32, 16], at = [") + at + "] }");
    };
    const auto [wide, high] = size(files);
    CHECK(size(tall("0, 0")) == std::pair(wide, high));             // within the ring of cells around
    CHECK(size(tall("0, -20")) == std::pair(wide, high + 2 * 4));   // 20 px up, of which the ring holds 16
    CHECK(size(tall("-30, 0")).first >= wide);
    // turned round it reaches down, over cells of the map
    CHECK(size(worlds::with(tall("0, -20"), "flat.toml", "\"#\" = \"peat\"",
                            "\"#\" = { tile = \"peat\", turn = 180 }")) == std::pair(wide, high));
    CHECK(size(tall("0, -20"), only({Thing::merged})) ==
          size(files, only({Thing::merged})));   // no art, no room for it
    DrawOptions plain = only({Thing::art});
    plain.plain = true;
    CHECK(size(tall("0, -20"), plain) == size(files, plain));   // just the map, to trace over
}

TEST_CASE("a grey palette takes the colour out of art, and leaves it as light as it is seen") {
    DrawOptions options = only({Thing::art});
    options.palette = Palette::grey;
    CHECK(quarters(with_art("\"#\" = \"peat\""), 4, options) == ".w.w");   // green is seen as the lightest
}

TEST_CASE("what is made smaller is the mean of what it was, weighted by how much shows") {
    Image image{2, 1, {200, 100, 0, 255, 0, 0, 0, 0}};   // half of it clear
    const worlds::Files files = with_art("\"#\" = \"peat\"");
    const World world = world_of(files);
    const ArtSource source{"", [bytes = encode_png(image)](const auto&) { return Result<std::string>(bytes); }};
    drawing::Art art(world, source, 0.5, false);
    cairo_surface_t* const surface = art.picture("any.png");
    REQUIRE(surface != nullptr);
    CHECK(cairo_image_surface_get_width(surface) == 1);
    const auto argb = *reinterpret_cast<const std::uint32_t*>(cairo_image_surface_get_data(surface));
    CHECK((argb >> 24) == 128);         // half of it shows
    CHECK((argb >> 16 & 255) == 100);   // colours are kept times that
    CHECK((argb >> 8 & 255) == 50);
}

TEST_CASE("a picture that cannot be read is left out, and the rest is drawn") {
    worlds::Files files = with_art("\"#\" = \"peat\"");
    const World world = world_of(files);
    files["a.png"] = "no picture";
    DrawOptions options;
    options.scale = 4;
    const Document document(draw_svg(world, world.map("flat"), {}, source_of(files), options));
    CHECK(document.count("//image") == 0);
    CHECK(document.has_text("landing"));
}
