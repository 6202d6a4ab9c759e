// Findings: what is wrong with a world, where, and how to fix it. Plain data; all texts are made from it in one place.
//
// A finding is a record of a rule, a place and arguments. `message` inserts the arguments into the sentence of the
// rule. Threads: values; no shared state.
#pragma once

#include <array>
#include <cstddef>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "dryground/cell.hpp"

namespace dryground {

// A place in a file: lines and columns count from 1, columns in characters. Worlds built in code have no file; `thing`
// then names what is meant ("map 'slipway', object 'landing'").
struct Place {
    std::string file;   // relative to the world's folder
    int line = 0;
    int column = 0;
    std::string thing;

    friend bool operator==(const Place&, const Place&) = default;
};

enum class Severity { off, note, warning, error };

enum class Rule {
    // reading
    syntax,
    format_version,
    unknown_key,
    wrong_type,
    out_of_range,
    missing_key,
    bad_name,
    duplicate_name,
    ambiguous_name,
    unknown_name,
    file_missing,
    path_outside,
    too_large,
    legend_missing,
    legend_unused,
    row_length,
    grid_size,
    bad_text,
    bad_picture,
    wrong_file,
    like_chain,
    // tile sets
    sheet_cut,
    art_shared,
    shape_crosses_itself,
    shape_empty,
    shape_outside,
    shape_sliver,
    shape_twice,
    saw_teeth,
    shape_against_art,
    undecided,
    tile_unused,
    flags_against_shapes,
    flags_always_equal,
    barrier_unmet,
    carve_nothing,
    no_barrier,
    kind_field,
    family_gap,
    turn_not_square,
    art_outside,
    art_odd_size,
    // maps
    svg_size,
    svg_passed_over,
    svg_id,
    not_in_world,
    cell_size,
    decor_with_shapes,
    layer_without_shapes,
    one_way_nothing,
    crack,
    narrow,
    step,
    slope_end,
    pocket,
    leak,
    solid_without_art,
    art_without_solid,
    limit,
    contact_bits,
    line_ends_near,
    line_doubles_back,
    // objects
    start_missing,
    spawn_blocked,
    spawn_unsupported,
    object_outside,
    object_unscaled,
    off_grid,
    near_cell,
    objects_stacked,
    size_against_kind,
    trigger_empty,
    trigger_idle,
    trigger_buried,
    use_unreachable,
    buried,
    fires_never,
    stairs_bounce,
    // links
    link_target,
    link_arrival_blocked,
    link_without_return,
    link_bounce,
    map_unlinked,
    // facts, events, names
    fact_never_true,
    fact_unread,
    fact_shared,
    states_overlap,
    states_gap,
    event_unused,
    name_twins,
    // walking
    goal_unreachable,
    key_behind_own_lock,
    dead_end,
    out_of_reach,
    bottomless,
    jump_unknown,
    waiver_unused,   // the last one
};
inline constexpr std::size_t rule_count = static_cast<std::size_t>(Rule::waiver_unused) + 1;

struct RuleText {
    Rule rule;
    std::string_view name;   // as in files and on the command line
    Severity severity;       // unless the world overrides it
    std::string_view sentence;
    std::size_t arguments;   // how many {} are in the sentence
};
[[nodiscard]] std::span<const RuleText> all_rules();   // in the order of Rule
[[nodiscard]] const RuleText& rule_text(Rule rule);
[[nodiscard]] const RuleText* find_rule(std::string_view name);   // null if unknown; static lifetime
[[nodiscard]] std::string_view name_of(Severity severity);
[[nodiscard]] std::optional<Severity> severity_from(std::string_view name);

// The documentation of a rule: `check --explain`, and the page of rules.
struct RulePage {
    Rule rule;
    std::string_view means, effect;   // what it means, and its effect in the game
    std::string_view example;         // the smallest world that breaks the rule
    std::string_view fix;
};
[[nodiscard]] const RulePage& rule_page(Rule rule);
// Returns the subject of a rule in a word or two: "Links". In the order of Rule, those of one subject stand together.
[[nodiscard]] std::string_view subject_of(Rule rule);
// Returns Markdown, which is readable as plain text. `heading`: the level of its heading.
[[nodiscard]] std::string text(const RulePage& page, int heading = 2);

struct Hint {
    std::string text;   // "nearest free place"
    std::string set;    // what to write: "at = [24, 48]"; empty without a proposal
};

struct Related {
    Place place;
    std::string message;
};

struct Finding {
    Rule rule = Rule::syntax;
    Severity severity = Severity::error;
    Place place;
    std::string map, layer, object;   // empty if they do not apply
    std::string storey;               // likewise; also empty on maps with one storey
    std::optional<Cell> cell;
    std::vector<std::string> arguments;
    std::vector<std::string> details;
    std::optional<Hint> hint;
    std::vector<Cell> cells;
    std::vector<std::array<double, 2>> outline;   // of the area that it is about, px of the map; empty: a place
    std::vector<Related> related;
    std::string about;   // its subject, for waivers: "tile set 'marsh', tile 'bank'"
};

// Returns the sentence of the rule with the arguments of the finding.
[[nodiscard]] std::string message(const Finding& finding);

struct Counts {
    std::size_t error = 0, warning = 0, note = 0;
    std::size_t waived = 0;   // silenced by a waiver, with a reason
};

// A list of findings, always sorted by file, line, column and rule.
class Report {
public:
    void add(Finding finding);
    void add(const Report& other);
    void add_waived(std::size_t count) { waived_ += count; }

    [[nodiscard]] const std::vector<Finding>& findings() const { return findings_; }
    [[nodiscard]] bool empty() const { return findings_.empty(); }
    [[nodiscard]] bool has(Severity at_least) const;
    [[nodiscard]] Counts counts() const;

private:
    std::vector<Finding> findings_;
    std::size_t waived_ = 0;
};

// Returns the findings of one report that the other lacks, ignoring lines, which may have moved.
[[nodiscard]] Report findings_only_in(const Report& one, const Report& other);

// Return texts for people: each finding as place, message, details and hint, and a last line with the counts.
[[nodiscard]] std::string text(const Finding& finding);
[[nodiscard]] std::string text(const Report& report);
[[nodiscard]] std::string text(const Counts& counts);   // the last line: "1 error, 0 warnings, 2 notes, 1 waived"
[[nodiscard]] std::string text(const Place& place);

// Returns the name most similar to what was written, if any is similar enough.
[[nodiscard]] std::optional<std::string> nearest_name(std::string_view written, std::span<const std::string> names);

}   // namespace dryground
