// The verbs that undo and redo edits.

#include <fmt/chrono.h>
#include <fmt/format.h>

#include <algorithm>

#include "edit_internal.hpp"

namespace app {

namespace dg = dryground;

namespace {

dg::EditSession session_of(const EditOptions& options, const dg::FoundWorld& found) {
    dg::WorkOptions how{dg::history_folder(), found.reader};
    how.checking = checking_of(options, found);
    return dg::EditSession(found.world, std::move(how));
}

void go(const EditOptions& options, bool back) {
    const dg::FoundWorld found = find_world(options);
    dg::EditSession session = session_of(options, found);
    const dg::Result<dg::Made> made = back ? session.undo() : session.redo();
    say_made(options, found, made, fmt::format("{}: {}", back ? "undone" : "made again", made ? made->name : ""));
}

// What fits on a line.
std::string short_name(const dg::PastEdit& edit) {
    constexpr std::size_t most = 60;
    return edit.name.size() <= most ? edit.name : edit.name.substr(0, most - 3) + "...";
}

void show_history(const EditOptions& options) {
    const dg::FoundWorld found = find_world(options);
    const std::vector<dg::PastEdit> edits = session_of(options, found).history();
    if (edits.empty()) {
        say("no edit of this world was made here yet\n");
        return;
    }
    std::size_t width = 0;
    for (const dg::PastEdit& edit : edits) width = std::max(width, short_name(edit).size());
    for (const dg::PastEdit& edit : edits)
        print(fmt::format("{:%Y-%m-%d %H:%M}  {:<{}}  {}{}\n", fmt::localtime(edit.seconds), short_name(edit), width,
                          fmt::join(edit.files, ", "), edit.undone ? "  (undone)" : ""));
}

}   // namespace

void add_history_verbs(CLI::App& app, const SharedOptions& o) {
    CLI::App* undo = app.add_subcommand("undo", "Undo the last edit");
    undo->callback([o] { go(*o, true); });
    undo->footer("Example: dryground edit room/world.toml undo");
    CLI::App* redo = app.add_subcommand("redo", "Redo the edit that was undone last");
    redo->callback([o] { go(*o, false); });
    redo->footer("Example: dryground edit room/world.toml redo");
    CLI::App* history = app.add_subcommand("history", "List the edits that were made, oldest first");
    history->callback([o] { show_history(*o); });
    history->footer("Example: dryground edit room/world.toml history");
}

}   // namespace app
