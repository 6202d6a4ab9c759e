// Worlds built in code are saved as files with the same content.
// Also tests src/files: read_pack read_pack_maps read_pack_tree toml_text write_cells write_map write_pack
// Also tests src/files: write_pack_maps write_pack_objects write_parts write_tiles write_world
#include <catch2/catch.hpp>

#include "random_worlds.hpp"
#include "worlds.hpp"

#include <cstdlib>
#include <filesystem>

using namespace dryground;

namespace {

std::map<std::string, std::string> by_name(const Result<std::vector<NamedBytes>>& files) {
    std::map<std::string, std::string> all;
    for (const NamedBytes& file : *files) all[file.file] = file.bytes;
    return all;
}

Result<WorldDrafts> read_back(const worlds::Files& files) {
    return load_drafts("world.toml", worlds::reader_of(files));
}

// Returns nothing if both are the same; else the text around their first difference.
std::string difference(std::string a, std::string b) {
    if (a == b) return {};
    if (a.size() > 100 && b.size() > 100 && a.find("\"hash\": ") < 200)   // it only says that something else differs
        a.erase(0, a.find("\"unit\"")), b.erase(0, b.find("\"unit\""));
    const auto at = static_cast<std::size_t>(
        std::mismatch(a.begin(), a.begin() + static_cast<std::ptrdiff_t>(std::min(a.size(), b.size())), b.begin())
            .first -
        a.begin());
    const std::size_t from = at < 300 ? 0 : at - 300;
    return a.substr(from, 500) + "\n-------- but then\n" + b.substr(from, 500);
}

}   // namespace

TEST_CASE("random worlds, saved and read back, are equal; and saved again, byte for byte", "[save]") {
    int built = 0;
    for (int round = 0; round < chance::rounds(160); ++round) {
        DRYGROUND_ROUND(round);
        const WorldBuilder builder = random_worlds::make(static_cast<std::uint64_t>(round));
        const Result<World> said = builder.build();
        INFO(text(said.report()));
        REQUIRE(said);
        ++built;
        const auto files = by_name(world_files(builder));
        REQUIRE(files.size() >= 4);
        const Result<WorldDrafts> read = read_back(files);
        INFO(text(read.report()));
        REQUIRE(read);
        const Result<World> again = read->builder.build();
        INFO(text(again.report()));
        REQUIRE(again);
        REQUIRE(difference(pack_bytes(*said), pack_bytes(*again)) == "");
        const auto saved_again = by_name(world_files(read->builder));
        for (const auto& [name, bytes] : files) REQUIRE(difference(bytes, saved_again.at(name)) == "");
    }
    CHECK(built > 0);
}

TEST_CASE("a pack gives the world back: packed again it is the same, byte for byte", "[pack]") {
    for (int round = 0; round < chance::rounds(160); ++round) {
        DRYGROUND_ROUND(round);
        const Result<World> said = random_worlds::make(static_cast<std::uint64_t>(round), true).build();
        REQUIRE(said);
        PackOutput output;
        output.unit = round % 2 == 0 ? Unit::px : Unit::m;
        output.y = round % 3 == 0 ? YAxis::up : YAxis::down;
        for (const PackFormat format : {PackFormat::json, PackFormat::cbor}) {
            output.format = format;
            const std::string bytes = pack_bytes(*said, output);
            const Result<Pack> loaded = read_pack(bytes);
            INFO(text(loaded.report()));
            REQUIRE(loaded);
            REQUIRE(difference(pack_bytes(loaded->world(), output), bytes) == "");
        }
    }
}

TEST_CASE("worlds are saved to a folder: all files or none", "[save]") {
    const std::filesystem::path folder = std::filesystem::temp_directory_path() / "dryground save test";
    std::filesystem::remove_all(folder);
    const Result<std::vector<std::string>> saved = save_world(random_worlds::make(1), folder / "station.toml");
    REQUIRE(saved);
    REQUIRE(saved->size() >= 4);
    CHECK(saved->back() == folder / "station.toml");
    CHECK(load_world(folder / "station.toml"));
    // A folder where a map should be: nothing is written, and nothing is left lying beside.
    WorldBuilder other = random_worlds::make(2);
    std::filesystem::remove(folder / "maps" / "flat.map.toml");
    std::filesystem::create_directories(folder / "maps" / "flat.map.toml");
    const std::string before = *read_file(folder / "station.toml");
    const Result<std::vector<std::string>> stopped = save_world(other, folder / "station.toml");
    CHECK_THAT(stopped.fault(), Catch::Contains("flat.map.toml") && Catch::Contains("directory"));
    CHECK_FALSE(stopped);
    CHECK(*read_file(folder / "station.toml") == before);
    for (const auto& entry : std::filesystem::recursive_directory_iterator(folder))
        CHECK(entry.path().extension() != ".part");
    std::filesystem::remove_all(folder);
}

TEST_CASE("what cannot be written in files is not saved, and reported", "[save]") {
    WorldBuilder builder;
    MoverDraft mover;
    mover.name = Name("warden");
    mover.body.form = Regions{{{{0, 0}, {512, 0}, {0, 512}}, {}}};
    WorldDraft world;
    world.movers = {mover};
    builder.world(world);
    REQUIRE(builder.build());
    const Result<std::vector<NamedBytes>> files = world_files(builder);
    CHECK_FALSE(files);
    CHECK_THAT(text(files.report()), Catch::Contains("the body of mover 'warden'"));
    world.movers.clear();
    world.title = "\xff";
    CHECK_THAT(text(world_files(WorldBuilder().world(world)).report()), Catch::Contains("0xFF"));
    world.title.clear();
    world.player = Name("nobody");
    CHECK_THAT(text(world_files(WorldBuilder().world(world)).report()), Catch::Contains("[unknown-name]"));
}

// Run by the test `schemas`, which gives the folder: files for validators that are not ours.
TEST_CASE("write random worlds", "[.write]") {
    const char* folder = std::getenv("DRYGROUND_WORLDS");
    REQUIRE(folder != nullptr);
    std::filesystem::remove_all(folder);
    for (int round = 0; round < 60; ++round) {
        const Result<std::vector<std::string>> saved =
            save_world(random_worlds::make(static_cast<std::uint64_t>(round)),
                       std::filesystem::path(folder) / fmt::format("{}", round) / "world.toml");
        REQUIRE(saved);
    }
}
