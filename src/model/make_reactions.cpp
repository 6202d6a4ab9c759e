// Makes what tiles do when something happens to them, and the shapes traced from their art.

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "choose_internal.hpp"

namespace dryground {

namespace {

// Of square cells, then of diamonds: the same four sides, rotated by an eighth of a turn.
constexpr std::array<const char*, 8> side_names{"top",       "right",        "bottom",      "left",
                                                "top_right", "bottom_right", "bottom_left", "top_left"};

}   // namespace

int WorldMaker::side_of(const Name& side, const char* where) {
    const auto found = std::find(side_names.begin(), side_names.end(), side.value);
    if (found != side_names.end()) return static_cast<int>(found - side_names.begin()) % 4;
    add(Rule::unknown_key, side.place, {side.value, where},
        Hint{"sides are top, right, bottom, left; of diamonds top_right, bottom_right, bottom_left, top_left", ""});
    return -1;
}

Fires WorldMaker::make_fires(const Located<std::string>& said) { return choose<Fires>(said, "'fires'"); }

Reaction WorldMaker::make_reaction(const ReactionDraft& draft, const NameIndex& tiles, const std::string& tile) {
    Reaction reaction;
    reaction.place = draft.place;
    reaction.fires = make_fires(draft.fires);
    if (draft.from) {
        reaction.from.fill(false);
        for (const Name& side : *draft.from)
            if (const int number = side_of(side, "'from'"); number >= 0)
                reaction.from[static_cast<std::size_t>(number)] = true;
    }
    reaction.by = look_up(movers_, draft.by);
    reaction.once = draft.once;
    reaction.every_s = draft.every_s;
    if (!(draft.every_s >= 0) || !std::isfinite(draft.every_s))
        add(Rule::out_of_range, draft.place, {"'every_s'", fmt::format("{}", draft.every_s), "0 or more seconds"});
    reaction.needs = look_up(facts_, draft.needs);
    reaction.gives = look_up(facts_, draft.gives);
    if (draft.runs) reaction.runs = look_up(events_, *draft.runs);
    if (draft.turns_into) {
        reaction.then = draft.turns_into->value.empty() ? Reaction::Then::goes : Reaction::Then::turns;
        if (!draft.turns_into->value.empty()) reaction.turns_into = look_up(tiles, *draft.turns_into);
    }
    if (draft.turns_into_next && draft.turns_into)
        add(Rule::out_of_range, draft.place,
            {"a reaction", "with 'turns_into' and 'turns_into_next'", "with one of them"});
    else if (draft.turns_into_next)
        make_next(*draft.turns_into_next, draft.place, tiles, tile, reaction);
    return reaction;
}

// Sets what follows the tile in a sequence of tiles. The last one stays.
void WorldMaker::make_next(const Names& row, const Place& place, const NameIndex& tiles, const std::string& tile,
                           Reaction& reaction) {
    const auto own = std::find_if(row.begin(), row.end(), [&](const Name& one) { return one.value == tile; });
    for (const Name& one : row)
        if (!one.value.empty()) look_up(tiles, one);
    if (own == row.end()) {
        add(Rule::out_of_range, row.empty() ? place : row.front().place,
            {"'turns_into_next'", fmt::format("without '{}'", tile), "a row of tiles that this tile is one of"});
        return;
    }
    if (own + 1 == row.end()) return;
    const std::string& next = (own + 1)->value;
    reaction.then = next.empty() ? Reaction::Then::goes : Reaction::Then::turns;
    reaction.turns_into = tiles.find(next);
}

// Returns the outline of a tile's opaque pixels, relative to the corner of its cell.
WorldMaker::Drawn WorldMaker::trace(const TileSetDraft& set, const TileDraft& tile, const Traced& traced,
                                    const Place& place) {
    Drawn drawn;
    drawn.words = "trace";
    if (traced.alpha < 1 || traced.alpha > 255 || !(traced.within_px >= 0 && traced.within_px <= 64)) {
        add(Rule::out_of_range, place,
            {"'trace'", fmt::format("alpha {}, within {} px", traced.alpha, traced.within_px),
             "alpha from 1 to 255, within 0 to 64 px"});
        return drawn;
    }
    const auto [width, height] = set.cell.value;
    TileSet like_set;   // as far as art is concerned
    like_set.cell_width = width, like_set.cell_height = height, like_set.sheet = set.sheet;
    Tile like_tile;
    like_tile.at = tile.at, like_tile.picture = tile.picture;
    if (tile.art) like_tile.art = tile.art->value;
    const std::optional<TileImage> art = image_of(like_set, like_tile);
    const std::optional<Image> image = look_ && art ? look_(art->file) : std::nullopt;
    const int x = art ? art->left : 0, y = art ? art->top : 0,
              across = tile.picture && image ? image->width
                       : art                 ? art->width
                                             : 0,
              down = tile.picture && image ? image->height
                     : art                 ? art->height
                                           : 0;
    if (!image || x < 0 || y < 0 || x + across > image->width || y + down > image->height) {
        drawn.fault = ShapeFault::empty;
        drawn.fault_words = "the tile has no art to trace";
        return drawn;
    }
    std::vector<char> opaque;
    for (int r = y; r < y + down; ++r)
        for (int c = x; c < x + across; ++c) {
            const unsigned char* px =
                image->rgba.data() + 4 * (static_cast<std::size_t>(r) * static_cast<std::size_t>(image->width) +
                                          static_cast<std::size_t>(c));
            const bool clear = art->clear && *art->clear == Colour{px[0], px[1], px[2]};
            opaque.push_back(!clear && px[3] >= traced.alpha);
        }
    drawn.area = moved(trace_pixels(across, down, opaque, within_px_.value_or(traced.within_px)),
                       {to_steps(art->x), to_steps(art->y)});
    if (drawn.area.empty()) {
        drawn.fault = ShapeFault::empty;
        drawn.fault_words = fmt::format("its art has no pixel of alpha {} or more", traced.alpha);
    }
    return drawn;
}

}   // namespace dryground
