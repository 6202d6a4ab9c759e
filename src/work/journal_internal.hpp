// Inside the work room: the changes made to a world's files, kept in a separate folder.
#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <vector>

#include "dryground/result.hpp"

namespace dryground::work {

struct FileChange {
    std::string file;                           // from the world's folder
    std::optional<std::string> before, after;   // its bytes; nothing: the file did not exist, or does not
};
struct Entry {
    int number = 0;
    std::string name;
    std::int64_t seconds = 0;   // since 1970, UTC
    std::vector<FileChange> files;
};

// Edits are numbered from 1 on. Those up to `done` are made, those after it are undone.
struct State {
    int done = 0;
    int pending = 0;     // an edit whose files are being written; 0 for none
    bool back = false;   // whether it is being undone
};

class Journal {
public:
    // Opens the journal of a world. `folder`: that of all histories; empty keeps none.
    Journal(const std::string& folder, const std::string& world_file);

    [[nodiscard]] bool kept() const { return !folder_.empty(); }
    [[nodiscard]] State state() const;   // the default if it cannot be read
    [[nodiscard]] std::vector<int> numbers() const;
    [[nodiscard]] std::optional<Entry> entry(int number) const;

    Result<void> set_state(const State& state) const;
    Result<void> add(const Entry& entry) const;
    void forget_after(int number) const;
    // Removes the oldest, as long as there are more, or more bytes, than that.
    void forget_old(std::size_t most_edits, std::size_t most_bytes) const;

private:
    [[nodiscard]] std::string path(int number) const;

    std::string folder_;   // of this world's history
    std::string world_;    // its file, by the one path that leads to it
};

}   // namespace dryground::work
