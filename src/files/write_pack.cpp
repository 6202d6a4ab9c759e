// A pack: the world's own part, and what all parts share.

#include <fmt/format.h>

#include "dryground/contacts.hpp"
#include "write_pack_internal.hpp"

namespace dryground {

namespace files {

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
        flags[world.flags()[f].name] =
            flags_are_numbers(world) ? Json(FlagSet{1} << f) : Json(fmt::format("0x{:x}", FlagSet{1} << f));
    return {{"flags", std::move(flags)},
            {"sides", {{"top", 1}, {"right", 4}, {"bottom", 16}, {"left", 64}}},
            {"passages", {{"open", 0}, {"shut", 1}, {"in", 2}, {"out", 3}}}};
}

bool flags_are_numbers(const World& world) { return world.flags().size() <= 53; }

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

// Returns what comes before the maps: all of a pack's tree except the last byte, which is the empty list of maps.
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
    Json tree = packed::Writer({world, output}).table(world);
    for (const TileSet& set : world.tilesets())
        tree["tilesets"].push_back(packed::Writer({world, output, &set}).table(set));
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
