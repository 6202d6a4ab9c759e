// What a running game asks, beside the same asked of plain arrays by hand.
#include <fmt/format.h>

#include "caves.hpp"
#include "dryground/triggers.hpp"
#include "timing.hpp"
#include "works.hpp"

namespace bench {

using namespace dryground;

namespace {

struct Chance {
    unsigned state = 7;
    int below(int most) {
        state = state * 1664525 + 1013904223;
        return static_cast<int>((state >> 8) % static_cast<unsigned>(most));
    }
};

// Which tile stands on a cell, for a million cells by chance: of a Play, and of the map's own array.
void measure_cells(const Settings& settings, const Tell& tell) {
    const std::string work = "cell look-up", input = "caves mixed 1024";
    if (!wanted(settings, work, input) || settings.most_side < 1024) return;
    const World world = cave_world(1024, Tiles::mixed, 7);
    const Play play(world, "cave");
    std::vector<Cell> cells;
    Chance chance;
    for (int i = 0; i < 1'000'000; ++i) cells.push_back({chance.below(1024), chance.below(1024)});
    const Map& map = play.map();
    std::size_t solid = 0;
    const std::vector<double> times = alternate({[&] {
                                                     for (const Cell& cell : cells)
                                                         solid += play.tile_at(LayerId{0}, cell).tile >= 0;
                                                     keep(solid);
                                                 },
                                                 [&] {
                                                     const Layer& layer = map.layers[0];
                                                     for (const Cell& cell : cells)
                                                         if (map.has(cell.column, cell.row))
                                                             solid +=
                                                                 map.placed(layer, cell.column, cell.row).tile >= 0;
                                                     keep(solid);
                                                 }});
    tell({.work = work,
          .input = input,
          .seconds = times[0] / 1e6,
          .peers = {{"the array by hand", times[1] / 1e6}},
          .note = fmt::format("{:.1f} ns a cell", times[0] * 1e3)});
}

// What contacts along the ground are with.
void measure_touches(const Settings& settings, const Tell& tell) {
    const std::string work = "touched", input = "caves mixed 1024";
    if (!wanted(settings, work, input) || settings.most_side < 1024) return;
    const World world = cave_world(1024, Tiles::mixed, 7);
    const Play play(world, "cave");
    std::vector<Contact> points, bodies;
    for (const Chunk& chunk : play.merge().chunks)
        for (const Group& group : chunk.groups)
            for (const Chain& chain : group.chains)
                for (std::size_t i = 0; i + 1 < chain.points.size() && points.size() < 100'000; ++i) {
                    const Point a = chain.points[i], b = chain.points[i + 1];
                    const PointPx middle{(to_px(a.x) + to_px(b.x)) / 2, (to_px(a.y) + to_px(b.y)) / 2};
                    const PointPx normal{to_px(b.y - a.y), -to_px(b.x - a.x)};
                    points.push_back({.point = middle, .normal = normal});
                    if (normal.x == 0 || normal.y == 0)
                        bodies.push_back(
                            {.point = middle, .normal = normal, .body = BoxPx{middle.x - 8, middle.y - 8, 16, 16}});
                }
    std::size_t count = 0;
    const auto ask = [&](const std::vector<Contact>& contacts) {
        return [&] {
            for (const Contact& contact : contacts) count += play.touched(contact).size();
            keep(count);
        };
    };
    const std::vector<double> times = alternate({ask(points), ask(bodies)});
    tell({.work = work,
          .input = input,
          .seconds = times[0] / static_cast<double>(points.size()),
          .peers = {{"with a body", times[1] / static_cast<double>(bodies.size())}},
          .note = fmt::format("{} contacts", points.size())});
}

// Edits as a game makes them, of any cell, with any tile that the map holds: ground, touches and saved changes follow.
double seconds_of_edit(Play& play) {
    const int side = play.map().columns;
    Chance chance;
    constexpr int edits = 400;
    return alternate({[&] {
               for (int i = 0; i < edits; ++i) {
                   const std::vector<Placed>& palette = play.map().palette;
                   keep(play.set_tile(LayerId{0}, {chance.below(side), chance.below(side)},
                                      palette[static_cast<std::size_t>(chance.below(static_cast<int>(palette.size())))])
                            .chunks.size());
               }
           }})[0] /
           edits;
}

void measure_played_edits(const Settings& settings, const Tell& tell) {
    for (int side = 256; side <= settings.most_side; side *= 2) {
        const auto measure = [&](const std::string& input, const World& world) {
            Play play(world, "cave", {.chunk_cells = 32});
            tell({.work = "play: edit",
                  .input = input,
                  .seconds = seconds_of_edit(play),
                  .peers = {},
                  .note = "chunks of 32, regions and chains"});
        };
        if (const std::string input = fmt::format("caves mixed {}", side); wanted(settings, "play: edit", input))
            measure(input, cave_world(side, Tiles::mixed, 7));
        if (const std::string input = fmt::format("caves mixed, sunk {}", side); wanted(settings, "play: edit", input))
            measure(input, sunk_world(side, Tiles::mixed, 7));
        if (const std::string input = fmt::format("caves mixed, filled {}", side);
            wanted(settings, "play: edit", input))
            measure(input, filled_world(side, Tiles::mixed, 7));
        if (const std::string input = fmt::format("caves mixed, grown {}", side); wanted(settings, "play: edit", input))
            measure(input, grown_world(side, Tiles::mixed, 7));
    }
}

// What an ordinary platform game does: making a Play, merging in chunks, changing a cell; beside one whole merge.
void measure_lines(const Settings& settings, const Tell& tell) {
    const std::string input = "2000 one-way lines, caves 1024";
    if (!wanted(settings, "play: lines", input) || settings.most_side < 1024) return;
    const World world = platform_world(1024, Tiles::mixed, 2000, 7);
    const Map& map = world.maps()[0];
    const std::vector<double> times =
        alternate({[&] { keep(Play(world, "cave", {.chunk_cells = 32}).merge().chunks.size()); },
                   [&] { keep(merge_chunks(world, map, 32, {.forms = {MergeForm::chains}}).chunks.size()); },
                   [&] { keep(merge(world, map, {.forms = {MergeForm::chains}}).groups.size()); }});
    tell({.work = "play: lines, made",
          .input = input,
          .seconds = times[0],
          .peers = {{"merge_chunks alone", times[1]}, {"one whole merge", times[2]}},
          .note = "chunks of 32, regions and chains"});
    Play play(world, "cave", {.chunk_cells = 32});
    Chance chance;
    constexpr int edits = 400;
    const double seconds = alternate({[&] {
                               for (int i = 0; i < edits; ++i)
                                   keep(play.set_tile(LayerId{0}, {chance.below(1024), chance.below(1024)},
                                                      i % 4 == 0   ? ""
                                                      : i % 2 == 0 ? "plank"
                                                                   : "peat")
                                            .chunks.size());
                           }})[0] /
                           edits;
    tell({.work = "play: lines, edit",
          .input = input,
          .seconds = seconds,
          .peers = {},
          .note = "planks, peat, nothing"});
}

// A fact that a layer of doors depends on, beside the whole map merged anew.
void measure_facts(const Settings& settings, const Tell& tell) {
    const std::string work = "play: fact", input = "20 doors, caves mixed 1024";
    if (!wanted(settings, work, input) || settings.most_side < 1024) return;
    const World world = door_world(1024, Tiles::mixed, 20, 7);
    Play play(world, "cave", {.chunk_cells = 32});
    bool open = false;
    const std::vector<double> times =
        alternate({[&] { keep(play.set_fact(FactId{0}, open = !open).chunks.size()); },
                   [&] { keep(merge(world, world.maps()[0], {.forms = {MergeForm::chains}}).groups.size()); }});
    tell({.work = work,
          .input = input,
          .seconds = times[0],
          .peers = {{"one whole merge", times[1]}},
          .note = "chunks of 32, regions and chains"});
}

// A frame of bodies that move about among triggers, links and entities.
void measure_triggers(const Settings& settings, const Tell& tell) {
    const std::string work = "triggers", input = "10000 bodies, busy caves 1024";
    if (!wanted(settings, work, input) || settings.most_side < 1024) return;
    const World world = busy_world(1024, Tiles::mixed, 10'000, 7);
    Play play(world, "cave");
    TriggerTracker tracker(play);
    Chance chance;
    std::vector<BodyNow> bodies;
    for (std::uint64_t i = 0; i < 10'000; ++i)
        bodies.push_back(
            {i, MoverId{0}, {static_cast<double>(chance.below(16384)), static_cast<double>(chance.below(16384))}});
    std::size_t fired = 0;
    const double seconds = alternate({[&] {
        for (BodyNow& body : bodies) body.position.x += chance.below(5) - 2, body.position.y += chance.below(5) - 2;
        fired += tracker.update(1.0 / 60, bodies).size();
    }})[0];
    tell({.work = work,
          .input = input,
          .seconds = seconds,
          .peers = {},
          .note = fmt::format("a frame; {} fired in all", fired)});
}

}   // namespace

void measure_play(const Settings& settings, const Tell& tell) {
    measure_cells(settings, tell);
    measure_touches(settings, tell);
    measure_played_edits(settings, tell);
    measure_lines(settings, tell);
    measure_facts(settings, tell);
    measure_triggers(settings, tell);
}

}   // namespace bench
