// Inside the files room: the path and transform values of SVG, parsed and made straight.
#pragma once

#include <array>
#include <optional>
#include <string>
#include <vector>

namespace dryground::files {

// (x, y) goes to (m[0] x + m[2] y + m[4], m[1] x + m[3] y + m[5]).
using Matrix = std::array<double, 6>;
constexpr Matrix identity{1, 0, 0, 1, 0, 0};
[[nodiscard]] Matrix times(const Matrix& outer, const Matrix& inner);   // the inner one first
[[nodiscard]] std::array<double, 2> apply(const Matrix& m, std::array<double, 2> p);

// Returns nothing if the text is not a list of transforms; an empty one is the identity.
[[nodiscard]] std::optional<Matrix> parse_transform(const std::string& text);

struct Subpath {
    std::vector<std::array<double, 2>> points;   // no point follows itself; a closed one does not repeat its first
    bool closed = false;
};
// Returns the path as straight lines, within a distance of its curves after the transform. Returns nothing if the text
// is not a path. Cost: in proportion to the resulting points, at most about a million.
[[nodiscard]] std::optional<std::vector<Subpath>> parse_path(const std::string& text, const Matrix& transform,
                                                             double within);

}   // namespace dryground::files
