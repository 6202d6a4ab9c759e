// Rules about art: sheets that do not divide, pictures that two tiles share or that are whole sheets, shapes that stand
// over nothing.

#include <fmt/format.h>

#include <algorithm>
#include <array>

#include "../model/set_cell_internal.hpp"
#include "rules_internal.hpp"

namespace dryground::check_rules {

namespace {

// Returns how much is left over when a length is cut: margins before the cells and, or not, behind them.
int left_over(int length, int cell, int margin, int gap) {
    const int rest = (length - margin + gap) % (cell + gap);
    const int behind = (length - 2 * margin + gap) % (cell + gap);
    return length < margin + cell ? length : std::min(rest, behind);
}

// Returns width and height of what is cut out of its sheet, px.
std::array<int, 2> art_size(const TileSet& set) {
    return set.sheet->cut.value_or(std::array<int, 2>{set.cell_width, set.cell_height});
}

// Returns what would divide it: cell sizes near the given one, then margins and gaps.
std::string fitting(const TileSet& set) {
    const Sheet& sheet = *set.sheet;
    const auto [width, height] = art_size(set);
    const auto fits = [&](int cell_x, int cell_y, int margin, int gap) {
        return left_over(sheet.width, cell_x, margin, gap) == 0 && left_over(sheet.height, cell_y, margin, gap) == 0;
    };
    std::vector<std::string> ways;
    for (int margin = 0; margin <= 4 && ways.size() < 3; ++margin)
        for (int gap = 0; gap <= 4 && ways.size() < 3; ++gap)
            if (fits(width, height, margin, gap))
                ways.push_back(fmt::format("margin = [{0}, {0}], gap = [{1}, {1}]", margin, gap));
    for (int by = 1; by <= width / 2 && ways.size() < 3; ++by)
        for (const int cell : {width - by, width + by})
            if (width == height && !sheet.cut && ways.size() < 3 && fits(cell, cell, sheet.margin[0], sheet.gap[0]))
                ways.push_back(fmt::format("cell = [{0}, {0}]", cell));
    return fmt::format("{}", fmt::join(ways, ", or "));
}

void check_cut(const TileSet& set, Findings& findings) {
    if (!set.sheet || set.sheet->width == 0) return;
    const Sheet& sheet = *set.sheet;
    const auto [width, height] = art_size(set);
    const int x = left_over(sheet.width, width, sheet.margin[0], sheet.gap[0]),
              y = left_over(sheet.height, height, sheet.margin[1], sheet.gap[1]);
    if (x == 0 && y == 0) return;
    std::vector<std::string> over;
    if (x != 0) over.push_back(fmt::format("{} px are left over across", x));
    if (y != 0) over.push_back(fmt::format("{} px are left over down", y));
    Finding finding = findings.start(
        Rule::sheet_cut, sheet.place.line > 0 ? sheet.place : set.place, fmt::format("tile set '{}'", set.name),
        {sheet.file, fmt::format("{} x {}", sheet.width, sheet.height), fmt::format("{}", fmt::join(over, ", "))});
    finding.details.push_back(fmt::format("{} of {} x {} px, margin [{}, {}], gap [{}, {}]",
                                          sheet.cut ? "art" : "cells", width, height, sheet.margin[0], sheet.margin[1],
                                          sheet.gap[0], sheet.gap[1]));
    if (const std::string ways = fitting(set); !ways.empty()) finding.hint = Hint{"this would fit", ways};
    findings.add(std::move(finding));
}

void check_shared(const TileSet& set, Findings& findings) {
    std::map<std::array<int, 2>, const Tile*> by_art;
    for (const Tile& tile : set.tiles) {
        if (!tile.art) continue;
        const auto [first, is_new] = by_art.emplace(*tile.art, &tile);
        if (is_new) continue;
        Finding finding =
            findings.start(Rule::art_shared, tile.place, thing_of(set, tile), {first->second->name, tile.name});
        if (!first->second->place.file.empty())
            finding.related.push_back({first->second->place, fmt::format("'{}' is here", first->second->name)});
        findings.add(std::move(finding));
    }
}

void check_sizes(const TileSet& set, Findings& findings) {
    std::vector<std::int64_t> areas;
    for (const Tile& tile : set.tiles)
        if (tile.picture && tile.picture->width > 0)
            areas.push_back(std::int64_t{tile.picture->width} * tile.picture->height);
    if (areas.size() < 3) return;
    std::nth_element(areas.begin(), areas.begin() + static_cast<std::ptrdiff_t>(areas.size() / 2), areas.end());
    const std::int64_t median = areas[areas.size() / 2];
    for (const Tile& tile : set.tiles)
        if (const auto& picture = tile.picture;
            picture && picture->width > 0 && std::int64_t{picture->width} * picture->height > 4 * median)
            findings.add(findings.start(Rule::art_odd_size, tile.place, thing_of(set, tile),
                                        {tile.name, fmt::format("{} x {}", picture->width, picture->height),
                                         fmt::format("{}", std::int64_t{picture->width} * picture->height / median)}));
}

// ---- shapes over nothing ----

// Counts px by px, at their middles.
void check_against_art(const World& world, const TileSet& set, const Tile& tile, const LookAt& look,
                       Findings& findings) {
    Regions solid;
    for (const Shape& shape : tile.shapes) {
        if (!shape.trigger.empty() || shape.fault != ShapeFault::none) continue;
        if (shape.whole_cell)
            solid.push_back({detail::set_cell(world, set), {}});
        else
            solid.insert(solid.end(), shape.area.begin(), shape.area.end());
    }
    if (solid.empty()) return;
    // A shape that extends beyond its cell has a finding of its own.
    const Regions cell{box_region({0, 0}, {set.cell_width * steps_per_px, set.cell_height * steps_per_px})};
    if (!tile.overhang && !tile.picture && !subtract(solid, cell).empty()) return;
    const auto art = art_of(set, tile, look);
    if (!art) return;
    const Bounds box = *bounds(solid);
    int covered = 0, bare = 0, hit = 0;
    for (int y = box.least.y / steps_per_px - 1; y <= box.most.y / steps_per_px; ++y)
        for (int x = box.least.x / steps_per_px - 1; x <= box.most.x / steps_per_px; ++x) {
            const Point middle{x * steps_per_px + steps_per_px / 2, y * steps_per_px + steps_per_px / 2};
            if (locate(solid, middle) != Side::inside) continue;
            ++covered;
            (art->shows(x, y) ? hit : bare) += 1;
        }
    int shown = 0;
    for (int y = art->y; y < art->y + art->height; ++y)
        for (int x = art->x; x < art->x + art->width; ++x) shown += art->shows(x, y);
    if (covered == 0 || shown == 0) return;
    // Art that fills its cell shows the surroundings of the thing as well, so its bare part cannot be determined. The
    // same holds for art that stands up from a diamond.
    const bool fills = 100 * shown > 95 * set.cell_width * set.cell_height || detail::has_diamonds(world, set);
    const int left = fills ? 0 : shown - hit;
    const bool over = 100 * bare > 40 * covered;
    if (!over && 100 * left <= 60 * shown) return;
    const auto say = [&](const char* words, int px, int of, const char* whose) {
        return std::vector<std::string>{tile.name, fmt::format(fmt::runtime(words), px),
                                        fmt::format("{}", 100 * px / of), whose};
    };
    Finding finding = findings.start(Rule::shape_against_art, tile.shapes.front().place, thing_of(set, tile),
                                     over ? say("stand over {} px of nothing", bare, covered, "their")
                                          : say("leave {} px of its art bare", left, shown, "its"));
    finding.details.push_back(fmt::format("its art shows {} px; {} of them are solid", shown, hit));
    finding.hint =
        Hint{"was the shape drawn for another picture, turned or not moved? else leave it where the art is", ""};
    findings.add(std::move(finding));
}

}   // namespace

void check_art(const World& world, const LookAt& look, Findings& findings) {
    for (const TileSet& set : world.tilesets()) {
        check_cut(set, findings);
        check_shared(set, findings);
        check_sizes(set, findings);
        for (const Tile& tile : set.tiles) check_against_art(world, set, tile, look, findings);
    }
}

}   // namespace dryground::check_rules
