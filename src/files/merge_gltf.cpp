// glTF 2.0 (Khronos Group, "glTF 2.0 Specification", 2021): merged regions raised to closed meshes. One file, with its
// numbers as base64 in it. Faces are flat: a point is written once for each direction that its faces look in.

#include <fmt/format.h>

#include <boost/archive/iterators/base64_from_binary.hpp>
#include <boost/archive/iterators/transform_width.hpp>

#include <array>
#include <bit>
#include <cmath>
#include <cstring>
#include <limits>
#include <map>
#include <set>
#include <stdexcept>

#include "merge_formats_internal.hpp"

namespace dryground::files {

namespace {

static_assert(std::endian::native == std::endian::little, "glTF holds its numbers with the least byte first");

using Float3 = std::array<float, 3>;

constexpr int target_vertices = 34962, target_indices = 34963, type_float = 5126, type_unsigned = 5125;

std::string base64(std::string bytes) {
    namespace iterators = boost::archive::iterators;
    using Digits = iterators::base64_from_binary<iterators::transform_width<std::string::const_iterator, 6, 8>>;
    const std::size_t missing = (3 - bytes.size() % 3) % 3;
    bytes.append(missing, '\0');
    std::string text(Digits(bytes.cbegin()), Digits(bytes.cend()));
    return text.replace(text.size() - missing, missing, missing, '=');
}

// Returns the linear light that a byte of a colour in sRGB stands for (IEC 61966-2-1).
double linear(std::uint8_t byte) {
    const double s = byte / 255.0;
    const double light = s <= 0.04045 ? s / 12.92 : std::pow((s + 0.055) / 1.055, 2.4);
    return std::round(light * 1e6) / 1e6;
}

// A mesh of flat faces.
struct FlatMesh {
    std::vector<Float3> points, normals;
    std::vector<std::uint32_t> indices;
};

FlatMesh flat_faces(const Solid& solid) {
    FlatMesh mesh;
    std::map<std::pair<std::uint32_t, Float3>, std::uint32_t> numbers;
    for (const auto& triangle : solid.triangles) {
        const auto &a = solid.points[triangle[0]], &b = solid.points[triangle[1]], &c = solid.points[triangle[2]];
        std::array<double, 3> u{}, v{};
        for (std::size_t i = 0; i < 3; ++i) u[i] = b[i] - a[i], v[i] = c[i] - a[i];
        const std::array<double, 3> n{u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]};
        const double length = std::hypot(n[0], n[1], n[2]);
        Float3 normal{};
        for (std::size_t i = 0; i < 3; ++i) normal[i] = static_cast<float>(n[i] / length) + 0.0f;   // no -0
        for (const std::uint32_t point : triangle) {
            const auto [known, is_new] =
                numbers.try_emplace({point, normal}, static_cast<std::uint32_t>(mesh.points.size()));
            if (is_new) {
                Float3& p = mesh.points.emplace_back();
                for (std::size_t i = 0; i < 3; ++i) p[i] = static_cast<float>(solid.points[point][i]) + 0.0f;
                mesh.normals.push_back(normal);
            }
            mesh.indices.push_back(known->second);
        }
    }
    return mesh;
}

class GltfWriter {
public:
    GltfWriter(const World& world, const MergeOutput& output) : world_(world), output_(output) {}

    std::string text(const std::vector<Merge>& merges) {
        Json scenes = Json::array();
        for (const Merge& merge : merges) {
            Json nodes = Json::array();
            const Pose pose = merge.plane == Plane::ground ? Pose::flat : Pose::upright;
            const Frame frame = frame_of(world_, world_.map(merge.map), pose, merge.plane);
            for (const Group& group : merge.groups)
                if (!group.regions.empty()) nodes.push_back(add_group(merge, group, frame));
            Json scene{{"name", merge.map}};
            if (!nodes.empty()) scene["nodes"] = std::move(nodes);
            scenes.push_back(std::move(scene));
        }
        Json tree{{"asset", {{"version", "2.0"}, {"generator", "Dry Ground"}}}};
        if (!scenes.empty()) tree["scene"] = 0;
        const std::size_t length = bytes_.size();
        if (length > 0)
            buffers_.push_back(
                {{"byteLength", length}, {"uri", "data:application/octet-stream;base64," + base64(bytes_)}});
        // Empty lists are not allowed.
        const std::initializer_list<std::pair<const char*, Json*>> lists{
            {"scenes", &scenes},        {"nodes", &nodes_},       {"meshes", &meshes_},  {"materials", &materials_},
            {"accessors", &accessors_}, {"bufferViews", &views_}, {"buffers", &buffers_}};
        for (const auto& [name, list] : lists)
            if (!list->empty()) tree[name] = std::move(*list);
        return json_text(tree);
    }

private:
    std::size_t add_group(const Merge& merge, const Group& group, const Frame& frame) {
        const Heights heights = heights_of(world_, group.storey_id, output_.height_px);
        if (!(heights.height > 0))
            throw std::invalid_argument(fmt::format("merge: storey '{}' has no height", group.storey));
        Solid solid = raised(group.regions, frame, heights);
        if (output_.inward) solid = turned_inward(std::move(solid));
        const FlatMesh mesh = flat_faces(solid);
        Json attributes{{"POSITION", add_points(mesh.points, true)}, {"NORMAL", add_points(mesh.normals, false)}};
        std::string name = group.storey;
        for (const std::string* part : {&group.barrier, &group.trigger, &group.mover})
            if (!part->empty()) name += "/" + *part;
        meshes_.push_back({{"name", name},
                           {"primitives", Json::array({{{"attributes", std::move(attributes)},
                                                        {"indices", add_indices(mesh.indices)},
                                                        {"material", material_of(group)}}})}});
        nodes_.push_back({{"name", name}, {"mesh", meshes_.size() - 1}, {"extras", extras_of(merge, group, heights)}});
        return nodes_.size() - 1;
    }

    static Json extras_of(const Merge& merge, const Group& group, const Heights& heights) {
        std::set<int> used;
        for (const Chain& chain : group.chains) used.insert(chain.surfaces.begin(), chain.surfaces.end());
        Json surfaces = Json::array();
        for (const int number : used) {
            const Surface& surface = merge.surfaces[static_cast<std::size_t>(number)];
            Json one = Json::object();
            if (surface.friction) one["friction"] = *surface.friction;
            if (surface.restitution) one["restitution"] = *surface.restitution;
            if (!one.empty()) surfaces.push_back(std::move(one));
        }
        return {{"map", merge.map},           {"storey", group.storey},         {"barrier", group.barrier},
                {"trigger", group.trigger},   {"mover", group.mover},           {"base_m", heights.base},
                {"height_m", heights.height}, {"surfaces", std::move(surfaces)}};
    }

    std::size_t add_view(const void* data, std::size_t length, int target) {
        views_.push_back({{"buffer", 0}, {"byteOffset", bytes_.size()}, {"byteLength", length}, {"target", target}});
        bytes_.append(static_cast<const char*>(data), length);   // four bytes a number: always aligned
        return views_.size() - 1;
    }
    std::size_t add_points(const std::vector<Float3>& points, bool with_range) {
        Json accessor{{"bufferView", add_view(points.data(), points.size() * sizeof(Float3), target_vertices)},
                      {"componentType", type_float},
                      {"count", points.size()},
                      {"type", "VEC3"}};
        if (with_range) {
            Float3 least, most;
            least.fill(std::numeric_limits<float>::max()), most.fill(std::numeric_limits<float>::lowest());
            for (const Float3& p : points)
                for (std::size_t i = 0; i < 3; ++i)
                    least[i] = std::min(least[i], p[i]), most[i] = std::max(most[i], p[i]);
            accessor["min"] = least, accessor["max"] = most;
        }
        accessors_.push_back(std::move(accessor));
        return accessors_.size() - 1;
    }
    std::size_t add_indices(const std::vector<std::uint32_t>& indices) {
        accessors_.push_back(
            {{"bufferView", add_view(indices.data(), indices.size() * sizeof(std::uint32_t), target_indices)},
             {"componentType", type_unsigned},
             {"count", indices.size()},
             {"type", "SCALAR"}});
        return accessors_.size() - 1;
    }

    // One for each barrier; one that can be seen through for what senses; one for a mover's ground.
    std::size_t material_of(const Group& group) {
        const std::string name = !group.barrier.empty() ? group.barrier : !group.trigger.empty() ? "trigger" : "mover";
        const auto [known, is_new] = material_numbers_.try_emplace(name, materials_.size());
        if (!is_new) return known->second;
        const Colour colour =
            group.barrier_id != BarrierId::none ? colour_of(world_, group.barrier_id) : Colour{150, 150, 150};
        const double alpha = group.trigger.empty() ? 1 : 0.35;
        Json material{{"name", name},
                      {"pbrMetallicRoughness",
                       {{"baseColorFactor", {linear(colour.red), linear(colour.green), linear(colour.blue), alpha}},
                        {"metallicFactor", 0},
                        {"roughnessFactor", 1}}}};
        if (alpha < 1) material["alphaMode"] = "BLEND";
        materials_.push_back(std::move(material));
        return known->second;
    }

    const World& world_;
    const MergeOutput& output_;
    std::string bytes_;
    Json nodes_ = Json::array(), meshes_ = Json::array(), materials_ = Json::array(), accessors_ = Json::array(),
         views_ = Json::array(), buffers_ = Json::array();
    std::map<std::string, std::size_t> material_numbers_;
};

}   // namespace

// Different ones where a barrier says none.
Colour colour_of(const World& world, BarrierId barrier) {
    static constexpr Colour standard[] = {{122, 92, 58},  {47, 127, 147}, {160, 102, 44},
                                          {110, 70, 130}, {70, 110, 60},  {150, 50, 60}};
    const auto number = index(barrier);
    return world.barriers()[number].colour.value_or(standard[number % std::size(standard)]);
}

std::string gltf_text(const World& world, const std::vector<Merge>& merges, const MergeOutput& output) {
    return GltfWriter(world, output).text(merges);
}

}   // namespace dryground::files
