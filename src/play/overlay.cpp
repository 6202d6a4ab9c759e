#include <fmt/format.h>

#include <algorithm>
#include <array>

#include "parts_internal.hpp"

namespace dryground {

namespace {

PointPx px_of(Point p) { return {to_px(p.x), to_px(p.y)}; }

// Whether the box around a line meets an area.
bool meets(PointPx a, PointPx b, const BoxOfBody& area) {
    return std::max(a.x, b.x) >= area.left && std::min(a.x, b.x) <= area.left + area.width &&
           std::max(a.y, b.y) >= area.top && std::min(a.y, b.y) <= area.top + area.height;
}

// The chunks that hold some cells (first and last column and row), or reach out of the map beside them.
template <class Action>
void for_each_chunk(const Map& map, const ChunkedMerge& merge, const std::array<int, 4>& cells, Action action) {
    const auto floored = [](int a, int b) { return a / b - (a % b < 0 ? 1 : 0); };
    const std::array<int, 2> first = merge.chunks.front().chunk, last = merge.chunks.back().chunk;
    const auto chunk = [&](int column, int row) {
        return std::array{floored(map.first_column + std::clamp(column, 0, map.columns - 1), merge.chunk_cells),
                          floored(map.first_row + std::clamp(row, 0, map.rows - 1), merge.chunk_cells)};
    };
    const auto [c0, r0] = chunk(cells[0], cells[1]);
    const auto [c1, r1] = chunk(cells[2], cells[3]);
    for (int r = r0; r <= r1; ++r)
        for (int c = c0; c <= c1; ++c)
            action(
                merge.chunks[static_cast<std::size_t>(r - first[1]) * static_cast<std::size_t>(last[0] - first[0] + 1) +
                             static_cast<std::size_t>(c - first[0])]);
}

}   // namespace

Play::Overlay Play::overlay(const BoxOfBody& area, const Show& show) const {
    Overlay all;
    const auto line = [&](Point a, Point b, std::string_view group) {
        if (meets(px_of(a), px_of(b), area)) all.lines.push_back({px_of(a), px_of(b), group});
    };
    const auto [c0, r0, c1, r1] = map().cells_near(
        {{step_at(area.left), step_at(area.top)}, {step_at(area.left + area.width), step_at(area.top + area.height)}});
    if (show.chains)
        for_each_chunk(map(), merge(), {c0, r0, c1, r1}, [&](const Chunk& chunk) {
            for (const Group& group : chunk.groups)
                for (const Chain& chain : group.chains)
                    for (std::size_t i = 0; i + (chain.closed ? 0 : 1) < chain.points.size(); ++i)
                        line(chain.points[i], chain.points[(i + 1) % chain.points.size()],
                             group.trigger.empty() ? group.barrier : group.trigger);
        });
    for (int r = r0; (show.grid || show.flags) && r <= r1; ++r)
        for (int c = c0; c <= c1; ++c) {
            const Cell cell{map().first_column + c, map().first_row + r};
            if (show.grid) {
                line(map().corner(c, r), map().corner(c + 1, r), "grid");
                line(map().corner(c, r), map().corner(c, r + 1), "grid");
            }
            if (!show.flags) continue;
            std::string text = fmt::format("{}", fmt::join(flag_names(world(), says(cell).flags), " "));
            if (!text.empty()) all.labels.push_back({middle_of(cell), std::move(text)});
        }
    for (std::size_t o = 0; show.objects && o < map().objects.size(); ++o) {
        const Object& object = map().objects[o];
        const PointPx at = px_of(object.position);
        if (!is_there(static_cast<int>(o)) || !meets(at, at, area)) continue;
        const std::string& kind = world().kinds()[static_cast<std::size_t>(object.kind)].name;
        all.labels.push_back({at, object.name.empty() ? kind : fmt::format("{} ({})", object.name, kind)});
    }
    return all;
}

}   // namespace dryground
