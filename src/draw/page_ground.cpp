// The ground of a page: merged in chunks, so that it can draw only those that are visible.

#include <glib.h>

#include <algorithm>
#include <memory>
#include <tuple>

#include "../geometry/ring_internal.hpp"
#include "../ground/ground_internal.hpp"
#include "page_numbers_internal.hpp"
#include "picture_internal.hpp"

namespace dryground::drawing {

std::string base64(const void* data, std::size_t bytes) {
    const std::unique_ptr<gchar, void (*)(gpointer)> text(g_base64_encode(static_cast<const guchar*>(data), bytes),
                                                          g_free);
    return text.get();
}
Json small_numbers(const std::vector<std::uint32_t>& list) {
    if (std::all_of(list.begin(), list.end(), [](std::uint32_t n) { return n < 65536; }))
        return numbers(std::vector<std::uint16_t>(list.begin(), list.end()));
    return numbers(list);
}

void add_ring(std::vector<std::int32_t>& list, const Ring& ring) {
    list.push_back(static_cast<std::int32_t>(ring.size()));
    for (const Point p : ring) list.push_back(p.x), list.push_back(p.y);
}
std::vector<std::int32_t> rings_of(const Regions& regions) {
    std::vector<std::int32_t> list;
    detail::each_ring(regions, [&](const Ring& ring) { add_ring(list, ring); });
    return list;
}

namespace {

constexpr int chunk_cells = 32;
constexpr std::int64_t most_cells_with_pieces = 1 << 16;   // above it a page would be twice as large for them
constexpr std::int64_t most_cells_of_movers = 1 << 18;     // in sum over maps, movers and states of facts

// 1: closed, 2: two-sided; 4, 8: it continues straight in another chunk before its first, after its last point.
std::int32_t flags_of(const Chain& chain) {
    const Ring& points = chain.points;
    const auto straight = [&](const std::optional<Point>& beyond, Point end, Point inner) {
        return beyond && turn(*beyond, end, inner) == Turn::straight;
    };
    return (chain.closed ? 1 : 0) | (chain.two_sided ? 2 : 0) |
           (straight(chain.before, points.front(), points[1]) ? 4 : 0) |
           (straight(chain.after, points.back(), points[points.size() - 2]) ? 8 : 0);
}

Json group_data(const Group& group, std::vector<std::string>& triggers, const World& world, Palette palette) {
    std::size_t otherwise = 0;
    if (!group.trigger.empty()) {
        const auto found = std::find(triggers.begin(), triggers.end(), group.trigger);
        otherwise = 1 + static_cast<std::size_t>(found - triggers.begin());
        if (found == triggers.end()) triggers.push_back(group.trigger);
    }
    const Look look = look_of(world, group.barrier_id, otherwise, palette);
    return {{"name", !group.trigger.empty() ? "trigger " + group.trigger
                     : !group.mover.empty() ? "what stops " + group.mover
                                            : group.barrier},
            {"storey", group.storey},
            {"on", group.storey_id},
            {"senses", !group.trigger.empty()},
            {"way", name_of(group.one_way)},
            {"colour", look.colour},
            {"dash", look.dash},
            {"hatch", look.hatch}};
}

Json ground_data(std::size_t group_number, const Group& group) {
    std::vector<std::int32_t> chains, lines, pieces;
    for (const Chain& chain : group.chains) {
        chains.push_back(flags_of(chain));
        add_ring(chains, chain.points);
    }
    for (const Ring& line : group.lines) add_ring(lines, line);
    for (const Ring& piece : group.pieces) add_ring(pieces, piece);
    return {group_number, numbers(rings_of(group.regions)), numbers(chains), numbers(lines), numbers(pieces)};
}

// Merges in chunks; but grown ground reaches into other chunks, so it is one.
std::vector<Chunk> chunks_of(const World& world, const Map& map, const DrawOptions& options) {
    MergeOptions merging = options.merging;
    merging.forms = {MergeForm::chains};
    merging.forms.set(MergeForm::pieces, std::int64_t{map.columns} * map.rows <= most_cells_with_pieces);
    if (merging.grow != 0) return {{{}, merge(world, map, merging).groups}};
    return merge_chunks(world, map, chunk_cells, merging).chunks;
}

}   // namespace

PageGround::PageGround(const World& world, const Map& map, const DrawOptions& options, std::size_t maps_on_page)
    : world_(world),
      map_(map),
      options_(options),
      most_cells_of_movers_(most_cells_of_movers / static_cast<std::int64_t>(maps_on_page)),
      asked_(mover_for_reach(world, map, options)) {}

std::vector<std::size_t> PageGround::numbers_of(const Facts& facts, const Map& map) {
    std::vector<std::size_t> numbers;
    DrawOptions options = options_;
    options.merging.facts = facts;
    for (const Chunk& chunk : chunks_of(world_, map, options))
        for (const Group& group : chunk.groups) {
            const auto [at, is_new] = group_numbers_.try_emplace(
                {group.storey_id, group.barrier_id, group.trigger, group.one_way}, group_numbers_.size());
            if (is_new) groups_.push_back(group_data(group, triggers_, world_, options_.palette));
            Json ground = ground_data(at->second, group);
            const auto [known, is_other] = chunk_numbers_.try_emplace(ground.dump(), chunks_.size());
            if (is_other) chunks_.push_back(std::move(ground));
            numbers.push_back(known->second);
        }
    return numbers;
}

Json PageGround::reach_of(const Facts& facts, std::size_t states, const Map& map) const {
    Json all = Json::array();
    const std::int64_t cells = std::int64_t{map_.columns} * map_.rows;
    if (cells > most_cells_with_pieces) return all;
    for (const MoverId mover : ids<MoverId>(world_.movers())) {
        if (mover != asked_ && !has_room_for_movers(states)) continue;
        const Ring& body = world_.mover(mover).body.front().outline;
        for (const StoreyId storey : ground::storeys_of(map_))
            all.push_back(
                {mover, storey, numbers(rings_of(reach(blocked_area(world_, map, mover, storey, facts), body)))});
    }
    return all;
}

bool PageGround::has_room_for_movers(std::size_t states) const {
    const std::int64_t cells = std::int64_t{map_.columns} * map_.rows;
    return cells * static_cast<std::int64_t>(states * world_.movers().size()) <= most_cells_of_movers_;
}

void PageGround::add(Json& json) {
    json["groups"] = std::move(groups_);
    json["chunks"] = std::move(chunks_);
    if (asked_ != MoverId::none) json["mover"] = asked_;
}

}   // namespace dryground::drawing
