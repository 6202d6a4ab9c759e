// What a shape overlaps, beside the merged ground and simple cases.
#include <catch2/catch.hpp>

#include "chance.hpp"
#include "clean_worlds.hpp"
#include "dryground/play.hpp"
#include "shore.hpp"

using namespace dryground;

namespace {

Regions box(int width, int height) { return {box_region({0, 0}, {width * steps_per_px, height * steps_per_px})}; }

std::string listed(const Play& play, const std::vector<Overlap>& overlaps) {
    std::string all;
    for (const Overlap& one : overlaps) {
        all += all.empty() ? "" : "; ";
        switch (one.sort) {
            case Overlap::Sort::tile:
                all += fmt::format("{} {},{}", play.world().tile(one.tile).name, one.cell.column, one.cell.row);
                break;
            case Overlap::Sort::object:
                all += play.map().object(one.object).name;
                break;
            case Overlap::Sort::rim:
                all += "rim";
                break;
            case Overlap::Sort::body:
                all += fmt::format("body {}", one.body);
        }
        if (one.barrier != BarrierId::none) all += " " + play.world().barrier(one.barrier).name;
        if (!one.trigger.empty()) all += " senses " + one.trigger;
    }
    return all;
}

worlds::Files with_feelers() {
    worlds::Files files =
        worlds::with(worlds::shore(), "world.toml", "[movers.warden]\n",
                     "[movers.warden]\nfeelers.ahead = { box = [4, 4], at = [8, -8], senses = [\"brine\", \"warden\"] "
                     "}\nfeelers.feet = { box = [8, 2], senses = [\"earth\"] }\n");
    return worlds::with(files, "marsh.toml", "[tiles.net]\n",
                        "[tiles.steam]\nunseen = true\nshapes = [{ cell = true, trigger = \"steam\" }]\n[tiles.net]\n");
}

}   // namespace

TEST_CASE("tiles, sensing shapes, objects, the rim and bodies that a shape overlaps are listed", "[overlaps]") {
    Play play(worlds::world_of(with_feelers()), "flat");
    const auto at = [&](double x, double y, int wide = 8, int high = 8) {
        return listed(play, play.overlaps(box(wide, high), {x, y}));
    };
    CHECK(at(4, 4) == "");
    CHECK(at(36, 72) == "peat 2,4 earth");
    CHECK(at(44, 76) == "peat 2,4 earth; peat 2,5 earth; peat 3,5 earth");   // what is carved away is not there
    CHECK(at(36, 56) == "");   // it stands on the ground: touching is not overlapping
    CHECK(at(-4, 4) == "rim earth");
    CHECK(at(100, 36) == "bell");
    CHECK(at(88, 36) == "");   // beside it
    play.set_tile(LayerId{0}, {0, 0}, "steam");
    CHECK(at(4, 4) == "steam 0,0 senses steam");
    // Bodies of movers.
    const MoverId warden = play.world().find_mover("warden");
    const std::vector<BodyNow> bodies{{.id = 7, .mover = warden, .position = {60, 20}},
                                      {.id = 8, .mover = warden, .position = {60, 20}, .storey = StoreyId{1}}};
    CHECK(listed(play, play.overlaps(box(8, 8), {62, 10}, StoreyId::ground, bodies)) == "body 7");
    CHECK(listed(play, play.overlaps(box(8, 8), {65, 10}, StoreyId::ground, bodies)) == "");
    CHECK(listed(play, play.overlaps(warden, {40, 65})) == "peat 2,4 earth");
    CHECK(listed(play, play.overlaps(warden, {40, 64})) == "");
    CHECK_THROWS_AS(play.overlaps(MoverId{9}, {24, 64}), std::out_of_range);
    CHECK(play.overlaps({}, {24, 72}).empty());
}

TEST_CASE("a feeler senses just the barriers and movers that it names", "[overlaps]") {
    const Play play(worlds::world_of(with_feelers()), "flat");
    const MoverId warden = play.world().find_mover("warden");
    CHECK(listed(play, play.senses(warden, "feet", {40, 64})) == "peat 2,4 earth");
    CHECK(listed(play, play.senses(warden, "ahead", {24, 72})) == "");   // earth: not sensed
    const std::vector<BodyNow> bodies{{.id = 7, .mover = warden, .position = {36, 40}},
                                      {.id = 8, .mover = play.world().find_mover("keeper"), .position = {36, 40}}};
    CHECK(listed(play, play.senses(warden, "ahead", {28, 40}, StoreyId::ground, bodies)) == "body 7");
    CHECK_THROWS_AS(play.senses(warden, "behind", {24, 64}), std::out_of_range);
}

TEST_CASE("a shape overlaps a barrier where it overlaps its merged ground", "[overlaps]") {
    for (int round = 0; round < chance::rounds(40); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(static_cast<std::uint64_t>(round));
        const World world = worlds::world_of(worlds::clean_world(static_cast<std::uint64_t>(round)));
        for (const Map& map : world.maps()) {
            const Play play(world, map.name);
            const Merge merged = merge(world, map);
            for (int i = 0; i < 30; ++i) {
                const Regions shape = box(dice.in(1, 40), dice.in(1, 40));
                const PointPx at{to_px(map.least().x) + dice.in(-20, 8 * map.columns),
                                 to_px(map.least().y) + dice.in(-20, 8 * map.rows)};
                const Regions there = moved(shape, {to_steps(at.x), to_steps(at.y)});
                const std::vector<Overlap> found = play.overlaps(shape, at);
                for (std::size_t b = 0; b < world.barriers().size(); ++b) {
                    bool in_ground = false, has_lines = false;
                    for (const Group& group : merged.groups) {
                        if (group.storey_id != StoreyId::ground || group.barrier_id != id_of<BarrierId>(b)) continue;
                        has_lines = has_lines || !group.lines.empty();
                        in_ground = in_ground || !intersect(group.regions, there).empty();
                    }
                    const bool is_listed = std::any_of(found.begin(), found.end(), [&](const Overlap& one) {
                        return one.barrier == id_of<BarrierId>(b);
                    });
                    INFO(map.name << " " << at.x << ", " << at.y << " " << world.barriers()[b].name);
                    if (in_ground) CHECK(is_listed);
                    if (is_listed && !has_lines) CHECK(in_ground);
                }
            }
        }
    }
}
