// dryground list: tables of a world's content.

#include <fmt/format.h>

#include <algorithm>
#include <filesystem>
#include <memory>

#include "../command.hpp"
#include "../tables.hpp"
#include "dryground/text.hpp"

namespace app {

namespace dg = dryground;

namespace {

struct ListOptions {
    WorldArguments world;
    std::string what, format, out;
    Filter filter;
};

// Stops if the world has no such kind: an empty table would look like a result.
void test_kind(const dg::World& world, const std::string& name) {
    std::vector<std::string> names;
    for (const dg::Kind& kind : world.kinds()) names.push_back(kind.name);
    if (std::find(names.begin(), names.end(), name) != names.end()) return;
    const auto nearest = dg::nearest_name(name, names);
    stop(misuse, fmt::format("the world has no kind '{}'; {}", name,
                             nearest ? fmt::format("did you mean '{}'?", *nearest)
                                     : fmt::format("it has {}", fmt::join(names, ", "))));
}

void run_list(const ListOptions& options) {
    const Opened opened = options.world.open();
    if (const std::string& kind = options.filter.kind; !kind.empty()) test_kind(opened.world, kind);
    const Table table = make_table(opened.world, options.what, opened.maps, options.filter);
    const std::string text = options.format == "csv"    ? as_csv(table)
                             : options.format == "json" ? as_json(table, options.what)
                                                        : dg::visible(as_text(table));
    write_result(options.out, text);
}

}   // namespace

void add_list(CLI::App& app) {
    auto options = std::make_shared<ListOptions>();
    CLI::App* command = app.add_subcommand(
        "list",
        "List what a world holds: tiles, maps, layers, objects, kinds, flags, facts, events, links, contacts, limits");
    options->world.add_to(*command);
    command
        ->add_option("WHAT", options->what,
                     "tiles, maps, layers, objects, kinds, flags, facts, events, links, contacts or limits")
        ->required()
        ->check([](const std::string& text) {
            return std::filesystem::exists(text)
                       ? fmt::format("'{}' is a file, which comes first, as in: dryground list {} objects", text, text)
                       : std::string();
        })
        ->check(one_of(table_names()))
        ->type_name("");
    add_format(*command, options->format, options->out, {"text", "csv", "json"}, "text, csv or json");
    command->add_option("--kind", options->filter.kind, "Only objects of this kind")->type_name("NAME");
    command->add_option("--tagged", options->filter.tag, "Only what has this tag")->type_name("TAG");
    command->add_option("--name", options->filter.name, "Only names that match, * for any characters")
        ->type_name("PATTERN");
    command->add_option("--out", options->out, "Write to a file")->type_name("FILE");
    command->footer("Example: dryground list demo/world.toml objects --kind silt_crab --format csv");
    command->callback([options] { run_list(*options); });
}

}   // namespace app
