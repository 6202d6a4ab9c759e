// What tests of comparisons share: versions of worlds in memory, and edits of their files.
#pragma once

#include <catch2/catch.hpp>

#include "dryground/compare.hpp"
#include "dryground/edit.hpp"
#include "worlds.hpp"

namespace versions {

using namespace dryground;

inline Version version(const worlds::Files& files) {
    Result<Version> result = load_version("world.toml", worlds::reader_of(files));
    INFO(text(result.report()));
    REQUIRE(result);
    return *std::move(result);
}

inline worlds::Files edited(worlds::Files files, const WorldEdit& edit) {
    const Result<Edited> result = make_edit("world.toml", edit, worlds::reader_of(files));
    INFO(result.fault());
    REQUIRE(result);
    for (const NamedBytes& file : result->files) files[file.file] = file.bytes;
    return files;
}

}   // namespace versions
