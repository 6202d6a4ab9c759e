// Where the mover gets to, and the way to all goals.

#include <algorithm>

#include "dryground/travel.hpp"
#include "picture_internal.hpp"

namespace dryground::drawing {

namespace {

struct Style {
    std::string_view id, hatch, dash;
    std::string ink;
};

// Solid lines and slanted hatching where it gets to, dotted where it does not.
Style style_of(const MapPicture& picture, Reached reached) {
    switch (reached) {
        case Reached::yes:
            return {"walked", "M0 8L8 0", "none", picture.inks.roles[4]};
        case Reached::not_decided:
            return {"undecided", "M0 4H8M4 0V8", "7 3", picture.inks.warning};
        case Reached::no:
            break;
    }
    return {"unreached", "M2 2h1M6 6h1", "1.5 3", picture.inks.error};
}

Point steps_of(PointPx p) { return {to_steps(p.x), to_steps(p.y)}; }

std::string path_of(const MapPicture& picture, const std::vector<PointPx>& points) {
    std::string path;
    for (const PointPx p : points)
        path +=
            fmt::format("{}{:.5g} {:.5g}", path.empty() ? "M" : "L", picture.x(steps_of(p)), picture.y(steps_of(p)));
    return path;
}

void draw_places(MapPicture& picture, const Reach& reach, MapId map) {
    for (const Reached reached : {Reached::no, Reached::not_decided, Reached::yes}) {
        const Style style = style_of(picture, reached);
        std::string areas, lines;
        for (const TravelPlace& place : reach.places()) {
            if (place.map != map || place.reached != reached) continue;
            if (!place.line.empty()) lines += path_of(picture, place.line);
            if (!place.area.empty()) areas += picture.path(place.area);
        }
        if (!areas.empty()) {
            picture.define(
                "<pattern id=\"{}\" width=\"8\" height=\"8\" patternUnits=\"userSpaceOnUse\"><path d=\"{}\" "
                "stroke=\"{}\" "
                "stroke-width=\"1\" fill=\"none\"/></pattern>\n",
                style.id, style.hatch, style.ink);
            picture.put("<path d=\"{}\" fill=\"url(#{})\" fill-rule=\"evenodd\" stroke=\"{}\" stroke-width=\"1.5\"/>\n",
                        areas, style.id, style.ink);
        }
        if (lines.empty()) continue;
        picture.put("<path d=\"{}\" fill=\"none\" stroke=\"{}\" stroke-width=\"6\" stroke-opacity=\"0.8\"/>\n", lines,
                    picture.inks.paper);
        picture.put("<path d=\"{}\" fill=\"none\" stroke=\"{}\" stroke-width=\"3.5\" stroke-dasharray=\"{}\"/>\n",
                    lines, style.ink, style.dash);
    }
}

void draw_ways(MapPicture& picture, const Route& route, MapId map) {
    std::string ways;
    for (const RouteStep& step : route)
        if (step.from.map == map && step.way.size() > 1) ways += path_of(picture, step.way);
    picture.put("<path d=\"{}\" fill=\"none\" stroke=\"{}\" stroke-width=\"4.5\" stroke-opacity=\"0.8\"/>\n", ways,
                picture.inks.paper);
    picture.put("<path d=\"{}\" fill=\"none\" stroke=\"{}\" stroke-width=\"2\"/>\n", ways, picture.inks.note);
}

// Returns the map that is drawn.
MapId map_of(const MapPicture& picture) { return picture.world.find_map(picture.whole().name); }

}   // namespace

void draw_walk(MapPicture& picture) {
    const Reach& reach = picture.walked();
    if (!reach.begins()) return;
    draw_places(picture, reach, map_of(picture));
    if (const std::optional<Route>& route = picture.tour()) draw_ways(picture, *route, map_of(picture));
}

// Draws where each step of the way ends; those that end at one place share a mark.
void draw_walk_numbers(MapPicture& picture) {
    if (!picture.tour()) return;
    const Route& route = *picture.tour();
    const std::vector<int> numbers = line_numbers(route);
    std::vector<std::pair<PointPx, std::string>> marks;
    for (std::size_t i = 0; i < route.size(); ++i) {
        const bool last_of_number = i + 1 == route.size() || numbers[i + 1] != numbers[i];
        if (numbers[i] == 0 || route[i].from.map != map_of(picture) || !last_of_number) continue;
        const PointPx at = route[i].way.empty() ? route[i].from.at : route[i].way.back();
        const auto same = std::find_if(marks.begin(), marks.end(), [&](const auto& mark) { return mark.first == at; });
        if (same == marks.end())
            marks.emplace_back(at, fmt::format("{}", numbers[i]));
        else
            same->second += fmt::format(", {}", numbers[i]);
    }
    for (const auto& [at, text] : marks) {
        const double x = picture.x(steps_of(at)), y = picture.y(steps_of(at)) - 12;
        const double half = std::max(8.0, text_width(text, 12) / 2 + 5);
        picture.put(
            "<rect x=\"{:.5g}\" y=\"{:.5g}\" width=\"{:.5g}\" height=\"16\" rx=\"8\" fill=\"{}\" stroke=\"{}\"/>\n",
            x - half, y - 8, 2 * half, picture.inks.note, picture.inks.paper);
        picture.text(x, y + 4.5, text, 12, picture.inks.sign_text, "middle", "font-weight=\"bold\"");
    }
}

}   // namespace dryground::drawing
