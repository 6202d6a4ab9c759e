// Routes and reasons in words.

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <array>
#include <cmath>

#include "../model/words_internal.hpp"
#include "dryground/text.hpp"
#include "dryground/travel.hpp"

namespace dryground {

namespace {

std::string rounded(double px) { return fmt::format("{}", std::lround(px)); }
std::string at(PointPx p) { return fmt::format("({}, {})", rounded(p.x), rounded(p.y)); }

std::vector<std::string> names(const World& world, const Facts& facts) {
    std::vector<std::string> names;
    for (const FactId fact : facts) names.push_back(world.fact(fact).name);
    return names;
}

std::string name_of_thing(const World& world, const Map& map, ObjectId object, LayerId layer, Cell cell) {
    if (object != ObjectId::none) {
        const Object& of = map.object(object);
        if (!of.name.empty()) return fmt::format("'{}'", of.name);
        return fmt::format("a {} at {}", world.kind(of.kind).name, at({to_px(of.position.x), to_px(of.position.y)}));
    }
    if (layer == LayerId::none) return "something";
    const Placed& placed = map.placed(map.layer(layer), map.data_cell(cell));
    const std::string tile = placed.tile < 0 ? "tile" : world.tile(placed).name;
    return fmt::format("{} on cell ({}, {})", tile, cell.column, cell.row);
}

std::string_view word_for(Fires fires) {
    switch (fires) {
        case Fires::enter:
            return "enters";
        case Fires::inside:
            return "stays in";
        case Fires::leave:
            return "leaves";
        case Fires::use:
            return "uses";
        case Fires::bump:
            return "bumps";
        case Fires::defeat:
            return "defeats";
        case Fires::start:
            return "starts";
    }
    return "";
}

bool is_move(const RouteStep& step) {
    return step.going != Going::starts && step.going != Going::link && step.going != Going::stairs &&
           step.going != Going::does;
}
// Of less than half a px, from one place to the next: a line of its own would say "0 px".
bool is_hardly_a_move(const RouteStep& step) {
    return is_move(step) && step.going != Going::steps && step.going != Going::rides && step.px < 0.5;
}
bool enters(const RouteStep& step) {
    return (step.going == Going::does || step.going == Going::link || step.going == Going::stairs) &&
           (step.fires == Fires::enter || step.fires == Fires::inside);
}

class RouteText {
public:
    RouteText(const World& world, const Route& route) : world_(world), route_(route) {}

    std::string write() {
        const std::vector<int> numbers = line_numbers(route_);
        for (std::size_t i = 0; i < route_.size(); ++i) {
            const RouteStep& step = route_[i];
            if (step.going == Going::starts) {
                text_ += fmt::format("{} starts on {} at {}\n", mover(step), map_of(step).name, at(step.from.at));
            } else if (is_hardly_a_move(step)) {
                continue;
            } else if (i + 1 < route_.size() && numbers[i + 1] == numbers[i] && is_move(step)) {
                const RouteStep& next = route_[++i];
                line(numbers[i], fmt::format("{} to {}", how(step), thing(next)), next);
            } else {
                line(numbers[i],
                     is_move(step) ? fmt::format("{} to {}", how(step), end(step, i == 0 ? step : route_[i - 1]))
                                   : fmt::format("{} {}", word_for(step.fires), thing(step)),
                     step);
            }
        }
        return std::move(text_);
    }

private:
    [[nodiscard]] const Map& map_of(const RouteStep& step) const { return world_.map(step.from.map); }
    [[nodiscard]] std::string mover(const RouteStep& step) const { return world_.mover(step.mover).name; }
    [[nodiscard]] std::string thing(const RouteStep& step) const {
        return name_of_thing(world_, map_of(step), step.object, step.layer, step.cell);
    }
    // Getting onto something that moves is described with what it is.
    [[nodiscard]] std::string end(const RouteStep& step, const RouteStep& before) const {
        const ObjectId on = step.carrier.object;
        if (on == ObjectId::none || on == before.carrier.object) return at(step.to.at);
        return fmt::format("{} at {}", name_of_thing(world_, map_of(step), on, LayerId::none, {}), at(step.to.at));
    }
    [[nodiscard]] std::string how(const RouteStep& step) const {
        if (step.going == Going::jumps) {
            double up = step.from.at.y - step.to.at.y;
            const double aside = std::abs(step.to.at.x - step.from.at.x);
            if (std::abs(up) < 1 && aside < 1)   // to touch what is above, and down again
                for (const PointPx p : step.way) up = std::max(up, step.from.at.y - p.y);
            const std::string_view way = up >= 1 ? "up" : up <= -1 ? "down" : "";
            return way.empty() ? fmt::format("jumps {} px across", rounded(aside))
                               : fmt::format("jumps {} px {}", rounded(std::abs(up)), way);
        }
        if (step.going == Going::rides) return fmt::format("rides {} {} px", thing(step), rounded(step.px));
        if (step.going == Going::drops) return fmt::format("drops {} px", rounded(step.to.at.y - step.from.at.y));
        if (step.going == Going::steps) {
            const std::size_t count = step.way.empty() ? 0 : step.way.size() - 1;
            return "goes " + counted(count, "cell");
        }
        return fmt::format("{} {} px", name_of(step.going), rounded(step.px));
    }
    void line(int number, const std::string& what, const RouteStep& step) {
        std::string more;
        if (!step.needs.empty()) more += fmt::format("  needs {}", fmt::join(names(world_, step.needs), ", "));
        if (!step.gained.empty()) more += fmt::format("  gives {}", fmt::join(names(world_, step.gained), ", "));
        if (step.going == Going::link)
            more += fmt::format("  leads to {} at {}", world_.map(step.to.map).name, at(step.to.at));
        if (step.going == Going::stairs)
            more += fmt::format("  leads to storey {}", world_.storey(step.to.storey).name);
        text_ += fmt::format("{:>3}  {}  {}{}\n", number, map_of(step).name, what, more);
    }

    const World& world_;
    const Route& route_;
    std::string text_;
};

constexpr std::array<std::string_view, 3> reached_words{"yes", "no", "not_decided"};
constexpr std::array<std::string_view, 11> going_words{"starts", "walks", "drops",  "jumps", "climbs", "goes",
                                                       "steps",  "rides", "stairs", "link",  "does"};

}   // namespace

std::string_view name_of(Reached reached) { return reached_words[static_cast<std::size_t>(reached)]; }
std::string_view name_of(Going going) { return going_words[static_cast<std::size_t>(going)]; }

// Going to what is entered is one thing with entering it.
std::vector<int> line_numbers(const Route& route) {
    std::vector<int> numbers;
    int number = 0;
    for (std::size_t i = 0; i < route.size(); ++i) {
        if (is_hardly_a_move(route[i])) {   // it belongs to what follows
            numbers.push_back(i + 1 < route.size() ? number + 1 : number);
            continue;
        }
        const bool goes_on = i > 0 && is_move(route[i - 1]) && !is_hardly_a_move(route[i - 1]) && enters(route[i]);
        if (route[i].going != Going::starts && !goes_on) ++number;
        numbers.push_back(number);
    }
    return numbers;
}

std::string text(const World& world, const Route& route) { return RouteText(world, route).write(); }

std::string text(const World& world, const InTheWay& in_the_way) {
    using Sort = InTheWay::Sort;
    const auto fact = [&] { return world.fact(in_the_way.fact).name; };
    const auto lock = [&] {
        if (in_the_way.map == MapId::none || (in_the_way.object == ObjectId::none && in_the_way.layer == LayerId::none))
            return std::string("the way");
        const Map& map = world.map(in_the_way.map);
        return fmt::format("{}/{}", map.name,
                           name_of_thing(world, map, in_the_way.object, in_the_way.layer, in_the_way.cell));
    };
    const auto from = [&] {
        return fmt::format("{} on {}", at(in_the_way.from.at), world.map(in_the_way.from.map).name);
    };
    const auto by = [&] { return fmt::format("{} px", in_the_way.by_px); };
    switch (in_the_way.sort) {
        case Sort::nothing:
            return "nothing is in the way";
        case Sort::needs_fact:
            return fmt::format("{} needs {}, which cannot be had before", lock(), fact());
        case Sort::fact_never_given:
            return in_the_way.map == MapId::none
                       ? fmt::format("nothing that can be set off gives {}", fact())
                       : fmt::format("{} needs {}, which nothing that can be set off gives", lock(), fact());
        case Sort::behind_itself:
            return fmt::format("{} needs {}, which is given only behind it", lock(), fact());
        case Sort::too_high:
            return fmt::format("{} above the highest jump from {}", by(), from());
        case Sort::too_far:
            return fmt::format("{} further than the longest jump from {}", by(), from());
        case Sort::too_narrow:
            return fmt::format("the passage at {} is {} too tight", from(), by());
        case Sort::closed:
            return "no way leads there";
        case Sort::nowhere:
            return "nothing that can be reached leads to its map";
    }
    return "";
}

}   // namespace dryground
