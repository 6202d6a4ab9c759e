#include <algorithm>
#include <cmath>

#include "../model/utf8_internal.hpp"
#include "page_internal.hpp"

namespace dryground::drawing {

Page::Page(const World& world_in, const Map& map_in, const DrawOptions& options)
    : world(world_in), map(map_in), show(options.show), scale(options.scale) {
    const double px_wide = to_px(map.most().x - map.least().x) + 2.0 * map.cell_width;
    if (scale < 1) scale = std::clamp(static_cast<int>(std::lround(1300.0 / px_wide)), 1, 8);
    left = 16 + map.cell_width * scale;
    top = 56 + map.cell_height * scale;
}

std::string escaped(std::string_view text) {
    std::string result;
    for (const char c : text) {
        if (c == '&')
            result += "&amp;";
        else if (c == '<')
            result += "&lt;";
        else if (c == '>')
            result += "&gt;";
        else if (c == '"')
            result += "&quot;";
        else if (static_cast<unsigned char>(c) >= 0x20)
            result += c;
        else
            result += ' ';
    }
    return result;
}

double text_width(std::string_view text, double size) { return static_cast<double>(utf8::count(text)) * size * 0.62; }

void Page::label(double at_x, double at_y, std::string_view text, double size, std::string_view anchor,
                 std::string_view style) {
    put("<text x=\"{:.1f}\" y=\"{:.1f}\" font-size=\"{}\" text-anchor=\"{}\" {}>{}</text>\n", at_x, at_y, size, anchor,
        style, escaped(text));
}

void Page::label_near(double at_x, double at_y, double reach, const std::string& text, bool needed) {
    const double size = 12, wide = text_width(text, size), high = size + 2;
    std::vector<Box> places;
    for (int row = 0; row < (needed ? 4 : 1); ++row) {
        places.push_back({at_x - wide / 2, at_y - reach - high * (row + 1), wide, high});
        places.push_back({at_x - wide / 2, at_y + reach + high * row, wide, high});
    }
    if (needed) {
        places.push_back({at_x + reach + 3, at_y - high / 2, wide, high});
        places.push_back({at_x - reach - 3 - wide, at_y - high / 2, wide, high});
    }
    const auto is_free = [&](const Box& box) {
        return box.x >= left - map.cell_width * scale && box.x + box.width <= left + width() + map.cell_width * scale &&
               std::none_of(labels_.begin(), labels_.end(), [&](const Box& other) {
                   return box.x < other.x + other.width && other.x < box.x + box.width &&
                          box.y < other.y + other.height && other.y < box.y + box.height;
               });
    };
    const auto found = std::find_if(places.begin(), places.end(), is_free);
    if (!needed && found == places.end()) return;
    Box box = found == places.end() ? places.front() : *found;
    box.x = std::clamp(box.x, 4.0, std::max(4.0, left + width() + map.cell_width * scale - wide));
    labels_.push_back(box);
    put("<rect x=\"{:.1f}\" y=\"{:.1f}\" width=\"{:.1f}\" height=\"{:.1f}\" rx=\"3\" fill=\"#fffdf5\" "
        "fill-opacity=\"0.86\"/>\n",
        box.x - 2, box.y, box.width + 4, box.height);
    put("<text x=\"{:.1f}\" y=\"{:.1f}\" font-size=\"{}\" text-anchor=\"middle\">{}</text>\n", box.x + box.width / 2,
        box.y + size - 1, size, escaped(text));
}

std::string Page::path(const Ring& ring) const {
    std::string result;
    for (std::size_t i = 0; i < ring.size(); ++i)
        fmt::format_to(std::back_inserter(result), "{}{:.2f} {:.2f}", i == 0 ? "M" : "L", x(ring[i].x), y(ring[i].y));
    return result + "Z";
}

std::string Page::path(const Regions& regions) const {
    std::string result;
    for (const Region& region : regions) {
        result += path(region.outline);
        for (const Ring& hole : region.holes) result += path(hole);
    }
    return result;
}

}   // namespace dryground::drawing
