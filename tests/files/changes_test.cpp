// Saved games: what is written is read, and what is damaged is told.
// Also tests src/play: changes
#include "dryground/changes.hpp"

#include <catch2/catch.hpp>

#include "chance.hpp"
#include "shore.hpp"

using namespace dryground;

namespace {

const Changes& played(const World& world) {
    static const Changes changes = [&] {
        Play play(Pack(world, "0123456789abcdef"), "flat");
        play.set_tile(0, {0, 0}, "peat"), play.clear(0, {10, 2});
        play.set_tile(0, {1, 0}, Placed{0, 1, {true, false, 90}});
        play.set_fact("has_key"), play.set_fired(4), play.set_fired(0, {2, 1});
        return play.changes();
    }();
    return changes;
}

}   // namespace

TEST_CASE("changes are written and read, as JSON and CBOR", "[changes]") {
    const World world = worlds::load(worlds::shore()).world();
    for (const PackFormat format : {PackFormat::json, PackFormat::cbor}) {
        const LoadedChanges read = read_changes(world, changes_bytes(world, played(world), format));
        INFO(read.fault);
        REQUIRE(read.changes);
        CHECK(read.changes->pack == "0123456789abcdef");
        CHECK(read.changes->changes == played(world).changes);
        Play fresh(Pack(world, "0123456789abcdef"), "flat");
        CHECK(fresh.apply(*read.changes) == "");
        CHECK(changes_bytes(world, fresh.changes(), format) == changes_bytes(world, played(world), format));
    }
}

TEST_CASE("what is wrong with saved changes is told with the way to it", "[changes]") {
    const World world = worlds::load(worlds::shore()).world();
    const std::string good = changes_bytes(world, played(world));
    struct Row {
        const char *from, *to, *fault;
    };
    for (const Row& row : {Row{"changes/1", "changes/2", "format: is 'dryground/changes/2'"},
                           {"\"has_key\"", "\"has_kye\"", "facts[0]: there is no fact 'has_kye'"},
                           {"\"flat\"", "\"flut\"", "tiles[0].map: there is no map 'flut'"},
                           {"\"ground\"", "\"gound\"", "tiles[0].layer: there is no layer 'gound'"},
                           {"marsh/peat", "marsh/paet", "there is no tile 'paet'"},
                           {"\"tiles\"", "\"tyles\"", "tiles: should be a list"},
                           {"{", "", "it cannot be read"}}) {
        std::string bad = good;
        bad.replace(bad.find(row.from), std::string_view(row.from).size(), row.to);
        const LoadedChanges read = read_changes(world, bad);
        CHECK_FALSE(read.changes);
        CHECK_THAT(read.fault, Catch::Contains(row.fault));
    }
}

TEST_CASE("no accident to saved changes does more than be told", "[changes]") {
    const World world = worlds::load(worlds::shore()).world();
    for (const PackFormat format : {PackFormat::json, PackFormat::cbor}) {
        const std::string good = changes_bytes(world, played(world), format);
        for (int round = 0; round < chance::rounds(2000); ++round) {
            DRYGROUND_ROUND(round);
            chance::Dice dice(static_cast<std::uint64_t>(round));
            std::string bad = good;
            for (int i = dice.in(1, 4); i > 0; --i) {
                const auto at = static_cast<std::size_t>(dice.in(0, static_cast<int>(bad.size()) - 1));
                if (dice.once_in(3))
                    bad.erase(at, static_cast<std::size_t>(dice.in(1, 20)));
                else
                    bad[at] = static_cast<char>(dice.in(0, 255));
                if (bad.empty()) break;
            }
            const LoadedChanges read = read_changes(world, bad);
            CHECK(read.changes.has_value() == read.fault.empty());
            if (!read.changes) continue;
            Play fresh(Pack(world, "0123456789abcdef"), "flat");
            (void)fresh.apply(*read.changes);   // fits, or is refused
        }
    }
    CHECK_FALSE(read_changes(world, std::string(100'000, '[')).changes);
    CHECK_FALSE(read_changes(world, std::string(100'000, '\x81')).changes);
}
