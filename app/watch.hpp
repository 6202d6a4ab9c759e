// Waits until somebody saves a file.
#pragma once

#include <filesystem>
#include <map>
#include <optional>
#include <vector>

namespace app {

// Looks several times a second, which works on every file system; a file counts as saved when its time or size is
// another, and as gone only when it stays away for a second (editors put a new file in the old one's place).
class Watch {
public:
    // These files, and the folders that they lie in, from now on. What was watched before keeps what was seen of it.
    void look_at(const std::vector<std::filesystem::path>& files);
    // Returns what was saved, came or went; never empty.
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
