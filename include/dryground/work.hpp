// A world on disk that is being changed: edits made in its files, each with a way back.
//
//     dg::EditSession session("station/world.toml", {.history = cache_folder});
//     const dg::Result<dg::Made> made = session.make(dg::AddThing{"fact", "lamp_lit"}, "fact add lamp_lit");
//     if (!made) fmt::print("{}", made.fault());   // why nothing was changed
//     const dg::Result<dg::Made> undone = session.undo();
//
// Nothing that an edit replaces is lost: the history holds the files' bytes from before it and from after it, outlives
// the program, and is kept apart from the world's own folder. Where a file was changed by somebody else since, only
// what still stands as the edit left it is taken back, and what could not be is told.
//
// An edit is whole or not made: files are written beside their places first. Where a program is killed between the
// first and the last file, the next session finishes what was begun. Threads: one session, one thread; two programs on
// one world at a time may each make edits, but undo what the other made.
#pragma once

#include <cstdint>
#include <functional>
#include <optional>
#include <string>
#include <vector>

#include "dryground/edit.hpp"

namespace dryground {

// Which findings an edit is told to have brought, or mended.
enum class Checking {
    none,
    map,     // of an edit of one map, what is found in that map by itself; of other edits nothing
    world,   // all that `check` finds: the whole world is read and checked before and after
};

struct WorkOptions {
    std::string history{};                // a folder that is made where it is not there; empty: no history is kept
    FileReader reader = read_file;        // what edits read; files are written to the disk in any case
    std::size_t most_edits = 200;         // older ones are forgotten,
    std::size_t most_bytes = 64u << 20;   // and so are the oldest where all of it takes more
    // Asked before an edit is written; where it is false nothing is, and nothing is said of it. None: all are written.
    std::function<bool(const Edited&)> accept{};
    Checking checking = Checking::none;
};

// What an edit, or taking one back, has done.
struct Made {
    std::string name{};                 // what the edit is called
    std::vector<std::string> files{};   // that were changed, added or removed, from the world's folder
    std::size_t changed = 0;            // cells, objects, keys, or other things, as `Edited` counts
    std::vector<std::string> told{};    // what could not be taken back, file by file; why there is no history
    bool checked = false;               // as WorkOptions::checking says; then
    Report new_findings{}, fixed_findings{};
};

struct PastEdit {
    std::string name{};
    std::int64_t seconds = 0;           // since 1970, UTC: when it was made
    std::vector<std::string> files{};   // from the world's folder
    bool undone = false;                // redo makes it again
};

class EditSession {
public:
    // Reads the history, and finishes what was begun. Never throws for what is on disk.
    explicit EditSession(std::string world_file, WorkOptions options = {});

    // What an edit would do; nothing is written.
    [[nodiscard]] Result<Edited> plan(const WorldEdit& edit) const;
    // Makes it. What was undone before is then no longer there to be made again. A file that is saved by somebody else
    // while the edit is worked out is read again.
    Result<Made> make(const WorldEdit& edit, const std::string& name);

    // Takes back the last edit that is not undone; makes the first undone one again.
    Result<Made> undo();
    Result<Made> redo();
    [[nodiscard]] std::vector<PastEdit> history() const;   // the oldest first
    void forget();                                         // the history: this is another world at the same path

    [[nodiscard]] const std::string& world_file() const { return world_file_; }

private:
    // Makes an edit without checking; gives the world before and after it, where it was made.
    Result<Made> write(const WorldEdit& edit, const std::string& name, EditReads reads, Result<World>& before,
                       Result<World>& after);
    [[nodiscard]] Result<Made> go(const std::function<Result<Made>()>& carried) const;

    std::string world_file_;
    WorkOptions options_;
};

// Where the histories of this user's worlds are kept: dryground/history in $XDG_CACHE_HOME, or in $HOME/.cache. Empty
// where neither is said.
[[nodiscard]] std::string history_folder();

// What a text becomes that was changed by somebody while another change is made to what it was: both changes, where
// they do not meet. Where they do, that part of the second is left out, and its line, from 1, is in `left_out`.
struct Merged3 {
    std::string text{};
    std::vector<std::size_t> left_out{};
};
[[nodiscard]] Merged3 merge_changes(std::string_view was, std::string_view theirs, std::string_view ours);

}   // namespace dryground
