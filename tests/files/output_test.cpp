// Also tests src/files: merge_json json_text bytes
#include <catch2/catch.hpp>

#include <algorithm>
#include <cmath>
#include <filesystem>
#include <fstream>
#include <nlohmann/json.hpp>

#include "folder.hpp"
#include "worlds.hpp"

using namespace dryground;
using Json = nlohmann::json;
namespace fs = std::filesystem;

namespace {

double twice_signed_area(const Json& ring) {
    double sum = 0;
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Json &p = ring[i], &q = ring[(i + 1) % ring.size()];
        sum += p[0].get<double>() * q[1].get<double>() - q[0].get<double>() * p[1].get<double>();
    }
    return sum;
}

using process::Folder;

}   // namespace

TEST_CASE("written rings have the solid on the left by their numbers, in px and metres, y down and up") {
    const Result<World> loaded =
        worlds::load(worlds::with(worlds::small_world(), "flat.toml", "rows = '''\n......\n", "rows = '''\n.##...\n"));
    REQUIRE(loaded);
    const std::vector<Merge> merges{merge(*loaded, loaded->map("flat"))};
    for (const Unit unit : {Unit::px, Unit::m})
        for (const YAxis y : {YAxis::down, YAxis::up}) {
            const Json root = Json::parse(merge_bytes(
                *loaded, merges,
                {.unit = unit, .y = y, .forms = {MergeForm::regions, MergeForm::chains, MergeForm::pieces}}));
            const double scale = unit == Unit::px ? 1 : 16;
            double area = 0;
            for (const Json& group : root["maps"][0]["groups"]) {
                double sum = 0;
                for (const Json& region : group["regions"]) {
                    CHECK(twice_signed_area(region["outline"]) > 0);
                    sum += twice_signed_area(region["outline"]);
                    for (const Json& hole : region["holes"]) {
                        CHECK(twice_signed_area(hole) < 0);
                        sum += twice_signed_area(hole);
                    }
                }
                CHECK(sum / 2 == Approx(group["area"].get<double>()));
                double of_pieces = 0;
                for (const Json& piece : group["pieces"]) {
                    CHECK(twice_signed_area(piece) > 0);
                    of_pieces += twice_signed_area(piece);
                }
                CHECK(of_pieces == Approx(sum));
                area += sum / 2 * scale * scale;
                for (const Json& chain : group["chains"]) CHECK(chain["surfaces"].size() == chain["points"].size());
            }
            CHECK(area == Approx(static_cast<double>(twice_area(merges[0].group("earth").regions)) / 2 / 65536));
            // the first point stays first whichever way y points
            const Json& first = root["maps"][0]["groups"][0]["regions"][0]["outline"][0];
            CHECK(first[0].get<double>() == -16 / scale);
            CHECK(first[1].get<double>() == (y == YAxis::down ? -16 : 16) / scale);
        }
}

// An engine stops what comes from the right of such a chain: turned the other way, bodies fall through.
TEST_CASE("one-sided chains of chunks have the solid on the left by their numbers, closed and open, y down and up") {
    std::size_t open = 0;
    for (const bool for_mover : {false, true}) {
        const Result<World> loaded = worlds::load(worlds::small_world());
        REQUIRE(loaded);
        MergeOptions options;
        options.mover = for_mover ? MoverId{0} : MoverId::none;
        const std::vector<ChunkedMerge> merges{merge_chunks(*loaded, loaded->map("flat"), 2, options)};
        for (const YAxis y : {YAxis::down, YAxis::up}) {
            const Json root = Json::parse(merge_bytes(
                *loaded, merges, {.y = y, .forms = {MergeForm::regions, MergeForm::chains, MergeForm::pieces}}));
            for (const Json& chunk : root["maps"][0]["chunks"])
                for (const Json& group : chunk["groups"]) {
                    Regions regions;   // of the chunk, with y down
                    const auto step = [&](const Json& p, double dx, double dy) {
                        const double up = y == YAxis::up ? -1 : 1;
                        return Point{to_steps(p[0].get<double>() + dx), to_steps(up * (p[1].get<double>() + dy))};
                    };
                    for (const Json& region : group["regions"]) {
                        Ring outline;
                        for (const Json& p : region["outline"]) outline.push_back(step(p, 0, 0));
                        if (y == YAxis::up) std::reverse(outline.begin(), outline.end());
                        regions.push_back({outline, {}});
                    }
                    for (const Json& chain : group["chains"]) {
                        if (chain["two_sided"].get<bool>() || group["one_way"] != "") continue;
                        open += !chain["closed"].get<bool>();
                        const Json& points = chain["points"];
                        for (std::size_t i = 0; i + 1 < points.size(); ++i) {
                            const double wx = points[i + 1][0].get<double>() - points[i][0].get<double>(),
                                         wy = points[i + 1][1].get<double>() - points[i][1].get<double>(),
                                         length = std::hypot(wx, wy);
                            INFO(chain.dump());
                            CHECK(locate(regions, step(points[i], wx / 2 - wy / length, wy / 2 + wx / length)) ==
                                  Side::inside);
                        }
                    }
                }
        }
    }
    CHECK(open > 4);
}

TEST_CASE("surfaces stay with their segments when y is turned up") {
    worlds::Files files = worlds::with(worlds::small_world(), "flat.toml", "rim = \"earth\"\n", "");
    files = worlds::with(files, "marsh.toml", "[16, 16]] }]", "[16, 16]], surface = { friction = 0.25 } }]");
    const Result<World> loaded = worlds::load(files);
    REQUIRE(loaded);
    const std::vector<Merge> merges{merge(*loaded, loaded->map("flat"))};
    const auto slope_surface = [&](YAxis y) {
        const Json chain = Json::parse(merge_bytes(*loaded, merges, {.y = y}))["maps"][0]["groups"][0]["chains"][0];
        std::vector<int> of_slopes;
        for (std::size_t i = 0; i < chain["points"].size(); ++i) {
            const Json &p = chain["points"][i], &q = chain["points"][(i + 1) % chain["points"].size()];
            if (p[0] != q[0] && p[1] != q[1])
                of_slopes.push_back(chain["surfaces"][i].get<int>());
            else
                CHECK(chain["surfaces"][i].get<int>() == 0);
        }
        return of_slopes;
    };
    CHECK(slope_surface(YAxis::down) == std::vector<int>{1});
    CHECK(slope_surface(YAxis::up) == std::vector<int>{1});
}

TEST_CASE("numbers in JSON read back to the same doubles") {
    const Result<World> loaded =
        worlds::load(worlds::with(worlds::small_world(), "world.toml", "title", "per_metre = 17.3\ntitle"));
    REQUIRE(loaded);
    const Merge merged = merge(*loaded, loaded->map("flat"));
    const Json root = Json::parse(merge_bytes(
        *loaded, {merged}, {.unit = Unit::m, .forms = {MergeForm::regions, MergeForm::chains, MergeForm::pieces}}));
    const Json& outline = root["maps"][0]["groups"][0]["regions"][0]["outline"];
    const Ring& ring = merged.group("earth").regions[0].outline;
    REQUIRE(outline.size() == ring.size());
    for (std::size_t i = 0; i < ring.size(); ++i) CHECK(outline[i][0].get<double>() == to_px(ring[i].x) / 17.3);
}

TEST_CASE("the same world gives the same bytes") {
    const Result<World> once = worlds::load(worlds::small_world()), again = worlds::load(worlds::small_world());
    const auto bytes = [](const World& world) {
        return merge_bytes(world, {merge(world, world.map("flat"))},
                           {.forms = {MergeForm::regions, MergeForm::chains, MergeForm::pieces}});
    };
    CHECK(bytes(*once) == bytes(*again));
}

TEST_CASE("files are written whole or not at all") {
    const Folder folder;
    const fs::path file = folder.path / "out.json";
    CHECK(write_file(file, "first"));
    CHECK(write_file(file, "second"));
    CHECK(*read_file(file) == "second");
    CHECK(std::distance(fs::directory_iterator(folder.path), fs::directory_iterator()) ==
          1);   // nothing is left beside
    CHECK_FALSE(write_file(folder.path / "no" / "such" / "folder.json", "x"));
    CHECK_FALSE(write_file(folder.path, "x"));
    // a device is written to, never replaced; a link stays a link
    CHECK_FALSE(write_file("/dev/full", "x"));
    CHECK(fs::is_character_file("/dev/full"));
    fs::create_symlink("out.json", folder.path / "link.json");
    CHECK(write_file(folder.path / "link.json", "third"));
    CHECK(fs::is_symlink(folder.path / "link.json"));
    CHECK(*read_file(file) == "third");
    CHECK(read_file(folder.path).fault() == "it is a directory");
    CHECK(read_file(folder.path / "none").fault() == "there is no such file");
}

TEST_CASE("PNGs go out and come back with equal pixels; other bytes are refused") {
    Image image{3, 2, {}};
    for (unsigned char i = 0; i < 24; ++i) image.rgba.push_back(i % 4 == 3 ? 255 : static_cast<unsigned char>(i * 9));
    const std::string bytes = encode_png(image);
    const auto back = decode_png(bytes);
    REQUIRE(back);
    CHECK(back->width == 3);
    CHECK(back->rgba == image.rgba);
    for (const std::string& bad : {bytes.substr(0, bytes.size() / 2), std::string(), std::string("no picture")}) {
        const Result<Image> none = decode_png(bad);
        CHECK_FALSE(none);
        CHECK_FALSE(none.fault().empty());
        CHECK_THROWS_WITH(none.value(), Catch::EndsWith(none.fault()));
    }
}

TEST_CASE("a map finds its world by walking up; two worlds in one folder are reported") {
    const Folder folder;
    fs::create_directories(folder.path / "maps" / "deep");
    REQUIRE(write_file(folder.path / "world.toml", "format = \"dryground/world/1\"\n"));
    REQUIRE(write_file(folder.path / "maps" / "deep" / "a.toml", "format = \"dryground/map/1\"\nname = \"a\"\n"));
    const Result<FoundWorld> found = find_world(folder.path / "maps" / "deep" / "a.toml");
    CHECK(fs::equivalent(found->world, folder.path / "world.toml"));
    CHECK(found->map == "a");
    REQUIRE(write_file(folder.path / "other.toml", "format = \"dryground/world/1\"\n"));
    CHECK_THAT(find_world(folder.path / "maps" / "deep" / "a.toml").fault(),
               Catch::Contains("other.toml or world.toml"));
    CHECK(find_world(folder.path / "none.toml").fault() == "there is no such file");
}

TEST_CASE("a link out of the world's folder is refused") {
    const Folder folder;
    fs::create_directories(folder.path / "world");
    worlds::Files files = worlds::small_world();
    for (const auto& [name, bytes] : files) REQUIRE(write_file(folder.path / "world" / name, bytes));
    REQUIRE(load_world(folder.path / "world" / "world.toml"));
    fs::rename(folder.path / "world" / "flat.toml", folder.path / "flat.toml");
    fs::create_symlink("../flat.toml", folder.path / "world" / "flat.toml");
    const Result<World> loaded = load_world(folder.path / "world" / "world.toml");
    CHECK(worlds::rules_and_places(loaded.report()) == std::vector<std::string>{"path-outside at world.toml:6:9"});
}
