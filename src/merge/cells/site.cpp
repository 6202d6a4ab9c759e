// Around a place on the grid lines, every edge of the outline is a spoke. Sorted by direction, each spoke that leaves
// is followed by the one that comes in across its own solid sector: these two are a turn of the outline. (The same rule
// as in geometry/rings.cpp, so that solids which touch at a corner are parted.)

#include "site_internal.hpp"

#include <algorithm>

namespace dryground::detail {

namespace {

struct Spoke {
    Point way;   // from the site
    SiteEdge edge;
    bool leaves;
    int label;
};

class Site {
public:
    // Adds the part of a grid line that runs from the site to `way`, between what lies on its two sides: the lesser
    // cell (above or left) and the greater. The solid is on the left of the outline.
    void line(SiteEdge::Sort sort, Point way, int lesser, int greater) {
        if ((lesser == uncovered) == (greater == uncovered)) return;
        const bool solid_greater = lesser == uncovered;
        // Below the line: the outline runs to the right. Right of it: upward.
        const bool leaves = sort == SiteEdge::right || sort == SiteEdge::up ? solid_greater : !solid_greater;
        spokes_.push_back({way, {sort, 0, 0}, leaves, solid_greater ? greater : lesser});
    }

    // Adds the inner edges of a cell that start at the site and run into the cell, in the direction of the given signs.
    void cell(std::uint8_t number, const Cover& cover, Point site, int sign_x, int sign_y) {
        for (std::size_t i = 0; i < cover.edges.size(); ++i) {
            const InnerEdge& edge = cover.edges[i];
            const SiteEdge named{SiteEdge::inner, number, static_cast<int>(i)};
            const auto runs_in = [&](Point way) {
                return (sign_x == 0 || way.x * std::int64_t{sign_x} > 0) &&
                       (sign_y == 0 || way.y * std::int64_t{sign_y} > 0);
            };
            if (edge.from == site)
                if (const Point way{edge.to.x - site.x, edge.to.y - site.y}; runs_in(way))
                    spokes_.push_back({way, named, true, edge.label});
            if (edge.to == site)
                if (const Point way{edge.from.x - site.x, edge.from.y - site.y}; runs_in(way))
                    spokes_.push_back({way, named, false, edge.label});
        }
    }

    SiteProgram finish() {
        SiteProgram program;
        std::sort(spokes_.begin(), spokes_.end(),
                  [](const Spoke& s, const Spoke& t) { return sooner_around(s.way, t.way); });
        for (std::size_t s = 0; s < spokes_.size(); ++s) {
            const Spoke &out = spokes_[s], &in = spokes_[s + 1 < spokes_.size() ? s + 1 : 0];
            if (!out.leaves) continue;
            const Turn t = turn(in.way, {0, 0}, out.way);
            SiteTurn made{in.edge, out.edge, out.label, t == Turn::straight, false};
            made.starts_gap = t == Turn::right && leads_later(in.way) && leads_later(out.way);
            const bool goes_on = made.straight && in.edge.sort != SiteEdge::inner && in.label == out.label;
            if (goes_on && spokes_.size() == 2) continue;
            program.turns.push_back(made);
        }
        return program;
    }

private:
    std::vector<Spoke> spokes_;
};

std::vector<std::int32_t> middles(const Cover& cover, CellSide side, std::int32_t length, std::int32_t width,
                                  std::int32_t height) {
    std::vector<std::int32_t> places;
    const bool across = side == top_side || side == bottom_side;
    const std::int32_t line = side == top_side || side == left_side ? 0 : across ? height : width;
    for (const Stretch& stretch : cover.sides[side]) places.insert(places.end(), {stretch.from, stretch.to});
    for (const InnerEdge& edge : cover.edges)
        for (const Point p : {edge.from, edge.to})
            if ((across ? p.y : p.x) == line) places.push_back(across ? p.x : p.y);
    std::erase_if(places, [&](std::int32_t place) { return place <= 0 || place >= length; });
    return places;
}

std::vector<std::int32_t> middles_of_both(const Cover& a, CellSide side_a, const Cover& b, CellSide side_b,
                                          std::int32_t length, std::int32_t width, std::int32_t height) {
    std::vector<std::int32_t> places = middles(a, side_a, length, width, height);
    const std::vector<std::int32_t> more = middles(b, side_b, length, width, height);
    places.insert(places.end(), more.begin(), more.end());
    std::sort(places.begin(), places.end());
    places.erase(std::unique(places.begin(), places.end()), places.end());
    return places;
}

}   // namespace

SiteProgram corner_program(const Cover& top_left, const Cover& top_right, const Cover& bottom_right,
                           const Cover& bottom_left, std::int32_t width, std::int32_t height) {
    Site site;
    site.line(SiteEdge::left, {-1, 0}, top_left.label_before(bottom_side, width),
              bottom_left.label_before(top_side, width));
    site.line(SiteEdge::right, {1, 0}, top_right.label_after(bottom_side, 0), bottom_right.label_after(top_side, 0));
    site.line(SiteEdge::up, {0, -1}, top_left.label_before(right_side, height),
              top_right.label_before(left_side, height));
    site.line(SiteEdge::down, {0, 1}, bottom_left.label_after(right_side, 0), bottom_right.label_after(left_side, 0));
    site.cell(0, top_left, {width, height}, -1, -1);
    site.cell(1, top_right, {0, height}, 1, -1);
    site.cell(2, bottom_right, {0, 0}, 1, 1);
    site.cell(3, bottom_left, {width, 0}, -1, 1);
    return site.finish();
}

std::vector<MiddleSite> across_programs(const Cover& above, const Cover& below, std::int32_t width,
                                        std::int32_t height) {
    std::vector<MiddleSite> sites;
    for (const std::int32_t x : middles_of_both(above, bottom_side, below, top_side, width, width, height)) {
        Site site;
        site.line(SiteEdge::left, {-1, 0}, above.label_before(bottom_side, x), below.label_before(top_side, x));
        site.line(SiteEdge::right, {1, 0}, above.label_after(bottom_side, x), below.label_after(top_side, x));
        site.cell(1, above, {x, height}, 0, -1);
        site.cell(2, below, {x, 0}, 0, 1);
        if (SiteProgram program = site.finish(); !program.turns.empty()) sites.push_back({x, std::move(program)});
    }
    return sites;
}

std::vector<MiddleSite> down_programs(const Cover& left, const Cover& right, std::int32_t width, std::int32_t height) {
    std::vector<MiddleSite> sites;
    for (const std::int32_t y : middles_of_both(left, right_side, right, left_side, height, width, height)) {
        Site site;
        site.line(SiteEdge::up, {0, -1}, left.label_before(right_side, y), right.label_before(left_side, y));
        site.line(SiteEdge::down, {0, 1}, left.label_after(right_side, y), right.label_after(left_side, y));
        site.cell(0, left, {width, y}, -1, 0);
        site.cell(1, right, {0, y}, 1, 0);
        if (SiteProgram program = site.finish(); !program.turns.empty()) sites.push_back({y, std::move(program)});
    }
    return sites;
}

}   // namespace dryground::detail
