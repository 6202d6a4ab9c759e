// Also tests src/draw: findings flags grid ground key objects picture shapes
#include <catch2/catch.hpp>

#include <cmath>
#include <limits>
#include <random>
#include <set>

#include "chance.hpp"
#include "clean_worlds.hpp"
#include "draw/picture_internal.hpp"
#include "pictures.hpp"
#include "random_worlds.hpp"

using namespace dryground;
using namespace pictures;

namespace {

std::string png_of(const World& world, const DrawOptions& options, const std::string& map = "flat") {
    std::string bytes;
    const std::string fault =
        draw_png(world, world.map(map), check(world), no_art, options, [&](std::string_view more) {
            bytes += more;
            return true;
        });
    INFO(fault);
    REQUIRE(fault.empty());
    return bytes;
}

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
    std::string fault;
    const Image image = image_of(png_from_svg(svg, fault));
    const int left = 26 + 16 * 4, top = 56 + 16 * 4;
    bool on_edge = false, above = false;
    for (int x = left + 40; x < left + 200; ++x) {
        on_edge = on_edge || colour_at(image, x, top + 48 * 4) == Colour{0x7a, 0x3f, 0x6d};   // the first spare colour
        above = above || colour_at(image, x, top + 8 * 4 + 2) == Colour{0x7a, 0x3f, 0x6d};
    }
    CHECK(on_edge);
    CHECK_FALSE(above);
}

TEST_CASE("each thing is a group of its own, there when it is asked for and only then") {
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

TEST_CASE("findings are marked, numbered and told in words") {
    const Document document(
        svg_of(world_of(worlds::with(worlds::small_world(), "flat.toml", "at = [24, 48]", "at = [24, 50]"))));
    CHECK(document.has_text("error: 'landing' stands 2 px inside solid ground [spawn-blocked]"));
    CHECK(document.has_text("nearest free place: at = [24, 48]"));
    CHECK(document.count("//g[@id='findings']/text[.='1']") == 1);
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

TEST_CASE("only the asked-for layers show art, shapes, objects and ground") {
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

TEST_CASE("reach is drawn for the asked-for mover, else for the player") {
    const World world = world_of(worlds::small_world());
    CHECK(Document(svg_of(world, only({Thing::reach}))).has_text("where the position of warden cannot be"));
}

TEST_CASE("pieces are drawn as what they were asked for") {
    const World world = world_of(worlds::small_world());
    DrawOptions options = only({Thing::pieces});
    const auto rings = [&] {
        const std::string path = Document(svg_of(world, options)).attribute("//g[@id='pieces']/path[1]", "d");
        return static_cast<std::size_t>(std::count(path.begin(), path.end(), 'Z'));
    };
    const Merge merged = merge(world, world.map("flat"), {.boxes = true, .triangles = true});
    const Group& first = merged.groups.front();
    CHECK(rings() == first.pieces.size());
    options.merging.pieces = false, options.merging.triangles = true;
    CHECK(rings() == first.triangles.triangles.size());
    options.merging.triangles = false, options.merging.boxes = true;
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
TEST_CASE("a picture in blocks is the whole picture, px for px") {
    const World world = world_of(worlds::clean_world(0));
    DrawOptions options;
    options.scale = 8;
    const std::string map = world.maps().front().name;
    std::string fault;
    const Image whole = image_of(png_from_svg(svg_of(world, options, map), fault)),
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
    std::string fault, bytes;
    const Image whole = image_of(png_from_svg(draw_svg(world, world.map("flat"), {}, no_art, options), fault));
    REQUIRE(draw_png(world, world.map("flat"), {}, no_art, options, [&](std::string_view more) {
                bytes += more;
                return true;
            }).empty());
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

TEST_CASE("progress is told, up to the end; a sink that takes no more ends it") {
    const World world = world_of(worlds::small_world());
    DrawOptions options;
    std::size_t last = 0, all = 0;
    options.progress = [&](std::size_t done, std::size_t of) { last = done, all = of; };
    (void)png_of(world, options);
    CHECK(last == all);
    CHECK(all >= 1);
    CHECK_FALSE(
        draw_png(world, world.map("flat"), {}, no_art, options, [](std::string_view) { return false; }).empty());
}

TEST_CASE("a picture that would be too large says so") {
    const std::string row(60'000, '.');
    worlds::Files files = worlds::with(worlds::small_world(), "flat.toml", "size = [6, 4]", "size = [60000, 1]");
    files = worlds::with(files, "flat.toml", "......\n......\n..../#\n######\n", row + "\n");
    files = worlds::with(files, "flat.toml", "legend = { \"#\" = \"peat\", \"/\" = \"bank\" }\n", "");
    const World world = world_of(files);
    DrawOptions options = only({Thing::grid});
    options.scale = 2;
    CHECK(draw_png(world, world.map("flat"), {}, no_art, options, [](std::string_view) { return true; }).find("2^20") !=
          std::string::npos);
}

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

TEST_CASE("what is no SVG gives a reason, not a picture") {
    std::string fault;
    CHECK(png_from_svg("no svg", fault).empty());
    CHECK_FALSE(fault.empty());
}

TEST_CASE("of very many findings the first are told, and the others are dots; the key says so") {
    const World world = world_of(worlds::small_world());
    Report report;
    for (int i = 0; i < 500; ++i) {
        Finding finding;
        finding.rule = Rule::step;
        finding.severity = Severity::warning;
        finding.place = {"flat.toml", 1 + i, 1, {}};
        finding.map = "flat";
        finding.cell = {{i % 6, i % 4}};
        finding.arguments.assign(rule_text(Rule::step).arguments, "x");
        report.add(std::move(finding));
    }
    DrawOptions options;
    options.scale = 16;
    const Document document(draw_svg(world, world.map("flat"), report, no_art, options));
    CHECK(document.count("//g[@id='findings']/circle[@class='dot']") == 300);
    CHECK(document.has_text("and 300 more, marked by dots"));
    // A mark for each of the twelve cells: three numbers, and how many more there are.
    CHECK(document.count("//g[@id='findings']/text") == 12);
    CHECK(document.count("//g[@id='findings']/text[.='1, 13, 25 +14']") == 1);
    CHECK(document.count("//g[@id='findings']/text[contains(., ' +')]") == 12);
}

TEST_CASE("labels and marks never lie over one another, and all lie in the map's frame") {
    for (std::uint64_t round = 0; round < 12; ++round) {
        const World world = world_of(worlds::clean_world(round));
        for (const Map& map : world.maps())
            for (const double scale : {0.5, 1.0, 2.0, 4.0}) {
                DrawOptions options;
                options.scale = scale;
                const drawing::MapPicture picture(world, map, {}, options);
                for (std::size_t a = 0; a < picture.labels.size(); ++a) {
                    const drawing::Box& box = picture.labels[a].box;
                    CHECK(box.x >= picture.frame.x);
                    CHECK(box.x + box.width <= picture.frame.x + picture.frame.width);
                    for (std::size_t b = 0; b < a; ++b) CHECK_FALSE(box.meets(picture.labels[b].box));
                }
                std::size_t named = 0;
                for (const Object& object : map.objects) named += !object.name.empty() || object.role == Role::link;
                CHECK(picture.labels.size() + picture.labels_left_out >= named);   // none is lost without a word
            }
    }
}

TEST_CASE("diamonds are laid flat: each cell a square, the rest as the ground plane of merges has it", "[draw]") {
    int maps = 0, vertices = 0;
    for (int round = 0; round < 60; ++round) {
        DRYGROUND_ROUND(round);
        const Loaded loaded = random_worlds::make(static_cast<std::uint64_t>(round)).build();
        if (!loaded) continue;
        for (const Map& map : loaded.world().maps()) {
            if (map.grid != GridSort::isometric) continue;
            ++maps;
            const std::int32_t side = map.cell_width / 2 * steps_per_px;
            for (int c = 0; c <= map.columns; ++c)
                for (int r = 0; r <= map.rows; ++r)
                    REQUIRE(drawing::laid_flat(map, map.corner(c, r)) ==
                            Point{(map.first_column + c) * side, (map.first_row + r) * side});
            MergeOptions flat;
            flat.plane = Plane::ground;
            const Merge seen = merge(loaded.world(), map), laid = merge(loaded.world(), map, flat);
            REQUIRE(seen.groups.size() == laid.groups.size());
            const double scale_x = 1.0 * side / laid.cell.x, scale_y = 1.0 * side / laid.cell.y;
            for (std::size_t g = 0; g < seen.groups.size(); ++g) {
                std::set<Point> ground;   // with the steps beside each: both are rounded
                for (const Chain& chain : laid.groups[g].chains)
                    for (const Point p : chain.points)
                        for (int beside = 0; beside < 9; ++beside)
                            ground.insert({static_cast<std::int32_t>(std::lround(p.x * scale_x)) + beside % 3 - 1,
                                           static_cast<std::int32_t>(std::lround(p.y * scale_y)) + beside / 3 - 1});
                for (const Chain& chain : seen.groups[g].chains)
                    for (const Point p : chain.points) {
                        CHECK(ground.count(drawing::laid_flat(map, p)) == 1);
                        ++vertices;
                    }
            }
        }
    }
    CHECK(maps > 10);
    CHECK(vertices > 200);
}

TEST_CASE("findings of one place share a mark that has their numbers") {
    const World world = world_of(worlds::small_world());
    Report report;
    for (const Severity severity : {Severity::note, Severity::warning, Severity::note, Severity::error}) {
        Finding finding;
        finding.rule = Rule::crack, finding.severity = severity, finding.map = "flat";
        finding.arguments.assign(rule_text(Rule::crack).arguments, "1");
        finding.cell = Cell{severity == Severity::error ? 4 : 2, 1};
        report.add(std::move(finding));
    }
    const auto count = [](const std::string& svg, const std::string& words) {
        std::size_t found = 0;
        for (std::size_t at = svg.find(words); at != std::string::npos; at = svg.find(words, at + 1)) ++found;
        return found;
    };
    const std::string svg = draw_svg(world, world.map("flat"), report, no_art, {});
    std::string numbers;   // of those that are no error, in the order of the report
    for (std::size_t i = 0; i < report.findings().size(); ++i)
        if (report.findings()[i].severity != Severity::error)
            numbers += fmt::format("{}{}", numbers.empty() ? "" : ", ", i + 1);
    CHECK(count(svg, ">" + numbers + "</text>") == 1);
    CHECK(count(svg, "rx=\"3\" fill=\"#8a5a00\"") ==
          1 + 1);   // the mark, by the worst of them; the warning in the list
}
