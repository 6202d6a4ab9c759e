// What of a map depends on facts, as a page knows it: the words of its cells and objects, what is there, ground, and
// where positions cannot be. First as the options have it; then, for every other state of the facts that may be
// switched on the page, what differs.

#include <algorithm>
#include <array>

#include "../ground/ground_internal.hpp"
#include "dryground/probe.hpp"
#include "page_numbers_internal.hpp"
#include "picture_internal.hpp"

namespace dryground::drawing {

namespace {

constexpr std::size_t most_switches = 4;                               // sixteen states
constexpr std::int64_t most_cells_in_states = std::int64_t{1} << 20;   // in sum: merging them takes about a second
constexpr std::size_t most_layers_with_ground = 6;                     // of which the page can leave out any

// Letters of the flags that a cell grants, and its sides, where somebody says them.
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
    MapStates(const World& world, const Map& map, const DrawOptions& options)
        : world_(world),
          map_(map),
          options_(options),
          storeys_(ground::storeys_of(map)),
          letters_(letters_of_flags(world)),
          ground_(world, map, options) {
        find_switches();
        find_layers_with_ground();
    }

    void add(Json& json) {
        const Facts& facts = options_.merging.facts;
        add_stacks(json);
        const Prober prober(world_, map_, facts);
        const Json words = words_of(prober, facts), objects = objects_of(prober, facts), layers = layers_of(facts);
        const std::vector<std::size_t> ground = ground_.numbers_of(facts);
        const std::size_t states = std::size_t{1} << switches_.size();
        const Json reach = ground_.reach_of(facts, states);
        json["switches"] = switches_;
        json["grounding"] = grounding_;
        json["less"] = ground_without(facts, ground);
        for (const FactId fact : fixed_) json["fixed"].push_back(fact);
        json["states"] = Json::array();
        for (std::size_t state = 0; state < states; ++state) {
            const Facts other = facts_in(state);
            if (other == facts) continue;
            const Prober of_other(world_, map_, other);
            Json one{{"facts", switched_in(state)}};
            one["words"] = difference(words, words_of(of_other, other));
            one["objects"] = difference(objects, objects_of(of_other, other));
            one["layers"] = difference(layers, layers_of(other));
            const auto numbers = ground_.numbers_of(other);
            if (numbers != ground) one["ground"] = numbers;
            one["less"] = ground_without(other, numbers);
            one["reach"] = difference(reach, ground_.reach_of(other, states));
            json["states"].push_back(std::move(one));
        }
        json["words"] = words;
        json["reach"] = reach;
        json["at_first"] = ground.size();   // of the list of ground: the first are there
        ground_.add(json);
    }

private:
    // Facts with which something here comes or goes: as many as there is room for, those that shape the ground first.
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
        while (count > 0 && cells << count > most_cells_in_states) --count;
        const auto end = of_ground.begin() + static_cast<std::ptrdiff_t>(count);
        switches_.assign(of_ground.begin(), end);
        fixed_.assign(end, of_ground.end());
        std::sort(switches_.begin(), switches_.end());
    }
    // Layers without which there is less ground in some state, where there are few of them and the map is small enough
    // to merge it without each set of them, in every state.
    void find_layers_with_ground() {
        const std::int64_t cells = std::int64_t{map_.columns} * map_.rows;
        const auto states = std::int64_t{1} << switches_.size();
        if (2 * cells * states * static_cast<std::int64_t>(map_.layers.size()) > most_cells_in_states) return;
        PageGround trial(world_, map_, options_);   // the page's own lists begin with the ground as it is at first
        const auto has_ground = [&](std::size_t layer) {
            for (std::size_t state = 0; state < static_cast<std::size_t>(states); ++state)
                if (const Facts facts = facts_in(state);
                    trial.numbers_of(facts, ground::without_ground_of(map_, std::array{layer})) !=
                    trial.numbers_of(facts))
                    return true;
            return false;
        };
        for (std::size_t layer = 0; layer < map_.layers.size(); ++layer)
            if (ground::may_count(map_.layers[layer]) && has_ground(layer)) grounding_.push_back(layer);
        if (grounding_.size() > most_layers_with_ground || cells * states << grounding_.size() > most_cells_in_states)
            grounding_.clear();
    }
    // [set of layers, ground]: a bit for each of grounding_ that is left out; only sets that leave less than all.
    [[nodiscard]] Json ground_without(const Facts& facts, const std::vector<std::size_t>& all) {
        Json list = Json::array();
        for (std::size_t set = 1; set < std::size_t{1} << grounding_.size(); ++set) {
            std::vector<std::size_t> layers;
            for (std::size_t i = 0; i < grounding_.size(); ++i)
                if ((set >> i & 1) != 0) layers.push_back(grounding_[i]);
            if (auto ground = ground_.numbers_of(facts, ground::without_ground_of(map_, layers)); ground != all)
                list.push_back({set, std::move(ground)});
        }
        return list;
    }
    // A bit for each switch.
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
    // [position, value] of what is another.
    static Json difference(const Json& all, const Json& other) {
        Json list = Json::array();
        for (std::size_t i = 0; i < all.size(); ++i)
            if (all[i] != other[i]) list.push_back({i, other[i]});
        return list;
    }

    // Cells with the same tiles in all layers say the same.
    void add_stacks(Json& json) {
        std::vector<const Layer*> layers;
        for (const Layer& layer : map_.layers)
            if (!layer.holds_objects) layers.push_back(&layer);
        std::map<std::vector<std::uint32_t>, std::uint32_t> known;
        std::vector<std::uint32_t> stacks;
        for (int r = 0; r < map_.rows; ++r)
            for (int c = 0; c < map_.columns; ++c) {
                std::vector<std::uint32_t> stack;
                for (const Layer* layer : layers) stack.push_back(map_.number(*layer, c, r));
                const auto [at, is_new] = known.try_emplace(std::move(stack), static_cast<std::uint32_t>(known.size()));
                stacks.push_back(at->second);
                if (is_new) first_cells_.push_back({c, r});
            }
        json["storeys"] = storeys_;   // what "on" of the words is by
        json["stacks"] = small_numbers(stacks);
    }
    // Of each stack.
    [[nodiscard]] Json words_of(const Prober& prober, const Facts& facts) const {
        Json words = Json::array();
        for (const auto& [c, r] : first_cells_) {
            const Cell cell = map_.cell({c, r});
            Json one{{"tiles", prober.tiles_of(cell)}, {"flags", prober.flags_of(cell)}};
            for (const StoreyId storey : storeys_)
                one["on"].push_back(passability_data(passability(world_, map_, {c, r}, storey, facts), letters_));
            words.push_back(std::move(one));
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
    std::vector<StoreyId> storeys_;
    std::vector<std::string> letters_;
    PageGround ground_;
    Facts switches_, fixed_;                        // the latter for want of room
    std::vector<std::size_t> grounding_;            // layers that ground can be told without
    std::vector<std::array<int, 2>> first_cells_;   // of each stack, from the data's top-left
};

}   // namespace

void add_page_states(Json& json, const World& world, const Map& map, const DrawOptions& options) {
    MapStates(world, map, options).add(json);
}

}   // namespace dryground::drawing
