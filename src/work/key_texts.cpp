// What a TOML text contains, key by key, for comparing two versions of a file.

#include "key_texts_internal.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "../files/text_edits_internal.hpp"
#include "../files/toml_internal.hpp"

namespace dryground::work {

namespace {

void add_leaves(const files::TextEdits& text, const toml::table& table, const std::string& path, KeyTexts& said) {
    for (const auto& [key, node] : table) {
        const std::string way = path.empty() ? std::string(key.str()) : fmt::format("{}.{}", path, key.str());
        const toml::table* inner = node.as_table();
        if (inner != nullptr && !inner->is_inline()) {
            said.try_emplace(way);
            add_leaves(text, *inner, way, said);
            continue;
        }
        const std::size_t begin = text.offset(node.source().begin), end = text.offset(node.source().end);
        said[way] = text.text().substr(begin, end - begin);
    }
}

}   // namespace

KeyTexts key_texts(const std::string& toml) {
    KeyTexts said;
    const toml::parse_result parsed = toml::parse(toml);
    if (parsed) add_leaves(files::TextEdits(toml), parsed.table(), {}, said);
    return said;
}

std::vector<std::string> changed_keys(const KeyTexts& before, const KeyTexts& after, const std::string& of) {
    std::vector<std::string> keys;
    const auto look = [&](const KeyTexts& one, const KeyTexts& other) {
        for (auto i = one.lower_bound(of); i != one.end() && i->first.compare(0, of.size(), of) == 0; ++i) {
            const bool inside = i->first.size() == of.size() || i->first[of.size()] == '.';
            const auto same = other.find(i->first);
            if (!inside || (same != other.end() && same->second == i->second)) continue;
            std::string key = i->first.size() > of.size() ? i->first.substr(of.size() + 1) : std::string();
            if (std::find(keys.begin(), keys.end(), key) == keys.end()) keys.push_back(std::move(key));
        }
    };
    look(before, after);
    look(after, before);
    std::sort(keys.begin(), keys.end());
    return keys;
}

std::vector<std::string> names_in(const KeyTexts& said, const std::string& table) {
    std::vector<std::string> names;
    const std::string of = table + ".";
    for (auto i = said.lower_bound(of); i != said.end() && i->first.compare(0, of.size(), of) == 0; ++i) {
        const std::string name = i->first.substr(of.size(), i->first.find('.', of.size()) - of.size());
        if (names.empty() || names.back() != name) names.push_back(name);
    }
    std::sort(names.begin(), names.end());
    names.erase(std::unique(names.begin(), names.end()), names.end());
    return names;
}

}   // namespace dryground::work
