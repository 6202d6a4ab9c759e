// Bridge to the Chipmunk physics engine, for running games: changing ground, what contacts hit, bodies of movers and
// kinds.
//
//     dg::chipmunk::LiveGround ground(space, play);
//     …
//     ground.replace(play, play.set_tile(crate.layer, crate.cell, "").chunks);  // it breaks
//     for (const dg::Touch& touch : dg::chipmunk::touched(play, arbiter)) …      // in a collision handler
//
// Threads: as for Chipmunk: a space and its content are used by one thread at a time.
#pragma once

#include <cmath>
#include <optional>

#include "dryground/chipmunk.hpp"
#include "dryground/play.hpp"

namespace dryground::chipmunk {

// The ground of the current map of a Play, chunk by chunk. Changed chunks replace the old ones; bodies resting
// elsewhere stay asleep. Form::pieces requires a Play with pieces; without them triggers are sensed along their
// outlines only.
class LiveGround {
public:
    LiveGround(cpSpace* space, const Play& play, const Options& options = {}) : space_(space), options_(options) {
        set_one_way_handler(space, options);
        replace_all(play);
    }

    // Replaces chunks after an edit, by its result. Not during a step of the space: use cpSpaceAddPostStepCallback.
    void replace(const Play& play, const std::vector<std::size_t>& chunks) {
        for (const std::size_t chunk : chunks) {
            // The new shapes first, so that what rests on both stays at rest.
            auto made = make(play, chunk);
            chunks_[chunk] = std::move(made);
        }
    }
    // Rebuilds everything after Play::go_to or Play::refresh.
    void replace_all(const Play& play) {
        chunks_.clear();
        for (std::size_t chunk = 0; chunk < play.merge().chunks.size(); ++chunk) chunks_.push_back(make(play, chunk));
    }

    [[nodiscard]] std::size_t shape_count() const {
        std::size_t count = 0;
        for (const auto& chunk : chunks_) count += chunk->shapes().size();
        return count;
    }

private:
    [[nodiscard]] std::unique_ptr<GroupShapes> make(const Play& play, std::size_t chunk) const {
        const ChunkedMerge& merge = play.merge();
        return std::make_unique<GroupShapes>(space_, play.world(), merge.map, merge.chunks[chunk].groups,
                                             merge.surfaces, options_);
    }

    cpSpace* space_;
    Options options_;
    std::vector<std::unique_ptr<GroupShapes>> chunks_;
};

// Returns the box around a shape, in px; on the side facing the ground only as wide as the shape is there: a ball
// touches at a point.
[[nodiscard]] inline BoxPx body_of(const Play& play, const cpShape* shape, cpVect normal) {
    const double px = 1 / play.world().per_metre(), depth = px / 64;
    cpBB box = cpShapeGetBB(shape);
    const auto narrow = [&](cpVect from, cpVect to, cpFloat cpVect::*across, cpFloat& least, cpFloat& most) {
        cpSegmentQueryInfo first, last;
        if (!cpShapeSegmentQuery(shape, from, to, 0, &first) || !cpShapeSegmentQuery(shape, to, from, 0, &last)) return;
        least = first.point.*across, most = last.point.*across;
    };
    if (std::abs(normal.y) > std::abs(normal.x)) {
        const cpFloat y = normal.y > 0 ? box.b + depth : box.t - depth;
        narrow(cpv(box.l - px, y), cpv(box.r + px, y), &cpVect::x, box.l, box.r);
    } else {
        const cpFloat x = normal.x > 0 ? box.l + depth : box.r - depth;
        narrow(cpv(x, box.b - px), cpv(x, box.t + px), &cpVect::y, box.b, box.t);
    }
    const PointPx corner = play.from_metres(box.l, box.t);
    return {corner.x, corner.y, (box.r - box.l) / px, (box.t - box.b) / px};
}

// The contacts of an arbiter between a shape of the ground and another one, for Play::touched; empty if neither shape
// belongs to the ground.
struct Contacts {
    std::array<Contact, 2> contacts{};
    std::size_t count = 0;
    const GroupOfMap* ground = nullptr;   // the touched map and group
    cpShape* body = nullptr;              // the other shape
};
[[nodiscard]] inline Contacts contacts_of(const Play& play, cpArbiter* arbiter) {
    Contacts all;
    cpShape *a = nullptr, *b = nullptr;
    cpArbiterGetShapes(arbiter, &a, &b);
    const bool a_is_ground = cpBodyGetType(cpShapeGetBody(a)) == CP_BODY_TYPE_STATIC && group_of(a) != nullptr;
    if (!a_is_ground && (cpBodyGetType(cpShapeGetBody(b)) != CP_BODY_TYPE_STATIC || group_of(b) == nullptr)) return all;
    all.ground = group_of(a_is_ground ? a : b), all.body = a_is_ground ? b : a;
    // From the first shape to the second, y up.
    const cpVect normal = cpvmult(cpArbiterGetNormal(arbiter), a_is_ground ? 1 : -1);
    const BoxPx body = body_of(play, all.body, normal);
    for (int i = 0; i < cpArbiterGetCount(arbiter) && all.count < all.contacts.size(); ++i) {
        const cpVect at = a_is_ground ? cpArbiterGetPointA(arbiter, i) : cpArbiterGetPointB(arbiter, i);
        Contact& contact = all.contacts[all.count++];
        contact.point = play.from_metres(at.x, at.y);
        contact.normal = {normal.x, -normal.y};
        const bool level = std::abs(normal.y) > std::abs(normal.x);   // else it stands on a corner elsewhere
        const double from = level ? body.x : body.y, along = level ? contact.point.x : contact.point.y;
        if (along > from - 0.25 && along < from + (level ? body.width : body.height) + 0.25) contact.body = body;
        contact.storey = all.ground->group->storey_id;
    }
    return all;
}
// Returns the tiles and objects of the current map of the Play that an arbiter's contacts touch.
[[nodiscard]] inline Touches touched(const Play& play, cpArbiter* arbiter) {
    const Contacts all = contacts_of(play, arbiter);
    return play.touched(std::span(all.contacts.data(), all.count));
}

// Returns the circle of a body or feeler, steps. These are boxes, circles and capsules: what is as wide as high and has
// more corners than a box is a circle. Nothing for other shapes.
struct CircleOfArea {
    double x = 0, y = 0, radius = 0;
};
[[nodiscard]] inline std::optional<CircleOfArea> circle_of(const Regions& area) {
    const Bounds box = *bounds(area);
    const std::int32_t wide = box.most.x - box.least.x, high = box.most.y - box.least.y;
    if (area.size() != 1 || area.front().outline.size() <= 4 || wide != high) return std::nullopt;
    return CircleOfArea{(0.0 + box.least.x + box.most.x) / 2, (0.0 + box.least.y + box.most.y) / 2, wide / 2.0};
}

// Adds the shapes of a mover to a body whose position is that of the mover: first its own, then its feelers, which only
// sense the barriers and movers they name, whether these stop it or not. Circles become circles. The shapes are added
// to the space and owned by the caller. Throws std::out_of_range for an unknown mover.
inline std::vector<cpShape*> add_mover(cpSpace* space, cpBody* body, const World& world, MoverId mover_id) {
    const Mover& mover = world.movers().at(index(mover_id));
    const ContactTable table = contact_table(world);
    std::vector<cpShape*> shapes;
    const auto add = [&](const Regions& area, const cpShapeFilter& filter, bool senses) {
        cpShape* shape = nullptr;
        if (const auto circle = circle_of(area)) {
            const double metre = steps_per_px * world.per_metre();
            shape = cpCircleShapeNew(body, circle->radius / metre, cpv(circle->x / metre, -circle->y / metre));
        } else {
            std::vector<cpVect> points;
            for (const Point p : area.front().outline) points.push_back(to_metres(world, p));
            shape = cpPolyShapeNew(body, static_cast<int>(points.size()), points.data(), cpTransformIdentity, 0);
        }
        cpShapeSetFilter(shape, filter);
        cpShapeSetSensor(shape, senses ? cpTrue : cpFalse);
        shapes.push_back(cpSpaceAddShape(space, shape));
    };
    const ContactBits own = table.movers[index(mover_id)];
    add(mover.body, filter_from(own), false);
    for (const Feeler& feeler : mover.feelers) {
        ContactBits senses;
        for (const BarrierId barrier : feeler.senses) senses.mask |= table.barriers[index(barrier)].category;
        for (const MoverId other : feeler.senses_movers) senses.mask |= table.movers[index(other)].category;
        cpShapeFilter filter = filter_from(senses);
        filter.categories = CP_ALL_CATEGORIES;   // what it names need not be stopped by its mover
        add(feeler.area, filter, true);
    }
    return shapes;
}

// Makes a body for an object of a kind: fixed ones stand still, driven ones are moved by the game, moving ones by the
// engine, without turning. The body is added to the space and owned by the caller.
inline cpBody* add_body(cpSpace* space, const World& world, const Kind& kind, PointPx at, double mass = 1) {
    cpBody* body = kind.motion == Motion::fixed    ? cpBodyNewStatic()
                   : kind.motion == Motion::driven ? cpBodyNewKinematic()
                                                   : cpBodyNew(mass, INFINITY);
    cpBodySetPosition(body, cpv(at.x / world.per_metre(), -at.y / world.per_metre()));
    return cpSpaceAddBody(space, body);
}

// Adds the shapes of a solid to a body whose position is that of the solid: for moving ones (lifts, rafts, crates),
// which are not part of merged ground. They stop the movers that its barrier stops. Lines have no shapes. The shapes
// are added to the space and owned by the caller. Throws std::out_of_range for a solid without a barrier.
inline std::vector<cpShape*> add_solid(cpSpace* space, cpBody* body, const World& world, const Object& solid) {
    const cpShapeFilter filter = filter_from(contact_table(world).barriers.at(index(solid.barrier)));
    std::vector<cpShape*> shapes;
    for (const Ring& piece : convex_pieces(solid.area, world.merging().most_vertices)) {
        std::vector<cpVect> points;
        for (const Point p : piece)
            points.push_back(to_metres(world, {p.x - solid.position.x, p.y - solid.position.y}));
        cpShape* shape = cpPolyShapeNew(body, static_cast<int>(points.size()), points.data(), cpTransformIdentity, 0);
        cpShapeSetFilter(shape, filter);
        shapes.push_back(cpSpaceAddShape(space, shape));
    }
    return shapes;
}

}   // namespace dryground::chipmunk
