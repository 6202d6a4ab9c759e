// Inside the files room: writes things to a pack by the lists of their keys (keys/pack_key_internal.hpp). How a value
// of some type stands in a pack is defined here, once for each type.
#pragma once

#include <fmt/format.h>

#include <functional>

#include "keys/pack_map_keys_internal.hpp"

namespace dryground::packed {

// What a visitor of keys is called with, for asking whether a thing has keys.
struct Ignore {
    template <class... Any>
    void operator()(Any&&...) const {}
};
template <class Thing>
concept HasKeys = requires {
    each_key(Of<Thing>{}, Ignore{});
};
template <class Choice>
concept HasWords = requires {
    WordsOf<Choice>::words;
};

// Returns the value of a key: of a member, or by a function.
template <class From, class Thing>
[[nodiscard]] decltype(auto) value_of(const From& from, const Packing& at, const Thing& thing) {
    if constexpr (std::is_member_pointer_v<From>)
        return std::invoke(from, thing);
    else
        return from(at, thing);
}
template <class From, class Thing>
using ValueOf = std::remove_cvref_t<decltype(value_of(std::declval<const From&>(), std::declval<const Packing&>(),
                                                      std::declval<const Thing&>()))>;

class Writer {
public:
    explicit Writer(const Packing& packing) : at_(packing) {}

    template <class Thing>
    [[nodiscard]] Json table(const Thing& thing) const {
        Json json = Json::object();
        each_key(Of<Thing>{}, [&](const Key& key, const auto& from, const auto&) {
            Json value = written(value_of(from, at_, thing));
            if (!key.optional || !value.is_null()) json.emplace(std::string(key.name), std::move(value));
        });
        return json;
    }

private:
    template <class T>
    [[nodiscard]] Json written(const T& value) const {
        if constexpr (HasKeys<T>)
            return table(value);
        else if constexpr (HasWords<T>)
            return word_of(value);
        else
            return value;   // numbers, texts, lists of texts, numbers by name, what is Json already
    }
    template <class T>
    [[nodiscard]] Json written(const std::optional<T>& value) const {
        return value ? written(*value) : Json(nullptr);
    }
    template <class T>
    [[nodiscard]] Json written(const std::vector<T>& values) const {
        Json list = Json::array();
        for (const T& value : values) list.push_back(written(value));
        return list;
    }
    [[nodiscard]] Json written(Json&& value) const { return std::move(value); }
    [[nodiscard]] Json written(std::optional<Json>&& value) const { return value ? *std::move(value) : Json(nullptr); }
    template <IsId Id>
    requires(!HasWords<Id>) [[nodiscard]] Json written(const Id& id) const {
        return id == Id::none ? Json(nullptr) : Json(thing_of(id).name);
    }
    [[nodiscard]] Json written(const Flags& flags) const { return flag_names(at_.world, flags.bits); }
    [[nodiscard]] Json written(const RowTexts& texts) const { return texts.rows; }
    [[nodiscard]] Json written(MergeForms forms) const {
        Json list = Json::array();
        for (const std::string& form : names_of(forms)) list.push_back(form);
        return list;
    }
    [[nodiscard]] Json written(Point p) const { return files::point_json(p); }
    [[nodiscard]] Json written(const Ring& ring) const { return files::ring_json(ring); }
    [[nodiscard]] Json written(const Regions& area) const { return files::area_json(area); }
    [[nodiscard]] Json written(const Colour& colour) const {
        return fmt::format("#{:02x}{:02x}{:02x}", colour.red, colour.green, colour.blue);
    }
    [[nodiscard]] Json written(const Sides& sides) const {
        Json table = Json::object();
        for (std::size_t side = 0; side < 4; ++side) table[std::string(side_names[side])] = word_of(sides.of[side]);
        return table;
    }
    [[nodiscard]] Json written(const Value& value) const {
        return std::visit([&](const auto& is) -> Json { return written(is); }, value.is);
    }
    template <class T>
    [[nodiscard]] Json written(const std::map<std::string, T>& values) const {   // of properties, declared or said
        Json table = Json::object();
        for (const auto& [name, value] : values) table[name] = written(value);
        return table;
    }
    [[nodiscard]] Json written(const Severities& severities) const {
        Json table = Json::object();
        for (const auto& [rule, severity] : severities) table[rule] = word_of(severity);
        return table;
    }

    [[nodiscard]] const Barrier& thing_of(BarrierId id) const { return at_.world.barrier(id); }
    [[nodiscard]] const Storey& thing_of(StoreyId id) const { return at_.world.storey(id); }
    [[nodiscard]] const Mover& thing_of(MoverId id) const { return at_.world.mover(id); }
    [[nodiscard]] const NamedThing& thing_of(FactId id) const { return at_.world.fact(id); }
    [[nodiscard]] const NamedThing& thing_of(EventId id) const { return at_.world.event(id); }
    [[nodiscard]] const Kind& thing_of(KindId id) const { return at_.world.kind(id); }
    [[nodiscard]] const TileSet& thing_of(TileSetId id) const { return at_.world.tileset(id); }

    const Packing& at_;
};

}   // namespace dryground::packed
