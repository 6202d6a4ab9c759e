// What a world uses of what its game can take: reported only where it exceeds what the world allows.
#include <fmt/format.h>

#include <catch2/catch.hpp>

#include <algorithm>

#include "clean_worlds.hpp"
#include "dryground/check.hpp"
#include "dryground/contacts.hpp"

using namespace dryground;

namespace {

World with_limit(std::string_view limit, std::int64_t most) {
    return worlds::world_of(worlds::with(worlds::small_world(), "world.toml", "[facts]",
                                         fmt::format("[limits]\n{} = {}\n[facts]", limit, most)));
}

std::int64_t most_used(const World& world, std::string_view limit) {
    std::int64_t most = 0;
    for (const LimitUse& use : limit_uses(world, limit)) most = std::max(most, use.used);
    return most;
}

std::size_t told(const World& world) {
    const Report report = check(world);
    return static_cast<std::size_t>(std::count_if(
        report.findings().begin(), report.findings().end(),
        [](const Finding& finding) { return finding.rule == Rule::limit || finding.rule == Rule::contact_bits; }));
}

}   // namespace

TEST_CASE("every limit is reported where one more is used than it allows, and only there") {
    const World world = worlds::world_of(worlds::small_world());
    int broken = 0;
    for (const std::string_view limit : limit_names()) {
        INFO(limit);
        const std::int64_t used = most_used(world, limit);
        CHECK(told(with_limit(limit, used)) == 0);
        if (used == 0) continue;
        std::size_t all = 0;
        for (const LimitUse& use : limit_uses(world, limit)) all += use.used == used ? 1 : 0;
        CHECK(told(with_limit(limit, used - 1)) == all);
        ++broken;
    }
    CHECK(broken >= 10);
}

TEST_CASE("uses are counted of what has them") {
    const World world = worlds::world_of(worlds::small_world());
    CHECK(most_used(world, "columns") == world.maps()[0].columns);
    CHECK(most_used(world, "maps") == static_cast<std::int64_t>(world.maps().size()));
    CHECK(most_used(world, "objects_per_map") == static_cast<std::int64_t>(world.maps()[0].objects.size()));
    CHECK(limit_uses(world, "rows").front().map == MapId{0});
    CHECK(limit_uses(world, "tiles_per_set").front().tileset == TileSetId{0});
    CHECK(limit_uses(world, "facts").front().map == MapId::none);
    CHECK_THROWS_AS(limit_uses(world, "rabbits"), std::out_of_range);
}
