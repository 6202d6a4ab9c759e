// Measures Dry Ground beside general-purpose libraries and the physical floor.
//
//     bench [--most-side N] [--only WORD] [--peers off] [--json FILE]
//
// Works come from the speed table of docs/performance.md. Peers run up to the size that they finish in a minute.

#include <fmt/format.h>

#include <cstdlib>
#include <fstream>
#include <iostream>
#include <string_view>

#include "works.hpp"

int main(int count, char** words) {
    bench::Settings settings;
    std::string json_file;
    for (int i = 1; i + 1 < count; i += 2) {
        const std::string_view word = words[i];
        if (word == "--most-side")
            settings.most_side = std::atoi(words[i + 1]);
        else if (word == "--only")
            settings.only = words[i + 1];
        else if (word == "--peers")
            settings.peers = words[i + 1] != std::string_view("off");
        else if (word == "--json")
            json_file = words[i + 1];
        else
            count = 0;
    }
    if (count % 2 == 0 || settings.most_side < 32) {
        std::cerr << "usage: bench [--most-side N] [--only WORD] [--peers off] [--json FILE]; N is 32 or more\n";
        return 2;
    }
    std::cout << bench::table_heading() << std::flush;
    std::vector<bench::Timing> results;
    bench::run_all(settings, [&](bench::Timing result) {
        std::cout << bench::table_line(result) << std::flush;
        results.push_back(std::move(result));
    });
    if (json_file.empty()) return 0;
    std::ofstream file(json_file);
    file << bench::to_json(results);
    file.close();
    if (!file) std::cerr << "bench: " << json_file << " cannot be written\n";
    return file ? 0 : 1;
}
