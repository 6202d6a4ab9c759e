// Inside the files room: the folder of a world, through whichever reader the caller gave.
#pragma once

#include <filesystem>

#include "dryground/files.hpp"

namespace dryground::files {

class Folder {
public:
    Folder(std::filesystem::path root, const FileReader& reader);

    // A path as written in `from` (a file's path in the folder) to a path from the folder's root; nothing when it leads
    // out of the folder.
    [[nodiscard]] std::optional<std::string> resolve(const std::string& from, const std::string& written) const;
    [[nodiscard]] Result<std::string> read(const std::string& path) const;
    // The file of the same folder whose name is nearest, where there is a disk to look at.
    [[nodiscard]] std::optional<std::string> nearest(const std::string& path) const;

private:
    std::filesystem::path root_;
    FileReader reader_;
    bool on_disk_;
};

}   // namespace dryground::files
