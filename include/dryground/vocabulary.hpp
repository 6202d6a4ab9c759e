// The named things of a world: barriers, flags, storeys, movers, kinds, and the typed properties of things. Part of
// world.hpp, whose rules apply.
#pragma once

#include <array>
#include <cstdint>
#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

#include "dryground/geometry.hpp"
#include "dryground/ids.hpp"
#include "dryground/report.hpp"

namespace dryground {

// ---- values -----------------------------------------------------------------------------------------------------

struct Image {   // rows from the top, 4 bytes a px: red, green, blue, alpha
    int width = 0, height = 0;
    std::vector<unsigned char> rgba;
};

// A place on a map, in px, y down, from the top-left corner of cell (0, 0); of diamonds from its top corner.
struct PointPx {
    double x = 0, y = 0;
    friend bool operator==(const PointPx&, const PointPx&) = default;
};
// A box in px: its top-left corner and its size.
struct BoxPx {
    double x = 0, y = 0, width = 0, height = 0;
};

// The value of a property. It keeps its type from file to game: a yes/no is a bool, a place is two numbers of px.
struct Value {
    using List = std::vector<Value>;
    std::variant<bool, std::int64_t, double, std::string, std::array<double, 2>, List> is = false;

    friend bool operator==(const Value&, const Value&) = default;
};
using Properties = std::map<std::string, Value>;

enum class FieldType { yes_no, whole, number, text, choice, colour, place, ref, map, tile, fact, list, file };

struct Field {
    FieldType type = FieldType::text;
    std::optional<Value> standard;       // the default; without one the property is required,
    bool optional = false;               // unless it is optional: then it may have no value
    std::optional<double> least, most;   // of whole and number
    std::vector<std::string> choices;    // of choice
    FieldType holds = FieldType::text;   // of list
    std::string note;
};
using Fields = std::map<std::string, Field>;

// ---- named things ---------------------------------------------------------------------------------------------

struct Colour {
    std::uint8_t red = 0, green = 0, blue = 0;
    friend bool operator==(const Colour&, const Colour&) = default;
};
// Parses "#7a5c3a"; returns nothing for any other text.
[[nodiscard]] std::optional<Colour> colour_from(std::string_view text);

struct Barrier {
    std::string name, note;
    std::optional<Colour> colour;
    Place place{};
};

struct NamedThing {   // a flag, a fact, an event
    std::string name, note;
    Place place{};
};

// A set of the world's flags, by id: at most 64.
using FlagSet = std::uint64_t;

struct Storey {
    std::string name;
    double base_px = 0, height_px = 32;
    Place place{};
};

// A picture: a PNG file, and where its top-left corner is drawn relative to the position (or the corner of the cell),
// px.
struct Picture {
    std::string file;   // relative to the world's folder
    double x = 0, y = 0;
    int width = 0, height = 0;   // px; 0 in worlds built in code
    bool stands = false;         // of a tile: without (x, y), it stands as art of sheets does
};

enum class Moves { steps, free, side };

struct Feeler {
    std::string name;
    Regions area;   // relative to the mover's position
    std::vector<BarrierId> senses;
    std::vector<MoverId> senses_movers;
};

struct Mover {
    std::string name;
    Regions body;                        // convex, relative to its position
    std::vector<BarrierId> stopped_by;   // sorted
    std::vector<MoverId> meets;          // sorted; declared by one of two, it applies to both
    FlagSet needs = 0;                   // one of these suffices; 0: it needs none
    FlagSet climbs = 0;                  // seen from the side: in cells with one of these it climbs in all directions
    Moves moves = Moves::free;
    std::optional<double> jump_px, leap_px, drop_px, kerb_px, slope_degrees;
    std::vector<Feeler> feelers;
    std::optional<Picture> picture;
    Place place;
};

enum class Role { spawn, trigger, link, solid, entity };
enum class Motion { fixed, driven, moving };
enum class Stands { middle, feet };

struct Kind {
    std::string name, note;
    Role role = Role::entity;
    MoverId mover = MoverId::none;
    Motion motion = Motion::fixed;
    std::string path;   // the property with the places its objects move along; empty: none
    std::vector<std::string> tags;
    Stands stands = Stands::middle;
    Regions area;   // relative to its position
    Fields fields;
    std::optional<Picture> picture;
    Place place;
};

}   // namespace dryground
