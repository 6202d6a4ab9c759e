// Parts of a pack, made separately and joined: the bytes are those of the whole, and parts that do not fit are
// reported.
#include <catch2/catch.hpp>

#include "dryground/pack_parts.hpp"
#include "random_worlds.hpp"
#include "shore.hpp"
#include "worlds.hpp"

using namespace dryground;
using worlds::Files;
using worlds::shore;

namespace {

std::string hash_in(const Files& files, const std::string& file) {
    const auto found = files.find(file);
    return found == files.end() ? std::string() : content_hash(found->second);
}

// A map's part as the command makes it; which files were read goes to `read`.
std::string part_of(const Files& files, const std::string& map, const PackOutput& output = {},
                    std::vector<std::string>* read = nullptr) {
    const Result<WorldDrafts> drafts = load_map_drafts("world.toml", map, worlds::reader_of(files));
    INFO(text(drafts.report()));
    REQUIRE(drafts);
    const Result<World> loaded = drafts->builder.build();
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    REQUIRE(loaded->maps().size() == 1);
    if (read != nullptr) *read = drafts->files;
    std::vector<InputFile> inputs;
    for (const std::string& file : drafts->files) inputs.push_back({file, hash_in(files, file)});
    return part_bytes(*loaded, loaded->maps().front(), output, inputs);
}

std::vector<NamedBytes> parts_of(const Files& files, const World& world, const PackOutput& output = {}) {
    std::vector<NamedBytes> parts;
    for (const Map& map : world.maps()) parts.push_back({map.name + ".part", part_of(files, map.name, output)});
    return parts;
}

Result<std::string> joined(const Files& files, const World& world, const std::vector<NamedBytes>& parts,
                           const PackOutput& output = {}) {
    return join_parts(world, parts, output, [&](const std::string& file) { return hash_in(files, file); });
}

}   // namespace

TEST_CASE("parts of random worlds, joined in any order, are the pack of the whole, byte for byte", "[pack]") {
    for (int round = 0; round < chance::rounds(60); ++round) {
        DRYGROUND_ROUND(round);
        const WorldBuilder builder = random_worlds::make(static_cast<std::uint64_t>(round));
        Files files;
        for (const NamedBytes& file : *world_files(builder)) files[file.file] = file.bytes;
        const World world = worlds::world_of(files);
        PackOutput output;
        output.unit = round % 2 == 0 ? Unit::px : Unit::m;
        output.y = round % 3 == 0 ? YAxis::up : YAxis::down;
        output.chunk_cells = round % 7 == 0 ? 4 : 0;
        output.variants = round % 6 == 0 ? 2 : 0;
        output.format = round % 4 < 2 ? PackFormat::json : PackFormat::cbor;
        std::vector<NamedBytes> parts = parts_of(files, world, output);
        if (round % 5 == 0) std::reverse(parts.begin(), parts.end());
        const Result<std::string> pack = joined(files, world, parts, output);
        INFO(pack.fault());
        REQUIRE(pack);
        REQUIRE(*pack == pack_bytes(world, output));
    }
}

TEST_CASE("a part is made from its own map's files alone", "[pack]") {
    Files files = shore();
    std::vector<std::string> read;
    const std::string part = part_of(files, "flat", {}, &read);
    CHECK(std::find(read.begin(), read.end(), "flat.toml") != read.end());
    CHECK(std::find(read.begin(), read.end(), "cave.toml") == read.end());
    files["cave.toml"] = "no TOML at all [";
    CHECK(part_of(files, "flat") == part);
    files.erase("cave.toml");
    CHECK(part_of(files, "flat") == part);
}

TEST_CASE("a map is found whatever its file is called, and a name that there is not is reported with the nearest",
          "[pack]") {
    Files files = shore();
    files["elsewhere.toml"] = files["cave.toml"];
    files.erase("cave.toml");
    files = worlds::with(files, "world.toml", "\"cave.toml\"", "\"elsewhere.toml\"");
    CHECK_FALSE(part_of(files, "cave").empty());
    CHECK(map_names("world.toml", worlds::reader_of(files)) == std::vector<std::string>{"flat", "cave"});
    const Result<WorldDrafts> none = load_map_drafts("world.toml", "cavern", worlds::reader_of(files));
    CHECK_FALSE(none);
    CHECK_THAT(text(none.report()), Catch::Contains("cavern") && Catch::Contains("cave"));
    files["flat.toml"] = "no TOML at all [";   // listed all the same: its mistake is told when it is made
    CHECK(map_names("world.toml", worlds::reader_of(files)) == std::vector<std::string>{"flat", "cave"});
    const Result<WorldDrafts> broken = load_map_drafts("world.toml", "flat", worlds::reader_of(files));
    CHECK_THAT(text(broken.report()), Catch::Contains("flat.toml:1:"));
}

TEST_CASE("parts that do not make up the world are reported, each with its reason", "[pack]") {
    const Files files = shore();
    const World world = worlds::world_of(files);
    const std::vector<NamedBytes> parts = parts_of(files, world);
    const auto faults = [&](const Files& now, const std::vector<NamedBytes>& some, const PackOutput& output = {}) {
        const Result<std::string> pack = joined(now, world, some, output);
        CHECK_FALSE(pack);
        return pack.fault();
    };
    CHECK(faults(files, {parts[0]}) == "map 'cave' has no part: pack --map cave makes it");
    CHECK(faults(files, {parts[0], parts[1], parts[0]}) == "'flat.part': map 'flat' is given twice");
    Files changed = files;
    changed["cave.toml"] += "\n# another line\n";
    CHECK(faults(changed, parts) == "'cave.part': it is older than 'cave.toml'; make it again");
    PackOutput metres;
    metres.unit = Unit::m;
    CHECK_THAT(faults(files, parts, metres), Catch::Contains("'flat.part': it was made with other options") &&
                                                 Catch::Contains("'cave.part': it was made with other options"));
    for (std::size_t cut : {std::size_t{0}, std::size_t{1}, parts[0].bytes.size() / 2}) {
        const std::vector<NamedBytes> damaged{{"flat.part", parts[0].bytes.substr(0, cut)}, parts[1]};
        CHECK_THAT(faults(files, damaged), Catch::Contains("'flat.part': it is damaged, or no part of a pack"));
    }
}
