// Every reading rule: tripped, at the right place, by a small change to a world that reads clean.
// Also tests src/files: load find_world folder read_map read_objects read_parts read_world table toml_parser
#include <catch2/catch.hpp>

#include <set>

#include "worlds.hpp"

using namespace dryground;
using worlds::Files;

namespace {

struct Misread {
    const char *file, *from, *to;
    const char* expected;   // rule at place
    const char* says;       // a part of the text
};

const Misread misread[] = {
    {"world.toml", "title = \"Test Flat\"", "title = Test Flat", "syntax at world.toml:2:9", "not TOML"},
    {"flat.toml", "name = \"flat\"", "name = \"flat", "syntax at flat.toml:2:13", "not TOML"},
    {"marsh.toml", "tiles/1", "tiles/2", "format-version at marsh.toml:1:10", "newer version"},
    {"marsh.toml", "dryground/tiles/1", "somebody/tiles/1", "format-version at marsh.toml:1:10",
     "reads 'dryground/tiles/1'"},
    {"world.toml", "title", "titel", "unknown-key at world.toml:2:1", "did you mean: title"},
    {"marsh.toml", "barrier = \"earth\"", "bariers = \"earth\"", "unknown-key at marsh.toml:7:1", "tile 'peat'"},
    {"flat.toml", "cell = [16, 16]", "cell = [16, 16]\nwaive = [{ rule = \"crak\", why = \"so\" }]",
     "unknown-name at flat.toml:4:19", "did you mean: crack"},
    {"flat.toml", "cell = [16, 16]", "cell = [16, 16]\nwaive = [{ rule = \"crack\" }]", "missing-key at flat.toml:4:10",
     "why"},
    {"world.toml", "title = \"Test Flat\"", "title = 5", "wrong-type at world.toml:2:9",
     "'title' is a whole number, but should be a text"},
    {"flat.toml", "size = [6, 4]", "size = \"6x4\"", "wrong-type at flat.toml:4:8", "list of 2 whole numbers"},
    {"flat.toml", "at = [24, 48]", "at = [24]", "wrong-type at flat.toml:21:44", "a list of 1"},
    {"marsh.toml", "[0, 16], [16, 0]", "[0, 16], [16]", "wrong-type at marsh.toml:13:33", "[x, y] in px"},
    {"world.toml", "tilesets", "per_metre = -2\ntilesets", "out-of-range at world.toml:5:13", "above 0"},
    {"world.toml", "tilesets", "per_metre = nan\ntilesets", "out-of-range at world.toml:5:13", "finite"},
    {"world.toml", "tilesets", "per_metre = inf\ntilesets", "out-of-range at world.toml:5:13", "finite"},
    {"world.toml", "[facts]", "[merging]\nmost_vertices = 2\n[facts]", "out-of-range at world.toml:20:17", "3 or more"},
    {"world.toml", "[facts]", "[merging]\nwithin_px = 65\n[facts]", "out-of-range at world.toml:20:13", "from 1/64"},
    {"flat.toml", "size = [6, 4]", "size = [0, 4]", "out-of-range at flat.toml:4:8", "at least [1, 1]"},
    {"flat.toml", "\"#\" = \"peat\"", "\"##\" = \"peat\", \"#\" = \"peat\"", "out-of-range at flat.toml:7:12",
     "one character"},
    {"world.toml", "body = { box = [10, 14], at = [0, -7] }", "body = { box = [0, 14] }",
     "out-of-range at world.toml:16:8", "0 x 14"},
    {"world.toml", "role = \"entity\"", "role = \"entty\"", "out-of-range at world.toml:26:8", "did you mean: entity"},
    {"flat.toml", "\"peat\", ", "{ tile = \"peat\", turn = 45 }, ", "out-of-range at flat.toml:7:42",
     "one of 90, 180, 270"},
    {"world.toml", "body = { box = [10, 14], at = [0, -7] }\n", "", "missing-key at world.toml:15:1",
     "mover 'warden' has no 'body'"},
    {"world.toml", "role = \"entity\"\n", "", "missing-key at world.toml:25:8", "kind 'crab' has no 'role'"},
    {"flat.toml", "format = \"dryground/map/1\"\n", "", "missing-key at flat.toml:1:1", "format = \"dryground/map/1\""},
    {"flat.toml", ", at = [40, 48]", "", "missing-key at flat.toml:22:3", "has no 'at'"},
    {"flat.toml", "kind = \"spawn\", at", "kind = \"link\", at", "missing-key at flat.toml:21:3", "has no 'to'"},
    {"marsh.toml", "unseen = true\n", "", "missing-key at marsh.toml:5:8", "has no 'art'"},
    {"world.toml", "brine = {}", "Salt-Water = {}\nbrine = {}", "bad-name at world.toml:10:1", "salt_water"},
    {"flat.toml", "name = \"crab_a\"", "name = \"landing\"", "duplicate-name at flat.toml:22:12", "the first is here"},
    {"flat.toml", "name = \"people\"", "name = \"ground\"", "duplicate-name at flat.toml:19:8", "layer 'ground'"},
    {"world.toml", "[\"flat.toml\"]", "[\"flat.toml\", \"flat.toml\"]", "duplicate-name at world.toml:6:22",
     "list it once"},
    {"world.toml", "stopped_by = [\"earth\", \"brine\"]", "stopped_by = [\"earth\", \"brin\"]",
     "unknown-name at world.toml:17:24", "did you mean: brine"},
    {"world.toml", "player = \"warden\"", "player = \"keeper\"", "unknown-name at world.toml:3:10", "known: warden"},
    {"flat.toml", "\"peat\"", "\"peet\"", "unknown-name at flat.toml:7:18", "did you mean: peat"},
    {"flat.toml", "kind = \"crab\"", "kind = \"crabs\"", "unknown-name at flat.toml:22:29", "did you mean: crab"},
    {"flat.toml", "tilesets = [\"marsh\"]", "tilesets = [\"marsh\", \"fen\"]", "unknown-name at flat.toml:6:22",
     "tile set 'fen'"},
    {"flat.toml", "tilesets = [\"marsh\"]", "tilesets = []", "unknown-name at flat.toml:7:18",
     "tile set 'marsh' has it; add that to the map: tilesets = [\"marsh\"]"},
    {"flat.toml", "tilesets = [\"marsh\"]\nlegend = { \"#\" = \"peat\"", "legend = { \"#\" = \"peet\"",
     "unknown-name at flat.toml:6:18", "the map uses no tile set; add those it uses, of: marsh"},
    {"world.toml", "tile-unused =", "undecidd = \"off\"\ntile-unused =", "unknown-name at world.toml:31:1",
     "did you mean: undecided"},
    {"world.toml", "\"flat.toml\"", "\"flt.toml\"", "file-missing at world.toml:6:9", "no such file"},
    {"world.toml", "\"flat.toml\"", "\"../flat.toml\"", "path-outside at world.toml:6:9", "folder"},
    {"world.toml", "\"flat.toml\"", "\"/flat.toml\"", "path-outside at world.toml:6:9", "folder"},
    {"flat.toml", "at = [24, 48]", "at = [2400000, 48]", "too-large at flat.toml:21:44", "2097152"},
    {"flat.toml", "size = [6, 4]", "size = [60000, 40000]", "too-large at flat.toml:4:8", "2400000000 cells"},
    {"flat.toml", "size = [6, 4]", "size = [6, 4]\nfirst = [70000, 0]", "too-large at flat.toml:4:8",
     "px from its corner"},
    {"flat.toml", "..../#", "..?./#", "legend-missing at flat.toml:14:3", "'?' is not in the legend"},
    {"flat.toml", "\"/\" = \"bank\"", "\"/\" = \"bank\", \"x\" = \"peat\"", "legend-unused at flat.toml:7:40", "'x'"},
    {"flat.toml", "######\n", "#####\n", "row-length at flat.toml:15:6", "row 4 has 5 cells"},
    {"flat.toml", "######\n", "#######\n", "row-length at flat.toml:15:7", "row 4 has 7 cells"},
    {"world.toml", "maps = [\"flat.toml\"]", "maps = [\"\", \"flat.toml\"]", "file-missing at world.toml:6:9",
     "its name is empty"},
    {"flat.toml", "......\n......\n", "......\n", "grid-size at flat.toml:12:1", "has 3 rows, but the map has 4"},
    {"flat.toml", "name = \"flat\"", "name = \"fl\xc3\"", "bad-text at flat.toml:2:11", "0xC3"},
    {"marsh.toml", "cell = [16, 16]", "cell = [16, 16]\nsheet = { file = \"world.toml\" }",
     "bad-picture at marsh.toml:4:18", "world.toml"},
    {"world.toml", "[\"flat.toml\"]", "[\"flat.toml\", \"world.toml\"]", "wrong-file at world.toml:1:10",
     "a map is expected"},
    {"marsh.toml", "[tiles.bank]\nunseen = true\n",
     "[tiles.bank]\nlike = \"brine\"\n[tiles.fen]\nlike = \"bank\"\nunseen = true\n", "like-chain at marsh.toml:13:8",
     "like = \"brine\""},
    {"flat.toml", "kind = \"crab\"", "kind = \"crab\", props = { patrol_px = \"far\" }",
     "kind-field at flat.toml:22:47", "is a text, but should be a number"},
    {"flat.toml", "kind = \"crab\"", "kind = \"crab\", props = { patrol_px = -1 }", "kind-field at flat.toml:22:47",
     "at least 0"},
    {"flat.toml", "kind = \"crab\"", "kind = \"crab\", props = { patrol = 1 }", "kind-field at flat.toml:22:47",
     "no such property"},
    {"world.toml", "default = 32, ", "", "kind-field at flat.toml:22:3", "must be given"},
};

}   // namespace

TEST_CASE("a small world reads and checks clean") {
    CHECK(worlds::rules_and_places(worlds::all_findings(worlds::small_world())).empty());
}

TEST_CASE("each reading mistake is one finding, at its place, with its fix") {
    const Misread& row = GENERATE(from_range(std::begin(misread), std::end(misread)));
    CAPTURE(row.file, row.to);
    const Report report = worlds::all_findings(worlds::with(worlds::small_world(), row.file, row.from, row.to));
    CAPTURE(text(report));
    const std::vector<std::string> found = worlds::rules_and_places(report);
    CHECK(std::count(found.begin(), found.end(), row.expected) == 1);
    CHECK(text(report).find(row.says) != std::string::npos);
    CHECK(report.findings().size() <= 3);   // no flood: consequences of a mistake are not reported again and again
}

TEST_CASE("a tile set without its sheet is reported once, however many tiles it has") {
    worlds::Files files = worlds::small_world();
    std::string& tiles = files.at("marsh.toml");
    for (std::size_t at = 0; (at = tiles.find("unseen = true", at)) != std::string::npos;)
        tiles.replace(at, 13, "art = [0, 0]");
    CHECK(worlds::rules_and_places(worlds::all_findings(files)) ==
          std::vector<std::string>{"missing-key at marsh.toml:2:8"});
}

TEST_CASE("a name that two tile sets have must name one of them") {
    Files files = worlds::small_world();
    files["fen.toml"] =
        "format = \"dryground/tiles/1\"\nname = \"fen\"\ncell = [16, 16]\n[tiles.peat]\nunseen = true\nshapes = []\n";
    files = worlds::with(files, "world.toml", "\"marsh.toml\"", "\"marsh.toml\", \"fen.toml\"");
    files = worlds::with(files, "flat.toml", "[\"marsh\"]", "[\"marsh\", \"fen\"]");
    CHECK(worlds::rules_and_places(worlds::all_findings(files)) ==
          std::vector<std::string>{"ambiguous-name at flat.toml:7:18"});
    CHECK(worlds::all_findings(worlds::with(files, "flat.toml", "\"peat\"", "\"marsh/peat\"")).empty());
}

TEST_CASE("flips and turns by 90 need square cells") {
    Files files = worlds::small_world();
    files = worlds::with(files, "marsh.toml", "cell = [16, 16]", "cell = [16, 8]");
    files = worlds::with(files, "marsh.toml", "[16, 16]] }]", "[16, 16]], turn = 90 }]");
    const auto found = worlds::rules_and_places(worlds::all_findings(files));
    CHECK(std::count(found.begin(), found.end(), "turn-not-square at marsh.toml:13:11") == 1);
    CHECK(worlds::all_findings(worlds::with(worlds::small_world(), "flat.toml", "\"bank\"",
                                            "{ tile = \"bank\", flip = \"x\", turn = 90 }"))
              .empty());
}

TEST_CASE("every reading rule is tripped by a row above or a test of its own") {
    std::set<std::string> tripped{"ambiguous-name", "turn-not-square"};
    for (const Misread& row : misread)
        tripped.insert(std::string(row.expected).substr(0, std::string(row.expected).find(' ')));
    for (const RuleText& rule : all_rules())
        if (rule.rule <= Rule::like_chain) CHECK(tripped.count(std::string(rule.name)) == 1);
}

TEST_CASE("mistakes in several files are reported in one reading") {
    Files files = worlds::small_world();
    files = worlds::with(files, "world.toml", "title", "titel");
    files = worlds::with(files, "marsh.toml", "shapes = [\"cell\"]", "shapes = [\"cel\"]");
    files = worlds::with(files, "flat.toml", "kind = \"crab\"", "kind = \"crib\"");
    const auto found = worlds::rules_and_places(worlds::all_findings(files));
    CHECK(found == std::vector<std::string>{"unknown-name at flat.toml:22:29", "unknown-name at marsh.toml:8:11",
                                            "unknown-key at world.toml:2:1"});
}

TEST_CASE("byte order marks and CRLF are read like any text") {
    Files files = worlds::small_world();
    const dryground::Result<dryground::World> plain = worlds::load(files);
    for (auto& [name, text] : files) {
        std::string changed = "\xEF\xBB\xBF";
        for (const char c : text) changed += c == '\n' ? "\r\n" : std::string(1, c);
        text = changed;
    }
    const dryground::Result<dryground::World> loaded = worlds::load(files);
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    CHECK(loaded->maps()[0].layers[0].cells == plain->maps()[0].layers[0].cells);
    CHECK(worlds::all_findings(files).empty());
}

TEST_CASE("values keep their types from file to game") {
    Files files = worlds::with(
        worlds::small_world(), "world.toml", "props.patrol_px",
        "props.lit = { type = \"yes_no\", default = true }\nprops.near = { type = \"place\", default = [1, 2.5] }\n"
        "props.names = { type = \"list\", of = \"text\", default = [\"a\", \"b\"] }\nprops.count = { type = "
        "\"whole\", default = 3 }\n"
        "props.opens = { type = \"ref\", default = \"flat/landing\" }\nprops.tint = { type = \"colour\", default = "
        "\"#102030\" }\nprops.patrol_px");
    const Result<World> loaded = worlds::load(files);
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    const Map& map = loaded->map("flat");
    const Properties& props = map.object(map.find_object("crab_a")).props;
    CHECK(props.at("lit") == Value{true});
    CHECK(props.at("near") == Value{std::array<double, 2>{1, 2.5}});
    CHECK(props.at("names") == Value{Value::List{Value{std::string("a")}, Value{std::string("b")}}});
    CHECK(props.at("count") == Value{std::int64_t{3}});
    CHECK(props.at("patrol_px") == Value{32.0});   // a number, though written without a point
    const Files wrong = worlds::with(files, "world.toml", "\"flat/landing\" }", "\"flat/nowhere\" }");
    CHECK(worlds::of_rule(worlds::all_findings(wrong), Rule::unknown_name).size() >= 1);
}

TEST_CASE("rules, likeness and own keys stand over each other in that order") {
    Files files = worlds::small_world();
    files["marsh.toml"] = R"(format = "dryground/tiles/1"
name = "marsh"
cell = [16, 16]
props.harm = { type = "whole", default = 0 }
[shapes]
low = { box = [0, 8, 16, 8] }
[[for]]
tiles = ["*"]
set = { barrier = "earth", unseen = true, props = { harm = 1 }, sides = { top = "shut" } }
[[for]]
tagged = ["wet"]
set = { barrier = "brine" }
[tiles.peat]
shapes = ["cell"]
sides = { left = "in" }
[tiles.bank]
like = "peat"
tags = ["wet"]
shapes = [{ shared = "low", at = [0, -8] }]
props = { harm = 7 }
)";
    const Result<World> loaded = worlds::load(files);
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    const TileSet& set = loaded->tilesets()[0];
    const Tile &peat = set.tiles[0], &bank = set.tiles[1];
    CHECK(loaded->barrier(peat.shapes[0].barrier).name == "earth");
    CHECK(loaded->barrier(bank.shapes[0].barrier).name == "brine");
    CHECK(bank.sides->of == std::array<Passage, 4>{Passage::shut, Passage::open, Passage::open, Passage::in});
    CHECK(peat.props.at("harm") == Value{std::int64_t{1}});
    CHECK(bank.props.at("harm") == Value{std::int64_t{7}});
    CHECK(bank.shapes[0].area == Regions{box_region({0, 0}, {16 * 256, 8 * 256})});   // the shared shape, moved
}

TEST_CASE("a damaged file never crashes, hangs or passes for a world it is not") {
    const Files good = worlds::small_world();
    for (std::uint64_t round = 0; round < 400; ++round) {
        std::uint64_t state = round * 2654435761u + 12345;
        const auto next = [&](std::size_t below) {
            state = state * 6364136223846793005u + 1442695040888963407u;
            return static_cast<std::size_t>(state >> 33) % below;
        };
        Files files = good;
        std::string& text = std::next(files.begin(), static_cast<std::ptrdiff_t>(next(3)))->second;
        const std::size_t at = next(text.size());
        switch (next(4)) {
            case 0:
                text.erase(at, 1 + next(30));
                break;
            case 1:
                text[at] = static_cast<char>(next(256));
                break;
            case 2:
                text.insert(at, text.substr(next(text.size()), next(40)));
                break;
            default:
                text.resize(at);
                break;
        }
        CAPTURE(round);
        const Result<World> loaded = worlds::load(files);
        CHECK(static_cast<bool>(loaded) == !loaded.report().has(Severity::error));
        if (!loaded) continue;
        (void)check(*loaded);
        for (const Map& map : loaded->maps()) (void)merge(*loaded, map);
    }
}

TEST_CASE("letters outside of quotes are reported, in strings and comments they are welcome") {
    const auto first = [](const std::string& from, const std::string& to) {
        const Result<World> loaded = worlds::load(worlds::with(worlds::small_world(), "world.toml", from, to));
        return loaded.report().empty() ? std::string("nothing")
                                       : worlds::rules_and_places(loaded.report()).front().substr(0, 22);
    };
    CHECK(first("title", "größe = 1\ntitle") == "syntax at world.toml:2");
    CHECK(first("at = [0, -7]", "at = [0, -\xC9\x9A]") == "syntax at world.toml:1");   // line 1x
    CHECK(first("\"Test Flat\"", "\"größe \\\" ö\" # größe") == "nothing");
    CHECK(first("\"Test Flat\"", "'ö\\' # ö 'ö'") == "nothing");
    CHECK(first("\"Test Flat\"", "\"\"\"ö \\\n   ö\"\"\"") == "nothing");   // behind a broken line
}
