// Objects drawn in SVG, as drawing programs save them: an element's id is a name, its kind is its first class that is
// not a style, else its colour is looked up in the layer's legend; data-… attributes are keys of objects and
// properties. A page of the map's size, in any unit, is laid over the map; transforms are applied, curves made
// straight; what is hidden is not there.

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <pugixml.hpp>
#include <set>
#include <sstream>

#include "../model/utf8_internal.hpp"
#include "reading_internal.hpp"
#include "svg_shapes_internal.hpp"
#include "svg_style_internal.hpp"
#include "text_keys_internal.hpp"

namespace dryground::files {

namespace {

using PointPx2 = std::array<double, 2>;
constexpr int deepest_group = 64;                  // groups in groups, and uses of uses
constexpr std::size_t most_elements = 1'000'000;   // with what is used again and again

class SvgReader {
public:
    SvgReader(std::string_view text, const std::string& file, const Drawing& drawing, Report& report)
        : text_(text),
          file_(file),
          world_(drawing.world),
          map_(drawing.map),
          layer_(drawing.layer),
          report_(report),
          shapes_(drawing.layer.within_px ? drawing.layer.within_px->value : world_.merging.within_px,
                  [this](const pugi::xml_node& node, std::string what, std::string is, std::string should_be) {
                      add(Rule::out_of_range, place(node), {std::move(what), std::move(is), std::move(should_be)});
                  }) {
        for (std::size_t at = 0; at != std::string_view::npos && at < text.size();) {
            lines_.push_back(at);
            at = text.find('\n', at);
            if (at != std::string_view::npos) ++at;
        }
    }

    std::vector<ObjectDraft> run() {
        pugi::xml_document document;
        const pugi::xml_parse_result parsed = document.load_buffer(
            text_.data(), text_.size(), pugi::parse_default | pugi::parse_cdata, pugi::encoding_utf8);
        if (!parsed) {
            add(Rule::bad_picture, place(static_cast<std::size_t>(std::max<std::ptrdiff_t>(parsed.offset, 0))),
                {file_, fmt::format("it is not XML: {}", parsed.description())});
            return {};
        }
        const pugi::xml_node root = document.child("svg");
        if (!root) {
            add(Rule::bad_picture, place(0), {file_, "there is no <svg> in it"});
            return {};
        }
        root_ = root;
        styles_ = StyleSheet(root);
        shapes_.snap_to(snap());
        const Page page = lay_over(root);
        group(root, page.to_map, styles_.look_of(root, {}), 0);
        if (!passed_over_.empty()) {
            std::vector<std::string> words;
            for (const auto& [name, count] : passed_over_) words.push_back(fmt::format("{} <{}>", count, name));
            add(Rule::svg_passed_over, place(root), {fmt::format("{}", fmt::join(words, ", "))});
        }
        return std::move(objects_);
    }

private:
    // ---- findings ----
    [[nodiscard]] Place place(std::size_t offset) const {
        const auto line = std::upper_bound(lines_.begin(), lines_.end(), offset) - lines_.begin();
        const std::size_t start = line > 0 ? lines_[static_cast<std::size_t>(line) - 1] : 0;
        const std::size_t column = utf8::count(text_.substr(start, offset - start));
        return {file_, static_cast<int>(std::max<std::ptrdiff_t>(line, 1)), static_cast<int>(column) + 1, {}};
    }
    [[nodiscard]] Place place(const pugi::xml_node& node) const {
        return place(static_cast<std::size_t>(std::max<std::ptrdiff_t>(node.offset_debug() - 1, 0)));
    }
    void add(Rule rule, const Place& where, std::vector<std::string> arguments, std::optional<Hint> hint = {}) {
        Finding finding;
        finding.rule = rule;
        finding.severity = rule_text(rule).severity;
        finding.place = where;
        finding.map = map_.name.value;
        finding.layer = layer_.name.value;
        finding.arguments = std::move(arguments);
        finding.hint = std::move(hint);
        report_.add(std::move(finding));
    }
    // ---- the page ----
    Page lay_over(const pugi::xml_node& root) {
        const auto [width, height] = map_.cell.value;
        const auto [columns, rows] = map_.size.value;
        const auto [first_column, first_row] = map_.first;
        const bool diamonds = map_.grid.value == "isometric";
        const double across = diamonds ? (columns + rows) * width / 2.0 : 0.0 + columns * width,
                     down = diamonds ? (columns + rows) * height / 2.0 : 0.0 + rows * height;
        const PointPx2 least = diamonds ? PointPx2{(first_column - first_row - rows) * width / 2.0,
                                                   (first_column + first_row) * height / 2.0}
                                        : PointPx2{0.0 + first_column * width, 0.0 + first_row * height};
        Page page = page_of(root, least, across, down);
        if (!page.fits) {
            const auto size = [](double w, double h) { return fmt::format("{} x {}", w, h); };
            page.to_map[4] = page.to_map[5] = 0;   // px of the map, relative to the origin used in the drawing
            add(Rule::svg_size, place(root), {size(page.width, page.height), size(across, down)});
        }
        return page;
    }
    // The grid to which vertices move; 0: they stay.
    PointPx2 snap() {
        if (!layer_.snap) return {0, 0};
        const Value& value = layer_.snap->value;
        const auto* word = std::get_if<std::string>(&value.is);
        const auto* whole = std::get_if<std::int64_t>(&value.is);
        const auto* number = std::get_if<double>(&value.is);
        const double px = whole != nullptr ? static_cast<double>(*whole) : number != nullptr ? *number : 0;
        if (word != nullptr && *word == "cell_parts") {
            const double parts = std::max(1, map_.cell_parts.value);
            return {map_.cell.value[0] / parts, map_.cell.value[1] / parts};
        }
        if (px > 0 && px <= 1e6) return {px, px};
        add(Rule::out_of_range, layer_.snap->place, {"'snap'", text(value), "px above 0, or \"cell_parts\""});
        return {0, 0};
    }
    // ---- the tree ----
    void group(const pugi::xml_node& parent, const Matrix& outer, const Look& look, int depth) {
        for (const pugi::xml_node& node : parent.children())
            if (node.type() == pugi::node_element) element(node, outer, look, depth);
    }

    void element(const pugi::xml_node& node, const Matrix& outer, const Look& outer_look, int depth) {
        const std::string name = node.name();
        static const std::set<std::string_view> silent{
            "defs", "metadata", "title",  "desc",    "style",          "script",         "symbol", "clipPath",
            "mask", "marker",   "filter", "pattern", "linearGradient", "radialGradient", "view"};
        static const std::set<std::string_view> shapes{"rect",     "circle",  "ellipse", "line",
                                                       "polyline", "polygon", "path"};
        if (name.find(':') != std::string::npos || silent.count(name) > 0) return;
        if (too_many(node, depth)) return;
        const Look look = styles_.look_of(node, outer_look);
        if (!look.displayed) return;
        const auto own = parse_transform(node.attribute("transform").value());
        if (!own) {
            add(Rule::out_of_range, place(node),
                {fmt::format("the transform of {}", svg_words_of(node)),
                 fmt::format("'{}'", node.attribute("transform").value()),
                 "a list of translate, scale, rotate, skewX, skewY, matrix"});
            return;
        }
        const Matrix transform = times(outer, *own);
        if (name == "g" || name == "svg" || name == "a" || name == "switch")
            group(node, times(transform, moved_by(node)), look, depth + 1);
        else if (name == "use")
            use(node, times(transform, moved_by(node)), look, depth + 1);
        else if (shapes.count(name) == 0)
            ++passed_over_[name];
        else if (look.is_seen())
            shape(node, transform, look);
    }
    [[nodiscard]] bool too_many(const pugi::xml_node& node, int depth) {
        if (depth <= deepest_group && ++elements_ <= most_elements) return false;
        if (!std::exchange(told_too_many_, true))
            add(Rule::too_large, place(node),
                {"the drawing", depth > deepest_group ? "nested deeper" : "of more elements",
                 depth > deepest_group ? fmt::format("{} groups in each other", deepest_group)
                                       : fmt::format("{} of them", most_elements)});
        return true;
    }
    // Reads x and y of a nested drawing, or of what is used.
    static Matrix moved_by(const pugi::xml_node& node) {
        const std::string_view name = node.name();
        if (name != "use" && name != "svg") return identity;
        return {1,
                0,
                0,
                1,
                svg_length(node.attribute("x").value()).value_or(0),
                svg_length(node.attribute("y").value()).value_or(0)};
    }

    void use(const pugi::xml_node& node, const Matrix& transform, const Look& look, int depth) {
        const pugi::xml_attribute link = node.attribute("href") ? node.attribute("href") : node.attribute("xlink:href");
        const std::string_view wanted = link.value();
        const pugi::xml_node target = wanted.size() > 1 && wanted[0] == '#'
                                          ? root_.find_node([&](const pugi::xml_node& one) {
                                                return one.attribute("id").value() == wanted.substr(1);
                                            })
                                          : pugi::xml_node();
        if (!target) {
            add(Rule::unknown_name, place(node), {"element", std::string(wanted)});
            return;
        }
        const pugi::xml_node outer = std::exchange(used_by_, used_by_ ? used_by_ : node);
        if (target.name() == std::string_view("symbol"))
            group(target, transform, styles_.look_of(target, look), depth);
        else
            element(target, transform, look, depth);
        used_by_ = outer;
    }

    // Gets name and kind from what uses it, else its own.
    void shape(const pugi::xml_node& node, const Matrix& transform, const Look& look) {
        ObjectDraft object;
        const pugi::xml_node named = used_by_ ? used_by_ : node;
        object.place = object.place_of_form = place(named);
        auto form = shapes_.form_of(node, transform, look.is_filled());
        if (!form) return;   // already reported
        object.form = std::move(*form);
        call(object, named.attribute("id").value());
        take_classes(object, named);
        if (named != node && object.kind.value.empty()) take_classes(object, node);
        if (object.kind.value.empty()) take_by_colour(object, look);
        for (const pugi::xml_attribute& attribute : named.attributes())
            if (const std::string_view key = attribute.name(); key.substr(0, 5) == "data-")
                data(object, std::string(key.substr(5)), attribute.value());
        objects_.push_back(std::move(object));
    }
    // The first class that is not a look is the kind, the others are tags.
    void take_classes(ObjectDraft& object, const pugi::xml_node& node) const {
        for (std::string& word : svg_words(node.attribute("class").value())) {
            if (styles_.has(word)) continue;
            if (object.kind.value.empty())
                object.kind = Name(std::move(word), object.place);
            else
                object.tags.push_back(std::move(word));
        }
    }
    // An id names the object if it can; programs invent ids for what nobody named.
    void call(ObjectDraft& object, const std::string& id) {
        if (id.empty()) return;
        std::string name;
        for (const char c : id) {
            const auto u = static_cast<unsigned char>(c);
            if (std::isalnum(u) && u < 128)
                name += static_cast<char>(std::tolower(u));
            else if (!name.empty() && name.back() != '_')
                name += '_';
        }
        while (!name.empty() && name.back() == '_') name.pop_back();
        if (!name.empty() && std::isdigit(static_cast<unsigned char>(name[0]))) name = "a_" + name;
        if (name == id || id.find_first_not_of("abcdefghijklmnopqrstuvwxyz0123456789_") == std::string::npos)
            object.name = Name(id, object.place);
        else
            add(Rule::svg_id, object.place, {id},
                name.empty() ? Hint{"call it in lower_snake_case", ""} : Hint{"call it", name});
    }
    void take_by_colour(ObjectDraft& object, const Look& look) {
        for (const std::string* colour : {&look.fill, &look.stroke}) {
            const auto wanted = svg_colour(*colour);
            if (!wanted) continue;
            for (const LegendEntry& entry : layer_.legend) {
                if (svg_colour(entry.key.value) != wanted || !entry.kind) continue;
                object.kind = *entry.kind;
                object.kind.place = object.place;
                object.barrier = entry.barrier;
                return;
            }
        }
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
            object.props[key] = Located<Value>(typed(object, key, value), object.place);
        else if (result == Result::wrong)
            add(Rule::wrong_type, object.place,
                {fmt::format("'data-{}' of {}", key,
                             object.name.value.empty() ? "an object" : "'" + object.name.value + "'"),
                 fmt::format("'{}'", value), said.should_be()});
    }

    // In a drawing all is text: a property's type defines how it is read. What does not fit stays a text, and is
    // reported.
    Value typed(const ObjectDraft& object, const std::string& key, const std::string& value) {
        const FieldDraft* field =
            field_of(world_, object.kind.value.empty() && layer_.kind ? layer_.kind->value : object.kind.value, key);
        return field != nullptr ? value_from_text(*field, value) : Value{value};
    }

    std::string_view text_;
    const std::string& file_;
    const WorldDraft& world_;
    const MapDraft& map_;
    const LayerDraft& layer_;
    Report& report_;
    std::vector<std::size_t> lines_;   // where they start
    pugi::xml_node root_, used_by_;    // the outermost <use> of what is read
    StyleSheet styles_{pugi::xml_node()};
    SvgShapes shapes_;
    std::size_t elements_ = 0;
    bool told_too_many_ = false;
    std::map<std::string, int> passed_over_;   // sorts of elements, and how many
    std::vector<ObjectDraft> objects_;
};

}   // namespace

std::vector<ObjectDraft> objects_of_svg(std::string_view text, const std::string& file, const Drawing& drawing,
                                        Report& report) {
    return SvgReader(text, file, drawing, report).run();
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
        item.type = type == "place"    ? Located<std::string>("number")
                    : field.of.empty() ? Located<std::string>("text")
                                       : field.of.front();
        for (const std::string& word : words_in(text)) list.push_back(value_from_text(item, word));
        return {std::move(list)};
    }
    return {text};
}

}   // namespace dryground::files
