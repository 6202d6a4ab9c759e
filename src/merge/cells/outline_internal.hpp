// Inside the merge room: from rows of covered cells to regions.
#pragma once

#include <cstdint>
#include <memory>
#include <span>
#include <vector>

#include "cover_internal.hpp"

namespace dryground::detail {

// Area that extends beyond its cells, in flat coordinates: its outline's vertices off the grid lines, and the edges
// that do not run along them. The covers of the cells it touches refer to these edges by number.
struct SpanningArea {
    std::vector<Spot> spots;
    std::vector<InnerEdge> edges;
};

// A grid of covered cells, row by row. Cells are boxes of flat coordinates.
class CellRows {
public:
    virtual ~CellRows() = default;
    int columns = 0, rows = 0;
    Point corner;                         // of cell (0, 0)
    std::int32_t width = 1, height = 1;   // of a cell
    int base_label = 0;                   // of full cells that are told by a bit alone
    std::uint32_t first_lone = 0;         // covers from this id on belong to one cell each: not worth remembering

    // Visits rows from the first to the last: sets bit c of `full` for a cell that is full with the base label, bit c
    // of `mixed` for any other that is not empty, and ids[c] (an index for `cover`) of the latter. All bits are 0
    // before.
    virtual void fill(int row, std::uint64_t* full, std::uint64_t* mixed, std::uint32_t* ids) = 0;
    // Stays where it is.
    [[nodiscard]] virtual const Cover& cover(std::uint32_t id) const = 0;
    [[nodiscard]] virtual const SpanningArea& whole() const = 0;
};

// A vertex of the outline. The edge to the next vertex has the solid on its left.
struct Vertex {
    static constexpr std::uint32_t most_label = (1U << 28) - 1;
    Point at;   // flat
    std::int32_t next = -1;
    std::uint32_t label : 28 = 0;   // of the edge to the next
    bool straight : 1 = false;      // the outline does not bend here
    bool pinched : 1 = false;       // there are other vertices at this place
    bool starts_gap : 1 = false;    // the least vertex of a gap, as far as its neighbours tell
};

// A list that grows without moving its content, so that it never needs twice its memory.
class Vertices {
public:
    [[nodiscard]] Vertex& operator[](std::int32_t i) {
        return blocks_[static_cast<std::size_t>(i) >> shift][static_cast<std::size_t>(i) & mask];
    }
    std::int32_t add(const Vertex& vertex) {
        if (static_cast<std::size_t>(size_) >> shift == blocks_.size())
            blocks_.push_back(std::make_unique_for_overwrite<Vertex[]>(mask + 1));
        (*this)[size_] = vertex;
        return size_++;
    }
    void clear() { size_ = 0; }   // keeps its memory
    [[nodiscard]] std::int32_t size() const { return size_; }

private:
    static constexpr std::size_t shift = 10, mask = (std::size_t{1} << shift) - 1;
    std::vector<std::unique_ptr<Vertex[]>> blocks_;
    std::int32_t size_ = 0;
};

struct GapStart {   // the least vertex of a gap, and a vertex of the outline that lies to its left, over solid ground
    std::int32_t vertex, left;
};

// What making rings of an outline needs on the way, kept so that an edit allocates little besides its result.
struct RingMemory {
    struct Walk {
        std::int32_t least;   // vertex, in flat coordinates
        std::int32_t region = -1;
    };
    std::vector<Walk> walks;
    std::vector<std::int32_t> walk, ring, numbers, open;
    std::vector<std::size_t> rest;
    std::vector<std::pair<Point, std::size_t>> places;
    Ring points;
    std::vector<int> labels;
    std::size_t regions = 0, rings = 0;   // of the result before: about as many come again
};

struct Outline {
    Vertices vertices;
    std::vector<GapStart> gaps;   // sorted by vertex
    RingMemory memory;
};

// How outlines turn between covers that were met before. Belongs to one set of cover ids.
class Programs {
public:
    Programs();
    ~Programs();
    struct Parts;
    std::unique_ptr<Parts> parts;
};

// Traces into an outline, whose memory may be reused; its old content is discarded.
void trace_outline(CellRows& rows, Programs& programs, Outline& into);

// Converts flat coordinates to steps of the map.
class Grid;

class RingsBefore;

// Returns regions and, if requested, their labelled rings. Those of before that come again are taken from there.
// Requires an outline as `trace_outline` makes it, which is consumed.
[[nodiscard]] Stacked rings_of(Outline& outline, const Grid& grid, bool labelled, RingsBefore& before);

}   // namespace dryground::detail
