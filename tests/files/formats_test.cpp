// Merged geometry as CBOR, GeoJSON and WKT says the same as the JSON.
// Also tests src/files: merge_formats cell_ground
#include <catch2/catch.hpp>

#include <nlohmann/json.hpp>

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
    const Loaded loaded = worlds::load(pond());
    if (!loaded) throw std::runtime_error(text(loaded.report()));
    const Map& map = loaded.world().map("flat");
    const MergeOptions options{.boxes = true, .triangles = true};
    if (chunk_cells > 0)
        return merge_bytes(loaded.world(), std::vector{merge_chunks(loaded.world(), map, chunk_cells, options)},
                           output);
    return merge_bytes(loaded.world(), std::vector{merge(loaded.world(), map, options)}, output);
}

MergeOutput everything(MergeFormat format) {
    MergeOutput output;
    output.regions = output.lines = output.boxes = output.triangles = true;
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

TEST_CASE("GeoJSON has a feature for each form, closed, with the area that the merge tells") {
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
        output.regions = true;
        output.chains = output.pieces = false;
        output.format = MergeFormat::svg;
        return output;
    }());
    const Loaded before = worlds::load(pond());
    // All that is solid comes from the drawing alone. Kinds are said by class, so the barriers get kinds.
    worlds::Files files = merging::with_rows(worlds::small_world(), "......\n......\n......\n......\n");
    files["flat.toml"] +=
        "\n[[layers]]\nname = \"drawn\"\nsvg = \"merged.svg\"\nkind = \"solid\"\nbarrier = \"earth\"\n";
    files["flat.toml"].replace(files["flat.toml"].find("rim = \"earth\"\n"), 14, "");
    files["merged.svg"] = drawing;
    const Loaded after = worlds::load(files);
    INFO(text(after.report()) << drawing);
    REQUIRE(after);
    CHECK(merge(after.world(), after.world().maps()[0]).group("earth").regions ==
          merge(before.world(), before.world().maps()[0]).group("earth").regions);
}

TEST_CASE("a grid of cells says what fills most of each", "[cells]") {
    const Loaded loaded = worlds::load(pond());
    const World& world = loaded.world();
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
    std::string fault;
    const auto picture = decode_png(png_of(ground, world), fault);
    REQUIRE(picture);
    CHECK(picture->width == map.columns);
    CHECK(picture->rgba[3] == 255);
    CHECK(picture->rgba[4 * 3 + 3] == 0);
    const CellGround stopped = cell_ground(world, map, {.mover = 0});
    CHECK(stopped.cells == ground.cells);
}
