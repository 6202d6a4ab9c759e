// Rules about where objects are: a little off, in a heap, in metres, buried; and what they do.

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numeric>

#include "../ground/ground_internal.hpp"
#include "rules_internal.hpp"

namespace dryground::check_rules {

namespace {

// ---- in metres in place of px ----

// Returns the objects of a layer that are neither painted nor placed by cell.
std::vector<const Object*> placed_by_px(const Map& map, std::size_t layer) {
    std::vector<const Object*> objects;
    for (const Object& object : map.objects)
        if (object.layer == id_of<LayerId>(layer) && !object.cell) objects.push_back(&object);
    return objects;
}

bool inside(const Map& map, double x, double y) {
    return x >= map.least().x && y >= map.least().y && x <= map.most().x && y <= map.most().y;
}

// Returns what is wrong with the scale of a layer's objects; empty if nothing is.
std::string scale_fault(const World& world, const Map& map, const std::vector<const Object*>& objects) {
    if (objects.size() < 3 || map.grid != GridSort::square || world.per_metre() == 1) return {};
    const double wide = map.most().x - map.least().x, high = map.most().y - map.least().y, scale = world.per_metre();
    double far_x = 0, far_y = 0;
    bool corner = true, scaled_inside = true, out = true, divided_inside = true;
    for (const Object* object : objects) {
        const Bounds box =
            object->drawn && !object->area.empty() ? *bounds(object->area) : Bounds{object->position, object->position};
        const double x = box.most.x - map.least().x, y = box.most.y - map.least().y;
        far_x = std::max(far_x, x), far_y = std::max(far_y, y);
        corner =
            corner && box.least.x >= map.least().x && box.least.y >= map.least().y && x <= wide / 8 && y <= high / 8;
        scaled_inside = scaled_inside && inside(map, box.most.x * scale, box.most.y * scale);
        out = out && !inside(map, object->position.x, object->position.y);
        divided_inside = divided_inside && inside(map, object->position.x / scale, object->position.y / scale);
    }
    if (corner && scaled_inside && std::max(far_x * scale / wide, far_y * scale / high) > 0.25)
        return fmt::format("lie in its top-left corner, and would be spread over it {} times as far apart", scale);
    if (out && divided_inside) return fmt::format("lie outside, and would be inside {} times as near", scale);
    return {};
}

// ---- a little off ----

std::int32_t off(std::int32_t value, std::int32_t raster) {   // from the nearest multiple
    const std::int32_t rest = ((value % raster) + raster) % raster;
    return rest * 2 > raster ? rest - raster : rest;
}

struct Snap {
    Point to;
    std::string why;
};

// Reports a place that is nearly, but not quite, where it looks as if it should be.
std::optional<Snap> snapped(const Map& map, const Object& object, const std::vector<const Object*>& others) {
    const Point offset = ground::shift_of(map.layer(object.layer));
    const Point p{object.position.x - offset.x, object.position.y - offset.y};   // as it is written
    const std::int32_t from_x = off(p.x, steps_per_px), from_y = off(p.y, steps_per_px);
    const auto slight = [](std::int32_t by, std::int32_t most) { return by != 0 && std::abs(by) < most; };
    if (slight(from_x, steps_per_px / 2) || slight(from_y, steps_per_px / 2))
        return Snap{{slight(from_x, steps_per_px / 2) ? p.x - from_x : p.x,
                     slight(from_y, steps_per_px / 2) ? p.y - from_y : p.y},
                    fmt::format("{} px from a whole px", px(std::max(std::abs(from_x), std::abs(from_y))))};
    // The parts of cells that the layer's other objects are on.
    if (map.grid != GridSort::square || others.size() < 4) return std::nullopt;
    const std::int32_t wide = map.cell_width * steps_per_px / map.cell_parts,
                       high = map.cell_height * steps_per_px / map.cell_parts;
    const auto on = [&](const Object* other) {
        return off(other->position.x - offset.x, wide) == 0 && off(other->position.y - offset.y, high) == 0;
    };
    if (on(&object) ||
        std::any_of(others.begin(), others.end(), [&](const Object* other) { return other != &object && !on(other); }))
        return std::nullopt;   // stops at the first that is off, where there are two and this is called often
    const std::int32_t out_x = off(p.x, wide), out_y = off(p.y, high);
    const auto near = [](std::int32_t by) { return std::abs(by) <= steps_per_px; };
    if ((out_x == 0 && out_y == 0) || !near(out_x) || !near(out_y)) return std::nullopt;
    return Snap{{p.x - out_x, p.y - out_y},
                fmt::format("{} px from {} that the layer's other objects keep to",
                            px(std::max(std::abs(out_x), std::abs(out_y))),
                            map.cell_parts == 1 ? "the cells" : "the parts of cells")};
}

// A drawn box whose corner or size is a fraction of a px: returns what it should be.
std::optional<std::string> snapped_box(const Map& map, const Object& object) {
    if (object.area.size() != 1 || object.area[0].outline.size() != 4 || !object.line.empty()) return {};
    const Point offset = ground::shift_of(map.layer(object.layer));
    const Bounds box = *bounds(object.area);
    if (twice_area(object.area) != 2 * std::int64_t{box.most.x - box.least.x} * (box.most.y - box.least.y)) return {};
    const Point corner{box.least.x - offset.x, box.least.y - offset.y},
        size{box.most.x - box.least.x, box.most.y - box.least.y};
    const auto slight = [](std::int32_t value) {
        const std::int32_t by = off(value, steps_per_px);
        return by != 0 && std::abs(by) < steps_per_px / 2;
    };
    if (!slight(corner.x) && !slight(corner.y) && !slight(size.x) && !slight(size.y)) return {};
    const auto whole = [](std::int32_t value) { return px(value - off(value, steps_per_px)); };
    return fmt::format("box = [{}, {}, {}, {}]", whole(corner.x), whole(corner.y), whole(size.x), whole(size.y));
}

// ---- heaps ----

bool exclusive(const Object& a, const Object& b) {
    const auto meet = [](const std::vector<FactId>& x, const std::vector<FactId>& y) {
        return std::any_of(x.begin(), x.end(),
                           [&](FactId fact) { return std::find(y.begin(), y.end(), fact) != y.end(); });
    };
    return meet(a.when, b.unless) || meet(b.when, a.unless);
}

void check_stacked(const World& world, const Map& map, Findings& findings) {
    std::map<std::tuple<KindId, StoreyId, std::int32_t, std::int32_t>, std::vector<const Object*>> heaps;
    for (const Object& object : map.objects)
        if (object.role != Role::solid)
            heaps[{object.kind, object.storey, object.position.x, object.position.y}].push_back(&object);
    for (const auto& [key, heap] : heaps)
        for (std::size_t i = 1; i < heap.size(); ++i) {
            if (exclusive(*heap[i - 1], *heap[i])) continue;
            const bool conditional = !heap[i]->when.empty() || !heap[i]->unless.empty();
            if (conditional && (!heap[i - 1]->when.empty() || !heap[i - 1]->unless.empty()))
                continue;   // states-overlap reports it
            Finding finding = start_object(findings, Rule::objects_stacked, map, *heap[i], heap[i]->place_of_position,
                                           {words_of(world, *heap[i - 1]), words_of(world, *heap[i])});
            if (!heap[i - 1]->place.file.empty())
                finding.related.push_back({heap[i - 1]->place_of_position, "the other is here"});
            finding.hint = Hint{"move one, remove it, or let facts decide which is there", ""};
            findings.add(std::move(finding));
        }
}

void check_size(const World& world, const Map& map, const Object& object, Findings& findings) {
    const Kind& kind = world.kind(object.kind);
    if (!object.drawn || object.area.empty() || kind.area.empty()) return;
    const Bounds own = *bounds(object.area), standard = *bounds(kind.area);
    const double wide = static_cast<double>(own.most.x - own.least.x) / (standard.most.x - standard.least.x);
    const double high = static_cast<double>(own.most.y - own.least.y) / (standard.most.y - standard.least.y);
    const auto odd = [](double ratio) { return ratio > 1.5 || ratio < 0.5; };
    if (!odd(wide) && !odd(high)) return;
    const auto size = [](const Bounds& box) {
        return fmt::format("{} x {}", px(box.most.x - box.least.x), px(box.most.y - box.least.y));
    };
    Finding finding = start_object(findings, Rule::size_against_kind, map, object, object.place_of_position,
                                   {words_of(world, object), size(own), size(standard)});
    finding.hint = Hint{"is it another kind of thing? else leave its shape to the kind, and set its place",
                        fmt::format("at = {}", at_px(object.position))};
    findings.add(std::move(finding));
}

void check_line(const World& world, const Map& map, const Object& object, Findings& findings) {
    if (const auto fault = line_fault(object.line)) {
        Finding finding = start_object(findings, fault->rule, map, object, object.place_of_position,
                                       {words_of(world, object), fault->figure});
        finding.hint = fault->hint;
        findings.add(std::move(finding));
    }
}

// ---- triggers and links ----

void check_trigger(const World& world, Grounds& grounds, MapId map_id, const Object& object, Findings& findings) {
    const Map& map = world.map(map_id);
    if (object.role == Role::trigger && object.gives.empty() && object.runs == EventId::none) {
        Finding finding =
            start_object(findings, Rule::trigger_idle, map, object, object.place, {words_of(world, object)});
        finding.hint = Hint{"let it give a fact or run an event", "runs = \"…\""};
        findings.add(std::move(finding));
    }
    if (object.area.empty() || object.by.empty()) return;
    std::vector<std::string> stopped;
    for (const MoverId mover : object.by) {
        if (can_touch(world, grounds, map_id, mover, object)) return;
        stopped.push_back(world.mover(mover).name);
    }
    const bool senses = object.role == Role::trigger || object.role == Role::link;
    const Rule rule = object.fires == Fires::use ? Rule::use_unreachable : senses ? Rule::trigger_buried : Rule::buried;
    Finding finding = start_object(findings, rule, map, object, object.place_of_position,
                                   {words_of(world, object), fmt::format("{}", fmt::join(stopped, ", "))});
    finding.hint = Hint{"move it to where they can get, or make room for it", ""};
    findings.add(std::move(finding));
}

}   // namespace

void check_object_places(const World& world, Grounds& grounds, Findings& findings) {
    for (std::size_t m = 0; m < world.maps().size(); ++m) {
        const Map& map = world.maps()[m];
        for (std::size_t l = 0; l < map.layers.size(); ++l) {
            const std::vector<const Object*> objects = placed_by_px(map, l);
            if (objects.empty()) continue;
            if (const std::string fault = scale_fault(world, map, objects); !fault.empty()) {
                Finding finding =
                    start_object(findings, Rule::object_unscaled, map, *objects[0], objects[0]->place_of_position,
                                 {fmt::format("{}", objects.size()), map.layers[l].name, fault});
                finding.object.clear();
                finding.hint =
                    Hint{fmt::format("a metre is {} px: multiply by it where metres are meant", world.per_metre()), ""};
                findings.add(std::move(finding));
                continue;   // the one cause of everything else that is wrong with them
            }
            for (const Object* object : objects) {
                if (object->drawn) {
                    // Drawing programs leave fractions everywhere; people who write figures do not.
                    const auto box = object->place.file.ends_with(".svg") ? std::nullopt : snapped_box(map, *object);
                    if (!box) continue;
                    Finding finding =
                        start_object(findings, Rule::off_grid, map, *object, object->place_of_position,
                                     {words_of(world, *object), "its box is a fraction of a px from whole px"});
                    finding.hint = Hint{"snapped", *box};
                    findings.add(std::move(finding));
                    continue;
                }
                if (const auto snap = snapped(map, *object, objects)) {
                    Finding finding = start_object(findings, Rule::off_grid, map, *object, object->place_of_position,
                                                   {words_of(world, *object), snap->why});
                    finding.hint = Hint{"snapped", fmt::format("at = {}", at_px(snap->to))};
                    findings.add(std::move(finding));
                }
            }
        }
        check_stacked(world, map, findings);
        for (const Object& object : map.objects) {
            check_size(world, map, object, findings);
            if (!object.line.empty()) check_line(world, map, object, findings);
            const bool is_touched = object.fires != Fires::start && object.fires != Fires::defeat &&
                                    (object.runs != EventId::none || !object.gives.empty());
            if (object.role == Role::trigger || object.role == Role::link ||
                (object.role == Role::entity && is_touched))
                check_trigger(world, grounds, id_of<MapId>(m), object, findings);
        }
    }
}

}   // namespace dryground::check_rules
