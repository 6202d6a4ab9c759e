// What tests of pictures share: pictures as documents and as pixels.
#pragma once

#include <pugixml.hpp>

#include "dryground/draw.hpp"
#include "worlds.hpp"

namespace pictures {

using namespace dryground;

inline const ArtSource no_art{"", [](const auto&) { return Result<std::string>(Failure{"none"}); }};

inline World world_of(const worlds::Files& files) {
    const Result<World> loaded = worlds::load(files);
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    return *loaded;
}

inline DrawOptions only(std::set<Thing> things) {
    DrawOptions options;
    options.show = std::move(things);
    return options;
}

inline std::string svg_of(const World& world, const DrawOptions& options = {}, const std::string& map = "flat",
                          const ArtSource& art = no_art) {
    return draw_svg(world, world.map(map), check(world), art, options);
}

// The document, which must be well-formed.
struct Document {
    pugi::xml_document xml;

    explicit Document(const std::string& svg) {
        const pugi::xml_parse_result result = xml.load_buffer(svg.data(), svg.size());
        INFO(result.description());
        REQUIRE(result);
    }
    [[nodiscard]] std::size_t count(const std::string& path) const { return xml.select_nodes(path.c_str()).size(); }
    [[nodiscard]] bool has_text(const std::string& text) const {
        for (const pugi::xpath_node& node : xml.select_nodes("//text"))
            if (std::string(node.node().text().get()).find(text) != std::string::npos) return true;
        return false;
    }
    [[nodiscard]] std::string attribute(const std::string& path, const char* name) const {
        return xml.select_node(path.c_str()).node().attribute(name).value();
    }
};

inline Image image_of(const std::string& png) {
    const auto image = decode_png(png);
    INFO(image.fault());
    REQUIRE(image);
    return *image;
}

inline Colour colour_at(const Image& image, int x, int y) {
    const auto at = static_cast<std::size_t>(y * image.width + x) * 4;
    return {image.rgba[at], image.rgba[at + 1], image.rgba[at + 2]};
}

}   // namespace pictures
