// Inside the check room: what each group of rules is given, and where its findings go.
#pragma once

#include <map>
#include <string>

#include "dryground/check.hpp"
#include "dryground/merge.hpp"

namespace dryground::check_rules {

class Findings {
public:
    explicit Findings(const World& world) : world_(world) {}

    // A finding of a rule at a place, with the world's severity; fill in the rest, then `add` it. `thing` names what is
    // meant, for worlds without files.
    [[nodiscard]] Finding start(Rule rule, Place place, std::string thing, std::vector<std::string> arguments) const;
    void add(Finding finding) { report_.add(std::move(finding)); }
    [[nodiscard]] Report take() { return std::move(report_); }

private:
    const World& world_;
    Report report_;
};

// What a mover cannot be inside of, cut to convex pieces so that bodies are compared with little of it.
class Ground {
public:
    explicit Ground(const Regions& blocked);
    // How deep a convex body at a position lies inside: the smaller side of the overlap's bounding box, in steps; 0
    // where it only touches or is free.
    [[nodiscard]] std::int32_t depth(const Regions& body, Point position) const;
    [[nodiscard]] bool free(const Regions& body, Point position) const;

private:
    struct Piece {
        Ring ring;
        Bounds box;
    };
    template <class Action>
    bool any_near(const Bounds& box, Action action) const;
    [[nodiscard]] std::pair<int, int> column_range(const Bounds& box) const;

    std::vector<Piece> pieces_;
    std::vector<std::vector<std::size_t>> columns_;   // pieces by strips of x
    std::int32_t least_x_ = 0, strip_ = 1;
};

// Ground by mover, map and storey, worked out once.
class Grounds {
public:
    explicit Grounds(const World& world) : world_(world) {}
    const Ground& of(int map, int mover, int storey);

private:
    const World& world_;
    std::map<std::array<int, 3>, Ground> known_;
};

// Why a mover cannot stand somewhere, and where it could.
struct Standing {
    double depth_px = 0;      // 0: it can
    std::string in_the_way;   // "solid ground" or "a cell without walk"
    std::vector<std::string> details;
    std::vector<std::array<int, 2>> cells;
    std::optional<Point> nearest_free;
};
[[nodiscard]] Standing stand(const World& world, Grounds& grounds, int map, int mover, int storey, Point position);

[[nodiscard]] std::string px(std::int64_t steps);                               // "9", "0.25"
[[nodiscard]] std::string at_px(Point p);                                       // "[24, 48]"
[[nodiscard]] std::string words_of(const World& world, const Object& object);   // "link 'hatch'", "unnamed mud_crab"
[[nodiscard]] std::string thing_of(const Map& map, const Object& object);

void check_tiles(const World& world, Findings& findings);
void check_maps(const World& world, Findings& findings);
void check_objects(const World& world, Grounds& grounds, Findings& findings);
void check_links(const World& world, Grounds& grounds, Findings& findings);

}   // namespace dryground::check_rules
