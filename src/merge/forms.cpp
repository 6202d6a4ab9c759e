#include "forms_internal.hpp"

#include "../geometry/ring_internal.hpp"
#include "least_edge_internal.hpp"

namespace dryground::detail {

Group named_group(const World& world, const GroupKey& key) {
    Group group;
    group.storey_id = key.storey;
    group.storey = world.storey(key.storey).name;
    group.barrier_id = key.barrier;
    if (key.barrier != BarrierId::none) group.barrier = world.barrier(key.barrier).name;
    group.trigger = key.trigger;
    group.one_way = key.one_way;
    return group;
}

std::int32_t least_edge(const World& world) { return to_steps(world.merging().least_edge_px); }

void add_plain_rings(Stacked& stacked) {
    stacked.rings.clear();
    const auto add = [&](const Ring& ring) { stacked.rings.push_back({ring, std::vector<int>(ring.size(), 0)}); };
    each_ring(stacked.regions, add);
    std::sort(stacked.rings.begin(), stacked.rings.end(),
              [](const LabelledRing& a, const LabelledRing& b) { return a.points < b.points; });
}

void add_area_forms(Group& group, const World& world, const MergeOptions& options) {
    const int most = options.most_vertices >= 3 ? options.most_vertices : world.merging().most_vertices;
    const std::int32_t least = least_edge(world);
    if (options.forms.has(MergeForm::pieces))
        group.pieces = convex_pieces(least > 0 ? without_short_edges(group.regions, least) : group.regions, most);
    if (options.forms.has(MergeForm::boxes)) group.boxes = least_boxes(group.regions, most);
    if (options.forms.has(MergeForm::triangles)) group.triangles = delaunay_triangles(group.regions);
}

void add_line_forms(Group& group, const std::vector<JoinedLine>& lines, const LineEdges& others, bool chains) {
    if (lines.empty()) return;
    const Neighbours neighbours(lines, others);
    for (const JoinedLine& line : lines) {
        Ring points = line.points;
        if (line.closed) points.push_back(points.front());
        group.lines.push_back(std::move(points));
        if (!chains) continue;
        Chain chain{.points = line.points, .surfaces = line.labels};
        chain.closed = line.closed;
        chain.two_sided = group.one_way == OneWay::none;
        if (!line.closed) {
            const std::size_t n = line.points.size();
            chain.before = neighbours.after(line.points[1], line.points[0]);
            chain.after = neighbours.after(line.points[n - 2], line.points[n - 1]);
        }
        group.chains.push_back(std::move(chain));
    }
}

}   // namespace dryground::detail
