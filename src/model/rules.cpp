// The one table of rules and of the sentences that findings are told in.

#include <algorithm>

#include "dryground/report.hpp"
#include "rules_internal.hpp"
#include "words_internal.hpp"

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
    {Rule::grid_size, "grid-size", error, "layer '{}' has {}, but the map has {}", 3},
    {Rule::bad_text, "bad-text", error, "this is not UTF-8 text: {}", 1},
    {Rule::bad_picture, "bad-picture", error, "'{}' cannot be read as a picture: {}", 2},
    {Rule::wrong_file, "wrong-file", error, "'{}' is {}, but {} is expected here", 3},
    {Rule::like_chain, "like-chain", error, "'{}' is like '{}', which is itself like '{}'", 3},
    {Rule::sheet_cut, "sheet-cut", error, "sheet '{}' of {} px does not divide into cells: {}", 3},
    {Rule::art_shared, "art-shared", note, "'{}' and '{}' show the same picture", 2},
    {Rule::shape_crosses_itself, "shape-crosses-itself", error, "{} crosses itself at ({}, {})", 3},
    {Rule::shape_empty, "shape-empty", error, "{} has no area: {}", 2},
    {Rule::shape_outside, "shape-outside", error, "{} reaches {} px out of its cell", 2},
    {Rule::shape_sliver, "shape-sliver", warning, "{} is only {} px thin", 2},
    {Rule::shape_twice, "shape-twice", warning, "{} lies {} {}", 3},
    {Rule::saw_teeth, "saw-teeth", warning, "{} has {} short edges that zigzag along a straight line: bodies hop on it",
     2},
    {Rule::shape_against_art, "shape-against-art", warning, "the shapes of '{}' {}, {} % of {} area", 4},
    {Rule::undecided, "undecided", warning, "tile '{}' has no 'shapes' key and is used in {}", 2},
    {Rule::tile_unused, "tile-unused", note, "tile '{}' is not used in any map", 1},
    {Rule::flags_against_shapes, "flags-against-shapes", warning,
     "tile '{}' grants '{}', but {} every mover that needs it", 3},
    {Rule::flags_always_equal, "flags-always-equal", warning, "flags '{}' and '{}' are alike on every tile", 2},
    {Rule::barrier_unmet, "barrier-unmet", warning, "no mover is stopped by barrier '{}'", 1},
    {Rule::carve_nothing, "carve-nothing", warning, "tile '{}' carves '{}', but nothing of it lies below any of its {}",
     3},
    {Rule::no_barrier, "no-barrier", error, "{} belongs to no barrier, so that nothing is stopped by it", 1},
    {Rule::kind_field, "kind-field", error, "property '{}'{}: {}", 3},
    {Rule::family_gap, "family-gap", warning, "family '{}' has no member for neighbours {}", 2},
    {Rule::turn_not_square, "turn-not-square", error, "'{}' is turned by {} degrees, but its cells are {} x {} px", 4},
    {Rule::art_outside, "art-outside", error, "the art of '{}' at [{}, {}] lies outside its sheet of {} x {} cells", 5},
    {Rule::art_odd_size, "art-odd-size", warning,
     "the picture of '{}' is {} px, {} times as large as most: a whole sheet?", 3},
    {Rule::svg_size, "svg-size", warning,
     "the drawing's page is {} px, but the map is {} px: the drawing keeps its own size", 2},
    {Rule::svg_passed_over, "svg-passed-over", note, "ignored, because they are not shapes: {}", 1},
    {Rule::svg_id, "svg-id", note, "id '{}' is not a valid name, so the object is unnamed", 1},
    {Rule::not_in_world, "not-in-world", warning, "{} '{}' is not listed in the world: games will not include it", 2},
    {Rule::cell_size, "cell-size", error, "tile set '{}' has cells of {} px, but the map has cells of {} px", 3},
    {Rule::decor_with_shapes, "decor-with-shapes", warning, "layer '{}' is decor, but its tiles would collide: {}", 2},
    {Rule::layer_without_shapes, "layer-without-shapes", warning,
     "in layer '{}' no tile collides, grants or does anything", 1},
    {Rule::one_way_nothing, "one-way-nothing", warning, "layer '{}' sets one_way, but has no lines", 1},
    {Rule::crack, "crack", warning, "a gap of {} px between solids {}: too narrow for any mover of this map", 2},
    {Rule::narrow, "narrow", warning, "a passage of {} px is too {} for {} by {} px", 4},
    {Rule::step, "step", warning, "a step of {} px between two {}: bodies catch on it", 2},
    {Rule::slope_end, "slope-end", warning, "a slope ends {} px above the ground beside it", 1},
    {Rule::pocket, "pocket", note, "nothing leads into a free area of {} x {} px", 2},
    {Rule::leak, "leak", error, "{} can leave the map at {}, and its rim is not \"open\"", 2},
    {Rule::solid_without_art, "solid-without-art", warning, "nothing is drawn where {} is solid", 1},
    {Rule::art_without_solid, "art-without-solid", warning, "layer '{}' is solid almost everywhere, but not in {}", 2},
    {Rule::limit, "limit", warning, "{} {}, but the game takes at most {}", 3},
    {Rule::contact_bits, "contact-bits", error, "barriers, movers and triggers need {} contact bits, but there are {}",
     2},
    {Rule::line_ends_near, "line-ends-near", warning, "{} nearly closes: {} px are missing", 2},
    {Rule::line_doubles_back, "line-doubles-back", warning, "{} runs back over itself at {}", 2},
    {Rule::start_missing, "start-missing", error, "play has no place to start: {}", 1},
    {Rule::spawn_blocked, "spawn-blocked", error, "'{}' stands {} px inside {}", 3},
    {Rule::spawn_unsupported, "spawn-unsupported", warning, "'{}' falls {} from where it stands", 2},
    {Rule::object_outside, "object-outside", error, "{} lies {} px outside the map", 2},
    {Rule::object_unscaled, "object-unscaled", warning, "all {} objects of layer '{}' {}: metres in place of px?", 3},
    {Rule::off_grid, "off-grid", warning, "{} is a little off: {}", 2},
    {Rule::near_cell, "near-cell", warning, "a corner of {} lies at {}, less than a px beside a cell's", 2},
    {Rule::objects_stacked, "objects-stacked", warning, "{} and {} stand at the same place", 2},
    {Rule::size_against_kind, "size-against-kind", warning, "{} is {} px, but its kind's area is {} px", 3},
    {Rule::trigger_empty, "trigger-empty", error, "{} has no area, so nothing can enter it", 1},
    {Rule::trigger_idle, "trigger-idle", warning, "{} gives nothing and runs nothing", 1},
    {Rule::trigger_buried, "trigger-buried", warning, "{} lies entirely inside ground that stops {}", 2},
    {Rule::use_unreachable, "use-unreachable", warning, "{} can be used from the next cell, but none is open to {}", 2},
    {Rule::buried, "buried", warning, "{} lies entirely inside ground that stops {}", 2},
    {Rule::fires_never, "fires-never", warning, "{} never fires on `{}`: {}", 3},
    {Rule::stairs_bounce, "stairs-bounce", warning,
     "stairs in cell {} lead to storey '{}', where stairs on the same cell lead back", 2},
    {Rule::link_target, "link-target", error, "{} leads to '{}', but {}", 3},
    {Rule::link_arrival_blocked, "link-arrival-blocked", error,
     "{} leads to '{}', where {} would stand {} px inside {}", 5},
    {Rule::link_without_return, "link-without-return", warning,
     "{} leads to map '{}', but no link there leads back to '{}'", 3},
    {Rule::link_bounce, "link-bounce", error, "{} leads into {}, which leads straight back", 2},
    {Rule::map_unlinked, "map-unlinked", warning, "nothing leads from the start to map '{}'", 1},
    {Rule::fact_never_true, "fact-never-true", warning, "{} needs '{}', but nothing gives it", 2},
    {Rule::fact_unread, "fact-unread", warning, "nothing uses fact '{}'", 1},
    {Rule::fact_shared, "fact-shared", note, "fact '{}' is given in {} places", 2},
    {Rule::states_overlap, "states-overlap", warning, "{} and {} are both there {}", 3},
    {Rule::states_gap, "states-gap", warning, "neither {} nor {} is there {}", 3},
    {Rule::event_unused, "event-unused", warning, "nothing runs event '{}'", 1},
    {Rule::name_twins, "name-twins", warning, "{} '{}' and '{}' are easily confused", 3},
    {Rule::goal_unreachable, "goal-unreachable", error, "goal '{}' cannot be reached: {}", 2},
    {Rule::key_behind_own_lock, "key-behind-own-lock", error, "{} needs '{}', but '{}' is only given behind it", 3},
    {Rule::dead_end, "dead-end", warning, "there is no way back from {}", 1},
    {Rule::out_of_reach, "out-of-reach", warning, "{} cannot be reached: {}", 2},
    {Rule::bottomless, "bottomless", warning, "{} falls out of the map for ever: {}", 2},
    {Rule::jump_unknown, "jump-unknown", note, "mover '{}' moves seen from the side, but '{}' is missing", 2},
    {Rule::waiver_unused, "waiver-unused", warning, "this waiver of '{}' silences nothing", 1},
};

static_assert(rows_follow_rules(table), "a row for each rule, in the order of Rule");

}   // namespace

std::span<const RuleText> all_rules() { return table; }

const RuleText& rule_text(Rule rule) { return table[static_cast<std::size_t>(rule)]; }

const RuleText* find_rule(std::string_view name) {
    const auto row =
        std::find_if(std::begin(table), std::end(table), [name](const RuleText& r) { return r.name == name; });
    return row == std::end(table) ? nullptr : row;
}

std::string_view name_of(Severity severity) { return word_of(severity); }

std::optional<Severity> severity_from(std::string_view name) {
    for (const Severity severity : {off, note, warning, error})
        if (name_of(severity) == name) return severity;
    return std::nullopt;
}

}   // namespace dryground
