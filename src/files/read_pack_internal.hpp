// Inside the files room: reads things of a pack to drafts by the lists of their keys (keys/pack_key_internal.hpp). How
// a member of some type is read is defined here, once for each type.
#pragma once

#include <algorithm>

#include "write_pack_internal.hpp"

namespace dryground::packed {

using files::Node;

template <class Draft>
concept HasPlace = requires(Draft draft) {
    draft.place;
};

class Reader {
public:
    // `back`: objects are moved by so much, since the builder adds their layer's offset again.
    explicit Reader(Point back = {}) : back_(back) {}
    [[nodiscard]] Point back() const { return back_; }

    // Reads a thing: all of its keys, also those that are read together.
    template <class Thing, class Draft>
    void table(const Node& node, Draft& draft) const {
        if constexpr (HasPlace<Draft>) draft.place = node.where();
        keys<Thing>(node, draft);
        read_by_hand(node, draft);
    }
    // Reads keys of a thing. Unknown ones are reported.
    template <class Thing, class Draft>
    void keys(const Node& node, Draft& draft) const {
        std::vector<std::string_view> known;
        each_key(Of<Thing>{}, [&](const Key& key, const auto& from, const auto& into) {
            known.push_back(key.name);
            using Into = std::decay_t<decltype(into)>;
            using Said = ValueOf<std::decay_t<decltype(from)>, Thing>;
            if constexpr (!std::is_same_v<Into, ByHand> && !std::is_same_v<Into, MadeAnew>) {
                const Node value = key.optional ? node.at_if_there(key.name) : node.at(key.name);
                if (key.optional && value.is_null()) return;
                if constexpr (std::is_member_object_pointer_v<Into>)
                    member<Said>(value, draft.*into);
                else
                    into(*this, value, draft);
            }
        });
        node.only(known);
    }
    template <class Thing, class Draft>
    void list(const Node& node, std::vector<Draft>& into) const {
        for (const Node& item : node.items()) table<Thing>(item, into.emplace_back());
    }

    // Plain values.
    static void read(const Node& node, bool& into) { into = node.yes_no(); }
    static void read(const Node& node, int& into) { into = node.integer(); }
    static void read(const Node& node, double& into) { into = node.number(); }
    static void read(const Node& node, std::string& into) { into = node.text(); }
    static void read(const Node& node, std::vector<std::string>& into) { into = node.texts(); }
    static void read(const Node& node, Names& into) { into = node.names(); }
    static void read(const Node& node, std::array<int, 2>& into) { into = node.pair(); }
    static void read(const Node& node, Cell& into) {
        const auto [column, row] = node.pair();
        into = {column, row};
    }
    static void read(const Node& node, std::array<double, 2>& into) { into = node.place(); }
    static void read(const Node& node, std::array<double, 4>& into) {
        const std::vector<Node> four = node.items();
        if (four.size() != 4) return node.wrong("four numbers");
        std::transform(four.begin(), four.end(), into.begin(), [](const Node& one) { return one.number(); });
    }
    static void read(const Node& node, MergeForms& into) {
        for (const Node& item : node.items()) {
            const auto form = choice_of<MergeForm>(item.text());
            if (form)
                into.set(*form);
            else
                item.wrong("a form of merged geometry");
        }
    }
    static void read(const Node& node, Colour& into) {
        const auto colour = colour_from(node.text());
        if (!colour) return node.wrong("a colour like #7a5c3a");
        into = *colour;
    }
    static void read(const Node& node, BodyDraft& into) { into.form = node.area(), into.place = node.where(); }
    static void read(const Node& node, Value& into) {
        if (auto value = node.value()) into = std::move(*value);
    }
    static void read(const Node& node, SaidProperties& into) { into = node.properties(); }
    static void read(const Node& node, std::vector<std::pair<Name, Located<std::int64_t>>>& into) {
        for (const auto& [name, number] : node.entries())
            into.emplace_back(Name(name, number.where()),
                              Located<std::int64_t>(number.whole(INT64_MIN, INT64_MAX), number.where()));
    }
    static void read(const Node& node, std::vector<std::pair<Name, Located<std::string>>>& into) {
        for (const auto& [name, word] : node.entries()) into.emplace_back(Name(name, word.where()), word.name());
    }
    template <class T>
    static void read(const Node& node, Located<T>& into) {
        read(node, into.value);
        into.place = node.where();
    }
    template <class T>
    static void read(const Node& node, std::optional<T>& into) {
        if (!node.is_null()) read(node, into.emplace());
    }

private:
    // Reads what the writer has as `Said` to a member: things that have keys of their own, or a plain value.
    template <class Said, class Into>
    void member(const Node& node, Into& into) const {
        if constexpr (HasKeys<Said>)
            table<Said>(node, into);
        else
            thing_or_value(std::type_identity<Said>{}, node, into);
    }
    template <class Thing, class Draft>
    void thing_or_value(std::type_identity<std::optional<Thing>>, const Node& node, std::optional<Draft>& into) const {
        if (!node.is_null()) member<Thing>(node, into.emplace());
    }
    template <HasKeys Thing, class Draft>
    void thing_or_value(std::type_identity<std::vector<Thing>>, const Node& node, std::vector<Draft>& into) const {
        list<Thing>(node, into);
    }
    template <HasKeys Thing, class Draft>
    void thing_or_value(std::type_identity<std::vector<Thing>>, const Node& node,
                        std::optional<std::vector<Draft>>& into) const {
        list<Thing>(node, into.emplace());
    }
    void thing_or_value(std::type_identity<std::optional<Sides>>, const Node& node,
                        std::map<std::string, Name>& into) const {
        if (node.is_null()) return;
        for (const std::string_view side : side_names) into[std::string(side)] = node.at(side).name();
        node.only({side_names, side_names + 4});
    }
    void thing_or_value(std::type_identity<Fields>, const Node& node, std::vector<FieldDraft>& into) const {
        for (const auto& [name, inner] : node.entries()) {
            into.emplace_back().name = Name(name, inner.where());
            keys<Field>(inner, into.back());
        }
    }
    // Reads a text that is "" if nothing is set.
    template <class Said>
    requires std::is_same_v<Said, std::string> || std::is_same_v<Said, OneWay>
    void thing_or_value(std::type_identity<Said>, const Node& node, std::optional<Name>& into) const {
        if (Name name = node.name(); !name.value.empty()) into = std::move(name);
    }
    template <class Said, class Into>
    void thing_or_value(std::type_identity<Said>, const Node& node, Into& into) const {
        read(node, into);
    }

    // Read keys that define together what a thing is.
    template <class Draft>
    static void read_by_hand(const Node&, Draft&) {}
    static void read_by_hand(const Node& node, ShapeDraft& shape);
    static void read_by_hand(const Node& node, CarveDraft& carve);
    void read_by_hand(const Node& node, ObjectDraft& object) const;
    static void read_by_hand(const Node& node, MapDraft& map);

    Point back_;
};

}   // namespace dryground::packed
