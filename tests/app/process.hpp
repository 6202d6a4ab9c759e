// Runs a program as a user would, and keeps what it said.
#pragma once

#include <fmt/format.h>
#include <sys/wait.h>
#include <unistd.h>

#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <sstream>
#include <string>

namespace process {

struct Outcome {
    int code = -1;
    std::string out, err;
};

inline std::string slurp(const std::filesystem::path& path) {
    std::ifstream in(path, std::ios::binary);
    std::ostringstream text;
    text << in.rdbuf();
    return text.str();
}

// A folder that goes with the test.
struct Folder {
    Folder() {
        std::string name = (std::filesystem::temp_directory_path() / "dryground-XXXXXX").string();
        path = ::mkdtemp(name.data());
    }
    ~Folder() { std::filesystem::remove_all(path); }
    Folder(const Folder&) = delete;
    Folder& operator=(const Folder&) = delete;
    std::filesystem::path path;
};

// A command line for the shell, run in the project's folder so that what it prints holds no path of a machine.
inline Outcome run(const std::string& words) {
    const Folder folder;
    const std::string command = fmt::format("cd '{}' && {} >'{}' 2>'{}' </dev/null", DRYGROUND_SOURCE, words,
                                            (folder.path / "out").string(), (folder.path / "err").string());
    const int status = std::system(command.c_str());
    return {WIFEXITED(status) ? WEXITSTATUS(status) : 1000 + status, slurp(folder.path / "out"),
            slurp(folder.path / "err")};
}

inline Outcome tool(const std::string& words) { return run(fmt::format("'{}' {}", DRYGROUND_COMMAND, words)); }

}   // namespace process
