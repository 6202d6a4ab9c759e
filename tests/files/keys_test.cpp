// Every key of the lists is read and written: drafts filled by the lists come back as they went, and a member of a
// draft that no list names is noticed.
// Also tests src/files: key_pages listing read_map read_objects read_parts read_tiles read_world schemas
// Also tests src/files: write_map write_parts write_tiles write_world
#include <catch2/catch.hpp>

#include <set>

#include "draft_filler.hpp"
#include "dryground/files.hpp"
#include "dryground/keys.hpp"
#include "files/keys/listing_internal.hpp"
#include "files/writing_internal.hpp"
#include "members.hpp"
#include "worlds.hpp"

using namespace dryground;
using drafts::Filler;
using drafts::same;

TEST_CASE("what is written with every key comes back unchanged") {
    const std::string png = encode_png(Image{2, 2, std::vector<std::uint8_t>(16, 255)});
    for (int round = 0; round < chance::rounds(200); ++round) {
        DRYGROUND_ROUND(round);
        Filler filler(static_cast<std::uint64_t>(round));
        WorldBuilder builder;
        builder.world(filler.draft<WorldDraft>());
        builder.tileset(filler.draft<TileSetDraft>());
        builder.map(drafts::map_of(filler));
        worlds::Files all{{"art/weir.png", png}};
        // These drafts make no valid world: only reading and writing is tested.
        const MapDraft& map = builder.map_drafts()[0];
        all["world.toml"] = files::world_toml(builder.world_draft(), {"tiles/set.toml"}, {"maps/map.toml"});
        all["tiles/set.toml"] = files::tileset_toml(builder.tileset_drafts()[0], "tiles");
        all["maps/map.toml"] = files::map_files(map, "maps/", "map.toml").front().bytes;
        const Result<WorldDrafts> read = load_drafts("world.toml", worlds::reader_of(all));
        INFO(text(read.report()));
        REQUIRE(read);
        REQUIRE(read.report().counts().error == 0);
        REQUIRE(same(builder.world_draft(), read->builder.world_draft()));
        REQUIRE(same(builder.tileset_drafts(), read->builder.tileset_drafts()));
        REQUIRE(same(builder.map_drafts(), read->builder.map_drafts()));
        for (std::size_t l = 0; l < map.layers.size(); ++l)
            REQUIRE(same(map.layers[l].objects, read->builder.map_drafts()[0].layers[l].objects));
    }
}

namespace {

// How many members the list of keys names, once each.
template <class Draft>
std::size_t listed() {
    std::size_t count = 0;
    keys::each_key(keys::Of<Draft>{}, [&](const auto&, auto) { ++count; });
    return count;
}

}   // namespace

// A new member is added to the list, or an exception is given here with its reason.
TEST_CASE("every member of a draft is in the list of its keys") {
    CHECK(members_of::count<WaiverDraft>() == listed<WaiverDraft>() + 1);   // place
    CHECK(members_of::count<ObjectDraft>() ==
          listed<ObjectDraft>() + 4);   // cell, turned_from, place_of_form: of the form; place
    CHECK(members_of::count<ExceptDraft>() == listed<ExceptDraft>() + 1);   // place
    CHECK(members_of::count<LayerDraft>() ==
          listed<LayerDraft>() + 5);   // holds_objects, unread, cells, objects: what it holds; place
    CHECK(members_of::count<LegendEntry>() == listed<LegendEntry>() + 1);       // key: what it is said for
    CHECK(members_of::count<MapDraft>() == listed<MapDraft>() + 1);             // place
    CHECK(members_of::count<ShapeDraft>() == listed<ShapeDraft>() + 1);         // place
    CHECK(members_of::count<ReactionDraft>() == listed<ReactionDraft>() + 1);   // place
    CHECK(members_of::count<TileDraft>() == listed<TileDraft>() + 1);           // name: it stands before its table
    CHECK(members_of::count<MemberDraft>() == listed<MemberDraft>());
    CHECK(members_of::count<FamilyDraft>() == listed<FamilyDraft>() + 1);   // name
    CHECK(members_of::count<BlockDraft>() == listed<BlockDraft>() + 1);     // name
    CHECK(members_of::count<TileRule>() == listed<TileRule>());
    CHECK(members_of::count<TileSetDraft>() == listed<TileSetDraft>() + 1);   // place
    CHECK(members_of::count<BarrierDraft>() == listed<BarrierDraft>() + 1);   // name
    CHECK(members_of::count<StoreyDraft>() == listed<StoreyDraft>() + 1);     // name
    CHECK(members_of::count<BodyDraft>() == listed<BodyDraft>() + 3);         // x, y: of its form; place
    CHECK(members_of::count<FeelerDraft>() == listed<FeelerDraft>() + 1);     // name
    CHECK(members_of::count<MoverDraft>() == listed<MoverDraft>() + 1);       // name
    CHECK(members_of::count<KindDraft>() ==
          listed<KindDraft>() + 2);   // name; props: with the properties that it declares
    CHECK(members_of::count<FieldDraft>() == listed<FieldDraft>() + 1);   // name
    CHECK(members_of::count<MergeSettings>() == listed<MergeSettings>());
    CHECK(members_of::count<WorldDraft>() == listed<WorldDraft>() + 5);   // both goals, lacks_maps, both places
}

TEST_CASE("a thing has each key once, and says what it means") {
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
