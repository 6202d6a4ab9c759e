// Rows of packs: what is written comes back, and nothing else is read as a row.
#include <catch2/catch.hpp>

#include "chance.hpp"
#include "files/number_rows_internal.hpp"

using namespace dryground;
using files::read_row;
using files::row_text;

namespace {

std::optional<std::vector<std::uint32_t>> read(std::string_view text, std::size_t most = 100) {
    std::vector<std::uint32_t> numbers;
    std::uint64_t more = 0;
    if (!read_row(text, most, numbers, more)) return std::nullopt;
    return numbers;
}

}   // namespace

TEST_CASE("rows of numbers come back as they were written") {
    for (int round = 0; round < chance::rounds(500); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(static_cast<std::uint64_t>(round));
        std::vector<std::uint64_t> row;
        while (row.size() < 80 && !dice.once_in(20))
            row.insert(row.end(), static_cast<std::size_t>(dice.in(1, 5)),
                       static_cast<std::uint64_t>(dice.once_in(9) ? 4294967295 : dice.in(0, 12)));
        const auto back = read(row_text(row));
        REQUIRE(back);
        REQUIRE(std::equal(row.begin(), row.end(), back->begin(), back->end()));
    }
}

TEST_CASE("repeated numbers are counted") {
    const std::vector<std::uint64_t> row{0, 0, 0, 7, 2, 2};
    CHECK(row_text(row) == "0*3 7 2*2");
    CHECK(row_text(row, true) == "0x0*3 0x7 0x2*2");
    CHECK(row_text({}).empty());
    CHECK(read("0*3 7 2*2") == std::vector<std::uint32_t>{0, 0, 0, 7, 2, 2});
}

TEST_CASE("what is no row is refused") {
    for (const char* text : {" ", "1 ", " 1", "1  2", "1*", "1*0", "*2", "1*2*3", "1,2", "-1", "+1", "0x1", "a",
                             "4294967296", "1*4294967296", "1.5", "1 *2", "1* 2"}) {
        INFO(text);
        CHECK_FALSE(read(text));
    }
}

TEST_CASE("a row never takes more memory than a map has columns, and the rest is counted") {
    std::vector<std::uint32_t> numbers;
    std::uint64_t more = 0;
    CHECK(read_row("1*2 2*4294967295 3*4294967295", 5, numbers, more));
    CHECK(numbers == std::vector<std::uint32_t>{1, 1, 2, 2, 2});
    CHECK(more == 2 * std::uint64_t{4294967295} - 3);
}
