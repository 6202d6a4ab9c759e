// Which chunks of a map change with facts, objects and tiles.
//
// Cost: in proportion to what depends on the fact, the object or the tile, not to the map; layers that come or go are
// looked through once.

#include "chunk_facts_internal.hpp"

#include <algorithm>

#include "../../geometry/bounds_internal.hpp"
#include "../../ground/ground_internal.hpp"

namespace dryground::detail {

namespace {

class Following {
public:
    Following(const World& world, const ChunkLayout& layout, const Facts& before, const Facts& after)
        : world_(world), layout_(layout), map_(layout.map), before_(before), after_(after), found_(layout.size()) {}

    std::vector<std::size_t> run() {
        for (const Layer& layer : map_.layers)
            if (!layer.holds_objects) add_cells(layer);
        for (const Object& object : map_.objects)
            if (ground::counts(map_, object, before_) != ground::counts(map_, object, after_)) add_object(object);
        return result();
    }
    std::vector<std::size_t> run(FactId fact) {
        for (const Layer& layer : map_.layers)
            if (!layer.holds_objects && ground::may_count(layer))
                add_cells(layer,
                          [&](const Tile& tile) { return ground::names(layer, fact) || ground::names(tile, fact); });
        for (const Object& object : map_.objects)
            if (ground::names(map_, object, fact)) add_object(object);
        return result();
    }
    std::vector<std::size_t> run(const Object& object) {
        add_object(object);
        return result();
    }
    std::vector<std::size_t> run(const Layer& layer, const Placed& placed, int column, int row) {
        add(detail::moved(ground::changed_by(world_, map_, layer, placed), map_.corner(column, row)));
        return result();
    }

private:
    [[nodiscard]] std::vector<std::size_t> result() const {
        std::vector<std::size_t> chunks;
        for (std::size_t i = 0; i < found_.size(); ++i)
            if (found_[i]) chunks.push_back(i);
        return chunks;
    }
    void add(const Bounds& box) {
        for (const std::size_t chunk : layout_.near(box)) found_[chunk] = true;
    }

    void add_cells(const Layer& layer) {
        const bool was = ground::counts(layer, before_), is = ground::counts(layer, after_);
        if (!was && !is) return;
        add_cells(layer, [&](const Tile& tile) {
            return was != is || ground::is_open(tile, before_) != ground::is_open(tile, after_);
        });
    }
    // Adds the cells with tiles that follow what changes.
    template <class Test>
    void add_cells(const Layer& layer, Test follows) {
        struct Changed {   // from the cell's corner
            Bounds box;
            bool keeps_to_cell;
        };
        std::vector<std::optional<Changed>> changed(map_.palette.size());   // by the numbers that follow
        bool any = false;
        for (std::size_t n = 1; n < std::min(layer.counts.size(), changed.size()); ++n) {
            if (layer.counts[n] == 0) continue;
            if (!follows(world_.tile(map_.palette[n]))) continue;
            changed[n] = {ground::changed_by(world_, map_, layer, map_.palette[n]),
                          keeps_to_cell(layer, map_.palette[n])};
            any = true;
        }
        for (int r = 0; any && r < map_.rows; ++r)
            for (int c = 0; c < map_.columns; ++c) {
                const std::optional<Changed>& of_cell = changed[map_.number(layer, c, r)];
                if (!of_cell) continue;
                found_[layout_.chunk_of(c, r)] = true;
                if (!of_cell->keeps_to_cell) add(detail::moved(of_cell->box, map_.corner(c, r)));
            }
    }
    [[nodiscard]] bool keeps_to_cell(const Layer& layer, const Placed& placed) const {
        if (ground::reshaping_reach(layer) != 0) return false;
        const std::vector<ground::Part> parts = ground::parts_of(world_, map_, layer, placed, {}).parts;
        return std::all_of(parts.begin(), parts.end(), [&](const ground::Part& part) {
            return part.line.empty() && ground::keeps_to_cell(map_, part.area);
        });
    }

    void add_object(const Object& object) {
        const Layer& layer = map_.layer(object.layer);
        for (const ground::Part& part : ground::parts_of(map_, object).parts)
            add(grown(ground::box_of(part), ground::reshaping_reach(layer)));
    }

    const World& world_;
    const ChunkLayout& layout_;
    const Map& map_;
    const Facts before_, after_;
    std::vector<bool> found_;
};

}   // namespace

std::vector<std::size_t> chunks_following(const World& world, const ChunkLayout& layout, const Facts& before,
                                          const Facts& after) {
    return Following(world, layout, before, after).run();
}

std::vector<std::size_t> chunks_of_fact(const World& world, const ChunkLayout& layout, FactId fact) {
    return Following(world, layout, {}, {}).run(fact);
}

std::vector<std::size_t> chunks_of_object(const World& world, const ChunkLayout& layout, const Object& object) {
    return Following(world, layout, {}, {}).run(object);
}

std::vector<std::size_t> chunks_of_tile(const World& world, const ChunkLayout& layout, const Layer& layer,
                                        const Placed& placed, int column, int row) {
    return Following(world, layout, {}, {}).run(layer, placed, column, row);
}

}   // namespace dryground::detail
