// Inside the play room: what bodies can enter, and which of these each body is inside.
#pragma once

#include <algorithm>
#include <tuple>
#include <vector>

#include "dryground/triggers.hpp"
#include "parts_internal.hpp"

namespace dryground::play {

// What a body is inside: an object, a tile of a layer, or all that senses in a layer.
struct Inside {
    std::uint64_t body = 0;
    ObjectId object = ObjectId::none;
    LayerId layer = LayerId::none;
    Cell cell{};
    MoverId mover = MoverId::none;
    double waits_s = 0;      // until what fires repeatedly fires again
    bool of_layer = false;   // it is the layer's own trigger, and no tile of it
    [[nodiscard]] auto key() const { return std::tuple(body, object, layer, of_layer, cell.row, cell.column); }
};

// Objects that something can set off by blocks of the map, tiles that react by their numbers.
class Sensors {
public:
    explicit Sensors(const Play& play) : play_(play) {}

    void begin_map();
    void learn_tiles();   // of the numbers that the palette has got since
    [[nodiscard]] bool any_tile() const { return any_tile_; }

    // Adds what a body is inside to a list.
    void find(const BodyNow& body, std::vector<Inside>& into) const;
    // Returns the cell that holds a body's middle; for movers that step, their position.
    [[nodiscard]] Cell cell_of(const BodyNow& body) const { return place(body, true).cell; }
    // Returns whether a cell of a layer has a part of the layer's own trigger.
    [[nodiscard]] bool is_of_layer(LayerId layer, Cell cell) const;
    // Calls action(object's number) for each whose box overlaps one.
    template <class Action>
    void each_in(const Bounds& box, Action action) const {
        each_sensor(box, [&](const Sensor& sensor) { action(sensor.object); });
    }

private:
    struct Sensor {
        ObjectId object;
        StoreyId storey;
        bool comes_and_goes;   // with facts
        std::uint64_t by;      // movers, a bit each
        Bounds box;
        std::vector<Ring> pieces;   // convex
    };
    struct TileSensor {             // of a number of the palette, in a layer
        bool senses = false;        // the tile reacts, gives something or leads somewhere
        bool of_layer = false;      // its pieces are part of the layer's own trigger
        std::vector<Ring> pieces;   // convex, from the cell's corner; none: it is the cell that is entered
    };
    struct LayerSensors {
        std::vector<TileSensor> tiles;
        Bounds reach{{0, 0}, {0, 0}};   // how far pieces reach out of their cell's box
    };
    struct Placed {
        const Mover* mover;
        Vec at;
        Bounds box;
        Cell cell;
    };
    [[nodiscard]] Placed place(const BodyNow& body, bool with_cell) const;
    [[nodiscard]] static bool steps(const Placed& placed) { return placed.mover->moves == Moves::steps; }
    [[nodiscard]] bool overlaps(const Placed& placed, const std::vector<Ring>& pieces, Vec at) const;
    void find_tiles(const BodyNow& body, const Placed& placed, std::vector<Inside>& into) const;

    template <class Action>
    void each_sensor(const Bounds& box, Action action) const {
        near_.each_near(box, [&](std::size_t i) {
            const Sensor& sensor = sensors_[i];   // touching is no overlap
            if (sensor.box.least.x < box.most.x && box.least.x < sensor.box.most.x && sensor.box.least.y < box.most.y &&
                box.least.y < sensor.box.most.y)
                action(sensor);
        });
    }

    void learn(LayerSensors& layer, const dryground::Placed& placed, const Layer& of);

    const Play& play_;
    std::vector<Sensor> sensors_;
    detail::BoxIndex near_;
    std::vector<LayerSensors> layers_;
    bool any_tile_ = false;
};

}   // namespace dryground::play
