// Makes objects: where they stand, what they cover, where they lead.
//
// Forms become areas on the lattice, rounded once; turns come before rounding. Cost: O(points) per object.

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

#include "choose_internal.hpp"
#include "maker_internal.hpp"

namespace dryground {

namespace {

std::string words_of(const ObjectDraft& draft) {
    return draft.name.value.empty() ? fmt::format("unnamed {}", draft.kind.value)
                                    : fmt::format("'{}'", draft.name.value);
}

// Turns clockwise, as seen with y down, about the middle of its bounding box; rounded once. Returns nothing if a point
// leaves the range.
std::optional<Regions> turned(const Regions& area, double degrees, bool united) {
    const Bounds box = *bounds(area);
    const double middle_x = 0.5 * (box.least.x + box.most.x), middle_y = 0.5 * (box.least.y + box.most.y);
    const double radians = degrees * std::numbers::pi / 180;   // y points down, so that this is clockwise
    const double sine = std::sin(radians), cosine = std::cos(radians);
    Regions result = area;
    const auto turn = [&](Ring& points) {
        for (Point& p : points) {
            const double from_x = p.x - middle_x, from_y = p.y - middle_y;
            const double x = (cosine * from_x - sine * from_y + middle_x) / steps_per_px,
                         y = (sine * from_x + cosine * from_y + middle_y) / steps_per_px;
            if (!in_range(x) || !in_range(y)) return false;
            p = {to_steps(x), to_steps(y)};
        }
        return true;
    };
    for (Region& region : result) {
        bool fits = turn(region.outline);
        for (Ring& hole : region.holes) fits = fits && turn(hole);
        if (!fits) return std::nullopt;
    }
    // Rounding may make shapes touch that nearly touched: this makes the result valid again.
    return united ? unite(result) : result;
}

Point standing_point(const Bounds& box, Stands stands) {
    const std::int32_t x = box.least.x + (box.most.x - box.least.x) / 2;
    return {x, stands == Stands::feet ? box.most.y : box.least.y + (box.most.y - box.least.y) / 2};
}

}   // namespace

void WorldMaker::make_object(const ObjectDraft& draft, const LayerDraft& layer_draft, const Layer& layer, Map& map,
                             LayerId layer_id) {
    const std::string words = words_of(draft);
    const Within within(*this, fmt::format("object {}", words));
    object_name_ = draft.name.value;
    if (!draft.name.value.empty()) declare(objects_, draft.name);
    Name kind_name = draft.kind;
    if (kind_name.value.empty() && layer_draft.kind) kind_name = *layer_draft.kind;
    if (kind_name.value.empty()) {
        add(Rule::missing_key, draft.place, {fmt::format("object {}", words), "kind"},
            Hint{"set its kind: a kind of the world, or spawn, trigger, link, solid, entity", ""});
        object_name_.clear();
        return;
    }
    const KindId kind_id = look_up(kinds_, kind_name);
    if (kind_id != KindId::none) {
        const Kind& kind = parts_.kinds[index(kind_id)];
        Object object;
        object.name = draft.name.value;
        object.kind = kind_id;
        object.role = kind.role, object.motion = kind.motion;
        object.layer = layer_id;
        object.place = draft.place;
        object.place_of_position = draft.place_of_form;
        object.storey = draft.storey ? std::max(StoreyId::ground, look_up(storeys_, *draft.storey)) : layer.storey;
        object.tags = draft.tags;
        make_behaviour(draft, layer, map, object);
        object.props = make_properties(kind.fields, draft.props, words, draft.place);
        place_object(draft, kind, map, layer.offset, object);
        if (object.role == Role::link)
            make_link(draft, object);
        else if (draft.to)
            add(Rule::unknown_key, draft.to->place, {"to", fmt::format("a {}", name_of(object.role))},
                Hint{"only links lead somewhere: give it a kind of role link", ""});
        make_waivers(draft.waive,
                     draft.name.value.empty()
                         ? fmt::format("map '{}', layer '{}', object at {}", map.name, layer.name,
                                       fmt::format("[{}, {}]", to_px(object.position.x), to_px(object.position.y)))
                         : "",
                     draft.name.value.empty() ? "" : layer.name, draft.name.value);
        map.objects.push_back(std::move(object));
    }
    object_name_.clear();
}

// Sets what it does, and when: as declared, else as its kind declares.
void WorldMaker::make_behaviour(const ObjectDraft& draft, const Layer& layer, const Map& map, Object& object) {
    const Behaviour& kind = behaviours_[index(object.kind)];
    const auto ids = [&]<IsId Id>(const IdIndex<Id>& index, const std::optional<Names>& said,
                                  const std::optional<std::vector<Id>>& of_kind) {
        return said ? look_up(index, *said) : of_kind.value_or(std::vector<Id>{});
    };
    const auto id = [&]<IsId Id>(const IdIndex<Id>& index, const std::optional<Name>& said,
                                 const std::optional<Id>& of_kind, Id otherwise = Id::none) {
        return said ? look_up(index, *said) : of_kind.value_or(otherwise);
    };
    object.barrier = id(barriers_, draft.barrier, kind.barrier, layer.barrier);
    object.surface = draft.surface ? draft.surface : kind.surface;
    object.fires = draft.fires ? make_fires(*draft.fires) : kind.fires.value_or(Fires::enter);
    object.by = ids(movers_, draft.by, kind.by);
    const bool says_whom = draft.by ? !draft.by->empty() : kind.by && !kind.by->empty();
    if (!says_whom && map.player != MoverId::none) object.by = {map.player};
    object.once = draft.once.value_or(kind.once.value_or(false));
    object.every_s = draft.every_s.value_or(kind.every_s.value_or(0));
    object.runs = id(events_, draft.runs, kind.runs);
    object.gives = ids(facts_, draft.gives, kind.gives);
    object.needs = ids(facts_, draft.needs, kind.needs);
    object.when = ids(facts_, draft.when, kind.when);
    object.unless = ids(facts_, draft.unless, kind.unless);
    if (object.role == Role::link) object.link.arrival_runs = id(events_, draft.arrival_runs, kind.arrival_runs);
}

void WorldMaker::place_object(const ObjectDraft& draft, const Kind& kind, const Map& map, Point offset,
                              Object& object) {
    const Place& place = draft.place_of_form;
    Form form;
    if (const auto* point = std::get_if<PointPx>(&draft.form)) {
        if (numbers_fit({point->x, point->y}, "'at'", place))
            object.position = {to_steps(point->x), to_steps(point->y)};
    } else if (const auto* cells = std::get_if<AtCells>(&draft.form)) {
        if (cells->columns < 1 || cells->rows < 1) {
            add(Rule::out_of_range, place,
                {"'cells'", fmt::format("{} columns and {} rows wide", cells->columns, cells->rows),
                 "at least one of each"});
            return;
        }
        const double reach =
            std::max({std::abs(0.0 + cells->column), std::abs(0.0 + cells->row),
                      std::abs(0.0 + cells->column + cells->columns), std::abs(0.0 + cells->row + cells->rows)}) *
            std::max(map.cell_width, map.cell_height) * (map.grid == GridSort::isometric ? 2 : 1);
        if (!numbers_fit({reach}, "the cell", place)) return;
        const Ring outline =
            map.block_ring(cells->column - map.first_column, cells->row - map.first_row, cells->columns, cells->rows);
        const Region block{outline, {}};
        const Bounds box = *bounds({&block, 1});
        if (!cells->block) object.cell = {cells->column, cells->row};
        object.position = standing_point(box, kind.stands);
        // Gives an area to something that senses or blocks and is placed on cells, unless its kind has one.
        const bool covers = kind.role == Role::trigger || kind.role == Role::link || kind.role == Role::solid;
        object.drawn = cells->block || (covers && kind.area.empty());
        if (object.drawn) object.area = {block};
    } else if (std::holds_alternative<std::monostate>(draft.form)) {
        add(Rule::missing_key, draft.place, {fmt::format("object {}", words_of(draft)), "at"},
            Hint{"set its place", "at = [x, y], cell = [column, row], or a shape"});
        return;
    } else {
        std::visit(
            [&](const auto& drawn) {
                if constexpr (std::is_constructible_v<Form, decltype(drawn)>) form = drawn;
            },
            draft.form);
        Drawn drawn = draw(form, 0, 0, place);
        object.area = std::move(drawn.area);
        object.line = std::move(drawn.line);
        object.fault = drawn.fault;
        object.fault_at = drawn.fault_at;
        object.fault_words = std::move(drawn.fault_words);
        object.drawn = true;
        if (object.fault == ShapeFault::none && object.area.empty() && object.line.empty())
            return;   // its numbers are too large, already reported
        if (const auto* box = std::get_if<BoxPx>(&draft.form)) object.position = {to_steps(box->x), to_steps(box->y)};
    }
    const auto drawn_box = !object.line.empty() ? bounds(Regions{{object.line, {}}}) : bounds(object.area);
    object.turn = draft.turn;
    if (draft.turn != 0 && !draft.turned_from) turn_object(draft.turn, place, object);
    if (!object.line.empty())
        object.position = object.line[object.line.size() / 2];
    else if (!object.area.empty())
        object.position = standing_point(*bounds(object.area), kind.stands);
    if (draft.cell) object.cell = draft.cell;
    if (!object.drawn) object.area = moved(kind.area, object.position);
    set_box(draft, drawn_box ? drawn_box : bounds(object.area), object);
    make_hollow(draft, object);
    make_carves(draft, object);
    if (offset != Point{}) {
        object.position = moved(object.position, offset);
        object.middle = moved(object.middle, offset);
        object.area = moved(std::move(object.area), offset);
        for (Point& p : object.line) p = moved(p, offset);
        for (auto& [barrier, area] : object.carves) area = moved(std::move(area), offset);
    }
    keep_in_range(map, object, place);
}

// Sets the middle and size of the box around it before it was turned.
void WorldMaker::set_box(const ObjectDraft& draft, const std::optional<Bounds>& box, Object& object) const {
    object.middle = object.position;
    if (draft.turned_from) {
        const BoxPx& from = *draft.turned_from;
        object.middle = {to_steps(from.x + from.width / 2), to_steps(from.y + from.height / 2)};
        object.size = {to_steps(from.width), to_steps(from.height)};
    } else if (box) {
        object.size = {box->most.x - box->least.x, box->most.y - box->least.y};
        object.middle = {box->least.x + object.size.x / 2, box->least.y + object.size.y / 2};
    }
}

void WorldMaker::turn_object(double degrees, const Place& place, Object& object) {
    bool fits = true;
    if (!object.area.empty()) {
        auto area = turned(object.area, degrees, true);
        fits = area.has_value();
        if (area) object.area = std::move(*area);
    }
    if (!object.line.empty()) {
        auto line = turned({{object.line, {}}}, degrees, false);
        fits = line.has_value();
        if (line) object.line = std::move((*line)[0].outline);
    }
    if (!fits)
        add(Rule::too_large, place,
            {"the turned shape", "out of the range of coordinates", fmt::format("{} px", to_px(coordinate_limit))});
}

void WorldMaker::make_carves(const ObjectDraft& draft, Object& object) {
    for (const ObjectCarve& carve : draft.carves) {
        const BarrierId barrier = look_up(barriers_, carve.barrier);
        Regions area = object.area;
        if (carve.shape) {
            const bool drawable = !std::holds_alternative<WholeCell>(carve.shape->form) &&
                                  !std::holds_alternative<SharedShape>(carve.shape->form) &&
                                  !std::holds_alternative<Traced>(carve.shape->form);
            const Curves curves(*this, carve.shape->within_px);
            Drawn drawn = drawable ? draw(carve.shape->form, 0, 0, carve.shape->place) : Drawn{};
            area = drawn.fault == ShapeFault::none ? std::move(drawn.area) : Regions{};
        }
        if (area.empty())
            add(Rule::out_of_range, carve.barrier.place,
                {"a carve", "without an area",
                 "a box, polygon, circle, ellipse or capsule, or of an object with an area"});
        else if (barrier != BarrierId::none)
            object.carves.emplace_back(barrier, std::move(area));
    }
}

void WorldMaker::make_hollow(const ObjectDraft& draft, Object& object) {
    if (!draft.hollow) return;
    object.hollow = object.role == Role::solid && object.line.empty();
    if (!object.hollow)
        add(Rule::out_of_range, draft.place,
            {"'hollow'", object.line.empty() ? fmt::format("said of a {}", name_of(object.role)) : "said of a line",
             "said of solids with an area"});
}

void WorldMaker::make_link(const ObjectDraft& draft, Object& object) {
    if (!draft.to) {
        add(Rule::missing_key, draft.place, {fmt::format("link {}", words_of(draft)), "to"},
            Hint{"set where it leads", "to = \"map/object\""});
        return;
    }
    object.link.to = draft.to->value;
    object.link.place = draft.to->place;
    object.link.one_way = draft.one_way;
}

// Sets where links lead once all maps exist. Links that lead nowhere stay so: the rule `link-target` reports them.
void WorldMaker::resolve_links() {
    for (Map& map : parts_.maps)
        for (Object& object : map.objects) {
            const auto slash = object.link.to.find('/');
            if (object.link.to.empty()) continue;
            object.link.map = maps_.find(slash == std::string::npos ? map.name : object.link.to.substr(0, slash));
            if (object.link.map == MapId::none) continue;
            object.link.object = parts_.maps[index(object.link.map)].find_object(
                slash == std::string::npos ? object.link.to : object.link.to.substr(slash + 1));
        }
}

void WorldMaker::resolve_goals() {
    for (const Name& goal : world_.goal_objects) {
        parts_.goals.push_back({.words = goal.value, .place = goal.place});
        const auto slash = goal.value.find('/');
        const MapId map = maps_.find(goal.value.substr(0, slash));
        if (slash == std::string::npos || map == MapId::none) {
            if (!world_.lacks_maps) look_up(maps_, {goal.value.substr(0, slash), goal.place});
            if (map != MapId::none)
                add(Rule::out_of_range, goal.place,
                    {"a goal", fmt::format("'{}'", goal.value), "map/object, as in \"pump_house/lamp\""});
            continue;
        }
        NameIndex index{"object", {}, {}, {}};
        for (const Object& object : parts_.maps[dryground::index(map)].objects)
            if (!object.name.empty() && index.ids.emplace(object.name, 0).second) index.names.push_back(object.name);
        look_up(index, {goal.value.substr(slash + 1), goal.place});
        parts_.goals.back().map = map;
        parts_.goals.back().object = parts_.maps[dryground::index(map)].find_object(goal.value.substr(slash + 1));
    }
    for (const Name& goal : world_.goal_facts)
        parts_.goals.push_back({.words = goal.value, .fact = facts_.find(goal.value), .place = goal.place});
}

void WorldMaker::resolve_start() {
    if (!world_.start) return;
    parts_.start.words = world_.start->value;
    parts_.start.place = world_.start->place;
    const auto slash = parts_.start.words.find('/');
    parts_.start.map = maps_.find(parts_.start.words.substr(0, slash));
    if (parts_.start.map == MapId::none || slash == std::string::npos) return;
    parts_.start.object = parts_.maps[index(parts_.start.map)].find_object(parts_.start.words.substr(slash + 1));
}

}   // namespace dryground
