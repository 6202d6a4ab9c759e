// A map's picture laid out: which part of the map is shown where, and what of it lies in a window.

#include <algorithm>
#include <cmath>
#include <limits>

#include "../geometry/bounds_internal.hpp"
#include "../ground/ground_internal.hpp"
#include "picture_internal.hpp"

namespace dryground::drawing {

namespace {

constexpr std::int64_t most_cells_merged_at_once = std::int64_t{1} << 20;
constexpr int surroundings = 8;   // cells about a window: farther than shapes reach out of their cell, and than the rim

std::int64_t cells_of(const Map& map) { return std::int64_t{map.columns} * map.rows; }

CellArea wider(CellArea area, int by) {
    return {area.column - by, area.row - by, area.columns + 2 * by, area.rows + 2 * by};
}

// Returns the cells whose boxes meet a box of steps.
CellArea cells_about(const Map& map, const Bounds& box) {
    int least_c = std::numeric_limits<int>::max(), least_r = least_c, most_c = -least_c, most_r = -least_c;
    for (const Point p : {box.least, Point{box.most.x, box.least.y}, box.most, Point{box.least.x, box.most.y}}) {
        const auto [c, r] = map.data_cell_at(p);
        least_c = std::min(least_c, c), most_c = std::max(most_c, c);
        least_r = std::min(least_r, r), most_r = std::max(most_r, r);
    }
    return {map.first_column + least_c, map.first_row + least_r, most_c - least_c + 1, most_r - least_r + 1};
}

// Returns an area without what lies farther from the map than anybody wants to see; at least a cell.
CellArea clipped(const Map& map, const CellArea& area) {
    constexpr std::int64_t beyond = 64;   // cells
    const auto clip = [](std::int64_t from, std::int64_t count, std::int64_t first, std::int64_t all) {
        const std::int64_t least = std::clamp(from, first - beyond, first + all + beyond - 1),
                           most = std::clamp(from + count, least + 1, first + all + beyond);
        return std::array<int, 2>{static_cast<int>(least), static_cast<int>(most - least)};
    };
    const auto [column, columns] = clip(area.column, area.columns, map.first_column, map.columns);
    const auto [row, rows] = clip(area.row, area.rows, map.first_row, map.rows);
    return {column, row, columns, rows};
}

// Adds room for the ground of storeys that are drawn above the ground.
Bounds with_storeys(const World& world, const Map& map, Bounds box) {
    if (map.grid != GridSort::isometric) return box;
    double up = 0;
    for (const Layer& layer : map.layers) up = std::max(up, world.storey(layer.storey).base_px);
    box.least.y -= to_steps(up);
    return box;
}

// Returns the same for cells that are laid flat.
Bounds flat_view_of(const Map& map, const DrawOptions& options) {
    const int beside = options.area || options.plain ? 0 : 1;
    const CellArea cells = options.area ? clipped(map, *options.area) : map.area();
    const std::int32_t side = map.cell_width / 2 * steps_per_px;
    return {{(cells.column - beside) * side, (cells.row - beside) * side},
            {(cells.column + cells.columns + beside) * side, (cells.row + cells.rows + beside) * side}};
}

// Returns what of the map is shown: all of it with the ring of cells around, or only the requested cells.
Bounds view_of(const World& world, const Map& map, const DrawOptions& options) {
    if (lies_flat(map, options)) return flat_view_of(map, options);
    if (!options.area && options.plain) return {map.least(), map.most()};
    if (!options.area) {
        const Point ring{map.cell_width * steps_per_px, map.cell_height * steps_per_px};
        const Bounds around{{map.least().x - ring.x, map.least().y - ring.y},
                            {map.most().x + ring.x, map.most().y + ring.y}};
        return options.show.count(Thing::art) == 0 ? with_storeys(world, map, around)
                                                   : with_art(world, map, options, with_storeys(world, map, around));
    }
    const CellArea area = clipped(map, *options.area);
    return *bounds(Regions{
        {map.block_ring(area.column - map.first_column, area.row - map.first_row, area.columns, area.rows), {}}});
}

// Chooses a scale for about 1300 px of width: whole numbers of px per px; below 1 the greatest by which cells are still
// whole px.
double fitting_scale(const Map& map, double px_wide) {
    const double fit = 1300 / px_wide;
    if (fit >= 0.75) return std::clamp(std::round(fit), 1.0, 8.0);
    const double cell = std::max(1.0, std::floor(fit * map.cell_width));
    return cell / map.cell_width;
}

// Returns the names of all triggers that tiles and layers may make here, sorted.
std::vector<std::string> triggers_of(const World& world, const Map& map) {
    std::set<std::string> names;
    for (const Layer& layer : map.layers)
        if (!layer.trigger.empty()) names.insert(layer.trigger);
    for (const TileSetId set : map.tilesets)
        for (const Tile& tile : world.tilesets()[static_cast<std::size_t>(set)].tiles)
            for (const Shape& shape : tile.shapes)
                if (!shape.trigger.empty()) names.insert(shape.trigger);
    return {names.begin(), names.end()};
}

}   // namespace

bool is_looked_at(StoreyId storey, const DrawOptions& options) {
    return options.storeys.empty() ||
           std::find(options.storeys.begin(), options.storeys.end(), storey) != options.storeys.end();
}

namespace {

bool is_asked_for(const Layer& layer, const DrawOptions& options) {
    return is_there(layer, options.merging.facts) &&
           (options.layers.empty() ||
            std::find(options.layers.begin(), options.layers.end(), layer.name) != options.layers.end());
}

}   // namespace

Map with_ground_of_layers(const Map& map, const DrawOptions& options) {
    std::vector<std::size_t> others;
    for (std::size_t l = 0; l < map.layers.size(); ++l)
        if (!is_asked_for(map.layers[l], options)) others.push_back(l);
    return ground::without_ground_of(map, others);
}

bool is_shown(const Layer& layer, const DrawOptions& options) {
    return is_asked_for(layer, options) && is_looked_at(layer.storey, options);
}

bool is_shown(const Map& map, const Object& object, const DrawOptions& options) {
    return is_there(map, object, options.merging.facts) && is_looked_at(object.storey, options) &&
           is_asked_for(map.layer(object.layer), options);
}

double strength_of(const World& world, const Layer& layer, const DrawOptions& options) {
    const auto base = [&](StoreyId storey) { return world.storey(storey).base_px; };
    if (!is_asked_for(layer, options)) return 0;
    if (options.storeys.empty())
        return layer.storey > StoreyId::ground ? 0.55 : 1;   // what is below an upper storey is visible
    if (is_looked_at(layer.storey, options)) return 1;
    const bool is_below = std::any_of(options.storeys.begin(), options.storeys.end(),
                                      [&](StoreyId storey) { return base(layer.storey) < base(storey); });
    return is_below ? 0.35 : 0;
}

std::vector<StoreyId> storeys_told(const World& world, const DrawOptions& options) {
    if (options.storeys.empty()) return {StoreyId::ground};
    std::vector<StoreyId> storeys = options.storeys;
    std::sort(storeys.begin(), storeys.end(), [&](StoreyId a, StoreyId b) {
        return std::pair(world.storey(a).base_px, a) < std::pair(world.storey(b).base_px, b);
    });
    storeys.erase(std::unique(storeys.begin(), storeys.end()), storeys.end());
    return storeys;
}

bool lies_flat(const Map& map, const DrawOptions& options) {
    return options.plane == Plane::ground && map.grid == GridSort::isometric;
}

Point laid_flat(const Map& map, Point p) {
    // In halves of a diamond's width and height, columns and rows are sums and differences.
    const double side = map.cell_width / 2.0 * steps_per_px, across = p.x / (map.cell_width * double{steps_per_px}),
                 down = p.y / (map.cell_height * double{steps_per_px});
    return {static_cast<std::int32_t>(std::lround((down + across) * side)),
            static_cast<std::int32_t>(std::lround((down - across) * side))};
}

Map cropped(const Map& map, const CellArea& wanted) {
    const CellArea area = clipped(map, wanted);
    const int left = std::clamp(area.column - map.first_column, 0, map.columns - 1),
              top = std::clamp(area.row - map.first_row, 0, map.rows - 1),
              right = std::clamp(area.column - map.first_column + area.columns, left + 1, map.columns),
              bottom = std::clamp(area.row - map.first_row + area.rows, top + 1, map.rows);
    Map result = map;
    result.first_column += left, result.first_row += top;
    result.columns = right - left, result.rows = bottom - top;
    for (std::size_t l = 0; l < map.layers.size(); ++l) {
        const Layer& from = map.layers[l];
        Layer& layer = result.layers[l];
        layer.rows.clear(), layer.characters.clear(), layer.counts.clear();
        if (from.cells.empty()) continue;
        layer.cells.clear();
        layer.cells.reserve(static_cast<std::size_t>(result.columns) * static_cast<std::size_t>(result.rows));
        for (int r = top; r < bottom; ++r) {
            const auto row = from.cells.begin() + std::ptrdiff_t{r} * map.columns;
            layer.cells.insert(layer.cells.end(), row + left, row + right);
        }
        for (const std::uint32_t cell : layer.cells) {
            if (layer.counts.size() <= cell) layer.counts.resize(cell + std::size_t{1}, 0);
            ++layer.counts[cell];
        }
    }
    return result;
}

MapPicture::MapPicture(const World& world_in, const Map& whole, const Report& report, const DrawOptions& options_in)
    : world(world_in),
      options(options_in),
      inks(inks_of(options_in.palette)),
      view(view_of(world_in, whole, options_in)),
      whole_(whole) {
    const double px_wide = to_px(view.most.x - view.least.x);
    scale = options.scale > 0 ? options.scale : options.plain ? 1 : fitting_scale(whole, px_wide);
    if (options.area) {
        base_ = std::make_unique<Map>(cropped(whole, wider(clipped(whole, *options.area), surroundings)));
        whole_merge = false;
    }
    triggers = triggers_of(world, map());
    lay_out();
    window = page;
    if (options.plain) return;   // no marks, no labels, no key
    Taken taken;
    if (shows(Thing::findings)) place_findings(*this, report, taken);
    if (shows(Thing::objects)) place_objects(*this, taken);
    page.height = key_top + draw_key(*this, false) + 12;
    window = page;
}

void MapPicture::lay_out() {
    const double wide = std::ceil(to_px(view.most.x - view.least.x) * scale),
                 high = std::ceil(to_px(view.most.y - view.least.y) * scale);
    if (!merges_at_once()) whole_merge = false;
    if (options.plain) {
        frame = page = {0, 0, wide, high};
        key_top = high;
        return;
    }
    const bool numbered = shows(Thing::grid);
    const int digits = static_cast<int>(
        std::max(fmt::format("{}", whole_.first_row + whole_.rows).size(), fmt::format("{}", whole_.first_row).size()));
    frame = {16.0 + (numbered ? 6 * digits + 4 : 0), numbered ? 56.0 : 40.0, wide, high};
    key_top = frame.y + frame.height + 14;
    page = {0, 0, std::max(frame.x + frame.width + 16, 640.0), key_top};
}

void MapPicture::look_at(const Box& at) {
    window = at;
    defs.clear(), body.clear();
    const Map& base = base_ ? *base_ : whole_;
    if (merges_at_once()) return;
    merge_.reset();
    const auto steps_x = [&](double px) {
        return view.least.x + to_steps(std::clamp(px - frame.x, 0.0, frame.width) / scale);
    };
    const auto steps_y = [&](double px) {
        return view.least.y + to_steps(std::clamp(px - frame.y, 0.0, frame.height) / scale);
    };
    const Bounds seen{{steps_x(at.x), steps_y(at.y)}, {steps_x(at.x + at.width), steps_y(at.y + at.height)}};
    const CellArea cells = wider(cells_about(base, seen), surroundings);
    const CellArea all = base.area();
    const bool is_all = cells.column <= all.column && cells.row <= all.row &&
                        cells.column + cells.columns >= all.column + all.columns &&
                        cells.row + cells.rows >= all.row + all.rows;
    near_.reset(), counting_.reset();
    if (!is_all) near_ = std::make_unique<Map>(cropped(base, cells));
}

bool MapPicture::merges_at_once() const {
    return is_flat() || cells_of(base_ ? *base_ : whole_) <= most_cells_merged_at_once;
}

const Map& MapPicture::ground_map() {
    if (options.layers.empty()) return map();
    if (!counting_) counting_ = std::make_unique<Map>(with_ground_of_layers(map(), options));
    return *counting_;
}

const Merge& MapPicture::merged() {
    if (!merge_) {
        MergeOptions merging = options.merging;
        merging.forms.set(MergeForm::chains);
        merging.plane = Plane::screen;   // which is laid flat when it is drawn
        if (!shows(Thing::pieces) && !whole_merge) merging.forms.set(MergeForm::pieces, false);
        merge_ = std::make_unique<Merge>(merge(world, ground_map(), merging));
        std::erase_if(merge_->groups, [&](const Group& group) { return !is_looked_at(group.storey_id, options); });
    }
    return *merge_;
}

const Reach& MapPicture::walked() {
    if (!walked_) {
        ReachOptions asked;
        asked.mover = options.merging.mover;
        asked.given = options.merging.facts;
        walked_ = std::make_unique<Reach>(reach(world, asked));
        tour_ = walked_->tour();
    }
    return *walked_;
}

const std::optional<Route>& MapPicture::tour() {
    (void)walked();
    return tour_;
}

std::size_t MapPicture::number_of(const Group& group) const {
    if (group.barrier_id != BarrierId::none) return index(group.barrier_id);
    const auto trigger = std::find(triggers.begin(), triggers.end(), group.trigger);
    return world.barriers().size() +
           (trigger == triggers.end() ? 0 : static_cast<std::size_t>(trigger - triggers.begin()) + 1);
}

Look MapPicture::look_of(std::size_t number) const {
    const std::size_t barriers = world.barriers().size();
    return drawing::look_of(world, number < barriers ? id_of<BarrierId>(number) : BarrierId::none,
                            number < barriers ? 0 : number - barriers, options.palette);
}

Look MapPicture::look_of(const Group& group) const {
    // Dots, crosses, squares, bars: drawn over the barrier's own hatching.
    static constexpr std::array<const char*, 4> signs{"M2 4a1 1 0 1 0 2 0a1 1 0 1 0 -2 0", "M2 2L6 6M6 2L2 6",
                                                      "M2 2h4v4h-4z", "M1 1V7M3 1V7"};
    Look look = look_of(number_of(group));
    if (group.storey_id > StoreyId::ground) look.hatch += signs[(index(group.storey_id) - 1) % signs.size()];
    return look;
}

std::string MapPicture::hatch_of(const Group& group) const {
    return fmt::format("hatch{}{}", number_of(group),
                       group.storey_id > StoreyId::ground ? fmt::format("s{}", index(group.storey_id)) : "");
}

Box MapPicture::box(const Bounds& steps) const {
    if (is_flat()) {
        const Bounds flat = detail::box_around(Ring{laid(steps.least), laid({steps.most.x, steps.least.y}),
                                                    laid(steps.most), laid({steps.least.x, steps.most.y})});
        return {frame.x + to_px(flat.least.x - view.least.x) * scale,
                frame.y + to_px(flat.least.y - view.least.y) * scale, to_px(flat.most.x - flat.least.x) * scale,
                to_px(flat.most.y - flat.least.y) * scale};
    }
    return {x(steps.least), y(steps.least), to_px(steps.most.x - steps.least.x) * scale,
            to_px(steps.most.y - steps.least.y) * scale};
}

std::array<int, 2> MapPicture::columns_in_window(int row, double margin) const {
    const Map& here = map();
    if (is_flat()) return {0, here.columns - 1};
    const Box seen = window.wider(margin);
    const double w = cell_width(), h = cell_height();
    double first = 0, last = here.columns - 1.0;
    const auto narrow = [&](double from, double to) { first = std::max(first, from), last = std::min(last, to); };
    const Box start = box(here.cell_box(0, row));
    if (here.grid == GridSort::isometric) {   // each column lies half a cell further right and down
        narrow(std::ceil((seen.x - w - start.x) / (w / 2)), std::floor((seen.x + seen.width - start.x) / (w / 2)));
        narrow(std::ceil((seen.y - h - start.y) / (h / 2)), std::floor((seen.y + seen.height - start.y) / (h / 2)));
    } else {
        if (start.y > seen.y + seen.height || start.y + h < seen.y) return {0, -1};
        narrow(std::floor((seen.x - start.x) / w), std::floor((seen.x + seen.width - start.x) / w));
    }
    return {static_cast<int>(first), static_cast<int>(last)};
}

std::string MapPicture::path(const Ring& ring, bool closed) const {
    std::string result;
    for (std::size_t i = 0; i < ring.size(); ++i)
        fmt::format_to(std::back_inserter(result), "{}{:.2f} {:.2f}", i == 0 ? "M" : "L", x(ring[i]), y(ring[i]));
    return closed ? result + "Z" : result;
}

std::string MapPicture::path(const Regions& regions) const {
    std::string result;
    for (const Region& region : regions) {
        if (!sees(*bounds(std::span(&region, 1)))) continue;
        result += path(region.outline);
        for (const Ring& hole : region.holes) result += path(hole);
    }
    return result;
}

double MapPicture::raise(StoreyId storey) const {
    if (!has_diamonds()) return 0;
    return world.storey(storey).base_px * scale;
}

void MapPicture::open(Thing thing) {
    const auto fade = options.fade.find(thing);
    put("<g id=\"{}\"{}>\n", thing_names()[static_cast<std::size_t>(thing)],
        fade == options.fade.end() ? "" : fmt::format(" opacity=\"{:g}\"", fade->second));
}

}   // namespace dryground::drawing
