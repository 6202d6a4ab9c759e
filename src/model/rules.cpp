// The one table of rules and of the sentences that findings are told in.

#include <algorithm>

#include "dryground/report.hpp"

namespace dryground {

namespace {

using enum Severity;

constexpr RuleText table[] = {
    {Rule::syntax, "syntax", error, "this is not TOML: {}", 1},
    {Rule::format_version, "format-version", error, "format is '{}', but this version reads '{}'", 2},
    {Rule::unknown_key, "unknown-key", error, "'{}' is not a key of {}", 2},
    {Rule::wrong_type, "wrong-type", error, "{} is {}, but should be {}", 3},
    {Rule::out_of_range, "out-of-range", error, "{} is {}, but should be {}", 3},
    {Rule::missing_key, "missing-key", error, "{} has no '{}'", 2},
    {Rule::bad_name, "bad-name", error, "'{}' cannot name {}", 2},
    {Rule::duplicate_name, "duplicate-name", error, "{} '{}' is here twice", 2},
    {Rule::ambiguous_name, "ambiguous-name", error, "'{}' is a {} of '{}' and of '{}'", 4},
    {Rule::unknown_name, "unknown-name", error, "there is no {} '{}'", 2},
    {Rule::file_missing, "file-missing", error, "'{}' cannot be opened: {}", 2},
    {Rule::path_outside, "path-outside", error, "'{}' leads out of the world's folder", 1},
    {Rule::too_large, "too-large", error, "{} is {}, but the most is {}", 3},
    {Rule::legend_missing, "legend-missing", error, "'{}' is not in the legend", 1},
    {Rule::legend_unused, "legend-unused", warning, "'{}' is in the legend, but nowhere in the data", 1},
    {Rule::row_length, "row-length", error, "row {} has {} cells, but the map has {} columns", 3},
    {Rule::grid_size, "grid-size", error, "layer '{}' has {} rows, but the map has {}", 3},
    {Rule::bad_text, "bad-text", error, "this is not UTF-8 text: {}", 1},
    {Rule::bad_picture, "bad-picture", error, "'{}' cannot be read as a picture: {}", 2},
    {Rule::wrong_file, "wrong-file", error, "'{}' is {}, but {} is wanted here", 3},
    {Rule::like_chain, "like-chain", error, "'{}' is like '{}', which is itself like '{}'", 3},
    {Rule::shape_crosses_itself, "shape-crosses-itself", error, "{} crosses itself at ({}, {})", 3},
    {Rule::shape_empty, "shape-empty", error, "{} has no area: {}", 2},
    {Rule::shape_outside, "shape-outside", error, "{} reaches {} px out of its cell", 2},
    {Rule::undecided, "undecided", warning, "tile '{}' says nothing of its shapes, and is used in {}", 2},
    {Rule::no_barrier, "no-barrier", error, "{} belongs to no barrier, so that nothing is stopped by it", 1},
    {Rule::kind_field, "kind-field", error, "property '{}' of {}: {}", 3},
    {Rule::family_gap, "family-gap", warning, "family '{}' has no member for neighbours {}", 2},
    {Rule::turn_not_square, "turn-not-square", error, "'{}' is turned by {} degrees, but its cells are {} x {} px", 4},
    {Rule::art_outside, "art-outside", error, "the art of '{}' at [{}, {}] lies outside its sheet of {} x {} cells", 5},
    {Rule::cell_size, "cell-size", error, "tile set '{}' has cells of {} px, but the map has cells of {} px", 3},
    {Rule::start_missing, "start-missing", error, "play has no place to start: {}", 1},
    {Rule::spawn_blocked, "spawn-blocked", error, "'{}' stands {} px inside {}", 3},
    {Rule::object_outside, "object-outside", error, "{} lies {} px outside the map", 2},
    {Rule::trigger_empty, "trigger-empty", error, "{} has no area, so nothing can enter it", 1},
    {Rule::link_target, "link-target", error, "{} leads to '{}', but {}", 3},
    {Rule::link_arrival_blocked, "link-arrival-blocked", error,
     "{} leads to '{}', where {} would stand {} px inside {}", 5},
    {Rule::link_without_return, "link-without-return", warning,
     "{} leads to map '{}', but no link there leads back to '{}'", 3},
};

}   // namespace

std::span<const RuleText> all_rules() { return table; }

const RuleText& rule_text(Rule rule) {
    return *std::find_if(std::begin(table), std::end(table), [rule](const RuleText& row) { return row.rule == rule; });
}

const RuleText* find_rule(std::string_view name) {
    const auto row =
        std::find_if(std::begin(table), std::end(table), [name](const RuleText& r) { return r.name == name; });
    return row == std::end(table) ? nullptr : row;
}

std::string_view name_of(Severity severity) {
    switch (severity) {
        case off:
            return "off";
        case note:
            return "note";
        case warning:
            return "warning";
        case error:
            break;
    }
    return "error";
}

std::optional<Severity> severity_from(std::string_view name) {
    for (const Severity severity : {off, note, warning, error})
        if (name_of(severity) == name) return severity;
    return std::nullopt;
}

}   // namespace dryground
