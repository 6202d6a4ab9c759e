// Edits change what they describe, and only the necessary characters of the files.
// Also tests src/files: edit_cells edit_objects edit_size edit_writing text_edits
#include <catch2/catch.hpp>

#include "dryground/edit.hpp"
#include "random_worlds.hpp"
#include "worlds.hpp"

using namespace dryground;
using worlds::Files;

namespace {

Result<Edited> edited(Files& files, const MapEdit& edit, const std::string& map = "flat") {
    Result<Edited> result = make_edit("world.toml", EditMap{map, edit}, worlds::reader_of(files));
    if (result)
        for (const NamedBytes& file : result->files) files[file.file] = file.bytes;
    return result;
}

// The one line that changed, before and after; fails the test where it is not one.
std::pair<std::string, std::string> changed_line(const std::string& before, const std::string& after) {
    std::pair<std::string, std::string> lines;
    const std::string differences = line_differences(before, after);
    int gone = 0, came = 0;
    for (std::size_t at = 0; at < differences.size();) {
        const std::size_t end = differences.find('\n', at);
        const std::string line = differences.substr(at, end - at);
        if (line[0] == '-') lines.first = line.substr(2), ++gone;
        if (line[0] == '+') lines.second = line.substr(2), ++came;
        at = end + 1;
    }
    INFO(differences);
    REQUIRE(gone <= 1);
    REQUIRE(came <= 1);
    return lines;
}

std::string map_line(Files files, const MapEdit& edit) {
    const std::string before = files["flat.toml"];
    const Result<Edited> result = edited(files, edit);
    INFO(result.fault());
    REQUIRE(result);
    REQUIRE(worlds::load(files));
    return changed_line(before, files["flat.toml"]).second;
}

std::string fault(Files files, const MapEdit& edit) {
    const Result<Edited> result = edited(files, edit);
    CHECK_FALSE(result);
    return result.fault();
}

Files windows_ended(Files files) {
    for (auto& [name, text] : files) {
        for (std::size_t at = 0; (at = text.find('\n', at)) != std::string::npos; at += 2) text.insert(at, "\r");
        text.insert(0, "\xEF\xBB\xBF");
    }
    return files;
}

}   // namespace

TEST_CASE("a cell changes its character, and nothing else", "[edit]") {
    const Files files = worlds::small_world();
    CHECK(map_line(files, PaintCells{"ground", "peat", {{2, 0}}}) == "..#...");
    CHECK(map_line(files, PaintCells{"", "", {{1, 3}, {2, 3}}}) == "#..###");
    CHECK(map_line(files, ReplaceTile{"", "bank", "peat"}) == "....##");
    CHECK(map_line(files, ReplaceTile{"", "peat", "bank", CellArea{0, 3, 2, 1}}) == "//####");
    CHECK(map_line(files, CopyCells{"", {4, 2, 2, 1}, {0, 0}}) == "/#....");
    Files same = files;
    const Result<Edited> nothing = edited(same, PaintCells{"", "peat", {{0, 3}}});
    CHECK(nothing->files.empty());
    CHECK(nothing->changed == 0);
    CHECK(nothing);
}

TEST_CASE("what no legend knows gets a sign of its own", "[edit]") {
    Files files = worlds::small_world();
    REQUIRE(edited(files, PaintCells{"", "brine", {{0, 0}}}));
    CHECK_THAT(files["flat.toml"], Catch::Contains(R"(legend = { "#" = "peat", "/" = "bank", "b" = "brine" })"));
    REQUIRE(edited(files, PaintCells{"", "bank:x", {{1, 0}}}));
    CHECK_THAT(files["flat.toml"], Catch::Contains(R"("a" = { tile = "bank", flip = "x" } })"));
    CHECK_THAT(files["flat.toml"], Catch::Contains("ba....\n"));
    // A legend with a table of its own; and none at all.
    Files own = worlds::with(worlds::small_world(), "flat.toml", "legend = { \"#\" = \"peat\", \"/\" = \"bank\" }",
                             "[legend]\n\"#\" = \"peat\"   # soil\n\"/\" = \"bank\"");
    REQUIRE(edited(own, PaintCells{"", "brine", {{0, 0}}}));
    CHECK_THAT(own["flat.toml"], Catch::Contains("\"#\" = \"peat\"   # soil\n\"/\" = \"bank\"\n\"b\" = \"brine\"\n"));
    Files none =
        worlds::with(worlds::small_world(), "flat.toml", "legend = { \"#\" = \"peat\", \"/\" = \"bank\" }\n", "");
    none = worlds::with(none, "flat.toml", "..../#\n######", "......\n......");
    REQUIRE(edited(none, PaintCells{"", "brine", {{0, 0}}}));
    CHECK_THAT(none["flat.toml"], Catch::Contains("[legend]\n\"b\" = \"brine\"\n\n[[layers]]"));
    CHECK(worlds::load(none));
}

TEST_CASE("a fill stops where something else is", "[edit]") {
    Files files = worlds::small_world();
    const Result<Edited> result = edited(files, FillCells{"", "brine", {0, 0}});
    REQUIRE(result);
    CHECK(result->changed == 16);
    CHECK_THAT(files["flat.toml"], Catch::Contains("bbbbbb\nbbbbbb\nbbbb/#\n######\n"));
}

TEST_CASE("line ends, marks and comments are kept", "[edit]") {
    Files files = windows_ended(worlds::with(worlds::small_world(), "flat.toml", "rows = '''", "rows = '''   "));
    files = windows_ended(worlds::small_world());
    const std::string before = files["flat.toml"];
    REQUIRE(edited(files, PaintCells{"", "brine", {{2, 1}}}));
    REQUIRE(worlds::load(files));
    const std::string after = files["flat.toml"];
    CHECK(after.substr(0, 3) == "\xEF\xBB\xBF");
    CHECK(std::count(after.begin(), after.end(), '\n') == std::count(before.begin(), before.end(), '\n'));
    CHECK(std::count(after.begin(), after.end(), '\r') == std::count(before.begin(), before.end(), '\r'));
    REQUIRE(edited(files, AddObject{"", "crab_b", "crab", PointPx{8, 8}}));
    CHECK(std::count(files["flat.toml"].begin(), files["flat.toml"].end(), '\r') ==
          std::count(files["flat.toml"].begin(), files["flat.toml"].end(), '\n'));
}

TEST_CASE("objects are added, moved, given and dropped on their own lines", "[edit]") {
    const Files files = worlds::small_world();
    CHECK(map_line(files, MoveObject{"crab_a", PointPx{-8, 0}, true}) ==
          R"(  { name = "crab_a", kind = "crab", at = [32, 48] },)");
    CHECK(map_line(files, MoveObject{"crab_a", Cell{2, 1}}) ==
          R"(  { name = "crab_a", kind = "crab", cell = [2, 1] },)");
    CHECK(map_line(files, GiveObject{"crab_a", {{"patrol_px", "7.5"}}}) ==
          R"(  { name = "crab_a", kind = "crab", at = [40, 48], props = { patrol_px = 7.5 } },)");
    CHECK(map_line(files, AddObject{"", "crab_b", "crab", Cell{1, 1}, "", {{"patrol_px", "3"}}}) ==
          R"(  { name = "crab_b", kind = "crab", cell = [1, 1], props = { patrol_px = 3 } },)");
    CHECK(map_line(files, AddObject{"", "out", "link", CellArea{1, 1, 2, 1}, "flat/landing"}) ==
          R"(  { name = "out", kind = "link", cells = [1, 1, 2, 1], to = "flat/landing" },)");
    CHECK(map_line(files, DropObject{"crab_a"}).empty());
    // Given once more, the value is replaced where it stands.
    Files twice = files;
    REQUIRE(edited(twice, GiveObject{"crab_a", {{"patrol_px", "1"}}}));
    CHECK(map_line(twice, GiveObject{"crab_a", {{"patrol_px", "2"}}}) ==
          R"(  { name = "crab_a", kind = "crab", at = [40, 48], props = { patrol_px = 2 } },)");
}

TEST_CASE("objects in tables of their own are edited as such", "[edit]") {
    Files files = worlds::small_world();
    std::string& text = files["flat.toml"];
    text = text.substr(0, text.find("objects = [")) +
           "[[layers.objects]]   # here one starts\nname = \"landing\"\nkind = \"spawn\"\nat = [24, 48]\n\n"
           "[[layers.objects]]\nname = \"crab_a\"\nkind = \"crab\"\nat = [40, 48]\nprops.patrol_px = 3\n";
    REQUIRE(worlds::load(files));
    CHECK(map_line(files, MoveObject{"landing", PointPx{30, 48}}) == "at = [30, 48]");
    CHECK(map_line(files, GiveObject{"crab_a", {{"patrol_px", "4"}}}) == "props.patrol_px = 4");
    Files more = files;
    REQUIRE(edited(more, AddObject{"", "crab_b", "crab", PointPx{8, 8}}));
    REQUIRE(worlds::load(more));
    CHECK_THAT(more["flat.toml"],
               Catch::EndsWith("props.patrol_px = 3\n\n[[layers.objects]]\nname = \"crab_b\"\nkind = "
                               "\"crab\"\nat = [8, 8]\n"));
    REQUIRE(edited(more, DropObject{"crab_a"}));
    REQUIRE(worlds::load(more));
    CHECK_THAT(more["flat.toml"], !Catch::Contains("crab_a"));
    CHECK_THAT(more["flat.toml"], Catch::Contains("# here one starts"));
}

TEST_CASE("an edit that cannot be made says why, and what is near", "[edit]") {
    const Files files = worlds::small_world();
    CHECK_THAT(fault(files, PaintCells{"", "peet", {{0, 0}}}), Catch::Contains("did you mean 'peat'?"));
    CHECK_THAT(fault(files, PaintCells{"", "peat", {{6, 0}}}), Catch::Contains("(6, 0) is outside"));
    CHECK_THAT(fault(files, PaintCells{"grund", "peat", {{0, 0}}}), Catch::Contains("did you mean 'ground'?"));
    CHECK_THAT(fault(files, PaintCells{"", "peat:z", {{0, 0}}}), Catch::Contains(":x :y :xy"));
    CHECK_THAT(fault(files, MoveObject{"crab_b", PointPx{}}), Catch::Contains("did you mean 'crab_a'?"));
    CHECK_THAT(fault(files, GiveObject{"crab_a", {{"patrol_p", "1"}}}), Catch::Contains("did you mean 'patrol_px'?"));
    CHECK_THAT(fault(files, GiveObject{"crab_a", {{"patrol_px", "far"}}}), Catch::Contains("whose type is number"));
    CHECK_THAT(fault(files, AddObject{"", "crab_a", "crab", PointPx{}}), Catch::Contains("could not be read"));
    CHECK_THAT(fault(files, AddObject{"", "crab b", "crab", PointPx{}}), Catch::Contains("could not be read"));
    CHECK_THAT(fault(files, ResizeMap{0, 3}), Catch::Contains("at least"));
    CHECK_THAT(make_edit("world.toml", EditMap{"flt", PaintCells{}}, worlds::reader_of(files)).fault(),
               Catch::Contains("did you mean 'flat'?"));
}

TEST_CASE("a map grows and shrinks at any corner, and keeps what it had", "[edit]") {
    for (const Keep keep : {Keep::top_left, Keep::top_right, Keep::bottom_left, Keep::bottom_right})
        for (const auto& [columns, rows] : {std::pair{8, 6}, std::pair{4, 3}, std::pair{8, 2}, std::pair{6, 5}}) {
            INFO(static_cast<int>(keep) << " " << columns << "x" << rows);
            Files files = worlds::small_world();
            const Result<World> before = worlds::load(files);
            const Result<Edited> result = edited(files, ResizeMap{columns, rows, keep});
            INFO(result.fault() << "\n" << files["flat.toml"]);
            REQUIRE(result);
            const Result<World> after = worlds::load(files);
            INFO(text(after.report()));
            REQUIRE(after);
            const Map &old_map = before->maps()[0], &new_map = after->maps()[0];
            CHECK(new_map.columns == columns);
            CHECK(new_map.rows == rows);
            for (int r = -9; r < 15; ++r)
                for (int c = -9; c < 15; ++c) {
                    const auto tile = [&](const World& world, const Map& map) {
                        if (!map.has(c - map.first_column, r - map.first_row)) return std::string("outside");
                        const Placed& placed = map.placed(map.layers[0], c - map.first_column, r - map.first_row);
                        return placed.tile < 0 ? std::string() : world.tile(placed).name;
                    };
                    const std::string is = tile(*after, new_map), was = tile(*before, old_map);
                    if (is != "outside") CHECK(is == (was == "outside" ? "" : was));
                }
            CHECK(new_map.objects[0].position == old_map.objects[0].position);
        }
}

TEST_CASE("random edits of random worlds do what they say, to all sorts of layers", "[edit]") {
    int painted = 0;
    for (int round = 0; round < chance::rounds(160); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(static_cast<std::uint64_t>(round) + 9'000'000);
        Files files;
        for (const NamedBytes& file : *world_files(random_worlds::make(static_cast<std::uint64_t>(round))))
            files[file.file] = file.bytes;
        if (dice.once_in(3))
            for (auto& [name, text] : files)
                if (name.find(".csv") != std::string::npos)
                    for (std::size_t at = 0; (at = text.find('\n', at)) != std::string::npos; at += 2)
                        text.insert(at, "\r");
        const Result<World> before = worlds::load(files);
        REQUIRE(before);
        const Map& map = before->map("flat");
        const int column = dice.in(0, map.columns - 1), row = dice.in(0, map.rows - 1);
        const Cell cell = map.cell({column, row});
        const std::string layer = dice.once_in(2) ? "ground" : "deck";
        const std::string tile = std::array{"marsh/peat", "marsh/bank:x:90", "marsh/reeds", "marsh/kerb:y",
                                            ""}[static_cast<std::size_t>(dice.in(0, 4))];
        const Result<Edited> result = edited(files, PaintCells{layer, tile, {cell}});
        INFO(layer << " " << tile << " " << result.fault());
        REQUIRE(result);
        const Result<World> after = worlds::load(files);
        INFO(text(after.report()));
        REQUIRE(after);
        const Map& now = after->map("flat");
        for (std::size_t l = 0; l < map.layers.size(); ++l)
            for (int r = 0; r < map.rows && !map.layers[l].holds_objects; ++r)
                for (int c = 0; c < map.columns; ++c) {
                    const Placed &was = map.placed(map.layers[l], c, r), &is = now.placed(now.layers[l], c, r);
                    const bool here = map.layers[l].name == layer && c == column && r == row;
                    // A family's members follow their neighbours: those beside may change with it.
                    if (!here && std::abs(c - column) + std::abs(r - row) > 1) REQUIRE(was == is);
                    if (!here) continue;
                    const std::string name = tile.substr(0, tile.find(':'));
                    REQUIRE((is.tile < 0 ? "" : "marsh/" + after->tile(is).name) == name);
                    ++painted;
                }
    }
    CHECK(painted > 0);
}

TEST_CASE("random maps are resized and shifted and come back", "[edit]") {
    for (int round = 0; round < chance::rounds(100); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(static_cast<std::uint64_t>(round) + 9'500'000);
        Files files;
        for (const NamedBytes& file : *world_files(random_worlds::make(static_cast<std::uint64_t>(round))))
            files[file.file] = file.bytes;
        const Result<World> before = worlds::load(files);
        REQUIRE(before);
        const Map& map = before->map("flat");
        const auto keep = static_cast<Keep>(dice.in(0, 3));
        const int columns = map.columns + dice.in(0, 4), rows = map.rows + dice.in(0, 4);
        INFO(static_cast<int>(keep) << " to " << columns << " x " << rows);
        Result<Edited> result = edited(files, ResizeMap{columns, rows, keep});
        INFO(result.fault() << text(result.report()));
        REQUIRE(result);
        REQUIRE(worlds::load(files)->map("flat").columns == columns);
        result = edited(files, ResizeMap{map.columns, map.rows, keep});
        INFO(result.fault() << text(result.report()));
        REQUIRE(result);
        const Result<World> after = worlds::load(files);
        REQUIRE(after);
        const auto geometry = [](const World& world) {
            return merge_bytes(world, std::vector{merge(world, world.map("flat"))});
        };
        REQUIRE(geometry(*before) == geometry(*after));
        REQUIRE(edited(files, ShiftMap{1, -2}));
        REQUIRE(worlds::load(files));
    }
}

TEST_CASE("cells of lines, boxes and rings", "[edit]") {
    CHECK(cells_of_line({0, 0}, {3, 1}) == std::vector<Cell>{{0, 0}, {1, 0}, {2, 1}, {3, 1}});
    CHECK(cells_of_line({2, 2}, {2, 2}).size() == 1);
    CHECK(cells_of_box({1, 2, 2, 2}) == std::vector<Cell>{{1, 2}, {2, 2}, {1, 3}, {2, 3}});
    CHECK(cells_of_ring({0, 0, 3, 3}).size() == 8);
    CHECK(cells_of_ring({0, 0, 4, 1}).size() == 4);
    CHECK(cells_of_ring({0, 0, 2, 2}).size() == 4);
}

TEST_CASE("differences are reported by lines", "[edit]") {
    CHECK(line_differences("a\nb\n", "a\nb\n").empty());
    CHECK(line_differences("a\nb\nc\n", "a\nx\nc\n") == "line 1\n  a\n- b\n+ x\n  c\n");
    CHECK(line_differences("", "a\n") == "line 1\n+ a\n");
}
