// Rules about what tiles' shapes, flags and carves achieve.

#include <fmt/format.h>

#include <algorithm>

#include "../ground/ground_internal.hpp"
#include "rules_internal.hpp"

namespace dryground::check_rules {

namespace {

bool solid(const Shape& shape) {
    return shape.trigger.empty() && shape.fault == ShapeFault::none && !shape.area.empty();
}

// Reports shapes thinner than a px, or equal to another of the tile.
void check_shapes(const TileSet& set, const Tile& tile, Findings& findings) {
    for (std::size_t i = 0; i < tile.shapes.size(); ++i) {
        const Shape& shape = tile.shapes[i];
        const std::string words = fmt::format("{} of tile '{}'", shape.words, tile.name);
        if (const auto fault = line_fault(shape.line)) {
            Finding finding = findings.start(fault->rule, shape.place, thing_of(set, tile), {words, fault->figure});
            finding.hint = fault->hint;
            findings.add(std::move(finding));
        }
        const auto box = bounds(shape.area);
        if (!box) continue;
        const std::int32_t thin = std::min(box->most.x - box->least.x, box->most.y - box->least.y);
        if (thin < steps_per_px) {
            Finding finding = findings.start(Rule::shape_sliver, shape.place, thing_of(set, tile), {words, px(thin)});
            finding.hint =
                Hint{"bodies pass through what is thinner than a step of theirs: make it thicker, or a line", ""};
            findings.add(std::move(finding));
        }
        for (std::size_t j = 0; j < tile.shapes.size(); ++j) {
            const Shape& other = tile.shapes[j];
            if (i == j || shape.barrier != other.barrier || shape.trigger != other.trigger || other.area.empty() ||
                !subtract(shape.area, other.area).empty())
                continue;
            const bool same = subtract(other.area, shape.area).empty();
            if (same && j > i) continue;   // reported once
            findings.add(findings.start(
                Rule::shape_twice, shape.place, thing_of(set, tile),
                {words, same ? "just where" : "inside of", fmt::format("{}{}", other.words, same ? " lies" : "")}));
            break;
        }
    }
}

// Reports flags that no body could use, because the tile is solid all over for each that needs them.
void check_flags(const World& world, const TileSet& set, const Tile& tile, Findings& findings) {
    if (!tile.flags || *tile.flags == 0) return;
    const Regions cell{box_region({0, 0}, {set.cell_width * steps_per_px, set.cell_height * steps_per_px})};
    for (std::size_t f = 0; f < world.flags().size(); ++f) {
        if ((*tile.flags >> f & 1) == 0) continue;
        bool needed = false, open = false;
        for (const Mover& mover : world.movers()) {
            if ((mover.needs >> f & 1) == 0) continue;
            needed = true;
            Regions stops;
            for (const Shape& shape : tile.shapes)
                if (solid(shape) && std::binary_search(mover.stopped_by.begin(), mover.stopped_by.end(), shape.barrier))
                    stops.insert(stops.end(), shape.area.begin(), shape.area.end());
            open = open || !subtract(cell, unite(stops)).empty();
        }
        if (!needed || open) continue;
        Finding finding = findings.start(Rule::flags_against_shapes, tile.place, thing_of(set, tile),
                                         {tile.name, world.flags()[f].name, "is solid all over for"});
        finding.hint = Hint{"take the flag away, or leave room to stand", ""};
        findings.add(std::move(finding));
    }
}

// ---- flags of tiles that are laid over what stops ----

// Returns whether a mover is stopped all over a cell by a tile and by what lies in the layers below it: by what is
// known from the cell alone. Carves of the layers between count.
bool is_closed(const World& world, const Map& map, std::size_t top, std::size_t cell, const Mover& mover) {
    const int c = static_cast<int>(cell) % map.columns, r = static_cast<int>(cell) / map.columns;
    const Regions whole{{map.cell_ring(c, r), {}}};
    Regions stops;
    for (std::size_t l = 0; l <= top; ++l) {
        const Layer& layer = map.layers[l];
        if (!ground::may_count(layer) || layer.holds_objects || layer.storey != map.layers[top].storey) continue;
        const Placed& placed = map.palette[layer.cells[cell]];
        if (placed.tile < 0) continue;
        for (const ground::Part& part : ground::parts_of(world, map, layer, placed, {}).parts) {   // carves first
            const Regions area = moved(part.area, map.corner(c, r));
            if (!part.adds)   // of any barrier: rather too open than reported without need
                stops = subtract(stops, area);
            else if (std::binary_search(mover.stopped_by.begin(), mover.stopped_by.end(), part.barrier))
                stops = unite(stops, area);
        }
    }
    return subtract(whole, stops).empty();
}

// Reports a layer's cells of one tile that grants flags, if no mover that needs one of them can stand in any: cells
// with the same tiles below are alike, and handled together.
void check_laid(const World& world, const Map& map, std::size_t l, std::uint32_t number, FlagSet needed,
                Findings& findings) {
    const Layer& layer = map.layers[l];
    const Tile& tile = world.tile(map.palette[number]);
    std::map<std::vector<std::uint32_t>, bool> known;
    std::size_t cells = 0, first = 0;
    for (std::size_t i = 0; i < layer.cells.size(); ++i) {
        if (layer.cells[i] != number) continue;
        std::vector<std::uint32_t> below;
        for (std::size_t b = 0; b < l; ++b)
            if (!map.layers[b].holds_objects) below.push_back(map.layers[b].cells[i]);
        const auto [closed, is_new] = known.try_emplace(std::move(below));
        if (is_new)
            closed->second = std::all_of(world.movers().begin(), world.movers().end(), [&](const Mover& mover) {
                return (mover.needs & needed) == 0 || is_closed(world, map, l, i, mover);
            });
        if (!closed->second) return;
        if (cells++ == 0) first = i;
    }
    if (cells == 0) return;
    std::string flag;
    for (std::size_t f = world.flags().size(); f-- > 0;)
        if ((needed >> f & 1) != 0) flag = world.flags()[f].name;
    const int c = static_cast<int>(first) % map.columns, r = static_cast<int>(first) / map.columns;
    Finding finding = findings.start(Rule::flags_against_shapes, map.place_of(layer, {c, r}),
                                     fmt::format("map '{}', layer '{}'", map.name, layer.name),
                                     {tile.name, flag, "lies on ground that stops"});
    finding.map = map.name, finding.layer = layer.name, finding.cell = map.cell({c, r});
    finding.details.push_back(fmt::format("in all {} cells of layer '{}' that have it", cells, layer.name));
    if (!tile.place.file.empty()) finding.related.push_back({tile.place, fmt::format("'{}' is here", tile.name)});
    finding.hint = Hint{"let it carve what lies below", "carves = [{ barrier = \"…\", cell = true }]"};
    findings.add(std::move(finding));
}

void check_laid_flags(const World& world, Findings& findings) {
    FlagSet needed = 0;
    for (const Mover& mover : world.movers()) needed |= mover.needs;
    for (const Map& map : world.maps())
        for (std::size_t l = 1; l < map.layers.size(); ++l) {
            const Layer& layer = map.layers[l];
            if (!ground::may_count(layer) || layer.holds_objects || ground::is_shifted(layer)) continue;
            for (std::uint32_t n = 1; n < std::min(layer.counts.size(), map.palette.size()); ++n) {
                if (layer.counts[n] == 0 || map.palette[n].tile < 0) continue;
                const Tile& tile = world.tile(map.palette[n]);
                if (const FlagSet own = tile.flags.value_or(0) & needed; own != 0 && tile.stands_for == KindId::none)
                    check_laid(world, map, l, n, own, findings);
            }
        }
}

void check_flag_pairs(const World& world, Findings& findings) {
    const std::size_t count = world.flags().size();
    std::vector<std::size_t> granted(count);
    std::vector<std::vector<bool>> differ(count, std::vector<bool>(count));
    for (const TileSet& set : world.tilesets())
        for (const Tile& tile : set.tiles)
            for (std::size_t f = 0; tile.flags && f < count; ++f) {
                const bool has = (*tile.flags >> f & 1) != 0;
                granted[f] += has;
                for (std::size_t g = 0; g < f; ++g) differ[f][g] = differ[f][g] || has != ((*tile.flags >> g & 1) != 0);
            }
    for (std::size_t f = 0; f < count; ++f)
        for (std::size_t g = 0; g < f; ++g)
            if (granted[f] > 1 && !differ[f][g]) {
                Finding finding = findings.start(Rule::flags_always_equal, world.flags()[f].place,
                                                 fmt::format("flag '{}'", world.flags()[f].name),
                                                 {world.flags()[g].name, world.flags()[f].name});
                finding.hint = Hint{"one of them would do", ""};
                findings.add(std::move(finding));
            }
}

void check_barriers(const World& world, Findings& findings) {
    if (world.movers().empty()) return;
    for (const BarrierId id : ids<BarrierId>(world.barriers())) {
        const auto stopped = [id](const Mover& mover) {
            return std::binary_search(mover.stopped_by.begin(), mover.stopped_by.end(), id);
        };
        if (std::any_of(world.movers().begin(), world.movers().end(), stopped)) continue;
        const Barrier& barrier = world.barrier(id);
        Finding finding = findings.start(Rule::barrier_unmet, barrier.place, fmt::format("barrier '{}'", barrier.name),
                                         {barrier.name});
        finding.hint =
            Hint{"let a mover be stopped by it, or remove it", fmt::format("stopped_by = [\"{}\"]", barrier.name)};
        findings.add(std::move(finding));
    }
}

// ---- carves ----

// Returns whether the content of a map's lower layers is known cell by cell: no offsets, no tile beyond its cell, no
// object of the barrier.
bool keeps_to_cells(const World& world, const Map& map, std::size_t below, BarrierId barrier) {
    for (std::size_t l = 0; l < below; ++l) {
        const Layer& layer = map.layers[l];
        if (!ground::may_count(layer)) continue;
        if (ground::is_shifted(layer)) return false;
        for (std::size_t number = 1; number < map.palette.size(); ++number)
            if (number < layer.counts.size() && layer.counts[number] > 0 &&
                (world.tile(map.palette[number]).overhang || world.tile(map.palette[number]).picture))
                return false;
    }
    return std::none_of(map.objects.begin(), map.objects.end(), [&](const Object& object) {
        return object.role == Role::solid && !ground::moves(object) && object.barrier == barrier &&
               object.layer < id_of<LayerId>(below);
    });
}

bool has_barrier(const World& world, const Map& map, const Layer& layer, std::uint32_t number, BarrierId barrier) {
    if (map.palette[number].tile < 0) return false;
    const ground::Parts own = ground::parts_of(world, map, layer, map.palette[number], {});
    return std::any_of(own.parts.begin(), own.parts.end(),
                       [&](const ground::Part& part) { return part.adds && part.barrier == barrier; });
}

struct CarveUse {
    std::size_t cells = 0;
    bool removes = false;
};

// Finds where a tile that carves a barrier is used, and whether anything of that barrier lies below it in any of these
// cells.
CarveUse use_of(const World& world, int set, int tile, BarrierId barrier) {
    CarveUse use;
    for (const Map& map : world.maps())
        for (std::size_t l = 0; l < map.layers.size(); ++l) {
            const Layer& layer = map.layers[l];
            if (!ground::may_count(layer) || layer.holds_objects) continue;
            std::vector<bool> is(map.palette.size());
            for (std::size_t n = 0; n < is.size(); ++n)
                is[n] = map.palette[n].tileset == set && map.palette[n].tile == tile;
            if (std::none_of(is.begin(), is.end(), [](bool b) { return b; })) continue;
            const bool known = keeps_to_cells(world, map, l, barrier);
            for (std::size_t i = 0; i < layer.cells.size(); ++i) {
                if (!is[layer.cells[i]]) continue;
                ++use.cells;
                use.removes = use.removes || !known;
                for (std::size_t below = 0; below < l && !use.removes; ++below) {
                    const Layer& lower = map.layers[below];
                    use.removes = ground::may_count(lower) && !lower.holds_objects && lower.storey == layer.storey &&
                                  has_barrier(world, map, lower, lower.cells[i], barrier);
                }
                if (use.removes) return use;
            }
        }
    return use;
}

void check_carves(const World& world, std::size_t s, std::size_t t, Findings& findings) {
    const TileSet& set = world.tilesets()[s];
    const Tile& tile = set.tiles[t];
    for (const ground::Meaning& carve : ground::meanings_of(tile)) {
        if (carve.adds || carve.barrier == BarrierId::none) continue;
        const CarveUse use = use_of(world, static_cast<int>(s), static_cast<int>(t), carve.barrier);
        if (use.cells == 0 || use.removes) continue;
        Finding finding = findings.start(Rule::carve_nothing, carve.shape->place, thing_of(set, tile),
                                         {tile.name, world.barrier(carve.barrier).name, counted(use.cells, "cell")});
        finding.hint = Hint{"carve a barrier that lies in a layer below, or take the carve out", ""};
        findings.add(std::move(finding));
    }
}

// ---- whether they are used at all ----

void check_unused(const World& world, Findings& findings) {
    std::vector<std::vector<bool>> used;
    for (const TileSet& set : world.tilesets()) used.emplace_back(set.tiles.size());
    for (const Map& map : world.maps())
        for (const Placed& placed : map.palette)
            if (placed.tile >= 0)
                used[static_cast<std::size_t>(placed.tileset)][static_cast<std::size_t>(placed.tile)] = true;
    for (std::size_t s = 0; s < used.size(); ++s)
        for (const Tile& tile : world.tilesets()[s].tiles)
            for (const Reaction& reaction : tile.reacts)
                if (reaction.turns_into >= 0) used[s][static_cast<std::size_t>(reaction.turns_into)] = true;
    for (std::size_t s = 0; s < used.size(); ++s)
        for (std::size_t t = 0; t < used[s].size(); ++t) {
            const Tile& tile = world.tilesets()[s].tiles[t];
            if (!used[s][t] && tile.stands_for == KindId::none && !tile.in_pattern)
                findings.add(
                    findings.start(Rule::tile_unused, tile.place, thing_of(world.tilesets()[s], tile), {tile.name}));
        }
}

}   // namespace

std::optional<LineFault> line_fault(const Ring& line) {
    for (std::size_t i = 2; i < line.size(); ++i) {
        const Point a = line[i - 2], b = line[i - 1], c = line[i];
        const std::int64_t back = (std::int64_t{b.x} - a.x) * (std::int64_t{c.x} - b.x) +
                                  (std::int64_t{b.y} - a.y) * (std::int64_t{c.y} - b.y);
        if (cross(a, b, c) == 0 && back < 0)
            return LineFault{Rule::line_doubles_back, at_px(b), Hint{"take out the point that goes too far", ""}};
    }
    if (line.size() < 4) return std::nullopt;
    const std::int64_t dx = std::int64_t{line.front().x} - line.back().x,
                       dy = std::int64_t{line.front().y} - line.back().y;
    const std::int64_t near = 2 * steps_per_px;
    if ((dx == 0 && dy == 0) || dx * dx + dy * dy > near * near) return std::nullopt;
    return LineFault{Rule::line_ends_near, px(std::max(std::abs(dx), std::abs(dy))),
                     Hint{"end it where it begins", at_px(line.front())}};
}

void check_tile_shapes(const World& world, Findings& findings) {
    for (std::size_t s = 0; s < world.tilesets().size(); ++s)
        for (std::size_t t = 0; t < world.tilesets()[s].tiles.size(); ++t) {
            const TileSet& set = world.tilesets()[s];
            check_shapes(set, set.tiles[t], findings);
            check_flags(world, set, set.tiles[t], findings);
            check_carves(world, s, t, findings);
        }
    check_laid_flags(world, findings);
    check_flag_pairs(world, findings);
    check_barriers(world, findings);
    check_unused(world, findings);
}

}   // namespace dryground::check_rules
