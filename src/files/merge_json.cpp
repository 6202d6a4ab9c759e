// Writes `dryground/merge/1`: geometry for games, in the requested unit and direction. Rings run so that the solid is
// on the left by the numbers as written; with y up every y is negated, so every ring is turned around then, its first
// point staying first.

#include <algorithm>
#include <cmath>
#include <memory>
#include <optional>
#include <stdexcept>
#include <tuple>
#include <type_traits>

#include "../geometry/ring_internal.hpp"
#include "dryground/files.hpp"
#include "merge_formats_internal.hpp"
#include "pack_internal.hpp"
#include "place_numbers_internal.hpp"

namespace dryground {

namespace {

using files::Holes;
using files::Json;
using files::PlaceNumbers;

class Writer {
public:
    Writer(const World& world, const MergeOutput& output) : world_(world), output_(output) {}

    Json map(const Merge& merge) {
        start(merge.map, merge.plane);
        return map(merge, "groups", groups(merge.groups));
    }
    Json map(const ChunkedMerge& merge) {
        start(merge.map, merge.plane);
        Json chunks = Json::array();
        for (const Chunk& chunk : merge.chunks) chunks.push_back(this->chunk(chunk));
        return map(merge, "chunks", std::move(chunks));
    }

    // Prepares for a map.
    void start(const std::string& map, Plane plane) {
        numbers_.emplace(world_, world_.map(map), output_.unit, output_.y, plane);
        regions_ = vertices_ = pieces_ = 0;
        shortest_ = -1;
    }
    // A part of a map's ground: a group, and where in the list of groups is one that holds the same, or -1; or a chunk
    // with the same for each of its groups.
    Json part(const Group& group, int same_as) { return this->group(group, same_as); }
    Json part(const Chunk& chunk, const std::vector<int>& same_as) { return this->chunk(chunk, same_as); }
    // Returns the figures of all that was written of the map.
    [[nodiscard]] Json stats(const MergeStats& stats) const {
        return {{"shapes_in", stats.shapes_in},
                {"regions", regions_},
                {"vertices", vertices_},
                {"pieces", pieces_},
                {"shortest_edge", std::max(shortest_, 0.0)}};
    }
    [[nodiscard]] static Json surfaces(const std::vector<Surface>& all) {
        Json result = Json::array();
        for (const Surface& surface : all) {
            Json one = Json::object();
            if (surface.friction) one["friction"] = *surface.friction;
            if (surface.restitution) one["restitution"] = *surface.restitution;
            result.push_back(std::move(one));
        }
        return result;
    }

private:
    template <class Merged>
    [[nodiscard]] Json map(const Merged& merge, const char* name, Json parts) const {
        Json tree{{"map", merge.map}, {"storeys", storeys()}};
        if constexpr (std::is_same_v<Merged, ChunkedMerge>) tree["chunk_cells"] = merge.chunk_cells;
        tree[name] = std::move(parts);
        tree["surfaces"] = surfaces(merge.surfaces);
        tree["stats"] = stats(merge.stats);
        return tree;
    }
    Json chunk(const Chunk& chunk, const std::vector<int>& same_as = {}) {
        return {{"chunk", {chunk.chunk[0], chunk.chunk[1]}}, {"groups", groups(chunk.groups, same_as)}};
    }
    // Returns the range of heights of each storey.
    [[nodiscard]] Json storeys() const {
        Json result = Json::array();
        for (const Storey& storey : world_.storeys())
            result.push_back({{"storey", storey.name},
                              {"base", numbers_->length(storey.base_px)},
                              {"height", numbers_->length(storey.height_px)}});
        return result;
    }
    [[nodiscard]] Json groups(const std::vector<Group>& all, const std::vector<int>& same_as = {}) {
        Json result = Json::array();
        for (std::size_t i = 0; i < all.size(); ++i) result.push_back(group(all[i], same_as.empty() ? -1 : same_as[i]));
        return result;
    }
    [[nodiscard]] Json point(Point p) const { return numbers_->point(p); }
    [[nodiscard]] Json ring(const Ring& points) const { return numbers_->ring(points); }
    [[nodiscard]] Json rings(const std::vector<Ring>& all) const { return numbers_->rings(all); }
    [[nodiscard]] bool up() const { return numbers_->up(); }
    // Returns the points of a line: one-way lines keep what they stop on their right; others keep their start.
    [[nodiscard]] Json line(const Ring& points, bool directed) const {
        Json result = Json::array();
        const std::size_t n = points.size();
        for (std::size_t i = 0; i < n; ++i) result.push_back(point(points[up() && directed ? n - 1 - i : i]));
        return result;
    }

    void measure(const Ring& points) {
        vertices_ += points.size();
        detail::each_edge_of_ring(points, [&](Point a, Point b) {
            const double length = std::hypot(numbers_->x(b.x) - numbers_->x(a.x), numbers_->y(b.y) - numbers_->y(a.y));
            if (shortest_ < 0 || length < shortest_) shortest_ = length;
        });
    }

    Json group(const Group& group, int same_as = -1) {
        Json result{{"storey", group.storey},
                    {"barrier", group.barrier},
                    {"trigger", group.trigger},
                    {"mover", group.mover},
                    {"one_way", name_of(group.one_way)},
                    {"area", numbers_->area(static_cast<double>(twice_area(group.regions)) / 2)}};
        if (same_as >= 0) {
            result["same_as"] = same_as;
            return result;
        }
        detail::each_ring(group.regions, [&](const Ring& ring) { measure(ring); });
        regions_ += group.regions.size();
        add_edges(group, result);
        if (output_.forms.has(MergeForm::pieces)) {
            result["pieces"] = rings(group.pieces);
            pieces_ += group.pieces.size();
        }
        if (output_.forms.has(MergeForm::boxes)) {
            Json boxes = Json::array();
            for (const Bounds& box : group.boxes.boxes) boxes.push_back(numbers_->box(box));
            result["boxes"] = std::move(boxes);
            result["rests"] = rings(group.boxes.rests);
        }
        if (output_.forms.has(MergeForm::triangles)) result["triangles"] = mesh(group.triangles);
        return result;
    }

    void add_edges(const Group& group, Json& result) const {
        const bool directed = group.one_way != OneWay::none;
        if (output_.forms.has(MergeForm::regions)) {
            Json regions = Json::array();
            for (const Region& region : group.regions)
                regions.push_back({{"outline", ring(region.outline)}, {"holes", rings(region.holes)}});
            result["regions"] = std::move(regions);
        }
        if (output_.forms.has(MergeForm::lines)) {
            Json lines = Json::array();
            for (const Ring& points : group.lines) lines.push_back(line(points, directed));
            result["lines"] = std::move(lines);
        }
        if (output_.forms.has(MergeForm::chains)) {
            Json chains = Json::array();
            for (const Chain& chain : group.chains) chains.push_back(this->chain(chain));
            result["chains"] = std::move(chains);
        }
    }

    [[nodiscard]] Json mesh(const Mesh& mesh) const {
        Json vertices = Json::array(), indices = Json::array();
        for (const Point p : mesh.points) vertices.push_back(point(p));
        for (const auto& [a, b, c] : mesh.triangles)
            for (const std::uint32_t corner : {a, up() ? c : b, up() ? b : c}) indices.push_back(corner);
        return {{"vertices", std::move(vertices)}, {"indices", std::move(indices)}};
    }

    // What blocks from one side keeps that side: it is reversed if y is.
    [[nodiscard]] Json chain(const Chain& chain) const {
        const bool turned = up() && !chain.two_sided;
        const std::size_t n = chain.points.size();
        Json points = Json::array();
        for (std::size_t i = 0; i < n; ++i)
            points.push_back(point(chain.points[!turned ? i : chain.closed ? (n - i) % n : n - 1 - i]));
        std::vector<int> surfaces = chain.surfaces;
        if (turned) std::reverse(surfaces.begin(), surfaces.end());
        const auto neighbour = [&](const std::optional<Point>& p) { return p ? point(*p) : Json(nullptr); };
        return {{"points", std::move(points)},
                {"closed", chain.closed},
                {"two_sided", chain.two_sided},
                {"before", neighbour(turned ? chain.after : chain.before)},
                {"after", neighbour(turned ? chain.before : chain.after)},
                {"surfaces", surfaces}};
    }

    const World& world_;
    const MergeOutput& output_;
    std::optional<PlaceNumbers> numbers_;   // of the map that is written
    std::size_t regions_ = 0, vertices_ = 0, pieces_ = 0;
    double shortest_ = -1;
};

}   // namespace

namespace {

template <class Merged>
Json tree_of(const World& world, const std::vector<Merged>& merges, const MergeOutput& output) {
    Writer writer(world, output);
    Json maps = Json::array();
    for (const Merged& merge : merges) maps.push_back(writer.map(merge));
    const bool ground = !merges.empty() && merges[0].plane == Plane::ground;
    return Json{{"format", "dryground/merge/1"},
                {"world", world.title()},
                {"unit", output.unit == Unit::m ? "m"
                         : ground               ? "cell"
                                                : "px"},
                {"per_metre", world.per_metre()},
                {"y", output.y == YAxis::down ? "down" : "up"},
                {"plane", ground ? "ground" : "screen"},
                {"maps", std::move(maps)}};
}

}   // namespace

namespace {

// Renumbers groups' surfaces by another list, which grows by those that it lacks.
std::vector<Group> renumbered(std::vector<Group> groups, const std::vector<Surface>& own, std::vector<Surface>& all) {
    std::vector<int> numbers;
    for (const Surface& surface : own) {
        const auto found = std::find(all.begin(), all.end(), surface);
        numbers.push_back(static_cast<int>(found - all.begin()));
        if (found == all.end()) all.push_back(surface);
    }
    for (Group& group : groups)
        for (Chain& chain : group.chains)
            for (int& surface : chain.surfaces) surface = numbers[static_cast<std::size_t>(surface)];
    return groups;
}

void add_groups(std::vector<Group>& to, std::vector<Group> more) {
    to.insert(to.end(), std::make_move_iterator(more.begin()), std::make_move_iterator(more.end()));
    std::stable_sort(to.begin(), to.end(), [](const Group& a, const Group& b) {
        return std::tie(a.storey, a.barrier, a.trigger, a.mover, a.one_way) <
               std::tie(b.storey, b.barrier, b.trigger, b.mover, b.one_way);
    });
}

}   // namespace

namespace {

Plane plane_of(const Merge& merge) { return merge.plane; }
Plane plane_of(const ChunkedMerge& merge) { return merge.plane; }

// Releases what a mover's group holds if a barrier's group holds the same, as when one barrier alone stops the mover,
// and returns the places of those groups.
std::vector<int> shared(std::vector<Group>& groups) {
    std::vector<int> same_as(groups.size(), -1);
    for (std::size_t i = 0; i < groups.size(); ++i) {
        Group& group = groups[i];
        for (std::size_t j = 0; j < groups.size() && !group.mover.empty() && same_as[i] < 0; ++j) {
            const Group& other = groups[j];
            if (other.mover.empty() && other.storey == group.storey && other.one_way == group.one_way &&
                std::tie(other.regions, other.lines, other.chains, other.pieces, other.boxes, other.triangles) ==
                    std::tie(group.regions, group.lines, group.chains, group.pieces, group.boxes, group.triangles))
                same_as[i] = static_cast<int>(j);
        }
        if (same_as[i] >= 0)
            group.lines = {}, group.chains = {}, group.pieces = {}, group.boxes = {}, group.triangles = {};
    }
    return same_as;
}

// Writes the groups of a map, or the chunks of one, with the meaning of `shared`.
struct GroupParts {
    explicit GroupParts(Merge& merge) : parts(merge.groups), same_as(shared(merge.groups)) {}
    std::vector<Group>& parts;
    std::vector<int> same_as;
};
struct ChunkParts {
    explicit ChunkParts(ChunkedMerge& merge) : parts(merge.chunks) {
        for (Chunk& chunk : merge.chunks) same_as.push_back(shared(chunk.groups));
    }
    std::vector<Chunk>& parts;
    std::vector<std::vector<int>> same_as;
};

// Returns a tree whose groups or chunks are holes: each is written and released, and the figures come last.
template <class Merged, class Parts>
Json tree_with_holes(const World& world, Merged merged, const MergeOutput& output, Holes& holes) {
    struct State {
        Merged merged;
        MergeOutput output;   // which the writer refers to
        Parts parts;
        std::optional<Writer> writer{};
        State(Merged&& all, const MergeOutput& how) : merged(std::move(all)), output(how), parts(merged) {}
    };
    auto state = std::make_shared<State>(std::move(merged), output);
    state->writer.emplace(world, state->output);
    state->writer->start(state->merged.map, plane_of(state->merged));
    Json parts = Json::array();
    for (std::size_t i = 0; i < state->parts.parts.size(); ++i)
        parts.push_back(holes.add([state, i] {
            auto& part = state->parts.parts[i];
            Json tree = state->writer->part(part, state->parts.same_as[i]);
            part = {};
            return tree;
        }));
    Json tree = Json::object();
    if constexpr (std::is_same_v<Merged, ChunkedMerge>) tree["chunk_cells"] = state->merged.chunk_cells;
    tree[std::is_same_v<Merged, ChunkedMerge> ? "chunks" : "groups"] = std::move(parts);
    tree["surfaces"] = Writer::surfaces(state->merged.surfaces);
    tree["stats"] = holes.add([state] { return state->writer->stats(state->merged.stats); });
    return tree;
}

}   // namespace

namespace files {

Json merged_json(const World& world, const std::vector<Merge>& merges, const MergeOutput& output, Holes& holes) {
    Merge all = merges.front();
    for (std::size_t i = 1; i < merges.size(); ++i)
        add_groups(all.groups, renumbered(merges[i].groups, merges[i].surfaces, all.surfaces));
    return tree_with_holes<Merge, GroupParts>(world, std::move(all), output, holes);
}

Json merged_json(const World& world, const std::vector<ChunkedMerge>& merges, const MergeOutput& output, Holes& holes) {
    ChunkedMerge all = merges.front();
    for (std::size_t i = 1; i < merges.size(); ++i)
        for (std::size_t c = 0; c < all.chunks.size(); ++c)
            add_groups(all.chunks[c].groups, renumbered(merges[i].chunks[c].groups, merges[i].surfaces, all.surfaces));
    return tree_with_holes<ChunkedMerge, ChunkParts>(world, std::move(all), output, holes);
}

}   // namespace files

std::string merge_bytes(const World& world, const std::vector<Merge>& merges, const MergeOutput& output) {
    if (output.format == MergeFormat::gltf) return files::gltf_text(world, merges, output);
    return files::merge_text(tree_of(world, merges, output), output.format);
}

std::string merge_bytes(const World& world, const std::vector<ChunkedMerge>& merges, const MergeOutput& output) {
    if (output.format == MergeFormat::gltf) throw std::invalid_argument("merge: chunks cannot be written as glTF");
    return files::merge_text(tree_of(world, merges, output), output.format);
}

}   // namespace dryground
