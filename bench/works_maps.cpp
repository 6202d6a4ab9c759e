// Whole maps to regions.
#include <fmt/format.h>
#include <malloc.h>

#include <chrono>
#include <fstream>

#include "caves.hpp"
#include "dryground/merge.hpp"
#include "peers.hpp"
#include "timing.hpp"
#include "works.hpp"

namespace bench {

using namespace dryground;

namespace {

// One bare pass over the cells that compares each with its right and lower neighbour.
std::size_t floor_pass(const Map& map) {
    const std::vector<std::uint32_t>& cells = map.layers[0].cells;
    const auto columns = static_cast<std::size_t>(map.columns), rows = static_cast<std::size_t>(map.rows);
    std::uint32_t differ = 0;
    for (std::size_t r = 0; r + 1 < rows; ++r) {
        const std::uint32_t* row = cells.data() + r * columns;
        for (std::size_t c = 0; c + 1 < columns; ++c)
            differ += static_cast<std::uint32_t>(row[c] != row[c + 1]) +
                      static_cast<std::uint32_t>(row[c] != row[c + columns]);
    }
    return differ;
}

std::size_t vertices_of(const Regions& regions) {
    std::size_t count = 0;
    for (const Region& region : regions) {
        count += region.outline.size();
        for (const Ring& hole : region.holes) count += hole.size();
    }
    return count;
}

std::size_t bytes_of(const Regions& regions) {
    std::size_t bytes = regions.capacity() * sizeof(Region);
    for (const Region& region : regions) {
        bytes += region.outline.capacity() * sizeof(Point) + region.holes.capacity() * sizeof(Ring);
        for (const Ring& hole : region.holes) bytes += hole.capacity() * sizeof(Point);
    }
    return bytes;
}

void measure_map(const World& world, const std::string& input, bool right_angled, int most_peer_side,
                 const Tell& tell) {
    const Map& map = world.maps()[0];
    const MergeOptions regions_only{.forms = {}};
    Timing result{.work = "regions", .input = input};
    Merge merged;
    std::vector<std::string> names{"floor"};
    std::vector<std::function<void()>> ways{[&] { merged = merge(world, map, regions_only); },
                                            [&] { keep(floor_pass(map)); }};
    Regions polygons;
    if (map.columns <= most_peer_side) {
        polygons = tile_polygons(world);
        names.emplace_back("Boost.Polygon general");
        ways.emplace_back([&] { keep(boost_union(polygons).regions); });
        if (right_angled) {
            names.emplace_back("Boost.Polygon right-angled");
            ways.emplace_back([&] { keep(boost_right_angled_union(polygons).regions); });
        }
        names.emplace_back("GEOS");
        ways.emplace_back([&] { keep(geos_union(polygons).regions); });
    }
    const std::vector<double> times = alternate(ways);
    result.seconds = times[0];
    for (std::size_t i = 0; i < names.size(); ++i) result.peers.push_back({names[i], times[i + 1]});
    const Regions& regions = merged.group("earth").regions;
    result.note = fmt::format("{} regions, {} vertices, {:.2f} ns a cell", regions.size(), vertices_of(regions),
                              times[0] * 1e9 / map.columns / map.rows);
    tell(std::move(result));
}

// What drawn solids cost on top of a map, beside uniting them alone.
void measure_drawn(const Settings& settings, const Tell& tell) {
    const std::string work = "drawn solids", input = "1000 over caves 1024";
    if (!wanted(settings, work, input) || settings.most_side < 1024) return;
    const Regions solids = drawn_polygons(1000, 20, 1024 * 16 * steps_per_px, 3);
    const World plain = cave_world(1024, Tiles::full, 7), drawn = cave_world(1024, Tiles::full, 7, solids);
    const MergeOptions regions_only{.forms = {}};
    const auto run = [&](const World& world) { keep(merge(world, world.maps()[0], regions_only).groups.size()); };
    const std::vector<double> times =
        alternate({[&] { run(drawn); }, [&] { run(plain); }, [&] { keep(boost_union(solids).regions); }});
    tell({.work = work,
          .input = input,
          .seconds = times[0] - times[1],
          .peers = {{"Boost.Polygon, solids alone", times[2]}},
          .note = "on top of the map"});
}

// One changed cell of a map in chunks of 32: regions and chains of what changed, then pieces too.
void measure_edits(const Settings& settings, const Tell& tell) {
    for (const Tiles tiles : {Tiles::full, Tiles::mixed})
        for (int side = 256; side <= std::max(256, settings.most_side); side *= 4) {
            const std::string work = "one changed cell",
                              input = fmt::format("{} {}", tiles == Tiles::full ? "caves full" : "caves mixed", side);
            if (!wanted(settings, work, input)) continue;
            const World world = cave_world(side, tiles, 7);
            const auto measure = [&](bool pieces) {
                MergeOptions options;
                options.forms.set(MergeForm::pieces, pieces);
                LiveMap live(world, world.maps()[0], 32, options);
                unsigned chance = 7;
                const auto next = [&](int below) {
                    chance = chance * 1664525 + 1013904223;
                    return static_cast<int>((chance >> 8) % static_cast<unsigned>(below));
                };
                constexpr int edits = 200;
                return alternate({[&] {
                           for (int i = 0; i < edits; ++i) {
                               const int c = next(side), r = next(side);
                               const Map& map = live.map();
                               const auto number = static_cast<std::size_t>(next(static_cast<int>(map.palette.size())));
                               keep(live.set_tile(LayerId{0}, {c, r}, map.palette[number]).size());
                           }
                       }})[0] /
                       edits;
            };
            const double chains = measure(false), pieces = measure(true);
            tell({.work = work,
                  .input = input,
                  .seconds = chains,
                  .peers = {{"with pieces", pieces}},
                  .note = "regions and chains replaced, chunks of 32"});
        }
}

// A figure of /proc/self/status, in bytes; 0 where there is none.
std::size_t status_bytes(const std::string& name) {
    std::ifstream status("/proc/self/status");
    for (std::string word; status >> word;)
        if (word == name + ":") {
            std::size_t kib = 0;
            status >> kib;
            return kib * 1024;
        }
    return 0;
}

// What a merge takes at most, beyond the map, beside what it gives back.
void measure_memory(const Settings& settings, const Tell& tell) {
    for (const Tiles tiles : {Tiles::full, Tiles::mixed})
        for (int side = 2048; side <= settings.most_side; side *= 2) {
            const std::string work = "memory",
                              input = fmt::format("{} {}", tiles == Tiles::full ? "caves full" : "caves mixed", side);
            if (!wanted(settings, work, input)) continue;
            const World world = cave_world(side, tiles, 7);
            malloc_trim(0);
            std::ofstream("/proc/self/clear_refs") << "5";   // the peak starts anew
            const std::size_t before = status_bytes("VmRSS");
            const auto begin = std::chrono::steady_clock::now();
            const Merge merged = merge(world, world.maps()[0], {.forms = {}});
            const double seconds = std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count();
            const std::size_t peak = status_bytes("VmHWM") - before;
            const std::size_t result = bytes_of(merged.group("earth").regions);
            tell({.work = work,
                  .input = input,
                  .seconds = seconds,
                  .note = fmt::format("peak {} MiB beyond the map, result {} MiB: {:.2f} times; {:.2f} ns a cell, once",
                                      peak >> 20, result >> 20, static_cast<double>(peak) / static_cast<double>(result),
                                      seconds * 1e9 / side / side)});
        }
}

}   // namespace

void measure_maps(const Settings& settings, const Tell& tell) {
    measure_drawn(settings, tell);
    measure_edits(settings, tell);
    measure_memory(settings, tell);
    for (int side = 128; side <= settings.most_side; side *= 2) {
        const auto one = [&](const char* sort, Tiles tiles, int most_peer_side) {
            const std::string input = fmt::format("{} {}", sort, side);
            if (!wanted(settings, "regions", input)) return;
            const bool noise = std::string_view(sort).starts_with("noise");
            const int peers = settings.peers ? most_peer_side : 0;
            measure_map(noise ? noise_world(side, tiles, 7) : cave_world(side, tiles, 7), input, tiles == Tiles::full,
                        peers, tell);
        };
        one("caves full", Tiles::full, 1024);
        one("caves mixed", Tiles::mixed, 1024);
        if (side > 2048) continue;
        one("noise full", Tiles::full, 512);
        one("noise mixed", Tiles::mixed, 512);
    }
}

}   // namespace bench
