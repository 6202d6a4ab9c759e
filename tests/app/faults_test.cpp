// What the machine does wrong, and what of it must make no difference: full disks, files that are no files, locales,
// time zones, places.
#include <catch2/catch.hpp>

#include <unistd.h>

#include "chance.hpp"
#include "process.hpp"

using process::Outcome;
using process::run;
using process::slurp;
using process::tool;
namespace fs = std::filesystem;

namespace {

struct World {
    World() { fs::copy(fs::path(DRYGROUND_SOURCE) / "demo", folder.path / "demo", fs::copy_options::recursive); }
    [[nodiscard]] std::string operator/(const std::string& file) const {
        return (folder.path / "demo" / file).string();
    }
    process::Folder folder;
};

std::string all_files(const fs::path& folder) {
    std::vector<std::string> names;
    for (const auto& entry : fs::recursive_directory_iterator(folder))
        if (entry.is_regular_file()) names.push_back(entry.path().string());
    std::sort(names.begin(), names.end());
    std::string all;
    for (const std::string& name : names) all += name + "\n" + slurp(name);
    return all;
}

}   // namespace

TEST_CASE("output that cannot be written is told, by every command") {
    for (const char* words :
         {"check demo", "merge demo --map slipway", "pack demo", "list demo tiles",
          "probe demo --map slipway --at 10,10", "walk demo", "draw demo --map slipway", "compare demo demo", "keys",
          "--help", "tiles demo/art/marsh.png --out nowhere.toml --dry-run",
          "edit demo --map slipway --layer ground --dry-run set crate 3,3"}) {
        INFO(words);
        const Outcome outcome = run(fmt::format("sh -c '\"{}\" {} >/dev/full'", DRYGROUND_COMMAND, words));
        CHECK(outcome.code == 2);
        CHECK_THAT(outcome.err, Catch::Contains("cannot write to standard output"));
    }
    for (const char* words : {"merge demo --out /dev/full/x", "pack demo --out nowhere/x.json",
                              "draw demo --map slipway --out nowhere/x.svg"})
        CHECK(tool(words).code == 2);
}

TEST_CASE("a disk that is full leaves every old file as it was, and nothing beside it") {
    const process::Folder folder;
    const std::string disk = folder.path.string();
    if (::geteuid() != 0 || run(fmt::format("mount -t tmpfs -o size=400k tmpfs '{}'", disk)).code != 0) {
        WARN("no small disk could be made here: not tried");
        return;
    }
    CHECK(tool(fmt::format("new {}/shore", disk)).code == 0);
    CHECK(run(fmt::format("dd if=/dev/zero of='{}/fill' bs=1k count=500 2>/dev/null; true", disk)).code == 0);
    const std::string before = all_files(folder.path / "shore");
    for (const std::string& words :
         {fmt::format("edit {}/shore --layer ground set peat 3,3", disk),
          fmt::format("edit {}/shore fact add lit", disk), fmt::format("edit {}/shore map add cellar 30,30", disk),
          fmt::format("pack demo --out {}/shore/world.toml", disk),
          fmt::format("draw demo --map slipway --out {}/shore/shore.png", disk),
          fmt::format("tiles demo/art/marsh.png --out {}/shore/tiles/shore.tiles.toml", disk)}) {
        const Outcome outcome = tool(words);
        INFO(words << "\n" << outcome.err);
        CHECK(outcome.code == 2);
        CHECK_THAT(outcome.err, Catch::Contains("No space left"));
        CHECK(all_files(folder.path / "shore") == before);
    }
    CHECK(run(fmt::format("umount '{}'", disk)).code == 0);
}

TEST_CASE("an edit that is killed leaves old or new files, the next command finishes it, and nothing stays beside") {
    const World world;
    const std::string demo = world / "world.toml";
    const std::string before = all_files(world.folder.path / "demo");
    REQUIRE(tool(fmt::format("edit {} map add cellar 40,30", demo)).code == 0);
    const std::string after = all_files(world.folder.path / "demo");
    REQUIRE(tool(fmt::format("edit {} undo", demo)).code == 0);
    REQUIRE(all_files(world.folder.path / "demo") == before);
    int killed_before = 0, killed_after = 0;
    for (int round = 0; round < (chance::sanitized ? 3 : 40); ++round) {
        const double seconds = (chance::sanitized ? 0.4 : 0.004) * round;
        INFO("killed after " << seconds << " s");
        (void)run(fmt::format("sh -c '\"{}\" edit {} map add cellar 40,30 & sleep {}; kill -9 $!; wait $!'",
                              DRYGROUND_COMMAND, demo, seconds));
        CHECK(tool(fmt::format("check {}", demo)).code != 2);
        (void)tool(fmt::format("edit {} history", demo));                     // finishes what was begun
        REQUIRE(tool(fmt::format("edit {} fact add lit", demo)).code == 0);   // writes the same file again
        REQUIRE(tool(fmt::format("edit {} undo", demo)).code == 0);
        const std::string now = all_files(world.folder.path / "demo");
        const bool is_before = now == before, is_after = now == after;
        REQUIRE((is_before || is_after));
        is_after ? ++killed_after : ++killed_before;
        if (is_after) REQUIRE(tool(fmt::format("edit {} undo", demo)).code == 0);
        REQUIRE(all_files(world.folder.path / "demo") == before);
    }
    CHECK(killed_before > 0);
    WARN(fmt::format("killed {} times before it was made, {} times after", killed_before, killed_after));
}

TEST_CASE("files that are no files are told, and nobody waits for them") {
    const World world;
    const std::string odd = world / "odd.toml";
    const std::pair<const char*, const char*> makings[] = {{"a FIFO", "mkfifo '{}'"},
                                                           {"a directory", "mkdir '{}'"},
                                                           {"a link to nothing", "ln -s nowhere '{}'"},
                                                           {"a link to itself", "ln -s odd.toml '{}'"},
                                                           {"a device", "ln -s /dev/zero '{}'"},
                                                           {"4 GiB of holes", "truncate -s 4G '{}'"},
                                                           {"a link out of the world", "ln -s /etc/hostname '{}'"}};
    const std::string text = slurp(world / "world.toml");
    for (const auto& [what, making] : makings) {
        INFO(what);
        REQUIRE(run(fmt::format(fmt::runtime(making), odd)).code == 0);
        const int code = run(fmt::format("timeout 20 '{}' check {}", DRYGROUND_COMMAND, odd)).code;
        CHECK((code == 1 || code == 2));                          // not what it should be, or not to be opened
        for (const char* list : {"tilesets = [", "maps = ["}) {   // named by the world
            std::string named = text;
            named.insert(named.find(list) + std::string(list).size(), "\"odd.toml\", ");
            process::spill(world / "world.toml", named);
            const Outcome outcome =
                run(fmt::format("timeout 20 '{}' check {}", DRYGROUND_COMMAND, world / "world.toml"));
            INFO(outcome.out << outcome.err);
            CHECK(outcome.code == 1);
            CHECK_THAT(outcome.out + outcome.err, Catch::Contains("odd.toml"));
        }
        process::spill(world / "world.toml", text);
        fs::remove_all(odd);
    }
}

TEST_CASE("the same bytes come out in any locale, time zone and folder, from any path") {
    if (chance::sanitized) return;   // the same program, many times as slow
    const World world;
    const char* commands[] = {"merge {} --as regions lines chains pieces boxes triangles", "pack {} --chunk-cells 8",
                              "check {} --format json", "walk {} --format json", "list {} objects --format json"};
    for (const char* words : commands) {
        INFO(words);
        const std::string plain = tool(fmt::format(fmt::runtime(words), "demo/world.toml")).out;
        REQUIRE(!plain.empty());
        const auto other = [&](const std::string& before, const std::string& file) {
            return run(fmt::format("{} '{}' {}", before, DRYGROUND_COMMAND, fmt::format(fmt::runtime(words), file)))
                .out;
        };
        CHECK(other("env LC_ALL=de_DE.UTF-8 LANG=tr_TR.UTF-8 TZ=Pacific/Auckland", "demo/world.toml") == plain);
        CHECK(other("env -i", "demo/world.toml") == plain);
        CHECK(other("cd demo &&", "world.toml") == plain);
        CHECK(other("cd / &&", world / "world.toml") == plain);
    }
    const std::string here = world / "here.svg", there = world / "there.svg";
    REQUIRE(tool(fmt::format("draw demo/world.toml --map slipway --out {}", here)).code == 0);
    REQUIRE(run(fmt::format("cd / && env -i LC_ALL=de_DE.UTF-8 TZ=Asia/Tokyo '{}' draw {} --map slipway --out {}",
                            DRYGROUND_COMMAND, world / "world.toml", there))
                .code == 0);
    CHECK(slurp(here) == slurp(there));
}
