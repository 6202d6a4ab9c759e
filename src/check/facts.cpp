// Rules about facts, events and names: what is needed is given, what is given is used, and names differ.

#include <fmt/format.h>

#include <algorithm>

#include "rules_internal.hpp"

namespace dryground::check_rules {

namespace {

// A thing that gives, needs or runs something.
struct User {
    std::string words;   // "link 'hatch'"
    Place place;
    std::string thing, map, layer, object;
};

struct Uses {
    std::vector<std::vector<User>> gives, needs, runs;   // by fact, fact, event
};

class Gatherer {
public:
    explicit Gatherer(const World& world) : world_(world) {
        uses_.gives.resize(world.facts().size());
        uses_.needs.resize(world.facts().size());
        uses_.runs.resize(world.events().size());
    }

    Uses run() {
        for (const TileSet& set : world_.tilesets())
            for (const Tile& tile : set.tiles) {
                const User user{fmt::format("tile '{}'", tile.name),
                                tile.place,
                                fmt::format("tile set '{}', tile '{}'", set.name, tile.name),
                                "",
                                "",
                                ""};
                add(uses_.needs, tile.needs, user);
                add(uses_.gives, tile.gives, user);
                for (const Reaction& reaction : tile.reacts) {
                    add(uses_.needs, reaction.needs, user);
                    add(uses_.gives, reaction.gives, user);
                    add(uses_.runs, std::vector{reaction.runs}, user);
                }
            }
        for (const Map& map : world_.maps()) {
            for (const Layer& layer : map.layers) {
                const User user{fmt::format("layer '{}'", layer.name),
                                layer.place,
                                fmt::format("map '{}', layer '{}'", map.name, layer.name),
                                map.name,
                                layer.name,
                                ""};
                add(uses_.needs, layer.when, user);
                add(uses_.needs, layer.unless, user);
                if (!layer.reaction) continue;
                add(uses_.needs, layer.reaction->needs, user);
                add(uses_.gives, layer.reaction->gives, user);
                add(uses_.runs, std::vector{layer.reaction->runs}, user);
            }
            for (const Object& object : map.objects) {
                const User user{words_of(world_, object),     object.place, thing_of(map, object), map.name,
                                map.layer(object.layer).name, object.name};
                add(uses_.needs, object.needs, user);
                add(uses_.needs, object.when, user);
                add(uses_.needs, object.unless, user);
                add(uses_.gives, object.gives, user);
                add(uses_.runs, std::vector{object.runs, object.link.arrival_runs}, user);
            }
        }
        return std::move(uses_);
    }

private:
    template <IsId Id>
    static void add(std::vector<std::vector<User>>& to, const std::vector<Id>& ids, const User& user) {
        for (const Id id : ids)
            if (id != Id::none) to[index(id)].push_back(user);
    }
    const World& world_;
    Uses uses_;
};

Finding at(const Findings& findings, Rule rule, const User& user, std::vector<std::string> arguments) {
    Finding finding = findings.start(rule, user.place, user.thing, std::move(arguments));
    finding.map = user.map, finding.layer = user.layer, finding.object = user.object;
    return finding;
}

void relate(Finding& finding, const std::vector<User>& users, std::size_t from, const char* does) {
    for (std::size_t i = from; i < std::min<std::size_t>(users.size(), from + 4); ++i)
        if (!users[i].place.file.empty())
            finding.related.push_back({users[i].place, fmt::format("{} {} it", users[i].words, does)});
}

void check_fact(const World& world, const NamedThing& fact, const std::vector<User>& gives,
                const std::vector<User>& needs, Findings& findings) {
    const bool is_goal = std::any_of(world.goals().begin(), world.goals().end(),
                                     [&](const Goal& goal) { return goal.words == fact.name; });
    const std::string thing = fmt::format("fact '{}'", fact.name);
    if (gives.empty() && !needs.empty()) {
        Finding finding = at(findings, Rule::fact_never_true, needs.front(), {needs.front().words, fact.name});
        relate(finding, needs, 1, "needs");
        finding.hint = Hint{"let something give it", fmt::format("gives = [\"{}\"]", fact.name)};
        findings.add(std::move(finding));
    } else if (gives.empty() && is_goal) {
        Finding finding = findings.start(Rule::fact_never_true, fact.place, thing, {"the world's goal", fact.name});
        finding.hint = Hint{"let something give it", fmt::format("gives = [\"{}\"]", fact.name)};
        findings.add(std::move(finding));
    }
    if (needs.empty() && !is_goal) {
        Finding finding = findings.start(Rule::fact_unread, fact.place, thing, {fact.name});
        relate(finding, gives, 0, "gives");
        finding.hint = Hint{"let something need it, or remove it", ""};
        findings.add(std::move(finding));
    }
    if (gives.size() > 1) {
        Finding finding = at(findings, Rule::fact_shared, gives[1], {fact.name, fmt::format("{}", gives.size())});
        finding.related.push_back({gives[0].place, fmt::format("{} gives it too", gives[0].words)});
        findings.add(std::move(finding));
    }
}

// Returns whether two names differ by one letter or an underscore, or by two neighbours swapped. A last letter or a
// digit that differs is common in numbering: crab_a and crab_b, door_1 and door_2.
bool are_twins(const std::string& a, const std::string& b) {
    const std::string &longer = a.size() >= b.size() ? a : b, &shorter = a.size() >= b.size() ? b : a;
    if (shorter.size() < 4 || longer.size() > shorter.size() + 1) return false;
    std::size_t same = 0;
    while (same < shorter.size() && shorter[same] == longer[same]) ++same;
    const bool extra = longer.size() > shorter.size();
    if (!extra && same + 1 < longer.size() && longer[same] == shorter[same + 1] && longer[same + 1] == shorter[same] &&
        longer.compare(same + 2, std::string::npos, shorter, same + 2) == 0)
        return true;
    if (longer.compare(same + 1, std::string::npos, shorter, same + (extra ? 0 : 1)) != 0) return false;
    const auto digit = [](char c) { return c >= '0' && c <= '9'; };
    if (extra) return !digit(longer[same]);
    const bool last = same + 1 == longer.size();
    return !last && !(digit(longer[same]) && digit(shorter[same]));
}

template <class Things>
void check_names(const char* sort, const Things& things, Findings& findings) {
    for (std::size_t i = 0; i < things.size(); ++i)
        for (std::size_t j = 0; j < i; ++j)
            if (are_twins(things[i].name, things[j].name)) {
                Finding finding =
                    findings.start(Rule::name_twins, things[i].place, fmt::format("{} '{}'", sort, things[i].name),
                                   {fmt::format("{}s", sort), things[j].name, things[i].name});
                if (!things[j].place.file.empty())
                    finding.related.push_back({things[j].place, fmt::format("'{}' is here", things[j].name)});
                finding.hint = Hint{"was one meant for the other? else give one another name", ""};
                findings.add(std::move(finding));
            }
}

// The name of a trigger of tiles or layers, each once, where it first appears: they are declared nowhere else.
struct TriggerName {
    std::string name;
    Place place;
};
std::vector<TriggerName> trigger_names(const World& world) {
    std::vector<TriggerName> names;
    const auto add = [&](const std::string& name, const Place& place) {
        if (!name.empty() &&
            std::none_of(names.begin(), names.end(), [&](const TriggerName& t) { return t.name == name; }))
            names.push_back({name, place});
    };
    for (const TileSet& set : world.tilesets())
        for (const Tile& tile : set.tiles)
            for (const Shape& shape : tile.shapes) add(shape.trigger, shape.place);
    for (const Map& map : world.maps())
        for (const Layer& layer : map.layers) add(layer.trigger, layer.place);
    return names;
}

// ---- several states of one thing: objects at one place that come and go ----

bool there(const Object& object, const std::vector<FactId>& facts, unsigned which) {
    const auto holds = [&](FactId fact) {
        const auto found = std::find(facts.begin(), facts.end(), fact);
        return found != facts.end() && (which >> (found - facts.begin()) & 1) != 0;
    };
    return std::all_of(object.when.begin(), object.when.end(), holds) &&
           std::none_of(object.unless.begin(), object.unless.end(), holds);
}

std::string said(const World& world, const std::vector<FactId>& facts, unsigned which) {
    std::vector<std::string> names;
    for (std::size_t i = 0; i < facts.size(); ++i)
        names.push_back((which >> i & 1) != 0 ? world.fact(facts[i]).name : "not " + world.fact(facts[i]).name);
    return fmt::format("when {}", fmt::join(names, " and "));
}

void check_states(const World& world, const Map& map, const std::vector<const Object*>& states, Findings& findings) {
    std::vector<FactId> facts;
    for (const Object* object : states)
        for (const auto* list : {&object->when, &object->unless})
            for (const FactId fact : *list)
                if (std::find(facts.begin(), facts.end(), fact) == facts.end()) facts.push_back(fact);
    if (facts.size() > 12) return;   // nobody sees through that; walking finds out
    const auto start = [&](Rule rule, const Object& a, const Object& b, unsigned which) {
        Finding finding = findings.start(rule, b.place, thing_of(map, b),
                                         {words_of(world, a), words_of(world, b), said(world, facts, which)});
        finding.map = map.name, finding.object = b.name;
        finding.layer = map.layer(b.layer).name;
        if (!a.place.file.empty()) finding.related.push_back({a.place, "the other is here"});
        return finding;
    };
    bool overlap = false, gap = false;
    for (unsigned which = 0; which < 1u << facts.size(); ++which) {
        std::vector<const Object*> present;
        for (const Object* object : states)
            if (there(*object, facts, which)) present.push_back(object);
        if (present.size() > 1 && !overlap) {
            overlap = true;
            Finding finding = start(Rule::states_overlap, *present[0], *present[1], which);
            finding.hint = Hint{"let one be there only unless the other is", "unless = […]"};
            findings.add(std::move(finding));
        }
        if (present.empty() && !gap) {
            gap = true;
            Finding finding = start(Rule::states_gap, *states[0], *states[1], which);
            finding.hint = Hint{"let one of them be there whenever the other is not", ""};
            findings.add(std::move(finding));
        }
    }
}

}   // namespace

void check_facts(const World& world, Findings& findings) {
    const Uses uses = Gatherer(world).run();
    for (std::size_t f = 0; f < world.facts().size(); ++f)
        check_fact(world, world.facts()[f], uses.gives[f], uses.needs[f], findings);
    for (std::size_t e = 0; e < world.events().size(); ++e)
        if (uses.runs[e].empty()) {
            Finding finding =
                findings.start(Rule::event_unused, world.events()[e].place,
                               fmt::format("event '{}'", world.events()[e].name), {world.events()[e].name});
            finding.hint = Hint{"let a trigger, link or reaction run it, or remove it",
                                fmt::format("runs = \"{}\"", world.events()[e].name)};
            findings.add(std::move(finding));
        }
    check_names("fact", world.facts(), findings);
    check_names("event", world.events(), findings);
    check_names("flag", world.flags(), findings);
    check_names("barrier", world.barriers(), findings);
    check_names("kind", world.kinds(), findings);
    check_names("mover", world.movers(), findings);
    check_names("storey", world.storeys(), findings);
    check_names("trigger", trigger_names(world), findings);
    for (const Map& map : world.maps()) {
        std::map<std::pair<std::int32_t, std::int32_t>, std::vector<const Object*>> by_place;
        for (const Object& object : map.objects)
            if (!object.when.empty() || !object.unless.empty())
                by_place[{object.position.x, object.position.y}].push_back(&object);
        for (const auto& [place, states] : by_place)
            if (states.size() > 1) check_states(world, map, states, findings);
    }
}

}   // namespace dryground::check_rules
