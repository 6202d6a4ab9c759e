// What tiles do when something happens to them, and what is traced of their art.

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "choose_internal.hpp"

namespace dryground {

namespace {

// Of upright cells, then of diamonds: the same four, a quarter of a half turn on.
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

Reaction WorldMaker::make_reaction(const ReactionDraft& draft, const NameIndex& tiles) {
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
    return reaction;
}

// The outline of a tile's opaque pixels, from the corner of its cell.
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
    const std::string file = tile.picture ? tile.picture->file : set.sheet && tile.art ? set.sheet->file : "";
    const std::optional<Image> image = look_ && !file.empty() ? look_(file) : std::nullopt;
    int x = 0, y = 0, across = width, down = height;
    if (image && tile.picture) {
        across = image->width, down = image->height;
    } else if (image) {
        const auto& [column, row] = tile.art->value;
        x = set.sheet->margin[0] + column * (width + set.sheet->gap[0]);
        y = set.sheet->margin[1] + row * (height + set.sheet->gap[1]);
    }
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
            const bool clear =
                set.sheet && set.sheet->clear && !tile.picture && *set.sheet->clear == Colour{px[0], px[1], px[2]};
            opaque.push_back(!clear && px[3] >= traced.alpha);
        }
    drawn.area = trace_pixels(across, down, opaque, traced.within_px);
    if (tile.picture) drawn.area = moved(std::move(drawn.area), {to_steps(tile.picture->x), to_steps(tile.picture->y)});
    if (drawn.area.empty()) {
        drawn.fault = ShapeFault::empty;
        drawn.fault_words = fmt::format("its art has no pixel of alpha {} or more", traced.alpha);
    }
    return drawn;
}

}   // namespace dryground
