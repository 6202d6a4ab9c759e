// Outlines for showing what Play knows: ground, areas of triggers, near a box of the screen.
//
// Cost: in proportion to what lies near the box, not to the map.

#include <fmt/format.h>

#include <algorithm>

#include "../merge/chunks/chunk_layout_internal.hpp"
#include "parts_internal.hpp"

namespace dryground {

namespace {

PointPx px_of(Point p) { return {to_px(p.x), to_px(p.y)}; }

// Returns whether the box around a line meets an area.
bool meets(PointPx a, PointPx b, const BoxPx& area) {
    return std::max(a.x, b.x) >= area.x && std::min(a.x, b.x) <= area.x + area.width && std::max(a.y, b.y) >= area.y &&
           std::min(a.y, b.y) <= area.y + area.height;
}

}   // namespace

Play::Overlay Play::overlay(const BoxPx& area, const Show& show) const {
    Overlay all;
    const auto line = [&](Point a, Point b, std::string_view group) {
        if (meets(px_of(a), px_of(b), area)) all.lines.push_back({px_of(a), px_of(b), group});
    };
    const Bounds box{{step_at(area.x), step_at(area.y)}, {step_at(area.x + area.width), step_at(area.y + area.height)}};
    if (show.chains)
        for (const std::size_t chunk : detail::ChunkLayout(map(), merge().chunk_cells).near(box))
            for (const Group& group : merge().chunks[chunk].groups)
                for (const Chain& chain : group.chains)
                    for (std::size_t i = 0; i + (chain.closed ? 0 : 1) < chain.points.size(); ++i)
                        line(chain.points[i], chain.points[(i + 1) % chain.points.size()],
                             group.trigger.empty() ? group.barrier : group.trigger);
    const auto [c0, r0, c1, r1] = map().cells_near(box);
    for (int r = r0; (show.grid || show.flags) && r <= r1; ++r)
        for (int c = c0; c <= c1; ++c) {
            const Cell cell = map().cell({c, r});
            if (show.grid) {
                line(map().corner(c, r), map().corner(c + 1, r), "grid");
                line(map().corner(c, r), map().corner(c, r + 1), "grid");
            }
            if (!show.flags) continue;
            std::string text = fmt::format("{}", fmt::join(flag_names(world(), says(cell).flags), " "));
            if (!text.empty()) all.labels.push_back({middle_of(cell), std::move(text)});
        }
    std::vector<std::size_t> near;
    if (show.objects) parts_->objects.each_near(box, [&](std::size_t o) { near.push_back(o); });
    std::sort(near.begin(), near.end());
    for (const std::size_t o : near) {
        const Object& object = map().objects[o];
        const PointPx at = px_of(object.position);
        if (!is_there(id_of<ObjectId>(o)) || !meets(at, at, area)) continue;
        const std::string& kind = world().kind(object.kind).name;
        all.labels.push_back({at, object.name.empty() ? kind : fmt::format("{} ({})", object.name, kind)});
    }
    return all;
}

}   // namespace dryground
