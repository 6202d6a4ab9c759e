// What a page knows of walking: which places are reached, and the way to all goals.

#include <algorithm>
#include <sstream>

#include "dryground/travel.hpp"
#include "page_numbers_internal.hpp"

namespace dryground::drawing {

namespace {

// Worlds with more cells in sum are not searched for a page.
constexpr std::int64_t most_cells_walked = std::int64_t{1} << 18;

std::vector<std::int32_t> points_of(const std::vector<PointPx>& way) {
    std::vector<std::int32_t> list{static_cast<std::int32_t>(way.size())};
    for (const PointPx p : way) list.push_back(to_steps(p.x)), list.push_back(to_steps(p.y));
    return list;
}

}   // namespace

namespace {

// Removes the numbers that they begin with.
std::vector<std::string> lines_of(const std::string& text) {
    std::vector<std::string> lines;
    std::istringstream in(text);
    for (std::string line; std::getline(in, line);)
        lines.push_back(line.substr(std::min(line.size(), line.find_first_not_of(" 0123456789"))));
    return lines;
}

}   // namespace

PageWalk::PageWalk(const World& world, const DrawOptions& options) : world_(world) {
    std::int64_t cells = 0;
    for (const Map& map : world.maps()) cells += std::int64_t{map.columns} * map.rows;
    if (cells > most_cells_walked) return;
    ReachOptions asked;
    asked.mover = options.merging.mover;
    asked.given = options.merging.facts;
    reach_ = std::make_unique<Reach>(reach(world, asked));
    if (reach_->begins()) tour_ = reach_->tour();
}

void PageWalk::add(Json& json, const Map& map) const {
    if (!reach_ || !reach_->begins()) return;
    const MapId id = world_.find_map(map.name);
    Json walk;
    for (const Reached reached : {Reached::yes, Reached::not_decided, Reached::no}) {
        std::vector<std::int32_t> areas, lines;
        for (const TravelPlace& place : reach_->places()) {
            if (place.map != id || place.reached != reached) continue;
            if (!place.line.empty()) {
                const std::vector<std::int32_t> line = points_of(place.line);
                lines.insert(lines.end(), line.begin(), line.end());
            }
            const std::vector<std::int32_t> rings = rings_of(place.area);
            areas.insert(areas.end(), rings.begin(), rings.end());
        }
        walk[std::string(name_of(reached))] = {numbers(areas), numbers(lines)};
    }
    std::vector<std::int32_t> ways;
    Json marks = Json::array();
    const std::vector<int> lines = tour_ ? line_numbers(*tour_) : std::vector<int>{};
    const std::vector<std::string> told = tour_ ? lines_of(text(world_, *tour_)) : std::vector<std::string>{};
    for (std::size_t i = 0; i < lines.size(); ++i) {
        const RouteStep& step = (*tour_)[i];
        if (step.from.map != id || lines[i] == 0) continue;
        if (step.way.size() > 1) {
            const std::vector<std::int32_t> way = points_of(step.way);
            ways.insert(ways.end(), way.begin(), way.end());
        }
        const PointPx end = step.way.empty() ? step.from.at : step.way.back();
        if (i + 1 == lines.size() || lines[i + 1] != lines[i])
            marks.push_back({lines[i], end.x, end.y, told.at(static_cast<std::size_t>(lines[i]))});
    }
    walk["ways"] = numbers(ways);
    walk["marks"] = std::move(marks);
    json["walk"] = std::move(walk);
}

}   // namespace dryground::drawing
