#include <catch2/catch.hpp>

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
