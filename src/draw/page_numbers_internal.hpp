// Inside the draw room: how a page is told numbers. Long lists are base64 of little-endian integers.
#pragma once

#include <memory>
#include <nlohmann/json.hpp>
#include <optional>
#include <string>
#include <vector>

#include "dryground/draw.hpp"
#include "dryground/merge.hpp"
#include "dryground/travel.hpp"

namespace dryground::drawing {

using Json = nlohmann::ordered_json;

[[nodiscard]] std::string base64(const void* data, std::size_t bytes);

template <class Number>
[[nodiscard]] Json numbers(const std::vector<Number>& list) {
    return base64(list.data(), list.size() * sizeof(Number));
}
// As 16 bits where that is enough; the page tells by the length.
[[nodiscard]] Json small_numbers(const std::vector<std::uint32_t>& list);

// Each ring as its number of points, then their steps.
void add_ring(std::vector<std::int32_t>& list, const Ring& ring);
[[nodiscard]] std::vector<std::int32_t> rings_of(const Regions& regions);

// Merged ground in chunks, and where the mover's position cannot be.
void add_page_ground(Json& json, const World& world, const Map& map, const DrawOptions& options);

// Where the mover gets to in the world, and the way to all goals; nothing for worlds too large.
class PageWalk {
public:
    PageWalk(const World& world, const DrawOptions& options);
    void add(Json& json, const Map& map) const;

private:
    const World& world_;
    std::unique_ptr<Reach> reach_;
    std::optional<Route> tour_;
};

}   // namespace dryground::drawing
