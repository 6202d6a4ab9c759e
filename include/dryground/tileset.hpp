// Tile sets: tiles with their shapes, flags and reactions. Part of world.hpp, which says what holds for all of it.
#pragma once

#include "dryground/vocabulary.hpp"

namespace dryground {

struct Surface {
    std::optional<double> friction, restitution;
    friend bool operator==(const Surface&, const Surface&) = default;
    friend auto operator<=>(const Surface&, const Surface&) = default;
};

// The direction in which movers pass a line; from the other side it stops them. `none`: it stops them both ways.
enum class OneWay { none, up, down, left, right };

enum class ShapeFault { none, empty, crosses_itself };

struct Shape {
    std::string words;               // as people would say it: "box [0, 8, 16, 8]"
    Regions area;                    // empty when there is a fault, and for a line
    Ring line;                       // the points of a line, two or more, from end to end; else empty
    OneWay one_way = OneWay::none;   // of a line
    bool whole_cell = false;         // it is the cell of whatever grid its tile stands on; `area` is the box around it
    BarrierId barrier = BarrierId::none;   // its own, else its tile's; none: its layer's
    std::string trigger;                   // not empty: it senses and blocks nothing
    std::optional<Surface> surface;
    ShapeFault fault = ShapeFault::none;
    Point fault_at;
    std::string fault_words;   // of an empty shape: why
    Place place;
};

struct Carve {
    BarrierId barrier = BarrierId::none;
    Shape shape;
};

// An edge of a cell.
enum class Passage { open, shut, in, out };
struct Sides {
    std::array<Passage, 4> of{};   // top, right, bottom, left
    friend bool operator==(const Sides&, const Sides&) = default;
};

enum class Fires { enter, inside, leave, use, bump, defeat, start };

// What a tile does when something happens to it.
struct Reaction {
    Fires fires = Fires::bump;
    std::array<bool, 4> from{true, true, true, true};   // from which sides: as in Sides
    std::vector<MoverId> by;                            // none: any
    bool once = false;
    double every_s = 0;
    std::vector<FactId> needs, gives;
    EventId runs = EventId::none;
    enum class Then { stays, turns, goes } then = Then::stays;
    int turns_into = -1;   // a tile of the same set
    Place place;
};

// When art is drawn: before the movers, sorted among them, or after them.
enum class Band { behind, with, front };

struct Tile {
    std::string name;
    std::optional<std::array<int, 2>> art;     // column and row in the sheet
    std::optional<std::array<double, 2>> at;   // px by which its art is moved from where it stands; else its sheet's
    std::optional<Picture> picture;
    std::optional<Band> band;   // when it is drawn; else its layer's
    bool unseen = false;
    bool overhang = false;   // shapes may reach outside the cell
    std::vector<std::string> tags;
    bool decided = false;   // `shapes` was said, be it empty
    std::vector<Shape> shapes;
    std::vector<Carve> carves;
    std::optional<FlagSet> flags;
    std::optional<Sides> sides;
    KindId stands_for = KindId::none;   // where the tile is painted an object of that kind stands in its place
    std::vector<Reaction> reacts;
    std::vector<FactId> needs, gives;   // its shapes are solid until all it needs hold
    StoreyId leads = StoreyId::none;    // the storey that its stairs lead to
    Properties props;
    bool in_pattern = false;   // a family or a block holds it
    Place place, place_of_art;
};

struct Sheet {
    std::string file;   // relative to the world's folder
    std::array<int, 2> margin{}, gap{};
    std::optional<std::array<int, 2>> cut;   // width and height of a tile's art, px; else the cell's
    std::array<double, 2> at{};              // px by which all art is moved from where it stands
    std::optional<Colour> clear;             // the colour that means empty
    int width = 0, height = 0;               // px; 0 when a world was built in code
    Place place;
};

struct TileSet {
    std::string name;
    int cell_width = 16, cell_height = 16;   // px
    std::optional<Sheet> sheet;
    Fields fields;
    std::vector<Tile> tiles;
    Place place;

    [[nodiscard]] int find(std::string_view tile) const;   // -1 when there is none; O(tiles)
};

// What is drawn for a tile: a box of px of a file, and where the box's corner is drawn, in px from the top-left corner
// of (the box around) the tile's cell. Art that is larger than a cell stands with the middle of its lower edge on the
// middle of the cell's. The box has no size where a picture's is not known, as in worlds built in code.
struct TileImage {
    std::string file;   // relative to the world's folder
    int left = 0, top = 0, width = 0, height = 0;
    double x = 0, y = 0;
    std::optional<Colour> clear;   // the colour that means empty
};
// Returns nothing for a tile without art.
[[nodiscard]] std::optional<TileImage> image_of(const TileSet& set, const Tile& tile);

}   // namespace dryground
