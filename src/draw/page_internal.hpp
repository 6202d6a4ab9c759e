// Inside the draw room: what a page knows.
#pragma once

#include "dryground/draw.hpp"

namespace dryground::drawing {

// Returns JSON that may stand inside a script element.
[[nodiscard]] std::string page_data(const World& world, std::span<const std::string> maps, const Report& report,
                                    const ArtSource& source, const DrawOptions& options);

// Replaces a mark in a page by a text, wherever it stands.
void fill_in(std::string& page, std::string_view mark, std::string_view with);

[[nodiscard]] std::string joined(std::span<const std::string_view> pieces);

// Returns a text as JSON that may stand inside a script element.
[[nodiscard]] std::string script_text(std::string_view text);

}   // namespace dryground::drawing
