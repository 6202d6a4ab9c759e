// The JSON Schema (draft 7) of packs.
//
// Idea. The lists of keys say what a writer takes for each key; the type of that says which schema its value has. Each
// thing becomes a definition. What is made by hand has its definition in pack_schema_by_hand.cpp.

#include "../write_pack_internal.hpp"
#include "listing_internal.hpp"

namespace dryground {

namespace {

using files::Json;
using packed::Key;

template <class T>
constexpr const char* name_of_thing = nullptr;
template <>
constexpr const char* name_of_thing<Picture> = "picture";
template <>
constexpr const char* name_of_thing<Surface> = "surface";
template <>
constexpr const char* name_of_thing<Field> = "field";
template <>
constexpr const char* name_of_thing<Barrier> = "barrier";
template <>
constexpr const char* name_of_thing<NamedThing> = "named";
template <>
constexpr const char* name_of_thing<Storey> = "storey";
template <>
constexpr const char* name_of_thing<Feeler> = "feeler";
template <>
constexpr const char* name_of_thing<Mover> = "mover";
template <>
constexpr const char* name_of_thing<Kind> = "kind";
template <>
constexpr const char* name_of_thing<packed::Goals> = "goals";
template <>
constexpr const char* name_of_thing<MergeSettings> = "merging";
template <>
constexpr const char* name_of_thing<Shape> = "shape";
template <>
constexpr const char* name_of_thing<Carve> = "carve";
template <>
constexpr const char* name_of_thing<Reaction> = "reaction";
template <>
constexpr const char* name_of_thing<TileImage> = "image";
template <>
constexpr const char* name_of_thing<Tile> = "tile";
template <>
constexpr const char* name_of_thing<Sheet> = "sheet";
template <>
constexpr const char* name_of_thing<TileSet> = "tileset";
template <>
constexpr const char* name_of_thing<Placed> = "placed_tile";
template <>
constexpr const char* name_of_thing<Growth> = "growth";
template <>
constexpr const char* name_of_thing<Layer> = "layer";
template <>
constexpr const char* name_of_thing<Link> = "link";
template <>
constexpr const char* name_of_thing<packed::CutAway> = "cut_away";
template <>
constexpr const char* name_of_thing<Object> = "object";
template <>
constexpr const char* name_of_thing<Map> = "packed_map";

template <class T>
struct Type {};

class PackSchema {
public:
    Json run() {
        Json schema{
            {"$schema", "http://json-schema.org/draft-07/schema#"},
            {"title", "Everything that a game loads, as `dryground pack` writes it"},
            {"description",
             "Lengths are px with y down, except for what `merge` holds, which is in `unit` with y as `y` says, "
             "`placed` likewise, and `at_m`. Keys that a `required` list names are always there, null where "
             "nothing is said; the others are optional: a map's `variants`, an object's `surface`, a surface's "
             "`friction` and `restitution`, and what the declaration of a property leaves out. Things refer to "
             "each other by name."}};
        const Json body = table<World>();
        for (const auto& [key, value] : body.items()) schema[key] = value;
        const Json rest = Json::parse(keys::pack_schema_by_hand());
        for (const auto& [name, definition] : rest.items()) definitions_[name] = definition;
        schema["definitions"] = Json::object();
        std::map<std::string, Json> sorted;
        for (const auto& [name, definition] : definitions_.items()) sorted[name] = definition;
        for (auto& [name, definition] : sorted) schema["definitions"][name] = std::move(definition);
        return schema;
    }

private:
    static Json refer(const std::string& name) { return {{"$ref", "#/definitions/" + name}}; }
    static Json list_of(Json items, std::size_t count) {
        return {{"type", "array"}, {"minItems", count}, {"maxItems", count}, {"items", std::move(items)}};
    }
    static Json by_name(Json value) { return {{"type", "object"}, {"additionalProperties", std::move(value)}}; }
    static Json words(std::span<const std::string_view> all) {
        Json list = Json::array();
        for (const std::string_view word : all) list.push_back(word);
        return {{"enum", std::move(list)}};
    }

    // Returns a table with the keys of a thing, and no others.
    template <class Thing>
    Json table() {
        Json required = Json::array(), properties = Json::object();
        each_key(packed::Of<Thing>{}, [&](const Key& key, const auto& from, const auto&) {
            using Said = packed::ValueOf<std::decay_t<decltype(from)>, Thing>;
            if (!key.optional) required.push_back(key.name);
            properties[std::string(key.name)] = described(key, schema_of(Type<Said>{}, key));
        });
        Json schema{{"type", "object"}, {"additionalProperties", false}};
        if (!required.empty()) schema["required"] = std::move(required);
        schema["properties"] = std::move(properties);
        return schema;
    }
    // Adds what it means; a reference stands alone, as draft 7 requires.
    static Json described(const Key& key, Json schema) {
        if (key.says.empty()) return schema;
        if (schema.contains("$ref")) return {{"description", key.says}, {"allOf", Json::array({std::move(schema)})}};
        Json out{{"description", key.says}};
        for (auto& [name, value] : schema.items()) out[name] = std::move(value);
        return out;
    }
    template <class Thing>
    Json definition() {
        const std::string name = name_of_thing<Thing>;
        if (!definitions_.contains(name)) {
            definitions_[name] = nullptr;   // so that it is made once, whoever it refers to
            Json made = table<Thing>();
            definitions_[name] = std::move(made);
        }
        return refer(name);
    }

    template <class T>
    Json schema_of(Type<T>, const Key& key) {
        if constexpr (packed::HasKeys<T>)
            return definition<T>();
        else if constexpr (packed::HasWords<T>)
            return words(WordsOf<T>::words);
        else if constexpr (std::is_same_v<T, Json>)
            return refer(std::string(key.form));
        else
            return text_of(key);
    }
    static Json text_of(const Key& key) {
        if (key.words.size() == 1) return {{"const", key.words.front()}};
        if (!key.words.empty()) return words(key.words);
        Json text{{"type", "string"}};
        if (!key.pattern.empty()) text["pattern"] = key.pattern;
        return text;
    }
    template <class T>
    requires std::is_arithmetic_v<T> Json schema_of(Type<T>, const Key& key) {
        if (std::is_same_v<T, bool>) return {{"type", "boolean"}};
        Json schema{{"type", std::is_integral_v<T> ? "integer" : "number"}};
        if (key.is_positive) schema["exclusiveMinimum"] = 0;
        if (key.least > -1e300) schema["minimum"] = files::number_json(key.least);
        if (key.most < 1e300) schema["maximum"] = files::number_json(key.most);
        return schema;
    }
    template <class T>
    Json schema_of(Type<std::optional<T>>, const Key& key) {
        Json one = schema_of(Type<T>{}, key);
        if (key.optional) return one;
        return {{"oneOf", Json::array({Json{{"type", "null"}}, std::move(one)})}};
    }
    template <class T>
    Json schema_of(Type<std::vector<T>>, const Key& key) {
        Json list{{"type", "array"}};
        if (key.fewest >= 0) list["minItems"] = key.fewest;
        if (key.most_items >= 0) list["maxItems"] = key.most_items;
        list["items"] = schema_of(Type<T>{}, Key{.name = key.name, .words = key.words, .always = true});
        return list;
    }
    template <class T, std::size_t n>
    Json schema_of(Type<std::array<T, n>>, const Key& key) {
        return list_of(schema_of(Type<T>{}, key), n);
    }
    template <class T>
    Json schema_of(Type<std::map<std::string, T>>, const Key& key) {
        return by_name(schema_of(Type<T>{}, key));
    }
    Json schema_of(Type<Properties>, const Key&) { return {{"type", "object"}}; }
    Json schema_of(Type<Value>, const Key&) { return Json::object(); }
    Json schema_of(Type<packed::Severities>, const Key&) { return by_name(words(WordsOf<Severity>::words)); }
    Json schema_of(Type<packed::Flags>, const Key&) { return {{"type", "array"}, {"items", {{"type", "string"}}}}; }
    Json schema_of(Type<MergeForms>, const Key&) { return {{"type", "array"}, {"items", words(form_names())}}; }
    Json schema_of(Type<packed::RowTexts>, const Key&) { return {{"type", "array"}, {"items", refer("row")}}; }
    Json schema_of(Type<Point>, const Key&) { return refer("place_px"); }
    Json schema_of(Type<Ring>, const Key&) { return refer("points_px"); }
    Json schema_of(Type<Regions>, const Key&) { return refer("area"); }
    Json schema_of(Type<Colour>, const Key&) { return refer("colour"); }
    Json schema_of(Type<Sides>, const Key&) {
        Json sides = Json::object();
        for (const std::string_view side : packed::side_names)
            sides[std::string(side)] = words(WordsOf<Passage>::words);
        return {{"type", "object"},
                {"required", packed::side_names},
                {"additionalProperties", false},
                {"properties", std::move(sides)}};
    }
    // What may be none: a world's player.
    template <IsId T>
    requires(!packed::HasWords<T>) Json schema_of(Type<T>, const Key& key) {
        const Json text{{"type", "string"}};
        return key.always ? text : Json{{"oneOf", Json::array({Json{{"type", "null"}}, text})}};
    }

    Json definitions_ = Json::object();
};

}   // namespace

namespace keys {
std::string pack_schema_text() { return files::json_text(PackSchema().run()); }
}   // namespace keys

}   // namespace dryground
