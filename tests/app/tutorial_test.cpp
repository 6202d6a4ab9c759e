// docs/tutorial.md, typed command by command in an empty folder: each one works, and says what the page says it says.
#include <catch2/catch.hpp>

#include "process.hpp"

namespace {

struct Block {
    std::string sort, text;   // "sh" or "text"
    int line = 0;
};

std::vector<Block> blocks_of(const std::string& page) {
    std::vector<Block> blocks;
    std::istringstream lines(page);
    bool inside = false;
    int number = 0;
    for (std::string line; std::getline(lines, line);) {
        ++number;
        if (line.rfind("```", 0) == 0) {
            inside = !inside;
            if (inside) blocks.push_back({line.substr(3), {}, number});
        } else if (inside) {
            blocks.back().text += line + "\n";
        }
    }
    return blocks;
}

}   // namespace

TEST_CASE("the tutorial's commands all work, and come back with what it shows") {
    const process::Folder folder;
    std::string where = folder.path.string();
    std::string last;   // what the last command printed
    int commands = 0, outputs = 0;
    const std::vector<Block> blocks = blocks_of(process::slurp(std::string(DRYGROUND_SOURCE) + "/docs/tutorial.md"));
    for (std::size_t i = 0; i < blocks.size(); ++i) {
        const Block& block = blocks[i];
        INFO("docs/tutorial.md:" << block.line);
        if (block.sort == "text") {
            CHECK(last == block.text);
            ++outputs;
            continue;
        }
        REQUIRE(block.sort == "sh");
        std::istringstream lines(block.text);
        for (std::string line; std::getline(lines, line);) {
            INFO(line);
            if (line.rfind("cd ", 0) == 0) {
                where += "/" + line.substr(3);
                continue;
            }
            REQUIRE(line.rfind("dryground ", 0) == 0);
            const auto done = process::run(fmt::format("cd '{}' && '{}' {}", where, DRYGROUND_COMMAND,
                                                       line.substr(std::string("dryground ").size())));
            INFO(done.err);
            const bool shows_error = i + 1 < blocks.size() &&
                                     blocks[i + 1].text.find(" error: ") != std::string::npos &&
                                     lines.peek() == std::char_traits<char>::eof();
            CHECK(done.code == (shows_error ? 1 : 0));
            last = done.out;
            ++commands;
        }
    }
    CHECK(commands > 15);
    CHECK(outputs >= 5);
}
