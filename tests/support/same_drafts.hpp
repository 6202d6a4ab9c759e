// Whether two drafts hold the same: each member that the lists of keys name, places apart.
#pragma once

#include <catch2/catch.hpp>

#include <algorithm>

#include "dryground/builder.hpp"
#include "files/keys/world_keys_internal.hpp"

namespace drafts {

using namespace dryground;

template <class Draft>
concept Listed = requires {
    keys::each_key(keys::Of<Draft>{}, [](const auto&, auto) {});
};
template <class T>
using Is = std::decay_t<T>;

inline std::string_view name_of_key(const keys::Key& key) { return key.name; }
inline std::string_view name_of_key(const keys::Group& group) { return group.keys.front().key.name; }

struct Same {
    template <class Draft>
    static bool same_keys(const Draft& a, const Draft& b) {
        bool all = true;
        keys::each_key(keys::Of<Draft>{}, [&](const auto& key, auto member) {
            if (same(a.*member, b.*member)) return;
            all = false;
            UNSCOPED_INFO("'" << name_of_key(key) << "' did not come back");
        });
        return all;
    }

    template <class T>
    static bool same(const Located<T>& a, const Located<T>& b) {
        return same(a.value, b.value);
    }
    template <class T>
    static bool same(const std::optional<T>& a, const std::optional<T>& b) {
        return a.has_value() == b.has_value() && (!a || same(*a, *b));
    }
    template <class A, class B>
    static bool same(const std::pair<A, B>& a, const std::pair<A, B>& b) {
        return same(a.first, b.first) && same(a.second, b.second);
    }
    template <class T>
    static bool same(const std::vector<T>& a, const std::vector<T>& b) {
        if (a.size() != b.size()) return false;
        for (std::size_t i = 0; i < a.size(); ++i)
            if (!same(a[i], b[i])) return false;
        return true;
    }
    template <class T>
    static bool same(const std::map<std::string, T>& a, const std::map<std::string, T>& b) {
        return std::equal(a.begin(), a.end(), b.begin(), b.end(),
                          [](const auto& x, const auto& y) { return x.first == y.first && same(x.second, y.second); });
    }
    static bool same(const BoxPx& a, const BoxPx& b) {
        return a.x == b.x && a.y == b.y && a.width == b.width && a.height == b.height;
    }
    static bool same(const PolygonPx& a, const PolygonPx& b) { return a.points == b.points && a.holes == b.holes; }
    static bool same(const EllipsePx& a, const EllipsePx& b) {
        return a.x == b.x && a.y == b.y && a.radius_x == b.radius_x && a.radius_y == b.radius_y;
    }
    static bool same(const CapsuleBetween& a, const CapsuleBetween& b) {
        return a.x1 == b.x1 && a.y1 == b.y1 && a.x2 == b.x2 && a.y2 == b.y2 && a.radius == b.radius;
    }
    static bool same(const CapsulePx& a, const CapsulePx& b) { return a.width == b.width && a.height == b.height; }
    static bool same(const LinePx& a, const LinePx& b) { return a.points == b.points; }
    static bool same(const SharedShape& a, const SharedShape& b) {
        return same(a.name, b.name) && a.dx == b.dx && a.dy == b.dy;
    }
    static bool same(const Traced& a, const Traced& b) { return a.alpha == b.alpha && a.within_px == b.within_px; }
    static bool same(const AtCells& a, const AtCells& b) {
        return a.column == b.column && a.row == b.row && a.columns == b.columns && a.rows == b.rows &&
               a.block == b.block;
    }
    static bool same(const WholeCell&, const WholeCell&) { return true; }
    static bool same(const std::monostate&, const std::monostate&) { return true; }
    static bool same(const Picture& a, const Picture& b) { return a.file == b.file && a.x == b.x && a.y == b.y; }
    static bool same(const NoteDraft& a, const NoteDraft& b) { return same(a.name, b.name) && a.note == b.note; }
    static bool same(const CarveDraft& a, const CarveDraft& b) {
        return same(a.barrier, b.barrier) && same(a.shape, b.shape);
    }
    static bool same(const ObjectCarve& a, const ObjectCarve& b) {
        return same(a.barrier, b.barrier) && same(a.shape, b.shape);
    }
    template <class... Forms>
    static bool same(const std::variant<Forms...>& a, const std::variant<Forms...>& b) {
        return a.index() == b.index() &&
               std::visit([&](const auto& form) { return same(form, std::get<Is<decltype(form)>>(b)); }, a);
    }
    template <class T>
    static bool same(const T& a, const T& b) {
        if constexpr (Listed<T>) {
            if constexpr (requires { a.name.value; })
                if (!same(a.name, b.name)) return false;
            if constexpr (std::is_same_v<T, KindDraft>)   // which share a key with the properties that it declares
                if (!same(a.props, b.props)) return false;
            return same_keys(a, b);
        } else {
            return a == b;
        }
    }
};

template <class T>
bool same(const T& a, const T& b) {
    return Same::same(a, b);
}

}   // namespace drafts
