// What two versions of a world say otherwise is told, and nothing else is.
// Also tests src/work: compare_words key_texts
#include "dryground/compare.hpp"

#include <catch2/catch.hpp>

#include "random_worlds.hpp"
#include "versions.hpp"

using namespace dryground;
using versions::edited;
using versions::version;
using worlds::Files;
using worlds::with;

namespace {

std::string compared(const Files& before, const Files& after) { return text(compare(version(before), version(after))); }

}   // namespace

TEST_CASE("how something is written makes no difference") {
    const Files files = worlds::small_world();
    CHECK(compared(files, files) == "no difference\n");
    Files other = with(files, "world.toml", "has_key = \"the key\"", "has_key = 'the key'   # a note");
    other = with(other, "flat.toml", "name = \"flat\"", "\n\nname = \"flat\"");
    CHECK(compared(files, other) == "no difference\n");
}

TEST_CASE("each sort of change is reported in a line of its own") {
    const Files files = worlds::small_world();
    const auto told = [&](const WorldEdit& edit) { return compared(files, edited(files, edit)); };
    CHECK_THAT(told(AddThing{"fact", "lit", {}}), Catch::StartsWith("fact 'lit' added\n"));
    CHECK_THAT(told(GiveThing{"kind", "crab", {{"patrol_px", "8"}}}),
               Catch::StartsWith("kind 'crab' changed: props.patrol_px"));
    CHECK_THAT(told(GiveWorld{{{"title", "Low Water"}}}),
               Catch::StartsWith("key 'title' changed: from \"Test Flat\" to \"Low Water\"\n"));
    CHECK_THAT(told(GiveTiles{"marsh", "peat", {{"tags", "soft"}}}),
               Catch::StartsWith("tile 'marsh/peat' changed: tags"));
    CHECK_THAT(told(AddMap{"cellar", 3, 2, {}}), Catch::StartsWith("map 'cellar' added\n"));
    const auto in_map = [&](const MapEdit& edit) { return told(EditMap{"flat", edit}); };
    CHECK_THAT(in_map(PaintCells{"", "peat", {{1, 0}, {2, 0}, {4, 0}}}),
               Catch::StartsWith(
                   "map 'flat'\n  layer 'ground': 3 cells at (1, 0) 2 x 1, (4, 0)\n  earth on storey ground: ") &&
                   Catch::Contains("(+768)\n"));
    CHECK_THAT(in_map(MoveObject{"crab_a", PointPx{32, 48}}),
               Catch::StartsWith("map 'flat'\n  object 'crab_a' moved: from [40, 48] to [32, 48]\n"));
    CHECK_THAT(in_map(GiveObject{"crab_a", {{"patrol_px", "8"}}}),
               Catch::Contains("  object 'crab_a' changed: props\n"));
    CHECK_THAT(in_map(DropObject{"crab_a"}), Catch::Contains("  object 'crab_a' removed: crab at [40, 48]\n"));
    CHECK_THAT(in_map(GiveLayer{"ground", {{"opacity", "0.5"}}}),
               Catch::Contains("  layer 'ground' changed: opacity\n"));
    CHECK_THAT(in_map(AddLayer{"reeds"}), Catch::Contains("  layer 'reeds' added\n"));
    CHECK_THAT(in_map(GiveMap{{{"title", "Flat"}}}), Catch::Contains("  title added: \"Flat\"\n"));
    CHECK_THAT(in_map(ResizeMap{7, 4, Keep::top_left}), Catch::Contains("  size changed: from [6, 4] to [7, 4]\n"));
    CHECK_THAT(in_map(MoveObject{"landing", PointPx{4, 48}}),
               Catch::Contains("new findings:\n") && Catch::Contains("[spawn-blocked]"));
}

TEST_CASE("a world is as itself, and painting one cell of a random world is reported as that") {
    int told = 0;
    for (int round = 0; round < chance::rounds(24); ++round) {
        DRYGROUND_ROUND(round);
        Files files;
        for (const NamedBytes& file : *world_files(random_worlds::make(static_cast<std::uint64_t>(round))))
            files[file.file] = file.bytes;
        const Version before = version(files);
        REQUIRE(compare(before, version(files)).empty());
        chance::Dice dice(static_cast<std::uint64_t>(round) + 23'000'000);
        const Map& map = before.world.map("flat");
        const Cell cell{map.first_column + dice.in(0, map.columns - 1), map.first_row + dice.in(0, map.rows - 1)};
        const std::string layer = dice.once_in(2) ? "ground" : "deck";
        const Files painted = edited(files, EditMap{"flat", PaintCells{layer, "marsh/bank:x", {cell}}});
        if (painted == files) continue;
        const Comparison comparison = compare(before, version(painted));
        bool here = false;
        for (const CellsChanged& cells : comparison.cells) {
            CHECK(cells.layer == layer);
            for (const CellArea& place : cells.places)
                here = here || (cell.column >= place.column && cell.column < place.column + place.columns &&
                                cell.row >= place.row && cell.row < place.row + place.rows);
        }
        CHECK(here);
        ++told;
    }
    CHECK(told > 0);
}
