// Worlds made in code, at random, with most keys that files have. They build; they are no places to play.
#pragma once

#include "random_maps.hpp"

namespace random_worlds {

class Maker : Maps {
public:
    using Maps::Maps;

    WorldBuilder operator()() {
        WorldBuilder builder;
        builder.world(world());
        builder.tileset(tileset("marsh"));
        if (dice_.once_in(2)) builder.tileset(tileset("shore"));
        builder.map(map("flat", {"marsh"}, "slope"));
        builder.map(map("slope", {"marsh"}, "flat"));
        return builder;
    }

private:
    WorldDraft world() {
        WorldDraft draft;
        draft.title = word();
        draft.per_metre = dice_.in(1, 640) / 10.0;
        draft.player = maybe(Name("warden"));
        draft.start = maybe(Name("flat/a"));
        if (dice_.once_in(2)) draft.goal_facts = some({"open", "wet"});
        draft.barriers = {{"earth", word(), maybe(Colour{1, 2, static_cast<std::uint8_t>(dice_.in(0, 255))})},
                          {"brine", "", {}}};
        draft.flags = {{"walk", word()}, {"climb", ""}};
        draft.facts = {{"open", word()}, {"wet", ""}};
        draft.events = {{"ring", ""}};
        has_loft_ = dice_.once_in(2);
        if (has_loft_) draft.storeys = {{"ground", 0, 24}, {"loft", 24, 32.5}};
        draft.movers = {mover("warden"), mover("crab")};
        draft.map_fields = {field("tune", "text", Value{word()})};
        draft.layer_fields = {field("deep", "yes_no", Value{dice_.once_in(2)})};
        KindDraft crab;
        crab.name = "silt_crab";
        crab.role = Located<std::string>("entity");
        crab.mover = maybe(Name("crab"));
        crab.tags = maybe(std::vector<std::string>{"foe"});
        crab.stands = maybe(Located<std::string>("feet"));
        if (dice_.once_in(2)) crab.area = shape(true);
        crab.fields = {field("patrol", "number", Value{2.0}), field("mood", "choice", Value{std::string("calm")}),
                       field("spot", "place", Value{Value::List{{1.5}, {std::int64_t{2}}}})};
        KindDraft hermit;
        hermit.name = "hermit";
        hermit.like = Name("silt_crab");
        hermit.note = "carries a shell";
        hermit.props["patrol"] = Located<Value>(Value{dice_.in(0, 9) / 2.0});
        hermit.runs = maybe(Name("ring"));
        hermit.once = maybe(true);
        hermit.every_s = maybe(1.5);
        hermit.fires = maybe(one({"enter", "inside", "use"}));
        if (dice_.once_in(2))
            hermit.gives = some({"open", "wet"}), hermit.unless = some({"wet"}), hermit.by = some({"crab"});
        KindDraft groyne;
        groyne.name = "groyne";
        groyne.role = Located<std::string>("solid");
        groyne.barrier = one({"earth", "brine"});
        groyne.surface = surface();
        groyne.when = some({"open"});
        if (!dice_.once_in(3)) groyne.motion = one({"fixed", "fixed", "driven", "moving"});
        if (groyne.motion && groyne.motion->value != "fixed" && dice_.once_in(2)) {
            const Value::List places{Value{std::array<double, 2>{40, 24}}, Value{std::array<double, 2>{8.5, 60}}};
            groyne.fields = {field("stops", "list", Value{dice_.once_in(2) ? places : Value::List{}})};
            groyne.fields.back().of = {Name("place")};
            groyne.path = Name("stops");
        }
        draft.kinds = {crab, hermit, groyne};
        draft.merging.most_vertices = dice_.in(3, 12);
        draft.merging.chunk_cells = dice_.in(1, 40);
        if (dice_.once_in(2)) draft.limits = {{Name("maps"), std::int64_t{64}}};
        if (dice_.once_in(2)) draft.severities = {{Name("link-without-return"), Located<std::string>("off")}};
        return draft;
    }
    MoverDraft mover(const char* name) {
        MoverDraft mover;
        mover.name = Name(name);
        mover.body = body();
        mover.stopped_by = some({"earth", "brine"});
        mover.meets = some({"warden", "crab"});
        mover.needs = some({"walk", "climb"});
        mover.climbs = some({"walk", "climb"});
        mover.moves = one({"free", "steps", "side"});
        mover.jump_px = maybe(size());
        mover.leap_px = maybe(size());
        mover.drop_px = maybe(4 * size());
        mover.kerb_px = maybe(2.5);
        mover.slope_degrees = maybe(45.5);
        if (dice_.once_in(2)) mover.feelers.push_back({Name("ahead"), body(), some({"brine"})});
        return mover;
    }
};

// `with_areas`: shapes too that are areas made in code, for which files have several words or none.
inline WorldBuilder make(std::uint64_t round, bool with_areas = false) { return Maker(round, with_areas)(); }

}   // namespace random_worlds
