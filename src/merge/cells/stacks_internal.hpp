// Inside the merge room: what tiles on top of each other cover, by number.
#pragma once

#include <deque>
#include <map>
#include <vector>

#include "../../model/grid_internal.hpp"
#include "cover_internal.hpp"
#include "stacking_internal.hpp"

namespace dryground::detail {

// Stacks as a tree: a stack is the one below it and what comes on top.
class Stacks {
public:
    Stacks(const Map& map, const Grid& grid, const Plan& plan) : map_(map), grid_(grid), plan_(plan) {
        stacks_.push_back({});
        cover_of_.push_back(intern(empty_cover()));
    }

    // Returns the stack that results from step `step` with meaning `meaning` (for a loose step: 1, it covers the cell).
    std::uint32_t on_top(std::uint32_t stack, std::size_t step, std::uint32_t meaning) {
        const std::vector<std::uint32_t>& tops = stacks_[stack].tops;
        const std::size_t place = first_of(step) + meaning;
        return place < tops.size() && tops[place] != 0 ? tops[place] : make(stack, step, meaning, place);
    }
    [[nodiscard]] std::size_t size() const { return stacks_.size(); }
    [[nodiscard]] std::uint32_t cover_of(std::uint32_t stack) const { return cover_of_[stack]; }
    [[nodiscard]] const Cover& cover(std::uint32_t id) const { return *covers_[id]; }

private:
    struct Stack {
        std::vector<std::pair<std::size_t, std::uint32_t>> steps;   // and meanings
        std::vector<std::uint32_t> tops;
    };

    std::uint32_t make(std::uint32_t below, std::size_t step, std::uint32_t meaning, std::size_t place);
    std::size_t first_of(std::size_t step) {
        while (first_.size() <= step) {
            const std::size_t s = first_.size();
            first_.push_back(s == 0 ? 0 : first_[s - 1] + plan_.steps[s - 1].parts.size() + 2);
        }
        return first_[step];
    }

    [[nodiscard]] Cover cover_for(const Stack& stack) const;
    std::uint32_t intern(Cover cover) {
        const auto [found, added] = ids_.try_emplace(std::move(cover), static_cast<std::uint32_t>(covers_.size()));
        if (added) covers_.push_back(&found->first);
        return found->second;
    }

    const Map& map_;
    const Grid& grid_;
    const Plan& plan_;
    std::vector<std::size_t> first_;
    std::deque<Stack> stacks_;
    std::vector<std::uint32_t> cover_of_;
    std::map<Cover, std::uint32_t> ids_;
    std::vector<const Cover*> covers_;
};

}   // namespace dryground::detail
