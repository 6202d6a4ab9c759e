// Draws a map in two versions as one picture: before and after with the changes marked on both, and listed in words.

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <stdexcept>

#include "../draw/art_internal.hpp"
#include "../draw/draw_map_internal.hpp"
#include "dryground/compare.hpp"

namespace dryground {

namespace {

using drawing::Inks;
using drawing::MapPicture;

// The marks of one version: what the other one does not have.
struct WhichOne {
    const char* name;     // "before" or "after"
    const char* ground;   // what is written for ground that the other version does not have
    const char* hatch;    // distinguished by more than its colour
    bool is_after;
};
constexpr WhichOne sides[] = {{"before", "ground that is gone", "M0 0L8 8M8 0L0 8", false},
                              {"after", "new ground", "M4 1V7M1 4H7", true}};

// By Difference.
constexpr std::array<std::string_view, 4> badges{"+", "\u2212", "\u2192", "\u2260"};
std::string_view badge_of(Difference difference) { return badges[static_cast<std::size_t>(difference)]; }

std::string ink_of(const WhichOne& side, const Inks& inks) { return side.is_after ? inks.roles[4] : inks.error; }

const Map* map_of(const World& world, std::string_view name) {
    const MapId id = world.find_map(name);
    return id == MapId::none ? nullptr : &world.map(id);
}

// Returns the part of a version's ground that the other version does not have, by storey.
std::map<StoreyId, Regions> ground_only_in(const World& world, const Map& map, const World& other, const Map* there) {
    std::map<StoreyId, Regions> own;
    const Merge known = there == nullptr ? Merge{} : merge(other, *there, {.forms = {}});
    for (const Group& group : merge(world, map, {.forms = {}}).groups) {
        if (group.barrier.empty() || group.regions.empty()) continue;
        Regions left = subtract(group.regions, known.group(group.barrier, group.storey).regions);
        Regions& all = own[group.storey_id];
        all.insert(all.end(), std::make_move_iterator(left.begin()), std::make_move_iterator(left.end()));
    }
    for (auto& [storey, regions] : own) regions = unite(regions);
    return own;
}

class Marker {
public:
    Marker(const WhichOne& side, const Comparison& comparison, const std::map<StoreyId, Regions>& ground,
           const Map* other)
        : side_(side), comparison_(comparison), ground_(ground), other_(other) {}

    void draw_places(MapPicture& picture) const {
        picture.hatching("changed", {ink_of(side_, picture.inks), "none", side_.hatch}, picture.inks);
        for (const auto& ground : ground_)   // by storey
            picture.on_storey(ground.first, [&] { draw_ground(picture, picture.path(ground.second)); });
        draw_cells(picture);
    }
    void draw_objects(MapPicture& picture) const {
        const Map& map = picture.whole();
        for (const ThingChanged& thing : comparison_.things)
            if (thing.map == map.name && thing.sort == "object" && !thing.name.empty()) draw_thing(picture, thing);
    }

private:
    void draw_ground(MapPicture& picture, const std::string& path) const {
        if (path.empty()) return;
        picture.put(
            "<path class=\"changed-ground\" d=\"{}\" fill=\"url(#changed)\" fill-rule=\"evenodd\" stroke=\"{}\" "
            "stroke-width=\"5\"/>\n",
            path, picture.inks.paper);
        picture.put("<path d=\"{}\" fill=\"none\" stroke=\"{}\" stroke-width=\"2.5\"/>\n", path,
                    ink_of(side_, picture.inks));
    }
    void draw_cells(MapPicture& picture) const {
        const Map& map = picture.whole();
        for (const CellsChanged& cells : comparison_.cells) {
            if (cells.map != map.name) continue;
            for (const CellArea& area : cells.places) {
                const std::string path = picture.path(
                    map.block_ring(area.column - map.first_column, area.row - map.first_row, area.columns, area.rows));
                picture.put(
                    "<path d=\"{0}\" fill=\"none\" stroke=\"{1}\" stroke-width=\"4\"/>\n<path "
                    "class=\"changed-cells\" d=\"{0}\" fill=\"none\" stroke=\"{2}\" stroke-width=\"2\" "
                    "stroke-dasharray=\"7 4\"/>\n",
                    path, picture.inks.paper, picture.inks.text);
            }
        }
    }
    void draw_thing(MapPicture& picture, const ThingChanged& thing) const {
        const Map& map = picture.whole();
        if (thing.difference == (side_.is_after ? Difference::removed : Difference::added)) return;
        const ObjectId id = map.find_object(thing.name);
        if (id == ObjectId::none) return;
        const Object& object = map.object(id);
        const ObjectId was = other_ == nullptr ? ObjectId::none : other_->find_object(thing.name);
        if (thing.difference == Difference::moved && side_.is_after && was != ObjectId::none)
            draw_way(picture, other_->object(was), object);
        draw_object(picture, object, badge_of(thing.difference));
    }
    void draw_object(MapPicture& picture, const Object& object, std::string_view badge) const {
        const double x = picture.x(object.position), y = picture.y(object.position) - picture.raise(object.storey);
        const std::string ink = ink_of(side_, picture.inks);
        for (const auto& [stroke, width] : {std::pair{picture.inks.paper, 6.0}, std::pair{ink, 3.0}})
            picture.put(
                "<circle class=\"changed-object\" cx=\"{:.1f}\" cy=\"{:.1f}\" r=\"13\" fill=\"none\" stroke=\"{}\" "
                "stroke-width=\"{:g}\"/>\n",
                x, y, stroke, width);
        picture.put("<circle cx=\"{:.1f}\" cy=\"{:.1f}\" r=\"8\" fill=\"{}\" stroke=\"{}\" stroke-width=\"1.5\"/>\n",
                    x + 12, y - 12, ink, picture.inks.paper);
        picture.text(x + 12, y - 7.5, badge, 13, picture.inks.sign_text, "middle", "font-weight=\"bold\"");
    }
    // Marks from where an object came.
    void draw_way(MapPicture& picture, const Object& from, const Object& to) const {
        const double up = picture.raise(to.storey), x = picture.x(from.position), y = picture.y(from.position) - up;
        const double dx = picture.x(to.position) - x, dy = picture.y(to.position) - up - y, length = std::hypot(dx, dy);
        if (length < 30) return;
        const double end = (length - 15) / length, ux = dx / length * 8, uy = dy / length * 8;
        picture.put(
            "<path class=\"changed-way\" d=\"M{:.1f} {:.1f}L{:.1f} {:.1f}l{:.1f} {:.1f}m{:.1f} {:.1f}l{:.1f} {:.1f}\" "
            "fill=\"none\" stroke=\"{}\" stroke-width=\"2\" stroke-dasharray=\"none\"/>\n",
            x, y, x + dx * end, y + dy * end, -ux - uy * 0.6, -uy + ux * 0.6, ux + uy * 0.6, uy - ux * 0.6,
            -ux + uy * 0.6, -uy - ux * 0.6, ink_of(side_, picture.inks));
    }

    const WhichOne& side_;
    const Comparison& comparison_;
    const std::map<StoreyId, Regions>& ground_;
    const Map* other_;
};

// Returns a document as an element of another one, at a place, with names different from those of the other.
std::string embedded(std::string document, double x, double y, const std::string& prefix) {
    document.erase(0, document.find("<svg "));
    const auto replace = [&](std::string_view what, const std::string& with) {
        for (std::size_t at = document.find(what); at != std::string::npos; at = document.find(what, at + with.size()))
            document.replace(at, what.size(), with);
    };
    replace(" id=\"", fmt::format(" id=\"{}-", prefix));
    replace("url(#", fmt::format("url(#{}-", prefix));
    replace("href=\"#", fmt::format("href=\"#{}-", prefix));
    document.insert(5, fmt::format("x=\"{:g}\" y=\"{:g}\" ", x, y));
    return document;
}

struct Half {
    std::string document;
    double width = 0, height = 0;
};
Half half_of(const WhichOne& side, const Version& version, const Map& map, const Version& other, const Map* there,
             const Comparison& comparison, const ArtSource& source, const DrawOptions& options) {
    const std::map<StoreyId, Regions> ground = ground_only_in(version.world, map, other.world, there);
    const Marker marker(side, comparison, ground, there);
    MapPicture picture(version.world, map, Report{}, options);
    picture.over = [&](MapPicture& on) { marker.draw_places(on); };
    picture.on_top = [&](MapPicture& on) { marker.draw_objects(on); };
    drawing::Art art(version.world, source, picture.scale, options.palette == Palette::grey);
    return {drawing::draw_window(picture, art, picture.page), picture.page.width, picture.page.height};
}

// Returns the key of marks of both versions, and then the changes in words.
double draw_words(drawing::Sheet& sheet, const Comparison& comparison, const std::string& map, double y,
                  const Inks& inks) {
    constexpr std::size_t most = 40;
    double x = 16;
    for (const WhichOne& side : sides) {
        sheet.hatching(fmt::format("sample-{}", side.name), {ink_of(side, inks), "none", side.hatch}, inks);
        sheet.put(
            "<rect x=\"{:g}\" y=\"{:g}\" width=\"34\" height=\"14\" fill=\"url(#sample-{})\" stroke=\"{}\" "
            "stroke-width=\"2\"/>\n",
            x, y, side.name, ink_of(side, inks));
        sheet.text(x + 42, y + 12, side.ground, 13, inks.text);
        x += 60 + drawing::text_width(side.ground, 13);
    }
    sheet.put(
        "<rect x=\"{:g}\" y=\"{:g}\" width=\"34\" height=\"14\" fill=\"none\" stroke=\"{}\" stroke-width=\"2\" "
        "stroke-dasharray=\"7 4\"/>\n",
        x, y, inks.text);
    sheet.text(x + 42, y + 12, "changed cells", 13, inks.text);
    x += 60 + drawing::text_width("changed cells", 13);
    std::string objects = "objects:";
    for (const Difference difference : {Difference::added, Difference::removed, Difference::moved, Difference::changed})
        objects += fmt::format(" {} {}", badge_of(difference), name_of(difference));
    sheet.text(x, y + 12, objects, 13, inks.text);
    y += 34;
    const std::vector<std::string> lines = lines_of_map(comparison, map);
    for (std::size_t i = 0; i < std::min(lines.size(), most); ++i, y += 18) sheet.text(16, y, lines[i], 12, inks.text);
    if (lines.size() > most) sheet.text(16, y, fmt::format("and {} more", lines.size() - most), 12, inks.soft), y += 18;
    return y;
}

}   // namespace

std::string draw_comparison(const Version& before, const Version& after, const Comparison& comparison,
                            std::string_view name, const ArtSource& art_before, const ArtSource& art_after,
                            const DrawOptions& given) {
    const Map *old = map_of(before.world, name), *now = map_of(after.world, name);
    if (old == nullptr && now == nullptr)
        throw std::out_of_range(fmt::format("dryground::draw_comparison: neither version has a map '{}'", name));
    DrawOptions options = given;
    options.show.erase(Thing::findings);
    options.scale = MapPicture(now ? after.world : before.world, now ? *now : *old, Report{}, given).scale;
    std::vector<std::pair<const WhichOne*, Half>> halves;
    if (old)
        halves.emplace_back(&sides[0], half_of(sides[0], before, *old, after, now, comparison, art_before, options));
    if (now)
        halves.emplace_back(&sides[1], half_of(sides[1], after, *now, before, old, comparison, art_after, options));

    const Inks inks = drawing::inks_of(options.palette);
    drawing::Sheet sheet;
    constexpr double head = 26;
    const bool is_tall = halves.front().second.height > 1.1 * halves.front().second.width;   // then side by side
    double x = 0, y = 0, width = 0, height = 0;
    for (const auto& [side, half] : halves) {
        sheet.text(x + 16, y + 20, side->name, 15, inks.text, "start", "font-weight=\"bold\"");
        sheet.put("{}", embedded(half.document, x, y + head, side->name));
        width = std::max(width, x + half.width), height = std::max(height, y + head + half.height);
        (is_tall ? x : y) = is_tall ? width : height;
    }
    height = draw_words(sheet, comparison, std::string(name), height + 8, inks) + 10;
    return sheet.document({0, 0, width, height}, fmt::format("{}: before and after", name), inks);
}

}   // namespace dryground
