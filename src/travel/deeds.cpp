// What a mover can touch, take, use or set off on a map, and the positions from which it can.
//
// Idea. Positions from which a body overlaps an area are the area plus the mirrored body (Minkowski sum), in convex
// pieces. Cost: O(pieces) of the areas.

#include "deeds_internal.hpp"

#include <algorithm>

#include "../ground/ground_internal.hpp"
#include "../model/orientation_internal.hpp"

namespace dryground::travel {

namespace {

constexpr std::int32_t hair = steps_per_px;   // as near as a px is touching, of points and of what is solid

// Returns whether a tile does something by itself.
bool acts(const World& world, const Layer& layer, const Placed& placed) {
    const Tile& tile = world.tile(placed);
    return (tile.leads != StoreyId::none && tile.leads != layer.storey) || !tile.gives.empty() ||
           std::any_of(tile.reacts.begin(), tile.reacts.end(),
                       [](const Reaction& reaction) { return !reaction.gives.empty(); });
}

class DeedFinder {
public:
    DeedFinder(const World& world, const Map& map, MoverId mover)
        : world_(world), map_(map), mover_id_(mover), mover_(world.mover(mover)), body_(mover_.body.front().outline) {
        const Bounds box = detail::box_around(body_);
        middle_ = {box.least.x + (box.most.x - box.least.x) / 2, box.least.y + (box.most.y - box.least.y) / 2};
    }

    Deeds find() {
        for (std::size_t o = 0; o < map_.objects.size(); ++o) add_object(id_of<ObjectId>(o));
        for (std::size_t l = 0; l < map_.layers.size(); ++l)
            if (ground::may_count(map_.layers[l]) && !map_.layers[l].holds_objects) {
                add_tiles(id_of<LayerId>(l));
                add_layer(id_of<LayerId>(l));
            }
        return std::move(found_);
    }

private:
    [[nodiscard]] bool steps() const { return mover_.moves == Moves::steps; }

    // Adds positions from which the body overlaps an area; for a mover that steps, the area itself, which has to
    // contain the middle of its cell.
    void add_overlap(Target& target, const Regions& area) const {
        for (Ring& piece : convex_pieces(area, 64)) add_overlap(target, piece);
    }
    void add_overlap(Target& target, const Ring& convex) const {
        if (steps()) {
            target.rings.push_back(convex);
            return;
        }
        target.rings.push_back(sum_with(convex, body_));
    }
    void add_point(Target& target, Point p) const {
        if (steps()) {
            const auto [c, r] = map_.data_cell_at(p);
            target.rings.push_back(map_.cell_ring(c, r));
        } else {
            add_overlap(target, box_ring({p.x - hair, p.y - hair}, {p.x + hair, p.y + hair}));
        }
    }
    // Adds positions of bodies whose middle is in a cell.
    void add_cell(Target& target, int column, int row) const {
        Ring ring = map_.cell_ring(column, row);
        if (!steps())
            for (Point& p : ring) p = {p.x - middle_.x, p.y - middle_.y};
        target.rings.push_back(convex_hull(std::move(ring)));
    }
    // Adds the cell and those beside it, without those past its corners: from there it is used.
    void add_cells_to_use(Target& target, int column, int row) const {
        for (const auto& [dc, dr] :
             {std::pair{0, 0}, std::pair{0, -1}, std::pair{1, 0}, std::pair{0, 1}, std::pair{-1, 0}})
            if (map_.has(column + dc, row + dr)) add_cell(target, column + dc, row + dr);
    }

    void add_object(ObjectId number) {
        const Object& object = map_.object(number);
        const Bounds box = object.area.empty() ? Bounds{object.position, object.position} : *bounds(object.area);
        if (!is_walked(box)) {   // so far outside of the map that nobody gets there
            Deed deed;
            deed.object = number;
            add(std::move(deed), {object.storey, {}});
            return;
        }
        Deed deed;
        deed.object = number;
        deed.fires = object.fires;
        deed.does = std::find(object.by.begin(), object.by.end(), mover_id_) != object.by.end();
        deed.needs = object.needs, deed.gives = object.gives;
        if (object.role == Role::link && object.link.object != ObjectId::none) deed.link = &object.link;
        Target target{object.storey, {}};
        if (object.area.empty()) {
            add_point(target, object.position);
            // An object without an area is touched by nothing.
            if (deed.fires != Fires::start && deed.fires != Fires::defeat) deed.does = false;
        } else if (object.fires == Fires::use) {
            const auto [c0, r0, c1, r1] = map_.cells_near(box);
            for (int r = r0; r <= r1; ++r)
                for (int c = c0; c <= c1; ++c)
                    if (!intersect(object.area, Regions{{map_.cell_ring(c, r), {}}}).empty())
                        add_cells_to_use(target, c, r);
        } else if (object.role == Role::solid) {
            add_overlap(target, grown(object.area, hair, Corners::box));
        } else {
            add_overlap(target, object.area);
        }
        add(std::move(deed), std::move(target));
    }

    // Adds what a layer's own trigger gives, in all its cells as one.
    void add_layer(LayerId number) {
        const Layer& layer = map_.layer(number);
        if (!layer.reaction || layer.reaction->gives.empty()) return;
        const Reaction& reaction = *layer.reaction;
        std::vector<std::vector<ground::Part>> parts;   // by number of the palette
        for (const Placed& placed : map_.palette)
            parts.push_back(placed.tile < 0 ? std::vector<ground::Part>{}
                                            : ground::parts_of(world_, map_, layer, placed, {}).parts);
        Deed deed;
        deed.layer = number, deed.fires = reaction.fires, deed.needs = reaction.needs, deed.gives = reaction.gives;
        deed.does = std::find(reaction.by.begin(), reaction.by.end(), mover_id_) != reaction.by.end();
        Target target{layer.storey, {}};
        for (int r = 0; r < map_.rows; ++r)
            for (int c = 0; c < map_.columns; ++c)
                for (const ground::Part& part : parts[map_.number(layer, c, r)]) {
                    if (part.trigger.empty() || part.area.empty()) continue;
                    if (target.rings.empty()) deed.cell = {c, r};
                    if (reaction.fires == Fires::use)
                        add_cells_to_use(target, c, r);
                    else
                        add_overlap(target, moved(part.area, map_.corner(c, r)));
                }
        if (!target.rings.empty()) add(std::move(deed), std::move(target));
    }

    void add_tiles(LayerId number) {
        const Layer& layer = map_.layer(number);
        std::vector<char> acting;
        for (const Placed& placed : map_.palette)
            acting.push_back(placed.tile >= 0 && acts(world_, layer, placed) ? 1 : 0);
        if (std::find(acting.begin(), acting.end(), 1) == acting.end()) return;
        for (int r = 0; r < map_.rows; ++r)
            for (int c = 0; c < map_.columns; ++c)
                if (acting[map_.number(layer, c, r)] != 0) add_tile(number, c, r);
    }
    void add_tile(LayerId number, int column, int row) {
        const Layer& layer = map_.layer(number);
        const Placed& placed = map_.placed(layer, column, row);
        const Tile& tile = world_.tile(placed);
        Deed deed;
        deed.layer = number, deed.cell = {column, row}, deed.does = true;
        Target inside{layer.storey, {}};
        for (const ground::Part& part : ground::parts_of(world_, map_, layer, placed, {}).parts)
            if (!part.trigger.empty() && !part.area.empty())
                add_overlap(inside, moved(part.area, map_.corner(column, row)));
        if (inside.rings.empty()) add_cell(inside, column, row);
        if (tile.leads != StoreyId::none && tile.leads != layer.storey) {
            deed.leads = tile.leads;
            add(deed, inside);
            deed.leads = StoreyId::none;
        }
        if (!tile.gives.empty()) {
            deed.gives = tile.gives;
            add(deed, inside);
        }
        for (const Reaction& reaction : tile.reacts) {
            if (reaction.gives.empty()) continue;
            deed.fires = reaction.fires, deed.needs = reaction.needs, deed.gives = reaction.gives;
            deed.does = reaction.by.empty() ||
                        std::find(reaction.by.begin(), reaction.by.end(), mover_id_) != reaction.by.end();
            Target target{layer.storey, {}};
            if (reaction.fires == Fires::use)
                add_cells_to_use(target, column, row);
            else if (reaction.fires == Fires::bump)
                add_sides(target, reaction, placed.orientation, column, row);
            else
                target = inside;
            add(deed, std::move(target));
        }
    }
    // Adds the area beside the sides from which it may be bumped, a px thick; for diamonds all around.
    void add_sides(Target& target, const Reaction& reaction, const Orientation& orientation, int column,
                   int row) const {
        Sides asked;
        for (std::size_t i = 0; i < 4; ++i) asked.of[i] = reaction.from[i] ? Passage::open : Passage::shut;
        const Sides sides = detail::oriented(asked, orientation);
        const Bounds box = map_.cell_box(column, row);
        if (map_.grid != GridSort::square) {
            add_overlap(target, grown(Regions{{map_.cell_ring(column, row), {}}}, hair, Corners::box));
            return;
        }
        const std::array<Ring, 4> strips{box_ring({box.least.x, box.least.y - hair}, {box.most.x, box.least.y}),
                                         box_ring({box.most.x, box.least.y}, {box.most.x + hair, box.most.y}),
                                         box_ring({box.least.x, box.most.y}, {box.most.x, box.most.y + hair}),
                                         box_ring({box.least.x - hair, box.least.y}, {box.least.x, box.most.y})};
        for (std::size_t i = 0; i < 4; ++i)
            if (sides.of[i] == Passage::open) add_overlap(target, strips[i]);
    }
    void add(Deed deed, Target target) {
        std::sort(deed.needs.begin(), deed.needs.end());
        found_.deeds.push_back(std::move(deed));
        found_.targets.push_back(std::move(target));
    }

    const World& world_;
    const Map& map_;
    MoverId mover_id_;
    const Mover& mover_;
    const Ring& body_;
    Point middle_{};
    Deeds found_;
};

}   // namespace

bool does_something(const World& world, const Layer& layer, const Placed& placed) {
    return acts(world, layer, placed) || (layer.reaction.has_value() && !layer.reaction->gives.empty());
}

Deeds deeds_of(const World& world, const Map& map, MoverId mover) { return DeedFinder(world, map, mover).find(); }

bool fires(const Deed& deed) { return deed.does || deed.fires == Fires::start || deed.fires == Fires::defeat; }

bool is_there(const Map& map, const Deed& deed, const Facts& facts) {
    return deed.object != ObjectId::none ? dryground::is_there(map, map.object(deed.object), facts)
                                         : dryground::is_there(map.layer(deed.layer), facts);
}

bool all_hold(const Facts& needs, const Facts& held) {
    return std::all_of(needs.begin(), needs.end(),
                       [&](FactId fact) { return std::binary_search(held.begin(), held.end(), fact); });
}

}   // namespace dryground::travel
