// The pictures of the worlds to start from, painted px by px at any size, until there is art.

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdint>

#include "starter.hpp"

namespace app {

namespace dg = dryground;

namespace {

struct Paint {
    int red, green, blue;
};
constexpr Paint soil_light{124, 94, 64}, soil{112, 82, 54}, soil_dark{94, 68, 46}, grass{96, 140, 74},
    grass_dark{66, 106, 56}, water{52, 122, 144}, water_light{98, 164, 176}, wood{164, 116, 66}, wood_dark{104, 68, 38},
    marsh{138, 158, 98}, marsh_dark{124, 147, 89}, reed{74, 104, 52}, lamp{246, 208, 98}, iron{60, 62, 70},
    shell{238, 214, 190}, shell_dark{198, 140, 116}, coat{178, 70, 54}, skin{226, 178, 142}, boots{52, 44, 44};

// Returns the same for the same place: grain that does not change between runs.
unsigned grain(int x, int y) {
    auto hash = static_cast<std::uint32_t>(x) * 0x9E3779B1u ^ static_cast<std::uint32_t>(y) * 0x85EBCA77u;
    hash ^= hash >> 15;
    hash *= 0x2C1B3C6Du;
    hash ^= hash >> 12;
    hash *= 0x297A2D39u;
    return hash ^ hash >> 15;
}

class Canvas {
public:
    Canvas(int width, int height) {
        image_.width = width, image_.height = height;
        image_.rgba.resize(4 * static_cast<std::size_t>(width) * static_cast<std::size_t>(height));
    }
    void set(int x, int y, Paint paint) {
        if (x < 0 || y < 0 || x >= image_.width || y >= image_.height) return;
        unsigned char* p =
            image_.rgba.data() +
            4 * (static_cast<std::size_t>(y) * static_cast<std::size_t>(image_.width) + static_cast<std::size_t>(x));
        p[0] = static_cast<unsigned char>(paint.red);
        p[1] = static_cast<unsigned char>(paint.green);
        p[2] = static_cast<unsigned char>(paint.blue);
        p[3] = 255;
    }
    void box(int x, int y, int width, int height, Paint paint) {
        for (int dy = 0; dy < height; ++dy)
            for (int dx = 0; dx < width; ++dx) set(x + dx, y + dy, paint);
    }
    dg::Image image() && { return std::move(image_); }

private:
    dg::Image image_;
};

Paint soil_at(int x, int y) {
    const unsigned here = grain(x, y);
    return here % 11 == 0 ? soil_dark : here % 13 == 0 ? soil_light : soil;
}
Paint water_at(int x, int y, int n) {
    const int wave = static_cast<int>(std::lround(std::sin(6.2832 * x / n) * n / 16.0));
    return (y + wave) % std::max(4, n / 2) == 1 ? water_light : water;
}
Paint plank_at(int along, int across, int n) {
    const int plank = std::max(3, n / 4);
    if (along % plank == plank - 1) return wood_dark;
    return grain(along / plank, across) % 5 == 0 ? Paint{148, 102, 58} : wood;
}
Paint marsh_at(int x, int y) { return grain(x, y / 2) % 9 == 0 ? marsh_dark : marsh; }

// `depth`: px below the ground's surface.
Paint ground_at(int x, int y, int depth, int n) {
    const int edge = n / 5 + static_cast<int>(grain(x, 0) % 2);
    if (depth == 0) return {126, 168, 92};
    return depth < edge ? (grain(x, y) % 4 == 0 ? grass_dark : grass) : soil_at(x, y);
}

// Three stalks with heads, in a square of n px.
bool is_reed(int x, int y, int n, Paint& paint) {
    for (const auto& [at, top] : {std::pair{0.2, 0.3}, std::pair{0.5, 0.1}, std::pair{0.78, 0.4}}) {
        const int stalk = static_cast<int>(at * n), head = static_cast<int>(top * n);
        if (x < stalk || x > stalk + n / 24 || y < head) continue;
        paint = y < head + n / 4 ? wood_dark : reed;
        return true;
    }
    return false;
}

void paint_side(Canvas& canvas, int n) {
    Paint paint{};
    for (int y = 0; y < n; ++y)
        for (int x = 0; x < n; ++x) {
            canvas.set(x, y, ground_at(x, y, y, n));
            canvas.set(n + x, y, soil_at(x, y));
            if (x + y >= n - 1) canvas.set(2 * n + x, y, ground_at(x, y, x + y - (n - 1), n));
            canvas.set(3 * n + x, y, water_at(x, y, n));
            const int thick = std::max(3, n / 4), post = std::max(2, n / 8);
            if (y < thick)
                canvas.set(4 * n + x, y, y == thick - 1 ? wood_dark : plank_at(x, y, n));
            else if (x >= n / 2 - post / 2 && x < n / 2 - post / 2 + post)
                canvas.set(4 * n + x, y, wood_dark);
            if (is_reed(x, y, n, paint)) canvas.set(5 * n + x, y, paint);
            canvas.set(6 * n + x, y, marsh_at(x, y));
        }
}

void paint_top(Canvas& canvas, int n) {
    Paint paint{};
    for (int y = 0; y < n; ++y)
        for (int x = 0; x < n; ++x) {
            const bool lit = y < std::max(1, n / 8), dark = y >= n - std::max(1, n / 8);
            canvas.set(x, y, ground_at(x, y, y, n));
            canvas.set(n + x, y, lit ? Paint{140, 108, 76} : dark ? soil_dark : soil_at(x, y));
            canvas.set(2 * n + x, y, soil_at(x, y));
            canvas.set(3 * n + x, y, water_at(x, y, n));
            canvas.set(4 * n + x, y, plank_at(x, y, n));
            canvas.set(5 * n + x, y, is_reed(x, y, n, paint) ? paint : marsh_at(x, y));
            canvas.set(6 * n + x, y, marsh_at(x, y));
        }
}

// Diamonds of 2n x n px; stone and reeds are drawn on them, so that they lie flat.
void paint_isometric(Canvas& canvas, int n) {
    for (int y = 0; y < n; ++y)
        for (int x = 0; x < 2 * n; ++x) {
            const double across = std::abs(x + 0.5 - n) / n + std::abs(2 * y + 1.0 - n) / n;
            if (across > 1) continue;
            const bool rim = across > 0.82, inner = across < 0.6;
            const int along = x + 2 * y;   // in the direction of columns
            const auto put = [&](int tile, Paint paint) { canvas.set(2 * n * tile + x, y, paint); };
            put(0, rim ? grass_dark : grass);
            put(1, inner ? Paint{140, 108, 76} : rim ? soil_dark : soil);
            put(2, soil_at(x, y));
            put(3, water_at(x, 2 * y, 2 * n));
            put(4, plank_at(along / 2, y, n));
            put(5, grain(x, y) % 3 == 0 ? reed : marsh_at(x, y));
            put(6, marsh_at(x, y));
        }
}

}   // namespace

dg::Image starter_art(StarterView view, int cell) {
    const int count = static_cast<int>(std::size(starter_tiles));
    Canvas canvas(count * (view == StarterView::isometric ? 2 * cell : cell), cell);
    view == StarterView::side  ? paint_side(canvas, cell)
    : view == StarterView::top ? paint_top(canvas, cell)
                               : paint_isometric(canvas, cell);
    return std::move(canvas).image();
}

// A lamp on a post, two cells high, its foot in the middle of the lower edge.
dg::Image beacon_art(int cell) {
    Canvas canvas(cell, 2 * cell);
    const int middle = cell / 2, post = std::max(2, cell / 8), head = std::max(4, cell / 2);
    canvas.box(middle - post / 2, head, post, 2 * cell - head, iron);
    canvas.box(middle - post, 2 * cell - post, 2 * post, post, iron);
    canvas.box(middle - head / 2, head / 4, head, head, iron);
    canvas.box(middle - head / 2 + 1, head / 4 + 1, head - 2, head - 2, lamp);
    canvas.box(middle - head / 4, 0, head / 2, std::max(1, head / 4), iron);
    return std::move(canvas).image();
}

dg::Image shell_art(int cell) {
    const int size = std::max(5, cell / 2);
    Canvas canvas(size, size);
    for (int y = 0; y < size; ++y)
        for (int x = 0; x < size; ++x) {
            const double dx = x + 0.5 - size / 2.0, dy = y + 0.5 - size;
            if (dx * dx + dy * dy * 0.35 <= size * size / 4.0)
                canvas.set(x, y, static_cast<int>(std::atan2(dx, -dy) * 5 + 20) % 2 == 0 ? shell : shell_dark);
        }
    return std::move(canvas).image();
}

// Coat, head and boots, in a cell.
dg::Image warden_art(int cell) {
    Canvas canvas(cell, cell);
    const auto part = [&](double of) { return static_cast<int>(std::lround(of * cell)); };
    canvas.box(part(0.3), part(0.36), part(0.4), part(0.44), coat);
    canvas.box(part(0.34), part(0.12), part(0.32), part(0.26), skin);
    canvas.box(part(0.28), part(0.08), part(0.44), part(0.1), iron);
    canvas.box(part(0.32), part(0.8), part(0.14), cell - part(0.8), boots);
    canvas.box(part(0.54), part(0.8), part(0.14), cell - part(0.8), boots);
    return std::move(canvas).image();
}

}   // namespace app
