// Maps as far out as they may lie: 2^28 steps from cell (0, 0).
#include <catch2/catch.hpp>

#include "chance.hpp"
#include "dryground/builder.hpp"
#include "dryground/travel.hpp"
#include "far_worlds.hpp"

using namespace dryground;

namespace {

using far_worlds::far_cells;

constexpr int ramble_columns = 20, ramble_rows = 10;

// A ramble of slopes, planks and a pit, with a goal, on a map that begins at some cell.
World world_at(Cell first, const char* moves) {
    WorldBuilder builder;
    MoverDraft warden{.name = "warden", .stopped_by = {"earth"}, .moves = std::string(moves)};
    warden.body = {.form = BoxPx{0, 0, 10, 14}, .y = -7};
    warden.jump_px = 40, warden.leap_px = 56, warden.kerb_px = 2, warden.slope_degrees = 46;
    builder.world(
        {.title = "Sedge Point",
         .player = Name("warden"),
         .start = Name("flat/landing"),
         .goal_objects = {"flat/lamp"},
         .barriers = {{.name = "earth"}},
         .movers = {warden},
         .kinds = {{.name = "spot",
                    .role = Located<std::string>("spawn"),
                    .stands = Located<std::string>("feet"),
                    .mover = Name("warden")},
                   {.name = "lamp", .role = Located<std::string>("entity"), .stands = Located<std::string>("feet")}}});
    const auto tile = [](const char* name, ShapeDraft shape) {
        return TileDraft{.name = name, .unseen = true, .barrier = "earth", .shapes = {{std::move(shape)}}};
    };
    ShapeDraft plank{LinePx{{{0, 0}, {16, 0}}}};
    plank.one_way = "up";
    builder.tileset({.name = "marsh",
                     .tiles = {tile("peat", {WholeCell{}}), tile("bank", {PolygonPx{{{0, 16}, {16, 0}, {16, 16}}}}),
                               tile("plank", plank)}});
    LayerDraft ground{.name = "ground"};
    ground.rows = {"....................", "....................", "....................", "...............___..",
                   "....................", "............../##...", "........___../###...", "......../#########..",
                   "####..../###########", "####..##############"};
    LayerDraft people{.name = "people", .holds_objects = true};
    const auto put = [&](const char* name, const char* kind, int column, int row) {
        people.objects.push_back({.name = name,
                                  .kind = kind,
                                  .form = PointPx{16.0 * (first.column + column) + 8, 16.0 * (first.row + row)}});
    };
    put("landing", "spot", 1, 8);
    put("lamp", "lamp", 16, 3);
    builder.map({.name = "flat",
                 .size = std::array{ramble_columns, ramble_rows},
                 .first = first,
                 .rim = "earth",
                 .tilesets = {"marsh"},
                 .legend = {{.key = "#", .tile = "peat"}, {.key = "/", .tile = "bank"}, {.key = "_", .tile = "plank"}},
                 .layers = {ground, people}});
    Result<World> world = builder.build();
    INFO(text(world.report()));
    REQUIRE(world);
    return *std::move(world);
}

}   // namespace

TEST_CASE("where a mover gets to at a corner of the range is where it gets to at the origin", "[travel][limits]") {
    for (const char* moves : {"side", "free"}) {
        const World near_world = world_at({0, 0}, moves);
        const Reach near = reach(near_world);
        REQUIRE(near.begins());
        for (const int x : {-far_cells, far_cells})
            for (const int y : {-far_cells, far_cells}) {
                INFO(moves << " from " << x << ", " << y);
                const World world = world_at({x, y}, moves);
                const Reach far = reach(world);
                REQUIRE(far.begins());
                CHECK(far.goals().front().reached == near.goals().front().reached);
                REQUIRE(far.places().size() == near.places().size());
                double area = 0, other_area = 0, length = 0, other_length = 0;
                for (std::size_t i = 0; i < near.places().size(); ++i) {
                    const TravelPlace &one = near.places()[i], &other = far.places()[i];
                    CHECK(one.reached == other.reached);
                    area += static_cast<double>(twice_area(one.area)),
                        other_area += static_cast<double>(twice_area(other.area));
                    if (!one.line.empty()) length += one.line.back().x - one.line.front().x;
                    if (!other.line.empty()) other_length += other.line.back().x - other.line.front().x;
                }
                CHECK(area == other_area);
                CHECK(length == other_length);
            }
    }
}
