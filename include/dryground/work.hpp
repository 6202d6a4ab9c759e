// Edits a world on disk, with undo.
//
//     dg::EditSession session("station/world.toml", {.history = cache_folder});
//     const dg::Result<dg::Made> made = session.make(dg::AddThing{"fact", "lamp_lit"}, "fact add lamp_lit");
//     if (!made) fmt::print("{}", made.fault());   // why nothing was changed
//     const dg::Result<dg::Made> undone = session.undo();
//
// Nothing that an edit replaces is lost: the history contains the bytes of the files before and after it, outlives the
// program, and is stored outside the world's folder. If a file has since been changed by someone else, only what is
// still as the edit left it is undone, and the rest is reported.
//
// An edit is made completely or not at all: files are first written next to their places. If a program is killed
// between the first and the last file, the next session completes the edit. Threads: one session, one thread; two
// programs may edit one world at the same time, but undo each other's edits.
#pragma once

#include <cstdint>
#include <functional>
#include <optional>
#include <string>
#include <vector>

#include "dryground/edit.hpp"

namespace dryground {

// How an edit is checked for new and fixed findings.
enum class Checking {
    none,
    map,     // for an edit of one map: the findings of that map alone; for others: none
    world,   // all findings: the whole world is read and checked before and after
};

struct WorkOptions {
    std::string history{};                // folder, created if missing; empty: no history
    FileReader reader = read_file;        // for reading; files are always written to disk
    std::size_t most_edits = 200;         // older ones are dropped,
    std::size_t most_bytes = 64u << 20;   // and so are the oldest if all take more
    // Called before an edit is written; if it returns false, nothing is written. Empty: all are written.
    std::function<bool(const Edited&)> accept{};
    Checking checking = Checking::none;
};

// What an edit or an undo has done.
struct Made {
    std::string name{};                 // of the edit
    std::vector<std::string> files{};   // changed, added or removed, from the world's folder
    std::size_t changed = 0;            // cells, objects, keys, or other things, as `Edited` counts
    std::vector<std::string> told{};    // what could not be undone, file by file; why there is no history
    bool checked = false;               // by WorkOptions::checking; then
    Report new_findings{}, fixed_findings{};
};

struct PastEdit {
    std::string name{};
    std::int64_t seconds = 0;           // when it was made: since 1970, UTC
    std::vector<std::string> files{};   // from the world's folder
    bool undone = false;                // can be redone
};

class EditSession {
public:
    // Reads the history and completes an interrupted edit. Never throws because of files.
    explicit EditSession(std::string world_file, WorkOptions options = {});

    // Returns what an edit would do; nothing is written.
    [[nodiscard]] Result<Edited> plan(const WorldEdit& edit) const;
    // Makes an edit. Edits undone before can no longer be redone. A file saved by someone else in the meantime is read
    // again.
    Result<Made> make(const WorldEdit& edit, const std::string& name);

    // Undoes the last edit that is not undone; redoes the first undone one.
    Result<Made> undo();
    Result<Made> redo();
    [[nodiscard]] std::vector<PastEdit> history() const;   // oldest first
    void forget();   // deletes the history: for a different world at the same path

    [[nodiscard]] const std::string& world_file() const { return world_file_; }

private:
    // Makes an edit without checking; sets the world before and after it, if it was made.
    Result<Made> write(const WorldEdit& edit, const std::string& name, EditReads reads, Result<World>& before,
                       Result<World>& after);
    [[nodiscard]] Result<Made> go(const std::function<Result<Made>()>& carried) const;

    std::string world_file_;
    WorkOptions options_;
};

// Returns the folder for the histories of this user's worlds: dryground/history in $XDG_CACHE_HOME or in $HOME/.cache.
// Empty if neither variable is set.
[[nodiscard]] std::string history_folder();

// Merges two changes of a text: applies both where they do not overlap. Where they do, that part of `ours` is omitted,
// and its line, from 1, is in `left_out`.
struct Merged3 {
    std::string text{};
    std::vector<std::size_t> left_out{};
};
[[nodiscard]] Merged3 merge_changes(std::string_view was, std::string_view theirs, std::string_view ours);

}   // namespace dryground
