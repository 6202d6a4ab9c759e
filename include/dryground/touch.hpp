// From a contact of a physics engine to the tiles and solid objects that are hit.
//
// An engine reports where a body touches the ground and in which direction it is pushed out; the ground it knows is one
// outline over many tiles. All values are in px, y down (`Play::from_metres` converts). Threads: plain values.
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
    PointPx point;                 // where body and ground touch
    PointPx normal{};              // out of the ground, toward the body, any length; (0, 0): unknown
    std::optional<BoxPx> body{};   // its box; with it, all along the body's side is reported
    StoreyId storey = StoreyId::ground;
    // Only what stops this mover, whose shape is used; none: all that is solid, and the box.
    MoverId mover = MoverId::none;
    double within_px = 1;   // greatest distance of a shape from the contact
};

enum class Touched { tile, object, rim };

struct Touch {
    Touched sort = Touched::tile;
    Cell cell{};                        // of the tile; else the cell at the contact
    LayerId layer = LayerId::none;      // of the tile or object; none: the rim
    Placed tile{};                      // the content of the cell
    ObjectId object = ObjectId::none;   // of an object
    BarrierId barrier = BarrierId::none;
    int side = 0;   // of the cell that was hit: 0 top, 1 right, 2 bottom, 3 left; of diamonds from the top right on
    double overlap_px = 0;    // length of the body's side along it; 0 without a body
    double distance_px = 0;   // from the contact's point

    // Whether both touch the same thing, whichever part of it.
    [[nodiscard]] bool is_same(const Touch& other) const {
        return sort == other.sort && cell == other.cell && layer == other.layer && object == other.object;
    }
};

// A list of fixed capacity that does not allocate: seldom more lies along a body.
class Touches {
public:
    static constexpr std::size_t most = 32;

    [[nodiscard]] const Touch* begin() const { return touches_.data(); }
    [[nodiscard]] const Touch* end() const { return touches_.data() + size_; }
    [[nodiscard]] std::size_t size() const { return size_; }
    [[nodiscard]] bool empty() const { return size_ == 0; }
    [[nodiscard]] const Touch& operator[](std::size_t i) const { return touches_[i]; }
    [[nodiscard]] const Touch& front() const { return touches_[0]; }

    // Adds a touch; if the same thing is there already, keeps the greater overlap and the smaller distance. Ignored if
    // the list is full.
    void add(const Touch& touch);
    // Sorts by greatest overlap, then nearest, then layer from the top, then row and column.
    void sort();

private:
    std::array<Touch, most> touches_;
    std::size_t size_ = 0;
};

// Compares the touches of each frame with those of the last: what came, what stays, what went. Sliding along a floor
// reports each of its cells once. Does not allocate once it has held as many.
class TouchTracker {
public:
    enum class Phase { came, stays, went };
    struct Event {
        Phase phase = Phase::came;
        std::uint64_t body = 0;
        int feeler = -1;   // of the mover; -1: the body itself
        Touch touch;
    };

    // Call during a frame, in any order; duplicates are allowed.
    void touch(std::uint64_t body, int feeler, const Touch& touch);
    void touch(std::uint64_t body, int feeler, std::span<const Touch> touches) {
        for (const Touch& one : touches) touch(body, feeler, one);
    }
    // Ends the frame. Returns events sorted by body, feeler, layer, row, column, valid until the next call.
    std::span<const Event> end_frame();
    // Forgets a body that no longer exists: no events for its touches.
    void forget(std::uint64_t body);

private:
    std::vector<Event> before_, now_, events_;
};

}   // namespace dryground
