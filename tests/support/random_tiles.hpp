// Random tile sets, with most keys that tiles have.
#pragma once

#include "random_parts.hpp"

namespace random_worlds {

class Tiles : public Parts {
protected:
    using Parts::Parts;
    TileDraft tile(const std::string& name) {
        TileDraft tile;
        tile.name = Name(name);
        tile.unseen = true;
        tile.overhang = true;
        tile.barrier = one({"earth", "brine"});
        tile.tags = maybe(std::vector<std::string>{"soil", word()});
        if (!dice_.once_in(5)) tile.shapes.emplace();
        for (int i = dice_.in(0, 2); tile.shapes && i > 0; --i) tile.shapes->push_back(shape());
        if (dice_.once_in(3)) {
            CarveDraft carve{one({"earth", "brine"}), {}};
            if (dice_.once_in(2)) carve.shape.form = area_form();
            tile.carves = {carve};
        }
        if (dice_.once_in(2)) tile.flags = some({"walk", "climb"});
        if (dice_.once_in(3))
            tile.sides = {{"top", Located<std::string>("shut")}, {"left", Located<std::string>("in")}};
        if (dice_.once_in(3)) tile.needs = some({"open"});
        if (dice_.once_in(4)) {
            ReactionDraft reaction;
            reaction.fires = Located<std::string>("bump");
            if (dice_.once_in(2)) reaction.from = some({"top", "bottom"});
            if (reaction.from && reaction.from->empty()) reaction.from = Names{Name("left")};
            reaction.once = dice_.once_in(2);
            reaction.gives = some({"wet"});
            reaction.runs = maybe(Name("ring"));
            if (dice_.once_in(2)) reaction.turns_into = one({"peat", ""});
            tile.reacts = {reaction};
        }
        if (dice_.once_in(4)) tile.band = one({"behind", "with", "front"});
        if (dice_.once_in(2)) tile.props["harm"] = Located<Value>(Value{std::int64_t{dice_.in(0, 9)}});
        return tile;
    }
    TileSetDraft tileset(const char* name) {
        TileSetDraft set;
        set.name = Name(name);
        set.fields = {field("harm", "whole", Value{std::int64_t{1}})};
        ShapeDraft low = shape(true);
        set.shapes = {{Name("low"), low}};
        for (const char* tile_name : {"peat", "bank", "reeds"}) set.tiles.push_back(tile(tile_name));
        TileDraft copy;
        copy.name = Name("kerb");
        copy.unseen = true;
        copy.like = Name("peat");
        set.tiles.push_back(copy);
        if (dice_.once_in(2)) {
            TileRule rule;
            rule.tiles = {"*e*"};
            rule.set.flags = some({"walk"});
            set.rules.push_back(rule);
        }
        set.families = {{Name("dyke"),
                         Located<std::string>("sides"),
                         {{Name("peat"), {}}, {Name("bank"), {Name("left")}, some({"top", "right"})}}}};
        BlockDraft block;
        block.name = Name("post");
        block.rows = {"B", "A"};
        block.legend = {entry("A", "peat"), entry("B", "bank")};
        block.anchor = Located<std::string>("A");
        set.blocks = {block};
        return set;
    }
};

}   // namespace random_worlds
