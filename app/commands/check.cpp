// dryground check: what is wrong with a world.

#include <fmt/format.h>

#include <memory>

#include "../command.hpp"

namespace app {

namespace dg = dryground;

namespace {

struct Options {
    WorldArguments world;
    std::string format = "text", fail_on = "error", out, explain;
    std::vector<std::string> only;
};

dg::Report findings_of(const Options& options, std::string& title) {
    const dg::FoundWorld found = options.world.find();
    if (!found.report.empty()) return found.report;
    const dg::Loaded loaded = dg::load_world(found.world);
    dg::Report report = loaded.report();
    if (!loaded) return report;
    title = loaded.world().title();
    report.add(dg::check(loaded.world(), {dg::pictures_of(found.world)}));
    const std::vector<std::string> maps = options.world.pick_maps(loaded.world(), found.map);
    if (maps.size() == loaded.world().maps().size()) return report;
    dg::Report of_maps;
    of_maps.add_waived(report.counts().waived);   // what belongs to no map concerns all of them
    for (const dg::Finding& finding : report.findings())
        if (finding.map.empty() || std::find(maps.begin(), maps.end(), finding.map) != maps.end()) of_maps.add(finding);
    return of_maps;
}

const dg::RuleText& find_rule(const std::string& name) {
    if (const dg::RuleText* rule = dg::find_rule(name)) return *rule;
    std::vector<std::string> names;
    for (const dg::RuleText& row : dg::all_rules()) names.emplace_back(row.name);
    const auto nearest = dg::nearest_name(name, names);
    stop(misuse,
         fmt::format("there is no rule '{}'{}", name, nearest ? fmt::format("; did you mean '{}'?", *nearest) : ""));
}

// One rule's page, or those of all.
void explain(const std::string& name) {
    if (name != "all") {
        print(dg::text(dg::rule_page(find_rule(name).rule)));
        return;
    }
    std::string pages;
    for (const dg::RuleText& rule : dg::all_rules())
        pages += (pages.empty() ? "" : "\n") + dg::text(dg::rule_page(rule.rule));
    print(pages);
}

void run(const Options& options) {
    if (!options.explain.empty()) {
        explain(options.explain);
        return;
    }
    if (options.world.file.empty()) stop(misuse, "FILE is required");
    for (const std::string& rule : options.only) (void)find_rule(rule);
    std::string title;
    dg::Report report = findings_of(options, title);
    if (!options.only.empty()) {
        dg::Report picked;
        for (const dg::Finding& finding : report.findings())
            if (std::find(options.only.begin(), options.only.end(), dg::rule_text(finding.rule).name) !=
                options.only.end())
                picked.add(finding);
        report = std::move(picked);
    }
    write_result(options.out, options.format == "json"    ? dg::report_json(report, title)
                              : options.format == "sarif" ? dg::report_sarif(report)
                              : options.out.empty()       ? coloured(report)
                                                          : dg::text(report));
    if (report.has(*dg::severity_from(options.fail_on))) throw Stop{findings};
}

}   // namespace

void add_check(CLI::App& app) {
    auto options = std::make_shared<Options>();
    CLI::App* command = app.add_subcommand("check", "Find the mistakes of a world before anyone plays it");
    options->world.add_to(*command);
    command->get_option("FILE")->required(false);   // --explain needs none
    command->add_option("--explain", options->explain, "What a rule is about; all: every rule's page")
        ->type_name("RULE");
    command->add_option("--format", options->format, "text, json or sarif (default: text)")
        ->check(CLI::IsMember({"text", "json", "sarif"}))
        ->type_name("FORMAT");
    command
        ->add_option("--fail-on", options->fail_on,
                     "The least severity that ends with exit code 1: error, warning or note (default: error)")
        ->check(CLI::IsMember({"error", "warning", "note"}))
        ->type_name("SEVERITY");
    command->add_option("--only", options->only, "Only findings of these rules")->type_name("RULE");
    command->add_option("--out", options->out, "Write the report to a file")->type_name("FILE");
    command->footer("Example: dryground check demo/broken/world.toml --fail-on warning");
    command->callback([options] { run(*options); });
}

}   // namespace app
