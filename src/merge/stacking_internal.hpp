// Inside the merge room: a map's shapes as coats, group by group.
#pragma once

#include <map>
#include <tuple>

#include "dryground/merge.hpp"

namespace dryground::detail {

struct GroupKey {
    int storey = 0;
    int barrier = -1;      // -1 for a trigger group
    std::string trigger;   // empty for a barrier group
    friend auto operator<=>(const GroupKey&, const GroupKey&) = default;
};

struct Stacking {
    std::map<GroupKey, std::vector<Coat>> coats;   // from the bottom up; labels are indices into `surfaces`
    std::vector<Surface> surfaces{Surface{}};
    MergeStats stats;
};

[[nodiscard]] Stacking stack_up(const World& world, const Map& map);

}   // namespace dryground::detail
