// Inside the draw room: a picture of a map while it is made, and its parts. A picture is laid out once, then drawn
// whole or window by window; each part draws what lies in the window.
#pragma once

#include <fmt/format.h>

#include <array>
#include <map>
#include <memory>
#include <string>
#include <vector>

#include "dryground/draw.hpp"
#include "dryground/merge.hpp"
#include "dryground/travel.hpp"
#include "palette_internal.hpp"

namespace dryground::drawing {

struct Box {   // px of the picture
    double x = 0, y = 0, width = 0, height = 0;

    [[nodiscard]] bool meets(const Box& other) const {
        return x < other.x + other.width && other.x < x + width && y < other.y + other.height && other.y < y + height;
    }
    [[nodiscard]] Box wider(double by) const { return {x - by, y - by, width + 2 * by, height + 2 * by}; }
};

// What labels and marks already cover.
class Taken {
public:
    [[nodiscard]] bool is_free(const Box& box) const;
    void take(const Box& box);

private:
    static constexpr double bucket = 128;
    std::map<std::array<int, 2>, std::vector<Box>> boxes_;
};

class Art;

struct Mark {   // findings at one place of the map
    double x = 0, y = 0;
    std::vector<std::size_t> findings{};   // numbers from 0
};

struct Label {
    Box box;
    std::string text;
    std::array<double, 2> of{};   // where the thing is that it names
    bool leads = false;           // it stands so far off that a line leads to it
};

[[nodiscard]] std::string escaped(std::string_view text);
[[nodiscard]] double text_width(std::string_view text, double size);

// Return whether a storey is shown; and a layer: it is present, on such a storey, and requested.
[[nodiscard]] bool is_looked_at(StoreyId storey, const DrawOptions& options);
[[nodiscard]] bool is_shown(const Layer& layer, const DrawOptions& options);
// Returns the map with the other layers as decor: their content blocks and grants nothing.
[[nodiscard]] Map with_ground_of_layers(const Map& map, const DrawOptions& options);
// Returns whether an object is present, on such a storey, and in a requested layer.
[[nodiscard]] bool is_shown(const Map& map, const Object& object, const DrawOptions& options);
// Returns how strongly the art of a layer is drawn: 0 above all shown storeys, little below them.
[[nodiscard]] double strength_of(const World& world, const Layer& layer, const DrawOptions& options);
// Returns the storeys whose flags, sides and reach are drawn, from the lowest.
[[nodiscard]] std::vector<StoreyId> storeys_told(const World& world, const DrawOptions& options);

// Returns a box of map steps, enlarged to hold the art on the map. O(cells of layers whose art leaves its cells).
[[nodiscard]] Bounds with_art(const World& world, const Map& map, const DrawOptions& options, const Bounds& box);

// SVG in the making.
struct Sheet {
    std::string defs, body;

    template <class... Args>
    void put(fmt::format_string<Args...> format, Args&&... args) {
        fmt::format_to(std::back_inserter(body), format, std::forward<Args>(args)...);
    }
    template <class... Args>
    void define(fmt::format_string<Args...> format, Args&&... args) {
        fmt::format_to(std::back_inserter(defs), format, std::forward<Args>(args)...);
    }
    void text(double x, double y, std::string_view words, double size, std::string_view ink,
              std::string_view anchor = "start", std::string_view more = "");
    // Returns what keeps a text readable on art: an edge around its letters, to be passed as `more`.
    [[nodiscard]] static std::string edged(std::string_view ink, double width = 3);
    void hatching(const std::string& id, const Look& look, const Inks& inks);
    // Returns all of it, as a document that shows a window.
    [[nodiscard]] std::string document(const Box& window, std::string_view title, const Inks& inks) const;
};

// A single tile: its picture as an SVG element, and its description. The hatchings that the pictures refer to are in an
// element of their own.
struct TileCard {
    std::string figure;
    std::vector<std::string> sentences;
};
struct TileCards {
    std::string hatchings;
    std::vector<TileCard> tiles;
    std::string key;   // HTML: what hatchings and signs mean
};
[[nodiscard]] TileCards tile_cards(const World& world, const TileSet& set, const ArtSource& source,
                                   const DrawOptions& options);

// Returns whether a map's diamonds are to be drawn as squares, and where a point of it is then.
[[nodiscard]] bool lies_flat(const Map& map, const DrawOptions& options);
[[nodiscard]] Point laid_flat(const Map& map, Point p);

class MapPicture : public Sheet {
public:
    MapPicture(const World& world, const Map& whole, const Report& report, const DrawOptions& options);

    const World& world;
    const DrawOptions& options;
    const Inks inks;
    double scale = 1;
    Bounds view;               // steps: what is shown of the map
    Box frame;                 // where it is shown
    Box window;                // what is being drawn
    Box page;                  // all of the picture
    double key_top = 0;        // where the key begins
    bool whole_merge = true;   // the merge is that of the whole map, so its figures are complete
    std::vector<const Finding*> findings;
    std::vector<Mark> marks;
    std::vector<Label> labels;
    std::vector<std::string> names;                        // that labels are the numbers of, where cells are small
    std::vector<std::string> triggers;                     // that can be here
    std::size_t labels_left_out = 0, marks_left_out = 0;   // for want of room
    std::function<void(MapPicture&)> over{}, on_top{};     // draw over all things, below labels and above them

    // Returns the map, or the part around the window.
    [[nodiscard]] const Map& map() const { return near_ ? *near_ : base_ ? *base_ : whole_; }
    [[nodiscard]] const Map& whole() const { return whole_; }
    [[nodiscard]] const Map& ground_map();   // the same, where only layers that are drawn count
    [[nodiscard]] const Merge& merged();     // of ground_map()
    [[nodiscard]] const Reach& walked();     // of the whole world, for the asked-for mover
    [[nodiscard]] const std::optional<Route>& tour();
    [[nodiscard]] bool merges_at_once() const;   // not window by window
    void look_at(const Box& window);

    // Barriers by their ids, then what a mover is stopped by, then triggers: each with its own look.
    [[nodiscard]] std::size_t number_of(const Group& group) const;
    [[nodiscard]] Look look_of(std::size_t number) const;
    // Returns a sign for each storey above the first, on maps that have several; and the name of its pattern.
    [[nodiscard]] Look look_of(const Group& group) const;
    [[nodiscard]] std::string hatch_of(const Group& group) const;

    [[nodiscard]] bool shows(Thing thing) const {
        return options.show.count(thing) != 0 && !(thing == Thing::art && is_flat());   // art is made for the screen
    }
    [[nodiscard]] bool shows(const Layer& layer) const { return is_shown(layer, options); }
    // Returns where a point of the map is in the picture.
    [[nodiscard]] double x(Point p) const { return frame.x + to_px(laid(p).x - view.least.x) * scale; }
    [[nodiscard]] double y(Point p) const { return frame.y + to_px(laid(p).y - view.least.y) * scale; }
    // Returns whether diamonds are laid flat: drawn as squares that are half as wide.
    [[nodiscard]] bool is_flat() const { return lies_flat(whole_, options); }
    [[nodiscard]] bool has_diamonds() const { return whole_.grid == GridSort::isometric && !is_flat(); }
    [[nodiscard]] double cell_width() const { return (is_flat() ? whole_.cell_width / 2 : whole_.cell_width) * scale; }
    [[nodiscard]] double cell_height() const { return is_flat() ? cell_width() : whole_.cell_height * scale; }
    [[nodiscard]] Box box(const Bounds& steps) const;
    [[nodiscard]] bool sees(const Bounds& steps) const { return box(steps).wider(2).meets(window); }
    [[nodiscard]] std::string path(const Regions& regions) const;
    [[nodiscard]] std::string path(const Ring& ring, bool closed = true) const;
    // Calls action with column and row of each cell of map() whose box, enlarged by a margin of px of the picture, lies
    // in the window.
    template <class Call>
    void each_cell(double margin, const Call& call) const {
        for (int row = 0; row < map().rows; ++row) {
            const auto [first, last] = columns_in_window(row, margin);
            for (int column = first; column <= last; ++column) call(column, row);
        }
    }
    // Draws the content of a storey: on isometric maps raised above the ground by the storey's base.
    template <class Draw>
    void on_storey(StoreyId storey, const Draw& draw) {
        const double up = raise(storey);
        if (up == 0) return draw();
        put("<g transform=\"translate(0 {:g})\">\n", -up);
        const Box was = window;
        window.y += up;
        draw();
        window = was;
        close();
    }
    [[nodiscard]] double raise(StoreyId storey) const;   // px of the picture; laid flat, nothing is raised
    void open(Thing thing);                              // a group of its own
    void close() { body += "</g>\n"; }

private:
    void lay_out();
    [[nodiscard]] Point laid(Point p) const { return is_flat() ? laid_flat(whole_, p) : p; }
    [[nodiscard]] std::array<int, 2> columns_in_window(int row, double margin) const;

    const Map& whole_;
    std::unique_ptr<Map> base_, near_, counting_;   // cut to the area; cut to the window; ground_map()
    std::unique_ptr<Merge> merge_;
    std::unique_ptr<Reach> walked_;
    std::optional<Route> tour_;
};

// Returns a map's cells in a block, and all its objects; what lies outside is cut off.
[[nodiscard]] Map cropped(const Map& map, const CellArea& area);

// Labels and marks, placed before anything is drawn.
void place_findings(MapPicture& picture, const Report& report, Taken& taken);
void place_objects(MapPicture& picture, Taken& taken);

void draw_art(MapPicture& picture, Art& art);
void draw_grid(MapPicture& picture);
void draw_cell_numbers(MapPicture& picture);
void draw_shapes(MapPicture& picture);
void draw_merged(MapPicture& picture);
void draw_pieces(MapPicture& picture);
void draw_reach(MapPicture& picture);
void draw_walk(MapPicture& picture);
void draw_walk_numbers(MapPicture& picture);
void draw_flags(MapPicture& picture);
void draw_sides(MapPicture& picture);
void draw_objects(MapPicture& picture);
void draw_links(MapPicture& picture);
void draw_labels(MapPicture& picture);
void draw_findings(MapPicture& picture);

// Draws the key below the map, or only returns its height.
double draw_key(MapPicture& picture, bool draws);

constexpr std::size_t most_findings_told = 200;   // in words below one picture; the others are dots

// Returns the chosen mover, else the player; null if there is neither.
[[nodiscard]] MoverId mover_for_reach(const World& world, const Map& map, const DrawOptions& options);
// Returns where a finding is: at its object, its cell, or the first of its cells; nothing if it has none of these.
[[nodiscard]] std::optional<Point> place_of(const Map& map, const Finding& finding);
// Returns the storey of a finding; none if it does not concern one of several.
[[nodiscard]] StoreyId storey_of(const World& world, const Map& map, const Finding& finding);
// Returns the box around an object's area, else around its body; nothing for a point.
[[nodiscard]] std::optional<Bounds> bounds_of(const World& world, const Map& map, const Object& object);

// Returns the letter that stands for each flag: its first one that no earlier flag has, else a digit.
[[nodiscard]] std::vector<std::string> letters_of_flags(const World& world);
[[nodiscard]] std::string mark_path(Role role, double x, double y);   // each role's own sign
// Shaped by the severity; wider where the text needs it.
void draw_sign(Sheet& sheet, const Inks& inks, double x, double y, const std::string& text, Severity severity);
[[nodiscard]] const Mover* mover_of(const World& world, const Map& map, const Object& object);

}   // namespace dryground::drawing
