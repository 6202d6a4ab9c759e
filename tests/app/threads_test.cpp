// Merging on all cores gives the same bytes as on one.
#include <catch2/catch.hpp>

#include "dryground/tbb.hpp"
#include "merging.hpp"

using namespace dryground;

TEST_CASE("oneTBB merges groups at once, with the same result") {
    const auto files =
        merging::with_layer(merging::with_rows(worlds::small_world(), "~~~~/#\n~~#~~~\n..../#\n######\n"),
                            "[[layers]]\nname = \"deck\"\nlegend = { \"~\" = \"brine\" }\nrows = "
                            "'''\n~.~.~.\n......\n~.~.~.\n......\n'''\n");
    const auto with_water =
        worlds::with(files, "flat.toml", "\"/\" = \"bank\" }", "\"/\" = \"bank\", \"~\" = \"brine\" }");
    const Merge alone = merging::merged(with_water);
    REQUIRE(alone.groups.size() == 2);
    CHECK(merging::merged(with_water, {.parallel_for = tbb_parallel_for()}).groups == alone.groups);
}

TEST_CASE("oneTBB is enabled in one line") {
    namespace dg = dryground;
    const World world = worlds::world_of(worlds::small_world());
    const Map& map = world.map("flat");
    const Merge in_parallel = dg::merge(world, map, {.parallel_for = dg::tbb_parallel_for()});
    CHECK(in_parallel.groups == dg::merge(world, map).groups);
}

TEST_CASE("what work throws comes out of oneTBB") {
    CHECK_THROWS_AS(tbb_parallel_for()(100,
                                       [](std::size_t i) {
                                           if (i == 57) throw std::length_error("too long");
                                       }),
                    std::length_error);
}
