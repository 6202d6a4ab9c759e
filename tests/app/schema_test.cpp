// Everything that is written as JSON conforms to its schema; breaking it on purpose is noticed.
#include <catch2/catch.hpp>

#include <filesystem>
#include <functional>

#include <nlohmann/json.hpp>
#include <set>
#include <valijson/adapters/nlohmann_json_adapter.hpp>
#include <valijson/schema.hpp>
#include <valijson/schema_parser.hpp>
#include <valijson/validator.hpp>

#include "dryground/changes.hpp"
#include "process.hpp"
#include "rambles.hpp"

using process::tool;

namespace {

nlohmann::json schema_json(const std::string& name) {
    return nlohmann::json::parse(process::slurp(std::filesystem::path(DRYGROUND_SOURCE) / "schema" / name));
}

void read_schema(const std::string& name, valijson::Schema& schema) {
    const nlohmann::json tree = schema_json(name);
    valijson::SchemaParser parser;
    // Schemas refer to each other by their files' names.
    parser.populateSchema(
        valijson::adapters::NlohmannJsonAdapter(tree), schema,
        [](const std::string& other) { return new nlohmann::json(schema_json(other)); },
        [](const nlohmann::json* other) { delete other; });
}

bool keeps_to(const valijson::Schema& schema, const nlohmann::json& json) {
    valijson::Validator validator;
    return validator.validate(schema, valijson::adapters::NlohmannJsonAdapter(json), nullptr);
}

std::string schema_faults(const std::string& schema_name, const std::string& text) {
    const nlohmann::json json = nlohmann::json::parse(text);
    valijson::Schema schema;
    read_schema(schema_name, schema);
    valijson::Validator validator;
    valijson::ValidationResults results;
    const valijson::adapters::NlohmannJsonAdapter target(json);
    if (validator.validate(schema, target, &results)) return {};
    std::string faults;
    for (valijson::ValidationResults::Error error; results.popError(error);) {
        for (const std::string& part : error.context) faults += part;
        faults += ": " + error.description + "\n";
    }
    return faults;
}

}   // namespace

TEST_CASE("merges keep to their schema") {
    for (const char* options :
         {"", "--as regions", "--as regions chains pieces --unit m --y up", "--map slipway --as pieces",
          "--as lines boxes triangles --unit m --y up", "--chunk-cells 4 --as regions chains",
          "--chunk-cells 4 --plane ground --mover warden", "--mover warden --as regions lines chains",
          "--grow 2 --corners mitre --as regions", "--grow -1.5", "--plane ground --as regions boxes --y up"}) {
        INFO(options);
        CHECK(schema_faults("merge.schema.json", tool(fmt::format("merge demo/world.toml {}", options)).out) == "");
    }
}

TEST_CASE("packs keep to their schema") {
    for (const char* options : {"", "--unit m --y up", "--plane ground", "--chunk-cells 8", "--variants 6",
                                "--chunk-cells 16 --variants 6 --y up"}) {
        INFO(options);
        CHECK(schema_faults("pack.schema.json", tool(fmt::format("pack demo/world.toml {}", options)).out) == "");
    }
    nlohmann::json pack = nlohmann::json::parse(tool("pack demo/world.toml").out);
    pack["maps"][0]["merge"]["groups"][0].erase("area");
    CHECK(schema_faults("pack.schema.json", pack.dump()) != "");
}

namespace {

// Calls see(path, table, key) for each key of a tree; `path` has * for positions in lists.
void each_key(nlohmann::json& json, const std::string& path,
              const std::function<void(const std::string&, nlohmann::json&, const std::string&)>& see) {
    if (json.is_array())
        for (nlohmann::json& item : json) each_key(item, path + "/*", see);
    if (!json.is_object()) return;
    std::vector<std::string> keys;   // `see` may change the table for a while
    for (const auto& [key, value] : json.items()) keys.push_back(key);
    for (const std::string& key : keys) {
        see(path + "/" + key, json, key);
        each_key(json[key], path + "/" + key, see);
    }
}

}   // namespace

TEST_CASE("the schema of packs refuses each key that is of a wrong type") {
    nlohmann::json pack = nlohmann::json::parse(tool("pack demo/world.toml").out);
    for (nlohmann::json& map : pack["maps"]) map["merge"]["groups"].clear();   // quicker; they have tests of their own
    valijson::Schema schema;
    read_schema("pack.schema.json", schema);
    REQUIRE(keeps_to(schema, pack));
    std::set<std::string> tried;
    each_key(pack, "", [&](const std::string& path, nlohmann::json& table, const std::string& key) {
        // What designers name and fill as they like.
        const bool free = path.find("/props/") != std::string::npos || key == "default";
        if (free || path.find("/merge/") != std::string::npos || !tried.insert(path).second) return;
        INFO(path);
        const nlohmann::json was = table[key];
        table[key] = was.is_object() || was.is_null() ? nlohmann::json(1.5) : nlohmann::json{{"wrong", {}}};
        if (was.is_null() && keeps_to(schema, pack)) table[key] = {{"wrong", {}}};   // it may be a number
        CHECK_FALSE(keeps_to(schema, pack));
        table[key] = was;
    });
    CHECK(tried.size() > 250);
}

TEST_CASE("reports keep to their schema") {
    for (const char* world : {"demo/world.toml", "demo/broken/world.toml", "demo/broken/reading/world.toml"}) {
        INFO(world);
        CHECK(schema_faults("report.schema.json", tool(fmt::format("check {} --format json", world)).out) == "");
    }
}

TEST_CASE("comparisons keep to their schema") {
    const auto compared = tool("compare demo/world.toml demo/broken/world.toml --format json");
    CHECK(compared.code == 0);
    CHECK(schema_faults("compare.schema.json", compared.out) == "");
    CHECK(schema_faults("compare.schema.json", tool("compare demo demo --format json").out) == "");
    CHECK(tool("compare demo demo").out == "no difference\n");
    CHECK(tool("compare git:HEAD git:HEAD").code == 2);
    CHECK(tool("compare demo nowhere").code == 2);
}

TEST_CASE("walks keep to their schema") {
    for (const char* words :
         {"demo/world.toml", "demo/broken/world.toml --from slipway@232,128",
          "demo/world.toml --mover crab --from slipway/crab_a", "demo/world.toml --to pump_house/valve"}) {
        INFO(words);
        CHECK(schema_faults("walk.schema.json", tool(fmt::format("walk {} --format json", words)).out) == "");
    }
    // A lift that goes up to the shell, and one that only code moves.
    const process::Folder folder;
    for (const auto& [name, text] : rambles::one_map(
             {"........", ".....###", "........", "........", "........", "........", "########"},
             "{ name = \"landing\", kind = \"spawn\", at = [16, 96] },\n"
             "{ name = \"shell\", kind = \"thing\", at = [104, 16] },\n"
             "{ name = \"hoist\", kind = \"lift\", box = [40, 88, 24, 8], props = { stops = [[52, 20]] } },\n"
             "{ name = \"cart\", kind = \"lift\", box = [100, 40, 8, 8] },\n"))
        process::spill(folder.path / name, text);
    const std::string lifts = (folder.path / "world.toml").string();
    const std::string ride = tool(fmt::format("walk {} --to flat/shell --format json", lifts)).out;
    CHECK(schema_faults("walk.schema.json", ride) == "");
    const nlohmann::json route = nlohmann::json::parse(ride)["route"];
    CHECK(std::any_of(route.begin(), route.end(), [](const nlohmann::json& step) {
        return step["going"] == "rides" && step["object"] == "hoist" &&
               step["carrier"] == nlohmann::json{{"object", "hoist"}, {"at", {52, 20}}};
    }));
    CHECK_THAT(tool(fmt::format("walk {}", lifts)).out,
               Catch::Contains("moved by the game's code alone, and not looked at: flat/cart"));
    nlohmann::json walk = nlohmann::json::parse(tool("walk demo/world.toml --format json").out);
    walk["route"][1].erase("from");
    CHECK(schema_faults("walk.schema.json", walk.dump()) != "");
}

TEST_CASE("SARIF reports the findings of the report, each with its rule") {
    const nlohmann::json sarif = nlohmann::json::parse(tool("check demo/broken/world.toml --format sarif").out);
    const nlohmann::json report = nlohmann::json::parse(tool("check demo/broken/world.toml --format json").out);
    CHECK(sarif["version"] == "2.1.0");
    const nlohmann::json &run = sarif["runs"][0], &rules = run["tool"]["driver"]["rules"];
    REQUIRE(run["results"].size() == report["findings"].size());
    for (std::size_t i = 0; i < run["results"].size(); ++i) {
        const nlohmann::json &result = run["results"][i], &finding = report["findings"][i];
        CHECK(result["ruleId"] == finding["rule"]);
        CHECK(rules[result["ruleIndex"].get<std::size_t>()]["id"] == finding["rule"]);
        CHECK(result["level"] == finding["severity"]);
        const nlohmann::json& place = result["locations"][0]["physicalLocation"];
        CHECK(place["artifactLocation"]["uri"] == finding["file"]);
        CHECK(place["region"]["startLine"] == finding["line"]);
        CHECK(place["region"]["startColumn"] == finding["column"]);
    }
}

TEST_CASE("the page of rules in the documentation is what --explain says") {
    const std::string pages = tool("check --explain all").out;
    CHECK_THAT(process::slurp(std::filesystem::path(DRYGROUND_SOURCE) / "docs" / "rules.md"), Catch::EndsWith(pages));
    CHECK(tool("check --explain crack").out.substr(0, 8) == "## crack");
    CHECK_THAT(pages, Catch::StartsWith("- Reading: [syntax](#syntax), "));
    CHECK_THAT(pages, Catch::Contains("\n## Tile sets\n\n### sheet-cut\n"));
    CHECK_THAT(tool("check --explain crak").err, Catch::Contains("did you mean 'crack'?"));
}

TEST_CASE("the page of keys and the schemas of our formats are what `keys` says") {
    const std::filesystem::path source(DRYGROUND_SOURCE);
    CHECK_THAT(process::slurp(source / "docs" / "keys.md"), Catch::EndsWith(tool("keys").out));
    for (const std::string format : {"world", "tiles", "map", "pack"})
        CHECK(process::slurp(source / "schema" / (format + ".schema.json")) == tool("keys --schema " + format).out);
    CHECK(tool("keys layer").out.substr(0, 8) == "## layer");
    CHECK_THAT(tool("keys layr").err, Catch::Contains("did you mean 'layer'?"));
}

TEST_CASE("lists keep to their schema") {
    for (const char* what :
         {"tiles", "maps", "layers", "objects", "kinds", "flags", "facts", "events", "links", "contacts", "limits"}) {
        INFO(what);
        CHECK(schema_faults("list.schema.json", tool(fmt::format("list demo/world.toml {} --format json", what)).out) ==
              "");
    }
}

TEST_CASE("a schema is not kept by what lacks a key or has one too many") {
    nlohmann::json merge = nlohmann::json::parse(tool("merge demo/world.toml").out);
    merge["maps"][0].erase("stats");
    CHECK(schema_faults("merge.schema.json", merge.dump()) != "");
    nlohmann::json report = nlohmann::json::parse(tool("check demo/broken/world.toml --format json").out);
    report["findings"][0]["colour"] = "red";
    CHECK(schema_faults("report.schema.json", report.dump()) != "");
}

TEST_CASE("text and JSON tell the same findings in the same order") {
    const std::string text = tool("check demo/broken/world.toml").out;
    const nlohmann::json json = nlohmann::json::parse(tool("check demo/broken/world.toml --format json").out);
    std::size_t at = 0;
    for (const nlohmann::json& finding : json["findings"]) {
        const std::string line =
            fmt::format("{}:{}:{}: {}: {} [{}]\n", finding["file"].get<std::string>(), finding["line"].get<int>(),
                        finding["column"].get<int>(), finding["severity"].get<std::string>(),
                        finding["message"].get<std::string>(), finding["rule"].get<std::string>());
        const std::size_t found = text.find(line, at);
        INFO(line);
        REQUIRE(found != std::string::npos);
        at = found + line.size();
    }
    CHECK(json["counts"]["error"].get<int>() == 17);
}

TEST_CASE("saved changes keep to their schema, and a change to it is noticed") {
    const dryground::Result<dryground::World> loaded =
        dryground::load_world(std::filesystem::path(DRYGROUND_SOURCE) / "demo/world.toml");
    REQUIRE(loaded);
    dryground::Play play(*loaded, "slipway");
    play.clear(dryground::LayerId{2}, {39, 4}), play.set_tile(dryground::LayerId{1}, {0, 0}, "peat"),
        play.set_fact("pump_running"), play.set_fired(dryground::ObjectId{2}),
        play.set_fired(dryground::LayerId{2}, {39, 5});
    const std::string bytes = dryground::changes_bytes(*loaded, play.changes());
    CHECK(schema_faults("changes.schema.json", bytes) == "");
    nlohmann::json broken = nlohmann::json::parse(bytes);
    broken["tiles"][0].erase("is");
    CHECK(schema_faults("changes.schema.json", broken.dump()) != "");
}

namespace {

void add_keys(const nlohmann::json& schema, std::set<std::string>& keys) {
    if (schema.is_object() && schema.contains("properties"))
        for (const auto& [key, more] : schema["properties"].items()) keys.insert(key);
    if (schema.is_structured())
        for (const nlohmann::json& item : schema) add_keys(item, keys);
}

}   // namespace

TEST_CASE("the pages on merges and packs name every key, and the example of merges is what the tool writes") {
    const std::filesystem::path source(DRYGROUND_SOURCE);
    const std::string merges = process::slurp(source / "docs" / "merge.md"),
                      packs = process::slurp(source / "docs" / "packs.md");
    std::set<std::string> keys;
    add_keys(nlohmann::json::parse(process::slurp(source / "schema" / "merge.schema.json")), keys);
    CHECK(keys.size() > 30);
    for (const std::string& key : keys) {
        INFO(key);
        CHECK(merges.find("`" + key + "`") != std::string::npos);
    }
    const nlohmann::json schema = nlohmann::json::parse(process::slurp(source / "schema" / "pack.schema.json"));
    for (const nlohmann::json* part : {&schema, &schema["definitions"]["packed_map"], &schema["definitions"]["object"],
                                       &schema["definitions"]["placed"]})
        for (const auto& [key, more] : (*part)["properties"].items()) {
            INFO(key);
            CHECK(packs.find("`" + key + "`") != std::string::npos);
        }
    // The example.
    const process::Folder folder;
    process::spill(
        folder.path / "world.toml",
        "format = \"dryground/world/1\"\ntitle = \"Example\"\nper_metre = 16\ntilesets = [\"t.toml\"]\nmaps = "
        "[\"flat.toml\"]\n[barriers]\nearth = {}\n");
    process::spill(
        folder.path / "t.toml",
        "format = \"dryground/tiles/1\"\nname = \"t\"\ncell = [16, 16]\n[tiles.peat]\nunseen = true\nbarrier = "
        "\"earth\"\nshapes = [\"cell\"]\n");
    process::spill(
        folder.path / "flat.toml",
        "format = \"dryground/map/1\"\nname = \"flat\"\ncell = [16, 16]\nsize = [3, 2]\nrim = \"open\"\ntilesets = "
        "[\"t\"]\n[legend]\n\"#\" = \"peat\"\n[[layers]]\nname = \"ground\"\nrows = '''\n...\n###\n'''\n");
    const auto start = merges.find("```json\n") + 8;
    CHECK(nlohmann::json::parse(merges.substr(start, merges.find("```", start) - start)) ==
          nlohmann::json::parse(
              tool("merge '" + (folder.path / "world.toml").string() + "' --as regions chains pieces boxes").out));
}
