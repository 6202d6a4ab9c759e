// Inside the files room: writes drafts by the lists of their keys. How a member of some type looks as TOML is defined
// here, once for each type; defaults are left out.
#pragma once

#include <fmt/format.h>

#include <cstring>

#include "keys/world_keys_internal.hpp"
#include "writing_internal.hpp"

namespace dryground::files {

template <class Draft>
inline constexpr bool stands_apart =
    keys::is_named<Draft> || std::is_same_v<Draft, NoteDraft> || std::is_same_v<Draft, LegendEntry> ||
    std::is_same_v<Draft, LayerDraft> || std::is_same_v<Draft, TileRule> ||
    std::is_same_v<Draft, std::pair<Name, ShapeDraft>> ||
    std::is_same_v<Draft, std::pair<Name, Located<std::int64_t>>> ||
    std::is_same_v<Draft, std::pair<Name, Located<std::string>>>;

class KeyWriter {
public:
    // `folder`: of the file that is written, relative to the world's.
    explicit KeyWriter(std::string folder = {}) : folder_(std::move(folder)) {}

    template <class Draft>
    void write(toml_text::Pairs& pairs, const Draft& draft) const {
        const Draft standard;
        keys::each_key(keys::Of<Draft>{}, [&](const auto& key, auto member) {
            if constexpr (std::is_same_v<std::decay_t<decltype(key)>, keys::Group>)
                write_group(pairs, draft, draft.*member);
            else
                write_key(pairs, key, draft.*member, standard.*member);
        });
    }
    template <class Draft>
    [[nodiscard]] toml_text::Pairs pairs(const Draft& draft) const {
        toml_text::Pairs pairs;
        write(pairs, draft);
        return pairs;
    }

private:
    using Key = keys::Key;
    using Pairs = toml_text::Pairs;

    template <class T>
    void write_key(Pairs& pairs, const Key& key, const T& said, const T& standard) const {
        if (key.always || key.required || !(said == standard)) pairs.add(key.name, toml(said));
    }
    template <class T>
    void write_key(Pairs& pairs, const Key& key, const Located<T>& said, const Located<T>& standard) const {
        write_key(pairs, key, said.value, standard.value);
    }
    template <class T>
    void write_key(Pairs& pairs, const Key& key, const std::optional<T>& said, const std::optional<T>&) const {
        if (said) pairs.add(key.name, toml(*said));
    }
    void write_key(Pairs& pairs, const Key& key, const Names& said, const Names&) const {
        if (key.always || !said.empty()) pairs.add(key.name, toml(said));
    }
    void write_key(Pairs& pairs, const Key& key, MergeForms said, MergeForms standard) const {
        if (said != standard) pairs.add(key.name, toml_text::texts(names_of(said)));
    }
    void write_key(Pairs& pairs, const Key&, const SaidProperties& said, const SaidProperties&) const {
        pairs.add_properties(said);
    }
    void write_key(Pairs& pairs, const Key&, const std::optional<ShapeDraft>& said,
                   const std::optional<ShapeDraft>&) const {
        if (said) pairs.add("area", shapes_toml(*said).front());
    }
    void write_key(Pairs& pairs, const Key& key, const std::vector<FieldDraft>& said,
                   const std::vector<FieldDraft>&) const {
        if (key.name != "props") return;   // in a table of its own
        for (const FieldDraft& field : said) pairs.add_path("props", field.name.value, this->pairs(field).table());
    }
    void write_key(Pairs& pairs, const Key& key, const std::vector<ObjectCarve>& said,
                   const std::vector<ObjectCarve>&) const {
        if (!said.empty()) pairs.add(key.name, carves_toml(said));
    }
    void write_key(Pairs& pairs, const Key& key, const std::map<std::string, Located<std::string>>& said,
                   const std::map<std::string, Located<std::string>>&) const {
        Pairs inner;
        for (const auto& [name, word] : said) inner.add(name, toml(word));
        if (!inner.empty()) pairs.add(key.name, inner.table());
    }
    // The sheet's own file is a path.
    void write_key(Pairs& pairs, const Key& key, const std::string& said, const std::string& standard) const {
        if (key.is_path)
            pairs.add(key.name, path_toml(said, folder_));
        else if (key.always || key.required || said != standard)
            pairs.add(key.name, toml(said));
    }
    void write_key(Pairs& pairs, const Key& key, const BodyDraft& said, const BodyDraft&) const {
        pairs.add(key.name, this->pairs(said).table());
    }
    void write_key(Pairs& pairs, const Key& key, const TileDraft& set_of_rule, const TileDraft&) const {
        pairs.add(key.name, this->pairs(set_of_rule).table());
    }
    void write_key(Pairs& pairs, const Key& key, const std::vector<FeelerDraft>& said,
                   const std::vector<FeelerDraft>&) const {
        for (const FeelerDraft& feeler : said)
            pairs.add_path(std::string(key.name), feeler.name.value, this->pairs(feeler).table());
    }
    // Lists of tables that stand in the table of what they belong to.
    template <class Draft>
    void write_list(Pairs& pairs, const Key& key, const std::vector<Draft>& said) const {
        if (said.empty() && !key.always) return;
        std::vector<std::string> items;
        for (const Draft& one : said) items.push_back(toml(one));
        pairs.add(key.name, key.by_line ? toml_text::list_by_line(items) : toml_text::list(items));
    }
    void write_key(Pairs& pairs, const Key& key, const Waivers& said, const Waivers&) const {
        write_list(pairs, key, said);
    }
    void write_key(Pairs& pairs, const Key& key, const std::vector<ExceptDraft>& said,
                   const std::vector<ExceptDraft>&) const {
        write_list(pairs, key, said);
    }
    void write_key(Pairs& pairs, const Key& key, const std::vector<MemberDraft>& said,
                   const std::vector<MemberDraft>&) const {
        write_list(pairs, key, said);
    }
    // Writes what stands apart in a file: below the keys, in tables of their own.
    template <class Draft>
    requires stands_apart<Draft>
    void write_key(Pairs&, const Key&, const std::vector<Draft>&, const std::vector<Draft>&) const {}
    void write_key(Pairs&, const Key&, const MergeSettings&, const MergeSettings&) const {}

    // ---- values
    [[nodiscard]] static std::string toml(bool said) { return said ? "true" : "false"; }
    [[nodiscard]] static std::string toml(double said) { return toml_text::number(said); }
    [[nodiscard]] static std::string toml(int said) { return fmt::format("{}", said); }
    [[nodiscard]] static std::string toml(std::uint64_t said) {
        return fmt::format("{}", static_cast<std::int64_t>(said));
    }
    [[nodiscard]] static std::string toml(const std::string& said) { return toml_text::in_quotes(said); }
    template <class T>
    [[nodiscard]] std::string toml(const Located<T>& said) const {
        return toml(said.value);
    }
    [[nodiscard]] static std::string toml(const Value& said) { return toml_text::value(said); }
    [[nodiscard]] static std::string toml(const Colour& said) { return colour_toml(said); }
    [[nodiscard]] static std::string toml(const Surface& said) { return surface_toml(said); }
    [[nodiscard]] std::string toml(const Picture& said) const { return picture_toml(said, folder_); }
    template <class T>
    [[nodiscard]] std::string toml(const std::vector<T>& said) const {
        std::vector<std::string> items;
        for (const T& one : said) items.push_back(toml(one));
        return toml_text::list(items);
    }
    template <class T, std::size_t n>
    [[nodiscard]] std::string toml(const std::array<T, n>& said) const {
        return toml(std::vector<T>(said.begin(), said.end()));
    }
    [[nodiscard]] std::string toml(const Cell& said) const { return toml(std::array{said.column, said.row}); }
    [[nodiscard]] std::string toml(const CellArea& said) const {
        return toml(std::array{said.column, said.row, said.columns, said.rows});
    }
    [[nodiscard]] static std::string toml(const std::vector<ShapeDraft>& said) { return shapes_toml(said); }
    [[nodiscard]] static std::string toml(const CarveDraft& said) { return carve_toml(said); }
    template <class Draft>
    requires requires(Draft draft) {
        keys::each_key(keys::Of<Draft>{}, [](const auto&, auto) {});
    }
    [[nodiscard]] std::string toml(const Draft& said) const { return pairs(said).table(); }

    // ---- several keys that say what one member holds
    template <class Draft>
    void write_group(Pairs& pairs, const Draft&, const Orientation& said) const {
        add_orientation(pairs, said);
    }
    void write_group(Pairs& pairs, const ObjectDraft& draft, const decltype(ObjectDraft::form)&) const {
        add_place(pairs, draft);
    }
    void write_group(Pairs& pairs, const BodyDraft& body, const decltype(BodyDraft::form)&) const {
        add_body(pairs, body);
    }
    void write_group(Pairs& pairs, const FeelerDraft&, const BodyDraft& body) const { add_body(pairs, body); }
    void write_group(Pairs& pairs, const KindDraft& kind, const std::vector<FieldDraft>& said) const {
        for (const FieldDraft& field : said) pairs.add_path("props", field.name.value, this->pairs(field).table());
        for (const auto& [name, value] : kind.props) pairs.add_path("props", name, toml(value));
    }
    void write_group(Pairs& pairs, const ShapeDraft&, const Form& form) const { add_form(pairs, form); }
    // Rows and legends stand apart.
    void write_group(Pairs&, const LayerDraft&, const std::vector<Located<std::string>>&) const {}
    void write_group(Pairs&, const BlockDraft&, const std::vector<Located<std::string>>&) const {}

    std::string folder_;
};

}   // namespace dryground::files
