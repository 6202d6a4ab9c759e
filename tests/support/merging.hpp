// Merging small worlds in tests, and reading what comes out in whole px.
#pragma once

#include "dryground/merge.hpp"
#include "worlds.hpp"

namespace merging {

inline dryground::Merge merged(const worlds::Files& files, const dryground::MergeOptions& options = {}) {
    const dryground::Result<dryground::World> loaded = worlds::load(files);
    if (!loaded) throw std::runtime_error(dryground::text(loaded.report()));
    return dryground::merge(*loaded, loaded->map("flat"), options);
}

inline std::string in_px(const dryground::Regions& regions) {   // for tests whose numbers are whole px
    dryground::Regions scaled = regions;
    for (dryground::Region& region : scaled) {
        for (dryground::Point& p : region.outline) p = {p.x / 256, p.y / 256};
        for (dryground::Ring& hole : region.holes)
            for (dryground::Point& p : hole) p = {p.x / 256, p.y / 256};
    }
    return dryground::to_text(scaled);
}

inline std::string in_px(const std::vector<dryground::Ring>& lines) {
    std::string all;
    for (dryground::Ring line : lines) {
        for (dryground::Point& p : line) p = {p.x / 256, p.y / 256};
        all += dryground::to_text(line);
    }
    return all;
}

inline worlds::Files with_rows(const worlds::Files& files, const std::string& rows) {
    return worlds::with(files, "flat.toml", "......\n......\n..../#\n######\n", rows);
}

inline worlds::Files without_rim() { return worlds::with(worlds::small_world(), "flat.toml", "rim = \"earth\"\n", ""); }

// Another layer between the ground and the people.
inline worlds::Files with_layer(const worlds::Files& files, const std::string& layer) {
    return worlds::with(files, "flat.toml", "[[layers]]\nname = \"people\"", layer + "\n[[layers]]\nname = \"people\"");
}

}   // namespace merging
