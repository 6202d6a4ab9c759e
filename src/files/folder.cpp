// The folder of a world: paths within it, and files found by name.

#include "folder_internal.hpp"

#include <algorithm>
#include <filesystem>
#include <system_error>

namespace dryground::files {

namespace fs = std::filesystem;

namespace {

// Returns whether the caller's reader is our own, which looks at the disk.
bool is_own(const FileReader& reader) {
    const auto* function = reader.target<Result<std::string> (*)(const std::string&)>();
    return function != nullptr && *function == &read_file;
}

bool leads_out(const fs::path& path) { return path.empty() || path.is_absolute() || *path.begin() == ".."; }

}   // namespace

Folder::Folder(fs::path root, const FileReader& reader)
    : root_(std::move(root)), reader_(reader), on_disk_(is_own(reader)) {}

std::optional<std::string> Folder::resolve(const std::string& from, const std::string& written) const {
    if (written.empty() || written.find('\0') != std::string::npos || fs::path(written).is_absolute())
        return std::nullopt;
    const fs::path path = (fs::path(from).parent_path() / written).lexically_normal();
    if (leads_out(path)) return std::nullopt;
    if (on_disk_) {   // a link inside the folder must not lead out of it either
        std::error_code error;
        const fs::path root = fs::weakly_canonical(root_.empty() ? "." : root_, error);
        const fs::path target = fs::weakly_canonical(root_ / path, error);
        if (error || leads_out(target.lexically_relative(root))) return std::nullopt;
    }
    return path.generic_string();
}

Result<std::string> Folder::read(const std::string& path) const { return reader_(root_ / path); }

std::optional<std::string> Folder::nearest(const std::string& path) const {
    if (!on_disk_) return std::nullopt;
    std::error_code error;
    std::vector<std::string> names;
    const fs::path folder = fs::path(path).parent_path();
    for (fs::directory_iterator i(root_ / folder, error), end; !error && i != end && names.size() < 10'000;
         i.increment(error))
        names.push_back((folder / i->path().filename()).generic_string());
    std::sort(names.begin(), names.end());
    return nearest_name(path, names);
}

}   // namespace dryground::files
