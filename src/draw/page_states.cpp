// What depends on facts in a map, as a page stores it: the descriptions of its cells and objects, what is present,
// ground, and where positions cannot be. First as the options have it; then, for every other state of the facts that
// can be switched on the page, what differs.

#include <algorithm>
#include <array>

#include "../ground/ground_internal.hpp"
#include "dryground/probe.hpp"
#include "page_numbers_internal.hpp"
#include "picture_internal.hpp"

namespace dryground::drawing {

namespace {

constexpr std::size_t most_switches = 4;                               // sixteen states
constexpr std::int64_t most_cells_in_states = std::int64_t{1} << 20;   // of a page: merging them takes about a second
constexpr std::size_t most_layers_left_out = 6;                        // any of them, together

// Letters of the flags that a cell grants, and its sides, where a tile declares them.
Json passability_data(const Passability& say, const std::vector<std::string>& letters) {
    Json json = Json::object();
    if (say.flags_layer != LayerId::none) {
        std::string text;
        for (std::size_t f = 0; f < letters.size(); ++f)
            if ((say.flags >> f & 1) != 0) text += letters[f];
        json["letters"] = text.empty() ? "–" : text;
    }
    if (say.sides_layer != LayerId::none)
        for (const Passage passage : say.sides.of) json["sides"].push_back(name_of(passage));
    return json;
}

class MapStates {
public:
    MapStates(const World& world, const Map& map, const DrawOptions& options, std::size_t maps_on_page)
        : world_(world),
          map_(map),
          options_(options),
          most_cells_(most_cells_in_states / static_cast<std::int64_t>(maps_on_page)),
          storeys_(ground::storeys_of(map)),
          letters_(letters_of_flags(world)),
          ground_(world, map, options, maps_on_page) {
        find_switches();
        find_stacks();
        find_counting();
    }

    void add(Json& json) {
        const Facts& facts = options_.merging.facts;
        json["storeys"] = storeys_;   // what "on" of the words is by
        json["stacks"] = small_numbers(stacks_);
        const Prober prober(world_, map_, facts);
        const Json words = words_of(prober, facts), objects = objects_of(prober, facts), layers = layers_of(facts);
        const std::vector<std::size_t> ground = ground_.numbers_of(facts);
        const std::size_t states = std::size_t{1} << switches_.size();
        const Json reach = ground_.reach_of(facts, states, map_);
        json["switches"] = switches_;
        json["counting"] = counting_;
        json["of_all"] = Json::array();   // what does not follow the layers that are hidden
        if (!is_small_ || (!flags_follow_ && counting_.empty())) json["of_all"].push_back("merged ground");
        if (!flags_follow_) json["of_all"].insert(json["of_all"].end(), {"flags", "sides"});
        if (!reach_follows()) json["of_all"].push_back("reach");
        json["less"] = without(facts, {words, ground, reach});
        for (const FactId fact : fixed_) json["fixed"].push_back(fact);
        json["states"] = Json::array();
        for (std::size_t state = 0; state < states; ++state) {
            const Facts other = facts_in(state);
            if (other == facts) continue;
            const Prober of_other(world_, map_, other);
            Json one{{"facts", switched_in(state)}};
            const Json other_words = words_of(of_other, other), other_reach = ground_.reach_of(other, states, map_);
            one["words"] = difference(words, other_words);
            one["objects"] = difference(objects, objects_of(of_other, other));
            one["layers"] = difference(layers, layers_of(other));
            const auto numbers = ground_.numbers_of(other);
            if (numbers != ground) one["ground"] = numbers;
            one["less"] = without(other, {other_words, numbers, other_reach});
            one["reach"] = difference(reach, other_reach);
            json["states"].push_back(std::move(one));
        }
        json["words"] = words;
        json["reach"] = reach;
        json["at_first"] = ground.size();   // of the list of ground: the first are there
        ground_.add(json);
    }

private:
    // Facts with which something here appears or disappears: as many as there is room for, those that shape the ground
    // first.
    void find_switches() {
        Facts of_ground, others;
        for (const FactId fact : ids<FactId>(world_.facts()))
            if (ground::follows(world_, map_, fact))
                of_ground.push_back(fact);
            else if (ground::concerns(world_, map_, fact))
                others.push_back(fact);
        of_ground.insert(of_ground.end(), others.begin(), others.end());
        std::size_t count = std::min(of_ground.size(), most_switches);
        const std::int64_t cells = std::int64_t{map_.columns} * map_.rows;
        while (count > 0 && cells << count > most_cells_) --count;
        const auto end = of_ground.begin() + static_cast<std::ptrdiff_t>(count);
        switches_.assign(of_ground.begin(), end);
        fixed_.assign(end, of_ground.end());
        std::sort(switches_.begin(), switches_.end());
    }
    // Lists layers without which ground, flags or sides differ in some state, if there are few of them and the map is
    // small enough to merge it without each set of them, in every state; else those that make the ground, or none.
    void find_counting() {
        const std::int64_t cells = std::int64_t{map_.columns} * map_.rows;
        const auto states = std::int64_t{1} << switches_.size();
        flags_follow_ = is_small_ = 2 * cells * states * static_cast<std::int64_t>(map_.layers.size()) <= most_cells_;
        if (!is_small_) return;
        PageGround trial(world_, map_, options_, 1);   // the page's own lists begin with the ground as it is at first
        std::vector<std::size_t> of_ground;
        for (std::size_t layer = 0; layer < map_.layers.size(); ++layer) {
            if (!ground::may_count(map_.layers[layer])) continue;
            const Map less = ground::without_ground_of(map_, std::array{layer});
            bool has_ground = false, has_words = false;
            for (std::size_t state = 0; state < static_cast<std::size_t>(states); ++state) {
                const Facts facts = facts_in(state);
                has_ground = has_ground || trial.numbers_of(facts, less) != trial.numbers_of(facts, map_);
                has_words = has_words || passabilities(facts, less) != passabilities(facts, map_);
            }
            if (has_ground) of_ground.push_back(layer);
            if (has_ground || has_words) counting_.push_back(layer);
        }
        const auto has_room = [&](const std::vector<std::size_t>& layers) {
            return layers.size() <= most_layers_left_out && cells * states << layers.size() <= most_cells_;
        };
        if (has_room(counting_)) return;
        flags_follow_ = false;
        counting_ = has_room(of_ground) ? of_ground : std::vector<std::size_t>{};
    }
    // Returns whether there is room for each mover's reach without each set of layers.
    [[nodiscard]] bool reach_follows() const {
        const std::size_t sets = std::size_t{1} << (counting_.size() + switches_.size());
        return flags_follow_ && ground_.has_room_for_movers(sets);
    }
    // What is written with facts.
    struct Told {
        const Json& words;
        const std::vector<std::size_t>& ground;
        const Json& reach;
    };
    // Returns what differs without layers: `set` has a bit for each of counting_ that is left out.
    [[nodiscard]] Json without(const Facts& facts, const Told& all) {
        Json list = Json::array();
        const std::size_t states = std::size_t{1} << switches_.size();
        for (std::size_t set = 1; set < std::size_t{1} << counting_.size(); ++set) {
            std::vector<std::size_t> layers;
            for (std::size_t i = 0; i < counting_.size(); ++i)
                if ((set >> i & 1) != 0) layers.push_back(counting_[i]);
            const Map less = ground::without_ground_of(map_, layers);
            const Prober prober(world_, less, facts);
            Json words = words_of(prober, facts, less);
            for (std::size_t i = 0; i < words.size(); ++i) words[i]["tiles"] = all.words[i]["tiles"];   // still there
            Json one{{"set", set}, {"words", difference(all.words, words)}, {"reach", Json::array()}};
            if (reach_follows()) one["reach"] = difference(all.reach, ground_.reach_of(facts, states, less));
            if (auto ground = ground_.numbers_of(facts, less); ground != all.ground) one["ground"] = std::move(ground);
            if (one.contains("ground") || !one["words"].empty() || !one["reach"].empty())
                list.push_back(std::move(one));
        }
        return list;
    }
    // Returns a bit for each switch.
    [[nodiscard]] Facts switched_in(std::size_t state) const {
        Facts facts;
        for (std::size_t s = 0; s < switches_.size(); ++s)
            if ((state >> s & 1) != 0) facts.push_back(switches_[s]);
        return facts;
    }
    [[nodiscard]] Facts facts_in(std::size_t state) const {
        Facts facts = switched_in(state);
        for (const FactId fact : options_.merging.facts)
            if (!std::binary_search(switches_.begin(), switches_.end(), fact)) facts.push_back(fact);
        std::sort(facts.begin(), facts.end());
        return facts;
    }
    // Returns [position, value] of what differs.
    static Json difference(const Json& all, const Json& other) {
        Json list = Json::array();
        for (std::size_t i = 0; i < all.size(); ++i)
            if (all[i] != other[i]) list.push_back({i, other[i]});
        return list;
    }

    // Cells with the same tiles in all layers have the same description.
    void find_stacks() {
        std::vector<const Layer*> layers;
        for (const Layer& layer : map_.layers)
            if (!layer.holds_objects) layers.push_back(&layer);
        std::map<std::vector<std::uint32_t>, std::uint32_t> known;
        for (int r = 0; r < map_.rows; ++r)
            for (int c = 0; c < map_.columns; ++c) {
                std::vector<std::uint32_t> stack;
                for (const Layer* layer : layers) stack.push_back(map_.number(*layer, c, r));
                const auto [at, is_new] = known.try_emplace(std::move(stack), static_cast<std::uint32_t>(known.size()));
                stacks_.push_back(at->second);
                if (is_new) first_cells_.push_back({c, r});
            }
    }
    // Of each stack, by storey.
    [[nodiscard]] Json passabilities(const Facts& facts, const Map& map) const {
        Json all = Json::array();
        for (const DataCell cell : first_cells_) {
            Json& on = all.emplace_back(Json::array());
            for (const StoreyId storey : storeys_)
                on.push_back(passability_data(passability(world_, map, cell, storey, facts), letters_));
        }
        return all;
    }
    // Of each stack. The prober's map is `map`, or has what it has.
    [[nodiscard]] Json words_of(const Prober& prober, const Facts& facts) const {
        return words_of(prober, facts, map_);
    }
    [[nodiscard]] Json words_of(const Prober& prober, const Facts& facts, const Map& map) const {
        Json words = Json::array(), on = passabilities(facts, map);
        for (std::size_t i = 0; i < first_cells_.size(); ++i) {
            const Cell cell = map.cell(first_cells_[i]);
            words.push_back(
                {{"tiles", prober.tiles_of(cell)}, {"flags", prober.flags_of(cell)}, {"on", std::move(on[i])}});
        }
        return words;
    }
    [[nodiscard]] Json objects_of(const Prober& prober, const Facts& facts) const {
        Json objects = Json::array();
        for (std::size_t o = 0; o < map_.objects.size(); ++o)
            objects.push_back({{"there", is_there(map_, map_.objects[o], facts)}, {"words", prober.object(o)}});
        return objects;
    }
    [[nodiscard]] Json layers_of(const Facts& facts) const {
        Json layers = Json::array();
        for (const Layer& layer : map_.layers) layers.push_back(is_there(layer, facts));
        return layers;
    }

    const World& world_;
    const Map& map_;
    const DrawOptions& options_;
    std::int64_t most_cells_;   // in all states of this map
    std::vector<StoreyId> storeys_;
    std::vector<std::string> letters_;
    PageGround ground_;
    Facts switches_, fixed_;              // the latter if there is no room
    std::vector<std::size_t> counting_;   // layers that may be left out
    bool is_small_ = true;                // enough to look at it without layers
    bool flags_follow_ = true;            // all layers that grant something are among them
    std::vector<std::uint32_t> stacks_;   // of each cell, row by row
    std::vector<DataCell> first_cells_;   // of each stack
};

}   // namespace

void add_page_states(Json& json, const World& world, const Map& map, const DrawOptions& options,
                     std::size_t maps_on_page) {
    MapStates(world, map, options, maps_on_page).add(json);
}

}   // namespace dryground::drawing
