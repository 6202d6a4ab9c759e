// How many of people's mistakes are found: single mistakes put into the demo world, each with the rule and the place
// that a person would look for.
#include <catch2/catch.hpp>

#include <filesystem>
#include <fstream>
#include <map>

#include "chance.hpp"
#include "clean_worlds.hpp"
#include "mistakes.hpp"

using namespace dryground;
using worlds::Files;

namespace {

Files demo() {
    const std::filesystem::path folder = std::filesystem::path(DRYGROUND_SOURCE) / "demo";
    Files files;
    for (const char* part : {"tiles", "maps", "art"})
        for (std::filesystem::recursive_directory_iterator at(folder / part), end; at != end; ++at)
            files[at->path().lexically_relative(folder).generic_string()];
    files["world.toml"];
    for (auto& [name, bytes] : files) {
        std::ifstream in(folder / name, std::ios::binary);
        bytes.assign(std::istreambuf_iterator<char>(in), {});
    }
    return files;
}

Report findings(const Files& files) {
    const FileReader reader = [&files](const std::filesystem::path& path) {
        const auto found = files.find(path.generic_string());
        return found == files.end() ? FileBytes{{}, "there is no such file"} : FileBytes{found->second, {}};
    };
    const Loaded loaded = load_world("world.toml", reader);
    Report report = loaded.report();
    if (loaded) report.add(check(loaded.world(), {pictures_of("world.toml", reader)}));
    return report;
}

}   // namespace

TEST_CASE("of the mistakes that people make, 95 in a hundred are found by the right rule at the right place", "[mistakes]") {
    const Files clean = demo();
    REQUIRE(findings(clean).empty());
    std::vector<mistakes::Mistake> all = mistakes::slips(clean);
    const std::vector<mistakes::Mistake> meant = mistakes::mistakes_of_meaning(clean);
    all.insert(all.end(), meant.begin(), meant.end());
    CHECK(all.size() >= 300);
    std::map<std::string, std::pair<int, int>> by_sort;   // found, all
    std::size_t played = 0, found = 0;
    std::string missed;
    for (std::size_t i = 0; i < all.size(); i += chance::sanitized ? 7 : 1, ++played) {
        const Report report = findings(all[i].files);
        const bool is_found = mistakes::is_found(all[i], report);
        found += is_found;
        by_sort[all[i].sort].first += is_found, ++by_sort[all[i].sort].second;
        if (!is_found) missed += fmt::format("{}: {}\n{}\n", all[i].sort, all[i].what, text(report));
    }
    std::string table = fmt::format("{} of {} found\n", found, played);
    for (const auto& [sort, count] : by_sort) table += fmt::format("{:4} of {:4}  {}\n", count.first, count.second, sort);
    INFO(table << "missed:\n" << missed);
    if (std::getenv("DRYGROUND_MISSED")) WARN(table << "missed:\n" << missed);
    CHECK(100 * found >= 95 * played);
    for (const auto& [sort, count] : by_sort) CHECK(count.first > 0);   // each sort is known
}

TEST_CASE("worlds without mistakes give no findings", "[mistakes]") {
    for (std::uint64_t round = 0; round < static_cast<std::uint64_t>(chance::rounds(60)); ++round) {
        DRYGROUND_ROUND(round);
        const Files files = worlds::clean_world(round);
        INFO(files.at("outside.toml") << files.at("inside.toml"));
        const Report report = findings(files);
        INFO(text(report));
        CHECK(report.empty());
    }
}
