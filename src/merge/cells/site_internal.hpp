// Inside the merge room: how outlines turn at a place on the grid lines where cells meet.
#pragma once

#include <cstdint>
#include <span>
#include <unordered_map>
#include <vector>

#include "cover_internal.hpp"

namespace dryground::detail {

// Which edge of a site: along the grid lines, or the inner edge of one of the (up to four) cells around it.
struct SiteEdge {
    enum Sort : std::uint8_t { left, right, up, down, inner } sort = left;
    std::uint8_t cell = 0;   // of an inner edge: 0 top-left, 1 top-right, 2 bottom-right, 3 bottom-left
    int edge = 0;            // number in the cell's cover
};

// The outline comes in on one edge and goes on along the other.
struct SiteTurn {
    SiteEdge in, out;
    int label = 0;             // of the edge that leaves
    bool straight = false;     // the direction stays
    bool starts_gap = false;   // the least point of a gap, as far as these two edges tell
};

// All turns of a site. Where two or more solids or gaps touch, even those are listed that go straight on.
struct SiteProgram {
    std::vector<SiteTurn> turns;
    [[nodiscard]] bool pinched() const { return turns.size() > 1; }
};

// The covers around a grid corner, and where their sides meet it.
[[nodiscard]] SiteProgram corner_program(const Cover& top_left, const Cover& top_right, const Cover& bottom_right,
                                         const Cover& bottom_left, std::int32_t width, std::int32_t height);

struct MiddleSite {
    std::int32_t place = 0;   // along the side
    SiteProgram program;
};
// What happens along a side between two cells, its ends apart. In inner edges the upper (left) cell is number 1 (0),
// the lower (right) one number 2 (1).
[[nodiscard]] std::vector<MiddleSite> across_programs(const Cover& above, const Cover& below, std::int32_t width,
                                                      std::int32_t height);
[[nodiscard]] std::vector<MiddleSite> down_programs(const Cover& left, const Cover& right, std::int32_t width,
                                                    std::int32_t height);

}   // namespace dryground::detail
