// The lists of keys as data: made once from the lists that readers and writers use.

#include "listing_internal.hpp"

#include <fmt/format.h>

#include <stdexcept>

#include "../toml_text_internal.hpp"
#include "world_keys_internal.hpp"

namespace dryground::keys {

namespace {

// ---- what a member of some type takes

template <class T>
struct SortOf;   // a type without one cannot be a key

template <Sort s, int n = 0>
struct Is {
    static constexpr Sort sort = s;
    static constexpr int count = n;
};
template <>
struct SortOf<bool> : Is<Sort::yes_no> {};
template <>
struct SortOf<int> : Is<Sort::whole> {};
template <>
struct SortOf<std::uint64_t> : Is<Sort::whole> {};
template <>
struct SortOf<double> : Is<Sort::number> {};
template <>
struct SortOf<std::string> : Is<Sort::text> {};
template <>
struct SortOf<Names> : Is<Sort::texts> {};
template <>
struct SortOf<std::vector<std::string>> : Is<Sort::texts> {};
template <>
struct SortOf<MergeForms> : Is<Sort::texts> {};
template <>
struct SortOf<std::vector<double>> : Is<Sort::weights> {};
template <std::size_t n>
struct SortOf<std::array<int, n>> : Is<Sort::wholes, static_cast<int>(n)> {};
template <std::size_t n>
struct SortOf<std::array<double, n>> : Is<Sort::numbers, static_cast<int>(n)> {};
template <>
struct SortOf<Cell> : SortOf<std::array<int, 2>> {};
template <>
struct SortOf<CellArea> : SortOf<std::array<int, 4>> {};
template <>
struct SortOf<Value> : Is<Sort::value> {};
template <>
struct SortOf<Colour> : Is<Sort::colour> {};
template <>
struct SortOf<Picture> : Is<Sort::picture> {};
template <>
struct SortOf<Surface> : Is<Sort::surface> {};
template <>
struct SortOf<ShapeDraft> : Is<Sort::shape> {};
template <>
struct SortOf<std::vector<ShapeDraft>> : Is<Sort::shapes> {};
template <>
struct SortOf<std::vector<std::pair<Name, ShapeDraft>>> : Is<Sort::named_shapes> {};
template <>
struct SortOf<std::map<std::string, Located<std::string>>> : Is<Sort::sides> {};
template <>
struct SortOf<SaidProperties> : Is<Sort::properties> {};
template <>
struct SortOf<std::vector<FieldDraft>> : Is<Sort::property_types> {};
template <>
struct SortOf<std::vector<LegendEntry>> : Is<Sort::legend> {};
template <>
struct SortOf<std::vector<NoteDraft>> : Is<Sort::notes> {};
template <>
struct SortOf<std::vector<std::pair<Name, Located<std::int64_t>>>> : Is<Sort::numbers_by_name> {};
template <>
struct SortOf<std::vector<std::pair<Name, Located<std::string>>>> : Is<Sort::severities> {};
template <>
struct SortOf<BodyDraft> : Is<Sort::table> {};
template <>
struct SortOf<Sheet> : Is<Sort::table> {};
template <>
struct SortOf<MergeSettings> : Is<Sort::table> {};
template <>
struct SortOf<GrowthDraft> : Is<Sort::table> {};
template <>
struct SortOf<TileDraft> : Is<Sort::table> {};
template <class Draft>
struct SortOf<std::vector<Draft>> : Is<is_named<Draft> ? Sort::named_tables : Sort::tables> {};
template <class T>
struct SortOf<Located<T>> : SortOf<T> {};
template <class T>
struct SortOf<std::optional<T>> : SortOf<T> {};

// ---- whose keys tables have

template <class Draft>
constexpr std::string_view thing_of = "";
template <>
constexpr std::string_view thing_of<WaiverDraft> = "waiver";
template <>
constexpr std::string_view thing_of<ObjectDraft> = "object";
template <>
constexpr std::string_view thing_of<ObjectCarve> = "carve";
template <>
constexpr std::string_view thing_of<CarveDraft> = "carve";
template <>
constexpr std::string_view thing_of<ExceptDraft> = "except";
template <>
constexpr std::string_view thing_of<LayerDraft> = "layer";
template <>
constexpr std::string_view thing_of<GrowthDraft> = "grow";
template <>
constexpr std::string_view thing_of<ReactionDraft> = "reaction";
template <>
constexpr std::string_view thing_of<MemberDraft> = "member";
template <>
constexpr std::string_view thing_of<TileRule> = "for";
template <>
constexpr std::string_view thing_of<TileDraft> = "tile";
template <>
constexpr std::string_view thing_of<FamilyDraft> = "family";
template <>
constexpr std::string_view thing_of<BlockDraft> = "block";
template <>
constexpr std::string_view thing_of<Sheet> = "sheet";
template <>
constexpr std::string_view thing_of<BarrierDraft> = "barrier";
template <>
constexpr std::string_view thing_of<StoreyDraft> = "storey";
template <>
constexpr std::string_view thing_of<MoverDraft> = "mover";
template <>
constexpr std::string_view thing_of<FeelerDraft> = "feeler";
template <>
constexpr std::string_view thing_of<KindDraft> = "kind";
template <>
constexpr std::string_view thing_of<BodyDraft> = "body";
template <>
constexpr std::string_view thing_of<MergeSettings> = "merging";
template <class T>
constexpr std::string_view thing_of<std::optional<T>> = thing_of<T>;
template <class T>
constexpr std::string_view thing_of<std::vector<T>> = thing_of<T>;

// ---- what holds where nothing is said

std::string standard_of(bool standard) { return standard ? "true" : "false"; }
std::string standard_of(double standard) { return files::toml_text::number(standard); }
std::string standard_of(int standard) { return fmt::format("{}", standard); }
std::string standard_of(std::uint64_t standard) { return fmt::format("{}", standard); }
std::string standard_of(const std::string& standard) {
    return standard.empty() ? "" : files::toml_text::in_quotes(standard);
}
std::string standard_of(const std::vector<std::string>& standard) {
    return standard.empty() ? "" : files::toml_text::texts(standard);
}
std::string standard_of(MergeForms standard) { return standard_of(names_of(standard)); }
template <class T, std::size_t n>
std::string standard_of(const std::array<T, n>& standard) {
    return fmt::format("[{}]", fmt::join(standard, ", "));
}
std::string standard_of(const Cell& standard) { return standard_of(std::array{standard.column, standard.row}); }
template <class T>
std::string standard_of(const Located<T>& standard) {
    return standard_of(standard.value);
}
template <class T>
std::string standard_of(const T&) {
    return {};
}

template <class Draft>
std::vector<Entry> entries() {
    std::vector<Entry> all;
    int groups = 0;
    const Draft standard;
    each_key(Of<Draft>{}, [&](const auto& key, auto member) {
        if constexpr (std::is_same_v<std::decay_t<decltype(key)>, Group>) {
            const int group = key.exactly_one ? groups++ : -1;
            for (std::size_t i = 0; i < key.keys.size(); ++i) {
                const OneOf& one = key.keys[i];
                Entry& entry = all.emplace_back(Entry{one.key, one.sort, one.count});
                if (i + key.companions < key.keys.size()) entry.group = group;
                if (one.sort == Sort::tables) entry.thing = "object";
            }
        } else {
            using Member = std::decay_t<decltype(standard.*member)>;
            Entry& entry = all.emplace_back(Entry{key, SortOf<Member>::sort, SortOf<Member>::count});
            entry.thing = thing_of<Member>;
            if (!key.required) entry.standard = standard_of(standard.*member);
        }
    });
    return all;
}

std::vector<Thing> make_things() {
    std::vector<Thing> all{
        {"world", "the world's file", "world", entries<WorldDraft>()},
        {"tiles", "a tile set's file", "tiles", entries<TileSetDraft>()},
        {"map", "a map's file", "map", entries<MapDraft>()},
        {"barrier", "[barriers] of the world", "world", entries<BarrierDraft>()},
        {"storey", "[storeys] of the world", "world", entries<StoreyDraft>()},
        {"mover", "[movers.NAME] of the world", "world", entries<MoverDraft>()},
        {"body", "the body of a mover", "world", entries<BodyDraft>()},
        {"feeler", "feelers.NAME of a mover", "world", entries<FeelerDraft>()},
        {"kind", "[kinds.NAME] of the world", "world", entries<KindDraft>()},
        {"merging", "[merging] of the world", "world", entries<MergeSettings>()},
        {"sheet", "the sheet of a tile set", "tiles", entries<Sheet>()},
        {"for", "[[for]] of a tile set", "tiles", entries<TileRule>()},
        {"tile", "[tiles.NAME] of a tile set", "tiles", entries<TileDraft>()},
        {"reaction", "reacts of a tile", "tiles", entries<ReactionDraft>()},
        {"family", "[families.NAME] of a tile set", "tiles", entries<FamilyDraft>()},
        {"member", "members of a family", "tiles", entries<MemberDraft>()},
        {"block", "[blocks.NAME] of a tile set", "tiles", entries<BlockDraft>()},
        {"layer", "[[layers]] of a map", "map", entries<LayerDraft>()},
        {"grow", "grow of a layer", "map", entries<GrowthDraft>()},
        {"object", "objects of a layer", "map", entries<ObjectDraft>()},
        {"except", "except of a layer", "map", entries<ExceptDraft>()},
        {"shape", "a shape of a tile, a kind, or [shapes]", "", entries<ShapeDraft>()},
        {"carve", "carves of a tile or an object", "", {}},
        {"legend", "an entry of a legend", "", entries<LegendEntry>()},
        {"property", "a declared property", "", entries<FieldDraft>()},
        {"waiver", "waive of anything", "", entries<WaiverDraft>()},
    };
    // Everything in a file has keys of its own; in the world's file except what names other files.
    const auto add = [&](std::size_t at, Entry entry) { all[at].entries.push_back(std::move(entry)); };
    add(0, {{.name = "goals",
             .says = "what has to be reachable: objects and facts",
             .example = "{ objects = [\"pump_house/lamp\"], facts = [] }"},
            Sort::goals});
    add(0, {{.name = "tilesets", .says = "the files of its tile sets", .is_path = true}, Sort::texts});
    add(0, {{.name = "maps", .says = "the files of its maps", .is_path = true}, Sort::texts});
    // A carve is a shape, or none, of one barrier.
    for (Thing& one : all) {
        if (one.name != "carve") continue;
        one.entries.push_back(
            {{.name = "barrier", .says = "what it takes away", .refers = "barrier", .required = true}, Sort::text});
        for (const Entry& entry : entries<ShapeDraft>())
            if (entry.key.name != "barrier" && entry.key.name != "trigger" && entry.key.name != "surface" &&
                entry.key.name != "one_way") {
                one.entries.push_back(entry);
                one.entries.back().group = -1;
            }
    }
    return all;
}

}   // namespace

const std::vector<Thing>& all_things() {
    static const std::vector<Thing> things = make_things();
    return things;
}

const Thing& thing(std::string_view name) {
    for (const Thing& one : all_things())
        if (one.name == name) return one;
    throw std::out_of_range(fmt::format("no thing with keys is called '{}'", name));
}

}   // namespace dryground::keys
