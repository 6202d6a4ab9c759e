// Saved games: what is written is read, and damage is reported.
// Also tests src/play: changes
#include "dryground/changes.hpp"

#include <catch2/catch.hpp>

#include "chance.hpp"
#include "shore.hpp"

using namespace dryground;

namespace {

const SavedChanges& played(const World& world) {
    static const SavedChanges changes = [&] {
        Play play(Pack(world, "0123456789abcdef"), "flat");
        play.set_tile(LayerId{0}, {0, 0}, "peat"), play.clear(LayerId{0}, {10, 2});
        play.set_tile(LayerId{0}, {1, 0}, Placed{0, 1, {true, false, 90}});
        play.set_fact("has_key"), play.set_fired(ObjectId{4}), play.set_fired(LayerId{0}, {2, 1});
        play.remove(play.find_object("crab_a"));
        return play.changes();
    }();
    return changes;
}

}   // namespace

TEST_CASE("changes are written and read, as JSON and CBOR", "[changes]") {
    const World world = *worlds::load(worlds::shore());
    for (const PackFormat format : {PackFormat::json, PackFormat::cbor}) {
        const Result<LoadedChanges> read = read_changes(world, changes_bytes(world, played(world), format));
        INFO(read.fault());
        REQUIRE(read);
        CHECK(read->changes.pack == "0123456789abcdef");
        CHECK(read->changes.map == "flat");
        Play fresh(Pack(world, "0123456789abcdef"), "flat");
        CHECK(read->lost.empty());
        CHECK(fresh.apply(read->changes).empty());
        CHECK(changes_bytes(world, fresh.changes(), format) == changes_bytes(world, played(world), format));
    }
}

TEST_CASE("what is wrong with saved changes is reported with the way to it", "[changes]") {
    const World world = *worlds::load(worlds::shore());
    const std::string good = changes_bytes(world, played(world));
    struct Row {
        const char *from, *to, *fault;
    };
    for (const Row& row :
         {Row{"changes/1", "changes/2", "'format' is \"dryground/changes/2\", but should be 'dryground/changes/1'"},
          {"marsh/peat", "marsh_peat", "'tiles/0/is/tile' is \"marsh_peat\", but should be a tile set and a tile"},
          {"\"layer\"", "\"lay\"", "'tiles/0' has no 'layer'"},
          {"\"tiles\"", "\"tyles\"", "the saved game has no 'tiles'"},
          {"{", "", "it cannot be read"}}) {
        std::string bad = good;
        bad.replace(bad.find(row.from), std::string_view(row.from).size(), row.to);
        const Result<LoadedChanges> read = read_changes(world, bad);
        CHECK_FALSE(read);
        CHECK_THAT(read.fault(), Catch::Contains(row.fault));
    }
    // All at once.
    std::string bad = good;
    for (const Row& row :
         {Row{"changes/1", "changes/2", ""}, {"marsh/peat", "marsh_peat", ""}, {"\"crab_a\"", "7", ""}})
        bad.replace(bad.find(row.from), std::string_view(row.from).size(), row.to);
    const Result<LoadedChanges> read = read_changes(world, bad);
    CHECK_FALSE(read);
    CHECK(read.report().findings().size() == 3);
    CHECK(std::count(read.fault().begin(), read.fault().end(), '\n') == 2);
}

TEST_CASE("what a newer world has no place for is listed, and the rest is made", "[changes]") {
    const World world = *worlds::load(worlds::shore());
    const std::string good = changes_bytes(world, played(world));
    struct Row {
        const char *from, *to, *lost;
    };
    for (const Row& row : {Row{"\"has_key\"", "\"has_kye\"", "facts/0: there is no fact 'has_kye'"},
                           {"marsh/peat", "marsh/paet", "tiles/0: there is no tile 'paet'"},
                           {"\"crab_a\"", "\"crab_q\"", "removed/0: map 'flat' has no object 'crab_q'"}}) {
        std::string other = good;
        other.replace(other.find(row.from), std::string_view(row.from).size(), row.to);
        const Result<LoadedChanges> read = read_changes(world, other);
        INFO(read.fault());
        REQUIRE(read);
        CHECK(read->lost == std::vector<std::string>{row.lost});
        CHECK(read->changes.edits.size() == played(world).edits.size() - 1);
        CHECK(Play(world, "cave").apply(read->changes).empty());
    }
}

TEST_CASE("a saved game keeps its things when others are inserted before them", "[changes]") {
    const worlds::Files files = worlds::with(worlds::shore(), "flat.toml", worlds::last_of_shore,
                                             std::string(worlds::last_of_shore) +
                                                 "  { kind = \"chest\", at = [24, 64] },\n  { kind = \"chest\", "
                                                 "at = [24, 64] },\n");
    const World world = *worlds::load(files);
    Play play(world, "flat");
    const std::size_t last = play.map().objects.size() - 1;
    play.remove(id_of<ObjectId>(last)), play.set_fired(play.find_object("bell")), play.set_fact("has_key");
    const std::string saved = changes_bytes(world, play.changes());
    // Another barrier, fact, mover, tile, layer and objects come before what was saved.
    worlds::Files newer = worlds::with(files, "world.toml", "[facts]\n", "[facts]\na_new_one = \"comes first\"\n");
    newer = worlds::with(newer, "flat.toml", "[[layers]]",
                         "[[layers]]\nname = \"more\"\nobjects = [{ kind = \"chest\", at = "
                         "[40, 64] }]\n[[layers]]");
    const World new_world = *worlds::load(newer);
    const Result<LoadedChanges> read = read_changes(new_world, saved);
    INFO(read.fault());
    REQUIRE(read);
    CHECK(read->lost.empty());
    Play later(new_world, "cave");
    CHECK(later.apply(read->changes).empty());
    CHECK_FALSE(later.is_there(id_of<ObjectId>(last + 1)));
    CHECK(later.is_there(id_of<ObjectId>(last)));
    CHECK(later.has_fired(later.find_object("bell")));
    CHECK(later.holds("has_key"));
    CHECK_FALSE(later.holds("a_new_one"));
}

TEST_CASE("no accident to saved changes does more than be told", "[changes]") {
    const World world = *worlds::load(worlds::shore());
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
            const Result<LoadedChanges> read = read_changes(world, bad);
            CHECK(static_cast<bool>(read) == read.fault().empty());
            if (!read) continue;
            Play fresh(Pack(world, "0123456789abcdef"), "flat");
            (void)fresh.apply(read->changes);   // fits, or is refused
        }
    }
    CHECK_FALSE(read_changes(world, std::string(100'000, '[')));
    CHECK_FALSE(read_changes(world, std::string(100'000, '\x81')));
}
