// Inside the files room: `dryground/pack/1` (schema/pack.schema.json), everything a game loads. write_pack*.cpp make
// the tree from a world; read_pack*.cpp make drafts from the tree, which the builder checks as any others.
#pragma once

#include <span>

#include "dryground/files.hpp"
#include "json_stream_internal.hpp"

namespace dryground::files {

// ---- writing (write_pack*.cpp)

[[nodiscard]] Json point_json(Point p);   // px
[[nodiscard]] Json ring_json(const Ring& ring);
[[nodiscard]] Json area_json(const Regions& area);
[[nodiscard]] Json contacts_json(const World& world);
[[nodiscard]] Json bits_json(const World& world);
// Returns whether sets of flags are written as numbers, which every reader of JSON keeps whole up to 53 flags; else
// they are hexadecimal text.
[[nodiscard]] bool flags_are_numbers(const World& world);
// Returns what an object covers, and where its picture's corner is, in the coordinates of the file's merged ground.
[[nodiscard]] Json placed_json(const World& world, const Map& map, const Object& object, const PackOutput& output);
// Returns a map's tree. Its long values are holes: groups or chunks of merged ground, variants. World, map and output
// must outlive them.
[[nodiscard]] Json packed_map_json(const World& world, const Map& map, const PackOutput& output, Holes& holes);
// Makes holes of the same values of a tree that has none.
void make_holes(Json& map, Holes& holes);
// Returns the pack of a world whose maps are such trees, in the world's order: each is made, written and released.
[[nodiscard]] std::string pack_of(const World& world, const PackOutput& output,
                                  const std::function<Json(std::size_t map, Holes& holes)>& tree_of_map);
[[nodiscard]] std::string hash_of(std::span<const std::uint8_t> bytes);   // 16 hexadecimal digits
// Return the groups of the barriers and of every mover, as a file of merged geometry has them (merge_json.cpp).
[[nodiscard]] Json merged_json(const World& world, const std::vector<Merge>& merges, const MergeOutput& output,
                               Holes& holes);
[[nodiscard]] Json merged_json(const World& world, const std::vector<ChunkedMerge>& merges, const MergeOutput& output,
                               Holes& holes);

// ---- reading

// Returns the tree of a pack, except what a world makes anew.
[[nodiscard]] Result<Json> parse_pack(std::string_view bytes);

// A value in the tree. If it is not of the expected type, a finding is added, with its path.
class Node {
public:
    // `whole`: what messages call the whole tree.
    Node(const Json* json, std::string path, Report& report, const char* whole = "the pack")
        : json_(json), path_(std::move(path)), report_(&report), whole_(whole) {}

    [[nodiscard]] Node at(std::string_view key) const;
    // Returns a value that may be left out: null then.
    [[nodiscard]] Node at_if_there(std::string_view key) const;
    // Reports keys of a table that are none of these.
    void only(const std::vector<std::string_view>& keys) const;
    [[nodiscard]] bool has(std::string_view key) const;
    [[nodiscard]] bool is_null() const { return json_ == nullptr || json_->is_null(); }
    [[nodiscard]] std::vector<Node> items() const;                             // of a list
    [[nodiscard]] std::vector<std::pair<std::string, Node>> entries() const;   // of a table

    [[nodiscard]] std::string text() const;
    [[nodiscard]] bool yes_no() const;
    [[nodiscard]] double number() const;
    [[nodiscard]] std::int64_t whole(std::int64_t least = INT32_MIN, std::int64_t most = INT32_MAX) const;
    [[nodiscard]] int integer() const { return static_cast<int>(whole()); }
    [[nodiscard]] std::int16_t quarter_turn() const;   // 0, 90, 180 or 270
    [[nodiscard]] std::array<int, 2> pair() const;
    [[nodiscard]] std::array<double, 2> place() const;
    [[nodiscard]] Name name() const;
    [[nodiscard]] Names names() const;
    [[nodiscard]] std::vector<std::string> texts() const;
    [[nodiscard]] Ring ring() const;   // of px
    [[nodiscard]] Regions area() const;
    [[nodiscard]] SaidProperties properties() const;
    [[nodiscard]] std::optional<Value> value() const;
    [[nodiscard]] const std::string& path() const { return path_; }
    [[nodiscard]] Place where() const { return {"", 0, 0, path_}; }

    void wrong(const std::string& should_be) const;

private:
    [[nodiscard]] std::string what() const;   // what it is, for messages about its keys

    const Json* json_;   // null: it is missing, which was reported
    std::string path_;
    Report* report_;
    const char* whole_;
};

// Adds the drafts of a pack; its hash is read by read_pack.
void read_packed(const Node& root, WorldBuilder& builder);

}   // namespace dryground::files
