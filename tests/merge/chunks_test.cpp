// Chunks joined are the whole; a changed cell changes its chunk, and nothing goes stale.
// Also tests src/merge: chunk_chains chunk_facts chunk_ground chunk_lines chunk_plans loose_ground
#include <catch2/catch.hpp>

#include <map>
#include <set>
#include <tuple>

#include "chance.hpp"
#include "line_lengths.hpp"
#include "merging.hpp"
#include "oracles.hpp"
#include "random_worlds.hpp"

using namespace dryground;
using worlds::Files;

namespace {

Files random_world(chance::Dice& dice, int columns, int rows, const std::string& more = {}) {
    const auto random_rows = [&](const char* keys, int empty) {
        std::string text;
        for (int r = 0; r < rows; ++r, text += "\n")
            for (int c = 0; c < columns; ++c) text += dice.once_in(empty) ? keys[dice.in(0, 5)] : '.';
        return text;
    };
    Files files = merging::without_rim();
    files = worlds::with(files, "world.toml", "start = \"flat/landing\"\n", "");
    files =
        worlds::with(files, "marsh.toml", "[tiles.brine]",
                     "[tiles.ice]\nunseen = true\nbarrier = \"earth\"\nshapes = [{ box = [0, 8, 16, 8], surface = { "
                     "friction = 0.1 } }]\n[tiles.brine]");
    files["flat.toml"] = fmt::format(
        "format = \"dryground/map/1\"\nname = \"flat\"\ncell = [16, 16]\nsize = [{}, {}]\nfirst = [{}, {}]\n{}tilesets "
        "= "
        "[\"marsh\"]\n{}[legend]\n\"#\" = \"peat\"\n\"/\" = \"bank\"\n\"1\" = {{ tile = \"bank\", turn = 90 }}\n\"i\" "
        "= "
        "\"ice\"\n\"~\" = \"brine\"\n\"=\" = \"boardwalk\"\n[[layers]]\nname = \"low\"\nrows = "
        "'''\n{}'''\n[[layers]]\nname "
        "= \"high\"\nrows = '''\n{}'''\n",
        columns, rows, dice.in(-5, 5), dice.in(-5, 5), dice.once_in(2) ? "rim = \"earth\"\n" : "", more,
        random_rows("##/1~i", dice.in(1, 3)), random_rows("==/1~#", 3));
    return files;
}

// The pieces of a chain's or ring's edges between multiples of half a cell: edges here are upright, level or at 45
// degrees, with all corners on such multiples.
using Steps = std::multiset<std::pair<Point, Point>>;
void add_steps(Steps& steps, Point from, Point to) {
    const std::int32_t half = 8 * steps_per_px, dx = to.x - from.x, dy = to.y - from.y;
    const std::int32_t count = std::max(std::abs(dx), std::abs(dy)) / (half / 2);
    REQUIRE((dx == 0 || dy == 0 || std::abs(dx) == std::abs(dy)));
    for (std::int32_t i = 0; i < count; ++i)
        steps.emplace(Point{from.x + dx / count * i, from.y + dy / count * i},
                      Point{from.x + dx / count * (i + 1), from.y + dy / count * (i + 1)});
}
Steps steps_of(const std::vector<Chain>& chains) {
    Steps steps;
    for (const Chain& chain : chains)
        for (std::size_t i = 0; i + (chain.closed ? 0 : 1) < chain.points.size(); ++i)
            add_steps(steps, chain.points[i], chain.points[(i + 1) % chain.points.size()]);
    return steps;
}

}   // namespace

TEST_CASE("chunks joined are the whole, and their chains are its chains, cut") {
    for (int round = 0; round < chance::rounds(60); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(500'000 + static_cast<std::uint64_t>(round));
        const Result<World> loaded = worlds::load(random_world(dice, dice.in(1, 25), dice.in(1, 20)));
        INFO(text(loaded.report()));
        REQUIRE(loaded);
        const Map& map = loaded->map("flat");
        const Merge whole = merge(*loaded, map);
        const ChunkedMerge chunked = merge_chunks(*loaded, map, dice.in(1, 9));
        for (const Group& group : whole.groups) {
            Regions all;
            std::vector<Chain> chains;
            for (const Chunk& chunk : chunked.chunks)
                for (const Group& part : chunk.groups) {
                    if (part.barrier != group.barrier) continue;
                    REQUIRE(oracle::broken_promise(part.regions) == "");
                    all.insert(all.end(), part.regions.begin(), part.regions.end());
                    chains.insert(chains.end(), part.chains.begin(), part.chains.end());
                }
            REQUIRE(twice_area(all) == twice_area(group.regions));
            REQUIRE(unite(all) == group.regions);
            const Steps steps = steps_of(group.chains);
            REQUIRE(steps_of(chains) == steps);
            for (const Chain& chain : chains) {
                if (chain.closed) continue;
                // every end in the middle of the ground's edge goes on in another chunk
                REQUIRE(chain.before);
                REQUIRE(chain.after);
                Steps beyond;
                add_steps(beyond, *chain.before, chain.points.front());
                add_steps(beyond, chain.points.back(), *chain.after);
                for (const auto& step : beyond) REQUIRE(steps.count(step) > 0);
            }
        }
    }
}

namespace {

// Chains alone, or every form: regions that an edit leaves as they were keep what was made of them.
MergeForms some_forms(chance::Dice& dice) {
    if (dice.once_in(2)) return {MergeForm::chains};
    return {MergeForm::chains, MergeForm::pieces, MergeForm::boxes, MergeForm::triangles};
}

}   // namespace

TEST_CASE("changing cells one by one gives what merging again gives, and reports just what changed") {
    for (int round = 0; round < chance::rounds(40); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(510'000 + static_cast<std::uint64_t>(round));
        Files files = random_world(dice, dice.in(1, 20), dice.in(1, 16));
        if (dice.once_in(2))   // area that keeps to no cell, some of it from tiles
            files["flat.toml"] += fmt::format(
                "[[layers]]\nname = \"drawn\"\nobjects = [{{ kind = \"solid\", barrier = \"earth\", box = [{}, {}, 24, "
                "8] }}]\n",
                8 * dice.in(-4, 20), 8 * dice.in(-4, 20));
        // what a tile of a layer that is shifted or draws its solids in changes, it changes in cells beside its own,
        // too
        const char* key =
            std::array{"", "", "offset = [8, 8]", "sink = [0, 4, 4, 0]"}[static_cast<std::size_t>(dice.in(0, 3))];
        const bool reaches_out = *key != 0;
        if (reaches_out)
            files = worlds::with(files, "flat.toml", "name = \"high\"", fmt::format("name = \"high\"\n{}", key));
        const Result<World> loaded = worlds::load(files);
        REQUIRE(loaded);
        const int chunk_cells = dice.in(1, 8);
        const MergeOptions options{.forms = some_forms(dice)};
        LiveMap live(*loaded, loaded->map("flat"), chunk_cells, options);
        for (int edit = 0; edit < 25; ++edit) {
            const Map& map = live.map();
            const std::vector<Chunk> before = live.merge().chunks;
            const LayerId layer{dice.in(0, 1)};
            const Placed tile =
                dice.once_in(3)
                    ? Placed{}
                    : map.palette[static_cast<std::size_t>(dice.in(0, static_cast<int>(map.palette.size()) - 1))];
            const std::vector<std::size_t> changed =
                live.set_tile(layer, {dice.in(0, map.columns - 1), dice.in(0, map.rows - 1)}, tile);
            const ChunkedMerge fresh = merge_chunks(*loaded, live.map(), chunk_cells, options);
            for (std::size_t i = 0; i < fresh.chunks.size(); ++i) {
                CAPTURE(i, edit);
                REQUIRE(live.merge().chunks[i].groups == fresh.chunks[i].groups);
                REQUIRE(std::binary_search(changed.begin(), changed.end(), i) ==
                        (live.merge().chunks[i].groups != before[i].groups));
            }
            REQUIRE(changed.size() <= (reaches_out ? 25 : 9));
        }
    }
}

TEST_CASE("solids, overhangs and lines are cut at chunks, and follow changes too") {
    chance::Dice dice(520'000);
    Files files = random_world(dice, 12, 9);
    files = worlds::with(
        files, "marsh.toml", "[tiles.brine]",
        "[tiles.roof]\nunseen = true\noverhang = true\nbarrier = \"earth\"\nshapes = [{ box = [-8, -8, 32, "
        "16] }, { line = [[-8, -12], [24, -12]], one_way = \"up\" }]\n[tiles.brine]");
    files["flat.toml"] +=
        "[[layers]]\nname = \"roofs\"\nlegend = { \"R\" = \"roof\" }\nrows = "
        "'''\n............\n...R....R...\n............\n............\n....R.......\n............\n............\n......."
        "....."
        "\n............\n'''\n[[layers]]\nname = \"drawn\"\nobjects = [{ kind = \"solid\", barrier = \"earth\", box = "
        "[40, "
        "40, 72, 24] }]\n";
    const Result<World> loaded = worlds::load(files);
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    const Map& map = loaded->map("flat");
    const Merge whole = merge(*loaded, map);
    const ChunkedMerge chunked = merge_chunks(*loaded, map, 4);
    Regions all;
    double length = 0, cut_length = 0;
    for (const Group& group : whole.groups)
        for (const Ring& line : group.lines)
            for (std::size_t i = 0; i + 1 < line.size(); ++i) length += std::hypot(line[i + 1].x - line[i].x, 0);
    for (const Chunk& chunk : chunked.chunks)
        for (const Group& group : chunk.groups) {
            if (group.barrier == "earth") all.insert(all.end(), group.regions.begin(), group.regions.end());
            for (const Ring& line : group.lines)
                for (std::size_t i = 0; i + 1 < line.size(); ++i)
                    cut_length += std::hypot(line[i + 1].x - line[i].x, 0);
        }
    CHECK(unite(all) == whole.group("earth").regions);
    CHECK(length > 0);
    CHECK(cut_length == length);
    LiveMap live(*loaded, map, 4);
    const Placed roof = map.placed(map.layers[2], 3, 1);
    CHECK(!live.set_tile(LayerId{2}, {7, 7}, roof).empty());
    CHECK(live.merge().chunks == merge_chunks(*loaded, live.map(), 4).chunks);
    CHECK(live.set_tile(LayerId{2}, {7, 7}, roof).empty());   // it stands there already
    CHECK_THROWS_AS(live.set_tile(LayerId{3}, {0, 0}, roof), std::out_of_range);
    CHECK_THROWS_AS(live.set_tile(LayerId{0}, {12, 0}, roof), std::out_of_range);
    CHECK_THROWS_AS(live.set_tile(LayerId{0}, {0, 0}, Placed{0, 99, {}}), std::out_of_range);
}

TEST_CASE("a mover's ground in chunks is its ground, and follows changes") {
    for (int round = 0; round < chance::rounds(20); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(530'000 + static_cast<std::uint64_t>(round));
        Files files = random_world(dice, dice.in(1, 14), dice.in(1, 12));
        if (dice.once_in(2))
            files = worlds::with(files, "world.toml", "stopped_by = [", "needs = [\"walk\"]\nstopped_by = [");
        const Result<World> loaded = worlds::load(files);
        REQUIRE(loaded);
        const Map& map = loaded->map("flat");
        const MergeOptions options{.forms = {MergeForm::chains}, .mover = MoverId{0}};
        const auto whole_of = [&](const Map& of) {   // nothing at times
            const Merge merged = merge(*loaded, of, options);
            return merged.groups.empty() ? Regions{} : merged.groups.front().regions;
        };
        const Regions whole = whole_of(map);
        const int chunk_cells = dice.in(1, 6);
        LiveMap live(*loaded, map, chunk_cells, options);
        const auto joined = [&] {
            Regions all;
            for (const Chunk& chunk : live.merge().chunks)
                for (const Group& group : chunk.groups) {
                    REQUIRE(group.mover == "warden");
                    all.insert(all.end(), group.regions.begin(), group.regions.end());
                }
            return all;
        };
        REQUIRE(twice_area(joined()) == twice_area(whole));
        REQUIRE(unite(joined()) == whole);
        for (int edit = 0; edit < 5; ++edit)
            live.set_tile(LayerId{dice.in(0, 1)}, {dice.in(0, map.columns - 1), dice.in(0, map.rows - 1)}, {});
        REQUIRE(live.merge().chunks == merge_chunks(*loaded, live.map(), chunk_cells, options).chunks);
        REQUIRE(unite(joined()) == whole_of(live.map()));
    }
}

namespace {

// By group, of a map in one or in chunks.
using LinesOfGroups = std::map<std::tuple<StoreyId, BarrierId, std::string, OneWay>, std::vector<detail::LinePiece>>;
void add_lines(const std::vector<Group>& groups, LinesOfGroups& into) {
    for (const Group& group : groups)
        for (const Ring& line : group.lines)
            for (std::size_t i = 0; i + 1 < line.size(); ++i)
                into[{group.storey_id, group.barrier_id, group.trigger, group.one_way}].push_back(
                    {line[i], line[i + 1], 0});
}
}   // namespace

TEST_CASE("worlds with every key: chunks hold the lines of the whole, none twice, and follow changes") {
    std::size_t lines = 0, edits = 0;
    for (int round = 0; round < chance::rounds(120); ++round) {
        DRYGROUND_ROUND(round);
        const Result<World> loaded = random_worlds::make(static_cast<std::uint64_t>(round), true).build();
        if (!loaded) continue;
        chance::Dice dice(540'000 + static_cast<std::uint64_t>(round));
        const World& world = *loaded;
        for (const Map& map : world.maps()) {
            MergeOptions options;
            options.forms = some_forms(dice), options.mover = MoverId{dice.in(-1, 0)};
            if (dice.once_in(2)) options.facts = {FactId{0}};
            const int chunk_cells = dice.in(1, 5);
            LiveMap live(world, map, chunk_cells, options);
            const auto compare = [&] {
                LinesOfGroups whole, chunked;
                add_lines(merge(world, live.map(), options).groups, whole);
                for (const Chunk& chunk : live.merge().chunks) add_lines(chunk.groups, chunked);
                for (const auto& [key, pieces] : chunked) whole[key];
                for (const auto& [key, pieces] : whole) {
                    INFO(map.name << ", '" << std::get<2>(key) << "', barrier " << static_cast<int>(std::get<1>(key)));
                    const std::vector<detail::LinePiece>& own = chunked[key];
                    CHECK(line_lengths::beyond(pieces, own) <= line_lengths::of(pieces) * 0.03 + 512);
                    // On diamonds ground that crosses a chunk's side off the lattice ends a step beside it, so that a
                    // line along the side may not be told to lie in ground on either side.
                    if (map.grid == GridSort::square) {
                        CHECK(line_lengths::beyond(own, pieces) <= 64);
                        CHECK(line_lengths::of(own) <= line_lengths::of(pieces) * 1.01 + 64);
                    }
                    ++lines;
                }
            };
            compare();
            for (int edit = 0; edit < 8; ++edit, ++edits) {
                const std::vector<Chunk> before = live.merge().chunks;
                const std::vector<std::size_t> changed = live.set_tile(
                    LayerId{dice.in(0, 1)}, {dice.in(0, map.columns - 1), dice.in(0, map.rows - 1)},
                    dice.once_in(4) ? Placed{}
                                    : Placed{0, dice.in(0, 3), {dice.once_in(2), false, 0}});   // at times a new one
                const ChunkedMerge fresh = merge_chunks(world, live.map(), chunk_cells, options);
                for (std::size_t i = 0; i < fresh.chunks.size(); ++i) {
                    CAPTURE(i, edit);
                    REQUIRE(live.merge().chunks[i].groups == fresh.chunks[i].groups);
                    if (live.merge().chunks[i].groups != before[i].groups)
                        REQUIRE(std::binary_search(changed.begin(), changed.end(), i));
                }
            }
            compare();
            for (const Facts& facts : {Facts{FactId{0}, FactId{1}}, Facts{FactId{1}}, Facts{}, Facts{FactId{0}}}) {
                const std::vector<Chunk> before = live.merge().chunks;
                const std::vector<std::size_t> changed = live.set_facts(facts);
                options.facts = facts;
                const ChunkedMerge fresh = merge_chunks(world, live.map(), chunk_cells, options);
                REQUIRE(live.merge().surfaces == fresh.surfaces);
                for (std::size_t i = 0; i < fresh.chunks.size(); ++i) {
                    CAPTURE(i, facts.size());
                    REQUIRE(live.merge().chunks[i].groups == fresh.chunks[i].groups);
                    REQUIRE((before[i].groups != fresh.chunks[i].groups) ==
                            std::binary_search(changed.begin(), changed.end(), i));
                }
            }
        }
    }
    CHECK(lines > 10);
    CHECK(edits > 100 / (chance::sanitized ? 8 : 1));
}

TEST_CASE("a line that goes on in another chunk names its next vertex there") {
    Files files = worlds::with(worlds::small_world(), "marsh.toml", "[tiles.brine]",
                               "[tiles.plank]\nunseen = true\nbarrier = \"earth\"\nshapes = [{ line = [[0, 8], [16, "
                               "8]], one_way = \"up\" }]\n[tiles.brine]");
    files = worlds::with(files, "flat.toml", "\"/\" = \"bank\"", "\"=\" = \"plank\"");
    files = worlds::with(files, "flat.toml", "......\n......\n..../#\n######\n", "......\n.====.\n......\n######\n");
    const Result<World> loaded = worlds::load(files);
    REQUIRE(loaded);
    std::vector<Chain> chains;
    for (const Chunk& chunk : merge_chunks(*loaded, loaded->map("flat"), 3).chunks)
        for (const Group& group : chunk.groups)
            if (group.one_way == OneWay::up) chains.insert(chains.end(), group.chains.begin(), group.chains.end());
    REQUIRE(chains.size() == 2);
    const auto px = [](int x, int y) { return Point{x * steps_per_px, y * steps_per_px}; };
    CHECK(chains[0].points == Ring{px(16, 24), px(48, 24)});
    CHECK(!chains[0].before);
    CHECK(chains[0].after == px(80, 24));
    CHECK(chains[1].points == Ring{px(48, 24), px(80, 24)});
    CHECK(chains[1].before == px(16, 24));
    CHECK(!chains[1].after);
}

TEST_CASE("chunks lie flat on the ground too") {
    Files files = worlds::with(merging::without_rim(), "marsh.toml", "cell = [16, 16]", "cell = [32, 16]");
    files = worlds::with(files, "flat.toml", "cell = [16, 16]", "grid = \"isometric\"\ncell = [32, 16]");
    files = worlds::with(files, "flat.toml", "\"/\" = \"bank\"", "\"=\" = \"boardwalk\"");
    files = merging::with_rows(files, "##....\n#.....\n...##.\n...##.\n");
    const Result<World> loaded = worlds::load(files);
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    const Map& map = loaded->map("flat");
    const Merge whole = merge(*loaded, map, {.plane = Plane::ground});
    const ChunkedMerge chunked = merge_chunks(*loaded, map, 2, {.forms = {MergeForm::boxes}, .plane = Plane::ground});
    CHECK(chunked.cell == whole.cell);
    Regions all;
    for (const Chunk& chunk : chunked.chunks)
        for (const Group& group : chunk.groups) {
            all.insert(all.end(), group.regions.begin(), group.regions.end());
            CHECK(group.boxes.rests.empty());
        }
    CHECK(unite(all) == whole.group("earth").regions);
}
