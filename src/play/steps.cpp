// Steps from cell to cell, and straight ways of bodies.

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <stdexcept>
#include <utility>

#include "parts_internal.hpp"

namespace dryground {

namespace {

using play::Vec;
using play::vec;

bool stops(const Mover& mover, BarrierId barrier) {
    return std::binary_search(mover.stopped_by.begin(), mover.stopped_by.end(), barrier);
}

Bounds box_around(std::span<const Point> ring, Vec a, Vec b) {
    Vec least{1e300, 1e300}, most{-1e300, -1e300};
    for (const Point p : ring)
        for (const Vec at : {a, b}) {
            const Vec q = vec(p) + at;
            least = {std::min(least.x, q.x), std::min(least.y, q.y)},
            most = {std::max(most.x, q.x), std::max(most.y, q.y)};
        }
    return play::whole_box(least, most);
}

// Returns how far a body comes on its way before a line stops it; 2 if none does. What stops from one side only, if
// that is not (0, 0), stops a body that first touches it from there. A body in a line that stops both ways is stopped
// only where its middle would get across it; in another one, nowhere.
double free_before_line(std::span<const Point> ends, Vec at, Vec stops_from, const Ring& body, Vec start, Vec way) {
    const bool both_ways = stops_from.x == 0 && stops_from.y == 0;
    if (play::first_overlap(body, start, {0, 0}, ends, at) > 0) {
        play::Faces faces{stops_from};
        const double free = play::first_overlap(body, start, way, ends, at, &faces);
        return both_ways || faces.by > 1e-9 ? free : 2;
    }
    const Bounds box = detail::box_around(body);
    const Vec middle = start + (vec(box.least) + vec(box.most)) * 0.5;
    return both_ways ? play::crossing_at(middle, way, ends, at) : 2;
}

double free_before(const play::StandingPiece& piece, const Ring& body, Vec start, Vec way) {
    const std::span<const Point> points = piece.piece->points;
    if (!piece.piece->is_line()) return play::first_overlap(body, start, way, points, vec(piece.at));
    return free_before_line(points, vec(piece.at), play::stopped_side(*piece.piece), body, start, way);
}

// Returns the side of a cell that leads to its neighbour, by how columns and rows differ: as in Sides.
int side_toward(int dc, int dr) { return dr < 0 ? 0 : dc > 0 ? 1 : dr > 0 ? 2 : 3; }

}   // namespace

const Mover& play::mover_of(const World& world, MoverId mover) {
    if (mover == MoverId::none || index(mover) >= world.movers().size())
        throw std::out_of_range(fmt::format("dryground::Play: the world has no mover {}", static_cast<int>(mover)));
    return world.mover(mover);
}

bool Play::may_step(MoverId mover_id, Cell from, Cell to, StoreyId storey, Diagonal corners) const {
    const Mover& mover = play::mover_of(world(), mover_id);
    const int dc = to.column - from.column, dr = to.row - from.row;
    if (dc == 0 && dr == 0) return true;
    if (std::abs(dc) > 1 || std::abs(dr) > 1 || !has(to)) return false;
    const auto middle = [&](Cell cell) {
        const PointPx p = middle_of(cell);
        return Vec{p.x * steps_per_px, p.y * steps_per_px};
    };
    const auto may_stand = [&](Cell cell) {
        if (!has(cell) || (mover.needs != 0 && (says(cell, storey).flags & mover.needs) == 0)) return false;
        const Vec at = middle(cell);
        const Ring& body = mover.body.front().outline;
        bool free = true;
        parts_->solids->each_near(box_around(body, at, at), storey, [&](const play::StandingPiece& piece) {
            if (free && stops(mover, piece.barrier) && !piece.piece->is_line())
                free = play::first_overlap(body, at, {0, 0}, piece.piece->points, vec(piece.at)) > 0;
        });
        return free;
    };
    const auto passes = [&](Cell a, Cell b) {   // beside each other
        const int side = side_toward(b.column - a.column, b.row - a.row);
        const Passage leave = says(a, storey).sides.of[static_cast<std::size_t>(side)],
                      enter = says(b, storey).sides.of[static_cast<std::size_t>((side + 2) % 4)];
        if ((leave != Passage::open && leave != Passage::out) || (enter != Passage::open && enter != Passage::in))
            return false;
        const Vec start = middle(a), end = middle(b);
        const Ring& body = mover.body.front().outline;
        bool free = true;
        parts_->solids->each_near(box_around(body, start, end), storey, [&](const play::StandingPiece& piece) {
            if (free && piece.piece->is_line() && stops(mover, piece.barrier))
                free = free_before(piece, body, start, end - start) >= 1;
        });
        return free;
    };
    if (!may_stand(to)) return false;
    if (dc == 0 || dr == 0) return passes(from, to);
    if (corners == Diagonal::never) return false;
    if (corners == Diagonal::always) return true;
    const auto by = [&](Cell corner) { return may_stand(corner) && passes(from, corner) && passes(corner, to); };
    const bool across = by({to.column, from.row}), down = by({from.column, to.row});
    return corners == Diagonal::if_both_free ? across && down : across || down;
}

std::optional<Route> Play::route(MoverId mover_id, PointPx from, PointPx to, StoreyId storey) const {
    static const std::vector<travel::Target> none;
    (void)play::mover_of(world(), mover_id);
    const std::lock_guard lock(parts_->ways_asked);
    auto& [ways, changed] = parts_->ways[mover_id];
    const travel::WaysOf of{world(), map(), mover_id, parts_->done.facts, none, nullptr, {}};
    if (!ways)
        ways = travel::ways_of(of);
    else
        travel::renew(ways, of, std::exchange(changed, {}));
    return travel::way_between(*ways, mover_id, {map_id(), storey, from}, {map_id(), storey, to});
}

Blocked Play::blocked(MoverId mover_id, PointPx from, PointPx to, StoreyId storey) const {
    const Mover& mover = play::mover_of(world(), mover_id);
    const Ring& body = mover.body.front().outline;
    const Vec start{from.x * steps_per_px, from.y * steps_per_px}, end{to.x * steps_per_px, to.y * steps_per_px},
        way = end - start;
    Blocked result;
    result.place = to;
    double first = 1;
    const auto take = [&](double at, Blocked::By by) {
        if (at >= first && (at > first || result)) return false;
        if (at >= 1) return false;
        first = at;
        result.by = by;
        return true;
    };
    const Bounds box = box_around(body, start, end);
    parts_->solids->each_near(box, storey, [&](const play::StandingPiece& piece) {
        if (!stops(mover, piece.barrier)) return;
        const double at = free_before(piece, body, start, way);
        using By = Blocked::By;
        if (!take(at, piece.sort == Touched::tile ? By::tile : piece.sort == Touched::object ? By::object : By::rim))
            return;
        Touch& touch = result.touch;
        touch = {};
        touch.sort = piece.sort;
        touch.layer = piece.layer, touch.object = piece.object, touch.barrier = piece.barrier;
        touch.cell = map().cell({piece.column, piece.row});
        if (piece.sort == Touched::tile) touch.tile = map().placed(map().layer(piece.layer), piece.column, piece.row);
        touch.side = play::side_of(map(), way * -1);
        if (piece.sort != Touched::tile) {   // where the body meets it
            const Vec met = play::nearest(piece.piece->points, vec(piece.at), start + way * at);
            touch.cell = cell_at({met.x / steps_per_px, met.y / steps_per_px});
        }
        result.cell = touch.cell;
    });
    // Lists cells that it may not enter, and sides that it may not pass.
    const auto [c0, r0, c1, r1] = map().cells_near(box);
    for (int r = r0; r <= r1; ++r)
        for (int c = c0; c <= c1; ++c) {
            const Cell cell = map().cell({c, r});
            const Passability say = says(cell, storey);
            const bool closed = mover.needs != 0 && (say.flags & mover.needs) == 0;
            if (!closed && say.sides_layer == LayerId::none) continue;
            const std::array<Point, 4> ring{map().corner(c, r), map().corner(c + 1, r), map().corner(c + 1, r + 1),
                                            map().corner(c, r + 1)};
            if (closed && take(play::first_overlap(body, start, way, ring, {0, 0}), Blocked::By::flags))
                result.cell = cell, result.touch = {};
            for (std::size_t side = 0; side < 4; ++side) {
                const Passage passage = say.sides.of[side];
                if (passage == Passage::open) continue;
                const std::array<Point, 2> line{ring[side], ring[(side + 1) % 4]};
                const Vec along = vec(line[1]) - vec(line[0]);
                const Vec into_cell{-along.y, along.x};
                const Vec stops_from = passage == Passage::shut ? Vec{} : into_cell * (passage == Passage::in ? 1 : -1);
                if (take(free_before_line(line, {0, 0}, stops_from, body, start, way), Blocked::By::side))
                    result.cell = cell, result.touch = {};
            }
        }
    result.at = first;
    result.place = {from.x + (to.x - from.x) * first, from.y + (to.y - from.y) * first};
    return result;
}

}   // namespace dryground
