// Slopes drawn px by px, traced, merged, and rolled and slid over in the real engine.
#include <chipmunk/chipmunk.h>

#include <fmt/format.h>
#include <catch2/catch.hpp>
#include <dryground/chipmunk.hpp>

#include <functional>

#include "dryground/builder.hpp"

using namespace dryground;

namespace {

constexpr int cell = 16, per_metre = 16;

// A slope that rises by so many px on so many.
struct Slope {
    int rise, run;
    [[nodiscard]] int columns() const { return std::max(1, run / rise); }
    [[nodiscard]] int rows() const { return std::max(1, rise / run); }
    // How many px stand on a column of px, counted from its lower end.
    [[nodiscard]] int height(int x) const {
        return std::min((x * rise) / run + std::max(1, rise / run), rows() * cell);
    }
};
constexpr Slope slopes[] = {{1, 1}, {1, 2}, {2, 1}, {1, 3}, {3, 1}, {1, 4}, {1, 5}};

// The art of both ways of a slope, beside each other, and a full cell at the end: a sheet of one cell for each tile.
struct Sheet {
    Image image;
    std::vector<TileDraft> tiles;
    std::vector<LegendEntry> legend;
};
Sheet sheet_of(const Slope& slope, double within_px) {
    const int count = slope.columns() * slope.rows();
    Sheet sheet;
    sheet.image.width = (2 * count + 1) * cell, sheet.image.height = cell;
    sheet.image.rgba.assign(static_cast<std::size_t>(sheet.image.width) * cell * 4, 0);
    const auto add = [&](const std::function<bool(int x, int y)>& is_filled) {
        const int number = static_cast<int>(sheet.tiles.size());
        for (int y = 0; y < cell; ++y)
            for (int x = 0; x < cell; ++x)
                if (is_filled(x, y))
                    sheet.image.rgba[static_cast<std::size_t>((y * sheet.image.width + number * cell + x) * 4 + 3)] =
                        255;
        TileDraft tile{.name = fmt::format("part_{}", number), .barrier = "earth"};
        tile.art = Located<std::array<int, 2>>(std::array{number, 0});
        tile.shapes = {{ShapeDraft{Traced{.within_px = within_px}}}};
        sheet.tiles.push_back(tile);
        sheet.legend.push_back({.key = std::string(1, static_cast<char>('a' + number)), .tile = tile.name.value});
    };
    for (const bool falls : {false, true})
        for (int row = 0; row < slope.rows(); ++row)   // from the lowest
            for (int column = 0; column < slope.columns(); ++column)
                add([&](int x, int y) {
                    const int px = column * cell + x;
                    const int at = falls ? slope.columns() * cell - 1 - px : px;
                    return row * cell + cell - 1 - y < slope.height(at);
                });
    add([](int, int) { return true; });
    return sheet;
}

// Level, up, level, down, level.
World hill(const Slope& slope, double within_px) {
    Sheet sheet = sheet_of(slope, within_px);
    constexpr int level = 4, above = 3;
    const int wide = 3 * level + 2 * slope.columns(), high = above + slope.rows() + 1;
    std::vector<std::string> rows(static_cast<std::size_t>(high), std::string(static_cast<std::size_t>(wide), '.'));
    const char full = static_cast<char>('a' + 2 * slope.columns() * slope.rows());
    const auto put = [&](int column, int row, char tile) {   // rows from the lowest
        rows[static_cast<std::size_t>(high - 1 - row)][static_cast<std::size_t>(column)] = tile;
    };
    for (int column = 0; column < wide; ++column) put(column, 0, full);
    for (int row = 0; row < slope.rows(); ++row) {
        for (int i = 0; i < slope.columns(); ++i) {
            const int part = row * slope.columns() + i;
            put(level + i, row + 1, static_cast<char>('a' + part));
            put(2 * level + slope.columns() + i, row + 1,
                static_cast<char>('a' + slope.columns() * slope.rows() + part));
        }
        for (int i = 0; i < level; ++i) put(level + slope.columns() + i, row + 1, full);
    }
    WorldBuilder builder;
    MoverDraft warden{.name = "warden", .stopped_by = {"earth"}};
    warden.body.form = BoxPx{0, 0, 10, 14};
    builder.world(
        {.title = "Sedge Point", .per_metre = double{per_metre}, .barriers = {{.name = "earth"}}, .movers = {warden}});
    TileSetDraft set{.name = "marsh", .tiles = sheet.tiles};
    set.sheet.emplace();
    set.sheet->file = "marsh.png";
    builder.tileset(set);
    LayerDraft ground{.name = "ground"};
    ground.rows.assign(rows.begin(), rows.end());
    builder.map({.name = "hill",
                 .size = std::array{wide, high},
                 .tilesets = {"marsh"},
                 .legend = sheet.legend,
                 .layers = {ground}});
    builder.pictures([&](const std::string&) { return std::optional(sheet.image); });
    Result<World> world = builder.build();
    INFO(text(world.report()));
    REQUIRE(world);
    return *std::move(world);
}

// How far a body that is pushed along level with 10 px a second comes off the ground at most, px: nearest of some
// points of its outline, less a radius.
double most_gap(const World& world, const std::vector<cpVect>& points, double radius) {
    cpSpace* space = cpSpaceNew();
    cpSpaceSetGravity(space, cpv(0, -600.0 / per_metre));
    cpSpaceSetCollisionSlop(space, 0.05 / per_metre);   // what sinks in is no gap
    double most = 0;
    {
        const Map& map = world.map("hill");
        const chipmunk::Ground ground(space, world, merge(world, map));
        cpBody* body = cpSpaceAddBody(space, cpBodyNew(1, INFINITY));
        cpShape* shape = cpSpaceAddShape(
            space, points.size() == 1 ? cpCircleShapeNew(body, radius, cpvzero)
                                      : cpPolyShapeNewRaw(body, static_cast<int>(points.size()), points.data(), 0));
        cpShapeSetFriction(shape, 0);
        cpShapeFilter filter = chipmunk::filter_of(world, "warden");
        filter.group = 1;   // the body's own shape is not asked
        cpShapeSetFilter(shape, filter);
        const double floor = -static_cast<double>(map.rows - 1) * cell / per_metre;
        cpBodySetPosition(body, cpv(1, floor + 14.0 / per_metre));
        const double end = map.columns * cell / double{per_metre} - 1;
        for (int step = 0; cpBodyGetPosition(body).x < end && step < 20'000; ++step) {
            cpBodySetVelocity(body, cpv(step < 100 ? 0 : 10.0 / per_metre, cpBodyGetVelocity(body).y));
            cpSpaceStep(space, 1.0 / 240);
            if (step < 100) continue;   // it comes down first
            double nearest = 1e9;
            for (const cpVect point : points) {
                cpPointQueryInfo hit;
                cpSpacePointQueryNearest(space, cpvadd(cpBodyGetPosition(body), point), 100, filter, &hit);
                nearest = std::min(nearest, (hit.distance - radius) * per_metre);
            }
            most = std::max(most, nearest);
        }
        CHECK(cpBodyGetPosition(body).x >= end);   // nothing stopped it
        cpSpaceRemoveShape(space, shape);
        cpSpaceRemoveBody(space, body);
        cpShapeFree(shape);
        cpBodyFree(body);
    }
    cpSpaceFree(space);
    return most;
}
double ball_gap(const World& world) { return most_gap(world, {cpvzero}, 6.0 / per_metre); }
double box_gap(const World& world) {
    const double x = 5.0 / per_metre, y = 7.0 / per_metre;
    return most_gap(world, {cpv(-x, -y), cpv(x, -y), cpv(x, y), cpv(-x, y)}, 0);
}

}   // namespace

TEST_CASE("bodies roll and slide over traced slopes without leaving the ground") {
    for (const Slope& slope : slopes) {
        INFO(slope.rise << " px on " << slope.run);
        const World world = hill(slope, 0.75);
        CHECK(ball_gap(world) < 0.5);
        if (slope.rise <= slope.run) CHECK(box_gap(world) < 0.5);   // steeper ones a box does not climb at that pace
    }
}

TEST_CASE("over the same slopes px by px a box comes off the ground") { CHECK(box_gap(hill({1, 1}, 0)) > 0.5); }
