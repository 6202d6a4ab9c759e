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

// Exit codes: done and clean; findings in the way; a bad command line, or a file that cannot be opened or written.
enum Exit { done = 0, findings = 1, misuse = 2 };

// A command ended early, after it said why.
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

// FILE and --map, which all commands on a world have.
struct WorldArguments {
    std::string file;
    std::vector<std::string> maps;

    void add_to(CLI::App& command, bool with_maps = true);
    // Opens the world; says what is wrong and throws Stop when it cannot be.
    // `within_px`: above 0, in place of what the world says of curves.
    [[nodiscard]] Opened open(double within_px = 0) const;
    // What FILE leads to; findings where its own content is the reason why that is nothing. Throws Stop for faults.
    [[nodiscard]] dryground::Result<dryground::FoundWorld> find() const;
    // The same, with such findings told; throws Stop, with what was not done: "nothing was made".
    [[nodiscard]] dryground::FoundWorld find_or_stop(std::string_view not_done) const;
    // The asked-for maps, each tested to be there; throws Stop.
    [[nodiscard]] std::vector<std::string> pick_maps(const dryground::World& world,
                                                     const std::string& map_of_file) const;
};

// The findings of reading and checking, with a look at the world's pictures.
[[nodiscard]] dryground::Report all_findings(const Opened& opened);

// Writes a result to a file, or to standard output when there is no name; throws Stop when it cannot be.
void write_result(const std::string& out, std::string_view bytes);

// Numbers with commas between them, and whole ones, just so many. Each throws Stop where the text is something else,
// with what it should be.
[[nodiscard]] std::vector<double> numbers_in(const std::string& text, const std::string& what);
[[nodiscard]] std::vector<int> wholes_in(const std::string& text, std::size_t count, const std::string& what);

// One of some words; the error names the nearest, and all.
[[nodiscard]] CLI::Validator one_of(const std::vector<std::string>& words);
// A finite number of a range: CLI11's own range accepts nan.
[[nodiscard]] CLI::Validator numbers_from(double least, double most);

// --format: where it is not given, the format that --out ends with (out.json), else the first of all. `format` and
// `out` must live as long as the command does.
void add_format(CLI::App& command, std::string& format, const std::string& out, std::vector<std::string> formats,
                const std::string& help);

// Of several maps each gets a file of its own: station.png becomes station-slipway.png.
[[nodiscard]] std::filesystem::path path_for(const std::filesystem::path& out, const std::string& map, bool several);

// To standard error, and to standard output: texts for people, with what a terminal would obey made visible.
void say(std::string_view text);
void print(std::string_view text);
// The same of bytes as they are: results for programs, and our own colours.
void say_bytes(std::string_view bytes);
void print_bytes(std::string_view bytes);
[[nodiscard]] std::string coloured(const dryground::Report& report);   // text, with colours on a terminal

[[noreturn]] void stop(Exit code, std::string_view why);
// Where a world has no map of a name: says so, with the nearest or all that it has.
[[noreturn]] void stop_without_map(const std::string& name, const std::vector<std::string>& names);

// The position of a thing by its name; ends the command where there is none, with the nearest there is.
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

// The small table that ends every command that makes something: what went in and what came out, by map.
void say_figures(const dryground::World& world, const std::vector<dryground::Merge>& merges);

// Each adds its command; the command's callback does the work and throws Stop to end with another code than `done`.
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
