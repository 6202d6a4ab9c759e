// What Play and probe take for solid is what is merged, on random worlds that use all keys that shape the ground.
// Also tests src/play: cut_solids
#include <catch2/catch.hpp>

#include <algorithm>
#include <cmath>
#include <map>

#include "chance.hpp"
#include "merge/lines/lines_internal.hpp"
#include "play/solids_internal.hpp"
#include "random_worlds.hpp"
#include "worlds.hpp"

using namespace dryground;

namespace {

// By storey and barrier.
struct Solid {
    Regions area;
    std::map<OneWay, std::vector<detail::LinePiece>> lines;
};
using AllSolid = std::map<std::pair<StoreyId, BarrierId>, Solid>;

Bounds everywhere() {
    return {{-coordinate_limit / 2, -coordinate_limit / 2}, {coordinate_limit / 2, coordinate_limit / 2}};
}

AllSolid of_pieces(const World& world, const play::Solids& solids) {
    AllSolid all;
    for (const StoreyId storey : ids<StoreyId>(world.storeys()))
        solids.each_near(everywhere(), storey, [&](const play::StandingPiece& piece) {
            Solid& solid = all[{storey, piece.barrier}];
            const Ring& points = piece.piece->points;
            if (piece.piece->is_line())
                solid.lines[piece.piece->one_way].push_back(
                    {moved(points[0], piece.at), moved(points[1], piece.at), 0});
            else
                solid.area.push_back(std::move(moved(Regions{{points, {}}}, piece.at).front()));
        });
    for (auto& [key, solid] : all) {
        solid.area = unite(solid.area);
        for (auto& [one_way, lines] : solid.lines) lines = detail::cut_lines(lines, solid.area);
    }
    return all;
}

AllSolid of_merge(const Merge& merged) {
    AllSolid all;
    for (const Group& group : merged.groups) {
        if (!group.trigger.empty()) continue;
        Solid& solid = all[{group.storey_id, group.barrier_id}];
        if (!group.regions.empty()) solid.area = group.regions;
        for (const Ring& line : group.lines)
            for (std::size_t i = 0; i + 1 < line.size(); ++i)
                solid.lines[group.one_way].push_back({line[i], line[i + 1], 0});
    }
    return all;
}

// Cuts off the lattice are rounded, in another order here than there: what differs is as thin as that.
bool is_thin(const Regions& area) {
    return std::all_of(area.begin(), area.end(), [](const Region& region) {
        double around = 0;
        for (std::size_t i = 0; i < region.outline.size(); ++i) {
            const Point a = region.outline[i], b = region.outline[(i + 1) % region.outline.size()];
            around += std::hypot(a.x - b.x, a.y - b.y);
        }
        return static_cast<double>(twice_area(Regions{region})) <= 3 * around;
    });
}

// Of lines laid over each other each place counts once.
double length(const std::vector<detail::LinePiece>& pieces, OneWay one_way) {
    double all = 0;
    for (const detail::JoinedLine& line : detail::join_lines(pieces, one_way))
        for (std::size_t i = 0; i < line.labels.size(); ++i) {
            const Point a = line.points[i], b = line.points[(i + 1) % line.points.size()];
            all += std::hypot(a.x - b.x, a.y - b.y);
        }
    return all;
}

void compare(const World& world, const Map& map, const play::Solids& solids, const Facts& facts) {
    AllSolid told = of_pieces(world, solids), merged = of_merge(merge(world, map, {.facts = facts}));
    for (const auto& [key, solid] : told) merged[key];
    for (const auto& [key, solid] : merged) {
        INFO(map.name << " storey " << index(key.first) << ", barrier " << index(key.second));
        const Solid& own = told[key];
        CHECK(is_thin(subtract(own.area, solid.area)));
        CHECK(is_thin(subtract(solid.area, own.area)));
        for (const OneWay one_way : {OneWay::none, OneWay::up, OneWay::down, OneWay::left, OneWay::right}) {
            const auto of = [&](const Solid& one) {
                const auto found = one.lines.find(one_way);
                return found == one.lines.end() ? 0 : length(found->second, one_way);
            };
            INFO("lines passed going '" << name_of(one_way) << "'");
            CHECK(of(own) == Approx(of(solid)).epsilon(0.01).margin(64));
        }
    }
}

}   // namespace

TEST_CASE("what stops movers is what is merged, on worlds with every key that shapes the ground", "[solids]") {
    std::size_t compared = 0;
    for (int round = 0; round < chance::rounds(300); ++round) {
        DRYGROUND_ROUND(round);
        const Result<World> loaded = random_worlds::make(static_cast<std::uint64_t>(round), true).build();
        if (!loaded) continue;
        const World& world = *loaded;
        const Facts facts = round % 3 == 0 ? Facts{} : round % 3 == 1 ? Facts{FactId{0}} : Facts{FactId{0}, FactId{1}};
        for (const Map& map : world.maps()) {
            compare(world, map, play::Solids(world, map, facts), facts);
            ++compared;
        }
    }
    CHECK(compared > static_cast<std::size_t>(chance::rounds(300)));
}

TEST_CASE("after edits what stops movers is what is merged of the map as it is now", "[solids]") {
    for (int round = 0; round < chance::rounds(80); ++round) {
        DRYGROUND_ROUND(round);
        const Result<World> loaded = random_worlds::make(static_cast<std::uint64_t>(round), true).build();
        if (!loaded) continue;
        const World& world = *loaded;
        const Facts facts = round % 2 == 0 ? Facts{} : Facts{0};
        chance::Dice dice(static_cast<std::uint64_t>(round));
        for (Map map : world.maps()) {
            play::Solids solids(world, map, facts);
            for (int edit = 0; edit < 12; ++edit) {
                const LayerId l{dice.in(0, 1)};
                const int c = dice.in(0, map.columns - 1), r = dice.in(0, map.rows - 1);
                Layer& layer = map.layers[index(l)];
                const auto number = static_cast<std::uint32_t>(dice.in(0, static_cast<int>(map.palette.size()) - 1));
                std::uint32_t& cell = layer.cells[static_cast<std::size_t>(r * map.columns + c)];
                layer.counts.resize(map.palette.size());
                --layer.counts[cell];
                ++layer.counts[number];
                cell = number;
                solids.renew(l, c, r);
            }
            compare(world, map, solids, facts);
        }
    }
}
