// Inside the files room: what a key of a pack is. Each thing has one list of its keys, a function
//
//     template <class Visit> void each_key(Of<Mover>, Visit&& visit)
//
// that calls visit(Key, from, into) for one key after another, in the order in which they are written. `from` is where
// a writer gets the value: a member of the thing, also a function, or a function of (Packing, thing). `into` is where a
// reader puts it: a member of the draft, a function (reader, node, draft), ByHand, or MadeAnew. Writer, reader and
// schema are visitors of these lists (write_pack_internal.hpp, read_pack_internal.hpp, pack_schema.cpp).
#pragma once

#include <limits>
#include <span>
#include <string_view>

#include "../../model/words_internal.hpp"
#include "../pack_internal.hpp"

namespace dryground::packed {

using files::Json;

struct Key {
    std::string_view name;
    std::string_view says{};                     // for people: what it means; empty where its name says it
    std::string_view form{};                     // of Json: the definition of its schema
    std::span<const std::string_view> words{};   // of text: it is one of these
    std::string_view pattern{};                  // of text: a regular expression
    bool optional = false;                       // left out, instead of null, where nothing is said
    bool always = false;                         // of an id: it is never none
    bool is_positive = false;                    // of a number: more than 0
    double least = -std::numeric_limits<double>::infinity(), most = std::numeric_limits<double>::infinity();
    int fewest = -1, most_items = -1;   // of a list; -1: any number
};

template <class Thing>
struct Of {};

// What is known where a thing is written.
struct MapGround {   // made from the map, by hand
    Json passability, merge;
    std::optional<Json> variants;
};
struct Packing {
    const World& world;
    const PackOutput& output;
    const TileSet* set = nullptr;   // whose tiles are written
    const Map* map = nullptr;       // whose layers and objects are written,
    MapGround* ground = nullptr;    // and its ground, which is moved from
};

struct MadeAnew {};   // a reader has no use for it: the world it builds gives the same
struct ByHand {};     // a reader takes it together with other keys: read_by_hand() of the draft

// ---- values that are written in one way and have no type of their own in the model
struct Flags {
    FlagSet bits = 0;
};
struct RowTexts {
    std::vector<std::string> rows;
};
[[nodiscard]] inline std::optional<std::string> or_null(const std::string& text) {
    return text.empty() ? std::nullopt : std::optional(text);
}
[[nodiscard]] inline std::array<double, 2> px_of(Point p) { return {to_px(p.x), to_px(p.y)}; }

// Two members that stand as one value: for writers and for readers.
template <class Thing, class Number>
struct PairOf {
    Number Thing::*first;
    Number Thing::*second;

    [[nodiscard]] std::array<Number, 2> operator()(const Packing&, const Thing& thing) const {
        return {thing.*first, thing.*second};
    }
    template <class Reader>
    void operator()(const Reader& reader, const files::Node& node, Thing& into) const {
        std::array<Number, 2> both{};
        reader.read(node, both);
        into.*first = both[0], into.*second = both[1];
    }
};
template <class Thing, class Number>
[[nodiscard]] PairOf<Thing, Number> pair_of(Number Thing::*first, Number Thing::*second) {
    return {first, second};
}

inline constexpr std::string_view pack_format[] = {"dryground/pack/1"};
inline constexpr std::string_view unit_words[] = {"px", "m", "cell"};
inline constexpr std::string_view axis_words[] = {"down", "up"};
inline constexpr std::string_view side_names[] = {"top", "right", "bottom", "left"};
inline constexpr std::string_view plane_words[] = {"screen", "ground"};

}   // namespace dryground::packed
