// Damage to a good file: an error with its place, or a world with the content of the damaged file; never anything else.
#include <catch2/catch.hpp>

#include "random_worlds.hpp"
#include "worlds.hpp"

using namespace dryground;

namespace {

// One small accident: a byte changed, removed, inserted; a piece cut off, doubled, or a few bytes swapped.
std::string damaged(std::string bytes, chance::Dice& dice) {
    if (bytes.empty()) return bytes;
    const auto at = static_cast<std::size_t>(dice.in(0, static_cast<int>(bytes.size()) - 1));
    switch (dice.in(0, 5)) {
        case 0:
            bytes[at] = static_cast<char>(dice.in(0, 255));
            break;
        case 1:
            bytes.erase(at, static_cast<std::size_t>(dice.in(1, 3)));
            break;
        case 2:
            bytes.insert(at, 1, static_cast<char>(dice.in(32, 126)));
            break;
        case 3:
            bytes.resize(at);
            break;
        case 4:
            bytes.insert(at, bytes.substr(at, static_cast<std::size_t>(dice.in(1, 40))));
            break;
        default:
            std::swap(bytes[at], bytes[static_cast<std::size_t>(dice.in(0, static_cast<int>(bytes.size()) - 1))]);
    }
    return bytes;
}

Result<WorldDrafts> read(const std::map<std::string, std::string>& files) {
    return load_drafts("world.toml", worlds::reader_of(files));
}

std::map<std::string, std::string> saved(const WorldBuilder& builder) {
    std::map<std::string, std::string> all;
    for (const NamedBytes& file : *world_files(builder)) all[file.file] = file.bytes;
    return all;
}

}   // namespace

TEST_CASE("damage to a designer's file is an error, or says something else and is read as such", "[damage]") {
    int errors = 0, others = 0, same = 0;
    for (int round = 0; round < chance::rounds(500); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(static_cast<std::uint64_t>(round) + 7'000'000);
        const WorldBuilder builder = random_worlds::make(static_cast<std::uint64_t>(round) / 8);
        auto files = saved(builder);
        auto victim = files.begin();
        std::advance(victim, dice.in(0, static_cast<int>(files.size()) - 1));
        victim->second = damaged(victim->second, dice);
        const Result<WorldDrafts> drafts = read(files);
        const Result<World> loaded = drafts ? drafts->builder.build() : drafts.failure();
        REQUIRE(static_cast<bool>(loaded) != loaded.report().has(Severity::error));
        if (!loaded) {
            for (const Finding& finding : loaded.report().findings()) {
                INFO(text(finding));
                CHECK_FALSE((finding.place.file.empty() && finding.place.thing.empty()));
            }
            ++errors;
            continue;
        }
        // What was read is what is said: saved and read once more it is the same.
        const Result<WorldDrafts> again = read(saved(drafts->builder));
        INFO(victim->first << "\n" << (victim->first.find(".png") == std::string::npos ? victim->second : ""));
        REQUIRE(again);
        const Result<World> reread = again->builder.build();
        INFO(text(reread.report()));
        REQUIRE(reread);
        const std::string pack = pack_bytes(*loaded);
        REQUIRE(pack == pack_bytes(*reread));
        (pack == pack_bytes(*builder.build()) ? same : others) += 1;
    }
    CHECK(errors > 0);
    CHECK(others > 0);
    CHECK((chance::sanitized || same > 0));   // a space in a comment's place; too rare in few rounds
}

TEST_CASE("damage to a pack is an error, or another pack", "[damage][pack]") {
    int errors = 0, loads = 0;
    for (int round = 0; round < chance::rounds(500); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(static_cast<std::uint64_t>(round) + 8'000'000);
        const Result<World> said = random_worlds::make(static_cast<std::uint64_t>(round) / 8, true).build();
        PackOutput output;
        output.format = round % 2 == 0 ? PackFormat::json : PackFormat::cbor;
        const Result<Pack> loaded = read_pack(damaged(pack_bytes(*said, output), dice), "a.pack");
        REQUIRE(static_cast<bool>(loaded) != loaded.report().has(Severity::error));
        loaded ? ++loads : ++errors;
        if (loaded) REQUIRE(read_pack(pack_bytes(loaded->world(), output)));
    }
    CHECK(errors > 0);
    CHECK(loads > 0);
}

TEST_CASE("what is no pack is refused with its reason", "[pack]") {
    const auto why = [](std::string_view bytes) {
        const Result<Pack> loaded = read_pack(bytes, "a.pack");
        REQUIRE_FALSE(loaded);
        return text(loaded.report());
    };
    CHECK_THAT(why(""), Catch::Contains("a.pack") && Catch::Contains("[syntax]"));
    CHECK_THAT(why("{}"), Catch::Contains("[format-version]"));
    CHECK_THAT(why(R"({"format": "dryground/pack/9"})"), Catch::Contains("dryground/pack/9"));
    CHECK_THAT(why(R"({"format": "dryground/pack/1"})"), Catch::Contains("movers"));
    CHECK_THAT(why("[1, 2"), Catch::Contains("[syntax]"));
    CHECK_THAT(why("{\"maps\": " + std::string(1000, '[') + std::string(1000, ']') + "}"), Catch::Contains("nested"));
    CHECK_THAT(why("{\"merge\": " + std::string(100'000, '[')), Catch::Contains("nested"));
    CHECK_THAT(why(std::string("\x9b\xff\xff\xff\xff\xff\xff\xff\xff", 9)),
               Catch::Contains("[syntax]"));   // a list of 2^64
    CHECK_THROWS_AS(read_pack("").value(), std::logic_error);
    CHECK_THAT(text(load_pack("there/is/none").report()), Catch::Contains("there is no such file"));
}
