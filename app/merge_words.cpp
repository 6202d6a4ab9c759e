#include "merge_words.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace app {

namespace dg = dryground;

void MergeWords::add_to(CLI::App& command) {
    command.add_option("--facts", facts, "Facts that are true: layers and objects come and go with them")
        ->type_name("NAME");
    command
        .add_option("--most-vertices", most_vertices,
                    "The most vertices of a convex piece (default: the world's setting)")
        ->check(CLI::Range(3, 1000))
        ->type_name("N");
    command
        .add_option("--within-px", within_px,
                    "How near curves are followed, for this run (default: the world's setting)")
        ->check(numbers_from(1.0 / 64, 64.0))
        ->type_name("PX");
    command.add_option("--mover", mover, "Merge all that stops this mover, in place of barriers")->type_name("NAME");
    command.add_option("--grow", grow_px, "Grow regions by so many px, or shrink them by a negative number")
        ->check(numbers_from(-4096.0, 4096.0))
        ->type_name("PX");
    command.add_option("--corners", corners, "Corners of what is grown: round, bevel, mitre, box (default: round)")
        ->check(one_of({"round", "bevel", "mitre", "box"}))
        ->type_name("STYLE");
}

void MergeWords::apply(dg::MergeOptions& merging, const dg::World& world) const {
    merging.most_vertices = most_vertices;
    if (!mover.empty()) merging.mover = find_named<dg::MoverId>(world.movers(), mover, "--mover", "mover");
    for (const std::string& fact : facts)
        merging.facts.push_back(find_named<dg::FactId>(world.facts(), fact, "--facts", "fact"));
    std::sort(merging.facts.begin(), merging.facts.end());
    merging.grow = dg::to_steps(grow_px);
    merging.corners = corners == "bevel"   ? dg::Corners::bevel
                      : corners == "mitre" ? dg::Corners::mitre
                      : corners == "box"   ? dg::Corners::box
                                           : dg::Corners::round;
}

void MergeWords::say_what_is_other(const dg::World& world) const {
    if (most_vertices > 0 && most_vertices != world.merging().most_vertices)
        say(fmt::format("pieces of at most {} vertices for this run; the world's setting is {}\n", most_vertices,
                        world.merging().most_vertices));
    if (within_px > 0) say(fmt::format("curves within {} px for this run\n", within_px));
    if (grow_px != 0)
        say(fmt::format("{} by {} px, corners {}\n", grow_px > 0 ? "grown" : "shrunk", std::abs(grow_px), corners));
    if (!facts.empty()) say(fmt::format("with {}\n", fmt::join(facts, ", ")));
}

}   // namespace app
