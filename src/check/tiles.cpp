// Rules about tiles and tile sets: unused ones, faults of shapes, reactions that cannot happen.

#include <fmt/format.h>

#include <algorithm>

#include "../ground/ground_internal.hpp"
#include "rules_internal.hpp"

namespace dryground::check_rules {

namespace {

// Reports a fault of a drawn shape, if it has one.
void check_fault(const Shape& shape, const std::string& owner, const std::string& where, Findings& findings) {
    const std::string words = fmt::format("{} of {}", shape.words, owner);
    if (shape.fault == ShapeFault::crosses_itself) {
        Finding finding = findings.start(Rule::shape_crosses_itself, shape.place, where,
                                         {words, px(shape.fault_at.x), px(shape.fault_at.y)});
        finding.hint = Hint{"put its points in order around the outline", ""};
        findings.add(std::move(finding));
    }
    if (shape.fault == ShapeFault::empty) {
        Finding finding = findings.start(Rule::shape_empty, shape.place, where, {words, shape.fault_words});
        finding.hint = Hint{"give it an area, or remove it", ""};
        findings.add(std::move(finding));
    }
}

void check_outside(const TileSet& set, const Tile& tile, const Shape& shape, Findings& findings) {
    const auto box = bounds(shape.area);
    if (!box || tile.overhang || tile.picture || (tile.art && set.sheet && set.sheet->cut)) return;
    const std::int32_t width = set.cell_width * steps_per_px, height = set.cell_height * steps_per_px;
    const std::int32_t out = std::max({-box->least.x, -box->least.y, box->most.x - width, box->most.y - height});
    if (out <= 0) return;
    Finding finding = findings.start(Rule::shape_outside, shape.place, thing_of(set, tile),
                                     {fmt::format("{} of tile '{}'", shape.words, tile.name), px(out)});
    finding.details.push_back(
        fmt::format("the cell is {} x {} px; shapes count from its top-left corner", set.cell_width, set.cell_height));
    if (box->least.x >= width || box->least.y >= height)
        finding.hint = Hint{"was it copied from another place of the sheet and not moved?", ""};
    else
        finding.hint = Hint{"draw it inside the cell, or declare that it is intended", "overhang = true"};
    findings.add(std::move(finding));
}

// Counts where each tile is used: how many cells, and the first of them.
struct Use {
    std::size_t cells = 0;
    std::vector<std::string> maps;
    bool lacks_barrier = false, in_trigger_layer = false;   // somewhere; somewhere by its layer
    Place first_without_barrier;
    std::string thing_without_barrier;
    Cell cell_without_barrier{};
    std::string map_without_barrier, layer_without_barrier;
};

using TileUses = std::vector<std::vector<Use>>;   // by tile set, then tile

TileUses count_uses(const World& world) {
    TileUses uses;
    for (const TileSet& set : world.tilesets()) uses.emplace_back(set.tiles.size());
    for (const Map& map : world.maps())
        for (const Layer& layer : map.layers) {
            if (!ground::may_count(layer) || layer.holds_objects) continue;
            for (int r = 0; r < map.rows; ++r)
                for (int c = 0; c < map.columns; ++c) {
                    const Placed& placed = map.placed(layer, c, r);
                    if (placed.tile < 0) continue;
                    Use& use = uses[static_cast<std::size_t>(placed.tileset)][static_cast<std::size_t>(placed.tile)];
                    ++use.cells;
                    use.in_trigger_layer = use.in_trigger_layer || !layer.trigger.empty();
                    if (use.maps.empty() || use.maps.back() != map.name) use.maps.push_back(map.name);
                    if (layer.barrier != BarrierId::none || !layer.trigger.empty() || use.lacks_barrier) continue;
                    use.lacks_barrier = true;
                    use.first_without_barrier = map.place_of(layer, {c, r});
                    use.thing_without_barrier = fmt::format("map '{}', layer '{}'", map.name, layer.name);
                    use.cell_without_barrier = map.cell({c, r});
                    use.map_without_barrier = map.name;
                    use.layer_without_barrier = layer.name;
                }
        }
    return uses;
}

// What reacts to being entered has to be a trigger: bodies cannot enter anything else.
void check_reactions(const TileSet& set, const Tile& tile, const Use& use, Findings& findings) {
    const auto has_trigger = [](const Shape& shape) { return !shape.trigger.empty(); };
    if (use.in_trigger_layer || std::any_of(tile.shapes.begin(), tile.shapes.end(), has_trigger)) return;
    for (const Reaction& reaction : tile.reacts)
        if (reaction.fires == Fires::enter || reaction.fires == Fires::leave || reaction.fires == Fires::inside) {
            Finding finding = findings.start(Rule::trigger_empty, reaction.place, thing_of(set, tile),
                                             {fmt::format("what tile '{}' reacts with", tile.name)});
            finding.hint = Hint{"give the tile a shape that senses", "shapes = [{ cell = true, trigger = \"…\" }]"};
            findings.add(std::move(finding));
        }
}

void check_use(const TileSet& set, const Tile& tile, const Use& use, Findings& findings) {
    if (use.cells == 0) return;
    if (!tile.decided) {
        Finding finding =
            findings.start(Rule::undecided, tile.place, thing_of(set, tile),
                           {tile.name, fmt::format("{} of {}", counted(use.cells, "cell"), fmt::join(use.maps, ", "))});
        finding.hint =
            Hint{"declare what stops a body here, or that nothing does", "shapes = [\"cell\"], or shapes = []"};
        findings.add(std::move(finding));
    }
    check_reactions(set, tile, use, findings);
    const auto open = std::find_if(tile.shapes.begin(), tile.shapes.end(), [](const Shape& shape) {
        return shape.trigger.empty() && shape.barrier == BarrierId::none && shape.fault == ShapeFault::none;
    });
    if (open == tile.shapes.end() || !use.lacks_barrier) return;
    Finding finding = findings.start(Rule::no_barrier, open->place, thing_of(set, tile),
                                     {fmt::format("{} of tile '{}'", open->words, tile.name)});
    finding.map = use.map_without_barrier;
    finding.layer = use.layer_without_barrier;
    finding.cell = use.cell_without_barrier;
    if (!use.first_without_barrier.file.empty())
        finding.related.push_back(
            {use.first_without_barrier, fmt::format("it is used here, in a layer without a barrier of its own")});
    finding.hint = Hint{"name a barrier of the world on the shape, its tile or the layer", "barrier = \"…\""};
    findings.add(std::move(finding));
}

}   // namespace

void check_tiles(const World& world, Findings& findings) {
    const TileUses uses = count_uses(world);
    for (std::size_t s = 0; s < world.tilesets().size(); ++s) {
        const TileSet& set = world.tilesets()[s];
        for (std::size_t t = 0; t < set.tiles.size(); ++t) {
            const Tile& tile = set.tiles[t];
            const std::string owner = fmt::format("tile '{}'", tile.name);
            for (const ground::Meaning& meaning : ground::meanings_of(tile)) {
                check_fault(*meaning.shape, owner, thing_of(set, tile), findings);
                check_outside(set, tile, *meaning.shape, findings);
            }
            if (set.sheet && set.sheet->width > 0 && tile.art) {
                const auto cells = [](int size, int margin, int cell, int gap) {
                    return (size - margin + gap) / (cell + gap);
                };
                const TileImage art = *image_of(set, tile);
                const int columns = cells(set.sheet->width, set.sheet->margin[0], art.width, set.sheet->gap[0]);
                const int rows = cells(set.sheet->height, set.sheet->margin[1], art.height, set.sheet->gap[1]);
                const auto [column, row] = *tile.art;
                if (column < 0 || row < 0 || column >= columns || row >= rows)
                    findings.add(findings.start(Rule::art_outside,
                                                tile.place_of_art.line > 0 ? tile.place_of_art : tile.place,
                                                thing_of(set, tile),
                                                {tile.name, fmt::format("{}", column), fmt::format("{}", row),
                                                 fmt::format("{}", columns), fmt::format("{}", rows)}));
            }
            check_use(set, tile, uses[s][t], findings);
        }
    }
}

}   // namespace dryground::check_rules
