#include "tables.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <functional>

#include "dryground/check.hpp"
#include "dryground/contacts.hpp"
#include "dryground/ground.hpp"
#include "dryground/text.hpp"

namespace app {

namespace dg = dryground;

namespace {

struct Context {
    const dg::World& world;
    std::vector<const dg::Map*> maps;
    const Filter& filter;
    Table table;

    void row(std::vector<Json> cells) { table.rows.push_back(std::move(cells)); }
};

bool passes(const Filter& filter, const std::string& name, const std::vector<std::string>& tags,
            const std::string& kind = {}) {
    return (filter.name.empty() || dg::matches_pattern(filter.name, name)) &&
           (filter.tag.empty() || std::find(tags.begin(), tags.end(), filter.tag) != tags.end()) &&
           (filter.kind.empty() || filter.kind == kind);
}

template <dg::IsId Id, class Things>
std::string joined(const std::vector<Id>& ids, const Things& things) {
    std::vector<std::string> names;
    for (const Id id : ids) names.push_back(things[index(id)].name);
    return fmt::format("{}", fmt::join(names, " "));
}

std::string flags_of(const dg::World& world, dg::FlagSet set) {
    return fmt::format("{}", fmt::join(dg::flag_names(world, set), " "));
}

std::size_t cells_with(const dg::World& world, std::size_t set, std::size_t tile) {
    std::size_t count = 0;
    for (const dg::Map& map : world.maps())
        for (const dg::Layer& layer : map.layers)
            for (const std::uint32_t cell : layer.cells)
                count += map.palette[cell].tileset == static_cast<int>(set) &&
                         map.palette[cell].tile == static_cast<int>(tile);
    return count;
}

void tiles(Context& c) {
    c.table.columns = {"tile", "art", "barrier", "shapes", "flags", "tags", "cells"};
    for (std::size_t s = 0; s < c.world.tilesets().size(); ++s)
        for (std::size_t t = 0; t < c.world.tilesets()[s].tiles.size(); ++t) {
            const dg::TileSet& set = c.world.tilesets()[s];
            const dg::Tile& tile = set.tiles[t];
            if (!passes(c.filter, tile.name, tile.tags)) continue;
            std::vector<std::string> shapes, barriers;
            for (const dg::Shape& shape : tile.shapes) {
                shapes.push_back(shape.trigger.empty() ? shape.words
                                                       : fmt::format("{} senses {}", shape.words, shape.trigger));
                const std::string name = shape.barrier != dg::BarrierId::none && shape.trigger.empty()
                                             ? c.world.barrier(shape.barrier).name
                                             : "";
                if (!name.empty() && std::find(barriers.begin(), barriers.end(), name) == barriers.end())
                    barriers.push_back(name);
            }
            c.row({fmt::format("{}/{}", set.name, tile.name),
                   tile.art ? Json(fmt::format("{},{}", (*tile.art)[0], (*tile.art)[1]))
                            : Json(tile.unseen ? "unseen" : ""),
                   fmt::format("{}", fmt::join(barriers, " ")),
                   !tile.decided    ? "undecided"
                   : shapes.empty() ? "none"
                                    : fmt::format("{}", fmt::join(shapes, "; ")),
                   tile.flags ? flags_of(c.world, *tile.flags) : "", fmt::format("{}", fmt::join(tile.tags, " ")),
                   cells_with(c.world, s, t)});
        }
}

void maps(Context& c) {
    c.table.columns = {"map", "title", "columns", "rows", "cell", "player", "rim", "tile sets", "layers", "objects"};
    for (const dg::Map* map : c.maps) {
        if (!passes(c.filter, map->name, {})) continue;
        std::vector<std::string> sets;
        for (const dg::TileSetId id : map->tilesets) sets.push_back(c.world.tileset(id).name);
        c.row({map->name, map->title, map->columns, map->rows,
               fmt::format("{} x {}", map->cell_width, map->cell_height),
               map->player != dg::MoverId::none ? c.world.mover(map->player).name : "",
               map->rim == dg::RimSort::open   ? "open"
               : map->rim == dg::RimSort::none ? "none"
                                               : c.world.barrier(map->rim_barrier).name,
               fmt::format("{}", fmt::join(sets, " ")), map->layers.size(), map->objects.size()});
    }
}

void layers(Context& c) {
    c.table.columns = {"map", "layer", "holds", "storey", "decor", "shown", "barrier", "tiles", "objects"};
    for (const dg::Map* map : c.maps)
        for (std::size_t l = 0; l < map->layers.size(); ++l) {
            const dg::Layer& layer = map->layers[l];
            if (!passes(c.filter, layer.name, layer.tags)) continue;
            c.row({map->name, layer.name, layer.holds_objects ? "objects" : "cells", c.world.storey(layer.storey).name,
                   layer.decor, layer.shown,
                   layer.barrier != dg::BarrierId::none ? c.world.barrier(layer.barrier).name : "",
                   std::count_if(layer.cells.begin(), layer.cells.end(), [](std::uint32_t cell) { return cell != 0; }),
                   std::count_if(map->objects.begin(), map->objects.end(),
                                 [&](const dg::Object& o) { return o.layer == dg::id_of<dg::LayerId>(l); })});
        }
}

std::string place_of(const dg::Object& object) {
    return fmt::format("{},{}", dg::to_px(object.position.x), dg::to_px(object.position.y));
}

// Returns on what it fires; empty if that has no effect.
std::string fires_of(const dg::Object& object) {
    const bool does = object.role == dg::Role::trigger || object.role == dg::Role::link ||
                      object.runs != dg::EventId::none || !object.gives.empty();
    return does ? std::string(dg::name_of(object.fires)) : "";
}

void objects(Context& c) {
    c.table.columns = {"map",    "object", "kind",  "role",  "at",   "layer",
                       "storey", "fires",  "gives", "needs", "runs", "props"};
    for (const dg::Map* map : c.maps)
        for (const dg::Object& object : map->objects) {
            const dg::Kind& kind = c.world.kind(object.kind);
            std::vector<std::string> tags = kind.tags, props;
            tags.insert(tags.end(), object.tags.begin(), object.tags.end());
            if (!passes(c.filter, object.name, tags, kind.name)) continue;
            for (const auto& [name, value] : object.props) props.push_back(fmt::format("{}={}", name, dg::text(value)));
            c.row({map->name, object.name, kind.name, std::string(dg::name_of(object.role)), place_of(object),
                   map->layer(object.layer).name, c.world.storey(object.storey).name, fires_of(object),
                   joined(object.gives, c.world.facts()), joined(object.needs, c.world.facts()),
                   object.runs == dg::EventId::none ? "" : c.world.event(object.runs).name,
                   fmt::format("{}", fmt::join(props, " "))});
        }
}

void kinds(Context& c) {
    c.table.columns = {"kind", "role", "mover", "tags", "fields", "objects", "note"};
    for (std::size_t k = 0; k < c.world.kinds().size(); ++k) {
        const dg::Kind& kind = c.world.kinds()[k];
        if (!passes(c.filter, kind.name, kind.tags, c.filter.kind.empty() ? "" : kind.name)) continue;
        std::vector<std::string> fields;
        for (const auto& [name, field] : kind.fields)
            fields.push_back(fmt::format("{}:{}{}", name, dg::name_of(field.type),
                                         field.standard ? "=" + dg::text(*field.standard) : ""));
        std::size_t count = 0;
        for (const dg::Map* map : c.maps)
            for (const dg::Object& object : map->objects) count += object.kind == dg::id_of<dg::KindId>(k);
        c.row({kind.name, std::string(dg::name_of(kind.role)),
               kind.mover != dg::MoverId::none ? c.world.mover(kind.mover).name : "",
               fmt::format("{}", fmt::join(kind.tags, " ")), fmt::format("{}", fmt::join(fields, " ")), count,
               kind.note});
    }
}

void flags(Context& c) {
    c.table.columns = {"flag", "note", "granted by tiles", "needed by movers"};
    for (std::size_t f = 0; f < c.world.flags().size(); ++f) {
        const dg::NamedThing& flag = c.world.flags()[f];
        if (!passes(c.filter, flag.name, {})) continue;
        std::size_t tiles_with = 0;
        std::vector<std::string> movers;
        for (const dg::TileSet& set : c.world.tilesets())
            for (const dg::Tile& tile : set.tiles) tiles_with += tile.flags && (*tile.flags >> f & 1) != 0;
        for (const dg::Mover& mover : c.world.movers())
            if ((mover.needs >> f & 1) != 0) movers.push_back(mover.name);
        c.row({flag.name, flag.note, tiles_with, fmt::format("{}", fmt::join(movers, " "))});
    }
}

// Returns the objects for which a test holds, as map/object.
std::string objects_where(const Context& c, const std::function<bool(const dg::Object&)>& test) {
    std::vector<std::string> names;
    for (const dg::Map* map : c.maps)
        for (const dg::Object& object : map->objects)
            if (test(object))
                names.push_back(
                    fmt::format("{}/{}", map->name,
                                object.name.empty() ? "(" + c.world.kind(object.kind).name + ")" : object.name));
    return fmt::format("{}", fmt::join(names, " "));
}

bool holds(const dg::Facts& facts, dg::FactId fact) {
    return std::find(facts.begin(), facts.end(), fact) != facts.end();
}

// Returns tiles for which a test holds, for themselves or one of their reactions.
template <class TileTest, class ReactionTest>
std::string tiles_where(const Context& c, TileTest of_tile, ReactionTest of_reaction) {
    std::vector<std::string> names;
    for (const dg::TileSet& set : c.world.tilesets())
        for (const dg::Tile& tile : set.tiles)
            if (of_tile(tile) || std::any_of(tile.reacts.begin(), tile.reacts.end(), of_reaction))
                names.push_back(fmt::format("tile {}/{}", set.name, tile.name));
    return fmt::format("{}", fmt::join(names, " "));
}

template <class Test>
std::string layers_where(const Context& c, Test test) {
    std::vector<std::string> names;
    for (const dg::Map* map : c.maps)
        for (const dg::Layer& layer : map->layers)
            if (test(layer)) names.push_back(fmt::format("layer {}/{}", map->name, layer.name));
    return fmt::format("{}", fmt::join(names, " "));
}

std::string joined(const std::string& a, const std::string& b) { return a.empty() || b.empty() ? a + b : a + " " + b; }

void facts(Context& c) {
    c.table.columns = {"fact", "note", "given by", "needed by", "shows", "hides"};
    for (const dg::FactId f : dg::ids<dg::FactId>(c.world.facts())) {
        const dg::NamedThing& fact = c.world.fact(f);
        if (!passes(c.filter, fact.name, {})) continue;
        const auto gives = [f](const auto& thing) { return holds(thing.gives, f); };
        const auto needs = [f](const auto& thing) { return holds(thing.needs, f); };
        const auto shows = [f](const auto& thing) { return holds(thing.when, f); };
        const auto hides = [f](const auto& thing) { return holds(thing.unless, f); };
        const auto layers = [&](const auto& test) {
            return layers_where(c, [&](const dg::Layer& layer) { return layer.reaction && test(*layer.reaction); });
        };
        c.row({fact.name, fact.note,
               joined(joined(objects_where(c, gives), tiles_where(c, gives, gives)), layers(gives)),
               joined(joined(objects_where(c, needs), tiles_where(c, needs, needs)), layers(needs)),
               joined(objects_where(c, shows), layers_where(c, shows)),
               joined(objects_where(c, hides), layers_where(c, hides))});
    }
}

void events(Context& c) {
    c.table.columns = {"event", "note", "run by"};
    for (const dg::EventId id : dg::ids<dg::EventId>(c.world.events())) {
        const dg::NamedThing& event = c.world.event(id);
        if (!passes(c.filter, event.name, {})) continue;
        const std::string objects =
            objects_where(c, [id](const dg::Object& o) { return o.runs == id || o.link.arrival_runs == id; });
        const std::string tiles = tiles_where(
            c, [](const dg::Tile&) { return false; }, [id](const dg::Reaction& r) { return r.runs == id; });
        const std::string layers =
            layers_where(c, [id](const dg::Layer& l) { return l.reaction && l.reaction->runs == id; });
        c.row({event.name, event.note, joined(joined(objects, tiles), layers)});
    }
}

// Returns the links of the target map that lead back to this one.
std::string ways_back(const Context& c, const dg::Map& from, const dg::Object& link) {
    if (link.link.map == dg::MapId::none) return "";
    std::vector<std::string> names;
    const dg::Map& target = c.world.map(link.link.map);
    for (const dg::Object& other : target.objects)
        if (other.role == dg::Role::link && other.link.map != dg::MapId::none && &c.world.map(other.link.map) == &from)
            names.push_back(fmt::format("{}/{}", target.name, other.name.empty() ? "(unnamed)" : other.name));
    return fmt::format("{}", fmt::join(names, " "));
}

void links(Context& c) {
    c.table.columns = {"link", "leads to", "arrives at", "fires", "needs", "way back"};
    for (const dg::Map* map : c.maps)
        for (const dg::Object& link : map->objects) {
            if (link.role != dg::Role::link || !passes(c.filter, link.name, link.tags, c.world.kind(link.kind).name))
                continue;
            const bool arrives = link.link.map != dg::MapId::none && link.link.object != dg::ObjectId::none;
            c.row({fmt::format("{}/{}", map->name, link.name.empty() ? "(unnamed)" : link.name), link.link.to,
                   arrives ? place_of(c.world.map(link.link.map).object(link.link.object)) : "nowhere",
                   std::string(dg::name_of(link.fires)), joined(link.needs, c.world.facts()),
                   link.link.one_way ? "none meant" : ways_back(c, *map, link)});
        }
}

// The table of who meets what, with the bits that physics engines filter by.
void contacts(Context& c) {
    c.table.columns = {"name", "sort", "category", "mask", "meets"};
    const dg::ContactTable table = dg::contact_table(c.world);
    struct Row {
        std::string name;
        const char* sort;
        dg::ContactBits bits;
    };
    std::vector<Row> all;
    for (std::size_t b = 0; b < table.barriers.size(); ++b)
        all.push_back({c.world.barriers()[b].name, "barrier", table.barriers[b]});
    for (std::size_t m = 0; m < table.movers.size(); ++m)
        all.push_back({c.world.movers()[m].name, "mover", table.movers[m]});
    all.push_back({"triggers", "triggers", table.triggers});
    for (const Row& row : all) {
        if (!passes(c.filter, row.name, {})) continue;
        std::vector<std::string> meets;
        for (const Row& other : all)
            if (dg::meet(row.bits, other.bits)) meets.push_back(other.name);
        c.row({row.name, row.sort, fmt::format("0x{:x}", row.bits.category), fmt::format("0x{:x}", row.bits.mask),
               fmt::format("{}", fmt::join(meets, " "))});
    }
}

// The table of what the target game can take at most, and how much of it is used.
void limits(Context& c) {
    c.table.columns = {"limit", "used", "allowed", "by"};
    for (const std::string_view limit : dg::limit_names()) {
        const std::vector<dg::LimitUse> uses = dg::limit_uses(c.world, limit);
        const auto most = std::max_element(
            uses.begin(), uses.end(), [](const dg::LimitUse& a, const dg::LimitUse& b) { return a.used < b.used; });
        if (most == uses.end() || !passes(c.filter, std::string(limit), {})) continue;
        const std::string by = most->map != dg::MapId::none           ? c.world.map(most->map).name
                               : most->tileset != dg::TileSetId::none ? c.world.tileset(most->tileset).name
                                                                      : "the world";
        const auto said = c.world.limits().find(std::string(limit));
        c.row({std::string(limit), most->used, said == c.world.limits().end() ? Json("") : Json(said->second), by});
    }
}

struct NamedTable {
    const char* name;
    void (*fill)(Context&);
};
constexpr NamedTable named_tables[] = {{"tiles", tiles},       {"maps", maps},     {"layers", layers},
                                       {"objects", objects},   {"kinds", kinds},   {"flags", flags},
                                       {"facts", facts},       {"events", events}, {"links", links},
                                       {"contacts", contacts}, {"limits", limits}};

}   // namespace

std::vector<std::string> table_names() {
    std::vector<std::string> names;
    for (const NamedTable& row : named_tables) names.emplace_back(row.name);
    return names;
}

Table make_table(const dg::World& world, const std::string& what, const std::vector<std::string>& map_names,
                 const Filter& filter) {
    Context context{world, {}, filter, {}};
    for (const std::string& name : map_names) context.maps.push_back(&world.map(name));
    std::find_if(std::begin(named_tables), std::end(named_tables), [&](const NamedTable& row) {
        return row.name == what;
    })->fill(context);
    return std::move(context.table);
}

}   // namespace app
