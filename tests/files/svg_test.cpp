// Objects drawn in SVG: where they are, what they are called, what they carry.
// Also tests src/files: read_svg svg_path svg_shapes svg_style
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

const Object& object(const Result<World>& loaded, const std::string& name) {
    const Map& map = loaded->maps()[0];
    return map.objects.at(static_cast<std::size_t>(map.find_object(name)));
}

Result<World> good(const worlds::Files& files) {
    Result<World> loaded = worlds::load(files);
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    return loaded;
}

constexpr const char* solid = "kind = \"solid\"\nbarrier = \"earth\"\n";

}   // namespace

TEST_CASE("elements of a drawing become objects with names, kinds and typed properties", "[svg]") {
    const Result<World> loaded = good(drawn(R"svg(<g transform="translate(8 4)">
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
    CHECK(object(loaded, "out").needs == std::vector{FactId{0}});
    CHECK(object(loaded, "out").link.map == MapId{0});
}

TEST_CASE("every shape of a drawing has the area that it shows", "[svg]") {
    const Result<World> loaded = good(drawn(R"svg(<rect id="a" width="10" height="10" transform="rotate(90)"/>
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

TEST_CASE("what is not drawn is passed over; what cannot be read is reported at its place", "[svg]") {
    const Result<World> loaded = good(drawn(R"svg(<title>Walls</title><defs><rect id="no" width="1" height="1"/></defs>
<x:view zoom="3"/><rect id="hidden" display="none" width="4" height="4"/><g/>)svg",
                                            solid));
    CHECK(loaded->maps()[0].objects.size() == 2);

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
         {"svg-passed-over at walls.svg:2:1", "out-of-range at walls.svg:4:1", "out-of-range at walls.svg:5:1",
          "out-of-range at walls.svg:6:1", "out-of-range at walls.svg:7:1", "out-of-range at walls.svg:8:1",
          "kind-field at walls.svg:9:1", "unknown-name at walls.svg:10:1"}) {
        INFO(expected << "\n" << text(report));
        CHECK(std::find(places.begin(), places.end(), expected) != places.end());
    }
    CHECK(places.size() == 8);
}

TEST_CASE("a file that is not a drawing", "[svg]") {
    worlds::Files files = drawn("", solid);
    files["walls.svg"] = "<svg><rect></svg>";
    CHECK(of_rule(worlds::all_findings(files), Rule::bad_picture).size() == 1);
    files["walls.svg"] = "<html/>";
    CHECK(of_rule(worlds::all_findings(files), Rule::bad_picture).size() == 1);
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

namespace {

// A drawing as a whole file, in a layer whose objects are solids of earth.
worlds::Files saved_as(const std::string& svg, const std::string& layer = "kind = \"solid\"\nbarrier = \"earth\"\n") {
    worlds::Files files = drawn("", layer);
    files["walls.svg"] = svg;
    return files;
}
Bounds box_px(double x, double y, double right, double bottom) {
    return {{to_steps(x), to_steps(y)}, {to_steps(right), to_steps(bottom)}};
}
std::vector<std::string> told(const worlds::Files& files) {
    return worlds::rules_and_places(worlds::all_findings(files));
}

}   // namespace

TEST_CASE("a page in mm as large as the map is laid over it, hidden layers and backdrops are not there", "[svg]") {
    // The map is 96 x 64 px: 25.4 x 16.933333 mm.
    const worlds::Files files = saved_as(R"svg(<?xml version="1.0" encoding="UTF-8" standalone="no"?>
<svg width="25.4mm" height="16.933332mm" viewBox="0 0 25.4 16.933332" version="1.1" id="svg5"
   xmlns="http://www.w3.org/2000/svg" xmlns:d="urn:drawing" xmlns:xlink="http://www.w3.org/1999/xlink">
  <d:view id="view7" d:pageopacity="0.0"/>
  <defs id="defs2"><rect id="clip" width="3" height="3"/></defs>
  <g d:label="backdrop" id="layer2" style="display:inline"><image width="25.4" height="16.9" xlink:href="flat.png" id="image9"/></g>
  <g d:label="walls" id="layer1" style="display:inline;fill:#7a5c3a" transform="translate(-1.0583333,2.1166667)">
    <rect style="fill:#7a5c3a;stroke:none;stroke-width:0.26" id="sea_wall" width="4.2333333" height="2.1166667" x="5.2916667" y="4.2333333"/>
    <path style="fill:none;stroke:#000000" d="m 2.1166667,0 h 4.2333333" id="rail"/>
    <path style="fill:#7a5c3a" d="m 10.583333,0 h 4.2333333 v 4.2333333" id="ramp"/>
    <rect style="visibility:hidden" id="unseen_one" width="1" height="1"/>
  </g>
  <g id="layer3" style="display:none"><rect id="old" width="9" height="9"/></g>
</svg>)svg");
    const Result<World> loaded = good(files);
    const Map& map = loaded->maps()[0];
    CHECK(bounds(object(loaded, "sea_wall").area) == box_px(16, 24, 32, 32));
    CHECK(object(loaded, "rail").line == Ring{{to_steps(4), to_steps(8)}, {to_steps(20), to_steps(8)}});
    CHECK(bounds(object(loaded, "ramp").area) == box_px(36, 8, 52, 24));   // open, but filled
    for (const char* gone : {"old", "unseen_one", "clip", "image9"}) CHECK(map.find_object(gone) == ObjectId::none);
    const auto places = told(files);
    CHECK(std::count(places.begin(), places.end(), "svg-passed-over at walls.svg:2:1") == 1);
    CHECK(std::count_if(places.begin(), places.end(), [](const std::string& one) { return one.find("svg-") == 0; }) ==
          1);
}

TEST_CASE("classes of a style sheet are looks, colours and symbols give kinds, ids with spaces are reported", "[svg]") {
    const worlds::Files files =
        saved_as(R"svg(<svg id="Layer_1" data-name="Layer 1" xmlns="http://www.w3.org/2000/svg" viewBox="0 0 96 64">
<defs><style>.cls-1, .cls-3 { fill: #2F7F93; } .cls-2 { fill: none; stroke: rgb(122, 92, 58); } .cls-4{display:none}</style>
<symbol id="post"><rect width="4" height="8"/></symbol></defs>
<rect class="cls-1" id="pool" x="8" y="8" width="16" height="8"/>
<polyline class="cls-2" id="Hand Rail" points="0 40 16 40"/>
<rect class="cls-4" id="gone" width="4" height="4"/>
<use id="post_1" href="#post" x="40" y="16" class="cls-1"/>
<use id="post_2" href="#post" transform="translate(60 16)" fill="#2f7f93"/>
</svg>)svg",
                 "legend = { \"#2f7f93\" = { kind = \"solid\", barrier = \"brine\" }, \"#7a5c3a\" = { kind "
                 "= \"solid\", barrier = \"earth\" } }\n");
    const Result<World> loaded = good(files);
    const World& world = *loaded;
    const Map& map = world.maps()[0];
    CHECK(object(loaded, "pool").barrier == world.find_barrier("brine"));
    CHECK(bounds(object(loaded, "pool").area) == box_px(8, 8, 24, 16));
    CHECK(bounds(object(loaded, "post_2").area) == box_px(60, 16, 64, 24));
    CHECK(object(loaded, "post_2").barrier == world.find_barrier("brine"));
    CHECK(map.find_object("gone") == ObjectId::none);
    const auto rail =
        std::find_if(map.objects.begin(), map.objects.end(), [](const Object& one) { return !one.line.empty(); });
    REQUIRE(rail != map.objects.end());
    CHECK(rail->name.empty());
    CHECK(rail->barrier == world.find_barrier("earth"));   // by its stroke
    CHECK_THAT(text(worlds::all_findings(files)), Catch::Contains("call it: hand_rail"));
}

TEST_CASE("a page of another size is taken px by px, and both sizes are reported", "[svg]") {
    const worlds::Files files =
        saved_as(R"svg(<svg xmlns="http://www.w3.org/2000/svg" width="192px" height="128px" viewBox="0 0 96 128">
<rect id="a" x="8" y="8" width="16" height="8"/></svg>)svg");
    CHECK(bounds(object(good(files), "a").area) == box_px(16, 8, 48, 16));
    CHECK_THAT(text(worlds::all_findings(files)), Catch::Contains("192 x 128 px, but the map is 96 x 64 px"));
    // A view of the map's size goes before a page of any other.
    const worlds::Files view =
        saved_as(R"svg(<svg xmlns="http://www.w3.org/2000/svg" width="210mm" height="140mm" viewBox="-8 -8 96 64">
<rect id="a" x="0" y="0" width="16" height="8"/></svg>)svg");
    CHECK(bounds(object(good(view), "a").area) == box_px(8, 8, 24, 16));
    CHECK(of_rule(worlds::all_findings(view), Rule::svg_size).empty());
}

TEST_CASE("vertices of a drawing snap", "[svg]") {
    const std::string svg =
        R"svg(<svg xmlns="http://www.w3.org/2000/svg"><rect id="a" x="7.9" y="8.2" width="16.3" height="7.9"/>
<polygon id="b" points="0.2 40.1 15.8 40.3 16.1 40.4 16.1 55.7"/></svg>)svg";
    const Result<World> whole = good(saved_as(svg, std::string(solid) + "snap = 1\n"));
    CHECK(bounds(object(whole, "a").area) == box_px(8, 8, 24, 16));
    CHECK(object(whole, "b").area ==
          Regions{{{{0, to_steps(40)}, {to_steps(16), to_steps(40)}, {to_steps(16), to_steps(56)}}, {}}});
    worlds::Files parts = saved_as(svg, std::string(solid) + "snap = \"cell_parts\"\n");
    parts = with(parts, "flat.toml", "cell = [16, 16]", "cell = [16, 16]\ncell_parts = 2");
    CHECK(bounds(object(good(parts), "a").area) == box_px(8, 8, 24, 16));
    for (const char* wrong : {"snap = 0", "snap = \"parts\"", "snap = true"})
        CHECK(of_rule(worlds::all_findings(saved_as(svg, std::string(solid) + wrong + "\n")), Rule::out_of_range)
                  .size() == 1);
}

TEST_CASE("what uses itself, and what is used too often, ends", "[svg]") {
    const auto errors = [](const std::string& content) {
        return of_rule(worlds::all_findings(saved_as("<svg>" + content + "</svg>")), Rule::too_large).size();
    };
    CHECK(errors("<g id=\"a\"><use href=\"#a\"/></g>") == 1);
    std::string tens = "<g id=\"n0\"><rect width=\"1\" height=\"1\"/></g>";
    for (int i = 1; i < 9; ++i) {
        tens += fmt::format("<g id=\"n{}\">", i);
        for (int k = 0; k < 10; ++k) tens += fmt::format("<use href=\"#n{}\"/>", i - 1);
        tens += "</g>";
    }
    if (!chance::sanitized)   // a minute
        CHECK(errors("<defs>" + tens + "</defs><use href=\"#n8\"/>") == 1);
    CHECK(of_rule(worlds::all_findings(saved_as("<svg><use href=\"#none\"/></svg>")), Rule::unknown_name).size() == 1);
}

TEST_CASE("wrong values of keys in a drawing are reported", "[svg]") {
    const Report report =
        worlds::all_findings(drawn(R"svg(<rect id="a" class="trigger" width="4" height="4" data-once="maybe"/>
<rect id="b" class="trigger" width="4" height="4" data-every-s="soon"/>
<rect id="c" class="trigger" width="4" height="4" data-once="1" data-every-s="0.5" data-fires="inside"/>)svg"));
    CHECK(of_rule(report, Rule::wrong_type).size() == 2);
    const Result<World> loaded = worlds::load(
        drawn(R"svg(<rect id="c" class="trigger" width="4" height="4" data-once="1" data-every-s="0.5"/>)svg"));
    REQUIRE(loaded);
    CHECK(object(loaded, "c").once);
    CHECK(object(loaded, "c").every_s == 0.5);
}
