// Any key of a thing is set in its file, typed and checked; nothing else in it changes.
// Also tests src/files: edit_keys
#include <catch2/catch.hpp>

#include <sstream>

#include "dryground/edit.hpp"
#include "files/keys/listing_internal.hpp"
#include "worlds.hpp"

using namespace dryground;
using worlds::Files;

namespace {

struct After {
    std::string fault, came;   // the lines that came, joined by |
    std::size_t changed = 0;
};

After after(const Files& files, const Result<Edited>& edited) {
    After result{edited.fault(), {}, edited ? edited->changed : 0};
    if (!edited) return result;
    Files all = files;
    for (const NamedBytes& file : edited->files) {
        std::istringstream lines(line_differences(files.at(file.file), file.bytes));
        for (std::string line; std::getline(lines, line);)
            if (line[0] == '+') result.came += (result.came.empty() ? "" : "|") + line.substr(2);
        all[file.file] = file.bytes;
    }
    REQUIRE(worlds::load(all));
    return result;
}
After give(const Files& files, const MapEdit& edit) {
    return after(files, make_edit("world.toml", EditMap{"flat", edit}, worlds::reader_of(files)));
}
After crab(const Files& files, const GivenKeys& values) { return give(files, GiveObject{"crab_a", values}); }

}   // namespace

TEST_CASE("an object is given any key, typed as the key is") {
    const Files files = worlds::small_world();
    const std::string head = R"(  { name = "crab_a", kind = "crab", )";
    CHECK(crab(files, {{"box", "0,8,16,8"}}).came == head + "box = [0, 8, 16, 8] },");   // in place of `at`
    CHECK(crab(files, {{"at", "[1, 2.5]"}}).came == head + "at = [1, 2.5] },");
    CHECK(crab(files, {{"once", "true"}, {"every_s", "0.5"}}).came ==
          head + "at = [40, 48], once = true, every_s = 0.5 },");
    CHECK(crab(files, {{"fires", "use"}, {"gives", "has_key"}}).came ==
          head + "at = [40, 48], fires = \"use\", gives = [\"has_key\"] },");
    CHECK(crab(files, {{"tags", "red,big"}, {"props.patrol_px", "4"}}).came ==
          head + "at = [40, 48], tags = [\"red\", \"big\"], props = { patrol_px = 4 } },");
    CHECK(crab(files, {{"surface", "{ friction = 0.5 }"}}).came ==
          head + "at = [40, 48], surface = { friction = 0.5 } },");
    const After added =
        give(files, AddObject{"", "crab_b", "crab", PointPx{1, 2}, "", {{"once", "true"}, {"patrol_px", "3"}}});
    CHECK(added.came ==
          R"(  { name = "crab_b", kind = "crab", at = [1, 2], once = true, props = { patrol_px = 3 } },)");
}

TEST_CASE("layers, maps, kinds and tiles are given keys") {
    const Files files = worlds::small_world();
    CHECK(give(files, GiveLayer{"ground", {{"opacity", "0.5"}, {"sink", "0,2,0,0"}}}).came ==
          "opacity = 0.5|sink = [0, 2, 0, 0]");
    CHECK(give(files, GiveMap{{{"rim", "open"}, {"title", "The Flat"}}}).came == "rim = \"open\"|title = \"The Flat\"");
    const auto kind = [&](const GivenKeys& values) {
        return after(files, make_edit("world.toml", GiveThing{"kind", "crab", values}, worlds::reader_of(files)));
    };
    CHECK(kind({{"stands", "feet"}}).came.find("stands = \"feet\"") != std::string::npos);
    // Of a property that it declares the default changes.
    CHECK(kind({{"patrol_px", "8"}}).came == "props.patrol_px = { type = \"number\", default = 8, min = 0 }");
    const auto tiles = [&](const std::string& pattern, const GivenKeys& values) {
        return after(files, make_edit("world.toml", GiveTiles{"marsh", pattern, values}, worlds::reader_of(files)));
    };
    CHECK(tiles("b*", {{"tags", "b"}}).changed == 3);
    CHECK(tiles("peat", {{"barrier", "brine"}, {"shapes", "[{ box = [0, 8, 16, 8] }]"}}).came ==
          "barrier = \"brine\"|shapes = [{ box = [0, 8, 16, 8] }]");
    CHECK(tiles("x*", {{"tags", "b"}}).fault == "tile set 'marsh' has no tile that matches 'x*'");
    CHECK(make_edit("world.toml", GiveThing{"kind", "crb", {}}, worlds::reader_of(files)).fault() ==
          "the world has no kind 'crb'; did you mean 'crab'?");
}

TEST_CASE("what cannot be set is reported with what could be, and nothing changes") {
    const Files files = worlds::small_world();
    struct Row {
        const char *key, *value, *says;
    };
    for (const Row& row : {
             Row{"evry_s", "2", "did you mean 'every_s'?"},
             Row{"patrol", "2", "patrol_px"},
             Row{"flavour", "2", "`dryground keys object` lists its keys; its properties: patrol_px"},
             Row{"props.flavour", "2", "no property 'flavour'"},
             Row{"every_s", "-1", "should be 0 or more"},
             Row{"every_s", "soon", "should be a number"},
             Row{"once", "yes", "should be true or false"},
             Row{"fires", "entre", "did you mean 'enter'?"},
             Row{"cell", "1", "2 whole numbers, as in 8,16"},
             Row{"cell", "1,2.5", "a whole number"},
             Row{"box", "1,2,3", "4 numbers"},
             Row{"carves", "earth", "edit it in the file"},
             Row{"surface", "rough", "a TOML value"},
             Row{"name", "crab_c", "rename it in all files"},
             Row{"patrol_px", "far", "whose type is number"},
             Row{"gives", "no_such_fact", "the world could not be read"},
         }) {
        INFO(row.key << "=" << row.value);
        const After result = crab(files, {{row.key, row.value}});
        CHECK_THAT(result.fault, Catch::Contains(row.says));
        CHECK(result.came.empty());
    }
    CHECK(give(files, GiveLayer{"", {{"decor", "true"}}}).fault == "which layer? the map has ground, people");
}

// Every key of objects that takes a plain value can be given one, where nothing else forbids it.
TEST_CASE("each plain key of an object takes what its list says it takes") {
    const Files files = worlds::small_world();
    const std::map<std::string_view, std::string> names{{"kind", "crab"},  {"barrier", "earth"}, {"storey", "ground"},
                                                        {"event", "ring"}, {"mover", "warden"},  {"fact", "has_key"}};
    std::size_t given = 0;
    for (const keys::Entry& entry : keys::thing("object").entries) {
        const keys::Key& key = entry.key;
        std::string value;
        if (!key.words.empty())
            value = key.words.back();
        else if (entry.sort == keys::Sort::yes_no)
            value = "false";
        else if (entry.sort == keys::Sort::number)
            value = "2";
        else if (entry.sort == keys::Sort::numbers || entry.sort == keys::Sort::wholes)
            value = entry.count == 2 ? "1,2" : entry.count == 3 ? "8,8,4" : entry.count == 4 ? "1,1,2,2" : "1,2,8,9,3";
        else if (names.count(key.refers) > 0)
            value = names.at(key.refers);
        else if (entry.sort == keys::Sort::texts)
            value = "red";
        else
            continue;   // its name, where a link leads, what is TOML
        INFO(key.name << "=" << value);
        const After result = crab(files, {{std::string(key.name), value}});
        CHECK(result.fault == "");
        CHECK((!result.came.empty() || key.name == "kind"));   // it is a crab already
        ++given;
    }
    CHECK(given >= 22);
}
