// Which maps an edit has to read, so that changing one cell of a world of thousands of maps does not require them all.

#include <algorithm>

#include "dryground/pack_parts.hpp"
#include "edit_world_internal.hpp"
#include "keys/listing_internal.hpp"

namespace dryground::files {

namespace {

using MapNames = std::vector<std::string>;   // nothing: all maps

// Returns whether only keys of the thing are given, none of them a property, which may name anything in the world, nor
// a new name for what others may refer to.
bool refers_to_nothing_else(std::string_view thing, const GivenKeys& values) {
    const std::vector<keys::Entry>& known = keys::thing(thing).entries;
    return std::all_of(values.begin(), values.end(), [&](const auto& value) {
        return value.first != "name" && value.first != "props" &&
               std::any_of(known.begin(), known.end(),
                           [&](const keys::Entry& entry) { return entry.key.name == value.first; });
    });
}

struct MapsNeeded {
    const std::string& map;

    template <class Edit>
    std::optional<MapNames> operator()(const Edit&) const {
        return MapNames{map};
    }
    // Others may refer to what is removed or renamed.
    std::optional<MapNames> operator()(const DropObject&) const { return std::nullopt; }
    std::optional<MapNames> operator()(const DropLayer&) const { return std::nullopt; }
    std::optional<MapNames> operator()(const GiveMap&) const { return std::nullopt; }
    std::optional<MapNames> operator()(const GiveLayer& give) const { return with("layer", give.values); }
    std::optional<MapNames> operator()(const AddLayer& add) const { return with("layer", add.values); }
    std::optional<MapNames> operator()(const GiveObject& give) const { return with("object", give.values); }
    std::optional<MapNames> operator()(const AddObject& add) const {
        GivenKeys values = add.values;
        if (!add.to.empty()) values.emplace_back("to", add.to);
        return with("object", values);
    }

private:
    // Returns the map, and those that links lead to.
    [[nodiscard]] std::optional<MapNames> with(std::string_view thing, const GivenKeys& values) const {
        if (!refers_to_nothing_else(thing, values)) return std::nullopt;
        MapNames maps{map};
        for (const auto& [key, value] : values)
            if (const std::string other = value.substr(0, value.find('/'));
                key == "to" && other != value && std::find(maps.begin(), maps.end(), other) == maps.end())
                maps.push_back(other);
        return maps;
    }
};

}   // namespace

Result<WorldDrafts> drafts_for(const WorldEdit& edit, const std::string& world_file, const FileReader& reader) {
    if (const auto* of_map = std::get_if<EditMap>(&edit))
        if (const std::optional<MapNames> maps = std::visit(MapsNeeded{of_map->map}, of_map->edit))
            if (Result<WorldDrafts> some = load_map_drafts(world_file, *maps, reader)) return some;
    return load_drafts(world_file, reader);   // all of it; or its faults are better reported that way
}

}   // namespace dryground::files
