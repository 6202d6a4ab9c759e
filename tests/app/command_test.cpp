// The command line, driven from outside on the demo world and the broken ones.
// Also tests src/files: report_json report_sarif
#include <catch2/catch.hpp>

#include <nlohmann/json.hpp>
#include <set>
#include <sstream>

#include "approved.hpp"
#include "chance.hpp"
#include "dryground/dryground.hpp"

using process::Outcome;
using process::tool;
namespace fs = std::filesystem;

TEST_CASE("the demo world checks clean") {
    const Outcome outcome = tool("check demo/world.toml --fail-on note");
    CHECK(outcome.code == 0);
    CHECK(outcome.out == "no findings, 1 waived\n");
    CHECK(outcome.err.empty());
}

TEST_CASE("the broken worlds are reported in full", "[approved]") {
    const Outcome broken = tool("check demo/broken/world.toml");
    CHECK(broken.code == 1);
    approved::check("broken.txt", broken.out);
    const Outcome reading = tool("check demo/broken/reading/world.toml");
    CHECK(reading.code == 1);
    approved::check("reading.txt", reading.out);
}

TEST_CASE("each mistake that the broken demo marks is found in that file, and nothing else is") {
    for (const std::string folder : {"demo/broken", "demo/broken/reading"}) {
        std::set<std::string> marked, found;   // rules
        for (const char* part : {".", "maps", "tiles"})
            for (const auto& entry : fs::directory_iterator(fs::path(DRYGROUND_SOURCE) / folder / part)) {
                if (entry.path().extension() != ".toml") continue;
                std::istringstream lines(process::slurp(entry.path()));
                for (std::string line; std::getline(lines, line);) {
                    const auto at = line.find("mistake");
                    if (at == std::string::npos || line.find(':', at) == std::string::npos) continue;
                    for (const dryground::RuleText& rule : dryground::all_rules())
                        if (line.find(std::string(rule.name), at) != std::string::npos)
                            marked.insert(std::string(rule.name));
                }
            }
        const dryground::Result<dryground::World> loaded =
            dryground::load_world(fs::path(DRYGROUND_SOURCE) / folder / "world.toml");
        dryground::Report report = loaded.report();
        if (loaded) report.add(dryground::check(*loaded));
        for (const dryground::Finding& finding : report.findings())
            found.insert(std::string(dryground::rule_text(finding.rule).name));
        CAPTURE(folder);
        CHECK(marked == found);
        CHECK(found.size() >= 12);
    }
}

TEST_CASE("check can be narrowed to rules and maps, and fail at other severities") {
    CHECK(tool("check demo/broken/world.toml --only legend-unused").code == 0);
    CHECK(tool("check demo/broken/world.toml --only legend-unused --fail-on warning").code == 1);
    const Outcome map = tool("check demo/broken/world.toml --map store");
    CHECK(map.out.find("cell-size") != std::string::npos);
    CHECK(map.out.find("spawn-blocked") == std::string::npos);
    const Outcome unknown = tool("check demo/world.toml --only legend-unusd");
    CHECK(unknown.code == 2);
    CHECK(unknown.err.find("did you mean 'legend-unused'") != std::string::npos);
}

TEST_CASE("merge writes what is requested, with its figures beside it", "[approved]") {
    const Outcome outcome = tool("merge demo/world.toml --map pump_house --as regions chains pieces");
    CHECK(outcome.code == 0);
    approved::check("merge-pump_house.json", outcome.out);
    CHECK(outcome.err.find("shapes in") != std::string::npos);
    const Outcome metres = tool("merge demo/maps/slipway.map.toml --as chains --unit m --y up");
    CHECK(metres.code == 0);
    CHECK(metres.out.find("\"unit\": \"m\"") != std::string::npos);
    CHECK(metres.out.find("pump_house") == std::string::npos);   // a map's file means that map
    CHECK(metres.out.find("\"pieces\": [") == std::string::npos);
    const Outcome mover = tool("merge demo/world.toml --map slipway --mover warden_sid");
    CHECK(mover.code == 2);
    CHECK(mover.err.find("did you mean 'warden_side'?") != std::string::npos);
    CHECK(tool("merge demo/world.toml --mover nobody").err.find("it has: ") != std::string::npos);
    CHECK(tool("merge demo/world.toml --plane ground").err.find("numbers are cells") != std::string::npos);
    CHECK(tool("merge demo/broken/world.toml --chunk-cells 8").err.find("left out") != std::string::npos);
    CHECK(tool("merge demo/world.toml --mover warden --chunk-cells 8").out.find("\"mover\": \"warden\"") !=
          std::string::npos);
    CHECK(tool("merge demo/world.toml --grow 4 --chunk-cells 8").code == 2);
    const Outcome chunks = tool("merge demo/world.toml --map slipway --chunk-cells 16 --as regions");
    CHECK(chunks.code == 0);
    CHECK(chunks.err.find("chunks of 16 x 16 cells") != std::string::npos);
    CHECK(tool("merge demo/world.toml --format geojson").out.find("\"FeatureCollection\"") != std::string::npos);
    CHECK(tool("merge demo/world.toml --format wkt --as regions").out.find("\"MULTIPOLYGON (((") != std::string::npos);
    CHECK(
        tool("merge demo/world.toml --facts pump_running has_hatch_key").err.find("with pump_running, has_hatch_key") !=
        std::string::npos);
    CHECK(tool("merge demo/world.toml --facts pump_runing").err.find("did you mean 'pump_running'?") !=
          std::string::npos);
    CHECK(tool("merge demo/world.toml --grow 2").err.find("grown by 2 px, corners round") != std::string::npos);
    CHECK(tool("merge demo/broken/reading/world.toml").code == 1);
    CHECK(tool("merge demo/broken/world.toml").code == 0);   // check findings do not stop it
}

TEST_CASE("a misspelt name does not hide other findings, and a report of reading alone says so") {
    const process::DemoCopy demo;
    const auto change = [&](const char* file, const std::string& from, const std::string& to) {
        const std::filesystem::path path = demo.folder.path / "demo" / file;
        std::string text = process::slurp(path);
        REQUIRE(text.find(from) != std::string::npos);
        process::spill(path, text.replace(text.find(from), from.size(), to));
    };
    const auto check = [&](const char* more = "") {
        return tool(fmt::format("check '{}' {}", (demo.folder.path / "demo").string(), more));
    };
    REQUIRE(check().code == 0);
    // The start in the ground, and slips of the pen: a kind, on which a goal depends, and a tile of a legend.
    change("maps/slipway.map.toml", "name = \"landing\", kind = \"spawn\", at = [232, 128]",
           "name = \"landing\", kind = \"spawn\", at = [8, 250]");
    const std::string alone = check().out;
    CHECK_THAT(alone, Catch::Contains("[object-outside]"));
    change("maps/pump_house.map.toml", "kind = \"lamp\"", "kind = \"lapm\"");
    change("maps/slipway.map.toml", "\"#\" = \"peat_top\"", "\"#\" = \"peat_tpo\"");
    change("world.toml", "\ntitle = ", "\ntitel = ");
    const Outcome both = check();
    CHECK(both.code == 1);
    CHECK_THAT(both.out, Catch::Contains("'titel' is not a key of a world [unknown-key]\n"
                                         "    the other rules are run as if it were 'title'\n"));
    CHECK_THAT(both.out, Catch::Contains("there is no kind 'lapm' [unknown-name]\n"
                                         "    the other rules are run as if it were 'lamp'\n"));
    CHECK_THAT(both.out, Catch::Contains("there is no tile 'peat_tpo' [unknown-name]\n"
                                         "    the other rules are run as if it were 'peat_top'\n"));
    CHECK_THAT(both.out, !Catch::Contains("only reading was checked"));
    CHECK_THAT(both.out, !Catch::Contains("there is no object 'lamp'"));   // a consequence
    // All else is as without the slips.
    std::istringstream lines(alone);
    for (std::string line; std::getline(lines, line);)
        if (line.find("errors, ") == std::string::npos) CHECK_THAT(both.out, Catch::Contains(line));
    // What no hint puts right.
    change("maps/pump_house.map.toml", "kind = \"lapm\"", "kind = \"nothing_like_it\"");
    const Outcome reading = check();
    CHECK(reading.code == 1);
    CHECK_THAT(reading.out, !Catch::Contains("[object-outside]"));
    CHECK_THAT(reading.out,
               Catch::EndsWith("only reading was checked: the other rules are run once these errors are fixed\n"));
    CHECK(nlohmann::json::parse(check("--format json").out)["world"] == "");
}

TEST_CASE("list reports what designers keep on paper", "[approved]") {
    std::string all;
    for (const char* what : {"tiles", "maps", "layers", "objects", "kinds", "flags", "facts", "events", "links"}) {
        const Outcome outcome = tool(fmt::format("list demo/world.toml {}", what));
        CHECK(outcome.code == 0);
        all += fmt::format("== {}\n{}", what, outcome.out);
    }
    approved::check("lists.txt", all);
    CHECK(tool("list demo/world.toml objects --kind silt_crab --format csv").out ==
          "map,object,kind,role,at,layer,storey,fires,gives,needs,runs,props\r\nslipway,crab_a,silt_crab,spawn,\"440,"
          "128\",people,ground,,,,,"
          "\"mood=\"\"cross\"\" patrol_px=48\"\r\n");
    CHECK(tool("list demo/world.toml tiles --tagged masonry --name '*_top'").out.find("marsh/stone_top") !=
          std::string::npos);
    CHECK(tool("list demo/world.toml objects --name 'nobody*'").out.find("(none)") != std::string::npos);
}

TEST_CASE("draw makes pictures of each map, and refuses what it cannot make") {
    const process::Folder folder;
    const std::string out = (folder.path / "station").string();
    CHECK(tool(fmt::format("draw demo/world.toml --out {}.png", out)).code == 0);
    for (const char* map : {"slipway", "pump_house"}) {
        const auto image = dryground::decode_png(process::slurp(fmt::format("{}-{}.png", out, map)));
        REQUIRE(image);
        CHECK(image->width > 1000);
    }
    CHECK(tool(fmt::format("draw demo/world.toml --map slipway --show art flags --out {}.svg", out)).code == 0);
    CHECK(process::run(fmt::format("xmllint --noout {}.svg", out)).code == 0);
    CHECK(tool("draw demo/world.toml --out picture.gif").code == 2);
    CHECK(
        tool(fmt::format("draw demo/world.toml --show art flgs --out {}.svg", out)).err.find("did you mean 'flags'") !=
        std::string::npos);
    CHECK(tool("draw demo/world.toml --map slipway --out /no/such/folder/a.svg").code == 2);
}

TEST_CASE("the demo walks through the whole job") {
    const process::Folder folder;
    const Outcome outcome = tool(fmt::format("demo --out {}", folder.path.string()));
    CHECK(outcome.code == 0);
    for (const char* step : {"read ", "check ", "merge ", "draw ", "broken ", "next "})
        CHECK(outcome.out.find(step) != std::string::npos);
    for (const char* file :
         {"merge.json", "slipway.png", "pump_house.svg", "broken.png", "station.html", "broken.html"})
        CHECK(fs::file_size(folder.path / file) > 1000);
    CHECK(tool(fmt::format("demo --world {} --out {}", folder.path.string(), folder.path.string())).code == 2);
}

TEST_CASE("a bad command line is reported with how to fix it, and ends with 2") {
    for (const char* words : {"", "chek demo/world.toml", "check", "check demo/world.toml --format yaml",
                              "merge demo/world.toml --as blobs", "merge demo/world.toml --most-vertices 2",
                              "check demo/world.toml --map slipwy", "list demo/world.toml things",
                              "merge demo/world.toml --out /no/such/folder/x.json", "check demo/none.toml",
                              "check demo/art", "check /dev/null", "merge demo/world.toml --within-px nan",
                              "merge demo/world.toml --grow nan", "draw demo/world.toml --scale inf"}) {
        const Outcome outcome = tool(words);
        INFO(words << "\n" << outcome.err);
        CHECK(outcome.code == 2);
        CHECK_FALSE(outcome.err.empty());
        CHECK(outcome.out.empty());
    }
    CHECK(tool("chek demo/world.toml").err.find("did you mean 'check'") != std::string::npos);
}

TEST_CASE("help and version are there, with an example for each command") {
    CHECK(tool("--version").out.find("dryground ") == 0);
    for (const char* command :
         {"check", "merge", "pack", "draw", "probe", "list", "edit", "compare", "tiles", "new", "demo"}) {
        const Outcome outcome = tool(fmt::format("{} --help", command));
        INFO(command);
        CHECK(outcome.code == 0);
        CHECK(outcome.out.find("Example") != std::string::npos);
        CHECK(outcome.out.find(fmt::format("dryground {} ", command), outcome.out.find("Example")) !=
              std::string::npos);
    }
}

namespace {

// A command with its verbs and theirs, each with what its help says.
void each_help(const std::string& words, std::vector<std::pair<std::string, std::string>>& all) {
    const std::string help = tool(words + " --help").out;
    all.emplace_back(words, help);
    const std::size_t verbs = help.find("\nSubcommands:\n");
    std::istringstream lines(verbs == std::string::npos ? "" : help.substr(verbs + 14));
    for (std::string line; std::getline(lines, line) && line.rfind("  ", 0) == 0;)
        if (line[2] != ' ') each_help(words + " " + line.substr(2, line.find(' ', 2) - 2), all);
}

}   // namespace

TEST_CASE("each verb of edit has help with an example, and those that need no world of their own run") {
    std::vector<std::pair<std::string, std::string>> all;
    each_help("edit", all);
    CHECK(all.size() > 50);
    int run = 0;
    for (const auto& [words, help] : all) {
        INFO(words);
        if (help.find("\nSubcommands:\n") != std::string::npos) continue;
        const std::size_t example = help.find("Example");
        REQUIRE(example != std::string::npos);
        std::istringstream lines(help.substr(example));
        for (std::string line; std::getline(lines, line);) {
            const std::size_t begin = line.find("dryground edit ");
            if (begin == std::string::npos) continue;
            const std::string typed = line.substr(begin + std::string("dryground ").size());
            CHECK(typed.find(words.substr(words.rfind(' '))) != std::string::npos);
            if (typed.find("edit demo/") != 0) continue;
            REQUIRE(typed.find("--dry-run") != std::string::npos);
            if (chance::sanitized && ++run % 4 != 0) continue;   // each takes many times as long there
            const Outcome outcome = tool(typed);
            INFO(typed << "\n" << outcome.err);
            CHECK(outcome.code == 0);
            CHECK(outcome.err.find("nothing was written") != std::string::npos);
            if (!chance::sanitized) ++run;
        }
    }
    CHECK(run > 40);
}

TEST_CASE("bash completes commands, options and their choices; the man page has every command") {
    const process::Folder folder;
    const std::string script = (folder.path / "completion").string();
    std::ofstream(script) << tool("self bash").out;
    const auto completed = [&](const std::string& words) {   // the last of them is the one to complete
        std::ofstream(folder.path / "ask") << fmt::format(
            "source {}; COMP_WORDS=({}); COMP_CWORD=$((${{#COMP_WORDS[@]}} - 1)); _dryground; echo "
            "\"${{COMPREPLY[@]}}\"\n",
            script, words);
        return process::run(fmt::format("bash {}", (folder.path / "ask").string())).out;
    };
    CHECK(completed("dryground dr") == "draw\n");
    CHECK(completed("dryground draw demo/world.toml --pal") == "--palette\n");
    CHECK(completed("dryground draw demo/world.toml --palette d") == "deutan\n");
    CHECK(completed("dryground edit demo/maps/slipway.map.toml object m") == "move\n");
    CHECK(completed("dryground check demo/wor") == "\n");   // files, by bash itself
    const std::string page = tool("self man").out;
    for (const char* command :
         {"check", "merge", "pack", "draw", "probe", "list", "edit", "compare", "tiles", "new", "demo"})
        CHECK(page.find(fmt::format("\n.SH {}\n", command)) != std::string::npos);
    CHECK(page.find(".SH self") == std::string::npos);
    CHECK(tool("--help").out.find("self") == std::string::npos);
}

TEST_CASE("odd files give an error each, and no crash") {
    const process::Folder folder;
    const auto write = [&](const std::string& bytes) {
        std::ofstream(folder.path / "w.toml", std::ios::binary) << bytes;
        return tool(fmt::format("check {}", (folder.path / "w.toml").string()));
    };
    CHECK(write("").code == 1);
    CHECK(write(std::string("format = \"dryground/world/1\"\0", 29)).code == 1);
    CHECK(write(std::string(100'000, '[')).code == 1);
    CHECK(write("\xFF\xFE").code == 1);
    CHECK(write("format = \"dryground/world/9\"").code == 1);
    CHECK(write("format = \"dryground/world/1\"\nmaps = [\".\"]").code == 1);
    CHECK(write("format = \"dryground/world/1\"").out.find("start-missing") != std::string::npos);
}

TEST_CASE("check --watch reports what is new and what is fixed when files are saved", "[command]") {
    const process::DemoCopy copy;
    const std::string folder = copy.folder.path.string(), map = folder + "/demo/maps/slipway.map.toml";
    // Starts it, saves a mistake, saves the correction; waits for its output in between, at most ten seconds each.
    const process::Outcome done = process::run(fmt::format(
        "'{0}' check '{1}/demo/world.toml' --watch > '{1}/said' 2>'{1}/err' & pid=$!; "
        "await() {{ for i in $(seq 100); do grep -q \"$1\" '{1}/said' '{1}/err' && return; sleep 0.1; done; }}; "
        "await 'Ctrl-C'; sed -i 's/at = .232, 128./at = [232, 140]/' '{2}'; await '1 new'; "
        "sed -i 's/at = .232, 140./at = [232, 128]/' '{2}'; await '1 fixed'; kill $pid; cat '{1}/said'",
        DRYGROUND_COMMAND, folder, map));
    CHECK(done.out ==
          "no findings, 1 waived\n"
          "maps/slipway.map.toml saved: 1 new, 0 fixed\n"
          "+ maps/slipway.map.toml:98:44: error: 'landing' stands 10 px inside solid ground [spawn-blocked]\n"
          "    warden_side is 10 x 14 px\n"
          "    in the way: peat_top at (14, 8)\n"
          "    nearest free place: at = [232, 128]\n"
          "1 error, 0 warnings, 0 notes, 1 waived\n"
          "maps/slipway.map.toml saved: 0 new, 1 fixed\n"
          "- maps/slipway.map.toml:98:44: error: 'landing' stands 10 px inside solid ground [spawn-blocked]\n"
          "    warden_side is 10 x 14 px\n"
          "    in the way: peat_top at (14, 8)\n"
          "    nearest free place: at = [232, 128]\n"
          "no findings, 1 waived\n");
}

TEST_CASE("a word that an option does not know is reported with the nearest, and with all that it knows") {
    CHECK_THAT(tool("merge demo --format jsn").err,
               Catch::Contains("--format: 'jsn' is unknown, did you mean 'json'? There are json, cbor, "));
    CHECK_THAT(tool("list objects demo/world.toml").err,
               Catch::StartsWith("WHAT: 'demo/world.toml' is a file, which comes first, as in: dryground list "
                                 "demo/world.toml objects"));
    CHECK_THAT(tool("list demo furniture").err,
               Catch::Contains("WHAT: 'furniture' is unknown; there are tiles, maps, "));
    CHECK_THAT(tool("new nowhere --cell 7").err, Catch::Contains("'7' is unknown"));
    for (const char* words :
         {"merge demo --format jsn", "list demo furniture", "draw demo --palette gray", "new nowhere --cell 7"})
        CHECK(tool(words).code == 2);
}
