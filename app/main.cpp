// The command line: parses words, calls the library, prints.

#include <fmt/format.h>

#include <cstdio>
#include <exception>

#include "command.hpp"

namespace {

int run(int argc, char** argv) {
    CLI::App cli("Dry Ground checks and merges tile maps: from a designer's files to physics geometry.", "dryground");
    cli.require_subcommand(1);
    cli.set_version_flag("--version", fmt::format("dryground {}", dryground::version));
    cli.footer("Every command has --help with an example. Exit codes: 0 done and clean, 1 findings in the way,\n2 a bad command line or a file that cannot be opened or written.");
    app::add_check(cli);
    app::add_merge(cli);
    app::add_draw(cli);
    app::add_list(cli);
    app::add_demo(cli);
    try {
        cli.parse(argc, argv);
    } catch (const app::Stop& stop) {
        return stop.code;
    } catch (const CLI::ParseError& error) {
        return cli.exit(error) == 0 ? app::done : app::misuse;
    }
    return app::done;
}

}   // namespace

int main(int argc, char** argv) {
    try {
        return run(argc, argv);
    } catch (const std::exception& error) {
        fmt::print(stderr, "dryground: {}\n", error.what());
        return app::misuse;
    }
}
