// Tile sets from sheets and pictures; made again they keep what somebody wrote.
// Also tests src/files: sheet_grid
#include <catch2/catch.hpp>

#include "chance.hpp"
#include "dryground/art.hpp"
#include "worlds.hpp"

using namespace dryground;

namespace {

Image blank(int width, int height) {
    Image image;
    image.width = width, image.height = height;
    image.rgba.resize(4 * static_cast<std::size_t>(width) * static_cast<std::size_t>(height));
    return image;
}

unsigned char* pixel(Image& image, int x, int y) {
    return image.rgba.data() +
           4 * (static_cast<std::size_t>(y) * static_cast<std::size_t>(image.width) + static_cast<std::size_t>(x));
}

// A tile as people paint them: a colour of its own, with grain, and a darker edge here and there.
void paint(Image& image, int left, int top, int wide, int high, chance::Dice& dice) {
    const int red = dice.in(40, 215), green = dice.in(40, 215), blue = dice.in(40, 215), grain = dice.in(0, 24);
    for (int y = top; y < top + high; ++y)
        for (int x = left; x < left + wide; ++x) {
            const int by = dice.in(-grain, grain);
            unsigned char* p = pixel(image, x, y);
            p[0] = static_cast<unsigned char>(red + by), p[1] = static_cast<unsigned char>(green + by);
            p[2] = static_cast<unsigned char>(blue + by), p[3] = 255;
        }
}

struct MadeSheet {
    Image image;
    SheetGrid grid;
};
MadeSheet sheet(chance::Dice& dice) {
    static constexpr std::array cells{8, 12, 16, 20, 24, 32, 48};
    SheetGrid grid;
    const int cell = cells[static_cast<std::size_t>(dice.in(0, 6))];
    const int gap = dice.once_in(2) ? dice.in(1, 4) : 0, margin = gap > 0 && dice.once_in(2) ? dice.in(1, 4) : 0;
    grid.cell = {cell, cell}, grid.gap = {gap, gap}, grid.margin = {margin, margin};
    grid.columns = dice.in(3, 8), grid.rows = dice.in(2, 6);
    MadeSheet made{blank(2 * margin + grid.columns * (cell + gap) - gap, 2 * margin + grid.rows * (cell + gap) - gap),
                   grid};
    for (int r = 0; r < grid.rows; ++r)
        for (int c = 0; c < grid.columns; ++c)
            if (!dice.once_in(8) || c == 0)
                paint(made.image, margin + c * (cell + gap), margin + r * (cell + gap), cell, cell, dice);
    return made;
}

TilesOptions options(const char* name = "shore") { return {name, "shore.png"}; }

}   // namespace

TEST_CASE("the grid of a sheet is found", "[art]") {
    int right = 0;
    const int rounds = chance::rounds(60);
    for (int round = 0; round < rounds; ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(static_cast<std::uint64_t>(round) + 10'000'000);
        const MadeSheet made = sheet(dice);
        const auto grid = guess_grid(made.image);
        REQUIRE(grid);
        right += grid->cell == made.grid.cell && grid->margin == made.grid.margin && grid->gap == made.grid.gap;
        // What is known is kept to, whatever looks better.
        const auto known = guess_grid(made.image, {made.grid.cell, made.grid.margin, made.grid.gap});
        REQUIRE(known);
        CHECK(known->columns == made.grid.columns);
        CHECK(known->rows == made.grid.rows);
        CHECK_FALSE(known->why.empty());
    }
    INFO(right << " of " << rounds);
    CHECK(rounds - right <= 1 + rounds / 40);
}

TEST_CASE("no grid fits what is no sheet", "[art]") {
    CHECK_FALSE(guess_grid(blank(0, 0)));
    CHECK_FALSE(guess_grid(blank(7, 5)));
    CHECK_FALSE(guess_grid(blank(64, 64), {std::array{48, 48}, {}, std::array{0, 0}}));
    CHECK_FALSE(tiles_from_sheet(blank(7, 5), options()));
}

TEST_CASE("a sheet becomes a tile set that reads; made again it keeps what was written by hand", "[art]") {
    chance::Dice dice(1);
    Image art = blank(64, 32);
    for (const auto& [c, r] : {std::pair{0, 0}, std::pair{1, 0}, std::pair{0, 1}})
        paint(art, 16 * c, 16 * r, 16, 16, dice);
    TilesOptions how = options();
    how.trace = true;
    how.barrier = "earth";
    how.known.cell = std::array{16, 16};
    const Result<TilesFromArt> first = tiles_from_sheet(art, how);
    REQUIRE(first);
    CHECK(first->added == 3);
    worlds::Files files = worlds::small_world();
    files["shore.toml"] = first->text;
    files["shore.png"] = encode_png(art);
    files["world.toml"].replace(files["world.toml"].find("[\"marsh.toml\"]"), 14, "[\"marsh.toml\", \"shore.toml\"]");
    const Result<World> loaded = worlds::load(files);
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    CHECK(loaded->tilesets()[1].tiles.size() == 3);

    // By hand: a name, a comment, a shape. Then a new tile is painted, and one is wiped away.
    std::string by_hand = first->text;
    by_hand.replace(by_hand.find("[tiles.tile_1_0]"), 16, "[tiles.peat]   # my own name");
    paint(art, 48, 16, 16, 16, dice);
    for (int y = 16; y < 32; ++y)
        for (int x = 0; x < 16; ++x) pixel(art, x, y)[3] = 0;
    const Result<TilesFromArt> second = tiles_from_sheet(art, how, by_hand);
    REQUIRE(second);
    CHECK(second->added == 1);
    CHECK(second->text.substr(0, by_hand.size()) == by_hand);
    CHECK_THAT(second->text, Catch::Contains("[tiles.tile_3_1]\nart = [3, 1]"));
    CHECK_THAT(
        fmt::format("{}", fmt::join(second->told, "\n")),
        Catch::Contains("gone: the art of 'tile_0_1' at [0, 1] is empty now") && Catch::Contains("added: tile_3_1"));
    const Result<TilesFromArt> third = tiles_from_sheet(art, how, second->text);
    CHECK(third->text == second->text);
    CHECK(third->added == 0);
}

TEST_CASE("a wrong cell is corrected, names are given, and tiles without shapes get them", "[art]") {
    chance::Dice dice(7);
    Image image = blank(64, 16);
    for (int c = 0; c < 4; ++c)
        if (c != 2) paint(image, 16 * c, 0, 16, 16, dice);
    TilesOptions how = options();
    how.known.cell = {32, 16};   // wrong
    const Result<TilesFromArt> wrong = tiles_from_sheet(image, how);
    CHECK(wrong->added == 2);
    how.known.cell = {16, 16};
    how.names = {"peat", "turf", "reeds"};
    const Result<TilesFromArt> right = tiles_from_sheet(image, how, wrong->text);
    CHECK_THAT(right->text, Catch::Contains("cell = [16, 16]") && !Catch::Contains("[32, 16]"));
    CHECK_THAT(right->text, Catch::Contains("[tiles.reeds]\nart = [3, 0]"));
    // Without --cell the file's own holds, whatever would be guessed.
    CHECK(tiles_from_sheet(image, options(), right->text)->text == right->text);
    // What says nothing of its shapes gets them; what does is left alone.
    TilesOptions trace = options();
    trace.trace = true, trace.barrier = "earth", trace.pattern = "tile_*";
    std::string by_hand = right->text;
    by_hand.replace(by_hand.find("art = [0, 0]"), 12, "art = [0, 0]\nshapes = []");
    const Result<TilesFromArt> traced = tiles_from_sheet(image, trace, by_hand);
    CHECK(traced->shaped == 1);
    CHECK(traced->added == 0);
    CHECK_THAT(traced->text, Catch::Contains("art = [1, 0]\nbarrier = \"earth\"\nshapes = [\"cell\"]"));
    CHECK_THAT(traced->text, Catch::Contains("art = [0, 0]\nshapes = []"));
    CHECK_THAT(traced->text, Catch::EndsWith("art = [3, 0]\n"));   // its name does not match
}

TEST_CASE("a glaring colour in all corners means empty, where nothing is transparent", "[art]") {
    chance::Dice dice(8);
    Image image = blank(64, 32);
    for (int y = 0; y < 32; ++y)
        for (int x = 0; x < 64; ++x) {
            unsigned char* p = pixel(image, x, y);
            p[0] = 255, p[1] = 0, p[2] = 255, p[3] = 255;
        }
    paint(image, 16, 8, 16, 16, dice);
    CHECK(guess_clear(image) == Colour{255, 0, 255});
    Image bright = image;
    pixel(bright, 63, 31)[1] = 9;
    CHECK_FALSE(guess_clear(bright));   // not in all corners
    Image clear = image;
    pixel(clear, 20, 10)[3] = 0;
    CHECK_FALSE(guess_clear(clear));
    Image white = blank(8, 8);
    std::fill(white.rgba.begin(), white.rgba.end(), static_cast<unsigned char>(255));
    CHECK_FALSE(guess_clear(white));
    CHECK_FALSE(guess_clear(blank(0, 0)));
}

TEST_CASE("pictures are packed with their edges repeated, and keep their places", "[art]") {
    chance::Dice dice(2);
    std::vector<NamedPicture> pictures;
    for (const char* name : {"peat", "bank", "reeds"}) {
        pictures.push_back({name, fmt::format("art/{}.png", name), blank(16, 16)});
        paint(pictures.back().image, 0, 0, 16, 16, dice);
    }
    pictures.push_back({"everything", "art/everything.png", blank(64, 32)});
    pictures.push_back({"beacon", "art/beacon.png", blank(16, 48)});
    paint(pictures.back().image, 0, 0, 16, 48, dice);
    const Result<TilesFromArt> first = tiles_from_pictures(pictures, options());
    REQUIRE(first);
    REQUIRE(first->sheet);
    const std::string told = fmt::format("{}", fmt::join(first->told, "\n"));
    CHECK_THAT(told, Catch::Contains("'art/everything.png' is itself a sheet, of 4 x 2 cells"));
    CHECK_THAT(told, Catch::Contains("'art/beacon.png' is 16 x 48 px"));
    CHECK(first->added == 4);
    CHECK_THAT(first->text, Catch::Contains("margin = [1, 1], gap = [2, 2]"));
    CHECK_THAT(first->text, Catch::Contains("[tiles.beacon]\npicture = { file = \"art/beacon.png\" }"));
    // Each pixel of each picture is where its tile's art says, and its edges are there once more.
    Image packed = *first->sheet;
    REQUIRE(packed.width == 3 * 18);
    for (std::size_t i = 0; i < 3; ++i) {
        const int left = 1 + static_cast<int>(i) * 18, top = 1;
        for (int y = -1; y <= 16; ++y)
            for (int x = -1; x <= 16; ++x)
                CHECK(std::equal(pixel(packed, left + x, top + y), pixel(packed, left + x, top + y) + 4,
                                 pixel(pictures[i].image, std::clamp(x, 0, 15), std::clamp(y, 0, 15))));
    }
    // One goes, one comes: the others stay where they were.
    pictures.erase(pictures.begin());
    pictures.push_back({"sand", "art/sand.png", blank(16, 16)});
    const Result<TilesFromArt> second = tiles_from_pictures(pictures, options(), first->text);
    REQUIRE(second);
    CHECK(second->added == 1);
    CHECK(second->text.substr(0, first->text.size()) == first->text);
    CHECK_THAT(fmt::format("{}", fmt::join(second->told, "\n")),
               Catch::Contains("gone: there is no picture for 'peat' any more"));
    CHECK(std::equal(pixel(packed, 1 + 18, 1), pixel(packed, 1 + 18, 1) + 64,
                     second->sheet->rgba.data() + 4 * (second->sheet->width + 19)));
}

TEST_CASE("what is there and is no tile set is left alone", "[art]") {
    CHECK_THAT(tiles_from_sheet(blank(32, 32), options(), "format = \"dryground/map/1\"").fault(),
               Catch::Contains("not a tile set"));
    CHECK_THAT(tiles_from_sheet(blank(32, 32), options(), "oh no").fault(), Catch::Contains("line 1"));
    CHECK_FALSE(tiles_from_pictures({}, options()));
}

TEST_CASE("names of tiles from names of files", "[art]") {
    CHECK(tile_name("Wet Sand-2.png") == "wet_sand_2");
    CHECK(tile_name("art/peat.png") == "peat");
    CHECK(tile_name("3.png") == "tile_3");
    CHECK(tile_name("潮.png") == "tile");
}
