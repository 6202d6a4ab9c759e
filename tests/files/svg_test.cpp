// Objects drawn in SVG: where they are, what they are called, what they carry.
// Also tests src/files: read_svg svg_path
#include <catch2/catch.hpp>

#include "chance.hpp"
#include "files/svg_path_internal.hpp"
#include "worlds.hpp"

using namespace dryground;
using worlds::of_rule;
using worlds::with;

namespace {

worlds::Files drawn(const std::string& content, const std::string& layer = "") {
    worlds::Files files = worlds::small_world();
    files["flat.toml"] += "\n[[layers]]\nname = \"drawn\"\nsvg = \"walls.svg\"\n" + layer;
    files["walls.svg"] = "<?xml version=\"1.0\"?>\n<svg xmlns=\"http://www.w3.org/2000/svg\" xmlns:x=\"urn:x\">\n" +
                         content + "\n</svg>\n";
    return files;
}

const Object& object(const Loaded& loaded, const std::string& name) {
    const Map& map = loaded.world().maps()[0];
    return map.objects.at(static_cast<std::size_t>(map.find_object(name)));
}

Loaded good(const worlds::Files& files) {
    Loaded loaded = worlds::load(files);
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    return loaded;
}

constexpr const char* solid = "kind = \"solid\"\nbarrier = \"earth\"\n";

}   // namespace

TEST_CASE("elements of a drawing become objects with names, kinds and typed properties", "[svg]") {
    const Loaded loaded = good(drawn(R"svg(<g transform="translate(8 4)">
  <rect id="wall" x="8" y="8px" width="16" height="8" class="solid wet cold"/>
  <circle id="crab_b" class="crab" cx="30" cy="20" r="4" data-patrol-px="48.5"/>
</g>
<rect id="out" class="link" width="16" height="16" data-to="flat/landing" data-fires="use" data-needs="has_key" data-once="true"/>)svg",
                                     solid));
    CHECK(object(loaded, "wall").area == Regions{box_region({16 * 256, 12 * 256}, {32 * 256, 20 * 256})});
    CHECK(object(loaded, "wall").role == Role::solid);
    CHECK(object(loaded, "wall").tags == std::vector<std::string>{"wet", "cold"});
    CHECK(object(loaded, "crab_b").props.at("patrol_px") == Value{48.5});
    CHECK(object(loaded, "crab_b").position == Point{38 * 256, 24 * 256});
    CHECK(object(loaded, "out").fires == Fires::use);
    CHECK(object(loaded, "out").once);
    CHECK(object(loaded, "out").needs == std::vector<int>{0});
    CHECK(object(loaded, "out").link.map == 0);
}

TEST_CASE("every shape of a drawing has the area that it shows", "[svg]") {
    const Loaded loaded = good(drawn(R"svg(<rect id="a" width="10" height="10" transform="rotate(90)"/>
<rect id="b" x="2" width="10" height="10" rx="2"/>
<ellipse id="c" cx="10" cy="10" rx="8" ry="4" transform="rotate(90 10 10)"/>
<polygon id="d" points="0,0 10,0 10,10 0,10"/>
<path id="e" d="M0 0h20v20h-20z M5 5v10h10v-10z"/>
<path id="f" d="M0 0 C 0 10 20 10 20 0 Z"/>
<polyline id="g" points="0 0 10 0 10 10"/>
<line id="h" x1="0" y1="3" x2="9" y2="3"/>
<circle id="i" r="10" cx="0" cy="0" transform="translate(20 20) rotate(30) scale(0.5)"/>)svg",
                                     solid));
    const auto area = [&](const char* name) {
        return static_cast<double>(twice_area(object(loaded, name).area)) / 2 / 65536;
    };
    CHECK(bounds(object(loaded, "a").area) == Bounds{{-10 * 256, 0}, {0, 10 * 256}});
    CHECK(area("b") == Approx(100 - (16 - 3.14159 * 4)).margin(2));
    CHECK(bounds(object(loaded, "c").area) == Bounds{{6 * 256, 2 * 256}, {14 * 256, 18 * 256}});
    CHECK(area("d") == 100);
    CHECK(area("e") == 300);
    CHECK(area("f") == Approx(120).margin(4));   // the integral of 30 t (1 - t) over x
    CHECK(object(loaded, "g").line == Ring{{0, 0}, {2560, 0}, {2560, 2560}});
    CHECK(object(loaded, "h").line.size() == 2);
    CHECK(area("i") == Approx(3.14159 * 25).margin(2));
}

TEST_CASE("curves keep within the tolerance of where they run", "[svg]") {
    for (int round = 0; round < chance::rounds(200); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(static_cast<std::uint64_t>(round) + 11'000'000);
        std::array<std::array<double, 2>, 4> p{};
        for (auto& point : p) point = {dice.in(-200, 200) / 2.0, dice.in(-200, 200) / 2.0};
        const double within = dice.in(1, 64) / 64.0;
        const auto paths = files::parse_path(fmt::format("M{} {}C{} {} {} {} {} {}", p[0][0], p[0][1], p[1][0], p[1][1],
                                                         p[2][0], p[2][1], p[3][0], p[3][1]),
                                             files::identity, within);
        REQUIRE(paths);
        if (paths->empty()) continue;
        const auto& points = paths->front().points;
        for (int i = 0; i <= 100; ++i) {
            const double t = i / 100.0, s = 1 - t;
            std::array<double, 2> at{};
            for (std::size_t k = 0; k < 2; ++k)
                at[k] = s * s * s * p[0][k] + 3 * s * s * t * p[1][k] + 3 * s * t * t * p[2][k] + t * t * t * p[3][k];
            double least = 1e9;
            for (std::size_t j = 0; j + 1 < points.size(); ++j) {
                const double dx = points[j + 1][0] - points[j][0], dy = points[j + 1][1] - points[j][1];
                const double along = std::clamp(
                    ((at[0] - points[j][0]) * dx + (at[1] - points[j][1]) * dy) / (dx * dx + dy * dy), 0.0, 1.0);
                least =
                    std::min(least, std::hypot(at[0] - points[j][0] - along * dx, at[1] - points[j][1] - along * dy));
            }
            CHECK(least <= within + 1e-9);
        }
    }
}

TEST_CASE("what is not drawn is passed over; what cannot be read is told at its place", "[svg]") {
    const Loaded loaded = good(drawn(R"svg(<title>Walls</title><defs><rect id="no" width="1" height="1"/></defs>
<x:view zoom="3"/><rect id="hidden" display="none" width="4" height="4"/><g/>)svg",
                                     solid));
    CHECK(loaded.world().maps()[0].objects.size() == 2);

    const Report report = worlds::all_findings(drawn(R"svg(<text id="t">hello</text>
<rect id="a" width="wide" height="4"/>
<path id="b" d="M 0 0 X"/>
<path id="c" d="M0 0h4v4z M20 20h4v4z"/>
<rect id="d" width="4" height="4" transform="spin(3)"/>
<polygon id="e" points="0,0 4"/>
<circle id="f" class="crab" r="4" data-patrol-px="far"/>
<circle id="g" class="crap" r="4"/>)svg",
                                                     solid));
    const auto places = worlds::rules_and_places(report);
    for (const char* expected :
         {"unknown-key at walls.svg:3:1", "out-of-range at walls.svg:4:1", "out-of-range at walls.svg:5:1",
          "out-of-range at walls.svg:6:1", "out-of-range at walls.svg:7:1", "out-of-range at walls.svg:8:1",
          "kind-field at walls.svg:9:1", "unknown-name at walls.svg:10:1"}) {
        INFO(expected << "\n" << text(report));
        CHECK(std::find(places.begin(), places.end(), expected) != places.end());
    }
    CHECK(places.size() == 8);
}

TEST_CASE("a drawing that is none", "[svg]") {
    worlds::Files files = drawn("", solid);
    files["walls.svg"] = "<svg><rect></svg>";
    CHECK(of_rule(worlds::all_findings(files), Rule::syntax).size() == 1);
    files["walls.svg"] = "<html/>";
    CHECK(of_rule(worlds::all_findings(files), Rule::syntax).size() == 1);
    files["walls.svg"] = "\xff";
    CHECK(of_rule(worlds::all_findings(files), Rule::bad_text).size() == 1);
    std::string deep;
    for (int i = 0; i < 1000; ++i) deep += "<g>";
    for (int i = 0; i < 1000; ++i) deep += "</g>";
    CHECK(of_rule(worlds::all_findings(drawn(deep, solid)), Rule::too_large).size() == 1);
    // Entities that grow do not.
    files = drawn("", solid);
    files["walls.svg"] =
        "<!DOCTYPE svg [<!ENTITY a \"aaaaaaaaaa\"><!ENTITY b \"&a;&a;&a;&a;\">]><svg><rect id=\"x\" width=\"4\" "
        "height=\"4\" class=\"&b;\"/></svg>";
    CHECK(worlds::all_findings(files).has(Severity::error));
    files.erase("walls.svg");
    CHECK(of_rule(worlds::all_findings(files), Rule::file_missing).size() == 1);
}
