// dryground check: what is wrong with a world.

#include <fmt/format.h>

#include <algorithm>
#include <memory>
#include <tuple>

#include "../as_meant.hpp"
#include "../command.hpp"
#include "../progress.hpp"
#include "../watch.hpp"

namespace app {

namespace dg = dryground;

namespace {

struct CheckOptions {
    WorldArguments world;
    std::string format, fail_on = "error", out, explain;
    std::vector<std::string> only;
    bool watch = false;
};

dg::Report all_findings_of(const CheckOptions& options, const dg::Result<dg::FoundWorld>& found,
                           std::optional<std::string>& title) {
    if (!found) return found.report();
    dg::Result<dg::World> loaded = dg::load_world(found->world, counting(found->reader));
    dg::Report report = loaded.report();
    report.add(found.report());
    if (!loaded) {
        const auto meant = as_meant(report, found->world, found->reader);
        if (meant) loaded = dg::load_world(found->world, *meant);
        if (!loaded) return report;
        report = told_as_meant(report);
    }
    title = loaded->title();
    report.add(dg::check(*loaded, {.pictures = dg::pictures_of(found->world), .progress = progress_of("checking")}));
    const std::vector<std::string> maps = options.world.pick_maps(*loaded, found->map);
    if (maps.size() == loaded->maps().size()) return report;
    dg::Report of_maps;
    of_maps.add_waived(report.counts().waived);   // what belongs to no map concerns all of them
    for (const dg::Finding& finding : report.findings())
        if (finding.map.empty() || std::find(maps.begin(), maps.end(), finding.map) != maps.end()) of_maps.add(finding);
    return of_maps;
}

dg::Report findings_of(const CheckOptions& options, const dg::Result<dg::FoundWorld>& found,
                       std::optional<std::string>& title) {
    dg::Report report = all_findings_of(options, found, title);
    if (options.only.empty()) return report;
    dg::Report picked;
    for (const dg::Finding& finding : report.findings())
        if (std::find(options.only.begin(), options.only.end(), dg::rule_text(finding.rule).name) != options.only.end())
            picked.add(finding);
    return picked;
}

// Returns findings of `now` that were not in `before`: compared by their text, since lines move when something is
// written above.
std::vector<const dg::Finding*> new_in(const dg::Report& now, const dg::Report& before) {
    const auto key = [](const dg::Finding& finding) {
        return std::tuple(finding.rule, finding.place.file, dg::message(finding), finding.map, finding.layer,
                          finding.object);
    };
    std::vector<decltype(key(now.findings().front()))> known;
    for (const dg::Finding& finding : before.findings()) known.push_back(key(finding));
    std::vector<const dg::Finding*> found;
    for (const dg::Finding& finding : now.findings())
        if (const auto at = std::find(known.begin(), known.end(), key(finding)); at != known.end())
            known.erase(at);
        else
            found.push_back(&finding);
    return found;
}

// "maps/slipway.map.toml saved: 1 new, 2 fixed", and which.
std::string changes(const std::string& saved, const dg::Report& before, const dg::Report& now) {
    const auto added = new_in(now, before), fixed = new_in(before, now);
    std::string all = added.empty() && fixed.empty()
                          ? fmt::format("{} saved: the findings are the same\n", saved)
                          : fmt::format("{} saved: {} new, {} fixed\n", saved, added.size(), fixed.size());
    for (const dg::Finding* finding : added) all += "+ " + dg::text(*finding);
    for (const dg::Finding* finding : fixed) all += "- " + dg::text(*finding);
    return all + dg::text(now.counts()) + "\n";
}

// Checks again whenever a file of the world is saved, until it is stopped.
[[noreturn]] void watch_check(const CheckOptions& options) {
    const dg::Result<dg::FoundWorld> first = options.world.find();
    const std::filesystem::path file = options.world.file;
    const std::filesystem::path folder = std::filesystem::path(first ? first->world : file.string()).parent_path();
    std::optional<std::string> title;
    Watch files;
    const auto look = [&](const dg::Result<dg::FoundWorld>& found) {
        std::vector<std::filesystem::path> paths{found ? found->world : file.string()};
        const auto remember = [&](const std::string& path) {   // also what is wrong, or not there
            paths.emplace_back(path);
            return found->reader(path);
        };
        if (found) (void)dg::load_drafts(found->world, remember);
        files.look_at(paths);
    };
    look(first);
    dg::Report report = findings_of(options, first, title);
    print_bytes(coloured(report));
    say("dryground: watching for changes; Ctrl-C to stop\n");
    for (;;) {
        std::string saved;
        for (const std::filesystem::path& path : files.wait())
            if (!std::filesystem::is_directory(path))
                saved += (saved.empty() ? "" : ", ") + path.lexically_relative(folder).generic_string();
        const dg::Result<dg::FoundWorld> found = dg::find_world(options.world.file);
        if (!found.fault().empty()) {
            say(fmt::format("dryground: cannot open '{}': {}; still waiting\n", options.world.file, found.fault()));
            continue;
        }
        look(found);
        dg::Report now = findings_of(options, found, title);
        if (saved.empty() && new_in(now, report).empty() && new_in(report, now).empty()) continue;
        print(changes(saved.empty() ? "a file" : saved, report, now));
        report = std::move(now);
    }
}

const dg::RuleText& find_rule(const std::string& name) {
    if (const dg::RuleText* rule = dg::find_rule(name)) return *rule;
    std::vector<std::string> names;
    for (const dg::RuleText& row : dg::all_rules()) names.emplace_back(row.name);
    const auto nearest = dg::nearest_name(name, names);
    stop(misuse,
         fmt::format("there is no rule '{}'{}", name, nearest ? fmt::format("; did you mean '{}'?", *nearest) : ""));
}

// Prints one rule's page, or those of all by subject, after a list of them.
void explain(const std::string& name) {
    if (name != "all") {
        print(dg::text(dg::rule_page(find_rule(name).rule)));
        return;
    }
    std::string contents, pages;
    std::string_view subject;
    for (const dg::RuleText& rule : dg::all_rules()) {
        const bool begins = dg::subject_of(rule.rule) != subject;
        if (begins) {
            subject = dg::subject_of(rule.rule);
            contents += fmt::format("{}- {}:", contents.empty() ? "" : "\n", subject);
            pages += fmt::format("\n## {}\n", subject);
        }
        contents += fmt::format("{}[{}](#{})", begins ? " " : ", ", rule.name, rule.name);
        pages += "\n" + dg::text(dg::rule_page(rule.rule), 3);
    }
    print(contents + "\n" + pages);
}

// Returns a line for a world that could not be read, of which no title is known; else nothing.
std::string unread(const std::optional<std::string>& title) {
    return title ? "" : "only reading was checked: the other rules are run once these errors are fixed\n";
}

void run_check(const CheckOptions& options) {
    if (!options.explain.empty()) {
        explain(options.explain);
        return;
    }
    if (options.world.file.empty()) stop(misuse, "FILE is required");
    for (const std::string& rule : options.only) (void)find_rule(rule);
    if (options.watch) {
        if (options.format != "text" || !options.out.empty())
            stop(misuse, "--watch reports changes as text, on standard output");
        watch_check(options);
    }
    std::optional<std::string> title;
    const dg::Report report = findings_of(options, options.world.find(), title);
    write_result(options.out, options.format == "json"    ? dg::report_json(report, title.value_or(""))
                              : options.format == "sarif" ? dg::report_sarif(report)
                              : options.out.empty()       ? coloured(report) + unread(title)
                                                          : dg::text(report) + unread(title));
    if (report.has(*dg::severity_from(options.fail_on))) throw Stop{findings};
}

}   // namespace

void add_check(CLI::App& app) {
    auto options = std::make_shared<CheckOptions>();
    CLI::App* command = app.add_subcommand("check", "Find the mistakes of a world before anyone plays it");
    options->world.add_to(*command);
    command->get_option("FILE")->required(false);   // --explain needs none
    command->add_option("--explain", options->explain, "What a rule is about; all: every rule's page")
        ->type_name("RULE");
    add_format(*command, options->format, options->out, {"text", "json", "sarif"}, "text, json or sarif");
    command
        ->add_option("--fail-on", options->fail_on,
                     "The least severity that ends with exit code 1: error, warning or note (default: error)")
        ->check(one_of({"error", "warning", "note"}))
        ->type_name("SEVERITY");
    command->add_option("--only", options->only, "Only findings of these rules")->type_name("RULE");
    command->add_flag("--watch", options->watch,
                      "Check again whenever a file of the world is saved, and report what is new and what is fixed");
    command->add_option("--out", options->out, "Write the report to a file")->type_name("FILE");
    command->footer("Example: dryground check demo/broken/world.toml --fail-on warning");
    command->callback([options] { run_check(*options); });
}

}   // namespace app
