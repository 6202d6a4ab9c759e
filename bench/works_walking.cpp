// Where movers get to: on large maps, beside a bare flood fill of the same cells; and through many locks.
#include <array>
#include <string_view>

#include <fmt/format.h>

#include "caves.hpp"
#include "dryground/merge.hpp"
#include "dryground/travel.hpp"
#include "timing.hpp"
#include "works.hpp"

namespace bench {

using namespace dryground;

namespace {

// The floor: cells that are open, four neighbours each.
std::size_t flood(const std::vector<char>& grid, int side) {
    std::vector<char> seen(grid.size());
    std::vector<std::size_t> open;
    std::size_t count = 0;
    const auto visit = [&](std::size_t cell) {
        if (grid[cell] == 0 && seen[cell] == 0) seen[cell] = 1, open.push_back(cell);
    };
    for (std::size_t first = 0; first < grid.size(); ++first) {
        visit(first);
        while (!open.empty()) {
            const std::size_t cell = open.back();
            open.pop_back();
            ++count;
            const auto wide = static_cast<std::size_t>(side);
            const std::size_t column = cell % wide;
            if (column > 0) visit(cell - 1);
            if (column + 1 < wide) visit(cell + 1);
            if (cell >= wide) visit(cell - wide);
            if (cell + wide < grid.size()) visit(cell + wide);
        }
    }
    return count;
}

std::string_view words(Moves moves) { return moves == Moves::steps ? "steps" : moves == Moves::free ? "free" : "side"; }

void measure_caves(const Settings& settings, const Tell& tell, int lines) {
    for (const Moves moves : {Moves::steps, Moves::free, Moves::side})
        for (int side = 256; side <= std::min(1024, settings.most_side); side *= 2) {
            const std::string work = "walk",
                              input = fmt::format("caves full {}, {}{}", side, words(moves),
                                                  lines > 0 ? fmt::format(", {} one-way lines", lines) : "");
            if (!wanted(settings, work, input)) continue;
            const World world = walked_world(side, Tiles::full, moves, 7, {.lines = lines});
            const std::vector<char> grid = cave_grid(side, 7);
            std::size_t places = 0, reached = 0, undecided = 0;
            const std::vector<double> times = alternate(
                {[&] {
                     const Reach found = reach(world);
                     places = found.places().size(), reached = undecided = 0;
                     for (const TravelPlace& place : found.places())
                         reached += place.reached == Reached::yes ? 1 : 0,
                             undecided += place.reached == Reached::not_decided ? 1 : 0;
                 },
                 [&] { keep(flood(grid, side)); },
                 [&] {
                     MergeOptions options;
                     options.forms = {};
                     options.mover = MoverId{0};
                     const Merge merged = merge(world, world.maps()[0], options);
                     keep(dryground::reach(merged.groups.front().regions, world.movers()[0].body.front().outline));
                 }});
            Timing result{.work = work, .input = input, .seconds = times[0]};
            result.peers.push_back({"flood fill of the cells", times[1]});
            result.peers.push_back({"merged and grown by the body", times[2]});
            result.note = fmt::format("{} places, {} reached, {} not decided", places, reached, undecided);
            tell(std::move(result));
        }
}

// One cell is filled, and cleared again: what a Reach does to follow, beside finding all anew.
void measure_followed_edit(const Settings& settings, const Tell& tell, Moves moves, int side,
                           const Furniture& furniture) {
    const std::string work = "walk",
                      input = fmt::format("one cell of caves full {}, {}{}{}", side, words(moves),
                                          furniture.lines > 0 ? fmt::format(", {} one-way lines", furniture.lines) : "",
                                          furniture.nets > 0 ? fmt::format(", {} nets", furniture.nets) : "");
    if (!wanted(settings, work, input)) return;
    const World world = walked_world(side, Tiles::full, moves, 7, furniture);
    const Map& map = world.maps()[0];
    DataCell cell{side / 2, side / 3};
    while (map.number(map.layers[0], cell.column, cell.row) != 0) ++cell.column;
    std::array<Map, 2> states{map, map};   // filled, as it was
    states[0].put(LayerId{0}, cell, map.palette[1]);
    Reach following = reach(world);
    following.update(MapId{0}, states[0]), following.update(MapId{0}, states[1]);
    std::size_t edit = 0;
    const std::vector<double> times = alternate(
        {[&] { following.update(MapId{0}, states[edit++ % 2]); }, [&] { keep(reach(world).goals().size()); }});
    Timing result{.work = work, .input = input, .seconds = times[0]};
    result.peers.push_back({"all anew", times[1]});
    tell(std::move(result));
}
void measure_followed_edits(const Settings& settings, const Tell& tell) {
    for (int side = 256; side <= std::min(1024, settings.most_side); side *= 2) {
        for (const int lines : {0, 2000})
            for (const Moves moves : {Moves::steps, Moves::free, Moves::side})
                measure_followed_edit(settings, tell, moves, side, {.lines = lines});
        measure_followed_edit(settings, tell, Moves::side, side, {.nets = 200});
    }
}

// Lifts beside the same caves without.
void measure_lifts(const Settings& settings, const Tell& tell) {
    const std::string work = "walk", input = "caves full 1024, side, 100 lifts";
    if (!wanted(settings, work, input) || settings.most_side < 1024) return;
    const World world = walked_world(1024, Tiles::full, Moves::side, 7, {.lifts = 100}),
                without = walked_world(1024, Tiles::full, Moves::side, 7);
    std::size_t places = 0;
    const std::vector<double> times =
        alternate({[&] { places = reach(world).places().size(); }, [&] { keep(reach(without).places().size()); }});
    Timing result{.work = work, .input = input, .seconds = times[0]};
    result.peers.push_back({"without lifts", times[1]});
    result.note = fmt::format("{} places; each goes 96 px", places);
    tell(std::move(result));
}

void measure_locks(const Settings& settings, const Tell& tell) {
    const std::string work = "walk", input = "100 rooms, 1,000 keys";
    if (!wanted(settings, work, input)) return;
    const World world = locked_world(100, 1000), open = locked_world(100, 0);
    bool all = false;
    const std::vector<double> times = alternate(
        {[&] { all = reach(world).gained(FactId{999}) == Reached::yes; }, [&] { keep(reach(open).places().size()); }});
    Timing result{.work = work, .input = input, .seconds = times[0]};
    result.peers.push_back({"the rooms without keys", times[1]});
    result.note = all ? "each key needs the one before" : "not all were got";
    tell(std::move(result));
}

}   // namespace

void measure_walking(const Settings& settings, const Tell& tell) {
    for (const int lines : {0, 2000}) measure_caves(settings, tell, lines);
    measure_followed_edits(settings, tell);
    measure_lifts(settings, tell);
    measure_locks(settings, tell);
}

}   // namespace bench
