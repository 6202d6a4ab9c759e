// Inside the files room: reads tables by the lists of their keys. How a member of some type looks in a file is defined
// here, once for each type; which keys exist, in keys/.
#pragma once

#include <algorithm>

#include "keys/world_keys_internal.hpp"
#include "reading_internal.hpp"

namespace dryground::files {

template <class Draft>
concept HasPlace = requires(Draft draft) {
    draft.place;
};
// Returns which keys of a group a table has, except those that may stand beside the others.
[[nodiscard]] inline std::vector<std::string> said_of(const Table& table, const keys::Group& group) {
    std::vector<std::string> said;
    for (const keys::OneOf& one : group.keys.first(group.keys.size() - group.companions))
        if (table.has(one.key.name.data())) said.emplace_back(one.key.name);
    return said;
}

class KeyReader {
public:
    KeyReader() = default;   // of things that name no files
    // `map`: whose layers are read.
    explicit KeyReader(const Reading& reading, const MapDraft* map = nullptr) : reading_(&reading), map_(map) {}

    // Reads all keys of a draft, or only those that define together what it is. Unknown keys are reported when the
    // table is finished.
    template <class Draft>
    void read(Table& table, Draft& draft, bool groups_alone = false) const {
        keys::each_key(keys::Of<Draft>{}, [&](const auto& key, auto member) {
            if constexpr (std::is_same_v<std::decay_t<decltype(key)>, keys::Group>)
                read_group(table, draft, draft.*member);
            else if (!groups_alone)
                read_key(table, key, draft.*member);
        });
    }

private:
    using Key = keys::Key;
    [[nodiscard]] static const char* name(const Key& key) { return key.name.data(); }   // of a literal: ends in 0
    static void miss(Table& table, const Key& key) {
        if (key.required && !table.has(name(key)))
            table.missing(name(key), fmt::format("{} = {}", key.name, key.example));
    }

    // ---- texts, numbers, yes and no
    void read_key(Table& table, const Key& key, Name& into) const {
        miss(table, key);
        if (auto said = table.text(name(key)))
            into = std::move(*said);
        else if (key.required)
            into = Name("", table.place());
    }
    void read_key(Table& table, const Key& key, std::optional<Name>& into) const { set(into, table.text(name(key))); }
    void read_key(Table& table, const Key& key, std::string& into) const { set(into, table.text(name(key))); }
    void read_key(Table& table, const Key& key, Names& into) const {
        const toml::node* one = table.tree().get(key.name);   // a list of one may be said without its brackets
        if (key.or_one && one != nullptr && one->is_string())
            into = {*table.text(name(key))};
        else
            into = table.names(name(key)).value_or(Names{});
    }
    void read_key(Table& table, const Key& key, std::optional<Names>& into) const { into = table.names(name(key)); }
    void read_key(Table& table, const Key& key, std::vector<std::string>& into) const {
        if (auto said = table.texts(name(key))) into = std::move(*said);
    }
    void read_key(Table& table, const Key& key, std::optional<std::vector<std::string>>& into) const {
        into = table.texts(name(key));
    }
    void read_key(Table& table, const Key& key, bool& into) const { set(into, table.yes_no(name(key))); }
    void read_key(Table& table, const Key& key, std::optional<bool>& into) const {
        if (const auto said = table.yes_no(name(key))) into = said->value;
    }
    void read_key(Table& table, const Key& key, double& into) const { set(into, table.number(name(key))); }
    void read_key(Table& table, const Key& key, Located<double>& into) const {
        miss(table, key);
        if (auto said = table.number(name(key))) into = *said;
    }
    void read_key(Table& table, const Key& key, std::optional<double>& into) const {
        if (const auto said = table.number(name(key))) into = said->value;
    }
    void read_key(Table& table, const Key& key, std::optional<Located<double>>& into) const {
        into = table.number(name(key));
    }
    void read_key(Table& table, const Key& key, int& into) const {
        if (const auto said = table.whole(name(key))) into = in_int(said->value);
    }
    void read_key(Table& table, const Key& key, Located<int>& into) const {
        if (const auto said = table.whole(name(key))) into = Located<int>(in_int(said->value), said->place);
    }
    void read_key(Table& table, const Key& key, std::uint64_t& into) const {
        if (const auto said = table.whole(name(key))) into = static_cast<std::uint64_t>(said->value);
    }
    // Out of every range that we have, if it is out of that of int.
    [[nodiscard]] static int in_int(std::int64_t value) {
        return static_cast<int>(std::clamp<std::int64_t>(value, -1'000'000'000, 1'000'000'000));
    }
    template <std::size_t n>
    void read_key(Table& table, const Key& key, std::array<double, n>& into) const {
        if (const auto said = table.numbers(name(key), n)) std::copy_n(said->value.begin(), n, into.begin());
    }
    template <std::size_t n>
    void read_key(Table& table, const Key& key, std::optional<std::array<double, n>>& into) const {
        if (table.has(name(key))) read_key(table, key, into.emplace());
    }
    template <std::size_t n>
    void read_key(Table& table, const Key& key, std::array<int, n>& into) const {
        miss(table, key);
        if (const auto said = table.wholes(name(key), n)) std::copy_n(said->value.begin(), n, into.begin());
    }
    template <std::size_t n>
    void read_key(Table& table, const Key& key, Located<std::array<int, n>>& into) const {
        miss(table, key);
        if (const auto said = table.wholes(name(key), n)) {
            std::copy_n(said->value.begin(), n, into.value.begin());
            into.place = said->place;
        }
    }
    template <std::size_t n>
    void read_key(Table& table, const Key& key, std::optional<std::array<int, n>>& into) const {
        Located<std::array<int, n>> said;
        if (table.has(name(key))) read_key(table, key, said);
        if (said.place.line > 0) into = said.value;
    }
    template <std::size_t n>
    void read_key(Table& table, const Key& key, std::optional<Located<std::array<int, n>>>& into) const {
        Located<std::array<int, n>> said;
        if (table.has(name(key))) read_key(table, key, said);
        if (said.place.line > 0) into = said;
    }
    void read_key(Table& table, const Key& key, Cell& into) const {
        std::array said{into.column, into.row};
        read_key(table, key, said);
        into = {said[0], said[1]};
    }
    void read_key(Table& table, const Key& key, std::optional<CellArea>& into) const {
        std::optional<std::array<int, 4>> said;
        read_key(table, key, said);
        if (said) into = {(*said)[0], (*said)[1], (*said)[2], (*said)[3]};
    }
    void read_key(Table& table, const Key& key, std::optional<Located<std::vector<double>>>& into) const {
        if (const toml::array* list = table.list(name(key), "a list of numbers"))
            into = table.numbers(name(key), list->size());
    }

    // ---- parts with a form of their own
    void read_key(Table& table, const Key& key, std::optional<Surface>& into) const {
        into = read_surface(table, name(key));
    }
    void read_key(Table& table, const Key& key, std::optional<Colour>& into) const {
        into = read_colour(table, name(key));
    }
    void read_key(Table& table, const Key& key, std::optional<Picture>& into) const {
        into = read_picture(*reading_, table, name(key));
    }
    void read_key(Table& table, const Key& key, SaidProperties& into) const {
        into = read_properties(table, name(key));
    }
    void read_key(Table& table, const Key& key, std::vector<FieldDraft>& into) const {
        into = read_fields(table, name(key));
    }
    void read_key(Table& table, const Key& key, std::optional<Located<Value>>& into) const;
    void read_key(Table& table, const Key& key, std::vector<LegendEntry>& into) const;
    void read_key(Table& table, const Key& key, std::optional<ShapeDraft>& into) const;
    void read_key(Table& table, const Key& key, std::optional<std::vector<ShapeDraft>>& into) const {
        into = read_shapes(table, name(key));
    }
    void read_key(Table& table, const Key& key, std::vector<std::pair<Name, ShapeDraft>>& into) const;
    void read_key(Table& table, const Key& key, std::vector<ObjectCarve>& into) const;
    void read_key(Table& table, const Key& key, std::optional<std::vector<CarveDraft>>& into) const;
    void read_key(Table& table, const Key& key, std::map<std::string, Located<std::string>>& into) const;
    void read_key(Table& table, const Key& key, std::optional<Sheet>& into) const;
    void read_key(Table& table, const Key& key, std::optional<GrowthDraft>& into) const;
    void read_key(Table& table, const Key& key, std::vector<NoteDraft>& into) const;
    void read_key(Table& table, const Key& key, std::vector<std::pair<Name, Located<std::int64_t>>>& into) const;
    void read_key(Table& table, const Key& key, std::vector<std::pair<Name, Located<std::string>>>& into) const;
    void read_key(Table& table, const Key& key, BodyDraft& into) const;
    void read_key(Table& table, const Key& key, MergeSettings& into) const;
    void read_key(Table& table, const Key& key, MergeForms& into) const;
    void read_key(Table& table, const Key& key, TileDraft& set_of_rule) const;

    // ---- tables of things
    template <class Draft>
    void read_key(Table& table, const Key& key, std::vector<Draft>& into) const {
        if constexpr (keys::is_named<Draft>)
            each_table(table, name(key), std::string(key.item), [&](const Name& called, Table& one) {
                Draft draft;
                draft.name = called;
                read(one, draft);
                one.finish();
                into.push_back(std::move(draft));
            });
        else
            read_list(table, key, into);
    }
    template <class Draft>
    void read_key(Table& table, const Key& key, std::optional<std::vector<Draft>>& into) const {
        std::vector<Draft> list;
        if (read_list(table, key, list)) into = std::move(list);
    }
    // Returns false if the table has no such key.
    template <class Draft>
    bool read_list(Table& table, const Key& key, std::vector<Draft>& into) const {
        if (const toml::array* items = table.tree()[key.name].as_array()) into.reserve(items->size());
        return table.each(name(key), fmt::format("{} of {}", key.item, table.what()), std::string(key.example).c_str(),
                          [&](Table one) {
                              Draft draft;
                              if constexpr (HasPlace<Draft>) draft.place = one.place();
                              if constexpr (std::is_same_v<Draft, LayerDraft>) one.call_by_name("layer");
                              if constexpr (std::is_same_v<Draft, ObjectDraft>) one.call_by_name("object");
                              read(one, draft);
                              one.finish();
                              if (is_worth_keeping(draft)) into.push_back(std::move(draft));
                          });
    }
    // Returns whether enough was given for further findings to make sense.
    template <class Draft>
    [[nodiscard]] static bool is_worth_keeping(const Draft&) {
        return true;
    }
    [[nodiscard]] static bool is_worth_keeping(const WaiverDraft& draft) { return !draft.rule.value.empty(); }
    [[nodiscard]] static bool is_worth_keeping(const ReactionDraft& draft) { return !draft.fires.value.empty(); }
    [[nodiscard]] static bool is_worth_keeping(const MemberDraft& draft) { return !draft.tile.value.empty(); }

    // ---- several keys that say what one member holds
    template <class Draft>
    void read_group(Table& table, Draft&, Orientation& into) const {
        read_orientation(table, into);
    }
    void read_group(Table& table, ObjectDraft& draft, decltype(ObjectDraft::form)& into) const;
    void read_group(Table&, ShapeDraft&, Form&) const {}   // read_shape does
    void read_group(Table& table, LayerDraft& draft, std::vector<Located<std::string>>& rows) const;
    void read_group(Table& table, BlockDraft& draft, std::vector<Located<std::string>>& rows) const;
    void read_group(Table& table, KindDraft& draft, std::vector<FieldDraft>& into) const;
    void read_group(Table& table, BodyDraft& draft, decltype(BodyDraft::form)& into) const;
    void read_group(Table& table, FeelerDraft& draft, BodyDraft& into) const;

    const Reading* reading_ = nullptr;
    const MapDraft* map_ = nullptr;
};

}   // namespace dryground::files
