// What the commands of the command line share: opening a world, writing results, exit codes.
#pragma once

#include <fmt/format.h>

#include <CLI/CLI.hpp>
#include <filesystem>
#include <optional>
#include <string>
#include <vector>

#include "dryground/dryground.hpp"

namespace app {

// Exit codes: success without findings; findings that prevent it; a bad command line, or a file that cannot be opened
// or written.
enum Exit { done = 0, findings = 1, misuse = 2 };

// Ends a command early, after it printed the reason.
struct Stop {
    Exit code;
};

struct Opened {
    dryground::World world;
    dryground::Report warnings;   // of reading
    std::filesystem::path folder;
    std::vector<std::string> files;   // that were read, from the folder
    std::vector<std::string> maps;    // to work on: those asked for, else the one whose file was given, else all
    std::string tileset;              // whose file was given
};

// Adds FILE and --map, which all commands on a world have.
struct WorldArguments {
    std::string file;
    std::vector<std::string> maps;

    void add_to(CLI::App& command, bool with_maps = true);
    // Opens the world; prints what is wrong and throws Stop if it cannot be opened. `within_px`: above 0, replaces the
    // world's setting for curves.
    [[nodiscard]] Opened open(double within_px = 0) const;
    // Returns what FILE leads to; findings if its own content is the reason that it leads to nothing. Throws Stop for
    // faults.
    [[nodiscard]] dryground::Result<dryground::FoundWorld> find() const;
    // Does the same and prints such findings; throws Stop, with what was not done: "nothing was made".
    [[nodiscard]] dryground::FoundWorld find_or_stop(std::string_view not_done) const;
    // Returns the requested maps, each tested to exist; throws Stop.
    [[nodiscard]] std::vector<std::string> pick_maps(const dryground::World& world,
                                                     const std::string& map_of_file) const;
};

// Returns the findings of reading and checking, which may look at the world's pictures.
[[nodiscard]] dryground::Report all_findings(const Opened& opened);

// Writes a result to a file, or to standard output if no name is given; throws Stop if that fails.
void write_result(const std::string& out, std::string_view bytes);

// Return numbers separated by commas, and whole ones, exactly so many. Each throws Stop if the text is something else,
// with what it should be.
[[nodiscard]] std::vector<double> numbers_in(const std::string& text, const std::string& what);
[[nodiscard]] std::vector<int> wholes_in(const std::string& text, std::size_t count, const std::string& what);

// Accepts one of some words; the error names the nearest, and all.
[[nodiscard]] CLI::Validator one_of(const std::vector<std::string>& words);
// Accepts a finite number of a range: CLI11's own range accepts nan.
[[nodiscard]] CLI::Validator numbers_from(double least, double most);

// Adds --format: by default the format that --out ends with (out.json), else the first of all. `format` and `out` must
// live as long as the command does.
void add_format(CLI::App& command, std::string& format, const std::string& out, std::vector<std::string> formats,
                const std::string& help);

// Returns the file of one of several maps: station.png becomes station-slipway.png.
[[nodiscard]] std::filesystem::path path_for(const std::filesystem::path& out, const std::string& map, bool several);

// Print to standard error, and to standard output: texts for people, with control characters of terminals made visible.
void say(std::string_view text);
void print(std::string_view text);
// Print bytes unchanged: results for programs, and our own colours.
void say_bytes(std::string_view bytes);
void print_bytes(std::string_view bytes);
[[nodiscard]] std::string coloured(const dryground::Report& report);   // text, with colours on a terminal

[[noreturn]] void stop(Exit code, std::string_view why);
// Reports an unknown map, with the nearest name or all.
[[noreturn]] void stop_without_map(const std::string& name, const std::vector<std::string>& names);

// Returns the position of a thing by its name; ends the command if it is unknown, with the nearest name.
template <dryground::IsId Id, class Things>
Id find_named(const Things& things, const std::string& name, const char* option, const char* sort) {
    std::vector<std::string> names;
    for (const auto& thing : things) {
        if (thing.name == name) return dryground::id_of<Id>(names.size());
        names.push_back(thing.name);
    }
    const auto nearest = dryground::nearest_name(name, names);
    stop(misuse, fmt::format("{}: the world has no {} '{}'{}; it has: {}", option, sort, name,
                             nearest ? fmt::format("; did you mean '{}'?", *nearest) : "", fmt::join(names, ", ")));
}

// Prints the small table that ends every command that makes something: what went in and what came out, by map.
void say_figures(const dryground::World& world, const std::vector<dryground::Merge>& merges);

// Each adds its command; the command's callback does the work and throws Stop to end with a code other than `done`.
void add_check(CLI::App& app);
void add_compare(CLI::App& app);
void add_merge(CLI::App& app);
void add_pack(CLI::App& app);
void add_draw(CLI::App& app);
void add_probe(CLI::App& app);
void add_walk(CLI::App& app);
void add_keys(CLI::App& app);
void add_list(CLI::App& app);
void add_edit(CLI::App& app);
void add_tiles(CLI::App& app);
void add_new(CLI::App& app);
void add_demo(CLI::App& app);
void add_self(CLI::App& app);

}   // namespace app
