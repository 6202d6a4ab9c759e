#include "solids_internal.hpp"

#include <algorithm>

#include "../model/orientation_internal.hpp"

namespace dryground::play {

namespace {

Bounds box_of(std::span<const Point> points) {
    Bounds box{points[0], points[0]};
    for (const Point p : points)
        box = {{std::min(box.least.x, p.x), std::min(box.least.y, p.y)},
               {std::max(box.most.x, p.x), std::max(box.most.y, p.y)}};
    return box;
}

Point negated(Point p) { return {-p.x, -p.y}; }

// A tile's shape from the corner of its cell's box.
Regions area_of(const Map& map, const Shape& shape, const Placed& placed) {
    if (shape.whole_cell) return moved(Regions{{map.cell_ring(0, 0), {}}}, negated(map.box_corner(0, 0)));
    return detail::oriented(shape.area, map.cell_width * steps_per_px, map.cell_height * steps_per_px,
                            placed.orientation);
}

void add_area(Pieces& pieces, const Regions& area, int barrier) {
    for (Ring& ring : convex_pieces(area, 64)) {
        const Bounds box = box_of(ring);
        const bool is_box = ring.size() == 4 &&
                            twice_area(ring) == 2 * std::int64_t{box.most.x - box.least.x} * (box.most.y - box.least.y);
        pieces.push_back({std::move(ring), box, barrier, OneWay::none, is_box});
    }
}

void add_line(Pieces& pieces, const Ring& line, int barrier, OneWay one_way) {
    for (std::size_t i = 0; i + 1 < line.size(); ++i) {
        Ring segment{line[i], line[i + 1]};
        const Bounds box = box_of(segment);
        pieces.push_back({std::move(segment), box, barrier, one_way, false});
    }
}

bool holds_all(const std::vector<int>& needs, const Facts& facts) {
    return std::all_of(needs.begin(), needs.end(),
                       [&](int fact) { return std::binary_search(facts.begin(), facts.end(), fact); });
}

}   // namespace

Solids::Solids(const World& world, const Map& map, const Facts& facts) : world_(world), map_(map), facts_(facts) {
    for (const Layer& layer : map.layers)
        is_solid_.push_back(!layer.holds_objects && !layer.decor && layer.trigger.empty() && is_there(layer, facts));
    make_numbers();
    for (const Object& object : map.objects)
        if (!object.carves.empty() && dryground::is_there(map, object, facts))
            carvers_.emplace_back(object.layer, &object);
    for (std::size_t l = 0; l < map.layers.size(); ++l) {
        if (!is_solid_[l]) continue;
        const Layer& layer = map.layers[l];
        for (std::uint32_t n = 1; n < std::min(layer.counts.size(), carves_.size()); ++n) {
            if (!carves_[n] || layer.counts[n] == 0) continue;
            for (std::size_t i = 0; i < layer.cells.size(); ++i)
                if (layer.cells[i] == n)
                    carve_around(static_cast<int>(l), static_cast<int>(i) % map.columns,
                                 static_cast<int>(i) / map.columns);
        }
    }
    for (const auto& [layer, object] : carvers_)
        for (const auto& [barrier, area] : object->carves) {
            const auto [c0, r0, c1, r1] = cells_near(*bounds(area));
            for (int below = 0; below < layer; ++below)
                for (int r = r0; r <= r1; ++r)
                    for (int c = c0; c <= c1; ++c) carve_cell(below, c, r);
        }
    make_objects();
    make_rim();
}

std::array<int, 4> Solids::cells_near(const Bounds& box) const {
    std::array<int, 4> near{map_.columns, map_.rows, -1, -1};
    const auto take = [&](Point p) {
        const auto [c, r] = map_.cell_at(p);
        near = {std::min(near[0], c), std::min(near[1], r), std::max(near[2], c), std::max(near[3], r)};
    };
    // Cells hold two of their sides; what touches the others counts too. The box around a diamond reaches half of it
    // beyond: then its middle is as near.
    const bool diamonds = map_.grid == GridSort::isometric;
    const std::int32_t x = diamonds ? map_.cell_width * (steps_per_px / 2) : 1,
                       y = diamonds ? map_.cell_height * (steps_per_px / 2) : 1;
    take({box.least.x - x, box.least.y - y});
    take({box.most.x + x, box.most.y + y});
    if (diamonds) {
        take({box.most.x + x, box.least.y - y});
        take({box.least.x - x, box.most.y + y});
    }
    return {std::max(near[0], 0), std::max(near[1], 0), std::min(near[2], map_.columns - 1),
            std::min(near[3], map_.rows - 1)};
}

void Solids::make_numbers() {
    for (std::size_t n = by_number_.size(); n < map_.palette.size(); ++n) {
        const Placed& placed = map_.palette[n];
        by_number_.push_back(placed.tile < 0 ? Pieces{} : pieces_of(placed));
        carves_.push_back(placed.tile >= 0 && !world_.tile(placed).carves.empty());
        const std::int32_t wide = map_.cell_width * steps_per_px, high = map_.cell_height * steps_per_px;
        const auto reach_to = [&](const Bounds& box) {
            reach_ = {{std::min(reach_.least.x, box.least.x), std::min(reach_.least.y, box.least.y)},
                      {std::max(reach_.most.x, box.most.x - wide), std::max(reach_.most.y, box.most.y - high)}};
        };
        for (const Piece& piece : by_number_.back()) reach_to(piece.box);
        if (carves_.back())
            for (const Carve& carve : world_.tile(placed).carves)
                if (const auto box = bounds(area_of(map_, carve.shape, placed))) reach_to(*box);
    }
}

Pieces Solids::pieces_of(const Placed& placed) const {
    Pieces pieces;
    const Tile& tile = world_.tile(placed);
    if (tile.stands_for >= 0 || (!tile.needs.empty() && holds_all(tile.needs, facts_))) return pieces;
    for (const Shape& shape : tile.shapes) {
        if (!shape.trigger.empty() || shape.fault != ShapeFault::none) continue;
        if (shape.line.empty())
            add_area(pieces, area_of(map_, shape, placed), shape.barrier);
        else
            add_line(pieces,
                     detail::oriented_line(shape.line, map_.cell_width * steps_per_px, map_.cell_height * steps_per_px,
                                           placed.orientation),
                     shape.barrier, detail::oriented(shape.one_way, placed.orientation));
    }
    return pieces;
}

// What carves of the layers above leave of an area in map steps.
Regions Solids::carved(Regions area, int layer, int storey, int barrier) const {
    const auto box = bounds(area);
    if (!box) return area;
    for (std::size_t above = static_cast<std::size_t>(layer) + 1; above < map_.layers.size(); ++above) {
        const Layer& upper = map_.layers[above];
        if (!is_solid_[above] || upper.storey != storey) continue;
        const Point shift = moved(upper.offset, upper.shape_offset);
        const auto [c0, r0, c1, r1] =
            cells_near({{box->least.x - shift.x - reach_.most.x, box->least.y - shift.y - reach_.most.y},
                        {box->most.x - shift.x - reach_.least.x, box->most.y - shift.y - reach_.least.y}});
        for (int r = r0; r <= r1; ++r)
            for (int c = c0; c <= c1; ++c) {
                const std::uint32_t number = map_.number(upper, c, r);
                if (number == 0 || !carves_[number]) continue;
                for (const Carve& carve : world_.tile(map_.palette[number]).carves)
                    if (carve.barrier == barrier) area = subtract(area, placed_area(map_, upper, carve.shape, c, r));
            }
    }
    for (const auto& [above, object] : carvers_)
        if (above > layer && object->storey == storey)
            for (const auto& [what, where] : object->carves)
                if (what == barrier) area = subtract(area, where);
    return area;
}

void Solids::carve_cell(int l, int column, int row) {
    const Layer& layer = map_.layers[static_cast<std::size_t>(l)];
    if (!is_solid_[static_cast<std::size_t>(l)]) return;
    const std::uint32_t number = map_.number(layer, column, row);
    const Pieces& own = by_number_[number];
    Pieces left;
    bool is_carved = false;
    const Point at = moved(map_.box_corner(column, row), moved(layer.offset, layer.shape_offset));
    for (const Piece& piece : own) {
        if (piece.is_line()) {   // cut by the merge, kept whole here
            left.push_back(piece);
            continue;
        }
        const Regions whole = moved(Regions{{piece.points, {}}}, at);
        const int barrier = piece.barrier >= 0 ? piece.barrier : layer.barrier;
        const Regions rest = carved(whole, l, layer.storey, barrier);
        if (twice_area(rest) == twice_area(whole)) {
            left.push_back(piece);
            continue;
        }
        is_carved = true;
        add_area(left, moved(rest, negated(at)), piece.barrier);
    }
    if (is_carved)
        carved_[key(l, column, row)] = std::move(left);
    else
        carved_.erase(key(l, column, row));
}

// All cells below that what a cell carves may reach.
void Solids::carve_around(int l, int column, int row) {
    const Layer& layer = map_.layers[static_cast<std::size_t>(l)];
    const Bounds cell = map_.cell_box(column, row);
    const Point shift = moved(layer.offset, layer.shape_offset);
    const Bounds box{{cell.least.x + shift.x + 2 * reach_.least.x, cell.least.y + shift.y + 2 * reach_.least.y},
                     {cell.most.x + shift.x + 2 * reach_.most.x, cell.most.y + shift.y + 2 * reach_.most.y}};
    for (int below = 0; below < l; ++below) {
        const Layer& lower = map_.layers[static_cast<std::size_t>(below)];
        if (!is_solid_[static_cast<std::size_t>(below)] || lower.storey != layer.storey) continue;
        const Point back = negated(moved(lower.offset, lower.shape_offset));
        const auto [c0, r0, c1, r1] = cells_near(moved_box(box, back));
        for (int r = r0; r <= r1; ++r)
            for (int c = c0; c <= c1; ++c) carve_cell(below, c, r);
    }
}

void Solids::renew(int layer, int column, int row) {
    make_numbers();
    carved_.erase(key(layer, column, row));
    carve_cell(layer, column, row);
    if (std::any_of(carves_.begin(), carves_.end(), [](bool b) { return b; })) carve_around(layer, column, row);
}

void Solids::make_objects() {
    const std::int32_t ring = std::max(map_.cell_width, map_.cell_height) * steps_per_px;
    for (std::size_t o = 0; o < map_.objects.size(); ++o) {
        const Object& object = map_.objects[o];
        if (object.role != Role::solid || object.fault != ShapeFault::none ||
            !dryground::is_there(map_, object, facts_))
            continue;
        const Layer& layer = map_.layers[static_cast<std::size_t>(object.layer)];
        ObjectPieces made{static_cast<int>(o), object.layer, object.storey, {}, {}};
        Regions area = moved(object.area, layer.shape_offset);
        if (object.hollow)
            area = subtract(Regions{box_region({map_.least().x - ring, map_.least().y - ring},
                                               {map_.most().x + ring, map_.most().y + ring})},
                            area);
        add_area(made.pieces, carved(std::move(area), object.layer, object.storey, object.barrier), object.barrier);
        if (!object.line.empty()) {
            Ring line = object.line;
            for (Point& p : line) p = moved(p, layer.shape_offset);
            add_line(made.pieces, line, object.barrier, layer.one_way);
        }
        if (made.pieces.empty()) continue;
        made.box = made.pieces.front().box;
        for (const Piece& piece : made.pieces)
            made.box = {{std::min(made.box.least.x, piece.box.least.x), std::min(made.box.least.y, piece.box.least.y)},
                        {std::max(made.box.most.x, piece.box.most.x), std::max(made.box.most.y, piece.box.most.y)}};
        objects_.push_back(std::move(made));
    }
    const Point least = map_.least(), most = map_.most();
    block_columns_ = (most.x - least.x) / (8 * map_.cell_width * steps_per_px) + 1;
    block_rows_ = (most.y - least.y) / (8 * map_.cell_height * steps_per_px) + 1;
    blocks_.resize(static_cast<std::size_t>(block_columns_) * static_cast<std::size_t>(block_rows_));
    for (std::size_t i = 0; i < objects_.size(); ++i) {
        const auto [c0, r0] = block_of(objects_[i].box.least);
        const auto [c1, r1] = block_of(objects_[i].box.most);
        for (int r = r0; r <= r1; ++r)
            for (int c = c0; c <= c1; ++c)
                blocks_[static_cast<std::size_t>(r) * static_cast<std::size_t>(block_columns_) +
                        static_cast<std::size_t>(c)]
                    .push_back(i);
    }
}

void Solids::make_rim() {
    if (map_.rim != RimSort::barrier) return;
    const Regions inside{{map_.block_ring(0, 0, map_.columns, map_.rows), {}}},
        outside{{map_.block_ring(-1, -1, map_.columns + 2, map_.rows + 2), {}}};
    add_area(rim_, subtract(outside, inside), map_.rim_barrier);
}

}   // namespace dryground::play
