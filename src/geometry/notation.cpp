// Reads and writes the text notation of geometry, for tests and messages.
//
// "[(0,0 16,0 16,16)]": regions in brackets, rings in parentheses, coordinates in px.

#include <fmt/format.h>

#include <charconv>

#include "dryground/geometry.hpp"

namespace dryground {

namespace {

class Reader {
public:
    explicit Reader(std::string_view text) : rest_(text) {}

    std::optional<Regions> regions() {
        Regions result;
        for (skip_space(); !rest_.empty(); skip_space()) {
            if (!take('[')) return std::nullopt;
            Region region;
            if (!ring(region.outline)) return std::nullopt;
            while (!take(']'))
                if (!ring(region.holes.emplace_back())) return std::nullopt;
            result.push_back(std::move(region));
        }
        return result;
    }

private:
    void skip_space() {
        while (!rest_.empty() && rest_.front() == ' ') rest_.remove_prefix(1);
    }
    bool take(char c) {
        skip_space();
        if (rest_.empty() || rest_.front() != c) return false;
        rest_.remove_prefix(1);
        return true;
    }
    bool number(std::int32_t& value) {
        skip_space();
        const auto [end, error] = std::from_chars(rest_.data(), rest_.data() + rest_.size(), value);
        if (error != std::errc{}) return false;
        rest_.remove_prefix(static_cast<std::size_t>(end - rest_.data()));
        return value >= -coordinate_limit && value <= coordinate_limit;
    }
    bool ring(Ring& points) {
        if (!take('(')) return false;
        while (!take(')')) {
            Point p;
            if (!number(p.x) || !take(',') || !number(p.y)) return false;
            points.push_back(p);
        }
        return true;
    }

    std::string_view rest_;
};

}   // namespace

std::string to_text(std::span<const Point> ring) {
    std::string text = "(";
    for (std::size_t i = 0; i < ring.size(); ++i)
        text += fmt::format("{}{},{}", i > 0 ? " " : "", ring[i].x, ring[i].y);
    return text + ")";
}

std::string to_text(std::span<const Region> regions) {
    std::string text;
    for (const Region& region : regions) {
        text += text.empty() ? "[" : " [";
        text += to_text(region.outline);
        for (const Ring& hole : region.holes) text += " " + to_text(hole);
        text += "]";
    }
    return text;
}

std::optional<Regions> regions_from_text(std::string_view text) { return Reader(text).regions(); }

}   // namespace dryground
