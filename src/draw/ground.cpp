// Merged geometry: outlines hatched by barrier, a tick on each edge's free side, lines with their arrows, pieces,
// reach.

#include <algorithm>
#include <cmath>

#include "picture_internal.hpp"

namespace dryground::drawing {

namespace {

constexpr double least_marked_cell =
    5;   // px of the picture: of smaller cells vertices and ticks would cover the ground

constexpr double arrow_every = 96;   // px of the picture along a one-way line

// Draws an arrow in the direction that movers pass, with its middle at a place.
std::string arrow(double x, double y, OneWay way) {
    static constexpr std::array<std::array<int, 2>, 5> ways{{{0, 0}, {0, -1}, {0, 1}, {-1, 0}, {1, 0}}};
    const auto [dx, dy] = ways[static_cast<std::size_t>(way)];
    return fmt::format("M{:.1f} {:.1f}L{:.1f} {:.1f}M{:.1f} {:.1f}L{:.1f} {:.1f}L{:.1f} {:.1f}", x - 9 * dx, y - 9 * dy,
                       x + 9 * dx, y + 9 * dy, x + 4 * dx - 4 * dy, y + 4 * dy - 4 * dx, x + 9 * dx, y + 9 * dy,
                       x + 4 * dx + 4 * dy, y + 4 * dy + 4 * dx);
}

// Draws open lines; arrows on one-way ones show the direction that movers pass.
void draw_lines(MapPicture& picture, const Group& group, const Look& look) {
    std::string lines, arrows;
    for (const Ring& line : group.lines) {
        lines += picture.path(line, false);
        for (std::size_t i = 0; group.one_way != OneWay::none && i + 1 < line.size(); ++i) {
            const double x = picture.x(line[i]), y = picture.y(line[i]), dx = picture.x(line[i + 1]) - x,
                         dy = picture.y(line[i + 1]) - y;
            const int count = std::max(1, static_cast<int>(std::hypot(dx, dy) / arrow_every));
            for (int k = 0; k < count; ++k)
                arrows += arrow(x + dx * (k + 0.5) / count, y + dy * (k + 0.5) / count, group.one_way);
        }
    }
    const auto stroke = [&](const char* sort, const std::string& path, double width) {   // with a pale edge
        if (path.empty()) return;
        picture.put("<path d=\"{}\" fill=\"none\" stroke=\"{}\" stroke-width=\"{:g}\"/>\n", path, picture.inks.paper,
                    width + 3);
        picture.put("<path class=\"{}\" d=\"{}\" fill=\"none\" stroke=\"{}\" stroke-width=\"{:g}\"/>\n", sort, path,
                    look.colour, width);
    };
    stroke("lines", lines, 3);
    stroke("one-way", arrows, 2);
}

// Draws vertices of the chains (a straight run has none), and in the middle of each edge a tick to the side that bodies
// are on: to the right by the numbers (geometry.hpp), which on a screen with y down is to the left as seen.
void draw_chain(MapPicture& picture, const Chain& chain, std::string& ticks, std::string& vertices) {
    const std::size_t edges = chain.points.size() - (chain.closed ? 0 : 1);
    for (std::size_t i = 0; i < chain.points.size(); ++i) {
        const Point a = chain.points[i];
        const double x = picture.x(a), y = picture.y(a);
        if (Box{x - 3, y - 3, 6, 6}.meets(picture.window))
            fmt::format_to(std::back_inserter(vertices), "M{:.1f} {:.1f}h4v4h-4z", x - 2, y - 2);
        if (i >= edges || chain.two_sided) continue;
        const Point b = chain.points[(i + 1) % chain.points.size()];
        const double dx = picture.x(b) - x, dy = picture.y(b) - y, length = std::hypot(dx, dy);
        const double middle_x = x + dx / 2, middle_y = y + dy / 2;
        if (length < 12 || !Box{middle_x - 8, middle_y - 8, 16, 16}.meets(picture.window)) continue;
        fmt::format_to(std::back_inserter(ticks), "M{:.1f} {:.1f}l{:.1f} {:.1f}", middle_x, middle_y, 6 * dy / length,
                       -6 * dx / length);
    }
}

void draw_group(MapPicture& picture, const Group& group) {
    const Look look = picture.look_of(group);
    picture.put("<g data-storey=\"{}\" data-barrier=\"{}\" data-trigger=\"{}\">\n", escaped(group.storey),
                escaped(group.barrier), escaped(group.trigger));
    if (const std::string outline = picture.path(group.regions); !outline.empty()) {
        picture.put(
            "<path d=\"{}\" fill=\"url(#{})\" fill-opacity=\"0.55\" fill-rule=\"evenodd\" stroke=\"{}\" "
            "stroke-width=\"4\" stroke-opacity=\"0.8\"/>\n",
            outline, picture.hatch_of(group), picture.inks.paper);
        picture.put("<path d=\"{}\" fill=\"none\" stroke=\"{}\" stroke-width=\"2\" stroke-dasharray=\"{}\"/>\n",
                    outline, look.colour, look.dash);
    }
    draw_lines(picture, group, look);
    if (picture.cell_width() >= least_marked_cell) {
        std::string ticks, vertices;
        for (const Chain& chain : group.chains) draw_chain(picture, chain, ticks, vertices);
        if (!ticks.empty())
            picture.put("<path class=\"ticks\" d=\"{}\" stroke=\"{}\" stroke-width=\"1.5\"/>\n", ticks, look.colour);
        if (!vertices.empty())
            picture.put("<path class=\"vertices\" d=\"{}\" fill=\"{}\" stroke=\"{}\"/>\n", vertices, picture.inks.paper,
                        look.colour);
    }
    picture.close();
}

void draw_pieces_of(MapPicture& picture, const Group& group) {
    std::string path;
    const auto add = [&](const Ring& ring) {
        if (picture.sees(*bounds(Regions{{ring, {}}}))) path += picture.path(ring);
    };
    for (const Ring& piece : group.pieces) add(piece);
    for (const Bounds& box : group.boxes.boxes) add(box_ring(box.least, box.most));
    for (const Ring& rest : group.boxes.rests) add(rest);
    for (const auto& triangle : group.triangles.triangles) {
        Ring ring;
        for (const auto corner : triangle) ring.push_back(group.triangles.points[corner]);
        add(ring);
    }
    picture.put("<path d=\"{}\" fill=\"none\" stroke=\"{}\" stroke-width=\"2.5\" stroke-opacity=\"0.7\"/>\n", path,
                picture.inks.paper);
    picture.put("<path d=\"{}\" fill=\"none\" stroke=\"{}\" stroke-width=\"1\"/>\n", path,
                picture.look_of(group).colour);
}

}   // namespace

void draw_merged(MapPicture& picture) {
    const Merge& merge = picture.merged();
    std::set<std::string> hatched;
    for (const Group& group : merge.groups)
        if (const std::string id = picture.hatch_of(group); hatched.insert(id).second)
            picture.hatching(id, picture.look_of(group), picture.inks);
    for (const Group& group : merge.groups) picture.on_storey(group.storey_id, [&] { draw_group(picture, group); });
}

void draw_pieces(MapPicture& picture) {
    for (const Group& group : picture.merged().groups)
        picture.on_storey(group.storey_id, [&] { draw_pieces_of(picture, group); });
}

MoverId mover_for_reach(const World& world, const Map& map, const DrawOptions& options) {
    const MoverId player = map.player != MoverId::none ? map.player : world.player();
    return options.merging.mover != MoverId::none ? options.merging.mover : player;
}

void draw_reach(MapPicture& picture) {
    const MoverId id = mover_for_reach(picture.world, picture.map(), picture.options);
    if (id == MoverId::none) return;
    picture.define(
        "<pattern id=\"reach\" width=\"6\" height=\"6\" patternUnits=\"userSpaceOnUse\"><path d=\"M1 1h1.6M4 4h1.6\" "
        "stroke=\"{}\" stroke-width=\"1.6\"/></pattern>\n",
        picture.inks.reach);
    for (const StoreyId storey : storeys_told(picture.world, picture.options))
        picture.on_storey(storey, [&] {
            const Regions blocked =
                blocked_area(picture.world, picture.ground_map(), id, storey, picture.options.merging.facts);
            picture.put(
                "<path d=\"{}\" fill=\"url(#reach)\" fill-rule=\"evenodd\" stroke=\"{}\" stroke-width=\"1.5\" "
                "stroke-dasharray=\"1 3\" stroke-linecap=\"round\"/>\n",
                picture.path(reach(blocked, picture.world.mover(id).body.front().outline)), picture.inks.reach);
        });
}

}   // namespace dryground::drawing
