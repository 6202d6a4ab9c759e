// Merged geometry and passability flags.

#include <algorithm>

#include "page_internal.hpp"

namespace dryground::drawing {

namespace {

constexpr std::array<const char*, 6> spare_colours{"#7a3f6d", "#2f6f4f", "#a8481f", "#2d4f9e", "#6d6a1f", "#8a2d3c"};
constexpr std::array<const char*, 4> dashes{"none", "7 3", "2 3", "9 3 2 3"};
constexpr std::array<const char*, 6> hatches{"M0 8L8 0", "M0 0L8 8",     "M0 4H8",
                                             "M4 0V8",   "M0 4H8M4 0V8", "M0 8L8 0M0 0L8 8"};

// The letter that stands for a flag: its first one that no earlier flag has, else a digit.
std::vector<std::string> letters(const World& world) {
    std::vector<std::string> result;
    for (const NamedThing& flag : world.flags()) {
        std::string letter = fmt::format("{}", result.size());
        for (const char c : flag.name)
            if (std::find(result.begin(), result.end(), std::string(1, c)) == result.end()) {
                letter = std::string(1, c);
                break;
            }
        result.push_back(letter);
    }
    return result;
}

}   // namespace

Look look_of(const World& world, const Group& group, std::size_t number) {
    Look look;
    look.colour = spare_colours[number % spare_colours.size()];
    if (group.barrier_id >= 0)
        if (const auto& colour = world.barriers()[static_cast<std::size_t>(group.barrier_id)].colour)
            look.colour = fmt::format("#{:02x}{:02x}{:02x}", colour->red, colour->green, colour->blue);
    look.dash = dashes[number % dashes.size()];
    look.hatch = static_cast<int>(number % hatches.size());
    return look;
}

namespace {

// Open lines; of one-way ones arrows tell the way that movers pass.
void draw_lines(Page& page, const Group& group, const Look& look) {
    static constexpr std::array<std::array<int, 2>, 5> ways{{{0, 0}, {0, -1}, {0, 1}, {-1, 0}, {1, 0}}};
    const auto [dx, dy] = ways[static_cast<std::size_t>(group.one_way)];
    for (const Ring& line : group.lines) {
        std::string path;
        for (const Point p : line)
            fmt::format_to(std::back_inserter(path), "{}{:.1f} {:.1f}", path.empty() ? "M" : "L", page.x(p.x),
                           page.y(p.y));
        page.put("<path d=\"{}\" fill=\"none\" stroke=\"#fffdf5\" stroke-width=\"6\"/>\n", path);
        page.put("<path d=\"{}\" fill=\"none\" stroke=\"{}\" stroke-width=\"3\"/>\n", path, look.colour);
        if (group.one_way == OneWay::none) continue;
        for (std::size_t i = 0; i + 1 < line.size(); ++i) {
            const double x = (page.x(line[i].x) + page.x(line[i + 1].x)) / 2,
                         y = (page.y(line[i].y) + page.y(line[i + 1].y)) / 2;
            page.put("<path d=\"M{} {}L{} {}M{} {}L{} {}L{} {}\" fill=\"none\" stroke=\"{}\" stroke-width=\"2\"/>\n",
                     x - 9 * dx, y - 9 * dy, x + 9 * dx, y + 9 * dy, x + 4 * dx - 4 * dy, y + 4 * dy - 4 * dx,
                     x + 9 * dx, y + 9 * dy, x + 4 * dx + 4 * dy, y + 4 * dy + 4 * dx, look.colour);
        }
    }
}

}   // namespace

void draw_merged(Page& page, const Merge& merge) {
    for (std::size_t g = 0; g < merge.groups.size(); ++g) {
        const Group& group = merge.groups[g];
        const Look look = look_of(page.world, group, g);
        fmt::format_to(std::back_inserter(page.defs),
                       "<pattern id=\"hatch{0}\" width=\"8\" height=\"8\" patternUnits=\"userSpaceOnUse\"><path "
                       "d=\"{1}\" stroke=\"#fffdf5\" stroke-width=\"3\" stroke-opacity=\"0.55\" fill=\"none\"/><path "
                       "d=\"{1}\" stroke=\"{2}\" stroke-width=\"1.4\" fill=\"none\"/></pattern>\n",
                       g, hatches[static_cast<std::size_t>(look.hatch)], look.colour);
        const std::string outline = page.path(group.regions);
        page.put(
            "<path d=\"{}\" fill=\"url(#hatch{})\" fill-opacity=\"0.55\" fill-rule=\"evenodd\" stroke=\"#fffdf5\" "
            "stroke-width=\"4\" stroke-opacity=\"0.8\"/>\n",
            outline, g);
        page.put("<path d=\"{}\" fill=\"none\" stroke=\"{}\" stroke-width=\"2\" stroke-dasharray=\"{}\"/>\n", outline,
                 look.colour, look.dash);
        if (page.show.pieces) {
            std::string pieces;
            for (const Ring& piece : group.pieces) pieces += page.path(piece);
            page.put("<path d=\"{}\" fill=\"none\" stroke=\"{}\" stroke-width=\"1\" stroke-opacity=\"0.9\"/>\n", pieces,
                     look.colour);
        }
        draw_lines(page, group, look);
        for (const Chain& chain : group.chains)   // vertices: a straight run has none
            for (const Point p : chain.points)
                page.put("<rect x=\"{:.1f}\" y=\"{:.1f}\" width=\"4\" height=\"4\" fill=\"#fffdf5\" stroke=\"{}\"/>\n",
                         page.x(p.x) - 2, page.y(p.y) - 2, look.colour);
    }
}

void draw_flags(Page& page) {
    const std::vector<std::string> names = letters(page.world);
    for (int r = 0; r < page.map.rows; ++r)
        for (int c = 0; c < page.map.columns; ++c) {
            const CellSay say = passability(page.world, page.map, c, r, 0);
            if (say.flags_layer < 0 && say.sides_layer < 0) continue;
            const Bounds box = page.map.cell_box(c, r);
            const Ring ring = page.map.cell_ring(c, r);
            const double x = page.x(box.least.x), y = page.y(box.least.y), w = page.map.cell_width * page.scale,
                         h = page.map.cell_height * page.scale;
            std::string text;
            for (std::size_t f = 0; f < names.size(); ++f)
                if ((say.flags >> f & 1) != 0) text += names[f];
            if (say.flags_layer >= 0)
                page.label(x + w / 2, y + h / 2 + 4, text.empty() ? "×" : text, std::clamp(h / 2.4, 7.0, 14.0),
                           "middle", "fill=\"#10243a\" stroke=\"#fffdf5\" stroke-width=\"3\" paint-order=\"stroke\"");
            std::array<std::array<double, 4>, 4> edges{};
            for (std::size_t side = 0; side < 4; ++side) {
                const Point a = ring[side], b = ring[(side + 1) % 4];
                edges[side] = {page.x(a.x), page.y(a.y), page.x(b.x), page.y(b.y)};
            }
            for (std::size_t side = 0; side < 4; ++side) {
                const Passage passage = say.sides.of[side];
                if (passage == Passage::open) continue;
                page.put(
                    "<line x1=\"{}\" y1=\"{}\" x2=\"{}\" y2=\"{}\" stroke=\"#b3261e\" stroke-width=\"3\" "
                    "stroke-dasharray=\"{}\"/>\n",
                    edges[side][0], edges[side][1], edges[side][2], edges[side][3],
                    passage == Passage::shut ? "none" : "5 3");
                page.label((edges[side][0] + edges[side][2]) / 2, (edges[side][1] + edges[side][3]) / 2 + 4,
                           name_of(passage), 9, "middle",
                           "fill=\"#b3261e\" stroke=\"#fffdf5\" stroke-width=\"3\" paint-order=\"stroke\"");
            }
        }
    std::string key = "flags: × = none granted";
    for (std::size_t f = 0; f < names.size(); ++f)
        key += fmt::format(", {} = {}", names[f], page.world.flags()[f].name);
    page.label(page.left + page.width() + page.map.cell_width * page.scale, 40, key, 12, "end");
}

}   // namespace dryground::drawing
