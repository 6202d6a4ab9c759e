// Objects: what they cover, where they stand, their names, where links lead; each role has a sign of its own.

#include <algorithm>
#include <cmath>

#include "picture_internal.hpp"

namespace dryground::drawing {

namespace {

constexpr double label_size = 12;
constexpr double least_for_names = 24;   // px of a cell's height: below it labels are numbers
constexpr std::size_t most_names = 99;   // in the key

Box box_of(const MapPicture& picture, const Object& object) {
    const auto bounds = bounds_of(picture.world, picture.map(), object);
    Box box =
        bounds ? picture.box(*bounds) : Box{picture.x(object.position), picture.y(object.position), 0, 0}.wider(6);
    box.y -= picture.raise(object.storey);
    return box;
}

// Returns the box of all that is drawn of it, including its path.
Box box_with_path(const MapPicture& picture, const Object& object) {
    const Box own = box_of(picture, object);
    double left = own.x, top = own.y, right = own.x + own.width, bottom = own.y + own.height;
    for (const PointPx place : path_of(picture.world, object)) {
        const Point at{to_steps(place.x), to_steps(place.y)};
        const double by_x = picture.x(at) - picture.x(object.position),
                     by_y = picture.y(at) - picture.y(object.position);
        left = std::min(left, own.x + by_x), right = std::max(right, own.x + own.width + by_x);
        top = std::min(top, own.y + by_y), bottom = std::max(bottom, own.y + own.height + by_y);
    }
    return {left, top, right - left, bottom - top};
}

bool is_drawn(const MapPicture& picture, const Object& object) {
    return is_shown(picture.map(), object, picture.options);
}

bool lies_in(const Box& inner, const Box& outer) {
    return inner.x >= outer.x && inner.y >= outer.y && inner.x + inner.width <= outer.x + outer.width &&
           inner.y + inner.height <= outer.y + outer.height;
}

// Returns places for a label of a size: above and below what it names; for a necessary one also further off and beside
// it.
std::vector<Box> places_for(const Box& of, double wide, double high, bool needed) {
    const double middle = of.x + of.width / 2;
    std::vector<Box> places;
    for (int row = 0; row < (needed ? 4 : 1); ++row)
        for (const double shift : {0.0, -wide / 2, wide / 2}) {
            places.push_back({middle - wide / 2 + shift, of.y - 4 - high * (row + 1), wide, high});
            places.push_back({middle - wide / 2 + shift, of.y + of.height + 3 + high * row, wide, high});
            if (!needed) break;
        }
    if (needed) {
        places.push_back({of.x + of.width + 4, of.y + of.height / 2 - high / 2, wide, high});
        places.push_back({of.x - 4 - wide, of.y + of.height / 2 - high / 2, wide, high});
    }
    return places;
}

// Puts it in the first free place, if there is one.
bool place_text(MapPicture& picture, Taken& taken, const Box& of, const std::string& text, bool needed) {
    const double high = label_size + 3;
    for (const Box& box : places_for(of, text_width(text, label_size) + 4, high, needed)) {
        if (!lies_in(box, picture.frame) || !taken.is_free(box)) continue;
        taken.take(box);
        const double off = std::max({of.y - box.y - box.height, box.y - of.y - of.height, 0.0});
        picture.labels.push_back(
            {box, text, {of.x + of.width / 2, box.y < of.y ? of.y : of.y + of.height}, off > high});
        return true;
    }
    return false;
}

// Places the number of a name that stands in the key.
void place_number(MapPicture& picture, Taken& taken, const Box& of, const std::string& name) {
    if (picture.names.size() < most_names &&
        place_text(picture, taken, of, fmt::format("{}", picture.names.size() + 1), true))
        picture.names.push_back(name);
    else
        ++picture.labels_left_out;
}

// Labels it with name and kind if there is room, else with the name alone; without a name with the kind, if there is
// room.
void place_label(MapPicture& picture, Taken& taken, const Object& object) {
    const Box of = box_of(picture, object);
    if (!of.meets(picture.frame)) return;
    const bool small = picture.cell_height() < least_for_names;
    const std::string& kind = picture.world.kind(object.kind).name;
    const bool leads = picture.shows(Thing::links) && object.role == Role::link && !object.link.to.empty();
    const std::string end = leads ? " → " + object.link.to : "";
    if (object.name.empty() || kind == name_of(object.role) || kind == object.name) {
        const bool needed = !object.name.empty() || leads;
        const std::string text = (object.name.empty() ? fmt::format("({})", kind) : object.name) + end;
        if (small && needed) return place_number(picture, taken, of, text);
        if (small) return;
        picture.labels_left_out += !place_text(picture, taken, of, text, needed) && needed;
        return;
    }
    if (small) return place_number(picture, taken, of, fmt::format("{} ({}){}", object.name, kind, end));
    if (!place_text(picture, taken, of, fmt::format("{} ({}){}", object.name, kind, end), false) &&
        !place_text(picture, taken, of, object.name + end, true))
        ++picture.labels_left_out;
}

// Draws where it moves to: a dotted line, and what it covers at each place.
void draw_path(MapPicture& picture, const Object& object, const std::string& colour) {
    const std::vector<PointPx> path = path_of(picture.world, object);
    if (path.empty()) return;
    const auto put = [&](const std::string& d) {
        picture.put(
            "<path d=\"{}\" fill=\"none\" stroke=\"{}\" stroke-width=\"1.5\" stroke-dasharray=\"1 4\" "
            "stroke-linecap=\"round\"/>\n",
            d, colour);
    };
    Ring line{object.position};
    for (const PointPx place : path) {
        line.push_back({to_steps(place.x), to_steps(place.y)});
        const Point by{line.back().x - object.position.x, line.back().y - object.position.y};
        if (!object.area.empty()) put(picture.path(moved(object.area, by)));
    }
    put(picture.path(line, false));
}

// Draws what it covers, its body, its path and its sign.
void draw_outlines(MapPicture& picture, const Object& object) {
    const std::string& colour = picture.inks.roles[static_cast<std::size_t>(object.role)];
    picture.put("<g class=\"{}\" data-name=\"{}\">\n", name_of(object.role), escaped(object.name));
    if (!object.area.empty())
        picture.put(
            "<path d=\"{}\" fill=\"{}\" fill-opacity=\"0.16\" stroke=\"{}\" stroke-width=\"1.5\" "
            "stroke-dasharray=\"5 3\"/>\n",
            picture.path(object.area), colour, colour);
    if (!object.line.empty())
        picture.put("<path d=\"{}\" fill=\"none\" stroke=\"{}\" stroke-width=\"2\"/>\n",
                    picture.path(object.line, false), colour);
    if (const Mover* mover = mover_of(picture.world, picture.map(), object))
        picture.put("<path d=\"{}\" fill=\"none\" stroke=\"{}\" stroke-width=\"1.2\"/>\n",
                    picture.path(moved(mover->body, object.position)), colour);
    draw_path(picture, object, colour);
    picture.put("<path d=\"{}\" fill=\"{}\" stroke=\"{}\" stroke-width=\"1\"/>\n",
                mark_path(object.role, picture.x(object.position), picture.y(object.position)), colour,
                picture.inks.paper);
    picture.close();
}

}   // namespace

const Mover* mover_of(const World& world, const Map& map, const Object& object) {
    const MoverId mover = body_of(world, map, object);
    return mover != MoverId::none ? &world.mover(mover) : nullptr;
}

std::optional<Bounds> bounds_of(const World& world, const Map& map, const Object& object) {
    if (!object.area.empty()) return bounds(object.area);
    if (!object.line.empty()) return bounds(Regions{{object.line, {}}});
    const Mover* mover = mover_of(world, map, object);
    return mover == nullptr ? std::nullopt : bounds(moved(mover->body, object.position));
}

// spawn: a flag; trigger: a diamond; link: an arrow; solid: a square; entity: a circle.
std::string mark_path(Role role, double x, double y) {
    switch (role) {
        case Role::spawn:
            return fmt::format("M{:.1f} {:.1f}v-14l9 4l-9 4", x, y);
        case Role::trigger:
            return fmt::format("M{:.1f} {:.1f}l6 6l-6 6l-6 -6z", x, y - 6);
        case Role::link:
            return fmt::format("M{:.1f} {:.1f}h7v-4l7 6l-7 6v-4h-7z", x - 7, y - 2);
        case Role::solid:
            return fmt::format("M{:.1f} {:.1f}h8v8h-8z", x - 4, y - 4);
        case Role::entity:
            break;
    }
    return fmt::format("M{:.1f} {:.1f}a5 5 0 1 0 10 0a5 5 0 1 0 -10 0z", x - 5, y);
}

void place_objects(MapPicture& picture, Taken& taken) {
    for (const Object& object : picture.map().objects)   // no label over a sign
        if (is_drawn(picture, object)) {
            const double x = picture.x(object.position), y = picture.y(object.position) - picture.raise(object.storey);
            taken.take(object.role == Role::spawn ? Box{x, y - 14, 9, 14} : Box{x, y, 0, 0}.wider(5));
        }
    // Those that somebody named come first.
    for (const bool named : {true, false})
        for (const Object& object : picture.map().objects)
            if (object.name.empty() != named && is_drawn(picture, object)) place_label(picture, taken, object);
}

void draw_objects(MapPicture& picture) {
    for (const Object& object : picture.map().objects)
        if (is_drawn(picture, object) && box_with_path(picture, object).wider(20).meets(picture.window))
            picture.on_storey(object.storey, [&] { draw_outlines(picture, object); });
}

// Draws a link: to another object of this map a curved arrow. To another map the label names it.
void draw_links(MapPicture& picture) {
    const Map& map = picture.map();
    const std::string& colour = picture.inks.roles[static_cast<std::size_t>(Role::link)];
    picture.define(
        "<marker id=\"arrow\" viewBox=\"0 0 8 8\" refX=\"7\" refY=\"4\" markerWidth=\"7\" markerHeight=\"7\" "
        "orient=\"auto\"><path d=\"M0 0L8 4L0 8z\" fill=\"{}\"/></marker>\n",
        colour);
    for (const Object& object : map.objects) {
        if (object.role != Role::link || object.link.object == ObjectId::none || !is_drawn(picture, object)) continue;
        if (picture.world.map(object.link.map).name != map.name) continue;
        const Object& to = map.object(object.link.object);
        const double x1 = picture.x(object.position), y1 = picture.y(object.position) - picture.raise(object.storey),
                     x2 = picture.x(to.position), y2 = picture.y(to.position) - picture.raise(to.storey);
        picture.put(
            "<path class=\"link\" d=\"M{:.1f} {:.1f}Q{:.1f} {:.1f} {:.1f} {:.1f}\" fill=\"none\" stroke=\"{}\" "
            "stroke-width=\"2\" stroke-dasharray=\"6 4\" marker-end=\"url(#arrow)\"/>\n",
            x1, y1, (x1 + x2) / 2 + (y2 - y1) / 5, (y1 + y2) / 2 - (x2 - x1) / 5, x2, y2,
            colour);   // to the left, so that the way back is another
    }
}

void draw_labels(MapPicture& picture) {
    for (const Label& label : picture.labels) {
        if (!label.box.wider(60).meets(picture.window)) continue;
        const double x = label.box.x + label.box.width / 2, y = label.box.y;
        if (label.leads)
            picture.put("<path d=\"M{:.1f} {:.1f}L{:.1f} {:.1f}\" stroke=\"{}\" stroke-width=\"1\"/>\n", x,
                        label.of[1] < y ? y : y + label.box.height, label.of[0], label.of[1], picture.inks.soft);
        picture.put(
            "<rect x=\"{:.1f}\" y=\"{:.1f}\" width=\"{:.1f}\" height=\"{:.1f}\" rx=\"3\" fill=\"{}\" "
            "fill-opacity=\"0.88\"/>\n",
            label.box.x, y, label.box.width, label.box.height, picture.inks.paper);
        picture.text(x, y + label_size - 1, label.text, label_size, picture.inks.text, "middle");
    }
}

}   // namespace dryground::drawing
