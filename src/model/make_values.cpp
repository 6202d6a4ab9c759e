// Makes declared properties and the values given to them: every value has the declared type.

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "choose_internal.hpp"
#include "maker_internal.hpp"

namespace dryground {

namespace {

std::string sort_of(const Value& value) {
    static constexpr const char* sorts[] = {"a yes/no", "a whole number", "a number", "a text", "a place", "a list"};
    return sorts[value.is.index()];
}

bool is_colour(const std::string& text) {
    return (text.size() == 7 || text.size() == 9) && text[0] == '#' &&
           text.find_first_not_of("0123456789abcdefABCDEF", 1) == std::string::npos;
}

bool names_something(FieldType type) {
    return type == FieldType::ref || type == FieldType::map || type == FieldType::tile || type == FieldType::fact;
}

std::optional<double> as_number(const Value& value) {
    if (const auto* whole = std::get_if<std::int64_t>(&value.is)) return static_cast<double>(*whole);
    if (const auto* number = std::get_if<double>(&value.is)) return *number;
    return std::nullopt;
}

}   // namespace

Fields WorldMaker::make_fields(const std::vector<FieldDraft>& drafts) {
    Fields fields;
    NameIndex index{"property", {}, {}, {}};
    for (const FieldDraft& draft : drafts) {
        if (!declare(index, draft.name)) continue;
        const std::string words = fmt::format("property '{}'", draft.name.value);
        Field field;
        field.type = choose<FieldType>(draft.type, fmt::format("the type of {}", words));
        field.least = draft.least;
        field.most = draft.most;
        field.note = draft.note;
        field.optional = draft.optional;
        if (field.type == FieldType::choice) {
            for (const Name& choice : draft.of) field.choices.push_back(choice.value);
            if (field.choices.empty())
                add(Rule::missing_key, draft.name.place, {words, "of"},
                    Hint{"list what can be chosen", "of = [\"calm\", \"cross\"]"});
        }
        if (field.type == FieldType::list && !draft.of.empty())
            field.holds = choose<FieldType>(draft.of[0], fmt::format("what {} holds", words));
        if (draft.standard) {
            std::string why;
            field.standard = fit(field, field.type, *draft.standard, why);
            if (!field.standard) {
                add(Rule::kind_field, draft.standard->place, {draft.name.value, "", "the default " + why});
                field.optional = true;   // reported once, not again for everything without a value
            }
        }
        fields[draft.name.value] = std::move(field);
    }
    return fields;
}

std::string WorldMaker::misfit_name(FieldType type, const std::string& name, const Place& place) {
    if (type == FieldType::fact && facts_.find(name) == FactId::none)
        return fmt::format("names fact '{}', which is not declared", name);
    if (type == FieldType::file && (name.empty() || name[0] == '/'))
        return fmt::format("is '{}', but should be a path", name);
    // Maps and objects may be made later.
    if (names_something(type) && type != FieldType::fact) references_.push_back({type, name, "", "", place, map_name_});
    return {};
}

// Returns the value in the declared type, or why it does not fit ("is a text, but should be a number").
std::optional<Value> WorldMaker::fit(const Field& field, FieldType type, const Located<Value>& said, std::string& why) {
    const Value& value = said.value;
    const auto wants = [&](const char* what) {
        why = fmt::format("is {}, but should be {}", sort_of(value), what);
        return std::nullopt;
    };
    const auto within = [&](double number) {
        if ((!field.least || number >= *field.least) && (!field.most || number <= *field.most) && std::isfinite(number))
            return true;
        why = fmt::format(
            "is {}, but should be {}{}{}", number, field.least ? fmt::format("at least {}", *field.least) : "",
            field.least && field.most ? " and " : "", field.most ? fmt::format("at most {}", *field.most) : "");
        return false;
    };
    switch (type) {
        case FieldType::yes_no:
            if (!std::holds_alternative<bool>(value.is)) return wants("true or false");
            return value;
        case FieldType::whole:
            if (!std::holds_alternative<std::int64_t>(value.is)) return wants("a whole number");
            return within(*as_number(value)) ? std::optional(value) : std::nullopt;
        case FieldType::number:
            if (!as_number(value)) return wants("a number");
            return within(*as_number(value)) ? std::optional(Value{*as_number(value)}) : std::nullopt;
        case FieldType::place: {
            const auto* list = std::get_if<Value::List>(&value.is);
            if (std::holds_alternative<std::array<double, 2>>(value.is)) return value;
            if (list == nullptr || list->size() != 2 || !as_number((*list)[0]) || !as_number((*list)[1]))
                return wants("a place [x, y] in px");
            const std::array<double, 2> place{*as_number((*list)[0]), *as_number((*list)[1])};
            if (!in_range(place[0]) || !in_range(place[1])) return wants("a place within two million px");
            return Value{place};
        }
        case FieldType::list: {
            const auto* list = std::get_if<Value::List>(&value.is);
            if (list == nullptr) return wants("a list");
            Value::List fitted;
            for (const Value& item : *list) {
                auto one =
                    fit(field, field.holds == FieldType::list ? FieldType::text : field.holds, {item, said.place}, why);
                if (!one) {
                    why.insert(0, "holds an item that ");
                    return std::nullopt;
                }
                fitted.push_back(std::move(*one));
            }
            return Value{std::move(fitted)};
        }
        default:
            break;
    }
    const auto* text = std::get_if<std::string>(&value.is);
    if (text == nullptr) return wants(type == FieldType::choice ? "one of its choices" : "a text");
    if (type == FieldType::choice &&
        std::find(field.choices.begin(), field.choices.end(), *text) == field.choices.end()) {
        why = fmt::format("is '{}', but should be one of {}", *text, fmt::join(field.choices, ", "));
        return std::nullopt;
    }
    if (type == FieldType::colour && !is_colour(*text)) {
        why = fmt::format("is '{}', but should be a colour such as #7a5c3a", *text);
        return std::nullopt;
    }
    why = misfit_name(type, *text, said.place);
    return why.empty() ? std::optional(value) : std::nullopt;
}

Properties WorldMaker::make_properties(const Fields& fields, const SaidProperties& said, const std::string& owner,
                                       const Place& place) {
    std::vector<std::string> names;
    for (const auto& [name, field] : fields) names.push_back(name);
    Properties result;
    for (const auto& [name, value] : said) {
        const auto field = fields.find(name);
        if (field == fields.end()) {
            const auto nearest = nearest_name(name, names);
            add(Rule::kind_field, value.place, {name, " of " + owner, "no such property is declared"},
                nearest         ? Hint{"did you mean", *nearest}
                : names.empty() ? Hint{"it has none", ""}
                                : Hint{fmt::format("its properties: {}", fmt::join(names, ", ")), ""});
            continue;
        }
        std::string why;
        if (auto fitted = fit(field->second, field->second.type, value, why))
            result[name] = std::move(*fitted);
        else
            add(Rule::kind_field, value.place, {name, " of " + owner, why});
    }
    for (const auto& [name, field] : fields) {
        if (said.count(name) > 0) continue;
        if (field.standard)
            result[name] = *field.standard;
        else if (!field.optional)
            add(Rule::kind_field, place, {name, " of " + owner, "it has no default, so it must be given"},
                Hint{"add it to its props", fmt::format("props = {{ {} = … }}", name)});
    }
    return result;
}

void WorldMaker::check_references() {
    for (const Reference& reference : references_) {
        const auto slash = reference.name.find('/');
        const std::string head = reference.name.substr(0, slash),
                          tail = slash == std::string::npos ? "" : reference.name.substr(slash + 1);
        bool known = false;
        const NameIndex* index = &maps_;
        std::string sort = "map";
        if (reference.type == FieldType::map) {
            known = world_.lacks_maps || maps_.find(reference.name) != MapId::none;
        } else if (reference.type == FieldType::ref) {
            const MapId map = maps_.find(slash == std::string::npos ? reference.map : head);
            if (map == MapId::none && world_.lacks_maps) continue;   // it may be one of those
            known = map != MapId::none && parts_.maps[dryground::index(map)].find_object(
                                              slash == std::string::npos ? head : tail) != ObjectId::none;
            sort = "object";
        } else {
            index = &tilesets_;
            sort = "tile";
            if (const TileSetId set = tilesets_.find(head); set != TileSetId::none)
                known = parts_.tilesets[dryground::index(set)].find(tail) >= 0;
        }
        if (known) continue;
        const auto nearest = nearest_name(reference.name, index->names);
        add(Rule::unknown_name, reference.place, {sort, reference.name},
            nearest ? std::optional(Hint{"did you mean", *nearest}) : std::nullopt);
    }
}

}   // namespace dryground
