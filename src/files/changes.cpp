#include "dryground/changes.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "../play/object_keys_internal.hpp"
#include "pack_internal.hpp"

namespace dryground {

namespace {

using files::Json;

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
    const Json all{{"format", "dryground/changes/1"}, {"pack", changes.pack},      {"map", changes.map},
                   {"facts", std::move(facts)},       {"tiles", std::move(tiles)}, {"fired", std::move(fired)},
                   {"removed", std::move(removed)}};
    if (format == PackFormat::json) return files::json_text(all);
    std::string bytes;
    Json::to_cbor(all, nlohmann::detail::output_adapter<char>(bytes));
    return bytes;
}

namespace {

// What is wrong with the tree, with the way to it, or what the world has no place for: thrown and caught in this file
// alone.
struct Fault {
    std::string words;
};
struct Lost {
    std::string words;
};

class Reader {
public:
    explicit Reader(const World& world) : world_(world), keys_(world) {}

    LoadedChanges read(const Json& all) {
        SavedChanges changes;
        changes.pack = text(all, "", "pack"), changes.map = text(all, "", "map");
        if (const std::string format = text(all, "", "format"); format != "dryground/changes/1")
            throw Fault{fmt::format("format: is '{}', but should be 'dryground/changes/1'", format)};
        const auto each = [&](const char* key, auto edit_of) {
            for (const auto& [json, way] : list(all, key)) {
                try {
                    changes.edits.push_back(edit_of(json, way));
                } catch (const Lost& lost) {
                    lost_.push_back(fmt::format("{}: {}", way, lost.words));
                }
            }
        };
        each("tiles", [&](const Json& json, const std::string& way) {
            Edit edit = place(json, way);
            if (edit.object != ObjectId::none) throw Fault{way + ".layer: should be a text"};
            edit.after = tile(json, way, "is");
            return edit;
        });
        each("facts", [&](const Json& json, const std::string& way) {
            if (!json.is_string()) throw Fault{way + ": should be a fact's name"};
            Edit edit;
            edit.sort = Edit::Sort::fact, edit.holds = true;
            edit.fact = position<FactId>(world_.facts(), json.get<std::string>(), "fact");
            return edit;
        });
        each("fired", [&](const Json& json, const std::string& way) {
            Edit edit = place(json, way, true);
            edit.sort = Edit::Sort::fired, edit.holds = true;
            return edit;
        });
        each("removed", [&](const Json& json, const std::string& way) {
            Edit edit = place(json, way);
            if (edit.object == ObjectId::none) throw Fault{way + ".object: should be a text"};
            edit.sort = Edit::Sort::removed, edit.holds = true;
            return edit;
        });
        return {std::move(changes), std::move(lost_)};
    }

private:
    static std::vector<std::pair<Json, std::string>> list(const Json& all, const char* key) {
        std::vector<std::pair<Json, std::string>> items;
        if (!all.contains(key) || !all[key].is_array()) throw Fault{fmt::format("{}: should be a list", key)};
        for (std::size_t i = 0; i < all[key].size(); ++i)
            items.emplace_back(all[key][i], fmt::format("{}[{}]", key, i));
        return items;
    }
    static std::string text(const Json& json, const std::string& way, const char* key) {
        if (!json.is_object() || !json.contains(key) || !json[key].is_string())
            throw Fault{fmt::format("{}{}{}: should be a text", way, way.empty() ? "" : ".", key)};
        return json[key].get<std::string>();
    }
    template <class Id = int, class Things>
    static Id position(const Things& things, const std::string& name, const char* sort) {
        const auto found =
            std::find_if(things.begin(), things.end(), [&](const auto& thing) { return thing.name == name; });
        if (found == things.end()) throw Lost{fmt::format("there is no {} '{}'", sort, name)};
        return static_cast<Id>(found - things.begin());
    }
    static int whole(const Json& json, const std::string& way) {
        if (!json.is_number_integer() || json.get<std::int64_t>() < -1'000'000'000 ||
            json.get<std::int64_t>() > 1'000'000'000)
            throw Fault{way + ": should be a whole number"};
        return json.get<int>();
    }

    // `or_layer`: a layer may stand there as a whole, without a cell.
    Edit place(const Json& json, const std::string& way, bool or_layer = false) {
        Edit edit;
        const std::string map_name = text(json, way, "map");
        std::optional<play::ObjectKey> key;
        if (json.contains("object"))
            key = {text(json, way, "object"), {}, {}, 0};
        else if (json.contains("kind"))
            key = unnamed(json, way);
        std::string layer;
        if (!key) {
            layer = text(json, way, "layer");
            edit.whole_layer = or_layer && !json.contains("cell");
            if (!edit.whole_layer && (!json.contains("cell") || !json["cell"].is_array() || json["cell"].size() != 2))
                throw Fault{way + ".cell: should be a column and a row"};
            if (!edit.whole_layer)
                edit.cell = {whole(json["cell"][0], way + ".cell"), whole(json["cell"][1], way + ".cell")};
        }
        edit.map = position<MapId>(world_.maps(), map_name, "map");
        const Map& map = world_.map(edit.map);
        if (key) {
            edit.object = keys_.of(edit.map).find(*key);
            if (edit.object == ObjectId::none)
                throw Lost{key->name.empty() ? fmt::format("map '{}' has no '{}' at [{}, {}]", map_name, key->kind,
                                                           to_px(key->at.x), to_px(key->at.y))
                                             : fmt::format("map '{}' has no object '{}'", map_name, key->name)};
            return edit;
        }
        edit.layer = position<LayerId>(map.layers, layer, "layer");
        if (map.layer(edit.layer).holds_objects)
            throw Lost{fmt::format("layer '{}' of map '{}' holds no cells", layer, map_name)};
        if (!edit.whole_layer && !map.has(map.data_cell(edit.cell)))
            throw Lost{fmt::format("map '{}' has no cell ({}, {})", map_name, edit.cell.column, edit.cell.row)};
        return edit;
    }
    play::ObjectKey unnamed(const Json& json, const std::string& way) const {
        play::ObjectKey key;
        key.kind = text(json, way, "kind");
        if (!json.contains("at") || !json["at"].is_array() || json["at"].size() != 2)
            throw Fault{way + ".at: should be two numbers"};
        std::array<std::int32_t, 2> at{};
        for (std::size_t i = 0; i < 2; ++i) {
            const Json& number = json["at"][i];
            if (!number.is_number() || !in_range(number.get<double>()))
                throw Fault{way + ".at: should be two numbers of px"};
            at[i] = to_steps(number.get<double>());
        }
        key.at = {at[0], at[1]};
        if (json.contains("which")) key.which = whole(json["which"], way + ".which");
        return key;
    }

    Placed tile(const Json& json, const std::string& way, const char* key) const {
        if (!json.contains(key)) throw Fault{fmt::format("{}.{}: is missing", way, key)};
        const Json& tile = json[key];
        if (tile.is_null()) return {};
        const std::string name = text(tile, fmt::format("{}.{}", way, key), "tile");
        const std::size_t slash = name.find('/');
        const std::string place = fmt::format("{}.{}.tile", way, key);
        Placed placed;
        if (slash == std::string::npos) throw Fault{place + ": should be a tile set and a tile"};
        if (tile.contains("flip")) {
            const std::string flip = text(tile, fmt::format("{}.{}", way, key), "flip");
            placed.orientation.flip_x = flip.find('x') != std::string::npos,
            placed.orientation.flip_y = flip.find('y') != std::string::npos;
        }
        if (tile.contains("turn")) {
            const int turn = whole(tile["turn"], fmt::format("{}.{}.turn", way, key));
            if (turn % 90 != 0 || turn < 0 || turn > 270)
                throw Fault{fmt::format("{}.{}.turn: should be 0, 90, 180 or 270", way, key)};
            placed.orientation.turn = static_cast<std::int16_t>(turn);
        }
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
    try {
        return Reader(world).read(*tree);
    } catch (const Fault& fault) {
        return Failure{fault.words};
    }
}

}   // namespace dryground
