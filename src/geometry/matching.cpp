// A largest matching (Hopcroft and Karp 1973) gives a least set of things that takes part in every conflict (König's
// theorem); all others are a largest set without conflict. Without recursion: chains of conflicts are as long as maps.

#include "matching_internal.hpp"

#include <limits>
#include <queue>

namespace dryground::detail {

namespace {

constexpr std::size_t none = std::numeric_limits<std::size_t>::max();

class Matcher {
public:
    Matcher(const std::vector<std::vector<std::size_t>>& conflicts, std::size_t second_count)
        : conflicts_(conflicts), mate_of_first_(conflicts.size(), none), mate_of_second_(second_count, none) {}

    Independent run() {
        while (find_layers()) {
            next_.assign(conflicts_.size(), 0);
            for (std::size_t a = 0; a < conflicts_.size(); ++a)
                if (mate_of_first_[a] == none) augment(a);
        }
        return what_is_left();
    }

private:
    // Distances along alternating paths from the unmatched of the first sort; whether one ends at an unmatched one of
    // the second.
    bool find_layers() {
        layer_.assign(conflicts_.size(), none);
        std::queue<std::size_t> queue;
        for (std::size_t a = 0; a < conflicts_.size(); ++a)
            if (mate_of_first_[a] == none) {
                layer_[a] = 0;
                queue.push(a);
            }
        bool found = false;
        for (; !queue.empty(); queue.pop()) {
            const std::size_t a = queue.front();
            for (const std::size_t b : conflicts_[a]) {
                const std::size_t mate = mate_of_second_[b];
                if (mate == none) {
                    found = true;
                } else if (layer_[mate] == none) {
                    layer_[mate] = layer_[a] + 1;
                    queue.push(mate);
                }
            }
        }
        return found;
    }

    void augment(std::size_t start) {
        path_.assign(1, start);
        while (!path_.empty()) {
            const std::size_t a = path_.back();
            if (next_[a] == conflicts_[a].size()) {
                layer_[a] = none;   // leads nowhere
                path_.pop_back();
                continue;
            }
            const std::size_t b = conflicts_[a][next_[a]++], mate = mate_of_second_[b];
            if (mate == none) {
                for (const std::size_t step : path_) match(step, conflicts_[step][next_[step] - 1]);
                return;
            }
            if (layer_[mate] == layer_[a] + 1) path_.push_back(mate);
        }
    }
    void match(std::size_t a, std::size_t b) { mate_of_first_[a] = b, mate_of_second_[b] = a; }

    // Reached from the unmatched of the first sort: those of the first sort stay, those of the second go.
    Independent what_is_left() {
        Independent left{std::vector<bool>(conflicts_.size(), false), std::vector<bool>(mate_of_second_.size(), true)};
        std::vector<std::size_t> open;
        for (std::size_t a = 0; a < conflicts_.size(); ++a)
            if (mate_of_first_[a] == none) {
                left.first[a] = true;
                open.push_back(a);
            }
        while (!open.empty()) {
            const std::size_t a = open.back();
            open.pop_back();
            for (const std::size_t b : conflicts_[a]) {
                if (!left.second[b]) continue;
                left.second[b] = false;
                const std::size_t mate = mate_of_second_[b];
                if (mate == none || left.first[mate]) continue;
                left.first[mate] = true;
                open.push_back(mate);
            }
        }
        return left;
    }

    const std::vector<std::vector<std::size_t>>& conflicts_;
    std::vector<std::size_t> mate_of_first_, mate_of_second_, layer_, next_, path_;
};

}   // namespace

Independent largest_independent_set(const std::vector<std::vector<std::size_t>>& conflicts, std::size_t second_count) {
    return Matcher(conflicts, second_count).run();
}

}   // namespace dryground::detail
