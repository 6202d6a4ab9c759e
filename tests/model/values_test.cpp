// Typed properties: what fits each type, and how others are reported.
// Also tests src/model: make_values
#include <catch2/catch.hpp>

#include "worlds.hpp"

using namespace dryground;

namespace {

struct Row {
    const char *field, *value;
    const char* fault;   // a part of the message; empty when it fits
};

const Row rows[] = {
    {"type = \"yes_no\"", "true", ""},
    {"type = \"yes_no\"", "1", "is a whole number, but should be true or false"},
    {"type = \"yes_no\"", "\"true\"", "is a text, but should be true or false"},
    {"type = \"whole\", min = -3, max = 3", "-3", ""},
    {"type = \"whole\", min = -3, max = 3", "4", "is 4, but should be at least -3 and at most 3"},
    {"type = \"whole\"", "4.0", "is a number, but should be a whole number"},
    {"type = \"number\"", "4", ""},
    {"type = \"number\", max = 1", "1.5", "is 1.5, but should be at most 1"},
    {"type = \"number\"", "nan", "is nan"},
    {"type = \"text\"", "\"any, with ü\"", ""},
    {"type = \"text\"", "[1]", "is a list, but should be a text"},
    {"type = \"choice\", of = [\"calm\", \"cross\"]", "\"calm\"", ""},
    {"type = \"choice\", of = [\"calm\", \"cross\"]", "\"sad\"", "is 'sad', but should be one of calm, cross"},
    {"type = \"colour\"", "\"#12aBcf\"", ""},
    {"type = \"colour\"", "\"#12aBcf80\"", ""},
    {"type = \"colour\"", "\"red\"", "should be a colour such as"},
    {"type = \"place\"", "[1, 2.5]", ""},
    {"type = \"place\"", "[1]", "should be a place [x, y] in px"},
    {"type = \"place\"", "[9000000, 0]", "two million"},
    {"type = \"ref\"", "\"flat/landing\"", ""},
    {"type = \"ref\"", "\"landing\"", ""},   // of the same map
    {"type = \"ref\"", "\"flat/nobody\"", "no object 'flat/nobody'"},
    {"type = \"map\"", "\"flat\"", ""},
    {"type = \"map\"", "\"flot\"", "no map 'flot'"},
    {"type = \"tile\"", "\"marsh/peat\"", ""},
    {"type = \"tile\"", "\"marsh/peet\"", "no tile 'marsh/peet'"},
    {"type = \"fact\"", "\"has_key\"", ""},
    {"type = \"fact\"", "\"has_keys\"", "fact 'has_keys', which is not declared"},
    {"type = \"file\"", "\"sounds/tide.ogg\"", ""},
    {"type = \"file\"", "\"/etc/tide.ogg\"", "should be a path"},
    {"type = \"list\", of = \"whole\"", "[1, 2, 3]", ""},
    {"type = \"list\", of = \"whole\"", "[]", ""},
    {"type = \"list\", of = \"whole\"", "[1, \"two\"]", "holds an item that is a text, but should be a whole number"},
    {"type = \"list\"", "5", "is a whole number, but should be a list"},
};

worlds::Files with_field(const Row& row) {
    const worlds::Files files = worlds::with(worlds::small_world(), "world.toml", "props.patrol_px",
                                             std::string("props.thing = { ") + row.field + " }\nprops.patrol_px");
    return worlds::with(files, "flat.toml", "kind = \"crab\"",
                        std::string("kind = \"crab\", props = { thing = ") + row.value + " }");
}

}   // namespace

TEST_CASE("each type takes what is its own and refuses the rest with a reason") {
    const Row& row = GENERATE(from_range(std::begin(rows), std::end(rows)));
    CAPTURE(row.field, row.value);
    const Report report = worlds::all_findings(with_field(row));
    INFO(text(report));
    if (std::string(row.fault).empty()) {
        CHECK(report.empty());
    } else {
        REQUIRE(report.findings().size() == 1);
        CHECK(message(report.findings()[0]).find(row.fault) != std::string::npos);
        CHECK(report.findings()[0].place.file == "flat.toml");
    }
}

TEST_CASE("a field's own default must fit it") {
    const auto default_fault = [](const char* field) {
        return worlds::all_findings(worlds::with(worlds::small_world(), "world.toml", "props.patrol_px",
                                                 std::string("props.thing = { ") + field + " }\nprops.patrol_px"));
    };
    CHECK(default_fault("type = \"whole\", default = 3").empty());
    CHECK(text(default_fault("type = \"whole\", default = \"3\""))
              .find("the default is a text, but should be a whole number") != std::string::npos);
    CHECK(text(default_fault("type = \"wholly\", default = 3")).find("did you mean: whole") != std::string::npos);
    CHECK(text(default_fault("type = \"choice\", default = \"a\"")).find("has no 'of'") != std::string::npos);
}

TEST_CASE("a kind's path names a property that is a list of places; kinds that are like it move along it too") {
    const auto with_path = [](const std::string& declaration, const std::string& path) {
        return worlds::with(worlds::small_world(), "world.toml", "[kinds.crab]\n",
                            "[kinds.raft]\nrole = \"solid\"\nbarrier = \"earth\"\nmotion = \"driven\"\npath = \"" +
                                path + "\"\nprops.stops = { " + declaration +
                                " }\n[kinds.ferry]\nlike = \"raft\"\n[kinds.crab]\n");
    };
    const World world = worlds::world_of(with_path("type = \"list\", of = \"place\", default = []", "stops"));
    for (const char* kind : {"raft", "ferry"}) CHECK(world.kind(world.find_kind(kind)).path == "stops");
    CHECK(world.kind(world.find_kind("crab")).path.empty());
    const auto told = [&](const std::string& declaration, const std::string& path) {
        std::string all;
        const Result<World> loaded = worlds::load(with_path(declaration, path));
        for (const Finding& finding : loaded.report().findings()) all += message(finding) + "; ";
        return all;
    };
    CHECK_THAT(told("type = \"list\", of = \"place\", default = []", "stop"), Catch::Contains("no property 'stop'"));
    CHECK_THAT(told("type = \"list\", of = \"text\", default = []", "stops"), Catch::Contains("a list of places"));
    CHECK_THAT(told("type = \"number\", default = 1", "stops"), Catch::Contains("a list of places"));
    // What stands still goes nowhere.
    const Result<World> still =
        worlds::load(worlds::with(with_path("type = \"list\", of = \"place\", default = []", "stops"), "world.toml",
                                  "motion = \"driven\"\n", ""));
    CHECK_THAT(text(still.report()), Catch::Contains("'path' is not a key of a solid that stands still"));
}

TEST_CASE("a kind that is like another takes its properties and may change them") {
    const worlds::Files files =
        worlds::with(worlds::small_world(), "world.toml", "[kinds.crab]",
                     "[kinds.hermit]\nlike = \"crab\"\ntags = [\"foe\"]\nprops.patrol_px = { type = \"number\", "
                     "default = 8 }\nprops.shell = { type = \"text\", default = \"whelk\" }\n\n[kinds.crab]");
    const Result<World> loaded = worlds::load(worlds::with(files, "flat.toml", "kind = \"crab\"", "kind = \"hermit\""));
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    const Map& map = loaded->map("flat");
    const Object& hermit = map.object(map.find_object("crab_a"));
    CHECK(hermit.role == Role::entity);
    CHECK(hermit.props.at("patrol_px") == Value{8.0});
    CHECK(hermit.props.at("shell") == Value{std::string("whelk")});
    CHECK(loaded->kind(hermit.kind).mover == MoverId{0});
    const Report round =
        worlds::all_findings(worlds::with(files, "world.toml", "[kinds.crab]", "[kinds.crab]\nlike = \"hermit\""));
    CHECK(worlds::of_rule(round, Rule::like_chain).size() == 1);
}

TEST_CASE("a value under a kind's props is a new default of what the kind that it is like declares") {
    const auto with = [](const std::string& props) {
        return worlds::with(worlds::with(worlds::small_world(), "world.toml", "[kinds.crab]",
                                         "[kinds.hermit]\nlike = \"crab\"\n" + props + "\n\n[kinds.crab]"),
                            "flat.toml", "kind = \"crab\"", "kind = \"hermit\"");
    };
    const Result<World> loaded = worlds::load(with("props.patrol_px = 8"));
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    const Map& map = loaded->map("flat");
    CHECK(map.object(map.find_object("crab_a")).props.at("patrol_px") == Value{8.0});
    const auto told = [&](const std::string& props) { return text(worlds::all_findings(with(props))); };
    CHECK(told("props.patrol_px = \"far\"").find("should be a number") != std::string::npos);
    CHECK(told("props.patrol_px = -1").find("at least 0") != std::string::npos);
    CHECK(told("props.patrol_p = 8").find("did you mean: patrol_px") != std::string::npos);
    CHECK(told("fields.patrol_px = { type = \"number\" }").find("it is called: props") != std::string::npos);
}

TEST_CASE("a property that is optional has no value where it is left out") {
    const worlds::Files files = worlds::with(worlds::small_world(), "world.toml", "props.patrol_px",
                                             "props.den = { type = \"place\", optional = true }\nprops.patrol_px");
    const auto crab_of = [](const Result<World>& loaded) {
        const Map& map = loaded->map("flat");
        return map.object(map.find_object("crab_a"));
    };
    const Result<World> without = worlds::load(files);
    INFO(text(without.report()));
    REQUIRE(without);
    CHECK(crab_of(without).props.count("den") == 0);
    const Result<World> given =
        worlds::load(worlds::with(files, "flat.toml", "kind = \"crab\"", "kind = \"crab\", props = { den = [1, 2] }"));
    REQUIRE(given);
    CHECK(crab_of(given).props.count("den") == 1);
}

TEST_CASE("values read as one would write them") {
    CHECK(text(Value{true}) == "true");
    CHECK(text(Value{std::int64_t{-3}}) == "-3");
    CHECK(text(Value{2.5}) == "2.5");
    CHECK(text(Value{std::string("tide")}) == "\"tide\"");
    CHECK(text(Value{std::array<double, 2>{1, 2.5}}) == "[1, 2.5]");
    CHECK(text(Value{Value::List{Value{std::int64_t{1}}, Value{std::int64_t{2}}}}) == "[1, 2]");
}
