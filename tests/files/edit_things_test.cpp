// Layers, maps, tile sets, tiles and all that a world names come and go in their files.
// Also tests src/files: edit_layers edit_lists edit_things edit_tiles edit_painting text_tables differences
#include <catch2/catch.hpp>

#include "dryground/edit.hpp"
#include "worlds.hpp"

using namespace dryground;
using worlds::Files;

namespace {

struct Outcome {
    Files files;
    std::string fault;
    std::size_t changed = 0;
    std::vector<std::string> lost;
    std::string report;
};

Outcome edit(Files files, const WorldEdit& change) {
    const Result<Edited> edited = make_edit("world.toml", change, worlds::reader_of(files));
    if (!edited) return {std::move(files), edited.fault(), 0, {}, text(edited.report())};
    for (const NamedBytes& file : edited->files) files[file.file] = file.bytes;
    INFO(text(worlds::load(files).report()));
    REQUIRE(worlds::load(files));
    return {std::move(files), {}, edited->changed, edited->lost, {}};
}
Outcome edit_flat(const Files& files, const MapEdit& change) { return edit(files, EditMap{"flat", change}); }

// The lines that came and went of one file, joined by |, with + and - before them.
std::string changes(const Files& before, const Outcome& after, const std::string& file) {
    INFO(after.fault << after.report);
    REQUIRE(after.fault.empty());
    std::string lines, all = line_differences(before.at(file), after.files.at(file));
    for (std::size_t at = 0; at < all.size();) {
        const std::size_t end = all.find('\n', at);
        if (all[at] == '+' || all[at] == '-') lines += (lines.empty() ? "" : "|") + all.substr(at, end - at);
        at = end + 1;
    }
    return lines;
}

std::vector<std::string> layers_of(const Files& files) {
    const Result<World> loaded = worlds::load(files);
    std::vector<std::string> names;
    for (const Layer& layer : loaded->map("flat").layers) names.push_back(layer.name);
    return names;
}

}   // namespace

TEST_CASE("what a world names is added where its like stands, and taken away with its lines") {
    const Files files = worlds::small_world();
    const auto add = [&](const std::string& thing, const std::string& name, const GivenKeys& values) {
        return edit(files, AddThing{thing, name, values});
    };
    CHECK(changes(files, add("fact", "lit", {{"note", "it burns"}}), "world.toml") == "+ lit = \"it burns\"");
    CHECK(changes(files, add("barrier", "rope", {{"colour", "#b08d57"}}), "world.toml") ==
          "+ rope = { colour = \"#b08d57\" }");
    CHECK(changes(files, add("storey", "loft", {{"base_px", "32"}, {"height_px", "32"}}), "world.toml") ==
          "+ |+ [storeys.loft]|+ base_px = 32|+ height_px = 32");
    CHECK(changes(files, add("kind", "whelk", {{"like", "crab"}, {"patrol_px", "8"}}), "world.toml") ==
          "+ [kinds.whelk]|+ like = \"crab\"|+ props.patrol_px = 8|+ ");
    const Outcome shell =
        add("kind", "shell", {{"role", "entity"}, {"props.worth", "{ type = \"whole\", default = 1 }"}});
    CHECK(changes(files, shell, "world.toml") ==
          "+ [kinds.shell]|+ role = \"entity\"|+ props.worth = { type = \"whole\", default = 1 }|+ ");
    const Outcome gone = edit(shell.files, DropThing{"kind", "shell"});
    CHECK(gone.files == files);
    CHECK(edit(add("fact", "lit", {}).files, DropThing{"fact", "lit"}).files == files);
    CHECK(edit(add("mover", "gull", {{"body", "{ circle = 4 }"}}).files, DropThing{"mover", "gull"}).files == files);
    CHECK(changes(files, edit(files, GiveThing{"fact", "has_key", {{"note", "iron"}}}), "world.toml") ==
          "- has_key = \"the key\"|+ has_key = \"iron\"");
    CHECK(changes(files, edit(files, GiveThing{"kind", "crab", {{"props.worth", "{ type = \"whole\", default = 1 }"}}}),
                  "world.toml") == "+ props.worth = { type = \"whole\", default = 1 }");
}

TEST_CASE("tables on one line, dotted ones and comments above headers are taken as they are written") {
    Files files = worlds::small_world();
    files = worlds::with(files, "world.toml", "[facts]\nhas_key = \"the key\"\n\n", "");
    files = worlds::with(files, "world.toml", "maps = [\"flat.toml\"]\n",
                         "maps = [\"flat.toml\"]\nfacts = { has_key = \"the key\", lit = \"it burns\" }\n");
    CHECK(changes(files, edit(files, DropThing{"fact", "lit"}), "world.toml") ==
          "- facts = { has_key = \"the key\", lit = \"it burns\" }|+ facts = { has_key = \"the key\" }");
    CHECK(changes(files, edit(files, AddThing{"fact", "dry", {}}), "world.toml") ==
          "- facts = { has_key = \"the key\", lit = \"it burns\" }|"
          "+ facts = { has_key = \"the key\", lit = \"it burns\", dry = \"\" }");
    files = worlds::with(files, "world.toml", "facts = { has_key = \"the key\", lit = \"it burns\" }",
                         "facts.has_key = \"the key\"");
    CHECK(changes(files, edit(files, AddThing{"fact", "dry", {}}), "world.toml") == "+ facts.dry = \"\"");
    files = worlds::with(worlds::small_world(), "world.toml", "[kinds.crab]\n",
                         "# what a whelk is\n[kinds.whelk]\nlike = \"crab\"\n\n# what a crab is\n[kinds.crab]\n");
    CHECK(changes(files, edit(files, DropThing{"kind", "whelk"}), "world.toml") ==
          "- # what a whelk is|- [kinds.whelk]|- like = \"crab\"|- ");
}

TEST_CASE("the world's own keys, and those of its tables, are set") {
    const Files files = worlds::small_world();
    CHECK(changes(files, edit(files, GiveWorld{{{"title", "Low Water"}, {"check.leak", "off"}}}), "world.toml") ==
          "- title = \"Test Flat\"|+ title = \"Low Water\"|+ leak = \"off\"");
    CHECK(changes(files, edit(files, GiveWorld{{{"merging.within_px", "0.5"}, {"limits.maps", "3"}}}), "world.toml") ==
          "+ |+ [merging]|+ within_px = 0.5|+ |+ [limits]|+ maps = 3");
    CHECK(changes(files, edit(files, GiveWorld{{{"goals.facts", "has_key"}}}), "world.toml") ==
          "+ |+ [goals]|+ facts = [\"has_key\"]");
}

TEST_CASE("layers come, go and change places") {
    const Files files = worlds::small_world();
    const std::vector<std::string> first = layers_of(files);
    const Outcome top = edit_flat(files, AddLayer{"reeds", false, {}, {}, {{"decor", "true"}}});
    REQUIRE(top.fault.empty());
    CHECK(layers_of(top.files).back() == "reeds");
    CHECK(edit_flat(top.files, DropLayer{"reeds"}).files == files);
    const Outcome low = edit_flat(files, AddLayer{"mud", true, {}, first.front(), {}});
    CHECK(layers_of(low.files).front() == "mud");
    CHECK(edit_flat(low.files, DropLayer{"mud"}).files == files);
    const Outcome moved = edit_flat(low.files, OrderLayer{"mud", first.back(), {}});
    CHECK(layers_of(moved.files).back() == "mud");
    CHECK(edit_flat(moved.files, OrderLayer{"mud", {}, first.front()}).files == low.files);
    CHECK(edit_flat(moved.files, OrderLayer{"mud", first.back(), {}}).files == moved.files);   // it lies there
    CHECK(edit_flat(files, OrderLayer{"mud", {}, first.front()}).fault == "the map has no layer 'mud'");
    CHECK_THAT(edit_flat(files, OrderLayer{first.front(), {}, {}}).fault, Catch::StartsWith("name the layer above"));
    CHECK_THAT(edit_flat(files, AddLayer{first.front()}).fault, Catch::EndsWith("already"));
}

TEST_CASE("maps and tile sets come into the world's lists and leave them") {
    const Files files = worlds::small_world();
    const Outcome more = edit(files, AddMap{"cellar", 7, 3, {{"title", "The Cellar"}}});
    REQUIRE(more.fault.empty());
    const Result<World> loaded = worlds::load(more.files);
    CHECK(loaded->map("cellar").columns == 7);
    CHECK(loaded->map("cellar").title == "The Cellar");
    const Outcome off = edit(more.files, DropMap{"cellar"});
    CHECK(off.files.at("world.toml") == files.at("world.toml"));
    CHECK(off.files.count("cellar.map.toml") == 1);
    CHECK(edit(off.files, AddFile{"./cellar.map.toml"}).files == more.files);
    CHECK_THAT(edit(off.files, AddMap{"cellar", 2, 2}).fault, Catch::StartsWith("there is a file"));
    CHECK_THAT(edit(more.files, AddMap{"cellar", 2, 2}).fault, Catch::EndsWith("already"));
    CHECK_THAT(edit(files, AddFile{"world.toml"}).fault, Catch::Contains("neither a map nor a tile set"));
    CHECK_THAT(edit(files, DropTileSet{"mash"}).fault, Catch::Contains("did you mean 'marsh'?"));
    CHECK(edit(files, DropTileSet{"marsh"}).fault == "after this edit the world could not be read");
}

TEST_CASE("tiles are added to their set and taken out of it") {
    const Files files = worlds::small_world();
    const Outcome more =
        edit(files, AddTile{"marsh", "ledge", {{"unseen", "true"}, {"shapes", "[{ box = [0, 8, 16, 8] }]"}}});
    CHECK(changes(files, more, "marsh.toml") ==
          "+ |+ [tiles.ledge]|+ unseen = true|+ shapes = [{ box = [0, 8, 16, 8] }]");
    CHECK(edit(more.files, DropTiles{"marsh", "ledg*"}).files == files);
    CHECK_THAT(edit(files, AddTile{"marsh", "peat", {}}).fault, Catch::EndsWith("already"));
    CHECK_THAT(edit(files, DropTiles{"marsh", "peet"}).fault, Catch::Contains("did you mean 'peat'?"));
    CHECK(edit(files, DropTiles{"marsh", "peat"}).fault ==
          "after this edit the world could not be read");   // the map has it
}

TEST_CASE("families, blocks and kinds are brushes, and cells move from layer to layer") {
    Files files = worlds::small_world();
    files["marsh.toml"] +=
        "\n[families.dyke]\nmembers = [{ tile = \"peat\", joined = [] }]\n"
        "\n[blocks.post]\nrows = \"A\"\nanchor = \"A\"\nlegend = { \"A\" = \"peat\" }\n";
    const auto legend_after = [&](const std::string& what) {
        return changes(files, edit_flat(files, PaintCells{"", what, {{1, 0}}}), "flat.toml");
    };
    CHECK_THAT(legend_after("dyke"), Catch::Contains("{ family = \"dyke\" }"));
    CHECK_THAT(legend_after("post"), Catch::Contains("{ block = \"post\" }"));
    CHECK_THAT(legend_after("crab"), Catch::Contains("{ kind = \"crab\" }"));
    CHECK_THAT(legend_after("kind crab"), Catch::Contains("{ kind = \"crab\" }"));
    CHECK_THAT(edit_flat(files, PaintCells{"", "crab:x", {{1, 0}}}).fault, Catch::Contains("no flips and turns"));
    CHECK_THAT(edit_flat(files, PaintCells{"", "crap", {{1, 0}}}).fault, Catch::Contains("did you mean 'crab'?"));
    const Outcome two =
        edit_flat(edit_flat(files, AddLayer{"deck", false}).files, PaintCells{"ground", "crab", {{1, 0}}});
    const Outcome moved = edit_flat(two.files, CopyCells{"ground", {0, 0, 3, 1}, {2, 1}, "deck", true});
    REQUIRE(moved.fault.empty());
    const Result<World> loaded = worlds::load(moved.files);
    const auto& objects = loaded->map("flat").objects;
    CHECK(std::any_of(objects.begin(), objects.end(), [](const Object& one) {
        return one.position == Point{(16 * 3 + 8) * steps_per_px, (16 + 8) * steps_per_px};
    }));
}

TEST_CASE("what goes over the edge is reported, and places in properties are carried along") {
    Files files = worlds::small_world();
    const Outcome smaller = edit_flat(files, ResizeMap{2, 2, Keep::top_left});
    REQUIRE(smaller.lost.size() == 1);
    CHECK_THAT(smaller.lost.front(), Catch::Contains("cells of layer 'ground': ") && Catch::Contains("marsh/peat"));
    CHECK(edit_flat(files, ResizeMap{9, 9, Keep::top_left}).lost.empty());
    files = worlds::with(files, "world.toml", "props.patrol_px =",
                         "props.home = { type = \"place\", default = [0, 0] }\n"
                         "props.way = { type = \"list\", of = \"place\", default = [] }\nprops.patrol_px =");
    const Outcome placed = edit_flat(files, GiveObject{"crab_a", {{"home", "8,8"}, {"way", "[[0, 0], [16, 8]]"}}});
    REQUIRE(placed.fault.empty());
    const Outcome shifted = edit_flat(placed.files, ShiftMap{1, 0});
    CHECK_THAT(shifted.files.at("flat.toml"), Catch::Contains("home = [24, 8]") || Catch::Contains("home = [24,8]"));
    CHECK_THAT(shifted.files.at("flat.toml"), Catch::Contains("[[16, 0], [32, 8]]"));
}

TEST_CASE("what cannot be added or taken away says why, and changes nothing") {
    const Files files = worlds::small_world();
    const auto fault = [&](const WorldEdit& change) {
        const Outcome result = edit(files, change);
        CHECK(result.files == files);
        return result.fault;
    };
    CHECK_THAT(fault(AddThing{"fact", "has_key", {}}), Catch::EndsWith("already"));
    CHECK_THAT(fault(AddThing{"fact", "lit", {{"colour", "red"}}}), Catch::Contains("its one key is 'note'"));
    CHECK_THAT(fault(AddThing{"door", "lit", {}}), Catch::Contains("it has barriers, flags"));
    CHECK_THAT(fault(AddThing{"fact", "has key", {}}), Catch::Contains("the world could not be read"));
    CHECK_THAT(fault(DropThing{"kind", "crap"}), Catch::Contains("did you mean 'crab'?"));
    CHECK_THAT(fault(DropThing{"barrier", "earth"}), Catch::Contains("the world could not be read"));
    CHECK_THAT(fault(GiveWorld{{{"checks.leak", "off"}}}), Catch::Contains("check.RULE"));
    CHECK_THAT(fault(AddMap{"none", 0, 3, {}}), Catch::Contains("at least one"));
}
