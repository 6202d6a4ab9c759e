// A tree with holes is written as the same tree without: as text and as CBOR, each hole made once and in order.
#include "files/json_stream_internal.hpp"

#include <catch2/catch.hpp>

#include <fmt/format.h>

#include "chance.hpp"

using namespace dryground;
using files::Holes;

namespace {

files::Json random_tree(chance::Dice& dice, int depth) {
    switch (depth > 3 ? dice.in(0, 2) : dice.in(0, 5)) {
        case 0:
            return dice.in(-5, 70000);
        case 1:
            return dice.in(0, 9) / 8.0;
        case 2:
            return std::string(static_cast<std::size_t>(dice.in(0, 30)), 'a');
        case 3: {
            files::Json list = files::Json::array();
            for (int n = dice.once_in(6) ? dice.in(20, 300) : dice.in(0, 4); n > 0; --n)
                list.push_back(random_tree(dice, n > 8 ? 9 : depth + 1));
            return list;
        }
        default: {
            files::Json table = files::Json::object();
            for (int n = dice.in(0, 5); n > 0; --n) table[fmt::format("key{}", n)] = random_tree(dice, depth + 1);
            return table;
        }
    }
}

// Makes holes of some of its values, and notes in which order they are filled.
void punch(files::Json& tree, chance::Dice& dice, Holes& holes, std::vector<int>& filled, int& made) {
    if (dice.once_in(3)) {
        const int number = made++;
        tree = holes.add([value = tree, number, &filled] {
            filled.push_back(number);
            return value;
        });
    } else if (tree.is_structured()) {
        for (files::Json& item : tree) punch(item, dice, holes, filled, made);
    }
}

}   // namespace

TEST_CASE("a tree with holes is written as the tree without, text and CBOR alike") {
    for (int round = 0; round < chance::rounds(400); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(static_cast<std::uint64_t>(round));
        const files::Json whole = random_tree(dice, 0);
        files::Json tree = whole;
        Holes holes;
        std::vector<int> filled;
        int made = 0;
        punch(tree, dice, holes, filled, made);
        std::string text;
        std::vector<std::uint8_t> cbor;
        files::TreeSinks sinks;
        sinks.text = &text;
        sinks.cbor = [&](const std::vector<std::uint8_t>& more) { cbor.insert(cbor.end(), more.begin(), more.end()); };
        files::write_tree(tree, holes, 0, sinks);
        CHECK(files::Json::parse(text) == whole);
        CHECK(cbor == files::Json::to_cbor(whole));
        REQUIRE(filled.size() == static_cast<std::size_t>(made));
        for (int i = 0; i < made; ++i) CHECK(filled[static_cast<std::size_t>(i)] == i);
    }
}

TEST_CASE("a tree without holes is the text that json_text writes; what fills a hole has no spaces") {
    const files::Json tree{{"points", {{1, 2}, {3, 4}}}, {"name", "a"}, {"more", {{"x", {{"y", {1}}}}}}};
    std::string text;
    files::TreeSinks sinks;
    sinks.text = &text;
    files::write_tree(tree, Holes{}, 0, sinks);
    CHECK(text + "\n" == files::json_text(tree));
    Holes holes;
    text.clear();
    files::write_tree(files::Json{{"points", holes.add([&] { return tree["points"]; })}}, holes, 0, sinks);
    CHECK(text == "{\n  \"points\": [[1,2],[3,4]]\n}");
}
