// Objects drawn in SVG: an element's id is a name, its first class a kind, what it has as data-… are keys of objects
// and properties. Transforms are applied, curves made straight, one user unit is one px.

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <pugixml.hpp>
#include <sstream>

#include "reading_internal.hpp"
#include "svg_path_internal.hpp"
#include "text_keys_internal.hpp"

namespace dryground::files {

namespace {

using PointPx2 = std::array<double, 2>;
constexpr int deepest_group = 64;   // groups in groups

class SvgReader {
public:
    SvgReader(std::string_view text, const std::string& file, const WorldDraft& world, const std::string& layer_kind,
              Report& report)
        : text_(text), file_(file), world_(world), layer_kind_(layer_kind), report_(report) {}

    std::vector<ObjectDraft> run() {
        pugi::xml_document document;
        const pugi::xml_parse_result parsed =
            document.load_buffer(text_.data(), text_.size(), pugi::parse_default, pugi::encoding_utf8);
        if (!parsed) {
            add(Rule::syntax, place(static_cast<std::size_t>(std::max<std::ptrdiff_t>(parsed.offset, 0))),
                {fmt::format("no XML: {}", parsed.description())});
            return {};
        }
        const pugi::xml_node root = document.child("svg");
        if (!root) {
            add(Rule::syntax, place(0), {"there is no <svg> in it"});
            return {};
        }
        group(root, identity, 0);
        return std::move(objects_);
    }

private:
    // ---- findings ----
    [[nodiscard]] Place place(std::size_t offset) const {
        const std::string_view before = text_.substr(0, offset);
        const auto line = std::count(before.begin(), before.end(), '\n');
        const std::size_t start = before.rfind('\n') == std::string_view::npos ? 0 : before.rfind('\n') + 1;
        return {file_, static_cast<int>(line) + 1, static_cast<int>(offset - start) + 1, {}};
    }
    [[nodiscard]] Place place(const pugi::xml_node& node) const {
        return place(static_cast<std::size_t>(std::max<std::ptrdiff_t>(node.offset_debug() - 1, 0)));
    }
    void add(Rule rule, const Place& where, std::vector<std::string> arguments, std::optional<Hint> hint = {}) {
        Finding finding;
        finding.rule = rule;
        finding.severity = rule_text(rule).severity;
        finding.place = where;
        finding.arguments = std::move(arguments);
        finding.hint = std::move(hint);
        report_.add(std::move(finding));
    }
    [[nodiscard]] static std::string words_of(const pugi::xml_node& node) {
        const std::string id = node.attribute("id").value();
        return id.empty() ? fmt::format("a <{}>", node.name()) : fmt::format("<{}> '{}'", node.name(), id);
    }

    // ---- the tree ----
    void group(const pugi::xml_node& parent, const Matrix& outer, int depth) {
        if (depth > deepest_group) {
            add(Rule::too_large, place(parent),
                {"the drawing", "nested deeper", fmt::format("{} groups in each other", deepest_group)});
            return;
        }
        for (const pugi::xml_node& node : parent.children()) {
            if (node.type() != pugi::node_element) continue;
            const std::string name = node.name();
            static constexpr std::array silent{"defs", "metadata", "title", "desc", "style", "script"};
            if (name.find(':') != std::string::npos || std::find(silent.begin(), silent.end(), name) != silent.end() ||
                node.attribute("display").value() == std::string_view("none"))
                continue;
            const auto own = parse_transform(node.attribute("transform").value());
            if (!own) {
                add(Rule::out_of_range, place(node),
                    {fmt::format("the transform of {}", words_of(node)),
                     fmt::format("'{}'", node.attribute("transform").value()),
                     "a list of translate, scale, rotate, skewX, skewY, matrix"});
                continue;
            }
            const Matrix transform = times(outer, *own);
            if (name == "g" || name == "svg" || name == "a")
                group(node, transform, depth + 1);
            else
                element(node, transform);
        }
    }

    void element(const pugi::xml_node& node, const Matrix& transform) {
        ObjectDraft object;
        object.place = object.place_of_form = place(node);
        auto form = form_of(node, transform);
        if (!form) return;   // as was said
        object.form = std::move(*form);
        object.name = Name(node.attribute("id").value(), object.place);
        std::istringstream classes(node.attribute("class").value());
        std::string word;
        if (classes >> word) object.kind = Name(word, object.place);
        while (classes >> word) object.tags.push_back(word);
        for (const pugi::xml_attribute& attribute : node.attributes())
            if (const std::string_view key = attribute.name(); key.substr(0, 5) == "data-")
                data(object, std::string(key.substr(5)), attribute.value());
        objects_.push_back(std::move(object));
    }

    // ---- numbers ----
    // A length in user units; "px" may stand behind it.
    double length(const pugi::xml_node& node, const char* name) {
        const std::string_view text = node.attribute(name).value();
        if (text.empty()) return 0;
        const bool in_px = text.size() > 2 && text.substr(text.size() - 2) == "px";
        if (const auto number = number_of(in_px ? text.substr(0, text.size() - 2) : text)) return *number;
        add(Rule::out_of_range, place(node),
            {fmt::format("'{}' of {}", name, words_of(node)), fmt::format("'{}'", text), "a number of px"});
        good_ = false;
        return 0;
    }
    std::vector<PointPx2> points(const pugi::xml_node& node, const Matrix& transform) {
        std::vector<PointPx2> result;
        const std::vector<std::string> words = words_in(node.attribute("points").value());
        bool good = words.size() % 2 == 0 && !words.empty();
        for (std::size_t i = 0; good && i < words.size(); i += 2) {
            const auto x = number_of(words[i]), y = number_of(words[i + 1]);
            good = x && y;
            if (good) result.push_back(apply(transform, {*x, *y}));
        }
        if (good) return result;
        add(Rule::out_of_range, place(node),
            {fmt::format("'points' of {}", words_of(node)), fmt::format("'{}'", node.attribute("points").value()),
             "pairs of numbers"});
        good_ = false;
        return {};
    }

    // ---- shapes ----
    using ObjectForm = decltype(ObjectDraft::form);

    std::optional<ObjectForm> form_of(const pugi::xml_node& node, const Matrix& transform) {
        good_ = true;
        const std::string name = node.name();
        std::optional<ObjectForm> form;
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
            form = LinePx{points(node, transform)};
        else if (name == "polygon")
            form = PolygonPx{points(node, transform), {}};
        else if (name == "path")
            form = path(node, node.attribute("d").value(), transform);
        else
            add(Rule::unknown_key, place(node), {fmt::format("<{}>", name), "a layer's drawing"},
                Hint{"draw with rect, circle, ellipse, line, polyline, polygon, path; or make it a path", ""});
        return good_ ? form : std::nullopt;
    }

    [[nodiscard]] static bool keeps_axes(const Matrix& m) { return m[1] == 0 && m[2] == 0; }

    std::optional<ObjectForm> rectangle(const pugi::xml_node& node, const Matrix& m) {
        const double x = length(node, "x"), y = length(node, "y"), w = length(node, "width"),
                     h = length(node, "height");
        double rx = length(node, "rx"), ry = node.attribute("ry") ? length(node, "ry") : rx;
        if (!node.attribute("rx")) rx = ry;
        rx = std::min(std::abs(rx), w / 2), ry = std::min(std::abs(ry), h / 2);
        if (rx > 0 && ry > 0)
            return path(
                node,
                fmt::format(
                    "M{} {}H{}A{} {} 0 0 1 {} {}V{}A{} {} 0 0 1 {} {}H{}A{} {} 0 0 1 {} {}V{}A{} {} 0 0 1 {} {}Z",
                    x + rx, y, x + w - rx, rx, ry, x + w, y + ry, y + h - ry, rx, ry, x + w - rx, y + h, x + rx, rx, ry,
                    x, y + h - ry, y + ry, rx, ry, x + rx, y),
                m);
        const PointPx2 a = apply(m, {x, y}), c = apply(m, {x + w, y + h});
        if (keeps_axes(m))
            return BoxPx{std::min(a[0], c[0]), std::min(a[1], c[1]), std::abs(c[0] - a[0]), std::abs(c[1] - a[1])};
        return PolygonPx{{a, apply(m, {x + w, y}), c, apply(m, {x, y + h})}, {}};
    }

    std::optional<ObjectForm> round(const pugi::xml_node& node, const Matrix& m, double rx, double ry) {
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
    std::optional<ObjectForm> path(const pugi::xml_node& node, const std::string& data, const Matrix& m) {
        auto parts = parse_path(data, m, std::max(world_.merging.within_px, 1.0 / 64));
        const auto wrong = [&](const std::string& is, const char* should_be) {
            add(Rule::out_of_range, place(node), {words_of(node), is, should_be});
            return std::nullopt;
        };
        if (parts) on_lattice(*parts);
        if (!parts) return wrong("drawn by a 'd' that is no path", "a path as SVG has it, of at most a million points");
        if (parts->empty()) return wrong("a path without a line", "an outline or a line");
        const auto open = std::count_if(parts->begin(), parts->end(), [](const Subpath& part) { return !part.closed; });
        if (open > 0 && parts->size() > 1) return wrong("several lines in one path", "a path of its own for each line");
        if (open > 0) return LinePx{std::move(parts->front().points)};
        const auto area = [](const Subpath& part) {
            double twice = 0;
            for (std::size_t i = 0; i < part.points.size(); ++i) {
                const PointPx2 &p = part.points[i], &q = part.points[(i + 1) % part.points.size()];
                twice += p[0] * q[1] - p[1] * q[0];
            }
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

    // Curves may end where they began but for rounding: what falls on one lattice point is one.
    static void on_lattice(std::vector<Subpath>& parts) {
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

    [[nodiscard]] static bool is_inside(const std::vector<PointPx2>& ring, const PointPx2& p) {
        bool inside = false;
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const PointPx2 &a = ring[i], &b = ring[(i + 1) % ring.size()];
            if ((a[1] > p[1]) != (b[1] > p[1]) && p[0] < (b[0] - a[0]) * (p[1] - a[1]) / (b[1] - a[1]) + a[0])
                inside = !inside;
        }
        return inside;
    }

    // ---- data-… ----
    // A key of objects, or a property. What a drawing says in ways of its own (id, class, shape) is no such key.
    void data(ObjectDraft& object, std::string key, const std::string& value) {
        std::replace(key.begin(), key.end(), '-', '_');
        using Result = KeyFromText::Result;
        KeyFromText said(key, value, object.place);
        const bool own_way = key == "name" || key == "kind" || key == "tags";
        const Result result = own_way ? Result::no_such_key : said.set(object);
        if (result == Result::no_such_key)
            object.props[key] = Said<Value>(typed(object, key, value), object.place);
        else if (result == Result::wrong)
            add(Rule::wrong_type, object.place,
                {fmt::format("'data-{}' of {}", key,
                             object.name.value.empty() ? "an object" : "'" + object.name.value + "'"),
                 fmt::format("'{}'", value), said.should_be()});
    }

    // In a drawing all is text: a field's type says what it means. What does not fit stays a text, and is told as such.
    Value typed(const ObjectDraft& object, const std::string& key, const std::string& value) {
        const FieldDraft* field = field_of(world_, object.kind.value.empty() ? layer_kind_ : object.kind.value, key);
        return field != nullptr ? value_from_text(*field, value) : Value{value};
    }

    std::string_view text_;
    const std::string& file_;
    const WorldDraft& world_;
    const std::string& layer_kind_;
    Report& report_;
    std::vector<ObjectDraft> objects_;
    bool good_ = true;   // of the element that is being read
};

}   // namespace

std::vector<ObjectDraft> objects_of_svg(std::string_view text, const std::string& file, const WorldDraft& world,
                                        const std::string& layer_kind, Report& report) {
    return SvgReader(text, file, world, layer_kind, report).run();
}

const FieldDraft* field_of(const WorldDraft& world, const std::string& kind_name, const std::string& field) {
    std::string name = kind_name;
    for (int depth = 0; depth < 64; ++depth) {
        const auto kind = std::find_if(world.kinds.begin(), world.kinds.end(),
                                       [&](const KindDraft& one) { return one.name.value == name; });
        if (kind == world.kinds.end()) return nullptr;
        for (const FieldDraft& one : kind->fields)
            if (one.name.value == field) return &one;
        if (!kind->like) return nullptr;
        name = kind->like->value;
    }
    return nullptr;
}

Value value_from_text(const FieldDraft& field, const std::string& text) {
    const std::string& type = field.type.value;
    if (type == "yes_no" && (text == "true" || text == "false")) return {text == "true"};
    if (type == "number" || type == "whole") {
        const auto number = number_of(text);
        if (number && *number == std::floor(*number) && std::abs(*number) < 1e15)
            return {static_cast<std::int64_t>(*number)};
        if (number) return {*number};
    }
    if (type == "place" || type == "list") {
        Value::List list;
        FieldDraft item;
        item.type = type == "place"    ? Said<std::string>("number")
                    : field.of.empty() ? Said<std::string>("text")
                                       : field.of.front();
        for (const std::string& word : words_in(text)) list.push_back(value_from_text(item, word));
        return {std::move(list)};
    }
    return {text};
}

}   // namespace dryground::files
