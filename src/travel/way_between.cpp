#include <algorithm>

#include "ways_internal.hpp"

namespace dryground::travel {

std::optional<Route> way_between(Ways& ways, int mover, const Spot& from, const Spot& to) {
    const int first = ways.place_at(from.storey, steps_of(from.at)), last = ways.place_at(to.storey, steps_of(to.at));
    if (first < 0 || last < 0 || from.storey != to.storey) return std::nullopt;
    struct Came {
        int place = -1;
        const Move* by = nullptr;
    };
    std::vector<Came> came(static_cast<std::size_t>(ways.places()));
    std::vector<char> known(came.size());
    std::vector<int> open{first};
    known[static_cast<std::size_t>(first)] = 1;
    for (std::size_t i = 0; i < open.size() && known[static_cast<std::size_t>(last)] == 0; ++i)
        for (const Move& move : ways.moves(open[i])) {
            const auto next = static_cast<std::size_t>(move.to);
            if (known[next] != 0) continue;
            known[next] = 1, came[next] = {open[i], &move};
            open.push_back(move.to);
        }
    if (known[static_cast<std::size_t>(last)] == 0) return std::nullopt;
    std::vector<std::pair<int, const Move*>> moves;   // from which place
    for (int place = last; place != first; place = moves.back().first)
        moves.emplace_back(came[static_cast<std::size_t>(place)].place, came[static_cast<std::size_t>(place)].by);
    std::reverse(moves.begin(), moves.end());

    Route route;
    Spot at = from;
    const auto add = [&](Going going, const Ring& way) {
        if (way.size() < 2) return;
        RouteStep step;
        step.going = going, step.mover = mover, step.from = step.to = at, step.px = length_px(way);
        for (const Point p : way) step.way.push_back(px_of(p));
        step.to.at = step.way.back();
        at = step.to;
        route.push_back(std::move(step));
    };
    const auto within = [&](int place, Point end) {
        if (steps_of(at.at) != end) add(ways.going(place), ways.way_within(place, steps_of(at.at), end));
    };
    for (const auto& [place, move] : moves) {
        within(place, move->way.front());
        add(move->going, move->way);
    }
    within(last, steps_of(to.at));
    return route;
}

}   // namespace dryground::travel
