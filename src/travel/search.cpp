// What can be reached in a whole world while facts come true. ¶ Idea: a sweep finds all that can be reached while facts
// do not change. Everything that is given where one can come back from, and that closes nothing, is taken at once,
// since whoever has it can do all that could be done before; then it is swept again. What closes something, or is given
// where there is no way back, makes a state of its own: from there, with that fact. So a world in which everything only
// opens needs one state, however many keys it has.

#include "search_internal.hpp"

#include <algorithm>
#include <cmath>
#include <deque>
#include <set>
#include <utility>

namespace dryground::travel {

namespace {

std::uint64_t key_of(MapId map, int place) {
    return static_cast<std::uint64_t>(static_cast<std::uint32_t>(map)) << 32 | static_cast<std::uint32_t>(place);
}

void add(Facts& facts, FactId fact) {
    if (const auto at = std::lower_bound(facts.begin(), facts.end(), fact); at == facts.end() || *at != fact)
        facts.insert(at, fact);
}

// Returns where a link's end is.
Spot arrival_of(const World& world, const Link& link) {
    const Object& end = world.map(link.map).object(link.object);
    return {link.map, end.storey, px_of(end.position)};
}

class Sweeper {
public:
    Sweeper(Stages& stages, const Facts& held) : stages_(stages), held_(held) {}

    Sweep from(const Spot& home) {
        add_at(home, {});
        while (!now_.empty() || !next_.empty()) {
            if (now_.empty()) now_.swap(next_), ++leaps_;
            const std::size_t n = now_.front();
            now_.pop_front();
            if (std::exchange(gone_on_[n], 1) == 0) go_on(n);
        }
        return std::move(sweep_);
    }

private:
    void go_on(std::size_t n) {
        const Sweep::Node node = sweep_.nodes[n];
        Stage& stage = stages_.on(node.map, held_);
        for (const Move& move : stage.ways->moves(node.place)) add({n, 0, &move, nullptr}, node.map, move.to);
        for (const Touched& touch : stage.ways->touched(node.place)) {
            // A jump into a target may end where no other move leads.
            if (touch.move.to != node.place) add({n, 0, &touch.move, nullptr}, node.map, touch.move.to);
            add_contact(stage, n, touch);
        }
    }
    // Of the ways to a node the one with the fewest leaps is kept, then the one with the fewest moves.
    void add(Hop hop, MapId map, int place) {
        const bool leaps = hop.move == nullptr || !is_even(hop.move->going);
        const auto [known, is_new] = sweep_.numbers.try_emplace(key_of(map, place), sweep_.nodes.size());
        hop.to = known->second;
        if (is_new) {
            add_node(map, place, leaps);
        } else if (!leaps && gone_on_[hop.to] == 0 && leaps_to_[hop.to] == leaps_ + 1) {
            sweep_.nodes[hop.to].first = sweep_.hops.size();
            leaps_to_[hop.to] = leaps_;
            now_.push_back(hop.to);
        }
        if (hop.to != hop.from || is_new) sweep_.hops.push_back(hop);
    }
    void add_node(MapId map, int place, bool leaps) {
        (leaps ? next_ : now_).push_back(sweep_.nodes.size());
        sweep_.nodes.push_back({map, place, sweep_.hops.size()});
        gone_on_.push_back(0);
        leaps_to_.push_back(leaps ? leaps_ + 1 : leaps_);
    }
    // Puts the mover somewhere.
    void add_at(const Spot& spot, Hop hop) {
        if (stages_.mover_on(spot.map) == MoverId::none) return;
        const bool first_visit = visited_.insert(spot.map).second;
        Stage& stage = stages_.on(spot.map, held_);
        const int place = stage.ways->place_at(spot.storey, steps_of(spot.at));
        if (place < 0) return;
        if (sweep_.nodes.empty()) {
            sweep_.numbers[key_of(spot.map, place)] = 0;
            add_node(spot.map, place, false);
        } else {
            add(hop, spot.map, place);
        }
        if (!first_visit) return;
        const std::size_t node = sweep_.numbers.at(key_of(spot.map, place));
        for (std::size_t d = 0; d < stage.deeds->deeds.size(); ++d) {
            const Deed& deed = stage.deeds->deeds[d];
            if (deed.fires == Fires::start && deed.object != ObjectId::none &&
                known_.insert({spot.map, static_cast<int>(d)}).second)
                sweep_.contacts.push_back({{spot.map, static_cast<int>(d)}, node, nullptr});
        }
    }
    void add_contact(Stage& stage, std::size_t node, const Touched& touch) {
        const Deed& deed = stage.deeds->deeds[static_cast<std::size_t>(touch.target)];
        const Map& map = stages_.map(stage.map);
        if (!is_there(map, deed, held_)) return;
        const Done what{stage.map, touch.target};
        if (deed.fires != Fires::start && known_.insert(what).second) sweep_.contacts.push_back({what, node, &touch});
        if (!fires(deed) || !all_hold(deed.needs, held_)) return;
        const Hop hop{node, 0, nullptr, &touch};
        if (deed.link != nullptr) add_at(arrival_of(stages_.world(), *deed.link), hop);
        if (deed.leads != StoreyId::none) add_at({stage.map, deed.leads, px_of(touch.move.way.back())}, hop);
    }

    Stages& stages_;
    const Facts& held_;
    Sweep sweep_;
    std::deque<std::size_t> now_, next_;   // nodes to go on from: with as many leaps as now, and with one more
    int leaps_ = 0;
    std::vector<char> gone_on_;   // by node
    std::vector<int> leaps_to_;   // by node: how many leaps lead there
    std::set<MapId> visited_;
    std::set<Done> known_;
};

class StateSearch {
public:
    StateSearch(Stages& stages, std::size_t most) : stages_(stages), most_(most) {}

    Found from(const Spot& start, const Facts& given) {
        open_.push_back({start, given, {}});
        while (!open_.empty()) {
            if (found_.states.size() >= most_) {
                found_.complete = false;
                break;
            }
            State state = std::move(open_.front());
            open_.pop_front();
            look_at(std::move(state));
        }
        return std::move(found_);
    }

private:
    void look_at(State state) {
        for (;;) {
            const Sweep now = sweep(stages_, state.home, state.held);
            if (now.nodes.empty()) return;
            const std::vector<char> back = now.leads_back();
            if (!known_.insert({canonical(now, back), state.held}).second) return;
            note(now, state);
            std::vector<std::pair<Done, Facts>> others;
            if (take_all(now, back, state, others)) continue;
            found_.states.push_back(state);
            for (auto& [done, gains] : others) branch(now, done, gains, state);
            return;
        }
    }
    // Returns the least node of those that lead to and fro: the same wherever among them one begins.
    static std::uint64_t canonical(const Sweep& now, const std::vector<char>& back) {
        std::uint64_t least = ~std::uint64_t{0};
        for (std::size_t n = 0; n < now.nodes.size(); ++n)
            if (back[n] != 0) least = std::min(least, key_of(now.nodes[n].map, now.nodes[n].place));
        return least;
    }
    void note(const Sweep& now, const State& state) {
        for (const Sweep::Node& node : now.nodes) {
            const Stage& stage = stages_.on(node.map, state.held);
            std::vector<char>& flags = found_.places[{node.map, stage.facts}];
            if (flags.size() <= static_cast<std::size_t>(node.place))
                flags.resize(static_cast<std::size_t>(node.place) + 1);
            flags[static_cast<std::size_t>(node.place)] = 1;
        }
        for (const Sweep::Contact& contact : now.contacts) {
            found_.reached.try_emplace(contact.what, state.plan);
            note_gains(contact, gains_of(stages_, contact.what, state.held), state);
        }
    }
    void note_gains(const Sweep::Contact& contact, const Facts& gains, const State& state) {
        for (const FactId fact : gains) {
            const auto [first, is_new] = found_.facts.try_emplace(fact);
            if (!is_new) continue;
            first->second = state.plan;
            first->second.push_back(contact.what);
        }
    }
    // Takes everything that closes nothing and is given where one can come back from, repeatedly, as long as that gives
    // what others need; lists the rest. Returns whether anything was taken.
    bool take_all(const Sweep& now, const std::vector<char>& back, State& state,
                  std::vector<std::pair<Done, Facts>>& others) {
        std::vector<const Sweep::Contact*> open;
        for (const Sweep::Contact& contact : now.contacts)
            if (!stages_.deeds(contact.what.map).deeds[static_cast<std::size_t>(contact.what.deed)].gives.empty())
                open.push_back(&contact);
        const std::size_t before = state.plan.size();
        for (bool more = true; more;) {
            more = false;
            std::vector<const Sweep::Contact*> waiting;
            for (const Sweep::Contact* contact : open) {
                const Facts gains = gains_of(stages_, contact->what, state.held);
                if (gains.empty() || !may_take(now, back, *contact, gains)) {
                    waiting.push_back(contact);
                    continue;
                }
                note_gains(*contact, gains, state);
                for (const FactId fact : gains) add(state.held, fact);
                state.plan.push_back(contact->what);
                more = true;
            }
            open = std::move(waiting);
        }
        for (const Sweep::Contact* contact : open)
            if (const Facts gains = gains_of(stages_, contact->what, state.held); !gains.empty())
                others.emplace_back(contact->what, gains);
        return state.plan.size() > before;
    }
    [[nodiscard]] bool may_take(const Sweep& now, const std::vector<char>& back, const Sweep::Contact& contact,
                                const Facts& gains) const {
        // Where the mover is after it has touched it.
        const std::size_t after =
            contact.touch == nullptr ? contact.node : *now.find(contact.what.map, contact.touch->move.to);
        return back[after] != 0 && std::none_of(gains.begin(), gains.end(),
                                                [&](FactId fact) { return stages_.closing()[index(fact)] != 0; });
    }
    void branch(const Sweep& now, const Done& done, const Facts& gains, const State& state) {
        const auto contact = std::find_if(now.contacts.begin(), now.contacts.end(),
                                          [&](const Sweep::Contact& c) { return c.what == done; });
        State next = state;
        for (const FactId fact : gains) add(next.held, fact);
        next.plan.push_back(done);
        if (contact->touch != nullptr) {
            const Sweep::Node& node = now.nodes[contact->node];
            next.home = {node.map, stages_.on(node.map, state.held).ways->shape(node.place).storey,
                         px_of(contact->touch->move.way.back())};
        }
        open_.push_back(std::move(next));
    }

    Stages& stages_;
    std::size_t most_;
    std::deque<State> open_;
    std::set<std::pair<std::uint64_t, Facts>> known_;
    Found found_;
};

}   // namespace

std::optional<std::size_t> Sweep::find(MapId map, int place) const {
    const auto known = numbers.find(key_of(map, place));
    return known == numbers.end() ? std::nullopt : std::optional(known->second);
}

std::vector<char> Sweep::leads_back() const {
    std::vector<std::vector<std::size_t>> before(nodes.size());
    for (const Hop& hop : hops) before[hop.to].push_back(hop.from);
    std::vector<char> back(nodes.size());
    std::vector<std::size_t> open{0};
    if (!nodes.empty()) back[0] = 1;
    while (!nodes.empty() && !open.empty()) {
        const std::size_t n = open.back();
        open.pop_back();
        for (const std::size_t from : before[n])
            if (back[from] == 0) back[from] = 1, open.push_back(from);
    }
    return back;
}

Facts gains_of(Stages& stages, const Done& what, const Facts& held) {
    const Deed& deed = stages.deeds(what.map).deeds[static_cast<std::size_t>(what.deed)];
    Facts gains;
    if (!fires(deed) || !all_hold(deed.needs, held)) return gains;
    for (const FactId fact : deed.gives)
        if (!std::binary_search(held.begin(), held.end(), fact)) add(gains, fact);
    return gains;
}

Sweep sweep(Stages& stages, const Spot& from, const Facts& held) { return Sweeper(stages, held).from(from); }

Found find_surely(Stages& stages, const Spot& start, const Facts& given, std::size_t most_states) {
    return StateSearch(stages, most_states).from(start, given);
}

FoundMaybe find_maybe(Stages& stages, const Spot& start, const Facts& given) {
    const World& world = stages.world();
    FoundMaybe found;
    found.held = given;
    found.maps.resize(world.maps().size());
    const auto arrive = [&](const Spot& spot) {
        if (stages.mover_on(spot.map) == MoverId::none) return;
        found.maps[index(spot.map)] = 1;
        Stage& stage = stages.loosest(spot.map, found.held);
        MayBe& may_be = found.stages[{spot.map, stage.facts}];
        may_be.targets.resize(stage.deeds->targets.size());
        if (const int place = stage.ways->place_at(spot.storey, steps_of(spot.at)); place >= 0) may_be.add(place);
    };
    const auto spread = [&](Stage& stage, MayBe& may_be) {
        while (!may_be.open.empty()) {
            const int place = may_be.open.back();
            may_be.open.pop_back();
            stage.ways->add_may_be(place, may_be);
        }
    };
    std::set<std::tuple<MapId, Facts, int>> taken;   // links and stairs
    arrive(start);
    for (bool more = true; more;) {
        more = false;
        std::vector<Spot> arrivals;
        // By position: arrivals add to the map, and facts to what holds.
        std::vector<std::pair<MapId, Facts>> keys;
        for (const auto& [key, may_be] : found.stages) keys.push_back(key);
        for (const auto& key : keys) {
            Stage& stage = stages.loosest(key.first, key.second);
            MayBe& may_be = found.stages.at(key);
            spread(stage, may_be);
            for (std::size_t d = 0; d < stage.deeds->deeds.size(); ++d) {
                const Deed& deed = stage.deeds->deeds[d];
                if (may_be.targets[d] == 0 && deed.fires != Fires::start) continue;
                found.reached[{key.first, static_cast<int>(d)}] = true;
                if (!fires(deed) || !all_hold(deed.needs, found.held)) continue;
                for (const FactId fact : deed.gives)
                    if (!std::binary_search(found.held.begin(), found.held.end(), fact))
                        add(found.held, fact), more = true;
                if (deed.link != nullptr && taken.insert({key.first, {}, static_cast<int>(d)}).second)
                    arrivals.push_back(arrival_of(world, *deed.link));
                if (deed.leads != StoreyId::none && taken.insert({key.first, key.second, static_cast<int>(d)}).second)
                    for (const Ring& ring : stage.deeds->targets[d].rings) {   // from wherever they are entered
                        const Bounds box = detail::box_around(ring);
                        arrivals.push_back({key.first, deed.leads,
                                            px_of({box.least.x + (box.most.x - box.least.x) / 2,
                                                   box.least.y + (box.most.y - box.least.y) / 2})});
                    }
            }
        }
        for (const Spot& spot : arrivals) arrive(spot), more = true;
        if (!more) break;
        // With more facts the ground of a map may differ: the search continues from everything that was reached.
        for (const auto& key : keys) {
            Stage& before = stages.loosest(key.first, key.second);
            Stage& now = stages.loosest(key.first, found.held);
            if (before.facts == now.facts) continue;
            MayBe& into = found.stages[{key.first, now.facts}];
            into.targets.resize(now.deeds->targets.size());
            const MayBe& from = found.stages.at(key);
            for (std::size_t place = 0; place < from.places.size(); ++place) {
                if (from.places[place] == 0) continue;
                const TravelPlace shape = before.ways->shape(static_cast<int>(place));
                const auto go_on = [&](Point p) {
                    if (const int at = now.ways->place_at(shape.storey, p); at >= 0) into.add(at);
                };
                for (const PointPx p : shape.line) go_on(steps_of(p));
                for (const Region& region : shape.area)
                    for (const Point p : region.outline) go_on(p);
            }
        }
    }
    return found;
}

}   // namespace dryground::travel
