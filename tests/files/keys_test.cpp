// Every key of the lists is read and written: drafts filled by the lists come back as they went, and a member of a
// draft that no list names is noticed. Also tests src/files: read_map read_objects read_parts read_tiles read_world
// write_map write_parts write_tiles Also tests src/files: write_world
#include <catch2/catch.hpp>

#include <fmt/format.h>

#include <set>

#include "chance.hpp"
#include "dryground/files.hpp"
#include "dryground/keys.hpp"
#include "files/keys/listing_internal.hpp"
#include "files/keys/world_keys_internal.hpp"
#include "files/writing_internal.hpp"
#include "worlds.hpp"

using namespace dryground;

namespace {

template <class Draft>
concept Listed = requires {
    keys::each_key(keys::Of<Draft>{}, [](const auto&, auto) {});
};
template <class T>
using Is = std::decay_t<T>;

std::string_view name_of_key(const keys::Key& key) { return key.name; }
std::string_view name_of_key(const keys::Group& group) { return group.keys.front().key.name; }

// ---- what two drafts say, places apart

struct Same {
    template <class Draft>
    static bool same_keys(const Draft& a, const Draft& b) {
        bool all = true;
        keys::each_key(keys::Of<Draft>{}, [&](const auto& key, auto member) {
            if (same(a.*member, b.*member)) return;
            all = false;
            UNSCOPED_INFO("'" << name_of_key(key) << "' did not come back");
        });
        return all;
    }

    template <class T>
    static bool same(const Located<T>& a, const Located<T>& b) {
        return same(a.value, b.value);
    }
    template <class T>
    static bool same(const std::optional<T>& a, const std::optional<T>& b) {
        return a.has_value() == b.has_value() && (!a || same(*a, *b));
    }
    template <class A, class B>
    static bool same(const std::pair<A, B>& a, const std::pair<A, B>& b) {
        return same(a.first, b.first) && same(a.second, b.second);
    }
    template <class T>
    static bool same(const std::vector<T>& a, const std::vector<T>& b) {
        if (a.size() != b.size()) return false;
        for (std::size_t i = 0; i < a.size(); ++i)
            if (!same(a[i], b[i])) return false;
        return true;
    }
    template <class T>
    static bool same(const std::map<std::string, T>& a, const std::map<std::string, T>& b) {
        return std::equal(a.begin(), a.end(), b.begin(), b.end(),
                          [](const auto& x, const auto& y) { return x.first == y.first && same(x.second, y.second); });
    }
    static bool same(const BoxPx& a, const BoxPx& b) {
        return a.x == b.x && a.y == b.y && a.width == b.width && a.height == b.height;
    }
    static bool same(const PolygonPx& a, const PolygonPx& b) { return a.points == b.points && a.holes == b.holes; }
    static bool same(const EllipsePx& a, const EllipsePx& b) {
        return a.x == b.x && a.y == b.y && a.radius_x == b.radius_x && a.radius_y == b.radius_y;
    }
    static bool same(const CapsuleBetween& a, const CapsuleBetween& b) {
        return a.x1 == b.x1 && a.y1 == b.y1 && a.x2 == b.x2 && a.y2 == b.y2 && a.radius == b.radius;
    }
    static bool same(const CapsulePx& a, const CapsulePx& b) { return a.width == b.width && a.height == b.height; }
    static bool same(const LinePx& a, const LinePx& b) { return a.points == b.points; }
    static bool same(const SharedShape& a, const SharedShape& b) {
        return same(a.name, b.name) && a.dx == b.dx && a.dy == b.dy;
    }
    static bool same(const Traced& a, const Traced& b) { return a.alpha == b.alpha && a.within_px == b.within_px; }
    static bool same(const AtCells& a, const AtCells& b) {
        return a.column == b.column && a.row == b.row && a.columns == b.columns && a.rows == b.rows &&
               a.block == b.block;
    }
    static bool same(const WholeCell&, const WholeCell&) { return true; }
    static bool same(const std::monostate&, const std::monostate&) { return true; }
    static bool same(const Picture& a, const Picture& b) { return a.file == b.file && a.x == b.x && a.y == b.y; }
    static bool same(const NoteDraft& a, const NoteDraft& b) { return same(a.name, b.name) && a.note == b.note; }
    static bool same(const CarveDraft& a, const CarveDraft& b) {
        return same(a.barrier, b.barrier) && same(a.shape, b.shape);
    }
    static bool same(const ObjectCarve& a, const ObjectCarve& b) {
        return same(a.barrier, b.barrier) && same(a.shape, b.shape);
    }
    template <class... Forms>
    static bool same(const std::variant<Forms...>& a, const std::variant<Forms...>& b) {
        return a.index() == b.index() &&
               std::visit([&](const auto& form) { return same(form, std::get<Is<decltype(form)>>(b)); }, a);
    }
    template <class T>
    static bool same(const T& a, const T& b) {
        if constexpr (Listed<T>) {
            if constexpr (requires { a.name.value; })
                if (!same(a.name, b.name)) return false;
            if constexpr (std::is_same_v<T, KindDraft>)   // which share a key with the properties that it declares
                if (!same(a.props, b.props)) return false;
            return same_keys(a, b);
        } else {
            return a == b;
        }
    }
};

template <class T>
bool same(const T& a, const T& b) {
    return Same::same(a, b);
}

// ---- drafts with every key said, at random

class Filler {
public:
    explicit Filler(std::uint64_t round) : dice_(round) {}

    template <class Draft>
    Draft draft() {
        Draft draft;
        if constexpr (requires { draft.name.value; }) draft.name = Name(word());
        keys::each_key(keys::Of<Draft>{}, [&](const auto& key, auto member) {
            if constexpr (std::is_same_v<Is<decltype(key)>, keys::Group>) {
                fill(draft.*member);
            } else {
                key_ = &key;
                fill(draft.*member);
            }
        });
        if constexpr (std::is_same_v<Draft, TileRule>)   // what it sets is like no other tile
            draft.set.like.reset(), draft.set.name = Name();
        if constexpr (std::is_same_v<Draft, LegendEntry>) {   // it means one thing
            LegendEntry one;
            one.key = Name(word());
            one.orientation = draft.orientation;
            switch (dice_.in(0, 4)) {
                case 0:
                    one.tile = draft.tile;
                    break;
                case 1:
                    one.kind = draft.kind;
                    break;
                case 2:
                    one.kinds = draft.kinds, one.weights = draft.weights;
                    break;
                case 3:
                    one.family = draft.family;
                    break;
                default:
                    one.block = draft.block;
                    break;
            }
            return one;
        }
        return draft;
    }

    std::string word() {
        static constexpr std::array words{"sedge", "tern", "ooze", "kelp", "weir", "marl"};
        return fmt::format("{}_{}", words[static_cast<std::size_t>(dice_.in(0, 5))], ++count_);
    }
    void fill(std::vector<Located<std::string>>& into) {   // rows of blocks are Names too: characters as good as words
        into = {Name(said()), Name(said())};
    }

private:
    std::string said() {
        if (key_ != nullptr && !key_->words.empty())
            return std::string(
                key_->words[static_cast<std::size_t>(dice_.in(0, static_cast<int>(key_->words.size()) - 1))]);
        return key_ != nullptr && key_->refers == "form" ? "boxes" : word();
    }
    double number() { return dice_.in(1, 90) / 4.0 + 0.125; }
    std::vector<std::array<double, 2>> points() { return {{number(), 0}, {number(), 40}, {-number(), 40}}; }

    void fill(std::string& into) { into = key_->is_path ? "art/weir.png" : said(); }
    void fill(bool& into) { into = !into; }   // other than where it is left out
    void fill(int& into) { into = dice_.in(3, 40); }
    void fill(std::uint64_t& into) { into = static_cast<std::uint64_t>(dice_.in(1, 40)); }
    void fill(double& into) { into = number(); }
    template <class T>
    void fill(Located<T>& into) {
        fill(into.value);
    }
    template <class T>
    void fill(std::optional<T>& into) {
        if constexpr (std::is_same_v<T, bool>)
            into = dice_.once_in(2);
        else if constexpr (Listed<T> && !std::is_same_v<T, ShapeDraft>)
            into = draft<T>();
        else
            fill(into.emplace());
    }
    template <class T, std::size_t n>
    void fill(std::array<T, n>& into) {
        for (T& one : into) fill(one);
    }
    void fill(std::vector<std::string>& into) { into = {said()}; }
    void fill(std::vector<double>& into) { into = {number(), number()}; }
    void fill(Value& into) { into = Value{std::int64_t{dice_.in(0, 9)}}; }
    void fill(Colour& into) { into = {1, 2, static_cast<std::uint8_t>(dice_.in(0, 255))}; }
    void fill(Surface& into) { into = {number(), number()}; }
    void fill(Picture& into) { into.file = "art/weir.png", into.x = number(), into.y = -number(); }
    void fill(Orientation& into) {
        into = {dice_.once_in(2), dice_.once_in(2), static_cast<std::int16_t>(90 * dice_.in(0, 3))};
    }
    void fill(SaidProperties& into) {
        into[word()] = Located<Value>(Value{number()}), into[word()] = Located<Value>(Value{word()});
    }
    void fill(std::map<std::string, Located<std::string>>& sides) {
        sides["top"] = Name(said()), sides["left"] = Name(said());
    }
    void fill(NoteDraft& into) { into = {Name(word()), word()}; }
    void fill(std::pair<Name, ShapeDraft>& into) { into.first = Name(word()), fill(into.second); }
    void fill(std::pair<Name, Located<std::int64_t>>& into) { into = {Name(word()), std::int64_t{dice_.in(0, 99)}}; }
    void fill(std::pair<Name, Located<std::string>>& into) { into = {Name(word()), Name(said())}; }
    void fill(ShapeDraft& into) {
        into = draft<ShapeDraft>();
        if (key_ != nullptr && key_->name == "area") into = ShapeDraft{BoxPx{1, 2, 3, 4}};
    }
    void fill(CarveDraft& into) { into = {Name(word()), ShapeDraft{BoxPx{0, number(), 8, 8}}}; }
    void fill(ObjectCarve& into) {
        into.barrier = Name(word());
        if (dice_.once_in(2)) into.shape = ShapeDraft{EllipsePx{1, 2, number(), 30}};
    }
    void fill(Form& into) {
        static const std::vector<Form> forms{
            WholeCell{},           BoxPx{1, 2, 3, 4.5},           EllipsePx{1, 2, 3, 3},
            EllipsePx{1, 2, 3, 4}, CapsuleBetween{1, 2, 3, 4, 5}, SharedShape{Name("low"), 1.5, 0},
            Traced{77, 1.25}};
        const int pick = dice_.in(0, static_cast<int>(forms.size()) + 1);
        if (pick < static_cast<int>(forms.size()))
            into = forms[static_cast<std::size_t>(pick)];
        else if (pick == static_cast<int>(forms.size()))
            into = PolygonPx{points(), {}};
        else
            into = LinePx{points()};
    }
    void fill(decltype(ObjectDraft::form)& into) {
        switch (dice_.in(0, 6)) {
            case 0:
                into = PointPx{number(), -number()};
                break;
            case 1:
                into = AtCells{dice_.in(-4, 4), 2, 1, 1, false};
                break;
            case 2:
                into = AtCells{1, dice_.in(-4, 4), 2, 3, true};
                break;
            case 3:
                into = PolygonPx{points(), {points()}};
                break;
            case 4:
                into = EllipsePx{1, 2, number(), 30};
                break;
            case 5:
                into = CapsuleBetween{1, 2, 3, 4, number()};
                break;
            default:
                into = LinePx{points()};
                break;
        }
    }
    void fill(decltype(BodyDraft::form)& into) {
        if (dice_.once_in(3))
            into = CapsulePx{number(), number()};
        else if (const double radius = number(); dice_.once_in(2))
            into = EllipsePx{0, 0, radius, radius};
        else
            into = BoxPx{0, 0, radius, number()};
    }
    template <class Draft>
    requires Listed<Draft>
    void fill(Draft& into) { into = draft<Draft>(); }
    template <class Draft>
    void fill(std::vector<Draft>& into) {
        into.clear();
        for (int i = dice_.in(1, 2); i > 0; --i) {
            const keys::Key* const of_list = key_;
            fill(into.emplace_back());
            key_ = of_list;
        }
    }

    chance::Dice dice_;
    const keys::Key* key_ = nullptr;
    int count_ = 0;
};

// A map whose layers hold what can be read back: rows, or objects.
MapDraft map_of(Filler& filler) {
    MapDraft map = filler.draft<MapDraft>();
    for (std::size_t i = 0; i < map.layers.size(); ++i) {
        LayerDraft& layer = map.layers[i];
        layer.rows.clear();
        layer.holds_objects = i % 2 == 0;
        if (layer.holds_objects)
            layer.objects = {filler.draft<ObjectDraft>(), filler.draft<ObjectDraft>()};
        else
            layer.rows = {Name("#.."), Name("..é")};
    }
    return map;
}

}   // namespace

TEST_CASE("what is said with every key comes back as it went") {
    const std::string png = encode_png(Image{2, 2, std::vector<std::uint8_t>(16, 255)});
    for (int round = 0; round < chance::rounds(200); ++round) {
        DRYGROUND_ROUND(round);
        Filler filler(static_cast<std::uint64_t>(round));
        WorldBuilder builder;
        builder.world(filler.draft<WorldDraft>());
        builder.tileset(filler.draft<TileSetDraft>());
        builder.map(map_of(filler));
        worlds::Files all{{"art/weir.png", png}};
        // What these drafts say makes no world: only how it is written and read is looked at.
        const MapDraft& map = builder.map_drafts()[0];
        all["world.toml"] = files::world_toml(builder.world_draft(), {"tiles/set.toml"}, {"maps/map.toml"});
        all["tiles/set.toml"] = files::tileset_toml(builder.tileset_drafts()[0], "tiles");
        all["maps/map.toml"] = files::map_files(map, "maps/", "map.toml").front().bytes;
        const LoadedDrafts read = load_drafts("world.toml", worlds::reader_of(all));
        INFO(text(read.report));
        REQUIRE(read.builder);
        REQUIRE(read.report.counts().error == 0);
        REQUIRE(same(builder.world_draft(), read.builder->world_draft()));
        REQUIRE(same(builder.tileset_drafts(), read.builder->tileset_drafts()));
        REQUIRE(same(builder.map_drafts(), read.builder->map_drafts()));
        for (std::size_t l = 0; l < map.layers.size(); ++l)
            REQUIRE(same(map.layers[l].objects, read.builder->map_drafts()[0].layers[l].objects));
    }
}

namespace {

// How many members a struct has: as many as it can be made from.
struct Any {
    template <class T>
    operator T() const {
        return T{};   // only its type is looked at
    }
};
template <class T, class... Values>
constexpr std::size_t members() {
    if constexpr (requires { T{Values{}..., Any{}}; })
        return members<T, Values..., Any>();
    else
        return sizeof...(Values);
}
// How many members the list of keys names, once each.
template <class Draft>
std::size_t listed() {
    std::size_t count = 0;
    keys::each_key(keys::Of<Draft>{}, [&](const auto&, auto) { ++count; });
    return count;
}

}   // namespace

// Whoever adds a member adds it to the list, or says here why it has no key of its own.
TEST_CASE("every member of a draft is in the list of its keys") {
    CHECK(members<WaiverDraft>() == listed<WaiverDraft>() + 1);   // place
    CHECK(members<ObjectDraft>() ==
          listed<ObjectDraft>() + 4);   // cell, turned_from, place_of_form: of the form; place
    CHECK(members<ExceptDraft>() == listed<ExceptDraft>() + 1);   // place
    CHECK(members<LayerDraft>() ==
          listed<LayerDraft>() + 5);   // holds_objects, unread, cells, objects: what it holds; place
    CHECK(members<LegendEntry>() == listed<LegendEntry>() + 1);       // key: what it is said for
    CHECK(members<MapDraft>() == listed<MapDraft>() + 1);             // place
    CHECK(members<ShapeDraft>() == listed<ShapeDraft>() + 1);         // place
    CHECK(members<ReactionDraft>() == listed<ReactionDraft>() + 1);   // place
    CHECK(members<TileDraft>() == listed<TileDraft>() + 1);           // name: it stands before its table
    CHECK(members<MemberDraft>() == listed<MemberDraft>());
    CHECK(members<FamilyDraft>() == listed<FamilyDraft>() + 1);   // name
    CHECK(members<BlockDraft>() == listed<BlockDraft>() + 1);     // name
    CHECK(members<TileRule>() == listed<TileRule>());
    CHECK(members<TileSetDraft>() == listed<TileSetDraft>() + 1);   // place
    CHECK(members<BarrierDraft>() == listed<BarrierDraft>() + 1);   // name
    CHECK(members<StoreyDraft>() == listed<StoreyDraft>() + 1);     // name
    CHECK(members<BodyDraft>() == listed<BodyDraft>() + 3);         // x, y: of its form; place
    CHECK(members<FeelerDraft>() == listed<FeelerDraft>() + 1);     // name
    CHECK(members<MoverDraft>() == listed<MoverDraft>() + 1);       // name
    CHECK(members<KindDraft>() == listed<KindDraft>() + 2);         // name; props: with the properties that it declares
    CHECK(members<FieldDraft>() == listed<FieldDraft>() + 1);       // name
    CHECK(members<MergeSettings>() == listed<MergeSettings>());
    CHECK(members<WorldDraft>() == listed<WorldDraft>() + 4);   // both goals, lacks_maps, place
}

TEST_CASE("a thing has each key but once, and says what it means") {
    for (const keys::Thing& thing : keys::all_things()) {
        std::set<std::string_view> names;
        for (const keys::Entry& entry : thing.entries) {
            INFO(thing.name << ", " << entry.key.name);
            CHECK(names.insert(entry.key.name).second);
            CHECK(!entry.key.says.empty());
        }
    }
    CHECK_THROWS_AS(key_page("no such thing"), std::out_of_range);
    CHECK_THROWS_AS(schema_text("layer"), std::out_of_range);
}
