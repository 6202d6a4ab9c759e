// Bridge to the Bullet physics engine: merged ground raised to static bodies, in three dimensions.
//
// Include it and link DryGround::bullet. All values are metres with y up (raise.hpp): maps lie flat, with movers on a
// floor of the game's own at the base of the storey, or stand upright.
//
//     dg::bullet::smooth_contacts();   // once: balls do not snag inside of meshes
//     const dg::bullet::Ground ground(engine, world, dg::merge(world, map));   // flat, as meshes
//     const dg::bullet::Filter filter = dg::bullet::filter_of(world, "warden");
//     engine.addRigidBody(&ball, filter.group, filter.mask);
//     …
//     if (const auto contact = ground.contact_of(manifold, i)) touches = play.touched(*contact);   // which tile?
//
// Lines have no area and are omitted. Threads: as for Bullet: a world and its content are used by one thread at a time;
// `smooth_contacts` sets a hook shared by all worlds of a program.
#pragma once

#include <BulletCollision/CollisionDispatch/btInternalEdgeUtility.h>
#include <btBulletDynamicsCommon.h>

#include <cmath>
#include <memory>
#include <optional>
#include <stdexcept>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "dryground/contacts.hpp"
#include "dryground/play.hpp"
#include "dryground/raise.hpp"

namespace dryground::bullet {

[[nodiscard]] inline btVector3 vector(const std::array<double, 3>& p) {
    return {static_cast<btScalar>(p[0]), static_cast<btScalar>(p[1]), static_cast<btScalar>(p[2])};
}
[[nodiscard]] inline std::array<double, 3> place(const btVector3& v) { return {v.x(), v.y(), v.z()}; }

// The filter arguments of addRigidBody.
struct Filter {
    int group = 0, mask = 0;
};
[[nodiscard]] inline Filter filter_from(const ContactBits& bits) {
    if ((bits.category | bits.mask) >> 31 != 0)
        throw std::length_error("dryground::bullet: barriers and movers need more than 31 bits");
    return {static_cast<int>(bits.category), static_cast<int>(bits.mask)};
}
// Returns the filter of a mover. Throws std::out_of_range if the world has no such mover.
[[nodiscard]] inline Filter filter_of(const World& world, std::string_view mover) {
    for (std::size_t m = 0; m < world.movers().size(); ++m)
        if (world.movers()[m].name == mover) return filter_from(contact_table(world).movers[m]);
    throw std::out_of_range("dryground::bullet::filter_of: no such mover");
}

// How ground becomes bodies: one triangle mesh for each group, or a hull for each convex piece.
enum class Form { mesh, pieces };

struct Options {
    Pose pose = Pose::flat;
    Form form = Form::mesh;
    std::optional<double> height_px{};        // height; omitted: that of storeys
    double friction = 0.8, restitution = 0;   // for groups whose surfaces define none, or several
    double margin_m = 0.001;                  // around meshes, for shapes other than spheres
};

// The map and group of a body. Valid as long as its Ground.
struct GroupOfMap {
    std::string_view map;
    const Group* group;
};

// Corrects a contact with an edge between two triangles of a Ground's mesh, as if there were no edge. For programs with
// a contact hook of their own; smooth_contacts sets it as the hook.
inline bool smooth_contact(btManifoldPoint& contact, const btCollisionObjectWrapper* a, int part_a, int index_a,
                           const btCollisionObjectWrapper* b, int part_b, int index_b) {
    if (b->getCollisionShape()->getShapeType() == TRIANGLE_SHAPE_PROXYTYPE)
        btAdjustInternalEdgeContacts(contact, b, a, part_b, index_b);
    else if (a->getCollisionShape()->getShapeType() == TRIANGLE_SHAPE_PROXYTYPE)
        btAdjustInternalEdgeContacts(contact, a, b, part_a, index_a);
    return true;
}
inline void smooth_contacts() { gContactAddedCallback = smooth_contact; }

// Static bodies of groups in a world of the engine. Owns bodies and groups: on destruction the bodies are removed from
// the world, and what rested on them wakes up. The engine's world must outlive it. Triggers become bodies that only
// sense.
class GroupBodies {
public:
    // Requires a `frame` for the plane on which the groups were merged.
    GroupBodies(btDiscreteDynamicsWorld& engine, const World& world, const Frame& frame, std::string map,
                std::vector<Group> groups, const std::vector<Surface>& surfaces, const Options& options)
        : engine_(engine), frame_(frame), map_(std::move(map)), groups_(std::move(groups)), options_(options) {
        const ContactTable table = contact_table(world);
        tags_.reserve(groups_.size());   // bodies keep pointers to tags
        for (const Group& group : groups_) {
            tags_.push_back({map_, &group});
            if (group.barrier_id == BarrierId::none && group.trigger.empty())
                throw std::invalid_argument("dryground::bullet: asks for barriers, not for one mover's ground");
            if (group.regions.empty()) continue;
            if (options.form == Form::pieces && group.pieces.empty())
                throw std::invalid_argument("dryground::bullet: Form::pieces asks for ground merged with pieces");
            const ContactBits& bits = group.trigger.empty() ? table.barriers[index(group.barrier_id)] : table.triggers;
            add(group, heights_of(world, group.storey_id, options.height_px), filter_from(bits), surfaces);
        }
    }
    ~GroupBodies() {
        for (const auto& body : bodies_) {
            wake_around(*body);
            engine_.removeRigidBody(body.get());
        }
    }
    GroupBodies(const GroupBodies&) = delete;
    GroupBodies& operator=(const GroupBodies&) = delete;

    [[nodiscard]] const std::vector<std::unique_ptr<btRigidBody>>& bodies() const { return bodies_; }
    [[nodiscard]] std::size_t triangles() const { return triangles_; }
    [[nodiscard]] std::size_t hulls() const { return hulls_; }
    // Returns the map and group of a body of this Ground; null for any other body.
    [[nodiscard]] const GroupOfMap* group_of(const btCollisionObject* body) const {
        for (const auto& own : bodies_)
            if (own.get() == body) return static_cast<const GroupOfMap*>(body->getUserPointer());
        return nullptr;
    }

private:
    void add(const Group& group, const Heights& heights, const Filter& filter, const std::vector<Surface>& surfaces) {
        // Meshes are hollow; sensors are made of hulls, which are not.
        const bool hulls = (options_.form == Form::pieces || !group.trigger.empty()) && !group.pieces.empty();
        btCollisionShape* shape = hulls ? hulls_of(group, heights) : mesh_of(group, heights);
        btRigidBody::btRigidBodyConstructionInfo made(0, nullptr, shape);
        const std::optional<Surface> surface = one_surface(group, surfaces);
        made.m_friction = static_cast<btScalar>(surface && surface->friction ? *surface->friction : options_.friction);
        made.m_restitution =
            static_cast<btScalar>(surface && surface->restitution ? *surface->restitution : options_.restitution);
        bodies_.push_back(std::make_unique<btRigidBody>(made));
        btRigidBody& body = *bodies_.back();
        body.setUserPointer(&tags_.back());
        int flags = body.getCollisionFlags() | btCollisionObject::CF_STATIC_OBJECT;
        if (!hulls) flags |= btCollisionObject::CF_CUSTOM_MATERIAL_CALLBACK;   // for smooth_contact
        if (!group.trigger.empty()) flags |= btCollisionObject::CF_NO_CONTACT_RESPONSE;
        body.setCollisionFlags(flags);
        engine_.addRigidBody(&body, filter.group, filter.mask);
    }

    // The surface of all edges of a group, if they agree.
    static std::optional<Surface> one_surface(const Group& group, const std::vector<Surface>& surfaces) {
        int found = -1;
        for (const Chain& chain : group.chains)
            for (const int surface : chain.surfaces) {
                if (found >= 0 && surface != found) return std::nullopt;
                found = surface;
            }
        if (found < 0) return std::nullopt;
        return surfaces[static_cast<std::size_t>(found)];
    }

    btCollisionShape* mesh_of(const Group& group, const Heights& heights) {
        const Solid solid = raised(group.regions, frame_, heights);
        auto mesh = std::make_unique<btTriangleMesh>(true, false);   // wide indices, three numbers a point
        mesh->preallocateVertices(static_cast<int>(solid.points.size()));
        mesh->preallocateIndices(static_cast<int>(3 * solid.triangles.size()));
        for (const auto& point : solid.points) mesh->findOrAddVertex(vector(point), false);
        for (const auto& [a, b, c] : solid.triangles)
            mesh->addTriangleIndices(static_cast<int>(a), static_cast<int>(b), static_cast<int>(c));
        auto shape = std::make_unique<btBvhTriangleMeshShape>(mesh.get(), true);
        shape->setMargin(static_cast<btScalar>(options_.margin_m));
        auto edges = std::make_unique<btTriangleInfoMap>();
        btGenerateInternalEdgeInfo(shape.get(), edges.get());   // the shape points to it from now on
        triangles_ += solid.triangles.size();
        meshes_.push_back(std::move(mesh));
        edges_.push_back(std::move(edges));
        shapes_.push_back(std::move(shape));
        return shapes_.back().get();
    }

    btCollisionShape* hulls_of(const Group& group, const Heights& heights) {
        auto all = std::make_unique<btCompoundShape>();
        for (const Ring& piece : group.pieces) {
            auto hull = std::make_unique<btConvexHullShape>();
            for (const Point p : piece)
                for (const double height : {heights.base, heights.base + heights.height})
                    hull->addPoint(vector(frame_.place(p, height)), false);
            hull->recalcLocalAabb();
            hull->setMargin(0);   // the hull itself, not one around it
            btTransform still;
            still.setIdentity();
            all->addChildShape(still, hull.get());
            shapes_.push_back(std::move(hull));
        }
        hulls_ += group.pieces.size();
        shapes_.push_back(std::move(all));
        return shapes_.back().get();
    }

    void wake_around(const btRigidBody& body) {
        btDispatcher* dispatcher = engine_.getDispatcher();
        for (int i = 0; i < dispatcher->getNumManifolds(); ++i) {
            const btPersistentManifold* manifold = dispatcher->getManifoldByIndexInternal(i);
            if (manifold->getBody0() == &body) manifold->getBody1()->activate();
            if (manifold->getBody1() == &body) manifold->getBody0()->activate();
        }
    }

    btDiscreteDynamicsWorld& engine_;
    Frame frame_;
    std::string map_;
    std::vector<Group> groups_;   // tags point into it
    Options options_;
    std::vector<GroupOfMap> tags_;
    // Bodies go before their shapes, and those before what they read.
    std::vector<std::unique_ptr<btTriangleMesh>> meshes_;
    std::vector<std::unique_ptr<btTriangleInfoMap>> edges_;
    std::vector<std::unique_ptr<btCollisionShape>> shapes_;
    std::vector<std::unique_ptr<btRigidBody>> bodies_;
    std::size_t triangles_ = 0, hulls_ = 0;
};

// Converts the i-th contact of a manifold between a body of the ground and another one, for Play::touched. Returns
// nothing if neither body belongs to the ground. On top of flat ground the normal is unknown, since it points out of
// the plane of the map.
[[nodiscard]] inline std::optional<Contact> contact_of(const GroupBodies& ground, const Frame& frame,
                                                       const btPersistentManifold& manifold, int i) {
    const GroupOfMap *a = ground.group_of(manifold.getBody0()), *b = ground.group_of(manifold.getBody1());
    if (a == nullptr && b == nullptr) return std::nullopt;
    const btManifoldPoint& point = manifold.getContactPoint(i);
    Contact contact;
    contact.point = frame.px_of(place(a != nullptr ? point.getPositionWorldOnA() : point.getPositionWorldOnB()));
    const btVector3 normal = point.m_normalWorldOnB * btScalar(a != nullptr ? -1 : 1);   // toward the first body
    const double out_of_plane = frame.pose == Pose::flat ? normal.y() : normal.z();
    if (std::abs(out_of_plane) < 0.999) contact.normal = frame.px_of(place(normal));
    contact.storey = (a != nullptr ? a : b)->group->storey_id;
    return contact;
}

// Static bodies of a merged map. A flat isometric map may be merged on either plane.
class Ground {
public:
    Ground(btDiscreteDynamicsWorld& engine, const World& world, const Merge& merge, const Options& options = {})
        : frame_(frame_of(world, world.map(merge.map), options.pose, merge.plane)),
          bodies_(engine, world, frame_, merge.map, merge.groups, merge.surfaces, options) {}

    [[nodiscard]] const Frame& frame() const { return frame_; }
    [[nodiscard]] const GroupBodies& bodies() const { return bodies_; }
    [[nodiscard]] std::optional<Contact> contact_of(const btPersistentManifold& manifold, int i) const {
        return bullet::contact_of(bodies_, frame_, manifold, i);
    }

private:
    Frame frame_;
    GroupBodies bodies_;
};

// The ground of the current map of a Play, chunk by chunk, while it changes. Form::pieces and triggers require a Play
// with pieces.
class LiveGround {
public:
    LiveGround(btDiscreteDynamicsWorld& engine, const Play& play, const Options& options = {})
        : engine_(engine), options_(options) {
        replace_all(play);
    }

    // Replaces chunks after an edit, by its result. Call it between two steps of the engine.
    void replace(const Play& play, const std::vector<std::size_t>& chunks) {
        for (const std::size_t chunk : chunks) {
            auto made = make(play, chunk);   // the new bodies first, so that what rests on both stays at rest
            chunks_[chunk] = std::move(made);
        }
    }
    // Rebuilds everything after Play::go_to or Play::refresh.
    void replace_all(const Play& play) {
        chunks_.clear();
        frame_ = frame_of(play.world(), play.map(), options_.pose, play.merge().plane);
        for (std::size_t chunk = 0; chunk < play.merge().chunks.size(); ++chunk) chunks_.push_back(make(play, chunk));
    }

    [[nodiscard]] const Frame& frame() const { return frame_; }
    [[nodiscard]] std::size_t body_count() const {
        std::size_t count = 0;
        for (const auto& chunk : chunks_) count += chunk->bodies().size();
        return count;
    }
    [[nodiscard]] std::optional<Contact> contact_of(const btPersistentManifold& manifold, int i) const {
        for (const auto& chunk : chunks_)
            if (const auto contact = bullet::contact_of(*chunk, frame_, manifold, i)) return contact;
        return std::nullopt;
    }

private:
    [[nodiscard]] std::unique_ptr<GroupBodies> make(const Play& play, std::size_t chunk) const {
        const ChunkedMerge& merge = play.merge();
        return std::make_unique<GroupBodies>(engine_, play.world(), frame_, merge.map, merge.chunks[chunk].groups,
                                             merge.surfaces, options_);
    }

    btDiscreteDynamicsWorld& engine_;
    Options options_;
    Frame frame_;
    std::vector<std::unique_ptr<GroupBodies>> chunks_;
};

}   // namespace dryground::bullet
