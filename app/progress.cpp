#include "progress.hpp"

#include <fmt/format.h>
#include <unistd.h>

#include <chrono>
#include <memory>

#include "command.hpp"

namespace app {

namespace {

class Line {
public:
    explicit Line(std::string what) : what_(std::move(what)) {}
    Line(const Line&) = delete;
    Line& operator=(const Line&) = delete;
    ~Line() { clear(); }
    void show(std::size_t done, std::size_t all) {
        if (all != 0 && done >= all) return clear();
        const auto now = Clock::now();
        if (now - began_ < std::chrono::seconds(1) || now - last_ < std::chrono::milliseconds(100)) return;
        last_ = now;
        is_shown_ = true;
        say_bytes(all == 0 ? fmt::format("\r{}: {}\033[K", what_, done)
                           : fmt::format("\r{}: {} %\033[K", what_, 100 * done / all));
    }

private:
    void clear() {
        if (is_shown_) say_bytes("\r\033[K");
        is_shown_ = false;
    }

    using Clock = std::chrono::steady_clock;
    std::string what_;
    Clock::time_point began_ = Clock::now(), last_{};
    bool is_shown_ = false;
};

}   // namespace

Progress progress_of(const std::string& what) {
    if (::isatty(STDERR_FILENO) == 0) return {};
    return [line = std::make_shared<Line>(what)](std::size_t done, std::size_t all) { line->show(done, all); };
}

dryground::FileReader counting(dryground::FileReader reader) {
    const Progress progress = progress_of("reading files");
    if (!progress) return reader;
    return [reader = std::move(reader), progress, count = std::size_t{0}](const std::string& path) mutable {
        progress(++count, 0);
        return reader(path);
    };
}

}   // namespace app
