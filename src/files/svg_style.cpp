// Sizes, colours and styles, as drawing programs save them: in attributes, in `style`, and in classes of a <style>.

#include "svg_style_internal.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

#include "text_keys_internal.hpp"

namespace dryground::files {

namespace {

std::string_view trimmed(std::string_view text) {
    const std::size_t begin = text.find_first_not_of(" \t\r\n");
    if (begin == std::string_view::npos) return {};
    return text.substr(begin, text.find_last_not_of(" \t\r\n") - begin + 1);
}

// Calls action(name, value) for the declarations of a style: "fill:none;stroke:#000".
template <class Action>
void each_declaration(std::string_view style, Action action) {
    while (!style.empty()) {
        const std::string_view one = style.substr(0, style.find(';'));
        style.remove_prefix(std::min(one.size() + 1, style.size()));
        if (const std::size_t colon = one.find(':'); colon != std::string_view::npos)
            action(trimmed(one.substr(0, colon)), trimmed(one.substr(colon + 1)));
    }
}

void set(Look& look, std::string_view name, std::string_view value) {
    if (value.empty() || value == "inherit") return;
    if (name == "fill") look.fill = value;
    if (name == "stroke") look.stroke = value;
    if (name == "visibility") look.visibility = value;
    if (name == "display") look.displayed = value != "none";
}

}   // namespace

std::optional<double> svg_length(std::string_view text) {
    static constexpr std::pair<std::string_view, double> units[] = {{"px", 1},  {"mm", 96 / 25.4}, {"cm", 96 / 2.54},
                                                                    {"in", 96}, {"pt", 96 / 72.0}, {"pc", 16}};
    text = trimmed(text);
    double px = 1;
    for (const auto& [unit, of_one] : units)
        if (text.size() > unit.size() && text.substr(text.size() - unit.size()) == unit) {
            text.remove_suffix(unit.size());
            px = of_one;
            break;
        }
    const auto number = number_of(text);
    return number ? std::optional(*number * px) : std::nullopt;
}

std::optional<std::string> svg_colour(std::string_view text) {
    std::string low(trimmed(text));
    std::transform(low.begin(), low.end(), low.begin(), [](unsigned char c) { return std::tolower(c); });
    const auto is_hex = [](std::string_view digits) {
        return digits.find_first_not_of("0123456789abcdef") == std::string_view::npos;
    };
    if (low.size() == 7 && low[0] == '#' && is_hex(low.substr(1))) return low;
    if (low.size() == 4 && low[0] == '#' && is_hex(low.substr(1)))
        return std::string{'#', low[1], low[1], low[2], low[2], low[3], low[3]};
    if (low.rfind("rgb(", 0) != 0 || low.back() != ')') return std::nullopt;
    std::string colour = "#";
    for (const std::string& word : words_in(low.substr(4, low.size() - 5))) {
        const bool part = word.back() == '%';
        const auto number =
            number_of(part ? std::string_view(word).substr(0, word.size() - 1) : std::string_view(word));
        if (!number) return std::nullopt;
        colour += fmt::format("{:02x}",
                              static_cast<int>(std::lround(std::clamp(part ? *number * 2.55 : *number, 0.0, 255.0))));
    }
    return colour.size() == 7 ? std::optional(colour) : std::nullopt;
}

std::vector<std::string> svg_words(std::string_view text) {
    std::istringstream in{std::string(text)};
    std::vector<std::string> words;
    for (std::string word; in >> word;) words.push_back(std::move(word));
    return words;
}

StyleSheet::StyleSheet(const pugi::xml_node& svg) {
    const auto look = [&](const auto& self, const pugi::xml_node& node, int depth) -> void {
        if (node.name() == std::string_view("style"))
            for (const pugi::xml_node& text : node.children()) read(text.value());
        if (depth < 64)
            for (const pugi::xml_node& child : node.children()) self(self, child, depth + 1);
    };
    look(look, svg, 0);
}

// Reads ".wall, .rock { fill: none }"; other selectors are skipped.
void StyleSheet::read(std::string_view css) {
    while (true) {
        const std::size_t open = css.find('{'), close = css.find('}', open == std::string_view::npos ? 0 : open);
        if (open == std::string_view::npos || close == std::string_view::npos) return;
        std::string_view selectors = css.substr(0, open);
        const std::string_view declarations = css.substr(open + 1, close - open - 1);
        while (!selectors.empty()) {
            const std::string_view one = selectors.substr(0, selectors.find(','));
            selectors.remove_prefix(std::min(one.size() + 1, selectors.size()));
            const std::string_view name = trimmed(one);
            if (name.size() > 1 && name[0] == '.' && name.find_first_of(" .:>+~[", 1) == std::string_view::npos)
                rules_[std::string(name.substr(1))] += fmt::format("{};", declarations);
        }
        css.remove_prefix(close + 1);
    }
}

Look StyleSheet::look_of(const pugi::xml_node& node, const Look& outer) const {
    Look look = outer;
    const auto declare = [&](std::string_view name, std::string_view value) { set(look, name, value); };
    for (const char* name : {"fill", "stroke", "visibility", "display"}) declare(name, node.attribute(name).value());
    for (const std::string& name : svg_words(node.attribute("class").value()))
        if (const auto rule = rules_.find(name); rule != rules_.end()) each_declaration(rule->second, declare);
    each_declaration(node.attribute("style").value(), declare);
    return look;
}

Page page_of(const pugi::xml_node& svg, std::array<double, 2> least, double map_width, double map_height) {
    Page page;
    const auto width = svg_length(svg.attribute("width").value()), height = svg_length(svg.attribute("height").value());
    std::vector<double> box;
    for (const std::string& word : words_in(svg.attribute("viewBox").value()))
        if (const auto number = number_of(word)) box.push_back(*number);
    const bool has_box = box.size() == 4 && box[2] > 0 && box[3] > 0;
    const bool has_size = width && height && *width > 0 && *height > 0;
    if (!has_size && !has_box) return page;         // it gives none: px of the map
    const auto is_map = [&](double w, double h) {   // programs round sizes in other units
        return std::abs(w - map_width) <= 0.5 && std::abs(h - map_height) <= 0.5;
    };
    if (!has_box) box = {0, 0, *width, *height};
    page.width = has_size ? *width : box[2], page.height = has_size ? *height : box[3];
    double scale_x = page.width / box[2], scale_y = page.height / box[3];
    page.fits = is_map(page.width, page.height);
    if (!page.fits && is_map(box[2], box[3]))
        page.fits = true, scale_x = scale_y = 1;
    else if (page.fits)
        scale_x = map_width / box[2], scale_y = map_height / box[3];
    // So near to whole that the difference is rounding: px are px.
    if (std::abs(scale_x - 1) < 1e-6 && std::abs(scale_y - 1) < 1e-6) scale_x = scale_y = 1;
    page.to_map = {scale_x, 0, 0, scale_y, least[0] - box[0] * scale_x, least[1] - box[1] * scale_y};
    return page;
}

}   // namespace dryground::files
