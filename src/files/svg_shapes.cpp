// Converts the shapes of SVG to places of objects: transforms applied, curves made straight.

#include "svg_shapes_internal.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "../geometry/ring_internal.hpp"
#include "svg_style_internal.hpp"
#include "text_keys_internal.hpp"

namespace dryground::files {

namespace {

using PointPx2 = std::array<double, 2>;

[[nodiscard]] bool keeps_axes(const Matrix& m) { return m[1] == 0 && m[2] == 0; }

// What is open but filled is an area, as it appears.
SvgShapes::Form line_or_area(std::vector<PointPx2> points, bool filled) {
    if (filled && points.size() > 2) return PolygonPx{std::move(points), {}};
    return LinePx{std::move(points)};
}
// Curves may end within rounding of where they began: points that fall on one lattice point are one.
void on_lattice(std::vector<Subpath>& parts) {
    const auto same = [](const PointPx2& a, const PointPx2& b) {
        return in_range(a[0]) && in_range(a[1]) && in_range(b[0]) && in_range(b[1]) &&
               to_steps(a[0]) == to_steps(b[0]) && to_steps(a[1]) == to_steps(b[1]);
    };
    for (Subpath& part : parts) {
        std::vector<PointPx2>& points = part.points;
        points.erase(std::unique(points.begin(), points.end(), same), points.end());
        while (part.closed && points.size() > 1 && same(points.front(), points.back())) points.pop_back();
    }
}

[[nodiscard]] bool is_inside(const std::vector<PointPx2>& ring, const PointPx2& p) {
    bool inside = false;
    detail::each_edge_of_ring(ring, [&](const PointPx2& a, const PointPx2& b) {
        if ((a[1] > p[1]) != (b[1] > p[1]) && p[0] < (b[0] - a[0]) * (p[1] - a[1]) / (b[1] - a[1]) + a[0])
            inside = !inside;
    });
    return inside;
}

}   // namespace

std::string svg_words_of(const pugi::xml_node& node) {
    const std::string id = node.attribute("id").value();
    return id.empty() ? fmt::format("a <{}>", node.name()) : fmt::format("<{}> '{}'", node.name(), id);
}

double SvgShapes::snapped(double at, std::size_t axis) const {
    return snap_[axis] > 0 ? std::round(at / snap_[axis]) * snap_[axis] : at;
}

// Returns a length in user units; a unit may follow it.
double SvgShapes::length(const pugi::xml_node& node, const char* name) {
    const std::string_view text = node.attribute(name).value();
    if (text.empty()) return 0;
    if (const auto px = svg_length(text)) return *px;
    tell_(node, fmt::format("'{}' of {}", name, svg_words_of(node)), fmt::format("'{}'", text), "a number of px");
    good_ = false;
    return 0;
}
std::vector<std::array<double, 2>> SvgShapes::points(const pugi::xml_node& node, const Matrix& transform) {
    std::vector<PointPx2> result;
    const std::vector<std::string> words = words_in(node.attribute("points").value());
    bool good = words.size() % 2 == 0 && !words.empty();
    for (std::size_t i = 0; good && i < words.size(); i += 2) {
        const auto x = number_of(words[i]), y = number_of(words[i + 1]);
        good = x && y;
        if (good) result.push_back(apply(transform, {*x, *y}));
    }
    if (good) return result;
    tell_(node, fmt::format("\'points\' of {}", svg_words_of(node)),
          fmt::format("'{}'", node.attribute("points").value()), "pairs of numbers");
    good_ = false;
    return {};
}

std::optional<SvgShapes::Form> SvgShapes::form_of(const pugi::xml_node& node, const Matrix& transform, bool filled) {
    good_ = true;
    const std::string_view name = node.name();
    std::optional<Form> form;
    if (name == "rect")
        form = rectangle(node, transform);
    else if (name == "circle")
        form = round(node, transform, length(node, "r"), length(node, "r"));
    else if (name == "ellipse")
        form = round(node, transform, length(node, "rx"), length(node, "ry"));
    else if (name == "line")
        form = LinePx{{apply(transform, {length(node, "x1"), length(node, "y1")}),
                       apply(transform, {length(node, "x2"), length(node, "y2")})}};
    else if (name == "polyline")
        form = line_or_area(points(node, transform), filled);
    else if (name == "polygon")
        form = PolygonPx{points(node, transform), {}};
    else
        form = path(node, node.attribute("d").value(), transform, filled);
    if (!good_ || !form) return std::nullopt;
    move_to_grid(*form);
    return form;
}
void SvgShapes::move_to_grid(Form& form) const {
    const auto move = [&](std::vector<PointPx2>& points) {
        for (PointPx2& p : points) p = {snapped(p[0], 0), snapped(p[1], 1)};
        points.erase(std::unique(points.begin(), points.end()), points.end());
    };
    if (snap_[0] <= 0) return;
    if (auto* box = std::get_if<BoxPx>(&form)) {
        const double right = snapped(box->x + box->width, 0), bottom = snapped(box->y + box->height, 1);
        box->x = snapped(box->x, 0), box->y = snapped(box->y, 1);
        box->width = right - box->x, box->height = bottom - box->y;
    } else if (auto* polygon = std::get_if<PolygonPx>(&form)) {
        move(polygon->points);
        if (polygon->points.size() > 1 && polygon->points.front() == polygon->points.back()) polygon->points.pop_back();
        for (auto& hole : polygon->holes) move(hole);
    } else if (auto* line = std::get_if<LinePx>(&form)) {
        move(line->points);
    }
}

std::optional<SvgShapes::Form> SvgShapes::rectangle(const pugi::xml_node& node, const Matrix& m) {
    const double x = length(node, "x"), y = length(node, "y"), w = length(node, "width"), h = length(node, "height");
    double rx = length(node, "rx"), ry = node.attribute("ry") ? length(node, "ry") : rx;
    if (!node.attribute("rx")) rx = ry;
    rx = std::min(std::abs(rx), w / 2), ry = std::min(std::abs(ry), h / 2);
    if (rx > 0 && ry > 0)
        return path(
            node,
            fmt::format("M{} {}H{}A{} {} 0 0 1 {} {}V{}A{} {} 0 0 1 {} {}H{}A{} {} 0 0 1 {} {}V{}A{} {} 0 0 1 {} {}Z",
                        x + rx, y, x + w - rx, rx, ry, x + w, y + ry, y + h - ry, rx, ry, x + w - rx, y + h, x + rx, rx,
                        ry, x, y + h - ry, y + ry, rx, ry, x + rx, y),
            m);
    const PointPx2 a = apply(m, {x, y}), c = apply(m, {x + w, y + h});
    if (keeps_axes(m))
        return BoxPx{std::min(a[0], c[0]), std::min(a[1], c[1]), std::abs(c[0] - a[0]), std::abs(c[1] - a[1])};
    return PolygonPx{{a, apply(m, {x + w, y}), c, apply(m, {x, y + h})}, {}};
}

std::optional<SvgShapes::Form> SvgShapes::round(const pugi::xml_node& node, const Matrix& m, double rx, double ry) {
    const double cx = length(node, "cx"), cy = length(node, "cy");
    const PointPx2 centre = apply(m, {cx, cy});
    if (keeps_axes(m)) return EllipsePx{centre[0], centre[1], std::abs(m[0]) * rx, std::abs(m[3]) * ry};
    const double scale = std::hypot(m[0], m[1]);
    const bool turned = std::abs(m[0] * m[2] + m[1] * m[3]) < 1e-9 * scale * scale &&
                        std::abs(std::hypot(m[2], m[3]) - scale) < 1e-9 * scale;
    if (turned && rx == ry) return EllipsePx{centre[0], centre[1], scale * rx, scale * rx};
    return path(node,
                fmt::format("M{} {}A{} {} 0 0 1 {} {}A{} {} 0 0 1 {} {}Z", cx - rx, cy, rx, ry, cx + rx, cy, rx, ry,
                            cx - rx, cy),
                m);
}

// One line; or an area: the largest of its parts, the others are its holes.
std::optional<SvgShapes::Form> SvgShapes::path(const pugi::xml_node& node, const std::string& data, const Matrix& m,
                                               bool filled) {
    auto parts = parse_path(data, m, std::max(within_px_, 1.0 / 64));
    const auto wrong = [&](const std::string& is, const char* should_be) {
        tell_(node, svg_words_of(node), is, should_be);
        return std::nullopt;
    };
    if (parts) on_lattice(*parts);
    if (!parts) return wrong("drawn by a 'd' that is not a path", "a path as SVG has it, of at most a million points");
    if (parts->empty()) return wrong("a path without a line", "an outline or a line");
    if (filled)   // an open part that is filled is closed by what one sees
        for (Subpath& part : *parts) part.closed = part.closed || part.points.size() > 2;
    const auto open = std::count_if(parts->begin(), parts->end(), [](const Subpath& part) { return !part.closed; });
    if (open > 0 && parts->size() > 1) return wrong("several lines in one path", "a path of its own for each line");
    if (open > 0) return LinePx{std::move(parts->front().points)};
    const auto area = [](const Subpath& part) {
        double twice = 0;
        detail::each_edge_of_ring(part.points,
                                  [&](const PointPx2& p, const PointPx2& q) { twice += p[0] * q[1] - p[1] * q[0]; });
        return std::abs(twice);
    };
    std::stable_sort(parts->begin(), parts->end(),
                     [&](const Subpath& a, const Subpath& b) { return area(a) > area(b); });
    PolygonPx polygon{std::move(parts->front().points), {}};
    for (std::size_t i = 1; i < parts->size(); ++i) {
        if (!is_inside(polygon.points, (*parts)[i].points.front()))
            return wrong("a path of parts beside each other", "a path of its own for each part; holes lie inside");
        polygon.holes.push_back(std::move((*parts)[i].points));
    }
    return polygon;
}

}   // namespace dryground::files
