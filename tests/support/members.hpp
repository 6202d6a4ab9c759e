// How many members a struct has: as many as it can be made from.
#pragma once

#include <cstddef>

namespace members_of {

struct Any {
    template <class T>
    operator T() const {
        return T{};   // only its type is looked at
    }
};
template <class T, class... Values>
constexpr std::size_t count() {
    if constexpr (requires { T{Values{}..., Any{}}; })
        return count<T, Values..., Any>();
    else
        return sizeof...(Values);
}

}   // namespace members_of
