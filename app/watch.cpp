#include "watch.hpp"

#include <chrono>
#include <thread>

namespace app {

namespace fs = std::filesystem;
using namespace std::chrono_literals;

std::optional<Watch::Seen> Watch::see(const fs::path& path) {
    std::error_code fault;
    const fs::file_time_type time = fs::last_write_time(path, fault);
    if (fault) return std::nullopt;
    const std::uintmax_t size = fs::is_directory(path, fault) ? 0 : fs::file_size(path, fault);
    return Seen{time, size};
}

void Watch::look_at(const std::vector<fs::path>& files) {
    for (const fs::path& file : files) {
        seen_.try_emplace(file, see(file));
        const fs::path folder = file.has_parent_path() ? file.parent_path() : fs::path(".");
        seen_.try_emplace(folder, see(folder));   // what was missing may come
    }
}

std::vector<fs::path> Watch::changed() {
    std::vector<fs::path> paths;
    for (auto& [path, before] : seen_)
        if (auto now = see(path); now != before) paths.push_back(path);
    return paths;
}

std::vector<fs::path> Watch::wait() {
    std::vector<fs::path> paths;
    while ((paths = changed()).empty()) std::this_thread::sleep_for(150ms);
    std::this_thread::sleep_for(50ms);   // who saves one file often saves the next
    const auto waits_for_return = [this] {
        for (const auto& [path, before] : seen_)
            if (before && !see(path)) return true;
        return false;
    };
    for (int i = 0; i < 20 && waits_for_return(); ++i) std::this_thread::sleep_for(50ms);
    paths = changed();
    for (auto& [path, before] : seen_) before = see(path);
    return paths;
}

}   // namespace app
