// Edits are made in files and taken back, byte for byte; and what somebody else wrote meanwhile is never lost.
// Also tests src/work: journal merge_changes
// Also tests src/files: edit_reads
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>
#include <set>

#include "dryground/pack_parts.hpp"
#include "dryground/work.hpp"
#include "folder.hpp"
#include "random_worlds.hpp"
#include "worlds.hpp"

using namespace dryground;
using worlds::Files;
namespace fs = std::filesystem;

namespace {

// A world in a folder, with a history beside it.
struct OnDisk {
    explicit OnDisk(const Files& files) {
        for (const auto& [name, bytes] : files) process::spill(world_folder() / name, bytes);
    }
    [[nodiscard]] fs::path world_folder() const { return folder.path / "station"; }
    [[nodiscard]] std::string world() const { return (world_folder() / "world.toml").string(); }
    [[nodiscard]] EditSession session() const { return EditSession(world(), {history()}); }
    [[nodiscard]] std::string history() const { return (folder.path / "history").string(); }
    [[nodiscard]] Files files() const {
        Files all;
        for (const auto& entry : fs::recursive_directory_iterator(world_folder()))
            if (entry.is_regular_file())
                all[entry.path().lexically_relative(world_folder()).generic_string()] = process::slurp(entry.path());
        return all;
    }
    [[nodiscard]] fs::path journal() const {
        return fs::path(history()) / content_hash(fs::weakly_canonical(world()).generic_string());
    }

    process::Folder folder;
};

Files random_files(std::uint64_t round) {
    Files files;
    for (const NamedBytes& file : *world_files(random_worlds::make(round))) files[file.file] = file.bytes;
    return files;
}

// Any sort of edit, of which some cannot be made.
WorldEdit random_edit(chance::Dice& dice, int number) {
    const auto in_map = [](const MapEdit& edit) { return WorldEdit(EditMap{"flat", edit}); };
    const Cell cell{dice.in(0, 5), dice.in(0, 3)};
    const std::string layer = dice.once_in(2) ? "ground" : "deck", name = "new_" + std::to_string(number);
    switch (dice.in(0, 15)) {
        case 0:
            return in_map(FillCells{layer, "marsh/peat", cell});
        case 1:
            return in_map(CopyCells{"ground", {0, 0, 2, 2}, cell, "deck", dice.once_in(2)});
        case 2:
            return in_map(AddObject{"", name, "spawn", ObjectAt(cell), {}, {}});
        case 3:
            return in_map(AddLayer{name, dice.once_in(2), {}, dice.once_in(2) ? "deck" : "", {}});
        case 4:
            return in_map(OrderLayer{"deck", {}, "ground"});
        case 5:
            return in_map(
                ResizeMap{dice.in(5, 9), dice.in(4, 8), dice.once_in(2) ? Keep::top_left : Keep::bottom_right});
        case 6:
            return in_map(ShiftMap{dice.in(-1, 1), dice.in(-1, 1)});
        case 7:
            return in_map(DropLayer{"new_" + std::to_string(number - 1)});
        case 8:
            return AddThing{"fact", name, {{"note", "said twice"}}};
        case 9:
            return AddThing{"kind", name, {{"role", "entity"}, {"props.worth", "{ type = \"whole\", default = 2 }"}}};
        case 10:
            return DropThing{dice.once_in(2) ? "fact" : "kind", "new_" + std::to_string(number - 1)};
        case 11:
            return GiveWorld{{{"title", name}, {"check.leak", "off"}}};
        case 12:
            return AddMap{name, 5, 4, {{"title", "Another"}}};
        case 13:
            return AddTile{"marsh", name, {{"unseen", "true"}}};
        case 14:
            return DropTiles{"marsh", "new_*"};
        default:
            return in_map(PaintCells{layer, "marsh/bank:x:90", {cell}});
    }
}

}   // namespace

TEST_CASE("all random edits of random worlds are taken back to the first byte, and made again to the last") {
    int made = 0;
    std::set<std::size_t> sorts;
    for (int round = 0; round < chance::rounds(40); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(static_cast<std::uint64_t>(round) + 21'000'000);
        const OnDisk disk(random_files(static_cast<std::uint64_t>(round)));
        std::vector<Files> states{disk.files()};
        for (int i = 0; i < 6; ++i) {
            const WorldEdit edit = random_edit(dice, i);
            // Reading just the maps that it needs comes to the same as reading all.
            const Result<Edited> few = make_edit(disk.world(), edit),
                                 all = make_edit(disk.world(), edit, read_file, EditReads::all);
            REQUIRE(few.fault() == all.fault());
            REQUIRE(bool(few) == bool(all));
            if (few) {
                REQUIRE(few->files.size() == all->files.size());
                for (std::size_t f = 0; f < few->files.size(); ++f) REQUIRE(few->files[f].bytes == all->files[f].bytes);
            }
            const Result<Made> done = disk.session().make(edit, "edit " + std::to_string(i));
            INFO(edit.index() << " " << done.fault() << text(done.report()));
            const bool could_be_read = bool(load_world(disk.world()));
            REQUIRE(could_be_read);
            if (!done) REQUIRE(disk.files() == states.back());
            if (!done || done->files.empty()) continue;
            REQUIRE(done->told.empty());
            states.push_back(disk.files());
            sorts.insert(edit.index());
            ++made;
        }
        REQUIRE(disk.session().history().size() == states.size() - 1);
        for (std::size_t i = states.size() - 1; i-- > 0;) {
            const Result<Made> undone = disk.session().undo();
            REQUIRE(undone);
            REQUIRE(undone->told.empty());
            REQUIRE(disk.files() == states[i]);
        }
        CHECK_FALSE(disk.session().undo());
        REQUIRE(disk.files() == states.front());
        for (std::size_t i = 1; i < states.size(); ++i) {
            REQUIRE(disk.session().redo());
            REQUIRE(disk.files() == states[i]);
        }
        CHECK_FALSE(disk.session().redo());
    }
    CHECK(made > chance::rounds(40) * 2);
    CHECK(sorts.size() >= 6);
}

TEST_CASE("what somebody else wrote in the same row is kept, and what is taken back is only the edit") {
    const OnDisk disk(worlds::small_world());
    const fs::path map = disk.world_folder() / "flat.toml";
    EditSession session = disk.session();
    REQUIRE(session.make(EditMap{"flat", PaintCells{"", "peat", {{2, 0}, {3, 0}}}}, "set peat"));
    const std::string edited = process::slurp(map);
    std::string by_hand = edited;
    by_hand.replace(by_hand.find("..##.."), 6, "#.##..");
    process::spill(map, "# mine\n" + by_hand);
    const Result<Made> undone = session.undo();
    CHECK(undone->told.empty());
    CHECK(process::slurp(map) == "# mine\n" + worlds::with(Files{{"f", edited}}, "f", "..##..", "#.....")["f"]);
    REQUIRE(session.redo()->told.empty());
    CHECK(process::slurp(map) == "# mine\n" + by_hand);
    // One of its cells is another by now: that one stays, and is told.
    process::spill(map, worlds::with(Files{{"f", by_hand}}, "f", "#.##..", "#.#/..")["f"]);
    const Result<Made> half = session.undo();
    REQUIRE(half->told.size() == 1);
    CHECK_THAT(half->told.front(),
               Catch::Contains("flat.toml: what stood in line") && Catch::Contains("left as it is"));
    CHECK_THAT(process::slurp(map), Catch::Contains("#../.."));
}

namespace {

// The small world, and a cellar that a door leads to.
Files with_cellar() {
    Files files = worlds::small_world();
    files = worlds::with(files, "world.toml", "\"flat.toml\"", "\"flat.toml\", \"cellar.toml\"");
    files = worlds::with(files, "world.toml", "fact-unread = \"off\"\n", "");
    files["cellar.toml"] =
        worlds::with(Files{{"f", files["flat.toml"]}}, "f", "name = \"flat\"", "name = \"cellar\"")["f"];
    return files;
}

}   // namespace

TEST_CASE("an edit of one map reads no other, unless it names one, and reports what is found in it by itself") {
    const OnDisk disk(with_cellar());
    std::set<std::string> read;
    WorkOptions how{disk.history(), [&](const std::string& path) {
                        read.insert(fs::path(path).filename().string());
                        return read_file(path);
                    }};
    how.checking = Checking::map;
    EditSession session(disk.world(), how);
    const Result<Made> blocked = session.make(EditMap{"flat", PaintCells{"", "peat", {{1, 2}, {2, 2}}}}, "set peat");
    INFO(blocked.fault() << text(blocked.report()));
    REQUIRE(blocked->files == std::vector<std::string>{"flat.toml"});
    CHECK(read.count("flat.toml") == 1);
    CHECK(read.count("cellar.toml") == 0);
    REQUIRE(blocked->checked);
    CHECK(worlds::of_rule(blocked->new_findings, Rule::spawn_blocked).size() >= 1);
    const Result<Made> mended = session.make(EditMap{"flat", PaintCells{"", "", {{1, 2}, {2, 2}}}}, "set nothing");
    CHECK(mended->new_findings.empty());
    CHECK(mended->fixed_findings.findings().size() == blocked->new_findings.findings().size());
    // a door to the cellar: now that is read, and a door to a place that it does not have is found by no rule of one
    // map
    read.clear();
    const Result<Made> door = session.make(
        EditMap{"flat", AddObject{"", "hatch", "link", ObjectAt(Cell{4, 1}), "cellar/landing", {}}}, "object add");
    INFO(door.fault());
    CHECK(door);
    CHECK(read.count("cellar.toml") == 1);
    // of what others may refer to all is read
    read.clear();
    CHECK(session.make(EditMap{"flat", DropObject{"hatch"}}, "object drop"));
    CHECK(read.count("cellar.toml") == 1);
    const Result<Made> fact = session.make(AddThing{"fact", "lamp_lit", {}}, "fact add");
    CHECK_FALSE(fact->checked);
}

TEST_CASE("a session that checks the world reports what is new and what is fixed, when edits are taken back too") {
    const OnDisk disk(with_cellar());
    WorkOptions how{disk.history()};
    how.checking = Checking::world;
    EditSession session(disk.world(), how);
    const Result<Made> fact = session.make(AddThing{"fact", "lamp_lit", {}}, "fact add");
    REQUIRE(fact->checked);
    REQUIRE(worlds::of_rule(fact->new_findings, Rule::fact_unread).size() == 1);
    const Result<Made> undone = session.undo();
    CHECK(undone->new_findings.empty());
    CHECK(worlds::of_rule(undone->fixed_findings, Rule::fact_unread).size() == 1);
    CHECK(worlds::of_rule(session.redo()->new_findings, Rule::fact_unread).size() == 1);
}

TEST_CASE("an edit that is not accepted is not made") {
    const OnDisk disk(worlds::small_world());
    const Files before = disk.files();
    std::vector<std::string> lost;
    WorkOptions how{disk.history()};
    how.accept = [&](const Edited& planned) {
        lost = planned.lost;
        return false;
    };
    EditSession careful(disk.world(), how);
    const Result<Made> made = careful.make(EditMap{"flat", ResizeMap{2, 2}}, "size 2,2");
    CHECK(made);
    CHECK(made->files.empty());
    CHECK(lost.size() == 1);
    CHECK(disk.files() == before);
    CHECK(careful.history().empty());
}

TEST_CASE("a map that was made and changed by hand since is not removed") {
    const OnDisk disk(worlds::small_world());
    EditSession session = disk.session();
    REQUIRE(session.make(AddMap{"cellar", 5, 4, {}}, "map add cellar")->files.size() == 2);
    const fs::path map = disk.world_folder() / "cellar.map.toml";
    REQUIRE(fs::exists(map));
    process::spill(map, process::slurp(map) + "# mine\n");
    const Result<Made> undone = session.undo();
    REQUIRE(undone->told.size() == 1);
    CHECK(fs::exists(map));
    CHECK(disk.files()["world.toml"] == worlds::small_world()["world.toml"]);
}

TEST_CASE("what was cut short between two files is finished, or taken back wholly, by the next session") {
    const OnDisk disk(worlds::small_world());
    const Files before = disk.files();
    REQUIRE(disk.session().make(AddMap{"cellar", 5, 4, {}}, "map add cellar"));
    const Files after = disk.files();
    const auto cut_short = [&](const Files& world_files, const char* name, bool back) {
        process::spill(disk.world_folder() / name, world_files.at(name));
        nlohmann::json state = nlohmann::json::parse(process::slurp(disk.journal() / "state.json"));
        state["pending"] = 1, state["back"] = back, state["done"] = back ? 1 : 0;
        process::spill(disk.journal() / "state.json", state.dump());
    };
    cut_short(before, "world.toml", false);   // the map was written, the world was not
    REQUIRE(disk.session().history().size() == 1);
    CHECK(disk.files() == after);
    CHECK_FALSE(disk.session().history().front().undone);
    cut_short(before, "world.toml", true);
    REQUIRE(disk.session().history().size() == 1);
    CHECK(disk.files() == before);
    CHECK(disk.session().history().front().undone);
}

TEST_CASE("the history forgets the oldest edits, and stands damage") {
    const OnDisk disk(worlds::small_world());
    const auto toggle = [&](EditSession& session, int i) {
        return session.make(EditMap{"flat", PaintCells{"", i % 2 == 0 ? "peat" : "", {{2, 0}}}}, std::to_string(i));
    };
    EditSession few(disk.world(), {disk.history(), read_file, 3});
    for (int i = 0; i < 5; ++i) REQUIRE(toggle(few, i));
    REQUIRE(few.history().size() == 3);
    CHECK(few.history().front().name == "2");
    CHECK(few.undo()->name == "4");
    for (const std::string& bytes : {std::string(), std::string("{"), std::string("\xFF\x00\x13", 3)}) {
        process::spill(disk.journal() / "000004.edit", bytes);
        CHECK_FALSE(few.undo());   // nothing that could be read
        CHECK(few.history().size() == 2);
    }
    const Files files = disk.files();
    process::spill(disk.journal() / "state.json", "[1, 2");
    CHECK_FALSE(disk.session().undo());
    CHECK(disk.files() == files);
    EditSession none(disk.world(), {});
    CHECK(toggle(none, 1));
    CHECK(none.history().empty());
    few.forget();
    CHECK(few.history().empty());
    // Where no history can be written, the edit is made and told so.
    process::spill(disk.folder.path / "file", "");
    EditSession blocked(disk.world(), {(disk.folder.path / "file" / "history").string()});
    const Result<Made> made = toggle(blocked, 0);
    CHECK(made);
    REQUIRE(made->told.size() == 1);
    CHECK_THAT(made->told.front(), Catch::StartsWith("this edit cannot be undone"));
}

TEST_CASE("an entry that names a file outside of the world's folder is not followed") {
    const OnDisk disk(worlds::small_world());
    EditSession session = disk.session();
    REQUIRE(session.make(AddThing{"fact", "lit", {}}, "fact add lit"));
    const fs::path entry = disk.journal() / "000001.edit";
    nlohmann::json json = nlohmann::json::from_cbor(process::slurp(entry));
    json["files"][0]["file"] = "../outside.toml";
    json["files"][0]["after"] = nullptr;
    const std::vector<std::uint8_t> bytes = nlohmann::json::to_cbor(json);
    process::spill(entry, std::string(bytes.begin(), bytes.end()));
    CHECK_FALSE(session.undo());
    CHECK_FALSE(fs::exists(disk.folder.path / "outside.toml"));
}

TEST_CASE("two changes of a text are both made where they do not meet") {
    const auto merged = [](const char* was, const char* theirs, const char* ours) {
        return merge_changes(was, theirs, ours);
    };
    CHECK(merged("a\nb\nc\n", "A\nb\nc\n", "a\nb\nC\n").text == "A\nb\nC\n");
    CHECK(merged("....\n", "#...\n", "...#\n").text == "#..#\n");
    CHECK(merged("....\n", "#...\n", "~...\n").text == "#...\n");
    CHECK(merged("....\n", "#...\n", "~...\n").left_out == std::vector<std::size_t>{1});
    CHECK(merged("....\n", "#...\n", "#...\n").left_out.empty());
    CHECK(merged("a = 1\n", "a = 1 # one\n", "a = 12\n").text == "a = 1 # one\n");   // both put something behind the 1
    CHECK(merged("é.\n", "é#\n", "ü.\n").text == "ü#\n");
    CHECK(merged("", "x\n", "").text == "x\n");
    for (int round = 0; round < 500; ++round) {   // either change alone is the other text
        chance::Dice dice(static_cast<std::uint64_t>(round) + 22'000'000);
        const auto text = [&] {
            std::string lines;
            for (int i = dice.in(0, 6); i > 0; --i)
                lines += std::string(static_cast<std::size_t>(dice.in(0, 4)), "ab#"[dice.in(0, 2)]) + "\n";
            return lines;
        };
        const std::string was = text(), other = text();
        CHECK(merge_changes(was, was, other).text == other);
        CHECK(merge_changes(was, other, was).text == other);
        CHECK(merge_changes(was, other, other).text == other);
        CHECK(merge_changes(was, other, other).left_out.empty());
    }
}
