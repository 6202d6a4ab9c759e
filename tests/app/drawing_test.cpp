// Pictures as the command line makes them: compared with approved ones by their elements and by coarse pixels, and
// driven as a user would.
// Also tests src/draw: svg_renderer
#include <catch2/catch.hpp>

#include <fstream>
#include <map>
#include <pugixml.hpp>

#include "approved.hpp"
#include "dryground/dryground.hpp"

using process::Outcome;
using process::tool;
namespace fs = std::filesystem;

namespace {

dryground::Image image_of(const fs::path& file) {
    const auto image = dryground::decode_png(process::slurp(file));
    INFO(file << " " << image.fault());
    REQUIRE(image);
    return *image;
}

constexpr int block = 32;   // px a side, written as one hexadecimal digit a channel

std::string coarse(const dryground::Image& image) {
    std::string text = fmt::format("{} x {}\n", image.width, image.height);
    for (int top = 0; top < image.height; top += block) {
        for (int left = 0; left < image.width; left += block) {
            std::array<long, 3> sums{};
            long count = 0;
            for (int y = top; y < std::min(top + block, image.height); ++y)
                for (int x = left; x < std::min(left + block, image.width); ++x, ++count)
                    for (std::size_t k = 0; k < 3; ++k)
                        sums[k] += image.rgba[static_cast<std::size_t>(y * image.width + x) * 4 + k];
            for (const long sum : sums) text += fmt::format("{:x}", sum / count / 16);
            text += ' ';
        }
        text += '\n';
    }
    return text;
}

// How many blocks differ by more than a step: other versions of fonts and renderers may differ by less.
std::size_t differing(const std::string& a, const std::string& b) {
    if (a.size() != b.size()) return std::max(a.size(), b.size());
    const std::string digits = "0123456789abcdef";
    std::size_t count = 0;
    for (std::size_t i = 0; i < a.size(); ++i) {
        const auto p = digits.find(a[i]), q = digits.find(b[i]);
        if (p == std::string::npos || q == std::string::npos)
            count += a[i] != b[i];
        else
            count += std::max(p, q) - std::min(p, q) > 1;
    }
    return count;
}

// Each sort of element with its way from the top, and how many there are.
void count_elements(const pugi::xml_node& node, const std::string& way, std::map<std::string, int>& counts) {
    for (const pugi::xml_node& child : node.children()) {
        if (child.type() != pugi::node_element) continue;
        std::string name = child.name();
        for (const char* key : {"id", "class", "data-layer", "data-barrier"})
            if (const auto value = child.attribute(key); value && std::string(child.name()) != "pattern")
                name += fmt::format("[{}]", value.value());
        ++counts[way + "/" + name];
        count_elements(child, way + "/" + name, counts);
    }
}

std::string structure(const fs::path& file) {
    pugi::xml_document xml;
    REQUIRE(xml.load_file(file.c_str()));
    std::map<std::string, int> counts;
    count_elements(xml, "", counts);
    std::string text;
    for (const auto& [way, count] : counts) text += fmt::format("{} {}\n", count, way);
    return text;
}

struct Sort {
    const char* name;
    const char* words;
};
constexpr Sort sorts[] = {
    {"slipway", "demo/world.toml --map slipway"},
    {"pump_house", "demo/world.toml --map pump_house --show art grid shapes pieces flags sides reach --fade art=0.5"},
    {"broken", "demo/broken/world.toml --map slipway"},
    {"grey", "demo/world.toml --map slipway --palette grey --area 2,4,16,8 --scale 4"},
    {"mover", "demo/world.toml --map slipway --mover crab --grow 2 --layer ground people"},
    {"marsh", "demo/tiles/marsh.tiles.toml"},
    {"station", "demo/world.toml --tileset station"},
};

}   // namespace

TEST_CASE("pictures have the approved elements, and look as approved", "[approved]") {
    const process::Folder folder;
    for (const Sort& sort : sorts) {
        INFO(sort.name);
        const fs::path svg = folder.path / (std::string(sort.name) + ".svg"),
                       png = folder.path / (std::string(sort.name) + ".png");
        REQUIRE(tool(fmt::format("draw {} --out {}", sort.words, svg.string())).code == 0);
        REQUIRE(tool(fmt::format("draw {} --out {}", sort.words, png.string())).code == 0);
        approved::check(fmt::format("{}.svg.txt", sort.name), structure(svg));
        approved::check(fmt::format("{}.png.txt", sort.name), coarse(image_of(png)),
                        [](const std::string& now, const std::string& before) { return differing(now, before) <= 8; });
    }
}

TEST_CASE("draw in characters is plain text when nobody watches, fits, and is as approved", "[approved]") {
    const Outcome demo = tool("draw demo/world.toml");
    CHECK(demo.code == 0);
    CHECK(demo.err.empty());
    CHECK(demo.out.find('\033') == std::string::npos);
    approved::check("characters.txt", demo.out + tool("draw demo/broken/world.toml --map slipway --width 100").out +
                                          tool("draw demo/world.toml --map slipway --area 20,3,20,6").out);
}

TEST_CASE("draw draws a tile set from its file, or of a world") {
    const process::Folder folder;
    const std::string out = (folder.path / "a.svg").string(), other = (folder.path / "b.svg").string();
    CHECK(tool(fmt::format("draw demo/tiles/marsh.tiles.toml --out {}", out)).code == 0);
    CHECK(tool(fmt::format("draw demo/world.toml --tileset marsh --out {}", other)).code == 0);
    CHECK(process::slurp(out) == process::slurp(other));
    CHECK(tool("draw demo/world.toml --tileset mash --out a.svg").err.find("did you mean 'marsh'") !=
          std::string::npos);
    CHECK(tool("draw demo/tiles/marsh.tiles.toml").code == 2);
}

TEST_CASE("what draw cannot do it reports, with how to fix it") {
    for (const auto& [words, told] : std::map<std::string, std::string>{{"--fade art", "art=0.4"},
                                                                        {"--fade art=2", "from 0 to 1"},
                                                                        {"--fade rat=0.5", "did you mean 'art'"},
                                                                        {"--layer grond", "did you mean 'ground'"},
                                                                        {"--area 100,100,5,5", "none of them is in it"},
                                                                        {"--area 1,1,0,5", "1 or more cells"},
                                                                        {"--mover crb", "did you mean 'crab'"},
                                                                        {"--scale 0", "--scale"},
                                                                        {"--palette blue", "--palette"}}) {
        const Outcome outcome = tool("draw demo/world.toml --map slipway " + words + " --out /no/such/folder/a.svg");
        INFO(words << "\n" << outcome.err);
        CHECK(outcome.code == 2);
        CHECK(outcome.err.find(told) != std::string::npos);
    }
    CHECK(tool("draw demo/world.toml --watch").err.find("use --out") != std::string::npos);
}

TEST_CASE("a file that cannot be written whole is not written") {
    const process::Folder folder;
    const std::string out = (folder.path / "a.png").string();
    REQUIRE(tool(fmt::format("draw demo/world.toml --map slipway --out {}", out)).code == 0);
    const std::string before = process::slurp(out);
    // no more than 10 blocks of 1024 bytes to a file
    const Outcome outcome = process::run(fmt::format(
        "bash -c \"ulimit -f 10; trap '' XFSZ; '{}' draw demo/world.toml --map slipway --scale 3 --out {}\"",
        DRYGROUND_COMMAND, out));
    CHECK(outcome.code == 2);
    CHECK(process::slurp(out) == before);
    CHECK(std::distance(fs::directory_iterator(folder.path), fs::directory_iterator()) == 1);
}

TEST_CASE("without librsvg a PNG fails with what is to be installed, and everything else works") {
    const process::Folder folder;
    const auto without = [&](const std::string& words) {
        return process::run(
            fmt::format("env LD_LIBRARY_PATH='{}' '{}' {}", folder.path.string(), DRYGROUND_COMMAND, words));
    };
    std::ofstream(folder.path / "librsvg-2.so.2") << "no library";
    const fs::path png = folder.path / "a.png", svg = folder.path / "a.svg";
    const Outcome outcome = without(fmt::format("draw demo/world.toml --map slipway --out {}", png.string()));
    CHECK(outcome.code == 2);
    CHECK(outcome.err.find("librsvg is needed for PNG") != std::string::npos);
    CHECK(!fs::exists(png));
    CHECK(without(fmt::format("draw demo/world.toml --map slipway --out {}", svg.string())).code == 0);
    CHECK(fs::exists(svg));
    CHECK(without("check demo/world.toml").code == 0);
}

TEST_CASE("probe reports what is somewhere, and why", "[approved]") {
    const std::string station = tool("probe demo/world.toml --map pump_house --cell 9,6 --mover warden").out,
                      contact = tool("probe demo/maps/slipway.map.toml --at 200,128 --normal 0,-1").out,
                      objects = tool("probe demo/world.toml --map slipway --at 600,72").out;
    approved::check("probe.txt", station + contact + objects);
    const Outcome nowhere = tool("probe demo/world.toml --map slipway");
    CHECK(nowhere.code == 2);
    CHECK(nowhere.err.find("--at X,Y") != std::string::npos);
    CHECK(tool("probe demo/world.toml --at 1,1").err.find("choose a map") != std::string::npos);
    CHECK(tool("probe demo/world.toml --map slipway --at 1e12,0").code == 2);
    CHECK(tool("probe demo/world.toml --map slipway --at 1,1 --mover wardn").err.find("did you mean 'warden'") !=
          std::string::npos);
}

TEST_CASE("an isometric map is laid flat in a picture, without art") {
    const process::Folder folder;
    const std::string out = (folder.path / "flat.svg").string();
    REQUIRE(tool("draw demo/world.toml --map jetty --plane ground --out " + out).code == 0);
    pugi::xml_document flat;
    REQUIRE(flat.load_file(out.c_str()));
    CHECK(flat.select_nodes("//image").empty());
    CHECK_FALSE(flat.select_nodes("//*[@id='merged']").empty());
    CHECK_FALSE(flat.select_nodes("//*[@id='objects']").empty());
    const Outcome on_terminal = tool("draw demo/world.toml --map jetty --plane ground");
    CHECK(on_terminal.code == 2);
    CHECK(on_terminal.err.find("--out FILE, ending in .svg or .png") != std::string::npos);
}
