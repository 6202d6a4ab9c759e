#include <catch2/catch.hpp>

#include <fmt/format.h>

#include "dryground/text.hpp"
#include "model/utf8_internal.hpp"

using namespace dryground;

TEST_CASE("patterns match whole names, a star any run of characters") {
    CHECK(matches_pattern("peat", "peat"));
    CHECK_FALSE(matches_pattern("peat", "peat_a"));
    CHECK(matches_pattern("peat*", "peat"));
    CHECK(matches_pattern("*_top", "stone_top"));
    CHECK(matches_pattern("p*t*a", "peat_ta"));
    CHECK_FALSE(matches_pattern("p*t*b", "peat_ta"));
    CHECK(matches_pattern("*", ""));
    CHECK_FALSE(matches_pattern("", "x"));
    // a pattern of many stars takes no longer than pattern times name
    CHECK_FALSE(matches_pattern("a*a*a*a*a*a*a*a*a*a*a*a*a*a*b", std::string(20'000, 'a')));
}

TEST_CASE("characters are counted, not bytes; what is no UTF-8 is found") {
    CHECK(count_characters("Sedge") == 5);
    CHECK(count_characters("Gezeitenfläche →") == 16);
    CHECK(utf8::first_bad_byte("Gezeitenfläche → 🦀") == std::string_view::npos);
    CHECK(utf8::first_bad_byte("ab\xFFz") == 2);
    CHECK(utf8::first_bad_byte("\xC0\xAF") == 0);           // an overlong form
    CHECK(utf8::first_bad_byte("a\xED\xA0\x80") == 1);      // half of a surrogate pair
    CHECK(utf8::first_bad_byte("a\xE2\x82") == 1);          // cut off
    CHECK(utf8::first_bad_byte("\xF4\x90\x80\x80") == 0);   // beyond the last character
}

TEST_CASE("what a terminal would obey is made visible, and nothing else changes") {
    CHECK(visible("") == "");
    CHECK(visible("plain text,\n\ttwo lines") == "plain text,\n\ttwo lines");
    CHECK(visible("é, 潮 and 🦀 stay") == "é, 潮 and 🦀 stay");
    CHECK(visible("a\033[31mred\033]0;owned\007") == "a\\u001b[31mred\\u001b]0;owned\\u0007");
    CHECK(visible(std::string("\0\r\x7f", 3)) == "\\u0000\\u000d\\u007f");
    CHECK(visible("\u009b31m") == "\\u009b31m");   // C1: a control sequence begins with it
    CHECK(visible("x\u202Ey\u2066z\u200F\u2028") == "x\\u202ey\\u2066z\\u200f\\u2028");
    CHECK(visible("\xff\xc3(\xe2\x82") == "\\xff\\xc3(\\xe2\\x82");   // no UTF-8
    for (int c = 0; c < 0x110000; ++c) {
        if (c >= 0xD800 && c < 0xE000) continue;
        std::string text;
        const auto add = [&](int byte) { text += static_cast<char>(byte); };
        if (c < 0x80)
            add(c);
        else if (c < 0x800)
            add(0xC0 | c >> 6), add(0x80 | (c & 0x3F));
        else if (c < 0x10000)
            add(0xE0 | c >> 12), add(0x80 | (c >> 6 & 0x3F)), add(0x80 | (c & 0x3F));
        else
            add(0xF0 | c >> 18), add(0x80 | (c >> 12 & 0x3F)), add(0x80 | (c >> 6 & 0x3F)), add(0x80 | (c & 0x3F));
        const std::string once = visible(text);
        REQUIRE(visible(once) == once);
        REQUIRE((once == text || once == fmt::format("\\u{:04x}", c)));
    }
}
