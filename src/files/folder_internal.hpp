// Inside the files room: the folder of a world, through the reader that the caller gave.
#pragma once

#include <filesystem>

#include "dryground/files.hpp"

namespace dryground::files {

class Folder {
public:
    Folder(std::filesystem::path root, const FileReader& reader);

    // Converts a path as written in `from` (a file's path in the folder) to a path relative to the folder's root;
    // returns nothing if it leads out of the folder.
    [[nodiscard]] std::optional<std::string> resolve(const std::string& from, const std::string& written) const;
    [[nodiscard]] Result<std::string> read(const std::string& path) const;
    // Returns the file of the same folder whose name is nearest, if there is a disk to look at.
    [[nodiscard]] std::optional<std::string> nearest(const std::string& path) const;

private:
    std::filesystem::path root_;
    FileReader reader_;
    bool on_disk_;
};

}   // namespace dryground::files
