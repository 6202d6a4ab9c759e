// The command line: parses words, calls the library, prints.

#include <fmt/format.h>

#include <algorithm>
#include <cstdio>
#include <exception>
#include <memory>
#include <sstream>

#include "command.hpp"

namespace {

// FILE first: options that take several words would swallow it.
class Usage : public CLI::Formatter {
public:
    std::string make_usage(const CLI::App* command, std::string name) const override {
        std::string words;
        for (const CLI::Option* option : command->get_options([](const CLI::Option* o) { return o->get_positional(); }))
            words += " " + option->get_name(true);
        if (!command->get_subcommands([](const CLI::App*) { return true; }).empty()) words += " COMMAND …";
        return fmt::format("Usage: {}{} [OPTIONS]\n", name, words);
    }
};

// A command that is none, told with the nearest that is.
void check_command(const CLI::App& cli, const char* word) {
    std::vector<std::string> names;
    for (const CLI::App* command : cli.get_subcommands([](const CLI::App*) { return true; })) {
        if (command->get_name() == word) return;
        if (!command->get_group().empty()) names.push_back(command->get_name());
    }
    if (word[0] == '-') return;
    const auto nearest = dryground::nearest_name(word, names);
    app::stop(app::misuse, fmt::format("there is no command '{}'; {}", word,
                                       nearest ? fmt::format("did you mean '{}'?", *nearest)
                                               : fmt::format("there are {}", fmt::join(names, ", "))));
}

int run(int argc, char** argv) {
    CLI::App cli("Dry Ground checks and merges tile maps: from a designer's files to physics geometry.", "dryground");
    cli.require_subcommand(1);
    cli.formatter(std::make_shared<Usage>());
    cli.set_version_flag("--version", fmt::format("dryground {}", dryground::version));
    cli.footer(
        "Every command has --help with an example. Exit codes: 0 done and clean, 1 findings in the way,\n2 a bad "
        "command line or a file that cannot be opened or written.");
    app::add_check(cli);
    app::add_merge(cli);
    app::add_pack(cli);
    app::add_draw(cli);
    app::add_probe(cli);
    app::add_walk(cli);
    app::add_list(cli);
    app::add_keys(cli);
    app::add_edit(cli);
    app::add_tiles(cli);
    app::add_new(cli);
    app::add_demo(cli);
    app::add_self(cli);
    try {
        if (argc > 1) check_command(cli, argv[1]);
        cli.parse(argc, argv);
    } catch (const app::Stop& stop) {
        return stop.code;
    } catch (const CLI::ParseError& error) {
        std::ostringstream out, err;
        const int code = cli.exit(error, out, err);
        app::print(out.str());
        app::say(err.str());
        return code == 0 ? app::done : app::misuse;
    }
    return app::done;
}

}   // namespace

int main(int argc, char** argv) {
    try {
        return run(argc, argv);
    } catch (const std::exception& error) {
        app::say(fmt::format("dryground: {}\n", error.what()));
        return app::misuse;
    }
}
