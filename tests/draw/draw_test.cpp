// Also tests src/draw: flags grid ground key objects shapes
#include <catch2/catch.hpp>

#include <limits>

#include "clean_worlds.hpp"
#include "draw/picture_internal.hpp"
#include "pictures.hpp"
#include "rambles.hpp"

using namespace dryground;
using namespace pictures;

namespace {

worlds::Files with_boardwalk() {
    return worlds::with(worlds::small_world(), "flat.toml", "\"/\" = \"bank\"", "\"/\" = \"boardwalk\"");
}

}   // namespace

TEST_CASE("a picture shows outlines where the ground is, names, and a key in words") {
    const World world = world_of(worlds::small_world());
    DrawOptions options;
    options.scale = 4;
    const std::string svg = svg_of(world, options);
    const Document document(svg);
    CHECK(document.has_text("landing"));
    CHECK(document.has_text("crab_a"));
    CHECK(document.has_text("earth, ground: 1 region"));
    // the ground's upper edge runs at y = 48 px: its colour there, the map's pale ground above
    const Image image = image_of(*png_from_svg(svg));
    const int left = 26 + 16 * 4, top = 56 + 16 * 4;
    bool on_edge = false, above = false;
    for (int x = left + 40; x < left + 200; ++x) {
        on_edge = on_edge || colour_at(image, x, top + 48 * 4) == Colour{0x7a, 0x3f, 0x6d};   // the first spare colour
        above = above || colour_at(image, x, top + 8 * 4 + 2) == Colour{0x7a, 0x3f, 0x6d};
    }
    CHECK(on_edge);
    CHECK_FALSE(above);
}

TEST_CASE("each thing is a group of its own, there on request and only then") {
    const World world = world_of(with_boardwalk());
    for (const std::string_view name : thing_names()) {
        const Document document(svg_of(world, only({*thing_from(name)})));
        CAPTURE(name);
        for (const std::string_view other : thing_names())
            CHECK(document.count("//g[@id='" + std::string(other) + "']") == (other == name ? 1 : 0));
    }
}

TEST_CASE("things are faded by what is said") {
    DrawOptions options;
    options.fade[Thing::merged] = 0.25;
    const Document document(svg_of(world_of(worlds::small_world()), options));
    CHECK(document.attribute("//g[@id='merged']", "opacity") == "0.25");
    CHECK(document.attribute("//g[@id='objects']", "opacity").empty());
}

TEST_CASE("flags are letters that the key explains, carves dashes, in their cell") {
    DrawOptions options = only({Thing::flags, Thing::shapes});
    options.scale = 2;
    const World world = world_of(with_boardwalk());
    const Document document(svg_of(world, options));
    CHECK(document.count("//g[@id='flags']/text[.='w']") == 1);
    CHECK(document.has_text("w = walk"));
    CHECK(document.count("//g[@id='shapes']/path[@class='carves']") == 1);
    CHECK(document.count("//g[@id='shapes']/path[@class='areas']") >= 1);
}

// On each tick's far end there is no ground, on the other side of its edge there is.
TEST_CASE("ticks stand on the free side of edges") {
    for (std::uint64_t round = 0; round < 6; ++round) {
        const World world = world_of(worlds::clean_world(round));
        const Map& map = world.maps().front();
        DrawOptions options = only({Thing::merged});
        options.scale = 4;
        const Merge merged = merge(world, map);
        const Document document(draw_svg(world, map, {}, no_art, options));
        std::size_t ticks = 0;
        for (const pugi::xpath_node& group : document.xml.select_nodes("//g[@data-barrier != '']")) {
            const Group& ground = merged.group(group.node().attribute("data-barrier").value(),
                                               group.node().attribute("data-storey").value());
            const std::string path = group.node().select_node("path[@class='ticks']").node().attribute("d").value();
            for (std::size_t at = path.find('M'); at != std::string::npos; at = path.find('M', at + 1)) {
                double x = 0, y = 0, dx = 0, dy = 0;
                REQUIRE(std::sscanf(path.c_str() + at, "M%lf %lfl%lf %lf", &x, &y, &dx, &dy) == 4);
                const auto place = [&](double times) {   // from the frame's corner, a cell outside of the map
                    return Point{map.least().x + to_steps((x + times * dx - 16) / 4) - map.cell_width * steps_per_px,
                                 map.least().y + to_steps((y + times * dy - 40) / 4) - map.cell_height * steps_per_px};
                };
                ++ticks;
                CHECK(locate(ground.regions, place(0.6)) != Side::inside);
                CHECK(locate(ground.regions, place(-0.6)) != Side::outside);
            }
        }
        CHECK(ticks > 0);
    }
}

TEST_CASE("one-way lines bear arrows the way that they are passed, and the key says it") {
    const World world = world_of(worlds::with(worlds::small_world(), "marsh.toml",
                                              "shapes = [{ polygon = [[0, 16], [16, 0], [16, 16]] }]",
                                              "shapes = [{ line = [[0, 0], [16, 0]], one_way = \"up\" }]"));
    DrawOptions options = only({Thing::merged});
    options.scale = 4;
    const Document document(svg_of(world, options));
    CHECK(document.has_text("earth, ground: 1 line, passed going up"));
    const std::string arrow = document.attribute("//path[@class='one-way']", "d");
    double from_x = 0, from_y = 0, to_x = 0, to_y = 0;
    REQUIRE(std::sscanf(arrow.c_str(), "M%lf %lfL%lf %lf", &from_x, &from_y, &to_x, &to_y) == 4);
    CHECK(from_x == to_x);
    CHECK(to_y < from_y);
    CHECK(std::count(arrow.begin(), arrow.end(), 'M') == 2);   // one arrow: its shaft and its head
}

TEST_CASE("a link to an object of its own map is an arrow from one to the other; names tell their kind") {
    const World world = world_of(worlds::with(worlds::small_world(), "flat.toml", "objects = [",
                                              "objects = [\n  { name = \"gate\", kind = \"link\", box = [60, 16, 8, "
                                              "8], to = \"flat/landing\", one_way = true },"));
    DrawOptions options;
    options.scale = 8;
    const Document document(svg_of(world, options));
    CHECK(document.count("//path[@class='link']") == 1);
    CHECK(document.has_text("gate → flat/landing"));
    CHECK(document.has_text("crab_a (crab)"));
}

TEST_CASE("what moves has its path drawn, and what it covers at each place") {
    const auto dotted = [](const std::string& stops) {
        const Document document(
            svg_of(world_of(rambles::one_map({"........", "########"},
                                             "{ name = \"raft\", kind = \"lift\", box = [8, 8, 24, 8], "
                                             "props = { stops = [" +
                                                 stops + "] } },\n")),
                   {}));
        return document.count("//g[@class='solid']/path[@stroke-dasharray='1 4']");
    };
    CHECK(dotted("[60, 8], [90, 8]") == 3);
    CHECK(dotted("") == 0);
}

TEST_CASE("where cells are small, labels are numbers, and the key has the names") {
    const World world = world_of(worlds::small_world());
    DrawOptions options = only({Thing::objects, Thing::grid});
    options.scale = 1;
    options.merging.facts = {FactId{0}};
    const Document small(svg_of(world, options));
    CHECK(small.has_text("1 landing · 2 crab_a (crab)"));
    CHECK(small.has_text(", with has_key, at scale 1"));
    options.scale = 3;
    const Document large(svg_of(world, options));
    CHECK(large.has_text("landing"));
    CHECK_FALSE(large.has_text("1 landing"));
}

TEST_CASE("an area shows just its cells, and says which") {
    const World world = world_of(worlds::small_world());
    DrawOptions options;
    options.area = CellArea{1, 1, 4, 3};
    options.scale = 4;
    const Document document(svg_of(world, options));
    CHECK(document.has_text("of them 4 x 3 from (1, 1)"));
    CHECK(document.attribute("//clipPath/rect", "width") == "258");   // 4 cells of 16 px at scale 4, and a px around
    CHECK(document.attribute("//clipPath/rect", "height") == "194");
}

TEST_CASE("numbers of cells that stand on the art of diamonds have an edge, so that they can be read") {
    const World world = world_of(
        worlds::with(worlds::small_world(), "flat.toml", "cell = [16, 16]", "grid = \"isometric\"\ncell = [32, 16]"));
    DrawOptions options = only({Thing::art, Thing::grid});
    const auto edged = [&] { return Document(svg_of(world, options)).count("//text[@font-size='9'][@paint-order]"); };
    CHECK(edged() == 0);   // beside it
    options.area = CellArea{1, 1, 4, 3};
    CHECK(edged() > 2);
}

TEST_CASE("areas and scales at the ends of their ranges are drawn", "[limits]") {
    const World world = world_of(worlds::small_world());
    constexpr int least = std::numeric_limits<int>::min(), most = std::numeric_limits<int>::max();
    for (const CellArea area :
         {CellArea{least, least, 1, 1}, CellArea{most, most, 1, 1}, CellArea{least, least, most, most},
          CellArea{most - 1, 0, most, 2}, CellArea{0, 0, most, most}, CellArea{-1, -1, 1, 1}})
        for (const double scale : {0.0, 0.001, 16.0}) {
            INFO(area.column << ", " << area.row << ", " << area.columns << ", " << area.rows << " at " << scale);
            DrawOptions options;
            options.area = area, options.scale = scale;
            CHECK(Document(svg_of(world, options)).count("/svg") == 1);
            options.plain = true;
            CHECK(Document(svg_of(world, options)).count("/svg") == 1);
            CHECK_FALSE(draw_characters(world, world.map("flat"), check(world), no_art, options).empty());
        }
}

TEST_CASE("only the requested layers show art, shapes, objects and ground") {
    const World world = world_of(worlds::small_world());
    DrawOptions options;
    options.show.insert(Thing::shapes);
    options.layers = {"nothing_there"};
    const Document document(svg_of(world, options));
    CHECK_FALSE(document.has_text("landing"));
    CHECK(document.count("//g[@id='shapes']/path") == 0);
    const auto ground_of = [&](std::vector<std::string> layers) {
        DrawOptions asked = only({Thing::merged});
        asked.layers = std::move(layers);
        return Document(svg_of(world, asked)).attribute("//g[@id='merged']//path[1]", "d");
    };
    CHECK(ground_of({"ground"}) == ground_of({}));
    CHECK(ground_of({"nothing_there"}) != ground_of({}));   // what is left is the rim
}

TEST_CASE("reach is drawn for the requested mover, else for the player") {
    const World world = world_of(worlds::small_world());
    CHECK(Document(svg_of(world, only({Thing::reach}))).has_text("where the position of warden cannot be"));
}

TEST_CASE("pieces are drawn as what was requested") {
    const World world = world_of(worlds::small_world());
    DrawOptions options = only({Thing::pieces});
    const auto rings = [&] {
        const std::string path = Document(svg_of(world, options)).attribute("//g[@id='pieces']/path[1]", "d");
        return static_cast<std::size_t>(std::count(path.begin(), path.end(), 'Z'));
    };
    const Merge merged =
        merge(world, world.map("flat"), {.forms = {MergeForm::pieces, MergeForm::boxes, MergeForm::triangles}});
    const Group& first = merged.groups.front();
    CHECK(rings() == first.pieces.size());
    options.merging.forms = {MergeForm::triangles};
    CHECK(rings() == first.triangles.triangles.size());
    options.merging.forms = {MergeForm::boxes};
    CHECK(rings() == first.boxes.boxes.size() + first.boxes.rests.size());
}

TEST_CASE("every clean world, on squares and on diamonds, is a well-formed picture with all its names") {
    for (std::uint64_t round = 0; round < 12; ++round) {
        const World world = world_of(worlds::clean_world(round));
        for (const Map& map : world.maps()) {
            DrawOptions options;
            for (const std::string_view name : thing_names()) options.show.insert(*thing_from(name));
            const Document document(draw_svg(world, map, {}, no_art, options));
            for (const Object& object : map.objects)
                if (!object.name.empty()) {
                    INFO(object.name);
                    CHECK(document.count("//g[@data-name='" + object.name + "']") == 1);
                }
        }
    }
}

// Blocks meet without seams: a PNG that is drawn block by block is the picture that is drawn at once.
TEST_CASE("areas of any size and place give a picture of what is there") {
    const World world = world_of(worlds::small_world());
    constexpr int most = std::numeric_limits<int>::max(), least = std::numeric_limits<int>::min();
    for (const CellArea& area : {CellArea{0, 0, most, most}, CellArea{least, least, most, most},
                                 CellArea{most, 0, 1, 1}, CellArea{-3, -3, 20, 20}, CellArea{2, 2, -5, 0}}) {
        DrawOptions options;
        options.area = area;
        options.scale = 1;
        const Document document(svg_of(world, options));
        CHECK(document.count("//g[@id='merged']") == 1);
        CHECK_FALSE(draw_characters(world, world.map("flat"), {}, no_art, options).empty());
    }
}

TEST_CASE("titles may hold any text") {
    const Document document(svg_of(world_of(worlds::with(worlds::small_world(), "flat.toml", "cell = [16, 16]",
                                                         "title = \"<&> \\\"Mud\\\" \\u0001\"\ncell = [16, 16]"))));
    CHECK(document.has_text("<&> \"Mud\""));
}
