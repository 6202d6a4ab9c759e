// What a page holds, as tests look at it.
#pragma once

#include <cstdint>
#include <cstring>
#include <nlohmann/json.hpp>
#include <numeric>
#include <string>
#include <vector>

#include <catch2/catch.hpp>

#include "pictures.hpp"

namespace pages {

using namespace dryground;
using namespace pictures;
using Json = nlohmann::json;

inline std::string page_of(const World& world, const DrawOptions& options = {}, bool reloads = false) {
    std::vector<std::string> maps;
    for (const Map& map : world.maps()) maps.push_back(map.name);
    return draw_page(world, maps, check(world), no_art, options, reloads);
}

inline Json data_of(const std::string& page) {
    const std::string mark = "<script type=\"application/json\" id=\"data\">";
    const std::size_t from = page.find(mark) + mark.size(), to = page.find("</script>", from);
    REQUIRE(to != std::string::npos);
    return Json::parse(page.substr(from, to - from));
}

inline std::string bytes_of(const std::string& base64) {
    static const std::string digits = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/";
    std::string out;
    unsigned held = 0;
    int bits = 0;
    for (const char c : base64) {
        if (c == '=') break;
        held = held << 6 | static_cast<unsigned>(digits.find(c));
        if ((bits += 6) >= 8) out += static_cast<char>(held >> (bits -= 8) & 255);
    }
    return out;
}

// 16 bits each where the length says so.
inline Json patched(Json all, const Json& changes) {
    for (const Json& change : changes) all[change[0].get<std::size_t>()] = change[1];
    return all;
}

// The ground of a map, with its groups in place of their numbers.
inline std::vector<Json> ground_of(const Json& map, const std::vector<std::size_t>& numbers) {
    std::vector<Json> all;
    for (const std::size_t number : numbers) {
        Json ground = map["chunks"][number];
        ground[0] = map["groups"][ground[0].get<std::size_t>()];
        all.push_back(std::move(ground));
    }
    return all;
}
inline std::vector<std::size_t> first_numbers(const Json& map) {
    std::vector<std::size_t> numbers(map["at_first"].get<std::size_t>());
    std::iota(numbers.begin(), numbers.end(), std::size_t{0});
    return numbers;
}

// Twice the area of rings as a page holds them: each with the number of its points first.
inline std::int64_t area_of_rings(const std::string& base64) {
    const std::string bytes = bytes_of(base64);
    std::vector<std::int32_t> list(bytes.size() / 4);
    std::memcpy(list.data(), bytes.data(), list.size() * 4);
    std::int64_t sum = 0;
    for (std::size_t at = 0; at < list.size();) {
        const auto count = static_cast<std::size_t>(list[at]);
        const std::int32_t* points = &list[at + 1];
        for (std::size_t i = 0; i < count; ++i) {
            const std::size_t j = (i + 1) % count;
            sum += std::int64_t{points[2 * i]} * points[2 * j + 1] - std::int64_t{points[2 * j]} * points[2 * i + 1];
        }
        at += 1 + 2 * count;
    }
    return sum;
}

}   // namespace pages
