// dryground keys: the keys of designers' files.

#include <algorithm>
#include <memory>

#include "../command.hpp"
#include "dryground/keys.hpp"

namespace app {

namespace dg = dryground;

void add_keys(CLI::App& app) {
    struct Options {
        std::string thing, schema;
    };
    auto options = std::make_shared<Options>();
    CLI::App* command = app.add_subcommand("keys", "List the keys of worlds, tile sets and maps");
    command->add_option("THING", options->thing,
                        "world, tiles, map, mover, kind, tile, layer, object, …; all if left out");
    command
        ->add_option("--schema", options->schema,
                     "The JSON Schema of a format in place of a table: world, tiles, map or pack")
        ->check(one_of({"world", "tiles", "map", "pack"}));
    command->footer("Example: dryground keys layer\n         dryground keys --schema map > map.schema.json");
    command->callback([options] {
        if (!options->schema.empty()) return print_bytes(dg::schema_text(options->schema));
        const std::vector<std::string_view> things = dg::things_with_keys();
        if (!options->thing.empty()) {
            if (std::find(things.begin(), things.end(), options->thing) == things.end()) {
                const auto nearest =
                    dg::nearest_name(options->thing, std::vector<std::string>(things.begin(), things.end()));
                stop(misuse, fmt::format("there is no '{}'; {}", options->thing,
                                         nearest ? fmt::format("did you mean '{}'?", *nearest)
                                                 : fmt::format("there are {}", fmt::join(things, ", "))));
            }
            return print(dg::key_page(options->thing));
        }
        for (const std::string_view thing : things)
            print(fmt::format("{}{}", thing == things.front() ? "" : "\n", dg::key_page(thing)));
    });
}

}   // namespace app
