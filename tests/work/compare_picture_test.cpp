// Two versions of a map in one picture: what only one of them has is marked in it.
#include <catch2/catch.hpp>

#include <map>
#include <stdexcept>

#include "../draw/pictures.hpp"
#include "versions.hpp"

using namespace dryground;
using pictures::Document;
using versions::edited;
using versions::version;
using worlds::Files;

namespace {

std::string drawn(const Files& before, const Files& after, const std::string& map = "flat",
                  const DrawOptions& options = {}) {
    const Version old = version(before), now = version(after);
    return draw_comparison(old, now, compare(old, now), map, pictures::no_art, pictures::no_art, options);
}
// How many marks of a class are within the picture of a version.
std::size_t marks(const Document& document, const std::string& of, const std::string& version) {
    return document.count(fmt::format("/svg/svg[.//clipPath[@id='{}-view']]//*[@class='{}']", version, of));
}

}   // namespace

TEST_CASE("cells and ground that changed are marked in both versions, or in the one that has them") {
    const Files files = worlds::small_world();
    const Document document(
        drawn(files, edited(files, EditMap{"flat", PaintCells{"", "peat", {{1, 0}, {2, 0}, {4, 0}}}})));
    CHECK(document.count("/svg/svg") == 2);
    CHECK(document.has_text("before"));
    CHECK(document.has_text("after"));
    for (const char* one : {"before", "after"}) CHECK(marks(document, "changed-cells", one) == 2);
    CHECK(marks(document, "changed-ground", "before") == 0);
    CHECK(marks(document, "changed-ground", "after") == 1);
    CHECK(document.has_text("layer 'ground': 3 cells at (1, 0) 2 x 1, (4, 0)"));

    const Document back(drawn(edited(files, EditMap{"flat", PaintCells{"", "peat", {{1, 0}}}}), files));
    CHECK(marks(back, "changed-ground", "before") == 1);
    CHECK(marks(back, "changed-ground", "after") == 0);
}

TEST_CASE("objects are marked where they are, and moved ones have a way") {
    const Files files = worlds::small_world();
    const auto counts = [&](const MapEdit& edit) {
        const Document document(drawn(files, edited(files, EditMap{"flat", edit})));
        return std::array{marks(document, "changed-object", "before"), marks(document, "changed-object", "after"),
                          marks(document, "changed-way", "before"), marks(document, "changed-way", "after")};
    };
    // Each circle has an edge: two elements a mark.
    CHECK(counts(MoveObject{"crab_a", PointPx{72, 48}}) == std::array<std::size_t, 4>{2, 2, 0, 1});
    CHECK(counts(DropObject{"crab_a"}) == std::array<std::size_t, 4>{2, 0, 0, 0});
    CHECK(counts(AddObject{"people", "crab_b", "crab", PointPx{72, 48}}) == std::array<std::size_t, 4>{0, 2, 0, 0});
    CHECK(counts(GiveObject{"crab_a", {{"patrol_px", "8"}}}) == std::array<std::size_t, 4>{2, 2, 0, 0});
}

TEST_CASE("names within the two pictures are apart, and each that is used is there") {
    const Files files = worlds::small_world();
    const Document document(drawn(files, edited(files, EditMap{"flat", PaintCells{"", "bank", {{1, 0}}}})));
    std::map<std::string, int> names;
    for (const pugi::xpath_node& node : document.xml.select_nodes("//@id")) ++names[node.attribute().value()];
    for (const auto& [name, count] : names) {
        INFO(name);
        CHECK(count == 1);
    }
    std::size_t uses = 0;
    for (const pugi::xpath_node& node : document.xml.select_nodes("//@*[starts-with(., 'url(#')]")) {
        std::string name = node.attribute().value();
        name = name.substr(5, name.size() - 6);
        INFO(name);
        CHECK(names.count(name) == 1);
        ++uses;
    }
    CHECK(uses > 6);
}

TEST_CASE("a map that one version has is drawn once; one that neither has is an error") {
    const Files files = worlds::small_world();
    const Files more = edited(files, AddMap{"cellar", 3, 2, {}});
    const Document now(drawn(files, more, "cellar"));
    CHECK(now.count("/svg/svg") == 1);
    CHECK(now.has_text("after"));
    CHECK_FALSE(now.has_text("before"));
    CHECK(Document(drawn(more, files, "cellar")).has_text("before"));
    CHECK_THROWS_AS(drawn(files, more, "attic"), std::out_of_range);
}

TEST_CASE("both versions are drawn at one scale, beside each other where they are tall") {
    const Files files = worlds::small_world();
    const auto places = [](const Document& document) {
        std::vector<std::array<double, 4>> boxes;
        for (const pugi::xpath_node& node : document.xml.select_nodes("/svg/svg"))
            boxes.push_back({node.node().attribute("x").as_double(), node.node().attribute("y").as_double(),
                             node.node().attribute("width").as_double(), node.node().attribute("height").as_double()});
        return boxes;
    };
    const auto wide = places(Document(drawn(files, edited(files, EditMap{"flat", ResizeMap{12, 4}}))));
    REQUIRE(wide.size() == 2);
    CHECK(wide[0][0] == wide[1][0]);
    CHECK(wide[1][1] >= wide[0][1] + wide[0][3]);
    const Files high = edited(files, EditMap{"flat", ResizeMap{6, 60}});
    const auto tall = places(Document(drawn(high, edited(high, EditMap{"flat", PaintCells{"", "peat", {{1, 0}}}}))));
    REQUIRE(tall.size() == 2);
    CHECK(tall[0][1] == tall[1][1]);
    CHECK(tall[1][0] >= tall[0][0] + tall[0][2]);
}
