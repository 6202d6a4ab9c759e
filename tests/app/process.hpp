// Runs a program as a user would, and keeps its output.
#pragma once

#include <fmt/format.h>
#include <sys/wait.h>

#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <string>

#include "folder.hpp"

namespace process {

struct Outcome {
    int code = -1;
    std::string out, err;
};

// A command line for the shell, run in the project's folder so that what it prints holds no path of a machine. What it
// keeps of edits is in a cache folder of the test's own.
inline Outcome run(const std::string& words) {
    static const Folder cache;
    const Folder folder;
    const std::string command =
        fmt::format("cd '{}' && export XDG_CACHE_HOME='{}' && {} >'{}' 2>'{}' </dev/null", DRYGROUND_SOURCE,
                    cache.path.string(), words, (folder.path / "out").string(), (folder.path / "err").string());
    const int status = std::system(command.c_str());
    return {WIFEXITED(status) ? WEXITSTATUS(status) : 1000 + status, slurp(folder.path / "out"),
            slurp(folder.path / "err")};
}

// A folder for one test, with a copy of the demo world in it.
struct DemoCopy {
    DemoCopy() {
        std::filesystem::copy(std::filesystem::path(DRYGROUND_SOURCE) / "demo", folder.path / "demo",
                              std::filesystem::copy_options::recursive);
    }
    [[nodiscard]] std::string operator/(const std::string& file) const { return (folder.path / file).string(); }
    Folder folder;
};

inline Outcome tool(const std::string& words) { return run(fmt::format("'{}' {}", DRYGROUND_COMMAND, words)); }

}   // namespace process
