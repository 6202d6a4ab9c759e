// Faults of the machine, and what of it must make no difference: full disks, files that are not regular files, locales,
// time zones, places.
#include <catch2/catch.hpp>

#include <unistd.h>

#include <map>

#include "approved.hpp"
#include "chance.hpp"
#include "process.hpp"

using process::Outcome;
using process::run;
using process::slurp;
using process::tool;
namespace fs = std::filesystem;

namespace {

struct WorldOnDisk {
    WorldOnDisk() { fs::copy(fs::path(DRYGROUND_SOURCE) / "demo", folder.path / "demo", fs::copy_options::recursive); }
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

TEST_CASE("output that cannot be written is reported, by every command") {
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
    // A reader that stops reading.
    const Outcome closed =
        run(fmt::format("sh -c '(\"{}\" merge demo --as pieces; echo code $? >&2) | true'", DRYGROUND_COMMAND));
    CHECK_THAT(closed.err,
               Catch::Contains("code 0") ||
                   (Catch::Contains("cannot write to standard output: Broken pipe") && Catch::Contains("code 2")));
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
    const WorldOnDisk world;
    const std::string demo = world / "world.toml";
    const std::string before = all_files(world.folder.path / "demo");
    REQUIRE(tool(fmt::format("edit {} map add cellar 40,30", demo)).code == 0);
    const std::string after = all_files(world.folder.path / "demo");
    REQUIRE(tool(fmt::format("edit {} undo", demo)).code == 0);
    REQUIRE(all_files(world.folder.path / "demo") == before);
    int killed_before = 0, killed_after = 0;
    for (int round = 0; round < (chance::sanitized ? 3 : 20); ++round) {
        const double seconds = (chance::sanitized ? 0.4 : 0.008) * round;
        INFO("killed after " << seconds << " s");
        (void)run(fmt::format("sh -c '\"{}\" edit {} map add cellar 40,30 & sleep {}; kill -9 $!; wait $!'",
                              DRYGROUND_COMMAND, demo, seconds));
        CHECK(tool(fmt::format("check {}", demo)).code != 2);
        (void)tool(fmt::format("edit {} history", demo));                                  // finishes what was begun
        REQUIRE(tool(fmt::format("edit {} fact add lit --check none", demo)).code == 0);   // writes the same file again
        REQUIRE(tool(fmt::format("edit {} undo --check none", demo)).code == 0);
        const std::string now = all_files(world.folder.path / "demo");
        const bool is_before = now == before, is_after = now == after;
        REQUIRE((is_before || is_after));
        is_after ? ++killed_after : ++killed_before;
        if (is_after) REQUIRE(tool(fmt::format("edit {} undo --check none", demo)).code == 0);
        REQUIRE(all_files(world.folder.path / "demo") == before);
    }
    CHECK(killed_before > 0);
    WARN(fmt::format("killed {} times before it was made, {} times after", killed_before, killed_after));
}

TEST_CASE("files that are not regular files are reported, and nobody waits for them") {
    const WorldOnDisk world;
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
    const WorldOnDisk world;
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

namespace {

// Every command that writes files, into a folder of what it made before.
struct Writing {
    const char* name;
    const char* words;   // {} stands for the folder that it writes to
};
constexpr Writing writings[] = {
    {"merge", "merge demo --out {}/ground.json"},
    {"glTF", "merge demo --format gltf --out {}/ground.gltf"},
    {"tiles of cells", "merge demo --as tiles --format csv --numbers --out {}/cells.csv"},
    {"pack", "pack demo --out {0}/station.pack.json --art {0}/art --depfile {0}/station.d"},
    {"list", "list demo objects --out {}/objects.txt"},
    {"probe", "probe demo --map slipway --at 10,10 --out {}/place.txt"},
    {"walk", "walk demo --out {}/walk.txt"},
    {"check", "check demo/broken --out {}/report.txt"},
    {"draw", "draw demo --map slipway --out {}/slipway.svg"},
    {"a page", "draw demo --out {}/station.html"},
    {"compare", "compare demo demo/broken --out {}/changes.txt"},
    {"tiles", "tiles demo/art/marsh.png --out {}/rocks.tiles.toml"},
    {"new", "new {}/shore"},
    {"demo", "demo --out {}/station"},
};

}   // namespace

TEST_CASE("a folder that may not be written to is reported by every command that writes, with the file's name") {
    const process::Folder folder;
    const std::string disk = folder.path.string();
    const bool is_root = ::geteuid() == 0;
    if (is_root && run(fmt::format("mount -t tmpfs -o size=8m tmpfs '{}'", disk)).code != 0) {
        WARN("no disk could be made read-only here: not tried");
        return;
    }
    REQUIRE(run(fmt::format("cp -r demo '{0}/demo' && mkdir '{0}/out'", disk)).code == 0);
    const char* const close = is_root ? "mount -o remount,ro '{}'" : "chmod -R a-w '{}'";
    const char* const open = is_root ? "umount '{}'" : "chmod -R u+w '{}'";
    REQUIRE(run(fmt::format(fmt::runtime(close), disk)).code == 0);
    const std::string before = all_files(disk);
    for (const Writing& writing : writings) {
        const Outcome outcome = tool(fmt::format(fmt::runtime(writing.words), disk + "/out"));
        INFO(writing.name << "\n" << outcome.err);
        CHECK(outcome.code == 2);
        CHECK_THAT(outcome.err, Catch::Contains(disk + "/out") &&
                                    (Catch::Contains("Read-only file system") || Catch::Contains("Permission denied")));
    }
    const Outcome edit = tool(fmt::format("edit {}/demo --map slipway --layer ground set crate 3,3", disk));
    CHECK(edit.code == 2);
    CHECK_THAT(edit.err, Catch::Contains("slipway.map.toml"));
    CHECK(all_files(disk) == before);
    CHECK(run(fmt::format(fmt::runtime(open), disk)).code == 0);
}

TEST_CASE(
    "whatever is killed while it writes leaves an old file or a whole new one, and nothing beside after the next") {
    std::map<std::string, std::string> whole;   // what each file is when nobody is killed
    const process::Folder folder;
    const std::string out = (folder.path / "out").string();
    const auto files = [&] {
        std::map<std::string, std::string> all;
        for (const auto& entry : fs::recursive_directory_iterator(out))
            if (entry.is_regular_file()) all[fs::relative(entry.path(), out).string()] = slurp(entry.path());
        return all;
    };
    int killed = 0;
    for (const Writing& writing : writings) {
        if (chance::sanitized && std::string(writing.name) != "pack") continue;   // the same writer
        const bool is_folder = std::string(writing.name) == "new" || std::string(writing.name) == "demo";
        const std::string words = fmt::format(fmt::runtime(writing.words), out);
        fs::remove_all(out), fs::create_directories(out);
        (void)tool(words);
        const auto made = files();
        REQUIRE(!made.empty());
        for (int round = 0; round < (chance::sanitized ? 2 : 6); ++round) {
            // Old files stand there, which differ from what is written now.
            fs::remove_all(out), fs::create_directories(out);
            if (!is_folder)
                for (const auto& [name, text] : made) {
                    fs::create_directories((fs::path(out) / name).parent_path());
                    if (std::string(writing.name) != "tiles") process::spill(fs::path(out) / name, "old");
                }
            (void)run(fmt::format("sh -c '\"{}\" {} & sleep {}; kill -9 $!; wait $!' >/dev/null 2>&1",
                                  DRYGROUND_COMMAND, words, (chance::sanitized ? 0.3 : 0.008) * round));
            ++killed;
            for (const auto& [name, text] : files()) {
                INFO(writing.name << ", killed in round " << round << ": " << name);
                const bool is_part = name.size() > 5 && name.substr(name.size() - 5) == ".part";
                const bool is_right = is_part || text == "old" || (made.count(name) > 0 && text == made.at(name));
                CHECK(is_right);
            }
            if (is_folder) continue;   // half a folder is left: the next `new` says that it is not empty
            (void)tool(words);         // the next one writes all of it, and removes what the killed one left
            CHECK(files() == made);
        }
    }
    CHECK(killed >= 2);
}

TEST_CASE("files that change while they are read give old or new content, or an error with their name; never a crash") {
    const WorldOnDisk world;
    const std::string map = world / "maps/slipway.map.toml", text = slurp(map);
    process::spill(world / "longer", text + "\n# a comment that makes it longer\n");
    process::spill(world / "cut", text.substr(0, text.size() / 2));
    const std::string demo = world / "world.toml";
    process::spill(world / "same", text);
    // Somebody saves all the time, by truncating and writing again, as careless editors do.
    process::spill(
        world / "script",
        fmt::format("cd '{0}'\n"
                    "(while [ ! -e stop ]; do for one in longer cut same; do cat $one >'{1}'; done; done) &\n"
                    "for i in $(seq {2}); do '{3}' check '{4}' >told 2>&1; echo $? >>codes; done\n"
                    "touch stop; wait\n",
                    (world.folder.path / "demo").string(), map, chance::sanitized ? 5 : 40, DRYGROUND_COMMAND, demo));
    REQUIRE(run(fmt::format("sh '{}'", world / "script")).code == 0);
    std::istringstream codes(slurp(world / "codes"));
    int count = 0;
    for (int code = 0; codes >> code; ++count) CHECK((code == 0 || code == 1 || code == 2));
    CHECK(count == (chance::sanitized ? 5 : 40));
}

TEST_CASE("outputs are the same bytes, whichever compiler made the program and however it optimised", "[approved]") {
    const process::Folder folder;
    const std::string out = folder.path.string();
    std::string digests;
    const auto add = [&](const std::string& words) {
        const std::string file = words.starts_with("draw") ? "made.svg" : "made";   // elsewhere --format says it
        const Outcome outcome = tool(words + " --out '" + out + "/" + file + "'");
        INFO(words << "\n" << outcome.err);
        REQUIRE(outcome.code <= 1);
        std::uint64_t hash = 0xcbf29ce484222325u;   // FNV-1a
        const std::string bytes = slurp(folder.path / file);
        for (const char c : bytes) hash = (hash ^ static_cast<unsigned char>(c)) * 0x100000001b3u;
        digests += fmt::format("{:016x} {:>8} {}\n", hash, bytes.size(), words);
        fs::remove(folder.path / file);
    };
    for (const char* words :
         {"merge demo --as regions lines chains pieces boxes triangles", "merge demo --format cbor --unit m --y up",
          "merge demo --mover warden_side --as chains --chunk-cells 8", "merge demo --grow 3.5 --as regions",
          "merge demo --grow -2 --corners mitre --as pieces", "merge demo --format gltf --plane ground --triggers",
          "merge demo --map slipway --as cells --format png", "pack demo", "pack demo --format cbor --chunk-cells 16",
          "check demo/broken --format json", "check demo/broken --format sarif", "walk demo --format json",
          "list demo tiles --format json", "compare demo demo/broken --format json", "draw demo --map slipway",
          "draw demo --map pump_house --show merged flags sides reach walk --storey loft"})
        add(words);
    approved::check("digests.txt", digests);
}
