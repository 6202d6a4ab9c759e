// Inside the model room: fills the cells of one layer. make_cells.cpp looks up what stands in each cell and puts it
// there; place_patterns.cpp does so for families and blocks, which depend on more than one cell.
#pragma once

#include "legend_internal.hpp"

namespace dryground {

class WorldMaker::CellFiller {
public:
    CellFiller(WorldMaker& maker, const LayerDraft& draft, Layer& layer, Map& map, LayerId layer_id);
    // Looks up each key once, in the layer's own legend first.
    void fill(const CellTable& table, Legend& own, Legend& shared);

private:
    void check_size(const CellTable& table);
    // Returns null if nothing declares what it is.
    Legend::Meaning* find(CellTable::Sort sort, const std::string& key, Legend& own, Legend& shared);
    // Reads a field that may be a tile's name, followed by flips and turns.
    Legend::Meaning* find_by_name(const std::string& field);
    // Places an object if the tile stands for a kind.
    void settle(Legend::Meaning& meaning);
    // Returns the number of a placed tile in the map's palette.
    std::uint32_t number_of(const Placed& placed);
    void set_cell(std::size_t c, std::size_t r, std::uint32_t number);
    void put(std::uint32_t key, std::size_t c, std::size_t r);

    // -- families and blocks (place_patterns.cpp)
    struct Pattern {   // a cell painted with a family or a block
        std::uint32_t key;
        int column, row;
    };
    void place_families();
    [[nodiscard]] static std::array<int, 2> misfit(const Family::Member& member, unsigned joined);
    [[nodiscard]] static unsigned joins_at(const std::map<std::array<int, 2>, std::array<int, 2>>& members,
                                           const std::array<int, 2>& cell, const std::array<int, 2>& family,
                                           Joins joins);
    void report_gap(const std::array<int, 2>& family, unsigned joined, const std::vector<Cell>& cells);
    void place_blocks();

    // Adds a finding about cells of the layer, placed at the first of them.
    [[nodiscard]] Finding finding_at(Rule rule, const std::vector<Cell>& cells) const;
    // Adds an object on its cell, without a name unless `except` gives one.
    void paint(const Legend::Meaning& meaning, int c, int r);
    [[nodiscard]] std::size_t choice(const std::vector<double>& weights, Cell cell) const;
    void report_missing(const CellTable& table, std::size_t key);
    [[nodiscard]] std::optional<std::string> nearest_tile(const std::string& field) const;
    void report_except(const ExceptDraft& except);

    WorldMaker& maker_;
    const LayerDraft& draft_;
    Layer& layer_;
    Map& map_;
    LayerId layer_id_;
    Legend names_;                             // of tiles that are named without a legend
    std::vector<Legend::Meaning*> meanings_;   // of the table's keys
    std::vector<std::vector<Cell>> missing_;   // where keys without a meaning stand
    std::vector<Pattern> patterns_;
    struct Except {
        const ExceptDraft* draft;
        bool used = false;
    };
    std::map<Cell, Except> excepts_;
};

}   // namespace dryground
