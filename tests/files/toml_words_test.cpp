// Mistakes in TOML are reported in words for people who are not programmers.
#include <catch2/catch.hpp>

#include "worlds.hpp"

using namespace dryground;

namespace {

struct Mistake {
    const char *line, *what, *hint;
};

}   // namespace

TEST_CASE("the mistakes that people make in TOML are named, with how to fix them", "[toml]") {
    const Mistake mistakes[] = {
        {"title = \"Sedge", "closing quote missing", "a text ends on its line"},
        {"title = Sedge # Point", "'Sedge' is neither a text in quotes nor a number, true or false", "\"Sedge\""},
        {"x = [1, two]", "'two' is neither a text in quotes nor", "\"two\""},
        {"x = { a = b }", "'b' is neither a text in quotes nor", "\"b\""},
        {"x = yes", "'yes' is not a value", "write: true"},
        {"x = False", "'False' is not a value", "write: false"},
        {"title = \u201cSedge\u201d", "is not a quote in TOML", "use straight quotes"},
        {"é = \u00e9t\u00e9", "this cannot start a line", "key = value"},
        {"title = \"a\"\ntitle = \"b\"", "'title' is set twice", "keep one of them"},
        {"[flags]\n[flags]", "table [flags] is there already", "keep one of them"},
        {"title \"a\"", "= missing after the key", "key = value"},
        {"x = ", "no value after =", "write one"},
        {"colour = #ff0000 ", "no value: # starts a comment", "\"#ff0000\""},
        {"x = 1,5", "a comma within a number", "write a point: 1.5"},
        {"x = 'it's'", "there is more text after the value", "stands between"},
        {"x = [1]]", "one ] too many", "remove it"},
        {"maps = [\"a\" \"b\"]", "a comma or ] is missing in a list", "separate values by commas"},
        {"maps = [\"a\"", "closing ] missing: the list does not end", "add it"},
        {"[flags", "closing ] missing after the table's name", "add it"},
        {"[]", "a table without a name", "between the brackets"},
        {"x = { a = 1", "closing } missing", ""},
        {"x = { a = 1, }", "a comma before }", "remove it"},
        {"x = { a = 1 b = 2 }", "a comma or } is missing between { and }", "separate keys by commas"},
        {"x = \"C:\\users\"", "a backslash between double quotes", "single quotes"},
        {"x = \"C:\\maps\"", "a backslash between double quotes", "single quotes"},
        {"x = '''\n###", "closing quotes missing: the text does not end", "'''"},
        {"x = 012", "a number starts with 0", "remove the 0"},
        {"x = 1.", "digits missing after the point", ""},
        {"x = 99999999999999999999", "this number is too large", ""},
        {"// a comment", "/ cannot start a line", "comments start with #"},
        {"x = 2026-13-01", "date: expected month between 1 and 12", ""},   // the parser's own words
    };
    for (const Mistake& mistake : mistakes) {
        const std::string text = std::string("format = \"dryground/world/1\"\n") + mistake.line + "\n";
        INFO(mistake.line);
        const Report report = worlds::load({{"world.toml", text}}).report();
        REQUIRE(report.findings().size() == 1);
        const Finding& finding = report.findings().front();
        CHECK(finding.rule == Rule::syntax);
        CHECK_THAT(message(finding), Catch::Contains(mistake.what));
        CHECK_THAT(message(finding), !Catch::Contains("Error while"));
        const std::string hint = finding.hint ? finding.hint->text + ": " + finding.hint->set : "";
        CHECK_THAT(hint, Catch::Contains(mistake.hint));
    }
}
