// Tile sets: tiles with their shapes, flags and reactions. Part of world.hpp, whose rules apply.
#pragma once

#include "dryground/vocabulary.hpp"

namespace dryground {

struct Surface {
    std::optional<double> friction, restitution;
    friend bool operator==(const Surface&, const Surface&) = default;
    friend auto operator<=>(const Surface&, const Surface&) = default;
};

// The direction in which movers pass a line; it stops them from the other side. `none`: it stops them from both sides.
enum class OneWay { none, up, down, left, right };

enum class ShapeFault { none, empty, crosses_itself };

struct Shape {
    std::string words;                     // in words: "box [0, 8, 16, 8]"
    Regions area;                          // empty if there is a fault, and for a line
    Ring line;                             // the points of a line, two or more, from end to end; else empty
    OneWay one_way = OneWay::none;         // of a line
    bool whole_cell = false;               // the whole cell, on any grid; `area` is the box around it
    BarrierId barrier = BarrierId::none;   // its own or its tile's; none: its layer's
    std::string trigger;                   // not empty: it senses, and does not block
    std::optional<Surface> surface;
    ShapeFault fault = ShapeFault::none;
    Point fault_at;
    std::string fault_words;   // why the shape is empty
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

// What a tile does in reaction to something.
struct Reaction {
    Fires fires = Fires::bump;
    std::array<bool, 4> from{true, true, true, true};   // the sides it reacts to: as in Sides
    std::vector<MoverId> by;                            // empty: any
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
    std::optional<std::array<double, 2>> at;   // px by which its art is shifted; empty: as its sheet
    std::optional<Picture> picture;
    std::optional<Band> band;   // when it is drawn; empty: as its layer
    bool unseen = false;
    bool overhang = false;   // shapes may extend beyond the cell
    std::vector<std::string> tags;
    bool decided = false;   // `shapes` is given, even if empty
    std::vector<Shape> shapes;
    std::vector<Carve> carves;
    std::optional<FlagSet> flags;
    std::optional<Sides> sides;
    KindId stands_for = KindId::none;   // painting the tile places an object of that kind instead
    std::vector<Reaction> reacts;
    std::vector<FactId> needs, gives;   // its shapes are solid until all of `needs` hold
    StoreyId leads = StoreyId::none;    // the storey its stairs lead to
    Properties props;
    bool in_pattern = false;   // it is part of a family or a block
    Place place, place_of_art;
};

struct Sheet {
    std::string file;   // relative to the world's folder
    std::array<int, 2> margin{}, gap{};
    std::optional<std::array<int, 2>> cut;   // width and height of a tile's art, px; empty: of the cell
    std::array<double, 2> at{};              // px by which all art is shifted
    std::optional<Colour> clear;             // the transparent colour
    int width = 0, height = 0;               // px; 0 in worlds built in code
    Place place;
};

struct TileSet {
    std::string name;
    int cell_width = 16, cell_height = 16;   // px
    std::optional<Sheet> sheet;
    Fields fields;
    std::vector<Tile> tiles;
    Place place;

    [[nodiscard]] int find(std::string_view tile) const;   // -1 if not found; O(tiles)
};

// What is drawn for a tile: a box of px of a file, and where the corner of that box is drawn, in px from the top-left
// corner of (the box around) the tile's cell. Art larger than a cell stands with the middle of its lower edge on the
// middle of the cell's lower edge. The box is empty where the size of a picture is not known, as in worlds built in
// code.
struct TileImage {
    std::string file;   // relative to the world's folder
    int left = 0, top = 0, width = 0, height = 0;
    double x = 0, y = 0;
    std::optional<Colour> clear;   // the transparent colour
};
// Returns nothing for a tile without art.
[[nodiscard]] std::optional<TileImage> image_of(const TileSet& set, const Tile& tile);

}   // namespace dryground
