#include "caves.hpp"

#include <cmath>
#include <numbers>
#include <random>
#include <stdexcept>

#include "dryground/merge.hpp"

namespace bench {

using namespace dryground;

namespace {

using Grid = std::vector<char>;   // 1 where it is solid, 2 where a one-way line is
constexpr char plank = 2, net = 3;

std::size_t at(int side, int c, int r) {
    return static_cast<std::size_t>(r) * static_cast<std::size_t>(side) + static_cast<std::size_t>(c);
}

Grid random_grid(int side, unsigned percent, std::mt19937& chance) {
    Grid grid(at(side, 0, side));
    for (char& cell : grid) cell = chance() % 100 < percent;
    return grid;
}

bool solid(const Grid& grid, int side, int c, int r) {
    return c < 0 || r < 0 || c >= side || r >= side || grid[at(side, c, r)] != 0;
}

Grid grown(const Grid& grid, int side) {
    Grid next(grid.size());
    for (int r = 0; r < side; ++r)
        for (int c = 0; c < side; ++c) {
            int around = 0;
            for (int y = -1; y <= 1; ++y)
                for (int x = -1; x <= 1; ++x) around += solid(grid, side, c + x, r + y);
            next[at(side, c, r)] = around >= 5;
        }
    return next;
}

// A row's characters: '#' full, '1' to '4' slopes, 'h' 'v' halves, 'o' round.
char tile_for(const Grid& grid, int side, int c, int r, Tiles tiles, std::mt19937& chance) {
    if (grid[at(side, c, r)] == 0) return '.';
    if (grid[at(side, c, r)] == plank) return '-';
    if (grid[at(side, c, r)] == net) return 'n';
    if (tiles == Tiles::full) return '#';
    const bool border = !solid(grid, side, c - 1, r) || !solid(grid, side, c + 1, r) || !solid(grid, side, c, r - 1) ||
                        !solid(grid, side, c, r + 1);
    constexpr char some[] = {'1', '2', '3', '4', 'h', 'v', 'o', '#', '#', '#', '#', '#', '#', '#'};
    return border ? some[chance() % sizeof some] : '#';
}

// The tile set, and a map whose layer 'rock' holds a grid.
TileSetDraft tiles_of_caves() {
    const auto tile = [](const char* name, Form form) {
        return TileDraft{.name = {name}, .unseen = true, .barrier = Name{"earth"}, .shapes = {{{.form = form}}}};
    };
    return {.name = "marsh",
            .tiles = {tile("peat", WholeCell{}),
                      tile("bank", PolygonPx{{{0, 16}, {16, 0}, {16, 16}}}),
                      tile("ledge", BoxPx{0, 8, 16, 8}),
                      tile("boulder", EllipsePx{8, 8, 8, 8}),
                      tile("plank", LinePx{{{0, 4}, {16, 4}}}),
                      {.name = {"net"}, .unseen = true, .flags = {{{"climb"}}}}}};
}

MapDraft map_of(const Grid& grid, int side, Tiles tiles, std::mt19937& chance) {
    const auto turned = [](int turn) { return Orientation{.turn = static_cast<std::int16_t>(turn)}; };
    MapDraft map{.name = "cave", .size = {{side, side}}, .tilesets = {{"marsh"}}};
    map.legend = {{.key = {"#"}, .tile = {"peat"}},
                  {.key = {"1"}, .tile = {"bank"}},
                  {.key = {"2"}, .tile = {"bank"}, .orientation = turned(90)},
                  {.key = {"3"}, .tile = {"bank"}, .orientation = turned(180)},
                  {.key = {"4"}, .tile = {"bank"}, .orientation = turned(270)},
                  {.key = {"h"}, .tile = {"ledge"}},
                  {.key = {"v"}, .tile = {"ledge"}, .orientation = turned(90)},
                  {.key = {"o"}, .tile = {"boulder"}},
                  {.key = {"-"}, .tile = {"plank"}},
                  {.key = {"n"}, .tile = {"net"}}};
    LayerDraft layer{.name = "rock", .one_way = Located<std::string>{"up"}};
    for (int r = 0; r < side; ++r) {
        std::string row;
        for (int c = 0; c < side; ++c) row += tile_for(grid, side, c, r, tiles, chance);
        layer.rows.push_back({std::move(row)});
    }
    map.layers.push_back(std::move(layer));
    return map;
}

World world_of(const Grid& grid, int side, Tiles tiles, std::mt19937& chance, const Regions& solids = {}) {
    WorldBuilder builder;
    builder.world({.title = "Caves", .barriers = {{"earth"}}});
    builder.tileset(tiles_of_caves());
    MapDraft map = map_of(grid, side, tiles, chance);
    LayerDraft drawn{.name = "drawn", .holds_objects = true};
    for (const Region& solid : solids) {
        PolygonPx polygon;
        for (const Point p : solid.outline) polygon.points.push_back({to_px(p.x), to_px(p.y)});
        drawn.objects.push_back({.kind = {"solid"}, .form = std::move(polygon), .barrier = Name{"earth"}});
    }
    map.layers.push_back(std::move(drawn));
    builder.map(std::move(map));
    const Result<World> built = builder.build();
    if (!built) throw std::runtime_error(text(built.report()));
    return *built;
}

}   // namespace

namespace {

Grid grow_cave(int side, std::mt19937& chance) {
    Grid grid = random_grid(side, 45, chance);
    for (int round = 0; round < 4; ++round) grid = grown(grid, side);
    return grid;
}

World reshaped_world(int side, Tiles tiles, unsigned seed, void (*reshape)(LayerDraft&)) {
    std::mt19937 chance(seed);
    const Grid grid = grow_cave(side, chance);
    MapDraft map = map_of(grid, side, tiles, chance);
    reshape(map.layers.front());
    WorldBuilder builder;
    builder.world({.title = "Reshaped", .barriers = {{"earth"}}});
    const Result<World> built = builder.tileset(tiles_of_caves()).map(std::move(map)).build();
    if (!built) throw std::runtime_error(text(built.report()));
    return *built;
}

}   // namespace

std::vector<char> cave_grid(int side, unsigned seed) {
    std::mt19937 chance(seed);
    return grow_cave(side, chance);
}

World cave_world(int side, Tiles tiles, unsigned seed, const Regions& solids) {
    std::mt19937 chance(seed);
    const Grid grid = grow_cave(side, chance);
    return world_of(grid, side, tiles, chance, solids);
}

namespace {

// Puts one-way lines in open cells.
void add_nets(Grid& grid, int side, int nets, std::mt19937& chance) {
    for (int left = nets; left > 0; --left) {
        const std::size_t first = chance() % grid.size();
        for (std::size_t r = 0; r < 4; ++r)
            if (const std::size_t cell = first + r * static_cast<std::size_t>(side);
                cell < grid.size() && grid[cell] == 0)
                grid[cell] = net;
    }
}

void add_lines(Grid& grid, int lines, std::mt19937& chance) {
    while (lines > 0) {
        char& cell = grid[chance() % grid.size()];
        if (cell != 0) continue;
        cell = plank;
        --lines;
    }
}

}   // namespace

World platform_world(int side, Tiles tiles, int lines, unsigned seed) {
    std::mt19937 chance(seed);
    Grid grid = grow_cave(side, chance);
    add_lines(grid, lines, chance);
    return world_of(grid, side, tiles, chance);
}

World door_world(int side, Tiles tiles, int doors, unsigned seed) {
    std::mt19937 chance(seed);
    const Grid grid = grow_cave(side, chance);
    MapDraft map = map_of(grid, side, tiles, chance);
    std::vector<std::string> rows(static_cast<std::size_t>(side), std::string(static_cast<std::size_t>(side), '.'));
    for (int i = 0; i < doors; ++i) rows[chance() % rows.size()][chance() % rows.size()] = '#';
    LayerDraft layer{.name = "doors", .unless = {{"open"}}};
    for (std::string& row : rows) layer.rows.push_back({std::move(row)});
    map.layers.push_back(std::move(layer));
    WorldBuilder builder;
    builder.world({.title = "Doors", .barriers = {{"earth"}}, .facts = {{{"open"}}}});
    const Result<World> built = builder.tileset(tiles_of_caves()).map(std::move(map)).build();
    if (!built) throw std::runtime_error(text(built.report()));
    return *built;
}

World sunk_world(int side, Tiles tiles, unsigned seed) {
    return reshaped_world(side, tiles, seed, [](LayerDraft& layer) { layer.sink = {0, 4, 0, 0}; });
}
World filled_world(int side, Tiles tiles, unsigned seed) {
    return reshaped_world(side, tiles, seed, [](LayerDraft& layer) { layer.fill_holes = Located<Value>(Value{true}); });
}
World grown_world(int side, Tiles tiles, unsigned seed) {
    return reshaped_world(side, tiles, seed, [](LayerDraft& layer) { layer.grow.emplace().px = 2.0; });
}

World busy_world(int side, Tiles tiles, int objects, unsigned seed) {
    std::mt19937 chance(seed);
    const Grid grid = grow_cave(side, chance);
    const auto box = [](double width, double height) { return BodyDraft{.form = BoxPx{0, 0, width, height}}; };
    WorldDraft world{.title = "Busy caves", .player = Name{"warden"}, .start = Name{"cave/thing_0"}};
    world.barriers = {{"earth"}};
    world.movers = {{.name = {"warden"}, .body = box(10, 12), .stopped_by = {{"earth"}}},
                    {.name = {"crab"}, .body = box(8, 8), .stopped_by = {{"earth"}}}};
    world.facts = {{{"has_key"}}, {{"lamp_lit"}}};
    world.events = {{{"ring"}}};
    world.kinds = {{.name = {"silt_crab"}, .role = Located<std::string>{"spawn"}, .mover = Name{"crab"}}};
    MapDraft map = map_of(grid, side, tiles, chance);
    LayerDraft things{.name = "things", .holds_objects = true};
    for (int i = 0; i < objects;) {
        const auto c = static_cast<int>(chance() % static_cast<unsigned>(side)),
                   r = static_cast<int>(chance() % static_cast<unsigned>(side));
        if (grid[at(side, c, r)] != 0) continue;
        ObjectDraft thing{
            .name = {"thing_" + std::to_string(i)}, .kind = {i == 0 ? "spawn" : "silt_crab"}, .form = AtCells{c, r}};
        switch (i == 0 ? 0 : i % 5) {
            case 1:
                thing.kind = {"trigger"}, thing.gives = {{"has_key"}};
                break;
            case 2:
                thing.kind = {"trigger"}, thing.needs = {{"has_key"}}, thing.gives = {{"lamp_lit"}},
                thing.fires = Located<std::string>{"use"};
                break;
            case 3:
                thing.kind = {"entity"}, thing.when = {{"lamp_lit"}};
                break;
            case 4:
                thing.kind = {"link"}, thing.to = Name{"cave/thing_" + std::to_string(i - 1)};
                break;
            default:
                break;
        }
        things.objects.push_back(std::move(thing));
        ++i;
    }
    map.layers.push_back(std::move(things));
    WorldBuilder builder;
    const Result<World> built = builder.world(std::move(world)).tileset(tiles_of_caves()).map(std::move(map)).build();
    if (!built) throw std::runtime_error(text(built.report()));
    return *built;
}

World walked_world(int side, Tiles tiles, Moves moves, unsigned seed, const Furniture& furniture) {
    std::mt19937 chance(seed);
    Grid grid = grow_cave(side, chance);
    add_lines(grid, furniture.lines, chance);
    add_nets(grid, side, furniture.nets, chance);
    const BodyDraft body{.form = BoxPx{0, 0, 10, 14}, .y = -7};
    WorldDraft world{.title = "Walked caves", .player = Name{"warden"}, .start = Name{"cave/landing"}};
    world.barriers = {{"earth"}};
    world.flags = {{{"climb"}}};
    world.movers = {{.name = {"warden"},
                     .body = body,
                     .stopped_by = {{"earth"}},
                     .moves = {moves == Moves::steps  ? "steps"
                               : moves == Moves::free ? "free"
                                                      : "side"},
                     .jump_px = 40,
                     .leap_px = 56,
                     .kerb_px = 2,
                     .slope_degrees = 46}};
    if (furniture.nets > 0) world.movers.front().climbs = {{"climb"}};
    MapDraft map = map_of(grid, side, tiles, chance);
    map.rim = Located<std::string>{"earth"};
    LayerDraft things{.name = "things", .holds_objects = true};
    int c = side / 2, r = side / 2;   // an open cell with another above it, on a solid one
    while (grid[at(side, c, r)] != 0 || grid[at(side, c, r - 1)] != 0 || grid[at(side, c, r + 1)] != 1)
        if (++c + 1 == side) c = 1, ++r;
    things.objects.push_back({.name = {"landing"},
                              .kind = {"spawn"},
                              .form = PointPx{16.0 * c + 8, moves == Moves::side ? 16.0 * r + 16 : 16.0 * r + 15}});
    const auto below = [&](int most) { return static_cast<int>(chance() % static_cast<unsigned>(most)); };
    for (int lift = 0; lift < furniture.lifts; ++lift) {   // 96 px up and back
        const double x = 16.0 * below(side - 2), y = 16.0 * (8 + below(side - 10));
        ObjectDraft object{.kind = {"lift"}, .form = BoxPx{x, y, 32, 8}};
        object.props.emplace("stops", Located<Value>(Value{Value::List{Value{std::array<double, 2>{x + 16, y - 92}}}}));
        things.objects.push_back(std::move(object));
    }
    if (furniture.lifts > 0) {
        KindDraft kind{.name = {"lift"}, .role = {{"solid"}}, .motion = {{"driven"}}, .path = Name{"stops"}};
        kind.fields = {{.name = {"stops"}, .type = {"list"}, .standard = Located<Value>(Value{Value::List{}})}};
        kind.fields.back().of = {{"place"}};
        kind.barrier = Name{"earth"};
        world.kinds.push_back(std::move(kind));
    }
    map.layers.push_back(std::move(things));
    WorldBuilder builder;
    const Result<World> built = builder.world(std::move(world)).tileset(tiles_of_caves()).map(std::move(map)).build();
    if (!built) throw std::runtime_error(text(built.report()));
    return *built;
}

World locked_world(int rooms, int keys) {
    WorldDraft world{.title = "Locks", .player = Name{"warden"}, .start = Name{"room_0/mat"}};
    world.barriers = {{"earth"}};
    world.movers = {{.name = {"warden"}, .body = {.form = BoxPx{0, 0, 6, 6}}, .stopped_by = {{"earth"}}}};
    for (int key = 0; key < keys; ++key) world.facts.push_back({{"key_" + std::to_string(key)}});
    WorldBuilder builder;
    std::vector<MapDraft> maps;
    for (int room = 0; room < rooms; ++room) {
        MapDraft map{.name = "room_" + std::to_string(room), .size = {{16, 16}}};
        map.rim = Located<std::string>{"earth"};
        LayerDraft things{.name = "things", .holds_objects = true};
        const auto thing = [&](const std::string& name, const char* kind, double x, double y) {
            return ObjectDraft{.name = {name}, .kind = {kind}, .form = BoxPx{x, y, 8, 8}};
        };
        things.objects.push_back({.name = {"mat"}, .kind = {"entity"}, .form = PointPx{16, 16}});
        for (const int to : {(room + 1) % rooms, (room + rooms - 1) % rooms}) {
            ObjectDraft door = thing("to_" + std::to_string(to), "link", to > room ? 200.0 : 220.0, 16);
            door.to = Name{"room_" + std::to_string(to) + "/mat"};
            things.objects.push_back(std::move(door));
        }
        for (int key = room; key < keys; key += rooms) {
            const int place = key / rooms;
            ObjectDraft chest =
                thing("chest_" + std::to_string(key), "trigger", 24.0 + place % 8 * 24, 48.0 + place / 8 * 24);
            chest.gives = {{"key_" + std::to_string(key)}};
            if (key > 0) chest.needs = {{"key_" + std::to_string(key - 1)}};
            things.objects.push_back(std::move(chest));
        }
        map.layers.push_back(std::move(things));
        maps.push_back(std::move(map));
    }
    builder.world(std::move(world));
    for (MapDraft& map : maps) builder.map(std::move(map));
    const Result<World> built = builder.build();
    if (!built) throw std::runtime_error(text(built.report()));
    return *built;
}

World noise_world(int side, Tiles tiles, unsigned seed) {
    std::mt19937 chance(seed);
    return world_of(random_grid(side, 50, chance), side, tiles, chance);
}

Regions drawn_polygons(int count, int vertices, int side, unsigned seed) {
    std::mt19937 chance(seed);
    const auto in = [&](double least, double most) {
        return least + (most - least) * static_cast<double>(chance() % 10'000) / 10'000.0;
    };
    Regions result;
    for (int i = 0; i < count; ++i) {
        const double radius = in(2, 12) * 16 * steps_per_px;
        const double x = in(radius, side - radius), y = in(radius, side - radius);
        Ring ring;
        for (int v = 0; v < vertices; ++v) {   // by angle, so that it does not cross itself
            const double angle = 2 * std::numbers::pi * (v + in(-0.4, 0.4)) / vertices, reach = radius * in(0.5, 1);
            ring.push_back({static_cast<std::int32_t>(x + reach * std::cos(angle)),
                            static_cast<std::int32_t>(y + reach * std::sin(angle))});
        }
        result.push_back({std::move(ring), {}});
    }
    return result;
}

Regions tile_polygons(const World& world) {
    const Map& map = world.maps()[0];
    Regions result;
    for (const Layer& layer : map.layers)
        for (int r = 0; r < map.rows && !layer.holds_objects; ++r)
            for (int c = 0; c < map.columns; ++c) {
                const Placed& placed = map.placed(layer, c, r);
                if (placed.tile < 0) continue;
                for (const Shape& shape : world.tile(placed).shapes)
                    for (Region& region : placed_area(map, layer, shape, c, r)) result.push_back(std::move(region));
            }
    return result;
}

}   // namespace bench
