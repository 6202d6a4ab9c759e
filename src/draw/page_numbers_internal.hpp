// Inside the draw room: how numbers are passed to a page. Long lists are base64 of little-endian integers.
#pragma once

#include <map>
#include <memory>
#include <nlohmann/json.hpp>
#include <optional>
#include <string>
#include <tuple>
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
// Writes 16 bits if that is enough; the page recognises it by the length.
[[nodiscard]] Json small_numbers(const std::vector<std::uint32_t>& list);

// Writes each ring as its number of points, then their steps.
void add_ring(std::vector<std::int32_t>& list, const Ring& ring);
[[nodiscard]] std::vector<std::int32_t> rings_of(const Regions& regions);

// The ground of a map, merged in chunks for one set of facts after another: what is the same in several is stored once.
class PageGround {
public:
    // What makes a page large is limited in sum over its maps.
    PageGround(const World& world, const Map& map, const DrawOptions& options, std::size_t maps_on_page);

    // Returns the ground while facts hold, as numbers into the page's list; or that of a slightly different map.
    std::vector<std::size_t> numbers_of(const Facts& facts) { return numbers_of(facts, map_); }
    std::vector<std::size_t> numbers_of(const Facts& facts, const Map& map);
    // Returns where each mover's position cannot be, by storey: only for the chosen mover if all of them, in so many
    // states of the facts, would make the page large. For the map, or for a slightly different one.
    [[nodiscard]] Json reach_of(const Facts& facts, std::size_t states, const Map& map) const;
    [[nodiscard]] bool has_room_for_movers(std::size_t states) const;
    // Adds the lists, which are moved from.
    void add(Json& json);

private:
    const World& world_;
    const Map& map_;
    const DrawOptions& options_;
    std::int64_t most_cells_of_movers_;
    MoverId asked_;
    std::map<std::tuple<StoreyId, BarrierId, std::string, OneWay>, std::size_t> group_numbers_;
    std::map<std::string, std::size_t> chunk_numbers_;
    std::vector<std::string> triggers_;
    Json groups_ = Json::array(), chunks_ = Json::array();
};

// Adds the content of a map while facts hold, and how it differs in every other state of the facts that can be
// switched.
void add_page_states(Json& json, const World& world, const Map& map, const DrawOptions& options,
                     std::size_t maps_on_page);

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
