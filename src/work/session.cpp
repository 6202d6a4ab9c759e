// Edits made in a world's files, undone, and redone.
//
// Every edit is written to the journal first, then to the files, then marked as done (journal.cpp).

#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <filesystem>
#include <map>

#include "dryground/check.hpp"
#include "dryground/work.hpp"
#include "journal_internal.hpp"

namespace dryground {

namespace fs = std::filesystem;

using work::Entry;
using work::FileChange;
using work::Journal;
using work::State;

namespace {

bool is_text(const std::string& file) { return fs::path(file).extension() != ".png"; }

Failure cannot_write(const Result<void>& written) { return {fmt::format("cannot write {}", written.fault()), {}}; }

bool is_there(const fs::path& path) {
    std::error_code error;
    return fs::exists(fs::symlink_status(path, error));
}

// Changes files from one side of a change to the other.
class Rewriting {
public:
    Rewriting(fs::path folder, bool back) : folder_(std::move(folder)), back_(back) {}

    void add(const FileChange& change) {
        const std::optional<std::string>& from = back_ ? change.after : change.before;
        const std::optional<std::string>& to = back_ ? change.before : change.after;
        const fs::path path = folder_ / change.file;
        std::optional<std::string> now;
        if (is_there(path)) {
            Result<std::string> bytes = read_file(path);
            if (!bytes) return told(change, fmt::format("cannot be read ({})", bytes.fault()));
            now = *std::move(bytes);
        }
        if (now == to) return;
        if (now == from) return set(change, to);
        if (!now) return told(change, "is no longer there");
        if (!from) return told(change, "was made by somebody else since");
        if (!to || !is_text(change.file)) return told(change, "was changed since");
        Merged3 merged = merge_changes(*from, *now, *to);
        for (const std::size_t line : merged.left_out)
            made.told.push_back(
                fmt::format("{}: what stood in line {} was changed since, and is left as it is", change.file, line));
        if (merged.text != *now) set(change, std::move(merged.text));
    }

    Result<void> write() {
        if (const Result<void> written = write_files(writes_); !written) return cannot_write(written);
        std::error_code error;
        for (const fs::path& path : removals_) {
            fs::remove(path, error);
            if (error)
                made.told.push_back(fmt::format("{} could not be removed: {}", path.generic_string(), error.message()));
        }
        return {};
    }

    Made made;

private:
    void told(const FileChange& change, const std::string& why) {
        made.told.push_back(fmt::format("{} {}; it is left as it is", change.file, why));
    }
    void set(const FileChange& change, std::optional<std::string> to) {
        made.files.push_back(change.file);
        const fs::path path = folder_ / change.file;
        if (to)
            writes_.push_back({path.generic_string(), std::move(*to)});
        else
            removals_.push_back(path);
    }

    fs::path folder_;
    bool back_;
    std::vector<NamedBytes> writes_;
    std::vector<fs::path> removals_;
};

// Makes or undoes an edit of the journal. The state first records what is being done, so that it can be finished if
// interrupted: doing it twice has no further effect.
Result<Made> carry_out(const Journal& journal, const fs::path& folder, const Entry& entry, bool back) {
    const int before = back ? entry.number : entry.number - 1, after = back ? entry.number - 1 : entry.number;
    Rewriting rewriting(folder, back);
    rewriting.made.name = entry.name;
    rewriting.made.changed = entry.files.size();
    if (const Result<void> begun = journal.set_state({before, entry.number, back}); !begun)
        return Failure{fmt::format("cannot write the history: {}", begun.fault())};
    for (const FileChange& change : entry.files) rewriting.add(change);
    const Result<void> written = rewriting.write();
    if (const Result<void> ended = journal.set_state({written ? after : before, 0, false}); !ended)
        rewriting.made.told.push_back(fmt::format("cannot write the history: {}", ended.fault()));
    if (!written) return written.failure();
    return std::move(rewriting.made);
}

fs::path folder_of(const std::string& world_file) { return fs::path(world_file).parent_path(); }

std::optional<std::string> bytes_in(Result<std::string> file) {
    return file ? std::optional(*std::move(file)) : std::nullopt;
}

}   // namespace

EditSession::EditSession(std::string world_file, WorkOptions options)
    : world_file_(std::move(world_file)), options_(std::move(options)) {
    const Journal journal(options_.history, world_file_);
    const State state = journal.state();
    if (state.pending == 0) return;
    if (const auto entry = journal.entry(state.pending))
        (void)carry_out(journal, folder_of(world_file_), *entry, state.back);
    else
        (void)journal.set_state({state.done, 0, false});
}

namespace {

Report findings_of(const Result<World>& loaded, const CheckOptions& options) {
    Report report = loaded.report();
    if (loaded) report.add(check(*loaded, options));
    return report;
}

void compare_findings(const Report& before, const Report& after, Made& made) {
    made.checked = true;
    made.new_findings = findings_only_in(after, before);
    made.fixed_findings = findings_only_in(before, after);
}

}   // namespace

Result<Edited> EditSession::plan(const WorldEdit& edit) const { return make_edit(world_file_, edit, options_.reader); }

Result<Made> EditSession::make(const WorldEdit& edit, const std::string& name) {
    const auto* of_map = std::get_if<EditMap>(&edit);
    const bool whole = options_.checking == Checking::world;
    Result<World> before = Failure{}, after = Failure{};
    Result<Made> made = write(edit, name, whole ? EditReads::all : EditReads::needed, before, after);
    const bool wanted = whole || (options_.checking == Checking::map && of_map != nullptr);
    if (!made || !wanted) return made;
    const CheckOptions options{pictures_of(world_file_, options_.reader), whole ? "" : of_map->map};
    compare_findings(findings_of(before, options), findings_of(after, options), *made);
    return made;
}

Result<Made> EditSession::write(const WorldEdit& edit, const std::string& name, EditReads reads, Result<World>& before,
                                Result<World>& after) {
    const fs::path folder = folder_of(world_file_);
    Result<Edited> planned = Failure{};
    Entry entry;
    for (int times = 0; times < 3; ++times) {
        std::map<std::string, std::optional<std::string>> seen;   // what the edit was computed from
        planned = make_edit(
            world_file_, edit,
            [&](const std::string& path) {
                Result<std::string> bytes = options_.reader(path);
                seen[fs::path(path).lexically_normal().generic_string()] = bytes_in(bytes);
                return bytes;
            },
            reads);
        if (!planned) return planned.failure();
        entry.files.clear();
        bool as_seen = true;
        for (const NamedBytes& file : planned->files) {
            const fs::path path = folder / file.file;
            std::optional<std::string> now = bytes_in(read_file(path));
            const auto was = seen.find(path.lexically_normal().generic_string());
            as_seen = as_seen && (was == seen.end() || was->second == now || path == fs::path(world_file_));
            entry.files.push_back({file.file, std::move(now), file.bytes});
        }
        if (as_seen) break;
    }
    Made made;
    made.name = name, made.changed = planned->changed;
    before = std::move(planned->before), after = std::move(planned->after);
    if (planned->files.empty()) return made;
    if (options_.accept && !options_.accept(*planned)) return made;
    const Journal journal(options_.history, world_file_);
    entry.number = journal.state().done + 1;
    entry.name = name;
    entry.seconds =
        std::chrono::duration_cast<std::chrono::seconds>(std::chrono::system_clock::now().time_since_epoch()).count();
    journal.forget_after(entry.number - 1);
    const Result<void> remembered = journal.add(entry);
    if (remembered && journal.kept()) {
        Result<Made> carried = carry_out(journal, folder, entry, false);
        if (carried)
            carried->changed = planned->changed;
        else
            journal.forget_after(entry.number - 1);
        journal.forget_old(options_.most_edits, options_.most_bytes);
        return carried;
    }
    std::vector<NamedBytes> files = planned->files;
    for (NamedBytes& file : files) file.file = (folder / file.file).generic_string();
    if (const Result<void> written = write_files(files); !written) return cannot_write(written);
    for (const NamedBytes& file : planned->files) made.files.push_back(file.file);
    if (!remembered) made.told.push_back(fmt::format("this edit cannot be undone: {}", remembered.fault()));
    return made;
}

Result<Made> EditSession::undo() {
    return go([this]() -> Result<Made> {
        const Journal journal(options_.history, world_file_);
        if (const int done = journal.state().done; done > 0)
            if (const auto entry = journal.entry(done)) return carry_out(journal, folder_of(world_file_), *entry, true);
        return Failure{"the history has no edit of this world that could be undone"};
    });
}

Result<Made> EditSession::redo() {
    return go([this]() -> Result<Made> {
        const Journal journal(options_.history, world_file_);
        if (const auto entry = journal.entry(journal.state().done + 1))
            return carry_out(journal, folder_of(world_file_), *entry, false);
        return Failure{"no edit of this world was undone since the last one"};
    });
}

Result<Made> EditSession::go(const std::function<Result<Made>()>& carried) const {
    if (options_.checking != Checking::world) return carried();
    const auto findings = [&] {
        return findings_of(load_world(world_file_, options_.reader), {pictures_of(world_file_, options_.reader), {}});
    };
    const Report before = findings();
    Result<Made> made = carried();
    if (made) compare_findings(before, findings(), *made);
    return made;
}

std::vector<PastEdit> EditSession::history() const {
    const Journal journal(options_.history, world_file_);
    const int done = journal.state().done;
    std::vector<PastEdit> edits;
    for (const int number : journal.numbers())
        if (const auto entry = journal.entry(number)) {
            PastEdit past{entry->name, entry->seconds, {}, number > done};
            for (const FileChange& change : entry->files) past.files.push_back(change.file);
            edits.push_back(std::move(past));
        }
    return edits;
}

void EditSession::forget() {
    const Journal journal(options_.history, world_file_);
    journal.forget_after(0);
    if (journal.state().done > 0) (void)journal.set_state({});
}

}   // namespace dryground
