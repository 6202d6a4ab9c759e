// Single mistakes of the kinds that people make, put into a world that has none: what `check` is measured by.
#pragma once

#include <string>
#include <vector>

#include "worlds.hpp"

namespace mistakes {

using dryground::Rule;
using worlds::Files;

// Where a finding about a mistake may stand: any column of a line, or a span of columns, or any line that contains a
// word.
struct Spot {
    std::string file;
    int first_line = 0, last_line = 0;
    int first_column = 0, last_column = 0;   // 0: any
};

struct Mistake {
    std::string sort;          // "a boolean in quotes"
    std::string what;          // "maps/slipway.map.toml:90: true -> \"true\""
    Files files;               // the world with it
    std::vector<Rule> rules;   // any of them names it rightly
    std::vector<Spot> spots;   // any of them is its place
};

// Line and column (characters) of a byte, both from 1.
struct LineColumn {
    int line = 1, column = 1;
};
[[nodiscard]] LineColumn line_column(const std::string& text, std::size_t byte);

// A word of a TOML file, outside comments and rows.
struct Word {
    enum class Sort { key, header, text, number, yes_no } sort;
    std::size_t at = 0, size = 0;   // bytes; texts with their quotes
    std::string key;   // the key whose value it stands in; of headers, and of keys that begin a line, the table
};
[[nodiscard]] std::vector<Word> words_of(const std::string& toml);

// The files with a span of bytes replaced.
[[nodiscard]] Files replaced(Files files, const std::string& file, std::size_t at, std::size_t size,
                             const std::string& by);

// Slips of the pen, made of every word of every TOML file: names and keys misspelt, values in quotes, rows cut.
[[nodiscard]] std::vector<Mistake> slips(const Files& files);
// Mistakes of meaning in the demo world: shapes, places, links, facts.
[[nodiscard]] std::vector<Mistake> mistakes_of_meaning(const Files& demo);

// Returns whether the mistake's own rule reports it at its own place.
[[nodiscard]] bool is_found(const Mistake& mistake, const dryground::Report& report);

}   // namespace mistakes
