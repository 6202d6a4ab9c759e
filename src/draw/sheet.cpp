// SVG in the making: texts, hatchings, the document.

#include "art_internal.hpp"
#include "picture_internal.hpp"

namespace dryground::drawing {

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

double text_width(std::string_view text, double size) {
    thread_local const Canvas canvas = blank(1, 1);
    thread_local const Context context(cairo_create(canvas.get()));
    cairo_select_font_face(context.get(), "DejaVu Sans", CAIRO_FONT_SLANT_NORMAL, CAIRO_FONT_WEIGHT_NORMAL);
    cairo_set_font_size(context.get(), size);
    cairo_text_extents_t extents{};
    cairo_text_extents(context.get(), std::string(text).c_str(), &extents);
    return extents.x_advance;
}

std::string Sheet::edged(std::string_view ink, double width) {
    return fmt::format("stroke=\"{}\" stroke-width=\"{:g}\" paint-order=\"stroke\"", ink, width);
}

void Sheet::text(double x, double y, std::string_view words, double size, std::string_view ink, std::string_view anchor,
                 std::string_view more) {
    put("<text x=\"{:.1f}\" y=\"{:.1f}\" font-size=\"{:g}\" fill=\"{}\" text-anchor=\"{}\"{}{}>{}</text>\n", x, y, size,
        ink, anchor, more.empty() ? "" : " ", more, escaped(words));
}

void Sheet::hatching(const std::string& id, const Look& look, const Inks& inks) {
    define(
        "<pattern id=\"{0}\" width=\"8\" height=\"8\" patternUnits=\"userSpaceOnUse\"><path d=\"{1}\" stroke=\"{3}\" "
        "stroke-width=\"3\" stroke-opacity=\"0.55\" fill=\"none\"/><path d=\"{1}\" stroke=\"{2}\" stroke-width=\"1.4\" "
        "fill=\"none\"/></pattern>\n",
        id, look.hatch, look.colour, inks.paper);
}

std::string Sheet::document(const Box& window, std::string_view title, const Inks& inks) const {
    return fmt::format(
        "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n"
        "<svg xmlns=\"http://www.w3.org/2000/svg\" xmlns:xlink=\"http://www.w3.org/1999/xlink\" width=\"{2:g}\" "
        "height=\"{3:g}\" viewBox=\"{0:g} {1:g} {2:g} {3:g}\" font-family=\"DejaVu Sans, sans-serif\">\n"
        "<title>{4}</title>\n<defs>\n{5}</defs>\n<rect x=\"{0:g}\" y=\"{1:g}\" width=\"{2:g}\" height=\"{3:g}\" "
        "fill=\"{6}\"/>\n{7}</svg>\n",
        window.x, window.y, window.width, window.height, escaped(title), defs, inks.paper, body);
}

}   // namespace dryground::drawing
