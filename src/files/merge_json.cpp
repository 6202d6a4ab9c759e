// `dryground/merge/1`: geometry for games, in the unit and direction they ask for. Rings run so that the solid is on
// the left by the numbers as written; with y up every y is negated, so every ring is turned around then, its first
// point staying first.

#include <algorithm>
#include <cmath>
#include <tuple>

#include "dryground/files.hpp"
#include "merge_formats_internal.hpp"
#include "pack_internal.hpp"

namespace dryground {

namespace {

using files::Json;

class Writer {
public:
    Writer(const World& world, const MergeOutput& output)
        : output_(output),
          across_(steps_per_px * (output.unit == Unit::m ? world.per_metre() : 1.0)),
          down_(across_),
          up_(output.y == YAxis::up) {}

    Json map(const Merge& merge) {
        start(merge.plane, merge.cell);
        Json groups = this->groups(merge.groups);
        return Json{{"map", merge.map},
                    {"groups", std::move(groups)},
                    {"surfaces", surfaces(merge.surfaces)},
                    {"stats", stats(merge.stats)}};
    }

    Json map(const ChunkedMerge& merge) {
        start(merge.plane, merge.cell);
        Json chunks = Json::array();
        for (const Chunk& chunk : merge.chunks)
            chunks.push_back({{"chunk", {chunk.chunk[0], chunk.chunk[1]}}, {"groups", groups(chunk.groups)}});
        return Json{{"map", merge.map},
                    {"chunk_cells", merge.chunk_cells},
                    {"chunks", std::move(chunks)},
                    {"surfaces", surfaces(merge.surfaces)},
                    {"stats", stats(merge.stats)}};
    }

private:
    void start(Plane plane, Point cell) {
        if (plane == Plane::ground) {
            across_ = cell.x;
            down_ = cell.y;
        }
        regions_ = vertices_ = pieces_ = 0;
        shortest_ = -1;
    }
    [[nodiscard]] Json groups(const std::vector<Group>& all) {
        Json result = Json::array();
        for (const Group& one : all) result.push_back(group(one));
        return result;
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
    [[nodiscard]] Json stats(const MergeStats& stats) const {
        return {{"shapes_in", stats.shapes_in},
                {"regions", regions_},
                {"vertices", vertices_},
                {"pieces", pieces_},
                {"shortest_edge", std::max(shortest_, 0.0)}};
    }

    // Whole numbers of steps are exact in a double; one division rounds once.
    [[nodiscard]] double x(std::int32_t steps) const { return steps / across_; }
    [[nodiscard]] double y(std::int32_t steps) const { return steps / down_; }

    [[nodiscard]] Json point(Point p) const { return Json::array({x(p.x), up_ ? -y(p.y) : y(p.y)}); }
    [[nodiscard]] Json ring(const Ring& points) const {
        Json result = Json::array();
        const std::size_t n = points.size();
        for (std::size_t i = 0; i < n; ++i) result.push_back(point(points[up_ ? (n - i) % n : i]));
        return result;
    }
    [[nodiscard]] Json rings(const std::vector<Ring>& all) const {
        Json result = Json::array();
        for (const Ring& one : all) result.push_back(ring(one));
        return result;
    }
    // One-way lines keep what they stop on their right; others start where they start.
    [[nodiscard]] Json line(const Ring& points, bool directed) const {
        Json result = Json::array();
        const std::size_t n = points.size();
        for (std::size_t i = 0; i < n; ++i) result.push_back(point(points[up_ && directed ? n - 1 - i : i]));
        return result;
    }

    void measure(const Ring& points) {
        vertices_ += points.size();
        for (std::size_t i = 0; i < points.size(); ++i) {
            const Point a = points[i], b = points[(i + 1) % points.size()];
            const double length = std::hypot(x(b.x) - x(a.x), y(b.y) - y(a.y));
            if (shortest_ < 0 || length < shortest_) shortest_ = length;
        }
    }

    Json group(const Group& group) {
        double area = 0;
        for (const Region& region : group.regions) {
            measure(region.outline);
            for (const Ring& hole : region.holes) measure(hole);
        }
        area = static_cast<double>(twice_area(group.regions)) / 2 / across_ / down_;
        regions_ += group.regions.size();
        Json result{{"storey", group.storey}, {"barrier", group.barrier},          {"trigger", group.trigger},
                    {"mover", group.mover},   {"one_way", name_of(group.one_way)}, {"area", area}};
        add_edges(group, result);
        if (output_.pieces) {
            result["pieces"] = rings(group.pieces);
            pieces_ += group.pieces.size();
        }
        if (output_.boxes) {
            Json boxes = Json::array();
            for (const Bounds& box : group.boxes.boxes) boxes.push_back(this->box(box));
            result["boxes"] = std::move(boxes);
            result["rests"] = rings(group.boxes.rests);
        }
        if (output_.triangles) result["triangles"] = mesh(group.triangles);
        return result;
    }

    void add_edges(const Group& group, Json& result) const {
        const bool directed = group.one_way != OneWay::none;
        if (output_.regions) {
            Json regions = Json::array();
            for (const Region& region : group.regions)
                regions.push_back({{"outline", ring(region.outline)}, {"holes", rings(region.holes)}});
            result["regions"] = std::move(regions);
        }
        if (output_.lines) {
            Json lines = Json::array();
            for (const Ring& points : group.lines) lines.push_back(line(points, directed));
            result["lines"] = std::move(lines);
        }
        if (output_.chains) {
            Json chains = Json::array();
            for (const Chain& chain : group.chains) chains.push_back(this->chain(chain));
            result["chains"] = std::move(chains);
        }
    }

    [[nodiscard]] Json box(const Bounds& box) const {
        const std::int32_t wide = box.most.x - box.least.x, high = box.most.y - box.least.y;
        return Json::array({x(box.least.x), up_ ? -y(box.most.y) : y(box.least.y), x(wide), y(high)});
    }

    [[nodiscard]] Json mesh(const Mesh& mesh) const {
        Json vertices = Json::array(), indices = Json::array();
        for (const Point p : mesh.points) vertices.push_back(point(p));
        for (const auto& [a, b, c] : mesh.triangles)
            for (const std::uint32_t corner : {a, up_ ? c : b, up_ ? b : c}) indices.push_back(corner);
        return {{"vertices", std::move(vertices)}, {"indices", std::move(indices)}};
    }

    // What blocks from one side alone keeps that side: it is turned round where y is.
    [[nodiscard]] Json chain(const Chain& chain) const {
        const bool turned = up_ && !chain.two_sided;
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

    const MergeOutput& output_;
    double across_, down_;   // steps to one of the file's unit
    bool up_;
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
                {"unit", ground                    ? "cell"
                         : output.unit == Unit::px ? "px"
                                                   : "m"},
                {"per_metre", world.per_metre()},
                {"y", output.y == YAxis::down ? "down" : "up"},
                {"plane", ground ? "ground" : "screen"},
                {"maps", std::move(maps)}};
}

}   // namespace

namespace {

// Groups with surfaces by the numbers of another list, which grows by those that it lacks.
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

namespace files {

Json merged_json(const World& world, const std::vector<Merge>& merges, const MergeOutput& output) {
    Merge all = merges.front();
    for (std::size_t i = 1; i < merges.size(); ++i)
        add_groups(all.groups, renumbered(merges[i].groups, merges[i].surfaces, all.surfaces));
    Json tree = Writer(world, output).map(all);
    tree.erase("map");
    return tree;
}

Json merged_json(const World& world, const std::vector<ChunkedMerge>& merges, const MergeOutput& output) {
    ChunkedMerge all = merges.front();
    for (std::size_t i = 1; i < merges.size(); ++i)
        for (std::size_t c = 0; c < all.chunks.size(); ++c)
            add_groups(all.chunks[c].groups, renumbered(merges[i].chunks[c].groups, merges[i].surfaces, all.surfaces));
    Json tree = Writer(world, output).map(all);
    tree.erase("map");
    return tree;
}

}   // namespace files

void ask_for(MergeOutput& output, const std::vector<std::string>& forms) {
    const auto asked = [&](const char* form) { return std::find(forms.begin(), forms.end(), form) != forms.end(); };
    output.regions = asked("regions");
    output.lines = asked("lines");
    output.chains = asked("chains");
    output.pieces = asked("pieces");
    output.boxes = asked("boxes");
    output.triangles = asked("triangles");
}

MergeOptions options_for(const MergeOutput& output) {
    MergeOptions options;
    options.chains = output.chains;
    options.pieces = output.pieces;
    options.boxes = output.boxes;
    options.triangles = output.triangles;
    return options;
}

std::string merge_bytes(const World& world, const std::vector<Merge>& merges, const MergeOutput& output) {
    return files::merge_text(tree_of(world, merges, output), output.format);
}

std::string merge_bytes(const World& world, const std::vector<ChunkedMerge>& merges, const MergeOutput& output) {
    return files::merge_text(tree_of(world, merges, output), output.format);
}

}   // namespace dryground
