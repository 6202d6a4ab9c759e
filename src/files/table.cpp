// Reads the keys of a TOML table, each with its place: see table_internal.hpp.

#include "table_internal.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <limits>

namespace dryground::files {

void Source::add(Rule rule, const Place& place, std::vector<std::string> arguments, std::optional<Hint> hint) const {
    Finding finding;
    finding.rule = rule;
    finding.severity = rule_text(rule).severity;
    finding.place = place;
    finding.arguments = std::move(arguments);
    finding.hint = std::move(hint);
    report.add(std::move(finding));
}

std::string sort_of(const toml::node& node) {
    switch (node.type()) {
        case toml::node_type::string:
            return "a text";
        case toml::node_type::integer:
            return "a whole number";
        case toml::node_type::floating_point:
            return "a number";
        case toml::node_type::boolean:
            return "a yes/no";
        case toml::node_type::array:
            return fmt::format("a list of {}", node.as_array()->size());
        case toml::node_type::table:
            return "a table";
        default:
            return "a date or time";
    }
}

void add_wrong_type(const Source& source, const toml::node& node, const std::string& subject,
                    const std::string& should_be) {
    source.add(Rule::wrong_type, source.of(node), {subject, sort_of(node), should_be});
}

std::optional<Value> value_of(const toml::node& node) {
    if (const auto* b = node.as_boolean()) return Value{b->get()};
    if (const auto* i = node.as_integer()) return Value{i->get()};
    if (const auto* d = node.as_floating_point()) return Value{d->get()};
    if (const auto* s = node.as_string()) return Value{s->get()};
    const auto* array = node.as_array();
    if (array == nullptr) return std::nullopt;
    Value::List list;
    for (const toml::node& item : *array) {
        auto value = value_of(item);
        if (!value) return std::nullopt;
        list.push_back(std::move(*value));
    }
    return Value{std::move(list)};
}

void Table::wrong(const toml::node& node, const std::string& subject, const std::string& should_be) const {
    add_wrong_type(source_, node, subject, should_be);
}

const toml::node* Table::take(const char* key) {
    if (asked_.empty()) asked_.reserve(40);   // about as many as an object may have
    asked_.emplace_back(key);
    return table_.get(key);
}

const toml::node* Table::node(const char* key) { return take(key); }

namespace {

std::string quoted(const char* key) { return fmt::format("'{}'", key); }

}   // namespace

void Table::wrong_list(const toml::node& node, const char* key, std::size_t count, bool whole) const {
    const char* numbers = whole ? "whole number" : "number";
    if (const auto* array = node.as_array(); array != nullptr && array->size() == count)
        for (std::size_t i = 0; i < count; ++i)
            if (const toml::node& item = *array->get(i); !item.is_integer() && (whole || !item.is_floating_point())) {
                wrong(item, fmt::format("number {} of '{}'", i + 1, key), fmt::format("a {}", numbers));
                return;
            }
    wrong(node, quoted(key), fmt::format("a list of {} {}s", count, numbers));
}

std::optional<Located<std::string>> Table::text(const char* key) {
    const toml::node* node = take(key);
    if (node == nullptr) return std::nullopt;
    if (const auto* value = node->as_string()) {
        const toml::source_position at = node->source().begin;
        const auto rows = source_.rows.find({at.line, at.column});
        return Located<std::string>(rows != source_.rows.end() ? std::string(rows->second) : value->get(),
                                    source_.of(*node));
    }
    wrong(*node, quoted(key), "a text");
    return std::nullopt;
}

std::optional<Located<bool>> Table::yes_no(const char* key) {
    const toml::node* node = take(key);
    if (node == nullptr) return std::nullopt;
    if (const auto* value = node->as_boolean()) return Located<bool>(value->get(), source_.of(*node));
    wrong(*node, quoted(key), "true or false");
    return std::nullopt;
}

namespace {

std::optional<double> as_number(const toml::node& node) {
    if (const auto* i = node.as_integer()) return static_cast<double>(i->get());
    if (const auto* d = node.as_floating_point()) return d->get();
    return std::nullopt;
}

}   // namespace

std::optional<Located<double>> Table::number(const char* key) {
    const toml::node* node = take(key);
    if (node == nullptr) return std::nullopt;
    const auto value = as_number(*node);
    if (!value)
        wrong(*node, quoted(key), "a number");
    else if (!std::isfinite(*value))
        source_.add(Rule::out_of_range, source_.of(*node), {quoted(key), fmt::format("{}", *value), "a finite number"});
    else
        return Located<double>(*value, source_.of(*node));
    return std::nullopt;
}

std::optional<Located<std::int64_t>> Table::whole(const char* key) {
    const toml::node* node = take(key);
    if (node == nullptr) return std::nullopt;
    if (const auto* value = node->as_integer()) return Located<std::int64_t>(value->get(), source_.of(*node));
    wrong(*node, quoted(key), "a whole number");
    return std::nullopt;
}

std::optional<Located<std::vector<double>>> Table::numbers(const char* key, std::size_t count) {
    const toml::node* node = take(key);
    if (node == nullptr) return std::nullopt;
    const auto* array = node->as_array();
    std::vector<double> result;
    if (array != nullptr)
        for (const toml::node& item : *array)
            if (const auto value = as_number(item)) result.push_back(*value);
    if (array == nullptr || array->size() != count || result.size() != count) {
        wrong_list(*node, key, count, false);
        return std::nullopt;
    }
    if (!std::all_of(result.begin(), result.end(), [](double d) { return std::isfinite(d); })) {
        source_.add(Rule::out_of_range, source_.of(*node),
                    {quoted(key), fmt::format("[{}]", fmt::join(result, ", ")), "finite numbers"});
        return std::nullopt;
    }
    return Located<std::vector<double>>(std::move(result), source_.of(*node));
}

std::optional<Located<std::vector<int>>> Table::wholes(const char* key, std::size_t count) {
    const toml::node* node = take(key);
    if (node == nullptr) return std::nullopt;
    const auto* array = node->as_array();
    std::vector<int> result;
    bool in_int = true;
    if (array != nullptr)
        for (const toml::node& item : *array)
            if (const auto* value = item.as_integer()) {
                in_int = in_int && value->get() >= std::numeric_limits<int>::min() / 2 &&
                         value->get() <= std::numeric_limits<int>::max() / 2;
                result.push_back(in_int ? static_cast<int>(value->get()) : 0);
            }
    if (array == nullptr || array->size() != count || result.size() != count) {
        wrong_list(*node, key, count, true);
        return std::nullopt;
    }
    if (!in_int) {
        source_.add(Rule::out_of_range, source_.of(*node),
                    {quoted(key), "a number of more than nine digits", "smaller"});
        return std::nullopt;
    }
    return Located<std::vector<int>>(std::move(result), source_.of(*node));
}

std::optional<Names> Table::names(const char* key) {
    const toml::node* node = take(key);
    if (node == nullptr) return std::nullopt;
    const auto* array = node->as_array();
    if (array == nullptr) {
        wrong(*node, quoted(key), "a list of texts");
        return std::nullopt;
    }
    Names result;
    for (const toml::node& item : *array) {
        if (const auto* value = item.as_string())
            result.emplace_back(value->get(), source_.of(item));
        else
            wrong(item, fmt::format("an item of '{}'", key), "a text");
    }
    return result;
}

std::optional<std::vector<std::string>> Table::texts(const char* key) {
    const auto said = names(key);
    if (!said) return std::nullopt;
    std::vector<std::string> result;
    for (const Name& name : *said) result.push_back(name.value);
    return result;
}

std::optional<Table> Table::table(const char* key, std::string what) {
    const toml::node* node = take(key);
    if (node == nullptr) return std::nullopt;
    if (const auto* inner = node->as_table()) return Table(source_, *inner, std::move(what));
    wrong(*node, quoted(key), "a table { … }");
    return std::nullopt;
}

void Table::call_by_name(const std::string& sort) {
    if (const toml::node* name = table_.get("name"); name != nullptr && name->is_string())
        what_ = fmt::format("{} '{}'", sort, name->as_string()->get());
}

const toml::array* Table::list(const char* key, const std::string& should_be) {
    const toml::node* node = take(key);
    if (node == nullptr) return nullptr;
    if (const auto* array = node->as_array()) return array;
    wrong(*node, quoted(key), should_be);
    return nullptr;
}

void Table::missing(const char* key, std::string example) {
    source_.add(Rule::missing_key, place(), {what_, key}, Hint{"add it", std::move(example)});
}

Name Table::required_text(const char* key, const char* example) {
    if (!has(key)) missing(key, example);
    return text(key).value_or(Name("", place()));
}

std::vector<Entry> Table::entries() const {
    std::vector<Entry> result;
    for (const auto& [key, node] : table_)
        result.push_back({Name(std::string(key.str()), source_.at(key.source().begin)), &node});
    std::sort(result.begin(), result.end(), [](const Entry& a, const Entry& b) {
        return std::pair(a.key.place.line, a.key.place.column) < std::pair(b.key.place.line, b.key.place.column);
    });
    return result;
}

namespace {

// Returns the present name of a key that had another name once.
std::string_view name_now(std::string_view name) {
    static constexpr std::pair<std::string_view, std::string_view> names[] = {
        {"fields", "props"}, {"map_fields", "map_props"}, {"layer_fields", "layer_props"}, {"fine", "cell_parts"}};
    for (const auto& [then, now] : names)
        if (then == name) return now;
    return {};
}

}   // namespace

void Table::finish() {
    const auto is_asked = [&](const auto& key) {
        return std::find(asked_.begin(), asked_.end(), key.str()) != asked_.end();
    };
    if (std::all_of(table_.begin(), table_.end(), [&](const auto& entry) { return is_asked(entry.first); })) return;
    std::sort(asked_.begin(), asked_.end());
    const std::vector<std::string> known(asked_.begin(), std::unique(asked_.begin(), asked_.end()));
    for (const Entry& entry : entries()) {
        if (std::find(known.begin(), known.end(), entry.key.value) != known.end()) continue;
        std::optional<Hint> hint;
        if (const auto now = name_now(entry.key.value); std::binary_search(known.begin(), known.end(), now))
            hint = Hint{"it is called", std::string(now)};
        else if (const auto nearest = nearest_name(entry.key.value, known))
            hint = Hint{"did you mean", *nearest};
        else
            hint = Hint{fmt::format("its keys: {}", fmt::join(known, ", ")), ""};
        source_.add(Rule::unknown_key, entry.key.place, {entry.key.value, what_}, std::move(hint));
    }
}

}   // namespace dryground::files
