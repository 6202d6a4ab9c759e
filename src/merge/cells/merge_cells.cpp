// Merging a group cell by cell.
//
// Idea. Most cells of a map repeat. The steps of a group are read row by row, and what lies on a cell (its stack) gets
// a number: the same number for the same tiles on top of each other. A stack's area is worked out once, by the general
// boolean, as a cover; an outline is then traced over rows of covers (outline.cpp). Area that extends beyond its cells
// is handled in loose.cpp, which gives the cells that its edges touch covers of their own; cells that lie wholly within
// it have it in their stacks.
//
// Cost: a table look-up for each cell and step, the general boolean for each distinct stack, and the outline's.

#include <algorithm>
#include <bit>
#include <cstring>

#include "../../model/grid_internal.hpp"
#include "loose_internal.hpp"
#include "outline_internal.hpp"
#include "rings_before_internal.hpp"
#include "stacks_internal.hpp"

namespace dryground::detail {

namespace {

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
    // The block may extend beyond the map.
    Rows(const Map& map, const Grid& grid, const Plan& plan, const LooseArea& loose, Stacks& stacks, const Block& block)
        : map_(map), plan_(plan), loose_(loose), stacks_(stacks), block_(block) {
        columns = block.columns;
        rows = block.rows;
        corner = grid.flat(map.corner(block.column, block.row));
        width = grid.width();
        height = grid.height();
        first_ = std::max(0, block.column);
        last_ = std::max(first_, std::min(map.columns, block.column + block.columns));
        only_cells_ = plan.steps.size() == 1 && plan.steps[0].layer != nullptr;
        if (only_cells_) {
            for (const std::uint32_t meaning : plan.steps[0].meaning)
                stack_of_.push_back(meaning == 0 ? 0 : stacks_.on_top(0, 0, meaning));
        }
        first_lone = first_own;
        choose_base_label();
    }

    void fill(int row, std::uint64_t* full, std::uint64_t* mixed, std::uint32_t* ids) override {
        const int r = row + block_.row;
        if (r >= 0 && r < map_.rows && only_cells_) {
            tell(cells_of(plan_.steps[0], r), stack_of_, last_ - first_, first_ - block_.column, full, mixed, ids);
        } else if (!only_cells_) {
            stack_row(row, r);
            tell(row_.data(), {}, columns, 0, full, mixed, ids);
        }
        if (plan_.holds_rim) add_rim(r, full, mixed);
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
    [[nodiscard]] const SpanningArea& whole() const override { return loose_.whole; }

private:
    static constexpr std::uint32_t first_own = std::uint32_t{1} << 30;

    // Full cells with the label of the first full stack are marked by a single bit.
    void choose_base_label() {
        if (plan_.holds_rim) return;   // its label is 0
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

    // Returns a row's cells from the block's first one in the map on.
    [[nodiscard]] const std::uint32_t* cells_of(const Step& step, int r) const {
        return step.layer->cells.data() + static_cast<std::size_t>(r) * static_cast<std::size_t>(map_.columns) +
               static_cast<std::size_t>(first_);
    }

    // Finds the stacks of a row, by number.
    void stack_row(int row, int r) {
        row_.assign(static_cast<std::size_t>(columns), 0);
        for (std::size_t s = 0; s < plan_.steps.size(); ++s) {
            const Step& step = plan_.steps[s];
            if (step.layer == nullptr) {
                for (const auto& [first, last] : loose_.runs_of(s, row))
                    for (int c = first; c < last; ++c) put(row_[static_cast<std::size_t>(c)], s, 1);
                continue;
            }
            if (r < 0 || r >= map_.rows) continue;
            const std::uint32_t* cells = cells_of(step, r);
            std::uint32_t* stacks = row_.data() + (first_ - block_.column);
            for (int c = 0; c < last_ - first_; ++c)
                if (const std::uint32_t meaning = step.meaning[cells[c]]; meaning != 0) put(stacks[c], s, meaning);
        }
    }
    void put(std::uint32_t& stack, std::size_t step, std::uint32_t meaning) {
        stack = stacks_.on_top(stack, step, meaning);
    }

    // Classifies cells by what their numbers mean: by stack, through a table if there is one.
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

    void add_rim(int r, std::uint64_t* full, std::uint64_t* mixed) {
        const auto set = [&](int column) {
            const int c = column - block_.column;
            if (c < 0 || c >= columns) return;
            full[c / 64] |= std::uint64_t{1} << c % 64;
            mixed[c / 64] &= ~(std::uint64_t{1} << c % 64);
        };
        if (r == -1 || r == map_.rows)
            for (int c = -1; c <= map_.columns; ++c) set(c);
        else if (r >= 0 && r < map_.rows)
            set(-1), set(map_.columns);
    }

    const Map& map_;
    const Plan& plan_;
    const LooseArea& loose_;
    Stacks& stacks_;
    Block block_;
    int first_ = 0, last_ = 0;   // the map's columns in the block
    bool only_cells_ = false;
    std::vector<std::uint32_t> stack_of_;   // of each number of the palette
    std::vector<std::uint8_t> sorts_;       // of each such number, or stack
    std::vector<std::uint32_t> row_;
};

}   // namespace

struct CellMerger::Parts {
    Parts(const Map& m, const Plan& p) : map(m), plan(p), grid(m), stacks(m, grid, p) {}
    // Returns the loose area of each step, as `of` gives it.
    template <class Of>
    [[nodiscard]] std::vector<Regions> areas(Of of) const {
        std::vector<Regions> all;
        for (const Step& step : plan.steps) all.push_back(step.layer == nullptr ? of(step.loose) : Regions{});
        return all;
    }
    [[nodiscard]] Stacked merge(const Block& block, const LooseArea& loose, bool labelled, RingsBefore& before) {
        Rows rows(map, grid, plan, loose, stacks, block);
        trace_outline(rows, programs, outline);
        return rings_of(outline, grid, labelled, before);
    }
    const Map& map;
    const Plan& plan;
    Grid grid;
    Stacks stacks;
    Programs programs;
    Outline outline;
};

CellMerger::CellMerger(const Map& map, const Plan& plan) : parts_(std::make_unique<Parts>(map, plan)) {}
CellMerger::~CellMerger() = default;
CellMerger::CellMerger(CellMerger&&) noexcept = default;
CellMerger& CellMerger::operator=(CellMerger&&) noexcept = default;

Stacked CellMerger::whole(bool labelled) {
    const Map& map = parts_->map;
    const std::vector<Regions> areas = parts_->areas([&](const LooseGround& loose) { return loose.whole(map); });
    const std::optional<Block> block = block_around(map, parts_->grid, parts_->plan, areas);
    if (!block) return merge_generally(map, parts_->plan);
    RingsBefore none;
    return parts_->merge(*block, loose_area(map, parts_->grid, parts_->plan, areas, *block), labelled, none);
}

Stacked CellMerger::block(const Block& block, bool labelled) {
    RingsBefore none;
    return this->block(block, labelled, none);
}

Stacked CellMerger::block(const Block& block, bool labelled, RingsBefore& before) {
    const Map& map = parts_->map;
    const Bounds box = box_around(map.block_ring(block.column, block.row, block.columns, block.rows));
    const std::vector<Regions> areas = parts_->areas([&](const LooseGround& loose) { return loose.near(map, box); });
    return parts_->merge(block, loose_area(map, parts_->grid, parts_->plan, areas, block), labelled, before);
}

Stacked merge_cells(const Map& map, const Plan& plan, bool labelled) { return CellMerger(map, plan).whole(labelled); }

}   // namespace dryground::detail
