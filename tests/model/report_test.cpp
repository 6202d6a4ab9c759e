// Also tests src/model: rules
#include <catch2/catch.hpp>

#include <random>

#include <algorithm>
#include <set>

#include "dryground/world.hpp"

using namespace dryground;

TEST_CASE("each rule has one name, one sentence, and as many arguments as it says") {
    std::set<std::string_view> names;
    std::set<Rule> rules;
    for (const RuleText& row : all_rules()) {
        INFO(row.name);
        CHECK(names.insert(row.name).second);
        CHECK(rules.insert(row.rule).second);
        CHECK(row.severity != Severity::off);
        std::size_t holes = 0;
        for (std::size_t at = row.sentence.find("{}"); at != std::string_view::npos;
             at = row.sentence.find("{}", at + 2))
            ++holes;
        CHECK(holes == row.arguments);
        CHECK(find_rule(row.name) == &row);
        Finding finding;
        finding.rule = row.rule;
        finding.arguments.assign(row.arguments, "x");
        CHECK_FALSE(message(finding).empty());
    }
    CHECK(rules.size() == static_cast<std::size_t>(Rule::waiver_unused) + 1);   // the last of the enumeration
    CHECK(find_rule("no-such-rule") == nullptr);
}

TEST_CASE("reports are sorted by file, line, column, rule, whatever the order of adding") {
    Report report;
    const auto add = [&](const char* file, int line, int column, Rule rule) {
        Finding finding;
        finding.rule = rule;
        finding.severity = rule_text(rule).severity;
        finding.place = {file, line, column, {}};
        finding.arguments.assign(rule_text(rule).arguments, "x");
        report.add(finding);
    };
    add("b.toml", 1, 1, Rule::undecided);
    add("a.toml", 10, 2, Rule::undecided);
    add("a.toml", 9, 30, Rule::undecided);
    add("a.toml", 10, 2, Rule::bad_name);
    std::vector<std::string> places;
    for (const Finding& finding : report.findings())
        places.push_back(text(finding.place) + " " + std::string(rule_text(finding.rule).name));
    CHECK(places == std::vector<std::string>{"a.toml:9:30 undecided", "a.toml:10:2 bad-name", "a.toml:10:2 undecided",
                                             "b.toml:1:1 undecided"});
    CHECK(report.counts().error == 1);
    CHECK(report.counts().warning == 3);
    CHECK(report.has(Severity::error));
}

TEST_CASE("a finding reads as place, sentence, details, hint") {
    Finding finding;
    finding.rule = Rule::spawn_blocked;
    finding.place = {"maps/slipway.map.toml", 34, 17, {}};
    finding.arguments = {"landing", "9", "solid ground"};
    finding.details = {"warden_side is 10 x 14 px"};
    finding.hint = Hint{"nearest free place", "at = [24, 48]"};
    CHECK(text(finding) ==
          "maps/slipway.map.toml:34:17: error: 'landing' stands 9 px inside solid ground [spawn-blocked]\n"
          "    warden_side is 10 x 14 px\n"
          "    nearest free place: at = [24, 48]\n");
    CHECK(text(Report()) == "no findings\n");
}

TEST_CASE("the nearest name is near, or nothing is returned") {
    const std::vector<std::string> names{"peat_a", "peat_b", "brine", "boardwalk"};
    CHECK(nearest_name("brien", names) == "brine");   // two letters swapped count once
    CHECK(nearest_name("peat_aa", names) == "peat_a");
    CHECK(nearest_name("bordwalk", names) == "boardwalk");
    CHECK_FALSE(nearest_name("lighthouse", names));
    CHECK_FALSE(nearest_name("", names));
    CHECK_FALSE(nearest_name(std::string(1000, 'a'), names));
}

// However they come: one by one, or report by report, in any order.
TEST_CASE("reports put together are the findings added one by one") {
    std::mt19937_64 dice(7);
    std::vector<Finding> all;
    for (int i = 0; i < 300; ++i) {
        Finding finding;
        finding.rule = dice() % 2 == 0 ? Rule::step : Rule::crack;
        finding.place = {dice() % 2 == 0 ? "a.toml" : "b.toml", static_cast<int>(dice() % 9), 1, {}};
        finding.arguments.assign(rule_text(finding.rule).arguments,
                                 std::string(1, static_cast<char>('a' + dice() % 3)));
        finding.map = std::to_string(i);   // tells equal ones apart
        all.push_back(finding);
    }
    Report one_by_one, left, right;
    for (std::size_t i = 0; i < all.size(); ++i) one_by_one.add(all[i]);
    for (std::size_t i = 0; i < all.size(); ++i) (i < 150 ? left : right).add(all[i]);
    right.add_waived(2);
    left.add(right);
    REQUIRE(left.findings().size() == 300);
    for (std::size_t i = 0; i < 300; ++i) CHECK(left.findings()[i].map == one_by_one.findings()[i].map);
    CHECK(left.counts().waived == 2);
    Report twice = right;
    twice.add(twice);
    CHECK(twice.findings().size() == 300);
    CHECK(twice.counts().waived == 4);
}

TEST_CASE("a result is a value, or gives the reason why it is missing") {
    Report found;
    Finding finding;
    finding.rule = Rule::file_missing;
    finding.arguments = {"flat.toml", "there is no such file"};
    found.add(finding);
    const Result<std::string> value("peat", found);
    REQUIRE(value);
    CHECK(*value == "peat");
    CHECK(value->size() == 4);
    CHECK(value.fault().empty());
    CHECK(value.report().findings().size() == 1);
    const Result<std::string> fault = Failure{"it is a directory"};
    CHECK_FALSE(fault);
    CHECK_THROWS_AS(*fault, std::logic_error);
    CHECK_THROWS_WITH(fault->size(), Catch::EndsWith("it is a directory"));
    const Result<std::string> none = Failure{{}, found};
    CHECK_THROWS_WITH(none.value(), Catch::Contains("flat.toml"));
    const Result<World> passed_on = none.failure();
    CHECK(passed_on.report().findings().size() == 1);
    CHECK_THROWS_AS(*Result<int>(Failure{}), std::logic_error);
    CHECK(Result<void>());
    CHECK_FALSE(Result<void>(fault.failure()));
    CHECK(*Result<std::unique_ptr<int>>(std::make_unique<int>(7)).value() == 7);   // what can only be moved
}
