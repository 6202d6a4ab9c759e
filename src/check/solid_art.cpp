// Solids that are drawn as objects over the art of a map: those that lie where nothing is drawn, and art that they
// should cover and do not.
//
// Cost: in proportion to the cells; px by px only in cells that solids cover in part.

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>

#include "../ground/ground_internal.hpp"
#include "../model/orientation_internal.hpp"
#include "rules_internal.hpp"

namespace dryground::check_rules {

namespace {

class SolidArt {
public:
    SolidArt(const World& world, const Map& map, const LookAt& look, Findings& findings)
        : world_(world), map_(map), look_(look), findings_(findings) {
        for (const Object& object : map.objects)
            if (object.role == Role::solid && !ground::moves(object) && ground::fills_shape(object) &&
                !object.area.empty() && object.fault == ShapeFault::none)
                solids_.push_back(&object);
    }

    void run() {
        if (solids_.empty()) return;
        const std::vector<bool> art = art_cells(nullptr);
        if (std::none_of(art.begin(), art.end(), [](bool b) { return b; })) return;   // nothing is drawn here at all
        solid_in_.resize(art.size());
        for (const Object* solid : solids_) check_solid(*solid, art);
        for (const Layer& layer : map_.layers)
            if (!layer.holds_objects) check_layer(layer);
    }

private:
    [[nodiscard]] std::size_t at(int column, int row) const {
        return static_cast<std::size_t>(row) * static_cast<std::size_t>(map_.columns) +
               static_cast<std::size_t>(column);
    }

    // Returns whether anything is visible in each cell of one layer, or of all.
    [[nodiscard]] std::vector<bool> art_cells(const Layer* only) const {
        std::vector<bool> shows(static_cast<std::size_t>(map_.columns) * static_cast<std::size_t>(map_.rows));
        for (const Layer& layer : map_.layers) {
            if (layer.holds_objects || (only != nullptr && &layer != only)) continue;
            std::vector<bool> visible(map_.palette.size());
            for (std::size_t n = 1; n < visible.size(); ++n)
                visible[n] = world_.tile(map_.palette[n]).art || world_.tile(map_.palette[n]).picture;
            for (std::size_t i = 0; i < shows.size(); ++i)
                if (visible[layer.cells[i]]) shows[i] = true;
        }
        return shows;
    }

    // Where its kind's picture is drawn there is art, whatever the tiles are.
    [[nodiscard]] Regions picture_of(const Object& solid) const {
        const auto& picture = world_.kind(solid.kind).picture;
        if (!picture || picture->width == 0) return {};
        const Point least = moved(solid.position, {to_steps(picture->x), to_steps(picture->y)});
        return {box_region(least, moved(least, {to_steps(picture->width), to_steps(picture->height)}))};
    }

    void check_solid(const Object& solid, const std::vector<bool>& art) {
        const Regions picture = picture_of(solid);
        std::int64_t bare = 0;
        const auto [c0, r0, c1, r1] = cells_near(map_, *bounds(solid.area));
        for (int r = r0; r <= r1; ++r)
            for (int c = c0; c <= c1; ++c) {
                const Region cell{map_.cell_ring(c, r), {}};
                Regions inside = intersect(solid.area, {&cell, 1});
                if (inside.empty()) continue;
                if (!art[at(c, r)]) bare += twice_area(picture.empty() ? inside : subtract(inside, picture));
                Regions& all = solid_in_[at(c, r)];
                all.insert(all.end(), std::make_move_iterator(inside.begin()), std::make_move_iterator(inside.end()));
            }
        const std::int64_t all = twice_area(solid.area);
        if (2 * bare <= all) return;
        Finding finding = start_object(findings_, Rule::solid_without_art, map_, solid, solid.place_of_position,
                                       {solid.name.empty() ? words_of(world_, solid) : "'" + solid.name + "'"});
        if (bare < all) finding.details.push_back(fmt::format("{} % of its area", 100 * bare / all));
        finding.hint = Hint{"move it to what it belongs to, or draw something there", ""};
        findings_.add(std::move(finding));
    }

    // Returns the px that a tile's art shows, as points in its cell from the corner of the box around it. Returns
    // nothing if the art cannot be read.
    const std::vector<Point>* shown_px(std::uint32_t number) {
        const auto [known, is_new] = shown_.try_emplace(number);
        if (!is_new) return known->second ? &*known->second : nullptr;
        const Placed& placed = map_.palette[number];
        const TileSet& set = world_.tilesets()[static_cast<std::size_t>(placed.tileset)];
        const auto art = art_of(set, world_.tile(placed), look_);
        if (!art) return nullptr;
        std::vector<Point> px;
        for (int y = art->y; y < art->y + art->height; ++y)
            for (int x = art->x; x < art->x + art->width; ++x)
                if (art->shows(x, y))
                    px.push_back({x * steps_per_px + steps_per_px / 2, y * steps_per_px + steps_per_px / 2});
        known->second = detail::oriented_line(std::move(px), map_.cell_width * steps_per_px,
                                              map_.cell_height * steps_per_px, placed.orientation);
        return &*known->second;
    }

    // Returns whether solids cover half of what a cell shows: of its px if they can be read, else of its area.
    bool is_covered(const Layer& layer, int column, int row) {
        const Regions& solid = solid_in_[at(column, row)];
        if (solid.empty()) return false;
        const std::int64_t cell = twice_area(map_.cell_ring(column, row)), covered = twice_area(unite(solid));
        const auto* px = covered < cell ? shown_px(map_.number(layer, column, row)) : nullptr;
        if (px == nullptr || px->empty()) return 2 * covered > cell;
        const Point corner = moved(map_.box_corner(column, row), ground::shift_of(layer));
        const auto hit = std::count_if(px->begin(), px->end(),
                                       [&](Point p) { return locate(solid, moved(p, corner)) != Side::outside; });
        return 2 * static_cast<std::size_t>(hit) >= px->size();
    }

    void check_layer(const Layer& layer) {
        const std::vector<bool> own = art_cells(&layer);
        std::vector<Cell> open;
        std::size_t count = 0;
        for (int r = 0; r < map_.rows; ++r)
            for (int c = 0; c < map_.columns; ++c) {
                if (!own[at(c, r)]) continue;
                ++count;
                if (!is_covered(layer, c, r)) open.push_back(map_.cell({c, r}));
            }
        if (open.empty() || open.size() * 5 > count) return;
        Finding finding =
            start_layer(findings_, Rule::art_without_solid, map_, layer, {layer.name, counted(open.size(), "cell")});
        finding.place = map_.place_of(layer, map_.data_cell(open.front()));
        finding.cell = open.front();
        finding.cells = open;
        std::vector<std::string> cells;
        for (std::size_t i = 0; i < std::min<std::size_t>(open.size(), 8); ++i)
            cells.push_back(fmt::format("({}, {})", open[i].column, open[i].row));
        if (open.size() > cells.size()) cells.push_back(fmt::format("and {} more", open.size() - cells.size()));
        finding.details.push_back(fmt::format("in {}", fmt::join(cells, ", ")));
        finding.hint = Hint{"draw the solid over these cells too, or take their art away", ""};
        findings_.add(std::move(finding));
    }

    const World& world_;
    const Map& map_;
    const LookAt& look_;
    Findings& findings_;
    std::vector<const Object*> solids_;
    std::vector<Regions> solid_in_;   // by cell: what of the solids lies there
    std::map<std::uint32_t, std::optional<std::vector<Point>>> shown_;
};

}   // namespace

void check_solid_art(const World& world, const LookAt& look, Findings& findings) {
    for (const Map& map : world.maps()) SolidArt(world, map, look, findings).run();
}

}   // namespace dryground::check_rules
