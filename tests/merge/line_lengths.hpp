// How long lines are, and how much of them is not part of others.
#pragma once

#include <algorithm>
#include <cmath>
#include <utility>
#include <vector>

#include "merge/lines/lines_internal.hpp"

namespace line_lengths {

using namespace dryground;

// Returns whether the line through the longer of two pieces passes within two steps of the other: both ends of a cut
// are rounded.
inline bool lie_along(const detail::LinePiece& a, const detail::LinePiece& b) {
    const auto length = [](const detail::LinePiece& p) { return std::hypot(p.to.x - p.from.x, p.to.y - p.from.y); };
    const detail::LinePiece &line = length(a) < length(b) ? b : a, &other = length(a) < length(b) ? a : b;
    const double dx = line.to.x - line.from.x, dy = line.to.y - line.from.y;
    return std::max(std::abs((other.from.x - line.from.x) * dy - (other.from.y - line.from.y) * dx),
                    std::abs((other.to.x - line.from.x) * dy - (other.to.y - line.from.y) * dx)) <= 2 * length(line);
}
// Returns how much of some pieces is not part of others.
inline double beyond(const std::vector<detail::LinePiece>& pieces, const std::vector<detail::LinePiece>& others) {
    double all = 0;
    for (const detail::LinePiece& piece : pieces) {
        const double dx = piece.to.x - piece.from.x, dy = piece.to.y - piece.from.y, length = std::hypot(dx, dy);
        const auto along = [&](Point p) { return ((p.x - piece.from.x) * dx + (p.y - piece.from.y) * dy) / length; };
        std::vector<std::pair<double, double>> covered;
        for (const detail::LinePiece& other : others)
            if (lie_along(piece, other)) covered.push_back(std::minmax({along(other.from), along(other.to)}));
        std::sort(covered.begin(), covered.end());
        double at = 0;
        for (const auto& [from, to] : covered) {
            if (from > at) all += std::min(from, length) - at;
            at = std::clamp(to, at, length);
        }
        all += length - at;
    }
    return all;
}
inline double of(const std::vector<detail::LinePiece>& pieces) { return beyond(pieces, {}); }

}   // namespace line_lengths
