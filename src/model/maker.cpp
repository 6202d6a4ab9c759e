// Names, findings, and the order in which a world is made.
//
// Each step only refers to things made before it, except links, goals and properties that name objects, which are
// looked up last.

#include <fmt/format.h>

#include <algorithm>

#include "maker_internal.hpp"

namespace dryground {

namespace {

bool is_name(const std::string& name) {
    return !name.empty() && name.size() <= 100 && name[0] >= 'a' && name[0] <= 'z' &&
           std::all_of(name.begin(), name.end(),
                       [](char c) { return (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9') || c == '_'; });
}

// Returns the nearest valid name: "Peat A" gives "peat_a".
std::string tamed(const std::string& name) {
    std::string result;
    for (const char c : name) {
        if (c >= 'A' && c <= 'Z')
            result += static_cast<char>(c - 'A' + 'a');
        else if ((c >= 'a' && c <= 'z') || (c >= '0' && c <= '9'))
            result += c;
        else if (!result.empty() && result.back() != '_')
            result += '_';
    }
    while (!result.empty() && result.back() == '_') result.pop_back();
    return is_name(result) ? result : result.empty() ? "" : "n_" + result;
}

// Keeps errors of reading as errors, whatever the world's [check] sets: nothing could be built on them. Warnings of
// reading may be changed.
Report with_severities(const Report& report, const std::map<Rule, Severity>& severities) {
    Report result;
    for (Finding finding : report.findings()) {
        const auto said = severities.find(finding.rule);
        if (said != severities.end() && finding.severity != Severity::error) finding.severity = said->second;
        result.add(std::move(finding));
    }
    return result;
}

}   // namespace

WorldMaker::WorldMaker(const WorldDraft& world, std::span<const TileSetDraft> tilesets, std::span<const MapDraft> maps,
                       const WorldBuilder::Look& look, Report notes)
    : world_(world), tileset_drafts_(tilesets), map_drafts_(maps), look_(look), report_(std::move(notes)) {}

Result<World> WorldMaker::make() {
    parts_.title = world_.title;
    parts_.place = world_.place;
    parts_.merging = world_.merging;
    const auto place_of = [&](const char* key) {
        const auto found = world_.places_of_merging.find(key);
        return found == world_.places_of_merging.end() ? world_.place : found->second;
    };
    if (!(world_.per_metre.value > 0 && world_.per_metre.value <= 1e6))
        add(Rule::out_of_range, world_.per_metre.place,
            {"'per_metre'", fmt::format("{}", world_.per_metre.value), "above 0 and at most 1,000,000 px"});
    parts_.per_metre = world_.per_metre.value;
    if (!(parts_.merging.within_px >= 1.0 / 64 && parts_.merging.within_px <= 64)) {
        add(Rule::out_of_range, place_of("within_px"),
            {"'within_px'", fmt::format("{}", parts_.merging.within_px), "from 1/64 to 64"});
        parts_.merging.within_px = MergeSettings{}.within_px;   // curves are still drawn, for the rest of the findings
    }
    if (parts_.merging.chunk_cells < 1) {
        add(Rule::out_of_range, place_of("chunk_cells"),
            {"'chunk_cells'", fmt::format("{}", parts_.merging.chunk_cells), "1 or more"});
        parts_.merging.chunk_cells = MergeSettings{}.chunk_cells;
    }
    if (!(parts_.merging.least_edge_px >= 0 && parts_.merging.least_edge_px <= 64)) {
        add(Rule::out_of_range, place_of("least_edge_px"),
            {"'least_edge_px'", fmt::format("{}", parts_.merging.least_edge_px), "from 0 to 64 px"});
        parts_.merging.least_edge_px = 0;
    }
    if (parts_.merging.most_vertices < 3)
        add(Rule::out_of_range, place_of("most_vertices"),
            {"'most_vertices'", fmt::format("{}", parts_.merging.most_vertices), "3 or more"});
    make_vocabulary();
    for (const TileSetDraft& draft : tileset_drafts_) make_tileset(draft);
    for (const MapDraft& draft : map_drafts_) make_map(draft);
    resolve_links();
    resolve_start();
    resolve_goals();
    check_references();
    report_ = with_severities(report_, parts_.severities);
    if (report_.has(Severity::error)) return Failure{{}, std::move(report_)};
    World world;
    world.parts_ = std::make_shared<const World::Parts>(std::move(parts_));
    return {std::move(world), std::move(report_)};
}

void WorldMaker::add(Rule rule, const Place& place, std::vector<std::string> arguments, std::optional<Hint> hint,
                     std::vector<Related> related) {
    Finding finding;
    finding.rule = rule;
    finding.severity = rule_text(rule).severity;
    finding.place = place;
    if (place.file.empty())
        finding.place.thing = things_.empty() ? "world" : fmt::format("{}", fmt::join(things_, ", "));
    finding.map = map_name_;
    finding.layer = layer_name_;
    finding.object = object_name_;
    finding.arguments = std::move(arguments);
    finding.hint = std::move(hint);
    finding.related = std::move(related);
    report_.add(std::move(finding));
}

bool WorldMaker::declare(NameIndex& index, const Name& name) {
    if (!is_name(name.value)) {
        const std::string proposal = tamed(name.value);
        add(Rule::bad_name, name.place, {name.value, "a " + index.sort},
            Hint{"names are lower_snake_case: small letters, digits and _, a letter first",
                 proposal.empty() ? "" : proposal});
    }
    const auto [known, is_new] = index.ids.emplace(name.value, static_cast<int>(index.names.size()));
    if (!is_new) {
        const Place& first = index.places[static_cast<std::size_t>(known->second)];
        std::vector<Related> related;
        if (!first.file.empty()) related.push_back({first, "the first is here"});
        add(Rule::duplicate_name, name.place, {index.sort, name.value}, Hint{"give one of them another name", ""},
            std::move(related));
        return false;
    }
    index.names.push_back(name.value);
    index.places.push_back(name.place);
    return true;
}

void WorldMaker::add_unknown(const NameIndex& index, const Name& name) {
    std::optional<Hint> hint;
    if (const auto nearest = nearest_name(name.value, index.names))
        hint = Hint{"did you mean", *nearest};
    else if (index.names.empty())
        hint = Hint{fmt::format("no {} is declared yet", index.sort), ""};
    else if (index.names.size() <= 12)
        hint = Hint{fmt::format("known: {}", fmt::join(index.names, ", ")), ""};
    add(Rule::unknown_name, name.place, {index.sort, name.value}, std::move(hint));
}

int WorldMaker::look_up(const NameIndex& index, const Name& name) {
    const int id = index.find(name.value);
    if (id < 0) add_unknown(index, name);
    return id;
}

std::vector<int> WorldMaker::look_up(const NameIndex& index, const Names& names) {
    std::vector<int> ids;
    for (const Name& name : names)
        if (const int id = look_up(index, name); id >= 0) ids.push_back(id);
    std::sort(ids.begin(), ids.end());
    ids.erase(std::unique(ids.begin(), ids.end()), ids.end());
    return ids;
}

FlagSet WorldMaker::flag_set(const Names& names) {
    FlagSet set = 0;
    for (const int id : look_up(flags_, names)) set |= FlagSet{1} << id;
    return set;
}

WorldBuilder& WorldBuilder::world(WorldDraft draft) {
    world_ = std::move(draft);
    return *this;
}

WorldBuilder& WorldBuilder::tileset(TileSetDraft draft) {
    tilesets_.push_back(std::move(draft));
    return *this;
}

WorldBuilder& WorldBuilder::pictures(Look look) {
    look_ = std::move(look);
    return *this;
}

WorldBuilder& WorldBuilder::map(MapDraft draft) {
    maps_.push_back(std::move(draft));
    return *this;
}

WorldBuilder& WorldBuilder::note(Finding finding) {
    notes_.add(std::move(finding));
    return *this;
}

Result<World> WorldBuilder::build() const { return WorldMaker(world_, tilesets_, maps_, look_, notes_).make(); }

}   // namespace dryground
