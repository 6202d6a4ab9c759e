// What a step of a physics engine takes on merged ground, beside one box per tile.
#include <chipmunk/chipmunk.h>
#include <fmt/format.h>
#include <dryground/chipmunk.hpp>

#include "caves.hpp"
#include "timing.hpp"
#include "works.hpp"

namespace bench {

using namespace dryground;

namespace {

// A space with bodies that fall in the open cells of a cave, on chains or on a box for each tile.
class Cave {
public:
    Cave(const World& world, bool merged) : space_(cpSpaceNew()) {
        cpSpaceSetGravity(space_, cpv(0, -10));
        cpSpaceSetCollisionSlop(space_, 0.005);
        const Map& map = world.maps()[0];
        if (merged)
            ground_ = std::make_unique<chipmunk::Ground>(space_, world, merge(world, map));
        else
            for (const Region& tile : tile_polygons(world)) {
                std::vector<cpVect> points;
                for (const Point p : tile.outline) points.push_back(chipmunk::to_metres(world, p));
                cpShape* box = cpPolyShapeNew(cpSpaceGetStaticBody(space_), static_cast<int>(points.size()),
                                              points.data(), cpTransformIdentity, 0);
                cpShapeSetFriction(box, 0.8);
                shapes_.push_back(cpSpaceAddShape(space_, box));
            }
        unsigned chance = 7;
        for (int i = 0; i < 1000;) {
            chance = chance * 1664525 + 1013904223;
            const int c = static_cast<int>((chance >> 8) % static_cast<unsigned>(map.columns)),
                      r = static_cast<int>((chance >> 20) % static_cast<unsigned>(map.rows));
            if (map.placed(map.layers[0], c, r).tile >= 0) continue;
            cpBody* body = cpSpaceAddBody(space_, cpBodyNew(1, cpMomentForBox(1, 0.6, 0.8)));
            cpBodySetPosition(body, cpv(c + 0.5, -r - 0.5));
            cpBodySetVelocity(body, cpv(i % 7 - 3, 0));
            shapes_.push_back(cpSpaceAddShape(space_, cpBoxShapeNew(body, 0.6, 0.8, 0)));
            cpShapeSetFriction(shapes_.back(), 0.3);
            bodies_.push_back(body);
            ++i;
        }
    }
    ~Cave() {
        ground_.reset();
        for (cpShape* shape : shapes_) cpSpaceRemoveShape(space_, shape), cpShapeFree(shape);
        for (cpBody* body : bodies_) cpSpaceRemoveBody(space_, body), cpBodyFree(body);
        cpSpaceFree(space_);
    }
    Cave(const Cave&) = delete;
    Cave& operator=(const Cave&) = delete;

    void step() { cpSpaceStep(space_, 1.0 / 60); }
    [[nodiscard]] std::size_t ground_shapes() const {
        return ground_ ? ground_->shapes().size() : shapes_.size() - bodies_.size();
    }

private:
    cpSpace* space_;
    std::unique_ptr<chipmunk::Ground> ground_;
    std::vector<cpShape*> shapes_;
    std::vector<cpBody*> bodies_;
};

}   // namespace

void measure_physics(const Settings& settings, const Tell& tell) {
    for (const Tiles tiles : {Tiles::full, Tiles::mixed}) {
        const std::string work = "physics step",
                          input =
                              fmt::format("{} 256, 1000 bodies", tiles == Tiles::full ? "caves full" : "caves mixed");
        if (!wanted(settings, work, input)) continue;
        const World world = cave_world(256, tiles, 7);
        Cave chains(world, true), boxes(world, false);
        const auto second = [](Cave& cave) {
            return [&cave] {
                for (int i = 0; i < 60; ++i) cave.step();
            };
        };
        const std::vector<double> times = alternate({second(chains), second(boxes)});
        tell({.work = work,
              .input = input,
              .seconds = times[0] / 60,
              .peers = {{"a box per tile", times[1] / 60}},
              .note = fmt::format("{} edges, {} boxes", chains.ground_shapes(), boxes.ground_shapes())});
    }
}

}   // namespace bench
