// The rules that some test trips, by name: filled by the tests' own tables.
#pragma once

#include <set>
#include <string>

inline std::set<std::string>& tripped() {
    static std::set<std::string> names;
    return names;
}
