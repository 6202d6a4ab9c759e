#include "results.hpp"

#include <fmt/format.h>

#include <nlohmann/json.hpp>

namespace bench {

namespace {

std::string time_text(double seconds) {
    if (seconds < 1e-3) return fmt::format("{:.1f} us", seconds * 1e6);
    if (seconds < 1) return fmt::format("{:.2f} ms", seconds * 1e3);
    return fmt::format("{:.2f} s", seconds);
}

}   // namespace

std::string table_heading() {
    return fmt::format("{:<28} {:<24} {:>10}   {}\n", "work", "input", "ours", "beside (times ours)");
}

std::string table_line(const Timing& result) {
    std::string line = fmt::format("{:<28} {:<24} {:>10}  ", result.work, result.input, time_text(result.seconds));
    for (const Peer& peer : result.peers) line += fmt::format(" {} {:.3g}x;", peer.name, peer.seconds / result.seconds);
    return line + (result.note.empty() ? "" : " " + result.note) + "\n";
}

std::string to_json(const std::vector<Timing>& results) {
    nlohmann::ordered_json all = nlohmann::ordered_json::array();
    for (const Timing& result : results) {
        nlohmann::ordered_json peers = nlohmann::ordered_json::object();
        for (const Peer& peer : result.peers)
            peers[peer.name] = {{"seconds", peer.seconds}, {"ratio", peer.seconds / result.seconds}};
        all.push_back({{"work", result.work},
                       {"input", result.input},
                       {"seconds", result.seconds},
                       {"beside", std::move(peers)},
                       {"note", result.note}});
    }
    return nlohmann::ordered_json{{"format", "dryground/bench/1"}, {"results", std::move(all)}}.dump(2) + "\n";
}

}   // namespace bench
