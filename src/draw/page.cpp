// A page: its parts (page/, put into the library when it is built) around its data.

#include <fmt/format.h>

#include <optional>

#include "page_internal.hpp"
#include "page_parts.hpp"
#include "picture_internal.hpp"

namespace dryground {

namespace {

// FNV-1a, 64 bits: distinguishes one page from the next.
std::uint64_t stamp_of(std::string_view text) {
    std::uint64_t hash = 14695981039346656037u;
    for (const char c : text) hash = (hash ^ static_cast<unsigned char>(c)) * 1099511628211u;
    return hash;
}

// Returns the text between two marks; nothing if they are missing.
std::optional<std::pair<std::size_t, std::size_t>> between(const std::string& text, std::string_view begin,
                                                           std::string_view end) {
    const std::size_t from = text.find(begin);
    const std::size_t to = from == std::string::npos ? from : text.find(end, from + begin.size());
    if (to == std::string::npos) return std::nullopt;
    return std::pair(from + begin.size(), to);
}

}   // namespace

namespace drawing {

void fill_in(std::string& page, std::string_view mark, std::string_view with) {
    for (std::size_t at = page.find(mark); at != std::string::npos; at = page.find(mark, at + with.size()))
        page.replace(at, mark.size(), with);
}

std::string joined(std::span<const std::string_view> pieces) {
    std::string text;
    for (const std::string_view piece : pieces) text += piece;
    return text;
}

}   // namespace drawing

std::string page_with_trouble(std::string page, std::string_view trouble) {
    const auto place = between(page, "/*trouble*/", "/*end*/"), stamp = between(page, "stamp: \"", "\"");
    if (!place || !stamp || stamp->first > place->first) return page;
    page.replace(place->first, place->second - place->first, drawing::script_text(trouble));
    page.replace(stamp->first, stamp->second - stamp->first, fmt::format("{:016x}", stamp_of(page)));
    return page;
}

std::string draw_page(const World& world, std::span<const std::string> maps, const Report& report, const ArtSource& art,
                      const DrawOptions& options, bool reloads) {
    const std::string data = drawing::page_data(world, maps, report, art, options);
    std::string page(page_parts::html);
    drawing::fill_in(page, "<!--title-->", drawing::escaped(world.title()));
    drawing::fill_in(page, "<!--stamp-->", fmt::format("{:016x}", stamp_of(data)));
    drawing::fill_in(page, "<!--reloads-->", reloads ? "true" : "false");
    drawing::fill_in(page, "<!--style-->", page_parts::style);
    drawing::fill_in(page, "<!--script-->", drawing::joined(page_parts::script));
    drawing::fill_in(page, "<!--data-->", data);
    return page;
}

}   // namespace dryground
