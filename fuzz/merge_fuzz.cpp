// Merging cell by cell, with area that keeps to no cell: results keep their promises, equal the general boolean's where
// all lies on the lattice, and chunks joined are the whole.
//
// Input: bytes as sizes, layers of cells, shapes for each number of the palette, and drawn polygons between layers.
#include "bytes.hpp"
#include "merge/cells/stacking_internal.hpp"

using namespace dryground;
using dryground::detail::Part;
using dryground::detail::Plan;
using dryground::detail::Step;
using fuzz::must;

namespace {

constexpr std::int32_t cell = 16 * steps_per_px;

// Inside one cell: corners on eighths of it, edges upright, level or at 45 degrees.
Regions shape_from(fuzz::Bytes& bytes) {
    const int sort = bytes.next(), a = bytes.next() % 8, b = bytes.next() % 8;
    const auto at = [](int x, int y) { return Point{x * cell / 8, y * cell / 8}; };
    switch (sort % 5) {
        case 0:
            return {box_region({0, 0}, {cell, cell})};
        case 1:
            return {box_region(at(a, b), at(a + 1 + sort / 5 % (8 - a), b + 1 + sort / 40 % (8 - b)))};
        case 2:
            return {{{at(0, 8), at(8, 0), at(8, 8)}, {}}};
        case 3:
            return {{{at(0, 0), at(8, 0), at(0, 8)}, {}}};
        default:
            return {{{at(4, 0), at(8, 4), at(4, 8), at(0, 4)}, {}}};
    }
}

Regions drawn_from(fuzz::Bytes& bytes, bool on_lattice) {
    const std::int32_t unit = on_lattice ? cell / 8 : 37;
    const auto near = [&] { return (bytes.next() - 100) * unit; };
    const std::int32_t x = near(), y = near();
    if (on_lattice) {
        const std::int32_t s = (1 + bytes.next() % 40) * unit;
        if (bytes.next() % 2 == 0) return {box_region({x, y}, {x + s, y + (1 + bytes.next() % 40) * unit})};
        return {{{{x, y + s}, {x + s, y}, {x + 2 * s, y + s}, {x + s, y + 2 * s}}, {}}};
    }
    Ring ring{{x, y}};
    for (int points = 2 + bytes.next() % 4; points > 0; --points) {
        const std::int32_t px = near(), py = near();
        ring.push_back({px, py});
    }
    if (inspect(ring).fault != RingFault::none) return {};
    return unite(Regions{{ring, {}}});
}

}   // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    if (size > 300) return 0;
    fuzz::Bytes bytes(data, size);
    const int flags = bytes.next();
    const bool on_lattice = flags % 4 != 0;
    Map map;
    map.columns = 1 + bytes.next() % 6;
    map.rows = 1 + bytes.next() % 6;
    map.palette.resize(4);
    map.layers.resize(static_cast<std::size_t>(1 + flags / 4 % 3));
    Plan plan;
    plan.holds_rim = flags / 16 % 2 != 0;
    for (std::size_t l = 0; l < map.layers.size(); ++l) {
        Layer& layer = map.layers[l];
        for (int i = 0; i < map.columns * map.rows; ++i)
            layer.cells.push_back(static_cast<std::uint32_t>(bytes.next() % 4));
        for (const bool adds : {false, true}) {
            Step step;
            step.layer = &layer;
            step.meaning.assign(4, 0);
            for (std::size_t number = 1; number < 4; ++number) {
                const int says = bytes.next();
                if (says % 3 == 0) continue;
                step.parts.push_back({Part{adds, adds ? says / 3 % 2 : 0, shape_from(bytes)}});
                step.meaning[number] = static_cast<std::uint32_t>(step.parts.size());
            }
            if (!step.parts.empty()) plan.steps.push_back(std::move(step));
        }
        if (const int says = bytes.next(); says % 3 == 0) {
            Step step;
            step.loose.adds = says / 3 % 3 != 0;
            step.loose.label = says / 9 % 2;
            const Regions area = drawn_from(bytes, on_lattice);
            if (says % 2 == 0)
                step.loose.add_objects(area);
            else if (!area.empty())   // as of a tile that stands all over the layer
                step.loose.add_tile(map, layer, 1, area);
            if (!area.empty()) plan.steps.push_back(std::move(step));
        }
    }
    detail::CellMerger merger(map, plan);
    const Stacked fast = merger.whole(true);
    fuzz::check_promises(fast.regions);
    if (on_lattice) {
        const Stacked slow = detail::merge_generally(map, plan);
        must(fast.regions == slow.regions);
        must(fast.rings == slow.rings);
        const detail::Block left{-20, -20, 21, 60}, right{1, -20, 60, 60};
        Regions all = merger.block(left, false).regions;
        for (Region& region : merger.block(right, false).regions) all.push_back(std::move(region));
        const Regions both = intersect(fast.regions, Regions{{map.block_ring(-20, -20, 81, 60), {}}});
        must(unite(all) == both);
    }
    return 0;
}
