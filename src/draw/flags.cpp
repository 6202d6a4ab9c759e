// Passability: a letter for each flag that a cell grants, and the sides of cells that are shut.

#include <algorithm>
#include <set>

#include "picture_internal.hpp"

namespace dryground::drawing {

namespace {

constexpr double least_cell = 8;   // px of the picture: letters in smaller cells cannot be read

// Calls tell(column, row, passability) for each cell in the window: for the highest shown storey for which it returns
// true, which means that something was drawn.
template <class Tell>
void each_said(MapPicture& picture, double margin, const Tell& tell) {
    std::vector<StoreyId> storeys = storeys_told(picture.world, picture.options);
    std::reverse(storeys.begin(), storeys.end());
    std::set<std::array<int, 2>> told;
    for (const StoreyId storey : storeys)
        picture.on_storey(storey, [&] {
            picture.each_cell(margin, [&](int column, int row) {
                if (storeys.size() > 1 && told.count({column, row}) > 0) return;
                const Facts& facts = picture.options.merging.facts;
                const bool says =
                    tell(column, row, passability(picture.world, picture.ground_map(), {column, row}, storey, facts));
                if (storeys.size() > 1 && says) told.insert({column, row});
            });
        });
}

}   // namespace

std::vector<std::string> letters_of_flags(const World& world) {
    std::vector<std::string> result;
    for (const NamedThing& flag : world.flags()) {
        std::string letter = fmt::format("{}", result.size());
        for (const char c : flag.name)
            if (std::find(result.begin(), result.end(), std::string(1, c)) == result.end()) {
                letter = std::string(1, c);
                break;
            }
        result.push_back(letter);
    }
    return result;
}

void draw_flags(MapPicture& picture) {
    if (picture.cell_height() < least_cell) return;
    const std::vector<std::string> letters = letters_of_flags(picture.world);
    const double size = std::clamp(picture.cell_height() / 2.4, 7.0, 14.0);
    each_said(picture, size, [&](int column, int row, const Passability& say) {
        if (say.flags_layer == LayerId::none) return false;
        std::string text;
        for (std::size_t f = 0; f < letters.size(); ++f)
            if ((say.flags >> f & 1) != 0) text += letters[f];
        const Box box = picture.box(picture.map().cell_box(column, row));
        picture.text(box.x + box.width / 2, box.y + box.height / 2 + size / 3, text.empty() ? "–" : text, size,
                     picture.inks.text, "middle", picture.edged(picture.inks.paper));
        return true;
    });
}

void draw_sides(MapPicture& picture) {
    const bool told = picture.cell_height() >= 2 * least_cell;
    each_said(picture, 9, [&](int column, int row, const Passability& say) {
        if (say.sides_layer == LayerId::none) return false;
        const Ring ring = picture.map().cell_ring(column, row);
        for (std::size_t side = 0; side < 4; ++side) {
            const Passage passage = say.sides.of[side];
            if (passage == Passage::open) continue;
            const double x1 = picture.x(ring[side]), y1 = picture.y(ring[side]), x2 = picture.x(ring[(side + 1) % 4]),
                         y2 = picture.y(ring[(side + 1) % 4]);
            picture.put(
                "<path class=\"side\" d=\"M{:.1f} {:.1f}L{:.1f} {:.1f}\" stroke=\"{}\" stroke-width=\"3\" "
                "stroke-dasharray=\"{}\"/>\n",
                x1, y1, x2, y2, picture.inks.side, passage == Passage::shut ? "none" : "5 3");
            if (told)
                picture.text((x1 + x2) / 2, (y1 + y2) / 2 + 3, name_of(passage), 9, picture.inks.side, "middle",
                             picture.edged(picture.inks.paper));
        }
        return true;
    });
}

}   // namespace dryground::drawing
