#include <catch2/catch.hpp>

#include <sstream>

#include "clean_worlds.hpp"
#include "pictures.hpp"

using namespace dryground;
using namespace pictures;

namespace {

std::vector<std::string> lines_of(const worlds::Files& files, const DrawOptions& options = {},
                                  const CharacterOptions& characters = {}) {
    const World world = world_of(files);
    std::istringstream text(draw_characters(world, world.map("flat"), check(world), no_art, options, characters));
    std::vector<std::string> lines;
    for (std::string line; std::getline(text, line);) lines.push_back(line);
    return lines;
}

}   // namespace

TEST_CASE("a map in characters shows ground by barrier, objects by role, two characters a cell") {
    CHECK(lines_of(worlds::small_world()) ==
          std::vector<std::string>{
              "flat: 6 x 4 cells from (0, 0)", "  0         5", "0", "1", "2   S E   -###", "3 ############",
              "# earth   - partly solid   E entity   S spawn",   // and nothing that is not there
          });
}

TEST_CASE("it fits the width: one character a cell, or several cells to a character") {
    for (const int width : {20, 21, 30, 80, 200})
        for (std::uint64_t round = 0; round < 6; ++round) {
            const World world = world_of(worlds::clean_world(round));
            for (const Map& map : world.maps()) {
                DrawOptions options;
                options.show.erase(Thing::findings);
                std::istringstream text(draw_characters(world, map, {}, no_art, options, {.width = width}));
                std::string line;
                std::getline(text, line);   // the title may be longer
                for (int row = 0; row < 3 && std::getline(text, line); ++row)
                    CHECK(line.size() <= static_cast<std::size_t>(width));
            }
        }
}

TEST_CASE("findings are numbered where they are, and reported below") {
    const auto lines = lines_of(worlds::with(worlds::small_world(), "flat.toml", "at = [24, 48]", "at = [24, 50]"));
    CHECK(lines[4] == "2   1 E   -###");
    CHECK(lines[7] == " 1  error: 'landing' stands 2 px inside solid ground [spawn-blocked]");
    CHECK(lines[8] == "    flat.toml:21:44; nearest free place: at = [24, 48]");
}

TEST_CASE("an area is cut out, with its own numbers") {
    DrawOptions options;
    options.area = CellArea{3, 2, 3, 2};
    const auto lines = lines_of(worlds::small_world(), options);
    CHECK(lines[0] == "flat: 3 x 2 cells from (3, 2)");
    CHECK(lines[1] == "      5");
    CHECK(lines[2] == "2   -###");
    CHECK(lines[3] == "3 ######");
}

TEST_CASE("flags are letters, and where a mover's position cannot be are crosses; walls stay walls") {
    worlds::Files files =
        worlds::with(worlds::small_world(), "flat.toml", "\"/\" = \"bank\"", "\"/\" = \"bank\", \"=\" = \"boardwalk\"");
    files = worlds::with(files, "flat.toml", "......\n......\n..../#\n######\n", "......\n..==..\n..../#\n######\n");
    files = worlds::with(files, "world.toml", "[movers.warden]", "[movers.warden]\nneeds = []");
    const World world = world_of(files);
    const std::string flags = draw_characters(world, world.map("flat"), {}, no_art, only({Thing::flags}));
    INFO(flags);
    CHECK_THAT(flags, Catch::Contains("\n    w w\n") && Catch::Contains("w flag walk"));
    const std::string reach =
        draw_characters(world, world.map("flat"), {}, no_art, only({Thing::reach, Thing::merged}));
    INFO(reach);
    CHECK_THAT(reach, Catch::Contains("############") && Catch::Contains("x where the position of warden cannot be"));
    CHECK_THAT(reach, Catch::Contains("\nxxxxxxxxxxxx\nx          x\n"));   // half a body beside the rim
}

TEST_CASE("colours are escape codes, and only there on request") {
    const World world = world_of(worlds::small_world());
    const Map& map = world.map("flat");
    CHECK(draw_characters(world, map, {}, no_art).find('\033') == std::string::npos);
    const std::string painted = draw_characters(world, map, {}, no_art, {}, {.colours = true});
    CHECK(painted.find('\033') != std::string::npos);
    std::string plain;   // the same without the codes
    for (std::size_t i = 0; i < painted.size(); ++i) {
        if (painted[i] == '\033')
            i = painted.find('m', i);
        else
            plain += painted[i];
    }
    std::istringstream a(plain), b(draw_characters(world, map, {}, no_art));
    for (std::string left, right; std::getline(a, left) && std::getline(b, right);) {
        left.erase(left.find_last_not_of(' ') + 1);
        CHECK(left == right);
    }
}

// Each character is what most of its half cell is, held against the merged ground.
TEST_CASE("characters are the ground that fills half a cell or more") {
    for (std::uint64_t round = 0; round < 9; ++round) {
        const World world = world_of(worlds::clean_world(round));
        const Map& map = world.maps().front();
        DrawOptions options = only({Thing::merged});
        std::istringstream text(draw_characters(world, map, {}, no_art, options, {.width = 400}));
        std::string line;
        std::getline(text, line);
        const Merge merged = merge(world, map);
        for (int r = 0; r < map.rows; ++r) {
            std::getline(text, line);
            for (int c = 0; c < map.columns; ++c) {
                const Bounds box = map.cell_box(c, r);
                const Point middle{(box.least.x + box.most.x) / 2, (box.least.y + box.most.y) / 2};
                const Regions cell{{map.cell_ring(c, r), {}}};
                bool full = false, none = true;
                for (const Group& group : merged.groups) {
                    if (!group.trigger.empty()) continue;
                    const std::int64_t held = twice_area(intersect(group.regions, cell)), all = twice_area(cell);
                    full = full || held == all;
                    none = none && held == 0;
                }
                CAPTURE(round, c, r, middle.x, middle.y);
                const auto at = static_cast<std::size_t>(2 * c);
                const std::string two = line.size() > at ? line.substr(at, 2) : "";
                if (full) CHECK((two.size() == 2 && two.find_first_of(" .:-") == std::string::npos));
                if (none) CHECK(two.find_first_not_of(" :^v<>|") == std::string::npos);
            }
        }
    }
}
