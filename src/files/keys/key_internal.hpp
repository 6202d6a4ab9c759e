// Inside the files room: what a key of the designers' files is. Each sort of thing has one list of its keys, a function
//
//     template <class Visit> void each_key(Of<ObjectDraft>, Visit&& visit)
//
// that calls visit(Key, pointer to member) for one key after another, in the order in which we write them, and
// visit(Group, pointer to member) where several keys say what one member holds. Readers, writers, schemas, the tables
// in the documents, edits by key, random worlds and equality are visitors of these lists, so that no key can be
// forgotten in one of them. A key's default is what the member holds in a draft that was just made.
#pragma once

#include <limits>
#include <span>
#include <string_view>
#include <type_traits>

#include "../../model/words_internal.hpp"
#include "dryground/builder.hpp"

namespace dryground::keys {

// What a key takes. That of a member follows from its type (listing.cpp).
enum class Sort {
    yes_no,
    whole,
    number,
    text,
    texts,     // a list of them
    wholes,    // so many
    numbers,   // so many
    weights,   // any number of them
    points,    // [[x, y], …]
    holes,     // lists of points
    rows,      // a text of many lines, a character for each cell
    colour,
    picture,
    surface,
    trace,
    legend,
    goals,
    value,   // any
    shape,
    shapes,
    named_shapes,
    sides,
    properties,        // values
    property_types,    // declared
    kind_properties,   // declared, or new defaults
    notes,             // names, each with a note
    numbers_by_name,   // limits
    severities,
    tables,         // a list of tables with keys of their own
    named_tables,   // tables by name
    table,          // one
};

struct Key {
    std::string_view name;
    std::string_view says;                       // for people: what it means
    std::string_view example{};                  // of a value, as one writes it
    std::string_view refers{};                   // it names such a thing: "barrier"
    std::span<const std::string_view> words{};   // it is one of these
    std::string_view unit{};
    double least = -std::numeric_limits<double>::infinity(), most = std::numeric_limits<double>::infinity();
    bool always = false;       // written even where it says nothing new
    bool required = false;     // by readers; of a text that may be empty: by those who check
    bool names_it = false;     // it is the thing's own name
    bool or_one = false;       // of a list of texts: one may stand without brackets
    bool is_path = false;      // of a file, from the folder of the one that says it
    std::string_view item{};   // of tables: what one of them is called, "a waiver"
    bool by_line = false;      // of tables: written one a line
};

// Keys that say together, or one in place of the other, what a member holds.
struct OneOf {
    Key key;
    Sort sort;
    int count = 0;   // of numbers
};
struct Group {
    std::span<const OneOf> keys;
    bool exactly_one = false;     // of those that are no companions
    std::size_t companions = 0;   // the last ones, which may stand beside
};

template <class Draft>
struct Of {};

// Whether there are many of a thing in a table, by their names.
template <class Draft>
inline constexpr bool is_named =
    std::is_same_v<Draft, BarrierDraft> || std::is_same_v<Draft, StoreyDraft> || std::is_same_v<Draft, MoverDraft> ||
    std::is_same_v<Draft, FeelerDraft> || std::is_same_v<Draft, KindDraft> || std::is_same_v<Draft, TileDraft> ||
    std::is_same_v<Draft, FamilyDraft> || std::is_same_v<Draft, BlockDraft>;

}   // namespace dryground::keys
