// Inside the check room: what each group of rules receives, and where its findings go.
#pragma once

#include <functional>
#include <map>
#include <string>

#include "../geometry/box_index_internal.hpp"
#include "../travel/deeds_internal.hpp"
#include "../travel/free_space_internal.hpp"
#include "dryground/check.hpp"
#include "dryground/merge.hpp"
#include "dryground/text.hpp"

namespace dryground::check_rules {

using travel::FreeSpace;

class Findings {
public:
    explicit Findings(const World& world) : world_(world) {}

    // Returns a finding of a rule at a place, with the world's severity; fill in the rest, then `add` it. `thing` names
    // what is meant, for worlds without files.
    [[nodiscard]] Finding start(Rule rule, Place place, std::string thing, std::vector<std::string> arguments) const;
    void add(Finding finding) { findings_.push_back(std::move(finding)); }
    // Adds all of them, in order: sorted once, since there may be very many.
    [[nodiscard]] Report take();

private:
    const World& world_;
    std::vector<Finding> findings_;
};

// Sets on which storey a finding is, if the map has several.
void name_storey(const World& world, const Map& map, StoreyId storey, Finding& finding);

// What a mover cannot be inside, cut to triangles so that bodies are compared with few of them.
class Ground {
public:
    explicit Ground(const Regions& blocked);
    // Returns how deep a convex body at a position lies inside: the smaller side of the overlap's bounding box, in
    // steps; 0 if it only touches or is free.
    [[nodiscard]] std::int32_t depth(const Regions& body, Point position) const;
    [[nodiscard]] bool free(const Regions& body, Point position) const;
    [[nodiscard]] bool free(const Ring& convex, Point position) const;
    [[nodiscard]] const Regions& regions() const { return regions_; }
    [[nodiscard]] Regions near(const Bounds& box) const;   // in pieces

private:
    template <class Test>
    bool any_near(const Bounds& box, Test test) const;

    Regions regions_;
    std::vector<Triangle> pieces_;
    detail::BoxIndex near_;   // of them
};

// Ground by mover, map and storey, each worked out once.
class Grounds {
public:
    explicit Grounds(const World& world) : world_(world) {}
    const Ground& of(MapId map, MoverId mover, StoreyId storey);
    const FreeSpace& space(MapId map, MoverId mover, StoreyId storey);   // that it leaves
    struct Lines {
        std::vector<Ring> from_above, both_ways;   // that stop it so; the former hold the latter
    };
    const Lines& lines(MapId map, MoverId mover, StoreyId storey);
    // Returns from where a mover touches the objects of a map, in their order.
    const std::vector<travel::Target>& targets(MapId map, MoverId mover);

private:
    [[nodiscard]] MoverId first_like(MoverId mover) const;

    const World& world_;
    std::map<std::tuple<MapId, MoverId, StoreyId>, Ground> known_;
    std::map<std::tuple<MapId, MoverId, StoreyId>, FreeSpace> spaces_;   // they refer to the ground's regions
    std::map<std::tuple<MapId, MoverId, StoreyId>, Lines> lines_;
    std::map<std::pair<MapId, MoverId>, std::vector<travel::Target>> targets_;
};

// Why a mover cannot stand somewhere, and where it could.
struct Standing {
    double depth_px = 0;      // 0: it can
    std::string in_the_way;   // "solid ground" or "a cell without walk"
    std::vector<std::string> details;
    std::vector<Cell> cells;
    std::optional<Point> nearest_free;
};
[[nodiscard]] Standing stand(const World& world, Grounds& grounds, MapId map, MoverId mover, StoreyId storey,
                             Point position);

// Returns how far a mover that stands somewhere falls before it meets ground or a line; nothing if it never does.
[[nodiscard]] std::optional<double> fall_px(const Ground& ground, const std::vector<Ring>& lines, const Mover& mover,
                                            Point position, const Map& map);

// Returns the movers that matter on a map: its player first, then those of its objects' kinds.
[[nodiscard]] std::vector<MoverId> movers_of(const World& world, MapId map);

// Returns the cells of a map that a box touches, and those around them: first column and row, last column and row.
[[nodiscard]] DataCells cells_near(const Map& map, const Bounds& box);

// A cell in the layer that is painted with something solid there or beside it: what a finding about the ground
// points to.
struct PaintedCell {
    Place place;
    std::string layer;
};
[[nodiscard]] PaintedCell spot_of(const World& world, const Map& map, int column, int row);

// Returns whether there is room for a mover somewhere where it touches an object, or uses it.
[[nodiscard]] bool can_touch(const World& world, Grounds& grounds, MapId map, MoverId mover, const Object& object);

// What is wrong with an open line.
struct LineFault {
    Rule rule;
    std::string figure;
    Hint hint;
};
[[nodiscard]] std::optional<LineFault> line_fault(const Ring& line);

using LookAt = std::function<const Image*(const std::string& file)>;   // null if it cannot be read

// The px of a tile's art, in its picture.
struct TileArt {
    const Image* image = nullptr;
    int left = 0, top = 0, width = 0, height = 0;   // of the tile's art in it
    int x = 0, y = 0;                               // of its corner from the cell's, px
    std::optional<Colour> clear;

    [[nodiscard]] bool shows(int column, int row) const;   // px from the cell's corner
};
// Returns nothing if it has none that can be read.
[[nodiscard]] std::optional<TileArt> art_of(const TileSet& set, const Tile& tile, const LookAt& look);

[[nodiscard]] Finding start_object(const Findings& findings, Rule rule, const Map& map, const Object& object,
                                   const Place& place, std::vector<std::string> arguments);

[[nodiscard]] std::string px(std::int64_t steps);                               // "9", "0.25"
[[nodiscard]] std::string at_px(Point p);                                       // "[24, 48]"
[[nodiscard]] std::string words_of(const World& world, const Object& object);   // "link 'hatch'", "unnamed silt_crab"
[[nodiscard]] std::string thing_of(const Map& map, const Object& object);
[[nodiscard]] std::string thing_of(const TileSet& set, const Tile& tile);

void check_tiles(const World& world, Findings& findings);
void check_tile_shapes(const World& world, Findings& findings);
void check_drawn(const World& world, Findings& findings);
void check_firing(const World& world, Findings& findings);
void check_art(const World& world, const LookAt& look, Findings& findings);
void check_maps(const World& world, Findings& findings);
// Returns a finding about a layer, placed at it.
[[nodiscard]] Finding start_layer(const Findings& findings, Rule rule, const Map& map, const Layer& layer,
                                  std::vector<std::string> arguments);
void check_layers(const World& world, Findings& findings);
void check_limits(const World& world, Findings& findings);
void check_solid_art(const World& world, const LookAt& look, Findings& findings);
void check_outlines(const World& world, Grounds& grounds, Findings& findings);
void check_space(const World& world, Grounds& grounds, Findings& findings);
void check_objects(const World& world, Grounds& grounds, Findings& findings);
void check_object_places(const World& world, Grounds& grounds, Findings& findings);
void check_links(const World& world, Grounds& grounds, Findings& findings);
void check_facts(const World& world, Findings& findings);
void check_walking(const World& world, Grounds& grounds, Findings& findings);

}   // namespace dryground::check_rules
