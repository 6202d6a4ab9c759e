// What was measured, as a table for people and as JSON for machines.
#pragma once

#include <optional>
#include <string>
#include <vector>

namespace bench {

struct Peer {
    std::string name;
    double seconds = 0;
};

struct Timing {
    std::string work, input;     // what was done, to what
    double seconds = 0;          // ours
    std::vector<Peer> peers{};   // the same work, or the floor, in the same run
    std::string note{};          // counts and the like
};

[[nodiscard]] std::string table_heading();
[[nodiscard]] std::string table_line(const Timing& result);
[[nodiscard]] std::string to_json(const std::vector<Timing>& results);

}   // namespace bench
