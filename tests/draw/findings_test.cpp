// Marks of findings: where they stand, what they say, and what is left out.
#include <catch2/catch.hpp>

#include "clean_worlds.hpp"
#include "draw/picture_internal.hpp"
#include "pictures.hpp"

using namespace dryground;
using namespace pictures;

TEST_CASE("findings are marked, numbered and reported in words") {
    const Document document(
        svg_of(world_of(worlds::with(worlds::small_world(), "flat.toml", "at = [24, 48]", "at = [24, 50]"))));
    CHECK(document.has_text("error: 'landing' stands 2 px inside solid ground [spawn-blocked]"));
    CHECK(document.has_text("nearest free place: at = [24, 48]"));
    CHECK(document.count("//g[@id='findings']/text[.='1']") == 1);
}

TEST_CASE("of very many findings the first are reported, and the others are dots; the key says so") {
    const World world = world_of(worlds::small_world());
    Report report;
    for (int i = 0; i < 500; ++i) {
        Finding finding;
        finding.rule = Rule::step;
        finding.severity = Severity::warning;
        finding.place = {"flat.toml", 1 + i, 1, {}};
        finding.map = "flat";
        finding.cell = {{i % 6, i % 4}};
        finding.arguments.assign(rule_text(Rule::step).arguments, "x");
        report.add(std::move(finding));
    }
    DrawOptions options;
    options.scale = 16;
    const Document document(draw_svg(world, world.map("flat"), report, no_art, options));
    CHECK(document.count("//g[@id='findings']/circle[@class='dot']") == 300);
    CHECK(document.has_text("and 300 more, marked by dots"));
    // A mark for each of the twelve cells: three numbers, and how many more there are.
    CHECK(document.count("//g[@id='findings']/text") == 12);
    CHECK(document.count("//g[@id='findings']/text[.='1, 13, 25 +14']") == 1);
    CHECK(document.count("//g[@id='findings']/text[contains(., ' +')]") == 12);
}

TEST_CASE("labels and marks never lie over one another, and all lie in the map's frame") {
    for (std::uint64_t round = 0; round < 12; ++round) {
        const World world = world_of(worlds::clean_world(round));
        for (const Map& map : world.maps())
            for (const double scale : {0.5, 1.0, 2.0, 4.0}) {
                DrawOptions options;
                options.scale = scale;
                const drawing::MapPicture picture(world, map, {}, options);
                for (std::size_t a = 0; a < picture.labels.size(); ++a) {
                    const drawing::Box& box = picture.labels[a].box;
                    CHECK(box.x >= picture.frame.x);
                    CHECK(box.x + box.width <= picture.frame.x + picture.frame.width);
                    for (std::size_t b = 0; b < a; ++b) CHECK_FALSE(box.meets(picture.labels[b].box));
                }
                std::size_t named = 0;
                for (const Object& object : map.objects) named += !object.name.empty() || object.role == Role::link;
                CHECK(picture.labels.size() + picture.labels_left_out >= named);   // none is lost without a word
            }
    }
}

TEST_CASE("findings of one place share a mark that has their numbers") {
    const World world = world_of(worlds::small_world());
    Report report;
    for (const Severity severity : {Severity::note, Severity::warning, Severity::note, Severity::error}) {
        Finding finding;
        finding.rule = Rule::crack, finding.severity = severity, finding.map = "flat";
        finding.arguments.assign(rule_text(Rule::crack).arguments, "1");
        finding.cell = Cell{severity == Severity::error ? 4 : 2, 1};
        report.add(std::move(finding));
    }
    const auto count = [](const std::string& svg, const std::string& words) {
        std::size_t found = 0;
        for (std::size_t at = svg.find(words); at != std::string::npos; at = svg.find(words, at + 1)) ++found;
        return found;
    };
    const std::string svg = draw_svg(world, world.map("flat"), report, no_art, {});
    std::string numbers;   // of those that are no error, in the order of the report
    for (std::size_t i = 0; i < report.findings().size(); ++i)
        if (report.findings()[i].severity != Severity::error)
            numbers += fmt::format("{}{}", numbers.empty() ? "" : ", ", i + 1);
    CHECK(count(svg, ">" + numbers + "</text>") == 1);
    CHECK(count(svg, "rx=\"3\" fill=\"#8a5a00\"") ==
          1 + 1);   // the mark, by the worst of them; the warning in the list
}
