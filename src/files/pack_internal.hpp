// Inside the files room: `dryground/pack/1` (schema/pack.schema.json), everything a game loads. write_pack*.cpp make
// the tree from a world; read_pack*.cpp make drafts from the tree, for which the builder is asked as for any other.
#pragma once

#include <span>

#include "dryground/files.hpp"
#include "json_stream_internal.hpp"

namespace dryground::files {

// ---- writing
template <IsId Id, class Things>
[[nodiscard]] Json name_or_null(const Things& things, Id id) {
    return id == Id::none ? Json(nullptr) : Json(things[index(id)].name);
}
template <IsId Id, class Things>
[[nodiscard]] Json names_of(const Things& things, const std::vector<Id>& ids) {
    Json names = Json::array();
    for (const Id id : ids) names.push_back(things[index(id)].name);
    return names;
}
[[nodiscard]] Json flags_json(const World& world, FlagSet flags);
[[nodiscard]] Json point_json(Point p);   // px
[[nodiscard]] Json ring_json(const Ring& ring);
[[nodiscard]] Json area_json(const Regions& area);
[[nodiscard]] Json properties_json(const Properties& properties);
[[nodiscard]] Json fields_json(const Fields& fields);
// Whether sets of flags are written as numbers, which every reader of JSON keeps whole up to 53 flags; else they are
// hexadecimal text.
[[nodiscard]] bool flags_are_numbers(const World& world);
[[nodiscard]] Json flags_number(const World& world, FlagSet flags);
[[nodiscard]] Json surface_json(const std::optional<Surface>& surface);
[[nodiscard]] Json picture_json(const std::optional<Picture>& picture);
// What a tile of a set does, or the trigger of a layer.
[[nodiscard]] Json reaction_json(const World& world, const TileSet& set, const Reaction& reaction);
[[nodiscard]] Json object_json(const World& world, const Map& map, const Object& object, const PackOutput& output);
[[nodiscard]] Json tileset_json(const World& world, const TileSet& set);
// A map's tree. What is long in it are holes: groups or chunks of merged ground, variants. World, map
// and output must outlive them.
[[nodiscard]] Json packed_map_json(const World& world, const Map& map, const PackOutput& output, Holes& holes);
// Makes holes of the same values of a tree that has none.
void make_holes(Json& map, Holes& holes);
// The pack of a world whose maps are such trees, in the world's order: each is made, written and let go of.
[[nodiscard]] std::string pack_of(const World& world, const PackOutput& output,
                                  const std::function<Json(std::size_t map, Holes& holes)>& tree_of_map);
[[nodiscard]] std::string hash_of(std::span<const std::uint8_t> bytes);   // 16 hexadecimal digits
// The groups of the barriers and of every mover, as a file of merged geometry has them (merge_json.cpp).
[[nodiscard]] Json merged_json(const World& world, const std::vector<Merge>& merges, const MergeOutput& output,
                               Holes& holes);
[[nodiscard]] Json merged_json(const World& world, const std::vector<ChunkedMerge>& merges, const MergeOutput& output,
                               Holes& holes);

// ---- reading

// The tree of a pack, except what a world makes anew.
[[nodiscard]] Result<Json> parse_pack(std::string_view bytes);

// A value in the tree. What it should be and is not becomes a finding, with the way to it.
class Node {
public:
    Node(const Json* json, std::string path, Report& report) : json_(json), path_(std::move(path)), report_(&report) {}

    [[nodiscard]] Node at(const char* key) const;
    // One that may be left out: null then.
    [[nodiscard]] Node at_if_there(const char* key) const;
    [[nodiscard]] bool is_null() const { return json_ == nullptr || json_->is_null(); }
    [[nodiscard]] std::vector<Node> items() const;                             // of a list
    [[nodiscard]] std::vector<std::pair<std::string, Node>> entries() const;   // of a table

    [[nodiscard]] std::string text() const;
    [[nodiscard]] bool yes_no() const;
    [[nodiscard]] double number() const;
    [[nodiscard]] std::int64_t whole(std::int64_t least = INT32_MIN, std::int64_t most = INT32_MAX) const;
    [[nodiscard]] int integer() const { return static_cast<int>(whole()); }
    [[nodiscard]] std::array<int, 2> pair() const;
    [[nodiscard]] std::array<double, 2> place() const;
    [[nodiscard]] Name name() const;
    [[nodiscard]] std::optional<Name> name_or_none() const;   // of null: none
    [[nodiscard]] std::optional<double> number_or_none() const;
    [[nodiscard]] Names names() const;
    [[nodiscard]] std::vector<std::string> texts() const;
    [[nodiscard]] Ring ring() const;   // of px
    [[nodiscard]] Regions area() const;
    [[nodiscard]] SaidProperties properties() const;
    [[nodiscard]] Place where() const { return {"", 0, 0, path_}; }

    void wrong(const std::string& should_be) const;

private:
    [[nodiscard]] std::optional<Value> value() const;

    const Json* json_;   // null: it is not there, as was said
    std::string path_;
    Report* report_;
};

[[nodiscard]] std::vector<FieldDraft> read_packed_fields(const Node& node);
[[nodiscard]] std::optional<Surface> read_packed_surface(const Node& node);
[[nodiscard]] std::optional<Colour> read_packed_colour(const Node& node);
[[nodiscard]] std::optional<Picture> read_packed_picture(const Node& node);
[[nodiscard]] WorldDraft read_packed_world(const Node& root);
[[nodiscard]] TileSetDraft read_packed_tileset(const Node& node);
[[nodiscard]] MapDraft read_packed_map(const Node& node);

}   // namespace dryground::files
