// Descriptions of tiles, cells and objects, in the words of the files.

#include <fmt/format.h>

#include <algorithm>

#include "../ground/ground_internal.hpp"
#include "../model/orientation_internal.hpp"
#include "probe_internal.hpp"

namespace dryground::play {

namespace {

template <IsId Id, class Things>
std::string names(const std::vector<Id>& ids, const Things& things) {
    std::string all;
    for (const Id id : ids) all += (all.empty() ? "" : ", ") + things[index(id)].name;
    return all;
}

std::string granted(const World& world, FlagSet flags) {
    return flags == 0 ? "nothing" : fmt::format("{}", fmt::join(flag_names(world, flags), ", "));
}

std::string properties(const Properties& props) {
    std::string all;
    for (const auto& [name, value] : props) all += fmt::format("{}{} = {}", all.empty() ? "" : ", ", name, text(value));
    return all;
}

std::string turned(const Orientation& o) {
    std::string words;
    if (o.flip_x) words += " flipped left to right";
    if (o.flip_y) words += o.flip_x ? " and top to bottom" : " flipped top to bottom";
    if (o.turn != 0) words += fmt::format(" turned {} degrees", o.turn);
    return words;
}

std::string meaning_words(const World& world, const ground::Meaning& meaning) {
    const std::string barrier = meaning.barrier == BarrierId::none ? "no barrier" : world.barrier(meaning.barrier).name;
    if (!meaning.adds) return fmt::format("carves {}: {}", barrier, meaning.shape->words);
    if (!meaning.trigger.empty()) return fmt::format("{} senses {}", meaning.shape->words, meaning.trigger);
    return fmt::format(
        "{} of {}{}", meaning.shape->words, barrier,
        meaning.one_way == OneWay::none ? "" : fmt::format(", passed going {}", name_of(meaning.one_way)));
}

}   // namespace

std::string tile_name(const World& world, const Placed& placed) {
    return fmt::format("{}/{}", world.tilesets()[static_cast<std::size_t>(placed.tileset)].name,
                       world.tile(placed).name);
}

std::string object_name(const World& world, const Object& object) {
    return object.name.empty() ? "a " + world.kind(object.kind).name : fmt::format("'{}'", object.name);
}

std::string tile_line(const World& world, const Layer& layer, const Placed& placed, const Facts& facts) {
    const Tile& tile = world.tile(placed);
    std::string line = fmt::format("{}: {}{}", layer.name, tile_name(world, placed), turned(placed.orientation));
    if (!is_there(layer, facts)) return line + "; the layer is not there with these facts";
    if (!ground::may_count(layer)) return line + "; decor, which neither stops nor grants";
    const auto add = [&](const std::string& words) { line += "; " + words; };
    if (!layer.shown) add("hidden from players");
    if (!tile.decided) add("undecided whether it is solid");
    for (const ground::Meaning& meaning : ground::meanings_of(tile, layer, placed.orientation))
        add(meaning_words(world, meaning));
    if (tile.decided && tile.shapes.empty()) add("no shapes");
    if (const auto& flags = tile.flags ? tile.flags : layer.flags) add("grants " + granted(world, *flags));
    if (!tile.needs.empty()) add("solid until " + names(tile.needs, world.facts()));
    for (const Reaction& reaction : tile.reacts)
        add(fmt::format("reacts to {}{}", name_of(reaction.fires),
                        reaction.runs == EventId::none ? "" : ", runs " + world.event(reaction.runs).name));
    if (tile.leads != StoreyId::none) add("leads to " + world.storey(tile.leads).name);
    if (!tile.props.empty()) add(properties(tile.props));
    return line;
}

std::string flags_line(const World& world, const Map& map, DataCell cell, const Passability& say) {
    static constexpr std::array<const char*, 4> square{"top", "right", "bottom", "left"},
        diamond{"top right", "bottom right", "bottom left", "top left"};
    const auto by = [&](LayerId layer) {
        const Layer& decides = map.layer(layer);
        return fmt::format(" (set by {} in layer {})", tile_name(world, map.placed(decides, cell)), decides.name);
    };
    std::string line = say.flags_layer == LayerId::none ? "no flags here"
                                                        : "grants " + granted(world, say.flags) + by(say.flags_layer);
    std::string shut;
    for (std::size_t side = 0; side < 4; ++side)
        if (say.sides.of[side] != Passage::open)
            shut += fmt::format("{}{} {}", shut.empty() ? "" : ", ",
                                (map.grid == GridSort::square ? square : diamond)[side], name_of(say.sides.of[side]));
    return line + (shut.empty() ? "; all sides open" : "; sides: " + shut + by(say.sides_layer));
}

std::vector<std::string> object_lines(const World& world, const Map& map, const Object& object, const Facts& facts) {
    const Kind& kind = world.kind(object.kind);
    std::vector<std::string> lines{fmt::format(
        "{}: {}, at [{:g}, {:g}] in layer {}", object.name.empty() ? "(no name)" : object.name,
        kind.name == name_of(object.role) ? kind.name : fmt::format("{}, {}", kind.name, name_of(object.role)),
        to_px(object.position.x), to_px(object.position.y), map.layer(object.layer).name)};
    const auto add = [&](const std::string& label, const std::string& words) {
        if (!words.empty()) lines.push_back(label + words);
    };
    if (!is_there(map, object, facts)) lines.emplace_back("not there with these facts");
    if (object.role == Role::solid && object.barrier != BarrierId::none)
        add("solid: ", fmt::format("{}{}", world.barrier(object.barrier).name,
                                   ground::moves(object) ? "; it moves, and is not part of the ground" : ""));
    for (const ground::Part& part : ground::parts_of(map, object).parts)
        if (!part.adds) add("carves ", world.barrier(part.barrier).name);
    if (object.role == Role::trigger || object.role == Role::link)
        add("fires on ", fmt::format("{}{}{}", name_of(object.fires), object.once ? ", once" : "",
                                     object.by.empty() ? "" : ", by " + names(object.by, world.movers())));
    add("leads to ", object.link.to);
    add("needs ", names(object.needs, world.facts()));
    add("gives ", names(object.gives, world.facts()));
    if (object.runs != EventId::none) add("runs ", world.event(object.runs).name);
    add("there when ", names(object.when, world.facts()));
    add("there unless ", names(object.unless, world.facts()));
    add("tags: ", fmt::format("{}", fmt::join(object.tags, ", ")));
    add("", properties(object.props));
    return lines;
}

}   // namespace dryground::play
