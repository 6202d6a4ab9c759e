// dryground check: what is wrong with a world.

#include <fmt/format.h>

#include <memory>

#include "../command.hpp"

namespace app {

namespace dg = dryground;

namespace {

struct Options {
    WorldArguments world;
    std::string format = "text", fail_on = "error", out;
    std::vector<std::string> only;
};

dg::Report all_findings(const Options& options, std::string& title) {
    const dg::FoundWorld found = options.world.find();
    if (!found.report.empty()) return found.report;
    const dg::Loaded loaded = dg::load_world(found.world);
    dg::Report report = loaded.report();
    if (!loaded) return report;
    title = loaded.world().title();
    report.add(dg::check(loaded.world()));
    const std::vector<std::string> maps = options.world.pick_maps(loaded.world(), found.map);
    if (maps.size() == loaded.world().maps().size()) return report;
    dg::Report of_maps;   // what belongs to no map concerns all of them
    for (const dg::Finding& finding : report.findings())
        if (finding.map.empty() || std::find(maps.begin(), maps.end(), finding.map) != maps.end()) of_maps.add(finding);
    return of_maps;
}

void run(const Options& options) {
    for (const std::string& rule : options.only)
        if (dg::find_rule(rule) == nullptr) {
            std::vector<std::string> names;
            for (const dg::RuleText& row : dg::all_rules()) names.emplace_back(row.name);
            const auto nearest = dg::nearest_name(rule, names);
            stop(misuse, fmt::format("there is no rule '{}'{}", rule,
                                     nearest ? fmt::format("; did you mean '{}'?", *nearest) : ""));
        }
    std::string title;
    dg::Report report = all_findings(options, title);
    if (!options.only.empty()) {
        dg::Report picked;
        for (const dg::Finding& finding : report.findings())
            if (std::find(options.only.begin(), options.only.end(), dg::rule_text(finding.rule).name) !=
                options.only.end())
                picked.add(finding);
        report = std::move(picked);
    }
    write_result(options.out, options.format == "json" ? dg::report_json(report, title)
                              : options.out.empty()    ? coloured(report)
                                                       : dg::text(report));
    if (report.has(*dg::severity_from(options.fail_on))) throw Stop{findings};
}

}   // namespace

void add_check(CLI::App& app) {
    auto options = std::make_shared<Options>();
    CLI::App* command = app.add_subcommand("check", "Find the mistakes of a world before anyone plays it");
    options->world.add_to(*command);
    command->add_option("--format", options->format, "text or json (default: text)")
        ->check(CLI::IsMember({"text", "json"}))
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
