// Shapes, fields, properties and pictures: what several formats share.

#include <fmt/format.h>

#include <algorithm>
#include <array>

#include "read_keys_internal.hpp"

namespace dryground::files {

std::optional<PointsPx> read_points(const Source& source, const toml::node& node, const std::string& what) {
    const toml::array* list = node.as_array();
    if (list == nullptr) {
        add_wrong_type(source, node, what, "a list of points [[x, y], …]");
        return std::nullopt;
    }
    PointsPx points;
    for (const toml::node& item : *list) {
        const auto* pair = item.as_array();
        std::array<double, 2> point{};
        bool good = pair != nullptr && pair->size() == 2;
        for (std::size_t i = 0; good && i < 2; ++i) {
            if (const auto* whole = (*pair)[i].as_integer())
                point[i] = static_cast<double>(whole->get());
            else if (const auto* number = (*pair)[i].as_floating_point())
                point[i] = number->get();
            else
                good = false;
        }
        if (!good) {
            add_wrong_type(source, item, fmt::format("a point of {}", what), "[x, y] in px");
            return std::nullopt;
        }
        points.push_back(point);
    }
    return points;
}

namespace {

std::optional<PointsPx> read_points(Table& table, const char* key) {
    const toml::array* list = table.list(key, "a list of points [[x, y], …]");
    return list == nullptr ? std::nullopt : read_points(table.source(), *list, fmt::format("'{}'", key));
}

}   // namespace

std::optional<DrawnForm> read_drawn(Table& table, const std::string& said) {
    const auto drawn = [](DrawnForm form) { return std::optional(std::move(form)); };
    if (said == "polygon") {
        auto points = read_points(table, "polygon");
        return points ? drawn(PolygonPx{std::move(*points), {}}) : std::nullopt;
    }
    if (said == "line") {
        auto points = read_points(table, "line");
        return points ? drawn(LinePx{std::move(*points)}) : std::nullopt;
    }
    const auto n = table.numbers(said.c_str(), said == "circle" ? 3 : said == "capsule" ? 5 : 4);
    if (!n) return std::nullopt;
    const std::vector<double>& v = n->value;
    if (said == "capsule") return drawn(CapsuleBetween{v[0], v[1], v[2], v[3], v[4]});
    if (said == "box") return drawn(BoxPx{v[0], v[1], v[2], v[3]});
    return drawn(EllipsePx{v[0], v[1], v[2], v.back()});   // of a circle the one radius is both
}

std::optional<Colour> read_colour(Table& table, const char* key) {
    const auto said = table.text(key);
    if (!said) return std::nullopt;
    const auto colour = colour_from(said->value);
    if (!colour)
        table.source().add(Rule::out_of_range, said->place,
                           {fmt::format("'{}'", key), fmt::format("'{}'", said->value), "like #7a5c3a"});
    return colour;
}

std::optional<Surface> read_surface(Table& table, const char* surface_key) {
    auto inner = table.table(surface_key, "a surface");
    if (!inner) return std::nullopt;
    Surface surface;
    for (const auto& [key, into] :
         {std::pair{"friction", &surface.friction}, std::pair{"restitution", &surface.restitution}})
        if (const auto number = inner->number(key)) {
            *into = number->value;
            if (number->value < 0 || number->value > 1000)
                inner->source().add(Rule::out_of_range, number->place,
                                    {fmt::format("'{}'", key), fmt::format("{}", number->value), "from 0 to 1000"});
        }
    inner->finish();
    return surface;
}

void read_orientation(Table& table, Orientation& orientation) {
    if (const auto flip = table.text("flip")) {
        orientation.flip_x = flip->value == "x" || flip->value == "xy";
        orientation.flip_y = flip->value == "y" || flip->value == "xy";
        if (!orientation.flip_x && !orientation.flip_y)
            table.source().add(Rule::out_of_range, flip->place,
                               {"'flip'", fmt::format("'{}'", flip->value), "one of x, y, xy"});
    }
    if (const auto turn = table.whole("turn")) {
        if (turn->value == 90 || turn->value == 180 || turn->value == 270)
            orientation.turn = static_cast<std::int16_t>(turn->value);
        else
            table.source().add(Rule::out_of_range, turn->place,
                               {"'turn'", fmt::format("{}", turn->value), "one of 90, 180, 270 (clockwise)"});
    }
}

namespace {

std::optional<Form> read_form(Table& table, const std::string& said) {
    if (said == "cell") {
        const auto whole = table.yes_no("cell");
        if (whole && !whole->value)
            table.source().add(Rule::out_of_range, whole->place, {"'cell'", "false", "true, or left out"});
        return whole ? std::optional<Form>(WholeCell{}) : std::nullopt;
    }
    if (said == "trace") {
        auto inner = table.table("trace", "a trace");
        if (!inner) return std::nullopt;
        Traced traced;
        if (const auto alpha = inner->whole("alpha"))
            traced.alpha = static_cast<int>(std::clamp<std::int64_t>(alpha->value, -1, 1000));
        set(traced.within_px, inner->number("within_px"));
        inner->finish();
        return traced;
    }
    if (said != "shared") {
        auto drawn = read_drawn(table, said);
        if (!drawn) return std::nullopt;
        return std::visit([](auto& form) { return Form(std::move(form)); }, *drawn);
    }
    auto name = table.text("shared");
    if (!name) return std::nullopt;
    SharedShape shared{std::move(*name), 0, 0};
    if (const auto at = table.numbers("at", 2)) shared.dx = at->value[0], shared.dy = at->value[1];
    return shared;
}

// Reads a value that is given in exactly one way.
std::optional<Form> read_form(Table& table) {
    const std::vector<std::string> said = said_of(table, keys::shape_form);
    if (said.size() == 1) return read_form(table, said[0]);
    if (said.empty())
        table.missing("box",
                      "box = [x, y, w, h], or one of cell, polygon, circle, ellipse, capsule, line, shared, trace");
    else
        table.source().add(Rule::out_of_range, table.place(),
                           {table.what(), fmt::format("{} at once", fmt::join(said, " and ")), "exactly one form"});
    for (const std::string& key : said) (void)table.node(key.c_str());
    return std::nullopt;
}

}   // namespace

std::optional<ShapeDraft> read_shape(const Source& source, const toml::node& node, const std::string& what) {
    ShapeDraft draft;
    draft.place = source.of(node);
    if (const auto* word = node.as_string()) {
        if (word->get() == "cell")
            draft.form = WholeCell{};
        else
            draft.form = SharedShape{{word->get(), draft.place}, 0, 0};
        return draft;
    }
    const auto* inner = node.as_table();
    if (inner == nullptr) {
        add_wrong_type(source, node, what, "\"cell\", the name of a shared shape, or a table { box = […] }");
        return std::nullopt;
    }
    Table table(source, *inner, what);
    std::optional<Form> form = read_form(table);
    KeyReader().read(table, draft);
    table.finish();
    if (!form) return std::nullopt;
    draft.form = std::move(*form);
    return draft;
}

std::optional<ShapeDraft> read_carve_shape(Table& carve) {
    ShapeDraft draft;
    draft.place = carve.place();
    std::optional<Form> form = read_form(carve);
    KeyReader().read(carve, draft, true);
    carve.finish();
    if (!form) return std::nullopt;
    draft.form = std::move(*form);
    return draft;
}

std::optional<std::vector<ShapeDraft>> read_shapes(Table& table, const char* key) {
    const toml::array* list = table.list(key, "a list of shapes");
    if (list == nullptr) return std::nullopt;
    std::vector<ShapeDraft> shapes;
    for (const toml::node& item : *list)
        if (auto shape = read_shape(table.source(), item, fmt::format("a shape of {}", table.what())))
            shapes.push_back(std::move(*shape));
    return shapes;
}

void KeyReader::read_key(Table& table, const Key& key, std::optional<ShapeDraft>& into) const {
    if (const toml::node* node = table.node(name(key))) into = read_shape(table.source(), *node, "an area");
}

namespace {

FieldDraft read_field(const Source& source, const Entry& entry) {
    Table table(source, *entry.node->as_table(), fmt::format("property '{}'", entry.key.value));
    FieldDraft draft;
    draft.name = entry.key;
    KeyReader().read(table, draft);
    table.finish();
    return draft;
}

}   // namespace

std::vector<FieldDraft> read_fields(Table& table, const char* key) {
    std::vector<FieldDraft> result;
    const auto inner = table.table(key, "properties");
    if (!inner) return result;
    for (const Entry& entry : inner->entries()) {
        if (entry.node->is_table())
            result.push_back(read_field(table.source(), entry));
        else
            add_wrong_type(table.source(), *entry.node, fmt::format("property '{}'", entry.key.value),
                           "a table { type = \"…\" }");
    }
    return result;
}

// A table declares a property; anything else is a new default for one of the kind that it is like.
void KeyReader::read_group(Table& table, KindDraft& draft, std::vector<FieldDraft>& into) const {
    const auto inner = table.table("props", "properties");
    if (!inner) return;
    for (const Entry& entry : inner->entries()) {
        if (entry.node->is_table())
            into.push_back(read_field(table.source(), entry));
        else if (auto value = value_of(*entry.node))
            draft.props[entry.key.value] = Located<Value>(std::move(*value), entry.key.place);
        else
            add_wrong_type(table.source(), *entry.node, fmt::format("property '{}'", entry.key.value),
                           "a table { type = \"…\" }, or a value");
    }
}

void KeyReader::read_key(Table& table, const Key& key, std::optional<Located<Value>>& into) const {
    const toml::node* node = table.node(name(key));
    if (node == nullptr) return;
    if (auto value = value_of(*node))
        into = Located<Value>(std::move(*value), table.source().of(*node));
    else
        add_wrong_type(table.source(), *node, fmt::format("'{}'", key.name), "a value");
}

SaidProperties read_properties(Table& table, const char* key) {
    SaidProperties result;
    const auto inner = table.table(key, "props");
    if (!inner) return result;
    for (const Entry& entry : inner->entries()) {
        if (auto value = value_of(*entry.node))
            result[entry.key.value] = Located<Value>(std::move(*value), entry.key.place);
        else
            add_wrong_type(table.source(), *entry.node, fmt::format("property '{}'", entry.key.value),
                           "a yes/no, number, text or list");
    }
    return result;
}

std::optional<Picture> read_picture(const Reading& reading, Table& table, const char* key) {
    auto inner = table.table(key, "a picture");
    if (!inner) return std::nullopt;
    Picture picture;
    const Name file = inner->required_text("file", "file = \"….png\"");
    const auto at = inner->numbers("at", 2);
    picture.stands = !at;
    if (at) picture.x = at->value[0], picture.y = at->value[1];
    inner->finish();
    if (file.value.empty()) return std::nullopt;
    const PictureSize found = reading.picture(file);
    picture.file = found.file;
    picture.width = found.width;
    picture.height = found.height;
    return picture;
}

}   // namespace dryground::files
