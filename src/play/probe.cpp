// What is at a point: from the pieces that stand there, so that what is carved away is reported as removed, and by
// which tile.

#include "dryground/probe.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <mutex>
#include <set>

#include "parts_internal.hpp"
#include "probe_internal.hpp"

namespace dryground {

struct Prober::Parts {
    const World& world;
    const Map& map;
    Facts facts;

    Parts(const World& w, const Map& m, const Facts& f) : world(w), map(m), facts(f) {}

    // Made when a place is first asked about: descriptions of cells and objects do without.
    [[nodiscard]] const play::Solids& solids() const {
        std::call_once(is_made, [&] { made.emplace(world, map, facts); });
        return *made;
    }
    [[nodiscard]] const std::string& barrier(BarrierId id) const {
        static const std::string none = "no barrier";
        return id == BarrierId::none ? none : world.barrier(id).name;
    }
    [[nodiscard]] const Object& object(ObjectId id) const { return map.object(id); }
    [[nodiscard]] const Layer& layer(LayerId id) const { return map.layer(id); }
    [[nodiscard]] std::string of(Touched sort, LayerId layer_id, ObjectId object_id, const Placed& placed) const {
        if (sort == Touched::rim) return "the map's rim";
        if (sort == Touched::object) return "object " + play::object_name(world, object(object_id));
        return fmt::format("{} in layer {}", play::tile_name(world, placed), layer(layer_id).name);
    }
    [[nodiscard]] std::string of(const play::StandingPiece& piece) const {
        return of(piece.sort, piece.layer, piece.object,
                  piece.sort == Touched::tile ? map.placed(layer(piece.layer), piece.column, piece.row) : Placed{});
    }
    [[nodiscard]] std::string on(StoreyId storey) const {   // given if there is more than one
        return ground::storeys_of(map).size() < 2 ? "" : world.storey(storey).name + ": ";
    }
    // For one storey or, with none, for all.
    void tell_tiles(DataCell cell, StoreyId storey, std::vector<std::string>& lines) const;
    void tell_flags(DataCell cell, StoreyId storey, std::vector<std::string>& lines) const;
    // Returns which barriers there are, by storey.
    std::set<std::pair<StoreyId, BarrierId>> tell_solids(Point p, StoreyId storey,
                                                         std::vector<std::string>& lines) const;
    void tell_carved(Point p, int column, int row, StoreyId storey,
                     const std::set<std::pair<StoreyId, BarrierId>>& solid, std::vector<std::string>& lines) const;
    void tell_objects(Point p, StoreyId storey, std::vector<std::string>& lines) const;
    void tell_contact(PointPx p, PointPx normal, StoreyId storey, std::vector<std::string>& lines) const;
    void tell_mover(PointPx p, MoverId mover, StoreyId storey, std::vector<std::string>& lines) const;

private:
    mutable std::once_flag is_made;
    mutable std::optional<play::Solids> made;
};

namespace {

void add_once(std::vector<std::string>& lines, std::string line) {
    if (std::find(lines.begin(), lines.end(), line) == lines.end()) lines.push_back(std::move(line));
}

Region standing(const play::StandingPiece& piece) {
    Region region{piece.piece->points, {}};
    for (Point& q : region.outline) q = moved(q, piece.at);
    return region;
}

// Returns whether a line passes within half a px of a point.
bool passes(const play::StandingPiece& piece, Point p) {
    const Ring line = standing(piece).outline;
    const double dx = line[1].x - line[0].x, dy = line[1].y - line[0].y, length = std::hypot(dx, dy);
    const double along = ((p.x - line[0].x) * dx + (p.y - line[0].y) * dy) / (length * length);
    const double off = std::abs((p.x - line[0].x) * dy - (p.y - line[0].y) * dx) / length;
    return along >= 0 && along <= 1 && off <= steps_per_px / 2.0;
}

// Pieces of a barrier that hold a point, and those whose edge it lies on: if these close around it, it is
// inside.
struct HeldBy {
    std::vector<std::string> inside, edge;
    Regions edges;
};

}   // namespace

void Prober::Parts::tell_tiles(DataCell cell, StoreyId storey, std::vector<std::string>& lines) const {
    for (std::size_t l = map.layers.size(); l-- > 0;)
        if (const Layer& one = map.layers[l]; !one.holds_objects && (storey == StoreyId::none || one.storey == storey))
            if (const Placed& placed = map.placed(one, cell); placed.tile >= 0)
                lines.push_back(play::tile_line(world, one, placed, facts));
}

void Prober::Parts::tell_flags(DataCell cell, StoreyId only, std::vector<std::string>& lines) const {
    if (world.flags().empty()) return;
    for (const StoreyId storey : ground::storeys_of(map)) {
        if (only != StoreyId::none && storey != only) continue;
        const Passability say = passability(world, map, cell, storey, facts);
        if (storey == StoreyId::ground || say.flags_layer != LayerId::none || say.sides_layer != LayerId::none)
            lines.push_back(on(storey) + play::flags_line(world, map, cell, say));
    }
}

std::set<std::pair<StoreyId, BarrierId>> Prober::Parts::tell_solids(Point p, StoreyId only,
                                                                    std::vector<std::string>& lines) const {
    std::set<std::pair<StoreyId, BarrierId>> solid;
    const Bounds near{{p.x - steps_per_px, p.y - steps_per_px}, {p.x + steps_per_px, p.y + steps_per_px}};
    for (const StoreyId storey : ids<StoreyId>(world.storeys())) {
        if (only != StoreyId::none && storey != only) continue;
        std::map<BarrierId, HeldBy> barriers;
        solids().each_near(near, storey, [&](const play::StandingPiece& piece) {
            const std::string start = on(storey) + barrier(piece.barrier);
            if (piece.piece->is_line()) {
                const OneWay way = piece.piece->one_way;
                if (passes(piece, p))
                    add_once(lines,
                             fmt::format("{}, a line{}, of {}", start,
                                         way == OneWay::none ? "" : fmt::format(" passed going {}", name_of(way)),
                                         of(piece)));
                return;
            }
            const Region region = standing(piece);
            const Side side = locate(std::span(&region, 1), p);
            HeldBy& held = barriers[piece.barrier];
            if (side == Side::inside) add_once(held.inside, fmt::format("{}, of {}", start, of(piece)));
            if (side != Side::edge) return;
            add_once(held.edge, fmt::format("{}, of {}", start, of(piece)));
            held.edges.push_back(region);
        });
        for (const auto& [id, held] : barriers) {
            const bool closed = held.inside.empty() && locate(unite(held.edges), p) == Side::inside;
            for (const std::string& line : closed ? held.edge : held.inside) add_once(lines, line);
            if (closed || !held.inside.empty()) solid.insert({storey, id});
        }
    }
    return solid;
}

// Describes shapes of this cell that would be here if nothing above carved them away.
void Prober::Parts::tell_carved(Point p, int column, int row, StoreyId only,
                                const std::set<std::pair<StoreyId, BarrierId>>& solid,
                                std::vector<std::string>& lines) const {
    struct Shaped {
        std::size_t layer;
        BarrierId barrier;
    };
    std::vector<Shaped> shaped;
    const Point from_corner{p.x - map.corner(column, row).x, p.y - map.corner(column, row).y};
    for (std::size_t l = 0; l < map.layers.size(); ++l) {
        const Layer& one = map.layers[l];
        if (one.holds_objects || !ground::counts(one, facts) || (only != StoreyId::none && one.storey != only))
            continue;
        const Placed& placed = map.placed(one, column, row);
        if (placed.tile < 0) continue;
        for (const ground::Part& part : ground::parts_of(world, map, one, placed, facts).parts) {   // carves first
            if (!part.trigger.empty() || locate(part.area, from_corner) != Side::inside) continue;
            if (part.adds) {
                shaped.push_back({l, part.barrier});
                continue;
            }
            for (const Shaped& below : shaped)
                if (below.barrier == part.barrier && map.layers[below.layer].storey == one.storey &&
                    solid.count({one.storey, part.barrier}) == 0)   // else something above adds it again
                    add_once(lines, fmt::format("no {} of layer {} here: {} in layer {} carves it away",
                                                barrier(below.barrier), map.layers[below.layer].name,
                                                play::tile_name(world, placed), one.name));
        }
    }
}

void Prober::Parts::tell_objects(Point p, StoreyId storey, std::vector<std::string>& lines) const {
    for (const Object& one : map.objects) {
        if (storey != StoreyId::none && one.storey != storey) continue;
        const bool covers = !one.area.empty() && locate(one.area, p) != Side::outside;
        const double off = std::hypot(p.x - one.position.x, p.y - one.position.y) / steps_per_px;
        if (!covers && off > 8) continue;
        const std::vector<std::string> words = play::object_lines(world, map, one, facts);
        lines.push_back(fmt::format("{}", fmt::join(words, "; ")) +
                        (covers || off == 0 ? "" : fmt::format("; {:.3g} px from here", off)));
    }
}

void Prober::Parts::tell_contact(PointPx p, PointPx normal, StoreyId only, std::vector<std::string>& lines) const {
    static constexpr std::array<const char*, 4> square{"top", "right", "bottom", "left"},
        diamond{"top right", "bottom right", "bottom left", "top left"};
    for (const StoreyId storey : ground::storeys_of(map)) {
        if (only != StoreyId::none && storey != only) continue;
        Touches touches;
        play::add_touched(world, map, solids(), {.point = p, .normal = normal, .storey = storey}, touches);
        touches.sort();
        for (const Touch& touch : touches)
            lines.push_back(fmt::format(
                "{}{}, of {} at cell ({}, {}){}", on(storey), barrier(touch.barrier),
                of(touch.sort, touch.layer, touch.object, touch.tile), touch.cell.column, touch.cell.row,
                touch.sort == Touched::rim
                    ? ""
                    : fmt::format(
                          ", its {} side",
                          (map.grid == GridSort::square ? square : diamond)[static_cast<std::size_t>(touch.side)])));
    }
    if (lines.empty()) lines.emplace_back("nothing lies within 1 px on that side");
}

void Prober::Parts::tell_mover(PointPx place, MoverId id, StoreyId storey, std::vector<std::string>& lines) const {
    const Point p{step_at(place.x), step_at(place.y)};
    const Mover& mover = world.mover(id);
    const auto meets = [&](const Regions& a, const Regions& b) { return !intersect(a, b).empty(); };
    const auto each_solid = [&](const Regions& area, const std::vector<BarrierId>& barriers, auto action) {
        solids().each_near(*bounds(area), storey, [&](const play::StandingPiece& piece) {
            if (piece.piece->is_line() || !std::binary_search(barriers.begin(), barriers.end(), piece.barrier)) return;
            if (meets(moved(Regions{{piece.piece->points, {}}}, piece.at), area)) action(piece);
        });
    };
    const Regions body = moved(mover.body, p);
    each_solid(body, mover.stopped_by, [&](const play::StandingPiece& piece) {
        add_once(lines, fmt::format("{} overlaps {} of {}", mover.name, barrier(piece.barrier), of(piece)));
    });
    if (lines.empty()) lines.push_back(mover.name + " fits here");
    const auto [column, row] = map.data_cell_at(p);
    if (mover.needs != 0 && map.has(column, row)) {
        const Passability say = passability(world, map, {column, row}, storey, facts);
        const std::string needed = fmt::format("{}", fmt::join(flag_names(world, mover.needs), " or "));
        lines.push_back((say.flags & mover.needs) != 0
                            ? fmt::format("the cell grants what it needs: {}", needed)
                            : fmt::format("the cell does not grant {}, which it needs", needed));
    }
    for (const Feeler& feeler : mover.feelers)
        each_solid(moved(feeler.area, p), feeler.senses, [&](const play::StandingPiece& piece) {
            add_once(lines, fmt::format("feeler {} senses {} of {}", feeler.name, barrier(piece.barrier), of(piece)));
        });
    for (const Object& one : map.objects)   // what would fire, except facts
        if (one.storey == storey && is_there(map, one, facts) && !one.area.empty() && meets(one.area, body) &&
            std::find(one.by.begin(), one.by.end(), id) != one.by.end())
            for (const FactId fact : one.needs)
                if (!std::binary_search(facts.begin(), facts.end(), fact))
                    lines.push_back(fmt::format("is inside {} {}, which needs {}", name_of(one.role),
                                                play::object_name(world, one), world.fact(fact).name));
    for (std::string& line : play::lines_of_firings(world, map, facts, id, place, storey))
        add_once(lines, std::move(line));
}

Prober::Prober(const World& world, const Map& map, const Facts& facts)
    : parts_(std::make_unique<Parts>(world, map, facts)) {}
Prober::~Prober() = default;
Prober::Prober(Prober&&) noexcept = default;
Prober& Prober::operator=(Prober&&) noexcept = default;

Probe Prober::at(PointPx place, const ProbeQuestion& question) const {
    const Map& map = parts_->map;
    const Point p{step_at(place.x), step_at(place.y)};
    const auto [column, row] = map.data_cell_at(p);
    Probe probe;
    probe.place =
        fmt::format("{} at ({:g}, {:g}) px, cell ({}, {}){}", map.name, place.x, place.y, map.first_column + column,
                    map.first_row + row, map.has(column, row) ? "" : ", outside of the map");
    if (map.has(column, row)) {
        parts_->tell_tiles({column, row}, question.storey, probe.tiles);
        parts_->tell_flags({column, row}, question.storey, probe.flags);
    }
    const auto solid = parts_->tell_solids(p, question.storey, probe.solids);
    if (map.has(column, row)) parts_->tell_carved(p, column, row, question.storey, solid, probe.solids);
    parts_->tell_objects(p, question.storey, probe.objects);
    if (question.normal) parts_->tell_contact(place, *question.normal, question.storey, probe.contact);
    if (question.mover != MoverId::none)
        parts_->tell_mover(place, question.mover, std::max(question.storey, StoreyId::ground), probe.mover);
    return probe;
}

std::vector<std::string> Prober::tiles_of(Cell cell) const {
    std::vector<std::string> lines;
    parts_->tell_tiles(parts_->map.data_cell(cell), StoreyId::none, lines);
    return lines;
}

std::vector<std::string> Prober::flags_of(Cell cell) const {
    std::vector<std::string> lines;
    parts_->tell_flags(parts_->map.data_cell(cell), StoreyId::none, lines);
    return lines;
}

std::vector<std::string> Prober::object(std::size_t object) const {
    return play::object_lines(parts_->world, parts_->map, parts_->map.objects[object], parts_->facts);
}

std::string text(const Probe& probe) {
    std::string all = probe.place + "\n";
    const auto part = [&](const char* title, const std::vector<std::string>& lines, const char* otherwise) {
        if (lines.empty() && *otherwise == '\0') return;
        all += fmt::format("{}\n", title);
        if (lines.empty()) all += fmt::format("  {}\n", otherwise);
        for (const std::string& line : lines) all += fmt::format("  {}\n", line);
    };
    part("tiles, from the top", probe.tiles, "none");
    part("passability", probe.flags, "");
    part("solid here", probe.solids, "nothing");
    part("objects here", probe.objects, "none");
    part("such a contact means", probe.contact, "");
    part("the mover", probe.mover, "");
    return all;
}

}   // namespace dryground
