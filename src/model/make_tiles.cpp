// Makes tile sets: what each tile declares, and what rules and `like` add to it.
//
// Rules apply in file order, then what the tile is like, then its own keys; each replaces what came before.

#include <fmt/format.h>

#include <algorithm>
#include <tuple>

#include "choose_internal.hpp"
#include "dryground/text.hpp"
#include "maker_internal.hpp"
#include "orientation_internal.hpp"
#include "set_cell_internal.hpp"

namespace dryground {

namespace {

template <class T>
void take(std::optional<T>& into, const std::optional<T>& from) {
    if (from) into = from;
}

// Replaces values of `base` by those of `over`; sides and props are merged key by key.
void put_over(TileDraft& base, const TileDraft& over) {
    take(base.art, over.art);
    take(base.at, over.at);
    take(base.picture, over.picture);
    take(base.band, over.band);
    take(base.unseen, over.unseen);
    take(base.overhang, over.overhang);
    take(base.tags, over.tags);
    take(base.barrier, over.barrier);
    take(base.shapes, over.shapes);
    take(base.carves, over.carves);
    take(base.flags, over.flags);
    take(base.stands_for, over.stands_for);
    take(base.leads, over.leads);
    take(base.reacts, over.reacts);
    take(base.needs, over.needs);
    take(base.gives, over.gives);
    for (const auto& [side, passage] : over.sides) base.sides[side] = passage;
    for (const auto& [name, value] : over.props) base.props[name] = value;
}

bool applies(const TileRule& rule, const TileDraft& own) {
    const auto any = [](const std::vector<std::string>& all, const auto& test) {
        return std::any_of(all.begin(), all.end(), test);
    };
    if (any(rule.tiles, [&](const std::string& pattern) { return matches_pattern(pattern, own.name.value); }))
        return true;
    return own.tags && any(rule.tagged, [&](const std::string& tag) {
               return std::find(own.tags->begin(), own.tags->end(), tag) != own.tags->end();
           });
}

}   // namespace

void WorldMaker::check_patterns(const TileSetDraft& set, const NameIndex& index) {
    for (const TileRule& rule : set.rules)
        for (const std::string& pattern : rule.tiles)
            if (std::none_of(index.names.begin(), index.names.end(),
                             [&](const std::string& name) { return matches_pattern(pattern, name); }))
                add_unknown(index, {pattern, rule.set.name.place});
}

// Returns all that holds for a tile: rules in order, then what it is like, then its own keys.
TileDraft WorldMaker::settled(const TileSetDraft& set, const TileDraft& own, const NameIndex& index) {
    TileDraft result;
    for (const TileRule& rule : set.rules)
        if (applies(rule, own)) put_over(result, rule.set);
    if (own.like) {
        const int base = look_up(index, *own.like);
        const auto found = std::find_if(set.tiles.begin(), set.tiles.end(),
                                        [&](const TileDraft& t) { return t.name.value == own.like->value; });
        if (base >= 0 && found->like) {
            add(Rule::like_chain, own.like->place, {own.name.value, own.like->value, found->like->value},
                Hint{"name the tile that this one is like in the end",
                     fmt::format("like = \"{}\"", found->like->value)});
        } else if (base >= 0) {
            TileDraft copied = *found;
            copied.art.reset();
            copied.at.reset();
            copied.picture.reset();
            put_over(result, copied);
        }
    }
    put_over(result, own);
    if (result.picture && result.picture->stands && result.picture->width > 0)
        std::tie(result.picture->x, result.picture->y) =
            detail::standing_corner(set.cell.value, {result.picture->width, result.picture->height});
    result.name = own.name;
    return result;
}

void WorldMaker::check_sheet(const Sheet& sheet) {
    for (const int number : {sheet.margin[0], sheet.margin[1], sheet.gap[0], sheet.gap[1]})
        if (number < 0 || number > 4096)
            add(Rule::out_of_range, sheet.place, {"a margin or gap", fmt::format("{}", number), "from 0 to 4096 px"});
    if (!sheet.cut) return;
    const auto [width, height] = *sheet.cut;
    if (width < 1 || height < 1 || width > 4096 || height > 4096)
        add(Rule::out_of_range, sheet.place,
            {"'cut'", fmt::format("[{}, {}]", width, height), "from 1 to 4096 px wide and high"});
}

void WorldMaker::make_tileset(const TileSetDraft& draft) {
    const Within within(*this, fmt::format("tile set '{}'", draft.name.value));
    if (!declare(tilesets_, draft.name)) return;
    TileSet set;
    set.name = draft.name.value;
    set.place = draft.name.place;
    const auto [width, height] = draft.cell.value;
    if (width < 1 || height < 1 || width > 4096 || height > 4096)
        add(Rule::out_of_range, draft.cell.place,
            {"'cell'", fmt::format("[{}, {}]", width, height), "from 1 to 4096 px wide and high"});
    set.cell_width = std::clamp(width, 1, 4096);
    set.cell_height = std::clamp(height, 1, 4096);
    set.sheet = draft.sheet;
    if (set.sheet) check_sheet(*set.sheet);
    set.fields = make_fields(draft.fields);
    NameIndex shapes{"shared shape", {}, {}, {}};
    for (const auto& [name, shape] : draft.shapes) declare(shapes, name);

    NameIndex& index = tiles_.emplace_back(NameIndex{"tile", {}, {}, {}});
    std::vector<const TileDraft*> own;
    for (const TileDraft& tile : draft.tiles)
        if (declare(index, tile.name)) own.push_back(&tile);
    check_patterns(draft, index);
    for (const TileDraft* tile : own) {
        const Within in_tile(*this, fmt::format("tile '{}'", tile->name.value));
        set.tiles.push_back(make_tile(draft, settled(draft, *tile, index), index, set.fields));
        make_waivers(tile->waive, fmt::format("tile set '{}', tile '{}'", set.name, tile->name.value));
    }
    const bool has_art = std::any_of(set.tiles.begin(), set.tiles.end(), [](const Tile& tile) { return tile.art; });
    if (has_art && !set.sheet && !draft.place.file.empty())
        add(Rule::missing_key, set.place, {fmt::format("tile set '{}'", set.name), "sheet"},
            Hint{"tiles with 'art' are cut from a sheet", "sheet = { file = \"…\" }"});
    make_waivers(draft.waive, fmt::format("tile set '{}'", set.name));
    parts_.tilesets.push_back(std::move(set));
    make_patterns(draft);
}

Tile WorldMaker::make_tile(const TileSetDraft& set, const TileDraft& draft, const NameIndex& tiles,
                           const Fields& fields) {
    Tile tile;
    tile.name = draft.name.value;
    tile.place = draft.name.place;
    if (draft.art) tile.art = draft.art->value, tile.place_of_art = draft.art->place;
    tile.at = draft.at;
    tile.picture = draft.picture;
    if (draft.band) tile.band = choose<Band>(*draft.band, "'band'");
    tile.unseen = draft.unseen.value_or(false);
    tile.overhang = draft.overhang.value_or(false);
    tile.tags = draft.tags.value_or(std::vector<std::string>{});
    const std::string words = fmt::format("tile '{}'", tile.name);
    if (!tile.art && !tile.picture && !tile.unseen)
        add(Rule::missing_key, tile.place, {words, "art"},
            Hint{"set its place in the sheet, or that it is never seen", "art = [0, 0], or unseen = true"});
    const BarrierId barrier = draft.barrier ? look_up(barriers_, *draft.barrier) : BarrierId::none;
    tile.decided = draft.shapes.has_value();
    if (draft.shapes)
        for (const ShapeDraft& shape : *draft.shapes) tile.shapes.push_back(make_shape(set, draft, shape, barrier));
    if (draft.carves)
        for (const CarveDraft& carve : *draft.carves) {
            tile.carves.push_back(
                {look_up(barriers_, carve.barrier), make_shape(set, draft, carve.shape, BarrierId::none)});
            if (const Shape& shape = tile.carves.back().shape; !shape.line.empty())
                add(Rule::out_of_range, shape.place, {"a carve", shape.words, "an area: a line has none to take away"});
        }
    if (draft.flags) tile.flags = flag_set(*draft.flags);
    for (const auto& [side, passage] : draft.sides) {
        const int number = side_of({side, passage.place}, "'sides'");
        if (number < 0) continue;
        if (!tile.sides) tile.sides.emplace();
        tile.sides->of[static_cast<std::size_t>(number)] = choose<Passage>(passage, fmt::format("side '{}'", side));
    }
    if (draft.stands_for) tile.stands_for = look_up(kinds_, *draft.stands_for);
    if (draft.leads) tile.leads = look_up(storeys_, *draft.leads);
    if (draft.reacts)
        for (const ReactionDraft& reaction : *draft.reacts)
            tile.reacts.push_back(make_reaction(reaction, tiles, tile.name));
    if (draft.needs) tile.needs = look_up(facts_, *draft.needs);
    if (draft.gives) tile.gives = look_up(facts_, *draft.gives);
    tile.props = make_properties(fields, draft.props, words, tile.place);
    return tile;
}

namespace {

void move(Shape& shape, Point by) {
    shape.area = moved(std::move(shape.area), by);
    for (Point& p : shape.line) p = moved(p, by);
    shape.whole_cell = shape.whole_cell && by == Point{};
}

void orient(Shape& shape, std::int32_t width, std::int32_t height, const Orientation& orientation) {
    shape.area = detail::oriented(std::move(shape.area), width, height, orientation);
    shape.line = detail::oriented_line(std::move(shape.line), width, height, orientation);
    shape.one_way = detail::oriented(shape.one_way, orientation);
}

}   // namespace

Shape WorldMaker::make_shape(const TileSetDraft& set, const TileDraft& tile, const ShapeDraft& draft,
                             BarrierId tile_barrier) {
    const std::int32_t width = std::clamp(set.cell.value[0], 1, 4096) * steps_per_px,
                       height = std::clamp(set.cell.value[1], 1, 4096) * steps_per_px;
    const Curves curves(*this, draft.within_px);
    Shape shape;
    shape.place = draft.place;
    if (const auto* shared = std::get_if<SharedShape>(&draft.form)) {
        const auto found = std::find_if(set.shapes.begin(), set.shapes.end(),
                                        [&](const auto& named) { return named.first.value == shared->name.value; });
        if (found == set.shapes.end() || std::holds_alternative<SharedShape>(found->second.form)) {
            NameIndex index{"shared shape", {}, {}, {}};
            for (const auto& [name, named] : set.shapes)
                if (!std::holds_alternative<SharedShape>(named.form)) index.names.push_back(name.value);
            add_unknown(index, shared->name);
            return shape;
        }
        ShapeDraft copy = found->second;   // keys beside a shared shape replace those of the shape
        take(copy.barrier, draft.barrier);
        take(copy.trigger, draft.trigger);
        take(copy.surface, draft.surface);
        take(copy.one_way, draft.one_way);
        take(copy.within_px, draft.within_px);
        copy.place = draft.place;
        shape = make_shape(set, tile, copy, tile_barrier);
        if (numbers_fit({shared->dx, shared->dy}, "'at'", draft.place))
            move(shape, {to_steps(shared->dx), to_steps(shared->dy)});
        shape.words = fmt::format("'{}'", shared->name.value);
    } else {
        const auto* traced = std::get_if<Traced>(&draft.form);
        Drawn drawn =
            traced != nullptr ? trace(set, tile, *traced, draft.place) : draw(draft.form, width, height, draft.place);
        shape.words = std::move(drawn.words);
        shape.area = std::move(drawn.area);
        shape.line = std::move(drawn.line);
        shape.whole_cell = std::holds_alternative<WholeCell>(draft.form);
        shape.one_way = make_one_way(draft.one_way);
        if (draft.one_way && !std::holds_alternative<LinePx>(draft.form))
            add(Rule::unknown_key, draft.one_way->place, {"one_way", shape.words},
                Hint{"only lines are one-way: an area blocks from all sides", ""});
        shape.fault = drawn.fault;
        shape.fault_at = drawn.fault_at;
        shape.fault_words = std::move(drawn.fault_words);
        shape.barrier = draft.barrier ? look_up(barriers_, *draft.barrier) : tile_barrier;
        if (draft.trigger) shape.trigger = draft.trigger->value;
        shape.surface = draft.surface;
    }
    if (draft.orientation.turn % 180 != 0 && width != height)
        add(Rule::turn_not_square, draft.place,
            {shape.words, fmt::format("{}", draft.orientation.turn), fmt::format("{}", set.cell.value[0]),
             fmt::format("{}", set.cell.value[1])});
    else
        orient(shape, width, height, draft.orientation);
    // Half the range is for a shape, half for the map, so that their sum is always a coordinate.
    if (const auto box = bounds(shape.line.empty() ? shape.area : Regions{{shape.line, {}}})) {
        const std::int32_t farthest = std::max({-box->least.x, -box->least.y, box->most.x, box->most.y});
        if (farthest > coordinate_limit / 2)
            add(Rule::too_large, draft.place,
                {shape.words, fmt::format("{} px from its cell", to_px(farthest)),
                 fmt::format("{} px", to_px(coordinate_limit / 2))});
    }
    return shape;
}

}   // namespace dryground
