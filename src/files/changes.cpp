#include "dryground/changes.hpp"

#include <fmt/format.h>

#include <algorithm>

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

}   // namespace

std::string changes_bytes(const World& world, const Changes& changes, PackFormat format) {
    Json facts = Json::array(), tiles = Json::array(), fired = Json::array();
    for (const Change& change : changes.changes) {
        if (change.sort == Change::Sort::fact) {
            facts.push_back(world.facts()[static_cast<std::size_t>(change.fact)].name);
            continue;
        }
        const Map& map = world.maps()[static_cast<std::size_t>(change.map)];
        Json json{{"map", map.name}};
        if (change.object >= 0) {
            json["object"] = change.object;
        } else {
            json["layer"] = map.layers[static_cast<std::size_t>(change.layer)].name;
            json["cell"] = change.cell;
        }
        if (change.sort == Change::Sort::tile) {
            json["was"] = tile_json(world, change.before), json["is"] = tile_json(world, change.after);
            tiles.push_back(std::move(json));
        } else {
            fired.push_back(std::move(json));
        }
    }
    const Json all{{"format", "dryground/changes/1"},
                   {"pack", changes.pack},
                   {"facts", std::move(facts)},
                   {"tiles", std::move(tiles)},
                   {"fired", std::move(fired)}};
    if (format == PackFormat::json) return files::json_text(all);
    std::string bytes;
    Json::to_cbor(all, nlohmann::detail::output_adapter<char>(bytes));
    return bytes;
}

namespace {

// What is wrong, with the way to it: thrown and caught in this file alone.
struct Fault {
    std::string words;
};

class Reader {
public:
    explicit Reader(const World& world) : world_(world) {}

    Changes read(const Json& all) {
        Changes changes;
        changes.pack = text(all, "", "pack");
        if (const std::string format = text(all, "", "format"); format != "dryground/changes/1")
            throw Fault{fmt::format("format: is '{}', but should be 'dryground/changes/1'", format)};
        for (const auto& [json, way] : list(all, "tiles")) {
            Change change = place(json, way);
            change.before = tile(json, way, "was"), change.after = tile(json, way, "is");
            changes.changes.push_back(change);
        }
        for (const auto& [json, way] : list(all, "facts")) {
            if (!json.is_string()) throw Fault{way + ": should be a fact's name"};
            Change change;
            change.sort = Change::Sort::fact, change.holds = true;
            change.fact = position(world_.facts(), json.get<std::string>(), way, "fact");
            changes.changes.push_back(change);
        }
        for (const auto& [json, way] : list(all, "fired")) {
            Change change = place(json, way);
            change.sort = Change::Sort::fired, change.holds = true;
            changes.changes.push_back(change);
        }
        return changes;
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
    template <class Things>
    static int position(const Things& things, const std::string& name, const std::string& way, const char* sort) {
        const auto found =
            std::find_if(things.begin(), things.end(), [&](const auto& thing) { return thing.name == name; });
        if (found == things.end()) throw Fault{fmt::format("{}: there is no {} '{}'", way, sort, name)};
        return static_cast<int>(found - things.begin());
    }
    static int whole(const Json& json, const std::string& way) {
        if (!json.is_number_integer() || json.get<std::int64_t>() < -1'000'000'000 ||
            json.get<std::int64_t>() > 1'000'000'000)
            throw Fault{way + ": should be a whole number"};
        return json.get<int>();
    }

    Change place(const Json& json, const std::string& way) const {
        Change change;
        change.map = position(world_.maps(), text(json, way, "map"), way + ".map", "map");
        if (json.contains("object")) {
            change.object = whole(json["object"], way + ".object");
            if (change.object < 0) throw Fault{way + ".object: should be 0 or more"};
            return change;
        }
        change.layer = position(world_.maps()[static_cast<std::size_t>(change.map)].layers, text(json, way, "layer"),
                                way + ".layer", "layer");
        if (!json.contains("cell") || !json["cell"].is_array() || json["cell"].size() != 2)
            throw Fault{way + ".cell: should be a column and a row"};
        for (std::size_t i = 0; i < 2; ++i) change.cell[i] = whole(json["cell"][i], way + ".cell");
        return change;
    }

    Placed tile(const Json& json, const std::string& way, const char* key) const {
        if (!json.contains(key)) throw Fault{fmt::format("{}.{}: is missing", way, key)};
        const Json& tile = json[key];
        if (tile.is_null()) return {};
        const std::string name = text(tile, fmt::format("{}.{}", way, key), "tile");
        const std::size_t slash = name.find('/');
        const std::string place = fmt::format("{}.{}.tile", way, key);
        Placed placed;
        placed.tileset =
            static_cast<std::int16_t>(position(world_.tilesets(), name.substr(0, slash), place, "tile set"));
        const TileSet& set = world_.tilesets()[static_cast<std::size_t>(placed.tileset)];
        placed.tile = position(set.tiles, slash == std::string::npos ? "" : name.substr(slash + 1), place, "tile");
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
        return placed;
    }

    const World& world_;
};

}   // namespace

LoadedChanges read_changes(const World& world, std::string_view bytes) {
    const files::PackTree tree = files::parse_pack(bytes);
    if (!tree.fault.empty()) return {std::nullopt, tree.fault};
    try {
        return {Reader(world).read(tree.root), ""};
    } catch (const Fault& fault) {
        return {std::nullopt, fault.words};
    }
}

}   // namespace dryground
