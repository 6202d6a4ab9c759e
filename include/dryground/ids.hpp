// Ids: references between the things of a world. Each kind of thing has an id type of its own, so that the id of a
// mover cannot be passed as that of a fact. An id is a position in the world's list of such things, from 0; `none`
// refers to nothing. Files and messages use names.
#pragma once

#include <cstddef>
#include <type_traits>

namespace dryground {

enum class BarrierId : int { none = -1 };
enum class StoreyId : int { none = -1, ground = 0 };   // "ground" is the first of every world
enum class MoverId : int { none = -1 };
enum class FactId : int { none = -1 };
enum class EventId : int { none = -1 };
enum class KindId : int { none = -1 };
enum class TileSetId : int { none = -1 };
enum class MapId : int { none = -1 };
enum class LayerId : int { none = -1 };    // of a map
enum class ObjectId : int { none = -1 };   // of a map

template <class Id>
concept IsId = std::is_enum_v<Id> && requires {
    Id::none;
};

// Returns the position of a thing in its list. Requires an id other than none.
template <IsId Id>
[[nodiscard]] constexpr std::size_t index(Id id) {
    return static_cast<std::size_t>(id);
}

// Returns the id of the thing at a position.
template <IsId Id>
[[nodiscard]] constexpr Id id_of(std::size_t position) {
    return static_cast<Id>(static_cast<int>(position));
}

// Iterates over the ids of all things of a list: for (const MoverId mover : ids<MoverId>(world.movers())).
template <IsId Id>
class IdRange {
public:
    class Iterator {
    public:
        constexpr explicit Iterator(std::size_t position) : position_(position) {}
        constexpr Id operator*() const { return id_of<Id>(position_); }
        constexpr Iterator& operator++() {
            ++position_;
            return *this;
        }
        friend constexpr bool operator==(const Iterator&, const Iterator&) = default;

    private:
        std::size_t position_;
    };
    constexpr explicit IdRange(std::size_t count) : count_(count) {}
    [[nodiscard]] constexpr Iterator begin() const { return Iterator(0); }
    [[nodiscard]] constexpr Iterator end() const { return Iterator(count_); }

private:
    std::size_t count_;
};

template <IsId Id, class Things>
[[nodiscard]] constexpr IdRange<Id> ids(const Things& things) {
    return IdRange<Id>(things.size());
}

}   // namespace dryground
