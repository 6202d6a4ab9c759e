// The path and transform values of SVG.
//
// Idea. Curves are halved until their control points lie within the distance of the chord (de Casteljau).

#include "svg_path_internal.hpp"

#include <algorithm>
#include <cmath>
#include <stdexcept>

// Its parsers are templates of the library's own warnings.
#pragma GCC diagnostic push
#pragma GCC diagnostic ignored "-Wall"
#pragma GCC diagnostic ignored "-Wextra"
#pragma GCC diagnostic ignored "-Wpedantic"
#pragma GCC diagnostic ignored "-Wconversion"
#pragma GCC diagnostic ignored "-Wshadow"
#include <svgpp/svgpp.hpp>
#pragma GCC diagnostic pop

namespace dryground::files {

namespace {

using Point = std::array<double, 2>;
constexpr std::size_t most_points = 1'000'000;

struct TooMuch : std::runtime_error {
    TooMuch() : std::runtime_error("a path of more than a million points") {}
};

class PathMaker {   // called by the parser
public:
    PathMaker(const Matrix& transform, double within) : transform_(transform), within_(within) {}

    void path_move_to(double x, double y, svgpp::tag::coordinate::absolute) {
        paths.emplace_back();
        add(apply(transform_, {x, y}));
    }
    void path_line_to(double x, double y, svgpp::tag::coordinate::absolute) { add(apply(transform_, {x, y})); }
    void path_cubic_bezier_to(double x1, double y1, double x2, double y2, double x, double y,
                              svgpp::tag::coordinate::absolute) {
        curve(at_, apply(transform_, {x1, y1}), apply(transform_, {x2, y2}), apply(transform_, {x, y}), 0);
    }
    void path_close_subpath() {
        if (paths.empty()) return;
        paths.back().closed = true;
        const Point first = paths.back().points.front();
        paths.emplace_back();   // what follows without a move starts where this one did
        add(first);
    }
    void path_exit() {}

    std::vector<Subpath> paths;

private:
    void add(const Point& p) {
        if (!std::isfinite(p[0]) || !std::isfinite(p[1])) throw std::runtime_error("a point that is nowhere");
        at_ = p;
        std::vector<Point>& points = paths.back().points;
        if (points.empty() || points.back() != p) points.push_back(p);
        if (++count_ > most_points) throw TooMuch();
    }

    void curve(const Point& a, const Point& b, const Point& c, const Point& d, int depth) {
        const auto off = [&](const Point& p) {   // from the chord
            const double dx = d[0] - a[0], dy = d[1] - a[1], length = std::hypot(dx, dy);
            if (length == 0) return std::hypot(p[0] - a[0], p[1] - a[1]);
            const double along = std::clamp(((p[0] - a[0]) * dx + (p[1] - a[1]) * dy) / length / length, 0.0, 1.0);
            return std::hypot(p[0] - a[0] - along * dx, p[1] - a[1] - along * dy);
        };
        // A curve keeps within three quarters of its control points' distance.
        if (depth >= 16 || 0.75 * std::max(off(b), off(c)) <= within_) {
            add(d);
            return;
        }
        const auto half = [](const Point& p, const Point& q) { return Point{(p[0] + q[0]) / 2, (p[1] + q[1]) / 2}; };
        const Point ab = half(a, b), bc = half(b, c), cd = half(c, d), abc = half(ab, bc), bcd = half(bc, cd);
        const Point middle = half(abc, bcd);
        curve(a, ab, abc, middle, depth + 1);
        curve(middle, bcd, cd, d, depth + 1);
    }

    const Matrix& transform_;
    double within_;
    Point at_{};
    std::size_t count_ = 0;
};

struct MatrixTaker {
    Matrix matrix = identity;
    void transform_matrix(const boost::array<double, 6>& m) { std::copy(m.begin(), m.end(), matrix.begin()); }
};

// Removes parts that only start, and first points that are repeated at the end.
void tidy(std::vector<Subpath>& paths) {
    for (Subpath& path : paths) {
        std::vector<Point>& points = path.points;
        if (points.size() > 2 && points.front() == points.back()) path.closed = true;
        while (path.closed && points.size() > 1 && points.front() == points.back()) points.pop_back();
    }
    paths.erase(std::remove_if(paths.begin(), paths.end(), [](const Subpath& path) { return path.points.size() < 2; }),
                paths.end());
}

}   // namespace

Matrix times(const Matrix& a, const Matrix& b) {
    return {a[0] * b[0] + a[2] * b[1], a[1] * b[0] + a[3] * b[1],        a[0] * b[2] + a[2] * b[3],
            a[1] * b[2] + a[3] * b[3], a[0] * b[4] + a[2] * b[5] + a[4], a[1] * b[4] + a[3] * b[5] + a[5]};
}

Point apply(const Matrix& m, Point p) { return {m[0] * p[0] + m[2] * p[1] + m[4], m[1] * p[0] + m[3] * p[1] + m[5]}; }

std::optional<Matrix> parse_transform(const std::string& text) {
    if (text.find_first_not_of(" \t\r\n") == std::string::npos) return identity;
    MatrixTaker taker;
    try {
        using namespace svgpp;
        if (value_parser<tag::type::transform_list, transform_policy<policy::transform::matrix>>::parse(
                tag::attribute::transform(), taker, text, tag::source::attribute()))
            return taker.matrix;
    } catch (const std::exception&) {   // the parser's way to reject
    }
    return std::nullopt;
}

std::optional<std::vector<Subpath>> parse_path(const std::string& text, const Matrix& transform, double within) {
    PathMaker maker(transform, within);
    try {
        using namespace svgpp;
        if (!value_parser<tag::type::path_data, path_policy<policy::path::minimal>>::parse(
                tag::attribute::d(), maker, text, tag::source::attribute()))
            return std::nullopt;
    } catch (const std::exception&) {
        return std::nullopt;
    }
    tidy(maker.paths);
    return std::move(maker.paths);
}

}   // namespace dryground::files
