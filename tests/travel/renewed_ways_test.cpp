// Ways and what is reached, after changes of a map: the same as if they were made of the map as it is then.
// Also tests src/travel: renewed_ways step_cells joined_cells stages
#include "travel/renewed_ways_internal.hpp"

#include <catch2/catch.hpp>

#include <set>

#include "dryground/play.hpp"
#include "rambles.hpp"
#include "random_worlds.hpp"
#include "travel/standing_cells_internal.hpp"

using namespace dryground;

namespace {

using FromTo = std::set<std::pair<int, int>>;
FromTo moves_of(travel::Ways& ways) {
    FromTo moves;
    for (int place = 0; place < ways.places(); ++place)
        for (const travel::Move& move : ways.moves(place)) moves.insert({place, move.to});
    return moves;
}

// By storey, layer and cell.
std::vector<int> places_of(const travel::Ways& ways, const Map& map) {
    std::vector<int> places;
    for (const Layer& layer : map.layers)
        for (int r = 0; r < map.rows; ++r)
            for (int c = 0; c < map.columns; ++c)
                places.push_back(ways.find_place(layer.storey, travel::middle_of(map, c, r)));
    return places;
}

struct Edited {
    LayerId layer;
    DataCell cell;
    Placed before, now;
};
// Puts a tile that the world has on a cell, or none.
std::optional<Edited> edit(chance::Dice& dice, const World& world, Map& map) {
    std::vector<LayerId> layers;
    for (const LayerId id : ids<LayerId>(map.layers))
        if (!map.layer(id).holds_objects) layers.push_back(id);
    if (layers.empty()) return std::nullopt;
    const LayerId layer = layers[static_cast<std::size_t>(dice.in(0, static_cast<int>(layers.size()) - 1))];
    const DataCell cell{dice.in(0, map.columns - 1), dice.in(0, map.rows - 1)};
    Placed tile;
    if (!dice.once_in(4) && !map.tilesets.empty()) {
        const TileSetId set = map.tilesets.front();
        const int tiles = static_cast<int>(world.tilesets()[static_cast<std::size_t>(set)].tiles.size());
        tile = {static_cast<std::int16_t>(set), dice.in(0, tiles - 1), {dice.once_in(2), false, 0}};
    }
    const Placed before = map.placed(map.layer(layer), cell.column, cell.row);
    map.put(layer, cell, tile);
    return Edited{layer, cell, before, tile};
}

}   // namespace

TEST_CASE("ways of who steps follow edits", "[travel]") {
    std::size_t edits = 0, other = 0, one_way = 0;
    for (std::uint64_t round = 0; round < static_cast<std::uint64_t>(chance::rounds(80)); ++round) {
        DRYGROUND_ROUND(round);
        const Result<World> loaded = random_worlds::make(round).build();
        if (!loaded) continue;
        const World& world = *loaded;
        chance::Dice dice(round * 29 + 11);
        Facts facts;
        for (const FactId fact : ids<FactId>(world.facts()))
            if (dice.once_in(3)) facts.push_back(fact);
        for (const MoverId mover : ids<MoverId>(world.movers()))
            for (const Map& map : world.maps()) {
                Map now = map;
                const std::vector<travel::Target> none;
                const travel::WaysOf of{world, now, mover, facts, none};
                const auto ways = travel::ways_by_steps(of);
                for (int k = 0; k < 12; ++k) {
                    std::vector<Bounds> changed;
                    for (int more = dice.in(1, 2); more > 0; --more)
                        if (const auto done = edit(dice, world, now))
                            changed.push_back(
                                travel::changed_box(world, now, done->layer, done->cell, done->before, done->now));
                    const std::vector<int> before = places_of(*ways, now);
                    REQUIRE(ways->follow(of, changed, false));
                    const auto fresh = travel::ways_by_steps(of);
                    const std::vector<int> places = places_of(*fresh, now);
                    INFO("map " << map.name << ", edit " << k);
                    REQUIRE(ways->places() == fresh->places());
                    REQUIRE(places_of(*ways, now) == places);
                    const FromTo moves = moves_of(*fresh);
                    REQUIRE(moves_of(*ways) == moves);
                    ++edits, other += places != before, one_way += moves.size();
                }
            }
    }
    CHECK(edits > static_cast<std::size_t>(chance::rounds(1000)));
    CHECK(other > static_cast<std::size_t>(chance::rounds(100)));
    CHECK(one_way > static_cast<std::size_t>(chance::rounds(50)));
}

namespace {

// A map of earth, slopes, planks and boards by chance, with keys, and a door that one of them opens.
struct Drawing {
    std::vector<std::string> rows, door;
    std::string objects;
    rambles::Figures figures;

    [[nodiscard]] World world() const {
        std::string layer = "[[layers]]\nname = \"door\"\nunless = [\"open\"]\nrows = '''\n";
        for (const std::string& row : door) layer += row + "\n";
        return worlds::world_of(
            rambles::one_map(rows, objects, figures, "open = \"a gate\"\nfound = \"a shell\"\n", layer + "'''\n"));
    }
};

constexpr std::string_view drawn_with = "...####/\\_=h~n,;";
char any_character(chance::Dice& dice) {
    return drawn_with[static_cast<std::size_t>(dice.in(0, static_cast<int>(drawn_with.size()) - 1))];
}

// Hangs nets down by chance.
void hang_nets(chance::Dice& dice, std::vector<std::string>& rows) {
    const int columns = static_cast<int>(rows.front().size()), most = static_cast<int>(rows.size()) - 1;
    for (int net = dice.in(1, 8); net > 0; --net) {
        const int c = dice.in(0, columns - 1), first = dice.in(0, most), last = std::min(most, first + dice.in(1, 6));
        for (int r = first; r <= last; ++r)
            if (char& cell = rows[static_cast<std::size_t>(r)][static_cast<std::size_t>(c)]; cell == '.') cell = 'n';
    }
}

Drawing random_drawing(chance::Dice& dice, const char* moves, int columns, int rows) {
    Drawing drawing;
    drawing.figures.moves = moves;
    if (drawing.figures.moves != "side") {
        drawing.figures.body = "{ box = [10, 10], at = [0, 0] }";
        drawing.figures.more.clear();
        for (int r = 0; r < rows; ++r) {
            std::string& row = drawing.rows.emplace_back();
            for (int c = 0; c < columns; ++c) row += dice.once_in(3) ? any_character(dice) : '.';
        }
    } else {
        drawing.rows = rambles::random_rows(dice, columns, rows);
        if (dice.once_in(2)) {
            drawing.figures.more += "climbs = [\"climb\"]\n";
            hang_nets(dice, drawing.rows);
        }
    }
    drawing.door.assign(static_cast<std::size_t>(rows), std::string(static_cast<std::size_t>(columns), '.'));
    for (int i = 0; i < 6; ++i)
        drawing
            .door[static_cast<std::size_t>(dice.in(0, rows - 1))][static_cast<std::size_t>(dice.in(0, columns - 1))] =
            '#';
    const auto [x, y] = rambles::random_start(dice, drawing.rows);
    const int up = drawing.figures.moves == "side" ? 0 : 8;
    drawing.objects = fmt::format("{{ name = \"landing\", kind = \"spawn\", at = [{}, {}] }},\n", x, y - up);
    for (const char* gives : {"open", "found"})
        drawing.objects += fmt::format("{{ name = \"{}_key\", kind = \"thing\", at = [{}, {}], gives = [\"{}\"] }},\n",
                                       gives, dice.in(0, columns * 16), dice.in(0, rows * 16), gives);
    return drawing;
}

void redraw(chance::Dice& dice, Drawing& drawing) {
    std::vector<std::string>& rows = dice.once_in(5) ? drawing.door : drawing.rows;
    const auto r = static_cast<std::size_t>(dice.in(0, static_cast<int>(rows.size()) - 1)),
               c = static_cast<std::size_t>(dice.in(0, static_cast<int>(rows[0].size()) - 1));
    rows[r][c] = any_character(dice);
}

void compare(const Reach& one, const Reach& other, const World& world, chance::Dice& dice) {
    CHECK(one.begins() == other.begins());
    CHECK(one.dead_ends() == other.dead_ends());
    CHECK(one.bottomless() == other.bottomless());
    for (const FactId fact : ids<FactId>(world.facts())) CHECK(one.gained(fact) == other.gained(fact));
    const Map& map = world.maps()[0];
    for (const ObjectId object : ids<ObjectId>(map.objects)) {
        CHECK(one.reached(MapId{0}, object) == other.reached(MapId{0}, object));
        CHECK(text(world, one.in_the_way(MapId{0}, object)) == text(world, other.in_the_way(MapId{0}, object)));
        const auto a = one.route_to(MapId{0}, object), b = other.route_to(MapId{0}, object);
        REQUIRE(a.has_value() == b.has_value());
        if (a) CHECK(text(world, *a) == text(world, *b));
    }
    const auto shapes = [](const Reach& reach) {
        std::vector<std::pair<Regions, std::size_t>> all;
        for (const TravelPlace& place : reach.places())
            all.emplace_back(place.area, place.line.size() * 3 + static_cast<std::size_t>(place.reached));
        return all;
    };
    CHECK(shapes(one) == shapes(other));
    for (int k = 0; k < 20; ++k) {
        const Spot spot{
            MapId{0}, StoreyId::ground, {double(dice.in(0, map.columns * 16)), double(dice.in(0, map.rows * 16))}};
        CHECK(one.reached(spot) == other.reached(spot));
    }
}

}   // namespace

TEST_CASE("what is reached follows edits", "[travel]") {
    for (const char* moves : {"steps", "free", "side"}) {
        std::size_t changed = 0, reached = 0;
        for (std::uint64_t round = 0; round < static_cast<std::uint64_t>(chance::rounds(6)); ++round) {
            DRYGROUND_ROUND(round);
            chance::Dice dice(640'000 + round);
            const bool large = round % 2 == 0;   // else all is made anew
            Drawing drawing = random_drawing(dice, moves, large ? 70 : 26, large ? 40 : 16);
            const World world = drawing.world();
            Reach following = reach(world);
            std::string before;
            for (int k = 0; k < (large ? 2 : 4); ++k) {
                for (int more = dice.in(1, 3); more > 0; --more) redraw(dice, drawing);
                const World drawn = drawing.world();
                following.update(MapId{0}, drawn.maps()[0]);
                INFO(moves << ", edit " << k);
                compare(following, reach(drawn), drawn, dice);
                std::string now;
                for (const TravelPlace& place : following.places())
                    now += name_of(place.reached), reached += place.reached == Reached::yes;
                changed += std::exchange(before, now) != now;
            }
            following.update(MapId{0}, world.maps()[0]);   // all at once, and back
            compare(following, reach(world), world, dice);
        }
        INFO(moves);
        CHECK(changed > (chance::sanitized ? 0U : 5U));
        CHECK(reached > (chance::sanitized ? 0U : 12U));
    }
}

TEST_CASE("edits of worlds with every key may be followed one by one, or at once", "[travel]") {
    std::size_t gained = 0, other = 0;
    for (std::uint64_t round = 0; round < static_cast<std::uint64_t>(chance::rounds(20)); ++round) {
        DRYGROUND_ROUND(round);
        const Result<World> loaded = random_worlds::make(round, true).build();
        if (!loaded || loaded->maps().empty()) continue;
        const World& world = *loaded;
        chance::Dice dice(670'000 + round);
        const auto all_of = [&](const Reach& found) {
            std::string all;
            for (const FactId fact : ids<FactId>(world.facts())) {
                all += name_of(found.gained(fact));
                gained += found.gained(fact) == Reached::yes;
            }
            for (const MapId map : ids<MapId>(world.maps())) {
                all += name_of(found.map_reached(map));
                for (const ObjectId object : ids<ObjectId>(world.map(map).objects))
                    all += fmt::format(" {} {}", name_of(found.reached(map, object)),
                                       text(world, found.in_the_way(map, object)));
            }
            return all;
        };
        ReachOptions options{.states = 200};
        if (!world.movers().empty()) options.mover = MoverId{dice.in(0, static_cast<int>(world.movers().size()) - 1)};
        std::vector<Map> changed;   // by map, so far
        std::optional<Reach> began;
        for (int tries = 0; tries < 20 && !(began && began->begins()); ++tries) {
            const MapId map{dice.in(0, static_cast<int>(world.maps().size()) - 1)};
            const Map& of = world.map(map);
            const Point p = travel::middle_of(of, dice.in(0, of.columns - 1), dice.in(0, of.rows - 1));
            options.from = Spot{map, StoreyId::ground, travel::px_of(p)};
            began.emplace(reach(world, options));
        }
        Reach& step_by_step = *began;
        const std::string before = all_of(step_by_step);
        for (const MapId id : ids<MapId>(world.maps())) {
            Map now = world.map(id);
            for (int k = 0; k < 5; ++k) {
                (void)edit(dice, world, now);
                if (!now.objects.empty() && dice.once_in(3))
                    now.objects[static_cast<std::size_t>(dice.in(0, static_cast<int>(now.objects.size()) - 1))]
                        .removed = dice.once_in(2);
                step_by_step.update(id, now);
            }
            Reach at_once = reach(world, options);
            for (const MapId other_id : ids<MapId>(world.maps()))
                if (other_id < id) at_once.update(other_id, changed[static_cast<std::size_t>(other_id)]);
            at_once.update(id, now);
            changed.push_back(now);
            CHECK(all_of(step_by_step) == all_of(at_once));
        }
        other += all_of(step_by_step) != before;
    }
    if (chance::sanitized) return;   // few rounds
    CHECK(gained + other > 0);
}

TEST_CASE("a map that is not the same is refused", "[travel]") {
    chance::Dice dice(650'000);
    const Drawing small = random_drawing(dice, "steps", 12, 10), large = random_drawing(dice, "steps", 13, 10);
    const World world = small.world(), other = large.world();
    Reach following = reach(world);
    CHECK_THROWS_WITH(following.update(MapId{0}, other.maps()[0]),
                      Catch::Contains("map 'flat' has other cells than before"));
    CHECK_THROWS_AS(following.update(MapId{1}, world.maps()[0]), std::out_of_range);
}

TEST_CASE("a foe's route follows what is broken and built while playing", "[travel]") {
    for (const char* moves : {"steps", "free", "side"}) {
        std::size_t routes = 0;
        for (std::uint64_t round = 0; round < static_cast<std::uint64_t>(chance::rounds(5)); ++round) {
            DRYGROUND_ROUND(round);
            chance::Dice dice(660'000 + round);
            const World world = random_drawing(dice, moves, 80, 40).world();
            Play play(world, "flat");
            const Map& map = play.map();
            const auto place = [&] { return PointPx{dice.in(0, 79) * 16.0 + 8, dice.in(0, 39) * 16.0 + 8}; };
            for (int k = 0; k < 6; ++k) {
                for (int more = dice.in(0, 3); more > 0; --more)
                    play.set_tile(
                        dice.once_in(4) ? LayerId{1} : LayerId{0}, {dice.in(0, 79), dice.in(0, 39)},
                        map.palette[static_cast<std::size_t>(dice.in(0, static_cast<int>(map.palette.size()) - 1))]);
                if (dice.once_in(4)) play.set_fact(FactId{0}, dice.once_in(2));
                Play fresh(world, "flat");
                for (const FactId fact : ids<FactId>(world.facts())) fresh.set_fact(fact, play.holds(fact));
                for (const LayerId layer : {LayerId{0}, LayerId{1}})
                    for (int r = 0; r < map.rows; ++r)
                        for (int c = 0; c < map.columns; ++c)
                            fresh.set_tile(layer, {c, r}, play.tile_at(layer, {c, r}));
                for (int way = 0; way < 8; ++way) {
                    const PointPx from = place(), to = place();
                    const auto a = play.route(MoverId{0}, from, to), b = fresh.route(MoverId{0}, from, to);
                    REQUIRE(a.has_value() == b.has_value());
                    if (!a) continue;
                    CHECK(text(world, *a) == text(world, *b));
                    ++routes;
                }
            }
        }
        INFO(moves);
        if (std::string_view(moves) != "side") CHECK(routes > static_cast<std::size_t>(chance::rounds(16)));
    }
}
