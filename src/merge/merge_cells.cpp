// Merging a group cell by cell.
//
// Idea. Most cells of a map repeat. The steps of a group are read row by row, and what lies on a cell (its stack) gets
// a number: the same number for the same tiles on top of each other. A stack's area is worked out once, by the general
// boolean, as a cover; an outline is then traced over rows of covers (outline.cpp). Area that does not keep to its
// cells is dealt with in loose.cpp, which gives the cells that its edges touch covers of their own; cells that lie
// wholly within it have it in their stacks.
//
// Cost: a table look-up for each cell and step, the general boolean for each distinct stack, and the outline's.

#include <bit>
#include <cstring>
#include <deque>
#include <map>

#include "grid_internal.hpp"
#include "loose_internal.hpp"
#include "outline_internal.hpp"
#include "stacking_internal.hpp"

namespace dryground::detail {

namespace {

// Stacks as a tree: a stack is the one below it and what comes on top.
class Stacks {
public:
    Stacks(const Map& map, const Grid& grid, const Plan& plan) : map_(map), grid_(grid), plan_(plan) {
        stacks_.push_back({});
        cover_of_.push_back(intern(empty_cover()));
    }

    // What step `step` puts on a stack when its meaning is `meaning` (for a loose step: 1, it covers the cell).
    std::uint32_t on_top(std::uint32_t stack, std::size_t step, std::uint32_t meaning) {
        std::vector<std::uint32_t>& tops = stacks_[stack].tops;
        const std::size_t place = first_of(step) + meaning;
        if (tops.size() <= place) tops.resize(place + 1, 0);
        if (tops[place] != 0) return tops[place];
        const auto made = static_cast<std::uint32_t>(stacks_.size());
        tops[place] = made;
        Stack next;
        next.steps = stacks_[stack].steps;
        next.steps.emplace_back(step, meaning);
        cover_of_.push_back(intern(cover_for(next)));
        stacks_.push_back(std::move(next));
        return made;
    }

    [[nodiscard]] std::size_t size() const { return stacks_.size(); }
    [[nodiscard]] std::uint32_t cover_of(std::uint32_t stack) const { return cover_of_[stack]; }
    [[nodiscard]] const Cover& cover(std::uint32_t id) const { return *covers_[id]; }
    [[nodiscard]] const Cover& full() { return cover(intern(full_cover(0))); }

private:
    struct Stack {
        std::vector<std::pair<std::size_t, std::uint32_t>> steps;   // and meanings
        std::vector<std::uint32_t> tops;
    };

    std::size_t first_of(std::size_t step) {
        while (first_.size() <= step) {
            const std::size_t s = first_.size();
            first_.push_back(s == 0 ? 0 : first_[s - 1] + plan_.steps[s - 1].parts.size() + 2);
        }
        return first_[step];
    }

    Cover cover_for(const Stack& stack) {
        std::vector<Coat> coats;
        const Regions cell = {{{{0, 0}, moved_by(1, 0), moved_by(1, 1), moved_by(0, 1)}, {}}};
        for (const auto& [number, meaning] : stack.steps) {
            const Step& step = plan_.steps[number];
            if (step.layer == nullptr) {
                coats.push_back({step.loose.adds, step.loose.label, cell});
                continue;
            }
            std::map<std::pair<bool, int>, Regions> areas;
            for (const Part& part : step.parts[meaning - 1]) {
                Regions& area = areas[{part.adds, part.label}];
                area.insert(area.end(), part.area.begin(), part.area.end());
            }
            for (auto& [sort, area] : areas) coats.push_back({sort.first, sort.second, std::move(area)});
        }
        std::vector<LabelledRing> rings = dryground::stack(coats).rings;
        for (LabelledRing& ring : rings)
            for (Point& p : ring.points) p = grid_.flat(p);
        return make_cover(rings, grid_.width(), grid_.height());
    }

    [[nodiscard]] Point moved_by(int columns, int rows) const {
        const Point a = map_.corner(0, 0), b = map_.corner(columns, rows);
        return {b.x - a.x, b.y - a.y};
    }

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

constexpr std::uint8_t full_bit = 1, mixed_bit = 2;

// Gathers the given bit of 64 bytes.
std::uint64_t gather(const std::uint8_t* bytes, int bit) {
    std::uint64_t result = 0;
    for (int i = 0; i < 8; ++i) {
        std::uint64_t eight = 0;
        std::memcpy(&eight, bytes + 8 * i, 8);
        eight = eight >> bit & 0x0101010101010101u;
        result |= eight * 0x0102040810204080u >> 56 << (8 * i);
    }
    return result;
}

class Rows final : public CellRows {
public:
    Rows(const Map& map, const Grid& grid, const Plan& plan, const LooseArea& loose)
        : map_(map), plan_(plan), loose_(loose), stacks_(map, grid, plan), margin_(loose.margin) {
        columns = map.columns + 2 * margin_;
        rows = map.rows + 2 * margin_;
        corner = grid.flat(map.corner(-margin_, -margin_));
        width = grid.width();
        height = grid.height();
        for (std::size_t s = 0; s < plan.steps.size(); ++s) one_step_ = s;
        only_cells_ = plan.steps.size() == 1 && plan.steps[0].layer != nullptr;
        if (only_cells_) {
            for (const std::uint32_t meaning : plan.steps[0].meaning)
                stack_of_.push_back(meaning == 0 ? 0 : stacks_.on_top(0, 0, meaning));
        }
        first_lone = first_own;
        choose_base_label();
    }

    void fill(int row, std::uint64_t* full, std::uint64_t* mixed, std::uint32_t* ids) override {
        const int r = row - margin_;
        if (r >= 0 && r < map_.rows && only_cells_) {
            const std::uint32_t* cells = plan_.steps[0].layer->cells.data() +
                                         static_cast<std::size_t>(r) * static_cast<std::size_t>(map_.columns);
            tell(cells, stack_of_, map_.columns, margin_, full, mixed, ids);
        } else if (!only_cells_) {
            stack_row(r);
            tell(row_.data(), {}, columns, 0, full, mixed, ids);
        }
        if (plan_.rim) add_rim(r, full, mixed, ids);
        if (static_cast<std::size_t>(row) < loose_.rows.size())
            for (const OwnCover& own : loose_.rows[static_cast<std::size_t>(row)]) {
                const auto c = static_cast<std::size_t>(own.column);
                full[c / 64] &= ~(std::uint64_t{1} << c % 64);
                mixed[c / 64] |= std::uint64_t{1} << c % 64;
                ids[c] = first_own + own.cover;
            }
    }

    [[nodiscard]] const Cover& cover(std::uint32_t id) const override {
        return id >= first_own ? loose_.covers[id - first_own] : stacks_.cover(id);
    }
    [[nodiscard]] const Whole& whole() const override { return loose_.whole; }

private:
    static constexpr std::uint32_t first_own = std::uint32_t{1} << 30;

    // Full cells of the label that the first full stack has are told by a bit alone.
    void choose_base_label() {
        if (plan_.rim) return;   // its label is 0
        for (const Step& step : plan_.steps) {
            for (const std::vector<Part>& parts : step.parts)
                for (const Part& part : parts)
                    if (part.adds) {
                        base_label = part.label;
                        return;
                    }
            if (step.layer == nullptr && step.loose.adds) {
                base_label = step.loose.label;
                return;
            }
        }
    }

    [[nodiscard]] std::uint8_t sort_of(std::uint32_t stack) const {
        const Cover& cover = stacks_.cover(stacks_.cover_of(stack));
        if (cover.filling == Filling::empty) return 0;
        return cover.filling == Filling::full && cover.label == base_label ? full_bit : mixed_bit;
    }

    // The stacks of an extended row, by number.
    void stack_row(int r) {
        row_.assign(static_cast<std::size_t>(columns), 0);
        for (std::size_t s = 0; s < plan_.steps.size(); ++s) {
            const Step& step = plan_.steps[s];
            if (step.layer == nullptr) {
                for (const auto& [first, last] : loose_.runs_of(s, r + margin_))
                    for (int c = first; c < last; ++c) put(row_[static_cast<std::size_t>(c)], s, 1);
                continue;
            }
            if (r < 0 || r >= map_.rows) continue;
            const std::uint32_t* cells =
                step.layer->cells.data() + static_cast<std::size_t>(r) * static_cast<std::size_t>(map_.columns);
            for (int c = 0; c < map_.columns; ++c)
                if (const std::uint32_t meaning = step.meaning[cells[c]]; meaning != 0)
                    put(row_[static_cast<std::size_t>(c + margin_)], s, meaning);
        }
    }
    void put(std::uint32_t& stack, std::size_t step, std::uint32_t meaning) {
        stack = stacks_.on_top(stack, step, meaning);
    }

    // Tells cells apart by what their numbers mean: stacks, by way of a table if there is one.
    void tell(const std::uint32_t* cells, const std::vector<std::uint32_t>& table, int count, int shift,
              std::uint64_t* full, std::uint64_t* mixed, std::uint32_t* ids) {
        const std::size_t numbers = table.empty() ? stacks_.size() : table.size();
        for (std::size_t n = sorts_.size(); n < numbers; ++n)
            sorts_.push_back(sort_of(table.empty() ? static_cast<std::uint32_t>(n) : table[n]));
        std::uint8_t bytes[64];
        for (int start = 0; start < count; start += 64) {
            const int size = std::min(64, count - start);
            if (size < 64) std::memset(bytes, 0, sizeof bytes);
            for (int i = 0; i < size; ++i) bytes[i] = sorts_[cells[start + i]];
            or_in(full, start + shift, gather(bytes, 0));
            std::uint64_t rest = gather(bytes, 1);
            if (rest == 0) continue;
            or_in(mixed, start + shift, rest);
            for (; rest != 0; rest &= rest - 1) {
                const int c = start + std::countr_zero(rest);
                const std::uint32_t stack = table.empty() ? cells[c] : table[cells[c]];
                ids[c + shift] = stacks_.cover_of(stack);
            }
        }
    }
    static void or_in(std::uint64_t* mask, int at, std::uint64_t bits) {
        mask[at / 64] |= bits << at % 64;
        if (at % 64 != 0) {
            const std::uint64_t over = bits >> (64 - at % 64);
            if (over != 0) mask[at / 64 + 1] |= over;
        }
    }

    void add_rim(int r, std::uint64_t* full, std::uint64_t* mixed, std::uint32_t* ids) {
        (void)ids;
        const int first = margin_ - 1, last = margin_ + map_.columns;
        const auto set = [&](int c) {
            full[c / 64] |= std::uint64_t{1} << c % 64;
            mixed[c / 64] &= ~(std::uint64_t{1} << c % 64);
        };
        if (r == -1 || r == map_.rows)
            for (int c = first; c <= last; ++c) set(c);
        else if (r >= 0 && r < map_.rows)
            set(first), set(last);
    }

    const Map& map_;
    const Plan& plan_;
    const LooseArea& loose_;
    Stacks stacks_;
    int margin_;
    std::size_t one_step_ = 0;
    bool only_cells_ = false;
    std::vector<std::uint32_t> stack_of_;   // of each number of the palette
    std::vector<std::uint8_t> sorts_;       // of each such number, or stack
    std::vector<std::uint32_t> row_;
};

}   // namespace

Stacked merge_cells(const Map& map, const Plan& plan, bool labelled) {
    const Grid grid(map);
    const std::optional<LooseArea> loose = loose_area(map, grid, plan);
    if (!loose) return merge_generally(map, plan);
    Rows rows(map, grid, plan, *loose);
    return rings_of(trace_outline(rows), grid, labelled);
}

}   // namespace dryground::detail
