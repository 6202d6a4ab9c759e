// Every check rule: tripped at its place, and silent for a near miss.
// Also tests src/check: facts links objects tiles
// Also tests src/model: rule_pages
#include <catch2/catch.hpp>

#include <set>

#include "dryground/pack_parts.hpp"
#include "random_worlds.hpp"
#include "tripped.hpp"
#include "worlds.hpp"

using namespace dryground;
using worlds::Files;

namespace {

constexpr const char* last_object = "  { name = \"crab_a\", kind = \"crab\", at = [40, 48] },\n";

// A world with a second map that is linked both ways.
Files linked_world() {
    Files files = worlds::small_world();
    files["cave.toml"] = R"(format = "dryground/map/1"
name = "cave"
cell = [16, 16]
size = [4, 3]
rim = "earth"
tilesets = ["marsh"]
legend = { "#" = "peat" }
[[layers]]
name = "ground"
rows = '''
....
....
####
'''
[[layers]]
name = "people"
objects = [
  { name = "mat", kind = "entity", at = [24, 32] },
  { name = "out", kind = "link", cell = [3, 1], to = "flat/landing" },
]
)";
    files = worlds::with(files, "world.toml", "[\"flat.toml\"]", "[\"flat.toml\", \"cave.toml\"]");
    return worlds::with(
        files, "flat.toml", last_object,
        std::string(last_object) + "  { name = \"door\", kind = \"link\", cell = [3, 2], to = \"cave/mat\" },\n");
}

struct Row {
    const char *file, *from, *to;
    const char* expected;   // rule at place; empty when it must stay silent
};

const Row tripping[] = {
    {"marsh.toml", "[16, 0], [16, 16]]", "[16, 16], [16, 0], [8, 20], [4, 2]]",
     "shape-crosses-itself at marsh.toml:13:11"},
    {"marsh.toml", "[16, 0], [16, 16]]", "[16, 0], [16, 16], [8, 16]]",
     ""},   // a point in a straight run does not cross
    {"marsh.toml", "[0, 16], [16, 0], [16, 16]", "[0, 16], [8, 16], [16, 16]", "shape-empty at marsh.toml:13:11"},
    {"marsh.toml", "[0, 16], [16, 0], [16, 16]", "[0, 16], [8, 14.9], [16, 16]", ""},
    {"marsh.toml", "[0, 16], [16, 0], [16, 16]", "[0, 16], [17, 0], [16, 16]", "shape-outside at marsh.toml:13:11"},
    {"marsh.toml", "[0, 16], [16, 0], [16, 16]", "[0, 32], [16, 16], [16, 32]", "shape-outside at marsh.toml:13:11"},
    {"marsh.toml", "shapes = [{ polygon = [[0, 16]", "overhang = true\nshapes = [{ polygon = [[0, 17]", ""},
    {"marsh.toml", "barrier = \"earth\"\nshapes = [\"cell\"]\n", "barrier = \"earth\"\n",
     "undecided at marsh.toml:5:8"},
    {"marsh.toml", "shapes = []\n", "", ""},   // undecided, but used nowhere
    {"marsh.toml", "barrier = \"earth\"\nshapes = [\"cell\"]\n", "shapes = [\"cell\"]\n",
     "no-barrier at marsh.toml:7:11"},
    {"marsh.toml", "barrier = \"brine\"\n", "", ""},   // no barrier, but used nowhere
    {"flat.toml", "cell = [16, 16]", "cell = [16, 15]", "cell-size at flat.toml:3:8"},
    {"world.toml", "start = \"flat/landing\"\n", "", "start-missing at world.toml:1:1"},
    {"world.toml", "flat/landing", "flat/landin", "start-missing at world.toml:4:9"},
    {"world.toml", "flat/landing", "flt/landing", "start-missing at world.toml:4:9"},
    {"flat.toml", "at = [24, 48]", "at = [24, 48.25]", "spawn-blocked at flat.toml:21:44"},
    {"flat.toml", "at = [24, 48]", "at = [4, 48]", "spawn-blocked at flat.toml:21:44"},   // in the rim
    {"flat.toml", "at = [24, 48]", "at = [5, 48]", ""},   // touches rim and ground, which is free
    {"flat.toml", "at = [40, 48]", "at = [60, 48]",
     "spawn-blocked at flat.toml:22:42"},   // an entity with a body, in the slope
    {"flat.toml", "at = [40, 48]", "at = [59, 48]", ""},
    {"flat.toml", "kind = \"spawn\", at", "kind = \"spawn\", when = [\"has_key\"], at", ""},
    {"flat.toml", last_object, "  { name = \"sill\", kind = \"entity\", at = [97, 40] },\n",
     "object-outside at flat.toml:22:42"},
    {"flat.toml", last_object, "  { name = \"sill\", kind = \"entity\", at = [96, 40] },\n", ""},
    {"flat.toml", last_object, "  { kind = \"trigger\", box = [96, 0, 8, 8] },\n", "object-outside at flat.toml:22:29"},
    {"flat.toml", last_object, "  { kind = \"trigger\", box = [95, 0, 8, 8] },\n", ""},
    {"flat.toml", last_object, "  { name = \"bell\", kind = \"trigger\", at = [40, 40] },\n",
     "trigger-empty at flat.toml:22:43"},
    {"flat.toml", last_object, "  { name = \"bell\", kind = \"trigger\", box = [40, 40, 0, 8] },\n",
     "trigger-empty at flat.toml:22:44"},
    {"flat.toml", last_object, "  { name = \"bell\", kind = \"trigger\", cell = [2, 2] },\n", ""},
    {"flat.toml", last_object, "  { name = \"bell\", kind = \"trigger\", at = [40, 40], fires = \"start\" },\n", ""},
    {"flat.toml", last_object, "  { kind = \"solid\", box = [40, 0, 8, 8] },\n", "no-barrier at flat.toml:22:3"},
    {"flat.toml", last_object, "  { kind = \"solid\", box = [40, 0, 8, 8], barrier = \"earth\" },\n", ""},
    {"flat.toml", last_object, "  { kind = \"solid\", at = [40, 0], barrier = \"earth\" },\n",
     "shape-empty at flat.toml:22:26"},
    {"flat.toml", last_object,
     "  { kind = \"solid\", polygon = [[40, 0], [48, 8], [48, 0], [40, 8]], barrier = \"earth\" },\n",
     "shape-crosses-itself at flat.toml:22:31"},
    {"flat.toml", "to = \"cave/mat\"", "to = \"cave/matt\"", "link-target at flat.toml:23:55"},
    {"flat.toml", "to = \"cave/mat\"", "to = \"cove/mat\"", "link-target at flat.toml:23:55"},
    {"cave.toml", "to = \"flat/landing\"", "to = \"flat/crab_a\"", ""},
    {"cave.toml", "at = [24, 32]", "at = [24, 33]", "link-arrival-blocked at flat.toml:23:55"},
    {"cave.toml", "to = \"flat/landing\"", "to = \"mat\"", "link-without-return at flat.toml:23:55"},
    {"cave.toml", "to = \"flat/landing\"", "to = \"flat/landing\", one_way = true", ""},
};

}   // namespace

TEST_CASE("the linked test world checks clean") {
    const Report report = worlds::all_findings(linked_world());
    INFO(text(report));
    CHECK(report.empty());
}

TEST_CASE("each check trips at its place, and stays silent for a near miss") {
    const Row& row = GENERATE(from_range(std::begin(tripping), std::end(tripping)));
    CAPTURE(row.file, row.to);
    const Report report = worlds::all_findings(worlds::with(linked_world(), row.file, row.from, row.to));
    CAPTURE(text(report));
    const auto found = worlds::rules_and_places(report);
    if (std::string(row.expected).empty())
        CHECK(found.empty());
    else
        CHECK(std::count(found.begin(), found.end(), row.expected) == 1);
}

namespace {

const bool noted = [] {
    for (const char* other : {"kind-field", "turn-not-square", "family-gap", "art-outside", "svg-size",
                              "svg-passed-over", "svg-id", "not-in-world"})
        tripped().insert(other);   // reading tests
    for (const Row& row : tripping)
        tripped().insert(std::string(row.expected).substr(0, std::string(row.expected).find(' ')));
    return true;
}();

}   // namespace

TEST_CASE("every check rule has a row that trips it") {
    REQUIRE(noted);
    for (const RuleText& rule : all_rules())
        if (rule.rule > Rule::like_chain) {
            INFO(rule.name);
            CHECK(tripped().count(std::string(rule.name)) == 1);
        }
}

TEST_CASE("every rule has a page of its own") {
    for (const RuleText& rule : all_rules()) {
        const RulePage& page = rule_page(rule.rule);
        CHECK(page.rule == rule.rule);
        CHECK_FALSE(page.fix.empty());
        for (const std::string_view sentence : {page.means, page.effect}) {
            CHECK((sentence.front() >= 'A' && sentence.front() <= 'Z'));
            CHECK(sentence.back() == '.');
        }
    }
}

TEST_CASE("rules of one subject stand together") {
    std::vector<std::string_view> subjects;
    for (const RuleText& rule : all_rules())
        if (subjects.empty() || subjects.back() != subject_of(rule.rule)) subjects.push_back(subject_of(rule.rule));
    CHECK(subjects == std::vector<std::string_view>{"Reading", "Tile sets", "Maps", "Objects", "Links",
                                                    "Facts, events, names", "Walking", "Waivers"});
    CHECK(subject_of(Rule::sheet_cut) == "Tile sets");
    CHECK(subject_of(Rule::map_unlinked) == "Links");
    CHECK(subject_of(Rule::jump_unknown) == "Walking");
}

TEST_CASE("the nearest free place is free, nearest and makes the finding go away") {
    for (const char* at : {"at = [24, 60]", "at = [24, 52.5]", "at = [90, 40]", "at = [-8, 20]", "at = [66, 44]"}) {
        const Files files = worlds::with(worlds::small_world(), "flat.toml", "at = [24, 48]", at);
        const Report before = worlds::all_findings(files);
        const auto blocked = worlds::of_rule(before, Rule::spawn_blocked);
        INFO(at << "\n" << text(before));
        REQUIRE(blocked.size() == 1);
        REQUIRE(blocked[0]->hint);
        const Files mended = worlds::with(worlds::small_world(), "flat.toml", "at = [24, 48]", blocked[0]->hint->set);
        CHECK(worlds::all_findings(mended).empty());
    }
    const Report deep =
        worlds::all_findings(worlds::with(worlds::small_world(), "flat.toml", "at = [24, 48]", "at = [24, 52]"));
    CHECK(message(*worlds::of_rule(deep, Rule::spawn_blocked)[0]) == "'landing' stands 4 px inside solid ground");
    CHECK(worlds::of_rule(deep, Rule::spawn_blocked)[0]->hint->set == "at = [24, 48]");
}

TEST_CASE("cells without a flag that a mover needs are closed to it") {
    const Files needs = worlds::with(worlds::small_world(), "world.toml", "stopped_by = [\"earth\", \"brine\"]",
                                     "stopped_by = [\"earth\", \"brine\"]\nneeds = [\"walk\"]");
    const Report closed = worlds::all_findings(needs);
    REQUIRE(worlds::of_rule(closed, Rule::spawn_blocked).size() == 2);
    CHECK(message(*worlds::of_rule(closed, Rule::spawn_blocked)[0]).find("cells that are closed to it") !=
          std::string::npos);
    // a boardwalk under its feet grants the flag
    const Files open =
        worlds::with(worlds::with(needs, "flat.toml", "\"/\" = \"bank\"", "\"/\" = \"bank\", \"=\" = \"boardwalk\""),
                     "flat.toml", "......\n......\n..../#", "......\n......\n====/#");
    CHECK(worlds::of_rule(worlds::all_findings(open), Rule::spawn_blocked).empty());
}

TEST_CASE("the world sets severities, and a rule that is off is silent") {
    const Files files = worlds::with(worlds::small_world(), "flat.toml", "at = [24, 48]", "at = [24, 49]");
    const auto with_severity = [&](const char* severity) {
        return worlds::all_findings(worlds::with(
            files, "world.toml", "tile-unused =", fmt::format("spawn-blocked = \"{}\"\ntile-unused =", severity)));
    };
    CHECK(with_severity("note").counts().note == 1);
    CHECK(with_severity("warning").counts().warning == 1);
    CHECK(with_severity("off").empty());
}

TEST_CASE("findings name map, layer, object and cells, and the things in the way") {
    const Report report =
        worlds::all_findings(worlds::with(worlds::small_world(), "flat.toml", "at = [24, 48]", "at = [24, 50]"));
    const Finding& finding = *worlds::of_rule(report, Rule::spawn_blocked).at(0);
    CHECK(finding.map == "flat");
    CHECK(finding.layer == "people");
    CHECK(finding.object == "landing");
    CHECK(finding.cells == std::vector<Cell>{{1, 3}});
    CHECK(finding.details.back() == "in the way: peat at (1, 3)");
}

TEST_CASE("a map that is read and checked by itself has the findings that it has among all maps, visitors apart") {
    int compared = 0, found = 0;
    for (int round = 0; round < chance::rounds(20); ++round) {
        DRYGROUND_ROUND(round);
        worlds::Files files;
        for (const NamedBytes& file : *world_files(random_worlds::make(static_cast<std::uint64_t>(round))))
            files[file.file] = file.bytes;
        const Result<World> whole = load_world("world.toml", worlds::reader_of(files));
        if (!whole || whole->maps().size() < 2) continue;
        for (const Map& map : whole->maps()) {
            const Result<World> part =
                load_map_drafts("world.toml", map.name, worlds::reader_of(files))->builder.build();
            REQUIRE(part);
            REQUIRE(part->maps().size() == 1);
            const Report by_itself = check(*part, {{}, map.name});
            const Report among_all = check(*whole, {{}, map.name});
            const std::string more = text(findings_only_in(by_itself, among_all));
            REQUIRE(more == text(Report{}));   // no false alarm
            const Report visitors = findings_only_in(among_all, by_itself);
            for (const Finding& finding : visitors.findings())
                CHECK((finding.rule == Rule::leak || finding.rule == Rule::pocket));   // of movers from other maps
            for (const Finding& finding : by_itself.findings()) CHECK(finding.map == map.name);
            found += static_cast<int>(by_itself.findings().size());
            ++compared;
        }
    }
    CHECK(compared > chance::rounds(20) / 2);
    CHECK(found > compared);
}
