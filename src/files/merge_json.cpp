// `dryground/merge/1`: geometry for games, in the unit and direction they ask for. Rings run so that the solid is on
// the left by the numbers as written; with y up every y is negated, so every ring is turned around then, its first
// point staying first.

#include <algorithm>
#include <cmath>

#include "dryground/files.hpp"
#include "json_internal.hpp"

namespace dryground {

namespace {

using files::Json;

class Writer {
public:
    Writer(const World& world, const MergeOutput& output)
        : output_(output), scale_(output.unit == Unit::m ? world.per_metre() : 1.0), up_(output.y == YAxis::up) {}

    Json map(const Merge& merge) {
        regions_ = vertices_ = pieces_ = 0;
        shortest_ = -1;
        Json groups = Json::array();
        for (const Group& group : merge.groups) groups.push_back(this->group(group));
        Json surfaces = Json::array();
        for (const Surface& surface : merge.surfaces) {
            Json one = Json::object();
            if (surface.friction) one["friction"] = *surface.friction;
            if (surface.restitution) one["restitution"] = *surface.restitution;
            surfaces.push_back(std::move(one));
        }
        Json stats{{"shapes_in", merge.stats.shapes_in},
                   {"regions", regions_},
                   {"vertices", vertices_},
                   {"pieces", pieces_},
                   {"shortest_edge", std::max(shortest_, 0.0)}};
        return Json{{"map", merge.map},
                    {"groups", std::move(groups)},
                    {"surfaces", std::move(surfaces)},
                    {"stats", std::move(stats)}};
    }

private:
    [[nodiscard]] double number(std::int32_t steps) const { return to_px(steps) / scale_; }

    [[nodiscard]] Json ring(const Ring& points) {
        Json result = Json::array();
        const std::size_t n = points.size();
        for (std::size_t i = 0; i < n; ++i) {
            const Point p = points[up_ ? (n - i) % n : i];
            result.push_back(Json::array({number(p.x), up_ ? -number(p.y) : number(p.y)}));
        }
        return result;
    }

    void measure(const Ring& points) {
        vertices_ += points.size();
        for (std::size_t i = 0; i < points.size(); ++i) {
            const Point a = points[i], b = points[(i + 1) % points.size()];
            const double length = std::hypot(number(b.x) - number(a.x), number(b.y) - number(a.y));
            if (shortest_ < 0 || length < shortest_) shortest_ = length;
        }
    }

    Json group(const Group& group) {
        double area = 0;
        for (const Region& region : group.regions) {
            measure(region.outline);
            for (const Ring& hole : region.holes) measure(hole);
        }
        area = static_cast<double>(twice_area(group.regions)) / 2 / (double{steps_per_px} * steps_per_px) /
               (scale_ * scale_);
        regions_ += group.regions.size();
        Json result{{"storey", group.storey},
                    {"barrier", group.barrier},
                    {"trigger", group.trigger},
                    {"mover", ""},
                    {"one_way", ""},
                    {"area", area}};
        if (output_.regions) {
            Json regions = Json::array();
            for (const Region& region : group.regions) {
                Json holes = Json::array();
                for (const Ring& hole : region.holes) holes.push_back(ring(hole));
                regions.push_back({{"outline", ring(region.outline)}, {"holes", std::move(holes)}});
            }
            result["regions"] = std::move(regions);
        }
        if (output_.chains) {
            Json chains = Json::array();
            for (const Chain& chain : group.chains) chains.push_back(this->chain(chain));
            result["chains"] = std::move(chains);
        }
        if (output_.pieces) {
            Json pieces = Json::array();
            for (const Ring& piece : group.pieces) pieces.push_back(ring(piece));
            pieces_ += group.pieces.size();
            result["pieces"] = std::move(pieces);
        }
        return result;
    }

    Json chain(const Chain& chain) {
        std::vector<int> surfaces = chain.surfaces;
        if (up_) std::reverse(surfaces.begin(), surfaces.end());
        return {{"points", ring(chain.points)},
                {"closed", true},
                {"two_sided", false},
                {"before", nullptr},
                {"after", nullptr},
                {"surfaces", surfaces}};
    }

    const MergeOutput& output_;
    double scale_;
    bool up_;
    std::size_t regions_ = 0, vertices_ = 0, pieces_ = 0;
    double shortest_ = -1;
};

}   // namespace

std::string merge_json(const World& world, const std::vector<Merge>& merges, const MergeOutput& output) {
    Writer writer(world, output);
    Json maps = Json::array();
    for (const Merge& merge : merges) maps.push_back(writer.map(merge));
    const Json root{{"format", "dryground/merge/1"},
                    {"world", world.title()},
                    {"unit", output.unit == Unit::px ? "px" : "m"},
                    {"per_metre", world.per_metre()},
                    {"y", output.y == YAxis::down ? "down" : "up"},
                    {"plane", "screen"},
                    {"maps", std::move(maps)}};
    return files::json_text(root);
}

}   // namespace dryground
