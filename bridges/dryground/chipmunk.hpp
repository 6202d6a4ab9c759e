// Bridge to the Chipmunk physics engine: merged ground as static shapes.
//
// Include it with <chipmunk/chipmunk.h> and link DryGround::chipmunk. All values are metres with y up; `to_metres` and
// `to_px` convert positions. Header only; needs only dg::World and dg::Merge.
//
//     dg::chipmunk::Ground ground(space, world, merged);            // chains, for static ground
//     cpShapeSetFilter(warden, dg::chipmunk::filter_of(world, "warden_side"));
//     …
//     if (const auto* touched = dg::chipmunk::group_of(shape)) …    // in a collision handler: touched->group->barrier
//
// Threads: as for Chipmunk: a space and its content are used by one thread at a time.
#pragma once

#include <chipmunk/chipmunk.h>

#include <cmath>
#include <memory>
#include <stdexcept>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "dryground/contacts.hpp"
#include "dryground/merge.hpp"

namespace dryground::chipmunk {

// Converts a place on a map to metres, y up.
[[nodiscard]] inline cpVect to_metres(const World& world, Point p) {
    return cpv(dryground::to_px(p.x) / world.per_metre(), -dryground::to_px(p.y) / world.per_metre());
}

// Converts a place in the space to px, y down.
[[nodiscard]] inline cpVect to_px(const World& world, cpVect metres) {
    return cpv(metres.x * world.per_metre(), -metres.y * world.per_metre());
}

[[nodiscard]] inline cpShapeFilter filter_from(const ContactBits& bits) {
    if ((bits.category | bits.mask) >> 32 != 0)
        throw std::length_error("dryground::chipmunk: barriers and movers need more than Chipmunk's 32 bits");
    return cpShapeFilterNew(CP_NO_GROUP, static_cast<cpBitmask>(bits.category), static_cast<cpBitmask>(bits.mask));
}

// Returns the filter for the shapes of a mover. Throws std::out_of_range if the world has no such mover.
[[nodiscard]] inline cpShapeFilter filter_of(const World& world, std::string_view mover) {
    for (std::size_t m = 0; m < world.movers().size(); ++m)
        if (world.movers()[m].name == mover) return filter_from(contact_table(world).movers[m]);
    throw std::out_of_range("dryground::chipmunk::filter_of: no such mover");
}

enum class Form { chains, pieces };

struct Options {
    Form form = Form::chains;
    double friction = 0.8, restitution = 0;   // for surfaces that define none; pieces always use these
    double radius = 0;                        // rounds and thickens edges, metres
    // The collision type of one-way lines; no other shape may have it. A Ground sets the wildcard handler of the space
    // for it: bodies pass these lines in their direction, and are stopped from the other side.
    cpCollisionType one_way_type = 0x6479;
};

// The map and group of a shape. Valid as long as its Ground.
struct GroupOfMap {
    std::string_view map;
    const Group* group;
};

// Returns the map and group of a shape made by a Ground; null for a shape without user data. Do not call it for shapes
// with user data of another type.
[[nodiscard]] inline const GroupOfMap* group_of(const cpShape* shape) {
    return static_cast<const GroupOfMap*>(cpShapeGetUserData(shape));
}

// Returns whether a one-way line stops a body in this contact: whether it comes from the blocking side.
[[nodiscard]] inline bool one_way_stops(cpArbiter* arbiter) {
    cpShape *line = nullptr, *other = nullptr;
    cpArbiterGetShapes(arbiter, &line, &other);
    const cpVect way = cpvsub(cpSegmentShapeGetB(line), cpSegmentShapeGetA(line));
    return cpvdot(cpArbiterGetNormal(arbiter), cpvperp(way)) > 0;
}

// Static shapes of groups in a space. Owns shapes and groups: on destruction the shapes are removed from the space, and
// what rested on them wakes up. The space must outlive it.
class GroupShapes {
public:
    GroupShapes(cpSpace* space, const World& world, std::string map, std::vector<Group> groups,
                const std::vector<Surface>& surfaces, const Options& options)
        : space_(space), map_(std::move(map)), groups_(std::move(groups)), options_(options) {
        const ContactTable table = contact_table(world);
        tags_.reserve(groups_.size());   // shapes keep pointers to tags
        for (const Group& group : groups_) {
            tags_.push_back({map_, &group});
            if (group.barrier_id == BarrierId::none && group.trigger.empty())
                throw std::invalid_argument("dryground::chipmunk: asks for barriers, not for one mover's ground");
            const bool senses = !group.trigger.empty();
            const cpShapeFilter filter = filter_from(senses ? table.triggers : table.barriers[index(group.barrier_id)]);
            const bool from_pieces = options.form == Form::pieces || senses;
            for (const Chain& chain : group.chains)
                if (!from_pieces || !chain.closed || chain.two_sided || group.one_way != OneWay::none)
                    add_chain(world, chain, surfaces, filter, group.one_way, senses);
            if (from_pieces)
                for (const Ring& piece : group.pieces) add_piece(world, piece, filter, senses);
        }
    }
    ~GroupShapes() {
        for (cpShape* shape : shapes_) {
            cpSpaceRemoveShape(space_, shape);
            cpShapeFree(shape);
        }
    }
    GroupShapes(const GroupShapes&) = delete;
    GroupShapes& operator=(const GroupShapes&) = delete;

    [[nodiscard]] const std::vector<cpShape*>& shapes() const { return shapes_; }

private:
    void add(cpShape* shape, cpShapeFilter filter, const Surface& surface) {
        cpShapeSetFilter(shape, filter);
        cpShapeSetFriction(shape, surface.friction.value_or(options_.friction));
        cpShapeSetElasticity(shape, surface.restitution.value_or(options_.restitution));
        cpShapeSetUserData(shape, &tags_.back());
        cpSpaceAddShape(space_, shape);
        shapes_.push_back(shape);
    }

    // Every edge gets the vertices before and after it, so that a body that slides over a joint meets one smooth edge.
    // Where the edge ends, its own end point is used.
    void add_chain(const World& world, const Chain& chain, const std::vector<Surface>& surfaces, cpShapeFilter filter,
                   OneWay one_way, bool senses) {
        std::vector<cpVect> points;
        for (const Point p : chain.points) points.push_back(to_metres(world, p));
        const std::size_t n = points.size(), edges = chain.closed ? n : n - 1;
        const cpVect before = chain.closed   ? points.back()
                              : chain.before ? to_metres(world, *chain.before)
                                             : points.front(),
                     after = chain.closed  ? points[1]
                             : chain.after ? to_metres(world, *chain.after)
                                           : points.back();
        if (chain.closed) points.push_back(points.front());
        for (std::size_t i = 0; i < edges; ++i) {
            cpShape* edge = cpSegmentShapeNew(cpSpaceGetStaticBody(space_), points[i], points[i + 1], options_.radius);
            cpSegmentShapeSetNeighbors(edge, i == 0 ? before : points[i - 1], i + 1 == edges ? after : points[i + 2]);
            if (one_way != OneWay::none) cpShapeSetCollisionType(edge, options_.one_way_type);
            cpShapeSetSensor(edge, senses ? cpTrue : cpFalse);
            add(edge, filter, surfaces[static_cast<std::size_t>(chain.surfaces[i])]);
        }
    }

    void add_piece(const World& world, const Ring& piece, cpShapeFilter filter, bool senses) {
        std::vector<cpVect> points;
        for (const Point p : piece) points.push_back(to_metres(world, p));
        cpShape* shape = cpPolyShapeNew(cpSpaceGetStaticBody(space_), static_cast<int>(points.size()), points.data(),
                                        cpTransformIdentity, options_.radius);
        cpShapeSetSensor(shape, senses ? cpTrue : cpFalse);
        add(shape, filter, {});
    }

    cpSpace* space_;
    std::string map_;
    std::vector<Group> groups_;   // tags point into it
    Options options_;
    std::vector<GroupOfMap> tags_;
    std::vector<cpShape*> shapes_;
};

// Enables one-way lines in a space; every Ground does.
inline void set_one_way_handler(cpSpace* space, const Options& options) {
    cpSpaceAddWildcardHandler(space, options.one_way_type)->preSolveFunc = [](cpArbiter* arbiter, cpSpace*,
                                                                              cpDataPointer) -> cpBool {
        return one_way_stops(arbiter) ? cpTrue : cpArbiterIgnore(arbiter);
    };
}

// Static shapes of a merged map in a space.
class Ground {
public:
    Ground(cpSpace* space, const World& world, Merge merge, const Options& options = {}) : merge_(std::move(merge)) {
        set_one_way_handler(space, options);
        shapes_ = std::make_unique<GroupShapes>(space, world, merge_.map, merge_.groups, merge_.surfaces, options);
    }

    [[nodiscard]] const std::vector<cpShape*>& shapes() const { return shapes_->shapes(); }
    [[nodiscard]] const Merge& merge() const { return merge_; }

private:
    Merge merge_;
    std::unique_ptr<GroupShapes> shapes_;
};

}   // namespace dryground::chipmunk
