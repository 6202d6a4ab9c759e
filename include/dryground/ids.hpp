// References between the things of a world. Each sort of thing has ids of a type of its own, so that a mover's cannot
// stand where a fact's is wanted. An id is a position in the world's list of such things, from 0; `none` is none of
// them. Files and messages use names.
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

// Where in its list a thing stands. Requires an id that is not none.
template <IsId Id>
[[nodiscard]] constexpr std::size_t index(Id id) {
    return static_cast<std::size_t>(id);
}

// The id of what stands there.
template <IsId Id>
[[nodiscard]] constexpr Id id_of(std::size_t position) {
    return static_cast<Id>(static_cast<int>(position));
}

// The ids of all things of a list, in its order: for (const MoverId mover : ids<MoverId>(world.movers())).
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
