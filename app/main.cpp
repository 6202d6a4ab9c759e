// The command line: parses words, calls the library, prints.

#include <fmt/format.h>

#include <algorithm>
#include <csignal>
#include <cstdio>
#include <exception>
#include <memory>
#include <sstream>

#include "command.hpp"

namespace {

bool has_verbs(const CLI::App& command) {
    return !command.get_subcommands([](const CLI::App*) { return true; }).empty();
}

// Puts FILE first: options that take several words would swallow it. For a verb, also the words before it.
class Usage : public CLI::Formatter {
public:
    std::string make_usage(const CLI::App* command, std::string) const override {
        return fmt::format("Usage: {}{} [OPTIONS]\n", words_of(*command), has_verbs(*command) ? " COMMAND …" : "");
    }

private:
    static std::string words_of(const CLI::App& command) {
        const CLI::App* group = command.get_parent();
        std::string words = (group != nullptr ? words_of(*group) + " " : "") + command.get_name();
        for (const CLI::Option* option : command.get_options([](const CLI::Option* o) { return o->get_positional(); }))
            words += " " + option->get_name(true);
        return words;
    }
};

// Returns the command whose help is requested, with or without FILE; null if it is not requested.
const CLI::App* asked_for_help(const CLI::App& cli, int argc, char** argv) {
    const CLI::App* command = &cli;
    bool asked = false;
    for (int i = 1; i < argc; ++i) {
        const std::string word = argv[i];
        asked = asked || word == "-h" || word == "--help";
        for (const CLI::App* verb : command->get_subcommands([](const CLI::App*) { return true; }))
            if (verb->get_name() == word) {
                command = verb;
                break;
            }
    }
    return asked ? command : nullptr;
}

// Reports an unknown command, with the nearest known one.
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
    app::add_compare(cli);
    app::add_tiles(cli);
    app::add_new(cli);
    app::add_demo(cli);
    app::add_self(cli);
    try {
        if (argc > 1) check_command(cli, argv[1]);
        if (const CLI::App* command = asked_for_help(cli, argc, argv)) {
            app::print(command->help());
            return app::done;
        }
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
    std::signal(SIGPIPE, SIG_IGN);   // a closed reader is reported like any output that cannot be written
    try {
        return run(argc, argv);
    } catch (const std::exception& error) {
        app::say(fmt::format("dryground: {}\n", error.what()));
        return app::misuse;
    }
}
