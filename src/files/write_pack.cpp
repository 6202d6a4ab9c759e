// A pack: the world's own part, and what all parts share.

#include <fmt/format.h>

#include "../model/words_internal.hpp"
#include "dryground/contacts.hpp"
#include "pack_internal.hpp"

namespace dryground {

namespace files {

Json flags_json(const World& world, FlagSet flags) { return flag_names(world, flags); }

Json point_json(Point p) { return Json::array({number_json(to_px(p.x)), number_json(to_px(p.y))}); }

Json ring_json(const Ring& ring) {
    Json points = Json::array();
    for (const Point p : ring) points.push_back(point_json(p));
    return points;
}

Json area_json(const Regions& area) {
    Json regions = Json::array();
    for (const Region& region : area) {
        Json holes = Json::array();
        for (const Ring& hole : region.holes) holes.push_back(ring_json(hole));
        regions.push_back({{"outline", ring_json(region.outline)}, {"holes", std::move(holes)}});
    }
    return regions;
}

namespace {

Json value_json(const Value& value) {
    return std::visit(
        [](const auto& is) -> Json {
            if constexpr (std::is_same_v<std::decay_t<decltype(is)>, Value::List>) {
                Json list = Json::array();
                for (const Value& item : is) list.push_back(value_json(item));
                return list;
            } else {
                return is;
            }
        },
        value.is);
}

Json number_or_null(const std::optional<double>& number) { return number ? Json(*number) : Json(nullptr); }

Json notes_json(const std::vector<NamedThing>& things) {
    Json list = Json::array();
    for (const NamedThing& thing : things) list.push_back({{"name", thing.name}, {"note", thing.note}});
    return list;
}

Json mover_json(const World& world, const Mover& mover) {
    Json feelers = Json::array();
    for (const Feeler& feeler : mover.feelers) {
        Json senses = names_of(world.barriers(), feeler.senses);
        for (const MoverId other : feeler.senses_movers)
            if (const std::string& name = world.mover(other).name;
                world.find_barrier(name) == BarrierId::none)   // one name may be both
                senses.push_back(name);
        feelers.push_back({{"name", feeler.name}, {"area", area_json(feeler.area)}, {"senses", std::move(senses)}});
    }
    return {{"name", mover.name},
            {"body", area_json(mover.body)},
            {"stopped_by", names_of(world.barriers(), mover.stopped_by)},
            {"meets", names_of(world.movers(), mover.meets)},
            {"needs", flags_json(world, mover.needs)},
            {"climbs", flags_json(world, mover.climbs)},
            {"moves", word_of(mover.moves)},
            {"jump_px", number_or_null(mover.jump_px)},
            {"leap_px", number_or_null(mover.leap_px)},
            {"drop_px", number_or_null(mover.drop_px)},
            {"kerb_px", number_or_null(mover.kerb_px)},
            {"slope_degrees", number_or_null(mover.slope_degrees)},
            {"feelers", std::move(feelers)},
            {"picture", picture_json(mover.picture)}};
}

Json kind_json(const World& world, const Kind& kind) {
    return {{"name", kind.name},
            {"role", name_of(kind.role)},
            {"mover", name_or_null(world.movers(), kind.mover)},
            {"motion", word_of(kind.motion)},
            {"path", kind.path.empty() ? Json(nullptr) : Json(kind.path)},
            {"tags", kind.tags},
            {"stands", word_of(kind.stands)},
            {"area", area_json(kind.area)},
            {"picture", picture_json(kind.picture)},
            {"fields", fields_json(kind.fields)}};
}

Json contacts_json(const World& world) {
    const ContactTable table = contact_table(world);
    const auto bits = [](const ContactBits& one) { return Json{{"category", one.category}, {"mask", one.mask}}; };
    Json barriers = Json::object(), movers = Json::object();
    for (std::size_t i = 0; i < table.barriers.size(); ++i)
        barriers[world.barriers()[i].name] = bits(table.barriers[i]);
    for (std::size_t i = 0; i < table.movers.size(); ++i) movers[world.movers()[i].name] = bits(table.movers[i]);
    return {{"bits", table.bits},
            {"barriers", std::move(barriers)},
            {"movers", std::move(movers)},
            {"triggers", bits(table.triggers)}};
}

Json bits_json(const World& world) {
    Json flags = Json::object();
    for (std::size_t f = 0; f < world.flags().size(); ++f)
        flags[world.flags()[f].name] = flags_number(world, FlagSet{1} << f);
    return {{"flags", std::move(flags)},
            {"sides", {{"top", 1}, {"right", 4}, {"bottom", 16}, {"left", 64}}},
            {"passages", {{"open", 0}, {"shut", 1}, {"in", 2}, {"out", 3}}}};
}

Json vocabulary_json(const World& world) {
    Json barriers = Json::array(), storeys = Json::array(), movers = Json::array(), kinds = Json::array();
    for (const Barrier& barrier : world.barriers()) {
        const auto& colour = barrier.colour;
        barriers.push_back(
            {{"name", barrier.name},
             {"note", barrier.note},
             {"colour", colour ? Json(fmt::format("#{:02x}{:02x}{:02x}", colour->red, colour->green, colour->blue))
                               : Json(nullptr)}});
    }
    for (const Storey& storey : world.storeys())
        storeys.push_back({{"name", storey.name}, {"base_px", storey.base_px}, {"height_px", storey.height_px}});
    for (const Mover& mover : world.movers()) movers.push_back(mover_json(world, mover));
    for (const Kind& kind : world.kinds()) kinds.push_back(kind_json(world, kind));
    return {{"barriers", std::move(barriers)},
            {"flags", notes_json(world.flags())},
            {"storeys", std::move(storeys)},
            {"movers", std::move(movers)},
            {"contacts", contacts_json(world)},
            {"bits", bits_json(world)},
            {"facts", notes_json(world.facts())},
            {"events", notes_json(world.events())},
            {"map_fields", fields_json(world.map_fields())},
            {"layer_fields", fields_json(world.layer_fields())},
            {"kinds", std::move(kinds)}};
}

Json settings_json(const World& world) {
    const MergeSettings& merging = world.merging();
    Json check = Json::object();
    for (const RuleText& rule : all_rules())
        if (world.severity(rule.rule) != rule.severity)
            check[std::string(rule.name)] = name_of(world.severity(rule.rule));
    return {{"limits", world.limits()},
            {"merging",
             {{"within_px", merging.within_px},
              {"most_vertices", merging.most_vertices},
              {"chunk_cells", merging.chunk_cells},
              {"least_edge_px", merging.least_edge_px},
              {"forms", merging.forms}}},
            {"check", std::move(check)}};
}

Json pack_tree(const World& world, const PackOutput& output, Json maps) {
    const bool ground = output.plane == Plane::ground;
    Json goal_objects = Json::array(), goal_facts = Json::array();
    for (const Goal& goal : world.goals())
        (goal.fact != FactId::none ? goal_facts : goal_objects).push_back(goal.words);
    Json tree{{"format", "dryground/pack/1"},
              {"world", world.title()},
              {"hash", ""},
              {"unit", output.unit == Unit::m ? "m"
                       : ground               ? "cell"
                                              : "px"},
              {"per_metre", world.per_metre()},
              {"y", output.y == YAxis::up ? "up" : "down"},
              {"plane", ground ? "ground" : "screen"},
              {"player", name_or_null(world.movers(), world.player())},
              {"start", world.start().words.empty() ? Json(nullptr) : Json(world.start().words)},
              {"goals", {{"objects", std::move(goal_objects)}, {"facts", std::move(goal_facts)}}}};
    tree.update(vocabulary_json(world));
    tree.update(settings_json(world));
    Json tilesets = Json::array();
    for (const TileSet& set : world.tilesets()) tilesets.push_back(tileset_json(world, set));
    tree["tilesets"] = std::move(tilesets);
    tree["maps"] = std::move(maps);
    return tree;
}

}   // namespace

namespace {

// FNV-1a (Fowler, Noll, Vo), 64 bits.
class Hash {
public:
    void add(std::span<const std::uint8_t> bytes) {
        for (const std::uint8_t byte : bytes) hash_ = (hash_ ^ byte) * 0x100000001b3u;
    }
    [[nodiscard]] std::string text() const { return fmt::format("{:016x}", hash_); }

private:
    std::uint64_t hash_ = 0xcbf29ce484222325u;
};

// What comes before the maps: all of a pack's tree but the last byte, which is the empty list of maps.
std::vector<std::uint8_t> cbor_before_maps(const Json& tree) {
    std::vector<std::uint8_t> bytes = Json::to_cbor(tree);
    bytes.pop_back();
    return bytes;
}
std::string text_before_maps(const Json& tree) {
    std::string text = json_text(tree);
    return text.substr(0, text.rfind("[]"));
}

}   // namespace

std::string hash_of(std::span<const std::uint8_t> bytes) {
    Hash hash;
    hash.add(bytes);
    return hash.text();
}

std::string pack_of(const World& world, const PackOutput& output,
                    const std::function<Json(std::size_t map, Holes& holes)>& tree_of_map) {
    if (output.chunk_cells < 0 || output.variants < 0 || output.variants > 6)
        throw std::out_of_range("dryground::PackOutput: chunk_cells should be 0 or more, variants 0 to 6");
    const std::size_t maps = world.maps().size();
    const bool as_text = output.format == PackFormat::json;
    Json tree = pack_tree(world, output, Json::array());
    // The hash is of the whole as CBOR, in which it is empty itself, so that packs of either format have the same.
    Hash hash;
    std::string bytes;   // of the maps
    TreeSinks sinks;
    if (as_text) sinks.text = &bytes;
    sinks.cbor = [&](const std::vector<std::uint8_t>& more) {
        hash.add(more);
        if (!as_text) bytes.append(more.begin(), more.end());
    };
    hash.add(cbor_before_maps(tree));
    sinks.cbor(cbor_head(false, maps));
    for (std::size_t map = 0; map < maps; ++map) {
        if (as_text) bytes += map == 0 ? "[\n    " : ",\n    ";
        Holes holes;
        const Json of_map = tree_of_map(map, holes);
        write_tree(of_map, holes, 4, sinks);
        if (output.progress) output.progress(map + 1, maps);
    }
    if (as_text) bytes += maps == 0 ? "[]\n}\n" : "\n  ]\n}\n";
    tree["hash"] = hash.text();
    if (as_text) return bytes.insert(0, text_before_maps(tree));
    const std::vector<std::uint8_t> before = cbor_before_maps(tree);
    return bytes.insert(0, std::string(before.begin(), before.end()));
}

Json properties_json(const Properties& properties) {
    Json table = Json::object();
    for (const auto& [name, value] : properties) table[name] = value_json(value);
    return table;
}

Json fields_json(const Fields& fields) {
    Json table = Json::object();
    for (const auto& [name, field] : fields) {
        Json& one = table[name] = {{"type", name_of(field.type)}};
        if (field.standard) one["default"] = value_json(*field.standard);
        if (field.least) one["min"] = *field.least;
        if (field.most) one["max"] = *field.most;
        if (field.type == FieldType::choice) one["of"] = field.choices;
        if (field.type == FieldType::list) one["of"] = Json::array({name_of(field.holds)});
        if (field.optional) one["optional"] = true;
        if (!field.note.empty()) one["note"] = field.note;
    }
    return table;
}

Json surface_json(const std::optional<Surface>& surface) {
    if (!surface) return nullptr;
    Json table = Json::object();
    if (surface->friction) table["friction"] = *surface->friction;
    if (surface->restitution) table["restitution"] = *surface->restitution;
    return table;
}

Json picture_json(const std::optional<Picture>& picture) {
    if (!picture) return nullptr;
    return {{"file", picture->file},
            {"at", Json::array({picture->x, picture->y})},
            {"size", Json::array({picture->width, picture->height})}};
}

}   // namespace files

std::string pack_bytes(const World& world, const PackOutput& output) {
    return files::pack_of(world, output, [&](std::size_t map, files::Holes& holes) {
        return files::packed_map_json(world, world.maps()[map], output, holes);
    });
}

std::vector<std::string> art_files(const World& world) {
    std::vector<std::string> files;
    const auto add = [&](const std::optional<Picture>& picture) {
        if (picture) files.push_back(picture->file);
    };
    for (const TileSet& set : world.tilesets()) {
        if (set.sheet) files.push_back(set.sheet->file);
        for (const Tile& tile : set.tiles) add(tile.picture);
    }
    for (const Mover& mover : world.movers()) add(mover.picture);
    for (const Kind& kind : world.kinds()) add(kind.picture);
    std::sort(files.begin(), files.end());
    files.erase(std::unique(files.begin(), files.end()), files.end());
    return files;
}

}   // namespace dryground
