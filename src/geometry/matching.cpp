// The most segments along the axes no two of which meet.
//
// Idea. A largest matching (Hopcroft and Karp, "An n^5/2 algorithm for maximum matchings in bipartite graphs", SIAM
// Journal on Computing 2, 1973) gives a least set of segments that takes part in every meeting (König's theorem); all
// others are a largest set that is apart. Where segments meet a few others each, as in maps, all meetings are listed.
// In round figures there are n^2 of them: but an upright segment is visited once in a round, so each step searches for
// one that a level one meets and that was not visited, as in Imai and Asano, "Efficient algorithms for geometric graph
// search problems", SIAM Journal on Computing 15 (1986).
// Guarantee: the segments that stay are those that alternating ways reach from unmatched level ones, and the upright
// ones that they do not: the same for every largest matching. Without recursion: ways are as long as maps.

#include "matching_internal.hpp"

#include <algorithm>
#include <limits>
#include <set>

namespace dryground::detail {

namespace {

using Index = std::uint32_t;
constexpr Index none = std::numeric_limits<Index>::max();

// Both classes below find which vertical segments a horizontal one meets that were not visited in this round. In a
// round each horizontal segment asks for one layer only.

// Lists all meetings one by one, if there are no more than a few per segment.
class Listed {
public:
    Listed(std::span<const AxisSegment> levels, std::span<const AxisSegment> uprights) {
        struct Event {
            std::int32_t x;
            int order;   // a level segment starts, upright ones ask, it ends
            Index segment;
        };
        std::vector<Event> events;
        for (Index i = 0; i < levels.size(); ++i) {
            events.push_back({levels[i].from, 0, i});
            events.push_back({levels[i].to, 2, i});
        }
        for (Index i = 0; i < uprights.size(); ++i) events.push_back({uprights[i].at, 1, i});
        std::sort(events.begin(), events.end(), [](const Event& a, const Event& b) {
            return a.x != b.x ? a.x < b.x : a.order != b.order ? a.order < b.order : a.segment < b.segment;
        });
        struct Meeting {
            Index level, upright;
        };
        std::vector<Meeting> meetings;
        const std::size_t few = 32 * (levels.size() + uprights.size());
        std::set<std::pair<std::int32_t, Index>> active;   // y, level segment
        for (const Event& event : events) {
            if (event.order == 0) active.emplace(levels[event.segment].at, event.segment);
            if (event.order == 2) active.erase({levels[event.segment].at, event.segment});
            if (event.order != 1) continue;
            const AxisSegment& upright = uprights[event.segment];
            for (auto a = active.lower_bound({upright.from, 0}); a != active.end() && a->first <= upright.to; ++a)
                meetings.push_back({a->second, event.segment});
            if (meetings.size() > few) return;
        }
        complete_ = true;
        starts_.assign(levels.size() + 1, 0);
        for (const Meeting& meeting : meetings) ++starts_[meeting.level + 1];
        for (std::size_t i = 1; i < starts_.size(); ++i) starts_[i] += starts_[i - 1];
        met_.resize(meetings.size());
        next_ = starts_;
        for (const Meeting& meeting : meetings) met_[next_[meeting.level]++] = meeting.upright;
        visited_.resize(uprights.size());
    }

    [[nodiscard]] bool complete() const { return complete_; }

    void restart() { restart({}, 0); }
    void restart(std::span<const Index> layer_of, Index) {
        layer_of_ = layer_of;
        next_ = starts_;
        visited_.assign(visited_.size(), false);
    }

    Index visit(Index level, Index layer) {
        for (Index& i = next_[level]; i < starts_[level + 1];) {
            const Index upright = met_[i++];
            if (visited_[upright] || (!layer_of_.empty() && layer_of_[upright] != layer)) continue;
            visited_[upright] = true;
            return upright;
        }
        return none;
    }

private:
    bool complete_ = false;
    std::vector<Index> starts_, next_;   // of each level segment's list in `met_`
    std::vector<Index> met_;             // upright ones, from left to right
    std::vector<bool> visited_;
    std::span<const Index> layer_of_;
};

// A tree over the y of all horizontal segments: each node lists the vertical ones that span the node and not its
// parent, ordered by layer and x.
class Searched {
public:
    Searched(std::span<const AxisSegment> levels, std::span<const AxisSegment> uprights)
        : levels_(levels), uprights_(uprights) {
        for (const AxisSegment& level : levels) rows_.push_back(level.at);
        std::sort(rows_.begin(), rows_.end());
        rows_.erase(std::unique(rows_.begin(), rows_.end()), rows_.end());
        starts_.assign(2 * rows_.size() + 1, 0);
        for (const AxisSegment& upright : uprights) for_nodes(upright, [&](std::size_t node) { ++starts_[node + 1]; });
        for (std::size_t node = 1; node < starts_.size(); ++node) starts_[node] += starts_[node - 1];
        ranks_.resize(starts_.back());
        order_.resize(uprights.size());
        for (std::size_t i = 0; i < order_.size(); ++i) order_[i] = static_cast<Index>(i);
        std::sort(order_.begin(), order_.end(), [&](Index a, Index b) { return uprights[a] < uprights[b]; });
    }

    // Puts all in one layer, none visited.
    void restart() {
        by_layer_ = {0, static_cast<Index>(order_.size())};
        enter(order_);
    }
    // Separates them by layer, none visited; those of layer `none` are left out.
    void restart(std::span<const Index> layer_of, Index layers) {
        by_layer_.assign(layers + 1, 0);
        for (const Index layer : layer_of)
            if (layer != none) ++by_layer_[layer + 1];
        for (std::size_t i = 1; i < by_layer_.size(); ++i) by_layer_[i] += by_layer_[i - 1];
        std::vector<Index> sorted(by_layer_.back()), next = by_layer_;
        for (const Index upright : order_)
            if (layer_of[upright] != none) sorted[next[layer_of[upright]]++] = upright;
        enter(sorted);
    }

    // Returns the leftmost of a layer that a horizontal segment meets, which counts as visited from now on; `none` if
    // none is left.
    Index visit(Index index, Index layer) {
        const AxisSegment& level = levels_[index];
        const auto begin = ranked_.begin() + by_layer_[layer], end = ranked_.begin() + by_layer_[layer + 1];
        const auto first =
            std::lower_bound(begin, end, level.from, [&](Index u, auto x) { return uprights_[u].at < x; });
        const auto last = std::upper_bound(first, end, level.to, [&](auto x, Index u) { return x < uprights_[u].at; });
        const auto least = static_cast<Index>(first - ranked_.begin()),
                   most = static_cast<Index>(last - ranked_.begin());
        Index found = most;
        const auto row =
            static_cast<std::size_t>(std::lower_bound(rows_.begin(), rows_.end(), level.at) - rows_.begin());
        for (std::size_t node = row + rows_.size(); node > 0 && least < found; node /= 2) {
            const auto list = ranks_.begin() + starts_[node], list_end = ranks_.begin() + ends_[node];
            const Index entry =
                unvisited(static_cast<Index>(std::lower_bound(list, list_end, least) - ranks_.begin()), ends_[node]);
            if (entry < ends_[node]) found = std::min(found, ranks_[entry]);
        }
        if (found == most) return none;
        visited_[found] = true;
        return ranked_[found];
    }

private:
    template <class Use>
    void for_nodes(const AxisSegment& upright, const Use& use) const {
        const auto row = [&](auto found) { return static_cast<std::size_t>(found - rows_.begin()) + rows_.size(); };
        std::size_t a = row(std::lower_bound(rows_.begin(), rows_.end(), upright.from));
        std::size_t b = row(std::upper_bound(rows_.begin(), rows_.end(), upright.to));
        for (; a < b; a /= 2, b /= 2) {
            if (a % 2 == 1) use(a++);
            if (b % 2 == 1) use(--b);
        }
    }

    void enter(std::span<const Index> sorted) {
        ranked_.assign(sorted.begin(), sorted.end());
        visited_.assign(sorted.size(), false);
        ends_.assign(starts_.begin(), starts_.end() - 1);
        for (std::size_t rank = 0; rank < sorted.size(); ++rank)
            for_nodes(uprights_[sorted[rank]],
                      [&](std::size_t node) { ranks_[ends_[node]++] = static_cast<Index>(rank); });
        next_.resize(ranks_.size());
        for (std::size_t i = 0; i < next_.size(); ++i) next_[i] = static_cast<Index>(i);
    }

    // Returns the first entry from here on that was not visited, in a list that ends at `end`. Halves the path for
    // later searches.
    Index unvisited(Index entry, Index end) {
        while (entry < end) {
            if (next_[entry] == entry) {
                if (!visited_[ranks_[entry]]) break;
                next_[entry] = entry + 1;
            } else if (next_[entry] < end) {
                next_[entry] = next_[next_[entry]];
            }
            entry = next_[entry];
        }
        return entry;
    }

    std::span<const AxisSegment> levels_, uprights_;
    std::vector<std::int32_t> rows_;
    std::vector<Index> order_;           // upright segments by x
    std::vector<Index> by_layer_;        // where each layer starts in `ranked_`
    std::vector<Index> ranked_;          // upright segments by layer, then x: the place here is the rank
    std::vector<bool> visited_;          // by rank
    std::vector<Index> starts_, ends_;   // of each node's list in `ranks_`
    std::vector<Index> ranks_, next_;    // next_: where to go on from an entry, itself when it was not visited
};

template <class Meetings>
class Matcher {
public:
    Matcher(std::span<const AxisSegment> levels, std::span<const AxisSegment> uprights, Meetings meetings)
        : levels_(levels),
          meetings_(std::move(meetings)),
          mate_of_level_(levels.size(), none),
          mate_of_upright_(uprights.size(), none),
          layer_(uprights.size()),
          shortest_first_(levels.size()) {
        for (Index level = 0; level < levels.size(); ++level) shortest_first_[level] = level;
        const auto length = [&](Index level) { return std::int64_t{levels[level].to} - levels[level].from; };
        std::sort(shortest_first_.begin(), shortest_first_.end(),
                  [&](Index a, Index b) { return length(a) != length(b) ? length(a) < length(b) : a < b; });
    }

    Independent run() {
        while (find_layers())
            for (const Index level : shortest_first_)
                if (mate_of_level_[level] == none) augment(level);
        return what_is_left();
    }

private:
    // Finds the layers of vertical segments along alternating paths from unmatched horizontal ones, up to the first
    // that holds an unmatched one; returns whether there is one.
    bool find_layers() {
        meetings_.restart();
        layer_.assign(layer_.size(), none);
        reached_.clear();
        for (const Index level : shortest_first_)
            if (mate_of_level_[level] == none) reached_.push_back(level);
        bool found = false;
        Index layers = 0;
        for (std::size_t i = 0; i < reached_.size() && !found; ++layers)
            for (const std::size_t end = reached_.size(); i < end; ++i)
                for (Index b = meetings_.visit(reached_[i], 0); b != none; b = meetings_.visit(reached_[i], 0)) {
                    layer_[b] = layers;
                    if (mate_of_upright_[b] == none)
                        found = true;
                    else
                        reached_.push_back(mate_of_upright_[b]);
                }
        if (found) meetings_.restart(layer_, layers);
        layers_ = layers;
        return found;
    }

    void augment(Index start) {
        struct Step {
            Index level, upright;
        };
        std::vector<Step> way{{start, none}};
        while (!way.empty()) {
            const auto layer = static_cast<Index>(way.size() - 1);
            const Index b = layer < layers_ ? meetings_.visit(way.back().level, layer) : none;
            if (b == none) {
                way.pop_back();   // leads nowhere
                continue;
            }
            way.back().upright = b;
            if (mate_of_upright_[b] != none) {
                way.push_back({mate_of_upright_[b], none});
                continue;
            }
            for (const Step& step : way)
                mate_of_level_[step.level] = step.upright, mate_of_upright_[step.upright] = step.level;
            return;
        }
    }

    // The last search for layers has reached everything reachable.
    [[nodiscard]] Independent what_is_left() const {
        Independent left{std::vector<bool>(levels_.size(), false), std::vector<bool>(layer_.size(), true)};
        for (const Index level : reached_) left.levels[level] = true;
        for (std::size_t b = 0; b < layer_.size(); ++b) left.uprights[b] = layer_[b] == none;
        return left;
    }

    std::span<const AxisSegment> levels_;
    Meetings meetings_;
    std::vector<Index> mate_of_level_, mate_of_upright_, layer_, reached_;
    std::vector<Index> shortest_first_;   // of level ones: those that meet few others choose first
    Index layers_ = 0;
};

}   // namespace

Independent largest_independent_set(std::span<const AxisSegment> levels, std::span<const AxisSegment> uprights) {
    if (levels.empty() || uprights.empty())
        return {std::vector<bool>(levels.size(), true), std::vector<bool>(uprights.size(), true)};
    if (Listed listed(levels, uprights); listed.complete()) return Matcher(levels, uprights, std::move(listed)).run();
    return Matcher(levels, uprights, Searched(levels, uprights)).run();
}

}   // namespace dryground::detail
