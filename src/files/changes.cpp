// Saved games: the differences from a pack, as JSON or CBOR.
//
// Idea. Everything is written by name, objects without one by kind and position, so that a file survives a newer world;
// what that has no place for is listed, not refused. Cost: in proportion to the changes.

#include "dryground/changes.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>

#include "../play/object_keys_internal.hpp"
#include "pack_internal.hpp"

namespace dryground {

namespace {

using files::Json;
using files::Node;

constexpr const char* changes_format = "dryground/changes/1";
constexpr int most_cells = 1'000'000'000;   // from cell (0, 0): no map reaches as far

Json tile_json(const World& world, const Placed& placed) {
    if (placed.tile < 0) return nullptr;
    Json json{{"tile", fmt::format("{}/{}", world.tilesets()[static_cast<std::size_t>(placed.tileset)].name,
                                   world.tile(placed).name)}};
    if (placed.orientation.flip_x || placed.orientation.flip_y)
        json["flip"] = std::string(placed.orientation.flip_x ? "x" : "") + (placed.orientation.flip_y ? "y" : "");
    if (placed.orientation.turn != 0) json["turn"] = placed.orientation.turn;
    return json;
}

// Objects of each map by what they are saved as.
class AllKeys {
public:
    explicit AllKeys(const World& world) : world_(world) {}
    const play::ObjectKeys& of(MapId map) { return known_.try_emplace(map, world_, world_.map(map)).first->second; }

private:
    const World& world_;
    std::map<MapId, play::ObjectKeys> known_;
};

void add_object(Json& json, const play::ObjectKey& key) {
    if (!key.name.empty()) {
        json["object"] = key.name;
        return;
    }
    json["kind"] = key.kind;
    json["at"] = {to_px(key.at.x), to_px(key.at.y)};
    if (key.which > 0) json["which"] = key.which;
}

}   // namespace

std::string changes_bytes(const World& world, const SavedChanges& changes, PackFormat format) {
    Json facts = Json::array(), tiles = Json::array(), fired = Json::array(), removed = Json::array();
    AllKeys keys(world);
    for (const Edit& edit : changes.edits) {
        if (edit.sort == Edit::Sort::fact) {
            facts.push_back(world.fact(edit.fact).name);
            continue;
        }
        const Map& map = world.map(edit.map);
        Json json{{"map", map.name}};
        if (edit.object != ObjectId::none) {
            add_object(json, keys.of(edit.map).key(edit.object));
        } else {
            json["layer"] = map.layer(edit.layer).name;
            if (!edit.whole_layer) json["cell"] = {edit.cell.column, edit.cell.row};
        }
        if (edit.sort == Edit::Sort::tile) json["is"] = tile_json(world, edit.after);
        (edit.sort == Edit::Sort::tile    ? tiles
         : edit.sort == Edit::Sort::fired ? fired
                                          : removed)
            .push_back(std::move(json));
    }
    const Json all{{"format", changes_format},     {"pack", changes.pack},      {"map", changes.map},
                   {"facts", std::move(facts)},    {"tiles", std::move(tiles)}, {"fired", std::move(fired)},
                   {"removed", std::move(removed)}};
    if (format == PackFormat::json) return files::json_text(all);
    std::string bytes;
    Json::to_cbor(all, nlohmann::detail::output_adapter<char>(bytes));
    return bytes;
}

namespace {

// What a world has no place for.
struct Lost {
    std::string words;
};

// Reads what fits the world; what is wrong with the tree is reported by its nodes.
class Reader {
public:
    explicit Reader(const World& world) : world_(world), keys_(world) {}

    LoadedChanges read(const Node& all) {
        SavedChanges changes;
        changes.pack = all.at("pack").text(), changes.map = all.at("map").text();
        const auto each = [&](const char* key, auto edit_of) {
            for (const Node& node : all.at(key).items()) {
                try {
                    if (std::optional<Edit> edit = edit_of(node)) changes.edits.push_back(*edit);
                } catch (const Lost& lost) {   // thrown in this file alone
                    lost_.push_back(fmt::format("{}: {}", node.path(), lost.words));
                }
            }
        };
        each("tiles", [&](const Node& node) {
            std::optional<Edit> edit = cell(node, false);
            const std::optional<Placed> is = tile(node.at("is"));
            if (edit && is) edit->after = *is;
            return is ? edit : std::nullopt;
        });
        each("facts", [&](const Node& node) -> std::optional<Edit> {
            const std::string name = node.text();
            if (name.empty()) return std::nullopt;
            Edit edit;
            edit.sort = Edit::Sort::fact, edit.holds = true;
            edit.fact = position<FactId>(world_.facts(), name, "fact");
            return edit;
        });
        each("fired", [&](const Node& node) {
            std::optional<Edit> edit = node.has("object") || node.has("kind") ? object(node) : cell(node, true);
            if (edit) edit->sort = Edit::Sort::fired, edit->holds = true;
            return edit;
        });
        each("removed", [&](const Node& node) {
            std::optional<Edit> edit = object(node);
            if (edit) edit->sort = Edit::Sort::removed, edit->holds = true;
            return edit;
        });
        return {std::move(changes), std::move(lost_)};
    }

private:
    template <class Id = int, class Things>
    static Id position(const Things& things, const std::string& name, const char* sort) {
        const auto found =
            std::find_if(things.begin(), things.end(), [&](const auto& thing) { return thing.name == name; });
        if (found == things.end()) throw Lost{fmt::format("there is no {} '{}'", sort, name)};
        return static_cast<Id>(found - things.begin());
    }

    // A cell; `or_layer`: or a layer as a whole, without one.
    std::optional<Edit> cell(const Node& node, bool or_layer) const {
        Edit edit;
        const std::string map_name = node.at("map").text(), layer = node.at("layer").text();
        edit.whole_layer = or_layer && !node.has("cell");
        if (!edit.whole_layer) {
            const auto [column, row] = node.at("cell").pair();
            edit.cell = {column, row};
        }
        if (map_name.empty() || layer.empty()) return std::nullopt;   // as was reported
        edit.map = position<MapId>(world_.maps(), map_name, "map");
        const Map& map = world_.map(edit.map);
        edit.layer = position<LayerId>(map.layers, layer, "layer");
        if (map.layer(edit.layer).holds_objects)
            throw Lost{fmt::format("layer '{}' of map '{}' holds no cells", layer, map_name)};
        const auto is_far = [](int at) {
            return at < -most_cells || at > most_cells;
        };   // so that it can be subtracted
        if (!edit.whole_layer &&
            (is_far(edit.cell.column) || is_far(edit.cell.row) || !map.has(map.data_cell(edit.cell))))
            throw Lost{fmt::format("map '{}' has no cell ({}, {})", map_name, edit.cell.column, edit.cell.row)};
        return edit;
    }

    // An object by its name, or one without a name by its kind and position.
    std::optional<Edit> object(const Node& node) {
        Edit edit;
        const std::string map_name = node.at("map").text();
        play::ObjectKey key;
        if (!node.has("kind")) {
            key.name = node.at("object").text();
            if (key.name.empty()) return std::nullopt;
        } else {
            key.kind = node.at("kind").text();
            const auto [x, y] = node.at("at").place();
            if (in_range(x) && in_range(y))
                key.at = {to_steps(x), to_steps(y)};
            else
                node.at("at").wrong("within the range of coordinates");
            if (node.has("which")) key.which = node.at("which").integer();
        }
        if (map_name.empty()) return std::nullopt;
        edit.map = position<MapId>(world_.maps(), map_name, "map");
        edit.object = keys_.of(edit.map).find(key);
        if (edit.object != ObjectId::none) return edit;
        throw Lost{key.name.empty() ? fmt::format("map '{}' has no '{}' at [{}, {}]", map_name, key.kind,
                                                  to_px(key.at.x), to_px(key.at.y))
                                    : fmt::format("map '{}' has no object '{}'", map_name, key.name)};
    }

    std::optional<Placed> tile(const Node& node) const {
        if (node.is_null()) return Placed{};
        Placed placed;
        const std::string name = node.at("tile").text();
        const std::size_t slash = name.find('/');
        if (slash == std::string::npos) {
            node.at("tile").wrong("a tile set and a tile, as in \"marsh/peat\"");
            return std::nullopt;
        }
        if (node.has("flip")) {
            const std::string flip = node.at("flip").text();
            placed.orientation.flip_x = flip == "x" || flip == "xy",
            placed.orientation.flip_y = flip == "y" || flip == "xy";
            if (!placed.orientation.flip_x && !placed.orientation.flip_y) node.at("flip").wrong("x, y or xy");
        }
        if (node.has("turn")) placed.orientation.turn = node.at("turn").quarter_turn();
        placed.tileset = static_cast<std::int16_t>(position(world_.tilesets(), name.substr(0, slash), "tile set"));
        const TileSet& set = world_.tilesets()[static_cast<std::size_t>(placed.tileset)];
        placed.tile = position(set.tiles, name.substr(slash + 1), "tile");
        return placed;
    }

    const World& world_;
    AllKeys keys_;
    std::vector<std::string> lost_;
};

}   // namespace

Result<LoadedChanges> read_changes(const World& world, std::string_view bytes) {
    const Result<Json> tree = files::parse_pack(bytes);
    if (!tree) return tree.failure();
    Report report;
    const Node all(&*tree, "", report, "the saved game");
    if (const std::string format = all.at("format").text(); format != changes_format)
        all.at("format").wrong(fmt::format("'{}'", changes_format));
    LoadedChanges changes = Reader(world).read(all);
    if (report.findings().empty()) return changes;
    std::vector<std::string> faults;
    for (const Finding& finding : report.findings()) faults.push_back(message(finding));
    return Failure{fmt::format("{}", fmt::join(faults, "\n")), std::move(report)};
}

}   // namespace dryground
