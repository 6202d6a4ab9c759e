// What eyes can tell apart: contrast as the web's accessibility guidelines count it, and distances between colours as
// different eyes see them.
// Also tests src/model: colour
#include <catch2/catch.hpp>

#include <cmath>

#include "draw/palette_internal.hpp"
#include "worlds.hpp"

using namespace dryground;
using namespace dryground::drawing;

namespace {

using Triple = std::array<double, 3>;

Triple linear(Colour c) {
    const auto one = [](std::uint8_t byte) {
        const double v = byte / 255.0;
        return v <= 0.04045 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4);
    };
    return {one(c.red), one(c.green), one(c.blue)};
}

double contrast(const std::string& a, const std::string& b) {
    const auto light = [](const std::string& text) {
        const auto [r, g, blue] = linear(*colour_from(text));
        return 0.2126 * r + 0.7152 * g + 0.0722 * blue;
    };
    return (std::max(light(a), light(b)) + 0.05) / (std::min(light(a), light(b)) + 0.05);
}

Triple lab(Triple l) {
    const auto f = [](double t) { return t > 0.008856 ? std::cbrt(t) : 7.787 * t + 16.0 / 116; };
    const double x = f((0.4124 * l[0] + 0.3576 * l[1] + 0.1805 * l[2]) / 0.95047),
                 y = f(0.2126 * l[0] + 0.7152 * l[1] + 0.0722 * l[2]),
                 z = f((0.0193 * l[0] + 0.1192 * l[1] + 0.9505 * l[2]) / 1.08883);
    return {116 * y - 16, 500 * (x - y), 200 * (y - z)};
}

// Machado, Oliveira and Fernandes 2009, the tables for the whole loss.
Triple seen(Triple l, Palette eyes) {
    static constexpr std::array<std::array<double, 9>, 3> tables{{
        {0.152286, 1.052583, -0.204868, 0.114503, 0.786281, 0.099216, -0.003882, -0.048116, 1.051998},
        {0.367322, 0.860646, -0.227968, 0.280085, 0.672501, 0.047413, -0.011820, 0.042940, 0.968881},
        {1.255528, -0.076749, -0.178779, -0.078411, 0.930809, 0.147602, 0.004733, 0.691367, 0.303900},
    }};
    if (eyes == Palette::own || eyes == Palette::grey) return l;
    const auto& t = tables[static_cast<std::size_t>(eyes) - 1];
    Triple out{};
    for (std::size_t i = 0; i < 3; ++i)
        out[i] = std::clamp(t[3 * i] * l[0] + t[3 * i + 1] * l[1] + t[3 * i + 2] * l[2], 0.0, 1.0);
    return out;
}

double apart(const std::string& a, const std::string& b, Palette eyes) {
    const Triple p = lab(seen(linear(*colour_from(a)), eyes)), q = lab(seen(linear(*colour_from(b)), eyes));
    return std::hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]);
}

constexpr Palette all[] = {Palette::own, Palette::protan, Palette::deutan, Palette::tritan, Palette::grey};

}   // namespace

TEST_CASE("texts can be read on every ground, signs on theirs") {
    for (const Palette palette : all) {
        const Inks inks = inks_of(palette);
        CAPTURE(palette_names()[static_cast<std::size_t>(palette)]);
        for (const std::string& text : {inks.text, inks.soft, inks.lines})
            for (const std::string& ground : {inks.paper, inks.ground, inks.edge}) CHECK(contrast(text, ground) >= 4.5);
        for (const std::string& sign : {inks.error, inks.warning, inks.note})
            CHECK(contrast(inks.sign_text, sign) >= 4.5);
        CHECK(contrast(inks.side, inks.paper) >= 4.5);
        for (const std::string& role : inks.roles) CHECK(contrast(role, inks.ground) >= 3);
    }
}

TEST_CASE("six barriers can be told apart by the eyes that a palette is for") {
    const Result<World> loaded = worlds::load(worlds::small_world());
    REQUIRE(loaded);
    for (const Palette palette : {Palette::protan, Palette::deutan, Palette::tritan, Palette::grey}) {
        const double least = palette == Palette::grey ? 5 : 40;
        CAPTURE(palette_names()[static_cast<std::size_t>(palette)]);
        for (std::size_t a = 0; a < 6; ++a) {
            const std::string one = look_of(*loaded, BarrierId::none, a, palette).colour;
            CHECK(contrast(one, inks_of(palette).ground) >= 3);
            for (std::size_t b = 0; b < a; ++b)
                CHECK(apart(one, look_of(*loaded, BarrierId::none, b, palette).colour, palette) >= least);
        }
    }
}

TEST_CASE("hatching and dashes tell barriers apart where colours do not") {
    const Result<World> loaded = worlds::load(worlds::small_world());
    REQUIRE(loaded);
    for (std::size_t a = 0; a < 12; ++a)
        for (std::size_t b = 0; b < a; ++b) {
            const Look one = look_of(*loaded, BarrierId::none, a, Palette::grey),
                       other = look_of(*loaded, BarrierId::none, b, Palette::grey);
            CHECK((one.hatch != other.hatch || one.dash != other.dash));
        }
}

TEST_CASE("the colour of errors lies apart from every other ink, whoever looks") {
    const Inks inks = inks_of(Palette::own);
    for (const Palette eyes : {Palette::own, Palette::protan, Palette::deutan, Palette::tritan})
        for (const std::string& other :
             {inks.text, inks.soft, inks.lines, inks.warning, inks.note, inks.helper, inks.reach}) {
            CAPTURE(palette_names()[static_cast<std::size_t>(eyes)], other);
            CHECK(apart(inks.error, other, eyes) >= 20);
        }
}

TEST_CASE("a grey palette has no colour in it") {
    const Inks inks = inks_of(Palette::grey);
    for (const std::string& ink : {inks.text, inks.paper, inks.error, inks.warning, inks.roles[0], inks.reach}) {
        const Colour colour = *colour_from(ink);
        CHECK(colour.red == colour.green);
        CHECK(colour.green == colour.blue);
    }
}

TEST_CASE("things and palettes are found by their names, and nothing else is") {
    for (const std::string_view name : thing_names())
        CHECK(thing_names()[static_cast<std::size_t>(*thing_from(name))] == name);
    for (const std::string_view name : palette_names())
        CHECK(palette_names()[static_cast<std::size_t>(*palette_from(name))] == name);
    CHECK_FALSE(thing_from("gird"));
    CHECK_FALSE(palette_from("own "));
}
