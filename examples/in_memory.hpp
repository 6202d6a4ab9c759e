// A world from texts in the program, for examples that need no files.
#pragma once

#include <dryground/dryground.hpp>

#include <map>
#include <string>

inline dryground::Result<dryground::World> load_from(const std::map<std::string, std::string>& files) {
    return dryground::load_world("world.toml", [&files](const std::string& path) {
        const auto file = files.find(path);
        return file == files.end() ? dryground::Result<std::string>(dryground::Failure{"there is no such file"})
                                   : dryground::Result<std::string>(file->second);
    });
}
