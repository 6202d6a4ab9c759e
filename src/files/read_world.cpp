// The world file.

#include <fmt/format.h>

#include <algorithm>

#include "read_keys_internal.hpp"

namespace dryground::files {

namespace {

// Reads each entry of a table as a value that `from` takes out of its node; skips wrong ones.
template <class Item, class From>
void read_entries(Table& table, const keys::Key& key, const char* sort, const std::string& should_be, Item& into,
                  From from) {
    const auto inner = table.table(key.name.data(), fmt::format("'{}'", key.name));
    if (!inner) return;
    for (const Entry& entry : inner->entries())
        if (!from(entry, into))
            add_wrong_type(table.source(), *entry.node, fmt::format("{}'{}'", sort, entry.key.value), should_be);
}

}   // namespace

void KeyReader::read_key(Table& table, const Key& key, std::vector<NoteDraft>& into) const {
    read_entries(table, key, "", "a note in words, for people", into, [](const Entry& entry, auto& notes) {
        const auto* note = entry.node->as_string();
        notes.push_back({entry.key, note != nullptr ? note->get() : std::string()});
        return note != nullptr;
    });
}

void KeyReader::read_key(Table& table, const Key& key, std::vector<std::pair<Name, Located<std::string>>>& into) const {
    read_entries(table, key, "", fmt::format("one of {}", fmt::join(key.words, ", ")), into,
                 [&](const Entry& entry, auto& words) {
                     const auto* word = entry.node->as_string();
                     if (word != nullptr) words.emplace_back(entry.key, Name(word->get(), table.source().of(*word)));
                     return word != nullptr;
                 });
}

void KeyReader::read_key(Table& table, const Key& key,
                         std::vector<std::pair<Name, Located<std::int64_t>>>& into) const {
    read_entries(table, key, "limit ", "a whole number", into, [&](const Entry& entry, auto& numbers) {
        const auto* most = entry.node->as_integer();
        if (most != nullptr)
            numbers.emplace_back(entry.key, Located<std::int64_t>(most->get(), table.source().of(*most)));
        return most != nullptr;
    });
}

// Reads one of box, circle, capsule, beside which `at` may stand.
void KeyReader::read_group(Table& table, BodyDraft& draft, decltype(BodyDraft::form)& into) const {
    draft.place = table.place();
    if (said_of(table, keys::body_form).size() != 1) {
        table.source().add(Rule::missing_key, draft.place, {table.what(), "box"},
                           Hint{"set exactly one form", "box = [w, h], circle = r, or capsule = [w, h]"});
        into = BoxPx{0, 0, 1, 1};
    }
    if (const auto n = table.numbers("box", 2)) into = BoxPx{0, 0, n->value[0], n->value[1]};
    if (const auto r = table.number("circle")) into = EllipsePx{0, 0, r->value, r->value};
    if (const auto n = table.numbers("capsule", 2)) into = CapsulePx{n->value[0], n->value[1]};
    if (const auto at = table.numbers("at", 2)) draft.x = at->value[0], draft.y = at->value[1];
}

void KeyReader::read_group(Table& table, FeelerDraft&, BodyDraft& into) const { read(table, into); }

void KeyReader::read_key(Table& table, const Key& key, BodyDraft& into) const {
    miss(table, key);
    into.form = BoxPx{0, 0, 1, 1};
    auto inner = table.table(name(key), fmt::format("the body of {}", table.what()));
    if (!inner) return;
    read(*inner, into);
    inner->finish();
}

void KeyReader::read_key(Table& table, const Key& key, MergeSettings& into) const {
    auto inner = table.table(name(key), fmt::format("'{}'", key.name));
    if (!inner) return;
    read(*inner, into);
    inner->finish();
}

void KeyReader::read_key(Table& table, const Key& key, MergeForms& into) const {
    const auto words = table.names(name(key));
    if (!words) return;
    into = {};
    for (const Name& word : *words)
        if (const auto form = choice_of<MergeForm>(word.value))
            into.set(*form);
        else
            table.source().add(
                Rule::out_of_range, word.place,
                {"a form", fmt::format("'{}'", word.value), fmt::format("one of {}", fmt::join(form_names(), ", "))});
}

WorldFile read_world(const Reading& reading, const toml::table& node) {
    Table root(reading.source, node, "a world");
    WorldFile file;
    WorldDraft& draft = file.draft;
    draft.place = {reading.source.file, 1, 1, {}};
    (void)root.text("format");
    if (auto goals = root.table("goals", "'goals'")) {
        draft.goal_objects = goals->names("objects").value_or(Names{});
        draft.goal_facts = goals->names("facts").value_or(Names{});
        goals->finish();
    }
    file.tilesets = root.names("tilesets").value_or(Names{});
    file.maps = root.names("maps").value_or(Names{});
    KeyReader(reading).read(root, draft);
    if (const toml::table* merging = node["merging"].as_table())
        for (const auto& [key, value] : *merging)
            draft.places_of_merging[std::string(key.str())] = reading.source.of(value);
    root.finish();
    return file;
}

}   // namespace dryground::files
