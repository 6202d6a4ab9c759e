// The way between two positions of a storey by the fewest leaps, then the fewest moves.
//
// Idea. Breadth first in layers of equal leaps; even moves stay in a layer. Cost: O(places and moves).

#include <algorithm>
#include <deque>
#include <limits>
#include <utility>

#include "ways_internal.hpp"

namespace dryground::travel {

std::optional<Route> way_between(Ways& ways, MoverId mover, const Spot& from, const Spot& to) {
    const int first = ways.place_at(from.storey, steps_of(from.at)), last = ways.place_at(to.storey, steps_of(to.at));
    if (first < 0 || last < 0 || from.storey != to.storey) return std::nullopt;
    struct Came {
        int place = -1;
        const Move* by = nullptr;
    };
    std::vector<Came> came(static_cast<std::size_t>(ways.places()));
    constexpr int unknown = std::numeric_limits<int>::max();
    std::vector<int> leaps(came.size(), unknown);   // by place: how many lead there
    std::deque<int> open{first}, later;
    leaps[static_cast<std::size_t>(first)] = 0;
    std::vector<char> gone_on(came.size());
    for (; !open.empty() || !later.empty();) {
        if (open.empty()) open.swap(later);
        const int place = open.front();
        open.pop_front();
        if (place == last) break;
        if (std::exchange(gone_on[static_cast<std::size_t>(place)], 1) != 0) continue;
        const int here = leaps[static_cast<std::size_t>(place)];
        for (const Move& move : ways.moves(place)) {
            const auto next = static_cast<std::size_t>(move.to);
            const int then = here + (is_even(move.going) ? 0 : 1);
            if (leaps[next] <= then) continue;
            leaps[next] = then, came[next] = {place, &move};
            (then == here ? open : later).push_back(move.to);
        }
    }
    if (leaps[static_cast<std::size_t>(last)] == unknown) return std::nullopt;
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
