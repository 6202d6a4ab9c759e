// Shapes, fields, pictures and legends as TOML: what several formats share.

#include <fmt/format.h>

#include <filesystem>

#include "write_keys_internal.hpp"

namespace dryground::files {

using toml_text::in_quotes;
using toml_text::list;
using toml_text::number;
using toml_text::numbers;
using toml_text::Pairs;

std::vector<std::array<double, 2>> points_px(const Ring& ring) {
    std::vector<std::array<double, 2>> points;
    for (const Point p : ring) points.push_back({to_px(p.x), to_px(p.y)});
    return points;
}

namespace {

// Returns whether nothing is given except the form.
bool is_plain(const ShapeDraft& draft) { return KeyWriter().pairs(draft).size() == 1; }

}   // namespace

void add_form(Pairs& pairs, const Form& form) {
    if (std::holds_alternative<WholeCell>(form)) {
        pairs.add_yes_no("cell", true);
    } else if (const auto* box = std::get_if<BoxPx>(&form)) {
        pairs.add("box", numbers({box->x, box->y, box->width, box->height}));
    } else if (const auto* polygon = std::get_if<PolygonPx>(&form)) {
        pairs.add("polygon", toml_text::points(polygon->points));
        std::vector<std::string> holes;
        for (const auto& hole : polygon->holes) holes.push_back(toml_text::points(hole));
        if (!holes.empty()) pairs.add("holes", list(holes));
    } else if (const auto* round = std::get_if<EllipsePx>(&form)) {
        if (round->radius_x == round->radius_y)
            pairs.add("circle", numbers({round->x, round->y, round->radius_x}));
        else
            pairs.add("ellipse", numbers({round->x, round->y, round->radius_x, round->radius_y}));
    } else if (const auto* capsule = std::get_if<CapsuleBetween>(&form)) {
        pairs.add("capsule", numbers({capsule->x1, capsule->y1, capsule->x2, capsule->y2, capsule->radius}));
    } else if (const auto* line = std::get_if<LinePx>(&form)) {
        pairs.add("line", toml_text::points(line->points));
    } else if (const auto* shared = std::get_if<SharedShape>(&form)) {
        pairs.add("shared", in_quotes(shared->name.value));
        if (shared->dx != 0 || shared->dy != 0) pairs.add("at", numbers({shared->dx, shared->dy}));
    } else if (const auto* traced = std::get_if<Traced>(&form)) {
        Pairs how;
        how.add_number("alpha", traced->alpha, 128);
        how.add_number("within_px", traced->within_px, Traced{}.within_px);
        pairs.add("trace", how.table());
    }
}

void add_orientation(Pairs& pairs, const Orientation& orientation) {
    if (orientation.flip_x || orientation.flip_y)
        pairs.add("flip", in_quotes(std::string(orientation.flip_x ? "x" : "") + (orientation.flip_y ? "y" : "")));
    if (orientation.turn != 0) pairs.add("turn", number(orientation.turn));
}

std::string surface_toml(const Surface& surface) {
    Pairs inner;
    inner.add_number("friction", surface.friction);
    inner.add_number("restitution", surface.restitution);
    return inner.table();
}

std::vector<std::string> shapes_toml(const ShapeDraft& draft) {
    if (const auto* area = std::get_if<Regions>(&draft.form)) {
        std::vector<std::string> result;
        ShapeDraft one = draft;
        const bool simple = area->size() == 1 && area->front().holes.empty();
        for (const Ring& ring : simple ? std::vector<Ring>{area->front().outline} : convex_pieces(*area, 8)) {
            one.form = PolygonPx{points_px(ring), {}};
            result.push_back(shapes_toml(one).front());
        }
        return result;
    }
    if (is_plain(draft)) {
        if (std::holds_alternative<WholeCell>(draft.form)) return {in_quotes("cell")};
        if (const auto* shared = std::get_if<SharedShape>(&draft.form))
            if (shared->dx == 0 && shared->dy == 0 && shared->name.value != "cell")
                return {in_quotes(shared->name.value)};
    }
    return {KeyWriter().pairs(draft).table()};
}

std::string shapes_toml(const std::vector<ShapeDraft>& drafts) {
    std::vector<std::string> items;
    for (const ShapeDraft& draft : drafts)
        for (std::string& one : shapes_toml(draft)) items.push_back(std::move(one));
    return list(items);
}

std::string legend_toml(const std::string& table, const std::vector<LegendEntry>& legend) {
    if (legend.empty()) return {};
    Pairs lines;
    for (const LegendEntry& entry : legend) {
        const Pairs inner = KeyWriter().pairs(entry);
        LegendEntry only_tile;
        only_tile.tile = entry.tile;
        const bool is_word = inner.table() == KeyWriter().pairs(only_tile).table();
        lines.add(entry.key.value, is_word ? in_quotes(entry.tile.value) : inner.table());
    }
    return fmt::format("\n[{}]\n{}", table, lines.lines());
}

std::string colour_toml(const Colour& colour) {
    return fmt::format("\"#{:02x}{:02x}{:02x}\"", colour.red, colour.green, colour.blue);
}

std::string path_toml(const std::string& file, const std::string& folder) {
    return in_quotes(std::filesystem::path(file).lexically_relative(folder.empty() ? "." : folder).generic_string());
}

std::string picture_toml(const Picture& picture, const std::string& folder) {
    Pairs pairs;
    pairs.add("file", path_toml(picture.file, folder));
    if (picture.x != 0 || picture.y != 0) pairs.add("at", numbers({picture.x, picture.y}));
    return pairs.table();
}

}   // namespace dryground::files
