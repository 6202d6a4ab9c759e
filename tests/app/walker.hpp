// A mover's body in a physics engine, in the ground of a map: it is pushed, falls, and rides on what moves.
#pragma once

#include <chipmunk/chipmunk.h>

#include <cmath>
#include <memory>
#include <vector>

#include "dryground/chipmunk.hpp"
#include "dryground/dryground.hpp"

namespace replays {

using namespace dryground;

// A mover's body that cannot turn, in the ground of a map.
class Walker {
public:
    Walker(const World& world, const Map& map, MoverId mover, PointPx at)
        : world_(world), mover_(world.mover(mover)), space_(cpSpaceNew()) {
        ground_ = std::make_unique<chipmunk::Ground>(space_, world, merge(world, map));
        cpSpaceSetIterations(space_, 20);
        cpSpaceSetCollisionSlop(space_, 0.02 / world.per_metre());
        body_ = cpSpaceAddBody(space_, cpBodyNew(1, INFINITY));
        cpBodySetUserData(body_, this);
        // Its velocity is set before contacts are worked out; set later, it would go through walls.
        cpBodySetVelocityUpdateFunc(body_, [](cpBody* body, cpVect, cpFloat, cpFloat) {
            cpBodySetVelocity(body, static_cast<Walker*>(cpBodyGetUserData(body))->wanted_);
        });
        std::vector<cpVect> corners;
        // Routes are for a body a hair narrower than it is; and an engine has a hair of its own.
        for (const Point p : mover_.body.front().outline)
            corners.push_back(cpvmult(chipmunk::to_metres(world, p), 1 - 0.002));
        shape_ = cpSpaceAddShape(
            space_, cpPolyShapeNew(body_, static_cast<int>(corners.size()), corners.data(), cpTransformIdentity, 0));
        cpShapeSetFriction(shape_, 0);
        cpShapeSetFilter(shape_, chipmunk::filter_of(world, mover_.name));
        put(at);
    }
    ~Walker() {
        cpSpaceRemoveShape(space_, shape_);
        cpSpaceRemoveBody(space_, body_);
        cpShapeFree(shape_);
        cpBodyFree(body_);
        lift_.reset();
        lifts_.clear();
        ground_.reset();
        cpSpaceFree(space_);
    }
    Walker(const Walker&) = delete;
    Walker& operator=(const Walker&) = delete;

    void put(PointPx at) {
        cpBodySetPosition(body_, metres(at));
        cpBodySetVelocity(body_, cpvzero);
        cpSpaceReindexShapesForBody(space_, body_);
    }
    [[nodiscard]] PointPx at() const {
        const cpVect p = chipmunk::to_px(world_, cpBodyGetPosition(body_));
        return {p.x, p.y};
    }
    // Goes toward a place as a body that is pushed: what is in the way stops it.
    void toward(PointPx to, double px_a_step) {
        for (int steps = 0; steps < 4000; ++steps) {
            const PointPx now = at();
            const double far = std::hypot(to.x - now.x, to.y - now.y);
            if (far < 0.001) return;
            const double go = std::min(far, px_a_step);
            const cpVect way = cpv((to.x - now.x) / far * go, -(to.y - now.y) / far * go);
            wanted_ = cpvmult(way, 1 / (world_.per_metre() * dt));
            cpSpaceStep(space_, dt);   // first contacts and velocity,
            wanted_ = cpvzero;
            cpSpaceStep(space_, dt);   // then the way
            const PointPx then = at();
            if (std::hypot(then.x - now.x, then.y - now.y) < 0.001) return;   // it is stopped
        }
    }
    // Moves under gravity, with a velocity of px a second, for some time; returns whether it stands.
    bool fall(double vx, double& vy, double gravity) {
        vy += gravity * dt;
        wanted_ = cpv(vx / world_.per_metre(), -vy / world_.per_metre());
        const PointPx before = at();
        cpSpaceStep(space_, dt);
        const double fell = at().y - before.y;
        if (vy > 0 && fell < vy * dt * 0.5) {   // something holds it
            vy = std::max(0.0, fell / dt);
            return true;
        }
        if (vy < 0 && fell > vy * dt * 0.5) vy = 0;   // its head
        return false;
    }
    static constexpr double dt = 1.0 / 480;

    // Puts a moving solid where it is wanted, in place of the one before; nothing: none is there.
    void set_carrier(const Map& map, const Carrier& carrier) {
        lift_.reset();
        if (carrier.object == ObjectId::none) return;
        const Object& object = map.object(carrier.object);
        lift_ = std::make_unique<Lift>(space_, world_, object);
        lift_->put(metres({carrier.at.x - to_px(object.position.x), carrier.at.y - to_px(object.position.y)}));
    }
    // What it stands on goes to a place with it, unless something is in its way.
    void ride(PointPx to, double px_a_step) {
        const PointPx from = at();
        const int steps = static_cast<int>(std::ceil(std::hypot(to.x - from.x, to.y - from.y) / px_a_step));
        const cpVect by = cpvmult(cpvsub(metres(to), metres(from)), 1.0 / std::max(1, steps));
        for (int i = 1; i <= steps; ++i) {
            const PointPx there{from.x + (to.x - from.x) * i / steps, from.y + (to.y - from.y) * i / steps};
            if (to.y > from.y) lift_->put(cpvadd(lift_->at(), by));   // down before it, up behind it
            toward(there, px_a_step);
            if (to.y <= from.y) lift_->put(cpvadd(lift_->at(), by));
        }
    }

    // Moves all lifts to where they are after some time. Returns the velocity of the one it stands on, px a second.
    PointPx move_lifts(const Map& map, double seconds);
    // Returns whether a moving solid presses it into the ground.
    [[nodiscard]] bool is_crushed() const {
        bool crushed = false;
        cpBodyEachArbiter(
            body_,
            [](cpBody*, cpArbiter* arbiter, void* data) {
                for (int i = 0; i < cpArbiterGetCount(arbiter); ++i)
                    if (cpArbiterGetDepth(arbiter, i) < -0.03) *static_cast<bool*>(data) = true;
            },
            &crushed);
        return crushed;
    }

private:
    // A body that the game moves.
    class Lift {
    public:
        Lift(cpSpace* space, const World& world, const Object& object) : space_(space) {
            body_ = cpSpaceAddBody(space, cpBodyNewKinematic());
            constexpr std::int32_t hair = 2;   // as above
            for (const Ring& piece : convex_pieces(grown(object.area, -hair, Corners::box), 8)) {
                std::vector<cpVect> corners;
                for (const Point p : piece) corners.push_back(chipmunk::to_metres(world, p));
                shapes_.push_back(cpSpaceAddShape(space, cpPolyShapeNew(body_, static_cast<int>(corners.size()),
                                                                        corners.data(), cpTransformIdentity, 0)));
                cpShapeSetFriction(shapes_.back(), 0);
            }
        }
        ~Lift() {
            for (cpShape* shape : shapes_) {
                cpSpaceRemoveShape(space_, shape);
                cpShapeFree(shape);
            }
            cpSpaceRemoveBody(space_, body_);
            cpBodyFree(body_);
        }
        Lift(const Lift&) = delete;
        Lift& operator=(const Lift&) = delete;
        void put(cpVect at) {
            cpBodySetPosition(body_, at);
            cpSpaceReindexShapesForBody(space_, body_);
        }
        [[nodiscard]] cpVect at() const { return cpBodyGetPosition(body_); }
        void go(cpVect velocity) { cpBodySetVelocity(body_, velocity); }

    private:
        cpSpace* space_;
        cpBody* body_;
        std::vector<cpShape*> shapes_;
    };

    [[nodiscard]] cpVect metres(PointPx p) const { return cpv(p.x / world_.per_metre(), -p.y / world_.per_metre()); }

    const World& world_;
    const Mover& mover_;
    cpSpace* space_;
    std::unique_ptr<chipmunk::Ground> ground_;
    std::unique_ptr<Lift> lift_;
    std::vector<std::unique_ptr<Lift>> lifts_;
    cpBody* body_ = nullptr;
    cpShape* shape_ = nullptr;
    cpVect wanted_ = cpvzero;
};

// Returns where a lift stands after some time: to and fro along its path, at a pace in px a second; by how much it is
// moved.
inline PointPx moved_after(const World& world, const Object& lift, double seconds, double pace) {
    std::vector<PointPx> path = path_of(world, lift);
    path.insert(path.begin(), {to_px(lift.position.x), to_px(lift.position.y)});
    const PointPx drawn = path.front();
    double length = 0;
    for (std::size_t i = 0; i + 1 < path.size(); ++i)
        length += std::hypot(path[i + 1].x - path[i].x, path[i + 1].y - path[i].y);
    double left = std::fmod(seconds * pace, 2 * length);
    left = std::min(left, 2 * length - left);
    for (std::size_t i = 0; i + 1 < path.size(); ++i) {
        const double leg = std::hypot(path[i + 1].x - path[i].x, path[i + 1].y - path[i].y);
        if (left <= leg && leg > 0)
            return {path[i].x + (path[i + 1].x - path[i].x) * left / leg - drawn.x,
                    path[i].y + (path[i + 1].y - path[i].y) * left / leg - drawn.y};
        left -= leg;
    }
    return {path.back().x - drawn.x, path.back().y - drawn.y};
}

inline PointPx Walker::move_lifts(const Map& map, double seconds) {
    constexpr double pace = 40;
    PointPx carried{};
    std::size_t number = 0;
    for (const Object& object : map.objects) {
        if (world_.kind(object.kind).path.empty()) continue;
        const auto place = [&](double after) {
            const PointPx by = moved_after(world_, object, after, pace);
            return metres(by);
        };
        if (number == lifts_.size()) {
            lifts_.push_back(std::make_unique<Lift>(space_, world_, object));
            lifts_.back()->put(place(seconds));
        }
        Lift& lift = *lifts_[number++];
        const cpVect velocity = cpvmult(cpvsub(place(seconds + dt), lift.at()), 1 / dt);
        lift.go(velocity);
        const Bounds box = *bounds(object.area);
        const PointPx by{lift.at().x * world_.per_metre(), -lift.at().y * world_.per_metre()}, feet = at();
        if (feet.x > to_px(box.least.x) + by.x && feet.x < to_px(box.most.x) + by.x &&
            std::abs(feet.y - to_px(box.least.y) - by.y) < 1)
            carried = {velocity.x * world_.per_metre(), -velocity.y * world_.per_metre()};
    }
    return carried;
}

}   // namespace replays
