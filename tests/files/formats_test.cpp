// Merged geometry as CBOR, GeoJSON and WKT has the same content as the JSON.
// Also tests src/files: merge_formats merge_gltf cell_ground tile_cells
#include <catch2/catch.hpp>

#include <cmath>
#include <cstring>
#include <map>
#include <nlohmann/json.hpp>
#include <sstream>

#include "merging.hpp"
#include "oracles.hpp"

using namespace dryground;
using Json = nlohmann::json;

namespace {

worlds::Files pond() {   // with a hole, and a one-way line over it
    const worlds::Files files = worlds::with(
        worlds::small_world(), "marsh.toml", "[tiles.brine]",
        "[tiles.ledge]\nunseen = true\nbarrier = \"earth\"\nshapes = [{ line = [[0, 0], [16, 0]], one_way = "
        "\"up\" }]\n[tiles.brine]");
    return merging::with_rows(
        worlds::with(files, "flat.toml", "\"/\" = \"bank\"", "\"/\" = \"bank\", \"_\" = \"ledge\""),
        "###...\n#.#_..\n###./#\n######\n");
}

std::string written(const MergeOutput& output, int chunk_cells = 0) {
    const Result<World> loaded = worlds::load(pond());
    if (!loaded) throw std::runtime_error(text(loaded.report()));
    const Map& map = loaded->map("flat");
    const MergeOptions options{.forms = {MergeForm::chains, MergeForm::pieces, MergeForm::boxes, MergeForm::triangles}};
    if (chunk_cells > 0)
        return merge_bytes(*loaded, std::vector{merge_chunks(*loaded, map, chunk_cells, options)}, output);
    return merge_bytes(*loaded, std::vector{merge(*loaded, map, options)}, output);
}

MergeOutput everything(MergeFormat format) {
    MergeOutput output;
    for (std::size_t i = 0; i < form_names().size(); ++i) output.forms.set(static_cast<MergeForm>(i));
    output.format = format;
    return output;
}

double area_of(const Json& multi_polygon) {
    double twice = 0;
    for (const Json& rings : multi_polygon)
        for (const Json& ring : rings)
            for (std::size_t i = 0; i + 1 < ring.size(); ++i)
                twice += ring[i][0].get<double>() * ring[i + 1][1].get<double>() -
                         ring[i + 1][0].get<double>() * ring[i][1].get<double>();
    return twice / 2;
}

}   // namespace

TEST_CASE("CBOR is the JSON tree") {
    const std::string bytes = written(everything(MergeFormat::cbor)), json = written(everything(MergeFormat::json));
    CHECK(Json::from_cbor(bytes) == Json::parse(json));
    CHECK(bytes.size() < json.size());
}

TEST_CASE("GeoJSON has a feature for each form, closed, with the area that the merge reports") {
    for (const YAxis y : {YAxis::down, YAxis::up})
        for (const int chunk_cells : {0, 2}) {
            MergeOutput output = everything(MergeFormat::json);
            output.y = y;
            double area = 0;
            const Json merged = Json::parse(written(output, chunk_cells)), map = merged["maps"][0];
            const auto add = [&](const Json& groups) {
                for (const Json& group : groups) area += group["area"].get<double>();
            };
            if (chunk_cells == 0) add(map["groups"]);
            for (const Json& chunk : map.value("chunks", Json::array())) add(chunk["groups"]);
            output.format = MergeFormat::geojson;
            const Json found = Json::parse(written(output, chunk_cells));
            CHECK(found["type"] == "FeatureCollection");
            std::map<std::string, double> areas;
            int lines = 0;
            for (const Json& feature : found["features"]) {
                const Json& geometry = feature["geometry"];
                CHECK(feature["properties"].contains("chunk") == (chunk_cells > 0));
                if (geometry["type"] == "MultiPolygon")
                    areas[feature["properties"]["form"]] += area_of(geometry["coordinates"]);
                else
                    ++lines;
            }
            for (const char* form : {"regions", "pieces", "boxes", "triangles"})
                if (form != std::string("boxes")) CHECK(areas[form] == area);
            CHECK(areas["boxes"] + areas["rests"] == area);
            CHECK(lines >= 2);
        }
}

TEST_CASE("WKT is read by GEOS, valid, with the same area") {
    std::istringstream text(written(everything(MergeFormat::wkt)));
    const Json tree = Json::parse(written(everything(MergeFormat::json)));
    double area = 0;
    for (const Json& group : tree["maps"][0]["groups"]) area += group["area"].get<double>();
    std::string line;
    std::getline(text, line);
    CHECK(line == "map,chunk,storey,barrier,trigger,mover,one_way,form,wkt\r");
    double regions = 0;
    int lines = 0;
    while (std::getline(text, line)) {
        const std::size_t quote = line.find('"');
        REQUIRE(quote != std::string::npos);
        const std::string wkt = line.substr(quote + 1, line.rfind('"') - quote - 1);
        if (line.find(",regions,") != std::string::npos) regions += oracle::geos_area_of_text(wkt);
        if (line.find(",lines,") == std::string::npos) continue;
        ++lines;
        CHECK(wkt == "MULTILINESTRING ((48 16, 64 16))");
        CHECK(line.substr(0, line.find(",lines,")) == "flat,,ground,earth,,,up");
        CHECK(oracle::geos_area_of_text(wkt) == 0);
    }
    CHECK(regions == area);
    CHECK(lines == 1);
}

TEST_CASE("merged geometry as SVG, read as a drawing, is the same geometry", "[svg]") {
    const std::string drawing = written([] {
        MergeOutput output;
        output.forms = {MergeForm::regions};
        output.format = MergeFormat::svg;
        return output;
    }());
    const Result<World> before = worlds::load(pond());
    // All that is solid comes from the drawing alone. Kinds are said by class, so the barriers get kinds.
    worlds::Files files = merging::with_rows(worlds::small_world(), "......\n......\n......\n......\n");
    files["flat.toml"] +=
        "\n[[layers]]\nname = \"drawn\"\nsvg = \"merged.svg\"\nkind = \"solid\"\nbarrier = \"earth\"\n";
    files["flat.toml"].replace(files["flat.toml"].find("rim = \"earth\"\n"), 14, "");
    files["merged.svg"] = drawing;
    const Result<World> after = worlds::load(files);
    INFO(text(after.report()) << drawing);
    REQUIRE(after);
    CHECK(merge(*after, after->maps()[0]).group("earth").regions ==
          merge(*before, before->maps()[0]).group("earth").regions);
}

TEST_CASE("a grid of cells says what fills most of each", "[cells]") {
    const Result<World> loaded = worlds::load(pond());
    const World& world = *loaded;
    const Map& map = world.maps()[0];
    const CellGround ground = cell_ground(world, map);
    CHECK(csv_of(ground) == "1,1,1,0,0,0\n1,0,1,0,0,0\n1,1,1,0,0,1\n1,1,1,1,1,1\n");   // half a cell is not most of it
    const Merge merged = merge(world, map);
    for (int r = 0; r < map.rows; ++r)
        for (int c = 0; c < map.columns; ++c) {
            const Region cell{map.cell_ring(c, r), {}};
            const auto inside = twice_area(intersect(merged.group("earth").regions, {&cell, 1}));
            CHECK((ground.cells[static_cast<std::size_t>(r * map.columns + c)] == 1) ==
                  (2 * inside > twice_area(cell.outline)));
        }
    const auto picture = decode_png(png_of(ground, world));
    REQUIRE(picture);
    CHECK(picture->width == map.columns);
    CHECK(picture->rgba[3] == 255);
    CHECK(picture->rgba[4 * 3 + 3] == 0);
    const CellGround stopped = cell_ground(world, map, {.mover = MoverId{0}});
    CHECK(stopped.cells == ground.cells);
}

namespace {

// Decodes glTF's digits. Slow and plain.
std::string from_base64(const std::string& text) {
    const std::string digits = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/";
    std::string bytes;
    std::uint32_t bits = 0;
    int count = 0;
    for (const char c : text) {
        if (c == '=') break;
        bits = bits << 6 | static_cast<std::uint32_t>(digits.find(c));
        if ((count += 6) >= 8) bytes += static_cast<char>(bits >> (count -= 8) & 255u);
    }
    return bytes;
}

template <class Number>
std::vector<Number> numbers_of(const Json& tree, const std::string& buffer, const Json& accessor_number) {
    const Json& accessor = tree["accessors"][accessor_number.get<std::size_t>()];
    const Json& view = tree["bufferViews"][accessor["bufferView"].get<std::size_t>()];
    std::vector<Number> numbers(view["byteLength"].get<std::size_t>() / sizeof(Number));
    std::memcpy(numbers.data(), buffer.data() + view["byteOffset"].get<std::size_t>(), numbers.size() * sizeof(Number));
    CHECK(numbers.size() == accessor["count"].get<std::size_t>() * (accessor["type"] == "VEC3" ? 3 : 1));
    return numbers;
}

// The volume that a primitive's triangles enclose; each must look where its corners' normals say.
double volume_of(const std::vector<float>& points, const std::vector<float>& normals,
                 const std::vector<std::uint32_t>& indices) {
    double six = 0;
    for (std::size_t i = 0; i < indices.size(); i += 3) {
        std::array<std::array<double, 3>, 3> p{};
        for (std::size_t k = 0; k < 3; ++k)
            for (std::size_t axis = 0; axis < 3; ++axis) p[k][axis] = points[3 * indices[i + k] + axis];
        const auto &a = p[0], &b = p[1], &c = p[2];
        six += a[0] * (b[1] * c[2] - b[2] * c[1]) + a[1] * (b[2] * c[0] - b[0] * c[2]) +
               a[2] * (b[0] * c[1] - b[1] * c[0]);
        const std::array<double, 3> u{b[0] - a[0], b[1] - a[1], b[2] - a[2]}, v{c[0] - a[0], c[1] - a[1], c[2] - a[2]};
        const std::array<double, 3> n{u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]};
        double along = 0;
        for (std::size_t axis = 0; axis < 3; ++axis) along += n[axis] * normals[3 * indices[i] + axis];
        CHECK(along == Approx(std::hypot(n[0], n[1], n[2])).epsilon(1e-4));
    }
    return six / 6;
}

}   // namespace

TEST_CASE("glTF holds each group raised, with its faces' normals, as the merge says", "[gltf]") {
    const Result<World> loaded = worlds::load(pond());
    const World& world = *loaded;
    for (const Plane plane : {Plane::screen, Plane::ground})
        for (const bool inward : {false, true}) {
            const Merge merged = merge(world, world.map("flat"), {.plane = plane});
            MergeOutput output;
            output.format = MergeFormat::gltf, output.inward = inward, output.height_px = 24;
            const Json tree = Json::parse(merge_bytes(world, std::vector{merged}, output));
            const std::string uri = tree["buffers"][0]["uri"], start = "data:application/octet-stream;base64,";
            REQUIRE(uri.rfind(start, 0) == 0);
            const std::string buffer = from_base64(uri.substr(start.size()));
            REQUIRE(buffer.size() == tree["buffers"][0]["byteLength"].get<std::size_t>());
            std::size_t areas = 0;
            for (const Group& group : merged.groups) areas += !group.regions.empty();
            CHECK(tree["scenes"].size() == 1);
            CHECK(tree["scenes"][0]["nodes"].size() == areas);
            for (const Json& node : tree["nodes"]) {
                const Group& group = merged.group(node["extras"]["barrier"].get<std::string>());
                REQUIRE_FALSE(group.regions.empty());
                CHECK(node["extras"]["storey"] == "ground");
                CHECK(node["extras"]["height_m"] == 1.5);
                const Json& primitive = tree["meshes"][node["mesh"].get<std::size_t>()]["primitives"][0];
                const double found = volume_of(numbers_of<float>(tree, buffer, primitive["attributes"]["POSITION"]),
                                               numbers_of<float>(tree, buffer, primitive["attributes"]["NORMAL"]),
                                               numbers_of<std::uint32_t>(tree, buffer, primitive["indices"]));
                const double volume = static_cast<double>(twice_area(group.regions)) / 2 / (4096.0 * 4096.0) * 1.5;
                CHECK(found == Approx(inward ? -volume : volume).epsilon(1e-5));
            }
        }
    CHECK_THROWS_AS(written(everything(MergeFormat::gltf), 2), std::invalid_argument);
}

TEST_CASE("the ground plane is in cells, of square grids in metres too; storeys are reported in the same unit") {
    const Result<World> loaded = worlds::load(pond());
    const World& world = *loaded;
    const std::vector<Merge> merges{merge(world, world.map("flat"), {.plane = Plane::ground})};
    MergeOutput output;
    output.forms.set(MergeForm::regions);
    const Json cells = Json::parse(merge_bytes(world, merges, output));
    output.unit = Unit::m;
    const Json metres = Json::parse(merge_bytes(world, merges, output));
    CHECK(cells["unit"] == "cell");
    CHECK(metres["unit"] == "m");   // 16 px are a cell, and a metre
    CHECK(cells["maps"][0]["groups"] == metres["maps"][0]["groups"]);
    CHECK(cells["maps"][0]["storeys"][0] == Json({{"storey", "ground"}, {"base", 0.0}, {"height", 2.0}}));
    CHECK(metres["maps"][0]["storeys"] == cells["maps"][0]["storeys"]);
    // Diamonds have no metres on the ground.
    const Result<World> diamonds = worlds::load(worlds::with(
        worlds::with(worlds::small_world(), "flat.toml", "cell = [16, 16]", "grid = \"isometric\"\ncell = [16, 16]"),
        "marsh.toml", "shapes = [{ polygon = [[0, 16], [16, 0], [16, 16]] }]", "shapes = [\"cell\"]"));
    INFO(text(diamonds.report()));
    REQUIRE(diamonds);
    const std::vector<Merge> flat{merge(*diamonds, diamonds->map("flat"), {.plane = Plane::ground})};
    CHECK_THROWS_AS(merge_bytes(*diamonds, flat, output), std::invalid_argument);
    output.unit = Unit::px;
    CHECK(Json::parse(merge_bytes(*diamonds, flat, output))["unit"] == "cell");
}

TEST_CASE("tiles as CSV are read back as a CSV layer, and their numbers are reported") {
    const std::string rows = "......\n.%....\n..../#\n######\n";
    worlds::Files files = merging::with_rows(worlds::small_world(), rows);
    files = worlds::with(files, "flat.toml", "\"/\" = \"bank\"",
                         "\"/\" = \"bank\", \"%\" = { tile = \"bank\", flip = \"x\", turn = 90 }");
    const Result<World> loaded = worlds::load(files);
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    const Map& map = loaded->map("flat");
    const std::string names = csv_of_tiles(*loaded, map, map.layers[0], TileCells::names);
    CHECK(names == ",,,,,\n,bank:x:90,,,,\n,,,,bank,peat\npeat,peat,peat,peat,peat,peat\n");
    files["flat.csv"] = names;
    files = worlds::with(files, "flat.toml", "rows = '''\n" + rows + "'''", "csv = \"flat.csv\"");
    const Result<World> again = worlds::load(files);
    INFO(text(again.report()));
    REQUIRE(again);
    const Map& same = again->map("flat");
    CHECK(csv_of_tiles(*again, same, same.layers[0], TileCells::names) == names);
    // Numbers and their table give the same as names.
    std::map<std::string, std::string> table;
    std::istringstream lines(csv_of_tile_numbers(*loaded, map));
    for (std::string line; std::getline(lines, line);) table[line.substr(0, line.find(','))] = line;
    CHECK(table["number"] == "number,tile,flip,turn");
    std::string line, field;
    std::istringstream numbers(csv_of_tiles(*loaded, map, map.layers[0], TileCells::numbers));
    std::getline(numbers, line), std::getline(numbers, line);   // the second row
    std::istringstream fields(line);
    std::getline(fields, field, ','), std::getline(fields, field, ',');
    CHECK(table[field] == field + ",marsh/bank,x,90");
    CHECK_THROWS_AS(csv_of_tiles(*loaded, map, map.layers.back(), TileCells::names), std::invalid_argument);
}

TEST_CASE("for a mover a closed door is 1 in the grid, however thin, and an open one 0", "[cells]") {
    worlds::Files files =
        worlds::with(merging::without_rim(), "marsh.toml", "[tiles.brine]",
                     "[tiles.gate]\nunseen = true\nbarrier = \"earth\"\nneeds = [\"has_key\"]\nshapes = [{ "
                     "box = [7, 0, 2, 16] }]\n[tiles.brine]");
    files =
        merging::with_rows(worlds::with(files, "flat.toml", "\"/\" = \"bank\"", "\"/\" = \"bank\", \"g\" = \"gate\""),
                           "......\n......\n..g./#\n######\n");
    const Result<World> loaded = worlds::load(files);
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    const World& world = *loaded;
    MergeOptions options{.mover = MoverId{0}};
    CHECK(csv_of(cell_ground(world, world.map("flat"), options)) ==
          "0,0,0,0,0,0\n0,0,0,0,0,0\n0,0,1,0,0,1\n1,1,1,1,1,1\n");
    options.facts = {world.find_fact("has_key")};
    CHECK(csv_of(cell_ground(world, world.map("flat"), options)) ==
          "0,0,0,0,0,0\n0,0,0,0,0,0\n0,0,0,0,0,1\n1,1,1,1,1,1\n");
    // By barrier it is what fills most of a cell.
    CHECK(csv_of(cell_ground(world, world.map("flat"))).find("0,0,0,0,0,1\n") != std::string::npos);
}
