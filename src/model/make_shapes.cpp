// Converts what a designer drew to areas on the lattice.
//
// Every coordinate is rounded once, after flips and turns; curves become the fewest vertices within `within_px`
// (geometry/curves.cpp).

#include <fmt/format.h>

#include <algorithm>

#include "choose_internal.hpp"

namespace dryground {

namespace {

std::string words_of(const char* sort, const std::vector<std::array<double, 2>>& all) {
    std::vector<std::string> points;
    for (const auto& p : all) points.push_back(fmt::format("[{}, {}]", p[0], p[1]));
    if (points.size() > 4) {
        points.resize(3);
        points.emplace_back("…");
    }
    return fmt::format("{} [{}]", sort, fmt::join(points, ", "));
}

}   // namespace

bool WorldMaker::numbers_fit(std::initializer_list<double> numbers, const std::string& what, const Place& place) {
    for (const double number : numbers)
        if (!in_range(number)) {
            add(Rule::too_large, place,
                {what, fmt::format("{} px from the corner", number), fmt::format("{} px", to_px(coordinate_limit))});
            return false;
        }
    return true;
}

WorldMaker::Drawn WorldMaker::draw_polygon(const PolygonPx& polygon, const Place& place) {
    Drawn drawn;
    drawn.words = words_of("polygon", polygon.points);
    Ring ring;
    for (const auto& [x, y] : polygon.points) {
        if (!numbers_fit({x, y}, "a point of " + drawn.words, place)) return drawn;
        ring.push_back({to_steps(x), to_steps(y)});
    }
    const RingVerdict verdict = inspect(ring);
    const std::string at = fmt::format("({}, {})", to_px(verdict.where.x), to_px(verdict.where.y));
    switch (verdict.fault) {
        case RingFault::none:
            if (twice_area(ring) < 0) std::reverse(ring.begin(), ring.end());
            drawn.area = {{std::move(ring), {}}};
            for (const auto& hole : polygon.holes) {
                const Drawn cut = draw_polygon({hole, {}}, place);
                if (cut.area.empty()) {
                    Drawn faulty = cut;
                    faulty.words = fmt::format("a hole of {}", drawn.words);
                    return faulty;
                }
                drawn.area = subtract(drawn.area, cut.area);
            }
            break;
        case RingFault::too_few_points:
            drawn.fault_words = fmt::format("it has {} points, three are needed", ring.size());
            break;
        case RingFault::repeated_point:
            drawn.fault_words = fmt::format("the point {} is repeated", at);
            break;
        case RingFault::no_area:
            drawn.fault_words = "all its points are on one line";
            break;
        case RingFault::crosses_itself:
            drawn.fault = ShapeFault::crosses_itself;
            break;
    }
    if (!drawn.fault_words.empty()) drawn.fault = ShapeFault::empty;
    drawn.fault_at = verdict.where;
    return drawn;
}

WorldMaker::Drawn WorldMaker::draw_box(const BoxPx& box, const Place& place) {
    Drawn drawn;
    drawn.words = fmt::format("box [{}, {}, {}, {}]", box.x, box.y, box.width, box.height);
    if (!numbers_fit({box.x, box.y, box.width, box.height, box.x + box.width, box.y + box.height}, drawn.words, place))
        return drawn;
    const Point least{to_steps(box.x), to_steps(box.y)},
        most{to_steps(box.x + box.width), to_steps(box.y + box.height)};
    if (least.x < most.x && least.y < most.y)
        drawn.area = {box_region(least, most)};
    else
        drawn.fault_words = fmt::format("it is {} px wide and {} px high", box.width, box.height);
    return drawn;
}

WorldMaker::Drawn WorldMaker::draw_ellipse(const EllipsePx& round, const Place& place) {
    Drawn drawn;
    drawn.words = round.radius_x == round.radius_y
                      ? fmt::format("circle [{}, {}, {}]", round.x, round.y, round.radius_x)
                      : fmt::format("ellipse [{}, {}, {}, {}]", round.x, round.y, round.radius_x, round.radius_y);
    if (!numbers_fit({round.x, round.y, round.radius_x, round.radius_y, round.x + round.radius_x,
                      round.x - round.radius_x, round.y + round.radius_y, round.y - round.radius_y},
                     drawn.words, place))
        return drawn;
    const std::int32_t rx = to_steps(round.radius_x), ry = to_steps(round.radius_y);
    if (rx > 0 && ry > 0)
        drawn.area = {{ellipse_ring({to_steps(round.x), to_steps(round.y)}, rx, ry, within_px()), {}}};
    else
        drawn.fault_words = "its radius is not above 0";
    return drawn;
}

WorldMaker::Drawn WorldMaker::draw_capsule(const CapsuleBetween& capsule, const Place& place) {
    const auto& [x1, y1, x2, y2, radius] = capsule;
    Drawn drawn;
    drawn.words = fmt::format("capsule [{}, {}, {}, {}, {}]", x1, y1, x2, y2, radius);
    if (!numbers_fit({x1, y1, x2, y2, radius, std::min(x1, x2) - radius, std::max(x1, x2) + radius,
                      std::min(y1, y2) - radius, std::max(y1, y2) + radius},
                     drawn.words, place))
        return drawn;
    if (const std::int32_t steps = to_steps(radius); steps > 0)
        drawn.area = {
            {capsule_ring({to_steps(x1), to_steps(y1)}, {to_steps(x2), to_steps(y2)}, steps, within_px()), {}}};
    else
        drawn.fault_words = "its radius is not above 0";
    return drawn;
}

WorldMaker::Drawn WorldMaker::draw_line(const LinePx& line, const Place& place) {
    Drawn drawn;
    drawn.words = words_of("line", line.points);
    for (const auto& [x, y] : line.points) {
        if (!numbers_fit({x, y}, "a point of " + drawn.words, place)) return drawn;
        const Point p{to_steps(x), to_steps(y)};
        if (drawn.line.empty() || drawn.line.back() != p) drawn.line.push_back(p);
    }
    if (drawn.line.size() > 1) return drawn;
    drawn.fault_words = line.points.size() < 2 ? "it has fewer than two points" : "all its points are the same";
    drawn.line.clear();
    return drawn;
}

WorldMaker::Drawn WorldMaker::draw(const Form& form, std::int32_t cell_width, std::int32_t cell_height,
                                   const Place& place) {
    if (const auto* polygon = std::get_if<PolygonPx>(&form)) return draw_polygon(*polygon, place);
    Drawn drawn;
    if (std::holds_alternative<WholeCell>(form)) {
        drawn.words = "the cell";
        drawn.area = {box_region({0, 0}, {cell_width, cell_height})};
    } else if (const auto* box = std::get_if<BoxPx>(&form)) {
        drawn = draw_box(*box, place);
    } else if (const auto* round = std::get_if<EllipsePx>(&form)) {
        drawn = draw_ellipse(*round, place);
    } else if (const auto* capsule = std::get_if<CapsuleBetween>(&form)) {
        drawn = draw_capsule(*capsule, place);
    } else if (const auto* line = std::get_if<LinePx>(&form)) {
        drawn = draw_line(*line, place);
    } else if (const auto* area = std::get_if<Regions>(&form)) {
        drawn.words = "an area";
        drawn.area = *area;
        if (area->empty()) drawn.fault_words = "it is empty";
    }
    if (!drawn.fault_words.empty()) drawn.fault = ShapeFault::empty;
    return drawn;
}

WorldMaker::Curves::Curves(WorldMaker& maker, const std::optional<Located<double>>& set)
    : maker_(maker), before_(maker.within_px_) {
    if (!set) return;
    if (set->value >= 1.0 / 64 && set->value <= 64)
        maker.within_px_ = set->value;
    else
        maker.add(Rule::out_of_range, set->place, {"'within_px'", fmt::format("{}", set->value), "from 1/64 to 64"});
}

OneWay WorldMaker::make_one_way(const std::optional<Located<std::string>>& said) {
    if (!said) return OneWay::none;
    return choose<OneWay>(*said, "'one_way'");
}

}   // namespace dryground
