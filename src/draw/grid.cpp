// The grid, and the numbers of its columns and rows along the edge.

#include <algorithm>

#include "picture_internal.hpp"

namespace dryground::drawing {

namespace {

// Returns every how many cells a number is drawn, so that there is room for it: 1, 2, 5, 10, 20, 50 …
int every(double cell, double room) {
    for (int step = 1;; step *= 10)
        for (const int times : {1, 2, 5})
            if (cell * step * times >= room) return step * times;
}

int first_multiple(int from, int step) {
    return (from % step + step) % step == 0 ? from : from + step - (from % step + step) % step;
}

}   // namespace

void draw_grid(MapPicture& picture) {
    const Map& map = picture.map();
    const int step = every(picture.cell_width(), 7), strong = step == 1 ? 10 : step * 5;
    for (const bool is_strong : {false, true}) {
        std::string lines;
        const auto line = [&](Point a, Point b) {
            fmt::format_to(std::back_inserter(lines), "M{:.1f} {:.1f}L{:.1f} {:.1f}", picture.x(a), picture.y(a),
                           picture.x(b), picture.y(b));
        };
        const auto is_asked = [&](int number) { return number % step == 0 && (number % strong == 0) == is_strong; };
        for (int c = 0; c <= map.columns; ++c)
            if (is_asked(map.first_column + c)) line(map.corner(c, 0), map.corner(c, map.rows));
        for (int r = 0; r <= map.rows; ++r)
            if (is_asked(map.first_row + r)) line(map.corner(0, r), map.corner(map.columns, r));
        picture.put("<path d=\"{}\" fill=\"none\" stroke=\"{}\" stroke-opacity=\"{}\" stroke-width=\"1\"/>\n", lines,
                    picture.inks.lines, is_strong ? 0.42 : 0.2);
    }
}

void draw_cell_numbers(MapPicture& picture) {
    const Map& map = picture.whole();
    const Box& frame = picture.frame;
    const bool on_art = picture.has_diamonds() && picture.options.area;   // not beside it
    const auto number = [&](double x, double y, int n, const char* anchor) {
        if (Box{x - 20, y - 10, 40, 12}.meets(picture.window))
            picture.text(x, y, fmt::format("{}", n), 9, on_art ? picture.inks.text : picture.inks.soft, anchor,
                         on_art ? picture.edged(picture.inks.paper) : "");
    };
    if (picture.has_diamonds()) {   // along the two upper sides of the great diamond that is shown
        const CellArea shown = picture.options.area.value_or(map.area());
        const int top_row = shown.row - map.first_row, left_column = shown.column - map.first_column;
        const int step = every(picture.cell_width() / 2, 16);
        const auto beside = [&](Point a, Point b, double dx, int n, const char* anchor) {
            const double x = (picture.x(a) + picture.x(b)) / 2 + dx, y = (picture.y(a) + picture.y(b)) / 2 - 3;
            if (x > frame.x - 20 && x < frame.x + frame.width + 20 && y > frame.y - 12 && y < frame.y + frame.height)
                number(x, y, n, anchor);
        };
        for (int n = first_multiple(shown.column, step); n < shown.column + shown.columns; n += step) {
            const int c = n - map.first_column;
            beside(map.corner(c, top_row), map.corner(c + 1, top_row), 4, n, "start");
        }
        for (int n = first_multiple(shown.row, step); n < shown.row + shown.rows; n += step) {
            const int r = n - map.first_row;
            beside(map.corner(left_column, r), map.corner(left_column, r + 1), -4, n, "end");
        }
        return;
    }
    const int step_x = every(picture.cell_width(), 26), step_y = every(picture.cell_height(), 12);
    for (int n = first_multiple(map.first_column, step_x); n < map.first_column + map.columns; n += step_x) {
        const double x = picture.x(map.corner(n - map.first_column, 0)) + picture.cell_width() / 2;
        if (x >= frame.x && x <= frame.x + frame.width) number(x, frame.y - 4, n, "middle");
    }
    for (int n = first_multiple(map.first_row, step_y); n < map.first_row + map.rows; n += step_y) {
        const double y = picture.y(map.corner(0, n - map.first_row)) + picture.cell_height() / 2;
        if (y >= frame.y && y <= frame.y + frame.height) number(frame.x - 4, y + 3, n, "end");
    }
}

}   // namespace dryground::drawing
