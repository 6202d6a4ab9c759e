// Each key of a pack: read, refused where it is wrong or missing, and described by the schema.
// Also tests src/files: pack_schema pack_schema_by_hand read_pack read_pack_maps read_pack_tree
#include <catch2/catch.hpp>

#include <map>
#include <nlohmann/json.hpp>
#include <set>

#include "dryground/files.hpp"
#include "dryground/keys.hpp"
#include "files/write_pack_internal.hpp"
#include "members.hpp"
#include "random_worlds.hpp"
#include "shore.hpp"

using namespace dryground;
using Tree = nlohmann::ordered_json;

namespace {

// What a world makes anew, and what its author may name as they like.
const std::set<std::string> made_anew{"merge", "passability", "variants", "contacts", "bits", "placed",
                                      "image", "unit",        "y",        "plane",    "at_m"};
const std::set<std::string> freely_named{"props", "limits", "check", "default"};
// What a pack may leave out.
bool is_optional(const std::string& path) {
    static const std::set<std::string> anywhere{"friction", "restitution", "default", "min", "max", "optional"};
    const std::string key = path.substr(path.rfind('/') + 1);
    return anywhere.count(key) > 0 || path == "/maps/*/objects/*/surface" ||
           (key == "note" && path.find("/kinds/") != std::string::npos) ||
           (key == "note" && path.find("fields") != std::string::npos);
}

// Calls see(path, value) for each key of a pack but those; `path` has * for positions and for names of fields.
void each_pack_key(Tree& json, const std::string& path, const std::function<void(const std::string&, Tree&)>& see) {
    if (json.is_array())
        for (Tree& item : json) each_pack_key(item, path + "/*", see);
    if (!json.is_object()) return;
    const bool fields = path.ends_with("fields");
    std::vector<std::string> keys;   // `see` may change the table for a while
    for (const auto& [key, value] : json.items()) keys.push_back(key);
    for (const std::string& key : keys) {
        if (made_anew.count(key) > 0 || (key == "role" && path.ends_with("objects/*"))) continue;
        const std::string name = fields ? "*" : key;
        see(path + "/" + name, json);
        if (freely_named.count(key) == 0) each_pack_key(json[key], path + "/" + name, see);
    }
}

// How many keys of a thing its list names.
template <class Thing>
std::size_t packed_keys() {
    std::size_t count = 0;
    packed::each_key(packed::Of<Thing>{}, [&](const packed::Key&, const auto&, const auto&) { ++count; });
    return count;
}

std::string last(const std::string& path) { return path.substr(path.rfind('/') + 1); }

}   // namespace

TEST_CASE("a pack is refused where a key is wrong, missing or unknown", "[pack]") {
    std::map<std::string, int> tried;
    for (int seed = 0; seed < chance::rounds(24); ++seed) {
        const Result<World> world = random_worlds::make(static_cast<std::uint64_t>(seed), true).build();
        REQUIRE(world);
        Tree pack = Tree::parse(pack_bytes(*world));
        REQUIRE(read_pack(pack.dump()));
        each_pack_key(pack, "", [&](const std::string& path, Tree& table) {
            if (last(path) == "*" || tried[path]++ > 0) return;
            if (chance::sanitized && tried.size() % 4 != 0) return;   // each reads the pack three times
            INFO(path);
            const std::string key = last(path);
            const Tree was = table;
            const auto rules = [&] {
                std::set<std::string_view> found;
                const Result<Pack> read = read_pack(pack.dump(), "a.pack");
                for (const Finding& finding : read.report().findings())
                    if (finding.severity == Severity::error) found.insert(rule_text(finding.rule).name);
                CHECK(static_cast<bool>(read) == found.empty());
                return found;
            };
            table[key] = table[key].is_object() || table[key].is_null() ? Tree(Tree::array({1})) : Tree{{"none", 1}};
            CHECK_FALSE(rules().empty());
            table = was;
            table.erase(key);
            if (key != "of") CHECK(rules().empty() == is_optional(path));   // some types need it
            table = was;
            if (freely_named.count(last(path.substr(0, path.rfind('/')))) == 0) {
                table["spare_key"] = 1;
                CHECK((rules().count("unknown-key") == 1));
            }
            table = was;
        });
    }
    std::string all;
    for (const auto& [path, times] : tried) all += path + "\n";
    INFO(all);
    CHECK(tried.size() > 150);
}

TEST_CASE("a property may be called as what a pack works out is", "[pack]") {
    const World world = *worlds::load(worlds::with(
        worlds::with(worlds::shore(), "world.toml", "[facts]\n",
                     "[map_props]\nmerge = { type = \"list\", of = [\"text\"], default = [\"a\", \"b\"] "
                     "}\n[facts]\n"),
        "flat.toml", "[[layers]]\nname = \"ground\"", "[props]\nmerge = [\"c\"]\n[[layers]]\nname = \"ground\""));
    const Result<Pack> read = read_pack(pack_bytes(world));
    REQUIRE(read);
    CHECK(read->world().map("flat").props == world.map("flat").props);
    CHECK(read->world().map("cave").props == world.map("cave").props);
    CHECK(pack_bytes(read->world()) == pack_bytes(world));
}

TEST_CASE("the schema of packs names every key that a pack has", "[pack]") {
    const Tree schema = Tree::parse(schema_text("pack"));
    std::set<std::string> named;
    const std::function<void(const Tree&)> add = [&](const Tree& part) {
        if (part.is_object() && part.contains("properties"))
            for (const auto& [key, more] : part["properties"].items()) named.insert(key);
        if (part.is_structured())
            for (const Tree& inner : part) add(inner);
    };
    add(schema);
    Tree pack = Tree::parse(pack_bytes(*random_worlds::make(3, true).build()));
    int keys = 0;
    each_pack_key(pack, "", [&](const std::string& path, Tree&) {
        const std::string key = last(path), parent = last(path.substr(0, path.rfind('/')));
        if (key == "*" || freely_named.count(parent) > 0) return;
        INFO(path);
        CHECK(named.count(key) == 1);
        ++keys;
    });
    CHECK(keys > 200);
}

// Whoever adds a member adds a key, or says here why a pack does not hold it, or holds it in another way.
TEST_CASE("every member of a world's things is in the list of their keys in packs", "[pack]") {
    using members_of::count;
    CHECK(count<Barrier>() == packed_keys<Barrier>() + 1);         // place
    CHECK(count<NamedThing>() == packed_keys<NamedThing>() + 1);   // place
    CHECK(count<Storey>() == packed_keys<Storey>() + 1);           // place
    CHECK(count<Feeler>() == packed_keys<Feeler>() + 1);           // both lists of what it senses: one key
    CHECK(count<Mover>() == packed_keys<Mover>() + 1);             // place
    CHECK(count<Kind>() == packed_keys<Kind>() + 1);               // place
    CHECK(count<Field>() == packed_keys<Field>() + 1);             // choices, holds: `of`
    CHECK(count<Picture>() ==
          packed_keys<Picture>() + 3);   // x, y: `at`; width, height: `size`; stands: the place said
    CHECK(count<Surface>() == packed_keys<Surface>());
    CHECK(count<MergeSettings>() == packed_keys<MergeSettings>());
    CHECK(count<Shape>() == packed_keys<Shape>() + 5);         // words; faults: only sound ones are packed; place
    CHECK(count<Reaction>() == packed_keys<Reaction>() + 2);   // then: `turns_into` tells it; place
    CHECK(count<Tile>() == packed_keys<Tile>() + 2);         // in_pattern: for checks; both places; `image` is derived
    CHECK(count<Sheet>() == packed_keys<Sheet>() + 2);       // width, height: `size`; place
    CHECK(count<TileSet>() == packed_keys<TileSet>() + 2);   // cell_width, cell_height: `cell`; place
    CHECK(count<Growth>() == packed_keys<Growth>());
    CHECK(count<Layer>() == packed_keys<Layer>() + 4);   // counts; where rows, cells and it are written
    CHECK(count<Link>() == packed_keys<Link>() + 3);     // map, object: `to`; place
    // motion: its kind's; faults, removed: not in a pack; both places; `at_m` and `placed` are derived
    CHECK(count<Object>() == packed_keys<Object>() + 7 - 2);
    // cell, size, first and rim are two members each; both places; three keys are derived
    CHECK(count<Map>() == packed_keys<Map>() + 4 + 2 - 3);
}
