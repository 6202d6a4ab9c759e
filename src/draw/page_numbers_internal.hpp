// Inside the draw room: how a page is told numbers. Long lists are base64 of little-endian integers.
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
// As 16 bits where that is enough; the page tells by the length.
[[nodiscard]] Json small_numbers(const std::vector<std::uint32_t>& list);

// Each ring as its number of points, then their steps.
void add_ring(std::vector<std::int32_t>& list, const Ring& ring);
[[nodiscard]] std::vector<std::int32_t> rings_of(const Regions& regions);

// The ground of a map, merged in chunks for one set of facts after another: what is the same in several is told once.
class PageGround {
public:
    // What makes a page large is shared out among its maps.
    PageGround(const World& world, const Map& map, const DrawOptions& options, std::size_t maps_on_page);

    // What there is of it with facts, as numbers into the page's list; or of a map that is a little another.
    std::vector<std::size_t> numbers_of(const Facts& facts) { return numbers_of(facts, map_); }
    std::vector<std::size_t> numbers_of(const Facts& facts, const Map& map);
    // Where each mover's position cannot be, by storey: of the asked mover alone where all of them, in so many states
    // of the facts, would make the page large. Of the map, or of one that is a little another.
    [[nodiscard]] Json reach_of(const Facts& facts, std::size_t states, const Map& map) const;
    [[nodiscard]] bool has_room_for_movers(std::size_t states) const;
    // The lists; afterwards nothing is left of them.
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

// What there is of a map as facts have it, and how it differs in every other state of the facts that one may switch.
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
