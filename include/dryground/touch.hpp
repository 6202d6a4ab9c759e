// What did it hit? From a contact of a physics engine to the tiles and solid objects that are really there.
//
// An engine tells where a body touches the ground and in which direction it is pushed out; the ground it knows is one
// outline over many tiles. Everything here is in px, y down (`Play::from_metres` turns an engine's places around).
// Threads: plain values.
#pragma once

#include <array>
#include <cstdint>
#include <optional>
#include <span>
#include <string_view>
#include <vector>

#include "dryground/world.hpp"

namespace dryground {

struct Contact {
    PointPx point;                 // where they touch
    PointPx normal{};              // out of the ground, toward the body, of any length; (0, 0): not known
    std::optional<BoxPx> body{};   // around it; with it, all that lies along the body's side is told
    StoreyId storey = StoreyId::ground;
    // Only what stops this mover, whose shape the body has; none: whatever is solid, and a box.
    MoverId mover = MoverId::none;
    double within_px = 1;   // how far from the contact a shape may lie
};

enum class Touched { tile, object, rim };

struct Touch {
    Touched sort = Touched::tile;
    Cell cell{};                        // of the tile; else the one at the contact
    LayerId layer = LayerId::none;      // of the tile or object; none: the rim
    Placed tile{};                      // what stands there
    ObjectId object = ObjectId::none;   // a position in the map's objects
    BarrierId barrier = BarrierId::none;
    int side = 0;   // of the cell that was hit: 0 top, 1 right, 2 bottom, 3 left; of diamonds from the top right on
    double overlap_px = 0;    // how much of the body's side lies along it; 0 without a body
    double distance_px = 0;   // from the contact's point

    // The same thing: whatever is hit of it.
    [[nodiscard]] bool is_same(const Touch& other) const {
        return sort == other.sort && cell == other.cell && layer == other.layer && object == other.object;
    }
};

// A list of its own length without memory of its own: what lies along a body is seldom more.
class Touches {
public:
    static constexpr std::size_t most = 32;

    [[nodiscard]] const Touch* begin() const { return touches_.data(); }
    [[nodiscard]] const Touch* end() const { return touches_.data() + size_; }
    [[nodiscard]] std::size_t size() const { return size_; }
    [[nodiscard]] bool empty() const { return size_ == 0; }
    [[nodiscard]] const Touch& operator[](std::size_t i) const { return touches_[i]; }
    [[nodiscard]] const Touch& front() const { return touches_[0]; }

    // Adds what is new of it, and keeps the greater overlap and the lesser distance of what is not. When it is full,
    // what comes last is left out.
    void add(const Touch& touch);
    // Most overlap first, then the nearest, then by layer from the top, then by row and column.
    void sort();

private:
    std::array<Touch, most> touches_;
    std::size_t size_ = 0;
};

// Turns the touches of each frame into what came, what stays and what went: sliding along a floor tells each of its
// cells once. Allocates nothing once it has held as many.
class TouchTracker {
public:
    enum class Phase { came, stays, went };
    struct Event {
        Phase phase = Phase::came;
        std::uint64_t body = 0;
        int feeler = -1;   // of the mover; -1: the body itself
        Touch touch;
    };

    // During a frame, in any order; the same thing may be told more than once.
    void touch(std::uint64_t body, int feeler, const Touch& touch);
    void touch(std::uint64_t body, int feeler, std::span<const Touch> touches) {
        for (const Touch& one : touches) touch(body, feeler, one);
    }
    // Ends the frame. By body, feeler, layer, row, column; the events are valid until the next call.
    std::span<const Event> end_frame();
    // A body is no more: nothing is told of its touches.
    void forget(std::uint64_t body);

private:
    std::vector<Event> before_, now_, events_;
};

}   // namespace dryground
