// Parts of packs. A part holds its map's tree as the pack has it, what it was made from, and how it is written.

#include "dryground/pack_parts.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <set>

#include "dryground/version.hpp"
#include "pack_internal.hpp"

namespace dryground {

namespace files {

namespace {

constexpr const char* part_format = "dryground/part/1";

// Returns how a pack is written, and by which version: parts that differ in it do not fit together.
std::string manner_of(const PackOutput& output) {
    return fmt::format("{} {} {} {}{}{}", version, output.unit == Unit::m ? "m" : "px",
                       output.y == YAxis::up ? "up" : "down", output.plane == Plane::ground ? "ground" : "screen",
                       output.chunk_cells > 0 ? fmt::format(" chunks of {}", output.chunk_cells) : "",
                       output.variants > 0 ? fmt::format(" {} variants", output.variants) : "");
}

// Returns what is wrong with a part that was read; empty if nothing is.
std::string fault_of(const Json& part, const PackOutput& output,
                     const std::function<std::string(const std::string& file)>& hash_now) {
    if (!part.is_object() || part.value("format", "") != part_format || !part.contains("map") ||
        !part.contains("inputs") || !part.contains("tree"))
        return "it is damaged, or no part of a pack";
    if (part.value("manner", "") != manner_of(output))
        return fmt::format("it was made with other options ({}; wanted: {})", part.value("manner", ""),
                           manner_of(output));
    for (const auto& [file, hash] : part["inputs"].items())
        if (hash_now(file) != hash) return fmt::format("it is older than '{}'", file);
    return {};
}

}   // namespace

}   // namespace files

std::string content_hash(std::string_view bytes) {
    return files::hash_of({reinterpret_cast<const std::uint8_t*>(bytes.data()), bytes.size()});
}

std::string part_bytes(const World& world, const Map& map, const PackOutput& output,
                       const std::vector<InputFile>& inputs) {
    files::Holes holes;
    files::Json made_from = files::Json::object();
    for (const InputFile& input : inputs) made_from[input.file] = input.hash;
    const files::Json part{{"format", files::part_format},
                           {"map", map.name},
                           {"manner", files::manner_of(output)},
                           {"inputs", std::move(made_from)},
                           {"tree", files::packed_map_json(world, map, output, holes)}};
    std::string bytes;
    files::TreeSinks sinks;
    sinks.cbor = [&](const std::vector<std::uint8_t>& more) { bytes.append(more.begin(), more.end()); };
    files::write_tree(part, holes, 0, sinks);
    return bytes;
}

Result<std::string> join_parts(const World& world, const std::vector<NamedBytes>& parts, const PackOutput& output,
                               const std::function<std::string(const std::string& file)>& hash_now) {
    std::vector<std::string> faults;
    std::map<std::string, files::Json> trees;
    std::set<std::string> faulty;   // maps whose part exists but is unusable
    for (const NamedBytes& named : parts) {
        files::Json part = files::Json::from_cbor(named.bytes, true, false);   // no exceptions: damaged is discarded
        const std::string fault = files::fault_of(part, output, hash_now);
        const std::string map = fault.empty() ? part.value("map", "") : "";
        if (!fault.empty())
            faults.push_back(fmt::format("'{}': {}; make it again", named.file, fault));
        else if (world.find_map(map) == MapId::none)
            faults.push_back(fmt::format("'{}': the world has no map '{}'", named.file, map));
        else if (!trees.emplace(map, std::move(part["tree"])).second)
            faults.push_back(fmt::format("'{}': map '{}' is given twice", named.file, map));
        if (!fault.empty() && part.is_object()) faulty.insert(part.value("map", ""));
    }
    files::Json maps = files::Json::array();
    for (const Map& map : world.maps()) {
        const auto tree = trees.find(map.name);
        if (tree != trees.end())
            maps.push_back(std::move(tree->second));
        else if (faulty.count(map.name) == 0)
            faults.push_back(fmt::format("map '{0}' has no part: pack --map {0} makes it", map.name));
    }
    if (!faults.empty()) return Failure{fmt::format("{}", fmt::join(faults, "\n"))};
    return files::pack_of(world, output, [&](std::size_t map, files::Holes& holes) {
        files::make_holes(maps[map], holes);
        return std::move(maps[map]);
    });
}

}   // namespace dryground
