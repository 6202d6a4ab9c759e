// JSON Schemas (draft 7) of the three formats.
//
// Idea. Each thing becomes a definition, each of its keys a property of it; the type of a key determines the schema of
// its value. Of keys that express one thing in different ways exactly one is required.

#include <fmt/format.h>

#include <map>
#include <set>

#include "../json_internal.hpp"
#include "dryground/keys.hpp"
#include "dryground/merge.hpp"
#include "listing_internal.hpp"

namespace dryground {

namespace {

using files::Json;
using keys::Entry;
using keys::Sort;

constexpr const char* name_pattern = "^[a-z][a-z0-9_]*$";

class SchemaMaker {
public:
    explicit SchemaMaker(std::string_view format) : format_(format) {}

    Json run() {
        const keys::Thing& file = keys::thing(format_);
        static const std::map<std::string_view, const char*> titles{
            {"world", "A world of Dry Ground"}, {"tiles", "A tile set of Dry Ground"}, {"map", "A map of Dry Ground"}};
        Json schema{{"$schema", "http://json-schema.org/draft-07/schema#"}, {"title", titles.at(format_)}};
        Json keys{{"format", {{"const", fmt::format("dryground/{}/1", format_)}}}};
        Json body = object_of(file, std::move(keys), {"format"});
        for (auto& [key, value] : body.items()) schema[key] = std::move(value);
        while (!wanted_.empty()) {   // a definition may want others
            const std::string name = *wanted_.begin();
            wanted_.erase(wanted_.begin());
            if (!definitions_.contains(name)) definitions_[name] = definition(name);
        }
        std::map<std::string, Json> sorted;
        for (auto& [name, one] : definitions_.items()) sorted[name] = one;
        schema["definitions"] = Json::object();
        for (auto& [name, one] : sorted) schema["definitions"][name] = std::move(one);
        return schema;
    }

private:
    Json refer(const std::string& name) {
        wanted_.insert(name);
        return {{"$ref", "#/definitions/" + name}};
    }
    static Json list_of(Json items, int count = -1) {
        Json list{{"type", "array"}};
        if (count >= 0) list["minItems"] = count, list["maxItems"] = count;
        list["items"] = std::move(items);
        return list;
    }
    Json by_name(Json value) {
        return {{"type", "object"},
                {"additionalProperties", false},
                {"patternProperties", {{name_pattern, std::move(value)}}}};
    }
    static Json in_range(Json schema, const keys::Key& key) {
        const auto bound = [](double at) {
            return at == static_cast<double>(static_cast<long>(at)) ? Json(static_cast<long>(at)) : Json(at);
        };
        if (key.least > -1e300) schema["minimum"] = bound(key.least);
        if (key.most < 1e300) schema["maximum"] = bound(key.most);
        return schema;
    }
    static Json closed(Json properties, const std::vector<std::string>& required = {}) {
        Json schema{{"type", "object"}, {"additionalProperties", false}};
        if (!required.empty()) schema["required"] = required;
        schema["properties"] = std::move(properties);
        return schema;
    }
    // Returns a table that has a key. Strict validators want it named where it is required.
    static Json has(const std::string& key) {
        return {{"required", Json::array({key})}, {"properties", {{key, true}}}};
    }
    static Json points(int least) {
        Json list = list_of(list_of({{"type", "number"}}, 2));
        list["minItems"] = least;
        return list;
    }

    Json definition(const std::string& name) {
        if (name == "name") return {{"description", "lower_snake_case"}, {"type", "string"}, {"pattern", name_pattern}};
        if (name == "colour") return {{"type", "string"}, {"pattern", "^#[0-9a-fA-F]{6}$"}};
        if (name == "surface") {
            const Json number{{"type", "number"}, {"minimum", 0}, {"maximum", 1000}};
            return closed({{"friction", number}, {"restitution", number}});
        }
        if (name == "picture")
            return closed({{"file", {{"type", "string"}}}, {"at", list_of({{"type", "number"}}, 2)}}, {"file"});
        if (name == "legend_table") return legend_table();
        if (name == "shape_or_word")
            return {{"oneOf",
                     Json::array({Json{{"description", "\"cell\", or the name of a shared shape"}, {"type", "string"}},
                                  refer("shape")})}};
        if (name == "tile_set_keys") return object_of(keys::thing("tile"), Json::object(), {}, "like");
        return object_of(keys::thing(name), Json::object(), {});
    }

    Json legend_table() {
        Json entry = object_of(keys::thing("legend"), Json::object(), {});
        Json one = Json::array();
        for (const char* key : {"tile", "kind", "kinds", "family", "block"}) one.push_back(has(key));
        entry["oneOf"] = std::move(one);
        return {
            {"type", "object"},
            {"additionalProperties",
             {{"oneOf", Json::array({Json{{"description", "The name of a tile; \"\" for nothing."}, {"type", "string"}},
                                     std::move(entry)})}}}};
    }

    // Returns a table with the keys of a thing, `without` one of them.
    Json object_of(const keys::Thing& thing, Json properties, std::vector<std::string> required,
                   std::string_view without = {}) {
        std::map<int, Json> groups;
        for (const Entry& entry : thing.entries) {
            if (entry.key.name == without) continue;
            const std::string name(entry.key.name);
            properties[name] = described(entry);
            if (entry.key.required && entry.group < 0) required.push_back(name);
            if (entry.group >= 0) {
                Json& group = groups.try_emplace(entry.group, Json::array()).first->second;
                group.push_back(has(name));
            }
        }
        Json schema = closed(std::move(properties), required);
        if (thing.name == "for") schema["anyOf"] = Json::array({has("tiles"), has("tagged")});
        for (auto& [number, group] : groups)
            if (group.size() > 1)
                schema["oneOf"] = std::move(group);
            else
                schema["required"].push_back(group[0]["required"][0]);
        return schema;
    }

    // Adds what it means; a reference stands alone, as draft 7 requires.
    Json described(const Entry& entry) {
        Json schema = schema_of(entry);
        std::string says(entry.key.says);
        if (!entry.key.unit.empty()) says += fmt::format(" ({})", entry.key.unit);
        if (schema.contains("$ref")) return {{"description", says}, {"allOf", Json::array({std::move(schema)})}};
        Json out{{"description", says}};
        for (auto& [key, value] : schema.items()) out[key] = std::move(value);
        return out;
    }

    Json schema_of(const Entry& entry) {
        const keys::Key& key = entry.key;
        switch (entry.sort) {
            case Sort::yes_no:
                return {{"type", "boolean"}};
            case Sort::whole:
                if (!key.words.empty()) {
                    Json numbers = Json::array();
                    for (const std::string_view word : key.words) numbers.push_back(std::stoi(std::string(word)));
                    return {{"enum", std::move(numbers)}};
                }
                return in_range({{"type", "integer"}}, key);
            case Sort::number:
                return in_range({{"type", "number"}}, key);
            case Sort::text:
                if (!key.words.empty()) return {{"enum", words(key)}};
                if (key.names_it) return refer("name");
                return key.required ? Json{{"type", "string"}, {"minLength", 1}} : Json{{"type", "string"}};
            case Sort::texts: {
                Json list = list_of(key.refers == "form" ? Json{{"enum", forms()}} : Json{{"type", "string"}});
                return key.or_one ? Json{{"oneOf", Json::array({Json{{"type", "string"}}, std::move(list)})}} : list;
            }
            case Sort::wholes:
                return list_of(in_range({{"type", "integer"}}, key), entry.count);
            case Sort::numbers:
                return list_of(in_range({{"type", "number"}}, key), entry.count);
            case Sort::weights:
                return list_of(in_range({{"type", "number"}}, key));
            case Sort::points:
                return points(entry.count);
            case Sort::holes:
                return list_of(points(3));
            case Sort::rows:
                return {{"type", "string"}};
            case Sort::colour:
                return refer("colour");
            case Sort::picture:
                return refer("picture");
            case Sort::surface:
                return refer("surface");
            case Sort::trace:
                return closed({{"alpha", {{"type", "integer"}, {"minimum", 1}, {"maximum", 255}}},
                               {"within_px", {{"type", "number"}, {"minimum", 0}}}});
            case Sort::legend:
                return refer("legend_table");
            case Sort::goals:
                return closed({{"objects", list_of({{"type", "string"}})}, {"facts", list_of({{"type", "string"}})}});
            case Sort::value:
                return {
                    {"anyOf",
                     Json::array(
                         {{{"type", "boolean"}}, {{"type", "number"}}, {{"type", "string"}}, {{"type", "array"}}})}};
            case Sort::shape:
                return refer("shape_or_word");
            case Sort::shapes:
                return list_of(refer("shape_or_word"));
            case Sort::named_shapes:
                return by_name(refer("shape_or_word"));
            case Sort::table:
                return refer(entry.thing == "tile" ? "tile_set_keys" : std::string(entry.thing));
            case Sort::sides:
                return {{"type", "object"},
                        {"additionalProperties", false},
                        {"patternProperties",
                         {{"^(top|right|bottom|left|top_right|bottom_right|bottom_left|top_left)$",
                           {{"enum", words(key)}}}}}};
            case Sort::properties:
                return {{"type", "object"}};
            case Sort::property_types:
                return by_name(refer("property"));
            case Sort::kind_properties:
                return by_name({{"if", {{"type", "object"}}}, {"then", refer("property")}});
            case Sort::notes:
                return by_name({{"description", "A note for people."}, {"type", "string"}});
            case Sort::numbers_by_name:
                return by_name({{"type", "integer"}, {"minimum", 0}});
            case Sort::severities:
                return {{"type", "object"}, {"additionalProperties", {{"enum", words(key)}}}};
            case Sort::tables:
                return list_of(refer(std::string(entry.thing)));
            case Sort::named_tables:
                return by_name(refer(std::string(entry.thing)));
        }
        return {};
    }
    static Json words(const keys::Key& key) {
        Json list = Json::array();
        for (const std::string_view word : key.words) list.push_back(word);
        return list;
    }
    static Json forms() {
        Json list = Json::array();
        for (const std::string_view form : form_names()) list.push_back(form);
        return list;
    }

    const std::string_view format_;
    Json definitions_ = Json::object();
    std::set<std::string> wanted_;
};

}   // namespace

std::string schema_text(std::string_view format) {
    return format == "pack" ? keys::pack_schema_text() : files::json_text(SchemaMaker(format).run());
}

}   // namespace dryground
