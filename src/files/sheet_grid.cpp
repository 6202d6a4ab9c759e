// The grid of a sheet, found by trying those that fit.

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "dryground/art.hpp"

namespace dryground {

namespace {

bool is_clear(const Image& image, int x, int y) {
    const std::size_t at =
        4 * (static_cast<std::size_t>(y) * static_cast<std::size_t>(image.width) + static_cast<std::size_t>(x));
    return image.rgba[at + 3] == 0;
}

// How much colours change from each column (or row) to the next, and which columns are clear.
struct Profile {
    std::vector<double> changes;   // from i to i + 1
    std::vector<bool> clear;
};

double change(const Image& image, std::size_t a, std::size_t b) {
    double sum = 0;
    const double alpha_a = image.rgba[a + 3], alpha_b = image.rgba[b + 3];
    for (std::size_t k = 0; k < 3; ++k)   // of what is seen: what is clear has no colour
        sum += std::abs(image.rgba[a + k] * alpha_a - image.rgba[b + k] * alpha_b) / 255;
    return sum + std::abs(alpha_a - alpha_b);
}

Profile profile(const Image& image, bool across) {
    const int count = across ? image.width : image.height, other = across ? image.height : image.width;
    Profile result;
    result.clear.assign(static_cast<std::size_t>(count), true);
    const auto offset = [&](int i, int k) {
        const int x = across ? i : k, y = across ? k : i;
        return 4 * (static_cast<std::size_t>(y) * static_cast<std::size_t>(image.width) + static_cast<std::size_t>(x));
    };
    for (int i = 0; i < count; ++i) {
        double sum = 0;
        for (int k = 0; k < other; ++k) {
            if (image.rgba[offset(i, k) + 3] != 0) result.clear[static_cast<std::size_t>(i)] = false;
            if (i + 1 < count) sum += change(image, offset(i, k), offset(i + 1, k));
        }
        if (i + 1 < count) result.changes.push_back(sum / other);
    }
    return result;
}

// A possible way to cut one direction.
struct Cut {
    int cell = 0, margin = 0, gap = 0, count = 0;
    double contrast = 0;   // how much more colours change at its borders than elsewhere
};

std::optional<Cut> judge(const Profile& profile, int length, int cell, int margin, int gap) {
    const int rest = length - 2 * margin + gap;
    if (rest <= 0 || rest % (cell + gap) != 0) return std::nullopt;
    Cut cut{cell, margin, gap, rest / (cell + gap), 0};
    std::vector<bool> border(profile.changes.size(), false);
    for (int i = 0; i < margin; ++i)
        if (!profile.clear[static_cast<std::size_t>(i)] || !profile.clear[static_cast<std::size_t>(length - 1 - i)])
            return std::nullopt;
    for (int n = 1; n < cut.count; ++n) {
        const int start = margin + n * (cell + gap);   // of the n-th cell
        for (int i = start - gap; i < start; ++i)
            if (!profile.clear[static_cast<std::size_t>(i)]) return std::nullopt;
        border[static_cast<std::size_t>(start - 1)] = true;
        border[static_cast<std::size_t>(start - gap - 1)] = true;
    }
    double at_borders = 0, elsewhere = 0;
    std::size_t borders = 0;
    for (std::size_t i = 0; i < border.size(); ++i)
        (border[i] ? at_borders : elsewhere) += profile.changes[i], borders += border[i];
    if (borders > 0 && borders < border.size())
        cut.contrast = (at_borders / static_cast<double>(borders) + 1) /
                       (elsewhere / static_cast<double>(border.size() - borders) + 1);
    return cut;
}

std::vector<Cut> cuts(const Profile& profile, int length, std::optional<int> cell, std::optional<int> margin,
                      std::optional<int> gap) {
    std::vector<Cut> result;
    for (int c = cell.value_or(4); c <= cell.value_or(std::min(length, 512)); ++c)
        for (int g = gap.value_or(0); g <= gap.value_or(std::min(8, c / 2)); ++g)
            for (int m = margin.value_or(0); m <= margin.value_or(std::min(8, c / 2)); ++m)
                if (const auto cut = judge(profile, length, c, m, g)) result.push_back(*cut);
    return result;
}

}   // namespace

std::optional<SheetGrid> guess_grid(const Image& sheet, const GridKnown& known) {
    if (sheet.width < 1 || sheet.height < 1) return std::nullopt;
    const auto part = [](const std::optional<std::array<int, 2>>& pair, std::size_t i) {
        return pair ? std::optional((*pair)[i]) : std::nullopt;
    };
    const Profile across = profile(sheet, true), down = profile(sheet, false);
    const std::vector<Cut> columns =
        cuts(across, sheet.width, part(known.cell, 0), part(known.margin, 0), part(known.gap, 0));
    const std::vector<Cut> rows =
        cuts(down, sheet.height, part(known.cell, 1), part(known.margin, 1), part(known.gap, 1));
    // Cells are nearly always square, and margins and gaps the same in both directions: others only if none of these
    // fits.
    std::optional<SheetGrid> best;
    double best_score = 0;
    int fitting = 0;
    for (const bool alike : {true, false}) {
        for (const Cut& c : columns)
            for (const Cut& r : rows) {
                const bool same = c.cell == r.cell && c.margin == r.margin && c.gap == r.gap;
                if (same != alike || c.count * r.count < 2) continue;
                ++fitting;
                // For a single row or column its borders tell nothing; the other direction's do.
                const double contrast = c.count == 1   ? r.contrast
                                        : r.count == 1 ? c.contrast
                                                       : std::sqrt(c.contrast * r.contrast);
                // If several fit equally: gaps that are really there, common sizes, and small cells.
                const bool usual = c.cell % 8 == 0 || c.cell == 12 || c.cell == 20;
                const double score = contrast * (usual ? 1.25 : 1) * (c.gap > 0 ? 1.2 : 1) *
                                     (1 + 0.3 / (1 + c.cell / 8.0)) / (1 + 0.1 * (c.margin > 0 && c.gap == 0));
                if (score <= best_score) continue;
                best_score = score;
                best = SheetGrid{{c.cell, r.cell}, {c.margin, r.margin}, {c.gap, r.gap}, c.count, r.count, ""};
                best->why = fmt::format(
                    "cells of {} x {} px with margin {} and gap {} fill it as {} x {}; colours change {:.1f} "
                    "times as much at their borders as elsewhere",
                    c.cell, r.cell, c.margin, c.gap, c.count, r.count, contrast);
            }
        if (best) break;
    }
    if (best && fitting > 1)
        best->why += fmt::format("; {} other {} less well", fitting - 1, fitting == 2 ? "grid fits" : "grids fit");
    return best;
}

bool is_empty_cell(const Image& sheet, const SheetGrid& grid, int column, int row) {
    const int left = grid.margin[0] + column * (grid.cell[0] + grid.gap[0]);
    const int top = grid.margin[1] + row * (grid.cell[1] + grid.gap[1]);
    for (int y = top; y < std::min(top + grid.cell[1], sheet.height); ++y)
        for (int x = left; x < std::min(left + grid.cell[0], sheet.width); ++x)
            if (!is_clear(sheet, x, y)) return false;
    return true;
}

std::optional<Colour> guess_clear(const Image& image) {
    const auto pixel = [&](int x, int y) {
        return image.rgba.data() +
               4 * (static_cast<std::size_t>(y) * static_cast<std::size_t>(image.width) + static_cast<std::size_t>(x));
    };
    if (image.width < 1 || image.height < 1) return std::nullopt;
    const unsigned char* corner = pixel(0, 0);
    const Colour colour{corner[0], corner[1], corner[2]};
    int full = 0;
    for (int channel = 0; channel < 3; ++channel) {
        if (corner[channel] != 0 && corner[channel] != 255) return std::nullopt;
        full += corner[channel] == 255 ? 1 : 0;
    }
    if (full == 0 || full == 3) return std::nullopt;   // black and white are colours of things
    const auto is_clear = [&](const unsigned char* p) { return Colour{p[0], p[1], p[2]} == colour; };
    if (!is_clear(pixel(image.width - 1, 0)) || !is_clear(pixel(0, image.height - 1)) ||
        !is_clear(pixel(image.width - 1, image.height - 1)))
        return std::nullopt;
    std::size_t count = 0;
    for (std::size_t i = 0; i + 3 < image.rgba.size(); i += 4) {
        if (image.rgba[i + 3] != 255) return std::nullopt;
        count += is_clear(image.rgba.data() + i) ? 1 : 0;
    }
    return 20 * count >= image.rgba.size() / 4 ? std::optional(colour) : std::nullopt;
}

}   // namespace dryground
