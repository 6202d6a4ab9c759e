// Waits until somebody saves a file.
#pragma once

#include <filesystem>
#include <map>
#include <optional>
#include <vector>

namespace app {

// Checks several times a second, which works on every file system; a file counts as saved if its time or size changes,
// and as removed only if it stays away for a second (editors replace the old file by a new one).
class Watch {
public:
    // Watches these files, and the folders that they lie in, from now on. State of files already watched is kept.
    void look_at(const std::vector<std::filesystem::path>& files);
    // Returns what was saved, added or removed; never empty.
    [[nodiscard]] std::vector<std::filesystem::path> wait();

private:
    struct Seen {
        std::filesystem::file_time_type time;
        std::uintmax_t size = 0;
        friend bool operator==(const Seen&, const Seen&) = default;
    };
    [[nodiscard]] static std::optional<Seen> see(const std::filesystem::path& path);
    [[nodiscard]] std::vector<std::filesystem::path> changed();

    std::map<std::filesystem::path, std::optional<Seen>> seen_;
};

}   // namespace app
